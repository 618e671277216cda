"""A scanned mesh laid flat: seen along its mean normal, square to its sides, as colour, height and normal."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np
import numpy.typing as npt
from embreex.mesh_construction import TriangleMesh
from embreex.rtcore_scene import EmbreeScene

from ..colour import linear_from_codes
from ..errors import DegenerateViewError
from ..sheet import AnyArray, Raster

LOOK_PX, LEAST_PX, MOST_PX = 256, 256, 4096
_COVERED = 0.995
Floats = npt.NDArray[np.float64]


@dataclass(frozen=True)
class LaidFlat:
    """A sheet of ``width`` × ``height`` in the mesh's unit: linear colour (H, W, 3), height (H, W) in that unit about
    its mean plane, unit normals (H, W, 3) with x right, y up. ``filled`` is the share of it that had no mesh.
    """

    colour: Raster
    height: Raster
    normal: Raster
    size: tuple[float, float]
    filled: float


def lay_flat(
    corners: Floats, places: Floats, picture: AnyArray, colours: AnyArray, *, most_px: int = MOST_PX
) -> LaidFlat:
    """Lay a mesh flat, and take the largest part of it that has no holes at its rim.

    ``corners`` (N, 3, 3); colours from ``picture`` (H, W, 3) uint8 by ``places`` (N, 3, 2), or ``colours`` (N, 3, 3)
    uint8, or grey. The plane is that of the mean normal, weighed by area; its sides are those of the smallest
    rectangle round the mesh.

    Raises
    ------
    DegenerateViewError
        when it has no area or no side that can be seen from above.
    """
    turned = _upright(corners, places)
    caster = _Caster(turned)
    low, high = _whole_part(caster, turned)
    size = high - low
    px = _fit_px(turned, places, picture, size, most_px)
    shape = max(2, round(px * size[1] / max(size))), max(2, round(px * size[0] / max(size)))
    x, y = _middles(low, high, shape)
    face, shares = caster.down(x, y)
    height, colour, normal = _seen(turned, places, picture, colours, face, shares)
    there = face.reshape(shape) >= 0
    maps = [made.reshape(*shape, *made.shape[1:]).astype(np.float32) for made in (height, colour, normal)]
    height, colour, normal = (_filled(made, there) for made in maps)
    height -= np.float32(height.mean())
    return LaidFlat(colour, height, normal, (float(size[0]), float(size[1])), float(1 - there.mean()))


def _upright(corners: Floats, places: Floats) -> Floats:
    """The mesh turned so that its mean normal is z and the sides of its smallest rectangle are x and y."""
    cross = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    mean, area = cross.sum(0), float(np.linalg.norm(cross, axis=1).sum())
    middle = corners.reshape(-1, 3).mean(0)
    if area <= 0:
        raise _flatless()
    if np.linalg.norm(mean) < 0.05 * area:
        # Faces of both sides, or none of them turned alike: the thinnest way is up.
        mean = np.linalg.svd(corners.reshape(-1, 3)[:: max(1, len(corners) // 100_000)] - middle, full_matrices=False)[
            2
        ][2]
    up = mean / np.linalg.norm(mean)
    across = np.cross(np.eye(3)[int(np.argmin(np.abs(up)))], up)
    across /= np.linalg.norm(across)
    frame = np.stack([across, np.cross(up, across), up])
    flat = (corners - middle) @ frame.T
    box: Any = cv2.minAreaRect(np.asarray(flat[..., :2].reshape(-1, 2), np.float32))
    square = _turned(flat, math.radians(float(box[2])))
    return _turned(square, 0.5 * math.pi * _quarters(square, places))


def _turned(flat: Floats, angle: float) -> Floats:
    """Turned clockwise about z."""
    c, s = math.cos(angle), math.sin(angle)
    return np.asarray(flat @ np.array([[c, s, 0], [-s, c, 0], [0, 0, 1]]).T)


def _quarters(flat: Floats, places: Floats) -> int:
    """How many quarter turns bring the picture's own right to the right; without one the longer side lies level."""
    at = flat[..., :2].reshape(-1, 2)
    if not len(places):
        wide, tall = np.ptp(at, axis=0)
        return int(tall > wide)
    u = places[..., 0].ravel()
    right = np.linalg.lstsq(at - at.mean(0), u - u.mean(), rcond=None)[0]
    return round(math.atan2(right[1], right[0]) / (0.5 * math.pi)) % 4


def _flatless() -> DegenerateViewError:
    return DegenerateViewError(
        "scanned mesh", allowed="a surface that can be laid flat", remedy="Cut it from the scan first."
    )


class _Caster:
    """Rays straight down onto a mesh."""

    def __init__(self, corners: Floats) -> None:
        self.box = corners.reshape(-1, 3).min(0), corners.reshape(-1, 3).max(0)
        self.span = max(float((self.box[1] - self.box[0]).max()), 1e-12)
        self.corners = ((corners - self.box[0]) / self.span).astype(np.float32)
        self.scene = EmbreeScene()
        count = len(corners)
        self.held = TriangleMesh(
            self.scene, self.corners.reshape(-1, 3), np.arange(3 * count, dtype=np.int32).reshape(-1, 3)
        )

    def down(self, x: Floats, y: Floats) -> tuple[npt.NDArray[np.int64], Floats]:
        """The face met first from above at places (N,), −1 for none, and where in it (N, 3)."""
        places = np.stack([x - self.box[0][0], y - self.box[0][1]], 1) / self.span
        origins = np.column_stack([places, np.full(len(x), 2.0)]).astype(np.float32)
        down = np.broadcast_to(np.array([0, 0, -1], np.float32), origins.shape).copy()
        met = self.scene.run(origins, down, output=True)
        u, v = np.asarray(met["u"], np.float64), np.asarray(met["v"], np.float64)
        return np.asarray(met["primID"], np.int64), np.stack([1 - u - v, u, v], 1)


def _middles(low: Floats, high: Floats, shape: tuple[int, int]) -> tuple[Floats, Floats]:
    """Places of a raster's pixels, row by row from the upper left one."""
    x = low[0] + (np.arange(shape[1]) + 0.5) / shape[1] * (high[0] - low[0])
    y = high[1] - (np.arange(shape[0]) + 0.5) / shape[0] * (high[1] - low[1])
    across, up = np.meshgrid(x, y)
    return across.ravel(), up.ravel()


def _whole_part(caster: _Caster, corners: Floats) -> tuple[Floats, Floats]:
    """Corners of the largest rectangle that the mesh covers."""
    flat = corners[..., :2].reshape(-1, 2)
    low, high = flat.min(0), flat.max(0)
    size = high - low
    if min(size) <= 0:
        raise _flatless()
    shape = max(2, round(LOOK_PX * size[1] / max(size))), max(2, round(LOOK_PX * size[0] / max(size)))
    face, _ = caster.down(*_middles(low, high, shape))
    covered = cv2.morphologyEx((face.reshape(shape) >= 0).astype(np.uint8), cv2.MORPH_CLOSE, np.ones((5, 5), np.uint8))
    top, left, rows, columns = largest_rectangle(covered.astype(bool))
    if rows < 2 or columns < 2:
        raise _flatless()
    step = size[0] / shape[1], size[1] / shape[0]
    whole = rows == shape[0], columns == shape[1]
    # A pixel inside of a ragged rim; nothing is lost of a mesh that fills its rectangle.
    rim = (0.0 if whole[1] else 1.0), (0.0 if whole[0] else 1.0)
    return (
        np.array([low[0] + (left + rim[0]) * step[0], high[1] - (top + rows - rim[1]) * step[1]]),
        np.array([low[0] + (left + columns - rim[0]) * step[0], high[1] - (top + rim[1]) * step[1]]),
    )


def largest_rectangle(there: npt.NDArray[np.bool_]) -> tuple[int, int, int, int]:
    """Top, left, rows and columns of the largest rectangle of true values, by the histogram of each row."""
    best, found = 0, (0, 0, 0, 0)
    tall = np.zeros(there.shape[1], int)
    for row in range(there.shape[0]):
        tall = np.where(there[row], tall + 1, 0)
        stack: list[int] = []
        for column in range(len(tall) + 1):
            now = tall[column] if column < len(tall) else 0
            while stack and tall[stack[-1]] >= now:
                high = int(tall[stack.pop()])
                left = stack[-1] + 1 if stack else 0
                if high * (column - left) > best:
                    best, found = high * (column - left), (row - high + 1, left, high, column - left)
            stack.append(column)
    return found


def _fit_px(corners: Floats, places: Floats, picture: AnyArray, size: Floats, most: int) -> int:
    """Pixels of the longer side: as fine as the picture shows the mesh, or as its points lie."""
    area = (
        float(np.linalg.norm(np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]), axis=1).sum()) / 2
    )
    if len(places):
        first, second = places[:, 1] - places[:, 0], places[:, 2] - places[:, 0]
        shown = float(np.abs(first[:, 0] * second[:, 1] - first[:, 1] * second[:, 0]).sum()) / 2
        density = math.sqrt(max(shown, 1e-12) * picture.shape[0] * picture.shape[1] / max(area, 1e-12))
    else:
        density = math.sqrt(len(corners) / max(area, 1e-12))
    return int(min(max(round(density * float(max(size))), LEAST_PX), most))


def _seen(
    corners: Floats, places: Floats, picture: AnyArray, colours: AnyArray, face: AnyArray, shares: Floats
) -> tuple[Raster, Raster, Raster]:
    """Height, linear colour and normal where rays met the mesh."""
    met = np.maximum(face, 0)
    height = np.einsum("nk,nk->n", corners[..., 2][met], shares)
    if len(places):
        at = np.einsum("nkc,nk->nc", places[met], shares) % 1.0
        x = (at[:, 0] * picture.shape[1] - 0.5).astype(np.float32)
        y = ((1 - at[:, 1]) * picture.shape[0] - 0.5).astype(np.float32)
        rows = 16_384
        taken = [
            cv2.remap(
                picture, x[None, n : n + rows], y[None, n : n + rows], cv2.INTER_LINEAR, borderMode=cv2.BORDER_WRAP
            )[0]
            for n in range(0, len(x), rows)
        ]
        colour = linear_from_codes(np.ascontiguousarray(np.concatenate(taken)[None]))[0]
    elif len(colours):
        codes = np.rint(np.einsum("nkc,nk->nc", colours[met].astype(np.float64), shares)).astype(np.uint8)
        colour = linear_from_codes(np.ascontiguousarray(codes[None]))[0]
    else:
        colour = np.full((len(met), 3), 0.3, np.float32)
    normal = np.einsum("nkc,nk->nc", _smooth_normals(corners)[met], shares)
    normal /= np.maximum(np.linalg.norm(normal, axis=1, keepdims=True), 1e-9)
    return np.asarray(height, np.float32), np.asarray(colour, np.float32), np.asarray(normal, np.float32)


def _smooth_normals(corners: Floats) -> Floats:
    """A normal for each corner, the mean of the faces that meet there, (N, 3, 3); all turned upward."""
    cross = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    cross *= np.where(cross[:, 2:] < 0, -1, 1)
    flat = corners.reshape(-1, 3)
    step = max(float(np.ptp(flat, axis=0).max()) * 1e-6, 1e-15)
    _, same = np.unique(np.rint(flat / step).astype(np.int64), axis=0, return_inverse=True)
    same = same.reshape(-1)
    sums = np.zeros((int(same.max()) + 1, 3))
    np.add.at(sums, same, np.repeat(cross, 3, 0))
    sums /= np.maximum(np.linalg.norm(sums, axis=1, keepdims=True), 1e-30)
    return np.asarray(sums[same].reshape(-1, 3, 3))


def _filled(made: Raster, there: npt.NDArray[np.bool_]) -> Raster:
    """Holes take what lies nearest."""
    if there.all():
        return np.ascontiguousarray(made)
    _, label = cv2.distanceTransformWithLabels(
        (~there).astype(np.uint8), cv2.DIST_L2, 5, labelType=cv2.DIST_LABEL_PIXEL
    )
    order = np.zeros(int(label.max()) + 1, np.int64)
    order[label[there]] = np.flatnonzero(there)
    flat = made.reshape(there.size, -1)[order[label].ravel()]
    return np.ascontiguousarray(flat.reshape(made.shape), np.float32)
