"""A sheet is a wrapped raster with a size; a grid is how finely it is sampled.

Sheet coordinates are millimetres: x to the right, y **up** from the lower edge, as levels go on a
building. Rows of a raster count downwards, so row 0 is the top.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import numpy as np
import numpy.typing as npt

from .errors import OutOfRangeError
from .phrases import say

Raster = npt.NDArray[np.float32]
"""(H, W) or (H, W, 3) float32."""
AnyArray = npt.NDArray[Any]

MAX_PX = 16_384


@dataclass(frozen=True, slots=True)
class Grid:
    """The sampling of one repeat: pixels and millimetres, both across and down."""

    width_px: int
    height_px: int
    width_mm: float
    height_mm: float

    def __post_init__(self) -> None:
        if not (1 <= self.width_px <= MAX_PX and 1 <= self.height_px <= MAX_PX):
            raise OutOfRangeError(
                "preview or delivery size",
                value=say("{width_px} × {height_px} px", width_px=self.width_px, height_px=self.height_px),
                allowed=say("1 to {max_px} px", max_px=MAX_PX),
            )
        if not (0 < self.width_mm < 1e6 and 0 < self.height_mm < 1e6):
            raise OutOfRangeError(
                "repeat",
                value=say("{width_mm:g} × {height_mm:g} mm", width_mm=self.width_mm, height_mm=self.height_mm),
                allowed="above 0 mm and below 1 km",
            )

    @classmethod
    def for_repeat(cls, width_mm: float, height_mm: float, px: int) -> Grid:
        """The grid whose longer side has ``px`` pixels and whose pixels are as square as can be."""
        if not (0 < width_mm < 1e6 and 0 < height_mm < 1e6):
            return cls(1, 1, width_mm, height_mm)  # refuses with its sentence
        longer = max(width_mm, height_mm)
        return cls(max(1, round(px * width_mm / longer)), max(1, round(px * height_mm / longer)), width_mm, height_mm)

    @property
    def shape(self) -> tuple[int, int]:
        """(rows, columns)."""
        return self.height_px, self.width_px

    @property
    def mm_per_px(self) -> tuple[float, float]:
        """Pixel pitch in mm, (across, down)."""
        return self.width_mm / self.width_px, self.height_mm / self.height_px

    @property
    def pitch_mm(self) -> float:
        """The geometric mean of the two pitches, mm."""
        across, down = self.mm_per_px
        return math.sqrt(across * down)

    def x_mm(self) -> npt.NDArray[np.float64]:
        """Pixel centres across, mm; (W,)."""
        return np.asarray((np.arange(self.width_px) + 0.5) * (self.width_mm / self.width_px), np.float64)

    def y_mm(self) -> npt.NDArray[np.float64]:
        """Pixel centres down the rows as heights above the lower edge, mm; (H,), falling."""
        rows = np.arange(self.height_px) + 0.5
        return np.asarray(self.height_mm - rows * (self.height_mm / self.height_px), np.float64)

    def across(self, *, upright: bool) -> tuple[float, npt.NDArray[np.float64]]:
        """The repeat's length across upright (or level) runs, mm, and the pixel centres along it."""
        return (self.width_mm, self.x_mm()) if upright else (self.height_mm, self.y_mm())

    def spread(self, line: AnyArray, *, upright: bool) -> AnyArray:
        """A line across upright (W,) or level (H,) runs, drawn out to (H, W)."""
        return np.ascontiguousarray(np.broadcast_to(line[None, :] if upright else line[:, None], self.shape))

    def row_column(self, x_mm: float, y_mm: float) -> tuple[int, int]:
        """The pixel that holds a wrapped point."""
        column = math.floor(x_mm / self.width_mm * self.width_px) % self.width_px
        row = math.floor((1 - y_mm / self.height_mm) * self.height_px) % self.height_px
        return row, column


def frozen(pixels: AnyArray) -> AnyArray:
    """The same array, read-only: results are shared between threads and never changed in place."""
    pixels.flags.writeable = False
    return pixels
