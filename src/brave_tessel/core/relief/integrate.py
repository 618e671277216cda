"""Height from slopes on the torus."""

from __future__ import annotations

import numpy as np
import scipy.fft

from ..sheet import Grid, Raster


def height_of_slopes(p: Raster, q: Raster, grid: Grid) -> Raster:
    """The wrapped height in mm, mean 0, whose slopes are nearest to ``p`` = ∂h/∂x and ``q`` = ∂h/∂y (y up).

    Frankot and Chellappa 1988 (PAMI 10(4)), with sin ω for ω so that it inverts central differences
    exactly. A mean slope is dropped: it cannot wrap.
    """
    across, down = grid.mm_per_px
    wx = np.sin(2 * np.pi * scipy.fft.rfftfreq(p.shape[1]))[None, :] / across
    # Rows count down, y counts up.
    wy = -np.sin(2 * np.pi * scipy.fft.fftfreq(p.shape[0]))[:, None] / down
    power = wx * wx + wy * wy
    power[power < 1e-9 / (across * down)] = np.inf
    spectrum = (-1j * wx * scipy.fft.rfft2(p, workers=2) - 1j * wy * scipy.fft.rfft2(q, workers=2)) / power
    return np.asarray(scipy.fft.irfft2(spectrum, s=p.shape, workers=2), np.float32)
