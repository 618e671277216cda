"""Touch-up brushes on a closed sheet: they wrap over every edge and work on all maps together.

Each brush is declared once. It is handed only the window of the sheet that its stroke covers, so a dab
costs the same on a small sheet and on a large one.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Annotated, Any

import cv2
import numpy as np

from ..colour import hex_to_linear
from ..job.document import Touch
from ..kernels.compiled import compiled
from ..kernels.membrane import membrane
from ..kernels.strokes import paint_path
from ..kernels.unit_vectors import to_unit
from ..maps import TRAITS, MapKind, MapSet
from ..operation import Angle, Brushed, Fraction, Length, Paint, Toggle, find, operation
from ..sheet import Grid, Raster
from .piece import Setting as PieceSetting
from .piece import edge_of, outline_of, taken

Size = Annotated[
    float, Length(1, 300, log=True, least=0.2, most=5000, help="Width of the brush; [ and ] on the board.")
]
Hardness = Annotated[float, Fraction(help="0 a soft brush, 1 a hard edge.")]
Strength = Annotated[float, Fraction(help="How much of it a stroke lays down.")]
Spacing = Annotated[
    float, Length(0, 100, least=0, most=5000, help="Distance between dabs along the stroke; 0 is without a break.")
]


@operation("touch.clone", label="Clone")
def clone(
    grid: Grid,
    maps: MapSet,
    brushed: Brushed,
    *,
    size: Size = 40.0,
    hardness: Hardness = 0.6,
    strength: Strength = 1.0,
    spacing: Spacing = 0.0,
) -> MapSet:
    """Lay down what lies at another place of the sheet."""
    return _mixed(maps, brushed.there, brushed.cover, strength)


@operation("touch.heal", label="Heal")
def heal(
    grid: Grid,
    maps: MapSet,
    brushed: Brushed,
    *,
    size: Size = 40.0,
    hardness: Hardness = 0.8,
    strength: Strength = 1.0,
    spacing: Spacing = 0.0,
) -> MapSet:
    """Lay down the detail of another place, and the tone of this one.

    The difference of both along the stroke's rim is stretched over it as a membrane (Pérez, Gangnet and
    Blake 2003, "Poisson image editing"). Without a place to take from, the most alike is found.
    """
    inside = brushed.cover > np.float32(0.02)
    inside[0], inside[-1], inside[:, 0], inside[:, -1] = False, False, False, False
    healed = {}
    for kind, here in maps.maps.items():
        there = brushed.there[kind]
        difference = (here - there).reshape(*here.shape[:2], -1)
        healed[kind] = there + membrane(np.ascontiguousarray(difference), inside).reshape(here.shape)
    return _mixed(maps, MapSet(grid, healed), brushed.cover, strength)


@operation("touch.paint", label="Paint")
def paint(
    grid: Grid,
    maps: MapSet,
    brushed: Brushed,
    *,
    size: Size = 30.0,
    hardness: Hardness = 0.5,
    strength: Strength = 1.0,
    spacing: Spacing = 0.0,
    colour: Annotated[str, Paint(help="The colour that is laid down.")] = "#808080",
    value: Annotated[float, Fraction(help="The value laid down on roughness, metalness and occlusion.")] = 0.6,
    level: Annotated[float, Length(-20, 20, least=-500, most=500, help="The height laid down.")] = 0.0,
) -> MapSet:
    """Lay down a colour, or a plain value on other maps."""
    plain = {}
    for kind, here in maps.maps.items():
        put = (
            hex_to_linear(colour)
            if kind is MapKind.BASE_COLOUR
            else TRAITS[kind].default
            if kind is MapKind.NORMAL
            else level
            if kind is MapKind.HEIGHT
            else value
        )
        plain[kind] = np.broadcast_to(np.asarray(put, np.float32), here.shape)
    return _mixed(maps, MapSet(grid, plain), brushed.cover, strength)


@operation("touch.smudge", label="Smudge")
def smudge(
    grid: Grid,
    maps: MapSet,
    brushed: Brushed,
    *,
    size: Size = 30.0,
    hardness: Hardness = 0.5,
    strength: Annotated[float, Fraction(help="How long what is picked up is carried along.")] = 0.7,
    spacing: Spacing = 0.0,
) -> MapSet:
    """Drag along what lies under the stroke."""
    done = {}
    path = _steps(brushed.path, max(1.0, size / 12 / grid.pitch_mm))
    radius = 0.5 * size / grid.pitch_mm
    for kind, here in maps.maps.items():
        out = here.reshape(*here.shape[:2], -1).copy()
        _smudge(out, path, radius, hardness, min(strength, 0.98))
        done[kind] = _kept(kind, out.reshape(here.shape))
    return MapSet(grid, done)


@operation("touch.sharpen", label="Sharpen")
def sharpen(
    grid: Grid,
    maps: MapSet,
    brushed: Brushed,
    *,
    size: Size = 60.0,
    hardness: Hardness = 0.3,
    strength: Annotated[
        float, Fraction(-1, 2, least=-1, most=4, help="How far detail is raised; below 0 it is softened.")
    ] = 0.6,
    spacing: Spacing = 0.0,
    radius: Annotated[float, Length(0.2, 20, log=True, least=0.05, help="Width of the detail that is raised.")] = 1.5,
) -> MapSet:
    """Raise or soften detail of a width in mm."""
    done = {}
    sigma = max(0.3, 0.5 * radius / grid.pitch_mm)
    for kind, here in maps.maps.items():
        detail = here - cv2.GaussianBlur(here, (0, 0), sigma, borderType=cv2.BORDER_REFLECT)
        share = brushed.cover if here.ndim == 2 else brushed.cover[..., None]
        done[kind] = _kept(kind, here + detail * share * np.float32(strength))
    return MapSet(grid, done)


@operation("touch.piece", label="Move a piece")
def piece(
    grid: Grid,
    maps: MapSet,
    brushed: Brushed,
    *,
    turn: Annotated[float, Angle(help="How far the piece is turned, anticlockwise; [ and ] on the board.")] = 0.0,
    mirrored: Annotated[bool, Toggle(help="Left and right of the piece change places before it is turned.")] = False,
    edge: Annotated[
        float,
        Length(
            0, 60, least=0, most=1000, help="Width about its outline in which its edge is cut where it shows least."
        ),
    ] = 12.0,
    strength: Strength = 1.0,
) -> MapSet:
    """Take a piece, such as one stone, out of its outline and set it elsewhere, on every map."""
    return _mixed(maps, brushed.there, brushed.cover, strength)


def _mixed(maps: MapSet, other: MapSet, cover: Raster, strength: float) -> MapSet:
    share = cover * np.float32(strength)
    done = {}
    for kind, here in maps.maps.items():
        there = other[kind]
        done[kind] = _kept(kind, here + (there - here) * (share if here.ndim == 2 else share[..., None]))
    return MapSet(maps.grid, done)


def _kept(kind: MapKind, pixels: Raster) -> Raster:
    """Normals stay unit vectors, colours and shares stay in their range; in place."""
    if kind is MapKind.NORMAL:
        return to_unit(pixels)
    if kind is MapKind.BASE_COLOUR:
        return np.maximum(pixels, 0, out=pixels)
    return pixels if kind is MapKind.HEIGHT else np.clip(pixels, 0, 1, out=pixels)


def _steps(path: Sequence[tuple[float, float]], step: float) -> Raster:
    """A path (n, 2) of even small steps."""
    points = [np.asarray(path[0], np.float32)]
    for start, end in itertools.pairwise(path):
        away = math.dist(start, end)
        for k in range(1, max(1, math.ceil(away / step)) + 1):
            share = k / max(1, math.ceil(away / step))
            points.append(
                np.asarray([start[0] + (end[0] - start[0]) * share, start[1] + (end[1] - start[1]) * share], np.float32)
            )
    return np.stack(points)


@compiled
def _smudge(out: Raster, path: Raster, radius: float, hardness: float, keep: float) -> None:
    rows, columns, channels = out.shape
    reach = int(radius) + 1
    side = 2 * reach + 1
    held = np.zeros((side, side, channels), np.float32)
    first = True
    soft = max(radius * (1.0 - hardness), 1.0)
    for n in range(path.shape[0]):
        cx, cy = int(path[n, 0]), int(path[n, 1])
        for j in range(side):
            r = cy + j - reach
            if r < 0 or r >= rows:
                continue
            for i in range(side):
                c = cx + i - reach
                if c < 0 or c >= columns:
                    continue
                away = math.sqrt((i - reach) ** 2 + (j - reach) ** 2)
                s = min(1.0, max(0.0, (radius - away) / soft))
                for k in range(channels):
                    if first:
                        held[j, i, k] = out[r, c, k]
                    else:
                        mixed = np.float32(s * keep) * held[j, i, k] + np.float32(1.0 - s * keep) * out[r, c, k]
                        out[r, c, k] = mixed
                        held[j, i, k] = mixed
        first = False


# Strokes on a sheet ------------------------------------------------------------------------------


def touch_in_place(maps: dict[MapKind, Raster], grid: Grid, touch: Touch, tip: Raster | None = None) -> None:
    """Carry out one stroke on maps that may be written to; only the window it covers is read or changed."""
    operation_ = find(touch.brush.op)
    values = operation_.bind(touch.brush.values)
    if touch.brush.op == "touch.piece":
        _set_piece(maps, grid, touch, values)
        return
    size, across_down = float(values["size"]), grid.mm_per_px
    xs, ys, origin = _window(touch.points, size, grid)
    chosen = [kind for kind in maps if not touch.maps or kind in touch.maps]
    if not chosen:
        return
    part = Grid(len(xs), len(ys), len(xs) * across_down[0], len(ys) * across_down[1])
    path = [((x - origin[0]), (y - origin[1])) for x, y in touch.points]
    cover = _cover(part, path, values, tip)
    jump = round(touch.offset[0] / across_down[0]), -round(touch.offset[1] / across_down[1])
    there_rows, there_columns = (ys + jump[1]) % grid.height_px, (xs + jump[0]) % grid.width_px
    place, from_there = _index(ys, xs), _index(there_rows, there_columns)
    here = {kind: maps[kind][place] for kind in chosen}
    there = MapSet(part, {kind: maps[kind][from_there] for kind in chosen})
    in_px = tuple((x / across_down[0], (part.height_mm - y) / across_down[1]) for x, y in path)
    done = operation_.run(part, MapSet(part, here), Brushed(cover, there, in_px), **values)
    _put(maps, place, done, cover, chosen)


def _set_piece(maps: dict[MapKind, Raster], grid: Grid, touch: Touch, values: Mapping[str, object]) -> None:
    """Set a piece where its outline is drawn, from where its offset leads."""
    turn, edge = (float(str(values[name])) for name in ("turn", "edge"))
    setting, outline = PieceSetting(turn, bool(values["mirrored"]), edge), outline_of(touch.points)
    chosen = [kind for kind in maps if not touch.maps or kind in touch.maps]
    # The outline is that of the piece as it was found; set, it is turned.
    outline = outline.turned(setting)
    xs, ys, origin = _window(outline.points(), 2 * edge, grid)
    across, down = grid.mm_per_px
    part = Grid(len(xs), len(ys), len(xs) * across, len(ys) * down)
    x = ((np.arange(len(xs)) + 0.5) * across + origin[0] - outline.x)[None, :]
    y = ((len(ys) - 0.5 - np.arange(len(ys))) * down + origin[1] - outline.y)[:, None]
    x, y = np.broadcast_arrays(x, y)
    place = _index(ys, xs)
    here = {kind: maps[kind][place] for kind in maps}
    middle = outline.x + touch.offset[0], outline.y + touch.offset[1]
    there = {kind: taken(maps[kind], kind, grid, x, y, setting, middle) for kind in maps}
    within = replace(outline, x=outline.x - origin[0], y=outline.y - origin[1])
    cut = replace(outline, reach=edge_of(here, there, part, within, edge))
    away = (cut.at(np.arctan2(y, x)) - np.hypot(x, y)) / (1.2 * grid.pitch_mm) + 0.5
    cover = np.clip(away, 0, 1).astype(np.float32)
    made = piece(part, MapSet(part, here), Brushed(cover, MapSet(part, there), ()), **values)
    _put(maps, place, made, cover, chosen)


def _put(maps: dict[MapKind, Raster], place: Any, made: MapSet, cover: Raster, chosen: Sequence[MapKind]) -> None:
    """What lies under the cover, and nothing beside it."""
    inside = cover > 0
    for kind in chosen:
        here = maps[kind][place]
        np.copyto(here, made[kind], where=inside if here.ndim == 2 else inside[..., None])
        maps[kind][place] = here


def _index(rows: np.typing.NDArray[np.int64], columns: np.typing.NDArray[np.int64]) -> Any:
    """Rows and columns as slices where they do not wrap: a view then, not a copy."""
    if rows[-1] - rows[0] == len(rows) - 1 and columns[-1] - columns[0] == len(columns) - 1:
        return slice(int(rows[0]), int(rows[-1]) + 1), slice(int(columns[0]), int(columns[-1]) + 1)
    return np.ix_(rows, columns)


def _window(
    points: Sequence[tuple[float, float]], size: float, grid: Grid
) -> tuple[np.typing.NDArray[np.int64], np.typing.NDArray[np.int64], tuple[float, float]]:
    """Columns and rows that a stroke covers, wrapped, and the mm of their lower left corner."""
    across, down = grid.mm_per_px
    margin = 0.55 * size + 2 * max(across, down)
    ends = []
    for axis, pitch, length in ((0, across, grid.width_px), (1, down, grid.height_px)):
        low, high = min(p[axis] for p in points) - margin, max(p[axis] for p in points) + margin
        first, last = math.floor(low / pitch), math.ceil(high / pitch)
        ends.append((first, min(last - first, length)))
    columns = np.arange(ends[0][0], ends[0][0] + ends[0][1]) % grid.width_px
    # Rows count down from the top, sheet coordinates up from the foot.
    rows = (grid.height_px - 1 - np.arange(ends[1][0] + ends[1][1] - 1, ends[1][0] - 1, -1)) % grid.height_px
    return columns, rows, (ends[0][0] * across, ends[1][0] * down)


def _cover(part: Grid, path: list[tuple[float, float]], values: Mapping[str, object], tip: Raster | None) -> Raster:
    """Where the stroke lies, (H, W) in [0, 1]."""
    cover = np.zeros(part.shape, np.float32)
    size, spacing = float(values["size"]), float(values["spacing"])  # type: ignore[arg-type]
    if tip is not None:
        dabs = _steps(path, spacing or 0.25 * size)
        side = max(2, round(size / part.pitch_mm))
        stamp = np.asarray(cv2.resize(tip, (side, side), interpolation=cv2.INTER_AREA), np.float32)
        for x, y in dabs:
            _stamp(
                cover,
                stamp,
                round(float(x) / part.mm_per_px[0] - side / 2),
                round((part.height_mm - float(y)) / part.mm_per_px[1] - side / 2),
            )
        return cover
    runs = [path] if spacing <= 0 else [[(float(x), float(y))] for x, y in _steps(path, spacing)[::1]]
    for run in runs:
        paint_path(
            cover,
            run,
            size_mm=size,
            hardness=float(str(values["hardness"])),
            width_mm=part.width_mm,
            height_mm=part.height_mm,
        )
    return cover


def _stamp(cover: Raster, stamp: Raster, left: int, top: int) -> None:
    """Raise the cover to a tip laid at a pixel, wrapped within the window."""
    ys, xs = (top + np.arange(stamp.shape[0])) % cover.shape[0], (left + np.arange(stamp.shape[1])) % cover.shape[1]
    here = np.ix_(ys, xs)
    cover[here] = np.maximum(cover[here], stamp)


def shifted(maps: MapSet, shift: tuple[float, float]) -> MapSet:
    """All maps moved by mm to the right and up, to the nearest pixel."""
    across, down = maps.grid.mm_per_px
    by = (-round(shift[1] / down), round(shift[0] / across))
    if by == (0, 0):
        return maps
    return MapSet(maps.grid, {kind: np.roll(pixels, by, (0, 1)) for kind, pixels in maps.maps.items()})


def touched(maps: MapSet, touches: Sequence[Touch], tips: Mapping[str, Raster]) -> MapSet:
    """A sheet with strokes carried out in their order, on a copy."""
    if not touches:
        return maps
    copies = {kind: np.array(pixels) for kind, pixels in maps.maps.items()}
    for touch in touches:
        touch_in_place(copies, maps.grid, touch, tips.get(touch.tip))
    return MapSet(maps.grid, copies)
