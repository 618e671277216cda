"""A layer of brush strokes that change colour, height or roughness of what lies beneath."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial

import msgspec

from ...job.document import Job
from ...job.layers import Layer, References, Stroke, Surface, What
from ...job.nodes import Node
from ...maps import BLENDED
from ...plan import joins
from ...plan.protocol import Place, Plans
from ...plan.tasks import Local, Task, reach_px, task_key
from ..form_rows import Brush, FormRow, Note
from ..kind import LayerKind, layer_kind


class PaintedWhat(Node, What, frozen=True, kw_only=True, tag="painted"):
    """Strokes of colour, height and roughness."""

    strokes: tuple[Stroke, ...] = ()

    def painted(self) -> tuple[Stroke, ...] | None:
        return self.strokes

    def refers(self) -> References:
        return References(sources=tuple(sorted({stroke.tip for stroke in self.strokes} - {""})))


@layer_kind(PaintedWhat, label="Painted")
class PaintedKind(LayerKind[PaintedWhat]):
    """Strokes are paths in mm, drawn again at every size."""

    seated = False
    looked = False
    rides = True

    def join(self, planner: Plans, layer: Layer, place: Place) -> Task:
        assert isinstance(layer.what, PaintedWhat)
        strokes = layer.what.strokes
        older, last = strokes[:-1], strokes[-1:]
        if older and not any(stroke.erase or stroke.into == "smooth" for stroke in strokes):
            # While painting only the last stroke is carried out anew.
            first = msgspec.structs.replace(layer, what=PaintedWhat(strokes=older))
            return _paint(planner, layer, last, place.on(self.join(planner, first, place)), goes_on=True)
        return _paint(planner, layer, strokes, place, goes_on=False)

    def picture(self, planner: Plans, layer: Layer, place: Place) -> Task:
        return planner.joined(msgspec.structs.replace(layer, where=(), shown=True), place)

    def form(self, job: Job, surface: Surface, layer: Layer) -> Iterable[FormRow]:
        yield Note("Strokes are paths in mm, drawn again at every size.")
        yield Brush()


def _paint(planner: Plans, layer: Layer, strokes: tuple[Stroke, ...], place: Place, *, goes_on: bool) -> Task:
    """Strokes on a stack; ``goes_on`` with a layer of which earlier strokes are laid already."""
    inputs = (place.below,) if place.cover is None else (place.below, place.cover)
    tips = planner.tips(strokes, layer.id)
    told = [strokes, goes_on, len(inputs), {kind: layer.mix(kind) for kind in BLENDED}]
    flat = _flattened(layer, strokes, place)
    every = (*inputs, *tips.values(), *flat)
    work = partial(
        joins.paint_on, layer=layer, strokes=strokes, goes_on=goes_on, covers=len(inputs) - 1, tips=list(tips)
    )
    smooth = max((stroke.size_mm for stroke in strokes if stroke.into == "smooth"), default=0.0)
    local = Local(lambda area: partial(work, area=area), reach_px(place.grid, smooth))
    return Task(
        task_key("paint", told, *(task.key for task in every)),
        layer.name,
        layer.id,
        work,
        every,
        place.below,
        local if flat or all(stroke.into != "flatten" for stroke in strokes) else None,
    )


def _flattened(layer: Layer, strokes: tuple[Stroke, ...], place: Place) -> list[Task]:
    """The height a single flattening stroke goes to: where it began may lie elsewhere than the part worked out."""
    return [
        Task(
            task_key("level", stroke.points[:1], place.below.key),
            "Painted",
            layer.id,
            partial(joins.stroke_level, stroke=stroke),
            (place.below,),
            gridless=True,
        )
        for stroke in strokes
        if len(strokes) == 1 and stroke.into == "flatten"
    ]
