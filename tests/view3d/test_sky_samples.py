"""Directions asked at rest: they stand for the whole sky however they are drawn, and go where the sky is seen."""

import numpy as np
import pytest

from brave_tessel.core.light.directions import octahedral_grid
from brave_tessel.core.light.presets import make_preset
from brave_tessel.core.place.site import site_of
from brave_tessel.view3d.drawn import scene_light
from brave_tessel.view3d.opening import Opening
from brave_tessel.view3d.scene import draw_parts
from brave_tessel.view3d.sky_samples import SIDE, SkyAim, SkySamples, even_direction, seen_sky
from tests.core.place.scenes import job
from tests.view3d.test_sky_seen import HALL

DOME = scene_light(make_preset("Two strips")).dome
SOUTH = np.clip(-octahedral_grid(SIDE)[..., 1], 0, 1).astype(float)


@pytest.mark.parametrize("seen", [None, SOUTH, np.zeros((SIDE, SIDE)), SOUTH**40])
def test_they_add_up_to_the_light_of_the_sky(seen):
    """Monte Carlo with a density: the mean of radiance over density is the whole (any text on it; here exactly 1)."""
    samples = SkySamples(DOME, seen)
    drawn = [samples.draw(k) for k in range(4000)]
    assert np.linalg.norm([toward for toward, _ in drawn], axis=1) == pytest.approx(1)
    assert np.mean([weight for _, weight in drawn]) == pytest.approx(1, rel=0.02)
    # And so is what comes from one side.
    up = np.mean([weight * (toward[2] > 0.3) for toward, weight in drawn])
    assert up == pytest.approx(samples.share[octahedral_grid(SIDE)[..., 2] > 0.3].sum(), abs=0.03)


def test_they_go_where_the_sky_is_seen():
    dome = scene_light(make_preset("Overcast")).dome
    samples = [SkySamples(dome, seen) for seen in (None, SOUTH**8)]
    plain, aimed = (np.mean([one.draw(k)[0][1] < -0.6 for k in range(600)]) for one in samples)
    assert aimed > plain + 0.3
    # No direction that shines is left out, even one that nothing is known to see.
    samples = SkySamples(DOME, SOUTH)
    assert samples.density.min() > 0


def test_a_room_sees_the_sky_through_its_openings_alone():
    rays = Opening(draw_parts(site_of(job(*HALL))))
    floor = np.array([[x, y, 0.0] for x in (1.0, 3.0, 5.0) for y in (1.0, 4.0, 7.0)])
    seen = seen_sky(rays, floor, np.tile([0.0, 0.0, 1.0], (9, 1)))
    ways = octahedral_grid(SIDE)
    assert seen[ways[..., 2] < -0.05].max() == 0
    assert seen[ways[..., 2] > 0.97].max() == 0
    assert seen.max() > 0
    # Without anything over it a level floor takes in each direction by its height.
    open_ = seen_sky(Opening([]), floor, np.tile([0.0, 0.0, 1.0], (9, 1)))
    assert open_ == pytest.approx(np.maximum(ways[..., 2], 0), abs=1e-6)


def test_one_picture_goes_on_where_another_ended():
    aim = SkyAim()
    aim.take(DOME)
    first = [aim.draw()[0] for _ in range(3)]
    aim.take(DOME)
    assert not any(np.allclose(aim.draw()[0], one) for one in first)


def test_even_directions_are_even_from_the_start():
    """Mean 0 and second moments a third, after few already."""
    for count, most in ((24, 0.12), (60, 0.06), (256, 0.02)):
        ways = np.array([even_direction(k) for k in range(count)])
        assert np.linalg.norm(ways, axis=1) == pytest.approx(1)
        assert np.abs(ways.mean(0)).max() < most
        assert np.abs(ways.T @ ways / count - np.eye(3) / 3).max() < most
