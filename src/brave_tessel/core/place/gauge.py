"""What of a surface a builder counts: its courses and units as they close on its repeat, and their outlines."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

import msgspec

from ..buildup.kind import kind_of
from ..errors import TesselError
from ..job.document import Job
from ..job.layers import Layer, Step, Surface, laid_times
from ..kernels.mosaic import Mosaic
from ..lattice import whole_periods
from ..operation import Operation, find
from ..recipe.set_out import Pitch, SetOut
from ..sheet import Grid

MOST_OUTLINES = 40_000
"""Units of one repeat that are told apart; beyond it they are no units to anybody."""


@dataclass(frozen=True, slots=True)
class Gauge:
    """Courses up and units along, as they close on the repeat: None where there are none. ``layer`` and ``step`` name
    the pattern they are of, empty where they are not of a pattern but of a photo's whole rows.
    """

    courses: Pitch | None
    units: Pitch | None
    layer: str = ""
    step: str = ""


@dataclass(frozen=True, slots=True)
class Pattern:
    """A pattern that a surface's layer is made of, with its checked values and how often its sheet lies in it."""

    layer: Layer
    step: Step
    operation: Operation
    values: dict[str, Any]
    times: tuple[int, int]

    @property
    def sets_out(self) -> SetOut:
        """How it is set out."""
        found: SetOut = self.operation.sets_out
        return found


def patterns_of(surface: Surface) -> Iterator[Pattern]:
    """Patterns that are set out, of the layers that show, from the lowest up."""
    for layer in surface.layers:
        recipe = layer.what.made_of_recipe()
        if not layer.shown or recipe is None or not kind_of(layer.what).laid:
            continue
        for step in recipe.steps:
            operation = find(step.op, step.version)
            if operation.sets_out is None or step.bypassed:
                continue
            try:
                values = dict(operation.bind(step.values))
            except TesselError:
                continue
            yield Pattern(layer, step, operation, values, laid_times(layer))


def pattern_of(surface: Surface) -> Pattern | None:
    """The lowest pattern with courses or units that a surface shows."""
    for one in patterns_of(surface):
        if one.sets_out.courses(one.values) or one.sets_out.units(one.values) or one.sets_out.outlines:
            return one
    return None


def gauge_of(surface: Surface, job: Job | None = None) -> Gauge | None:
    """What is counted of a surface: of its lowest pattern, of a surface laid in it, or of its whole rows."""
    one = pattern_of(surface)
    if one is not None:
        across, up = one.times
        period = one.operation.closes(one.values) if one.operation.closes else (0.0, 0.0)
        return Gauge(
            _closed(one.sets_out.courses(one.values), surface.height_mm / up, period[1]),
            _closed(one.sets_out.units(one.values), surface.width_mm / across, period[0]),
            one.layer.id,
            one.step.name,
        )
    return _of_rows(surface) or _of_another(surface, job)


@dataclass(frozen=True, slots=True)
class Closing:
    """A pattern's units and courses as they were asked for, and as they close on the surface's repeat."""

    asked: tuple[Pitch | None, Pitch | None]
    real: tuple[Pitch | None, Pitch | None]

    def pairs(self) -> list[tuple[Pitch, Pitch]]:
        """Those there are, along and up: asked and real."""
        return [(asked, real) for asked, real in zip(self.asked, self.real, strict=True) if asked and real]

    def stretched(self) -> list[tuple[Pitch, Pitch]]:
        """Those that are off by more than half a millimetre and half a percent."""
        return [(asked, real) for asked, real in self.pairs() if abs(real.mm - asked.mm) > max(0.5, 0.005 * asked.mm)]

    def repeat(self, surface: Surface) -> tuple[float, float]:
        """The repeat on which as many units close at the size that was asked for, mm."""
        width, height = (
            round(size * asked.mm / real.mm, 4) if asked and real else size
            for size, asked, real in zip((surface.width_mm, surface.height_mm), self.asked, self.real, strict=True)
        )
        return width, height


def closing_of(surface: Surface) -> Closing | None:
    """How the lowest pattern of a surface closes; None where nothing of it is counted."""
    one = pattern_of(surface)
    gauge = gauge_of(surface) if one is not None else None
    if one is None or gauge is None or not (gauge.courses or gauge.units):
        return None
    asked = (one.sets_out.units(one.values), one.sets_out.courses(one.values))
    return Closing(asked, (gauge.units, gauge.courses))


@dataclass(frozen=True, slots=True)
class WholeRepeat:
    """A repeat that holds whole units: its size in mm, and how many lie across and up; 0 where a way has none."""

    width_mm: float
    height_mm: float
    across: int
    up: int


def whole_repeats(surface: Surface, width_mm: float, height_mm: float) -> list[WholeRepeat]:
    """Repeats near a wanted one on which the surface's units stay whole and keep their size, nearest first; at most
    four, none where nothing of it is counted.
    """
    periods, pitches = _periods(surface)
    if not any(periods):
        return []
    ways = []
    for period, pitch, wanted in zip(periods, pitches, (width_mm, height_mm), strict=True):
        low = max(1, math.floor(wanted / period)) if period else 0
        counts = {low, max(1, math.ceil(wanted / period))} if period else {0}
        ways.append([(n * period if n else wanted, round(n * period / pitch) if n else 0) for n in sorted(counts)])
    found = [WholeRepeat(round(w, 4), round(h, 4), across, up) for w, across in ways[0] for h, up in ways[1]]
    return sorted(
        found, key=lambda one: abs(math.log(one.width_mm / width_mm)) + abs(math.log(one.height_mm / height_mm))
    )


def _periods(surface: Surface) -> tuple[tuple[float, float], tuple[float, float]]:
    """What must stay whole across and up, and a single unit and course, mm; 0 and 1 where a way is free."""
    one = pattern_of(surface)
    if one is None:
        across, up = surface.rows
        if not surface.beat:
            return (0.0, 0.0), (1.0, 1.0)
        each = surface.width_mm / across, surface.height_mm / up
        return each, each
    units, courses = one.sets_out.units(one.values), one.sets_out.courses(one.values)
    closes = one.operation.closes(one.values) if one.operation.closes else (0.0, 0.0)
    pitches = tuple(
        pitch.mm if pitch else period or 1.0 for pitch, period in zip((units, courses), closes, strict=True)
    )
    periods = tuple(
        period or (pitch.mm if pitch else 0.0) for pitch, period in zip((units, courses), closes, strict=True)
    )
    times = one.times
    return (periods[0] * times[0], periods[1] * times[1]), (pitches[0], pitches[1])


def _closed(pitch: Pitch | None, repeat: float, period: float) -> Pitch | None:
    """A pitch as whole ones of it fill a repeat."""
    if pitch is None or pitch.mm <= 0:
        return None
    whole = whole_periods(repeat, period if period > 0 else pitch.mm)
    each = period / pitch.mm if period > 0 else 1.0
    return replace(pitch, mm=repeat / (whole * each))


def _of_rows(surface: Surface) -> Gauge | None:
    """A photo cut to whole courses: so many rows fill its repeat."""
    across, up = surface.rows
    if not surface.beat or (across, up) == (1, 1):
        return None
    return Gauge(
        Pitch(surface.height_mm / up) if up > 1 else None, Pitch(surface.width_mm / across) if across > 1 else None
    )


def _of_another(surface: Surface, job: Job | None) -> Gauge | None:
    """The units of another surface that lies in this one in whole repeats."""
    for layer in surface.layers:
        inner = getattr(layer.what, "surface", "")
        other = next((one for one in job.surfaces if one.id == inner), None) if job and inner else None
        if other is None or other.id == surface.id or not layer.shown:
            continue
        across, up = laid_times(layer)
        own = msgspec.structs.replace(
            other, width_mm=surface.width_mm / across, height_mm=surface.height_mm / up, rows=other.rows
        )
        found = gauge_of(own)
        if found is not None:
            return Gauge(found.courses, found.units)
    return None


def outlines_of(surface: Surface) -> Mosaic | None:
    """Outlines of the units in one repeat of a surface, mm from its lower left corner, up to the middles of joints."""
    one = pattern_of(surface)
    if one is None or one.sets_out.outlines is None:
        return None
    values = tuple(sorted(one.values.items()))
    return _outlines(one.operation.id, one.operation.version, values, surface.width_mm, surface.height_mm, one.times)


@lru_cache(maxsize=64)
def _outlines(
    op: str, version: int, values: tuple[tuple[str, Any], ...], wide: float, tall: float, times: tuple[int, int]
) -> Mosaic | None:
    across, up = times
    width, height = wide / across, tall / up
    found: Mosaic = find(op, version).sets_out.outlines(Grid(1, 1, width, height), **dict(values))
    if len(found.outlines) * across * up > MOST_OUTLINES:
        return None
    shifts = [(i * width, j * height) for j in range(up) for i in range(across)]
    return replace(found, outlines=[outline + shift for shift in shifts for outline in found.outlines])


def fitted(surface: Surface, dials: dict[str, float]) -> Surface:
    """A surface whose pattern has other values, with as many units in its repeat as before; it has an id of its own.

    The recipe is worked out anew for it: joints grow, units do not.
    """
    one = pattern_of(surface) if dials else None
    known = {name: value for name, value in dials.items() if one is not None and name in one.operation.params}
    if one is None or not known:
        return surface
    try:
        after = one.operation.bind({**one.step.values, **known})
    except TesselError:
        # A value that the pattern does not take is kept in the job, and changes nothing.
        return surface
    width, height = surface.width_mm, surface.height_mm
    if one.operation.closes:
        before, now = one.operation.closes(one.values), one.operation.closes(after)
        across, up = one.times
        width = across * whole_periods(width / across, before[0]) * now[0] if now[0] > 0 else width
        height = up * whole_periods(height / up, before[1]) * now[1] if now[1] > 0 else height
    step = msgspec.structs.replace(one.step, values={**one.step.values, **known})
    recipe = one.layer.what.made_of_recipe()
    assert recipe is not None
    steps = tuple(step if each.name == step.name else each for each in recipe.steps)
    what = msgspec.structs.replace(one.layer.what, recipe=msgspec.structs.replace(recipe, steps=steps))  # type: ignore[type-var]
    layer = msgspec.structs.replace(one.layer, what=what)
    named = " ".join(f"{name}={value:g}" for name, value in sorted(known.items()))
    return msgspec.structs.replace(
        surface, id=f"{surface.id}~{named}", width_mm=_rounded(width), height_mm=_rounded(height),
        layers=tuple(layer if each.id == layer.id else each for each in surface.layers),
    )  # fmt: skip


def _rounded(mm: float) -> float:
    """To a nanometre, so that the same fit has the same name everywhere."""
    return math.floor(mm * 1e6 + 0.5) / 1e6
