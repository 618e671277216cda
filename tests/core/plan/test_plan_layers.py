"""Whole build-ups through the planner: every kind of layer, bundles, surfaces within surfaces, random stacks."""

import msgspec
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brave_tessel.core.buildup.kinds.bundle import BundleWhat
from brave_tessel.core.buildup.kinds.decal import DecalWhat
from brave_tessel.core.buildup.kinds.inscription import InscriptionWhat
from brave_tessel.core.buildup.kinds.painted import PaintedWhat
from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.buildup.kinds.run import RunWhat
from brave_tessel.core.buildup.kinds.scatter import ScatterWhat
from brave_tessel.core.buildup.kinds.surface import SurfaceWhat
from brave_tessel.core.buildup.kinds.water import WaterWhat
from brave_tessel.core.buildup.where import MODES
from brave_tessel.core.errors import DoesNotFitError, MissingError
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import (
    Layer,
    MapMix,
    PieceKind,
    Placement,
    Rule,
    Scatter,
    Stroke,
    Surface,
    every_layer,
    layer_of,
    layer_path,
)
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.kernels import bands
from brave_tessel.core.maps import MapKind
from brave_tessel.core.operation import family
from brave_tessel.core.plan.joins import finish
from brave_tessel.core.plan.planner import Planner, seated_layers
from brave_tessel.core.recipe.stock import STOCK
from brave_tessel.core.repeat.resample import resample_wrapped
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.cache import Cache
from brave_tessel.engine.evaluate import Evaluation
from brave_tessel.formats.documents import decode_job, encode_job
from brave_tessel.formats.lettering import letters

SIZE = (300.0, 240.0)


def no_pixels(_blob):
    return np.full((8, 8, 3), 0.5, np.float32)


def surface(*layers, id="s"):
    return Surface(id=id, name=id, width_mm=SIZE[0], height_mm=SIZE[1], layers=layers)


def planner(*surfaces):
    return Planner(Job(surfaces=surfaces), no_pixels, load_letters=letters)


def evaluation():
    return Evaluation(Cache(400_000_000))


def finished(made, px=60, *others):
    run = evaluation()
    return run.value(planner(made, *others).finished(made, Grid.for_repeat(*SIZE, px))), run


def base(**more):
    return Layer(id="base", name="Ground", what=RecipeWhat(recipe=STOCK["Rectangular units"]()), **more)


def plain(id="p", **more):
    return Layer(id=id, name=id, **{"what": PlainWhat(colour="#C03020"), "seat": Setting(op="seat.over"), **more})


def rule(op, mode="keep", **more):
    values = more.pop("values", {})
    return Rule(id=more.pop("id", op), mode=mode, rule=Setting(op=op, values=values), **more)


KINDS = {
    "plain": PlainWhat(),
    "water": WaterWhat(water=Setting(op="water.standing", values={"level": -0.5})),
    "decal": DecalWhat(
        recipe=STOCK["Clouds"]() if "Clouds" in STOCK else next(iter(STOCK.values()))(),
        placement=Placement(x_mm=20, y_mm=20, width_mm=90, height_mm=60),
    ),
    "run": RunWhat(
        points=((0.0, 120.0), (150.0, 160.0), (300.0, 120.0)), stamp=Setting(op="stamp.beading", values={"height": 3.0})
    ),
    "inscription": InscriptionWhat(text="Baths", placement=Placement(x_mm=150, y_mm=120, width_mm=180, height_mm=50)),
    "painted": PaintedWhat(
        strokes=(
            Stroke(id="a", points=((10, 10), (290, 200)), into="raise", amount=2.0),
            Stroke(id="b", points=((0, 0),), into="colour"),
        )
    ),
    "scatter": ScatterWhat(
        scatter=Scatter(
            kinds=(PieceKind(id="k", name="Pebble"),), strew=Setting(op="scatter.strew", values={"pieces": 12})
        )
    ),
}


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_every_kind_changes_something_and_closes(kind):
    layer = Layer(id="l", name=kind, what=KINDS[kind], seat=Setting(op="seat.over"))
    alone, _ = finished(surface(base()))
    done, run = finished(surface(base(), layer))
    assert run.faults == {}
    changed = max(np.abs(done[k] - alone[k]).max() for k in (MapKind.BASE_COLOUR, MapKind.HEIGHT, MapKind.ROUGHNESS))
    assert changed > 0.01
    for pixels in done.maps.values():
        assert np.isfinite(pixels).all()


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_every_kind_survives_the_file_and_stays_where_it_is_not_covered(kind):
    nowhere = (rule("where.band", "keep", values={"width": 60.0, "at": 120.0, "soft": 0.0}),)
    layer = Layer(id="l", name=kind, what=KINDS[kind], where=nowhere, seat=Setting(op="seat.over"))
    job = Job(surfaces=(surface(base(), layer),))
    assert decode_job(encode_job(job)) == job
    alone, _ = finished(surface(base()))
    done, _ = finished(surface(base(), layer))
    far = [0, 1, 2, 46, 47]
    assert np.abs(done[MapKind.BASE_COLOUR][far] - alone[MapKind.BASE_COLOUR][far]).max() < 1e-5


def test_a_passing_bundle_is_its_layers_within_its_where():
    inner = (plain("a"), plain("b", what=PlainWhat(colour="#205090")))
    loose, _ = finished(surface(base(), *inner))
    bundle = Layer(id="g", name="Bundle", what=BundleWhat(layers=inner, passing=True))
    held, _ = finished(surface(base(), bundle))
    for kind in held:
        assert held[kind] == pytest.approx(loose[kind], abs=1e-6)
    half = msgspec.structs.replace(
        bundle, where=(rule("where.band", values={"width": 100.0, "at": 120.0, "soft": 0.0}),)
    )
    part, _ = finished(surface(base(), half))
    ground, _ = finished(surface(base()))
    assert (part[MapKind.BASE_COLOUR][0] == ground[MapKind.BASE_COLOUR][0]).all()
    assert part[MapKind.BASE_COLOUR][24] == pytest.approx(loose[MapKind.BASE_COLOUR][24], abs=1e-6)


def test_a_closed_bundle_meets_what_lies_beneath_as_one():
    dots = plain(
        "a",
        where=(rule("where.shape", values={"width": 80.0, "height": 80.0, "soft": 0.0}),),
        seat=Setting(op="seat.over", values={"level": 2.0}),
    )
    bundle = Layer(
        id="g",
        name="Bundle",
        what=BundleWhat(layers=(dots,), passing=False),
        seat=Setting(op="seat.over", values={"drape": 1.0}),
    )
    done, run = finished(surface(base(), bundle))
    alone, _ = finished(surface(base()))
    assert run.faults == {}
    outside = np.abs(done[MapKind.HEIGHT] - alone[MapKind.HEIGHT]) < 1e-6
    assert 0.5 < outside.mean() < 0.97
    assert (done[MapKind.HEIGHT] - alone[MapKind.HEIGHT])[~outside].max() == pytest.approx(2.0, abs=0.05)


def test_ids_and_paths_reach_into_bundles():
    deep = Layer(id="deep", name="d", what=PlainWhat())
    outer = Layer(id="o", name="o", what=BundleWhat(layers=(Layer(id="i", name="i", what=BundleWhat(layers=(deep,))),)))
    made = surface(base(), outer)
    assert [layer.id for layer, _ in every_layer(made.layers)] == ["base", "o", "i", "deep"]
    assert layer_of(made, "deep") is deep
    assert layer_path(made, "deep") == ("surfaces", "s", "layers", "o", "what", "layers", "i", "what", "layers", "deep")
    with pytest.raises(MissingError):
        layer_of(made, "none")
    assert [layer.id for layer in seated_layers(made.layers)] == ["base", "deep"]
    closed = surface(base(), msgspec.structs.replace(outer, what=msgspec.structs.replace(outer.what, passing=False)))
    assert [layer.id for layer in seated_layers(closed.layers)] == ["base", "o"]


def test_another_surface_is_laid_in_whole_repeats_and_never_within_itself():
    tile = surface(base(), id="tile")
    wall = surface(Layer(id="w", name="w", what=SurfaceWhat(surface="tile", across=2, up=2)), id="wall")
    done, run = finished(wall, 64, tile)
    assert run.faults == {}
    height = done[MapKind.HEIGHT]
    half = height[:, : height.shape[1] // 2]
    assert height[:, height.shape[1] // 2 :] == pytest.approx(half, abs=0.05)
    itself = surface(base(), Layer(id="w", name="w", what=SurfaceWhat(surface="s")))
    done, run = finished(itself)
    assert isinstance(run.faults["w"], DoesNotFitError)
    assert MapKind.HEIGHT in done


def test_after_another_layer_follows_where_it_shows():
    spot = plain("spot", where=(rule("where.shape", values={"width": 100.0, "height": 100.0, "soft": 0.0}),))
    halo = plain("halo", what=PlainWhat(colour="#FFFFFF"), where=(rule("where.after", values={"layer": "spot"}),))
    hidden = plain("cover", where=(rule("where.band", values={"width": 60.0, "at": 150.0, "soft": 0.0}),))
    white = lambda done: (done[MapKind.BASE_COLOUR].min(2) > 0.9).mean()  # noqa: E731
    shows, _ = finished(surface(base(), spot, halo))
    assert white(shows) == pytest.approx(np.pi * 50**2 / (300 * 240), rel=0.1)
    covered, _ = finished(surface(base(), spot, hidden, halo))
    assert white(covered) < 0.7 * white(shows)
    says = msgspec.structs.replace(
        halo, where=(rule("where.after", values={"layer": "spot", "takes": "its coverage"}),)
    )
    assert white(finished(surface(base(), spot, hidden, says))[0]) == pytest.approx(white(shows), rel=0.02)
    gone = msgspec.structs.replace(halo, where=(rule("where.after", values={"layer": "no such"}),))
    assert white(finished(surface(base(), spot, gone))[0]) == 0


def test_a_hidden_rule_does_not_count():
    off = plain(where=(rule("where.band", values={"width": 10.0}, shown=False),))
    assert (
        finished(surface(base(), off))[0][MapKind.BASE_COLOUR]
        == finished(surface(base(), plain()))[0][MapKind.BASE_COLOUR]
    ).all()


def test_painting_replays_only_the_last_stroke_and_gives_the_same():
    strokes = tuple(
        Stroke(id=f"s{k}", points=((30.0 * k, 40.0), (30.0 * k + 80, 200.0)), into=("raise", "colour", "lower")[k % 3])
        for k in range(5)
    )
    layer = Layer(id="l", name="l", what=PaintedWhat(strokes=strokes))
    made = surface(base(), layer)
    run = evaluation()
    one = run.value(planner(made).finished(made, Grid.for_repeat(*SIZE, 60)))
    again = Stroke(id="z", points=((999.0, 999.0),), size_mm=0.5, into="smooth")
    whole = surface(base(), msgspec.structs.replace(layer, what=PaintedWhat(strokes=(*strokes, again))))
    other = evaluation().value(planner(whole).finished(whole, Grid.for_repeat(*SIZE, 60)))
    for kind in (MapKind.BASE_COLOUR, MapKind.ROUGHNESS):
        assert one[kind] == pytest.approx(other[kind], abs=1e-4)


def test_a_recipe_is_a_brushs_tip():
    stroke = Stroke(id="a", points=((150.0, 120.0),), size_mm=160.0, tip="recipe:Pebbles", spacing=0.5)
    layer = plain(where=(Rule(id="r", mode="keep", rule=Setting(op="where.painted"), strokes=(stroke,)),))
    done, run = finished(surface(base(), layer), 120)
    assert run.faults == {}
    red = done[MapKind.BASE_COLOUR][..., 0] - done[MapKind.BASE_COLOUR][..., 1]
    inside = red[28:68, 40:80]
    assert inside.std() > 0.02, "it has the recipe's grain"
    assert abs(red[:6]).max() < 0.2


# Random stacks --------------------------------------------------------------------------------------

RULES = [
    op
    for op in family("where")
    if op.id not in {"where.recipe", "where.painted", "where.id", "where.picture", "where.pieces", "where.noise"}
]
SOFT = {"where.hollows", "where.edges", "where.slope", "where.height"}


@st.composite
def layers(draw, count=4):
    made = [base()]
    for n in range(draw(st.integers(1, count))):
        where = tuple(
            Rule(
                id=f"r{n}{k}",
                mode=draw(st.sampled_from(MODES)),
                rule=Setting(op=draw(st.sampled_from([op.id for op in RULES]))),
                shape=Setting(
                    op="rule.shape", values={"strength": draw(st.floats(0.1, 1)), "invert": draw(st.booleans())}
                ),
            )
            for k in range(draw(st.integers(0, 2)))
        )
        seat = Setting(
            op=draw(st.sampled_from(["seat.by_height", "seat.over"])),
            values={"level": draw(st.floats(-1, 2)), "drape": draw(st.floats(0, 1))},
        )
        what = KINDS[draw(st.sampled_from(["plain", "water", "run", "painted", "inscription"]))]
        mixes = {
            MapKind.BASE_COLOUR: MapMix(
                mode=draw(st.sampled_from(["over", "multiply", "overlay"])), strength=draw(st.floats(0, 1))
            )
        }
        made.append(
            Layer(id=f"l{n}", name=f"l{n}", what=what, where=where, seat=seat, mixes=mixes, shown=draw(st.booleans()))
        )
    return surface(*made)


@settings(max_examples=15, deadline=None)
@given(layers())
def test_any_stack_is_the_same_before_and_after_saving_and_in_bands(made):
    job = Job(surfaces=(made,))
    back = decode_job(encode_job(job)).surfaces[0]
    assert back == made
    one, run = finished(made, 120)
    assert run.faults == {}
    workers = bands._WORKERS
    try:
        bands._WORKERS = 1
        whole, _ = finished(back, 120)
        bands._WORKERS = 5
        banded, _ = finished(back, 120)
    finally:
        bands._WORKERS = workers
    for kind in one:
        assert one[kind].tobytes() == whole[kind].tobytes(), kind
        assert banded[kind].tobytes() == whole[kind].tobytes(), kind


@given(layers())
def test_what_follows_from_the_relief_of_any_stack_is_that_of_the_whole_stack(made):
    whole, grid = planner(made), Grid.for_repeat(*SIZE, 60)
    plan, run = whole.surface(made, grid), Evaluation(Cache())
    told, own = run.value(plan.finished), finish(run.value(plan.stacks[-1]))
    assert all((told[kind] == own[kind]).all() for kind in own.maps)


@settings(max_examples=6, deadline=None)
@given(layers(count=3))
def test_any_stack_looks_the_same_at_512_as_at_2048_brought_down(made):
    small, _ = finished(made, 512)
    large, _ = finished(made, 2048)
    for kind in (MapKind.BASE_COLOUR, MapKind.ROUGHNESS):
        down = resample_wrapped(np.ascontiguousarray(large[kind]), small[kind].shape[:2])
        # Edges that are a pixel wide differ by up to a pixel.
        assert np.abs(down - small[kind]).mean() < 0.02, kind
