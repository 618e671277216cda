"""Large parts made lighter for the time they move: fewer triangles, with the places and normals they had.

Garland and Heckbert 1997, "Surface simplification using quadric error metrics", by a kept library; each triangle that
is left is one of the mesh, moved, and what is laid on it is found anew where its corners have come to lie.
"""

from __future__ import annotations

import math

import fast_simplification
import numpy as np
import numpy.typing as npt
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

from ..core.place.mesh import Faces, Mesh

LARGE = 30_000
"""Triangles of a scene from which on its parts are drawn by stand-ins while it moves."""
TARGET = 12_000
"""Triangles of all stand-ins together, about."""
WORTH = 2_000
"""Triangles of a part under which a stand-in saves nothing."""
Floats = npt.NDArray[np.float32]
Numbers = npt.NDArray[np.integer]


class StandIn:
    """A lighter part: ``corners`` (N, 9) float32 of position in metres, normal and place, once it has been made, and
    about how long its edges are, m.
    """

    def __init__(self, mesh: Mesh, faces: Faces, corners: Floats, share: float) -> None:
        self.corners: Floats | None = None
        self.edge_m = 0.0
        self._of: tuple[Mesh, Faces, Floats] | None = (mesh, faces, corners)
        self._target = max(500, int(share * len(faces)))

    def make(self) -> None:
        """Make it, if it is not there yet."""
        if self._of is not None:
            corners = thin(*self._of, self._target)
            a, b, c = (corners[k::3, :3].astype(np.float64) for k in range(3))
            area = float(np.linalg.norm(np.cross(b - a, c - a), axis=1).sum()) / 2
            self.edge_m = math.sqrt(area / max(1, len(a)))
            self.corners, self._of = corners, None


def thin(mesh: Mesh, faces: Faces, corners: Floats, target: int) -> Floats:
    """The corners (N, 9) of a part thinned to about ``target`` triangles; ``corners`` are those of all its faces."""
    points, index = np.unique(mesh.triangles[faces], return_inverse=True)
    triangles = index.reshape(-1, 3).astype(np.int32)
    start = np.ascontiguousarray(mesh.points[points], np.float32)
    _, _, collapses = fast_simplification.simplify(
        start, triangles, target_count=min(target, len(triangles) - 1), return_collapses=True
    )
    moved, _, mapping = fast_simplification.replay_simplification(start, triangles, collapses)
    mapped = np.asarray(mapping)[triangles]
    there = (mapped[:, 0] != mapped[:, 1]) & (mapped[:, 1] != mapped[:, 2]) & (mapped[:, 2] != mapped[:, 0])
    rows = np.flatnonzero(there)
    count = int(mapped.max()) + 1
    named = np.sort(mapped[rows].astype(np.int64), 1)
    code = (named[:, 0] * count + named[:, 1]) * count + named[:, 2]
    _, first = np.unique(code, return_index=True)
    rows = rows[first]
    out = corners.reshape(-1, 3, 9)[rows].copy()
    out[..., :3] = np.asarray(moved, np.float32)[mapped[rows]] / 1000
    out[..., 6:9] = _laid(corners.reshape(-1, 3, 9)[..., 6:9], start, triangles, mapping, moved, rows)
    out[..., 3:6] = _joined(out[..., 3:6], mapped[rows], count)
    return np.ascontiguousarray(out.reshape(-1, 9))


_CREASE = 0.77
"""Cosine of the angle from which on a normal belongs to a crease and stays."""


def _laid(places: Floats, start: Floats, triangles: Numbers, mapping: Numbers, moved: Floats, rows: Numbers) -> Floats:
    """What is laid on the corners (N, 3, 3) of the triangles that are left, ``rows``: that of the nearest old corner
    which came to lie there and on which the same goes on, and as far further as it grows there. ``places`` (T, 3, 3)
    are those of all old corners, ``start`` (V, 3) where the old ones lie and ``moved`` where ``mapping`` takes them.
    """
    # What is laid changes at corners where faces of unlike layings meet: there a corner has several places.
    coded = np.column_stack([triangles.ravel(), np.rint(places.reshape(-1, 3) * 1e3).astype(np.int64)])
    _, first, node = np.unique(coded, axis=0, return_index=True, return_inverse=True)
    node = node.reshape(-1, 3)
    links = np.concatenate([node[:, :2], node[:, 1:]])
    graph = coo_matrix((np.ones(len(links)), links.T), (len(first), len(first)))
    sheet = connected_components(graph, directed=False)[1]
    grows = _growth(places, start[triangles])
    several = np.bincount(node.ravel(), minlength=len(first))
    mean = np.zeros((len(first), 3, 3))
    for k in range(3):
        np.add.at(mean, node[:, k], grows)
    mean /= several[:, None, None]
    vertex = triangles.ravel()[first]
    goes = np.asarray(mapping)[vertex]
    off = moved[goes] - start[vertex]
    found = places.reshape(-1, 3)[first] + np.einsum("nij,nj->ni", mean, off)
    pair = sheet.astype(np.int64) * len(moved) + goes
    order = np.lexsort((np.linalg.norm(off, axis=1), pair))
    pairs, at = np.unique(pair[order], return_index=True)
    wanted = sheet[node[rows]].astype(np.int64) * len(moved) + np.asarray(mapping)[triangles[rows]]
    # Each corner's own old one is among them, so every pair is there.
    return np.asarray(found[order[at[np.searchsorted(pairs, wanted)]]], np.float32)


def _growth(places: Floats, corners: Floats) -> npt.NDArray[np.float64]:
    """How what is laid on triangles grows along x, y and z: (T, 3, 3); none on one without an area."""
    one, two = (corners[:, k].astype(np.float64) - corners[:, 0] for k in (1, 2))
    normal = np.cross(one, two)
    square = np.maximum((normal**2).sum(1), 1e-12)[:, None]
    by = np.cross(two, normal) / square, np.cross(normal, one) / square
    rise = [(places[:, k] - places[:, 0]).astype(np.float64) for k in (1, 2)]
    return np.asarray(sum(r[:, :, None] * b[:, None, :] for r, b in zip(rise, by, strict=True)))


def _joined(normals: Floats, named: npt.NDArray[np.integer], count: int) -> Floats:
    """Normals (N, 3, 3) of corners that came to lie on one another, by the number (N, 3) of where they lie, made one:
    what was round stays round.
    """
    at, each = named.ravel(), normals.reshape(-1, 3)
    mean = np.stack([np.bincount(at, each[:, k], count) for k in range(3)], -1).astype(np.float32)[at]
    mean /= np.maximum(np.linalg.norm(mean, axis=1, keepdims=True), 1e-9)
    alike = (mean * each).sum(1, keepdims=True) > _CREASE
    return np.asarray(np.where(alike, mean, each).reshape(normals.shape), np.float32)
