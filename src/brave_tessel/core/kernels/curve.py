"""The sRGB curve for whole pictures, by polynomials: as near as single floats can tell, many times as quick as powers.

The upper part of the curve is a power; over a root of its argument it is so smooth that a polynomial of low degree,
fitted for the smallest largest error (below 1e-7), stands for it. Several values are worked out at once, which tables
prevent.
"""

from __future__ import annotations

import numpy as np

from ..sheet import Raster
from .bands import over_rows
from .compiled import compiled

_F = np.float32
# IEC 61966-2-1: below these the curve is a straight line.
_LIGHT_LINE, _CODE_LINE, _SLOPE = _F(0.0031308), _F(0.04045), _F(12.92)
# Over the fourth root of light, brought to [-1, 1].
_E_MID, _E_PER = _F((1 + 0.2365450320046059) / 2), _F(2 / (1 - 0.2365450320046059))
_E0, _E1, _E2, _E3, _E4 = _F(0.418389981), _F(0.487126563), _F(0.100250631), _F(-0.0068852673), _F(0.00142500746)
_E5, _E6, _E7, _E8 = _F(-0.000381163441), _F(0.000117947701), _F(-8.50080119e-05), _F(4.13858882e-05)
# Over the root of (code + 0.055) / 1.055, brought to [-1, 1].
_D_MID, _D_PER = _F((1 + 0.30078885226897806) / 2), _F(2 / (1 - 0.30078885226897806))
_D0, _D1, _D2, _D3 = _F(0.126837812), _F(0.327259568), _F(0.334230535), _F(0.167676103)
_D4, _D5, _D6 = _F(0.0405616167), _F(0.00349882809), _F(-6.45600881e-05)
_UP, _PER_UP = _F(0.055), _F(1 / 1.055)


@compiled
def to_code(light: np.float32) -> np.float32:
    """The sRGB code of linear light, both in [0, 1]."""
    x = min(max(light, _F(0)), _F(1))
    z = (np.sqrt(np.sqrt(x)) - _E_MID) * _E_PER
    high = ((((_E8 * z + _E7) * z + _E6) * z + _E5) * z + _E4) * z
    power = (((high + _E3) * z + _E2) * z + _E1) * z + _E0
    return x * _SLOPE if x <= _LIGHT_LINE else power  # type: ignore[no-any-return]


@compiled
def to_light(code: np.float32) -> np.float32:
    """The linear light of an sRGB code, both in [0, 1]."""
    x = min(max(code, _F(0)), _F(1))
    z = (np.sqrt((x + _UP) * _PER_UP) - _D_MID) * _D_PER
    power = (((((_D6 * z + _D5) * z + _D4) * z + _D3) * z + _D2) * z + _D1) * z + _D0
    return x / _SLOPE if x <= _CODE_LINE else power  # type: ignore[no-any-return]


@compiled
def _encode_rows(first: int, last: int, light: Raster, out: Raster) -> None:
    for r in range(first, last):
        for c in range(light.shape[1]):
            out[r, c] = to_code(light[r, c])


@compiled
def _decode_rows(first: int, last: int, codes: Raster, out: Raster) -> None:
    for r in range(first, last):
        for c in range(codes.shape[1]):
            out[r, c] = to_light(codes[r, c])


def _by_rows(kernel: object, pixels: Raster) -> Raster:
    given = np.ascontiguousarray(pixels, np.float32)
    flat = given.reshape(given.shape[0], -1)
    out = np.empty_like(flat)
    over_rows(kernel, flat.shape[0], flat, out)  # type: ignore[arg-type]
    return out.reshape(given.shape)


def encoded(light: Raster) -> Raster:
    """SRGB codes in [0, 1] of linear light, clipped to it; any shape of two or more axes, float32."""
    return _by_rows(_encode_rows, light)


def decoded(codes: Raster) -> Raster:
    """Linear light of sRGB codes in [0, 1], clipped to it; any shape of two or more axes, float32."""
    return _by_rows(_decode_rows, codes)
