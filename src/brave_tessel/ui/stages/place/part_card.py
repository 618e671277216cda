"""The card of a part: its name, where it stands, its sizes, openings, copies, hinge, and what model it is of."""

from __future__ import annotations

from functools import partial

import msgspec
from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QWidget

from ....core.job.document import Job
from ....core.job.nodes import Setting
from ....core.job.scene import Hinge, Opening, Part
from ....core.operation import Angle, Param, Toggle, Value, called, family, named
from ....core.phrases import say
from ....core.place.guess import UNITS
from ....core.place.mend import MENDS, health
from ....core.place.profiles import outline_of
from ....core.place.site import Standing
from ....core.quantity import format_number
from ....engine.intents import scene as intents
from ....engine.place.bring import resize
from ...controls.choices import SwitchField
from ...controls.form import OperationForm
from ...controls.panels import Section, button, words
from ...desk import Desk
from ...words import tr
from .cards import Pick, length_field, scale
from .profile_board import ProfileBoard

HEADS = {"flat": say("flat"), "segmental": say("segmental"), "round": say("round"), "pointed": say("pointed")}
FILLINGS = {"open": say("open"), "window": say("window"), "door": say("door")}
TURN = Angle(-180, 180, help="Turns the part about the upright, anticlockwise seen from above.")


class PartCard(QObject):
    """Fills a column with what belongs to one part; made anew when the part becomes of another kind."""

    asked = pyqtSignal(str)
    """A tool that is asked for: path, window, door, open."""

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk = desk
        self.key: object = None
        self.form: OperationForm | None = None
        self.board: ProfileBoard | None = None
        self.fields: dict[str, QWidget] = {}
        self.sections: dict[str, Section] = {}
        self.open: dict[str, bool] = {"Sizes": True}

    @staticmethod
    def key_of(part: Part) -> object:
        """What the card's controls hang on."""
        piece = part.piece
        return (
            part.id,
            piece.op if piece else "",
            tuple(one.id for one in piece.openings) if piece else (),
            bool(piece and piece.path),
            part.copies.op if part.copies else "",
            part.hinge is not None,
            part.model is not None,
            part.model.mends if part.model else (),
            part.locked,
        )

    def widgets(self, job: Job, part: Part, one: Standing | None) -> list[QWidget]:
        """The controls for a part, in their order."""
        self.key = self.key_of(part)
        self.fields, self.sections, self.form, self.board = {}, {}, None, None
        made: list[QWidget] = [self._sizes(part)] if part.piece is not None else []
        if part.piece is not None and intents.takes(part, "openings"):
            made.append(self._openings(part))
        if part.model is not None:
            made.append(self._model(job, part, one))
        made += [self._place(part), self._copies(part)]
        if not part.group:
            made.append(self._hinge(part))
        return made

    def _section(self, title: str, note: str = "") -> Section:
        section = Section(tr(title), note, unfolded=self.open.get(title, False))
        section.head.toggled.connect(lambda on: self.open.__setitem__(title, on))
        self.sections[title] = section
        return section

    def _refused(self, text: str) -> None:
        self.desk.tell(text, "fault")

    def show_values(self, part: Part) -> None:
        """Show what the part is now; sends nothing."""
        if self.form is not None and part.piece is not None:
            self.form.show_values(part.piece.values)
            if self.board is not None:
                bound = part.piece.operation.bind(part.piece.values)
                ring = outline_of(str(bound["profile"]), part.piece.profile, float(bound["height"]))  # type: ignore[arg-type]
                self.board.show_points([(round(float(x), 3), round(float(y), 3)) for x, y in ring])
        for axis, name in enumerate("xyz"):
            self._show(name, part.at[axis])
            self._show(f"turn_{name}", part.turn[axis])
        if "copies" in self.fields and part.copies is not None:
            self.fields["copies"].show_values(part.copies.values)  # type: ignore[attr-defined]
        if part.hinge is not None:
            self._show("open", part.hinge.open)
        for one in part.piece.openings if part.piece else ():
            for name, *_ in _OPENING_SIZES:
                self._show(f"{one.id} {name}", getattr(one, name))

    def _show(self, name: str, value: float) -> None:
        """Show a value in its field, if there is one."""
        field = self.fields.get(name)
        if field is not None:
            field.show_value(value)  # type: ignore[attr-defined]

    # Piece -------------------------------------------------------------------------------------------

    def _sizes(self, part: Part) -> QWidget:
        assert part.piece is not None
        section = self._section("Sizes", tr(part.piece.operation.label))
        self.form = OperationForm(part.piece.op, part.piece.values)
        self.form.changed.connect(self._set_size)
        self.form.released.connect(self.desk.end_gesture)
        self.form.refused.connect(self._refused)
        section.add(self.form)
        if intents.takes(part, "path"):
            note = tr("{count} points", count=len(part.piece.path)) if part.piece.path else tr("straight")
            section.add(words(tr("Path: {note}", note=note)))
            section.add(
                button(tr("Draw the path"), lambda: self.asked.emit("path"), tip=tr("Click its points on the model")),
                button(tr("Straight"), lambda: self._straight(part.id), tip=tr("Takes the drawn path away")),
            )
        if intents.takes(part, "profile"):
            board = self.board = ProfileBoard()
            board.changed.connect(self._draw_profile)
            board.released.connect(self.desk.end_gesture)
            section.add(board)
            section.add(button(tr("Profile from a drawing…"), lambda: self.asked.emit("profile"), tip=tr("An SVG")))
        return section

    def _draw_profile(self, points: tuple[tuple[float, float], ...]) -> None:
        part = self.desk.selection.part
        if part is not None and part.piece is not None:
            self.desk.dispatch(intents.set_profile(part, points, gesture=f"profile-{part.id}"))

    def _set_size(self, name: str, value: Value) -> None:
        part = self.desk.selection.part
        if part is not None and part.piece is not None:
            self.desk.dispatch(intents.set_piece(part, name, value, gesture=f"size-{part.id}-{name}"))

    def _straight(self, id: str) -> None:
        self.desk.dispatch(intents.set_path(id, (), closed=False))

    # Openings ----------------------------------------------------------------------------------------

    def _openings(self, part: Part) -> QWidget:
        assert part.piece is not None
        count = len(part.piece.openings)
        section = self._section("Openings", tr("{count} in this wall", count=count))
        section.add(
            *(
                button(tr(label), partial(self.asked.emit, kind), tip=tr("Then click the wall where it goes"))
                for kind, label in (("window", say("Window")), ("door", say("Door")), ("open", say("Opening")))
            )
        )
        for number, one in enumerate(part.piece.openings):
            section.add(self._opening(part.id, one, number + 1))
        return section

    def _opening(self, part: str, one: Opening, number: int) -> QWidget:
        section = Section(tr("{kind} {number}", kind=tr(one.filling), number=number),
                          tr("{w:.0f} × {h:.0f}", w=one.width, h=one.height))  # fmt: skip
        for name, label, tip in _OPENING_SIZES:
            field = length_field(
                tr(label), tr(tip), getattr(one, name), partial(self._set_opening, part, one.id, name),
                self._refused,
            )  # fmt: skip
            self.fields[f"{one.id} {name}"] = field
            section.add(field)
        for name, label, choices in (("head", say("Head"), HEADS), ("filling", say("Filling"), FILLINGS)):
            section.add(
                Pick(tr(label), {key: tr(text) for key, text in choices.items()}, getattr(one, name),
                     partial(self._set_opening, part, one.id, name))
            )  # fmt: skip
        section.add(button(tr("Close it up"), lambda: self.desk.dispatch(intents.remove_opening(part, one.id))))
        return section

    def _set_opening(self, part: str, opening: str, name: str, value: object) -> None:
        self.desk.dispatch(intents.set_opening(part, opening, name, value))

    # Place -------------------------------------------------------------------------------------------

    def _place(self, part: Part) -> QWidget:
        note = ", ".join(format_number(v / 1000, decimals=3) for v in part.at)
        section = self._section("Place", tr("{note} m", note=note))
        for axis, (name, label) in enumerate((("x", say("East")), ("y", say("North")), ("z", say("Up")))):
            field = length_field(
                tr(label), tr("Where its own origin lies in what it belongs to"), part.at[axis],
                partial(self._move, axis), self._refused,
            )  # fmt: skip
            self.fields[name] = field
            section.add(field)
        for axis, (name, label) in ((2, ("turn_z", say("Turn"))), (0, ("turn_x", say("Lean north"))),
                                    (1, ("turn_y", say("Lean east")))):  # fmt: skip
            turned = scale(
                TURN, name, label, part.turn[axis], partial(self._turn, axis), self.desk.end_gesture
            )  # fmt: skip
            self.fields[name] = turned
            section.add(turned)
        section.add(
            button(tr("Mirror"), self._mirror, tip=tr("Left for right; lettering on it stays readable")),
            button(tr("Duplicate"), lambda: self.asked.emit("duplicate"), tip=tr("A second one beside it")),
        )
        return section

    def _at(self, axis: int, value: float, old: tuple[float, float, float]) -> tuple[float, float, float]:
        fresh = list(old)
        fresh[axis] = value
        return fresh[0], fresh[1], fresh[2]

    def _move(self, axis: int, value: float) -> None:
        part = self.desk.selection.part
        if part is not None:
            self.desk.dispatch(intents.place_part(part.id, at=self._at(axis, value, part.at)))

    def _turn(self, axis: int, value: float) -> None:
        part = self.desk.selection.part
        if part is not None:
            turn = self._at(axis, value, part.turn)
            self.desk.dispatch(intents.place_part(part.id, turn=turn, gesture=f"turn-{part.id}-{axis}"))

    def _mirror(self) -> None:
        part = self.desk.selection.part
        if part is not None:
            self.desk.dispatch(intents.mirror_part(part))

    # Copies and hinge --------------------------------------------------------------------------------

    def _copies(self, part: Part) -> QWidget:
        kinds = {"": tr("once")} | {entry.id: tr(entry.label) for entry in family("copies")}
        op = part.copies.op if part.copies else ""
        section = self._section("Copies", kinds.get(op, op))
        section.add(Pick(tr("Stands"), kinds, op, self._set_copies))
        if part.copies is not None:
            form = OperationForm(op, part.copies.values)
            form.changed.connect(self._set_copies_value)
            form.released.connect(self.desk.end_gesture)
            form.refused.connect(self._refused)
            self.fields["copies"] = form
            section.add(form)
        return section

    def _set_copies(self, op: str) -> None:
        part = self.desk.selection.part
        if part is not None:
            self.open["Copies"] = True
            self.desk.dispatch(intents.set_copies(part.id, Setting(op=op) if op else None))

    def _set_copies_value(self, name: str, value: Value) -> None:
        part = self.desk.selection.part
        if part is not None and part.copies is not None:
            fresh = msgspec.structs.replace(part.copies, values={**part.copies.values, name: value})
            self.desk.dispatch(intents.set_copies(part.id, fresh, gesture=f"copies-{part.id}-{name}"))

    def _hinge(self, part: Part) -> QWidget:
        section = self._section("Hinge", tr("{open:.0f}° open", open=part.hinge.open) if part.hinge else tr("none"))
        on = SwitchField(_HINGED, part.hinge is not None)
        on.changed.connect(lambda value: self._set_hinge(bool(value)))
        section.add(on)
        if part.hinge is not None:
            swing = scale(
                Angle(-180, 180, help="How far it stands open."), "open", say("Open"), part.hinge.open, self._swing,
                self.desk.end_gesture,
            )  # fmt: skip
            self.fields["open"] = swing
            section.add(swing)
        return section

    def _set_hinge(self, on: bool) -> None:
        part = self.desk.selection.part
        if part is not None:
            self.open["Hinge"] = True
            self.desk.dispatch(intents.set_hinge(part.id, Hinge() if on else None))

    def _swing(self, value: float) -> None:
        part = self.desk.selection.part
        if part is not None and part.hinge is not None:
            fresh = msgspec.structs.replace(part.hinge, open=value)
            self.desk.dispatch(intents.set_hinge(part.id, fresh, gesture=f"hinge-{part.id}"))

    # Model -------------------------------------------------------------------------------------------

    def _model(self, job: Job, part: Part, one: Standing | None) -> QWidget:
        model = part.model
        assert model is not None
        size = " × ".join(format_number(v / 1000, decimals=3) for v in model.size_mm)
        section = self._section("Model", model.file_name)
        section.add(words(tr("{size} m, {count} triangles", size=size, count=model.triangles)))
        unit = next((word for word, mm in UNITS.items() if abs(mm - model.unit_mm) < 1e-6 * mm), "")
        section.add(
            Pick(tr("One unit is"), {word: word for word in UNITS}, unit,
                 lambda word: self._resize(model.blob, UNITS[word], model.up))
        )  # fmt: skip
        section.add(
            Pick(tr("Points up"), {"y": "y", "z": "z", "x": "x"}, model.up,
                 lambda word: self._resize(model.blob, model.unit_mm, word))
        )  # fmt: skip
        follow = SwitchField(_FOLLOWS, model.linked)
        follow.changed.connect(lambda value: self._follow(model.path, bool(value)))
        section.add(follow)
        self._add_mends(section, part, one)
        return section

    def _resize(self, blob: str, unit_mm: float, up: str) -> None:
        self.desk.dispatch(resize(self.desk.job, blob, unit_mm=unit_mm, up=up))

    def _follow(self, path: str, linked: bool) -> None:
        self.desk.dispatch(intents.follow_file(self.desk.job, path, linked))

    def _add_mends(self, section: Section, part: Part, one: Standing | None) -> None:
        """What is wrong with its mesh, and what can be done about it."""
        model = part.model
        assert model is not None
        if one is None or not one.made.mesh.count or one.made.mesh.count > 120_000:
            return
        found = health(one.made.mesh)
        told = found.told()
        section.add(words(tr("Mesh: {told}", told=", ".join(tr(t) for t in told) if told else tr("nothing to mend"))))
        wanted = [name for name in found.wanted() if name not in model.mends]
        if wanted:
            mends = tuple(name for name in MENDS if name in {*model.mends, *wanted})
            section.add(button(tr("Mend it"), lambda: self._mend(part.id, mends), tip=tr("The file stays as it is")))
        if model.mends:
            section.add(button(tr("As it came"), lambda: self._mend(part.id, ()), tip=tr("Takes the mending back")))

    def _mend(self, part: str, mends: tuple[str, ...]) -> None:
        self.desk.dispatch(intents.mend_model(part, mends))


_OPENING_SIZES = (
    ("left", say("From left"), say("From the wall's left end to its left jamb")),
    ("width", say("Width"), say("Between its jambs")),
    ("sill", say("Sill"), say("Over the foot of the wall")),
    ("height", say("Height"), say("From sill to crown")),
    ("rise", say("Rise"), say("Of a segmental head over its springing")),
    ("sill_out", say("Sill stands out"), say("How far a sill slab stands out of the front; 0 is none")),
    ("lintel", say("Lintel"), say("Height of the lintel or arch ring on the front; 0 is none")),
)


def _switch(label: str, help: str) -> Param:
    return named(called(label, Toggle(help=help)), label, False)


_HINGED = _switch(say("Swings on a hinge"), say("About the upright through its own origin."))
_FOLLOWS = _switch(say("Follows its file"), say("Read again when the file changes; what is laid on it stays."))


def told_name(part: Part) -> str:
    """What a part is, in a word."""
    if part.piece is not None:
        return tr(part.piece.operation.label)
    return part.model.file_name if part.model is not None else tr("group")
