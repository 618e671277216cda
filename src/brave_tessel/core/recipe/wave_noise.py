"""Noise of one wavelength made of waves: it has no lattice, and looks alike in every direction."""

from __future__ import annotations

import math

import numpy as np
import scipy.fft

from ..kernels.bands import over_rows
from ..kernels.compiled import compiled, still
from ..lattice import hash_cell, is_earlier, unit_of
from ..sheet import AnyArray, Grid, Raster

_MIDDLE, _SPREAD, _LONGEST_WAVE_NUMBER = 0.62, 0.38, 1.9
"""Of the band, in waves a wavelength: its peak, its width in natural logarithms, and where it ends."""


def wave_octave(grid: Grid, wavelength_mm: float, seed: int) -> Raster:
    """Gaussian noise with unit spread, (H, W) float32, whose features are about ``wavelength_mm`` from crest to crest.

    Every whole wave of the repeat within a band gets a phase hashed by its numbers (a random-phase field; Ebert et
    al., "Texturing and Modeling", 3rd edition, chapter on spectral synthesis). What of the band is finer than two
    samples is left out, so nothing aliases.
    """
    rows, columns = (
        _samples(n, mm, wavelength_mm) for n, mm in zip(grid.shape, (grid.height_mm, grid.width_mm), strict=True)
    )
    most = _most(grid.width_mm, wavelength_mm), _most(grid.height_mm, wavelength_mm)
    step = wavelength_mm / grid.width_mm, wavelength_mm / grid.height_mm
    powers = np.zeros(most[1] + 1)
    spectrum = np.zeros((rows, columns // 2 + 1), np.complex64)
    over_rows(_wave_rows, powers.size, spectrum, powers, columns, most, step, np.uint32(seed), is_earlier())
    made = scipy.fft.irfft2(spectrum, s=(rows, columns), workers=2)
    # By the power of the whole band, so that what a coarse raster leaves out does not raise the rest.
    made *= np.float32(math.sqrt(2 / max(float(powers.sum()), 1e-30)) / 2 * rows * columns)
    # Sheets are numbered from their lower left corner, rasters from the upper left one.
    return _enlarged(made[::-1], grid.shape)


@compiled
def _wave_rows(
    first: int,
    last: int,
    spectrum: AnyArray,
    powers: AnyArray,
    columns: int,
    most: tuple[int, int],
    step: tuple[float, float],
    seed: np.uint32,
    earlier: bool,
) -> None:
    """The waves (kx, ky) and (kx, -ky) of every ky, and the power of both together, of all kx; of two waves that are
    one, (0, ky) and (0, -ky), only the first.
    """
    rows = spectrum.shape[0]
    widest = min(most[0], (columns - 1) // 2)
    for ky in range(first, last):
        shown, total = ky <= (rows - 1) // 2, 0.0
        for kx in range(most[0] + 1):
            square = (kx * step[0]) ** 2 + (ky * step[1]) ** 2
            if square == 0:
                continue
            if square >= _LONGEST_WAVE_NUMBER * _LONGEST_WAVE_NUMBER:
                break
            away = 0.5 * math.log(square / (_MIDDLE * _MIDDLE))
            power = math.exp(-away * away / (2 * _SPREAD * _SPREAD))
            pair = kx > 0 and ky > 0
            total += 2 * power if pair else power
            if not shown or kx > widest:
                continue
            size = math.sqrt(power)
            for up in (ky, -ky) if pair else (ky, ky):
                # A sample stands for the middle of its pixel, at every size.
                unit = float(unit_of(hash_cell(kx, up, seed, earlier)))
                phase = 2 * math.pi * (unit + 0.5 * (kx / columns + up / rows))
                wave = complex(size * math.cos(phase), size * math.sin(phase))
                spectrum[up % rows, kx] = wave
                if kx == 0:
                    spectrum[-up % rows, 0] = wave.conjugate()
        powers[ky] = total


def _most(mm: float, wavelength_mm: float) -> int:
    return math.ceil(_LONGEST_WAVE_NUMBER * mm / wavelength_mm)


def _samples(px: int, mm: float, wavelength_mm: float) -> int:
    """So many samples show the band well: eight for its shortest wave, where the raster has more."""
    enough = 8
    while enough < 4 * _most(mm, wavelength_mm) + 2:
        enough *= 2
    return min(px, enough)


def _enlarged(made: Raster, shape: tuple[int, int]) -> Raster:
    """A wrapped raster at another size, by cubic convolution (Keys, IEEE Trans. ASSP 29(6), 1981; a = -0.75)."""
    if made.shape == shape:
        return np.ascontiguousarray(made)
    (row_at, row_by), (column_at, column_by) = (_taps(n, m) for n, m in zip(shape, made.shape, strict=True))
    out = np.empty(shape, np.float32)
    over_rows(_enlarge_rows, shape[0], still(np.ascontiguousarray(made)), row_at, row_by, column_at, column_by, out)
    return out


def _taps(to: int, of: int) -> tuple[AnyArray, Raster]:
    """Which four samples each of the new ones is made of, (to, 4), and by how much of each."""
    at = (np.arange(to) + 0.5) * of / to - 0.5
    low = np.floor(at).astype(np.int64)
    t = at - low
    a, d = -0.75, np.abs(np.stack([1 + t, t, 1 - t, 2 - t], 1))
    near, far = ((a + 2) * d - (a + 3)) * d * d + 1, ((a * d - 5 * a) * d + 8 * a) * d - 4 * a
    return (low[:, None] + np.arange(-1, 3)) % of, np.where(d <= 1, near, far).astype(np.float32)


@compiled
def _enlarge_rows(
    first: int,
    last: int,
    made: Raster,
    row_at: AnyArray,
    row_by: Raster,
    column_at: AnyArray,
    column_by: Raster,
    out: Raster,
) -> None:
    line = np.empty(made.shape[1], np.float32)
    for r in range(first, last):
        a, b, c, d = row_at[r]
        p, q, s, t = row_by[r]
        for k in range(line.size):
            line[k] = p * made[a, k] + q * made[b, k] + s * made[c, k] + t * made[d, k]
        for k in range(out.shape[1]):
            out[r, k] = (
                column_by[k, 0] * line[column_at[k, 0]]
                + column_by[k, 1] * line[column_at[k, 1]]
                + column_by[k, 2] * line[column_at[k, 2]]
                + column_by[k, 3] * line[column_at[k, 3]]
            )
