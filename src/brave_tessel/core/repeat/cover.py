"""Cuts through a flat sheet, and the closed patches that cover the spots where they show most."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Mapping, Sequence

import cv2
import numpy as np

from ..colour import encode_srgb, luminance
from ..errors import OutOfRangeError
from ..maps import MapKind, MapSet
from ..phrases import say
from ..sheet import AnyArray, Grid, Raster
from .bed_joints import Joints, find_joints
from .cut import Cuts, Pin, apply_cuts, close_maps, find_cuts, paths_on_cell, reduced
from .patches import Outline, Patch, apply_patches, best_place, cut_out


def sheet_cuts(
    maps: MapSet,
    *,
    overlap: float,
    colour: float,
    relief: float,
    overlap_up: float = 0.0,
    pins: Sequence[Pin] = (),
    patches: int = 0,
    courses: tuple[float, float] = (0.0, 0.0),
) -> Cuts:
    """The two best cuts through a set of flat maps; ``overlap`` in mm, ``overlap_up`` if it differs.

    ``patches`` of the worst spots along them are then covered from elsewhere. ``courses`` are the heights in mm of
    level rows through which the upright cut, and the widths of upright ones through which the level cut goes from joint
    to joint; 0 where a way is cut freely.
    """
    grid = maps.grid
    lap_x, lap_y = overlap / grid.width_mm, (overlap_up or overlap) / grid.height_mm
    for lap, length in ((lap_x, grid.width_mm), (lap_y, grid.height_mm)):
        if lap > 0.5:
            raise OutOfRangeError(
                "Overlap",
                value=say("{lap:.4g} mm", lap=lap * length),
                allowed=say("up to {length:g} mm, half the sheet", length=length / 2),
                remedy="Choose a smaller overlap, or more periods.",
            )
    pictures, weights = judged(maps, colour=colour, relief=relief)
    cuts = find_cuts(pictures, weights, lap_x, lap_y, pins, _joints(pictures, grid, courses))
    return cover_worst(cuts, pictures, weights, grid, patches) if patches else cuts


def _joints(
    pictures: Mapping[MapKind, Raster], grid: Grid, courses: tuple[float, float]
) -> tuple[Joints | None, Joints | None]:
    colour = pictures.get(MapKind.BASE_COLOUR)
    if colour is None:
        return None, None
    rows, columns = colour.shape[:2]
    level = find_joints(colour, Grid(columns, rows, grid.width_mm, grid.height_mm), courses[0]) if courses[0] else None
    if not courses[1]:
        return level, None
    turned = find_joints(colour.swapaxes(0, 1), Grid(rows, columns, grid.height_mm, grid.width_mm), courses[1])
    return level, turned


def judged(maps: MapSet, *, colour: float, relief: float) -> tuple[dict[MapKind, Raster], dict[MapKind, float]]:
    """The pictures by which cuts and patches are judged, at the size at which they are found, and their weights."""
    pictures: dict[MapKind, Raster] = {}
    if MapKind.BASE_COLOUR in maps:
        light = reduced(maps[MapKind.BASE_COLOUR])
        pictures[MapKind.BASE_COLOUR] = encode_srgb(np.clip(light, 0, 1)).astype(np.float32)
        relief_map = maps.maps.get(MapKind.HEIGHT)
        pictures[MapKind.HEIGHT] = (
            reduced(relief_map) if relief_map is not None else _detail(pictures[MapKind.BASE_COLOUR])
        )
    elif MapKind.HEIGHT in maps:
        pictures[MapKind.HEIGHT] = reduced(maps[MapKind.HEIGHT])
    return pictures, {MapKind.BASE_COLOUR: max(colour, 1e-3), MapKind.HEIGHT: relief}


def cover_worst(
    cuts: Cuts, pictures: Mapping[MapKind, Raster], weights: Mapping[MapKind, float], grid: Grid, count: int
) -> Cuts:
    """The cuts with patches over the spots where they show most, as long as each is quieter than what it covers."""
    closed = {kind: apply_cuts(pixels, cuts, feather_px=1.0) for kind, pixels in pictures.items()}
    rows, columns = next(iter(closed.values())).shape[:2]
    cell = Grid(columns, rows, grid.width_mm * (1 - cuts.overlap_x), grid.height_mm * (1 - cuts.overlap_y))
    lap = min(cuts.overlap_x * grid.width_mm, cuts.overlap_y * grid.height_mm)
    half = min(max(0.55 * lap, 6 * cell.pitch_mm), 0.2 * min(cell.width_mm, cell.height_mm))
    laid: list[Patch] = []
    for x, y, shows in worst_spots(closed, weights, cuts, cell, count, apart_mm=1.5 * half):
        place = best_place(closed, weights, cell, (x, y), Outline(half, half))
        patch = cut_out(closed, weights, cell, (x, y), place, Outline(half, half))
        if patch.cost < shows:
            laid.append(patch)
    return dataclasses.replace(cuts, patches=tuple(laid))


def worst_spots(
    closed: Mapping[MapKind, Raster],
    weights: Mapping[MapKind, float],
    cuts: Cuts,
    cell: Grid,
    count: int,
    *,
    apart_mm: float,
) -> list[tuple[float, float, float]]:
    """Where the closed sheet's cuts show most: x and y in mm from left and top, and by how much."""
    path_x, path_y = paths_on_cell(cuts, cell.height_px, cell.width_px)
    found = []
    for axis, path in ((1, path_x), (0, path_y)):
        length = cell.shape[axis]
        at = np.clip(np.round(path * length).astype(int), 1, length - 1)
        index = np.arange(len(at))
        shows = np.zeros(len(at))
        for kind, pixels in closed.items():
            before, after, rough = _across_path(pixels, axis, at, index)
            shows += weights.get(kind, 0.0) * ((before - after) ** 2 / (rough + 1e-9)).sum(1)
        broad = cv2.blur(shows[:, None], (1, max(3, len(at) // 24)), borderType=cv2.BORDER_REFLECT)[:, 0]
        for i in np.argsort(broad)[::-1][: 64 * count]:
            x, y = (path[i] * cell.width_mm, (i + 0.5) / len(at) * cell.height_mm)
            if axis == 0:
                x, y = (i + 0.5) / len(at) * cell.width_mm, path[i] * cell.height_mm
            found.append((float(x), float(y), float(broad[i])))
    kept: list[tuple[float, float, float]] = []
    for x, y, shows_here in sorted(found, key=lambda spot: -spot[2]):
        if len(kept) < count and all(
            math.hypot(_wrapped(x - a, cell.width_mm), _wrapped(y - b, cell.height_mm)) > apart_mm for a, b, _ in kept
        ):
            kept.append((x, y, shows_here))
    return kept


def _across_path(pixels: Raster, axis: int, at: AnyArray, index: AnyArray) -> tuple[AnyArray, AnyArray, AnyArray]:
    """Pixels just before and after a path, and how rough the sheet is beside it; (n, C)."""
    lines = pixels if axis == 1 else pixels.swapaxes(0, 1)
    lines = lines.reshape(*lines.shape[:2], -1)
    width = lines.shape[1]
    before, after = lines[index, at - 1], lines[index, at]
    further, beyond = lines[index, (at - 4) % width], lines[index, (at + 3) % width]
    own = np.abs(before - further) / 3 + np.abs(after - beyond) / 3
    return before, after, own**2 + 0.5 * float((own**2).mean())


def _wrapped(distance: float, length: float) -> float:
    return (distance + length / 2) % length - length / 2


def _detail(encoded: Raster) -> Raster:
    """Stand-in for relief where a sheet has none: its brightness."""
    return luminance(encoded)


def apply_cut(flat: MapSet, cuts: Cuts, *, soften: float, match_tone: float) -> MapSet:
    """Close a flat sheet along its cuts, patches laid over their worst spots; ``soften`` in mm."""
    closed = close_maps(flat, cuts, feather_mm=soften, match_tone=match_tone)
    return apply_patches(closed, cuts.patches, feather_mm=soften)
