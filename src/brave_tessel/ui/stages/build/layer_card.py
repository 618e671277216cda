"""The card of a layer: What, Where, How it sits."""

from __future__ import annotations

from collections.abc import Hashable
from typing import Any

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QLabel, QMenu

from ....core.buildup.kind import kind_of
from ....core.job.layers import Layer, Surface, every_layer
from ....core.job.nodes import Setting
from ....core.operation import family
from ...controls.hatch import HATCHES, hatch_icon, hatch_word
from ...controls.panels import Heading, button, words
from ...desk import Desk
from ...words import tr
from .layer_forms import line
from .layer_where import WhereForms

_MAIN = ("level", "feather", "drape", "show_through")


class LayerCard(WhereForms):
    """Rebuilt when another layer is chosen or its shape changes; otherwise only its values are shown."""

    built = pyqtSignal()

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.shape: Hashable = None
        self.rule_thumbs: dict[str, Any] = {}
        self.fault = words("", "fault")
        self.clear_tools()
        self.stroke_chosen.connect(lambda _id: self.show_again())
        self.rule_chosen.connect(lambda _id: self.show_again())
        self.brush_wanted.connect(self._add_brush)

    # Which layer ---------------------------------------------------------------------------------

    def show_layer(self, surface: Surface | None, layer: Layer | None) -> None:
        """Show a layer, or what to do when there is none."""
        shape = self._shape(surface, layer)
        if shape != self.shape:
            self.shape = shape
            self._build(surface, layer)
            self.focus_again()
            self.built.emit()
        if layer is not None:
            self.show_values(layer)
            self.show_rules(layer)
            self.show_strokes(layer)

    def show_again(self) -> None:
        self.shape = None
        self.show_layer(self.desk.selection.surface, self.desk.selection.layer)

    def _shape(self, surface: Surface | None, layer: Layer | None) -> Hashable:
        """What the card's make-up hangs on; numbers are not in it. Never None, which is what is not built yet."""
        if surface is None or layer is None:
            return "empty"
        rows = tuple(row.key for row in kind_of(layer.what).form(self.desk.job, surface, layer))
        rules = tuple((rule.id, rule.rule.op, bool(rule.strokes)) for rule in layer.where)
        order = tuple(entry.id for entry, _ in every_layer(surface.layers))
        head = (layer.id, layer.name, layer.locked, layer.hatch, bool(layer.kit))
        size = (surface.id, surface.width_mm, surface.height_mm)
        return (size, head, type(layer.what), layer.what.passing, rows, rules, layer.seat.op, order)

    def _build(self, surface: Surface | None, layer: Layer | None) -> None:
        kept = self.chosen_stroke
        bar = self.verticalScrollBar()
        if bar is not None and layer is not None and layer.id != self.shown_id:
            bar.setValue(0)
        self.shown_id = layer.id if layer else ""
        self.empty()
        self._forms, self.fields, self.told, self.shows = [], [], [], []
        self._folded = {}
        self.built_count += 1
        self.clear_tools()
        self.chosen_stroke = kept
        self.fault = words("", "fault")
        if surface is None or layer is None:
            self.add(words(tr("No layer"), "title"))
            self.add(words(tr("Lay something on at the left.")))
            return
        self._build_head(surface, layer)
        self.build_what(surface, layer)
        self.build_where(surface, layer)
        self._build_seat(surface, layer)

    def _build_head(self, surface: Surface, layer: Layer) -> None:
        self.add(words(layer.name, "title"))
        order = [entry.id for entry, _ in every_layer(surface.layers)]
        hatch = button("", lambda: None, tip=tr("The layer's hatch, its mark in the list and the section"))
        hatch.setIcon(hatch_icon(layer.hatch))
        hatch.setAccessibleName(tr("Hatch"))
        menu = QMenu(hatch)
        for name in HATCHES:
            action = menu.addAction(hatch_icon(name), tr(hatch_word(name)))
            if action:
                action.triggered.connect(
                    lambda _checked=False, key=name: self.put(("hatch",), key, tr("Set the hatch"))
                )
        hatch.setMenu(menu)
        lock = button(
            tr("Locked") if layer.locked else tr("Lock"),
            lambda: self.put(
                ("locked",), not layer.locked, tr("Unlock a layer") if layer.locked else tr("Lock a layer")
            ),
            tip=tr("A locked layer is not moved, taken out or painted on (L)"),
        )
        lock.setCheckable(True)
        lock.setChecked(layer.locked)
        self.add(
            line(
                (
                    words(
                        tr(
                            "layer {index} of {count} · kit" if layer.kit else "layer {index} of {count}",
                            index=order.index(layer.id) + 1,
                            count=len(order),
                        )
                    ),
                    1,
                ),
                (hatch, 0),
                (lock, 0),
            )
        )
        self.add(self.fault)
        self.fault.hide()

    def _add_brush(self) -> None:
        layer = self.desk.selection.layer
        strokes = layer.what.painted() if layer is not None else None
        if strokes is not None:
            self.build_brush(strokes, painted_layer=True)

    def show_fault(self, text: str) -> None:
        """What went wrong in this layer, in one sentence."""
        self.fault.setText(text)
        self.fault.setVisible(bool(text))

    # How it sits ---------------------------------------------------------------------------------

    def _build_seat(self, surface: Surface, layer: Layer) -> None:
        first = surface.layers[0].id == layer.id
        if not kind_of(layer.what).seated or layer.what.passing:
            return
        self.add(
            Heading(
                tr("How it sits"),
                tr("nothing beneath")
                if first
                else tr("by height")
                if layer.seat.op == "seat.by_height"
                else tr("over"),
            )
        )
        if first:
            self.add(words(tr("The lowest layer is the ground the others meet.")))
            return
        kind = QComboBox()
        kind.setAccessibleName(tr("Seat"))
        for operation in family("seat"):
            kind.addItem(tr(operation.label), operation.id)
        kind.setCurrentIndex(kind.findData(layer.seat.op))
        kind.setToolTip(tr("By height: it shows where it is higher. Over: it shows wherever it is covered"))
        kind.activated.connect(lambda _i: self._seat_kind(str(kind.currentData())))
        self.add(line((QLabel(tr("Meets what lies beneath")), 1), (kind, 0)))
        known = family("seat")
        params = next((op.params for op in known if op.id == layer.seat.op), {})
        self.add(self.setting_form(layer, ("seat",), only=[name for name in _MAIN if name in params]))
        rest = [name for name in params if name not in _MAIN]
        self.section(
            tr("Relief"),
            tr("form, grain, contrast"),
            lambda part: part.add(self.setting_form(layer, ("seat",), only=rest)),
        )
        matched = layer.tone.number("tone_match")
        self.section(
            tr("Tone match"),
            "off" if matched == 0 else f"{100 * matched:.0f} %",
            lambda part: part.add(self.setting_form(layer, ("tone",))),
        )

    def _seat_kind(self, op: str) -> None:
        layer = self.desk.selection.layer
        if layer and layer.seat.op != op:
            params = next(entry.params for entry in family("seat") if entry.id == op)
            self.put(
                ("seat",),
                Setting(op=op, values={k: v for k, v in layer.seat.values.items() if k in params}),
                tr("Another seat"),
            )
