"""Stage 5: is it right, and who gets what?"""

from __future__ import annotations

from pathlib import Path

import msgspec
from PyQt6.QtCore import QPointF, QRectF, Qt, QUrl, pyqtSignal
from PyQt6.QtGui import QDesktopServices, QImage, QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap
from PyQt6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QFileDialog,
    QGridLayout,
    QHBoxLayout,
    QProgressBar,
    QVBoxLayout,
    QWidget,
)

from ....core.errors import CancelledError, TesselError
from ....core.handover.checks import Finding
from ....core.job.commands import Set
from ....core.job.document import Delivery, DeliveryMap, Job, Surface
from ....core.maps import TRAITS, MapKind
from ....core.quantity import format_number, format_size
from ....engine.handover.deliver import Planned, deliver, planned_files
from ....engine.pictures.results import SurfacePicture
from ....engine.pictures.sheets import CONTACT
from ....engine.wording import sentence
from ....engine.workers import Current, Worker
from ... import theme
from ...board import tile, to_pixmaps
from ...controls.panels import Column, Heading, button, words
from ...controls.rows import Row, RowList
from ...desk import Desk
from ..stage import LeftPanel, Stage, caption

SIZES = (512, 1024, 2048, 4096, 8192)
_COLUMNS, _ROWS = 4, 2


class ContactSheet(QWidget):
    """All maps of a surface side by side, each two by two repeats, with the probe in every one."""

    probed = pyqtSignal(float, float)

    def __init__(self) -> None:
        super().__init__()
        self.setMouseTracking(True)
        self.setAccessibleName("All maps")
        self.done: SurfacePicture | None = None
        self.pictures: dict[MapKind, list[QPixmap]] = {}
        self.lit: list[QPixmap] = []
        self.placed: QImage | None = None
        self.pointer: tuple[float, float] | None = None
        self.spot: tuple[float, float] | None = None

    def show_picture(self, done: SurfacePicture | None) -> None:
        if done is not None and (self.done is None or done.maps is not self.done.maps):
            self.pictures = {kind: to_pixmaps(mips) for kind, mips in done.contact.items()}
        self.lit = to_pixmaps(done.mips) if done else []
        self.done = done
        self.update()

    def show_placed(self, image: QImage) -> None:
        """The model as it was last drawn."""
        self.placed = image
        self.update()

    def _boxes(self) -> list[QRectF]:
        """Six maps, the lit surface and the placed picture, in reading order."""
        gap, title = theme.px(12), theme.px(22)
        wide = (self.width() - gap * (_COLUMNS + 1)) / _COLUMNS
        high = (self.height() - gap - _ROWS * (title + gap)) / _ROWS
        return [
            QRectF(
                gap + (i % _COLUMNS) * (wide + gap), gap + title + (i // _COLUMNS) * (high + title + gap), wide, high
            )
            for i in range(_COLUMNS * _ROWS)
        ]

    def _cells(self) -> list[tuple[str, list[QPixmap], QRectF]]:
        boxes = self._boxes()
        cells = [(TRAITS[kind].label, self.pictures[kind], box) for kind, box in zip(CONTACT, boxes, strict=False)]
        return [*cells, ("Lit", self.lit, boxes[len(CONTACT)])]

    def _scale(self, cell: QRectF) -> float:
        assert self.done is not None
        return max(cell.width() / self.done.grid.width_mm, cell.height() / self.done.grid.height_mm) / 1.0

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), theme.colour("board"))
        if self.done is None:
            painter.setPen(Qt.GlobalColor.white)
            painter.drawText(
                self.rect(), Qt.AlignmentFlag.AlignCenter, "No surface to hand over yet; make one in Build."
            )
            return
        grid = self.done.grid
        height = self.done.maps[MapKind.HEIGHT]
        for label, picture, cell in self._cells():
            scale = self._scale(cell)
            note = (
                f"{format_number(float(height.min()), decimals=1)} … "
                f"{format_number(float(height.max()), decimals=1)} mm"
                if label == TRAITS[MapKind.HEIGHT].label
                else ""
            )
            self._title(painter, cell, label, note)
            one = QRectF(
                cell.left(), cell.bottom() - grid.height_mm * scale, grid.width_mm * scale, grid.height_mm * scale
            )
            tile(painter, picture, cell, one)
            painter.setPen(QPen(theme.colour("ink"), 1))
            painter.drawRect(cell)
            for point, token in ((self.spot, "ochre"), (self.pointer, "chalk_line")):
                if point is not None:
                    self._mark(painter, cell, one, scale, point, token)

        self._paint_placed(painter, self._boxes()[-1])

    def _title(self, painter: QPainter, cell: QRectF, label: str, note: str = "") -> None:
        caption(painter, QRectF(cell.left(), cell.top() - theme.px(22), cell.width(), theme.px(22)), label, note)

    def _paint_placed(self, painter: QPainter, cell: QRectF) -> None:
        """The placed picture, filling its cell from the middle."""
        self._title(painter, cell, "Placed")
        if self.placed is not None:
            wide = min(self.placed.width(), self.placed.height() * cell.width() / cell.height())
            high = wide * cell.height() / cell.width()
            left, top = (self.placed.width() - wide) / 2, (self.placed.height() - high) / 2
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            painter.drawImage(cell, self.placed, QRectF(left, top, wide, high))
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.drawRect(cell)

    def _mark(
        self, painter: QPainter, cell: QRectF, one: QRectF, scale: float, point: tuple[float, float], token: str
    ) -> None:
        at = QPointF(one.left() + point[0] * scale, one.bottom() - point[1] * scale)
        if not cell.contains(at):
            return
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for width, name in ((3.0, "white"), (1.6, token)):
            painter.setPen(QPen(theme.colour(name), width))
            painter.drawEllipse(at, theme.px(7), theme.px(7))
        painter.restore()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self.done is None:
            return
        for _, _, cell in self._cells():
            if cell.contains(event.position()):
                scale = self._scale(cell)
                x = (event.position().x() - cell.left()) / scale % self.done.grid.width_mm
                y = (cell.bottom() - event.position().y()) / scale % self.done.grid.height_mm
                self.pointer = (x, y)
                self.probed.emit(x, y)
                self.update()
                return


class FileStrip(QWidget):
    """The files as they will be, and how far they are."""

    stopped = pyqtSignal()
    open_asked = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(theme.px(12), theme.px(8), theme.px(12), theme.px(8))
        head = QHBoxLayout()
        head.addWidget(words("Files", "section", wrap=False))
        self.total = words("", wrap=False)
        head.addWidget(self.total)
        head.addStretch(1)
        self.stop = button(
            "Stop", self.stopped.emit, icon="player-stop", tip="Ends after the file being written; none is left half"
        )
        self.open = button("Open the folder", self.open_asked.emit, name="link")
        self.stop.hide()
        self.open.hide()
        head.addWidget(self.open)
        head.addWidget(self.stop)
        column.addLayout(head)
        self.list = RowList("Files to be written")
        column.addWidget(self.list, 1)
        self.what = words("", wrap=False)
        self.bar = QProgressBar()
        self.bar.setTextVisible(False)
        self.bar.setRange(0, 1000)
        self.bar.setAccessibleName("Progress")
        column.addWidget(self.what)
        column.addWidget(self.bar)
        self.bar.hide()

    def show_files(self, files: list[Planned]) -> None:
        rows = [
            Row(
                f"{i}-{f.name}",
                f.name,
                f"{f.what.replace('_', ' ')} · {f.depth} bit · about {f.about_bytes / 1e6:.1f} MB",
            )
            for i, f in enumerate(files)
        ]
        self.list.show_rows(rows, "")
        self.total.setText(f"{len(files)} · about {sum(f.about_bytes for f in files) / 1e6:.0f} MB")

    def show_progress(self, what: str, share: float, running: bool) -> None:
        self.bar.setVisible(running)
        self.stop.setVisible(running)
        self.bar.setValue(round(share * 1000))
        self.what.setText(what)


class HandOverStage(Stage):
    """Checks at the left, all maps on the board, the files below, the delivery in the card."""

    progressed = pyqtSignal(str, float)
    ended = pyqtSignal(object)

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.sheet = ContactSheet()
        self.board = self.sheet
        self.files = FileStrip()
        self.strip = self.files
        self.findings: list[Finding] = []
        self.worker: Worker | None = None
        self.folder: Path | None = None
        self.left = self._make_left()
        self.card = self._make_card()
        desk.job_changed.connect(self.show_job)
        desk.selection_changed.connect(lambda: self.show_job(desk.job))
        desk.surface_ready.connect(self.show_picture)
        self.sheet.probed.connect(self._probe)
        self.files.stopped.connect(self.stop)
        self.files.open_asked.connect(self._open_folder)
        self.progressed.connect(
            lambda what, share: self.files.show_progress(what, share, True), Qt.ConnectionType.QueuedConnection
        )  # type: ignore[call-arg]
        self.ended.connect(self._ended, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]
        self.show_job(desk.job)

    def _make_left(self) -> QWidget:
        left = LeftPanel()
        self.picker = QComboBox()
        self.picker.setAccessibleName("Surface")
        self.picker.activated.connect(lambda index: self.desk.select(surface=self.picker.itemData(index)))
        self.heading = Heading("Checks", "worst first")
        left.add(self.picker)
        left.add(self.heading)
        self.list = RowList("Checks")
        self.list.chosen.connect(self._finding_chosen)
        left.add_list(self.list)
        self.cause = words("")
        self.mend = button("", self._mend, name="main")
        self.mend.hide()
        left.add(self.cause)
        left.add(self.mend)
        return left

    def _make_card(self) -> Column:
        card = Column("Delivery")
        card.add(words("Delivery", "title"))
        self.note = words("")
        card.add(self.note)
        card.add(Heading("Size", "longer side"))
        self.size = QComboBox()
        self.size.setAccessibleName("Pixels on the longer side")
        for size in SIZES:
            self.size.addItem(f"{size} px", size)
        self.size.activated.connect(lambda index: self._set("px", self.size.itemData(index), "Set the size"))
        card.add(self.size)
        card.add(Heading("Maps", "bits a channel"))
        holder = QWidget()
        self.table = QGridLayout(holder)
        self.table.setContentsMargins(0, 0, 0, 0)
        self.table.setHorizontalSpacing(theme.px(6))
        self.table.setVerticalSpacing(theme.px(4))
        self.included: dict[str, QCheckBox] = {}
        self.depths: dict[str, QComboBox] = {}
        card.add(holder)
        card.add(Heading("Scene"))
        self.scene = QCheckBox("glTF 2.0 of the scene (.glb)")
        self.scene.setToolTip("Real size in the UVs, so any reader opens it right")
        self.scene.clicked.connect(lambda on: self._set("scene", bool(on), "Scene in the delivery"))
        card.add(self.scene)
        self.every = QCheckBox("Every surface of the job")
        self.every.clicked.connect(lambda _on: self._show_files())
        card.add(self.every)
        card.column.addSpacing(theme.px(8))
        self.write = button(
            "Hand over…",
            self.choose_folder,
            name="main",
            icon="download",
            tip="Choose a folder and write the files (Ctrl+E)",
        )
        card.add(self.write)
        return card

    # Intents -------------------------------------------------------------------------------------

    @property
    def delivery(self) -> Delivery:
        return self.desk.job.deliveries[0]

    def _set(self, name: str, value: object, label: str) -> None:
        self.desk.dispatch(Set(path=("deliveries", self.delivery.id, name), value=value, label=label))

    def _set_map(self, entry: DeliveryMap, **change: object) -> None:
        value = msgspec.structs.replace(entry, **change)
        self.desk.dispatch(
            Set(path=("deliveries", self.delivery.id, "maps", entry.id), value=value, label="Change the delivery")
        )

    def _finding_chosen(self, key: str) -> None:
        finding = next((f for f in self.findings if f.check == key), None)
        self.sheet.spot = finding.spot if finding else None
        self.sheet.update()
        self.cause.setText(finding.cause if finding else "")
        self.mend.setVisible(bool(finding and finding.mend))
        self.mend.setText(finding.mend_label if finding else "")

    def _mend(self) -> None:
        row = self.list.currentRow()
        finding = self.findings[row] if 0 <= row < len(self.findings) else None
        if finding and finding.mend is not None:
            self.desk.dispatch(finding.mend)

    def choose_folder(self) -> None:
        if self.desk.surface is None:
            self.desk.tell("There is no surface to hand over yet.", "caution")
            return
        dialog = QFileDialog(self.left, "Hand over into")
        dialog.setFileMode(QFileDialog.FileMode.Directory)
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.start(Path(dialog.selectedFiles()[0]))

    def _chosen_surfaces(self) -> list[Surface]:
        surface = self.desk.surface
        if self.every.isChecked():
            return list(self.desk.job.surfaces)
        return [surface] if surface else []

    def start(self, folder: Path) -> None:
        """Write the delivery into a folder, off the window's thread."""
        session, delivery, surfaces = self.desk.session, self.delivery, self._chosen_surfaces()
        self.folder = folder
        self.worker = self.worker or Worker("hand over")
        self.write.setEnabled(False)
        self.files.open.hide()

        def work(current: Current) -> None:
            try:
                written = deliver(session, delivery, surfaces, folder, progress=self.progressed.emit, current=current)
                self.ended.emit(written)
            except CancelledError:
                self.ended.emit(None)
            except TesselError as error:
                self.ended.emit(error)
            except OSError as error:
                self.ended.emit(TesselError(folder.name, value=error.strerror, remedy="Choose another folder."))

        self.worker.request("deliver", work)

    def stop(self) -> None:
        if self.worker:
            self.worker.cancel("deliver")

    def _ended(self, outcome: object) -> None:
        self.write.setEnabled(True)
        if outcome is None:
            self.files.show_progress("Stopped. Files already complete stay.", 0, False)
            self.desk.tell("Stopped. Files already complete stay.")
        elif isinstance(outcome, TesselError):
            self.files.show_progress(sentence(outcome), 0, False)
            self.desk.tell(sentence(outcome), "fault")
        else:
            count = len(outcome)  # type: ignore[arg-type]
            self.files.show_progress(f"{count} files written to {self.folder}", 1, False)
            self.files.open.show()
            self.desk.tell(f"{count} files written.")

    def _open_folder(self) -> None:
        if self.folder:
            QDesktopServices.openUrl(QUrl.fromLocalFile(str(self.folder)))

    # Showing -------------------------------------------------------------------------------------

    def show_job(self, job: Job) -> None:
        self.picker.blockSignals(True)
        self.picker.clear()
        for surface in job.surfaces:
            self.picker.addItem(surface.name, surface.id)
        self.picker.setCurrentIndex(max(0, self.picker.findData(self.desk.surface_id)))
        self.picker.blockSignals(False)
        delivery = self.delivery
        self.size.setCurrentIndex(max(0, self.size.findData(delivery.px)))
        self.scene.setChecked(delivery.scene)
        self._show_table(delivery)
        self._show_files()

    def _show_table(self, delivery: Delivery) -> None:
        for row, entry in enumerate(delivery.maps):
            if entry.id not in self.included:
                included = QCheckBox(TRAITS[MapKind(entry.id)].label)
                depth = QComboBox()
                depth.setAccessibleName(f"Bits of {included.text()}")
                depth.addItem("8 bit", 8)
                depth.addItem("16 bit", 16)
                depth.setFixedWidth(theme.px(84))
                included.clicked.connect(lambda on, key=entry.id: self._set_map(self._entry(key), included=bool(on)))
                depth.activated.connect(
                    lambda index, key=entry.id: self._set_map(self._entry(key), depth=(8, 16)[index])
                )
                self.included[entry.id], self.depths[entry.id] = included, depth
                self.table.addWidget(included, row, 0)
                self.table.addWidget(depth, row, 1)
            self.included[entry.id].setChecked(entry.included)
            self.depths[entry.id].setCurrentIndex(0 if entry.depth == 8 else 1)
            self.depths[entry.id].setEnabled(entry.included)

    def _entry(self, key: str) -> DeliveryMap:
        return next(entry for entry in self.delivery.maps if entry.id == key)

    def _show_files(self) -> None:
        surfaces = self._chosen_surfaces()
        self.files.show_files(planned_files(self.delivery, surfaces, self.desk.job.name))
        surface = self.desk.surface
        self.note.setText(f"{surface.name} · {format_size(surface.width_mm, surface.height_mm)}" if surface else "")

    def show_picture(self, done: SurfacePicture | None) -> None:
        if self.desk.stage != "Hand over" or (done is not None and not done.contact):
            return
        self.sheet.show_picture(done)
        self.findings = done.findings if done else []
        rows = [Row(f.check, f.title, f.cause, level="" if f.level == "ok" else f.level) for f in self.findings]
        chosen = rows[0].id if rows else ""
        self.list.show_rows(rows, chosen)
        open_count = sum(f.level != "ok" for f in self.findings)
        self.heading.note.setText(f"{open_count} to look at" if open_count else "all good")
        self._finding_chosen(chosen)

    def _probe(self, x: float, y: float) -> None:
        from ....engine.pictures.probe import explain, probe_at

        if self.sheet.done is not None:
            self.desk.tell(explain(probe_at(self.sheet.done, x, y)), "probe")

    def close_down(self) -> None:
        if self.worker:
            self.worker.stop()
