"""The cross-section of a moulding, drawn by its points: the wall at the left, the height up, at one scale."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget

from ....core.place.profiles import draws_whole
from ....core.quantity import format_number
from ... import theme
from ...words import tr

Point = tuple[float, float]
LEAST_POINTS = 3
_ARROWS = {
    Qt.Key.Key_Left: (-1.0, 0.0),
    Qt.Key.Key_Right: (1.0, 0.0),
    Qt.Key.Key_Up: (0.0, 1.0),
    Qt.Key.Key_Down: (0.0, -1.0),
}


class ProfileBoard(QWidget):
    """Drag a point, click a side to add one, Delete or a drag off the board takes one out; arrows move by 1 mm. An
    outline that would cross itself is not taken.
    """

    changed = pyqtSignal(object)
    released = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(tr("Cross-section"))
        self.setToolTip(tr("Drag a point, click a side to add one, press Delete to take it out; arrows move by 1 mm"))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.points: list[Point] = [(0.0, 0.0), (20.0, 0.0), (20.0, 100.0), (0.0, 100.0)]
        self.chosen = -1
        self._held = False
        self._view: tuple[float, float, float] | None = None

    def sizeHint(self) -> QSize:
        return QSize(theme.px(160), theme.px(190))

    def minimumSizeHint(self) -> QSize:
        return self.sizeHint()

    def show_points(self, points: list[Point]) -> None:
        """Show an outline, mm; while a point is held the hand has the say."""
        if not self._held:
            self.points = list(points)
            self.chosen = min(self.chosen, len(points) - 1)
        self.update()

    # Where things lie ----------------------------------------------------------------------------

    def _frame(self) -> tuple[float, float, float]:
        """Pixels to a mm, and where the wall's foot lies; it stays while a point is held."""
        if self._view is not None:
            return self._view
        xs, ys = [0.0, *(x for x, _ in self.points)], [y for _, y in self.points]
        wide, tall = max(xs) - min(xs), max(ys) - min(ys)
        room, margin = QRectF(self.rect()), theme.px(26)
        scale = min((room.width() - 2 * margin) / max(wide, 1.0), (room.height() - 2 * margin) / max(tall, 1.0))
        left = (room.width() - wide * scale) / 2 - min(xs) * scale
        return scale, left, room.height() - (room.height() - tall * scale) / 2 + min(ys) * scale

    def on_screen(self, point: Point) -> QPointF:
        """Where a place of the cross-section lies on the board."""
        scale, left, foot = self._frame()
        return QPointF(left + point[0] * scale, foot - point[1] * scale)

    def _place(self, at: QPointF) -> Point:
        scale, left, foot = self._frame()
        return round((at.x() - left) / scale), round((foot - at.y()) / scale)

    # Drawing -------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(theme.colour("line"), 1))
        painter.setBrush(theme.colour("white"))
        painter.drawRect(QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5))
        wall = self.on_screen((0.0, 0.0)).x()
        painter.setPen(QPen(theme.colour("chalk_line"), 1, Qt.PenStyle.DashLine))
        painter.drawLine(QPointF(wall, 1), QPointF(wall, self.height() - 1))
        painter.setPen(QPen(theme.colour("ink"), 1.4))
        painter.setBrush(theme.colour("wash"))
        painter.drawPolygon(QPolygonF([self.on_screen(point) for point in self.points]))
        half = theme.px(3)
        for index, point in enumerate(self.points):
            at = self.on_screen(point)
            painter.setBrush(theme.colour("chalk_line" if index == self.chosen else "white"))
            painter.setPen(QPen(theme.colour("chalk_line"), 1.4))
            painter.drawRect(QRectF(at.x() - half, at.y() - half, 2 * half, 2 * half))
        self._paint_size(painter)

    def _paint_size(self, painter: QPainter) -> None:
        painter.setFont(theme.font(10, mono=True))
        painter.setPen(theme.colour("ink_2"))
        if 0 <= self.chosen < len(self.points):
            shown = self.points[self.chosen]
            told = tr("{out} out, {up} up", out=format_number(shown[0]), up=format_number(shown[1]))
        else:
            xs, ys = [x for x, _ in self.points], [y for _, y in self.points]
            told = f"{format_number(max(xs) - min(xs))} × {format_number(max(ys) - min(ys))} mm"
        painter.drawText(
            QRectF(self.rect()).adjusted(theme.px(6), 0, -theme.px(6), -theme.px(4)),
            Qt.AlignmentFlag.AlignBottom | Qt.AlignmentFlag.AlignRight,
            told,
        )

    # The hand ------------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        self.setFocus()
        at = event.position()
        near = [math.dist((p.x(), p.y()), (at.x(), at.y())) for p in map(self.on_screen, self.points)]
        nearest = min(range(len(near)), key=near.__getitem__)
        self.chosen = nearest if near[nearest] < theme.px(8) else -1
        if self.chosen < 0:
            side = self._side_at(at)
            if side >= 0 and self._take([*self.points[: side + 1], self._place(at), *self.points[side + 1 :]]):
                self.chosen = side + 1
        if self.chosen >= 0:
            self._held, self._view = True, self._frame()
        self.update()

    def _side_at(self, at: QPointF) -> int:
        """The side within reach of a place, or −1."""
        best, found = theme.px(7) * 1.0, -1
        for index, start in enumerate(self.points):
            a, b = self.on_screen(start), self.on_screen(self.points[(index + 1) % len(self.points)])
            along = b - a
            length = along.x() ** 2 + along.y() ** 2
            share = QPointF.dotProduct(at - a, along) / max(length, 1e-9)
            foot = a + along * min(1.0, max(0.0, share))
            off = math.dist((foot.x(), foot.y()), (at.x(), at.y()))
            if off < best:
                best, found = off, index
        return found

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or not self._held:
            return
        away = theme.px(20)
        if not QRectF(self.rect()).adjusted(-away, -away, away, away).contains(event.position()):
            self._take_out()
            self._let_go()
            return
        self._move_to(self._place(event.position()))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._held:
            self._let_go()

    def _let_go(self) -> None:
        self._held, self._view = False, None
        self.released.emit()
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None or not 0 <= self.chosen < len(self.points):
            super().keyPressEvent(event)
            return
        key = Qt.Key(event.key())
        if key in _ARROWS:
            step = 10.0 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1.0
            (x, y), (across, up) = self.points[self.chosen], _ARROWS[key]
            self._move_to((x + across * step, y + up * step))
            self.released.emit()
        elif key in {Qt.Key.Key_Delete, Qt.Key.Key_Backspace}:
            self._take_out()
            self.released.emit()
        else:
            super().keyPressEvent(event)

    def _move_to(self, place: Point) -> None:
        self._take([*self.points[: self.chosen], place, *self.points[self.chosen + 1 :]])

    def _take_out(self) -> None:
        if len(self.points) > LEAST_POINTS and self._take(
            [*self.points[: self.chosen], *self.points[self.chosen + 1 :]]
        ):
            self.chosen = -1

    def _take(self, points: list[Point]) -> bool:
        """Another outline, unless it would cross itself."""
        if points == self.points or not draws_whole(points):
            return False
        self.points = points
        self.changed.emit(tuple(points))
        self.update()
        return True
