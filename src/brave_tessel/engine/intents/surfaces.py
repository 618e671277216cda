"""What people want to do with a surface, as commands."""

from __future__ import annotations

from itertools import count

from ...core.buildup.kinds.recipe import RecipeWhat
from ...core.buildup.kinds.source import SourceWhat
from ...core.errors import MissingError, OutOfRangeError
from ...core.job.commands import AnyCommand, Batch, Insert, Set
from ...core.job.document import Job, Source
from ...core.job.layers import Layer, Surface, layer_path
from ...core.job.nodes import new_id
from ...core.job.resize import LEAST_MM, MOST_MM, resized
from ...core.operation import Value
from ...core.phrases import say
from ...core.place.elevation import units_of
from ...core.recipe.materials import MATERIALS, stock_named
from ...core.recipe.stock import STOCK
from ...core.repeat.mend import closed_size


def surface_from_source(job: Job, source: Source) -> tuple[AnyCommand, Surface]:
    """A new surface whose repeat is the source's mended sheet."""
    width, height = closed_size(source)
    layer = Layer(id=new_id("layer"), name=source.name, what=SourceWhat(source=source.id), hatch="stones")
    surface = Surface(
        id=new_id("surface"),
        name=_free_name(job, source.name),
        width_mm=width,
        height_mm=height,
        layers=(layer,),
        beat=layer.id,
    )
    return Insert(path=("surfaces",), item=surface, label=say("Make {name}", name=surface.name)), surface


def surface_from_stock(job: Job, name: str) -> tuple[AnyCommand, Surface]:
    """A fresh surface of one stock recipe, its repeat the one the recipe closes on.

    Raises
    ------
    MissingError
        when there is no such recipe.
    """
    stock = stock_named(name)
    if stock is None:
        raise MissingError("stock recipe", value=name, allowed=", ".join(entry.name for entry in MATERIALS))
    layer = Layer(id=new_id("layer"), name=stock.name, what=RecipeWhat(recipe=stock.make()))
    width, height = stock.repeat_mm
    surface = Surface(id=new_id("surface"), name=_free_name(job), width_mm=width, height_mm=height, layers=(layer,))
    return Insert(path=("surfaces",), item=surface, label=say("Make {name}", name=surface.name)), surface


def set_repeat(surface: Surface, width_mm: float, height_mm: float, label: str = "Set the repeat") -> AnyCommand:
    """Another size of a surface's repeat, mm."""
    path = ("surfaces", surface.id)
    sizes = (("width_mm", width_mm), ("height_mm", height_mm))
    return Batch(
        commands=tuple(Set(path=(*path, field), value=round(size, 4), label="repeat") for field, size in sizes),
        label=label,
    )


def resize(surface: Surface, width_mm: float, height_mm: float, *, scale: bool) -> AnyCommand:
    """Another repeat whose features keep their mm, or scale with it.

    Raises
    ------
    OutOfRangeError
        when a side is too small or too large.
    """
    for side in (width_mm, height_mm):
        if not LEAST_MM <= side <= MOST_MM:
            raise OutOfRangeError("repeat", value=f"{side:g} mm", allowed=f"{LEAST_MM:g} to {MOST_MM:g} mm")
    value = resized(surface, width_mm, height_mm, scale=scale)
    return Set(path=("surfaces", surface.id), value=value, label="Scale the surface" if scale else "Set the repeat")


def new_surface(job: Job) -> tuple[AnyCommand, Surface]:
    """A fresh surface with one patterned layer, its repeat in whole units."""
    layer = Layer(id=new_id("layer"), name="Rectangular units", what=RecipeWhat(recipe=STOCK["Rectangular units"]()))
    surface = Surface(
        id=new_id("surface"),
        name=_free_name(job),
        width_mm=612.0,
        height_mm=624.0,
        layers=(layer,),
        beat=layer.id,
        rows=(4, 4),
    )
    return Insert(path=("surfaces",), item=surface, label=say("Make {name}", name=surface.name)), surface


EMPTY_MM = 1000.0
"""Repeat of an empty surface, both ways."""


def empty_surface(job: Job) -> tuple[AnyCommand, Surface]:
    """A fresh surface with no layer, one metre by one."""
    surface = Surface(id=new_id("surface"), name=_free_name(job), width_mm=EMPTY_MM, height_mm=EMPTY_MM)
    return Insert(path=("surfaces",), item=surface, label=say("Make {name}", name=surface.name)), surface


def _free_name(job: Job, wanted: str = "") -> str:
    """A source's name where a surface is made of one; otherwise ``Surface 3`` for the third, to be named by the person
    and not by the stock it began with.
    """
    taken = {surface.name for surface in job.surfaces}
    if wanted and wanted not in taken:
        return wanted
    first = 2 if wanted else len(taken) + 1
    return next(name for n in count(first) if (name := f"{wanted or 'Surface'} {n}") not in taken)


def set_step_value(surface: Surface, layer: Layer, step: str, name: str, value: Value, *, gesture: str) -> AnyCommand:
    """Set a dial of a recipe layer. Where the surface's repeat follows the layer's units, it moves with them."""
    path = (*layer_path(surface, layer.id), "what", "recipe", "steps", step, "values", name)
    command = Set(path=path, value=value, label=say("Set {name}", name=name.replace("_", " ")), gesture=gesture)
    if surface.beat != layer.id or name not in {"length", "height", "joint", "bond"}:
        return command
    return Batch(
        commands=(command, *_follow_units(surface, command, keep_rows=name != "bond")),
        label=command.label,
        gesture=gesture,
    )


def _follow_units(surface: Surface, command: Set, *, keep_rows: bool) -> list[AnyCommand]:
    """The repeat that closes on the changed units, with as many of them as before."""
    before = units_of(surface)
    after = command.apply(Job(surfaces=(surface,))).surfaces[0]
    units = units_of(after)
    if before is None or units is None:
        return []
    across, courses = (before.across, before.courses) if keep_rows else (units.across, units.courses)
    period = units.asked_unit_mm * (
        surface.width_mm / before.across / before.unit_mm
        if keep_rows
        else after.width_mm / units.across / units.unit_mm
    )
    width, height = across * period, courses * units.asked_course_mm
    path = ("surfaces", surface.id)
    return [
        Set(path=(*path, "width_mm"), value=round(width, 4), label="repeat"),
        Set(path=(*path, "height_mm"), value=round(height, 4), label="repeat"),
    ]
