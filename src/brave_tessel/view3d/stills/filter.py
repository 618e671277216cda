"""What is left of a still's noise, evened out without its edges."""

from __future__ import annotations

import math

import cv2
import numpy as np

from ...core.kernels.bands import over_rows
from ...core.kernels.compiled import compiled, still
from ...core.sheet import Raster

LEVELS = 5
ALLOWED = 50.0
"""Of the noise left, squared, the square of a difference of light that is still taken for noise."""
MIRRORED = 0.2
"""Albedo that stands for what is mirrored."""


@compiled
def _rows(
    first: int, last: int, step: int, light: Raster, spread: Raster, guide: Raster, tone: Raster, out: Raster,
    left: Raster,
) -> None:  # fmt: skip
    rows, columns = light.shape[:2]
    for r in range(first, last):
        for c in range(columns):
            t0 = t1 = t2 = whole = squares = np.float32(0)
            allowed = np.float32(ALLOWED) * spread[r, c] + np.float32(1e-7)
            for dr in range(-2, 3):
                y = min(rows - 1, max(0, r + dr * step))
                for dc in range(-2, 3):
                    x = min(columns - 1, max(0, c + dc * step))
                    bent = np.float32(0)
                    for k in range(3):
                        d = guide[y, x, k] - guide[r, c, k]
                        bent += d * d
                    painted = np.float32(0)
                    for k in range(3, 6):
                        d = guide[y, x, k] - guide[r, c, k]
                        painted += d * d
                    apart = (guide[y, x, 6] - guide[r, c, 6]) / (np.float32(1e-3) + abs(guide[r, c, 6]))
                    differs = tone[y, x] - tone[r, c]
                    near = np.float32(1) if dr == 0 and dc == 0 else np.float32(0.5) ** (dr * dr + dc * dc)
                    w = near * math.exp(
                        -(
                            bent * np.float32(12)
                            + painted * np.float32(40)
                            + apart * apart * np.float32(100)
                            + differs * differs / allowed
                        )
                    )
                    t0 += w * light[y, x, 0]
                    t1 += w * light[y, x, 1]
                    t2 += w * light[y, x, 2]
                    squares += w * w * spread[y, x]
                    whole += w
            out[r, c, 0], out[r, c, 1], out[r, c, 2] = t0 / whole, t1 / whole, t2 / whole
            left[r, c] = squares / (whole * whole)


def evened(colour: Raster, albedo: Raster, normal: Raster, depth: Raster, noise: Raster) -> Raster:
    """Light (H, W, 3) with its noise evened out: an edge-stopping wavelet (Dammertz et al. 2010) on light over albedo,
    guided by albedo, normal (H, W, 3) and depth (H, W), and by how much of a difference is noise (Schied et al. 2017,
    "Spatiotemporal variance-guided filtering"): ``noise`` (H, W) is what is left in the mean of the channels, a
    standard deviation. Where there is little, little is done.
    """
    # What is mirrored has no part in the paint: over a dark one it would be taken for many times its light.
    # Nor has the sky, of which there is no normal.
    bare = 1 - np.minimum(1, np.linalg.norm(normal, axis=-1, keepdims=True))
    paint = np.asarray(albedo + MIRRORED + (1 - MIRRORED) * bare, np.float32)
    light = np.ascontiguousarray(colour / paint, np.float32)
    guide = np.ascontiguousarray(np.concatenate([normal, albedo, depth[..., None]], -1), np.float32)
    # Few passes tell little of a single pixel.
    spread = cv2.GaussianBlur(np.asarray((noise / paint.mean(-1)) ** 2, np.float32), (0, 0), 2.0)
    for level in range(LEVELS):
        out, left = np.empty_like(light), np.empty_like(spread)
        # Edges of light are looked for in what is smoother than the noise.
        tone = cv2.GaussianBlur(light.mean(-1), (0, 0), 1.0)
        over_rows(
            _rows, len(out), 1 << level, still(light), still(spread), still(guide), still(tone), out, left
        )  # fmt: skip
        light, spread = out, left
    return np.asarray(light * paint, np.float32)
