"""What a surface does at an upright corner: it begins anew there, with a closer, or goes on as its mirror image."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from ..laying import Bed, Places
from ..meeting import SMOOTH, joined, meeting

CARRY_ON, ANEW, CLOSER, MIRROR, ONE_PLANE = "carry on", "start anew", "take a closer", "mirror", "one plane"
STEEP = 0.9
"""Sine of the slope above which an edge is an upright corner."""
APART_MM = 0.5
_Ints = npt.NDArray[np.int64]


def returned(bed: Bed, places: Places, seed: int, how: str) -> Places:
    """Places (N, 3, 2) that were carried on round every corner, as they are with returns of another kind.

    A run of faces that bends little is one wall. Over sills and soffits the surface runs through; at an upright corner
    the next wall's places along are measured from the corner, half a unit less with a closer, or mirrored there.
    """
    found = meeting(bed.mesh, bed.faces, places)
    held = found.apart < APART_MM
    smooth = held & (found.bend > SMOOTH)
    label = joined(len(places), found.row[smooth], found.other[smooth])
    corner = held & ~smooth
    upright = np.abs(found.edge[:, 2]) > STEEP * np.maximum(np.linalg.norm(found.edge, axis=1), 1e-9)
    pairs = (label[found.row[corner]], label[found.other[corner]])
    first = int(np.flatnonzero(bed.faces == seed)[0])
    start = int(label[first])
    turns = _turns(int(label.max()) + 1, pairs, found.at[corner, 0], upright[corner], start, bed, how)
    factor, shift = turns[label, 0], turns[label, 1]
    out = places.copy()
    out[..., 0] = factor[:, None] * places[..., 0] + shift[:, None]
    return out


def _turns(
    count: int, pairs: tuple[_Ints, _Ints], at: Places, upright: npt.NDArray[np.bool_], start: int, bed: Bed, how: str
) -> Places:
    """(runs, 2): what places along are multiplied by, and what is added, for every run from the first one on."""
    turns = np.tile([1.0, 0.0], (count, 1))
    done = {start}
    front = [start]
    a, b = pairs
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
