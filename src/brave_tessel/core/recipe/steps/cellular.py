"""Cellular noise: distances to strewn points by several measures, and the pieces about them."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ...kernels.bands import over_rows
from ...kernels.compiled import compiled
from ...kernels.mosaic import paint_cells
from ...lattice import units_many, whole_periods
from ...operation import Choice, Field, Fraction, Length, Pieces, Seed, Whole, called, operation
from ...sheet import Grid, Raster

METRICS = ("round", "diamond", "square", "rounded")
_POWERS = {"round": 2.0, "diamond": 1.0, "square": 0.0, "rounded": 4.0}


@compiled
def _rows(
    first: int, last: int, one: Raster, two: Raster, px: Raster, py: Raster, aspect: np.float32, power: np.float32
) -> None:
    rows, columns = one.shape
    ny, nx = px.shape
    for r in range(first, last):
        y = np.float32((rows - r - 0.5) * ny / rows)
        iy = int(y)
        for c in range(columns):
            x = np.float32((c + 0.5) * nx / columns)
            ix = int(x)
            best, runner = np.float32(1e9), np.float32(1e9)
            for oy in range(-2, 3):
                for ox in range(-2, 3):
                    cx, cy = (ix + ox) % nx, (iy + oy) % ny
                    ex = abs(x - (ix + ox) - px[cy, cx])
                    ey = abs(y - (iy + oy) - py[cy, cx]) * aspect
                    if power == 2:
                        d = math.sqrt(ex * ex + ey * ey)
                    elif power == 1:
                        d = ex + ey
                    elif power == 0:
                        d = max(ex, ey)
                    else:
                        d = math.sqrt(math.sqrt(ex * ex * ex * ex + ey * ey * ey * ey))
                    if d < best:
                        runner, best = best, np.float32(d)
                    elif d < runner:
                        runner = np.float32(d)
            one[r, c], two[r, c] = best, runner


def strewn(grid: Grid, size: float, jitter: float, seed: int, relax: int = 0) -> tuple[np.ndarray, np.ndarray]:
    """One point in each box of a wrapped lattice (ny, nx), mm; ``relax`` times moved away from its neighbours."""
    nx, ny = whole_periods(grid.width_mm, size), whole_periods(grid.height_mm, size)
    columns, rows = np.meshgrid(np.arange(nx), np.arange(ny))
    cell_x, cell_y = grid.width_mm / nx, grid.height_mm / ny
    x, y = (0.5 + jitter * (units_many(columns, rows, seed + salt).astype(np.float64) - 0.5) for salt in (0, 7919))
    for _ in range(relax):
        px, py = (columns + x) * cell_x, (rows + y) * cell_y
        push_x, push_y = np.zeros_like(x), np.zeros_like(y)
        for oy in (-1, 0, 1):
            for ox in (-1, 0, 1):
                if ox == 0 and oy == 0:
                    continue
                dx = px - np.roll(px, (-oy, -ox), (0, 1))
                dy = py - np.roll(py, (-oy, -ox), (0, 1))
                dx, dy = (
                    (dx + grid.width_mm / 2) % grid.width_mm - grid.width_mm / 2,
                    (dy + grid.height_mm / 2) % grid.height_mm - grid.height_mm / 2,
                )
                away = np.maximum(np.hypot(dx / cell_x, dy / cell_y), 0.05)
                force = np.maximum(1.1 - away, 0) / away
                push_x += force * dx / cell_x
                push_y += force * dy / cell_y
        # A point stays in its own box, so that looking around it is enough.
        x, y = (np.clip(v + 0.3 * push, 0.02, 0.98) for v, push in ((x, push_x), (y, push_y)))
    return (columns + x) * cell_x, (rows + y) * cell_y


@operation("noise.cells", label="Cells", version=2, rehashed=True)
def cell_noise(
    grid: Grid,
    *,
    size: Annotated[
        float,
        Length(
            1, 300, log=True, least=0.1, help="Mean spacing of the points; snapped so that whole cells fill the repeat."
        ),
    ] = 30.0,
    takes: Annotated[
        str,
        called(
            "Distance to",
            Choice(
                "nearest",
                "second",
                "difference",
                help="The distance to the nearest point, to the second, or how far the second is further.",
            ),
        ),
    ] = "nearest",
    measure: Annotated[
        str,
        Choice(*METRICS, help="How distance is measured: circles, diamonds, squares, or squares with round corners."),
    ] = "round",
    jitter: Annotated[float, Fraction(help="0 set in rows, 1 strewn.")] = 0.9,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Distances to strewn points in cell widths, in [0, 1] (Worley, "A cellular texture basis function", 1996)."""
    nx, ny = whole_periods(grid.width_mm, size), whole_periods(grid.height_mm, size)
    columns, rows = np.meshgrid(np.arange(nx), np.arange(ny))
    px, py = ((0.5 + jitter * (units_many(columns, rows, seed + salt) - 0.5)).astype(np.float32) for salt in (0, 7919))
    aspect = np.float32((grid.height_mm / ny) / (grid.width_mm / nx))
    one, two = np.empty(grid.shape, np.float32), np.empty(grid.shape, np.float32)
    over_rows(_rows, grid.height_px, one, two, px, py, aspect, np.float32(_POWERS[measure]))
    made = one if takes == "nearest" else two if takes == "second" else two - one
    return np.clip(made, 0, 1)


@operation("pattern.cobbles", label="Cobbles", version=2, rehashed=True)
def cobbles(
    grid: Grid,
    *,
    size: Annotated[
        float,
        Length(
            5,
            400,
            log=True,
            least=0.5,
            help="Mean spacing of the stones; snapped so that whole stones fill the repeat.",
        ),
    ] = 90.0,
    joint: Annotated[float, Length(0, 30, least=0, most=200, help="Gap between stones.")] = 8.0,
    jitter: Annotated[float, Fraction(help="0 set in rows, 1 strewn.")] = 0.9,
    even: Annotated[
        int, Whole(0, 12, most=40, help="How many times stones are moved apart, which makes them more alike.")
    ] = 4,
    seed: Annotated[int, Seed()] = 1,
) -> Pieces:
    """Stones as the cells of strewn points, moved apart until they are about alike (relaxation after Lloyd 1982)."""
    x, y = strewn(grid, size, jitter, seed, even)
    return paint_cells(grid, x, y, joint_mm=joint)


@operation("pattern.crazy", label="Crazy paving", version=2, rehashed=True)
def crazy(
    grid: Grid,
    *,
    size: Annotated[
        float,
        Length(
            20, 1200, log=True, least=1, help="Mean size of the flags; snapped so that whole flags fill the repeat."
        ),
    ] = 320.0,
    joint: Annotated[float, Length(0, 40, least=0, most=200, help="Gap between flags.")] = 12.0,
    seed: Annotated[int, Seed()] = 1,
) -> Pieces:
    """Broken flags with straight sides, of very different sizes."""
    x, y = strewn(grid, size, 1.0, seed)
    return paint_cells(grid, x, y, joint_mm=joint)
