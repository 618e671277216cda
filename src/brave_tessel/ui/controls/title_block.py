"""The title block at the board's lower right: what is shown, its size, its scale, its meters."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFontMetricsF, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget

from .. import theme
from ..words import tr

Cell = tuple[str, str, str]
"""Key (empty if a click does nothing), label, value."""


class TitleBlock(QWidget):
    """Two columns of labelled cells; ``clicked`` carries the cell's key."""

    clicked = pyqtSignal(str)

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.cells: list[Cell] = []
        self.setMouseTracking(True)
        self.setAccessibleName(tr("Title block"))

    def show_cells(self, cells: Sequence[Cell]) -> None:
        if list(cells) == self.cells:
            return
        self.cells = list(cells)
        self.setAccessibleDescription("; ".join(f"{label} {value}" for _, label, value in cells))
        self.resize(self.sizeHint())
        self.place()
        self.update()

    def place(self) -> None:
        """Keep to the lower right corner of the board."""
        board = self.parentWidget()
        if board:
            self.move(board.width() - self.width() - theme.px(12), board.height() - self.height() - theme.px(12))

    def _widths(self) -> list[tuple[float, float]]:
        label, value = QFontMetricsF(theme.font(9)), QFontMetricsF(theme.font(11, mono=True))
        widths = []
        for column in range(2):
            cells = self.cells[column::2]
            widths.append(
                (
                    max((label.horizontalAdvance(c[1].upper()) for c in cells), default=0) + theme.px(14),
                    max((value.horizontalAdvance(c[2]) for c in cells), default=0) + theme.px(10),
                )
            )
        return widths

    def _row(self) -> int:
        return theme.px(19)

    def sizeHint(self) -> QSize:
        rows = (len(self.cells) + 1) // 2
        return QSize(round(sum(a + b for a, b in self._widths())) + 1, rows * self._row() + 1)

    def _cell_rects(self) -> list[QRectF]:
        widths = self._widths()
        rects = []
        for index in range(len(self.cells)):
            column = index % 2
            left = 0.0 if column == 0 else sum(widths[0])
            rects.append(QRectF(left, (index // 2) * self._row(), sum(widths[column]), self._row()))
        return rects

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), theme.colour("white"))
        widths = self._widths()
        for (key, label, value), rect in zip(self.cells, self._cell_rects(), strict=True):
            column = 0 if rect.left() == 0 else 1
            painter.setPen(QPen(theme.colour("line"), 1))
            painter.drawRect(rect.translated(0.5, 0.5))
            painter.setFont(theme.font(9))
            painter.setPen(theme.colour("ink_2"))
            painter.drawText(
                QRectF(rect.left() + theme.px(7), rect.top(), widths[column][0], rect.height()),
                Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft,
                label.upper(),
            )
            painter.setFont(theme.font(11, mono=True))
            painter.setPen(theme.colour("verdigris" if key else "ink"))
            painter.drawText(
                QRectF(rect.left() + widths[column][0], rect.top(), widths[column][1], rect.height()),
                Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft,
                value,
            )
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.drawRect(QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5))

    def _key_at(self, point: QPointF) -> str:
        for (key, _, _), rect in zip(self.cells, self._cell_rects(), strict=True):
            if rect.contains(point):
                return key
        return ""

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event:
            hand = self._key_at(event.position())
            self.setCursor(Qt.CursorShape.PointingHandCursor if hand else Qt.CursorShape.ArrowCursor)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event and (key := self._key_at(event.position())):
            self.clicked.emit(key)
