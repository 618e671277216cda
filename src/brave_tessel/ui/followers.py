"""Takes over what changed in linked files."""

from __future__ import annotations

import time
from collections.abc import Callable

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ..core.errors import TesselError
from ..core.job.commands import AnyCommand
from ..core.job.document import Job, Source
from ..engine.gather.file_watch import FileWatch
from ..engine.gather.links import Linked, Reread, linked_files, missing_files, reread, take_over
from ..engine.session import Session
from ..engine.wording import sentence
from .words import tr, tr_count
from .workroom import Pace, Workroom

BADGE_S = 20.0
"""How long a badge says that a source was read again."""


class LinkFollower(QObject):
    """The files are watched and read off the window's thread; only the taking over is done in it.

    ``badges_changed`` says that rows of sources read otherwise now.
    """

    badges_changed = pyqtSignal()

    def __init__(
        self, session: Session, work: Workroom, dispatch: Callable[[AnyCommand], bool], tell: Callable[..., None]
    ) -> None:
        super().__init__()
        self.session, self.work, self.dispatch, self.tell = session, work, dispatch, tell
        self.refreshed: dict[str, float] = {}
        self.gone: frozenset[Linked] = frozenset()
        self.watch = FileWatch(lambda paths: work.later(lambda: self._changed(paths)))
        self._fading = QTimer(self)
        self._fading.setSingleShot(True)
        self._fading.timeout.connect(self._fade)
        session.store.subscribe(lambda job: job.sources, lambda _sources: self.follow(session.job))

    def follow(self, job: Job) -> None:
        """Watch the files that a job follows now. One that is new may have changed while nobody looked."""
        paths = {link.path for link in linked_files(job)}
        fresh = paths - self.watch.paths
        self.watch.follow(paths)
        if fresh:
            self.read_now(fresh)
        elif not paths:
            self.gone = frozenset()

    def look(self) -> None:
        """Look at every followed file now: some disks do not tell of changes."""
        self.read_now({link.path for link in linked_files(self.session.job)})

    def _changed(self, paths: set[str]) -> None:
        self.read_now(paths)

    def read_now(self, paths: set[str]) -> None:
        """Read some followed files again."""
        job, intake = self.session.job, self.session.intake()
        links = [link for link in linked_files(job) if link.path in paths]

        def work(_current: object) -> tuple[list[Reread], list[TesselError], list[Linked]]:
            gone = missing_files(job)
            there = [link for link in links if link not in gone]
            return (*reread(intake, there), gone)

        self.work.ask("links", work, lambda done: self._take_over(*done), pace=Pace.FILES)

    def _take_over(self, read: list[Reread], troubles: list[TesselError], gone: list[Linked]) -> None:
        # Made from the sources as they are now: what was changed while the files were read stays.
        command, names = take_over(self.session.job, read)
        if command is not None and self.dispatch(command):
            for name in names:
                self.refreshed[name] = time.monotonic()
            told = "{names} read again from its file.", "{names} read again from their files."
            self.tell(tr_count(len(names), *told, names=", ".join(names)))
            self._fading.start(int(BADGE_S * 1000) + 50)
        if len(gone) > len(self.gone):
            self.tell(tr("A linked file is missing; its last pixels are used. Find it again in Gather."), "caution")
        self.gone = frozenset(gone)
        if troubles:
            self.tell(tr(sentence(troubles[-1])), "fault")
        self.badges_changed.emit()

    def _fade(self) -> None:
        now = time.monotonic()
        self.refreshed = {name: when for name, when in self.refreshed.items() if now - when < BADGE_S}
        self.badges_changed.emit()

    def lost(self, source: Source) -> bool:
        """Whether a file that a source follows was not there when last looked for, or bytes kept of it are gone."""
        kept = {source.blob, *(picture.blob for picture in source.pictures)}
        return any(link.source == source.id for link in self.gone) or any(map(self.session.is_lost, kept))

    def badge(self, name: str) -> str:
        """What a row says of a source that was just read again."""
        return tr("read again · ") if name in self.refreshed else ""

    def stop(self) -> None:
        """Watch nothing any more."""
        self._fading.stop()
        self.watch.stop()
