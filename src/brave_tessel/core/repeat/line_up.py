"""Overlaps under which a best cut meets a regular pattern in step.

What is left of a sheet once its overlap is gone has to be a whole number of beats. Of the lengths that are, the one is
taken whose sides differ least along their best cut, near the overlap that was asked for.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

import cv2
import numpy as np

from ..errors import DoesNotCloseError
from ..maps import MapKind, MapSet
from ..sheet import Raster
from .cover import judged
from .cut import path_cost
from .in_step import Echoes
from .judge import tone_of

_SEARCH_PX = 512
_LEAST, _MOST = 0.025, 0.45
"""Shares of the sheet between which an overlap may lie: room for a cut, and more than half of the sheet left."""
_AWAY = 0.35
"""What twice (half) the overlap that was asked for costs, against how much the sides differ."""


@dataclass(frozen=True, slots=True)
class LinedUp:
    """Overlaps in mm along x and y, and whether each was found by a beat; else it is as it was asked for."""

    overlap: tuple[float, float]
    by_beat: tuple[bool, bool]


def line_up(flat: MapSet, *, overlap: tuple[float, float], colour: float, relief: float) -> LinedUp:
    """Overlaps near those asked for (mm along x and y) under which a flat sheet's pattern meets itself in step.

    Raises
    ------
    DoesNotCloseError
        when it has no beat, either way, of which the sheet holds a whole one.
    """
    grid = flat.grid
    echoes = Echoes(tone_of(flat.or_default(MapKind.BASE_COLOUR)), grid)
    pictures, weights = judged(flat, colour=colour, relief=relief)
    pictures = {kind: _shrunk(pixels) for kind, pixels in pictures.items()}
    found: list[float | None] = []
    for axis, length, asked in ((1, grid.width_mm, overlap[0]), (0, grid.height_mm, overlap[1])):
        lengths = echoes.in_step(axis, (1 - _LEAST) * length, least=(1 - _MOST) * length)
        overlaps = [length - closed for closed in lengths]
        found.append(_best(pictures, weights, axis, length, overlaps, asked) if overlaps else None)
    if found == [None, None]:
        raise DoesNotCloseError(
            "Overlap",
            value="this picture",
            allowed="a pattern that comes again along its rows or up the wall",
            remedy="A picture without a beat needs no lining up; if its rows lean, use whole courses.",
        )
    across, up = (asked if one is None else round(one, 3) for one, asked in zip(found, overlap, strict=True))
    return LinedUp((across, up), (found[0] is not None, found[1] is not None))


def _best(
    pictures: Mapping[MapKind, Raster],
    weights: Mapping[MapKind, float],
    axis: int,
    length: float,
    overlaps: list[float],
    asked: float,
) -> float:
    costs = [path_cost(pictures, weights, overlap / length, axis=axis) for overlap in overlaps]
    usual = float(np.median(costs)) + 1e-9
    away = [1 + _AWAY * abs(math.log2(overlap / asked)) for overlap in overlaps]
    return overlaps[int(np.argmin([(cost / usual + 0.2) * far for cost, far in zip(costs, away, strict=True)]))]


def _shrunk(pixels: Raster) -> Raster:
    scale = min(1.0, _SEARCH_PX / max(pixels.shape[:2]))
    if scale == 1:
        return pixels
    return np.asarray(cv2.resize(pixels, None, fx=scale, fy=scale, interpolation=cv2.INTER_AREA), np.float32)
