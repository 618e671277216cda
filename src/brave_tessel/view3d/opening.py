"""How far an eye opens under a roof: by how much of the sky is seen about it, asked by rays."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

from ..core.light.directions import even_directions
from ..core.place.mesh import Mesh
from ..core.place.rays import RayTree
from .drawn import DrawPart

Vector = npt.NDArray[np.float64]
_WAYS = even_directions(192)
_AHEAD, _ROOM = np.array([0.0, 0.5, 1.0, 1.5]), 0.2
"""Where along its view an eye is asked about, and how far before what stands there, m."""


def opened(share: float) -> float:
    """How far an eye opens that sees so little of the sky: the inverse of the light there, within reason."""
    pale = 0.47
    light = share + pale * share / (1 - pale * (1 - share))
    return min(9.0, max(1.0, 0.8 / max(light, 0.05)))


class Opening:
    """Rays onto all that is not looked through. The window and its stills ask the same, and so open alike."""

    def __init__(self, parts: Sequence[DrawPart]) -> None:
        self._tree: RayTree | None = None
        self._known: tuple[tuple[float, ...], float] = ((), 1.0)
        corners = [part.positions for part in parts if not part.clear and len(part.positions)]
        if corners:
            places = np.concatenate(corners).astype(np.float64)
            triangles = np.arange(len(places), dtype=np.int32).reshape(-1, 3)
            self._tree = RayTree(Mesh(places, triangles, np.zeros(len(triangles), np.int32)))

    def factor(self, eye: Vector, toward: Vector) -> float:
        """How far an eye, m, opens that looks towards a place: 1 under the open sky."""
        asked = (*eye.tolist(), *toward.tolist())
        if self._known[0] != asked:
            self._known = (asked, opened(self.share(eye, toward)))
        return self._known[1]

    def share(self, eye: Vector, toward: Vector) -> float:
        """The open share of all directions about an eye and a little before it."""
        if self._tree is None:
            return 1.0
        ahead = (toward - eye) / max(float(np.linalg.norm(toward - eye)), 1e-6)
        places = eye + ahead * _AHEAD[:, None]
        seen, within = self._about(places)
        before = [bool(self._tree.free(eye[None], ahead[None], reach + _ROOM)[0]) for reach in _AHEAD]
        before[0] = True
        # An eye within a wall is as open as what it comes out to.
        for counts in (np.array(before) & ~within, ~within):
            if counts.any():
                return float(seen[counts].mean())
        return float(seen.mean())

    def light_on(self, places: Vector, normals: Vector, ways: Vector) -> npt.NDArray[np.float64]:
        """(M,): how much of the light of each direction (M, 3) falls on places (N, 3), m, as a mean."""
        facing = np.maximum(normals @ ways.T, 0.0)
        if self._tree is not None:
            at, way = np.nonzero(facing)
            facing[at, way] *= self._tree.free(places[at], ways[way], _FAR_M)
        return np.asarray(facing.mean(0))

    def _about(self, places: Vector) -> tuple[npt.NDArray[np.float64], npt.NDArray[np.bool_]]:
        """The open share about each place, and whether it is within something: it sees the backs of faces."""
        assert self._tree is not None
        starts, ways = np.repeat(places, len(_WAYS), 0), np.tile(_WAYS, (len(places), 1))
        met = self._tree.first(starts, ways)
        behind = np.zeros(len(met), np.bool_)
        hit = met >= 0
        behind[hit] = (self._tree.mesh.normals[met[hit]] * ways[hit]).sum(1) > 0
        shape = (len(places), len(_WAYS))
        return (~hit).reshape(shape).mean(1), behind.reshape(shape).mean(1) > _BACKS


_FAR_M = 1e6
_BACKS = 0.6
"""Of all directions; over the half, for what stands open is seen from behind too."""
