"""Standing water, and what water does to a surface."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated

import numpy as np

from ..colour import hex_to_linear
from ..kernels.water import EXTERNAL, INTERNAL, Body, flood
from ..maps import MapKind, MapSet
from ..operation import Fraction, Length, Paint, Seed, called, settings
from ..recipe.steps.noise import clouds
from ..sheet import Grid, Raster
from .mixing import finish_onto
from .seat import left_open
from .stack import Stack


def wetted(colour: Raster) -> Raster:
    """Base colour of a porous material when wet: the light under a film of water is partly sent back into it.

    Ångström 1925; Lekner and Dorf 1988, Applied Optics 27, 1278: A_wet = 1 − (1 − R) a / (1 − p (1 − a)), a = 1 −
    A_dry. The reflection of the water's own surface is left out: the roughness shows that.
    """
    dry = np.clip(colour, 0, 1)
    absorbed = 1 - dry
    wet = 1 - np.float32(1 - EXTERNAL) * absorbed / (1 - np.float32(INTERNAL) * dry)
    return np.asarray(np.clip(wet - np.float32(EXTERNAL), 0, 1), np.float32)


@settings("water.standing", label="Standing water")
@dataclass(frozen=True, slots=True)
class Standing:
    """Water up to a level in mm; see :func:`stand`."""

    level: Annotated[float, Length(-20, 20, least=-1000, most=1000, help="Height of its surface.")] = -1.0
    clear: Annotated[
        float,
        called(
            "Visibility depth",
            Length(
                1,
                500,
                log=True,
                least=0.05,
                most=1e5,
                help="Depth at which two thirds of what lies in it are hidden by its colour.",
            ),
        ),
    ] = 40.0
    colour: Annotated[str, Paint(help="Its colour where it is deep.")] = "#3C4A42"
    ripple: Annotated[float, Length(0, 2, least=0, most=100, help="Height of ripples.")] = 0.0
    ripple_size: Annotated[float, Length(2, 400, log=True, least=0.2, help="Ripples, crest to crest.")] = 40.0
    damp: Annotated[float, Length(0, 20, least=0, most=500, help="How high above the water the ground is damp.")] = 1.5
    porosity: Annotated[float, Fraction(help="How far the damp ground drinks: darker and smoother with it.")] = 0.7
    roughness: Annotated[float, Fraction(help="Roughness of the water's surface.")] = 0.03
    seed: Annotated[int, Seed()] = 1


def rippled(grid: Grid, water: Standing) -> Raster:
    """The water's surface, (H, W), mm."""
    surface = np.full(grid.shape, water.level, np.float32)
    if water.ripple > 0:
        waves = clouds(grid, size=water.ripple_size, octaves=3, gain=0.45, seed=water.seed)
        surface += np.float32(2 * water.ripple) * (waves - np.float32(0.5))
    return surface


def stand(below: Stack, water: Standing, coverage: Raster | None = None, surface: Raster | None = None) -> Stack:
    """A stack with water standing in it: flat, smooth, tinted by its depth; the ground in it and just above it is wet.

    What it hides grows with depth as exp(−2.2 depth / clear) (Beer and Lambert: the light passes it twice). Wetness
    falls from 1 at the water to 0 at ``damp`` above it, times porosity. Metal does not drink. ``coverage`` (H, W) is
    where it may stand, ``surface`` (H, W) in mm its surface where that is known already (:func:`rippled`).
    """
    grid = below.grid
    if surface is None:
        surface = rippled(grid, water)
    cover = np.ones(grid.shape, np.float32) if coverage is None else np.ascontiguousarray(coverage, np.float32)
    # The waterline is as sharp as a pixel's share of the slope lets it be.
    film_mm = max(0.02, 0.15 * grid.pitch_mm)
    paint = hex_to_linear(water.colour)
    body = Body(paint, film_mm, water.damp, water.porosity, water.clear, water.roughness)
    planes, share, depth = flood(below.planes, surface, cover, body)
    number = below.layers + 1
    shows = share >= 0.5
    return replace(
        below,
        planes=planes,
        top=np.where(shows, np.uint8(number), below.top).astype(np.uint8),
        margin=np.where(shows, depth, below.margin).astype(np.float32),
        share=share,
        layers=number,
        detail=None if below.detail is None else np.asarray(below.detail * (1 - share[..., None]), np.float32),
        shade=None if below.shade is None else np.asarray(below.shade + share * (1 - below.shade), np.float32),
        water=np.asarray(depth * share, np.float32),
        finish=finish_onto(below.finish, MapSet(grid, {MapKind.BASE_COLOUR: planes[0]}), share, {}),
        open=left_open(below, share),
    )
