"""Vaults and domes."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ...operation import Choice, Length
from .. import groups as g
from ..laying import Axis
from ..mesh import Mesh, welded
from ..piece import Drawn, Handle, Made, piece
from ..solids import extruded, in_space, inset, revolved, steps_for, turned
from ..spans import head_of, segment_radius


@piece("vault", label="Barrel vault")
def vault(
    _drawn: Drawn,
    *,
    span: Annotated[float, Length(500, 9000, least=10, most=1e5, help="Between its springings.")] = 3000.0,
    length: Annotated[float, Length(300, 12000, least=1, most=1e6, help="Along its axis.")] = 4000.0,
    shape: Annotated[str, Choice("round", "segmental", "pointed", help="The curve of its soffit.")] = "round",
    rise: Annotated[float, Length(100, 4000, least=0.1, most=1e5, help="Of a segmental or pointed vault.")] = 900.0,
    thickness: Annotated[float, Length(50, 500, least=1, most=1e4, help="Of its shell.")] = 120.0,
) -> Made:
    """Springing at the height of its origin, its axis running north from the middle of its near edge."""  # fmt: skip
    inner = head_of(span, rise, shape, chord=1.5)
    moved = inset(turned(inner, anticlockwise=True), -thickness)
    moved[0], moved[-1] = inner[0] + [thickness, 0], inner[-1] - [thickness, 0]
    count = len(inner)
    outline = turned(np.concatenate([moved, inner[::-1]]), anticlockwise=True)
    names = [*[g.BACK] * (count - 1), g.FOOT, *[g.VAULT] * (count - 1), g.FOOT]
    mesh = in_space(
        extruded([outline], length, sides=[names], front=g.ENDS, back=g.ENDS), np.array([1.0, 0, 0]),
        np.array([0, 0, 1.0]),
    )  # fmt: skip
    crown = float(inner[:, 1].max())
    radius = segment_radius(span, min(rise, span / 2)) if shape == "segmental" else span / 2
    axis = Axis(np.array([0.0, 0.0, crown - radius]), np.array([0.0, 1.0, 0.0]), radius)
    path = np.stack([inner[::-1, 0], np.zeros(count), inner[::-1, 1]], 1)
    handles = (
        Handle("span", (span / 2, 0.0, 0.0), (1.0, 0.0, 0.0), 0.5),
        Handle("length", (0.0, length, 0.0), (0.0, 1.0, 0.0)),
    )
    return Made(mesh, {"springing": 0.0, "crown": crown}, axis, path, handles=handles)


@piece("groin", label="Groin vault")
def groin(
    _drawn: Drawn,
    *,
    span: Annotated[float, Length(500, 9000, least=10, most=1e5, help="Of the bay, along x.")] = 3000.0,
    depth: Annotated[float, Length(500, 9000, least=10, most=1e5, help="Of the bay, along y.")] = 3000.0,
    rise: Annotated[float, Length(100, 4500, least=1, most=1e5, help="From springing to crown.")] = 1500.0,
    thickness: Annotated[float, Length(50, 500, least=1, most=1e4, help="Of its shell at the crown.")] = 120.0,
) -> Made:
    """Two barrels that cross over a bay, springing from its four corners; the bay's middle is at the origin."""
    mesh = _groin(span, depth, rise, thickness)
    handles = (
        Handle("span", (span / 2, 0.0, 0.0), (1.0, 0.0, 0.0), 0.5),
        Handle("depth", (0.0, depth / 2, 0.0), (0.0, 1.0, 0.0), 0.5),
        Handle("rise", (0.0, 0.0, rise), (0.0, 0.0, 1.0)),
    )
    return Made(mesh, {"springing": 0.0, "crown": rise}, handles=handles)


def _groin(span: float, depth: float, rise: float, thickness: float) -> Mesh:
    """Each quarter is a part of one barrel; a square grid in the bay, cut along its diagonals."""
    count = 2 * steps_for(span / 2, math.pi / 2, chord=2.0)
    t = np.sin(np.linspace(-math.pi / 2, math.pi / 2, count + 1))
    u, v = np.meshgrid(t, t)
    # Over a point the higher barrel of the two is the lower soffit: the vault is their union seen from below.
    one, other = (rise * np.sqrt(np.maximum(0.0, 1 - w * w)) for w in (u, v))
    z = np.maximum(one, other)
    points = np.stack([u * span / 2, v * depth / 2, z], -1)
    index = np.arange((count + 1) ** 2).reshape(count + 1, count + 1)
    a, b, c, d = index[:-1, :-1], index[:-1, 1:], index[1:, 1:], index[1:, :-1]
    falling = np.add.outer(np.arange(count), np.arange(count)) == count - 1
    rising = np.eye(count, dtype=bool)
    quarter = (np.arange(count) < count // 2)[:, None] == (np.arange(count) < count // 2)[None, :]
    cut_falling = falling | (~rising & ~quarter)
    first = np.where(cut_falling[..., None], np.stack([a, b, d], -1), np.stack([a, b, c], -1)).reshape(-1, 3)
    second = np.where(cut_falling[..., None], np.stack([b, c, d], -1), np.stack([a, c, d], -1)).reshape(-1, 3)
    over = np.concatenate([first, second])
    total = (count + 1) ** 2
    flat = points.reshape(-1, 3)
    edge = np.concatenate([index[0], index[1:, -1], index[-1, -2::-1], index[-2:0:-1, 0]])
    after = np.roll(edge, -1)
    rim = np.stack([edge, after, after + total, edge, after + total, edge + total], -1).reshape(-1, 3)
    triangles = np.concatenate([over[:, [0, 2, 1]], over + total, rim]).astype(np.int32)
    groups = np.repeat(np.array([0, 1, 2], np.int32), [len(over), len(over), len(rim)])
    both = np.concatenate([flat, flat + [0.0, 0.0, thickness]])
    return welded(Mesh(both, triangles, groups, (g.VAULT, g.BACK, g.ENDS), crease=25.0))


@piece("dome", label="Dome")
def dome(
    _drawn: Drawn,
    *,
    span: Annotated[float, Length(500, 12000, least=10, most=1e5, help="Across its springing.")] = 4000.0,
    rise: Annotated[float, Length(100, 6000, least=1, most=1e5, help="From springing to crown.")] = 2000.0,
    thickness: Annotated[float, Length(50, 500, least=1, most=1e4, help="Of its shell.")] = 120.0,
    eye: Annotated[float, Length(0, 2000, most=1e5, help="Width of the round opening at its crown; 0 is none.")] = 0.0,
) -> Made:
    """Springing at the height of its origin, its axis through it."""
    rise = min(rise, span / 2)
    radius = segment_radius(span, rise)
    centre = rise - radius
    eye = min(eye, 0.9 * span)
    inner, outer = (_meridian(r, centre, eye) for r in (radius, radius + thickness))
    closed = eye <= 0
    outline = np.concatenate([outer, inner[::-1], outer[:1]])
    names = [*[g.BACK] * (len(outer) - 1), g.REVEAL, *[g.DOME] * (len(inner) - 1), g.FOOT]
    if closed:
        outline[len(outer) - 1, 0] = outline[len(outer), 0] = 0.0
    mesh = revolved(outline, count=max(32, steps_for(radius, 2 * math.pi, chord=2.0)), names=names)
    axis = Axis(np.array([0.0, 0.0, centre]), np.array([0.0, 0.0, 1.0]), radius, "dome")
    handles = (
        Handle("span", (span / 2, 0.0, 0.0), (1.0, 0.0, 0.0), 0.5),
        Handle("rise", (0.0, 0.0, rise), (0.0, 0.0, 1.0)),
    )
    return Made(mesh, {"springing": 0.0, "crown": rise}, axis, handles=handles)


def _meridian(radius: float, centre: float, eye: float) -> np.ndarray:  # type: ignore[type-arg]
    start = math.asin(max(-1.0, min(1.0, -centre / radius)))
    end = math.acos(min(1.0, eye / 2 / radius)) if eye > 0 else math.pi / 2
    turns = np.linspace(start, end, max(10, steps_for(radius, end - start, chord=2.0)) + 1)
    return np.stack([radius * np.cos(turns), centre + radius * np.sin(turns)], 1)
