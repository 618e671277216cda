"""Directions of the scene (x east, y north, z up), and the maps on which all of them are drawn."""

from __future__ import annotations

import math
from functools import lru_cache

import numpy as np
import numpy.typing as npt

from ..job.light import CEILING, FLOOR
from ..sheet import AnyArray

Light = tuple[float, float, float]
"""A unit vector towards a light."""


def toward(bearing: float, height: float) -> Light:
    """Unit vector of the scene: bearing from north by east, height over the horizon, degrees."""
    b, h = math.radians(bearing), math.radians(height)
    return math.sin(b) * math.cos(h), math.cos(b) * math.cos(h), math.sin(h)


def bearing_of(direction: Light) -> tuple[float, float]:
    """Bearing from north by east, 0 to 360, and height over the horizon of a direction, degrees."""
    x, y, z = direction
    return math.degrees(math.atan2(x, y)) % 360, math.degrees(math.asin(max(-1.0, min(1.0, z))))


@lru_cache
def stance_axes(stance: str) -> npt.NDArray[np.float64]:
    """Rows are the sheet's x, y and z in the scene. A wall looks south, a floor is seen by one who looks west, a
    ceiling by the same person looking up.
    """
    rows = {FLOOR: [[0, 1, 0], [-1, 0, 0], [0, 0, 1]], CEILING: [[0, 1, 0], [1, 0, 0], [0, 0, -1]]}.get(
        stance, [[1, 0, 0], [0, 0, 1], [0, -1, 0]]
    )
    return np.array(rows, np.float64)


def even_directions(count: int) -> npt.NDArray[np.float64]:
    """Unit directions (count, 3) that lie evenly all round: a spiral of equal areas, by the golden angle."""
    z = 1 - (2 * np.arange(count) + 1) / count
    a, flat = np.arange(count) * math.pi * (3 - math.sqrt(5)), np.sqrt(1 - z * z)
    return np.stack([flat * np.cos(a), flat * np.sin(a), z], -1)


def octahedral(directions: AnyArray) -> AnyArray:
    """Places (..., 2) in [0, 1] of unit directions (..., 3) on the octahedral map (Cigolle et al. 2014); z up."""
    flat = directions[..., :2] / np.abs(directions).sum(-1, keepdims=True)
    folded = (1 - np.abs(flat[..., ::-1])) * np.where(flat >= 0, 1, -1)
    return np.asarray(np.where(directions[..., 2:] < 0, folded, flat) * 0.5 + 0.5)


@lru_cache
def octahedral_grid(size: int) -> AnyArray:
    """Unit directions (size, size, 3) at the middles of an octahedral map's pixels; column is x, row is y."""
    line = (np.arange(size) + 0.5) / size * 2 - 1
    x, y = np.meshgrid(line, line)
    z = 1 - np.abs(x) - np.abs(y)
    below = np.maximum(-z, 0)
    out = np.stack([x - np.where(x >= 0, below, -below), y - np.where(y >= 0, below, -below), z], -1)
    out = (out / np.linalg.norm(out, axis=-1, keepdims=True)).astype(np.float32)
    out.flags.writeable = False
    return np.asarray(out)


@lru_cache
def octahedral_weights(size: int) -> AnyArray:
    """Solid angle (size, size) of an octahedral map's pixels, sr; they add up to 4π.

    The projection spreads a direction d by (|x| + |y| + |z|)³.
    """
    spread = np.abs(octahedral_grid(size).astype(np.float64)).sum(-1) ** 3
    out = (spread * (4 * math.pi / spread.sum())).astype(np.float32)
    out.flags.writeable = False
    return np.asarray(out)


def bordered(levels: AnyArray) -> AnyArray:
    """An octahedral map (S, S, C) with one pixel of its neighbours around it, (S + 2, S + 2, C): over an edge it goes
    on mirrored.
    """
    side = levels.shape[0]
    out = np.empty((side + 2, side + 2, *levels.shape[2:]), levels.dtype)
    out[1:-1, 1:-1] = levels
    out[0, 1:-1], out[-1, 1:-1] = levels[0, ::-1], levels[-1, ::-1]
    out[1:-1, 0], out[1:-1, -1] = levels[::-1, 0], levels[::-1, -1]
    out[0, 0], out[0, -1], out[-1, 0], out[-1, -1] = levels[-1, -1], levels[-1, 0], levels[0, -1], levels[0, 0]
    return out


def halved(dome: AnyArray) -> AnyArray:
    """An octahedral map at half its size."""
    return np.asarray(0.25 * (dome[::2, ::2] + dome[1::2, ::2] + dome[::2, 1::2] + dome[1::2, 1::2]), np.float32)


def sample_octahedral(dome: AnyArray, directions: AnyArray) -> AnyArray:
    """Radiance (..., C) of an octahedral map (S, S, C) in unit directions (..., 3), bilinear."""
    side, padded = dome.shape[0], bordered(dome)
    at = octahedral(directions) * side + 0.5
    low = np.clip(np.floor(at).astype(int), 0, side)
    share = np.clip(at - low, 0, 1)
    c, r = low[..., 0], low[..., 1]
    fc, fr = share[..., :1], share[..., 1:]
    upper = padded[r, c] * (1 - fc) + padded[r, c + 1] * fc
    lower = padded[r + 1, c] * (1 - fc) + padded[r + 1, c + 1] * fc
    return np.asarray(upper * (1 - fr) + lower * fr)


def equirectangular_grid(height: int) -> AnyArray:
    """Unit directions (height, 2 × height, 3) of a picture of the whole sky: north in the middle, east right of it."""
    up = (0.5 - (np.arange(height) + 0.5) / height) * math.pi
    around = ((np.arange(2 * height) + 0.5) / (2 * height) * 2 - 1) * math.pi
    h, b = np.meshgrid(up, around, indexing="ij")
    return np.stack([np.sin(b) * np.cos(h), np.cos(b) * np.cos(h), np.sin(h)], -1).astype(np.float32)
