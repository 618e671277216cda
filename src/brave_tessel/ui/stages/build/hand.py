"""The hand on the board of Build: the brush, handles that are dragged, points that are clicked, colours picked."""

from __future__ import annotations

from PyQt6.QtCore import QObject

from ....core.buildup.brush import brush_of
from ....core.buildup.kind import kind_of
from ....core.job.commands import Insert, Set, fetch
from ....core.job.layers import Rule, Stroke, layer_path
from ....core.job.nodes import new_id
from ....engine.pictures.probe import id_at
from ...desk import Desk
from ...words import tr
from .layer_card import LayerCard
from .library_panel import LibraryPanel
from .surface_board import SurfaceBoard
from .surface_handles import Handles, Moved, handles_for, moved


class BoardHand(QObject):
    """What press, drag and click on the board change of the chosen layer."""

    def __init__(self, desk: Desk, board: SurfaceBoard, card: LayerCard, library: LibraryPanel) -> None:
        super().__init__(board)
        self.desk, self.board, self.card, self.library = desk, board, card, library
        self._live: Stroke | None = None
        self._gesture = ""
        board.item_dropped.connect(self._item_dropped)
        board.picked.connect(self._picked)
        board.handle_moved.connect(self._handle_moved)
        board.handle_done.connect(desk.end_gesture)
        board.handle_removed.connect(self._handle_removed)
        board.path_clicked.connect(self._path_clicked)
        board.stroke_changed.connect(self._stroke_moves)
        board.stroke_done.connect(self._stroke_done)
        board.brush_sized.connect(self._brush_sized)
        card.rule_chosen.connect(lambda _id: self.show_handles())
        card.pick_wanted.connect(self.pick_id)
        card.paint_toggled.connect(self.set_painting)
        desk.brush.changed.connect(self._brush_typed)

    # Painting ------------------------------------------------------------------------------------

    def take_up(self, kind: str) -> None:
        """What a layer just laid on waits for: a painted one for the brush."""
        if kind == "Painted":
            self.set_painting(True)

    def set_painting(self, on: bool) -> None:
        """Turn the brush on or off; painting needs a layer that is not locked."""
        layer = self.desk.selection.layer
        if on and (layer is None or layer.locked):
            self.desk.tell(
                tr("The layer is locked; unlock it first.") if layer else tr("Lay something on first."), "caution"
            )
            on = False
        if on and self.card.strokes_place() is None:
            # Rubbing out a layer that was never painted takes away where it lies.
            self.card.add_rule("where.painted", mode="cut" if self.desk.brush.erasing else "")
            self.desk.brush.erasing = False
        self.board.painting = on
        if self.card.paint_button:
            self.card.paint_button.setChecked(on)
        self.board.setFocus()
        self.board.update()
        self.desk.tell(
            tr("Paint on the board; [ and ] size the brush, Shift draws straight, X erases, Esc ends.") if on else ""
        )

    def _brush_sized(self, size: float) -> None:
        self.desk.brush.values = {**self.desk.brush.values, "size": size}
        if self.card.brush_form and not self.card.chosen_stroke:
            self.card.brush_form.show_values(self.desk.brush.values)

    def _brush_typed(self) -> None:
        self.board.brush_mm = float(self.desk.brush.values["size"])
        self.board.update()

    def _make_stroke(self, path: list[tuple[float, float]], id: str) -> Stroke:
        surface = self.desk.selection.surface
        centre = (surface.width_mm / 2, surface.height_mm / 2) if surface else (0.0, 0.0)
        values = {**self.desk.brush.values, "size": self.board.brush_mm}
        erase, pressure = self.desk.brush.erasing, self.board.pressure
        return brush_of(values).stroke(path, id, centre=centre, pressure=pressure, erase=erase)

    def _stroke_moves(self, path: list[tuple[float, float]]) -> None:
        """While the brush is down the job holds the unfinished stroke, as one gesture."""
        surface, layer, place = self.desk.selection.surface, self.desk.selection.layer, self.card.strokes_place()
        if surface is None or layer is None or place is None:
            return
        way = (*layer_path(surface, layer.id), *place)
        if self._live is None:
            self._live = self.desk.build.live = self._make_stroke(path, new_id("stroke"))
            self._gesture = f"stroke-{self._live.id}"
            self.desk.dispatch(
                Insert(
                    path=way,
                    item=self._live,
                    label=tr("Erase") if self._live.erase else tr("Paint"),
                    gesture=self._gesture,
                )
            )
            return
        if self._live.id not in {stroke.id for stroke in fetch(self.desk.job, way)}:
            # Undone under the brush: it is gone whole, and the rest of the movement draws nothing.
            self.desk.build.live = None
            return
        stroke = self.desk.build.live = self._make_stroke(path, self._live.id)
        self.desk.dispatch(
            Set(
                path=(*way, stroke.id),
                value=stroke,
                label=tr("Erase") if stroke.erase else tr("Paint"),
                gesture=self._gesture,
            )
        )

    def _stroke_done(self, path: list[tuple[float, float]]) -> None:
        self._stroke_moves(path)
        self._live = None
        self.desk.build.end_stroke()

    # Handles -------------------------------------------------------------------------------------

    def _rule(self) -> Rule | None:
        layer = self.desk.selection.layer
        return self.card.current_rule(layer) if layer else None

    def show_handles(self) -> None:
        """What of the chosen layer can be dragged on the board."""
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        shown = surface is not None and not self.desk.selection.recipe_open and not self.board.painting
        self.board.show_handles(handles_for(surface, layer, self._rule()) if shown and surface else Handles())

    def _handle_moved(self, name: str, x: float, y: float, unequal: bool) -> None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        if surface is None or layer is None:
            return
        change = moved(surface, layer, self._rule(), name, x, y, unequal=unequal)
        if change is not None:
            self.card.put(change.where, change.value, tr(change.label), gesture=f"handle-{layer.id}-{name}")

    def _handle_removed(self, name: str) -> None:
        layer = self.desk.selection.layer
        if layer is not None:
            self._carry_out(kind_of(layer.what).taken_out(layer.what, name))

    def _carry_out(self, change: Moved | None) -> None:
        if change is not None:
            self.card.put(change.where, change.value, tr(change.label))

    def _item_dropped(self, key: str, x: float, y: float) -> None:
        """Something of the library dropped on the board; what is set once lies where it was dropped."""
        before = self.desk.selection.layer_id
        self.library.lay(key)
        layer = self.desk.selection.layer
        if layer is not None and layer.id != before:
            what = kind_of(layer.what).dropped(layer.what, (x, y))
            if what is not layer.what:
                self.card.put(("what",), what, tr("Place it"))

    def _path_clicked(self, x: float, y: float) -> None:
        layer = self.desk.selection.layer
        if layer is not None:
            self._carry_out(kind_of(layer.what).clicked(layer.what, (x, y)))

    def leave_tools(self) -> None:
        """Every tool put down."""
        self.set_painting(False)
        self.board.picking = False

    def pick_id(self) -> None:
        """The next click on the board adds the colour its source has there to the chosen ID rule."""
        self.board.picking = True
        self.desk.tell(tr("Click the board: the ID colour under the pointer is covered; Esc ends."))

    def _picked(self, x: float, y: float) -> None:
        surface, layer, rule = self.desk.selection.surface, self.desk.selection.layer, self._rule()
        if surface is None or layer is None or rule is None or rule.rule.op != "where.id":
            self.board.picking = False
            return
        snapshot, rule_id = self.desk.session.snapshot(), rule.id

        def then(colour: str) -> None:
            present = self.desk.selection.layer
            rule = next((r for r in (present.where if present else ()) if r.id == rule_id), None)
            if colour and rule is not None:
                known = [stop for stop in str(rule.rule.value("colours")).split(",") if stop != "#000000"]
                stops = list(dict.fromkeys([*known, colour]))
                self.card.set_setting(
                    ("where", rule.id, "rule"), "colours", ",".join(stops if len(stops) > 1 else stops * 2)
                )

        self.desk.work.ask("pick", lambda current: id_at(snapshot, surface, layer, rule, x, y, current=current), then)
