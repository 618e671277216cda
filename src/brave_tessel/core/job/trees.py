"""Entities as plain JSON trees and back. What this version does not know is kept where it was found.

Reading moves unknown fields, map kinds and values of an entity into its ``kept``, and puts :class:`UnknownWhat` where
a kind of layer is not known; writing puts them back. So a job from a later version, or with a part that is not
installed, is shown and edited around what is unknown, and saved with it unchanged.
"""

from __future__ import annotations

import types
import typing
from enum import Enum
from functools import cache
from typing import Any, TypeVar

import msgspec

from ..operation import REGISTRY
from .layers import Stroke, UnknownWhat, What
from .nodes import Node

E = TypeVar("E")
STROKE_VERSION = 1
"""Version of the code that draws strokes."""
Json = Any
"""A decoded JSON value."""


def tree_of(entity: object) -> Json:
    """An entity, or a tuple or mapping of them, as a JSON tree."""
    return _given_back(msgspec.to_builtins(entity, order="deterministic"))


def of_tree(tree: Json, kind: type[E]) -> E:
    """An entity from a JSON tree in today's format.

    Raises
    ------
    msgspec.ValidationError
        when the tree is no such entity.
    """
    return msgspec.convert(_kept_apart(tree, kind), kind, dec_hook=_decode)


# Writing ---------------------------------------------------------------------------------------------


def _given_back(tree: Json) -> Json:
    if isinstance(tree, list | tuple):
        return [_given_back(item) for item in tree]
    if not isinstance(tree, dict):
        return tree
    kept = tree.get("kept")
    known = {
        name: _given_back(value) for name, value in tree.items() if not (name == "kept" and isinstance(kept, dict))
    }
    if known.get("version") == 0:
        newest = _newest(known)
        known = {name: newest if name == "version" else v for name, v in known.items() if name != "version" or newest}
    if not isinstance(kept, dict) or not kept:
        return known
    return kept if known.get("type") == UNKNOWN else _merged(known, kept)


def _newest(known: dict[str, Json]) -> int:
    """What version 0 stands for: the newest that this program has; 0 where it has none."""
    if "op" not in known:
        return STROKE_VERSION
    operation = REGISTRY.get(known["op"])
    return operation.version if operation is not None else 0


def _merged(known: Json, kept: Json) -> Json:
    if isinstance(known, dict) and isinstance(kept, dict):
        both = {name: _merged(known[name], value) if name in known else value for name, value in kept.items()}
        return {**known, **both}
    if isinstance(known, list) and isinstance(kept, list):
        return [*known, *(item for item in kept if item not in known)]
    return known


# Reading ---------------------------------------------------------------------------------------------

UNKNOWN = "unknown"


def _decode(kind: type, tree: Json) -> Any:
    """What a layer is: the struct its tag names."""
    if kind is not What:
        raise NotImplementedError(kind)
    tag = tree.get("type") if isinstance(tree, dict) else None
    struct = struct_of(tag)
    if struct is None:
        raise msgspec.ValidationError("Expected a kind of layer")
    return msgspec.convert(tree, struct, dec_hook=_decode)


def struct_of(tag: object) -> type | None:
    """The struct of a kind of layer by its tag; None for one that is not known."""
    return next((kind for kind in _what_structs() if kind.__struct_config__.tag == tag), None)  # type: ignore[attr-defined]


def _what_structs() -> list[type]:
    return [kind for kind in What.__subclasses__() if issubclass(kind, msgspec.Struct)]


def _kept_apart(tree: Json, hint: Any) -> Json:
    """A tree with what is not known moved into ``kept``, following the types."""
    origin, arguments = typing.get_origin(hint), typing.get_args(hint)
    if hint is What:
        return _what_apart(tree)
    if isinstance(hint, type) and issubclass(hint, Node) and isinstance(tree, dict):
        return _node_apart(tree, hint)
    if origin in {typing.Union, types.UnionType} and tree is not None:
        inner = [argument for argument in arguments if argument is not types.NoneType]
        return _kept_apart(tree, inner[0]) if len(inner) == 1 else tree
    if origin is tuple and isinstance(tree, list) and arguments:
        each = list(arguments) if len(arguments) == len(tree) and arguments[-1] is not ... else None
        each = each or [arguments[0]] * len(tree)
        return [_kept_apart(item, one) for item, one in zip(tree, each, strict=True)]
    if origin is dict and isinstance(tree, dict):
        return {name: _kept_apart(value, arguments[1]) for name, value in tree.items()}
    return tree


def _what_apart(tree: Json) -> Json:
    if not isinstance(tree, dict):
        return tree
    struct = struct_of(tree.get("type"))
    if struct is None or struct is UnknownWhat:
        return {"type": UNKNOWN, "kept": tree}
    return {"type": tree["type"], **_node_apart({k: v for k, v in tree.items() if k != "type"}, struct)}


def _node_apart(tree: dict[str, Json], struct: type) -> dict[str, Json]:
    hints = _hints(struct)
    known: dict[str, Json] = {}
    kept: dict[str, Json] = {}
    for name, value in tree.items():
        if name not in hints or name == "kept":
            kept[name] = value
            continue
        mine, others = _members_apart(value, hints[name])
        known[name] = _kept_apart(mine, hints[name])
        if others:
            kept[name] = others
    if known.get("version") is not None and _is_newest(known, struct):
        known["version"] = 0
    return {**known, "kept": kept} if kept else known


def _is_newest(known: dict[str, Json], struct: type) -> bool:
    if "op" not in known:
        return struct is Stroke and known["version"] == STROKE_VERSION
    operation = REGISTRY.get(known["op"])
    return operation is not None and known["version"] == operation.version


def _members_apart(value: Json, hint: Any) -> tuple[Json, Json]:
    """Members of a set or mapping that are known here, and those that are not: map kinds, values of no known sort."""
    origin, arguments = typing.get_origin(hint), typing.get_args(hint)
    if origin is frozenset and isinstance(value, list):
        members = _members(arguments[0])
        return [v for v in value if v in members], [v for v in value if v not in members]
    if origin is not dict or not isinstance(value, dict):
        return value, None
    if isinstance(arguments[0], type) and issubclass(arguments[0], Enum):
        members = _members(arguments[0])
        return {k: v for k, v in value.items() if k in members}, {k: v for k, v in value.items() if k not in members}
    if typing.get_origin(arguments[1]) in {typing.Union, types.UnionType}:
        plain = {k: v for k, v in value.items() if isinstance(v, bool | int | float | str)}
        return plain, {k: v for k, v in value.items() if k not in plain}
    if arguments[1] is str:
        words = {k: v for k, v in value.items() if isinstance(v, str)}
        return words, {k: v for k, v in value.items() if k not in words}
    return value, None


def _members(kind: Any) -> set[str]:
    return {member.value for member in kind}


@cache
def _hints(struct: type) -> dict[str, Any]:
    return typing.get_type_hints(struct)
