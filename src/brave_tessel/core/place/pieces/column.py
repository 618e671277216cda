"""Columns, piers and pilasters."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ...operation import Choice, Fraction, Length
from .. import groups as g
from ..laying import Axis
from ..mesh import Mesh, joined
from ..piece import Drawn, Handle, Made, piece
from ..solids import extruded, rectangle, revolved, steps_for

ENTASIS_BELOW = 1 / 3
"""A shaft runs straight for its lower third and thins from there: common practice after Vignola."""


@piece("column", label="Column")
def column(
    _drawn: Drawn,
    *,
    height: Annotated[float, Length(500, 8000, least=10, most=1e5, help="Base and capital included.")] = 2700.0,
    diameter: Annotated[float, Length(100, 1200, least=10, most=1e4, help="Of the shaft at its foot.")] = 340.0,
    thinner: Annotated[float, Fraction(0, 0.3, help="How much the shaft thins towards its top.")] = 0.14,
    base: Annotated[str, Choice("none", "plain", "rounded", help="What the shaft stands on.")] = "rounded",
    capital: Annotated[str, Choice("none", "plain", "rounded", help="What the shaft carries.")] = "rounded",
) -> Made:
    """Round, standing on the floor at its origin."""
    radius = diameter / 2
    foot = min(radius, height / 5) if base != "none" else 0.0
    head = min(radius * 0.9, height / 5) if capital != "none" else 0.0
    count = max(32, steps_for(radius, 2 * math.pi, chord=0.6))
    shaft = _shaft(radius, foot, height - head, thinner)
    meshes = [revolved(shaft, count=count, names=[g.SHAFT] * (len(shaft) - 1))]
    top = radius * (1 - thinner)
    if foot:
        meshes += _end(radius, foot, base, g.BASE, count)
    if head:
        flip = np.diag([1.0, 1.0, -1.0, 1.0])
        flip[2, 3] = height
        meshes += [part.moved(flip) for part in _end(top, head, capital, g.CAPITAL, count)]
    axis = Axis(np.zeros(3), np.array([0.0, 0.0, 1.0]), radius)
    handles = (
        Handle("height", (0.0, 0.0, height), (0.0, 0.0, 1.0)),
        Handle("diameter", (radius, 0.0, height / 2), (1.0, 0.0, 0.0), 0.5),
    )
    return Made(joined(meshes), {"floor": 0.0, "top": height}, axis, handles=handles)


def _shaft(radius: float, low: float, high: float, thinner: float) -> np.ndarray:  # type: ignore[type-arg]
    shares = np.linspace(0, 1, 13)
    over = np.clip((shares - ENTASIS_BELOW) / (1 - ENTASIS_BELOW), 0, 1)
    radii = radius * (1 - thinner * over**1.6)
    line = np.stack([radii, low + shares * (high - low)], 1)
    return np.concatenate([[[0.0, low]], line, [[0.0, high]]])


def _end(radius: float, tall: float, shape: str, name: str, count: int) -> list[Mesh]:
    """A square plinth and what is between it and the shaft, from the floor up."""
    wide = radius * 1.36
    plinth = tall * (0.42 if shape == "rounded" else 1.0)
    square = extruded(
        [rectangle(-wide, -wide, wide, wide)], plinth, sides=[[name] * 4], front=name, back=g.FOOT, bevel=4.0
    )  # fmt: skip
    lifted = np.eye(4)
    lifted[2, 3] = plinth
    if shape != "rounded":
        return [square.moved(lifted)]
    torus = 0.62 * (tall - plinth)
    bulge = torus / 2
    turns = np.linspace(-math.pi / 2, math.pi / 2, 13)
    outer = radius * 1.3 - bulge
    ring = np.stack([outer + bulge * np.cos(turns), plinth + bulge + bulge * np.sin(turns)], 1)
    fillet = [[radius * 1.12, plinth + torus], [radius * 1.12, tall - 0.02 * radius], [radius * 1.1, tall]]
    line = np.concatenate([[[0.0, plinth]], ring, fillet, [[0.0, tall]]])
    return [square.moved(lifted), revolved(line, count=count, names=[name] * (len(line) - 1))]


@piece("pier", label="Pier")
def pier(
    _drawn: Drawn,
    *,
    width: Annotated[float, Length(100, 1500, least=1, most=1e4, help="Along x.")] = 440.0,
    depth: Annotated[float, Length(100, 1500, least=1, most=1e4, help="Along y.")] = 440.0,
    height: Annotated[float, Length(300, 6000, least=10, most=1e5, help="From foot to top.")] = 2700.0,
    plinth: Annotated[float, Length(0, 600, most=1e4, help="Height of a wider foot; 0 is none.")] = 150.0,
    cap: Annotated[float, Length(0, 400, most=1e4, help="Height of a wider head; 0 is none.")] = 90.0,
    out: Annotated[float, Length(0, 120, most=1000, help="How far foot and head stand out.")] = 25.0,
    bevel: Annotated[float, Length(0, 40, most=200, help="Width of its rounded edges.")] = 5.0,
) -> Made:
    """Square, free-standing, its middle at the origin."""
    mesh = _square((-width / 2, -depth / 2, width / 2, depth / 2), height, (plinth, cap, out), bevel, all_round=True)
    handles = (
        Handle("width", (width / 2, 0.0, height / 2), (1.0, 0.0, 0.0), 0.5),
        Handle("depth", (0.0, depth / 2, height / 2), (0.0, 1.0, 0.0), 0.5),
        Handle("height", (0.0, 0.0, height), (0.0, 0.0, 1.0)),
    )
    return Made(mesh, {"floor": 0.0, "top": height}, handles=handles)


@piece("pilaster", label="Pilaster")
def pilaster(
    _drawn: Drawn,
    *,
    width: Annotated[float, Length(100, 1200, least=1, most=1e4, help="Along the wall.")] = 380.0,
    out: Annotated[float, Length(20, 400, least=1, most=1e4, help="How far it stands out of the wall.")] = 90.0,
    height: Annotated[float, Length(300, 6000, least=10, most=1e5, help="From foot to top.")] = 2700.0,
    plinth: Annotated[float, Length(0, 600, most=1e4, help="Height of a wider foot; 0 is none.")] = 150.0,
    cap: Annotated[float, Length(0, 400, most=1e4, help="Height of a wider head; 0 is none.")] = 90.0,
    bevel: Annotated[float, Length(0, 40, most=200, help="Width of its rounded edges.")] = 4.0,
) -> Made:
    """A flat pier against a wall that stands at y = 0, its middle at the origin."""
    mesh = _square((-width / 2, -out, width / 2, 0.0), height, (plinth, cap, min(20.0, out / 2)), bevel,
                   all_round=False)  # fmt: skip
    handles = (
        Handle("width", (width / 2, -out, height / 2), (1.0, 0.0, 0.0), 0.5),
        Handle("out", (0.0, -out, height / 2), (0.0, -1.0, 0.0)),
        Handle("height", (0.0, -out, height), (0.0, 0.0, 1.0)),
    )
    return Made(mesh, {"floor": 0.0, "top": height}, handles=handles)


def _square(
    box: tuple[float, float, float, float], height: float, ends: tuple[float, float, float], bevel: float, *,
    all_round: bool,
) -> Mesh:  # fmt: skip
    """A shaft on a square with a wider foot and head; at a wall they stand out on three sides only."""
    left, low, right, high = box
    plinth, cap, out = ends
    foot, head = (min(tall, height / 3) for tall in (plinth, cap))
    back = out if all_round else 0.0
    wide = (left - out, low - out, right + out, high + back)
    meshes = []
    for (a, b, c, d), start, end, name in (
        (wide, 0.0, foot, g.BASE), (box, foot, height - head, g.SHAFT), (wide, height - head, height, g.CAPITAL),
    ):  # fmt: skip
        if end - start < 0.01:
            continue
        lifted = np.eye(4)
        lifted[2, 3] = end
        b_, size = rectangle(a, b, c, d), min(bevel, (end - start) / 4)
        meshes.append(extruded([b_], end - start, sides=[[name] * 4], front=name, back=name, bevel=size).moved(lifted))
    return joined(meshes)
