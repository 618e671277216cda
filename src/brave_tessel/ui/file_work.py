"""Opening and saving off the window's thread."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from pathlib import Path

from ..core.errors import ChangedOnDiskError
from ..core.job.commands import AnyCommand
from ..core.job.document import Source
from ..engine.intents.sources import add_source
from ..engine.session import Session, write_job
from ..formats.disk import shortened
from ..formats.job_file import OpenedJob, load_job, user_of
from .words import tr
from .workroom import Pace, Workroom

Done = Callable[[], None]


class FileWork:
    """Whatever waits for a disk. The job written is the one at the time of asking, whole; work goes on meanwhile."""

    def __init__(self, session: Session, work: Workroom, tell: Callable[..., None]) -> None:
        self.session = session
        self.work = work
        self.tell = tell
        self._own: dict[Path, str] = {}
        """Stamps of what was written here, known before the window hears of it: saves may follow each other closely."""

    def save(
        self, path: Path, *, then: Done | None = None, changed: Done | None = None, overwrite: bool = False
    ) -> None:
        """Save; on failure it is told and the job stays unsaved. Where something else has written the file since it
        was read, ``changed`` is called and the file is left alone, unless it is to be overwritten.
        """
        path = path.with_name(shortened(path.name))
        session = self.session
        snapshot, previews, lost = session.snapshot(), dict(session.previews), session.lost
        asked = session.expected(path)

        def write(_current: object) -> str:
            expected = "" if overwrite else self._own.get(path, asked) if asked else ""
            self._own[path] = stamp = write_job(snapshot, path, previews, lost=lost, expected=expected)
            return stamp

        def saved(stamp: str) -> None:
            session.mark_saved(snapshot, path, stamp)
            self.tell(tr("Saved {name}.", name=path.name))
            if then is not None:
                then()

        def failed(error: BaseException) -> None:
            if isinstance(error, ChangedOnDiskError) and changed is not None:
                changed()

        self.work.ask("save", write, saved, pace=Pace.FILES, failed=failed)

    def open(self, path: Path, *, then: Done | None = None, failed: Done | None = None) -> None:
        """Open a job in place of the present one; what cannot be opened is told and leaves that alone."""
        self.adopt(lambda: load_job(path), path, then=then, failed=failed)

    def adopt(
        self, make: Callable[[], OpenedJob], path: Path | None, *, then: Done | None = None, failed: Done | None = None
    ) -> None:
        """Make or read a job and take it over when it is ready."""

        def take(opened: OpenedJob) -> None:
            self._own.clear()
            self.session.adopt(opened, path)
            if then is not None:
                then()
            self._tell_of(opened, path)

        self.work.ask(
            "open",
            lambda _current: make(),
            take,
            pace=Pace.FILES,
            failed=None if failed is None else lambda _error: failed(),
        )

    def _tell_of(self, opened: OpenedJob, path: Path | None) -> None:
        """What a person should know of a job that was opened."""
        if opened.lost:
            names = sorted({user_of(opened.job, name) for name in opened.lost})
            told = "Damaged or missing in the file: {names}. Add it again; all else is as it was."
            self.tell(tr(told, names=", ".join(names)), "caution")
        elif not self.session.alone and path is not None:
            told = "{name} is open in another window too. Saving will ask if the other has saved."
            self.tell(tr(told, name=path.name), "caution")

    @staticmethod
    def added(sources: Iterable[object]) -> Iterator[tuple[AnyCommand, Source]]:
        """The commands that add sources that were read."""
        for source in sources:
            assert isinstance(source, Source)
            yield add_source(source), source
