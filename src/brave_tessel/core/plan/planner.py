"""From a document to keyed tasks.

A task's key is a hash of everything its result depends on: operation, version, parameters, the keys
of its inputs, the grid. Names and selection are left out, so equal work is done once.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from functools import partial
from typing import Any

import msgspec

from ..buildup.seat import Seat, reach_mm
from ..buildup.stack import bare
from ..job.document import BundleWhat, InscriptionWhat, Layer, PaintedWhat, Stroke, Surface, WaterWhat
from ..kernels.relief import occlusion_reach_px
from ..maps import BLENDED
from ..sheet import Grid
from . import joins
from .joins import CURVATURE_MM, OCCLUSION_REACH_MM, RIPPLES, Light
from .layers import LayerPlanner
from .sheets import FLAT_PX
from .tasks import Loader, Local, Task, reach_px, task_key
from .where import Seen

__all__ = ["FLAT_PX", "OCCLUSION_REACH_MM", "Light", "Loader", "Planner", "Task"]


def bare_sheet(grid: Grid, owner: str) -> Task:
    """Nothing laid yet."""
    return Task(
        task_key("bare", grid), "Sheet", owner, partial(bare, grid), local=Local(lambda area: partial(bare, area.own))
    )


class Planner(LayerPlanner):
    """Builds the tasks of one job. Holds nothing but the frozen job and ways to load pixels."""

    def stacks(self, surface: Surface, grid: Grid) -> list[Task]:
        """The stack after each layer, the bare sheet first. A layer that fails or is hidden is skipped."""
        below = bare_sheet(grid, surface.id)
        outer = self._within
        self._within = (*outer, surface.id)
        done = [below]
        known: dict[str, Seen] = {}
        for layer in surface.layers:
            below = self.joined(layer, below, grid, known)
            done.append(below)
        self._within = outer
        return done

    def joined(self, layer: Layer, below: Task, grid: Grid, known: dict[str, Seen], within: Task | None = None) -> Task:
        """The stack after a layer, which lies only ``within`` a bundle's coverage."""
        if not layer.shown:
            return below
        cover = self._covered(layer, below, grid, known, within)
        if isinstance(layer.what, BundleWhat):
            after = self._bundle(layer, layer.what, below, grid, known, cover)
        elif isinstance(layer.what, PaintedWhat | WaterWhat):
            after = self._special(layer, below, grid, cover)
        else:
            after = self._seated(layer, self.layer_maps(layer, grid, below), below, cover, grid)
        known[layer.id] = Seen(layer, cover, after)
        return after

    def _covered(
        self, layer: Layer, below: Task, grid: Grid, known: dict[str, Seen], within: Task | None
    ) -> Task | None:
        cover = self.coverage(layer, below, grid, known)
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

    def _seated(self, layer: Layer, maps: Task, below: Task, cover: Task | None, grid: Grid) -> Task:
        values = layer.seat.complete()
        given = {name: values[name] for name in ("form", "grain", "split", "contrast", "turn_over") if name in values}
        relief = None
        if any(given.get(name, 1.0) != 1 for name in ("form", "grain", "contrast")) or given.get("turn_over"):
            # A task of its own: it stays when only the layer's place or level changes, and looks at the whole sheet.
            relief = Task(
                task_key("own relief", layer.seat.op, given, maps.key),
                layer.name,
                layer.id,
                partial(joins.own_relief, layer=layer),
                (maps,),
            )
        if layer.tone.value("tone_match") not in {0}:
            maps = Task(
                task_key("toned", layer.tone.complete(), maps.key, below.key),
                layer.name,
                layer.id,
                partial(joins.toned, layer=layer),
                (maps, below),
            )
        covers = 0 if cover is None else 1
        inputs = (below, maps, *(task for task in (cover, relief) if task is not None))
        told = [layer.seat.op, values, {kind: layer.mix(kind) for kind in BLENDED}, covers]
        painted = layer.what.cut.value("painted") if isinstance(layer.what, InscriptionWhat) else 1.0
        work = partial(joins.seat, layer=layer, covers=covers)
        return Task(
            task_key("seat", told, painted, *(task.key for task in inputs)),
            layer.name,
            layer.id,
            work,
            inputs,
            below,
            Local(lambda _area: work, _seat_reach(values, grid)),
        )

    def _special(self, layer: Layer, below: Task, grid: Grid, cover: Task | None) -> Task:
        """Layers that change what lies beneath instead of being laid on it."""
        what = layer.what
        inputs = (below,) if cover is None else (below, cover)
        if isinstance(what, WaterWhat):
            water = what.water
            ripples = {name: water.value(name) for name in RIPPLES}
            surface = Task(
                task_key("ripples", ripples, grid), layer.name, layer.id, partial(joins.rippled, grid, water=water)
            )
            every = (below, surface, *inputs[1:])
            work = partial(joins.stand, water=water)
            key = task_key("water", water.complete(), *(task.key for task in every))
            return Task(key, layer.name, layer.id, work, every, below, Local.pointwise(work))
        assert isinstance(what, PaintedWhat)
        older, last = what.strokes[:-1], what.strokes[-1:]
        if older and not any(stroke.erase or stroke.into == "smooth" for stroke in what.strokes):
            # While painting only the last stroke is carried out anew.
            first = msgspec.structs.replace(layer, what=PaintedWhat(strokes=older))
            under = self._special(first, below, grid, cover)
            return self._paint(layer, last, (under, *inputs[1:]), below, grid, joining=True)
        return self._paint(layer, what.strokes, inputs, below, grid, joining=False)

    def _paint(
        self,
        layer: Layer,
        strokes: tuple[Stroke, ...],
        inputs: tuple[Task, ...],
        below: Task,
        grid: Grid,
        *,
        joining: bool,
    ) -> Task:
        tips = self.tips(strokes, layer.id)
        told = [strokes, joining, len(inputs), {kind: layer.mix(kind) for kind in BLENDED}]
        # Where the stroke began may lie elsewhere than the part that is worked out.
        flat = [
            Task(
                task_key("level", stroke.points[:1], inputs[0].key),
                "Painted",
                layer.id,
                partial(joins.stroke_level, stroke=stroke),
                inputs[:1],
                gridless=True,
            )
            for stroke in strokes
            if len(strokes) == 1 and stroke.into == "flatten"
        ]
        every = (*inputs, *tips.values(), *flat)
        work = partial(
            joins.paint_on, layer=layer, strokes=strokes, goes_on=joining, covers=len(inputs) - 1, tips=list(tips)
        )
        smooth = max((stroke.size_mm for stroke in strokes if stroke.into == "smooth"), default=0.0)
        local = Local(lambda area: partial(work, area=area), reach_px(grid, smooth))
        return Task(
            task_key("paint", told, *(task.key for task in every)),
            layer.name,
            layer.id,
            work,
            every,
            below,
            local if flat or all(stroke.into != "flatten" for stroke in strokes) else None,
        )

    def _bundle(
        self, layer: Layer, what: BundleWhat, below: Task, grid: Grid, known: dict[str, Seen], cover: Task | None
    ) -> Task:
        if what.passing:
            after = below
            for number, inner in enumerate(what.layers):
                after = self.joined(inner, after, grid, known, self._weighed(what, number, cover, grid, layer.id))
            return after
        return self._seated(layer, self.closed_bundle(layer, below, grid), below, cover, grid)

    def closed_bundle(self, layer: Layer, below: Task, grid: Grid) -> Task:
        """The maps of a bundle's layers joined on an empty sheet."""
        what = layer.what
        assert isinstance(what, BundleWhat)
        inner_stack = bare_sheet(grid, layer.id)
        inside: dict[str, Seen] = {}
        done: list[Task] = []
        for number, inner in enumerate(what.layers):
            after = self.joined(inner, inner_stack, grid, inside, self._weighed(what, number, None, grid, layer.id))
            if after is not inner_stack:
                done.append(after)
            inner_stack = after
        return Task(
            task_key("bundle", grid, *(task.key for task in done)),
            layer.name,
            layer.id,
            partial(joins.bundled, grid=grid),
            tuple(done),
            local=Local(lambda area: partial(joins.bundled, grid=area.own), 1),
        )

    def _weighed(self, what: BundleWhat, number: int, cover: Task | None, grid: Grid, owner: str) -> Task | None:
        """The coverage of one layer of a bundle, weighed by the bundle's mix."""
        weight = min(1.0, 2 * (1 - what.mix)) if number == 0 else min(1.0, 2 * what.mix)
        if weight == 1 or len(what.layers) < 2:
            return cover
        inputs = () if cover is None else (cover,)
        return Task(
            task_key("weighed", weight, grid, *(t.key for t in inputs)),
            "Mix",
            owner,
            partial(joins.weigh, weight=weight, grid=grid),
            inputs,
            local=Local(lambda area: partial(joins.weigh, weight=weight, grid=area.own)),
        )

    # Surfaces ----------------------------------------------------------------------------------

    def finished(self, surface: Surface, grid: Grid) -> Task:
        """Every map of a surface: the joined ones, and normal and occlusion of the joined relief."""
        stack = self.stacks(surface, grid)[-1]
        reach = math.ceil(occlusion_reach_px(grid, OCCLUSION_REACH_MM)) + 1
        return Task(
            task_key("finished", stack.key),
            surface.name,
            surface.id,
            joins.finish,
            (stack,),
            local=Local(lambda _area: joins.finish, reach),
        )

    def curvature(self, surface: Surface, grid: Grid) -> Task:
        """How far the joined relief bends, (H, W) in [0, 1]; 0.5 is flat, above it ridges."""
        done = self.finished(surface, grid)
        return Task(task_key("curvature", CURVATURE_MM, done.key), "Curvature", surface.id, joins.curvature, (done,))

    def lit(
        self, surface: Surface, grid: Grid, light: Light, *, sun: float = 0.9, sky: float = 0.4, exposure: float = 1.0
    ) -> Task:
        """The lit picture of one cell, (H, W, 3) uint8 sRGB."""
        done = self.finished(surface, grid)
        # Shadows follow from the relief alone, and need not wait for what else is made of it.
        (stack,) = done.inputs
        span = Task(task_key("span", stack.key), "Relief", surface.id, joins.span, (stack,), gridless=True)
        throw: Callable[..., Any] = partial(joins.shadow, light=light, sheet=grid)
        shadow = Task(
            task_key("shadow", light, stack.key),
            "Shadow",
            surface.id,
            throw,
            (stack, span),
            local=Local(lambda _area: throw, partial(joins.shadow_reach, light=light, sheet=grid)),
        )
        show = partial(joins.lit, light=light, strengths={"sun": sun, "sky": sky, "exposure": exposure})
        return Task(
            task_key("lit", light, [sun, sky, exposure], done.key),
            "Light",
            surface.id,
            show,
            (done, shadow),
            local=Local.pointwise(show),
        )

    def under(self, surface: Surface, layer_id: str, grid: Grid) -> tuple[Task, dict[str, Seen]]:
        """The stack beneath a layer, also within bundles, and the layers joined by then."""
        for layer, below, known in self.walk(surface, grid):
            if layer.id == layer_id:
                return below, known
        return bare_sheet(grid, surface.id), {}

    def walk(self, surface: Surface, grid: Grid) -> Iterator[tuple[Layer, Task, dict[str, Seen]]]:
        """Every layer from the bottom up, a bundle before those within it: the stack beneath it, and the layers
        joined by then.
        """
        outer, self._within = self._within, (*self._within, surface.id)
        try:
            yield from self._walk(surface.layers, bare_sheet(grid, surface.id), grid, {})
        finally:
            self._within = outer

    def _walk(
        self, layers: tuple[Layer, ...], below: Task, grid: Grid, known: dict[str, Seen]
    ) -> Iterator[tuple[Layer, Task, dict[str, Seen]]]:
        for layer in layers:
            yield layer, below, known
            if isinstance(layer.what, BundleWhat):
                start = below if layer.what.passing else bare_sheet(grid, layer.id)
                yield from self._walk(layer.what.layers, start, grid, dict(known))
            below = self.joined(layer, below, grid, known)


def seated_layers(layers: tuple[Layer, ...]) -> list[Layer]:
    """The layers that take a number in the stack, from the bottom up: shown ones, those of passing bundles in their
    place.
    """
    seated: list[Layer] = []
    for layer in layers:
        if not layer.shown:
            continue
        if isinstance(layer.what, BundleWhat) and layer.what.passing:
            seated += seated_layers(layer.what.layers)
        else:
            seated.append(layer)
    return seated


def _seat_reach(values: dict[str, Any], grid: Grid) -> int:
    """How far a seat looks at the ground, pixels; of values that are not checked yet."""
    known = {
        name: float(values[name])
        for name in ("show_through", "drape", "split")
        if isinstance(values.get(name), int | float)
    }
    return reach_px(grid, reach_mm(Seat(**known)))  # type: ignore[arg-type]
