"""What the parts of a layer's card share: forms of settings that know where in the layer they lie."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Any

from PyQt6.QtWidgets import QHBoxLayout, QLabel, QWidget

from ....core.buildup.form_rows import Change
from ....core.job.commands import fetch
from ....core.job.layers import Layer
from ....core.operation import Param, Value
from ....engine.intents import layers as layer_intents
from ... import theme
from ...controls.form import OperationForm, control_for
from ...controls.panels import Column, Section, words
from ...desk import Desk
from ...words import tr

Values = Callable[[Layer], dict[str, Any]]
Fill = Callable[[Section], object]


class LayerForms(Column):
    """A column of forms for one layer. Every form writes to its own place in the layer."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(tr("Layer"))
        self.desk = desk
        self._forms: list[tuple[OperationForm, Values]] = []
        self._folded: dict[Section, Fill] = {}
        self.fields: list[tuple[Any, Callable[[Layer], Any]]] = []
        self.told: list[tuple[Callable[[str], object], Callable[[Layer], str]]] = []
        self.shows: list[Callable[[Layer], object]] = []
        self.unfolded: set[str] = set()
        self.shown_id = ""
        self.built_count = 0

    @property
    def forms(self) -> list[tuple[OperationForm, Values]]:
        """Every form of the card, those of folded parts too."""
        self.fill_all()
        return self._forms

    # Forms of declared settings ------------------------------------------------------------------

    def setting_form(self, layer: Layer, where: tuple[str, ...], *, only: Iterable[str] | None = None) -> OperationForm:
        """The form of a setting at a place within the layer, such as ``("seat",)``."""
        setting = fetch(layer, where)
        form = OperationForm(setting.op, setting.values, only=None if only is None else tuple(only))
        form.changed.connect(lambda name, value: self.set_setting(where, name, value))
        return self.keep_form(form, lambda shown: dict(fetch(shown, where).values))

    def keep_form(self, form: OperationForm, values: Values) -> OperationForm:
        form.released.connect(self.desk.end_gesture)
        form.refused.connect(lambda text: self.desk.tell(text, "fault"))
        self._forms.append((form, values))
        return form

    def field(self, param: Param, value: Value, where: tuple[str, ...], *, label: str = "") -> QWidget:
        """One control for a plain value at a place within the layer."""
        control = control_for(param, value)
        told = label or tr("Set {label}", label=tr(param.label).lower())
        control.changed.connect(lambda v: self.put(where, v, told, gesture=f"{self.desk.selection.layer_id}-{where}"))
        control.released.connect(self.desk.end_gesture)
        if hasattr(control, "refused"):
            control.refused.connect(lambda text: self.desk.tell(text, "fault"))
        self.fields.append((control, lambda shown: fetch(shown, where)))
        return control  # type: ignore[no-any-return]

    def section(self, title: str, note: str = "", fill: Fill | None = None) -> Section:
        """A part that folds, and stays as it was left when the card is built anew. It is filled when it is unfolded
        first: most never are, and another layer would be waited for.
        """
        made = Section(title, note, unfolded=title in self.unfolded)
        made.head.toggled.connect(lambda on: self.unfolded.add(title) if on else self.unfolded.discard(title))
        self.add(made)
        if fill is not None:
            self._folded[made] = fill
            made.head.toggled.connect(lambda _on: self._fill(made))
            if title in self.unfolded:
                self._fill(made)
        return made

    def _fill(self, part: Section) -> None:
        fill = self._folded.pop(part, None)
        if fill is None:
            return
        fill(part)
        layer = self.desk.selection.layer
        if layer is not None and layer.id == self.shown_id:
            self.show_values(layer)

    def fill_all(self) -> None:
        """Fill the parts that are still folded."""
        for part in list(self._folded):
            self._fill(part)

    def tell(self, show: Callable[[str], object], read: Callable[[Layer], str]) -> None:
        """Words that follow the layer while its controls stay: a card built anew would take a scale from under the
        hand.
        """
        self.told.append((show, read))

    def telling(self, read: Callable[[Layer], str]) -> QLabel:
        """A note that follows the layer; nothing to say hides it."""
        label = words("")

        def show(text: str) -> None:
            label.setText(text)
            label.setVisible(bool(text))

        self.tell(show, read)
        return label

    def show_values(self, layer: Layer) -> None:
        """Show the layer's values; sends nothing."""
        for form, values in self._forms:
            form.show_values(values(layer))
        for control, read in self.fields:
            control.show_value(read(layer))
        for show, say in self.told:
            show(say(layer))
        for show_layer in self.shows:
            show_layer(layer)

    # Intents -------------------------------------------------------------------------------------

    def set_setting(self, where: tuple[str, ...], name: str, value: Any) -> None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        if surface and layer:
            self.desk.dispatch(layer_intents.set_setting(surface, layer, where, name, value))

    def change(self, change: Change | None) -> bool:
        """Carry out what a row changes of the present layer."""
        return change is not None and self.put(change.where, change.value, tr(change.label), gesture=change.gesture)

    def put(self, where: tuple[str, ...], value: Any, label: str, *, gesture: str = "") -> bool:
        """Put a value at a place within the layer."""
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        return bool(
            surface
            and layer
            and self.desk.dispatch(layer_intents.set_in_layer(surface, layer, where, value, label, gesture=gesture))
        )


def line(*widgets: tuple[QWidget, int]) -> QWidget:
    """Widgets beside each other with their stretch."""
    row = QWidget()
    made = QHBoxLayout(row)
    made.setContentsMargins(0, 0, 0, 0)
    made.setSpacing(theme.px(4))
    for widget, stretch in widgets:
        made.addWidget(widget, stretch)
    return row
