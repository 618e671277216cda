"""Maps as files store them: encodings, depths and the zero of the height."""

from __future__ import annotations

import numpy as np

from ..colour import codes_from_linear
from ..maps import IN_MM, TRAITS, MapKind
from ..sheet import AnyArray, Raster


def height_range(height: Raster) -> tuple[float, float]:
    """Black and white of a stored height map, mm: whole tenths of a millimetre around level 0."""
    reach = max(0.1, float(np.ceil(np.abs(height).max() * 10) / 10))
    return -reach, reach


def stored(kind: MapKind, pixels: Raster, *, depth: int, height_mm: tuple[float, float] = (-1.0, 1.0)) -> AnyArray:
    """Integer codes of a map: (H, W) or (H, W, 3), uint8 or uint16.

    Base colour is sRGB-encoded, all else is linear. Normals are ``n · 0.5 + 0.5`` with green up.
    Height and depth map ``height_mm`` to black and white, so level 0 is the middle.
    """
    if depth not in {8, 16}:
        raise ValueError(depth)
    out = np.empty(pixels.shape, np.uint8 if depth == 8 else np.uint16)
    # A band at a time: what lies between fits the processor's cache, and a large map is not held four times over.
    for first in range(0, len(pixels), _BAND_ROWS):
        band = slice(first, first + _BAND_ROWS)
        out[band] = _codes(kind, pixels[band], depth, height_mm)
    return out


_BAND_ROWS = 128


def _codes(kind: MapKind, pixels: Raster, depth: int, height_mm: tuple[float, float]) -> AnyArray:
    if TRAITS[kind].colour:
        return codes_from_linear(pixels, depth=depth)
    values = np.asarray(pixels, np.float32)
    if kind in {MapKind.NORMAL, MapKind.COAT_NORMAL}:
        values = values * np.float32(0.5) + np.float32(0.5)
    elif kind in IN_MM:
        low, high = height_mm
        values = (values - np.float32(low)) * np.float32(1 / (high - low))
    return np.asarray(np.rint(np.clip(values, 0, 1) * np.float32(255 if depth == 8 else 65_535)))


def packed_orm(occlusion: Raster, roughness: Raster, metalness: Raster) -> AnyArray:
    """Occlusion, roughness and metalness in red, green and blue, as glTF 2.0 has them; 8-bit."""
    packed = np.stack([occlusion, roughness, metalness], 2)
    return np.rint(np.clip(packed, 0, 1) * 255).astype(np.uint8)
