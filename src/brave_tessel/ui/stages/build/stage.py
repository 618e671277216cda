"""Stage 3: what lies on what?"""

from __future__ import annotations

import dataclasses
from pathlib import Path

from PyQt6.QtCore import QEvent, QObject, pyqtSignal
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QComboBox, QFileDialog, QInputDialog, QMenu, QWidget

from ....core.job.commands import Set
from ....core.job.document import Job
from ....core.job.layers import Surface, every_layer
from ....core.light.lighting import NEAR, Eye
from ....core.recipe.materials import MATERIALS
from ....core.relief.pictures import VIEWS, legend_of
from ....core.sheet import AnyArray
from ....engine.intents import layers as layer_intents
from ....engine.intents import surfaces as surface_intents
from ....engine.intents.merging import open_merged
from ....engine.pictures.probe import explain, probe_at, rules_at, values_at
from ....engine.pictures.results import SurfacePicture
from ....engine.previews import Stored
from ....engine.wording import sentence
from ... import theme
from ...controls.float_bar import FloatBar
from ...controls.panels import Heading, button
from ...desk import Desk
from ...words import tr, tr_count
from ...workroom import Pace
from ..stage import LeftPanel, Stage, stacked
from .hand import BoardHand
from .kept_states import KeptStates
from .layer_card import LayerCard
from .layer_list import LayerList
from .library_panel import LibraryPanel
from .recipe.mode import RecipeMode
from .section_strip import SectionStrip
from .solid_view import SolidView
from .surface_block import SurfaceBlock
from .surface_board import SurfaceBoard

MAIN_VIEWS = ("Lit", "Base colour", "Height", "Normal", "Roughness", "Who wins")
EXTENTS = ("Cell", "Field 3×3", "Wall 6 m", "Solid")
WALLS = (6, 12, 24, 3)


class BuildStage(Stage):
    """Layers at the left, the lit surface on the board, the section below, the layer's card at the right."""

    name = "Build"

    recipe_toggled = pyqtSignal(bool)
    light_asked = pyqtSignal(object)
    """Where on the screen the light menu is wanted."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.surface_board = SurfaceBoard()
        self.recipe = RecipeMode(desk)
        self.views = FloatBar(
            MAIN_VIEWS,
            "Lit",
            name=tr("View"),
            parent=self.surface_board,
            rest=[view for view in VIEWS if view not in MAIN_VIEWS],
        )
        self.extents = FloatBar(EXTENTS, "Field 3×3", name=tr("Extent"), parent=self.surface_board)
        self.solid = SolidView(self.surface_board)
        self.solid.lower()
        self.block = SurfaceBlock(desk, self.surface_board)
        self.section = SectionStrip()
        self.strip = self.section
        self.layer_card = LayerCard(desk)
        self.layers = LayerList(desk)
        self.list = self.layers.list
        self.build_left = self._make_left()
        self.library = LibraryPanel(desk)
        self.stacks = tuple(
            stacked(*pair)
            for pair in (
                (self.build_left, self.recipe.left),
                (self.surface_board, self.recipe.board),
                (self.layer_card, self.recipe.card, self.library),
            )
        )
        self.left, self.board, self.card = self.stacks
        self.done: SurfacePicture | None = None
        self.kept = KeptStates(desk, self.surface_board)
        self.hand = BoardHand(desk, self.surface_board, self.layer_card, self.library)
        self.layers.laid.connect(self.hand.take_up)
        self._connect()

    def _make_left(self) -> QWidget:
        left = LeftPanel()
        self.picker = QComboBox()
        self.picker.setAccessibleName(tr("Surface"))
        self.picker.activated.connect(lambda index: self.desk.selection.choose(surface=self.picker.itemData(index)))
        self.heading = Heading(tr("Build-up"), tr("top to bottom"))
        left.add(self.picker, self._make_new(), stretch=True)
        left.add(self.heading)
        left.add_list(self.list)
        left.add(
            button(
                tr("Library"),
                lambda: self.open_library(True),
                icon="drawers",
                tip=tr("Kits, recipes, surfaces, marks of use (Ctrl+L)"),
            ),
            stretch=True,
        )
        left.add(self.layers.lay, self.layers.twice, self.layers.out, self.layers.more, stretch=True)
        return left

    def _make_new(self) -> QWidget:
        made = button(
            tr("New"), lambda: None, tip=tr("A new surface: empty, of rectangular units, or of a stock recipe")
        )
        menu = QMenu(made)
        for name, make in ((tr("Empty"), self.new_empty), (tr("Rectangular units"), self.new_surface)):
            action = menu.addAction(name)
            if action:
                action.triggered.connect(lambda _checked=False, run=make: run())
        menu.addSeparator()
        for stock in MATERIALS:
            action = menu.addAction(theme.stock_icon(stock.name), tr(stock.name))
            if action:
                action.setToolTip(tr(stock.note))
                action.triggered.connect(lambda _checked=False, name=stock.name: self.from_stock(name))
        menu.setToolTipsVisible(True)
        made.setMenu(menu)
        return made

    def new_empty(self) -> None:
        """A new surface with nothing on it yet."""
        command, surface = surface_intents.empty_surface(self.desk.job)
        if self.desk.dispatch(command):
            self.desk.selection.choose(surface=surface.id)

    def from_stock(self, name: str) -> None:
        """A new surface of a stock recipe."""
        command, surface = surface_intents.surface_from_stock(self.desk.job, name)
        if self.desk.dispatch(command):
            self.desk.selection.choose(surface=surface.id, layer=surface.layers[0].id)

    def _connect(self) -> None:
        desk, board = self.desk, self.surface_board
        self.library.back.connect(lambda: self.open_library(False))
        self.list.brought.connect(self.library.lay)
        self.layer_card.asked.connect(self._asked)
        self.views.chosen.connect(desk.view.show_view)
        self.extents.chosen.connect(self.show_extent)
        self.solid.light_turned.connect(desk.turn_light)
        self.block.light_asked.connect(self.light_asked)
        board.light_turned.connect(desk.turn_light)
        board.cut_moved.connect(lambda y: self.section.show_picture(self.done, y, board.cut_angle))
        board.probed.connect(self._probe)
        board.left_board.connect(lambda: self.section.show_pointer(None))
        board.view_changed.connect(self._show_block)
        board.pinned.connect(self._pin)
        board.installEventFilter(self)
        self.recipe.left_mode.connect(lambda: self.open_recipe(False))
        desk.selection.changed.connect(self._selection_changed)
        desk.view.solo_changed.connect(self.moved)
        self.follow(lambda job: (job.surfaces, job.sources, job.palettes))
        desk.build.ready.connect(self.show_picture)
        desk.session.store.subscribe(lambda job: job.rig, lambda _rig: self.solid.show_light(desk.scene_light()))
        desk.build.stored_ready.connect(self._show_stored)
        desk.build.parts_ready.connect(board.show_parts)
        desk.build.stroke_ended.connect(self.moved)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QResizeEvent):
            margin = theme.px(10)
            inset = int(self.surface_board.inset())
            self.views.move(inset + margin, inset + margin)
            self.extents.move(self.surface_board.width() - self.extents.width() - margin, inset + margin)
            if self.extents.x() < self.views.x() + self.views.width() + margin:
                self.extents.move(self.extents.x(), inset + margin + self.views.height() + theme.px(6))
            self.block.place()
            self.surface_board.compared.place()
            self._place_solid()
        return False

    def show_extent(self, name: str) -> None:
        """How much of the surface is shown; the wall once more is another wall."""
        board = self.surface_board
        if name.startswith("Wall") and board.extent_name.startswith("Wall"):
            board.wall_m = WALLS[(WALLS.index(board.wall_m) + 1) % len(WALLS)]
        self.extents.buttons["Wall 6 m"].setText(tr("Wall {wall_m} m", wall_m=board.wall_m))
        # A single cell is seen from near by, so that a gloss shows the sky; repeats from afar, so that they join.
        eye = self.desk.view.eye
        self.desk.view.look_from(Eye(eye.off, eye.side, NEAR if name == "Cell" else 0.0))
        self.solid.setVisible(name == "Solid")
        self._show_block()
        self._place_solid()
        if name != "Solid":
            board.show_extent(name)

    def _place_solid(self) -> None:
        board = self.surface_board
        # A solid is seen in perspective: the board's rulers would lie.
        self.solid.setGeometry(board.rect())
        for bar in (self.views, self.extents, self.block):
            bar.raise_()

    @property
    def ruled_board(self) -> QWidget:
        return self.surface_board if self.solid.isHidden() else self.solid

    def open_library(self, on: bool) -> None:
        """Show the library in place of the card, beside the layers it is dropped between; or go back."""
        if self.desk.selection.recipe_open:
            return
        self.stacks[2].setCurrentWidget(self.library if on else self.layer_card)
        if on:
            self.library.show_items()

    # Recipe --------------------------------------------------------------------------------------

    def open_recipe(self, on: bool, *, rule: str = "") -> None:
        """Show the recipe of the chosen layer, or of one of its where-rules, in place of the build-up, or go back."""
        self.desk.selection.recipe_rule = rule if on else ""
        on = on and self.recipe.opened is not None
        if on == self.desk.selection.recipe_open:
            return
        self.desk.selection.recipe_open = on
        for stack in self.stacks:
            stack.setCurrentIndex(int(on))
        # The section says little about single steps; the rows need the room.
        self.section.setVisible(not on)
        self.recipe_toggled.emit(on)
        self.desk.tell("")
        self.moved()
        self.desk.refresh()

    # Intents -------------------------------------------------------------------------------------

    def new_surface(self) -> None:
        command, surface = surface_intents.new_surface(self.desk.job)
        if self.desk.dispatch(command):
            self.desk.selection.choose(surface=surface.id)

    def rename_surface(self) -> None:
        surface = self.desk.selection.surface
        if surface is None:
            return
        name, done = QInputDialog.getText(self.left, tr("Rename the surface"), tr("Name"), text=surface.name)
        if done and name.strip():
            self.desk.dispatch(
                Set(path=("surfaces", surface.id, "name"), value=name.strip(), label=tr("Rename the surface"))
            )

    def _asked(self, what: str, about: str) -> None:
        """What a button of the card wants of the window."""
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        if what == "recipe":
            self.open_recipe(True, rule=about)
        elif what == "drawing":
            self.choose_drawing()
        elif what == "surface":
            self.desk.selection.choose(surface=about)
        elif surface is not None and layer is not None:
            intent = layer_intents.unbundle if what == "unbundle" else open_merged
            self.desk.dispatch(intent(surface, layer))

    def choose_drawing(self) -> None:
        """A drawing for an inscription."""
        dialog = QFileDialog(self.board, tr("A drawing for the inscription"))
        dialog.setNameFilter(tr("Drawings and cut-outs (*.svg *.png *.tif *.tiff)"))
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.take_drawing(Path(dialog.selectedFiles()[0]))

    def take_drawing(self, path: Path) -> None:
        """A drawing from a file in place of the inscription's text; what cannot be read is told."""
        intake, wanted = self.desk.session.intake(), self.desk.selection.layer_id

        def then(blob: str) -> None:
            if self.desk.selection.layer_id == wanted:
                self.layer_card.put(("what", "drawing"), blob, tr("Take {name}", name=path.name))

        self.desk.work.ask("drawing", lambda _current: intake.keep_drawing(path), then, pace=Pace.FILES)

    # Showing -------------------------------------------------------------------------------------

    def _selection_changed(self) -> None:
        self.surface_board.painting = False
        if self.desk.selection.recipe_open and self.recipe.opened is None:
            self.open_recipe(False)

    def show_job(self, job: Job) -> None:
        if self.desk.build.live is not None:
            # Under the brush nothing changes here but the picture; the rest is shown once it is lifted.
            return
        surface = self.desk.selection.surface
        self._show_names(job)
        if self.desk.selection.recipe_open:
            if self.recipe.opened is not None:
                # The build-up and its card lie hidden beneath, and are shown anew when the recipe is left.
                self.recipe.show_job(job)
                return
            self.open_recipe(False)
        self._show_rows(surface)
        self.layer_card.show_layer(surface, self.desk.selection.layer)
        if self.layer_card.paint_button:
            self.layer_card.paint_button.setChecked(self.surface_board.painting)
        self.hand.show_handles()

    def _show_names(self, job: Job) -> None:
        """The surfaces in the picker; single names are changed, the list is not made anew."""
        wanted = [(entry.name, entry.id) for entry in job.surfaces]
        there = [(self.picker.itemText(n), self.picker.itemData(n)) for n in range(self.picker.count())]
        self.picker.blockSignals(True)
        if [id for _, id in wanted] != [id for _, id in there]:
            self.picker.clear()
            for name, id in wanted:
                self.picker.addItem(name, id)
        for index, (name, _) in enumerate(wanted):
            if self.picker.itemText(index) != name:
                self.picker.setItemText(index, name)
        self.picker.setCurrentIndex(max(0, self.picker.findData(self.desk.selection.surface_id)))
        self.picker.blockSignals(False)

    def _show_rows(self, surface: Surface | None) -> None:
        count = self.layers.show_rows(surface, self.done)
        self.heading.note.setText(tr_count(count, "{n} layer", "{n} layers"))

    def show_picture(self, done: SurfacePicture | None) -> None:
        moving = False
        if done is not None and self.done is not None and done.surface.id == self.done.surface.id:
            # Between two moves of the hand only what it looks at is shown; the finer picture brings the rest.
            moving = not done.fine and not done.thumbs and not done.faults
            done = dataclasses.replace(done, thumbs=_newer(self.done, done))
        self.done = done
        self.surface_board.show_picture(done)
        self.solid.show_picture(done)
        if moving:
            return
        self.section.show_picture(done, self.surface_board.cut_y, self.surface_board.cut_angle)
        self._show_block()
        self.surface_board.show_legend(legend_of(self.desk.view.view, done.maps) if done else None)
        if done is not None:
            self._show_rows(self.desk.selection.surface)
        layer = self.desk.selection.layer
        if done is not None and layer is not None:
            self.layer_card.show_rules(layer, done.thumbs)
        fault = done.faults.get(self.desk.selection.layer_id) if done else None
        self.layer_card.show_fault(sentence(fault) if fault else "")

    def _show_stored(self, stored: Stored) -> None:
        """The surface as it was last seen, until its picture has come."""
        if self.done is None or self.done.surface.id != stored.surface.id:
            self.done = None
            self.surface_board.show_stored(stored)
            self.block.setVisible(False)

    def _show_block(self) -> None:
        # On a solid neither scale nor sheet is seen, and its own choices stand there.
        self.block.show_done(self.done if self.solid.isHidden() else None)

    def _probe(self, x: float, y: float) -> None:
        self.section.show_pointer(x)
        if self.done is not None:
            self.desk.tell("\t".join(map(tr, explain(probe_at(self.done, x, y)))), "probe")

    def _pin(self, x: float, y: float) -> None:
        """A note on the picture: who lies there by how much, and what each rule of the chosen layer gave."""
        if self.done is None:
            return
        found = probe_at(self.done, x, y)
        text = tr("{layer} {height:+.2f} mm", layer=found.layer, height=found.height)
        text = f"{text} · {tr(values_at(self.done, x, y))}"
        self.surface_board.pins.append((x, y, text))
        self.surface_board.update()
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        if surface is None or layer is None or not layer.where:
            return
        snapshot = self.desk.session.snapshot()

        def then(told: str) -> None:
            pins = self.surface_board.pins
            if told and (x, y, text) in pins:
                pins[pins.index((x, y, text))] = (x, y, f"{text} · {told}")
                self.surface_board.update()

        self.desk.work.ask("probe", lambda current: rules_at(snapshot, surface, layer, x, y, current=current), then)

    def fit(self) -> None:
        if self.desk.selection.recipe_open:
            self.recipe.board.pair.fit()
            return
        self.surface_board.show_extent(self.surface_board.extent_name)


def _newer(before: SurfacePicture, done: SurfacePicture) -> dict[str, AnyArray]:
    """The small pictures after another picture has come. Coarse ones only fill gaps: the fine ones follow at once, but
    for layers that are hidden.
    """
    hidden = {
        id
        for layer, _ in every_layer(done.surface.layers)
        if not layer.shown
        for id in (layer.id, *(rule.id for rule in layer.where))
    }
    fresh = {id: picture for id, picture in done.thumbs.items() if done.fine or id in hidden or id not in before.thumbs}
    return {**before.thumbs, **fresh}
