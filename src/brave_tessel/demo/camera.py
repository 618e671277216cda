"""A virtual camera: flat panels photographed at an angle, under uneven light, with lens and sensor."""

from __future__ import annotations

import math
from dataclasses import dataclass

import cv2
import numpy as np

from ..core.colour import codes_from_linear, decode_srgb
from ..core.gather.straighten import Corners, homography
from ..core.lattice import units_as_before
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


def seen_corners(
    size_mm: tuple[float, float],
    *,
    picture: tuple[int, int],
    focal_px: float,
    distance_mm: float,
    yaw: float,
    pitch: float,
    roll: float,
) -> Corners:
    """Where a pinhole camera aimed at a panel's middle sees its corners; angles in degrees."""
    y, p, r = (math.radians(angle) for angle in (yaw, pitch, roll))
    turn_y = np.array([[math.cos(y), 0, math.sin(y)], [0, 1, 0], [-math.sin(y), 0, math.cos(y)]])
    turn_x = np.array([[1, 0, 0], [0, math.cos(p), -math.sin(p)], [0, math.sin(p), math.cos(p)]])
    turn_z = np.array([[math.cos(r), -math.sin(r), 0], [math.sin(r), math.cos(r), 0], [0, 0, 1]])
    half_w, half_h = size_mm[0] / 2, size_mm[1] / 2
    seen = []
    for x, v in ((-half_w, -half_h), (half_w, -half_h), (half_w, half_h), (-half_w, half_h)):
        point = turn_z @ turn_x @ turn_y @ np.array([x, v, 0.0]) + np.array([0, 0, distance_mm])
        seen.append((picture[0] / 2 + focal_px * point[0] / point[2], picture[1] / 2 + focal_px * point[1] / point[2]))
    return tuple((round(float(a), 2), round(float(b), 2)) for a, b in seen)  # type: ignore[return-value]


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
    cv2.warpPerspective(lit, scale @ matrix, size, dst=photo, flags=cv2.INTER_LINEAR, borderMode=cv2.BORDER_TRANSPARENT)
    photo = np.asarray(cv2.GaussianBlur(photo, (0, 0), 1.1), np.float32)
    photo = np.asarray(cv2.resize(photo, (view.width_px, view.height_px), interpolation=cv2.INTER_AREA), np.float32)
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
    grain = units_as_before(index, index >> 16, view.seed) + units_as_before(index, index >> 16, view.seed + 1) - 1
    return photo + grain * np.sqrt(np.maximum(photo, 0)) * np.float32(view.noise)
