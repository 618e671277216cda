"""What parameters are set with: a field for one, and a line to type in, read when it is left, refused with one
sentence.
"""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QLineEdit, QWidget

from ...core.errors import TesselError
from ...core.operation import Param
from ...engine.wording import sentence
from .. import theme
from ..words import tr


class ParamField(QWidget):
    """A field for one parameter. ``changed`` carries the checked value; ``released`` ends a change, for one step of
    undo.
    """

    changed = pyqtSignal(object)
    released = pyqtSignal()
    refused = pyqtSignal(str)

    def __init__(self, param: Param) -> None:
        super().__init__()
        self.param = param
        self.setToolTip(tr(param.help))


class TypedLine(QLineEdit):
    """Emits ``read`` what ``read`` makes of the text; a refused text stays to be mended."""

    read = pyqtSignal(object)
    refused = pyqtSignal(str)

    def __init__(self, name: str, width: int, read: Callable[[str], object]) -> None:
        super().__init__()
        self._reader = read
        self.setObjectName("mono")
        self.setFixedWidth(theme.px(width))
        self.setAccessibleName(name)
        self.editingFinished.connect(self._finished)

    def _finished(self) -> None:
        if not self.isModified():
            return
        try:
            value = self._reader(self.text().strip())
        except TesselError as error:
            self.refused.emit(tr(sentence(error)))
            return
        self.setModified(False)
        self.read.emit(value)

    def show_text(self, text: str) -> None:
        """Show a text from its start, unless something else is just being typed."""
        if self.hasFocus() and self.isModified():
            return
        self.setText(text)
        self.setCursorPosition(0)
        self.setModified(False)
