"""The What of a layer's card: its maps, what its kind declares, how it is laid in the sheet, its look."""

from __future__ import annotations

from dataclasses import replace

import msgspec
from PyQt6.QtWidgets import QPushButton

from ....core.buildup.kind import kind_of
from ....core.buildup.laying import closing_turn
from ....core.job.layers import Layer, Surface, laid_times
from ....core.maps import FINISH, MapKind
from ....core.operation import Whole
from ....core.quantity import format_number, format_size
from ...controls.panels import Heading, Section, button
from ...words import tr
from .map_table import NAMES, MapTable, changed_mixes
from .row_forms import RowForms


class WhatForms(RowForms):
    """Adds the parts of What; which ones depends on the kind's declaration."""

    def build_what(self, surface: Surface, layer: Layer) -> None:
        """Build What for a layer."""
        kind = kind_of(layer.what)
        self.add(Heading(tr("What"), tr(kind.label).lower()))
        if kind.mapped:
            self._build_maps(layer)
        for row in kind.form(self.desk.job, surface, layer):
            self.add_rows(surface, layer, row, self.put_below)
        if kind.laid:
            self._build_laying(surface, layer)
        if kind.looked:
            look = self.section(
                tr("Look"),
                tr("as it is") if not layer.look.values else tr("changed"),
                lambda part: part.add(self.setting_form(layer, ("look",))),
            )
            self.tell(look.say, lambda shown: tr("changed") if shown.look.values else tr("as it is"))

    # Maps ----------------------------------------------------------------------------------------

    def _build_maps(self, layer: Layer) -> None:
        part = self.section(tr("Maps"), maps_note(layer), lambda part: self._fill_maps(part, layer))
        self.tell(part.say, maps_note)

    def _fill_maps(self, part: Section, layer: Layer) -> None:
        table = MapTable()
        table.switched.connect(self._switch)
        table.mixed.connect(self._set_mix)
        table.refused.connect(lambda text: self.desk.tell(text, "fault"))
        table.show_layer(layer)
        part.add(table)
        self.shows.append(table.show_layer)

    def _switch(self, kind: MapKind, on: bool) -> None:
        layer = self.desk.selection.layer
        if layer:
            maps = layer.maps | {kind} if on else layer.maps - {kind}
            told = "Change the {name} map" if on else "Leave the {name} map as it is"
            self.put(("maps",), maps, tr(told, name=tr(NAMES[kind]).lower()))

    def _set_mix(self, kind: MapKind, change: dict[str, object]) -> None:
        layer = self.desk.selection.layer
        if layer:
            mixes = changed_mixes(layer, kind, change)
            self.put(
                ("mixes",), mixes, tr("Mix {names}", names=tr(NAMES[kind]).lower()), gesture=f"{layer.id}-mix-{kind}"
            )

    # Laying --------------------------------------------------------------------------------------

    def _build_laying(self, surface: Surface, layer: Layer) -> None:
        part = self.section(
            tr("Laid in the sheet"), laying_note(surface, layer), lambda part: self._fill_laying(part, surface, layer)
        )
        self.tell(part.say, lambda shown: laying_note(surface, shown))

    def _fill_laying(self, part: Section, surface: Surface, layer: Layer) -> None:
        for name, label in (("across", tr("Repeats across")), ("up", tr("Repeats up"))):
            whole = Whole(1, 12, most=64, unit="×", help="Whole repeats in this surface, so that it closes.")
            param = replace(whole, label=label, default=1)
            part.add(self.field(param, getattr(layer.what, name), ("what", name), label=tr("Set repeats")))
        if self._own_size(layer) is not None:
            tip = tr("As many whole repeats as bring it nearest to its real size")
            part.add(button(tr("At its own size"), self._at_own_size, tip=tip), self._linked())
            part.add(self.telling(lambda shown: own_size_note(surface, shown, self._own_size(shown))))
        part.add(self.setting_form(layer, ("laying",)))
        part.add(self.telling(lambda shown: turn_note(surface, shown)))

    def _linked(self) -> QPushButton:
        tip = tr("Sets repeats up along with repeats across, in proportion")
        linked = button(tr("Linked"), lambda: None, tip=tip)
        linked.setCheckable(True)
        linked.clicked.connect(lambda _on=False: self._link())
        return linked

    def _own_size(self, layer: Layer) -> tuple[float, float] | None:
        return kind_of(layer.what).own_size(self.desk.job, layer.what)

    def _link(self) -> None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        own = self._own_size(layer) if layer else None
        if surface and layer and own:
            # Square with its own proportion: as many up as keep its shape at the repeats across.
            across, _ = laid_times(layer)
            up = max(1, round(across * own[0] / surface.width_mm * surface.height_mm / own[1]))
            self.put(("what", "up"), up, tr("Link repeats"))

    def _at_own_size(self) -> None:
        surface, layer = self.desk.selection.surface, self.desk.selection.layer
        own = self._own_size(layer) if layer else None
        if surface and layer and own and isinstance(layer.what, msgspec.Struct):
            across = max(1, round(surface.width_mm / own[0]))
            up = max(1, round(surface.height_mm / own[1]))
            what = msgspec.structs.replace(layer.what, across=across, up=up)
            self.put(("what",), what, tr("Lay at its own size"))


def maps_note(layer: Layer) -> str:
    """Which maps a layer changes, and how, in a few words."""
    # Finishes are counted only where they matter; they are on unless a person switches them off.
    usual = set(NAMES) - set(FINISH)
    count = len(layer.maps & usual)
    told = tr("all") if count == len(usual) else tr("{count} of {all}", count=count, all=len(usual))
    return (
        tr("{told}, {count} changed", told=told, count=len(layer.mixes))
        if layer.mixes
        else tr("{told} plain", told=told)
    )


def laying_note(surface: Surface, layer: Layer) -> str:
    """How a layer is laid, in a few words."""
    across, up = laid_times(layer)
    turn = layer.laying.number("turn")
    return f"{across} × {up}" + (f" · {turn:g}°" if turn else "")


def own_size_note(surface: Surface, layer: Layer, own: tuple[float, float] | None) -> str:
    """How far a layer is from its own size."""
    if own is None:
        return ""
    across, up = laid_times(layer)
    laid = (surface.width_mm / across, surface.height_mm / up)
    errors = tr(" and ").join(
        f"{100 * (is_ / real - 1):+.1f} %".replace("-", "−") for is_, real in zip(laid, own, strict=True)
    )
    return tr(
        "Its {size} are laid as {size_2}: {errors}.", size=format_size(*own), size_2=format_size(*laid), errors=errors
    )


def turn_note(surface: Surface, layer: Layer) -> str:
    """What turn closes in place of the asked one."""
    wanted = layer.laying.number("turn")
    if wanted % 360 == 0:
        return ""
    across, up = laid_times(layer)
    cell = (surface.width_mm / across, surface.height_mm / up)
    turn = closing_turn(wanted, (surface.width_mm, surface.height_mm), cell)
    off = (turn.angle - wanted + 180) % 360 - 180
    told = tr("{number}° closes", number=format_number(turn.angle, decimals=1)) if abs(off) > 0.05 else tr("It closes")
    more = [tr("{number}° off", number=format_number(off, decimals=1))] if abs(off) > 0.05 else []
    more += [tr("{finer:.2f} × finer", finer=turn.finer)] if abs(turn.finer - 1) > 0.005 else []
    more += [tr("stretched by {stretch:.1f} %", stretch=100 * turn.stretch)] if turn.stretch > 0.001 else []
    return f"{told}{': ' if more else ''}{', '.join(more)}."
