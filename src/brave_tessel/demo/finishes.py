"""What years by the sea have done to the surfaces of Saltreach: the upper layers of each build-up."""

from __future__ import annotations

import msgspec

from ..core.buildup.kinds.bundle import BundleWhat
from ..core.buildup.kinds.inscription import InscriptionWhat
from ..core.buildup.kinds.plain import PlainWhat
from ..core.buildup.kinds.recipe import RecipeWhat
from ..core.buildup.kinds.run import RunWhat
from ..core.buildup.kinds.scatter import ScatterWhat
from ..core.buildup.kinds.surface import SurfaceWhat
from ..core.buildup.kinds.water import WaterWhat
from ..core.job.layers import Layer, MapMix, PieceKind, Placement, Recipe, Rule, Scatter, Surface
from ..core.job.nodes import Setting
from ..core.maps import MapKind
from ..engine.library.marks_of_use import IMPERFECTIONS, damp_from_the_foot, rain_streaks, worn_edges
from ..engine.library.shipped_kits import OVER, rule, seat, shipped_kits, step

_C, _H, _R, _M, _N, _O = (
    MapKind.BASE_COLOUR,
    MapKind.HEIGHT,
    MapKind.ROUGHNESS,
    MapKind.METALNESS,
    MapKind.NORMAL,
    MapKind.OPACITY,
)
Rules = tuple[Rule, ...]
_STAIN = frozenset({_C, _R, _O})


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
        maps=frozenset({_C, _R}),
        hatch=hatch,
        mixes={_C: MapMix(mode=mode, strength=strength), _R: MapMix(strength=rough_share)},
    )


def marks(id: str, kind: str, **strengths: float) -> Layer:
    """One of the imperfections that ship, under a fixed id."""
    layer = IMPERFECTIONS[kind]()
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
        yields={_C: "tint", _H: "relief", _R: "sheen"},
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
        yields={_C: "dark", _H: "cut", _R: "sheen", _O: "cracks"},
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
        yields={_C: "tint", _R: "sheen", _O: "ragged"},
    )
    return Layer(
        id=id,
        name=name,
        what=RecipeWhat(recipe=recipe),
        seat=OVER,
        where=where,
        maps=_STAIN,
        hatch="cross",
        mixes={_C: MapMix(strength=strength), _R: MapMix(strength=0.6)},
    )


def kit(id: str, name: str) -> Layer:
    """A shipped kit as a bundle under fixed ids."""
    found = next(entry for entry in shipped_kits() if entry.name == name)
    return Layer(
        id=id, name=name, what=BundleWhat(layers=found.layers, dials=found.dials), seat=OVER, kit=name, hatch="stones"
    )


def dado_finish() -> tuple[Layer, ...]:
    """Crazed glaze, rust from old fixings, cracks, algae at the tide line, dust in the joints."""
    crazing = Recipe(
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
        yields={_N: "fine", _C: "stain", _O: "craze"},
    )
    glaze = Layer(
        id="crazing",
        name="Glaze crazing",
        what=RecipeWhat(recipe=crazing),
        seat=OVER,
        maps=frozenset({_N, _C, _O}),
        hatch="grid",
        mixes={_C: MapMix(strength=0.42), _N: MapMix(mode="added", strength=0.8)},
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
    algae = crust(
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


def shingle_finish() -> tuple[Layer, ...]:
    """Weed and shells left by the tide, salt, and water standing between the stones."""
    kinds = (
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
    water = Layer(
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


def deck_finish() -> tuple[Layer, ...]:
    """Bronze nails, a rope left lying, edges worn to the wood, sand, puddles."""
    nails = tuple(
        Layer(
            id=f"nails-{n}",
            name=f"Nails {n + 1}",
            hatch="grid",
            seat=OVER,
            what=RunWhat(
                points=((x, 0.0), (x, 720.0), (x, 1440.0)),
                rounded=False,
                colour="#4B4A3E",
                roughness=0.45,
                stamp=Setting(op="stamp.beading", values={"step": 72.0, "width": 9.0, "height": 1.4}),
            ),
        )
        for n, x in enumerate((240.0, 960.0))
    )
    bundle = Layer(id="nails", name="Nails", what=BundleWhat(layers=nails), seat=OVER, hatch="grid")
    worn = Layer(
        id="worn",
        name="Worn edges",
        what=PlainWhat(colour="#7D6A52", roughness=0.85),
        seat=OVER,
        where=worn_edges(),
        maps=frozenset({_C, _R}),
        hatch="cross",
        mixes={_C: MapMix(strength=0.55), _R: MapMix(strength=0.7)},
    )
    sand = crust(
        "deck-sand",
        "Sand in the gaps",
        "#8B7B5E,#B3A27E,#C9BA97",
        3.5,
        0.5,
        (
            rule("deck-sand-low", "keep", "where.hollows", radius=14.0, depth=4.0, from_depth=1.5),
            rule("deck-sand-drift", "add", "where.noise", size=240.0, cover=0.035, soften=0.1, octaves=10, seed=44),
        ),
        level=0.1,
        hatch="dots",
    )
    rope = Layer(
        id="rope",
        name="Rope left lying",
        hatch="upright",
        seat=seat(0.0, drape=0.15, feather=0.4),
        what=RunWhat(
            points=((0.0, 980.0), (260.0, 900.0), (520.0, 1010.0), (800.0, 1060.0), (1120.0, 960.0), (1440.0, 980.0)),
            colour="#A8936A",
            roughness=0.9,
            stamp=Setting(op="stamp.rope", values={"step": 24.0, "width": 26.0, "height": 22.0}),
        ),
    )
    shade = stain(
        "rope-shade",
        "Damp beside the rope",
        "#3A3126",
        (rule("shade-round", "keep", "where.after", layer="rope", shape={"spread": 5.0, "soften": 12.0}),),
        strength=0.6,
        hatch="level",
    )
    puddle = Layer(
        id="puddles",
        name="Puddles",
        hatch="waves",
        what=WaterWhat(
            water=Setting(
                op="water.standing",
                values={"level": -0.9, "clear": 30.0, "damp": 1.6, "porosity": 0.9, "colour": "#2B2B26"},
            )
        ),
        where=(rule("puddle-some", "keep", "where.noise", size=460.0, cover=0.3, soften=0.2, seed=25),),
    )
    return bundle, worn, sand, rope, shade, puddle


def terrazzo_finish() -> tuple[Layer, ...]:
    """Brass strips, a cut inscription, polish, wet prints, dust along the strips."""
    strips = tuple(
        Layer(
            id=f"strip-{n}",
            name=f"Brass strip {n + 1}",
            hatch="grid",
            seat=OVER,
            maps=frozenset({_C, _H, _R, _M, _O}),
            what=RunWhat(
                points=points,
                rounded=False,
                colour="#B08A45",
                roughness=0.28,
                stamp=Setting(op="stamp.edging", values={"profile": "fillet", "width": 4.0, "height": 0.25}),
            ),
            look=Setting(op="look.adjust", values={"metal_shift": 1.0}),
        )
        for n, points in enumerate((((0.0, 0.0), (450.0, 0.0), (900.0, 0.0)), ((0.0, 0.0), (0.0, 450.0), (0.0, 900.0))))
    )
    bundle = Layer(id="strips", name="Brass strips", what=BundleWhat(layers=strips), seat=OVER, hatch="grid")
    letters = Layer(
        id="cut-letters",
        name="Cut letters",
        hatch="level",
        seat=OVER,
        what=InscriptionWhat(
            text="LADIES",
            placement=Placement(x_mm=450.0, y_mm=450.0, width_mm=430.0, height_mm=92.0),
            cut=Setting(
                op="inscription.cut",
                values={
                    "profile": "flat",
                    "depth": 1.2,
                    "width": 0.8,
                    "colour": "#20433D",
                    "painted": 1.0,
                    "roughness": 0.3,
                },
            ),
        ),
    )
    dust = stain(
        "floor-dirt",
        "Dirt along the strips",
        "#57503F",
        (
            rule("dirt-strips", "keep", "where.after", layer="strip-0", shape={"spread": 3.0, "soften": 10.0}),
            rule("dirt-strips-2", "add", "where.after", layer="strip-1", shape={"spread": 3.0, "soften": 10.0}),
            rule("dirt-broken", "multiply", "where.noise", size=90.0, cover=0.6, soften=0.5, seed=9),
        ),
        strength=0.55,
    )
    spill = Layer(
        id="spill",
        name="Spilt water",
        hatch="waves",
        what=WaterWhat(
            water=Setting(
                op="water.standing",
                values={"level": 0.35, "clear": 400.0, "damp": 0.1, "porosity": 0.2, "colour": "#A9A797"},
            )
        ),
        where=(rule("spill-shape", "keep", "where.noise", size=260.0, cover=0.17, soften=0.02, octaves=4, seed=51),),
    )
    return (
        bundle,
        letters,
        dust,
        marks("floor-scratches", "Fine scratches"),
        marks("floor-prints", "Finger prints", roughness=0.35),
        spill,
    )


def mosaic_finish() -> tuple[Layer, ...]:
    """Dark grout, a crack, polish where people walk, a film of water."""
    grout = stain(
        "grout",
        "Dirt in the grout",
        "#4C463B",
        (rule("grout-low", "keep", "where.hollows", radius=7.0, depth=0.3),),
        strength=0.7,
    )
    crack = cracks(
        "mosaic-crack",
        "Crack",
        620.0,
        1.6,
        (rule("crack-some", "keep", "where.noise", size=500.0, cover=0.45, soften=0.3, seed=4),),
        depth=1.0,
        seed=12,
    )
    walked = Layer(
        id="walked",
        name="Walked smooth",
        what=PlainWhat(colour="#808080", roughness=0.16),
        seat=OVER,
        maps=frozenset({_R}),
        hatch="upright",
        where=(
            rule("walked-band", "keep", "where.band", at=360.0, width=260.0, soft=220.0),
            rule(
                "walked-high",
                "multiply",
                "where.edges",
                radius=6.0,
                height=0.15,
                from_height=-0.1,
                shape={"strength": 0.6},
            ),
        ),
        mixes={_R: MapMix(strength=0.7)},
    )
    water = Layer(
        id="mosaic-film",
        name="Film of water",
        hatch="waves",
        what=WaterWhat(
            water=Setting(
                op="water.standing",
                values={"level": -0.12, "clear": 30.0, "damp": 0.3, "porosity": 0.5, "colour": "#55635C"},
            )
        ),
        where=(rule("film-some", "keep", "where.noise", size=330.0, cover=0.45, soften=0.3, seed=33),),
    )
    return grout, crack, walked, water, marks("mosaic-smudges", "Smudges")


def seat_finish() -> tuple[Layer, ...]:
    """The velvet of the buffet's seats: flakes over a woven ground, rubbed, with a seam of stitches."""
    seam = Layer(
        id="seam",
        name="Seam",
        hatch="upright",
        seat=Setting(op="seat.over", values={"drape": 0.15, "level": 0.45}),
        what=RunWhat(
            points=((0.0, 24.0), (48.0, 24.0), (96.0, 24.0)),
            rounded=False,
            colour="#A98B4C",
            roughness=0.75,
            stamp=Setting(op="stamp.stitch", values={"step": 4.8, "width": 0.9, "height": 0.5, "sink": 0.3}),
        ),
    )
    rubbed = stain(
        "rubbed",
        "Rubbed pile",
        "#9DB3A8",
        (rule("rubbed-some", "keep", "where.noise", size=48.0, cover=0.4, soften=0.6, seed=15),),
        strength=0.14,
        mode="screen",
        hatch="dots",
    )
    return kit("velvet", "Seat velvet"), rubbed, seam


def sign_surface() -> Surface:
    """The sign on the wall of the changing hall: the same wall twice, with what is left of its painted lettering."""
    wall = Layer(
        id="sign-wall",
        name="Limewash on render",
        what=SurfaceWhat(surface="limewash-wall", across=2, up=1),
        hatch="dots",
    )
    letters = Layer(
        id="letters",
        name="Painted lettering",
        hatch="level",
        seat=OVER,
        what=InscriptionWhat(
            text="SALTREACH\nTIDE BATHS",
            font="IBM Plex Sans SemiBold",
            placement=Placement(x_mm=1500.0, y_mm=960.0, width_mm=1540.0, height_mm=430.0),
            cut=Setting(
                op="inscription.cut",
                values={
                    "profile": "raised",
                    "depth": 0.12,
                    "width": 0.6,
                    "colour": "#1E4C48",
                    "painted": 0.92,
                    "roughness": 0.62,
                },
            ),
        ),
        where=(
            rule("letters-worn", "cut", "where.noise", size=26.0, cover=0.3, soften=0.12, octaves=9, seed=31),
            rule("letters-gone", "cut", "where.noise", size=230.0, cover=0.13, soften=0.3, octaves=9, seed=37),
            rule("letters-high", "cut", "where.edges", radius=6.0, height=0.6, from_height=0.25),
        ),
    )
    frame = Layer(
        id="sign-frame",
        name="Painted frame",
        hatch="grid",
        seat=OVER,
        where=letters.where,
        what=RunWhat(
            points=((560.0, 640.0), (2440.0, 640.0), (2440.0, 1280.0), (560.0, 1280.0)),
            closed=True,
            rounded=False,
            colour="#7A2F22",
            roughness=0.7,
            stamp=Setting(op="stamp.edging", values={"profile": "fillet", "width": 26.0, "height": 0.12}),
        ),
    )
    grime = stain(
        "sign-grime",
        "Grime below the letters",
        "#6A6252",
        (rule("grime-below", "keep", "where.after", layer="letters", up=-30.0, shape={"spread": 6.0, "soften": 40.0}),),
        strength=0.4,
    )
    rust = runs(
        "sign-rust",
        "Rust from the fixings",
        "#74401F,#A0602F,#C39263",
        density=0.8,
        length=420.0,
        width=16.0,
        strength=0.5,
        seed=53,
    )
    return Surface(
        id="sign",
        name="Painted sign",
        width_mm=3000.0,
        height_mm=1500.0,
        layers=(wall, frame, letters, grime, rust, marks("sign-dust", "Dust")),
    )
