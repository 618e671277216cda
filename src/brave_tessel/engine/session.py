"""One open job with its kept files, its cache and its journal. Knows nothing of windows."""

from __future__ import annotations

import os
import time
from collections.abc import Mapping
from pathlib import Path

from ..core.errors import ChangedOnDiskError
from ..core.job.document import Job
from ..formats.job_file import NO_PREVIEWS, OpenedJob, Preview, load_job, save_job, stamp_of
from .cache import Cache
from .gather.intake import Intake
from .journal import Journal
from .kept import KeptFiles
from .open_files import OpenFile
from .place.shelf import ModelShelf
from .snapshot import Snapshot
from .store import Store


def state_folder() -> Path:
    """Where journals lie: ``$XDG_STATE_HOME/brave-tessel``."""
    base = os.environ.get("XDG_STATE_HOME") or str(Path.home() / ".local" / "state")
    return Path(base) / "brave-tessel"


class Session:
    """The open job. Readers take a :meth:`snapshot`; changes go through ``store``; bytes come in by an :meth:`intake`.

    ``era`` counts the jobs that were open here: what was asked in an earlier era is an answer to nobody.
    """

    def __init__(
        self, opened: OpenedJob | None = None, *, cache: Cache | None = None, journal: bool = False, saved: bool = True
    ) -> None:
        opened = opened or OpenedJob(Job())
        self.store = Store(opened.job, saved=saved)
        self.cache = cache or Cache()
        self.models = ModelShelf()
        self.path: Path | None = None
        self.saved_at: float | None = None
        self.era = 0
        self.journal = Journal(state_folder()) if journal else None
        self.kept = self._keeping(opened)
        self.previews = dict(opened.previews)
        self.lost, self.stamp = opened.lost, ""
        self.alone = True
        self._open_file = OpenFile(state_folder())
        if self.journal:
            self.journal.begin(opened.job, "", opened.blobs)
            self.store.subscribe(lambda job: job, self.journal.note)

    def _keeping(self, opened: OpenedJob) -> KeptFiles:
        return KeptFiles(opened.blobs, safeguard=self.journal.keep_blob if self.journal else None)

    @property
    def job(self) -> Job:
        """The job as it is now; work that takes time is given a snapshot instead."""
        return self.store.job

    def snapshot(self) -> Snapshot:
        """The job and its kept bytes as they are now, for one reader."""
        return Snapshot(self.store.job, self.kept.view, self.cache, self.models)

    def intake(self) -> Intake:
        """The way for bytes to be kept with this job, from any thread."""
        return Intake(self.kept, self.cache)

    def is_lost(self, blob: str) -> bool:
        """Whether a stored file was gone when the job was opened, and has not been added again."""
        return blob in self.lost and blob not in self.kept.view

    # Files ---------------------------------------------------------------------------------------

    def open(self, path: Path) -> None:
        """Open a job file in place of the current job."""
        self.adopt(load_job(path), path)

    def adopt(self, opened: OpenedJob, path: Path | None, *, saved: bool = True) -> None:
        """Take over a job that is already read."""
        self.era += 1
        self.kept = self._keeping(opened)
        self.models = ModelShelf()
        self.previews = dict(opened.previews)
        self.path = path
        self.lost, self.stamp = opened.lost, opened.stamp
        self.alone = self._open_file.take(path)
        self.saved_at = time.time() if saved and path else None
        if self.journal:
            self.journal.begin(opened.job, str(path or ""), opened.blobs)
        self.store.replace(opened.job, saved=saved)

    def save(self, path: Path) -> None:
        """Write the job file; on failure nothing is lost and the job stays unsaved."""
        snapshot = self.snapshot()
        stamp = write_job(snapshot, path, self.previews, lost=self.lost, expected=self.expected(path))
        self.mark_saved(snapshot, path, stamp)

    def expected(self, path: Path) -> str:
        """The stamp that a file should still have when it is saved over; empty where that does not matter."""
        return self.stamp if path == self.path else ""

    def mark_saved(self, snapshot: Snapshot, path: Path, stamp: str = "") -> None:
        """A snapshot has been written; what was changed since is still unsaved."""
        if path != self.path:
            self.alone = self._open_file.take(path)
        self.path, self.stamp = path, stamp
        self.saved_at = time.time()
        self.store.mark_saved(snapshot.job)
        if self.journal:
            self.journal.begin(snapshot.job, str(path), snapshot.blobs)
            self.journal.note(self.store.job)

    def close(self) -> None:
        """A clean end."""
        self._open_file.let_go()
        if self.journal:
            self.journal.close()


def write_job(
    snapshot: Snapshot,
    path: Path,
    previews: Mapping[str, Preview] = NO_PREVIEWS,
    *,
    lost: frozenset[str] = frozenset(),
    expected: str = "",
) -> str:
    """Write a snapshot's job file, from any thread; returns the file's stamp.

    ``lost`` names stored files that were gone when it was opened; ``expected`` is the stamp of the file that it may
    take the place of.

    Raises
    ------
    CannotWriteError
        when the disk is full or the place may not be written; the old file is then untouched.
    MissingError
        when bytes the job refers to are not there; the old file is then untouched.
    ChangedOnDiskError
        when something else has written the file since; it is then untouched.
    """
    if expected and path.exists() and stamp_of(path) != expected:
        raise ChangedOnDiskError(path.name)
    return save_job(path, snapshot.job, snapshot.blobs, previews, lost=lost)
