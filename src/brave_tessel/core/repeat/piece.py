"""A chosen piece of a sheet, such as one stone, set elsewhere: turned, with an edge cut where it shows least.

What is drawn round the piece is a first guess: its edge may lie a little inside or outside of it, on the closed path
along which both places differ least (see :mod:`.patches`), found in polar coordinates about the piece's middle.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import cv2
import numpy as np
import numpy.typing as npt

from ..colour import encode_srgb
from ..job.nodes import Point
from ..maps import MapKind
from ..sheet import AnyArray, Grid, Raster
from .cut import least_path

_TURNS, _RINGS = 360, 48
_SEEN_PX = 160
"""Pixels across a piece at which its edge is looked for, so that it is the same at every size of the sheet."""
_WEIGHTS = {MapKind.BASE_COLOUR: 0.6, MapKind.HEIGHT: 0.4}
Places = npt.NDArray[np.floating]


@dataclass(frozen=True, slots=True)
class Setting:
    """How a piece is set: turned by degrees anticlockwise, mirrored across x before that, its edge free within mm."""

    turn: float
    mirrored: bool
    edge: float


@dataclass(frozen=True, slots=True)
class Outline:
    """A piece's outline as seen from its middle: the middle in mm, and how far it reaches at each of evenly spaced
    angles from x anticlockwise, mm.
    """

    x: float
    y: float
    reach: Places

    def at(self, angle: AnyArray) -> Places:
        """How far it reaches at angles, radians."""
        count = len(self.reach)
        return np.interp((angle / (2 * math.pi)) % 1 * count - 0.5, np.arange(count), self.reach, period=count)

    def turned(self, setting: Setting) -> Outline:
        """As the piece is set, about its middle."""
        angle = (np.arange(len(self.reach)) + 0.5) / len(self.reach) * 2 * math.pi - math.radians(setting.turn)
        return replace(self, reach=self.at(math.pi - angle if setting.mirrored else angle))

    def points(self) -> list[Point]:
        """Its outline, mm."""
        angle = (np.arange(len(self.reach)) + 0.5) / len(self.reach) * 2 * math.pi
        x, y = self.x + np.cos(angle) * self.reach, self.y + np.sin(angle) * self.reach
        return [(float(a), float(b)) for a, b in zip(x, y, strict=True)]


def outline_of(points: Sequence[Point]) -> Outline:
    """The outline drawn by points, mm, y up; where it folds back, its farther side counts."""
    ring = np.asarray(points, np.float64)
    ends = np.roll(ring, -1, 0)
    steps = np.linspace(0, 1, 64, endpoint=False)[None, :, None]
    line = (ring[:, None] + (ends - ring)[:, None] * steps).reshape(-1, 2)
    # The middle of what the outline holds; of a line without any, that of its points.
    cross = ring[:, 0] * ends[:, 1] - ends[:, 0] * ring[:, 1]
    area = float(cross.sum())
    middle = ring.mean(0) if abs(area) < 1e-9 else ((ring + ends) * cross[:, None]).sum(0) / (3 * area)
    away = line - middle
    angle = np.arctan2(away[:, 1], away[:, 0]) / (2 * math.pi) % 1
    reach = np.zeros(_TURNS)
    np.maximum.at(reach, (angle * _TURNS).astype(int) % _TURNS, np.hypot(away[:, 0], away[:, 1]))
    known = np.flatnonzero(reach)
    filled = np.interp(np.arange(_TURNS), known, reach[known], period=_TURNS) if len(known) else reach + 1e-3
    return Outline(float(middle[0]), float(middle[1]), np.asarray(filled))


def taken(pixels: Raster, kind: MapKind, grid: Grid, x: Places, y: Places, setting: Setting, middle: Point) -> Raster:
    """What a piece takes from a wrapped map for places ``x`` and ``y`` beside its middle (H, W), mm, y up; ``middle``
    is where that of the piece lay. What has a direction turns with it.
    """
    t = math.radians(setting.turn)
    across = (x * math.cos(t) + y * math.sin(t)) * (-1 if setting.mirrored else 1)
    up = y * math.cos(t) - x * math.sin(t)
    column = (middle[0] + across) / grid.mm_per_px[0] - 0.5
    row = grid.height_px - (middle[1] + up) / grid.mm_per_px[1] - 0.5
    if setting.turn == 0 and not setting.mirrored:
        # Whole pixels, as they are.
        made = pixels[np.rint(row).astype(int) % grid.height_px, np.rint(column).astype(int) % grid.width_px]
        return np.asarray(made, np.float32)
    top, left = math.floor(row.min()) - 2, math.floor(column.min()) - 2
    rows, columns = math.ceil(row.max()) - top + 3, math.ceil(column.max()) - left + 3
    part = pixels[np.ix_((top + np.arange(rows)) % grid.height_px, (left + np.arange(columns)) % grid.width_px)]
    made = cv2.remap(
        np.ascontiguousarray(part),
        (column - left).astype(np.float32),
        (row - top).astype(np.float32),
        cv2.INTER_CUBIC,
        borderMode=cv2.BORDER_REPLICATE,
    )
    return _turned(np.asarray(made, np.float32), kind, t, mirrored=setting.mirrored)


def _turned(pixels: Raster, kind: MapKind, turn: float, *, mirrored: bool) -> Raster:
    """Directions in a map, turned with what they belong to."""
    if kind in {MapKind.NORMAL, MapKind.COAT_NORMAL}:
        x, y = pixels[..., 0] * (-1 if mirrored else 1), pixels[..., 1].copy()
        pixels[..., 0] = x * math.cos(turn) - y * math.sin(turn)
        pixels[..., 1] = x * math.sin(turn) + y * math.cos(turn)
    elif kind is MapKind.ANISOTROPY_ANGLE:
        # Shares of half a turn, as the map has them.
        return np.asarray(((-pixels if mirrored else pixels) + turn / math.pi) % 1, np.float32)
    return pixels


def edge_of(
    here: Mapping[MapKind, Raster], there: Mapping[MapKind, Raster], part: Grid, outline: Outline, edge: float
) -> Places:
    """How far the cut lies from the middle of a window at each angle, mm: on the outline or up to half of ``edge``
    inside or outside of it. The middle of the outline is in the coordinates of the window, mm from left and foot.
    """
    if edge <= 0:
        return outline.reach
    turns = (np.arange(_TURNS) + 0.5) / _TURNS * 2 * math.pi
    off = ((np.arange(_RINGS) + 0.5) / _RINGS - 0.5) * edge
    reach = np.maximum(outline.reach[:, None] + off[None, :], 0.02 * outline.reach[:, None])
    x, y = outline.x + np.cos(turns)[:, None] * reach, outline.y + np.sin(turns)[:, None] * reach
    cost = np.zeros((_TURNS, _RINGS))
    scale = min(1.0, _SEEN_PX / max(part.shape))
    for kind, weight in _WEIGHTS.items():
        if kind in here:
            one, other = (_seen(maps[kind], kind, scale) for maps in (here, there))
            column = x / part.width_mm * one.shape[1] - 0.5
            row = (1 - y / part.height_mm) * one.shape[0] - 0.5
            one, other = (_ring(pixels, column, row) for pixels in (one, other))
            rough, more = (np.abs(np.diff(p, axis=1, append=p[:, -1:])) for p in (one, other))
            rough = rough + more
            cost += weight * ((one - other) ** 2 / (rough**2 + 0.5 * float((rough**2).mean()) + 1e-9)).sum(2)
    # What lies farther from what was drawn has to be worth it, and a wider ring is longer.
    usual = float(np.median(cost)) + 1e-9
    cost = (cost + 0.3 * usual * (2 * off[None, :] / edge) ** 2) * (reach / outline.reach.mean())
    path = least_path(np.ascontiguousarray(cost + 1e-6), closed=True)
    return np.asarray(reach[np.arange(_TURNS), path])


def _ring(pixels: Raster, column: Places, row: Places) -> Raster:
    """A map at places (turns, rings), (turns, rings, C)."""
    places = column.astype(np.float32), row.astype(np.float32)
    made = cv2.remap(pixels, *places, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    return np.asarray(made.reshape(*column.shape, -1), np.float32)


def _seen(pixels: Raster, kind: MapKind, scale: float) -> Raster:
    seen = encode_srgb(np.clip(pixels, 0, 1)).astype(np.float32) if kind is MapKind.BASE_COLOUR else pixels
    if scale == 1:
        return np.ascontiguousarray(seen)
    return np.asarray(cv2.resize(seen, None, fx=scale, fy=scale, interpolation=cv2.INTER_AREA), np.float32)
