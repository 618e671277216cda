"""Sampling a wrapped sheet between its pixels, and walking on it."""

from __future__ import annotations

import math

import numpy as np

from ..sheet import Grid, Raster
from .bands import over_rows
from .compiled import compiled


@compiled
def _sample_rows(first: int, last: int, field: Raster, dx: Raster, dy: Raster, out: Raster) -> None:
    rows, columns, channels = field.shape
    for r in range(first, last):
        for c in range(columns):
            x, y = c + dx[r, c], r + dy[r, c]
            fx, fy = math.floor(x), math.floor(y)
            tx, ty = np.float32(x - fx), np.float32(y - fy)
            x0, y0 = int(fx), int(fy)
            # Few places lie beyond an edge, and division is slow.
            if x0 < 0 or x0 >= columns:
                x0 %= columns
            if y0 < 0 or y0 >= rows:
                y0 %= rows
            x1 = x0 + 1 if x0 + 1 < columns else 0
            y1 = y0 + 1 if y0 + 1 < rows else 0
            for k in range(channels):
                low = field[y0, x0, k] + tx * (field[y0, x1, k] - field[y0, x0, k])
                high = field[y1, x0, k] + tx * (field[y1, x1, k] - field[y1, x0, k])
                out[r, c, k] = low + ty * (high - low)


def sample_moved(field: Raster, right_mm: Raster, up_mm: Raster, grid: Grid) -> Raster:
    """What lies ``right_mm`` and ``up_mm`` away from every pixel, bilinear and wrapped; (H, W) or (H, W, C)."""
    across, down = grid.mm_per_px
    flat = np.ascontiguousarray(field.reshape(*field.shape[:2], -1))
    out = np.empty_like(flat)
    over_rows(
        _sample_rows,
        grid.height_px,
        flat,
        np.ascontiguousarray(right_mm / np.float32(across), np.float32),
        np.ascontiguousarray(-up_mm / np.float32(down), np.float32),
        out,
    )
    return out.reshape(field.shape)


@compiled
def _drift_rows(
    first: int, last: int, field: Raster, ux: Raster, uy: Raster, out: Raster, steps: int, how: int
) -> None:
    rows, columns = field.shape
    # Added before cutting off decimals, so that it rounds down below 0 too.
    large = 1 << 20
    half = large + 0.5
    for r in range(first, last):
        for c in range(columns):
            # Away from where it began, so that rounding is the same everywhere on the sheet.
            x, y = 0.0, 0.0
            total, low, high = field[r, c], field[r, c], field[r, c]
            ix, iy = c, r
            for _ in range(steps):
                x += ux[iy, ix]
                y += uy[iy, ix]
                ix, iy = c + int(x + half) - large, r + int(y + half) - large
                # No step is longer than the sheet, and division is slow.
                if ix < 0 or ix >= columns:
                    ix %= columns
                if iy < 0 or iy >= rows:
                    iy %= rows
                seen = field[iy, ix]
                total += seen
                low, high = min(low, seen), max(high, seen)
            out[r, c] = total / (steps + 1) if how == 0 else low if how == 1 else high


def drift_along(
    field: Raster, downhill_x: Raster, downhill_y: Raster, grid: Grid, *, reach_mm: float, samples: int, how: int
) -> Raster:
    """Samples of a field along the way that a guide falls: their mean (0), lowest (1) or highest (2).

    ``downhill_x``, ``downhill_y`` point to the right and down the rows; only their direction counts.
    """
    across, down = grid.mm_per_px
    out = np.empty_like(field)
    step = np.float32(reach_mm / samples)
    # On the flat it stays: what is left of the walk sees the same place.
    length = np.sqrt(downhill_x * downhill_x + downhill_y * downhill_y)
    scale = np.where(length > 1e-9, step / np.maximum(length, np.float32(1e-9)), np.float32(0))
    ux, uy = (
        np.ascontiguousarray(downhill_x * scale / np.float32(across)),
        np.ascontiguousarray(downhill_y * scale / np.float32(down)),
    )
    over_rows(_drift_rows, grid.height_px, np.ascontiguousarray(field), ux, uy, out, samples, how)
    return out
