"""What a folder holds: sets of maps, scanned meshes, folders of frames under single lights."""

from __future__ import annotations

import argparse
from pathlib import Path
from typing import Any

from ..core.errors import MissingError, TesselError
from ..engine.gather.reading import FoundSet, gather_sets
from ..engine.gather.rig import measure, read_frames
from ..engine.gather.scanned import laid_flat
from ..engine.gather.scans import is_frames_folder
from ..engine.gather.trees import skipped_sentence, walk
from ..engine.wording import sentence
from .said import Progress, say, warn

Told = tuple[dict[str, Any], str]
"""As the keys of an answer, and in words."""


def gather(options: argparse.Namespace, progress: Progress) -> None:
    """Group the pictures of a folder into map sets, tell what its meshes and frames become, and say what each is."""

    def refused(error: TesselError) -> None:
        progress.end()
        warn(sentence(error))

    folder: Path = options.folder
    if not folder.exists():
        raise MissingError("folder", value=str(folder))
    if is_frames_folder(folder):
        told, words = _frames(folder, progress)
        progress.end()
        say({"sets": [], "scans": [told], "meshes": []}, words, as_json=options.json)
        return
    tree = walk([folder])
    progress(f"Look at {tree.count} files", 0.2)
    sets = gather_sets((file for files in tree.folders.values() for file in files), refused=refused)
    lines = [line for found in sets for line in _lines(found)]
    answer: dict[str, Any] = {"sets": [_keys(found) for found in sets], "scans": [], "meshes": []}
    for path in tree.measured:
        kind, look = ("scans", _frames) if path.is_dir() else ("meshes", _mesh)
        try:
            told, words = look(path, progress)
        except TesselError as error:
            refused(error)
            continue
        answer[kind].append(told)
        lines.append(words)
    progress.end()
    if tree.skipped:
        warn(skipped_sentence(tree.skipped))
    say(answer, "\n".join(lines) or "Nothing found that this program reads.", as_json=options.json)


def _keys(found: FoundSet) -> dict[str, Any]:
    maps = [
        {
            "file": one.path.name,
            "channel": one.channel,
            "role": one.role,
            "green": one.green,
            "turned_over": one.turned_over,
            "confidence": one.confidence,
            "reason": one.reason,
        }
        for one in found.maps
    ]
    size = list(found.size_mm) if found.size_mm else None
    return {"name": found.name, "size_mm": size, "missing": list(found.missing), "maps": maps}


def _lines(found: FoundSet) -> list[str]:
    return [found.name, *(f"  {one.role:18}{one.path.name} ({one.channel}): {one.reason}" for one in found.maps)]


def _mesh(path: Path, progress: Progress) -> Told:
    """A scanned mesh: what it would become."""
    progress(f"Lay {path.name} flat", 0.6)
    flat = laid_flat(path)
    told = {
        "name": flat.name,
        "file": path.name,
        "size_mm": [round(side, 2) for side in flat.size_mm],
        "unit_told": flat.unit_told,
        "filled": round(flat.sheet.filled, 4),
        "maps": list(flat.KINDS),
    }
    maps = ", ".join(flat.KINDS).replace("_", " ")
    return told, f"{flat.remark} A scanned mesh ({path.name}): {maps}."


def _frames(folder: Path, progress: Progress) -> Told:
    """A folder of frames under single lights: what it would become."""
    capture = read_frames(folder, progress=progress)
    progress("Work out relief and colour", 0.7)
    measured = measure(capture)
    told = {
        "name": capture.name,
        "frames": len(capture.frames),
        "size_mm": list(capture.size_mm) if min(capture.size_mm) > 0 else None,
        "agreement": round(float(measured.shape.agreement.mean()), 4),
    }
    return told, f"{capture.name}: {len(capture.frames)} frames under single lights. {measured.told}"
