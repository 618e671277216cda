"""The rows of a recipe: name, operation, values, chips of what it is made from, look, cost."""

from __future__ import annotations

from dataclasses import dataclass

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFontMetricsF, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap
from PyQt6.QtWidgets import QSizePolicy, QWidget

from .....core.job.layers import Recipe, Step
from .....core.operation import REGISTRY, Param, Value, shown_option
from .....core.quantity import format_length, format_number
from .....core.recipe.edit import used
from .... import theme
from ....words import tr

_ROW, _HEAD = 58, 30
_SLOW = 0.1


def shown_value(param: Param, value: Value) -> str:
    """A value as a row shows it."""
    if param.kind == "length":
        return format_length(float(value))
    if param.kind == "angle":
        return f"{format_number(float(value), decimals=1)}°"
    if param.kind == "toggle":
        return tr(param.label).lower() if value else tr("not {label}", label=tr(param.label).lower())
    if param.kind == "words":
        return f"“{str(value).splitlines()[0] if value else ''}”"
    if param.kind in {"fraction", "whole", "seed"}:
        return f"{tr(param.label).lower()} {format_number(float(value), decimals=2)} {param.unit}".rstrip()
    if param.kind == "choice":
        return tr(shown_option(str(value)))
    return str(value) if param.kind != "stops" else tr("{count} colours", count=len(str(value).split(",")))


def main_values(step: Step) -> str:
    """The first few dials of a step in words."""
    operation = REGISTRY.get(step.op)
    if operation is None:
        return tr("made by another version")
    dials = [
        (param, step.values.get(name, param.default)) for name, param in operation.params.items() if name != "seed"
    ]
    return ", ".join(shown_value(param, value) for param, value in dials[:3])


@dataclass(slots=True)
class _Place:
    """Where a heading or a step's row lies."""

    step: Step | None
    section: str
    box: QRectF


class StepRows(QWidget):
    """Sends what is wanted and shows what it is given."""

    chosen = pyqtSignal(str)
    input_dropped = pyqtSignal(str, str, str)
    moved = pyqtSignal(str, int)
    removed = pyqtSignal(str)
    renamed = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(tr("Steps of the recipe"))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.recipe = Recipe()
        self.selected = ""
        self.thumbs: dict[str, QPixmap] = {}
        self.costs: dict[str, float] = {}
        self.faults: dict[str, str] = {}
        self.folded: set[str] = set()
        self.places: list[_Place] = []
        self.hovered = ""
        self.dragged = ""
        self._pressed: QPointF | None = None
        self._pointer = QPointF()

    # What is shown -----------------------------------------------------------------------------------

    def show_recipe(self, recipe: Recipe, selected: str) -> None:
        self.recipe, self.selected = recipe, selected
        self._place()
        about = [f"{step.name}, {main_values(step)}" for step in recipe.steps]
        self.setAccessibleDescription("; ".join(about))
        self.update()

    def show_looks(self, thumbs: dict[str, QPixmap], costs: dict[str, float], faults: dict[str, str]) -> None:
        self.thumbs, self.costs, self.faults = thumbs, costs, faults
        self.update()

    def _place(self) -> None:
        self.places, y, before = [], 0.0, ""
        for step in self.recipe.steps:
            if step.section and step.section != before:
                self.places.append(_Place(None, step.section, QRectF(0, y, self.width(), theme.px(_HEAD))))
                y += theme.px(_HEAD)
            before = step.section
            if step.section not in self.folded:
                self.places.append(_Place(step, step.section, QRectF(0, y, self.width(), theme.px(_ROW))))
                y += theme.px(_ROW)
        self.setFixedHeight(max(theme.px(_ROW), int(y + theme.px(8))))

    def resizeEvent(self, event: object) -> None:
        self._place()

    def sizeHint(self) -> QSize:
        return QSize(theme.px(424), self.height())

    def row_of(self, name: str) -> QRectF:
        """Where a step's row lies; empty where it is folded away."""
        return next(
            (place.box for place in self.places if place.step is not None and place.step.name == name), QRectF()
        )

    def _columns(self) -> tuple[float, float, float]:
        """Left of the chips, of the look and of the cost."""
        width = self.width()
        return width - theme.px(238), width - theme.px(94), width - theme.px(44)

    def chips(self, step: Step, box: QRectF) -> list[tuple[str, str, QRectF]]:
        """Slot, step and place of every chip of a row."""
        left, right = self._columns()[0], self._columns()[1] - theme.px(6)
        metrics = QFontMetricsF(theme.font(11))
        x, y, found = left, box.top() + theme.px(5), []
        for slot, name in step.made_from.items():
            wide = min(metrics.horizontalAdvance(name) + theme.px(30), right - left)
            if x > left and x + wide > right:
                x, y = left, y + theme.px(24)
            found.append((slot, name, QRectF(x, y, wide, theme.px(20))))
            x += wide + theme.px(5)
        return found

    def chip_at(self, at: QPointF) -> tuple[str, str, str] | None:
        """The row, slot and step of the chip under a place."""
        for place in self.places:
            if place.step is not None and place.box.contains(at):
                for slot, name, box in self.chips(place.step, place.box):
                    if box.contains(at):
                        return place.step.name, slot, name
        return None

    # Painting ----------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), theme.colour("chalk"))
        needed, total = used(self.recipe), max(sum(self.costs.values()), 1e-6)
        number = {step.name: index for index, step in enumerate(self.recipe.steps)}
        section = 0
        for place in self.places:
            if place.step is None:
                section += 1
                self._paint_heading(painter, place, section)
            else:
                painter.setOpacity(1.0 if place.step.name in needed else 0.45)
                self._paint_row(painter, place.step, place.box, number, total)
                painter.setOpacity(1.0)
        if self.dragged:
            self._paint_drag(painter)

    def _paint_heading(self, painter: QPainter, place: _Place, number: int) -> None:
        box = place.box.adjusted(theme.px(14), 0, -theme.px(8), 0)
        painter.setFont(theme.font(11, weight=600))
        painter.setPen(theme.colour("ink"))
        fold = "  ▸" if place.section in self.folded else ""
        painter.drawText(box, Qt.AlignmentFlag.AlignVCenter, f"{number}  {place.section}{fold}")
        note = self.recipe.notes.get(place.section, "").splitlines()
        if note:
            begin = QFontMetricsF(painter.font()).horizontalAdvance(f"{number}  {place.section}{fold}") + theme.px(14)
            painter.setFont(theme.font(11))
            painter.setPen(theme.colour("ink_2"))
            room = box.adjusted(begin, 0, 0, 0)
            told = QFontMetricsF(painter.font()).elidedText(note[0], Qt.TextElideMode.ElideRight, room.width())
            painter.drawText(room, Qt.AlignmentFlag.AlignVCenter, told)
        painter.setPen(QPen(theme.colour("line"), 1))
        y = box.bottom() - 2.5
        painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y))

    def _paint_row(self, painter: QPainter, step: Step, box: QRectF, number: dict[str, int], total: float) -> None:
        frame = box.adjusted(theme.px(4), 2, -theme.px(4), -2)
        chosen, user = step.name == self.selected, self.hovered in step.made_from.values()
        if chosen or user:
            painter.setBrush(theme.colour("wash") if chosen else Qt.BrushStyle.NoBrush)
            painter.setPen(
                QPen(theme.colour("verdigris"), 1, Qt.PenStyle.SolidLine if chosen else Qt.PenStyle.DashLine)
            )
            painter.drawRoundedRect(frame.adjusted(0.5, 0.5, -0.5, -0.5), 3, 3)
        spine = QRectF(box.left() + theme.px(10), box.top() + theme.px(5), theme.px(18), box.height() - theme.px(10))
        self._paint_number(painter, spine, number[step.name])
        chips, look, cost = self._columns()
        self._paint_words(painter, step, box, chips - theme.px(28))
        for _, name, place in self.chips(step, box):
            self._paint_chip(painter, name, place, number)
        if not step.made_from:
            painter.setPen(theme.colour("ink_3"))
            painter.drawText(QRectF(chips, box.top(), theme.px(20), theme.px(30)), Qt.AlignmentFlag.AlignVCenter, "–")
        side = theme.px(46)
        target = QRectF(look, box.center().y() - side / 2, side, side)
        if step.name in self.thumbs:
            painter.drawPixmap(target, self.thumbs[step.name], QRectF(self.thumbs[step.name].rect()))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(theme.colour("line"), 1))
        painter.drawRect(target.adjusted(0.5, 0.5, -0.5, -0.5))
        if step.name in self.costs:
            self._paint_cost(painter, self.costs[step.name], total, QRectF(cost, box.top(), theme.px(36), box.height()))

    def _paint_words(self, painter: QPainter, step: Step, box: QRectF, width: float) -> None:
        operation = REGISTRY.get(step.op)
        left = box.left() + theme.px(36)
        fault = self.faults.get(step.name, "")
        lines = (
            (
                f"{step.name}{'  (' + tr('bypassed') + ')' if step.bypassed else '  ½' if step.half else ''}",
                theme.font(12, weight=600),
                "ink",
            ),
            (tr(operation.label) if operation else step.op, theme.font(11), "ink"),
            (fault or main_values(step), theme.font(10), "oxide" if fault else "ink_2"),
        )
        for index, (text, font, token) in enumerate(lines):
            painter.setFont(font)
            painter.setPen(theme.colour(token))
            told = QFontMetricsF(font).elidedText(text, Qt.TextElideMode.ElideRight, width)
            painter.drawText(QPointF(left, box.top() + theme.px(17 + 16 * index)), told)

    def _paint_chip(self, painter: QPainter, name: str, place: QRectF, number: dict[str, int]) -> None:
        at = number.get(name, 0)
        under = self.dragged and place.contains(self._pointer)
        painter.setPen(QPen(theme.step_mark(at), 2 if under else 1))
        painter.setBrush(theme.colour("wash" if under or name == self.hovered else "white"))
        painter.drawRect(place.adjusted(0.5, 0.5, -0.5, -0.5))
        self._paint_number(painter, QRectF(place.left(), place.top(), theme.px(18), place.height()), at)
        font = theme.font(11)
        painter.setFont(font)
        painter.setPen(theme.colour("ink"))
        room = place.adjusted(theme.px(23), 0, -theme.px(5), 0)
        painter.drawText(
            room,
            Qt.AlignmentFlag.AlignVCenter,
            QFontMetricsF(font).elidedText(name, Qt.TextElideMode.ElideRight, room.width() + 2),
        )

    def _paint_number(self, painter: QPainter, place: QRectF, at: int) -> None:
        """The number of a step on its colour: on its own row, and on the chips of what is made from it."""
        painter.fillRect(place, theme.step_mark(at))
        painter.setFont(theme.font(10, mono=True, weight=600))
        painter.setPen(theme.colour("on_ink"))
        painter.drawText(place, Qt.AlignmentFlag.AlignCenter, str(at + 1))

    def _paint_cost(self, painter: QPainter, ms: float, total: float, place: QRectF) -> None:
        slow = ms > _SLOW * total
        painter.setFont(theme.font(11, mono=True))
        painter.setPen(theme.colour("oxide" if slow else "ink_2"))
        painter.drawText(
            QRectF(place.left(), place.top() + theme.px(4), place.width(), theme.px(18)),
            Qt.AlignmentFlag.AlignRight,
            f"{ms:.1f}",
        )
        bar = place.width() * min(1.0, ms / total)
        painter.fillRect(
            QRectF(place.right() - max(bar, 1.0), place.top() + theme.px(26), max(bar, 1.0), theme.px(3)),
            theme.colour("oxide" if slow else "ink_3"),
        )

    def _paint_drag(self, painter: QPainter) -> None:
        target = self._drop_row(self._pointer)
        if self.chip_at(self._pointer) is None and target is not None:
            y = target[1]
            painter.setPen(QPen(theme.colour("verdigris"), 2))
            painter.drawLine(QPointF(theme.px(8), y), QPointF(self.width() - theme.px(8), y))
        painter.setFont(theme.font(11, weight=600))
        painter.setPen(theme.colour("ink"))
        painter.drawText(self._pointer + QPointF(theme.px(12), theme.px(4)), self.dragged)

    def _drop_row(self, at: QPointF) -> tuple[int, float] | None:
        """Before which step something dropped here lands, and where the line is drawn."""
        names = [step.name for step in self.recipe.steps]
        last = None
        for place in self.places:
            if place.step is None:
                continue
            index = names.index(place.step.name)
            if at.y() < place.box.center().y():
                return index, place.box.top()
            last = index + 1, place.box.bottom()
        return last

    # The mouse and keys ------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        self.setFocus()
        self._pressed = event.position()
        place = next((place for place in self.places if place.box.contains(event.position())), None)
        if place is not None and place.step is None:
            self.folded ^= {place.section}
            self._place()
            self.update()
        elif place is not None and place.step is not None and self.chip_at(event.position()) is None:
            self.chosen.emit(place.step.name)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        self._pointer = event.position()
        if self._pressed is not None and event.buttons() & Qt.MouseButton.LeftButton and not self.dragged:
            start = next((p.step for p in self.places if p.step is not None and p.box.contains(self._pressed)), None)
            if (
                start is not None
                and (self._pointer - self._pressed).manhattanLength() > theme.px(8)
                and self.chip_at(self._pressed) is None
            ):
                self.dragged = start.name
        chip = self.chip_at(self._pointer)
        self.hovered = chip[2] if chip and not self.dragged else ""
        self.setCursor(Qt.CursorShape.PointingHandCursor if chip else Qt.CursorShape.ArrowCursor)
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        chip, dragged, pressed = self.chip_at(event.position()), self.dragged, self._pressed
        self.dragged, self._pressed = "", None
        if dragged and chip is not None:
            self.input_dropped.emit(chip[0], chip[1], dragged)
        elif dragged:
            target = self._drop_row(event.position())
            own = [step.name for step in self.recipe.steps].index(dragged)
            if target is not None and target[0] not in {own, own + 1}:
                self.moved.emit(dragged, target[0] - (1 if target[0] > own else 0))
        elif chip is not None and pressed is not None and self.chip_at(pressed) == chip:
            self.chosen.emit(chip[2])
        self.update()

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self.selected and self.row_of(self.selected).contains(event.position()):
            self.renamed.emit(self.selected)

    def leaveEvent(self, event: object) -> None:
        self.hovered = ""
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        names = [step.name for step in self.recipe.steps]
        by = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()), 0)
        at = names.index(self.selected) if self.selected in names else -1
        if by and event.modifiers() & Qt.KeyboardModifier.AltModifier and at >= 0:
            self.moved.emit(self.selected, at + by)
        elif by and names:
            self.chosen.emit(names[min(max(at + by, 0), len(names) - 1)])
        elif event.key() == Qt.Key.Key_Delete and at >= 0:
            self.removed.emit(self.selected)
        elif event.key() == Qt.Key.Key_F2 and at >= 0:
            self.renamed.emit(self.selected)
        else:
            super().keyPressEvent(event)
