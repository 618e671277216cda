"""Does a regular pattern meet itself in step where a sheet closes?

Closing shifts the sheet by the width (height) that is left of it. Where the source is itself again after a shift by
its beat, that shift has to be a whole number of beats: what the source's own echo says at the rest is compared with
what it says at no rest and half way between.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import cv2
import numpy as np
import numpy.typing as npt

from ..errors import DoesNotCloseError
from ..sheet import Grid, Raster
from .courses import Echo, Lattice, echo_unwrapped, find_lattice, without_broad

Places = npt.NDArray[np.float64]

_LOOKED_PX = 600
_FAR = 0.45
"""Share of the sheet up to which shifts echo from enough of it."""
_PLAIN_2D, _STANDS_2D = 0.18, 0.12
_PLAIN_1D, _STANDS_1D = 0.45, 0.35
"""How strong an echo at whole beats has to be, and how far it has to stand out, to tell anything."""
_PLAIN_ROWS = 0.12
_BEATS_IN_VIEW = 2.6
_LEVEL = 0.04
"""How far aside a shift may lie and still be one along a way, as a share of the longer beat."""
_BY_HAND, _STILL, _STILL_OF_FEW, _FEW = 0.06, 0.4, 0.68, 6
"""Share of a beat by which courses may be off and meet, as long as the echo still bears it out: thin joints that waver
lie over each other at no shift at all. Of a sheet that holds few beats theirs is not known so well, and has to echo
better.
"""
_MOST_IN_BOND, _SEEN, _BLUR_PX = 6, 0.06, 1.5
"""After how many beats a bond may be itself again, and how far that has to stand out line by line."""
_OFTEN, _PLAINLY = 4, 0.3
"""A beat of a whole picture is certain if it comes so often, or echoes so strongly."""


@dataclass(frozen=True, slots=True)
class Step:
    """``score`` 1 where the pattern meets itself in step, 0 where it is furthest out; ``beat`` after how much it is
    itself again and ``off`` by how much it is out, mm; ``certain`` where the picture as a whole has the beat, and not
    its edges alone: those of a natural ground may seem to; ``open`` where what tells it is at odds, ``few``
    where the sheet holds few beats.
    """

    score: float
    beat: float
    off: float
    certain: bool
    open: bool = False
    few: bool = False

    @property
    def broken(self) -> bool:
        """Plainly out of step."""
        return self.score < (0.5 if self.certain else 0.45)

    @property
    def doubtful(self) -> bool:
        """Not quite in step, and by more than a hand lays courses."""
        still = _STILL_OF_FEW if self.few else _STILL
        if not self.open and self.off <= _BY_HAND * self.beat and self.score >= still:
            return False
        return self.score < (0.8 if self.certain else 0.75)


def read_steps(light: Raster, grid: Grid, closed_mm: tuple[float, float]) -> tuple[Step | None, Step | None]:
    """The joins across x and across y of a sheet with lightness (H, W) that closes to a size in mm; None where the
    sheet has no beat that way.
    """
    return Echoes(light, grid).steps(closed_mm)


class Echoes:
    """What a flat sheet with lightness (H, W) says of every size it may be closed to. What is not asked for is not
    worked out.
    """

    def __init__(self, light: Raster, grid: Grid) -> None:
        self.light, self.grid = light, grid

    @cached_property
    def whole(self) -> _Field | None:
        """The echo of the whole picture; None where nothing beats."""
        return _by_lattice(self.light, self.grid)

    @cached_property
    def edges(self) -> _Field | None:
        """That of its edges alone: units of many colours are themselves again only in those."""
        return _by_lattice(_edges(self.light), self.grid)

    @cached_property
    def lines(self) -> tuple[_Lines | None, _Lines | None]:
        """Those of where lines across x and across y lie: rows of random units have a beat in these alone."""
        across, up = (_by_lines(self.light, self.grid, axis) for axis in (1, 0))
        return across, up

    def steps(self, closed_mm: tuple[float, float]) -> tuple[Step | None, Step | None]:
        """How the joins across x and across y would meet."""
        across, up = (self._step(closed_mm, axis) for axis in (1, 0))
        return _of_few(across, self.grid.width_mm), _of_few(up, self.grid.height_mm)

    def _step(self, closed_mm: tuple[float, float], axis: int) -> Step | None:
        whole = None if self.whole is None else self.whole.step(closed_mm, axis=axis)
        if whole is None and self.edges is not None:
            by_edges = self.edges.step(closed_mm, axis=axis)
            whole = by_edges and replace(by_edges, certain=False)
        lines = self.lines[1 - axis]
        if lines is None:
            return whole
        rows = lines.step(closed_mm[1 - axis])
        if whole is None and round(closed_mm[1 - axis] / lines.beat_mm) % lines.in_bond:
            # Lines lie over lines, and perhaps over those of other rows.
            rows = replace(rows, score=min(rows.score, _OPEN), open=True)
        return _together(whole, rows)

    def in_step(self, axis: int, most: float, *, least: float = 0.0) -> list[float]:
        """Lengths from ``least`` to ``most`` mm across x (``axis`` 1) or y (0) to which the sheet may be closed so that
        its pattern meets itself in step, by what tells it most surely of those; none where it has no beat that way.
        """
        for field in (self.whole, self.edges):
            if field is not None and (found := [one for one in field.in_step(axis, most) if one >= least]):
                return found
        lines = self.lines[1 - axis]
        if lines is None:
            return []
        for beat in (lines.beat_mm * lines.in_bond, lines.beat_mm):
            if found := [count * beat for count in range(1, int(most / beat) + 1) if count * beat >= least]:
                return found
        return []

    def beat_of_lines(self, axis: int) -> float:
        """After how much across x (``axis`` 1) or y (0) all lines together are plainly themselves again, mm: columns of
        units that are laid anyhow have a beat in nothing else. 0 where there is none.
        """
        lines = self.lines[1 - axis]
        return lines.beat_mm if lines is not None and lines.plain(_PLAIN_1D, _STANDS_1D) else 0.0


def _of_few(step: Step | None, length: float) -> Step | None:
    return step and replace(step, few=length < _FEW * step.beat)


def _together(whole: Step | None, rows: Step) -> Step:
    if whole is None:
        return rows
    # Two that contradict each other leave it open: neither good nor broken.
    if whole.broken != rows.broken and abs(whole.score - rows.score) > 0.4:
        return Step(_OPEN, rows.beat, rows.off, False, open=True)
    lower = whole if whole.score < rows.score else rows
    # What both tell is certain.
    return replace(lower, certain=whole.certain or (whole.broken and rows.broken))


_OPEN = 0.6


def _edges(light: Raster) -> Raster:
    across, down = (cv2.Sobel(light, cv2.CV_32F, *order, ksize=3) for order in ((1, 0), (0, 1)))
    return np.asarray(cv2.GaussianBlur(np.sqrt(across * across + down * down), (0, 0), 1.5), np.float32)


def _by_lattice(light: Raster, grid: Grid) -> _Field | None:
    """The echo of the whole picture."""
    try:
        lattice = find_lattice(light, grid)
    except DoesNotCloseError:
        return None
    small = without_broad(light, _LOOKED_PX)
    echo = echo_unwrapped(small)
    per_px = np.array([grid.width_mm / small.shape[1], grid.height_mm / small.shape[0]])
    return _Field(echo, per_px, _FAR * np.array([grid.width_mm, grid.height_mm]), lattice)


class _Field:
    """An echo and the beats that were found in it, mm."""

    def __init__(self, echo: Echo, per_px: Places, half: Places, lattice: Lattice) -> None:
        self.echo, self.per_px, self.half = echo, per_px, half
        self.across, self.up = np.array(lattice.across), np.array(lattice.up)
        counts = [np.arange(-40, 41) if beats else np.zeros(1) for beats in lattice.beats]
        many = np.stack(np.meshgrid(*counts), -1).reshape(-1, 2)
        self.beats = many[:, :1] * self.across + many[:, 1:] * self.up
        inside = (np.abs(self.beats) < half).all(1) & (np.linalg.norm(self.beats, axis=1) > 1e-6)
        near = self.beats[inside]
        self.near = near[np.linalg.norm(near, axis=1).argsort()[:24]]

    def step(self, closed_mm: tuple[float, float], *, axis: int) -> Step | None:
        """How the pattern meets itself across x (``axis`` 1) or y (0)."""
        way = np.array([1.0, 0.0]) if axis == 1 else np.array([0.0, 1.0])
        rests = way * closed_mm[1 - axis] - self.beats
        rest = rests[np.linalg.norm(rests, axis=1).argmin()]
        own = self.across if axis == 1 else self.up
        length = float(np.abs(own).max()) or float(max(np.abs(self.across).max(), np.abs(self.up).max()))
        line = [self._mean(way * share * length, length) for share in np.linspace(0, 1, 25)]
        known = [value for value in line if np.isfinite(value)]
        top, at = line[0], self._mean(rest, length)
        if not known or not np.isfinite(at) or not np.isfinite(top):
            return None
        low = min(known)
        if top < _PLAIN_2D or top - low < _STANDS_2D:
            return None
        seldom = self.half[1 - axis] / _FAR < _OFTEN * length and top < _PLAINLY
        return Step((at - low) / (top - low), length, float(np.linalg.norm(rest)), not seldom)

    def in_step(self, axis: int, most: float) -> list[float]:
        """Lengths up to ``most`` mm along x (``axis`` 1) or y (0) after which the pattern is itself again."""
        if self.step((most, most), axis=axis) is None:
            return []
        along, aside = self.beats[:, 1 - axis], np.abs(self.beats[:, axis])
        level = aside <= _LEVEL * max(float(np.abs(self.up[1])), float(np.abs(self.across[0])))
        found = along[level & (along > 1e-6) & (along <= most)]
        return sorted({round(float(length), 4) for length in found})

    def _mean(self, off: Places, length: float) -> float:
        """The usual echo at whole beats and so much beside; not where that comes near to no shift at all."""
        places = self.near + off
        fits = (np.abs(places) < self.half).all(1) & (np.linalg.norm(places, axis=1) > 0.4 * length)
        if not fits.any():
            return float("nan")
        held = places[fits] / self.per_px
        return float(np.median(self.echo.at(np.stack([-held[:, 1], held[:, 0]], 1))))


class _Lines:
    """The echo of a line, and its beat in pixels. ``in_bond`` of them make a shift after which rows that step aside are
    themselves again too.
    """

    def __init__(self, echo: npt.NDArray[np.float64], beat: float, per_px: float, in_bond: int) -> None:
        self.echo, self.beat, self.per_px, self.in_bond = echo, beat, per_px, in_bond
        self.beat_mm = beat * per_px
        self.places = np.arange(len(echo))
        self.counts = np.arange(1, max(2, int((len(echo) - 1) / beat)))
        self.top = self._mean(0.0)
        self.low = min(self._mean(-share) for share in np.linspace(0.1, 0.9, 17))

    def plain(self, least: float, stands: float) -> bool:
        """Whether it tells anything: whole beats echo at least so, and stand out so far."""
        return self.top >= least and self.top - self.low >= stands

    def _mean(self, off: float) -> float:
        at = (self.counts + off) * self.beat
        return float(np.median(np.interp(at[at < len(self.echo)], self.places, self.echo)))

    def step(self, closed_mm: float) -> Step:
        """How it meets itself when it is closed to a length."""
        rest = (closed_mm / self.beat_mm) % 1
        rest = rest if rest < 0.5 else rest - 1
        score = (self._mean(rest) - self.low) / (self.top - self.low)
        return Step(score, self.beat_mm, abs(rest) * self.beat_mm, False)


def _by_lines(light: Raster, grid: Grid, axis: int) -> _Lines | None:
    """By the echo of where lines across the way lie, of all rows together or else row by row: rows of random units have
    a beat in the first alone, bonds that step aside in the second.
    """
    edges = [np.abs(cv2.Sobel(light, cv2.CV_32F, *order)) for order in ((1, 0), (0, 1))]
    along = [np.asarray(one.T if axis == 1 else one, np.float32) for one in edges]
    length = (grid.width_mm, grid.height_mm)[1 - axis]
    per_px, across = length / along[0].shape[0], along[1 - axis]
    echo = _echo(across.mean(1, keepdims=True))
    beat = _beat(echo)
    if beat is not None and len(echo) / beat >= _BEATS_IN_VIEW:
        lines = _Lines(echo, beat, per_px, max(_in_bond(one, beat) for one in along))
        if lines.plain(_PLAIN_1D, _STANDS_1D):
            return lines
    echo = _row_by_row(across)
    beat = _beat(echo, least=_PLAIN_ROWS, near=0.6)
    if beat is None or len(echo) / beat < _BEATS_IN_VIEW:
        return None
    lines = _Lines(echo, beat, per_px, 1)
    return lines if lines.plain(_PLAIN_ROWS, _PLAIN_ROWS) else None


def _row_by_row(edges: Raster) -> npt.NDArray[np.float64]:
    return _echo(np.asarray(cv2.GaussianBlur(edges, (0, 0), _BLUR_PX), np.float32))


def _in_bond(edges: Raster, beat: float) -> int:
    """How many beats (px) down a picture of edges (N, lines) make it itself again line by line.

    The edges of all lines together come again after a third of a unit in a third bond; those of one line after a whole
    one.
    """
    echo = _row_by_row(edges)
    counts = np.arange(1, min(_MOST_IN_BOND, int((len(echo) - 2) / beat)) + 1)
    if len(counts) < 2:
        return 1
    centre = np.rint(counts * beat).astype(np.int64)
    found = np.max([echo[np.clip(centre + off, 0, len(echo) - 1)] for off in (-2, -1, 0, 1, 2)], 0)
    low, high = float(found.min()), float(found.max())
    if high < _SEEN or high - low < _SEEN:
        return 1
    return int(counts[found >= low + 0.7 * (high - low)][0])


def _echo(lines: Raster) -> npt.NDArray[np.float64]:
    """Normalised autocorrelation down a picture (N, lines), of all lines together, up to three fifths of its length."""
    count = len(lines)
    broad = cv2.GaussianBlur(
        lines.astype(np.float32), (1, 0), sigmaX=1e-3, sigmaY=count / 10, borderType=cv2.BORDER_REFLECT
    )
    away = lines - broad.reshape(lines.shape)
    together = np.fft.irfft((np.abs(np.fft.rfft(away, 2 * count, axis=0)) ** 2).sum(1))[:count]
    power = np.concatenate([[0.0], np.cumsum((away.astype(np.float64) ** 2).sum(1))])
    lag = np.arange(count)
    own = np.sqrt(np.maximum(power[count - lag] * (power[count] - power[lag]), 1e-12))
    return np.asarray(together / own)[: int(0.6 * count)]


def _beat(echo: npt.NDArray[np.float64], *, least: float = 0.3, near: float = 0.75) -> float | None:
    """The shortest shift after which a line is nearly as much itself as at any, pixels; measured at its multiples."""
    inner = np.arange(5, len(echo) - 1)
    peaks = inner[(echo[inner] >= echo[inner - 1]) & (echo[inner] > echo[inner + 1])]
    if not len(peaks) or echo[peaks].max() < least:
        return None
    beat = float(peaks[echo[peaks] >= near * echo[peaks].max()][0])
    for times in range(2, 200):
        centre = round(beat * times)
        if centre >= len(echo) - 3:
            break
        places = np.arange(max(1, centre - 2), min(len(echo) - 1, centre + 3))
        at = int(places[echo[places].argmax()])
        if echo[at] < least * 2 / 3:
            break
        bend = echo[at - 1] - 2 * echo[at] + echo[at + 1]
        sub = 0.0 if abs(bend) < 1e-9 else float(np.clip(0.5 * (echo[at - 1] - echo[at + 1]) / bend, -0.5, 0.5))
        beat = (at + sub) / times
    return beat
