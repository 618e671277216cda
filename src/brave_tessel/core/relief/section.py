"""A cut through the relief along a level line, layer by layer."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from ..buildup.stack import Stack
from ..sheet import Raster


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


def cut_along(stacks: Sequence[Stack], y_mm: float, angle: float) -> Section:
    """The section along a line through the middle of the sheet at a level, turned by ``angle`` degrees, one sheet's
    width long; heights between pixels are linear, over the edges of the sheet as well.
    """
    if angle == 0:
        return cut_level(stacks, y_mm)
    grid = stacks[0].grid
    a = np.radians(angle)
    along = grid.x_mm() - grid.width_mm / 2
    x, y = grid.width_mm / 2 + along * np.cos(a), y_mm + along * np.sin(a)
    c, r = x / grid.mm_per_px[0] - 0.5, (grid.height_mm - y) / grid.mm_per_px[1] - 0.5
    kept, numbers = _distinct(stacks)
    heights = np.stack([_between(stack.height, r, c) for stack in kept])
    top = kept[-1].top[np.rint(r).astype(int) % grid.height_px, np.rint(c).astype(int) % grid.width_px]
    return Section(grid.x_mm(), heights, top, tuple(numbers), y_mm)


def _between(height: Raster, r: npt.NDArray[np.float64], c: npt.NDArray[np.float64]) -> Raster:
    r0, c0 = np.floor(r).astype(int), np.floor(c).astype(int)
    fr, fc = r - r0, c - c0
    rows, columns = height.shape
    at = [height[(r0 + dr) % rows, (c0 + dc) % columns] for dr, dc in ((0, 0), (0, 1), (1, 0), (1, 1))]
    return np.asarray((1 - fr) * ((1 - fc) * at[0] + fc * at[1]) + fr * ((1 - fc) * at[2] + fc * at[3]), np.float32)


def _distinct(stacks: Sequence[Stack]) -> tuple[list[Stack], list[int]]:
    """The stacks that differ from the one before, and which layers they are."""
    kept, numbers = [stacks[0]], []
    for number, stack in enumerate(stacks[1:]):
        if stack is not kept[-1]:
            kept.append(stack)
            numbers.append(number)
    return kept, numbers


def cut_level(stacks: Sequence[Stack], y_mm: float) -> Section:
    """The section at a level of the sheet; ``stacks`` are the surface after each layer, bare first.

    A hidden layer leaves its stack the same object as the one before and has no body.
    """
    grid = stacks[0].grid
    row, _ = grid.row_column(0, y_mm)
    kept, numbers = _distinct(stacks)
    heights = np.stack([stack.height[row] for stack in kept])
    return Section(grid.x_mm(), heights, kept[-1].top[row], tuple(numbers), y_mm)
