"""The scene of formats up to 4: one built-in corner with named parts, y up. Brought forward as pieces, z up."""

from __future__ import annotations

import math
from typing import Any

Tree = dict[str, Any]
NORTH, EAST, TALL, DADO = 4500.0, 3000.0, 2700.0, 1248.0
WINDOW = {"id": "window", "left": 1404.0, "width": 900.0, "sill": 936.0, "height": 1170.0}
DEPTH = 160.0


def scene_from_4(old: Tree) -> Tree:
    """The corner made of pieces, what was laid on its parts on the faces they were, and its datum."""
    parts = {part["id"]: part for part in old.get("parts", []) if isinstance(part, dict) and "id" in part}
    if old.get("piece", "corner") != "corner" or not parts:
        # A made scene that no version had: its parts are kept by name.
        groups = [{"id": id, "name": part.get("name", id)} for id, part in parts.items()]
        return {"parts": groups} if groups else {}
    x, y, z = (float(v) for v in old.get("datum", (0.0, 0.0, 0.0)))
    from_corner = _datum_along(x, z) - NORTH
    made = [
        {"id": "hall", "name": next((p.get("group") for p in parts.values() if p.get("group")), "Changing hall")},
        *_wall(parts, "north", "North wall", [0.0, 0.0, 0.0], 0.0, from_corner - (x - NORTH)),
        *_wall(parts, "east", "East wall", [NORTH, 0.0, 0.0], -90.0, from_corner - z),
        *_floor(parts),
        *_figure(parts),
    ]
    datum = {"id": "datum", "name": old.get("datum_name", ""), "at": [x, -z, y]}
    levels = [
        {"id": f"level-{name}", "name": name, "height": height}
        for name, height in (("floor", 0.0), ("sill", WINDOW["sill"]), ("dado rail", DADO))
    ]
    return {"parts": made, "datums": [datum], "datum": "datum", "levels": levels}


def _datum_along(x: float, z: float) -> float:
    """Where the datum was along the unrolled walls: on the one it was nearest to."""
    return x if abs(z) <= abs(x - NORTH) + 1e-6 else NORTH + z


def _wall(parts: dict[str, Tree], side: str, name: str, at: list[float], turn: float, along: float) -> list[Tree]:
    """A wall of what were its dado and the wall above it, and at the north the window's reveal."""
    upper, dado, reveal = parts.get(f"{side}-wall"), parts.get(f"{side}-dado"), parts.get("reveal")
    if upper is None and dado is None:
        return []
    north = side == "north"
    laid = [
        *_laid(upper, ["front"], along),
        *_laid(dado, ["dado"], along),
        *(_laid(reveal, ["reveal", "sill", "soffit"], 0.0) if north else []),
    ]
    values = {"length": NORTH if north else EAST, "height": TALL, "thickness": DEPTH, "dado": DADO}
    piece: Tree = {"op": "made.wall", "values": values, "version": 1}
    if north:
        piece["openings"] = [WINDOW]
    bare = (upper or dado or {}).get("bare", "#C9C6BE")
    return [
        {"id": f"{side}-wall", "name": name, "parent": "hall", "at": at, "turn": [0.0, 0.0, turn], "piece": piece,
         "laid": laid, "bare": bare}
    ]  # fmt: skip


def _laid(part: Tree | None, groups: list[str], along: float) -> list[Tree]:
    if part is None or not part.get("surface"):
        return []
    laying = dict(part.get("laying") or {"op": "laying.flat", "values": {}, "version": 1})
    values = dict(laying.get("values") or {})
    if laying.get("op") in {"laying.flat", "laying.box"}:
        values = _before_the_turn(values, along if laying["op"] == "laying.flat" else 0.0)
        laying["values"] = values
    return [{"id": part["id"], "surface": part["surface"], "laying": laying, "groups": groups}]


def _before_the_turn(values: Tree, along: float) -> Tree:
    """A surface was turned and then shifted; it is shifted along the wall and then turned now. Where the datum was on
    another wall the pattern went on round the corner, by ``along`` mm.
    """
    a = math.radians(float(values.get("turn", 0.0)))
    across, up = float(values.get("across", 0.0)), float(values.get("up", 0.0))
    moved = math.cos(a) * across - math.sin(a) * up + along, math.sin(a) * across + math.cos(a) * up
    for name, value in zip(("across", "up"), moved, strict=True):
        values.pop(name, None)
        if abs(value) > 1e-9:
            values[name] = value
    return values


def _floor(parts: dict[str, Tree]) -> list[Tree]:
    part = parts.get("floor")
    if part is None:
        return []
    piece = {"op": "made.floor", "values": {"width": NORTH, "depth": EAST, "thickness": 100.0}, "version": 1}
    return [
        {"id": "floor", "name": part.get("name", "Floor"), "parent": "hall", "at": [0.0, -EAST, 0.0], "piece": piece,
         "laid": _laid(part, ["top"], 0.0), "bare": part.get("bare", "#C9C6BE")}
    ]  # fmt: skip


def _figure(parts: dict[str, Tree]) -> list[Tree]:
    part = parts.get("figure")
    if part is None:
        return []
    return [
        {"id": "figure", "name": part.get("name", "Figure"), "at": [NORTH - 1150.0, -700.0, 0.0],
         "turn": [0.0, 0.0, -40.0], "piece": {"op": "made.figure", "values": {}, "version": 1},
         "bare": part.get("bare", "#A9A69E")}
    ]  # fmt: skip
