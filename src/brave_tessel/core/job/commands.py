"""Intents as commands: frozen values with a label and a pure ``apply``.

Entities are addressed by a path of field names and ids, such as ``("surfaces", "surface-1", "layers", "layer-2",
"seat", "values", "level")``.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

import msgspec

from ..errors import MissingError, OutOfRangeError
from .document import Job
from .nodes import Node

Path = tuple[str, ...]


def fetch(tree: Any, path: Sequence[str]) -> Any:
    """What lies at a path."""
    for name in path:
        tree = _child(tree, name)
    return tree


def _child(tree: Any, name: str) -> Any:
    if isinstance(tree, tuple):
        return tree[_index(tree, name)]
    if isinstance(tree, dict):
        return tree[name]
    if name not in tree.__struct_fields__:
        raise MissingError("path", value=name)
    return getattr(tree, name)


def _index(entities: tuple[Any, ...], id: str) -> int:
    for index, entity in enumerate(entities):
        if entity.id == id:
            return index
    raise MissingError("entity", value=id)


def change_at(tree: Any, path: Sequence[str], change: Callable[[Any], Any]) -> Any:
    """A tree in which what lies at the path is changed; everything beside it is shared."""
    if not path:
        return change(tree)
    name, rest = path[0], path[1:]
    if isinstance(tree, dict) and not rest:
        return {**tree, name: change(tree.get(name))}
    old = _child(tree, name)
    new = change_at(old, rest, change)
    if new is old:
        return tree
    if isinstance(tree, tuple):
        index = _index(tree, name)
        return (*tree[:index], new, *tree[index + 1 :])
    if isinstance(tree, dict):
        return {**tree, name: new}
    return msgspec.structs.replace(tree, **{name: new})


class Set(Node, frozen=True, kw_only=True, tag="set"):
    """Put a value at a path."""

    path: Path
    value: Any
    label: str
    gesture: str = ""

    def apply(self, job: Job) -> Job:
        def put(old: Any) -> Any:
            same = type(old) is type(self.value) and old == self.value
            return old if same else self.value

        return change_at(job, self.path, put)  # type: ignore[no-any-return]


class Insert(Node, frozen=True, kw_only=True, tag="insert"):
    """Put an entity into the tuple at a path; ``index`` −1 is the end."""

    path: Path
    item: Any
    label: str
    index: int = -1
    gesture: str = ""

    def apply(self, job: Job) -> Job:
        def put(old: tuple[Any, ...]) -> tuple[Any, ...]:
            at = len(old) if self.index < 0 else min(self.index, len(old))
            if any(entity.id == self.item.id for entity in old):
                raise OutOfRangeError("id", value=self.item.id, allowed="an id that is not taken")
            return (*old[:at], self.item, *old[at:])

        return change_at(job, self.path, put)  # type: ignore[no-any-return]


class Remove(Node, frozen=True, kw_only=True, tag="remove"):
    """Take the entity at a path out of its tuple."""

    path: Path
    label: str
    gesture: str = ""

    def apply(self, job: Job) -> Job:
        def drop(old: tuple[Any, ...]) -> tuple[Any, ...]:
            index = _index(old, self.path[-1])
            return (*old[:index], *old[index + 1 :])

        return change_at(job, self.path[:-1], drop)  # type: ignore[no-any-return]


class Move(Node, frozen=True, kw_only=True, tag="move"):
    """Give the entity at a path another place in its tuple."""

    path: Path
    index: int
    label: str
    gesture: str = ""

    def apply(self, job: Job) -> Job:
        def reorder(old: tuple[Any, ...]) -> tuple[Any, ...]:
            at = _index(old, self.path[-1])
            rest = (*old[:at], *old[at + 1 :])
            to = max(0, min(self.index, len(rest)))
            return old if to == at else (*rest[:to], old[at], *rest[to:])

        return change_at(job, self.path[:-1], reorder)  # type: ignore[no-any-return]


class Batch(Node, frozen=True, kw_only=True, tag="batch"):
    """Several commands as one step."""

    commands: tuple[Any, ...]
    label: str
    gesture: str = ""

    def apply(self, job: Job) -> Job:
        for command in self.commands:
            job = command.apply(job)
        return job


AnyCommand = Set | Insert | Remove | Move | Batch
