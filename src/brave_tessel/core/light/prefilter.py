"""A sky blurred by roughness, so that one look-up gives what a rough mirror shows."""

from __future__ import annotations

import math

import cv2
import numpy as np

from ..kernels.bands import over_rows
from ..kernels.compiled import compiled, still
from ..sheet import AnyArray
from .directions import bordered, halved, octahedral_grid

STEPS = 5
"""Blurred levels; the sharp sky is level 0."""
BLURRED_PX = 128
_SHARPEST = 0.05
_SIZES = ((1, 128, 20), (2, 64, 36), (2, 32, 96))
"""Levels, pixels and samples: the rougher, the fewer pixels and the more samples of each."""


def level_of(roughness: float) -> float:
    """The level, 0 to STEPS, at which a roughness is found: fine steps where it is smooth. What is smoother than a
    polished glaze mirrors the sky as it is.
    """
    return float(STEPS * (min(1.0, max(0.0, (roughness - _SHARPEST) / (1 - _SHARPEST)))) ** (1 / 1.4))


def roughness_of(level: float) -> float:
    """The roughness of a level."""
    return float(_SHARPEST + (1 - _SHARPEST) * (level / STEPS) ** 1.4)


@compiled
def _filter_rows(
    first: int,
    last: int,
    grid: AnyArray,
    flat: AnyArray,
    starts: AnyArray,
    sides: AnyArray,
    alphas: AnyArray,
    count: int,
    out: AnyArray,
) -> None:
    texel = 4 * math.pi / (sides[0] * sides[0])
    mips = sides.size
    rows = grid.shape[0]
    # The samples of a lobe, about any normal: direction, and from which version of the sky.
    lobe, versions = np.empty((count, 3)), np.empty(count, np.int64)
    for row in range(first, last):
        r = row % rows
        a2 = alphas[row // rows] ** 2
        used = 0
        for k in range(count):
            u = (k + 0.5) / count
            turn = 2 * math.pi * ((k * 0.6180339887498949) % 1.0)
            cos2 = (1 - u) / (1 + (a2 - 1) * u)
            hz, hs = math.sqrt(cos2), math.sqrt(max(0.0, 1 - cos2))
            lz = 2 * hz * hz - 1
            if lz <= 0:
                continue
            d = a2 / (math.pi * ((a2 - 1) * cos2 + 1) ** 2)
            wanted = 0.5 * math.log2(max(1.0, 4 / (count * d * texel))) + 0.5
            lobe[used, 0], lobe[used, 1] = 2 * hz * hs * math.cos(turn), 2 * hz * hs * math.sin(turn)
            lobe[used, 2], versions[used] = lz, min(mips - 1, int(wanted))
            used += 1
        for c in range(out.shape[1]):
            nx, ny, nz = grid[r, c, 0], grid[r, c, 1], grid[r, c, 2]
            # Any frame about the normal (Duff et al. 2017).
            sign = 1.0 if nz >= 0 else -1.0
            a = -1.0 / (sign + nz)
            b = nx * ny * a
            tx, ty, tz = 1.0 + sign * nx * nx * a, sign * b, -sign * nx
            bx, by, bz = b, sign + ny * ny * a, -ny
            sum0 = sum1 = sum2 = whole = 0.0
            for k in range(used):
                lx, ly, lz, mip = lobe[k, 0], lobe[k, 1], lobe[k, 2], versions[k]
                dx = lx * tx + ly * bx + lz * nx
                dy = lx * ty + ly * by + lz * ny
                dz = lx * tz + ly * bz + lz * nz
                inv = 1 / (abs(dx) + abs(dy) + abs(dz))
                x, y = dx * inv, dy * inv
                if dz < 0:
                    ox = x
                    x = (1 - abs(y)) * (1.0 if ox >= 0 else -1.0)
                    y = (1 - abs(ox)) * (1.0 if y >= 0 else -1.0)
                side = int(sides[mip])
                px, py = (x * 0.5 + 0.5) * side + 0.5, (y * 0.5 + 0.5) * side + 0.5
                ix, iy = min(side, max(0, int(px))), min(side, max(0, int(py)))
                fx, fy = px - ix, py - iy
                at = int(starts[mip]) + iy * (side + 2) + ix
                w00, w01, w10, w11 = (1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy
                low = at + side + 2
                sum0 += lz * (w00 * flat[at, 0] + w01 * flat[at + 1, 0] + w10 * flat[low, 0] + w11 * flat[low + 1, 0])
                sum1 += lz * (w00 * flat[at, 1] + w01 * flat[at + 1, 1] + w10 * flat[low, 1] + w11 * flat[low + 1, 1])
                sum2 += lz * (w00 * flat[at, 2] + w01 * flat[at + 1, 2] + w10 * flat[low, 2] + w11 * flat[low + 1, 2])
                whole += lz
            out[row, c, 0], out[row, c, 1], out[row, c, 2] = sum0 / whole, sum1 / whole, sum2 / whole


def prefiltered(dome: AnyArray) -> AnyArray:
    """(STEPS, BLURRED_PX, BLURRED_PX, 3): an octahedral dome (S, S, 3) seen in mirrors of the roughness of each level.

    Samples of the GGX lobe about the mirror direction, normal and eye along it (Karis 2013), each taken from a version
    of the sky as coarse as its share of the lobe (Křivánek and Colbert 2008).
    """
    mips = [np.ascontiguousarray(dome, np.float32)]
    while mips[-1].shape[0] > 4:
        mips.append(halved(mips[-1]))
    padded = [bordered(mip).reshape(-1, 3) for mip in mips]
    flat = np.ascontiguousarray(np.concatenate(padded), np.float32)
    starts = np.cumsum([0, *(len(p) for p in padded[:-1])]).astype(np.int64)
    sides = np.array([mip.shape[0] for mip in mips], np.int64)
    alphas = np.array([roughness_of(step + 1) ** 2 for step in range(STEPS)])
    source = still(flat), still(starts), still(sides)
    made: list[AnyArray] = []
    for count, side, samples in _SIZES:
        for level in _filtered(side, source, alphas[len(made) : len(made) + count], samples):
            while level.shape[0] < BLURRED_PX:
                level = _doubled(level)
            made.append(level)
    return np.stack(made)


def _filtered(side: int, source: tuple[AnyArray, ...], alphas: AnyArray, samples: int) -> AnyArray:
    out = np.empty((len(alphas) * side, side, 3), np.float32)
    over_rows(_filter_rows, len(out), still(octahedral_grid(side)), *source, still(alphas), samples, out)
    return out.reshape(len(alphas), side, side, 3)


def _doubled(level: AnyArray) -> AnyArray:
    """An octahedral map at twice its size; its border goes along, so that its seams stay closed."""
    side = 2 * level.shape[0]
    grown = cv2.resize(bordered(level), (side + 4, side + 4), interpolation=cv2.INTER_LINEAR)
    return np.asarray(grown[2:-2, 2:-2])
