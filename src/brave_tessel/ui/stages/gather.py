"""Stage 1: what do I have, and how big is it really?"""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QDragEnterEvent, QDropEvent, QImage, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QCheckBox, QFileDialog, QWidget

from ...core.document import Job, Source
from ...core.gather.straighten import length_on_sheet
from ...core.quantity import format_number, format_size
from ...engine import intents
from ...formats.images import SUFFIXES
from .. import theme
from ..board import to_image, to_pixmaps
from ..controls.form import OperationForm
from ..controls.panels import Column, Heading, LengthField, button, words
from ..controls.rows import Row, RowList
from ..desk import Desk
from ..results import GatherPicture
from ..thumbs import source_thumb
from .frame_board import FrameBoard
from .maps_panel import MapsPanel
from .stage import LeftPanel, Stage


def lacks(source: Source) -> str:
    """What a source still lacks, or its size."""
    kind = f"{source.kind}, {len(source.pictures) + 1} maps" if source.pictures else source.kind
    if any(picture.role == "normal" and picture.green == "unknown" for picture in source.pictures):
        return f"{source.kind} · green unknown"
    if not source.straightening.sized:
        return f"{kind} · no size yet"
    frame = source.straightening
    return f"{kind} · {format_size(frame.width_mm, frame.height_mm)}"


class SheetStrip(QWidget):
    """The sheet after straightening, before and after its light is evened."""

    def __init__(self) -> None:
        super().__init__()
        self.before: QImage | None = None
        self.after: QImage | None = None
        self.note = ""
        self.setMinimumHeight(theme.px(150))
        self.setAccessibleName("The sheet, before and after evening of light")

    def show_picture(self, done: GatherPicture | None) -> None:
        self.before = to_image(done.straight) if done and done.straight is not None else None
        self.after = to_image(done.evened) if done and done.evened is not None else None
        self.note = f"light drift {done.drift[0]:.0%} before, {done.drift[1]:.0%} after" if done and self.before else ""
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        left, top = theme.px(12), theme.px(8)
        painter.setFont(theme.font(12, weight=600))
        painter.setPen(theme.colour("ink"))
        painter.drawText(QRectF(left, top, 400, theme.px(18)), Qt.AlignmentFlag.AlignVCenter, "Sheet")
        painter.setFont(theme.font(11))
        painter.setPen(theme.colour("ink_2"))
        if self.before is None or self.after is None:
            text = "Give the frame its real size to see the straightened sheet here."
            painter.drawText(QRectF(left, top + theme.px(22), self.width(), theme.px(20)), text)
            return
        painter.drawText(QRectF(left + theme.px(50), top, 400, theme.px(18)), Qt.AlignmentFlag.AlignVCenter, self.note)
        high = self.height() - top - theme.px(54)
        x = float(left)
        for image, label in ((self.before, "straightened"), (self.after, "light evened")):
            width = min(high * image.width() / image.height(), (self.width() - 3 * left) / 2)
            target = QRectF(x, top + theme.px(24), width, width * image.height() / image.width())
            painter.drawImage(target, image)
            painter.setPen(QPen(theme.colour("line"), 1))
            painter.drawRect(target)
            painter.setPen(theme.colour("ink_2"))
            painter.drawText(QRectF(x, target.bottom() + 2, width, theme.px(18)), label)
            x += width + theme.px(18)


class GatherStage(Stage):
    """Sources at the left, the photo with its frame, the sheet below, size and light in the card."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.left = self._make_left()
        self.frame = FrameBoard(desk)
        self.board = self.frame
        self.sheet = SheetStrip()
        self.strip = self.sheet
        self.card = self._make_card()
        self.ratio: float | None = None
        self.frame.measured.connect(self._show_measured)
        self.frame.probed.connect(lambda x, y: desk.tell(f"{x:7.1f}, {y:7.1f} px", "probe"))
        desk.job_changed.connect(self.show_job)
        desk.selection_changed.connect(lambda: self.show_job(desk.job))
        desk.gather_ready.connect(self.show_picture)
        self.show_job(desk.job)

    def _make_left(self) -> QWidget:
        left = LeftPanel()
        self.heading = Heading("Sources")
        left.add(self.heading)
        self.list = RowList("Sources")
        self.list.chosen.connect(lambda id: self.desk.select(source=id))
        self.list.deleted.connect(self._remove)
        left.add_list(self.list)
        self.open_button = button("Add pictures…", self.choose_files, name="main", icon="plus",
                                  tip="PNG, JPEG, TIFF, EXR, HDR, WebP, BMP, TGA; or drop them anywhere")  # fmt: skip
        folder = button("", self.choose_folder, icon="folder-open", tip="Add a folder of map sets")
        left.add(self.open_button, folder, stretch=True)
        return left

    def _make_card(self) -> Column:
        card = Column("Source")
        self.title = words("", "title")
        self.note = words("")
        card.add(self.title)
        card.add(self.note)
        card.add(Heading("Frame", "straightens the view"))
        self.proportion = words("", "mono", wrap=False)
        card.add(self.proportion)
        self.width = LengthField("Width", "Real width of the frame. Sums work: 34*75 is thirty-four courses of 75 mm.")
        self.height = LengthField("Height", "Real height of the frame.")
        self.keep = QCheckBox("Keep the view's proportion")
        self.keep.setChecked(True)
        self.keep.setToolTip("The height follows from the width by the proportion computed from the view.")
        for widget in (self.width, self.height, self.keep):
            card.add(widget)
        self.width.typed.connect(self._width_typed)
        self.height.typed.connect(self._height_typed)
        self.whole = button("Frame the whole picture", self._whole, tip="Puts the frame on the picture's edges")
        card.add(self.whole)
        card.add(Heading("Dimension line", "over a known length"))
        self.measure = button("Draw a dimension line", self._start_measuring, icon="ruler-2",
                              tip="Drag over something whose length you know (D)")  # fmt: skip
        self.measure.setCheckable(True)
        card.add(self.measure)
        self.length = LengthField("Its real length", "Length of the drawn line; sets the size of the whole frame.")
        self.length.typed.connect(self._length_typed)
        card.add(self.length)
        card.add(Heading("Maps", "what each is"))
        self.maps = MapsPanel()
        self.maps.changed.connect(self._set_map)
        card.add(self.maps)
        card.add(Heading("Light", "uneven light out"))
        self.light = OperationForm("gather.even_light", {})
        self.light.changed.connect(self._set_light)
        self.light.released.connect(self.desk.end_gesture)
        card.add(self.light)
        for control in (self.width, self.height, self.length, self.light):
            control.refused.connect(lambda text: self.desk.tell(text, "fault"))
        return card

    # Intents -------------------------------------------------------------------------------------

    def choose_files(self) -> None:
        dialog = QFileDialog(self.left, "Add pictures")
        dialog.setFileMode(QFileDialog.FileMode.ExistingFiles)
        dialog.setNameFilter(f"Pictures ({' '.join('*' + suffix for suffix in SUFFIXES)})")
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.desk.gather([Path(name) for name in dialog.selectedFiles()])

    def choose_folder(self) -> None:
        dialog = QFileDialog(self.left, "Add a folder of map sets")
        dialog.setFileMode(QFileDialog.FileMode.Directory)
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.desk.gather([Path(dialog.selectedFiles()[0])])

    def _remove(self, id: str) -> None:
        source = self.desk.job.source(id)
        if any(getattr(layer.what, "source", "") == id for surface in self.desk.job.surfaces for layer in surface.layers):
            self.desk.tell(f"{source.name} is used by a surface; take it out there first.", "caution")
            return
        self.desk.dispatch(intents.remove_source(self.desk.job, source))

    def _width_typed(self, width: float, note: str) -> None:
        source = self.desk.source
        if source is None:
            return
        height = source.straightening.height_mm
        if self.keep.isChecked() or height <= 0:
            if self.ratio is None:
                self.desk.tell("The view does not tell the proportion: type the height too.", "caution")
                height = height or width
            else:
                height = round(width / self.ratio, 2)
        self.desk.dispatch(intents.resize_source(self.desk.job, source, width, height, note))

    def _height_typed(self, height: float, note: str) -> None:
        source = self.desk.source
        if source is None:
            return
        width = source.straightening.width_mm
        if width <= 0:
            width = round(height * (self.ratio or 1.0), 2)
        else:
            self.keep.setChecked(False)
        self.desk.dispatch(intents.resize_source(self.desk.job, source, width, height, note))

    def _length_typed(self, length: float, note: str) -> None:
        source = self.desk.source
        line = self.frame.line
        if source is None or line is None:
            self.desk.tell("Draw a dimension line first.", "caution")
            return
        if self.ratio is None:
            self.desk.tell("The view does not tell the proportion: type width and height instead.", "caution")
            return
        share = length_on_sheet(source.straightening.corners, *line, width=self.ratio, height=1.0)
        height = length / share
        width = round(height * self.ratio, 2)
        self.desk.dispatch(intents.resize_source(self.desk.job, source, width, round(height, 2), note))

    def _whole(self) -> None:
        source = self.desk.source
        if source:
            w, h = float(source.width_px), float(source.height_px)
            self.desk.dispatch(intents.set_frame(source, ((0.0, 0.0), (w, 0.0), (w, h), (0.0, h))))

    def _set_map(self, id: str, field: str, value: object) -> None:
        source = self.desk.source
        picture = next((p for p in source.pictures if p.id == id), None) if source else None
        if source and picture:
            self.desk.dispatch(intents.set_picture(source, picture, **{field: value}))

    def _start_measuring(self) -> None:
        self.frame.set_measuring(self.measure.isChecked())
        self.desk.tell("Drag over something whose length you know, then type the length." if self.measure.isChecked() else "")

    def _set_light(self, name: str, value: object) -> None:
        source = self.desk.source
        if source:
            self.desk.dispatch(
                intents.set_source_value(self.desk.job, source, "light", name, value, gesture=f"light-{name}")  # type: ignore[arg-type]
            )

    # Showing -------------------------------------------------------------------------------------

    def _show_measured(self) -> None:
        self.measure.setChecked(False)
        self.length.field.setFocus()
        self.desk.tell("Type the real length of the line in the card.")

    def show_job(self, job: Job) -> None:
        rows = [
            Row(source.id, source.name, lacks(source), picture=source_thumb(self.desk.session, source), level="" if source.straightening.sized else "caution")
            for source in job.sources
        ]
        self.list.show_rows(rows, self.desk.source_id)
        self.heading.note.setText(str(len(rows)) if rows else "")
        source = self.desk.source
        self.card.setEnabled(source is not None)
        self.frame.show_source(source)
        self.maps.show_source(source)
        if source is None:
            self.title.setText("No picture yet")
            self.note.setText("Add a photo, or drop one on the window.")
            return
        self.title.setText(source.name)
        self.note.setText(f"{source.width_px} × {source.height_px} px · {source.depth} bit · kept in the job")
        self.width.show_value(source.straightening.width_mm)
        self.height.show_value(source.straightening.height_mm)
        self.light.show_values(source.light.values)

    def show_picture(self, done: GatherPicture | None) -> None:
        if done is None:
            self.sheet.show_picture(None)
            return
        if done.photo is not None:
            self.frame.show_photo(to_pixmaps(done.photo))
        self.sheet.show_picture(done)
        self.ratio = done.proportion
        told = f"{format_number(done.proportion, decimals=3)} : 1, from the view" if done.proportion else "the view does not tell"
        self.proportion.setText(f"Proportion  {told}")

    def fit(self) -> None:
        self.frame.fit()


def accepts(event: QDragEnterEvent | QDropEvent) -> list[Path]:
    """The picture files of a drop."""
    data = event.mimeData()
    urls = data.urls() if data else []
    return [Path(url.toLocalFile()) for url in urls if url.isLocalFile()]
