"""Commands on the scene: bring a model in, lay a surface on a part."""

from __future__ import annotations

import argparse
from collections.abc import Sequence
from typing import Any

import numpy as np

from ..core.errors import MissingError, NotUnderstoodError, OutOfRangeError
from ..core.job.document import Job
from ..core.job.scene import Part, Place
from ..core.lines import thinned
from ..core.operation import REGISTRY, family
from ..core.place.guess import UNITS
from ..core.place.mend import health
from ..core.place.recover import recover
from ..core.quantity import parse_length
from ..engine.intents import scene as intents
from ..engine.place.bring import add_parts, bring, parts_of
from ..engine.session import Session
from ..formats.job_file import OpenedJob, load_job
from .numbers import place
from .said import Progress, say


def declare_place(parser: argparse.ArgumentParser) -> None:
    """Arguments of ``place``."""
    parser.add_argument("model", type=place, help="OBJ, glTF, GLB, PLY, STL, OFF or DAE")
    parser.add_argument("--job", type=place, help="a job whose scene it is added to; else a new one")
    parser.add_argument(
        "--units", choices=tuple(UNITS), help="what one unit of the file is; else it is told or guessed"
    )
    parser.add_argument("--up", choices=("x", "y", "z"), help="the axis of the file that points up")
    parser.add_argument("--mend", action="store_true", help="mend holes, turned faces, gaps and faces without area")
    parser.add_argument("--link", action="store_true", help="follow the file: read it again when it changes")
    parser.add_argument("--out", type=place, required=True, help="the job to write")
    parser.add_argument("--json", action="store_true", help="machine-readable result on standard output")


def run_place(options: argparse.Namespace, progress: Progress) -> None:
    """Bring a model into a scene and say what came."""
    session = Session(load_job(options.job) if options.job else OpenedJob(Job(name=options.model.stem)))
    progress(f"Read {options.model.name}", 0.2)
    brought = bring(options.model, session.kept, session.models)
    unit = UNITS[options.units] if options.units else 0.0
    parts = parts_of(brought, unit_mm=unit, up=options.up or "", linked=options.link)
    session.store.dispatch(add_parts(parts))
    mended = _mend(session, parts) if options.mend else {}
    site = session.snapshot().site()
    progress("Write the job", 0.9)
    session.save(options.out)
    progress.end()
    told: list[dict[str, Any]] = []
    for part in parts:
        one = site.of_part(part.id)
        if one is None or part.model is None:
            continue
        low, high = one.mesh.box
        faults = brought.faults.get(part.model.part)
        told.append(
            {
                "name": part.name,
                "size_mm": [round(float(v), 3) for v in high - low],
                "triangles": one.mesh.count,
                "materials": [str(name) for name in one.mesh.names],
                "faults": [str(text) for text in faults.told()] if faults else [],
                "mended": mended.get(part.id, []),
            }
        )
    why = "as was asked for" if options.units else str(brought.guess.reason)
    used = next(word for word, mm in UNITS.items() if mm == (unit or brought.guess.unit_mm))
    result = {
        "job": str(options.out),
        "units": used,
        "why": why,
        "sure": bool(options.units) or brought.guess.sure,
        "up": options.up or brought.guess.up,
        "parts": told,
    }
    lines = [f"{options.model.name}: in {used} ({why}), {result['up']} up", *map(_line, told)]
    say(result, "\n".join(lines), as_json=options.json)


def _line(part: dict[str, Any]) -> str:
    size = " × ".join(f"{v:g}" for v in part["size_mm"])
    more = "; ".join([*part["faults"], *(f"mended: {word}" for word in part["mended"])])
    return f"  {part['name']}: {size} mm, {part['triangles']} triangles{'; ' + more if more else ''}"


def _mend(session: Session, parts: Sequence[Part]) -> dict[str, list[str]]:
    """Ask for the mends that each part needs; which those are, by part."""
    site = session.snapshot().site()
    found: dict[str, list[str]] = {}
    for part in parts:
        one = site.of_part(part.id)
        wanted = health(one.made.mesh).wanted() if one is not None and part.model is not None else ()
        if wanted:
            session.store.dispatch(intents.mend_model(part.id, wanted))
            found[part.id] = list(wanted)
    return found


def declare_lay(parser: argparse.ArgumentParser) -> None:
    """Arguments of ``lay``."""
    parser.add_argument("job", type=place)
    parser.add_argument("--part", required=True, help="its name or id")
    parser.add_argument("--surface", required=True, help="its name or id")
    parser.add_argument("--faces", default="", help="face groups or materials, with commas; else the whole part")
    parser.add_argument("--laying", default="", help=f"one of {', '.join(_layings())}; else as suits the part")
    parser.add_argument("--set", action="append", default=[], metavar="DIAL=VALUE", help="a dial of the laying")
    parser.add_argument(
        "--find-path", action="store_true", help="along the middle of a tube, strip or moulding, found from its mesh"
    )
    parser.add_argument("--datum", default="", help="x,y,z: where it starts, mm or with a unit; else the scene's datum")
    parser.add_argument("--out", type=place, required=True, help="the job to write")
    parser.add_argument("--json", action="store_true", help="machine-readable result on standard output")


def _layings() -> list[str]:
    return [entry.id.split(".")[1].replace("_", "-") for entry in family("laying")]


def run_lay(options: argparse.Namespace, progress: Progress) -> None:
    """Lay a surface on a part and say where it lies."""
    session = Session(load_job(options.job))
    job = session.job
    part, surface = part_named(job, options.part), job.surface_named(options.surface)
    op = f"laying.{options.laying.replace('-', '_')}" if options.laying else ""
    if op and op not in REGISTRY:
        raise NotUnderstoodError("laying", value=options.laying, allowed=", ".join(_layings()))
    groups = _groups(session, part, options.faces)
    found = intents.lay(job, part.id, surface.id, groups=groups, laying=op)
    if found is None:
        raise MissingError("part", value=part.name, remedy="It is a group; name one of the parts in it.")
    command, laid = found
    session.store.dispatch(command)
    if op and laid.laying.op != op:
        session.store.dispatch(intents.set_laying(part.id, laid, op))
    _set_dials(session, part.id, laid.id, options.set)
    if options.find_path:
        _find_path(session, part.id, laid.id)
    if options.datum:
        fresh = next(one for one in session.job.scene.parts if one.id == part.id)
        now = next(one for one in fresh.laid if one.id == laid.id)
        session.store.dispatch(intents.own_datum(part.id, now, parse_point(options.datum), "typed"))
    result = _told(session, part.id, laid.id)
    session.save(options.out)
    progress.end()
    lines = [f"{surface.name} on {part.name}: {result['laying']}, {result['area_m2']:g} m², {result['faces']} faces"]
    say(result, "\n".join(lines), as_json=options.json)


def part_named(job: Job, name: str) -> Part:
    """The part of a name or id.

    Raises
    ------
    MissingError
        when there is none; names those there are.
    """
    for part in job.scene.parts:
        if name in {part.id, part.name} or name.lower() == part.name.lower():
            return part
    names = ", ".join(part.name for part in job.scene.parts) or "none"
    raise MissingError("part", value=name, allowed=names)


def parse_point(text: str) -> Place:
    """A point of the scene from three lengths with commas between, mm.

    Raises
    ------
    NotUnderstoodError
        when it is none.
    """
    words = text.split(",")
    if len(words) != 3:
        raise NotUnderstoodError("datum", value=text, allowed="three lengths, as in 4500,0,0")
    x, y, z = (parse_length(word) for word in words)
    return x, y, z


def _groups(session: Session, part: Part, asked: str) -> tuple[str, ...]:
    wanted = tuple(word.strip() for word in asked.split(",") if word.strip())
    one = session.snapshot().site().of_part(part.id)
    known = [str(name) for name in one.made.mesh.names] if one else []
    for word in wanted:
        if word not in known:
            raise MissingError("face group", value=word, allowed=", ".join(known) or "none")
    return wanted


def _set_dials(session: Session, part: str, laid: str, asked: Sequence[str]) -> None:
    """Dials of the laying, each checked by its declaration."""
    for text in asked:
        name, _, value = text.partition("=")
        fresh = next(one for one in session.job.scene.parts if one.id == part)
        now = next(one for one in fresh.laid if one.id == laid)
        param = now.laying.operation.params.get(name.strip())
        if param is None:
            known = ", ".join(now.laying.operation.params)
            raise NotUnderstoodError("dial", value=name, allowed=known)
        given: Any = value.strip()
        if param.kind == "toggle":
            given = given.lower() in {"yes", "true", "1", "on"}
        elif param.kind in {"length", "angle", "fraction", "whole"}:
            given = parse_length(given) if param.kind == "length" else _number(param.label, given)
        checked = param.check(given)
        session.store.dispatch(intents.set_laying_value(part, now, name.strip(), checked))


def _find_path(session: Session, part: str, laid: str) -> None:
    """Lay something along the line its faces run along."""
    one = session.snapshot().site().of_part(part)
    now = next(p for p in session.job.scene.parts if p.id == part)
    if one is None:
        raise MissingError("part", value=part)
    row = next(k for k, entry in enumerate(now.laid) if entry.id == laid)
    if now.laid[row].laying.op != "laying.path":
        session.store.dispatch(intents.set_laying(part, now.laid[row], "laying.path"))
    found = recover(one.made.mesh, one.faces_of(row))
    line = thinned(found.points, 0.003 * float(found.radius.mean()), closed=found.closed)
    session.store.dispatch(intents.laid_path(part, laid, line, closed=found.closed))


def _number(label: str, text: str) -> float:
    try:
        return float(text)
    except ValueError:
        raise OutOfRangeError(label, value=text, allowed="a number") from None


def _told(session: Session, part: str, laid: str) -> dict[str, Any]:
    """Where a laid surface lies, by numbers."""
    site = session.snapshot().site()
    one = site.of_part(part)
    fresh = next(p for p in session.job.scene.parts if p.id == part)
    row = next(k for k, entry in enumerate(fresh.laid) if entry.id == laid)
    now = fresh.laid[row]
    result: dict[str, Any] = {
        "part": fresh.name,
        "surface": now.surface,
        "laying": now.laying.op.split(".")[1].replace("_", "-"),
        "faces": 0,
        "area_m2": 0.0,
    }
    if one is not None:
        faces = one.faces_of(row)
        found = site.coordinates(one, row)
        result |= {"faces": len(faces), "area_m2": round(float(one.mesh.areas[faces].sum()) / 1e6, 4)}
        if len(faces):
            places = found.flat_corners().reshape(-1, 2)
            result["places_mm"] = {
                "low": [round(float(v), 3) for v in places.min(0)],
                "high": [round(float(v), 3) for v in places.max(0)],
            }
        point, _ = site.datum(now)
        result["datum_mm"] = [round(float(v), 3) for v in np.asarray(point)]
        result["note"] = str(found.note)
    return result
