"""Watches linked files and takes over what changed."""

from __future__ import annotations

import time
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject, QTimer

from ..core.errors import TesselError
from ..core.job.commands import AnyCommand
from ..engine.gather.links import Linked, LinkWatch, linked_files, missing_files, reread
from ..engine.wording import sentence

if TYPE_CHECKING:
    from .desk import Desk

POLL_MS = 700
BADGE_S = 20.0
"""How long a badge says that a source was read again."""


class LinkFollower(QObject):
    """Looks at the files from time to time; reads them off the window's thread."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.desk = desk
        self.watch = LinkWatch()
        self.refreshed: dict[str, float] = {}
        self._missing = 0
        self.timer = QTimer(self)
        self.timer.setInterval(POLL_MS)
        self.timer.timeout.connect(self.look)
        self.timer.start()

    def look(self) -> None:
        """Read what changed and was left alone since."""
        job = self.desk.job
        changed = self.watch.changed(job)
        if changed:
            self._read(changed)
        gone = len(missing_files(job))
        if gone > self._missing:
            self.desk.tell("A linked file is missing; its last pixels are used. Find it again in Gather.", "caution")
        stale = [name for name, when in self.refreshed.items() if time.monotonic() - when > BADGE_S]
        for name in stale:
            del self.refreshed[name]
        if gone != self._missing or stale:
            self._missing = gone
            self.desk.job_changed.emit(job)

    def read_now(self, paths: set[str]) -> None:
        """Read some followed files again at once."""
        self._read([link for link in linked_files(self.desk.job) if link.path in paths])

    def _read(self, links: list[Linked]) -> None:
        session = self.desk.session
        self.desk.ask("links", lambda _current: reread(session, links), self._take_over)

    def _take_over(self, done: tuple[AnyCommand | None, list[str], list[TesselError]]) -> None:
        command, names, troubles = done
        if command is not None:
            for name in names:
                self.refreshed[name] = time.monotonic()
            if self.desk.dispatch(command):
                self.desk.tell(f"{', '.join(names)} read again from {'their files' if len(names) > 1 else 'its file'}.")
        if troubles:
            self.desk.tell(sentence(troubles[-1]), "fault")

    def badge(self, name: str) -> str:
        """What a row says of a source that was just read again."""
        return "read again · " if name in self.refreshed else ""

    def stop(self) -> None:
        self.timer.stop()
