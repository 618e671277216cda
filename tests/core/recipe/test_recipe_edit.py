"""Changes to recipes: names follow, order holds, what does not fit is refused with the reason; random recipes live."""

import msgspec
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

import brave_tessel.core.registered  # noqa: F401
from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.errors import DoesNotFitError, MissingError, NotUnderstoodError, TesselError
from brave_tessel.core.job.commands import Set
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Recipe, Step, Surface
from brave_tessel.core.maps import MapKind
from brave_tessel.core.operation import REGISTRY
from brave_tessel.core.recipe import edit
from brave_tessel.core.recipe.materials import MATERIALS
from brave_tessel.core.recipe.stock import STOCK, clouds_recipe, units_recipe
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.intents.recipes import decode_recipe, encode_recipe
from brave_tessel.engine.session import Session
from brave_tessel.formats.documents import decode_job, encode_job
from brave_tessel.formats.job_file import OpenedJob


def session_of(recipe, size=(300.0, 240.0)):
    layer = Layer(id="l", name="Layer", what=RecipeWhat(recipe=recipe))
    return Session(
        OpenedJob(Job(surfaces=(Surface(id="s", name="S", width_mm=size[0], height_mm=size[1], layers=(layer,)),)))
    )


def evaluate(recipe, px=64, size=(300.0, 240.0)):
    session = session_of(recipe, size)
    grid = Grid.for_repeat(*size, px)
    return session.snapshot().evaluation().value(session.snapshot().planner().recipe(recipe, grid, "l")).maps


def test_a_name_is_followed_by_every_chip_and_map():
    recipe = edit.rename_step(clouds_recipe(), "clouds", "weather")
    assert [step.made_from for step in recipe.steps[1:]] == [{"field": "weather"}] * 3
    for bad in ("", "relief"):
        with pytest.raises(NotUnderstoodError):
            edit.rename_step(recipe, "weather", bad)
    assert edit.rename_step(recipe, "relief", "rise").yields[MapKind.HEIGHT] == "rise"


def test_a_step_is_made_from_what_fits_above_it():
    recipe, name = edit.add_step(units_recipe(), "form.rim", after="units")
    assert edit.step_named(recipe, name).made_from == {"pieces": "units"}
    assert [step.name for step in recipe.steps][1] == name
    with pytest.raises(DoesNotFitError) as caught:
        edit.add_step(clouds_recipe(), "form.rim")
    assert "pieces" in caught.value.allowed
    recipe, mixed = edit.add_step(clouds_recipe(), "combine.sum", after="clouds")
    assert set(edit.step_named(recipe, mixed).made_from) == {"first", "second"}


def test_order_never_breaks_and_the_reason_is_told():
    recipe = units_recipe()
    with pytest.raises(DoesNotFitError) as caught:
        edit.move_step(recipe, "relief", 0)
    assert "units" in caught.value.allowed
    with pytest.raises(DoesNotFitError) as caught:
        edit.move_step(recipe, "units", 2)
    assert "relief" in caught.value.allowed
    assert [s.name for s in edit.move_step(recipe, "sheen", 1).steps] == ["units", "sheen", "relief", "tone"]


def test_chips_that_do_not_fit_are_refused_and_a_ramp_is_offered():
    recipe = clouds_recipe()
    recipe, tinted = edit.add_step(recipe, "colour.tint", after="tint")
    with pytest.raises(DoesNotFitError) as caught:
        edit.set_input(recipe, tinted, "colour", "clouds")
    assert "ramp" in caught.value.allowed
    recipe, ramp = edit.ramp_between(recipe, tinted, "colour", "clouds")
    assert edit.step_named(recipe, tinted).made_from == {"colour": ramp}
    assert edit.index_of(recipe, ramp) < edit.index_of(recipe, tinted)
    with pytest.raises(DoesNotFitError):
        edit.set_input(recipe, "relief", "field", "sheen")


def test_taking_out_leaves_what_it_passed_on():
    recipe, inverted = edit.add_step(clouds_recipe(), "adjust.invert", after="clouds")
    recipe = edit.set_input(recipe, "relief", "field", inverted)
    assert edit.step_named(edit.remove_step(recipe, inverted), "relief").made_from == {"field": "clouds"}
    with pytest.raises(DoesNotFitError) as caught:
        edit.remove_step(recipe, "clouds")
    assert "sheen" in caught.value.allowed
    assert edit.remove_step(recipe, "sheen").yields.get(MapKind.ROUGHNESS, "clouds") == "clouds"


def test_a_muted_step_passes_on_and_an_unused_one_costs_nothing():
    recipe, inverted = edit.add_step(clouds_recipe(), "adjust.invert", after="clouds")
    recipe = edit.set_input(recipe, "relief", "field", inverted)
    plain, muted = evaluate(clouds_recipe()), evaluate(edit.change(recipe, inverted, bypassed=True))
    assert np.array_equal(plain[MapKind.HEIGHT], muted[MapKind.HEIGHT])
    assert not np.array_equal(plain[MapKind.HEIGHT], evaluate(recipe)[MapKind.HEIGHT])
    recipe, _ = edit.add_step(clouds_recipe(), "marks.cracks")
    session = session_of(recipe)
    run = session.snapshot().evaluation()
    run.value(session.snapshot().planner().recipe(recipe, Grid(32, 32, 300, 240), "l"))
    assert "cracks" not in run.costs_ms
    assert "cracks" not in edit.used(recipe)


def test_another_operation_keeps_what_fits():
    recipe = edit.set_dial(clouds_recipe(), "clouds", "size", 33.0)
    recipe = edit.replace_operation(recipe, "clouds", "noise.ridged")
    step = edit.step_named(recipe, "clouds")
    assert (step.op, step.values["size"]) == ("noise.ridged", 33.0)
    with pytest.raises(DoesNotFitError):
        edit.replace_operation(recipe, "clouds", "pattern.units")
    with pytest.raises(DoesNotFitError):
        edit.replace_operation(recipe, "clouds", "form.rim")


def test_which_input_is_which_matters_though_the_steps_are_the_same():
    """The same two steps the other way round are another result, also to the cache."""
    steps = (
        Step(name="a", op="noise.clouds"),
        Step(name="b", op="noise.ridged"),
        Step(name="c", op="combine.sum", made_from={"first": "a", "second": "b"}, values={"how": "subtract"}),
    )
    recipe = Recipe(steps=steps, yields={MapKind.HEIGHT: "c"})
    turned = edit.change(recipe, "c", made_from={"first": "b", "second": "a"})
    odd = edit.change(recipe, "c", made_from={"second": "a", "first": "b"})
    session = session_of(recipe)
    grid = Grid(48, 48, 300, 240)
    one, two, three = (
        session.snapshot().evaluation().value(session.snapshot().planner().recipe(r, grid, "l")).maps[MapKind.HEIGHT]
        for r in (recipe, turned, odd)
    )
    assert np.allclose(one, -two)
    assert np.array_equal(two, three)


def test_the_master_seed_changes_every_step_and_comes_back():
    recipe = clouds_recipe()
    other = msgspec.structs.replace(recipe, seed=5)
    assert not np.array_equal(evaluate(recipe)[MapKind.HEIGHT], evaluate(other)[MapKind.HEIGHT])
    assert np.array_equal(evaluate(other)[MapKind.HEIGHT], evaluate(other)[MapKind.HEIGHT])


def test_steps_are_copied_with_what_they_need():
    taken = edit.with_needs(units_recipe(), ["relief"])
    assert [step.name for step in taken] == ["units", "relief"]
    recipe, names = edit.paste_steps(units_recipe(), taken)
    assert names == ["units 2", "relief 2"]
    assert edit.step_named(recipe, "relief 2").made_from == {"pieces": "units 2"}
    edit.check_recipe(recipe)


def test_typing_finds_what_fits_first():
    recipe = units_recipe()
    assert edit.search("crack", recipe)[0].id == "marks.cracks"
    assert edit.search("rim", recipe, "units")[0].id == "form.rim"
    assert edit.search("blur", clouds_recipe(), "clouds")[0].id.startswith("blur.")
    found = [op.id for op in edit.search("piece", clouds_recipe())]
    assert found.index("pattern.threads") < found.index("form.rim")
    assert edit.search("nonsense words", recipe) == []


@pytest.mark.parametrize("name", STOCK)
def test_every_stock_recipe_is_sound_and_the_same_from_its_file(name):
    recipe = STOCK[name]()
    edit.check_recipe(recipe)
    data = encode_recipe(name, (300.0, 240.0), recipe)
    back = decode_recipe(data, "x.json")
    assert back.recipe == recipe
    for kind, pixels in evaluate(recipe).items():
        assert np.isfinite(pixels).all(), kind
    assert encode_recipe(name, (300.0, 240.0), back.recipe) == data


@pytest.mark.parametrize("stock", MATERIALS, ids=lambda stock: stock.name)
def test_stock_is_plausible_and_closes(stock):
    """Base colour within what real dielectrics reflect, sRGB 30 to 240 (common practice); joins no rougher than
    inside.
    """
    from brave_tessel.core.colour import encode_srgb
    from brave_tessel.core.repeat.meters import read_seam

    maps = evaluate(stock.make(), px=256, size=stock.repeat_mm)
    codes = encode_srgb(np.clip(maps[MapKind.BASE_COLOUR], 0, 1)) * 255
    assert ((codes > 18) & (codes < 245)).all(2).mean() > 0.9
    rough = maps[MapKind.ROUGHNESS]
    assert rough.min() >= 0
    assert rough.max() <= 1.05
    for axis in (0, 1):
        assert read_seam(codes.astype(np.float32) / 255, axis=axis, structured=True).closes
    assert all(step.section for step in stock.make().steps)


def test_files_that_are_no_recipes_are_refused():
    good = encode_recipe("x", (10.0, 10.0), clouds_recipe())
    for bad in (
        b"",
        b"[]",
        b'{"name": 3}',
        good.replace(b'"format": 5', b'"format": 99'),
        good.replace(b'"field": "clouds"', b'"field": "none"'),
    ):
        with pytest.raises(TesselError):
            decode_recipe(bad, "bad.json")
    with pytest.raises(MissingError):
        edit.step_named(clouds_recipe(), "nothing")


def test_a_recipe_with_a_step_of_another_version_is_read_and_written_unchanged():
    good = encode_recipe("x", (10.0, 10.0), clouds_recipe())
    odd = good.replace(b"noise.clouds", b"noise.nothing")
    back = decode_recipe(odd, "odd.json")
    assert back.recipe.steps[0].op == "noise.nothing"
    assert encode_recipe("x", (10.0, 10.0), back.recipe) == odd


HEAVY = {"move.erode", "move.slump", "noise.spectrum", "marks.cracks", "form.skeleton"}
LIGHT = [op for op in edit.step_operations() if op.id not in HEAVY]


@st.composite
def recipes(draw):
    recipe = Recipe()
    for _ in range(draw(st.integers(3, 12))):
        op = draw(st.sampled_from(LIGHT))
        try:
            recipe, name = edit.add_step(recipe, op.id)
        except DoesNotFitError:
            continue
        for dial, param in op.params.items():
            if param.kind in {"length", "fraction", "angle"} and draw(st.booleans()):
                recipe = edit.set_dial(
                    recipe, name, dial, draw(st.floats(param.low, min(param.high, 4 * abs(param.default) + 1)))
                )
            elif param.kind == "choice":
                recipe = edit.set_dial(recipe, name, dial, draw(st.sampled_from(param.options)))
    for kind in (MapKind.HEIGHT, MapKind.BASE_COLOUR, MapKind.ROUGHNESS):
        fitting = [step.name for step in recipe.steps if edit.kind_of(step) == edit.map_kind(kind)]
        if fitting:
            recipe = edit.set_yield(recipe, kind, draw(st.sampled_from(fitting)))
    return recipe


@settings(max_examples=25, deadline=None)
@given(recipes())
def test_random_recipes_evaluate_save_load_and_undo(recipe):
    edit.check_recipe(recipe)
    session = session_of(recipe)
    job = session.job
    assert encode_job(decode_job(encode_job(job))) == encode_job(job)
    for pixels in evaluate(recipe, px=32).values():
        assert np.isfinite(pixels).all()
    if recipe.steps:
        changed = edit.change(recipe, recipe.steps[-1].name, note="noted")
        session.store.dispatch(Set(path=("surfaces", "s", "layers", "l", "what", "recipe"), value=changed, label="x"))
        session.store.undo()
        assert session.job == job


def test_every_step_operation_can_be_added_to_a_rich_recipe():
    recipe = units_recipe()
    recipe, _ = edit.add_step(recipe, "relief.normal", after="relief")
    for operation in edit.step_operations():
        after, name = edit.add_step(recipe, operation.id)
        edit.check_recipe(after)
        assert edit.step_named(after, name).op in REGISTRY


def test_a_rule_of_steps_looks_at_what_lies_beneath():
    from brave_tessel.core.job.layers import Rule
    from brave_tessel.core.job.nodes import Setting
    from brave_tessel.core.recipe.stock import cover_recipe

    ground = Layer(id="g", name="Ground", what=RecipeWhat(recipe=units_recipe(length=60.0, height=40.0)))
    rule = Rule(id="r", rule=Setting(op="where.recipe"), recipe=cover_recipe())
    top = Layer(id="t", name="Top", what=RecipeWhat(recipe=clouds_recipe()), where=(rule,))
    job = Job(surfaces=(Surface(id="s", name="S", width_mm=300, height_mm=240, layers=(ground, top)),))
    assert decode_job(encode_job(job)) == job
    session = Session(OpenedJob(job))
    grid, planner = Grid.for_repeat(300, 240, 128), session.snapshot().planner()
    run = session.snapshot().evaluation()
    below = planner.stacks(job.surfaces[0], grid)[1]
    cover = run.value(planner.coverage(top, below, grid))
    assert 0.02 < cover.mean() < 0.98
    height = run.value(below).height
    # It lies in the joints first.
    assert cover[height < -1].mean() > 1.3 * cover[height > -0.3].mean()
    alone = run.value(planner.coverage(top, planner.stacks(job.surfaces[0], grid)[0], grid))
    assert not np.array_equal(cover, alone)


def test_even_clouds_have_the_spread_they_say():
    from brave_tessel.core.recipe.steps.fractal import even_clouds

    made = np.stack([even_clouds(Grid(512, 512, 800, 800), size=40, octaves=1, seed=s) for s in range(3)])
    assert made.mean() == pytest.approx(0.5, abs=0.01)
    assert made.std() == pytest.approx(0.2, abs=0.012)


def test_a_gathered_source_is_a_step(demo_session):
    """Its colour and height lie in the recipe as they lie in a layer of their own."""
    from brave_tessel.core.buildup.kinds.source import SourceWhat

    steps = (
        Step(name="photo", op="source.colour", values={"source": "shingle"}),
        Step(name="stones", op="source.map", values={"source": "shingle", "takes": "height"}),
        Step(name="nothing", op="source.map"),
    )
    recipe = Recipe(
        steps=steps, yields={MapKind.BASE_COLOUR: "photo", MapKind.HEIGHT: "stones", MapKind.ROUGHNESS: "nothing"}
    )
    edit.check_recipe(recipe)
    planner, run = demo_session.snapshot().planner(), demo_session.snapshot().evaluation()
    grid = Grid.for_repeat(1100, 780, 128)
    made = run.value(planner.recipe(recipe, grid, "l")).maps
    laid = run.value(planner.layer_maps(Layer(id="x", name="x", what=SourceWhat(source="shingle")), grid)).maps
    assert np.array_equal(made[MapKind.BASE_COLOUR], laid[MapKind.BASE_COLOUR])
    assert np.array_equal(made[MapKind.HEIGHT], laid[MapKind.HEIGHT])
    assert (made[MapKind.ROUGHNESS] == 0.5).all()


def test_a_note_on_a_section_is_kept_and_taken_away():
    recipe = edit.note_section(units_recipe(), "Tiles", "as on the drawing")
    assert recipe.notes == {"Tiles": "as on the drawing"}
    assert edit.note_section(recipe, "Tiles", "  ").notes == {}


def test_a_step_at_half_resolution_looks_the_same_but_softer():
    recipe, name = edit.add_step(Recipe(), "noise.clouds")
    recipe = edit.set_yield(edit.set_dial(recipe, name, "octaves", 4), MapKind.HEIGHT, name)
    half = edit.change(recipe, name, half=True)
    whole, soft = (evaluate(r, px=256)[MapKind.HEIGHT] for r in (recipe, half))
    assert whole.shape == soft.shape
    assert 0 < np.abs(whole - soft).max() < 0.05
    pieces, tiles = edit.add_step(Recipe(), "pattern.hexagons")
    assert not edit.may_be_half(edit.step_named(pieces, tiles))
