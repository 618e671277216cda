"""The brush in Build, by mouse and keys: over edges, only the part it changes, the pen, rubbing out."""

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QImage
from PyQt6.QtTest import QTest

from tests.ui.hand import LEFT, NONE, at, move, pull
from tests.ui.stages.build.test_build import lay


def test_painting_over_the_edge_with_symmetry_and_a_chosen_stroke(build, settled):
    lay(build, settled, "Special", "Painted")
    build.desk.brush.values = {
        **build.desk.brush.values,
        "into": "raise",
        "amount": 3.0,
        "hardness": 1.0,
        "mirror": "across",
    }
    board = build.surface_board
    assert board.painting, "a painted layer is laid on to be painted"
    pull(board, at(board, 580, 100), at(board, 640, 100))
    settled(build.window_)
    stroke = build.desk.selection.layer.what.strokes[0]
    assert stroke.mirror == "across"
    assert stroke.centre == (300.0, 225.0)
    grid, share = build.done.grid, build.done.stack.share
    for x in (590, 5, 10):
        assert share[grid.row_column(x, 100)] > 0.9, x
    QTest.keyClick(build.window_, Qt.Key.Key_Escape)
    build.layer_card._choose_stroke(stroke.id)
    build.layer_card._set_brush("size", 90.0)
    assert build.desk.selection.layer.what.strokes[0].size_mm == 90.0
    build.layer_card._remove_stroke(stroke.id)
    assert build.desk.selection.layer.what.strokes == ()
    QTest.keyClick(build.window_, Qt.Key.Key_X)
    assert build.desk.brush.erasing


def shown(board):
    """What the board's picture holds, (H, W, 3)."""
    image = board.mips[0].toImage().convertToFormat(QImage.Format.Format_RGB888)
    bits = image.constBits()
    bits.setsize(image.sizeInBytes())
    return (
        np.frombuffer(bits, np.uint8)
        .reshape(image.height(), image.bytesPerLine())[:, : 3 * image.width()]
        .reshape(image.height(), -1, 3)
        .astype(int)
    )


@pytest.mark.parametrize("view", ["Lit", "Base colour", "Height"])
def test_while_the_brush_is_down_only_its_part_is_worked_out(build, settled, soon, view):
    build.desk.view.set_preview(1024)
    build.window_.actions_.show_view(view)
    build.desk.brush.values = {**build.desk.brush.values, "size": 14.0, "hardness": 0.5}
    build.hand.set_painting(True)
    settled(build.window_)
    board, parts, whole = build.surface_board, [], []
    build.desk.build.parts_ready.connect(parts.append)
    build.desk.build.ready.connect(whole.append)
    before, first = shown(board), at(board, 590, 8)
    QTest.mousePress(board, LEFT, NONE, first)
    soon(lambda: len(parts) >= 1)
    move(board, first + QPoint(6, -4))
    move(board, first + QPoint(14, -4))
    soon(lambda: parts[-1].stroke.points == build.desk.build.live.points)
    assert whole == [], "the whole sheet waits until the brush is lifted"
    drawn = shown(board)
    assert (drawn != before).any(2).mean() < 0.2
    QTest.mouseRelease(board, LEFT, NONE, first + QPoint(14, -4))
    settled(build.window_)
    assert build.desk.build.live is None
    assert [done.grid.width_px for done in whole] == [1024], "never coarse after a stroke that was seen sharp"
    away = np.abs(shown(board) - drawn)
    assert away.max() <= 2
    assert (drawn != before).any(), "it was seen while it was drawn"
    assert "top" in whole[-1].thumbs
    QTest.keyClick(build.window_, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    settled(build.window_)
    assert np.abs(shown(board) - before).max() <= 1


def test_a_stroke_as_wide_as_the_sheet_is_worked_out_whole(build, settled, soon):
    lay(build, settled, "Special", "Painted")
    build.desk.brush.values = {**build.desk.brush.values, "into": "raise", "size": 400.0}
    build.desk.brush.changed.emit()
    build.hand.set_painting(True)
    settled(build.window_)
    whole = []
    build.desk.build.ready.connect(whole.append)
    first = at(build.surface_board, 300, 200)
    QTest.mousePress(build.surface_board, LEFT, NONE, first)
    soon(lambda: bool(whole))
    QTest.mouseRelease(build.surface_board, LEFT, NONE, first)
    settled(build.window_)
    assert len(build.desk.selection.layer.what.strokes) == 1


def test_the_pens_pressure_goes_with_the_stroke(build, settled):
    lay(build, settled, "Special", "Painted")
    build.hand.set_painting(True)
    build.surface_board._pen = 0.4
    pull(build.surface_board, at(build.surface_board, 100, 100), at(build.surface_board, 200, 100))
    assert set(build.desk.selection.layer.what.strokes[0].pressure) == {0.4}


def test_a_layer_never_painted_is_rubbed_out(build, settled):
    build.layer_card._seat_kind("seat.over")
    QTest.keyClick(build.window_, Qt.Key.Key_X)
    QTest.keyClick(build.window_, Qt.Key.Key_B)
    board = build.surface_board
    pull(board, at(board, 300, 220), at(board, 340, 220))
    settled(build.window_)
    rule = build.desk.selection.layer.where[0]
    assert rule.mode == "cut"
    assert build.done.stack.share[build.done.grid.row_column(320, 220)] < 0.05
    assert build.done.stack.share[build.done.grid.row_column(20, 20)] > 0.4


def test_a_stroke_on_a_large_sheet_is_followed_on_a_smaller_one(build, settled, soon):
    build.desk.view.set_preview(2048)
    build.desk.brush.values = {**build.desk.brush.values, "size": 24.0, "hardness": 0.5}
    build.hand.set_painting(True)
    settled(build.window_)
    board, parts, whole = build.surface_board, [], []
    build.desk.build.parts_ready.connect(parts.append)
    build.desk.build.ready.connect(whole.append)
    before, first = shown(board), at(board, 590, 8)
    assert before.shape[1] == 2048
    QTest.mousePress(board, LEFT, NONE, first)
    move(board, first + QPoint(14, -4))
    soon(lambda: parts and parts[-1].stroke.points == build.desk.build.live.points)
    drawn = shown(board)
    assert whole == []
    assert parts[-1].parts[0][0].grid.width_px == 1024
    assert (drawn != before).any(), "it is laid into the picture that is shown"
    QTest.mouseRelease(board, LEFT, NONE, first + QPoint(14, -4))
    settled(build.window_)
    assert [done.grid.width_px for done in whole if not done.thumbs or done.grid.width_px < 2048][:1] == [1024]
    assert whole[-1].grid.width_px == 2048
    after = shown(board)
    changed = (after != before).any(2)
    assert (drawn != before).any(2)[changed].mean() > 0.7, "where it shows in the end"
    assert np.abs(drawn - after)[changed].mean() < np.abs(before - after)[changed].mean() / 2


def test_a_brush_that_rests_is_put_right(build, settled, soon):
    build.desk.view.set_preview(512)
    build.hand.set_painting(True)
    settled(build.window_)
    board, parts = build.surface_board, []
    build.desk.build.parts_ready.connect(parts.append)
    first = at(board, 300, 200)
    QTest.mousePress(board, LEFT, NONE, first)
    for step in range(1, 4):
        move(board, first + QPoint(16 * step, 0))
    soon(lambda: parts and parts[-1].stroke.points == build.desk.build.live.points)
    moving = len(parts)
    soon(lambda: len(parts) > moving)
    QTest.qWait(250)
    assert len(parts) == moving + 1, "once, and then there is nothing to do"
    wide = [part[0].columns for part in parts[-1].parts]
    assert max(wide) >= max(part[0].columns for part in parts[moving - 1].parts), "all of the stroke"
    QTest.mouseRelease(board, LEFT, NONE, first + QPoint(48, 0))
    settled(build.window_)


def test_a_stroke_whose_ground_is_kept_no_more_is_followed_again(build, settled, soon):
    build.desk.view.set_preview(512)
    build.desk.brush.values = {**build.desk.brush.values, "size": 14.0}
    build.hand.set_painting(True)
    settled(build.window_)
    build.desk.session.snapshot().cache.clear()
    board, parts = build.surface_board, []
    build.desk.build.parts_ready.connect(parts.append)
    first = at(board, 300, 200)
    QTest.mousePress(board, LEFT, NONE, first)
    soon(lambda: bool(parts))
    move(board, first + QPoint(66, 0))
    soon(lambda: parts[-1].stroke.points == build.desk.build.live.points)
    QTest.mouseRelease(board, LEFT, NONE, first + QPoint(66, 0))
    settled(build.window_)
