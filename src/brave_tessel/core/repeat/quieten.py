"""The few features that the eye finds again, and how they are covered from elsewhere in the sheet."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import cv2
import numpy as np

from ..colour import lab_of
from ..job.document import Quiet
from ..maps import MapKind, MapSet
from ..sheet import Grid, Raster
from .patches import Outline, apply_patches, best_place, cut_out
from .repetition import wrapped_blur
from .variants import judged_small

LOOK_PX = 128
_SCALES = (1 / 20, 1 / 11, 1 / 6)
"""Sizes of features that are looked for, as shares of the sheet's shorter side."""
_NOTICED = 2.2
"""A feature stands out where it is so many standard deviations off the sheet's own."""


@dataclass(frozen=True, slots=True)
class Feature:
    """Something that stands out from afar: mm from left and top, its width, and by how much (1 is the mark)."""

    x: float
    y: float
    size: float
    strength: float
    word: str


def find_features(base_colour: Raster, grid: Grid, *, most: int = 8) -> list[Feature]:
    """Peaks of saliency at low frequency, loudest first.

    Centre less surround in CIELAB at a few scales (Itti, Koch and Niebur 1998, without orientation), each
    against the spread it has over the whole sheet.
    """
    small, columns, rows = _small_lab(base_colour, grid)
    shorter = min(grid.width_mm, grid.height_mm)
    found: list[Feature] = []
    for share in _SCALES:
        sigma = share * shorter / (grid.width_mm / columns) / 2
        away = _even_blur(small, sigma) - _even_blur(small, 2.5 * sigma)
        loud = np.sqrt((away * away).sum(2))
        mark = float(np.median(loud)) * _NOTICED + 1e-6
        peaks = (loud == cv2.dilate(_padded(loud, 4), np.ones((5, 5)))[4:-4, 4:-4]) & (loud > mark) & (loud > 1.5)
        for row, column in zip(*np.nonzero(peaks), strict=True):
            found.append(
                Feature(
                    float((column + 0.5) * grid.width_mm / columns),
                    float((row + 0.5) * grid.height_mm / rows),
                    2.4 * share * shorter,
                    float(loud[row, column] / mark),
                    _word(away[row, column]),
                )
            )
    kept: list[Feature] = []
    for feature in sorted(found, key=lambda f: -f.strength):
        if len(kept) < most and all(_apart(feature, other, grid) for other in kept):
            kept.append(feature)
    return kept


def _small_lab(base_colour: Raster, grid: Grid) -> tuple[Raster, int, int]:
    scale = LOOK_PX / max(grid.shape)
    columns, rows = max(16, round(grid.width_px * scale)), max(16, round(grid.height_px * scale))
    small = cv2.resize(base_colour, (columns, rows), interpolation=cv2.INTER_AREA)
    return np.asarray(lab_of(np.clip(small, 0, 1)), np.float32), columns, rows


def _padded(pixels: Raster, by: int) -> Raster:
    return np.asarray(cv2.copyMakeBorder(pixels, by, by, by, by, cv2.BORDER_WRAP), np.float32)


def _even_blur(pixels: Raster, sigma: float) -> Raster:
    return wrapped_blur(pixels, max(sigma, 0.3), max(sigma, 0.3))


def _word(away: Raster) -> str:
    lightness, a, b = (float(v) for v in away)
    if abs(lightness) >= math.hypot(a, b):
        return "pale" if lightness > 0 else "dark"
    return ("red" if a > 0 else "green") if abs(a) > abs(b) else ("yellow" if b > 0 else "blue")


def _apart(first: Feature, second: Feature, grid: Grid) -> bool:
    dx = (first.x - second.x + grid.width_mm / 2) % grid.width_mm - grid.width_mm / 2
    dy = (first.y - second.y + grid.height_mm / 2) % grid.height_mm - grid.height_mm / 2
    return math.hypot(dx, dy) > 0.6 * max(first.size, second.size)


def cover_for(maps: MapSet, feature: Feature) -> tuple[float, float]:
    """From where a feature is best covered, mm from left and top: like it at the rim, and calm inside."""
    pictures, weights, grid = judged_small(maps)
    outline = _outline(feature.size, grid)
    lab, columns, _rows = _small_lab(maps[MapKind.BASE_COLOUR], maps.grid)
    sigma = max(1.0, feature.size / (maps.grid.width_mm / columns) / 4)
    away = _even_blur(lab, sigma) - lab.mean((0, 1))
    loud = np.sqrt((away * away).sum(2))
    avoid = np.asarray(loud / max(float(loud.mean()), 1e-6) * 0.5, np.float32)
    return best_place(pictures, weights, grid, (feature.x, feature.y), outline, avoid=avoid)


def _outline(size: float, grid: Grid) -> Outline:
    half = min(0.75 * size, 0.24 * min(grid.width_mm, grid.height_mm))
    return Outline(half, half, 0.6)


def quieten(
    maps: MapSet, quiets: Sequence[Quiet], *, found_on: MapSet | None = None, feather_mm: float = 1.5
) -> MapSet:
    """The sheet with its listed features covered; the cuts are found on ``found_on``, so that every size has the
    same.
    """
    if not quiets:
        return maps
    pictures, weights, grid = judged_small(found_on or maps)
    patches = [
        cut_out(
            pictures,
            weights,
            grid,
            (quiet.x_mm, grid.height_mm - quiet.y_mm),
            (quiet.from_x_mm, grid.height_mm - quiet.from_y_mm),
            _outline(quiet.size_mm, grid),
        )
        for quiet in quiets
    ]
    return apply_patches(maps, patches, feather_mm=feather_mm)
