"""The sRGB curve for whole pictures, by tables: as near as single floats can tell, many times as quick as powers."""

from __future__ import annotations

import numpy as np

from ..colour import decode_srgb, encode_srgb
from ..sheet import Raster
from .bands import over_rows
from .compiled import compiled

_STEPS = 8192
_ENCODED = encode_srgb(np.linspace(0, 1, _STEPS + 1) ** 2).astype(np.float32)
"""By the root of the light, where the curve is even enough to be joined by straight lines (error below 1e-7)."""
_DECODED = decode_srgb(np.linspace(0, 1, _STEPS + 1)).astype(np.float32)
_TOP = np.float32(_STEPS)


@compiled
def _encode_rows(first: int, last: int, light: Raster, table: Raster, out: Raster) -> None:
    zero, one = np.float32(0), np.float32(1)
    for r in range(first, last):
        for c in range(light.shape[1]):
            at = np.sqrt(min(max(light[r, c], zero), one)) * _TOP
            low = max(0, min(int(at), _STEPS - 1))
            out[r, c] = table[low] + (at - np.float32(low)) * (table[low + 1] - table[low])


@compiled
def _decode_rows(first: int, last: int, codes: Raster, table: Raster, out: Raster) -> None:
    zero, one = np.float32(0), np.float32(1)
    for r in range(first, last):
        for c in range(codes.shape[1]):
            at = min(max(codes[r, c], zero), one) * _TOP
            low = max(0, min(int(at), _STEPS - 1))
            out[r, c] = table[low] + (at - np.float32(low)) * (table[low + 1] - table[low])


def _by_table(kernel: object, pixels: Raster, table: Raster) -> Raster:
    given = np.ascontiguousarray(pixels, np.float32)
    flat = given.reshape(given.shape[0], -1)
    out = np.empty_like(flat)
    over_rows(kernel, flat.shape[0], flat, table, out)  # type: ignore[arg-type]
    return out.reshape(given.shape)


def encoded(light: Raster) -> Raster:
    """SRGB codes in [0, 1] of linear light, clipped to it; any shape of two or more axes, float32."""
    return _by_table(_encode_rows, light, _ENCODED)


def decoded(codes: Raster) -> Raster:
    """Linear light of sRGB codes in [0, 1], clipped to it; any shape of two or more axes, float32."""
    return _by_table(_decode_rows, codes, _DECODED)
