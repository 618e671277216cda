"""Commands on how surfaces are set out: the elevation of a part, and courses that fit."""

from __future__ import annotations

import argparse
from pathlib import Path
from typing import Any

from ..core.errors import MissingError, NotUnderstoodError, RefusedError, TesselError
from ..core.job.document import Job
from ..core.job.scene import Part
from ..core.place.fit import ENDS, WAYS, Proposal, Span, told
from ..core.place.fitting import Asked, ask, change_of, fit_command
from ..core.place.regions import main_region, regions_of
from ..core.place.schedule import Schedule, schedule_of
from ..core.place.setting_out import courses_in, setting_out
from ..core.place.site import Site
from ..core.quantity import parse_length
from ..engine.session import Session
from ..formats.disk import write_atomically
from ..formats.job_file import load_job
from ..formats.papers import WRITERS
from .numbers import place
from .place import part_named
from .said import Progress, say


def declare_elevation(parser: argparse.ArgumentParser) -> None:
    """Arguments of ``elevation``."""
    parser.add_argument("job", type=place)
    parser.add_argument("--part", required=True, help="its name or id")
    parser.add_argument("--surface", default="", help="which of the surfaces on it; else the one with courses")
    parser.add_argument("--out", type=place, help="the setting-out sheet, .svg, .pdf or .png")
    parser.add_argument("--json", action="store_true", help="machine-readable result on standard output")


def run_elevation(options: argparse.Namespace, progress: Progress) -> None:
    """Count a part's courses and units, and write its setting-out sheet."""
    if options.out is not None and options.out.suffix.lower() not in WRITERS:
        raise NotUnderstoodError("file name", value=options.out.name, allowed="one that ends in .svg, .pdf or .png")
    session = Session(load_job(options.job))
    progress("Set the scene up", 0.3)
    site = session.snapshot().site()
    part = part_named(session.job, options.part)
    row = laid_row(session.job, site, part, options.surface)
    result = counted(site, part, row)
    if options.out is not None:
        progress("Draw the sheet", 0.8)
        paper = setting_out(site, part.id, row)
        write_atomically(Path(options.out), WRITERS[options.out.suffix.lower()](paper))
        result["sheet"] = str(options.out)
    progress.end()
    say(result, "\n".join(_lines(result)), as_json=options.json)


def laid_row(job: Job, site: Site, part: Part, surface: str) -> int:
    """Which of a part's surfaces is meant: the named one, else the largest with units or courses, else its topmost.

    Raises
    ------
    MissingError
        when nothing is laid on it, or not that surface.
    """
    one = site.of_part(part.id)
    if one is None or not part.laid:
        raise MissingError("part", value=part.name, remedy="Nothing is laid on it, or it is hidden.")
    if surface:
        wanted = job.surface_named(surface).id
        rows = [row for row, laid in enumerate(part.laid) if laid.surface == wanted]
        if not rows:
            raise MissingError("surface", value=surface, remedy=f"It does not lie on {part.name}.")
        return rows[-1]
    best, found = -1.0, len(part.laid) - 1
    for row, laid in enumerate(part.laid):
        if site.gauge(laid) is not None or site.outlines(laid) is not None:
            area = float(one.mesh.areas[one.faces_of(row)].sum())
            best, found = (area, row) if area > best else (best, found)
    return found


def counted(site: Site, part: Part, row: int) -> dict[str, Any]:
    """Courses, units and slivers of something laid."""
    one = site.of_part(part.id)
    assert one is not None
    laid = part.laid[row]
    regions = regions_of(site, one, row)
    gauge = site.gauge(laid)
    result: dict[str, Any] = {"part": part.name, "surface": laid.surface, "courses": None, "units": None, "slivers": []}
    if regions and gauge is not None and gauge.courses is not None:
        _, low, _, high = main_region(regions).shape.bounds
        size = laid.laying.number("factor") * laid.laying.number("taller")
        whole, cut = courses_in(low, high, gauge, size)
        course = round(gauge.courses.mm * size, 3)
        result["courses"] = {"whole": whole, "cut": len(cut), "cut_mm": list(cut), "course_mm": course}
    schedule = schedule_of(site, regions)
    if schedule is not None:
        result |= _schedule(schedule)
    return result


def _schedule(schedule: Schedule) -> dict[str, Any]:
    return {
        "units": {
            "whole": schedule.whole,
            "cut": schedule.cut,
            "by_size": dict(schedule.by_size),
            "area_m2": round(schedule.area_mm2 / 1e6, 4),
            "waste": round(schedule.waste, 4),
        },
        "slivers": [
            {"place": [round(v, 1) for v in one.place], "mm": round(one.mm, 1)} for one in schedule.slivers
        ],
    }  # fmt: skip


def _lines(result: dict[str, Any]) -> list[str]:
    out = [f"{result['surface']} on {result['part']}"]
    courses, units = result["courses"], result["units"]
    if courses:
        rest = ", ".join(f"{v:g} mm" for v in courses["cut_mm"]) or "none"
        out.append(f"  {courses['whole']} whole courses of {courses['course_mm']:g} mm, cut: {rest}")
    else:
        out.append("  no courses to count")
    if units:
        out.append(f"  {units['whole']} whole units, {units['cut']} cut, {len(result['slivers'])} under a third")
    if "sheet" in result:
        out.append(f"  {result['sheet']}")
    return out


def declare_fit(parser: argparse.ArgumentParser) -> None:
    """Arguments of ``fit``."""
    parser.add_argument("job", type=place)
    parser.add_argument("--part", required=True, help="its name or id")
    parser.add_argument("--surface", default="", help="which of the surfaces on it; else the one with courses")
    parser.add_argument(
        "--between", default="", help="two levels with a comma between, by name or height in mm; else from end to end"
    )
    parser.add_argument("--along", action="store_true", help="whole units along a run, in place of courses up")
    parser.add_argument("--ends", choices=tuple(ENDS), default="coordinating", help="joints at the ends of the run")
    parser.add_argument("--by", choices=WAYS, default="", help="what is changed; else the best way")
    parser.add_argument("--out", type=place, help="the job to write; without it the ways are listed")
    parser.add_argument("--json", action="store_true", help="machine-readable result on standard output")


def run_fit(options: argparse.Namespace, progress: Progress) -> None:
    """Let a surface's courses fit between two levels, or list the ways."""
    session = Session(load_job(options.job))
    progress("Set the scene up", 0.3)
    site = session.snapshot().site()
    part = part_named(session.job, options.part)
    row = laid_row(session.job, site, part, options.surface)
    low, high = _between(session.job, options.between)
    asked = ask(site, part.id, row, along=options.along, low=low, high=high, ends=options.ends)
    found = asked.fit()
    chosen = found.best(options.by) if options.by else next(iter(found.proposals), None)
    result: dict[str, Any] = {
        "part": part.name,
        "surface": part.laid[row].surface,
        "between_mm": [round(asked.height_of(at), 3) for at in (asked.span.low, asked.span.high)],
        "now": _told(asked.span, found.now, asked),
        "ways": [_told(asked.span, one, asked) for one in found.proposals],
    }
    if options.out is not None:
        if chosen is None and options.by and not found.fits:
            raise RefusedError("way", value=options.by, remedy="No whole courses fit by it within its limits.")
        if chosen is not None and (options.by or found.now.cuts):
            change = change_of(asked, chosen)
            session.store.dispatch(fit_command(part.id, part.laid[row], change))
            result["chosen"] = _told(asked.span, chosen, asked) | {"dials": change.dials, "laying": change.laying}
        session.save(options.out)
        result["job"] = str(options.out)
    progress.end()
    lines = [f"now: {result['now']['told']}", *(f"  {one['by']}: {one['told']}" for one in result["ways"])]
    say(result, "\n".join(lines), as_json=options.json)


def _between(job: Job, text: str) -> tuple[float | None, float | None]:
    if not text:
        return None, None
    words = text.split(",")
    if len(words) != 2:
        raise NotUnderstoodError("levels", value=text, allowed="two with a comma between, as in floor,sill or 0,1248")
    low, high = (_level(job, word.strip()) for word in words)
    return low, high


def _level(job: Job, word: str) -> float:
    """A level's height by its name, or a height in mm."""
    for level in job.scene.levels:
        if word.lower() in {level.name.lower(), level.id.lower()}:
            return level.height
    try:
        return parse_length(word)
    except TesselError:
        names = ", ".join(level.name for level in job.scene.levels) or "none"
        raise MissingError("level", value=word, allowed=f"{names}, or a height in mm") from None


def _told(span: Span, one: Proposal, asked: Asked) -> dict[str, Any]:
    """A proposal with its numbers."""
    text = f"{one.count:g} whole" if one.way == "now" else str(told(span, one, along=asked.along))
    rests = ", ".join(f"{cut.piece / 1000:g} mm" for cut in one.cuts)
    return {
        "by": one.way,
        "told": f"{text}; cut: {rests or 'none'}",
        "count": one.count,
        "joint_mm": round((one.pitch - one.unit) / 1000, 4) if one.way == "joint" else one.joint / 1000,
        "unit_mm": round((one.pitch - one.joint) / 1000, 4) if one.way == "unit" else one.unit / 1000,
        "stretch": round(one.stretch, 6),
        "moved_mm": one.shift / 1000,
        "cut_mm": [cut.piece / 1000 for cut in one.cuts],
        "slivers_mm": [cut.piece / 1000 for cut in one.slivers],
    }
