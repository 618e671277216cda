"""Wrapped lattice noise, evaluated cell by cell so that each gradient is hashed once a row."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from ..lattice import hash_cell, is_earlier, unit_of, units_many
from ..sheet import AnyArray, Grid, Raster
from .bands import over_rows
from .compiled import compiled

_TAU = 2.0 * math.pi


@compiled
def _slope_rows(
    first: int, last: int, gx: Raster, gy: Raster, seed: np.uint32, gain: np.float32, earlier: bool
) -> None:
    for row in range(first, last):
        for column in range(gx.shape[1]):
            angle = np.float32(_TAU) * unit_of(hash_cell(column, row, seed, earlier))
            gx[row, column] = gain * math.cos(angle)
            gy[row, column] = gain * math.sin(angle)


@compiled
def _add_gradient(
    line: Raster, r: int, rows: int, gx: Raster, gy: Raster, off_x: np.float32, off_y: np.float32
) -> None:
    """Add one octave to one row of a sheet."""
    columns = line.size
    ny, nx = gx.shape
    one, six, ten, fifteen = np.float32(1), np.float32(6), np.float32(10), np.float32(15)
    to_x = np.float32(nx / columns)
    y = np.float32((rows - r - 0.5) * ny / rows) + off_y
    iy = int(y)
    fy = y - np.float32(iy)
    gy_up = fy - one
    wy = fy * fy * fy * (fy * (fy * six - fifteen) + ten)
    low, high = iy % ny, (iy + 1) % ny
    begin = 0
    for ix in range(nx + 1):
        end = min(columns, max(begin, math.ceil((ix + 1 - off_x) * columns / nx - 0.5)))
        left, right = ix % nx, (ix + 1) % nx
        ax, bx, cx, dx = gx[low, left], gx[low, right], gx[high, left], gx[high, right]
        ay, by = gy[low, left] * fy, gy[low, right] * fy
        cy, dy = gy[high, left] * gy_up, gy[high, right] * gy_up
        for col in range(begin, end):
            fx = (np.float32(col) + np.float32(0.5)) * to_x + off_x - np.float32(ix)
            wx = fx * fx * fx * (fx * (fx * six - fifteen) + ten)
            past = fx - one
            below = ax * fx + ay
            below += wx * (bx * past + by - below)
            above = cx * fx + cy
            above += wx * (dx * past + dy - above)
            line[col] += below + wy * (above - below)
        begin = end


@compiled
def _gradient_rows(
    first: int, last: int, out: Raster, gx: Raster, gy: Raster, off_x: np.float32, off_y: np.float32
) -> None:
    for r in range(first, last):
        _add_gradient(out[r], r, out.shape[0], gx, gy, off_x, off_y)


@compiled
def _fractal_rows(
    first: int, last: int, out: Raster, gx: Raster, gy: Raster, sizes: AnyArray, offsets: Raster, scale: np.float32
) -> None:
    """All octaves of a row one after another, so that it is written once."""
    line = np.empty(out.shape[1], np.float32)
    one, zero, middle = np.float32(1), np.float32(0), np.float32(0.5)
    for r in range(first, last):
        line[:] = zero
        begin = 0
        for octave in range(sizes.shape[0]):
            nx, ny = sizes[octave]
            end = begin + nx * ny
            shape = (ny, nx)
            _add_gradient(
                line,
                r,
                out.shape[0],
                gx[begin:end].reshape(shape),
                gy[begin:end].reshape(shape),
                offsets[octave, 0],
                offsets[octave, 1],
            )
            begin = end
        for c in range(line.size):
            out[r, c] = min(one, max(zero, line[c] * scale + middle))


def _gradients(nx: int, ny: int, seed: int, gain: float) -> tuple[Raster, Raster, np.float32, np.float32]:
    """Gradients of a lattice (ny, nx), and its shift in cells: so that the zeros of octaves do not fall together."""
    gx, gy = np.empty((ny, nx), np.float32), np.empty((ny, nx), np.float32)
    over_rows(_slope_rows, ny, gx, gy, np.uint32(seed), np.float32(gain), is_earlier())
    shift = units_many([1, 2], [0, 0], seed)
    return gx, gy, np.float32(shift[0]), np.float32(shift[1])


def add_gradient(out: Raster, nx: int, ny: int, seed: int, gain: float) -> None:
    """Add one octave of gradient noise (Perlin 2002 fade, unit gradients) with ``nx`` × ``ny`` cells.

    The lattice is shifted by the seed.
    """
    over_rows(_gradient_rows, out.shape[0], out, *_gradients(nx, ny, seed, gain))


class Octave(NamedTuple):
    """One octave of gradient noise: cells across and up, its seed, its strength."""

    nx: int
    ny: int
    seed: int
    gain: float


def fractal_gradient(shape: tuple[int, int], octaves: Sequence[Octave], scale: float) -> Raster:
    """The sum of octaves of gradient noise times ``scale`` about one half, within [0, 1]; (H, W) float32."""
    out = np.empty(shape, np.float32)
    if not octaves:
        out[:] = 0.5
        return out
    made = [_gradients(*octave) for octave in octaves]
    gx, gy = (np.concatenate([one[k].ravel() for one in made]) for k in (0, 1))
    sizes = np.array([(octave.nx, octave.ny) for octave in octaves])
    offsets = np.array([one[2:] for one in made], np.float32)
    over_rows(_fractal_rows, shape[0], out, gx, gy, sizes, offsets, np.float32(scale))
    return out


@compiled
def _cells_rows(
    first: int,
    last: int,
    distance: Raster,
    second: Raster,
    number: Raster,
    across: Raster,
    up: Raster,
    aspect: np.float32,
    reach: int,
) -> None:
    rows, columns = distance.shape
    ny, nx = across.shape
    side = 2 * reach + 1
    count = side * side
    px, ey2, ids = np.empty(count, np.float32), np.empty(count, np.float32), np.empty(count, np.float32)
    to_x = np.float32(nx / columns)
    for r in range(first, last):
        y = np.float32((rows - r - 0.5) * ny / rows)
        iy = int(y)
        begin = 0
        for ix in range(nx):
            end = min(columns, math.ceil((ix + 1) * columns / nx - 0.5))
            # The neighbouring points are fetched once for all pixels of this cell in this row.
            for k in range(count):
                dx, dy = k % side - reach, k // side - reach
                cx, cy = (ix + dx) % nx, (iy + dy) % ny
                px[k] = np.float32(ix + dx) + across[cy, cx]
                ey = (y - np.float32(iy + dy) - up[cy, cx]) * aspect
                ey2[k] = ey * ey
                ids[k] = np.float32(cy * nx + cx)
            for col in range(begin, end):
                x = (np.float32(col) + np.float32(0.5)) * to_x
                best, runner, winner = np.float32(1e9), np.float32(1e9), 0
                for k in range(count):
                    ex = x - px[k]
                    d2 = ex * ex + ey2[k]
                    if d2 < best:
                        runner = best
                        best = d2
                        winner = k
                    elif d2 < runner:
                        runner = d2
                distance[r, col] = math.sqrt(best)
                second[r, col] = math.sqrt(runner)
                number[r, col] = ids[winner]
            begin = end


def cells(grid: Grid, nx: int, ny: int, *, jitter: float, seed: int) -> tuple[Raster, Raster, Raster]:
    """Cellular noise (Worley 1996) on a wrapped ``nx`` × ``ny`` lattice.

    Returns F1 and F2 in cells across, and the cell number, each (H, W) float32. A 3 × 3 search is
    exact up to a jitter of 0.9; above, and for elongated cells, 5 × 5 is searched.
    """
    distance, second, number = (np.empty(grid.shape, np.float32) for _ in range(3))
    aspect = (grid.height_mm / ny) / (grid.width_mm / nx)
    rows, columns = np.mgrid[0:ny, 0:nx]
    across, up = (
        (0.5 + jitter * (units_many(columns, rows, seed + salt) - 0.5)).astype(np.float32) for salt in (0, 7919)
    )
    reach = 1 if jitter <= 0.9 and 0.75 < aspect < 1.33 else 2
    over_rows(_cells_rows, grid.height_px, distance, second, number, across, up, np.float32(aspect), reach)
    return distance, second, number


@compiled
def _triangle_rows(
    first: int,
    last: int,
    out: Raster,
    nx: int,
    ny: int,
    aspect: np.float32,
    seed: np.uint32,
    gain: np.float32,
    earlier: bool,
) -> None:
    rows, columns = out.shape
    for r in range(first, last):
        y = np.float32((rows - r - 0.5) * ny / rows)
        iy = int(y)
        for c in range(columns):
            x = np.float32((c + 0.5) * nx / columns)
            total = np.float32(0)
            for oy in range(-1, 3):
                row = iy + oy
                shift = np.float32(0.5) * (row % 2)
                dy = (y - np.float32(row)) * aspect
                ix = math.floor(x - shift)
                for ox in range(2):
                    dx = x - np.float32(ix + ox) - shift
                    reach = np.float32(0.75) - dx * dx - dy * dy
                    if reach > 0:
                        angle = np.float32(_TAU) * unit_of(hash_cell((ix + ox) % nx, row % ny, seed, earlier))
                        reach *= reach
                        total += reach * reach * (math.cos(angle) * dx + math.sin(angle) * dy)
            out[r, c] += gain * total


def add_triangular(out: Raster, nx: int, ny: int, aspect: float, seed: int, gain: float) -> None:
    """Add one octave of gradient noise on a triangular lattice of ``nx`` points a row and ``ny`` rows, ``ny`` even.

    ``aspect`` is a row's rise in spacings. Radial kernels about each point, as in Perlin's simplex noise (2001).
    """
    over_rows(
        _triangle_rows, out.shape[0], out, nx, ny, np.float32(aspect), np.uint32(seed), np.float32(gain), is_earlier()
    )
