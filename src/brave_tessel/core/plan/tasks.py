"""Keyed work. A task's key is a hash of everything its result depends on; names and selection are left out."""

from __future__ import annotations

import hashlib
import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import msgspec

from ..errors import TesselError
from ..outlines import Outline
from ..sheet import Grid, Raster
from .area import Area

CODE_VERSION = 3
Loader = Callable[[str], Raster]
Letters = Callable[[str, str], Outline]
"""Font and text to an outline."""


@dataclass(frozen=True, slots=True)
class Local:
    """How a task is done for a part of the sheet: ``work`` gives from the area what its inputs, cut to that area,
    are handed to.

    ``reach`` is how far around a pixel the task looks, in pixels; or it gives that from the inputs that lie on no grid.
    What ``may_lag`` need not follow a moving hand where it looks far.
    """

    work: Callable[[Area], Callable[..., Any]]
    reach: int | Callable[..., int] = 0
    may_lag: bool = False

    @classmethod
    def pointwise(cls, work: Callable[..., Any]) -> Local:
        """Work that looks at each pixel alone and knows nothing of the grid."""
        return cls(lambda _area: work)


@dataclass(frozen=True, slots=True, eq=False)
class Task:
    """One piece of work. ``owner`` is the entity whose fault a failure is; then ``fallback`` stands in.

    ``local`` says how a part of the result is worked out alone, where that can be done. ``gridless`` results do not lie
    on the sheet's pixels: a brush's tip, a number.
    """

    key: bytes
    label: str
    owner: str
    run: Callable[..., Any]
    inputs: tuple[Task, ...] = ()
    fallback: Task | None = None
    local: Local | None = None
    gridless: bool = False


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


def reach_px(grid: Grid, mm: float) -> int:
    """Pixels that a length in mm may cover, rounded up."""
    return math.ceil(mm / min(grid.mm_per_px)) + 1 if mm > 0 else 0


def no_letters(_font: str, _text: str) -> Outline:
    """Where no fonts can be read nothing is written."""
    return Outline()


def fail(error: TesselError) -> Any:
    """The work of a task that cannot be done."""
    raise error
