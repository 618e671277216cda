"""What this version does not know: it is read, kept where it stands, passed over in pictures, and written unchanged."""

import copy
import json

import msgspec
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brave_tessel.core.buildup.kind import KINDS, kind_of
from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.errors import NewerJobError
from brave_tessel.core.job.commands import Set
from brave_tessel.core.job.document import JOB_FORMAT, Job
from brave_tessel.core.job.layers import Layer, Recipe, Step, Surface, UnknownWhat
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.job.trees import of_tree, struct_of, tree_of
from brave_tessel.core.maps import MapKind
from brave_tessel.core.operation import REGISTRY, find
from brave_tessel.engine.session import Session
from brave_tessel.engine.store import Store
from brave_tessel.formats.documents import decode_job, encode_job
from brave_tessel.formats.job_file import OpenedJob

LATER = {"since": 9, "list": [1, {"deep": "ü"}], "none": None}


def job_tree(demo):
    return json.loads(encode_job(demo.job))


def nodes(tree, path=()):
    """Every JSON object of a tree that stands for an entity, with the way to it."""
    if isinstance(tree, dict):
        yield path, tree
        for name, value in tree.items():
            yield from nodes(value, (*path, name))
    elif isinstance(tree, list):
        for index, value in enumerate(tree):
            yield from nodes(value, (*path, index))


VALUE_MAPS = {"values", "yields", "mixes", "made_from", "notes", "kept", "tags", "measures", "dials"}
"""Fields that are mappings of names, not entities."""


def entities(tree):
    return [(path, node) for path, node in nodes(tree) if not path or path[-1] not in VALUE_MAPS]


def test_a_field_of_a_later_version_stays_in_every_kind_of_entity(demo):
    tree = job_tree(demo)
    found = entities(tree)
    assert len(found) > 400
    for _path, node in found:
        node["of_a_later_version"] = copy.deepcopy(LATER)
    again = json.loads(encode_job(decode_job(copy.deepcopy(tree))))
    assert again == tree


def test_a_job_with_fields_of_a_later_version_gives_the_same_pictures(demo, demo_session):
    tree = job_tree(demo)
    for _path, node in entities(tree):
        node["of_a_later_version"] = 1
    other = Session(OpenedJob(decode_job(tree), dict(demo.blobs)), cache=demo_session.cache)
    surface = "terrazzo-floor"
    plain = demo_session.snapshot().finished(demo_session.job.surface(surface), 96)
    same = other.snapshot().finished(other.job.surface(surface), 96)
    for kind in plain.maps:
        assert np.array_equal(plain[kind], same[kind])


def test_a_change_beside_what_is_unknown_leaves_it_alone(demo):
    tree = job_tree(demo)
    for _path, node in entities(tree):
        node["later"] = 1
    store = Store(decode_job(tree))
    store.dispatch(Set(path=("surfaces", "dado", "layers", "limewash", "name"), value="Whitewash", label="Rename"))
    written = json.loads(encode_job(store.job))
    (dado,) = (surface for surface in written["surfaces"] if surface["id"] == "dado")
    (wash,) = (layer for layer in dado["layers"] if layer["id"] == "limewash")
    assert wash["name"] == "Whitewash"
    wash["name"] = next(layer.name for layer in demo.job.surface("dado").layers if layer.id == "limewash")
    assert written == tree


def surface_of(*layers):
    return Surface(id="s", name="S", width_mm=120.0, height_mm=120.0, layers=layers)


PLAIN = Layer(id="ground", name="Ground", what=PlainWhat(colour="#406080", roughness=0.4))


@pytest.mark.parametrize("tag", ["hologram", "plain2", "", "Unknown"])
def test_an_unknown_kind_of_layer_stands_where_it_stood(tag):
    tree = tree_of(Job(surfaces=(surface_of(PLAIN),)))
    layers = tree["surfaces"][0]["layers"]
    layers.append({**layers[0], "id": "odd", "name": "Odd", "what": {"type": tag, "depth": 3, "parts": [{"a": 1}]}})
    job = decode_job(copy.deepcopy(tree))
    odd = job.surface("s").layers[1]
    assert isinstance(odd.what, UnknownWhat)
    assert odd.what.named == tag
    assert json.loads(encode_job(job)) == tree
    snapshot = Session(OpenedJob(job)).snapshot()
    made = snapshot.finished(job.surface("s"), 32)
    alone = snapshot.finished(surface_of(PLAIN), 32)
    assert np.array_equal(made[MapKind.BASE_COLOUR], alone[MapKind.BASE_COLOUR])


@pytest.mark.parametrize("field", ["seat", "laying", "look", "tone"])
def test_an_unknown_setting_of_a_layer_is_kept_and_passed_over(field):
    odd = Setting(op=f"{field}.of_the_future", values={"depth": 3.0, "style": "new"})
    layer = msgspec.structs.replace(PLAIN, **{field: odd})
    job = Job(surfaces=(surface_of(layer),))
    again = decode_job(encode_job(job))
    assert again == job
    made = Session(OpenedJob(again)).snapshot().finished(again.surface("s"), 32)
    assert np.isfinite(made[MapKind.BASE_COLOUR]).all()


@pytest.mark.parametrize("place", ["op", "rule"])
def test_an_unknown_rule_is_kept_and_passed_over(place, demo):
    tree = job_tree(demo)
    (dado,) = (surface for surface in tree["surfaces"] if surface["id"] == "dado")
    rule = next(layer for layer in dado["layers"] if layer["where"])["where"][0]
    if place == "op":
        rule["mode"] = "of_the_future"
    else:
        rule["rule"]["op"] = "where.of_the_future"
    again = decode_job(copy.deepcopy(tree))
    assert json.loads(encode_job(again)) == tree


def test_an_unknown_step_is_kept_and_what_is_made_from_it_goes_on():
    steps = (
        Step(name="tint", op="colour.plain", values={"colour": "#FF0000"}),
        Step(name="odd", op="colour.of_the_future", made_from={"colour": "tint"}, values={"strength": 2.0}),
    )
    from brave_tessel.core.buildup.kinds.recipe import RecipeWhat

    recipe = Recipe(steps=steps, yields={MapKind.BASE_COLOUR: "odd"})
    job = Job(surfaces=(surface_of(Layer(id="l", name="L", what=RecipeWhat(recipe=recipe))),))
    again = decode_job(encode_job(job))
    assert again == job
    made = Session(OpenedJob(again)).snapshot().finished(again.surface("s"), 16)
    assert np.isfinite(made[MapKind.BASE_COLOUR]).all()


def test_unknown_map_kinds_are_kept_among_the_known(demo):
    tree = job_tree(demo)
    layer = tree["surfaces"][0]["layers"][0]
    layer["maps"] = [*layer.get("maps", []), "subsurface"]
    layer["mixes"] = {**layer.get("mixes", {}), "subsurface": {"mode": "over", "strength": 0.5}}
    recipe = next(s for s in tree["surfaces"] if s["layers"][0]["what"]["type"] == "recipe")["layers"][0]["what"]
    recipe["recipe"]["yields"]["subsurface"] = "relief"
    job = decode_job(copy.deepcopy(tree))
    written = json.loads(encode_job(job))
    assert "subsurface" in written["surfaces"][0]["layers"][0]["maps"]
    assert written["surfaces"][0]["layers"][0]["mixes"]["subsurface"] == {"mode": "over", "strength": 0.5}
    assert {str(kind) for kind in MapKind} >= {str(kind) for kind in job.surfaces[0].layers[0].maps}


def test_a_setting_made_by_a_later_version_of_its_code_is_not_run():
    newest = find("seat.by_height").version
    setting = Setting(op="seat.by_height", values={"feather": 0.5}, version=newest + 1)
    assert not setting.known
    tree = tree_of(setting)
    assert tree["version"] == newest + 1
    assert of_tree(tree, Setting) == setting
    assert Setting(op="seat.by_height").known


def test_a_job_of_a_later_format_is_refused_in_one_sentence(demo):
    tree = {**job_tree(demo), "format": JOB_FORMAT + 1}
    with pytest.raises(NewerJobError):
        decode_job(tree)


JSON = st.recursive(
    st.none() | st.booleans() | st.integers(-9, 9) | st.text(max_size=6),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(min_size=1, max_size=6), inner, max_size=3),
    max_leaves=8,
)


@given(st.dictionaries(st.text(min_size=1, max_size=8).filter(lambda name: name != "kept"), JSON, max_size=4))
@settings(deadline=None)
def test_any_unknown_kind_comes_back_as_it_was(fields):
    tree = {**fields, "type": "of_the_future"}
    layer = {**tree_of(PLAIN), "what": tree}
    assert tree_of(of_tree(copy.deepcopy(layer), Layer)) == layer


@given(JSON)
@settings(deadline=None)
def test_any_unknown_field_comes_back_as_it_was(value):
    tree = {**tree_of(PLAIN), "later": value}
    assert tree_of(of_tree(copy.deepcopy(tree), Layer)) == tree


@pytest.mark.parametrize("op", sorted(REGISTRY))
def test_every_operation_keeps_a_value_it_does_not_know(op):
    setting = Setting(op=op, values={"of_the_future": 3.0})
    again = of_tree(tree_of(setting), Setting)
    assert again.values["of_the_future"] == 3.0


@pytest.mark.parametrize("tag", sorted(KINDS))
def test_every_kind_of_layer_keeps_a_field_it_does_not_know(tag):
    struct = struct_of(tag)
    try:
        what = struct()
    except TypeError:
        pytest.skip("needs what the job gives it")
    layer = msgspec.structs.replace(PLAIN, what=what)
    tree = tree_of(layer)
    tree["what"]["later"] = [1, 2]
    read = of_tree(copy.deepcopy(tree), Layer)
    assert type(read.what) is struct
    assert kind_of(read.what) is kind_of(what)
    assert tree_of(read) == tree
