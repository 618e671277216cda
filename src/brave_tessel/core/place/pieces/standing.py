"""Things of known size: a standing figure, and objects that everybody knows."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Choice, Length
from .. import groups as g
from ..figure import CHILD_MM, FIGURE_MM, figure_mesh
from ..known import KNOWN
from ..piece import Drawn, Made, piece
from ..solids import extruded, rectangle, revolved


@piece("figure", label="Standing figure")
def figure(
    _drawn: Drawn,
    *,
    who: Annotated[
        str, Choice("grown-up", "child", "typed", help="1.75 m, 1.2 m, or as tall as is typed.")
    ] = "grown-up",
    height: Annotated[float, Length(800, 2100, least=100, most=3000, help="Where it is typed.")] = 1750.0,
) -> Made:
    """Stands on the floor at its origin and looks south: for scale only."""  # fmt: skip
    tall = {"grown-up": FIGURE_MM, "child": CHILD_MM}.get(who, height)
    return Made(figure_mesh(tall), {"eye": 0.94 * tall})


@piece("known", label="Known object")
def known(
    _drawn: Drawn,
    *,
    thing: Annotated[str, Choice(*KNOWN, help="Something whose size is a standard or a habit.")] = "door leaf",
) -> Made:
    """Stands or lies where its origin is, for scale."""
    wide, deep, tall = KNOWN[thing].size_mm
    if KNOWN[thing].round:
        outline = np.array([[0.0, 0.0], [wide / 2, 0.0], [wide / 2, tall], [0.0, tall]])
        mesh = revolved(outline, count=48, names=[g.FOOT, g.SIDE, g.TOP])
        return Made(mesh)
    lifted = np.eye(4)
    lifted[2, 3] = tall
    mesh = extruded(
        [rectangle(0, 0, wide, deep)], tall, sides=[[g.FRONT, g.ENDS, g.BACK, g.ENDS]], front=g.TOP, back=g.FOOT,
        bevel=min(1.0, deep / 10, tall / 10),
    ).moved(lifted)  # fmt: skip
    return Made(mesh)
