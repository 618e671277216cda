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


_XYZ = np.array(
    [[0.4123908, 0.3575843, 0.1804808], [0.2126390, 0.7151687, 0.0721923], [0.0193308, 0.1191948, 0.9505322]]
)
_WHITE = _XYZ.sum(1)


def lab_of(linear: npt.ArrayLike) -> npt.NDArray[np.float64]:
    """CIE L*a*b* (D65) of linear sRGB (…, 3); CIE 15."""
    xyz = np.maximum(np.asarray(linear, np.float64) @ _XYZ.T / _WHITE, 0)
    f = np.where(xyz > (6 / 29) ** 3, np.cbrt(xyz), xyz * (29 / 6) ** 2 / 3 + 4 / 29)
    return np.stack([116 * f[..., 1] - 16, 500 * (f[..., 0] - f[..., 1]), 200 * (f[..., 1] - f[..., 2])], -1)


def linear_of_lab(lab: npt.ArrayLike) -> npt.NDArray[np.float64]:
    """Linear sRGB (…, 3) of CIE L*a*b* (D65), not clipped; CIE 15."""
    value = np.asarray(lab, np.float64)
    fy = (value[..., 0] + 16) / 116
    f = np.stack([fy + value[..., 1] / 500, fy, fy - value[..., 2] / 200], -1)
    xyz = np.where(f > 6 / 29, f**3, 3 * (6 / 29) ** 2 * (f - 4 / 29)) * _WHITE
    return np.asarray(xyz @ np.linalg.inv(_XYZ).T)


def colour_difference(first: npt.ArrayLike, second: npt.ArrayLike) -> npt.NDArray[np.float64]:
    """CIEDE2000 of two L*a*b* colours (…, 3); Sharma, Wu and Dalal 2005, Color Res. Appl. 30(1)."""
    (l1, a1, b1), (l2, a2, b2) = (np.moveaxis(np.asarray(lab, np.float64), -1, 0) for lab in (first, second))
    mean_c7 = ((np.hypot(a1, b1) + np.hypot(a2, b2)) / 2) ** 7
    g = 0.5 * (1 - np.sqrt(mean_c7 / (mean_c7 + 25.0**7)))
    c1, c2 = np.hypot((1 + g) * a1, b1), np.hypot((1 + g) * a2, b2)
    h1, h2 = (np.degrees(np.arctan2(b, (1 + g) * a)) % 360 for a, b in ((a1, b1), (a2, b2)))
    both = c1 * c2 > 0
    turn = np.where(both, (h2 - h1 + 180) % 360 - 180, 0.0)
    dh = 2 * np.sqrt(c1 * c2) * np.sin(np.radians(turn) / 2)
    light, c = (l1 + l2) / 2, (c1 + c2) / 2
    far = np.abs(h1 - h2) > 180
    h = np.where(both, (h1 + h2 + np.where(far, np.where(h1 + h2 < 360, 360, -360), 0)) / 2, h1 + h2)
    t = (
        1
        - 0.17 * np.cos(np.radians(h - 30))
        + 0.24 * np.cos(np.radians(2 * h))
        + 0.32 * np.cos(np.radians(3 * h + 6))
        - 0.20 * np.cos(np.radians(4 * h - 63))
    )
    sl = 1 + 0.015 * (light - 50) ** 2 / np.sqrt(20 + (light - 50) ** 2)
    sc, sh = 1 + 0.045 * c, 1 + 0.015 * c * t
    turned = -2 * np.sqrt(c**7 / (c**7 + 25.0**7)) * np.sin(np.radians(60 * np.exp(-(((h - 275) / 25) ** 2))))
    dl, dc = (l2 - l1) / sl, (c2 - c1) / sc
    return np.asarray(np.sqrt(dl**2 + dc**2 + (dh / sh) ** 2 + turned * dc * dh / sh))
