"""Pictures of a whole sky, as cameras and panoramas give them: twice as wide as high, in linear light."""

from __future__ import annotations

import math

import cv2
import numpy as np

from ..core.errors import UnreadableFileError
from ..core.light.directions import octahedral_grid
from ..core.sheet import Raster
from .images import decode_picture

SKY_PX = 256


def decode_sky(data: bytes, name: str) -> Raster:
    """An equirectangular picture as an octahedral map (SKY_PX, SKY_PX, 3), linear float32; its middle is north.

    Raises
    ------
    UnreadableFileError
        when it cannot be read, or is not twice as wide as high.
    """
    pixels = decode_picture(data, name)
    rows, columns = pixels.shape[:2]
    if not 1.9 < columns / rows < 2.1:
        raise UnreadableFileError(
            name,
            allowed="a picture of the whole sky, twice as wide as high",
            remedy="Choose an equirectangular HDR or EXR picture.",
        )
    pixels = np.ascontiguousarray(np.clip(np.nan_to_num(pixels[..., :3]), 0, 1e7), np.float32)
    # As many pixels as the map has in a row round the horizon, so that nothing bright falls between them.
    small = np.asarray(cv2.resize(pixels, (4 * SKY_PX, 2 * SKY_PX), interpolation=cv2.INTER_AREA))
    grid = octahedral_grid(2 * SKY_PX)
    around = (np.arctan2(grid[..., 0], grid[..., 1]) / (2 * math.pi) + 0.5) * small.shape[1] - 0.5
    down = (0.5 - np.arcsin(np.clip(grid[..., 2], -1, 1)) / math.pi) * small.shape[0] - 0.5
    around = around + 1
    wrapped = np.concatenate([small[:, -1:], small, small[:, :1]], 1)
    taken = cv2.remap(
        wrapped, around.astype(np.float32), down.astype(np.float32), cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE
    )
    return np.asarray(cv2.resize(taken, (SKY_PX, SKY_PX), interpolation=cv2.INTER_AREA), np.float32)
