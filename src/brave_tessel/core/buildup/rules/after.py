"""Covered after another layer."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ...kernels.wrapped import sample_moved
from ...operation import BelowLayer, Choice, Field, Length, called, operation
from ...sheet import Grid


@operation("where.after", label="After another layer", reach=lambda v: math.hypot(v["right"], v["up"]))
def after(
    grid: Grid,
    field: Field,
    *,
    layer: Annotated[str, BelowLayer(help="A layer beneath this one.")] = "",
    takes: Annotated[
        str,
        called(
            "Cover from",
            Choice("where it shows", "its coverage", help="Where it lies on top now, or where its own rules put it."),
        ),
    ] = "where it shows",
    right: Annotated[float, Length(-60, 60, least=-5000, most=5000, help="Moved to the right.")] = 0.0,
    up: Annotated[float, Length(-60, 60, least=-5000, most=5000, help="Moved up.")] = 0.0,
) -> Field:
    """Where another layer lies; spread, softened and moved it makes halos, contact shadows, rust beneath bolts."""
    if right == 0 and up == 0:
        return field
    full = np.ones(grid.shape, np.float32)
    return sample_moved(np.ascontiguousarray(field), full * np.float32(-right), full * np.float32(-up), grid)
