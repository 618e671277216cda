"""Pieces that stray from how they were set: moved, turned, of another size; with chipped edges."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np
import numpy.typing as npt
from scipy.special import ndtri

from ...kernels.compiled import compiled
from ...lattice import units_many
from ...operation import Angle, Fraction, Length, Pieces, Seed, operation
from ...sheet import Grid, Raster
from .noise import clouds

_I = npt.NDArray[np.int32]


@compiled
def _boxes(number: _I, boxes: npt.NDArray[np.int64]) -> None:
    """First pixel and extent of every piece about it, wrapped: row, column, up, down, left, right."""
    rows, columns = number.shape
    for r in range(rows):
        for c in range(columns):
            n = number[r, c]
            if n < 0:
                continue
            box = boxes[n]
            if box[0] < 0:
                box[0], box[1] = r, c
            dr = (r - box[0] + rows // 2) % rows - rows // 2
            dc = (c - box[1] + columns // 2) % columns - columns // 2
            box[2], box[3] = min(box[2], dr), max(box[3], dr)
            box[4], box[5] = min(box[4], dc), max(box[5], dc)


@compiled
def _strayed(
    number: _I,
    edge: Raster,
    across: Raster,
    up: Raster,
    boxes: npt.NDArray[np.int64],
    moves: npt.NDArray[np.float64],
    out_number: _I,
    out_edge: Raster,
    out_across: Raster,
    out_up: Raster,
    pitch_x: float,
    pitch_y: float,
    margin: float,
) -> None:
    rows, columns = number.shape
    for n in range(boxes.shape[0]):
        if boxes[n, 0] < 0:
            continue
        r0, c0 = boxes[n, 0], boxes[n, 1]
        mid_y, mid_x = (boxes[n, 2] + boxes[n, 3]) / 2, (boxes[n, 4] + boxes[n, 5]) / 2
        cosine, sine, size, right, rise = moves[n]
        more_y, more_x = math.ceil(margin / pitch_y) + 1, math.ceil(margin / pitch_x) + 1
        for dr in range(boxes[n, 2] - more_y, boxes[n, 3] + more_y + 1):
            for dc in range(boxes[n, 4] - more_x, boxes[n, 5] + more_x + 1):
                x, y = (dc - mid_x) * pitch_x - right, -(dr - mid_y) * pitch_y - rise
                sx, sy = (x * cosine + y * sine) / size, (-x * sine + y * cosine) / size
                fr, fc = r0 + mid_y - sy / pitch_y, c0 + mid_x + sx / pitch_x
                ir, ic = math.floor(fr), math.floor(fc)
                nearest_r, nearest_c = math.floor(fr + 0.5) % rows, math.floor(fc + 0.5) % columns
                if number[nearest_r, nearest_c] != n:
                    continue
                wr, wc = fr - ir, fc - ic
                a, b = ir % rows, (ir + 1) % rows
                c, d = ic % columns, (ic + 1) % columns
                inside = (1 - wr) * ((1 - wc) * edge[a, c] + wc * edge[a, d]) + wr * (
                    (1 - wc) * edge[b, c] + wc * edge[b, d]
                )
                inside *= size
                r, k = (r0 + dr) % rows, (c0 + dc) % columns
                if inside >= 0 and inside > out_edge[r, k]:
                    out_edge[r, k] = np.float32(inside)
                    out_number[r, k] = n
                    out_across[r, k], out_up[r, k] = across[nearest_r, nearest_c], up[nearest_r, nearest_c]


def _draws(count: int, salt: int, seed: int) -> npt.NDArray[np.float64]:
    return (2 * units_many(np.arange(count), np.full(count, salt), seed) - 1).astype(np.float64)


@operation("piece.stray", label="Stray pieces", version=2, rehashed=True)
def stray(
    grid: Grid,
    pieces: Pieces,
    *,
    turn: Annotated[float, Angle(0, 20, help="Pieces are turned by up to this much.")] = 1.5,
    size: Annotated[float, Fraction(0, 0.5, most=0.9, help="Pieces are smaller by up to this share.")] = 0.04,
    shift: Annotated[float, Length(0, 20, least=0, most=200, help="Pieces are moved by up to this much.")] = 1.0,
    seed: Annotated[int, Seed()] = 1,
) -> Pieces:
    """Each piece turned, shrunk and moved a little within its joints; where two meet the deeper one lies over the
    other.
    """
    count = pieces.count
    angle = np.radians(turn * _draws(count, 61, seed))
    moves = np.column_stack(
        [
            np.cos(angle),
            np.sin(angle),
            1 - size * (0.5 + 0.5 * _draws(count, 62, seed)),
            shift * _draws(count, 63, seed),
            shift * _draws(count, 64, seed),
        ]
    )
    boxes = np.zeros((count, 6), np.int64)
    boxes[:, 0] = -1
    _boxes(pieces.number, boxes)
    # Joints lie as deep as before, or a little deeper where pieces have shrunk away from them.
    number = np.full(grid.shape, -1, np.int32)
    out_edge = np.minimum(pieces.edge, np.float32(-0.75 * grid.pitch_mm))
    out_across, out_up = pieces.across.copy(), pieces.up.copy()
    reach = max(grid.width_mm, grid.height_mm) * abs(math.sin(math.radians(turn))) * 0.1 + shift
    _strayed(
        pieces.number,
        pieces.edge,
        pieces.across,
        pieces.up,
        boxes,
        moves,
        number,
        out_edge,
        out_across,
        out_up,
        *grid.mm_per_px,
        min(reach, 60.0),
    )
    return Pieces(number, out_edge, out_across, out_up, count)


@operation("piece.chip", label="Chipped edges", version=2, rehashed=True)
def chip(
    grid: Grid,
    pieces: Pieces,
    *,
    depth: Annotated[
        float, Length(0, 30, least=0, most=200, help="How far the deepest chips reach in from the edge.")
    ] = 6.0,
    size: Annotated[float, Length(1, 100, log=True, least=0.2, help="Size of the chips.")] = 12.0,
    share: Annotated[float, Fraction(help="Share of the edges that is chipped.")] = 0.25,
    wear: Annotated[float, Length(0, 5, least=0, most=50, help="How far the whole edge is worn uneven.")] = 0.6,
    seed: Annotated[int, Seed()] = 1,
) -> Pieces:
    """Pieces with bites out of their edges and an uneven rim; numbers and places within stay."""
    bites = clouds(grid, size=size, octaves=5, gain=0.62, seed=seed)
    # The noise spans five standard deviations about one half.
    at = 0.5 - 0.2 * float(ndtri(min(max(share, 1e-4), 1 - 1e-4)))
    deep = np.clip((bites - np.float32(at)) * np.float32(1 / 0.22), 0, 1)
    rim = clouds(grid, size=max(0.35 * size, 2 * grid.pitch_mm), octaves=4, gain=0.6, seed=seed + 17)
    eaten = np.float32(depth) * np.sqrt(deep) + np.float32(wear) * rim
    edge = np.asarray(pieces.edge - np.where(pieces.edge > 0, eaten, 0), np.float32)
    return Pieces(
        np.where(edge < 0, np.int32(-1), pieces.number).astype(np.int32), edge, pieces.across, pieces.up, pieces.count
    )
