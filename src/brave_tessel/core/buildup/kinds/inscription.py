"""Lettering or a drawing turned into relief."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from functools import partial

import msgspec

from ...job.document import Job
from ...job.layers import Layer, Placement, References, Surface, What
from ...job.nodes import Node, Setting
from ...maps import MapSet
from ...operation import FontName, Words
from ...outlines import Outline
from ...plan.protocol import Plans
from ...plan.tasks import Task, task_key
from ...sheet import Grid
from ..form_rows import Act, Beside, Change, Dials, Field, FormRow, Note
from ..handles import Handles, Moved, place_it, placement_handles
from ..kind import LayerKind, layer_kind
from ..placed import in_the_middle, placement_part


class InscriptionWhat(Node, What, frozen=True, kw_only=True, tag="inscription"):
    """Lettering or a drawing turned into relief. ``drawing`` is a stored SVG or cut-out picture, used in place of
    text.
    """

    placement: Placement = Placement()
    text: str = "Saltreach"
    font: str = "IBM Plex Sans SemiBold"
    drawing: str = ""
    cut: Setting = Setting(op="inscription.cut")

    def refers(self) -> References:
        """The drawing it is cut from, if it is not text."""
        return References(blobs=(self.drawing,) if self.drawing else ())


@layer_kind(InscriptionWhat, label="Inscription")
class InscriptionKind(LayerKind[InscriptionWhat]):
    """Cut in or raised, with a profile, painted or not."""

    def fresh(self, job: Job, surface: Surface, name: str) -> InscriptionWhat:
        height = round(0.14 * min(surface.width_mm, surface.height_mm), 1)
        return InscriptionWhat(placement=msgspec.structs.replace(in_the_middle(surface, 0.5), height_mm=height))

    def maps(self, planner: Plans, layer: Layer, grid: Grid, below: Task | None) -> Task:
        assert isinstance(layer.what, InscriptionWhat)
        what = layer.what
        # Without a font the text names a stored drawing.
        outline = planner.letters("" if what.drawing else what.font, what.drawing or what.text, layer.id)
        return Task(
            task_key("inscription", what.placement, what.cut.complete(), grid, outline.key),
            layer.name,
            layer.id,
            partial(_inscribe, what=what, grid=grid),
            (outline,),
        )

    def painted_share(self, what: InscriptionWhat) -> float:
        return what.cut.number("painted")

    def form(self, job: Job, surface: Surface, layer: Layer) -> Iterable[FormRow]:
        assert isinstance(layer.what, InscriptionWhat)
        if layer.what.drawing:
            yield Beside((Note("A drawing"), Act("Use text", "Write instead", _use_text)))
        else:
            text = replace(Words(help="What is written; a new line begins a new row."), label="Text", default="")
            font = replace(FontName(help="A shipped or an installed font."), label="Font", default="")
            yield Field(text, ("what", "text"))
            yield Field(font, ("what", "font"))
        yield Act("Drawing from a file…", "An SVG, or a cut-out picture whose shape is used", asks="drawing")
        yield Dials(("what", "cut"), layer.what.cut.op)
        yield placement_part()

    def handles(self, surface: Surface, what: InscriptionWhat) -> Handles:
        return placement_handles(what.placement)

    def moved(
        self, surface: Surface, what: InscriptionWhat, handle: str, to: tuple[float, float], unequal: bool
    ) -> Moved | None:
        return place_it(what.placement, handle, *to, unequal)


def _use_text(_job: Job, _surface: Surface, _layer: Layer) -> Change:
    return Change(("what", "drawing"), "", "Use text")


def _inscribe(outline: Outline, *, what: InscriptionWhat, grid: Grid) -> MapSet:
    place = what.placement
    left, low, right, high = outline.box()
    wide, tall = max(right - left, 1e-9), max(high - low, 1e-9)
    # Letters keep their proportion: the placement's width rules, its height stretches.
    size = place.height_mm / tall
    laid = outline.placed(
        at=(place.x_mm, place.y_mm), turn=place.turn, size=size, stretch=place.width_mm / (wide * size), skew=place.skew
    )
    maps: MapSet = what.cut.operation.run(grid, laid, **what.cut.bound())
    return maps
