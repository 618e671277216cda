"""Which job files are open, so that two windows on one job know of each other."""

from __future__ import annotations

import contextlib
import os
from pathlib import Path

from filelock import FileLock, Timeout

from ..formats.job_file import blob_name


class OpenFile:
    """Says for as long as a job is open that it is. The lock is the system's: it goes with the process."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder / "open"
        self._lock: FileLock | None = None

    def take(self, path: Path | None) -> bool:
        """Another job is open now, and only that; whether it is open nowhere else."""
        self.let_go()
        if path is None:
            return True
        lock = FileLock(self.folder / f"{blob_name(os.fsencode(os.path.realpath(path)))}.lock", thread_local=False)
        try:
            self.folder.mkdir(parents=True, exist_ok=True)
            lock.acquire(timeout=0)
        except Timeout:
            return False
        except OSError:
            return True  # without a place for locks nothing can be known
        self._lock = lock
        return True

    def let_go(self) -> None:
        """The job is no longer open here."""
        if self._lock is not None:
            with contextlib.suppress(OSError):
                Path(self._lock.lock_file).unlink(missing_ok=True)
            self._lock.release(force=True)
            self._lock = None
