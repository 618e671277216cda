"""The proportion of a rectangle seen on a photo, how it was told, and how far it can be trusted."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum
from functools import partial

import numpy as np
import numpy.typing as npt

from ..errors import DegenerateViewError
from ..phrases import Phrase, say
from .lens import STRAIGHT, Lens
from .straighten import Corners, check_corners, straight_corners

_PARALLEL = 1e-4
CORNER_PX = 1.0
"""The error of a corner for which ± is told."""
OFF_MIDDLE = 0.1
"""How far from the middle the optical axis of a cut picture is supposed to meet it, as a share of a side."""
_UNSURE = 0.04
_LIKELY_FOCAL = (0.33, 7.0)
"""Focal lengths in diagonals of the picture that cameras have: 14 to 300 mm on 36 × 24 mm film."""
FILM_DIAGONAL_MM = math.hypot(36, 24)


class Doubt(StrEnum):
    """Why a proportion is not to be relied on."""

    CORNERS = "corners"
    CUT = "cut"
    DISAGREES = "disagrees"
    FOCAL = "focal"


_REMARKS = {
    Doubt.CORNERS: "One pixel at a corner changes the proportion by {share} %: type it, or the focal length.",
    Doubt.CUT: (
        "If this photo was cut from a larger one, its middle lies {way} and the proportion may be off by {share} %: "
        "type the focal length or the proportion."
    ),
    Doubt.DISAGREES: (
        "The view contradicts the focal length: the photo was cut from a larger one, or the frame is no rectangle. "
        "The proportion may be off by {share} %."
    ),
    Doubt.FOCAL: "No lens looks like this: the frame is no rectangle, or the photo was cut from a larger one.",
}


@dataclass(frozen=True)
class SeenProportion:
    """Width over height as seen.

    ``spread`` is its relative standard deviation where each corner coordinate is wrong by ``CORNER_PX``;
    ``shifted`` its relative change where the optical axis lies ``OFF_MIDDLE`` of the width to one side, and of
    the height above or below, the larger of both ways each; ``focal_px`` what it was computed with, 0 where
    none was needed; ``known`` whether that was told rather than seen; ``seen_focal_px`` what the view itself
    tells, 0 where it does not.
    """

    ratio: float
    spread: float
    shifted: tuple[float, float]
    focal_px: float
    known: bool
    seen_focal_px: float
    doubt: Doubt | None

    @property
    def uncertain(self) -> float:
        """The relative ± that a person should read: by corners, and by a cut that the view alone cannot exclude."""
        return max(self.spread, max(self.shifted) if self.doubt in (Doubt.CUT, Doubt.DISAGREES) else 0.0)

    @property
    def remark(self) -> Phrase | None:
        """The doubt in words."""
        if self.doubt is None:
            return None
        share = f"{100 * self.uncertain:.0f}"
        way = say("to one side") if self.shifted[0] >= self.shifted[1] else say("above or below")
        return say(_REMARKS[self.doubt], share=share, way=way)


def film_mm(focal_px: float, picture_size: tuple[int, int]) -> float:
    """A focal length in pixels as mm on 36 × 24 mm film with the same diagonal view (Exif 2.3, tag 41989)."""
    return focal_px / math.hypot(*picture_size) * FILM_DIAGONAL_MM


def focal_of_film(mm: float, picture_size: tuple[int, int]) -> float:
    """The inverse of :func:`film_mm`: pixels."""
    return mm / FILM_DIAGONAL_MM * math.hypot(*picture_size)


def proportion(
    corners: Corners, *, picture_size: tuple[int, int], focal_px: float = 0.0, lens: Lens = STRAIGHT
) -> float:
    """Width over height of the rectangle seen through the corners.

    Zhang and He 2007, "Whiteboard scanning and image enhancement", Digital Signal Processing 17,
    section 3; the principal point is the picture's middle and pixels are square. A known focal length
    (``focal_px`` above 0) goes before the one that the view tells; ``lens`` as in :mod:`.lens`.

    Raises
    ------
    DegenerateViewError
        when one pair of sides stays parallel in the picture and no focal length is known.
    """
    flat = straight_corners(corners, lens, picture_size)
    check_corners(flat)
    return _told(flat, (picture_size[0] / 2, picture_size[1] / 2), focal_px)[0]


def seen_proportion(
    corners: Corners, *, picture_size: tuple[int, int], focal_px: float = 0.0, lens: Lens = STRAIGHT
) -> SeenProportion:
    """:func:`proportion` with its uncertainty and, where there is one, the reason not to rely on it.

    Raises
    ------
    DegenerateViewError
        as :func:`proportion`.
    """
    flat = straight_corners(corners, lens, picture_size)
    check_corners(flat)
    middle = picture_size[0] / 2, picture_size[1] / 2
    ratio, focal = _told(flat, middle, focal_px)
    if _face_on(corners):
        # A scan, or a photo taken square to the wall: there is no perspective that could be wrong by a pixel.
        wide, tall = (math.dist(corners[0], corners[k]) for k in (1, 3))
        spread = math.hypot(CORNER_PX / wide, CORNER_PX / tall)
        return SeenProportion(ratio, spread, (0.0, 0.0), focal, focal_px > 0, 0.0, None)
    seen = _own_focal(flat, middle)
    spread, focal_spread = _spread(flat, middle, focal_px, ratio)
    shifted = tuple(
        max(_change(partial(_told, flat, _moved(middle, picture_size, way, by), focal_px), ratio) for by in (-1, 1))
        for way in (0, 1)
    )
    found = SeenProportion(ratio, spread, (shifted[0], shifted[1]), focal, focal_px > 0, seen, None)
    doubt = _doubt(found, focal_spread, math.hypot(*picture_size))
    return SeenProportion(ratio, spread, found.shifted, focal, found.known, seen, doubt)


def _face_on(corners: Corners) -> bool:
    """Whether a frame is a rectangle that stands square in the picture: corners in order from the upper left."""
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = corners
    return max(abs(ax - dx), abs(bx - cx), abs(ay - by), abs(cy - dy)) < _SQUARE_PX


_SQUARE_PX = 0.25


def _doubt(found: SeenProportion, focal_spread: float, diagonal: float) -> Doubt | None:
    """The first reason not to rely on a proportion."""
    if found.spread > _UNSURE:
        return Doubt.CORNERS
    if found.known:
        if found.seen_focal_px > 0:
            apart = abs(math.log(found.seen_focal_px / found.focal_px))
            if apart > 0.1 + 2.5 * focal_spread and max(found.shifted) > 0.02:
                return Doubt.DISAGREES
        return None
    if found.focal_px > 0 and not _LIKELY_FOCAL[0] <= found.focal_px / diagonal <= _LIKELY_FOCAL[1]:
        return Doubt.FOCAL
    return Doubt.CUT if max(found.shifted) > _UNSURE else None


def _moved(middle: tuple[float, float], size: tuple[int, int], way: int, by: int) -> tuple[float, float]:
    step = by * OFF_MIDDLE * size[way]
    return (middle[0] + step, middle[1]) if way == 0 else (middle[0], middle[1] + step)


def _change(again: Callable[[], tuple[float, float]], ratio: float) -> float:
    """How far a ratio computed again lies from the first, relatively; much where it cannot be computed at all."""
    try:
        return abs(math.log(again()[0] / ratio))
    except DegenerateViewError:
        return 1.0


def _spread(flat: Corners, middle: tuple[float, float], focal_px: float, ratio: float) -> tuple[float, float]:
    """Relative deviations of the ratio and of the view's focal length for corners wrong by ``CORNER_PX``."""
    of_ratio, of_focal = 0.0, 0.0
    at_rest = _own_focal(flat, middle)
    for index in range(8):
        points = np.array(flat)
        points.flat[index] += CORNER_PX
        moved: Corners = tuple((float(x), float(y)) for x, y in points)  # type: ignore[assignment]
        of_ratio += _change(partial(_told, moved, middle, focal_px), ratio) ** 2
        if at_rest > 0:
            there = _own_focal(moved, middle)
            of_focal += math.log(there / at_rest) ** 2 if there > 0 else 1.0
    return math.sqrt(of_ratio), math.sqrt(of_focal)


def _sides(flat: Corners) -> tuple[npt.NDArray[np.float64], npt.NDArray[np.float64]]:
    """The vanishing points of the level and of the upright sides, homogeneous."""
    m1, m2, m4, m3 = (np.array([x, y, 1.0]) for x, y in flat)
    k2 = float(np.dot(np.cross(m1, m4), m3) / np.dot(np.cross(m2, m4), m3))
    k3 = float(np.dot(np.cross(m1, m4), m2) / np.dot(np.cross(m3, m4), m2))
    return k2 * m2 - m1, k3 * m3 - m1


def _own_focal(flat: Corners, axis: tuple[float, float]) -> float:
    """The focal length that the view itself tells, 0 where a pair of sides stays parallel or contradicts it."""
    n2, n3 = _sides(flat)
    return 0.0 if min(abs(n2[2]), abs(n3[2])) < _PARALLEL else _focal(n2, n3, *axis)


def _told(flat: Corners, axis: tuple[float, float], focal_px: float) -> tuple[float, float]:
    """Ratio and focal length, for an optical axis through ``axis``."""
    n2, n3 = _sides(flat)
    flat2, flat3 = abs(n2[2]) < _PARALLEL, abs(n3[2]) < _PARALLEL
    if flat2 and flat3:
        return float(np.hypot(n2[0], n2[1]) / np.hypot(n3[0], n3[1])), 0.0
    focal = focal_px or _own_focal(flat, axis)
    if focal <= 0:
        raise DegenerateViewError(
            "proportion",
            allowed="a view in which neither pair of sides stays parallel",
            remedy="Type both the width and the height of the frame, or the lens's focal length.",
        )
    inverse = np.linalg.inv(np.array([[focal, 0, axis[0]], [0, focal, axis[1]], [0, 0, 1]]))
    return float(np.linalg.norm(inverse @ n2) / np.linalg.norm(inverse @ n3)), focal


def _focal(n2: npt.NDArray[np.float64], n3: npt.NDArray[np.float64], u0: float, v0: float) -> float:
    """Focal length in pixels from two vanishing points; 0 where they do not tell it."""
    f2 = -(
        n2[0] * n3[0]
        - (n2[0] * n3[2] + n2[2] * n3[0]) * u0
        + n2[2] * n3[2] * u0 * u0
        + n2[1] * n3[1]
        - (n2[1] * n3[2] + n2[2] * n3[1]) * v0
        + n2[2] * n3[2] * v0 * v0
    ) / (n2[2] * n3[2])
    return math.sqrt(f2) if math.isfinite(f2) and f2 > 0 else 0.0
