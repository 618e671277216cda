"""Layers that weather leaves, ready for the finishes of Saltreach: stains, crusts, cracks, runs."""

from __future__ import annotations

import msgspec

from ..core.buildup.kinds.bundle import BundleWhat
from ..core.buildup.kinds.plain import PlainWhat
from ..core.buildup.kinds.recipe import RecipeWhat
from ..core.job.layers import Layer, MapMix, Recipe, Rule
from ..core.maps import MapKind
from ..engine.library.marks_of_use import MARKS_OF_USE
from ..engine.library.shipped_kits import OVER, seat, shipped_kits, step

Rules = tuple[Rule, ...]
_STAIN = frozenset({MapKind.BASE_COLOUR, MapKind.ROUGHNESS, MapKind.OPACITY})


def stain(
    id: str,
    name: str,
    colour: str,
    where: Rules,
    *,
    strength: float = 0.6,
    rough: float = 0.8,
    rough_share: float = 0.4,
    hatch: str = "level",
    mode: str = "multiply",
) -> Layer:
    """A thin colouring without relief."""
    return Layer(
        id=id,
        name=name,
        what=PlainWhat(colour=colour, roughness=rough),
        seat=OVER,
        where=where,
        maps=frozenset({MapKind.BASE_COLOUR, MapKind.ROUGHNESS}),
        hatch=hatch,
        mixes={
            MapKind.BASE_COLOUR: MapMix(mode=mode, strength=strength),
            MapKind.ROUGHNESS: MapMix(strength=rough_share),
        },
    )


def marks(id: str, kind: str, **strengths: float) -> Layer:
    """One of the marks of use that ship, under a fixed id."""
    layer = MARKS_OF_USE[kind]()
    mixes = {**layer.mixes, **{MapKind(k): MapMix(strength=v) for k, v in strengths.items()}}
    where = tuple(msgspec.structs.replace(entry, id=f"{id}-{entry.id}") for entry in layer.where)
    return msgspec.structs.replace(layer, id=id, mixes=mixes, where=where)


def crust(
    id: str,
    name: str,
    colours: str,
    size: float,
    rise: float,
    where: Rules,
    *,
    level: float = 0.15,
    rough: float = 0.92,
    hatch: str = "stones",
    feather: float = 0.5,
) -> Layer:
    """Something grown or dried on, with its own grain."""
    recipe = Recipe(
        steps=(
            step("grown", "noise.billowed", size=size, octaves=7, gain=0.64, seed=5, opened=("size",)),
            step("grain", "noise.clouds", size=0.35 * size, octaves=5, gain=0.72, seed=6),
            step("mixed", "combine.blend", {"lower": "grown", "upper": "grain"}, mode="overlay", strength=0.6),
            step("relief", "adjust.relief", {"field": "mixed"}, rise=rise, opened=("rise",)),
            step("tint", "colour.stops", {"field": "mixed"}, colours=colours, opened=("colours",)),
            step("sheen", "source.number", value=rough),
        ),
        yields={MapKind.BASE_COLOUR: "tint", MapKind.HEIGHT: "relief", MapKind.ROUGHNESS: "sheen"},
    )
    return Layer(
        id=id, name=name, what=RecipeWhat(recipe=recipe), seat=seat(level, feather=feather), where=where, hatch=hatch
    )


def cracks(
    id: str,
    name: str,
    size: float,
    width: float,
    where: Rules,
    *,
    depth: float = 1.2,
    colour: str = "#2A2722",
    seed: int = 3,
) -> Layer:
    """Cracks from below: cut into what lies there, dark within."""
    recipe = Recipe(
        steps=(
            step(
                "cracks",
                "marks.cracks",
                size=size,
                width=width,
                vary=0.75,
                ragged=0.6,
                branches=0.35,
                seed=seed,
                opened=("size", "width"),
            ),
            step("cut", "adjust.relief", {"field": "cracks"}, rise=-depth, middle=0.0, opened=("rise",)),
            step("dark", "colour.plain", colour=colour),
            step("sheen", "source.number", value=0.9),
        ),
        yields={
            MapKind.BASE_COLOUR: "dark",
            MapKind.HEIGHT: "cut",
            MapKind.ROUGHNESS: "sheen",
            MapKind.OPACITY: "cracks",
        },
    )
    return Layer(id=id, name=name, what=RecipeWhat(recipe=recipe), seat=OVER, where=where, hatch="level")


def runs(
    id: str,
    name: str,
    colours: str,
    *,
    density: float,
    length: float,
    width: float,
    strength: float,
    seed: int,
    where: Rules = (),
) -> Layer:
    """Stains that have run down."""
    recipe = Recipe(
        steps=(
            step(
                "runs",
                "marks.drips",
                density=density,
                length=length,
                width=width,
                wander=0.12,
                seed=seed,
                opened=("density", "length"),
            ),
            step("edge", "noise.clouds", size=7.0, octaves=5, gain=0.7, seed=seed + 1),
            step("ragged", "combine.blend", {"lower": "runs", "upper": "edge"}, mode="overlay", strength=0.5),
            step("tint", "colour.stops", {"field": "ragged"}, colours=colours, opened=("colours",)),
            step("sheen", "source.number", value=0.82),
        ),
        yields={MapKind.BASE_COLOUR: "tint", MapKind.ROUGHNESS: "sheen", MapKind.OPACITY: "ragged"},
    )
    return Layer(
        id=id,
        name=name,
        what=RecipeWhat(recipe=recipe),
        seat=OVER,
        where=where,
        maps=_STAIN,
        hatch="cross",
        mixes={MapKind.BASE_COLOUR: MapMix(strength=strength), MapKind.ROUGHNESS: MapMix(strength=0.6)},
    )


def kit(id: str, name: str) -> Layer:
    """A shipped kit as a bundle under fixed ids."""
    found = next(entry for entry in shipped_kits() if entry.name == name)
    return Layer(
        id=id, name=name, what=BundleWhat(layers=found.layers, dials=found.dials), seat=OVER, kit=name, hatch="stones"
    )
