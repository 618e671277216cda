"""The build-up as rows: layers from top to bottom, those of bundles set in; and what is done with the chosen ones."""

from __future__ import annotations

from typing import Any

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtGui import QAction, QPixmap
from PyQt6.QtWidgets import QApplication, QMenu, QPushButton

from ....core.buildup.kind import kind_of
from ....core.errors import TesselError
from ....core.job.commands import Batch
from ....core.job.document import Source
from ....core.job.layers import Layer, Surface, every_layer
from ....core.maps import MapSet
from ....core.quantity import format_number
from ....core.sheet import AnyArray
from ....engine.intents import layers as layer_intents
from ....engine.intents import surfaces as surface_intents
from ....engine.intents.layers import set_in_layer
from ....engine.intents.merging import joined_maps, keep_maps, merge_layers, merged_name
from ....engine.pictures.results import SurfacePicture
from ....engine.wording import sentence
from ... import theme
from ...board import to_image
from ...controls.hatch import next_hatch
from ...controls.panels import button
from ...controls.rows import Row, RowList
from ...desk import Desk
from ...words import tr, tr_count
from ...workroom import Pace
from .surface_board import ITEM_MIME


class LayerList(QObject):
    """The list, its buttons, and the intents behind them. ``laid`` tells what kind of layer was just laid on."""

    laid = pyqtSignal(str)

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk = desk
        self._pictures: dict[str, tuple[AnyArray | None, QPixmap]] = {}
        self.list = RowList(tr("Layers, top to bottom"), reorder=True, several=True, takes=ITEM_MIME)
        self.lay = button(
            tr("Lay on"), lambda: None, name="main", icon="plus", tip=tr("Lay another layer on the chosen one")
        )
        self.lay_menu = QMenu(self.lay)
        self.lay_menu.aboutToShow.connect(lambda: self.fill_lay_menu(self.lay_menu))
        self.lay.setMenu(self.lay_menu)
        self.twice = button("", self.duplicate, icon="copy", tip=tr("Duplicate the chosen layers (Ctrl+D)"))
        self.out = button("", self.remove, icon="trash", tip=tr("Take the chosen layers out (Del)"))
        self.more = self._more()
        for narrow in (self.twice, self.out, self.more):
            narrow.setFixedWidth(theme.px(34))
        self._connect()

    def _more(self) -> QPushButton:
        more = button("", lambda: None, icon="dots", tip=tr("Bundle, copy, solo, lock"))
        more.setAccessibleName(tr("More for layers"))
        more.setObjectName("bare")
        menu = QMenu(more)
        for text, run in (
            (tr("Bundle the chosen layers"), self.bundle),
            (tr("Copy"), self.copy),
            (tr("Paste"), self.paste),
            (tr("Show alone"), self.solo),
            (tr("Lock or unlock"), self.lock),
            (tr("Merge the chosen layers to a map set"), self.merge),
        ):
            action = menu.addAction(text)
            if isinstance(action, QAction):
                action.triggered.connect(lambda _checked=False, go=run: go())
        more.setMenu(menu)
        return more

    def _connect(self) -> None:
        self.list.chosen.connect(self._choose)
        self.list.picked.connect(self._pick)
        self.list.eye_clicked.connect(self._show_or_hide)
        self.list.moved.connect(self._reorder)
        self.list.dropped.connect(self.drop)
        self.list.opened.connect(self.list.rename_in_place)
        self.list.renamed.connect(self._rename)
        self.list.deleted.connect(lambda _id: self.remove())

    # Choosing ------------------------------------------------------------------------------------

    def _choose(self, id: str) -> None:
        self.desk.selection.layer_ids = (id,)
        self.desk.selection.rule_id = ""
        self.desk.selection.choose(layer=id)

    def _pick(self, ids: list[str]) -> None:
        """Several rows chosen; the card shows the one chosen last."""
        if len(ids) > 1:
            self.desk.selection.layer_ids = tuple(ids)

    @property
    def ids(self) -> tuple[str, ...]:
        """The chosen layers; those of a chosen bundle go with it."""
        return self.desk.selection.layer_ids or (
            (self.desk.selection.layer_id,) if self.desk.selection.layer_id else ()
        )

    def _carry_out(self, make: Any, then: Any = None) -> None:
        surface = self.desk.selection.surface
        if surface is None or not self.ids:
            return
        try:
            made = make(surface)
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "caution")
            return
        command, fresh = made if isinstance(made, tuple) else (made, None)
        if self.desk.dispatch(command) and fresh is not None:
            layers = fresh if isinstance(fresh, tuple) else (fresh,)
            self.desk.selection.layer_ids = tuple(layer.id for layer in layers)
            self.desk.selection.choose(layer=layers[-1].id)

    # Intents -------------------------------------------------------------------------------------

    def fill_lay_menu(self, menu: QMenu) -> None:
        """What can be laid on, in groups."""
        menu.clear()
        for group, kinds in layer_intents.layer_kinds(self.desk.job, self.desk.selection.surface).items():
            target = menu if group == "Special" else menu.addMenu(group)
            if target is None or (not kinds and group != "Special"):
                continue
            for kind in kinds:
                action = (
                    target.addAction(theme.stock_icon(kind), tr(kind))
                    if group == "Recipe"
                    else target.addAction(tr(kind))
                )
                if action:
                    action.triggered.connect(lambda _checked=False, g=group, k=kind: self.lay_on(g, k))

    def lay_on(self, group: str, kind: str) -> None:
        """A new layer of a kind above the chosen one; on a new surface where there is none."""
        surface, first = self.desk.selection.surface, None
        if surface is None:
            first, surface = surface_intents.empty_surface(self.desk.job)
        hatch = next_hatch({layer.hatch for layer, _ in every_layer(surface.layers)})
        command, layer = layer_intents.lay_on(
            self.desk.job, surface, group, kind, above=self.desk.selection.layer_id, hatch=hatch
        )
        if first is not None:
            command = Batch(commands=(first, command), label=command.label)
        # Chosen first, so that its card is made once.
        before, self.desk.selection.layer_id = self.desk.selection.layer_id, layer.id
        if self.desk.dispatch(command):
            self.desk.selection.rule_id = ""
            self.desk.selection.choose(surface=surface.id, layer=layer.id)
            self.laid.emit(kind)
        else:
            self.desk.selection.layer_id = before

    def duplicate(self) -> None:
        self._carry_out(lambda surface: layer_intents.duplicate_layers(surface, self.ids))

    def remove(self) -> None:
        self._carry_out(lambda surface: layer_intents.remove_layers(surface, self.ids))

    def bundle(self) -> None:
        """The chosen layers in a bundle."""
        self._carry_out(lambda surface: layer_intents.bundle_layers(surface, self.ids))

    def copy(self) -> None:
        """The chosen layers on the clipboard; they can be pasted into any job."""
        surface, board = self.desk.selection.surface, QApplication.clipboard()
        if surface and board and self.ids:
            board.setText(layer_intents.copied(surface, self.ids))
            self.desk.tell(tr_count(len(self.ids), "{n} layer copied.", "{n} layers copied."))

    def paste(self) -> None:
        board = QApplication.clipboard()
        surface = self.desk.selection.surface
        if surface is None or board is None:
            return
        text = board.text()
        try:
            command, fresh = layer_intents.paste_layers(surface, text, self.desk.selection.layer_id)
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "caution")
            return
        if self.desk.dispatch(command):
            self.desk.selection.choose(layer=fresh[-1].id)

    def merge(self) -> None:
        """The chosen layers as one map set; they are kept and can be opened again."""
        surface, ids, snapshot = self.desk.selection.surface, self.ids, self.desk.session.snapshot()
        if surface is None or len(layer_intents.chosen_layers(surface, ids)) < 2:
            self.desk.tell(tr("Choose the layers to merge, with Ctrl or Shift."), "caution")
            return
        layers = layer_intents.chosen_layers(surface, ids)
        self.desk.tell(tr("Merging…"))
        self.desk.work.ask(
            "merge",
            lambda current: joined_maps(snapshot, surface, layers, current=current),
            lambda maps: self._merged(surface.id, ids, maps),
            pace=Pace.LONG,
        )

    def _merged(self, surface_id: str, ids: tuple[str, ...], maps: MapSet) -> None:
        """Keep the joined maps, off the window's thread, and put them in place of the layers as they are now."""
        surface = next((s for s in self.desk.job.surfaces if s.id == surface_id), None)
        if surface is None:
            return
        intake, title = self.desk.session.intake(), merged_name(surface, ids)

        def then(source: Source) -> None:
            present = next((s for s in self.desk.job.surfaces if s.id == surface_id), None)
            if present is not None:
                self._carry_out(lambda _surface: merge_layers(present, ids, source))
                self.desk.tell(tr("Merged; the layers are kept and can be opened again from the card."))

        self.desk.work.ask("merge", lambda _current: keep_maps(intake, surface, title, maps), then, pace=Pace.LONG)

    def solo(self) -> None:
        """Show only the chosen layer on the board, or everything again."""
        self.desk.view.show_solo("" if self.desk.view.solo else self.desk.selection.layer_id)

    def lock(self) -> None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        if surface and layer:
            label = tr("Unlock a layer") if layer.locked else tr("Lock a layer")
            commands = tuple(
                set_in_layer(surface, entry, ("locked",), not layer.locked, label)
                for entry, _ in every_layer(surface.layers)
                if entry.id in self.ids
            )
            self.desk.dispatch(Batch(commands=commands, label=label))

    def rename(self) -> None:
        """Type another name over the chosen row."""
        self.list.rename_in_place(self.desk.selection.layer_id)

    def _rename(self, id: str, name: str) -> None:
        surface = self.desk.selection.surface
        if surface:
            layer = next(entry for entry, _ in every_layer(surface.layers) if entry.id == id)
            self.desk.dispatch(set_in_layer(surface, layer, ("name",), name, tr("Rename the layer")))

    def _show_or_hide(self, id: str, shown: bool) -> None:
        surface = self.desk.selection.surface
        if surface:
            layer = next(entry for entry, _ in every_layer(surface.layers) if entry.id == id)
            self.desk.dispatch(
                set_in_layer(surface, layer, ("shown",), shown, tr("Show a layer") if shown else tr("Hide a layer"))
            )

    def _reorder(self, id: str, row: int) -> None:
        """A row dropped between others: it goes above the one that is beneath it then."""
        order = [entry.id for entry in self.list.rows if entry.id != id]
        target, where = (order[row], "above") if row < len(order) else (order[-1], "below")
        self.drop(target, where, ids=(id,))

    def drop(self, target: str, where: str, ids: tuple[str, ...] = ()) -> None:
        """The chosen layers put above, below or into another one."""
        chosen = ids or self.ids
        if target not in chosen:
            self._carry_out(lambda surface: layer_intents.move_layers(surface, chosen, target, where))
        self.show_rows(self.desk.selection.surface, None)

    # Showing -------------------------------------------------------------------------------------

    def show_rows(self, surface: Surface | None, done: SurfacePicture | None) -> int:
        """Show the build-up; how many layers it has."""
        self.done = done if done is not None else getattr(self, "done", None)
        rows = self._rows(surface.layers, 0) if surface else []
        self.list.nests = (
            {layer.id for layer, _ in every_layer(surface.layers) if layer.what.holds} if surface else set()
        )
        self.list.show_rows(rows, self.desk.selection.layer_id, self.desk.selection.layer_ids)
        return len(rows)

    def _rows(self, layers: tuple[Layer, ...], indent: int) -> list[Row]:
        rows = []
        for layer in reversed(layers):
            rows.append(self._row(layer, indent))
            rows += self._rows(layer.what.held(), indent + 1)
        return rows

    def _row(self, layer: Layer, indent: int) -> Row:
        faults = self.done.faults if self.done else {}
        thumbs = self.done.thumbs if self.done else {}
        pixmap = self._picture(layer.id, thumbs.get(layer.id))
        fault = layer.id in faults
        note = (
            sentence(faults[layer.id])
            if fault
            else (tr("shown alone · ") if self.desk.view.solo == layer.id else "") + describe(layer)
        )
        return Row(
            layer.id, layer.name, note, layer.hatch, pixmap, layer.shown, "fault" if fault else "", indent, layer.locked
        )

    def _picture(self, id: str, thumb: AnyArray | None) -> QPixmap:
        """A layer's small picture, made anew only where it is another."""
        known = self._pictures.get(id)
        if known is None or known[0] is not thumb:
            pixmap = QPixmap(1, 1) if thumb is None else QPixmap.fromImage(to_image(thumb))
            if thumb is None:
                pixmap.fill(theme.colour("chalk"))
            self._pictures[id] = known = (thumb, pixmap)
        return known[1]


def describe(layer: Layer) -> str:
    """One line on what a layer is and how it sits."""
    kind = kind_of(layer.what)
    rules = tr_count(len(layer.where), "{n} rule", "{n} rules") if layer.where else ""
    level = kind.level(layer)
    rides = f"{'+' if level > 0 else ''}{format_number(level, decimals=2)} mm" if level else ""
    return " · ".join(part for part in (tr(kind.describe(layer)), rules, rides) if part)
