"""Commands on photos: repeat, straighten."""

from __future__ import annotations

import argparse
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import msgspec
import numpy as np

from ..core.buildup.kinds.source import SourceWhat
from ..core.colour import codes_from_linear, encode_srgb
from ..core.errors import DoesNotCloseError, NotUnderstoodError, OutOfRangeError
from ..core.gather.chart import ChartReading, find_chart, read_chart
from ..core.gather.even_light import fall_off, light_drift
from ..core.gather.seen import SeenProportion, focal_of_film, seen_proportion
from ..core.gather.straighten import Corners, proposed_px_per_mm, straighten
from ..core.job.document import Calibration, Delivery, Job, Source
from ..core.job.layers import Layer, Surface
from ..core.job.nodes import Setting
from ..core.maps import MapKind, MapSet
from ..core.quantity import parse_size
from ..core.repeat.judge import JoinVerdict, Verdict
from ..core.repeat.mend import closed_size
from ..core.repeat.meters import read_seam, read_spacing
from ..core.repeat.repetition import read_repetition
from ..core.repeat.resample import resampled
from ..core.sheet import Grid
from ..engine.cache import Cache
from ..engine.gather.analyses import cut_to_courses, find_beat, find_overlap, out_of_step, scale_source, set_overlap
from ..engine.handover.output import Writing
from ..engine.handover.outputs.maps_png import export_surface
from ..engine.intents import sources as source_intents
from ..engine.pictures.verdicts import Verdicts, judged
from ..engine.session import Session
from ..engine.snapshot import Snapshot
from ..formats.disk import write_atomically
from ..formats.images import encode_png
from ..formats.job_file import OpenedJob
from .mendings import MENDINGS
from .said import Progress, say, warn

_KEPT_BYTES = 400 << 20


def repeat(options: argparse.Namespace, progress: Progress) -> None:
    """Make a photo close on itself and write its maps."""
    follows = not options.size and options.method == "courses" and options.unit
    if not follows and not options.size:
        raise NotUnderstoodError(
            "size",
            value="nothing",
            allowed="a size, as in 600x400mm",
            remedy="Give --size, or --unit for whole courses.",
        )
    size = None if follows else parse_size(options.size)
    # Nothing large is asked for twice.
    session = Session(OpenedJob(Job()), cache=Cache(_KEPT_BYTES))
    progress("Read the picture", 0.1)
    source = session.intake().read_source(options.photo)
    # Any size will do until the beat is measured against the known unit.
    width, height = size or (1000.0, 1000.0 * source.height_px / source.width_px)
    frame = msgspec.structs.replace(source.straightening, width_mm=width, height_mm=height)
    source = msgspec.structs.replace(source, straightening=frame)
    if options.even is not None:
        source = msgspec.structs.replace(
            source, light=Setting(op="gather.even_light", values={"strength": options.even})
        )
    charted: dict[str, Any] = {}
    if options.chart:
        reading = _chart(session, options.chart)
        source = msgspec.structs.replace(source, calibration=Calibration(matrix=reading.matrix))
        charted = {"chart": {"mean": round(reading.mean, 3), "worst": round(reading.worst, 3)}}
    progress("Mend", 0.2)
    source, measured = _mended(session.snapshot(), source, options)
    surface = _surface_of(source)
    snapshot = session.snapshot().with_job(Job(sources=(source,), surfaces=(surface,)))
    px = options.px or _native_px(source)
    delivery = Delivery(id="command-line", px=px)
    writing = Writing(snapshot, delivery, (surface,), options.out, progress)
    result: dict[str, Any] = {}
    lines: list[str] = []

    def read(maps: MapSet) -> None:
        joins, of_maps = judging.result()
        result.update(_read(snapshot, source, maps, joins, of_maps))
        width, height = result["px"]
        lines[:] = (
            f"Repeat {surface.width_mm:g} × {surface.height_mm:g} mm, {width} × {height} px",
            _told(joins),
            f"Seam score x {result['seam']['x']}, y {result['seam']['y']}; repetition {result['repetition']}",
        )

    # What both need is there before the joins are judged beside the working out of the maps.
    snapshot.evaluation().value(snapshot.planner().found(source))
    with ThreadPoolExecutor(1, thread_name_prefix="judge") as beside:
        judging = beside.submit(judged, snapshot, source)
        written = export_surface(writing, surface, stem=_stem(options.photo), meanwhile=read)
    progress.end()
    result |= {**measured, **charted, "maps": {kind.value: path.name for kind, path in written.items()}}
    say(result, "\n".join([*lines, f"{len(written)} maps in {options.out}"]), as_json=options.json)


def _read(
    snapshot: Snapshot, source: Source, maps: MapSet, joins: tuple[JoinVerdict, JoinVerdict], of_maps: Verdicts
) -> dict[str, Any]:
    """What the meters and the verdicts say of a mended source."""
    worst = max(joins, key=lambda one: one.verdict)
    return {
        "verdict": worst.verdict.word,
        "joins": {name: _join(one) for name, one in zip("xy", joins, strict=True)},
        "repeat_mm": [maps.grid.width_mm, maps.grid.height_mm],
        "px": [maps.grid.width_px, maps.grid.height_px],
        **_meters(_smaller(maps), of_maps),
        "drift": round(_drift(snapshot, source), 4),
        "evened": _evened(snapshot, source),
    }


def _chart(session: Session, photo: Path) -> ChartReading:
    """What the chart on a photo tells."""
    pixels = session.snapshot().load_pixels(session.intake().read_source(photo).blob)
    return read_chart(pixels, find_chart(pixels))


def _evened(snapshot: Snapshot, source: Source) -> float:
    """How far a photo's light was evened: as asked, else wholly where it showed a lamp's fall-off."""
    if not source.light.values.get("as_needed"):
        return source.light.number("strength")
    straight = snapshot.evaluation().value(snapshot.planner().straight(source, 512))
    return float(fall_off(straight[MapKind.BASE_COLOUR]).of_light)


def _stem(photo: Path) -> str:
    """The photo's own name for its maps, with room for what each is."""
    return photo.stem.encode()[:150].decode("utf-8", "ignore")


def _mended(snapshot: Snapshot, source: Source, options: argparse.Namespace) -> tuple[Source, dict[str, Any]]:
    """The source mended the way that was asked for, and what was measured on the way."""
    job = Job(sources=(source,))
    op = MENDINGS[options.method]
    if op != "mend.courses":
        made = source_intents.set_method(job, source, op).apply(job).sources[0]
        frame = source.straightening
        least = min(frame.width_mm, frame.height_mm)
        overlap = options.overlap if options.overlap else min(48.0, 0.15 * least)
        if op != "mend.best_cut":
            return made, {"method": options.method}
        made = msgspec.structs.replace(made, mend=Setting(op=op, values={"overlap": overlap}))
        if not options.overlap:
            made = _lined_up(snapshot, made)
        across = made.mend.number("overlap")
        return made, {"method": options.method, "overlap_mm": [across, made.mend.number("overlap_up") or across]}
    beat = find_beat(snapshot.with_job(job), source)
    if options.unit:
        source = scale_source(job, source, options.unit / beat.lattice.course).apply(job).sources[0]
        job = Job(sources=(source,))
        beat = find_beat(snapshot.with_job(job), source)
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


def _lined_up(snapshot: Snapshot, source: Source) -> Source:
    """With overlaps under which a regular pattern meets itself in step, where it would not; else as it is."""
    job = Job(sources=(source,))
    if not out_of_step(snapshot.with_job(job), source):
        return source
    try:
        found = find_overlap(snapshot.with_job(job), source)
    except DoesNotCloseError:
        return source
    return set_overlap(job, source, found).apply(job).sources[0]


def _surface_of(source: Source) -> Surface:
    width, height = closed_size(source)
    if min(width, height) <= 0:
        raise OutOfRangeError("Overlap", value=f"{source.mend.number('overlap'):g} mm", allowed="less than the picture")
    layer = Layer(id="photo", name=source.name, what=SourceWhat(source=source.id))
    return Surface(id="surface", name=source.name, width_mm=width, height_mm=height, layers=(layer,), beat="photo")


def _native_px(source: Source) -> int:
    """Pixels of the repeat's longer side at the photo's own density."""
    frame = source.straightening
    width, height = closed_size(source)
    return max(64, round(max(width * source.width_px / frame.width_mm, height * source.height_px / frame.height_mm)))


def _join(one: JoinVerdict) -> dict[str, Any]:
    """A join as the machine-readable result has it; ``worst`` is where along it to look, as a share."""
    return {
        "verdict": one.verdict.word,
        "reasons": [str(reason) for reason in one.reasons],
        "worst": round(one.worst, 3),
        "strange": [round(share, 3) for share in one.coherence.strange],
        "in_step": None if one.step is None else round(float(one.step.score), 3),
    }


def _told(joins: tuple[JoinVerdict, JoinVerdict]) -> str:
    """Both joins in one sentence."""
    words = []
    for name, one in zip(("upright", "level"), joins, strict=True):
        why = ": " + "; ".join(str(reason) for reason in one.reasons) if one.reasons else ""
        words.append(f"{name} join {one.verdict.word}{why}")
    return ". ".join(word[0].upper() + word[1:] for word in words) + "."


_METER_PX = 1024
"""The size at which the meters read, as in the window: what they tell is the same at every size."""


def _smaller(maps: MapSet) -> MapSet:
    grid = Grid.for_repeat(maps.grid.width_mm, maps.grid.height_mm, min(_METER_PX, max(maps.grid.shape)))
    if grid.shape == maps.grid.shape:
        return maps
    return MapSet(grid, {kind: resampled(kind, pixels, grid.shape) for kind, pixels in maps.maps.items()})


def _meters(maps: MapSet, of_maps: Verdicts) -> dict[str, Any]:
    encoded = encode_srgb(np.clip(maps[MapKind.BASE_COLOUR], 0, 1)).astype(np.float32)
    x, y = (read_seam(encoded, axis=axis, structured=True) for axis in (1, 0))
    tall = maps.grid.height_mm / maps.grid.width_mm
    repetition = read_repetition(maps[MapKind.BASE_COLOUR], tall=tall).score
    spacing = [read_spacing(encoded, axis=axis) for axis in (1, 0)]
    seams: dict[str, dict[str, Any]] = {}
    for kind in (MapKind.BASE_COLOUR, MapKind.HEIGHT, MapKind.NORMAL, MapKind.ROUGHNESS):
        pixels = encoded if kind is MapKind.BASE_COLOUR else maps[kind]
        scores = [read_seam(pixels, axis=axis, structured=True) for axis in (1, 0)]
        seams[kind.value] = {
            "x": round(scores[0].score, 4),
            "y": round(scores[1].score, 4),
            "closes": all(s.closes for s in scores),
        }
        known = of_maps.get(kind, of_maps[MapKind.BASE_COLOUR])
        rough = Verdict.GOOD if all(s.closes for s in scores) else Verdict.LOOK
        seams[kind.value]["verdict"] = max(*known, rough).word
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


def _drift(snapshot: Snapshot, source: Source) -> float:
    """Brightest against darkest of what was mended, after evening."""
    return light_drift(
        snapshot.evaluation().value(snapshot.planner().flat(source, 512)).or_default(MapKind.BASE_COLOUR)
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


def straighten_photo(options: argparse.Namespace, progress: Progress) -> None:
    """Straighten a photo by four corners and write it."""
    corners = _corners(options.corners)
    session = Session(OpenedJob(Job()))
    progress("Read the picture", 0.1)
    source = session.intake().read_source(options.photo)
    size_px = source.width_px, source.height_px
    focal = focal_of_film(options.focal, size_px) if options.focal else source.straightening.focal_px
    width, height = options.width, options.height
    seen = None
    if not (width and height):
        seen = seen_proportion(corners, picture_size=size_px, focal_px=focal)
        width, height = (height * seen.ratio, height) if height else (width, width / seen.ratio)
    aspect = seen.ratio if seen is not None else width / height
    # Without a size a unit width stands for it; only the proportion matters then.
    across = width or 1.0
    density = proposed_px_per_mm(corners, across, across / aspect)
    size = max(2, round(across * density)), max(2, round(across / aspect * density))
    progress("Straighten", 0.5)
    straight = straighten(session.snapshot().load_pixels(source.blob), corners, width_px=size[0], height_px=size[1])
    depth = 16 if source.depth > 8 else 8
    data = encode_png(codes_from_linear(straight, depth=depth), width_mm=width, height_mm=height, srgb=True)
    write_atomically(options.out, data)
    progress.end()
    result = {
        "aspect": round(aspect, 6),
        "px": list(size),
        "size_mm": [round(width, 3), round(height, 3)] if width else None,
        **_trust(seen),
        "file": str(options.out),
    }
    told = f", {width:g} × {height:.1f} mm" if width else ""
    sure = f" ± {100 * seen.uncertain:.1f} %" if seen is not None else ", as you say"
    if seen is not None and seen.remark:
        warn(str(seen.remark))
    say(
        result,
        f"Proportion {aspect:.4f} : 1{sure}, {size[0]} × {size[1]} px{told}: {options.out}",
        as_json=options.json,
    )


def _trust(seen: SeenProportion | None) -> dict[str, Any]:
    """How far a proportion can be relied on, for the machine-readable result."""
    if seen is None:
        return {"by": "typed", "uncertain": 0.0, "doubt": None}
    by = "view" if not seen.known else "focal length"
    return {"by": by, "uncertain": round(seen.uncertain, 5), "doubt": str(seen.remark) if seen.remark else None}
