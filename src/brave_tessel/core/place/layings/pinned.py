"""Pinned: points of the sheet held to points of the model, in perspective."""

from __future__ import annotations

import cv2
import numpy as np

from ..laying import Bed, Coordinates, Places, even, laying

LEAST_PINS = 4
LEAST_IN_SPACE = 6
FLAT_SHARE = 0.005
"""Pins that leave their plane by less than this share of their spread lie in it."""


@laying("pinned", label="Pinned")
def pinned(bed: Bed) -> Coordinates:
    """Four or more points of the picture are held to points of the model, true in perspective; the surface fills the
    rest. Pins in one plane make a plane's picture; six or more that do not make a camera's.
    """
    pins = bed.pins
    if pins is None or len(pins) < LEAST_PINS:
        return even(bed.mesh, bed.faces, np.zeros((len(bed.faces), 3, 2)), note="too few pins")
    camera = seen_through(pins[:, :2], pins[:, 2:])
    if camera is None:
        return even(bed.mesh, bed.faces, np.zeros((len(bed.faces), 3, 2)), note="pins in one line")
    held = bed.corners @ camera[:, :3].T + camera[:, 3]
    # Perspective is a matter of shares: w is 1 in the middle of the pins.
    middle = float(camera[2, :3] @ pins[:, 2:].mean(0) + camera[2, 3])
    return Coordinates(bed.mesh, bed.faces, held / middle)


def seen_through(sheet: Places, points: Places) -> Places | None:
    """The (3, 4) matrix that takes points of the scene, mm, to places on the sheet, mm.

    Points in one plane: the plane's homography (``cv2.findHomography``, least squares over all pins). Others: the
    direct linear transform of a camera (Hartley and Zisserman 2004, section 7.1). None where they lie in one line.
    """
    centre = points.mean(0)
    _, spread, axes = np.linalg.svd(points - centre, full_matrices=True)
    if spread[1] < 1e-6 * max(spread[0], 1e-12):
        return None
    flat = len(points) < LEAST_IN_SPACE or spread[2] < FLAT_SHARE * spread[0]
    return _of_plane(sheet, points, centre, axes[:2]) if flat else _of_camera(sheet, points)


def _of_plane(sheet: Places, points: Places, centre: Places, axes: Places) -> Places | None:
    on_plane = (points - centre) @ axes.T
    scale = float(np.abs(on_plane).max())
    to_sheet, _ = cv2.findHomography(on_plane / scale, sheet, 0)
    if to_sheet is None or abs(np.linalg.det(to_sheet)) < 1e-12:
        return None
    into_plane = np.zeros((3, 4))
    into_plane[:2, :3] = axes / scale
    into_plane[:2, 3] = -axes @ centre / scale
    into_plane[2, 3] = 1.0
    return np.asarray(to_sheet @ into_plane)


def _of_camera(sheet: Places, points: Places) -> Places:
    centre, size = points.mean(0), float(np.abs(points - points.mean(0)).max())
    middle, wide = sheet.mean(0), float(np.abs(sheet - sheet.mean(0)).max())
    x = np.concatenate([(points - centre) / size, np.ones((len(points), 1))], 1)
    u = (sheet - middle) / wide
    rows = np.zeros((2 * len(points), 12))
    rows[0::2, 0:4], rows[0::2, 8:12] = x, -u[:, :1] * x
    rows[1::2, 4:8], rows[1::2, 8:12] = x, -u[:, 1:] * x
    camera = np.linalg.svd(rows)[2][-1].reshape(3, 4)
    back = np.array([[wide, 0, middle[0]], [0, wide, middle[1]], [0, 0, 1.0]])
    into = np.eye(4)
    into[:3, :3] /= size
    into[:3, 3] = -centre / size
    return np.asarray(back @ camera @ into)
