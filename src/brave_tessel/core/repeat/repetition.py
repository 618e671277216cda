"""The meter of how loudly a field comes again: by what is broad, and by what is odd.

Seen from afar the eye finds broad patches again, and the few things that lie nowhere else: a spot, a stain, a line. A
texture of many like things has neither, and a pattern is not blamed for its own beat.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

import cv2
import numpy as np

from ..colour import lab_of
from ..sheet import AnyArray, Raster
from .meters import correlation

REPETITION_LIMIT = 0.3


@dataclass(frozen=True, slots=True)
class RepetitionReading:
    """``score`` in [0, 1); where the loudest feature lies, as fractions from the left and the top; and after how many
    cells across and up it comes again the loudest.
    """

    score: float
    spread: float
    feature: tuple[float, float]
    paler: bool
    again: tuple[float, float] = (1.0, 0.0)


_VISIBLE, _MASKED = 2.0, 0.3
"""Spread of colour (CIELAB) at which repeated broad features score one half on a smooth ground, and how much of the
spread of what is finer masks them.
"""
_CELL_PX, _FINE_PX, _MOST_PX = 48, 96, 512
"""Pixels of a cell's shorter side in which broad and odd things are looked for, and of the longer side of a field."""
_SPOTS, _LINES, _ALONG = (0.8, 1.6, 3.2), (0.8, 1.6), 16.0
"""Sizes (standard deviations, pixels of the fine field) of spots and lines that are looked for, and along how much of
a line.
"""
_SPOT_VISIBLE, _LINE_VISIBLE = 5.3, 2.0
"""How far (CIELAB) the oddest spot or line stands out where it scores one half."""
_FEW, _REGULAR = 0.55, 0.9
"""Echo within a cell of two or three things that lie anyhow, and of those that lie in a pattern."""
_USUAL, _ODD = 7.5, 13.0
"""How many times the usual (the median) something has to stand out before it begins to be odd, and is so wholly."""


def read_repetition(base_colour: Raster, *, cells: tuple[int, int] = (1, 1), tall: float = 1.0) -> RepetitionReading:
    """How loudly a field comes again when seen from afar: the louder of its broad and its odd features.

    The field itself comes again after ``cells`` across and up, of which each is ``tall`` times as high as wide. What
    is found counts by its echo: how much of it comes again after some cells in any direction, the less the further
    away.
    """
    broad = _read_broad(base_colour, cells, tall)
    return max((broad, *_read_odd(base_colour, cells, tall)), key=lambda one: one.score)


def _small_lab(base_colour: Raster, side: tuple[int, int], cells: tuple[int, int]) -> Raster:
    size = side[0] * cells[0], side[1] * cells[1]
    small = cv2.resize(base_colour, size, interpolation=cv2.INTER_AREA)
    return np.asarray(lab_of(np.clip(small, 0, 1)), np.float32)


def _side(shorter: int, tall: float) -> tuple[int, int]:
    """Pixels of a cell across and up."""
    return max(1, round(shorter / min(tall, 1.0))), max(1, round(shorter * max(tall, 1.0)))


def _read_broad(base_colour: Raster, cells: tuple[int, int], tall: float) -> RepetitionReading:
    """By features larger than a twelfth of a cell: their spread against what is seen over what is finer."""
    side = _side(_CELL_PX, tall)
    lab = _small_lab(base_colour, side, cells)
    away = wrapped_blur(lab, 2.0, 2.0)
    fine = float(np.sqrt(((lab - away) ** 2).sum(2).mean()))
    visible = math.hypot(_VISIBLE, _MASKED * fine)
    away = away - away.mean((0, 1))
    strength = np.linalg.norm(away, axis=2)
    spread = float(np.sqrt((strength**2).mean()))
    share, again = _soonest(correlation(away), cells, side)
    return _reading(share * spread**2 / (spread**2 + visible**2), spread, away, strength, again)


def _reading(
    score: float, spread: float, away: Raster, strength: Raster, again: tuple[float, float]
) -> RepetitionReading:
    row, column = divmod(int(strength.argmax()), strength.shape[1])
    place = ((column + 0.5) / strength.shape[1], (row + 0.5) / strength.shape[0])
    return RepetitionReading(score, spread, place, bool(away[row, column, 0] > 0), again)


def _read_odd(base_colour: Raster, cells: tuple[int, int], tall: float) -> Iterator[RepetitionReading]:
    """By spots and lines that lie nowhere else: how far the oddest stands out, of each size."""
    longest = max(one * many for one, many in zip(_side(_CELL_PX, tall), cells, strict=True)) / _CELL_PX
    side = _side(max(_CELL_PX, min(_FINE_PX, round(_MOST_PX / longest))), tall)
    lab = _small_lab(base_colour, side, cells)
    for within, around, visible in _kinds():
        away = wrapped_blur(lab, *within) - wrapped_blur(lab, *around)
        strength = np.linalg.norm(away, axis=2)
        peak, usual = float(strength.max()), float(np.median(strength))
        odd = float(np.clip((peak / max(usual, 1e-6) - _USUAL) / (_ODD - _USUAL), 0, 1))
        seen = peak * odd
        if seen <= 0.2 * visible:
            continue
        # What is half as strong belongs to it: one spot of a few.
        standing = np.maximum(strength - max(0.5 * peak, _USUAL * usual), 0)[..., None]
        echo = correlation(standing)
        beat = _within(echo, side, reach=(4 * around[0], 4 * around[1]))
        own = 1 - float(np.clip((beat - _FEW) / (_REGULAR - _FEW), 0, 1))
        share, again = _soonest(echo, cells, side)
        yield _reading(own * share * seen**2 / (seen**2 + visible**2), seen, away, strength, again)


def _kinds() -> Iterator[tuple[tuple[float, float], tuple[float, float], float]]:
    """What is looked for: how it is gathered across and down, its surroundings, and when it is seen."""
    for size in _SPOTS:
        yield (size, size), (2.5 * size, 2.5 * size), _SPOT_VISIBLE
    for size in _LINES:
        yield (size, _ALONG), (2.5 * size + 1, _ALONG), _LINE_VISIBLE
        yield (_ALONG, size), (_ALONG, 2.5 * size + 1), _LINE_VISIBLE


def wrapped_blur(pixels: Raster, across: float, down: float) -> Raster:
    """A picture (H, W, C) that wraps, blurred."""
    by = [min(side - 1, math.ceil(4 * size) + 1) for side, size in zip(pixels.shape[:2], (down, across), strict=True)]
    padded = cv2.copyMakeBorder(pixels, by[0], by[0], by[1], by[1], cv2.BORDER_WRAP)
    made = cv2.GaussianBlur(padded, (0, 0), sigmaX=across, sigmaY=down)
    return np.asarray(made[by[0] : -by[0], by[1] : -by[1]], np.float32)


def _within(echo: AnyArray, side: tuple[int, int], *, reach: tuple[float, float]) -> float:
    """The loudest echo at shifts within a cell, further than ``reach`` pixels across or down: a pattern comes again
    there, where the halves of a line along itself do not count.
    """
    rows, columns = echo.shape
    down, across = (np.minimum(np.arange(length), length - np.arange(length)) for length in (rows, columns))
    level, upright = across > reach[0], down > reach[1]
    # Half a cell is where a neighbour of the same kind may lie; what is further off is the next cell's.
    near = (down <= 0.5 * side[1] + 1)[:, None] & (across <= 0.5 * side[0] + 1)[None, :]
    chosen = (level[None, :] | upright[:, None]) & near
    return float(np.clip(echo[chosen].max(), 0, 1)) if chosen.any() else 0.0


def _soonest(echo: AnyArray, cells: tuple[int, int], side: tuple[int, int]) -> tuple[float, tuple[float, float]]:
    """The loudest of a field's echo (H, W), weighed by how near it is; after how many cells across and up."""
    best, found = 0.0, (1.0, 0.0)
    # By half cells, for rows that are laid staggered; what lies nearer is the shape of the cell itself.
    for x in range(2 * cells[0] + 1):
        for y in range(-2 * cells[1], 2 * cells[1] + 1):
            distance = math.hypot(x, y) / 2
            if distance < _NEAREST or (x == 0 and y < 0):
                continue
            row, column = round(-y * side[1] / 2) % echo.shape[0], round(x * side[0] / 2) % echo.shape[1]
            loud = float(echo[row, column]) / max(distance, 1.0)
            if loud > best + 1e-9:
                best, found = loud, (x / 2, abs(y) / 2)
    return min(best, 1.0), found


_NEAREST = 0.7
