"""Questions asked of a source at a press of a button; the answers become commands."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import TypeVar

import msgspec
import numpy as np

from ...core.colour import encode_srgb, luminance
from ...core.errors import DoesNotCloseError
from ...core.gather.shadows import find_shadow
from ...core.job.commands import AnyCommand, Set
from ...core.job.document import Crop, Job, Quiet, Source, Touch
from ...core.job.nodes import Setting
from ...core.maps import MapKind
from ...core.operation import REGISTRY, Value
from ...core.repeat.courses import Lattice, find_lattice, joint_width, whole_count
from ...core.repeat.cut import PATH_PX
from ...core.repeat.in_step import Echoes, read_steps
from ...core.repeat.judge import tone_of
from ...core.repeat.line_up import LinedUp, line_up
from ...core.repeat.mend import mended_size
from ..evaluate import always
from ..intents.sources import follow_source
from ..snapshot import Snapshot
from .counts import soundest_counts

LEAST_OVERLAP = 0.1
"""Share of a period that must be left over, so that a cut can be made."""


@dataclass(frozen=True, slots=True)
class Beat:
    """The beat of a source's pattern, and the width of the joint between its rows, mm; across x and y, where the
    pattern has no level beat that way, that of its lines, else 0. ``counts`` of its periods close the source best; as
    many as it holds where they are not known.
    """

    lattice: Lattice
    joint_mm: float
    lines: tuple[float, float] = (0.0, 0.0)
    counts: tuple[int, int] | None = None

    @property
    def periods(self) -> tuple[float, float]:
        """After how much along x and along y the sheet can be cut in step, mm; 0 where it cannot."""
        own = zip(self.lattice.periods, self.lattice.level, self.lines, strict=True)
        across, up = (period if level else by_lines for period, level, by_lines in own)
        return across, up

    @property
    def unit_mm(self) -> float:
        """The shift along a row after which the pattern is itself again."""
        return self.lattice.periods[0]


def find_beat(snapshot: Snapshot, source: Source, *, current: Callable[[], bool] = always) -> Beat:
    """Measure the beat on the straightened, evened sheet.

    Raises
    ------
    DoesNotCloseError
        when the picture has none.
    """
    flat = snapshot.evaluation(current).value(snapshot.planner().flat(source, PATH_PX))
    tone = encode_srgb(np.clip(luminance(flat[MapKind.BASE_COLOUR]), 0, 1)).astype(np.float32)
    lattice = find_lattice(tone, flat.grid)
    # What has no level beat of its own that way may still stand in columns, or lie in rows, that have.
    echoes = Echoes(tone_of(flat.or_default(MapKind.BASE_COLOUR)), flat.grid)
    lines = [0.0 if level else echoes.beat_of_lines(axis) for axis, level in zip((1, 0), lattice.level, strict=True)]
    beat = Beat(lattice, joint_width(tone, flat.grid, lattice.course), (lines[0], lines[1]))
    job = Job(sources=(source,))
    try:
        most = cut_to_courses(job, source, beat).apply(job).sources[0]
    except DoesNotCloseError:
        # Told by whoever cuts it.
        return beat
    return replace(beat, counts=soundest_counts(snapshot, most, current=current))


def cut_to_courses(job: Job, source: Source, beat: Beat) -> AnyCommand:
    """Cut a source to whole periods, as many as close best or as its sheet holds; a way of which it does not hold one
    is left to a free cut.

    Raises
    ------
    DoesNotCloseError
        when it holds none either way.
    """
    width, height = source.sheet_mm
    turn, lean = beat.lattice.tilts
    values: dict[str, Value] = {"turn": round(turn, 4), "lean": round(lean, 4)}
    ways = (("across", beat.periods[0], width), ("up", beat.periods[1], height))
    counts: list[int] = []
    for way, (name, period, length) in enumerate(ways):
        fits = period > 0 and length >= (1 + LEAST_OVERLAP) * period
        most = whole_count(length, period, LEAST_OVERLAP * period) if fits else 0
        counts.append(min(most, beat.counts[way]) if beat.counts else most)
        values[name] = counts[-1]
        if fits:
            values[f"period_{name}"] = round(period, 4)
    if counts.count(0) == 1:
        # Rows of random units: they close, and their lengths are cut at a joint.
        values["course"] = round(beat.lattice.course, 4)
    if not any(counts):
        # Not one whole period either way: said by the longer one, in its words.
        name, period, length = max(ways, key=lambda way: way[1])
        if period:
            whole_count(length, period, LEAST_OVERLAP * period)
        raise DoesNotCloseError(
            "Whole courses",
            value="this picture",
            allowed="a pattern whose rows lie level",
            remedy="Straighten it by its rows, or use best cut.",
        )
    mend = Setting(op="mend.courses", values=values)
    command = Set(path=("sources", source.id, "mend"), value=mend, label="Cut to whole courses")
    return follow_source(job, msgspec.structs.replace(source, mend=mend), command)


def find_overlap(snapshot: Snapshot, source: Source, *, current: Callable[[], bool] = always) -> LinedUp:
    """Overlaps near those of a source closed by best cut under which its pattern meets itself in step.

    Raises
    ------
    DoesNotCloseError
        when the picture has no beat.
    """
    flat = snapshot.evaluation(current).value(snapshot.planner().flat(source, PATH_PX))
    mend = source.mend
    overlap = mend.number("overlap")
    asked = overlap, mend.number("overlap_up") or overlap
    return line_up(flat, overlap=asked, colour=mend.number("colour"), relief=mend.number("relief"))


def out_of_step(snapshot: Snapshot, source: Source, *, current: Callable[[], bool] = always) -> bool:
    """Whether the pattern of a source, closed as it is, plainly does not meet itself in step."""
    flat = snapshot.evaluation(current).value(snapshot.planner().flat(source, PATH_PX))
    steps = read_steps(tone_of(flat.or_default(MapKind.BASE_COLOUR)), flat.grid, mended_size(source))
    return any(step is not None and step.doubtful for step in steps)


def set_overlap(job: Job, source: Source, found: LinedUp) -> AnyCommand:
    """Give a best cut the overlaps that were found."""
    across, up = found.overlap
    values = {**source.mend.values, "overlap": across, "overlap_up": 0.0 if up == across else up}
    mend = msgspec.structs.replace(source.mend, values=values)
    command = Set(path=("sources", source.id, "mend"), value=mend, label="Line up the overlap")
    return follow_source(job, msgspec.structs.replace(source, mend=mend), command)


def scale_source(job: Job, source: Source, factor: float, note: str = "") -> AnyCommand:
    """Make everything on a source larger or smaller, because one length on it is known."""
    frame = source.straightening
    frame = msgspec.structs.replace(
        frame, width_mm=round(frame.width_mm * factor, 4), height_mm=round(frame.height_mm * factor, 4), size_note=note
    )
    scaled = msgspec.structs.replace(
        source,
        straightening=frame,
        mend=_scaled(source.mend, factor),
        shadow=_scaled(source.shadow, factor),
        light=_scaled(source.light, factor),
        breakup=_scaled(source.breakup, factor),
        crop=None if source.crop is None else _times(source.crop, factor),
        quiets=tuple(_times(quiet, factor) for quiet in source.quiets),
        shift=_point(source.shift, factor),
        touches=tuple(_touch(touch, factor) for touch in source.touches),
    )
    command = Set(path=("sources", source.id), value=scaled, label="Size by the known unit")
    return follow_source(job, scaled, command)


def _point(point: tuple[float, float], factor: float) -> tuple[float, float]:
    return round(point[0] * factor, 4), round(point[1] * factor, 4)


Sized = TypeVar("Sized", Crop, Quiet)


def _times(placed: Sized, factor: float) -> Sized:
    """What lies on a sheet, all its mm so many times as large."""
    mm = {name: round(getattr(placed, name) * factor, 4) for name in placed.__struct_fields__ if name.endswith("_mm")}
    return msgspec.structs.replace(placed, **mm)


def _touch(touch: Touch, factor: float) -> Touch:
    points = tuple(_point(point, factor) for point in touch.points)
    brush, offset = _scaled(touch.brush, factor), _point(touch.offset, factor)
    return msgspec.structs.replace(touch, points=points, offset=offset, brush=brush)


def _scaled(setting: Setting, factor: float) -> Setting:
    if not setting.operation.known:
        # Made by another version: it is kept as it is.
        return setting
    params = REGISTRY[setting.op].params
    values = {
        name: round(float(value) * factor, 4) if params[name].kind == "length" else value
        for name, value in setting.complete().items()
    }
    return msgspec.structs.replace(setting, values=values)


def scaled_beat(beat: Beat, factor: float) -> Beat:
    """The same beat on a sheet that many times as large."""
    lattice = beat.lattice
    across, up = ((v[0] * factor, v[1] * factor) for v in (lattice.across, lattice.up))
    return Beat(
        Lattice(across, up, lattice.course * factor, lattice.strength),
        beat.joint_mm * factor,
        (beat.lines[0] * factor, beat.lines[1] * factor),
        beat.counts,
    )


def shadow_told(snapshot: Snapshot, source: Source, *, current: Callable[[], bool] = always) -> bool | None:
    """Whether a source's cast shadow stands out between its two places; None where the second is no darker."""
    flat = snapshot.evaluation(current).value(snapshot.planner().straight(source, PATH_PX))
    values = source.shadow.complete()
    width, height = flat.grid.width_mm, flat.grid.height_mm
    lit, dark = ((float(values[f"{w}_x"]) * width, float(values[f"{w}_y"]) * height) for w in ("lit", "dark"))
    found = find_shadow(flat[MapKind.BASE_COLOUR], flat.grid, lit, dark, size=float(values["size"]))
    return None if found is None else found.told
