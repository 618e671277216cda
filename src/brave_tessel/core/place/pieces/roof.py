"""Roofs: gabled, hipped and pavilion, their slopes true planes."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ...operation import Angle, Choice, Length
from .. import groups as g
from ..mesh import Mesh
from ..piece import Drawn, Handle, Made, piece
from ..solids import polyhedron


@piece("roof", label="Roof")
def roof(
    _drawn: Drawn,
    *,
    width: Annotated[float, Length(1000, 20000, least=100, most=1e6, help="Along x, over the walls.")] = 6000.0,
    depth: Annotated[float, Length(1000, 20000, least=100, most=1e6, help="Along y, over the walls.")] = 4500.0,
    shape: Annotated[
        str, Choice("gabled", "hipped", "pavilion", help="Two slopes with gables, four to a ridge, or four to a point.")
    ] = "gabled",
    pitch: Annotated[float, Angle(5, 70, help="Of the slopes against level ground.")] = 35.0,
    eaves: Annotated[float, Length(0, 900, most=1e4, help="How far it stands out over the walls.")] = 300.0,
    thickness: Annotated[float, Length(20, 400, least=1, most=1e4, help="Square to the slope.")] = 120.0,
    ridge: Annotated[str, Choice("along x", "along y", help="Which way the ridge runs.")] = "along x",
) -> Made:
    """Over walls from the origin; its underside meets the outer edge of their tops at the height of its origin."""
    turned = ridge == "along y" and shape != "pavilion"
    long, short = (depth, width) if turned else (width, depth)
    mesh, top = _roof(long, short, shape, math.radians(pitch), eaves, thickness)
    matrix = np.eye(4)
    if turned:
        matrix[:2, :2] = [[0.0, -1.0], [1.0, 0.0]]
        matrix[0, 3] = width
    handles = (
        Handle("width", (width, depth / 2, 0.0), (1.0, 0.0, 0.0)),
        Handle("depth", (width / 2, depth, 0.0), (0.0, 1.0, 0.0)),
    )
    low = -eaves * math.tan(math.radians(pitch))
    return Made(mesh.moved(matrix), {"eaves": low, "ridge": top}, handles=handles)


def _roof(long: float, short: float, shape: str, pitch: float, out: float, thick: float) -> tuple[Mesh, float]:
    """Underside and upper side over the same lines, the upper one lifted so that the slab is ``thick`` square to its
    slope; at the eaves and verges it is cut upright.
    """
    rise = math.tan(pitch)
    upright = thick / math.cos(pitch)
    x0, x1, y0, y1 = -out, long + out, -out, short + out
    half = (y1 - y0) / 2
    low, crown = -out * rise, -out * rise + half * rise
    if shape == "pavilion" and (x1 - x0) < (y1 - y0):
        half = (x1 - x0) / 2
        crown = low + half * rise
    hip = {"gabled": 0.0, "hipped": min(half, (x1 - x0) / 2)}.get(shape, (x1 - x0) / 2)
    middle = (y0 + y1) / 2
    corners = [[x0, y0, low], [x1, y0, low], [x1, y1, low], [x0, y1, low]]
    ends = [[x0 + hip, middle, crown], [x1 - hip, middle, crown]]
    under = np.array(corners + ends)
    points = np.concatenate([under, under + [0.0, 0.0, upright]])
    names = (g.SLOPE, g.HIP)
    sides: list[tuple[str, tuple[int, ...]]] = [(names[0], (0, 1, 5, 4)), (names[0], (2, 3, 4, 5))]
    if shape != "gabled":
        sides += [(names[1], (1, 2, 5)), (names[1], (3, 0, 4))]
    if hip >= (x1 - x0) / 2 - 1e-6:
        sides = [(name, tuple(dict.fromkeys(4 if k == 5 else k for k in face))) for name, face in sides]
    upper = [(name, tuple(k + 6 for k in face)) for name, face in sides]
    lower = [(g.SOFFIT, tuple(reversed(face))) for _, face in sides]
    rim = [(g.EAVES, (0, 1, 7, 6)), (g.EAVES, (2, 3, 9, 8))]
    if shape == "gabled":
        rim += [(g.VERGE, (1, 5, 11, 7)), (g.VERGE, (5, 2, 8, 11)), (g.VERGE, (3, 4, 10, 9)), (g.VERGE, (4, 0, 6, 10))]
    else:
        rim += [(g.EAVES, (1, 2, 8, 7)), (g.EAVES, (3, 0, 6, 9))]
    return polyhedron(points, [*upper, *lower, *rim]), crown + upright
