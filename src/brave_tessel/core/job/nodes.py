"""What every entity of a job is made of: frozen structs, ids, settings of declared operations."""

from __future__ import annotations

import secrets

import msgspec

from ..operation import REGISTRY, Value

Point = tuple[float, float]


class Node(msgspec.Struct, frozen=True):
    """Base of every entity."""


def new_id(kind: str) -> str:
    """A fresh id such as ``layer-3f9a1c``."""
    return f"{kind}-{secrets.token_hex(4)}"


class Setting(Node, frozen=True, kw_only=True):
    """A declared operation with its values; unknown operations are kept as they are."""

    op: str
    values: dict[str, Value] = {}

    def value(self, name: str) -> Value:
        """The stored value, or the declaration's default."""
        if name in self.values:
            return self.values[name]
        return REGISTRY[self.op].params[name].default

    def number(self, name: str) -> float:
        return float(self.value(name))

    def complete(self) -> dict[str, Value]:
        """Every parameter, stored or default, unchecked."""
        known = REGISTRY[self.op].defaults() if self.op in REGISTRY else {}
        return {**known, **self.values}


def replace_values(setting: Setting, **values: Value) -> Setting:
    """The setting with some values put in."""
    return msgspec.structs.replace(setting, values={**setting.values, **values})
