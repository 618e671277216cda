"""One of a few words, side by side; a colour; a switch."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import (
    QAbstractButton,
    QButtonGroup,
    QCheckBox,
    QColorDialog,
    QComboBox,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from ...core.operation import Param, Value
from ...core.recipe.stock import STOCK
from .. import theme
from ..dropper import Dropper
from ..words import tr
from .typed import ParamField, TypedLine

CARD_ROOM = 258
"""How wide what stands in a card may be, px."""


def fill(box: QComboBox, keys: Iterable[str]) -> None:
    """Fill a box with words of the program in the person's language; each entry's data is its key."""
    for key in keys:
        box.addItem(tr(key), key)


class Choices(QWidget):
    """Buttons of which one is chosen."""

    changed = pyqtSignal(object)

    def __init__(
        self,
        options: Sequence[tuple[str, str]],
        value: str,
        *,
        name: str,
        columns: int = 4,
        parent: QWidget | None = None,
    ) -> None:
        super().__init__(parent)
        self.setAccessibleName(name)
        self.group = QButtonGroup(self)
        self.buttons: dict[str, QPushButton] = {}
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(theme.px(4))
        for key, label in options:
            button = QPushButton(tr(label))
            button.setCheckable(True)
            button.setAccessibleName(f"{name}: {tr(label)}")
            self.group.addButton(button)
            self.buttons[key] = button
            button.clicked.connect(lambda _checked, chosen=key: self.changed.emit(chosen))
        # No more beside each other than the card has room for with the longest word in each.
        widest = max((button.minimumSizeHint().width() for button in self.buttons.values()), default=1)
        columns = max(1, min(columns, (theme.px(CARD_ROOM) + grid.spacing()) // (widest + grid.spacing())))
        for index, button in enumerate(self.buttons.values()):
            grid.addWidget(button, index // columns, index % columns)
        self.show_value(value)

    def show_value(self, value: str) -> None:
        if value in self.buttons:
            self.buttons[value].setChecked(True)


class LabelledChoices(QWidget):
    """A choice parameter with its label above."""

    changed = pyqtSignal(object)
    released = pyqtSignal()

    def __init__(self, param: Param, value: Value) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(theme.px(4))
        column.addWidget(QLabel(tr(param.label)))
        options = [(option, tr(option).capitalize()) for option in param.options]
        self.choices = Choices(options, str(value), name=tr(param.label), columns=3 if len(options) > 2 else 2)
        column.addWidget(self.choices)
        self.setToolTip(tr(param.help))
        self.choices.changed.connect(self.changed)

    def show_value(self, value: Value) -> None:
        self.choices.show_value(str(value))


class Swatch(QAbstractButton):
    """A field of one colour."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.colour = theme.colour("board")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def sizeHint(self) -> QSize:
        return QSize(theme.px(36), theme.px(22))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setPen(QPen(theme.colour("verdigris" if self.hasFocus() else "ink_3"), 1))
        painter.setBrush(self.colour)
        painter.drawRect(QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5))


class PaintField(ParamField):
    """A colour parameter: a swatch that opens the picker, its code to type, and a dropper for any board."""

    def __init__(self, param: Param, value: Value) -> None:
        super().__init__(param)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(theme.px(6))
        row.addWidget(QLabel(tr(param.label)), 1)
        self.swatch = Swatch()
        self.swatch.setAccessibleName(tr("{label}, pick", label=tr(param.label)))
        self.field = TypedLine(
            tr("{label}, code", label=tr(param.label)),
            76,
            lambda text: param.check(text if text.startswith("#") else f"#{text}"),
        )
        self.drop = QToolButton()
        self.drop.setObjectName("flat")
        self.drop.setCheckable(True)
        self.drop.setIcon(theme.tinted("dropper", "ink_2", 14))
        self.drop.setAccessibleName(tr("{label}, take from a board", label=tr(param.label)))
        self.drop.setToolTip(tr("Then click any board or picture to take its colour; Esc ends it"))
        for widget in (self.drop, self.swatch, self.field):
            row.addWidget(widget)
        self.drop.clicked.connect(self._take)
        self._dropper: Dropper | None = None
        self.swatch.clicked.connect(self._pick)
        self.field.refused.connect(self.refused)
        self.field.read.connect(self._typed)
        self.show_value(value)

    def _pick(self) -> None:
        dialog = QColorDialog(self.swatch.colour, self)
        dialog.setOption(QColorDialog.ColorDialogOption.DontUseNativeDialog)
        dialog.currentColorChanged.connect(lambda picked: self.changed.emit(picked.name().upper()))
        before = self.swatch.colour.name().upper()
        if not dialog.exec():
            self.changed.emit(before)
        self.released.emit()

    def _take(self) -> None:
        if self._dropper is not None:
            self._dropper.stop()
            return
        self._dropper = Dropper(self, self._took, self._ended)

    def _took(self, colour: str) -> None:
        self.changed.emit(colour)
        self.released.emit()

    def _ended(self) -> None:
        self._dropper = None
        self.drop.setChecked(False)

    def _typed(self, value: Value) -> None:
        self.changed.emit(value)
        self.released.emit()

    def show_value(self, value: Value) -> None:
        self.swatch.colour = QColor(str(value))
        self.swatch.update()
        self.field.show_text(str(value))


KNOWN_SOURCES: list[tuple[str, str]] = []
"""Ids and names of what is gathered and has a size; kept by the desk."""


KNOWN_LAYERS: list[tuple[str, str]] = []
"""Ids and names of the other layers of the build-up; kept by the desk."""


class _Tips(Iterable[tuple[str, str]]):
    """What a brush's tip may be: sources, then stock recipes."""

    def __iter__(self) -> Iterator[tuple[str, str]]:
        yield from KNOWN_SOURCES
        yield from ((f"recipe:{name}", tr("{name}, recipe", name=tr(name))) for name in STOCK)


class SourceField(QWidget):
    """A parameter that names something gathered, or a layer."""

    changed = pyqtSignal(object)
    released = pyqtSignal()

    def __init__(self, param: Param, value: Value) -> None:
        super().__init__()
        self.known: Iterable[tuple[str, str]] = {"layer": KNOWN_LAYERS, "tip": _Tips()}.get(param.kind, KNOWN_SOURCES)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(QLabel(tr(param.label)), 1)
        self.box = QComboBox()
        self.box.setAccessibleName(tr(param.label))
        self.box.setMinimumContentsLength(10)
        self.box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        row.addWidget(self.box)
        self.setToolTip(tr(param.help))
        self.box.activated.connect(lambda index: self.changed.emit(self.box.itemData(index)))
        self.show_value(value)

    def show_value(self, value: Value) -> None:
        wanted = [("", "–"), *self.known]
        if [(self.box.itemData(n), self.box.itemText(n)) for n in range(self.box.count())] != wanted:
            self.box.clear()
            for id, name in wanted:
                self.box.addItem(name, id)
        self.box.setCurrentIndex(max(0, self.box.findData(str(value))))


class SwitchField(QCheckBox):
    """A yes or no parameter."""

    changed = pyqtSignal(object)
    released = pyqtSignal()

    def __init__(self, param: Param, value: Value) -> None:
        super().__init__(tr(param.label))
        self.setToolTip(tr(param.help))
        self.setChecked(bool(value))
        self.clicked.connect(lambda on: self.changed.emit(bool(on)))

    def show_value(self, value: Value) -> None:
        self.setChecked(bool(value))
