"""A wrapped raster brought to another number of pixels."""

from __future__ import annotations

import cv2
import numpy as np

from ..maps import TRAITS, MapKind
from ..sheet import Raster


def resample_wrapped(pixels: Raster, shape: tuple[int, int]) -> Raster:
    """(rows, columns) of another size: area means where it gets coarser, bicubic where finer; wrapped."""
    rows, columns = shape
    if pixels.shape[:2] == shape:
        return pixels
    if rows <= pixels.shape[0] and columns <= pixels.shape[1]:
        return np.asarray(cv2.resize(pixels, (columns, rows), interpolation=cv2.INTER_AREA), np.float32)
    sx, sy = pixels.shape[1] / columns, pixels.shape[0] / rows
    back = np.array([[sx, 0, 0.5 * sx - 0.5], [0, sy, 0.5 * sy - 0.5]])
    out = cv2.warpAffine(
        pixels, back, (columns, rows), flags=cv2.INTER_CUBIC | cv2.WARP_INVERSE_MAP, borderMode=cv2.BORDER_WRAP
    )
    return np.asarray(out, np.float32)


def tiled(pixels: Raster, across: int, up: int, shape: tuple[int, int]) -> Raster:
    """``across`` × ``up`` copies of a wrapped raster filling ``shape``."""
    if across == 1 and up == 1:
        return resample_wrapped(pixels, shape)
    rows, columns = shape
    if rows % up == 0 and columns % across == 0:
        cell = resample_wrapped(pixels, (rows // up, columns // across))
        return np.tile(cell, (up, across, *([1] * (cell.ndim - 2))))
    sx, sy = pixels.shape[1] * across / columns, pixels.shape[0] * up / rows
    over = max(1, round(max(sx, sy)))
    back = np.array([[sx / over, 0, 0.5 * sx / over - 0.5], [0, sy / over, 0.5 * sy / over - 0.5]])
    out = cv2.warpAffine(
        pixels,
        back,
        (columns * over, rows * over),
        flags=cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP,
        borderMode=cv2.BORDER_WRAP,
    )
    if over > 1:
        out = cv2.resize(out, (columns, rows), interpolation=cv2.INTER_AREA)
    return np.asarray(out, np.float32)


def resampled(kind: MapKind, pixels: Raster, shape: tuple[int, int]) -> Raster:
    """A wrapped map at another size; maps that do not mix take the nearest pixel."""
    return resample_wrapped(pixels, shape) if TRAITS[kind].mixes else _nearest(pixels, shape)


def tiled_map(kind: MapKind, pixels: Raster, across: int, up: int, shape: tuple[int, int]) -> Raster:
    """As :func:`tiled`; maps that do not mix take the nearest pixel."""
    if TRAITS[kind].mixes:
        return tiled(pixels, across, up, shape)
    return _nearest(np.tile(pixels, (up, across, *([1] * (pixels.ndim - 2)))), shape)


def _nearest(pixels: Raster, shape: tuple[int, int]) -> Raster:
    if pixels.shape[:2] == shape:
        return pixels
    return np.asarray(cv2.resize(pixels, (shape[1], shape[0]), interpolation=cv2.INTER_NEAREST_EXACT), np.float32)
