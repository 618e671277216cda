"""The frame: menus, stage bar, left list, board, strip, card and status line."""

from __future__ import annotations

import time
from collections.abc import Callable
from itertools import count
from pathlib import Path

from PyQt6.QtCore import QSettings, QSize, Qt, QTimer
from PyQt6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent
from PyQt6.QtWidgets import (
    QComboBox,
    QHBoxLayout,
    QLabel,
    QMainWindow,
    QMessageBox,
    QSplitter,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from ..core.job.document import Job
from ..engine.session import Session
from ..engine.workers import Current
from ..view3d.samples import solid_camera
from ..view3d.stills.make import Wanted, of_board, of_contact, of_scene, of_surface
from . import theme
from .actions import Actions
from .controls.stage_bar import BusySign, StageBar
from .desk import Desk
from .light_panel import LightButton
from .picture_dialog import BOARD, CONTACT, SEEN, Make, PictureDialog
from .reference import ReferenceFrame
from .stages.build.stage import BuildStage
from .stages.gather.stage import GatherStage, accepts
from .stages.hand_over.stage import HandOverStage
from .stages.place.stage import PlaceStage
from .stages.repeat.stage import RepeatStage
from .stages.stage import Stage
from .view_state import STAGES
from .words import tr

PREVIEWS = (512, 1024, 2048)


def free_path(path: Path) -> Path:
    """A name beside a file that is not taken: ``wall 2.tessel``."""
    return next(made for n in count(2) if not (made := path.with_stem(f"{path.stem} {n}")).exists())


class Window(QMainWindow):
    """One open job. Closing asks only if work would be lost."""

    def __init__(self, session: Session, *, ask: bool = True) -> None:
        super().__init__()
        self.ask = ask
        self._closing = False
        self.desk = Desk(session)
        self.picture: PictureDialog | None = None
        self.gather_stage = GatherStage(self.desk)
        self.repeat_stage = RepeatStage(self.desk)
        self.build_stage = BuildStage(self.desk)
        self.place_stage = PlaceStage(self.desk)
        self.hand_over_stage = HandOverStage(self.desk)
        stages = (self.gather_stage, self.repeat_stage, self.build_stage, self.place_stage, self.hand_over_stage)
        self.stages: dict[str, Stage] = {stage.name: stage for stage in stages}
        self.stacks = {side: QStackedWidget() for side in ("left", "board", "strip", "card")}
        for stage in self.stages.values():
            for side, stack in self.stacks.items():
                stack.addWidget(getattr(stage, side))
        self._build()
        self.actions_ = Actions(self, self)
        self.setAcceptDrops(True)
        self._connect()
        self._restore_sizes()
        self._show_stage(self.desk.view.stage)
        self._show_job(self.desk.job)

    # The frame -----------------------------------------------------------------------------------

    def _build(self) -> None:
        body = QWidget()
        column = QVBoxLayout(body)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self._make_bar())
        self.upright = QSplitter(Qt.Orientation.Vertical)
        self.reference = ReferenceFrame(self.desk, self.stacks["board"], lambda: self.stage.ruled_board)
        self.upright.addWidget(self.reference)
        self.upright.addWidget(self.stacks["strip"])
        self.across = QSplitter(Qt.Orientation.Horizontal)
        self.across.addWidget(self.stacks["left"])
        self.across.addWidget(self.upright)
        self.across.addWidget(self.stacks["card"])
        for splitter, stretch in ((self.upright, (1, 0)), (self.across, (0, 1, 0))):
            splitter.setHandleWidth(1)
            splitter.setChildrenCollapsible(False)
            for index, share in enumerate(stretch):
                splitter.setStretchFactor(index, share)
        for side, width in (("left", 200), ("card", 250)):
            self.stacks[side].setMinimumWidth(theme.px(width))
        column.addWidget(self.across, 1)
        column.addWidget(self._make_status())
        self.setCentralWidget(body)

    def _make_bar(self) -> QWidget:
        bar = QWidget()
        bar.setStyleSheet(
            f"QWidget#bar {{ background: {theme.tokens().chalk}; border-bottom: 1px solid {theme.tokens().line}; }}"
        )
        bar.setObjectName("bar")
        bar.setFixedHeight(theme.px(43))
        row = QHBoxLayout(bar)
        row.setContentsMargins(theme.px(12), 0, theme.px(12), 0)
        row.setSpacing(theme.px(8))
        self.stage_bar = StageBar(STAGES)
        row.addWidget(self.stage_bar)
        row.addStretch(1)
        self.job_name = QLabel()
        self.job_name.setObjectName("section")
        self.saved = QLabel()
        self.saved.setObjectName("note")
        row.addWidget(self.job_name)
        row.addWidget(self.saved)
        row.addStretch(1)
        self.preview = QComboBox()
        self.preview.setAccessibleName(tr("Preview size"))
        self.preview.setToolTip(tr("How finely the preview is sampled; the job itself has no resolution"))
        for size in PREVIEWS:
            self.preview.addItem(tr("Preview {size} px", size=size), size)
        self.preview.setCurrentIndex(PREVIEWS.index(1024))
        self.light = LightButton(self.desk, self)
        row.addWidget(self.light)
        row.addWidget(self.preview)
        self.undo = self._tool("arrow-back-up", tr("Undo"))
        self.redo = self._tool("arrow-forward-up", tr("Redo"))
        row.addWidget(self.undo)
        row.addWidget(self.redo)
        self.busy = BusySign()
        row.addWidget(self.busy)
        self.ms = QLabel("")
        self.ms.setObjectName("mono")
        self.ms.setFixedWidth(theme.px(58))
        self.ms.setToolTip(tr("Time of the last evaluation"))
        row.addWidget(self.ms)
        return bar

    def _tool(self, icon: str, name: str) -> QToolButton:
        made = QToolButton()
        made.setIcon(theme.tinted(icon))
        made.setIconSize(QSize(theme.px(16), theme.px(16)))
        made.setAccessibleName(name)
        return made

    def _make_status(self) -> QWidget:
        status = QWidget()
        status.setObjectName("status")
        status.setFixedHeight(theme.px(24))
        row = QHBoxLayout(status)
        row.setContentsMargins(theme.px(12), 0, theme.px(12), 0)
        row.setSpacing(theme.px(24))
        self.place = QLabel()
        self.place.setObjectName("mono")
        self.told = QLabel()
        self.numbers = QLabel()
        self.numbers.setObjectName("mono")
        row.addWidget(self.place)
        row.addWidget(self.told, 1)
        row.addWidget(self.numbers)
        return status

    def _connect(self) -> None:
        desk = self.desk
        self.stage_bar.chosen.connect(desk.go)
        self.preview.activated.connect(lambda index: desk.view.set_preview(self.preview.itemData(index)))
        self.undo.clicked.connect(lambda: desk.session.store.undo())
        self.redo.clicked.connect(lambda: desk.session.store.redo())
        desk.view.stage_changed.connect(self._show_stage)
        desk.job_moved.connect(self._show_job)
        desk.message.connect(self._tell)
        desk.work.busy_changed.connect(self.busy.show_busy)
        desk.timed.connect(lambda ms: self.ms.setText(tr("{ms:.0f} ms", ms=ms)))
        self._connect_placed()
        self.build_stage.light_asked.connect(lambda corner: self.light.panel.open_at(corner))
        self.build_stage.recipe_toggled.connect(
            lambda on: self.stacks["strip"].setVisible(not on or self.desk.view.stage != "Build")
        )
        desk.view.stage_changed.connect(
            lambda stage: self.stacks["strip"].setVisible(not (desk.selection.recipe_open and stage == "Build"))
        )
        self._clock = QTimer(self)
        self._clock.setInterval(5000)
        self._clock.timeout.connect(self._show_saved)
        self._clock.start()

    def _connect_placed(self) -> None:
        """The contact sheet shows the model, drawn by the view that owns its context."""
        place, hand_over = self.place_stage, self.hand_over_stage

        def ask() -> None:
            if self.desk.view.stage == hand_over.name:
                self.desk.place.stand()
                place.view.request_still(480, 400)

        self.desk.place.ready.connect(lambda _done: ask())
        self.desk.place.standing.connect(lambda _site, _parts: ask())
        place.view.still_drawn.connect(hand_over.sheet.show_placed)

    @property
    def stage(self) -> Stage:
        return self.stages[self.desk.view.stage]

    def _show_stage(self, name: str) -> None:
        index = list(self.stages).index(name)
        for stack in self.stacks.values():
            stack.setCurrentIndex(index)
        self.stage_bar.show_stage(name)
        self._tell("", "note")

    def _show_job(self, job: Job) -> None:
        self.job_name.setText(job.name)
        store = self.desk.session.store
        for tool, label, word in ((self.undo, store.undo_label, tr("Undo")), (self.redo, store.redo_label, tr("Redo"))):
            tool.setEnabled(bool(label))
            tool.setToolTip(f"{word} {label}" if label else tr("Nothing to {word}", word=word.lower()))
        self.actions_.show_history(store.undo_label, store.redo_label)
        self._show_saved()

    def _show_saved(self) -> None:
        session = self.desk.session
        if not session.store.saved:
            text = "unsaved"
        elif session.saved_at is None:
            text = ""
        else:
            ago = int(time.time() - session.saved_at)
            text = tr("saved {ago} s ago", ago=ago) if ago < 90 else tr("saved {ago} min ago", ago=ago // 60)
        self.saved.setText(text)
        name = session.path.name if session.path else self.desk.job.name
        self.setWindowTitle(f"{name}{'' if session.store.saved else ' *'} – Brave Tessel")

    def _tell(self, text: str, severity: str) -> None:
        parts = text.split("\t") if severity == "probe" else ["", text]
        place, told, numbers = [*parts, "", "", ""][:3]
        self.place.setText(place)
        self.told.setText(told)
        self.numbers.setText(numbers)
        token = {"fault": "oxide", "caution": "ochre"}.get(severity, "ink_2")
        self.told.setStyleSheet(f"color: {theme.colour(token).name()};")

    # Sizes ---------------------------------------------------------------------------------------

    def _restore_sizes(self) -> None:
        self.resize(1280, 800)
        settings = QSettings(QSettings.Format.IniFormat, QSettings.Scope.UserScope, "Brave Tessel", "Brave Tessel")
        for name, splitter, default in (
            ("across", self.across, [242, 742, 296]),
            ("upright", self.upright, [540, 188]),
        ):
            stored = settings.value(f"window/{name}")
            sizes = [int(size) for size in stored] if isinstance(stored, list) and len(stored) == len(default) else None
            splitter.setSizes(sizes or [theme.px(size) for size in default])
        geometry = settings.value("window/geometry")
        if geometry is not None:
            self.restoreGeometry(geometry)

    def _keep_sizes(self) -> None:
        settings = QSettings(QSettings.Format.IniFormat, QSettings.Scope.UserScope, "Brave Tessel", "Brave Tessel")
        if all(self.stacks[side].isVisible() for side in ("left", "strip", "card")):
            settings.setValue("window/across", self.across.sizes())
            settings.setValue("window/upright", self.upright.sizes())
        settings.setValue("window/geometry", self.saveGeometry())

    def fold(self, side: str) -> None:
        """Fold or unfold the left list, the card or the strip."""
        self.stacks[side].setVisible(not self.stacks[side].isVisible())

    # Files ---------------------------------------------------------------------------------------

    def open_job(self, path: Path) -> None:
        """Open a job; what cannot be opened is told and leaves the present one alone."""
        self.desk.tell(tr("Opening {name}…", name=path.name))
        self.desk.files.open(path, then=lambda: self.desk.tell(""))

    def save_job(self, path: Path, *, then: Callable[[], None] | None = None, overwrite: bool = False) -> None:
        """Save; on failure it is told and the job stays unsaved. A file that something else has written since is
        saved over only when that is wanted.
        """

        def saved() -> None:
            self._show_saved()
            if then is not None:
                then()

        self.desk.files.save(path, then=saved, changed=lambda: self._ask_which(path, then=then), overwrite=overwrite)

    def _ask_which(self, path: Path, *, then: Callable[[], None] | None) -> None:
        """Two have written one file: keep both, take the other, or overwrite it."""
        if not self.ask:
            return
        box = QMessageBox(self)
        box.setWindowTitle(tr("Changed on disk"))
        box.setText(tr("{name} was saved by another window since it was opened here.", name=path.name))
        role = QMessageBox.ButtonRole
        both = box.addButton(tr("Keep both"), role.AcceptRole)
        theirs = box.addButton(tr("Take theirs"), role.DestructiveRole)
        over = box.addButton(tr("Overwrite"), role.DestructiveRole)
        box.addButton(QMessageBox.StandardButton.Cancel)
        box.setDefaultButton(both)
        box.exec()
        if box.clickedButton() is both:
            self.save_job(free_path(path), then=then)
        elif box.clickedButton() is theirs:
            self.open_job(path)
        elif box.clickedButton() is over:
            self.save_job(path, then=then, overwrite=True)

    def leave_then(self, go_on: Callable[[], None]) -> None:
        """Go on at once, or after unsaved work has been saved or given up; not at all where neither is wanted."""
        store = self.desk.session.store
        if not self.ask or store.saved:
            go_on()
            return
        buttons = QMessageBox.StandardButton
        answer = QMessageBox.question(
            self,
            tr("Unsaved work"),
            tr("Save the changes to {name}?", name=self.desk.job.name),
            buttons.Save | buttons.Discard | buttons.Cancel,
            buttons.Save,
        )
        if answer == buttons.Save:
            self.actions_.save(then=go_on)
        elif answer == buttons.Discard:
            go_on()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        if event and accepts(event):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        if event is None:
            return
        paths = accepts(event)
        jobs = [path for path in paths if path.suffix == ".tessel"]
        if jobs:
            self.leave_then(lambda: self.open_job(jobs[0]))
        elif paths:
            self.desk.go("Gather")
            self.desk.gather.read(paths)
        event.acceptProposedAction()

    def closeEvent(self, event: QCloseEvent | None) -> None:
        if event is None or self._closing:
            return
        if self.ask and not self.desk.session.store.saved:
            # Saving takes a moment; the window closes when it is done.
            event.ignore()
            self.leave_then(self._close_now)
            return
        self._finish()

    def _close_now(self) -> None:
        self._finish()
        self.close()

    def _finish(self) -> None:
        self._closing = True
        self._keep_sizes()
        self.close_down()

    # Pictures ------------------------------------------------------------------------------------

    def open_light(self) -> None:
        """Open the light menu."""
        self.light.open()

    def open_picture(self) -> None:
        """A still of what is seen: the model in Place, else the chosen surface on its solid."""
        if self.picture is not None:
            self.picture.close_down()
            self.picture.close()
        snapshot, px = self.desk.session.snapshot(), self.desk.view.preview_px

        def of_chosen(make: Callable[..., Wanted]) -> Make:
            def made(size: tuple[int, int], chosen: frozenset[str], current: Current) -> Wanted:
                surfaces = [surface for surface in snapshot.job.surfaces if surface.id in chosen]
                return make(snapshot, surfaces, size, px=px, current=current)

            return made

        makes = {SEEN: self._seen(), BOARD: of_chosen(of_board), CONTACT: of_chosen(of_contact)}
        self.picture = PictureDialog(self, makes, self.desk.job.rig, snapshot.job.surfaces)
        self.picture.show()

    def _seen(self) -> Make:
        snapshot, px = self.desk.session.snapshot(), self.desk.view.preview_px
        surface, solid = self.desk.selection.surface, self.build_stage.solid
        if self.desk.view.stage in {"Place", "Hand over"} or surface is None:
            camera = self.place_stage.view.camera
            return lambda size, _chosen, current: of_scene(snapshot, "", size, px=px, current=current, camera=camera)
        shape, eye = (solid.shape, solid.camera) if solid.isVisible() else ("Plane", solid_camera(0.0, 0.0))
        return lambda size, _chosen, _current: of_surface(snapshot, surface, shape, size, px=px, camera=eye)

    def close_down(self) -> None:
        """End every thread."""
        if self.picture is not None:
            self.picture.close_down()
        self._clock.stop()
        self.desk.close()
        self.place_stage.view.close_down()
        self.build_stage.solid.close_down()
        self.desk.session.close()
