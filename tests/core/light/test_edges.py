"""Stairs made smooth: against the area that a slanting edge truly cuts off each pixel."""

import numpy as np
import pytest

from brave_tessel.core.kernels.edges import softened

PX, FINE = 64, 16


def slanting(degrees, low=40, high=220):
    """An edge as it is sampled once a pixel, and by the share of each pixel that it covers."""
    y, x = (np.mgrid[: PX * FINE, : PX * FINE] + 0.5) / FINE
    turn = np.deg2rad(degrees)
    over = np.cos(turn) * (y - PX / 2 - 0.13) + np.sin(turn) * (x - PX / 2 + 0.21) > 0
    fine = np.where(over, float(high), float(low))
    return fine[FINE // 2 :: FINE, FINE // 2 :: FINE], fine.reshape(PX, FINE, PX, FINE).mean((1, 3))


def codes(grey):
    return np.repeat(np.rint(grey)[..., None], 3, 2).astype(np.uint8)


@pytest.mark.parametrize("degrees", [3, 9, 17, 28, 36, 54, 61, 74, 86, 94, 120, 171])
def test_a_slanting_edge_covers_what_it_does(degrees):
    once, true = slanting(degrees)
    inner = np.s_[12:-12, 12:-12]
    before = np.abs(once - true)[inner].mean()
    after = np.abs(softened(codes(once))[..., 0] - true)[inner].mean()
    assert after < 0.65 * before


@pytest.mark.parametrize("axis", [0, 1])
def test_level_and_upright_edges_stay(axis):
    picture = codes(np.where(np.indices((PX, PX))[axis] < 30, 20.0, 200.0))
    assert np.array_equal(softened(picture), picture)


def test_what_has_little_contrast_stays():
    rng = np.random.default_rng(4)
    picture = rng.integers(120, 127, (40, 50, 3)).astype(np.uint8)
    assert np.array_equal(softened(picture), picture)


def test_a_turned_picture_is_softened_alike():
    picture = codes(slanting(23)[0])
    for turns in (1, 2, 3):
        turned = softened(np.ascontiguousarray(np.rot90(picture, turns)))
        assert np.abs(np.rot90(turned, -turns).astype(int) - softened(picture)).max() <= 1


@pytest.mark.parametrize("shape", [(1, 1), (2, 5), (3, 3), (1, 40)])
def test_small_pictures_are_taken(shape):
    picture = np.arange(np.prod(shape) * 3, dtype=np.uint8).reshape(*shape, 3)
    assert softened(picture).shape == picture.shape
