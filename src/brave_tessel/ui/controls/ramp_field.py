"""A ramp of colours: the ramp itself, and its stops to pick, move, add and take out."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, pyqtSignal
from PyQt6.QtGui import QColor, QLinearGradient, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QColorDialog, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from ...core.operation import Param, Value
from .. import theme
from ..words import tr
from .typed import ParamField, TypedLine

Stop = tuple[float, str]


def stops_from(text: str) -> list[Stop]:
    """Places and colours of a ramp's text."""
    parts = [part.partition("@") for part in text.split(",")]
    last = max(1, len(parts) - 1)
    return sorted((float(place) if at else k / last, colour) for k, (colour, at, place) in enumerate(parts))


def text_of(stops: list[Stop]) -> str:
    return ",".join(f"{colour}@{place:.3g}" for place, colour in sorted(stops))


class _Ramp(QWidget):
    """Drag a stop, double-click one to pick its colour, click between to add one, drag one off to take it out."""

    changed = pyqtSignal(object)
    released = pyqtSignal()

    def __init__(self, name: str) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setToolTip(
            tr("Click to add a colour, drag to move it, double-click to pick it, drag it down to take it out")
        )
        self.stops: list[Stop] = [(0.0, "#000000"), (1.0, "#FFFFFF")]
        self.held = -1

    def sizeHint(self) -> QSize:
        return QSize(theme.px(160), theme.px(38))

    def _bar(self) -> QRectF:
        inset = theme.px(6)
        return QRectF(inset, 1, self.width() - 2 * inset, theme.px(22))

    def x_of(self, place: float) -> float:
        return self._bar().left() + place * self._bar().width()

    def _place(self, x: float) -> float:
        return round(min(1.0, max(0.0, (x - self._bar().left()) / self._bar().width())), 3)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        bar = self._bar()
        fill = QLinearGradient(bar.topLeft(), bar.topRight())
        for place, colour in self.stops:
            fill.setColorAt(place, QColor(colour))
        painter.setPen(QPen(theme.colour("ink_3"), 1))
        painter.setBrush(fill)
        painter.drawRect(bar.adjusted(0.5, 0.5, -0.5, -0.5))
        low = bar.bottom() + theme.px(2)
        for index, (place, colour) in enumerate(self.stops):
            x, half = self.x_of(place), theme.px(5)
            painter.setPen(QPen(theme.colour("verdigris" if index == self.held else "ink_2"), 1.4))
            painter.setBrush(QColor(colour))
            painter.drawPolygon(
                QPolygonF(
                    [
                        QPointF(x, low),
                        QPointF(x + half, low + half),
                        QPointF(x + half, low + 2.2 * half),
                        QPointF(x - half, low + 2.2 * half),
                        QPointF(x - half, low + half),
                    ]
                )
            )

    def _at(self, at: QPointF) -> int:
        near = [abs(self.x_of(place) - at.x()) for place, _ in self.stops]
        nearest = min(range(len(near)), key=near.__getitem__)
        return nearest if near[nearest] < theme.px(7) else -1

    def _colour_at(self, place: float) -> str:
        before = max((s for s in self.stops if s[0] <= place), default=self.stops[0])
        after = min((s for s in self.stops if s[0] >= place), default=self.stops[-1])
        share = (place - before[0]) / max(after[0] - before[0], 1e-6)
        a, b = QColor(before[1]), QColor(after[1])
        mixed = [
            round(x + (y - x) * share) for x, y in ((a.red(), b.red()), (a.green(), b.green()), (a.blue(), b.blue()))
        ]
        return "#{:02X}{:02X}{:02X}".format(*mixed)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        self.held = self._at(event.position())
        if self.held < 0 and len(self.stops) < 16:
            place = self._place(event.position().x())
            fresh = (place, self._colour_at(place))
            self.stops = sorted([*self.stops, fresh])
            self.held = self.stops.index(fresh)
            self.changed.emit(text_of(self.stops))
        self.update()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self.held < 0:
            return
        away = event.position().y() > self.height() + theme.px(24)
        if away and len(self.stops) > 2:
            del self.stops[self.held]
            self.held = -1
        else:
            moved = (self._place(event.position().x()), self.stops[self.held][1])
            self.stops[self.held] = moved
            self.stops.sort()
            self.held = self.stops.index(moved)
        self.changed.emit(text_of(self.stops))
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self.held = -1
        self.released.emit()
        self.update()

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        at = self._at(event.position()) if event else -1
        if at < 0:
            return
        place, colour = self.stops[at]
        picked = QColorDialog.getColor(
            QColor(colour), self, tr("Colour of the ramp"), QColorDialog.ColorDialogOption.DontUseNativeDialog
        )
        if picked.isValid():
            self.stops[at] = (place, picked.name().upper())
            self.changed.emit(text_of(self.stops))
            self.released.emit()


class RampField(ParamField):
    """A ramp parameter: the ramp, and its text to type or paste."""

    def __init__(self, param: Param, value: Value) -> None:
        super().__init__(param)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(theme.px(3))
        head = QHBoxLayout()
        head.addWidget(QLabel(tr(param.label)), 1)
        self.field = TypedLine(tr("{label}, codes", label=tr(param.label)), 150, param.check)
        self.field.setToolTip(
            tr("{help} Codes with commas between; a place may follow, as in #C8B060@0.4.", help=tr(param.help))
        )
        head.addWidget(self.field)
        self.ramp = _Ramp(tr(param.label))
        column.addLayout(head)
        column.addWidget(self.ramp)
        self.ramp.changed.connect(self.changed)
        self.ramp.released.connect(self.released)
        self.field.refused.connect(self.refused)
        self.field.read.connect(self._typed)
        self.show_value(value)

    def _typed(self, value: Value) -> None:
        self.changed.emit(value)
        self.released.emit()

    def show_value(self, value: Value) -> None:
        self.field.show_text(str(value))
        if self.ramp.held < 0:
            self.ramp.stops = stops_from(str(value))
        self.ramp.update()
