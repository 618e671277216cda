"""The middle of an open recipe: a line to add steps by typing, the rows, the surface lit and the chosen step large."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QObject, QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPalette, QPen, QPixmap, QWheelEvent
from PyQt6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QScrollArea,
    QSplitter,
    QVBoxLayout,
    QWidget,
)

from .....core.job.layers import Recipe
from .....core.operation import Operation
from .....core.recipe.edit import search
from .....engine.pictures.results import RecipePicture
from .... import theme
from ....board import tile, to_image, to_pixmaps
from ....words import tr
from ...stage import caption
from .rows import StepRows


class Pair(QWidget):
    """The surface and the chosen step; the wheel comes closer, dragging moves both, the step may be held against
    another.
    """

    light_turned = pyqtSignal(float, float)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(tr("The surface lit, and the chosen step"))
        self.setMinimumWidth(theme.px(200))
        self.surface: list[QPixmap] = []
        self.step: list[QPixmap] = []
        self.other: list[QPixmap] = []
        self.names = ("", "", "")
        self.shape = (1.0, 1.0)
        self.zoom = 1.0
        self.middle = QPointF(0.5, 0.5)
        self.wipe = 0.5
        self._last: QPointF | None = None

    def show_picture(self, done: RecipePicture) -> None:
        self.surface = to_pixmaps(done.surface_mips)
        self.step = to_pixmaps(done.step_mips)
        self.names = (done.step, done.span, self.names[2])
        self.shape = (done.grid.width_mm, done.grid.height_mm)
        self.update()

    def hold_against(self) -> None:
        """Keep the step shown now; the next one chosen is wiped against it. Again lets it go."""
        self.other, held = ([], "") if self.other else (self.step, self.names[0])
        self.names = (*self.names[:2], held)
        self.update()

    def boxes(self) -> tuple[QRectF, QRectF]:
        gap, head = theme.px(12), theme.px(26)
        side_w, side_h = self.width() - 2 * gap, (self.height() - 2 * head - gap) / 2
        scale = min(side_w / self.shape[0], side_h / self.shape[1])
        width, height = self.shape[0] * scale, self.shape[1] * scale
        left = (self.width() - width) / 2
        return QRectF(left, head, width, height), QRectF(left, 2 * head + height, width, height)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), theme.colour("board"))
        upper, lower = self.boxes()
        against = tr(", against “{names}”", names=self.names[2]) if self.other else ""
        for box, mips, title, note in (
            (upper, self.surface, tr("Surface, lit"), ""),
            (
                lower,
                self.step,
                tr("Step “{names}”", names=self.names[0]) if self.names[0] else tr("No step"),
                self.names[1] + against,
            ),
        ):
            caption(painter, QRectF(box.left(), box.top() - theme.px(24), box.width(), theme.px(22)), title, note)
            self._paint(painter, box, mips)
        if self.other:
            edge = lower.left() + lower.width() * self.wipe
            painter.save()
            painter.setClipRect(QRectF(lower.left(), lower.top(), edge - lower.left(), lower.height()))
            self._paint(painter, lower, self.other)
            painter.restore()
            painter.setPen(QPen(theme.colour("white"), 2))
            painter.drawLine(QPointF(edge, lower.top()), QPointF(edge, lower.bottom()))

    def _paint(self, painter: QPainter, box: QRectF, mips: list[QPixmap]) -> None:
        if mips:
            width, height = box.width() * self.zoom, box.height() * self.zoom
            one = QRectF(
                box.center().x() - self.middle.x() * width, box.center().y() - self.middle.y() * height, width, height
            )
            tile(painter, mips, box, one)
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(box)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is not None:
            self.zoom = min(32.0, max(0.25, self.zoom * 1.0015 ** event.angleDelta().y()))
            self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self._last = event.position() if event else None

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._last is None:
            return
        moved, lower = event.position() - self._last, self.boxes()[1]
        self._last = event.position()
        if event.buttons() & Qt.MouseButton.RightButton:
            self.light_turned.emit(moved.x(), moved.y())
        elif self.other and lower.contains(event.position()):
            self.wipe = min(1.0, max(0.0, (event.position().x() - lower.left()) / lower.width()))
        else:
            self.middle -= QPointF(moved.x() / (lower.width() * self.zoom), moved.y() / (lower.height() * self.zoom))
        self.update()

    def fit(self) -> None:
        self.zoom, self.middle = 1.0, QPointF(0.5, 0.5)
        self.update()


class RecipeBoard(QWidget):
    """Rows at the left, pictures at the right."""

    op_taken = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        split = QSplitter(Qt.Orientation.Horizontal)
        split.setHandleWidth(1)
        split.setChildrenCollapsible(False)
        self.rows, self.pair = StepRows(), Pair()
        self.recipe, self.selected = Recipe(), ""
        split.addWidget(self._make_sheet())
        split.addWidget(self.pair)
        split.setSizes([theme.px(436), theme.px(316)])
        split.setStretchFactor(1, 1)
        row.addWidget(split)

    def _make_sheet(self) -> QWidget:
        sheet = QWidget()
        sheet.setObjectName("panel")
        sheet.setMinimumWidth(theme.px(380))
        column = QVBoxLayout(sheet)
        column.setContentsMargins(0, theme.px(8), 0, 0)
        column.setSpacing(theme.px(4))
        self.line = QLineEdit()
        self.line.setPlaceholderText(tr("Add a step: type what you need, such as cracks or blur"))
        self.line.setAccessibleName(tr("Add a step"))
        self.line.installEventFilter(self)
        self.line.textChanged.connect(self._search)
        self.found = QListWidget()
        self.found.setAccessibleName(tr("Operations found"))
        self.found.itemClicked.connect(lambda item: self._take(item))
        self.found.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.found.setTextElideMode(Qt.TextElideMode.ElideRight)
        t = theme.tokens()
        self.found.setStyleSheet(
            f"QListWidget {{ background: {t.white}; border: 1px solid {t.line}; }} "
            f"QListWidget::item {{ padding: {theme.px(2)}px {theme.px(12)}px; color: {t.ink}; }}"
            f"QListWidget::item:selected {{ background: {t.wash}; color: {t.ink}; }}"
        )
        self.found.hide()
        head = QLabel(tr("Step · made from · look · ms at preview size"))
        head.setObjectName("note")
        self.scroller = QScrollArea()
        self.scroller.setWidgetResizable(True)
        self.scroller.setFrameShape(QFrame.Shape.NoFrame)
        self.scroller.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        holder = QWidget()
        palette = holder.palette()
        palette.setColor(QPalette.ColorRole.Window, theme.colour("chalk"))
        holder.setPalette(palette)
        holder.setAutoFillBackground(True)
        inner = QVBoxLayout(holder)
        inner.setContentsMargins(0, 0, 0, 0)
        inner.addWidget(self.rows)
        inner.addStretch(1)
        self.scroller.setWidget(holder)
        margin = QHBoxLayout()
        margin.setContentsMargins(theme.px(12), 0, theme.px(12), 0)
        margin.addWidget(self.line)
        note = QHBoxLayout()
        note.setContentsMargins(theme.px(14), 0, theme.px(12), 0)
        note.addWidget(head)
        column.addLayout(margin)
        column.addWidget(self.found)
        column.addLayout(note)
        column.addWidget(self.scroller, 1)
        return sheet

    def show_recipe(self, recipe: Recipe, selected: str) -> None:
        self.recipe, self.selected = recipe, selected
        self.rows.show_recipe(recipe, selected)

    def show_picture(self, done: RecipePicture, faults: dict[str, str]) -> None:
        self.rows.show_looks(
            {name: QPixmap.fromImage(to_image(codes)) for name, codes in done.looks.items()}, done.costs, faults
        )
        self.pair.show_picture(done)

    def reveal(self, name: str) -> None:
        box = self.rows.row_of(name)
        if not box.isEmpty():
            self.scroller.ensureVisible(10, int(box.center().y()), 0, int(box.height()))

    # Adding by typing --------------------------------------------------------------------------------

    def _search(self, text: str) -> None:
        self.found.clear()
        for operation in search(text, self.recipe, self.selected)[:24] if text.strip() else []:
            self._offer(operation)
        count = self.found.count()
        self.found.setVisible(count > 0)
        if count:
            self.found.setFixedHeight(min(theme.px(168), count * self.found.sizeHintForRow(0) + 2))
        self.found.setCurrentRow(0)

    def _offer(self, operation: Operation) -> None:
        item = QListWidgetItem(f"{tr(operation.label)}   {tr(operation.summary)}")
        item.setData(Qt.ItemDataRole.UserRole, operation.id)
        self.found.addItem(item)

    def _take(self, item: QListWidgetItem | None) -> None:
        if item is not None:
            # Clearing the line empties the list, and the item goes with it.
            op = item.data(Qt.ItemDataRole.UserRole)
            self.line.clear()
            self.op_taken.emit(op)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if (
            watched is not self.line
            or not isinstance(event, QKeyEvent)
            or event.type() != QEvent.Type.KeyPress
            or not self.found.isVisible()
        ):
            return False
        by = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()), 0)
        if by:
            self.found.setCurrentRow(min(max(self.found.currentRow() + by, 0), self.found.count() - 1))
        elif event.key() in {Qt.Key.Key_Return, Qt.Key.Key_Enter}:
            self._take(self.found.currentItem())
        elif event.key() == Qt.Key.Key_Escape:
            self.line.clear()
        else:
            return False
        return True
