"""A cut through the relief along a level line, layer by layer."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from ..buildup.stack import Stack
from ..sheet import AnyArray, Grid, Raster


@dataclass(frozen=True)
class Section:
    """Heights along a cut: ``x_mm`` (n,), and the surface after each shown layer, (layers + 1, n) mm.

    ``top`` (n,) tells which layer shows; ``numbers`` which layer of the build-up each surface is.
    """

    x_mm: npt.NDArray[np.float64]
    heights: npt.NDArray[np.float32]
    top: npt.NDArray[np.uint8]
    numbers: tuple[int, ...]
    y_mm: float

    @cached_property
    def low(self) -> float:
        """The lowest height of any body, mm."""
        return float(self.heights[1:].min()) if len(self.heights) > 1 else 0.0

    @cached_property
    def high(self) -> float:
        """The highest height of any body, mm."""
        return float(self.heights[1:].max()) if len(self.heights) > 1 else 0.0


@dataclass(frozen=True, slots=True)
class Bed:
    """What one layer leaves: the relief after it (H, W) in mm, and how many layers lie there by then."""

    height: Raster
    layers: int

    @property
    def nbytes(self) -> int:
        """Bytes of its relief, for the cache."""
        return self.height.nbytes


@dataclass(frozen=True, slots=True)
class Beds:
    """The relief after each layer of a build-up on ``grid``, the bare sheet first, and the number of the layer on top
    (H, W). All are sampled once every so many pixels where the grid is finer than a cut is drawn.
    """

    grid: Grid
    heights: tuple[Raster, ...]
    numbers: tuple[int, ...]
    top: npt.NDArray[np.uint8]

    @property
    def nbytes(self) -> int:
        """Bytes of all its rasters, for the cache."""
        return self.top.nbytes + sum(height.nbytes for height in self.heights)


FINE_PX = 2048
"""A cut is drawn from so many samples at most."""


def _sparse(pixels: AnyArray) -> AnyArray:
    step = max(1, -(-max(pixels.shape) // FINE_PX))
    return pixels if step == 1 else np.ascontiguousarray(pixels[::step, ::step])


def bed_of(stack: Stack) -> Bed:
    """What the last layer of a stack leaves, as a cut needs it."""
    return Bed(_sparse(stack.height), stack.layers)


def beds_of(*made: Bed | Stack) -> Beds:
    """The beds of a whole build-up, given from the bare sheet up, and then its last stack, which tells who lies on top.
    A layer that is hidden or failed leaves what was there before, and has no body.
    """
    beds, last = [bed for bed in made if isinstance(bed, Bed)], made[-1]
    assert isinstance(last, Stack)
    kept, numbers = beds[:1], []
    for number, bed in enumerate(beds[1:]):
        if bed.layers != kept[-1].layers:
            kept.append(bed)
            numbers.append(number)
    return Beds(last.grid, tuple(bed.height for bed in kept), tuple(numbers), _sparse(last.top))


def cut_along(beds: Beds, y_mm: float, angle: float = 0.0) -> Section:
    """The section along a line through the middle of the sheet at a level, turned by ``angle`` degrees, one sheet's
    width long; heights between pixels are linear, over the edges of the sheet as well.
    """
    rows, columns = beds.top.shape
    grid = Grid(columns, rows, beds.grid.width_mm, beds.grid.height_mm)
    if angle == 0:
        row, _ = grid.row_column(0, y_mm)
        heights = np.stack([height[row] for height in beds.heights])
        return Section(grid.x_mm(), heights, beds.top[row], beds.numbers, y_mm)
    a = np.radians(angle)
    along = grid.x_mm() - grid.width_mm / 2
    x, y = grid.width_mm / 2 + along * np.cos(a), y_mm + along * np.sin(a)
    c, r = x / grid.mm_per_px[0] - 0.5, (grid.height_mm - y) / grid.mm_per_px[1] - 0.5
    heights = np.stack([_between(height, r, c) for height in beds.heights])
    top = beds.top[np.rint(r).astype(int) % rows, np.rint(c).astype(int) % columns]
    return Section(grid.x_mm(), heights, top, beds.numbers, y_mm)


def _between(height: Raster, r: npt.NDArray[np.float64], c: npt.NDArray[np.float64]) -> Raster:
    r0, c0 = np.floor(r).astype(int), np.floor(c).astype(int)
    fr, fc = r - r0, c - c0
    rows, columns = height.shape
    at = [height[(r0 + dr) % rows, (c0 + dc) % columns] for dr, dc in ((0, 0), (0, 1), (1, 0), (1, 1))]
    return np.asarray((1 - fr) * ((1 - fc) * at[0] + fc * at[1]) + fr * ((1 - fc) * at[2] + fc * at[3]), np.float32)
