"""The reference picture and the dropper, on every board."""

from dataclasses import replace

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QColor
from PyQt6.QtTest import QTest

from brave_tessel.core.job.commands import Remove
from brave_tessel.ui.dropper import colour_at
from tests.ui.hand import click, pull


@pytest.fixture
def pinned(demo_window, settled):
    demo_window.desk.selection.choose(source="shingle", surface="shingle-bed")
    demo_window.desk.go("Repeat")
    settled(demo_window)
    demo_window.actions_.pin_reference()
    settled(demo_window)
    return demo_window


def test_a_reference_lies_beside_at_the_boards_scale(pinned, settled):
    frame = pinned.reference
    assert frame.beside.isVisible()
    assert frame.bar.note.text() == "to scale"
    # The shingle's frame is 640 × 480 mm.
    scale = pinned.stages["Repeat"].pair.px_per_mm()
    assert frame.beside.rect_of_picture().width() == pytest.approx(640 * scale)
    assert not frame.beside.grab().isNull()
    pinned.desk.go("Place")
    settled(pinned)
    assert frame.bar.note.text() == "not to scale here"
    pinned.actions_.pin_reference()
    assert not frame.beside.isVisible()
    assert not frame.bar.isVisible()


def test_beside_a_solid_it_is_not_to_scale_and_its_bar_covers_nothing_of_the_board(pinned, settled):
    frame, build = pinned.reference, pinned.stages["Build"]
    pinned.desk.go("Build")
    settled(pinned)
    assert frame.bar.note.text() == "to scale"
    build.extents.show_word("Solid")
    build.show_extent("Solid")
    settled(pinned)
    QTest.qWait(80)
    assert frame.bar.note.text() == "not to scale here"
    assert not build.block.isVisible()
    board = build.surface_board
    right = board.mapTo(frame, board.rect().topRight()).x()
    assert frame.bar.x() > right
    build.show_extent("Cell")
    assert build.block.isVisible()


def test_a_reference_lies_over_follows_the_board_and_is_wiped(pinned, settled):
    frame = pinned.reference
    pinned.desk.go("Build")
    settled(pinned)
    click(frame.bar.modes.buttons["Over"])
    settled(pinned)
    board = pinned.stages["Build"].surface_board
    assert frame.over.isVisible()
    board.set_scale(2.0)
    QTest.qWait(80)
    assert frame.over.rect_of_picture().width() == pytest.approx(1280)
    assert frame.over.rect_of_picture().bottomLeft().x() == pytest.approx(board.to_screen(0, 0).x())
    pull(frame.handle, frame.handle.rect().center(), frame.handle.rect().center() + QPoint(200, 0))
    assert 0.15 < frame.pinned.wipe < 0.6
    frame.bar.opacity.setValue(100)
    assert frame.pinned.opacity == 1
    # The board still has its mouse.
    under = pinned.stacks["board"].childAt(pinned.stacks["board"].rect().center())
    assert under is not frame.over


def test_a_reference_goes_with_its_source(pinned, settled):
    frame = pinned.reference
    frame.put(replace(frame.pinned, source="mosaic"))
    pinned.desk.dispatch(Remove(path=("sources", "mosaic"), label="x"))
    assert frame.pinned.source == ""
    assert not frame.beside.isVisible()


def test_a_tint_is_taken_from_any_board(demo_window, settled):
    desk = demo_window.desk
    desk.go("Gather")
    desk.selection.choose(source="mosaic")
    settled(demo_window)
    card = demo_window.stages["Gather"].source_card
    card.colour_section.unfold()
    tint = card.tint.controls["tint"]
    click(tint.drop)
    board = demo_window.stages["Gather"].frame
    place = board.rect().center()
    expected = colour_at(board, place)
    click(board, place)
    assert desk.selection.source.tint.values["tint"] == expected
    assert not tint.drop.isChecked()
    assert QColor(expected).isValid()
    click(tint.drop)
    QTest.keyClick(demo_window, Qt.Key.Key_Escape)
    assert not tint.drop.isChecked()
    before = desk.selection.source.tint
    click(board, place + QPoint(40, 0))
    assert desk.selection.source.tint == before
