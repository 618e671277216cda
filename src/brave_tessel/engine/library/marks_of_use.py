"""Marks of use and where-presets: small recipes of layers and rules, shown as what they are and free to be changed."""

from __future__ import annotations

from collections.abc import Callable

from ...core.buildup.kinds.recipe import RecipeWhat
from ...core.job.layers import Layer, MapMix, Recipe, Rule, Step
from ...core.job.nodes import Setting
from ...core.maps import MapKind

_OVER = Setting(op="seat.over", values={"drape": 1.0})


def _step(
    name: str,
    op: str,
    made_from: dict[str, str] | None = None,
    *,
    opened: tuple[str, ...] = (),
    **values: float | int | str,
) -> Step:
    return Step(name=name, op=op, values=values, made_from=made_from or {}, opened=opened)  # type: ignore[arg-type]


def _into_roughness(name: str, steps: list[Step], marks: str, sheen: tuple[float, float]) -> Layer:
    """Marks that show first in the roughness: their cover is what is drawn, their sheen a number."""
    rough = _step("sheen", "adjust.range", {"field": marks}, low=sheen[0], high=sheen[1], opened=("low", "high"))
    recipe = Recipe(steps=(*steps, rough), yields={MapKind.ROUGHNESS: "sheen", MapKind.OPACITY: marks})
    return Layer(
        id="layer-mark",
        name=name,
        what=RecipeWhat(recipe=recipe),
        seat=_OVER,
        maps=frozenset({MapKind.ROUGHNESS, MapKind.OPACITY}),
        mixes={MapKind.ROUGHNESS: MapMix(strength=0.5)},
    )


def _smudges() -> Layer:
    steps = [_step("smudges", "marks.smudges", density=40.0, seed=3, opened=("density", "seed"))]
    return _into_roughness("Smudges", steps, "smudges", (0.35, 0.75))


def _scratches() -> Layer:
    steps = [
        _step(
            "scratches", "marks.scratches", density=500.0, length=45.0, width=0.3, seed=5, opened=("density", "length")
        )
    ]
    return _into_roughness("Fine scratches", steps, "scratches", (0.5, 0.8))


def _prints() -> Layer:
    steps = [
        _step("spots", "marks.dots", spacing=140.0, size=22.0, size_spread=0.15, soft=0.4, seed=7, opened=("spacing",)),
        _step("ridges", "noise.oriented", size=0.9, angle=35.0, spread=28.0, variety=0.5, seed=8),
        _step("prints", "combine.blend", {"lower": "spots", "upper": "ridges"}, mode="multiply"),
    ]
    return _into_roughness("Fingerprints", steps, "prints", (0.3, 0.6))


def _dust() -> Layer:
    grain = _step("grain", "noise.clouds", size=9.0, octaves=6, gain=0.7, seed=4)
    tone = _step("tone", "colour.stops", {"field": "grain"}, colours="#8C8374,#A69C8A,#B9B0A0", opened=("colours",))
    rough = _step("rough", "source.number", value=0.95)
    recipe = Recipe(
        steps=(grain, tone, rough),
        yields={MapKind.BASE_COLOUR: "tone", MapKind.ROUGHNESS: "rough", MapKind.OPACITY: "grain"},
    )
    return Layer(
        id="layer-mark",
        name="Dust",
        what=RecipeWhat(recipe=recipe),
        seat=_OVER,
        maps=frozenset({MapKind.ROUGHNESS, MapKind.BASE_COLOUR, MapKind.OPACITY}),
        mixes={MapKind.ROUGHNESS: MapMix(strength=0.6), MapKind.BASE_COLOUR: MapMix(strength=0.35)},
        where=dust_in_hollows(),
    )


def _drips() -> Layer:
    steps = [_step("runs", "marks.drips", density=12.0, length=300.0, width=9.0, seed=6, opened=("density", "length"))]
    return _into_roughness("Dried runs", steps, "runs", (0.45, 0.8))


MARKS_OF_USE: dict[str, Callable[[], Layer]] = {
    "Smudges": _smudges,
    "Fine scratches": _scratches,
    "Fingerprints": _prints,
    "Dust": _dust,
    "Dried runs": _drips,
}
"""Marks of use, subtle as they come; erased with a painted rule that cuts."""


def mark_of_use(name: str) -> Layer:
    """A mark of use as a layer."""
    return MARKS_OF_USE[name]()


def _rule(
    id: str, mode: str, op: str, shape: dict[str, float | bool] | None = None, **values: float | int | str
) -> Rule:
    return Rule(
        id=id, mode=mode, rule=Setting(op=op, values=values), shape=Setting(op="rule.shape", values=dict(shape or {}))
    )


def dust_in_hollows() -> tuple[Rule, ...]:
    """What settles low down and is wiped off what stands out."""
    return (
        _rule("a", "keep", "where.hollows", {"soften": 1.0}, radius=10.0, depth=0.5),
        _rule("b", "add", "where.noise", {"strength": 0.35}, size=160.0, cover=0.45, soften=0.6),
        _rule("c", "cut", "where.edges", {"strength": 0.8}, radius=5.0, height=0.3),
    )


def worn_edges() -> tuple[Rule, ...]:
    """What rubs off first, broken up by noise."""
    return (
        _rule("a", "keep", "where.edges", {}, radius=5.0, height=0.25, from_height=0.05),
        _rule("b", "multiply", "where.noise", {"strength": 0.85}, size=45.0, cover=0.6, soften=0.4, seed=9),
    )


def rain_streaks() -> tuple[Rule, ...]:
    """Runs that begin below ledges: slopes that look down, drawn downward."""
    return (
        _rule(
            "a",
            "keep",
            "where.slope",
            {"soften": 2.0, "spread": 3.0},
            above=12.0,
            below=90.0,
            side="one side",
            towards=-90.0,
            radius=4.0,
        ),
        _rule("b", "multiply", "where.noise", {"strength": 0.9}, size=24.0, cover=0.5, soften=0.5, seed=12),
    )


def damp_from_the_foot() -> tuple[Rule, ...]:
    """Rising damp: full at the foot of the sheet, ragged toward the top."""
    return (
        _rule("a", "keep", "where.gradient", {"soften": 8.0}, from_up=260.0, to_up=0.0),
        _rule(
            "b", "multiply", "where.noise", {"low": -0.4, "strength": 1.0}, size=70.0, cover=0.7, soften=0.8, seed=15
        ),
        _rule("c", "lighter", "where.hollows", {"strength": 0.4}, radius=12.0, depth=0.6),
    )


PRESETS: dict[str, Callable[[], tuple[Rule, ...]]] = {
    "Dust in hollows": dust_in_hollows,
    "Worn edges": worn_edges,
    "Rain streaks below ledges": rain_streaks,
    "Damp rising from the foot": damp_from_the_foot,
}
"""Handfuls of rules; once added they are plain rules."""
