"""Embedded colour profiles (ICC.1:2010, ISO 15076-1), applied in float by littlecms so that 16 bits survive."""

from __future__ import annotations

import imagecodecs
import numpy as np
import numpy.typing as npt

from ..core.colour import decode_srgb
from ..core.sheet import AnyArray, Raster

SRGB_D50: npt.NDArray[np.float64] = np.array(
    [[0.4360747, 0.3850649, 0.1430804], [0.2225045, 0.7168786, 0.0606169], [0.0139322, 0.0971045, 0.7141733]]
)
"""Linear sRGB to XYZ adapted to D50 by Bradford, as profiles hold it (IEC 61966-2-1; ICC.1 Annex E)."""
_ALIKE = 2e-3
_RELATIVE_COLORIMETRIC = 1
_STRIP = 1 << 20
"""Pixels that are turned at a time."""


def linear_by_profile(codes: AnyArray, profile: bytes) -> Raster | None:
    """Linear (H, W, 3) float32 with sRGB primaries from integer codes (H, W, 3).

    What no sRGB colour can be is cut at 0. None where the profile is damaged, is not one of red, green and blue, or
    says just what is assumed without one.
    """
    if profile[16:20] != b"RGB " or _is_srgb(profile):
        return None
    flat = np.ascontiguousarray(codes).reshape(1, -1, 3)
    made = np.empty(flat.shape, np.float32)
    for start in range(0, flat.shape[1], _STRIP):
        strip = _turned(flat[:, start : start + _STRIP], profile)
        if strip is None:
            return None
        made[:, start : start + _STRIP] = strip
    return made.reshape(codes.shape)


def _turned(codes: AnyArray, profile: bytes) -> Raster | None:
    """Through the profile's own space to XYZ (D50), and from there to linear sRGB."""
    try:
        xyz = imagecodecs.cms_transform(
            codes,
            profile,
            imagecodecs.cms_profile("xyz"),
            colorspace="rgb",
            outcolorspace="xyz",
            outdtype="float32",
            intent=_RELATIVE_COLORIMETRIC,
        )
    except (imagecodecs.CmsError, ValueError, TypeError):
        return None
    to_srgb = np.linalg.inv(SRGB_D50).astype(np.float32)
    return np.asarray(np.maximum(np.asarray(xyz, np.float32) @ to_srgb.T, 0), np.float32)


def _is_srgb(profile: bytes) -> bool:
    steps = np.linspace(0, 65_535, 33).astype(np.uint16)
    greys, primaries = np.repeat(steps[:, None], 3, 1), np.zeros((3, 3), np.uint16)
    np.fill_diagonal(primaries, 65_535)
    codes = np.concatenate([greys, primaries])[None]
    made = _turned(codes, profile)
    return made is not None and float(np.abs(made - decode_srgb(codes / 65_535)).max()) < _ALIKE
