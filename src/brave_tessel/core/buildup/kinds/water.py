"""Standing water: it fills what lies beneath up to a level."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial

import msgspec

from ...job.document import Job
from ...job.layers import Layer, Surface, What
from ...job.nodes import Node, Setting
from ...maps import WET, MapKind
from ...plan import joins
from ...plan.joins import RIPPLES
from ...plan.protocol import Place, Plans
from ...plan.tasks import Local, Task, task_key
from ..form_rows import Dials, FormRow
from ..kind import LayerKind, layer_kind


class WaterWhat(Node, What, frozen=True, kw_only=True, tag="water"):
    """Standing water up to a level in mm."""

    water: Setting = Setting(op="water.standing")

    def finishes(self) -> frozenset[MapKind]:
        """What a surface tells of the water on it."""
        return frozenset(WET)


@layer_kind(WaterWhat, label="Standing water")
class WaterKind(LayerKind[WaterWhat]):
    """A top in mm, a damp rim, ripples."""

    hatch = "waves"
    rides = True
    seated = mapped = looked = False
    fills = True

    def join(self, planner: Plans, layer: Layer, place: Place) -> Task:
        assert isinstance(layer.what, WaterWhat)
        water, grid = layer.what.water, place.grid
        ripples = {name: water.value(name) for name in RIPPLES}
        top = Task(task_key("ripples", ripples, grid), layer.name, layer.id, partial(joins.rippled, grid, water=water))
        inputs = (place.below, top) if place.cover is None else (place.below, top, place.cover)
        work = partial(joins.stand, water=water)
        key = task_key("water", water.complete(), *(task.key for task in inputs))
        return Task(key, layer.name, layer.id, work, inputs, place.below, Local.pointwise(work))

    def picture(self, planner: Plans, layer: Layer, place: Place) -> Task:
        return planner.joined(msgspec.structs.replace(layer, where=(), shown=True), place)

    def form(self, job: Job, surface: Surface, layer: Layer) -> Iterable[FormRow]:
        assert isinstance(layer.what, WaterWhat)
        yield Dials(("what", "water"), layer.what.water.op)

    def describe(self, layer: Layer) -> str:
        return "water"

    def level(self, layer: Layer) -> float:
        assert isinstance(layer.what, WaterWhat)
        return layer.what.water.number("level")
