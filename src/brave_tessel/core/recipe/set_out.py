"""What a builder counts in a pattern: courses and units with their joints, and the outlines of its units."""

from __future__ import annotations

import functools
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np

from ..kernels.mosaic import Mosaic
from ..lattice import whole_periods, with_earlier_hash
from ..operation import Closes, Pieces, operation
from ..sheet import Grid

Values = Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class Pitch:
    """How far one unit lies from the next in one direction, mm from the middle of a joint to the middle of the next.

    ``joint_dial`` and ``unit_dial`` name the values of the pattern that widen its joints and its units, empty where
    none does that alone; a millimetre of the unit's dial moves the pitch by ``rate``. ``start`` is where the first
    joint lies on the sheet, ``steps`` where joints of every row lie, both in pitches. ``allowed`` is by how many mm a
    unit may be smaller or larger, None for the tolerance of fired units.
    """

    mm: float
    joint: float = 0.0
    joint_dial: str = ""
    unit_dial: str = ""
    rate: float = 1.0
    start: float = 0.0
    steps: tuple[float, ...] = (0.0,)
    allowed: tuple[float, float] | None = None


Counted = Callable[[Values], Pitch | None]


def _none(_values: Values) -> Pitch | None:
    return None


@dataclass(frozen=True, slots=True)
class SetOut:
    """How a pattern is set out: its courses up, its units along, and the outlines of one repeat's units."""

    courses: Counted = _none
    units: Counted = _none
    outlines: Callable[..., Mosaic] | None = None


def mosaic(
    name: str,
    *,
    label: str,
    closes: Closes | None = None,
    courses: Counted = _none,
    units: Counted = _none,
    square: Values | None = None,
    rehashed: bool = False,
) -> Callable[[Callable[..., Mosaic]], Callable[..., Pieces]]:
    """Declare a pattern by the outlines of its units; painting them is done here. ``square`` are values without which
    every unit is as its maker made it; ``rehashed`` as for :func:`~..operation.operation`, from version 1 to 2.
    """

    def declare(function: Callable[..., Mosaic]) -> Callable[..., Pieces]:
        @functools.wraps(function)
        def paint(grid: Grid, **values: Any) -> Pieces:
            return function(grid, **values).painted(grid)

        paint.__annotations__ = {**function.__annotations__, "return": Pieces}

        def outlines(grid: Grid, **values: Any) -> Mosaic:
            return function(grid, **{**values, **(square or {})})

        version, id = 2 if rehashed else 1, f"pattern.{name}"
        operation(id, label=label, closes=closes, sets_out=SetOut(courses, units, outlines), version=version)(paint)
        if rehashed:
            before = SetOut(courses, units, with_earlier_hash(outlines))
            declared = operation(id, label=label, closes=closes, sets_out=before, superseded=True)
            declared(with_earlier_hash(paint))
        return paint

    return declare


def runs_as(values: Values, wanted: str, dial: str, joint: str = "") -> Pitch | None:
    """The pitch of boards, seams or waves that run one way; a sheet may be lapped by a fiftieth more or less."""
    if values["runs"] != wanted:
        return None
    mm = float(values[dial])
    return Pitch(mm, float(values[joint]) if joint else 0.0, unit_dial=dial, allowed=(0.02 * mm, 0.02 * mm))


def strips(grid: Grid, pitch: float, joint: float, *, upright: bool) -> Mosaic:
    """Strips without ends side by side."""
    whole = grid.width_mm if upright else grid.height_mm
    count = whole_periods(whole, pitch)
    w, across, up = whole / count, grid.width_mm, grid.height_mm
    spans = [((k * w, 0.0, (k + 1) * w, up) if upright else (0.0, k * w, across, (k + 1) * w)) for k in range(count)]
    made = [np.array([(x0, y0), (x1, y0), (x1, y1), (x0, y1)]) for x0, y0, x1, y1 in spans]
    return Mosaic(made, joint, endless="up" if upright else "across")
