"""What a delivery can write: each declared once, in a file of ``engine/handover/outputs``."""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Callable
from dataclasses import dataclass, replace
from pathlib import Path
from typing import ClassVar

from ...core.job.document import Delivery, Job
from ...core.job.layers import Surface
from ..evaluate import always
from ..snapshot import Snapshot

Progress = Callable[[str, float], None]


def quiet(_what: str, _share: float) -> None:
    """Progress that is not shown."""


@dataclass(frozen=True, slots=True)
class Planned:
    """One file a delivery will write: its name, what it holds, and about how many bytes."""

    name: str
    what: str
    depth: int
    about_bytes: int


@dataclass(frozen=True, slots=True)
class Writing:
    """One delivery on its way: what is written, of which state, where to, and who is told."""

    snapshot: Snapshot
    delivery: Delivery
    surfaces: tuple[Surface, ...]
    folder: Path
    progress: Progress = quiet
    current: Callable[[], bool] = always

    def within(self, first: float, last: float) -> Writing:
        """The same, its progress a part of the whole."""
        tell = self.progress
        return replace(self, progress=lambda what, share: tell(what, first + (last - first) * share))


class Output:
    """One format: the files it will write, and the writing."""

    id: ClassVar[str]
    label: ClassVar[str]
    tip: ClassVar[str] = ""

    def planned(self, job: Job, delivery: Delivery, surfaces: tuple[Surface, ...]) -> list[Planned]:
        """Every file as it will be, before anything is computed."""
        raise NotImplementedError

    def write(self, writing: Writing) -> list[Path]:
        """Write the files, each whole or not at all; returns them.

        Raises
        ------
        CannotWriteError
            when the folder cannot be written; files already complete stay.
        CancelledError
            when stopped; no half-written file is left.
        """
        raise NotImplementedError


OUTPUTS: dict[str, Output] = {}
"""Every format by its id, in the order of their files' names."""


def output(id: str, *, label: str, tip: str = "") -> Callable[[type[Output]], type[Output]]:
    """Declare a format."""

    def declare(cls: type[Output]) -> type[Output]:
        cls.id, cls.label, cls.tip = id, label, tip
        OUTPUTS[id] = cls()
        return cls

    return declare


def load_outputs() -> dict[str, Output]:
    """Every format there is."""
    from . import outputs

    for entry in sorted(entry.name for entry in pkgutil.iter_modules(outputs.__path__)):
        importlib.import_module(f"{outputs.__name__}.{entry}")
    return OUTPUTS
