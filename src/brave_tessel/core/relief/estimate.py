"""Relief and roughness estimated from one picture; honest guesses, labelled as such."""

from __future__ import annotations

import math
from typing import Annotated

import cv2
import numpy as np
import scipy.fft

from ..colour import encode_srgb, hex_to_linear, lab_of, luminance
from ..operation import Colour, Field, Fraction, Length, Paint, Toggle, operation
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


@operation("estimate.height", label="Height from the picture")
def height_from_colour(
    grid: Grid,
    colour: Colour,
    *,
    rise: Annotated[
        float, Length(0, 20, least=-200, most=200, help="Height of the relief, from its low to its high parts.")
    ] = 4.0,
    broad: Annotated[
        float,
        Length(2, 200, log=True, least=0.1, help="Shapes up to this size count; broader tone is taken for colour."),
    ] = 40.0,
    broad_weight: Annotated[float, Fraction(0, 2, most=4, help="How much the broad shapes count.")] = 1.0,
    middle_weight: Annotated[float, Fraction(0, 2, most=4, help="How much shapes between broad and fine count.")] = 1.0,
    fine: Annotated[float, Length(0.2, 20, log=True, least=0.05, help="Where shape ends and fine grain begins.")] = 3.0,
    grain: Annotated[float, Fraction(0, 1, most=4, help="How much of the fine grain becomes relief.")] = 0.35,
    sharpen: Annotated[float, Fraction(0, 2, most=6, help="How far edges are steepened.")] = 0.0,
    sharpen_radius: Annotated[
        float, Length(0.2, 20, log=True, least=0.05, help="Width over which edges are steepened.")
    ] = 1.5,
    leave_out: Annotated[
        str, Paint(help="A colour that is only colour and no relief, such as a stain or moss.")
    ] = "#808080",
    leave_out_reach: Annotated[
        float, Fraction(help="How far from that colour is left out too; 0 leaves out nothing.")
    ] = 0.0,
    dark_is_high: Annotated[bool, Toggle(help="Turns the relief over, where joints are lighter than stones.")] = False,
) -> Field:
    """Height in mm about 0 from lightness in three bands of wavelength; an estimate, mean 0.

    ``rise`` spans five standard deviations, by a fixed scale for tone, not by the picture's extremes.
    """
    tone = encode_srgb(np.clip(luminance(colour), 0, 1)).astype(np.float32)
    if leave_out_reach > 0:
        tone = _without(tone, colour, leave_out, leave_out_reach, broad / 2, grid)
    middle = wrapped_gaussian(tone, fine / 4, grid)
    between, slow = wrapped_gaussian(tone, max(broad / 8, fine / 4), grid), wrapped_gaussian(tone, broad / 2, grid)
    spread = max(float((middle - slow).std()), 1e-3)
    shape = (middle - between) * np.float32(middle_weight) + (between - slow) * np.float32(broad_weight)
    relief = np.tanh(shape / np.float32(2.5 * spread)) * np.float32(0.5 * rise)
    relief += (tone - middle) * np.float32(grain * 0.2 * rise / spread)
    if sharpen > 0:
        relief += np.float32(sharpen) * (relief - wrapped_gaussian(relief, sharpen_radius / 2, grid))
    return np.asarray(-relief if dark_is_high else relief, np.float32)


def _without(tone: Raster, colour: Raster, left_out: str, reach: float, sigma_mm: float, grid: Grid) -> Raster:
    """Tone in which pixels of a colour take the local tone of the others; reach 1 is 100 in CIELAB."""
    away = np.linalg.norm(lab_of(colour) - lab_of(hex_to_linear(left_out)), axis=2).astype(np.float32)
    kept = np.clip(away / np.float32(100 * reach) - np.float32(0.5), 0, 1)
    share = np.maximum(wrapped_gaussian(kept, sigma_mm, grid), np.float32(1e-3))
    local = wrapped_gaussian(tone * kept, sigma_mm, grid) / share
    return np.asarray(tone * kept + local * (1 - kept), np.float32)


@operation("estimate.roughness", label="Roughness from the picture")
def roughness_from_colour(
    grid: Grid,
    colour: Colour,
    *,
    mean: Annotated[float, Fraction(help="Mean roughness.")] = 0.65,
    contrast: Annotated[
        float, Fraction(-1, 1, help="How far lighter parts are rougher; below 0 they are smoother.")
    ] = 0.3,
) -> Field:
    """Roughness in [0, 1]: a mean, moved by local lightness."""
    tone = encode_srgb(np.clip(luminance(colour), 0, 1)).astype(np.float32)
    return np.asarray(np.clip(mean + contrast * (tone - tone.mean()), 0.02, 1), np.float32)
