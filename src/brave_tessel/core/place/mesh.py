"""Indexed triangles of one part: the one shape that pieces, models, layings, rays and files share.

Coordinates are millimetres: x east, y north, z up, right-handed. Triangles run anticlockwise seen from outside.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
import numpy.typing as npt
import xxhash

Vector = npt.NDArray[np.float64]
"""(3,) or (N, 3) float64, mm."""
Faces = npt.NDArray[np.int32]
"""(N,) int32, numbers of triangles."""
Matrix = npt.NDArray[np.float64]
"""(4, 4) float64: columns are the axes and the origin of a part, mm."""

CREASE = 38.0
"""Faces that meet under this many degrees are lit as one round skin."""


@dataclass(frozen=True, eq=False)
class Mesh:
    """Triangles with named faces.

    ``points`` (V, 3) float64 mm; ``triangles`` (T, 3) int32; ``groups`` (T,) int32, numbers into ``names``;
    ``unwrap`` (T, 3, 2) float64 in mm, or in shares of a sheet where ``unwrap_mm`` is false, if it has one of its own;
    ``crease`` the angle in degrees over which an edge is sharp.
    """

    points: Vector
    triangles: npt.NDArray[np.int32]
    groups: Faces
    names: tuple[str, ...] = ("all",)
    unwrap: npt.NDArray[np.float64] | None = None
    unwrap_mm: bool = True
    crease: float = CREASE
    store: dict[str, object] = field(default_factory=dict, repr=False)
    """What was derived from it, by name; dropped with it."""

    @property
    def count(self) -> int:
        """How many triangles it has."""
        return len(self.triangles)

    @cached_property
    def key(self) -> bytes:
        """Names its content: equal meshes have equal keys."""
        run = xxhash.xxh3_128()
        for array in (self.points, self.triangles, self.groups, self.unwrap):
            run.update(b"-" if array is None else np.ascontiguousarray(array).data)
        run.update("|".join(self.names).encode() + f"{self.crease:g}{self.unwrap_mm}".encode())
        return run.digest()

    @cached_property
    def corners(self) -> Vector:
        """(T, 3, 3) mm."""
        return np.asarray(self.points[self.triangles])

    @cached_property
    def crossed(self) -> Vector:
        """(T, 3): across each triangle's face, as long as twice its area in mm²."""
        a, b, c = (self.corners[:, i] for i in range(3))
        return np.cross(b - a, c - a)

    @cached_property
    def areas(self) -> npt.NDArray[np.float64]:
        """(T,) mm²."""
        return np.asarray(np.linalg.norm(self.crossed, axis=1) / 2)

    @cached_property
    def normals(self) -> Vector:
        """(T, 3) unit vectors out of each triangle; 0 for one without area."""
        return np.asarray(self.crossed / np.maximum(2 * self.areas, 1e-12)[:, None])

    @cached_property
    def box(self) -> tuple[Vector, Vector]:
        """Lowest and highest corner, mm; zeros for a mesh without triangles."""
        if not self.count:
            return np.zeros(3), np.zeros(3)
        used = self.points[np.unique(self.triangles)] if self.count < len(self.points) // 3 else self.points
        return used.min(0), used.max(0)

    def of_groups(self, names: Sequence[str]) -> Faces:
        """Triangles of some face groups."""
        wanted = [number for number, name in enumerate(self.names) if name in set(names)]
        return np.flatnonzero(np.isin(self.groups, wanted)).astype(np.int32)

    def moved(self, matrix: Matrix) -> Mesh:
        """The mesh under a transform; where that mirrors, triangles keep facing out."""
        if np.array_equal(matrix, np.eye(4)):
            return self
        points = self.points @ matrix[:3, :3].T + matrix[:3, 3]
        mirrored = np.linalg.det(matrix[:3, :3]) < 0
        triangles = self.triangles[:, [0, 2, 1]] if mirrored else self.triangles
        unwrap = self.unwrap[:, [0, 2, 1]] if mirrored and self.unwrap is not None else self.unwrap
        return Mesh(
            points, np.ascontiguousarray(triangles), self.groups, self.names, unwrap, self.unwrap_mm, self.crease
        )

    def part_of(self, faces: Faces) -> Mesh:
        """Some of its triangles, on the same points."""
        return Mesh(
            self.points,
            self.triangles[faces],
            self.groups[faces],
            self.names,
            None if self.unwrap is None else self.unwrap[faces],
            self.unwrap_mm,
            self.crease,
        )


def joined(meshes: Sequence[Mesh]) -> Mesh:
    """Several meshes as one; groups of one name become one."""
    if len(meshes) == 1:
        return meshes[0]
    names: list[str] = []
    points, triangles, groups, unwraps = [], [], [], []
    start = 0
    for mesh in meshes:
        for name in mesh.names:
            if name not in names:
                names.append(name)
        renumbered = np.array([names.index(name) for name in mesh.names], np.int32)
        points.append(mesh.points)
        triangles.append(mesh.triangles + np.int32(start))
        groups.append(renumbered[mesh.groups])
        unwraps.append(mesh.unwrap if mesh.unwrap is not None else np.zeros((mesh.count, 3, 2)))
        start += len(mesh.points)
    has_unwrap = any(mesh.unwrap is not None for mesh in meshes)
    return Mesh(
        np.concatenate(points),
        np.concatenate(triangles).astype(np.int32),
        np.concatenate(groups).astype(np.int32),
        tuple(names),
        np.concatenate(unwraps) if has_unwrap else None,
        crease=max(mesh.crease for mesh in meshes),
    )


def welded(mesh: Mesh, *, within: float = 1e-4) -> Mesh:
    """Points that coincide within so many mm made one; triangles that lose their area by it go."""
    rounded = np.round(mesh.points / within).astype(np.int64)
    _, first, index = np.unique(rounded, axis=0, return_index=True, return_inverse=True)
    triangles = index.ravel().astype(np.int32)[mesh.triangles]
    a, b, c = triangles.T
    kept = np.flatnonzero((a != b) & (b != c) & (c != a))
    return Mesh(
        mesh.points[first],
        np.ascontiguousarray(triangles[kept]),
        mesh.groups[kept],
        mesh.names,
        None if mesh.unwrap is None else mesh.unwrap[kept],
        mesh.unwrap_mm,
        mesh.crease,
    )


EMPTY = Mesh(np.zeros((0, 3)), np.zeros((0, 3), np.int32), np.zeros(0, np.int32))
"""A part without faces."""
