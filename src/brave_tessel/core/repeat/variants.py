"""Variants: sheets that share their edges and differ inside, laid at random so that the eye finds no beat."""

from __future__ import annotations

from typing import Annotated

import cv2
import numpy as np
import numpy.typing as npt

from ..colour import encode_srgb, luminance
from ..lattice import units_many
from ..maps import MapKind, MapSet
from ..operation import Length, Seed, Whole, operation
from ..sheet import Grid, Raster
from .patches import Outline, Patch, apply_patches, best_place, cut_out

FIND_PX = 512
_INNER = 0.62
"""What lies within this share of a cell is always replaced in a variant."""


def judged_small(maps: MapSet) -> tuple[dict[MapKind, Raster], dict[MapKind, float], Grid]:
    """The sheet's tone and relief at the size at which patches are found."""
    grid = maps.grid
    scale = min(1.0, FIND_PX / max(grid.shape))
    size = (max(16, round(grid.width_px * scale)), max(16, round(grid.height_px * scale)))
    pictures, weights = {}, {MapKind.BASE_COLOUR: 0.6, MapKind.HEIGHT: 0.4}
    if MapKind.BASE_COLOUR in maps:
        small = cv2.resize(maps[MapKind.BASE_COLOUR], size, interpolation=cv2.INTER_AREA)
        pictures[MapKind.BASE_COLOUR] = encode_srgb(np.clip(small, 0, 1)).astype(np.float32)
    if MapKind.HEIGHT in maps:
        pictures[MapKind.HEIGHT] = np.asarray(
            cv2.resize(maps[MapKind.HEIGHT], size, interpolation=cv2.INTER_AREA), np.float32
        )
    elif MapKind.BASE_COLOUR in maps:
        pictures[MapKind.HEIGHT] = luminance(pictures[MapKind.BASE_COLOUR])
    return pictures, weights, Grid(size[0], size[1], grid.width_mm, grid.height_mm)


def variant_patches(maps: MapSet, count: int, seed: int) -> list[Patch]:
    """For every variant but the first, the patch that replaces its inside."""
    pictures, weights, grid = judged_small(maps)
    middle = grid.width_mm / 2, grid.height_mm / 2
    outline = Outline(0.47 * grid.width_mm, 0.47 * grid.height_mm, _INNER, 8.0)
    draws = units_many(np.arange(count), np.zeros(count, np.int64), seed)
    made = []
    for number in range(1, count):
        place = best_place(pictures, weights, grid, middle, outline, apart=0.45, draw=max(1e-6, float(draws[number])))
        made.append(cut_out(pictures, weights, grid, middle, place, outline))
    return made


def make_variants(maps: MapSet, *, count: int, soften: float, seed: int) -> list[MapSet]:
    """``count`` sheets that meet each other at every edge, all maps together; the first is the sheet itself."""
    return [maps, *(apply_patches(maps, [patch], feather_mm=soften) for patch in variant_patches(maps, count, seed))]


def laid_at_random(across: int, up: int, count: int, seed: int) -> npt.NDArray[np.int64]:
    """Which variant lies in each cell, (up, across): each as often as the others, neighbours differ where they can."""
    draws = units_many(np.arange(across * up), np.ones(across * up, np.int64), seed)
    order = np.argsort(draws)
    number = np.empty(across * up, np.int64)
    number[order] = np.arange(across * up) % count
    cells = number.reshape(up, across)
    for _ in range(4):
        for r in range(up):
            for c in range(across):
                clash = {
                    int(cells[r - 1, c]),
                    int(cells[r, c - 1]),
                    int(cells[(r + 1) % up, c]),
                    int(cells[r, (c + 1) % across]),
                }
                if int(cells[r, c]) in clash:
                    free = [k for k in range(count) if k not in clash]
                    cells[r, c] = free[int(draws[r * across + c] * len(free))] if free else cells[r, c]
    return cells


@operation("breakup.variants", label="Variants", version=2, rehashed=True)
def variants(
    grid: Grid,
    maps: MapSet,
    *,
    across: Annotated[int, Whole(1, 8, most=32, unit="×", help="How many cells wide the new repeat is.")] = 1,
    up: Annotated[int, Whole(1, 8, most=32, unit="×", help="How many cells high the new repeat is.")] = 1,
    count: Annotated[int, Whole(2, 8, most=16, unit="×", help="How many sheets that share their edges.")] = 4,
    soften: Annotated[
        float, Length(0, 20, least=0, most=200, help="Width over which the replaced inside is mixed in.")
    ] = 1.5,
    seed: Annotated[int, Seed()] = 1,
) -> MapSet:
    """Sheets with the same edges and another inside, laid at random; any of them meets any other.

    For patterns whose edges must stay as they are, and to hand over as a set.
    """
    if across == 1 and up == 1:
        return maps
    made = make_variants(maps, count=count, soften=soften, seed=seed)
    cells = laid_at_random(across, up, count, seed)
    wide = Grid(grid.width_px * across, grid.height_px * up, grid.width_mm * across, grid.height_mm * up)
    done = {}
    for kind in maps.maps:
        rows = [np.concatenate([made[int(k)][kind] for k in row], axis=1) for row in cells]
        done[kind] = np.ascontiguousarray(np.concatenate(rows, axis=0))
    return MapSet(wide, done)
