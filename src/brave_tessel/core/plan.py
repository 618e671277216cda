"""From a document to keyed tasks.

A task's key is a hash of everything its result depends on: operation, version, parameters, the keys
of its inputs, the grid. Names and selection are left out, so equal work is done once.
"""

from __future__ import annotations

import hashlib
import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import Any

import msgspec
import numpy as np

from . import registered  # noqa: F401 - declares every operation
from .buildup.seat import Stack, bare, lay
from .buildup.where import combine, lay_strokes
from .colour import hex_to_linear
from .document import Job, Layer, PlainWhat, Recipe, RecipeWhat, Rule, Setting, Source, SourceWhat, Step, Surface
from .errors import MissingError, TesselError
from .gather.conventions import slopes_of
from .gather.pictures import onto_sheet
from .gather.straighten import proposed_px_per_mm, straighten
from .kernels.relief import cast_shadow, normal_of_height, occlusion
from .kernels.shade import shade
from .maps import TRAITS, MapKind, MapSet, plain
from .operation import REGISTRY, Ground, find
from .recipe.evaluate import gather_yields, run_step
from .relief.integrate import height_of_slopes
from .repeat.cut import PATH_PX
from .repeat.mend import METHODS, Method
from .repeat.resample import resample_wrapped, tiled
from .sheet import AnyArray, Grid, Raster

CODE_VERSION = 1
FLAT_PX = PATH_PX
"""Sheets are mended at this size, or at their native one when a finer picture is asked for."""
NATIVE_MAX_PX = 8192

Light = tuple[float, float, float]
Loader = Callable[[str], Raster]


@dataclass(frozen=True, slots=True, eq=False)
class Task:
    """One piece of work. ``owner`` is the entity whose fault a failure is; then ``fallback`` stands in."""

    key: bytes
    label: str
    owner: str
    run: Callable[..., Any]
    inputs: tuple[Task, ...] = ()
    fallback: Task | None = None


def _key(*parts: object) -> bytes:
    digest = hashlib.blake2b(digest_size=16)
    for part in (CODE_VERSION, *parts):
        encoded = part if isinstance(part, bytes) else msgspec.json.encode(part, order="deterministic", enc_hook=_plain)
        digest.update(len(encoded).to_bytes(4, "little") + encoded)
    return digest.digest()


def _plain(value: Any) -> Any:
    if isinstance(value, Grid):
        return [value.width_px, value.height_px, value.width_mm, value.height_mm]
    raise NotImplementedError(type(value))


class Planner:
    """Builds the tasks of one job. Holds nothing but the frozen job and a way to load pixels."""

    def __init__(self, job: Job, load: Loader, load_codes: Loader | None = None) -> None:
        self.job = job
        self.load = load
        self.load_codes = load_codes or load

    # Gather and repeat -------------------------------------------------------------------------

    def picture(self, source: Source) -> Task:
        """The source's own pixels, linear (H, W, 3)."""
        return Task(_key("picture", source.blob), "Read the picture", source.id, partial(self.load, source.blob))

    def flat(self, source: Source, px: int) -> Task:
        """The straightened, evened sheet as a flat map set whose longer side has ``px`` pixels."""
        frame = source.straightening
        if not frame.sized:
            return Task(_key("unsized", source.id), "Straighten", source.id, partial(_unsized, source.name))
        grid = Grid.for_repeat(frame.width_mm, frame.height_mm, px)
        straight = Task(
            _key("straighten", source.blob, frame.corners, grid), "Straighten", source.id,
            partial(_straighten, corners=frame.corners, grid=grid), (self.picture(source),),
        )  # fmt: skip
        light = find(source.light.op)
        evened = Task(
            _key(light.id, light.version, source.light.complete(), straight.key), light.label, source.id,
            partial(_even, setting=source.light), (straight,),
        )  # fmt: skip
        return self._with_pictures(source, evened) if source.pictures else evened

    def _with_pictures(self, source: Source, flat: Task) -> Task:
        """The sheet with the source's further maps beside its main picture."""
        frame = source.straightening
        codes = tuple(
            Task(_key("codes", p.blob), f"Read {p.file_name}", source.id, partial(self.load_codes, p.blob))
            for p in source.pictures
        )
        told = [(p.role, p.channel, p.green, p.turned_over) for p in source.pictures]
        return Task(
            _key("pictures", told, source.role, frame.corners, flat.key, *(task.key for task in codes)), "Straighten the maps",
            source.id, partial(_pictures, source=source), (flat, *codes),
        )  # fmt: skip

    def found(self, source: Source) -> Task:
        """What a source's way of mending finds, such as its cuts; found once for every size."""
        method = self._method(source)
        flat = self.flat(source, method.find_px)
        values = find(source.mend.op).bind(source.mend.values)
        relevant = {name: values[name] for name in method.found_by}
        return Task(
            _key("found", source.mend.op, relevant, flat.key), f"Find: {find(source.mend.op).label.lower()}", source.id,
            partial(_found, method=method, values=values), (flat,),
        )  # fmt: skip

    def sheet(self, source: Source, px: int) -> Task:
        """The mended sheet; at ``FLAT_PX`` or, for finer pictures, at the photo's own density."""
        try:
            method, found = self._method(source), self.found(source)
        except TesselError as error:
            return Task(_key("unmendable", source.id), "Mend", source.id, partial(_fail, error))
        flat = self.flat(source, self.sheet_px(source, px))
        values = find(source.mend.op).bind(source.mend.values)
        return Task(
            _key("sheet", source.mend.op, values, flat.key, found.key), "Mend the seams", source.id,
            partial(_mend, method=method, values=values), (flat, found),
        )  # fmt: skip

    def broken(self, source: Source, px: int) -> Task:
        """The sheet with its repeat broken over a larger one, about ``px`` pixels on its longer side."""
        across, up = (int(source.breakup.number(name)) for name in ("across", "up"))
        if across == 1 and up == 1:
            return self.sheet(source, px)
        operation = find(source.breakup.op)
        cell_px = max(64, -(-px // max(across, up)))
        sheet = self.sheet(source, cell_px)
        return Task(
            _key("broken", operation.version, source.breakup.complete(), cell_px, sheet.key), operation.label, source.id,
            partial(_broken, setting=source.breakup, px=cell_px), (sheet,),
        )  # fmt: skip

    def _method(self, source: Source) -> Method:
        find(source.mend.op)
        return METHODS[source.mend.op]

    def sheet_px(self, source: Source, px: int) -> int:
        """How many pixels the flat sheet gets so that a cell of ``px`` pixels is well fed."""
        if px <= FLAT_PX:
            return FLAT_PX
        frame = source.straightening
        native = proposed_px_per_mm(frame.corners, frame.width_mm, frame.height_mm) * max(frame.width_mm, frame.height_mm)
        return max(FLAT_PX, min(NATIVE_MAX_PX, math.ceil(native), math.ceil(px * 1.25)))

    # Layers ------------------------------------------------------------------------------------

    def layer_maps(self, layer: Layer, grid: Grid) -> Task:
        """What a layer is made of, on the surface's grid."""
        what = layer.what
        if isinstance(what, PlainWhat):
            return Task(_key("plain", what, grid), layer.name, layer.id, partial(_plain_maps, what, grid))
        if isinstance(what, RecipeWhat):
            return self.recipe(what.recipe, grid, layer.id)
        return self._source_maps(what, grid, layer)

    def _source_maps(self, what: SourceWhat, grid: Grid, layer: Layer) -> Task:
        try:
            source = self.job.source(what.source)
        except MissingError as error:
            return Task(_key("missing", what.source), layer.name, layer.id, partial(_fail, error))
        px = max(grid.shape) * max(what.across, what.up)
        sheet = self.broken(source, px)
        laid = Task(
            _key("laid", what.across, what.up, grid, sheet.key), layer.name, layer.id,
            partial(_lay_in_sheet, grid=grid, across=what.across, up=what.up), (sheet,),
        )  # fmt: skip
        return Task(
            _key("estimates", what.height.complete(), what.roughness.complete(), laid.key), layer.name, layer.id,
            partial(_estimate, what=what), (laid,),
        )  # fmt: skip

    def recipe(self, recipe: Recipe, grid: Grid, owner: str) -> Task:
        """The maps a recipe yields; each step is a task, so that a change recomputes what hangs on it."""
        steps: dict[str, Task] = {}
        for step in recipe.steps:
            steps[step.name] = self.step(step, steps, grid, owner)
        wanted = {kind: name for kind, name in recipe.yields.items() if name in steps}
        names = sorted(set(wanted.values()))
        return Task(
            _key("yields", grid, wanted, *(steps[name].key for name in names)), "Recipe", owner,
            partial(_yields, grid=grid, recipe=recipe, names=names), tuple(steps[name] for name in names),
        )  # fmt: skip

    def step(self, step: Step, above: dict[str, Task], grid: Grid, owner: str) -> Task:
        """One step of a recipe."""
        version = REGISTRY[step.op].version if step.op in REGISTRY else 0
        values = REGISTRY[step.op].defaults() | step.values if step.op in REGISTRY else step.values
        names = [name for name in step.made_from.values() if name in above]
        slots = sorted(step.made_from)
        inputs = tuple(above[name] for name in names)
        key = _key("step", step.op, version, values, slots, grid, *(task.key for task in inputs))
        return Task(key, step.name, owner, partial(_run_step, grid=grid, step=step, names=names), inputs)

    def coverage(self, layer: Layer, below: Task, grid: Grid) -> Task | None:
        """Where a layer lies, by its rules; None is everywhere."""
        done: Task | None = None
        for rule in layer.where:
            one = self.rule(rule, below, grid, layer.id)
            inputs = (one,) if done is None else (done, one)
            done = Task(
                _key("combine", rule.mode, *(task.key for task in inputs)), "Where", layer.id,
                partial(_combine, mode=rule.mode), inputs,
            )  # fmt: skip
        return done

    def rule(self, rule: Rule, below: Task, grid: Grid, owner: str) -> Task:
        """One where-rule. Strokes but the last are one task, so that painting replays only the last."""
        if rule.rule.op == "where.painted":
            older, last = rule.strokes[:-1], rule.strokes[-1:]
            under = Task(_key("strokes", older, grid), "Painted", owner, partial(_strokes, strokes=older, grid=grid))
            return Task(
                _key("stroke", last, under.key), "Painted", owner, partial(_strokes, strokes=last, grid=grid), (under,)
            )
        operation = REGISTRY.get(rule.rule.op)
        inputs = (below,) if operation is not None and operation.inputs else ()
        return Task(
            _key("rule", rule.rule.op, rule.rule.complete(), grid, *(task.key for task in inputs)), "Where", owner,
            partial(_rule, rule=rule, grid=grid), inputs,
        )  # fmt: skip

    # Surfaces ----------------------------------------------------------------------------------

    def stacks(self, surface: Surface, grid: Grid) -> list[Task]:
        """The stack after each layer, the bare sheet first. A layer that fails or is hidden is skipped."""
        below = Task(_key("bare", grid), "Sheet", surface.id, partial(bare, grid))
        done = [below]
        for layer in surface.layers:
            below = self._stack(layer, below, grid) if layer.shown else below
            done.append(below)
        return done

    def _stack(self, layer: Layer, below: Task, grid: Grid) -> Task:
        maps = self.layer_maps(layer, grid)
        cover = self.coverage(layer, below, grid)
        inputs = (below, maps) if cover is None else (below, maps, cover)
        seat = layer.seat.complete()
        return Task(
            _key("seat", seat, sorted(layer.maps), *(task.key for task in inputs)), layer.name, layer.id,
            partial(_seat, layer=layer), inputs, below,
        )  # fmt: skip

    def finished(self, surface: Surface, grid: Grid) -> Task:
        """Every map of a surface: the joined ones, and normal and occlusion of the joined relief."""
        stack = self.stacks(surface, grid)[-1]
        return Task(_key("finished", stack.key), surface.name, surface.id, _finish, (stack,))

    def lit(self, surface: Surface, grid: Grid, light: Light) -> Task:
        """The lit picture of one cell, (H, W, 3) uint8 sRGB."""
        done = self.finished(surface, grid)
        shadow = Task(
            _key("shadow", light, done.key), "Shadow", surface.id, partial(_shadow, light=light), (done,)
        )
        return Task(
            _key("lit", light, done.key), "Light", surface.id, partial(_light, light=light), (done, shadow)
        )


def _fail(error: TesselError) -> Any:
    raise error


def _unsized(name: str) -> MapSet:
    raise MissingError("size", value=name, remedy="Give the straightening frame its real size in Gather.")


def _straighten(picture: Raster, *, corners: Any, grid: Grid) -> MapSet:
    straight = straighten(picture, corners, width_px=grid.width_px, height_px=grid.height_px)
    return MapSet(grid, {MapKind.BASE_COLOUR: straight})


def _even(flat: MapSet, *, setting: Any) -> MapSet:
    operation = find(setting.op)
    evened = operation.run(flat.grid, flat[MapKind.BASE_COLOUR], **operation.bind(setting.values))
    return flat.with_maps(base_colour=evened)


def _pictures(flat: MapSet, *codes: Raster, source: Source) -> MapSet:
    if source.role != MapKind.BASE_COLOUR:
        grey = np.ascontiguousarray(plain(flat.grid, TRAITS[MapKind.BASE_COLOUR].default))
        flat = MapSet(flat.grid, {MapKind.BASE_COLOUR: grey})
    return onto_sheet(flat, codes, source.pictures, source.straightening.corners, (source.width_px, source.height_px))


def _found(flat: MapSet, *, method: Method, values: dict[str, Any]) -> Any:
    return method.find(flat, values)


def _broken(sheet: MapSet, *, setting: Setting, px: int) -> MapSet:
    grid = Grid.for_repeat(sheet.grid.width_mm, sheet.grid.height_mm, min(px, max(sheet.grid.shape)))
    cell = MapSet(grid, {kind: resample_wrapped(pixels, grid.shape) for kind, pixels in sheet.maps.items()})
    operation = find(setting.op)
    return operation.run(grid, cell, **operation.bind(setting.values))  # type: ignore[no-any-return]


def _mend(flat: MapSet, found: Any, *, method: Method, values: dict[str, Any]) -> MapSet:
    return method.apply(flat, found, values)


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
    return MapSet(grid, {kind: tiled(pixels, across, up, grid.shape) for kind, pixels in sheet.maps.items()})


def _estimate(laid: MapSet, *, what: SourceWhat) -> MapSet:
    colour = laid[MapKind.BASE_COLOUR]
    kept: dict[MapKind, Raster] = {k: p for k, p in laid.maps.items() if k in {MapKind.BASE_COLOUR, MapKind.ROUGHNESS, MapKind.METALNESS}}
    rise = float(find(what.height.op).bind(what.height.values)["rise"])
    if MapKind.HEIGHT in laid:
        kept[MapKind.HEIGHT] = laid[MapKind.HEIGHT] * np.float32(rise)
    elif MapKind.NORMAL in laid:
        kept[MapKind.HEIGHT] = height_of_slopes(*slopes_of(laid[MapKind.NORMAL]), laid.grid) * np.float32(rise / TRUE_RISE)
    for kind, setting in ((MapKind.HEIGHT, what.height), (MapKind.ROUGHNESS, what.roughness)):
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
    return lay(below, maps, cover[0] if cover else None, layer.maps, **values)  # type: ignore[arg-type]


OCCLUSION_REACH_MM = 12.0


def _finish(stack: Stack) -> MapSet:
    height = stack.height
    return stack.map_set().with_maps(
        normal=normal_of_height(height, stack.grid),
        ambient_occlusion=occlusion(height, stack.grid, reach_mm=OCCLUSION_REACH_MM),
    )


def _shadow(done: MapSet, *, light: Light) -> Raster:
    return cast_shadow(done[MapKind.HEIGHT], done.grid, light)


def _light(done: MapSet, shadow: Raster, *, light: Light) -> AnyArray:
    return shade(
        done[MapKind.BASE_COLOUR], done[MapKind.NORMAL], done[MapKind.ROUGHNESS], done[MapKind.METALNESS],
        done[MapKind.AMBIENT_OCCLUSION], shadow, light=light,
    )  # fmt: skip
