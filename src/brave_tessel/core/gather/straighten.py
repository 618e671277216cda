"""Four corners on a photo become a straight rectangle; its proportion is computed from the view."""

from __future__ import annotations

import math

import cv2
import numpy as np
import numpy.typing as npt

from ..errors import DegenerateViewError, OutOfRangeError
from ..sheet import Raster

Corners = tuple[tuple[float, float], tuple[float, float], tuple[float, float], tuple[float, float]]
"""Pixel positions of the rectangle's top left, top right, bottom right and bottom left corners."""

_PARALLEL = 1e-4


def _cross(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def check_corners(corners: Corners) -> None:
    """Refuse corners that are no convex quadrilateral in clockwise order on the picture."""
    turns = [_cross(corners[i], corners[(i + 1) % 4], corners[(i + 2) % 4]) for i in range(4)]
    if min(turns) <= 1.0:
        raise DegenerateViewError(
            "straightening frame", value=corners, allowed="four corners in order, none inside the others",
            remedy="Drag the corners so that the frame has four sides that do not cross.",
        )  # fmt: skip


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


def proportion(corners: Corners, *, picture_size: tuple[int, int]) -> float:
    """Width over height of the rectangle seen through the corners.

    Zhang and He 2007, "Whiteboard scanning and image enhancement", Digital Signal Processing 17,
    section 3; the principal point is the picture's middle and pixels are square.

    Raises
    ------
    DegenerateViewError
        when one pair of sides stays parallel in the picture: the view then does not tell.
    """
    check_corners(corners)
    m1, m2, m4, m3 = (np.array([x, y, 1.0]) for x, y in corners)
    k2 = float(np.dot(np.cross(m1, m4), m3) / np.dot(np.cross(m2, m4), m3))
    k3 = float(np.dot(np.cross(m1, m4), m2) / np.dot(np.cross(m3, m4), m2))
    n2, n3 = k2 * m2 - m1, k3 * m3 - m1
    flat2, flat3 = abs(n2[2]) < _PARALLEL, abs(n3[2]) < _PARALLEL
    if flat2 and flat3:
        return float(np.hypot(n2[0], n2[1]) / np.hypot(n3[0], n3[1]))
    if flat2 or flat3:
        raise _undecided()
    u0, v0 = picture_size[0] / 2, picture_size[1] / 2
    f2 = -(
        n2[0] * n3[0] - (n2[0] * n3[2] + n2[2] * n3[0]) * u0 + n2[2] * n3[2] * u0 * u0
        + n2[1] * n3[1] - (n2[1] * n3[2] + n2[2] * n3[1]) * v0 + n2[2] * n3[2] * v0 * v0
    ) / (n2[2] * n3[2])  # fmt: skip
    if not math.isfinite(f2) or f2 <= 0:
        raise _undecided()
    inverse = np.linalg.inv(np.array([[math.sqrt(f2), 0, u0], [0, math.sqrt(f2), v0], [0, 0, 1]]))
    return float(np.linalg.norm(inverse @ n2) / np.linalg.norm(inverse @ n3))


def _undecided() -> DegenerateViewError:
    return DegenerateViewError(
        "proportion", allowed="a view in which neither pair of sides stays parallel",
        remedy="Type both the width and the height of the frame.",
    )  # fmt: skip


def proposed_px_per_mm(corners: Corners, width_mm: float, height_mm: float) -> float:
    """Output density: the finest that the photo resolves along any side of the frame."""
    sides = [math.dist(corners[i], corners[(i + 1) % 4]) for i in range(4)]
    return max(max(sides[0], sides[2]) / width_mm, max(sides[1], sides[3]) / height_mm)


def straighten(picture: Raster, corners: Corners, *, width_px: int, height_px: int) -> Raster:
    """The rectangle inside the corners, resampled to ``height_px`` × ``width_px`` in linear light.

    Where the photo is finer than the result, several samples are averaged, so nothing aliases.
    """
    if width_px < 2 or height_px < 2:
        raise OutOfRangeError("straightened size", value=f"{width_px} × {height_px} px", allowed="2 px or more a side")
    sides = [math.dist(corners[i], corners[(i + 1) % 4]) for i in range(4)]
    finer = max(max(sides[0], sides[2]) / width_px, max(sides[1], sides[3]) / height_px)
    over = min(8, max(1, math.ceil(finer - 0.05)))
    matrix = homography(corners, width_px * over, height_px * over)
    # Pixel centres lie at whole numbers for the resampler and at halves for us.
    half = np.array([[1, 0, -0.5], [0, 1, -0.5], [0, 0, 1]])
    whole = np.array([[1, 0, 0.5], [0, 1, 0.5], [0, 0, 1]])
    large = cv2.warpPerspective(
        picture, half @ matrix @ whole, (width_px * over, height_px * over), flags=cv2.INTER_CUBIC,
        borderMode=cv2.BORDER_REPLICATE,
    )  # fmt: skip
    if over > 1:
        large = cv2.resize(large, (width_px, height_px), interpolation=cv2.INTER_AREA)
    return np.maximum(np.asarray(large, np.float32), 0)


def length_on_sheet(
    corners: Corners, a: tuple[float, float], b: tuple[float, float], *, width: float, height: float
) -> float:
    """Distance between two photo pixels, measured on the straightened ``width`` × ``height`` sheet."""
    matrix = homography(corners, width, height)
    ends = []
    for x, y in (a, b):
        u, v, w = matrix @ np.array([x, y, 1.0])
        ends.append((u / w, v / w))
    return math.dist(ends[0], ends[1])
