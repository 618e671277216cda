"""A band cut out of a surface's maps: a sheet that repeats along and is as high as the band."""

from __future__ import annotations

import numpy as np

from ...core.job.layers import Band
from ...core.maps import MapSet
from ...core.sheet import Grid


def rows_of(band: Band, rows: int, height_mm: float) -> slice:
    """The rows of a picture that a band takes; row 0 is the uppermost, and there is always one."""
    first = round(rows * (1 - band.high / height_mm))
    last = round(rows * (1 - band.low / height_mm))
    first = min(max(first, 0), rows - 1)
    return slice(first, max(first + 1, min(last, rows)))


def banded(maps: MapSet, band: Band) -> MapSet:
    """Every map of a set within a band."""
    grid = maps.grid
    rows = rows_of(band, grid.height_px, grid.height_mm)
    own = Grid(grid.width_px, rows.stop - rows.start, grid.width_mm, band.height)
    return MapSet(own, {kind: np.ascontiguousarray(pixels[rows]) for kind, pixels in maps.maps.items()})
