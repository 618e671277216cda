"""Gaussian blur on the torus."""

from __future__ import annotations

import math

import cv2
import numpy as np
import numpy.typing as npt
import scipy.fft

from ..sheet import Grid, Raster

_SAMPLED = (1.5, 14.0)
"""Of these spreads, in pixels, a sampled Gaussian is as exact as its transfer function and quicker than a transform."""
_REACH = 4.7
_STEP, _STAGE = 4, 5.0
"""A wide Gaussian is blurred to every fourth pixel, there, and back: by this spread before and after, at which what
would fold over is 1e-13 of what there was.
"""
_WIDE, _LEAST_SIDE = 11.5, 256


def _kernel(spread: float) -> npt.NDArray[np.float32]:
    at = np.arange(-math.ceil(_REACH * spread), math.ceil(_REACH * spread) + 1)
    kernel = np.exp(-0.5 * (at / spread) ** 2)
    return np.asarray(kernel / kernel.sum(), np.float32)


def _along(pixels: Raster, kernel: npt.NDArray[np.float32], *, axis: int) -> Raster:
    """A kernel on the torus along one axis."""
    kernels: list[npt.NDArray[np.float32]] = [np.ones(1, np.float32), np.ones(1, np.float32)]
    kernels[1 - axis] = kernel
    x, y = (len(one) // 2 for one in kernels)
    padded = np.pad(pixels, ((y, y), (x, x)), "wrap")
    made = cv2.sepFilter2D(padded, -1, kernels[0], kernels[1])
    return np.asarray(made[y : made.shape[0] - y, x : made.shape[1] - x])


def _wide_gaussian(pixels: Raster, across: float, down: float) -> Raster:
    """Gaussian blur on the torus of sides that are whole steps long, for spreads of many pixels.

    A Gaussian is the convolution of Gaussians whose squares add up: one before the picture is taken at every fourth
    pixel, one there, one with which the points between are filled.
    """
    pixels = np.asarray(pixels, np.float32)
    stage = _kernel(_STAGE)
    few = _along(np.ascontiguousarray(_along(pixels, stage, axis=1)[:, ::_STEP]), stage, axis=0)[::_STEP]
    rest = [math.sqrt(spread**2 - 2 * _STAGE**2) / _STEP for spread in (across, down)]
    few = _gaussian_by_spectrum(np.ascontiguousarray(few), *rest)
    tall = np.zeros((pixels.shape[0], few.shape[1]), np.float32)
    tall[::_STEP] = few
    tall = _along(tall, stage * np.float32(_STEP), axis=0)
    made = np.zeros(pixels.shape, np.float32)
    made[:, ::_STEP] = tall
    return np.ascontiguousarray(_along(made, stage * np.float32(_STEP), axis=1))


def _gaussian_by_spectrum(pixels: Raster, across: float, down: float) -> Raster:
    """Gaussian blur on the torus by its exact transfer function; spreads in pixels."""
    rows, columns = pixels.shape
    fy, fx = scipy.fft.fftfreq(rows)[:, None], scipy.fft.rfftfreq(columns)[None, :]
    keep = np.exp(-2 * np.pi**2 * ((across * fx) ** 2 + (down * fy) ** 2)).astype(np.float32)
    spectrum = scipy.fft.rfft2(pixels, workers=2) * keep
    return np.asarray(scipy.fft.irfft2(spectrum, s=pixels.shape, workers=2), np.float32)


def _sampled_gaussian(pixels: Raster, across: float, down: float) -> Raster:
    """Gaussian blur on the torus by sampled kernels; spreads in pixels."""
    kernels = [_kernel(spread) for spread in (across, down)]
    x, y = (len(kernel) // 2 for kernel in kernels)
    padded = np.pad(np.asarray(pixels, np.float32), ((y, y), (x, x)), "wrap")
    made = cv2.sepFilter2D(padded, -1, kernels[0], kernels[1])
    return np.ascontiguousarray(made[y : made.shape[0] - y, x : made.shape[1] - x])


def wrapped_gaussian(pixels: Raster, sigma_mm: float, grid: Grid) -> Raster:
    """Gaussian blur on the torus, (H, W), by its exact transfer function."""
    if sigma_mm <= 0:
        return pixels
    across, down = grid.mm_per_px
    spreads = sigma_mm / across, sigma_mm / down
    if min(spreads) >= _WIDE and not any(side % _STEP for side in pixels.shape) and min(pixels.shape) > _LEAST_SIDE:
        return _wide_gaussian(pixels, *spreads)
    if min(spreads) >= _SAMPLED[0] and max(spreads) <= _SAMPLED[1]:
        return _sampled_gaussian(pixels, *spreads)
    return _gaussian_by_spectrum(pixels, *spreads)
