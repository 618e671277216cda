"""Ways to make a straight sheet close on itself, each declared once."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ..colour import encode_srgb, luminance
from ..errors import OutOfRangeError
from ..maps import MapKind, MapSet
from ..operation import Fraction, Length, operation
from ..sheet import Grid, Raster
from .cut import Cuts, close_maps, find_cuts


def sheet_cuts(maps: MapSet, *, overlap: float, colour: float, relief: float) -> Cuts:
    """The two best cuts through a set of flat maps; ``overlap`` in mm."""
    grid = maps.grid
    lap_x, lap_y = overlap / grid.width_mm, overlap / grid.height_mm
    if max(lap_x, lap_y) > 0.5:
        raise OutOfRangeError(
            "Overlap", value=f"{overlap:g} mm", allowed=f"up to {min(grid.width_mm, grid.height_mm) / 2:g} mm, half the sheet",
            remedy="Choose a smaller overlap.",
        )  # fmt: skip
    pictures: dict[MapKind, Raster] = {}
    if MapKind.BASE_COLOUR in maps:
        pictures[MapKind.BASE_COLOUR] = encode_srgb(np.clip(maps[MapKind.BASE_COLOUR], 0, 1)).astype(np.float32)
        pictures[MapKind.HEIGHT] = maps.maps.get(MapKind.HEIGHT, _detail(pictures[MapKind.BASE_COLOUR]))
    elif MapKind.HEIGHT in maps:
        pictures[MapKind.HEIGHT] = maps[MapKind.HEIGHT]
    weights = {MapKind.BASE_COLOUR: max(colour, 1e-3), MapKind.HEIGHT: relief}
    return find_cuts(pictures, weights, lap_x, lap_y)


def _detail(encoded: Raster) -> Raster:
    """Stand-in for relief where a sheet has none: its brightness."""
    return luminance(encoded)


@operation("mend.best_cut", label="Best cut")
def best_cut(
    grid: Grid, maps: MapSet, *,
    overlap: Annotated[float, Length(5, 300, log=True, least=0.1, help="Width in which the sheet's two sides lie over each other.")] = 48.0,
    soften: Annotated[float, Length(0, 20, least=0, most=200, help="Width over which the two sides mix at the cut.")] = 1.5,
    match_tone: Annotated[float, Fraction(help="How much of the slow difference between the sides is taken out.")] = 0.8,
    colour: Annotated[float, Fraction(help="How much colour counts when the cut is judged.")] = 0.6,
    relief: Annotated[float, Fraction(help="How much relief counts when the cut is judged.")] = 0.4,
) -> MapSet:  # fmt: skip
    """Follows gaps between stones: the sheet closes along the paths where its sides differ least.

    The repeat is smaller than the sheet by the overlap, both ways. All maps share the cut.
    """
    cuts = sheet_cuts(maps, overlap=overlap, colour=colour, relief=relief)
    return close_maps(maps, cuts, feather_mm=soften, match_tone=match_tone)
