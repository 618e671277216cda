"""Colour put right on the flat sheet: a white or grey card, and a tint that keeps the tones."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ..colour import LUMINANCE, hex_to_linear, luminance
from ..operation import Colour, Fraction, Paint, called, operation
from ..sheet import Grid, Raster


@operation("gather.balance", label="White and grey")
def balance(
    grid: Grid,
    colour: Colour,
    *,
    neutral: Annotated[
        str, Paint(help="How something that is really grey or white looks on the photo; picked on it.")
    ] = "#FFFFFF",
    reflects: Annotated[
        float,
        called(
            "Card reflectance",
            Fraction(help="What a grey card there reflects, 0.18 for most; 0 leaves the exposure as it is."),
        ),
    ] = 0.0,
) -> Colour:
    """Scale the channels so that the picked place becomes neutral; von Kries, in linear light.

    Without a reflectance the picked place keeps its luminance, with one the whole picture is exposed
    by it, so that base colour is true.
    """
    seen = np.maximum(np.array(hex_to_linear(neutral), np.float32), 1e-4)
    target = np.float32(reflects) if reflects > 0 else np.float32(seen @ LUMINANCE)
    if neutral == "#FFFFFF" and reflects <= 0:
        return colour
    return np.asarray(colour * (target / seen), np.float32)


@operation("gather.tint", label="Tint")
def tint(
    grid: Grid,
    colour: Colour,
    *,
    tint: Annotated[str, Paint(help="The mean colour the sheet should have; pick it on any board.")] = "#808080",
    amount: Annotated[float, Fraction(help="0 leaves the colours, 1 gives every tone the tint.")] = 0.0,
    contrast: Annotated[
        float, Fraction(0, 2, most=4, help="How far the tones vary about the tint; 1 as on the picture.")
    ] = 1.0,
) -> Colour:
    """Give a sheet a mean colour while its tonal variation stays.

    The tint is multiplied with each pixel's luminance over the mean one. Where that would pass white
    it is held there, and the rest is raised until the mean is the tint again.
    """
    if amount <= 0:
        return colour
    tone = luminance(colour)
    ratio = np.maximum(1 + np.float32(contrast) * (tone / max(float(tone.mean()), 1e-6) - 1), 0)
    wanted = np.array(hex_to_linear(tint), np.float32)
    out = np.empty_like(colour)
    for channel in range(3):
        out[..., channel] = _with_mean(ratio, float(wanted[channel]))
    return np.asarray(colour + (out - colour) * np.float32(amount), np.float32)


def _with_mean(ratio: Raster, mean: float) -> Raster:
    """``ratio`` times what makes its mean ``mean`` while nothing passes 1."""
    low, high = mean, 64 * max(mean, 1e-3)
    sample = ratio[::3, ::3]
    for _ in range(24):
        middle = 0.5 * (low + high)
        if float(np.minimum(sample * middle, 1).mean()) < mean:
            low = middle
        else:
            high = middle
    return np.asarray(np.minimum(ratio * np.float32(0.5 * (low + high)), 1), np.float32)
