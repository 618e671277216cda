"""The job file: an open zip of ``job.json``, stored sources and a thumbnail."""

from __future__ import annotations

import io
import json
import zipfile
import zlib
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from pathlib import Path

import msgspec
import xxhash

from ..core.errors import MissingError, TooLargeError, UnreadableFileError
from ..core.job.document import Job
from ..core.job.layers import Recipe, every_layer
from ..core.job.light import Rig
from ..core.phrases import say
from .disk import sweep_unfinished, write_atomically
from .documents import decode_job, encode_job
from .images import memory_budget, read_file

MAX_JSON = 256 << 20
"""Bytes of a job's description; pictures lie beside it."""
MAX_LAYERS = 20_000
MAX_STEPS = 5_000
"""Steps of one recipe."""
_SAVED_AT = (1980, 1, 1, 0, 0, 0)
"""The time written with every file of a job: the same job is the same bytes, and a wrong clock does no harm."""
MIMETYPE = b"application/x-brave-tessel"
_NO_JOB = "a Brave Tessel job (*.tessel)"


def blob_name(data: bytes) -> str:
    """Name of stored bytes: their content's hash."""
    return xxhash.xxh3_128_hexdigest(data)


@dataclass(frozen=True, slots=True)
class Preview:
    """A surface as it was last seen: a JPEG of its lit cell, and the key of what it shows.

    It is shown at once when the job is opened, if the key is that of the surface as it is; else it says nothing.
    """

    key: str
    jpeg: bytes


@dataclass(slots=True)
class OpenedJob:
    """A job, its stored files by name, and pictures of its surfaces by their ids.

    ``lost`` names stored files that were not there or damaged; ``stamp`` tells the file's content from any other.
    """

    job: Job
    blobs: dict[str, bytes] = field(default_factory=dict)
    previews: dict[str, Preview] = field(default_factory=dict)
    lost: frozenset[str] = frozenset()
    stamp: str = ""


def used_blobs(job: Job) -> set[str]:
    """Names of the stored files a job refers to."""
    names = {source.blob for source in job.sources}
    names |= {picture.blob for source in job.sources for picture in source.pictures}
    names |= {kind.blob for source in job.sources if source.scatter for kind in source.scatter.kinds}
    for surface in (*job.surfaces, *(state.surface for state in job.states)):
        for layer, _ in every_layer(surface.layers):
            names |= set(layer.what.refers().blobs)
    names |= {part.model.blob for part in job.scene.parts if part.model is not None}
    names |= {rig.picture for rig in _rigs(job)}
    return names - {""}


def _rigs(job: Job) -> tuple[Rig, ...]:
    """Every light of a job: today's, those kept by name, those of kept states."""
    return (job.rig, *(light.rig for light in job.lights), *(state.rig for state in job.states))


NO_PREVIEWS: Mapping[str, Preview] = {}


def save_job(
    path: Path,
    job: Job,
    blobs: Mapping[str, bytes],
    previews: Mapping[str, Preview] = NO_PREVIEWS,
    *,
    lost: frozenset[str] = frozenset(),
) -> str:
    """Write a job file in one step; what was there before stays until it is complete. Returns its stamp.

    ``lost`` names stored files that were gone already when the job was opened: a job is saved without those.

    Raises
    ------
    MissingError
        when other bytes the job refers to are not there: a file without them would be worse than none.
    CannotWriteError
        when the place cannot be written.
    """
    wanted = used_blobs(job)
    gone = sorted(wanted - set(blobs) - lost)
    gone += sorted(name for name in wanted & set(blobs) if blob_name(blobs[name]) != name)
    if gone:
        raise MissingError("stored file", value=user_of(job, gone[0]), remedy="Take it out, or add its picture again.")
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_STORED) as archive:
        for name, data in members(job, blobs, previews).items():
            entry = zipfile.ZipInfo(name, _SAVED_AT)
            entry.compress_type = zipfile.ZIP_DEFLATED if name.endswith(".json") else zipfile.ZIP_STORED
            entry.external_attr = 0o644 << 16
            archive.writestr(entry, data)
    sweep_unfinished(path.parent)
    write_atomically(path, buffer.getvalue())
    return blob_name(buffer.getvalue())


def stamp_of(path: Path) -> str:
    """The stamp of a file as it is now; empty where there is none that can be read."""
    try:
        return blob_name(path.read_bytes())
    except OSError:
        return ""


def members(job: Job, blobs: Mapping[str, bytes], previews: Mapping[str, Preview]) -> dict[str, bytes]:
    """The files of which a job file is made, by their names in it."""
    made = {"mimetype": MIMETYPE, "job.json": encode_job(job)}
    made |= {f"blobs/{name}": blobs[name] for name in sorted(used_blobs(job) & set(blobs))}
    kept = [(surface.id, previews[surface.id]) for surface in job.surfaces if surface.id in previews]
    if kept:
        index = [{"surface": id, "key": preview.key} for id, preview in kept]
        made["previews.json"] = json.dumps(index, indent=1).encode()
        made |= {f"previews/{number}.jpg": preview.jpeg for number, (_, preview) in enumerate(kept)}
    return made


def user_of(job: Job, blob: str) -> str:
    """The name of the source or layer that a stored file belongs to."""
    for source in job.sources:
        own = {source.blob, *(picture.blob for picture in source.pictures)}
        if blob in own or (source.scatter and blob in {kind.blob for kind in source.scatter.kinds}):
            return source.name
    for surface in (*job.surfaces, *(state.surface for state in job.states)):
        for layer, _ in every_layer(surface.layers):
            if blob in layer.what.refers().blobs:
                return layer.name
    for part in job.scene.parts:
        if part.model is not None and part.model.blob == blob:
            return part.model.file_name or part.name
    for rig in _rigs(job):
        if rig.picture == blob:
            return rig.picture_name
    return blob


def load_job(path: Path) -> OpenedJob:
    """Read a job file. A stored file in it that is damaged costs itself, not the job: it is named in ``lost``.

    Raises
    ------
    UnreadableFileError, NewerJobError, TooLargeError
        when it is no job, is damaged, comes from a later version or does not fit. The file is never changed.
    """
    data = read_file(path)
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            _check_sizes(archive, path)
            opened = _opened(archive.read, path)
    except _DAMAGED:
        raise _no_job(path) from None
    opened.stamp = blob_name(data)
    return opened


def _check_sizes(archive: zipfile.ZipFile, path: Path) -> None:
    """Refuse what would not fit before any of it is unpacked."""
    whole = sum(entry.file_size for entry in archive.infolist())
    if whole > memory_budget() or any(
        entry.file_size > MAX_JSON for entry in archive.infolist() if entry.filename.endswith(".json")
    ):
        raise TooLargeError(
            path.name,
            value=say("{size} MB unpacked", size=whole >> 20),
            allowed=say("{size} MB here", size=memory_budget() >> 20),
        )


def load_folder(path: Path) -> OpenedJob:
    """Read a job whose files lie unpacked in a folder; see :func:`load_job`."""
    try:
        return _opened(lambda name: (path / name).read_bytes(), path)
    except _DAMAGED:
        raise _no_job(path) from None


_DAMAGED = (
    zipfile.BadZipFile,
    zlib.error,
    KeyError,
    ValueError,
    TypeError,
    AttributeError,
    RecursionError,
    msgspec.ValidationError,
    EOFError,
    NotImplementedError,
    RuntimeError,
    OSError,
)


def _opened(read: Callable[[str], bytes], path: Path) -> OpenedJob:
    job = decode_job(read("job.json"))
    layers = [layer for surface in job.surfaces for layer, _ in every_layer(surface.layers)]
    if len(layers) > MAX_LAYERS:
        raise TooLargeError(
            path.name, value=say("{count} layers", count=len(layers)), allowed=say("{count} layers", count=MAX_LAYERS)
        )
    check_steps(path.name, *(recipe for layer in layers if (recipe := layer.what.made_of_recipe()) is not None))
    blobs = {name: data for name in used_blobs(job) if (data := _stored(read, name))}
    return OpenedJob(job, blobs, _previews(read), frozenset(used_blobs(job) - set(blobs)))


def check_steps(name: str, *recipes: Recipe) -> None:
    """Refuse a recipe of more steps than anyone could read.

    Raises
    ------
    TooLargeError
        when one has.
    """
    most = max((len(recipe.steps) for recipe in recipes), default=0)
    if most > MAX_STEPS:
        raise TooLargeError(name, value=say("{count} steps", count=most), allowed=say("{count} steps", count=MAX_STEPS))


def _stored(read: Callable[[str], bytes], name: str) -> bytes:
    """A stored file's bytes; none where it is not there or damaged."""
    try:
        data = read(f"blobs/{name}")
    except _DAMAGED:
        return b""
    return data if blob_name(data) == name else b""


def _previews(read: Callable[[str], bytes]) -> dict[str, Preview]:
    """The pictures kept with a job; one that is not there or damaged is made again."""
    try:
        index = json.loads(read("previews.json"))
        return {
            str(entry["surface"]): Preview(str(entry["key"]), read(f"previews/{number}.jpg"))
            for number, entry in enumerate(index)
        }
    except _DAMAGED:
        return {}


def _no_job(path: Path) -> UnreadableFileError:
    return UnreadableFileError(path.name, allowed=_NO_JOB, remedy="The file is damaged or no job; choose another.")
