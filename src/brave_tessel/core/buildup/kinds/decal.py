"""A layer set once, or strewn in copies: a source or a recipe."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial

import msgspec

from ...errors import MissingError
from ...job.document import Job
from ...job.layers import Layer, Placement, Recipe, References, Surface, What
from ...job.nodes import Node, Setting, replace_values
from ...maps import MapSet
from ...phrases import say
from ...plan.protocol import Plans
from ...plan.tasks import Task, task_key
from ...recipe.stock import STOCK
from ...sheet import Grid
from ..decal import set_decal, strewn
from ..form_rows import Act, Change, Dials, FormRow, Note, Part
from ..handles import Handles, Moved, place_it, placement_handles
from ..kind import LayerKind, layer_kind
from ..placed import in_the_middle, placement_part
from ..stack import Stack


class DecalWhat(Node, What, frozen=True, kw_only=True, tag="decal"):
    """Something set once: a source, or a recipe; it wraps. ``strew`` lays many copies."""

    placement: Placement = Placement()
    source: str = ""
    recipe: Recipe | None = None
    strew: Setting = Setting(op="decal.strew")

    def refers(self) -> References:
        """The sources that its recipe looks at."""
        return References(sources=(self.source,) if self.source else ())

    def made_of_recipe(self) -> Recipe | None:
        """The recipe that makes it."""
        return self.recipe


@layer_kind(DecalWhat, label="Decal")
class DecalKind(LayerKind[DecalWhat]):
    """A sign, a stain, a patch."""

    group = "Decal"

    def offers(self, job: Job, surface: Surface | None) -> list[str]:
        return ["Recipe", *(source.name for source in job.sources if source.sized)]

    def fresh(self, job: Job, surface: Surface, name: str) -> DecalWhat:
        place = in_the_middle(surface)
        if name == "Recipe":
            return DecalWhat(placement=place, recipe=STOCK["Clouds"]())
        source = next(source for source in job.sources if source.name == name)
        width, height = source.sheet_mm
        if 0 < width < 2 * surface.width_mm:
            place = msgspec.structs.replace(place, width_mm=width, height_mm=height)
        return DecalWhat(placement=place, source=source.id)

    def layer_name(self, name: str) -> str:
        return f"{name} decal"

    def maps(self, planner: Plans, layer: Layer, grid: Grid, below: Task | None) -> Task:
        assert isinstance(layer.what, DecalWhat)
        what, place = layer.what, layer.what.placement
        px = max(8, min(4096, round(max(place.width_mm, place.height_mm) / grid.pitch_mm)))
        if what.recipe is not None:
            maps = planner.recipe(what.recipe, Grid.for_repeat(place.width_mm, place.height_mm, px), layer.id)
        elif what.source:
            source = planner.job.source(what.source)
            flat = planner.sheet(source, px) if source.scatter is not None else planner.evened(source, px)
            maps = planner.estimated(source, None, flat, layer.id)
        else:
            raise MissingError("picture", value=layer.name, remedy="Choose a source or a recipe in the card.")
        clings = what.strew.number("cling") > 0
        inputs = (maps, below or planner.bare(grid, layer.id)) if clings else (maps,)
        return Task(
            task_key("decal", place, what.strew.complete(), grid, *(task.key for task in inputs)),
            layer.name,
            layer.id,
            partial(_set, what=what, grid=grid),
            inputs,
        )

    def form(self, job: Job, surface: Surface, layer: Layer) -> Iterable[FormRow]:
        assert isinstance(layer.what, DecalWhat)
        what = layer.what
        if what.recipe is not None:
            yield Act("Open the recipe", "The steps that make the decal (E)", asks="recipe")
        else:
            yield Note(next((source.name for source in job.sources if source.id == what.source), "no source"))
        yield Note("Drag it on the board; corners size it, with Shift unequally, the knob turns it.")
        yield Act("Match its colour", "Brings its colour to what lies beneath; how far is under Tone match", _matched)
        yield placement_part()
        yield Part("Copies and edge", _copies, (Dials(("what", "strew"), what.strew.op),))

    def handles(self, surface: Surface, what: DecalWhat) -> Handles:
        return placement_handles(what.placement)

    def moved(
        self, surface: Surface, what: DecalWhat, handle: str, to: tuple[float, float], unequal: bool
    ) -> Moved | None:
        return place_it(what.placement, handle, *to, unequal)

    def dropped(self, what: DecalWhat, at: tuple[float, float]) -> DecalWhat:
        place = msgspec.structs.replace(what.placement, x_mm=round(at[0], 2), y_mm=round(at[1], 2))
        return msgspec.structs.replace(what, placement=place)


def _matched(_job: Job, _surface: Surface, layer: Layer) -> Change:
    return Change(("tone",), replace_values(layer.tone, tone_match=0.8), "Match its colour")


def _copies(_surface: Surface, layer: Layer) -> str:
    count = layer.what.strew.number("copies") if isinstance(layer.what, DecalWhat) else 1
    return "set once" if count == 1 else say("{count:.0f} copies", count=count)


def _set(maps: MapSet, *under: Stack, what: DecalWhat, grid: Grid) -> MapSet:
    values = what.strew.bound()
    cling, edge = float(values.pop("cling")), float(values.pop("edge"))
    placements = strewn(what.placement, grid, **values)  # type: ignore[arg-type]
    return set_decal(grid, maps, placements, edge=edge, ground=under[0].height if under else None, cling=cling)
