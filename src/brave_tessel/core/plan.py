"""From a document to keyed tasks.

A task's key is a hash of everything its result depends on: operation, version, parameters, the keys
of its inputs, the grid. Names and selection are left out, so equal work is done once.
"""

from __future__ import annotations

from dataclasses import replace
from functools import partial

import msgspec
import numpy as np

from .buildup.mixing import with_detail
from .buildup.painted import paint_on
from .buildup.seat import Seat, lay
from .buildup.stack import Stack, bare
from .buildup.tone import match
from .buildup.water import stand
from .document import BundleWhat, InscriptionWhat, Layer, MapMix, PaintedWhat, Surface, WaterWhat
from .kernels.relief import cast_shadow, normal_of_height, occlusion
from .kernels.shade import shade
from .maps import BLENDED, MapKind, MapSet
from .operation import find
from .plan_layers import LayerPlanner
from .plan_sheets import FLAT_PX
from .plan_where import Seen, as_tip
from .relief.curvature import curvature
from .sheet import AnyArray, Grid, Raster
from .tasks import Loader, Task, task_key

Light = tuple[float, float, float]
__all__ = ["FLAT_PX", "OCCLUSION_REACH_MM", "Light", "Loader", "Planner", "Task"]


class Planner(LayerPlanner):
    """Builds the tasks of one job. Holds nothing but the frozen job and ways to load pixels."""

    def stacks(self, surface: Surface, grid: Grid) -> list[Task]:
        """The stack after each layer, the bare sheet first. A layer that fails or is hidden is skipped."""
        below = Task(task_key("bare", grid), "Sheet", surface.id, partial(bare, grid))
        outer = self._within
        self._within = (*outer, surface.id)
        done = [below]
        known: dict[str, Seen] = {}
        for layer in surface.layers:
            below = self._joined(layer, below, grid, known)
            done.append(below)
        self._within = outer
        return done

    def _joined(self, layer: Layer, below: Task, grid: Grid, known: dict[str, Seen], within: Task | None = None) -> Task:
        """The stack after a layer, which lies only ``within`` a bundle's coverage."""
        if not layer.shown:
            return below
        cover = self._covered(layer, below, grid, known, within)
        if isinstance(layer.what, BundleWhat):
            after = self._bundle(layer, layer.what, below, grid, known, cover)
        elif isinstance(layer.what, PaintedWhat | WaterWhat):
            after = self._special(layer, below, grid, cover)
        else:
            after = self._seated(layer, self.layer_maps(layer, grid, below), below, cover)
        known[layer.id] = Seen(layer, cover, after)
        return after

    def _covered(self, layer: Layer, below: Task, grid: Grid, known: dict[str, Seen], within: Task | None) -> Task | None:
        cover = self.coverage(layer, below, grid, known)
        if within is None or cover is None:
            return cover or within
        return Task(task_key("within", cover.key, within.key), "Where", layer.id, _both, (cover, within))

    def _seated(self, layer: Layer, maps: Task, below: Task, cover: Task | None) -> Task:
        inputs = (below, maps) if cover is None else (below, maps, cover)
        told = [layer.seat.op, layer.seat.complete(), layer.tone.complete(), {kind: layer.mix(kind) for kind in BLENDED}]
        painted = layer.what.cut.value("painted") if isinstance(layer.what, InscriptionWhat) else 1.0
        return Task(
            task_key("seat", told, painted, *(task.key for task in inputs)), layer.name, layer.id, partial(_seat, layer=layer), inputs, below
        )

    def _special(self, layer: Layer, below: Task, grid: Grid, cover: Task | None) -> Task:
        """Layers that change what lies beneath instead of being laid on it."""
        what = layer.what
        inputs = (below,) if cover is None else (below, cover)
        if isinstance(what, WaterWhat):
            key = task_key("water", what.water.complete(), *(task.key for task in inputs))
            return Task(key, layer.name, layer.id, partial(_stand, layer=layer), inputs, below)
        assert isinstance(what, PaintedWhat)
        older, last = what.strokes[:-1], what.strokes[-1:]
        if older and not any(stroke.erase or stroke.into == "smooth" for stroke in what.strokes):
            # While painting only the last stroke is carried out anew.
            first = msgspec.structs.replace(layer, what=PaintedWhat(strokes=older))
            under = self._special(first, below, grid, cover)
            return self._paint(layer, last, (under, *inputs[1:]), below, joins=True)
        return self._paint(layer, what.strokes, inputs, below, joins=False)

    def _paint(self, layer: Layer, strokes: tuple[object, ...], inputs: tuple[Task, ...], below: Task, *, joins: bool) -> Task:
        tips = self.tips(strokes, layer.id)  # type: ignore[arg-type]
        told = [strokes, joins, len(inputs), {kind: layer.mix(kind) for kind in BLENDED}]
        every = (*inputs, *tips.values())
        return Task(
            task_key("paint", told, *(task.key for task in every)), layer.name, layer.id,
            partial(_paint_on, layer=layer, strokes=strokes, joins=joins, covers=len(inputs) - 1, tips=list(tips)), every, below,
        )  # fmt: skip

    def _bundle(self, layer: Layer, what: BundleWhat, below: Task, grid: Grid, known: dict[str, Seen], cover: Task | None) -> Task:
        if what.passing:
            after = below
            for number, inner in enumerate(what.layers):
                after = self._joined(inner, after, grid, known, self._weighed(what, number, cover, grid, layer.id))
            return after
        return self._seated(layer, self.closed_bundle(layer, below, grid), below, cover)

    def closed_bundle(self, layer: Layer, below: Task, grid: Grid) -> Task:
        """The maps of a bundle's layers joined on an empty sheet."""
        what = layer.what
        assert isinstance(what, BundleWhat)
        inner_stack = Task(task_key("bare", grid), "Sheet", layer.id, partial(bare, grid))
        inside: dict[str, Seen] = {}
        done: list[Task] = []
        for number, inner in enumerate(what.layers):
            after = self._joined(inner, inner_stack, grid, inside, self._weighed(what, number, None, grid, layer.id))
            if after is not inner_stack:
                done.append(after)
            inner_stack = after
        return Task(task_key("bundle", grid, *(task.key for task in done)), layer.name, layer.id, partial(_bundled, grid=grid), tuple(done))

    def _weighed(self, what: BundleWhat, number: int, cover: Task | None, grid: Grid, owner: str) -> Task | None:
        """The coverage of one layer of a bundle, weighed by the bundle's mix."""
        weight = min(1.0, 2 * (1 - what.mix)) if number == 0 else min(1.0, 2 * what.mix)
        if weight == 1 or len(what.layers) < 2:
            return cover
        inputs = () if cover is None else (cover,)
        return Task(task_key("weighed", weight, grid, *(t.key for t in inputs)), "Mix", owner, partial(_weigh, weight=weight, grid=grid), inputs)

    # Surfaces ----------------------------------------------------------------------------------

    def finished(self, surface: Surface, grid: Grid) -> Task:
        """Every map of a surface: the joined ones, and normal and occlusion of the joined relief."""
        stack = self.stacks(surface, grid)[-1]
        return Task(task_key("finished", stack.key), surface.name, surface.id, _finish, (stack,))

    def curvature(self, surface: Surface, grid: Grid) -> Task:
        """How far the joined relief bends, (H, W) in [0, 1]; 0.5 is flat, above it ridges."""
        done = self.finished(surface, grid)
        return Task(task_key("curvature", CURVATURE_MM, done.key), "Curvature", surface.id, _curvature, (done,))

    def lit(self, surface: Surface, grid: Grid, light: Light, *, sun: float = 0.9, sky: float = 0.4, exposure: float = 1.0) -> Task:
        """The lit picture of one cell, (H, W, 3) uint8 sRGB."""
        done = self.finished(surface, grid)
        shadow = Task(
            task_key("shadow", light, done.key), "Shadow", surface.id, partial(_shadow, light=light), (done,)
        )
        strengths = {"sun": sun, "sky": sky, "exposure": exposure}
        return Task(
            task_key("lit", light, strengths, done.key), "Light", surface.id, partial(_light, light=light, strengths=strengths), (done, shadow)
        )

    def under(self, surface: Surface, layer_id: str, grid: Grid) -> tuple[Task, dict[str, Seen]]:
        """The stack beneath a layer, also within bundles, and the layers joined by then."""
        below = Task(task_key("bare", grid), "Sheet", surface.id, partial(bare, grid))
        known: dict[str, Seen] = {}
        outer, self._within = self._within, (*self._within, surface.id)
        found = self._find_under(surface.layers, layer_id, below, grid, known)
        self._within = outer
        return found or (below, known)

    def _find_under(self, layers: tuple[Layer, ...], layer_id: str, below: Task, grid: Grid, known: dict[str, Seen]) -> tuple[Task, dict[str, Seen]] | None:
        for layer in layers:
            if layer.id == layer_id:
                return below, known
            if isinstance(layer.what, BundleWhat):
                start = below if layer.what.passing else Task(task_key("bare", grid), "Sheet", layer.id, partial(bare, grid))
                found = self._find_under(layer.what.layers, layer_id, start, grid, dict(known))
                if found is not None:
                    return found
            below = self._joined(layer, below, grid, known)
        return None


def seated_layers(layers: tuple[Layer, ...]) -> list[Layer]:
    """The layers that take a number in the stack, from the bottom up: shown ones, those of passing bundles in their place."""
    seated: list[Layer] = []
    for layer in layers:
        if not layer.shown:
            continue
        if isinstance(layer.what, BundleWhat) and layer.what.passing:
            seated += seated_layers(layer.what.layers)
        else:
            seated.append(layer)
    return seated


def _weigh(*cover: Raster, weight: float, grid: Grid) -> Raster:
    return np.full(grid.shape, weight, np.float32) if not cover else cover[0] * np.float32(weight)


def _both(cover: Raster, within: Raster) -> Raster:
    return cover * within


def _seat(below: Stack, maps: MapSet, *cover: Raster, layer: Layer) -> Stack:
    values = find(layer.seat.op).bind(layer.seat.values)
    where = cover[0] if cover else None
    mixes = {kind: layer.mix(kind) for kind in BLENDED}
    cut_out = mixes[MapKind.OPACITY].strength
    if MapKind.OPACITY in maps and cut_out > 0:
        # What is cut out of a source lies nowhere.
        opacity = maps[MapKind.OPACITY] if cut_out == 1 else 1 - np.float32(cut_out) * (1 - maps[MapKind.OPACITY])
        where = opacity if where is None else where * opacity
    if isinstance(layer.what, InscriptionWhat):
        painted = float(layer.what.cut.value("painted"))
        for kind in (MapKind.BASE_COLOUR, MapKind.ROUGHNESS):
            mixes[kind] = MapMix(mode=mixes[kind].mode, strength=mixes[kind].strength * painted)
    tone = find("tone.match").bind(layer.tone.values)
    if float(tone["tone_match"]) > 0 and MapKind.BASE_COLOUR in maps and below.layers:
        maps = maps.with_maps(base_colour=match(below.grid, np.ascontiguousarray(maps[MapKind.BASE_COLOUR]), below.planes[0], **tone))
    return lay(below, maps, where, mixes, Seat.of(layer.seat.op, values))


def _stand(below: Stack, *cover: Raster, layer: Layer) -> Stack:
    assert isinstance(layer.what, WaterWhat)
    return stand(below, cover[0] if cover else None, **find("water.standing").bind(layer.what.water.values))  # type: ignore[arg-type]


def _paint_on(below: Stack, *rest: Raster, layer: Layer, strokes: tuple[object, ...], joins: bool, covers: int, tips: list[str]) -> Stack:
    """Strokes on a stack; ``joins`` goes on with a layer of which earlier strokes are laid already."""
    pictures = {tip: as_tip(picture) for tip, picture in zip(tips, rest[covers:], strict=True)}
    after = paint_on(below, strokes, rest[0] if covers else None, {kind: layer.mix(kind) for kind in BLENDED}, pictures)  # type: ignore[arg-type]
    if not joins:
        return after
    top = np.where(after.top == after.layers, np.uint8(below.layers), after.top).astype(np.uint8)
    return replace(after, layers=below.layers, top=top, share=np.maximum(after.share, below.share))


def _bundled(*stacks: Stack, grid: Grid) -> MapSet:
    """A closed bundle's joined maps; opacity is where any of its layers lies."""
    if not stacks:
        return MapSet(grid, {MapKind.OPACITY: np.zeros(grid.shape, np.float32)})
    open_ = np.ones(grid.shape, np.float32)
    for stack in stacks:
        open_ *= 1 - stack.share
    last = stacks[-1]
    maps = last.map_set().with_maps(opacity=1 - open_)
    if last.detail is not None:
        maps = maps.with_maps(normal=with_detail(normal_of_height(last.height, grid), last.detail))
    return maps if last.shade is None else maps.with_maps(ambient_occlusion=last.shade)


OCCLUSION_REACH_MM = 12.0


def _finish(stack: Stack) -> MapSet:
    height = stack.height
    open_sky = occlusion(height, stack.grid, reach_mm=OCCLUSION_REACH_MM)
    return stack.map_set().with_maps(
        normal=with_detail(normal_of_height(height, stack.grid), stack.detail),
        # A layer's own occlusion repeats what its relief says: the darker of both counts.
        ambient_occlusion=open_sky if stack.shade is None else np.minimum(open_sky, stack.shade),
    )


CURVATURE_MM = 2.0


def _curvature(done: MapSet) -> Raster:
    return curvature(done[MapKind.HEIGHT], done.grid, radius_mm=CURVATURE_MM)


def _shadow(done: MapSet, *, light: Light) -> Raster:
    return cast_shadow(done[MapKind.HEIGHT], done.grid, light)


def _light(done: MapSet, shadow: Raster, *, light: Light, strengths: dict[str, float]) -> AnyArray:
    return shade(
        done[MapKind.BASE_COLOUR], done[MapKind.NORMAL], done[MapKind.ROUGHNESS], done[MapKind.METALNESS],
        done[MapKind.AMBIENT_OCCLUSION], shadow, light=light, **strengths,
    )  # fmt: skip
