"""Pieces strewn and laid on the surface."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from ...job.document import Job
from ...job.layers import Layer, PieceKind, References, Scatter, Surface, What
from ...job.nodes import Node, Setting, new_id
from ...operation import Length
from ...phrases import say
from ...plan.protocol import Plans
from ...plan.tasks import Task
from ...quantity import format_size
from ...sheet import Grid
from ..form_rows import Change, Dials, Field, FormRow, Note, Offer, Part
from ..kind import LayerKind, layer_kind


class ScatterWhat(Node, What, frozen=True, kw_only=True, tag="scatter"):
    """Pieces strewn and laid on the surface; the scatter's own size is the surface's."""

    scatter: Scatter = Scatter()

    def refers(self) -> References:
        """The sources that its pieces are cut from."""
        kinds = self.scatter.kinds
        return References(
            sources=tuple(kind.source for kind in kinds if kind.source),
            blobs=tuple(kind.blob for kind in kinds if kind.blob),
        )


@layer_kind(ScatterWhat, label="Scatter")
class ScatterKind(LayerKind[ScatterWhat]):
    """Leaves, pebbles, shells, nails."""

    rides = True

    def fresh(self, job: Job, surface: Surface, name: str) -> ScatterWhat:
        kinds = (PieceKind(id=new_id("kind"), name="Pebble"),)
        return ScatterWhat(scatter=Scatter(kinds=kinds, strew=Setting(op="scatter.strew", values={"density": 120})))

    def maps(self, planner: Plans, layer: Layer, grid: Grid, below: Task | None) -> Task:
        assert isinstance(layer.what, ScatterWhat)
        return planner.strewn(layer.what.scatter, grid, layer)

    def form(self, job: Job, surface: Surface, layer: Layer) -> Iterable[FormRow]:
        assert isinstance(layer.what, ScatterWhat)
        scatter = layer.what.scatter
        yield Note(", ".join(kind.name for kind in scatter.kinds) or "No kinds of pieces yet.")
        for kind in scatter.kinds:
            yield Part(kind.name, format_size(kind.width_mm, kind.height_mm), _piece_rows(kind))
        yield Offer("Add a kind of piece", "shape", _added)
        yield Dials(("what", "scatter", "strew"), scatter.strew.op)


def _piece_rows(kind: PieceKind) -> tuple[FormRow, ...]:
    place = ("what", "scatter", "kinds", kind.id)
    sides = tuple(
        Field(
            replace(
                Length(2, 300, log=True, least=0.2, most=5000, help=f"{label} of a piece."), label=label, default=40.0
            ),
            (*place, name),
            "Size a piece",
        )
        for name, label in (("width_mm", "Width"), ("height_mm", "Length"))
    )
    return (*sides, Dials((*place, "shape"), kind.shape.op))


def _added(layer: Layer, op: str, name: str) -> Change | None:
    """One more kind of piece beside those there are now."""
    if not isinstance(layer.what, ScatterWhat):
        return None
    fresh = PieceKind(id=new_id("kind"), name=name, shape=Setting(op=op))
    return Change(
        ("what", "scatter", "kinds"), (*layer.what.scatter.kinds, fresh), say("Add {name}", name=name.lower())
    )
