"""The job file: an open zip of ``job.json``, stored sources and a thumbnail."""

from __future__ import annotations

import io
import zipfile
import zlib
from collections.abc import Mapping
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
_NO_JOB = "a Brave Tessel job (*.tessel)"


def blob_name(data: bytes) -> str:
    """Name of stored bytes: their content's hash."""
    return xxhash.xxh3_128_hexdigest(data)


@dataclass(slots=True)
class OpenedJob:
    """A job and its stored files by name."""

    job: Job
    blobs: dict[str, bytes] = field(default_factory=dict)


def used_blobs(job: Job) -> set[str]:
    """Names of the stored files a job refers to."""
    names = {source.blob for source in job.sources}
    names |= {picture.blob for source in job.sources for picture in source.pictures}
    names |= {kind.blob for source in job.sources if source.scatter for kind in source.scatter.kinds}
    for surface in job.surfaces:
        for layer, _ in every_layer(surface.layers):
            names |= set(layer.what.refers().blobs)
    return names - {""}


def save_job(path: Path, job: Job, blobs: Mapping[str, bytes], thumbnail: bytes = b"") -> None:
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
        archive.writestr("mimetype", "application/x-brave-tessel")
        archive.writestr("job.json", encode_job(job), zipfile.ZIP_DEFLATED)
        if thumbnail:
            archive.writestr("thumbnail.png", thumbnail)
        for name in wanted:
            archive.writestr(f"blobs/{name}", blobs[name])
    write_atomically(path, buffer.getvalue())


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
            job = decode_job(archive.read("job.json"))
            blobs = {name: archive.read(f"blobs/{name}") for name in used_blobs(job)}
    except (
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
    ):
        raise _no_job(path) from None
    damaged = [name for name, content in blobs.items() if blob_name(content) != name]
    if damaged:
        raise _no_job(path)
    return OpenedJob(job, blobs)


def _no_job(path: Path) -> UnreadableFileError:
    return UnreadableFileError(path.name, allowed=_NO_JOB, remedy="The file is damaged or no job; choose another.")
