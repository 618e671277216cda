"""Linked files: sources that follow a file on disk. The job keeps the pixels last read."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path

import msgspec

from ...core.errors import TesselError
from ...core.job.commands import AnyCommand, Batch, Set
from ...core.job.document import Job, Source
from ...formats.images import read_file
from ...formats.job_file import blob_name
from ...formats.scene_models import bundled, read_model
from ..place.bring import reread_parts
from .intake import Intake


@dataclass(frozen=True, slots=True)
class Linked:
    """One file that is followed, and which source and further map hangs on it ("" is the main picture); or a model,
    on which no source hangs.
    """

    path: str
    source: str
    picture: str
    blob: str

    @property
    def model(self) -> bool:
        """Whether it is a model of the scene."""
        return not self.source


def linked_files(job: Job) -> list[Linked]:
    """Every file that a linked source follows."""
    found = []
    for source in job.sources:
        if source.linked and source.path:
            found.append(Linked(source.path, source.id, "", source.blob))
        if source.linked:
            found += [Linked(p.path, source.id, p.id, p.blob) for p in source.pictures if p.path]
    models = {(m.path, m.blob) for part in job.scene.parts if (m := part.model) is not None and m.linked and m.path}
    return [*found, *(Linked(path, "", "", blob) for path, blob in sorted(models))]


def missing_files(job: Job) -> list[Linked]:
    """Followed files that are not there."""
    return [link for link in linked_files(job) if not Path(link.path).is_file()]


@dataclass(frozen=True, slots=True)
class Reread:
    """What a followed file holds now. It says nothing of the source: that may have changed meanwhile."""

    link: Linked
    blob: str
    width_px: int = 0
    height_px: int = 0
    depth: int = 8
    names: tuple[str, ...] = ()


def reread(intake: Intake, links: Iterable[Linked]) -> tuple[list[Reread], list[TesselError]]:
    """Read followed files that hold something else than before, and what could not be read; off the window's thread."""
    read: list[Reread] = []
    troubles: list[TesselError] = []
    for link in links:
        path = Path(link.path)
        try:
            if link.model:
                read += _reread_model(intake, link)
                continue
            if blob_name(read_file(path)) == link.blob:
                continue
            if link.picture:
                read.append(Reread(link, intake.keep_file(path)))
                continue
            fresh = intake.read_source(path)
        except TesselError as error:
            troubles.append(error)
            continue
        read.append(Reread(link, fresh.blob, fresh.width_px, fresh.height_px, fresh.depth))
    return read, troubles


def _reread_model(intake: Intake, link: Linked) -> list[Reread]:
    data = bundled(Path(link.path))
    if blob_name(data) == link.blob:
        return []
    held = read_model(data, Path(link.path).name)
    return [Reread(link, intake.kept.keep(data), names=held.names)]


def take_over(job: Job, read: Iterable[Reread]) -> tuple[AnyCommand | None, list[str]]:
    """The command that puts what was read into the sources as they are now, field by field; and their names.

    A source that was renamed, sized or framed anew meanwhile keeps that; one that is gone stays gone.
    """
    commands: list[AnyCommand] = []
    names: set[str] = set()
    for one in read:
        if one.link.model:
            fresh, _ = reread_parts(job, one.link.path, one.blob, one.names)
            commands += fresh
            names |= {Path(one.link.path).name} if fresh else set()
            continue
        source = next((source for source in job.sources if source.id == one.link.source), None)
        if source is None:
            continue
        fields = _changes(source, one)
        path = ("sources", source.id)
        commands += [Set(path=(*path, *where), value=value, label="picture") for where, value in fields.items()]
        if fields:
            names.add(source.name)
    if not commands:
        return None, []
    return Batch(commands=tuple(commands), label="Read linked files again"), sorted(names)


def _changes(source: Source, one: Reread) -> dict[tuple[str, ...], object]:
    """The fields of a source that a file's new content changes, by their place in it."""
    if one.link.picture:
        there = any(picture.id == one.link.picture for picture in source.pictures)
        return {("pictures", one.link.picture, "blob"): one.blob} if there else {}
    frame = source.straightening
    sx, sy = one.width_px / max(source.width_px, 1), one.height_px / max(source.height_px, 1)
    # A picture of another size is framed alike.
    return {
        ("blob",): one.blob,
        ("width_px",): one.width_px,
        ("height_px",): one.height_px,
        ("depth",): one.depth,
        ("straightening", "corners"): tuple((x * sx, y * sy) for x, y in frame.corners),
        ("straightening", "focal_px"): frame.focal_px * sx,
        ("straightening", "focal_typed_px"): frame.focal_typed_px * sx,
        ("straightening", "edges"): tuple(tuple((x * sx, y * sy) for x, y in edge) for edge in frame.edges),
    }


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
    for part in job.scene.parts:
        if part.model is not None and part.model.linked and part.model.path in found:
            where = ("scene", "parts", part.id, "model", "path")
            commands.append(Set(path=where, value=found[part.model.path], label="relink"))
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
    return "follows its file"
