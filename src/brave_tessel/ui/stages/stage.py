"""What every stage gives the frame."""

from __future__ import annotations

from PyQt6.QtCore import QObject, QRectF, Qt
from PyQt6.QtGui import QPainter
from PyQt6.QtWidgets import QWidget

from .. import theme
from ..desk import Desk


class Stage(QObject):
    """A left panel, a board, a strip below it and a card. The frame places them."""

    left: QWidget
    board: QWidget
    strip: QWidget
    card: QWidget

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk = desk

    @property
    def here(self) -> bool:
        """Whether this stage is the one shown."""
        return False

    def fit(self) -> None:
        """Show everything on the board."""


def panel() -> QWidget:
    """A plain panel."""
    made = QWidget()
    made.setObjectName("panel")
    made.setAutoFillBackground(True)
    return made


def caption(painter: QPainter, rect: QRectF, title: str, note: str = "") -> None:
    """Words over the board, white on neutral grey."""
    painter.setFont(theme.font(12, weight=500))
    painter.setPen(Qt.GlobalColor.white)
    painter.drawText(rect, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, title)
    advance = painter.fontMetrics().horizontalAdvance(title)
    if note:
        painter.setFont(theme.font(11))
        painter.drawText(
            rect.adjusted(advance + theme.px(10), 0, 0, 0), Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, note
        )
