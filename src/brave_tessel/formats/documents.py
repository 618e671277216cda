"""Jobs, kits, recipes and layers on the clipboard as JSON: one way in, one way out, one chain of migrations."""

from __future__ import annotations

import json
from typing import TypeVar

import msgspec

from ..core import registered  # noqa: F401 - declares every operation and kind
from ..core.errors import UnreadableFileError
from ..core.job.document import JOB_FORMAT, Job
from ..core.job.trees import Json, of_tree, tree_of
from .migrations import migrate

D = TypeVar("D")

__all__ = ["decode", "decode_job", "encode", "encode_job", "read_tree", "tree_of"]


def encode(document: object) -> bytes:
    """A document as readable JSON, keys in a fixed order, in today's format."""
    return json.dumps(tree_of(document), ensure_ascii=False, indent=1).encode()


def decode(data: bytes, kind: type[D], name: str, allowed: str) -> D:
    """A document from JSON of this or an earlier format.

    Raises
    ------
    UnreadableFileError
        when it is none.
    NewerJobError
        when a later version wrote it in a format whose meaning has changed.
    """
    try:
        return read_tree(json.loads(data), kind)
    except (ValueError, TypeError, KeyError, AttributeError, RecursionError, msgspec.ValidationError) as error:
        raise UnreadableFileError(name, value=str(error)[:80], allowed=allowed) from None


def read_tree(tree: Json, kind: type[D]) -> D:
    """A document from a decoded JSON tree of this or an earlier format.

    Raises
    ------
    NewerJobError
        when a later version wrote it.
    msgspec.ValidationError
        when it is none.
    """
    return of_tree(migrate(tree), kind)


def encode_job(job: Job) -> bytes:
    """A job as readable JSON."""
    return encode(job if job.format == JOB_FORMAT else msgspec.structs.replace(job, format=JOB_FORMAT))


def decode_job(data: bytes | Json) -> Job:
    """A job from JSON or from decoded JSON.

    Raises
    ------
    msgspec.ValidationError, ValueError
        when it is none.
    NewerJobError
        when a later version wrote it.
    """
    return read_tree(json.loads(data) if isinstance(data, bytes) else data, Job)
