"""Covered within a shape."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Annotated

import numpy as np

from ...job.layers import Placement, Surface
from ...operation import Angle, Choice, Field, Length, Value, operation
from ...sheet import Grid
from ..handles import Handles, SettingHandles, placement_handles, placement_moved

Values = Mapping[str, Value]


def _box(v: Values) -> Placement:
    return Placement(
        x_mm=float(v["right"]),
        y_mm=float(v["up"]),
        width_mm=float(v["width"]),
        height_mm=float(v["height"]),
        turn=float(v["turn"]),
    )


def _shown(_surface: Surface, v: Values) -> Handles:
    return placement_handles(_box(v))


def _dragged(v: Values, name: str, x: float, y: float, unequal: bool) -> dict[str, Value]:
    place = placement_moved(_box(v), name, x, y, unequal)
    return {
        "right": place.x_mm,
        "up": place.y_mm,
        "width": place.width_mm,
        "height": place.height_mm,
        "turn": place.turn,
    }


@operation("where.shape", label="Shape", handles=SettingHandles(_shown, _dragged))
def by_shape(
    grid: Grid,
    *,
    shape: Annotated[str, Choice("disc", "box", "ring", help="What is drawn.")] = "disc",
    right: Annotated[
        float, Length(0, 1000, least=-1e5, most=1e5, help="Where its middle lies, from the left.")
    ] = 150.0,
    up: Annotated[float, Length(0, 1000, least=-1e5, most=1e5, help="Where its middle lies, from the foot.")] = 150.0,
    width: Annotated[float, Length(1, 1000, log=True, least=0.1, help="Its width.")] = 160.0,
    height: Annotated[float, Length(1, 1000, log=True, least=0.1, help="Its height.")] = 160.0,
    turn: Annotated[float, Angle(-180, 180, help="Turned anticlockwise.")] = 0.0,
    soft: Annotated[float, Length(0, 200, least=0, most=1e4, help="How soft its edge is.")] = 20.0,
) -> Field:
    """One shape on the wrapped sheet."""
    dx = (grid.x_mm()[None, :] - right + grid.width_mm / 2) % grid.width_mm - grid.width_mm / 2
    dy = (grid.y_mm()[:, None] - up + grid.height_mm / 2) % grid.height_mm - grid.height_mm / 2
    a = math.radians(turn)
    x, y = dx * math.cos(a) + dy * math.sin(a), -dx * math.sin(a) + dy * math.cos(a)
    if shape == "box":
        inside = np.minimum(width / 2 - np.abs(x), height / 2 - np.abs(y))
    else:
        mean = math.sqrt(width * height) / 2
        inside = mean * (1 - np.hypot(2 * x / width, 2 * y / height))
        inside = 0.15 * mean - np.abs(inside - 0.15 * mean) if shape == "ring" else inside
    return np.asarray(np.clip(inside / max(soft, grid.pitch_mm) + 0.5, 0, 1), np.float32)
