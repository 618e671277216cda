"""Mouldings along a path: skirtings, string courses, rails, cornices, copings; parapets and tubes."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ...operation import Choice, Length, Whole
from .. import groups as g
from ..mesh import Mesh, Vector, joined
from ..paths import Track
from ..piece import Drawn, Handle, Made, piece
from ..profiles import PROFILES, outline_of
from ..solids import Ring, rectangle, swept, turned

Straight = Annotated[float, Length(300, 12000, least=1, most=1e6, help="Of a straight one; a path has its own.")]


def path_of(drawn: Drawn, length: float) -> tuple[Vector, bool]:
    """The drawn path, or a straight one to the east."""
    if len(drawn.path) >= 2:
        return np.array(drawn.path, float), drawn.closed
    return np.array([[0.0, 0.0, 0.0], [length, 0.0, 0.0]]), False


@piece("moulding", label="Moulding", takes="path,profile")
def moulding(
    drawn: Drawn,
    *,
    profile: Annotated[
        str, Choice(*PROFILES, "drawn", help="Its cross-section, from the list or a drawn one.")
    ] = "plain skirting",
    height: Annotated[float, Length(0, 600, most=5000, help="Of the cross-section; 0 is its usual one.")] = 0.0,
    length: Annotated[
        float, Length(300, 12000, least=1, most=1e6, help="Of a straight one; a path has its own.")
    ] = 3000.0,
    side: Annotated[str, Choice("right", "left", help="The side of the path it stands out to.")] = "right",
) -> Made:
    """Along its path, its back on the path, its joints cut on the half angle."""  # fmt: skip
    path, closed = path_of(drawn, length)
    ring = outline_of(profile, drawn.profile, height)
    if side == "left":
        ring = turned(ring * [-1, 1], anticlockwise=True)
    names = _face_names(ring, g.BACK, g.FACE)
    mesh = swept(ring, path, closed=closed, names=names)
    handles = () if len(drawn.path) >= 2 else (Handle("length", (length, 0.0, 0.0), (1.0, 0.0, 0.0)),)
    tall = float(ring[:, 1].max())
    return Made(mesh, {"top": tall}, path=path, closed=closed, handles=handles)


def _face_names(ring: Ring, back: str, face: str) -> list[str]:
    """Sides on the path's own line are the back, level ones on top and below top and foot, all others the face."""
    ends = np.roll(ring, -1, 0)
    low, high = ring[:, 1].min(), ring[:, 1].max()
    names = []
    for (x0, y0), (x1, y1) in zip(ring, ends, strict=True):
        level = abs(y1 - y0) < 1e-6
        on_path = abs(x0) < 1e-6 and abs(x1) < 1e-6
        names.append(
            back if on_path else g.FOOT if level and abs(y0 - low) < 1e-6
            else g.TOP if level and abs(y0 - high) < 1e-6 else face
        )  # fmt: skip
    return names


@piece("parapet", label="Parapet", takes="path")
def parapet(
    drawn: Drawn,
    *,
    length: Annotated[
        float, Length(300, 12000, least=1, most=1e6, help="Of a straight one; a path has its own.")
    ] = 3000.0,
    height: Annotated[
        float, Length(300, 1500, least=10, most=1e4, help="With its coping; 1100 guards a fall.")
    ] = 1100.0,
    thickness: Annotated[float, Length(80, 500, least=1, most=1e4, help="Of the wall below the coping.")] = 215.0,
    coping: Annotated[float, Length(0, 200, most=1000, help="Height of the coping; 0 is none.")] = 70.0,
    out: Annotated[float, Length(0, 120, most=1000, help="How far the coping stands out.")] = 40.0,
) -> Made:
    """A low wall along its path, weathered on top."""  # fmt: skip
    path, closed = path_of(drawn, length)
    half, cap = thickness / 2, min(coping, height / 3)
    body = rectangle(-half, 0, half, height - cap)
    meshes = [swept(body, path, closed=closed, names=[g.FOOT, g.FRONT, g.TOP, g.BACK])]
    if cap > 0:
        wide = half + out
        outline = np.array([[-wide, 0], [wide, 0], [wide, cap * 0.65], [0, cap], [-wide, cap * 0.65]])
        lifted = np.eye(4)
        lifted[2, 3] = height - cap
        meshes.append(swept(outline, path, closed=closed, names=[g.COPING] * 5, end=g.COPING).moved(lifted))
    return Made(joined(meshes), {"floor": 0.0, "top": height}, path=path, closed=closed)


@piece("tube", label="Tube", takes="path")
def tube(
    drawn: Drawn,
    *,
    diameter: Annotated[float, Length(5, 400, least=0.5, most=1e4, help="Across; a handrail has about 45.")] = 42.0,
    length: Annotated[
        float, Length(300, 12000, least=1, most=1e6, help="Of a straight one; a path has its own.")
    ] = 2000.0,
    bend: Annotated[float, Length(0, 600, most=1e4, help="Radius of the bends of its middle line.")] = 90.0,
    sides: Annotated[int, Whole(6, 48, most=128, help="How many flats it is made of.")] = 20,
) -> Made:
    """A round bar or pipe along its path."""  # fmt: skip
    path, closed = path_of(drawn, length)
    line = bent(path, bend, closed=closed)
    turns = np.linspace(0, 2 * math.pi, sides, endpoint=False)
    ring = np.stack([diameter / 2 * np.cos(turns), diameter / 2 * np.sin(turns)], 1)
    mesh = swept(ring, line, closed=closed, names=[g.SKIN] * sides, upright=False)
    return Made(_crease(mesh), {}, path=line, closed=closed)


def _crease(mesh: Mesh) -> Mesh:
    return Mesh(mesh.points, mesh.triangles, mesh.groups, mesh.names, mesh.unwrap, crease=62.0)


def bent(path: Vector, radius: float, *, closed: bool = False) -> Vector:
    """The path with its corners rounded by arcs of a radius, smaller where a stretch is too short."""
    if radius <= 0 or len(path) < 3:
        return path
    track = Track(path, closed=closed)
    points, d, lengths = track.points, track.directions, track.lengths
    inner = range(len(points) - 1) if closed else range(1, len(points) - 1)
    out = [] if closed else [points[:1]]
    for k in inner:
        before, after = d[k - 1], d[k]
        turn = math.acos(max(-1.0, min(1.0, float(before @ after))))
        if turn < 1e-3 or turn > math.pi - 1e-3:
            out.append(points[k : k + 1])
            continue
        cut = min(radius * math.tan(turn / 2), lengths[k - 1] / 2.001, lengths[k] / 2.001)
        out.append(_rounded(points[k], before, after, cut, turn))
    if not closed:
        out.append(points[-1:])
    return np.concatenate(out)


def _rounded(corner: Vector, before: Vector, after: Vector, cut: float, turn: float) -> Vector:
    radius = cut / math.tan(turn / 2)
    toward = (after - before) / np.linalg.norm(after - before)
    centre = corner + toward * (radius / math.cos(turn / 2))
    start = corner - cut * before - centre
    normal = np.cross(before, after)
    side = np.cross(normal / np.linalg.norm(normal), start)
    angles = np.linspace(0, turn, max(3, round(math.degrees(turn) / 9) + 1))[:, None]
    return np.asarray(centre + np.cos(angles) * start + np.sin(angles) * side)
