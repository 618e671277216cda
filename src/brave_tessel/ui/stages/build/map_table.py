"""The maps a layer changes: one row a map with its full name, a switch, its mode and its strength."""

from __future__ import annotations

from typing import Any

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QCheckBox, QComboBox, QGridLayout, QWidget

from ....core.buildup.mixing import MODES
from ....core.job.layers import Layer, MapMix
from ....core.maps import BLENDED, FINISH, TRAITS, MapKind
from ....core.quantity import parse_share
from ... import theme
from ...controls.choices import fill
from ...controls.typed import TypedLine
from ...words import tr

NAMES = {
    kind: TRAITS[kind].label
    for kind in (
        MapKind.BASE_COLOUR,
        MapKind.HEIGHT,
        MapKind.NORMAL,
        MapKind.ROUGHNESS,
        MapKind.METALNESS,
        MapKind.AMBIENT_OCCLUSION,
        MapKind.OPACITY,
        *FINISH,
    )
}
"""Every map that layers mix, in reading order."""
assert set(NAMES) == set(BLENDED)


class MapTable(QWidget):
    """``switched`` carries a map and whether the layer changes it; ``mixed`` a map and what is set of its mix."""

    switched = pyqtSignal(object, bool)
    mixed = pyqtSignal(object, object)
    refused = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(theme.px(6))
        grid.setVerticalSpacing(theme.px(2))
        grid.setColumnStretch(0, 1)
        self.switches: dict[MapKind, QCheckBox] = {}
        self.modes: dict[MapKind, QComboBox] = {}
        self.strengths: dict[MapKind, TypedLine] = {}
        self._rows: dict[MapKind, tuple[QWidget, ...]] = {}
        for row, (kind, name) in enumerate(NAMES.items()):
            self._rows[kind] = self._row(kind, name)
            for column, widget in enumerate(self._rows[kind]):
                grid.addWidget(widget, row, column)
        self.more = QCheckBox(tr("Finishes too"))
        self.more.setToolTip(tr("Show the maps of finishes: coat, sheen, emission and others"))
        self.more.toggled.connect(lambda _on: self._show_finishes(frozenset()))
        grid.addWidget(self.more, len(NAMES), 0, 1, 3)
        self._brought: frozenset[MapKind] = frozenset()
        self._show_finishes(frozenset())

    def _show_finishes(self, brought: frozenset[MapKind]) -> None:
        """Rows of finishes that the layer brings, or all of them where that is wanted."""
        self._brought = brought or self._brought
        for kind in FINISH:
            for widget in self._rows[kind]:
                widget.setVisible(self.more.isChecked() or kind in self._brought)

    def _row(self, kind: MapKind, name: str) -> tuple[QWidget, ...]:
        name = tr(name)
        switch = QCheckBox(name)
        switch.setAccessibleName(tr("Map {name}", name=name))
        switch.setToolTip(tr("Whether this layer changes the {name} map", name=name.lower()))
        switch.clicked.connect(lambda on: self.switched.emit(kind, bool(on)))
        mode = QComboBox()
        mode.setAccessibleName(tr("{name}, mode", name=name))
        mode.setToolTip(tr("How the {name} map is laid on what lies beneath", name=name.lower()))
        fill(mode, MODES[kind])
        mode.setFixedWidth(theme.px(104))
        mode.activated.connect(lambda _index: self.mixed.emit(kind, {"mode": mode.currentData()}))
        strength = TypedLine(tr("{name}, strength", name=name), 52, _share)
        strength.setAlignment(Qt.AlignmentFlag.AlignRight)
        strength.setToolTip(tr("How strongly, from 0 to 100 %"))
        strength.read.connect(lambda value: self.mixed.emit(kind, {"strength": value}))
        strength.refused.connect(self.refused)
        self.switches[kind], self.modes[kind], self.strengths[kind] = switch, mode, strength
        return switch, mode, strength

    def show_layer(self, layer: Layer) -> None:
        """Show a layer's maps; sends nothing."""
        self._brought = frozenset()
        self._show_finishes(frozenset(FINISH) & (layer.what.finishes() | set(layer.mixes)))
        for kind in NAMES:
            on = kind in layer.maps
            mix = layer.mixes.get(kind, MapMix())
            self.switches[kind].setChecked(on)
            self.modes[kind].setCurrentIndex(self.modes[kind].findData(mix.mode))
            self.modes[kind].setEnabled(on and len(MODES[kind]) > 1)
            self.strengths[kind].show_text(f"{100 * mix.strength:g} %")
            self.strengths[kind].setEnabled(on)


def _share(text: str) -> float:
    """A strength from ``70 %`` or ``0.7``; a plain number above 1 is in per cent."""
    value = parse_share(text)
    if value > 1 and "%" not in text:
        value /= 100
    return min(1.0, max(0.0, value))


def changed_mixes(layer: Layer, kind: MapKind, change: dict[str, Any]) -> dict[MapKind, MapMix]:
    """The layer's mixes with one of them changed; those that are as a fresh layer's are left out."""
    before = layer.mixes.get(kind, MapMix())
    mix = MapMix(mode=change.get("mode", before.mode), strength=change.get("strength", before.strength))
    return {k: m for k, m in {**layer.mixes, kind: mix}.items() if m != MapMix()}
