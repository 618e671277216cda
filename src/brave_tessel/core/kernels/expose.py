"""From added-up frames of light to codes of the screen."""

from __future__ import annotations

import math

import numpy as np

from ..sheet import AnyArray, Raster
from .bands import over_rows
from .compiled import compiled, still

ZERO, ONE, TINY = np.float32(0), np.float32(1), np.float32(1e-6)


@compiled
def _toned_rows(
    first: int, last: int, colour: Raster, around: Raster, scale: np.float32, table: AnyArray, out: AnyArray
) -> None:
    most, steps = table.size - 1, np.float32(table.size)
    rows = colour.shape[0]
    for r in range(first, last):
        for c in range(colour.shape[1]):
            whole = around[r, c, 3]
            open_ = min(ONE, colour[r, c, 3] / whole) if whole > TINY else ONE
            for k in range(3):
                light = max(ZERO, (colour[r, c, k] + around[r, c, k] * open_) * scale)
                out[rows - 1 - r, c, k] = table[max(0, min(most, int(light / (ONE + light) * steps)))]


def toned(colour: Raster, around: Raster, scale: float, table: AnyArray) -> AnyArray:
    """Codes (H, W, 3) uint8, the upper row first, of frames whose lower row is first.

    ``colour`` (H, W, 4) is added-up light, and how much of the sampled sky was open; ``around`` (H, W, 4) is the sky's
    diffuse light without shadows, and the whole weight of what was sampled. ``scale`` is 1 over the frames, exposed;
    ``table`` see :func:`brave_tessel.core.light.tone.tone_table`.
    """
    out = np.empty((*colour.shape[:2], 3), np.uint8)
    over_rows(_toned_rows, len(out), still(colour), still(around), np.float32(scale), still(table), out)
    return out


@compiled
def _linear_rows(first: int, last: int, colour: Raster, around: Raster, scale: np.float32, out: Raster) -> None:
    rows = colour.shape[0]
    for r in range(first, last):
        for c in range(colour.shape[1]):
            whole = around[r, c, 3]
            open_ = min(ONE, colour[r, c, 3] / whole) if whole > TINY else ONE
            for k in range(3):
                out[rows - 1 - r, c, k] = max(ZERO, (colour[r, c, k] + around[r, c, k] * open_) * scale)


def joined_light(colour: Raster, around: Raster, scale: float) -> Raster:
    """As :func:`toned`, in exposed linear light (H, W, 3) float32."""
    out = np.empty((*colour.shape[:2], 3), np.float32)
    over_rows(_linear_rows, len(out), still(colour), still(around), np.float32(scale), out)
    return out


@compiled
def _smoothed_rows(
    first: int, last: int, step: int, share: Raster, whole: Raster, guide: Raster, out: Raster, tight: np.float32
) -> None:
    rows, columns = share.shape
    weights = (np.float32(0.375), np.float32(0.25), np.float32(0.0625))
    for r in range(first, last):
        for c in range(columns):
            nx, ny, nz, far = guide[r, c, 0], guide[r, c, 1], guide[r, c, 2], guide[r, c, 3]
            if far <= ZERO or whole[r, c] <= TINY:
                out[r, c] = share[r, c]
                continue
            mine = share[r, c]
            total = weight = ZERO
            for dr in range(-2, 3):
                y = min(rows - 1, max(0, r + dr * step))
                for dc in range(-2, 3):
                    x = min(columns - 1, max(0, c + dc * step))
                    if whole[y, x] <= TINY:
                        continue
                    facing = nx * guide[y, x, 0] + ny * guide[y, x, 1] + nz * guide[y, x, 2]
                    if facing < np.float32(0.9):
                        continue
                    apart = abs(guide[y, x, 3] - far) / far
                    differs = abs(share[y, x] - mine) * tight
                    w = weights[abs(dr)] * weights[abs(dc)]
                    w *= np.float32(1) / (ONE + np.float32(400) * apart * apart) / (ONE + differs * differs)
                    total += w * share[y, x]
                    weight += w
            out[r, c] = total / weight if weight > ZERO else mine


def smoothed(colour: Raster, around: Raster, guide: Raster, frames: int) -> Raster:
    """``colour`` with the open share of the sky evened out where few directions have been drawn yet: an edge-stopping
    wavelet (Dammertz et al. 2010) guided by normals and distances (``guide``, added up over the frames).

    The more frames, the less is evened out; shadows stay sharp where they are known.
    """
    share = np.divide(
        colour[..., 3], around[..., 3], out=np.ones(colour.shape[:2], np.float32), where=around[..., 3] > 1e-6
    )
    even = guide / np.float32(frames)
    length = np.sqrt((even[..., :3] ** 2).sum(-1, keepdims=True))
    even = np.ascontiguousarray(np.concatenate([even[..., :3] / np.maximum(length, 1e-6), even[..., 3:]], -1))
    whole = np.ascontiguousarray(around[..., 3])
    tight = np.float32(0.9 * math.sqrt(frames))
    for step in (1, 2, 4, 8, 16) if frames < 64 else (1, 2, 4, 8):
        out = np.empty_like(share)
        over_rows(_smoothed_rows, len(out), step, still(share), still(whole), still(even), out, tight)
        share = out
    return np.concatenate([colour[..., :3], (share * whole)[..., None]], -1)
