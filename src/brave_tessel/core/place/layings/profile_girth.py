"""Up over a moulding: how far a point is along its profile, from the edge it begins at, face after face."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from ..laying import Bed, Places
from ..mesh import Vector
from ..paths import Track

SKIN = 0.7
"""Faces that look along the path by more are its ends."""
NEAR_MM = 0.6
"""Points of the profile that are this near are one."""


def over_profile(track: Track, bed: Bed, away: Vector, where: Vector) -> tuple[Places, float, Places]:
    """(N, 3) mm up the profile for the corners of every face, its whole length, and (N, 3) mm how far corners of its
    ends lie beside the path.

    The profile is what the faces' corners are in frames that move along the path without turning about it.
    """
    sides, ups = track.frames_at(where)
    flat = np.stack([np.einsum("ij,ij->i", away, sides), np.einsum("ij,ij->i", away, ups)], 1)
    knots, own = _welded(flat)
    own = own.reshape(-1, 3)
    skin = np.abs(np.einsum("ij,ij->i", bed.normals, track.tangents_at(where.reshape(-1, 3).mean(1)))) < SKIN
    pairs = {
        (min(int(a), int(b)), max(int(a), int(b)))
        for face in np.unique(np.sort(own[skin], 1), axis=0)
        for a, b in ((face[0], face[1]), (face[1], face[2]), (face[0], face[2]))
        if a != b
    }
    way = _round_it(knots, pairs)
    if not way:
        return np.zeros(own.shape), 0.0, np.zeros(own.shape)
    at = np.zeros(len(knots))
    steps = np.linalg.norm(np.diff(knots[way], axis=0), axis=1)
    at[way[1:] if way[0] == way[-1] else way] = np.cumsum(steps) if way[0] == way[-1] else np.r_[0.0, np.cumsum(steps)]
    up, whole = at[own], float(steps.sum())
    if way[0] == way[-1]:
        # The faces that begin the ring begin at nothing, those that close it end at its whole length.
        begins = (own == way[0]).any(1) & (own == way[1]).any(1)
        up = np.where(begins[:, None] & (own == way[0]), 0.0, up)
    # The ends of a moulding are cut square: their faces are seen as they are.
    up[~skin] = flat[:, 1].reshape(-1, 3)[~skin] - float(flat[:, 1].min())
    aside = np.where(skin[:, None], 0.0, flat[:, 0].reshape(-1, 3))
    return up, whole, aside


def _welded(flat: Places) -> tuple[Places, npt.NDArray[np.int64]]:
    """Points of the profile, each once, and which of them every corner is."""
    cells = np.round(flat / NEAR_MM).astype(np.int64)
    _, first, own = np.unique(cells, axis=0, return_index=True, return_inverse=True)
    points = flat[first]
    own = own.ravel()
    # Neighbouring cells hold what rounding parted.
    alias = np.arange(len(points))
    order = np.lexsort((points[:, 1], points[:, 0]))
    for k, i in enumerate(order):
        for j in order[k + 1 :]:
            if points[j, 0] - points[i, 0] > NEAR_MM:
                break
            if abs(points[j, 1] - points[i, 1]) <= NEAR_MM:
                alias[j] = alias[i]
    kept, back = np.unique(alias, return_inverse=True)
    return points[kept], back[own]


def _round_it(knots: Places, pairs: set[tuple[int, int]]) -> list[int]:
    """The knots in their order from the chain's lower end on; a ring begins and ends at its lowest knot."""
    beside: dict[int, list[int]] = {}
    for a, b in sorted(pairs):
        beside.setdefault(a, []).append(b)
        beside.setdefault(b, []).append(a)
    if not beside:
        return []
    ends = [k for k, others in beside.items() if len(others) == 1]
    start = min(ends or list(beside), key=lambda k: (round(float(knots[k, 1]), 1), -float(knots[k, 0])))
    way, before = [start], -1
    while True:
        ahead = [k for k in beside[way[-1]] if k != before and (k not in way or (k == start and len(way) > 2))]
        if not ahead:
            return way
        # Straight on where several faces meet.
        here = knots[way[-1]]
        came = here - knots[before] if before >= 0 else np.array([-1.0, 0.0])
        before = way[-1]
        way.append(max(ahead, key=lambda k: float((knots[k] - here) @ came) / (np.linalg.norm(knots[k] - here) + 1e-9)))
        if way[-1] == start:
            return way
