"""Menus and shortcuts. Everything in a menu can be reached by keyboard."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import Any, Protocol

from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QFileDialog, QInputDialog, QMainWindow, QMenu, QMessageBox

from .. import __version__
from ..core.job.commands import Set
from ..core.job.document import Job
from ..core.relief.pictures import REFLECTANCE, VIEWS
from ..engine.library.shipped_demo import shipped_demo
from ..formats.job_file import OpenedJob
from .board import SCALES, Board
from .desk import Desk
from .reference import ReferenceFrame
from .stages.build.stage import EXTENTS, BuildStage
from .stages.gather.stage import GatherStage
from .stages.hand_over.stage import HandOverStage
from .stages.place.stage import PlaceStage
from .stages.repeat.stage import RepeatStage
from .stages.stage import Stage
from .view_state import STAGES
from .words import tr

_FILTER = "Brave Tessel jobs (*.tessel)"


class Frame(Protocol):
    """What the actions need of the window beside its widgets."""

    desk: Desk
    gather_stage: GatherStage
    repeat_stage: RepeatStage
    build_stage: BuildStage
    place_stage: PlaceStage
    hand_over_stage: HandOverStage
    reference: ReferenceFrame

    @property
    def stage(self) -> Stage: ...

    def fold(self, side: str) -> None: ...

    def open_picture(self) -> None: ...

    def open_light(self) -> None: ...

    def open_job(self, path: Path) -> None: ...

    def save_job(self, path: Path, *, then: Callable[[], None] | None = None) -> None: ...

    def leave_then(self, go_on: Callable[[], None]) -> None: ...


class Actions:
    """The window's actions, grouped in menus."""

    def __init__(self, window: QMainWindow, frame: Frame) -> None:
        self.window = window
        self.frame = frame
        self.desk = frame.desk
        self.undo: QAction
        self.redo: QAction
        self._job()
        self._edit()
        self._view()
        self._surface()
        self._scene()
        self._help()

    def _menu(self, title: str) -> QMenu:
        bar = self.window.menuBar()
        assert bar is not None
        menu = bar.addMenu(title)
        assert menu is not None
        return menu

    def _add(self, menu: QMenu, text: str, keys: str, run: Callable[[], Any]) -> QAction:
        action = QAction(text, self.window)
        if keys:
            action.setShortcut(QKeySequence(keys))
        action.triggered.connect(lambda _checked=False: run())
        menu.addAction(action)
        return action

    # Job -----------------------------------------------------------------------------------------

    def _job(self) -> None:
        menu = self._menu(tr("&Job"))
        self._add(menu, tr("New"), "Ctrl+N", self.new)
        self._add(menu, tr("Open…"), "Ctrl+O", self.open)
        self._add(menu, tr("Open the demo job"), "Ctrl+Shift+O", self.demo)
        menu.addSeparator()
        self._add(menu, tr("Save"), "Ctrl+S", self.save)
        self._add(menu, tr("Save as…"), "Ctrl+Shift+S", self.save_as)
        self._add(menu, tr("Rename the job…"), "Ctrl+Shift+R", self.rename)
        menu.addSeparator()
        self._add(menu, tr("Add pictures…"), "Ctrl+I", lambda: self._turned("Gather").gather_stage.choose_files())
        self._add(menu, tr("Picture…"), "Ctrl+Shift+E", self.frame.open_picture)
        self._add(menu, tr("Hand over…"), "Ctrl+E", lambda: self._turned("Hand over").hand_over_stage.choose_folder())
        menu.addSeparator()
        self._add(menu, tr("Quit"), "Ctrl+Q", self.window.close)

    def _turned(self, stage: str) -> Frame:
        """The window, turned to a stage."""
        self.desk.go(stage)
        return self.frame

    def new(self) -> None:
        """An empty job."""

        def start() -> None:
            self.desk.session.adopt(OpenedJob(Job()), None)
            self.desk.go("Gather")

        self.frame.leave_then(start)

    def open(self) -> None:
        """A job from a file."""
        self.frame.leave_then(self._choose_job)

    def _choose_job(self) -> None:
        dialog = self._dialog(tr("Open a job"))
        dialog.setFileMode(QFileDialog.FileMode.ExistingFile)
        if dialog.exec():
            self.frame.open_job(Path(dialog.selectedFiles()[0]))

    def demo(self) -> None:
        """The demo job, unsaved."""

        def start() -> None:
            self.desk.tell(tr("Opening the demo job…"))
            self.desk.files.adopt(shipped_demo, None, then=lambda: self.desk.go("Build"))

        self.frame.leave_then(start)

    def save(self, *, then: Callable[[], None] | None = None) -> None:
        """Save where the job lies, or ask where."""
        path = self.desk.session.path
        if path:
            self.frame.save_job(path, then=then)
        else:
            self.save_as(then=then)

    def save_as(self, *, then: Callable[[], None] | None = None) -> None:
        """Ask where, and save there."""
        dialog = self._dialog(tr("Save the job as"))
        dialog.setAcceptMode(QFileDialog.AcceptMode.AcceptSave)
        dialog.setDefaultSuffix("tessel")
        dialog.selectFile(f"{self.desk.job.name}.tessel")
        if dialog.exec():
            self.frame.save_job(Path(dialog.selectedFiles()[0]), then=then)

    def _dialog(self, title: str) -> QFileDialog:
        dialog = QFileDialog(self.window, title)
        dialog.setNameFilter(_FILTER)
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        return dialog

    def rename(self) -> None:
        name, done = QInputDialog.getText(self.window, tr("Rename the job"), tr("Name"), text=self.desk.job.name)
        if done and name.strip():
            self.desk.dispatch(Set(path=("name",), value=name.strip(), label=tr("Rename the job")))

    # Edit ----------------------------------------------------------------------------------------

    def _edit(self) -> None:
        menu = self._menu(tr("&Edit"))
        store = self.desk.session.store
        self.undo = self._add(menu, tr("Undo"), "Ctrl+Z", store.undo)
        self.redo = self._add(menu, tr("Redo"), "Ctrl+Shift+Z", store.redo)
        menu.addSeparator()
        self._add(menu, tr("Leave the tool"), "Esc", self.leave_tool)

    def show_history(self, undo: str, redo: str) -> None:
        self.undo.setText(tr("Undo {undo}", undo=undo) if undo else tr("Undo"))
        self.redo.setText(tr("Redo {redo}", redo=redo) if redo else tr("Redo"))
        self.undo.setEnabled(bool(undo))
        self.redo.setEnabled(bool(redo))

    def leave_tool(self) -> None:
        """Stop what takes long; where nothing does, put every tool down, and leave an open recipe."""
        stopped = self.desk.work.stop_long()
        build = self.frame.build_stage
        if self.desk.view.stage == "Build" and self.desk.selection.recipe_open and not stopped:
            build.open_recipe(False)
        build.hand.leave_tools()
        self.frame.gather_stage.leave_tools()
        self.frame.repeat_stage.piece.take_back()
        self.frame.place_stage.pick_datum(False)
        if stopped:
            self.desk.tell(tr("Stopped."))

    # View ----------------------------------------------------------------------------------------

    def _view(self) -> None:
        menu = self._menu(tr("&View"))
        for index, stage in enumerate(STAGES):
            self._add(menu, f"{index + 1} {tr(stage)}", str(index + 1), partial(self.desk.go, stage))
        menu.addSeparator()
        self._add(menu, tr("Light…"), "Ctrl+J", self.frame.open_light)
        self._add(menu, tr("Fit"), "F", lambda: self.frame.stage.fit())
        scales = menu.addMenu(tr("Scale"))
        assert scales is not None
        for scale in SCALES:
            self._add(scales, f"1 : {scale}", "Ctrl+1" if scale == 1 else "", partial(self.to_scale, scale))
        self._add(scales, tr("One sheet pixel per screen pixel"), "Ctrl+0", self.pixel_for_pixel)
        views = menu.addMenu(tr("Show"))
        assert views is not None
        for index, view in enumerate(VIEWS):
            self._add(
                views,
                tr(view),
                f"Alt+{(index + 1) % 10}" if index < 10 else "Alt+R" if view == REFLECTANCE else "",
                partial(self.show_view, view),
            )
        extents = menu.addMenu(tr("Extent"))
        assert extents is not None
        for index, extent in enumerate(EXTENTS):
            self._add(extents, tr(extent), f"Alt+Shift+{index + 1}", partial(self.show_extent, extent))
        menu.addSeparator()
        self._add(menu, tr("Pin the source as reference"), "Ctrl+Shift+P", self.pin_reference)
        for side, name, keys in (
            ("left", tr("Left list"), "F9"),
            ("card", tr("Card"), "F10"),
            ("strip", tr("Strip"), "F11"),
        ):
            self._add(menu, tr("Fold the {name}", name=name.lower()), keys, partial(self.frame.fold, side))

    def pin_reference(self) -> None:
        """Pin the chosen source beside every board, or take the reference away."""
        frame = self.frame.reference
        source = frame.pinned.source or self.desk.selection.source_id
        if not source:
            self.desk.tell(tr("Add a picture in Gather first."), "caution")
            return
        frame.pin(source)

    @property
    def _build(self) -> BuildStage:
        return self.frame.build_stage

    _view_before = "Lit"

    def show_view(self, view: str) -> None:
        if self.desk.view.view != "Cover":
            self._view_before = self.desk.view.view
        self._build.views.show_word(view)
        self.desk.view.show_view(view)

    def show_extent(self, extent: str) -> None:
        stage = self._build
        stage.extents.show_word(extent)
        stage.show_extent(extent)

    def to_scale(self, scale: int) -> None:
        board = self.frame.stage.ruled_board
        if isinstance(board, Board):
            board.set_scale(board.px_per_mm_at(scale))

    def pixel_for_pixel(self) -> None:
        stage = self._build
        if stage.done is not None:
            stage.surface_board.set_scale(1 / stage.done.grid.pitch_mm)

    # Surface, scene, help ------------------------------------------------------------------------

    def _surface(self) -> None:
        menu = self._menu(tr("&Surface"))

        def stage() -> BuildStage:
            return self._build

        self._add(menu, tr("New surface"), "Ctrl+Shift+N", lambda: stage().new_surface())
        self._add(menu, tr("Rename the surface…"), "Ctrl+R", lambda: stage().rename_surface())
        menu.addSeparator()
        lay = menu.addMenu(tr("Lay on"))
        assert lay is not None
        lay.aboutToShow.connect(lambda: self._fill_lay(lay))
        self._add(menu, tr("Duplicate the layer"), "Ctrl+D", lambda: stage().layers.duplicate())
        self._add(menu, tr("Rename the layer or part…"), "F2", self.rename_chosen)
        self._add(menu, tr("Take the layer out"), "Ctrl+Backspace", lambda: stage().layers.remove())
        menu.addSeparator()
        self._add(menu, tr("Open or leave the recipe"), "E", self.toggle_recipe)
        self._add(
            menu,
            tr("Copy layers, or the step with what it needs"),
            "Ctrl+C",
            lambda: (stage().recipe if self.desk.selection.recipe_open else stage().layers).copy(),
        )
        self._add(
            menu,
            tr("Paste layers or steps"),
            "Ctrl+V",
            lambda: (stage().recipe if self.desk.selection.recipe_open else stage().layers).paste(),
        )
        self._add(
            menu, tr("Compare with the next chosen step"), "Alt+A", lambda: stage().recipe.board.pair.hold_against()
        )
        menu.addSeparator()
        self._add(menu, tr("Paint"), "B", self.toggle_painting)
        self._add(menu, tr("Swap paint and erase"), "X", self.swap_erase)
        self._add(menu, tr("Library"), "Ctrl+L", self.toggle_library)
        self._add(menu, tr("Bundle the chosen layers"), "Ctrl+G", lambda: stage().layers.bundle())
        self._add(menu, tr("Show the layer alone"), "O", lambda: stage().layers.solo())
        self._add(menu, tr("Show where the layer lies"), "C", self.show_cover)
        self._add(menu, tr("Lock or unlock"), "L", lambda: stage().layers.lock())
        self._add(menu, tr("Keep and compare"), "K", lambda: stage().kept.toggle())
        self._add(menu, tr("Compare with a kept state…"), "Shift+K", lambda: stage().kept.open_menu())

    def rename_chosen(self) -> None:
        """Type another name for the chosen part in Place, or the chosen layer elsewhere."""
        if self.desk.view.stage == "Place":
            self.frame.place_stage.tree.rename(self.desk.selection.part_id)
        else:
            self._build.layers.rename()

    def _fill_lay(self, menu: QMenu) -> None:
        self._build.layers.fill_lay_menu(menu)

    def show_cover(self) -> None:
        """Where the chosen layer lies, or the view shown before."""
        self.show_view(self._view_before if self.desk.view.view == "Cover" else "Cover")

    def toggle_recipe(self) -> None:
        self.desk.go("Build")
        self._build.open_recipe(not self.desk.selection.recipe_open)

    def toggle_library(self) -> None:
        self.desk.go("Build")
        stage = self._build
        stage.open_library(not stage.library.isVisible())

    def toggle_painting(self) -> None:
        self.desk.go("Build")
        stage = self._build
        stage.hand.set_painting(not stage.surface_board.painting)

    def swap_erase(self) -> None:
        self.desk.brush.erasing = not self.desk.brush.erasing
        self._build.layer_card.show_erasing(self.desk.brush.erasing)

    def _scene(self) -> None:
        menu = self._menu(tr("S&cene"))

        def stage() -> PlaceStage:
            return self._turned("Place").place_stage

        self._add(menu, tr("Add…"), "Ctrl+Shift+A", lambda: stage().open_sheet())
        self._add(menu, tr("Open a model…"), "Ctrl+Shift+M", lambda: stage().choose_models())
        self._add(menu, tr("Put up a room corner"), "Ctrl+Shift+C", lambda: stage().put_up("room"))
        self._add(menu, tr("Put up a street corner"), "", lambda: stage().put_up("street"))
        menu.addSeparator()
        self._add(menu, tr("Pick the datum"), "Ctrl+P", self.pick_datum)
        self._add(menu, tr("Pick faces"), "Alt+F", lambda: stage().hand.take("Faces"))
        self._add(menu, tr("Measure"), "Alt+M", lambda: stage().hand.take("Measure"))
        self._add(menu, tr("Take the measured lines away"), "", lambda: stage().clear_lines())
        self._add(menu, tr("Take a colour"), "Alt+P", lambda: stage().hand.take("Colour"))
        self._add(menu, tr("Name a level…"), "Alt+L", self.name_level)
        menu.addSeparator()
        self._add(menu, tr("Fit the courses"), "Alt+T", lambda: stage().setting.fit_courses())
        self._add(menu, tr("Setting-out sheet…"), "Ctrl+Alt+P", lambda: stage().setting.ask_for_sheet())
        self._add(menu, tr("What is to look at"), "Alt+O", lambda: stage().findings.fold())
        menu.addSeparator()
        self._add(menu, tr("Hide or show the parts"), "H", lambda: stage().parts.hide())
        self._add(menu, tr("Isolate the parts"), "I", lambda: stage().parts.isolate())
        self._add(menu, tr("Lock or unlock the parts"), "Ctrl+Shift+L", lambda: stage().parts.lock())
        self._add(menu, tr("Group the parts"), "Ctrl+Shift+G", lambda: stage().parts.group())
        self._add(menu, tr("Take the group apart"), "Ctrl+Shift+U", lambda: stage().parts.ungroup())
        menu.addSeparator()
        self._add(menu, tr("Keep this view"), "Alt+K", lambda: stage().keep_eye())
        self._add(menu, tr("Whole view"), "Home", lambda: self.frame.place_stage.fit())

    def name_level(self) -> None:
        """Ask for a name and a height."""
        stage = self._turned("Place").place_stage
        text, done = QInputDialog.getText(self.window, tr("Name a level"), tr("Name and height, as in sill 936"))
        if done and text.strip():
            stage.set_level(text)

    def pick_datum(self) -> None:
        """Pick where layings start, on the model."""
        self._turned("Place").place_stage.pick_datum(True)

    def _help(self) -> None:
        menu = self._menu(tr("&Help"))
        self._add(menu, tr("First steps"), "F1", self.first_steps)
        self._add(menu, tr("About"), "", self.about)

    def first_steps(self) -> None:
        QMessageBox.information(
            self.window,
            tr("First steps"),
            tr(
                "1  Gather: drop a photo, drag the frame's corners onto something rectangular, type its width.\n"
                "2  Repeat: widen the overlap until the cut is quiet, then make a surface of it.\n"
                "3  Build: lay on a pattern or noise; say where it lies and how it sits.\n"
                "4  Place: add pieces or a model, drag surfaces onto their faces; pick the datum.\n"
                "5  Hand over: read the checks, choose sizes and depths, write the files."
            ),
        )

    def about(self) -> None:
        QMessageBox.about(
            self.window,
            tr("About Brave Tessel"),
            tr(
                "Brave Tessel {version}\nGPL-3.0-or-later. IBM Plex (OFL-1.1), Tabler Icons (MIT).", version=__version__
            ),
        )
