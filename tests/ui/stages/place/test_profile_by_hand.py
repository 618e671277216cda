"""The cross-section of a moulding drawn by its points, and a part's own turn."""

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from brave_tessel.core.place.profiles import PROFILES, draws_whole, outline_of
from brave_tessel.engine.intents import scene as intents

from .placing import press

LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def moulding(place, settled):
    place.hand.stand("made.moulding")
    press(place.view, (500.0, -1500.0, 0.0))
    settled(place.window_)
    place.part_card.open["Sizes"] = True
    assert place.part_card.board is not None
    return place


def drawn(stage):
    return stage.desk.selection.part.piece


def spot(board, index):
    return board.on_screen(board.points[index]).toPoint()


def drag(board, start, end):
    QTest.mousePress(board, LEFT, pos=start)
    QTest.mouseMove(board, (start + end) / 2)
    QTest.mouseMove(board, end)
    QTest.mouseRelease(board, LEFT, pos=end)


def test_it_begins_as_the_profile_of_the_list(moulding):
    board = moulding.part_card.board
    np.testing.assert_allclose(board.points, outline_of("plain skirting", (), 0.0), atol=1e-3)
    moulding.desk.dispatch(intents.set_piece(moulding.desk.selection.part, "profile", "cornice"))
    assert len(board.points) == len(PROFILES["cornice"][1])


def test_a_dragged_point_is_one_step_and_the_moulding_follows(moulding, settled):
    board = moulding.part_card.board
    index = max(range(len(board.points)), key=lambda k: board.points[k][1] * 10 + board.points[k][0])
    start = spot(board, index)
    drag(board, start, start + QPoint(0, -30))
    settled(moulding.window_)
    piece = drawn(moulding)
    assert piece.values["profile"] == "drawn"
    assert max(y for _, y in piece.profile) > 125
    one = moulding.site.of_part(moulding.desk.selection.part_id)
    assert np.ptp(one.mesh.points[:, 2]) == pytest.approx(max(y for _, y in piece.profile), abs=1e-6)
    moulding.desk.session.store.undo()
    assert drawn(moulding).values.get("profile", "plain skirting") == "plain skirting"


def test_a_click_on_a_side_adds_a_point_and_delete_takes_it_out(moulding):
    board = moulding.part_card.board
    count = len(board.points)
    a, b = board.points[0], board.points[1]
    QTest.mouseClick(board, LEFT, pos=board.on_screen(((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)).toPoint())
    assert len(drawn(moulding).profile) == count + 1
    QTest.keyClick(board, Qt.Key.Key_Delete)
    assert len(drawn(moulding).profile) == count


def test_arrows_move_a_point_by_a_millimetre(moulding):
    board = moulding.part_card.board
    QTest.mouseClick(board, LEFT, pos=spot(board, 2))
    x, y = board.points[2]
    QTest.keyClick(board, Qt.Key.Key_Right)
    QTest.keyClick(board, Qt.Key.Key_Up, Qt.KeyboardModifier.ShiftModifier)
    assert drawn(moulding).profile[2] == pytest.approx((x + 1, y + 10))


def test_an_outline_that_would_cross_itself_is_not_taken(moulding):
    board = moulding.part_card.board
    QTest.mousePress(board, LEFT, pos=spot(board, 1))
    QTest.mouseMove(board, board.on_screen((-40.0, 60.0)).toPoint())
    QTest.mouseMove(board, board.on_screen((10.0, 300.0)).toPoint())
    QTest.mouseRelease(board, LEFT)
    assert draws_whole(board.points)
    assert not drawn(moulding).profile or draws_whole(drawn(moulding).profile)


def test_a_part_turned_elsewhere_is_shown_turned_on_its_card(moulding, settled):
    part = moulding.desk.selection.part
    moulding.part_card.sections["Place"].head.setChecked(True)
    moulding.desk.dispatch(intents.place_part(part.id, turn=(0.0, 0.0, 33.0)))
    settled(moulding.window_)
    assert moulding.part_card.fields["turn_z"].value == pytest.approx(33.0)
