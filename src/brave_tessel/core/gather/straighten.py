"""Four corners on a photo become a straight rectangle; :mod:`.seen` tells its proportion."""

from __future__ import annotations

import math
from collections.abc import Sequence

import cv2
import numpy as np
import numpy.typing as npt

from ..errors import DegenerateViewError, OutOfRangeError
from ..phrases import say
from ..sheet import Raster
from .lens import STRAIGHT, Lens, rebend, unbend

Corners = tuple[tuple[float, float], tuple[float, float], tuple[float, float], tuple[float, float]]
"""Pixel positions of the rectangle's top left, top right, bottom right and bottom left corners."""


def _cross(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def check_corners(corners: Corners) -> None:
    """Refuse corners that are no convex quadrilateral in clockwise order on the picture."""
    turns = [_cross(corners[i], corners[(i + 1) % 4], corners[(i + 2) % 4]) for i in range(4)]
    if min(turns) <= 1.0:
        raise DegenerateViewError(
            "straightening frame",
            value=corners,
            allowed="four corners in order, none inside the others",
            remedy="Drag the corners so that the frame has four sides that do not cross.",
        )


def homography(corners: Corners, width: float, height: float) -> npt.NDArray[np.float64]:
    """The 3 × 3 projective map from photo pixels to a ``width`` × ``height`` rectangle (y down).

    Direct linear transform with four points (Hartley and Zisserman, Multiple View Geometry, 4.1).
    """
    check_corners(corners)
    target = ((0.0, 0.0), (width, 0.0), (width, height), (0.0, height))
    rows, right = [], []
    for (x, y), (u, v) in zip(corners, target, strict=True):
        rows += [[x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]]
        right += [u, v]
    solution = np.linalg.solve(np.array(rows), np.array(right))
    return np.append(solution, 1.0).reshape(3, 3)


def straight_corners(corners: Corners, lens: Lens, picture_size: tuple[int, int]) -> Corners:
    """The corners once the lens is taken out."""
    if lens == STRAIGHT:
        return corners
    return tuple((float(x), float(y)) for x, y in unbend(corners, lens, picture_size))  # type: ignore[return-value]


def proposed_px_per_mm(corners: Corners, width_mm: float, height_mm: float) -> float:
    """Output density: the finest that the photo resolves along any side of the frame."""
    sides = [math.dist(corners[i], corners[(i + 1) % 4]) for i in range(4)]
    return max(max(sides[0], sides[2]) / width_mm, max(sides[1], sides[3]) / height_mm)


def straighten(picture: Raster, corners: Corners, *, width_px: int, height_px: int, lens: Lens = STRAIGHT) -> Raster:
    """The rectangle inside the corners, resampled to ``height_px`` × ``width_px`` in linear light.

    Where the photo is finer than the result, several samples are averaged, so nothing aliases.
    """
    if width_px < 2 or height_px < 2:
        raise OutOfRangeError(
            "straightened size",
            value=say("{width_px} × {height_px} px", width_px=width_px, height_px=height_px),
            allowed="2 px or more a side",
        )
    sides = [math.dist(corners[i], corners[(i + 1) % 4]) for i in range(4)]
    finer = max(max(sides[0], sides[2]) / width_px, max(sides[1], sides[3]) / height_px)
    over = min(8, max(1, math.ceil(finer - 0.05)))
    size = (picture.shape[1], picture.shape[0])
    matrix = homography(straight_corners(corners, lens, size), width_px * over, height_px * over)
    # Pixel centres lie at whole numbers for the resampler and at halves for us.
    half = np.array([[1, 0, -0.5], [0, 1, -0.5], [0, 0, 1]])
    whole = np.array([[1, 0, 0.5], [0, 1, 0.5], [0, 0, 1]])
    if lens == STRAIGHT:
        large = cv2.warpPerspective(
            picture,
            half @ matrix @ whole,
            (width_px * over, height_px * over),
            flags=cv2.INTER_CUBIC,
            borderMode=cv2.BORDER_REPLICATE,
        )
    else:
        large = _through_lens(
            picture, np.asarray(np.linalg.inv(matrix), np.float64), lens, (height_px * over, width_px * over)
        )
    if over > 1:
        large = cv2.resize(large, (width_px, height_px), interpolation=cv2.INTER_AREA)
    return np.maximum(np.asarray(large, np.float32), 0)


_STRIP = 512
"""Rows that are looked up at a time, so that the lookup tables stay small."""


def _through_lens(picture: Raster, back: npt.NDArray[np.float64], lens: Lens, shape: tuple[int, int]) -> Raster:
    """Resampling by the projective map ``back`` from the sheet and the lens after it, strip by strip."""
    rows, columns = shape
    out = np.empty((rows, columns, *picture.shape[2:]), np.float32)
    x = np.arange(columns) + 0.5
    for top in range(0, rows, _STRIP):
        y = np.arange(top, min(rows, top + _STRIP)) + 0.5
        points = np.stack(np.broadcast_arrays(x[None, :], y[:, None], 1.0), 2) @ back.T
        bent = rebend(points[..., :2] / points[..., 2:], lens, (picture.shape[1], picture.shape[0])) - 0.5
        out[top : top + _STRIP] = cv2.remap(
            picture,
            bent[..., 0].astype(np.float32),
            bent[..., 1].astype(np.float32),
            cv2.INTER_CUBIC,
            borderMode=cv2.BORDER_REPLICATE,
        )
    return out


def length_on_sheet(
    corners: Corners,
    a: tuple[float, float],
    b: tuple[float, float],
    *,
    width: float,
    height: float,
    lens: Lens = STRAIGHT,
    picture_size: tuple[int, int] = (1, 1),
) -> float:
    """Distance between two photo pixels, measured on the straightened ``width`` × ``height`` sheet."""
    return math.dist(*places_on_sheet(corners, (a, b), (width, height), lens=lens, picture_size=picture_size))


def places_on_sheet(
    corners: Corners,
    points: Sequence[tuple[float, float]],
    size: tuple[float, float],
    *,
    lens: Lens = STRAIGHT,
    picture_size: tuple[int, int] = (1, 1),
) -> list[tuple[float, float]]:
    """Where photo pixels lie on the straightened sheet of a ``size``, from its left edge and its top, y down."""
    matrix = homography(straight_corners(corners, lens, picture_size), *size)
    places = []
    for x, y in unbend(tuple(points), lens, picture_size) if lens != STRAIGHT else points:
        u, v, w = matrix @ np.array([x, y, 1.0])
        places.append((float(u / w), float(v / w)))
    return places
