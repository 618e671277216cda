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

from ..core.errors import MissingError, UnreadableFileError
from ..core.job.document import Job
from ..core.job.layers import every_layer
from .disk import write_atomically
from .documents import decode_job, encode_job
from .images import read_file

MAX_UNPACKED = 8 << 30
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
    """A job, its stored files by name, and pictures of its surfaces by their ids."""

    job: Job
    blobs: dict[str, bytes] = field(default_factory=dict)
    previews: dict[str, Preview] = field(default_factory=dict)


def used_blobs(job: Job) -> set[str]:
    """Names of the stored files a job refers to."""
    names = {source.blob for source in job.sources}
    names |= {picture.blob for source in job.sources for picture in source.pictures}
    names |= {kind.blob for source in job.sources if source.scatter for kind in source.scatter.kinds}
    for surface in job.surfaces:
        for layer, _ in every_layer(surface.layers):
            names |= set(layer.what.refers().blobs)
    return names - {""}


NO_PREVIEWS: Mapping[str, Preview] = {}


def save_job(path: Path, job: Job, blobs: Mapping[str, bytes], previews: Mapping[str, Preview] = NO_PREVIEWS) -> None:
    """Write a job file in one step; what was there before stays until it is complete.

    Raises
    ------
    MissingError
        when bytes the job refers to are not there: a file without them would be worse than none.
    CannotWriteError
        when the place cannot be written.
    """
    wanted = sorted(used_blobs(job))
    gone = [name for name in wanted if name not in blobs]
    if gone:
        raise MissingError("stored file", value=user_of(job, gone[0]), remedy="Take it out, or add its picture again.")
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_STORED) as archive:
        for name, data in members(job, blobs, previews).items():
            kind = zipfile.ZIP_DEFLATED if name.endswith(".json") else zipfile.ZIP_STORED
            archive.writestr(name, data, kind)
    write_atomically(path, buffer.getvalue())


def members(job: Job, blobs: Mapping[str, bytes], previews: Mapping[str, Preview]) -> dict[str, bytes]:
    """The files of which a job file is made, by their names in it."""
    made = {"mimetype": MIMETYPE, "job.json": encode_job(job)}
    made |= {f"blobs/{name}": blobs[name] for name in sorted(used_blobs(job))}
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
    for surface in job.surfaces:
        for layer, _ in every_layer(surface.layers):
            if blob in layer.what.refers().blobs:
                return layer.name
    return blob


def load_job(path: Path) -> OpenedJob:
    """Read a job file.

    Raises
    ------
    UnreadableFileError, NewerJobError
        when it is no job, is damaged, or comes from a later version. The file is never changed.
    """
    data = read_file(path)
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            if sum(entry.file_size for entry in archive.infolist()) > MAX_UNPACKED:
                raise _no_job(path)
            return _opened(archive.read, path)
    except _DAMAGED:
        raise _no_job(path) from None


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
    blobs = {name: read(f"blobs/{name}") for name in used_blobs(job)}
    if any(blob_name(content) != name for name, content in blobs.items()):
        raise _no_job(path)
    return OpenedJob(job, blobs, _previews(read))


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
