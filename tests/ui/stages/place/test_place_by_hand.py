"""Stage 4 by mouse and keys: parts, surfaces, layings, the datum, the view and its light."""

import numpy as np
import pytest
from PyQt6.QtCore import QMimeData, QPointF, Qt
from PyQt6.QtGui import QDragEnterEvent, QDragMoveEvent, QDropEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from brave_tessel.core.job.document import Job
from brave_tessel.core.operation import family
from brave_tessel.core.place.site import site_of
from brave_tessel.ui.stages.place.scene_view import SURFACE_MIME
from tests.ui.hand import click, pull
from tests.ui.stages.place.placing import dado, on, part, press
from tests.ui.test_whole_pass import type_into

WHOLE = (0.0, 0.0, 0.0)


# An empty scene ----------------------------------------------------------------------------------


def test_an_empty_scene_says_what_to_do_and_has_no_card(window, settled):
    window.desk.go("Place")
    settled(window)
    stage = window.stages["Place"]
    assert stage.add.isVisible()
    assert not stage.card.isEnabled()
    click(stage.add)
    assert stage.sheet.isVisible()
    QTest.keyClick(stage.sheet, Qt.Key.Key_Escape)
    assert not stage.sheet.isVisible()


def test_a_piece_is_stood_up_where_one_clicks_and_pulled_at(window, settled):
    window.desk.go("Place")
    stage = window.stages["Place"]
    click(stage.add)
    stage.sheet.buttons["made.box"].click()
    settled(window)
    stage.view.stand_at((-2000.0, -5000.0, 2500.0), (500.0, 500.0, 0.0), 46.0)
    press(stage.view, (500.0, 500.0, 0.0))
    settled(window)
    (box,) = window.desk.job.scene.parts
    assert box.at == pytest.approx((500, 500, 0), abs=25)
    assert window.desk.selection.part_id == box.id
    stage.view.stand_at((-2000.0, -5000.0, 2500.0), (500.0, 500.0, 0.0), 46.0)
    settled(window)
    grip = next(g for g in stage.view.overlay.grips if g.key.startswith(":height"))
    start, end = on(stage.view, grip.at), on(stage.view, grip.at + np.array([0, 0, 600.0]))
    pull(stage.view, start, end)
    fresh = window.desk.job.scene.parts[0].piece.number("height")
    assert fresh == pytest.approx(1600, abs=40)
    window.desk.session.store.undo()
    assert window.desk.job.scene.parts[0].piece.number("height") == 1000


@pytest.mark.parametrize("name", ["room", "street"])
def test_a_whole_scene_is_put_up_and_taken_back(window, settled, name):
    window.desk.go("Place")
    stage = window.stages["Place"]
    stage.put_up(name)
    settled(window)
    assert len(window.desk.job.scene.parts) >= 4
    assert stage.view.image is not None
    window.desk.session.store.undo()
    assert window.desk.job.scene == Job().scene


# The tree ----------------------------------------------------------------------------------------


def test_every_part_has_a_row_that_says_what_lies_on_it(place):
    rows = {row.id: row for row in place.tree.rows}
    assert set(rows) == {p.id for p in place.desk.job.scene.parts}
    assert rows["floor"].note == "S, flat"
    assert rows["north-wall"].note.startswith("Brick, flat")
    assert rows["figure"].note == "bare"


def test_a_part_is_chosen_in_the_tree_by_keys(place):
    place.tree.setFocus()
    QTest.keyClick(place.tree, Qt.Key.Key_Home)
    chosen = place.desk.selection.part_id
    QTest.keyClick(place.tree, Qt.Key.Key_Down)
    assert place.desk.selection.part_id != chosen
    assert place.title.text() == place.desk.selection.part.name


def test_a_part_is_renamed_in_its_row_and_in_the_card(place):
    place.tree.setFocus()
    QTest.keyClick(place.tree, Qt.Key.Key_F2)
    field = place.tree.name_field
    field.setText("Sea wall")
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert part(place).name == "Sea wall"
    place.title.setFocus()
    place.title.selectAll()
    QTest.keyClicks(place.title, "North front")
    QTest.keyClick(place.title, Qt.Key.Key_Return)
    assert part(place).name == "North front"


def test_hide_isolate_lock_and_group(place, settled):
    def standing():
        settled(place.window_)
        return {one.part.id for one in place.site.standing}

    whole = standing()
    QTest.keyClick(place.window_, Qt.Key.Key_H)
    assert part(place).hidden
    assert standing() == whole - {"north-wall"}
    QTest.keyClick(place.window_, Qt.Key.Key_H)
    QTest.keyClick(place.window_, Qt.Key.Key_I)
    assert standing() == {"north-wall"}
    QTest.keyClick(place.window_, Qt.Key.Key_I)
    assert standing() == whole
    QTest.keyClick(place.window_, Qt.Key.Key_L, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier)
    assert part(place).locked
    assert place.view.overlay.grips == ()
    place.parts.group()
    group = part(place).parent
    assert group
    QTest.keyClick(place.tree.name_field, Qt.Key.Key_Escape)
    place.desk.selection.choose(part=group)
    place.parts.ungroup()
    assert part(place).parent == ""


def test_a_group_is_folded_by_a_key(place):
    place.parts.group()
    place.tree.name_field = None
    group = part(place).parent
    place.desk.selection.choose(part=group)
    place.tree.setFocus()
    QTest.keyClick(place.tree, Qt.Key.Key_Left)
    assert "north-wall" not in {row.id for row in place.tree.rows}
    QTest.keyClick(place.tree, Qt.Key.Key_Right)
    assert "north-wall" in {row.id for row in place.tree.rows}


def test_a_part_is_copied_in_a_row(place, settled):
    place.desk.selection.choose(part="figure")
    place.part_card._set_copies("copies.row")
    settled(place.window_)
    type_into(place.part_card.fields["copies"].controls["count"].field, "5")
    settled(place.window_)
    assert sum(one.part.id == "figure" for one in place.site.standing) == 5
    place.desk.session.store.undo()
    settled(place.window_)
    assert sum(one.part.id == "figure" for one in place.site.standing) == 3


def test_a_part_is_taken_out_by_the_delete_key(place):
    place.desk.selection.choose(part="figure")
    place.tree.setFocus()
    QTest.keyClick(place.tree, Qt.Key.Key_Delete)
    assert part(place, "figure") is None
    place.desk.session.store.undo()
    assert part(place, "figure") is not None


# Laying ------------------------------------------------------------------------------------------


def test_a_click_on_the_model_chooses_the_part_and_what_lies_there(place, settled):
    place.desk.selection.choose(part="floor")
    press(place.view, (900.0, 0.0, 600.0))
    settled(place.window_)
    assert place.desk.selection.part_id == "north-wall"
    assert place.laid_card.laid_of(part(place)).groups == ("dado",)
    press(place.view, (900.0, 0.0, 2000.0))
    assert "front" in place.laid_card.laid_of(part(place)).groups


def test_a_surface_is_laid_by_a_click_on_its_tile(place, settled):
    press(place.view, (900.0, 0.0, 600.0))
    click(place.tiles["t"])
    settled(place.window_)
    assert dado(place).surface == "t"
    assert place.tiles["t"].chosen
    place.desk.session.store.undo()
    assert dado(place).surface == "brick"


def dropped(view, at, surface, keys=Qt.KeyboardModifier.NoModifier):
    data = QMimeData()
    data.setData(SURFACE_MIME, surface.encode())
    given = (Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, keys)
    QApplication.sendEvent(view, QDragEnterEvent(at, *given))
    QApplication.sendEvent(view, QDragMoveEvent(at, *given))
    note = view.overlay.note
    QApplication.sendEvent(view, QDropEvent(QPointF(at), *given))
    return note


def test_a_drop_shows_what_it_would_cover_and_lays_it_there(place, settled):
    note = dropped(place.view, on(place.view, (900.0, 0.0, 600.0)), "t")
    assert note.startswith("T on North wall, dado")
    settled(place.window_)
    assert dado(place).surface == "t"
    assert place.view.overlay.note == ""
    note = dropped(place.view, on(place.view, (900.0, 0.0, 600.0)), "s", Qt.KeyboardModifier.ShiftModifier)
    assert "whole part" in note
    assert "covers" in note
    assert any(one.surface == "s" and not one.groups for one in part(place).laid)


def test_a_surface_is_taken_off(place, settled):
    press(place.view, (900.0, 0.0, 600.0))
    place.laid_card._take_off()
    settled(place.window_)
    assert all("dado" not in one.groups for one in part(place).laid)


def test_every_laying_is_chosen_by_its_button_and_has_a_form(place, settled):
    for laying in [entry.id for entry in family("laying")]:
        place.laid_card.kind.buttons[laying].click()
        settled(place.window_)
        shown = place.laid_card.laid_of(part(place))
        assert shown.laying.op == laying
        assert place.laid_card.form.op == laying
        assert {"turn", "across", "up", "mirrored", "factor"} <= set(place.laid_card.form.controls), laying


def test_a_shift_is_typed_and_the_courses_follow(place, settled):
    press(place.view, (900.0, 0.0, 600.0))
    settled(place.window_)
    before = place.laid_card.courses.text()
    assert before.startswith("16 whole courses of 75 mm")
    type_into(place.laid_card.form.controls["up"].field, "39")
    settled(place.window_)
    assert dado(place).laying.number("up") == 39
    assert place.laid_card.courses.text() != before
    assert "Cut" in place.laid_card.courses.text()
    place.desk.session.store.undo()
    settled(place.window_)
    assert place.laid_card.courses.text() == before


def test_a_shift_that_is_no_length_is_told(place):
    before = place.desk.job
    type_into(place.laid_card.form.controls["up"].field, "a bit")
    assert place.desk.job is before
    assert "a bit" in place.window_.told.text()


def test_true_size_by_counting(place, settled):
    """34 times 75: check-values B1. A repeat of 900 mm along that is to be 4 units of 225 stays as it is."""
    press(place.view, (900.0, 0.0, 600.0))
    settled(place.window_)
    field = place.laid_card.count
    field.setText("4*(215+10)")
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert dado(place).laying.number("factor") == pytest.approx(1.0)
    place.laid_card.count.setText("1800")
    QTest.keyClick(place.laid_card.count, Qt.Key.Key_Return)
    assert dado(place).laying.number("factor") == pytest.approx(2.0)
    place.laid_card.count.setText("wide")
    before = place.desk.job
    QTest.keyClick(place.laid_card.count, Qt.Key.Key_Return)
    assert place.desk.job is before
    assert "wide" in place.window_.told.text()


def test_a_measured_line_sizes_a_repeat(place, settled):
    place.hand.take("Measure")
    press(place.view, (0.0, 0.0, 0.0), aside=(2, -2))
    press(place.view, (4500.0, 0.0, 0.0), aside=(-2, -2))
    (line,) = place.desk.job.scene.lines
    assert line.start == pytest.approx((0, 0, 0), abs=1)
    assert line.end == pytest.approx((4500, 0, 0), abs=1)
    assert "4" in place.window_.told.text()
    place.hand.leave()
    press(place.view, (900.0, 0.0, 600.0))
    settled(place.window_)
    place.laid_card._by_line()
    assert dado(place).laying.number("factor") == pytest.approx(5.0)
    place.clear_lines()
    assert place.desk.job.scene.lines == ()


def test_picked_faces_take_a_surface_of_their_own(place, settled):
    place.desk.selection.choose(part="figure")
    place.tools.buttons["Faces"].click()
    assert place.kinds.isVisible()
    place.kinds.buttons["Same material"].click()
    press(place.view, (900.0, 0.0, 2000.0))
    count = len(place.hand.picked)
    assert place.hand.picked_part == "north-wall"
    assert count > 2
    assert place.view.marked
    press(place.view, (900.0, 0.0, 600.0), Qt.KeyboardModifier.ShiftModifier)
    assert len(place.hand.picked) > count
    press(place.view, (900.0, 0.0, 600.0), Qt.KeyboardModifier.ControlModifier)
    assert len(place.hand.picked) == count
    click(place.tiles["t"])
    settled(place.window_)
    on_top = part(place).laid[-1]
    assert (on_top.surface, bool(on_top.picked)) == ("t", True)
    standing = site_of(place.desk.job).of_part("north-wall")
    assert len(standing.faces_of(len(part(place).laid) - 1)) == count
    assert not len(place.hand.picked)


def test_every_way_to_pick_faces(place):
    for kind in ("One", "By angle", "Loop", "Brush", "Connected", "Same material"):
        place.hand.take("Faces")
        place.kinds.buttons[kind].click()
        press(place.view, (900.0, 0.0, 600.0))
        picked = len(place.hand.picked)
        assert picked >= 1, kind
        QTest.keyClick(place.view, Qt.Key.Key_Plus)
        assert len(place.hand.picked) >= picked
        QTest.keyClick(place.window_, Qt.Key.Key_Escape)
        assert not len(place.hand.picked), kind
        assert place.hand.tool == "Choose"


def test_pins_hold_a_surface_in_perspective(place, settled):
    press(place.view, (900.0, 0.0, 600.0))
    place.laid_card.kind.buttons["laying.pinned"].click()
    settled(place.window_)
    place.hand.take("Pin")
    for point in ((0.0, 0.0, 0.0), (1300.0, 0.0, 0.0), (1300.0, 0.0, 800.0), (0.0, 0.0, 1200.0)):
        press(place.view, point, aside=(3, -3))
        settled(place.window_)
    pins = dado(place).pins
    assert [(pin.x_mm, pin.y_mm) for pin in pins] == [(0, 0), (900, 0), (900, 600), (0, 600)]
    found = place.site.coordinates(place.site.of_part("north-wall"), part(place).laid.index(dado(place)))
    assert found.note == ""
    assert not found.linear
