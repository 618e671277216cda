"""The library: what can be laid on a surface from stock recipes, the program's kits, own folders and the catalogue."""

from __future__ import annotations

import os
from collections.abc import Iterable
from dataclasses import dataclass, field
from pathlib import Path

from ...core.errors import TesselError
from ...core.job.commands import AnyCommand, Batch
from ...core.job.document import Job
from ...core.job.layers import Layer, Surface
from ...core.recipe.materials import MATERIALS
from ...formats.disk import write_atomically
from ...formats.images import read_file
from ..intents.layers import lay_on, move_layers
from .kits import Kit, decode_kit, drop_kit, encode_kit
from .marks_of_use import MARKS_OF_USE
from .shipped_kits import shipped_kits

KINDS = ("all", "kit", "recipe", "surface", "mark of use", "decal", "tip")


@dataclass(frozen=True, slots=True)
class Item:
    """One thing of the library. ``key`` finds it again; ``kit`` is there for kits."""

    kind: str
    name: str
    key: str
    note: str = ""
    tags: tuple[str, ...] = ()
    size_mm: tuple[float, float] = (0.0, 0.0)
    kit: Kit | None = field(default=None, compare=False)


def home() -> Path:
    """The person's own library folder."""
    data = os.environ.get("XDG_DATA_HOME") or str(Path.home() / ".local" / "share")
    return Path(data) / "brave-tessel" / "library"


def kits_in(folder: Path) -> tuple[list[Kit], list[str]]:
    """The kits of a folder and those below it, and what could not be read."""
    kits, troubles = [], []
    for path in sorted(folder.rglob("*.kit.json")) if folder.is_dir() else ():
        try:
            kits.append(decode_kit(read_file(path), path.name))
        except TesselError as error:
            troubles.append(f"{path.name}: {error.value}")
    return kits, troubles


def items(job: Job, surface: Surface | None, folders: Iterable[Path] = ()) -> list[Item]:
    """Everything the library holds for a job."""
    made = [Item("kit", kit.name, f"kit:{kit.name}", kit.note, kit.tags, kit.size_mm, kit) for kit in shipped_kits()]
    for folder in folders:
        made += [
            Item("kit", kit.name, f"{folder}:{kit.name}", kit.note, (*kit.tags, "own"), kit.size_mm, kit)
            for kit in kits_in(folder)[0]
        ]
    made += [
        Item("recipe", stock.name, f"Recipe:{stock.name}", stock.note, ("material",), stock.repeat_mm)
        for stock in MATERIALS
    ]
    made += [
        Item(
            "surface", s.name, f"Surface:{s.name}", f"{len(s.layers)} layers", ("this job",), (s.width_mm, s.height_mm)
        )
        for s in job.surfaces
        if surface is None or s.id != surface.id
    ]
    made += [
        Item("mark of use", name, f"Marks of use:{name}", "marks of use, subtle as they come", ("wear",))
        for name in MARKS_OF_USE
    ]
    made += [
        Item("decal", source.name, f"Decal:{source.name}", "set once", ("this job",), source.sheet_mm)
        for source in job.sources
        if source.sized
    ]
    made += [
        Item("tip", source.name, f"Tip:{source.id}", "its lightness as a brush's tip", ("this job",))
        for source in job.sources
        if source.blob
    ]
    return made


def search(found: Iterable[Item], text: str = "", *, kind: str = "all", largest_mm: float = 0.0) -> list[Item]:
    """Items whose name, note or tags hold every word; not larger than a size, where one is given."""
    words = text.lower().split()

    def fits(item: Item) -> bool:
        told = f"{item.name} {item.note} {' '.join(item.tags)} {item.kind}".lower()
        small = largest_mm <= 0 or max(item.size_mm) <= largest_mm
        return kind in {"all", item.kind} and small and all(word in told for word in words)

    return [item for item in found if fits(item)]


def lay_item(
    job: Job, surface: Surface, item: Item, *, at: str, hatch: str, where: str = "above"
) -> tuple[AnyCommand, Layer, list[str]]:
    """An item laid on a surface above, below or into a layer, as one step; what of it could not be bound is told.

    Raises
    ------
    DoesNotFitError
        when it should go into a locked bundle.
    """
    told: list[str] = []
    command: AnyCommand
    if item.kit is not None:
        command, layer, told = drop_kit(job, surface, item.kit, above=at)
    else:
        group, _, kind = item.key.partition(":")
        command, layer = lay_on(job, surface, group, kind, above=at, hatch=hatch)
    if where != "above":
        laid = command.apply(job)
        command = Batch(
            commands=(command, move_layers(laid.surface(surface.id), (layer.id,), at, where)), label=command.label
        )
    return command, layer, told


def keep_kit(folder: Path, kit: Kit) -> Path:
    """Write a kit into a folder, under its name; returns its file."""
    name = "".join(c if c.isalnum() or c in " -" else "-" for c in kit.name).strip().lower().replace(" ", "-") or "kit"
    path = folder / f"{name}.kit.json"
    write_atomically(path, encode_kit(kit))
    return path
