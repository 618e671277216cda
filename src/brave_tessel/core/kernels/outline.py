"""Signed distance to closed contours on a wrapped sheet."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

from ..sheet import Raster
from .bands import over_rows
from .compiled import compiled

_F = npt.NDArray[np.float64]


@compiled
def _rows(
    first: int,
    last: int,
    window: Raster,
    lines: _F,
    left: float,
    high: float,
    pitch_x: float,
    pitch_y: float,
    reach: float,
) -> None:
    columns = window.shape[1]
    turns = np.empty(columns + 1, np.int32)
    for r in range(first, last):
        y = high - (r + 0.5) * pitch_y
        turns[:] = 0
        near = window[r]
        near[:] = np.float32(reach * reach)
        for n in range(lines.shape[0]):
            x0, y0, x1, y1 = lines[n]
            if min(y0, y1) > y + reach or max(y0, y1) < y - reach:
                continue
            if (y0 <= y) != (y1 <= y):
                cross = x0 + (y - y0) / (y1 - y0) * (x1 - x0)
                c = min(columns, max(0, math.ceil((cross - left) / pitch_x - 0.5)))
                turns[c] += 1 if y1 > y0 else -1
            dx, dy = x1 - x0, y1 - y0
            square = dx * dx + dy * dy
            begin = max(0, math.floor((min(x0, x1) - reach - left) / pitch_x))
            end = min(columns - 1, math.ceil((max(x0, x1) + reach - left) / pitch_x))
            for c in range(begin, end + 1):
                x = left + (c + 0.5) * pitch_x
                t = min(1.0, max(0.0, ((x - x0) * dx + (y - y0) * dy) / square)) if square > 0.0 else 0.0
                ex, ey = x - x0 - t * dx, y - y0 - t * dy
                d2 = np.float32(ex * ex + ey * ey)
                if d2 < near[c]:
                    near[c] = d2
        wound = 0
        for c in range(columns):
            wound += turns[c]
            away = math.sqrt(near[c])
            near[c] = np.float32(away if wound != 0 else -away)


@compiled
def _fold(out: Raster, window: Raster, row: int, column: int) -> None:
    rows, columns = out.shape
    for r in range(window.shape[0]):
        rr = (r + row) % rows
        for c in range(window.shape[1]):
            cc = (c + column) % columns
            if window[r, c] > out[rr, cc]:
                out[rr, cc] = window[r, c]


def measure_outline(
    contours: Sequence[_F],
    box: tuple[float, float, float, float],
    shape: tuple[int, int],
    *,
    width_mm: float,
    height_mm: float,
    reach_mm: float,
) -> Raster:
    """Distance inside contours (non-zero rule), mm, held to ± ``reach_mm``; (H, W) float32.

    Measured on a window round the contours and folded onto the sheet; the deeper place counts where it overlaps.
    """
    rows, columns = shape
    pitch_x, pitch_y = width_mm / columns, height_mm / rows
    column = math.floor((box[0] - reach_mm) / pitch_x)
    top = math.ceil((box[3] + reach_mm) / pitch_y)
    wide = math.ceil((box[2] + reach_mm) / pitch_x) - column
    tall = top - math.floor((box[1] - reach_mm) / pitch_y)
    lines = np.concatenate([np.hstack([contour, np.roll(contour, -1, 0)]) for contour in contours])
    window = np.empty((tall, wide), np.float32)
    over_rows(
        _rows,
        tall,
        window,
        np.ascontiguousarray(lines, np.float64),
        column * pitch_x,
        top * pitch_y,
        pitch_x,
        pitch_y,
        float(reach_mm),
    )
    out = np.full(shape, np.float32(-reach_mm), np.float32)
    _fold(out, window, rows - top, column)
    return out
