"""Picture…: a still of what is seen, traced while one watches; stopped and kept, gone on with, saved."""

from __future__ import annotations

import math
import shutil
import tempfile
import time
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np
from PyQt6.QtCore import QSize, Qt, pyqtSignal, pyqtSlot
from PyQt6.QtGui import QCloseEvent, QPixmap
from PyQt6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QDialog,
    QFileDialog,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QVBoxLayout,
    QWidget,
)

from ..core.errors import TesselError
from ..core.job.layers import Surface
from ..core.job.light import Rig
from ..core.light.dome import sun_of
from ..core.light.solar import sun_stand
from ..engine.intents.light import set_hour
from ..engine.wording import sentence
from ..engine.workers import Current, Worker
from ..view3d.drawn import scene_light
from ..view3d.stills.files import Finish, codes_of, png_of, write_still
from ..view3d.stills.make import Wanted, finish_of, make_still
from ..view3d.stills.run import Progress, Still, read_still
from . import theme
from .board import to_image
from .controls.panels import button, words
from .words import tr

SEEN, BOARD, CONTACT = "As seen now", "Board of surfaces", "Contact sheet"
TURNTABLE, HOURS = "Turntable", "Hours of the day"
_ID = Qt.ItemDataRole.UserRole
SAMPLES = (16, 64, 256, 1024)
FRAMES = 24
"""Frames of a turntable, 15° apart."""
Make = Callable[[tuple[int, int], frozenset[str], Current], Wanted]


class PictureDialog(QDialog):
    """Stays beside the window. ``makes`` gives what is seen, a board of the ``surfaces`` that are ticked and a contact
    sheet of them, each for a size in pixels.
    """

    _told = pyqtSignal(object)
    _arrived = pyqtSignal(object)
    _done = pyqtSignal(str)

    def __init__(self, parent: QWidget, makes: Mapping[str, Make], rig: Rig, surfaces: Sequence[Surface]) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("Picture"))
        self.makes, self.rig = makes, rig
        self.still: Still | None = None
        self.wanted: Wanted | None = None
        self._worker = Worker("still")
        self._folder = Path(tempfile.mkdtemp(prefix="brave-tessel-still-"))
        self._running = False
        self._build(surfaces)
        self._told.connect(self._show_progress, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]
        self._arrived.connect(self._show_still, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]
        self._done.connect(self._end, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]

    def _build(self, surfaces: Sequence[Surface]) -> None:
        self.view = QLabel(tr("Start makes the picture by light paths; it grows clearer while it goes on."))
        self.view.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.view.setWordWrap(True)
        self.view.setMinimumSize(QSize(theme.px(600), theme.px(400)))
        self.view.setStyleSheet(f"background: {theme.colour('board').name()}; color: white;")
        self.what = QComboBox()
        self.what.setAccessibleName(tr("What is pictured"))
        for word in (SEEN, BOARD, CONTACT, TURNTABLE, HOURS):
            self.what.addItem(tr(word), word)
        self.what.currentIndexChanged.connect(self._show_buttons)
        self.surfaces = QListWidget()
        self.surfaces.setAccessibleName(tr("Surfaces on it"))
        self.surfaces.setFlow(QListWidget.Flow.LeftToRight)
        self.surfaces.setWrapping(True)
        self.surfaces.setResizeMode(QListWidget.ResizeMode.Adjust)
        self.surfaces.setGridSize(QSize(theme.px(194), theme.px(22)))
        self.surfaces.setFixedHeight(theme.px(92))
        for surface in surfaces:
            item = QListWidgetItem(surface.name)
            item.setData(_ID, surface.id)
            item.setFlags(Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsUserCheckable | Qt.ItemFlag.ItemIsSelectable)
            item.setCheckState(Qt.CheckState.Checked)
            self.surfaces.addItem(item)
        self.pixels = QLineEdit("900x600")
        self.pixels.setAccessibleName(tr("Size in pixels"))
        self.pixels.setFixedWidth(theme.px(96))
        self.samples = QComboBox()
        self.samples.setAccessibleName(tr("Samples"))
        for count in SAMPLES:
            self.samples.addItem(tr("{count} samples", count=count), count)
        self.samples.setCurrentIndex(1)
        self.open_ground = QCheckBox(tr("Transparent ground"))
        self.caption = QCheckBox(tr("Caption and scale bar"))
        self.deep = QCheckBox(tr("16 bits"))
        self.state = words("")
        self.start = button(tr("Start"), self.begin, name="main")
        self.stop = button(tr("Stop and keep"), self.halt, icon="player-stop")
        self.on = button(tr("Go on"), self.go_on)
        self.keep = button(tr("Save…"), self.choose_file, icon="download")
        column = QVBoxLayout(self)
        column.addWidget(self.view, 1)
        grid = QGridLayout()
        for place, widget in enumerate(
            (self.what, self.pixels, self.samples, self.open_ground, self.caption, self.deep)
        ):
            grid.addWidget(widget, place // 3, place % 3)
        column.addLayout(grid)
        column.addWidget(self.surfaces)
        column.addWidget(self.state)
        row = QHBoxLayout()
        for made in (self.start, self.stop, self.on, self.keep):
            row.addWidget(made)
        column.addLayout(row)
        self._show_buttons()

    def _show_buttons(self) -> None:
        self.start.setEnabled(not self._running)
        self.stop.setEnabled(self._running)
        self.on.setEnabled(not self._running and self.still is not None)
        self.keep.setEnabled(not self._running and self.still is not None)
        self.surfaces.setVisible(self.what.currentData() in {BOARD, CONTACT})

    # What is done --------------------------------------------------------------------------------

    def typed_size(self) -> tuple[int, int] | None:
        """The size as typed; None, told, where it is none."""
        parts = self.pixels.text().lower().replace("×", "x").split("x")
        if len(parts) == 2 and all(part.strip().isdigit() for part in parts):
            width, height = (int(part) for part in parts)
            if 16 <= width <= 16_384 and 16 <= height <= 16_384:
                return width, height
        self.state.setText(tr("A size in pixels, as in 900x600, 16 to 16384 each way."))
        return None

    def chosen(self) -> frozenset[str]:
        """The surfaces that are ticked."""
        items = (self.surfaces.item(row) for row in range(self.surfaces.count()))
        return frozenset(one.data(_ID) for one in items if one and one.checkState() == Qt.CheckState.Checked)

    def begin(self) -> None:
        """Start anew."""
        size = self.typed_size()
        if size is None or self._running:
            return
        if self.what.currentData() in {TURNTABLE, HOURS}:
            dialog = QFileDialog(self, tr("Folder for the pictures"))
            dialog.setFileMode(QFileDialog.FileMode.Directory)
            dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
            if dialog.exec():
                self.make_series(self.what.currentData(), size, Path(dialog.selectedFiles()[0]))
            return
        if self.surfaces.isVisibleTo(self) and not self.chosen():
            self.state.setText(tr("Tick a surface or more."))
            return
        shutil.rmtree(self._folder, ignore_errors=True)
        self._folder.mkdir(parents=True)
        self.still = self.wanted = None
        self._trace(size)

    def go_on(self) -> None:
        """Add as many samples again."""
        if self.wanted is not None and self.still is not None and not self._running:
            self._trace((self.wanted.look.width, self.wanted.look.height))

    def halt(self) -> None:
        """Stop; what is there is kept."""
        self._worker.request("still", lambda _current: None)
        self.state.setText(tr("Stopped; what is there is kept."))

    def _trace(self, size: tuple[int, int]) -> None:
        before = self.still.samples if self.still is not None and self.still.samples < 1 << 19 else 0
        make, chosen = self.makes[self.what.currentData()], self.chosen()
        samples, known, ground = before + int(self.samples.currentData()), self.wanted, self.open_ground.isChecked()
        self._running = True
        self.state.setText(tr("Working out the surfaces…"))
        self._show_buttons()

        def work(current: Current) -> None:
            try:
                wanted = known or make(size, chosen, current)
                self._arrived.emit(wanted)

                def told(progress: Progress) -> None:
                    self._told.emit(progress)
                    if (so_far := read_still(self._folder)) is not None:
                        self._arrived.emit(so_far)

                still, note = make_still(wanted, samples, told, current, folder=self._folder, open_ground=ground)
                self._arrived.emit(still)
                self._done.emit(note)
            except TesselError as error:
                self._done.emit(tr(sentence(error)))
            except (OSError, ValueError, RuntimeError) as error:
                self._done.emit(str(error))

        self._worker.request("still", work)

    def make_series(self, what: str, size: tuple[int, int], folder: Path) -> None:
        """A turntable's frames, or the same view at the hours of its day, as files."""
        samples, ground, deep = int(self.samples.currentData()), self.open_ground.isChecked(), self.deep.isChecked()
        self._running = True
        self.state.setText(tr("Working out the surfaces…"))
        self._show_buttons()

        def work(current: Current) -> None:
            try:
                first = self.makes[SEEN](size, frozenset(), current)
                series = _turned(first) if what == TURNTABLE else _hours(first, self.rig)
                begun = time.monotonic()
                for number, (name, wanted) in enumerate(series):

                    def told(progress: Progress, number: int = number) -> None:
                        each = (time.monotonic() - begun + progress.left) / (number + 1)
                        left = progress.left + each * (len(series) - number - 1)
                        if math.isfinite(left):
                            said = tr(
                                "{number} of {count} pictures, {left} left",
                                number=number + 1,
                                count=len(series),
                                left=_lasting(left),
                            )
                            self._told.emit(said)

                    still, _ = make_still(wanted, samples, told, current, open_ground=ground)
                    if not current():
                        break
                    finish = finish_of(wanted, still, depth=16 if deep else 8, open_ground=ground)
                    write_still(folder / f"{name}.png", still, finish)
                    self._arrived.emit(wanted)
                    self._arrived.emit(still)
                self._done.emit(tr("The pictures are in {folder}.", folder=folder.name))
            except TesselError as error:
                self._done.emit(tr(sentence(error)))

        self._worker.request("still", work)

    # Showing -------------------------------------------------------------------------------------

    @pyqtSlot(object)
    def _show_progress(self, told: Any) -> None:
        if isinstance(told, str):
            self.state.setText(told)
        elif math.isinf(told.left):
            self.state.setText(tr("{samples} samples", samples=told.samples) if told.samples else tr("Tracing…"))
        else:
            self.state.setText(tr("{samples} samples, {left} left", samples=told.samples, left=_lasting(told.left)))

    @pyqtSlot(object)
    def _show_still(self, made: Any) -> None:
        if isinstance(made, Wanted):
            self.wanted = made
            return
        self.still = made
        finish = self.finish()
        if finish is None:
            return
        codes = codes_of(png_of(made.smooth(), made.cover, finish))
        shown = QPixmap.fromImage(to_image(np.ascontiguousarray(codes)))
        keep, smooth = Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation
        self.view.setPixmap(shown.scaled(self.view.size(), keep, smooth))

    def finish(self) -> Finish | None:
        """How it is written, as chosen."""
        if self.wanted is None or self.still is None:
            return None
        return finish_of(
            self.wanted, self.still,
            depth=16 if self.deep.isChecked() else 8,
            open_ground=self.open_ground.isChecked(),
            captioned=self.caption.isChecked(),
        )  # fmt: skip

    @pyqtSlot(str)
    def _end(self, note: str) -> None:
        self._running = False
        if self.still is not None:
            self.state.setText(note or tr("Done: {samples} samples.", samples=min(self.still.samples, 1 << 19)))
        elif note:
            self.state.setText(note)
        self._show_buttons()

    def choose_file(self) -> None:
        """Ask where, and save there."""
        dialog = QFileDialog(self, tr("Save the picture"))
        dialog.setAcceptMode(QFileDialog.AcceptMode.AcceptSave)
        dialog.setNameFilters([tr("Picture (*.png)"), tr("Light with layers (*.exr)")])
        dialog.setDefaultSuffix("png")
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.save(Path(dialog.selectedFiles()[0]))

    def save(self, path: Path) -> None:
        """Save the still; what cannot be written is told."""
        finish = self.finish()
        if self.still is None or finish is None:
            return
        try:
            write_still(path, self.still, finish)
        except TesselError as error:
            self.state.setText(tr(sentence(error)))
        else:
            self.state.setText(tr("Saved as {name}.", name=path.name))

    def closeEvent(self, event: QCloseEvent | None) -> None:
        if self._running:
            self.halt()

    @property
    def idle(self) -> bool:
        """Whether nothing is being traced."""
        return self._worker.idle and not self._running

    def close_down(self) -> None:
        """End the tracer; what it added up goes."""
        self._worker.stop(lambda: shutil.rmtree(self._folder, ignore_errors=True))


def _lasting(seconds: float) -> str:
    """A time as it is waited for."""
    return tr("{count} s", count=round(seconds)) if seconds < 90 else tr("{count} min", count=round(seconds / 60))


def _turned(first: Wanted) -> list[tuple[str, Wanted]]:
    """The eye once round what it looks at."""
    step = 360 / FRAMES
    camera = first.look.camera
    return [
        (
            f"turn-{k:02d}",
            replace(first, look=replace(first.look, camera=replace(camera, azimuth=camera.azimuth + k * step))),
        )
        for k in range(FRAMES)
    ]


def _hours(first: Wanted, rig: Rig) -> list[tuple[str, Wanted]]:
    """The hours of the rig's day at which the sun is up, each exposed for itself."""
    sun = sun_of(rig)
    made = []
    for hour in range(4, 22):
        if sun_stand(sun.day, hour, sun.latitude).height < 2:
            continue
        changed = set_hour(rig, float(hour))
        light = scene_light(changed.value)  # type: ignore[union-attr]
        made.append((f"hour-{hour:02d}", replace(first, look=replace(first.look, light=light))))
    return made
