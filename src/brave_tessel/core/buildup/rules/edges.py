"""Covered on edges."""

from __future__ import annotations

from typing import Annotated

from ...operation import Field, Ground, Length, operation
from ...sheet import Grid
from ..where import SIGMAS, Radius, standing_out


@operation("where.edges", label="Edges", reach=lambda v: SIGMAS * v["radius"] / 2)
def edges(
    grid: Grid,
    ground: Ground,
    *,
    radius: Radius = 4.0,
    height: Annotated[
        float,
        Length(
            0.02,
            10,
            log=True,
            least=0.002,
            most=500,
            help="How far an edge stands over its neighbourhood where it is fully covered.",
        ),
    ] = 0.4,
    from_height: Annotated[
        float, Length(0, 5, least=-500, most=500, help="How far it must stand out to be covered at all.")
    ] = 0.05,
) -> Field:
    """Where the ground stands over its neighbourhood: what rubs off first."""
    return standing_out(ground, radius, grid, from_height, height)
