"""Stage 4 by mouse and keys: parts, surfaces, layings, the datum, the view and its light."""

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtTest import QTest

from brave_tessel.core.job.document import Job
from brave_tessel.core.operation import family
from brave_tessel.core.place.pieces.corner import CORNER
from tests.ui.hand import click, pull
from tests.ui.test_whole_pass import drag, type_into


@pytest.fixture
def place(demo_window, settled):
    """Stage 4 of the demo, the north dado chosen."""
    demo_window.desk.go("Place")
    demo_window.desk.selection.choose(part="north-dado")
    settled(demo_window)
    stage = demo_window.stages["Place"]
    stage.window_ = demo_window
    return stage


def part(stage, id="north-dado"):
    return next(part for part in stage.desk.job.scene.parts if part.id == id)


def test_an_empty_scene_offers_a_sample_and_no_card(window, settled):
    window.desk.go("Place")
    settled(window)
    stage = window.stages["Place"]
    assert stage.put_up.isVisible()
    assert not stage.card.isEnabled()
    QTest.mouseClick(stage.put_up, Qt.MouseButton.LeftButton)
    settled(window)
    assert not stage.put_up.isVisible()
    assert len(window.desk.job.scene.parts) > 4
    window.desk.session.store.undo()
    assert window.desk.job.scene.parts == Job().scene.parts


def test_every_part_has_a_row_under_its_group(place):
    rows = place.list.rows
    parts = [row for row in rows if not row.heading]
    assert [row.id for row in parts] == [p.id for p in place.desk.job.scene.parts]
    names = {surface.id: surface.name for surface in place.desk.job.surfaces}
    for row, one in zip(parts, place.desk.job.scene.parts, strict=True):
        assert row.note == names.get(one.surface, "bare")


def test_a_part_is_chosen_in_the_list_by_keys(place, settled):
    place.list.setFocus()
    QTest.keyClick(place.list, Qt.Key.Key_Home)
    QTest.keyClick(place.list, Qt.Key.Key_Down)
    chosen = place.desk.selection.part_id
    QTest.keyClick(place.list, Qt.Key.Key_Down)
    assert place.desk.selection.part_id != chosen
    assert place.title.text() == place.desk.selection.part.name


@pytest.mark.parametrize("surface", ["deck", "shingle-bed", "seat"])
def test_a_surface_is_laid_by_a_click_on_its_tile(place, settled, surface):
    QTest.mouseClick(place.tiles[surface], Qt.MouseButton.LeftButton)
    settled(place.window_)
    assert part(place).surface == surface
    assert place.tiles[surface].chosen
    laid = place.desk.job.surface(surface)
    assert laid.name in place.note.text()
    place.desk.session.store.undo()
    assert part(place).surface == "dado"


def test_a_tile_is_pressed_by_the_space_bar_too(place):
    place.tiles["deck"].setFocus()
    QTest.keyClick(place.tiles["deck"], Qt.Key.Key_Space)
    assert part(place).surface == "deck"


def test_a_surface_is_taken_off(place, settled):
    QTest.mouseClick(place.bare, Qt.MouseButton.LeftButton)
    settled(place.window_)
    assert part(place).surface == ""
    assert place.note.text() == "bare"
    assert place.courses.text() == "No courses to count here."


@pytest.mark.parametrize("laying", [entry.id for entry in family("laying")])
def test_every_laying_is_chosen_by_its_button_and_has_a_form(place, settled, laying):
    place.kind.buttons[laying].click()
    settled(place.window_)
    assert part(place).laying.op == laying
    assert place.form.op == laying
    assert place.form.controls


def test_a_shift_is_typed_and_the_courses_follow(place, settled):
    assert "None is cut" in place.courses.text()
    type_into(place.form.controls["up"].field, "39")
    settled(place.window_)
    assert part(place).laying.number("up") == 39
    assert "Cut" in place.courses.text()
    place.desk.session.store.undo()
    assert "None is cut" in place.courses.text()


def test_a_shift_that_is_no_length_is_told(place):
    before = place.desk.job
    type_into(place.form.controls["up"].field, "a bit")
    assert place.desk.job is before
    assert "a bit" in place.window_.told.text()


@pytest.mark.parametrize(
    ("near", "named", "at"),
    [
        ((CORNER.north, 0.0, 0.0), "floor line, NE corner", (CORNER.north, 0.0)),
        ((CORNER.window_left, CORNER.sill, 0.0), "sill, left jamb", (CORNER.window_left, CORNER.sill)),
    ],
)
def test_the_datum_snaps_to_corners_sill_and_floor(place, settled, near, named, at):
    click(place.pick)
    assert place.view.picking
    spot = place.view._on_screen(near)
    for aside in ((-1, -2), (-2, -1), (-3, -3), (-6, -4)):
        QTest.mouseClick(
            place.view,
            Qt.MouseButton.LeftButton,
            Qt.KeyboardModifier.NoModifier,
            QPoint(round(spot.x()) + aside[0], round(spot.y()) + aside[1]),
        )
        if not place.view.picking:
            break
    scene = place.desk.job.scene
    assert scene.datum[:2] == pytest.approx(at, abs=45)
    assert not place.view.picking
    assert any(word in scene.datum_name for word in named.split(", "))
    assert scene.datum_name in place.datum.text()


def test_esc_puts_the_datum_pin_down(place):
    click(place.pick)
    assert place.view.picking
    QTest.keyClick(place.window_, Qt.Key.Key_Escape)
    assert not place.view.picking or place.pick.isChecked()


@pytest.mark.parametrize(
    ("key", "changes"), [(Qt.Key.Key_Left, "azimuth"), (Qt.Key.Key_Up, "elevation"), (Qt.Key.Key_W, "distance")]
)
def test_the_view_is_turned_by_keys_and_comes_back(place, key, changes):
    view = place.view
    before = view.camera
    view.setFocus()
    QTest.keyClick(view, key)
    assert view.camera != before
    place.moves.buttons["Whole view"].click()
    assert view.camera == before or view.camera.distance == before.distance
    assert changes


def test_the_light_is_turned_with_the_right_button(place):
    view = place.view
    before = (view.azimuth, view.altitude)
    drag(view, QPointF(300, 200), QPointF(380, 230), button=Qt.MouseButton.RightButton)
    assert (view.azimuth, view.altitude) != before
    assert 4 <= view.altitude <= 85


def test_the_view_is_panned_with_the_middle_button(place):
    view = place.view
    before = view.camera
    drag(view, QPointF(300, 200), QPointF(340, 220), button=Qt.MouseButton.MiddleButton)
    assert view.camera != before
    assert view.camera.azimuth == before.azimuth


def test_the_chequer_shows_the_laying_and_the_light_comes_back(place, settled):
    view = place.view
    lit = view.image
    place.looks.buttons["Chequer"].click()
    settled(place.window_)
    assert view.chequer
    assert view.image is not lit
    place.looks.buttons["Lit"].click()
    settled(place.window_)
    assert not view.chequer


def test_the_pattern_is_dragged_on_the_elevation_in_one_step(place):
    strip = place.elevation
    frame, scale = strip._frame()
    start = QPoint(round(frame.left() + 600 * scale), round(frame.bottom() - 600 * scale))
    before = place.desk.job
    pull(strip, start, start + QPoint(round(60 * scale), 0), start + QPoint(round(150 * scale), 0))
    assert part(place).laying.number("across") == pytest.approx(150, abs=12)
    place.desk.session.store.undo()
    assert place.desk.job is before


def test_the_title_block_tells_what_is_laid(place):
    cells = {cell[1]: cell[2] for cell in place.block.cells}
    assert cells["Part"] == part(place).name
    assert cells["Laying"] == "flat"
    assert "1224" in cells["Repeat"].replace(" ", "").replace("\u202f", "") or "1.224" in cells["Repeat"]
