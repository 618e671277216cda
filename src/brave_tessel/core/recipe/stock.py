"""Stock recipes: what a fresh pattern or noise layer starts from."""

from __future__ import annotations

from ..job.layers import Recipe, Step
from ..maps import MapKind
from ..operation import REGISTRY, Value
from .materials import MATERIALS


def units_recipe(**values: Value) -> Recipe:
    """Rectangular units: sizes, relief, tone and roughness as four steps.

    Values are given to whichever step declares them.
    """

    def own(op: str) -> dict[str, Value]:
        return {name: value for name, value in values.items() if name in REGISTRY[op].params}

    made = {"pieces": "units"}
    return Recipe(
        steps=(
            Step(name="units", op="pattern.units", values=own("pattern.units")),
            Step(name="relief", op="piece.relief", values=own("piece.relief"), made_from=made),
            Step(name="tone", op="piece.tone", values=own("piece.tone"), made_from=made),
            Step(name="sheen", op="piece.pick", values=own("piece.pick"), made_from=made),
        ),
        yields={MapKind.HEIGHT: "relief", MapKind.BASE_COLOUR: "tone", MapKind.ROUGHNESS: "sheen"},
    )


def clouds_recipe(
    *,
    size: float = 120.0,
    rise: float = 1.0,
    low: str = "#8E887B",
    high: str = "#E3DED2",
    rough: float = 0.85,
    seed: int = 1,
) -> Recipe:
    """Fractal noise as relief, tone and roughness."""
    return Recipe(
        steps=(
            Step(name="clouds", op="noise.clouds", values={"size": size, "seed": seed}),
            Step(name="relief", op="adjust.relief", values={"rise": rise}, made_from={"field": "clouds"}),
            Step(name="tint", op="colour.ramp", values={"low": low, "high": high}, made_from={"field": "clouds"}),
            Step(
                name="sheen",
                op="adjust.range",
                made_from={"field": "clouds"},
                values={"low": max(0.0, rough - 0.1), "high": min(1.0, rough + 0.1)},
            ),
        ),
        yields={MapKind.HEIGHT: "relief", MapKind.BASE_COLOUR: "tint", MapKind.ROUGHNESS: "sheen"},
    )


def pebbles_recipe(*, size: float = 24.0, rise: float = 8.0, seed: int = 1) -> Recipe:
    """Packed stones as relief, tone and roughness."""
    return Recipe(
        steps=(
            Step(name="pebbles", op="noise.pebbles", values={"size": size, "seed": seed}),
            Step(name="relief", op="adjust.relief", values={"rise": rise}, made_from={"field": "pebbles"}),
            Step(
                name="tint",
                op="colour.ramp",
                values={"low": "#3A3833", "high": "#8F897C"},
                made_from={"field": "pebbles"},
            ),
            Step(name="sheen", op="adjust.range", values={"low": 0.9, "high": 0.5}, made_from={"field": "pebbles"}),
        ),
        yields={MapKind.HEIGHT: "relief", MapKind.BASE_COLOUR: "tint", MapKind.ROUGHNESS: "sheen"},
    )


def cover_recipe(*, seed: int = 1) -> Recipe:
    """What a where-rule of steps starts from: hollows of what lies beneath, ragged."""
    return Recipe(
        steps=(
            Step(name="beneath", op="source.below"),
            Step(
                name="hollows",
                op="form.curvature",
                values={"rise": 1.0, "radius": 12.0},
                made_from={"field": "beneath"},
            ),
            Step(name="ragged", op="noise.clouds", values={"size": 60.0, "octaves": 7, "seed": seed}),
            Step(
                name="both",
                op="combine.sum",
                values={"how": "subtract", "share": 0.6},
                made_from={"first": "ragged", "second": "hollows"},
            ),
            Step(
                name="cover",
                op="adjust.threshold",
                values={"at": 0.22, "soft": 0.15},
                made_from={"field": "both"},
                opened=("at", "soft"),
            ),
        ),
        yields={MapKind.OPACITY: "cover"},
    )


STOCK = {
    "Rectangular units": units_recipe,
    "Clouds": clouds_recipe,
    "Pebbles": pebbles_recipe,
    **{stock.name: stock.make for stock in MATERIALS},
}
"""Name in the menu and the recipe behind it."""
