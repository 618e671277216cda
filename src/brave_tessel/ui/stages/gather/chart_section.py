"""A chart of 24 patches on the photo, or on another one of the same light, makes the colours true."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QComboBox

from ....core.gather.chart import ChartReading, find_chart, read_chart
from ....core.job.document import Calibration, Job, Source
from ....core.quantity import format_number
from ....core.sheet import Raster
from ....engine.intents import sheets as sheet_intents
from ...controls.panels import Section, button, words
from ...desk import Desk
from ...words import tr
from .frame_board import FrameBoard


class ChartSection(Section):
    """Find the chart, mark it by the frame, or take what another photo's chart told."""

    def __init__(self, desk: Desk, board: FrameBoard) -> None:
        super().__init__(tr("Colour chart"), tr("24 known patches"))
        self.desk, self.board = desk, board
        self.seek = button(
            tr("Find it on the photo"), self._find, tip=tr("Looks for a chart of 24 patches and makes the colours true")
        )
        self.marked = button(
            tr("The frame lies on it"),
            self._marked,
            tip=tr("Put the frame's corners on the outer corners of the patches first"),
        )
        self.others = QComboBox()
        self.others.setAccessibleName(tr("A photo with a chart in the same light"))
        self.others.setToolTip(tr("What another photo's chart told holds here where light and camera were the same"))
        self.others.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.told = words("")
        self.away = button(tr("Let it go"), self._let_go, tip=tr("Colours as the photo has them"))
        self.add(self.seek, self.marked)
        for widget in (self.others, self.told, self.away):
            self.add(widget)
        self.others.activated.connect(self._take)

    def show_source(self, job: Job, source: Source) -> None:
        """Show what is known of a source's colours."""
        known = source.calibration
        self.told.setVisible(known is not None)
        self.away.setVisible(known is not None)
        if known is not None:
            self.told.setText(
                tr(
                    "By the chart of {chart}: colours are off by ΔE {mean} on average, {worst} at most; "
                    "{before} before, with the exposure right.",
                    chart=known.chart,
                    mean=format_number(known.mean, decimals=1),
                    worst=format_number(known.worst, decimals=1),
                    before=format_number(known.before, decimals=1),
                )
            )
        self.say(tr("ΔE {mean}", mean=format_number(known.mean, decimals=1)) if known else tr("24 known patches"))
        charts = {other.calibration.chart: other.calibration for other in job.sources if other.calibration is not None}
        self.others.clear()
        self.others.addItem(tr("From another photo…"), None)
        for name, calibration in charts.items():
            self.others.addItem(name, calibration)
        self.others.setVisible(bool(set(charts) - {known.chart if known else ""}))

    def _find(self) -> None:
        self._ask(lambda pixels: read_chart(pixels, find_chart(pixels)))

    def _marked(self) -> None:
        source = self.desk.selection.source
        if source is not None:
            corners = source.straightening.corners
            self._ask(lambda pixels: read_chart(pixels, corners))

    def _ask(self, look: Callable[[Raster], ChartReading]) -> None:
        """What is found belongs to the photo it was asked of, also where another is chosen meanwhile."""
        asked = self.desk.selection.source_id
        self.board.ask_pixels(look, lambda reading: self._read(reading, asked))

    def _read(self, reading: ChartReading, asked: str) -> None:
        source = next((one for one in self.desk.job.sources if one.id == asked), None)
        if source is None:
            return
        known = Calibration(
            matrix=tuple(round(v, 7) for v in reading.matrix),
            before=round(reading.before, 3),
            mean=round(reading.mean, 3),
            worst=round(reading.worst, 3),
            chart=source.name,
        )
        self.desk.dispatch(sheet_intents.set_calibration(source, known))
        if reading.clipped:
            self.desk.tell(tr("{count} patches are too bright to be read.", count=reading.clipped), "caution")

    def _take(self, index: int) -> None:
        source, known = self.desk.selection.source, self.others.itemData(index)
        if source is not None and known is not None:
            self.desk.dispatch(sheet_intents.set_calibration(source, known))

    def _let_go(self) -> None:
        source = self.desk.selection.source
        if source is not None:
            self.desk.dispatch(sheet_intents.set_calibration(source, None))
