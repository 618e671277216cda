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
from ...maps import FINISH, TRAITS, MapKind, MapSet
from ...maps import plain as even
from ...operation import Angle, Fraction, Paint, Param
from ...plan.protocol import Plans
from ...plan.tasks import Task, task_key
from ...sheet import Grid
from ..form_rows import Field, FormRow
from ..kind import LayerKind, layer_kind


def _part(name: str, param: Param, default: float | str) -> Field:
    label = TRAITS[MapKind(name)].label
    return Field(replace(param, label=label, default=default), ("what", name))


FIELDS = (
    Field(replace(Paint(help="Colour of the layer."), label="Colour", default="#B9B2A3"), ("what", "colour")),
    Field(replace(Fraction(help="Roughness of the layer."), label="Roughness", default=0.8), ("what", "roughness")),
    Field(replace(Fraction(help="Metalness of the layer."), label="Metalness", default=0.0), ("what", "metalness")),
    _part("specular_level", Fraction(help="Reflectance of what is not metal, as a share of the usual 4 %."), 1.0),
    _part("sheen", Paint(help="Light of fine fibres, as on velvet and felt; black is none."), "#000000"),
    _part("sheen_roughness", Fraction(help="How far the fibres stand apart."), 0.3),
    _part("coat", Fraction(help="A clear lacquer over everything."), 0.0),
    _part("coat_roughness", Fraction(help="Roughness of the lacquer."), 0.05),
    _part("anisotropy", Fraction(help="How far a gloss is drawn out, as on brushed metal."), 0.0),
    _part("anisotropy_angle", Angle(0, 180, help="Along which it is brushed, from the right anticlockwise."), 0.0),
    _part("emission", Paint(help="Light it gives by itself; white is 1 000 cd/m²."), "#000000"),
    _part("transmission", Fraction(help="How much light goes straight through, as through glass."), 0.0),
    _part("translucency", Fraction(help="How much light comes through scattered, as through a leaf or wax."), 0.0),
)


class PlainWhat(Node, What, frozen=True, kw_only=True, tag="plain"):
    """One value for each map."""

    colour: str = "#B9B2A3"
    roughness: float = 0.8
    metalness: float = 0.0
    specular_level: float = 1.0
    sheen: str = "#000000"
    sheen_roughness: float = 0.3
    coat: float = 0.0
    coat_roughness: float = 0.05
    anisotropy: float = 0.0
    anisotropy_angle: float = 0.0
    emission: str = "#000000"
    transmission: float = 0.0
    translucency: float = 0.0

    def finishes(self) -> frozenset[MapKind]:
        """Maps of finishes it brings: those that are not as on any plain thing."""
        own = {MapKind(name) for name in _ALONE if getattr(self, name) != getattr(_USUAL, name)}
        return frozenset(own | {with_it for kind in own for with_it in _WITH.get(kind, ())})


_ALONE = ("specular_level", "sheen", "coat", "anisotropy", "emission", "transmission", "translucency")
_WITH = {
    MapKind.SHEEN: (MapKind.SHEEN_ROUGHNESS,),
    MapKind.COAT: (MapKind.COAT_ROUGHNESS,),
    MapKind.ANISOTROPY: (MapKind.ANISOTROPY_ANGLE,),
}
_USUAL = PlainWhat()


@layer_kind(PlainWhat, label="Plain")
class PlainKind(LayerKind[PlainWhat]):
    """One colour, roughness and metalness; flat."""

    rides = True

    def offers(self, job: Job, surface: Surface | None) -> list[str]:
        return ["Plain colour"]

    def maps(self, planner: Plans, layer: Layer, grid: Grid, below: Task | None) -> Task:
        assert isinstance(layer.what, PlainWhat)
        what = layer.what
        told = (
            what.colour,
            what.roughness,
            what.metalness,
            *(getattr(what, kind) for kind in FINISH if hasattr(what, kind)),
        )
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
            **{kind: np.ascontiguousarray(even(grid, _value(what, kind))) for kind in sorted(what.finishes())},
        },
    )


def _value(what: PlainWhat, kind: MapKind) -> tuple[float, ...]:
    value = getattr(what, kind)
    if TRAITS[kind].colour:
        return hex_to_linear(value)
    return (value / 180 if kind is MapKind.ANISOTROPY_ANGLE else value,)
