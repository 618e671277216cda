"""Brush strokes as exact distances to their path: no dabs to see, the same at every resolution."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from ..sheet import Raster
from .bands import over_rows
from .compiled import compiled


@compiled
def _segment(
    out: Raster,
    x0: float,
    y0: float,
    x1: float,
    y1: float,
    radius: float,
    hardness: float,
    width_mm: float,
    height_mm: float,
    wraps: bool,
) -> None:
    rows, columns = out.shape
    px, py = width_mm / columns, height_mm / rows
    soft = max(radius * (1.0 - hardness), 0.75 * px)
    outer = radius + 0.5 * px if hardness >= 1.0 else radius
    left = math.floor((min(x0, x1) - outer) / px - 0.5)
    right = math.ceil((max(x0, x1) + outer) / px - 0.5)
    low = math.floor((min(y0, y1) - outer) / py - 0.5)
    high = math.ceil((max(y0, y1) + outer) / py - 0.5)
    if not wraps:
        left, right, low, high = max(left, 0), min(right, columns - 1), max(low, 0), min(high, rows - 1)
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
            away2 = (x - t * run_x) ** 2 + (y - t * run_y) ** 2
            if away2 >= outer * outer:
                continue
            s = min(1.0, (outer - math.sqrt(away2)) / soft)
            s = s * s * (3.0 - 2.0 * s)
            c = i % columns
            if s > out[r, c]:
                out[r, c] = np.float32(s)


def paint_path(
    out: Raster,
    points: list[tuple[float, float]],
    *,
    size_mm: float,
    hardness: float,
    width_mm: float,
    height_mm: float,
) -> None:
    """Raise ``out`` (H, W) to the stroke's profile along a path in mm; wraps over every edge."""
    ends = points[1:] or points[:1]
    for (x0, y0), (x1, y1) in zip(points, ends, strict=False):
        _segment(out, x0, y0, x1, y1, 0.5 * size_mm, hardness, width_mm, height_mm, True)


def paint_pieces(
    out: Raster, pieces: npt.NDArray[np.float64], *, hardness: float, width_mm: float, height_mm: float, tapered: bool
) -> None:
    """Raise ``out`` (H, W) to a stroke's profile along single straight pieces (n, 6): both ends x, y in mm and the
    radius at each. Nothing wraps: what lies beyond ``out`` is not drawn.
    """
    for x0, y0, x1, y1, r0, r1 in pieces.tolist():
        if tapered:
            _taper(out, x0, y0, x1, y1, r0, r1, hardness, width_mm, height_mm)
        else:
            _segment(out, x0, y0, x1, y1, r0, hardness, width_mm, height_mm, False)


@compiled
def _taper(
    out: Raster,
    x0: float,
    y0: float,
    x1: float,
    y1: float,
    r0: float,
    r1: float,
    hardness: float,
    width_mm: float,
    height_mm: float,
) -> None:
    rows, columns = out.shape
    px, py = width_mm / columns, height_mm / rows
    outer = max(r0, r1)
    left, right = (
        max(math.floor((min(x0, x1) - outer) / px - 0.5), 0),
        min(math.ceil((max(x0, x1) + outer) / px - 0.5), columns - 1),
    )
    low, high = (
        max(math.floor((min(y0, y1) - outer) / py - 0.5), 0),
        min(math.ceil((max(y0, y1) + outer) / py - 0.5), rows - 1),
    )
    run_x, run_y = x1 - x0, y1 - y0
    length2 = run_x * run_x + run_y * run_y
    for j in range(low, high + 1):
        y = (j + 0.5) * py - y0
        r = rows - 1 - j
        for i in range(left, right + 1):
            x = (i + 0.5) * px - x0
            t = min(1.0, max(0.0, (x * run_x + y * run_y) / length2)) if length2 > 0.0 else 0.0
            radius = r0 + t * (r1 - r0)
            soft = max(radius * (1.0 - hardness), 0.75 * px)
            away = math.sqrt((x - t * run_x) ** 2 + (y - t * run_y) ** 2)
            s = min(1.0, max(0.0, (radius - away) / soft))
            s = s * s * (3.0 - 2.0 * s) * (radius / max(outer, 1e-9)) ** 0.5
            if s > out[r, i]:
                out[r, i] = np.float32(s)


@compiled
def _stamp(
    out: Raster, stamps: Raster, tip: Raster, hardness: float, flow: float, width_mm: float, height_mm: float
) -> None:
    rows, columns = out.shape
    px, py = width_mm / columns, height_mm / rows
    side = tip.shape[0]
    for n in range(stamps.shape[0]):
        x0, y0, radius, turn = stamps[n]
        cosine, sine = math.cos(turn), math.sin(turn)
        reach = radius * 1.4143 if side > 1 else radius
        soft = max(radius * (1.0 - hardness), 0.75 * px)
        left, right = max(math.floor((x0 - reach) / px - 0.5), 0), min(math.ceil((x0 + reach) / px - 0.5), columns - 1)
        low, high = max(math.floor((y0 - reach) / py - 0.5), 0), min(math.ceil((y0 + reach) / py - 0.5), rows - 1)
        for j in range(low, high + 1):
            y = (j + 0.5) * py - y0
            r = rows - 1 - j
            for i in range(left, right + 1):
                x = (i + 0.5) * px - x0
                if side > 1:
                    u = ((x * cosine + y * sine) / radius * 0.5 + 0.5) * side - 0.5
                    v = (0.5 - (-x * sine + y * cosine) / radius * 0.5) * side - 0.5
                    if u < 0.0 or v < 0.0 or u >= side - 1 or v >= side - 1:
                        continue
                    a, b = int(u), int(v)
                    fu, fv = u - a, v - b
                    s = (1 - fv) * ((1 - fu) * tip[b, a] + fu * tip[b, a + 1]) + fv * (
                        (1 - fu) * tip[b + 1, a] + fu * tip[b + 1, a + 1]
                    )
                else:
                    s = min(1.0, max(0.0, (radius - math.sqrt(x * x + y * y)) / soft))
                    s = s * s * (3.0 - 2.0 * s)
                out[r, i] += np.float32(flow * s * (1.0 - out[r, i]))


def paint_stamps(
    out: Raster,
    stamps: npt.NDArray[np.float64],
    tip: Raster | None,
    *,
    hardness: float,
    flow: float,
    width_mm: float,
    height_mm: float,
) -> None:
    """Stamps (n, 4) of x, y, radius in mm and turn in radians laid over each other, each by ``flow``; a round one
    without a tip. Nothing wraps, as in :func:`paint_pieces`.
    """
    shape = np.zeros((1, 1), np.float32) if tip is None else np.ascontiguousarray(tip, np.float32)
    _stamp(out, np.ascontiguousarray(stamps, np.float64), shape, float(hardness), float(flow), width_mm, height_mm)


@compiled
def _blend(first: int, last: int, out: Raster, cover: Raster, row: int, column: int, target: np.float32) -> None:
    rows, columns = out.shape
    for r in range(first, last):
        rr = (r + row) % rows
        for c in range(cover.shape[1]):
            cc = (c + column) % columns
            out[rr, cc] += cover[r, c] * (target - out[rr, cc])


def blend_window(out: Raster, cover: Raster, row: int, column: int, target: float) -> None:
    """Bring ``out`` (H, W) toward a value by the cover of a window of it that begins at a row and column and wraps."""
    over_rows(_blend, cover.shape[0], out, cover, row, column, np.float32(target))
