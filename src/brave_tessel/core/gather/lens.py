"""A lens that bends straight lines: one radial parameter, found from a line that should be straight.

Division model (Fitzgibbon 2001, "Simultaneous linear estimation of multiple view geometry and lens
distortion", CVPR, section 2): straight = bent / (1 + bend r²), r from the picture's middle in half
diagonals. ``bend`` below 0 takes out a barrel, above 0 a pincushion.
"""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from ..errors import DegenerateViewError

MOST_BEND = 0.24
"""Beyond 1/4 the model no longer has an inverse within the picture."""
Points = npt.NDArray[np.float64]


def _centred(points: npt.ArrayLike, picture_size: tuple[int, int]) -> tuple[Points, Points, float]:
    middle = np.array(picture_size, np.float64) / 2
    half = math.hypot(*picture_size) / 2
    return (np.asarray(points, np.float64) - middle) / half, middle, half


def unbend(points: npt.ArrayLike, bend: float, picture_size: tuple[int, int]) -> Points:
    """Where photo pixels (…, 2) lie once the lens is taken out."""
    away, middle, half = _centred(points, picture_size)
    square = (away * away).sum(-1, keepdims=True)
    return np.asarray(away / (1 + bend * square) * half + middle)


def rebend(points: npt.ArrayLike, bend: float, picture_size: tuple[int, int]) -> Points:
    """Where straight pixels (…, 2) lie on the photo: the inverse of :func:`unbend`."""
    away, middle, half = _centred(points, picture_size)
    square = (away * away).sum(-1, keepdims=True)
    root = np.sqrt(np.maximum(1 - 4 * bend * square, 0.0))
    return np.asarray(away * 2 / (1 + root) * half + middle)


def bend_of_line(
    first: tuple[float, float], middle: tuple[float, float], last: tuple[float, float], picture_size: tuple[int, int]
) -> float:
    """The bend that makes three photo points lie on one straight line.

    Three points (x, y, 1 + bend r²) are in line where their determinant is 0, which is linear in bend.

    Raises
    ------
    DegenerateViewError
        when the line runs through the picture's middle, where no lens bends it, or bends too much.
    """
    away, _, _ = _centred([first, middle, last], picture_size)
    square = (away * away).sum(1)
    plain = float(np.linalg.det(np.column_stack([away, np.ones(3)])))
    by_bend = float(np.linalg.det(np.column_stack([away, square])))
    bend = -plain / by_bend if abs(by_bend) > 1e-5 else math.inf
    if abs(plain) < 1e-9:
        return 0.0
    if not abs(bend) <= MOST_BEND:
        raise DegenerateViewError(
            "lens curvature",
            allowed="a straight edge near the border of the photo, not through its middle",
            remedy="Draw along an edge further out.",
        )
    return bend
