"""Further adjusting steps: curves, steps, histograms."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...kernels.bands import pointwise
from ...operation import Field, Fraction, Whole, operation
from ...sheet import Grid

_BINS = 2048


@operation("adjust.invert", label="Invert")
def invert(grid: Grid, field: Field) -> Field:
    """1 less the field."""
    return np.asarray(np.float32(1) - field, np.float32)


@operation("adjust.threshold", label="Soft threshold")
@pointwise
def threshold(
    grid: Grid,
    field: Field,
    *,
    at: Annotated[float, Fraction(least=-10, most=10, help="What becomes a half.")] = 0.5,
    soft: Annotated[float, Fraction(0, 1, least=0, most=10, help="Width of the way from 0 to 1.")] = 0.1,
) -> Field:
    """0 below, 1 above, smooth between."""
    t = np.clip((field - np.float32(at)) / np.float32(max(soft, 1e-5)) + np.float32(0.5), 0, 1)
    return np.asarray(t * t * (3 - 2 * t), np.float32)


@operation("adjust.clamp", label="Clamp")
def clamp(
    grid: Grid,
    field: Field,
    *,
    low: Annotated[float, Fraction(least=-1e6, most=1e6, help="Nothing is below this.")] = 0.0,
    high: Annotated[float, Fraction(least=-1e6, most=1e6, help="Nothing is above this.")] = 1.0,
) -> Field:
    """Cut off below and above."""
    return np.clip(field, np.float32(min(low, high)), np.float32(max(low, high)))


@operation("adjust.bias", label="Gain and bias")
@pointwise
def bias(
    grid: Grid,
    field: Field,
    *,
    bias: Annotated[float, Fraction(0.02, 0.98, least=0.001, most=0.999, help="What the middle becomes.")] = 0.5,
    gain: Annotated[
        float,
        Fraction(
            0.02, 0.98, least=0.001, most=0.999, help="Below a half flattens the middle, above it flattens the ends."
        ),
    ] = 0.5,
) -> Field:
    """Perlin and Hoffert's bias and gain in Schlick's rational form (Graphics Gems IV, 1994), on [0, 1]."""
    t = np.clip(field, 0, 1).astype(np.float64)
    t = t / ((1 / bias - 2) * (1 - t) + 1)
    low = t / ((1 / gain - 2) * (1 - 2 * t) + 1)
    high = ((1 / gain - 2) * (1 - 2 * t) - t) / ((1 / gain - 2) * (1 - 2 * t) - 1)
    return np.asarray(np.where(t < 0.5, low, high), np.float32)


@operation("adjust.curve", label="Curve")
@pointwise
def curve(
    grid: Grid,
    field: Field,
    *,
    dark: Annotated[float, Fraction(help="What a quarter becomes.")] = 0.25,
    middle: Annotated[float, Fraction(help="What a half becomes.")] = 0.5,
    light: Annotated[float, Fraction(help="What three quarters become.")] = 0.75,
) -> Field:
    """A smooth curve through 0, three points and 1, monotone between them (Fritsch and Carlson 1980)."""
    from scipy.interpolate import PchipInterpolator

    table = PchipInterpolator([0, 0.25, 0.5, 0.75, 1], [0, dark, middle, light, 1])(np.linspace(0, 1, _BINS))
    return np.asarray(np.interp(np.clip(field, 0, 1), np.linspace(0, 1, _BINS), table), np.float32)


@operation("adjust.posterise", label="Posterise")
@pointwise
def posterise(
    grid: Grid,
    field: Field,
    *,
    steps: Annotated[int, Whole(2, 24, most=256, help="How many tones are left.")] = 5,
    soft: Annotated[float, Fraction(help="How soft the way from one tone to the next is.")] = 0.1,
) -> Field:
    """Even steps of a field in [0, 1]."""
    at = np.clip(field, 0, 1) * np.float32(steps - 1)
    low = np.floor(at)
    t = np.clip((at - low - np.float32(0.5)) / np.float32(max(soft, 1e-3)) + np.float32(0.5), 0, 1)
    return np.asarray((low + t * t * (3 - 2 * t)) / np.float32(steps - 1), np.float32)


@operation("adjust.normalise", label="Normalise")
def normalise(
    grid: Grid,
    field: Field,
    *,
    cut: Annotated[float, Fraction(0, 0.2, least=0, most=0.49, help="Share cut off at either end.")] = 0.01,
) -> Field:
    """Stretch to [0, 1] by percentiles; the rest is cut off."""
    low, high = np.quantile(field, [cut, 1 - cut])
    return np.asarray(np.clip((field - np.float32(low)) / np.float32(max(high - low, 1e-9)), 0, 1), np.float32)


@operation("adjust.equalise", label="Equalise")
def equalise(grid: Grid, field: Field) -> Field:
    """Every value as often as every other: each becomes its share of the sheet that is lower."""
    low, high = float(field.min()), float(field.max())
    if high - low < 1e-9:
        return np.full(grid.shape, 0.5, np.float32)
    counts, edges = np.histogram(field, _BINS, (low, high))
    shares = np.concatenate([[0], np.cumsum(counts)]) / field.size
    return np.asarray(np.interp(field, edges, shares), np.float32)


@operation("adjust.match", label="Match histogram")
def match(grid: Grid, field: Field, like: Field) -> Field:
    """The first field with the values of the second: rank for rank."""
    ranks = np.linspace(0, 1, _BINS)
    here, there = np.quantile(field, ranks), np.quantile(like, ranks)
    here = np.maximum.accumulate(here + ranks * 1e-9)
    return np.asarray(np.interp(field, here, there), np.float32)
