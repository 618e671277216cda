"""What years by the sea have done to the walls and roofs of Saltreach: the upper layers of each build-up."""

from __future__ import annotations

from ..core.buildup.kinds.bundle import BundleWhat
from ..core.buildup.kinds.recipe import RecipeWhat
from ..core.buildup.kinds.run import RunWhat
from ..core.buildup.kinds.scatter import ScatterWhat
from ..core.buildup.kinds.water import WaterWhat
from ..core.job.layers import Layer, MapMix, PieceKind, Recipe, Scatter
from ..core.job.nodes import Setting
from ..core.maps import MapKind
from ..engine.library.marks_of_use import damp_from_the_foot, rain_streaks
from ..engine.library.shipped_kits import OVER, rule, seat, step
from .weathering import cracks, crust, kit, marks, runs, stain


def _crazing() -> Recipe:
    """Cracks of the glaze alone, of which a fine normal is made."""
    return Recipe(
        steps=(
            step(
                "craze",
                "marks.cracks",
                size=16.0,
                width=0.45,
                vary=0.35,
                ragged=0.2,
                branches=0.5,
                seed=11,
                opened=("size",),
            ),
            step("open", "adjust.relief", {"field": "craze"}, rise=-0.05, middle=0.0),
            step("fine", "relief.normal", {"field": "open"}, rise=1.0),
            step("stain", "colour.plain", colour="#A7B39C"),
        ),
        yields={MapKind.NORMAL: "fine", MapKind.BASE_COLOUR: "stain", MapKind.OPACITY: "craze"},
    )


def _algae() -> Layer:
    """What grows where the tide stands, ragged along its line."""
    return crust(
        "algae",
        "Tide-line algae",
        "#2A3416,#4C5A26,#75803E,#979B64",
        6.0,
        0.9,
        (
            rule("algae-foot", "keep", "where.gradient", from_up=330.0, to_up=0.0, shape={"soften": 12.0}),
            rule("algae-ragged", "multiply", "where.noise", size=60.0, cover=0.36, soften=0.12, octaves=10, seed=22),
            rule("algae-joints", "lighter", "where.hollows", radius=9.0, depth=0.9, shape={"strength": 0.55}),
        ),
        level=0.3,
        hatch="stones",
        feather=0.25,
    )


def dado_finish() -> tuple[Layer, ...]:
    """Crazed glaze, rust from old fixings, cracks, algae at the tide line, dust in the joints."""
    crazing = _crazing()
    glaze = Layer(
        id="crazing",
        name="Glaze crazing",
        what=RecipeWhat(recipe=crazing),
        seat=OVER,
        maps=frozenset({MapKind.NORMAL, MapKind.BASE_COLOUR, MapKind.OPACITY}),
        hatch="grid",
        mixes={MapKind.BASE_COLOUR: MapMix(strength=0.42), MapKind.NORMAL: MapMix(mode="added", strength=0.8)},
        where=(
            rule("craze-faces", "keep", "where.height", above=-0.6, below=20.0, soften=0.4),
            rule("craze-some", "multiply", "where.noise", size=300.0, cover=0.55, soften=0.5, seed=5),
        ),
    )
    rust = runs(
        "rust", "Rust run", "#7A3B1A,#A4582A,#C78A55", density=2.2, length=330.0, width=15.0, strength=0.62, seed=9
    )
    hair = cracks(
        "hairline",
        "Hairline cracks",
        520.0,
        1.1,
        (rule("hair-some", "keep", "where.noise", size=420.0, cover=0.4, soften=0.3, seed=8),),
        depth=0.9,
    )
    algae = _algae()
    grime = stain(
        "joint-grime",
        "Grime in the joints",
        "#4A443A",
        (rule("grime-low", "keep", "where.hollows", radius=6.0, depth=0.9, shape={"soften": 1.0}),),
        strength=0.75,
        hatch="level",
    )
    return glaze, rust, hair, grime, algae, marks("dado-smudges", "Smudges", roughness=0.5)


def render_finish() -> tuple[Layer, ...]:
    """Cracks, rising damp, streaks and salt."""
    crack = cracks(
        "render-cracks",
        "Cracks",
        640.0,
        2.2,
        (rule("cracks-some", "keep", "where.noise", size=620.0, cover=0.45, soften=0.35, seed=14),),
        depth=2.4,
        seed=6,
    )
    damp = stain(
        "damp", "Rising damp", "#6A6454", damp_from_the_foot(), strength=0.9, rough=0.5, rough_share=0.5, hatch="waves"
    )
    salt = crust(
        "salt-line",
        "Salt bloom",
        "#CFCCC0,#E4E1D6,#F3F1EA",
        6.0,
        0.4,
        (
            rule("bloom-line", "keep", "where.band", at=300.0, width=90.0, soft=150.0),
            rule("bloom-broken", "multiply", "where.noise", size=60.0, cover=0.42, soften=0.3, octaves=9, seed=27),
        ),
        level=0.1,
        hatch="grid",
    )
    streak = stain("streaks", "Rain streaks", "#6B6557", rain_streaks(), strength=0.55, hatch="upright")
    rust = runs(
        "render-rust",
        "Rust below the brackets",
        "#74401F,#A0602F,#C39263",
        density=0.9,
        length=520.0,
        width=18.0,
        strength=0.5,
        seed=17,
    )
    return crack, damp, salt, streak, rust


def slate_finish() -> tuple[Layer, ...]:
    """Moss between the slates, rust, gull lime, the wet of the last shower."""
    lime = crust(
        "lime",
        "Gull lime",
        "#C9C6B8,#E6E3D8,#F4F2EA",
        11.0,
        0.25,
        (rule("lime-few", "keep", "where.noise", size=95.0, cover=0.05, soften=0.12, octaves=9, seed=41),),
        level=0.05,
        hatch="dots",
    )
    rust = runs(
        "slate-rust",
        "Rust from the nails",
        "#5E351D,#8A5530,#A97C52",
        density=3.0,
        length=170.0,
        width=9.0,
        strength=0.45,
        seed=23,
    )
    wet = Layer(
        id="wet",
        name="Last shower",
        what=WaterWhat(water=Setting(op="water.standing", values={"level": -40.0, "damp": 90.0, "porosity": 0.55})),
        hatch="waves",
        where=(rule("wet-patches", "keep", "where.noise", size=520.0, cover=0.5, soften=0.6, seed=13),),
    )
    return rust, lime, kit("slate-moss", "Moss in the joints"), marks("slate-dust", "Dust"), wet


def _shells_and_weed() -> tuple[PieceKind, ...]:
    """What the tide leaves."""
    return (
        PieceKind(
            id="shell",
            name="Shell chip",
            shape=Setting(op="shape.chip", values={"colour": "#D9CDB8", "thickness": 3.0}),
            width_mm=24.0,
            height_mm=18.0,
        ),
        PieceKind(
            id="leaf",
            name="Weed",
            shape=Setting(op="shape.leaf", values={"colour": "#3B3A1E", "thickness": 1.2}),
            width_mm=46.0,
            height_mm=14.0,
            share=0.6,
        ),
    )


def _pools() -> Layer:
    """Water standing between the stones."""
    return Layer(
        id="pools",
        name="Standing water",
        hatch="waves",
        what=WaterWhat(
            water=Setting(
                op="water.standing",
                values={
                    "level": -1.6,
                    "clear": 22.0,
                    "damp": 3.2,
                    "porosity": 0.85,
                    "ripple": 0.06,
                    "ripple_size": 60.0,
                    "colour": "#35423C",
                },
            )
        ),
    )


def shingle_finish() -> tuple[Layer, ...]:
    """Weed and shells left by the tide, salt, and water standing between the stones."""
    kinds = _shells_and_weed()
    shells = Layer(
        id="shells",
        name="Shells and weed",
        what=ScatterWhat(
            scatter=Scatter(
                kinds=kinds,
                strew=Setting(op="scatter.strew", values={"density": 110, "tilt": 14.0, "sink": 0.1, "seed": 6}),
            )
        ),
        seat=seat(0.6, feather=0.3),
        hatch="dots",
    )
    sand = crust(
        "sand",
        "Sand in the gaps",
        "#6E6250,#9A8A6C,#B8A884",
        4.0,
        0.6,
        (rule("sand-low", "keep", "where.hollows", radius=22.0, depth=2.0, from_depth=1.0),),
        level=0.3,
        hatch="dots",
    )
    water = _pools()
    salt = stain(
        "stone-salt",
        "Dried salt",
        "#D8D5CA",
        (
            rule("salt-high", "keep", "where.edges", radius=14.0, height=2.0, from_height=0.8),
            rule("salt-some", "multiply", "where.noise", size=90.0, cover=0.4, soften=0.4, seed=19),
        ),
        strength=0.25,
        mode="screen",
        rough=0.9,
        rough_share=0.6,
        hatch="grid",
    )
    drift = stain(
        "weed-stain",
        "Weed stain",
        "#4A4A2C",
        (rule("weed-some", "keep", "where.noise", size=210.0, cover=0.35, soften=0.5, seed=29),),
        strength=0.35,
        hatch="upright",
    )
    return sand, salt, drift, shells, water


def copper_finish() -> tuple[Layer, ...]:
    """Rivets along the seams, brown runs, dirt, a thin film of the last rain."""
    rivets = tuple(
        Layer(
            id=f"rivets-{n}",
            name=f"Rivets {n + 1}",
            hatch="grid",
            seat=OVER,
            what=RunWhat(
                points=((x, 0.0), (x, 860.0), (x, 1720.0)),
                rounded=False,
                colour="#5D7F70",
                roughness=0.6,
                stamp=Setting(op="stamp.beading", values={"step": 86.0, "width": 13.0, "height": 3.2}),
            ),
        )
        for n, x in enumerate((40.0, 470.0, 900.0, 1330.0))
    )
    bundle = Layer(id="rivets", name="Rivets", what=BundleWhat(layers=rivets), seat=OVER, hatch="grid")
    brown = runs(
        "brown-runs",
        "Brown runs",
        "#2E1C12,#4D3020,#6E4A33",
        density=5.0,
        length=640.0,
        width=26.0,
        strength=0.5,
        seed=31,
    )
    dirt = stain(
        "copper-dirt",
        "Dirt below the seams",
        "#3A3B33",
        (rule("dirt-low", "keep", "where.hollows", radius=30.0, depth=3.0),),
        strength=0.6,
        hatch="level",
    )
    pale = stain(
        "copper-pale",
        "Pale bloom",
        "#BFD6C8",
        (
            rule("bloom-edges", "keep", "where.edges", radius=9.0, height=0.5, from_height=0.05),
            rule("bloom-some", "multiply", "where.noise", size=160.0, cover=0.5, soften=0.5, octaves=9, seed=35),
        ),
        strength=0.35,
        mode="screen",
        hatch="dots",
    )
    return bundle, brown, dirt, pale, marks("copper-scratches", "Fine scratches"), marks("copper-runs", "Dried runs")
