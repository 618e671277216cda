"""A stamp along a path in whole steps: stitches, beading, rope, an edging."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import replace
from functools import partial
from typing import Any

from msgspec import structs

from ...job.document import Job
from ...job.layers import Layer, References, Surface, What
from ...job.nodes import Node, Point, Setting
from ...maps import MapKind, MapSet
from ...operation import Choice, Fraction, Paint
from ...phrases import say
from ...plan.protocol import Plans
from ...plan.tasks import Task, task_key
from ...quantity import format_number
from ...sheet import Grid
from ..form_rows import Choose, Dials, Field, Flag, FormRow, Found, Note
from ..handles import Handle, Handles, Moved
from ..joints import along_joints
from ..kind import LayerKind, layer_kind
from ..run import BY_POINTS, WAYS, lay_run, neutral_level, path_of, whole_steps
from ..stack import Stack


class RunWhat(Node, What, frozen=True, kw_only=True, tag="run"):
    """A stamp along a path in whole steps. ``points`` in mm. ``over`` says how it closes: not at all, as a ring, or
    over the edge of the sheet ``across`` or ``up``, where it goes on to its first point a repeat further. By its
    points, a ``closed`` one is a ring, and one whose last point lies a repeat further on closes over the edge. With
    ``joints`` it goes from each point to the next along the joints of what lies beneath.
    """

    points: tuple[Point, ...] = ()
    closed: bool = False
    rounded: bool = True
    stamp: Setting = Setting(op="stamp.stitch")
    colour: str = "#8F7A52"
    roughness: float = 0.8
    over: str = BY_POINTS
    joints: bool = False

    def refers(self) -> References:
        """The source it lays along itself, if any."""
        source = self.stamp.values.get("source")
        return References(sources=(str(source),) if source else ())


@layer_kind(RunWhat, label="Run")
class RunKind(LayerKind[RunWhat]):
    """Its points are dragged on the board."""

    def fresh(self, job: Job, surface: Surface, name: str) -> RunWhat:
        width, up = surface.width_mm, round(surface.height_mm / 2, 2)
        return RunWhat(points=((0.0, up), (round(width / 2, 2), up), (width, up)), over="across")

    def maps(self, planner: Plans, layer: Layer, grid: Grid, below: Task | None) -> Task:
        assert isinstance(layer.what, RunWhat)
        what = layer.what
        stamp = _stamp(planner, what, grid, layer.id)
        inputs = () if stamp is None else (stamp,)
        if what.joints:
            inputs = (*inputs, below or planner.bare(grid, layer.id))
        told = [
            what.points,
            what.closed,
            what.over,
            what.rounded,
            what.stamp.op,
            what.stamp.complete(),
            what.colour,
            what.roughness,
            *(("joints",) if what.joints else ()),
        ]
        return Task(
            task_key("run", told, grid, *(task.key for task in inputs)),
            layer.name,
            layer.id,
            partial(_lay, what=what, grid=grid),
            inputs,
        )

    def form(self, job: Job, surface: Surface, layer: Layer) -> Iterable[FormRow]:
        assert isinstance(layer.what, RunWhat)
        stamp = layer.what.stamp
        yield Note("Drag its points on the board; click the run to add one, Del takes the chosen one out.")
        yield Choose("Stamp", "stamp", ("what", "stamp"), "Another stamp")
        yield Dials(("what", "stamp"), stamp.op)
        if not layer.what.joints:
            yield Note(steps_note)
        if stamp.op == "stamp.source" and stamp.value("source"):
            yield Found("Its neutral level is being found from its rim.", _plan_neutral, _tell_neutral)
        ways = WAYS[1:] if layer.what.over != BY_POINTS else WAYS
        closes = replace(Choice(*ways, help="How the run ends: free, back where it began, or over the edge."),
                         label="Closes", default=BY_POINTS)  # fmt: skip
        yield Field(closes, ("what", "over"))
        yield Flag("Along the joints", ("what", "joints"), "Run along the joints",
                   "From each point to the next by the joints of what lies beneath")  # fmt: skip
        yield Flag("Rounded", ("what", "rounded"), "Rounded run", "A smooth curve through its points")
        colour = replace(Paint(help="Colour of the run."), label="Colour", default="#8F7A52")
        rough = replace(Fraction(help="Roughness of the run."), label="Roughness", default=0.8)
        yield Field(colour, ("what", "colour"))
        yield Field(rough, ("what", "roughness"))

    def handles(self, surface: Surface, what: RunWhat) -> Handles:
        points = tuple(Handle(f"point {k}", x, y) for k, (x, y) in enumerate(what.points))
        path = (*what.points, *(what.points[:1] if what.closed or what.over == "as a ring" else ()))
        drawn = path_of(what, Grid(8, 8, surface.width_mm, surface.height_mm))
        line = tuple((float(x), float(y)) for x, y in drawn.points) if drawn is not None else ()
        return Handles(points, (line,) if line else (), path)

    def moved(
        self, surface: Surface, what: RunWhat, handle: str, to: tuple[float, float], unequal: bool
    ) -> Moved | None:
        points = _point_moved(surface, what, _number(handle), (round(to[0], 2), round(to[1], 2)))
        return Moved(("what", "points"), points, "Move a point")

    def clicked(self, what: RunWhat, at: tuple[float, float]) -> Moved | None:
        return Moved(("what", "points"), point_added(what, *at), "Add a point")

    def taken_out(self, what: RunWhat, handle: str) -> Moved | None:
        if len(what.points) <= 2:
            return None
        index = _number(handle)
        return Moved(("what", "points"), (*what.points[:index], *what.points[index + 1 :]), "Take out a point")


def _number(handle: str) -> int:
    return int(handle.removeprefix("point "))


def _lay(*given: MapSet | Stack, what: RunWhat, grid: Grid) -> MapSet:
    stamp = next((one for one in given if isinstance(one, MapSet)), None)
    below = next((one for one in given if isinstance(one, Stack)), None)
    path = None
    if below is not None and (straight := path_of(structs.replace(what, rounded=False), grid)) is not None:
        bend = what.stamp.number("width") if what.rounded else 0.0
        path = along_joints(straight, below.height, grid, bend)
    return lay_run(grid, what, stamp, path)


def _stamp(planner: Plans, what: RunWhat, grid: Grid, owner: str) -> Task | None:
    """The maps of a source that is stamped along the run; None for stamps that are drawn."""
    if what.stamp.op != "stamp.source" or not what.stamp.value("source"):
        return None
    source = planner.job.source(str(what.stamp.value("source")))
    longer = max(what.stamp.number("step"), what.stamp.number("width"))
    px = max(16, min(2048, round(longer / grid.pitch_mm)))
    return planner.estimated(source, None, planner.evened(source, px), owner)


def _plan_neutral(planner: Any, surface: Surface, layer: Layer) -> Task | None:
    assert isinstance(layer.what, RunWhat)
    return _stamp(planner, layer.what, Grid.for_repeat(surface.width_mm, surface.height_mm, 512), layer.id)


def _tell_neutral(maps: MapSet) -> str:
    level = format_number(neutral_level(maps.or_default(MapKind.HEIGHT)))
    return say("Its neutral level is {level} mm, found from its rim; no step shows there.", level=level)


def steps_note(surface: Surface, layer: Layer) -> str:
    """How many whole steps fill a run."""
    what = layer.what
    if not isinstance(what, RunWhat):
        return ""
    path = path_of(what, Grid(8, 8, surface.width_mm, surface.height_mm))
    if path is None:
        return ""
    count, step = whole_steps(path.length, what.stamp.number("step"))
    return say(
        "{count} whole steps of {number} mm on {number_2} mm.",
        count=count,
        number=format_number(step),
        number_2=format_number(path.length, decimals=1),
    )


def _point_moved(surface: Surface, run: RunWhat, index: int, to: Point) -> tuple[Point, ...]:
    """A point of a run moved; the ends of one that closes over the edge move together."""
    points = list(run.points)
    last = len(points) - 1
    lap = (points[last][0] - points[0][0], points[last][1] - points[0][1])
    closes = (
        run.over not in {"not at all", "as a ring"}
        and any(abs(d) > 1 for d in lap)
        and all(
            abs(d / s - round(d / s)) < 1e-6 for d, s in zip(lap, (surface.width_mm, surface.height_mm), strict=True)
        )
    )
    points[index] = to
    if closes and index == 0:
        points[last] = (to[0] + lap[0], to[1] + lap[1])
    elif closes and index == last:
        points[0] = (to[0] - lap[0], to[1] - lap[1])
    return tuple(points)


def point_added(run: RunWhat, x: float, y: float) -> tuple[Point, ...]:
    """A run with one more point, on the part of it that lies nearest."""
    points = list(run.points)
    chain = [*points, *(points[:1] if run.closed or run.over == "as a ring" else [])]
    best, at = math.inf, len(points)
    for k in range(len(chain) - 1):
        (ax, ay), (bx, by) = chain[k], chain[k + 1]
        dx, dy = bx - ax, by - ay
        t = min(1.0, max(0.0, ((x - ax) * dx + (y - ay) * dy) / max(dx * dx + dy * dy, 1e-9)))
        away = math.hypot(x - ax - t * dx, y - ay - t * dy)
        if away < best:
            best, at = away, k + 1
    return (*points[:at], (round(x, 2), round(y, 2)), *points[at:])
