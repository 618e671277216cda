"""Brush strokes replayed at any size: paths, stamps along them, their mirrored and turned copies; all wrapped."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ..kernels.strokes import blend_window, paint_path, paint_stamps, paint_taper
from ..lattice import units_many
from ..layers import Stroke
from ..nodes import Point
from ..sheet import Grid, Raster

Tips = Mapping[str, Raster]
"""Tips of brushes by their source: (n, n) in [0, 1]."""
INTO = ("colour", "raise", "lower", "flatten", "smooth", "roughness")
"""What a stroke of a painted layer changes."""


@dataclass(frozen=True, slots=True)
class Window:
    """A part of a wrapped sheet: its first row and column, and how much of the stroke lies on each of its pixels."""

    row: int
    column: int
    cover: Raster


def copies(stroke: Stroke, width_mm: float, height_mm: float) -> Iterator[tuple[Point, ...]]:
    """The stroke's path and its copies: mirrored about its centre, turned round it, repeated over the sheet."""
    centre = np.array(stroke.centre)
    points = np.array(stroke.points, np.float64).reshape(-1, 2) - centre
    flips = {"none": ((1, 1),), "across": ((1, 1), (-1, 1)), "up": ((1, 1), (1, -1)), "both": ((1, 1), (-1, 1), (1, -1), (-1, -1))}
    across, up = stroke.lattice
    for flip in flips.get(stroke.mirror, ((1, 1),)):
        for k in range(max(1, stroke.fold)):
            a = 2 * math.pi * k / max(1, stroke.fold)
            turn = np.array([[math.cos(a), math.sin(a)], [-math.sin(a), math.cos(a)]])
            placed = points * flip @ turn + centre
            for i in range(max(1, across)):
                for j in range(max(1, up)):
                    moved = placed + (i * width_mm / max(1, across), j * height_mm / max(1, up))
                    yield tuple((float(x), float(y)) for x, y in moved)


def cover_of(stroke: Stroke, grid: Grid, tips: Tips) -> Iterator[Window]:
    """Where a stroke and each of its copies lie, each on the part of the sheet it touches."""
    for number, points in enumerate(copies(stroke, grid.width_mm, grid.height_mm)):
        if not points:
            continue
        window = _window(points, stroke.size_mm * (0.75 + stroke.stray), grid)
        _draw(window, points, stroke, grid, tips.get(stroke.tip), number)
        yield window


def _window(points: Sequence[Point], reach_mm: float, grid: Grid) -> Window:
    """The whole sheet where the stroke is wider than it."""
    px, py = grid.mm_per_px
    xs, ys = [p[0] for p in points], [p[1] for p in points]
    first, last = math.floor((min(xs) - reach_mm) / px) - 1, math.ceil((max(xs) + reach_mm) / px) + 1
    low, high = math.floor((min(ys) - reach_mm) / py) - 1, math.ceil((max(ys) + reach_mm) / py) + 1
    if last - first >= grid.width_px or high - low >= grid.height_px:
        return Window(0, 0, np.zeros(grid.shape, np.float32))
    return Window(grid.height_px - high, first, np.zeros((high - low, last - first), np.float32))


def _draw(window: Window, points: Sequence[Point], stroke: Stroke, grid: Grid, tip: Raster | None, number: int) -> None:
    cover = window.cover
    whole = cover.shape == grid.shape
    px, py = grid.mm_per_px
    origin = (0.0, 0.0) if whole else (window.column * px, (grid.height_px - window.row - cover.shape[0]) * py)
    size = (grid.width_mm, grid.height_mm) if whole else (cover.shape[1] * px, cover.shape[0] * py)
    moved = [(x - origin[0], y - origin[1]) for x, y in points]
    if tip is not None or stroke.spacing > 0 or stroke.stray > 0:
        stamps = _stamps(moved, stroke, number)
        paint_stamps(cover, stamps, tip, hardness=stroke.hardness, flow=stroke.flow, width_mm=size[0], height_mm=size[1])
        np.multiply(cover, np.float32(stroke.strength), out=cover)
        return
    if stroke.pressure:
        paint_taper(cover, moved, _at_points(stroke), size_mm=stroke.size_mm, hardness=stroke.hardness, width_mm=size[0], height_mm=size[1])
    else:
        paint_path(cover, moved, size_mm=stroke.size_mm, hardness=stroke.hardness, width_mm=size[0], height_mm=size[1])
    np.multiply(cover, np.float32(stroke.strength * stroke.flow), out=cover)


def _at_points(stroke: Stroke) -> list[float]:
    given = list(stroke.pressure)
    return (given + [given[-1]] * len(stroke.points))[: len(stroke.points)] if given else [1.0] * len(stroke.points)


def _stamps(points: Sequence[Point], stroke: Stroke, number: int) -> np.ndarray:
    """Stamps (n, 4): x, y, radius in mm, turn; every ``spacing`` widths along the path."""
    path = np.array(points, np.float64)
    pressure = np.array(_at_points(stroke))
    run = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(path, axis=0).T))]) if len(path) > 1 else np.zeros(1)
    every = max(stroke.spacing, 0.05) * stroke.size_mm
    at = np.arange(0, run[-1] + 1e-9, every)
    x, y, press = (np.interp(at, run, values) for values in (path[:, 0], path[:, 1], pressure))
    index = np.arange(len(at))
    luck = [units_many(index, np.full(len(at), 811 + k), number + 1).astype(np.float64) for k in range(3)]
    angle, away = 2 * np.pi * luck[0], stroke.stray * stroke.size_mm * luck[1]
    turn = 2 * np.pi * luck[2] if stroke.stray > 0 else np.zeros(len(at))
    return np.column_stack([x + np.cos(angle) * away, y + np.sin(angle) * away, 0.5 * stroke.size_mm * press, turn])


def lay_strokes(coverage: Raster, strokes: Sequence[Stroke], grid: Grid, tips: Tips | None = None) -> Raster:
    """Coverage with strokes laid over it in order; the given raster is not changed."""
    out = coverage.copy()
    for stroke in strokes:
        for window in cover_of(stroke, grid, tips or {}):
            blend_window(out, window.cover, window.row, window.column, 0.0 if stroke.erase else 1.0)
    return out
