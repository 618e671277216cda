"""Noise steps: functions of position in mm, hashed on lattice cells."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ...kernels.noise import Octave, cells, fractal_gradient
from ...lattice import whole_periods
from ...operation import Choice, Field, Fraction, Length, Seed, Whole, operation
from ...sheet import Grid

# Standard deviation of gradient noise with unit gradients in the plane; a tested property.
_GRADIENT_SD = 0.2147


@operation("noise.clouds", label="Clouds", version=2, rehashed=True)
def clouds(
    grid: Grid,
    *,
    size: Annotated[
        float,
        Length(
            2,
            1000,
            log=True,
            least=0.1,
            help="Broadest patches, crest to crest; snapped so that whole patches fill the repeat.",
        ),
    ] = 120.0,
    octaves: Annotated[int, Whole(1, 10, help="How many times finer patches are added, each half the size.")] = 6,
    gain: Annotated[
        float, Fraction(0.2, 0.9, least=0, most=1, help="Strength of each finer octave against the one before.")
    ] = 0.55,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Fractal gradient noise in [0, 1], mean 0.5.

    Perlin, "Improving Noise" (SIGGRAPH 2002), unit gradients; amplitude ratio as Musgrave (Texturing
    and Modeling). An octave finer than two samples fades out instead of aliasing.
    """
    nx, ny = whole_periods(grid.width_mm, size), whole_periods(grid.height_mm, size)
    power = math.fsum(gain ** (2 * octave) for octave in range(octaves))
    made = []
    for octave in range(octaves):
        wavelength = min(grid.width_mm / nx, grid.height_mm / ny) / 2**octave
        shown = min(1.0, max(0.0, wavelength / grid.pitch_mm / 2 - 1))
        if shown > 0:
            made.append(Octave(nx << octave, ny << octave, seed + 101 * octave, gain**octave * shown))
    # Two and a half standard deviations either way span the range; the rare rest is clipped.
    return fractal_gradient(grid.shape, made, 1 / (5 * _GRADIENT_SD * math.sqrt(power)))


@operation("noise.ripples", label="Ripples")
def ripples(
    grid: Grid,
    *,
    spacing: Annotated[
        float,
        Length(0.5, 500, log=True, least=0.05, help="Crest to crest; snapped so that whole waves fill the repeat."),
    ] = 12.0,
    crest: Annotated[float, Fraction(help="0 rounded, 1 a narrow crest.")] = 0.0,
    upright: Annotated[str, Choice("upright", "across", help="Which way the ridges run.")] = "upright",
) -> Field:
    """Parallel ridges, height in [0, 1]."""
    standing = upright == "upright"
    length = grid.width_mm if standing else grid.height_mm
    position = grid.x_mm() if standing else grid.y_mm()
    count = whole_periods(length, spacing)
    shown = min(1.0, max(0.0, length / count / grid.pitch_mm / 2 - 1))
    wave = (0.5 + 0.5 * np.cos(2 * math.pi * count * position / length)) ** (1 + 5 * crest)
    line = (wave.mean() + shown * (wave - wave.mean())).astype(np.float32)
    return np.ascontiguousarray(np.broadcast_to(line if standing else line[:, None], grid.shape))


@operation("noise.pebbles", label="Pebbles", version=2, rehashed=True)
def pebbles(
    grid: Grid,
    *,
    size: Annotated[
        float,
        Length(
            1,
            300,
            log=True,
            least=0.1,
            help="Mean spacing of the stones; snapped so that whole stones fill the repeat.",
        ),
    ] = 18.0,
    jitter: Annotated[float, Fraction(help="0 set in rows, 1 strewn.")] = 0.9,
    roundness: Annotated[float, Fraction(help="0 domed to the rim, 1 flat on top.")] = 0.35,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Packed rounded stones, height in [0, 1].

    From the distances to the nearest and second nearest cell point (Worley 1996).
    """
    nx, ny = whole_periods(grid.width_mm, size), whole_periods(grid.height_mm, size)
    first, second, _ = cells(grid, nx, ny, jitter=jitter, seed=seed)
    gap = np.clip((second - first) * np.float32(1.6), 0, 1)
    dome = np.sqrt(np.clip(1 - (1 - gap) ** 2, 0, 1))
    return np.asarray(dome ** np.float32(1 - 0.7 * roundness), np.float32)
