"""What can be dragged on the build board, and what a drag means. Places in mm on the sheet, y up."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any

import msgspec

from ..job.layers import Placement, Surface
from ..job.nodes import Point
from ..operation import Value


@dataclass(frozen=True, slots=True)
class Handle:
    """A place to take hold of; ``kind`` says how it is drawn: corner, turn, middle or point."""

    name: str
    x: float
    y: float
    kind: str = "point"


@dataclass(frozen=True, slots=True)
class Handles:
    """Handles and the lines between them; ``path`` may be clicked to add a point."""

    handles: tuple[Handle, ...] = ()
    lines: tuple[tuple[Point, ...], ...] = ()
    path: tuple[Point, ...] = field(default=())


@dataclass(frozen=True, slots=True)
class Moved:
    """What a drag changes: a place within the layer and its value."""

    where: tuple[str, ...]
    value: Any
    label: str


@dataclass(frozen=True, slots=True)
class SettingHandles:
    """Handles of a declared operation: how they lie from its values, and which values a drag changes."""

    shown: Callable[[Surface, Mapping[str, Value]], Handles]
    dragged: Callable[[Mapping[str, Value], str, float, float, bool], dict[str, Value]]


_CORNERS = {"south west": (-1, -1), "south east": (1, -1), "north east": (1, 1), "north west": (-1, 1)}


def _turned(place: Placement, u: float, v: float) -> Point:
    """A place of the placement, in halves of its sides from its middle."""
    a = math.radians(place.turn)
    x = u * place.width_mm / 2 + v * place.height_mm / 2 * math.tan(math.radians(place.skew))
    y = v * place.height_mm / 2
    return place.x_mm + x * math.cos(a) - y * math.sin(a), place.y_mm + x * math.sin(a) + y * math.cos(a)


def placement_handles(place: Placement) -> Handles:
    """A box with its corners, its middle, and a knob above it that turns it."""
    corners = {name: _turned(place, *uv) for name, uv in _CORNERS.items()}
    a = math.radians(place.turn)
    reach = place.height_mm / 2 + 0.12 * max(place.width_mm, place.height_mm)
    knob = (place.x_mm - math.sin(a) * reach, place.y_mm + math.cos(a) * reach)
    box = (*corners.values(), corners["south west"])
    handles = (
        Handle("middle", place.x_mm, place.y_mm, "middle"),
        Handle("turn", *knob, "turn"),
        *(Handle(n, px, py, "corner") for n, (px, py) in corners.items()),
    )
    return Handles(handles, (box, (_turned(place, 0, 1), knob)))


def placement_moved(place: Placement, name: str, x: float, y: float, unequal: bool) -> Placement:
    """A placement with one of its handles dragged to a place; a turn snaps near every 15 degrees."""
    if name == "middle":
        return msgspec.structs.replace(place, x_mm=round(x, 2), y_mm=round(y, 2))
    dx, dy = x - place.x_mm, y - place.y_mm
    if name == "turn":
        turn = math.degrees(math.atan2(-dx, dy))
        near = round(turn / 15) * 15
        return msgspec.structs.replace(place, turn=round(near if abs(turn - near) < 2 else turn, 1))
    a = math.radians(place.turn)
    u, v = dx * math.cos(a) + dy * math.sin(a), -dx * math.sin(a) + dy * math.cos(a)
    wide, tall = max(2 * abs(u), 1.0), max(2 * abs(v), 1.0)
    if not unequal:
        scale = max(wide / place.width_mm, tall / place.height_mm)
        wide, tall = place.width_mm * scale, place.height_mm * scale
    return msgspec.structs.replace(place, width_mm=round(wide, 2), height_mm=round(tall, 2))


def place_it(place: Placement, handle: str, x: float, y: float, unequal: bool) -> Moved:
    """A drag on the handles of a kind that has a placement."""
    return Moved(("what", "placement"), placement_moved(place, handle, x, y, unequal), "Place it")
