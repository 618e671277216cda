"""A lens that bends straight lines: two radial parameters, found from edges that should be straight.

Division model (Fitzgibbon 2001, "Simultaneous linear estimation of multiple view geometry and lens
distortion", CVPR, section 2) with its second term: straight = bent / (1 + k1 r² + k2 r⁴), r from the
picture's middle in half diagonals. A first parameter below 0 takes out a barrel, above 0 a pincushion; the
second bends the corners apart from the middle, as wide lenses do.
"""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from ..errors import DegenerateViewError

Lens = tuple[float, float]
"""``(k1, k2)``."""
STRAIGHT: Lens = (0.0, 0.0)
MOST_BEND = 0.24
"""Beyond 1/4 the model with one parameter no longer has an inverse within the picture."""
Points = npt.NDArray[np.float64]
Edge = tuple[tuple[float, float], tuple[float, float], tuple[float, float]]
"""Three photo points, in pixels, along an edge that is straight in the world: one end, its middle, the other end."""
_ROUNDS = 12
_HAND_PX = 1.0
_LIKELY_SECOND = 0.08


def _centred(points: npt.ArrayLike, picture_size: tuple[int, int]) -> tuple[Points, Points, float]:
    middle = np.array(picture_size, np.float64) / 2
    half = math.hypot(*picture_size) / 2
    return (np.asarray(points, np.float64) - middle) / half, middle, half


def unbend(points: npt.ArrayLike, lens: Lens, picture_size: tuple[int, int]) -> Points:
    """Where photo pixels (…, 2) lie once the lens is taken out."""
    away, middle, half = _centred(points, picture_size)
    square = (away * away).sum(-1, keepdims=True)
    return np.asarray(away / (1 + lens[0] * square + lens[1] * square * square) * half + middle)


def rebend(points: npt.ArrayLike, lens: Lens, picture_size: tuple[int, int]) -> Points:
    """Where straight pixels (…, 2) lie on the photo: the inverse of :func:`unbend`."""
    away, middle, half = _centred(points, picture_size)
    square = (away * away).sum(-1, keepdims=True)
    root = np.sqrt(np.maximum(1 - 4 * lens[0] * square, 0.0))
    grown = 2 / (1 + root)
    if lens[1] != 0:
        # The ratio s of bent to straight radius satisfies s = 1 + k1 (s r)² + k2 (s r)⁴: Newton from the closed form.
        for _ in range(_ROUNDS):
            bent = grown * grown * square
            over = grown - 1 - lens[0] * bent - lens[1] * bent * bent
            slope = 1 - (2 * lens[0] * bent + 4 * lens[1] * bent * bent) / grown
            grown = np.clip(grown - over / np.maximum(slope, 0.1), 0.3, 3.0)
    return np.asarray(away * grown * half + middle)


def reversible(lens: Lens) -> bool:
    """Whether every place of the picture has one straight place, so that the lens can be taken out."""
    square = np.linspace(0, 1, 65) ** 2
    below = 1 + lens[0] * square + lens[1] * square**2
    rising = 1 - lens[0] * square - 3 * lens[1] * square**2
    return bool(min(below.min(), rising.min()) > 0.03)


def lens_of_edges(edges: tuple[Edge, ...], picture_size: tuple[int, int]) -> Lens:
    """The lens that makes each edge's three photo points lie on one straight line.

    Three points (x, y, 1 + k1 r² + k2 r⁴) are in line where their determinant is 0, which is linear in both.
    One edge tells the first parameter; from two on both are told by least squares.

    Raises
    ------
    DegenerateViewError
        when the edges run through the picture's middle, where no lens bends them, or bend too much.
    """
    rows = np.array([_sags(edge, picture_size) for edge in edges])
    if np.abs(rows[:, 2]).max() < 1e-9:
        return STRAIGHT
    for lens in (_two(rows, math.hypot(*picture_size) / 2), _one(rows)):
        if lens is not None and abs(lens[0]) <= MOST_BEND and reversible(lens):
            return lens
    raise DegenerateViewError(
        "lens curvature",
        allowed="a straight edge near the border of the photo, not through its middle",
        remedy="Draw along an edge further out.",
    )


def _one(rows: Points) -> Lens | None:
    strength = float(rows[:, 0] @ rows[:, 0])
    return (float(-(rows[:, 0] @ rows[:, 2]) / strength), 0.0) if strength > 1e-10 else None


def _two(rows: Points, half_px: float) -> Lens | None:
    """Both parameters; a second one that a pixel of the hand could feign is held back by what lenses have."""
    if len(rows) < 2:
        return None
    held = np.array([0.0, _HAND_PX / half_px / _LIKELY_SECOND])
    found = np.linalg.lstsq(np.vstack([rows[:, :2], held]), np.append(-rows[:, 2], 0.0), rcond=None)[0]
    return float(found[0]), float(found[1])


def _sags(edge: Edge, picture_size: tuple[int, int]) -> tuple[float, float, float]:
    """How far an edge's middle leaves its chord by k1 and by k2, and without a lens, in half diagonals."""
    away, _, _ = _centred(edge, picture_size)
    chord = max(float(np.hypot(*(away[2] - away[0]))), 1e-9)
    square = (away * away).sum(1)
    by = [
        float(np.linalg.det(np.column_stack([away, third]))) / chord for third in (square, square * square, np.ones(3))
    ]
    return by[0], by[1], by[2]
