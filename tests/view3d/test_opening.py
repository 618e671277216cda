"""How far an eye opens: by rays, the same for the window and its stills, whatever was drawn before."""

from dataclasses import replace

import numpy as np
import pytest

from brave_tessel.core.light.directions import even_directions
from brave_tessel.core.light.presets import make_preset
from brave_tessel.core.place.site import site_of
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob
from brave_tessel.view3d import rest
from brave_tessel.view3d.camera import from_points
from brave_tessel.view3d.drawn import DrawPart, Look, scene_light
from brave_tessel.view3d.opening import Opening, opened
from brave_tessel.view3d.openness import eased
from brave_tessel.view3d.renderer import Renderer
from brave_tessel.view3d.scene import draw_parts
from brave_tessel.view3d.stills.make import Wanted, finish_of, of_scene, refined_still
from tests.core.place.scenes import job
from tests.view3d.test_sky_seen import HALL, wall

AHEAD = np.array([0.0, 4.0, 0.0])


def parts(pieces):
    return draw_parts(site_of(job(*pieces)))


def box(size, *, inward=False):
    """A closed box about the origin, its faces looking outward."""
    corners = np.array([[x, y, z] for x in (-1, 1) for y in (-1, 1) for z in (-1, 1)], np.float32) * size
    quads = [(0, 1, 3, 2), (4, 6, 7, 5), (0, 4, 5, 1), (2, 3, 7, 6), (0, 2, 6, 4), (1, 5, 7, 3)]
    triangles = np.array([t for a, b, c, d in quads for t in ((a, b, c), (a, c, d))])
    if inward:
        triangles = triangles[:, ::-1]
    places = corners[triangles].reshape(-1, 3)
    flat = np.zeros_like(places)
    return DrawPart("b", places, flat, flat, "", (0.5, 0.5, 0.5))


def test_directions_lie_evenly():
    """Their moments are those of the sphere: mean 0, second moments a third (any text on quadrature)."""
    ways = even_directions(192)
    assert np.linalg.norm(ways, axis=1) == pytest.approx(1)
    assert np.abs(ways.mean(0)).max() < 0.01
    assert np.abs(ways.T @ ways / len(ways) - np.eye(3) / 3).max() < 0.01


def test_nothing_opens_under_the_open_sky():
    assert Opening([]).factor(np.zeros(3), AHEAD) == 1
    flat = parts([wall("ground", 400_000.0, 400_000.0, 100.0, (-200_000.0, -200_000.0, -100.0))])
    eye = np.array([0.0, 0.0, 1.6])
    assert Opening(flat).share(eye, eye + AHEAD) == pytest.approx(0.5, abs=0.03)
    assert Opening(flat).factor(eye, eye + AHEAD) == pytest.approx(1, abs=0.02)


def test_half_of_all_directions_are_open_beside_a_wide_wall():
    """A plane hides half of the sphere; a wall that stands on the ground three quarters of it."""
    slab = parts([wall("slab", 60_000.0, 200.0, 60_000.0, (-30_000.0, 300.0, -30_000.0))])
    eye = np.array([0.0, 0.0, 0.0])
    assert Opening(slab).share(eye, eye - AHEAD) == pytest.approx(0.5, abs=0.04)
    ground = wall("ground", 60_000.0, 60_000.0, 100.0, (-30_000.0, -30_000.0, -400.0))
    both = parts([wall("slab", 60_000.0, 200.0, 60_000.0, (-30_000.0, 300.0, -30_000.0)), ground])
    assert Opening(both).share(eye, eye + [4.0, 0.0, 0.0]) == pytest.approx(0.25, abs=0.04)


def test_an_eye_in_a_closed_room_opens_as_far_as_it_can():
    assert Opening([box(2.0, inward=True)]).share(np.zeros(3), AHEAD) == 0
    # A room whose faces were made to be seen from outside is as dark.
    assert Opening([box(2.0)]).share(np.zeros(3), AHEAD) == 0
    assert opened(0.0) == 9
    assert opened(0.1) > 2


def test_an_eye_within_a_wall_is_as_open_as_what_it_comes_out_to():
    found = Opening(parts([wall("wall", 60_000.0, 400.0, 60_000.0, (-30_000.0, 0.0, -30_000.0))]))
    along = np.linspace(-1.0, 1.4, 49) + 0.013
    for way in (AHEAD, -AHEAD):
        shares = [found.share(np.array([0.0, y, 0.0]), np.array([0.0, y, 0.0]) + way) for y in along]
        assert min(shares) > 0.4


def test_a_pane_is_looked_through_and_a_roof_is_not():
    slab = parts([wall("slab", 60_000.0, 60_000.0, 200.0, (-30_000.0, -30_000.0, 300.0))])
    eye = np.zeros(3)
    assert Opening(slab).share(eye, eye + AHEAD) == pytest.approx(0.5, abs=0.04)
    assert Opening([replace(part, clear=True) for part in slab]).share(eye, eye + AHEAD) == 1


def test_walking_into_a_hall_the_eye_opens_by_and_by():
    found = Opening(parts(HALL))
    places = [np.array([5.2, y, 1.6]) for y in np.linspace(-9, 6, 61)]
    factors = np.array([found.factor(place, place + AHEAD) for place in places])
    assert factors[0] < 1.2
    assert factors[-1] > 2.5
    assert np.abs(np.diff(np.log2(factors))).max() < 0.6


@pytest.fixture(scope="module")
def renderer():
    made = Renderer()
    yield made
    made.release()


def test_the_window_opens_at_once_as_it_will_at_rest(renderer):
    """Neither what was learnt of the sky nor what moves has a say in it."""
    renderer.set_parts(parts(HALL))
    eye = np.array([1.0, 1.0, 1.6])
    look = Look(from_points(eye, eye + AHEAD), 90, 60, light=scene_light(make_preset("Noon, clear")), adapts=True)
    renderer.draw(replace(look, moving=True))
    first = renderer.sky_seen.opening(look.camera.eye, np.array(look.camera.target))
    for number in range(4):
        renderer.refine(look, number)
    assert renderer.sky_seen.opening(look.camera.eye, np.array(look.camera.target)) == first > 2
    # Another roof is asked of when it rests.
    renderer.set_parts(parts([one for one in HALL if one.id != "roof"]))
    renderer.draw(replace(look, moving=True))
    assert renderer.sky_seen.opening(look.camera.eye, np.array(look.camera.target)) == first
    renderer.refine(look, 0)
    assert renderer.sky_seen.opening(look.camera.eye, np.array(look.camera.target)) < first


def test_a_still_is_exposed_as_the_window_is(monkeypatch):
    """The exposure of a still and the one that the window arrives at for the same view, a sunny room."""
    monkeypatch.setattr(rest, "PASSES", 4)
    snapshot = Session(OpenedJob(job(*HALL))).snapshot()
    eye = np.array([1.0, 1.0, 1.6])
    camera = from_points(eye, eye + [2.0, 4.0, -0.5])
    wanted = of_scene(snapshot, "", (120, 80), px=64, current=lambda: True, camera=camera)
    renderer = Renderer()
    renderer.set_parts(wanted.parts)
    for number in range(4):
        renderer.refine(wanted.look, number)
    renderer.refined(wanted.look, 4)
    window = renderer._shown_at(wanted.look)
    renderer.release()
    still = refined_still(wanted, lambda: True)
    assert finish_of(wanted, still).exposure == pytest.approx(window, rel=0.05)
    assert finish_of(replace(wanted, look=replace(wanted.look, adapts=False)), still).exposure == wanted.exposure


def test_an_eye_under_a_roof_closes_for_what_the_sun_lights():
    light, built = np.full((60, 80, 3), 0.2, np.float32), np.ones((60, 80), bool)
    assert eased(4.0, 1.0, light, built) == 4.0
    light[:10] = 2.0
    assert 1.0 <= eased(4.0, 1.0, light, built) < 2.0
    light[:10] = 200.0
    assert eased(4.0, 1.0, light, built) == 1.0
    # What lies behind the building is no reason.
    built[:10] = False
    assert eased(4.0, 1.0, light, built) == 4.0


def test_a_picture_that_does_not_adapt_keeps_its_exposure():
    light = np.full((20, 20, 3), 50.0, np.float32)
    ones = np.ones((20, 20), np.float32)
    from brave_tessel.view3d.stills.run import Still

    still = Still(light, ones, light, np.full_like(light, 0.6), ones, 4)
    look = Look(from_points(np.zeros(3), AHEAD), 20, 20)
    assert finish_of(Wanted([], {}, look, 2.0), still).exposure == 2
    assert finish_of(Wanted([], {}, replace(look, adapts=True), 2.0), still).exposure == 1
