"""Kept states in Build: kept with the job, compared with what the board shows, gone back to, let go."""

from __future__ import annotations

from PyQt6.QtCore import QPoint
from PyQt6.QtWidgets import QMenu

from ....core.job.document import Job, KeptState
from ....engine.intents import states as intents
from ....engine.pictures.results import SurfacePicture
from ...board import to_pixmaps
from ...desk import Desk
from ...words import tr
from .surface_board import SurfaceBoard


class KeptStates:
    """What stands between the job's states and the board's comparison."""

    def __init__(self, desk: Desk, board: SurfaceBoard) -> None:
        self.desk, self.compared = desk, board.compared
        self.compared.states.clicked.connect(self.open_menu)
        desk.build.kept_ready.connect(self._show)
        desk.session.store.subscribe(lambda job: job.states, lambda _states: self._check())

    def toggle(self) -> None:
        """Keep what the board shows and compare with it from now on; or compare no longer. What is kept stays."""
        surface = self.desk.selection.surface
        if self.compared.of:
            self.end()
        elif surface is not None:
            state = intents.same_state(self.desk.job, surface)
            if state is None:
                command, state = intents.keep_state(self.desk.job, surface)
                if not self.desk.dispatch(command):
                    return
            self.compare(state)
            self.compared.keep_shown()
            self.desk.tell(tr("Kept with the job: compare it with what you do now; K ends that."))

    def compare(self, state: KeptState) -> None:
        """Show a state beside what is there now."""
        self.compared.begin(state.id, _name(self.desk.job, state))
        self.desk.build.compare_with(state)

    def end(self) -> None:
        """Compare no longer; what is kept stays."""
        self.desk.build.compare_with(None)
        self.compared.end()

    def open_menu(self) -> None:
        """Every state that is kept, those of the surface at hand first, and what can be done with the one compared."""
        below = self.compared.states
        self._open = self.menu()
        self._open.aboutToHide.connect(self._open.deleteLater)
        self._open.popup(below.mapToGlobal(QPoint(0, 0)) if below.isVisible() else self._corner())

    def _corner(self) -> QPoint:
        board = self.compared.board
        return board.mapToGlobal(board.rect().center())

    def menu(self) -> QMenu:
        """The menu as the job is now."""
        job, menu = self.desk.job, QMenu(self.compared.board)
        here = self.desk.selection.surface_id
        for state in sorted(job.states, key=lambda one: one.surface.id != here):
            action = menu.addAction(_name(job, state))
            if action:
                action.setCheckable(True)
                action.setChecked(state.id == self.compared.of)
                action.triggered.connect(lambda _checked=False, one=state: self.compare(one))
        if not job.states:
            nothing = menu.addAction(tr("Nothing is kept yet: K keeps what is shown"))
            if nothing:
                nothing.setEnabled(False)
        chosen = next((state for state in job.states if state.id == self.compared.of), None)
        if chosen is not None:
            menu.addSeparator()
            name = _name(job, chosen)
            for text, run in (
                (tr("Go back to {name}", name=name), lambda: self.go_back(chosen)),
                (tr("Let {name} go", name=name), lambda: self.desk.dispatch(intents.drop_state(chosen))),
                (tr("Compare no longer"), self.end),
            ):
                action = menu.addAction(text)
                if action:
                    action.triggered.connect(lambda _checked=False, act=run: act())
        return menu

    def go_back(self, state: KeptState) -> None:
        """The surface is again what it was then."""
        if self.desk.dispatch(intents.go_back(self.desk.job, state)):
            self.desk.selection.choose(surface=state.surface.id)

    def _check(self) -> None:
        """A state that is gone is compared with no longer."""
        if self.compared.of and all(state.id != self.compared.of for state in self.desk.job.states):
            self.end()

    def _show(self, found: tuple[str, SurfacePicture]) -> None:
        id, done = found
        if id == self.compared.of:
            self.compared.show_picture(to_pixmaps(done.mips), (done.grid.width_mm, done.grid.height_mm))


def _name(job: Job, state: KeptState) -> str:
    """A state by its surface's name, as it is now where it still is there, and its own."""
    name = next((one.name for one in job.surfaces if one.id == state.surface.id), state.surface.name)
    return f"{name} · {state.name}"
