"""Rectangular units painted on a wrapped sheet."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from ..sheet import Raster
from .bands import over_rows
from .compiled import compiled, still


@compiled
def _unit_rows(
    first: int,
    last: int,
    number: npt.NDArray[np.int32],
    edge: Raster,
    across: Raster,
    up: Raster,
    course_first: npt.NDArray[np.int32],
    unit_x: npt.NDArray[np.float64],
    unit_length: npt.NDArray[np.float64],
    width_mm: float,
    height_mm: float,
    joint: float,
    bed: float,
) -> None:
    rows, columns = number.shape
    courses = course_first.size - 1
    course_mm = height_mm / courses
    half_up = 0.5 * (course_mm - bed)
    pitch = width_mm / columns
    for r in range(first, last):
        y = (rows - r - 0.5) * height_mm / rows
        course = min(courses - 1, int(y / course_mm))
        from_middle = y - (course + 0.5) * course_mm
        out_up = abs(from_middle) - half_up
        last_unit = course_first[course + 1] - 1
        opening = math.ceil(unit_x[course_first[course]] / pitch - 0.5)
        for unit in range(course_first[course], last_unit + 1):
            start, length = unit_x[unit], unit_length[unit]
            half_across = 0.5 * (length - joint)
            middle = start + 0.5 * length
            begin = math.ceil(start / pitch - 0.5)
            # Where one unit ends the next begins, to the pixel, also over the edge.
            end = opening + columns if unit == last_unit else math.ceil(unit_x[unit + 1] / pitch - 0.5)
            for k in range(begin, end):
                c = k % columns
                from_centre = (k + 0.5) * pitch - middle
                out_across = abs(from_centre) - half_across
                if out_across > 0.0 and out_up > 0.0:
                    inside = -math.sqrt(out_across * out_across + out_up * out_up)
                else:
                    inside = -max(out_across, out_up)
                edge[r, c] = np.float32(inside)
                number[r, c] = np.int32(unit) if inside >= 0.0 else np.int32(-1)
                across[r, c] = np.float32(from_centre / half_across)
                up[r, c] = np.float32(from_middle / half_up)


def paint_units(
    shape: tuple[int, int],
    course_first: npt.NDArray[np.int32],
    unit_x: npt.NDArray[np.float64],
    unit_length: npt.NDArray[np.float64],
    *,
    width_mm: float,
    height_mm: float,
    joint_mm: float,
    bed_mm: float | None = None,
) -> tuple[npt.NDArray[np.int32], Raster, Raster, Raster]:
    """Number, signed edge distance in mm and within-unit coordinates of every pixel.

    Units are given course by course from the bottom: ``course_first`` (courses + 1,) indexes
    ``unit_x`` and ``unit_length`` (start and length with its joint, mm). All courses are equally high.
    ``bed_mm`` is the gap between courses, the joint where it is not given.
    """
    number = np.empty(shape, np.int32)
    edge, across, up = (np.empty(shape, np.float32) for _ in range(3))
    over_rows(
        _unit_rows,
        shape[0],
        number,
        edge,
        across,
        up,
        still(course_first),
        still(unit_x),
        still(unit_length),
        width_mm,
        height_mm,
        joint_mm,
        joint_mm if bed_mm is None else bed_mm,
    )
    return number, edge, across, up
