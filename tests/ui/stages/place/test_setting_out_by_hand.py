"""Setting out by mouse and keys: fits shown and done, slivers found, edges, paths, bands and sheets."""

import msgspec
import numpy as np
import pytest
from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt
from PyQt6.QtGui import QEnterEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from brave_tessel.core.job.scene import Level
from brave_tessel.core.place.fit import fit as work_out
from brave_tessel.core.place.fitting import ask
from brave_tessel.engine.intents import scene as intents

from .placing import dado, on, part, press

LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def fitting(place, settled):
    """The dado of the north wall with its card, between two levels 910 apart."""
    scene = place.desk.job.scene
    levels = (Level(id="l0", name="floor", height=0.0), Level(id="l1", name="rail", height=910.0))
    place.desk.dispatch(intents.replace_scene(msgspec.structs.replace(scene, levels=levels), "levels"))
    place.desk.selection.choose(part="north-wall")
    place.laid_card.laid_id = dado(place).id
    place.show_laid()
    settled(place.window_)
    return place


def choose(pick, key):
    """Choose from a box as a person does: the list is opened, walked through and taken."""
    box = pick.box
    box.setFocus()
    box.setCurrentIndex(box.findData(key))
    box.activated.emit(box.currentIndex())


def hover(widget):
    middle = QPointF(widget.rect().center())
    QApplication.sendEvent(widget, QEnterEvent(middle, middle, QPointF(widget.mapToGlobal(widget.rect().center()))))


def leave(widget):
    QApplication.sendEvent(widget, QEvent(QEvent.Type.Leave))


def panel(stage):
    return stage.laid_card.fit


def way(stage, word):
    return next(one for one in panel(stage).ways if word in one.title)


def between(stage, settled):
    choose(panel(stage).from_, "l0")
    choose(panel(stage).to, "l1")
    settled(stage.window_)


def test_ways_are_shown_with_their_numbers(fitting, settled):
    between(fitting, settled)
    assert panel(fitting).ways[0].title.startswith("12 whole, joint")
    assert way(fitting, "joint").rest == "none cut"
    assert "cut" in panel(fitting).note.text()


def test_a_way_is_seen_when_hovered_and_gone_after(fitting, settled):
    between(fitting, settled)
    before = dado(fitting)
    row = part(fitting).laid.index(before)
    hover(way(fitting, "joint"))
    settled(fitting.window_)
    shown = fitting.view.site.of_part("north-wall").part.laid[row]
    assert shown.dials["bed"] == pytest.approx(910 / 12 - 65, abs=1e-4)
    assert dado(fitting) == before
    leave(way(fitting, "joint"))
    settled(fitting.window_)
    assert fitting.view.site.of_part("north-wall").part.laid[row].dials == {}


def test_a_click_fits_and_is_one_step(fitting, settled):
    between(fitting, settled)
    before = dado(fitting)
    QTest.mouseClick(way(fitting, "joint"), LEFT)
    settled(fitting.window_)
    assert dado(fitting).dials["bed"] == pytest.approx(910 / 12 - 65, abs=1e-4)
    row = part(fitting).laid.index(dado(fitting))
    asked = ask(fitting.site, "north-wall", row, low=0.0, high=910.0)
    assert work_out(asked.span).fits
    assert panel(fitting).back.isVisibleTo(fitting.column)
    fitting.desk.session.store.undo()
    assert dado(fitting) == before


def test_by_the_keys_alone(fitting, settled):
    between(fitting, settled)
    one = way(fitting, "unit")
    one.setFocus()
    QTest.keyClick(one, Qt.Key.Key_Return)
    settled(fitting.window_)
    assert "height" in dado(fitting).dials


def test_the_fit_is_taken_back(fitting, settled):
    between(fitting, settled)
    QTest.mouseClick(way(fitting, "stretched"), LEFT)
    settled(fitting.window_)
    assert dado(fitting).laying.number("taller") != 1.0
    QTest.mouseClick(panel(fitting).back, LEFT)
    assert dado(fitting).laying.number("taller") == 1.0


def test_the_menu_goes_to_the_ways(fitting, settled):
    between(fitting, settled)
    fitting.setting.fit_courses()
    assert panel(fitting).ways[0].hasFocus()
    settled(fitting.window_)
    QTest.keyClick(panel(fitting).ways[0], Qt.Key.Key_Return)
    assert dado(fitting).dials


def test_units_along_have_ways_of_their_own(fitting, settled):
    choose(panel(fitting).direction, "along")
    settled(fitting.window_)
    assert panel(fitting).ends.isVisibleTo(fitting.column)
    assert all("up" not in one.title for one in panel(fitting).ways)


def test_openings_are_ends_too(fitting, settled):
    asked = panel(fitting).asked
    (sill,) = asked.stations()
    choose(panel(fitting).to, f"@{sill}")
    settled(fitting.window_)
    assert panel(fitting).asked.height_of(panel(fitting).asked.span.high) == pytest.approx(sill)


def test_a_pier_between_jambs_has_its_own_fit(fitting, settled):
    choose(panel(fitting).direction, "along")
    settled(fitting.window_)
    left, right = panel(fitting).asked.stations()
    choose(panel(fitting).to, f"@{left}")
    choose(panel(fitting).ends, "pier")
    settled(fitting.window_)
    asked = panel(fitting).asked
    assert asked.span.length / 1000 == pytest.approx(left, abs=0.1)
    assert asked.span.ends == -1
    assert right > left


def test_what_fits_offers_nothing(fitting, settled):
    between(fitting, settled)
    QTest.mouseClick(way(fitting, "joint"), LEFT)
    settled(fitting.window_)
    between(fitting, settled)
    assert panel(fitting).ways == []
    assert "none cut" in panel(fitting).note.text()


# The elevation -------------------------------------------------------------------------------------------


def test_the_elevation_is_dragged(fitting, settled):
    strip = fitting.elevation
    face = next(f for f in strip.elevation.faces if f.facet.standing.part.id == "north-wall" and f.row >= 0)
    left, low, right, high = face.bounds
    start = strip._at((left + right) / 2 + 700, low + (high - low) * 0.4).toPoint()
    before = part(fitting).laid[face.row].laying
    QTest.mousePress(strip, LEFT, pos=start)
    QTest.mouseMove(strip, start + QPoint(12, -8))
    QTest.mouseRelease(strip, LEFT, pos=start + QPoint(12, -8))
    settled(fitting.window_)
    after = part(fitting).laid[face.row].laying
    assert (after.number("across"), after.number("up")) != (before.number("across"), before.number("up"))


def test_a_sliver_is_found_on_the_model(fitting, settled):
    fitting.desk.dispatch(intents.shift("north-wall", dado(fitting), 20.0, 0.0))
    settled(fitting.window_)
    strip = fitting.elevation
    assert strip.marks.slivers
    mark = strip.marks.slivers[0]
    eye = fitting.view.camera.eye
    QTest.mouseMove(strip, strip._at(mark.x, mark.y).toPoint())
    assert strip.over is not None
    QTest.mouseClick(strip, LEFT, pos=strip._at(mark.x, mark.y).toPoint())
    assert not np.allclose(fitting.view.camera.eye, eye)
    assert fitting.view.overlay.spot is not None
    spot = fitting.view.on_screen(fitting.view.overlay.spot)
    assert fitting.view.rect().contains(spot.toPoint())


def test_a_double_click_finds_the_place_on_the_model(fitting, settled):
    strip = fitting.elevation
    face = next(f for f in strip.elevation.faces if f.facet.standing.part.id == "north-wall")
    left, low, _, _ = face.bounds
    QTest.mouseDClick(strip, LEFT, pos=strip._at(left + 400.0, low + 300.0).toPoint())
    spot = fitting.view.overlay.spot
    assert spot is not None
    along, up = float(spot @ face.facet.along) + face.shift, float(spot @ face.facet.up)
    px = 1 / strip._frame()[1]
    assert (along, up) == (pytest.approx(left + 400.0, abs=px), pytest.approx(low + 300.0, abs=px))


def test_widths_stand_under_the_chosen_part(fitting):
    assert len(fitting.elevation.marks.sides) >= 2


# The sheet -----------------------------------------------------------------------------------------------


@pytest.mark.parametrize(("ending", "start"), [(".pdf", b"%PDF"), (".svg", b"<?xml"), (".png", b"\x89PNG")])
def test_a_sheet_is_written(fitting, settled, tmp_path, ending, start):
    fitting.setting.write_sheet(tmp_path / f"sheet{ending}")
    settled(fitting.window_)
    assert (tmp_path / f"sheet{ending}").read_bytes().startswith(start)


def test_a_sheet_that_cannot_be_written_is_told(fitting, settled, tmp_path):
    (tmp_path / "gone").write_text("a file")
    told = []
    fitting.desk.message.connect(lambda text, meant: told.append((text, meant)))
    fitting.setting.write_sheet(tmp_path / "gone" / "sheet.pdf")
    settled(fitting.window_)
    assert any(meant == "fault" for _, meant in told)


# Checks --------------------------------------------------------------------------------------------------


def test_findings_are_listed_seen_and_mended(fitting, settled):
    fitting.desk.dispatch(intents.set_laying_value("north-wall", dado(fitting), "factor", 1.5))
    settled(fitting.window_)
    found = next(one for one in fitting.findings.findings if one.check == "scale")
    QTest.mouseClick(fitting.findings.head, LEFT)
    assert fitting.findings.unfolded
    fitting.findings.look_at.emit(found)
    assert fitting.desk.selection.part_id == "north-wall"
    assert fitting.desk.dispatch(found.mend)
    settled(fitting.window_)
    assert all(one.check != "scale" for one in fitting.findings.findings)


# Paths and bands -----------------------------------------------------------------------------------------


@pytest.fixture
def tube(place, settled):
    place.hand.stand("made.tube")
    press(place.view, (1500.0, -1500.0, 0.0))
    settled(place.window_)
    made = place.desk.selection.part
    command, laid = intents.lay(place.desk.job, made.id, "s", laying="laying.path")
    place.desk.dispatch(command)
    place.laid_card.laid_id = laid.id
    place._show_card()
    settled(place.window_)
    return place


def laid_on(stage):
    return stage.desk.selection.part.laid[-1]


def test_a_path_is_found_from_the_mesh(tube, settled):
    tube.laid_card._find_path()
    settled(tube.window_)
    path = np.array(laid_on(tube).path)
    own = tube.site.of_part(tube.desk.selection.part_id).made.path
    assert len(path) >= 2
    for end in (own[0], own[-1]):
        assert np.linalg.norm(path - end, axis=1).min() < 1.0


def test_a_path_is_drawn_point_by_point(tube, settled):
    tube.hand.draw_path(laid_on(tube).id)
    for point in ((600.0, -2400.0, 0.0), (1200.0, -2400.0, 0.0), (1200.0, -2000.0, 0.0)):
        press(tube.view, point)
    QTest.keyClick(tube.view, Qt.Key.Key_Return)
    settled(tube.window_)
    assert len(laid_on(tube).path) == 3


def test_a_surface_is_laid_along_an_edge(tube, settled):
    tube.desk.selection.choose(part="north-wall")
    laid = part(tube).laid[0]
    tube.desk.dispatch(intents.set_laying("north-wall", laid, "laying.path"))
    settled(tube.window_)
    tube.hand.draw_edge(laid.id)
    wall = tube.site.of_part("north-wall")
    low, _ = wall.mesh.box
    press(tube.view, (1500.0, float(low[1]), 4.0), aside=(0, -3))
    settled(tube.window_)
    path = next(one for one in part(tube).laid if one.id == laid.id).path
    assert len(path) >= 2


@pytest.fixture
def strip_of(tube):
    board = tube.laid_card.board
    board.resize(240, board.height())
    return tube


def drag(board, first, last):
    x = round(board._area().center().x())
    QTest.mousePress(board, LEFT, pos=QPoint(x, round(board._y(first))))
    QTest.mouseMove(board, QPoint(x, round(board._y((first + last) / 2))))
    QTest.mouseMove(board, QPoint(x, round(board._y(last))))
    QTest.mouseRelease(board, LEFT, pos=QPoint(x, round(board._y(last))))


def bands(stage):
    return stage.desk.job.surface("s").bands


def test_a_band_is_cut_by_dragging_and_taken(strip_of, settled):
    board = strip_of.laid_card.board
    px = strip_of.desk.job.surface("s").height_mm / board._area().height()
    drag(board, 60.0, 160.0)
    settled(strip_of.window_)
    (band,) = bands(strip_of)
    assert (band.low, band.high) == (pytest.approx(60.0, abs=px), pytest.approx(160.0, abs=px))
    assert laid_on(strip_of).band == band.id
    assert laid_on(strip_of).laying.value("rises") == "over the profile"
    assert strip_of.site.repeat(laid_on(strip_of))[1] == pytest.approx(band.height)


def test_a_band_is_moved_by_its_edge_by_keys_and_taken_out(strip_of, settled):
    drag(strip_of.laid_card.board, 60.0, 160.0)
    settled(strip_of.window_)
    board = strip_of.laid_card.board
    board.resize(240, board.height())
    before = bands(strip_of)[0]
    drag(board, before.high, before.high + 50.0)
    settled(strip_of.window_)
    after = bands(strip_of)[0]
    assert after.high > before.high + 30.0
    board = strip_of.laid_card.board
    board.setFocus()
    QTest.keyClick(board, Qt.Key.Key_Up)
    assert bands(strip_of)[0].low == pytest.approx(after.low + 1.0)
    QTest.keyClick(strip_of.laid_card.board, Qt.Key.Key_Delete)
    assert bands(strip_of) == ()
    assert laid_on(strip_of).band == ""


def test_on_is_where_the_model_is(place):
    assert on(place.view, (1000.0, 0.0, 500.0)) is not None
