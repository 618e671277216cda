"""A cut through the relief along a level line, layer by layer."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..buildup.seat import Stack


@dataclass(frozen=True, slots=True)
class Section:
    """Heights along a cut: ``x_mm`` (n,), and the surface after each shown layer, (layers + 1, n) mm.

    ``top`` (n,) tells which layer shows; ``numbers`` which layer of the build-up each surface is.
    """

    x_mm: npt.NDArray[np.float64]
    heights: npt.NDArray[np.float32]
    top: npt.NDArray[np.uint8]
    numbers: tuple[int, ...]
    y_mm: float

    @property
    def low(self) -> float:
        return float(self.heights[1:].min()) if len(self.heights) > 1 else 0.0

    @property
    def high(self) -> float:
        return float(self.heights[1:].max()) if len(self.heights) > 1 else 0.0


def cut_level(stacks: Sequence[Stack], y_mm: float) -> Section:
    """The section at a level of the sheet; ``stacks`` are the surface after each layer, bare first.

    A hidden layer leaves its stack the same object as the one before and has no body.
    """
    grid = stacks[0].grid
    row, _ = grid.row_column(0, y_mm)
    kept, numbers = [stacks[0]], []
    for number, stack in enumerate(stacks[1:]):
        if stack is not kept[-1]:
            kept.append(stack)
            numbers.append(number)
    heights = np.stack([stack.height[row] for stack in kept])
    return Section(grid.x_mm(), heights, kept[-1].top[row], tuple(numbers), y_mm)
