"""The kits that ship with the program, made by rule."""

from __future__ import annotations

from ...core.buildup.kinds.plain import PlainWhat
from ...core.buildup.kinds.recipe import RecipeWhat
from ...core.job.layers import Layer, MapMix, Recipe, Rule, Step
from ...core.job.nodes import Setting
from ...core.maps import MapKind
from .kits import Kit, proposed_dials
from .marks_of_use import MARKS_OF_USE, damp_from_the_foot, dust_in_hollows, rain_streaks, worn_edges

Number = float | int | str | bool


def step(
    name: str, op: str, made_from: dict[str, str] | None = None, *, opened: tuple[str, ...] = (), **values: Number
) -> Step:
    """One step of a recipe."""
    return Step(name=name, op=op, values=values, made_from=made_from or {}, opened=opened)


def rule(id: str, mode: str, op: str, *, shape: dict[str, Number] | None = None, **values: Number) -> Rule:
    """One where-rule."""
    return Rule(
        id=id, mode=mode, rule=Setting(op=op, values=values), shape=Setting(op="rule.shape", values=dict(shape or {}))
    )


def seat(level: float = 0.0, **values: Number) -> Setting:
    """A seat by height that follows the ground."""
    return Setting(op="seat.by_height", values={"level": level, "drape": 1.0, **values})


OVER = Setting(op="seat.over", values={"drape": 1.0})


def _pile(number: int, tone: str, size: float, turn: float, where: tuple[Rule, ...]) -> Layer:
    """Pile of one tone: fine leaning facets that catch the light one way."""
    recipe = Recipe(
        steps=(
            step(
                "tufts", "pattern.cobbles", size=size, joint=0.0, jitter=1.0, even=1, seed=20 + number, opened=("size",)
            ),
            step("lean", "piece.tilt", {"pieces": "tufts"}, seed=30 + number),
            step("facets", "adjust.relief", {"field": "lean"}, rise=0.16 * size, opened=("rise",)),
            step("shine", "relief.normal", {"field": "facets"}, rise=1.0),
            step("pick", "piece.share", {"pieces": "tufts"}, share=0.45, seed=40 + number),
            step("tone", "colour.plain", colour=tone, opened=("colour",)),
            step("sheen", "source.number", value=0.42),
        ),
        yields={
            MapKind.BASE_COLOUR: "tone",
            MapKind.NORMAL: "shine",
            MapKind.ROUGHNESS: "sheen",
            MapKind.OPACITY: "pick",
        },
    )
    return Layer(
        id=f"pile-{number}",
        name=f"Pile {number}",
        what=RecipeWhat(recipe=recipe),
        seat=OVER,
        where=where,
        maps=frozenset({MapKind.BASE_COLOUR, MapKind.NORMAL, MapKind.ROUGHNESS, MapKind.OPACITY}),
        mixes={MapKind.NORMAL: MapMix(mode="reoriented", strength=0.8), MapKind.BASE_COLOUR: MapMix(strength=0.75)},
        laying=Setting(op="lay.sheet", values={"turn": turn, "right": 3.7 * number, "up": 2.3 * number}),
        hatch=("dots", "stones", "grid", "cross")[number - 1],
    )


def _velvet() -> Kit:
    folds = rule("fold", "keep", "where.edges", radius=9.0, height=0.5, from_height=0.0, shape={"soften": 2.0})
    low = rule("low", "keep", "where.hollows", radius=9.0, depth=0.4, shape={"soften": 2.0})
    broken = rule(
        "broken", "multiply", "where.noise", size=60.0, cover=0.7, soften=0.5, seed=3, shape={"strength": 0.6}
    )
    layers = (
        _pile(1, "#1E3B37", 1.1, 0.0, ()),
        _pile(2, "#2C544D", 0.9, 90.0, (broken,)),
        _pile(3, "#16302D", 0.8, 180.0, (low,)),
        _pile(4, "#6D9C90", 0.7, -90.0, (folds,)),
    )
    return Kit(
        name="Seat velvet",
        note="short pile in four tones, palest on raised folds",
        tags=("cloth", "interior"),
        size_mm=(96.0, 96.0),
        layers=layers,
        dials=(
            ("pile-4", "where", "fold", "rule", "height"),
            ("pile-4", "look", "lightness"),
            ("pile-2", "where", "broken", "rule", "cover"),
        ),
    )


def _growth(
    name: str, id: str, colours: str, size: float, rise: float, level: float, where: tuple[Rule, ...], hatch: str
) -> Layer:
    recipe = Recipe(
        steps=(
            step("tufts", "noise.billowed", size=size, octaves=6, gain=0.62, seed=5, opened=("size",)),
            step("grain", "noise.clouds", size=0.3 * size, octaves=5, gain=0.7, seed=6),
            step("mixed", "combine.blend", {"lower": "tufts", "upper": "grain"}, mode="overlay", strength=0.6),
            step("relief", "adjust.relief", {"field": "mixed"}, rise=rise, opened=("rise",)),
            step("tint", "colour.stops", {"field": "mixed"}, colours=colours, opened=("colours",)),
            step("rough", "source.number", value=0.93),
        ),
        yields={MapKind.BASE_COLOUR: "tint", MapKind.HEIGHT: "relief", MapKind.ROUGHNESS: "rough"},
    )
    return Layer(
        id=id, name=name, what=RecipeWhat(recipe=recipe), seat=seat(level, feather=0.6), where=where, hatch=hatch
    )


def _moss() -> Kit:
    body = _growth(
        "Moss",
        "moss",
        "#24301A,#3F5326,#6A7A36,#8E9A52",
        9.0,
        3.0,
        0.4,
        (
            rule("low", "keep", "where.hollows", radius=16.0, depth=0.8, shape={"soften": 1.5}),
            rule("patch", "multiply", "where.noise", size=190.0, cover=0.55, soften=0.35, octaves=9, seed=7),
        ),
        "stones",
    )
    halo = Layer(
        id="halo",
        name="Damp halo",
        what=PlainWhat(colour="#2B2A22", roughness=0.6),
        seat=OVER,
        maps=frozenset({MapKind.BASE_COLOUR, MapKind.ROUGHNESS}),
        mixes={MapKind.BASE_COLOUR: MapMix(mode="multiply", strength=0.55), MapKind.ROUGHNESS: MapMix(strength=0.4)},
        hatch="level",
        where=(rule("round", "keep", "where.after", layer="moss", shape={"spread": 7.0, "soften": 9.0}),),
    )
    tips = _growth(
        "Dry tips",
        "tips",
        "#8A8A4A,#B3AE6C,#C9C48E",
        5.0,
        0.6,
        0.2,
        (
            rule("on", "keep", "where.after", layer="moss"),
            rule("high", "multiply", "where.edges", radius=4.0, height=0.5),
        ),
        "dots",
    )
    return Kit(
        name="Moss in the joints",
        note="cushions in hollows with a damp halo and dry tips",
        tags=("growth", "damp"),
        layers=(body, halo, tips),
        dials=proposed_dials((body, tips)),
    )


def _weather() -> Kit:
    streak = Layer(
        id="streaks",
        name="Rain streaks",
        what=PlainWhat(colour="#4B453B", roughness=0.8),
        seat=OVER,
        where=rain_streaks(),
        maps=frozenset({MapKind.BASE_COLOUR, MapKind.ROUGHNESS}),
        mixes={MapKind.BASE_COLOUR: MapMix(mode="multiply", strength=0.5), MapKind.ROUGHNESS: MapMix(strength=0.3)},
        hatch="upright",
    )
    damp = Layer(
        id="damp",
        name="Rising damp",
        what=PlainWhat(colour="#5B5A4C", roughness=0.55),
        seat=OVER,
        where=damp_from_the_foot(),
        maps=frozenset({MapKind.BASE_COLOUR, MapKind.ROUGHNESS}),
        mixes={MapKind.BASE_COLOUR: MapMix(mode="multiply", strength=0.6), MapKind.ROUGHNESS: MapMix(strength=0.5)},
        hatch="level",
    )
    dust = MARKS_OF_USE["Dust"]()
    return Kit(
        name="Years by the sea",
        note="streaks, rising damp and dust",
        tags=("weather", "subtle"),
        layers=(damp, streak, dust),
    )


def _wear() -> Kit:
    bare = Layer(
        id="bare",
        name="Worn to the bare",
        what=PlainWhat(colour="#8C7F6C", roughness=0.75),
        seat=Setting(op="seat.over", values={"drape": 1.0, "level": -0.08}),
        where=worn_edges(),
        hatch="cross",
        tone=Setting(op="tone.match", values={"tone_match": 0.35}),
    )
    grime = Layer(
        id="grime",
        name="Grime",
        what=PlainWhat(colour="#3A352C", roughness=0.9),
        seat=OVER,
        where=dust_in_hollows(),
        maps=frozenset({MapKind.BASE_COLOUR, MapKind.ROUGHNESS}),
        mixes={MapKind.BASE_COLOUR: MapMix(mode="multiply", strength=0.6), MapKind.ROUGHNESS: MapMix(strength=0.5)},
        hatch="dots",
    )
    return Kit(
        name="Edges worn, hollows grimed",
        note="what rubs off and what settles",
        tags=("wear", "subtle"),
        layers=(grime, bare, MARKS_OF_USE["Fine scratches"]()),
    )


def _salt() -> Kit:
    crust = _growth(
        "Salt",
        "salt",
        "#B9B7AC,#D8D6CC,#F0EEE6",
        5.0,
        0.5,
        0.12,
        (
            rule("line", "keep", "where.noise", size=120.0, cover=0.4, soften=0.5, octaves=9, seed=21),
            rule("low", "lighter", "where.hollows", radius=6.0, depth=0.5, shape={"strength": 0.7}),
        ),
        "grid",
    )
    return Kit(
        name="Sea salt",
        note="a thin crust that settles in joints",
        tags=("weather", "sea"),
        layers=(crust,),
        dials=proposed_dials((crust,)),
    )


def shipped_kits() -> tuple[Kit, ...]:
    """Every kit of the program."""
    return _velvet(), _moss(), _weather(), _wear(), _salt()
