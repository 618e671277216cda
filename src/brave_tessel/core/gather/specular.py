"""Diffuse and specular colour as base colour and metalness."""

from __future__ import annotations

import numpy as np

from ..sheet import Raster

DIELECTRIC = 0.04
_EPS = 1e-6
_PERCEIVED = np.array([0.299, 0.587, 0.114], np.float32)


def _perceived(colour: Raster) -> Raster:
    return np.asarray(np.sqrt((colour * colour) @ _PERCEIVED), np.float32)


def metalness_of(diffuse: Raster, specular: Raster) -> tuple[Raster, Raster]:
    """Base colour (H, W, 3) and metalness (H, W) of linear diffuse and specular colours (H, W, 3).

    The conversion of the Khronos extension KHR_materials_pbrSpecularGlossiness (archived), "convert
    between workflows": the metalness is the root of a quadratic in perceived brightness.
    """
    rest = 1 - specular.max(2)
    d, s = _perceived(diffuse), _perceived(specular)
    b = d * rest / np.float32(1 - DIELECTRIC) + s - np.float32(2 * DIELECTRIC)
    c = np.float32(DIELECTRIC) - s
    root = np.sqrt(np.maximum(b * b - 4 * DIELECTRIC * c, 0))
    metal = np.where(s < DIELECTRIC, 0, np.clip((root - b) / np.float32(2 * DIELECTRIC), 0, 1)).astype(np.float32)
    m = metal[..., None]
    from_diffuse = diffuse * rest[..., None] / np.float32(1 - DIELECTRIC) / np.maximum(1 - m, _EPS)
    from_specular = (specular - np.float32(DIELECTRIC) * (1 - m)) / np.maximum(m, _EPS)
    share = m * m
    base = np.clip(from_diffuse * (1 - share) + from_specular * share, 0, 1)
    return np.asarray(base, np.float32), metal
