"""Inscriptions: lettering and drawn shapes cut into, or raised from, what lies beneath."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ..colour import hex_to_linear
from ..maps import MapKind, MapSet, plain
from ..operation import Choice, Fraction, Length, Paint, operation
from ..outlines import Outline, inside_of
from ..relief.wrapped_blur import wrapped_gaussian
from ..sheet import Grid, Raster

PROFILES = ("v-cut", "round", "flat", "raised", "beaded")


@operation("inscription.cut", label="Profile")
def cut(
    grid: Grid,
    letters: Outline,
    *,
    profile: Annotated[
        str,
        Choice(
            *PROFILES, help="V-cut, round-bottomed, flat with a chamfer; raised with a chamfer, or raised and round."
        ),
    ] = "v-cut",
    depth: Annotated[
        float,
        Length(0.1, 20, log=True, least=0.005, most=500, help="How deep it is cut at most, or how high it stands."),
    ] = 3.0,
    width: Annotated[
        float,
        Length(0.1, 40, log=True, least=0.01, most=2000, help="How wide the sloping part is, from the edge inward."),
    ] = 4.0,
    soften: Annotated[float, Length(0, 5, least=0, most=100, help="How far its arrises are worn round.")] = 0.0,
    colour: Annotated[str, Paint(help="Colour of what is cut, where it is painted.")] = "#2A2A28",
    painted: Annotated[float, Fraction(help="How far the cut is painted.")] = 0.0,
    roughness: Annotated[float, Fraction(help="Roughness of what is cut, where it is painted.")] = 0.5,
) -> MapSet:
    """Relief of an outline in mm about the ground it is cut in; opacity where it changes anything.

    The v of letters narrower than twice the width is less deep, as the chisel makes it.
    """
    inside = inside_of(letters, grid, reach_mm=width + 4 * grid.pitch_mm + 2 * soften)
    t = np.clip(inside / np.float32(width), 0, 1)
    if profile in {"round", "beaded"}:
        t = np.sqrt(np.maximum(1 - (1 - t) ** 2, 0))
    relief = np.float32(depth) * t
    if profile in {"v-cut", "round", "flat"}:
        relief = -relief
    if soften > 0:
        relief = wrapped_gaussian(np.asarray(relief, np.float32), soften / 2, grid)
    cover = np.clip((inside + np.float32(soften)) / np.float32(grid.pitch_mm) + np.float32(0.5), 0, 1)
    maps: dict[MapKind, Raster] = {
        MapKind.HEIGHT: np.asarray(relief, np.float32),
        MapKind.OPACITY: np.asarray(cover, np.float32),
    }
    if painted > 0:
        maps[MapKind.BASE_COLOUR] = np.ascontiguousarray(plain(grid, hex_to_linear(colour)))
        maps[MapKind.ROUGHNESS] = np.full(grid.shape, roughness, np.float32)
    return MapSet(grid, maps)
