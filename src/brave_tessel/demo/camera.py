"""A virtual camera: flat panels photographed at an angle, under uneven light, with lens and sensor."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..core.colour import codes_from_linear, decode_srgb
from ..core.gather.straighten import Corners, homography
from ..core.lattice import units_many
from ..core.sheet import AnyArray, Raster


@dataclass(frozen=True, slots=True)
class View:
    """A photo to be taken: its size, where the panel's corners fall, and how the light lies on the panel."""

    width_px: int
    height_px: int
    corners: Corners
    light_from: tuple[float, float]
    falloff: float
    noise: float
    seed: int
    around: tuple[float, float, float] = (0.19, 0.18, 0.165)


def photograph(panel: AnyArray, view: View) -> AnyArray:
    """An 8-bit sRGB photo (H, W, 3) of a lit panel (h, w, 3) uint8."""
    lit = decode_srgb(panel.astype(np.float32) / 255).astype(np.float32) * _uneven(panel.shape, view)[..., None]
    height, width = panel.shape[:2]
    matrix = np.linalg.inv(homography(view.corners, width, height))
    over = 2
    scale = np.diag([over, over, 1.0])
    size = (view.width_px * over, view.height_px * over)
    photo = np.full((size[1], size[0], 3), view.around, np.float32)
    photo *= (0.9 + 0.2 * np.linspace(1, 0, size[1], dtype=np.float32))[:, None, None]
    cv2.warpPerspective(
        lit, scale @ matrix, size, dst=photo, flags=cv2.INTER_LINEAR, borderMode=cv2.BORDER_TRANSPARENT
    )
    photo = cv2.GaussianBlur(photo, (0, 0), 1.1)
    photo = cv2.resize(photo, (view.width_px, view.height_px), interpolation=cv2.INTER_AREA)
    return codes_from_linear(np.asarray(_sensor(photo, view), np.float32))


def _uneven(shape: tuple[int, ...], view: View) -> Raster:
    """Light falling off from one side of the panel, with a soft shadow across a corner."""
    rows, columns = shape[:2]
    y, x = np.mgrid[0:rows, 0:columns].astype(np.float32)
    x, y = x / columns, y / rows
    away = np.hypot(x - view.light_from[0], y - view.light_from[1])
    return np.asarray(1.15 * np.exp(-view.falloff * away**2), np.float32)


def _sensor(photo: Raster, view: View) -> Raster:
    rows, columns = photo.shape[:2]
    index = np.arange(rows * columns * 3).reshape(photo.shape)
    grain = units_many(index, index >> 16, view.seed) + units_many(index, index >> 16, view.seed + 1) - 1
    return photo + grain * np.sqrt(np.maximum(photo, 0)) * np.float32(view.noise)
