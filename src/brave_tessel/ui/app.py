"""Starts the application."""

from __future__ import annotations

import logging
import os
import sys
import threading
from pathlib import Path

from PyQt6.QtCore import QCoreApplication
from PyQt6.QtWidgets import QApplication, QMessageBox

from ..core.errors import TesselError
from ..engine.journal import Recovered, forget, recover, recoverable, set_aside
from ..engine.session import Session, state_folder
from ..engine.warm import warm_kernels
from ..formats.job_file import OpenedJob, user_of
from ..formats.limited import end_readers
from . import theme
from .tidying import Tidying
from .unexpected import Unexpected, keep_log
from .window import Window
from .words import speak, tr


def make_app(*, lamp: bool | None = None, scale: float | None = None) -> QApplication:
    """The application with its face; one a process."""
    existing = QCoreApplication.instance()
    app = existing if isinstance(existing, QApplication) else QApplication(sys.argv[:1])
    app.setApplicationName("Brave Tessel")
    if app.findChild(Tidying) is None:
        Tidying(app)
    theme.apply(
        app,
        lamp=theme.prefers_lamp() if lamp is None else lamp,
        scale=theme.desktop_scale() if scale is None else scale,
    )
    return app


def warm_up() -> None:
    """Compile or load every kernel in the background, so that the first change is as quick as the next."""
    threading.Thread(target=warm_kernels, name="warm", daemon=True).start()


def offer_recovery(window: Window) -> None:
    """After a crash, offer the newest job that was not saved; what is not taken now is offered again.

    What cannot be read is set aside, never thrown away.
    """
    for journal in recoverable(state_folder()):
        try:
            found = recover(journal)
        except (TesselError, OSError):
            found = None
        if found is None:
            kept = set_aside(journal)
            window.desk.tell(tr("Unsaved work could not be read and was set aside: {kept}.", kept=kept), "caution")
            continue
        if _wanted(window, found):
            _take_over(window, found)
        return


def _wanted(window: Window, found: Recovered) -> bool:
    buttons = QMessageBox.StandardButton
    answer = QMessageBox.question(
        window,
        tr("Recovered work"),
        tr(
            "“{name}” was not closed properly. Open what was recovered?\nIf not, it is offered again the next time.",
            name=found.job.name,
        ),
        buttons.Yes | buttons.No,
    )
    return answer == buttons.Yes


def _take_over(window: Window, found: Recovered) -> None:
    """Open recovered work as unsaved. Its journal goes once this session's own holds all of it."""
    session = window.desk.session
    origin = Path(found.origin) if found.origin else None
    session.adopt(OpenedJob(found.job, found.blobs), origin, saved=False)
    if session.journal is None or session.journal.flush():
        forget(found.journal)
    if found.missing:
        name = user_of(found.job, found.missing[0])
        window.desk.tell(
            tr("The picture of {name} could not be recovered; add it again before saving.", name=name), "caution"
        )


def run(path: Path | None = None, *, opened: OpenedJob | None = None, stage: str = "") -> int:
    """Open the window and serve it until it closes."""
    logging.basicConfig(level=os.environ.get("BRAVE_TESSEL_LOG", "WARNING"))
    app = make_app()
    speak(app)
    session = Session(opened, journal=True)
    window = Window(session)
    keep_log(state_folder())
    unexpected = Unexpected(session, window.desk.tell)
    unexpected.install()
    window.show()
    warm_up()
    offer_recovery(window)
    if path is not None:
        # Recovered work is not thrown away unasked.
        window.leave_then(lambda: window.open_job(path))
    if stage:
        window.desk.go(stage)
    code = app.exec()
    unexpected.remove()
    end_readers()
    return code
