"""Laid faces for files that know nothing but corners: places that run evenly between them to within a tolerance."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from .laying import Coordinates
from .mesh import Faces, Vector
from .topology import corner_normals

MOST_SPLITS = 9
Floats = npt.NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Corners:
    """Points (N, 3, 3) mm, normals (N, 3, 3) and places (N, 3, 2) mm of triangle corners; ``face`` (N,) says which
    face each came from.
    """

    points: Vector
    normals: Vector
    places: Floats
    face: Faces


def even_corners(found: Coordinates, tolerance_mm: float) -> Corners:
    """The faces of a laying, divided where perspective bends between their corners by more than the tolerance.

    A three-sided laying is given by the side each face looks to.
    """
    faces = found.faces
    points, normals = found.mesh.corners[faces], corner_normals(found.mesh)[faces]
    held, source = found.corners, np.arange(len(faces))
    if found.linear or found.sides is not None:
        return Corners(points, normals, found.flat_corners(), faces)
    for _ in range(MOST_SPLITS):
        bent = _bends(held) > tolerance_mm
        if not bent.any():
            break
        # A side is cut for both of its faces, or the skin would gape: all are cut alike.
        cut = np.ones(len(held), bool) if bent.mean() > 0.2 else bent
        kept = ~cut
        points, normals, held = (
            np.concatenate([array[kept], _quartered(array[cut])]) for array in (points, normals, held)
        )
        source = np.concatenate([source[kept], np.repeat(source[cut], 4)])
    w = held[..., 2:]
    places = held[..., :2] / np.where(np.abs(w) < 1e-9, 1e-9, w)
    return Corners(points, normals, places, faces[source])


def _bends(held: Floats) -> Floats:
    """How far the true place of the middle of a side lies from half way between its ends, mm; the worst side."""
    behind = (held[..., 2] <= 1e-6).any(1)
    w = np.where(np.abs(held[..., 2:]) < 1e-9, 1e-9, held[..., 2:])
    flat = held[..., :2] / w
    middle = (held + np.roll(held, -1, 1)) / 2
    true = middle[..., :2] / np.where(np.abs(middle[..., 2:]) < 1e-9, 1e-9, middle[..., 2:])
    off = np.linalg.norm(true - (flat + np.roll(flat, -1, 1)) / 2, axis=-1).max(1)
    return np.where(behind, 0.0, off)


def _quartered(corners: Floats) -> Floats:
    a, b, c = (corners[:, k] for k in range(3))
    ab, bc, ca = (a + b) / 2, (b + c) / 2, (c + a) / 2
    four = [np.stack(t, 1) for t in ((a, ab, ca), (ab, b, bc), (ca, bc, c), (ab, bc, ca))]
    return np.stack(four, 1).reshape(-1, *corners.shape[1:])
