"""The repeat of a surface, typed in its title block: features keep their mm, or scale with it."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtWidgets import QButtonGroup, QFrame, QPushButton, QRadioButton, QVBoxLayout, QWidget

from ....core.errors import TesselError
from ....core.place.gauge import WholeRepeat, whole_repeats
from ....core.quantity import format_size
from ....engine.intents import surfaces as surface_intents
from ....engine.wording import sentence
from ... import theme
from ...controls.panels import LengthField, button, words
from ...desk import Desk
from ...words import tr

MOST_PROPOSALS = 4


class RepeatPanel(QFrame):
    """Two lengths, what becomes of the features, and the repeats nearby that hold whole units."""

    def __init__(self, desk: Desk, block: QWidget) -> None:
        super().__init__(block, Qt.WindowType.Popup)
        self.desk, self.block = desk, block
        self.setObjectName("panel")
        self.setAccessibleName(tr("Repeat"))
        self.setFrameShape(QFrame.Shape.Box)
        self.setFixedWidth(theme.px(290))
        column = QVBoxLayout(self)
        column.setContentsMargins(*(theme.px(12),) * 4)
        column.setSpacing(theme.px(7))
        self.across = LengthField(tr("Width"), tr("Repeat across. Sums work: 8*225 is eight units of 225 mm."))
        self.up = LengthField(tr("Height"), tr("Repeat up."))
        self.keep = QRadioButton(tr("Features keep their mm"))
        self.keep.setToolTip(tr("A larger repeat holds more of everything; strokes and runs stay where they are"))
        self.grow = QRadioButton(tr("Features scale with it"))
        self.grow.setToolTip(tr("Every length of every layer grows along, in relief as well"))
        self.ways = QButtonGroup(self)
        for way in (self.keep, self.grow):
            self.ways.addButton(way)
        self.keep.setChecked(True)
        self.near = words(tr("Whole units near it"))
        self.proposals = [QPushButton() for _ in range(MOST_PROPOSALS)]
        self.take = button(tr("Set the repeat"), self._take, name="main")
        for widget in (words(tr("Repeat"), "section"), self.across, self.up, self.keep, self.grow, self.near):
            column.addWidget(widget)
        for number, proposal in enumerate(self.proposals):
            proposal.clicked.connect(lambda _c=False, n=number: self._take_whole(n))
            column.addWidget(proposal)
        column.addWidget(self.take)
        self.size_mm = (0.0, 0.0)
        self.found: list[WholeRepeat] = []
        self.across.typed.connect(lambda value, _note: self._typed(0, value))
        self.up.typed.connect(lambda value, _note: self._typed(1, value))
        for field in (self.across, self.up):
            field.refused.connect(lambda text: desk.tell(text, "fault"))
            # The field tells what was typed after it tells of the key.
            field.field.returnPressed.connect(self._entered, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]
        self.ways.buttonToggled.connect(lambda _b, on: self._show() if on else None)

    def open_above(self) -> None:
        """Open over the title block, with the repeat as it is."""
        surface = self.desk.selection.surface
        if surface is None:
            return
        self.keep.setChecked(True)
        self.size_mm = (surface.width_mm, surface.height_mm)
        self._show()
        self._place()
        self.show()
        self.across.field.setFocus()
        self.across.field.selectAll()

    def _typed(self, way: int, value: float) -> None:
        surface, sides = self.desk.selection.surface, list(self.size_mm)
        sides[way] = value
        if surface is not None and self.grow.isChecked():
            # What scales keeps its shape: the other side follows.
            now = (surface.width_mm, surface.height_mm)
            sides[1 - way] = now[1 - way] * value / now[way]
        self.size_mm = (sides[0], sides[1])
        self._show()

    def _show(self) -> None:
        self.across.show_value(self.size_mm[0])
        self.up.show_value(self.size_mm[1])
        surface = self.desk.selection.surface
        self.found = []
        if surface is not None and self.keep.isChecked():
            self.found = whole_repeats(surface, *self.size_mm)[:MOST_PROPOSALS]
        self.near.setVisible(bool(self.found))
        for number, proposal in enumerate(self.proposals):
            proposal.setVisible(number < len(self.found))
            if number < len(self.found):
                proposal.setText(_told(self.found[number]))
        self._place()

    def _place(self) -> None:
        """Stand upon the block, whatever is shown."""
        self.adjustSize()
        self.move(self.block.mapToGlobal(QPoint(self.block.width() - self.width(), -self.height() - theme.px(6))))

    def _entered(self) -> None:
        """Enter in a field that was not changed takes what is there."""
        surface = self.desk.selection.surface
        if surface is not None and self.size_mm != (surface.width_mm, surface.height_mm):
            self._take()

    def _take_whole(self, number: int) -> None:
        one = self.found[number]
        self.size_mm = (one.width_mm, one.height_mm)
        self._take()

    def _take(self) -> None:
        surface = self.desk.selection.surface
        if surface is None:
            return
        try:
            command = surface_intents.resize(surface, *self.size_mm, scale=self.grow.isChecked())
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "fault")
            return
        self.desk.dispatch(command)
        self.close()


def _told(one: WholeRepeat) -> str:
    size = format_size(one.width_mm, one.height_mm)
    if one.across and one.up:
        return tr("{size}: {across} × {up} units", size=size, across=one.across, up=one.up)
    return tr("{size}: {count} units", size=size, count=one.across or one.up)
