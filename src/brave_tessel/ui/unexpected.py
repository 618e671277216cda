"""What nobody foresaw: logged, told in one place, and the work goes on."""

from __future__ import annotations

import logging
import sys
import threading
from logging.handlers import RotatingFileHandler
from pathlib import Path
from types import TracebackType
from typing import Any

from PyQt6.QtCore import QObject, Qt, pyqtSignal

from ..engine.session import Session
from ..engine.wording import sentence
from .words import tr

log = logging.getLogger(__name__)
LOG_NAME = "brave-tessel.log"
_LOG_BYTES = 1 << 20


def keep_log(folder: Path) -> None:
    """Write what is logged to a file that stays small; without a place for it the log goes on elsewhere."""
    try:
        folder.mkdir(parents=True, exist_ok=True)
        handler = RotatingFileHandler(folder / LOG_NAME, maxBytes=_LOG_BYTES, backupCount=1, encoding="utf-8")
    except OSError:
        return
    handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(name)s: %(message)s"))
    logging.getLogger().addHandler(handler)


class Unexpected(QObject):
    """Takes over what no one catches, in any thread. ``met`` carries the error into the window's thread.

    Without this the toolkit ends the process at the first mistake in a reaction to a click.
    """

    met = pyqtSignal(object)

    def __init__(self, session: Session, tell: Any) -> None:
        super().__init__()
        self.session, self.tell = session, tell
        self._before = sys.excepthook, threading.excepthook
        self._telling = False
        self.met.connect(self._told, type=Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]

    def install(self) -> None:
        """From now on."""
        sys.excepthook = self._caught
        threading.excepthook = self._caught_in_thread

    def remove(self) -> None:
        """As it was before."""
        sys.excepthook, threading.excepthook = self._before

    def _caught(self, kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        if issubclass(kind, KeyboardInterrupt):
            self._before[0](kind, error, trace)
            return
        log.error("unexpected", exc_info=(kind, error, trace))
        self.met.emit(error)

    def _caught_in_thread(self, found: threading.ExceptHookArgs) -> None:
        if found.exc_value is not None and not isinstance(found.exc_value, SystemExit):
            self._caught(found.exc_type, found.exc_value, found.exc_traceback)

    def _told(self, error: BaseException) -> None:
        """Say it once, and see that the job is safe."""
        if self._telling:
            return
        self._telling = True
        try:
            if self.session.journal is not None:
                self.session.journal.note(self.session.job)
            self.tell(tr(sentence(error)), "fault")
        finally:
            self._telling = False
