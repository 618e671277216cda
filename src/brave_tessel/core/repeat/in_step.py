"""Does a regular pattern meet itself in step where a sheet closes?

Closing shifts the sheet by the width (height) that is left of it. Where the source is itself again after a shift by
its beat, that shift has to be a whole number of beats: what the source's own echo says at the rest is compared with
what it says at no rest and half way between.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

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
_BEATS_IN_VIEW = 2.6
_OFTEN, _PLAINLY = 4, 0.3
"""A beat of a whole picture is certain if it comes so often, or echoes so strongly."""


@dataclass(frozen=True, slots=True)
class Step:
    """``score`` 1 where the pattern meets itself in step, 0 where it is furthest out; ``beat`` after how much it is
    itself again and ``off`` by how much it is out, mm; ``certain`` where the picture as a whole has the beat, and not
    its edges alone: those of a natural ground may seem to.
    """

    score: float
    beat: float
    off: float
    certain: bool

    @property
    def broken(self) -> bool:
        """Plainly out of step."""
        return self.score < (0.5 if self.certain else 0.45)

    @property
    def doubtful(self) -> bool:
        """Not quite in step."""
        return self.score < (0.8 if self.certain else 0.75)


def read_steps(light: Raster, grid: Grid, closed_mm: tuple[float, float]) -> tuple[Step | None, Step | None]:
    """The joins across x and across y of a sheet with lightness (H, W) that closes to a size in mm; None where the
    sheet has no beat that way.
    """
    whole = _by_lattice(light, grid, closed_mm)
    if None in whole:
        # Units of many colours are themselves again in their edges alone.
        edges = [one and replace(one, certain=False) for one in _by_lattice(_edges(light), grid, closed_mm)]
        whole = whole[0] or edges[0], whole[1] or edges[1]
    rows = [_by_lines(light, grid, closed_mm, axis) for axis in (1, 0)]
    return _together(whole[0], rows[0]), _together(whole[1], rows[1])


def _together(whole: Step | None, rows: Step | None) -> Step | None:
    if whole is None or rows is None:
        return whole or rows
    # Two that contradict each other leave it open: neither good nor broken.
    if whole.broken != rows.broken and abs(whole.score - rows.score) > 0.4:
        return Step(_OPEN, rows.beat, rows.off, False)
    lower = whole if whole.score < rows.score else rows
    # What both tell is certain.
    return replace(lower, certain=whole.certain or (whole.broken and rows.broken))


_OPEN = 0.6


def _edges(light: Raster) -> Raster:
    across, down = (cv2.Sobel(light, cv2.CV_32F, *order, ksize=3) for order in ((1, 0), (0, 1)))
    return np.asarray(cv2.GaussianBlur(np.sqrt(across * across + down * down), (0, 0), 1.5), np.float32)


def _by_lattice(light: Raster, grid: Grid, closed_mm: tuple[float, float]) -> tuple[Step | None, Step | None]:
    """By the echo of the whole picture."""
    try:
        lattice = find_lattice(light, grid)
    except DoesNotCloseError:
        return None, None
    small = without_broad(light, _LOOKED_PX)
    echo = echo_unwrapped(small)
    per_px = np.array([grid.width_mm / small.shape[1], grid.height_mm / small.shape[0]])
    field = _Field(echo, per_px, _FAR * np.array([grid.width_mm, grid.height_mm]), lattice)
    return field.step(closed_mm, axis=1), field.step(closed_mm, axis=0)


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

    def _mean(self, off: Places, length: float) -> float:
        """The usual echo at whole beats and so much beside; not where that comes near to no shift at all."""
        places = self.near + off
        fits = (np.abs(places) < self.half).all(1) & (np.linalg.norm(places, axis=1) > 0.4 * length)
        if not fits.any():
            return float("nan")
        held = places[fits] / self.per_px
        return float(np.median(self.echo.at(np.stack([-held[:, 1], held[:, 0]], 1))))


def _by_lines(light: Raster, grid: Grid, closed_mm: tuple[float, float], axis: int) -> Step | None:
    """By the echo of where lines across the way lie: rows of random units have a beat in this alone."""
    order = (1, 0) if axis == 1 else (0, 1)
    edges = np.abs(cv2.Sobel(light, cv2.CV_32F, *order)).mean(1 - axis)
    per_px = grid.mm_per_px[1 - axis]
    echo = _echo(edges)
    beat = _beat(echo)
    if beat is None or len(echo) / beat < _BEATS_IN_VIEW:
        return None
    places = np.arange(len(echo))
    counts = np.arange(1, max(2, int((len(echo) - 1) / beat)))

    def mean(off: float) -> float:
        at = (counts + off) * beat
        return float(np.median(np.interp(at[at < len(echo)], places, echo)))

    top = mean(0.0)
    low = min(mean(-share) for share in np.linspace(0.1, 0.9, 17))
    if top < _PLAIN_1D or top - low < _STANDS_1D:
        return None
    rest = (closed_mm[1 - axis] / per_px / beat) % 1
    rest = rest if rest < 0.5 else rest - 1
    return Step((mean(rest) - low) / (top - low), beat * per_px, abs(rest) * beat * per_px, False)


def _echo(line: npt.NDArray[np.floating]) -> npt.NDArray[np.float64]:
    """Normalised autocorrelation of a line (N,) up to three fifths of its length."""
    count = len(line)
    broad = cv2.GaussianBlur(line[:, None].astype(np.float32), (0, 0), count / 10, borderType=cv2.BORDER_REFLECT)
    away = line - broad[:, 0]
    together = np.fft.irfft(np.abs(np.fft.rfft(away, 2 * count)) ** 2)[:count]
    power = np.concatenate([[0.0], np.cumsum(away.astype(np.float64) ** 2)])
    lag = np.arange(count)
    own = np.sqrt(np.maximum(power[count - lag] * (power[count] - power[lag]), 1e-12))
    return np.asarray(together / own)[: int(0.6 * count)]


def _beat(echo: npt.NDArray[np.float64]) -> float | None:
    """The shortest shift after which a line is nearly as much itself as at any, pixels; measured at its multiples."""
    inner = np.arange(5, len(echo) - 1)
    peaks = inner[(echo[inner] >= echo[inner - 1]) & (echo[inner] > echo[inner + 1])]
    if not len(peaks) or echo[peaks].max() < 0.3:
        return None
    beat = float(peaks[echo[peaks] >= 0.75 * echo[peaks].max()][0])
    for times in range(2, 200):
        centre = round(beat * times)
        if centre >= len(echo) - 3:
            break
        near = np.arange(max(1, centre - 2), min(len(echo) - 1, centre + 3))
        at = int(near[echo[near].argmax()])
        if echo[at] < 0.2:
            break
        bend = echo[at - 1] - 2 * echo[at] + echo[at + 1]
        sub = 0.0 if abs(bend) < 1e-9 else float(np.clip(0.5 * (echo[at - 1] - echo[at + 1]) / bend, -0.5, 0.5))
        beat = (at + sub) / times
    return beat
