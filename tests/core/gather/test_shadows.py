"""A cast shadow lifted, on grounds whose colour without it is known."""

import cv2
import numpy as np
import pytest

from brave_tessel.core.gather.shadows import find_shadow, lift_shadow
from brave_tessel.core.sheet import Grid
from tests.core.repeat.closings import masonry, natural

GAIN = np.array([0.3, 0.34, 0.42])
PLACES = {"lit_x": 0.85, "lit_y": 0.6, "dark_x": 0.2, "dark_y": 0.4}


def ground(seed):
    rng = np.random.default_rng(seed)
    return natural(rng, (400, 400), 1.1) if seed % 2 else masonry(rng, (400, 400), (60, 30), 0.5, 1.1)


def shaded(colour, soft=4.0):
    """A slanting edge from the upper middle, dark and bluish to its left; and where it lies."""
    rows, columns = colour.shape[:2]
    share = np.zeros((rows, columns), np.float32)
    corners = [[0, 0], [int(columns * 0.45), 0], [int(columns * 0.7), rows], [0, rows]]
    cv2.fillPoly(share, [np.array(corners)], 1.0)
    share = cv2.GaussianBlur(share, (0, 0), soft)
    return (colour * (1 - share[..., None] * (1 - GAIN))).astype(np.float32), share


def off(one, other):
    return float(np.abs(np.log(np.maximum(one, 1e-4)) - np.log(np.maximum(other, 1e-4))).mean())


@pytest.mark.parametrize("seed", range(8))
def test_what_the_shadow_took_comes_back(seed):
    plain = ground(seed)
    grid = Grid(plain.shape[1], plain.shape[0], 400.0, 400.0)
    dark, share = shaded(plain)
    made = lift_shadow(grid, dark, strength=1.0, size=70.0, **PLACES)
    assert off(made, plain) < 0.3 * off(dark, plain)
    found = find_shadow(dark, grid, (340.0, 240.0), (80.0, 160.0), size=70.0)
    assert found.told
    assert np.abs(found.share - share).mean() < 0.04
    assert 1 / found.gain == pytest.approx(GAIN, rel=0.35)


def test_half_the_strength_leaves_half_the_stops():
    plain = ground(1)
    grid = Grid(plain.shape[1], plain.shape[0], 400.0, 400.0)
    dark, _ = shaded(plain)
    whole, half = (lift_shadow(grid, dark, strength=s, size=70.0, **PLACES) for s in (1.0, 0.5))
    assert np.allclose(np.log(half / dark), 0.5 * np.log(whole / dark), atol=1e-4)


@pytest.mark.parametrize("seed", range(6))
def test_where_no_shadow_can_be_told_nothing_is_changed(seed):
    plain = ground(seed)
    grid = Grid(plain.shape[1], plain.shape[0], 400.0, 400.0)
    assert np.array_equal(lift_shadow(grid, plain, strength=1.0, size=70.0, **PLACES), plain)


def test_places_the_wrong_way_round_lift_nothing():
    dark, _ = shaded(ground(1))
    grid = Grid(dark.shape[1], dark.shape[0], 400.0, 400.0)
    assert find_shadow(dark, grid, (80.0, 160.0), (340.0, 240.0), size=70.0) is None


@pytest.mark.parametrize("shape", [(16, 16), (16, 200)])
def test_small_and_even_pictures_are_left_alone(shape):
    even = np.full((*shape, 3), 0.3, np.float32)
    grid = Grid(shape[1], shape[0], 100.0, 100.0 * shape[0] / shape[1])
    assert np.array_equal(lift_shadow(grid, even, strength=1.0), even)
