"""Faces picked on a model: how they are found, and how they are kept so that a changed model keeps them.

What is kept of every face is its number, its middle and its normal. On the same mesh the numbers say it all; on another
one the nearest face that looks the same way takes the place of each.
"""

from __future__ import annotations

import base64
import binascii
import zlib

import numpy as np
from scipy.spatial import cKDTree

from .mesh import Faces, Mesh, Vector
from .topology import facets, grown, neighbours, places

_MILLI = 1000.0
SAME_MM = 0.01
LOOKS_ALIKE = 0.7
"""Cosine of how far the normal of a face may turn for it to be taken for the same."""


def packed(faces: Faces, mesh: Mesh) -> str:
    """Faces as text for the job: numbers, middles and normals, squeezed."""
    faces = np.unique(faces).astype(np.int32)
    middles = mesh.corners[faces].mean(1)
    record = (
        faces.astype("<i4").tobytes()
        + middles.astype("<f4").tobytes()
        + np.round(mesh.normals[faces] * 127).astype("i1").tobytes()
    )
    return base64.b64encode(zlib.compress(record, 6)).decode()


def unpacked(text: str, mesh: Mesh) -> Faces:
    """The faces that a text of :func:`packed` names, on that mesh or on one that has changed; none where it cannot be
    read.
    """
    key = f"picked {hash(text)}"
    if key not in mesh.store:
        mesh.store[key] = _found_again(text, mesh)
    return mesh.store[key]  # type: ignore[return-value]


def _found_again(text: str, mesh: Mesh) -> Faces:
    try:
        data = zlib.decompress(base64.b64decode(text, validate=True))
    except (binascii.Error, zlib.error, ValueError):
        return np.zeros(0, np.int32)
    count = len(data) // 19
    if not count or len(data) != 19 * count or not mesh.count:
        return np.zeros(0, np.int32)
    faces = np.frombuffer(data, "<i4", count)
    middles = np.frombuffer(data, "<f4", 3 * count, 4 * count).reshape(-1, 3).astype(float)
    normals = np.frombuffer(data, "i1", 3 * count, 16 * count).reshape(-1, 3) / 127.0
    if not np.isfinite(middles).all():
        return np.zeros(0, np.int32)
    if faces.min() >= 0 and faces.max() < mesh.count:
        now = mesh.corners[faces].mean(1)
        size = max(1.0, float(np.abs(now).max()))
        if np.abs(now - middles).max() < SAME_MM + 1e-5 * size:
            return faces.astype(np.int32)
    return _nearest(mesh, middles, normals)


def _nearest(mesh: Mesh, middles: Vector, normals: Vector) -> Faces:
    """Faces of a changed mesh whose own nearest kept face is one that was picked and looks the same way; and for every
    picked one the nearest there is.
    """
    own = mesh.corners.mean(1)
    _, at = cKDTree(own).query(middles)
    alike = np.einsum("ij,ij->i", mesh.normals[at], normals) > LOOKS_ALIKE
    found = set(at[alike].tolist())
    # A finer mesh has faces between those: they belong where they lie in the plane and within reach of one.
    spread = np.sqrt(np.maximum(mesh.areas.mean(), 1e-9))
    gap, nearest = cKDTree(middles).query(own)
    level = np.abs(np.einsum("ij,ij->i", own - middles[nearest], normals[nearest])) < 0.05 * spread + 0.5
    looks = np.einsum("ij,ij->i", mesh.normals, normals[nearest]) > LOOKS_ALIKE
    reach = _reach(middles)
    found |= set(np.flatnonzero(level & looks & (gap < reach)).tolist())
    return np.array(sorted(found), np.int32)


def _reach(middles: Vector) -> float:
    """How far from its neighbour a picked face lies at most, as a rule."""
    if len(middles) < 2:
        return 1.0
    gaps, _ = cKDTree(middles).query(middles, k=2)
    return float(np.percentile(gaps[:, 1], 90))


# Finding -----------------------------------------------------------------------------------------


def in_plane(mesh: Mesh, face: int) -> Faces:
    """The flat facet a face belongs to."""
    label = facets(mesh)
    return np.flatnonzero(label == label[face]).astype(np.int32)


def within_angle(mesh: Mesh, face: int, degrees: float) -> Faces:
    """Faces connected with one that turn from it by at most so many degrees."""
    least = float(np.cos(np.radians(degrees)))
    return grown(mesh, face, lambda ahead: mesh.normals[ahead] @ mesh.normals[face] >= least - 1e-9)


def same_group(mesh: Mesh, face: int) -> Faces:
    """All faces of a face's group or material."""
    return np.flatnonzero(mesh.groups == mesh.groups[face]).astype(np.int32)


def island(mesh: Mesh, face: int) -> Faces:
    """All faces connected with one."""
    return grown(mesh, face, lambda ahead: np.ones(len(ahead), bool))


def within_reach(mesh: Mesh, point: Vector, radius: float, normal: Vector) -> Faces:
    """Faces a round brush touches: within its radius of a point, and looking about the same way."""
    a, b, c = (mesh.corners[:, i] for i in range(3))
    near = np.linalg.norm(_closest(point, a, b, c) - point, axis=1) <= radius
    return np.flatnonzero(near & (mesh.normals @ normal > 0.2)).astype(np.int32)


def _closest(p: Vector, a: Vector, b: Vector, c: Vector) -> Vector:
    """The points of triangles nearest to a point (Ericson 2005, section 5.1.5, by clamped projections)."""
    ab, ac = b - a, c - a
    normal = np.cross(ab, ac)
    size = np.maximum(np.einsum("ij,ij->i", normal, normal), 1e-18)
    flat = p - (np.einsum("ij,ij->i", p - a, normal) / size)[:, None] * normal
    v = np.einsum("ij,ij->i", np.cross(flat - a, ac), normal) / size
    w = np.einsum("ij,ij->i", np.cross(ab, flat - a), normal) / size
    inside = (v >= 0) & (w >= 0) & (v + w <= 1)
    best = np.where(inside[:, None], flat, 0.0)
    gap = np.where(inside, ((flat - p) ** 2).sum(1), np.inf)
    for start, end in ((a, b), (b, c), (c, a)):
        side = end - start
        t = np.clip(np.einsum("ij,ij->i", p - start, side) / np.maximum((side**2).sum(1), 1e-18), 0, 1)
        at = start + t[:, None] * side
        away = ((at - p) ** 2).sum(1)
        nearer = away < gap
        best[nearer], gap[nearer] = at[nearer], away[nearer]
    return best


def more(mesh: Mesh, faces: Faces) -> Faces:
    """The faces and their neighbours, all that share a corner."""
    touched = np.isin(places(mesh), np.unique(places(mesh)[faces])).any(1)
    return np.flatnonzero(touched).astype(np.int32)


def fewer(mesh: Mesh, faces: Faces) -> Faces:
    """The faces without those at their rim."""
    inside = np.zeros(mesh.count, bool)
    inside[faces] = True
    across = neighbours(mesh)[faces]
    rim = ((across < 0) | ~inside[np.maximum(across, 0)]).any(1)
    return faces[~rim]


def loop(mesh: Mesh, face: int, side: int) -> Faces:
    """A loop of four-sided faces: out of a face through one of its sides, into the next and out through its opposite
    side, and on, both ways. Two triangles that share the longest side of both count as one four-sided face.
    """
    found = {face, *_partner(mesh, face)}
    for holder, edge in ((face, side), _opposite(mesh, face, side)):
        _run(mesh, holder, edge, found)
    return np.array(sorted(found), np.int32)


def _partner(mesh: Mesh, face: int) -> list[int]:
    """The triangle that makes four sides with one: across its longest side, if that is the longest of both."""
    other = int(neighbours(mesh)[face, _longest(mesh, face)])
    if other < 0 or int(neighbours(mesh)[other, _longest(mesh, other)]) != face:
        return []
    return [other]


def _longest(mesh: Mesh, face: int) -> int:
    corners = mesh.corners[face]
    return int(np.linalg.norm(np.roll(corners, -1, 0) - corners, axis=1).argmax())


def _run(mesh: Mesh, holder: int, edge: int, found: set[int]) -> None:
    across, at = neighbours(mesh), places(mesh)
    while True:
        ahead = int(across[holder, edge])
        if ahead < 0 or ahead in found:
            return
        shared = {int(at[holder, edge]), int(at[holder, (edge + 1) % 3])}
        entered = next(k for k in range(3) if {int(at[ahead, k]), int(at[ahead, (k + 1) % 3])} == shared)
        found |= {ahead, *_partner(mesh, ahead)}
        holder, edge = _opposite(mesh, ahead, entered)


def _opposite(mesh: Mesh, face: int, side: int) -> tuple[int, int]:
    """The side opposite to one of a four-sided face, and the triangle that has it."""
    partner = _partner(mesh, face)
    at = places(mesh)
    if not partner:
        return face, (side + 1) % 3
    edge = {int(at[face, side]), int(at[face, (side + 1) % 3])}
    for one in (partner[0], face):
        for k in range(3):
            other = {int(at[one, k]), int(at[one, (k + 1) % 3])}
            if not other & edge and k != (_longest(mesh, one)):
                return one, k
    return partner[0], (_longest(mesh, partner[0]) + 1) % 3
