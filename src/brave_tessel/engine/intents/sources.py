"""What people want to do, as commands. Knows the job, nothing of windows."""

from __future__ import annotations

import msgspec

from ...core.errors import MissingError
from ...core.gather.straighten import Corners, check_corners
from ...core.job.commands import AnyCommand, Batch, Insert, Remove, Set
from ...core.job.document import (
    Job,
    Layer,
    Picture,
    RecipeWhat,
    Setting,
    Source,
    SourceWhat,
    Surface,
    layer_path,
    new_id,
)
from ...core.operation import Value
from ...core.place.elevation import units_of
from ...core.place.pieces import corner_scene
from ...core.recipe.shelf import SHELF, stock_named
from ...core.recipe.stock import STOCK
from ...core.repeat.mend import closed_size


def set_frame(source: Source, corners: Corners, *, gesture: str = "") -> AnyCommand:
    """Put the straightening frame's corners."""
    check_corners(corners)
    return Set(
        path=("sources", source.id, "straightening", "corners"), value=corners, label="Move the frame", gesture=gesture
    )


def set_size(source: Source, width_mm: float, height_mm: float, note: str = "") -> AnyCommand:
    """Give the frame its real size; surfaces whose repeat follows the source take the new one."""
    frame = msgspec.structs.replace(source.straightening, width_mm=width_mm, height_mm=height_mm, size_note=note)
    return Set(path=("sources", source.id, "straightening"), value=frame, label="Size the frame")


def set_picture(source: Source, picture: Picture, **change: object) -> AnyCommand:
    """Put one of a source's further maps right: its role, green direction, or relief turned over."""
    value = msgspec.structs.replace(picture, **change, reason="set by hand")
    return Set(path=("sources", source.id, "pictures", picture.id), value=value, label="Set a map right")


def add_pictures(source: Source, pictures: tuple[Picture, ...]) -> AnyCommand:
    """Further maps of a source."""
    label = "Add a map" if len(pictures) == 1 else f"Add {len(pictures)} maps"
    return Set(path=("sources", source.id, "pictures"), value=(*source.pictures, *pictures), label=label)


def remove_picture(source: Source, id: str) -> AnyCommand:
    """Take one of a source's further maps out."""
    return Remove(path=("sources", source.id, "pictures", id), label="Take out a map")


def set_method(job: Job, source: Source, op: str) -> AnyCommand:
    """Mend a source another way, starting from values that suit its size."""
    frame = source.straightening
    width, height = frame.width_mm or 600.0, frame.height_mm or 600.0
    least = min(width, height)
    fresh: dict[str, dict[str, Value]] = {
        "mend.best_cut": {"overlap": round(0.15 * least, 1)},
        "mend.regrow": {
            "width": round(width, 1),
            "height": round(height, 1),
            "block": round(0.28 * least, 1),
            "overlap": round(0.07 * least, 1),
        },
        "mend.courses": {"period_across": round(width / 3, 1), "period_up": round(height / 3, 1), "across": 2, "up": 2},
    }
    mend = Setting(op=op, values=fresh.get(op, {}))
    command = Set(path=("sources", source.id, "mend"), value=mend, label="Mend another way")
    return follow_source(job, msgspec.structs.replace(source, mend=mend), command)


def set_source_value(job: Job, source: Source, part: str, name: str, value: Value, *, gesture: str) -> AnyCommand:
    """Set a value of a source's light or mend; a repeat that follows the source moves with it."""
    setting: Setting = getattr(source, part)
    changed = msgspec.structs.replace(setting, values={**setting.values, name: value})
    command = Set(
        path=("sources", source.id, part), value=changed, label=f"Set {name.replace('_', ' ')}", gesture=gesture
    )
    after = msgspec.structs.replace(source, **{part: changed})
    return follow_source(job, after, command, gesture)


def follow_source(job: Job, source: Source, command: AnyCommand, gesture: str = "") -> AnyCommand:
    """The command, and the new repeat of every surface whose beat is a layer of this source."""
    width, height = closed_size(source)
    more: list[AnyCommand] = []
    for surface in job.surfaces:
        beat = next((layer for layer in surface.layers if layer.id == surface.beat), None)
        if (
            beat is None
            or not isinstance(beat.what, SourceWhat)
            or beat.what.source != source.id
            or width <= 0
            or height <= 0
        ):
            continue
        sizes = (width * beat.what.across, height * beat.what.up)
        for field, size in zip(("width_mm", "height_mm"), sizes, strict=True):
            more.append(Set(path=("surfaces", surface.id, field), value=size, label="repeat"))
    if not more:
        return command
    return Batch(commands=(command, *more), label=command.label, gesture=gesture)


def resize_source(job: Job, source: Source, width_mm: float, height_mm: float, note: str = "") -> AnyCommand:
    """As :func:`set_size`, and repeats that follow the source move with it."""
    command = set_size(source, width_mm, height_mm, note)
    after = msgspec.structs.replace(
        source, straightening=msgspec.structs.replace(source.straightening, width_mm=width_mm, height_mm=height_mm)
    )
    return follow_source(job, after, command, "")


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
    return Insert(path=("surfaces",), item=surface, label=f"Make {surface.name}"), surface


def surface_from_stock(job: Job, name: str) -> tuple[AnyCommand, Surface]:
    """A fresh surface of one stock recipe, its repeat the one the recipe closes on.

    Raises
    ------
    MissingError
        when there is no such recipe.
    """
    stock = stock_named(name)
    if stock is None:
        raise MissingError("stock recipe", value=name, allowed=", ".join(entry.name for entry in SHELF))
    layer = Layer(id=new_id("layer"), name=stock.name, what=RecipeWhat(recipe=stock.make()))
    width, height = stock.repeat_mm
    surface = Surface(
        id=new_id("surface"), name=_free_name(job, stock.name), width_mm=width, height_mm=height, layers=(layer,)
    )
    return Insert(path=("surfaces",), item=surface, label=f"Make {surface.name}"), surface


def set_repeat(surface: Surface, width_mm: float, height_mm: float, label: str = "Set the repeat") -> AnyCommand:
    """Another size of a surface's repeat, mm."""
    path = ("surfaces", surface.id)
    sizes = (("width_mm", width_mm), ("height_mm", height_mm))
    return Batch(
        commands=tuple(Set(path=(*path, field), value=round(size, 4), label="repeat") for field, size in sizes),
        label=label,
    )


def new_surface(job: Job) -> tuple[AnyCommand, Surface]:
    """A fresh surface with one patterned layer, its repeat in whole units."""
    layer = Layer(id=new_id("layer"), name="Rectangular units", what=RecipeWhat(recipe=STOCK["Rectangular units"]()))
    surface = Surface(
        id=new_id("surface"),
        name=_free_name(job, "New surface"),
        width_mm=612.0,
        height_mm=624.0,
        layers=(layer,),
        beat=layer.id,
        rows=(4, 4),
    )
    return Insert(path=("surfaces",), item=surface, label=f"Make {surface.name}"), surface


def _free_name(job: Job, wanted: str) -> str:
    taken = {surface.name for surface in job.surfaces}
    return next(name for n in range(1, len(taken) + 2) if (name := wanted if n == 1 else f"{wanted} {n}") not in taken)


def set_step_value(surface: Surface, layer: Layer, step: str, name: str, value: Value, *, gesture: str) -> AnyCommand:
    """Set a dial of a recipe layer. Where the surface's repeat follows the layer's units, it moves with them."""
    path = (*layer_path(surface, layer.id), "what", "recipe", "steps", step, "values", name)
    command = Set(path=path, value=value, label=f"Set {name.replace('_', ' ')}", gesture=gesture)
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


def set_value(path: tuple[str, ...], setting: Setting, name: str, value: Value, *, gesture: str) -> AnyCommand:
    """Set one value of a declared operation at a path."""
    return Set(
        path=(*path, "values"),
        value={**setting.values, name: value},
        label=f"Set {name.replace('_', ' ')}",
        gesture=gesture,
    )


def lay_on_part(part: str, surface: str) -> AnyCommand:
    """Lay a surface on a part of the scene."""
    return Set(path=("scene", "parts", part, "surface"), value=surface, label="Lay on the part")


def set_datum(point: tuple[float, float, float], name: str) -> AnyCommand:
    """Start all layings from a point."""
    return Batch(
        commands=(
            Set(path=("scene", "datum"), value=point, label="datum"),
            Set(path=("scene", "datum_name"), value=name, label="datum"),
        ),
        label="Set the datum",
    )


def build_scene(job: Job) -> AnyCommand:
    """Put up the built-in corner with the job's first surfaces."""
    ids = [surface.id for surface in job.surfaces]
    scene = corner_scene(**dict(zip(("dado", "wall", "floor"), ids, strict=False)))
    return Set(path=("scene",), value=scene, label="Put up the corner")


def remove_source(job: Job, source: Source) -> AnyCommand:
    """Take a source out; refused while a surface is made of it."""
    return Remove(path=("sources", source.id), label=f"Remove {source.name}")
