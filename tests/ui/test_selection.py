"""What is chosen and how it is shown, without a window."""

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from brave_tessel.core.buildup.kinds.bundle import BundleWhat
from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.job.commands import Insert, Remove, Set
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Surface
from brave_tessel.core.operation import find
from brave_tessel.engine.store import Store
from brave_tessel.ui.selection import Selection
from brave_tessel.ui.view_state import STAGES, BrushState, ViewState


def layer(id, *held):
    return Layer(id=id, name=id, what=BundleWhat(layers=held) if held else PlainWhat())


def surface(id, *layers):
    return Surface(id=id, name=id, width_mm=100.0, height_mm=100.0, layers=layers)


@pytest.fixture
def store():
    return Store(
        Job(surfaces=(surface("a", layer("a1"), layer("a2", layer("in1"), layer("in2"))), surface("b", layer("b1"))))
    )


@pytest.fixture
def selection(qtbot, store):
    made = Selection(store)
    made.heard = []
    made.changed.connect(lambda: made.heard.append((made.surface_id, made.layer_id)))
    store.subscribe(lambda job: job, made.follow)
    made.choose(surface="a", layer="in2")
    made.heard.clear()
    return made


def test_what_is_chosen_is_looked_up_in_the_job_as_it_is(selection, store):
    assert selection.layer.id == "in2"
    path = ("surfaces", "a", "layers", "a2", "what", "layers", "in2", "name")
    store.dispatch(Set(path=path, value="Renamed", label="x"))
    assert selection.layer.name == "Renamed"
    assert selection.heard == []


def test_another_surface_brings_its_topmost_layer(selection):
    selection.choose(surface="b")
    assert selection.layer.id == "b1"
    assert selection.layer_ids == ("b1",)
    assert len(selection.heard) == 1


def test_what_is_gone_is_chosen_no_more_and_undo_does_not_lose_it(selection, store):
    store.dispatch(Remove(path=("surfaces", "a"), label="x"))
    assert (selection.surface_id, selection.layer_id) == ("b", "b1")
    assert len(selection.heard) == 1
    store.undo()
    assert selection.surface_id == "b"


def test_nothing_is_chosen_of_nothing(selection, store):
    store.replace(Job(), saved=True)
    assert selection.surface is None
    assert selection.layer is None
    assert selection.source is None
    assert selection.part is None
    assert selection.recipe is None
    assert selection.layer_ids == ()


def test_several_layers_are_chosen_and_those_that_go_are_left_out(selection, store):
    selection.choose_layers(("a1", "in1", "in2"))
    store.dispatch(Remove(path=("surfaces", "a", "layers", "a2", "what", "layers", "in1"), label="x"))
    selection.follow(store.job)
    assert selection.layer_ids == ("a1", "in2")


def test_what_does_not_concern_it_is_not_told(selection, store):
    store.dispatch(Insert(path=("surfaces",), item=surface("c"), label="x"))
    store.dispatch(Set(path=("name",), value="Another name", label="x"))
    assert selection.heard == []


IDS = st.sampled_from(["a", "b", "c", "d"])


@given(st.lists(st.tuples(st.sampled_from(["choose", "add", "remove", "undo", "layer"]), IDS), max_size=20))
@settings(deadline=None, suppress_health_check=list(HealthCheck))
def test_it_is_valid_whatever_happens(qapp, acts):
    store = Store(Job())
    selection = Selection(store)
    store.subscribe(lambda job: job, selection.follow)
    for act, id in acts:
        there = {s.id for s in store.job.surfaces}
        if act == "choose":
            selection.choose(surface=id)
        elif act == "add" and id not in there:
            store.dispatch(Insert(path=("surfaces",), item=surface(id, layer(f"{id}1")), label="x"))
        elif act == "remove" and id in there:
            store.dispatch(Remove(path=("surfaces", id), label="x"))
        elif act == "undo":
            store.undo()
        elif act == "layer":
            selection.choose(layer=f"{id}1")
        there = {s.id for s in store.job.surfaces}
        assert (selection.surface is None) == (not there)
        if selection.surface is not None:
            assert selection.surface_id in there
            assert selection.layer is None or selection.layer in selection.surface.layers
            assert selection.layer_id in {*selection.layer_ids, ""}


# How things are shown --------------------------------------------------------------------------------


@pytest.fixture
def view(qtbot):
    made = ViewState()
    made.heard = []
    made.changed.connect(lambda: made.heard.append("changed"))
    made.stage_changed.connect(lambda stage: made.heard.append(stage))
    return made


@pytest.mark.parametrize("stage", STAGES[1:])
def test_a_stage_is_turned_to_once(view, stage):
    view.go(stage)
    view.go(stage)
    assert view.heard == [stage]


@pytest.mark.parametrize(
    ("name", "value"), [("show_view", "Height"), ("show_solo", "layer"), ("set_preview", 512), ("set_step", "touch")]
)
def test_what_is_set_already_is_not_told_again(view, name, value):
    getattr(view, name)(value)
    told = len(view.heard)
    assert told >= 1
    getattr(view, name)(value)
    assert len(view.heard) == told


def test_the_brush_is_what_its_declaration_says_and_one_value_is_set_at_a_time(qtbot):
    brush = BrushState()
    assert brush.values == find("brush.paint").defaults()
    heard = []
    brush.changed.connect(lambda: heard.append(dict(brush.values)))
    before = brush.values
    brush.set_value("size", 12.0)
    assert heard[-1]["size"] == 12.0
    assert before["size"] != 12.0
    assert {name: value for name, value in brush.values.items() if name != "size"} == {
        name: value for name, value in before.items() if name != "size"
    }
