"""Colour in linear light with sRGB primaries, its encoding, lightness and reflectance.

Sources: IEC 61966-2-1 (transfer), CIE 15 (L*), ITU-R BT.709 (luminance weights).
"""

from __future__ import annotations

from functools import cache

import numpy as np
import numpy.typing as npt

from .sheet import AnyArray, Raster

LUMINANCE = np.array([0.2126, 0.7152, 0.0722], np.float32)
PLAUSIBLE_LINEAR = (0.0130, 0.871)
"""Base colour of dielectrics: 8-bit sRGB 30 to 240 (common practice)."""

_CODES = np.arange(65_536, dtype=np.float64) / 65_535


def decode_srgb(encoded: npt.ArrayLike) -> npt.NDArray[np.float64]:
    """Linear light from sRGB values in [0, 1]; IEC 61966-2-1."""
    value = np.asarray(encoded, np.float64)
    return np.where(value <= 0.04045, value / 12.92, ((np.maximum(value, 0.0) + 0.055) / 1.055) ** 2.4)


def encode_srgb(linear: npt.ArrayLike) -> npt.NDArray[np.float64]:
    """SRGB values from linear light in [0, 1]; IEC 61966-2-1."""
    value = np.asarray(linear, np.float64)
    return np.where(value <= 0.0031308, value * 12.92, 1.055 * np.maximum(value, 0.0) ** (1 / 2.4) - 0.055)


_LINEAR_OF_8 = decode_srgb(np.arange(256) / 255).astype(np.float32)
_LINEAR_OF_16 = decode_srgb(_CODES).astype(np.float32)
_FINE = (1 << 20) - 1
_EIGHT_OF_LINEAR = np.rint(encode_srgb(_CODES) * 255).astype(np.uint8)


@cache
def _eight_fine() -> AnyArray:
    """8-bit codes of twenty bits of linear light: at black there are four hundred steps a code."""
    return np.rint(encode_srgb((np.arange(_FINE + 1) + 0.5) / _FINE) * 255).astype(np.uint8)


def linear_from_codes(codes: AnyArray) -> Raster:
    """Linear float32 from 8-bit or 16-bit sRGB codes, by table."""
    return (_LINEAR_OF_8 if codes.dtype == np.uint8 else _LINEAR_OF_16)[codes]


def codes_from_linear(linear: Raster, *, depth: int = 8) -> AnyArray:
    """SRGB codes of 8 or 16 bits from linear light; values outside [0, 1] are clipped."""
    clipped = np.clip(linear, 0.0, 1.0)
    if depth == 8:
        return np.asarray(_eight_fine()[(clipped * np.float32(_FINE)).astype(np.int32)], np.uint8)
    return np.rint(encode_srgb(clipped) * 65_535).astype(np.uint16)


def display_codes(linear: Raster) -> AnyArray:
    """8-bit sRGB for the screen by table: quick, within one code below 8-bit grey 10."""
    index = (np.clip(linear, 0.0, 1.0) * np.float32(65_535)).astype(np.uint16)
    return _EIGHT_OF_LINEAR[index]


def luminance(linear: Raster) -> Raster:
    """Relative luminance Y of (H, W, 3) linear light; (H, W)."""
    return np.asarray(linear @ LUMINANCE, np.float32)


def lightness(relative_luminance: AnyArray) -> AnyArray:
    """CIE L* of relative luminance Y in [0, 1] (CIE 15)."""
    y = np.asarray(relative_luminance, np.float64)
    return np.where(y > (6 / 29) ** 3, 116 * np.cbrt(y) - 16, y * (29 / 3) ** 3)


def hex_to_linear(text: str) -> tuple[float, float, float]:
    """Linear colour of ``#RRGGBB``."""
    values = decode_srgb([int(text[i : i + 2], 16) / 255 for i in (1, 3, 5)])
    return float(values[0]), float(values[1]), float(values[2])


def linear_to_hex(colour: tuple[float, float, float]) -> str:
    """``#RRGGBB`` of a linear colour."""
    codes = codes_from_linear(np.asarray(colour, np.float32))
    return "#" + "".join(f"{int(code):02X}" for code in codes)


def implausible_share(base_colour: Raster) -> float:
    """Share of pixels whose luminance lies outside what dielectrics reflect (common practice)."""
    y = luminance(base_colour)
    low, high = PLAUSIBLE_LINEAR
    return float(np.mean((y < low) | (y > high)))
