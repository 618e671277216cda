"""Laid on each face from the side it looks to."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Angle, Length, operation
from ..lay import Vertices, turned_about
from ..mesh import Vector


@operation("laying.box", label="Box")
def box(
    vertices: Vertices,
    *,
    turn: Annotated[float, Angle(help="Turns the surface about the datum.")] = 0.0,
    across: Annotated[
        float, Length(-1000, 1000, least=-1e6, most=1e6, help="Shifts the surface along each face.")
    ] = 0.0,
    up: Annotated[float, Length(-1000, 1000, least=-1e6, most=1e6, help="Shifts the surface up each face.")] = 0.0,
) -> Vector:
    """Each face takes the surface from the side it looks to, at true size."""
    away = vertices.points - vertices.datum
    n = vertices.normals
    side = np.abs(n).argmax(1)
    x, y, z = away.T
    sign = np.where(n[np.arange(len(n)), side] >= 0, 1.0, -1.0)
    along = np.choose(side, [-z * sign, x, x * sign])
    rise = np.choose(side, [y, -z * sign, y])
    return turned_about(np.stack([along, rise], 1), turn, across, up)
