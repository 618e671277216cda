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
_MARGIN = 64
"""Pixels beyond which a narrow Gaussian, cut off at the finest waves, rings by less than 1e-4 of what there is."""
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
    return _filtered(np.pad(pixels, ((y, y), (x, x)), "wrap"), kernels[0], kernels[1])


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
    if max(across, down) < _SAMPLED[0]:
        # Sides with large prime factors are slow to transform; what is that narrow is no other with a margin.
        sides = [scipy.fft.next_fast_len(side) for side in pixels.shape]
        if any(fast != side for fast, side in zip(sides, pixels.shape, strict=True)):
            return _with_margin(pixels, across, down)
    return _by_transfer(pixels, across, down)


def _with_margin(pixels: Raster, across: float, down: float) -> Raster:
    rows, columns = pixels.shape
    more = [scipy.fft.next_fast_len(side + 2 * _MARGIN) - side - _MARGIN for side in pixels.shape]
    padded = np.pad(pixels, ((_MARGIN, more[0]), (_MARGIN, more[1])), "wrap")
    made = _by_transfer(padded, across, down)
    return np.ascontiguousarray(made[_MARGIN : _MARGIN + rows, _MARGIN : _MARGIN + columns])


def _by_transfer(pixels: Raster, across: float, down: float) -> Raster:
    rows, columns = pixels.shape
    y, x = (
        np.exp(-2 * np.pi**2 * (spread * frequency) ** 2).astype(np.float32)
        for spread, frequency in ((down, scipy.fft.fftfreq(rows)), (across, scipy.fft.rfftfreq(columns)))
    )
    spectrum = scipy.fft.rfft2(pixels, workers=2)
    spectrum *= y[:, None]
    spectrum *= x
    return np.asarray(scipy.fft.irfft2(spectrum, s=pixels.shape, workers=2), np.float32)


def _sampled_gaussian(pixels: Raster, across: float, down: float) -> Raster:
    """Gaussian blur on the torus by sampled kernels; spreads in pixels."""
    kernels = [_kernel(spread) for spread in (across, down)]
    x, y = (len(kernel) // 2 for kernel in kernels)
    return _filtered(np.pad(np.asarray(pixels, np.float32), ((y, y), (x, x)), "wrap"), kernels[0], kernels[1])


def _filtered(padded: Raster, across: npt.NDArray[np.float32], down: npt.NDArray[np.float32]) -> Raster:
    """The inside of a padded raster filtered by two kernels."""
    x, y = len(across) // 2, len(down) // 2
    made = cv2.sepFilter2D(padded, -1, across, down)
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
