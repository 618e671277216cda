"""The demo job, "Saltreach Tide Baths": invented, made by scripts, the same at every run."""

from __future__ import annotations

import msgspec

from ..core.buildup.kinds.recipe import RecipeWhat
from ..core.buildup.kinds.source import SourceWhat
from ..core.gather.straighten import Corners
from ..core.job.document import Job, Palette, Source, Straightening
from ..core.job.layers import Band, Layer, Recipe, Rule, Step, Stroke, Surface
from ..core.job.light import FLOOR
from ..core.job.nodes import Setting
from ..core.maps import MapKind
from ..core.place.fitting import ask, change_of, fit_command
from ..core.place.site import site_of
from ..core.recipe.materials import stock_named
from ..core.recipe.stock import clouds_recipe, units_recipe
from ..core.repeat.mend import closed_size
from ..formats.job_file import OpenedJob, blob_name
from .finishes import copper_finish, dado_finish, render_finish, shingle_finish, slate_finish
from .floors import deck_finish, mosaic_finish, seat_finish, sign_surface, terrazzo_finish
from .pavilion import pavilion
from .photos import MOSAIC_CORNERS, MOSAIC_MM, SHINGLE_CORNERS, SHINGLE_MM, mosaic_photo, shingle_photo
from .strewn import scanned_render, strandline

_TESSERAE = Palette(id="tesserae", name="Mosaic panel", stops=("#22414A", "#2F6E6B", "#5FA39B", "#CBBE97", "#EFE7CF"))
TITLE = "Saltreach Tide Baths"


def _source(
    id: str, name: str, data: bytes, corners: Corners, size: tuple[float, float], px: tuple[int, int], overlap: float
) -> Source:
    return Source(
        id=id,
        name=name,
        blob=blob_name(data),
        file_name=f"{id}.png",
        width_px=px[0],
        height_px=px[1],
        straightening=Straightening(corners=corners, width_mm=size[0], height_mm=size[1]),
        light=Setting(op="gather.even_light", values={"wavelength": 420.0, "strength": 0.9}),
        mend=Setting(op="mend.best_cut", values={"overlap": overlap}),
    )


def _tile_layer() -> Layer:
    recipe = units_recipe(
        length=150.0,
        height=75.0,
        joint=3.0,
        bond="half",
        depth=1.6,
        edge_round=2.6,
        height_spread=0.22,
        tilt=0.35,
        cushion=0.18,
        colour="#1D5A45",
        spread=0.42,
        drift=0.35,
        joint_colour="#A79F8E",
        on_pieces=0.11,
        in_joints=0.9,
        seed=4,
    )
    return Layer(id="tile", name="Bottle-green tile", what=RecipeWhat(recipe=recipe), hatch="slant")


def _glaze_layer() -> Layer:
    """Glaze pooled and mottled: colour and gloss only, no height."""
    recipe = Recipe(
        steps=(
            Step(name="mottle", op="noise.clouds", values={"size": 30.0, "octaves": 8, "gain": 0.66, "seed": 21}),
            Step(
                name="tint",
                op="colour.ramp",
                values={"low": "#154837", "high": "#2F7358"},
                made_from={"field": "mottle"},
            ),
            Step(name="sheen", op="adjust.range", values={"low": 0.05, "high": 0.2}, made_from={"field": "mottle"}),
        ),
        yields={MapKind.BASE_COLOUR: "tint", MapKind.ROUGHNESS: "sheen"},
    )
    where = (
        Rule(
            id="glaze-faces",
            mode="keep",
            rule=Setting(op="where.height", values={"above": -0.7, "below": 20.0, "soften": 0.6}),
        ),
        Rule(
            id="glaze-pools",
            mode="keep",
            rule=Setting(op="where.noise", values={"size": 60.0, "cover": 0.5, "soften": 0.6, "octaves": 8, "seed": 6}),
        ),
    )
    maps = frozenset({MapKind.BASE_COLOUR, MapKind.ROUGHNESS})
    seat = Setting(op="seat.by_height", values={"level": 1.0, "feather": 0.0, "drape": 1.0})
    return Layer(
        id="glaze",
        name="Pooled glaze",
        what=RecipeWhat(recipe=recipe),
        hatch="upright",
        maps=maps,
        where=where,
        seat=seat,
    )


def _limewash_layer() -> Layer:
    recipe = clouds_recipe(size=14.0, rise=0.9, low="#A39C8C", high="#DAD4C6", rough=0.88, seed=33)
    steps = (
        msgspec.structs.replace(recipe.steps[0], values={"size": 14.0, "octaves": 6, "gain": 0.7, "seed": 33}),
        *recipe.steps[1:],
    )
    recipe = msgspec.structs.replace(recipe, steps=steps)
    where = (
        Rule(
            id="wash-patches",
            mode="keep",
            rule=Setting(
                op="where.noise", values={"size": 130.0, "cover": 0.2, "soften": 0.08, "octaves": 9, "seed": 14}
            ),
        ),
        Rule(
            id="wash-painted",
            mode="add",
            rule=Setting(op="where.painted"),
            strokes=(
                Stroke(
                    id="stroke-1",
                    points=((1180.0, 214.0), (1230.0, 230.0), (1290.0, 222.0)),
                    size_mm=42.0,
                    hardness=0.75,
                    strength=1.0,
                ),
                Stroke(
                    id="stroke-2",
                    points=((420.0, 806.0), (470.0, 842.0), (540.0, 850.0)),
                    size_mm=56.0,
                    hardness=0.75,
                    strength=1.0,
                ),
            ),
        ),
        Rule(
            id="wash-worn",
            mode="cut",
            rule=Setting(
                op="where.noise", values={"size": 18.0, "cover": 0.34, "soften": 0.12, "octaves": 7, "seed": 40}
            ),
        ),
    )
    seat = Setting(op="seat.by_height", values={"level": 0.25, "feather": 0.35, "drape": 0.75})
    return Layer(id="limewash", name="Limewash", what=RecipeWhat(recipe=recipe), hatch="dots", where=where, seat=seat)


def _render_surface() -> Surface:
    base = Layer(
        id="render",
        name="Lime render",
        hatch="dots",
        what=RecipeWhat(recipe=clouds_recipe(size=26.0, rise=2.6, low="#9C917F", high="#B9AE9A", rough=0.93, seed=51)),
    )
    wash = clouds_recipe(size=130.0, rise=0.9, low="#C9C1AE", high="#DED7C6", rough=0.86, seed=8)
    top = Layer(
        id="wash",
        name="Salt-worn limewash",
        what=RecipeWhat(recipe=wash),
        hatch="grid",
        where=(
            Rule(
                id="wash-cover",
                mode="keep",
                rule=Setting(
                    op="where.noise", values={"size": 240.0, "cover": 0.86, "soften": 0.12, "octaves": 10, "seed": 5}
                ),
            ),
            Rule(
                id="wash-high",
                mode="cut",
                rule=Setting(op="where.height", values={"above": 0.75, "below": 20.0, "soften": 0.3}),
            ),
        ),
        seat=Setting(op="seat.by_height", values={"level": 0.2, "feather": 0.5, "drape": 0.85}),
    )
    return Surface(
        id="limewash-wall",
        name="Limewash on render",
        width_mm=1500.0,
        height_mm=1500.0,
        layers=(base, top, *render_finish()),
    )


def _plaster() -> Surface:
    """The calm limewash of the hall, out of the spray."""
    wash = clouds_recipe(size=150.0, rise=1.1, low="#D3CAB6", high="#E6DFCF", rough=0.86, seed=21)
    fine = clouds_recipe(size=22.0, rise=0.35, low="#C6BCA7", high="#DCD4C2", rough=0.9, seed=37)
    brushed = Rule(
        id="plaster-worn", mode="keep",
        rule=Setting(op="where.noise", values={"size": 190.0, "cover": 0.3, "soften": 0.4, "octaves": 9, "seed": 12}),
    )  # fmt: skip
    layers = (
        Layer(id="plaster-wash", name="Limewash", what=RecipeWhat(recipe=wash), hatch="dots"),
        Layer(id="plaster-fine", name="Worn by hands", what=RecipeWhat(recipe=fine), hatch="grid", where=(brushed,),
              seat=Setting(op="seat.by_height", values={"level": -0.1, "feather": 0.6, "drape": 0.9})),
    )  # fmt: skip
    return Surface(id="plaster", name="Limewash indoors", width_mm=1836.0, height_mm=1836.0, layers=layers)


def _stone() -> Surface:
    """Cast stone of the dressings."""
    body = clouds_recipe(size=7.0, rise=0.28, low="#AFA695", high="#CBC3B2", rough=0.72, seed=45)
    broad = clouds_recipe(size=120.0, rise=0.15, low="#9B9484", high="#B9B2A2", rough=0.66, seed=9)
    worn = Rule(
        id="stone-worn", mode="keep",
        rule=Setting(op="where.noise", values={"size": 160.0, "cover": 0.35, "soften": 0.5, "octaves": 8, "seed": 3}),
    )  # fmt: skip
    layers = (
        Layer(id="stone-body", name="Cast stone", what=RecipeWhat(recipe=body), hatch="stones"),
        Layer(id="stone-worn", name="Handled", what=RecipeWhat(recipe=broad), hatch="dots", where=(worn,),
              seat=Setting(op="seat.by_height", values={"level": 0.0, "feather": 0.4, "drape": 1.0})),
    )  # fmt: skip
    return Surface(id="cast-stone", name="Cast stone", width_mm=924.0, height_mm=924.0, layers=layers)


def _tile_and_glaze() -> tuple[Layer, ...]:
    return _tile_layer(), _glaze_layer(), dado_finish()[0]


def _photo_surface(
    source: Source, id: str, name: str, finish: tuple[Layer, ...], *, rise: float, broad: float, rough: float
) -> Surface:
    width, height = closed_size(source)
    what = SourceWhat(
        source=source.id,
        height=Setting(op="estimate.height", values={"rise": rise, "broad": broad}),
        roughness=Setting(op="estimate.roughness", values={"mean": rough}),
    )
    layer = Layer(id=f"{id}-photo", name=source.name, what=what, hatch="stones")
    return Surface(id=id, name=name, width_mm=width, height_mm=height, layers=(layer, *finish), beat=layer.id)


def _from_stock(id: str, name: str, finish: tuple[Layer, ...]) -> Surface:
    """A surface of one stock recipe, at the repeat the recipe closes on."""
    stock = stock_named(name)
    assert stock is not None
    layer = Layer(id=f"{id}-layer", name=stock.name, what=RecipeWhat(recipe=stock.make()), hatch="stones")
    return Surface(
        id=id, name=stock.name, width_mm=stock.repeat_mm[0], height_mm=stock.repeat_mm[1], layers=(layer, *finish)
    )


SKIRTING = Band(id="band-skirting", name="Coved skirting", low=600.0, high=704.0)
_FITS = (
    ("passage-north", "tile", False, "joint"),
    ("bench", "tile", True, "stretch"),
    ("roof", "slates", False, "unit"),
    ("roof", "slates", True, "unit"),
)
"""What a builder would have done before: part, what is laid, along or up, and by what it fits."""


def _set_out(job: Job) -> Job:
    """The job with courses fitted where they would be cut; two walls are left as they came."""
    for part, laid, along, way in _FITS:
        site = site_of(job)
        standing = site.of_part(part)
        assert standing is not None
        row = next(k for k, one in enumerate(standing.part.laid) if one.id == laid)
        asked = ask(site, part, row, along=along)
        best = asked.fit().best(way)
        assert best is not None, part
        job = fit_command(part, asked.laid, change_of(asked, best)).apply(job)
    return job


_FLOORS = {"mosaic-floor", "shingle-bed", "terrazzo-floor", "deck"}
"""Surfaces that are walked on."""


def demo_job() -> OpenedJob:
    """The whole demo job with its photos."""
    mosaic, shingle = mosaic_photo(), shingle_photo()
    panel = _source("mosaic", "Mosaic panel", mosaic, MOSAIC_CORNERS, MOSAIC_MM, (2240, 1680), 80.0)
    stones = _source("shingle", "Wet shingle", shingle, SHINGLE_CORNERS, SHINGLE_MM, (2048, 1536), 90.0)
    broken = Setting(op="breakup.hex", values={"across": 2, "up": 2, "patch": 150.0, "crisp": 0.7})
    stones = msgspec.structs.replace(stones, breakup=broken)
    dado = Surface(
        id="dado",
        name="Limewashed dado tile",
        width_mm=1224.0,
        height_mm=1248.0,
        beat="tile",
        rows=(8, 8),
        layers=(*_tile_and_glaze(), _limewash_layer(), *dado_finish()[1:]),
    )
    surfaces = (
        dado,
        _render_surface(),
        _photo_surface(panel, "mosaic-floor", "Mosaic floor", mosaic_finish(), rise=0.8, broad=14.0, rough=0.4),
        _photo_surface(stones, "shingle-bed", "Wet shingle", shingle_finish(), rise=9.0, broad=60.0, rough=0.35),
        *(
            _from_stock(id, name, finish())
            for id, name, finish in (
                ("terrazzo-floor", "Oyster terrazzo", terrazzo_finish),
                ("slate-roof", "Riven slate roof", slate_finish),
                ("copper-roof", "Verdigris copper", copper_finish),
                ("deck", "Tarred boards", deck_finish),
                ("seat", "Seat cloth", seat_finish),
            )
        ),
        sign_surface(),
        _plaster(),
        _stone(),
    )
    scan, files = scanned_render()
    sources = (panel, stones, scan, strandline())
    surfaces = tuple(msgspec.structs.replace(one, stance=FLOOR) if one.id in _FLOORS else one for one in surfaces)
    surfaces = tuple(
        msgspec.structs.replace(one, bands=(SKIRTING,)) if one.id == "terrazzo-floor" else one for one in surfaces
    )
    job = Job(
        id="job-saltreach", name=TITLE, sources=sources, surfaces=surfaces, palettes=(_TESSERAE,), scene=pavilion()
    )
    return OpenedJob(_set_out(job), {panel.blob: mosaic, stones.blob: shingle, **files})
