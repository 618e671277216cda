"""Rays onto what stands: what lies under the pointer, and how free a place is (Embree)."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from embreex.mesh_construction import TriangleMesh
from embreex.rtcore_scene import EmbreeScene

from .laying import Places
from .mesh import Faces, Mesh, Vector
from .site import Site, Standing
from .topology import kept_with

AT_ONCE = 60_000
"""Triangles over which a tree is made by a worker, not while a person waits."""


@dataclass(frozen=True, slots=True)
class Hit:
    """What a ray met: a face of something that stands, the point in mm, and where it is in the face (barycentric)."""

    standing: Standing
    face: int
    point: Vector
    distance: float
    shares: Vector

    @property
    def part(self) -> str:
        """The part's id."""
        return self.standing.part.id

    @property
    def normal(self) -> Vector:
        """Unit normal of the face."""
        return np.asarray(self.standing.mesh.normals[self.face])


class RayTree:
    """Answers rays onto one mesh. Single precision, so it holds places from the mesh's own middle."""

    def __init__(self, mesh: Mesh) -> None:
        low, high = mesh.box
        self.middle = (low + high) / 2
        self.mesh = mesh
        self.scene = EmbreeScene()
        corners = (mesh.points - self.middle).astype(np.float32)
        self.held = TriangleMesh(self.scene, corners, mesh.triangles.astype(np.int32))

    def first(self, origins: Vector, directions: Vector) -> Faces:
        """(N,): the first face each ray meets, from either side; −1 for none."""
        return np.asarray(
            self.scene.run(
                np.ascontiguousarray(origins - self.middle, np.float32), np.ascontiguousarray(directions, np.float32)
            ),
            np.int32,
        )

    def free(self, origins: Vector, directions: Vector, reach: float) -> Places:
        """(N,): 1 where a ray goes ``reach`` mm without meeting anything, else 0."""
        far = np.full(len(origins), reach, np.float32)
        met = self.scene.run(
            np.ascontiguousarray(origins - self.middle, np.float32), np.ascontiguousarray(directions, np.float32), far,
            query="OCCLUDED",
        )  # fmt: skip
        return np.asarray(np.asarray(met) < 0, np.float64)


def tree_of(mesh: Mesh) -> RayTree:
    """The ray tree of a mesh, made at the first asking."""
    return kept_with(mesh, "rays", lambda: RayTree(mesh))


def ready(mesh: Mesh) -> bool:
    """Whether asking a ray of the mesh keeps nobody waiting."""
    return "rays" in mesh.store or mesh.count <= AT_ONCE


def make_ready(site: Site) -> None:
    """Make every tree that is not made yet."""
    for one in site.standing:
        if one.mesh.count:
            tree_of(one.mesh)


def pick(site: Site, origin: Vector, direction: Vector, *, locked: bool = True) -> Hit | None:
    """The nearest thing a ray meets; without those that are locked if they are not wanted. What has no tree yet is not
    met.
    """
    best: Hit | None = None
    for one in site.standing:
        if not one.mesh.count or (one.part.locked and not locked) or not ready(one.mesh):
            continue
        entry = _enters(one.mesh, origin, direction)
        if entry is None or (best is not None and entry > best.distance):
            continue
        face = int(tree_of(one.mesh).first(origin[None], direction[None])[0])
        if face < 0:
            continue
        found = _exactly(one, face, origin, direction)
        if found is not None and (best is None or found.distance < best.distance):
            best = found
    return best


def _enters(mesh: Mesh, origin: Vector, direction: Vector) -> float | None:
    """How far along a ray the box of a mesh begins; None where it is missed."""
    low, high = mesh.box
    slope = np.where(np.abs(direction) < 1e-12, 1e-12, direction)
    one, other = (low - 1.0 - origin) / slope, (high + 1.0 - origin) / slope
    start, end = float(np.minimum(one, other).max()), float(np.maximum(one, other).min())
    return max(start, 0.0) if end >= max(start, 0.0) else None


def _exactly(one: Standing, face: int, origin: Vector, direction: Vector) -> Hit | None:
    """The tree says which face; where on it is worked out in double precision (Möller and Trumbore 1997)."""
    a, b, c = one.mesh.corners[face]
    edge1, edge2 = b - a, c - a
    p = np.cross(direction, edge2)
    determinant = float(edge1 @ p)
    if abs(determinant) < 1e-12:
        return None
    t = origin - a
    u = float(t @ p) / determinant
    q = np.cross(t, edge1)
    v = float(direction @ q) / determinant
    distance = float(edge2 @ q) / determinant
    if distance <= 0:
        return None
    return Hit(one, face, origin + distance * direction, distance, np.array([1 - u - v, u, v]))
