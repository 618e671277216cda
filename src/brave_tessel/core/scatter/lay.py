"""Pieces laid on the wrapped sheet: height, colour, roughness, cover, and an ID colour a kind and a piece."""

from __future__ import annotations

import colorsys
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

import cv2
import numpy as np
import numpy.typing as npt

from ..colour import decode_srgb, hex_to_linear, lab_of, luminance
from ..errors import MissingError
from ..job.layers import LaidPiece, PieceKind, Scatter
from ..kernels.compiled import compiled
from ..kernels.relief import normal_of_height, occlusion
from ..lattice import earlier_hash, hash_many, units_as_before
from ..maps import MapKind, MapSet
from ..operation import find
from ..sheet import Grid, Raster
from .strew import fallen, kind_of

OCCLUSION_REACH_MM = 12.0


@dataclass(frozen=True, slots=True)
class PieceMaps:
    """A piece on its own rectangle: (H, W) cover, height in mm and roughness, (H, W, 3) colour; its size in mm."""

    cover: Raster
    height: Raster
    colour: Raster
    roughness: Raster
    size_mm: tuple[float, float]

    @property
    def nbytes(self) -> int:
        """Bytes of its rasters, for the cache."""
        return self.cover.nbytes + self.height.nbytes + self.colour.nbytes + self.roughness.nbytes

    def halves_to(self, px: float) -> int:
        """How often it is halved to be about ``px`` pixels across, so that nothing aliases."""
        return max(0, math.floor(math.log2(max(self.cover.shape[1] / max(px, 4.0), 1.0))))

    def halved(self, halves: int) -> PieceMaps:
        """The piece brought down by halves; what lies outside it does not bleed in."""
        if halves == 0:
            return self
        size = (max(4, self.cover.shape[1] >> halves), max(4, self.cover.shape[0] >> halves))
        share = np.maximum(cv2.resize(self.cover, size, interpolation=cv2.INTER_AREA), 1e-4)

        def down(pixels: Raster) -> Raster:
            weight = self.cover if pixels.ndim == 2 else self.cover[..., None]
            small = cv2.resize(pixels * weight, size, interpolation=cv2.INTER_AREA)
            return np.asarray(small / (share if pixels.ndim == 2 else share[..., None]), np.float32)

        cover = np.asarray(cv2.resize(self.cover, size, interpolation=cv2.INTER_AREA), np.float32)
        return PieceMaps(cover, down(self.height), down(self.colour), down(self.roughness), self.size_mm)


def made_piece(*, kind: PieceKind, px: int) -> PieceMaps:
    """A kind's piece from its ``shape`` operation, ``px`` pixels on its longer side."""
    grid = Grid.for_repeat(kind.width_mm, kind.height_mm, px)
    operation = find(kind.shape.op)
    made = operation.run(grid, **operation.bind(kind.shape.values))
    return PieceMaps(
        made[MapKind.OPACITY],
        made[MapKind.HEIGHT],
        made[MapKind.BASE_COLOUR],
        made[MapKind.ROUGHNESS],
        (kind.width_mm, kind.height_mm),
    )


def cut_piece(picture: Raster, *, kind: PieceKind, px: int) -> PieceMaps:
    """A piece cut from a picture (H, W, 3) linear: what is not the colour of its border.

    The key colour is the median of the picture's rim; the largest region that differs is the piece.
    """
    rim = np.concatenate([picture[0], picture[-1], picture[:, 0], picture[:, -1]])
    key = lab_of(np.median(rim, axis=0))
    away = np.linalg.norm(lab_of(np.clip(picture, 0, 1)) - key, axis=2)
    noise = float(np.percentile(np.linalg.norm(lab_of(np.clip(rim, 0, 1)) - key, axis=1), 90))
    inside = (away > max(6.0, 2.5 * noise)).astype(np.uint8)
    count, labels, stats, _ = cv2.connectedComponentsWithStats(inside)
    if count < 2:
        raise MissingError("piece on the picture", value=kind.name, remedy="Take a photo of it on an even ground.")
    largest = 1 + int(stats[1:, cv2.CC_STAT_AREA].argmax())
    x, y, w, h = (int(v) for v in stats[largest, :4])
    cover = _filled((labels == largest).astype(np.uint8))[y : y + h, x : x + w]
    height_mm = kind.width_mm * h / w
    grid = Grid.for_repeat(kind.width_mm, height_mm, px)
    size = (grid.width_px, grid.height_px)
    soft = np.asarray(cv2.resize(cover.astype(np.float32), size, interpolation=cv2.INTER_AREA), np.float32)
    colour = np.asarray(cv2.resize(picture[y : y + h, x : x + w], size, interpolation=cv2.INTER_AREA), np.float32)
    thickness = float(find(kind.shape.op).bind(kind.shape.values)["thickness"])
    return PieceMaps(
        soft,
        _relief(soft, colour, grid, thickness),
        colour,
        np.full(grid.shape, 0.7, np.float32),
        (kind.width_mm, height_mm),
    )


def _filled(mask: npt.NDArray[np.uint8]) -> npt.NDArray[np.uint8]:
    """A region without its holes."""
    outlines, _ = cv2.findContours(mask, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    return np.asarray(cv2.drawContours(np.zeros_like(mask), outlines, -1, 1, cv2.FILLED), np.uint8)


def _relief(cover: Raster, colour: Raster, grid: Grid, thickness: float) -> Raster:
    """A gentle pillow from the outline, with the picture's own detail on it."""
    padded = cv2.copyMakeBorder((cover > 0.5).astype(np.uint8), 1, 1, 1, 1, cv2.BORDER_CONSTANT)
    inside = np.asarray(cv2.distanceTransform(padded, cv2.DIST_L2, 5)[1:-1, 1:-1], np.float32) * grid.pitch_mm
    pillow = np.sqrt(np.clip(inside / max(float(inside.max()), 1e-6), 0, 1))
    tone = luminance(colour)
    detail = tone - cv2.GaussianBlur(tone, (0, 0), max(1.0, 0.04 * max(grid.shape)))
    return np.asarray(np.maximum(thickness * (pillow + 0.6 * detail), 0) * (cover > 0), np.float32)


def model_piece(field: Raster, *, kind: PieceKind) -> PieceMaps:
    """A piece from a model's relief seen from above, (H, W, 2): height in model units and cover."""
    cover = np.ascontiguousarray(field[..., 1])
    height_mm = kind.width_mm * field.shape[0] / field.shape[1]
    grid = Grid(field.shape[1], field.shape[0], kind.width_mm, height_mm)
    values = find(kind.shape.op).bind(kind.shape.values)
    colour = np.broadcast_to(np.asarray(hex_to_linear(str(values["colour"])), np.float32), (*grid.shape, 3))
    height = np.ascontiguousarray(field[..., 0]) * np.float32(kind.width_mm / field.shape[1])
    rough = np.full(grid.shape, float(values["roughness"]), np.float32)
    return PieceMaps(cover, height, np.ascontiguousarray(colour), rough, (kind.width_mm, height_mm))


def id_colour(number: int, seed: int) -> tuple[float, float, float]:
    """A clear colour for a number, as 8-bit sRGB codes; neighbours in number differ widely in hue."""
    hue = (number * 0.6180339887 + 0.11 * seed) % 1
    with earlier_hash():
        draws = int(hash_many([number], [seed], 5)[0])
    rgb = colorsys.hsv_to_rgb(hue, 0.55 + 0.45 * ((draws >> 3) % 4) / 3, 0.55 + 0.45 * (draws % 3) / 2)
    r, g, b = (round(255 * v) / 255 for v in rgb)
    return r, g, b


class _Ground(NamedTuple):
    """The sheet that pieces are laid on, changed in place: maps (H, W) or (H, W, 3) and its size in mm."""

    height: Raster
    colour: Raster
    rough: Raster
    opacity: Raster
    number: npt.NDArray[np.int32]
    """Which piece lies on top, (H, W); -1 where none does."""
    width_mm: float
    height_mm: float


class _Look(NamedTuple):
    """A piece's maps, (h, w) or (h, w, 3), and its size in mm."""

    cover: Raster
    height: Raster
    colour: Raster
    rough: Raster
    width_mm: float
    height_mm: float


class _Rest(NamedTuple):
    """Where a piece comes to rest: middle in mm, turn, size, and how its plane leans (mm a mm)."""

    x_mm: float
    y_mm: float
    scale: float
    cos: float
    sin: float
    base_mm: float
    lean_x: float
    lean_y: float


@compiled
def _under(ground: _Ground, look: _Look, rest: _Rest) -> float:
    """The mean height of the ground beneath the middle part of a piece, mm: where it comes to rest, roughly."""
    rows, columns = ground.height.shape
    top, count = 0.0, 0
    for j in range(-3, 4):
        for i in range(-3, 4):
            u, v = i / 8.0 * look.width_mm * rest.scale, j / 8.0 * look.height_mm * rest.scale
            x, y = rest.x_mm + u * rest.cos - v * rest.sin, rest.y_mm + u * rest.sin + v * rest.cos
            c = math.floor(x / ground.width_mm * columns) % columns
            r = (rows - 1 - math.floor(y / ground.height_mm * rows)) % rows
            top += ground.height[r, c]
            count += 1
    return top / count


class _Between(NamedTuple):
    """A place between four pixels: the upper left one, and the weight of each."""

    row: int
    column: int
    here: np.float32
    right: np.float32
    below: np.float32
    across: np.float32


@compiled
def _between(row: float, column: float) -> _Between:
    one, i, j = np.float32(1), int(column), int(row)
    right, down = np.float32(column - i), np.float32(row - j)
    return _Between(j, i, (one - right) * (one - down), right * (one - down), (one - right) * down, right * down)


@compiled
def _of(pixels: Raster, at: _Between) -> Any:
    """A raster (H, W) between its pixels."""
    j, i = at.row, at.column
    return (
        at.here * pixels[j, i]
        + at.right * pixels[j, i + 1]
        + at.below * pixels[j + 1, i]
        + at.across * pixels[j + 1, i + 1]
    )


@compiled
def _channel_of(pixels: Raster, k: int, at: _Between) -> Any:
    """One channel of a raster (H, W, C) between its pixels."""
    j, i = at.row, at.column
    return (
        at.here * pixels[j, i, k]
        + at.right * pixels[j, i + 1, k]
        + at.below * pixels[j + 1, i, k]
        + at.across * pixels[j + 1, i + 1, k]
    )


@compiled
def _put(ground: _Ground, look: _Look, rest: _Rest, tone: npt.NDArray[np.float32], index: int) -> None:
    """One piece laid where it is higher than what lies there; its colour times ``tone``, its number ``index``."""
    rows, columns = ground.height.shape
    px, py = ground.width_mm / columns, ground.height_mm / rows
    reach = 0.5 * rest.scale * math.sqrt(look.width_mm**2 + look.height_mm**2)
    ph, pw = look.cover.shape
    one = np.float32(1)
    for j in range(math.floor((rest.y_mm - reach) / py), math.ceil((rest.y_mm + reach) / py) + 1):
        y = (j + 0.5) * py - rest.y_mm
        r = (rows - 1 - j) % rows
        for i in range(math.floor((rest.x_mm - reach) / px), math.ceil((rest.x_mm + reach) / px) + 1):
            x = (i + 0.5) * px - rest.x_mm
            u = (x * rest.cos + y * rest.sin) / rest.scale
            v = (-x * rest.sin + y * rest.cos) / rest.scale
            a, b = (u / look.width_mm + 0.5) * pw - 0.5, (0.5 - v / look.height_mm) * ph - 0.5
            if a < -0.5 or b < -0.5 or a > pw - 0.5 or b > ph - 0.5:
                continue
            a, b = min(max(a, 0.0), pw - 1.001), min(max(b, 0.0), ph - 1.001)
            at = _between(b, a)
            share = _of(look.cover, at)
            if share <= np.float32(0.02):
                continue
            own = _of(look.height, at)
            top = np.float32(
                own * rest.scale + rest.base_mm + rest.lean_x * u * rest.scale + rest.lean_y * v * rest.scale
            )
            c = i % columns
            if top < ground.height[r, c]:
                continue
            ground.height[r, c] += (top - ground.height[r, c]) * share
            ground.opacity[r, c] = max(ground.opacity[r, c], share)
            for k in range(3):
                seen = min(one, _channel_of(look.colour, k, at) * tone[k])
                ground.colour[r, c, k] += (seen - ground.colour[r, c, k]) * share
            ground.rough[r, c] += (_of(look.rough, at) - ground.rough[r, c]) * share
            if share >= np.float32(0.5):
                ground.number[r, c] = index


def _bare(grid: Grid, values: Mapping[str, Any]) -> _Ground:
    """The sheet before anything lies on it."""
    colour = np.broadcast_to(np.asarray(hex_to_linear(str(values["ground"])), np.float32), (*grid.shape, 3))
    return _Ground(
        np.zeros(grid.shape, np.float32),
        np.ascontiguousarray(colour),
        np.full(grid.shape, float(values["ground_roughness"]), np.float32),
        np.zeros(grid.shape, np.float32),
        np.full(grid.shape, -1, np.int32),
        grid.width_mm,
        grid.height_mm,
    )


def _look(piece: PieceMaps) -> _Look:
    return _Look(piece.cover, piece.height, piece.colour, piece.roughness, *piece.size_mm)


def _rest(piece: LaidPiece, look: _Look, ground: _Ground, values: Mapping[str, Any]) -> _Rest:
    """Where a piece comes to rest on the ground as it lies by now."""
    turn, lean, towards = (math.radians(v) for v in (piece.turn, piece.tilt, piece.tilt_towards))
    base = piece.level - float(values["sink"]) * piece.size * float(look.height.max(initial=0.0))
    slope = math.tan(lean) * math.cos(towards), math.tan(lean) * math.sin(towards)
    rest = _Rest(piece.x_mm, piece.y_mm, piece.size, math.cos(turn), math.sin(turn), base, *slope)
    if values["meeting"] == "pile":
        base += _under(ground, look, rest)
    # A leaning piece rests on its lower rim.
    base += 0.4 * piece.size * (abs(slope[0]) * look.width_mm / 2 + abs(slope[1]) * look.height_mm / 2)
    return rest._replace(base_mm=base)


def lay_scatter(grid: Grid, scatter: Scatter, pieces: Sequence[PieceMaps]) -> MapSet:
    """The whole sheet: strewn pieces first, those laid by hand after them.

    Beside base colour, height in mm, roughness and opacity (where pieces lie) it has normal and occlusion,
    and two ID maps whose colours are never mixed.
    """
    values = find(scatter.strew.op).bind(scatter.strew.values)
    ground = _bare(grid, values)
    laid = [*fallen(scatter), *scatter.laid]
    tones = _tones(len(laid), float(values["jitter"]), int(values["seed"]))
    smaller: dict[tuple[int, int], _Look] = {}
    for index, piece in enumerate(laid):
        kind = kind_of(scatter.kinds, piece.kind)
        if kind < 0 or kind >= len(pieces):
            continue
        look = pieces[kind]
        rest = _rest(piece, _look(look), ground, values)
        halves = look.halves_to(look.size_mm[0] * piece.size / grid.pitch_mm)
        if (kind, halves) not in smaller:
            smaller[kind, halves] = _look(look.halved(halves))
        _put(ground, smaller[kind, halves], rest, tones[index], index)
    maps = {
        MapKind.BASE_COLOUR: ground.colour,
        MapKind.HEIGHT: ground.height,
        MapKind.ROUGHNESS: ground.rough,
        MapKind.OPACITY: ground.opacity,
        MapKind.NORMAL: normal_of_height(ground.height, grid),
        MapKind.AMBIENT_OCCLUSION: occlusion(ground.height, grid, reach_mm=OCCLUSION_REACH_MM),
    }
    return _with_ids(MapSet(grid, maps), ground.number, [kind_of(scatter.kinds, piece.kind) for piece in laid])


def _tones(count: int, jitter: float, seed: int) -> npt.NDArray[np.float32]:
    """A factor a piece and channel: mostly light and dark, a little warm and cool."""
    draws = np.stack([units_as_before(np.arange(count), np.full(count, k), seed + 31) for k in range(4)], 1) * 2 - 1
    light = np.exp(0.7 * jitter * draws[:, :1])
    return np.asarray(light * np.exp(0.22 * jitter * draws[:, 1:4]), np.float32)


def _with_ids(maps: MapSet, number: npt.NDArray[np.int32], kinds: list[int]) -> MapSet:
    of_kind = np.array([(0.0, 0.0, 0.0), *(id_colour(k, 1) for k in kinds)], np.float64)
    of_piece = np.array([(0.0, 0.0, 0.0), *(id_colour(k, 2) for k in range(len(kinds)))], np.float64)
    return maps.with_maps(
        kind_id=np.asarray(decode_srgb(of_kind)[number + 1], np.float32),
        piece_id=np.asarray(decode_srgb(of_piece)[number + 1], np.float32),
    )


def piece_at(scatter: Scatter, x_mm: float, y_mm: float) -> LaidPiece | None:
    """The topmost piece laid by hand whose rectangle holds a point of the sheet."""
    for piece in reversed(scatter.laid):
        kind = next((k for k in scatter.kinds if k.id == piece.kind), None)
        if kind is None:
            continue
        dx = (x_mm - piece.x_mm + scatter.width_mm / 2) % scatter.width_mm - scatter.width_mm / 2
        dy = (y_mm - piece.y_mm + scatter.height_mm / 2) % scatter.height_mm - scatter.height_mm / 2
        turn = math.radians(piece.turn)
        u, v = dx * math.cos(turn) + dy * math.sin(turn), -dx * math.sin(turn) + dy * math.cos(turn)
        if abs(u) <= kind.width_mm * piece.size / 2 and abs(v) <= kind.height_mm * piece.size / 2:
            return piece
    return None
