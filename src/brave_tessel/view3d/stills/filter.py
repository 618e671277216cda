"""What is left of a still's noise, evened out without its edges."""

from __future__ import annotations

import math

import cv2
import numpy as np

from ...core.kernels.bands import over_rows
from ...core.kernels.compiled import compiled, still
from ...core.sheet import Raster

LEVELS = 5


@compiled
def _rows(
    first: int, last: int, step: int, light: Raster, guide: Raster, tone: Raster, tight: np.float32, out: Raster
) -> None:
    rows, columns = light.shape[:2]
    for r in range(first, last):
        for c in range(columns):
            t0 = t1 = t2 = whole = np.float32(0)
            y0 = tone[r, c]
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
                    differs = tone[y, x] - y0
                    near = np.float32(1) if dr == 0 and dc == 0 else np.float32(0.5) ** (dr * dr + dc * dc)
                    w = near * math.exp(
                        -(
                            bent * np.float32(40)
                            + painted * np.float32(60)
                            + apart * apart * np.float32(300)
                            + differs * differs * tight
                        )
                    )
                    t0 += w * light[y, x, 0]
                    t1 += w * light[y, x, 1]
                    t2 += w * light[y, x, 2]
                    whole += w
            out[r, c, 0], out[r, c, 1], out[r, c, 2] = t0 / whole, t1 / whole, t2 / whole


def evened(colour: Raster, albedo: Raster, normal: Raster, depth: Raster, samples: int) -> Raster:
    """Light (H, W, 3) with its noise evened out: an edge-stopping wavelet (Dammertz et al. 2010) on light over albedo,
    guided by albedo, normal (H, W, 3) and depth (H, W). The more samples, the less is done.
    """
    paint = np.maximum(albedo, 0.02)
    light = np.ascontiguousarray(colour / paint, np.float32)
    guide = np.ascontiguousarray(np.concatenate([normal, albedo, depth[..., None]], -1), np.float32)
    tight = 0.6 * math.sqrt(max(samples, 1) / 16)
    for level in range(LEVELS):
        out = np.empty_like(light)
        # Edges of light are looked for in what is smoother than the noise.
        blurred = cv2.GaussianBlur(light.sum(-1), (0, 0), max(0.8, 2.2 - 0.5 * level))
        tone = np.log(np.float32(1e-3) + np.maximum(blurred, 0)).astype(np.float32)
        over_rows(
            _rows, len(out), 1 << level, still(light), still(guide), still(tone), np.float32(tight * 1.6**level), out
        )
        light = out
    return np.asarray(light * paint, np.float32)
