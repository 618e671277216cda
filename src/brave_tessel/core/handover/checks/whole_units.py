"""Whether the repeat is a whole number of units."""

from __future__ import annotations

from ...job.commands import AnyCommand, Batch, Set
from ...job.layers import Surface
from ...phrases import say
from ...place.elevation import Units, units_of
from ..check import Case, Finding, check


@check("whole-units")
def whole_units(case: Case) -> Finding:
    """The repeat is a whole number of units both ways."""
    surface = case.surface
    units = units_of(surface)
    if units is None:
        return Finding("whole-units", surface.id, "ok", "No courses", "No units that have to close.")
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
