"""Keyed work. A task's key is a hash of everything its result depends on; names and selection are left out."""

from __future__ import annotations

import hashlib
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import msgspec

from .errors import TesselError
from .outlines import Outline
from .sheet import Grid, Raster

CODE_VERSION = 3
Loader = Callable[[str], Raster]
Letters = Callable[[str, str], Outline]
"""Font and text to an outline."""


@dataclass(frozen=True, slots=True, eq=False)
class Task:
    """One piece of work. ``owner`` is the entity whose fault a failure is; then ``fallback`` stands in."""

    key: bytes
    label: str
    owner: str
    run: Callable[..., Any]
    inputs: tuple[Task, ...] = ()
    fallback: Task | None = None


def task_key(*parts: object) -> bytes:
    """The hash of some values, other keys and grids."""
    digest = hashlib.blake2b(digest_size=16)
    for part in (CODE_VERSION, *parts):
        encoded = part if isinstance(part, bytes) else msgspec.json.encode(part, order="deterministic", enc_hook=_plain)
        digest.update(len(encoded).to_bytes(4, "little") + encoded)
    return digest.digest()


def _plain(value: Any) -> Any:
    if isinstance(value, Grid):
        return [value.width_px, value.height_px, value.width_mm, value.height_mm]
    raise NotImplementedError(type(value))


def no_letters(_font: str, _text: str) -> Outline:
    """Where no fonts can be read nothing is written."""
    return Outline()


def fail(error: TesselError) -> Any:
    """The work of a task that cannot be done."""
    raise error
