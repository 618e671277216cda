"""The ruled scale: a label, a typed value with its unit, and a ruled line with a pointer."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF, QWheelEvent
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QLineEdit, QSizePolicy, QVBoxLayout, QWidget

from ...core.errors import TesselError
from ...core.operation import Param, Value
from ...core.quantity import format_number, parse_angle, parse_length, parse_number, parse_share
from ...engine.wording import sentence
from .. import theme
from ..words import tr

_PARSERS = {"length": parse_length, "angle": parse_angle, "fraction": parse_share}
_STEPS = 100


class _Rule(QWidget):
    """The ruled line. Knows a position in [0, 1] and nothing of units."""

    moved = pyqtSignal(float)
    stepped = pyqtSignal(int, Qt.KeyboardModifier)
    released = pyqtSignal()
    restored = pyqtSignal()

    def __init__(self, name: str, parent: QWidget) -> None:
        super().__init__(parent)
        self.position = 0.0
        self.default = 0.0
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(name)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self._pressed_at: tuple[float, float] | None = None

    def sizeHint(self) -> QSize:
        return QSize(theme.px(120), theme.px(17))

    def _span(self) -> tuple[float, float]:
        inset = theme.px(5)
        return inset, self.width() - 2 * inset

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        left, width = self._span()
        base = theme.px(7) + 0.5
        painter.setPen(QPen(theme.colour("ink_3"), 1))
        painter.drawLine(QPointF(left, base), QPointF(left + width, base))
        for tick in range(21):
            x = round(left + width * tick / 20) + 0.5
            length = theme.px(6 if tick % 10 == 0 else 4 if tick % 5 == 0 else 3)
            painter.drawLine(QPointF(x, base), QPointF(x, base - length))
        x = left + width * min(1.0, max(0.0, self.position))
        half, low = theme.px(4.5), base + theme.px(8)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.colour("verdigris" if self.isEnabled() else "line"))
        painter.drawPolygon(QPolygonF([QPointF(x, base), QPointF(x - half, low), QPointF(x + half, low)]))
        if self.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(theme.colour("verdigris"), 1, Qt.PenStyle.DotLine))
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5), 3, 3)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event and event.button() == Qt.MouseButton.LeftButton:
            self._pressed_at = (event.position().x(), self.position)
            if not event.modifiers():
                self._go(event.position().x())

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._pressed_at is None:
            return
        x = event.position().x()
        if event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            start, position = self._pressed_at
            self.moved.emit(min(1.0, max(0.0, position + (x - start) / self._span()[1] / 10)))
        else:
            self._go(x)

    def _go(self, x: float) -> None:
        left, width = self._span()
        self.moved.emit(min(1.0, max(0.0, (x - left) / max(1.0, width))))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._pressed_at is not None:
            self._pressed_at = None
            self.released.emit()

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        self._pressed_at = None
        self.restored.emit()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is None or not self.hasFocus():
            # An unfocused scale lets the card scroll.
            if event:
                event.ignore()
            return
        turn = event.angleDelta().y() or event.angleDelta().x()
        self.stepped.emit(1 if turn > 0 else -1, event.modifiers())
        self.released.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        up = event.key() in {Qt.Key.Key_Right, Qt.Key.Key_Up}
        if up or event.key() in {Qt.Key.Key_Left, Qt.Key.Key_Down}:
            self.stepped.emit(1 if up else -1, event.modifiers())
            self.released.emit()
        else:
            super().keyPressEvent(event)


class RuledScale(QWidget):
    """Our parameter control. ``changed`` carries the checked value; ``released`` ends a drag."""

    changed = pyqtSignal(object)
    released = pyqtSignal()
    refused = pyqtSignal(str)

    def __init__(self, param: Param, value: Value | None = None, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.param = param
        self.value: float = float(param.default if value is None else value)
        self.label = QLabel(tr(param.label))
        self.field = QLineEdit()
        self.field.setObjectName("mono")
        self.field.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.field.setFixedWidth(theme.px(62))
        self.field.setAccessibleName(tr("{label}, value", label=tr(param.label)))
        self.unit = QLabel(param.unit)
        self.unit.setObjectName("note")
        self.unit.setFixedWidth(theme.px(30))
        self.rule = _Rule(tr(param.label), self)
        self._build(param)
        self.show_value(self.value)

    def _build(self, param: Param) -> None:
        top = QHBoxLayout()
        top.setContentsMargins(0, 0, 0, 0)
        top.setSpacing(theme.px(4))
        top.addWidget(self.label, 1)
        top.addWidget(self.field)
        top.addWidget(self.unit)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(theme.px(2))
        column.addLayout(top)
        column.addWidget(self.rule)
        told = {"help": tr(param.help), "allowed": tr(param.allowed()), "unit": param.unit}
        named = param.unit in param.allowed()
        self.setToolTip(
            tr("{help} Takes {allowed}.", **told) if named else tr("{help} Takes {allowed} in {unit}.", **told)
        )
        self.field.editingFinished.connect(self._typed)
        self.field.returnPressed.connect(self._entered)
        self.rule.moved.connect(lambda position: self._set(self._value_at(position)))
        self.rule.stepped.connect(self._step)
        self.rule.released.connect(self.released)
        self.rule.restored.connect(self._restore)

    # The ruled range, straight or logarithmic ------------------------------------------------------

    def _position_of(self, value: float) -> float:
        low, high = self.param.low, self.param.high
        if self.param.log:
            return math.log(max(value, 1e-9) / low) / math.log(high / low)
        return (value - low) / (high - low)

    def _value_at(self, position: float) -> float:
        low, high = self.param.low, self.param.high
        value = low * (high / low) ** position if self.param.log else low + position * (high - low)
        return self._rounded(value)

    def _rounded(self, value: float) -> float:
        if self.param.kind in {"whole", "seed"}:
            return float(round(value))
        span = value if self.param.log else self.param.high - self.param.low
        digits = max(0, 2 - math.floor(math.log10(max(abs(span), 1e-6))))
        return round(value, min(4, digits))

    def _step(self, by: int, modifiers: Qt.KeyboardModifier) -> None:
        size = 1.0
        if modifiers & Qt.KeyboardModifier.ShiftModifier:
            size = 0.1
        elif modifiers & Qt.KeyboardModifier.ControlModifier:
            size = 10.0
        if self.param.kind in {"whole", "seed"}:
            self._set(self.value + by * max(1.0, size))
        elif self.param.log:
            self._set(self.value * (self.param.high / self.param.low) ** (by * size / _STEPS))
        else:
            self._set(self._rounded(self.value + by * size * (self.param.high - self.param.low) / _STEPS))

    def _restore(self) -> None:
        self._set(float(self.param.default))
        self.released.emit()

    def _set(self, value: float) -> None:
        value = min(self.param.most, max(self.param.least, value))
        if value != self.value:
            self.field.setModified(False)
            self.show_value(value)
            self.changed.emit(self.param.check(value))

    def _typed(self) -> None:
        if not self.field.isModified():
            return
        text = self.field.text().replace("−", "-")
        try:
            value = self.param.check(_PARSERS.get(self.param.kind, parse_number)(text))
        except TesselError as error:
            self.field.setProperty("wrong", True)
            self._restyle()
            self.refused.emit(tr(sentence(error)))
            return
        self.field.setModified(False)
        self.show_value(float(value))
        self.changed.emit(value)
        self.released.emit()

    def _restyle(self) -> None:
        style = self.field.style()
        if style:
            style.unpolish(self.field)
            style.polish(self.field)

    def _entered(self) -> None:
        # Once what was typed has been read.
        QTimer.singleShot(0, self._leave_field)

    def _leave_field(self) -> None:
        """After Enter the keys are the rule's: arrows step on, and a digit goes to a stage and not into the number."""
        if self.field.hasFocus() and not self.field.isModified():
            self.rule.setFocus(Qt.FocusReason.OtherFocusReason)

    def show_value(self, value: float) -> None:
        """Show a value from the job; sends nothing. What is just being typed stays, to be finished or mended."""
        self.value = float(value)
        self.rule.position = self._position_of(self.value)
        self.rule.update()
        if self.field.hasFocus() and self.field.isModified():
            return
        decimals = 0 if self.param.kind in {"whole", "seed"} else 2 if abs(value) < 100 else 1
        self.field.setText(format_number(self.value, decimals=decimals))
        self.field.setModified(False)
        if self.field.property("wrong"):
            self.field.setProperty("wrong", False)
            self._restyle()
