"""What every entity of a job is made of: frozen structs, ids, settings of declared operations."""

from __future__ import annotations

import secrets
from typing import Any

import msgspec

from ..operation import Operation, Value, find

Point = tuple[float, float]


class Node(msgspec.Struct, frozen=True, kw_only=True):
    """Base of every entity. ``kept`` is what another version wrote here and this one does not know: fields, map kinds,
    values. It is not looked at, and written again unchanged where it was found.
    """

    kept: dict[str, Any] = {}


def new_id(kind: str) -> str:
    """A fresh id such as ``layer-3f9a1c``."""
    return f"{kind}-{secrets.token_hex(4)}"


class Setting(Node, frozen=True, kw_only=True):
    """A declared operation with its values; unknown operations are kept as they are.

    ``version`` is that of the operation's code the values were made for; 0 is this program's newest. An older one is
    carried out by the code of its time, so that an old job keeps its look.
    """

    op: str
    values: dict[str, Value] = {}
    version: int = 0

    @property
    def operation(self) -> Operation:
        """The operation as declared; an empty stand-in where this version has none of that name or version."""
        return find(self.op, self.version)

    @property
    def known(self) -> bool:
        """Whether this version of the program can carry it out."""
        return self.operation.known

    def value(self, name: str) -> Value:
        """The stored value, or the declaration's default."""
        if name in self.values:
            return self.values[name]
        return self.operation.default(name)

    def number(self, name: str) -> float:
        """The stored or default value as a number."""
        return float(self.value(name))

    def complete(self) -> dict[str, Value]:
        """Every parameter, stored or default, unchecked."""
        return {**self.operation.defaults(), **self.values}

    def bound(self) -> dict[str, Value]:
        """Every parameter with its checked value.

        Raises
        ------
        OutOfRangeError
            when a stored value is outside what the parameter allows.
        UnknownOperationError
            when this version has no such operation.
        """
        return self.operation.bind(self.values)


def replace_values(setting: Setting, **values: Value) -> Setting:
    """The setting with some values put in."""
    return msgspec.structs.replace(setting, values={**setting.values, **values})
