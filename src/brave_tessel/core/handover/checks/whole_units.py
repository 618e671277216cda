"""Whether the repeat is a whole number of units."""

from __future__ import annotations

from ...job.commands import AnyCommand, Batch, Set
from ...job.layers import Surface
from ...phrases import say
from ...place.elevation import Units, units_of
from ...place.gauge import gauge_of, pattern_of
from ...recipe.set_out import Pitch
from ..check import Case, Finding, check


@check("whole-units")
def whole_units(case: Case) -> Finding:
    """The repeat is a whole number of units both ways."""
    surface = case.surface
    units = units_of(surface)
    if units is None:
        return _of_another_pattern(surface)
    counted = f"{units.across} periods across, {units.courses} courses"
    if units.whole:
        return Finding(
            "whole-units",
            surface.id,
            "ok",
            "Whole units",
            say("{counted} of {course_mm:g} mm.", counted=counted, course_mm=units.course_mm),
        )
    cause = say(
        "{counted}: units are stretched to {unit_mm:.1f} × {course_mm:.1f} mm "
        "from {asked_unit_mm:g} × {asked_course_mm:g}.",
        counted=counted,
        unit_mm=units.unit_mm,
        course_mm=units.course_mm,
        asked_unit_mm=units.asked_unit_mm,
        asked_course_mm=units.asked_course_mm,
    )
    mend = fit_repeat(surface, units)
    return Finding(
        "whole-units",
        surface.id,
        "caution",
        "Repeat is no whole units",
        cause,
        mend=mend,
        mend_label=say("Make the repeat {size}", size=_size(mend)),
    )


def _of_another_pattern(surface: Surface) -> Finding:
    """Slates, boards, seams and whatever else is set out: their courses and units against what was asked for."""
    one = pattern_of(surface)
    gauge = gauge_of(surface) if one is not None else None
    if one is None or gauge is None or not (gauge.courses or gauge.units):
        return Finding("whole-units", surface.id, "ok", "No courses", "No units that have to close.")
    asked = (one.sets_out.units(one.values), one.sets_out.courses(one.values))
    pairs = [(want, real) for want, real in zip(asked, (gauge.units, gauge.courses), strict=True) if want and real]
    off = [(want, real) for want, real in pairs if abs(real.mm - want.mm) > max(0.5, 0.005 * want.mm)]
    if not off:
        told = " × ".join(f"{real.mm:g}" for _, real in pairs)
        return Finding("whole-units", surface.id, "ok", "Whole units", say("Of {size} mm.", size=told))
    sizes = ", ".join(f"{want.mm:g} → {real.mm:.1f}" for want, real in off)
    mend = _closed(surface, asked, (gauge.units, gauge.courses))
    return Finding(
        "whole-units", surface.id, "caution", "Repeat is no whole units",
        say("Units are stretched to fill it: {sizes} mm.", sizes=sizes),
        mend=mend, mend_label=say("Make the repeat {size}", size=_size(mend)),
    )  # fmt: skip


def _closed(surface: Surface, asked: tuple[Pitch | None, ...], real: tuple[Pitch | None, ...]) -> AnyCommand:
    """The command that gives a surface the repeat at which its pattern keeps its sizes."""
    commands = [
        Set(path=("surfaces", surface.id, field), value=round(size * want.mm / now.mm, 4), label="repeat")
        if want and now
        else Set(path=("surfaces", surface.id, field), value=size, label="repeat")
        for field, size, want, now in zip(
            ("width_mm", "height_mm"), (surface.width_mm, surface.height_mm), asked, real, strict=True
        )
    ]
    return Batch(commands=tuple(commands), label="Fit the repeat to whole units")


def _size(mend: AnyCommand) -> str:
    assert isinstance(mend, Batch)
    width, height = (command.value for command in mend.commands)
    return f"{width:g} × {height:g} mm"


def fit_repeat(surface: Surface, units: Units) -> AnyCommand:
    """The command that gives a surface the repeat its units close on, keeping their number."""
    width = surface.width_mm * units.asked_unit_mm / units.unit_mm
    height = units.courses * units.asked_course_mm
    path = ("surfaces", surface.id)
    return Batch(
        commands=(
            Set(path=(*path, "width_mm"), value=round(width, 4), label="width"),
            Set(path=(*path, "height_mm"), value=round(height, 4), label="height"),
        ),
        label="Fit the repeat to whole units",
    )
