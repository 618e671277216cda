"""Where the light stands."""

from __future__ import annotations

import math

from ..core.plan.planner import Light


def sun(azimuth: float, height: float) -> Light:
    """Unit vector to a light: azimuth in degrees from the right, anticlockwise; height above the sheet."""
    a, h = math.radians(azimuth), math.radians(height)
    return math.cos(a) * math.cos(h), math.sin(a) * math.cos(h), math.sin(h)
