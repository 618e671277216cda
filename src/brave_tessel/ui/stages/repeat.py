"""Stage 2: does it tile, and does it look as if it tiles?"""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPixmap, QPolygonF, QWheelEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from ...core.document import Job, Source
from ...core.errors import TesselError
from ...core.operation import REGISTRY, family
from ...core.quantity import format_length, format_number, format_size
from ...core.repeat.mend import METHODS, closed_size
from ...core.repeat.meters import GOOD_CUT, REPETITION_LIMIT
from ...engine import intents
from ...engine.analyses import Beat, cut_to_courses, scale_source, scaled_beat
from ...engine.wording import sentence
from .. import theme
from ..board import tile, to_pixmaps
from ..controls.choices import Choices
from ..controls.form import OperationForm
from ..controls.panels import Column, Heading, LengthField, Meter, button, words
from ..controls.rows import Row, RowList
from ..desk import Desk
from ..results import CutPicture, SheetPicture
from ..thumbs import source_thumb
from .gather import lacks
from .stage import LeftPanel, Stage, caption


class RepeatBoard(QWidget):
    """The cell, shifted by half so that its joins cross the middle, beside the field at true scale."""

    probed = pyqtSignal(float, float)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("One repeat beside the field of many")
        self.setMouseTracking(True)
        self.done: SheetPicture | None = None
        self.mips: list[QPixmap] = []
        self.field_mips: list[QPixmap] = []
        self.field_m = 4.0
        self.show_cuts = True

    def show_sheet(self, done: SheetPicture | None) -> None:
        self.done = done
        self.mips = to_pixmaps(done.mips) if done else []
        self.field_mips = to_pixmaps(done.field_mips) if done and done.field_mips else self.mips
        self.update()

    def _areas(self) -> tuple[QRectF, QRectF]:
        gap, top = theme.px(16), theme.px(34)
        half = (self.width() - 3 * gap) / 2
        high = self.height() - top - gap
        if self.done is None:
            return QRectF(gap, top, half, high), QRectF(2 * gap + half, top, half, high)
        grid = self.done.grid
        scale = min(half / grid.width_mm, high / grid.height_mm)
        cell = QRectF(gap, top, grid.width_mm * scale, grid.height_mm * scale)
        left = cell.right() + gap
        return cell, QRectF(left, top, max(10.0, self.width() - left - gap), high)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), theme.colour("board"))
        if self.done is None:
            painter.setPen(Qt.GlobalColor.white)
            painter.setFont(theme.font(13))
            text = "Choose a source that has its real size; give it one in Gather."
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, text)
            return
        cell, field = self._areas()
        title = QRectF(cell.left(), 0, cell.width(), theme.px(34))
        caption(painter, title, "Cell", f"{format_size(self.done.grid.width_mm, self.done.grid.height_mm)}, shifted ½")
        half = QRectF(cell).translated(cell.width() / 2, cell.height() / 2)
        tile(painter, self.mips, cell, half)
        self._paint_field(painter, field)
        if self.done.cut is not None:
            self._paint_worst(painter, cell, self.done.cut)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.show_cuts and self.done.cut is not None:
            self._paint_cuts(painter, cell, self.done.cut)
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(cell)

    def _paint_field(self, painter: QPainter, field: QRectF) -> None:
        assert self.done is not None
        scale = field.width() / (self.field_m * 1000)
        grid = self.done.field_grid
        one = QRectF(field.left(), field.top(), grid.width_mm * scale, grid.height_mm * scale)
        tile(painter, self.field_mips, field, one)
        title = QRectF(field.left(), 0, field.width(), theme.px(34))
        caption(painter, title, "Field", f"{format_number(self.field_m, decimals=1)} m wide, at true scale; wheel to step back")
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.drawRect(field)

    def _paint_worst(self, painter: QPainter, cell: QRectF, cut: CutPicture) -> None:
        """The worst place of the cut, enlarged below the cell where there is room."""
        assert self.done is not None
        side = min(self.height() - cell.bottom() - theme.px(44), theme.px(170))
        if side < theme.px(70):
            return
        box = QRectF(cell.left(), cell.bottom() + theme.px(14), side, side)
        grid, (x, y) = self.done.grid, cut.worst
        times = 6.0
        scale = cell.width() / grid.width_mm * times
        one = QRectF(
            box.center().x() - x * grid.width_mm * scale, box.center().y() - y * grid.height_mm * scale,
            grid.width_mm * scale, grid.height_mm * scale,
        )  # fmt: skip
        painter.save()
        painter.setClipRect(box)
        tile(painter, self.mips, box, one)
        painter.restore()
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(box)
        note = QRectF(box.right() + theme.px(12), box.top(), cell.right() - box.right() - theme.px(12), theme.px(20))
        caption(painter, note, "Worst of the cut")
        lines = (f"at {x * grid.width_mm:.0f}, {(1 - y) * grid.height_mm:.0f} mm, enlarged ×{times:.0f}", f"along the cut {max(cut.along):.2f}")
        painter.setFont(theme.font(11))
        for index, line in enumerate(lines):
            painter.drawText(note.translated(0, theme.px(20) * (index + 1)), Qt.AlignmentFlag.AlignVCenter, line)

    def _shifted(self, cell: QRectF, x: float, y: float) -> QPointF:
        """A point of the cell, given as fractions, on the picture shifted by half."""
        return QPointF(cell.left() + ((x + 0.5) % 1) * cell.width(), cell.top() + ((y + 0.5) % 1) * cell.height())

    def _paint_cuts(self, painter: QPainter, cell: QRectF, cut: CutPicture) -> None:
        path_x, path_y = cut.path_x, cut.path_y
        painter.save()
        painter.setClipRect(cell)
        upright = [self._shifted(cell, float(x), i / path_x.size) for i, x in enumerate(path_x)]
        level = [self._shifted(cell, i / path_y.size, float(y)) for i, y in enumerate(path_y)]
        for points in (upright, level):
            half = len(points) // 2
            # The shift turns each path's ends into its middle.
            for run in (points[:half], points[half:]):
                painter.setPen(QPen(theme.colour("chalk_line"), 1.6))
                painter.drawPolyline(QPolygonF(run[1:-1]))
        spot = self._shifted(cell, *cut.worst)
        painter.setPen(QPen(theme.colour("white"), 3))
        painter.drawEllipse(spot, theme.px(11), theme.px(11))
        painter.setPen(QPen(theme.colour("chalk_line"), 1.6))
        painter.drawEllipse(spot, theme.px(11), theme.px(11))
        painter.restore()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event:
            self.field_m = min(20.0, max(0.5, self.field_m * 1.0012 ** -event.angleDelta().y()))
            self.update()

    def mouseMoveEvent(self, event: object) -> None:
        if self.done is None:
            return
        at = event.position()  # type: ignore[attr-defined]
        cell, field = self._areas()
        grid = self.done.grid
        if cell.contains(at):
            x = ((at.x() - cell.left()) / cell.width() - 0.5) % 1 * grid.width_mm
            y = (1 - ((at.y() - cell.top()) / cell.height() - 0.5) % 1) * grid.height_mm
            self.probed.emit(x, y)
        elif field.contains(at):
            scale = self.field_m * 1000 / field.width()
            self.probed.emit((at.x() - field.left()) * scale, (field.bottom() - at.y()) * scale)


class Meters(QWidget):
    """Seam score, repetition score and light drift."""

    def __init__(self) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(theme.px(12), theme.px(8), theme.px(12), theme.px(6))
        title = words("Meters", "section")
        column.addWidget(title)
        row = QHBoxLayout()
        row.setSpacing(theme.px(20))
        self.seam, self.repetition, self.drift = Meter("Seam score"), Meter("Repetition score"), Meter("Light drift")
        for meter in (self.seam, self.repetition, self.drift):
            row.addWidget(meter, 1)
        column.addLayout(row, 1)
        self.foot = words("Below 1.30, 0.30 and 10 % the eye seldom finds it.")
        column.addWidget(self.foot)

    def show_sheet(self, done: SheetPicture | None) -> None:
        if done is None:
            for meter in (self.seam, self.repetition, self.drift):
                meter.show_reading("–", 0, "ok", "")
            return
        along = max(done.cut.along) if done.cut else 0.0
        score = max(done.seams[0].score, done.seams[1].score)
        closes = all(reading.closes for reading in done.seams)
        level = "ok" if closes and along <= GOOD_CUT else "caution" if along <= 2.5 else "fault"
        grid = done.grid
        text = "1.00 is no rougher than inside."
        if done.cut is not None:
            x, y = done.cut.worst
            text = f"Along the cut {along:.2f}, worst at {x * grid.width_mm:.0f}, {(1 - y) * grid.height_mm:.0f} mm."
            text += " 1.00 is no rougher than inside." if level == "ok" else " Try a wider overlap."
        self.seam.show_reading(f"{score:.2f}", score / 2, level, text)
        loud = done.repetition
        at = f"{loud.feature[0] * grid.width_mm:.0f}, {(1 - loud.feature[1]) * grid.height_mm:.0f} mm"
        tone = "pale" if loud.paler else "dark"
        level = "ok" if loud.score <= REPETITION_LIMIT else "caution" if loud.score <= 0.6 else "fault"
        self.repetition.show_reading(f"{loud.score:.2f}", loud.score, level, f"Loudest: a {tone} spot at {at}. A larger repeat calms it.")
        level = "ok" if done.drift <= 0.1 else "caution" if done.drift <= 0.25 else "fault"
        self.drift.show_reading(f"{done.drift:.1%}", done.drift * 4, level, "Brightest against darkest, before the cut. Even it out in Gather.")


def method_name(source: Source) -> str:
    """The word for a source's way of mending."""
    operation = REGISTRY.get(source.mend.op)
    return operation.label.lower() if operation else source.mend.op


def breakup_note(source: Source) -> str:
    """What breaking the repeat does to a source."""
    across, up = (int(source.breakup.number(name)) for name in ("across", "up"))
    return f"{across} × {up} cells" if max(across, up) > 1 else "off"


class BeatPanel(QWidget):
    """What whole courses measured, and the known unit that sizes the sheet."""

    asked = pyqtSignal()
    unit_typed = pyqtSignal(str, float, str)
    refused = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(theme.px(8))
        column.addWidget(button("Find the beat", self.asked.emit, tip="Measures units and courses on the straightened sheet"))
        self.unit = LengthField("Unit along a row", "Measured. Type the real one to size the whole sheet by it.")
        self.course = LengthField("Course", "Measured. Type the real one, such as 75, to size the whole sheet by it.")
        self.joint = words("")
        for which, field in (("unit", self.unit), ("course", self.course)):
            field.typed.connect(lambda value, note, key=which: self.unit_typed.emit(key, value, note))
            field.refused.connect(self.refused)
            column.addWidget(field)
        column.addWidget(self.joint)

    def show_beat(self, beat: Beat | None) -> None:
        self.unit.show_value(beat.unit_mm if beat else 0)
        self.course.show_value(beat.lattice.course if beat else 0)
        if beat is None:
            self.joint.setText("Not measured yet.")
            return
        turned = f"rows turned {beat.lattice.turn:+.2f}°, uprights lean {beat.lattice.lean:+.2f}°"
        self.joint.setText(f"Joint about {beat.joint_mm:.1f} mm; {turned}; echo {beat.lattice.strength:.2f}.")


class RepeatStage(Stage):
    """Sources and steps at the left, cell and field on the board, meters below, the mend in the card."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.pair = RepeatBoard()
        self.board = self.pair
        self.meters = Meters()
        self.strip = self.meters
        self.beats: dict[str, Beat] = {}
        self.left = self._make_left()
        self.card = self._make_card()
        desk.job_changed.connect(self.show_job)
        desk.selection_changed.connect(lambda: self.show_job(desk.job))
        desk.sheet_ready.connect(self.show_sheet)
        self.pair.probed.connect(lambda x, y: desk.tell(f"x {x:6.1f}  y {y:6.1f} mm", "probe"))
        desk.beat_found.connect(self._beat_found)
        self.show_job(desk.job)

    def _make_left(self) -> QWidget:
        left = LeftPanel()
        self.heading = Heading("Sources")
        self.list = RowList("Sources")
        self.list.chosen.connect(lambda id: self.desk.select(source=id))
        self.steps_heading = Heading("Steps to a repeat", "in order")
        self.steps = RowList("Steps to a repeat")
        self.steps.chosen.connect(self._step_chosen)
        self.steps.setMaximumHeight(theme.px(182))
        for heading, rows, stretch in ((self.heading, self.list, 1), (self.steps_heading, self.steps, 0)):
            left.add(heading)
            left.add_list(rows, stretch=stretch)
        return left

    def _make_card(self) -> Column:
        card = Column("Mend the seams")
        card.add(words("Mend the seams", "title"))
        card.add(words("applies to every map at once"))
        self.make = button("Make a surface of it", self.make_surface, name="main",
                           tip="A new surface whose repeat is this sheet; goes on to Build")  # fmt: skip
        card.add(self.make)
        card.add(Heading("How"))
        options = [(entry.id, entry.label) for entry in family("mend")]
        self.method = Choices(options, options[0][0], name="How", columns=2)
        self.method.changed.connect(self._set_method)
        card.add(self.method)
        self.method_note = words("")
        card.add(self.method_note)
        self.beat = BeatPanel()
        self.beat.asked.connect(self.find_beat)
        self.beat.unit_typed.connect(self._size_by)
        self.beat.refused.connect(lambda text: self.desk.tell(text, "fault"))
        card.add(self.beat)
        self.form_holder = QVBoxLayout()
        card.column.addLayout(self.form_holder)
        self.form: OperationForm | None = None
        card.add(Heading("Break the repeat", "a larger sheet"))
        self.breakup = OperationForm("breakup.hex", {})
        self.breakup.changed.connect(lambda name, value: self._set(name, value, part="breakup"))
        self.breakup.released.connect(self.desk.end_gesture)
        self.breakup.refused.connect(lambda text: self.desk.tell(text, "fault"))
        card.add(self.breakup)
        return card

    def _set(self, name: str, value: object, part: str = "mend") -> None:
        source = self.desk.source
        if source:
            self.desk.dispatch(
                intents.set_source_value(self.desk.job, source, part, name, value, gesture=f"{part}-{name}")  # type: ignore[arg-type]
            )

    def _set_method(self, op: str) -> None:
        source = self.desk.source
        if source and op != source.mend.op:
            self.desk.dispatch(intents.set_method(self.desk.job, source, op))
            if op == "mend.courses":
                self.find_beat()

    def find_beat(self) -> None:
        """Measure the pattern's beat and cut to whole courses of it."""
        source = self.desk.source
        if source is None or not source.straightening.sized:
            self.desk.tell("The source needs its real size first; give it in Gather.", "caution")
            return
        self.desk.tell("Looking for the beat…")
        self.desk.ask_beat(source)

    def _beat_found(self, source_id: str, beat: Beat) -> None:
        source = next((s for s in self.desk.job.sources if s.id == source_id), None)
        if source is None:
            return
        self.beats[source_id] = beat
        try:
            self.desk.dispatch(cut_to_courses(self.desk.job, source, beat))
        except TesselError as error:
            self.desk.tell(sentence(error), "fault")
            return
        told = f"Unit {beat.unit_mm:.1f} mm, course {beat.lattice.course:.1f} mm, joint about {beat.joint_mm:.1f} mm."
        self.desk.tell(f"{told} Type a known one to size the sheet.")

    def _size_by(self, which: str, known: float, note: str) -> None:
        source = self.desk.source
        beat = self.beats.get(source.id) if source else None
        if source is None or beat is None:
            self.desk.tell("Find the beat first.", "caution")
            return
        measured = beat.unit_mm if which == "unit" else beat.lattice.course
        factor = known / measured
        self.beats[source.id] = scaled_beat(beat, factor)
        self.desk.dispatch(scale_source(self.desk.job, source, factor, note))

    def _step_chosen(self, step: str) -> None:
        if step in {"size", "light"}:
            self.desk.go("Gather")

    def make_surface(self) -> None:
        """Turn the sheet into a surface and go on to Build."""
        source = self.desk.source
        if source is None or min(closed_size(source)) <= 0:
            self.desk.tell("The source needs its real size first; give it in Gather.", "caution")
            return
        command, surface = intents.surface_from_source(self.desk.job, source)
        if self.desk.dispatch(command):
            self.desk.select(surface=surface.id, layer=surface.layers[0].id)
            self.desk.go("Build")

    def show_job(self, job: Job) -> None:
        rows = [
            Row(source.id, source.name, lacks(source), picture=source_thumb(self.desk.session, source),
                level="" if source.straightening.sized else "caution")
            for source in job.sources
        ]  # fmt: skip
        self.list.show_rows(rows, self.desk.source_id)
        self.heading.note.setText(str(len(rows)) if rows else "")
        source = self.desk.source
        self.card.setEnabled(source is not None)
        if source is None:
            self.steps.show_rows([], "")
            return
        width, height = closed_size(source)
        strength = source.light.number("strength")
        steps = [
            Row("size", "1  Give it its size", format_size(source.straightening.width_mm, source.straightening.height_mm) if source.straightening.sized else "in Gather"),
            Row("light", "2  Even out light", f"{strength:.0%} at {format_length(source.light.number('wavelength'))}" if strength else "off"),
            Row("mend", "3  Mend the seams", f"{method_name(source)}, {format_size(width, height)}" if width > 0 else "needs a size"),
            Row("breakup", "4  Break the repeat", breakup_note(source)),
        ]
        self.steps.show_rows(steps, "mend")
        self.method.show_value(source.mend.op)
        method = METHODS.get(source.mend.op)
        self.method_note.setText(method.note if method else "made by another version")
        self.beat.setVisible(source.mend.op == "mend.courses")
        self.beat.show_beat(self.beats.get(source.id))
        self._show_form(source)
        self.breakup.show_values(source.breakup.values)
        self.make.setEnabled(min(width, height) > 0)

    def _show_form(self, source: Source) -> None:
        if self.form is None or self.form.op != source.mend.op:
            if self.form is not None:
                self.form.hide()
                self.form.deleteLater()
            self.form = OperationForm(source.mend.op, source.mend.values)
            self.form.changed.connect(self._set)
            self.form.released.connect(self.desk.end_gesture)
            self.form.refused.connect(lambda text: self.desk.tell(text, "fault"))
            self.form_holder.addWidget(self.form)
        self.form.show_values(source.mend.values)

    def show_sheet(self, done: SheetPicture | None) -> None:
        self.pair.show_sheet(done)
        self.meters.show_sheet(done)
