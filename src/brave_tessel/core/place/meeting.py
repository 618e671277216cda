"""Where faces that are laid or drawn flat meet: the sides they share, how far apart those lie, how faces stretch."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import scipy.sparse
from scipy.sparse.csgraph import connected_components

from .laying import Places
from .mesh import Faces, Mesh, Vector
from .topology import neighbours

SMOOTH = math.cos(math.radians(25.0))
"""Faces that bend less than this from one to the next are one run: a unit goes round them uncut."""
MEETS_MM = 0.05
_Ints = npt.NDArray[np.int64]
_Floats = npt.NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Meeting:
    """Sides that two faces of some share, each seen from both: the rows of both faces, where its middle is laid by the
    first (M, 2) mm, how far from there the second lays it, the cosine of the bend, and the side itself (M, 3) mm.
    """

    row: _Ints
    other: _Ints
    at: Places
    apart: _Floats
    bend: _Floats
    edge: Vector


def meeting(mesh: Mesh, faces: Faces, places: Places) -> Meeting:
    """How some faces, laid at places (N, 3, 2) mm, meet."""
    row, side, other = shared_sides(mesh, faces)
    corners = mesh.corners[faces]
    p, q = corners[row, side], corners[row, (side + 1) % 3]
    here = 0.5 * (places[row, side] + places[row, (side + 1) % 3])
    apart = np.full(len(row), np.inf)
    for k in range(3):
        there = 0.5 * (corners[other, k] + corners[other, (k + 1) % 3])
        meets = np.linalg.norm(there - 0.5 * (p + q), axis=1) < MEETS_MM
        off = np.linalg.norm(0.5 * (places[other, k] + places[other, (k + 1) % 3]) - here, axis=1)
        apart = np.where(meets, off, apart)
    return Meeting(row, other, here, apart, _bend(mesh, faces, row, other), q - p)


def shared_sides(mesh: Mesh, faces: Faces) -> tuple[_Ints, _Ints, _Ints]:
    """Rows of faces, their sides, and the rows of the faces among them that lie across."""
    inside = np.full(mesh.count, -1, np.int64)
    inside[faces] = np.arange(len(faces))
    across = neighbours(mesh)[faces]
    row, side = np.nonzero(across >= 0)
    other = inside[across[row, side]]
    there = other >= 0
    return row[there], side[there], other[there]


def _bend(mesh: Mesh, faces: Faces, row: _Ints, other: _Ints) -> _Floats:
    return np.asarray(np.einsum("ij,ij->i", mesh.normals[faces[row]], mesh.normals[faces[other]]))


def smooth_runs(mesh: Mesh, faces: Faces) -> _Ints:
    """(N,): which run without a sharp bend each of some faces belongs to."""
    row, _, other = shared_sides(mesh, faces)
    smooth = _bend(mesh, faces, row, other) > SMOOTH
    return joined(len(faces), row[smooth], other[smooth])


def joined(count: int, row: _Ints, other: _Ints) -> _Ints:
    """(count,): numbers of what hangs together through some pairs."""
    graph = scipy.sparse.coo_matrix((np.ones(len(row)), (row, other)), shape=(count, count))
    return np.asarray(connected_components(graph, directed=False)[1], np.int64)


def stretches(corners: Vector, places: Places) -> _Floats:
    """(N, 2): how many mm of triangles (N, 3, 3) lie on one of their places (N, 3, 2), in the two directions in which
    they differ most: singular values of the way from the places to the triangles (Sander et al. 2001).
    """
    e1, e2 = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    d1, d2 = places[:, 1] - places[:, 0], places[:, 2] - places[:, 0]
    det = d1[:, 0] * d2[:, 1] - d1[:, 1] * d2[:, 0]
    safe = np.where(np.abs(det) < 1e-9, 1e-9, det)[:, None]
    s, t = (e1 * d2[:, 1:] - e2 * d1[:, 1:]) / safe, (e2 * d1[:, :1] - e1 * d2[:, :1]) / safe
    a, b, c = (s * s).sum(1), (s * t).sum(1), (t * t).sum(1)
    root = np.sqrt(np.maximum((a - c) ** 2 + 4 * b * b, 0.0))
    return np.stack([np.sqrt((a + c + root) / 2), np.sqrt(np.maximum((a + c - root) / 2, 0.0))], 1)
