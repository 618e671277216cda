"""Opening and saving off the window's thread."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from pathlib import Path

from ..core.job.commands import AnyCommand
from ..core.job.document import Source
from ..engine.intents.sources import add_source
from ..engine.session import Session, write_job
from ..formats.job_file import OpenedJob, load_job
from .words import tr
from .workroom import Pace, Workroom

Done = Callable[[], None]


class FileWork:
    """Whatever waits for a disk. The job written is the one at the time of asking, whole; work goes on meanwhile."""

    def __init__(self, session: Session, work: Workroom, tell: Callable[..., None]) -> None:
        self.session = session
        self.work = work
        self.tell = tell

    def save(self, path: Path, *, then: Done | None = None) -> None:
        """Save; on failure it is told and the job stays unsaved."""
        snapshot, previews = self.session.snapshot(), dict(self.session.previews)

        def saved(_nothing: object) -> None:
            self.session.mark_saved(snapshot, path)
            self.tell(tr("Saved {name}.", name=path.name))
            if then is not None:
                then()

        self.work.ask("save", lambda _current: write_job(snapshot, path, previews), saved, pace=Pace.FILES)

    def open(self, path: Path, *, then: Done | None = None, failed: Done | None = None) -> None:
        """Open a job in place of the present one; what cannot be opened is told and leaves that alone."""
        self.adopt(lambda: load_job(path), path, then=then, failed=failed)

    def adopt(
        self, make: Callable[[], OpenedJob], path: Path | None, *, then: Done | None = None, failed: Done | None = None
    ) -> None:
        """Make or read a job and take it over when it is ready."""

        def take(opened: OpenedJob) -> None:
            self.session.adopt(opened, path)
            if then is not None:
                then()

        self.work.ask(
            "open",
            lambda _current: make(),
            take,
            pace=Pace.FILES,
            failed=None if failed is None else lambda _error: failed(),
        )

    @staticmethod
    def added(sources: Iterable[object]) -> Iterator[tuple[AnyCommand, Source]]:
        """The commands that add sources that were read."""
        for source in sources:
            assert isinstance(source, Source)
            yield add_source(source), source
