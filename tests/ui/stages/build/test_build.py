"""Stage 3 in the window: every kind of layer, bundles, handles, rules, the brush, kits and the section, by mouse
and keys.
"""

import json

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QAbstractButton, QApplication, QLabel

from brave_tessel.core.buildup.kinds.bundle import BundleWhat
from brave_tessel.core.buildup.kinds.decal import DecalWhat
from brave_tessel.core.buildup.kinds.inscription import InscriptionWhat
from brave_tessel.core.buildup.kinds.painted import PaintedWhat
from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.buildup.kinds.run import RunWhat
from brave_tessel.core.buildup.kinds.water import WaterWhat
from brave_tessel.core.job.layers import layer_of
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.maps import MapKind
from brave_tessel.core.repeat.mend import closed_size
from brave_tessel.engine.intents.light import take_preset
from tests.ui.hand import at, click, hover, pull


def layers(build):
    return [layer.id for layer in build.desk.selection.surface.layers]


def lay(build, settled, group, kind):
    build.layers.lay_on(group, kind)
    settled(build.window_)
    return build.desk.selection.layer


@pytest.mark.parametrize(
    ("group", "kind", "what"),
    [
        ("Special", "Standing water", WaterWhat),
        ("Special", "Painted", PaintedWhat),
        ("Special", "Run", RunWhat),
        ("Special", "Inscription", InscriptionWhat),
        ("Special", "Bundle", BundleWhat),
        ("Special", "Plain colour", PlainWhat),
        ("Special", "Scatter", None),
        ("Decal", "Recipe", DecalWhat),
        ("Marks of use", "Smudges", RecipeWhat),
    ],
)
def test_every_kind_is_laid_on_shown_and_undone(build, settled, group, kind, what):
    layer = lay(build, settled, group, kind)
    assert what is None or isinstance(layer.what, what)
    assert build.done.faults == {}
    assert build.layer_card.fault.isHidden()
    assert layers(build)[-1] == layer.id
    assert any(row.id == layer.id for row in build.list.rows)
    for form, _ in build.layer_card.forms:
        assert form.controls
    build.desk.session.store.undo()
    assert len(layers(build)) == 2


def test_an_inscription_is_dragged_sized_and_turned_by_its_handles(build, settled):
    layer = lay(build, settled, "Special", "Inscription")
    board = build.surface_board
    before = layer.what.placement
    names = {handle.name for handle in board.handles.handles}
    assert {"middle", "turn", "north east"} <= names
    pull(board, at(board, before.x_mm, before.y_mm), at(board, before.x_mm - 120, before.y_mm + 60))
    moved = build.desk.selection.layer.what.placement
    assert (moved.x_mm, moved.y_mm) == pytest.approx((before.x_mm - 120, before.y_mm + 60), abs=3)
    corner = next(h for h in board.handles.handles if h.name == "north east")
    pull(board, at(board, corner.x, corner.y), at(board, moved.x_mm + moved.width_mm, moved.y_mm + moved.height_mm))
    grown = build.desk.selection.layer.what.placement
    assert grown.width_mm / grown.height_mm == pytest.approx(moved.width_mm / moved.height_mm, rel=0.02)
    assert grown.width_mm == pytest.approx(2 * moved.width_mm, rel=0.08)
    corner = next(h for h in board.handles.handles if h.name == "south west")
    pull(
        board, at(board, corner.x, corner.y), at(board, corner.x, corner.y - 20), keys=Qt.KeyboardModifier.ShiftModifier
    )
    assert build.desk.selection.layer.what.placement.width_mm == pytest.approx(grown.width_mm, rel=0.03)
    assert build.desk.selection.layer.what.placement.height_mm > grown.height_mm
    knob = next(h for h in board.handles.handles if h.name == "turn")
    middle = build.desk.selection.layer.what.placement
    pull(board, at(board, knob.x, knob.y), at(board, middle.x_mm - 150, middle.y_mm + 1))
    assert build.desk.selection.layer.what.placement.turn == pytest.approx(90, abs=2)
    undone = 0
    while build.desk.selection.layer.what.placement != before and undone < 10:
        build.desk.session.store.undo()
        undone += 1
    assert undone == 4, "each drag is one step"


def test_a_run_gets_loses_and_moves_points(build, settled):
    layer = lay(build, settled, "Special", "Run")
    board = build.surface_board
    click(board, at(board, 450, 225))
    assert len(build.desk.selection.layer.what.points) == 4
    pull(board, at(board, 450, 225), at(board, 460, 300))
    assert build.desk.selection.layer.what.points[2] == pytest.approx((460, 300), abs=3)
    QTest.keyClick(board, Qt.Key.Key_Delete)
    assert len(build.desk.selection.layer.what.points) == len(layer.what.points)
    # The ends of a run that closes over the edge move together.
    pull(board, at(board, 0, 225), at(board, 20, 260))
    first, last = build.desk.selection.layer.what.points[0], build.desk.selection.layer.what.points[-1]
    assert (last[0] - first[0], last[1] - first[1]) == pytest.approx((600, 0))


def test_a_drawing_is_taken_and_a_broken_one_told(build, settled, tmp_path):
    lay(build, settled, "Special", "Inscription")
    drawing = tmp_path / "fish.svg"
    drawing.write_text(
        '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0 C 20 -20 40 -20 60 '
        '0 L 80 -15 L 80 15 L 60 0 C 40 20 20 20 0 0 Z"/></svg>',
        encoding="utf-8",
    )
    build.take_drawing(drawing)
    settled(build.window_)
    assert build.desk.selection.layer.what.drawing
    assert build.done.faults == {}
    assert build.done.stack.share.max() > 0.9
    broken = tmp_path / "broken.svg"
    broken.write_text("<svg><path d='", encoding="utf-8")
    build.take_drawing(broken)
    settled(build.window_)
    assert "broken.svg" in build.window_.told.text()
    assert build.desk.selection.layer.what.drawing


def test_layers_are_bundled_nested_opened_and_locked(build, settled):
    build.list.clearSelection()
    for row in range(build.list.count()):
        build.list.item(row).setSelected(True)
    assert set(build.desk.selection.layer_ids) == {"tiles", "top"}
    QTest.keyClick(build.window_, Qt.Key.Key_G, Qt.KeyboardModifier.ControlModifier)
    bundle = build.desk.selection.layer
    assert isinstance(bundle.what, BundleWhat)
    assert [layer.id for layer in bundle.what.layers] == ["tiles", "top"]
    settled(build.window_)
    assert [row.indent for row in build.list.rows] == [0, 1, 1]
    assert build.done.faults == {}
    fresh = lay(build, settled, "Special", "Plain colour")
    build.desk.selection.layer_ids = (fresh.id,)
    build.layers.drop(bundle.id, "into")
    assert layer_of(build.desk.selection.surface, bundle.id).what.layers[-1].id == fresh.id
    build.layers.drop("tiles", "below", ids=(bundle.id,))
    assert "cannot lie within itself" in build.window_.told.text()
    build.desk.selection.choose(layer="top")
    build.desk.selection.layer_ids = ("top",)
    QTest.keyClick(build.window_, Qt.Key.Key_L)
    assert layer_of(build.desk.selection.surface, "top").locked
    build.layers.remove()
    assert "locked" in build.window_.told.text()
    assert layer_of(build.desk.selection.surface, "top")
    build.hand.set_painting(True)
    assert not build.surface_board.painting
    build.desk.selection.choose(layer=bundle.id)
    build.layer_card.asked.emit("unbundle", "")
    assert layers(build) == ["tiles", "top", fresh.id]


def test_layers_are_copied_into_another_surface(build, settled):
    build.layers.copy()
    held = json.loads(QApplication.clipboard().text())
    assert held["layers"][0]["name"] == "Top"
    build.new_surface()
    before = len(build.desk.selection.surface.layers)
    build.layers.paste()
    assert len(build.desk.selection.surface.layers) == before + 1
    assert build.desk.selection.layer.name == "Top"
    assert build.desk.selection.layer.id != "top"
    QApplication.clipboard().setText("a shopping list")
    build.layers.paste()
    assert "layers copied here" in build.window_.told.text()


def test_a_rules_picture_comes_at_its_own_size(demo_window, settled):
    """From the rule's form: a source is laid in whole repeats near its real size, and again by the button."""
    window, desk, card = demo_window, demo_window.desk, demo_window.build_stage.layer_card
    desk.go("Build")
    desk.selection.choose(surface="plaster", layer="")
    settled(window)
    desk.selection.choose(layer=desk.selection.surface.layers[-1].id)
    card.add_rule("where.picture")
    settled(window)
    source, surface = desk.job.source("mosaic"), desk.selection.surface
    form = next(form for form, _ in card.forms if "source" in form.controls)
    form.changed.emit("source", source.id)
    settled(window)
    rule = desk.selection.layer.where[-1].rule
    across = rule.value("across")
    assert abs(surface.width_mm / across - closed_size(source)[0]) < closed_size(source)[0] / across
    card.put(("where", desk.selection.layer.where[-1].id, "rule", "values"), {**rule.values, "across": 9, "up": 9}, "x")
    settled(window)
    own = next(b for b in card.findChildren(QAbstractButton) if b.text() == "At its own size" and b.isVisible())
    own.click()
    assert desk.selection.layer.where[-1].rule.values == rule.values


def test_rules_are_rows_with_modes_order_and_presets(build, settled):
    card = build.layer_card
    card.add_rule("where.band")
    card.add_rule("where.noise")
    settled(build.window_)
    assert len(card.rules.rows) == 2
    ids = [rule.id for rule in build.desk.selection.layer.where]
    card.rules.moved.emit(ids[0], 1)
    assert [rule.id for rule in build.desk.selection.layer.where] == ids[::-1]
    card.rules.eye_clicked.emit(ids[0], False)
    assert not build.desk.selection.layer.where[1].shown
    card._add_preset("Dust in hollows")
    assert len(build.desk.selection.layer.where) == 5
    settled(build.window_)
    assert build.done.faults == {}
    assert set(ids) <= set(card.rule_thumbs)


def test_a_gradients_handles_are_dragged_on_the_board(build, settled):
    build.layer_card.add_rule("where.gradient")
    settled(build.window_)
    board = build.surface_board
    end = next(h for h in board.handles.handles if h.name == "to")
    pull(board, at(board, end.x, end.y), at(board, end.x, 120))
    assert build.desk.selection.layer.where[0].rule.number("to_up") == pytest.approx(120, abs=3)


def test_small_pictures_show_what_the_preview_shows(build, settled):
    card = build.layer_card
    card.add_rule("where.noise")
    rule = build.desk.selection.layer.where[-1]
    build.desk.view.set_preview(1024)
    card.put(("where", rule.id, "rule", "values", "size"), 4.0, "Smaller")
    settled(build.window_)
    fine = build.done.thumbs[rule.id].astype(float)
    assert fine.std() > 20, "patches of 4 mm are finer than the coarse picture's pixels"
    seen = []
    build.desk.build.ready.connect(lambda done: seen.append(build.done.thumbs[rule.id]))
    card.put(("seat", "values", "level"), 0.1, "Level")
    settled(build.window_)
    assert len(seen) >= 2
    assert all((picture == seen[-1]).all() for picture in seen), "they do not flicker"
    build.layers._show_or_hide("top", False)
    card.put(("where", rule.id, "rule", "values", "cover"), 0.0, "Nowhere")
    settled(build.window_)
    assert build.done.thumbs[rule.id].max() < 60, "hidden layers have theirs too"
    for cover in (0.3, 0.6, 1.0):
        card.put(("where", rule.id, "rule", "values", "cover"), cover, "Wider")
        QTest.qWait(40)
    settled(build.window_)
    assert build.done.thumbs[rule.id].min() > 60, "after a hand that moved as well"


def test_maps_are_switched_mixed_and_the_seat_changed(build, settled):
    card = build.layer_card
    card._switch(MapKind.HEIGHT, False)
    assert MapKind.HEIGHT not in build.desk.selection.layer.maps
    card._set_mix(MapKind.BASE_COLOUR, {"mode": "multiply"})
    card._set_mix(MapKind.BASE_COLOUR, {"strength": 0.5})
    assert build.desk.selection.layer.mix(MapKind.BASE_COLOUR).mode == "multiply"
    assert build.desk.selection.layer.mix(MapKind.BASE_COLOUR).strength == 0.5
    card._seat_kind("seat.over")
    settled(build.window_)
    assert build.desk.selection.layer.seat.op == "seat.over"
    assert build.done.stack.share.min() > 0.99
    form = next(form for form, _ in card.forms if form.op == "tone.match")
    form.changed.emit("tone_match", 0.8)
    assert build.desk.selection.layer.tone.number("tone_match") == 0.8


def test_who_wins_cover_and_reflectance_are_views(build, settled):
    build.layer_card.add_rule("where.shape")
    seen = {}
    for view in ("Lit", "Who wins", "Cover", "Reflectance"):
        build.window_.actions_.show_view(view)
        settled(build.window_)
        seen[view] = build.done.mips[0].astype(float)
    assert len({pixels.tobytes() for pixels in seen.values()}) == 4
    assert set(np.unique(seen["Cover"][..., 0])) >= {0.0, 255.0}
    QTest.keyClick(build.window_, Qt.Key.Key_C)
    assert build.desk.view.view == "Cover"
    QTest.keyClick(build.window_, Qt.Key.Key_C)
    assert build.desk.view.view == "Reflectance"


def test_one_layer_is_shown_alone(build, settled):
    QTest.keyClick(build.window_, Qt.Key.Key_O)
    settled(build.window_)
    assert len(build.done.surface.layers) == 1
    assert len(build.desk.selection.surface.layers) == 2
    QTest.keyClick(build.window_, Qt.Key.Key_O)
    settled(build.window_)
    assert len(build.done.surface.layers) == 2


def test_the_sections_bodies_are_drawn_once(build, settled, monkeypatch):
    strip, drawn = build.section, []
    paint = strip._paint_bodies
    monkeypatch.setattr(strip, "_paint_bodies", lambda *args: (drawn.append(1), paint(*args)))
    build.surface_board.cut_moved.emit(120.0)
    first = strip.grab().toImage()
    hover(strip, QPoint(300, 60))
    strip.grab()
    assert len(drawn) == 1, "the pointer moves over them"
    strip.times = 5
    assert strip.grab().toImage() != first
    assert len(drawn) == 2
    QTest.keyClick(build.surface_board, Qt.Key.Key_Period)
    strip.grab()
    assert len(drawn) == 3


def test_the_section_turns_measures_and_is_drawn_steeper(build, settled):
    strip, board = build.section, build.surface_board
    level = strip.section.heights[-1].copy()
    QTest.keyClick(board, Qt.Key.Key_Period)
    assert board.cut_angle == 5
    assert not np.array_equal(strip.section.heights[-1], level)
    frame = strip._frame()
    click(strip, QPoint(int(frame.left() + 40), int(frame.center().y())))
    click(strip, QPoint(int(frame.left() + 160), int(frame.center().y())))
    (x0, _), (x1, _) = strip.measure
    assert x1 - x0 == pytest.approx(120 / frame.width() * 600, rel=0.02)
    assert strip.times == 0
    click(strip, QPoint(int(frame.left() + 40), 8))
    assert strip.times == 1
    assert not strip.grab().isNull()


def test_water_is_water_in_the_section(build, settled):
    layer = lay(build, settled, "Special", "Standing water")
    form = next(form for form, _ in build.layer_card.forms if form.op == "water.standing")
    form.changed.emit("level", -0.5)
    settled(build.window_)
    assert build.desk.selection.layer.what.water.number("level") == -0.5
    assert build.section.section.numbers[-1] == layers(build).index(layer.id)
    assert not build.section.grab().isNull()
    assert build.done.stack.water is not None


def test_a_kept_state_is_wiped_against_what_comes(build, settled):
    QTest.keyClick(build.window_, Qt.Key.Key_K)
    board = build.surface_board
    assert board.compared.pictures
    x = board.compared.wipe_x()
    pull(board, QPoint(int(x), 200), QPoint(int(x) - 120, 200))
    assert board.compared.wipe < 0.5
    for mode in ("Side by side", "In turn", "Wipe"):
        board.compared.bar.buttons[mode].click()
        assert board.compared.mode == mode
        assert not board.grab().isNull()
    QTest.keyClick(build.window_, Qt.Key.Key_K)
    assert not board.compared.pictures
    assert not board.compared.bar.isVisible()
    assert [state.name for state in build.desk.job.states] == ["1"]


def test_a_pinned_probe_tells_what_each_rule_gave(build, settled, soon):
    build.layer_card.add_rule("where.shape")
    settled(build.window_)
    board = build.surface_board
    hover(board, at(board, 150, 150))
    QTest.keyClick(board, Qt.Key.Key_P)
    soon(lambda: "→" in board.pins[-1][2])
    assert "keep shape 1.00" in board.pins[-1][2]


def test_lights_and_walls(build, settled):
    build.desk.dispatch(take_preset("Overcast"))
    settled(build.window_)
    assert {c[1]: c[2] for c in build.block.cells}["Light"] == "Overcast"
    build.window_.actions_.show_extent("Wall 6 m")
    build.show_extent("Wall 6 m")
    assert build.surface_board.extent()[2] == 12000


def test_a_surface_is_shown_on_a_solid(build, settled):
    build.window_.actions_.show_extent("Solid")
    settled(build.window_)
    assert build.solid.isVisible()
    if not build.solid.failed:
        first = build.solid.image.copy()
        build.solid.show_shape("Drum")
        settled(build.window_)
        assert build.solid.image != first
        for relief in ("Parallax", "By normals"):
            before = build.solid.image.copy()
            build.solid.show_relief(relief)
            settled(build.window_)
            assert build.solid.failed == ""
            assert build.solid.image != before, relief
    build.window_.actions_.show_extent("Cell")
    assert not build.solid.isVisible()


def test_an_id_colour_is_picked_on_the_board(demo_window, settled, soon):
    desk, build = demo_window.desk, demo_window.stages["Build"]
    desk.view.set_preview(256)
    desk.selection.choose(surface="shingle-bed", layer="stone-salt")
    desk.go("Build")
    demo_window.actions_.show_extent("Cell")
    settled(demo_window)
    build.layer_card.add_rule("where.id")
    build.layer_card.set_setting(("where", desk.selection.layer.where[-1].id, "rule"), "source", "strandline")
    settled(demo_window)
    build.hand.pick_id()
    board = build.surface_board
    for x in range(40, 500, 40):
        click(board, at(board, x, 300))
    soon(lambda: desk.selection.layer.where[-1].rule.values.get("colours", "#000000,#000000") != "#000000,#000000")
    QTest.keyClick(demo_window, Qt.Key.Key_Escape)
    assert not board.picking


def test_the_chosen_layers_are_merged_and_opened_again(build, settled, soon):
    build.desk.selection.layer_ids = ("tiles", "top")
    build.layers.merge()
    soon(lambda: len(layers(build)) == 1)
    settled(build.window_)
    assert build.done.faults == {}
    build.layer_card.asked.emit("unmerge", "")
    assert layers(build) == ["tiles", "top"]
    build.desk.selection.layer_ids = ("top",)
    build.layers.merge()
    assert "Choose the layers" in build.window_.told.text()


def test_a_source_is_stamped_along_a_run_and_its_neutral_level_told(demo_window, settled, soon):
    desk, build = demo_window.desk, demo_window.stages["Build"]
    desk.view.set_preview(256)
    desk.selection.choose(surface="terrazzo-floor")
    desk.go("Build")
    build.layers.lay_on("Special", "Run")
    build.layer_card.put(
        ("what", "stamp"), Setting(op="stamp.source", values={"source": "mosaic", "step": 300.0, "width": 120.0}), "x"
    )
    settled(demo_window)

    def told():
        return " ".join(label.text() for label in build.layer_card.findChildren(QLabel))

    soon(lambda: "neutral level is" in told())
    assert "mm, found from its rim" in told()
    assert build.done.faults == {}


def test_a_layer_is_renamed_in_its_row(build, settled):
    QTest.keyClick(build.window_, Qt.Key.Key_F2)
    field = build.list.name_field
    assert field.isVisible()
    QTest.keyClicks(field, "Red lead")
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert layer_of(build.desk.selection.surface, "top").name == "Red lead"
    assert build.desk.session.store.undo_label == "Rename the layer"


def test_the_card_stays_while_a_scale_of_it_moves(build, settled):
    card = build.layer_card
    build.desk.selection.choose(layer="tiles")
    settled(build.window_)
    card.fill_all()
    before = list(card.fields)
    assert before
    for path, value in ((("what", "across"), 3), (("laying", "turn"), 20.0)):
        if path[0] == "laying":
            card.set_setting(("laying",), "turn", value)
        else:
            card.put(path, value, "Set repeats", gesture="repeats")
        settled(build.window_)
        assert [control for control, _ in card.fields] == [control for control, _ in before]
    assert layer_of(build.desk.selection.surface, "tiles").what.across == 3
    assert layer_of(build.desk.selection.surface, "tiles").laying.values["turn"] == 20.0
