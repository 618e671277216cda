"""A plain box, a ball, and a cloth."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ...operation import Angle, Fraction, Length, Seed
from .. import groups as g
from ..laying import Axis
from ..mesh import Mesh
from ..piece import Drawn, Handle, Made, piece
from ..solids import extruded, rectangle, revolved, steps_for


@piece("box", label="Box")
def box(
    _drawn: Drawn,
    *,
    width: Annotated[float, Length(50, 4000, log=True, least=0.1, most=1e6, help="Along x.")] = 1000.0,
    depth: Annotated[float, Length(50, 4000, log=True, least=0.1, most=1e6, help="Along y.")] = 1000.0,
    height: Annotated[float, Length(50, 4000, log=True, least=0.1, most=1e6, help="Upright.")] = 1000.0,
    bevel: Annotated[float, Length(0, 60, most=1000, help="Width of its rounded upper and lower edges.")] = 4.0,
) -> Made:
    """Standing on the floor, its near left corner at the origin."""
    mesh = extruded(
        [rectangle(0, 0, width, depth)], height, sides=[[g.FRONT, g.ENDS, g.BACK, g.ENDS]], front=g.TOP, back=g.FOOT,
        bevel=min(bevel, width / 4, depth / 4),
    )  # fmt: skip
    lifted = np.eye(4)
    lifted[2, 3] = height
    handles = (
        Handle("width", (width, depth / 2, height / 2), (1.0, 0.0, 0.0)),
        Handle("depth", (width / 2, depth, height / 2), (0.0, 1.0, 0.0)),
        Handle("height", (width / 2, depth / 2, height), (0.0, 0.0, 1.0)),
    )
    return Made(mesh.moved(lifted), {"top": height}, handles=handles)


@piece("ball", label="Ball")
def ball(
    _drawn: Drawn,
    *,
    diameter: Annotated[float, Length(20, 4000, log=True, least=0.1, most=1e6, help="Across.")] = 600.0,
) -> Made:
    """Lying on the floor."""
    radius = diameter / 2
    count = max(24, steps_for(radius, 2 * math.pi, chord=0.8))
    rises = np.linspace(-math.pi / 2, math.pi / 2, count // 2 + 1)
    outline = np.stack([radius * np.cos(rises), radius + radius * np.sin(rises)], 1)
    outline[0, 0] = outline[-1, 0] = 0.0
    mesh = revolved(outline, count=count, names=[g.SKIN] * (len(outline) - 1))
    axis = Axis(np.array([0.0, 0.0, radius]), np.array([0.0, 0.0, 1.0]), radius, "dome")
    return Made(mesh, {"top": diameter}, axis, handles=(Handle("diameter", (0.0, 0.0, diameter), (0.0, 0.0, 1.0)),))


@piece("cloth", label="Cloth")
def cloth(
    _drawn: Drawn,
    *,
    width: Annotated[float, Length(200, 4000, least=1, most=1e5, help="Along its upper edge.")] = 1400.0,
    drop: Annotated[float, Length(200, 4000, least=1, most=1e5, help="How far it hangs down.")] = 2000.0,
    folds: Annotated[float, Fraction(0, 24, most=200, help="How many folds it falls in.")] = 7.0,
    fullness: Annotated[float, Fraction(1, 3, least=1, most=4, help="Cloth to each length of the edge.")] = 1.5,
    gather: Annotated[float, Fraction(help="How far the folds open towards the foot.")] = 0.35,
    lean: Annotated[float, Angle(-60, 60, help="How far it leans from the upright.")] = 0.0,
    seed: Annotated[int, Seed()] = 1,
) -> Made:
    """A hanging cloth, its upper edge from the origin to the right; its unwrap is the cloth laid flat."""
    columns = int(min(400, max(40, folds * 28)))
    rows = 48
    mesh = _hung(width, drop, folds, fullness, gather, seed, (columns, rows))
    a = math.radians(lean)
    matrix = np.eye(4)
    matrix[1:3, 1:3] = [[math.cos(a), math.sin(a)], [-math.sin(a), math.cos(a)]]
    handles = (
        Handle("width", (width, 0.0, drop), (1.0, 0.0, 0.0)),
        Handle("drop", (width / 2, 0.0, drop), (0.0, 0.0, 1.0)),
    )
    return Made(mesh.moved(matrix), {"top": drop}, handles=handles)


def _hung(
    width: float, drop: float, folds: float, fullness: float, gather: float, seed: int, cells: tuple[int, int]
) -> Mesh:
    columns, rows = cells
    rng = np.random.default_rng(seed)
    u, v = np.meshgrid(np.linspace(0, 1, columns + 1), np.linspace(0, 1, rows + 1))
    pitch = width / max(folds, 0.5)
    # A sine of amplitude A and pitch p is longer than its chord by about (πA/p)²: fullness sets the depth of folds.
    deep = pitch / math.pi * math.sqrt(max(fullness - 1.0, 0.0)) * (1 - gather + gather * (1 - v))
    phase = 2 * math.pi * folds * u + 0.5 * np.sin(2 * math.pi * u * 1.7 + rng.uniform(0, 6)) * gather
    sway = 0.12 * pitch * np.sin(2 * math.pi * (u * folds * 0.37 + rng.uniform())) * (1 - v)
    y = deep * np.sin(phase) + sway
    points = np.stack([u * width, y, v * drop], -1)
    run = np.linalg.norm(np.diff(points, axis=1), axis=2).mean(0)
    along = np.concatenate([[0.0], np.cumsum(run)])
    flat = np.stack([np.broadcast_to(along, u.shape), v * drop], -1)
    thick = 1.2
    sheets = [points, points + [0.0, thick, 0.0]]
    index = np.arange(points.shape[0] * points.shape[1]).reshape(points.shape[:2])
    a, b, c, d = index[:-1, :-1], index[:-1, 1:], index[1:, 1:], index[1:, :-1]
    near = np.stack([a, b, c, a, c, d], -1).reshape(-1, 3)
    count = points.shape[0] * points.shape[1]
    edge = np.concatenate([index[0], index[1:, -1], index[-1, -2::-1], index[-2:0:-1, 0]])
    after = np.roll(edge, -1)
    rim = np.stack([edge, edge + count, after + count, edge, after + count, after], -1).reshape(-1, 3)
    triangles = np.concatenate([near, near[:, [0, 2, 1]] + count, rim]).astype(np.int32)
    laid = np.concatenate([flat.reshape(-1, 2), flat.reshape(-1, 2)])
    groups = np.repeat(np.array([0, 0, 1], np.int32), [len(near), len(near), len(rim)])
    return Mesh(
        np.concatenate([sheet.reshape(-1, 3) for sheet in sheets]), triangles, groups, (g.CLOTH, g.ENDS),
        laid[triangles], crease=70.0,
    )  # fmt: skip
