"""Courses that fit: between which levels, and the ways with their numbers, shown when hovered, done when clicked."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QEvent, QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QEnterEvent, QKeyEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QAbstractButton, QVBoxLayout, QWidget

from ....core.errors import TesselError
from ....core.job.commands import AnyCommand
from ....core.job.document import Job
from ....core.job.scene import Laid, Part
from ....core.phrases import say
from ....core.place.fit import COORDINATING, OPENING, PIER, WAYS, Fit, Proposal, told
from ....core.place.fitting import Asked, ask, change_of, fit_command
from ....core.place.site import Site
from ....core.quantity import format_level, format_number
from ....engine.intents import scene as intents
from ... import theme
from ...controls.panels import button, words
from ...desk import Desk
from ...words import tr
from .cards import Pick

FOOT, TOP = "", "top"
SHOWN, MOST_STATIONS = 6, 24
JOINTS = {COORDINATING: say("as many as units"), PIER: say("one less: a pier"), OPENING: say("one more: an opening")}
_MIDDLE, _RIGHT = int(Qt.AlignmentFlag.AlignVCenter), Qt.TextElideMode.ElideRight


class Way(QAbstractButton):
    """One proposal as a row: what it does, what it leaves cut."""

    hovered = pyqtSignal(bool)

    def __init__(self, title: str, rest: str, grade: str) -> None:
        super().__init__()
        self.title, self.rest, self.grade = title, rest, grade
        self.over = False
        self.setFixedHeight(theme.px(38))
        self.setAccessibleName(f"{title}; {rest}")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def enterEvent(self, event: QEnterEvent | None) -> None:
        self._hover(True)

    def leaveEvent(self, event: QEvent | None) -> None:
        self._hover(self.hasFocus())

    def focusInEvent(self, event: object) -> None:
        super().focusInEvent(event)  # type: ignore[arg-type]
        self._hover(True)

    def focusOutEvent(self, event: object) -> None:
        super().focusOutEvent(event)  # type: ignore[arg-type]
        self._hover(False)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in {Qt.Key.Key_Return, Qt.Key.Key_Enter}:
            self.click()
        else:
            super().keyPressEvent(event)

    def _hover(self, over: bool) -> None:
        if over != self.over:
            self.over = over
            self.hovered.emit(over)
            self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        rect = QRectF(self.rect()).adjusted(0.5, 1.5, -0.5, -1.5)
        painter.setPen(theme.colour("verdigris" if self.over else "line"))
        painter.setBrush(theme.colour("wash" if self.over else "white"))
        painter.drawRoundedRect(rect, 3, 3)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(theme.colour(self.grade)))
        painter.drawEllipse(QPointF(theme.px(11), rect.center().y()), theme.px(3), theme.px(3))
        painter.setPen(theme.colour("ink"))
        painter.setFont(theme.font(12, weight=500))
        line = QRectF(theme.px(21), rect.top() + theme.px(2), rect.width() - theme.px(24), theme.px(16))
        metrics = painter.fontMetrics()
        painter.drawText(line, _MIDDLE, metrics.elidedText(self.title, _RIGHT, int(line.width())))
        painter.setPen(theme.colour("ink_2"))
        painter.setFont(theme.font(11))
        line.translate(0, theme.px(15))
        metrics = painter.fontMetrics()
        painter.drawText(line, _MIDDLE, metrics.elidedText(self.rest, _RIGHT, int(line.width())))


class FitPanel(QWidget):
    """Asks for the fit of what is laid on a part, off the window's thread, and sends what is chosen."""

    previewed = pyqtSignal(object)
    """The command that is hovered over, None for none."""
    sheet_wanted = pyqtSignal()

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk = desk
        self.low, self.high, self.along, self.joints = FOOT, TOP, False, COORDINATING
        self.stations: tuple[float, ...] = ()
        self._of: tuple[str, str] = ("", "")
        self._asked: object = None
        self.fit: Fit | None = None
        self.asked: Asked | None = None
        self.ways: list[Way] = []
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(theme.px(4))
        self.direction = Pick(tr("Fit"), {"up": tr("courses up"), "along": tr("units along")}, "up", self.turn)
        self.from_ = Pick(tr("From"), {}, "", lambda key: self._choose("low", key))
        self.to = Pick(tr("To"), {}, "", lambda key: self._choose("high", key))
        self.ends = Pick(tr("Joints"), {key: tr(text) for key, text in JOINTS.items()}, COORDINATING, self._set_ends)
        self.note = words("")
        self.list = QWidget()
        self.rows = QVBoxLayout(self.list)
        self.rows.setContentsMargins(0, 0, 0, 0)
        self.rows.setSpacing(theme.px(3))
        self.back = button(tr("As everywhere"), self._take_back, tip=tr("No joints, units or stretch of its own"))
        self.sheet = button(
            tr("Setting-out sheet…"), self.sheet_wanted.emit, tip=tr("Courses, cuts, dimensions and schedule, on paper")
        )
        for widget in (self.direction, self.from_, self.to, self.ends, self.note, self.list, self.back, self.sheet):
            column.addWidget(widget)

    # What is asked -----------------------------------------------------------------------------------

    def show_laid(self, job: Job, part: Part, laid: Laid, site: Site | None, face: int) -> None:
        """Ask anew where something has changed; sends nothing."""
        if (part.id, laid.id) != self._of:
            self._of = (part.id, laid.id)
            self.low, self.high, self.along, self.joints, self.stations = FOOT, TOP, False, COORDINATING, ()
            self.direction.show_value("up")
            self.ends.show_value(COORDINATING)
        self._show_levels(job)
        fitted = bool(laid.dials) or any(laid.laying.number(name) != 1.0 for name in ("wider", "taller"))
        self.back.setVisible(laid.laying.known and fitted)
        one = site.of_part(part.id) if site is not None else None
        key = (id(job.scene), id(job.surfaces), laid.id, self.low, self.high, self.along, self.joints,
               face, one and one.mesh.count)  # fmt: skip
        # What is only previewed is no other wall to be fitted.
        if key == self._asked or site is None or one is None or site.scene != job.scene:
            return
        self._asked = key
        row, along = one.part.laid.index(laid), self.along
        low, high, joints = self._place(job, self.low), self._place(job, self.high), self.joints

        def work(_current: object) -> tuple[Asked | None, Fit | None]:
            try:
                asked = ask(site, part.id, row, along=along, low=low, high=high, ends=joints, face=face)
            except TesselError:
                return None, None
            return asked, asked.fit()

        self.desk.work.ask("fit", work, lambda done: self._show(*done))

    def _show_levels(self, job: Job) -> None:
        """Between what a fit may be asked: levels and openings up, jambs along."""
        choices = {} if self.along else {
            level.id: f"{level.name}  {format_level(level.height)}" for level in job.scene.levels
        }  # fmt: skip
        for at in self.stations:
            text = tr("jamb at {mm} mm", mm=format_number(at, decimals=0)) if self.along else tr(
                "opening  {level}", level=format_level(at)
            )  # fmt: skip
            choices[f"@{at}"] = text
        lower, upper = (tr("its left end"), tr("its right end")) if self.along else (
            tr("its lower end"), tr("its upper end")
        )  # fmt: skip
        self._fill(self.from_, {FOOT: lower, **choices}, self.low)
        self._fill(self.to, {TOP: upper, **choices}, self.high)
        for pick in (self.from_, self.to):
            pick.setVisible(self.asked is not None)
        self.ends.setVisible(self.along and self.asked is not None)

    @staticmethod
    def _fill(pick: Pick, choices: dict[str, str], value: str) -> None:
        there = {str(pick.box.itemData(k)): pick.box.itemText(k) for k in range(pick.box.count())}
        if there != choices:
            pick.box.clear()
            for key, text in choices.items():
                pick.box.addItem(text, key)
        pick.show_value(value if value in choices else next(iter(choices)))

    @staticmethod
    def _place(job: Job, key: str) -> float | None:
        if key.startswith("@"):
            return float(key[1:])
        return next((level.height for level in job.scene.levels if level.id == key), None)

    def _choose(self, name: str, key: str) -> None:
        setattr(self, name, key)
        self._again()

    def turn(self, word: str) -> None:
        self.along, self.low, self.high, self.stations = word == "along", FOOT, TOP, ()
        self._again()

    def _set_ends(self, word: str) -> None:
        self.joints = word
        self._again()

    again = pyqtSignal()

    def _again(self) -> None:
        self.previewed.emit(None)
        self.again.emit()

    # What is shown -----------------------------------------------------------------------------------

    def _show(self, asked: Asked | None, found: Fit | None) -> None:
        self.asked, self.fit = asked, found
        self.stations = asked.stations()[:MOST_STATIONS] if asked is not None else ()
        self._show_levels(self.desk.job)
        for way in self.ways:
            self.rows.removeWidget(way)
            way.deleteLater()
        self.ways = []
        if asked is None or found is None:
            self.note.setVisible(self.along)
            self.note.setText(tr("No units to count along.") if self.along else tr("No courses to count here."))
            return
        self.note.setVisible(self.along or (self.low, self.high) != (FOOT, TOP))
        now = found.now
        size = f"{asked.span.pitch / 1000:g}"
        if not now.cuts:
            self.note.setText(tr("As it lies: {count:g} whole of {size} mm, none cut.", count=now.count, size=size))
        else:
            self.note.setText(
                tr("As it lies: {count:g} whole of {size} mm; {rest}", count=now.count, size=size, rest=_rest(now))
            )
        for one in _worth_showing(found):
            way = Way(tr(told(asked.span, one, along=asked.along)), _rest(one), _grade(one))
            command = self._command(asked, one)
            way.hovered.connect(lambda over, c=command: self.previewed.emit(c if over else None))
            way.clicked.connect(lambda _checked=False, c=command: self._take(c))
            self.rows.addWidget(way)
            self.ways.append(way)

    def _command(self, asked: Asked, one: Proposal) -> Callable[[], AnyCommand]:
        part, laid = asked.region.standing.part.id, asked.laid
        return lambda: fit_command(part, laid, change_of(asked, one))

    def _take(self, command: Callable[[], AnyCommand]) -> None:
        self.previewed.emit(None)
        self.desk.dispatch(command())

    def _take_back(self) -> None:
        part = self.desk.job.scene.part(self._of[0])
        laid = next((one for one in part.laid if one.id == self._of[1]), None) if part else None
        if laid is not None:
            self.desk.dispatch(intents.unfit(self._of[0], laid))


def _worth_showing(found: Fit) -> list[Proposal]:
    """The best of each way, and what comes next; nothing that cuts more than how it lies now."""
    if found.fits:
        return []
    now = found.now.rank[:2]
    first = [one for way in WAYS if (one := found.best(way)) is not None]
    first.sort(key=lambda one: one.rank)
    rest = [one for one in found.proposals if one not in first and not one.slivers]
    return [one for one in (*first, *rest) if one.rank[:2] <= now][:SHOWN]


def _rest(one: Proposal) -> str:
    if not one.cuts:
        return tr("none cut")
    small = len(one.slivers)
    pieces = [tr("{mm:.0f} mm", mm=cut.piece / 1000) for cut in one.cuts[:4]] + ["…"] * (len(one.cuts) > 4)
    cut = tr("cut {pieces}", pieces=", ".join(pieces))
    return tr("{cut}; {count} under a third", cut=cut, count=small) if small else cut


def _grade(one: Proposal) -> str:
    return "oxide" if one.slivers else "ochre" if one.cuts else "verdigris"
