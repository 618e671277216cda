"""Small fields that the cards of a part share."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QWidget

from ....core.operation import Param
from ....core.operation import named as named_param
from ... import theme
from ...controls.panels import LengthField
from ...controls.ruled_scale import RuledScale
from ...words import tr


def length_field(label: str, tip: str, value: float, typed: Callable[[float], object],
                 refused: Callable[[str], object]) -> LengthField:  # fmt: skip
    """A length that may be any, with what it is now."""
    field = LengthField(label, tip, zero=True, signed=True)
    field.show_value(value)
    field.typed.connect(lambda value, _text: typed(value))
    field.refused.connect(refused)
    return field


def scale(param: Param, name: str, label: str, value: float, changed: Callable[[float], object],
          released: Callable[[], object]) -> RuledScale:  # fmt: skip
    """A ruled scale of a parameter that no operation declares."""
    made = RuledScale(named_param(param, label, 0.0), value)
    made.changed.connect(lambda value: changed(float(value)))
    made.released.connect(released)
    made.setObjectName(name)
    return made


class Pick(QWidget):
    """A name and a box of choices beside it."""

    def __init__(self, label: str, choices: dict[str, str], value: str, changed: Callable[[str], object]) -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(QLabel(label), 1)
        self.box = QComboBox()
        self.box.setAccessibleName(label)
        self.box.setFixedWidth(theme.px(148))
        for key, text in choices.items():
            self.box.addItem(text, key)
        self.show_value(value)
        self.box.activated.connect(lambda index: changed(str(self.box.itemData(index))))
        row.addWidget(self.box)

    def show_value(self, value: str) -> None:
        """Show which is chosen; sends nothing."""
        index = self.box.findData(value)
        if index < 0 and value:
            self.box.addItem(tr("unknown: {value}", value=value), value)
            index = self.box.count() - 1
        self.box.setCurrentIndex(max(index, 0))
