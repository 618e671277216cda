"""Relief and tone of pieces in one pass each."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from ..sheet import Raster
from .compiled import compiled


@compiled
def relief_rows(
    first: int,
    last: int,
    number: npt.NDArray[np.int32],
    edge: Raster,
    across: Raster,
    up: Raster,
    stand: Raster,
    lean_x: Raster,
    lean_y: Raster,
    out: Raster,
    depth: np.float32,
    width: np.float32,
    rounded: bool,
    cushion: np.float32,
    pitch: np.float32,
) -> None:
    """Faces about 0 with their stand, lean and cushion; a rim falling to −depth at the edge."""
    zero, one, half = np.float32(0), np.float32(1), np.float32(0.5)
    for r in range(first, last):
        for c in range(out.shape[1]):
            inside = edge[r, c]
            face = min(one, max(zero, inside / pitch + half))
            value = -depth * (one - face)
            if face > zero:
                piece = number[r, c]
                u = min(one, max(-one, across[r, c]))
                v = min(one, max(-one, up[r, c]))
                t = min(one, max(zero, one - inside / width))
                rim = one - math.sqrt(one - t * t) if rounded else t
                top = stand[piece] + lean_x[piece] * u + lean_y[piece] * v + cushion * (one - u * u) * (one - v * v)
                value += face * (top - depth * rim)
            out[r, c] = value


@compiled
def _beside(number: npt.NDArray[np.int32], edge: Raster, row: int, column: int) -> int:
    """The piece that reaches furthest into the pixels around one, −1 without any."""
    rows, columns = number.shape
    found, furthest = -1, np.float32(-1)
    for i in range(-1, 2):
        for j in range(-1, 2):
            r, c = (row + i) % rows, (column + j) % columns
            if number[r, c] >= 0 and edge[r, c] > furthest:
                found, furthest = number[r, c], edge[r, c]
    return found


@compiled
def tone_rows(
    first: int,
    last: int,
    number: npt.NDArray[np.int32],
    edge: Raster,
    palette: Raster,
    out: Raster,
    pitch: np.float32,
    most: np.float32,
    within: bool,
) -> None:
    """The piece's palette colour, the palette's last colour in the joint, a pixel-wide edge between, of which a joint
    takes at ``most`` so much. A pixel ``within`` a joint has its share of the piece nearest to it.
    """
    zero, one, half = np.float32(0), np.float32(1), np.float32(0.5)
    joint = palette[-1]
    for r in range(first, last):
        for c in range(out.shape[1]):
            face = min(one, max(zero, edge[r, c] / pitch + half))
            piece = number[r, c]
            if piece < 0 and within and (face > zero or most < one):
                piece = _beside(number, edge, r, c)
            if piece >= 0:
                face = max(face, one - most)
            for k in range(out.shape[2]):
                out[r, c, k] = joint[k] + face * (palette[piece, k] - joint[k])
