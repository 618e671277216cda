"""Four corners on a photo become a straight rectangle; its proportion is computed from the view."""

from __future__ import annotations

import math

import cv2
import numpy as np
import numpy.typing as npt

from ..errors import DegenerateViewError, OutOfRangeError
from ..phrases import say
from ..sheet import Raster
from .lens import rebend, unbend

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


def proportion(corners: Corners, *, picture_size: tuple[int, int], focal_px: float = 0.0, bend: float = 0.0) -> float:
    """Width over height of the rectangle seen through the corners.

    Zhang and He 2007, "Whiteboard scanning and image enhancement", Digital Signal Processing 17,
    section 3; the principal point is the picture's middle and pixels are square. A known focal length
    (``focal_px`` above 0) is used where the view does not tell it; ``bend`` as in :mod:`.lens`.

    Raises
    ------
    DegenerateViewError
        when one pair of sides stays parallel in the picture and no focal length is known.
    """
    corners = straight_corners(corners, bend, picture_size)
    check_corners(corners)
    m1, m2, m4, m3 = (np.array([x, y, 1.0]) for x, y in corners)
    k2 = float(np.dot(np.cross(m1, m4), m3) / np.dot(np.cross(m2, m4), m3))
    k3 = float(np.dot(np.cross(m1, m4), m2) / np.dot(np.cross(m3, m4), m2))
    n2, n3 = k2 * m2 - m1, k3 * m3 - m1
    flat2, flat3 = abs(n2[2]) < _PARALLEL, abs(n3[2]) < _PARALLEL
    if flat2 and flat3:
        return float(np.hypot(n2[0], n2[1]) / np.hypot(n3[0], n3[1]))
    u0, v0 = picture_size[0] / 2, picture_size[1] / 2
    focal = 0.0 if flat2 or flat3 else _focal(n2, n3, u0, v0)
    focal = focal or focal_px
    if focal <= 0:
        raise _undecided()
    inverse = np.linalg.inv(np.array([[focal, 0, u0], [0, focal, v0], [0, 0, 1]]))
    return float(np.linalg.norm(inverse @ n2) / np.linalg.norm(inverse @ n3))


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


def straight_corners(corners: Corners, bend: float, picture_size: tuple[int, int]) -> Corners:
    """The corners once the lens is taken out."""
    if bend == 0:
        return corners
    return tuple((float(x), float(y)) for x, y in unbend(corners, bend, picture_size))  # type: ignore[return-value]


def _undecided() -> DegenerateViewError:
    return DegenerateViewError(
        "proportion",
        allowed="a view in which neither pair of sides stays parallel",
        remedy="Type both the width and the height of the frame.",
    )


def proposed_px_per_mm(corners: Corners, width_mm: float, height_mm: float) -> float:
    """Output density: the finest that the photo resolves along any side of the frame."""
    sides = [math.dist(corners[i], corners[(i + 1) % 4]) for i in range(4)]
    return max(max(sides[0], sides[2]) / width_mm, max(sides[1], sides[3]) / height_mm)


def straighten(picture: Raster, corners: Corners, *, width_px: int, height_px: int, bend: float = 0.0) -> Raster:
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
    matrix = homography(straight_corners(corners, bend, size), width_px * over, height_px * over)
    # Pixel centres lie at whole numbers for the resampler and at halves for us.
    half = np.array([[1, 0, -0.5], [0, 1, -0.5], [0, 0, 1]])
    whole = np.array([[1, 0, 0.5], [0, 1, 0.5], [0, 0, 1]])
    if bend == 0:
        large = cv2.warpPerspective(
            picture,
            half @ matrix @ whole,
            (width_px * over, height_px * over),
            flags=cv2.INTER_CUBIC,
            borderMode=cv2.BORDER_REPLICATE,
        )
    else:
        large = _through_lens(
            picture, np.asarray(np.linalg.inv(matrix), np.float64), bend, (height_px * over, width_px * over)
        )
    if over > 1:
        large = cv2.resize(large, (width_px, height_px), interpolation=cv2.INTER_AREA)
    return np.maximum(np.asarray(large, np.float32), 0)


_STRIP = 512
"""Rows that are looked up at a time, so that the lookup tables stay small."""


def _through_lens(picture: Raster, back: npt.NDArray[np.float64], bend: float, shape: tuple[int, int]) -> Raster:
    """Resampling by the projective map ``back`` from the sheet and the lens after it, strip by strip."""
    rows, columns = shape
    out = np.empty((rows, columns, *picture.shape[2:]), np.float32)
    x = np.arange(columns) + 0.5
    for top in range(0, rows, _STRIP):
        y = np.arange(top, min(rows, top + _STRIP)) + 0.5
        points = np.stack(np.broadcast_arrays(x[None, :], y[:, None], 1.0), 2) @ back.T
        bent = rebend(points[..., :2] / points[..., 2:], bend, (picture.shape[1], picture.shape[0])) - 0.5
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
    bend: float = 0.0,
    picture_size: tuple[int, int] = (1, 1),
) -> float:
    """Distance between two photo pixels, measured on the straightened ``width`` × ``height`` sheet."""
    matrix = homography(straight_corners(corners, bend, picture_size), width, height)
    ends = []
    for x, y in unbend((a, b), bend, picture_size) if bend else (a, b):
        u, v, w = matrix @ np.array([x, y, 1.0])
        ends.append((u / w, v / w))
    return math.dist(ends[0], ends[1])
