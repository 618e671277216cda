"""Recipes: steps evaluated in order, each from earlier ones by name."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import msgspec

from ..errors import MissingError
from ..job.layers import Recipe, Step
from ..maps import MapKind, MapSet
from ..operation import REGISTRY, find
from ..sheet import Grid


def run_step(grid: Grid, step: Step, results: Mapping[str, Any]) -> Any:
    """One step from the results above it.

    Raises
    ------
    UnknownOperationError, OutOfRangeError, MissingError
        when the step cannot be evaluated.
    """
    operation = find(step.op, step.version)
    inputs = []
    for slot in operation.inputs:
        name = step.made_from.get(slot, "")
        if name not in results:
            raise MissingError(f"{step.name}, {slot}", value=name, allowed="a step above it")
        inputs.append(results[name])
    return operation.run(grid, *inputs, **operation.bind(step.values))


def passed_on(step: Step) -> str:
    """The step whose result a bypassed step passes on: its first input of the kind it yields; empty where there is
    none.
    """
    operation = REGISTRY.get(step.op)
    if operation is None:
        return ""
    return next(
        (step.made_from.get(slot, "") for slot, kind in operation.inputs.items() if kind == operation.yields), ""
    )


def seeded(step: Step, seed: int) -> Step:
    """The step with a recipe's master seed added to its own."""
    operation = REGISTRY.get(step.op)
    if seed == 0 or operation is None or "seed" not in operation.params:
        return step
    own = int(step.values.get("seed", operation.params["seed"].default))
    return msgspec.structs.replace(step, values={**step.values, "seed": (own + seed) % 2**31})


def gather_yields(grid: Grid, recipe: Recipe, results: Mapping[str, Any]) -> MapSet:
    """The maps a recipe yields, from its steps' results."""
    maps = {MapKind(kind): results[name] for kind, name in recipe.yields.items() if name in results}
    return MapSet(grid, maps)
