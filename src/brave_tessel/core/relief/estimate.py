"""Relief and roughness estimated from one picture; honest guesses, labelled as such."""

from __future__ import annotations

from typing import Annotated

import numpy as np
import scipy.fft

from ..colour import encode_srgb, luminance
from ..operation import Colour, Field, Fraction, Length, Toggle, operation
from ..sheet import Grid, Raster


def wrapped_gaussian(pixels: Raster, sigma_mm: float, grid: Grid) -> Raster:
    """Gaussian blur on the torus, (H, W), by its exact transfer function."""
    if sigma_mm <= 0:
        return pixels
    across, down = grid.mm_per_px
    fy = scipy.fft.fftfreq(grid.height_px, down)[:, None]
    fx = scipy.fft.rfftfreq(grid.width_px, across)[None, :]
    keep = np.exp(-2 * (np.pi * sigma_mm) ** 2 * (fx * fx + fy * fy)).astype(np.float32)
    spectrum = scipy.fft.rfft2(pixels, workers=2) * keep
    return np.asarray(scipy.fft.irfft2(spectrum, s=pixels.shape, workers=2), np.float32)


@operation("estimate.height", label="Height from the picture")
def height_from_colour(
    grid: Grid, colour: Colour, *,
    rise: Annotated[float, Length(0, 20, least=-200, most=200, help="Height of the relief, from its low to its high parts.")] = 4.0,
    broad: Annotated[float, Length(2, 200, log=True, least=0.1, help="Shapes up to this size count; broader tone is taken for colour.")] = 40.0,
    fine: Annotated[float, Length(0.2, 20, log=True, least=0.05, help="Where broad shape ends and fine grain begins.")] = 3.0,
    grain: Annotated[float, Fraction(0, 1, most=4, help="How much of the fine grain becomes relief.")] = 0.35,
    dark_is_high: Annotated[bool, Toggle(help="Turns the relief over, where joints are lighter than stones.")] = False,
) -> Field:  # fmt: skip
    """Height in mm about 0 from lightness, between two wavelengths; mean 0.

    ``rise`` spans five standard deviations, by a fixed scale for tone, not by the picture's extremes.
    """
    tone = encode_srgb(np.clip(luminance(colour), 0, 1)).astype(np.float32)
    middle = wrapped_gaussian(tone, fine / 4, grid)
    shape = middle - wrapped_gaussian(tone, broad / 2, grid)
    spread = max(float(shape.std()), 1e-3)
    relief = np.tanh(shape / np.float32(2.5 * spread)) * np.float32(0.5 * rise)
    relief += (tone - middle) * np.float32(grain * 0.2 * rise / spread)
    return np.asarray(-relief if dark_is_high else relief, np.float32)


@operation("estimate.roughness", label="Roughness from the picture")
def roughness_from_colour(
    grid: Grid, colour: Colour, *,
    mean: Annotated[float, Fraction(help="Mean roughness.")] = 0.65,
    contrast: Annotated[float, Fraction(-1, 1, help="How far lighter parts are rougher; below 0 they are smoother.")] = 0.3,
) -> Field:  # fmt: skip
    """Roughness in [0, 1]: a mean, moved by local lightness."""
    tone = encode_srgb(np.clip(luminance(colour), 0, 1)).astype(np.float32)
    return np.asarray(np.clip(mean + contrast * (tone - tone.mean()), 0.02, 1), np.float32)
