"""Standing water, and what water does to a surface."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated

import numpy as np

from ..colour import hex_to_linear
from ..kernels.unit_vectors import to_unit
from ..kernels.water import EXTERNAL, INTERNAL, Body, flood, soak
from ..lattice import earlier_hash
from ..maps import MapKind, MapSet
from ..operation import Fraction, Length, Paint, Seed, called, settings
from ..recipe.steps.noise import clouds
from ..sheet import Grid, Raster
from .seat import left_open
from .stack import Stack, Water


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
        # It carries no version, so that its waves stay where they were.
        with earlier_hash():
            waves = clouds(grid, size=water.ripple_size, octaves=3, gain=0.45, seed=water.seed)
        surface += np.float32(2 * water.ripple) * (waves - np.float32(0.5))
    return surface


def stand(below: Stack, water: Standing, coverage: Raster | None = None, surface: Raster | None = None) -> Stack:
    """A stack with water standing in it. The ground stays dry in the stack; what the water does to it is kept beside it
    and worked out when it is seen (:func:`seen_wet`).

    What it hides grows with depth as exp(−2.2 depth / clear) (Beer and Lambert: the light passes it twice). Wetness
    falls from 1 at the water to 0 at ``damp`` above it, times porosity. ``coverage`` (H, W) is where it may stand,
    ``surface`` (H, W) in mm its surface where that is known already (:func:`rippled`).
    """
    grid = below.grid
    if surface is None:
        surface = rippled(grid, water)
    cover = np.ones(grid.shape, np.float32) if coverage is None else np.ascontiguousarray(coverage, np.float32)
    # The waterline is as sharp as a pixel's share of the slope lets it be.
    body = Body(max(0.02, 0.15 * grid.pitch_mm), water.damp, water.porosity, water.clear)
    colour, ground, rough, metal = below.planes
    made = flood(ground, surface, cover, body)
    paint = np.array(hex_to_linear(water.colour), np.float32).reshape(1, 1, 3)
    stands = Water(made.share, made.depth, made.wet, made.veil, paint, np.full((1, 1), water.roughness, np.float32))
    number = below.layers + 1
    shows = made.share >= 0.5
    return replace(
        below,
        planes=(colour, made.height, rough, metal),
        top=np.where(shows, np.uint8(number), below.top).astype(np.uint8),
        margin=np.where(shows, made.depth, below.margin).astype(np.float32),
        share=made.share,
        layers=number,
        water=stands if below.water is None else below.water.under(stands),
        open=left_open(below, made.share),
    )


def seen_wet(dry: MapSet, water: Water, *, ground: Raster, surface: Raster) -> MapSet:
    """Dry maps as they are seen with water on them: the ground is darker and smoother where it is wet and takes on the
    water's colour with depth; the water's own face lies over it as a coat of its own index.

    Metal does not drink. ``ground`` and ``surface`` are the normals (H, W, 3) beneath it and on it.
    """
    maps = dry.with_maps(normal=ground)
    colour, dull, metal = (np.ascontiguousarray(maps.or_default(kind)) for kind in _SOAKED)
    made = soak(colour, dull, metal, water.wet, water.veil, water.paint)
    share = water.share
    coat, rough = maps.or_default(MapKind.COAT), maps.or_default(MapKind.COAT_ROUGHNESS)
    own = maps.maps.get(MapKind.COAT_NORMAL, ground)
    face = own + share[..., None] * (surface - own)
    face = to_unit(np.ascontiguousarray(face, np.float32))
    return maps.with_maps(
        base_colour=made.colour,
        roughness=made.rough,
        metalness=made.metal,
        coat=np.asarray(coat + share * (1 - coat), np.float32),
        coat_roughness=np.asarray(rough + share * (water.rough - rough), np.float32),
        coat_normal=np.asarray(face, np.float32),
        water=share,
        water_depth=water.depth,
        wetness=water.wet,
    )


_SOAKED = (MapKind.BASE_COLOUR, MapKind.ROUGHNESS, MapKind.METALNESS)


def baked(maps: MapSet) -> MapSet:
    """Maps with the water's face baked into them, for what knows no coat: smooth and level where it stands."""
    if MapKind.WATER not in maps:
        return maps
    share = maps[MapKind.WATER]
    left = np.maximum(1 - share, np.float32(1e-3))
    rough, metal, normal, coat, face = (
        maps.or_default(kind)
        for kind in (
            MapKind.ROUGHNESS, MapKind.METALNESS, MapKind.NORMAL, MapKind.COAT, MapKind.COAT_NORMAL
        )
    )  # fmt: skip
    bent = normal + share[..., None] * (face - normal)
    bent = to_unit(np.ascontiguousarray(bent, np.float32))
    made = maps.with_maps(
        roughness=np.asarray(rough + share * (maps.or_default(MapKind.COAT_ROUGHNESS) - rough), np.float32),
        metalness=np.asarray(metal * (1 - share), np.float32),
        normal=np.asarray(bent, np.float32),
        coat=np.asarray(np.clip((coat - share) / left, 0, 1), np.float32),
    )
    if float(made[MapKind.COAT].max()) >= _NO_COAT:
        return made
    gone = {MapKind.COAT, MapKind.COAT_ROUGHNESS, MapKind.COAT_NORMAL}
    return MapSet(made.grid, {kind: pixels for kind, pixels in made.maps.items() if kind not in gone})


_NO_COAT = 0.01
