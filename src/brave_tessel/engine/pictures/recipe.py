"""Pictures of a recipe's steps, worked out off the window's thread."""

from __future__ import annotations

import time
from dataclasses import dataclass
from typing import Any

import cv2
import msgspec
import numpy as np

from ...core.colour import display_codes
from ...core.errors import TesselError
from ...core.job.layers import Layer, Recipe, Surface
from ...core.lattice import units_many
from ...core.light.lighting import Lighting
from ...core.maps import MapKind
from ...core.operation import Pieces
from ...core.phrases import say
from ...core.quantity import format_number
from ...core.recipe.edit import used
from ...core.relief.pictures import map_codes, mip_chain
from ...core.sheet import AnyArray, Grid
from ..evaluate import Evaluation
from ..snapshot import Snapshot
from .gather import Current, lit_maps
from .results import RecipePicture, VariantPictures

LOOK_PX, VARIANT_PX, VARIANTS = 92, 128, 6
EVEN = 1e-6
"""What varies by less is one value everywhere."""


def result_codes(result: Any) -> tuple[AnyArray, str]:
    """A step's result as a picture (H, W, 3) uint8, and what its darkest and lightest are."""
    if isinstance(result, Pieces):
        tone = 0.25 + 0.7 * units_many(np.arange(result.count + 1), np.zeros(result.count + 1, np.int64), 3)
        grey = np.where(result.number >= 0, tone[result.number], 0.08)
        return _grey(grey), say("{count} pieces", count=result.count)
    if result.ndim == 3:
        vector = float(result.min()) < -1e-3
        codes = np.asarray(np.rint((result * 0.5 + 0.5) * 255), np.uint8) if vector else display_codes(result)
        return codes, "normals" if vector else "colour"
    low, high = float(result.min()), float(result.max())
    if high - low < EVEN:
        # Nothing to stretch: its own tone, as shares are, and half grey where it is none.
        tone = result if 0 <= low <= 1 else np.full_like(result, 0.5)
        return _grey(tone), say("{value} everywhere", value=format_number(low))
    return _grey((result - low) / max(high - low, 1e-9)), f"{format_number(low)} … {format_number(high)}"


def _grey(values: AnyArray) -> AnyArray:
    return np.repeat(np.rint(np.clip(values, 0, 1) * 255).astype(np.uint8)[..., None], 3, 2)


@dataclass(frozen=True, slots=True)
class Asked:
    """A recipe to be shown: of which layer, which step large, how finely, in which light."""

    surface: Surface
    layer: Layer
    recipe: Recipe
    chosen: str
    px: int
    lighting: Lighting


def recipe_picture(snapshot: Snapshot, asked: Asked, *, current: Current) -> RecipePicture:
    """The steps of a layer's or a rule's recipe at preview size, and one of them large."""
    begun = time.perf_counter()
    recipe, layer, chosen = asked.recipe, asked.layer, asked.chosen
    planner, run = snapshot.planner(), snapshot.evaluation(current)
    grid = Grid.for_repeat(asked.surface.width_mm, asked.surface.height_mm, asked.px)
    plan = planner.surface(asked.surface, grid)
    lit = run.value(planner.lit_of(plan, asked.lighting))
    planned = plan.of(layer.id)
    tasks = planner.recipe_steps(recipe, grid, layer.id, planned.place.below if planned else None)
    looks: dict[str, AnyArray] = {}
    costs: dict[str, float] = {}
    faults: dict[str, TesselError] = {}
    large: list[AnyArray] = []
    span = ""
    for name in [name for name in tasks if name in used(recipe) | {chosen}]:
        try:
            codes, told = result_codes(run.value(tasks[name]))
        except TesselError as error:
            faults[name] = error
            continue
        side = min(codes.shape[:2])
        looks[name] = np.asarray(
            cv2.resize(np.ascontiguousarray(codes[:side, :side]), (LOOK_PX, LOOK_PX), interpolation=cv2.INTER_AREA),
            np.uint8,
        )
        costs[name] = snapshot.cache.costs.get(tasks[name].key, 0.0)
        if name == chosen:
            large, span = mip_chain(codes), told
    return RecipePicture(
        layer.id,
        looks,
        costs,
        {**run.faults, **faults},
        chosen,
        large,
        span,
        mip_chain(lit),
        grid,
        (time.perf_counter() - begun) * 1000,
    )


def variant_pictures(
    snapshot: Snapshot, surface: Surface, layer: Layer, recipe: Recipe, *, lighting: Lighting, current: Current
) -> VariantPictures:
    """A recipe with its next seeds, small and lit, or as the cover it yields."""
    grid = Grid.for_repeat(surface.width_mm, surface.height_mm, VARIANT_PX)
    looks = {}
    for seed in range(recipe.seed, recipe.seed + VARIANTS):
        run: Evaluation = snapshot.evaluation(current)
        planner = snapshot.planner()
        below = planner.under(surface, layer.id, grid).below
        maps = run.value(planner.recipe(msgspec.structs.replace(recipe, seed=seed), grid, layer.id, below))
        kind = MapKind.OPACITY if MapKind.OPACITY in maps and MapKind.BASE_COLOUR not in maps else MapKind.BASE_COLOUR
        looks[seed] = lit_maps(maps, lighting) if MapKind.HEIGHT in maps else map_codes(kind, maps)
    return VariantPictures(layer.id, looks)
