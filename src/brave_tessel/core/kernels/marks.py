"""Strokes and discs painted on a wrapped sheet, each by its distance, so that they look the same at every size."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from ..sheet import Grid, Raster
from .bands import over_rows
from .compiled import compiled

_F = npt.NDArray[np.float64]


@compiled
def _paint(first: int, last: int, out: Raster, marks: _F, width_mm: float, height_mm: float) -> None:
    rows, columns = out.shape
    pitch_x, pitch_y = width_mm / columns, height_mm / rows
    pixel = 0.5 * (pitch_x + pitch_y)
    for n in range(marks.shape[0]):
        x0, y0, x1, y1, w0, w1, soft, value = marks[n]
        widest = max(w0, w1)
        # Thinner than a pixel it gets fainter, not wider.
        reach = 0.5 * widest + max(soft, pixel)
        first_c, last_c = math.floor((min(x0, x1) - reach) / pitch_x), math.ceil((max(x0, x1) + reach) / pitch_x)
        first_r, last_r = (
            math.floor((height_mm - max(y0, y1) - reach) / pitch_y),
            math.ceil((height_mm - min(y0, y1) + reach) / pitch_y),
        )
        dx, dy = x1 - x0, y1 - y0
        square = dx * dx + dy * dy
        edge = max(soft, pixel)
        for r in range(first_r, last_r + 1):
            y = height_mm - (r + 0.5) * pitch_y
            rr = r % rows
            if rr < first or rr >= last:
                continue
            for c in range(first_c, last_c + 1):
                x = (c + 0.5) * pitch_x
                t = ((x - x0) * dx + (y - y0) * dy) / square if square > 0 else 0.0
                t = min(1.0, max(0.0, t))
                away = math.sqrt((x - x0 - t * dx) ** 2 + (y - y0 - t * dy) ** 2)
                half = 0.5 * (w0 + t * (w1 - w0))
                cover = min(1.0, max(0.0, (half - away) / edge + 0.5))
                if half < 0.5 * edge:
                    # Fainter by as much as it is drawn too wide, so that as much of it is there at every size.
                    cover *= 2 * half * edge / (half + 0.5 * edge) ** 2
                cc = c % columns
                if cover * value > out[rr, cc]:
                    out[rr, cc] = np.float32(cover * value)


def paint_marks(grid: Grid, marks: npt.ArrayLike) -> Raster:
    """Round-ended strokes (n, 8): x0, y0, x1, y1, width at both ends, softness, all mm and y up, and value.

    The strongest counts where they meet. (H, W) float32.
    """
    out = np.zeros(grid.shape, np.float32)
    made = np.ascontiguousarray(np.asarray(marks, np.float64).reshape(-1, 8))
    over_rows(_paint, grid.height_px, out, made, grid.width_mm, grid.height_mm)
    return out


@compiled
def _throw(
    candidates: _F,
    cell_of: npt.NDArray[np.int64],
    across: int,
    up: int,
    width: float,
    height: float,
    spacing: float,
    kept: npt.NDArray[np.int64],
) -> int:
    count = 0
    taken = np.full((across * up, 4), -1, np.int64)
    for n in range(candidates.shape[0]):
        x, y = candidates[n, 0], candidates[n, 1]
        cx, cy = cell_of[n] % across, cell_of[n] // across
        free = True
        for oy in range(-1, 2):
            for ox in range(-1, 2):
                cell = ((cy + oy) % up) * across + (cx + ox) % across
                for k in range(4):
                    other = taken[cell, k]
                    if other < 0:
                        break
                    dx = abs(x - candidates[other, 0])
                    dy = abs(y - candidates[other, 1])
                    dx, dy = min(dx, width - dx), min(dy, height - dy)
                    if dx * dx + dy * dy < spacing * spacing:
                        free = False
        if not free:
            continue
        cell = cy * across + cx
        for k in range(4):
            if taken[cell, k] < 0:
                taken[cell, k] = n
                kept[count] = n
                count += 1
                break
    return count


def poisson_points(width_mm: float, height_mm: float, spacing_mm: float, draws: npt.NDArray[np.float32]) -> _F:
    """Points of a wrapped sheet no nearer to each other than ``spacing_mm``; (n, 2) mm.

    Dart throwing (Cook 1986, "Stochastic sampling in computer graphics") of the given darts (m, 2) in [0, 1).
    """
    darts = draws.astype(np.float64) * (width_mm, height_mm)
    across, up = max(1, int(width_mm / spacing_mm)), max(1, int(height_mm / spacing_mm))
    if across < 3 or up < 3:
        # So few that looking around would see the same cell twice.
        return darts[:1]
    cells = np.minimum((darts[:, 1] / height_mm * up).astype(np.int64), up - 1) * across + np.minimum(
        (darts[:, 0] / width_mm * across).astype(np.int64), across - 1
    )
    kept = np.empty(len(darts), np.int64)
    count = _throw(darts, cells, across, up, width_mm, height_mm, spacing_mm, kept)
    return darts[kept[:count]]
