"""Colour profiles made of three primaries and curves, applied in float so that 16 bits survive.

Source: ICC.1:2010 (ISO 15076-1), 7.2 header, 10.5 curveType, 10.15 parametricCurveType, 10.31 XYZType.
Profiles made of tables are left to the colour management library.
"""

from __future__ import annotations

import struct
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..core.colour import decode_srgb
from ..core.sheet import AnyArray, Raster

_F = npt.NDArray[np.float64]
SRGB_D50: _F = np.array(
    [[0.4360747, 0.3850649, 0.1430804], [0.2225045, 0.7168786, 0.0606169], [0.0139322, 0.0971045, 0.7141733]]
)
"""Linear sRGB to XYZ adapted to D50 by Bradford, as profiles hold it (IEC 61966-2-1; ICC.1 Annex E)."""
_ALIKE = 2e-3


@dataclass(frozen=True, slots=True)
class MatrixProfile:
    """``to_xyz`` (3, 3) from linear device values; ``curves`` three tables of linear values over codes 0 to 1."""

    to_xyz: _F
    curves: tuple[_F, _F, _F]

    @property
    def is_srgb(self) -> bool:
        """Whether it says just what is assumed without a profile."""
        codes = np.linspace(0, 1, len(self.curves[0]))
        return bool(
            np.abs(self.to_xyz - SRGB_D50).max() < _ALIKE
            and all(np.abs(curve - decode_srgb(codes)).max() < _ALIKE for curve in self.curves)
        )


def matrix_profile(data: bytes) -> MatrixProfile | None:
    """The profile, or None where it is none of this kind or damaged."""
    try:
        if data[16:24] != b"RGB XYZ ":
            return None
        tags = _tags(data)
        if b"A2B0" in tags:
            return None
        columns = [_xyz(tags[key]) for key in (b"rXYZ", b"gXYZ", b"bXYZ")]
        curves = [_curve(tags[key]) for key in (b"rTRC", b"gTRC", b"bTRC")]
    except (struct.error, KeyError, IndexError, ValueError, OverflowError):
        return None
    matrix = np.column_stack(columns)
    if not np.isfinite(matrix).all() or any(not np.isfinite(curve).all() for curve in curves):
        return None
    return MatrixProfile(matrix, (curves[0], curves[1], curves[2]))


def _tags(data: bytes) -> dict[bytes, bytes]:
    (count,) = struct.unpack_from(">I", data, 128)
    found = {}
    for k in range(min(count, 100)):
        key, offset, size = struct.unpack_from(">4sII", data, 132 + 12 * k)
        found[key] = data[offset : offset + size]
    return found


def _xyz(tag: bytes) -> _F:
    if tag[:4] != b"XYZ ":
        raise ValueError
    return np.array(struct.unpack_from(">3i", tag, 8)) / 65_536


def _curve(tag: bytes) -> _F:
    """A curve as a table of 4096 linear values."""
    codes = np.linspace(0, 1, 4096)
    if tag[:4] == b"curv":
        (count,) = struct.unpack_from(">I", tag, 8)
        if count == 0:
            return codes
        if count == 1:
            return np.asarray(codes ** (struct.unpack_from(">H", tag, 12)[0] / 256))
        table = np.frombuffer(tag, ">u2", count, 12) / 65_535
        return np.asarray(np.interp(codes, np.linspace(0, 1, count), table))
    if tag[:4] != b"para":
        raise ValueError
    return _parametric(tag, codes)


def _parametric(tag: bytes, x: _F) -> _F:
    (kind,) = struct.unpack_from(">H", tag, 8)
    count = (1, 3, 4, 5, 7)[kind]
    told = [v / 65_536 for v in struct.unpack_from(f">{count}i", tag, 12)]
    g, a, b, c, d, e, f = told + [0.0] * (7 - count)
    base = x if kind == 0 else np.maximum(a * x + b, 0)
    power = base**g
    if kind == 0:
        return np.asarray(power)
    if kind == 1:
        return np.asarray(np.where(x >= -b / a, power, 0.0))
    if kind == 2:
        return np.asarray(np.where(x >= -b / a, power + c, c))
    return np.asarray(np.where(x >= d, power + e, c * x + f))


def linear_by_profile(codes: AnyArray, profile: MatrixProfile) -> Raster:
    """Linear (H, W, 3) with sRGB primaries from integer codes (H, W, 3); what no sRGB colour can be is cut at 0."""
    top = np.iinfo(codes.dtype).max
    steps = np.arange(top + 1) / top
    matrix = (np.linalg.inv(SRGB_D50) @ profile.to_xyz).astype(np.float32)
    linear = np.empty(codes.shape, np.float32)
    for channel, curve in enumerate(profile.curves):
        table = np.interp(steps, np.linspace(0, 1, len(curve)), curve).astype(np.float32)
        linear[..., channel] = table[codes[..., channel]]
    return np.asarray(np.maximum(linear @ matrix.T, 0), np.float32)
