"""Whether the repeat is a whole number of units."""

from __future__ import annotations

from ...job.commands import AnyCommand, Batch, Set
from ...job.layers import Surface
from ...phrases import say
from ...place.elevation import units_of
from ...place.gauge import Closing, closing_of
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
    closing = closing_of(surface)
    assert closing is not None
    mend = fit_repeat(surface, closing)
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
    closing = closing_of(surface)
    if closing is None:
        return Finding("whole-units", surface.id, "ok", "No courses", "No units that have to close.")
    off = closing.stretched()
    if not off:
        told = " × ".join(f"{real.mm:g}" for _, real in closing.pairs())
        return Finding("whole-units", surface.id, "ok", "Whole units", say("Of {size} mm.", size=told))
    sizes = ", ".join(f"{asked.mm:g} → {real.mm:.1f}" for asked, real in off)
    mend = fit_repeat(surface, closing)
    return Finding(
        "whole-units", surface.id, "caution", "Repeat is no whole units",
        say("Units are stretched to fill it: {sizes} mm.", sizes=sizes),
        mend=mend, mend_label=say("Make the repeat {size}", size=_size(mend)),
    )  # fmt: skip


def _size(mend: AnyCommand) -> str:
    assert isinstance(mend, Batch)
    width, height = (command.value for command in mend.commands)
    return f"{width:g} × {height:g} mm"


def fit_repeat(surface: Surface, closing: Closing) -> AnyCommand:
    """The command that gives a surface the repeat its units close on, keeping their number."""
    width, height = closing.repeat(surface)
    path = ("surfaces", surface.id)
    return Batch(
        commands=(
            Set(path=(*path, "width_mm"), value=width, label="width"),
            Set(path=(*path, "height_mm"), value=height, label="height"),
        ),
        label="Fit the repeat to whole units",
    )
