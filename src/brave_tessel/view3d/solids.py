"""Solids that show a surface in the round: their skin displaced by its relief, at true proportion."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..core.sheet import Grid, Raster
from .camera import Camera
from .drawn import DrawPart

SOLIDS = ("Plane", "Block", "Ball", "Drum", "Vault", "Cloth", "Corner", "Stairs", "Board")
FOUR = ("Ball", "Block", "Drum", "Cloth")
"""What stands on a sample board."""
CENTRE = np.array([0.0, 0.0, 1.2])
"""Where it is drawn, m."""
SIZE_M = 1.5
"""How large a solid is drawn; what it shows is scaled along."""
_F = npt.NDArray[np.float64]
_Skin = Callable[[_F, _F], tuple[_F, _F]]


@dataclass(frozen=True, slots=True)
class Solid:
    """A solid's skin: places and normals of (u, v) in repeats, how many repeats it spans, and its size in repeats'
    widths.
    """

    skin: _Skin
    spans: tuple[float, float]
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


def _vault(radius: float, length: float) -> _Skin:
    def skin(u: _F, v: _F) -> tuple[_F, _F]:
        a = (v - 0.5) * math.pi
        normal = np.stack([np.zeros_like(a), -np.sin(a), -np.cos(a)], -1)
        return np.stack([(0.5 - u) * length, radius * np.sin(a), radius * np.cos(a)], -1), normal

    return skin


def _ball(radius: float) -> _Skin:
    def skin(u: _F, v: _F) -> tuple[_F, _F]:
        a, b = (u - 0.5) * 2 * math.pi, (v - 0.5) * math.pi
        normal = np.stack([np.sin(a) * np.cos(b), np.sin(b), np.cos(a) * np.cos(b)], -1)
        return radius * normal, normal

    return skin


def _block(side: float, edge: float) -> _Skin:
    """A rounded block's four faces in one band; its edges are quarter rounds."""
    straight = side - 2 * edge
    run = 4 * straight + 2 * math.pi * edge

    def skin(u: _F, v: _F) -> tuple[_F, _F]:
        s = (u * run + straight / 2) % run
        quarter = straight + math.pi / 2 * edge
        face = np.floor(s / quarter)
        t = s - face * quarter
        bend = np.clip((t - straight) / max(edge, 1e-9), 0, math.pi / 2)
        x = np.clip(t, 0, straight) - straight / 2 + edge * np.sin(bend)
        z = side / 2 - edge + edge * np.cos(bend)
        nx, nz = np.sin(bend), np.cos(bend)
        a = face * math.pi / 2
        cosine, sine = np.cos(a), np.sin(a)
        px, pz = x * cosine + z * sine, -x * sine + z * cosine
        mx, mz = nx * cosine + nz * sine, -nx * sine + nz * cosine
        return np.stack([px, (v - 0.5) * side, pz], -1), np.stack([mx, np.zeros_like(mx), mz], -1)

    return skin


def _cloth(width: float, height: float) -> _Skin:
    """A cloth hung by its upper edge: folds that open downwards."""

    def skin(u: _F, v: _F) -> tuple[_F, _F]:
        depth = 0.085 * width * (0.35 + 0.65 * (1 - v))
        turn = 5 * 2 * math.pi * u + 0.5 * np.sin(2 * math.pi * u + 2 * v)
        places = np.stack([(u - 0.5) * 0.82 * width, (v - 0.5) * height, depth * np.sin(turn)], -1)
        # Its slope across and up, by the same formula.
        across = depth * np.cos(turn) * (10 * math.pi + math.pi * np.cos(2 * math.pi * u + 2 * v)) / (0.82 * width)
        up = (-0.65 * 0.085 * width * np.sin(turn) + depth * np.cos(turn) * np.cos(2 * math.pi * u + 2 * v)) / height
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
        side = width_mm * 2 / (4 - 2 * 0.08 * (4 - math.pi)) * 2
        return Solid(_block(side, 0.08 * side), (4.0, side / height_mm), 1.4 * side)
    if name == "Ball":
        radius = 3 * width_mm / (2 * math.pi)
        return Solid(_ball(radius), (3.0, max(1.0, round(math.pi * radius / height_mm))), 2 * radius)
    if name == "Drum":
        radius = 3 * width_mm / (2 * math.pi)
        tall = max(1.0, round(2 * radius / height_mm)) * height_mm
        return Solid(_round(radius, tall, 2 * math.pi), (3.0, tall / height_mm), max(2 * radius, tall))
    if name == "Vault":
        radius = 2 * height_mm / math.pi
        return Solid(_vault(radius, 2 * width_mm), (2.0, 2.0), max(2 * radius, 2 * width_mm))
    if name == "Cloth":
        return Solid(_cloth(2 * width_mm, 2 * height_mm), (2.0, 2.0), 2 * max(width_mm, height_mm))
    if name == "Corner":
        # Whole repeats meet in the corner.
        return Solid(_corner(width_mm, 1.3 * height_mm), (2.0, 1.3), 1.5 * max(width_mm, height_mm))
    if name == "Stairs":
        skin, length = _stairs(width_mm)
        return Solid(skin, (2.0, length / height_mm), 2.1 * width_mm)
    return Solid(_flat(width_mm, height_mm), (1.0, 1.0), max(width_mm, height_mm))


def solid_part(
    name: str, height: Raster, grid: Grid, surface: str, *, displaced: bool = True, cells: int = 220
) -> DrawPart:
    """The solid as triangles about ``CENTRE``, ``cells`` × ``cells`` facets, its relief displaced to scale.

    Normals are those of the smooth solid: the shader brings the finer ones from the normal map, so nothing is lit
    twice.
    """
    if name == "Board":
        return _sample_board(height, grid, surface, displaced=displaced, cells=cells)
    shape = solid(name, grid.width_mm, grid.height_mm)
    line = np.linspace(0, 1, cells + 1)
    u, v = np.meshgrid(line, line)
    places, normals = shape.skin(u, v)
    uv = np.stack([u * shape.spans[0], v * shape.spans[1]], -1)
    if displaced:
        places = places + normals * _read(height, uv)[..., None]
    scale = SIZE_M / shape.size_mm
    # A skin is drawn with y up and z towards the viewer; it stands in a scene with z up.
    places, normals = (np.stack([v[..., 0], -v[..., 2], v[..., 1]], -1) for v in (places, normals))
    flat = np.concatenate([uv, np.ones((*uv.shape[:-1], 1))], -1)
    corners = [_corners(array) for array in (places * scale + CENTRE, normals, flat)]
    size = (grid.width_mm * scale, grid.height_mm * scale)
    places32, normals32, uv32 = (c.astype(np.float32) for c in corners)
    return DrawPart("solid", places32, normals32, uv32, surface, (0.5, 0.5, 0.5), size)


def _sample_board(height: Raster, grid: Grid, surface: str, *, displaced: bool, cells: int) -> DrawPart:
    """Four solids beside each other, about half as large; the repeat is as large on all of them."""
    parts = [solid_part(one, height, grid, surface, displaced=displaced, cells=cells // 2) for one in FOUR]
    drawn = 0.52 * min(part.repeat_m[0] for part in parts)
    places = []
    for number, part in enumerate(parts):
        middle = np.array([(number % 2 - 0.5) * 0.62 * SIZE_M, 0.0, (0.5 - number // 2) * 0.62 * SIZE_M])
        places.append((part.positions - CENTRE) * (drawn / part.repeat_m[0]) + CENTRE + middle)
    size = (drawn, drawn * grid.height_mm / grid.width_mm)
    positions, normals, uv = (
        np.concatenate(arrays).astype(np.float32)
        for arrays in (places, [part.normals for part in parts], [part.uv for part in parts])
    )
    return DrawPart("solid", positions, normals, uv, surface, (0.5, 0.5, 0.5), size)


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


def solid_camera(azimuth: float = -24.0, pitch: float = 12.0, distance: float = 3.3) -> Camera:
    """A camera that sees the whole solid."""
    return Camera(
        target=(float(CENTRE[0]), float(CENTRE[1]), float(CENTRE[2])),
        distance=distance,
        azimuth=azimuth,
        pitch=pitch,
        field_of_view=38.0,
    )
