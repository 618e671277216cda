"""The cell beside the field of many; what a step shows over it and takes from the mouse is the step's tool."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRectF, QSettings, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap, QWheelEvent
from PyQt6.QtWidgets import QWidget

from ....core.quantity import format_number, format_size
from ....engine.pictures.results import ChoicePicture, SheetPicture
from ... import theme
from ...board import tile, to_pixmaps
from ...words import tr
from ..stage import caption
from .spot import Spot, before, boxes, paint_spot, place_words, spot_of_cut

Point = tuple[float, float]


_MOST = 0.8
"""Of the width that cell or field may take."""


def _settings() -> QSettings:
    return QSettings(QSettings.Format.IniFormat, QSettings.Scope.UserScope, "Brave Tessel", "Brave Tessel")


def kept_share() -> float:
    """How much of the width the cell took last."""
    stored = _settings().value("repeat/share", 0.5)
    try:
        return min(_MOST, max(1 - _MOST, float(stored)))
    except (TypeError, ValueError):
        return 0.5


class Tool:
    """What a step does on the board. Points are mm on the cell, y up, not wrapped."""

    on_field = False
    whole_sheet = False

    def paint(self, board: RepeatBoard, painter: QPainter) -> None:
        """Over the cell, clipped to it."""

    def press(self, board: RepeatBoard, at: Point, modifiers: Qt.KeyboardModifier) -> bool:
        """Left button down; whether the tool takes the drag."""
        return False

    def drag(self, board: RepeatBoard, at: Point, modifiers: Qt.KeyboardModifier) -> None:
        """Moved with the button held."""

    def release(self, board: RepeatBoard) -> None:
        """Button up."""

    def double(self, board: RepeatBoard, at: Point) -> None:
        """Double click."""

    def key(self, board: RepeatBoard, event: QKeyEvent) -> bool:
        """A key; whether it was of use."""
        return False

    def cursor(self, board: RepeatBoard, at: Point) -> Qt.CursorShape:
        """The pointer's shape over a place."""
        return Qt.CursorShape.ArrowCursor


class RepeatBoard(QWidget):
    """The cell, shifted by half so that its joins cross the middle, beside the field at true scale.

    Wheel over the cell comes closer, over the field steps back; the middle button moves the cell. What lies between
    them is dragged to give either more room, and stays so; a double click on a title or on the field enlarges that one,
    and back.
    """

    probed = pyqtSignal(float, float)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(tr("One repeat beside the field of many"))
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.done: SheetPicture | None = None
        self.choice: ChoicePicture | None = None
        self.mips: list[QPixmap] = []
        self.field_mips: list[QPixmap] = []
        self.plain: QPixmap | None = None
        self.choice_mips: list[QPixmap] = []
        self.field_m = 4.0
        self.tool: Tool = Tool()
        self.zoom = 1.0
        self.middle: Point | None = None
        self.spot: Point | None = None
        self.pointer: QPointF | None = None
        self._dragging = ""
        self._pan_from: QPointF | None = None
        self.share = kept_share()

    # What is shown -----------------------------------------------------------------------------------

    def show_sheet(self, done: SheetPicture | None) -> None:
        another = done is None or self.done is None or done.source.id != self.done.source.id
        self.done = done
        self.mips = to_pixmaps(done.mips) if done else []
        self.field_mips = to_pixmaps(done.field_mips) if done and done.field_mips else self.mips
        plain = done.plain if done else None
        self.plain = to_pixmaps(plain.mips)[0] if plain is not None else None
        if another:
            self.zoom, self.middle, self.spot, self.choice = 1.0, None, None, None
        self.update()

    def show_choice(self, choice: ChoicePicture | None) -> None:
        self.choice = choice
        self.choice_mips = to_pixmaps(choice.mips) if choice else []
        self.update()

    def take_tool(self, tool: Tool) -> None:
        self.tool = tool
        self.update()

    def show_spot(self, x: float, y: float) -> None:
        """Come close to a place of the cell, mm, y up."""
        self.spot = (x, y)
        self.update()

    # Coordinates -------------------------------------------------------------------------------------

    def cell_mm(self) -> tuple[float, float]:
        """Width and height of what lies in the cell's place: the cell, or the whole sheet while choosing."""
        if self.tool.whole_sheet and self.choice is not None:
            return self.choice.grid.width_mm, self.choice.grid.height_mm
        return (self.done.grid.width_mm, self.done.grid.height_mm) if self.done else (1.0, 1.0)

    def areas(self) -> tuple[QRectF, QRectF]:
        """Where the cell and the field lie."""
        gap, top = theme.px(16), theme.px(34)
        half = (self.width() - 3 * gap) * (0.5 if self.tool.whole_sheet else self.share)
        high = self.height() - top - gap
        width, height = self.cell_mm()
        if self.done is None and not self.tool.whole_sheet:
            return QRectF(gap, top, half, high), QRectF(2 * gap + half, top, half, high)
        scale = min(half / width, high / height)
        cell = QRectF(gap, top, width * scale, height * scale)
        left = cell.right() + gap
        return cell, QRectF(left, top, max(10.0, self.width() - left - gap), high)

    def over_splitter(self, at: QPointF) -> bool:
        """Whether a place lies between cell and field."""
        if self.tool.whole_sheet or self.done is None:
            return False
        cell, field = self.areas()
        return cell.right() + 2 < at.x() < field.left() - 2 and at.y() > cell.top()

    def set_share(self, share: float) -> None:
        """How much of the width the cell may take; kept for the next time."""
        self.share = min(_MOST, max(1 - _MOST, share))
        _settings().setValue("repeat/share", self.share)
        self.update()

    def enlarge(self, which: str) -> None:
        """Give the cell or the field nearly all the room, or both the same again."""
        wanted = _MOST if which == "cell" else 1 - _MOST
        self.set_share(0.5 if abs(self.share - wanted) < 0.02 else wanted)

    def _middle(self) -> Point:
        width, height = self.cell_mm()
        if self.tool.whole_sheet:
            return width / 2, height / 2
        # Shifted by half: the joins cross in the middle.
        return self.middle if self.middle is not None else (0.0, 0.0)

    def px_per_mm(self) -> float:
        return self.areas()[0].width() / self.cell_mm()[0] * (1.0 if self.tool.whole_sheet else self.zoom)

    def to_screen(self, x: float, y: float) -> QPointF:
        """A point in mm; of the wrapped ones, that nearest to the middle."""
        return self.placing()(x, y)

    def placing(self) -> Callable[[float, float], QPointF]:
        """Places many points as :meth:`to_screen` does one, as long as the board stays as it is."""
        middle, scale, (mx, my) = self.areas()[0].center(), self.px_per_mm(), self._middle()
        (width, height), wraps = self.cell_mm(), not self.tool.whole_sheet
        left, top = middle.x(), middle.y()

        def place(x: float, y: float) -> QPointF:
            if wraps:
                x = (x - mx + width / 2) % width - width / 2 + mx
                y = (y - my + height / 2) % height - height / 2 + my
            return QPointF(left + (x - mx) * scale, top - (y - my) * scale)

        return place

    def to_mm(self, at: QPointF) -> Point:
        """A point on the cell, not wrapped."""
        cell, scale, (mx, my) = self.areas()[0], self.px_per_mm(), self._middle()
        return mx + (at.x() - cell.center().x()) / scale, my - (at.y() - cell.center().y()) / scale

    def field_to_mm(self, at: QPointF) -> Point:
        """A point of the field on the cell, not wrapped."""
        field = self.areas()[1]
        scale = self.field_m * 1000 / field.width()
        height = self.done.grid.height_mm if self.done else 0.0
        return (at.x() - field.left()) * scale, height - (at.y() - field.top()) * scale

    def over_field(self, at: QPointF) -> bool:
        return self.areas()[1].contains(at)

    def reference_place(self) -> tuple[QPointF, float] | None:
        """Where a sheet held against the cell lies, and how large a millimetre is."""
        if self.done is None:
            return None
        cell = self.areas()[0]
        corner = self.to_screen_raw(0.0, 0.0) if not self.tool.whole_sheet else cell.bottomLeft()
        return corner, self.px_per_mm()

    # Painting ----------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), theme.colour("board"))
        if self.done is None and not (self.tool.whole_sheet and self.choice):
            painter.setPen(Qt.GlobalColor.white)
            painter.setFont(theme.font(13))
            text = tr("Choose a source that has its real size; give it one in Gather.")
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, text)
            return
        cell, field = self.areas()
        self._paint_cell(painter, cell)
        if self.done is not None:
            self._paint_field(painter, field)
            self._paint_spot(painter)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.save()
        painter.setClipRect(cell)
        self.tool.paint(self, painter)
        painter.restore()
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(cell)

    def _paint_cell(self, painter: QPainter, cell: QRectF) -> None:
        title = QRectF(cell.left(), 0, cell.width(), theme.px(34))
        width, height = self.cell_mm()
        size = format_size(width, height)
        if self.tool.whole_sheet:
            caption(painter, title, tr("Sheet"), tr("{size}, straightened", size=size))
            tile(painter, self.choice_mips, cell, cell)
            return
        closer = (
            f", × {format_number(self.zoom, decimals=1)}"
            if self.zoom > 1.01
            else tr(", shifted ½")
            if self.middle is None
            else ""
        )
        rough = tr(", rough") if self.done and self.done.rough else ""
        caption(painter, title, tr("Cell"), f"{size}{closer}{rough}")
        corner = self.to_screen_raw(0.0, height)
        scale = self.px_per_mm()
        tile(painter, self.mips, cell, QRectF(corner.x(), corner.y(), width * scale, height * scale))

    def to_screen_raw(self, x: float, y: float) -> QPointF:
        """A point in mm as it is, not the nearest wrapped one."""
        cell, scale, (mx, my) = self.areas()[0], self.px_per_mm(), self._middle()
        return QPointF(cell.center().x() + (x - mx) * scale, cell.center().y() - (y - my) * scale)

    def _paint_field(self, painter: QPainter, field: QRectF) -> None:
        assert self.done is not None
        scale = field.width() / (self.field_m * 1000)
        grid = self.done.field_grid
        one = QRectF(field.left(), field.top(), grid.width_mm * scale, grid.height_mm * scale)
        tile(painter, self.field_mips, field, one)
        title = QRectF(field.left(), 0, field.width(), theme.px(34))
        caption(
            painter,
            title,
            tr("Field"),
            tr("{number} m wide, at true scale; wheel to step back", number=format_number(self.field_m, decimals=1)),
        )
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.drawRect(field)

    def spot_boxes(self) -> tuple[QRectF, ...]:
        """Where a place of interest is shown, and beside it the join as it lay; none where there is no room."""
        spot = self._spot()
        pair = spot is not None and self.done is not None and before(self.done, spot.at) is not None
        return boxes(self.areas()[0], self.height(), pair=pair)

    def _spot(self) -> Spot | None:
        if self.spot is not None:
            return Spot(self.spot, tr("Chosen place"))
        return spot_of_cut(self.done) if self.done is not None and not self.tool.whole_sheet else None

    def _paint_spot(self, painter: QPainter) -> None:
        """A place of interest, enlarged below the cell where there is room: two pixels for each of the sheet's."""
        done, spot, shown = self.done, self._spot(), self.spot_boxes()
        if done is None or spot is None or not shown:
            return
        size = done.grid.width_mm, done.grid.height_mm
        scale = 2 * self.mips[0].width() / done.grid.width_mm / self.devicePixelRatioF()
        paint_spot(
            painter,
            shown[0],
            self.mips[0],
            size,
            spot.at,
            scale,
            (tr("{place}, 2:1", place=spot.name), place_words(spot)),
        )
        was = before(done, spot.at)
        if was is None or self.plain is None or done.plain is None or len(shown) < 2:
            return
        size = done.plain.grid.width_mm, done.plain.grid.height_mm
        words = tr("Not mended"), tr("edge against edge")
        paint_spot(painter, shown[1], self.plain, size, was, scale, words)

    # The mouse and keys ------------------------------------------------------------------------------

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is None:
            return
        at = event.position()
        if not self.areas()[0].contains(at) or self.tool.whole_sheet:
            self.field_m = min(20.0, max(0.5, self.field_m * 1.0012 ** -event.angleDelta().y()))
        else:
            before = self.to_mm(at)
            self.zoom = min(40.0, max(1.0, self.zoom * 1.0015 ** event.angleDelta().y()))
            after, (mx, my) = self.to_mm(at), self._middle()
            self.middle = (
                None
                if self.zoom <= 1.001 and self.middle is None
                else (mx + before[0] - after[0], my + before[1] - after[1])
            )
        self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        self.setFocus()
        at = event.position()
        if event.button() == Qt.MouseButton.MiddleButton and self.areas()[0].contains(at):
            self._pan_from = at
            self.setCursor(Qt.CursorShape.ClosedHandCursor)
        elif event.button() == Qt.MouseButton.LeftButton and self.over_splitter(at):
            self._dragging = "splitter"
        elif event.button() == Qt.MouseButton.LeftButton:
            place = self._place_of(at)
            if place is not None and self.tool.press(self, place, event.modifiers()):
                self._dragging = "field" if self.over_field(at) else "cell"
        self.update()

    def _place_of(self, at: QPointF) -> Point | None:
        """Where the tool is used; None where it is of no use."""
        if self.areas()[0].contains(at):
            return self.to_mm(at)
        if self.tool.on_field and self.over_field(at) and self.field_mips is self.mips:
            return self.field_to_mm(at)
        return None

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        at = self.pointer = event.position()
        if self._pan_from is not None:
            before, after, (mx, my) = self.to_mm(self._pan_from), self.to_mm(at), self._middle()
            self.middle = (mx + before[0] - after[0], my + before[1] - after[1])
            self._pan_from = at
        elif self._dragging == "splitter":
            gap = theme.px(16)
            self.set_share((at.x() - 1.5 * gap) / max(1.0, self.width() - 3 * gap))
        elif self._dragging:
            place = self.field_to_mm(at) if self._dragging == "field" else self.to_mm(at)
            self.tool.drag(self, place, event.modifiers())
        else:
            self._tell_place(at)
        self.update()

    def _tell_place(self, at: QPointF) -> None:
        place = self._place_of(at)
        if self.over_splitter(at):
            self.setCursor(Qt.CursorShape.SplitHCursor)
            return
        self.setCursor(Qt.CursorShape.ArrowCursor if place is None else self.tool.cursor(self, place))
        if self.done is None:
            return
        if self.areas()[0].contains(at):
            width, height = self.cell_mm()
            x, y = self.to_mm(at)
            self.probed.emit(x % width, y % height)
        elif self.over_field(at):
            scale = self.field_m * 1000 / self.areas()[1].width()
            field = self.areas()[1]
            self.probed.emit((at.x() - field.left()) * scale, (field.bottom() - at.y()) * scale)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._pan_from is not None:
            self._pan_from = None
            self.unsetCursor()
        elif self._dragging:
            tool, self._dragging = self._dragging != "splitter", ""
            if tool:
                self.tool.release(self)
        self.update()

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        at, (cell, field) = event.position(), self.areas()
        if cell.contains(at):
            self.tool.double(self, self.to_mm(at))
        elif not self.tool.whole_sheet and self.done is not None and not self.over_splitter(at):
            self.enlarge("field" if field.left() <= at.x() else "cell")
        self.update()

    def leaveEvent(self, event: object) -> None:
        self.pointer = None
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        if not self.tool.key(self, event):
            super().keyPressEvent(event)
        self.update()

    def fit(self) -> None:
        """The whole cell, its joins in the middle."""
        self.zoom, self.middle, self.spot = 1.0, None, None
        self.update()
