"""Stage 4 by mouse and keys: the datum, levels and colours, the view and its light, the elevation, models."""

import itertools

import numpy as np
import pytest
from PyQt6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PyQt6.QtGui import QDragEnterEvent, QDropEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QWidget

from brave_tessel.core.light.dome import sun_of
from brave_tessel.core.operation import family
from brave_tessel.ui.stages.place import laying_pictures
from brave_tessel.ui.stages.place.add_sheet import AddSheet
from brave_tessel.ui.stages.place.laying_pictures import PIECES
from brave_tessel.ui.stages.place.looks import ends
from brave_tessel.view3d.drawn import Shows
from tests.ui.hand import click, hover, pull
from tests.ui.stages.place.placing import dado, on, part, press
from tests.ui.test_whole_pass import drag, type_into

WHOLE = (0.0, 0.0, 0.0)


# Datum, levels, colour -----------------------------------------------------------------------------


def test_the_datum_snaps_to_corners_edges_and_levels(place, settled):
    for named, at in (
        ("corner", (4500.0, 0.0, 0.0)),
        ("corner", (1404.0, 0.0, 2106.0)),
        ("dado", (600.0, 0.0, 1248.0)),
    ):
        snap_datum(place, settled, named, at)


def snap_datum(place, settled, named, at):
    """Take the datum to a place near one, with the keys and the mouse."""
    QTest.keyClick(place.window_, Qt.Key.Key_P, Qt.KeyboardModifier.ControlModifier)
    assert place.hand.tool == "Datum"
    hover(place.view, on(place.view, at, (-3, -2)))
    assert place.view.overlay.mark is not None
    press(place.view, at, aside=(-3, -2))
    settled(place.window_)
    datum = place.desk.job.scene.main_datum()
    assert datum.at == pytest.approx(at, abs=25)
    assert datum.at[2] == pytest.approx(at[2], abs=0.5)
    assert named in datum.name
    assert place.hand.tool == "Choose"
    assert datum.name in place.laid_card.datum.text()


def test_one_surface_starts_from_a_datum_of_its_own(place, settled):
    press(place.view, (900.0, 0.0, 600.0))
    before = place.desk.job.scene.datum
    place.pick_datum_for(dado(place).id)
    press(place.view, (1404.0, 0.0, 936.0), aside=(-2, -2))
    settled(place.window_)
    assert place.desk.job.scene.datum == before
    own = place.desk.job.scene.datum_of(dado(place).datum)
    assert own.at == pytest.approx((1404, 0, 936), abs=1)


def test_esc_puts_the_tool_down(place):
    place.tools.buttons["Datum"].click()
    assert place.hand.tool == "Datum"
    QTest.keyClick(place.window_, Qt.Key.Key_Escape)
    assert place.hand.tool == "Choose"
    assert place.tools.buttons["Choose"].isChecked()


def test_a_level_is_named_and_drawn(place, settled):
    place.set_level("lintel 2106")
    assert place.desk.job.scene.levels[-1].name == "lintel"
    assert place.desk.job.scene.levels[-1].height == 2106
    before = place.desk.job
    place.set_level("lintel high")
    assert place.desk.job is before
    assert "high" in place.window_.told.text()


def test_a_colour_is_taken_and_given_to_bare_faces(place, settled):
    place.hand.take("Colour")
    press(place.view, (900.0, 0.0, 600.0))
    taken = place.hand.colour
    assert len(taken) == 7
    figure = place.site.of_part("figure").mesh
    spot = figure.corners[figure.normals[:, 1].argmin()].mean(0)
    press(place.view, (float(spot[0]), float(spot[1]), 1250.0), Qt.KeyboardModifier.ShiftModifier)
    assert taken in part(place, "figure").colours.values()


# The view ------------------------------------------------------------------------------------------


def test_the_view_is_turned_by_keys_and_comes_back(place):
    view = place.view
    keys = (Qt.Key.Key_Left, Qt.Key.Key_Up, Qt.Key.Key_W, Qt.Key.Key_D, Qt.Key.Key_PageUp)
    for way, key in itertools.product(("Orbit", "Walk"), keys):
        place.moves.buttons[way].click()
        before = view.camera
        view.setFocus()
        QTest.keyClick(view, key)
        assert view.camera != before, (way, key)
        if way == "Walk" and key in {Qt.Key.Key_Left, Qt.Key.Key_Up}:
            assert view.camera.eye == pytest.approx(before.eye, abs=1e-6)
        place.fit()
        assert view.camera.eye == pytest.approx(np.array(place.desk.job.scene.eyes[0].at) / 1000), (way, key)


def test_a_view_is_kept_and_comes_back(place):
    view = place.view
    view.setFocus()
    QTest.keyClick(view, Qt.Key.Key_Left)
    QTest.keyClick(place.window_, Qt.Key.Key_K, Qt.KeyboardModifier.AltModifier)
    eye = place.desk.job.scene.eyes[-1]
    before = view.camera.eye
    place.moves.buttons["Whole view"].click()
    assert not np.allclose(view.camera.eye, before)
    view.stand_at(eye.at, eye.toward, eye.angle)
    assert view.camera.eye == pytest.approx(before, abs=1e-3)


def test_the_light_is_turned_with_the_right_button(place):
    view = place.view
    before = sun_of(place.desk.job.rig).stand
    drag(view, QPointF(300, 200), QPointF(380, 230), button=Qt.MouseButton.RightButton)
    bearing, height = sun_of(place.desk.job.rig).stand
    assert (bearing, height) != before
    assert 1 <= height <= 89
    assert place.desk.session.store.undo_label == "Turn the light"


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
    assert view.shows is Shows.CHEQUER
    assert view.image is not lit
    place.looks.buttons["Lit"].click()
    settled(place.window_)
    assert view.shows is Shows.LIT


@pytest.mark.parametrize("word", ["Base colour", "Roughness", "Density", "Seams"])
def test_the_model_shows_more_than_light(place, settled, word):
    view = place.view
    lit = view.image
    place.looks.buttons[word].click()
    settled(place.window_)
    assert view.image is not lit
    assert view.grab().toImage() != lit
    assert (ends(view.shows) is not None) == (word in {"Roughness", "Density"})
    place.looks.buttons["Lit"].click()
    settled(place.window_)


def test_the_probe_tells_where_on_the_surface_one_is(place, settled):
    hover(place.view, on(place.view, (4400.0, 0.0, 100.0)))
    assert "m" in place.window_.place.text()
    assert "North wall, dado" in place.window_.told.text()
    assert "course 2" in place.window_.numbers.text()


# Elevation -----------------------------------------------------------------------------------------


def test_the_pattern_is_dragged_on_the_elevation_in_one_step(place, settled):
    press(place.view, (900.0, 0.0, 600.0))
    settled(place.window_)
    strip = place.elevation
    _, scale = strip._frame()
    start = strip._at(600.0, 600.0).toPoint()
    before = place.desk.job
    pull(strip, start, start + QPoint(round(60 * scale), 0), start + QPoint(round(150 * scale), 0))
    assert dado(place).laying.number("across") == pytest.approx(150, abs=30)
    settled(place.window_)
    place.desk.session.store.undo()
    assert place.desk.job is before


def test_the_title_block_tells_what_is_laid(place, settled):
    press(place.view, (900.0, 0.0, 600.0))
    settled(place.window_)
    cells = {cell[1]: cell[2] for cell in place.block.cells}
    assert cells["Part"] == "North wall"
    assert cells["Laying"] == "flat"
    assert cells["Courses"].startswith("16 whole")
    assert "900" in cells["Repeat"]


def test_a_sized_wall_shows_openings_to_type(place, settled):
    place.part_card.sections["Openings"].unfold()
    opening = part(place).piece.openings[0]
    field = place.part_card.fields[f"{opening.id} width"]
    type_into(field.field, "1200")
    assert part(place).piece.openings[0].width == 1200
    place.part_card.asked.emit("door")
    press(place.view, (3500.0, 0.0, 600.0))
    settled(place.window_)
    door = part(place).piece.openings[-1]
    assert door.filling == "door"
    assert door.left + door.width / 2 == pytest.approx(3500, abs=60)


def test_a_moulding_runs_along_a_drawn_path(place, settled):
    place.hand.stand("made.moulding")
    press(place.view, (500.0, -1500.0, 0.0))
    settled(place.window_)
    made = place.desk.selection.part
    assert made.piece.op == "made.moulding"
    place.part_card.asked.emit("path")
    for point in ((300.0, -2500.0, 0.0), (300.0, -300.0, 0.0), (4000.0, -300.0, 0.0)):
        press(place.view, point)
    QTest.keyClick(place.view, Qt.Key.Key_Return)
    settled(place.window_)
    path = place.desk.selection.part.piece.path
    assert len(path) == 3
    world = np.array(path) + np.array(place.desk.selection.part.at)
    assert world[-1] == pytest.approx((4000, -300, 0), abs=60)


# Models --------------------------------------------------------------------------------------------


@pytest.fixture
def stair(tmp_path):
    """Four steps of 17 by 30 by 100 in an OBJ without a word on its unit, and a door."""
    lines, count = [], 0
    boxes = [(f"step{k}", (0, 30 * k, 0), (100, 30 * (k + 1), 17 * (k + 1))) for k in range(4)]
    for name, low, high in (*boxes, ("Door", (200, 0, 0), (280, 4, 203))):
        lines.append(f"o {name}")
        corners = [(x, y, z) for z in (low[2], high[2]) for y in (low[1], high[1]) for x in (low[0], high[0])]
        lines += [f"v {x} {z} {-y}" for x, y, z in corners]
        for face in ((1, 3, 4, 2), (5, 6, 8, 7), (1, 2, 6, 5), (3, 7, 8, 4), (1, 5, 7, 3), (2, 4, 8, 6)):
            lines.append("f " + " ".join(str(count + k) for k in face))
        count += 8
    path = tmp_path / "stair.obj"
    path.write_text("\n".join(lines))
    return path


def test_a_model_is_dropped_its_unit_guessed_and_changed(place, settled, stair, soon):
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(stair))])
    keys = (Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier)
    QApplication.sendEvent(place.view, QDragEnterEvent(QPoint(200, 200), *keys))
    QApplication.sendEvent(place.view, QDropEvent(QPointF(200, 200), *keys))
    soon(lambda: any(p.model for p in place.desk.job.scene.parts))
    settled(place.window_)
    models = [p for p in place.desk.job.scene.parts if p.model]
    assert {p.name for p in models} == {"step0", "step1", "step2", "step3", "Door"}
    assert {p.model.unit_mm for p in models} == {10.0}
    told = place.window_.told.text()
    assert "cm" in told
    assert "Door" in told
    door = next(p for p in models if p.name == "Door")
    low, high = place.site.of_part(door.id).mesh.box
    assert high - low == pytest.approx((800, 40, 2030), abs=0.5)
    place.desk.selection.choose(part=door.id)
    settled(place.window_)
    place.part_card._resize(door.model.blob, 25.4, door.model.up)
    settled(place.window_)
    low, high = place.site.of_part(door.id).mesh.box
    assert high - low == pytest.approx((2032, 101.6, 5156.2), abs=0.5)
    place.desk.session.store.undo()
    settled(place.window_)
    click(place.tiles["s"])
    settled(place.window_)
    assert part(place, door.id).laid[0].surface == "s"


def test_a_model_that_is_none_is_told(place, settled, tmp_path, soon):
    bad = tmp_path / "bad.glb"
    bad.write_bytes(b"glTF but not really")
    before = place.desk.job
    place.open_models([bad])
    soon(lambda: "bad.glb" in place.window_.told.text())
    assert place.desk.job is before


def test_every_piece_that_can_be_added_ships_its_drawing(qapp, monkeypatch):
    """To draw a cloth or a figure takes seconds, which nobody waits for who wants to add a wall."""
    missing = [piece.id for piece in family("made") if not (PIECES / f"{piece.id.removeprefix('made.')}.png").is_file()]
    assert missing == [], "run ./dev docs"
    monkeypatch.setattr(laying_pictures, "piece_picture", lambda *_: pytest.fail("drawn in the window's thread"))
    laying_pictures.piece_icon.cache_clear()
    board = QWidget()
    sheet = AddSheet(board)
    sheet.open()
    assert set(sheet.buttons) == {piece.id for piece in family("made")}
    assert not any(one.icon().isNull() for one in sheet.buttons.values())
