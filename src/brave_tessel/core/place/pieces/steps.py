"""A flight of steps."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Length, Whole
from .. import groups as g
from ..piece import Drawn, Handle, Made, piece
from ..solids import extruded, turned


@piece("steps", label="Steps")
def steps(
    _drawn: Drawn,
    *,
    width: Annotated[float, Length(300, 4000, least=10, most=1e5, help="From side to side.")] = 1800.0,
    rise: Annotated[
        float, Length(100, 220, least=1, most=1000, help="Of one step; 150 to 170 where everybody goes.")
    ] = 160.0,
    going: Annotated[float, Length(200, 450, least=10, most=5000, help="Of one step, from edge to edge.")] = 300.0,
    count: Annotated[int, Whole(1, 24, most=200, help="How many rises.")] = 4,
    nosing: Annotated[float, Length(0, 40, most=100, help="How far treads stand out over their risers.")] = 0.0,
    bevel: Annotated[float, Length(0, 20, most=60, help="Width of the rounded edges at the sides.")] = 3.0,
) -> Made:
    """Rising to the north from the origin; the upper landing is as deep as one going."""
    points: list[tuple[float, float]] = [(0.0, 0.0), (count * going, 0.0), (count * going, count * rise)]
    names = [g.FOOT, g.BACK]
    nose, thick = min(nosing, going / 3), min(40.0, rise / 2)
    for k in range(count, 0, -1):
        x, high = (k - 1) * going, k * rise
        if nose > 0:
            points += [(x - nose, high), (x - nose, high - thick), (x, high - thick), (x, high - rise)]
            names += [g.TREAD, g.RISER, g.RISER, g.RISER]
        else:
            points += [(x, high), (x, high - rise)]
            names += [g.TREAD, g.RISER]
    ring = np.array(points)[:-1]
    mesh = extruded(
        [turned(ring, anticlockwise=True)], width, sides=[names], front=g.SIDE, back=g.SIDE, bevel=bevel
    )  # fmt: skip
    # The profile runs north; its depth is the width, from the near side at x = width back to x = 0.
    matrix = np.eye(4)
    matrix[:3, 0], matrix[:3, 1], matrix[:3, 2] = (0.0, 1.0, 0.0), (0.0, 0.0, 1.0), (1.0, 0.0, 0.0)
    matrix[:3, 3] = (width, 0.0, 0.0)
    handles = (
        Handle("width", (width, going * count / 2, rise * count / 2), (1.0, 0.0, 0.0)),
        Handle("rise", (width / 2, 0.0, rise), (0.0, 0.0, 1.0)),
        Handle("going", (width / 2, going, rise), (0.0, 1.0, 0.0)),
    )
    return Made(mesh.moved(matrix), {"floor": 0.0, "landing": count * rise}, handles=handles)
