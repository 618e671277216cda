"""From one layer to its maps: what it is made of, laid in the sheet, with its look, and seated on what lies beneath."""

from __future__ import annotations

from functools import partial
from typing import Any, Self

import msgspec

from ..buildup.kind import kind_of
from ..buildup.laying import lay_in_sheet
from ..buildup.repeats import cell_grid, tiled
from ..buildup.seat import Seat, reach_mm
from ..errors import DoesNotFitError, TesselError
from ..job.layers import Layer, Scatter, Surface, laid_times
from ..maps import BLENDED, MapKind, MapSet
from ..operation import find
from ..scatter.lay import PieceMaps, lay_scatter
from ..sheet import Grid
from . import joins
from .protocol import Place
from .tasks import Local, Task, fail, reach_px, task_key
from .where import WherePlanner

STREWN_PX = 256
"""Pieces strewn on a surface are made with so many pixels along their longer side."""


class LayerPlanner(WherePlanner):
    """The tasks of single layers. ``_within`` are the surfaces being planned, so that none is made of itself."""

    _within: tuple[str, ...] = ()

    def finished(self, surface: Surface, grid: Grid) -> Task:
        """Every map of a surface."""
        raise NotImplementedError

    def joined(self, layer: Layer, place: Place) -> Task:
        """The stack after a layer."""
        raise NotImplementedError

    def layer_maps(self, layer: Layer, grid: Grid, below: Task | None = None) -> Task:
        """A layer's maps on the surface's grid, as its look has them; its recipe may look at what lies ``below``."""
        made = self.made_of(layer, grid, below)
        across, up = laid_times(layer)
        cell = grid.width_mm / across, grid.height_mm / up
        laying, look = layer.laying.complete(), layer.look.complete()
        if laying != find("lay.sheet").defaults():
            key = task_key("laying", laying, cell, made.key)
            made = Task(key, layer.name, layer.id, partial(_laid, layer=layer, cell=cell), (made,))
        if look != find("look.adjust").defaults():
            made = Task(task_key("look", look, made.key), layer.name, layer.id, partial(_look, layer=layer), (made,))
        return made

    def made_of(self, layer: Layer, grid: Grid, below: Task | None) -> Task:
        """A layer's maps before they are turned and adjusted; what cannot be planned is a task that says why."""
        try:
            return kind_of(layer.what).maps(self, layer, grid, below)
        except TesselError as error:
            key = task_key("failed", layer.id, type(error).__name__, repr(error.args))
            return Task(key, layer.name, layer.id, partial(fail, error))

    def seat(self, layer: Layer, maps: Task, place: Place) -> Task:
        """A layer's maps joined with what lies beneath, as its seat says."""
        # A seat of another version lies by height, as a fresh layer does.
        seat = layer.seat if layer.seat.known else msgspec.structs.replace(layer.seat, op="seat.by_height", version=0)
        layer = msgspec.structs.replace(layer, seat=seat)
        values = seat.complete()
        relief = self._own_relief(layer, maps)
        if layer.tone.value("tone_match") not in {0}:
            key = task_key("toned", layer.tone.complete(), maps.key, place.below.key)
            maps = Task(key, layer.name, layer.id, partial(joins.toned, layer=layer), (maps, place.below))
        given = {name: task for name, task in (("cover", place.cover), ("relief", relief)) if task is not None}
        inputs = (place.below, maps, *given.values())
        painted = kind_of(layer.what).painted_share(layer.what)
        told = [
            seat.op,
            seat.operation.version,
            values,
            {kind: layer.mix(kind) for kind in BLENDED},
            tuple(given),
            painted,
        ]
        work = partial(joins.seat, names=tuple(given), layer=layer, painted=painted)
        return Task(
            task_key("seat", told, *(task.key for task in inputs)),
            layer.name,
            layer.id,
            work,
            inputs,
            place.below,
            Local(lambda _area: work, _seat_reach(values, place.grid)),
        )

    def _own_relief(self, layer: Layer, maps: Task) -> Task | None:
        """A layer's relief weighed by form and grain. A task of its own: it stays when only the layer's place or level
        changes, and looks at the whole sheet.
        """
        values = layer.seat.complete()
        given = {name: values[name] for name in ("form", "grain", "split", "contrast", "turn_over") if name in values}
        if all(given.get(name, 1.0) == 1 for name in ("form", "grain", "contrast")) and not given.get("turn_over"):
            return None
        key = task_key("own relief", layer.seat.op, given, maps.key)
        return Task(key, layer.name, layer.id, partial(joins.own_relief, layer=layer), (maps,))

    def inside(self, surface: str) -> Self:
        """A planner for a surface that another is made of."""
        inner = type(self)(self.job, self.load, self.load_codes, self.load_model, self.load_letters)
        inner._within = (*self._within, surface)
        return inner

    def surface_maps(self, surface: str, across: int, up: int, grid: Grid, layer: Layer) -> Task:
        """All that another surface yields, in whole repeats.

        Raises
        ------
        DoesNotFitError
            when a surface would be made of itself.
        """
        if surface in self._within:
            raise DoesNotFitError(layer.name, value="this surface", allowed="a surface cannot be made of itself")
        other = self.job.surface(surface)
        done = self.inside(surface).finished(other, cell_grid(grid, across, up, (other.width_mm, other.height_mm)))
        key = task_key("tiled", across, up, grid, done.key)
        return Task(key, layer.name, layer.id, partial(tiled, grid=grid, across=across, up=up), (done,))

    def strewn(self, scatter: Scatter, grid: Grid, layer: Layer) -> Task:
        """Pieces strewn over a surface."""
        scatter = msgspec.structs.replace(scatter, width_mm=grid.width_mm, height_mm=grid.height_mm)
        pieces = tuple(self.piece(kind, STREWN_PX, layer.id) for kind in scatter.kinds)
        told = [[kind.id, kind.share, kind.width_mm, kind.height_mm] for kind in scatter.kinds]
        keys = (task.key for task in pieces)
        return Task(
            task_key("scatter layer", told, scatter.strew.complete(), scatter.laid, grid, *keys),
            layer.name,
            layer.id,
            partial(_strew_on, scatter=scatter, grid=grid),
            pieces,
        )


def _laid(maps: MapSet, *, layer: Layer, cell: tuple[float, float]) -> MapSet:
    return lay_in_sheet(maps, cell, **layer.laying.bound())  # type: ignore[arg-type]


def _look(maps: MapSet, *, layer: Layer) -> MapSet:
    made: MapSet = layer.look.operation.run(maps.grid, maps, **layer.look.bound())
    return made


def _strew_on(*pieces: PieceMaps, scatter: Any, grid: Grid) -> MapSet:
    made = lay_scatter(grid, scatter, pieces)
    # Normal and occlusion follow from the joined relief.
    return MapSet(grid, {k: p for k, p in made.maps.items() if k not in {MapKind.NORMAL, MapKind.AMBIENT_OCCLUSION}})


def _seat_reach(values: dict[str, Any], grid: Grid) -> int:
    """How far a seat looks at the ground, pixels; of values that are not checked yet."""
    known = {
        name: float(values[name])
        for name in ("show_through", "drape", "split")
        if isinstance(values.get(name), int | float)
    }
    return reach_px(grid, reach_mm(Seat(**known)))  # type: ignore[arg-type]
