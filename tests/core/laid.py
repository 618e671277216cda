"""Maps to lay and a way to lay them, shared by the tests of layers."""

import numpy as np

from brave_tessel.core.buildup.seat import ByHeight, LaidOver, Seat, bare, lay
from brave_tessel.core.job.layers import MapMix
from brave_tessel.core.maps import BLENDED, MapKind, MapSet
from brave_tessel.core.recipe.steps.noise import clouds
from brave_tessel.core.sheet import Grid

GRID = Grid(64, 48, 320.0, 240.0)
PLAIN = {kind: MapMix() for kind in BLENDED}


def flat(level=0.0, shade=0.5, grid=GRID, **more):
    maps = {
        MapKind.HEIGHT: np.full(grid.shape, level, np.float32),
        MapKind.BASE_COLOUR: np.full((*grid.shape, 3), shade, np.float32),
        MapKind.ROUGHNESS: np.full(grid.shape, shade, np.float32),
    }
    return MapSet(grid, maps).with_maps(**more)


def waves(grid=GRID, size=30.0, rise=4.0, seed=3):
    return clouds(grid, size=size, octaves=4, seed=seed) * np.float32(rise)


def on(maps, below=None, cover=None, mixes=PLAIN, **seat):
    return lay(below or bare(maps.grid), maps, cover, mixes, seat_with(**seat))


def seat_with(*, contest=True, **values) -> Seat:
    return ByHeight(**values) if contest else LaidOver(**values)
