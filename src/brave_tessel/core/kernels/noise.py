"""Wrapped lattice noise, evaluated cell by cell so that each gradient is hashed once a row."""

from __future__ import annotations

import math

import numpy as np

from ..lattice import hash_cell, unit_of
from ..sheet import Grid, Raster
from .bands import over_rows
from .compiled import compiled

_TAU = 2.0 * math.pi


@compiled
def _gradient_rows(first: int, last: int, out: Raster, nx: int, ny: int, seed: np.uint32, gain: np.float32) -> None:
    rows, columns = out.shape
    to_x = np.float32(nx / columns)
    for r in range(first, last):
        y = np.float32((rows - r - 0.5) * ny / rows)
        iy = int(y)
        fy = y - np.float32(iy)
        wy = fy * fy * fy * (fy * (fy * np.float32(6) - np.float32(15)) + np.float32(10))
        low, high = iy % ny, (iy + 1) % ny
        begin = 0
        for ix in range(nx):
            end = min(columns, int(math.ceil((ix + 1) * columns / nx - 0.5)))
            left, right = ix, (ix + 1) % nx
            a = np.float32(_TAU) * unit_of(hash_cell(left, low, seed))
            b = np.float32(_TAU) * unit_of(hash_cell(right, low, seed))
            c = np.float32(_TAU) * unit_of(hash_cell(left, high, seed))
            d = np.float32(_TAU) * unit_of(hash_cell(right, high, seed))
            ax, bx, cx, dx = math.cos(a), math.cos(b), math.cos(c), math.cos(d)
            ay, by = math.sin(a) * fy, math.sin(b) * fy
            cy, dy = math.sin(c) * (fy - np.float32(1)), math.sin(d) * (fy - np.float32(1))
            for col in range(begin, end):
                fx = (np.float32(col) + np.float32(0.5)) * to_x - np.float32(ix)
                wx = fx * fx * fx * (fx * (fx * np.float32(6) - np.float32(15)) + np.float32(10))
                gx = fx - np.float32(1)
                below = ax * fx + ay
                below += wx * (bx * gx + by - below)
                above = cx * fx + cy
                above += wx * (dx * gx + dy - above)
                out[r, col] += gain * (below + wy * (above - below))
            begin = end


def add_gradient(out: Raster, nx: int, ny: int, seed: int, gain: float) -> None:
    """Add one octave of gradient noise (Perlin 2002 fade, unit gradients) with ``nx`` × ``ny`` cells."""
    over_rows(_gradient_rows, out.shape[0], out, nx, ny, np.uint32(seed), np.float32(gain))


@compiled
def _cells_rows(
    first: int, last: int, distance: Raster, second: Raster, number: Raster, nx: int, ny: int,
    jitter: np.float32, aspect: np.float32, seed: np.uint32,
) -> None:  # fmt: skip
    rows, columns = distance.shape
    px = np.empty(nx + 4, np.float32)
    other = np.uint32(seed + np.uint32(7919))
    for r in range(first, last):
        y = np.float32((rows - r - 0.5) * ny / rows)
        iy = int(y)
        best = np.full(columns, np.float32(1e9))
        runner = np.full(columns, np.float32(1e9))
        for dy in range(-2, 3):
            cy = (iy + dy) % ny
            for k in range(nx + 4):
                cx = (k - 2) % nx
                px[k] = k - 2 + np.float32(0.5) + jitter * (unit_of(hash_cell(cx, cy, seed)) - np.float32(0.5))
            for col in range(columns):
                x = (np.float32(col) + np.float32(0.5)) * np.float32(nx) / np.float32(columns)
                ix = int(x)
                for dx in range(-2, 3):
                    cx = (ix + dx) % nx
                    py = iy + dy + np.float32(0.5) + jitter * (unit_of(hash_cell(cx, cy, other)) - np.float32(0.5))
                    ex = x - px[ix + dx + 2]
                    ey = (y - py) * aspect
                    d2 = ex * ex + ey * ey
                    if d2 < best[col]:
                        runner[col] = best[col]
                        best[col] = d2
                        number[r, col] = np.float32(cy * nx + cx)
                    elif d2 < runner[col]:
                        runner[col] = d2
        for col in range(columns):
            distance[r, col] = math.sqrt(best[col])
            second[r, col] = math.sqrt(runner[col])


def cells(grid: Grid, nx: int, ny: int, *, jitter: float, seed: int) -> tuple[Raster, Raster, Raster]:
    """Cellular noise (Worley 1996) on a wrapped ``nx`` × ``ny`` lattice.

    Returns F1 and F2 in cells across, and the cell number, each (H, W) float32. A 5 × 5 search is
    exact for both distances at full jitter.
    """
    distance, second, number = (np.empty(grid.shape, np.float32) for _ in range(3))
    aspect = (grid.height_mm / ny) / (grid.width_mm / nx)
    over_rows(
        _cells_rows, grid.height_px, distance, second, number, nx, ny, np.float32(jitter), np.float32(aspect),
        np.uint32(seed),
    )  # fmt: skip
    return distance, second, number
