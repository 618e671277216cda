"""The parts of the scene as a tree: fold, rename, show, lock, and drag into another place."""

from __future__ import annotations

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent

from ....core.job.document import Job
from ....core.job.scene import Part
from ...controls.rows import Row, RowList
from ...words import tr


class PartTree(RowList):
    """Groups hold what lies in them; a click on a group's mark folds it."""

    asked_menu = pyqtSignal(object)

    def __init__(self) -> None:
        super().__init__(tr("Parts"), reorder=True, several=True)
        self.folded: set[str] = set()
        self._job: Job | None = None
        self._chosen = ""
        self.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.customContextMenuRequested.connect(lambda at: self.asked_menu.emit(at))
        self.opened.connect(self._fold)

    def show_job(self, job: Job, chosen: str) -> None:
        """Show the tree of a job, and which part is chosen: what it lies in is unfolded."""
        self._job, self._chosen = job, chosen
        scene = job.scene
        part = scene.part(chosen)
        while part is not None and part.parent:
            self.folded.discard(part.parent)
            part = scene.part(part.parent) if part.parent != part.id else None
        self.nests = {part.id for part in scene.parts if part.group}
        names = {surface.id: surface.name for surface in job.surfaces}
        rows: list[Row] = []
        known = {part.id for part in scene.parts}
        for root in (part for part in scene.parts if part.parent not in known):
            self._add(rows, job, root, 0, names, set())
        self.show_rows(rows, chosen)

    def _add(self, rows: list[Row], job: Job, part: Part, depth: int, names: dict[str, str], seen: set[str]) -> None:
        if part.id in seen:
            return
        seen.add(part.id)
        mark = ("▸ " if part.id in self.folded else "▾ ") if part.group else ""
        note = self._note(job, part, names)
        rows.append(Row(part.id, f"{mark}{part.name}", note, shown=not part.hidden, indent=depth, locked=part.locked))
        if part.group and part.id in self.folded:
            return
        for child in job.scene.children(part.id):
            self._add(rows, job, child, depth + 1, names, seen)

    def _note(self, job: Job, part: Part, names: dict[str, str]) -> str:
        """What lies on a part and how, in words."""
        if part.group:
            count = len(job.scene.within(part.id)) - 1
            return tr("{count} parts", count=count) if count else tr("empty")
        hidden = tr("hidden · ") if part.hidden else ""
        if part.piece is not None and not part.piece.known:
            return hidden + tr("unknown piece {op}", op=part.piece.op)
        if not part.laid:
            return hidden + tr("bare")
        first = part.laid[-1]
        told = names.get(first.surface, tr("unknown surface") if first.surface else tr("bare"))
        how = tr(first.laying.operation.label).lower()
        more = tr(" +{count}", count=len(part.laid) - 1) if len(part.laid) > 1 else ""
        return f"{hidden}{told}, {how}{more}"

    def _fold(self, id: str) -> None:
        if id in self.nests and self._job is not None:
            self.folded ^= {id}
            self.show_job(self._job, self._chosen)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        item = self.itemAt(event.position().toPoint()) if event else None
        if event and item is not None and event.button() == Qt.MouseButton.LeftButton:
            row = self.rows[self.row(item)]
            left = self.visualItemRect(item).left() + self.fontMetrics().averageCharWidth() * 2 * (row.indent + 2)
            if row.id in self.nests and event.position().x() < left + 6:
                self._fold(row.id)
                return
        super().mousePressEvent(event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """F2 renames; left and right fold and unfold a group."""
        item = self.currentItem()
        if event is not None and item is not None:
            id = self.rows[self.row(item)].id
            if event.key() == Qt.Key.Key_F2:
                self.rename(id)
                return
            folds = {Qt.Key.Key_Left: id not in self.folded, Qt.Key.Key_Right: id in self.folded}
            if id in self.nests and folds.get(Qt.Key(event.key()), False):
                self._fold(id)
                return
        super().keyPressEvent(event)

    def rename(self, id: str) -> None:
        """Type another name in the row."""
        self.rename_in_place(id)
        part = self._job.scene.part(id) if self._job else None
        if part is not None and self.name_field is not None:
            self.name_field.setText(part.name)
            self.name_field.selectAll()
