"""Whole trees of folders as sets of maps, by their names: quick, before anything is read."""

from __future__ import annotations

import os
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from pathlib import Path

from ...core.gather.sets import NamedSet, sets_of_names
from ...formats.images import SUFFIXES
from ..evaluate import always

_TOLD = 4
"""Names of files passed over that a sentence tells; the rest are counted."""
_EVERY = 100


@dataclass(frozen=True, slots=True)
class Proposed:
    """A set of one folder, by its names."""

    folder: Path
    named: NamedSet

    @property
    def name(self) -> str:
        """What it is called: by its files, else by its folder."""
        return self.named.title or self.folder.name


@dataclass(frozen=True, slots=True)
class Tree:
    """Picture files by their folders, and files that are none."""

    folders: dict[Path, list[Path]]
    skipped: list[Path]

    def proposed(self) -> list[Proposed]:
        """The sets of every folder."""
        return [
            Proposed(folder, named)
            for folder, files in self.folders.items()
            for named in sets_of_names([file.name for file in files])
        ]


def walk(
    paths: Iterable[Path], *, current: Callable[[], bool] = always, tell: Callable[[int], None] = lambda _count: None
) -> Tree:
    """Files and folders with all that lies in them, in order of their names; hidden ones and links are not followed.
    A file that was named itself is taken whatever its suffix. ``tell`` hears now and then how many there are so far.
    """
    folders: dict[Path, list[Path]] = {}
    skipped: list[Path] = []
    count = 0
    for path in paths:
        if not path.is_dir():
            folders.setdefault(path.parent, []).append(path)
            continue
        for place, inner, names in os.walk(path):
            inner[:] = sorted(name for name in inner if not name.startswith("."))
            for name in sorted(names):
                if not current():
                    return Tree(folders, skipped)
                if name.startswith("."):
                    continue
                file = Path(place) / name
                if file.suffix.lower() in SUFFIXES:
                    folders.setdefault(Path(place), []).append(file)
                else:
                    skipped.append(file)
                count += 1
                if count % _EVERY == 0:
                    tell(count)
    return Tree(folders, skipped)


def skipped_sentence(skipped: list[Path]) -> str:
    """What was passed over of a folder, in one sentence."""
    names = ", ".join(path.name for path in skipped[:_TOLD])
    more = f" and {len(skipped) - _TOLD} more" if len(skipped) > _TOLD else ""
    return f"Not a format this program reads: {names}{more}."
