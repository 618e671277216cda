"""Maps as pictures for the screen, and their filtered smaller versions."""

from __future__ import annotations

import cv2
import numpy as np

from ..colour import codes_from_linear, decode_srgb, display_codes
from ..kernels.halve import halve
from ..maps import FINISH, IN_MM, TRAITS, WET, MapKind, MapSet
from ..sheet import AnyArray, Raster

_LINEAR = decode_srgb(np.arange(256) / 255).astype(np.float32)
WINNER, COVER, REFLECTANCE = "Who wins", "Cover", "Reflectance"
ROUGH, LINES = "Roughness in colour", "Height lines"
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
    **{TRAITS[kind].label: kind for kind in (*FINISH, *WET)},
    WINNER: WINNER,
    COVER: COVER,
    REFLECTANCE: REFLECTANCE,
    ROUGH: ROUGH,
    LINES: LINES,
}
"""What a board can show: its word, and the map (None is the lit picture, a word a picture of its own)."""


def map_codes(kind: MapKind, maps: MapSet, span: tuple[float, float] | None = None) -> AnyArray:
    """One map as an sRGB picture, (H, W, 3) uint8. Height spans its own lowest to highest, or those given."""
    pixels = maps.or_default(kind)
    if TRAITS[kind].colour:
        return display_codes(pixels)
    if kind in {MapKind.NORMAL, MapKind.COAT_NORMAL}:
        return np.asarray(np.rint((pixels * 0.5 + 0.5) * 255), np.uint8)
    low, high = span or (float(pixels.min()), float(pixels.max())) if kind in IN_MM else (0.0, 1.0)
    grey = np.rint(np.clip((pixels - low) / max(high - low, 1e-6), 0, 1) * 255).astype(np.uint8)
    return np.repeat(grey[..., None], 3, 2)


_HEAT = cv2.applyColorMap(np.arange(256, dtype=np.uint8)[:, None], cv2.COLORMAP_TURBO)[:, 0, ::-1]
_STEPS_MM = (0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0)


def roughness_colours(roughness: Raster) -> AnyArray:
    """Roughness as colour, (H, W, 3) uint8: blue is smooth, red is rough."""
    return np.ascontiguousarray(_HEAT[np.rint(np.clip(roughness, 0, 1) * 255).astype(np.uint8)])


def line_step_mm(height: Raster) -> float:
    """The round distance at which some ten lines show the whole relief, mm."""
    span = float(np.ptp(height))
    return next((step for step in _STEPS_MM if span / step <= 12), _STEPS_MM[-1])


def height_lines(height: Raster) -> AnyArray:
    """Height as pale to dark with a line at each round step, (H, W, 3) uint8; level 0 is drawn stronger."""
    step = line_step_mm(height)
    grey = map_grey(height) * 0.5 + 0.4
    level = np.floor(height / np.float32(step))
    edge = (level != np.roll(level, 1, 0)) | (level != np.roll(level, 1, 1))
    zero = edge & ((level < 0) != (np.roll(level, 1, 0) < 0)) | edge & ((level < 0) != (np.roll(level, 1, 1) < 0))
    codes = np.repeat(np.rint(grey * 255).astype(np.uint8)[..., None], 3, 2)
    codes[edge] = (28, 60, 120)
    codes[zero] = (180, 40, 30)
    return codes


def map_grey(values: Raster) -> Raster:
    """Values from their lowest to their highest, 0 to 1."""
    low, high = float(values.min()), float(values.max())
    return np.asarray((values - low) / max(high - low, 1e-6), np.float32)


def legend_of(view: str, maps: MapSet) -> tuple[AnyArray, tuple[str, str]] | None:
    """Colours from left to right (256, 3) and what stands at their ends, for views that need it."""
    if view == ROUGH:
        return np.asarray(_HEAT), ("0 smooth", "1 rough")
    if view == LINES:
        height = maps[MapKind.HEIGHT]
        tone = np.rint(np.linspace(0.4, 0.9, 256) * 255).astype(np.uint8)
        step = line_step_mm(height)
        ends = (f"{float(height.min()):.2f} mm", f"{float(height.max()):.2f} mm, lines {step:g} mm apart")
        return np.repeat(tone[:, None], 3, 1), ends
    return None


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
