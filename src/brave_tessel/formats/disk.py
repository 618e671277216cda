"""Files written whole or not at all."""

from __future__ import annotations

import contextlib
import errno
import os
import secrets
import stat
import time
from collections.abc import Iterator
from pathlib import Path

from ..core.errors import CannotWriteError

_UNFINISHED = ".brave-tessel-{}.tmp"
_STALE_S = 600.0
"""What is unfinished for so long was left by a process that is gone."""
MOST_NAME_BYTES = 240
"""Longest name of a file; most file systems allow 255 bytes."""


def write_atomically(path: Path, data: bytes) -> None:
    """Replace a file in one step: written aside without a name, flushed to disk, renamed.

    A link keeps pointing where it did: what it points to is replaced. The file keeps its mode, and its owner where that
    is allowed. A name that is too long is shortened.

    Raises
    ------
    CannotWriteError
        when the disk is full or the place may not be written; the old file is then untouched.
    """
    target = Path(os.path.realpath(path.with_name(shortened(path.name))))
    aside = target.with_name(_UNFINISHED.format(secrets.token_hex(6)))
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        with _nameless(target.parent, aside) as descriptor:
            _keep_traits(descriptor, target)
            _write_all(descriptor, data)
            os.fsync(descriptor)
            if not aside.exists():
                _give_name(descriptor, aside)
        os.replace(aside, target)
    except OSError as error:
        with contextlib.suppress(OSError):
            aside.unlink(missing_ok=True)
        raise cannot_write(path, error) from error


@contextlib.contextmanager
def _nameless(folder: Path, aside: Path) -> Iterator[int]:
    """A descriptor of a new file without a name; where the file system has no such thing, of one set aside."""
    try:
        descriptor = os.open(folder, os.O_TMPFILE | os.O_WRONLY, 0o666)
    except (OSError, AttributeError) as error:
        if isinstance(error, OSError) and error.errno not in {errno.EOPNOTSUPP, errno.EISDIR, errno.ENOENT}:
            raise
        descriptor = os.open(aside, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o666)
    try:
        yield descriptor
    finally:
        os.close(descriptor)


def _give_name(descriptor: int, path: Path) -> None:
    """The file gets its name only when it is whole: whatever ends the process before leaves nothing behind."""
    # With a folder's descriptor Python calls linkat(2), which follows; plain link(2) does not.
    os.link(f"/proc/self/fd/{descriptor}", path, src_dir_fd=descriptor, follow_symlinks=True)


def _keep_traits(descriptor: int, target: Path) -> None:
    """Mode and owner of what is replaced."""
    with contextlib.suppress(OSError):
        before = target.stat()
        os.fchmod(descriptor, stat.S_IMODE(before.st_mode))
        if (before.st_uid, before.st_gid) != (os.geteuid(), os.getegid()):
            os.fchown(descriptor, before.st_uid, before.st_gid)


def _write_all(descriptor: int, data: bytes) -> None:
    left = memoryview(data)
    while left:
        left = left[os.write(descriptor, left) :]


def shortened(name: str) -> str:
    """A file's name that no file system finds too long; its suffix stays."""
    stem, dot, suffix = name.rpartition(".")
    if not dot or len(suffix.encode()) > 16:
        stem, suffix = name, ""
    tail = f".{suffix}" if suffix else ""
    room = MOST_NAME_BYTES - len(tail.encode())
    if len(stem.encode()) <= room:
        return name
    return stem.encode()[:room].decode("utf-8", "ignore").rstrip() + tail


def sweep_unfinished(folder: Path) -> None:
    """Take away what a killed process left half-written in a folder, where the file system could not help it."""
    for left in folder.glob(_UNFINISHED.format("*")):
        with contextlib.suppress(OSError):
            if time.time() - left.stat().st_mtime > _STALE_S or left.stat().st_mtime > time.time() + _STALE_S:
                left.unlink()


def cannot_write(path: Path, error: OSError) -> CannotWriteError:
    """The typed error of a failed write."""
    full = error.errno in {errno.ENOSPC, errno.EDQUOT}
    remedy = "Free some space or choose another disk." if full else "Choose another folder."
    return CannotWriteError(path.name, value="the disk is full" if full else error.strerror, remedy=remedy)
