"""The frame and the stages, by mouse and keys."""

from pathlib import Path

import numpy as np
import pytest
from PyQt6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PyQt6.QtGui import QDragEnterEvent, QDropEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLabel, QStackedWidget

from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.formats import disk
from brave_tessel.formats.job_file import load_job
from tests.ui.test_whole_pass import drag, type_into


def drop(window, *paths):
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path)) for path in paths])
    at = QPointF(600, 400)
    enter = QDragEnterEvent(
        at.toPoint(), Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    )
    QApplication.sendEvent(window, enter)
    event = QDropEvent(at, Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier)
    QApplication.sendEvent(window, event)


def test_empty_states_say_what_to_do(window, settled):
    shown = {}
    for name, stage in window.stages.items():
        window.desk.go(name)
        settled(window)
        card = window.stacks["card"].currentWidget()
        card = card.currentWidget() if isinstance(card, QStackedWidget) else card
        shown[name] = " ".join(label.text() for label in card.findChildren(QLabel) if label.isVisible())
        if name == "Place":
            assert stage.add.isVisible()
            assert not stage.card.isEnabled()
    assert "No picture yet" in shown["Gather"]
    assert "No part chosen" in shown["Place"]
    assert {name for name in shown if not shown[name].strip()} == set()


def test_pictures_are_dropped_and_bad_ones_told(window, settled, photo_file, tmp_path):
    bad = tmp_path / "bad.png"
    bad.write_bytes(b"nonsense")
    window.desk.go("Build")
    drop(window, photo_file, bad)
    settled(window)
    assert window.desk.view.stage == "Gather"
    assert [source.name for source in window.desk.job.sources] == ["Wall"]
    drop(window, bad)
    settled(window)
    assert "cannot be read" in window.told.text()
    assert len(window.desk.job.sources) == 1


def test_a_job_is_saved_reopened_and_dropped(demo_window, make_window, settled, tmp_path):
    path = tmp_path / "demo.tessel"
    demo_window.save_job(path)
    settled(demo_window)
    assert demo_window.saved.text().startswith("saved")
    assert load_job(path).job == demo_window.desk.job
    other = make_window()
    drop(other, path)
    settled(other)
    assert other.desk.job == demo_window.desk.job
    assert "demo.tessel" in other.windowTitle()


def test_a_failed_save_keeps_the_job_unsaved(demo_window, settled, tmp_path, monkeypatch):
    def fail(*_):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(disk.os, "fsync", fail)
    demo_window.desk.selection.choose(layer="limewash")
    demo_window.stages["Build"].layers.remove()
    demo_window.save_job(tmp_path / "x.tessel")
    settled(demo_window)
    assert "disk is full" in demo_window.told.text()
    assert not demo_window.desk.session.store.saved


def test_opening_nonsense_leaves_the_job_alone(demo_window, settled, tmp_path):
    path = tmp_path / "x.tessel"
    path.write_bytes(b"no job")
    before = demo_window.desk.job
    demo_window.open_job(path)
    settled(demo_window)
    assert demo_window.desk.job is before
    assert "damaged" in demo_window.told.text()


def test_stages_by_keys_and_mouse(demo_window):
    for number, stage in enumerate(demo_window.stages, 1):
        QTest.keyClick(demo_window, Qt.Key(ord("0") + number))
        assert demo_window.desk.view.stage == stage
    bar = demo_window.stage_bar
    QTest.mouseClick(bar, Qt.MouseButton.LeftButton, pos=QPoint(60, 15))
    assert demo_window.desk.view.stage == "Gather"


def test_panels_fold_and_sizes_are_remembered(demo_window, make_window):
    for key, side in ((Qt.Key.Key_F9, "left"), (Qt.Key.Key_F10, "card"), (Qt.Key.Key_F11, "strip")):
        QTest.keyClick(demo_window, key)
        assert not demo_window.stacks[side].isVisible()
        QTest.keyClick(demo_window, key)
        assert demo_window.stacks[side].isVisible()
    demo_window.across.setSizes([300, 600, 380])
    sizes = demo_window.across.sizes()
    demo_window._keep_sizes()
    other = make_window()
    QTest.qWait(50)
    assert other.across.sizes() == pytest.approx(sizes, abs=3)


def test_undo_and_redo_are_named(demo_window, settled):
    desk = demo_window.desk
    desk.go("Build")
    desk.selection.choose(surface="dado", layer="limewash")
    settled(demo_window)
    build = demo_window.stages["Build"]
    level = next(form for form, _ in build.layer_card.forms if form.op == "seat.by_height").controls["level"]
    for _ in range(3):
        level.rule.setFocus()
        QTest.keyClick(level.rule, Qt.Key.Key_Right)
    assert demo_window.actions_.undo.text() == "Undo Set level"
    before = desk.selection.layer.seat.number("level")
    QTest.keyClick(demo_window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert desk.selection.layer.seat.number("level") < before
    assert demo_window.actions_.redo.text() == "Redo Set level"
    QTest.keyClick(demo_window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier)
    assert desk.selection.layer.seat.number("level") == before


def test_a_dragged_dial_is_one_step(demo_window, settled):
    desk = demo_window.desk
    desk.go("Build")
    desk.selection.choose(surface="dado", layer="limewash")
    settled(demo_window)
    build = demo_window.stages["Build"]
    rule = next(form for form, _ in build.layer_card.forms if form.op == "seat.by_height").controls["feather"].rule
    before = desk.job
    drag(rule, QPointF(40, 8), QPointF(180, 8), steps=9)
    assert desk.job is not before
    desk.session.store.undo()
    assert desk.job is before


def test_layers_are_hidden_reordered_duplicated_and_removed(demo_window, settled):
    desk = demo_window.desk
    desk.go("Build")
    desk.selection.choose(surface="dado", layer="limewash")
    settled(demo_window)
    build = demo_window.stages["Build"]
    rows = build.list
    rect = rows.visualItemRect(rows.item(0))
    QTest.mouseClick(rows.viewport(), Qt.MouseButton.LeftButton, pos=QPoint(rect.right() - 18, rect.center().y()))
    assert not desk.selection.surface.layers[-1].shown
    count = len(desk.selection.surface.layers)
    rows.moved.emit("limewash", count - 1)
    assert [layer.id for layer in desk.selection.surface.layers][:3] == ["limewash", "tile", "glaze"]
    desk.session.store.undo()
    desk.selection.choose(layer="limewash")
    QTest.keyClick(demo_window, Qt.Key.Key_D, Qt.KeyboardModifier.ControlModifier)
    assert len(desk.selection.surface.layers) == count + 1
    rows.setFocus()
    QTest.keyClick(rows, Qt.Key.Key_Delete)
    assert len(desk.selection.surface.layers) == count


def test_views_extents_and_scales(demo_window, settled):
    desk, build = demo_window.desk, demo_window.stages["Build"]
    desk.go("Build")
    desk.selection.choose(surface="dado")
    settled(demo_window)
    lit = build.done.mips[0].copy()
    QTest.mouseClick(build.views.buttons["Height"], Qt.MouseButton.LeftButton)
    settled(demo_window)
    assert (build.done.mips[0] != lit).any()
    assert (build.done.mips[0][..., 0] == build.done.mips[0][..., 2]).all()
    board = build.surface_board
    QTest.mouseClick(build.extents.buttons["Wall 6 m"], Qt.MouseButton.LeftButton)
    assert board.world_rect(0, 0, 6000, 3000).width() <= board.width()
    demo_window.actions_.to_scale(10)
    assert board.scale_name() == "1 : 10"
    demo_window.actions_.pixel_for_pixel()
    assert board.scale * build.done.grid.pitch_mm == pytest.approx(1)
    QTest.keyClick(demo_window, Qt.Key.Key_F)
    assert board.fitted


def test_probe_says_what_lies_on_top(demo_window, settled):
    desk, build = demo_window.desk, demo_window.stages["Build"]
    desk.go("Build")
    desk.selection.choose(surface="dado")
    settled(demo_window)
    board = build.surface_board
    from PyQt6.QtCore import QEvent
    from PyQt6.QtGui import QMouseEvent

    at = board.to_screen(300.0, 300.0)
    event = QMouseEvent(
        QEvent.Type.MouseMove,
        at,
        board.mapToGlobal(at),
        Qt.MouseButton.NoButton,
        Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.NoModifier,
    )
    QApplication.sendEvent(board, event)
    assert "x  300.0" in demo_window.place.text()
    assert "lies on top" in demo_window.told.text()
    assert "reflectance" in demo_window.numbers.text()
    QTest.keyClick(board, Qt.Key.Key_P)
    assert len(board.pins) == 1


def test_the_cut_is_dragged_and_the_light_turned(demo_window, settled):
    desk, build = demo_window.desk, demo_window.stages["Build"]
    desk.go("Build")
    desk.selection.choose(surface="dado")
    settled(demo_window)
    board = build.surface_board
    before = board.cut_y
    start = board.to_screen(400.0, before)
    drag(board, start, start + QPointF(0, 40))
    assert board.cut_y == pytest.approx(before - 40 / board.scale, abs=1)
    assert build.section.section.y_mm == board.cut_y
    lit = build.done.mips[0].copy()
    drag(board, QPointF(300, 300), QPointF(380, 300), button=Qt.MouseButton.RightButton)
    settled(demo_window)
    assert (build.done.mips[0] != lit).mean() > 0.2


def test_repeat_fits_whole_units_at_a_click(demo_window, settled):
    desk, build = demo_window.desk, demo_window.stages["Build"]
    from brave_tessel.core.job.commands import Set

    desk.go("Build")
    desk.selection.choose(surface="dado")
    desk.dispatch(Set(path=("surfaces", "dado", "width_mm"), value=1300.0, label="x"))
    settled(demo_window)
    assert ("repeat", "Courses") in {cell[:2] for cell in build.block.cells}
    build.block.clicked.emit("repeat")
    assert desk.selection.surface.width_mm == pytest.approx(1224)


def test_a_fault_is_told_at_its_layer(demo_window, settled):
    import msgspec

    from brave_tessel.core.job.commands import Set

    desk, build = demo_window.desk, demo_window.stages["Build"]
    desk.go("Build")
    desk.selection.choose(surface="dado", layer="glaze")
    what = desk.selection.layer.what
    assert isinstance(what, RecipeWhat)
    odd = msgspec.structs.replace(what.recipe.steps[0], op="noise.from_the_future")
    recipe = msgspec.structs.replace(what.recipe, steps=(odd, *what.recipe.steps[1:]))
    desk.dispatch(Set(path=("surfaces", "dado", "layers", "glaze", "what"), value=RecipeWhat(recipe=recipe), label="x"))
    settled(demo_window)
    assert "not known here" in build.layer_card.fault.text()
    assert build.layer_card.fault.isVisible()
    row = next(row for row in build.list.rows if row.id == "glaze")
    assert row.severity == "fault"
    assert build.done.maps is not None


def test_dimension_line_sizes_the_frame(demo_window, settled):
    desk, gather = demo_window.desk, demo_window.stages["Gather"]
    desk.go("Gather")
    desk.selection.choose(source="mosaic")
    settled(demo_window)
    QTest.mouseClick(gather.source_card.line.measure, Qt.MouseButton.LeftButton)
    frame = gather.frame
    top_left, top_right = desk.selection.source.straightening.corners[:2]
    drag(frame, frame.to_screen(*top_left), frame.to_screen(*top_right))
    assert frame.name == "frame"
    type_into(gather.source_card.line.length.field, "2.4 m")
    assert desk.selection.source.straightening.width_mm == pytest.approx(2400, rel=0.005)
    assert desk.selection.source.straightening.height_mm == pytest.approx(1600, rel=0.005)


def test_corners_are_nudged_by_the_arrow_keys(demo_window, settled):
    desk, gather = demo_window.desk, demo_window.stages["Gather"]
    desk.go("Gather")
    desk.selection.choose(source="mosaic")
    settled(demo_window)
    frame = gather.frame
    corner = desk.selection.source.straightening.corners[0]
    at = frame.to_screen(*corner)
    QTest.mouseClick(frame, Qt.MouseButton.LeftButton, pos=at.toPoint())
    start = desk.selection.source.straightening.corners[0]
    QTest.keyClick(frame, Qt.Key.Key_Right)
    QTest.keyClick(frame, Qt.Key.Key_Down, Qt.KeyboardModifier.ControlModifier)
    x, y = desk.selection.source.straightening.corners[0]
    assert (x - start[0], y - start[1]) == pytest.approx((1, 10))


def test_elevation_shifts_the_pattern_and_counts_courses(demo_window, settled):
    desk, place = demo_window.desk, demo_window.stages["Place"]
    desk.go("Place")
    desk.selection.choose(part="north-wall")
    settled(demo_window)
    tile = next(laid for laid in desk.job.scene.part("north-wall").laid if laid.surface == "dado")
    place.laid_card.laid_id = tile.id
    place.moved()
    settled(demo_window)
    strip = place.elevation
    _, scale = strip._frame()
    at = strip._at(300.0, 600.0)
    drag(strip, at, at + QPointF(100 * scale, -39 * scale))
    settled(demo_window)
    laid = next(one for one in desk.job.scene.part("north-wall").laid if one.id == tile.id)
    assert laid.laying.number("across") == pytest.approx(100, abs=1)
    assert laid.laying.number("up") == pytest.approx(39, abs=1)
    assert "15 whole courses" in place.laid_card.courses.text()
    assert "Cut" in place.laid_card.courses.text()
    desk.session.store.undo()
    settled(demo_window)
    assert "16 whole courses" in place.laid_card.courses.text()
    assert "None is cut" in place.laid_card.courses.text()


def test_model_orbits_walks_and_chooses(demo_window, settled):
    desk, place = demo_window.desk, demo_window.stages["Place"]
    desk.go("Place")
    desk.selection.choose(part="roof")
    settled(demo_window)
    view = place.view
    first = view.image
    camera = view.camera
    drag(view, QPointF(300, 300), QPointF(360, 320))
    assert view.camera.azimuth != camera.azimuth
    before = view.camera.eye
    QTest.keyClick(view, Qt.Key.Key_W)
    assert np.linalg.norm(view.camera.eye - before) > 0.1
    settled(demo_window)
    assert view.image is not first
    QTest.keyClick(demo_window, Qt.Key.Key_Home)
    settled(demo_window)
    at = view.on_screen((5600.0, 0.0, 1800.0))
    QTest.mouseClick(view, Qt.MouseButton.LeftButton, pos=at.toPoint())
    assert desk.selection.part_id in {"north-wall", "columns", "rib"}


def test_files_will_be_named_before_they_are_written(demo_window, settled):
    hand_over = demo_window.stages["Hand over"]
    demo_window.desk.go("Hand over")
    demo_window.desk.selection.choose(surface="dado")
    settled(demo_window)
    names = [row.title for row in hand_over.files.list.rows]
    assert "limewashed-dado-tile_normal.png" in names
    assert names[-1] == "saltreach-tide-baths.glb"
    hand_over.depths["height"].setCurrentIndex(0)
    hand_over.depths["height"].activated.emit(0)
    assert next(m for m in hand_over.delivery.maps if m.id == "height").depth == 8


def test_stopping_a_delivery(demo_window, settled, soon, tmp_path: Path):
    hand_over = demo_window.stages["Hand over"]
    demo_window.desk.go("Hand over")
    demo_window.desk.selection.choose(surface="limewash-wall")
    hand_over.size.activated.emit(3)
    hand_over.start(tmp_path / "out")
    soon(lambda: hand_over.files.stop.isVisible())
    QTest.mouseClick(hand_over.files.stop, Qt.MouseButton.LeftButton)
    soon(lambda: hand_over.write.isEnabled(), 90)
    assert "Stopped" in hand_over.files.what.text()
    assert not list((tmp_path).glob("out/.*"))


@pytest.mark.parametrize(
    ("size", "scale"),
    [((1280, 800), 1.0), pytest.param((1920, 1080), 1.0, marks=pytest.mark.slow), ((1920, 1080), 1.5)],
)
def test_nothing_is_clipped(make_window, demo, settled, size, scale):
    from PyQt6.QtWidgets import QLabel, QPushButton

    from brave_tessel.formats.job_file import OpenedJob
    from brave_tessel.ui.app import make_app

    make_app(lamp=False, scale=scale)
    window = make_window(OpenedJob(demo.job, dict(demo.blobs)))
    window.desk.view.set_preview(128)
    window.resize(*size)
    window._restore_sizes()
    window.resize(*size)
    for stage in window.stages:
        window.desk.go(stage)
        settled(window)
        for kind in (QLabel, QPushButton):
            for shown in window.findChildren(kind):
                if not shown.isVisible() or not shown.text() or (kind is QLabel and shown.wordWrap()):
                    continue
                needed = shown.fontMetrics().horizontalAdvance(shown.text().replace("&", ""))
                assert shown.width() >= needed - 1 or shown is window.told, (stage, shown.text(), shown.width(), needed)
        card = window.stacks["card"].currentWidget()
        card = card.currentWidget() if isinstance(card, QStackedWidget) else card
        assert card.widget().minimumSizeHint().width() <= card.viewport().width() + 1, stage
    make_app(lamp=False, scale=1.0)


def test_a_surface_is_dropped_on_a_part_of_the_model(demo_window, settled):
    from brave_tessel.ui.stages.place.scene_view import SURFACE_MIME

    desk, view = demo_window.desk, demo_window.stages["Place"].view
    desk.go("Place")
    settled(demo_window)
    data = QMimeData()
    data.setData(SURFACE_MIME, b"shingle-bed")
    at = view.on_screen((4000.0, 0.0, 400.0))
    keys = (Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier)
    QApplication.sendEvent(view, QDragEnterEvent(at.toPoint(), *keys))
    QApplication.sendEvent(view, QDropEvent(at, *keys))
    wall = desk.job.scene.part("north-wall")
    assert next(laid for laid in wall.laid if "dado" in laid.groups).surface == "shingle-bed"
    assert desk.selection.part_id == "north-wall"
    assert desk.session.store.undo_label == "Lay on the part"


def test_the_status_line_tells_the_place_in_gather_and_repeat(demo_window, settled):
    from PyQt6.QtCore import QEvent
    from PyQt6.QtGui import QMouseEvent

    for stage, board, unit in (("Gather", "frame", "px"), ("Repeat", "pair", "mm")):
        demo_window.desk.go(stage)
        settled(demo_window)
        widget = getattr(demo_window.stages[stage], board)
        at = QPointF(120, 150)
        none = Qt.MouseButton.NoButton
        event = QMouseEvent(
            QEvent.Type.MouseMove, at, widget.mapToGlobal(at), none, none, Qt.KeyboardModifier.NoModifier
        )
        QApplication.sendEvent(widget, event)
        assert demo_window.place.text().endswith(unit)


def test_every_part_of_the_demo_has_a_card_that_fits(demo_window, settled):
    """Parts and groups one after the other: nothing of the card before is asked again, nothing runs off its side."""
    demo_window.desk.go("Place")
    settled(demo_window)
    column = demo_window.stages["Place"].column
    for part in demo_window.desk.job.scene.parts:
        demo_window.desk.selection.choose(part=part.id)
        QTest.qWait(15)
        assert column.horizontalScrollBar().maximum() == 0, part.name
