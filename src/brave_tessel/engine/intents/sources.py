"""What people want to do with a source, as commands."""

from __future__ import annotations

import msgspec

from ...core.errors import DoesNotFitError
from ...core.gather.straighten import Corners, check_corners
from ...core.job.commands import AnyCommand, Batch, Insert, Remove, Set
from ...core.job.document import Job, Picture, Source
from ...core.job.layers import every_layer, laid_times
from ...core.job.nodes import Setting
from ...core.operation import Value
from ...core.phrases import say
from ...core.repeat.mend import closed_size
from ...core.repeat.method import METHODS


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
    label = "Add a map" if len(pictures) == 1 else say("Add {count} maps", count=len(pictures))
    return Set(path=("sources", source.id, "pictures"), value=(*source.pictures, *pictures), label=label)


def remove_picture(source: Source, id: str) -> AnyCommand:
    """Take one of a source's further maps out."""
    return Remove(path=("sources", source.id, "pictures", id), label="Take out a map")


def set_method(job: Job, source: Source, op: str) -> AnyCommand:
    """Mend a source another way, starting from values that suit its size."""
    frame = source.straightening
    method = METHODS.get(op)
    values = method.fresh(frame.width_mm or 600.0, frame.height_mm or 600.0) if method is not None else {}
    mend = Setting(op=op, values=values)
    command = Set(path=("sources", source.id, "mend"), value=mend, label="Mend another way")
    return follow_source(job, msgspec.structs.replace(source, mend=mend), command)


def set_source_value(job: Job, source: Source, part: str, name: str, value: Value, *, gesture: str) -> AnyCommand:
    """Set a value of a source's light or mend; a repeat that follows the source moves with it."""
    setting: Setting = getattr(source, part)
    changed = msgspec.structs.replace(setting, values={**setting.values, name: value})
    command = Set(
        path=("sources", source.id, part),
        value=changed,
        label=say("Set {name}", name=name.replace("_", " ")),
        gesture=gesture,
    )
    after = msgspec.structs.replace(source, **{part: changed})
    return follow_source(job, after, command, gesture)


def follow_source(job: Job, source: Source, command: AnyCommand, gesture: str = "") -> AnyCommand:
    """The command, and the new repeat of every surface whose beat is a layer of this source."""
    width, height = closed_size(source)
    more: list[AnyCommand] = []
    for surface in job.surfaces:
        beat = next((layer for layer in surface.layers if layer.id == surface.beat), None)
        if beat is None or source.id not in beat.what.refers().sources or width <= 0 or height <= 0:
            continue
        across, up = laid_times(beat)
        sizes = (width * across, height * up)
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


def add_source(source: Source) -> AnyCommand:
    """Add a source that has been read."""
    return Insert(path=("sources",), item=source, label=say("Add {name}", name=source.name))


def remove_source(job: Job, source: Source) -> AnyCommand:
    """Take a source out.

    Raises
    ------
    DoesNotFitError
        while a surface is made of it, or a rule of a layer looks at it.
    """
    for surface in job.surfaces:
        for layer, _way in every_layer(surface.layers):
            if source.id in layer.what.refers().sources or any(_looks_at(entry.rule, source) for entry in layer.where):
                reason = say(
                    "{name} is made of it; take {name_2} out there first", name=surface.name, name_2=layer.name
                )
                raise DoesNotFitError(source.name, value="being taken out", allowed=reason)
    return Remove(path=("sources", source.id), label=say("Take out {name}", name=source.name))


def _looks_at(rule: Setting, source: Source) -> bool:
    """Whether one of a rule's values names the source."""
    params = rule.operation.params
    return any(params[name].kind == "source" and value == source.id for name, value in rule.complete().items())


def set_value(path: tuple[str, ...], setting: Setting, name: str, value: Value, *, gesture: str) -> AnyCommand:
    """Set one value of a declared operation at a path."""
    return Set(
        path=(*path, "values"),
        value={**setting.values, name: value},
        label=say("Set {name}", name=name.replace("_", " ")),
        gesture=gesture,
    )
