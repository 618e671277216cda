"""Uneven light taken out of a straightened photo."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import cv2
import numpy as np
import numpy.typing as npt
from scipy.fft import dctn

from ..colour import luminance
from ..operation import Colour, Fraction, Length, Toggle, operation
from ..sheet import AnyArray, Grid, Raster


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
    as_needed: Annotated[
        bool,
        Toggle(help="Takes out a lamp's fall-off where the picture shows one, and nothing else; off to say how much."),
    ] = False,
    wavelength: Annotated[
        float,
        Length(
            20, 2000, log=True, least=1, help="Drift broader than this is taken for light, finer detail for surface."
        ),
    ] = 300.0,
    strength: Annotated[float, Fraction(help="0 leaves the light as it fell, 1 takes it out.")] = 0.0,
    contrast: Annotated[
        float,
        Fraction(
            help="How far contrast that drifts is brought alike too, as on a side that a lamp washes out. "
            "As needed: only where it fades with the light."
        ),
    ] = 0.0,
) -> Colour:
    """Divide out broad drift of colour in linear light, and of contrast; the mean colour stays.

    Works on the flat photo, before it repeats, so its edges are mirrored and not wrapped.
    """
    if as_needed:
        seen = np.asarray(colour)
        strength = float(fall_off(seen).of_light)
        contrast = contrast if strength and veiled(seen) else 0.0
        # So broad that nothing on it counts.
        wavelength = min(2000.0, 0.75 * max(grid.width_mm, grid.height_mm))
    if strength <= 0 and contrast <= 0:
        return colour
    sigma = wavelength / 4 / grid.pitch_mm
    slow = np.maximum(slow_part(np.asarray(colour), sigma), 1e-4)
    mean = colour.reshape(-1, 3).mean(0)
    evened = colour * (mean / slow) ** np.float32(strength)
    if contrast > 0:
        evened = alike_in_contrast(np.asarray(evened, np.float32), sigma, contrast)
    return np.asarray(evened * (mean / np.maximum(evened.reshape(-1, 3).mean(0), 1e-6)), np.float32)


def alike_in_contrast(colour: Raster, sigma_px: float, share: float) -> Raster:
    """Colour (H, W, 3) whose detail is as strong everywhere as it usually is, in logarithms of linear light: a share of
    what it drifts by is taken out, never more than twice.
    """
    tone = np.log(np.maximum(luminance(colour), 1e-4)).astype(np.float32)
    base = slow_part(tone, sigma_px / 2)
    detail = tone - base
    power = slow_part(detail * detail, sigma_px)
    usual = float(np.median(power))
    gain = np.clip((usual / np.maximum(power, 1e-9)) ** np.float32(0.5 * share), 0.5, 2.0)
    return np.asarray(colour * np.exp(detail * (gain - 1))[..., None], np.float32)


def veiled(colour: Raster) -> bool:
    """Whether contrast fades as the light of linear colour (H, W, 3) grows, as under a lamp that washes a side out.

    Light alone leaves the logarithm's contrast as it is; stray light that is added to it does not.
    """
    small = cv2.resize(luminance(colour), (_FINE, _FINE), interpolation=cv2.INTER_AREA)
    tone = np.log(np.maximum(small, 1e-4)).astype(np.float32)
    side = _FINE // _CELLS
    detail = tone - cv2.GaussianBlur(tone, (0, 0), side / 3, borderType=cv2.BORDER_REFLECT)

    def cells(pixels: AnyArray) -> npt.NDArray[np.float64]:
        return np.asarray(pixels.reshape(_CELLS, side, _CELLS, side).mean((1, 3)).ravel(), np.float64)

    _, _, plane = _bent_plane()
    levels, spread = cells(tone), 0.5 * np.log(np.maximum(cells(detail * detail), 1e-12))
    # Against the light alone: what is darker by itself may be rougher too.
    light = plane @ np.linalg.lstsq(plane, levels - levels.mean(), rcond=None)[0]
    if np.ptp(light) < 1e-3 or np.ptp(spread) < 1e-3:
        return False
    fades = float(np.corrcoef(light, spread)[0, 1]) < -_FADES
    slope = float(np.polyfit(light, spread, 1)[0])
    return fades and -slope * float(np.ptp(light)) > _WORTH_CONTRAST


_FADES, _WORTH_CONTRAST = 0.65, 0.25
"""How surely contrast has to fade with the light, and by how much in logarithms, to be brought alike."""


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


@dataclass(frozen=True, slots=True)
class FallOff:
    """A slow, smooth change of light over a sheet: how much brighter its brightest is than its darkest, less 1, and how
    far what lies between edges bears out what the broad tones say (1 wholly).
    """

    amount: float
    borne_out: float

    @property
    def of_light(self) -> bool:
        """Whether it is that of a lamp or a window, and worth taking out, rather than planks or patches."""
        return self.amount > _WORTH and self.borne_out > _MOSTLY


_WORTH, _MOSTLY = 0.12, 0.6
_FINE, _CELLS = 256, 8


def _bent_plane() -> tuple[npt.NDArray[np.float64], npt.NDArray[np.float64], npt.NDArray[np.float64]]:
    """Places x and y of cells over a sheet from −1 to 1, (N,), and the terms of a bent plane there, (N, 5)."""
    line = (np.arange(_CELLS) + 0.5) / _CELLS * 2 - 1
    y, x = (one.ravel() for one in np.meshgrid(line, line, indexing="ij"))
    return x, y, np.stack([x, y, x * y, x * x, y * y], 1)


def fall_off(colour: Raster) -> FallOff:
    """Of linear colour (H, W, 3).

    Light changes within things too, planks of many tones only from one to the next: a bent plane is laid through the
    logarithm of brightness, and another through its usual slopes, which edges between things do not move. What both say
    is light.
    """
    small = cv2.resize(luminance(colour), (_FINE, _FINE), interpolation=cv2.INTER_AREA)
    tone = cv2.GaussianBlur(np.log(np.maximum(small, 1e-4)), (0, 0), 2.0, borderType=cv2.BORDER_REFLECT)
    side = _FINE // _CELLS

    def usual(pixels: AnyArray) -> npt.NDArray[np.float64]:
        cells = pixels.reshape(_CELLS, side, _CELLS, side).swapaxes(1, 2).reshape(_CELLS * _CELLS, -1)
        return np.asarray(np.median(cells, 1), np.float64)

    down, across = np.gradient(tone)
    x, y, plane = _bent_plane()
    zero, one = np.zeros_like(x), np.ones_like(x)
    slopes = np.concatenate([np.stack([one, zero, y, 2 * x, zero], 1), np.stack([zero, one, x, zero, 2 * y], 1)])
    found = _FINE / 2 * np.concatenate([usual(across), usual(down)])
    by_slope = plane @ np.linalg.lstsq(slopes, found, rcond=None)[0]
    levels = usual(tone)
    by_tone = plane @ np.linalg.lstsq(plane, levels - levels.mean(), rcond=None)[0]
    by_slope, by_tone = by_slope - by_slope.mean(), by_tone - by_tone.mean()
    both = float(by_slope @ by_tone) / max(float(by_slope @ by_slope), float(by_tone @ by_tone), 1e-12)
    return FallOff(float(np.expm1(min(np.ptp(by_slope), np.ptp(by_tone)))), both)
