"""The card of a scatter sheet: its size, its kinds of pieces, how they are strewn, and the chosen piece."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path
from typing import Any

import msgspec
from PyQt6.QtWidgets import QFileDialog, QMenu, QVBoxLayout

from ....core.errors import TesselError
from ....core.job.document import Source
from ....core.job.layers import PieceKind
from ....core.job.nodes import Setting, new_id
from ....core.operation import REGISTRY, Angle, Fraction, Param, family
from ....core.quantity import format_size
from ....engine.intents import sheets as sheet_intents
from ....engine.wording import sentence
from ....formats.images import read_file
from ....formats.models import MODEL_SUFFIXES, model_relief
from ... import theme
from ...controls.form import OperationForm
from ...controls.panels import LengthField, Section, button, words
from ...controls.rows import Row, RowList
from ...controls.ruled_scale import RuledScale
from ...desk import Desk
from ...words import tr
from ..page import Page
from .scatter_board import ScatterBoard

_PIECE: tuple[tuple[str, str, Param], ...] = (
    ("turn", "Turn", Angle(-180, 180, help="Turned anticlockwise; , and . on the board.")),
    ("size", "Size", Fraction(0.2, 3, least=0.02, most=20, help="Times its kind's size; [ and ] on the board.")),
    ("tilt", "Tilt", Angle(0, 60, help="How far it leans.")),
    ("tilt_towards", "Leans towards", Angle(-180, 180, help="To which side it leans, anticlockwise from the right.")),
)
_MADE_ONLY = ("thickness",)
_MODEL_ONLY = ("colour", "roughness")


class ScatterCard(Page):
    """Forms for a scatter sheet."""

    def __init__(self, desk: Desk, board: ScatterBoard) -> None:
        super().__init__(desk, "", tr("pieces on a sheet that wraps"))
        self.board = board
        self.kind_id = ""
        self.width_field = LengthField(tr("Width"), tr("Width of the sheet; pieces cross its edges."))
        self.height_field = LengthField(tr("Height"), tr("Height of the sheet; pieces cross its edges."))
        for field, axis in ((self.width_field, 0), (self.height_field, 1)):
            field.typed.connect(lambda value, _note, key=axis: self._resize(key, value))
            field.refused.connect(lambda text: desk.tell(text, "fault"))
            self.add(field)
        self._build_kinds()
        self.strew_section = Section(tr("Strew"), tr("at random"), unfolded=True)
        self.strew = OperationForm("scatter.strew", {})
        self.strew.changed.connect(self._set_strew)
        self.strew.released.connect(desk.end_gesture)
        self.strew.refused.connect(lambda text: desk.tell(text, "fault"))
        self.strew_section.add(self.strew)
        self._build_piece()
        for section in (self.kinds_section, self.strew_section, self.piece_section):
            self.add(section)
        board.piece_chosen.connect(lambda _id: self.show_piece())

    def _build_kinds(self) -> None:
        self.kinds_section = Section(tr("Kinds of pieces"), "", unfolded=True)
        self.list = RowList(tr("Kinds of pieces"))
        self.list.setFixedHeight(theme.px(40 * 3 + 4))
        self.list.chosen.connect(self._choose_kind)
        self.list.deleted.connect(self._remove_kind)
        self.add_kind = button(
            tr("Add a kind"),
            lambda: None,
            icon="plus",
            tip=tr("Made by numbers, cut from a source, or a small model seen from above"),
        )
        self.menu = QMenu(self.add_kind)
        self.menu.aboutToShow.connect(self.fill_menu)
        self.add_kind.setMenu(self.menu)
        self.lay = button(
            tr("Lay by hand"),
            self._toggle_laying,
            icon="pin",
            tip=tr("Each click on the sheet lays a piece of the chosen kind; a double click does too"),
        )
        self.lay.setCheckable(True)
        self.kind_width = LengthField(tr("Width"), tr("Width of a piece of this kind."))
        self.kind_height = LengthField(tr("Height"), tr("Height of a piece of this kind, along the sheet."))
        self.kind_width.typed.connect(lambda value, _note: self._change_kind(width_mm=value))
        self.kind_height.typed.connect(lambda value, _note: self._change_kind(height_mm=value))
        self.share = RuledScale(
            replace(
                Fraction(0, 1, most=10, help="How often this kind falls, against the others."),
                label="Share",
                default=1.0,
            ),
            1.0,
        )
        self.share.changed.connect(lambda value: self._change_kind(share=float(value)))
        self.share.released.connect(self.desk.end_gesture)
        self.kinds_section.add(self.list)
        self.kinds_section.add(self.add_kind, self.lay)
        for widget in (self.kind_width, self.kind_height, self.share):
            self.kinds_section.add(widget)
        self.form: OperationForm | None = None
        self.form_key: tuple[str, ...] = ()
        self.holder = QVBoxLayout()
        self.kinds_section.column.addLayout(self.holder)

    def _build_piece(self) -> None:
        self.piece_section = Section(tr("Chosen piece"), "none", unfolded=True)
        self.piece_hint = words(tr("Click a piece laid by hand. Drag moves it, Shift-drag copies it, arrows nudge it."))
        self.piece_section.add(self.piece_hint)
        self.scales: dict[str, RuledScale] = {}
        for name, label, param in _PIECE:
            default = 1.0 if name == "size" else 0.0
            scale = RuledScale(replace(param, label=label, default=default), default)
            scale.changed.connect(lambda value, key=name: self._change_piece(key, value))
            scale.released.connect(self.desk.end_gesture)
            self.scales[name] = scale
            self.piece_section.add(scale)
        self.level = LengthField(tr("Raised"), tr("How far it lies above what is beneath it."), zero=True, signed=True)
        self.level.typed.connect(lambda value, _note: self._change_piece("level", value))
        self.top = button(tr("On top"), self._raise, icon="arrow-up", tip=tr("Laid after all others (Page up)"))
        self.remove = button(tr("Take out"), self._remove_piece, icon="trash", tip=tr("Takes it off the sheet (Del)"))
        self.piece_section.add(self.level)
        self.piece_section.add(self.top, self.remove)

    # Kinds -------------------------------------------------------------------------------------------

    @property
    def kind(self) -> PieceKind | None:
        source = self.desk.selection.source
        kinds = source.scatter.kinds if source and source.scatter else ()
        return next((kind for kind in kinds if kind.id == self.kind_id), None)

    def fill_menu(self) -> None:
        """The kinds that can be added just now."""
        self.menu.clear()
        for operation in family("shape"):
            self._entry(tr(operation.label), lambda op=operation.id, label=operation.label: self.put_kind(label, op))
        self.menu.addSeparator()
        for source in self.desk.job.sources:
            if source.scatter is None and source.blob:
                self._entry(
                    tr("Cut from {name}", name=source.name),
                    lambda of=source: self.put_kind(of.name, "shape.pebble", source=of.id),
                )
        self.menu.addSeparator()
        self._entry(tr("A small model…"), self.choose_model)

    def _entry(self, text: str, run: Any) -> None:
        action = self.menu.addAction(text)
        if action:
            action.triggered.connect(lambda _checked=False: run())

    def put_kind(self, name: str, op: str, *, source: str = "", blob: str = "") -> None:
        """Add a kind and choose it."""
        sheet = self.desk.selection.source
        if sheet is None or sheet.scatter is None:
            return
        taken = {kind.name for kind in sheet.scatter.kinds}
        free = next(n for k in range(1, len(taken) + 2) if (n := name if k == 1 else f"{name} {k}") not in taken)
        sizes = {
            "shape.brick": (215.0, 102.5),
            "shape.tile": (100.0, 100.0),
            "shape.leaf": (70.0, 40.0),
            "shape.chip": (25.0, 20.0),
        }
        width, height = sizes.get(op, (40.0, 30.0))
        kind = PieceKind(
            id=new_id("kind"),
            name=free,
            shape=Setting(op=op),
            source=source,
            blob=blob,
            width_mm=width,
            height_mm=height,
        )
        self.kind_id = kind.id
        self.desk.dispatch(sheet_intents.add_kind(sheet, kind))

    def choose_model(self) -> None:
        dialog = QFileDialog(self, tr("A small model, seen from above"))
        dialog.setFileMode(QFileDialog.FileMode.ExistingFile)
        dialog.setNameFilter(tr("Models ({names})", names=" ".join("*" + suffix for suffix in MODEL_SUFFIXES)))
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.take_model(Path(dialog.selectedFiles()[0]))

    def take_model(self, path: Path) -> None:
        """Add a model file as a kind; what cannot be read is told."""
        kept = self.desk.session.intake().kept

        def read(_current: object) -> str:
            data = read_file(path)
            model_relief(data, path.name)
            return kept.keep(data)

        self.desk.work.ask("model", read, lambda blob: self.put_kind(path.stem.capitalize(), "shape.pebble", blob=blob))

    def _choose_kind(self, id: str) -> None:
        self.kind_id = self.board.kind = id
        source = self.desk.selection.source
        if source:
            self.show_source(source)

    def _remove_kind(self, id: str) -> None:
        source = self.desk.selection.source
        if source and source.scatter and any(kind.id == id for kind in source.scatter.kinds):
            self.desk.dispatch(sheet_intents.remove_kind(source, id))

    def _change_kind(self, **change: Any) -> None:
        source, kind = self.desk.selection.source, self.kind
        if source and kind:
            self.desk.dispatch(
                sheet_intents.change_kind(
                    source, msgspec.structs.replace(kind, **change), gesture=f"{kind.id}-{'-'.join(change)}"
                )
            )

    def _set_shape(self, name: str, value: Any) -> None:
        kind = self.kind
        if kind:
            self._change_kind(shape=msgspec.structs.replace(kind.shape, values={**kind.shape.values, name: value}))

    def _toggle_laying(self) -> None:
        self.board.set_laying(self.lay.isChecked())
        self.desk.tell(tr("Click where pieces should lie; Esc ends it.") if self.lay.isChecked() else "")

    # The sheet and the piece -------------------------------------------------------------------------

    def _resize(self, axis: int, value: float) -> None:
        source = self.desk.selection.source
        if source is None or source.scatter is None:
            return
        width, height = source.scatter.width_mm, source.scatter.height_mm
        try:
            self.desk.dispatch(
                sheet_intents.resize_scatter(self.desk.job, source, *((value, height) if axis == 0 else (width, value)))
            )
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "fault")

    def _set_strew(self, name: str, value: Any) -> None:
        source = self.desk.selection.source
        if source and source.scatter:
            self.desk.dispatch(sheet_intents.set_strew(source, name, value, gesture=f"strew-{name}"))

    def _change_piece(self, name: str, value: Any) -> None:
        source, piece = self.desk.selection.source, self.board.piece
        if source and piece:
            self.desk.dispatch(
                sheet_intents.change_piece(
                    source, msgspec.structs.replace(piece, **{name: float(value)}), gesture=f"{piece.id}-{name}"
                )
            )

    def _raise(self) -> None:
        source, piece = self.desk.selection.source, self.board.piece
        if source and piece:
            self.desk.dispatch(sheet_intents.raise_piece(source, piece.id))

    def _remove_piece(self) -> None:
        source, piece = self.desk.selection.source, self.board.piece
        if source and piece:
            self.desk.dispatch(sheet_intents.remove_piece(source, piece.id))
            self.board.choose("")

    # Showing -----------------------------------------------------------------------------------------

    def show_source(self, source: Source) -> None:
        scatter = source.scatter
        if scatter is None:
            return
        self.title.setText(source.name)
        self.width_field.show_value(scatter.width_mm)
        self.height_field.show_value(scatter.height_mm)
        if self.kind is None:
            self.kind_id = scatter.kinds[0].id if scatter.kinds else ""
        self.board.kind = self.kind_id
        rows = [
            Row(kind.id, kind.name, f"{_made(kind)} · {format_size(kind.width_mm, kind.height_mm)}")
            for kind in scatter.kinds
        ]
        self.list.show_rows(rows, self.kind_id)
        self.kinds_section.say(str(len(rows)))
        self.strew.show_values(scatter.strew.values)
        self.lay.setChecked(self.board.laying)
        self._show_kind()
        self.show_piece()

    def _show_kind(self) -> None:
        kind = self.kind
        for widget in (self.kind_width, self.kind_height, self.share, self.lay):
            widget.setEnabled(kind is not None)
        if kind is None:
            return
        self.kind_width.show_value(kind.width_mm)
        self.kind_height.show_value(kind.height_mm)
        self.kind_height.setEnabled(not kind.source and not kind.blob)
        self.share.show_value(kind.share)
        key = (kind.id, kind.shape.op, kind.source, kind.blob)
        if key != self.form_key or self.form is None:
            if self.form is not None:
                self.form.hide()
                self.form.deleteLater()
            only = _MODEL_ONLY if kind.blob else _MADE_ONLY if kind.source else None
            self.form = OperationForm(kind.shape.op, kind.shape.values, only=only)
            self.form.changed.connect(self._set_shape)
            self.form.released.connect(self.desk.end_gesture)
            self.form.refused.connect(lambda text: self.desk.tell(text, "fault"))
            self.holder.addWidget(self.form)
            self.form_key = key
        self.form.show_values(kind.shape.values)

    def show_piece(self) -> None:
        piece = self.board.piece
        source = self.desk.selection.source
        laid = len(source.scatter.laid) if source and source.scatter else 0
        self.piece_section.say(tr("{count} laid by hand", count=laid) if laid else tr("none laid yet"))
        for widget in (*self.scales.values(), self.level, self.top, self.remove):
            widget.setVisible(piece is not None)
        self.piece_hint.setVisible(piece is None)
        if piece is not None:
            for name, scale in self.scales.items():
                scale.show_value(getattr(piece, name))
            self.level.show_value(piece.level)


def _made(kind: PieceKind) -> str:
    """How a kind comes about, in a word or two."""
    if kind.blob:
        return "model"
    if kind.source:
        return tr("cut out")
    operation = REGISTRY.get(kind.shape.op)
    return tr(operation.label).lower() if operation else kind.shape.op
