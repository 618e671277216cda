"""One verdict for each join of a closed sheet: good, look closer, broken; with its reasons and the place."""

from __future__ import annotations

from dataclasses import dataclass
from enum import IntEnum

import cv2
import numpy as np
import numpy.typing as npt

from ..colour import lightness, luminance
from ..phrases import Phrase, say
from ..sheet import Grid, Raster
from .coherence import Coherence, read_coherence
from .in_step import Step, read_steps
from .line_ends import LineEnds, SeamEnds, read_line_ends, read_seam_ends
from .meters import BAND_LIMIT, SeamReading, read_seam

_LOOKED_PX = 640
_MUCH_ROUGHER, _MUCH_LIGHT = 2.5, 3.0
_BLURRED, _SHARPENED = 0.6, 1.8
_BEARS_OUT = 0.4
"""Share of strange patches along a join that bears out what lines alone tell."""
_HALF = 0.5


class Verdict(IntEnum):
    """From best to worst."""

    GOOD = 0
    LOOK = 1
    BROKEN = 2

    @property
    def word(self) -> str:
        """As people read it."""
        return ("good", "look closer", "broken")[self]


@dataclass(frozen=True, slots=True)
class JoinVerdict:
    """The join across x (``axis`` 1) or y (0): verdict, why, where along it one should look, and what was read."""

    axis: int
    verdict: Verdict
    reasons: tuple[Phrase, ...]
    worst: float
    step: Step | None
    coherence: Coherence
    sharpness: float
    lines: LineEnds


def tone_of(colour: Raster) -> Raster:
    """Lightness (H, W) of linear colour, at the size joins are looked at."""
    light = lightness(np.clip(luminance(colour), 0, 1)).astype(np.float32)
    return shrunk(light)


def shrunk(plane: Raster) -> Raster:
    """A plane (H, W) at the size joins are looked at."""
    scale = min(1.0, _LOOKED_PX / max(plane.shape))
    if scale == 1:
        return np.ascontiguousarray(plane, np.float32)
    size = tuple(max(16, round(side * scale)) for side in plane.shape[1::-1])
    return np.asarray(cv2.resize(plane, size, interpolation=cv2.INTER_AREA), np.float32)


def as_fine(closed: Raster, closed_mm: tuple[float, float], source: Raster, source_mm: tuple[float, float]) -> Raster:
    """A closed plane with as many pixels a millimetre as the plane it was made of: a patch of either is as large."""
    shape = tuple(
        max(16, round(length * side / whole))
        for length, side, whole in zip(closed_mm[::-1], source.shape, source_mm[::-1], strict=True)
    )
    if shape == closed.shape:
        return closed
    how = cv2.INTER_AREA if shape[0] < closed.shape[0] else cv2.INTER_CUBIC
    return np.asarray(cv2.resize(closed, shape[::-1], interpolation=how), np.float32)


Joins = tuple[npt.NDArray[np.floating], npt.NDArray[np.floating]]
"""Where the joins across x and across y lie, each as :func:`.coherence.read_coherence` has it."""


def judge_joins(
    source: Raster,
    grid: Grid,
    closed: Raster,
    closed_mm: tuple[float, float],
    *,
    joins: Joins | None = None,
    seams: npt.NDArray[np.bool_] | None = None,
    shifted: bool = True,
) -> tuple[JoinVerdict, JoinVerdict]:
    """The joins across x and across y of a closed sheet, given what it was made of: both as lightness (H, W), see
    :func:`tone_of`.

    ``grid`` is the source's. Of a sheet that was not closed by a shift of itself (``shifted``), such as one grown anew,
    the beat is not asked, but what its ``seams`` (h, w) between patches are.
    """
    closed = as_fine(closed, closed_mm, source, (grid.width_mm, grid.height_mm))
    steps = read_steps(source, _grid_of(source, grid), closed_mm) if shifted else (None, None)
    within = None if seams is None else read_seam_ends(closed, _as_large(seams, closed.shape))
    across, up = (
        _judge(source, closed, axis, (step, steps[axis]), None if joins is None else joins[1 - axis], within)
        for axis, step in zip((1, 0), steps, strict=True)
    )
    return across, up


def _judge(
    source: Raster,
    closed: Raster,
    axis: int,
    steps: tuple[Step | None, Step | None],
    join: npt.NDArray[np.floating] | None,
    within: SeamEnds | None,
) -> JoinVerdict:
    """``steps`` are those of this way and of the other."""
    step, other = steps
    coherence = read_coherence(source, closed, axis=axis, join=join)
    seam = read_seam(closed, axis=axis, structured=True)
    sharp = sharpness_at(closed, axis=axis, join=join)
    lines = read_line_ends(closed, axis=axis, join=join)
    of_lines = _of_lines(lines, step, other)
    of_step = _of_step(step, other, coherence)
    if lines.meets and (step is None or not step.broken):
        # A natural net beats by nothing: what seems to is left out, unless it is plain.
        of_step = []
    found = [*of_step, *_of_coherence(coherence), *of_lines, *_of_seams(within), *_of_seam(seam), *_of_sharpness(sharp)]
    verdict = max((one for one, _ in found), default=Verdict.GOOD)
    reasons = tuple(reason for one, reason in found if one == verdict) if verdict else ()
    by_lines = any(one == verdict for one, _ in of_lines)
    worst = lines.worst if by_lines and not coherence.doubtful else coherence.worst
    return JoinVerdict(axis, verdict, reasons, worst, step, coherence, sharp, lines)


def _grid_of(light: Raster, grid: Grid) -> Grid:
    return Grid(light.shape[1], light.shape[0], grid.width_mm, grid.height_mm)


def _as_large(seams: npt.NDArray[np.bool_], shape: tuple[int, ...]) -> npt.NDArray[np.bool_]:
    """Seams on a sheet of other pixels: where any lies."""
    if seams.shape == shape:
        return seams
    share = cv2.resize(seams.astype(np.float32), shape[1::-1], interpolation=cv2.INTER_AREA)
    return np.asarray(share > 0.05)


def _of_step(step: Step | None, other: Step | None, coherence: Coherence) -> list[tuple[Verdict, Phrase]]:
    if step is None and other is not None:
        # Rows whose units have no beat: whether one is cut short no echo tells.
        return [(Verdict.LOOK, say("it is a regular pattern without a beat this way: units may be cut"))]
    if step is None or not step.doubtful:
        return []
    told = say("the pattern is out of step by {off:.0f} of {beat:.0f} mm", off=step.off, beat=step.beat)
    # Lines alone may be those of a natural pattern: then strange patches have to bear it out.
    sure = step.broken and (step.certain or coherence.broken or max(coherence.strange) >= _BEARS_OUT)
    return [(Verdict.BROKEN if sure else Verdict.LOOK, told)]


def _of_coherence(coherence: Coherence) -> list[tuple[Verdict, Phrase]]:
    if not coherence.doubtful:
        return []
    share = max(coherence.strange)
    told = say("{share:.0%} of the join looks like nothing else in the picture", share=share)
    return [(Verdict.BROKEN if coherence.broken else Verdict.LOOK, told)]


def _of_lines(lines: LineEnds, step: Step | None, other: Step | None) -> list[tuple[Verdict, Phrase]]:
    if not lines.doubtful:
        return []
    told = say("lines end at the join: {kept:.0%} go on, {inside:.0%} elsewhere", kept=lines.kept, inside=lines.inside)
    if step is not None and not step.doubtful:
        # What ends in a pattern that is in step is what its units were painted with: some are of two colours now.
        return [(Verdict.LOOK, told)] if lines.broken and lines.left < _HALF else []
    sure = lines.plain or (lines.broken and (step is not None or other is None))
    return [(Verdict.BROKEN if sure else Verdict.LOOK, told)]


def _of_seams(within: SeamEnds | None) -> list[tuple[Verdict, Phrase]]:
    """What lines do at seams that lie anywhere; told of both joins alike."""
    if within is None or not within.doubtful:
        return []
    told = say(
        "lines end at the edges of patches: {kept:.0%} go on, {inside:.0%} elsewhere",
        kept=within.kept,
        inside=within.inside,
    )
    return [(Verdict.BROKEN if within.broken else Verdict.LOOK, told)]


def _of_seam(seam: SeamReading) -> list[tuple[Verdict, Phrase]]:
    if seam.closes:
        return []
    if seam.band > BAND_LIMIT:
        worse = seam.band > _MUCH_LIGHT * BAND_LIMIT
        return [(Verdict.BROKEN if worse else Verdict.LOOK, say("one side is lighter than the other"))]
    worse = min(seam.to_largest, seam.ratio) > _MUCH_ROUGHER or seam.to_largest > 1.5
    # A sheet of structure may close on the sharpest of its own joints; what counts is how far it goes beyond.
    told = say(
        "the step across it is {times:.1f} times the largest inside", times=max(seam.to_largest, seam.second_to_largest)
    )
    return [(Verdict.BROKEN if worse else Verdict.LOOK, told)]


def _of_sharpness(sharp: float) -> list[tuple[Verdict, Phrase]]:
    if sharp < _BLURRED:
        return [(Verdict.LOOK, say("it is blurred along the join"))]
    if sharp > _SHARPENED:
        return [(Verdict.LOOK, say("it is rougher along the join"))]
    return []


def sharpness_at(closed: Raster, *, axis: int, join: npt.NDArray[np.floating] | None = None) -> float:
    """How much fine detail lies within a few pixels of a join, over that inside: 1 is alike."""
    lines = np.ascontiguousarray(closed if axis == 1 else closed.T)
    padded = cv2.copyMakeBorder(lines, 4, 4, 4, 4, cv2.BORDER_WRAP)
    fine = np.abs(cv2.Laplacian(padded, cv2.CV_32F))[4:-4, 4:-4]
    rows, columns = lines.shape
    at = np.zeros(rows) if join is None else np.interp(
        (np.arange(rows) + 0.5) / rows * len(join) - 0.5, np.arange(len(join)), join
    ) * columns  # fmt: skip
    reach = max(2, columns // 120)
    near = (np.rint(at)[:, None].astype(np.int64) + np.arange(-reach, reach + 1)) % columns
    return float(fine[np.arange(rows)[:, None], near].mean() / max(float(np.median(fine.mean(0))), 1e-6))
