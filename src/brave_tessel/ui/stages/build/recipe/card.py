"""The card of a step: what it is made from, its dials, who uses it, a note."""

from __future__ import annotations

from functools import partial
from typing import Any

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QGridLayout, QHBoxLayout, QLabel, QLineEdit, QMenu, QPushButton, QWidget

from .....core.job.layers import Recipe, Step
from .....core.maps import TRAITS
from .....core.operation import REGISTRY
from .....core.quantity import format_size
from .....core.recipe.closing import closing
from .....core.recipe.edit import FAMILIES, candidates, may_be_half, step_operations, users
from .... import theme
from ....controls.form import OperationForm
from ....controls.lettered import Lines
from ....controls.panels import Column, Heading, button, words
from ....words import tr, tr_count
from ..layer_forms import line

_FAMILY_WORDS = {
    "noise": "Noise",
    "marks": "Marks",
    "pattern": "Pattern",
    "piece": "Pieces",
    "adjust": "Adjust",
    "blur": "Blur and sharpen",
    "move": "Move",
    "form": "Form",
    "combine": "Combine",
    "colour": "Colour",
    "relief": "Relief",
    "source": "Source",
}


def fill_operations(menu: QMenu, take: Any) -> None:
    """Every operation that can be a step, by family."""
    menu.clear()
    for family in FAMILIES:
        part = menu.addMenu(_FAMILY_WORDS[family])
        assert part is not None
        for operation in (op for op in step_operations() if op.family == family):
            action = part.addAction(tr(operation.label))
            if action:
                action.triggered.connect(lambda _checked=False, op=operation.id: take(op))


def _shape(recipe: Recipe, step: Step) -> tuple[Any, ...]:
    """What the card's make-up hangs on: the step but for its values, who uses it, which maps it feeds."""
    around = tuple((s.name, s.op, tuple(s.made_from.values())) for s in recipe.steps)
    feeds = tuple(sorted(kind.value for kind, name in recipe.yields.items() if name == step.name))
    own = (step.name, step.op, tuple(step.made_from), step.bypassed, step.half, step.section, step.note)
    return (own, feeds, dict(recipe.notes), around)


class StepCard(Column):
    """Rebuilt when another step is chosen or its shape changes; otherwise only values are shown."""

    dial_set = pyqtSignal(str, str, object)
    released = pyqtSignal()
    refused = pyqtSignal(str)
    input_set = pyqtSignal(str, str, str)
    renamed = pyqtSignal(str, str)
    opened_set = pyqtSignal(str, str, bool)
    noted = pyqtSignal(str, str)
    sectioned = pyqtSignal(str, str)
    section_noted = pyqtSignal(str, str)
    fit_wanted = pyqtSignal(float, float)
    replaced = pyqtSignal(str, str)
    done = pyqtSignal(str, str)
    jumped = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__(tr("Step"))
        self.shape: Any = None
        self.shown = Step(name="", op="")
        self.form: OperationForm | None = None
        self.inputs: dict[str, QComboBox] = {}
        self.opened: dict[str, QPushButton] = {}
        self.notes: dict[str, str] = {}
        self.repeat: tuple[float, float] | None = None
        self.closing: QLabel | None = None
        self.fit = button(tr("Fit the repeat"), lambda: None)
        self.name = QLineEdit()
        self.fault = words("", "fault")

    def show_step(self, recipe: Recipe, name: str) -> None:
        """Show a step of a recipe, or what to do without one."""
        step = next((step for step in recipe.steps if step.name == name), None)
        shape = _shape(recipe, step) if step else None
        if shape != self.shape or step is None:
            self.shape = shape
            self.notes = recipe.notes
            self._build(recipe, step)
            self.focus_again()
        elif self.form is not None:
            self.form.show_values(step.values)
        if step is not None:
            self._show(recipe, step)

    def show_fault(self, text: str) -> None:
        self.fault.setText(text)
        self.fault.setVisible(bool(text))

    def _show(self, recipe: Recipe, step: Step) -> None:
        for slot, box in self.inputs.items():
            box.setCurrentIndex(box.findText(step.made_from.get(slot, "")))
        for dial, switch in self.opened.items():
            switch.setChecked(dial in step.opened)
        self._show_closing(step)
        assert recipe.steps

    def _build(self, recipe: Recipe, step: Step | None) -> None:
        self.empty()
        self.form, self.inputs, self.opened, self.closing = None, {}, {}, None
        self.fault = words("", "fault")
        if step is None:
            self.add(words(tr("No step"), "title"))
            self.add(words(tr("Type in the line above the steps what you need, such as cracks.")))
            return
        operation = REGISTRY.get(step.op)
        self.name = QLineEdit(step.name)
        self.name.setObjectName("title")
        self.name.setAccessibleName(tr("Name of the step"))
        self.name.editingFinished.connect(lambda: self._renamed(step.name))
        self.add(self.name)
        self.add(
            words(f"{tr(operation.label)} · {tr(operation.summary)}" if operation else tr("made by another version"))
        )
        self.add(self.fault)
        self.fault.hide()
        if step.made_from:
            self.add(Heading(tr("Made from"), tr_count(len(step.made_from), "{n} result", "{n} results")))
            for slot in step.made_from:
                self.add(self._input(recipe, step, slot))
        if operation is not None and operation.params:
            self._build_dials(step)
        self._build_users(recipe, step)
        self._build_buttons(step)
        self._build_note(step)

    def _input(self, recipe: Recipe, step: Step, slot: str) -> QWidget:
        row = QWidget()
        beside = QHBoxLayout(row)
        beside.setContentsMargins(0, 0, 0, 0)
        beside.addWidget(QLabel(tr(slot.replace("_", " "))), 1)
        box = QComboBox()
        box.setAccessibleName(tr("Made from, {slot}", slot=slot))
        box.setMinimumContentsLength(12)
        box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        for name in candidates(recipe, step.name, slot):
            box.addItem(name)
        box.activated.connect(lambda _index, key=slot, b=box: self.input_set.emit(step.name, key, b.currentText()))
        self.inputs[slot] = box
        beside.addWidget(box)
        return row

    def _build_dials(self, step: Step) -> None:
        self.add(Heading(tr("Dials")))
        self.form = OperationForm(step.op, step.values)
        self.form.changed.connect(lambda dial, value: self.dial_set.emit(step.name, dial, value))
        self.form.released.connect(self.released)
        self.form.refused.connect(self.refused)
        self.add(self.form)
        self._build_closing(step)
        self.add(Heading(tr("Show on the layer's card")))
        holder = QWidget()
        grid = QGridLayout(holder)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(theme.px(4))
        for index, (dial, param) in enumerate(REGISTRY[step.op].params.items()):
            switch = QPushButton(tr(param.label))
            switch.setCheckable(True)
            switch.setAccessibleName(tr("Show {label} on the layer's card", label=tr(param.label)))
            switch.clicked.connect(lambda on, key=dial: self.opened_set.emit(step.name, key, on))
            grid.addWidget(switch, index // 2, index % 2)
            self.opened[dial] = switch
        self.add(holder)

    def _build_closing(self, step: Step) -> None:
        """How a pattern closes on the repeat, and the button for the repeat that fits it."""
        if self.repeat is None or closing(step.op, step.values, *self.repeat) is None:
            return
        self.closing = words("")
        self.fit = button(
            tr("Fit the repeat"),
            lambda: None,
            tip=tr("Gives the surface the nearest repeat on which the pattern closes as it is asked"),
        )
        self.fit.clicked.connect(self._fit)
        self.add(self.closing)
        self.add(self.fit)

    def _show_closing(self, step: Step) -> None:
        if self.closing is None or self.repeat is None:
            return
        self.shown = step
        found = closing(step.op, step.values, *self.repeat)
        assert found is not None
        count = " × ".join(str(n) for n in (found.across, found.up) if n)
        told = (
            tr("without stretching")
            if found.fits
            else tr(
                "stretched by {names}", names=" and ".join(f"{100 * s:+.1f} %" for s in found.stretch if abs(s) > 5e-4)
            )
        )
        self.closing.setText(
            tr(
                "Closes in {count} whole repeats, {told}; {size} fits.",
                count=count,
                told=told,
                size=format_size(*found.fitting),
            )
        )
        self.fit.setEnabled(not found.fits)

    def _fit(self) -> None:
        found = closing(self.shown.op, self.shown.values, *self.repeat) if self.repeat else None
        if found is not None:
            self.fit_wanted.emit(*found.fitting)

    def _build_users(self, recipe: Recipe, step: Step) -> None:
        using = users(recipe, step.name)
        maps = [tr(TRAITS[kind].label).lower() for kind, name in recipe.yields.items() if name == step.name]
        self.add(Heading(tr("Used by"), tr_count(len(using), "{n} step", "{n} steps")))
        for name in using:
            self.add(button(name, partial(self.jumped.emit, name), tip=tr("Goes to that step")))
        if maps or not using:
            self.add(
                words(
                    tr("Feeds {names}.", names=", ".join(maps))
                    if maps
                    else tr("Nothing is made from it; it costs nothing.")
                )
            )

    def _build_buttons(self, step: Step) -> None:
        other = button(tr("Replace…"), lambda: None, tip=tr("Another operation in its place; what fits is kept"))
        menu = QMenu(other)
        menu.aboutToShow.connect(lambda: fill_operations(menu, partial(self.replaced.emit, step.name)))
        other.setMenu(menu)
        bypass = button(
            tr("Bypass"),
            lambda: self.done.emit(step.name, "bypass"),
            tip=tr("Stays in its place and passes on what it is made from"),
        )
        bypass.setCheckable(True)
        bypass.setChecked(step.bypassed)
        twice = button(
            "", lambda: self.done.emit(step.name, "duplicate"), icon="copy", tip=tr("Duplicate the step (Ctrl+D)")
        )
        out = button("", lambda: self.done.emit(step.name, "remove"), icon="trash", tip=tr("Take the step out (Del)"))
        twice.setAccessibleName(tr("Duplicate the step"))
        out.setAccessibleName(tr("Take the step out"))
        half = button(
            tr("½ resolution"),
            lambda: self.done.emit(step.name, "half"),
            tip=tr("Works it out at half resolution: quicker, softer"),
        )
        half.setCheckable(True)
        half.setChecked(step.half)
        half.setEnabled(may_be_half(step))
        half.setAccessibleName(tr("Half resolution"))
        for row in (((other, 1), (bypass, 1)), ((half, 1), (twice, 0), (out, 0))):
            self.add(line(*row))

    def _build_note(self, step: Step) -> None:
        self.add(Heading(tr("Note")))
        note = Lines(step.note)
        note.setAccessibleName(tr("Note on the step"))
        note.setFixedHeight(theme.px(64))
        note.left.connect(lambda text: self.noted.emit(step.name, text))
        self.add(note)
        row = QWidget()
        beside = QHBoxLayout(row)
        beside.setContentsMargins(0, 0, 0, 0)
        beside.addWidget(QLabel(tr("Section")), 1)
        section = QLineEdit(step.section)
        section.setAccessibleName(tr("Section of the step"))
        section.setToolTip(tr("Steps of the same section stand under one heading"))
        section.textEdited.connect(lambda _text: section.setProperty("typed", True))
        section.editingFinished.connect(lambda: self._sectioned(step.name, section))
        beside.addWidget(section)
        self.add(row)
        if step.section:
            about = Lines(self.notes.get(step.section, ""))
            about.setAccessibleName(tr("Note on the section"))
            about.setPlaceholderText(tr("Note on the section"))
            about.setFixedHeight(theme.px(44))
            about.left.connect(lambda text: self.section_noted.emit(step.section, text))
            self.add(about)
        self.column.addStretch(1)

    def _sectioned(self, name: str, field: QLineEdit) -> None:
        if field.property("typed"):
            field.setProperty("typed", False)
            self.sectioned.emit(name, field.text().strip())

    def _renamed(self, name: str) -> None:
        if self.name.isModified():
            self.name.setModified(False)
            self.renamed.emit(name, self.name.text())
