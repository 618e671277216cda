"""Stock recipes: whole materials as named steps, each for a repeat of a size of its own."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ..job.layers import Recipe
from .writer import RecipeWriter


@dataclass(frozen=True, slots=True)
class Stock:
    """A stock recipe, the repeat it closes on in mm, and one line on it."""

    name: str
    make: Callable[[], Recipe]
    repeat_mm: tuple[float, float]
    note: str


def terrazzo() -> Recipe:
    """Chips of oyster, green marble and dark stone in a pale binder, ground flat."""
    w = RecipeWriter()
    w.section("Chips")
    w.add("large cells", "pattern.crazy", size=30.0, joint=3.5, seed=3, opened=("size",))
    w.add("large chips", "piece.share", {"pieces": "large cells"}, share=0.62, seed=5, opened=("share",))
    w.add("small cells", "pattern.crazy", size=11.0, joint=2.2, seed=8)
    w.add("small chips", "piece.share", {"pieces": "small cells"}, share=0.66, seed=2)
    w.add("any chip", "combine.sum", {"first": "large chips", "second": "small chips"}, how="highest")
    w.section("Binder")
    w.add("clouds", "noise.clouds", size=90.0, octaves=7, gain=0.6, seed=4)
    w.add("fines", "marks.speckle", density=160_000.0, size=0.9, size_spread=0.6, seed=6)
    w.add("binder tone", "combine.blend", {"lower": "clouds", "upper": "fines"}, mode="screen", strength=0.45)
    w.add("binder", "colour.stops", {"field": "binder tone"}, colours="#B8AF9C,#CFC7B5,#E2DCCD")
    w.section("Colour")
    w.add(
        "small tones",
        "colour.pieces",
        {"pieces": "small cells"},
        colours="#EDE6D6,#8E9C86,#3C5B4A,#D8CDB8,#5E5A55",
        joint="#CFC7B5",
        seed=4,
    )
    w.add(
        "large tones",
        "colour.pieces",
        {"pieces": "large cells"},
        colours="#F1EBDD,#DCD2BF,#2F4F40,#7F947F,#E9E0CE,#4A4744",
        joint="#CFC7B5",
        seed=9,
    )
    w.add("veins", "noise.warped", size=26.0, shove=14.0, octaves=6, gain=0.6, seed=7)
    w.add("veined", "colour.vary", {"colour": "large tones", "field": "veins"}, lightness=0.22, warmth=0.05)
    w.add("with small", "combine.colours_by_mask", {"lower": "binder", "upper": "small tones", "mask": "small chips"})
    w.add("ground", "combine.colours_by_mask", {"lower": "with small", "upper": "veined", "mask": "large chips"})
    w.section("Grinding wear")
    w.add("worn", "adjust.relief", {"field": "any chip"}, rise=0.09, middle=1.0, opened=("rise",))
    w.add("waves", "adjust.relief", {"field": "clouds"}, rise=0.05)
    w.add("relief", "combine.sum", {"first": "worn", "second": "waves"}, how="add")
    w.add("polish", "adjust.range", {"field": "any chip"}, low=0.36, high=0.2)
    w.add("sheen", "combine.sum", {"first": "polish", "second": "clouds"}, how="add", share=0.06)
    return w.recipe(height="relief", colour="ground", roughness="sheen")


def slate_roof() -> Recipe:
    """Riven slates in half bond, 500 × 250 with a lap of 100."""
    w = RecipeWriter()
    w.section("Slates")
    w.add(
        "slates",
        "pattern.slates",
        length=500.0,
        width=250.0,
        headlap=100.0,
        joint=4.0,
        ragged=7.0,
        seed=3,
        opened=("length", "width", "headlap"),
    )
    w.add("lean", "piece.gradient", {"pieces": "slates"}, angle=-90.0, stray=2.0)
    w.add("thickness", "adjust.relief", {"field": "lean"}, rise=7.0, middle=0.0)
    w.add("own height", "piece.number", {"pieces": "slates"}, seed=4)
    w.add("stand", "adjust.relief", {"field": "own height"}, rise=1.6)
    w.section("Riven face")
    w.add("cleft", "noise.warped", size=150.0, shove=60.0, octaves=8, gain=0.58, seed=12)
    w.add("leaves", "adjust.posterise", {"field": "cleft"}, steps=9, soft=0.22)
    w.add("grain", "noise.oriented", size=5.0, angle=82.0, spread=14.0, variety=0.8, seed=5)
    w.add("leaf relief", "adjust.relief", {"field": "leaves"}, rise=2.6, opened=("rise",))
    w.add("grain relief", "adjust.relief", {"field": "grain"}, rise=0.35)
    w.add("face", "combine.sum", {"first": "leaf relief", "second": "grain relief"}, how="add")
    w.section("Together")
    w.add("chips", "form.rim", {"pieces": "slates"}, width=9.0, round_=0.7)
    w.add("chip noise", "noise.ridged", size=22.0, octaves=5, seed=9)
    w.add("chipped", "combine.blend", {"lower": "chips", "upper": "chip noise"}, mode="multiply")
    w.add("loss", "adjust.relief", {"field": "chipped"}, rise=-4.5, middle=0.0)
    w.add("body", "combine.sum", {"first": "thickness", "second": "face"}, how="add")
    w.add("standing", "combine.sum", {"first": "body", "second": "stand"}, how="add")
    w.add("edged", "combine.sum", {"first": "standing", "second": "loss"}, how="add")
    w.add("gaps", "form.joints", {"pieces": "slates"})
    w.add("deep", "adjust.relief", {"field": "gaps"}, rise=-6.0, middle=0.0)
    w.add("relief", "combine.sum", {"first": "edged", "second": "deep"}, how="add")
    w.section("Colour")
    w.add(
        "tones",
        "colour.pieces",
        {"pieces": "slates"},
        colours="#3E444B,#4B5258,#565C60,#4A4A50,#5C6064",
        joint="#17191B",
        seed=6,
    )
    w.add("leafed", "colour.vary", {"colour": "tones", "field": "leaves"}, lightness=0.3, warmth=0.1)
    w.add("streaked", "colour.vary", {"colour": "leafed", "field": "grain"}, lightness=0.12)
    w.add("lichen spots", "marks.speckle", density=260.0, size=15.0, size_spread=1.0, soft=0.35, seed=21)
    w.add("lichen edge", "noise.clouds", size=9.0, octaves=6, gain=0.7, seed=22)
    w.add("lichen", "combine.blend", {"lower": "lichen spots", "upper": "lichen edge"}, mode="burn", strength=0.9)
    w.add("lichen cover", "adjust.threshold", {"field": "lichen"}, at=0.34, soft=0.25, opened=("at",))
    w.add("lichen tone", "colour.plain", colour="#A9AC93")
    w.add(
        "grown over", "combine.colours_by_mask", {"lower": "streaked", "upper": "lichen tone", "mask": "lichen cover"}
    )
    w.add("sheen", "adjust.range", {"field": "leaves"}, low=0.62, high=0.42)
    w.add("rough", "combine.by_mask", {"lower": "sheen", "upper": "lichen edge", "mask": "lichen cover"})
    return w.recipe(height="relief", colour="grown over", roughness="rough")


def wet_shingle() -> Recipe:
    """Rounded stones of two sizes in grit, wet."""
    w = RecipeWriter()
    w.section("Stones")
    w.add("large", "pattern.cobbles", size=42.0, joint=3.0, jitter=1.0, even=3, seed=4, opened=("size",))
    w.add("large domes", "piece.dome", {"pieces": "large"}, width=14.0, flat=0.55, corners=16.0, spread=0.45, seed=3)
    w.add("large kept", "piece.share", {"pieces": "large"}, share=0.64, seed=7)
    w.add("large stones", "combine.blend", {"lower": "large domes", "upper": "large kept"}, mode="multiply")
    w.add("small", "pattern.cobbles", size=13.0, joint=1.2, jitter=1.0, even=2, seed=9)
    w.add("small domes", "piece.dome", {"pieces": "small"}, width=4.5, flat=0.55, corners=4.5, spread=0.5, seed=5)
    w.add("pits", "noise.clouds", size=9.0, octaves=6, gain=0.6, seed=2)
    w.add("large relief", "adjust.relief", {"field": "large stones"}, rise=15.0, middle=0.25)
    w.add("small relief", "adjust.relief", {"field": "small domes"}, rise=5.5, middle=0.2)
    w.add("bed", "combine.join", {"lower": "small relief", "upper": "large relief"}, feather=0.4)
    w.add("roughened", "adjust.relief", {"field": "pits"}, rise=0.5)
    w.add("relief", "combine.sum", {"first": "bed", "second": "roughened"}, how="add")
    w.section("Colour")
    w.add("who", "combine.winner", {"lower": "small relief", "upper": "large relief"}, feather=0.5)
    w.add(
        "large tones",
        "colour.pieces",
        {"pieces": "large"},
        colours="#3B3F45,#6A655C,#8A8171,#4B352C,#5B6066,#A39A88,#2E3338",
        joint="#2B2722",
        seed=8,
    )
    w.add(
        "small tones",
        "colour.pieces",
        {"pieces": "small"},
        colours="#4A4640,#7B7263,#5C4A3C,#8D8677,#33363A",
        joint="#241F1A",
        seed=6,
    )
    w.add("bands", "noise.warped", size=24.0, shove=10.0, octaves=6, gain=0.6, seed=14)
    w.add("large veined", "colour.vary", {"colour": "large tones", "field": "bands"}, lightness=0.45, warmth=0.12)
    w.add("stones", "combine.colours_by_mask", {"lower": "small tones", "upper": "large veined", "mask": "who"})
    w.add("flecked", "colour.vary", {"colour": "stones", "field": "pits"}, lightness=0.25)
    w.section("Wet")
    w.add("hollows", "form.curvature", {"field": "relief"}, rise=1.0, radius=10.0)
    w.add("wetness", "adjust.threshold", {"field": "hollows"}, at=0.52, soft=0.5, opened=("at",))
    w.add("dry", "adjust.range", {"field": "wetness"}, low=0.16, high=0.42)
    w.add("dark", "colour.vary", {"colour": "flecked", "field": "wetness"}, lightness=0.3)
    return w.recipe(height="relief", colour="dark", roughness="dry")


def limewash() -> Recipe:
    """Brushed limewash over a floated lime render, worn where it stands proud."""
    w = RecipeWriter()
    w.section("Render")
    w.add("float", "noise.warped", size=320.0, shove=90.0, octaves=8, gain=0.55, seed=3)
    w.add("sand", "noise.clouds", size=6.0, octaves=5, gain=0.75, seed=5)
    w.add("grit", "marks.speckle", density=20_000.0, size=1.6, size_spread=0.6, soft=0.5, seed=4)
    w.add("float relief", "adjust.relief", {"field": "float"}, rise=3.2, opened=("rise",))
    w.add("sand relief", "adjust.relief", {"field": "sand"}, rise=0.9)
    w.add("grit relief", "adjust.relief", {"field": "grit"}, rise=0.7, middle=0.0)
    w.add("floated", "combine.sum", {"first": "float relief", "second": "sand relief"}, how="add")
    w.add("render", "combine.sum", {"first": "floated", "second": "grit relief"}, how="add")
    w.add("render colour", "colour.stops", {"field": "sand"}, colours="#9A8D78,#B0A28A,#C2B69E")
    w.section("Wash")
    w.add("brush", "marks.hatching", spacing=2.6, length=130.0, width=2.2, angle=70.0, wander=24.0, seed=8)
    w.add("coats", "noise.clouds", size=210.0, octaves=8, gain=0.6, seed=9)
    w.add("thin", "combine.blend", {"lower": "coats", "upper": "brush"}, mode="overlay", strength=0.22)
    w.add("proud", "form.curvature", {"field": "render"}, rise=1.0, radius=7.0)
    w.add("wear", "combine.sum", {"first": "thin", "second": "proud"}, how="subtract", share=0.7)
    w.add("cover", "adjust.threshold", {"field": "wear"}, at=-0.02, soft=0.4, opened=("at",))
    w.add("wash", "colour.stops", {"field": "thin"}, colours="#CFC7B4,#E3DCCB,#EFEADD")
    w.add("colour", "combine.colours_by_mask", {"lower": "render colour", "upper": "wash", "mask": "cover"})
    w.add("coat", "adjust.relief", {"field": "cover"}, rise=0.35, middle=0.0)
    w.add("relief", "combine.sum", {"first": "render", "second": "coat"}, how="add")
    w.add("sheen", "adjust.range", {"field": "cover"}, low=0.95, high=0.84)
    return w.recipe(height="relief", colour="colour", roughness="sheen")


def crazed_tiles() -> Recipe:
    """Glazed wall tiles, half bond, the glaze crazed and pooled at the edges."""
    w = RecipeWriter()
    w.section("Tiles")
    w.add(
        "tiles",
        "pattern.units",
        length=150.0,
        height=75.0,
        joint=3.0,
        bond="half",
        opened=("length", "height", "joint"),
    )
    w.add(
        "body",
        "piece.relief",
        {"pieces": "tiles"},
        depth=1.8,
        edge_round=2.6,
        height_spread=0.25,
        tilt=0.4,
        cushion=0.22,
        seed=3,
    )
    w.section("Glaze")
    w.add("pool", "form.rim", {"pieces": "tiles"}, width=9.0, round_=0.6)
    w.add("mottle", "noise.warped", size=30.0, shove=12.0, octaves=8, gain=0.68, seed=6)
    w.add("depth", "combine.blend", {"lower": "mottle", "upper": "pool"}, mode="screen", strength=0.55)
    w.add(
        "tones",
        "colour.pieces",
        {"pieces": "tiles"},
        colours="#123F30,#1A513E,#22614B,#16473A",
        joint="#A79F8E",
        seed=5,
    )
    w.add("pooled", "colour.vary", {"colour": "tones", "field": "depth"}, lightness=-0.7, warmth=0.06)
    w.add(
        "crazing",
        "marks.cracks",
        size=19.0,
        width=0.42,
        vary=0.2,
        ragged=0.18,
        branches=0.5,
        seed=11,
        opened=("size", "width"),
    )
    w.add("joints", "form.joints", {"pieces": "tiles"})
    w.add("on glaze", "adjust.invert", {"field": "joints"})
    w.add("crazed", "combine.blend", {"lower": "crazing", "upper": "on glaze"}, mode="multiply")
    w.add("stain", "colour.plain", colour="#93A48D")
    w.add("stained", "adjust.range", {"field": "crazed"}, low=0.0, high=0.7)
    w.add("colour", "combine.colours_by_mask", {"lower": "pooled", "upper": "stain", "mask": "stained"})
    w.add("open", "adjust.relief", {"field": "crazed"}, rise=-0.06, middle=0.0)
    w.add("mortar grain", "noise.clouds", size=3.0, octaves=5, gain=0.7, seed=13)
    w.add("mortar", "combine.blend", {"lower": "mortar grain", "upper": "joints"}, mode="multiply")
    w.add("mortar relief", "adjust.relief", {"field": "mortar"}, rise=0.6, middle=0.0)
    w.add("cut", "combine.sum", {"first": "body", "second": "open"}, how="add")
    w.add("relief", "combine.sum", {"first": "cut", "second": "mortar relief"}, how="add")
    w.add("gloss", "adjust.range", {"field": "mottle"}, low=0.05, high=0.14)
    w.add("dull joints", "adjust.range", {"field": "joints"}, low=0.0, high=0.82)
    w.add("sheen", "combine.sum", {"first": "gloss", "second": "dull joints"}, how="highest")
    return w.recipe(height="relief", colour="colour", roughness="sheen")


def verdigris() -> Recipe:
    """Seamed copper gone green, brown where rain has kept it bare."""
    w = RecipeWriter()
    w.section("Sheet")
    w.add("seams", "pattern.seams", pitch=430.0, height=24.0, width=9.0, opened=("pitch",))
    w.add("buckle", "noise.clouds", size=520.0, octaves=3, gain=0.4, seed=3)
    w.add("buckled", "adjust.relief", {"field": "buckle"}, rise=5.0)
    w.add("sheet", "combine.sum", {"first": "seams", "second": "buckled"}, how="add")
    w.section("Patina")
    w.add("growth", "noise.warped", size=300.0, shove=90.0, octaves=9, gain=0.6, seed=7)
    w.add("runs", "marks.drips", density=26.0, length=420.0, width=16.0, wander=0.18, seed=5)
    w.add("washed", "combine.sum", {"first": "growth", "second": "runs"}, how="subtract", share=0.55)
    w.add("crust", "noise.billowed", size=16.0, octaves=6, gain=0.62, seed=9)
    w.add("edge", "combine.blend", {"lower": "washed", "upper": "crust"}, mode="overlay", strength=0.75)
    w.add("green", "adjust.threshold", {"field": "edge"}, at=0.3, soft=0.34, opened=("at",))
    w.add("patina", "colour.stops", {"field": "crust"}, colours="#3F7768,#6FA391,#A6C8B8,#CBDCCB")
    w.add("streaks", "noise.oriented", size=22.0, angle=90.0, spread=5.0, variety=0.7, seed=4)
    w.add("patina streaked", "colour.vary", {"colour": "patina", "field": "streaks"}, lightness=0.2, warmth=-0.08)
    w.add("bare", "colour.stops", {"field": "growth"}, colours="#2F1E16,#5A3726,#8A5638")
    w.add("colour", "combine.colours_by_mask", {"lower": "bare", "upper": "patina streaked", "mask": "green"})
    w.add("crusted", "combine.blend", {"lower": "crust", "upper": "green"}, mode="multiply")
    w.add("crust relief", "adjust.relief", {"field": "crusted"}, rise=0.5, middle=0.0)
    w.add("relief", "combine.sum", {"first": "sheet", "second": "crust relief"}, how="add")
    w.add("sheen", "adjust.range", {"field": "green"}, low=0.34, high=0.86)
    w.add("metal", "adjust.range", {"field": "green"}, low=0.95, high=0.0)
    return w.recipe(height="relief", colour="colour", roughness="sheen", metalness="metal")


def tarred_boards() -> Recipe:
    """Sawn deck boards under old tar, worn through along the grain."""
    w = RecipeWriter()
    w.section("Boards")
    w.add(
        "boards",
        "pattern.planks",
        width=144.0,
        length=1400.0,
        joint=6.0,
        runs="across",
        seed=3,
        opened=("width", "joint"),
    )
    w.add(
        "shape",
        "piece.relief",
        {"pieces": "boards"},
        depth=14.0,
        edge_round=3.5,
        height_spread=1.2,
        tilt=1.0,
        cushion=-0.6,
        seed=5,
    )
    w.section("Grain")
    w.add("rings", "noise.oriented", size=7.0, angle=0.0, spread=3.0, variety=0.9, seed=6)
    w.add("fine", "noise.oriented", size=1.8, angle=0.0, spread=4.0, variety=0.6, seed=7)
    w.add("way", "noise.clouds", size=260.0, octaves=4, gain=0.5, seed=8)
    w.add("flowing", "move.shove", {"field": "rings", "by": "way"}, reach=34.0, angle=90.0)
    w.add("grain", "combine.blend", {"lower": "flowing", "upper": "fine"}, mode="overlay", strength=0.6)
    w.add("checks", "marks.scratches", density=70.0, length=260.0, width=1.1, angle=0.0, spread=3.0, curl=4.0, seed=9)
    w.add("grain relief", "adjust.relief", {"field": "grain"}, rise=0.9, opened=("rise",))
    w.add("check relief", "adjust.relief", {"field": "checks"}, rise=-2.0, middle=0.0)
    w.add("sawn", "combine.sum", {"first": "shape", "second": "grain relief"}, how="add")
    w.add("relief", "combine.sum", {"first": "sawn", "second": "check relief"}, how="add")
    w.section("Tar")
    w.add(
        "wood tones",
        "colour.pieces",
        {"pieces": "boards"},
        colours="#4E3D2B,#5C4833,#66543D,#453626",
        joint="#0B0A09",
        seed=4,
    )
    w.add("wood", "colour.vary", {"colour": "wood tones", "field": "grain"}, lightness=0.7, warmth=0.1)
    w.add("tread", "noise.clouds", size=380.0, octaves=7, gain=0.6, seed=11)
    w.add("streaks", "noise.oriented", size=20.0, angle=0.0, spread=3.0, variety=0.9, seed=12)
    w.add("worn", "combine.blend", {"lower": "tread", "upper": "streaks"}, mode="soft light", strength=1.0)
    w.add("tar cover", "adjust.threshold", {"field": "worn"}, at=0.74, soft=0.5, opened=("at",))
    w.add("tar", "colour.stops", {"field": "fine"}, colours="#14110E,#1F1A16,#2C251F")
    w.add("through", "combine.colours_by_mask", {"lower": "tar", "upper": "wood", "mask": "tar cover"})
    w.add("crevices", "colour.vary", {"colour": "through", "field": "checks"}, lightness=-1.2)
    w.add("sheen", "adjust.range", {"field": "tar cover"}, low=0.34, high=0.8)
    return w.recipe(height="relief", colour="crevices", roughness="sheen")


def road() -> Recipe:
    """Stone in binder, cracked, with a cut-out patch and a polished wheel track."""
    w = RecipeWriter()
    w.section("Stones")
    w.add("coarse", "pattern.cobbles", size=12.0, joint=1.4, jitter=1.0, even=2, seed=3, opened=("size",))
    w.add("left bare", "piece.drop", {"pieces": "coarse"}, share=0.3, seed=6)
    w.add("bare", "piece.dome", {"pieces": "left bare"}, width=4.0, flat=0.75, spread=0.6, seed=4)
    w.add("fines", "noise.clouds", size=4.0, octaves=5, gain=0.75, seed=5)
    w.add("stone relief", "adjust.relief", {"field": "bare"}, rise=2.6, middle=0.2)
    w.add("fine relief", "adjust.relief", {"field": "fines"}, rise=0.9)
    w.add("mat", "combine.smooth", {"first": "stone relief", "second": "fine relief"}, takes="highest", soft=0.4)
    w.section("Track")
    w.add("across", "relief.position", runs="mirrored across")
    w.add("track", "adjust.curve", {"field": "across"}, dark=0.05, middle=0.85, light=0.95)
    w.add("wander", "noise.clouds", size=600.0, octaves=5, gain=0.5, seed=8)
    w.add("polish", "combine.blend", {"lower": "track", "upper": "wander"}, mode="overlay", strength=0.6)
    w.section("Cracks and patch")
    w.add(
        "cracks",
        "marks.cracks",
        size=380.0,
        width=7.0,
        vary=0.5,
        ragged=0.7,
        branches=0.5,
        seed=9,
        opened=("size", "width"),
    )
    w.add("crack relief", "adjust.relief", {"field": "cracks"}, rise=-5.0, middle=0.0)
    w.add("patch shape", "source.shape", shape="box", size=420.0, right=380.0, up=820.0, turn=4.0, soft=1.0)
    w.add("patch", "move.shove", {"field": "patch shape", "by": "fines"}, reach=1.5, angle=45.0)
    w.add("patch relief", "adjust.relief", {"field": "patch"}, rise=2.2, middle=0.0)
    w.add("cut line", "form.distance", {"field": "patch"}, reach=7.0, side="both")
    w.add("cut relief", "adjust.relief", {"field": "cut line"}, rise=-2.0, middle=0.0)
    w.add("cracked", "combine.sum", {"first": "mat", "second": "crack relief"}, how="add")
    w.add("patched", "combine.sum", {"first": "cracked", "second": "patch relief"}, how="add")
    w.add("relief", "combine.sum", {"first": "patched", "second": "cut relief"}, how="add")
    w.section("Colour")
    w.add(
        "stone tones",
        "colour.pieces",
        {"pieces": "coarse"},
        colours="#55524D,#7A756C,#8E877A,#66625E,#9C968A",
        joint="#7A756C",
        seed=7,
    )
    w.add("binder", "colour.stops", {"field": "fines"}, colours="#242322,#34322F,#45423E")
    w.add("shown", "combine.winner", {"lower": "fine relief", "upper": "stone relief"}, feather=0.6)
    w.add("matrix", "combine.colours_by_mask", {"lower": "binder", "upper": "stone tones", "mask": "shown"})
    w.add("dusty", "colour.vary", {"colour": "matrix", "field": "polish"}, lightness=0.22, warmth=0.05)
    w.add("fresh tone", "colour.plain", colour="#262524")
    w.add("fresh", "adjust.range", {"field": "patch"}, low=0.0, high=0.72)
    w.add("with patch", "combine.colours_by_mask", {"lower": "dusty", "upper": "fresh tone", "mask": "fresh"})
    w.add("tarred cut", "adjust.range", {"field": "cut line"}, low=0.0, high=0.8)
    w.add("pitch", "colour.plain", colour="#141313")
    w.add("sealed", "combine.colours_by_mask", {"lower": "with patch", "upper": "pitch", "mask": "tarred cut"})
    w.add("dark cracks", "combine.colours_by_mask", {"lower": "sealed", "upper": "pitch", "mask": "cracks"})
    w.add("sheen", "adjust.range", {"field": "polish"}, low=0.9, high=0.56)
    return w.recipe(height="relief", colour="dark cracks", roughness="sheen")


def seat_cloth() -> Recipe:
    """Twill of two yarns with a nap of fibres, for the seats of the buffet."""
    w = RecipeWriter()
    w.section("Weave")
    w.add("threads", "pattern.threads", size=1.6, weave="twill", fill=0.95, opened=("size",))
    w.add("weave", "pattern.weave", size=1.6, weave="twill", fill=0.95)
    w.add("uneven", "noise.oriented", size=3.0, angle=90.0, spread=8.0, variety=0.9, seed=3)
    w.add("slubs", "combine.blend", {"lower": "weave", "upper": "uneven"}, mode="overlay", strength=0.35)
    w.add("twist", "noise.oriented", size=0.5, angle=58.0, spread=8.0, variety=0.4, seed=6)
    w.add("twisted", "combine.blend", {"lower": "slubs", "upper": "twist"}, mode="soft light", strength=0.8)
    w.add("body", "adjust.relief", {"field": "twisted"}, rise=1.1, opened=("rise",))
    w.section("Nap")
    w.add("fibres", "marks.fibres", density=90_000.0, length=5.0, width=0.12, curl=200.0, seed=5)
    w.add("nap", "adjust.relief", {"field": "fibres"}, rise=0.16, middle=0.0)
    w.add("relief", "combine.sum", {"first": "body", "second": "nap"}, how="add")
    w.section("Colour")
    w.add(
        "yarns",
        "colour.pieces",
        {"pieces": "threads"},
        colours="#1F3B36,#29504A,#35635A,#1B332F,#8A6A34",
        joint="#0E1513",
        seed=4,
    )
    w.add("lit yarns", "colour.vary", {"colour": "yarns", "field": "twisted"}, lightness=1.1)
    w.add("fluff tone", "colour.plain", colour="#6F8A80")
    w.add("fluff", "adjust.range", {"field": "fibres"}, low=0.0, high=0.5)
    w.add("napped", "combine.colours_by_mask", {"lower": "lit yarns", "upper": "fluff tone", "mask": "fluff"})
    w.add("rubbed", "noise.clouds", size=50.0, octaves=5, gain=0.55, seed=8)
    w.add("colour", "colour.vary", {"colour": "napped", "field": "rubbed"}, lightness=0.18)
    w.add("sheen", "adjust.range", {"field": "slubs"}, low=0.95, high=0.78)
    w.add("fibre light", "colour.plain", colour="#4F6B60")
    w.add("fibre ends", "combine.colours_by_mask", {"lower": "fibre light", "upper": "fluff tone", "mask": "fluff"})
    return w.recipe(height="relief", colour="colour", roughness="sheen", sheen="fibre ends")


MATERIALS = (
    Stock(
        "Oyster terrazzo",
        terrazzo,
        (900.0, 900.0),
        "chips of oyster, marble and dark stone in a pale binder, ground flat",
    ),
    Stock("Riven slate roof", slate_roof, (1000.0, 1200.0), "slates of 500 × 250 with a lap of 100, lichened"),
    Stock("Wet shingle bed", wet_shingle, (600.0, 600.0), "rounded stones of two sizes in grit, wet in the hollows"),
    Stock(
        "Limewash on render",
        limewash,
        (1200.0, 1200.0),
        "brushed limewash on floated lime render, worn where it stands proud",
    ),
    Stock("Crazed glazed tiles", crazed_tiles, (612.0, 624.0), "bottle-green wall tiles, the glaze pooled and crazed"),
    Stock("Verdigris copper", verdigris, (1720.0, 1720.0), "seamed copper gone green, brown where rain keeps it bare"),
    Stock("Tarred boards", tarred_boards, (1440.0, 1440.0), "sawn deck boards under old tar, worn along the grain"),
    Stock("Worn road", road, (1200.0, 1200.0), "stone in binder, cracked, with a patch and a polished track"),
    Stock("Seat cloth", seat_cloth, (96.0, 96.0), "twill of two yarns with a nap of fibres"),
)
"""Whole materials."""


def stock_named(name: str) -> Stock | None:
    """The stock recipe of a name, upper or lower case."""
    return next((stock for stock in MATERIALS if stock.name.lower() == name.lower()), None)
