"""Recipes: steps evaluated in order, each from earlier ones by name."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ..document import Recipe, Step
from ..errors import MissingError
from ..maps import MapKind, MapSet
from ..operation import find
from ..sheet import Grid


def run_step(grid: Grid, step: Step, results: Mapping[str, Any]) -> Any:
    """One step from the results above it.

    Raises
    ------
    UnknownOperationError, OutOfRangeError, MissingError
        when the step cannot be evaluated.
    """
    operation = find(step.op)
    inputs = []
    for slot in operation.inputs:
        name = step.made_from.get(slot, "")
        if name not in results:
            raise MissingError(f"{step.name}, {slot}", value=name, allowed="a step above it")
        inputs.append(results[name])
    return operation.run(grid, *inputs, **operation.bind(step.values))


def gather_yields(grid: Grid, recipe: Recipe, results: Mapping[str, Any]) -> MapSet:
    """The maps a recipe yields, from its steps' results."""
    maps = {MapKind(kind): results[name] for kind, name in recipe.yields.items() if name in results}
    return MapSet(grid, maps)
