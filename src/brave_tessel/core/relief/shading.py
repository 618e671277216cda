"""Relief of one material that a light from one side shows: bright where it faces that light, dark where it turns away.

One picture gives one number a pixel: it tells the slope along the light and not the one across it. That slope is read
as in the linear shape from shading of Pentland (1990, "Linear shading: analysis and applications", IJCV 4); the
flattest height that has it is one division of spectra.
"""

from __future__ import annotations

import math

import numpy as np
import scipy.fft

from ..sheet import Grid, Raster
from .told import TONE_FLOOR
from .wrapped_blur import wrapped_gaussian

_FILL = 2.0
"""Bare light over what a photo keeps of it: sky and view curve take about half of the sun's contrast. Set, like
``_LEAST``, on 14 surfaces painted one colour, of the stock and the demo, under four suns."""
_LEAST = 0.1
"""How much a slope across the light costs beside one along it that the shading does not show: across, what fits it with
the least relief is taken."""
_STEEPEST = 1.0


def height_from_shading(luminance: Raster, grid: Grid, *, bearing: float, height: float, broad: float) -> Raster:
    """Height (H, W) in mm, mean 0, of linear luminance (H, W) lit from ``bearing``, degrees anticlockwise from +x, and
    ``height``, degrees above the sheet. Shapes up to ``broad`` mm count.
    """
    tone = np.asarray(np.log(np.maximum(luminance, 0) + np.float32(TONE_FLOOR)), np.float32)
    tone -= wrapped_gaussian(tone, broad, grid)
    slope = np.clip(np.expm1(tone), -_STEEPEST, _STEEPEST) * np.float32(-_FILL * math.tan(math.radians(height)))
    across, down = grid.mm_per_px
    turn = math.radians(bearing)
    wx = 2 * np.pi * scipy.fft.rfftfreq(grid.width_px, across)[None]
    wy = -2 * np.pi * scipy.fft.fftfreq(grid.height_px, down)[:, None]
    along = (wx * math.cos(turn) + wy * math.sin(turn)).astype(np.float32)
    steepness = along * along + (np.float32(_LEAST) * (wx * wx + wy * wy)).astype(np.float32)
    steepness[0, 0] = np.inf
    spectrum = np.complex64(-1j) * along * scipy.fft.rfft2(np.asarray(slope, np.float32), workers=2) / steepness
    return np.asarray(scipy.fft.irfft2(spectrum, s=grid.shape, workers=2), np.float32)
