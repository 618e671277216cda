"""Floors, slabs and ceilings."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Length
from .. import groups as g
from ..mesh import Mesh
from ..piece import Drawn, Handle, Made, piece
from ..solids import Ring, extruded, rectangle, turned

Side = Annotated[float, Length(500, 12000, least=1, most=1e6, help="Of a rectangle; a drawn outline has its own.")]


@piece("floor", label="Floor or slab", takes="path")
def floor(
    drawn: Drawn,
    *,
    width: Annotated[
        float, Length(500, 12000, least=1, most=1e6, help="Along x; a drawn outline has its own.")
    ] = 4000.0,
    depth: Annotated[
        float, Length(500, 12000, least=1, most=1e6, help="Along y; a drawn outline has its own.")
    ] = 3000.0,
    thickness: Annotated[float, Length(20, 400, least=0.5, most=1e4, help="Below its surface.")] = 150.0,
    bevel: Annotated[float, Length(0, 40, most=200, help="Width of its rounded edges.")] = 0.0,
) -> Made:
    """A slab whose surface is at the height of its origin, over a rectangle or a drawn outline."""  # fmt: skip
    mesh = _slab(_outline(drawn, width, depth), thickness, bevel)
    return Made(mesh, {"floor": 0.0}, handles=_handles(drawn, width, depth))


@piece("ceiling", label="Ceiling", takes="path")
def ceiling(
    drawn: Drawn,
    *,
    width: Annotated[
        float, Length(500, 12000, least=1, most=1e6, help="Along x; a drawn outline has its own.")
    ] = 4000.0,
    depth: Annotated[
        float, Length(500, 12000, least=1, most=1e6, help="Along y; a drawn outline has its own.")
    ] = 3000.0,
    thickness: Annotated[float, Length(20, 400, least=0.5, most=1e4, help="Above its underside.")] = 150.0,
) -> Made:
    """A slab whose underside is at the height of its origin."""  # fmt: skip
    lifted = np.eye(4)
    lifted[2, 3] = thickness
    mesh = _slab(_outline(drawn, width, depth), thickness, 0.0).moved(lifted)
    return Made(mesh, {"ceiling": 0.0}, handles=_handles(drawn, width, depth))


def _outline(drawn: Drawn, width: float, depth: float) -> Ring:
    if len(drawn.path) >= 3:
        return turned(np.array(drawn.path)[:, :2], anticlockwise=True)
    return rectangle(0, 0, width, depth)


def _slab(outline: Ring, thickness: float, bevel: float) -> Mesh:
    return extruded(
        [outline], thickness, sides=[[g.ENDS] * len(outline)], front=g.TOP, back=g.SOFFIT, bevel=bevel
    )  # fmt: skip


def _handles(drawn: Drawn, width: float, depth: float) -> tuple[Handle, ...]:
    if len(drawn.path) >= 3:
        return ()
    return (
        Handle("width", (width, depth / 2, 0.0), (1.0, 0.0, 0.0)),
        Handle("depth", (width / 2, depth, 0.0), (0.0, 1.0, 0.0)),
    )
