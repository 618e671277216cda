"""How a pattern closes on a repeat: whole periods, how far they are stretched, and the repeats that fit exactly."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..job.layers import Recipe, Step
from ..lattice import whole_periods
from ..operation import REGISTRY, Value


@dataclass(frozen=True, slots=True)
class Closing:
    """Whole periods across and up (0 where a way does not matter), their stretch as a share, the nearest fitting
    repeat in mm.
    """

    across: int
    up: int
    stretch: tuple[float, float]
    fitting: tuple[float, float]

    @property
    def fits(self) -> bool:
        """To half a percent."""
        return max(abs(share) for share in self.stretch) <= 0.005


def closing(op: str, values: Mapping[str, Value], width_mm: float, height_mm: float) -> Closing | None:
    """How a step's pattern closes; None for steps that close on anything."""
    operation = REGISTRY.get(op)
    if operation is None or operation.closes is None:
        return None
    counts, stretch, fitting = [], [], []
    for period, length in zip(operation.closes(operation.bind(values)), (width_mm, height_mm), strict=True):
        count = whole_periods(length, period) if period > 0 else 0
        counts.append(count)
        stretch.append(length / (count * period) - 1 if count else 0.0)
        fitting.append(count * period if count else length)
    return Closing(counts[0], counts[1], (stretch[0], stretch[1]), (fitting[0], fitting[1]))


def recipe_closing(recipe: Recipe, width_mm: float, height_mm: float) -> tuple[Step, Closing] | None:
    """The first patterned step of a recipe, and how it closes on a repeat; None where nothing has a beat."""
    for step in recipe.steps:
        found = closing(step.op, step.values, width_mm, height_mm)
        if found is not None:
            return step, found
    return None
