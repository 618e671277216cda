"""Robust least squares of a normal, pixel by pixel."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from ..sheet import Raster
from .compiled import compiled


@compiled
def _solve3(a: npt.NDArray[np.float64], b: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
    """Three equations by Cramer's rule; zeros where they do not tell."""
    c0 = a[1, 1] * a[2, 2] - a[1, 2] * a[2, 1]
    c1 = a[1, 2] * a[2, 0] - a[1, 0] * a[2, 2]
    c2 = a[1, 0] * a[2, 1] - a[1, 1] * a[2, 0]
    det = a[0, 0] * c0 + a[0, 1] * c1 + a[0, 2] * c2
    out = np.zeros(3)
    if abs(det) < 1e-12:
        return out
    out[0] = (
        b[0] * c0 + a[0, 1] * (a[1, 2] * b[2] - b[1] * a[2, 2]) + a[0, 2] * (b[1] * a[2, 1] - a[1, 1] * b[2])
    ) / det
    out[1] = (
        a[0, 0] * (b[1] * a[2, 2] - a[1, 2] * b[2]) + b[0] * c1 + a[0, 2] * (a[1, 0] * b[2] - b[1] * a[2, 0])
    ) / det
    out[2] = (
        a[0, 0] * (a[1, 1] * b[2] - b[1] * a[2, 1]) + a[0, 1] * (b[1] * a[2, 0] - a[1, 0] * b[2]) + b[0] * c2
    ) / det
    return out


@compiled
def _usual_residual(values: Raster, n: npt.NDArray[np.float64], lights: npt.NDArray[np.float64]) -> float:
    """Median-like size of the residuals: the mean of the smaller half."""
    frames = values.shape[0]
    off = np.empty(frames)
    for f in range(frames):
        off[f] = abs(values[f] - max(0.0, n[0] * lights[f, 0] + n[1] * lights[f, 1] + n[2] * lights[f, 2]))
    off.sort()
    half = max(2, (frames + 1) // 2)
    total = 0.0
    for k in range(half):
        total += off[k]
    return float(total / half)


@compiled
def _first_weights(values: Raster, weight: npt.NDArray[np.float64], drop_low: int, drop_high: int) -> None:
    """All frames count but the darkest and brightest by rank, and those nearly black beside the brightest."""
    frames = values.shape[0]
    order = np.argsort(values)
    weight[:] = 1.0
    weight[order[:drop_low]] = 0.0
    weight[order[frames - drop_high :]] = 0.0
    # However many frames of a pixel lie in shadow, three must stay.
    black = np.float32(0.16) * values[order[frames - 1 - drop_high]]
    for k in range(drop_low, frames - drop_high - 3):
        if values[order[k]] < black:
            weight[order[k]] = 0.0


@compiled
def _weighted(
    values: Raster, weight: npt.NDArray[np.float64], lights: npt.NDArray[np.float64]
) -> npt.NDArray[np.float64]:
    """Albedo times normal by weighted least squares."""
    a, b = np.zeros((3, 3)), np.zeros(3)
    for f in range(values.shape[0]):
        w = weight[f]
        for i in range(3):
            b[i] += w * lights[f, i] * values[f]
            for j in range(3):
                a[i, j] += w * lights[f, i] * lights[f, j]
    return _solve3(a, b)


@compiled
def fit_pixels(
    values: Raster,
    lights: npt.NDArray[np.float64],
    drop_low: int,
    drop_high: int,
    out: npt.NDArray[np.float64],
    agreement: npt.NDArray[np.float64],
) -> None:
    """Albedo times normal of every pixel, (pixels, 3), from its values (pixels, frames) under lights (frames, 3)."""
    pixels, frames = values.shape
    weight = np.empty(frames)
    for p in range(pixels):
        _first_weights(values[p], weight, drop_low, drop_high)
        n = np.zeros(3)
        for _ in range(3):
            n = _weighted(values[p], weight, lights)
            usual = _usual_residual(values[p], n, lights)
            total = 0.0
            for f in range(frames):
                seen = n[0] * lights[f, 0] + n[1] * lights[f, 1] + n[2] * lights[f, 2]
                off = abs(values[p, f] - max(seen, 0.0))
                # A frame in which the light lies behind the surface tells nothing.
                weight[f] = 0.0 if seen <= 0.0 else 1.0 / (1.0 + (off / (0.6 * usual + 1e-4)) ** 2) ** 2
                total += weight[f]
            agreement[p] = total / frames
            if total < 3.0:
                break
        out[p] = n
