"""What every stage gives the frame."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QObject, QRectF, Qt
from PyQt6.QtGui import QPainter
from PyQt6.QtWidgets import QHBoxLayout, QStackedWidget, QVBoxLayout, QWidget

from ...core.job.document import Job
from ...engine.store import Selector
from .. import theme
from ..desk import Desk


class Stage(QObject):
    """A left panel, a board, a strip below it and a card. The frame places them.

    A stage that is not shown does no work: what it would show is worked out when it is turned to.
    """

    name: ClassVar[str]
    left: QWidget
    board: QWidget
    strip: QWidget
    card: QWidget

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk = desk
        self._stale = False

    @property
    def here(self) -> bool:
        """Whether this stage is the one shown."""
        return self.desk.view.stage == self.name

    def follow(self, parts: Selector) -> None:
        """Show the job whenever one of the parts that the selector picks becomes another object, or another thing is
        chosen: now if the stage is shown, else when it is turned to.
        """
        self.desk.session.store.subscribe(parts, lambda _parts: self.moved())
        self.desk.selection.changed.connect(self.moved)
        self.desk.view.stage_changed.connect(self._turned)

    def moved(self) -> None:
        """Something that the stage shows has changed."""
        if self.here:
            self._stale = False
            self.show_job(self.desk.job)
        else:
            self._stale = True

    def _turned(self, _stage: str) -> None:
        if self.here and self._stale:
            self.moved()

    def show_job(self, job: Job) -> None:
        """Show the job as it is."""

    @property
    def ruled_board(self) -> QWidget:
        """The board that a drawing scale is for."""
        return self.board

    def fit(self) -> None:
        """Show everything on the board."""


def stacked(*widgets: QWidget) -> QStackedWidget:
    """Widgets of which one is shown."""
    made = QStackedWidget()
    for widget in widgets:
        made.addWidget(widget)
    return made


class LeftPanel(QWidget):
    """A stage's left panel: headings and buttons set in from the sides, lists from edge to edge."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.setAutoFillBackground(True)
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, theme.px(8), 0, theme.px(12))

    def add(self, *widgets: QWidget, stretch: bool = False) -> None:
        """Widgets side by side, the first as wide as can be if ``stretch``."""
        row = QHBoxLayout()
        row.setContentsMargins(theme.px(12), 0, theme.px(12), 0)
        for index, widget in enumerate(widgets):
            row.addWidget(widget, 1 if stretch and index == 0 else 0)
        self.column.addLayout(row)

    def add_list(self, rows: QWidget, *, stretch: int = 1) -> None:
        self.column.addWidget(rows, stretch)


def caption(painter: QPainter, rect: QRectF, title: str, note: str = "") -> None:
    """Words over the board, white on neutral grey."""
    painter.setFont(theme.font(12, weight=500))
    painter.setPen(Qt.GlobalColor.white)
    painter.drawText(rect, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, title)
    advance = painter.fontMetrics().horizontalAdvance(title)
    if note:
        painter.setFont(theme.font(11))
        room = rect.adjusted(advance + theme.px(10), 0, 0, 0)
        told = painter.fontMetrics().elidedText(note, Qt.TextElideMode.ElideRight, int(room.width()))
        painter.drawText(room, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, told)
