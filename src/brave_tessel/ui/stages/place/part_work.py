"""What is done with parts of the scene from the tree, the menu and keys."""

from __future__ import annotations

from PyQt6.QtCore import QPoint
from PyQt6.QtWidgets import QMenu

from ....engine.intents import scene as intents
from ...desk import Desk
from ...words import tr
from .tree import PartTree


class PartWork:
    """Works on the parts that are chosen in the tree, or on the one the card shows."""

    def __init__(self, desk: Desk, tree: PartTree) -> None:
        self.desk, self.tree = desk, tree
        tree.eye_clicked.connect(lambda id, on: desk.dispatch(intents.show_parts([id], on)))
        tree.renamed.connect(lambda id, name: desk.dispatch(intents.rename(id, name)))
        tree.deleted.connect(lambda _id: self.remove())
        tree.dropped.connect(self._moved)
        tree.asked_menu.connect(self._menu)

    def chosen(self) -> list[str]:
        """Parts chosen in the tree, or the one the card shows."""
        return self.tree.selected_ids() or [id for id in (self.desk.selection.part_id,) if id]

    def remove(self) -> None:
        """Take the chosen parts out."""
        command = intents.remove_parts(self.desk.job, self.chosen())
        if command is not None:
            self.desk.dispatch(command)

    def group(self) -> None:
        """Put the chosen parts into a group."""
        found = intents.group_parts(self.desk.job, self.chosen())
        if found is not None and self.desk.dispatch(found[0]):
            self.desk.selection.choose(part=found[1].id)
            self.tree.rename(found[1].id)

    def ungroup(self) -> None:
        """Take the chosen group apart."""
        command = intents.ungroup(self.desk.job, self.desk.selection.part_id)
        if command is not None:
            self.desk.dispatch(command)

    def hide(self) -> None:
        """Hide the chosen parts, or show them where they are hidden."""
        ids = self.chosen()
        parts = [part for part in self.desk.job.scene.parts if part.id in set(ids)]
        if parts:
            self.desk.dispatch(intents.show_parts(ids, all(part.hidden for part in parts)))

    def isolate(self) -> None:
        """Show the chosen parts alone, or everything again."""
        self.desk.dispatch(intents.isolate(self.desk.job, self.chosen()))

    def lock(self) -> None:
        """Keep the chosen parts from being picked and moved, or let them."""
        ids = self.chosen()
        parts = [part for part in self.desk.job.scene.parts if part.id in set(ids)]
        if parts:
            self.desk.dispatch(intents.lock_parts(ids, not all(part.locked for part in parts)))

    def _moved(self, id: str, where: str) -> None:
        moved = self.tree.currentItem()
        chosen = self.tree.selected_ids()
        if moved is not None and chosen:
            command = intents.move_part(self.desk.job, chosen[0], id, where)
            if command is not None:
                self.desk.dispatch(command)

    def _menu(self, at: QPoint) -> None:
        menu = QMenu(self.tree)
        for text, act in (
            (tr("Rename"), lambda: self.tree.rename(self.desk.selection.part_id)),
            (tr("Hide or show"), self.hide),
            (tr("Isolate"), self.isolate),
            (tr("Lock or unlock"), self.lock),
            (tr("Group"), self.group),
            (tr("Take the group apart"), self.ungroup),
            (tr("Duplicate"), self.duplicate),
            (tr("Take out"), self.remove),
        ):
            action = menu.addAction(text)
            if action is not None:
                action.triggered.connect(lambda _checked=False, run=act: run())
        menu.exec(self.tree.mapToGlobal(at))

    def duplicate(self) -> None:
        """A second of the chosen part, beside it."""
        part = self.desk.selection.part
        found = intents.duplicate(self.desk.job, part.id, by=(300.0, 0.0, 0.0)) if part else None
        if found is not None and self.desk.dispatch(found[0]):
            self.desk.selection.choose(part=found[1].id)
