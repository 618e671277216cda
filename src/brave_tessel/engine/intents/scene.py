"""What people want to do with the scene, as commands."""

from __future__ import annotations

from collections.abc import Sequence

import msgspec

from ...core.job.commands import AnyCommand, Batch, Insert, Move, Remove, Set
from ...core.job.document import Job
from ...core.job.layers import Band
from ...core.job.nodes import Setting, new_id
from ...core.job.scene import Datum, Eye, Hinge, Laid, Level, Line, Opening, Part, Piece, Place, Scene
from ...core.operation import Value, find
from ...core.phrases import say
from ...core.place import groups as g
from ...core.place.mesh import Vector
from ...core.place.piece import TAKES, made

PARTS = ("scene", "parts")


def _set(part: str, *field: str, value: object, label: str, gesture: str = "") -> AnyCommand:
    return Set(path=(*PARTS, part, *field), value=value, label=label, gesture=gesture)


# Parts -------------------------------------------------------------------------------------------


def add_piece(
    op: str, at: Place, *, parent: str = "", values: dict[str, Value] | None = None
) -> tuple[AnyCommand, Part]:
    """A made piece that stands at a place; what it needs beside its dials is drawn for it."""  # fmt: skip
    part = Part(
        id=new_id("part"), name=find(op).label, parent=parent, at=at, piece=Piece(op=op, values=values or {})
    )  # fmt: skip
    return Insert(path=PARTS, item=part, label=say("Add {name}", name=part.name)), part


def add_group(name: str, *, parent: str = "") -> tuple[AnyCommand, Part]:
    """A part that holds others."""
    part = Part(id=new_id("part"), name=name, parent=parent)
    return Insert(path=PARTS, item=part, label="New group"), part


def group_parts(job: Job, ids: Sequence[str]) -> tuple[AnyCommand, Part] | None:
    """Some parts put into a new group, where the first of them was."""
    chosen = [part for part in job.scene.parts if part.id in set(ids)]
    if not chosen:
        return None
    made_group = Part(id=new_id("part"), name="Group", parent=chosen[0].parent)
    index = job.scene.parts.index(chosen[0])
    commands: list[AnyCommand] = [Insert(path=PARTS, item=made_group, index=index, label="group")]
    commands += [_set(part.id, "parent", value=made_group.id, label="group") for part in chosen]
    return Batch(commands=tuple(commands), label="Group the parts"), made_group


def ungroup(job: Job, id: str) -> AnyCommand | None:
    """A group taken apart: what it held lies in what it lay in."""
    part = job.scene.part(id)
    if part is None or not part.group:
        return None
    commands: list[AnyCommand] = [
        _set(child.id, "parent", value=part.parent, label="ungroup") for child in job.scene.children(id)
    ]
    return Batch(commands=(*commands, Remove(path=(*PARTS, id), label="group")), label="Take the group apart")


def remove_parts(job: Job, ids: Sequence[str]) -> AnyCommand | None:
    """Parts taken out, with all that lies in them; datums that moved with them stay where they were last."""
    gone = {part.id for id in ids for part in job.scene.within(id)}
    if not gone:
        return None
    commands: tuple[AnyCommand, ...] = tuple(Remove(path=(*PARTS, id), label="part") for id in sorted(gone))
    return Batch(commands=commands, label="Take the part out")


def move_part(job: Job, id: str, beside: str, where: str) -> AnyCommand | None:
    """Put a part above or below another, or into a group; never into itself."""
    scene = job.scene
    target = scene.part(beside)
    if target is None or id == beside or beside in {part.id for part in scene.within(id)}:
        return None
    parent = target.id if where == "into" else target.parent
    rest = [part.id for part in scene.parts if part.id != id]
    index = len(rest) if where == "into" else rest.index(beside) + (where == "below")
    return Batch(
        commands=(_set(id, "parent", value=parent, label="move"), Move(path=(*PARTS, id), index=index, label="move")),
        label="Move the part",
    )


def duplicate(job: Job, id: str, *, by: Place = (0.0, 0.0, 0.0)) -> tuple[AnyCommand, Part] | None:
    """A second of a part, with all that lies in it, moved by so many mm."""
    whole = job.scene.within(id)
    if not whole:
        return None
    names = {part.id: new_id("part") for part in whole}
    fresh = []
    for part in whole:
        laid = tuple(msgspec.structs.replace(one, id=new_id("laid")) for one in part.laid)
        at = tuple(a + b for a, b in zip(part.at, by, strict=True)) if part.id == id else part.at
        fresh.append(
            msgspec.structs.replace(
                part, id=names[part.id], parent=names.get(part.parent, part.parent), laid=laid, at=at
            )
        )
    commands = tuple(Insert(path=PARTS, item=part, label="part") for part in fresh)
    return Batch(commands=commands, label="Duplicate the part"), fresh[0]


def rename(id: str, name: str) -> AnyCommand:
    """Give a part another name."""
    return _set(id, "name", value=name, label="Rename the part")


def show_parts(ids: Sequence[str], shown: bool) -> AnyCommand:
    """Show or hide some parts."""
    commands = tuple(_set(id, "hidden", value=not shown, label="hide") for id in ids)
    return Batch(commands=commands, label="Show the part" if shown else "Hide the part")


def isolate(job: Job, ids: Sequence[str]) -> AnyCommand:
    """Hide everything but some parts and what they lie in; show everything again where just those are shown."""
    scene = job.scene
    wanted = {part.id for id in ids for part in scene.within(id)}
    above = set()
    for id in ids:
        part = scene.part(id)
        while part is not None and part.parent and part.parent not in above:
            above.add(part.parent)
            part = scene.part(part.parent)
    hidden = {part.id for part in scene.parts if part.id not in wanted | above}
    now = {part.id for part in scene.parts if part.hidden}
    target = set() if now == hidden else hidden
    changed = [part.id for part in scene.parts if part.hidden != (part.id in target)]
    commands = tuple(_set(id, "hidden", value=id in target, label="isolate") for id in changed)
    return Batch(commands=commands, label="Show all parts" if not target else "Isolate the part")


def lock_parts(ids: Sequence[str], locked: bool) -> AnyCommand:
    """Keep some parts from being picked and moved, or let them."""
    commands = tuple(_set(id, "locked", value=locked, label="lock") for id in ids)
    return Batch(commands=commands, label="Lock the part" if locked else "Unlock the part")


def place_part(id: str, *, at: Place | None = None, turn: Place | None = None, size: Place | None = None,
               gesture: str = "") -> AnyCommand:  # fmt: skip
    """Put a part elsewhere, turn it or size it."""
    given = {"at": at, "turn": turn, "size": size}
    commands = tuple(
        _set(id, name, value=tuple(round(float(v), 6) for v in value), label="place", gesture=gesture)
        for name, value in given.items()
        if value is not None
    )
    return Batch(commands=commands, label="Move the part", gesture=gesture)


def set_copies(id: str, copies: Setting | None, *, gesture: str = "") -> AnyCommand:
    """Repeat a part in a row, a ring or mirrored, or only once."""
    return _set(id, "copies", value=copies, label="Copies of the part", gesture=gesture)


def set_hinge(id: str, hinge: Hinge | None, *, gesture: str = "") -> AnyCommand:
    """Hang a part on a hinge, swing it, or take the hinge off."""
    return _set(id, "hinge", value=hinge, label="Swing the part", gesture=gesture)


def mend_model(id: str, mends: tuple[str, ...]) -> AnyCommand:
    """Mend a model's mesh, or take it as it came."""
    return _set(id, "model", "mends", value=mends, label="Mend the model" if mends else "Take the model as it came")


def follow_file(job: Job, path: str, linked: bool) -> AnyCommand:
    """Follow the file of a model with all its parts, or keep what was read last."""
    commands = tuple(
        _set(part.id, "model", "linked", value=linked, label="link")
        for part in job.scene.parts
        if part.model is not None and part.model.path == path
    )
    return Batch(commands=commands, label="Follow the file" if linked else "Keep the model")


def mirror_part(part: Part) -> AnyCommand:
    """Turn a part into its mirror image, left for right."""
    x, y, z = part.size
    return _set(part.id, "size", value=(-x, y, z), label="Mirror the part")


def set_piece(part: Part, name: str, value: Value, *, gesture: str = "") -> AnyCommand:
    """Change one size of a made piece."""
    assert part.piece is not None
    values = {**part.piece.values, name: value}
    return _set(part.id, "piece", "values", value=values, label="Change the piece", gesture=gesture)


def colour_group(part: Part, group: str, colour: str) -> AnyCommand:
    """Give the bare faces of a group a colour."""
    return _set(part.id, "colours", value={**part.colours, group: colour}, label="Colour the faces")


# Openings and paths --------------------------------------------------------------------------------


def takes(part: Part, what: str) -> bool:
    """Whether a piece is made from openings, a path or a profile beside its dials."""
    return part.piece is not None and what in TAKES.get(part.piece.op, ())


def add_opening(part: Part, left: float, *, kind: str = "window") -> tuple[AnyCommand, Opening]:
    """A window, a door or a plain opening in a wall, its middle about at a place along it."""
    sizes = {"window": (900.0, 900.0, 1300.0), "door": (1000.0, 0.0, 2100.0), "open": (1200.0, 0.0, 2200.0)}
    width, sill, height = sizes[kind]
    one = Opening(
        id=new_id("opening"), left=round(left - width / 2, 1), width=width, sill=sill, height=height, filling=kind,
        sill_out=40.0 if kind == "window" else 0.0, head="round" if kind == "open" else "flat",
    )  # fmt: skip
    return Insert(path=(*PARTS, part.id, "piece", "openings"), item=one, label="Add an opening"), one


def set_opening(part: str, opening: str, name: str, value: object, *, gesture: str = "") -> AnyCommand:
    """Change one size of an opening."""
    return _set(part, "piece", "openings", opening, name, value=value, label="Change the opening", gesture=gesture)


def remove_opening(part: str, opening: str) -> AnyCommand:
    """Close an opening up."""
    return Remove(path=(*PARTS, part, "piece", "openings", opening), label="Close the opening")


def set_path(part: str, points: Sequence[Place], *, closed: bool, gesture: str = "") -> AnyCommand:
    """Draw the line a piece runs along, in the part's own mm."""
    return Batch(
        commands=(
            _set(part, "piece", "path", value=tuple(points), label="path"),
            _set(part, "piece", "closed", value=closed, label="path"),
        ),
        label="Draw the path",
        gesture=gesture,
    )


def set_profile(part: Part, points: Sequence[tuple[float, float]], *, gesture: str = "") -> AnyCommand:
    """Draw the cross-section of a moulding, mm; it counts as drawn, at its own height."""
    assert part.piece is not None
    values = {**part.piece.values, "profile": "drawn", "height": 0.0}
    piece = msgspec.structs.replace(part.piece, profile=tuple(points), values=values)
    return _set(part.id, "piece", value=piece, label="Draw the profile", gesture=gesture)


# Laying ----------------------------------------------------------------------------------------------


def suited(part: Part, groups: Sequence[str] = ()) -> str:
    """The laying that suits a part: round things around, mouldings along their path, cloth as it is unwrapped."""
    if part.piece is None:
        return "laying.box"
    op = part.piece.op
    if op == "made.cloth":
        return "laying.unwrapped"
    if op in _ROUND or (op == "made.vault" and (not groups or set(groups) == {str(g.VAULT)})):
        return "laying.around"
    shape = made(part.piece) if part.piece.known else None
    if shape is not None and shape.path is not None and op not in {"made.vault", "made.road"}:
        return "laying.path"
    return "laying.flat"


_ROUND = {"made.column", "made.dome", "made.ball", "made.curved_wall"}


def lay(
    job: Job, part_id: str, surface: str, *, groups: Sequence[str] = (), picked: str = "", laying: str = ""
) -> tuple[AnyCommand, Laid] | None:
    """Lay a surface on a part, on some of its face groups or on picked faces. What already lies on just those faces is
    given the surface; else it is laid over what is there.
    """
    part = job.scene.part(part_id)
    if part is None or part.group:
        return None
    groups = tuple(str(name) for name in groups)
    for laid in part.laid:
        if laid.groups == groups and laid.picked == picked:
            fresh = msgspec.structs.replace(laid, surface=surface)
            path = (*PARTS, part_id, "laid", laid.id, "surface")
            return Set(path=path, value=surface, label="Lay on the part"), fresh
    fresh = Laid(
        id=new_id("laid"), surface=surface, groups=groups, picked=picked,
        laying=Setting(op=laying or suited(part, groups)),
    )  # fmt: skip
    index = 0 if not groups and not picked else -1
    return Insert(path=(*PARTS, part_id, "laid"), item=fresh, index=index, label="Lay on the part"), fresh


def unfit(part: str, laid: Laid) -> AnyCommand:
    """The surface as it is everywhere: no values of its own, no stretch."""
    path = (*PARTS, part, "laid", laid.id)
    values: dict[str, Value] = {k: v for k, v in laid.laying.values.items() if k not in {"wider", "taller"}}
    commands = (
        Set(path=(*path, "dials"), value={}, label="dials"),
        Set(path=(*path, "laying", "values"), value=values, label="laying"),
    )
    return Batch(commands=commands, label="Take the fit back")


def covers(job: Job, part_id: str, groups: Sequence[str], picked: str) -> list[str]:
    """Names of surfaces that something laid so would cover, wholly or in part."""
    part = job.scene.part(part_id)
    if part is None:
        return []
    names = {surface.id: surface.name for surface in job.surfaces}
    wanted = set(groups)
    found = [
        laid.surface
        for laid in part.laid
        if (laid.groups, laid.picked) != (tuple(groups), picked)
        and (not wanted or not laid.groups or wanted & set(laid.groups) or picked)
    ]
    return [names.get(id, id) for id in dict.fromkeys(found) if id]


def take_off(part: str, laid: str) -> AnyCommand:
    """Take a surface off a part; what lies beneath it shows."""
    return Remove(path=(*PARTS, part, "laid", laid), label="Take the surface off")


def set_laying(part: str, laid: Laid, op: str) -> AnyCommand:
    """Another kind of laying; what all kinds have in common stays."""
    kept = {name: value for name, value in laid.laying.values.items() if name in find(op).params}
    path = (*PARTS, part, "laid", laid.id, "laying")
    return Set(path=path, value=Setting(op=op, values=kept), label="Change the laying")


def set_laying_value(part: str, laid: Laid, name: str, value: Value, *, gesture: str = "") -> AnyCommand:
    """Change one dial of a laying."""
    values = {**laid.laying.values, name: value}
    path = (*PARTS, part, "laid", laid.id, "laying", "values")
    return Set(path=path, value=values, label="Change the laying", gesture=gesture)


def shift(part: str, laid: Laid, across: float, up: float, *, gesture: str = "") -> AnyCommand:
    """Shift a surface along its faces, mm."""
    values = {**laid.laying.values, "across": across, "up": up}
    path = (*PARTS, part, "laid", laid.id, "laying", "values")
    return Set(path=path, value=values, label="Shift the pattern", gesture=gesture)


def set_laid(part: str, laid: str, name: str, value: object, *, label: str = "Change the laying") -> AnyCommand:
    """Change one thing of what is laid: its datum, what it holds to, its pins, its path."""
    return Set(path=(*PARTS, part, "laid", laid, name), value=value, label=label)


def set_bands(job: Job, surface: str, bands: Sequence[Band]) -> AnyCommand:
    """Cut a surface's bands anew; what took one that is gone takes the whole sheet."""
    kept = {band.id for band in bands}
    gone = {band.id for band in job.surface(surface).bands} - kept
    commands: list[AnyCommand] = [Set(path=("surfaces", surface, "bands"), value=tuple(bands), label="bands")]
    commands += [
        set_laid(part.id, laid.id, "band", "")
        for part in job.scene.parts
        for laid in part.laid
        if laid.surface == surface and laid.band in gone
    ]
    return Batch(commands=tuple(commands), label="Cut bands")


def take_band(job: Job, part: str, laid: Laid, band: str) -> AnyCommand:
    """Lay a band of a surface; along a path it goes over the profile and covers it, in whole repeats."""
    commands = [set_laid(part, laid.id, "band", band)]
    if band and laid.laying.op == "laying.path":
        values: dict[str, Value] = {
            **laid.laying.values, "rises": "over the profile", "fill": True, "whole": "repeats", "up": 0.0,
        }  # fmt: skip
        path = (*PARTS, part, "laid", laid.id, "laying", "values")
        commands.append(Set(path=path, value=values, label="laying"))
    return Batch(commands=tuple(commands), label="Take a band" if band else "Take the whole sheet")


def laid_path(part: str, laid: str, points: Vector, *, closed: bool) -> AnyCommand:
    """Lay something along a line, in the part's own mm; a closed one ends where it begins."""
    line = [tuple(round(float(v), 3) for v in point) for point in points]
    if closed and line[0] != line[-1]:
        line.append(line[0])
    return set_laid(part, laid, "path", tuple(line), label="Lay along the path")


# Datums, levels, eyes, lines ---------------------------------------------------------------------


def set_datum(scene: Scene, point: Place, name: str, *, along: Place = (1.0, 0.0, 0.0)) -> AnyCommand:
    """Start all layings that name no datum of their own from a point."""
    main = scene.main_datum()
    if main.id:
        value = msgspec.structs.replace(main, at=point, name=name, along=along, part="")
        return Set(path=("scene", "datums", main.id), value=value, label="Set the datum")
    datum = Datum(id=new_id("datum"), name=name, at=point, along=along)
    return Batch(
        commands=(
            Insert(path=("scene", "datums"), item=datum, label="datum"),
            Set(path=("scene", "datum"), value=datum.id, label="datum"),
        ),
        label="Set the datum",
    )


def own_datum(
    part: str, laid: Laid, point: Place, name: str, *, along: Place = (1.0, 0.0, 0.0), moves_with: str = ""
) -> AnyCommand:
    """Start one laying from a point of its own."""
    datum = Datum(id=new_id("datum"), name=name, at=point, along=along, part=moves_with)
    return Batch(
        commands=(
            Insert(path=("scene", "datums"), item=datum, label="datum"),
            Set(path=(*PARTS, part, "laid", laid.id, "datum"), value=datum.id, label="datum"),
        ),
        label="A datum of its own",
    )


def add_level(name: str, height: float) -> AnyCommand:
    """Name a height of the building."""
    return Insert(
        path=("scene", "levels"),
        item=Level(id=new_id("level"), name=name, height=round(height, 3)),
        label="Add a level",
    )


def set_level(id: str, *, name: str | None = None, height: float | None = None, gesture: str = "") -> AnyCommand:
    """Rename a level or put it elsewhere."""
    commands: list[AnyCommand] = []
    if name is not None:
        commands.append(Set(path=("scene", "levels", id, "name"), value=name, label="level"))
    if height is not None:
        commands.append(Set(path=("scene", "levels", id, "height"), value=round(height, 3), label="level"))
    return Batch(commands=tuple(commands), label="Change the level", gesture=gesture)


def remove_level(id: str) -> AnyCommand:
    """Take a level out."""
    return Remove(path=("scene", "levels", id), label="Take the level out")


def keep_eye(name: str, at: Place, toward: Place, angle: float) -> AnyCommand:
    """Keep a view of the scene."""
    eye = Eye(id=new_id("eye"), name=name, at=at, toward=toward, angle=angle)
    return Insert(path=("scene", "eyes"), item=eye, label="Keep the view")


def add_line(start: Place, end: Place) -> tuple[AnyCommand, Line]:
    """A measured line that stays on the model."""
    line = Line(id=new_id("line"), start=start, end=end)
    return Insert(path=("scene", "lines"), item=line, label="Measure"), line


def remove_line(id: str) -> AnyCommand:
    """Take a measured line away."""
    return Remove(path=("scene", "lines", id), label="Take the line away")


def replace_scene(scene: Scene, label: str) -> AnyCommand:
    """Another scene in place of this one."""
    return Set(path=("scene",), value=scene, label=label)
