"""What every rule goes through: stretched, turned over, spread, softened."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Field, Fraction, Length, Toggle, operation
from ...recipe.steps.form import signed_distance
from ...relief.wrapped_blur import wrapped_gaussian
from ...sheet import Grid
from ..where import SIGMAS


@operation("rule.shape", label="Shape of the rule", reach=lambda v: abs(v["spread"]) * 1.05 + SIGMAS * v["soften"] / 2)
def shaped(
    grid: Grid,
    field: Field,
    *,
    low: Annotated[float, Fraction(least=-4, most=5, help="What counts as nothing.")] = 0.0,
    high: Annotated[float, Fraction(least=-4, most=5, help="What counts as all.")] = 1.0,
    invert: Annotated[bool, Toggle(help="Everywhere but there.")] = False,
    spread: Annotated[
        float, Length(-30, 30, least=-500, most=500, help="How far its edge moves out; below 0 it moves in.")
    ] = 0.0,
    soften: Annotated[float, Length(0, 60, least=0, most=2000, help="How far its edge is blurred.")] = 0.0,
    strength: Annotated[float, Fraction(help="How much the rule counts.")] = 1.0,
) -> Field:
    """What a rule gives, stretched, turned over, spread and softened; ``strength`` counts where rules combine."""
    made = field
    if (low, high) != (0, 1):
        made = np.clip((made - np.float32(low)) / np.float32((high - low) or 1e-6), 0, 1)
    if invert:
        made = np.asarray(1 - made, np.float32)
    if spread != 0:
        moved = signed_distance(made, grid, abs(spread) + 4 * grid.pitch_mm) + np.float32(spread)
        edge = np.clip(moved / np.float32(grid.pitch_mm) + np.float32(0.5), 0, 1)
        made = np.asarray(np.maximum(made, edge) if spread > 0 else np.minimum(made, edge), np.float32)
    return wrapped_gaussian(made, soften / 2, grid) if soften > 0 else made
