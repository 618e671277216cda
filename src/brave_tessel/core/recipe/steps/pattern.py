"""Pattern steps: units with their true sizes and joints, laid in bonds."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np

from ...kernels.units import paint_units
from ...lattice import whole_periods
from ...operation import Choice, Length, Pieces, operation
from ...sheet import Grid


@dataclass(frozen=True, slots=True)
class Bond:
    """A bond as courses from the bottom: each a sequence of unit lengths and a start.

    ``S`` is a stretcher, ``H`` a header (half a stretcher with its joint); starts and the
    horizontal period are fractions of a stretcher with its joint.
    """

    courses: tuple[tuple[str, float], ...]
    period: float

    @property
    def rise(self) -> int:
        """Courses in one period."""
        return len(self.courses)


BONDS: dict[str, Bond] = {
    "stack": Bond((("S", 0.0),), 1.0),
    "half": Bond((("S", 0.0), ("S", 0.5)), 1.0),
    "third": Bond((("S", 0.0), ("S", 1 / 3), ("S", 2 / 3)), 1.0),
    "header": Bond((("H", 0.0), ("H", 0.25)), 0.5),
    "english": Bond((("S", 0.0), ("H", 0.25)), 1.0),
    "garden wall": Bond((("S", 0.0), ("S", 0.5), ("S", 0.0), ("H", 0.25)), 1.0),
    "flemish": Bond((("SH", 0.0), ("SH", 0.75)), 1.5),
    "monk": Bond((("SSH", 0.0), ("SSH", 1.25)), 2.5),
}
_LENGTHS = {"S": 1.0, "H": 0.5}


def bond_repeat(bond: str, unit_mm: float, height_mm: float, joint_mm: float) -> tuple[float, float]:
    """Smallest repeat of a bond, mm (check: brickwork tables, see tests)."""
    laid = BONDS[bond]
    return laid.period * (unit_mm + joint_mm), laid.rise * (height_mm + joint_mm)


@dataclass(frozen=True, slots=True)
class Setting:
    """How a bond closes in a repeat: whole periods each way and the sizes that follow, mm."""

    across: int
    up: int
    unit_mm: float
    course_mm: float

    @property
    def courses(self) -> int:
        """Rows in one repeat."""
        return self.up


def set_out(grid: Grid, bond: str, unit_mm: float, height_mm: float, joint_mm: float) -> Setting:
    """Whole periods of the bond nearest to the asked sizes; ``unit_mm`` and ``course_mm`` hold their joint."""
    laid = BONDS[bond]
    period_x, period_y = bond_repeat(bond, unit_mm, height_mm, joint_mm)
    across = whole_periods(grid.width_mm, period_x)
    up = whole_periods(grid.height_mm, period_y) * laid.rise
    return Setting(across, up, grid.width_mm / across / laid.period, grid.height_mm / up)


@operation(
    "pattern.units",
    label="Rectangular units",
    closes=lambda v: bond_repeat(v["bond"], v["length"], v["height"], v["joint"]),
)
def units(
    grid: Grid,
    *,
    length: Annotated[
        float, Length(10, 1200, log=True, least=1, help="Face length of a unit without its joint.")
    ] = 150.0,
    height: Annotated[
        float, Length(5, 1200, log=True, least=1, help="Face height of a unit without its joint.")
    ] = 75.0,
    joint: Annotated[float, Length(0, 30, least=0, most=200, help="Gap between units.")] = 3.0,
    bond: Annotated[str, Choice(*BONDS, help="How courses are set against each other.")] = "half",
) -> Pieces:
    """Units in courses, whole units across and up.

    The sizes close on the repeat: the nearest whole numbers of units are taken and stretched to fit;
    the deviation is shown, and a repeat that fits exactly is proposed.
    """
    setting = set_out(grid, bond, length, height, joint)
    starts, lengths, first = [], [], [0]
    laid = BONDS[bond]
    for course in range(setting.up):
        sequence, start = laid.courses[course % laid.rise]
        at = start * setting.unit_mm
        for _ in range(setting.across):
            for unit in sequence if laid.period > 1 else sequence * round(laid.period / _LENGTHS[sequence]):
                starts.append(at)
                lengths.append(_LENGTHS[unit] * setting.unit_mm)
                at += lengths[-1]
        first.append(len(starts))
    gap = min(joint, 0.9 * setting.course_mm, 0.9 * min(lengths))
    number, edge, across, up = paint_units(
        grid.shape,
        np.array(first, np.int32),
        np.array(starts),
        np.array(lengths),
        width_mm=grid.width_mm,
        height_mm=grid.height_mm,
        joint_mm=gap,
    )
    return Pieces(number, edge, across, up, len(starts))
