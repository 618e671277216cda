"""Documents of older formats brought forward, one format at a time.

One chain serves jobs, journals, kits, recipes and clipped layers: a step looks for what it changes wherever it lies.
A kit or recipe written before format 3 counted formats of its own from 1; they are read as format 2.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

from ..core.errors import NewerJobError, UnreadableFileError
from ..core.job.document import JOB_FORMAT
from ..core.phrases import say
from .old_scene import scene_from_4

Tree = dict[str, Any]


def _from_0(tree: Tree) -> Tree:
    """Format 0 (before the first release) had no scene datum name."""
    tree.get("scene", {}).setdefault("datum_name", "")
    return tree


def _from_1(tree: Tree) -> Tree:
    """Format 1 had no switches for a layer's own normals, occlusion and cut-outs; they were always on."""
    for node in _nodes(tree):
        if "maps" in node and "what" in node:
            node["maps"] = sorted({*node["maps"], "normal", "ambient_occlusion", "opacity"})
    return tree


_VERSIONS_AT_2 = {"seat.by_height": 2}
"""Versions of operations when format 2 was written, where they were not 1."""


def _from_2(tree: Tree) -> Tree:
    """Format 2 stored no versions with settings, steps and strokes, and of a delivery's formats only the scene's."""
    for node in _nodes(tree):
        if isinstance(node.get("op"), str):
            node.setdefault("version", _VERSIONS_AT_2.get(node["op"], 1))
        elif "points" in node and "size_mm" in node:
            node.setdefault("version", 1)
    for delivery in tree.get("deliveries", []):
        delivery["outputs"] = ["maps-png", *(["scene-glb"] if delivery.pop("scene", True) else [])]
    return tree


_DIRECTIONS = ("runs", "upright")
"""Parameters that say which way something runs."""


def _from_3(tree: Tree) -> Tree:
    """Format 3 said ``muted`` of a bypassed step, and ``level`` of what runs across; a level is only a height now."""
    for node in _nodes(tree):
        if "muted" in node and "op" in node:
            node["bypassed"] = node.pop("muted")
        values = node.get("values")
        if isinstance(node.get("op"), str) and isinstance(values, dict):
            for name in _DIRECTIONS:
                if values.get(name) == "level":
                    values[name] = "across"
    return tree


def _from_4(tree: Tree) -> Tree:
    """Format 4 had one built-in corner, y up; it is made of pieces now, z up."""
    if isinstance(tree.get("scene"), dict):
        tree["scene"] = scene_from_4(tree["scene"])
    return tree


STEPS: dict[int, Callable[[Tree], Tree]] = {0: _from_0, 1: _from_1, 2: _from_2, 3: _from_3, 4: _from_4}
OWN_FORMATS = ("brave_tessel_layers", "repeat_mm", "size_mm")
"""Fields by which documents are known that counted formats of their own."""


def _nodes(tree: Any) -> Iterator[Tree]:
    """Every mapping of a tree, outer ones first."""
    waiting = [tree]
    while waiting:
        node = waiting.pop()
        if isinstance(node, dict):
            yield node
            waiting += reversed(list(node.values()))
        elif isinstance(node, list):
            waiting += reversed(node)


def format_of(tree: Tree) -> int:
    """The format a document was written in.

    Raises
    ------
    UnreadableFileError
        when it says none.
    """
    number = tree.get("format", tree.get("brave_tessel_layers"))
    if not isinstance(number, int) or isinstance(number, bool) or number < 0:
        raise UnreadableFileError("job", allowed="a Brave Tessel job", remedy="The file holds no job.")
    return 2 if number == 1 and any(name in tree for name in OWN_FORMATS) else number


def migrate(raw: Any) -> Tree:
    """The tree in today's format.

    Raises
    ------
    NewerJobError
        when it was written by a later version; the file stays as it is.
    """
    if not isinstance(raw, dict):
        raise UnreadableFileError("job", allowed="a Brave Tessel job", remedy="The file holds no job.")
    tree: Tree = raw
    number = format_of(tree)
    if number > JOB_FORMAT:
        raise NewerJobError(
            "job",
            value=number,
            allowed=say("format {job_format} or older", job_format=JOB_FORMAT),
            remedy="Open it with a newer Brave Tessel.",
        )
    while number < JOB_FORMAT:
        tree = STEPS[number](tree)
        number += 1
    if "format" in tree:
        tree["format"] = JOB_FORMAT
    return tree
