"""What a journal's lines say: a head with the whole job, then what changed, each line with its checksum."""

from __future__ import annotations

import json
import logging
import zlib
from typing import Any

import msgspec

from ..core.errors import NewerJobError, TesselError
from ..core.job.document import Job
from ..formats.documents import read_tree, tree_of

log = logging.getLogger(__name__)

Record = list[Any]
"""``["set", path, value]``, ``["order", path, ids, added]`` or ``["more", path, tail]``."""


def differences(old: Any, new: Any, path: tuple[str, ...] = ()) -> list[Record]:
    """Records that lead from one tree to another; what is shared is not looked into."""
    if old is new:
        return []
    if isinstance(new, tuple) and isinstance(old, tuple):
        if _entities(old) and _entities(new):
            return _collection(old, new, path)
        if 0 < len(old) < len(new) and new[: len(old)] == old:
            # A stroke that goes on: its new points, not the whole path again.
            return [["more", list(path), [tree_of(item) for item in new[len(old) :]]]]
    if (
        isinstance(new, msgspec.Struct)
        and type(old) is type(new)
        and getattr(old, "kept", None) == getattr(new, "kept", None)
    ):
        return [
            record
            for name in new.__struct_fields__
            if name != "kept"
            for record in differences(getattr(old, name), getattr(new, name), (*path, name))
        ]
    if type(old) is type(new) and old == new:
        return []
    return [["set", list(path), tree_of(new)]]


def _entities(values: tuple[Any, ...]) -> bool:
    return all(hasattr(value, "id") for value in values)


def _collection(old: tuple[Any, ...], new: tuple[Any, ...], path: tuple[str, ...]) -> list[Record]:
    before = {entity.id: entity for entity in old}
    records: list[Record] = []
    ids = [entity.id for entity in new]
    if ids != [entity.id for entity in old]:
        added = [tree_of(entity) for entity in new if entity.id not in before]
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
    elif kind == "more":
        _at(parent, path[-1]).extend(record[2])
    else:
        entities = _at(parent, path[-1])
        known = {_id(entity): entity for entity in [*entities, *record[3]]}
        entities[:] = [known[id] for id in record[2]]


def _id(entity: Any) -> Any:
    return entity["id"] if "id" in entity else entity.get("name")


def _at(tree: Any, name: str) -> Any:
    if isinstance(tree, list):
        return next(entity for entity in tree if _id(entity) == name)
    return tree[name]


def head_line(job: Job, path: str) -> bytes:
    """The line a journal begins with."""
    return line_of({"path": path, "job": tree_of(job)})


def line_of(content: Any) -> bytes:
    """One journal line: checksum, space, JSON, newline."""
    body = json.dumps(content, separators=(",", ":"), ensure_ascii=False).encode()
    return f"{zlib.crc32(body):08x} ".encode() + body + b"\n"


def read_lines(data: bytes) -> list[Any]:
    """The contents of every line that is whole; a torn or damaged one is passed over."""
    contents = []
    for line in data.split(b"\n"):
        checksum, _, body = line.partition(b" ")
        if body and checksum == f"{zlib.crc32(body):08x}".encode():
            contents.append(json.loads(body))
    return contents


def replay(data: bytes) -> tuple[Job, str] | None:
    """The last job a journal tells of and the path it was opened from; None without a head that can be read.

    A change that no longer fits, since an earlier one was damaged, is passed over.

    Raises
    ------
    NewerJobError
        when a later version wrote it.
    """
    tree: Any = None
    origin = ""
    for content in read_lines(data):
        if isinstance(content, dict) and "job" in content:
            tree, origin = content["job"], str(content.get("path", ""))
        elif tree is not None and isinstance(content, list):
            _carry_on(tree, content)
    if tree is None:
        return None
    try:
        return read_tree(tree, Job), origin
    except NewerJobError:
        raise
    except (TesselError, msgspec.ValidationError, ValueError, TypeError, KeyError):
        return None


def _carry_on(tree: Any, records: list[Record]) -> None:
    for record in records:
        try:
            apply_record(tree, record)
        except (KeyError, StopIteration, IndexError, TypeError, AttributeError):
            log.warning("a change in the journal fits no more: %s", record[:2])
