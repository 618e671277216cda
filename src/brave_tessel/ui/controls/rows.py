"""Rows of a list: hatch key, picture, name, a note, and an eye; reordered by dragging."""

from __future__ import annotations

from collections.abc import Collection, Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from PyQt6.QtCore import QEvent, QItemSelectionModel, QMimeData, QModelIndex, QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QDragEnterEvent,
    QDragMoveEvent,
    QDropEvent,
    QFocusEvent,
    QFontMetricsF,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPen,
    QPixmap,
)
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
)

from .. import theme
from ..words import tr
from .hatch import paint_key

_ROW = Qt.ItemDataRole.UserRole + 1


@dataclass(slots=True)
class Row:
    """What one row shows. ``shown`` None has no eye; ``severity`` colours the note."""

    id: str
    title: str
    note: str = ""
    hatch: str = ""
    picture: QPixmap | None = None
    shown: bool | None = None
    severity: str = ""
    indent: int = 0
    locked: bool = False
    heading: bool = False


class _RowPainter(QStyledItemDelegate):
    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        row: Row = index.data(_ROW)
        tall = 30 if row.heading else 54 if (row.picture is not None or row.hatch) else 40 if row.note else 30
        return QSize(theme.px(100), theme.px(tall))

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex) -> None:
        if painter is None:
            return
        row: Row = index.data(_ROW)
        rect = QRectF(option.rect).adjusted(theme.px(4), 1, -theme.px(4), -1)
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if option.state & QStyle.StateFlag.State_Selected and not row.heading:
            painter.setBrush(theme.colour("wash"))
            painter.setPen(QPen(theme.colour("verdigris"), 1))
            painter.drawRoundedRect(rect.adjusted(0.5, 0.5, -0.5, -0.5), 3, 3)
        left = rect.left() + theme.px(8) + theme.px(12) * row.indent
        left = self._pictures(painter, row, rect, left)
        right = rect.right() - theme.px(8)
        if row.shown is not None:
            side = theme.px(15)
            icon = theme.tinted("eye" if row.shown else "eye-off", "ink_2" if row.shown else "ink_3", 15)
            icon.paint(painter, int(right - side), int(rect.center().y() - side / 2), side, side)
            right -= side + theme.px(6)
        if row.locked:
            side = theme.px(13)
            theme.tinted("lock", "ink_2", 13).paint(
                painter, int(right - side), int(rect.center().y() - side / 2), side, side
            )
            right -= side + theme.px(5)
        self._words(painter, row, rect, left, right, bool(option.state & QStyle.StateFlag.State_Selected))
        painter.restore()

    def _pictures(self, painter: QPainter, row: Row, rect: QRectF, left: float) -> float:
        side = theme.px(40)
        top = rect.center().y() - side / 2
        if row.hatch:
            width = theme.px(13)
            paint_key(painter, QRectF(round(left) + 0.5, round(top) + 0.5, width, side), row.hatch)
            left += width + theme.px(6)
        if row.picture is not None:
            target = QRectF(round(left), round(top), side, side)
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            painter.drawPixmap(target, row.picture, QRectF(row.picture.rect()))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(theme.colour("line"), 1))
            painter.drawRect(target.adjusted(0.5, 0.5, -0.5, -0.5))
            left += side
        return left + (theme.px(9) if row.hatch or row.picture is not None else 0)

    def _words(self, painter: QPainter, row: Row, rect: QRectF, left: float, right: float, selected: bool) -> None:
        width = right - left
        title_font = theme.font(12, weight=600 if selected or row.heading else 400)
        note_font = theme.font(11)
        title = QFontMetricsF(title_font).elidedText(row.title, Qt.TextElideMode.ElideRight, width)
        painter.setFont(title_font)
        painter.setPen(theme.colour("ink_2" if row.shown is False else "ink"))
        if not row.note:
            painter.drawText(QRectF(left, rect.top(), width, rect.height()), Qt.AlignmentFlag.AlignVCenter, title)
            return
        middle = rect.center().y()
        painter.drawText(QPointF(left, middle - theme.px(3)), title)
        painter.setFont(note_font)
        painter.setPen(theme.colour({"fault": "oxide", "caution": "ochre"}.get(row.severity, "ink_2")))
        note = QFontMetricsF(note_font).elidedText(row.note, Qt.TextElideMode.ElideRight, width)
        painter.drawText(QPointF(left, middle + theme.px(13)), note)

    def editorEvent(
        self, event: QEvent | None, model: object, option: QStyleOptionViewItem, index: QModelIndex
    ) -> bool:
        row: Row = index.data(_ROW)
        if row.shown is None or not isinstance(event, QMouseEvent) or event.button() != Qt.MouseButton.LeftButton:
            return False
        if event.position().x() <= option.rect.right() - theme.px(34):
            return False
        view = self.parent()
        if event.type() == QEvent.Type.MouseButtonRelease and isinstance(view, RowList):
            view.eye_clicked.emit(row.id, not row.shown)
        return True


class NameField(QLineEdit):
    """A name being typed over its row. Enter and Esc end here and reach no one else."""

    ended = pyqtSignal(bool)
    """Whether the name is to be taken."""

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event and event.key() in {Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Escape}:
            event.accept()
            self.ended.emit(event.key() != Qt.Key.Key_Escape)
        else:
            super().keyPressEvent(event)

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        super().focusOutEvent(event)
        self.ended.emit(True)


class RowList(QListWidget):
    """A list of rows. Sends intents and shows what it is given; it never changes by itself."""

    chosen = pyqtSignal(str)
    opened = pyqtSignal(str)
    eye_clicked = pyqtSignal(str, bool)
    moved = pyqtSignal(str, int)
    deleted = pyqtSignal(str)
    dropped = pyqtSignal(str, str)
    renamed = pyqtSignal(str, str)
    picked = pyqtSignal(object)
    brought = pyqtSignal(str, str, str)

    def __init__(self, name: str, *, reorder: bool = False, several: bool = False, takes: str = "") -> None:
        """``takes`` is a kind of dragged data that may be dropped between the rows: ``brought`` tells what, at which
        row, and whether above, below or into it.
        """
        super().__init__()
        self.takes = takes
        self.setAccessibleName(name)
        self.setItemDelegate(_RowPainter(self))
        self.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.nests: set[str] = set()
        self.name_field: NameField | None = None
        self._several, self._in_gesture = several, False
        if several:
            self.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
            self.itemSelectionChanged.connect(self._selection_moved)
        if reorder:
            self.setDragDropMode(
                QAbstractItemView.DragDropMode.DragDrop if takes else QAbstractItemView.DragDropMode.InternalMove
            )
            self.setDefaultDropAction(Qt.DropAction.MoveAction)
        self._rows: list[Row] = []
        self._showing = False
        self.currentItemChanged.connect(self._current_changed)
        self.itemDoubleClicked.connect(lambda item: self.opened.emit(item.data(_ROW).id))
        model = self.model()
        if model and reorder:
            model.rowsMoved.connect(self._rows_moved)

    def show_rows(self, rows: list[Row], chosen: str, also: Collection[str] = ()) -> None:
        """Show rows and which is chosen, with what is chosen beside it; sends nothing."""
        # The model's own signals stay on: a view whose model changes in silence holds on to what is gone.
        self._showing = True
        changed = [row.id for row in rows] != self._shown_ids()
        if changed:
            self._end_naming(True)
            self._change_rows(rows)
        before = {row.id: row for row in self._rows}
        for index, row in enumerate(rows):
            item = self.item(index)
            if item is None:
                continue
            if row == before.get(row.id) and item.data(_ROW) is before[row.id]:
                row = rows[index] = before[row.id]
                self._choose(item, row, chosen)
                continue
            changed = True
            item.setData(_ROW, row)
            item.setText("")
            item.setData(Qt.ItemDataRole.AccessibleTextRole, f"{row.title}, {row.note}")
            # What does not fit the row is read here.
            item.setToolTip(f"{row.title}\n{row.note}" if row.note else "")
            if row.heading:
                item.setFlags(Qt.ItemFlag.NoItemFlags)
            self._choose(item, row, chosen)
        if self._several and chosen in also and len(also) > 1:
            self._select(also)
        self._rows = rows
        self._showing = False
        if changed:
            self.scheduleDelayedItemsLayout()
            self.viewport().update()  # type: ignore[union-attr]

    def _choose(self, item: QListWidgetItem, row: Row, chosen: str) -> None:
        if row.id == chosen and not (self.currentItem() is item and item.isSelected()):
            # By itself a list of several keeps what was chosen beside it.
            self.setCurrentItem(item, QItemSelectionModel.SelectionFlag.ClearAndSelect)

    def _shown_ids(self) -> list[str]:
        return [item.data(_ROW).id for i in range(self.count()) if (item := self.item(i)) is not None]

    def _change_rows(self, rows: list[Row]) -> None:
        """Take out, put in and move single rows, so that the others stay as they are."""
        wanted = {row.id for row in rows}
        for index in range(self.count() - 1, -1, -1):
            if self._shown_ids()[index] not in wanted:
                self.takeItem(index)
        for index, row in enumerate(rows):
            there = self._shown_ids()
            if index < len(there) and there[index] == row.id:
                continue
            item = self.takeItem(there.index(row.id, index)) if row.id in there[index:] else QListWidgetItem()
            if item is not None:
                item.setData(_ROW, row)
                self.insertItem(index, item)
        while self.count() > len(rows):
            self.takeItem(self.count() - 1)

    def _select(self, ids: Collection[str]) -> None:
        for index, row in enumerate(self._shown_ids()):
            item = self.item(index)
            if item is not None and item.isSelected() != (row in ids):
                item.setSelected(row in ids)

    @property
    def rows(self) -> list[Row]:
        return self._rows

    def _current_changed(self, item: QListWidgetItem | None, _before: QListWidgetItem | None) -> None:
        if item is not None and not self._showing and not self._in_gesture:
            self.chosen.emit(item.data(_ROW).id)

    @contextmanager
    def _gesture(self) -> Iterator[None]:
        """A press or a key: what it chose is told once it is over, so that nothing is shown anew in its middle."""
        before = self.selected_ids(), self.currentItem()
        self._in_gesture = self._several
        try:
            yield
        finally:
            self._in_gesture = False
        ids, current = self.selected_ids(), self.currentItem()
        if not self._several or (ids, current) == before:
            return
        if current is not None and not ids:
            # The last one let go stays chosen: there is always one.
            current.setSelected(True)
            ids = self.selected_ids()
        if current is None or not ids:
            return
        if current.data(_ROW).id not in ids:
            index = self._shown_ids().index(ids[-1])
            self.setCurrentRow(index, QItemSelectionModel.SelectionFlag.NoUpdate)
            current = self.currentItem()
        assert current is not None
        self.chosen.emit(current.data(_ROW).id)
        self._select(ids)
        self.picked.emit(ids)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        with self._gesture():
            super().mousePressEvent(event)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        with self._gesture():
            super().mouseReleaseEvent(event)

    def _rows_moved(self, _parent: QModelIndex, start: int, _end: int, _to: QModelIndex, row: int) -> None:
        if self._showing:
            return
        moved = self._rows[start].id
        self.moved.emit(moved, row if row < start else row - 1)

    def rename_in_place(self, id: str) -> None:
        """A line over the row's name; Enter or leaving it renames, Esc leaves the name."""
        index = next((n for n, row in enumerate(self._rows) if row.id == id), -1)
        item = self.item(index)
        if item is None:
            return
        self._end_naming(True)
        box, row = self.visualItemRect(item), self._rows[index]
        left = theme.px(76 + 12 * row.indent) if row.hatch else theme.px(60)
        field = NameField(row.title, self.viewport())
        field.setAccessibleName(tr("Name"))
        field.setGeometry(
            left, box.center().y() - theme.px(19), max(theme.px(60), box.width() - left - theme.px(32)), theme.px(24)
        )
        field.selectAll()
        field.ended.connect(lambda take: self._renamed(field, id, row.title, take))
        field.show()
        field.setFocus()
        self.name_field = field

    def _end_naming(self, take: bool) -> None:
        if self.name_field is not None:
            self.name_field.ended.emit(take)

    def _renamed(self, field: NameField, id: str, before: str, take: bool) -> None:
        if self.name_field is not field:
            return
        self.name_field = None
        name = field.text().strip()
        with_focus = field.hasFocus()
        field.hide()
        field.deleteLater()
        if with_focus:
            self.setFocus()
        if take and name and name != before:
            self.renamed.emit(id, name)

    def selected_ids(self) -> list[str]:
        """Ids of all chosen rows, in the order of the list."""
        return [
            row.id
            for index, row in enumerate(self._rows)
            if (item := self.item(index)) is not None and item.isSelected()
        ]

    def _selection_moved(self) -> None:
        if not self._showing and not self._in_gesture:
            self.picked.emit(self.selected_ids())

    def _brings(self, event: QDropEvent | None) -> str:
        """What of the kind that is taken an event brings from elsewhere."""
        mime = event.mimeData() if event else None
        return (
            bytes(mime.data(self.takes).data()).decode() if mime and self.takes and mime.hasFormat(self.takes) else ""
        )

    def mimeData(self, _items: object) -> QMimeData:
        """Rows are moved within their own list, so they carry nothing; what a row shows could not be written down."""
        mime = QMimeData()
        mime.setData("application/x-qabstractitemmodeldatalist", b"")
        return mime

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        if event and (self._brings(event) or event.source() is self):
            super().dragEnterEvent(event)
            event.acceptProposedAction()

    def dragMoveEvent(self, event: QDragMoveEvent | None) -> None:
        if event and self._brings(event):
            # The view draws the line where the drop would go only for its own rows.
            super().dragMoveEvent(event)
            event.acceptProposedAction()
        elif event and event.source() is self:
            super().dragMoveEvent(event)

    def _place_of(self, event: QDropEvent) -> tuple[str, str]:
        """The row under a drop, and whether it goes above, below or into it; below the last where no row is."""
        item = self.itemAt(event.position().toPoint())
        if item is None:
            return (self._rows[-1].id, "below") if self._rows else ("", "above")
        box, id = self.visualItemRect(item), item.data(_ROW).id
        share = (event.position().y() - box.top()) / max(box.height(), 1)
        return id, "into" if id in self.nests and 0.25 < share < 0.75 else "above" if share < 0.5 else "below"

    def dropEvent(self, event: QDropEvent | None) -> None:
        """A row dropped on one that others nest in goes into it; otherwise the rows change places."""
        if event is None:
            return
        brings = self._brings(event)
        if brings:
            event.acceptProposedAction()
            self.brought.emit(brings, *self._place_of(event))
            return
        if not self.nests or self.itemAt(event.position().toPoint()) is None or self.currentItem() is None:
            super().dropEvent(event)
            return
        event.setDropAction(Qt.DropAction.IgnoreAction)
        event.accept()
        self.dropped.emit(*self._place_of(event))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        item = self.currentItem()
        if event and item and event.key() in {Qt.Key.Key_Delete, Qt.Key.Key_Backspace}:
            self.deleted.emit(item.data(_ROW).id)
        elif event and item and event.key() in {Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_F2}:
            self.opened.emit(item.data(_ROW).id)
        else:
            with self._gesture():
                super().keyPressEvent(event)
