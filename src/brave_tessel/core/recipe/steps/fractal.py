"""More noise: lattice values, ridges, billows, warped clouds, and noise made from its spectrum."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial
from typing import Annotated

import numpy as np
import scipy.fft

from ...kernels.bands import by_strips
from ...kernels.noise import add_gradient, add_triangular
from ...kernels.wrapped import sample_moved
from ...lattice import is_earlier, units_many, whole_periods
from ...operation import Angle, Choice, Field, Fraction, Length, Seed, Whole, operation
from ...repeat.resample import resample_wrapped
from ...sheet import Grid, Raster
from ..wave_noise import wave_octave
from .noise import clouds

Size = Annotated[
    float,
    Length(
        2,
        1000,
        log=True,
        least=0.1,
        help="Broadest features, crest to crest; snapped so that whole ones fill the repeat.",
    ),
]
Octaves = Annotated[int, Whole(1, 10, help="How many times finer features are added, each half the size.")]
Gain = Annotated[
    float, Fraction(0.2, 0.9, least=0, most=1, help="Strength of each finer octave against the one before.")
]
_GRADIENT_SD = 0.2147


def shown(wavelength_mm: float, grid: Grid) -> float:
    """How far features of a wavelength can be shown: those finer than two samples fade out instead of aliasing."""
    return min(1.0, max(0.0, wavelength_mm / grid.pitch_mm / 2 - 1))


def lattice_values(grid: Grid, nx: int, ny: int, seed: int) -> Raster:
    """Random values of an ``nx`` × ``ny`` lattice, joined by the quintic fade; [0, 1]."""
    values = units_many(*np.meshgrid(np.arange(nx), np.arange(ny)), seed).astype(np.float32)

    def places(count: int, cells: int) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        at = (np.arange(count) + 0.5) * cells / count
        low = np.floor(at).astype(np.int64)
        t = at - low
        return low % cells, (low + 1) % cells, (t**3 * (t * (t * 6 - 15) + 10)).astype(np.float32)

    x0, x1, tx = places(grid.width_px, nx)
    y0, y1, ty = places(grid.height_px, ny)
    rows = values[:, x0] + tx * (values[:, x1] - values[:, x0])
    made = rows[y0] + ty[:, None] * (rows[y1] - rows[y0])
    return np.ascontiguousarray(made[::-1], np.float32)


def _octaves(grid: Grid, size: float, octaves: int, seed: int) -> Iterator[tuple[Raster, float]]:
    """Each octave of noise with unit spread, and how far it can be shown."""
    nx, ny = whole_periods(grid.width_mm, size), whole_periods(grid.height_mm, size)
    for octave in range(octaves):
        wavelength = min(grid.width_mm / nx, grid.height_mm / ny) / 2**octave
        part = shown(wavelength, grid)
        if part <= 0:
            out = np.zeros(grid.shape, np.float32)
        elif is_earlier():
            # Creases of this stand in columns, which is why it is no longer used.
            out = np.zeros(grid.shape, np.float32)
            add_gradient(out, nx << octave, ny << octave, seed + 101 * octave, 1 / _GRADIENT_SD)
        else:
            out = wave_octave(grid, wavelength, seed + 101 * octave)
        yield out, part


@operation("noise.value", label="Blotches", version=2, rehashed=True)
def blotches(
    grid: Grid, *, size: Size = 80.0, octaves: Octaves = 4, gain: Gain = 0.5, seed: Annotated[int, Seed()] = 1
) -> Field:
    """Fractal value noise in [0, 1]: random values of a lattice, joined smoothly (Perlin 2002's fade)."""
    nx, ny = whole_periods(grid.width_mm, size), whole_periods(grid.height_mm, size)
    total, power = np.zeros(grid.shape, np.float32), 0.0
    for octave in range(octaves):
        wavelength = min(grid.width_mm / nx, grid.height_mm / ny) / 2**octave
        strength = gain**octave
        power += strength
        part = shown(wavelength, grid)
        values = (
            lattice_values(grid, nx << octave, ny << octave, seed + 57 * octave) - np.float32(0.5) if part > 0 else 0
        )
        total += np.float32(strength * part) * values
    return np.asarray(total / np.float32(power) + np.float32(0.5), np.float32)


@operation("noise.ridged", label="Ridges", version=2, rehashed=True)
def ridged(
    grid: Grid,
    *,
    size: Size = 120.0,
    octaves: Octaves = 5,
    gain: Gain = 0.5,
    sharp: Annotated[float, Fraction(0.5, 4, least=0.1, most=8, help="How narrow the crests are.")] = 1.5,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Ridged multifractal noise in [0, 1]: crests where noise of one wavelength crosses zero, finer ones strongest upon
    the broad (Musgrave, "Texturing and Modeling", chapter 16).
    """
    # Beside the total lies the weight of the next octave.
    made, power = np.zeros((*grid.shape, 2), np.float32), 0.0
    made[..., 1] = 1
    for octave, (noise, part) in enumerate(_octaves(grid, size, octaves, seed)):
        strength = np.float32(gain**octave)
        power += float(strength)
        made = by_strips(partial(_ridge, strength=strength, part=part, sharp=sharp), made, noise)
    return by_strips(lambda made: np.clip(made[..., 0] / np.float32(power), 0, 1), made)


def _ridge(made: Raster, noise: Raster, *, strength: np.float32, part: float, sharp: float) -> Raster:
    crest = np.clip(1 - np.abs(noise) * np.float32(0.55), 0, 1) ** np.float32(sharp)
    middle = np.float32(0.55)
    after, weight = np.empty_like(made), made[..., 1]
    after[..., 0] = made[..., 0] + strength * (middle + np.float32(part) * (crest - middle)) * weight
    after[..., 1] = np.clip(crest * 1.4, 0, 1) if part > 0 else weight
    return after


@operation("noise.billowed", label="Billows", version=2, rehashed=True)
def billowed(
    grid: Grid, *, size: Size = 90.0, octaves: Octaves = 5, gain: Gain = 0.5, seed: Annotated[int, Seed()] = 1
) -> Field:
    """Rounded swellings with creases between, in [0, 1]: the magnitude of noise, octave by octave."""
    total, power = np.zeros(grid.shape, np.float32), 0.0
    for octave, (noise, part) in enumerate(_octaves(grid, size, octaves, seed)):
        strength = np.float32(gain**octave)
        power += float(strength)
        total = by_strips(partial(_billow, strength=strength, part=part), total, noise)
    return by_strips(lambda total: np.clip(total / np.float32(2.2 * power), 0, 1), total)


def _billow(total: Raster, noise: Raster, *, strength: np.float32, part: float) -> Raster:
    middle = np.float32(0.8)
    made: Raster = total + strength * (middle + np.float32(part) * (np.abs(noise) - middle))
    return made


@operation("noise.warped", label="Warped clouds", version=2, rehashed=True)
def warped(
    grid: Grid,
    *,
    size: Size = 120.0,
    octaves: Octaves = 6,
    gain: Gain = 0.5,
    shove: Annotated[
        float, Length(0, 200, least=0, help="How far places are moved by other clouds before they are read.")
    ] = 40.0,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Clouds whose places are moved by two other clouds: marbled, folded shapes in [0, 1]."""
    plain = clouds(grid, size=size, octaves=octaves, gain=gain, seed=seed)
    right, up = (
        clouds(grid, size=size, octaves=3, gain=0.5, seed=seed + salt) - np.float32(0.5) for salt in (1009, 2003)
    )
    return sample_moved(plain, right * np.float32(2 * shove), up * np.float32(2 * shove), grid)


_TRIANGLE_SD = 0.0344
"""Standard deviation of one octave on the triangular lattice; a tested property."""


@operation("noise.simplex", label="Even clouds", version=2, rehashed=True)
def even_clouds(
    grid: Grid, *, size: Size = 100.0, octaves: Octaves = 5, gain: Gain = 0.5, seed: Annotated[int, Seed()] = 1
) -> Field:
    """Fractal gradient noise on a triangular lattice, in [0, 1], mean 0.5: like clouds, without their slight lean to
    level and upright (after Perlin's simplex noise, 2001).
    """
    nx = whole_periods(grid.width_mm, size)
    spacing = grid.width_mm / nx
    ny = 2 * whole_periods(grid.height_mm, math.sqrt(3) * spacing)
    total, power = np.zeros(grid.shape, np.float32), 0.0
    for octave in range(octaves):
        power += gain ** (2 * octave)
        part = shown(spacing / 2**octave, grid)
        if part > 0:
            add_triangular(
                total,
                nx << octave,
                ny << octave,
                grid.height_mm / ny / spacing,
                seed + 211 * octave,
                gain**octave * part,
            )
    total *= np.float32(1 / (5 * _TRIANGLE_SD * math.sqrt(power)))
    return np.asarray(np.clip(total + np.float32(0.5), 0, 1), np.float32)


def _waves(grid: Grid, shortest_mm: float) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """Every wave of the repeat down to a length, of one half of the plane: kx ≥ 0, ky, and cycles a mm across and
    up.
    """
    most_x = min(int(grid.width_mm / shortest_mm), (grid.width_px - 1) // 2)
    most_y = min(int(grid.height_mm / shortest_mm), (grid.height_px - 1) // 2)
    kx, ky = np.meshgrid(np.arange(most_x + 1), np.arange(-most_y, most_y + 1))
    keep = (kx > 0) | (ky > 0)
    kx, ky = kx[keep], ky[keep]
    return kx, ky, kx / grid.width_mm, ky / grid.height_mm


def _synthesised(grid: Grid, kx: np.ndarray, ky: np.ndarray, strength: np.ndarray, power: float, seed: int) -> Raster:
    """The sum of waves of given strengths with random phases, mean 0 and spread 1 if all of ``power`` is there."""
    phase = 2 * math.pi * units_many(kx, ky % 65_536, seed).astype(np.float64)
    spectrum = np.zeros((grid.height_px, grid.width_px // 2 + 1), np.complex64)
    # Rows count down, ky up: the sign is turned so that a wave is the same at every size.
    half = (kx / grid.width_px - (ky / grid.height_px)) * math.pi
    value = strength * np.exp(1j * (phase + half)) * (grid.width_px * grid.height_px / math.sqrt(2 * power))
    spectrum[(-ky) % grid.height_px, kx] = value
    mirror = kx == 0
    spectrum[ky[mirror] % grid.height_px, 0] = np.conj(value[mirror])
    return np.asarray(scipy.fft.irfft2(spectrum, s=grid.shape, workers=2), np.float32)


@operation("noise.spectrum", label="Noise of a slope", version=2, rehashed=True)
def spectrum(
    grid: Grid,
    *,
    slope: Annotated[
        float,
        Fraction(
            0, 4, least=-2, most=6, help="How fast power falls with frequency: 0 white, 2 like terrain, 4 very smooth."
        ),
    ] = 2.0,
    broadest: Annotated[float, Length(5, 1000, log=True, least=0.5, help="Longest waves.")] = 300.0,
    finest: Annotated[float, Length(0.3, 100, log=True, least=0.05, help="Shortest waves.")] = 1.5,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Random waves of a band whose power falls by a slope, in [0, 1], mean 0.5; made from its spectrum.

    Power by 1 / f^slope in two dimensions (Voss 1985); the spectrum is exact on the wrapped sheet.
    """
    kx, ky, fx, fy = _waves(grid, max(finest, 0.4))
    f = np.hypot(fx, fy)
    band = (f >= 1 / broadest - 1e-12) & (f <= 1 / finest + 1e-12)
    if not band.any():
        return np.full(grid.shape, 0.5, np.float32)
    strength = f[band] ** (-slope / 2)
    power = _band_power(grid, slope, broadest, finest, float((strength**2).sum()))
    made = _synthesised(grid, kx[band], ky[band], strength, power, seed)
    return np.asarray(np.clip(made / 5 + np.float32(0.5), 0, 1), np.float32)


def _band_power(grid: Grid, slope: float, broadest: float, finest: float, seen: float) -> float:
    """Power of all waves of the band, also those too fine for the grid, so that no size is brighter."""
    most_x, most_y = int(grid.width_mm / finest), int(grid.height_mm / finest)
    if most_x <= (grid.width_px - 1) // 2 and most_y <= (grid.height_px - 1) // 2:
        return seen
    most_x, most_y = min(most_x, 4000), min(most_y, 4000)
    fx = np.arange(most_x + 1)[None, :] / grid.width_mm
    fy = np.arange(-most_y, most_y + 1)[:, None] / grid.height_mm
    square = fx * fx + fy * fy
    inside = (square >= broadest**-2) & (square <= finest**-2)
    inside[: most_y + 1, 0] = False
    return float((square[inside] ** (-slope / 2)).sum())


@operation("noise.oriented", label="Streaks", version=2, rehashed=True)
def oriented(
    grid: Grid,
    *,
    size: Annotated[
        float, Length(0.5, 200, log=True, least=0.1, help="Distance of the streaks, crest to crest.")
    ] = 8.0,
    angle: Annotated[float, Angle(-90, 90, help="Which way the streaks run, anticlockwise from the right.")] = 0.0,
    spread: Annotated[float, Angle(2, 90, help="How far their ways stray; 90 runs every way.")] = 12.0,
    variety: Annotated[float, Fraction(0.05, 1, least=0.02, most=2, help="How far their distances vary.")] = 0.35,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Noise of one wavelength and direction, in [0, 1]: what summed Gabor kernels give (Lagae et al. 2009), made from
    its spectrum, which is exact on the wrapped sheet.
    """
    kx, ky, fx, fy = _waves(grid, size / (1 + 3 * variety))
    f = np.hypot(fx, fy)
    # Streaks run across their waves.
    across = np.degrees(np.arctan2(fy, fx)) - angle - 90
    across = (across + 90) % 180 - 90
    strength = np.exp(-0.5 * ((f * size - 1) / variety) ** 2 - 0.5 * (across / spread) ** 2)
    keep = strength > 1e-4
    if not keep.any():
        return np.full(grid.shape, 0.5, np.float32)
    power = float((strength[keep] ** 2).sum())
    made = _synthesised(grid, kx[keep], ky[keep], strength[keep], power, seed) * np.float32(shown(size, grid))
    return np.asarray(np.clip(made / 5 + np.float32(0.5), 0, 1), np.float32)


@operation("noise.white", label="Grain", version=2, rehashed=True)
def grain(
    grid: Grid,
    *,
    size: Annotated[
        float,
        Length(0.1, 20, log=True, least=0.02, help="Size of a grain; snapped so that whole grains fill the repeat."),
    ] = 1.0,
    shape: Annotated[str, Choice("soft", "square", help="Whether grains run into each other.")] = "soft",
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Every grain a random value in [0, 1], none like its neighbour."""
    nx, ny = whole_periods(grid.width_mm, size), whole_periods(grid.height_mm, size)
    finest = min(grid.width_mm / nx, grid.height_mm / ny)
    over = math.ceil(1.6 * grid.pitch_mm / finest)
    if over > 4:
        return np.full(grid.shape, 0.5, np.float32)
    if over > 1:
        # Several grains fall on a sample: it takes their mean.
        fine = Grid(grid.width_px * over, grid.height_px * over, grid.width_mm, grid.height_mm)
        return resample_wrapped(grain(fine, size=size, shape=shape, seed=seed), grid.shape)
    if shape == "soft":
        made = lattice_values(grid, nx, ny, seed)
    else:
        x, y = (
            (np.arange(count) + 0.5) * cells / count for count, cells in ((grid.width_px, nx), (grid.height_px, ny))
        )
        values = units_many(*np.meshgrid(np.arange(nx), np.arange(ny)), seed)
        made = values[np.ix_(y.astype(np.int64), x.astype(np.int64))][::-1]
    return np.ascontiguousarray(made, np.float32)
