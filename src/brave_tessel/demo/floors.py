"""What years by the sea have done to the floors, the seat and the sign of Saltreach."""

from __future__ import annotations

from ..core.buildup.kinds.bundle import BundleWhat
from ..core.buildup.kinds.inscription import InscriptionWhat
from ..core.buildup.kinds.plain import PlainWhat
from ..core.buildup.kinds.run import RunWhat
from ..core.buildup.kinds.surface import SurfaceWhat
from ..core.buildup.kinds.water import WaterWhat
from ..core.job.layers import Layer, MapMix, Placement, Surface
from ..core.job.nodes import Setting
from ..core.maps import MapKind
from ..engine.library.marks_of_use import worn_edges
from ..engine.library.shipped_kits import OVER, rule, seat
from .weathering import cracks, crust, kit, marks, runs, stain


def _nails() -> tuple[Layer, ...]:
    """Two rows of bronze nails along the joists."""
    return tuple(
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


def deck_finish() -> tuple[Layer, ...]:
    """Bronze nails, a rope left lying, edges worn to the wood, sand, puddles."""
    nails = _nails()
    bundle = Layer(id="nails", name="Nails", what=BundleWhat(layers=nails), seat=OVER, hatch="grid")
    worn = Layer(
        id="worn",
        name="Worn edges",
        what=PlainWhat(colour="#7D6A52", roughness=0.85),
        seat=OVER,
        where=worn_edges(),
        maps=frozenset({MapKind.BASE_COLOUR, MapKind.ROUGHNESS}),
        hatch="cross",
        mixes={MapKind.BASE_COLOUR: MapMix(strength=0.55), MapKind.ROUGHNESS: MapMix(strength=0.7)},
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


def _strips() -> tuple[Layer, ...]:
    """Brass strips that meet at the corner of the sheet."""
    return tuple(
        Layer(
            id=f"strip-{n}",
            name=f"Brass strip {n + 1}",
            hatch="grid",
            seat=OVER,
            maps=frozenset(
                {MapKind.BASE_COLOUR, MapKind.HEIGHT, MapKind.ROUGHNESS, MapKind.METALNESS, MapKind.OPACITY}
            ),
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


def terrazzo_finish() -> tuple[Layer, ...]:
    """Brass strips, a cut inscription, polish, wet prints, dust along the strips."""
    strips = _strips()
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
        marks("floor-prints", "Fingerprints", roughness=0.35),
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
        maps=frozenset({MapKind.ROUGHNESS}),
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
        mixes={MapKind.ROUGHNESS: MapMix(strength=0.7)},
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


def _lettering() -> Layer:
    """What is left of the painted words."""
    return Layer(
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


def sign_surface() -> Surface:
    """The sign on the wall of the changing hall: the same wall twice, with what is left of its painted lettering."""
    wall = Layer(
        id="sign-wall",
        name="Limewash on render",
        what=SurfaceWhat(surface="limewash-wall", across=2, up=1),
        hatch="dots",
    )
    letters = _lettering()
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
