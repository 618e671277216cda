"""Covered between two heights of the ground."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...kernels.bands import by_strips
from ...operation import Field, Ground, Length, operation
from ...sheet import Grid, Raster

Fade = Annotated[float, Length(0, 5, least=0, most=100, help="Height over which the cover fades at either limit.")]


@operation("where.height", label="By height", reach=lambda v: 0.0)
def by_height(
    grid: Grid,
    ground: Ground,
    *,
    above: Annotated[
        float, Length(-20, 20, least=-1000, most=1000, help="Covered from this height of the ground upward.")
    ] = -20.0,
    below: Annotated[
        float, Length(-20, 20, least=-1000, most=1000, help="Covered up to this height of the ground.")
    ] = 0.0,
    soften: Fade = 0.3,
) -> Field:
    """Between two heights of what lies beneath, mm."""
    width = np.float32(max(soften, 1e-3))

    def between(height: Raster) -> Raster:
        rising = np.clip((height - np.float32(above)) / width + np.float32(0.5), 0, 1)
        falling = np.clip((np.float32(below) - height) / width + np.float32(0.5), 0, 1)
        return np.asarray(np.minimum(rising, falling), np.float32)

    return by_strips(between, ground.height)


Radius = Annotated[float, Length(0.5, 60, log=True, least=0.05, most=2000, help="How wide the shapes are that count.")]
