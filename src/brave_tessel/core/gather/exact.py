"""A picture used exactly as it is: a mask or ID colours, neither cut, evened nor mended."""

from __future__ import annotations

import cv2
import numpy as np

from ..maps import MapKind
from ..sheet import Raster
from .lens import STRAIGHT, Lens
from .names import MASK
from .straighten import Corners, homography, straighten

EXACT = frozenset({MASK, MapKind.KIND_ID.value, MapKind.PIECE_ID.value})
"""Roles of such pictures."""


def laid_exactly(
    codes: Raster,
    corners: Corners,
    shape: tuple[int, int],
    *,
    across: int = 1,
    up: int = 1,
    lens: Lens = STRAIGHT,
    flat_colours: bool = False,
) -> Raster:
    """The framed part of codes (H, W, 4) on a raster of ``shape``, so many times across and up.

    Where the raster is coarser, a mask takes the mean of what falls on a pixel; ``flat_colours`` are never mixed:
    each pixel takes that of its middle.
    """
    cell = max(1, -(-shape[1] // across)), max(1, -(-shape[0] // up))
    whole = tuple(map(tuple, corners)) == _edges(codes) and lens == STRAIGHT
    if whole:
        smaller = cell[0] < codes.shape[1] or cell[1] < codes.shape[0]
        how = cv2.INTER_NEAREST_EXACT if flat_colours else cv2.INTER_AREA if smaller else cv2.INTER_LINEAR
        made = cv2.resize(codes, cell, interpolation=how)
    elif flat_colours:
        half = np.array([[1, 0, -0.5], [0, 1, -0.5], [0, 0, 1]])
        middle = np.array([[1, 0, 0.5], [0, 1, 0.5], [0, 0, 1]])
        matrix = half @ homography(corners, *cell) @ middle
        made = cv2.warpPerspective(codes, matrix, cell, flags=cv2.INTER_NEAREST, borderMode=cv2.BORDER_REPLICATE)
    else:
        made = np.minimum(straighten(codes, corners, width_px=cell[0], height_px=cell[1], lens=lens), 1)
    tiled = np.tile(made, (up, across, 1))
    if tiled.shape[:2] != shape:
        how = cv2.INTER_NEAREST_EXACT if flat_colours else cv2.INTER_AREA
        tiled = cv2.resize(tiled, (shape[1], shape[0]), interpolation=how)
    return np.ascontiguousarray(tiled, np.float32)


def _edges(codes: Raster) -> Corners:
    width, height = float(codes.shape[1]), float(codes.shape[0])
    return (0.0, 0.0), (width, 0.0), (width, height), (0.0, height)
