"""Colours taken from a picture, kept with the job."""

from __future__ import annotations

from dataclasses import replace

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QApplication, QColorDialog, QHBoxLayout, QToolButton, QVBoxLayout, QWidget

from ....core.gather.palette import MOST_STOPS
from ....core.job.document import Job, Palette
from ....core.operation import Whole
from ....engine.intents import sheets as sheet_intents
from ... import theme
from ...controls.panels import Section, button, words
from ...controls.ruled_scale import RuledScale
from ...desk import Desk
from ...words import tr
from .frame_board import FrameBoard


class PaletteStrip(QWidget):
    """The colours of a palette side by side; a click carries one."""

    chosen = pyqtSignal(str)

    def __init__(self, palette: Palette) -> None:
        super().__init__()
        self.stops = palette.stops
        self.setAccessibleName(tr("Colours of {name}", name=palette.name))
        self.setToolTip(tr("Click a colour to copy its code"))
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setFixedHeight(theme.px(22))

    def sizeHint(self) -> QSize:
        return QSize(theme.px(160), theme.px(22))

    def stop_at(self, x: float) -> int:
        return min(len(self.stops) - 1, max(0, int(x / self.width() * len(self.stops))))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        step = self.width() / len(self.stops)
        for index, stop in enumerate(self.stops):
            painter.fillRect(
                QRectF(round(index * step), 0, round((index + 1) * step) - round(index * step), self.height()),
                QColor(stop),
            )
        painter.setPen(QPen(theme.colour("ink_3"), 1))
        painter.drawRect(QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None:
            self.chosen.emit(self.stops[self.stop_at(event.position().x())])


class PalettesSection(Section):
    """Takes colours along a line or from an area, and lists what is kept."""

    def __init__(self, desk: Desk, board: FrameBoard) -> None:
        super().__init__(tr("Palettes"), tr("colours from the picture"))
        self.desk, self.board = desk, board
        param = replace(Whole(2, MOST_STOPS, help="How many colours are taken."), label="Colours", default=board.stops)
        self.stops = RuledScale(param, board.stops)
        self.stops.changed.connect(self._set_stops)
        self.line = button(
            tr("Along a line"),
            lambda: self._use("line"),
            tip=tr("Drag a line across the picture: its colours in order"),
        )
        self.area = button(
            tr("From an area"),
            lambda: self._use("area"),
            tip=tr("Drag a rectangle: its dominant colours, darkest first"),
        )
        for tool in (self.line, self.area):
            tool.setCheckable(True)
        self.add(self.stops)
        self.add(self.line, self.area)
        self.holder = QVBoxLayout()
        self.holder.setSpacing(theme.px(6))
        self.column.addLayout(self.holder)
        self.shown: tuple[Palette, ...] | None = None
        self.strips: dict[str, PaletteStrip] = {}
        board.tool_changed.connect(self._tool_changed)
        board.colours_found.connect(self._found)

    def _set_stops(self, value: object) -> None:
        self.board.stops = int(value)  # type: ignore[call-overload]

    def _use(self, name: str) -> None:
        tool = self.line if name == "line" else self.area
        self.board.use(name if tool.isChecked() else "frame")

    def _tool_changed(self, name: str) -> None:
        self.line.setChecked(name == "line")
        self.area.setChecked(name == "area")

    def _found(self, stops: tuple[str, ...]) -> None:
        source = self.desk.selection.source
        if source is None:
            return
        command, palette = sheet_intents.keep_palette(self.desk.job, source.name, stops)
        if self.desk.dispatch(command):
            self.desk.tell(
                tr(
                    "{count} colours kept as {name}; every colour dialog shows them.",
                    count=len(stops),
                    name=palette.name,
                )
            )

    def show_job(self, job: Job) -> None:
        """Rebuilt only when the palettes are others than before."""
        if job.palettes is self.shown:
            return
        self.shown = job.palettes
        self.say(tr("{count} kept", count=len(job.palettes)) if job.palettes else tr("colours from the picture"))
        self.strips = {}
        while self.holder.count():
            item = self.holder.takeAt(0)
            widget = item.widget() if item else None
            if widget:
                widget.hide()
                widget.deleteLater()
        for palette in job.palettes:
            self.holder.addWidget(self._row(palette))
        offer_colours(job)

    def _row(self, palette: Palette) -> QWidget:
        block = QWidget()
        column = QVBoxLayout(block)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(theme.px(2))
        row = QHBoxLayout()
        strip = PaletteStrip(palette)
        strip.chosen.connect(self._copy)
        self.strips[palette.id] = strip
        remove = QToolButton()
        remove.setObjectName("flat")
        remove.setIcon(theme.tinted("x", "ink_2", 14))
        remove.setToolTip(tr("Take out {name}", name=palette.name))
        remove.setAccessibleName(tr("Take out {name}", name=palette.name))
        remove.clicked.connect(lambda: self.desk.dispatch(sheet_intents.remove_palette(palette)))
        row.addWidget(strip, 1)
        row.addWidget(remove)
        column.addWidget(words(palette.name))
        column.addLayout(row)
        return block

    def _copy(self, colour: str) -> None:
        clipboard = QApplication.clipboard()
        if clipboard:
            clipboard.setText(colour)
        self.desk.tell(tr("{colour} copied.", colour=colour))


def offer_colours(job: Job) -> None:
    """The job's palettes as the own colours of every colour dialog."""
    stops = [stop for palette in job.palettes for stop in palette.stops]
    for index in range(QColorDialog.customCount()):
        QColorDialog.setCustomColor(index, QColor(stops[index] if index < len(stops) else "#FFFFFF"))
