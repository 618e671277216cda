"""Relief of one material under a light from one side, against reliefs that are known.

The pictures are Lambert's law over made-up reliefs, with a share of sky and grain of their own; none of them was used
to set anything.
"""

import numpy as np
import pytest

from brave_tessel.core.kernels.relief import normal_of_height
from brave_tessel.core.recipe.steps.noise import clouds, pebbles, ripples
from brave_tessel.core.relief.estimate import height_from_colour
from brave_tessel.core.sheet import Grid

GRID = Grid(256, 192, 320.0, 240.0)
RELIEFS = {
    "clouds": lambda seed: clouds(GRID, size=60, octaves=4, seed=seed) * 12,
    "pebbles": lambda seed: pebbles(GRID, size=40, seed=seed) * 6,
    "ripples": lambda seed: ripples(GRID, spacing=40, crest=0.2) * 5 + clouds(GRID, size=50, octaves=3, seed=seed) * 6,
}


def photo(height, bearing, up, seed):
    """Linear colour of one material lit by a sun and a third as much sky."""
    turn, rise = np.radians([bearing, up])
    light = np.float32([np.cos(turn) * np.cos(rise), np.sin(turn) * np.cos(rise), np.sin(rise)])
    lit = np.maximum(normal_of_height(height, GRID) @ light, 0) / light[2]
    grain = 1 + 0.05 * np.random.default_rng(seed).standard_normal(GRID.shape)
    return (np.float32([0.42, 0.36, 0.28]) * ((0.75 * lit + 0.25) * grain)[..., None] * 0.6).astype(np.float32)


def likeness(found, truth):
    """Correlation of the slopes of two heights."""
    slopes = [normal_of_height(np.ascontiguousarray(one, np.float32), GRID) for one in (found, truth)]
    a, b = ((one[..., :2] / one[..., 2:]).ravel() for one in slopes)
    return float(np.corrcoef(a, b)[0, 1])


@pytest.mark.parametrize("kind", RELIEFS)
@pytest.mark.parametrize(("bearing", "up"), [(20, 25), (140, 40), (-100, 30), (90, 55)])
def test_slopes_lie_where_the_relief_has_them(kind, bearing, up):
    """Tone alone (dark is low) puts a flank where a slope turns from the light; shading puts it right."""
    height = RELIEFS[kind](bearing + 300).astype(np.float32)
    colour = photo(height, bearing, up, up)
    plain = height_from_colour(GRID, colour, as_told=True)
    lit = height_from_colour(GRID, colour, as_told=True, one_side=True, light_bearing=bearing, light_height=up)
    assert likeness(lit, height) > likeness(plain, height) + 0.3
    assert lit.mean() == pytest.approx(0, abs=1e-4)


def test_a_light_said_from_the_other_side_turns_the_relief_over():
    height = RELIEFS["pebbles"](5).astype(np.float32)
    colour = photo(height, 30, 30, 1)
    right, wrong = (
        height_from_colour(GRID, colour, broad=80, one_side=True, light_bearing=b, light_height=30) for b in (30, -150)
    )
    assert likeness(right, height) > 0.5
    assert likeness(wrong, height) < -0.3
    assert np.abs(right).max() == pytest.approx(np.abs(height - height.mean()).max(), rel=0.5)


def test_it_is_the_same_relief_however_many_pixels_it_has():
    height = RELIEFS["clouds"](9).astype(np.float32)
    colour = photo(height, 30, 30, 1)
    twice = np.repeat(np.repeat(colour, 2, 0), 2, 1)
    said = {"as_told": True, "one_side": True, "light_bearing": 30, "light_height": 30}
    small = height_from_colour(GRID, colour, **said)
    large = height_from_colour(Grid(512, 384, 320.0, 240.0), twice, **said)
    back = large.reshape(192, 2, 256, 2).mean((1, 3))
    assert np.abs(back - small).max() < 0.05 * np.abs(small).max()
