"""A layer of one value for each map."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from functools import partial

import numpy as np

from ...colour import hex_to_linear
from ...job.document import Job
from ...job.layers import Layer, Surface, What
from ...job.nodes import Node
from ...maps import MapKind, MapSet
from ...maps import plain as even
from ...operation import Fraction, Paint
from ...plan.protocol import Plans
from ...plan.tasks import Task, task_key
from ...sheet import Grid
from ..form_rows import Field, FormRow
from ..kind import LayerKind, layer_kind

FIELDS = (
    Field(replace(Paint(help="Colour of the layer."), label="Colour", default="#B9B2A3"), ("what", "colour")),
    Field(replace(Fraction(help="Roughness of the layer."), label="Roughness", default=0.8), ("what", "roughness")),
    Field(replace(Fraction(help="Metalness of the layer."), label="Metalness", default=0.0), ("what", "metalness")),
)


class PlainWhat(Node, What, frozen=True, kw_only=True, tag="plain"):
    """One value for each map."""

    colour: str = "#B9B2A3"
    roughness: float = 0.8
    metalness: float = 0.0


@layer_kind(PlainWhat, label="Plain")
class PlainKind(LayerKind[PlainWhat]):
    """One colour, roughness and metalness; flat."""

    rides = True

    def offers(self, job: Job, surface: Surface | None) -> list[str]:
        return ["Plain colour"]

    def maps(self, planner: Plans, layer: Layer, grid: Grid, below: Task | None) -> Task:
        assert isinstance(layer.what, PlainWhat)
        what = layer.what
        told = (what.colour, what.roughness, what.metalness)
        return Task(task_key("plain", told, grid), layer.name, layer.id, partial(_maps, what, grid))

    def form(self, job: Job, surface: Surface, layer: Layer) -> Iterable[FormRow]:
        return FIELDS


def _maps(what: PlainWhat, grid: Grid) -> MapSet:
    return MapSet(
        grid,
        {
            MapKind.BASE_COLOUR: np.ascontiguousarray(even(grid, hex_to_linear(what.colour))),
            MapKind.ROUGHNESS: np.full(grid.shape, what.roughness, np.float32),
            MapKind.METALNESS: np.full(grid.shape, what.metalness, np.float32),
            MapKind.HEIGHT: np.zeros(grid.shape, np.float32),
        },
    )
