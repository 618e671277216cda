"""The lens of a photo: how it bends straight edges, and its focal length."""

from __future__ import annotations

from dataclasses import replace

from ....core.gather.lens import MOST_BEND
from ....core.gather.seen import film_mm
from ....core.job.document import Source
from ....core.operation import Fraction
from ....core.quantity import format_number, parse_focal
from ....engine.intents import sheets as sheet_intents
from ...controls.panels import Section, button, words
from ...controls.ruled_scale import RuledScale
from ...desk import Desk
from ...words import tr
from .frame_board import FrameBoard
from .frame_sections import KnownField


class LensSection(Section):
    """Both parameters of the curvature, the edges that told them, and the focal length."""

    def __init__(self, desk: Desk, board: FrameBoard) -> None:
        super().__init__(tr("Lens"), tr("bends straight edges"))
        self.desk, self.board = desk, board
        self.straight = button(
            tr("Draw along a straight edge"),
            self._start,
            icon="ruler-2",
            tip=tr("From end to end, then pull its middle onto the edge: the lens follows. More edges make it surer"),
        )
        self.straight.setCheckable(True)
        self.away = button(tr("Take the lines away"), self._take_away, tip=tr("A straight lens again"))
        param = Fraction(
            -MOST_BEND, MOST_BEND, help="Below 0 the photo bulges, above 0 it is pinched; 0 is a straight lens."
        )
        self.bend = RuledScale(replace(param, label="Curvature", default=0.0), 0.0)
        corners = Fraction(-0.15, 0.15, help="How much more, or less, the corners bend than the middle.")
        self.bend_2 = RuledScale(replace(corners, label=tr("At the corners"), default=0.0), 0.0)
        self.focal = KnownField(
            tr("Focal length"),
            tr("In mm, as on 36 × 24 mm film, where you know it; empty takes the file's, or what the view tells."),
            parse_focal,
            decimals=1,
        )
        self.edges = words("")
        for widget in (self.straight, self.away, self.edges, self.bend, self.bend_2, self.focal):
            self.add(widget)
        for second, scale in enumerate((self.bend, self.bend_2)):
            scale.changed.connect(lambda value, second=second: self._set_bend(value, bool(second)))
            scale.released.connect(desk.end_gesture)
            scale.refused.connect(lambda text: desk.tell(text, "fault"))
        self.focal.typed.connect(self._type_focal)
        self.focal.refused.connect(lambda text: desk.tell(text, "fault"))
        board.tool_changed.connect(lambda name: self.straight.setChecked(name == "straight"))

    def _start(self) -> None:
        self.board.use("straight" if self.straight.isChecked() else "frame")

    def _take_away(self) -> None:
        source = self.desk.selection.source
        if source:
            self.desk.dispatch(sheet_intents.set_edges(source, ()))

    def _set_bend(self, value: object, second: bool) -> None:
        source = self.desk.selection.source
        if source:
            gesture = "bend 2" if second else "bend"
            self.desk.dispatch(sheet_intents.set_bend(source, float(value), second=second, gesture=gesture))  # type: ignore[arg-type]

    def _type_focal(self, film: float) -> None:
        source = self.desk.selection.source
        if source:
            self.desk.dispatch(sheet_intents.type_focal(source, film))

    def show_source(self, source: Source) -> None:
        """Show a source's lens."""
        frame, size = source.straightening, (source.width_px, source.height_px)
        self.bend.show_value(frame.bend)
        self.bend_2.show_value(frame.bend_2)
        self.say(
            tr("curvature {bend}", bend=format_number(frame.bend, decimals=3))
            if any(frame.lens)
            else tr("bends straight edges")
        )
        count = len(frame.edges)
        self.edges.setText(tr("One edge drawn.") if count == 1 else tr("{count} edges drawn.", count=count))
        for widget in (self.edges, self.away):
            widget.setVisible(count > 0)
        self.focal.show_value(film_mm(frame.focal_typed_px, size) if frame.focal_typed_px else 0.0)
        told = film_mm(frame.focal_px, size) if frame.focal_px else 0.0
        self.focal.field.setPlaceholderText(
            tr("{focal} mm, file", focal=format_number(told, decimals=0)) if told else tr("as seen")
        )
