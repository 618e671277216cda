"""Laid on a part's plane."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Angle, Length, operation
from ..lay import Vertices, turned_about
from ..mesh import Vector


@operation("laying.flat", label="Flat")
def flat(
    vertices: Vertices,
    *,
    turn: Annotated[float, Angle(help="Turns the surface about the datum.")] = 0.0,
    across: Annotated[
        float, Length(-1000, 1000, least=-1e6, most=1e6, help="Shifts the surface along the wall.")
    ] = 0.0,
    up: Annotated[float, Length(-1000, 1000, least=-1e6, most=1e6, help="Shifts the surface up the wall.")] = 0.0,
) -> Vector:
    """Laid on the part's plane at true size, carried on round the corner."""
    frame = vertices.frame
    place = frame.coordinates(vertices.points)
    datum = frame.coordinates(vertices.datum[None])[0]
    from_along = vertices.datum_along if frame.unrolled else float(datum[0])
    place = place - np.array([from_along, datum[1]])
    return turned_about(place, turn, across, up)
