"""The card of a layer: What, Where, How it sits."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QInputDialog, QLabel, QMenu, QPushButton, QToolButton, QWidget

from ...core.buildup.where import MODES
from ...core.commands import Remove, Set
from ...core.document import Layer, PlainWhat, RecipeWhat, Rule, SourceWhat, Surface, replace_values
from ...core.maps import LAYERED, TRAITS, MapKind
from ...core.operation import REGISTRY, Fraction, Length, Param, Whole, family
from ...engine import intents
from .. import theme
from ..controls.choices import PaintField
from ..controls.form import OperationForm
from ..controls.panels import Column, Heading, button, words
from ..controls.ruled_scale import RuledScale
from ..desk import Desk

_SHORT = {
    MapKind.BASE_COLOUR: "Colour", MapKind.HEIGHT: "Height", MapKind.ROUGHNESS: "Rough", MapKind.METALNESS: "Metal",
}  # fmt: skip


class LayerCard(Column):
    """Rebuilt when another layer is chosen or its shape changes; otherwise only its values are shown."""

    paint_toggled = pyqtSignal(bool)
    brush_sized = pyqtSignal(object)
    recipe_wanted = pyqtSignal(str)

    def __init__(self, desk: Desk) -> None:
        super().__init__("Layer")
        self.desk = desk
        self.forms: list[tuple[OperationForm, Any]] = []
        self.shape: Any = None
        self.brush: RuledScale | None = None
        self.hardness: RuledScale | None = None
        self.paint_button: QPushButton | None = None
        self.erase_button: QPushButton | None = None
        self.stroke_counts: dict[str, QLabel] = {}
        self.fault = words("", "fault")

    # Which layer ---------------------------------------------------------------------------------

    def show_layer(self, surface: Surface | None, layer: Layer | None) -> None:
        """Show a layer, or what to do when there is none."""
        shape = self._shape(surface, layer)
        if shape != self.shape:
            self.shape = shape
            self._build(surface, layer)
        if layer is not None:
            for form, values in self.forms:
                form.show_values(values(layer))
            for rule in layer.where:
                if rule.id in self.stroke_counts:
                    count = len(rule.strokes)
                    self.stroke_counts[rule.id].setText(f"Painted, {count} stroke{'' if count == 1 else 's'}")

    def _shape(self, surface: Surface | None, layer: Layer | None) -> Any:
        if surface is None or layer is None:
            return None
        steps = tuple((s.name, s.op, s.opened) for s in layer.what.recipe.steps) if isinstance(layer.what, RecipeWhat) else ()
        rules = tuple((rule.id, rule.mode, rule.rule.op) for rule in layer.where)
        number = surface.layers.index(layer) if layer in surface.layers else 0
        return (
            surface.id, layer.id, layer.name, type(layer.what), steps, rules, layer.maps, number, len(surface.layers),
            getattr(layer.what, "across", 0), getattr(layer.what, "up", 0), self._own_maps(layer),
        )  # fmt: skip

    def _own_maps(self, layer: Layer) -> tuple[bool, ...]:
        if not isinstance(layer.what, SourceWhat):
            return ()
        source = self.desk.job.source(layer.what.source)
        return source.brings("height"), source.brings("roughness")

    def _build(self, surface: Surface | None, layer: Layer | None) -> None:
        self.empty()
        self.forms = []
        self.stroke_counts = {}
        self.brush = self.hardness = self.paint_button = self.erase_button = None
        self.fault = words("", "fault")
        if surface is None or layer is None:
            self.add(words("No layer", "title"))
            self.add(words("Lay something on at the left."))
            return
        self.add(words(layer.name, "title"))
        number = surface.layers.index(layer) + 1
        self.add(words(f"layer {number} of {len(surface.layers)}, counted from the bottom"))
        self.add(self.fault)
        self.fault.hide()
        self._build_what(surface, layer)
        self._build_where(surface, layer)
        self._build_seat(surface, layer)

    def show_fault(self, text: str) -> None:
        """What went wrong in this layer, in one sentence."""
        self.fault.setText(text)
        self.fault.setVisible(bool(text))

    # What ----------------------------------------------------------------------------------------

    def _build_what(self, surface: Surface, layer: Layer) -> None:
        what = layer.what
        notes = {PlainWhat: "plain", RecipeWhat: "recipe", SourceWhat: "source, estimated"}
        self.add(Heading("What", notes[type(what)]))
        self._build_map_switches(surface, layer)
        if isinstance(what, RecipeWhat):
            self.add(button("Open the recipe", lambda: self.recipe_wanted.emit(""), tip="Its steps, one by one (E)"))
            some = any(step.opened for step in what.recipe.steps)
            for step in what.recipe.steps:
                operation = REGISTRY.get(step.op)
                if (some and not step.opened) or (operation is not None and not operation.params):
                    continue
                self.add(words(f"{step.name} · {operation.label.lower() if operation else 'unknown'}"))
                form = OperationForm(step.op, step.values, only=step.opened if some else None)
                form.changed.connect(lambda name, value, key=step.name: self._set_step(key, name, value))
                self._add_form(form, lambda shown, key=step.name: _step_values(shown, key))
        elif isinstance(what, SourceWhat):
            self._build_counts(surface, layer, what)
            self._build_estimates(what)
        else:
            self._build_plain(surface, layer, what)

    def _build_plain(self, surface: Surface, layer: Layer, what: PlainWhat) -> None:
        path = ("surfaces", surface.id, "layers", layer.id, "what")
        colour = PaintField(Param("colour", help="Colour of the layer.", label="Colour"), what.colour)
        colour.changed.connect(
            lambda value: self.desk.dispatch(Set(path=(*path, "colour"), value=value, label="Set colour", gesture="plain"))
        )
        colour.released.connect(self.desk.end_gesture)
        self.add(colour)

    def _build_estimates(self, what: SourceWhat) -> None:
        """What is estimated from the source's picture; the layer's own values override the source's."""
        source = self.desk.job.source(what.source)
        for part in ("height", "roughness"):
            own = source.brings(part)
            self.add(words(f"{part} · {'its own map' if own else 'estimated from the picture'}"))
            if own and part == "roughness":
                continue
            setting = getattr(what, part) or getattr(source, part)
            form = OperationForm(setting.op, setting.values, only=("rise",) if own else None)
            form.changed.connect(lambda name, value, key=part: self._set_estimate(key, name, value))
            self._add_form(form, lambda shown, key=part, of=source: (getattr(shown.what, key) or getattr(of, key)).values)

    def _build_counts(self, surface: Surface, layer: Layer, what: SourceWhat) -> None:
        path = ("surfaces", surface.id, "layers", layer.id, "what")
        for name, label, value in (("across", "Repeats across", what.across), ("up", "Repeats up", what.up)):
            param = replace(Whole(1, 12, most=64, unit="×", help="Whole repeats of the source in this surface."), label=label, default=1)
            scale = RuledScale(param, value)
            scale.changed.connect(
                lambda count, key=name: self.desk.dispatch(
                    Set(path=(*path, key), value=count, label="Set repeats", gesture=f"count-{key}")
                )
            )
            scale.released.connect(self.desk.end_gesture)
            self.add(scale)

    def _build_map_switches(self, surface: Surface, layer: Layer) -> None:
        holder = QWidget()
        grid = QGridLayout(holder)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(theme.px(4))
        path = ("surfaces", surface.id, "layers", layer.id, "maps")
        for index, kind in enumerate(LAYERED):
            switch = QPushButton(_SHORT[kind])
            switch.setCheckable(True)
            switch.setChecked(kind in layer.maps)
            switch.setToolTip(f"Whether this layer changes the {TRAITS[kind].label.lower()} map")
            switch.setAccessibleName(f"Map {_SHORT[kind]}")
            switch.clicked.connect(
                lambda on, key=kind: self.desk.dispatch(
                    Set(path=path, value=layer.maps | {key} if on else layer.maps - {key},
                        label=f"Switch {_SHORT[key].lower()} {'on' if on else 'off'}")
                )
            )  # fmt: skip
            grid.addWidget(switch, 0, index)
        self.add(holder)

    # Where ---------------------------------------------------------------------------------------

    def _build_where(self, surface: Surface, layer: Layer) -> None:
        count = len(layer.where)
        self.add(Heading("Where", "everywhere" if not count else f"{count} rule{'s' if count > 1 else ''}"))
        for rule in layer.where:
            self._build_rule(surface, layer, rule)
        add = button("Add a rule", lambda: None, icon="plus", tip="Where the layer lies: noise, by height, or painted")
        menu = QMenu(add)
        for operation in family("where"):
            action = menu.addAction(operation.label)
            if action:
                action.triggered.connect(lambda _checked=False, op=operation.id: self._add_rule(op))
        add.setMenu(menu)
        self.add(add)

    def _build_rule(self, surface: Surface, layer: Layer, rule: Rule) -> None:
        path = ("surfaces", surface.id, "layers", layer.id, "where", rule.id)
        row = QWidget()
        line = QHBoxLayout(row)
        line.setContentsMargins(0, 0, 0, 0)
        line.setSpacing(theme.px(6))
        mode = button(rule.mode, lambda: self._next_mode(path, rule), tip="keep: only there · add: there too · cut: not there; click to change")
        mode.setFixedWidth(theme.px(52))
        mode.setAccessibleName(f"Rule mode {rule.mode}")
        operation = REGISTRY.get(rule.rule.op)
        label = operation.label if operation else rule.rule.op
        line.addWidget(mode)
        name = words(label, "section")
        if rule.rule.op == "where.painted":
            self.stroke_counts[rule.id] = name
        line.addWidget(name, 1)
        remove = QToolButton()
        remove.setObjectName("flat")
        remove.setIcon(theme.tinted("x", "ink_2", 14))
        remove.setToolTip("Take this rule out")
        remove.setAccessibleName(f"Remove rule {label}")
        remove.clicked.connect(lambda: self.desk.dispatch(Remove(path=path, label="Take out a rule")))
        line.addWidget(remove)
        self.add(row)
        if rule.rule.op == "where.painted":
            self._build_brush()
            return
        if rule.recipe is not None:
            self.add(button("Open the rule's recipe", lambda: self.recipe_wanted.emit(rule.id), tip="The steps whose opacity is the cover"))
            return
        form = OperationForm(rule.rule.op, rule.rule.values)
        form.changed.connect(lambda name, value, key=rule.id: self._set_rule(key, name, value))
        self._add_form(form, lambda shown, key=rule.id: _rule_values(shown, key))

    def _build_brush(self) -> None:

        row = QWidget()
        line = QHBoxLayout(row)
        line.setContentsMargins(0, 0, 0, 0)
        self.paint_button = button("Paint", self._toggle_paint, icon="brush", tip="Paint on the board (B); wraps over every edge")
        self.paint_button.setCheckable(True)
        self.erase_button = button("Erase", lambda: None, tip="Paint the cover away instead (X)")
        self.erase_button.setCheckable(True)
        line.addWidget(self.paint_button, 1)
        line.addWidget(self.erase_button, 1)
        self.add(row)
        size = replace(Length(1, 500, log=True, least=0.2, most=5000, help="Width of the brush; [ and ] on the board."), label="Brush", default=40.0)
        self.brush = RuledScale(size, 40.0)
        self.brush.changed.connect(self.brush_sized)

        hard = replace(Fraction(help="0 a soft brush, 1 a hard edge."), label="Hardness", default=0.5)
        self.hardness = RuledScale(hard, 0.5)
        self.add(self.brush)
        self.add(self.hardness)

    def _toggle_paint(self) -> None:
        if self.paint_button:
            self.paint_toggled.emit(self.paint_button.isChecked())

    # How it sits ---------------------------------------------------------------------------------

    def _build_seat(self, surface: Surface, layer: Layer) -> None:
        first = surface.layers[0].id == layer.id
        self.add(Heading("How it sits", "nothing beneath" if first else "by height"))
        if first:
            self.add(words("The lowest layer is the ground the others meet."))
            return
        form = OperationForm(layer.seat.op, layer.seat.values)
        form.changed.connect(lambda name, value: self._set_at(("seat",), name, value))
        self._add_form(form, lambda shown: shown.seat.values)

    # Intents -------------------------------------------------------------------------------------

    def _add_form(self, form: OperationForm, values: Any) -> None:
        form.released.connect(self.desk.end_gesture)
        form.refused.connect(lambda text: self.desk.tell(text, "fault"))
        self.forms.append((form, values))
        self.add(form)

    def _set_step(self, step: str, name: str, value: Any) -> None:
        surface, layer = self.desk.surface, self.desk.layer
        if surface and layer:
            self.desk.dispatch(intents.set_step_value(surface, layer, step, name, value, gesture=f"{layer.id}-{step}-{name}"))

    def _set_at(self, where: tuple[str, ...], name: str, value: Any) -> None:
        surface, layer = self.desk.surface, self.desk.layer
        if surface and layer:
            setting = layer
            for step in where:
                setting = getattr(setting, step)
            path = ("surfaces", surface.id, "layers", layer.id, *where)
            self.desk.dispatch(intents.set_value(path, setting, name, value, gesture=f"{layer.id}-{where}-{name}"))  # type: ignore[arg-type]

    def _set_estimate(self, part: str, name: str, value: Any) -> None:
        surface, layer = self.desk.surface, self.desk.layer
        if surface and layer and isinstance(layer.what, SourceWhat):
            setting = getattr(layer.what, part) or getattr(self.desk.job.source(layer.what.source), part)
            changed = replace_values(setting, **{name: value})
            path = ("surfaces", surface.id, "layers", layer.id, "what", part)
            self.desk.dispatch(Set(path=path, value=changed, label=f"Set {name.replace('_', ' ')}", gesture=f"{layer.id}-{part}-{name}"))

    def _set_rule(self, rule_id: str, name: str, value: Any) -> None:
        surface, layer = self.desk.surface, self.desk.layer
        if surface and layer:
            rule = next(rule for rule in layer.where if rule.id == rule_id)
            path = ("surfaces", surface.id, "layers", layer.id, "where", rule_id, "rule")
            self.desk.dispatch(intents.set_value(path, rule.rule, name, value, gesture=f"{rule_id}-{name}"))

    def _next_mode(self, path: tuple[str, ...], rule: Rule) -> None:
        mode = MODES[(MODES.index(rule.mode) + 1) % len(MODES)]
        self.desk.dispatch(Set(path=(*path, "mode"), value=mode, label=f"Rule: {mode}"))

    def _add_rule(self, op: str) -> None:
        surface, layer = self.desk.surface, self.desk.layer
        if surface and layer:
            command, _ = intents.add_rule(surface, layer, op)
            self.desk.dispatch(command)

    def rename(self) -> None:
        """Ask for another name of the layer."""
        surface, layer = self.desk.surface, self.desk.layer
        if surface is None or layer is None:
            return
        name, done = QInputDialog.getText(self, "Rename the layer", "Name", text=layer.name)
        if done and name.strip():
            self.desk.dispatch(Set(path=("surfaces", surface.id, "layers", layer.id, "name"), value=name.strip(), label="Rename the layer"))


def _step_values(layer: Layer, name: str) -> dict[str, Any]:
    if isinstance(layer.what, RecipeWhat):
        for step in layer.what.recipe.steps:
            if step.name == name:
                return dict(step.values)
    return {}


def _rule_values(layer: Layer, id: str) -> dict[str, Any]:
    return next((dict(rule.rule.values) for rule in layer.where if rule.id == id), {})


