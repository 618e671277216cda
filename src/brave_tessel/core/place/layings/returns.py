"""What a surface does at an upright corner: it begins anew there, with a closer, or goes on as its mirror image."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt
import scipy.sparse
from scipy.sparse.csgraph import connected_components

from ..laying import Bed, Places
from ..topology import neighbours

CARRY_ON, ANEW, CLOSER, MIRROR, ONE_PLANE = "carry on", "start anew", "take a closer", "mirror", "one plane"
SMOOTH = math.cos(math.radians(25.0))
STEEP = 0.9
"""Sine of the slope above which an edge is an upright corner."""
APART_MM = 0.5
_Ints = npt.NDArray[np.int64]


def returned(bed: Bed, places: Places, seed: int, how: str) -> Places:
    """Places (N, 3, 2) that were carried on round every corner, as they are with returns of another kind.

    A run of faces that bends little is one wall. Over sills and soffits the surface runs through; at an upright corner
    the next wall's places along are measured from the corner, half a unit less with a closer, or mirrored there.
    """
    row, other, at, upright = _shared(bed, places)
    smooth = np.einsum("ij,ij->i", bed.normals[row], bed.normals[other]) > SMOOTH
    graph = scipy.sparse.coo_matrix(
        (np.ones(int(smooth.sum())), (row[smooth], other[smooth])), shape=(len(places),) * 2
    )
    label = connected_components(graph, directed=False)[1].astype(np.int64)
    first = int(np.flatnonzero(bed.faces == seed)[0])
    turns = _turns(label, (row[~smooth], other[~smooth]), at[~smooth], upright[~smooth], int(label[first]), bed, how)
    factor, shift = turns[label, 0], turns[label, 1]
    out = places.copy()
    out[..., 0] = factor[:, None] * places[..., 0] + shift[:, None]
    return out


def _shared(bed: Bed, places: Places) -> tuple[_Ints, _Ints, Places, npt.NDArray[np.bool_]]:
    """Sides that two faces share and over which the surface runs on: rows, the other rows, where along they are, and
    whether they stand upright.
    """
    inside = np.full(bed.mesh.count, -1, np.int64)
    inside[bed.faces] = np.arange(len(bed.faces))
    across = neighbours(bed.mesh)[bed.faces]
    row, side = np.nonzero(across >= 0)
    other = inside[across[row, side]]
    row, side, other = row[other >= 0], side[other >= 0], other[other >= 0]
    corners = bed.corners
    p, q = corners[row, side], corners[row, (side + 1) % 3]
    here = 0.5 * (places[row, side] + places[row, (side + 1) % 3])
    middle, best = 0.5 * (p + q), np.full(len(row), np.inf)
    for k in range(3):
        there = 0.5 * (corners[other, k] + corners[other, (k + 1) % 3])
        meets = np.linalg.norm(there - middle, axis=1) < 0.05
        apart = np.linalg.norm(0.5 * (places[other, k] + places[other, (k + 1) % 3]) - here, axis=1)
        best = np.where(meets, apart, best)
    held = best < APART_MM
    steep = np.abs(q - p)[:, 2] / np.maximum(np.linalg.norm(q - p, axis=1), 1e-9) > STEEP
    return row[held], other[held], here[held, 0], steep[held]


def _turns(
    label: _Ints, pairs: tuple[_Ints, _Ints], at: Places, upright: npt.NDArray[np.bool_], start: int, bed: Bed, how: str
) -> Places:
    """(runs, 2): what places along are multiplied by, and what is added, for every run from the first one on."""
    turns = np.tile([1.0, 0.0], (int(label.max()) + 1, 1))
    done = {start}
    front = [start]
    a, b = label[pairs[0]], label[pairs[1]]
    while front:
        here = front.pop(0)
        for k in np.flatnonzero(a == here):
            following = int(b[k])
            if following in done:
                continue
            done.add(following)
            front.append(following)
            turns[following] = _turn(turns[here], float(at[k]), bool(upright[k]), bed.unit, how)
    return turns


def _turn(before: Places, corner: float, upright: bool, unit: float, how: str) -> tuple[float, float]:
    factor, shift = float(before[0]), float(before[1])
    if not upright:
        return factor, shift
    if how == MIRROR:
        # The wall before, seen in a mirror that stands at the corner.
        return -factor, 2 * factor * corner + shift
    return 1.0, -corner + (0.5 * unit if how == CLOSER else 0.0)
