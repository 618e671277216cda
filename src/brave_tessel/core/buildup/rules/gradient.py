"""Covered along a gradient."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated

import numpy as np

from ...job.layers import Surface
from ...operation import Field, Length, Value, operation
from ...sheet import Grid
from ..handles import Handle, Handles, SettingHandles

Values = Mapping[str, Value]


def _along(values: Values) -> bool:
    return abs(float(values["to_right"]) - float(values["from_right"])) > abs(
        float(values["to_up"]) - float(values["from_up"])
    )


def _shown(surface: Surface, v: Values) -> Handles:
    start = float(v["from_right"]), float(v["from_up"])
    end = float(v["to_right"]), float(v["to_up"])
    w, h, across = surface.width_mm, surface.height_mm, _along(v)
    lines = tuple(((p[0], 0.0), (p[0], h)) if across else ((0.0, p[1]), (w, p[1])) for p in (start, end))
    first = (start[0], h / 2) if across else (w / 2, start[1])
    last = (end[0], h / 2) if across else (w / 2, end[1])
    return Handles((Handle("from", *first), Handle("to", *last)), (*lines, (first, last)))


def _dragged(v: Values, name: str, x: float, y: float, unequal: bool) -> dict[str, Value]:
    return {f"{name}_right": round(x, 2)} if _along(v) else {f"{name}_up": round(y, 2)}


@operation("where.gradient", label="Gradient", handles=SettingHandles(_shown, _dragged))
def gradient(
    grid: Grid,
    *,
    from_right: Annotated[float, Length(0, 1000, least=-1e5, most=1e5, help="Where it begins, from the left.")] = 0.0,
    from_up: Annotated[float, Length(0, 1000, least=-1e5, most=1e5, help="Where it begins, from the foot.")] = 0.0,
    to_right: Annotated[float, Length(0, 1000, least=-1e5, most=1e5, help="Where it is full, from the left.")] = 0.0,
    to_up: Annotated[float, Length(0, 1000, least=-1e5, most=1e5, help="Where it is full, from the foot.")] = 300.0,
) -> Field:
    """From nothing to all between two points, and back again where the sheet closes.

    It runs along the axis that the points lie further apart on, so that it closes; full at its end, nothing half a
    repeat on.
    """
    level = abs(to_right - from_right) > abs(to_up - from_up)
    whole, place = grid.across(upright=level)
    start, end = (from_right, to_right) if level else (from_up, to_up)
    length = max(abs(end - start), 1e-3)
    away = np.abs((place - end + whole / 2) % whole - whole / 2)
    return np.asarray(grid.spread(np.clip(1 - away / length, 0, 1), upright=level), np.float32)
