"""Linked files: sources that follow a file on disk. The job keeps the pixels last read."""

from __future__ import annotations

import time
from collections.abc import Iterable
from dataclasses import dataclass, field
from pathlib import Path

import msgspec

from ...core.errors import TesselError
from ...core.job.commands import AnyCommand, Batch, Set
from ...core.job.document import Job, Source
from ...formats.images import read_file
from ...formats.job_file import blob_name
from ..session import Session

SETTLE_S = 0.6
"""A file is read again once it has been left alone for so long: painters write in several goes."""


@dataclass(frozen=True, slots=True)
class Linked:
    """One file that is followed, and which source and further map hangs on it ("" is the main picture)."""

    path: str
    source: str
    picture: str
    blob: str


def linked_files(job: Job) -> list[Linked]:
    """Every file that a linked source follows."""
    found = []
    for source in job.sources:
        if source.linked and source.path:
            found.append(Linked(source.path, source.id, "", source.blob))
        if source.linked:
            found += [Linked(p.path, source.id, p.id, p.blob) for p in source.pictures if p.path]
    return found


def missing_files(job: Job) -> list[Linked]:
    """Followed files that are not there."""
    return [link for link in linked_files(job) if not Path(link.path).is_file()]


Stamp = tuple[float, int]


def _stamp(path: str) -> Stamp | None:
    try:
        stat = Path(path).stat()
    except OSError:
        return None
    return stat.st_mtime, stat.st_size


@dataclass(slots=True)
class LinkWatch:
    """Looks at followed files from time to time. ``changed`` lists those that were written and left alone since."""

    seen: dict[str, Stamp | None] = field(default_factory=dict)
    waiting: dict[str, tuple[Stamp, float]] = field(default_factory=dict)

    def changed(self, job: Job, *, now: float | None = None) -> list[Linked]:
        now = time.monotonic() if now is None else now
        links = linked_files(job)
        paths = {link.path for link in links}
        for gone in set(self.seen) - paths:
            del self.seen[gone]
        ready = set()
        for path in paths:
            stamp = _stamp(path)
            if path not in self.seen:
                # First seen: it may have changed while nobody looked.
                self.seen[path] = stamp
                if stamp is not None:
                    ready.add(path)
            elif stamp is not None and stamp != self.seen[path]:
                first = self.waiting.get(path)
                if first is None or first[0] != stamp:
                    self.waiting[path] = (stamp, now)
                elif now - first[1] >= SETTLE_S:
                    ready.add(path)
                    self.seen[path] = stamp
                    del self.waiting[path]
            elif stamp is None:
                self.seen[path] = None
        return [link for link in links if link.path in ready]


def reread(session: Session, links: Iterable[Linked]) -> tuple[AnyCommand | None, list[str], list[TesselError]]:
    """The command that takes over what changed, the names of the sources, and what could not be read.

    A file that cannot be read leaves the pixels last read.
    """
    commands: list[AnyCommand] = []
    names: list[str] = []
    troubles: list[TesselError] = []
    for link in links:
        source = next((s for s in session.job.sources if s.id == link.source), None)
        if source is None:
            continue
        try:
            command = _taken_over(session, source, link, Path(link.path))
        except TesselError as error:
            troubles.append(error)
            continue
        if command is not None:
            commands.append(command)
            names.append(source.name)
    if not commands:
        return None, [], troubles
    return Batch(commands=tuple(commands), label="Read linked files again"), sorted(set(names)), troubles


def _taken_over(session: Session, source: Source, link: Linked, path: Path) -> AnyCommand | None:
    if blob_name(read_file(path)) == link.blob:
        return None
    if link.picture:
        blob = session.keep_file(path)
        return Set(path=("sources", source.id, "pictures", link.picture, "blob"), value=blob, label="map")
    fresh = session.read_source(path)
    sx, sy = fresh.width_px / source.width_px, fresh.height_px / source.height_px
    frame = source.straightening
    # A picture of another size is framed alike.
    corners = tuple((x * sx, y * sy) for x, y in frame.corners)
    value = msgspec.structs.replace(
        source,
        blob=fresh.blob,
        width_px=fresh.width_px,
        height_px=fresh.height_px,
        depth=fresh.depth,
        straightening=msgspec.structs.replace(frame, corners=corners, focal_px=frame.focal_px * sx),
    )
    return Set(path=("sources", source.id), value=value, label="picture")


def relink(job: Job, found: dict[str, str]) -> AnyCommand | None:
    """Follow other files: ``found`` maps the old path to the new one."""
    commands: list[AnyCommand] = []
    for source in job.sources:
        pictures = tuple(
            msgspec.structs.replace(p, path=found[p.path], file_name=Path(found[p.path]).name) if p.path in found else p
            for p in source.pictures
        )
        path = found.get(source.path, source.path)
        if source.linked and (path != source.path or pictures != source.pictures):
            value = msgspec.structs.replace(
                source, path=path, pictures=pictures, file_name=Path(path).name or source.file_name
            )
            commands.append(Set(path=("sources", source.id), value=value, label="relink"))
    return Batch(commands=tuple(commands), label="Relink files") if commands else None


def look_for(job: Job, folder: Path, *, depth: int = 4) -> dict[str, str]:
    """Missing files that lie in a folder or below it, by their names: old path to new."""
    wanted = {Path(link.path).name: link.path for link in missing_files(job)}
    found: dict[str, str] = {}
    for path in _files_below(folder, depth):
        old = wanted.get(path.name)
        if old is not None and old not in found:
            found[old] = str(path)
    return found


def _files_below(folder: Path, depth: int) -> Iterable[Path]:
    try:
        inside = sorted(folder.iterdir())
    except OSError:
        return
    for entry in inside:
        if entry.is_file():
            yield entry
    if depth > 0:
        for entry in inside:
            if entry.is_dir() and not entry.is_symlink():
                yield from _files_below(entry, depth - 1)


def set_linked(source: Source, linked: bool) -> AnyCommand:
    """Follow the file, or keep what was last read."""
    return Set(
        path=("sources", source.id, "linked"), value=linked, label="Follow the file" if linked else "Keep the pixels"
    )


def link_note(source: Source) -> str:
    """How a source hangs on its file, in a few words."""
    if not source.linked:
        return "kept in the job"
    files = [source.path, *(p.path for p in source.pictures if p.path)]
    gone = [path for path in files if path and not Path(path).is_file()]
    if gone:
        return f"file missing: {Path(gone[0]).name}"
    return "follows its file"


__all__ = [
    "LinkWatch",
    "Linked",
    "link_note",
    "linked_files",
    "look_for",
    "missing_files",
    "relink",
    "reread",
    "set_linked",
]
