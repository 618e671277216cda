"""Job files of older versions brought forward, one version at a time."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from ..core.errors import NewerJobError, UnreadableFileError
from ..core.job.document import JOB_FORMAT

Tree = dict[str, Any]


def _from_0(tree: Tree) -> Tree:
    """Format 0 (before the first release) had no scene datum name."""
    tree.get("scene", {}).setdefault("datum_name", "")
    return tree


def _from_1(tree: Tree) -> Tree:
    """Format 1 had no switches for a layer's own normals, occlusion and cut-outs; they were always on."""
    for surface in tree.get("surfaces", []):
        for layer in surface.get("layers", []):
            if "maps" in layer:
                layer["maps"] = sorted({*layer["maps"], "normal", "ambient_occlusion", "opacity"})
    return tree


STEPS: dict[int, Callable[[Tree], Tree]] = {0: _from_0, 1: _from_1}


def migrate(raw: Any) -> Tree:
    """The tree in today's format.

    Raises
    ------
    NewerJobError
        when it was written by a later version; the file stays as it is.
    """
    if not isinstance(raw, dict) or not isinstance(raw.get("format"), int):
        raise UnreadableFileError("job", allowed="a Brave Tessel job", remedy="The file holds no job.")
    tree: Tree = raw
    version: int = tree["format"]
    if version > JOB_FORMAT:
        raise NewerJobError(
            "job", value=version, allowed=f"format {JOB_FORMAT} or older", remedy="Open it with a newer Brave Tessel."
        )
    while version < JOB_FORMAT:
        tree = STEPS[version](tree)
        version += 1
        tree["format"] = version
    return tree
