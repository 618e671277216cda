"""Finishes of a surface as glTF's material extensions have them.

Khronos registry: KHR_materials_sheen, _clearcoat, _anisotropy, _specular, _ior, _transmission, _emissive_strength.
"""

from __future__ import annotations

import numpy as np

from ...core.handover.conversions import stored
from ...core.maps import MapKind, MapSet
from ...core.sheet import AnyArray, Raster
from ...formats.gltf import GltfFinish
from ...formats.images import encode_png


def finishes_of(maps: MapSet) -> tuple[GltfFinish, ...]:
    """The extensions that a surface's maps call for; none for usual ones."""
    made = []
    if MapKind.SHEEN in maps:
        rgba = np.dstack([_colour(maps, MapKind.SHEEN), _codes(maps, MapKind.SHEEN_ROUGHNESS)])
        png = encode_png(rgba, srgb=True)
        factors = {"sheenColorFactor": [1.0, 1.0, 1.0], "sheenRoughnessFactor": 1.0}
        pictures = {"sheenColorTexture": png, "sheenRoughnessTexture": png}
        made.append(GltfFinish("KHR_materials_sheen", factors, pictures))
    if MapKind.COAT in maps:
        png = _packed(_codes(maps, MapKind.COAT), _codes(maps, MapKind.COAT_ROUGHNESS))
        pictures = {"clearcoatTexture": png, "clearcoatRoughnessTexture": png}
        if MapKind.COAT_NORMAL in maps:
            pictures["clearcoatNormalTexture"] = encode_png(
                stored(MapKind.COAT_NORMAL, maps[MapKind.COAT_NORMAL], depth=8)
            )
        made.append(
            GltfFinish("KHR_materials_clearcoat", {"clearcoatFactor": 1.0, "clearcoatRoughnessFactor": 1.0}, pictures)
        )
    if MapKind.ANISOTROPY in maps:
        angle = np.pi * maps.or_default(MapKind.ANISOTROPY_ANGLE)
        png = _packed(_unit(np.cos(angle)), _unit(np.sin(angle)), _codes(maps, MapKind.ANISOTROPY))
        made.append(GltfFinish("KHR_materials_anisotropy", {"anisotropyStrength": 1.0}, {"anisotropyTexture": png}))
    if MapKind.SPECULAR_LEVEL in maps:
        level = _codes(maps, MapKind.SPECULAR_LEVEL)
        png = encode_png(np.dstack([np.full((*level.shape, 3), 255, np.uint8), level]))
        made.append(GltfFinish("KHR_materials_specular", {"specularFactor": 1.0}, {"specularTexture": png}))
        made.append(GltfFinish("KHR_materials_ior", {"ior": 1.5}, {}))
    if MapKind.TRANSMISSION in maps:
        png = _packed(_codes(maps, MapKind.TRANSMISSION))
        made.append(GltfFinish("KHR_materials_transmission", {"transmissionFactor": 1.0}, {"transmissionTexture": png}))
    return tuple(made)


def with_alpha(maps: MapSet) -> bytes:
    """Base colour with opacity as its alpha, PNG."""
    grid = maps.grid
    rgba = np.dstack([_colour(maps, MapKind.BASE_COLOUR), _codes(maps, MapKind.OPACITY)])
    return encode_png(rgba, width_mm=grid.width_mm, height_mm=grid.height_mm, srgb=True)


def _colour(maps: MapSet, kind: MapKind) -> AnyArray:
    return stored(kind, np.ascontiguousarray(maps.or_default(kind)), depth=8)


def _codes(maps: MapSet, kind: MapKind) -> AnyArray:
    return stored(kind, maps.or_default(kind), depth=8)


def _unit(values: Raster) -> AnyArray:
    return np.asarray(np.rint(np.clip(values * 0.5 + 0.5, 0, 1) * 255), np.uint8)


def _packed(*channels: AnyArray) -> bytes:
    """One to three maps in red, green and blue."""
    first = channels[0]
    return encode_png(np.dstack([*channels, *(np.zeros_like(first) for _ in range(3 - len(channels)))]))
