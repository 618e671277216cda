"""Covered where the ground leans so far."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ...kernels.relief import normal_of_height
from ...operation import Angle, Choice, Field, Ground, operation
from ...relief.wrapped_blur import wrapped_gaussian
from ...sheet import Grid
from ..where import SIGMAS, Radius


@operation("where.slope", label="By slope", reach=lambda v: SIGMAS * v["radius"] / 4)
def by_slope(
    grid: Grid,
    ground: Ground,
    *,
    above: Annotated[float, Angle(0, 90, help="Covered from this slope.")] = 0.0,
    below: Annotated[float, Angle(0, 90, help="Covered up to this slope.")] = 25.0,
    soften: Annotated[float, Angle(0, 45, help="Slope over which the cover fades.")] = 8.0,
    radius: Radius = 1.0,
    side: Annotated[str, Choice("any", "one side", help="Whether it matters which way a slope falls.")] = "any",
    towards: Annotated[
        float, Angle(-180, 180, help="The way slopes fall that count: 0 right, 90 up, −90 down.")
    ] = -90.0,
) -> Field:
    """Between two slopes of what lies beneath, in degrees from flat; only those that fall one way, if wanted."""
    normal = normal_of_height(np.ascontiguousarray(wrapped_gaussian(ground.height, radius / 4, grid)), grid)
    slope = np.degrees(np.arctan2(np.hypot(normal[..., 0], normal[..., 1]), normal[..., 2]))
    width = np.float32(max(soften, 0.1))
    made = np.minimum(np.clip((slope - above) / width + 0.5, 0, 1), np.clip((below - slope) / width + 0.5, 0, 1))
    if side != "any":
        a = math.radians(towards)
        fall = normal[..., 0] * math.cos(a) + normal[..., 1] * math.sin(a)
        made = made * np.clip(fall / np.maximum(np.hypot(normal[..., 0], normal[..., 1]), 1e-3), 0, 1)
    return np.asarray(made, np.float32)
