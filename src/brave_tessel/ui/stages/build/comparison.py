"""What was kept beside what is there now: by a wipe, side by side, or in turn."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QPointF, QRectF, QTimer
from PyQt6.QtGui import QPainter, QPen, QPixmap

from ... import theme
from ...board import tile
from ...controls.float_bar import FloatBar
from ...controls.panels import button
from ...words import tr

if TYPE_CHECKING:
    from .surface_board import SurfaceBoard

WIPE, BESIDE, TURNS = "Wipe", "Side by side", "In turn"
MODES = (WIPE, BESIDE, TURNS)
_TURN_MS = 700


class Comparison:
    """Belongs to a board. ``pictures`` are what was kept, at every size; none until they are there. ``of`` is the id of
    the state that is compared with, empty while none is.
    """

    def __init__(self, board: SurfaceBoard) -> None:
        self.board = board
        self.pictures: list[QPixmap] = []
        self.size_mm = (600.0, 600.0)
        self.of = ""
        self.wipe = 0.5
        self.mode = WIPE
        self._turned = False
        self.bar = FloatBar(MODES, WIPE, name=tr("Compare by"), parent=board)
        self.bar.chosen.connect(self.show_mode)
        self.bar.hide()
        self.states = button(tr("Kept"), lambda: None)
        self.states.setParent(board)
        self.states.setAccessibleName(tr("What it is compared with"))
        self.states.hide()
        self._clock = QTimer(board)
        self._clock.setInterval(_TURN_MS)
        self._clock.timeout.connect(self._turn)

    def begin(self, id: str, name: str) -> None:
        """Compare with a kept state; its picture is on its way."""
        if id != self.of:
            self.pictures = []
        self.of, self.wipe = id, 0.5
        self.states.setText(name)
        self.bar.show()
        self.states.show()
        self.place()
        self.show_mode(self.mode)

    def keep_shown(self) -> None:
        """What the board shows stands for the state that was just kept of it."""
        self.pictures, self.size_mm = [QPixmap(pixmap) for pixmap in self.board.mips], self.board.size_mm()

    def show_picture(self, pictures: list[QPixmap], size_mm: tuple[float, float]) -> None:
        """The kept state's picture has come."""
        self.pictures, self.size_mm = pictures, size_mm
        self.board.update()

    def end(self) -> None:
        """Compare no longer."""
        self.of, self.pictures = "", []
        self.bar.hide()
        self.states.hide()
        self.show_mode(self.mode)

    def place(self) -> None:
        """The bar stands in the middle above the lower edge."""
        self.bar.adjustSize()
        margin = theme.px(10)
        left = (self.board.width() - self.bar.width()) // 2
        self.bar.move(min(left, theme.px(60)), self.board.height() - self.bar.height() - margin)
        self.states.adjustSize()
        self.states.move(self.bar.x(), self.bar.y() - self.states.height() - theme.px(4))

    def show_mode(self, mode: str) -> None:
        """Compare otherwise."""
        self.mode, self._turned = mode, False
        self.bar.show_word(mode)
        if mode == TURNS and self.pictures:
            self._clock.start()
        else:
            self._clock.stop()
        self.board.update()

    def _turn(self) -> None:
        self._turned = not self._turned
        self.board.update()

    def wipe_x(self) -> float:
        """Where the wipe stands, in the board's pixels."""
        area = self.board.picture_area()
        return float(area.left() + self.wipe * area.width())

    def holds(self, at: QPointF) -> bool:
        """Whether a press there takes the wipe."""
        return bool(self.pictures) and self.mode == WIPE and abs(at.x() - self.wipe_x()) < theme.px(7)

    def drag(self, at: QPointF) -> None:
        """Move the wipe."""
        area = self.board.picture_area()
        self.wipe = min(1.0, max(0.0, (at.x() - area.left()) / max(area.width(), 1)))

    def paint(self, painter: QPainter, target: QRectF) -> None:
        """What was kept over what is there, as the mode says; it keeps its own size, also beside another surface."""
        area = self.board.picture_area()
        if self.mode == TURNS:
            if self._turned:
                self._tile(painter, target, QRectF(area))
            self._word(painter, QPointF(area.center().x(), area.top() + theme.px(64)), self._turned)
            return
        x = self.wipe_x() if self.mode == WIPE else area.center().x()
        left = QRectF(area.left(), area.top(), x - area.left(), area.height())
        if self.mode == BESIDE:
            # The same middle of the sheet in both halves: what is now is drawn again, moved to the right one.
            shift = area.width() / 4
            self._tile(painter, target, left, -shift)
            right = QRectF(x, area.top(), area.right() - x, area.height())
            self._tile(painter, target, right, shift, now=True)
        else:
            self._tile(painter, target, left)
        for width, token in ((3, "white"), (1, "ink")):
            painter.setPen(QPen(theme.colour(token), width))
            painter.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom()))
        self._word(painter, QPointF(x - theme.px(30), area.top() + theme.px(64)), True)
        self._word(painter, QPointF(x + theme.px(30), area.top() + theme.px(64)), False)

    def _tile(self, painter: QPainter, target: QRectF, clip: QRectF, shift: float = 0.0, *, now: bool = False) -> None:
        pictures = self.board.mips if now else self.pictures
        size = self.board.size_mm() if now else self.size_mm
        cell = self.board.world_rect(0, 0, *size).translated(shift, 0)
        painter.save()
        painter.setClipRect(clip)
        painter.fillRect(clip, theme.colour("board"))
        tile(painter, pictures, target.translated(shift, 0).intersected(clip), cell)
        painter.restore()

    @staticmethod
    def _word(painter: QPainter, middle: QPointF, kept: bool) -> None:
        text = tr("kept") if kept else tr("now")
        painter.setFont(theme.font(11, weight=600))
        wide = painter.fontMetrics().horizontalAdvance(text) + theme.px(12)
        box = QRectF(middle.x() - wide / 2, middle.y() - theme.px(9), wide, theme.px(18))
        painter.fillRect(box, theme.colour("ink"))
        painter.setPen(theme.colour("on_ink"))
        painter.drawText(box, 0x84, text)
