"""The table of maps, the handles of rules and what is not known, by mouse and keys."""

import json

import msgspec
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QCheckBox, QLabel

from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.job.commands import Set
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Rule, Surface, UnknownWhat
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.maps import BLENDED, MapKind
from brave_tessel.formats.documents import decode_job, encode_job
from brave_tessel.formats.job_file import OpenedJob, load_job
from brave_tessel.ui.stages.build.map_table import NAMES, MapTable, changed_mixes
from brave_tessel.ui.stages.build.surface_handles import handles_for, moved
from tests.ui.hand import at, pull

# The table of maps -----------------------------------------------------------------------------------


@pytest.fixture
def table(build, settled):
    """The table in the card, unfolded."""
    build.layer_card.fill_all()
    made = build.layer_card.findChild(MapTable)
    assert made is not None
    return made


def top(build):
    return build.desk.job.surface("s").layers[1]


def test_every_map_has_a_row_with_its_full_name(table):
    boxes = [box for box in table.findChildren(QCheckBox) if box is not table.more]
    assert [box.text() for box in boxes] == list(NAMES.values())
    assert set(NAMES) == set(BLENDED)
    assert "Base colour" in NAMES.values()


def test_a_map_is_switched_off_and_on_again_by_the_space_bar(build, table, settled):
    switch = table.switches[MapKind.ROUGHNESS]
    assert switch.isChecked()
    before = build.desk.job
    switch.setFocus()
    QTest.keyClick(switch, Qt.Key.Key_Space)
    assert MapKind.ROUGHNESS not in top(build).maps
    settled(build.window_)
    build.layer_card.fill_all()
    table = build.layer_card.findChild(MapTable)
    assert not table.strengths[MapKind.ROUGHNESS].isEnabled()
    build.desk.session.store.undo()
    assert build.desk.job is before


@pytest.mark.parametrize(
    ("typed", "strength"), [("70 %", 0.7), ("0.25", 0.25), ("55", 0.55), ("0 %", 0.0), ("100%", 1.0)]
)
def test_a_strength_is_typed(build, table, typed, strength):
    line = table.strengths[MapKind.BASE_COLOUR]
    line.setFocus()
    line.selectAll()
    QTest.keyClicks(line, typed)
    QTest.keyClick(line, Qt.Key.Key_Return)
    assert top(build).mix(MapKind.BASE_COLOUR).strength == pytest.approx(strength)
    assert top(build).mix(MapKind.HEIGHT).strength == 1.0


def test_a_strength_that_is_none_is_told_and_changes_nothing(build, table):
    before = build.desk.job
    line = table.strengths[MapKind.BASE_COLOUR]
    line.setFocus()
    line.selectAll()
    QTest.keyClicks(line, "plenty")
    QTest.keyClick(line, Qt.Key.Key_Return)
    assert build.desk.job is before
    assert "plenty" in build.window_.told.text()


def test_a_mode_is_chosen_by_keys(build, table, settled):
    box = table.modes[MapKind.BASE_COLOUR]
    assert box.count() > 3
    box.setFocus()
    QTest.keyClick(box, Qt.Key.Key_Down)
    box.activated.emit(box.currentIndex())
    settled(build.window_)
    assert top(build).mix(MapKind.BASE_COLOUR).mode == box.currentText() != "over"


def test_mixes_as_a_fresh_layer_has_them_are_not_kept():
    layer = Layer(id="l", name="L", what=PlainWhat())
    changed = changed_mixes(layer, MapKind.HEIGHT, {"strength": 0.5})
    assert set(changed) == {MapKind.HEIGHT}
    again = msgspec.structs.replace(layer, mixes=changed)
    assert changed_mixes(again, MapKind.HEIGHT, {"strength": 1.0}) == {}


# Handles of rules ------------------------------------------------------------------------------------


def with_rule(build, settled, op, **values):
    rule = Rule(id="r", mode="keep", rule=Setting(op=op, values=values))
    build.desk.dispatch(Set(path=("surfaces", "s", "layers", "top", "where"), value=(rule,), label="Rule"))
    build.desk.selection.rule_id = "r"
    settled(build.window_)
    build.hand.show_handles()
    return build.surface_board


def rule_values(build):
    return top(build).where[0].rule.complete()


def test_a_shape_is_dragged_over_the_sheet(build, settled):
    board = with_rule(build, settled, "where.shape", right=300.0, up=200.0, width=160.0, height=100.0)
    names = {handle.name for handle in board.handles.handles}
    assert {"middle", "turn", "north east"} <= names
    pull(board, at(board, 300, 200), at(board, 360, 240))
    assert (rule_values(build)["right"], rule_values(build)["up"]) == pytest.approx((360, 240), abs=3)
    build.desk.session.store.undo()
    assert rule_values(build)["right"] == 300.0


def test_a_gradient_is_dragged_by_its_ends(build, settled):
    board = with_rule(build, settled, "where.gradient", from_up=50.0, to_up=300.0)
    assert [handle.name for handle in board.handles.handles] == ["from", "to"]
    end = next(handle for handle in board.handles.handles if handle.name == "to")
    pull(board, at(board, end.x, end.y), at(board, end.x, end.y - 80))
    assert rule_values(build)["to_up"] == pytest.approx(220, abs=4)
    assert rule_values(build)["from_up"] == 50.0


@pytest.mark.parametrize("op", ["where.shape", "where.band", "where.gradient"])
def test_every_handle_of_a_rule_can_be_dragged_within_what_is_allowed(op):
    surface = Surface(id="s", name="S", width_mm=600.0, height_mm=450.0)
    rule = Rule(id="r", mode="keep", rule=Setting(op=op))
    layer = Layer(id="l", name="L", what=PlainWhat(), where=(rule,))
    shown = handles_for(surface, layer, rule)
    assert shown.handles
    for handle in shown.handles:
        for to in ((handle.x + 31, handle.y + 17), (-4000.0, 9000.0), (handle.x, handle.y)):
            change = moved(surface, layer, rule, handle.name, *to, unequal=False)
            assert change is not None
            assert change.where == ("where", "r", "rule", "values")
            Setting(op=op, values=change.value).bound()


def test_a_locked_layer_has_no_handles():
    surface = Surface(id="s", name="S", width_mm=600.0, height_mm=450.0)
    rule = Rule(id="r", mode="keep", rule=Setting(op="where.shape"))
    layer = Layer(id="l", name="L", what=PlainWhat(), where=(rule,), locked=True)
    assert handles_for(surface, layer, rule).handles == ()
    hidden = msgspec.structs.replace(rule, shown=False)
    assert handles_for(surface, msgspec.structs.replace(layer, locked=False), hidden).handles == ()


# What is not known -----------------------------------------------------------------------------------


@pytest.fixture
def later(tmp_path):
    """A job as a later version might write it: an unknown kind of layer, step, rule, map and output."""
    ground = Layer(id="ground", name="Ground", what=PlainWhat(colour="#406080"))
    rule = Rule(id="odd-rule", mode="keep", rule=Setting(op="where.of_the_future", values={"deep": 2.0}))
    ruled = Layer(id="ruled", name="Ruled", what=PlainWhat(colour="#FFFFFF"), where=(rule,))
    surface = Surface(id="s", name="S", width_mm=300.0, height_mm=200.0, layers=(ground, ruled))
    tree = json.loads(encode_job(Job(id="j", surfaces=(surface,))))
    layers = tree["surfaces"][0]["layers"]
    layers.insert(1, {**layers[0], "id": "odd", "name": "Odd", "what": {"type": "hologram", "depth": 3}})
    tree["deliveries"][0]["outputs"] = [*tree["deliveries"][0]["outputs"], "scene-of-the-future"]
    return tree


def texts(widget):
    return " ".join(label.text() for label in widget.findChildren(QLabel) if label.text())


def test_an_unknown_job_is_shown_edited_and_saved_with_all_that_is_in_it(make_window, settled, later, tmp_path):
    window = make_window(OpenedJob(decode_job(json.loads(json.dumps(later)))))
    build = window.stages["Build"]
    window.desk.go("Build")
    window.desk.selection.choose(surface="s", layer="odd")
    settled(window)
    assert isinstance(window.desk.selection.layer.what, UnknownWhat)
    row = next(row for row in build.list.rows if row.id == "odd")
    assert "hologram" in row.note
    assert "hologram" in texts(build.layer_card)
    assert build.done is not None
    assert set(build.done.faults) >= {"odd"}
    window.desk.selection.choose(layer="ruled")
    settled(window)
    assert "of_the_future" in texts(build.layer_card)
    window.desk.go("Hand over")
    settled(window)
    assert "scene-of-the-future" in window.stages["Hand over"].unknown.text()
    window.desk.dispatch(
        Set(path=("surfaces", "s", "layers", "ground", "what", "colour"), value="#000000", label="Colour")
    )
    path = tmp_path / "later.tessel"
    window.save_job(path)
    settled(window)
    written = json.loads(encode_job(load_job(path).job))
    later["surfaces"][0]["layers"][0]["what"]["colour"] = "#000000"
    assert written == later


def test_an_unknown_laying_does_not_end_the_program(demo_window, settled):
    desk, place = demo_window.desk, demo_window.stages["Place"]
    part = desk.job.scene.part("floor")
    odd = Setting(op="laying.of_the_future", values={"twist": 3.0})
    desk.dispatch(Set(path=("scene", "parts", part.id, "laid", part.laid[0].id, "laying"), value=odd, label="x"))
    desk.go("Place")
    desk.selection.choose(part=part.id)
    settled(demo_window)
    assert place.title.text() == part.name
    assert "of_the_future" in texts(place.card)
    assert desk.selection.part.laid[0].laying == odd
    desk.session.store.undo()
    settled(demo_window)
    assert desk.selection.part.laid == part.laid


def test_an_unknown_piece_is_told_and_kept(demo_window, settled):
    desk, place = demo_window.desk, demo_window.stages["Place"]
    path = ("scene", "parts", "floor", "piece", "op")
    desk.dispatch(Set(path=path, value="made.tower_of_the_future", label="x"))
    desk.go("Place")
    desk.selection.choose(part="floor")
    settled(demo_window)
    assert "tower_of_the_future" in next(row.note for row in place.tree.rows if row.id == "floor")
    assert decode_job(encode_job(desk.job)).scene == desk.job.scene


def test_an_unknown_way_of_mending_is_told_and_kept(demo_window, settled):
    desk = demo_window.desk
    source = desk.job.sources[0]
    odd = Setting(op="mend.of_the_future", values={"strength": 3.0})
    desk.dispatch(Set(path=("sources", source.id, "mend"), value=odd, label="x"))
    desk.selection.choose(source=source.id)
    desk.go("Repeat")
    settled(demo_window)
    assert desk.job.source(source.id).mend == odd
    assert "of_the_future" in demo_window.told.text() + texts(demo_window.stages["Repeat"].card)
