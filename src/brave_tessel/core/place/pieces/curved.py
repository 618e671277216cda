"""Walls and benches on a curve in plan."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ...operation import Angle, Choice, Length
from .. import groups as g
from ..laying import Axis
from ..piece import Drawn, Handle, Made, piece
from ..solids import revolved, steps_for


@piece("curved_wall", label="Curved wall")
def curved_wall(
    _drawn: Drawn,
    *,
    radius: Annotated[float, Length(300, 12000, least=50, most=1e6, help="Of its front.")] = 2500.0,
    angle: Annotated[float, Angle(10, 360, help="How far round it goes.")] = 120.0,
    height: Annotated[float, Length(100, 6000, least=1, most=1e5, help="From foot to top.")] = 1100.0,
    thickness: Annotated[float, Length(50, 900, least=1, most=1e4, help="From front to back.")] = 240.0,
    front: Annotated[str, Choice("outside", "inside", help="The side that the radius is of.")] = "outside",
    nosing: Annotated[
        float, Length(0, 80, most=500, help="How far its top stands out at the front, as a seat or coping does.")
    ] = 0.0,
    bevel: Annotated[float, Length(0, 40, most=200, help="Width of its rounded upper edges.")] = 4.0,
) -> Made:
    """About the upright axis through its origin, from east round by north."""
    outer, inner = (radius, radius - thickness) if front == "outside" else (radius + thickness, radius)
    inner = max(inner, 1.0)
    outline, names = _section(outer, inner, height, nosing, bevel, front)
    sweep = math.radians(max(1.0, min(360.0, angle)))
    mesh = revolved(outline, count=steps_for(outer, sweep, chord=1.5), names=names, angle=sweep)
    handles = (
        Handle("radius", (radius, 0.0, height / 2), (1.0, 0.0, 0.0)),
        Handle("height", (radius, 0.0, height), (0.0, 0.0, 1.0)),
    )
    axis = Axis(np.zeros(3), np.array([0.0, 0.0, 1.0]), radius)
    return Made(mesh, {"floor": 0.0, "top": height}, axis, handles=handles)


def _section(
    outer: float, inner: float, height: float, nosing: float, bevel: float, front: str
) -> tuple[np.ndarray, list[str]]:  # type: ignore[type-arg]
    b = min(bevel, (outer - inner) / 3, height / 3)
    thick = min(60.0, height / 3)
    out, into = (nosing, 0.0) if front == "outside" else (0.0, nosing)
    faces = (g.FRONT, g.BACK) if front == "outside" else (g.BACK, g.FRONT)
    right = [(outer, 0.0, faces[0])]
    if out > 0:
        right += [(outer, height - thick, g.COPING), (outer + out, height - thick, g.COPING)]
    right += [(outer + out, height - b, g.COPING if out > 0 else faces[0]), (outer + out - b, height, g.TOP)]
    left = [(inner - into + b, height, g.COPING if into > 0 else faces[1]), (inner - into, height - b, faces[1])]
    if into > 0:
        left[-1] = (inner - into, height - b, g.COPING)
        left += [(inner - into, height - thick, g.COPING), (inner, height - thick, faces[1])]
    left.append((inner, 0.0, g.FOOT))
    points = [*right, *left, right[0]]
    # A name belongs to the stretch that begins at its point.
    return np.array([(x, y) for x, y, _ in points]), [name for *_, name in points[:-1]]
