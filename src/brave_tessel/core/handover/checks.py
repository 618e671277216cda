"""Checks of stage 5, each declared once: what is wrong, why, how bad, and how to mend it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

import numpy as np

from ..colour import PLAUSIBLE_LINEAR, encode_srgb, implausible_share, luminance
from ..errors import MissingError
from ..job.commands import AnyCommand, Batch, Set
from ..job.document import Job, SourceWhat, Surface
from ..maps import MapKind, MapSet
from ..place.elevation import Units, units_of
from ..repeat.mend import closed_size
from ..repeat.meters import SeamReading, read_seam

WORST_FIRST = {"fault": 0, "caution": 1, "ok": 2}


@dataclass(frozen=True, slots=True)
class Finding:
    """One finding. ``spot`` is the place on the cell in mm, if it has one; ``mend`` the command that helps."""

    check: str
    surface: str
    level: str
    title: str
    cause: str
    spot: tuple[float, float] | None = None
    mend: AnyCommand | None = None
    mend_label: str = ""
    measures: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Case:
    """What a check looks at."""

    job: Job
    surface: Surface
    maps: MapSet


Check = Callable[[Case], Finding]
CHECKS: dict[str, Check] = {}


def check(id: str) -> Callable[[Check], Check]:
    """Declare a check."""

    def declare(function: Check) -> Check:
        CHECKS[id] = function
        return function

    return declare


def seam_readings(maps: MapSet) -> dict[MapKind, tuple[SeamReading, SeamReading]]:
    """Seam of x and y for base colour, height and roughness of a finished surface."""
    kinds = [kind for kind in (MapKind.BASE_COLOUR, MapKind.HEIGHT, MapKind.ROUGHNESS) if kind in maps]
    readings = {}
    for kind in kinds:
        pixels = maps[kind]
        if kind is MapKind.BASE_COLOUR:
            pixels = encode_srgb(np.clip(pixels, 0, 1)).astype(np.float32)
        if float(np.ptp(pixels)) < 1e-5:
            continue
        x, y = (read_seam(pixels, axis=axis, structured=True) for axis in (1, 0))
        readings[kind] = (x, y)
    return readings


@check("seam")
def seam(case: Case) -> Finding:
    """Every map closes across both joins."""
    worst, where = 0.0, ""
    closes = True
    for kind, pair in seam_readings(case.maps).items():
        for axis, reading in zip("xy", pair, strict=True):
            closes = closes and reading.closes
            if reading.score > worst:
                worst, where = reading.score, f"{kind.replace('_', ' ')}, {axis}"
    level = "ok" if closes else "fault"
    cause = f"Seam score {worst:.2f} at its worst ({where})." if where else "Plain: nothing to join."
    if not closes:
        cause += " The step across the join is rougher than any inside."
    return Finding(
        "seam",
        case.surface.id,
        level,
        "Closes on itself" if closes else "A seam shows",
        cause,
        measures={"score": worst},
    )


@check("base-colour")
def base_colour(case: Case) -> Finding:
    """Base colour lies where real materials reflect (8-bit sRGB 30 to 240, common practice)."""
    pixels = case.maps[MapKind.BASE_COLOUR]
    share = implausible_share(pixels)
    y = luminance(pixels)
    off = np.maximum(PLAUSIBLE_LINEAR[0] - y, y - PLAUSIBLE_LINEAR[1])
    row, column = divmod(int(off.argmax()), y.shape[1])
    grid = case.maps.grid
    spot = (float(grid.x_mm()[column]), float(grid.y_mm()[row]))
    if share < 0.01:
        return Finding(
            "base-colour",
            case.surface.id,
            "ok",
            "Base colour is plausible",
            f"{share:.1%} of it lies outside sRGB 30 to 240.",
            measures={"share": share},
        )
    darker = float(np.mean(y < PLAUSIBLE_LINEAR[0])) >= share / 2
    cause = f"{share:.1%} of it reflects {'less' if darker else 'more'} than real materials do (sRGB 30 to 240)."
    level = "fault" if share > 0.2 else "caution"
    return Finding(
        "base-colour",
        case.surface.id,
        level,
        f"Base colour too {'dark' if darker else 'light'}",
        cause,
        spot=spot,
        measures={"share": share},
    )


@check("whole-units")
def whole_units(case: Case) -> Finding:
    """The repeat is a whole number of units both ways."""
    surface = case.surface
    units = units_of(surface)
    if units is None:
        return Finding("whole-units", surface.id, "ok", "Repeat is free", "No units to close.")
    counted = f"{units.across} periods across, {units.courses} courses"
    if units.whole:
        return Finding("whole-units", surface.id, "ok", "Whole units", f"{counted} of {units.course_mm:g} mm.")
    cause = (
        f"{counted}: units are stretched to {units.unit_mm:.1f} × {units.course_mm:.1f} mm "
        f"from {units.asked_unit_mm:g} × {units.asked_course_mm:g}."
    )
    mend = fit_repeat(surface, units)
    return Finding(
        "whole-units",
        surface.id,
        "caution",
        "Repeat is no whole units",
        cause,
        mend=mend,
        mend_label=f"Make the repeat {_size(mend)}",
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


@check("size")
def source_size(case: Case) -> Finding:
    """Every source laid in the surface has a size, and lies in it at its own scale."""
    for layer in case.surface.layers:
        if not isinstance(layer.what, SourceWhat):
            continue
        try:
            source = case.job.source(layer.what.source)
        except MissingError:
            return Finding(
                "size", case.surface.id, "fault", "A source is missing", f"{layer.name} has lost its source."
            )
        width, height = closed_size(source)
        if width <= 0 or height <= 0:
            return Finding(
                "size",
                case.surface.id,
                "fault",
                "A source has no size",
                f"{source.name} was never given its real size.",
            )
        stretch = max(
            abs(case.surface.width_mm / layer.what.across / width - 1),
            abs(case.surface.height_mm / layer.what.up / height - 1),
        )
        if stretch > 0.05:
            return Finding(
                "size",
                case.surface.id,
                "caution",
                "A source is stretched",
                f"{source.name} is stretched by {stretch:.0%} to close in this repeat.",
                measures={"stretch": stretch},
            )
    return Finding("size", case.surface.id, "ok", "True size", "Every source lies at its own scale.")


def run_checks(job: Job, surface: Surface, maps: MapSet) -> list[Finding]:
    """All checks of one finished surface, worst first."""
    return sorted(_run(Case(job, surface, maps)), key=lambda finding: WORST_FIRST[finding.level])


def _run(case: Case) -> Iterator[Finding]:
    for function in CHECKS.values():
        yield function(case)
