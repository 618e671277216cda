"""A model file brought into a scene: its parts with their names, places and sizes."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

import msgspec
import numpy as np

from ...core.job.commands import AnyCommand, Batch, Insert, Set
from ...core.job.document import Job
from ...core.job.nodes import new_id
from ...core.job.scene import Model, Part
from ...core.pace import watched
from ...core.phrases import Phrase, say, say_count
from ...core.place.frames import placed, taken_apart
from ...core.place.guess import Guess, guess, upright
from ...core.place.mend import Health, health
from ...core.place.mesh import Matrix, Mesh
from ...formats.scene_models import ReadModel, bundled, read_model
from ..evaluate import always
from ..kept import KeptFiles
from .shelf import ModelShelf

MOST_CHECKED = 300_000
"""Triangles of a shape over which it is not looked through for faults unasked."""


@dataclass(frozen=True, slots=True)
class Brought:
    """A model as it came: its file, what was read, how its unit was told, and what is wrong with its shapes."""

    path: str
    file_name: str
    blob: str
    read: ReadModel
    guess: Guess
    faults: dict[str, Health]


def bring(path: Path, kept: KeptFiles, shelf: ModelShelf, *, current: Callable[[], bool] = always) -> Brought:
    """Read a model file and keep its bytes; off the window's thread.

    Raises
    ------
    UnreadableFileError, TooLargeError, MissingError
        when it cannot be read; nothing is kept then.
    CancelledError
        when the work that asked has been overtaken.
    """
    data = bundled(path)
    with watched(lambda _share: current()):
        read = read_model(data, path.name)
    blob = kept.keep(data)
    shelf.faults.pop(blob, None)
    shelf.put(blob, read)
    named = [(node.name, read.shapes[node.shape]) for node in read.nodes]
    told = guess(named, unit_mm=read.unit_mm, up=read.up, name=path.name)
    faults = {
        name: found
        for name, mesh in zip(read.names, read.shapes, strict=True)
        if mesh.count <= MOST_CHECKED and not (found := health(_in_mm(mesh, told))).sound
    }
    return Brought(str(path.absolute()), path.name, blob, read, told, faults)


def _in_mm(mesh: Mesh, told: Guess) -> Mesh:
    return mesh.moved(np.diag([told.unit_mm] * 3 + [1.0]))


def parts_of(brought: Brought, *, unit_mm: float = 0.0, up: str = "", linked: bool = False) -> tuple[Part, ...]:
    """The parts of a model: one that holds them all, groups as the file has them, and one for each of its places."""
    unit, way = unit_mm or brought.guess.unit_mm, up or brought.guess.up
    whole = Part(id=new_id("part"), name=_title(brought.file_name))
    parts = [whole]
    groups: dict[tuple[str, ...], str] = {(): whole.id}
    for node in brought.read.nodes:
        for depth in range(1, len(node.above) + 1):
            above = node.above[:depth]
            if above not in groups:
                made = Part(id=new_id("part"), name=above[-1], parent=groups[above[:-1]])
                groups[above] = made.id
                parts.append(made)
        parts.append(_part(brought, node.name, node.shape, node.matrix, unit, way, linked, groups[node.above]))
    return tuple(parts)


def _title(file_name: str) -> str:
    return Path(file_name).stem.replace("_", " ").strip() or "Model"


def _part(
    brought: Brought, name: str, shape: int, matrix: Matrix, unit: float, way: str, linked: bool, parent: str
) -> Part:
    mesh = brought.read.shapes[shape]
    low, high = mesh.box
    turn = upright(way)
    size = np.abs(turn @ (high - low)) * unit
    at, turned, sized = where(matrix, unit, way)
    model = Model(
        blob=brought.blob,
        part=brought.read.names[shape],
        file_name=brought.file_name,
        path=brought.path,
        linked=linked,
        unit_mm=unit,
        up=way,
        size_mm=tuple(round(float(v), 3) for v in size),  # type: ignore[arg-type]
        triangles=mesh.count,
    )
    colours = {material: brought.read.colours[material] for material in mesh.names if material in brought.read.colours}
    return Part(
        id=new_id("part"), name=name, parent=parent, at=at, turn=turned, size=sized, model=model, colours=colours
    )  # fmt: skip


Triple = tuple[float, float, float]


def where(matrix: Matrix, unit: float, way: str) -> tuple[Triple, Triple, Triple]:
    """A place of the file as place, turn and size of a part in the scene; a transform that shears is taken as the
    nearest that does not.
    """
    turn = np.eye(4)
    turn[:3, :3] = upright(way)
    moved = turn @ np.asarray(matrix, float) @ turn.T
    moved[:3, 3] *= unit
    found = taken_apart(moved)
    if found is None:
        u, size, v = np.linalg.svd(moved[:3, :3])
        moved[:3, :3] = u @ v * float(size.mean())
        found = taken_apart(moved)
    return found or ((0.0, 0.0, 0.0), (0.0, 0.0, 0.0), (1.0, 1.0, 1.0))


def add_parts(parts: tuple[Part, ...], label: str = "Add a model") -> AnyCommand:
    """Put parts into the scene as one step."""
    return Batch(commands=tuple(Insert(path=("scene", "parts"), item=part, label=label) for part in parts), label=label)


def told_of(brought: Brought) -> Phrase:
    """What is said of a model that was just placed."""
    count = len(brought.read.nodes)
    parts = say_count(count, "1 part", "{n} parts")
    if brought.guess.sure:
        return say("{name}: {parts}, in {unit}.", name=brought.file_name, parts=parts, unit=brought.guess.unit)
    return say(
        "{name}: {parts}, taken to be in {unit}: {reason}. Change it in the card.",
        name=brought.file_name,
        parts=parts,
        unit=brought.guess.unit,
        reason=brought.guess.reason,
    )


def resize(job: Job, blob: str, *, unit_mm: float, up: str) -> AnyCommand:
    """Take a whole model in another unit, or with another axis up; its parts keep what is laid on them."""
    commands: list[AnyCommand] = []
    for part in job.scene.parts:
        model = part.model
        if model is None or model.blob != blob:
            continue
        ratio = unit_mm / model.unit_mm
        turn = np.eye(4)
        turn[:3, :3] = upright(up) @ upright(model.up).T
        moved = turn @ placed(part.at, part.turn, part.size) @ turn.T
        moved[:3, 3] *= ratio
        found = taken_apart(moved) or (part.at, part.turn, part.size)
        size = np.abs(turn[:3, :3] @ np.array(model.size_mm)) * ratio
        fresh = msgspec.structs.replace(model, unit_mm=unit_mm, up=up, size_mm=tuple(round(float(v), 3) for v in size))
        value = msgspec.structs.replace(part, model=fresh, at=found[0], turn=found[1], size=found[2])
        commands.append(Set(path=("scene", "parts", part.id), value=value, label="part"))
    return Batch(commands=tuple(commands), label="Change the model's unit")


def reread_parts(job: Job, path: str, blob: str, names: tuple[str, ...]) -> tuple[list[AnyCommand], list[str]]:
    """The commands that give linked parts a changed file, by their names; and names of parts that are gone from it."""
    commands: list[AnyCommand] = []
    gone: list[str] = []
    for part in job.scene.parts:
        model = part.model
        if model is None or not model.linked or model.path != path or model.blob == blob:
            continue
        commands.append(Set(path=("scene", "parts", part.id, "model", "blob"), value=blob, label="model"))
        if model.part not in names:
            gone.append(part.name)
    return commands, gone
