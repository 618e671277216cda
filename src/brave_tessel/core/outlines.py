"""Outlines of letters and drawn shapes: closed contours that are laid on a sheet and measured from inside."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from .kernels.outline import measure_outline
from .sheet import Grid, Raster

Contour = npt.NDArray[np.float64]
"""(n, 2) points of a closed line, y up; the last joins the first."""


@dataclass(frozen=True, slots=True)
class Outline:
    """Closed contours filled by the non-zero rule, in a unit of their own, y up."""

    contours: tuple[Contour, ...] = ()

    @property
    def nbytes(self) -> int:
        """Bytes of all its points, for the cache."""
        return sum(contour.nbytes for contour in self.contours)

    def box(self) -> tuple[float, float, float, float]:
        """Left, low, right, high; all 0 where nothing is drawn."""
        if not self.contours:
            return 0.0, 0.0, 0.0, 0.0
        points = np.concatenate(self.contours)
        (left, low), (right, high) = points.min(0), points.max(0)
        return float(left), float(low), float(right), float(high)

    def placed(
        self, *, at: tuple[float, float], turn: float = 0.0, size: float = 1.0, stretch: float = 1.0, skew: float = 0.0
    ) -> Outline:
        """The outline with its middle at a point in mm, scaled by ``size`` (across once more by ``stretch``), leaning
        by ``skew`` and turned by ``turn`` degrees anticlockwise.
        """
        left, low, right, high = self.box()
        middle = np.array([(left + right) / 2, (low + high) / 2])
        a = math.radians(turn)
        lean = np.array([[1.0, 0.0], [math.tan(math.radians(skew)), 1.0]])
        rotate = np.array([[math.cos(a), math.sin(a)], [-math.sin(a), math.cos(a)]])
        matrix = np.diag([size * stretch, size]) @ lean @ rotate
        return Outline(tuple((contour - middle) @ matrix + at for contour in self.contours))


def inside_of(outline: Outline, grid: Grid, *, reach_mm: float) -> Raster:
    """Distance inside the outline in mm, negative outside, held to ± ``reach_mm``; (H, W) float32, wrapped.

    Exact to the flattened contours, so that it is the same at every size. Where the outline meets itself over the
    edge of the sheet the deeper place counts.
    """
    if not outline.contours:
        return np.full(grid.shape, -reach_mm, np.float32)
    return measure_outline(
        outline.contours,
        outline.box(),
        grid.shape,
        width_mm=grid.width_mm,
        height_mm=grid.height_mm,
        reach_mm=max(reach_mm, grid.pitch_mm),
    )
