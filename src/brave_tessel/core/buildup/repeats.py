"""A layer laid in whole repeats within a surface's sheet."""

from __future__ import annotations

from ..maps import MapKind, MapSet
from ..repeat.resample import tiled_map
from ..sheet import Grid


def cell_grid(grid: Grid, across: int, up: int, size_mm: tuple[float, float] | None = None) -> Grid:
    """The grid of one repeat of a layer that is laid several times; its real size where that is known."""
    width, height = size_mm or (grid.width_mm / across, grid.height_mm / up)
    return Grid(max(8, -(-grid.width_px // across)), max(8, -(-grid.height_px // up)), width, height)


def tiled(maps: MapSet, *, grid: Grid, across: int, up: int) -> MapSet:
    """Every map of one repeat laid so many times on a grid; curvature is made anew from the joined relief."""
    kept = {kind: pixels for kind, pixels in maps.maps.items() if kind is not MapKind.CURVATURE}
    return MapSet(grid, {kind: tiled_map(kind, pixels, across, up, grid.shape) for kind, pixels in kept.items()})


def whole_count(whole_mm: float, part_mm: float) -> int:
    """How many whole parts come nearest to filling a length, at least one."""
    return max(1, round(whole_mm / part_mm)) if part_mm > 0 else 1
