"""A recipe opened from its layer: rows, pictures and card, and what is done with them."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import msgspec
from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QFileDialog

from .....core.errors import DoesNotFitError, TesselError
from .....core.job.document import Job
from .....core.job.layers import Layer, Recipe, Step, Surface
from .....core.maps import MapKind
from .....core.operation import Value, find
from .....core.recipe import edit
from .....core.recipe.evaluate import passed_on
from .....core.recipe.stock import STOCK
from .....engine.intents import recipes as recipe_intents
from .....engine.intents import surfaces as surface_intents
from .....engine.pictures.results import RecipePicture, VariantPictures
from .....engine.wording import sentence
from .....formats.disk import write_atomically
from .....formats.images import read_file
from .... import theme
from ....desk import Desk
from ....words import tr
from .board import RecipeBoard
from .card import StepCard
from .left import RecipeLeft


class RecipeMode(QObject):
    """Widgets send intents here; each becomes one change of the layer's recipe, to be undone as such."""

    left_mode = pyqtSignal()

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk = desk
        self.left, self.board, self.card = RecipeLeft(), RecipeBoard(), StepCard()
        self.selected = ""
        self.copied: list[Step] = []
        self._variants_of: object = None
        self._connect()

    def _connect(self) -> None:
        left, rows, card = self.left, self.board.rows, self.card
        left.back.connect(self.left_mode)
        left.section_chosen.connect(self._to_section)
        left.fed.connect(self._feed)
        left.step_chosen.connect(self.choose)
        left.seeds.taken.connect(self._take_seed)
        left.import_wanted.connect(self.choose_import)
        left.export_wanted.connect(self.choose_export)
        left.stock_menu.aboutToShow.connect(self._fill_stock)
        self.board.op_taken.connect(self.add)
        self.board.pair.light_turned.connect(self.desk.turn_light)
        rows.chosen.connect(self.choose)
        rows.input_dropped.connect(self.set_input)
        rows.moved.connect(lambda name, to: self._change(tr("Move a step"), lambda r: edit.move_step(r, name, to)))
        rows.removed.connect(self.remove)
        rows.renamed.connect(lambda _name: self._name_field())
        card.dial_set.connect(self._set_dial)
        card.released.connect(self.desk.end_gesture)
        card.refused.connect(lambda text: self.desk.tell(text, "fault"))
        card.input_set.connect(self.set_input)
        card.renamed.connect(self.rename)
        card.opened_set.connect(self._open_dial)
        card.noted.connect(self._note)
        card.sectioned.connect(
            lambda name, section: self._change(tr("Name a section"), lambda r: edit.change(r, name, section=section))
        )
        card.section_noted.connect(
            lambda section, note: self._change(tr("Note on a section"), lambda r: edit.note_section(r, section, note))
        )
        card.fit_wanted.connect(self._fit_repeat)
        card.replaced.connect(
            lambda name, op: self._change(tr("Replace a step"), lambda r: edit.replace_operation(r, name, op))
        )
        card.done.connect(self._do)
        card.jumped.connect(self.choose)
        self.desk.build.recipe_ready.connect(self.show_picture)
        self.desk.build.variants_ready.connect(self._show_variants)

    # What is open ------------------------------------------------------------------------------------

    @property
    def opened(self) -> tuple[Surface, Layer, Recipe] | None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        recipe = recipe_intents.recipe_of(layer, self.desk.selection.recipe_rule)
        return (surface, layer, recipe) if surface is not None and layer is not None and recipe is not None else None

    def choose(self, name: str) -> None:
        self.selected = name
        self.desk.selection.recipe_step = name
        self.show_job(self.desk.job)
        self.board.reveal(name)
        self.desk.refresh()

    def show_job(self, _job: Job) -> None:
        opened = self.opened
        if opened is None:
            return
        surface, layer, recipe = opened
        if not any(step.name == self.selected for step in recipe.steps):
            self.selected = recipe.steps[-1].name if recipe.steps else ""
            self.desk.selection.recipe_step = self.selected
        self.left.show_recipe(
            surface,
            tr("{name}, where", name=layer.name) if self.desk.selection.recipe_rule else layer.name,
            recipe,
            self.selected,
        )
        self.board.show_recipe(recipe, self.selected)
        self.card.repeat = surface.width_mm, surface.height_mm
        self.card.show_step(recipe, self.selected)
        wanted = (recipe, surface.width_mm, surface.height_mm)
        if wanted != self._variants_of:
            self._variants_of = wanted
            self.desk.build.ask_variants()

    def show_picture(self, done: RecipePicture) -> None:
        faults = {name: tr(sentence(error)) for name, error in done.faults.items()}
        self.board.show_picture(done, faults)
        self.card.show_fault(faults.get(self.selected, ""))
        total = sum(done.costs.values())
        if done.costs:
            slowest = max(done.costs, key=done.costs.__getitem__)
            px = max(done.grid.shape)
            at_4096 = total * (4096 / px) ** 2 / 1000
            self.desk.tell(
                tr(
                    "whole recipe {total:.1f} ms at {px} px · 4096 px about {at_4096:.1f} s · "
                    "slowest {slowest} {costs:.1f} ms · at half resolution {half:.1f} ms",
                    total=total,
                    px=px,
                    at_4096=at_4096,
                    slowest=slowest,
                    costs=done.costs[slowest],
                    half=total / 4,
                )
            )

    def _show_variants(self, done: VariantPictures) -> None:
        if self.desk.selection.layer_id == done.layer:
            self.left.seeds.show_variants(done)

    # Changes -----------------------------------------------------------------------------------------

    def _change(self, label: str, make: Callable[[Recipe], Recipe], *, gesture: str = "") -> bool:
        opened = self.opened
        if opened is None:
            return False
        surface, layer, recipe = opened
        try:
            after = make(recipe)
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "caution" if isinstance(error, DoesNotFitError) else "fault")
            return False
        return after == recipe or self.desk.dispatch(
            recipe_intents.set_recipe(
                surface, layer, after, label, rule=self.desk.selection.recipe_rule, gesture=gesture
            )
        )

    def _named(self, label: str, make: Callable[[Recipe], tuple[Recipe, str]]) -> None:
        """A change that brings a step to be chosen."""
        made = ""

        def run(recipe: Recipe) -> Recipe:
            nonlocal made
            after, made = make(recipe)
            return after

        if self._change(label, run) and made:
            self.choose(made)

    def add(self, op: str) -> None:
        """A new step of an operation below the chosen one."""
        self._named(tr("Add a step"), lambda recipe: edit.add_step(recipe, op, after=self.selected))

    def remove(self, name: str) -> None:
        self._change(tr("Take out a step"), lambda recipe: edit.remove_step(recipe, name))

    def _name_field(self) -> None:
        self.card.name.setFocus()
        self.card.name.selectAll()

    def rename(self, name: str, wanted: str) -> None:
        if self._change(tr("Rename a step"), lambda recipe: edit.rename_step(recipe, name, wanted)):
            opened = self.opened
            if opened is not None and any(step.name == wanted.strip() for step in opened[2].steps):
                self.choose(wanted.strip())

    def set_input(self, name: str, slot: str, of: str) -> None:
        """Make a step from another one; where only a ramp is missing between, it is put in."""
        opened = self.opened
        if opened is None:
            return
        recipe = opened[2]
        step = edit.step_named(recipe, name)
        wanted = find(step.op).inputs.get(slot, "")
        if (
            wanted == "colour"
            and edit.kind_of(edit.step_named(recipe, of)) == "field"
            and edit.index_of(recipe, of) < edit.index_of(recipe, name)
        ):
            self._named(tr("Put a ramp between"), lambda r: edit.ramp_between(r, name, slot, of))
            self.desk.tell(tr("{of} is a field: a ramp was put between.", of=of))
            return
        self._change(tr("Make a step from another"), lambda r: edit.set_input(r, name, slot, of))

    def _set_dial(self, name: str, dial: str, value: Value) -> None:
        opened = self.opened
        if opened is None:
            return
        surface, layer, _ = opened
        if self.desk.selection.recipe_rule:
            self._change(
                tr("Set {dial}", dial=dial),
                lambda recipe: edit.set_dial(recipe, name, dial, value),
                gesture=f"{layer.id}-{name}-{dial}",
            )
            return
        self.desk.dispatch(
            surface_intents.set_step_value(surface, layer, name, dial, value, gesture=f"{layer.id}-{name}-{dial}")
        )

    def _open_dial(self, name: str, dial: str, on: bool) -> None:
        def run(recipe: Recipe) -> Recipe:
            opened = edit.step_named(recipe, name).opened
            return edit.change(recipe, name, opened=(*opened, dial) if on else tuple(d for d in opened if d != dial))

        self._change(tr("Show a dial on the layer's card") if on else tr("Take a dial off the layer's card"), run)

    def _note(self, name: str, text: str) -> None:
        opened = self.opened
        if opened is not None and any(step.name == name and step.note != text for step in opened[2].steps):
            self._change(tr("Note on a step"), lambda recipe: edit.change(recipe, name, note=text))

    def _do(self, name: str, what: str) -> None:
        if what == "remove":
            self.remove(name)
        elif what == "half":
            self._change(
                tr("Half resolution"),
                lambda recipe: edit.change(recipe, name, half=not edit.step_named(recipe, name).half),
            )
        elif what == "duplicate":
            self._named(tr("Duplicate a step"), lambda recipe: edit.duplicate_step(recipe, name))
        else:
            self._mute(name)

    def _mute(self, name: str) -> None:
        opened = self.opened
        if opened is None:
            return
        step = edit.step_named(opened[2], name)
        if not step.bypassed and not passed_on(step):
            self.desk.tell(tr("{name} has nothing to pass on; take it out instead.", name=name), "caution")
            self.card.shape = None
            self.show_job(self.desk.job)
            return
        self._change(
            tr("Bypass a step") if not step.bypassed else tr("Let a step work again"),
            lambda recipe: edit.change(recipe, name, bypassed=not step.bypassed),
        )

    def _fit_repeat(self, width_mm: float, height_mm: float) -> None:
        """The surface's repeat on which the chosen pattern closes unstretched."""
        opened = self.opened
        if opened is not None:
            self.desk.dispatch(surface_intents.set_repeat(opened[0], width_mm, height_mm, tr("Fit the repeat")))

    def _feed(self, kind: MapKind, name: str) -> None:
        self._change(tr("Feed a map"), lambda recipe: edit.set_yield(recipe, kind, name))

    def _take_seed(self, seed: int) -> None:
        self._change(tr("Take a variant"), lambda recipe: msgspec.structs.replace(recipe, seed=seed))

    def _to_section(self, id: str) -> None:
        opened = self.opened
        if opened is None:
            return
        names = list(dict.fromkeys(step.section for step in opened[2].steps))
        section = names[int(id[1:])]
        self.choose(next(step.name for step in opened[2].steps if step.section == section))

    # Copies and files --------------------------------------------------------------------------------

    def copy(self) -> None:
        """Keep the chosen step and what it is made from, to be pasted into this or another recipe."""
        opened = self.opened
        if opened is not None and self.selected:
            self.copied = edit.with_needs(opened[2], [self.selected])
            self.desk.tell(tr("{count} steps copied; paste them into any recipe.", count=len(self.copied)))

    def paste(self) -> None:
        if self.copied:
            self._named(
                tr("Paste steps"),
                lambda recipe: (lambda done: (done[0], done[1][-1]))(edit.paste_steps(recipe, self.copied)),
            )

    def _fill_stock(self) -> None:
        self.left.stock_menu.clear()
        for name in STOCK:
            action = self.left.stock_menu.addAction(theme.stock_icon(name), tr(name))
            if action:
                action.triggered.connect(lambda _checked=False, key=name: self.take_stock(key))

    def take_stock(self, name: str) -> None:
        """A stock recipe in this one's place."""
        if self._change(tr("Start from {name}", name=name), lambda _recipe: STOCK[name]()):
            self.selected = ""
            self.show_job(self.desk.job)

    def choose_import(self) -> None:
        dialog = self._dialog(tr("Import a recipe"))
        dialog.setFileMode(QFileDialog.FileMode.ExistingFile)
        if dialog.exec():
            self.import_from(Path(dialog.selectedFiles()[0]))

    def import_from(self, path: Path) -> None:
        """A recipe from a file in this one's place; what cannot be read is told."""
        try:
            file = recipe_intents.decode_recipe(read_file(path), path.name)
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "fault")
            return
        if self._change(tr("Import a recipe"), lambda _recipe: file.recipe):
            width, height = file.repeat_mm
            self.desk.tell(
                tr(
                    "{name} imported; it was made for a repeat of {width:g} × {height:g} mm.",
                    name=file.name,
                    width=width,
                    height=height,
                )
            )

    def choose_export(self) -> None:
        dialog = self._dialog(tr("Export the recipe"))
        dialog.setAcceptMode(QFileDialog.AcceptMode.AcceptSave)
        dialog.setDefaultSuffix("json")
        if dialog.exec():
            self.export_to(Path(dialog.selectedFiles()[0]))

    def export_to(self, path: Path) -> None:
        """Write this recipe as readable JSON."""
        opened = self.opened
        if opened is None:
            return
        surface, layer, recipe = opened
        try:
            write_atomically(
                path, recipe_intents.encode_recipe(layer.name, (surface.width_mm, surface.height_mm), recipe)
            )
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "fault")
            return
        self.desk.tell(tr("Wrote {name}.", name=path.name))

    def _dialog(self, title: str) -> QFileDialog:
        dialog = QFileDialog(self.board, title)
        dialog.setNameFilter(tr("Recipes (*.json)"))
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        return dialog
