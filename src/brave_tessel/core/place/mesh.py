"""Parts as flat quadrilaterals, and rays that find them.

Scene coordinates are millimetres: x east, y up, z south, right-handed.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

Vector = npt.NDArray[np.float64]
"""(3,) or (N, 3) float64, mm."""


@dataclass(frozen=True, slots=True)
class Frame:
    """The plane a part is laid out on: an origin, a direction along and a direction up, and where
    ``along`` starts in the unrolled elevation, mm.
    """

    origin: tuple[float, float, float]
    along: tuple[float, float, float]
    up: tuple[float, float, float]
    start: float = 0.0
    unrolled: bool = False

    def coordinates(self, points: Vector) -> Vector:
        """(N, 2) mm: along (from the unrolled start) and up."""
        away = np.atleast_2d(points) - np.array(self.origin)
        return np.stack([away @ np.array(self.along) + self.start, away @ np.array(self.up)], 1)

    @property
    def facing(self) -> Vector:
        """Unit normal toward the viewer of the elevation."""
        return np.cross(np.array(self.along), np.array(self.up))


@dataclass(frozen=True, slots=True)
class PartMesh:
    """Corners of quadrilaterals (N, 4, 3) mm, anticlockwise seen from outside, and the part's frame."""

    quads: Vector
    frame: Frame
    smooth: bool = False

    def triangles(self) -> Vector:
        """(2 N, 3, 3) mm."""
        return np.concatenate([self.quads[:, [0, 1, 2]], self.quads[:, [0, 2, 3]]], 1).reshape(-1, 3, 3)

    def normals(self) -> Vector:
        """(N, 3) unit normals, one a quadrilateral."""
        across, up = self.quads[:, 2] - self.quads[:, 0], self.quads[:, 3] - self.quads[:, 1]
        normal = np.cross(across, up)
        return np.asarray(normal / np.maximum(np.linalg.norm(normal, axis=1, keepdims=True), 1e-12))

    def corner_normals(self) -> Vector:
        """(N, 4, 3) normals at the corners: of the face, or shared by touching faces of a round part."""
        flat = np.repeat(self.normals()[:, None, :], 4, 1)
        if not self.smooth:
            return flat
        points = np.round(self.quads.reshape(-1, 3), 3)
        _, index = np.unique(points, axis=0, return_inverse=True)
        total = np.zeros((int(index.max()) + 1, 3))
        np.add.at(total, index.ravel(), flat.reshape(-1, 3))
        total /= np.maximum(np.linalg.norm(total, axis=1, keepdims=True), 1e-12)
        return np.asarray(total[index.ravel()].reshape(flat.shape))


@dataclass(frozen=True, slots=True)
class Hit:
    """What a ray found: a part, a point in mm and the distance along the ray."""

    part: str
    point: tuple[float, float, float]
    distance: float


def pick(meshes: Mapping[str, PartMesh], origin: Vector, direction: Vector) -> Hit | None:
    """The nearest part a ray meets from its front (Möller and Trumbore 1997)."""
    best: Hit | None = None
    for name, mesh in meshes.items():
        a, b, c = (mesh.triangles()[:, i] for i in range(3))
        edge1, edge2 = b - a, c - a
        p = np.cross(direction, edge2)
        determinant = np.einsum("ij,ij->i", edge1, p)
        # Only fronts: a wall seen from behind is looked through.
        inverse = 1 / np.where(determinant > 1e-9, determinant, np.nan)
        t = origin - a
        u = np.einsum("ij,ij->i", t, p) * inverse
        q = np.cross(t, edge1)
        v = (q @ direction) * inverse
        distance = np.einsum("ij,ij->i", edge2, q) * inverse
        with np.errstate(invalid="ignore"):
            inside = (u >= 0) & (v >= 0) & (u + v <= 1) & (distance > 1e-3)
        if inside.any():
            nearest = float(distance[inside].min())
            if best is None or nearest < best.distance:
                x, y, z = origin + nearest * direction
                best = Hit(name, (float(x), float(y), float(z)), nearest)
    return best
