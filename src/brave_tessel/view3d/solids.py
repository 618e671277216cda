"""Solids that show a surface in the round: their skin displaced by its relief, at true proportion."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..core.sheet import Grid, Raster
from .drawn import DrawPart

SOLIDS = ("Plane", "Block", "Ball", "Drum", "Vault", "Cloth", "Corner", "Stairs")
CENTRE = np.array([0.0, 0.0, 1.2])
"""Where it is drawn, m."""
SIZE_M = 1.5
"""How large a solid is drawn; what it shows is scaled along."""
_EDGE, _FOLD = 0.08, 0.075
_OPEN, _SLAB_M = ("Plane", "Vault", "Corner", "Stairs"), 0.035
_F = npt.NDArray[np.float64]
_Skin = Callable[[_F, _F], tuple[_F, _F]]


@dataclass(frozen=True, slots=True)
class Sheet:
    """One sheet of a solid's skin: places and normals of (u, v), both 0 to 1, and where those lie, in repeats: from
    ``start``, over ``spans``. On a ``polar`` one u goes round, and v from the middle outwards.
    """

    skin: _Skin
    spans: tuple[float, float]
    start: tuple[float, float] = (0.0, 0.0)
    polar: bool = False

    def uv(self, u: _F, v: _F) -> _F:
        """Places on the surface (…, 2), in repeats."""
        if self.polar:
            a = (u - 0.5) * 2 * math.pi
            u, v = (1 + v * np.sin(a)) / 2, (1 - v * np.cos(a)) / 2
        return np.stack([self.start[0] + u * self.spans[0], self.start[1] + v * self.spans[1]], -1)


@dataclass(frozen=True, slots=True)
class Solid:
    """A solid's skin, and its size in mm of the surface: what is drawn :data:`SIZE_M` large."""

    sheets: tuple[Sheet, ...]
    size_mm: float


def _flat(width: float, height: float) -> _Skin:
    def skin(u: _F, v: _F) -> tuple[_F, _F]:
        places = np.stack([(u - 0.5) * width, (v - 0.5) * height, np.zeros_like(u)], -1)
        return places, np.broadcast_to(np.array([0.0, 0.0, 1.0]), places.shape)

    return skin


def _round(radius: float, height: float, arc: float) -> _Skin:
    def skin(u: _F, v: _F) -> tuple[_F, _F]:
        a = (u - 0.5) * arc
        normal = np.stack([np.sin(a), np.zeros_like(a), np.cos(a)], -1)
        return np.stack([radius * np.sin(a), (v - 0.5) * height, radius * np.cos(a)], -1), normal

    return skin


def _vault(radius: float, wall: float, length: float) -> _Skin:
    """A passage seen from its mouth: up one wall, over the barrel, and down the other; u goes away from the viewer."""
    bend, run = math.pi * radius, math.pi * radius + 2 * wall

    def skin(u: _F, v: _F) -> tuple[_F, _F]:
        at = v * run
        a = np.clip((at - wall) / radius, 0, math.pi) - math.pi / 2
        down = np.maximum(wall - at, 0) + np.maximum(at - wall - bend, 0)
        normal = np.stack([-np.sin(a), -np.cos(a), np.zeros_like(a)], -1)
        places = [radius * np.sin(a), radius * np.cos(a) - down, (0.5 - u) * length]
        return np.stack(places, -1), normal

    return skin


def _ball(radius: float) -> _Skin:
    def skin(u: _F, v: _F) -> tuple[_F, _F]:
        a, b = (u - 0.5) * 2 * math.pi, (v - 0.5) * math.pi
        normal = np.stack([np.sin(a) * np.cos(b), np.sin(b), np.cos(a) * np.cos(b)], -1)
        return radius * normal, normal

    return skin


def _face(half: float, edge: float, way: tuple[int, int, int], up: tuple[int, int, int]) -> _Skin:
    """A face of a rounded cube, ``half`` its flat part from the middle; it meets its neighbours half way round each
    edge. ``way`` it looks, ``up`` its v goes.
    """
    ahead, over = np.array(way, float), np.array(up, float)
    right = np.cross(over, ahead)

    def skin(u: _F, v: _F) -> tuple[_F, _F]:
        s, t = (2 * u - 1) * (half + edge * math.pi / 4), (2 * v - 1) * (half + edge * math.pi / 4)
        flat = [np.clip(x, -half, half) for x in (s, t)]
        turn = [np.tan((x - y) / edge) for x, y in zip((s, t), flat, strict=True)]
        normal = ahead + turn[0][..., None] * right + turn[1][..., None] * over
        normal /= np.linalg.norm(normal, axis=-1, keepdims=True)
        middle = half * ahead + flat[0][..., None] * right + flat[1][..., None] * over
        return middle + edge * normal, normal

    return skin


def _block(width: float, height: float) -> tuple[tuple[Sheet, ...], float]:
    """A block with rounded edges, a repeat to a face, and its side. What runs up the front goes on over the top."""
    side = width / (1 - 2 * _EDGE + _EDGE * math.pi / 2)
    half, edge, tall = side * (0.5 - _EDGE), side * _EDGE, width / height
    round_ = ((0, 0, 1), (1, 0, 0), (0, 0, -1), (-1, 0, 0))
    sides = [Sheet(_face(half, edge, way, (0, 1, 0)), (1.0, tall), (float(k), 0.0)) for k, way in enumerate(round_)]
    top = Sheet(_face(half, edge, (0, 1, 0), (0, 0, -1)), (1.0, tall), (0.0, tall))
    under = Sheet(_face(half, edge, (0, -1, 0), (0, 0, 1)), (1.0, tall), (0.0, -tall))
    return (*sides, top, under), side


def _lid(radius: float, height: float) -> _Skin:
    """The flat end of a drum."""

    def skin(u: _F, v: _F) -> tuple[_F, _F]:
        a, out = (u - 0.5) * 2 * math.pi, (1 - v) * radius
        places = np.stack([out * np.sin(a), np.full_like(u, height / 2), out * np.cos(a)], -1)
        return places, np.broadcast_to(np.array([0.0, 1.0, 0.0]), places.shape)

    return skin


def _cloth(width: float, height: float) -> _Skin:
    """A cloth hung by its upper edge: folds that open downwards, nowhere so deep that one hides another."""

    def skin(u: _F, v: _F) -> tuple[_F, _F]:
        depth = _FOLD * width * (0.3 + 0.7 * (1 - v))
        turn = 3 * 2 * math.pi * u + 0.6 * np.sin(2 * math.pi * u + 2 * v)
        places = np.stack([(u - 0.5) * 0.82 * width, (v - 0.5) * height, depth * np.sin(turn)], -1)
        # Its slope across and up, by the same formula.
        swing = 0.6 * np.cos(2 * math.pi * u + 2 * v)
        across = depth * np.cos(turn) * 2 * math.pi * (3 + swing) / (0.82 * width)
        up = (-0.7 * _FOLD * width * np.sin(turn) + depth * np.cos(turn) * 2 * swing) / height
        normal = np.stack([-across, -up, np.ones_like(u)], -1)
        return places, normal / np.linalg.norm(normal, axis=-1, keepdims=True)

    return skin


def _folded(line: _F, length: float) -> tuple[_Skin, float]:
    """A sheet that follows a line of (away, up) in its v and runs straight in u; and the line's length."""
    steps = np.diff(line, axis=0)
    sizes = np.linalg.norm(steps, axis=1)
    ends = np.concatenate([[0.0], np.cumsum(sizes)])
    whole = float(ends[-1])

    def skin(u: _F, v: _F) -> tuple[_F, _F]:
        at = np.clip(v * whole, 0, whole * (1 - 1e-9))
        piece = np.clip(np.searchsorted(ends, at, side="right") - 1, 0, len(steps) - 1)
        share = (at - ends[piece]) / sizes[piece]
        place = line[piece] + share[..., None] * steps[piece]
        way = steps[piece] / sizes[piece][..., None]
        # Outwards is to the right of the way up: towards the viewer on an upright, up on a tread.
        places = np.stack([(u - 0.5) * length, place[..., 1], place[..., 0]], -1)
        return places, np.stack([np.zeros_like(u), -way[..., 0], way[..., 1]], -1)

    return skin, whole


def _stairs(width: float) -> tuple[_Skin, float]:
    """Four steps of 170 by 290, to the size of the repeat."""
    step = width / 3
    line = [(0.0, 0.0)]
    for _ in range(4):
        z, y = line[-1]
        line += [(z, y + 0.17 / 0.29 * step), (z - step, y + 0.17 / 0.29 * step)]
    points = np.array(line) - [line[-1][0] / 2, line[-1][1] / 2]
    return _folded(points, 2 * width)


def _corner(width: float, height: float) -> _Skin:
    """Two walls of a room that meet, with a skirting in front of their foot."""
    foot, out = 0.16 * height, 0.05 * width

    def skin(u: _F, v: _F) -> tuple[_F, _F]:
        left = u < 0.5
        along = np.where(left, 0.5 - u, u - 0.5) * 2 * width
        up = v * height
        proud = np.where(up < foot, out, np.where(up < foot * 1.08, out * (1 - (up - foot) / (0.08 * foot)), 0.0))
        a = math.pi / 4
        # Each wall runs from the corner towards the viewer, to its own side.
        x = np.where(left, -1, 1) * along * math.cos(a)
        z = along * math.sin(a)
        normal = np.stack([np.where(left, 1, -1) * math.cos(a), np.zeros_like(u), np.full_like(u, math.sin(a))], -1)
        return np.stack([x, up - 0.5 * height, z - 0.5 * width], -1) + normal * proud[..., None], normal

    return skin


def solid(name: str, width_mm: float, height_mm: float) -> Solid:
    """A solid sized by the repeat, so that whole repeats close round it."""
    if name == "Block":
        sheets, side = _block(width_mm, height_mm)
        return Solid(sheets, 1.2 * side)
    if name == "Ball":
        radius = 3 * width_mm / (2 * math.pi)
        high = max(1.0, round(math.pi * radius / height_mm))
        return Solid((Sheet(_ball(radius), (3.0, high)),), 2 * radius)
    if name == "Drum":
        radius = 3 * width_mm / (2 * math.pi)
        tall = max(1.0, round(2 * radius / height_mm)) * height_mm
        round_ = Sheet(_round(radius, tall, 2 * math.pi), (3.0, tall / height_mm))
        lid = Sheet(_lid(radius, tall), (2 * radius / width_mm, 2 * radius / height_mm), polar=True)
        return Solid((round_, lid), 1.1 * max(2 * radius, tall))
    if name == "Vault":
        radius, wall = 2 * height_mm / math.pi, 0.5 * height_mm
        # About as deep as it is wide, to half a repeat.
        deep = max(0.5, round(4 * radius / width_mm) / 2)
        arch = _vault(radius, wall, deep * width_mm)
        return Solid((Sheet(arch, (deep, 3.0)),), 1.15 * max(2 * radius, radius + wall, deep * width_mm))
    if name == "Cloth":
        return Solid((Sheet(_cloth(2 * width_mm, 2 * height_mm), (2.0, 2.0)),), 2 * max(width_mm, height_mm))
    if name == "Corner":
        # Whole repeats meet in the corner.
        return Solid((Sheet(_corner(width_mm, 1.3 * height_mm), (2.0, 1.3)),), 1.3 * max(width_mm, height_mm))
    if name == "Stairs":
        flight, length = _stairs(width_mm)
        return Solid((Sheet(flight, (2.0, length / height_mm)),), 1.7 * width_mm)
    return Solid((Sheet(_flat(width_mm, height_mm), (1.0, 1.0)),), max(width_mm, height_mm))


def solid_part(
    name: str, height: Raster, grid: Grid, surface: str, *, displaced: bool = True, cells: int = 220
) -> DrawPart:
    """The solid as triangles about :data:`CENTRE`, ``cells`` × ``cells`` facets, its relief displaced to scale.

    Normals are those of the smooth solid: the shader brings the finer ones from the normal map, so nothing is lit
    twice.
    """
    shape = solid(name, grid.width_mm, grid.height_mm)
    scale = SIZE_M / shape.size_mm
    # Facets as fine on every sheet of a skin of several.
    cells = round(cells / math.sqrt(len(shape.sheets)))
    made = [_triangles(sheet, height if displaced else None, cells) for sheet in shape.sheets]
    places, normals, uv = (np.concatenate(arrays) for arrays in zip(*made, strict=True))
    flat = np.concatenate([uv, np.ones((len(uv), 1))], -1)
    size = (grid.width_mm * scale, grid.height_mm * scale)
    places32, normals32, uv32 = (c.astype(np.float32) for c in (places * scale + CENTRE, normals, flat))
    return DrawPart("solid", places32, normals32, uv32, surface, (0.5, 0.5, 0.5), size)


def backing(name: str, height: Raster, grid: Grid, *, displaced: bool = True) -> tuple[_F, _F] | None:
    """Corners and normals (N, 3), m, of the slab that an open solid's skin is the face of; None for one that is
    closed, or a cloth.
    """
    if name not in _OPEN:
        return None
    shape = solid(name, grid.width_mm, grid.height_mm)
    (sheet,), scale = shape.sheets, SIZE_M / shape.size_mm
    line = np.linspace(0, 1, 97)
    u, v = np.meshgrid(line, line)
    places, normals = sheet.skin(u, v)
    front = places + normals * _read(height, sheet.uv(u, v))[..., None] if displaced else places
    back = places - normals * (_SLAB_M / scale)
    strips = [(back[:, ::-1], -normals[:, ::-1])]
    # Where it ends, anticlockwise: below, right, above, left.
    for row in (np.s_[0], np.s_[:, -1], np.s_[-1, ::-1], np.s_[::-1, 0]):
        edge = np.stack([back[row], front[row]])
        along = np.gradient(places[row], axis=0)
        out = np.cross(along, normals[row])
        out /= np.maximum(np.linalg.norm(out, axis=-1, keepdims=True), 1e-12)
        strips.append((edge, np.stack([out, out])))
    turned = [[np.stack([one[..., 0], -one[..., 2], one[..., 1]], -1) for one in strip] for strip in strips]
    corners, ways = (np.concatenate([_corners(strip[k]) for strip in turned]) for k in (0, 1))
    return corners * scale + CENTRE, ways


def _triangles(sheet: Sheet, height: Raster | None, cells: int) -> tuple[_F, _F, _F]:
    """Corners of a sheet's triangles: places in mm, normals (N, 3) and places in repeats (N, 2), with z up."""
    line = np.linspace(0, 1, cells + 1)
    u, v = np.meshgrid(line, line)
    places, normals = sheet.skin(u, v)
    uv = sheet.uv(u, 1 - v if sheet.polar else v)
    if height is not None:
        places = places + normals * _read(height, uv)[..., None]
    # A skin is drawn with y up and z towards the viewer; it stands in a scene with z up.
    places, normals = (np.stack([one[..., 0], -one[..., 2], one[..., 1]], -1) for one in (places, normals))
    return _corners(places), _corners(normals), _corners(uv)


def _read(height: Raster, uv: _F) -> _F:
    """Heights at places in repeats, from a version of the relief that fits the mesh."""
    rows, columns = height.shape
    c, r = uv[..., 0] * columns - 0.5, (1 - uv[..., 1]) * rows - 0.5
    c0, r0 = np.floor(c).astype(int), np.floor(r).astype(int)
    fc, fr = c - c0, r - r0
    at = [height[(r0 + dr) % rows, (c0 + dc) % columns] for dr, dc in ((0, 0), (0, 1), (1, 0), (1, 1))]
    return np.asarray((1 - fr) * ((1 - fc) * at[0] + fc * at[1]) + fr * ((1 - fc) * at[2] + fc * at[3]), np.float64)


def _corners(grid_: _F) -> _F:
    """Two triangles for each cell of a grid of points, anticlockwise seen from outside."""
    a, b, c, d = grid_[:-1, :-1], grid_[:-1, 1:], grid_[1:, 1:], grid_[1:, :-1]
    return np.stack([a, b, c, a, c, d], 2).reshape(-1, grid_.shape[-1])
