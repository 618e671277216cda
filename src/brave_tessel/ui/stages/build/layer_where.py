"""The Where of a layer's card: its rules as rows, and the chosen one's form."""

from __future__ import annotations

from typing import Any

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtGui import QPixmap
from PyQt6.QtWidgets import QComboBox, QLabel, QMenu, QPushButton

from ....core.buildup.brush import values_of
from ....core.buildup.where import MODES
from ....core.job.commands import Move, Remove, fetch
from ....core.job.layers import Layer, Rule, Stroke, Surface, layer_path
from ....core.operation import REGISTRY, family
from ....engine.intents import layers as layer_intents
from ....engine.library.marks_of_use import PRESETS
from ... import theme
from ...board import to_image
from ...controls.choices import fill
from ...controls.form import OperationForm
from ...controls.panels import Heading, Section, button, words
from ...controls.rows import Row, RowList
from ...words import tr, tr_count
from .layer_forms import line
from .layer_what import WhatForms
from .recipe.rows import shown_value

_BASIC = ("size", "hardness", "opacity")
_INTO = ("into", "colour", "amount")


class WhereForms(WhatForms):
    """Adds the rules, and the brush for those that are painted."""

    paint_toggled = pyqtSignal(bool)
    rule_chosen = pyqtSignal(str)
    stroke_chosen = pyqtSignal(str)
    pick_wanted = pyqtSignal()

    rule_thumbs: dict[str, Any]

    def clear_tools(self) -> None:
        """Forget the controls of the layer shown before."""
        self.rules: RowList | None = None
        self.strokes: RowList | None = None
        self.strokes_part: Section | None = None
        self.paint_button: QPushButton | None = None
        self.erase_button: QPushButton | None = None
        self.brush_form: OperationForm | None = None
        self.chosen_stroke = ""

    def build_where(self, surface: Surface, layer: Layer) -> None:
        count = len(layer.where)
        self.add(Heading(tr("Where"), tr("everywhere") if not count else tr_count(count, "{n} rule", "{n} rules")))
        if count:
            self.rules = RowList(tr("Where-rules, top to bottom"), reorder=True)
            self.rules.setFixedHeight(theme.px(min(count, 5) * 54 + 6))
            self.rules.chosen.connect(self._choose_rule)
            self.rules.eye_clicked.connect(
                lambda id, shown: self.put(
                    ("where", id, "shown"), shown, tr("Show a rule") if shown else tr("Hide a rule")
                )
            )
            self.rules.deleted.connect(self._remove_rule)
            self.rules.moved.connect(self._move_rule)
            self.add(self.rules)
            self.show_rules(layer)
        add = button(tr("Add a rule"), lambda: None, icon="plus", tip=tr("Where the layer lies"))
        menu = QMenu(add)
        for operation in family("where"):
            action = menu.addAction(tr(operation.label))
            if action:
                action.setToolTip(tr(operation.summary))
                action.triggered.connect(lambda _checked=False, op=operation.id: self.add_rule(op))
        menu.setToolTipsVisible(True)
        add.setMenu(menu)
        ready = button(tr("Ready-made"), lambda: None, tip=tr("Handfuls of rules; once added they are plain rules"))
        presets = QMenu(ready)
        for name in PRESETS:
            action = presets.addAction(tr(name))
            if action:
                action.triggered.connect(lambda _checked=False, key=name: self._add_preset(key))
        ready.setMenu(presets)
        self.add(line((add, 1), (ready, 1)))
        rule = self.current_rule(layer)
        if rule is not None:
            self._build_rule(surface, layer, rule)

    def current_rule(self, layer: Layer) -> Rule | None:
        """The chosen rule, or the last."""
        chosen = next((rule for rule in layer.where if rule.id == self.desk.selection.rule_id), None)
        return chosen or (layer.where[-1] if layer.where else None)

    def show_rules(self, layer: Layer, thumbs: dict[str, Any] | None = None) -> None:
        """The rules with their modes, values and small pictures."""
        if self.rules is None:
            return
        self.rule_thumbs = thumbs or self.rule_thumbs
        rule = self.current_rule(layer)
        self.rules.show_rows([self._rule_row(entry) for entry in layer.where], rule.id if rule else "")

    def _rule_row(self, rule: Rule) -> Row:
        picture = QPixmap(1, 1)
        picture.fill(theme.colour("chalk"))
        if rule.id in self.rule_thumbs:
            picture = QPixmap.fromImage(to_image(self.rule_thumbs[rule.id]))
        return Row(
            rule.id,
            f"{tr(rule.mode)} · {tr(rule.rule.operation.label)}",
            rule_note(rule),
            picture=picture,
            shown=rule.shown,
        )

    def _choose_rule(self, id: str) -> None:
        self.desk.selection.rule_id = id
        self.rule_chosen.emit(id)

    def _remove_rule(self, id: str) -> None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        if surface and layer:
            self.desk.dispatch(Remove(path=(*layer_path(surface, layer.id), "where", id), label=tr("Take out a rule")))

    def _move_rule(self, id: str, row: int) -> None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        if surface and layer:
            self.desk.dispatch(
                Move(path=(*layer_path(surface, layer.id), "where", id), index=row, label=tr("Reorder rules"))
            )
            self.show_rules(self.desk.selection.layer or layer)

    def add_rule(self, op: str, *, mode: str = "") -> None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        if surface and layer:
            command, rule = layer_intents.add_rule(surface, layer, op, mode=mode)
            self.desk.selection.rule_id = rule.id
            self.desk.dispatch(command)

    def _add_preset(self, name: str) -> None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        if surface and layer:
            self.desk.dispatch(
                layer_intents.add_rules(surface, layer, PRESETS[name](), tr("Add {name}", name=name.lower()))
            )

    # One rule ------------------------------------------------------------------------------------

    def _build_rule(self, surface: Surface, layer: Layer, rule: Rule) -> None:
        operation = rule.rule.operation
        self.add(words(tr(operation.label), "section"))
        box = QComboBox()
        box.setAccessibleName(tr("Rule mode"))
        fill(box, MODES)
        box.setCurrentIndex(box.findData(rule.mode))
        box.setToolTip(
            tr(
                "keep: only there · add: there too · cut: not there · multiply by it "
                "· lighter, darker: the greater or lesser of both"
            )
        )
        box.activated.connect(
            lambda _i: self.put(
                ("where", rule.id, "mode"), box.currentData(), tr("Rule: {mode}", mode=box.currentText())
            )
        )
        out = button("", lambda: self._remove_rule(rule.id), icon="x", tip=tr("Take this rule out"))
        out.setAccessibleName(tr("Take this rule out"))
        self.add(line((QLabel(tr("Combines by")), 1), (box, 0), (out, 0)))
        if rule.rule.op == "where.painted":
            self.build_brush(rule.strokes, painted_layer=False)
        elif rule.recipe is not None:
            self.add(
                button(
                    tr("Open the rule's recipe"),
                    lambda: self.asked.emit("recipe", rule.id),
                    tip=tr("The steps whose opacity is the cover"),
                )
            )
        elif operation.params or not operation.known:
            if operation.handles is not None:
                self.add(words(tr("Its handles are on the board.")))
            self._build_values(surface, layer, rule)
            if rule.rule.op == "where.id":
                self.add(
                    button(
                        tr("Pick a colour on the board"),
                        self.pick_wanted.emit,
                        tip=tr("Then click the board; each click adds a colour, Esc ends"),
                    )
                )
        self.section(
            tr("Shape of the rule"),
            tr("as it comes") if not rule.shape.values else tr("changed"),
            lambda part: part.add(self.setting_form(layer, ("where", rule.id, "shape"))),
        )

    def _build_values(self, surface: Surface, layer: Layer, rule: Rule) -> None:
        """A rule's dials; a picture comes in its own size, and back to it by a button."""
        where = ("where", rule.id, "rule")
        self.add(self.setting_form(layer, where))
        if not {"source", "across", "up"} <= set(rule.rule.operation.params):
            return
        tip = tr("As many whole repeats as bring it nearest to its real size")
        own = button(tr("At its own size"), lambda: self._read_at_own_size(rule.id), tip=tip)
        self.add(own)

        def size_of(shown: Layer) -> str:
            """Its repeats where its size is known; the picture may be another while the card stays."""
            source = str(fetch(shown, where).value("source"))
            return str(layer_intents.own_repeats(self.desk.job, surface, source) or "")

        own.setVisible(bool(size_of(layer)))
        self.tell(lambda text: own.setVisible(bool(text)), size_of)

    def set_setting(self, where: tuple[str, ...], name: str, value: Any) -> None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        rule = next((r for r in layer.where if where == ("where", r.id, "rule")), None) if layer else None
        if surface and layer and rule and name == "source" and "across" in rule.rule.operation.params:
            self.desk.dispatch(layer_intents.read_picture(self.desk.job, surface, layer, rule, str(value)))
        else:
            super().set_setting(where, name, value)

    def _read_at_own_size(self, id: str) -> None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        rule = next((r for r in layer.where if r.id == id), None) if layer else None
        if surface and layer and rule:
            self.desk.dispatch(layer_intents.at_own_size(self.desk.job, surface, layer, rule))

    # The brush -----------------------------------------------------------------------------------

    def build_brush(self, strokes: tuple[Stroke, ...], *, painted_layer: bool) -> None:
        """The brush, and the strokes there are; a chosen stroke's brush is changed instead of the next one's."""
        self.paint_button = button(
            tr("Paint"), self._toggle_paint, icon="brush", tip=tr("Paint on the board (B); wraps over every edge")
        )
        self.paint_button.setCheckable(True)
        self.erase_button = button(tr("Erase"), self._toggle_erase, tip=tr("Take away instead (X)"))
        self.erase_button.setCheckable(True)
        self.erase_button.setChecked(self.desk.brush.erasing)
        self.add(line((self.paint_button, 1), (self.erase_button, 1)))
        stroke = next((s for s in strokes if s.id == self.chosen_stroke), None)
        values = values_of(stroke) if stroke else self.desk.brush.values
        first = OperationForm("brush.paint", values, only=(*(_INTO if painted_layer else ()), *_BASIC))
        self._watch_brush(first)
        self.add(first)
        self.brush_form = first
        more = self.section(tr("Brush"), tr("flow, tip, spacing, symmetry"))
        rest = OperationForm(
            "brush.paint", values, only=[n for n in REGISTRY["brush.paint"].params if n not in {*_BASIC, *_INTO}]
        )
        self._watch_brush(rest)
        more.add(rest)
        if strokes:
            self._build_strokes(strokes)

    def _watch_brush(self, form: OperationForm) -> None:
        form.changed.connect(self._set_brush)
        form.released.connect(self.desk.end_gesture)
        form.refused.connect(lambda text: self.desk.tell(text, "fault"))

    def _build_strokes(self, strokes: tuple[Stroke, ...]) -> None:
        part = self.section(tr("Strokes"))
        self.strokes = RowList(tr("Strokes, last on top"))
        self.strokes.setFixedHeight(theme.px(min(len(strokes), 4) * 40 + 6))
        self.strokes_part = part
        self.strokes.chosen.connect(self._choose_stroke)
        self.strokes.deleted.connect(self._remove_stroke)
        part.add(self.strokes)
        part.add(
            button(
                tr("The next stroke's brush"), lambda: self._choose_stroke(""), tip=tr("Let go of the chosen stroke")
            ),
            button(
                tr("Take the stroke out"), lambda: self._remove_stroke(self.chosen_stroke), tip=tr("Del in the list")
            ),
        )

    def show_strokes(self, layer: Layer) -> None:
        """The strokes of what is painted now; painting adds rows without building the card anew."""
        place = self.strokes_place()
        if self.strokes is None or self.strokes_part is None or place is None:
            return
        strokes: tuple[Stroke, ...] = fetch(layer, place)
        painted = layer.what.painted() is not None
        rows = [
            Row(
                s.id,
                f"{n}  {'erased' if s.erase else s.into if painted else 'painted'}",
                tr("{size_mm:g} mm, {count} points", size_mm=s.size_mm, count=len(s.points)),
            )
            for n, s in enumerate(strokes, 1)
        ]
        self.strokes.setFixedHeight(theme.px(max(1, min(len(rows), 4)) * 40 + 6))
        self.strokes.show_rows(rows[::-1], self.chosen_stroke)
        self.strokes_part.say(tr("{count}, last on top", count=len(rows)))

    def strokes_place(self) -> tuple[str, ...] | None:
        """Where the strokes that are painted now lie within the layer."""
        layer = self.desk.selection.layer
        if layer is None:
            return None
        if layer.what.painted() is not None:
            return ("what", "strokes")
        rule = self.current_rule(layer)
        painted = (
            rule
            if rule is not None and rule.rule.op == "where.painted"
            else next((r for r in layer.where if r.rule.op == "where.painted"), None)
        )
        return ("where", painted.id, "strokes") if painted else None

    def _choose_stroke(self, id: str) -> None:
        self.chosen_stroke = id
        self.stroke_chosen.emit(id)

    def _remove_stroke(self, id: str) -> None:
        surface, layer, place = self.desk.selection.surface, self.desk.selection.layer, self.strokes_place()
        if surface and layer and place and id:
            self.desk.dispatch(Remove(path=(*layer_path(surface, layer.id), *place, id), label=tr("Take out a stroke")))

    def _set_brush(self, name: str, value: Any) -> None:
        """The brush of the chosen stroke, or of the next one."""
        place = self.strokes_place()
        if self.chosen_stroke and place:
            field = {"size": "size_mm", "opacity": "strength"}.get(name, name)
            if name in {"lattice_across", "lattice_up"}:
                layer = self.desk.selection.layer
                assert layer is not None
                before = fetch(layer, (*place, self.chosen_stroke)).lattice
                field, value = "lattice", (value, before[1]) if name == "lattice_across" else (before[0], value)
            if name != "snap":
                self.put(
                    (*place, self.chosen_stroke, field),
                    value,
                    tr("Change a stroke"),
                    gesture=f"{self.chosen_stroke}-{field}",
                )
            return
        self.desk.brush.set_value(name, value)

    def _toggle_paint(self) -> None:
        if self.paint_button:
            self.paint_toggled.emit(self.paint_button.isChecked())

    def show_erasing(self, on: bool) -> None:
        """Show whether the brush rubs out."""
        if self.erase_button is not None:
            self.erase_button.setChecked(on)

    def _toggle_erase(self) -> None:
        self.desk.brush.erasing = bool(self.erase_button and self.erase_button.isChecked())


def rule_note(rule: Rule) -> str:
    """A rule's main values in a few words."""
    operation = rule.rule.operation
    if not operation.known:
        return tr("made by another version")
    if rule.rule.op == "where.painted":
        return tr_count(len(rule.strokes), "{n} stroke", "{n} strokes")
    values = rule.rule.complete()
    told = [
        shown_value(param, values[name])
        for name, param in operation.params.items()
        if param.kind not in {"seed", "layer", "source", "stops"}
    ][:2]
    strength = rule.shape.number("strength")
    return ", ".join(told + ([f"{100 * strength:.0f} %"] if strength < 1 else [])) or tr(operation.label).lower()
