"""Brush strokes as exact distances to their path: no dabs to see, the same at every resolution."""

from __future__ import annotations

import math

import numpy as np

from ..sheet import Raster
from .compiled import compiled


@compiled
def _segment(
    out: Raster, x0: float, y0: float, x1: float, y1: float, radius: float, hardness: float,
    width_mm: float, height_mm: float,
) -> None:  # fmt: skip
    rows, columns = out.shape
    px, py = width_mm / columns, height_mm / rows
    soft = max(radius * (1.0 - hardness), 0.75 * px)
    outer = radius + 0.5 * px if hardness >= 1.0 else radius
    left = math.floor((min(x0, x1) - outer) / px - 0.5)
    right = math.ceil((max(x0, x1) + outer) / px - 0.5)
    low = math.floor((min(y0, y1) - outer) / py - 0.5)
    high = math.ceil((max(y0, y1) + outer) / py - 0.5)
    run_x, run_y = x1 - x0, y1 - y0
    length2 = run_x * run_x + run_y * run_y
    for j in range(low, high + 1):
        y = (j + 0.5) * py - y0
        r = (rows - 1 - j) % rows
        for i in range(left, right + 1):
            x = (i + 0.5) * px - x0
            t = 0.0
            if length2 > 0.0:
                t = min(1.0, max(0.0, (x * run_x + y * run_y) / length2))
            away = math.sqrt((x - t * run_x) ** 2 + (y - t * run_y) ** 2)
            s = min(1.0, max(0.0, (outer - away) / soft))
            s = s * s * (3.0 - 2.0 * s)
            c = i % columns
            if s > out[r, c]:
                out[r, c] = np.float32(s)


def paint_path(
    out: Raster, points: list[tuple[float, float]], *, size_mm: float, hardness: float, width_mm: float, height_mm: float
) -> None:
    """Raise ``out`` (H, W) to the stroke's profile along a path in mm; wraps over every edge."""
    ends = points[1:] or points[:1]
    for (x0, y0), (x1, y1) in zip(points, ends, strict=False):
        _segment(out, x0, y0, x1, y1, 0.5 * size_mm, hardness, width_mm, height_mm)
