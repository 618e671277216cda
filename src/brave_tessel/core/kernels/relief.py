"""Slopes, occlusion and cast shadow of a wrapped height map."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from ..sheet import Grid, Raster
from .bands import over_rows
from .compiled import compiled, still


def wrap_padded(pixels: Raster, margin: int) -> Raster:
    """The raster with ``margin`` wrapped rows and columns on every side; any margin."""
    rows, columns = pixels.shape
    if margin > min(rows, columns):
        return np.ascontiguousarray(np.pad(pixels, ((margin, margin), (margin, margin)), mode="wrap"))
    # Slices copied as they are: thrice as quick as numpy's own.
    out = np.empty((rows + 2 * margin, columns + 2 * margin), pixels.dtype)
    middle = out[margin : margin + rows]
    middle[:, margin : margin + columns] = pixels
    middle[:, :margin], middle[:, margin + columns :] = pixels[:, columns - margin :], pixels[:, :margin]
    out[:margin], out[margin + rows :] = out[rows : rows + margin], out[margin : 2 * margin]
    return out


@compiled
def _normal_rows(
    first: int, last: int, padded: Raster, detail: Raster, out: Raster, over_x: np.float32, over_y: np.float32
) -> None:
    columns, finer = out.shape[1], detail.shape[0] == out.shape[0]
    one, steepest = np.float32(1), np.float32(20)
    for r in range(first, last):
        above, below = padded[r, 1 : columns + 1], padded[r + 2, 1 : columns + 1]
        left, right = padded[r + 1, :columns], padded[r + 1, 2 : columns + 2]
        for c in range(columns):
            slope_x = (right[c] - left[c]) * over_x
            slope_y = (above[c] - below[c]) * over_y
            scale = one / math.sqrt(slope_x * slope_x + slope_y * slope_y + one)
            out[r, c, 0] = -slope_x * scale
            out[r, c, 1] = -slope_y * scale
            out[r, c, 2] = scale
        if finer:
            for c in range(columns):
                # No steeper than 20 in 1, where an upright face would swallow whatever is added.
                up = min(one / out[r, c, 2], steepest)
                x = out[r, c, 0] * up - detail[r, c, 0]
                y = out[r, c, 1] * up - detail[r, c, 1]
                scale = one / math.sqrt(x * x + y * y + one)
                out[r, c, 0] = x * scale
                out[r, c, 1] = y * scale
                out[r, c, 2] = scale


_NONE = np.zeros((0, 0, 2), np.float32)


def normal_of_height(height: Raster, grid: Grid, detail: Raster | None = None) -> Raster:
    """Unit normals (H, W, 3) of a height map in mm by central differences; x right, y up, z out. Finer slopes
    (H, W, 2) are added: slopes add as heights do (Barré-Brisebois and Hill 2012, partial derivatives).
    """
    across, down = grid.mm_per_px
    out = np.empty((*height.shape, 3), np.float32)
    finer = still(_NONE if detail is None else np.ascontiguousarray(detail))
    over = np.float32(0.5 / across), np.float32(0.5 / down)
    over_rows(_normal_rows, height.shape[0], wrap_padded(height, 1), finer, out, *over)
    return out


@compiled
def _occlusion_rows(
    first: int,
    last: int,
    padded: Raster,
    out: Raster,
    margin: int,
    dx: npt.NDArray[np.int32],
    dy: npt.NDArray[np.int32],
    reach: Raster,
) -> None:
    columns = out.shape[1]
    directions, steps = dx.shape
    horizon = np.empty(columns, np.float32)
    total = np.empty(columns, np.float32)
    for r in range(first, last):
        here = padded[r + margin, margin : margin + columns]
        total[:] = np.float32(0)
        for d in range(directions):
            horizon[:] = np.float32(0)
            for s in range(steps):
                shift = margin + dx[d, s]
                there = padded[r + margin + dy[d, s], shift : shift + columns]
                over = reach[d, s]
                for c in range(columns):
                    slope = (there[c] - here[c]) * over
                    horizon[c] = max(horizon[c], slope)
            for c in range(columns):
                total[c] += np.float32(1) / (np.float32(1) + horizon[c] * horizon[c])
        for c in range(columns):
            out[r, c] = total[c] / np.float32(directions)


def occlusion_reach_px(grid: Grid, reach_mm: float) -> float:
    """How far occlusion looks, pixels: at most half across the sheet."""
    return max(1.0, min(reach_mm / min(grid.mm_per_px), 0.5 * min(grid.shape)))


def occlusion(height: Raster, grid: Grid, *, reach_mm: float, directions: int = 8) -> Raster:
    """Ambient occlusion (H, W) in [0, 1]: cosine-weighted share of open sky above a level plane.

    Horizon-based with geometric steps: per direction the open share is 1 − sin²(horizon), which is
    exact for a cosine-weighted sky. 1 on a plane. Wrapped.
    """
    across, down = grid.mm_per_px
    reach_px = occlusion_reach_px(grid, reach_mm)
    count = max(3, math.ceil(math.log(reach_px, 1.2)) + 1)
    radii = np.unique(np.geomspace(1, max(1.01, reach_px), count))
    angles = (np.arange(directions) + 0.5) / directions * 2 * math.pi
    dx = np.rint(np.outer(np.cos(angles), radii)).astype(np.int32)
    dy = np.rint(np.outer(np.sin(angles), radii)).astype(np.int32)
    reach = (1 / np.maximum(1e-6, np.hypot(dx * across, dy * down))).astype(np.float32)
    margin = int(max(np.abs(dx).max(), np.abs(dy).max()))
    out = np.empty(height.shape, np.float32)
    over_rows(_occlusion_rows, height.shape[0], wrap_padded(height, margin), out, margin, dx, dy, reach)
    return out


@compiled
def _shadow_rows(
    first: int,
    last: int,
    padded: Raster,
    out: Raster,
    margin: int,
    dx: npt.NDArray[np.int32],
    dy: npt.NDArray[np.int32],
    rise: Raster,
    soft: Raster,
) -> None:
    columns = out.shape[1]
    for r in range(first, last):
        here = padded[r + margin, margin : margin + columns]
        line = out[r]
        line[:] = np.float32(1)
        for s in range(dx.size):
            shift = margin + dx[s]
            there = padded[r + margin + dy[s], shift : shift + columns]
            climb, over = rise[s], soft[s]
            for c in range(columns):
                clear = np.float32(1) - (there[c] - here[c] - climb) * over
                line[c] = min(line[c], max(np.float32(0), clear))


_STEP = 1.05


def shadow_reach_px(tallest: float, grid: Grid, light: tuple[float, float, float]) -> float:
    """How far the tallest step of a relief, in mm, can throw its shadow, pixels; at most half across the sheet, and
    256.
    """
    x, y, z = light
    return min(tallest * math.hypot(x, y) / max(z, 0.05) / min(grid.mm_per_px), 0.5 * max(grid.shape), 256.0)


def cast_shadow(
    height: Raster,
    grid: Grid,
    light: tuple[float, float, float],
    *,
    furthest: float | None = None,
    radius: float = 0.0047,
) -> Raster:
    """Share of a distant light that reaches each pixel, (H, W) in [0, 1]; ``light`` points to it. ``furthest`` is how
    far shadows are looked for, pixels; by default as far as the relief can throw them. ``radius`` is the light's
    angular radius, radians: penumbras
    widen with the distance, never less than the steps by which the relief is looked through.
    """
    x, y, z = light
    level = math.hypot(x, y)
    if level < 1e-3:
        return np.ones(height.shape, np.float32)
    across, down = grid.mm_per_px
    furthest = shadow_reach_px(float(height.max() - height.min()), grid, light) if furthest is None else furthest
    # Steps that grow with the distance: near edges are seen sharp, far ones as wide as their penumbra.
    count = max(8, math.ceil(math.log(max(2.0, furthest)) / math.log(_STEP)))
    radii = np.unique(np.rint(np.geomspace(1, max(2.0, furthest), count)))
    dx = np.rint(radii * x / level).astype(np.int32)
    dy = np.rint(-radii * y / level).astype(np.int32)
    run = np.hypot(dx * across, dy * down)
    rise = (run * z / level).astype(np.float32)
    # A ray at the light's edge rises so much more over the run; never less than half a pixel of it.
    penumbra = max(2 * radius, 0.03) / level**2 * run + 0.5 * across * z / level
    soft = (1 / np.maximum(penumbra, 1e-6)).astype(np.float32)
    margin = int(max(np.abs(dx).max(), np.abs(dy).max(), 1))
    out = np.empty(height.shape, np.float32)
    over_rows(_shadow_rows, height.shape[0], wrap_padded(height, margin), out, margin, dx, dy, rise, soft)
    return out
