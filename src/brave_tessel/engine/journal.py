"""Between saves, changed entities are appended as checksummed lines; a torn tail is dropped."""

from __future__ import annotations

import contextlib
import json
import logging
import os
import queue
import threading
import zlib
from pathlib import Path
from typing import Any

import msgspec

from ..core.errors import TesselError
from ..core.job.document import Job, decode_job, encode_job
from ..formats.job_file import used_blobs
from ..formats.migrations import migrate

log = logging.getLogger(__name__)

Record = list[Any]
"""``["set", path, value]`` or ``["order", path, ids, added]``."""


def differences(old: Any, new: Any, path: tuple[str, ...] = ()) -> list[Record]:
    """Records that lead from one tree to another; what is shared is not looked into."""
    if old is new:
        return []
    if isinstance(new, tuple) and isinstance(old, tuple) and _entities(old) and _entities(new):
        return _collection(old, new, path)
    if isinstance(new, msgspec.Struct) and type(old) is type(new):
        return [
            record
            for name in new.__struct_fields__
            for record in differences(getattr(old, name), getattr(new, name), (*path, name))
        ]
    return [["set", list(path), msgspec.to_builtins(new, order="deterministic")]]


def _entities(values: tuple[Any, ...]) -> bool:
    return all(hasattr(value, "id") for value in values)


def _collection(old: tuple[Any, ...], new: tuple[Any, ...], path: tuple[str, ...]) -> list[Record]:
    before = {entity.id: entity for entity in old}
    records: list[Record] = []
    ids = [entity.id for entity in new]
    if ids != [entity.id for entity in old]:
        added = [msgspec.to_builtins(entity, order="deterministic") for entity in new if entity.id not in before]
        records.append(["order", list(path), ids, added])
    for entity in new:
        if entity.id in before:
            records += differences(before[entity.id], entity, (*path, entity.id))
    return records


def apply_record(tree: Any, record: Record) -> None:
    """Apply one record to a decoded job in place."""
    kind, path = record[0], record[1]
    parent = tree
    for name in path[:-1]:
        parent = _at(parent, name)
    if kind == "set":
        if isinstance(parent, list):
            index = next(i for i, entity in enumerate(parent) if _id(entity) == path[-1])
            parent[index] = record[2]
        else:
            parent[path[-1]] = record[2]
        return
    entities = _at(parent, path[-1])
    known = {_id(entity): entity for entity in [*entities, *record[3]]}
    entities[:] = [known[id] for id in record[2]]


def _id(entity: Any) -> Any:
    return entity["id"] if "id" in entity else entity.get("name")


def _at(tree: Any, name: str) -> Any:
    if isinstance(tree, list):
        return next(entity for entity in tree if _id(entity) == name)
    return tree[name]


def line_of(content: Any) -> bytes:
    """One journal line: checksum, space, JSON, newline."""
    body = json.dumps(content, separators=(",", ":"), ensure_ascii=False).encode()
    return f"{zlib.crc32(body):08x} ".encode() + body + b"\n"


def read_lines(data: bytes) -> list[Any]:
    """The contents of every line up to the first that is torn or damaged."""
    contents = []
    for line in data.split(b"\n")[:-1]:
        checksum, _, body = line.partition(b" ")
        if checksum != f"{zlib.crc32(body):08x}".encode():
            break
        contents.append(json.loads(body))
    return contents


def replay(data: bytes) -> tuple[Job, str] | None:
    """The last job a journal tells of and the path it was opened from, or None if its head is torn."""
    lines = read_lines(data)
    if not lines or "job" not in lines[0]:
        return None
    tree = lines[0]["job"]
    for records in lines[1:]:
        for record in records:
            apply_record(tree, record)
    return decode_job(migrate(tree)), str(lines[0]["path"])


class Journal:
    """Appends in a thread of its own; at most two seconds of work are not yet on the disk."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.path = folder / f"session-{os.getpid()}.journal"
        self._last: Job | None = None
        self._queue: queue.Queue[bytes | tuple[str, bytes] | threading.Event | None] = queue.Queue()
        self._thread = threading.Thread(target=self._write, name="journal", daemon=True)
        self._thread.start()

    def begin(self, job: Job, path: str, blobs: dict[str, bytes]) -> None:
        """Start afresh from a job as it was opened, saved or made."""
        self._last = job
        self._queue.put(None)
        self._queue.put(line_of({"path": path, "job": json.loads(encode_job(job))}))
        self.keep_blobs(job, blobs)

    def keep_blobs(self, job: Job, blobs: dict[str, bytes]) -> None:
        """Keep source files beside the journal, so that an unsaved job can be recovered."""
        for name in used_blobs(job):
            if name in blobs:
                self._queue.put((name, blobs[name]))

    def keep_blob(self, name: str, data: bytes) -> None:
        """Keep one file that a change is about to need."""
        self._queue.put((name, data))

    def note(self, job: Job) -> None:
        """Append what changed since the last note."""
        if self._last is None or job is self._last:
            return
        records = differences(self._last, job)
        self._last = job
        if records:
            self._queue.put(line_of(records))

    def flush(self) -> None:
        """Wait until everything noted is on the disk."""
        done = threading.Event()
        self._queue.put(done)
        done.wait(10)

    def close(self) -> None:
        """A clean end: nothing to recover."""
        self.flush()
        with contextlib.suppress(OSError):
            self.path.unlink(missing_ok=True)

    def _write(self) -> None:
        while True:
            item = self._queue.get()
            try:
                if isinstance(item, threading.Event):
                    item.set()
                elif isinstance(item, tuple):
                    self._keep(*item)
                else:
                    self._append(item)
            except OSError:
                log.exception("the journal could not be written")

    def _keep(self, name: str, data: bytes) -> None:
        target = self.folder / "blobs" / name
        if not target.exists():
            target.parent.mkdir(parents=True, exist_ok=True)
            target.write_bytes(data)

    def _append(self, item: bytes | None) -> None:
        self.folder.mkdir(parents=True, exist_ok=True)
        with self.path.open("wb" if item is None else "ab") as file:
            file.write(item or b"")
            file.flush()
            os.fsync(file.fileno())


def recoverable(folder: Path) -> list[Path]:
    """Journals left by sessions that no longer run, newest first."""
    left = [path for path in folder.glob("session-*.journal") if not _running(path)]
    return sorted(left, key=lambda path: path.stat().st_mtime, reverse=True)


def _running(path: Path) -> bool:
    try:
        process = int(path.stem.split("-")[1])
        os.kill(process, 0)
    except (ValueError, ProcessLookupError):
        return False
    except PermissionError:
        return True
    return True


def recover(path: Path) -> tuple[Job, str, dict[str, bytes]] | None:
    """The job of a left-over journal, where it came from, and its source files."""
    try:
        found = replay(path.read_bytes())
    except (OSError, TesselError, ValueError, KeyError, StopIteration, msgspec.ValidationError):
        return None
    if found is None:
        return None
    job, origin = found
    blobs = {}
    for name in used_blobs(job):
        stored = path.parent / "blobs" / name
        if stored.exists():
            blobs[name] = stored.read_bytes()
    return job, origin, blobs
