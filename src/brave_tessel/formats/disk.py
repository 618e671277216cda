"""Files written whole or not at all."""

from __future__ import annotations

import contextlib
import errno
import os
from pathlib import Path

from ..core.errors import CannotWriteError


def write_atomically(path: Path, data: bytes) -> None:
    """Replace a file in one step: temporary beside it, flushed to disk, renamed.

    Raises
    ------
    CannotWriteError
        when the disk is full or the place may not be written; the old file is then untouched.
    """
    temporary = path.with_name(f".{path.name}.{os.getpid()}.tmp")
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        with temporary.open("wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        os.replace(temporary, path)
    except OSError as error:
        with contextlib.suppress(OSError):
            temporary.unlink(missing_ok=True)
        raise cannot_write(path, error) from error


def cannot_write(path: Path, error: OSError) -> CannotWriteError:
    """The typed error of a failed write."""
    full = error.errno in {errno.ENOSPC, errno.EDQUOT}
    remedy = "Free some space or choose another disk." if full else "Choose another folder."
    return CannotWriteError(path.name, value="the disk is full" if full else error.strerror, remedy=remedy)
