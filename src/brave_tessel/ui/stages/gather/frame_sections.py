"""How big a source is: its frame, and a line over something known."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QCheckBox, QComboBox, QHBoxLayout, QLabel, QWidget

from ....core.gather.known import KNOWN, KnownThing
from ....core.gather.straighten import length_on_sheet, proposed_px_per_mm
from ....core.job.document import Source
from ....core.quantity import format_number, parse_ratio
from ....engine.intents import sheets as sheet_intents
from ....engine.intents import sources as source_intents
from ....engine.pictures.results import GatherPicture
from ... import theme
from ...controls.panels import LengthField, Section, button, words
from ...controls.typed import TypedLine
from ...desk import Desk
from ...words import tr
from .frame_board import FrameBoard


class KnownField(QWidget):
    """Something known to type; empty takes it from the view."""

    typed = pyqtSignal(float)
    refused = pyqtSignal(str)

    def __init__(self, name: str, tip: str, read: Callable[[str], float], *, decimals: int) -> None:
        super().__init__()
        self.decimals = decimals
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(QLabel(name), 1)
        self.field = TypedLine(name, 104, read)
        self.field.setPlaceholderText(tr("as seen"))
        row.addWidget(self.field)
        row.addSpacing(theme.px(24))
        self.setToolTip(tip)
        self.field.refused.connect(self.refused)
        self.field.read.connect(self.typed.emit)

    def show_value(self, value: float) -> None:
        self.field.show_text(format_number(value, decimals=self.decimals) if value else "")


class FrameSection(Section):
    """The frame's proportion and real size."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(tr("Frame"), tr("straightens the view"), unfolded=True)
        self.desk = desk
        self.ratio: float | None = None
        self.proportion = words("", "mono")
        self.width_field = LengthField(
            tr("Width"), tr("Real width of the frame. Sums work: 34*75 is thirty-four courses of 75 mm.")
        )
        self.height_field = LengthField(tr("Height"), tr("Real height of the frame."))
        self.keep = QCheckBox(tr("Keep the view's proportion"))
        self.keep.setChecked(True)
        self.keep.setToolTip(tr("The height follows from the width by the proportion computed from the view."))
        self.locked = KnownField(
            tr("Known proportion"),
            tr("Width to height where you know it, such as 3:2 or 1.414; empty takes it from the view."),
            parse_ratio,
            decimals=4,
        )
        self.doubt = words("", "caution")
        self.density = words("")
        self.whole = button(tr("Whole picture"), self._whole, tip=tr("Puts the frame on the picture's edges"))
        self.another = button(
            tr("Another patch"), self._another, tip=tr("One more frame on the same photo, as a source of its own")
        )
        for widget in (
            self.proportion,
            self.doubt,
            self.width_field,
            self.height_field,
            self.keep,
            self.locked,
            self.density,
        ):
            self.add(widget)
        self.add(self.whole, self.another)
        self.width_field.typed.connect(self._width_typed)
        self.height_field.typed.connect(self._height_typed)
        self.locked.typed.connect(self._lock)
        for field in (self.width_field, self.height_field, self.locked):
            field.refused.connect(lambda text: desk.tell(text, "fault"))

    def show_source(self, source: Source) -> None:
        frame = source.straightening
        self.width_field.show_value(frame.width_mm)
        self.height_field.show_value(frame.height_mm)
        self.locked.show_value(frame.locked)
        self.density.setVisible(frame.sized)
        if frame.sized:
            density = proposed_px_per_mm(frame.corners, frame.width_mm, frame.height_mm)
            size = round(density * frame.width_mm), round(density * frame.height_mm)
            note = tr(", size {size_note}", size_note=frame.size_note) if frame.size_note.startswith("from") else ""
            self.density.setText(
                tr(
                    "The photo resolves {number} px per mm, {size} × {size_2} px in all{note}.",
                    number=format_number(density, decimals=2),
                    size=size[0],
                    size_2=size[1],
                    note=note,
                )
            )

    def show_picture(self, done: GatherPicture) -> None:
        self.ratio = done.proportion
        locked, seen = done.source.straightening.locked, done.seen
        if locked:
            told = tr("Proportion as you say {ratio} : 1", ratio=format_number(locked, decimals=3))
        elif seen is None:
            told = tr("The view does not tell the proportion.")
        else:
            how = tr("By focal length") if seen.known else tr("Proportion")
            told = tr(
                "{how} {ratio} : 1 ± {share} %",
                how=how,
                ratio=format_number(seen.ratio, decimals=3),
                share=format_number(100 * seen.uncertain, decimals=1),
            )
        self.proportion.setText(told)
        self.proportion.setToolTip(
            tr("± for corners that are one pixel off; more where the photo may be cut from a larger one")
        )
        remark = seen.remark if seen is not None and not locked else None
        self.doubt.setText(tr(remark) if remark else "")
        self.doubt.setVisible(remark is not None)

    def _width_typed(self, width: float, note: str) -> None:
        source = self.desk.selection.source
        if source is None:
            return
        height = source.straightening.height_mm
        if self.keep.isChecked() or height <= 0:
            if self.ratio is None:
                self.desk.tell(tr("The view does not tell the proportion: type the height too."), "caution")
                height = height or width
            else:
                height = round(width / self.ratio, 2)
        self.desk.dispatch(source_intents.resize_source(self.desk.job, source, width, height, note))

    def _height_typed(self, height: float, note: str) -> None:
        source = self.desk.selection.source
        if source is None:
            return
        width = source.straightening.width_mm
        if width <= 0:
            width = round(height * (self.ratio or 1.0), 2)
        else:
            self.keep.setChecked(False)
        self.desk.dispatch(source_intents.resize_source(self.desk.job, source, width, height, note))

    def _lock(self, ratio: float) -> None:
        source = self.desk.selection.source
        if source is None:
            return
        self.desk.dispatch(sheet_intents.lock_proportion(source, ratio))
        self.ratio = ratio or None
        source = self.desk.selection.source
        if ratio and source is not None and source.straightening.sized and self.keep.isChecked():
            width = source.straightening.width_mm
            self.desk.dispatch(
                source_intents.resize_source(
                    self.desk.job, source, width, round(width / ratio, 2), source.straightening.size_note
                )
            )

    def _whole(self) -> None:
        source = self.desk.selection.source
        if source:
            w, h = float(source.width_px), float(source.height_px)
            self.desk.dispatch(source_intents.set_frame(source, ((0.0, 0.0), (w, 0.0), (w, h), (0.0, h))))

    def _another(self) -> None:
        source = self.desk.selection.source
        if source is None:
            return
        command, fresh = sheet_intents.another_patch(self.desk.job, source)
        if self.desk.dispatch(command):
            self.desk.selection.choose(source=fresh.id)


class LineSection(Section):
    """The dimension line, and things of known size."""

    def __init__(self, desk: Desk, board: FrameBoard, frame: FrameSection) -> None:
        super().__init__(tr("Dimension line"), tr("over a known length"), unfolded=True)
        self.desk, self.board, self.frame = desk, board, frame
        self.measure = button(
            tr("Draw a dimension line"),
            self._start,
            icon="ruler-2",
            tip=tr("Drag over something whose length you know (D)"),
        )
        self.measure.setCheckable(True)
        self.length = LengthField(
            tr("Its real length"), tr("Length of the drawn line; sets the size of the whole frame.")
        )
        self.known = QComboBox()
        self.known.setAccessibleName(tr("A thing of known size"))
        self.known.setToolTip(
            tr("With a line drawn it is the thing's longer side; without one the frame lies round the thing")
        )
        self.known.addItem(tr("It is a…"), None)
        for thing in KNOWN:
            size = f"{format_number(thing.width_mm, decimals=2)} × {format_number(thing.height_mm, decimals=2)}"
            self.known.addItem(tr("{name}, {size} mm", name=thing.name, size=size), thing)
        self.known.setMinimumContentsLength(12)
        self.known.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        for widget in (self.measure, self.length, self.known):
            self.add(widget)
        self.length.typed.connect(self.set_length)
        self.length.refused.connect(lambda text: desk.tell(text, "fault"))
        self.known.activated.connect(self._known_chosen)
        board.measured.connect(self._drawn)
        board.tool_changed.connect(lambda name: self.measure.setChecked(name == "measure"))

    def _start(self) -> None:
        self.board.use("measure" if self.measure.isChecked() else "frame")

    def _drawn(self) -> None:
        self.length.field.setFocus()
        self.desk.tell(tr("Type the real length of the line in the card."))

    def set_length(self, length: float, note: str) -> None:
        """Size the whole frame by the drawn line."""
        source, line, ratio = self.desk.selection.source, self.board.line, self.frame.ratio
        if source is None or line is None:
            self.desk.tell(tr("Draw a dimension line first."), "caution")
            return
        if ratio is None:
            self.desk.tell(tr("The view does not tell the proportion: type width and height instead."), "caution")
            return
        frame = source.straightening
        share = length_on_sheet(
            frame.corners,
            *line,
            width=ratio,
            height=1.0,
            lens=frame.lens,
            picture_size=(source.width_px, source.height_px),
        )
        height = length / share
        self.desk.dispatch(
            source_intents.resize_source(self.desk.job, source, round(height * ratio, 2), round(height, 2), note)
        )

    def _known_chosen(self, index: int) -> None:
        thing: KnownThing | None = self.known.itemData(index)
        self.known.setCurrentIndex(0)
        source = self.desk.selection.source
        if thing is None or source is None:
            return
        if self.board.line is not None:
            self.set_length(thing.longest_mm, thing.name)
            return
        width, height = thing.width_mm, thing.height_mm
        if self.frame.ratio is not None and (self.frame.ratio < 1) != (width < height):
            width, height = height, width
        self.desk.dispatch(source_intents.resize_source(self.desk.job, source, width, height, thing.name))
        self.desk.tell(
            tr("The frame now has the size of: {name} ({standard}).", name=tr(thing.name), standard=thing.standard)
        )
