"""Keys, caching, faults that stay where they belong, and the same look at every size."""

import msgspec
import numpy as np
import pytest

from brave_tessel.core.buildup.kinds.painted import PaintedWhat
from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.buildup.kinds.source import SourceWhat
from brave_tessel.core.buildup.kinds.water import WaterWhat
from brave_tessel.core.errors import CancelledError, MissingError, UnknownOperationError
from brave_tessel.core.job.commands import Set
from brave_tessel.core.job.document import Job, Source, Straightening
from brave_tessel.core.job.layers import Layer, MapMix, Rule, Step, Stroke, Surface
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.light.lighting import Lighting
from brave_tessel.core.light.presets import make_preset
from brave_tessel.core.maps import MapKind
from brave_tessel.core.plan.joins import finish
from brave_tessel.core.plan.planner import Planner
from brave_tessel.core.recipe.stock import clouds_recipe, units_recipe
from brave_tessel.core.repeat.resample import resample_wrapped
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.cache import Cache
from brave_tessel.engine.evaluate import Evaluation

LIGHT = Lighting()


def surface(**change):
    layers = (
        Layer(id="tile", name="Tile", what=RecipeWhat(recipe=units_recipe())),
        Layer(
            id="wash",
            name="Wash",
            what=RecipeWhat(recipe=clouds_recipe(size=30)),
            where=(Rule(id="r", rule=Setting(op="where.noise", values={"size": 150.0, "cover": 0.4})),),
            seat=Setting(op="seat.by_height", values={"level": 0.5, "feather": 0.2, "drape": 1.0}),
        ),
    )
    return Surface(id="s", name="S", width_mm=612.0, height_mm=624.0, layers=layers, **change)


def no_pixels(_blob):
    raise MissingError("source")


def planner(made):
    return Planner(Job(surfaces=(made,)), no_pixels)


def grid(px=128):
    return Grid.for_repeat(612.0, 624.0, px)


def test_names_and_hatches_are_left_out_of_the_keys():
    plain = surface()
    renamed = msgspec.structs.replace(
        plain, name="Other", layers=tuple(msgspec.structs.replace(x, name="x", hatch="dots") for x in plain.layers)
    )
    assert planner(plain).lit(plain, grid(), LIGHT).key == planner(renamed).lit(renamed, grid(), LIGHT).key


@pytest.mark.parametrize(
    "path",
    [
        ("layers", "wash", "seat", "values", "level"),
        ("layers", "wash", "where", "r", "rule", "values", "cover"),
        ("layers", "tile", "what", "recipe", "steps", "units", "values", "joint"),
        ("width_mm",),
    ],
)
def test_every_value_that_matters_is_in_the_key(path):
    plain = surface()
    job = Set(path=("surfaces", "s", *path), value=7.5, label="x").apply(Job(surfaces=(plain,)))
    other = job.surfaces[0]
    key = planner(plain).finished(plain, Grid.for_repeat(plain.width_mm, 624, 64)).key
    assert Planner(job, no_pixels).finished(other, Grid.for_repeat(other.width_mm, 624, 64)).key != key


def test_a_change_recomputes_only_what_hangs_on_it():
    cache, plain = Cache(), surface()
    Evaluation(cache).value(planner(plain).lit(plain, grid(), LIGHT))
    job = Set(path=("surfaces", "s", "layers", "wash", "seat", "values", "level"), value=1.0, label="x").apply(
        Job(surfaces=(plain,))
    )
    run = Evaluation(cache)
    run.value(Planner(job, no_pixels).lit(job.surfaces[0], grid(), LIGHT))
    assert "units" not in run.costs_ms
    assert "clouds" not in run.costs_ms
    assert set(run.costs_ms) == {"Wash", "S", "Occlusion", "Normals", "Relief", "Shadow", "Light"}


def stained(strength, **change):
    """The surface with a layer in colour and roughness alone, one that lies in the hollows beneath, and one above."""
    stain = Layer(
        id="stain",
        name="Stain",
        what=RecipeWhat(recipe=clouds_recipe(size=80)),
        maps=frozenset({MapKind.BASE_COLOUR, MapKind.ROUGHNESS}),
        mixes={MapKind.BASE_COLOUR: MapMix(mode="multiply", strength=strength)},
        seat=Setting(op="seat.over", values={"drape": 1.0}),
    )
    hollows = Rule(id="h", rule=Setting(op="where.hollows"))
    grime = msgspec.structs.replace(stain, id="grime", name="Grime", where=(hollows,), mixes={})
    plain = surface(**change)
    return msgspec.structs.replace(plain, layers=(*plain.layers, stain, grime))


def test_a_change_of_colour_leaves_all_that_follows_from_the_relief():
    cache, before, after = Cache(), stained(0.4), stained(0.9)
    Evaluation(cache).value(planner(before).lit(before, grid(), LIGHT))
    run = Evaluation(cache)
    run.value(planner(after).lit(after, grid(), LIGHT))
    assert set(run.costs_ms) == {"Stain", "Grime", "S", "Light"}


@pytest.mark.parametrize("cut_out", [False, True])
def test_normals_and_occlusion_are_those_of_the_stack_as_it_is(cut_out):
    """Told from a stack beneath, on which only colours were laid, they are to the bit what the whole stack has."""
    made = stained(0.5, cut_out=cut_out)
    whole = planner(made)
    plan, run = whole.surface(made, grid()), Evaluation(Cache())
    assert whole.moulded(plan.stacks[-1]) is plan.stacks[2]
    told, own = run.value(plan.finished), finish(run.value(plan.stacks[-1]), cut_out=cut_out)
    assert set(told.maps) == set(own.maps)
    assert all((told[kind] == own[kind]).all() for kind in own.maps)
    # A layer of strokes that raise, and standing water, mould what they lie on.
    for what in (PaintedWhat(strokes=(Stroke(id="a", points=((9.0, 9.0),), into="raise"),)), WaterWhat()):
        wet = msgspec.structs.replace(made, layers=(*made.layers, Layer(id="w", name="W", what=what)))
        again = planner(wet)
        last = again.surface(wet, grid()).stacks[-1]
        assert again.moulded(last) is last


def test_turning_the_light_recomputes_no_layer():
    cache, plain = Cache(), surface()
    Evaluation(cache).value(planner(plain).lit(plain, grid(), LIGHT))
    run = Evaluation(cache)
    run.value(planner(plain).lit(plain, grid(), Lighting(make_preset("Overcast"))))
    assert set(run.costs_ms) == {"Shadow", "Light"}


def broken(op):
    plain = surface()
    recipe = plain.layers[1].what.recipe
    steps = (msgspec.structs.replace(recipe.steps[0], op=op), *recipe.steps[1:])
    bad = msgspec.structs.replace(plain.layers[1], what=RecipeWhat(recipe=msgspec.structs.replace(recipe, steps=steps)))
    return msgspec.structs.replace(plain, layers=(plain.layers[0], bad))


def test_an_unknown_step_is_told_at_its_layer_and_the_rest_goes_on():
    made = broken("noise.from_the_future")
    run = Evaluation(Cache())
    maps = run.value(planner(made).finished(made, grid()))
    assert isinstance(run.faults["wash"], UnknownOperationError)
    alone = msgspec.structs.replace(made, layers=made.layers[:1])
    rest = Evaluation(Cache()).value(planner(alone).finished(alone, grid()))
    assert (maps[MapKind.BASE_COLOUR] == rest[MapKind.BASE_COLOUR]).all()


def test_a_value_out_of_range_is_told_at_its_layer():
    job = Set(
        path=("surfaces", "s", "layers", "tile", "what", "recipe", "steps", "units", "values", "bond"),
        value="diagonal",
        label="x",
    ).apply(Job(surfaces=(surface(),)))
    run = Evaluation(Cache())
    run.value(Planner(job, no_pixels).finished(job.surfaces[0], grid()))
    assert "tile" in run.faults
    assert "half" in run.faults["tile"].allowed


def test_a_missing_source_and_an_unsized_one_are_told():
    frame = Straightening(corners=((0.0, 0.0), (9.0, 0.0), (9.0, 9.0), (0.0, 9.0)))
    for sources in ((), (Source(id="gone", name="Photo", straightening=frame),)):
        made = Surface(
            id="s",
            name="S",
            width_mm=100,
            height_mm=100,
            layers=(Layer(id="p", name="P", what=SourceWhat(source="gone")),),
        )
        run = Evaluation(Cache())
        run.value(Planner(Job(sources=sources, surfaces=(made,)), no_pixels).finished(made, Grid(32, 32, 100, 100)))
        assert isinstance(next(iter(run.faults.values())), MissingError)


def test_hidden_layers_are_left_out():
    made = surface()
    hidden = msgspec.structs.replace(
        made, layers=(made.layers[0], msgspec.structs.replace(made.layers[1], shown=False))
    )
    alone = msgspec.structs.replace(made, layers=made.layers[:1])
    assert planner(hidden).finished(hidden, grid()).key == planner(alone).finished(alone, grid()).key


def test_overtaken_work_stops():
    answers = iter([True, True, False] + [False] * 50)
    run = Evaluation(Cache(), current=lambda: next(answers))
    with pytest.raises(CancelledError):
        run.value(planner(surface()).lit(surface(), grid(), LIGHT))


def test_results_are_read_only():
    maps = Evaluation(Cache()).value(planner(surface()).finished(surface(), grid()))
    with pytest.raises(ValueError, match="read-only"):
        maps[MapKind.HEIGHT][0, 0] = 1


def test_a_built_up_surface_looks_the_same_at_every_size():
    made = surface()
    small = Evaluation(Cache()).value(planner(made).finished(made, grid(256)))
    large = Evaluation(Cache()).value(planner(made).finished(made, grid(1024)))
    for kind, limit in ((MapKind.BASE_COLOUR, 0.05), (MapKind.HEIGHT, 0.3), (MapKind.ROUGHNESS, 0.08)):
        down = resample_wrapped(np.ascontiguousarray(large[kind]), small.grid.shape)
        assert np.sqrt(np.mean((down - small[kind]) ** 2)) < limit, kind


def test_steps_know_only_what_stands_above_them():
    made = surface()
    recipe = made.layers[0].what.recipe
    turned = msgspec.structs.replace(recipe, steps=recipe.steps[::-1])
    layer = msgspec.structs.replace(made.layers[0], what=RecipeWhat(recipe=turned))
    run = Evaluation(Cache())
    bad = msgspec.structs.replace(made, layers=(layer,))
    run.value(planner(bad).finished(bad, grid()))
    assert isinstance(run.faults["tile"], MissingError)
    assert Step(name="a", op="b").id == "a"
