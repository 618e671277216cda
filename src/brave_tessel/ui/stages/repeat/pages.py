"""The cards of Repeat's first steps: choose the repeat, mend the seams."""

from __future__ import annotations

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from ....core.errors import TesselError
from ....core.job.document import Crop, Source
from ....core.operation import REGISTRY, family
from ....core.quantity import format_size
from ....core.repeat.choose import Proposal, check_crop, propose
from ....core.repeat.line_up import LinedUp
from ....core.repeat.method import METHODS
from ....engine.gather.analyses import Beat, cut_to_courses, scale_source, scaled_beat, set_overlap
from ....engine.intents import sheets as sheet_intents
from ....engine.intents import sources as source_intents
from ....engine.intents import surfaces as surface_intents
from ....engine.wording import sentence
from ....engine.workers import Current
from ... import theme
from ...controls.choices import Choices
from ...controls.form import OperationForm
from ...controls.panels import Heading, LengthField, button, words
from ...controls.rows import Row, RowList
from ...desk import Desk
from ...words import tr
from ..page import Page

PROPOSE_PX = 512


class ChoosePage(Page):
    """The rectangle that is made to repeat, and the crops that would close best."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk, tr("Choose the repeat"), tr("drag the rectangle on the sheet; arrows nudge it"))
        self.proposals: list[Proposal] = []
        self.asked_for = ""
        self.fields: dict[str, LengthField] = {}
        for name, label, tip in (
            ("x_mm", tr("From the left"), tr("Distance of the rectangle from the sheet's left edge.")),
            ("y_mm", tr("From the foot"), tr("Distance of the rectangle from the sheet's lower edge.")),
            ("width_mm", tr("Width"), tr("Width of the rectangle; the repeat is smaller by the overlap.")),
            ("height_mm", tr("Height"), tr("Height of the rectangle; the repeat is smaller by the overlap.")),
        ):
            field = LengthField(label, tip, zero=name in {"x_mm", "y_mm"})
            field.typed.connect(lambda value, _note, key=name: self._typed(key, value))
            field.refused.connect(lambda text: desk.tell(text, "fault"))
            self.fields[name] = field
            self.add(field)
        self.whole = button(tr("Take the whole sheet"), lambda: self._put(None), tip=tr("The whole straightened frame"))
        self.add(self.whole)
        self.add(Heading(tr("Closes best"), tr("best first")))
        self.propose = button(
            tr("Find the best"),
            self.find_best,
            name="main",
            tip=tr("Searches every rectangle of the sheet for sides that agree"),
        )
        self.add(self.propose)
        self.list = RowList(tr("Proposed rectangles"))
        self.list.setMinimumHeight(theme.px(260))
        self.list.chosen.connect(self._take)
        self.add(self.list)

    def show_source(self, source: Source) -> None:
        frame = source.straightening
        crop = source.crop or Crop(x_mm=0, y_mm=0, width_mm=frame.width_mm, height_mm=frame.height_mm)
        for name, field in self.fields.items():
            field.show_value(getattr(crop, name))
        if self.asked_for != source.id:
            self.proposals = []
        best = next((f"p{n}" for n, proposal in enumerate(self.proposals) if proposal.crop == source.crop), "")
        self.list.show_rows(
            [
                Row(
                    f"p{n}",
                    format_size(p.crop.width_mm, p.crop.height_mm),
                    tr(
                        "from {x_mm:.0f}, {y_mm:.0f} mm · sides differ {cost:.2f}",
                        x_mm=p.crop.x_mm,
                        y_mm=p.crop.y_mm,
                        cost=p.cost,
                    ),
                )
                for n, p in enumerate(self.proposals)
            ],
            best,
        )

    def _put(self, crop: Crop | None) -> None:
        source = self.desk.selection.source
        if source is None or not source.straightening.sized:
            return
        try:
            if crop is not None:
                check_crop(crop, source.straightening.width_mm, source.straightening.height_mm)
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "fault")
            return
        self.desk.dispatch(sheet_intents.set_crop(self.desk.job, source, crop))

    def _typed(self, name: str, value: float) -> None:
        source = self.desk.selection.source
        if source is None or not source.straightening.sized:
            return
        frame = source.straightening
        crop = source.crop or Crop(x_mm=0, y_mm=0, width_mm=frame.width_mm, height_mm=frame.height_mm)
        self._put(type(crop)(**{**{f: getattr(crop, f) for f in crop.__struct_fields__}, name: value}))

    def find_best(self) -> None:
        """Search for the rectangles that close best."""
        source, snapshot = self.desk.selection.source, self.desk.session.snapshot()
        if source is None or not source.straightening.sized:
            self.desk.tell(tr("The source needs its real size first; give it in Gather."), "caution")
            return
        overlap = source.mend.number("overlap") if source.mend.op == "mend.best_cut" else 0.1 * min(source.sheet_mm)
        self.desk.tell(tr("Looking for sides that agree…"))

        def work(current: Current) -> list[Proposal]:
            maps = snapshot.evaluation(current).value(snapshot.planner().evened(source, PROPOSE_PX))
            return propose(maps, overlap_mm=overlap)

        self.desk.work.ask("propose", work, lambda found: self._found(source, found))

    def _found(self, source: Source, found: list[Proposal]) -> None:
        self.proposals, self.asked_for = found, source.id
        self.desk.tell(
            tr("{count} rectangles found.", count=len(found))
            if found
            else tr("No rectangle closes better than the whole sheet.")
        )
        if found:
            self._take("p0")

    def _take(self, id: str) -> None:
        number = int(id[1:])
        if number < len(self.proposals):
            self._put(self.proposals[number].crop)


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
        column.addWidget(
            button(tr("Find the beat"), self.asked.emit, tip=tr("Measures units and courses on the straightened sheet"))
        )
        self.unit = LengthField(
            tr("Unit along a row"), tr("Measured. Type the real one to size the whole sheet by it.")
        )
        self.course = LengthField(
            tr("Course"), tr("Measured. Type the real one, such as 75, to size the whole sheet by it.")
        )
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
            self.joint.setText(tr("Not measured yet."))
            return
        turned = tr(
            "rows turned {turn:+.2f}°, uprights lean {lean:+.2f}°", turn=beat.lattice.turn, lean=beat.lattice.lean
        )
        self.joint.setText(
            tr(
                "Joint about {joint_mm:.1f} mm; {turned}; echo {strength:.2f}.",
                joint_mm=beat.joint_mm,
                turned=turned,
                strength=beat.lattice.strength,
            )
        )


class MendPage(Page):
    """How the seams are mended."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk, tr("Mend the seams"), tr("applies to every map at once"))
        self.beats: dict[str, Beat] = {}
        self.make = button(
            tr("Make a surface of it"),
            self.make_surface,
            name="main",
            tip=tr("A new surface whose repeat is this sheet; goes on to Build"),
        )
        self.add(self.make)
        self.add(Heading(tr("How")))
        options = [(entry.id, entry.label) for entry in family("mend")]
        self.method = Choices(options, options[0][0], name=tr("How"), columns=2)
        self.method.changed.connect(self.take_method)
        self.add(self.method)
        self.method_note = words("")
        self.add(self.method_note)
        self.beat = BeatPanel()
        self.beat.asked.connect(self.find_beat)
        self.beat.unit_typed.connect(self._size_by)
        self.beat.refused.connect(lambda text: self.desk.tell(text, "fault"))
        self.add(self.beat)
        self.form_holder = QVBoxLayout()
        self.column.addLayout(self.form_holder)
        self.form: OperationForm | None = None
        self.lined_up = button(
            tr("Line up the overlap"),
            self.line_up,
            tip=tr("Makes the overlap so wide that whole units are left, and keeps the best cut"),
        )
        self.add(self.lined_up)
        self.pins = button(
            tr("Let the pulled cut go"),
            self._let_go,
            tip=tr("Takes out every point the cut was pulled to; double-click one to take out that"),
        )
        self.pins_note = words(tr("Drag a cut on the cell to pull it through a place."))
        self.add(self.pins_note)
        self.add(self.pins)
        desk.repeat.beat_found.connect(self._beat_found)
        desk.repeat.overlap_found.connect(self._overlap_found)

    def show_source(self, source: Source) -> None:
        self.method.show_value(source.mend.op)
        method = METHODS.get(source.mend.op)
        self.method_note.setText(tr(method.note) if method else tr("made by another version"))
        self.beat.setVisible(source.mend.op == "mend.courses")
        self.beat.show_beat(self.beats.get(source.id))
        self.lined_up.setVisible(source.mend.op == "mend.best_cut")
        cuts = source.mend.op in {"mend.best_cut", "mend.courses"}
        self.pins.setVisible(cuts and bool(source.pins))
        self.pins_note.setVisible(cuts)
        self._show_form(source)

    def _show_form(self, source: Source) -> None:
        if self.form is None or self.form.op != source.mend.op:
            if self.form is not None:
                self.form.hide()
                self.form.deleteLater()
            self.form = self.follow(OperationForm(source.mend.op, source.mend.values), "mend")
            self.form_holder.addWidget(self.form)
        self.form.show_values(source.mend.values)

    def _let_go(self) -> None:
        source = self.desk.selection.source
        if source:
            self.desk.dispatch(sheet_intents.remove_pins(source))

    def take_method(self, op: str) -> None:
        """Close the chosen source by another way; whole courses measures its beat first."""
        source = self.desk.selection.source
        if source and op != source.mend.op:
            self.desk.dispatch(source_intents.set_method(self.desk.job, source, op))
            if op == "mend.courses":
                self.find_beat()

    def find_beat(self) -> None:
        """Measure the pattern's beat and cut to whole courses of it."""
        source = self.desk.selection.source
        if source is None or not source.straightening.sized:
            self.desk.tell(tr("The source needs its real size first; give it in Gather."), "caution")
            return
        self.desk.tell(tr("Looking for the beat…"))
        self.desk.repeat.ask_beat(source)

    def line_up(self) -> None:
        """Search for the overlap under which the pattern meets itself in step."""
        source = self.desk.selection.source
        if source is None or not source.straightening.sized or source.mend.op != "mend.best_cut":
            self.desk.tell(tr("The source needs its real size first; give it in Gather."), "caution")
            return
        self.desk.tell(tr("Looking for the beat…"))
        self.desk.repeat.ask_overlap(source)

    def _overlap_found(self, source_id: str, found: LinedUp) -> None:
        source = next((s for s in self.desk.job.sources if s.id == source_id), None)
        if source is None or source.mend.op != "mend.best_cut":
            return
        self.desk.dispatch(set_overlap(self.desk.job, source, found))
        across, up = found.overlap
        self.desk.tell(tr("Overlap {across:.1f} mm across, {up:.1f} mm up.", across=across, up=up))

    def _beat_found(self, source_id: str, beat: Beat) -> None:
        source = next((s for s in self.desk.job.sources if s.id == source_id), None)
        if source is None:
            return
        self.beats[source_id] = beat
        try:
            self.desk.dispatch(cut_to_courses(self.desk.job, source, beat))
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "fault")
            return
        told = tr(
            "Unit {unit_mm:.1f} mm, course {course:.1f} mm, joint about {joint_mm:.1f} mm.",
            unit_mm=beat.unit_mm,
            course=beat.lattice.course,
            joint_mm=beat.joint_mm,
        )
        self.desk.tell(tr("{told} Type a known one to size the sheet.", told=told))

    def _size_by(self, which: str, known: float, note: str) -> None:
        source = self.desk.selection.source
        beat = self.beats.get(source.id) if source else None
        if source is None or beat is None:
            self.desk.tell(tr("Find the beat first."), "caution")
            return
        measured = beat.unit_mm if which == "unit" else beat.lattice.course
        factor = known / measured
        self.beats[source.id] = scaled_beat(beat, factor)
        self.desk.dispatch(scale_source(self.desk.job, source, factor, note))

    def make_surface(self) -> None:
        """Turn the sheet into a surface and go on to Build."""
        source = self.desk.selection.source
        if source is None or not source.sized:
            self.desk.tell(tr("The source needs its real size first; give it in Gather."), "caution")
            return
        command, surface = surface_intents.surface_from_source(self.desk.job, source)
        if self.desk.dispatch(command):
            self.desk.selection.choose(surface=surface.id, layer=surface.layers[0].id)
            self.desk.go("Build")


def method_name(source: Source) -> str:
    """The word for a source's way of mending."""
    operation = REGISTRY.get(source.mend.op)
    return tr(operation.label).lower() if operation else source.mend.op
