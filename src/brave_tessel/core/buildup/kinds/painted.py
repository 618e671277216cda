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
        """Its strokes."""
        return self.strokes

    def refers(self) -> References:
        """The sources and recipes that its strokes take as tips."""
        return References(sources=tuple(sorted({stroke.tip for stroke in self.strokes} - {""})))


@layer_kind(PaintedWhat, label="Painted")
class PaintedKind(LayerKind[PaintedWhat]):
    """Strokes are paths in mm, drawn again at every size."""

    seated = False
    looked = False
    rides = True

    def moulds(self, layer: Layer) -> bool:
        """Whether any stroke changes the height."""
        assert isinstance(layer.what, PaintedWhat)
        return any(stroke.into not in {"colour", "roughness"} for stroke in layer.what.strokes)

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
    flat = _flattened(layer, strokes, place)
    given = {**planner.tips(strokes, layer.id), "cover": place.cover, "flat": flat}
    inputs = {name: task for name, task in given.items() if task is not None}
    every = (place.below, *inputs.values())
    told = [strokes, goes_on, tuple(inputs), {kind: layer.mix(kind) for kind in BLENDED}]
    work = partial(joins.paint_on, names=tuple(inputs), layer=layer, strokes=strokes, goes_on=goes_on)
    smooth = max((stroke.size_mm for stroke in strokes if stroke.into == "smooth"), default=0.0)
    local = Local(lambda area: partial(work, area=area), reach_px(place.grid, smooth))
    return Task(
        task_key("paint", told, *(task.key for task in every)),
        layer.name,
        layer.id,
        work,
        every,
        place.below,
        local if flat is not None or all(stroke.into != "flatten" for stroke in strokes) else None,
    )


def _flattened(layer: Layer, strokes: tuple[Stroke, ...], place: Place) -> Task | None:
    """The height a single flattening stroke goes to: where it began may lie elsewhere than the part worked out."""
    if len(strokes) != 1 or strokes[0].into != "flatten":
        return None
    key = task_key("stroke start", strokes[0].points[:1], place.below.key)
    work = partial(joins.stroke_start, stroke=strokes[0])
    return Task(key, "Painted", layer.id, work, (place.below,), gridless=True)
