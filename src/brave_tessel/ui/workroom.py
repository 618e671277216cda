"""Work off the window's thread, and its results back in it."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable
from enum import Enum
from functools import partial
from typing import Any, Protocol

from PyQt6.QtCore import QObject, Qt, QTimer, pyqtSignal, pyqtSlot

from ..core.errors import CancelledError, MissingError
from ..engine.memory import give_back_freed_memory
from ..engine.session import Session
from ..engine.wording import sentence
from ..engine.workers import Current, Worker
from .words import tr

log = logging.getLogger(__name__)

STOPS = " · Esc stops"
Show = Callable[[Any], None]


REST_MS = 4000
"""How long nothing is asked for before memory that is kept at hand goes back to the system."""


class Send(Protocol):
    """Hands a result on. One that newer work has overtaken is dropped, unless it is to be seen ``anyway``."""

    def __call__(self, result: object, *, anyway: bool = False) -> None: ...


class Pace(Enum):
    """Who does a piece of work: what a person waits for, what takes long and gives way to it, or files."""

    QUICK = "quick"
    LONG = "long"
    FILES = "files"


class Workroom(QObject):
    """Three workers. Everything asked for ends exactly once, and nothing is lost of what goes wrong.

    What was asked while another job was open is an answer to nobody: its results are dropped, its end is told.
    """

    busy_changed = pyqtSignal(bool)
    told = pyqtSignal(str, str)
    """A sentence for the status line, and how it is meant."""
    _arrived = pyqtSignal(object)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        quick = Worker("quick")
        self.workers = {Pace.QUICK: quick, Pace.LONG: Worker("long", gives_way_to=quick), Pace.FILES: Worker("files")}
        self._open = 0
        self._idle = QTimer(self)
        self._idle.setSingleShot(True)
        self._idle.setInterval(REST_MS)
        self._idle.timeout.connect(self._give_back)
        self._arrived.connect(self._deliver, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]

    # Asking --------------------------------------------------------------------------------------

    def stream(
        self,
        channel: str,
        work: Callable[[Current, Send], None],
        show: Show,
        *,
        pace: Pace = Pace.QUICK,
        failed: Callable[[Exception], None] | None = None,
        ended: Callable[[], None] | None = None,
        behind: bool = False,
    ) -> None:
        """Do some work that hands on several results, coarse ones first; each is shown in the window's thread.

        What is asked for ``behind`` waits for all that is not. ``failed`` hears what went wrong (told in the status
        line as well), ``ended`` is called in any case, also when newer work in the channel has overtaken this.
        """
        era = self.session.era

        def send(result: object, *, current: Current, anyway: bool = False) -> None:
            if anyway or current():
                self.later(lambda: show(result) if self.session.era == era else None)

        def settled(error: Exception | None) -> None:
            self.later(partial(self._settle, error, failed if self.session.era == era else None, ended))

        self._count(+1)
        self.workers[pace].request(
            channel, lambda current: work(current, partial(send, current=current)), settled, behind=behind
        )

    def ask(
        self,
        channel: str,
        work: Callable[[Current], Any],
        then: Show,
        *,
        pace: Pace = Pace.QUICK,
        failed: Callable[[Exception], None] | None = None,
        ended: Callable[[], None] | None = None,
        behind: bool = False,
    ) -> None:
        """Do some work and hand its result on in the window's thread; see :meth:`stream`."""
        self.stream(
            channel,
            lambda current, send: send(work(current)),
            then,
            pace=pace,
            failed=failed,
            ended=ended,
            behind=behind,
        )

    def _settle(
        self, error: Exception | None, failed: Callable[[Exception], None] | None, ended: Callable[[], None] | None
    ) -> None:
        try:
            if error is not None and not isinstance(error, CancelledError):
                # Foreseen or not, it is told; what was not foreseen the worker has logged. That a picture is lost was
                # told by its name when the job was opened, and each picture that needs it would hide that sentence.
                if not self._known_lost(error):
                    self.told.emit(tr(sentence(error)), "fault")
                if failed is not None:
                    failed(error)
        finally:
            try:
                if ended is not None:
                    ended()
            finally:
                self._count(-1)

    def _known_lost(self, error: Exception) -> bool:
        return isinstance(error, MissingError) and self.session.is_lost(str(error.value))

    # Stopping ------------------------------------------------------------------------------------

    def cancel(self, *channels: str) -> None:
        """Overtake some channels with nothing, whichever worker serves them."""
        for channel in channels:
            for worker in self.workers.values():
                worker.cancel(channel)

    def stop_long(self) -> bool:
        """Overtake all that takes long; whether there was any."""
        long = self.workers[Pace.LONG]
        working = not long.idle
        long.cancel_all()
        return working

    def leave_job(self) -> None:
        """Another job is opened: what was asked of this one is wanted no more. Files go on."""
        self.workers[Pace.QUICK].cancel_all()
        self.workers[Pace.LONG].cancel_all()

    def close(self) -> None:
        """End every thread."""
        for worker in self.workers.values():
            worker.stop()

    # The window's thread -------------------------------------------------------------------------

    @property
    def idle(self) -> bool:
        """Whether nothing is asked for whose end has not been told."""
        return self._open == 0

    def later(self, deliver: Callable[[], object]) -> None:
        """Run something in the window's thread."""
        self._arrived.emit(deliver)

    @pyqtSlot(object)
    def _deliver(self, deliver: Callable[[], object]) -> None:
        deliver()

    def _count(self, by: int) -> None:
        """Called in the window's thread only, once for a request and once for its end."""
        before = self._open > 0
        self._open += by
        if (self._open > 0) != before:
            self.busy_changed.emit(self._open > 0)
            # What the next picture would use is kept at hand while a hand is at work, not for good.
            if self._open:
                self._idle.stop()
            else:
                self._idle.start()

    def _give_back(self) -> None:
        self.workers[Pace.FILES].request("memory", lambda _current: _trimmed())

    def progress(self) -> Callable[[str], None]:
        """Says what is going on once it has gone on for half a second."""
        begun = time.monotonic()

        def told(what: str) -> None:
            if time.monotonic() - begun > 0.5:
                self.later(lambda: self.told.emit(f"{what}{STOPS}", "progress"))

        return told


def _trimmed() -> None:
    give_back_freed_memory()
