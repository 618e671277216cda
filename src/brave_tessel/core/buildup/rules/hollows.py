"""Covered in hollows."""

from __future__ import annotations

from typing import Annotated

from ...operation import Field, Ground, Length, operation
from ...sheet import Grid
from ..where import SIGMAS, Radius, standing_out


@operation("where.hollows", label="Hollows", reach=lambda v: SIGMAS * v["radius"] / 2)
def hollows(
    grid: Grid,
    ground: Ground,
    *,
    radius: Radius = 8.0,
    depth: Annotated[
        float,
        Length(
            0.05,
            10,
            log=True,
            least=0.005,
            most=500,
            help="How deep a hollow lies beneath its neighbourhood where it is fully covered.",
        ),
    ] = 0.6,
    from_depth: Annotated[
        float, Length(0, 5, least=-500, most=500, help="How deep a hollow must be to be covered at all.")
    ] = 0.0,
) -> Field:
    """Where the ground lies beneath its neighbourhood."""
    return standing_out(ground, radius, grid, from_depth, depth, hollow=True)
