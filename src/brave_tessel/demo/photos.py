"""The demo job's photos, rendered from our own panels with fixed seeds."""

from __future__ import annotations

from functools import cache

import numpy as np

from ..core import registered  # noqa: F401 - declares every operation
from ..core.colour import hex_to_linear
from ..core.kernels.noise import cells
from ..core.kernels.relief import cast_shadow, normal_of_height, occlusion
from ..core.kernels.shade import shade
from ..core.lattice import units_as_before
from ..core.recipe.steps.noise import clouds
from ..core.recipe.steps.pattern import units
from ..core.recipe.steps.piece import relief
from ..core.sheet import AnyArray, Grid, Raster
from ..formats.images import encode_png
from .camera import View, photograph, seen_corners

MOSAIC_MM = (1200.0, 800.0)
MOSAIC_CORNERS = seen_corners(
    MOSAIC_MM, picture=(2240, 1680), focal_px=2300.0, distance_mm=1720.0, yaw=24.0, pitch=-17.0, roll=4.0
)
SHINGLE_MM = (640.0, 480.0)
SHINGLE_CORNERS = seen_corners(
    SHINGLE_MM, picture=(2048, 1536), focal_px=2200.0, distance_mm=830.0, yaw=3.0, pitch=-5.0, roll=-1.0
)
_SUN = (-0.42, 0.52, 0.744)

_SEA = ("#D9CFB4", "#C8B98F", "#7FA59A", "#3F7F78", "#1F5752", "#123C44", "#B4713F")


def _palette() -> Raster:
    return np.array([hex_to_linear(text) for text in _SEA], np.float32)


def mosaic_panel() -> AnyArray:
    """1200 × 800 mm of tesserae, waves over a cream ground; lit, (1600, 2400, 3) uint8."""
    grid = Grid(2400, 1600, *MOSAIC_MM)
    pieces = units(grid, length=18.4, height=18.4, joint=1.65, bond="stack")
    number = np.arange(pieces.count)
    across = round(grid.width_mm / 20.05)
    column, row = number % across, number // across
    x, y = (column + 0.5) / across * 6, (row + 0.5) / (pieces.count / across) * 4
    swell = y * 2.2 + 0.55 * np.sin(2 * np.pi * x / 3) + 0.2 * np.sin(2 * np.pi * x / 1.5 + 1)
    band = np.floor(swell + 0.35 * (units_as_before(number, np.full_like(number, 5), 31) - 0.5)).astype(int)
    choice = np.array([0, 2, 3, 0, 4, 1, 3, 5, 0])[band % 9]
    stray = units_as_before(number, np.full_like(number, 6), 31)
    choice = np.where(stray > 0.975, 6, np.where(stray > 0.9, 1, choice))
    tint = np.exp2((units_as_before(number, np.full_like(number, 7), 31) - 0.5) * 0.7)
    colours = np.append(_palette()[choice] * tint[:, None], [[0.24, 0.225, 0.2]], 0).astype(np.float32)
    cloud = clouds(grid, size=60, octaves=7, seed=5)
    colour = colours[pieces.number] * (0.88 + 0.24 * cloud[..., None])
    height = relief(grid, pieces, depth=1.2, edge_round=0.9, height_spread=0.35, tilt=0.5, seed=9) + 0.25 * cloud
    glossy = np.where(pieces.number >= 0, np.float32(0.28), np.float32(0.9)).astype(np.float32)
    return _lit(grid, colour, height.astype(np.float32), glossy)


def shingle_panel() -> AnyArray:
    """640 × 480 mm of wet shingle; lit, (1536, 2048, 3) uint8."""
    grid = Grid(2560, 1920, 800, 600)
    height = np.full(grid.shape, -9.0, np.float32)
    colour = np.broadcast_to(np.array([0.045, 0.041, 0.036], np.float32), (*grid.shape, 3)).copy()
    stones = ("#6F6A60", "#8C8474", "#4C4E50", "#A59A84", "#5B4A3E", "#7C5647", "#C8BFAE", "#39424A")
    hues = np.array([hex_to_linear(text) for text in stones], np.float32)
    for size, rise, seed in ((8, 4.5, 71), (17, 9.0, 41), (38, 17.0, 13)):
        nx, ny = round(grid.width_mm / size), round(grid.height_mm / size)
        first, second, number = cells(grid, nx, ny, jitter=0.9, seed=seed)
        index = number.astype(np.int32)
        every = np.arange(nx * ny)
        stand = units_as_before(every, np.full_like(every, 3), seed)
        lives = stand > (0.42 if size > 30 else 0.12)
        inside = np.clip((second - first) * 1.15, 0, 1)
        dome = np.sqrt(np.clip(1 - (1 - inside) ** 2.2, 0, 1)) * (
            0.7 + 0.3 * clouds(grid, size=size, octaves=3, seed=seed)
        )
        top = np.where(lives[index], dome * rise + (stand[index] - 0.75) * rise * 0.8 - 6.5, -99).astype(np.float32)
        tone = hues[(units_as_before(every, np.full_like(every, 4), seed) * len(hues)).astype(int)]
        tone = tone * np.exp2((units_as_before(every, np.full_like(every, 8), seed) - 0.5) * 1.2)[:, None]
        grain = 0.75 + 0.5 * clouds(grid, size=5, octaves=5, gain=0.7, seed=seed + 3)
        wins = top > height
        colour[wins] = (tone[index] * grain[..., None])[wins]
        height = np.maximum(height, top)
    height += 0.5 * clouds(grid, size=4, octaves=4, seed=99)
    wet = np.full(grid.shape, 0.3, np.float32) + 0.2 * clouds(grid, size=90, octaves=4, seed=12)
    return _lit(grid, colour * 0.8, height, wet)[150 : 150 + 1536, 200 : 200 + 2048]


def _lit(grid: Grid, colour: Raster, height: Raster, roughness: Raster) -> AnyArray:
    height = np.ascontiguousarray(height, np.float32)
    return shade(
        np.ascontiguousarray(colour, np.float32),
        normal_of_height(height, grid),
        roughness,
        np.zeros_like(height),
        occlusion(height, grid, reach_mm=18),
        0.35 + 0.65 * cast_shadow(height, grid, _SUN),
        light=_SUN,
        sun=1.35,
        sky=0.75,
    )


@cache
def mosaic_photo() -> bytes:
    """The mosaic panel, taken at an angle under uneven light; PNG bytes."""
    view = View(2240, 1680, MOSAIC_CORNERS, (0.18, 0.2), 0.75, 0.006, 17)
    return encode_png(photograph(mosaic_panel(), view), srgb=True)


@cache
def shingle_photo() -> bytes:
    """The shingle, nearly from above; PNG bytes."""
    view = View(2048, 1536, SHINGLE_CORNERS, (0.65, 0.3), 0.3, 0.005, 23, (0.10, 0.095, 0.085))
    return encode_png(photograph(shingle_panel(), view), srgb=True)
