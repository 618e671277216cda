"""From a document to keyed tasks.

A task's key is a hash of everything its result depends on: operation, version, parameters, the keys
of its inputs, the grid. Names and selection are left out, so equal work is done once.
"""

from __future__ import annotations

from functools import partial
from typing import Any

import numpy as np

from . import registered  # noqa: F401 - declares every operation
from .buildup.seat import Stack, bare, lay
from .buildup.where import combine, lay_strokes
from .colour import hex_to_linear
from .document import Layer, PlainWhat, Recipe, RecipeWhat, Rule, Setting, Source, SourceWhat, Step, Surface
from .errors import MissingError
from .gather.conventions import slopes_of
from .kernels.relief import cast_shadow, normal_of_height, occlusion
from .kernels.shade import shade
from .maps import MapKind, MapSet, plain
from .operation import REGISTRY, Ground, find
from .plan_sheets import FLAT_PX, SheetPlanner
from .recipe.evaluate import gather_yields, passed_on, run_step, seeded
from .recipe.reliefs import GATHERED
from .relief.curvature import curvature
from .relief.integrate import height_of_slopes
from .repeat.resample import tiled_map
from .sheet import AnyArray, Grid, Raster
from .tasks import Loader, Task, fail, task_key

Light = tuple[float, float, float]
__all__ = ["FLAT_PX", "OCCLUSION_REACH_MM", "Light", "Loader", "Planner", "Task"]


class Planner(SheetPlanner):
    """Builds the tasks of one job. Holds nothing but the frozen job and ways to load pixels."""

    # Layers ------------------------------------------------------------------------------------

    def layer_maps(self, layer: Layer, grid: Grid, below: Task | None = None) -> Task:
        """What a layer is made of, on the surface's grid; its recipe may look at what lies ``below``."""
        what = layer.what
        if isinstance(what, PlainWhat):
            return Task(task_key("plain", what, grid), layer.name, layer.id, partial(_plain_maps, what, grid))
        if isinstance(what, RecipeWhat):
            return self.recipe(what.recipe, grid, layer.id, below)
        return self._source_maps(what, grid, layer)

    def _source_maps(self, what: SourceWhat, grid: Grid, layer: Layer) -> Task:
        try:
            source = self.job.source(what.source)
        except MissingError as error:
            return Task(task_key("missing", what.source), layer.name, layer.id, partial(fail, error))
        px = max(grid.shape) * max(what.across, what.up)
        sheet = self.broken(source, px)
        laid = Task(
            task_key("laid", what.across, what.up, grid, sheet.key), layer.name, layer.id,
            partial(_lay_in_sheet, grid=grid, across=what.across, up=what.up), (sheet,),
        )  # fmt: skip
        return self.estimated(source, what, laid, layer.id)

    def estimated(self, source: Source, what: SourceWhat | None, laid: Task, owner: str) -> Task:
        """A sheet with the maps it lacks estimated, as the source or the layer says."""
        height = (what.height if what else None) or source.height
        roughness = (what.roughness if what else None) or source.roughness
        return Task(
            task_key("estimates", height.complete(), roughness.complete(), source.true_relief, laid.key), source.name, owner,
            partial(_estimate, height=height, roughness=roughness, true_relief=source.true_relief), (laid,),
        )  # fmt: skip

    def recipe(self, recipe: Recipe, grid: Grid, owner: str, below: Task | None = None) -> Task:
        """The maps a recipe yields; each step is a task, so that a change recomputes what hangs on it."""
        steps = self.recipe_steps(recipe, grid, owner, below)
        wanted = {kind: name for kind, name in recipe.yields.items() if name in steps}
        names = sorted(set(wanted.values()))
        return Task(
            task_key("yields", grid, wanted, *(steps[name].key for name in names)), "Recipe", owner,
            partial(_yields, grid=grid, recipe=recipe, names=names), tuple(steps[name] for name in names),
        )  # fmt: skip

    def recipe_steps(self, recipe: Recipe, grid: Grid, owner: str, below: Task | None = None) -> dict[str, Task]:
        """Every step's task by its name; a muted one is what it passes on."""
        steps: dict[str, Task] = {}
        for step in recipe.steps:
            through = passed_on(step) if step.muted else ""
            steps[step.name] = steps[through] if through in steps else self.step(seeded(step, recipe.seed), steps, grid, owner, below)
        return steps

    def step(self, step: Step, above: dict[str, Task], grid: Grid, owner: str, below: Task | None = None) -> Task:
        """One step of a recipe."""
        if step.op in REGISTRY and "ground" in REGISTRY[step.op].inputs.values():
            under = below or Task(task_key("bare", grid), "Sheet", owner, partial(bare, grid))
            return Task(task_key("beneath", step.op, grid, under.key), step.name, owner, _height_beneath, (under,))
        if step.op in GATHERED:
            return self.gathered(step, grid, owner)
        version = REGISTRY[step.op].version if step.op in REGISTRY else 0
        values = REGISTRY[step.op].defaults() | step.values if step.op in REGISTRY else step.values
        slots = sorted(slot for slot, name in step.made_from.items() if name in above)
        names = [step.made_from[slot] for slot in slots]
        inputs = tuple(above[name] for name in names)
        key = task_key("step", step.op, version, values, slots, grid, *(task.key for task in inputs))
        return Task(key, step.name, owner, partial(_run_step, grid=grid, step=step, names=names), inputs)

    def gathered(self, step: Step, grid: Grid, owner: str) -> Task:
        """A step that brings a map of a source; grey while no source is chosen."""
        values = REGISTRY[step.op].bind(step.values)
        if not values["source"]:
            return Task(task_key("no source", step.op, grid), step.name, owner, partial(_no_source, grid=grid, op=step.op))
        what = SourceWhat(source=str(values["source"]), across=int(values["across"]), up=int(values["up"]))
        maps = self._source_maps(what, grid, Layer(id=owner, name=step.name, what=what))
        kind = MapKind.BASE_COLOUR if step.op == "source.colour" else MapKind(str(values["takes"]))
        return Task(task_key("map of", kind, maps.key), step.name, owner, partial(_one_map, kind=kind), (maps,))

    def coverage(self, layer: Layer, below: Task, grid: Grid) -> Task | None:
        """Where a layer lies, by its rules; None is everywhere."""
        done: Task | None = None
        for rule in layer.where:
            one = self.rule(rule, below, grid, layer.id)
            inputs = (one,) if done is None else (done, one)
            done = Task(
                task_key("combine", rule.mode, *(task.key for task in inputs)), "Where", layer.id,
                partial(_combine, mode=rule.mode), inputs,
            )  # fmt: skip
        return done

    def rule(self, rule: Rule, below: Task, grid: Grid, owner: str) -> Task:
        """One where-rule. Strokes but the last are one task, so that painting replays only the last."""
        if rule.rule.op == "where.painted":
            older, last = rule.strokes[:-1], rule.strokes[-1:]
            under = Task(task_key("strokes", older, grid), "Painted", owner, partial(_strokes, strokes=older, grid=grid))
            return Task(
                task_key("stroke", last, under.key), "Painted", owner, partial(_strokes, strokes=last, grid=grid), (under,)
            )
        if rule.recipe is not None:
            steps = self.recipe_steps(rule.recipe, grid, owner, below)
            yielded = steps.get(rule.recipe.yields.get(MapKind.OPACITY, ""))
            if yielded is not None:
                return Task(task_key("cover", yielded.key), "Where", owner, _cover, (yielded,))
        operation = REGISTRY.get(rule.rule.op)
        inputs = (below,) if operation is not None and operation.inputs else ()
        return Task(
            task_key("rule", rule.rule.op, rule.rule.complete(), grid, *(task.key for task in inputs)), "Where", owner,
            partial(_rule, rule=rule, grid=grid), inputs,
        )  # fmt: skip

    # Surfaces ----------------------------------------------------------------------------------

    def stacks(self, surface: Surface, grid: Grid) -> list[Task]:
        """The stack after each layer, the bare sheet first. A layer that fails or is hidden is skipped."""
        below = Task(task_key("bare", grid), "Sheet", surface.id, partial(bare, grid))
        done = [below]
        for layer in surface.layers:
            below = self._stack(layer, below, grid) if layer.shown else below
            done.append(below)
        return done

    def _stack(self, layer: Layer, below: Task, grid: Grid) -> Task:
        maps = self.layer_maps(layer, grid, below)
        cover = self.coverage(layer, below, grid)
        inputs = (below, maps) if cover is None else (below, maps, cover)
        seat = layer.seat.complete()
        return Task(
            task_key("seat", seat, sorted(layer.maps), *(task.key for task in inputs)), layer.name, layer.id,
            partial(_seat, layer=layer), inputs, below,
        )  # fmt: skip

    def finished(self, surface: Surface, grid: Grid) -> Task:
        """Every map of a surface: the joined ones, and normal and occlusion of the joined relief."""
        stack = self.stacks(surface, grid)[-1]
        return Task(task_key("finished", stack.key), surface.name, surface.id, _finish, (stack,))

    def curvature(self, surface: Surface, grid: Grid) -> Task:
        """How far the joined relief bends, (H, W) in [0, 1]; 0.5 is flat, above it ridges."""
        done = self.finished(surface, grid)
        return Task(task_key("curvature", CURVATURE_MM, done.key), "Curvature", surface.id, _curvature, (done,))

    def lit(self, surface: Surface, grid: Grid, light: Light) -> Task:
        """The lit picture of one cell, (H, W, 3) uint8 sRGB."""
        done = self.finished(surface, grid)
        shadow = Task(
            task_key("shadow", light, done.key), "Shadow", surface.id, partial(_shadow, light=light), (done,)
        )
        return Task(
            task_key("lit", light, done.key), "Light", surface.id, partial(_light, light=light), (done, shadow)
        )


def _no_source(*, grid: Grid, op: str) -> Raster:
    return np.asarray(find(op).run(grid, **find(op).bind({})), np.float32)


def _one_map(maps: MapSet, *, kind: MapKind) -> Raster:
    return np.ascontiguousarray(maps.or_default(kind))


def _height_beneath(stack: Stack) -> Raster:
    return np.ascontiguousarray(stack.height)


def _cover(field: Raster) -> Raster:
    return np.clip(field, 0, 1)


def _plain_maps(what: PlainWhat, grid: Grid) -> MapSet:
    return MapSet(
        grid,
        {
            MapKind.BASE_COLOUR: np.ascontiguousarray(plain(grid, hex_to_linear(what.colour))),
            MapKind.ROUGHNESS: np.full(grid.shape, what.roughness, np.float32),
            MapKind.HEIGHT: np.zeros(grid.shape, np.float32),
        },
    )


def _lay_in_sheet(sheet: MapSet, *, grid: Grid, across: int, up: int) -> MapSet:
    return MapSet(grid, {kind: tiled_map(kind, pixels, across, up, grid.shape) for kind, pixels in sheet.maps.items()})


_OWN = frozenset({MapKind.BASE_COLOUR, MapKind.ROUGHNESS, MapKind.METALNESS, MapKind.OPACITY})


def _estimate(laid: MapSet, *, height: Setting, roughness: Setting, true_relief: bool) -> MapSet:
    colour = laid.or_default(MapKind.BASE_COLOUR)
    kept: dict[MapKind, Raster] = {k: p for k, p in laid.maps.items() if k in _OWN}
    rise = float(find(height.op).bind(height.values)["rise"])
    if MapKind.HEIGHT in laid:
        kept[MapKind.HEIGHT] = laid[MapKind.HEIGHT] * np.float32(rise / TRUE_RISE if true_relief else rise)
    elif MapKind.NORMAL in laid:
        kept[MapKind.HEIGHT] = height_of_slopes(*slopes_of(laid[MapKind.NORMAL]), laid.grid) * np.float32(rise / TRUE_RISE)
    for kind, setting in ((MapKind.HEIGHT, height), (MapKind.ROUGHNESS, roughness)):
        if kind not in kept:
            operation = find(setting.op)
            kept[kind] = operation.run(laid.grid, colour, **operation.bind(setting.values))
    return MapSet(laid.grid, kept)


TRUE_RISE = 4.0
"""At this rise (the default) a height integrated from a normal map is true to the map."""


def _yields(*results: Any, grid: Grid, recipe: Recipe, names: list[str]) -> MapSet:
    return gather_yields(grid, recipe, dict(zip(names, results, strict=True)))


def _run_step(*results: Any, grid: Grid, step: Step, names: list[str]) -> Any:
    return run_step(grid, step, dict(zip(names, results, strict=True)))


def _combine(*rasters: Raster, mode: str) -> Raster:
    return combine(rasters[0], rasters[1], mode) if len(rasters) == 2 else combine(None, rasters[0], mode)


def _strokes(*under: Raster, strokes: Any, grid: Grid) -> Raster:
    return lay_strokes(under[0] if under else np.zeros(grid.shape, np.float32), strokes, grid)


def _rule(*below: Stack, rule: Rule, grid: Grid) -> Raster:
    operation = find(rule.rule.op)
    ground = [Ground(grid, stack.height) for stack in below]
    return operation.run(grid, *ground, **operation.bind(rule.rule.values))  # type: ignore[no-any-return]


def _seat(below: Stack, maps: MapSet, *cover: Raster, layer: Layer) -> Stack:
    values = find(layer.seat.op).bind(layer.seat.values)
    where = cover[0] if cover else None
    if MapKind.OPACITY in maps:
        # What is cut out of a source lies nowhere.
        where = maps[MapKind.OPACITY] if where is None else where * maps[MapKind.OPACITY]
    return lay(below, maps, where, layer.maps, **values)  # type: ignore[arg-type]


OCCLUSION_REACH_MM = 12.0


def _finish(stack: Stack) -> MapSet:
    height = stack.height
    return stack.map_set().with_maps(
        normal=normal_of_height(height, stack.grid),
        ambient_occlusion=occlusion(height, stack.grid, reach_mm=OCCLUSION_REACH_MM),
    )


CURVATURE_MM = 2.0


def _curvature(done: MapSet) -> Raster:
    return curvature(done[MapKind.HEIGHT], done.grid, radius_mm=CURVATURE_MM)


def _shadow(done: MapSet, *, light: Light) -> Raster:
    return cast_shadow(done[MapKind.HEIGHT], done.grid, light)


def _light(done: MapSet, shadow: Raster, *, light: Light) -> AnyArray:
    return shade(
        done[MapKind.BASE_COLOUR], done[MapKind.NORMAL], done[MapKind.ROUGHNESS], done[MapKind.METALNESS],
        done[MapKind.AMBIENT_OCCLUSION], shadow, light=light,
    )  # fmt: skip
