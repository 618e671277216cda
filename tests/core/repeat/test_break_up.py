"""Histogram-preserving blending: check-values D4; open data in scikit-image."""

import numpy as np
import pytest
from skimage import data

from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.repeat.break_up import blend, break_up, gaussian
from brave_tessel.core.repeat.meters import echo, read_seam
from brave_tessel.core.sheet import Grid
from tests.core.repeat.mending import mend


@pytest.mark.parametrize("shape", ["skewed", "two peaks", "photo"])
def test_there_and_back_is_the_same(shape):
    rng = np.random.default_rng(1)
    raster = {
        "skewed": rng.gamma(2, 1, (200, 200)),
        "two peaks": rng.normal(0, 0.1, (200, 200)) + (rng.random((200, 200)) > 0.4),
        "photo": data.gravel() / 255,
    }[shape].astype(np.float32)
    made = gaussian(raster)
    assert made.normal.mean() == pytest.approx(0, abs=0.03)
    assert made.normal.std() == pytest.approx(1, abs=0.03)
    back = made.back(made.normal)
    assert np.sqrt(np.mean((back - raster) ** 2)) < 0.03 * raster.std()


@pytest.mark.parametrize("exponent", [1.0, 3.0, 8.0])
def test_contrast_does_not_drop_where_patches_mix(exponent):
    # D4: a plain blend of three loses up to 42 % of the spread; the preserved one keeps it, tolerance 1 %.
    noise = np.random.default_rng(2).normal(0, 1, (300, 300, 1)).astype(np.float32)
    mixed = blend(noise, (600, 600), (8, 8), seed=3, exponent=exponent)
    assert mixed.std() == pytest.approx(1.0, abs=0.01)
    assert mixed.mean() == pytest.approx(0.0, abs=0.02)
    for row in range(0, 600, 75):
        assert mixed[row : row + 75].std() == pytest.approx(1.0, abs=0.05)


@pytest.fixture(scope="module")
def cell():
    grey = (data.gravel() / 255).astype(np.float32)
    grid = Grid(512, 512, 512, 512)
    whole = MapSet(
        grid,
        {
            MapKind.BASE_COLOUR: np.repeat(grey[..., None], 3, 2) * np.array([1, 0.8, 0.6], np.float32),
            MapKind.HEIGHT: grey,
        },
    )
    return mend("mend.best_cut", whole)


@pytest.fixture(scope="module")
def broken(cell):
    return break_up(cell.grid, cell, across=3, up=2, patch=120.0, crisp=0.6, seed=4)


def test_the_larger_sheet_wraps(cell, broken):
    assert broken.grid.width_mm == pytest.approx(3 * cell.grid.width_mm)
    assert broken.grid.height_px == 2 * cell.grid.height_px
    for kind in broken:
        for axis in (0, 1):
            assert read_seam(broken[kind], axis=axis, structured=True).closes


def test_it_keeps_the_histogram(cell, broken):
    for kind in cell:
        before, after = (np.quantile(m[kind], (0.05, 0.25, 0.5, 0.75, 0.95)) for m in (cell, broken))
        assert np.abs(after - before).max() < 0.03
    ratio = broken[MapKind.BASE_COLOUR].mean((0, 1))
    assert ratio[1] / ratio[0] == pytest.approx(0.8, abs=0.02)


def test_the_echo_at_one_cell_is_gone(cell, broken):
    field = np.tile(cell[MapKind.HEIGHT], (2, 3))
    assert echo(field)[0, cell.grid.width_px] == pytest.approx(1, abs=1e-6)
    assert abs(echo(broken[MapKind.HEIGHT])[0, cell.grid.width_px]) < 0.3


def test_maps_move_together(broken):
    lit, height = broken[MapKind.BASE_COLOUR][..., 0], broken[MapKind.HEIGHT]
    assert np.corrcoef(lit.ravel(), height.ravel())[0, 1] > 0.98


def test_one_by_one_is_the_cell_itself(cell):
    assert break_up(cell.grid, cell, across=1, up=1) is cell
