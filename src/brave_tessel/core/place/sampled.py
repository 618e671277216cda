"""A drawing's places filled with what lies there: every pixel asks the laying."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from ..kernels.compiled import compiled
from .elevation import Drawn
from .laying import Coordinates
from .topology import corner_normals

Codes = npt.NDArray[np.uint8]
Floats = npt.NDArray[np.float64]


def fill(
    codes: Codes,
    face: Drawn,
    found: Coordinates,
    repeat: tuple[float, float],
    levels: list[Codes],
    origin: tuple[float, float],
    mm_per_px: float,
) -> None:
    """Draw one face of an elevation into a picture (H, W, 4) uint8, where its alpha becomes 255.

    Parameters
    ----------
    levels : the surface's picture (h, w, 3) and ever smaller ones
    origin : mm along and up of the picture's upper left corner
    """
    rows = np.searchsorted(found.faces, face.facet.faces).astype(np.int64)
    corners = face.corners
    xy = np.stack([(corners[..., 0] - origin[0]) / mm_per_px, (origin[1] - corners[..., 1]) / mm_per_px], -1)
    level = _level_for(levels, repeat, mm_per_px * _shrink(face, found, rows))
    size = np.array(repeat, np.float64)
    if found.sides is None:
        _fill(codes, xy, found.corners[rows], levels[level], size)
        return
    sides, finish = found.sides, found.finish
    _fill_sided(
        codes, xy, found.mesh.corners[face.facet.faces], corner_normals(found.mesh)[face.facet.faces], levels[level],
        size, np.ascontiguousarray(sides.axes), np.ascontiguousarray(sides.frames), sides.origin, sides.sharpness,
        finish.matrix, finish.shift,
    )  # fmt: skip


def _shrink(face: Drawn, found: Coordinates, rows: npt.NDArray[np.int64]) -> float:
    """Millimetres of the surface to one of the drawing."""
    size = float(np.sqrt(abs(np.linalg.det(found.finish.matrix))))
    return max(size, 1e-3)


def _level_for(levels: list[Codes], repeat: tuple[float, float], mm_per_px: float) -> int:
    """The level whose pixels are about as large as the drawing's."""
    own = repeat[0] / levels[0].shape[1]
    return int(min(len(levels) - 1, max(0, round(math.log2(max(mm_per_px / own, 1e-6)) - 0.25))))


@compiled
def _fill(codes: Codes, xy: Floats, corners: Floats, picture: Codes, size: Floats) -> None:
    height, width = codes.shape[0], codes.shape[1]
    rows, columns = picture.shape[0], picture.shape[1]
    for t in range(xy.shape[0]):
        x0, y0, x1, y1, x2, y2 = xy[t, 0, 0], xy[t, 0, 1], xy[t, 1, 0], xy[t, 1, 1], xy[t, 2, 0], xy[t, 2, 1]
        area = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0)
        if abs(area) < 1e-9:
            continue
        for r in range(max(0, int(min(y0, y1, y2)) - 1), min(height - 1, int(max(y0, y1, y2)) + 1) + 1):
            for c in range(max(0, int(min(x0, x1, x2)) - 1), min(width - 1, int(max(x0, x1, x2)) + 1) + 1):
                px, py = c + 0.5, r + 0.5
                a = ((x1 - px) * (y2 - py) - (x2 - px) * (y1 - py)) / area
                b = ((x2 - px) * (y0 - py) - (x0 - px) * (y2 - py)) / area
                d = 1.0 - a - b
                if a < -1e-9 or b < -1e-9 or d < -1e-9:
                    continue
                w = a * corners[t, 0, 2] + b * corners[t, 1, 2] + d * corners[t, 2, 2]
                if w < 1e-9:
                    continue
                u = (a * corners[t, 0, 0] + b * corners[t, 1, 0] + d * corners[t, 2, 0]) / w / size[0]
                v = (a * corners[t, 0, 1] + b * corners[t, 1, 1] + d * corners[t, 2, 1]) / w / size[1]
                column = int((u - math.floor(u)) * columns) % columns
                row = rows - 1 - int((v - math.floor(v)) * rows) % rows
                codes[r, c, 0] = picture[row, column, 0]
                codes[r, c, 1] = picture[row, column, 1]
                codes[r, c, 2] = picture[row, column, 2]
                codes[r, c, 3] = 255


@compiled
def _fill_sided(  # noqa: C901 - one loop over pixels and sides; calls would cost more than they tidy
    codes: Codes, xy: Floats, corners: Floats, normals: Floats, picture: Codes, size: Floats, axes: Floats,
    frames: Floats, origin: Floats, sharpness: float, matrix: Floats, shift: Floats,
) -> None:  # fmt: skip
    height, width = codes.shape[0], codes.shape[1]
    rows, columns = picture.shape[0], picture.shape[1]
    point, normal, total = np.zeros(3), np.zeros(3), np.zeros(3)
    for t in range(xy.shape[0]):
        x0, y0, x1, y1, x2, y2 = xy[t, 0, 0], xy[t, 0, 1], xy[t, 1, 0], xy[t, 1, 1], xy[t, 2, 0], xy[t, 2, 1]
        area = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0)
        if abs(area) < 1e-9:
            continue
        for r in range(max(0, int(min(y0, y1, y2)) - 1), min(height - 1, int(max(y0, y1, y2)) + 1) + 1):
            for c in range(max(0, int(min(x0, x1, x2)) - 1), min(width - 1, int(max(x0, x1, x2)) + 1) + 1):
                px, py = c + 0.5, r + 0.5
                a = ((x1 - px) * (y2 - py) - (x2 - px) * (y1 - py)) / area
                b = ((x2 - px) * (y0 - py) - (x0 - px) * (y2 - py)) / area
                d = 1.0 - a - b
                if a < -1e-9 or b < -1e-9 or d < -1e-9:
                    continue
                length = 0.0
                for k in range(3):
                    point[k] = a * corners[t, 0, k] + b * corners[t, 1, k] + d * corners[t, 2, k] - origin[k]
                    normal[k] = a * normals[t, 0, k] + b * normals[t, 1, k] + d * normals[t, 2, k]
                    length += normal[k] * normal[k]
                length = math.sqrt(max(length, 1e-18))
                whole = 0.0
                total[0] = total[1] = total[2] = 0.0
                for side in range(3):
                    facing = 0.0
                    for k in range(3):
                        facing += axes[side, k] * normal[k] / length
                    share = abs(facing) ** sharpness
                    if share < 1e-4:
                        continue
                    far = 1 if facing < 0 else 0
                    x = y = 0.0
                    for k in range(3):
                        x += frames[side, far, 0, k] * point[k]
                        y += frames[side, far, 1, k] * point[k]
                    x -= shift[0]
                    y -= shift[1]
                    u = (matrix[0, 0] * x + matrix[0, 1] * y) / size[0]
                    v = (matrix[1, 0] * x + matrix[1, 1] * y) / size[1]
                    column = int((u - math.floor(u)) * columns) % columns
                    row = rows - 1 - int((v - math.floor(v)) * rows) % rows
                    whole += share
                    for k in range(3):
                        total[k] += share * picture[row, column, k]
                for k in range(3):
                    codes[r, c, k] = np.uint8(total[k] / max(whole, 1e-12) + 0.5)
                codes[r, c, 3] = 255
