"""Do lines that reach a join go on beyond it?

Joints, cracks and veins may be so thin that a patch with the end of one looks much like its neighbours; the eye finds
the row of ends at once. So at each place along a join the line that arrives there is looked for, and whether one leaves
it: in any way but back, since where stones meet lines turn and fork. How often lines end by themselves is learnt from
the same path laid elsewhere on the sheet.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt

from ..kernels.compiled import compiled
from ..sheet import Raster

_REACH, _START, _WAYS = 14, 2, 32
"""A line is looked for along so many pixels, from so many off the join, in so many ways."""
_ASIDE, _CROSSING, _APART = 4, 0.3, 50
"""Pixels along the join within which a line goes on; the least it crosses by (cosine); degrees between the way it comes
and a way it goes on.
"""
_COPIES, _NEAR = 12, 2
"""Places at which the path is laid, the join first; so many either side of it are too near."""
_SQUARE = 0.9
"""Cosine of how far a line may lean and still meet the join squarely, as those of courses do."""
_STRONG, _BOLD, _GONE = 2.0, 3.0, 0.35
"""A line that is so many times what grain makes, and so much of it is left beyond, has ended; the end of a bold one is
seen by itself.
"""
_SMOOTHED = 1.2


Floats = npt.NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class LineEnds:
    """``kept`` how much of the lines that reach the join goes on beyond it, ``inside`` how much does elsewhere,
    ``chance`` how much would if the sides had nothing to do with each other; ``sure`` by how many of their own
    deviations the join stands below the places inside; ``ends`` plain ends at the join, ``usual`` at a place inside;
    ``rare`` minus the logarithm (to 10) of how likely so many are, ``bold`` the same of the boldest lines alone;
    ``worst`` where along the join most end, as a share; ``aslant`` how many of all lines meet it so.
    """

    kept: float
    inside: float
    chance: float
    sure: float
    ends: int
    usual: float
    rare: float
    bold: float
    worst: float
    aslant: float

    @property
    def left(self) -> float:
        """How much better than by chance lines go on at the join: 1 is as inside."""
        return (self.kept - self.chance) / max(self.inside - self.chance, 0.02)

    @property
    def meets(self) -> bool:
        """A net of lines that run every way, as many of which go on as inside: whatever else it seems to beat by."""
        sure = not self.doubtful and self.bold < 0.5 and self.left >= 0.95
        return sure and self.aslant >= 0.5 and self.inside - self.chance >= 0.2

    @property
    def plain(self) -> bool:
        """So many end that nothing else can excuse it."""
        return self.sure > 8.0 and self.left < 0.5

    @property
    def broken(self) -> bool:
        """Plainly more ends than anywhere inside."""
        return self.plain or self.rare > 3.0 or (self.sure > 3.5 and self.left < 0.65 and self.rare > 1.3)

    @property
    def doubtful(self) -> bool:
        """More of them than usual."""
        return self.rare > 2.0 or self.bold > 2.0 or (self.sure > 2.5 and self.left < 0.85)


def read_line_ends(closed: Raster, *, axis: int, join: npt.NDArray[np.floating] | None = None) -> LineEnds:
    """The join of a closed sheet (H, W) across x (``axis`` 1) or y (0); ``join`` as
    :func:`.coherence.read_coherence` has it.
    """
    lines = np.ascontiguousarray(closed if axis == 1 else closed.T, np.float32)
    rows, columns = lines.shape
    at = np.zeros(rows) if join is None else np.interp(
        (np.arange(rows) + 0.5) / rows * len(join) - 0.5, np.arange(len(join)), join
    ) * columns  # fmt: skip
    bends = _bends(lines)
    places = [_Place(*_strengths(bends, at + k * columns / _COPIES)) for k in range(_COPIES)]
    far = places[_NEAR : _COPIES - _NEAR + 1]
    grain = float(np.quantile([place.arriving for place in far], 0.7)) + 1e-9
    kept, mass = np.transpose([place.kept(place, grain) for place in places])
    of_far = slice(_NEAR, _COPIES - _NEAR + 1)
    shares = kept / np.maximum(mass, 1e-9)
    inside = float(kept[of_far].sum() / max(float(mass[of_far].sum()), 1e-9))
    strange = np.sum([place.kept(places[(k + 4) % _COPIES], grain) for k, place in enumerate(places)], 0)
    few = math.sqrt(min(1.0, float(mass[0]) / max(float(mass[of_far].mean()), 1e-9)))
    ends, usual = places[0].ends(grain, _STRONG)[0], float(np.mean([place.ends(grain, _STRONG)[0] for place in far]))
    bold = [place.ends(grain, _BOLD) for place in (places[0], *far)]
    return LineEnds(
        float(shares[0]),
        inside,
        float(strange[0] / max(float(strange[1]), 1e-9)),
        (inside - float(shares[0])) / max(float(shares[of_far].std()), 0.02) * few,
        ends,
        usual,
        _rareness(ends, usual),
        _rareness_of_bold(bold[0], bold[1:]),
        places[0].worst(grain),
        float(np.divide(*np.sum([place.aslant(grain) for place in far], 0))) if mass[of_far].sum() > 0 else 0.0,
    )


def _bends(lines: Raster) -> Raster:
    """First and second derivatives of a sheet that wraps, (H, W, 5): x, y, xx, yy, xy."""
    pad = 8
    padded = cv2.copyMakeBorder(lines, pad, pad, pad, pad, cv2.BORDER_WRAP)
    smooth = cv2.GaussianBlur(padded, (0, 0), _SMOOTHED)
    orders = (((1, 0), 8), ((0, 1), 8), ((2, 0), 4), ((0, 2), 4), ((1, 1), 4))
    planes = [cv2.Sobel(smooth, cv2.CV_32F, *order, ksize=3) / scale for order, scale in orders]
    return np.ascontiguousarray(np.stack(planes, -1)[pad:-pad, pad:-pad], np.float32)


@compiled
def _half_lines(bends: Raster, across: Floats, down: Floats, ways: int, reach: int, start: int) -> Raster:
    """How strong a line, ridge or edge, is that leaves each place (x, y) each way, (N, ways)."""
    height, width = bends.shape[:2]
    made = np.zeros((across.size, ways), np.float32)
    for i in range(across.size):
        for k in range(ways):
            c, s = math.cos(2 * math.pi * (k + 0.5) / ways), math.sin(2 * math.pi * (k + 0.5) / ways)
            ridge, edge = 0.0, 0.0
            for t in range(start, start + reach):
                x, y = round(across[i] + t * c) % width, round(down[i] + t * s) % height
                ridge += bends[y, x, 2] * s * s + bends[y, x, 3] * c * c - 2 * bends[y, x, 4] * c * s
                edge += bends[y, x, 1] * c - bends[y, x, 0] * s
            made[i, k] = max(abs(ridge), abs(edge)) / reach
    return made


def _leaving(bends: Raster, across: Floats, down: Floats) -> Raster:
    """The same of places wherever they lie."""
    return np.asarray(_half_lines(bends, across, down, _WAYS, _REACH, _START), np.float32)


_TURNS: Floats = 2 * np.pi * (np.arange(_WAYS) + 0.5) / _WAYS
_OTHER = np.abs((_TURNS[None] - _TURNS[:, None] + np.pi) % (2 * np.pi) - np.pi) >= np.radians(_APART)
"""Which ways are other than each: not back along it."""


def _strengths(bends: Raster, at: Floats) -> tuple[Raster, Raster, Raster]:
    """The strongest line that arrives at each place of a path from the left and from the right, the strongest that
    leaves it another way, and how straight the first comes (cosine); (2, N) each.
    """
    half = _leaving(bends, np.ascontiguousarray(at, np.float64), np.arange(at.size, dtype=np.float64))
    about = cv2.dilate(half, np.ones((2 * _ASIDE + 1, 1), np.uint8), borderType=cv2.BORDER_REPLICATE)
    found = []
    for side in (-1, 1):
        reaching = np.where(np.cos(_TURNS) * side >= _CROSSING, half, -1.0)
        way = reaching.argmax(1)
        leaving = np.where(_OTHER[way], about, 0.0).max(1)
        found.append((reaching.max(1), leaving, np.abs(np.cos(_TURNS))[way]))
    arriving, leaving, straight = (np.asarray(part, np.float32) for part in zip(*found, strict=True))
    return arriving, leaving, straight


class _Place:
    """Lines at one place of the path."""

    def __init__(self, arriving: Raster, leaving: Raster, straight: Raster | None = None) -> None:
        self.arriving, self.leaving, self.straight = arriving, leaving, straight

    def aslant(self, grain: float) -> tuple[float, float]:
        """How much of what arrives here above the grain comes aslant, and how much arrives."""
        arriving = np.maximum(self.arriving - grain, 0)
        assert self.straight is not None
        return float(arriving[self.straight < _SQUARE].sum()), float(arriving.sum())

    def kept(self, other: _Place, grain: float) -> tuple[float, float]:
        """How much of what arrives here above the grain leaves at another place, and how much arrives."""
        arriving, leaving = (np.maximum(one - grain, 0) for one in (self.arriving, other.leaving))
        return float(np.minimum(arriving, leaving).sum()), float(arriving.sum())

    def ends(self, grain: float, strong: float) -> tuple[int, int]:
        """How many lines so strong end here, and how many arrive."""
        window = np.ones((1, 2 * _ASIDE + 3), np.uint8)
        peaks = self.arriving >= cv2.dilate(self.arriving, window, borderType=cv2.BORDER_REPLICATE)
        peaks &= self.arriving > strong * grain
        gone = np.maximum(self.leaving - grain, 0) < _GONE * (self.arriving - grain)
        return int((peaks & gone).sum()), int(peaks.sum())

    def worst(self, grain: float) -> float:
        """Where most of what arrives goes no further, as a share of the path."""
        arriving, leaving = (np.maximum(one - grain, 0) for one in (self.arriving, self.leaving))
        lost = np.maximum(arriving - leaving, 0).sum(0)[:, None].astype(np.float32)
        along = cv2.blur(lost, (1, max(3, len(lost) // 24)), borderType=cv2.BORDER_REFLECT)
        return float((int(along.argmax()) + 0.5) / len(lost))


def _rareness(ends: int, usual: float) -> float:
    """Minus the logarithm (to 10) of how likely at least so many ends are where ``usual`` are: a Poisson tail. What is
    usual is learnt from few places, so a little is added to it.
    """
    mean = usual + 0.4
    below = sum(math.exp(-mean) * mean**k / math.factorial(k) for k in range(ends))
    return -math.log10(max(1 - below, 1e-9))


def _rareness_of_bold(at_join: tuple[int, int], inside: Sequence[tuple[int, int]]) -> float:
    """The same of so many ends among so many lines, by how often one ends inside: a binomial tail."""
    ends, lines = at_join
    often = (sum(one for one, _ in inside) + 0.5) / (sum(one for _, one in inside) + 1)
    tail = sum(math.comb(lines, k) * often**k * (1 - often) ** (lines - k) for k in range(ends, lines + 1))
    return -math.log10(min(max(tail, 1e-9), 1.0))


@dataclass(frozen=True, slots=True)
class SeamEnds:
    """``loose`` share of the strong lines along all seams of a sheet that end there, ``usual`` that far from any;
    ``strong`` share of places along the seams that have such lines. ``kept`` how much of all lines goes on at the
    seams, ``inside`` far from them, ``chance`` of lines that have nothing to do with each other.
    """

    loose: float
    usual: float
    strong: float
    kept: float
    inside: float
    chance: float

    @property
    def broken(self) -> bool:
        """Plainly more loose ends than elsewhere."""
        return self.strong >= _ENOUGH and self.loose >= max(0.3, 4 * self.usual)

    @property
    def doubtful(self) -> bool:
        """More of them than elsewhere; of bold lines, which hide how fine the grain is, by how much of them goes on."""
        net = self.inside >= _NET and self.left < 0.88
        return net or (self.strong >= _ENOUGH and self.loose >= max(0.15, 2 * self.usual))

    @property
    def left(self) -> float:
        """How much better than by chance lines go on at the seams: 1 is as inside."""
        return (self.kept - self.chance) / max(self.inside - self.chance, 0.02)


_ASKED, _FAR_PX, _ENOUGH, _NET = 1500, 8, 0.02, 0.8
"""Places that are asked, how far from a seam others lie, how many of them have to have lines, and how much of lines
goes on where they make a net.
"""


def read_seam_ends(closed: Raster, seams: npt.NDArray[np.bool_]) -> SeamEnds | None:
    """The loose ends of lines along the seams (H, W) within a closed sheet (H, W), such as between patches; None where
    there is too little of either.
    """
    far = cv2.dilate(seams.astype(np.uint8), np.ones((2 * _FAR_PX + 1,) * 2, np.uint8)) == 0
    bends, rng = _bends(np.ascontiguousarray(closed, np.float32)), np.random.default_rng(3)
    found = []
    for where in (seams, far):
        down, across = (one.astype(np.float64) for one in np.nonzero(where))
        if len(down) < _ASKED // 10:
            return None
        asked = rng.permutation(len(down))[:_ASKED]
        found.append(_Place(*_around(bends, across[asked], down[asked])))
    at_seams, inside = found
    grain, low = (float(np.quantile(inside.arriving, share)) + 1e-9 for share in (0.7, 0.5))
    (loose, strong), (usual, _) = (_loose(one, grain) for one in found)
    mixed = _Place(inside.arriving, rng.permutation(inside.leaving))
    kept = [part / max(mass, 1e-9) for part, mass in (one.kept(one, low) for one in (at_seams, inside, mixed))]
    return SeamEnds(loose, usual, strong, *kept)


def _around(bends: Raster, across: Floats, down: Floats) -> tuple[Raster, Raster]:
    """The strongest line that arrives at each place, and the strongest that leaves its surroundings another way."""
    half = _leaving(bends, across, down)
    about = half.copy()
    for x in (-3.0, 0.0, 3.0):
        for y in (-3.0, 0.0, 3.0):
            if x or y:
                np.maximum(about, _leaving(bends, across + x, down + y), out=about)
    leaving = np.where(_OTHER[half.argmax(1)], about, 0.0).max(1)
    return np.asarray(half.max(1), np.float32), np.asarray(leaving, np.float32)


def _loose(place: _Place, grain: float) -> tuple[float, float]:
    """Which share of the strong lines go no further, and how many places have one."""
    strong = place.arriving > _STRONG * grain
    ended = strong & (np.maximum(place.leaving - grain, 0) < _GONE * (place.arriving - grain))
    return float(ended.sum() / max(int(strong.sum()), 1)), float(strong.mean())
