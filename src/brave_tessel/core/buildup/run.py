"""Runs: a stamp repeated along a path in whole steps, its bends followed, its ends capped."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import Annotated, Any, Protocol

import cv2
import numpy as np
import numpy.typing as npt

from ..colour import hex_to_linear
from ..job.nodes import Point, Setting
from ..kernels.path import measure_path
from ..maps import MapKind, MapSet, plain
from ..operation import Angle, Choice, Field, Fraction, Gathered, Length, operation, settings
from ..sheet import AnyArray, Grid, Raster

_F = npt.NDArray[np.float64]
Step = Annotated[
    float,
    Length(
        1, 200, log=True, least=0.05, most=5000, help="From one to the next; adjusted so that whole steps fill the run."
    ),
]
Wide = Annotated[float, Length(0.5, 100, log=True, least=0.05, most=2000, help="Its width across the run.")]
High = Annotated[float, Length(0.05, 20, log=True, least=0.005, most=500, help="How high it stands.")]


def _maps(grid: Grid, height: AnyArray, cover: AnyArray) -> MapSet:
    return MapSet(
        grid,
        {MapKind.HEIGHT: np.asarray(height, np.float32), MapKind.OPACITY: np.asarray(np.clip(cover, 0, 1), np.float32)},
    )


def _dome(inside: Raster, radius: float) -> Raster:
    """Height of a round rib, in [0, 1], from the distance to its middle."""
    return np.asarray(np.sqrt(np.maximum(1 - (inside / max(radius, 1e-6)) ** 2, 0)), np.float32)


@operation("stamp.stitch", label="Stitches")
def stitch(
    grid: Grid,
    along: Field,
    across: Field,
    *,
    step: Step = 6.0,
    width: Wide = 1.2,
    height: High = 0.6,
    gap: Annotated[float, Fraction(0, 0.8, most=0.95, help="Share of a step that is left between two.")] = 0.25,
    slant: Annotated[float, Angle(-60, 60, help="How far each lies aslant.")] = 0.0,
    sink: Annotated[float, Length(0, 5, least=0, most=100, help="How far the ends draw the ground in.")] = 0.4,
) -> MapSet:
    """A sewn line: threads that come up, lie, and go down into puckered holes."""
    middle = (along / np.float32(step)) % 1 - 0.5
    a = math.radians(slant)
    x, y = middle * step, across
    u, v = x * math.cos(a) + y * math.sin(a), -x * math.sin(a) + y * math.cos(a)
    half = 0.5 * step * (1 - gap)
    past = np.maximum(np.abs(u) - max(half - width / 2, 0), 0)
    away = np.hypot(past, v)
    thread = _dome(away, width / 2)
    arch = np.clip(1 - (np.abs(u) / max(half, 1e-3)) ** 2, 0, 1) ** 0.5
    twist = 0.88 + 0.12 * np.sin((u * 5 / width + v * 3 / width) * 2)
    raised = height * thread * (0.35 + 0.65 * arch) * twist
    hole = np.hypot(np.abs(u) - half, v)
    pucker = -sink * np.exp(-((hole / (0.9 * width)) ** 2))
    cover = np.clip((width / 2 - away) / grid.pitch_mm + 0.5, 0, 1)
    return _maps(
        grid,
        raised + pucker * (1 - thread),
        np.maximum(cover, np.clip(-pucker / max(sink, 1e-3) * 1.6, 0, 1) * (sink > 0)),
    )


@operation("stamp.beading", label="Beading")
def beading(
    grid: Grid,
    along: Field,
    across: Field,
    *,
    step: Step = 12.0,
    width: Wide = 11.0,
    height: High = 4.0,
    oval: Annotated[float, Fraction(-0.5, 0.5, help="Above 0 longer along the run, below 0 across it.")] = 0.0,
) -> MapSet:
    """A row of half balls."""
    x = ((along / np.float32(step)) % 1 - 0.5) * step / 2.0**oval
    away = np.hypot(x, across * 2.0**oval)
    return _maps(grid, height * _dome(away, width / 2), np.clip((width / 2 - away) / grid.pitch_mm + 0.5, 0, 1))


@operation("stamp.rope", label="Rope")
def rope(
    grid: Grid,
    along: Field,
    across: Field,
    *,
    step: Step = 14.0,
    width: Wide = 12.0,
    height: High = 6.0,
    twist: Annotated[float, Angle(10, 80, help="How steeply the strands cross it.")] = 50.0,
    fibre: Annotated[float, Fraction(help="How much single yarns show.")] = 0.3,
) -> MapSet:
    """Strands laid round each other."""
    body = _dome(across, width / 2)
    # Strands bend round the body: what lies near its rim is seen further along it.
    bent = np.arcsin(np.clip(across / (width / 2), -1, 1)) * (width / 2) * math.tan(math.radians(90 - twist))
    phase = ((along + bent) / np.float32(step)) % 1
    strand = np.sqrt(np.maximum(1 - (2 * phase - 1) ** 2, 0))
    yarn = 1 - fibre * 0.12 * (1 + np.cos(2 * math.pi * 5 * phase))
    cover = np.clip((width / 2 - np.abs(across)) / grid.pitch_mm + 0.5, 0, 1)
    return _maps(grid, height * body * (0.55 + 0.45 * strand) * yarn, cover)


@operation("stamp.dentils", label="Dentils")
def dentils(
    grid: Grid,
    along: Field,
    across: Field,
    *,
    step: Step = 60.0,
    width: Wide = 45.0,
    height: High = 12.0,
    gap: Annotated[float, Fraction(0, 0.8, most=0.95, help="Share of a step between two blocks.")] = 0.4,
    chamfer: Annotated[float, Length(0, 10, least=0, most=100, help="Width of the sloping edge.")] = 2.0,
) -> MapSet:
    """Blocks in a row, as beneath a cornice."""
    x = np.abs((along / np.float32(step)) % 1 - 0.5) * step
    inside = np.minimum(0.5 * step * (1 - gap) - x, width / 2 - np.abs(across))
    slope = np.clip(inside / max(chamfer, 0.5 * grid.pitch_mm), 0, 1)
    return _maps(grid, height * slope, np.clip(inside / grid.pitch_mm + 0.5, 0, 1))


EDGINGS = ("bead", "ogee", "fillet", "groove", "cove")


@operation("stamp.edging", label="Edging")
def edging(
    grid: Grid,
    along: Field,
    across: Field,
    *,
    step: Step = 100.0,
    width: Wide = 20.0,
    height: High = 5.0,
    profile: Annotated[str, Choice(*EDGINGS, help="Section of the edging.")] = "bead",
) -> MapSet:
    """A moulding of one section along the whole run."""
    t = np.clip(across / (width / 2), -1, 1)
    shapes: dict[str, Callable[[], Any]] = {
        "bead": lambda: _dome(across, width / 2),
        "fillet": lambda: np.clip((1 - np.abs(t)) * width / 2 / max(0.5 * grid.pitch_mm, 0.1 * width), 0, 1),
        "ogee": lambda: 0.5 - 0.5 * np.sin(math.pi / 2 * t) * (1.5 - 0.5 * np.sin(math.pi / 2 * t) ** 2),
        "groove": lambda: -_dome(across, width / 2),
        "cove": lambda: 1 - np.sqrt(np.maximum(1 - ((1 - t) / 2) ** 2, 0)),
    }
    return _maps(
        grid,
        height * np.asarray(shapes[profile](), np.float32),
        np.clip((width / 2 - np.abs(across)) / grid.pitch_mm + 0.5, 0, 1),
    )


@settings("stamp.source", label="Stamp from a source")
@dataclass(frozen=True, slots=True)
class FromSource:
    """A gathered picture repeated along the run; where its relief is neutral is found from its rim."""

    source: Annotated[str, Gathered(help="A source that has its real size: its width goes along the run.")] = ""
    step: Step = 60.0
    width: Wide = 40.0
    height: Annotated[float, Fraction(-2, 2, least=-100, most=100, help="Its relief is multiplied by this.")] = 1.0
    fade: Annotated[float, Fraction(0, 0.5, help="How much of its rim fades out across the run.")] = 0.15


def neutral_level(height: Raster) -> float:
    """The level of a stamp's own ground: the median of its long edges; mm."""
    rim = max(1, height.shape[0] // 24)
    return float(np.median(np.concatenate([height[:rim].ravel(), height[-rim:].ravel()])))


@dataclass(frozen=True, slots=True)
class Path:
    """A run's path as a dense polyline in mm and its length; ``closed`` returns to its start, on the sheet or a
    repeat on.
    """

    points: _F
    length: float
    closed: bool


BY_POINTS = "by its points"
WAYS = (BY_POINTS, "not at all", "as a ring", "across", "up")
"""How a run may close."""


class Run(Protocol):
    """What a run is made of; see ``kinds/run.py``."""

    @property
    def points(self) -> tuple[Point, ...]:
        """The points it passes, mm."""

    @property
    def closed(self) -> bool: ...

    @property
    def over(self) -> str:
        """One of ``WAYS``."""

    @property
    def rounded(self) -> bool:
        """Whether it passes them in a smooth line."""

    @property
    def stamp(self) -> Setting:
        """What is stamped along it."""

    @property
    def colour(self) -> str:
        """Its colour, as #RRGGBB."""

    @property
    def roughness(self) -> float:
        """Its roughness, in [0, 1]."""


def path_of(run: Run, grid: Grid) -> Path | None:
    """The run's path; None with fewer than two points."""
    points = np.array(run.points, np.float64).reshape(-1, 2)
    if len(points) < 2:
        return None
    points, ring = _closing(points, run, np.array([grid.width_mm, grid.height_mm]))
    ends = points[-1] - points[0]
    over_edge = bool(np.abs(ends).max() > 1e-6) and ring
    closed = ring
    dense = _rounded(points, closed, ends if over_edge else np.zeros(2)) if run.rounded and len(points) > 2 else points
    length = float(np.hypot(*np.diff(dense, axis=0).T).sum())
    return Path(dense, length, closed) if length > 0 else None


def _closing(points: _F, run: Run, laps: _F) -> tuple[_F, bool]:
    """A run's points with the one it closes on, and whether it closes at all."""
    ends = points[-1] - points[0]
    lapped = bool(np.abs(ends / laps - np.rint(ends / laps)).max() < 1e-6 and np.abs(ends).max() > 1e-6)
    if run.over == "not at all":
        return points, False
    if run.over in {"across", "up"}:
        # The last point is the first one a repeat further where it was laid so; it is put where this way has it.
        open_ = points[:-1] if lapped and len(points) > 2 else points
        way = 0 if run.over == "across" else 1
        lap = np.zeros(2)
        lap[way] = laps[way] if open_[-1][way] >= open_[0][way] else -laps[way]
        return np.vstack([open_, open_[:1] + lap]), True
    if run.over == "as a ring" or (run.closed and not lapped):
        return np.vstack([points, points[:1]]), True
    return points, run.closed or lapped


def _rounded(points: _F, closed: bool, lap: _F) -> _F:
    """A smooth curve through the points (centripetal Catmull and Rom 1974, as in Yuksel et al. 2011)."""
    before = points[-2] - lap if closed else 2 * points[0] - points[1]
    after = points[1] + lap if closed else 2 * points[-1] - points[-2]
    chain = np.vstack([before, points, after])
    made = []
    for a, b, c, d in zip(chain[:-3], chain[1:-2], chain[2:-1], chain[3:], strict=True):
        t = [0.0]
        for p, q in ((a, b), (b, c), (c, d)):
            t.append(t[-1] + max(float(np.hypot(*(q - p))) ** 0.5, 1e-6))
        s = np.linspace(t[1], t[2], 17)[:-1, None]
        a1 = (t[1] - s) / (t[1] - t[0]) * a + (s - t[0]) / (t[1] - t[0]) * b
        a2 = (t[2] - s) / (t[2] - t[1]) * b + (s - t[1]) / (t[2] - t[1]) * c
        a3 = (t[3] - s) / (t[3] - t[2]) * c + (s - t[2]) / (t[3] - t[2]) * d
        b1 = (t[2] - s) / (t[2] - t[0]) * a1 + (s - t[0]) / (t[2] - t[0]) * a2
        b2 = (t[3] - s) / (t[3] - t[1]) * a2 + (s - t[1]) / (t[3] - t[1]) * a3
        made.append((t[2] - s) / (t[2] - t[1]) * b1 + (s - t[1]) / (t[2] - t[1]) * b2)
    return np.vstack([*made, points[-1:]])


_MUCH = 0.4
"""A run that passes more of the sheet than this is worked out for all of it."""


def whole_steps(length_mm: float, step_mm: float) -> tuple[int, float]:
    """How many whole steps fill a run, and the step that follows; mm."""
    count = max(1, round(length_mm / step_mm))
    return count, length_mm / count


def lay_run(grid: Grid, run: Run, stamp: MapSet | None = None, path: Path | None = None) -> MapSet:
    """The run's maps on the sheet: height, opacity, colour, roughness. ``stamp`` are the maps of a source that is
    stamped, ``path`` where the run goes, if not straight through its points.
    """
    flat = {MapKind.HEIGHT: np.zeros(grid.shape, np.float32), MapKind.OPACITY: np.zeros(grid.shape, np.float32)}
    path = path or path_of(run, grid)
    operation_ = run.stamp.operation
    values = run.stamp.bound()
    if path is not None:
        _, step = whole_steps(path.length, float(values["step"]))
        values["step"] = step
        reach = 0.75 * max(float(values["width"]), 0.2) + 2 * grid.pitch_mm
        along, across = measure_path(
            path.points,
            grid.shape,
            reach_mm=reach,
            width_mm=grid.width_mm,
            height_mm=grid.height_mm,
            closed=path.closed,
        )
        made = (
            _stamped(grid, along, across, values, stamp)
            if stamp is not None
            else _near(grid, partial(operation_.run, **values), along, across, reach)
        )
        ends = np.ones(grid.shape, np.float32)
        if not path.closed:
            # Open ends are capped round, half a width beyond the first and last step.
            past = np.maximum(np.maximum(-along, along - np.float32(path.length)), 0)
            half = 0.5 * float(values["width"])
            ends = np.clip(
                (half - np.hypot(past, np.where(past > 0, across, 0))) / np.float32(grid.pitch_mm) + np.float32(0.5),
                0,
                1,
            )
        cover = np.where(np.abs(across) <= reach, made[MapKind.OPACITY] * ends, 0).astype(np.float32)
        flat = {**made.maps, MapKind.OPACITY: cover}
    if MapKind.BASE_COLOUR not in flat:
        flat[MapKind.BASE_COLOUR] = np.ascontiguousarray(plain(grid, hex_to_linear(run.colour)))
        flat[MapKind.ROUGHNESS] = np.full(grid.shape, run.roughness, np.float32)
    return MapSet(grid, flat)


def _near(grid: Grid, stamp: Callable[..., MapSet], along: Raster, across: Raster, reach: float) -> MapSet:
    """A stamp's maps where the run passes; a thin one passes few pixels, and is worked out for those alone."""
    there = np.abs(across) <= reach
    if there.mean() > _MUCH:
        return stamp(grid, along, across)
    few = stamp(grid, along[there][None], across[there][None])
    made: dict[MapKind, Raster] = {}
    for kind, values in few.maps.items():
        made[kind] = np.zeros((*grid.shape, *values.shape[2:]), np.float32)
        made[kind][there] = values[0]
    return MapSet(grid, made)


def _stamped(
    grid: Grid, along: Raster, across: Raster, values: dict[str, float | int | str | bool], stamp: MapSet
) -> MapSet:
    width, step, fade = float(values["width"]), float(values["step"]), float(values["fade"])
    a = ((along / np.float32(step)) % 1 * stamp.grid.width_px - 0.5).astype(np.float32)
    t = across / np.float32(width) + np.float32(0.5)
    b = ((1 - t) * stamp.grid.height_px - 0.5).astype(np.float32)
    made: dict[MapKind, Raster] = {
        kind: np.asarray(
            cv2.remap(
                np.pad(pixels, ((0, 0), (1, 1), *([(0, 0)] * (pixels.ndim - 2))), mode="wrap"),
                a + 1,
                b,
                cv2.INTER_LINEAR,
                borderMode=cv2.BORDER_REPLICATE,
            ),
            np.float32,
        )
        for kind, pixels in stamp.maps.items()
        if kind in {MapKind.BASE_COLOUR, MapKind.ROUGHNESS, MapKind.HEIGHT, MapKind.METALNESS}
    }
    neutral = neutral_level(stamp.or_default(MapKind.HEIGHT))
    if MapKind.HEIGHT in made:
        made[MapKind.HEIGHT] = (made[MapKind.HEIGHT] - np.float32(neutral)) * np.float32(float(values["height"]))
    rim = np.clip(np.minimum(t, 1 - t) / np.float32(max(fade, grid.pitch_mm / width)), 0, 1)
    return MapSet(grid, {**made, MapKind.OPACITY: np.asarray(rim * rim * (3 - 2 * rim), np.float32)})
