"""Ways to make a straight sheet close on itself. Each is declared once, in a file of ``core/repeat/methods``.

A way has two halves: ``find`` looks at the sheet at one fixed size, so the answer is the same at every
resolution, and ``apply`` carries it out on all maps at the size that is asked for.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, ClassVar, TypeVar

import numpy as np
import numpy.typing as npt

from ..job.nodes import Setting
from ..maps import MapSet
from ..operation import REGISTRY, Operation, Value, field_params, told_of, unknown
from ..sheet import Grid
from .cut import PATH_PX, Cuts, Pin


@dataclass(frozen=True, kw_only=True)
class Method:
    """One way to make a repeat; its fields are its parameters."""

    note: ClassVar[str]
    """In a few words when to take it."""
    found_by: ClassVar[tuple[str, ...]] = ()
    """The parameters that ``find`` depends on."""
    find_px: ClassVar[int] = PATH_PX
    """The size, in pixels of the longer side, at which it looks."""

    @classmethod
    def fresh(cls, width_mm: float, height_mm: float) -> dict[str, Value]:
        """Values that suit a sheet of a size, where they are not the defaults."""
        return {}

    def closed(self, width_mm: float, height_mm: float) -> tuple[float, float]:
        """The repeat in mm that a sheet of a size leaves."""
        return width_mm, height_mm

    def find(self, flat: MapSet, pins: Sequence[Pin]) -> Any:
        """What it finds on the flat sheet, such as its cuts."""
        return None

    def apply(self, flat: MapSet, found: Any) -> MapSet:
        """The closed sheet."""
        raise NotImplementedError

    def cut_on(self, flat: MapSet, found: Any) -> tuple[MapSet, Cuts] | None:
        """The sheet that its cuts lie on, and they, where it has any."""
        return None

    def seams_of(self, found: Any) -> npt.NDArray[np.bool_] | None:
        """Where else patches of it meet, (h, w) of the closed sheet."""
        return None


M = TypeVar("M", bound=Method)
METHODS: dict[str, type[Method]] = {}
"""Every way by its operation's id."""


def mending(id: str, *, label: str, version: int = 1) -> Callable[[type[M]], type[M]]:
    """Declare a way of mending; it is an operation on a set of maps as well."""

    def declare(cls: type[M]) -> type[M]:
        made = dataclass(frozen=True, kw_only=True)(cls)

        def run(grid: Grid, maps: MapSet, **values: Value) -> MapSet:
            method = made(**values)
            return method.apply(maps, method.find(maps, ()))

        doc = told_of(made)
        REGISTRY[id] = Operation(id, "mend", version, label, run, {"maps": "maps"}, field_params(made), "maps", doc)
        METHODS[id] = made
        return made

    return declare


def method_of(setting: Setting, *, checked: bool = True) -> Method:
    """A source's way of mending with its values.

    Raises
    ------
    UnknownOperationError
        when this version has no such way.
    OutOfRangeError
        when a value is outside what is allowed, if they are to be checked.
    """
    if setting.op not in METHODS:
        raise unknown(setting.op, setting.version)
    method = METHODS[setting.op]
    values = setting.bound() if checked else setting.complete()
    names = setting.operation.params
    return method(**{name: value for name, value in values.items() if name in names})
