"""Pattern steps: units with their true sizes and joints, laid in bonds."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np

from ...kernels.mosaic import Mosaic
from ...kernels.units import paint_units
from ...lattice import whole_periods
from ...operation import Choice, Length, Pieces, operation
from ...sheet import Grid
from ..set_out import Pitch, SetOut, Values


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


def bond_repeat(
    bond: str, unit_mm: float, height_mm: float, joint_mm: float, bed_mm: float = 0.0
) -> tuple[float, float]:
    """Smallest repeat of a bond, mm (check: brickwork tables, see tests); a bed of 0 is as wide as the joint."""
    laid = BONDS[bond]
    return laid.period * (unit_mm + joint_mm), laid.rise * (height_mm + (bed_mm or joint_mm))


def _steps(bond: str) -> tuple[float, ...]:
    """Where joints of its courses lie, as shares of a stretcher with its joint."""
    found = set()
    for sequence, start in BONDS[bond].courses:
        at = start
        for unit in sequence:
            found.add(round(at % 1.0, 6))
            at += _LENGTHS[unit]
    return tuple(sorted(found))


def _courses(v: Values) -> Pitch:
    bed = float(v["bed"] or v["joint"])
    return Pitch(float(v["height"]) + bed, bed, "bed", "height")


def _units(v: Values) -> Pitch:
    joint = float(v["joint"])
    return Pitch(float(v["length"]) + joint, joint, "joint", "length", steps=_steps(str(v["bond"])))


def _outlines(grid: Grid, *, length: float, height: float, joint: float, bond: str, bed: float) -> Mosaic:
    setting = set_out(grid, bond, length, height, joint, bed)
    made = []
    for course, row in enumerate(_laid_rows(bond, setting)):
        low, high = course * setting.course_mm, (course + 1) * setting.course_mm
        made += [np.array([(x, low), (x + long, low), (x + long, high), (x, high)]) for x, long in row]
    return Mosaic(made, joint, beds=bed or joint)


def _laid_rows(bond: str, setting: Setting) -> list[list[tuple[float, float]]]:
    """Start and length with its joint of every unit, course by course from the bottom, mm."""
    laid, rows = BONDS[bond], []
    for course in range(setting.up):
        sequence, start = laid.courses[course % laid.rise]
        row, at = [], start * setting.unit_mm
        for _ in range(setting.across):
            for unit in sequence if laid.period > 1 else sequence * round(laid.period / _LENGTHS[sequence]):
                row.append((at, _LENGTHS[unit] * setting.unit_mm))
                at += row[-1][1]
        rows.append(row)
    return rows


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


def set_out(grid: Grid, bond: str, unit_mm: float, height_mm: float, joint_mm: float, bed_mm: float = 0.0) -> Setting:
    """Whole periods of the bond nearest to the asked sizes; ``unit_mm`` and ``course_mm`` hold their joint."""
    laid = BONDS[bond]
    period_x, period_y = bond_repeat(bond, unit_mm, height_mm, joint_mm, bed_mm)
    across = whole_periods(grid.width_mm, period_x)
    up = whole_periods(grid.height_mm, period_y) * laid.rise
    return Setting(across, up, grid.width_mm / across / laid.period, grid.height_mm / up)


@operation(
    "pattern.units",
    label="Rectangular units",
    closes=lambda v: bond_repeat(v["bond"], v["length"], v["height"], v["joint"], v.get("bed", 0.0)),
    sets_out=SetOut(_courses, _units, _outlines),
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
    bed: Annotated[
        float, Length(0, 30, least=0, most=200, help="Gap between courses; 0 is the same as between units.")
    ] = 0.0,
) -> Pieces:
    """Units in courses, whole units across and up.

    The sizes close on the repeat: the nearest whole numbers of units are taken and stretched to fit;
    the deviation is shown, and a repeat that fits exactly is proposed.
    """
    setting = set_out(grid, bond, length, height, joint, bed)
    rows = _laid_rows(bond, setting)
    laid = np.array([unit for row in rows for unit in row])
    first = np.cumsum([0, *map(len, rows)])
    shortest = float(laid[:, 1].min())
    gap = min(joint, 0.9 * setting.course_mm, 0.9 * shortest)
    number, edge, across, up = paint_units(
        grid.shape,
        first.astype(np.int32),
        np.ascontiguousarray(laid[:, 0]),
        np.ascontiguousarray(laid[:, 1]),
        width_mm=grid.width_mm,
        height_mm=grid.height_mm,
        joint_mm=gap,
        bed_mm=min(bed or joint, 0.9 * setting.course_mm, 0.9 * shortest if not bed else 1e9),
    )
    return Pieces(number, edge, across, up, len(laid))
