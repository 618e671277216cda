"""What a picture tells of its relief: how high it rises, how large its shapes are, and how sure that is.

Shading changes lightness and leaves the hue; paint mostly changes both. So steps in tone without a step in hue are
taken for shading, the others for paint (colour Retinex; Grosse, Johnson, Adelson and Freeman 2009, "Ground truth
dataset and baseline evaluations for intrinsic image algorithms", ICCV).
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..colour import encode_srgb, luminance
from ..sheet import Grid, Raster
from .wrapped_blur import wrapped_gaussian

_PX = 256
TONE_FLOOR = 0.004
"""Linear tone under which a logarithm tells noise."""
_SLOPE = 0.2
"""Root mean square slope of the relief for each unit of spread of the natural logarithm of tone."""
_PAINT, _RELIEF = 0.6, 0.8
"""Share of a picture's steps in tone that come without a step in hue: flat colour up to it, relief from it on."""
_HUE_OF_PAINT = 0.25
"""Step in hue over step in tone from which on it is a step of paint."""


@dataclass(frozen=True, slots=True)
class Bands:
    """How tone becomes relief: shapes up to ``broad`` mm, grain below ``fine`` mm, and what each counts."""

    broad: float
    fine: float
    grain: float = 0.35
    broad_weight: float = 1.0
    middle_weight: float = 1.0

    def shaped(self, tone: Raster, grid: Grid) -> Raster:
        """Relief (H, W) of a tone in sRGB codes [0, 1], for a rise of 1 mm over five standard deviations."""
        fine, slow = self.fine / 4, wrapped_gaussian(tone, self.broad / 2, grid)
        middle, between = (wrapped_gaussian(tone, size, grid) for size in (fine, max(self.broad / 8, fine)))
        spread = max(float((middle - slow).std()), 1e-3)
        shape = (middle - between) * np.float32(self.middle_weight) + (between - slow) * np.float32(self.broad_weight)
        relief = np.tanh(shape / np.float32(2.5 * spread)) * np.float32(0.5)
        return np.asarray(relief + (tone - middle) * np.float32(self.grain * 0.2 / spread), np.float32)


@dataclass(frozen=True, slots=True)
class ToldRelief:
    """``rise``, ``broad`` and ``fine`` in mm as the estimate takes them; ``sure`` runs from 0,
    flat colour, to 1, relief. Of a picture of ``one_hue`` nobody can tell: paint in greys looks like shading.
    """

    rise: float
    broad: float
    fine: float
    sure: float
    one_hue: bool = False

    @property
    def values(self) -> dict[str, float]:
        """As parameters of the estimate."""
        return {"rise": self.rise, "broad": self.broad, "fine": self.fine}


def tell_relief(colour: Raster, grid: Grid) -> ToldRelief:
    """Read a sheet's colour, (H, W, 3) linear float32, that repeats on its grid.

    The mean error of its normals was held against flat ones on 21 finished surfaces under four lights: 7.7° against
    8.3°; a rise of 4 mm whatever the picture shows gives 12.8°, and the best rise for each 7.0°.
    """
    colour, grid = _reduced(colour, grid)
    tones = np.log(np.maximum(colour, 0) + np.float32(TONE_FLOOR)).astype(np.float32)
    broad = float(np.clip(2 * _wavelength(tones.mean(-1), grid), 0.5, 0.5 * min(grid.width_mm, grid.height_mm)))
    tone = tones.mean(-1)
    spread = float((tone - wrapped_gaussian(tone, broad / 2, grid)).std())
    sure = float(np.clip((_shaded_share(tones) - _PAINT) / (_RELIEF - _PAINT), 0, 1))
    fine = broad / 15
    codes = encode_srgb(np.clip(luminance(colour), 0, 1)).astype(np.float32)
    steep = _steepness(Bands(broad, fine).shaped(codes, grid), grid)
    rise = _SLOPE * spread * sure / max(steep, 1e-6)
    return ToldRelief(round(min(rise, broad / 2), 4), round(broad, 3), round(fine, 4), sure, _one_hue(tones))


def _reduced(colour: Raster, grid: Grid) -> tuple[Raster, Grid]:
    scale = min(1.0, _PX / max(grid.shape))
    if scale == 1.0:
        return colour, grid
    size = max(8, round(grid.width_px * scale)), max(8, round(grid.height_px * scale))
    small = np.asarray(cv2.resize(colour, size, interpolation=cv2.INTER_AREA), np.float32)
    return small, Grid(*size, grid.width_mm, grid.height_mm)


def _shaded_share(tones: Raster) -> float:
    """Share of the energy of steps in tone, natural logarithms (H, W, 3), that come without a step in hue."""
    shaded = whole = 0.0
    for axis in (0, 1):
        step = tones - np.roll(tones, 1, axis)
        tone = step.mean(-1)
        hue = np.sqrt(((step - tone[..., None]) ** 2).sum(-1))
        energy = tone * tone
        shaded += float(energy[hue < _HUE_OF_PAINT * np.abs(tone)].sum())
        whole += float(energy.sum())
    return shaded / max(whole, 1e-9)


def _one_hue(tones: Raster) -> bool:
    """Whether the hue hardly changes over a picture, of natural logarithms (H, W, 3)."""
    hues = tones - tones.mean(-1, keepdims=True)
    return float(np.sqrt(hues.var((0, 1)).sum())) < _HUES


_HUES = 0.03


def _wavelength(tone: Raster, grid: Grid) -> float:
    """The wavelength in mm above and below which lies half of the power."""
    power = np.abs(np.fft.fft2(tone - tone.mean())) ** 2
    across, down = grid.mm_per_px
    cycles = np.hypot(np.fft.fftfreq(grid.height_px, down)[:, None], np.fft.fftfreq(grid.width_px, across)[None])
    order = np.argsort(cycles, axis=None)
    summed = np.cumsum(power.ravel()[order])
    middle = int(np.searchsorted(summed, summed[-1] / 2))
    return 1 / max(float(cycles.ravel()[order][min(middle, len(order) - 1)]), 1 / max(grid.width_mm, grid.height_mm))


def _steepness(height: Raster, grid: Grid) -> float:
    """Root mean square slope."""
    across, down = grid.mm_per_px
    gx = (np.roll(height, -1, 1) - np.roll(height, 1, 1)) / (2 * across)
    gy = (np.roll(height, -1, 0) - np.roll(height, 1, 0)) / (2 * down)
    return float(np.sqrt((gx * gx + gy * gy).mean()))
