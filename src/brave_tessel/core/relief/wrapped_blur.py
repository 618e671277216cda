"""Gaussian blur on the torus."""

from __future__ import annotations

import math

import cv2
import numpy as np
import scipy.fft

from ..sheet import Grid, Raster

_SAMPLED = (1.5, 14.0)
"""Of these spreads, in pixels, a sampled Gaussian is as exact as its transfer function and quicker than a transform."""
_REACH = 4.7


def _sampled_gaussian(pixels: Raster, across: float, down: float) -> Raster:
    """Gaussian blur on the torus by sampled kernels; spreads in pixels."""
    kernels = []
    for spread in (across, down):
        at = np.arange(-math.ceil(_REACH * spread), math.ceil(_REACH * spread) + 1)
        kernel = np.exp(-0.5 * (at / spread) ** 2)
        kernels.append((kernel / kernel.sum()).astype(np.float32))
    x, y = (len(kernel) // 2 for kernel in kernels)
    padded = np.pad(np.asarray(pixels, np.float32), ((y, y), (x, x)), "wrap")
    made = cv2.sepFilter2D(padded, -1, *kernels)
    return np.ascontiguousarray(made[y : made.shape[0] - y, x : made.shape[1] - x])


def wrapped_gaussian(pixels: Raster, sigma_mm: float, grid: Grid) -> Raster:
    """Gaussian blur on the torus, (H, W), by its exact transfer function."""
    if sigma_mm <= 0:
        return pixels
    across, down = grid.mm_per_px
    spreads = sigma_mm / across, sigma_mm / down
    if min(spreads) >= _SAMPLED[0] and max(spreads) <= _SAMPLED[1]:
        return _sampled_gaussian(pixels, *spreads)
    fy = scipy.fft.fftfreq(grid.height_px, down)[:, None]
    fx = scipy.fft.rfftfreq(grid.width_px, across)[None, :]
    keep = np.exp(-2 * (np.pi * sigma_mm) ** 2 * (fx * fx + fy * fy)).astype(np.float32)
    spectrum = scipy.fft.rfft2(pixels, workers=2) * keep
    return np.asarray(scipy.fft.irfft2(spectrum, s=pixels.shape, workers=2), np.float32)
