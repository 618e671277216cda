"""Stage 3: what lies on what?"""

from __future__ import annotations

import msgspec
from PyQt6.QtCore import QEvent, QObject, pyqtSignal
from PyQt6.QtGui import QPixmap, QResizeEvent
from PyQt6.QtWidgets import QComboBox, QInputDialog, QMenu, QWidget

from ...core.commands import Insert, Move, Remove, Set
from ...core.document import Job, Layer, PlainWhat, RecipeWhat, Stroke, Surface, new_id
from ...core.handover.checks import fit_repeat
from ...core.maps import MapKind
from ...core.place.elevation import units_of
from ...core.quantity import format_number, format_size
from ...core.recipe.shelf import SHELF
from ...core.relief.pictures import VIEWS
from ...engine import intents
from ...engine.wording import sentence
from .. import theme
from ..board import SCALES, to_image
from ..controls.float_bar import FloatBar
from ..controls.hatch import next_hatch
from ..controls.panels import Heading, button
from ..controls.rows import Row, RowList
from ..controls.title_block import Cell, TitleBlock
from ..desk import Desk
from ..results import SurfacePicture
from .layer_card import LayerCard
from .probe import explain, probe_at
from .recipe_mode import RecipeMode
from .section_strip import SectionStrip
from .stage import LeftPanel, Stage, stacked
from .surface_board import SurfaceBoard

EXTENTS = ("Cell", "Field 3×3", "Wall 6 m")


class BuildStage(Stage):
    """Layers at the left, the lit surface on the board, the section below, the layer's card at the right."""

    recipe_toggled = pyqtSignal(bool)

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.surface_board = SurfaceBoard()
        self.recipe = RecipeMode(desk)
        self.views = FloatBar(list(VIEWS), "Lit", name="View", parent=self.surface_board)
        self.extents = FloatBar(EXTENTS, "Field 3×3", name="Extent", parent=self.surface_board)
        self.block = TitleBlock(self.surface_board)
        self.section = SectionStrip()
        self.strip = self.section
        self.layer_card = LayerCard(desk)
        self.build_left = self._make_left()
        self.stacks = tuple(stacked(*pair) for pair in (
            (self.build_left, self.recipe.left), (self.surface_board, self.recipe.board), (self.layer_card, self.recipe.card),
        ))  # fmt: skip
        self.left, self.board, self.card = self.stacks
        self.done: SurfacePicture | None = None
        self._live: Stroke | None = None
        self._connect()
        self.show_job(desk.job)

    def _make_left(self) -> QWidget:
        left = LeftPanel()
        self.picker = QComboBox()
        self.picker.setAccessibleName("Surface")
        self.picker.activated.connect(lambda index: self.desk.select(surface=self.picker.itemData(index)))
        self.heading = Heading("Build-up", "top to bottom")
        left.add(self.picker, self._make_new(), stretch=True)
        left.add(self.heading)
        self.list = RowList("Layers, top to bottom", reorder=True)
        left.add_list(self.list)
        self.lay = button("Lay on…", lambda: None, name="main", icon="plus", tip="Lay another layer on the chosen one")
        self.lay_menu = QMenu(self.lay)
        self.lay_menu.aboutToShow.connect(self._fill_lay_menu)
        self.lay.setMenu(self.lay_menu)
        twice = button("", self.duplicate, icon="copy", tip="Duplicate the layer (Ctrl+D)")
        out = button("", self.remove, icon="trash", tip="Take the layer out (Del)")
        left.add(self.lay, twice, out, stretch=True)
        return left

    def _make_new(self) -> QWidget:
        made = button("New", lambda: None, tip="A new surface: of rectangular units, or of a recipe from the shelf")
        menu = QMenu(made)
        plain = menu.addAction("Rectangular units")
        if plain:
            plain.triggered.connect(lambda _checked=False: self.new_surface())
        menu.addSeparator()
        for stock in SHELF:
            action = menu.addAction(theme.shelf_icon(stock.name), stock.name)
            if action:
                action.setToolTip(stock.note)
                action.triggered.connect(lambda _checked=False, name=stock.name: self.from_shelf(name))
        menu.setToolTipsVisible(True)
        made.setMenu(menu)
        return made

    def from_shelf(self, name: str) -> None:
        """A new surface of a stock recipe."""
        command, surface = intents.surface_from_stock(self.desk.job, name)
        if self.desk.dispatch(command):
            self.desk.select(surface=surface.id, layer=surface.layers[0].id)

    def _connect(self) -> None:
        desk, board = self.desk, self.surface_board
        self.list.chosen.connect(lambda id: desk.select(layer=id))
        self.list.eye_clicked.connect(self._show_or_hide)
        self.list.moved.connect(self._reorder)
        self.list.opened.connect(lambda _id: self.layer_card.rename())
        self.list.deleted.connect(lambda _id: self.remove())
        self.views.chosen.connect(desk.show_view)
        self.extents.chosen.connect(board.show_extent)
        self.block.clicked.connect(self._block_clicked)
        board.light_turned.connect(desk.turn_light)
        board.cut_moved.connect(lambda y: self.section.show_picture(self.done, y))
        board.probed.connect(self._probe)
        board.left_board.connect(lambda: self.section.show_pointer(None))
        board.view_changed.connect(self._show_block)
        board.stroke_changed.connect(self._stroke_moves)
        board.stroke_done.connect(self._stroke_done)
        board.pinned.connect(self._pin)
        board.brush_sized.connect(self._brush_sized)
        board.installEventFilter(self)
        self.layer_card.paint_toggled.connect(self.set_painting)
        self.layer_card.recipe_wanted.connect(lambda rule: self.open_recipe(True, rule=rule))
        self.recipe.left_mode.connect(lambda: self.open_recipe(False))
        self.layer_card.brush_sized.connect(self._brush_typed)
        desk.job_changed.connect(self.show_job)
        desk.selection_changed.connect(self._selection_changed)
        desk.surface_ready.connect(self.show_picture)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QResizeEvent):
            margin = theme.px(10)
            inset = int(self.surface_board.inset())
            self.views.move(inset + margin, inset + margin)
            self.extents.move(self.surface_board.width() - self.extents.width() - margin, inset + margin)
            if self.extents.x() < self.views.x() + self.views.width() + margin:
                self.extents.move(self.extents.x(), inset + margin + self.views.height() + theme.px(6))
            self.block.place()
        return False

    @property
    def ruled_board(self) -> QWidget:
        return self.surface_board

    # Recipe --------------------------------------------------------------------------------------

    def open_recipe(self, on: bool, *, rule: str = "") -> None:
        """Show the recipe of the chosen layer, or of one of its where-rules, in place of the build-up, or go back."""
        self.desk.recipe_rule = rule if on else ""
        on = on and self.recipe.opened is not None
        if on == self.desk.recipe_open:
            return
        self.desk.recipe_open = on
        for stack in self.stacks:
            stack.setCurrentIndex(int(on))
        # The section says little about single steps; the rows need the room.
        self.section.setVisible(not on)
        self.recipe_toggled.emit(on)
        self.desk.tell("")
        self.show_job(self.desk.job)
        self.desk.refresh()

    # Intents -------------------------------------------------------------------------------------

    def new_surface(self) -> None:
        command, surface = intents.new_surface(self.desk.job)
        if self.desk.dispatch(command):
            self.desk.select(surface=surface.id)

    def rename_surface(self) -> None:
        surface = self.desk.surface
        if surface is None:
            return
        name, done = QInputDialog.getText(self.left, "Rename the surface", "Name", text=surface.name)
        if done and name.strip():
            self.desk.dispatch(Set(path=("surfaces", surface.id, "name"), value=name.strip(), label="Rename the surface"))

    def _fill_lay_menu(self) -> None:
        self.lay_menu.clear()
        for kind in intents.layer_kinds(self.desk.job):
            action = self.lay_menu.addAction(kind)
            if action:
                action.triggered.connect(lambda _checked=False, chosen=kind: self.lay_on(chosen))

    def lay_on(self, kind: str) -> None:
        """A new layer of a kind above the chosen one."""
        surface = self.desk.surface
        if surface is None:
            self.new_surface()
            return
        hatch = next_hatch({layer.hatch for layer in surface.layers})
        command, layer = intents.lay_on(self.desk.job, surface, kind, above=self.desk.layer_id, hatch=hatch)
        if self.desk.dispatch(command):
            self.desk.select(layer=layer.id)

    def duplicate(self) -> None:
        surface, layer = self.desk.surface, self.desk.layer
        if surface is None or layer is None:
            return
        twin = msgspec.structs.replace(layer, id=new_id("layer"), name=f"{layer.name} copy")
        index = surface.layers.index(layer) + 1
        done = self.desk.dispatch(
            Insert(path=("surfaces", surface.id, "layers"), item=twin, index=index, label=f"Duplicate {layer.name}")
        )
        if done:
            self.desk.select(layer=twin.id)

    def remove(self) -> None:
        surface, layer = self.desk.surface, self.desk.layer
        if surface and layer:
            self.desk.dispatch(Remove(path=("surfaces", surface.id, "layers", layer.id), label=f"Take out {layer.name}"))

    def _show_or_hide(self, id: str, shown: bool) -> None:
        surface = self.desk.surface
        if surface:
            path = ("surfaces", surface.id, "layers", id, "shown")
            self.desk.dispatch(Set(path=path, value=shown, label="Show a layer" if shown else "Hide a layer"))

    def _reorder(self, id: str, row: int) -> None:
        surface = self.desk.surface
        if surface:
            index = len(surface.layers) - 1 - row
            self.desk.dispatch(Move(path=("surfaces", surface.id, "layers", id), index=index, label="Reorder layers"))
            self.show_job(self.desk.job)

    def _block_clicked(self, key: str) -> None:
        if key == "scale":
            self._next_scale()
        elif key == "repeat":
            self._fit_repeat()

    def _next_scale(self) -> None:
        """The next smaller drawing scale, or back to the largest."""
        ratio = self.surface_board.px_per_mm_at(1) / self.surface_board.scale
        following = next((scale for scale in SCALES if scale > ratio * 1.01), SCALES[0])
        self.surface_board.set_scale(self.surface_board.px_per_mm_at(following))

    def _fit_repeat(self) -> None:
        surface = self.desk.surface
        units = units_of(surface) if surface else None
        if surface and units and not units.whole:
            self.desk.dispatch(fit_repeat(surface, units))

    # Painting ------------------------------------------------------------------------------------

    def set_painting(self, on: bool) -> None:
        """Turn the brush on or off; painting needs a layer."""
        if on and self.desk.layer is None:
            return
        if on and self.layer_card.paint_button is None:
            self.layer_card._add_rule("where.painted")
        self.surface_board.painting = on
        if self.layer_card.paint_button:
            self.layer_card.paint_button.setChecked(on)
        self.surface_board.setFocus()
        self.surface_board.update()
        self.desk.tell("Paint where the layer lies; [ and ] size the brush, Shift draws straight, Esc ends." if on else "")

    def _brush_sized(self, size: float) -> None:
        if self.layer_card.brush:
            self.layer_card.brush.show_value(size)

    def _brush_typed(self, size: object) -> None:
        self.surface_board.brush_mm = float(size)  # type: ignore[arg-type]
        self.surface_board.update()

    def _make_stroke(self, path: list[tuple[float, float]], id: str) -> Stroke:
        card = self.layer_card
        erase = bool(card.erase_button and card.erase_button.isChecked())
        return Stroke(
            id=id, points=tuple((round(x, 3), round(y, 3)) for x, y in path), size_mm=self.surface_board.brush_mm,
            hardness=card.hardness.value if card.hardness else 0.5, erase=erase,
        )  # fmt: skip

    def _stroke_moves(self, path: list[tuple[float, float]]) -> None:
        """While the brush is down the job holds the unfinished stroke, as one gesture."""
        surface, layer = self.desk.surface, self.desk.layer
        if surface is None or layer is None:
            return
        rule = next((rule for rule in layer.where if rule.rule.op == "where.painted"), None)
        if self._live is None or rule is None:
            self._live = self._make_stroke(path, new_id("stroke"))
            command = intents.paint(surface, layer, lambda: self._live)  # type: ignore[arg-type,return-value]
            self._gesture = f"stroke-{self._live.id}"
            self.desk.dispatch(msgspec.structs.replace(command, gesture=self._gesture))
            return
        stroke = self._make_stroke(path, self._live.id)
        where = ("surfaces", surface.id, "layers", layer.id, "where", rule.id, "strokes", stroke.id)
        label = "Erase" if stroke.erase else "Paint"
        self.desk.dispatch(Set(path=where, value=stroke, label=label, gesture=self._gesture))

    def _stroke_done(self, path: list[tuple[float, float]]) -> None:
        self._stroke_moves(path)
        self._live = None
        self.desk.end_gesture()

    # Showing -------------------------------------------------------------------------------------

    def _selection_changed(self) -> None:
        self.surface_board.painting = False
        if self.desk.recipe_open and self.recipe.opened is None:
            self.open_recipe(False)
        self.show_job(self.desk.job)

    def show_job(self, job: Job) -> None:
        surface = self.desk.surface
        self.picker.blockSignals(True)
        self.picker.clear()
        for entry in job.surfaces:
            self.picker.addItem(entry.name, entry.id)
        self.picker.setCurrentIndex(max(0, self.picker.findData(self.desk.surface_id)))
        self.picker.blockSignals(False)
        if self.desk.recipe_open:
            if self.recipe.opened is None:
                self.open_recipe(False)
            else:
                self.recipe.show_job(job)
        self._show_rows(surface)
        self.layer_card.show_layer(surface, self.desk.layer)
        if self.layer_card.paint_button:
            self.layer_card.paint_button.setChecked(self.surface_board.painting)
        if self.layer_card.brush:
            self.layer_card.brush.show_value(self.surface_board.brush_mm)

    def _show_rows(self, surface: Surface | None) -> None:
        layers = surface.layers if surface else ()
        rows = [self._row(layer) for layer in reversed(layers)]
        self.list.show_rows(rows, self.desk.layer_id)
        self.heading.note.setText(f"{len(rows)} layer{'' if len(rows) == 1 else 's'}")

    def _row(self, layer: Layer) -> Row:
        faults = self.done.faults if self.done else {}
        thumbs = self.done.thumbs if self.done else {}
        pixmap = QPixmap.fromImage(to_image(thumbs[layer.id])) if layer.id in thumbs else QPixmap(1, 1)
        if layer.id not in thumbs:
            pixmap.fill(theme.colour("chalk"))
        if layer.id in faults:
            return Row(layer.id, layer.name, sentence(faults[layer.id]), layer.hatch, pixmap, layer.shown, "fault")
        return Row(layer.id, layer.name, describe(layer), layer.hatch, pixmap, layer.shown)

    def show_picture(self, done: SurfacePicture | None) -> None:
        if done is not None and done.fine and self.done is not None:
            done.thumbs.update(self.done.thumbs)
        self.done = done
        self.surface_board.show_picture(done)
        self.section.show_picture(done, self.surface_board.cut_y)
        self._show_block()
        if done is not None and (not done.fine or done.faults):
            self._show_rows(self.desk.surface)
        fault = done.faults.get(self.desk.layer_id) if done else None
        self.layer_card.show_fault(sentence(fault) if fault else "")

    def _show_block(self) -> None:
        self.block.setVisible(self.done is not None)
        if self.done is None:
            return
        done, surface = self.done, self.done.surface
        height = done.maps[MapKind.HEIGHT]
        units = units_of(surface)
        grid = done.grid
        relief = f"{format_number(float(height.min()), decimals=1)} … {format_number(float(height.max()), decimals=1)} mm"
        courses = f"{units.courses} × {format_number(units.course_mm, decimals=1)} mm" if units else "free"
        cells: list[Cell] = [
            ("", "Surface", surface.name), ("scale", "Scale", self.surface_board.scale_name()),
            ("", "Repeat", format_size(surface.width_mm, surface.height_mm)),
            ("", "Sheet", f"{grid.width_px} × {grid.height_px} px"),
            ("", "Relief", relief), ("", "Density", f"{1 / grid.pitch_mm:.2f} px/mm"),
            ("" if units is None or units.whole else "repeat", "Courses", courses),
            ("", "Fit", "–" if units is None else "whole units" if units.whole else "click to fit"),
        ]  # fmt: skip
        self.block.show_cells(cells)

    def _probe(self, x: float, y: float) -> None:
        self.section.show_pointer(x)
        if self.done is not None:
            self.desk.tell(explain(probe_at(self.done, x, y)), "probe")

    def _pin(self, x: float, y: float) -> None:
        if self.done is None:
            return
        found = probe_at(self.done, x, y)
        self.surface_board.pins.append((x, y, f"{found.layer} {found.height:+.2f} mm"))
        self.surface_board.update()

    def fit(self) -> None:
        if self.desk.recipe_open:
            self.recipe.board.pair.fit()
            return
        self.surface_board.show_extent(self.surface_board.extent_name)


def describe(layer: Layer) -> str:
    """One line on what a layer is and how it sits."""
    what = "plain" if isinstance(layer.what, PlainWhat) else "recipe" if isinstance(layer.what, RecipeWhat) else "source"
    rules = f" · {len(layer.where)} rules" if len(layer.where) > 1 else " · 1 rule" if layer.where else ""
    level = layer.seat.number("level") if layer.seat.op == "seat.by_height" else 0.0
    rides = f" · {'+' if level > 0 else ''}{format_number(level, decimals=2)} mm" if level else ""
    return f"{rules}{rides}".removeprefix(" · ") or what


