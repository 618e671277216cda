"""Starts the application."""

from __future__ import annotations

import logging
import os
import sys
import threading
from pathlib import Path

from PyQt6.QtCore import QCoreApplication
from PyQt6.QtWidgets import QApplication, QMessageBox

from ..engine.journal import recover, recoverable
from ..engine.session import Session, state_folder
from ..formats.job_file import OpenedJob
from . import theme
from .tidying import Tidying
from .window import Window


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
    from ..engine.warm import warm_kernels

    threading.Thread(target=warm_kernels, name="warm", daemon=True).start()


def offer_recovery(window: Window) -> None:
    """After a crash, offer the newest job that was not saved."""
    for journal in recoverable(state_folder()):
        found = recover(journal)
        if found is None:
            journal.unlink(missing_ok=True)
            continue
        job, origin, blobs = found
        buttons = QMessageBox.StandardButton
        answer = QMessageBox.question(
            window,
            "Recovered work",
            f"“{job.name}” was not closed properly. Open what was recovered?",
            buttons.Yes | buttons.No,
        )
        if answer == buttons.Yes:
            window.desk.session.adopt(OpenedJob(job, blobs), Path(origin) if origin else None, saved=False)
        journal.unlink(missing_ok=True)
        return


def run(path: Path | None = None, *, opened: OpenedJob | None = None, stage: str = "") -> int:
    """Open the window and serve it until it closes."""
    logging.basicConfig(level=os.environ.get("BRAVE_TESSEL_LOG", "WARNING"))
    app = make_app()
    session = Session(opened, journal=True)
    window = Window(session)
    window.show()
    warm_up()
    offer_recovery(window)
    if path is not None:
        window.open_job(path)
    if stage:
        window.desk.go(stage)
    return app.exec()
