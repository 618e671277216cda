"""Normals laid on one another and turned: a pass over the pixels instead of a dozen."""

from __future__ import annotations

import numpy as np

from ..sheet import AnyArray, Raster
from .bands import over_rows
from .compiled import compiled, still

REORIENTED, WHITEOUT, SLOPES_ADDED, PLAIN = range(4)
_STEEPEST = np.float32(0.05)


@compiled
def _joined_rows(
    first: int, last: int, base: Raster, detail: Raster, out: Raster, how: int, strength: np.float32
) -> None:
    one, least = np.float32(1), np.float32(1e-12)
    for r in range(first, last):
        for c in range(base.shape[1]):
            x, y = detail[r, c, 0] * strength, detail[r, c, 1] * strength
            z = one + (detail[r, c, 2] - one) * strength
            scale = one / np.sqrt(max(x * x + y * y + z * z, least))
            x, y, z = x * scale, y * scale, z * scale
            bx, by, bz = base[r, c, 0], base[r, c, 1], base[r, c, 2]
            if how == REORIENTED:
                up = bz + one
                share = (up * z - bx * x - by * y) / max(up, np.float32(1e-6))
                x, y, z = bx * share + x, by * share + y, up * share - z
            elif how == WHITEOUT:
                x, y, z = bx + x, by + y, bz * z
            elif how == SLOPES_ADDED:
                x, y, z = bx * z + x * bz, by * z + y * bz, bz * z
            else:
                x, y, z = bx + x, by + y, bz + z
            scale = one / np.sqrt(max(x * x + y * y + z * z, least))
            out[r, c, 0] = x * scale
            out[r, c, 1] = y * scale
            out[r, c, 2] = z * scale


def joined_normals(base: Raster, detail: Raster, how: int, strength: float = 1.0) -> Raster:
    """Detail normals (H, W, 3) on base normals (Barré-Brisebois and Hill 2012, "Blending in Detail")."""
    base, detail = _whole(base), _whole(detail)
    out = np.empty(base.shape, np.float32)
    over_rows(_joined_rows, base.shape[0], still(base), still(detail), out, how, np.float32(strength))
    return out


@compiled
def _reoriented_rows(first: int, last: int, base: Raster, detail: Raster, out: Raster) -> None:
    one = np.float32(1)
    for r in range(first, last):
        for c in range(base.shape[1]):
            # Both as normals of their slopes, not brought to length before it matters.
            bx, by, x, y = -base[r, c, 0], -base[r, c, 1], -detail[r, c, 0], -detail[r, c, 1]
            b, d = one / np.sqrt(bx * bx + by * by + one), one / np.sqrt(x * x + y * y + one)
            bx, by, up, x, y = bx * b, by * b, b + one, x * d, y * d
            share = (up * d - bx * x - by * y) / up
            x, y, z = bx * share + x, by * share + y, up * share - d
            z = max(z / np.sqrt(max(x * x + y * y + z * z, np.float32(1e-12))), _STEEPEST) * np.sqrt(
                x * x + y * y + z * z
            )
            out[r, c, 0] = -x / z
            out[r, c, 1] = -y / z


def reoriented_slopes(base: Raster, detail: Raster) -> Raster:
    """Slopes (H, W, 2) of the detail's normals laid on the base's, reoriented."""
    base, detail = _whole(base), _whole(detail)
    out = np.empty(base.shape, np.float32)
    over_rows(_reoriented_rows, base.shape[0], still(base), still(detail), out)
    return out


@compiled
def _slope_rows(first: int, last: int, normal: Raster, out: Raster) -> None:
    for r in range(first, last):
        for c in range(normal.shape[1]):
            up = max(normal[r, c, 2], _STEEPEST)
            out[r, c, 0] = -normal[r, c, 0] / up
            out[r, c, 1] = -normal[r, c, 1] / up


def slopes_of(normal: Raster) -> Raster:
    """Slopes (H, W, 2) of normals (H, W, 3): rise for each step right and up."""
    normal = _whole(normal)
    out = np.empty((*normal.shape[:2], 2), np.float32)
    over_rows(_slope_rows, normal.shape[0], still(normal), out)
    return out


@compiled
def _turned_rows(
    first: int, last: int, normal: Raster, out: Raster, xx: np.float32, xy: np.float32, yx: np.float32, yy: np.float32
) -> None:
    one = np.float32(1)
    for r in range(first, last):
        for c in range(normal.shape[1]):
            up = max(normal[r, c, 2], _STEEPEST)
            x, y = normal[r, c, 0] / up, normal[r, c, 1] / up
            right, higher = x * xx + y * yx, x * xy + y * yy
            scale = one / np.sqrt(right * right + higher * higher + one)
            out[r, c, 0] = right * scale
            out[r, c, 1] = higher * scale
            out[r, c, 2] = scale


def turned_normals(normal: Raster, matrix: AnyArray) -> Raster:
    """Normals (H, W, 3) of a relief that is read through a matrix (2, 2): slopes follow by its transpose, as the chain
    rule says.
    """
    normal = _whole(normal)
    out = np.empty(normal.shape, np.float32)
    xx, xy, yx, yy = (np.float32(v) for v in np.asarray(matrix).ravel())
    over_rows(_turned_rows, normal.shape[0], still(normal), out, xx, xy, yx, yy)
    return out


def _whole(pixels: Raster) -> Raster:
    return np.ascontiguousarray(pixels, np.float32)
