"""Sets found: what a tree of folders holds, to choose from, to put right and to size together before it is read."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QDropEvent
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QComboBox,
    QDialog,
    QHBoxLayout,
    QHeaderView,
    QLineEdit,
    QTreeWidget,
    QTreeWidgetItem,
    QVBoxLayout,
    QWidget,
)

from ....core.errors import TesselError
from ....core.gather.names import UNKNOWN
from ....core.gather.roles import ROLES
from ....core.quantity import format_size, parse_size
from ....engine.gather.trees import Proposed, Tree
from ....engine.wording import sentence
from ... import theme
from ...controls.panels import button, words
from ...words import tr, tr_count

_SET = Qt.ItemDataRole.UserRole
_CHECKED = Qt.CheckState.Checked


class SetsTree(QTreeWidget):
    """Sets with their files; files are dragged from one to another, and a set onto a set joins them."""

    def __init__(self, moved: Callable[[list[QTreeWidgetItem], QTreeWidgetItem], None]) -> None:
        super().__init__()
        self.moved = moved
        self.setHeaderLabels([tr("Set or file"), tr("Maps"), tr("Folder")])
        self.setAccessibleName(tr("Sets found"))
        self.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.setDragDropMode(QAbstractItemView.DragDropMode.InternalMove)
        self.setUniformRowHeights(True)
        header = self.header()
        assert header is not None
        header.setSectionResizeMode(0, QHeaderView.ResizeMode.Interactive)
        header.resizeSection(0, theme.px(300))
        header.resizeSection(1, theme.px(320))

    def dropEvent(self, event: QDropEvent | None) -> None:
        if event is None:
            return
        over = self.itemAt(event.position().toPoint())
        event.setDropAction(Qt.DropAction.IgnoreAction)
        event.accept()
        if over is not None:
            self.moved(self.selectedItems(), over.parent() or over)


class SetsDialog(QDialog):
    """``take`` gets the sets that were ticked, as they were put right."""

    def __init__(self, parent: QWidget, tree: Tree, take: Callable[[list[Proposed]], None]) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("Sets found"))
        self.resize(theme.px(900), theme.px(600))
        self.take = take
        self.sets: dict[int, Proposed] = dict(enumerate(tree.proposed))
        self.tree_read = tree
        self.about = words("")
        self.about.setToolTip("\n".join(path.name for path in tree.skipped[:40]))
        self.search = QLineEdit()
        self.search.setPlaceholderText(tr("Find a set"))
        self.search.setAccessibleName(tr("Find a set"))
        self.search.textChanged.connect(self._find)
        self.tree = SetsTree(self.move_onto)
        self.role = QComboBox()
        self.role.setAccessibleName(tr("Role of the chosen files"))
        self.role.addItem(tr("Role of the chosen files…"), "")
        for role in ROLES:
            self.role.addItem(tr(role.replace("_", " ")), role)
        self.role.activated.connect(self._set_role)
        self.size_field = QLineEdit()
        self.size_field.setPlaceholderText(tr("Real size, as in 2 m x 2 m"))
        self.size_field.setAccessibleName(tr("Real size of the chosen sets"))
        self.size_field.returnPressed.connect(self.set_size)
        self.state = words("")
        self.gather = button("", self.finish, name="main")
        self._lay_out()
        self.tree.itemExpanded.connect(self._fill)
        self.tree.itemChanged.connect(self._changed)
        self.show_sets()

    def _lay_out(self) -> None:
        column = QVBoxLayout(self)
        for part in (self.about, self.search):
            column.addWidget(part)
        column.addWidget(self.tree, 1)
        row = QHBoxLayout()
        row.addWidget(self.role)
        row.addWidget(self.size_field, 1)
        row.addWidget(button(tr("Size them"), self.set_size))
        column.addLayout(row)
        column.addWidget(self.state)
        ends = QHBoxLayout()
        ends.addWidget(button(tr("Tick all"), lambda: self.tick(on=True)))
        ends.addWidget(button(tr("Tick none"), lambda: self.tick(on=False)))
        ends.addStretch(1)
        ends.addWidget(button(tr("Close"), self.reject))
        ends.addWidget(self.gather)
        column.addLayout(ends)

    # Showing -------------------------------------------------------------------------------------

    def show_sets(self) -> None:
        """Every set as a row; its files come when it is opened."""
        self.tree.blockSignals(True)
        self.tree.clear()
        self.tree.addTopLevelItems([self._row(number) for number in self.sets])
        self.tree.blockSignals(False)
        self._count()

    def _row(self, number: int) -> QTreeWidgetItem:
        item = QTreeWidgetItem()
        item.setFlags(item.flags() | Qt.ItemFlag.ItemIsUserCheckable | Qt.ItemFlag.ItemIsEditable)
        item.setData(0, _SET, number)
        item.setCheckState(0, _CHECKED)
        if self.sets[number].measured is None:
            item.setChildIndicatorPolicy(QTreeWidgetItem.ChildIndicatorPolicy.ShowIndicator)
        self._tell(item)
        return item

    def _tell(self, item: QTreeWidgetItem) -> None:
        """What a set's row says."""
        one = self.sets[item.data(0, _SET)]
        size = f" · {format_size(*one.size_mm)}" if one.size_mm else ""
        item.setText(0, one.name)
        item.setText(1, self.told_of(one) + size)
        item.setText(2, f"{one.folder.parent.name}/{one.folder.name}")
        item.setToolTip(2, str(one.folder))

    def told_of(self, one: Proposed) -> str:
        """What a set holds, in words."""
        if one.measured is not None:
            return tr("frames of a light rig") if one.measured.is_dir() else tr("scanned mesh")
        roles = self.roles_of(one)
        if roles == [UNKNOWN]:
            return tr("one picture")
        return ", ".join(tr("unsure") if role == UNKNOWN else tr(role.replace("_", " ")) for role in roles)

    @staticmethod
    def roles_of(one: Proposed) -> list[str]:
        """Roles of all its files, those of single channels too."""
        found: list[str] = []
        for member in one.named.members:
            several = [role for _, role in member.reading.channels]
            found += several if len(several) > 1 and member.name not in one.by_hand else [one.role_of(member)]
        return found

    def _fill(self, item: QTreeWidgetItem) -> None:
        """The files of a set that is opened."""
        one = self.sets[item.data(0, _SET)]
        self.tree.blockSignals(True)
        item.takeChildren()
        for member in one.named.members:
            role = one.role_of(member)
            several = [role for _, role in member.reading.channels]
            told = ", ".join(tr(word.replace("_", " ")) for word in (several if len(several) > 1 else [role]))
            note = tr("by its pixels, when it is read") if role == UNKNOWN else told
            if member.copies:
                note += " · " + tr("{count} copies left aside", count=len(member.copies))
            child = QTreeWidgetItem([member.name, note, ""])
            child.setData(0, _SET, member.name)
            child.setToolTip(0, "\n".join((member.name, *member.copies)))
            item.addChild(child)
        self.tree.blockSignals(False)

    def _changed(self, item: QTreeWidgetItem, column: int) -> None:
        if item.parent() is None and column == 0:
            number = item.data(0, _SET)
            if item.text(0).strip() and item.text(0) != self.sets[number].name:
                self.sets[number] = replace(self.sets[number], title=item.text(0).strip())
            self._count()

    def _find(self, text: str) -> None:
        wanted = text.strip().lower()
        for item in self.rows():
            one = self.sets[item.data(0, _SET)]
            item.setHidden(bool(wanted) and wanted not in f"{one.name} {one.folder}".lower())
        self._count()

    def rows(self) -> list[QTreeWidgetItem]:
        """The rows of all sets."""
        found = (self.tree.topLevelItem(k) for k in range(self.tree.topLevelItemCount()))
        return [item for item in found if item is not None]

    def _count(self) -> None:
        count = len(self.ticked())
        self.gather.setText(tr("Gather {count} sets", count=count))
        self.gather.setEnabled(count > 0)
        told = tr("{sets} sets in {files} files.", sets=len(self.rows()), files=self.tree_read.count)
        if self.tree_read.skipped:
            one, many = "One file is no picture this program reads.", "{n} files are no pictures this program reads."
            told += " " + tr_count(len(self.tree_read.skipped), one, many)
        self.about.setText(told)

    # Acts ----------------------------------------------------------------------------------------

    def ticked(self) -> list[Proposed]:
        """The sets that are ticked and shown."""
        return [
            self.sets[item.data(0, _SET)]
            for item in self.rows()
            if item.checkState(0) == _CHECKED and not item.isHidden()
        ]

    def tick(self, *, on: bool) -> None:
        """Tick all that are shown, or none."""
        self.tree.blockSignals(True)
        for item in self.rows():
            if not item.isHidden():
                item.setCheckState(0, _CHECKED if on else Qt.CheckState.Unchecked)
        self.tree.blockSignals(False)
        self._count()

    def _set_role(self) -> None:
        role = self.role.currentData()
        self.role.setCurrentIndex(0)
        files = [item for item in self.tree.selectedItems() if item.parent() is not None]
        if not role or not files:
            self.state.setText("" if files else tr("Open a set and choose files of it first."))
            return
        for child in files:
            item = child.parent()
            assert item is not None
            number = item.data(0, _SET)
            self.sets[number] = self.sets[number].with_role(child.data(0, _SET), role)
            child.setText(1, tr(role.replace("_", " ")))
            self._tell(item)

    def set_size(self) -> None:
        """The typed size for the chosen sets, or for all ticked ones where none is chosen."""
        try:
            size = parse_size(self.size_field.text())
        except TesselError as error:
            self.state.setText(tr(sentence(error)))
            return
        chosen = [item for item in self.tree.selectedItems() if item.parent() is None]
        items = chosen or [item for item in self.rows() if item.checkState(0) == _CHECKED]
        # What is measured from brings its own.
        items = [item for item in items if self.sets[item.data(0, _SET)].measured is None]
        self.tree.blockSignals(True)
        for item in items:
            number = item.data(0, _SET)
            self.sets[number] = replace(self.sets[number], size_mm=size)
            self._tell(item)
        self.tree.blockSignals(False)
        self.state.setText(tr("{count} sets are {size} now.", count=len(items), size=format_size(*size)))

    def move_onto(self, items: list[QTreeWidgetItem], onto: QTreeWidgetItem) -> None:
        """Files, or whole sets, become part of another set; what is measured from stays by itself."""
        target = onto.data(0, _SET)
        if self.sets[target].measured:
            return
        gone: list[QTreeWidgetItem] = []
        touched = {id(onto): onto}
        for item in items:
            home = item.parent()
            number = (home or item).data(0, _SET)
            if number == target or self.sets[number].measured:
                continue
            names = None if home is None else frozenset([item.data(0, _SET)])
            self.sets[target] = self.sets[target].joined(self.sets[number], names)
            self.sets[number] = self.sets[number].without(
                frozenset(member.name for member in self.sets[number].named.members) if names is None else names
            )
            touched[id(home or item)] = home or item
        for item in touched.values():
            if self.sets[item.data(0, _SET)].named.members:
                self._tell(item)
                if item.isExpanded():
                    self._fill(item)
            else:
                gone.append(item)
        for item in gone:
            self.sets.pop(item.data(0, _SET))
            self.tree.takeTopLevelItem(self.tree.indexOfTopLevelItem(item))
        self._count()

    def finish(self) -> None:
        """Gather what is ticked."""
        chosen = self.ticked()
        self.accept()
        self.take(chosen)
