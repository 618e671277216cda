"""From a document to keyed tasks.

A task's key is a hash of everything its result depends on: operation, version, parameters, the keys
of its inputs, the grid. Names and selection are left out, so equal work is done once.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from functools import partial
from typing import Any

from .. import registered  # noqa: F401 - declares every operation and kind
from ..buildup.kind import kind_of
from ..job.layers import Layer, Surface
from ..kernels.relief import occlusion_reach_px
from ..light.directions import Light
from ..light.lighting import Lighting
from ..relief.section import bed_of, beds_of
from ..sheet import Grid
from . import joins
from .area import Area
from .joins import CURVATURE_MM, OCCLUSION_REACH_MM
from .layers import LayerPlanner
from .protocol import Place, Seen
from .sheets import FLAT_PX
from .tasks import Loader, Local, Task, task_key

__all__ = ["FLAT_PX", "OCCLUSION_REACH_MM", "Light", "Lighting", "Loader", "Planned", "Planner", "SurfacePlan", "Task"]


@dataclass(frozen=True, slots=True)
class Planned:
    """One layer of a surface as it was planned: where it is joined, before its own rules, and the stack after it."""

    layer: Layer
    place: Place
    after: Task


@dataclass(frozen=True, slots=True)
class SurfacePlan:
    """A surface planned once, for every picture that is made of it.

    ``stacks`` are after each of its own layers, the bare sheet first; ``layers`` every layer that shows, those in
    bundles after their bundle.
    """

    surface: Surface
    grid: Grid
    stacks: tuple[Task, ...]
    layers: tuple[Planned, ...]
    finished: Task

    def of(self, id: str) -> Planned | None:
        """The planned layer of that id."""
        return next((planned for planned in self.layers if planned.layer.id == id), None)


@dataclass(slots=True)
class _Record:
    """Layers in the order they are planned."""

    layers: list[Planned] = field(default_factory=list)


class Planner(LayerPlanner):
    """Builds the tasks of one job. Holds nothing but the frozen job, ways to load pixels, and what it has planned."""

    _record: _Record | None = None

    def surface(self, surface: Surface, grid: Grid) -> SurfacePlan:
        """Plan a surface, once."""
        outer, record = (self._within, self._record), _Record()
        self._within, self._record = (*self._within, surface.id), record
        try:
            stacks = [self.bare(grid, surface.id)]
            known: dict[str, Seen] = {}
            for layer in surface.layers:
                stacks.append(self.joined(layer, Place(grid, stacks[-1], None, known)))
        finally:
            self._within, self._record = outer
        finished = self._finished(surface, grid, stacks[-1])
        return SurfacePlan(surface, grid, tuple(stacks), tuple(record.layers), finished)

    def _finished(self, surface: Surface, grid: Grid, stack: Task) -> Task:
        """Every map of a stack. Its normals and its occlusion are those of the last stack that was moulded: a layer in
        the colour alone leaves them as they are.
        """
        relief, id = self.moulded(stack), surface.id
        reach = math.ceil(occlusion_reach_px(grid, OCCLUSION_REACH_MM)) + 1
        sky = _of_relief("open sky", "Occlusion", joins.open_sky, relief, id, reach)
        faces = _of_relief("faces", "Normals", joins.faces, relief, id, 1)
        work = partial(joins.finish, cut_out=surface.cut_out)
        key = task_key("finished", *(["cut out"] if surface.cut_out else []), stack.key)
        # Water on it has faces of its own, a pixel around.
        local = Local(lambda _area: work, 1)
        return Task(key, surface.name, id, work, (stack, sky, faces), local=local)

    def joined(self, layer: Layer, place: Place) -> Task:
        """The stack after a layer, which lies only within the place's coverage. A layer that fails is passed over, and
        so is one that is hidden; what is held in a hidden one is planned all the same, for its small pictures.
        """
        record, index = self._record, -1
        if record is not None:
            index = len(record.layers)
            before = replace(place, known=dict(place.known))
            record.layers.append(Planned(layer, before, place.below))
        if not layer.shown:
            if record is not None:
                self._plan_hidden(layer, place)
            return place.below
        cover = self._covered(layer, place)
        kind = kind_of(layer.what)
        after = kind.join(self, layer, replace(place, cover=cover))
        if not kind.moulds(layer):
            self._moulded[after.key] = self.moulded(place.below)
        place.known[layer.id] = Seen(layer, cover, after)
        if record is not None:
            record.layers[index] = replace(record.layers[index], after=after)
        return after

    def _plan_hidden(self, layer: Layer, place: Place) -> None:
        below, known = place.below, dict(place.known)
        for inner in layer.what.held():
            below = self.joined(inner, replace(place, below=below, known=known))

    def _covered(self, layer: Layer, place: Place) -> Task | None:
        cover, within = self.coverage(layer, place.below, place.grid, place.known), place.cover
        if within is None or cover is None:
            return cover or within
        return Task(
            task_key("within", cover.key, within.key),
            "Where",
            layer.id,
            joins.both,
            (cover, within),
            local=Local.pointwise(joins.both),
        )

    # Surfaces ----------------------------------------------------------------------------------

    def stacks(self, surface: Surface, grid: Grid) -> list[Task]:
        """The stack after each layer, the bare sheet first. A layer that fails or is hidden is skipped."""
        return list(self.surface(surface, grid).stacks)

    def finished(self, surface: Surface, grid: Grid) -> Task:
        """Every map of a surface: the joined ones, and normal and occlusion of the joined relief."""
        return self.surface(surface, grid).finished

    def curvature(self, surface: Surface, grid: Grid) -> Task:
        """How far the joined relief bends, (H, W) in [0, 1]; 0.5 is flat, above it ridges."""
        return self.curvature_of(self.surface(surface, grid))

    def curvature_of(self, plan: SurfacePlan) -> Task:
        """As :meth:`curvature`, of a surface that is planned already."""
        key = task_key("curvature", CURVATURE_MM, plan.finished.key)
        return Task(key, "Curvature", plan.surface.id, joins.curvature, (plan.finished,))

    def beds_of(self, plan: SurfacePlan) -> Task:
        """What a cut through a planned surface needs: the relief after each layer, and nothing else of it."""
        id, last = plan.surface.id, plan.stacks[-1]
        each = tuple(Task(task_key("bed", stack.key), "Relief", id, bed_of, (stack,)) for stack in plan.stacks)
        # Hidden layers count: they leave the stack as it is, and a number of their own to those above.
        return Task(task_key("beds", *(task.key for task in each)), "Section", id, beds_of, (*each, last))

    def lit(self, surface: Surface, grid: Grid, lighting: Lighting) -> Task:
        """The lit picture of one cell, (H, W, 3) uint8 sRGB."""
        return self.lit_of(self.surface(surface, grid), lighting)

    def lit_of(self, plan: SurfacePlan, lighting: Lighting) -> Task:
        """As :meth:`lit`, of a surface that is planned already."""
        done, id, sheet = plan.finished, plan.surface.id, plan.grid
        # Shadows follow from the relief alone, and need not wait for what else is made of it.
        stack = self.moulded(plan.stacks[-1])
        span = Task(task_key("span", stack.key), "Relief", id, joins.span, (stack,), gridless=True)
        light, radius = (lighting.light, lighting.dome.key.radius) if lighting.shadows else ((0.0, 0.0, 1.0), 0.0)
        throw: Callable[..., Any] = partial(joins.shadow, light=light, radius=radius, sheet=sheet)
        shadow = Task(
            task_key("shadow", light, radius, stack.key),
            "Shadow",
            id,
            throw,
            (stack, span),
            local=Local(lambda _area: throw, partial(joins.shadow_reach, light=light, sheet=sheet)),
        )

        def show(area: Area) -> Callable[..., Any]:
            return partial(joins.lit, lighting=lighting, sheet=sheet, origin=(area.row, area.column))

        whole = show(Area(sheet, 0, 0, *sheet.shape))
        key = task_key("lit", lighting.told, done.key)
        return Task(key, "Light", id, whole, (done, shadow), local=Local(show))

    def under(self, surface: Surface, layer_id: str, grid: Grid) -> Place:
        """Where a layer is joined, also within bundles; on the bare sheet where there is no such layer."""
        planned = self.surface(surface, grid).of(layer_id)
        return planned.place if planned is not None else Place(grid, self.bare(grid, surface.id), None, {})


def _of_relief(word: str, label: str, work: Callable[..., Any], relief: Task, owner: str, reach: int) -> Task:
    """What follows from a stack's relief, looking so many pixels around."""
    return Task(task_key(word, relief.key), label, owner, work, (relief,), local=Local(lambda _area: work, reach))


def seated_layers(layers: tuple[Layer, ...]) -> list[Layer]:
    """The layers that take a number in the stack, from the bottom up: shown ones, those of passing bundles in their
    place.
    """
    seated: list[Layer] = []
    for layer in layers:
        if not layer.shown:
            continue
        if layer.what.holds and layer.what.passing:
            seated += seated_layers(layer.what.held())
        else:
            seated.append(layer)
    return seated
