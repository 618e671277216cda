"""A cast shadow lifted, told by two places of the same stuff."""

from __future__ import annotations

from ....core.job.document import Source
from ....engine.gather.analyses import shadow_told
from ....engine.workers import Current
from ...controls.form import OperationForm
from ...controls.panels import Section, button, words
from ...desk import Desk
from ...words import tr
from .frame_board import FrameBoard

_PLACES = ("lit_x", "lit_y", "dark_x", "dark_y")


class ShadowSection(Section):
    """Pick a place in the light and one in the shadow; the rest follows."""

    def __init__(self, desk: Desk, board: FrameBoard, form: OperationForm) -> None:
        super().__init__(tr("Cast shadow"), tr("off"))
        self.desk, self.board, self.form = desk, board, form
        self.asked: object = None
        self.pick = button(
            tr("Pick light, then shadow"),
            self._pick,
            icon="dropper",
            tip=tr("Click a place in the light, then the same stuff in the shadow"),
        )
        self.pick.setCheckable(True)
        board.tool_changed.connect(lambda name: self.pick.setChecked(name in {"lit", "dark"}))
        self.told = words("", "caution")
        self.told.hide()
        for widget in (self.pick, self.told, form):
            self.add(widget)

    def _pick(self) -> None:
        self.board.use("lit" if self.pick.isChecked() else "frame")

    def show_source(self, source: Source) -> None:
        """Show a source's shadow; whether it can be told is looked at beside the window's thread."""
        strength = source.shadow.number("strength")
        self.form.show_values(source.shadow.values)
        for name, control in self.form.controls.items():
            control.setVisible(strength > 0 and name not in _PLACES)
        self.say(f"{strength:.0%}" if strength else tr("off"))
        asked = (source.id, source.blob, source.straightening, source.shadow) if strength and source.sized else None
        if asked == self.asked:
            return
        self.asked = asked
        self.told.hide()
        if asked is None:
            return
        snapshot = self.desk.session.snapshot()

        def look(current: Current) -> bool | None:
            return shadow_told(snapshot, source, current=current)

        self.desk.work.ask("shadow", look, lambda told: self._tell(told, asked))

    def _tell(self, told: bool | None, asked: object) -> None:
        if asked != self.asked:
            return
        self.told.setText(
            tr("The second place is no darker than the first: nothing is lifted.")
            if told is None
            else ""
            if told
            else tr("It hardly stands out from the stuff's own tones: nothing is lifted.")
        )
        self.told.setVisible(not told)
