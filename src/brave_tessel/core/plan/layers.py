"""From one layer to its maps: what it is made of, laid in the sheet, with its look."""

from __future__ import annotations

from functools import partial
from typing import Any

import msgspec
import numpy as np

from ..buildup.decal import set_decal, strewn
from ..buildup.laying import lay_in_sheet
from ..buildup.run import lay_run
from ..buildup.stack import Stack, bare
from ..colour import hex_to_linear
from ..errors import DoesNotFitError, MissingError, TesselError
from ..job.document import (
    BundleWhat,
    DecalWhat,
    InscriptionWhat,
    Layer,
    PlainWhat,
    RecipeWhat,
    RunWhat,
    ScatterWhat,
    SourceWhat,
    Surface,
    SurfaceWhat,
)
from ..maps import MapKind, MapSet, plain
from ..operation import find
from ..outlines import Outline
from ..repeat.resample import tiled_map
from ..scatter.lay import PieceMaps, cut_piece, lay_scatter, made_piece, model_piece
from ..sheet import Grid
from .tasks import Task, fail, task_key
from .where import WherePlanner


class LayerPlanner(WherePlanner):
    """The tasks of single layers. ``_within`` are the surfaces being planned, so that none is made of itself."""

    _within: tuple[str, ...] = ()

    def layer_maps(self, layer: Layer, grid: Grid, below: Task | None = None) -> Task:
        """A layer's maps on the surface's grid, as its look has them; its recipe may look at what lies ``below``."""
        made = self.made_of(layer, grid, below)
        cell = self._cell(layer, grid)
        laying, look = layer.laying.complete(), layer.look.complete()
        if laying != find("lay.sheet").defaults():
            made = Task(
                task_key("laying", laying, cell, made.key),
                layer.name,
                layer.id,
                partial(_laid, layer=layer, cell=cell),
                (made,),
            )
        if look != find("look.adjust").defaults():
            made = Task(task_key("look", look, made.key), layer.name, layer.id, partial(_look, layer=layer), (made,))
        return made

    def _cell(self, layer: Layer, grid: Grid) -> tuple[float, float]:
        """The repeat of the layer itself, mm."""
        across, up = getattr(layer.what, "across", 1), getattr(layer.what, "up", 1)
        return grid.width_mm / across, grid.height_mm / up

    def made_of(self, layer: Layer, grid: Grid, below: Task | None) -> Task:
        """A layer's maps before they are turned and adjusted."""
        what = layer.what
        try:
            if isinstance(what, PlainWhat):
                return Task(task_key("plain", what, grid), layer.name, layer.id, partial(_plain_maps, what, grid))
            if isinstance(what, RecipeWhat):
                return self._recipe_maps(what, grid, layer, below)
            if isinstance(what, SurfaceWhat):
                return self._surface_maps(what, grid, layer)
            if isinstance(what, SourceWhat):
                return self._source_maps(what, grid, layer)
            return self._set_once(layer, grid, below)
        except TesselError as error:
            return Task(
                task_key("failed", layer.id, type(error).__name__, repr(error.args)),
                layer.name,
                layer.id,
                partial(fail, error),
            )

    def _recipe_maps(self, what: RecipeWhat, grid: Grid, layer: Layer, below: Task | None) -> Task:
        if what.across == what.up == 1:
            return self.recipe(what.recipe, grid, layer.id, below)
        cell = _cell_grid(grid, what.across, what.up)
        made = self.recipe(what.recipe, cell, layer.id)
        return Task(
            task_key("tiled", what.across, what.up, grid, made.key),
            layer.name,
            layer.id,
            partial(_tiled, grid=grid, across=what.across, up=what.up),
            (made,),
        )

    def _surface_maps(self, what: SurfaceWhat, grid: Grid, layer: Layer) -> Task:
        if what.surface in self._within:
            raise DoesNotFitError(layer.name, value="this surface", allowed="a surface cannot be made of itself")
        surface: Surface = self.job.surface(what.surface)
        inner = type(self)(self.job, self.load, self.load_codes, self.load_model, self.load_letters)
        inner._within = (*self._within, what.surface)
        done: Task = inner.finished(
            surface, _cell_grid(grid, what.across, what.up, (surface.width_mm, surface.height_mm))
        )  # type: ignore[attr-defined]
        return Task(
            task_key("tiled", what.across, what.up, grid, done.key),
            layer.name,
            layer.id,
            partial(_tiled, grid=grid, across=what.across, up=what.up),
            (done,),
        )

    def _set_once(self, layer: Layer, grid: Grid, below: Task | None) -> Task:
        what = layer.what
        if isinstance(what, DecalWhat):
            return self._decal(what, grid, layer, below)
        if isinstance(what, RunWhat):
            return self._run(what, grid, layer)
        if isinstance(what, InscriptionWhat):
            return self._inscription(what, grid, layer)
        if isinstance(what, ScatterWhat):
            return self._strewn(what, grid, layer)
        assert not isinstance(what, BundleWhat)
        return Task(task_key("nothing", grid), layer.name, layer.id, partial(_nothing, grid))

    def _decal(self, what: DecalWhat, grid: Grid, layer: Layer, below: Task | None) -> Task:
        place = what.placement
        px = max(8, min(4096, round(max(place.width_mm, place.height_mm) / grid.pitch_mm)))
        own = Grid.for_repeat(place.width_mm, place.height_mm, px)
        if what.recipe is not None:
            maps = self.recipe(what.recipe, own, layer.id)
        elif what.source:
            source = self.job.source(what.source)
            flat = self.sheet(source, px) if source.scatter is not None else self.evened(source, px)
            maps = self.estimated(source, None, flat, layer.id)
        else:
            raise MissingError("picture", value=layer.name, remedy="Choose a source or a recipe in the card.")
        under = below or Task(task_key("bare", grid), "Sheet", layer.id, partial(bare, grid))
        needs_ground = float(what.strew.value("cling")) > 0
        inputs = (maps, under) if needs_ground else (maps,)
        return Task(
            task_key("decal", place, what.strew.complete(), grid, *(task.key for task in inputs)),
            layer.name,
            layer.id,
            partial(_set_decal, what=what, grid=grid),
            inputs,
        )

    def _run(self, what: RunWhat, grid: Grid, layer: Layer) -> Task:
        stamp = self.run_stamp(what, grid, layer.id)
        inputs = () if stamp is None else (stamp,)
        told = [
            what.points,
            what.closed,
            what.rounded,
            what.stamp.op,
            what.stamp.complete(),
            what.colour,
            what.roughness,
        ]
        return Task(
            task_key("run", told, grid, *(task.key for task in inputs)),
            layer.name,
            layer.id,
            partial(_lay_run, what=what, grid=grid),
            inputs,
        )

    def run_stamp(self, what: RunWhat, grid: Grid, owner: str) -> Task | None:
        """The maps of a source that is stamped along a run; None for stamps that are drawn."""
        if what.stamp.op != "stamp.source" or not what.stamp.value("source"):
            return None
        source = self.job.source(str(what.stamp.value("source")))
        px = max(
            16, min(2048, round(max(float(what.stamp.value("step")), float(what.stamp.value("width"))) / grid.pitch_mm))
        )
        return self.estimated(source, None, self.evened(source, px), owner)

    def _inscription(self, what: InscriptionWhat, grid: Grid, layer: Layer) -> Task:
        if what.drawing:
            outline = Task(
                task_key("drawing", what.drawing),
                "Read the drawing",
                layer.id,
                partial(self.load_letters, "", what.drawing),
            )
        else:
            outline = self.letters(what.font, what.text, layer.id)
        return Task(
            task_key("inscription", what.placement, what.cut.complete(), grid, outline.key),
            layer.name,
            layer.id,
            partial(_inscribe, what=what, grid=grid),
            (outline,),
        )

    def _strewn(self, what: ScatterWhat, grid: Grid, layer: Layer) -> Task:
        scatter = msgspec.structs.replace(what.scatter, width_mm=grid.width_mm, height_mm=grid.height_mm)
        pieces = []
        for kind in scatter.kinds:
            inputs: tuple[Task, ...] = ()
            work: Any = partial(made_piece, kind=kind, px=256)
            if kind.blob:
                inputs = (
                    Task(task_key("model", kind.blob), "Read the model", layer.id, partial(self.load_model, kind.blob)),
                )
                work = partial(model_piece, kind=kind)
            elif kind.source and any(s.id == kind.source for s in self.job.sources):
                inputs = (self.picture(self.job.source(kind.source)),)
                work = partial(cut_piece, kind=kind, px=256)
            key = task_key(
                "piece",
                kind.shape.op,
                kind.shape.complete(),
                kind.width_mm,
                kind.height_mm,
                256,
                *(task.key for task in inputs),
            )
            pieces.append(Task(key, f"Make {kind.name}", layer.id, work, inputs))
        told = [[kind.id, kind.share, kind.width_mm, kind.height_mm] for kind in scatter.kinds]
        return Task(
            task_key(
                "scatter layer", told, scatter.strew.complete(), scatter.laid, grid, *(task.key for task in pieces)
            ),
            layer.name,
            layer.id,
            partial(_strew_on, scatter=scatter, grid=grid),
            tuple(pieces),
        )


def _cell_grid(grid: Grid, across: int, up: int, size_mm: tuple[float, float] | None = None) -> Grid:
    """The grid of one repeat of a layer that is laid several times; its real size where that is known."""
    width, height = size_mm or (grid.width_mm / across, grid.height_mm / up)
    return Grid(max(8, -(-grid.width_px // across)), max(8, -(-grid.height_px // up)), width, height)


def _tiled(maps: MapSet, *, grid: Grid, across: int, up: int) -> MapSet:
    kept = {kind: pixels for kind, pixels in maps.maps.items() if kind is not MapKind.CURVATURE}
    return MapSet(grid, {kind: tiled_map(kind, pixels, across, up, grid.shape) for kind, pixels in kept.items()})


def _laid(maps: MapSet, *, layer: Layer, cell: tuple[float, float]) -> MapSet:
    return lay_in_sheet(maps, cell, **find("lay.sheet").bind(layer.laying.values))  # type: ignore[arg-type]


def _look(maps: MapSet, *, layer: Layer) -> MapSet:
    operation = find("look.adjust")
    return operation.run(maps.grid, maps, **operation.bind(layer.look.values))  # type: ignore[no-any-return]


def _plain_maps(what: PlainWhat, grid: Grid) -> MapSet:
    return MapSet(
        grid,
        {
            MapKind.BASE_COLOUR: np.ascontiguousarray(plain(grid, hex_to_linear(what.colour))),
            MapKind.ROUGHNESS: np.full(grid.shape, what.roughness, np.float32),
            MapKind.METALNESS: np.full(grid.shape, what.metalness, np.float32),
            MapKind.HEIGHT: np.zeros(grid.shape, np.float32),
        },
    )


def _nothing(grid: Grid) -> MapSet:
    return MapSet(grid)


def _set_decal(maps: MapSet, *under: Stack, what: DecalWhat, grid: Grid) -> MapSet:
    values = find("decal.strew").bind(what.strew.values)
    cling, edge = float(values.pop("cling")), float(values.pop("edge"))
    placements = strewn(what.placement, grid, **values)  # type: ignore[arg-type]
    return set_decal(grid, maps, placements, edge=edge, ground=under[0].height if under else None, cling=cling)


def _lay_run(*stamp: MapSet, what: RunWhat, grid: Grid) -> MapSet:
    return lay_run(grid, what, stamp[0] if stamp else None)


def _inscribe(outline: Outline, *, what: InscriptionWhat, grid: Grid) -> MapSet:
    place = what.placement
    left, low, right, high = outline.box()
    wide, tall = max(right - left, 1e-9), max(high - low, 1e-9)
    # Letters keep their proportion: the placement's width rules, its height stretches.
    size = place.height_mm / tall
    laid = outline.placed(
        at=(place.x_mm, place.y_mm), turn=place.turn, size=size, stretch=place.width_mm / (wide * size), skew=place.skew
    )
    operation = find("inscription.cut")
    return operation.run(grid, laid, **operation.bind(what.cut.values))  # type: ignore[no-any-return]


def _strew_on(*pieces: PieceMaps, scatter: Any, grid: Grid) -> MapSet:
    made = lay_scatter(grid, scatter, pieces)
    # Normal and occlusion follow from the joined relief.
    return MapSet(grid, {k: p for k, p in made.maps.items() if k not in {MapKind.NORMAL, MapKind.AMBIENT_OCCLUSION}})
