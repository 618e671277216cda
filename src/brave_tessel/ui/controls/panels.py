"""Sections with a heading and a rule; columns that scroll; labelled fields."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import (
    QAbstractButton,
    QFrame,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from ...core.errors import TesselError
from ...core.quantity import format_number, parse_length
from .. import theme
from ..words import tr
from .typed import TypedLine


class Heading(QWidget):
    """A section's name, a note at the right, and a rule beneath."""

    def __init__(self, title: str, note: str = "") -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, theme.px(4), 0, theme.px(6))
        name = QLabel(title)
        name.setObjectName("section")
        self.note = QLabel(note)
        self.note.setObjectName("note")
        row.addWidget(name)
        row.addStretch(1)
        row.addWidget(self.note)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setPen(QPen(theme.colour("ink"), 1))
        y = self.height() - 1.5
        painter.drawLine(QPointF(0, y), QPointF(self.width(), y))


class _FoldHead(QAbstractButton):
    """A section's name, a note and a mark that says whether it is open; pressed to fold."""

    def __init__(self, title: str, note: str) -> None:
        super().__init__()
        self.title, self.words = title, note
        self.setCheckable(True)
        self.setAccessibleName(tr("Section {title}", title=title))
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)

    def sizeHint(self) -> QSize:
        return QSize(theme.px(120), theme.px(30))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        foot = self.height() - 1.5
        middle, half = QPointF(theme.px(5), self.height() / 2 + 0.5), theme.px(3.5)
        painter.setPen(QPen(theme.colour("verdigris" if self.hasFocus() else "ink_2"), 1.4))
        down = self.isChecked()
        points = (
            [(-half, -half / 2), (0, half / 2), (half, -half / 2)]
            if down
            else [(-half / 2, -half), (half / 2, 0), (-half / 2, half)]
        )
        painter.drawPolyline(QPolygonF([middle + QPointF(x, y) for x, y in points]))
        painter.setPen(theme.colour("ink"))
        painter.setFont(theme.font(12, weight=600))
        left = theme.px(15)
        painter.drawText(QRectF(left, 0, self.width() - left, self.height()), Qt.AlignmentFlag.AlignVCenter, self.title)
        taken = left + painter.fontMetrics().horizontalAdvance(self.title) + theme.px(10)
        painter.setFont(theme.font(11))
        painter.setPen(theme.colour("ink_2"))
        room = QRectF(taken, 0, self.width() - taken, self.height())
        note = painter.fontMetrics().elidedText(self.words, Qt.TextElideMode.ElideRight, int(room.width()))
        painter.drawText(room, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, note)
        painter.setPen(QPen(theme.colour("ink" if down else "line"), 1))
        painter.drawLine(QPointF(0, foot), QPointF(self.width(), foot))


class Section(QWidget):
    """A part of a card that folds away under its heading."""

    def __init__(self, title: str, note: str = "", *, unfolded: bool = False) -> None:
        super().__init__()
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(theme.px(8))
        self.head = _FoldHead(title, note)
        self.body = QWidget()
        self.column = QVBoxLayout(self.body)
        self.column.setContentsMargins(0, 0, 0, theme.px(6))
        self.column.setSpacing(theme.px(8))
        whole.addWidget(self.head)
        whole.addWidget(self.body)
        self.head.toggled.connect(self.body.setVisible)
        self.head.setChecked(unfolded)
        self.body.setVisible(unfolded)

    def add(self, *widgets: QWidget) -> None:
        """Widgets beside each other, below what is there."""
        if len(widgets) == 1:
            self.column.addWidget(widgets[0])
            return
        row = QHBoxLayout()
        row.setSpacing(theme.px(4))
        for widget in widgets:
            row.addWidget(widget, 1)
        self.column.addLayout(row)

    def say(self, note: str) -> None:
        """The note at the right of the heading."""
        self.head.words = note
        self.head.update()

    def unfold(self) -> None:
        self.head.setChecked(True)


class Column(QScrollArea):
    """A card or left panel: widgets below each other, scrolling when they must."""

    def __init__(self, name: str, *, margin: int = 14) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setWidgetResizable(True)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.body = QWidget()
        self.body.setObjectName("card")
        self.column = QVBoxLayout(self.body)
        side = theme.px(margin)
        self.column.setContentsMargins(side, theme.px(10), side, theme.px(12))
        self.column.setSpacing(theme.px(8))
        self.column.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.setWidget(self.body)
        self._held = ""

    def add(self, widget: QWidget, *, stretch: int = 0) -> QWidget:
        self.column.addWidget(widget, stretch)
        return widget

    def empty(self) -> None:
        """Take everything out; what is built in its place may take the keys up again by ``focus_again``."""
        held = self.focusWidget()
        self._held = _called(held) if held is not None and held.hasFocus() and held is not self else ""
        if self._held:
            # Else the keys go on to whatever comes next, and the card scrolls there.
            self.setFocus(Qt.FocusReason.OtherFocusReason)
        while self.column.count():
            item = self.column.takeAt(0)
            widget = item.widget() if item else None
            if widget:
                widget.hide()
                widget.deleteLater()

    def focus_again(self) -> None:
        """The keys for the control whose name is that of the one that had them before everything was taken out."""
        if self._held:
            # What was just put in is shown by the next turn of the loop, and takes no keys before.
            QTimer.singleShot(0, self._focus_on_held)

    def _focus_on_held(self) -> None:
        held, self._held = self._held, ""
        if held and self.hasFocus():
            there = (one for one in self.body.findChildren(QWidget) if one.isVisibleTo(self.body) and one.isEnabled())
            if (found := next((one for one in there if _called(one) == held), None)) is not None:
                found.setFocus(Qt.FocusReason.OtherFocusReason)


def _called(widget: QWidget) -> str:
    """What a control is called; its own words where it has no other name."""
    return widget.accessibleName() or (widget.text() if isinstance(widget, QAbstractButton) else "")


def words(text: str, name: str = "note", *, wrap: bool = True) -> QLabel:
    """A label of one of the styles of the theme."""
    label = QLabel(text)
    label.setObjectName(name)
    label.setWordWrap(wrap)
    if wrap:
        label.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        label.setMinimumWidth(10)
    return label


def button(text: str, clicked: Callable[[], object], *, name: str = "", icon: str = "", tip: str = "") -> QPushButton:
    """A push button; ``name`` picks its style."""
    made = QPushButton(text)
    if name:
        made.setObjectName(name)
    if icon:
        made.setIcon(theme.tinted(icon, "panel" if name == "main" else "ink"))
    if tip:
        made.setToolTip(tip)
    made.clicked.connect(lambda _checked=False: clicked())
    return made


class LengthField(QWidget):
    """A length to type, in mm or with a unit or as a sum; empty when unknown."""

    typed = pyqtSignal(float, str)
    refused = pyqtSignal(str)

    def __init__(self, label: str, tip: str, *, zero: bool = False, signed: bool = False) -> None:
        super().__init__()
        self.zero, self.signed = zero, signed
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(theme.px(4))
        row.addWidget(QLabel(label), 1)
        self.field = TypedLine(label, 104, self._length)
        self.field.setAlignment(Qt.AlignmentFlag.AlignRight)
        unit = QLabel("mm")
        unit.setObjectName("note")
        unit.setFixedWidth(theme.px(20))
        row.addWidget(self.field)
        row.addWidget(unit)
        self.setToolTip(tip)
        self.field.refused.connect(self.refused)
        self.field.read.connect(lambda read: self.typed.emit(*read))

    def _length(self, text: str) -> tuple[float, str]:
        text = text.replace("−", "-")
        value = parse_length(text)
        least = -1e6 if self.signed else 0.0
        if not least <= value <= 1e6 or (value == 0 and not self.zero):
            raise TesselError("length", value=text, remedy=tr("Type a length above 0 mm and below 1 km."))
        return value, text

    def show_value(self, value: float) -> None:
        self.field.show_text(format_number(value, decimals=2) if value > 0 or self.zero else "")


class Meter(QWidget):
    """A big number on a ruled bar, and a sentence that says what it means; pressed to see where."""

    pressed = pyqtSignal()

    def __init__(self, title: str) -> None:
        super().__init__()
        self.title, self.value, self.sentence = title, "–", ""
        self.fill, self.severity = 0.0, ""
        self.stale = False
        self.setMinimumWidth(theme.px(150))
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def sizeHint(self) -> QSize:
        return QSize(theme.px(200), theme.px(132))

    def show_reading(self, value: str, fill: float, severity: str, sentence: str) -> None:
        """``fill`` in [0, 1]; ``severity`` ok, caution or fault, or empty where nothing was read."""
        self.value, self.fill, self.severity, self.sentence = value, min(1.0, max(0.0, fill)), severity, sentence
        self.stale = False
        self.setAccessibleName(f"{self.title} {value}. {sentence}")
        self.setToolTip(sentence)
        self.update()

    def show_stale(self) -> None:
        """What was read is of an older result: it is struck through, and no longer judged."""
        self.stale = bool(self.severity)
        self.setAccessibleName(f"{self.title} {self.value}, {tr('of an older result')}")
        self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.pressed.emit()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        width = min(self.width() - theme.px(12), theme.px(230))
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("ink"))
        painter.drawText(QPointF(0, theme.px(14)), self.title)
        number = theme.font(24, mono=True, weight=600)
        number.setStrikeOut(self.stale)
        painter.setFont(number)
        painter.drawText(QPointF(0, theme.px(42)), self.value)
        token = {"ok": "verdigris", "caution": "ochre", "fault": "oxide"}.get(self.severity, "ink_3")
        word = {"ok": tr("good"), "caution": tr("look closer"), "fault": tr("broken")}.get(self.severity, "")
        if self.stale:
            token, word = "ink_3", tr("of an older result")
        painter.setFont(theme.font(11))
        painter.setPen(theme.colour(token))
        painter.drawText(
            QRectF(0, theme.px(24), width, theme.px(18)),
            Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignBottom,
            word,
        )
        top = theme.px(52)
        painter.setPen(QPen(theme.colour("ink_3"), 1))
        for tick in range(41):
            x = round(width * tick / 40) + 0.5
            painter.drawLine(QPointF(x, top), QPointF(x, top + theme.px(8 if tick % 10 == 0 else 5)))
        bar = QRectF(0, top + theme.px(9), width, theme.px(5))
        painter.fillRect(bar, theme.colour("line"))
        painter.fillRect(QRectF(0, bar.top(), width * self.fill, bar.height()), theme.colour(token))
        painter.setFont(theme.font(11))
        painter.setPen(theme.colour("ink_2"))
        area = QRectF(
            0, bar.bottom() + theme.px(6), self.width() - theme.px(8), self.height() - bar.bottom() - theme.px(6)
        )
        painter.drawText(area, int(Qt.TextFlag.TextWordWrap), self.sentence)
