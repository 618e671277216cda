"""Large parts made lighter for the time they move: fewer triangles, with the places and normals they had.

Garland and Heckbert 1997, "Surface simplification using quadric error metrics", by a kept library; each triangle that
is left is one of the mesh, moved, and keeps what was laid on it.
"""

from __future__ import annotations

import fast_simplification
import numpy as np
import numpy.typing as npt

from ..core.place.mesh import Faces, Mesh

LARGE = 30_000
"""Triangles of a scene from which on its parts are drawn by stand-ins while it moves."""
TARGET = 12_000
"""Triangles of all stand-ins together, about."""
WORTH = 2_000
"""Triangles of a part under which a stand-in saves nothing."""
Floats = npt.NDArray[np.float32]


class StandIn:
    """A lighter part: ``corners`` (N, 9) float32 of position in metres, normal and place, once it has been made."""

    def __init__(self, mesh: Mesh, faces: Faces, corners: Floats, share: float) -> None:
        self.corners: Floats | None = None
        self._of: tuple[Mesh, Faces, Floats] | None = (mesh, faces, corners)
        self._target = max(500, int(share * len(faces)))

    def make(self) -> None:
        """Make it, if it is not there yet."""
        if self._of is not None:
            self.corners = thin(*self._of, self._target)
            self._of = None


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
    out[..., 3:6] = _joined(out[..., 3:6], mapped[rows], count)
    return np.ascontiguousarray(out.reshape(-1, 9))


_CREASE = 0.77
"""Cosine of the angle from which on a normal belongs to a crease and stays."""


def _joined(normals: Floats, named: npt.NDArray[np.integer], count: int) -> Floats:
    """Normals (N, 3, 3) of corners that came to lie on one another, by the number (N, 3) of where they lie, made one:
    what was round stays round.
    """
    at, each = named.ravel(), normals.reshape(-1, 3)
    mean = np.stack([np.bincount(at, each[:, k], count) for k in range(3)], -1).astype(np.float32)[at]
    mean /= np.maximum(np.linalg.norm(mean, axis=1, keepdims=True), 1e-9)
    alike = (mean * each).sum(1, keepdims=True) > _CREASE
    return np.asarray(np.where(alike, mean, each).reshape(normals.shape), np.float32)
