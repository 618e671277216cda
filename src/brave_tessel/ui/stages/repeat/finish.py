"""The cards of Repeat's last steps: touch up, break the repeat."""

from __future__ import annotations

from pathlib import Path

import numpy as np
from PyQt6.QtCore import pyqtSignal
from PyQt6.QtGui import QPixmap
from PyQt6.QtWidgets import QComboBox, QFileDialog, QGridLayout, QPushButton, QVBoxLayout, QWidget

from ....core.job.document import Source
from ....core.job.nodes import Point, Setting
from ....core.maps import TRAITS, MapKind
from ....core.operation import REGISTRY, Value, family, find
from ....core.quantity import format_length
from ....core.repeat.break_up import cells_of
from ....engine.handover.sheet_files import write_sheet
from ....engine.intents import sheets as sheet_intents
from ....engine.pictures.results import SheetPicture
from ... import theme
from ...board import to_image
from ...controls.choices import Choices
from ...controls.form import OperationForm
from ...controls.panels import Heading, LengthField, button, words
from ...controls.rows import Row, RowList
from ...desk import Desk
from ...words import tr
from ...workroom import Pace
from ..page import Page

SHIFT = "shift"


def _extent(points: tuple[Point, ...]) -> float:
    """How large what is drawn is, mm."""
    return max(max(p[axis] for p in points) - min(p[axis] for p in points) for axis in (0, 1))


class TouchPage(Page):
    """The brushes, the strokes so far, and the shift. ``tool_changed`` says which tool is taken, ``brush_changed`` that
    one of its values is another.
    """

    tool_changed = pyqtSignal(str)
    brush_changed = pyqtSignal()

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk, tr("Touch up"), tr("on cell or field; strokes wrap over every edge"))
        self.values: dict[str, dict[str, Value]] = {op.id: dict(op.defaults()) for op in family("touch")}
        self.op = "touch.heal"
        options = [(op.id, op.label) for op in family("touch")] + [(SHIFT, tr("Shift"))]
        self.tools = Choices(options, self.op, name=tr("Brush"), columns=3)
        self.tools.changed.connect(self.take)
        self.add(self.tools)
        self.tool_note = words("")
        self.add(self.tool_note)
        self.form_holder = QVBoxLayout()
        self.column.addLayout(self.form_holder)
        self.form: OperationForm | None = None
        self._build_shift()
        self._build_maps()
        self._build_strokes()
        self.take(self.op)

    def _build_maps(self) -> None:
        self.maps_heading = Heading(tr("On which maps"), tr("all, unless some are chosen"))
        self.add(self.maps_heading)
        holder = QWidget()
        self.map_grid = QGridLayout(holder)
        self.map_grid.setContentsMargins(0, 0, 0, 0)
        self.map_grid.setSpacing(theme.px(4))
        self.switches: dict[MapKind, QPushButton] = {}
        self.add(holder)
        self.tip = QComboBox()
        self.tip.setAccessibleName(tr("Tip of the brush"))
        self.tip.setToolTip(tr("A source whose lightness is the shape of the brush"))
        self.add(self.tip)

    def _build_shift(self) -> None:
        self.shift_fields: list[LengthField] = []
        for axis, label in enumerate((tr("Right"), tr("Up"))):
            field = LengthField(label, tr("How far the sheet is moved on itself."), zero=True, signed=True)
            field.typed.connect(lambda value, _note, key=axis: self._shift_typed(key, value))
            field.refused.connect(lambda text: self.desk.tell(text, "fault"))
            self.shift_fields.append(field)
            self.add(field)
        self.back = button(
            tr("Back to where it was"), lambda: self._shift_to((0.0, 0.0)), tip=tr("Takes the shift out")
        )
        self.add(self.back)

    def _build_strokes(self) -> None:
        self.strokes_heading = Heading(tr("Strokes"), "")
        self.add(self.strokes_heading)
        self.list = RowList(tr("Strokes"))
        self.list.deleted.connect(self._remove)
        self.add(self.list)
        self.remove = button(
            tr("Take the chosen stroke out"), self._remove_chosen, icon="trash", tip=tr("The others stay (Del)")
        )
        self.add(self.remove)
        self.column.addStretch(1)

    # What the brush is -------------------------------------------------------------------------------

    def brush(self) -> tuple[Setting, str, frozenset[MapKind]]:
        """The brush as it is set: its operation, its tip and its maps."""
        maps = frozenset(kind for kind, switch in self.switches.items() if switch.isChecked())
        if self.op == "touch.paint" and not maps:
            maps = frozenset({MapKind.BASE_COLOUR})
        return Setting(op=self.op, values=dict(self.values[self.op])), self.tip.currentData() or "", maps

    def take(self, op: str) -> None:
        """Take a brush, or the shift."""
        shifting = op == SHIFT
        if not shifting:
            self.op = op
        self.tools.show_value(op)
        if self.form is not None:
            self.form.hide()
            self.form.deleteLater()
            self.form = None
        if not shifting:
            self.form = OperationForm(op, self.values[op])
            self.form.changed.connect(lambda name, value: self._set(name, value))
            self.form.refused.connect(lambda text: self.desk.tell(text, "fault"))
            self.form_holder.addWidget(self.form)
        for widget in (*self.shift_fields, self.back):
            widget.setVisible(shifting)
        self.tip.setVisible(not shifting and "size" in self.values[op])
        notes = {
            SHIFT: tr("Drag the cell, or nudge it with the arrows."),
            "touch.piece": tr(
                "Draw round a piece, then drag it to its place. [ and ] turn it, Enter lets it be, Esc takes it back."
            ),
            "touch.clone": tr("T over a place takes from there, A finds it by itself. [ and ] size the brush."),
            "touch.heal": tr(
                "Finds by itself where to take from; T over a place takes from there. [ and ] size the brush."
            ),
        }
        told = "" if shifting else tr("{help} Shift draws a straight line.", help=tr(find(op).summary))
        self.tool_note.setText(notes.get(op, told))
        self.tool_changed.emit(op)

    def _set(self, name: str, value: Value) -> None:
        self.values[self.op][name] = value
        self.brush_changed.emit()

    def turn_piece(self, turn: float) -> None:
        """Turn the piece by as much as its form then says."""
        self.values["touch.piece"]["turn"] = (round(turn, 2) + 180) % 360 - 180
        if self.form and self.op == "touch.piece":
            self.form.show_values(self.values[self.op])
        self.brush_changed.emit()

    def resize_brush(self, size: float) -> None:
        size = min(5000.0, max(0.2, round(size, 2)))
        self.values[self.op]["size"] = size
        if self.form:
            self.form.show_values(self.values[self.op])

    # Showing -----------------------------------------------------------------------------------------

    def show_source(self, source: Source) -> None:
        count = len(source.touches)
        self.strokes_heading.note.setText(str(count) if count else tr("none yet"))
        rows = []
        for number, touch in enumerate(source.touches, 1):
            operation = REGISTRY.get(touch.brush.op)
            x, y = touch.points[0]
            on = (
                tr("all maps")
                if not touch.maps
                else ", ".join(sorted(tr(TRAITS[kind].label).lower() for kind in touch.maps))
            )
            size = format_length(float(touch.brush.values.get("size", 0) or _extent(touch.points)))
            rows.append(
                Row(
                    touch.id,
                    f"{number}  {tr(operation.label) if operation else touch.brush.op}, {size}",
                    tr("at {x:.0f}, {y:.0f} mm · {on}", x=x, y=y, on=on),
                )
            )
        self.list.setFixedHeight(theme.px(40 * max(1, min(len(rows), 4)) + 6))
        self.list.show_rows(rows, rows[-1].id if rows else "")
        for widget in (self.list, self.remove):
            widget.setVisible(bool(rows))
        for field, value in zip(self.shift_fields, source.shift, strict=True):
            field.show_value(value)
        self._show_tips(source)

    def _show_tips(self, source: Source) -> None:
        wanted = [
            (tr("Round tip"), ""),
            *(
                (tr("Tip: {name}", name=s.name), s.id)
                for s in self.desk.job.sources
                if s.scatter is None and s.id != source.id
            ),
        ]
        if [self.tip.itemData(n) for n in range(self.tip.count())] == [id for _, id in wanted]:
            return
        before = self.tip.currentData()
        self.tip.clear()
        for name, id in wanted:
            self.tip.addItem(name, id)
        self.tip.setCurrentIndex(max(0, self.tip.findData(before)))

    def show_sheet(self, done: SheetPicture | None) -> None:
        kinds = [kind for kind in (done.small.maps if done else ()) if TRAITS[kind].mixes]
        if list(self.switches) == kinds:
            return
        for switch in self.switches.values():
            switch.hide()
            switch.deleteLater()
        self.switches = {}
        for index, kind in enumerate(kinds):
            switch = QPushButton(tr(TRAITS[kind].label))
            switch.setCheckable(True)
            switch.setAccessibleName(tr("Brush on {label}", label=tr(TRAITS[kind].label)))
            self.map_grid.addWidget(switch, index // 2, index % 2)
            self.switches[kind] = switch

    # Intents -----------------------------------------------------------------------------------------

    def _remove(self, id: str) -> None:
        source = self.desk.selection.source
        if source and any(touch.id == id for touch in source.touches):
            self.desk.dispatch(sheet_intents.remove_touch(source, id))

    def _remove_chosen(self) -> None:
        row = self.list.currentRow()
        if 0 <= row < len(self.list.rows):
            self._remove(self.list.rows[row].id)

    def _shift_typed(self, axis: int, value: float) -> None:
        source = self.desk.selection.source
        if source:
            self._shift_to((value, source.shift[1]) if axis == 0 else (source.shift[0], value))

    def _shift_to(self, shift: tuple[float, float]) -> None:
        source = self.desk.selection.source
        if source:
            self.desk.dispatch(sheet_intents.set_shift(source, shift))


_OFF = "off"


class BreakPage(Page):
    """The loud features, and the larger sheet without a beat."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk, tr("Break the repeat"), tr("so that the eye does not find it again"))
        self.done: SheetPicture | None = None
        self.add(Heading(tr("Loud spots"), tr("what the eye finds again")))
        self.list = RowList(tr("Features that stand out"))
        self.list.setFixedHeight(theme.px(54 * 3 + 4))
        self.list.opened.connect(lambda id: self.quieten(int(id[1:])))
        self.list.chosen.connect(self._show_feature)
        self.add(self.list)
        self.one = button(
            tr("Cover the chosen spot"),
            self._quieten_chosen,
            tip=tr("Covers it from elsewhere in the sheet; a click on its mark does the same"),
        )
        self.add(self.one)
        self.quiets = RowList(tr("Covered spots"))
        self.quiets.setMaximumHeight(theme.px(96))
        self.quiets.deleted.connect(self._let_show)
        self.again = button(tr("Uncover it"), self._let_chosen_show, tip=tr("Takes the cover off again (Del)"))
        self.add(self.quiets)
        self.add(self.again)
        self.add(Heading(tr("A larger sheet")))
        options = [(op.id, tr("Blend patches") if op.id == "breakup.hex" else op.label) for op in family("breakup")]
        self.way = Choices([(_OFF, tr("Off")), *options], _OFF, name=tr("Way"), columns=2)
        self.way.changed.connect(self._set_way)
        self.add(self.way)
        self.way_note = words("")
        self.add(self.way_note)
        self.holder = QVBoxLayout()
        self.column.addLayout(self.holder)
        self.form: OperationForm | None = None
        self.add(Heading(tr("Files"), tr("the sheet by itself")))
        self.write = button(
            tr("Write the sheet…"),
            self.choose_folder,
            icon="download",
            tip=tr("Every map of the sheet, each variant, or the atlas of its cells, as files with their real size"),
        )
        self.add(self.write)
        self.column.addStretch(1)

    spot = pyqtSignal(float, float)

    def show_source(self, source: Source) -> None:
        op, off = source.breakup.op, source.breakup.known and max(cells_of(source.breakup)) == 1
        self.way.show_value(_OFF if off else op)
        operation = REGISTRY.get(op)
        told = tr(operation.summary) if operation else tr("made by another version")
        self.way_note.setText(tr("The cell comes again as it is.") if off else told)
        if self.form is None or self.form.op != op:
            if self.form is not None:
                self.form.hide()
                self.form.deleteLater()
            self.form = self.follow(OperationForm(op, source.breakup.values), "breakup")
            self.holder.addWidget(self.form)
        self.form.show_values(source.breakup.values)
        self.form.setVisible(not off)
        rows = [
            Row(
                quiet.id,
                tr("Covered at {x_mm:.0f}, {y_mm:.0f} mm", x_mm=quiet.x_mm, y_mm=quiet.y_mm),
                tr("{length} wide", length=format_length(quiet.size_mm)),
            )
            for quiet in source.quiets
        ]
        self.quiets.show_rows(rows, rows[-1].id if rows else "")
        for widget in (self.quiets, self.again):
            widget.setVisible(bool(rows))

    def show_sheet(self, done: SheetPicture | None) -> None:
        self.done = done
        features = done.features if done else ()
        rows = []
        for number, feature in enumerate(features):
            picture = None
            if done is not None:
                picture = feature_thumb(done, feature.x, feature.y, feature.size)
            severity = "caution" if feature.strength > 1.6 else ""
            rows.append(
                Row(
                    f"f{number}",
                    tr(
                        "{number}  {word} spot, {length}",
                        number=number + 1,
                        word=feature.word,
                        length=format_length(feature.size),
                    ),
                    tr("{strength:.1f} × the usual spread", strength=feature.strength),
                    picture=picture,
                    severity=severity,
                )
            )
        self.list.show_rows(rows, "")
        self.one.setEnabled(bool(rows))

    def _show_feature(self, id: str) -> None:
        if self.done is None:
            return
        feature = self.done.features[int(id[1:])]
        self.spot.emit(feature.x, self.done.grid.height_mm - feature.y)

    def quieten(self, index: int) -> None:
        """Cover a feature from elsewhere in the sheet."""
        source, done = self.desk.selection.source, self.done
        if source is None or done is None or index >= len(done.features):
            return
        feature = done.features[index]
        shifted = type(feature)(
            (feature.x - source.shift[0]) % done.grid.width_mm,
            (feature.y + source.shift[1]) % done.grid.height_mm,
            feature.size,
            feature.strength,
            feature.word,
        )
        self.desk.dispatch(sheet_intents.quieten_feature(source, done.before, shifted))

    def _quieten_chosen(self) -> None:
        self.quieten(max(0, self.list.currentRow()))

    def _let_show(self, id: str) -> None:
        source = self.desk.selection.source
        if source and any(quiet.id == id for quiet in source.quiets):
            self.desk.dispatch(sheet_intents.remove_quiet(source, id))

    def _let_chosen_show(self) -> None:
        row = self.quiets.currentRow()
        if 0 <= row < len(self.quiets.rows):
            self._let_show(self.quiets.rows[row].id)

    def _set_way(self, op: str) -> None:
        source = self.desk.selection.source
        if source:
            self.desk.dispatch(sheet_intents.set_breakup(self.desk.job, source, "" if op == _OFF else op))

    def choose_folder(self) -> None:
        dialog = QFileDialog(self, tr("Write the sheet into a folder"))
        dialog.setFileMode(QFileDialog.FileMode.Directory)
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.write_to(Path(dialog.selectedFiles()[0]))

    def write_to(self, folder: Path) -> None:
        """Write every map, and every variant, off the window's thread."""
        source, snapshot = self.desk.selection.source, self.desk.session.snapshot()
        if source is None or not source.sized:
            self.desk.tell(tr("The source needs its real size first; give it in Gather."), "caution")
            return
        progress = self.desk.work.progress()
        self.desk.work.ask(
            "write sheet",
            lambda current: write_sheet(snapshot, source, folder, progress=progress, current=current),
            lambda files: self.desk.tell(tr("{count} files in {folder}.", count=len(files), folder=folder)),
            pace=Pace.LONG,
        )


def breakup_note(source: Source) -> str:
    """What breaking the repeat does to a source."""
    across, up = cells_of(source.breakup)
    quiet = tr("{count} covered", count=len(source.quiets)) if source.quiets else ""
    cells = tr("{across} × {up} cells", across=across, up=up) if max(across, up) > 1 else ""
    return ", ".join(part for part in (quiet, cells) if part) or tr("off")


def feature_thumb(done: SheetPicture, x: float, y: float, size: float) -> QPixmap:
    """A small picture of a place of the cell."""
    codes = done.mips[min(1, len(done.mips) - 1)]
    rows, columns = codes.shape[:2]
    half = max(4, round(size / done.grid.width_mm * columns))
    ys = (round(y / done.grid.height_mm * rows) + np.arange(-half, half)) % rows
    xs = (round(x / done.grid.width_mm * columns) + np.arange(-half, half)) % columns
    return QPixmap.fromImage(to_image(np.ascontiguousarray(codes[np.ix_(ys, xs)])))
