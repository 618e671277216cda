"""The form of a declared operation: one control a parameter, made from its declaration."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QLabel, QVBoxLayout, QWidget

from ...core.operation import REGISTRY, Param, Value
from .. import theme
from ..words import tr
from .choices import LabelledChoices, PaintField, SourceField, SwitchField
from .lettered import FontField, SizesField, WordsField
from .ramp_field import RampField
from .ruled_scale import RuledScale


def control_for(param: Param, value: Value) -> Any:
    """The control that suits a parameter."""
    return _CONTROLS.get(param.kind, RuledScale)(param, value)


_CONTROLS: dict[str, Any] = {
    "choice": LabelledChoices,
    "toggle": SwitchField,
    "colour": PaintField,
    "source": SourceField,
    "layer": SourceField,
    "tip": SourceField,
    "stops": RampField,
    "words": WordsField,
    "sizes": SizesField,
    "font": FontField,
}


class OperationForm(QWidget):
    """Controls for an operation's parameters. ``changed`` carries a name and a checked value."""

    changed = pyqtSignal(str, object)
    released = pyqtSignal()
    refused = pyqtSignal(str)

    def __init__(self, op: str, values: Mapping[str, Value], *, only: Iterable[str] | None = None) -> None:
        super().__init__()
        self.op = op
        self.controls: dict[str, Any] = {}
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(theme.px(9))
        operation = REGISTRY.get(op)
        if operation is None:
            note = QLabel(tr("“{op}” was made by another version. It is kept unchanged.", op=op))
            note.setWordWrap(True)
            note.setObjectName("caution")
            column.addWidget(note)
            return
        for name, param in operation.params.items():
            if only is not None and name not in set(only):
                continue
            control = control_for(param, values.get(name, param.default))
            control.changed.connect(lambda value, key=name: self.changed.emit(key, value))
            control.released.connect(self.released)
            if hasattr(control, "refused"):
                control.refused.connect(self.refused)
            self.controls[name] = control
            column.addWidget(control)
        self._show_used(values)

    def show_values(self, values: Mapping[str, Value]) -> None:
        """Show values from the job; sends nothing."""
        params = REGISTRY[self.op].params if self.op in REGISTRY else {}
        for name, control in self.controls.items():
            control.show_value(values.get(name, params[name].default))
        self._show_used(values)

    def idle(self, values: Mapping[str, Value]) -> set[str]:
        """Parameters that count for nothing with these values."""
        operation = REGISTRY.get(self.op)
        if operation is None or operation.idle is None:
            return set()
        return operation.idle({**operation.defaults(), **values})

    def _show_used(self, values: Mapping[str, Value]) -> None:
        """Hide what counts for nothing; where all counts, what is shown is left to others."""
        operation = REGISTRY.get(self.op)
        if operation is not None and operation.idle is not None:
            idle = self.idle(values)
            for name, control in self.controls.items():
                control.setVisible(name not in idle)
