"""Brush strokes replayed at any size: paths, stamps along them, their mirrored and turned copies; all wrapped."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

import msgspec
import numpy as np
import numpy.typing as npt

from ..job.layers import Stroke
from ..job.nodes import Point
from ..kernels.strokes import blend_window, paint_pieces, paint_stamps
from ..lattice import units_as_before
from ..plan.area import Area, area_of
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
    flips = {
        "none": ((1, 1),),
        "across": ((1, 1), (-1, 1)),
        "up": ((1, 1), (1, -1)),
        "both": ((1, 1), (-1, 1), (1, -1), (-1, -1)),
    }
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
        if points:
            area = _touched(points, reach_of(stroke), grid)
            yield Window(area.row, area.column, _drawn(stroke, _pieces(points, stroke, area, number, tips), area, tips))


def _touched(points: Sequence[Point], reach_mm: float, grid: Grid) -> Area:
    """What a path's stroke touches; the whole sheet where it is wider than that."""
    xs, ys = [p[0] for p in points], [p[1] for p in points]
    area = area_of(grid, min(xs) - reach_mm, min(ys) - reach_mm, max(xs) + reach_mm, max(ys) + reach_mm).grown(1)
    return Area(grid, 0, 0, *grid.shape) if area.rows >= grid.height_px or area.columns >= grid.width_px else area


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
    draws = [units_as_before(index, np.full(len(at), 811 + k), number + 1).astype(np.float64) for k in range(3)]
    angle, away = 2 * np.pi * draws[0], stroke.stray * stroke.size_mm * draws[1]
    turn = 2 * np.pi * draws[2] if stroke.stray > 0 else np.zeros(len(at))
    return np.column_stack([x + np.cos(angle) * away, y + np.sin(angle) * away, 0.5 * stroke.size_mm * press, turn])


def cover_within(stroke: Stroke, area: Area, tips: Tips) -> Iterator[Window]:
    """As :func:`cover_of`, but only on an area of the sheet: of a long stroke no more is drawn than what crosses it."""
    for number, points in enumerate(copies(stroke, area.grid.width_mm, area.grid.height_mm)):
        near = _pieces(points, stroke, area, number, tips)
        if len(near):
            yield Window(0, 0, _drawn(stroke, near, area, tips))


def _drawn(stroke: Stroke, pieces: npt.NDArray[np.float64], area: Area, tips: Tips) -> Raster:
    """How much of a stroke's stamps or straight pieces lies on each pixel of an area."""
    cover = np.zeros((area.rows, area.columns), np.float32)
    size = {"width_mm": area.own.width_mm, "height_mm": area.own.height_mm}
    if _stamped(stroke, tips):
        paint_stamps(cover, pieces, tips.get(stroke.tip), hardness=stroke.hardness, flow=stroke.flow, **size)
    else:
        paint_pieces(cover, pieces, hardness=stroke.hardness, tapered=bool(stroke.pressure), **size)
    return cover * np.float32(_strength(stroke, tips))


def _stamped(stroke: Stroke, tips: Tips) -> bool:
    return stroke.tip in tips or stroke.spacing > 0 or stroke.stray > 0


def _strength(stroke: Stroke, tips: Tips) -> float:
    """Stamps are laid over each other by the flow; a line is drawn once."""
    return stroke.strength if _stamped(stroke, tips) else stroke.strength * stroke.flow


def changed_boxes(
    before: Stroke | None, after: Stroke, width_mm: float, height_mm: float
) -> list[tuple[float, float, float, float]]:
    """Rectangles of the sheet (left, low, right, high), mm, outside of which a stroke that has grown is as it was; one
    for each of its copies.
    """
    grown = (
        before is not None and msgspec.structs.replace(after, points=before.points, pressure=before.pressure) == before
    )
    kept = (
        len(before.points)
        if before is not None and grown and after.points[: len(before.points)] == before.points
        else 0
    )
    one = msgspec.structs.replace(after, points=after.points[max(0, kept - 1) :])
    if before is not None and not kept:
        one = msgspec.structs.replace(after, points=(*before.points, *after.points))
    boxes = []
    for path in copies(one, width_mm, height_mm):
        points = np.array(path).reshape(-1, 2)
        (left, low), (right, high) = points.min(0) - reach_of(one), points.max(0) + reach_of(one)
        boxes.append((float(left), float(low), float(right), float(high)))
    return boxes


def reach_of(stroke: Stroke) -> float:
    """How far from its path a stroke can lie, mm, to within a pixel; the corners of a turned tip reach furthest."""
    corner = math.sqrt(2) if stroke.tip else 1.0
    return float(stroke.size_mm * (0.5 * corner + stroke.stray))


def _laps(
    points: np.ndarray, box: tuple[float, float, float, float], grid: Grid, reach: float
) -> list[tuple[float, float]]:
    """By which whole repeats a path is moved to come near a box in mm."""
    if not len(points):
        return []
    x0, y0, x1, y1 = box
    (least_x, least_y), (most_x, most_y) = points.min(0) - reach, points.max(0) + reach
    across = range(math.ceil((x0 - most_x) / grid.width_mm), math.floor((x1 - least_x) / grid.width_mm) + 1)
    up = range(math.ceil((y0 - most_y) / grid.height_mm), math.floor((y1 - least_y) / grid.height_mm) + 1)
    return [(i * grid.width_mm, j * grid.height_mm) for i in across for j in up]


def _pieces(points: Sequence[Point], stroke: Stroke, area: Area, number: int, tips: Tips) -> npt.NDArray[np.float64]:
    """Of a path and its repeats what comes near an area: stamps or straight pieces, in mm from its lower left
    corner.
    """
    own, reach, (left, low), stamped = area.own, reach_of(stroke), area.corner_mm(), _stamped(stroke, tips)
    found = []
    for x, y in _laps(
        np.array(points).reshape(-1, 2), (left, low, left + own.width_mm, low + own.height_mm), area.grid, reach
    ):
        moved = [(px + x - left, py + y - low) for px, py in points]
        made = _stamps(moved, stroke, number) if stamped else _straight(moved, stroke)
        last = made[:, :2] if stamped else made[:, 2:4]
        found.append(made[_near(made[:, :2], last, own, reach)])
    return np.concatenate(found) if found else np.zeros((0, 4))


def _straight(points: Sequence[Point], stroke: Stroke) -> np.ndarray:
    """Straight pieces (n, 6): both ends and the radius at each, mm."""
    path = np.array(points)
    radii = 0.5 * stroke.size_mm * (np.maximum(_at_points(stroke), 0.02) if stroke.pressure else np.ones(len(path)))
    last = np.minimum(np.arange(max(1, len(path) - 1)) + 1, len(path) - 1)
    first = np.arange(len(last))
    return np.column_stack([path[first], path[last], radii[first], radii[last]])


def _near(first: np.ndarray, last: np.ndarray, own: Grid, reach: float) -> np.ndarray:
    """Which pieces between two ends (n, 2) come within reach of a sheet."""
    low, high = np.minimum(first, last) - reach, np.maximum(first, last) + reach
    inside = (high >= 0) & (low <= (own.width_mm, own.height_mm))
    return np.asarray(inside.all(1))


def lay_strokes(
    coverage: Raster, strokes: Sequence[Stroke], grid: Grid, tips: Tips | None = None, area: Area | None = None
) -> Raster:
    """Coverage with strokes laid over it in order; the given raster is not changed. With an ``area`` it is that part of
    the sheet alone.
    """
    out = coverage.copy()
    for stroke in strokes:
        for window in cover_of(stroke, grid, tips or {}) if area is None else cover_within(stroke, area, tips or {}):
            blend_window(out, window.cover, window.row, window.column, 0.0 if stroke.erase else 1.0)
    return out
