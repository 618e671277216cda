"""Stage 5: is it right, and who gets what?"""

from __future__ import annotations

from pathlib import Path

import msgspec
from PyQt6.QtCore import QUrl
from PyQt6.QtGui import QDesktopServices
from PyQt6.QtWidgets import QCheckBox, QComboBox, QFileDialog, QGridLayout, QWidget

from ....core.errors import TesselError
from ....core.handover.check import Finding
from ....core.job.commands import Set
from ....core.job.document import Delivery, DeliveryMap, Job
from ....core.job.layers import Surface
from ....core.maps import TRAITS, MapKind
from ....core.quantity import format_size
from ....engine.handover.deliver import planned_files, unknown_outputs
from ....engine.handover.output import load_outputs
from ....engine.pictures.probe import explain, probe_at
from ....engine.pictures.results import SurfacePicture
from ....engine.wording import sentence
from ... import theme
from ...controls.panels import Column, Heading, button, words
from ...controls.rows import Row, RowList
from ...desk import Desk
from ...words import tr
from ..stage import LeftPanel, Stage
from .contact_sheet import ContactSheet
from .file_strip import FileStrip

SIZES = (512, 1024, 2048, 4096, 8192)


class HandOverStage(Stage):
    """Checks at the left, all maps on the board, the files below, the delivery in the card."""

    name = "Hand over"

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.sheet = ContactSheet()
        self.board = self.sheet
        self.files = FileStrip()
        self.strip = self.files
        self.findings: list[Finding] = []
        self.folder: Path | None = None
        self._outcome = ""
        self.left = self._make_left()
        self.card = self._make_card()
        desk.hand_over.ready.connect(self.show_picture)
        self.sheet.probed.connect(self._probe)
        self.files.stopped.connect(self.stop)
        self.files.open_asked.connect(self._open_folder)
        self.follow(lambda job: (job.name, job.surfaces, job.deliveries))

    def _make_left(self) -> QWidget:
        left = LeftPanel()
        self.picker = QComboBox()
        self.picker.setAccessibleName(tr("Surface"))
        self.picker.activated.connect(lambda index: self.desk.selection.choose(surface=self.picker.itemData(index)))
        self.heading = Heading(tr("Checks"), tr("worst first"))
        left.add(self.picker)
        left.add(self.heading)
        self.list = RowList(tr("Checks"))
        self.list.chosen.connect(self._finding_chosen)
        left.add_list(self.list)
        self.cause = words("")
        self.mend = button("", self._mend, name="main")
        self.mend.hide()
        left.add(self.cause)
        left.add(self.mend)
        return left

    def _make_card(self) -> Column:
        card = Column(tr("Delivery"))
        card.add(words(tr("Delivery"), "title"))
        self.note = words("")
        card.add(self.note)
        card.add(Heading(tr("Size"), tr("longer side")))
        self.size = QComboBox()
        self.size.setAccessibleName(tr("Pixels on the longer side"))
        for size in SIZES:
            self.size.addItem(tr("{size} px", size=size), size)
        self.size.activated.connect(lambda index: self._set("px", self.size.itemData(index), tr("Set the size")))
        card.add(self.size)
        card.add(Heading(tr("Maps"), tr("bits per channel")))
        holder = QWidget()
        self.table = QGridLayout(holder)
        self.table.setContentsMargins(0, 0, 0, 0)
        self.table.setHorizontalSpacing(theme.px(6))
        self.table.setVerticalSpacing(theme.px(4))
        self.included: dict[str, QCheckBox] = {}
        self.depths: dict[str, QComboBox] = {}
        card.add(holder)
        card.add(Heading(tr("Files")))
        self.outputs: dict[str, QCheckBox] = {}
        for id, output in load_outputs().items():
            box = QCheckBox(tr(output.label))
            box.setToolTip(tr(output.tip))
            box.clicked.connect(lambda on, key=id: self._set_output(key, bool(on)))
            self.outputs[id] = box
            card.add(box)
        self.unknown = words("", "caution")
        card.add(self.unknown)
        self.every = QCheckBox(tr("Every surface of the job"))
        self.every.clicked.connect(lambda _on: self._show_files())
        card.add(self.every)
        card.column.addSpacing(theme.px(8))
        self.write = button(
            tr("Hand over…"),
            self.choose_folder,
            name="main",
            icon="download",
            tip=tr("Choose a folder and write the files (Ctrl+E)"),
        )
        card.add(self.write)
        return card

    # Intents -------------------------------------------------------------------------------------

    @property
    def delivery(self) -> Delivery:
        return self.desk.job.deliveries[0]

    def _set(self, name: str, value: object, label: str) -> None:
        self.desk.dispatch(Set(path=("deliveries", self.delivery.id, name), value=value, label=label))

    def _set_output(self, id: str, on: bool) -> None:
        known = [key for key in self.outputs if (on if key == id else key in self.delivery.outputs)]
        self._set(
            "outputs",
            (*known, *unknown_outputs(self.delivery)),
            tr("{value} in the delivery", value=self.outputs[id].text()),
        )

    def _set_map(self, entry: DeliveryMap, **change: object) -> None:
        value = msgspec.structs.replace(entry, **change)
        self.desk.dispatch(
            Set(path=("deliveries", self.delivery.id, "maps", entry.id), value=value, label=tr("Change the delivery"))
        )

    def _finding_chosen(self, key: str) -> None:
        finding = next((f for f in self.findings if f.check == key), None)
        self.sheet.spot = finding.spot if finding else None
        self.sheet.update()
        self.cause.setText(tr(finding.cause) if finding else "")
        self.mend.setVisible(bool(finding and finding.mend))
        self.mend.setText(tr(finding.mend_label) if finding else "")

    def _mend(self) -> None:
        row = self.list.currentRow()
        finding = self.findings[row] if 0 <= row < len(self.findings) else None
        if finding and finding.mend is not None:
            self.desk.dispatch(finding.mend)

    def choose_folder(self) -> None:
        if self.desk.selection.surface is None:
            self.desk.tell(tr("There is no surface to hand over yet."), "caution")
            return
        dialog = QFileDialog(self.left, tr("Hand over into"))
        dialog.setFileMode(QFileDialog.FileMode.Directory)
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.start(Path(dialog.selectedFiles()[0]))

    def _chosen_surfaces(self) -> tuple[Surface, ...]:
        surface = self.desk.selection.surface
        if self.every.isChecked():
            return self.desk.job.surfaces
        return (surface,) if surface else ()

    def start(self, folder: Path) -> None:
        """Write the delivery into a folder, off the window's thread."""
        self.folder = folder
        self.write.setEnabled(False)
        self.files.open.hide()
        self._outcome = tr("Stopped. Files already complete stay.")
        self.desk.hand_over.deliver(
            self.delivery,
            self._chosen_surfaces(),
            folder,
            progress=lambda what, share: self.files.show_progress(what, share, True),
            written=self._written,
            failed=self._failed,
            ended=self._ended,
        )

    def stop(self) -> None:
        """End the delivery after the file being written."""
        self.desk.hand_over.stop()

    def _written(self, files: list[Path]) -> None:
        self._outcome = tr("{count} files written to {folder}", count=len(files), folder=self.folder)
        self.files.open.show()
        self.desk.tell(tr("{count} files written.", count=len(files)))

    def _failed(self, error: Exception) -> None:
        self._outcome = tr(sentence(error))

    def _ended(self) -> None:
        """However it ended, the button comes back."""
        self.write.setEnabled(True)
        self.files.show_progress(self._outcome, 0, False)

    def _open_folder(self) -> None:
        if self.folder:
            QDesktopServices.openUrl(QUrl.fromLocalFile(str(self.folder)))

    # Showing -------------------------------------------------------------------------------------

    def show_job(self, job: Job) -> None:
        self.picker.blockSignals(True)
        self.picker.clear()
        for surface in job.surfaces:
            self.picker.addItem(surface.name, surface.id)
        self.picker.setCurrentIndex(max(0, self.picker.findData(self.desk.selection.surface_id)))
        self.picker.blockSignals(False)
        delivery = self.delivery
        self.size.setCurrentIndex(max(0, self.size.findData(delivery.px)))
        for id, box in self.outputs.items():
            box.setChecked(id in delivery.outputs)
        others = unknown_outputs(delivery)
        self.unknown.setText(tr("Not known here, kept in the job: {names}.", names=", ".join(others)) if others else "")
        self.unknown.setVisible(bool(others))
        self._show_table(delivery)
        self._show_files()
        done = self.sheet.done
        if done is not None and done.surface is not self.desk.selection.surface:
            # What was found of another surface, or of this one as it was, says nothing of it now.
            self._show_findings([], tr("checking…"))

    def _show_table(self, delivery: Delivery) -> None:
        for row, entry in enumerate(delivery.maps):
            if entry.id not in self.included:
                included = QCheckBox(map_label(entry.id))
                depth = QComboBox()
                depth.setAccessibleName(tr("Bits of {value}", value=included.text()))
                depth.addItem(tr("8 bit"), 8)
                depth.addItem(tr("16 bit"), 16)
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
        try:
            self.files.show_files(planned_files(self.desk.job, self.delivery, surfaces))
        except TesselError as error:
            # A pattern from a job file may say anything.
            self.files.show_files([], tr(sentence(error)))
        surface = self.desk.selection.surface
        self.note.setText(f"{surface.name} · {format_size(surface.width_mm, surface.height_mm)}" if surface else "")

    def show_picture(self, done: SurfacePicture | None) -> None:
        self.sheet.show_picture(done)
        findings = done.findings if done else []
        open_count = sum(f.severity != "ok" for f in findings)
        good = tr("all good") if findings else ""
        self._show_findings(findings, tr("{open_count} to look at", open_count=open_count) if open_count else good)

    def _show_findings(self, findings: list[Finding], note: str) -> None:
        self.findings = findings
        rows = [
            Row(f.check, tr(f.title), tr(f.cause), severity="" if f.severity == "ok" else f.severity) for f in findings
        ]
        chosen = rows[0].id if rows else ""
        self.list.show_rows(rows, chosen)
        self.heading.note.setText(note)
        self._finding_chosen(chosen)

    def _probe(self, x: float, y: float) -> None:
        if self.sheet.done is not None:
            self.desk.tell("\t".join(map(tr, explain(probe_at(self.sheet.done, x, y)))), "probe")


def map_label(id: str) -> str:
    """A map's name; of one that this version does not have, the word it is known by."""
    known = {kind.value: tr(TRAITS[kind].label) for kind in MapKind}
    return known[id] if id in known else tr("{id} (unknown)", id=id)
