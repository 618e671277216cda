"""The command line, on the same core as the window."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Any

import msgspec
import numpy as np

from .. import __version__
from ..core.colour import encode_srgb
from ..core.errors import NotUnderstoodError, OutOfRangeError, TesselError
from ..core.gather.even_light import light_drift
from ..core.gather.straighten import Corners
from ..core.handover.checks import run_checks
from ..core.job.document import Delivery, Job, Layer, Setting, Source, SourceWhat, Surface
from ..core.maps import MapKind, MapSet
from ..core.place.elevation import unroll
from ..core.quantity import parse_length, parse_size
from ..core.repeat.mend import closed_size
from ..core.repeat.meters import read_repetition, read_seam, read_spacing
from ..engine.handover.deliver import export_surface
from ..engine.session import Session
from ..engine.wording import sentence
from ..formats.job_file import OpenedJob, load_job, save_job
from . import recipe as cli_recipe

CHECK_PX = 1024


class _Progress:
    """One line on a terminal that is overwritten; silent elsewhere."""

    def __init__(self) -> None:
        self.shown = sys.stderr.isatty()

    def __call__(self, what: str, share: float = 0.0) -> None:
        if self.shown:
            print(f"\r\033[K{share:4.0%} {what}", end="", file=sys.stderr, flush=True)

    def end(self) -> None:
        if self.shown:
            print("\r\033[K", end="", file=sys.stderr, flush=True)


def _say(result: Any, text: str, *, as_json: bool) -> None:
    print(json.dumps(result, ensure_ascii=False, indent=1) if as_json else text)


def _demo(options: argparse.Namespace, progress: _Progress) -> None:
    from ..demo.job import demo_job

    if options.open:
        from ..ui.app import run

        sys.exit(run(opened=demo_job(), stage="Build"))
    progress("Render the demo job", 0.1)
    opened = demo_job()
    save_job(options.out, opened.job, opened.blobs)
    progress.end()
    print(f"Wrote {options.out}")


def _repeat(options: argparse.Namespace, progress: _Progress) -> None:
    width, height = parse_size(options.size)
    session = Session(OpenedJob(Job()))
    progress("Read the picture", 0.1)
    source = session.read_source(options.photo)
    frame = msgspec.structs.replace(source.straightening, width_mm=width, height_mm=height)
    light = Setting(op="gather.even_light", values={"strength": options.even})
    source = msgspec.structs.replace(source, straightening=frame, light=light)
    progress("Mend", 0.2)
    source, measured = _mended(session, source, options)
    surface = _surface_of(source)
    session.store.replace(Job(sources=(source,), surfaces=(surface,)), saved=True)
    px = options.px or _native_px(source)
    delivery = Delivery(id="command-line", px=px, pattern=f"{options.photo.stem}_{{map}}")
    written = export_surface(session, surface, delivery, options.out, progress=progress)
    progress("Read the meters", 0.9)
    maps = session.finished(surface, px)
    progress.end()
    result = {
        "repeat_mm": [surface.width_mm, surface.height_mm],
        "px": [maps.grid.width_px, maps.grid.height_px],
        **_meters(maps),
        "drift": round(_drift(session, source), 4),
        **measured,
        "maps": {kind.value: path.name for kind, path in written.items()},
    }
    text = (
        f"Repeat {surface.width_mm:g} × {surface.height_mm:g} mm, {maps.grid.width_px} × {maps.grid.height_px} px\n"
        f"Seam score x {result['seam']['x']}, y {result['seam']['y']}; repetition {result['repetition']}\n"
        f"{len(written)} maps in {options.out}"
    )
    _say(result, text, as_json=options.json)


def _mended(session: Session, source: Source, options: argparse.Namespace) -> tuple[Source, dict[str, Any]]:
    """The source mended the way that was asked for, and what was measured on the way."""
    from ..engine.gather.analyses import cut_to_courses, find_beat, scale_source
    from ..engine.intents import sources as intents

    job = Job(sources=(source,))
    op = f"mend.{options.method.replace('-', '_')}"
    if op != "mend.courses":
        made = intents.set_method(job, source, op).apply(job).sources[0]
        frame = source.straightening
        least = min(frame.width_mm, frame.height_mm)
        overlap = options.overlap if options.overlap else min(48.0, 0.15 * least)
        if op == "mend.best_cut":
            made = msgspec.structs.replace(made, mend=Setting(op=op, values={"overlap": overlap}))
        return made, {"method": options.method}
    beat = find_beat(session, source, job=job)
    if options.unit:
        known = parse_length(options.unit)
        source = scale_source(job, source, known / beat.lattice.course).apply(job).sources[0]
        job = Job(sources=(source,))
        beat = find_beat(session, source, job=job)
    source = cut_to_courses(job, source, beat).apply(job).sources[0]
    width, height = closed_size(source)
    course = beat.lattice.course
    rows = (height if beat.lattice.beats[1] else width) / course
    measured = {
        "method": options.method,
        "unit_mm": round(course, 3),
        "length_mm": round(beat.unit_mm, 3),
        "joint_mm": round(beat.joint_mm, 2),
        "courses": round(rows),
        "turn": round(beat.lattice.turn, 3),
    }
    return source, measured


def _gather(options: argparse.Namespace, progress: _Progress) -> None:
    from ..engine.gather.reading import gather_sets, picture_files
    from ..engine.gather.scans import is_frames_folder

    def refused(error: TesselError) -> None:
        progress.end()
        print(sentence(error), file=sys.stderr)

    if is_frames_folder(options.folder):
        _say_scan(options, progress)
        return
    files = picture_files([options.folder])
    progress(f"Look at {len(files)} files", 0.2)
    sets = gather_sets(files, refused=refused)
    progress.end()
    result = {
        "sets": [
            {
                "name": found.name,
                "size_mm": list(found.size_mm) if found.size_mm else None,
                "missing": list(found.missing),
                "maps": [
                    {
                        "file": m.path.name,
                        "channel": m.channel,
                        "role": m.role,
                        "green": m.green,
                        "turned_over": m.turned_over,
                        "confidence": m.confidence,
                        "reason": m.reason,
                    }
                    for m in found.maps
                ],
            }
            for found in sets
        ]
    }
    lines = []
    for found in sets:
        lines.append(found.name)
        lines += [f"  {m.role:18}{m.path.name} ({m.channel}): {m.reason}" for m in found.maps]
    _say(result, "\n".join(lines) or "No pictures found.", as_json=options.json)


def _say_scan(options: argparse.Namespace, progress: _Progress) -> None:
    """A folder of frames under single lights: what it would become."""
    from ..engine.gather.rig import measure, read_frames

    capture = read_frames(options.folder, progress=progress)
    progress("Work out relief and colour", 0.7)
    measured = measure(capture)
    progress.end()
    agreement = round(float(measured.shape.agreement.mean()), 4)
    scan = {
        "name": capture.name,
        "frames": len(capture.frames),
        "size_mm": list(capture.size_mm) if min(capture.size_mm) > 0 else None,
        "agreement": agreement,
    }
    _say(
        {"sets": [], "scans": [scan]},
        f"{capture.name}: {len(capture.frames)} frames under single lights. {measured.told}",
        as_json=options.json,
    )


def _corners(text: str) -> Corners:
    """Four pixel positions from ``x,y;x,y;x,y;x,y``: top left, top right, bottom right, bottom left."""
    try:
        points = tuple((float(x), float(y)) for x, y in (pair.split(",") for pair in text.split(";")))
    except ValueError:
        points = ()
    if len(points) != 4:
        raise NotUnderstoodError(
            "corners", value=text, allowed="x,y;x,y;x,y;x,y in photo pixels", remedy="Give four corners."
        )
    return points  # type: ignore[return-value]


def _straighten(options: argparse.Namespace, progress: _Progress) -> None:
    from ..core.colour import codes_from_linear
    from ..core.gather.straighten import proportion, proposed_px_per_mm, straighten
    from ..formats.disk import write_atomically
    from ..formats.images import encode_png

    corners = _corners(options.corners)
    session = Session(OpenedJob(Job()))
    progress("Read the picture", 0.1)
    source = session.read_source(options.photo)
    aspect = proportion(
        corners, picture_size=(source.width_px, source.height_px), focal_px=source.straightening.focal_px
    )
    width = parse_length(options.width) if options.width else 0.0
    # Without a size a unit width stands for it; only the proportion matters then.
    across = width or 1.0
    density = proposed_px_per_mm(corners, across, across / aspect)
    size = max(2, round(across * density)), max(2, round(across / aspect * density))
    progress("Straighten", 0.5)
    straight = straighten(session.load_pixels(source.blob), corners, width_px=size[0], height_px=size[1])
    depth = 16 if source.depth > 8 else 8
    data = encode_png(codes_from_linear(straight, depth=depth), width_mm=width, height_mm=width / aspect, srgb=True)
    write_atomically(options.out, data)
    progress.end()
    result = {
        "aspect": round(aspect, 6),
        "px": list(size),
        "size_mm": [width, round(width / aspect, 3)] if width else None,
        "file": str(options.out),
    }
    told = f", {width:g} × {width / aspect:.1f} mm" if width else ""
    _say(result, f"Proportion {aspect:.4f} : 1, {size[0]} × {size[1]} px{told}: {options.out}", as_json=options.json)


def _surface_of(source: Source) -> Surface:
    width, height = closed_size(source)
    if min(width, height) <= 0:
        raise OutOfRangeError("Overlap", value=f"{source.mend.number('overlap'):g} mm", allowed="less than the picture")
    size = min(width, height)
    relief = Setting(op="estimate.height", values={"rise": round(size / 100, 3), "broad": round(size / 10, 3)})
    layer = Layer(id="photo", name=source.name, what=SourceWhat(source=source.id, height=relief))
    return Surface(id="surface", name=source.name, width_mm=width, height_mm=height, layers=(layer,), beat="photo")


def _native_px(source: Source) -> int:
    """Pixels of the repeat's longer side at the photo's own density."""
    frame = source.straightening
    width, height = closed_size(source)
    return max(64, round(max(width * source.width_px / frame.width_mm, height * source.height_px / frame.height_mm)))


def _meters(maps: MapSet) -> dict[str, Any]:
    encoded = encode_srgb(np.clip(maps[MapKind.BASE_COLOUR], 0, 1)).astype(np.float32)
    x, y = (read_seam(encoded, axis=axis, structured=True) for axis in (1, 0))
    repetition = read_repetition(maps[MapKind.BASE_COLOUR]).score
    spacing = [read_spacing(encoded, axis=axis) for axis in (1, 0)]
    seams = {}
    for kind in (MapKind.BASE_COLOUR, MapKind.HEIGHT, MapKind.NORMAL, MapKind.ROUGHNESS):
        pixels = encoded if kind is MapKind.BASE_COLOUR else maps[kind]
        scores = [read_seam(pixels, axis=axis, structured=True) for axis in (1, 0)]
        seams[kind.value] = {
            "x": round(scores[0].score, 4),
            "y": round(scores[1].score, 4),
            "closes": all(s.closes for s in scores),
        }
    return {
        "seam": {"x": round(x.score, 4), "y": round(y.score, 4)},
        "repetition": round(repetition, 4),
        "seams": seams,
        "spacing": {
            "x": round(spacing[0].ratio, 4),
            "y": round(spacing[1].ratio, 4),
            "fits": all(s.fits for s in spacing),
        },
    }


def _drift(session: Session, source: Source) -> float:
    """Brightest against darkest of what was mended, after evening."""
    return light_drift(session.evaluation().value(session.planner().flat(source, 512)).or_default(MapKind.BASE_COLOUR))


def _open(path: Path) -> Session:
    return Session(load_job(path))


def _export(options: argparse.Namespace, progress: _Progress) -> None:
    session = _open(options.job)
    surface = session.job.surface_named(options.surface)
    delivery = msgspec.structs.replace(session.job.deliveries[0], px=options.px)
    written = export_surface(session, surface, delivery, options.out, progress=progress)
    progress.end()
    result = {"surface": surface.name, "maps": {kind.value: path.name for kind, path in written.items()}}
    _say(result, "\n".join(str(path) for path in written.values()), as_json=options.json)


def _scene(options: argparse.Namespace, progress: _Progress) -> None:
    from ..engine.handover.deliver import scene_glb
    from ..formats.disk import write_atomically

    session = _open(options.job)
    write_atomically(options.out, scene_glb(session, px=options.px, progress=progress))
    progress.end()
    print(f"Wrote {options.out}")


def _check(options: argparse.Namespace, progress: _Progress) -> None:
    session = _open(options.job)
    findings = []
    for surface in session.job.surfaces:
        progress(f"Check {surface.name}", 0.5)
        for finding in run_checks(session.job, surface, session.finished(surface, CHECK_PX)):
            findings.append(
                {
                    "surface": surface.name,
                    "check": finding.check,
                    "level": finding.level,
                    "title": finding.title,
                    "cause": finding.cause,
                    "spot_mm": finding.spot,
                    "mend": finding.mend_label or None,
                    "measures": finding.measures,
                }
            )
    progress.end()
    lines = [f"{f['level']:8}{f['surface']}: {f['title']}. {f['cause']}" for f in findings]
    _say({"findings": findings}, "\n".join(lines), as_json=options.json)


def _list(options: argparse.Namespace, _progress: _Progress) -> None:
    job = load_job(options.job).job
    courses = {face.part.id: face.courses for face in unroll(job).faces} if job.scene.parts else {}
    result: dict[str, Any] = {
        "job": job.name,
        "sources": [
            {
                "name": s.name,
                "size_mm": list(s.sheet_mm) if s.scatter else [s.straightening.width_mm, s.straightening.height_mm],
            }
            for s in job.sources
        ],
        "surfaces": [
            {
                "name": surface.name,
                "id": surface.id,
                "repeat_mm": [surface.width_mm, surface.height_mm],
                "layers": [
                    {
                        "name": layer.name,
                        "shown": layer.shown,
                        "what": type(layer.what).__struct_config__.tag,
                        "rules": len(layer.where),
                    }
                    for layer in surface.layers
                ],
            }
            for surface in job.surfaces
        ],
        "parts": [
            {
                "name": part.name,
                "id": part.id,
                "surface": part.surface or None,
                "laying": part.laying.op,
                "whole_courses": c.whole if (c := courses.get(part.id)) else None,
            }
            for part in job.scene.parts
        ],
    }
    lines = [job.name]
    for surface in result["surfaces"]:
        width, height = surface["repeat_mm"]
        lines.append(
            f"  {surface['name']}  {width:g} × {height:g} mm  {', '.join(x['name'] for x in surface['layers'])}"
        )
    lines += [f"  {part['name']}: {part['surface'] or 'bare'}" for part in result["parts"]]
    _say(result, "\n".join(lines), as_json=options.json)


def _window(options: argparse.Namespace, _progress: _Progress) -> None:
    from ..ui.app import run

    if options.path is not None and options.path.suffix != ".tessel":
        session = Session()
        source = session.read_source(options.path)
        sys.exit(run(opened=OpenedJob(Job(sources=(source,)), session.blobs), stage="Gather"))
    sys.exit(run(options.path))


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="brave-tessel", description="Seamless surfaces that know their real size.")
    parser.add_argument("--version", action="version", version=__version__)
    verbs = parser.add_subparsers(dest="verb", required=True)

    def verb(name: str, run: Any, help: str) -> argparse.ArgumentParser:
        made = verbs.add_parser(name, help=help, description=help)
        made.set_defaults(run=run)
        return made

    window = verb("open", _window, "Open the window, with a job or a picture.")
    window.add_argument("path", type=Path, nargs="?")
    demo = verb("demo", _demo, "Write the demo job, or open it in the window.")
    demo.add_argument("--out", type=Path, default=Path("saltreach.tessel"))
    demo.add_argument("--open", action="store_true")
    repeat = verb("repeat", _repeat, "Make a photo tile and write its maps.")
    repeat.add_argument("photo", type=Path)
    repeat.add_argument("--size", required=True, help="real size of the picture, as in 600x400mm")
    repeat.add_argument("--method", choices=("best-cut", "level", "regrow", "courses"), default="best-cut")
    repeat.add_argument(
        "--unit", default="", help="known spacing of courses, as in 75mm; sizes the whole sheet (courses)"
    )
    repeat.add_argument(
        "--overlap", type=float, default=0.0, help="mm; by default 15 %% of the shorter side, 48 at most"
    )
    repeat.add_argument("--even", type=float, default=0.0, help="how much uneven light is taken out, 0 to 1")
    repeat.add_argument("--px", type=int, default=0, help="pixels of the longer side; by default the photo's own")
    straight = verb(
        "straighten", _straighten, "Straighten a photo by four corners; the proportion follows from the view."
    )
    straight.add_argument("photo", type=Path)
    straight.add_argument(
        "--corners", required=True, help="x,y;x,y;x,y;x,y: top left, top right, bottom right, bottom left, in pixels"
    )
    straight.add_argument("--width", default="", help="real width of the rectangle, as in 1200mm")
    straight.add_argument("--out", type=Path, required=True)
    straight.add_argument("--json", action="store_true", help="machine-readable result on standard output")
    cli_recipe.declare(
        verb(
            "recipe",
            lambda options, progress: cli_recipe.run(options, progress, _say),
            "List stock recipes, or write the maps of one.",
        )
    )
    gather = verb("gather", _gather, "Group the pictures of a folder into map sets and say what each is.")
    gather.add_argument("folder", type=Path)
    gather.add_argument("--json", action="store_true", help="machine-readable result on standard output")
    export = verb("export", _export, "Write the maps of a surface.")
    export.add_argument("job", type=Path)
    export.add_argument("--surface", required=True)
    export.add_argument("--px", type=int, default=2048)
    scene = verb("scene", _scene, "Write the scene as glTF 2.0 binary.")
    scene.add_argument("job", type=Path)
    scene.add_argument("--px", type=int, default=1024)
    for command in (repeat, export, scene):
        command.add_argument("--out", type=Path, required=True)
    check = verb("check", _check, "Check every surface of a job.")
    listing = verb("list", _list, "List surfaces, layers and parts of a job.")
    for command in (check, listing):
        command.add_argument("job", type=Path)
    for command in (repeat, export, check, listing):
        command.add_argument("--json", action="store_true", help="machine-readable result on standard output")
    return parser


def main(arguments: Sequence[str] | None = None) -> int:
    """Run one command; 0, or a clear sentence on standard error and 2."""
    options = _parser().parse_args(arguments)
    progress = _Progress()
    try:
        options.run(options, progress)
    except TesselError as error:
        progress.end()
        print(sentence(error), file=sys.stderr)
        return 2
    except KeyboardInterrupt:
        progress.end()
        print("Stopped.", file=sys.stderr)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main())
