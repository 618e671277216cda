"""Decals: something set on the sheet once, or strewn over it; it wraps like everything else."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated

import cv2
import numpy as np

from ..job.layers import Placement
from ..kernels.bands import by_strips
from ..lattice import units_as_before
from ..maps import TRAITS, MapKind, MapSet
from ..operation import Angle, Fraction, Seed, Whole, settings
from ..sheet import Grid, Raster


@settings("decal.strew", label="Copies")
@dataclass(frozen=True, slots=True)
class Strewing:
    """How often a decal is set, how its copies differ, how it lies on relief."""

    copies: Annotated[
        int, Whole(1, 60, most=2000, help="How many times it is set; the first where it was put, the others strewn.")
    ] = 1
    turn_spread: Annotated[float, Angle(0, 180, help="Copies are turned by up to this much.")] = 180.0
    size_spread: Annotated[float, Fraction(help="How far copies vary in size.")] = 0.3
    cling: Annotated[float, Fraction(0, 1, most=4, help="How far it is drawn along the relief it lies on.")] = 0.0
    edge: Annotated[float, Fraction(0, 0.5, most=1, help="How much of its rim fades out.")] = 0.04
    seed: Annotated[int, Seed()] = 1


def strewn(
    first: Placement, grid: Grid, *, copies: int, turn_spread: float, size_spread: float, seed: int
) -> list[Placement]:
    """The placement and its copies, evenly strewn (each the best of a few throws), the first on top."""
    index = np.arange(copies)
    draws = [units_as_before(index, np.full(copies, 501 + k), seed).astype(float) for k in range(2)]
    size = np.exp2(size_spread * (2 * draws[0] - 1))
    turn = turn_spread * (2 * draws[1] - 1)
    placed = [(first.x_mm, first.y_mm)]
    for n in range(1, copies):
        throws = np.column_stack(
            [
                units_as_before(np.arange(8), np.full(8, 600 + 2 * n + k), seed) * side
                for k, side in ((0, grid.width_mm), (1, grid.height_mm))
            ]
        )
        away = throws[:, None, :] - np.array(placed)[None]
        for axis, side in ((0, grid.width_mm), (1, grid.height_mm)):
            away[..., axis] = (away[..., axis] + side / 2) % side - side / 2
        best = int(np.hypot(away[..., 0], away[..., 1]).min(1).argmax())
        placed.append((float(throws[best, 0]), float(throws[best, 1])))
    others = [
        Placement(
            x_mm=x,
            y_mm=y,
            width_mm=first.width_mm * float(size[n]),
            height_mm=first.height_mm * float(size[n]),
            turn=first.turn + float(turn[n]),
            skew=first.skew,
        )
        for n, (x, y) in enumerate(placed)
        if n > 0
    ]
    return [*others, first]


def set_decal(
    grid: Grid,
    decal: MapSet,
    placements: Sequence[Placement],
    *,
    edge: float,
    ground: Raster | None = None,
    cling: float = 0.0,
) -> MapSet:
    """A decal's maps on the wrapped sheet at every placement, later ones over earlier ones; opacity says where it lies.

    With ``cling`` places are moved down the slope of the ground by their height over its mean, as a thin skin is drawn
    over relief.
    """
    kinds = [kind for kind in decal if TRAITS[kind].mixes and kind is not MapKind.OPACITY]
    out: dict[MapKind, Raster] = {kind: np.zeros((*grid.shape, *decal[kind].shape[2:]), np.float32) for kind in kinds}
    opacity = np.zeros(grid.shape, np.float32)
    own = np.ascontiguousarray(decal.or_default(MapKind.OPACITY), np.float32)
    for place in placements:
        rows, columns, u, v = _seen(grid, place, ground, cling)
        inside = _inside(u, v, place, grid, edge)
        if not inside.any():
            continue
        a = (u * decal.grid.width_px - 0.5).astype(np.float32)
        b = ((1 - v) * decal.grid.height_px - 0.5).astype(np.float32)
        cover = inside * cv2.remap(own, a, b, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
        at = np.ix_(rows, columns)
        total = cover + opacity[at] * (1 - cover)
        weight = np.where(total > 1e-6, cover / np.maximum(total, 1e-6), 0).astype(np.float32)
        for kind in kinds:
            seen = cv2.remap(np.ascontiguousarray(decal[kind]), a, b, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
            if kind is MapKind.NORMAL:
                seen = _turned(np.asarray(seen, np.float32), place.turn)
            w = weight if seen.ndim == 2 else weight[..., None]
            out[kind][at] += w * (seen - out[kind][at])
        opacity[at] = total
    if MapKind.NORMAL in out:
        out[MapKind.NORMAL] = by_strips(_unit_or_flat, out[MapKind.NORMAL], opacity)
    return MapSet(grid, {**out, MapKind.OPACITY: opacity})


def _seen(
    grid: Grid, place: Placement, ground: Raster | None, cling: float
) -> tuple[np.ndarray, np.ndarray, Raster, Raster]:
    """Rows and columns of the sheet about a placement, and its own coordinates there, 0 to 1 across and up."""
    px, py = grid.mm_per_px
    lean = abs(math.tan(math.radians(place.skew))) * place.height_mm
    reach = 0.5 * math.hypot(place.width_mm + lean, place.height_mm) + 2 * max(px, py)
    # A decal larger than the sheet is seen once: each place shows the copy nearest to its middle.
    half_c, half_r = min(math.ceil(reach / px), grid.width_px // 2), min(math.ceil(reach / py), grid.height_px // 2)
    c0, r0 = round(place.x_mm / px - 0.5), round((grid.height_mm - place.y_mm) / py - 0.5)
    c = np.arange(c0 - half_c, c0 + half_c + (grid.width_px % 2 or 2 * half_c < grid.width_px))
    r = np.arange(r0 - half_r, r0 + half_r + (grid.height_px % 2 or 2 * half_r < grid.height_px))
    rows, columns = r % grid.height_px, c % grid.width_px
    x = ((c + 0.5) * px - place.x_mm)[None, :] + np.zeros((len(r), 1))
    y = (grid.height_mm - (r + 0.5) * py - place.y_mm)[:, None] + np.zeros((1, len(c)))
    if ground is not None and cling > 0:
        gx = (np.roll(ground, -1, 1) - np.roll(ground, 1, 1)) / (2 * px)
        gy = (np.roll(ground, 1, 0) - np.roll(ground, -1, 0)) / (2 * py)
        at = np.ix_(rows, columns)
        over = cling * (ground[at] - ground.mean())
        steep = 1 + gx[at] ** 2 + gy[at] ** 2
        x, y = x + over * gx[at] / steep, y + over * gy[at] / steep
    a = math.radians(place.turn)
    along, upward = x * math.cos(a) + y * math.sin(a), -x * math.sin(a) + y * math.cos(a)
    along = along - upward * math.tan(math.radians(place.skew))
    u, v = along / place.width_mm + 0.5, upward / place.height_mm + 0.5
    return rows, columns, u.astype(np.float32), v.astype(np.float32)


def _inside(u: Raster, v: Raster, place: Placement, grid: Grid, edge: float) -> Raster:
    """1 within the placement, falling over a pixel, or over the faded rim."""
    rim = max(edge * 0.5 * min(place.width_mm, place.height_mm), grid.pitch_mm)
    near = np.minimum((0.5 - np.abs(u - 0.5)) * place.width_mm, (0.5 - np.abs(v - 0.5)) * place.height_mm)
    t = np.clip(near / rim + (0.5 if edge == 0 else 0.0), 0, 1)
    return np.asarray(t * t * (3 - 2 * t) if edge > 0 else t, np.float32)


def _unit_or_flat(normal: Raster, opacity: Raster) -> Raster:
    there = opacity > 1e-6
    made = np.zeros_like(normal)
    made[..., 2] = 1
    if there.any():
        own = normal[there]
        made[there] = own / np.maximum(np.linalg.norm(own, axis=1, keepdims=True), 1e-6)
    return made


def _turned(normal: Raster, degrees: float) -> Raster:
    a = math.radians(degrees)
    x, y = normal[..., 0].copy(), normal[..., 1].copy()
    made = normal.copy()
    made[..., 0], made[..., 1] = x * math.cos(a) - y * math.sin(a), x * math.sin(a) + y * math.cos(a)
    return made
