"""Choose the repeat: which rectangle of a straight sheet closes best."""

from __future__ import annotations

import math
from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt

from ..colour import encode_srgb
from ..errors import OutOfRangeError
from ..job.document import Crop
from ..maps import MapKind, MapSet
from ..phrases import say
from ..sheet import Grid, Raster

SEARCH_PX = 224
_STEP = 2


@dataclass(frozen=True, slots=True)
class Proposal:
    """A crop and how well its sides agree: 1 is as any two strips of the sheet do, 0 is alike."""

    crop: Crop
    cost: float


def check_crop(crop: Crop, width_mm: float, height_mm: float) -> None:
    """Refuse a crop that does not lie on the sheet or is too small to close."""
    inside = (
        crop.x_mm >= -1e-6
        and crop.y_mm >= -1e-6
        and crop.x_mm + crop.width_mm <= width_mm + 1e-6
        and crop.y_mm + crop.height_mm <= height_mm + 1e-6
    )
    if not inside or min(crop.width_mm, crop.height_mm) < 0.02 * min(width_mm, height_mm):
        raise OutOfRangeError(
            "Repeat",
            value=say("{width_mm:.4g} × {height_mm:.4g} mm", width_mm=crop.width_mm, height_mm=crop.height_mm),
            allowed=say(
                "a rectangle on the sheet of {width_mm:g} × {height_mm:g} mm", width_mm=width_mm, height_mm=height_mm
            ),
            remedy="Drag its sides back onto the sheet.",
        )


def _cumulated(strips: Raster) -> npt.NDArray[np.float64]:
    """Sums of squared differences of every two lines of a picture (n, …): (n, n)."""
    flat = strips.reshape(strips.shape[0], -1).astype(np.float64)
    squares = (flat * flat).sum(1)
    return np.asarray(np.maximum(squares[:, None] + squares[None, :] - 2 * flat @ flat.T, 0))


def _lapped(differences: npt.NDArray[np.float64], lap: int) -> npt.NDArray[np.float64]:
    """Mean of the differences of ``lap`` lines in a row against ``lap`` others: (n − lap, n − lap)."""
    size = differences.shape[0] - lap
    total = np.zeros((size, size))
    for k in range(lap):
        total += differences[k : k + size, k : k + size]
    return total / lap


def propose(maps: MapSet, *, overlap_mm: float, least: float = 0.45, count: int = 6) -> list[Proposal]:
    """The crops that close best under a cut with that overlap, best first.

    Each side's strip is held against the opposite one for every pair of places at once: first across the
    whole sheet, then up within the crop, then across again within it. Larger crops win a tie, since
    they repeat less often. ``least`` is the smallest side as a share of the sheet's.
    """
    grid = maps.grid
    scale = min(1.0, SEARCH_PX / max(grid.shape))
    size = (max(24, round(grid.width_px * scale)), max(24, round(grid.height_px * scale)))
    light = cv2.resize(maps[MapKind.BASE_COLOUR], size, interpolation=cv2.INTER_AREA)
    tone = encode_srgb(np.clip(light, 0, 1)).astype(np.float32)
    small = Grid(size[0], size[1], grid.width_mm, grid.height_mm)
    lap_x, lap_y = (max(2, round(overlap_mm / pitch)) for pitch in small.mm_per_px)
    found: list[tuple[float, int, int, int, int]] = []
    for x0, x1, _ in _pairs(tone.swapaxes(0, 1), lap_x, least, 8):
        for y0, y1, up in _pairs(tone[:, x0 : x1 + lap_x], lap_y, least, 4):
            inside = tone[y0 : y1 + lap_y].swapaxes(0, 1)
            across = _relative(inside, x0, x1, lap_x)
            found.append((across + up, x0, x1 + lap_x, y0, y1 + lap_y))
    proposals: list[Proposal] = []
    for cost, x0, x1, y0, y1 in sorted(found):
        crop = _crop(small, x0, x1, y0, y1)
        if len(proposals) < count and all(_differs(crop, other.crop, grid) for other in proposals):
            proposals.append(Proposal(crop, cost / 2))
    return proposals


def _pairs(lines: Raster, lap: int, least: float, count: int) -> list[tuple[int, int, float]]:
    """Pairs of lines (n, …) between which the sheet closes best, apart from each other, with their relative cost."""
    total = lines.shape[0]
    lapped = _lapped(_cumulated(lines), lap)
    usual = float(lapped[np.triu_indices(lapped.shape[0], lap)].mean()) + 1e-9
    low = max(lap + 1, math.floor(least * total))
    first, second = np.meshgrid(np.arange(lapped.shape[0]), np.arange(lapped.shape[0]), indexing="ij")
    length = second - first
    cost = lapped / usual + 0.25 * (1 - length / total)
    cost = np.where(length >= low, cost, np.inf)[::_STEP, ::_STEP]
    picked: list[tuple[int, int, float]] = []
    for at in np.argsort(cost, axis=None):
        i, j = (int(k) * _STEP for k in np.unravel_index(at, cost.shape))
        if len(picked) >= count or not np.isfinite(cost.ravel()[at]):
            break
        if all(abs(i - a) + abs(j - b) > 0.06 * total for a, b, _ in picked):
            picked.append((i, j, float(lapped[i, j] / usual)))
    return picked


def _relative(lines: Raster, first: int, second: int, lap: int) -> float:
    """Cost of one pair of places, relative to any two strips."""
    step = float(((lines[first : first + lap] - lines[second : second + lap]) ** 2).sum(-1).mean())
    shifts = [
        ((lines[:-s] - lines[s:]) ** 2).sum(-1).mean()
        for s in range(lap, lines.shape[0] - 1, max(1, lines.shape[0] // 12))
    ]
    return step / (float(np.mean(shifts)) + 1e-9)


def _crop(small: Grid, x0: int, x1: int, y0: int, y1: int) -> Crop:
    across, down = small.mm_per_px
    return Crop(
        x_mm=round(x0 * across, 2),
        y_mm=round(max(0.0, small.height_mm - y1 * down), 2),
        width_mm=round(min((x1 - x0) * across, small.width_mm - x0 * across), 2),
        height_mm=round((y1 - y0) * down, 2),
    )


def _differs(crop: Crop, other: Crop, grid: Grid) -> bool:
    away = abs(crop.x_mm - other.x_mm) + abs(crop.width_mm - other.width_mm)
    away_up = abs(crop.y_mm - other.y_mm) + abs(crop.height_mm - other.height_mm)
    return away > 0.05 * grid.width_mm or away_up > 0.05 * grid.height_mm


def cropped(maps: MapSet, crop: Crop) -> MapSet:
    """The part of a flat set that a crop names, to the nearest pixel."""
    grid = maps.grid
    across, down = grid.mm_per_px
    left, width = round(crop.x_mm / across), max(4, round(crop.width_mm / across))
    top = round((grid.height_mm - crop.y_mm - crop.height_mm) / down)
    height = max(4, round(crop.height_mm / down))
    left, top = max(0, min(left, grid.width_px - width)), max(0, min(top, grid.height_px - height))
    width, height = min(width, grid.width_px), min(height, grid.height_px)
    part = Grid(width, height, crop.width_mm, crop.height_mm)
    return MapSet(
        part, {k: np.ascontiguousarray(p[top : top + height, left : left + width]) for k, p in maps.maps.items()}
    )
