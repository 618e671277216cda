"""Maps as pictures for the screen, and their filtered smaller versions."""

from __future__ import annotations

import cv2
import numpy as np

from ..colour import codes_from_linear, decode_srgb, display_codes
from ..kernels.halve import halve
from ..maps import FINISH, TRAITS, MapKind, MapSet
from ..sheet import AnyArray, Raster

_LINEAR = decode_srgb(np.arange(256) / 255).astype(np.float32)
WINNER, COVER, REFLECTANCE = "Who wins", "Cover", "Reflectance"
VIEWS: dict[str, MapKind | str | None] = {
    "Lit": None,
    "Base colour": MapKind.BASE_COLOUR,
    "Height": MapKind.HEIGHT,
    "Normal": MapKind.NORMAL,
    "Roughness": MapKind.ROUGHNESS,
    "Metalness": MapKind.METALNESS,
    "Occlusion": MapKind.AMBIENT_OCCLUSION,
    "Curvature": MapKind.CURVATURE,
    "Opacity": MapKind.OPACITY,
    **{TRAITS[kind].label: kind for kind in FINISH},
    WINNER: WINNER,
    COVER: COVER,
    REFLECTANCE: REFLECTANCE,
}
"""What a board can show: its word, and the map (None is the lit picture, a word a picture of its own)."""


def map_codes(kind: MapKind, maps: MapSet, span: tuple[float, float] | None = None) -> AnyArray:
    """One map as an sRGB picture, (H, W, 3) uint8. Height spans its own lowest to highest, or those given."""
    pixels = maps.or_default(kind)
    if TRAITS[kind].colour:
        return display_codes(pixels)
    if kind in {MapKind.NORMAL, MapKind.COAT_NORMAL}:
        return np.asarray(np.rint((pixels * 0.5 + 0.5) * 255), np.uint8)
    low, high = span or (float(pixels.min()), float(pixels.max())) if kind is MapKind.HEIGHT else (0.0, 1.0)
    grey = np.rint(np.clip((pixels - low) / max(high - low, 1e-6), 0, 1) * 255).astype(np.uint8)
    return np.repeat(grey[..., None], 3, 2)


def halved(codes: AnyArray) -> AnyArray:
    """A picture at half its size, averaged in linear light; also where a side is odd."""
    if codes.shape[0] % 2 == codes.shape[1] % 2 == 0:
        return halve(codes)
    rows, columns = max(1, codes.shape[0] // 2), max(1, codes.shape[1] // 2)
    small: Raster = np.asarray(cv2.resize(_LINEAR[codes], (columns, rows), interpolation=cv2.INTER_AREA), np.float32)
    return codes_from_linear(small)


def mip_chain(codes: AnyArray, *, smallest: int = 16) -> list[AnyArray]:
    """The picture and its halvings down to ``smallest`` pixels."""
    chain = [np.ascontiguousarray(codes)]
    while min(chain[-1].shape[:2]) >= 2 * smallest:
        chain.append(halved(chain[-1]))
    return chain
