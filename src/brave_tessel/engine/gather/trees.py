"""Whole trees of folders as sets of maps, by their names: quick, before anything is read."""

from __future__ import annotations

import os
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from pathlib import Path

from ...core.gather.names import words_of
from ...core.gather.sets import Member, NamedSet, sets_of_names
from ...formats.images import SUFFIXES
from ...formats.scanned_models import SUFFIXES as SCAN_SUFFIXES
from ..evaluate import always
from .rig import LIGHTS_FILE

_TOLD = 4
"""Names of files passed over that a sentence tells; the rest are counted."""
_EVERY = 100


@dataclass(frozen=True, slots=True)
class Proposed:
    """A set, by the names of its files, as it was found or put right by hand: called otherwise (``title``), with a real
    size in mm, with roles of files (by their names) that were chosen and are not questioned. What is no set of pictures
    but is ``measured`` from, a scanned mesh or a folder of frames under single lights, is told by its path.
    """

    folder: Path
    named: NamedSet
    title: str = ""
    size_mm: tuple[float, float] | None = None
    by_hand: Mapping[str, str] = field(default_factory=dict)
    measured: Path | None = None

    @classmethod
    def of_measured(cls, path: Path) -> Proposed:
        """A mesh or a folder of frames, called by its own name."""
        title = " ".join(words_of(path.stem)).capitalize()
        return cls(path.parent, NamedSet((), ()), title, measured=path)

    @property
    def name(self) -> str:
        """What it is called: by its files, else by its folder."""
        return self.title or self.named.title or self.folder.name

    def role_of(self, member: Member) -> str:
        """The role of one of its files, as chosen or as its name tells."""
        return self.by_hand.get(member.name, member.reading.role)

    def with_role(self, name: str, role: str) -> Proposed:
        """With the role of a file chosen by hand."""
        return replace(self, by_hand={**self.by_hand, name: role})

    def without(self, names: frozenset[str]) -> Proposed:
        """Without some of its files."""
        left = tuple(member for member in self.named.members if member.name not in names)
        return replace(self, named=replace(self.named, members=left))

    def joined(self, other: Proposed, names: frozenset[str] | None = None) -> Proposed:
        """With files of another set, all or some; those of other folders are named whole."""
        come, by_hand = [], dict(self.by_hand)
        for member in other.named.members:
            if names is not None and member.name not in names:
                continue
            name = member.name if other.folder == self.folder else str(other.folder / member.name)
            come.append(replace(member, name=name))
            if member.name in other.by_hand:
                by_hand[name] = other.by_hand[member.name]
        held = {member.name for member in self.named.members}
        members = (*self.named.members, *(member for member in come if member.name not in held))
        return replace(self, named=replace(self.named, members=members), by_hand=by_hand)


@dataclass(frozen=True)
class Tree:
    """Picture files by their folders, what is measured from (meshes, folders of frames), and files that are neither."""

    folders: dict[Path, list[Path]]
    skipped: list[Path]
    measured: list[Path] = field(default_factory=list)

    @cached_property
    def proposed(self) -> list[Proposed]:
        """The sets of every folder; worked out once, where it is first asked for."""
        sets = [
            Proposed(folder, named)
            for folder, files in self.folders.items()
            for named in sets_of_names([file.name for file in files])
        ]
        return [*sets, *map(Proposed.of_measured, self.measured)]

    @property
    def count(self) -> int:
        """How many files there are to read; a folder of frames counts as one."""
        return sum(len(found) for found in self.folders.values()) + len(self.measured)

    def sort(self, file: Path) -> None:
        """Put a file where its suffix says it belongs."""
        suffix = file.suffix.lower()
        if suffix in SUFFIXES:
            self.folders.setdefault(file.parent, []).append(file)
        else:
            (self.measured if suffix in SCAN_SUFFIXES else self.skipped).append(file)


def walk(
    paths: Iterable[Path], *, current: Callable[[], bool] = always, tell: Callable[[int], None] = lambda _count: None
) -> Tree:
    """Files and folders with all that lies in them, in order of their names; hidden ones and links are not followed.
    A file that was named itself is taken whatever its suffix. ``tell`` hears now and then how many there are so far.
    """
    tree, count = Tree({}, []), 0
    for path in paths:
        if not path.is_dir():
            if path.suffix.lower() in SCAN_SUFFIXES:
                tree.measured.append(path)
            else:
                tree.folders.setdefault(path.parent, []).append(path)
            continue
        for place, inner, names in os.walk(path):
            if LIGHTS_FILE in names:
                tree.measured.append(Path(place))
                inner.clear()
                continue
            inner[:] = sorted(name for name in inner if not name.startswith("."))
            for name in sorted(names):
                if not current():
                    return tree
                if not name.startswith("."):
                    tree.sort(Path(place) / name)
                    count += 1
                    if count % _EVERY == 0:
                        tell(count)
    return tree


def skipped_sentence(skipped: list[Path]) -> str:
    """What was passed over of a folder, in one sentence."""
    names = ", ".join(path.name for path in skipped[:_TOLD])
    more = f" and {len(skipped) - _TOLD} more" if len(skipped) > _TOLD else ""
    return f"Not a format this program reads: {names}{more}."
