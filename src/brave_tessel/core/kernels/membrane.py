"""A membrane stretched over a hole: Laplace's equation with the rim held."""

from __future__ import annotations

import cv2
import numpy as np

from ..sheet import AnyArray, Raster
from .compiled import compiled


@compiled
def _relax(values: Raster, inside: AnyArray, sweeps: int, over: float) -> None:
    rows, columns, channels = values.shape
    for _ in range(sweeps):
        for parity in range(2):
            for r in range(1, rows - 1):
                for c in range(1 + (r + parity) % 2, columns - 1, 2):
                    if not inside[r, c]:
                        continue
                    for k in range(channels):
                        mean = 0.25 * (
                            values[r - 1, c, k] + values[r + 1, c, k] + values[r, c - 1, k] + values[r, c + 1, k]
                        )
                        values[r, c, k] += np.float32(over * (mean - values[r, c, k]))


def membrane(values: Raster, inside: AnyArray) -> Raster:
    """``values`` (H, W, C) with those ``inside`` (H, W) bool replaced by the membrane held at the rim.

    Coarse to fine: a hole of half the size is stretched first and gives the start.
    """
    out = values.copy()
    rows, columns = inside.shape
    if min(rows, columns) >= 16:
        half = (columns // 2, rows // 2)
        weight = (~inside).astype(np.float32)
        known = cv2.resize(weight, half, interpolation=cv2.INTER_AREA)
        small = cv2.resize(values * weight[..., None], half, interpolation=cv2.INTER_AREA).reshape(half[1], half[0], -1)
        small = small / np.maximum(known, 1e-6)[..., None]
        below = membrane(np.asarray(small, np.float32), known <= 0)
        start = cv2.resize(below, (columns, rows), interpolation=cv2.INTER_LINEAR).reshape(values.shape)
        out[inside] = start[inside]
    elif inside.any():
        out[inside] = values[~inside].mean(0) if (~inside).any() else 0
    _relax(out, inside, 12 if max(rows, columns) < 96 else 5, 1.5)
    return out
