"""Controls for what is written: a text, a list of sizes, a font."""

from __future__ import annotations

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtGui import QFocusEvent
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QPlainTextEdit, QVBoxLayout

from ...core.errors import TesselError
from ...core.operation import Param, Value
from ...engine.wording import sentence
from ...formats.lettering import fonts
from .. import theme
from ..words import tr
from .typed import ParamField, TypedLine


class Lines(QPlainTextEdit):
    """A few lines to type in; ``left`` brings them when the field is left. Tab goes on to the next field."""

    left = pyqtSignal(str)

    def __init__(self, text: str = "") -> None:
        super().__init__(text)
        self.setTabChangesFocus(True)

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        super().focusOutEvent(event)
        self.left.emit(self.toPlainText())


class WordsField(ParamField):
    """A text, sent as it is typed."""

    def __init__(self, param: Param, value: Value) -> None:
        super().__init__(param)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(theme.px(4))
        column.addWidget(QLabel(tr(param.label)))
        self.field = Lines()
        self.field.setAccessibleName(tr(param.label))
        self.field.setFixedHeight(theme.px(52))
        column.addWidget(self.field)
        self.show_value(value)
        self.field.textChanged.connect(self._typed)
        self.field.left.connect(lambda _text: self.released.emit())

    def _typed(self) -> None:
        try:
            self.changed.emit(self.param.check(self.field.toPlainText()))
        except TesselError as error:
            self.refused.emit(tr(sentence(error)))

    def show_value(self, value: Value) -> None:
        if self.field.toPlainText() != str(value):
            self.field.blockSignals(True)
            self.field.setPlainText(str(value))
            self.field.blockSignals(False)


class SizesField(ParamField):
    """Some sizes in one line, with commas between."""

    def __init__(self, param: Param, value: Value) -> None:
        super().__init__(param)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(theme.px(4))
        column.addWidget(QLabel(tr(param.label)))
        self.field = TypedLine(tr(param.label), 256, param.check)
        self.field.read.connect(self._read)
        self.field.refused.connect(self.refused)
        column.addWidget(self.field)
        self.show_value(value)

    def _read(self, value: Value) -> None:
        self.changed.emit(value)
        self.released.emit()

    def show_value(self, value: Value) -> None:
        self.field.show_text(str(value))


class FontField(ParamField):
    """A font by its name: shipped ones first, then those installed."""

    def __init__(self, param: Param, value: Value) -> None:
        super().__init__(param)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(QLabel(tr(param.label)))
        self.box = QComboBox()
        self.box.setAccessibleName(tr(param.label))
        self.box.setMinimumContentsLength(14)
        self.box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.box.addItems(list(fonts()))
        row.addWidget(self.box, 1)
        self.box.activated.connect(self._picked)
        self.show_value(value)

    def _picked(self, _index: int) -> None:
        self.changed.emit(self.box.currentText())
        self.released.emit()

    def show_value(self, value: Value) -> None:
        # A font of another machine stays named, so that it is not lost.
        if self.box.findText(str(value)) < 0:
            self.box.addItem(str(value))
        self.box.setCurrentIndex(self.box.findText(str(value)))
