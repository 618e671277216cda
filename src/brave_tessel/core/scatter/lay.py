"""Pieces laid on the wrapped sheet: height, colour, roughness, cover, and an ID colour a kind and a piece."""

from __future__ import annotations

import colorsys
import math
from collections.abc import Sequence
from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt

from ..colour import decode_srgb, hex_to_linear, lab_of, luminance
from ..errors import MissingError
from ..job.layers import LaidPiece, PieceKind, Scatter
from ..kernels.compiled import compiled
from ..kernels.relief import normal_of_height, occlusion
from ..lattice import hash_many, units_many
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
    luck = int(hash_many([number], [seed], 5)[0])
    rgb = colorsys.hsv_to_rgb(hue, 0.55 + 0.45 * ((luck >> 3) % 4) / 3, 0.55 + 0.45 * (luck % 3) / 2)
    r, g, b = (round(255 * v) / 255 for v in rgb)
    return r, g, b


@compiled
def _under(
    height: Raster,
    cover: Raster,
    at: npt.NDArray[np.float64],
    scale: float,
    cos: float,
    sin: float,
    width_mm: float,
    height_mm: float,
    size_mm: npt.NDArray[np.float64],
) -> float:
    """The highest ground beneath the middle part of a piece: where it comes to rest, roughly."""
    rows, columns = height.shape
    top, count = 0.0, 0
    for j in range(-3, 4):
        for i in range(-3, 4):
            u, v = i / 8.0 * size_mm[0] * scale, j / 8.0 * size_mm[1] * scale
            x, y = at[0] + u * cos - v * sin, at[1] + u * sin + v * cos
            c = math.floor(x / width_mm * columns) % columns
            r = (rows - 1 - math.floor(y / height_mm * rows)) % rows
            top += height[r, c]
            count += 1
    return top / count


@compiled
def _put(
    height: Raster,
    colour: Raster,
    rough: Raster,
    opacity: Raster,
    number: npt.NDArray[np.int32],
    p_cover: Raster,
    p_height: Raster,
    p_colour: Raster,
    p_rough: Raster,
    at: npt.NDArray[np.float64],
    scale: float,
    cos: float,
    sin: float,
    base: float,
    tilt_x: float,
    tilt_y: float,
    tone: npt.NDArray[np.float32],
    size_mm: npt.NDArray[np.float64],
    width_mm: float,
    height_mm: float,
    index: int,
) -> None:
    rows, columns = height.shape
    px, py = width_mm / columns, height_mm / rows
    reach = 0.5 * scale * math.sqrt(size_mm[0] ** 2 + size_mm[1] ** 2)
    ph, pw = p_cover.shape
    for j in range(math.floor((at[1] - reach) / py), math.ceil((at[1] + reach) / py) + 1):
        y = (j + 0.5) * py - at[1]
        r = (rows - 1 - j) % rows
        for i in range(math.floor((at[0] - reach) / px), math.ceil((at[0] + reach) / px) + 1):
            x = (i + 0.5) * px - at[0]
            u, v = (x * cos + y * sin) / scale, (-x * sin + y * cos) / scale
            a = (u / size_mm[0] + 0.5) * pw - 0.5
            b = (0.5 - v / size_mm[1]) * ph - 0.5
            if a < -0.5 or b < -0.5 or a > pw - 0.5 or b > ph - 0.5:
                continue
            a, b = min(max(a, 0.0), pw - 1.001), min(max(b, 0.0), ph - 1.001)
            i0, j0 = int(a), int(b)
            fa, fb = np.float32(a - i0), np.float32(b - j0)
            one = np.float32(1)
            w00, w01, w10, w11 = (one - fa) * (one - fb), fa * (one - fb), (one - fa) * fb, fa * fb
            cover = (
                w00 * p_cover[j0, i0]
                + w01 * p_cover[j0, i0 + 1]
                + w10 * p_cover[j0 + 1, i0]
                + w11 * p_cover[j0 + 1, i0 + 1]
            )
            if cover <= np.float32(0.02):
                continue
            own = (
                w00 * p_height[j0, i0]
                + w01 * p_height[j0, i0 + 1]
                + w10 * p_height[j0 + 1, i0]
                + w11 * p_height[j0 + 1, i0 + 1]
            )
            level = np.float32(own * scale + base + tilt_x * u * scale + tilt_y * v * scale)
            c = i % columns
            if level < height[r, c]:
                continue
            share = cover
            height[r, c] += (level - height[r, c]) * share
            opacity[r, c] = max(opacity[r, c], share)
            for k in range(3):
                seen = (
                    w00 * p_colour[j0, i0, k]
                    + w01 * p_colour[j0, i0 + 1, k]
                    + w10 * p_colour[j0 + 1, i0, k]
                    + w11 * p_colour[j0 + 1, i0 + 1, k]
                )
                colour[r, c, k] += (min(one, seen * tone[k]) - colour[r, c, k]) * share
            seen = (
                w00 * p_rough[j0, i0]
                + w01 * p_rough[j0, i0 + 1]
                + w10 * p_rough[j0 + 1, i0]
                + w11 * p_rough[j0 + 1, i0 + 1]
            )
            rough[r, c] += (seen - rough[r, c]) * share
            if share >= np.float32(0.5):
                number[r, c] = index


def lay_scatter(grid: Grid, scatter: Scatter, pieces: Sequence[PieceMaps]) -> MapSet:
    """The whole sheet: strewn pieces first, those laid by hand after them.

    Beside base colour, height in mm, roughness and opacity (where pieces lie) it has normal and occlusion,
    and two ID maps whose colours are never mixed.
    """
    values = find(scatter.strew.op).bind(scatter.strew.values)
    height = np.zeros(grid.shape, np.float32)
    colour = np.ascontiguousarray(
        np.broadcast_to(np.asarray(hex_to_linear(str(values["ground"])), np.float32), (*grid.shape, 3))
    )
    rough = np.full(grid.shape, float(values["ground_roughness"]), np.float32)
    opacity, number = np.zeros(grid.shape, np.float32), np.full(grid.shape, -1, np.int32)
    laid = [*fallen(scatter), *scatter.laid]
    tones = _tones(len(laid), float(values["jitter"]), int(values["seed"]))
    smaller: dict[tuple[int, int], PieceMaps] = {}
    for index, piece in enumerate(laid):
        kind = kind_of(scatter.kinds, piece.kind)
        if kind < 0 or kind >= len(pieces):
            continue
        look = pieces[kind]
        turn, lean, towards = (math.radians(v) for v in (piece.turn, piece.tilt, piece.tilt_towards))
        at, size = np.array([piece.x_mm, piece.y_mm]), np.array(look.size_mm)
        cos, sin = math.cos(turn), math.sin(turn)
        base = piece.level - float(values["sink"]) * piece.size * float(look.height.max(initial=0.0))
        if values["meeting"] == "pile":
            base += _under(height, look.cover, at, piece.size, cos, sin, grid.width_mm, grid.height_mm, size)
        slope = math.tan(lean) * math.cos(towards), math.tan(lean) * math.sin(towards)
        # A leaning piece rests on its lower rim.
        base += 0.4 * piece.size * (abs(slope[0]) * size[0] / 2 + abs(slope[1]) * size[1] / 2)
        halves = look.halves_to(size[0] * piece.size / grid.pitch_mm)
        if (kind, halves) not in smaller:
            smaller[kind, halves] = look.halved(halves)
        seen = smaller[kind, halves]
        _put(
            height,
            colour,
            rough,
            opacity,
            number,
            seen.cover,
            seen.height,
            seen.colour,
            seen.roughness,
            at,
            piece.size,
            cos,
            sin,
            base,
            *slope,
            tones[index],
            size,
            grid.width_mm,
            grid.height_mm,
            index,
        )
    return _with_ids(
        MapSet(
            grid,
            {
                MapKind.BASE_COLOUR: colour,
                MapKind.HEIGHT: height,
                MapKind.ROUGHNESS: rough,
                MapKind.OPACITY: opacity,
                MapKind.NORMAL: normal_of_height(height, grid),
                MapKind.AMBIENT_OCCLUSION: occlusion(height, grid, reach_mm=OCCLUSION_REACH_MM),
            },
        ),
        number,
        [kind_of(scatter.kinds, piece.kind) for piece in laid],
    )


def _tones(count: int, jitter: float, seed: int) -> npt.NDArray[np.float32]:
    """A factor a piece and channel: mostly light and dark, a little warm and cool."""
    luck = np.stack([units_many(np.arange(count), np.full(count, k), seed + 31) for k in range(4)], 1) * 2 - 1
    light = np.exp(0.7 * jitter * luck[:, :1])
    return np.asarray(light * np.exp(0.22 * jitter * luck[:, 1:4]), np.float32)


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
