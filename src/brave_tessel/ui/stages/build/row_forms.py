"""Makes controls of the rows that a kind of layer declares; see ``core/buildup/form_rows``."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QLabel, QWidget

from ....core.buildup import form_rows as rows
from ....core.job.commands import fetch
from ....core.job.layers import Layer, Surface
from ....core.job.nodes import Setting
from ....core.operation import Value, family
from ....engine.intents import surfaces as surface_intents
from ....engine.workers import Current
from ...controls.form import OperationForm
from ...controls.panels import Section, button, words
from ...words import tr
from .layer_forms import LayerForms, line

Put = Callable[[QWidget], None]


class RowForms(LayerForms):
    """Adds the rows of a kind. ``asked`` says what a button wants of the window, and about what."""

    asked = pyqtSignal(str, str)
    brush_wanted = pyqtSignal()

    def add_rows(self, surface: Surface, layer: Layer, declared: rows.FormRow, put: Put) -> None:
        """One declared row as controls, put where they belong."""
        make: dict[type, Callable[..., QWidget | None]] = {
            rows.Note: self._note,
            rows.Title: self._title,
            rows.Dials: self._dials,
            rows.LentDials: self._lent,
            rows.StepDials: self._step,
            rows.Field: self._field,
            rows.Choose: self._choose,
            rows.Flag: self._flag,
            rows.Act: self._act,
            rows.Offer: self._offer,
            rows.Beside: self._beside,
            rows.Part: self._part,
            rows.Brush: self._brush,
            rows.Found: self._found,
        }
        made = make[type(declared)](surface, layer, declared)
        if made is not None:
            put(made)

    def put_below(self, widget: QWidget) -> None:
        """Put a widget at the end of the card."""
        self.add(widget)

    def _text(self, surface: Surface, text: rows.Text, layer: Layer) -> str:
        return tr(text if isinstance(text, str) else text(surface, layer))

    def _note(self, surface: Surface, layer: Layer, row: rows.Note) -> QWidget:
        label = words(self._text(surface, row.text, layer), row.tone)
        if not isinstance(row.text, str):
            read = row.text

            def show(text: str) -> None:
                label.setText(tr(text))
                label.setVisible(bool(text))

            self.tell(show, lambda shown: read(self.desk.selection.surface or surface, shown))
        return label

    def _title(self, _surface: Surface, _layer: Layer, row: rows.Title) -> QWidget:
        return words(tr(row.text))

    def _dials(self, _surface: Surface, layer: Layer, row: rows.Dials) -> QWidget:
        return self.setting_form(layer, row.where, only=row.only)

    def _lent(self, _surface: Surface, layer: Layer, row: rows.LentDials) -> QWidget:
        form = OperationForm(row.op, row.values(self.desk.job, layer), only=row.only)

        def changed(name: str, value: Value) -> None:
            present = self.desk.selection.layer
            if present is not None:
                self.change(row.put(self.desk.job, present, name, value))

        form.changed.connect(changed)
        return self.keep_form(form, lambda shown: row.values(self.desk.job, shown))

    def _step(self, _surface: Surface, layer: Layer, row: rows.StepDials) -> QWidget:
        form = OperationForm(row.op, step_values(layer, row.step), only=row.only)
        form.changed.connect(partial(self._set_step, row.step))
        return self.keep_form(form, lambda shown: step_values(shown, row.step))

    def _set_step(self, step: str, name: str, value: Any) -> None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        if surface and layer:
            gesture = f"{layer.id}-{step}-{name}"
            self.desk.dispatch(surface_intents.set_step_value(surface, layer, step, name, value, gesture=gesture))

    def _field(self, _surface: Surface, layer: Layer, row: rows.Field) -> QWidget:
        return self.field(row.param, fetch(layer, row.where), row.where, label=tr(row.label))

    def _choose(self, _surface: Surface, layer: Layer, row: rows.Choose) -> QWidget:
        box = QComboBox()
        box.setAccessibleName(tr(row.title))
        for operation in family(row.family):
            box.addItem(tr(operation.label), operation.id)
        box.setCurrentIndex(box.findData(fetch(layer, row.where).op))
        box.activated.connect(lambda _i: self.put(row.where, Setting(op=str(box.currentData())), tr(row.label)))
        return line((QLabel(tr(row.title)), 1), (box, 0))

    def _flag(self, _surface: Surface, layer: Layer, row: rows.Flag) -> QWidget:
        on = bool(fetch(layer, row.where))
        made = button(
            tr(row.title if on or not row.otherwise else row.otherwise), lambda: self._turn(row), tip=tr(row.tip)
        )
        if not row.otherwise:
            made.setCheckable(True)
            made.setChecked(on)
        self.tell(
            made.setText, lambda shown: tr(row.title if fetch(shown, row.where) or not row.otherwise else row.otherwise)
        )
        return made

    def _turn(self, row: rows.Flag) -> None:
        layer = self.desk.selection.layer
        if layer is not None:
            self.put(row.where, not fetch(layer, row.where), tr(row.label))

    def _act(self, _surface: Surface, _layer: Layer, row: rows.Act) -> QWidget:
        return button(tr(row.title), lambda: self._carry_out(row), tip=tr(row.tip))

    def _carry_out(self, row: rows.Act) -> None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        if row.change is None:
            self.asked.emit(row.asks, row.about)
        elif surface is not None and layer is not None:
            self.change(row.change(self.desk.job, surface, layer))

    def _offer(self, _surface: Surface, _layer: Layer, row: rows.Offer) -> QWidget:
        box = QComboBox()
        box.setAccessibleName(tr(row.title))
        box.addItem(f"{tr(row.title)}…", "")
        for operation in family(row.family):
            box.addItem(tr(operation.label), operation.id)

        def add(_index: int) -> None:
            layer = self.desk.selection.layer
            if layer is not None and box.currentData():
                self.change(row.add(layer, str(box.currentData()), box.currentText()))

        box.activated.connect(add)
        return box

    def _beside(self, surface: Surface, layer: Layer, row: rows.Beside) -> QWidget:
        made: list[QWidget] = []
        for inner in row.rows:
            self.add_rows(surface, layer, inner, made.append)
        return line(*((widget, 1) for widget in made))

    def _part(self, surface: Surface, layer: Layer, row: rows.Part) -> None:
        def fill(part: Section) -> None:
            for inner in row.rows:
                self.add_rows(surface, layer, inner, part.add)

        part = self.section(tr(row.title), self._text(surface, row.note, layer), fill)
        if not isinstance(row.note, str):
            note = row.note
            self.tell(part.say, lambda shown: tr(note(self.desk.selection.surface or surface, shown)))

    def _brush(self, _surface: Surface, _layer: Layer, _row: rows.Brush) -> None:
        self.brush_wanted.emit()

    def _found(self, surface: Surface, layer: Layer, row: rows.Found) -> QWidget:
        """A sentence that is worked out off the window's thread; a card built anew meanwhile asks again."""
        label = words(tr(row.waiting))
        snapshot = self.desk.session.snapshot()

        def work(current: Current) -> str:
            task = row.plan(snapshot.planner(), surface, layer)
            return row.read(snapshot.evaluation(current).value(task)) if task is not None else ""

        built = self.built_count

        def show(text: str) -> None:
            if self.built_count == built:
                label.setText(tr(text))

        self.desk.work.ask("found", work, show)
        return label


def step_values(layer: Layer, name: str) -> dict[str, Value]:
    """The values of a step of a layer's recipe."""
    recipe = layer.what.made_of_recipe()
    return next((dict(step.values) for step in (recipe.steps if recipe else ()) if step.name == name), {})
