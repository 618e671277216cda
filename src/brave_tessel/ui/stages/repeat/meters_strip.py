"""The strip of Repeat: seam, repetition, drift and spacing, and the seam of every map."""

from __future__ import annotations

import math

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QHBoxLayout, QSizePolicy, QVBoxLayout, QWidget

from ....core.maps import TRAITS, MapKind
from ....core.repeat.judge import JoinVerdict, Verdict
from ....core.repeat.meters import GOOD_CUT, SpacingReading
from ....core.repeat.repetition import REPETITION_LIMIT
from ....engine.pictures.results import MapReading, SheetPicture
from ... import theme
from ...controls.panels import Meter, button, words
from ...words import tr

_MOST_MAPS = 6
_LOOK = Verdict.LOOK
_UNKNOWN = (Verdict.GOOD, Verdict.GOOD)


class MapSeams(QWidget):
    """One line a map: its seam along both joins. A click shows the worst place."""

    chosen = pyqtSignal(float, float)

    def __init__(self) -> None:
        super().__init__()
        self.readings: tuple[MapReading, ...] = ()
        self.verdicts: dict[MapKind, tuple[Verdict, Verdict]] = {}
        self.size_mm = (1.0, 1.0)
        self.setMinimumWidth(theme.px(190))
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Preferred)
        self.setAccessibleName(tr("Seam of every map"))
        self.setToolTip(tr("Seam along the upright join and the one across; click to see the worst place"))
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def sizeHint(self) -> QSize:
        return QSize(theme.px(214), theme.px(126))

    def show_sheet(self, done: SheetPicture | None) -> None:
        self.readings = done.per_map[:_MOST_MAPS] if done else ()
        self.verdicts = dict(done.of_maps) if done else {}
        self.size_mm = (done.grid.width_mm, done.grid.height_mm) if done else (1.0, 1.0)
        self.setAccessibleDescription(
            "; ".join(
                f"{tr(TRAITS[r.kind].label)} {r.seams[0].score:.2f}, {r.seams[1].score:.2f}" for r in self.readings
            )
        )
        self.update()

    def _row(self) -> float:
        return theme.px(18)

    def cell(self, index: int, axis: int) -> QRectF:
        """Where a reading stands: map by map down, upright join, then the one across."""
        width = theme.px(50)
        return QRectF(self.width() - width * (2 - axis), theme.px(20) + index * self._row(), width, self._row())

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("ink"))
        painter.drawText(QRectF(0, 0, self.width(), theme.px(18)), Qt.AlignmentFlag.AlignVCenter, tr("Each map"))
        painter.setFont(theme.font(10))
        painter.setPen(theme.colour("ink_2"))
        for axis, word in enumerate(("upright", "across")):
            painter.drawText(
                self.cell(-1, axis).translated(0, theme.px(0)),
                Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
                word,
            )
        painter.setPen(QPen(theme.colour("line"), 1))
        painter.drawLine(0, theme.px(20), self.width(), theme.px(20))
        for index, reading in enumerate(self.readings):
            painter.setFont(theme.font(11))
            painter.setPen(theme.colour("ink"))
            row = QRectF(0, self.cell(index, 0).top(), self.width(), self._row())
            label = tr(TRAITS[reading.kind].label)
            if reading.estimated:
                painter.setPen(theme.colour("ink_2"))
                label = tr("{map}, estimated", map=label)
            painter.drawText(row, Qt.AlignmentFlag.AlignVCenter, label)
            painter.setFont(theme.font(11, mono=True))
            for axis, seam in enumerate(reading.seams):
                verdict = max(self.verdicts.get(reading.kind, _UNKNOWN)[axis], Verdict.GOOD if seam.closes else _LOOK)
                mark = ("", " △", " ▲")[verdict]
                painter.setPen(theme.colour(("ink", "ochre", "oxide")[verdict]))
                painter.drawText(
                    self.cell(index, axis),
                    Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
                    f"{seam.score:.2f}{mark}",
                )

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        for index, reading in enumerate(self.readings):
            for axis in (0, 1):
                if self.cell(index, axis).contains(event.position()):
                    along = reading.worst[axis]
                    width, height = self.size_mm
                    self.chosen.emit(*((0.0, (1 - along) * height) if axis == 0 else (along * width, 0.0)))
                    return


_SEVERITIES = ("ok", "caution", "fault")


def spot_of(done: SheetPicture, verdict: JoinVerdict) -> tuple[float, float]:
    """Where a join is strangest on the sheet, mm, y up."""
    grid, along = done.grid, verdict.worst
    if done.cut is None:
        x, y = (0.0, (1 - along) * grid.height_mm) if verdict.axis == 1 else (along * grid.width_mm, 0.0)
    elif verdict.axis == 1:
        path = done.cut.path_x
        x, y = float(path[int(along * (len(path) - 1))]) * grid.width_mm, (1 - along) * grid.height_mm
    else:
        path = done.cut.path_y
        x, y = along * grid.width_mm, (1 - float(path[int(along * (len(path) - 1))])) * grid.height_mm
    return x + done.source.shift[0], y + done.source.shift[1]


class Meters(QWidget):
    """What is measured, and what to do next. ``spot`` asks to see a place, mm, y up."""

    spot = pyqtSignal(float, float)
    courses_wanted = pyqtSignal()
    overlap_wanted = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(theme.px(12), theme.px(8), theme.px(12), theme.px(6))
        column.addWidget(words(tr("Meters"), "section"))
        row = QHBoxLayout()
        row.setSpacing(theme.px(16))
        self.seam, self.repetition, self.drift = (
            Meter(tr("Seam score")),
            Meter(tr("Repetition score")),
            Meter(tr("Light drift")),
        )
        self.maps = MapSeams()
        for meter in (self.seam, self.repetition, self.drift):
            row.addWidget(meter, 1)
        row.addWidget(self.maps)
        column.addLayout(row, 1)
        self.foot = words("")
        self.in_step = button(
            tr("Close it by whole courses"),
            self.courses_wanted.emit,
            name="badge",
            tip=tr("Measures the beat, and cuts to it"),
        )
        self.lined_up = button(
            tr("Line up the overlap"),
            self.overlap_wanted.emit,
            name="badge",
            tip=tr("Makes the overlap so wide that whole units are left, and keeps the best cut"),
        )
        below = QHBoxLayout()
        below.addWidget(self.foot, 1)
        below.addStretch(0)
        below.addWidget(self.lined_up)
        below.addWidget(self.in_step)
        column.addLayout(below)
        self._offer("")
        self.maps.chosen.connect(self.spot)
        self._places: dict[Meter, tuple[float, float]] = {}
        for meter in (self.seam, self.repetition):
            meter.pressed.connect(lambda key=meter: self.spot.emit(*self._places[key]) if key in self._places else None)

    def show_sheet(self, done: SheetPicture | None) -> None:
        self.maps.show_sheet(done)
        self._places = {}
        out = done is not None and any(one.step and one.step.doubtful for one in done.verdicts or ())
        way = done.source.mend.op if done is not None and out else ""
        self._offer(way)
        if done is None:
            for meter in (self.seam, self.repetition, self.drift):
                meter.show_reading("–", 0, "", "")
            self.foot.setText("")
            return
        self._show_seam(done)
        self._show_repetition(done)
        severity = "ok" if done.drift <= 0.1 else "caution" if done.drift <= 0.25 else "fault"
        self.drift.show_reading(
            f"{done.drift:.1%}",
            done.drift * 4,
            severity,
            tr("Brightest against darkest, before the cut.")
            + ("" if severity == "ok" else tr(" Even it out in Gather.")),
        )
        good = done.verdicts is not None and not any(one.verdict for one in done.verdicts)
        self.foot.setText(self._spacing(done.spacing, good=good))

    def _offer(self, way: str) -> None:
        """What closes a sheet in step that one way closed out of step; nothing where it is in step."""
        self.in_step.setVisible(way not in {"", "mend.courses"})
        self.lined_up.setVisible(way == "mend.best_cut")
        # What to do matters more than the spacing, and both need more lines than there are.
        self.foot.setVisible(not way)

    def show_awaited(self) -> None:
        """Another source is chosen: what stands here was read of the one before."""
        for meter in (self.seam, self.repetition, self.drift):
            meter.show_stale()
        self.maps.show_sheet(None)
        self._offer("")
        self.foot.setText("")

    def show_stale(self) -> None:
        """The way of closing failed: what stands here was read of an older sheet."""
        self.show_awaited()
        self.foot.setText(tr("This way does not close the sheet; what is shown is the last that did."))

    def _show_seam(self, done: SheetPicture) -> None:
        along = max(done.cut.along) if done.cut else 0.0
        score = max(done.seams[0].score, done.seams[1].score)
        closes = all(reading.closes for reading in done.seams)
        severity = "ok" if closes and along <= GOOD_CUT else "caution" if along <= 2.5 else "fault"
        grid = done.grid
        if done.verdicts is not None:
            self._show_verdict(done, score, severity)
            return
        if severity == "ok" and done.source.scatter is None:
            # Nothing is called good before it has been looked at.
            severity = "caution"
        text = tr("1.00 is no rougher than inside.")
        if done.cut is not None:
            x, y = done.cut.worst[0] * grid.width_mm, (1 - done.cut.worst[1]) * grid.height_mm
            self._places[self.seam] = x + done.source.shift[0], y + done.source.shift[1]
            text = tr("Along the cut {along:.2f}, worst at {x:.0f}, {y:.0f} mm.", along=along, x=x, y=y)
            text += (
                tr(" 1.00 is no rougher than inside.")
                if severity == "ok"
                else tr(" Pull it there, cover the spot, or widen the overlap.")
            )
        self.seam.show_reading(f"{score:.2f}", score / 2, severity, text)

    def _show_verdict(self, done: SheetPicture, score: float, severity: str) -> None:
        """What was thought of both joins; the worse one is told, with the place to look at."""
        assert done.verdicts is not None
        worse = max(done.verdicts, key=lambda one: one.verdict)
        severity = max(severity, ("ok", "caution", "fault")[worse.verdict], key=_SEVERITIES.index)
        self._places[self.seam] = spot_of(done, worse)
        way = tr("upright join") if worse.axis == 1 else tr("level join")
        if worse.verdict:
            x, y = self._places[self.seam]
            reasons = [tr(reason) for reason in worse.reasons]
            # There is room for one; the others are told under the pointer.
            text = tr("At the {way}: {reasons}. Worst at {x:.0f}, {y:.0f} mm.", way=way, reasons=reasons[0], x=x, y=y)
        else:
            reasons = []
            text = tr("Both joins look as the inside does. 1.00 is no rougher than inside.")
        self.seam.show_reading(f"{score:.2f}", score / 2, severity, text)
        if len(reasons) > 1:
            self.seam.setToolTip("; ".join(reasons))

    def _show_repetition(self, done: SheetPicture) -> None:
        loud, grid = done.repetition, done.grid
        severity = "ok" if loud.score <= REPETITION_LIMIT else "caution" if loud.score <= 0.6 else "fault"
        if done.features:
            first = done.features[0]
            x, y, tone = first.x, grid.height_mm - first.y, first.word
        else:
            x, y = loud.feature[0] * grid.width_mm, (1 - loud.feature[1]) * grid.height_mm
            tone = "pale" if loud.paler else "dark"
        self._places[self.repetition] = x, y
        advice = _advice(done) if severity != "ok" else tr("The eye seldom finds it.")
        far = math.hypot(loud.again[0] * grid.width_mm, loud.again[1] * grid.height_mm)
        way = tr("upwards") if loud.again[0] == 0 else tr("across") if loud.again[1] == 0 else tr("aslant")
        self.repetition.show_reading(
            f"{loud.score:.2f}",
            loud.score,
            severity,
            tr(
                "Loudest: a {tone} spot at {x:.0f}, {y:.0f} mm, again every {far:.0f} mm {way}. {advice}",
                tone=tone,
                x=x,
                y=y,
                far=far,
                way=way,
                advice=advice,
            ),
        )

    @staticmethod
    def _spacing(spacing: tuple[SpacingReading, SpacingReading] | None, *, good: bool) -> str:
        if spacing is None:
            return tr("A first, rough look; the meters follow.")
        x, y = spacing
        told = tr(
            "Spacing across the join: upright {upright:.2f} (inside {low:.2f} to {high:.2f}), "
            "across {across:.2f} (inside {least:.2f} to {most:.2f}).",
            upright=x.ratio,
            low=x.low,
            high=x.high,
            across=y.ratio,
            least=y.low,
            most=y.high,
        )
        return told + (
            ""
            if good or (x.fits and y.fits)
            else tr(" Things crowd or part at the join: shift the cut or touch it up.")
        )


def _advice(done: SheetPicture) -> str:
    """What would quieten a field that comes again."""
    field, cell, again = done.field_grid, done.grid, done.repetition.again
    wider, higher = field.width_mm > 1.5 * cell.width_mm, field.height_mm > 1.5 * cell.height_mm
    if wider and not higher and again[0] == 0:
        return tr("It is broken across only: break it upwards too.")
    if higher and not wider and again[1] == 0:
        return tr("It is broken upwards only: break it across too.")
    return tr("Cover it in step 5, or break the repeat.")
