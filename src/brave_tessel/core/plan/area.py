"""A part of a wrapped sheet, and results cut to it: what a brush changed is worked out there and nowhere else."""

from __future__ import annotations

from dataclasses import dataclass, fields, is_dataclass, replace
from typing import Any

import numpy as np

from ..maps import MapSet
from ..sheet import AnyArray, Grid, frozen


@dataclass(frozen=True, slots=True)
class Area:
    """Rows and columns of a wrapped grid; ``row`` and ``column`` may lie outside it, and then wrap."""

    grid: Grid
    row: int
    column: int
    rows: int
    columns: int

    @property
    def own(self) -> Grid:
        """The area as a sheet of its own, its pixels as large as before."""
        across, down = self.grid.mm_per_px
        return Grid(self.columns, self.rows, self.columns * across, self.rows * down)

    @property
    def size(self) -> int:
        """Its pixels."""
        return self.rows * self.columns

    def grown(self, px: int) -> Area:
        """With a margin on every side."""
        return Area(self.grid, self.row - px, self.column - px, self.rows + 2 * px, self.columns + 2 * px)

    def aligned(self, step: int) -> Area:
        """The smallest area around it that begins and ends at multiples of ``step`` pixels."""
        row, column = self.row // step * step, self.column // step * step
        rows = -(-(self.row + self.rows - row) // step) * step
        columns = -(-(self.column + self.columns - column) // step) * step
        return Area(self.grid, row, column, rows, columns)

    def inside(self, outer: Area) -> Area:
        """The same area in the rows and columns of one around it."""
        return Area(outer.own, self.row - outer.row, self.column - outer.column, self.rows, self.columns)

    def corner_mm(self) -> tuple[float, float]:
        """Its lower left corner on the sheet, mm right and up; beyond the sheet where it wraps."""
        across, down = self.grid.mm_per_px
        return self.column * across, (self.grid.height_px - self.row - self.rows) * down

    def cut(self, result: Any) -> Any:
        """The area's share of a result on the whole grid: arrays, maps and stacks of arrays; anything else as it is."""
        if isinstance(result, np.ndarray):
            return self._cut_array(result)
        if isinstance(result, MapSet):
            return MapSet(self.own, {kind: self._cut_array(pixels) for kind, pixels in result.maps.items()})
        if isinstance(result, tuple):
            return tuple(self.cut(part) for part in result)
        if is_dataclass(result) and not isinstance(result, Grid | type):
            named = {entry.name: getattr(result, entry.name) for entry in fields(result)}
            return replace(
                result,
                **{name: self.own if isinstance(value, Grid) else self.cut(value) for name, value in named.items()},
            )
        return result

    def _cut_array(self, pixels: AnyArray) -> AnyArray:
        if pixels.shape[:2] != self.grid.shape:
            return pixels
        height, width = self.grid.shape
        row, column = self.row % height, self.column % width
        if row + self.rows <= height and column + self.columns <= width:
            part = np.ascontiguousarray(pixels[row : row + self.rows, column : column + self.columns])
        else:
            down, across = (row + np.arange(self.rows)) % height, (column + np.arange(self.columns)) % width
            part = pixels[down[:, None], across]
        return frozen(part)


def area_of(grid: Grid, left: float, low: float, right: float, high: float) -> Area:
    """The area that holds a rectangle in mm, x right and y up; it may lie beyond the sheet's edges."""
    across, down = grid.mm_per_px
    first, last = int(np.floor(left / across)), int(np.ceil(right / across))
    top, foot = grid.height_px - int(np.ceil(high / down)), grid.height_px - int(np.floor(low / down))
    return Area(grid, top, first, max(1, foot - top), max(1, last - first))
