"""What lies on the chosen part: each surface with its faces, its laying, its datum and its true size."""

from __future__ import annotations

from functools import partial

import msgspec
from PyQt6.QtCore import QObject, QSize, Qt, pyqtSignal
from PyQt6.QtWidgets import QButtonGroup, QGridLayout, QLineEdit, QSizePolicy, QToolButton, QVBoxLayout, QWidget

from ....core.errors import TesselError
from ....core.job.document import Job
from ....core.job.layers import Surface
from ....core.job.nodes import new_id
from ....core.job.scene import IN_PLACE, WITH_PART, Laid, Part, Pin, Place
from ....core.lines import thinned
from ....core.operation import Value, family
from ....core.phrases import say
from ....core.place.elevation import Courses
from ....core.place.paths import Track
from ....core.place.recover import Recovered, recover
from ....core.place.site import Site, Standing, worn
from ....core.quantity import format_length, format_level, format_number, format_size, parse_length
from ....core.sheet import AnyArray
from ....engine.intents import scene as intents
from ....engine.wording import sentence
from ... import theme
from ...controls.form import OperationForm
from ...controls.panels import Heading, Section, button, words
from ...controls.rows import Row, RowList
from ...desk import Desk
from ...words import tr
from ...workroom import Pace
from .band_board import BandBoard, band_section
from .cards import Pick, length_field
from .fit_panel import FitPanel
from .laying_pictures import laying_icon

LAYINGS = ("flat", "box", "all_round", "around", "path", "unwrapped", "pinned")


class LayingPick(QWidget):
    """The layings as drawings, one of which is chosen."""

    changed = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(theme.px(4))
        t = theme.tokens()
        self.setStyleSheet(
            f"QToolButton {{ border: 1px solid {t.line}; border-radius: 3px; background: {t.white}; padding: 1px; "
            f"min-height: {theme.px(46)}px; max-height: {theme.px(46)}px; }}"
            f"QToolButton:checked {{ border-color: {t.verdigris}; background: {t.wash}; }}"
            f"QToolButton:focus {{ border-color: {t.verdigris}; }}"
        )
        self.group = QButtonGroup(self)
        self.buttons: dict[str, QToolButton] = {}
        known = {entry.id: entry for entry in family("laying")}
        order = [f"laying.{name}" for name in LAYINGS if f"laying.{name}" in known]
        for index, op in enumerate([*order, *(id for id in known if id not in order)]):
            made = QToolButton()
            made.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextUnderIcon)
            made.setIcon(laying_icon(op))
            made.setIconSize(QSize(theme.px(28), theme.px(28)))
            made.setText(tr(known[op].label))
            made.setToolTip(tr(known[op].summary))
            made.setAccessibleName(tr("Laying: {name}", name=tr(known[op].label)))
            made.setCheckable(True)
            made.setMinimumWidth(theme.px(40))
            made.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
            made.clicked.connect(lambda _checked=False, id=op: self.changed.emit(id))
            self.group.addButton(made)
            self.buttons[op] = made
            grid.addWidget(made, index // 3, index % 3)

    def show_value(self, op: str) -> None:
        """Show which is chosen; none where it is not known."""
        self.group.setExclusive(False)
        for id, made in self.buttons.items():
            made.setChecked(id == op)
        self.group.setExclusive(True)


class LaidCard(QObject):
    """Fills a column with what lies on one part. ``laid_id`` is the one whose laying is shown."""

    chosen = pyqtSignal(str)
    datum_wanted = pyqtSignal(str)
    pins_wanted = pyqtSignal()
    path_wanted = pyqtSignal(str)
    edge_wanted = pyqtSignal(str)
    previewed = pyqtSignal(object)
    sheet_wanted = pyqtSignal()
    fit_again = pyqtSignal()

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk = desk
        self.laid_id = ""
        self.key: object = None
        self.rows: RowList | None = None
        self.kind: LayingPick | None = None
        self.form: OperationForm | None = None
        self.datum = words("", "mono")
        self.note = words("")
        self.courses = words("", "")
        self.count: QLineEdit | None = None
        self.fit: FitPanel | None = None
        self.board: BandBoard | None = None
        self.pictures: dict[str, AnyArray] = {}
        self.face = -1
        self.site: Site | None = None
        self.size_open = False

    def laid_of(self, part: Part | None) -> Laid | None:
        """The one that is chosen of those on a part; its topmost if that is not there."""
        if part is None or not part.laid:
            return None
        return next((one for one in part.laid if one.id == self.laid_id), part.laid[-1])

    def key_of(self, part: Part) -> object:
        """What the controls hang on."""
        laid = self.laid_of(part)
        pins = tuple(pin.id for pin in laid.pins) if laid else ()
        surface = next((one for one in self.desk.job.surfaces if laid and one.id == laid.surface), None)
        bands = tuple((one.id, one.name) for one in surface.bands) if surface else ()
        shown = laid and (laid.id, laid.laying.op, laid.band)
        return part.id, tuple(one.id for one in part.laid), shown, pins, bool(laid and laid.path), bands

    def nothing(self) -> list[QWidget]:
        """No controls: those of the card before went with it."""
        self.courses, self.datum, self.note = words("", ""), words("", "mono"), words("")
        self.rows = self.kind = self.form = self.fit = self.board = None
        return []

    def widgets(self, job: Job, part: Part) -> list[QWidget]:
        """The controls, in their order."""
        self.key = self.key_of(part)
        laid = self.laid_of(part)
        made: list[QWidget] = [*self.nothing(), Heading(tr("Surfaces"), tr("top one last"))]
        if laid is None:
            made.append(words(tr("Bare. Drag a surface onto it, or click one in the list.")))
            return made
        self.rows = RowList(tr("Surfaces on the part"))
        self.rows.setFixedHeight(theme.px(42) * min(len(part.laid), 4) + 4)
        self.rows.chosen.connect(self._choose)
        self.rows.deleted.connect(lambda id: self.desk.dispatch(intents.take_off(part.id, id)))
        self.fit = FitPanel(self.desk)
        self.fit.previewed.connect(self.previewed.emit)
        self.fit.sheet_wanted.connect(self.sheet_wanted.emit)
        self.fit.again.connect(self.fit_again.emit)
        made += [self.rows, Heading(tr("Courses")), self.courses, self.fit, Heading(tr("Laying"), tr("real size"))]
        self.kind = LayingPick()
        self.kind.changed.connect(self._set_kind)
        self.form = OperationForm(laid.laying.op, laid.laying.values)
        self.form.changed.connect(self._set_value)
        self.form.released.connect(self.desk.end_gesture)
        self.form.refused.connect(lambda text: self.desk.tell(text, "fault"))
        made += [self.kind, *self._extra(job, part, laid), self.form, self._size(job, laid)]
        made += [Heading(tr("Datum"), tr("picked on the model")), *self._datum(job, laid)]
        made += [self.note, button(tr("Take it off"), self._take_off, tip=tr("What lies beneath it shows"))]
        return made

    def _bands(self, job: Job, laid: Laid) -> list[QWidget]:
        """Bands that a moulding takes of its surface."""
        surface = next((one for one in job.surfaces if one.id == laid.surface), None)
        if surface is None:
            return []
        self.board = BandBoard()
        return [band_section(self.desk, surface, surface.band(laid.band), self.board, self._take_band)]

    def _take_band(self, id: str) -> None:
        now = self._now()
        if now is not None and now[1].band != id:
            self.desk.dispatch(intents.take_band(self.desk.job, now[0].id, now[1], id))

    def _extra(self, job: Job, part: Part, laid: Laid) -> list[QWidget]:
        """What some layings need beside their dials."""
        if laid.laying.op == "laying.pinned":
            return [self._pins(part, laid)]
        if laid.laying.op == "laying.path":
            own = button(
                tr("Draw its path"), lambda: self.path_wanted.emit(laid.id), tip=tr("Click its points on the model")
            )
            found = button(tr("Find its path"), self._find_path, tip=tr("The middle of a tube, strip or moulding"))
            edge = button(tr("Along an edge"), lambda: self.edge_wanted.emit(laid.id), tip=tr("Click it on the model"))
            clear = button(tr("The part's own"), lambda: self._set_laid("path", ()), tip=tr("Along the part itself"))
            clear.setEnabled(bool(laid.path))
            return [own, found, edge, clear, *self._bands(job, laid)]
        return []

    def _find_path(self) -> None:
        """Find the line the faces run along, off the window's thread."""
        now, site = self._now(), self.site
        one = site.of_part(now[0].id) if now and site else None
        if now is None or one is None or now[1] not in one.part.laid:
            return
        part, laid = now
        faces = one.faces_of(one.part.laid.index(laid))

        def work(_current: object) -> Recovered:
            return recover(one.made.mesh, faces)

        def then(found: Recovered) -> None:
            radius = float(found.radius.mean())
            line = thinned(found.points, 0.003 * radius, closed=found.closed)
            if self.desk.dispatch(intents.laid_path(part.id, laid.id, line, closed=found.closed)):
                told = tr("Its path is {length} long; its faces are {radius:.1f} mm from it.",
                          length=format_length(Track(line, closed=found.closed).length), radius=radius)  # fmt: skip
                self.desk.tell(told)

        self.desk.work.ask("path", work, then, pace=Pace.LONG)

    def _pins(self, part: Part, laid: Laid) -> QWidget:
        section = Section(tr("Pins"), tr("{count} of at least 4", count=len(laid.pins)), unfolded=True)
        section.add(
            button(tr("Set pins"), self.pins_wanted.emit, tip=tr("Click the model where each corner belongs")),
            button(tr("Clear"), lambda: self._set_laid("pins", ())),
        )
        for number, pin in enumerate(laid.pins):
            for name, label in (("x_mm", say("Pin {number}, along")), ("y_mm", say("Pin {number}, up"))):
                section.add(
                    length_field(
                        tr(label, number=number + 1), tr("Where it is on the sheet, from its lower left corner"),
                        getattr(pin, name), partial(self._move_pin, pin.id, name), self._refused,
                    )
                )  # fmt: skip
        return section

    def _refused(self, text: str) -> None:
        self.desk.tell(text, "fault")

    def _size(self, job: Job, laid: Laid) -> QWidget:
        """Size by counting: units and a joint, or a line measured on the model."""
        section = Section(tr("Size by counting"), unfolded=self.size_open)
        section.head.toggled.connect(lambda on: setattr(self, "size_open", on))
        self.count = QLineEdit()
        self.count.setAccessibleName(tr("Length of a whole repeat along"))
        self.count.setPlaceholderText(tr("8*(150 + 3), or 1224 mm"))
        self.count.returnPressed.connect(self._counted)
        section.add(words(tr("A whole repeat along the face is")), self.count)
        lines = job.scene.lines
        line = button(tr("As the measured line"), self._by_line, tip=tr("The last measured line is one repeat along"))
        line.setEnabled(bool(lines))
        section.add(line, button(tr("True size"), lambda: self._set_value("factor", 1.0)))
        return section

    def _datum(self, job: Job, laid: Laid) -> list[QWidget]:
        choices = {"": tr("the scene's")} | {
            datum.id: datum.name or datum.id for datum in job.scene.datums if datum.id != job.scene.datum
        }
        own = Pick(tr("Starts from"), choices, laid.datum, lambda id: self._set_laid("datum", id))
        holds = Pick(
            tr("Holds"), {IN_PLACE: tr("in place"), WITH_PART: tr("with the part")}, laid.holds,
            lambda word: self._set_laid("holds", word),
        )  # fmt: skip
        pick = button(tr("Pick the datum"), lambda: self.datum_wanted.emit(""), icon="pin",
                      tip=tr("For the whole scene; it snaps to corners, edges and levels"))  # fmt: skip
        mine = button(tr("One of its own"), lambda: self.datum_wanted.emit(laid.id), tip=tr("For this surface alone"))
        row = QWidget()
        column = QVBoxLayout(row)
        column.setContentsMargins(0, 0, 0, 0)
        for widget in (pick, mine):
            column.addWidget(widget)
        self.pick = pick
        return [self.datum, own, holds, row]

    # Intents -----------------------------------------------------------------------------------------

    def _choose(self, id: str) -> None:
        self.laid_id = id
        self.chosen.emit(id)

    def _now(self) -> tuple[Part, Laid] | None:
        part = self.desk.selection.part
        laid = self.laid_of(part)
        return (part, laid) if part is not None and laid is not None else None

    def _set_kind(self, op: str) -> None:
        now = self._now()
        if now:
            self.desk.dispatch(intents.set_laying(now[0].id, now[1], op))

    def _set_value(self, name: str, value: Value) -> None:
        now = self._now()
        if now:
            part, laid = now
            gesture = f"laying-{laid.id}-{name}"
            self.desk.dispatch(intents.set_laying_value(part.id, laid, name, value, gesture=gesture))

    def _set_laid(self, name: str, value: object) -> None:
        now = self._now()
        if now:
            self.desk.dispatch(intents.set_laid(now[0].id, now[1].id, name, value))

    def _take_off(self) -> None:
        now = self._now()
        if now:
            self.desk.dispatch(intents.take_off(now[0].id, now[1].id))

    def _counted(self) -> None:
        """A typed sum is how long a whole repeat lies along the face."""
        if self.count is not None:
            try:
                self._repeat_is(parse_length(self.count.text()))
            except TesselError as error:
                self.desk.tell(tr(sentence(error)), "fault")

    def _by_line(self) -> None:
        lines = self.desk.job.scene.lines
        if lines:
            a, b = lines[-1].start, lines[-1].end
            self._repeat_is(sum((p - q) ** 2 for p, q in zip(a, b, strict=True)) ** 0.5)

    def _repeat_is(self, length: float) -> None:
        now = self._now()
        surface = worn(self.desk.job, now[1]) if now else None
        if now is None or surface is None or length <= 0:
            self.desk.tell(tr("A repeat is longer than nothing."), "fault")
            return
        factor = round(length / surface.width_mm, 6)
        self._set_value("factor", factor)
        self.desk.end_gesture()
        told = tr("One repeat is {length} along: size {factor} ×.", length=format_length(length),
                  factor=format_number(factor, decimals=4))  # fmt: skip
        self.desk.tell(told)

    def add_pin(self, at: Place) -> None:
        """Hold the next corner of the sheet to a point: lower left, lower right, upper right, upper left, then its
        middle.
        """
        now = self._now()
        surface = worn(self.desk.job, now[1]) if now else None
        if now is None or surface is None:
            return
        w, h = surface.width_mm, surface.height_mm
        spots = ((0.0, 0.0), (w, 0.0), (w, h), (0.0, h))
        count = len(now[1].pins)
        x, y = spots[count] if count < len(spots) else (w / 2, h / 2)
        pin = Pin(id=new_id("pin"), x_mm=x, y_mm=y, at=at)
        self._set_laid("pins", (*now[1].pins, pin))

    def _move_pin(self, id: str, name: str, value: float) -> None:
        now = self._now()
        if now:
            pins = tuple(msgspec.structs.replace(pin, **{name: value}) if pin.id == id else pin for pin in now[1].pins)
            self._set_laid("pins", pins)

    # Showing -----------------------------------------------------------------------------------------

    def show_values(self, job: Job, part: Part, site: Site | None) -> None:
        """Show what is laid now; sends nothing."""
        self.site = site
        laid = self.laid_of(part)
        if laid is None or self.rows is None or self.kind is None or self.form is None:
            return
        names = {surface.id: surface for surface in job.surfaces}
        one = site.of_part(part.id) if site else None
        self.rows.show_rows([self._row(part, k, names, one) for k in range(len(part.laid))], laid.id)
        self.kind.show_value(laid.laying.op)
        self.form.show_values(laid.laying.values)
        if site is not None:
            point, _ = site.datum(laid)
            name = next((d.name for d in job.scene.datums if d.id == (laid.datum or job.scene.datum)), tr("origin"))
            self.datum.setText(f"{name}\n{format_level(float(point[2]))}")
        self.note.setText(self._note(laid, part, site))
        if self.board is not None and laid.surface in names:
            self.board.show_surface(names[laid.surface], self.pictures.get(laid.surface), laid.band)
        if self.fit is not None:
            self.fit.show_laid(job, part, laid, site, self.face)

    def show_courses(self, counted: Courses | None, *, waiting: bool = False) -> None:
        """Say how many courses are whole, and which are cut; ``waiting`` while they are still counted."""
        if counted is None:
            self.courses.setText(tr("Counting courses…") if waiting else tr("No courses to count here."))
            return
        first = tr("{whole} whole courses of {size} mm.", whole=counted.whole,
                   size=format_number(counted.course_mm, decimals=1))  # fmt: skip
        rest = tr(" and ").join(tr("{value:.0f} mm", value=value) for value in counted.cut_mm)
        cut = tr("{first} Cut: {rest}.", first=first, rest=rest)
        self.courses.setText(cut if counted.cut_mm else tr("{first} None is cut.", first=first))

    def _row(self, part: Part, number: int, names: dict[str, Surface], one: Standing | None) -> Row:
        laid = part.laid[number]
        surface = names.get(laid.surface)
        title = surface.name if surface else tr("unknown surface") if laid.surface else tr("bare")
        if laid.picked:
            faces = tr("picked faces")
        elif laid.groups:
            faces = ", ".join(tr(name) for name in laid.groups[:3]) + ("…" if len(laid.groups) > 3 else "")
        else:
            faces = tr("whole part")
        area = f" · {format_number(float(one.mesh.areas[one.faces_of(number)].sum()) / 1e6)} m²" if one else ""
        return Row(laid.id, title, f"{faces}{area}")

    def _note(self, laid: Laid, part: Part, site: Site | None) -> str:
        if not laid.laying.known:
            return tr("“{op}” was made by another version. It is kept unchanged.", op=laid.laying.op)
        one = site.of_part(part.id) if site else None
        if site is None or one is None or laid not in one.part.laid:
            return ""
        found = site.coordinates(one, one.part.laid.index(laid))
        if found.note:
            return tr(_NOTES.get(found.note, found.note))
        surface = site.surface(laid)
        return format_size(surface.width_mm, surface.height_mm) if surface else ""


_NOTES = {
    "no unwrap": say("This part has no unwrap of its own."),
    "no path": say("This part runs along no path; draw one."),
    "too few pins": say("Set at least four pins."),
    "pins in one line": say("The pins lie in one line; move one of them."),
}
