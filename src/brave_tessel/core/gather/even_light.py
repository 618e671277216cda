"""Uneven light taken out of a straightened photo."""

from __future__ import annotations

from typing import Annotated

import cv2
import numpy as np
from scipy.fft import dctn

from ..colour import luminance
from ..operation import Colour, Fraction, Length, operation
from ..sheet import Grid, Raster


def slow_part(pixels: Raster, sigma_px: float) -> Raster:
    """The broad part of an unwrapped picture: a Gaussian with mirrored edges, at reduced size."""
    step = max(1, int(sigma_px / 4))
    height, width = pixels.shape[:2]
    small = cv2.resize(pixels, (max(2, width // step), max(2, height // step)), interpolation=cv2.INTER_AREA)
    sigma = sigma_px / step
    blurred = cv2.GaussianBlur(small, (0, 0), sigma, borderType=cv2.BORDER_REFLECT)
    return np.asarray(cv2.resize(blurred, (width, height), interpolation=cv2.INTER_CUBIC), np.float32)


@operation("gather.even_light", label="Even out light")
def even_light(
    grid: Grid,
    colour: Colour,
    *,
    wavelength: Annotated[
        float,
        Length(
            20, 2000, log=True, least=1, help="Drift broader than this is taken for light, finer detail for surface."
        ),
    ] = 300.0,
    strength: Annotated[float, Fraction(help="0 leaves the light as it fell, 1 takes it out.")] = 0.0,
) -> Colour:
    """Divide out broad drift of colour in linear light; the mean colour stays.

    Works on the flat photo, before it repeats, so its edges are mirrored and not wrapped.
    """
    if strength <= 0:
        return colour
    slow = np.maximum(slow_part(np.asarray(colour), wavelength / 4 / grid.pitch_mm), 1e-4)
    mean = colour.reshape(-1, 3).mean(0)
    evened = colour * (mean / slow) ** np.float32(strength)
    return np.asarray(evened * (mean / np.maximum(evened.reshape(-1, 3).mean(0), 1e-6)), np.float32)


def light_drift(colour: Raster) -> float:
    """Spread of broad brightness across a sheet, (brightest − darkest) / mean, in linear light.

    The slowest cosine terms (up to one wave a sheet) count, less what the sheet's own pattern has at
    three to six half waves: large stones are not taken for light.
    """
    y = cv2.resize(luminance(colour), (_SIDE, _SIDE), interpolation=cv2.INTER_AREA).astype(np.float64)
    power = dctn(y / max(1e-6, float(y.mean())), norm="ortho") ** 2
    rank = np.hypot(*np.mgrid[0:_SIDE, 0:_SIDE])
    chance = float(power[(rank >= 3) & (rank <= 6)].mean())
    slow = power[(rank > 0) & (rank <= 2)]
    return float(2 * np.sqrt(2 * np.maximum(slow - chance, 0).sum()) / _SIDE)


_SIDE = 32
