"""Noise of one wavelength made of waves: it has no lattice, and looks alike in every direction."""

from __future__ import annotations

import math

import cv2
import numpy as np
import scipy.fft

from ..lattice import units_many
from ..sheet import Grid, Raster

_MIDDLE, _SPREAD, _LONGEST_WAVE_NUMBER = 0.62, 0.38, 1.9
"""Of the band, in waves a wavelength: its peak, its width in natural logarithms, and where it ends."""
_PAD = 4


def wave_octave(grid: Grid, wavelength_mm: float, seed: int) -> Raster:
    """Gaussian noise with unit spread, (H, W) float32, whose features are about ``wavelength_mm`` from crest to crest.

    Every whole wave of the repeat within a band gets a phase hashed by its numbers (a random-phase field; Ebert et
    al., "Texturing and Modeling", 3rd edition, chapter on spectral synthesis). What of the band is finer than two
    samples is left out, so nothing aliases.
    """
    rows, columns = (
        _samples(n, mm, wavelength_mm) for n, mm in zip(grid.shape, (grid.height_mm, grid.width_mm), strict=True)
    )
    most_x, most_y = _most(grid.width_mm, wavelength_mm), _most(grid.height_mm, wavelength_mm)
    kx, ky = np.meshgrid(np.arange(most_x + 1), np.arange(-most_y, most_y + 1))
    near = np.hypot(kx / grid.width_mm, ky / grid.height_mm) * wavelength_mm
    band = ((kx > 0) | (ky > 0)) & (near < _LONGEST_WAVE_NUMBER)
    kx, ky = kx[band], ky[band]
    power = np.exp(-(np.log(near[band] / _MIDDLE) ** 2) / (2 * _SPREAD**2))
    # By the power of the whole band, so that what a coarse raster leaves out does not raise the rest.
    size = np.sqrt(2 * power / power.sum()) / 2 * rows * columns
    kept = (kx <= (columns - 1) // 2) & (np.abs(ky) <= (rows - 1) // 2)
    kx, ky, size = kx[kept], ky[kept], size[kept]
    # A sample stands for the middle of its pixel, at every size.
    phase = units_many(kx, ky, seed).astype(np.float64) + 0.5 * (kx / columns + ky / rows)
    waves = size * np.exp(2j * math.pi * phase)
    spectrum = np.zeros((rows, columns // 2 + 1), np.complex64)
    spectrum[ky % rows, kx] = waves
    upright = kx == 0
    spectrum[-ky[upright] % rows, 0] = waves[upright].conj()
    made = scipy.fft.irfft2(spectrum, s=(rows, columns), workers=2).astype(np.float32)
    # Sheets are numbered from their lower left corner, rasters from the upper left one.
    return _enlarged(made[::-1], grid.shape)


def _most(mm: float, wavelength_mm: float) -> int:
    return math.ceil(_LONGEST_WAVE_NUMBER * mm / wavelength_mm)


def _samples(px: int, mm: float, wavelength_mm: float) -> int:
    """So many samples show the band well: eight for its shortest wave, where the raster has more."""
    enough = 8
    while enough < 4 * _most(mm, wavelength_mm) + 2:
        enough *= 2
    return min(px, enough)


def _enlarged(made: Raster, shape: tuple[int, int]) -> Raster:
    """A wrapped raster at another size, by cubic interpolation."""
    if made.shape == shape:
        return np.ascontiguousarray(made)
    padded = np.pad(made, _PAD, "wrap")
    up, across = shape[0] / made.shape[0], shape[1] / made.shape[1]
    y, x = ((np.arange(n) + 0.5) / by - 0.5 + _PAD for n, by in ((shape[0], up), (shape[1], across)))
    across_map, up_map = (np.asarray(one, np.float32) for one in np.broadcast_arrays(x[None, :], y[:, None]))
    return np.asarray(cv2.remap(padded, across_map, up_map, cv2.INTER_CUBIC), np.float32)
