"""Stage 2: does it tile, and does it look as if it tiles?"""

from __future__ import annotations

from PyQt6.QtWidgets import QStackedWidget, QWidget

from ....core.job.document import Job
from ....core.quantity import format_length, format_size
from ....core.repeat.mend import mended_at_all, mended_size
from ....engine.pictures.results import SheetPicture
from ... import theme
from ...controls.panels import Heading
from ...controls.rows import Row, RowList
from ...desk import Desk
from ...thumbs import source_thumb, unseen
from ...words import tr, tr_count
from ..gather.stage import lacks
from ..page import Page
from ..stage import LeftPanel, Stage
from .board import RepeatBoard, Tool
from .finish import SHIFT, BreakPage, TouchPage, breakup_note
from .meters_strip import Meters
from .pages import ChoosePage, MendPage, method_name
from .piece_tool import PIECE, PieceTool
from .tools import BrushTool, ChooseTool, CutTool, FeatureTool, ShiftTool

STEPS = ("choose", "mend", "touch", "break")


class RepeatStage(Stage):
    """Sources and steps at the left, cell and field on the board, meters below, the step's card at the right."""

    name = "Repeat"

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.pair = RepeatBoard()
        self.board = self.pair
        self.meters = Meters()
        self.strip = self.meters
        self.left = self._make_left()
        self.choose, self.mend, self.touch, self.break_up = (
            ChoosePage(desk),
            MendPage(desk),
            TouchPage(desk),
            BreakPage(desk),
        )
        self.pages: dict[str, Page] = dict(zip(STEPS, (self.choose, self.mend, self.touch, self.break_up), strict=True))
        self.cards = QStackedWidget()
        for page in self.pages.values():
            self.cards.addWidget(page)
        self.card = self.cards
        self._make_tools()
        desk.repeat.ready.connect(self.show_sheet)
        desk.repeat.failed.connect(self.meters.show_stale)
        desk.repeat.choice_ready.connect(self.pair.show_choice)
        desk.view.step_changed.connect(self._show_step)
        self.pair.probed.connect(lambda x, y: desk.tell(tr("x {x:6.1f}  y {y:6.1f} mm", x=x, y=y), "probe"))
        self.meters.spot.connect(self.pair.show_spot)
        self.meters.courses_wanted.connect(lambda: self.mend.take_method("mend.courses"))
        self.meters.overlap_wanted.connect(self.mend.line_up)
        self.break_up.spot.connect(self.pair.show_spot)
        self._show_step(desk.view.repeat_step)
        self.follow(lambda job: (job.sources, job.palettes))
        desk.gather.thumb_ready.connect(lambda *_thumb: self.moved())

    def _make_tools(self) -> None:
        brush = BrushTool(self.desk, self.touch.brush, self.touch.resize_brush)  # type: ignore[arg-type]
        self.brush, self.cut = brush, CutTool(self.desk)
        self.piece = PieceTool(self.desk, self.touch.brush, self.touch.turn_piece)
        self.touch.brush_changed.connect(self.piece.again)
        self.tools: dict[str, Tool] = {
            "choose": ChooseTool(self.desk),
            "mend": self.cut,
            "touch": brush,
            "break": FeatureTool(self.break_up.quieten),
            SHIFT: ShiftTool(self.desk),
            PIECE: self.piece,
        }
        self.touch.tool_changed.connect(self._touch_tool)

    def _make_left(self) -> QWidget:
        left = LeftPanel()
        self.heading = Heading(tr("Sources"))
        self.list = RowList(tr("Sources"))
        self.list.chosen.connect(lambda id: self.desk.selection.choose(source=id))
        self.steps_heading = Heading(tr("Steps to a repeat"), tr("in order"))
        self.steps = RowList(tr("Steps to a repeat"))
        self.steps.chosen.connect(self._step_chosen)
        self.steps.setFixedHeight(theme.px(40 * 5 + 8))
        for heading, rows, stretch in ((self.heading, self.list, 1), (self.steps_heading, self.steps, 0)):
            left.add(heading)
            left.add_list(rows, stretch=stretch)
        return left

    # Steps -------------------------------------------------------------------------------------------

    def _step_chosen(self, step: str) -> None:
        if step == "light":
            self.desk.go("Gather")
            self.moved()
        else:
            self.desk.view.set_step(step)

    def _show_step(self, step: str) -> None:
        self.cards.setCurrentWidget(self.pages[step])
        self.pair.take_tool(self.tools[step])
        if step == "touch":
            self._touch_tool(next(op for op, each in self.touch.tools.buttons.items() if each.isChecked()))
        self.moved()

    def _touch_tool(self, op: str) -> None:
        self.piece.let_be()
        if self.desk.view.repeat_step == "touch":
            self.pair.take_tool(self.tools.get(op, self.tools["touch"]))

    # Showing -----------------------------------------------------------------------------------------

    def show_job(self, job: Job) -> None:
        for one in job.sources:
            if unseen(one):
                self.desk.gather.ask_thumb(one)
        rows = [
            Row(
                source.id,
                source.name,
                lacks(source, lost=self.desk.followed.lost(source)),
                picture=source_thumb(source),
                severity="" if source.sized else "caution",
            )
            for source in job.sources
            if mended_at_all(source) or source.id == self.desk.selection.source_id
        ]
        self.list.show_rows(rows, self.desk.selection.source_id)
        self.heading.note.setText(str(len(rows)) if rows else "")
        source = self.desk.selection.source
        self.card.setEnabled(source is not None)
        if source is None:
            self.steps.show_rows([], "")
            return
        width, height = mended_size(source)
        strength = source.light.number("strength")
        scattered = source.scatter is not None
        touched = tr_count(len(source.touches), "{n} stroke", "{n} strokes") if source.touches else ""
        shifted = "shifted" if source.shift != (0.0, 0.0) else ""
        light = (
            tr("strewn pieces")
            if scattered
            else tr("as needed")
            if source.light.values.get("as_needed")
            else tr(
                "{strength:.0%} at {length}", strength=strength, length=format_length(source.light.number("wavelength"))
            )
            if strength
            else tr("off")
        )
        chosen = (
            tr("closed as it is") if scattered else format_size(*source.sheet_mm) if source.sized else tr("in Gather")
        )
        mended = (
            tr("closed as it is")
            if scattered
            else f"{method_name(source)}, {format_size(width, height)}"
            if width > 0
            else tr("needs a size")
        )
        self.steps.show_rows(
            [
                Row("light", tr("1  Even out light"), light),
                Row("choose", tr("2  Choose the repeat"), chosen),
                Row("mend", tr("3  Mend the seams"), mended),
                Row("touch", tr("4  Touch up"), ", ".join(part for part in (touched, shifted) if part) or "nothing"),
                Row("break", tr("5  Break the repeat"), breakup_note(source)),
            ],
            self.desk.view.repeat_step,
        )
        for page in self.pages.values():
            page.show_source(source)
        self.mend.make.setEnabled(source.sized)
        shown = self.pair.done
        if shown is not None and shown.source.id != source.id:
            self.meters.show_awaited()
        self.pair.update()

    def show_sheet(self, done: SheetPicture | None) -> None:
        self.pair.show_sheet(done)
        if not self.desk.repeat.stroking:
            self.meters.show_sheet(done)
            self.break_up.show_sheet(done)
            self.touch.show_sheet(done)

    def fit(self) -> None:
        self.pair.fit()
