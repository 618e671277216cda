"""A person's hand: the mouse over a board, in the board's own coordinates."""

import itertools

from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier


def at(board, x, y) -> QPoint:
    return board.to_screen(x, y).toPoint()


def pull(board, *points, keys=NONE, button=LEFT):
    """Press at the first point, move over the others, let go; points in pixels."""
    QTest.mouseMove(board, points[0])
    QTest.mousePress(board, button, keys, points[0])
    for before, after in itertools.pairwise(points):
        for k in (1, 2, 3):
            step = before + (after - before) * k / 3
            move(board, step, keys)
    QTest.mouseRelease(board, button, keys, points[-1])


def move(board, point, keys=NONE, button=LEFT):
    """A move with a button held and keys down, as a window system sends it."""
    from PyQt6.QtCore import QEvent, QPointF
    from PyQt6.QtGui import QMouseEvent
    from PyQt6.QtWidgets import QApplication

    place = QPointF(point)
    event = QMouseEvent(QEvent.Type.MouseMove, place, board.mapToGlobal(place), Qt.MouseButton.NoButton, button, keys)
    QApplication.sendEvent(board, event)


def hover(board, point):
    move(board, point, button=Qt.MouseButton.NoButton)


def click(widget, point=None, keys=NONE):
    QTest.mouseClick(widget, LEFT, keys, point or widget.rect().center())
