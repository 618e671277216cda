"""A layer made of a gathered source, laid in whole repeats."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial

from ...job.document import Job, Source
from ...job.layers import Layer, References, Surface, What
from ...job.nodes import Node, Setting, replace_values
from ...operation import Value
from ...phrases import say
from ...plan.protocol import Plans, Repeats
from ...plan.tasks import Task
from ...repeat.mend import closed_size
from ...sheet import Grid
from ..form_rows import Act, Change, FormRow, LentDials, Note, Part
from ..kind import LayerKind, layer_kind
from ..repeats import whole_count


class SourceWhat(Node, What, frozen=True, kw_only=True, tag="source"):
    """A gathered source laid in whole repeats. Its relief and roughness are estimated as the source says,
    or as the layer says. ``merged`` keeps the layers that were merged down into it.
    """

    source: str
    across: int = 1
    up: int = 1
    height: Setting | None = None
    roughness: Setting | None = None
    merged: tuple[Layer, ...] = ()

    def refers(self) -> References:
        """The source it lays."""
        own = References(sources=(self.source,))
        return sum((layer.what.refers() for layer in self.merged), own)


@layer_kind(SourceWhat, label="Source")
class SourceKind(LayerKind[SourceWhat]):
    """A photo, scan, map set or scatter sheet."""

    group = "Source"
    rides = True
    laid = True

    def offers(self, job: Job, surface: Surface | None) -> list[str]:
        return [source.name for source in job.sources if source.sized]

    def fresh(self, job: Job, surface: Surface, name: str) -> SourceWhat:
        source = next(source for source in job.sources if source.name == name)
        width, height = closed_size(source)
        return SourceWhat(
            source=source.id, across=whole_count(surface.width_mm, width), up=whole_count(surface.height_mm, height)
        )

    def maps(self, planner: Plans, layer: Layer, grid: Grid, below: Task | None) -> Task:
        assert isinstance(layer.what, SourceWhat)
        what = layer.what
        repeats = Repeats(what.source, what.across, what.up, what.height, what.roughness)
        return planner.source_maps(repeats, grid, layer.id, layer.name)

    def own_size(self, job: Job, what: SourceWhat) -> tuple[float, float] | None:
        source = _source(job, what)
        return closed_size(source) if source is not None and source.sized else None

    def form(self, job: Job, surface: Surface, layer: Layer) -> Iterable[FormRow]:
        assert isinstance(layer.what, SourceWhat)
        what, source = layer.what, _source(job, layer.what)
        if source is None:
            yield Note("Its source is gone.", tone="fault")
            return
        yield Note(source.name)
        if what.merged:
            yield Act(
                say("Open the {count} merged layers", count=len(what.merged)),
                "In place of their map set",
                asks="unmerge",
            )
        for part in ("height", "roughness"):
            own = source.brings(part)
            yield Part(
                part.capitalize(),
                "its own map" if own else "estimated from the picture",
                (_estimate(part, (getattr(what, part) or getattr(source, part)).op, own),),
            )

    def describe(self, layer: Layer) -> str:
        return "" if layer.where or self.level(layer) else "source"

    def level(self, layer: Layer) -> float:
        return layer.seat.number("level")


def _source(job: Job, what: SourceWhat) -> Source | None:
    return next((source for source in job.sources if source.id == what.source), None)


def _estimate(part: str, op: str, own: bool) -> FormRow:
    """The dials of an estimate; of a map that came with the source only how high it rises."""
    if own and part == "roughness":
        return Note("It comes with the source.")
    return LentDials(
        ("what", part), op, partial(_estimate_values, part), partial(_put_estimate, part), ("rise",) if own else None
    )


def _lent(part: str, job: Job, layer: Layer) -> Setting:
    assert isinstance(layer.what, SourceWhat)
    own: Setting | None = getattr(layer.what, part)
    lent: Setting = getattr(job.source(layer.what.source), part)
    return own or lent


def _estimate_values(part: str, job: Job, layer: Layer) -> dict[str, Value]:
    return dict(_lent(part, job, layer).values)


def _put_estimate(part: str, job: Job, layer: Layer, name: str, value: Value) -> Change:
    # A rise or a size that is said goes before what the picture tells.
    lent, said = _lent(part, job, layer), {name: value}
    if name in {"rise", "broad", "fine"} and lent.values.get("as_told"):
        said["as_told"] = False
    setting = replace_values(lent, **said)
    return Change(("what", part), setting, say("Set {name}", name=name.replace("_", " ")), f"{layer.id}-{part}-{name}")


def unmerged(layer: Layer) -> tuple[Layer, ...]:
    """The layers that were merged down into a layer; none for any other."""
    return layer.what.merged if isinstance(layer.what, SourceWhat) else ()
