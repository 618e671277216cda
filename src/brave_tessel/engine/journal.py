"""Between saves, changed entities are appended as checksummed lines; what is torn or damaged costs only itself."""

from __future__ import annotations

import contextlib
import logging
import os
import secrets
import threading
import time
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from pathlib import Path

from filelock import FileLock, Timeout

from ..core.job.document import Job
from ..formats.disk import write_atomically
from ..formats.job_file import blob_name, used_blobs
from .journal_lines import Record, differences, head_line, line_of, replay

log = logging.getLogger(__name__)

SETTLE_S = 1.0
"""Changes are gathered for so long before they are written: a drag or a stroke is one entry, or a few."""

Trouble = Callable[[str], None]


@dataclass(frozen=True, slots=True)
class _Begin:
    job: Job
    path: str
    blobs: Mapping[str, bytes]


class Journal:
    """Written in a thread of its own, at most ``SETTLE_S`` after a change; then it is on the disk.

    Nothing waits in a queue: what is not written yet is one job, the latest. ``trouble`` is told once, in the
    journal's thread, when writing fails, with an empty text when it works again.
    """

    def __init__(self, folder: Path, *, trouble: Trouble | None = None) -> None:
        self.folder = folder
        self.trouble = trouble
        self.name = secrets.token_hex(8)
        self.segment = 0
        self.troubled = False
        self._lock_file: FileLock | None = None
        self._written: Job | None = None
        self._path = ""
        self._begin: _Begin | None = None
        self._pending: Job | None = None
        self._since = 0.0
        self._hurry = False
        self._closing = False
        self._idle = True
        self._wake = threading.Condition()
        self._thread = threading.Thread(target=self._serve, name="journal", daemon=True)
        self._thread.start()

    @property
    def path(self) -> Path:
        """The segment being written."""
        return self.folder / f"{self.name}-{self.segment}.journal"

    # What the session says -----------------------------------------------------------------------

    def begin(self, job: Job, path: str, blobs: Mapping[str, bytes]) -> None:
        """Start afresh from a job as it was opened, saved or made."""
        with self._wake:
            self._begin, self._pending = _Begin(job, path, blobs), None
            self._idle = False
            self._wake.notify_all()

    def note(self, job: Job) -> None:
        """The job is now this one."""
        with self._wake:
            if self._pending is None:
                self._since = time.monotonic()
            self._pending = job
            self._idle = False
            self._wake.notify_all()

    def keep_blob(self, name: str, data: bytes) -> None:
        """Put a file's bytes beside the journal, whole or not at all; returns once they are there."""
        target = self.folder / "blobs" / name
        if not target.exists():
            try:
                write_atomically(target, data)
            except Exception as error:  # noqa: BLE001 - a full disk must not stop the work; it is told once
                self._fails(error)

    def flush(self, seconds: float = 10.0) -> bool:
        """Wait until everything noted is on the disk; whether it came to that."""
        with self._wake:
            self._hurry = True
            self._wake.notify_all()
            done = self._wake.wait_for(lambda: self._idle, seconds)
            self._hurry = False
            return done

    def close(self) -> None:
        """A clean end: nothing to recover, nothing left lying about."""
        self.flush()
        with self._wake:
            self._closing = True
            self._wake.notify_all()
        self._thread.join(10)
        for segment in range(self.segment + 1):
            with contextlib.suppress(OSError):
                (self.folder / f"{self.name}-{segment}.journal").unlink(missing_ok=True)
        self._let_go()
        sweep(self.folder)

    # The thread ----------------------------------------------------------------------------------

    def _serve(self) -> None:
        while True:
            with self._wake:
                self._wake.wait_for(lambda: self._closing or self._begin is not None or self._pending is not None)
                if self._closing:
                    return
                if self._begin is None:
                    left = self._since + SETTLE_S - time.monotonic()
                    self._wake.wait_for(lambda: self._closing or self._hurry or self._begin is not None, max(0, left))
                begin, self._begin = self._begin, None
                pending, self._pending = self._pending, None
            self._carry_out(begin, pending)
            with self._wake:
                self._idle = self._begin is None and self._pending is None
                self._wake.notify_all()

    def _carry_out(self, begin: _Begin | None, pending: Job | None) -> None:
        try:
            if begin is not None:
                self._start(begin)
            if pending is not None:
                self._append(pending)
        except Exception as error:  # noqa: BLE001 - the journal goes on; the next change tries again
            self._fails(error)
            # What could not be written is written with the next change, from a fresh head.
            self._written = None
            return
        if self.troubled:
            self.troubled = False
            self._tell("")

    def _start(self, begin: _Begin) -> None:
        self._path = begin.path
        for name in used_blobs(begin.job):
            if name in begin.blobs:
                self.keep_blob(name, begin.blobs[name])
        self._write_head(begin.job)

    def _write_head(self, job: Job) -> None:
        """Begin a segment. The one before goes only when this one is on the disk: there is always one that is whole."""
        self._hold()
        before = self.path
        self.segment += 1
        # Twice: a damaged bit in the one leaves the other.
        self._put(head_line(job, self._path) * 2, fresh=True)
        with contextlib.suppress(OSError):
            before.unlink(missing_ok=True)
        self._written = job

    def _append(self, job: Job) -> None:
        if self._written is None:
            self._write_head(job)
            return
        records: list[Record] = differences(self._written, job)
        if records:
            self._put(line_of(records), fresh=False)
        self._written = job

    def _put(self, data: bytes, *, fresh: bool) -> None:
        self.folder.mkdir(parents=True, exist_ok=True)
        with self.path.open("wb" if fresh else "ab") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())

    def _hold(self) -> None:
        """Hold the lock that says that this session still runs."""
        if self._lock_file is None:
            self.folder.mkdir(parents=True, exist_ok=True)
            self._lock_file = FileLock(_lock_of(self.folder, self.name), timeout=0, thread_local=False)
            self._lock_file.acquire()

    def _let_go(self) -> None:
        if self._lock_file is not None:
            self._lock_file.release(force=True)
            with contextlib.suppress(OSError):
                Path(self._lock_file.lock_file).unlink(missing_ok=True)
            self._lock_file = None

    def _fails(self, error: Exception) -> None:
        if not self.troubled:
            log.warning("the journal could not be written: %s", error)
            self.troubled = True
            self._tell(getattr(error, "strerror", None) or str(error) or type(error).__name__)

    def _tell(self, text: str) -> None:
        if self.trouble is not None:
            self.trouble(text)


# After a crash ---------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class Recovered:
    """What a left-over journal tells: the job, where it came from, its bytes, and what is missing of them."""

    journal: Path
    job: Job
    origin: str
    blobs: dict[str, bytes]
    missing: tuple[str, ...] = ()


def recoverable(folder: Path) -> list[Path]:
    """Journals left by sessions that no longer run, newest first."""
    left = [path for path in folder.glob("*.journal") if not _running(folder, path)]
    return sorted(left, key=lambda path: path.stat().st_mtime, reverse=True)


def recover(path: Path) -> Recovered | None:
    """The job of a left-over journal; None where nothing can be made of it.

    Raises
    ------
    NewerJobError
        when a later version wrote it.
    """
    found = replay(path.read_bytes())
    if found is None:
        return None
    job, origin = found
    blobs: dict[str, bytes] = {}
    missing = []
    for name in sorted(used_blobs(job)):
        stored = path.parent / "blobs" / name
        data = stored.read_bytes() if stored.is_file() else b""
        if data and blob_name(data) == name:
            blobs[name] = data
        else:
            missing.append(name)
    return Recovered(path, job, origin, blobs, tuple(missing))


def set_aside(path: Path) -> Path:
    """Move a journal that cannot be read where it is not offered again; returns its new place."""
    kept = path.with_suffix(".unread")
    path.replace(kept)
    return kept


def forget(path: Path) -> None:
    """A journal is of no more use: what it held has been saved or taken over."""
    for segment in path.parent.glob(f"{_session_of(path)}-*.journal"):
        segment.unlink(missing_ok=True)
    path.unlink(missing_ok=True)
    sweep(path.parent)


def sweep(folder: Path) -> None:
    """Take away kept bytes once no journal is left that may want them, and locks that nobody holds."""
    for lock in folder.glob("*.lock"):
        if not any(folder.glob(f"{lock.stem}-*.journal")) and not _locked(lock):
            lock.unlink(missing_ok=True)
    if any(folder.glob("*.journal")) or any(folder.glob("*.unread")) or any(folder.glob("*.lock")):
        return
    for blob in (folder / "blobs").glob("*"):
        with contextlib.suppress(OSError):
            blob.unlink()


def _lock_of(folder: Path, name: str) -> Path:
    return folder / f"{name}.lock"


def _session_of(path: Path) -> str:
    return path.stem.rpartition("-")[0] or path.stem


def _running(folder: Path, path: Path) -> bool:
    return _locked(_lock_of(folder, _session_of(path)))


def _locked(lock: Path) -> bool:
    if not lock.exists():
        return False
    try:
        with FileLock(lock, timeout=0):
            return False
    except (Timeout, OSError):
        return True
