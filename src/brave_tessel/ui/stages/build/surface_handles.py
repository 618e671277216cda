"""What can be dragged on the build board: placements, points of a run, where gradients, bands and shapes lie."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Any

import msgspec

from ....core.buildup.run import path_of
from ....core.job.document import DecalWhat, InscriptionWhat, Layer, Placement, Rule, RunWhat, Surface
from ....core.sheet import Grid

Point = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Handle:
    """A place to take hold of, mm on the sheet; ``kind`` says how it is drawn: corner, turn, middle or point."""

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


def _turned(place: Placement, u: float, v: float) -> Point:
    """A place of the placement, in halves of its sides from its middle."""
    a = math.radians(place.turn)
    x, y = (
        u * place.width_mm / 2 + v * place.height_mm / 2 * math.tan(math.radians(place.skew)),
        v * place.height_mm / 2,
    )
    return place.x_mm + x * math.cos(a) - y * math.sin(a), place.y_mm + x * math.sin(a) + y * math.cos(a)


_CORNERS = {"south west": (-1, -1), "south east": (1, -1), "north east": (1, 1), "north west": (-1, 1)}


def handles_for(surface: Surface, layer: Layer | None, rule: Rule | None) -> Handles:
    """The handles of the chosen rule where it has any, else of the layer."""
    if layer is None or layer.locked:
        return Handles()
    if rule is not None and rule.shown and rule.rule.op in _RULES:
        return _RULES[rule.rule.op](surface, rule.rule.complete())
    what = layer.what
    if isinstance(what, DecalWhat | InscriptionWhat):
        return _placement(what.placement)
    if isinstance(what, RunWhat):
        points = tuple(Handle(f"point {k}", x, y) for k, (x, y) in enumerate(what.points))
        path = (*what.points, *(what.points[:1] if what.closed else ()))
        drawn = path_of(what, Grid(8, 8, surface.width_mm, surface.height_mm))
        line = tuple((float(x), float(y)) for x, y in drawn.points) if drawn is not None else ()
        return Handles(points, (line,) if line else (), path)
    return Handles()


def _placement(place: Placement) -> Handles:
    corners = {name: _turned(place, *uv) for name, uv in _CORNERS.items()}
    a = math.radians(place.turn)
    reach = place.height_mm / 2 + 0.12 * max(place.width_mm, place.height_mm)
    knob = (place.x_mm - math.sin(a) * reach, place.y_mm + math.cos(a) * reach)
    box = (*corners.values(), corners["south west"])
    top = _turned(place, 0, 1)
    handles = [
        Handle("middle", place.x_mm, place.y_mm, "middle"),
        Handle("turn", *knob, "turn"),
        *(Handle(n, px, py, "corner") for n, (px, py) in corners.items()),
    ]
    return Handles(tuple(handles), (box, (top, knob)))


def _gradient(surface: Surface, v: dict[str, Any]) -> Handles:
    start, end = (v["from_right"], v["from_up"]), (v["to_right"], v["to_up"])
    level = abs(end[0] - start[0]) > abs(end[1] - start[1])
    w, h = surface.width_mm, surface.height_mm
    lines = tuple(((p[0], 0.0), (p[0], h)) if level else ((0.0, p[1]), (w, p[1])) for p in (start, end))
    middle = (start[0], h / 2) if level else (w / 2, start[1])
    last = (end[0], h / 2) if level else (w / 2, end[1])
    return Handles((Handle("from", *middle), Handle("to", *last)), (*lines, (middle, last)))


def _band(surface: Surface, v: dict[str, Any]) -> Handles:
    upright, at, half = v["runs"] == "upright", v["at"], v["width"] / 2
    w, h = surface.width_mm, surface.height_mm
    lines = tuple(((x, 0.0), (x, h)) if upright else ((0.0, x), (w, x)) for x in (at - half, at + half))
    middle, edge = ((at, h / 2), (at + half, h / 2)) if upright else ((w / 2, at), (w / 2, at + half))
    return Handles((Handle("middle", middle[0], middle[1], "middle"), Handle("edge", *edge)), lines)


def _shape(_surface: Surface, v: dict[str, Any]) -> Handles:
    return _placement(
        Placement(x_mm=v["right"], y_mm=v["up"], width_mm=v["width"], height_mm=v["height"], turn=v["turn"])
    )


_RULES = {"where.gradient": _gradient, "where.band": _band, "where.shape": _shape}


def moved(
    surface: Surface, layer: Layer, rule: Rule | None, name: str, x: float, y: float, *, unequal: bool
) -> Moved | None:
    """What it means to drag a handle to a place."""
    if rule is not None and rule.shown and rule.rule.op in _RULES:
        return Moved(
            ("where", rule.id, "rule", "values"),
            {**rule.rule.values, **_rule_moved(surface, rule, name, x, y, unequal)},
            "Move the rule",
        )
    what = layer.what
    if isinstance(what, DecalWhat | InscriptionWhat):
        return Moved(("what", "placement"), place_moved(what.placement, name, x, y, unequal), "Place it")
    if isinstance(what, RunWhat) and name.startswith("point "):
        return Moved(
            ("what", "points"),
            _point_moved(surface, what, int(name.split()[1]), (round(x, 2), round(y, 2))),
            "Move a point",
        )
    return None


def place_moved(place: Placement, name: str, x: float, y: float, unequal: bool) -> Placement:
    """A placement with one of its handles dragged to a place."""
    if name == "middle":
        return msgspec.structs.replace(place, x_mm=round(x, 2), y_mm=round(y, 2))
    dx, dy = x - place.x_mm, y - place.y_mm
    if name == "turn":
        turn = math.degrees(math.atan2(-dx, dy))
        # Near a quarter turn it snaps.
        near = round(turn / 15) * 15
        return msgspec.structs.replace(place, turn=round(near if abs(turn - near) < 2 else turn, 1))
    a = math.radians(place.turn)
    u, v = dx * math.cos(a) + dy * math.sin(a), -dx * math.sin(a) + dy * math.cos(a)
    wide, tall = max(2 * abs(u), 1.0), max(2 * abs(v), 1.0)
    if not unequal:
        scale = max(wide / place.width_mm, tall / place.height_mm)
        wide, tall = place.width_mm * scale, place.height_mm * scale
    return msgspec.structs.replace(place, width_mm=round(wide, 2), height_mm=round(tall, 2))


def _rule_moved(surface: Surface, rule: Rule, name: str, x: float, y: float, unequal: bool) -> dict[str, Any]:
    v = rule.rule.complete()
    if rule.rule.op == "where.gradient":
        level = abs(float(v["to_right"]) - float(v["from_right"])) > abs(float(v["to_up"]) - float(v["from_up"]))
        return {f"{name}_right": round(x, 2)} if level else {f"{name}_up": round(y, 2)}
    if rule.rule.op == "where.band":
        place = x if v["runs"] == "upright" else y
        return (
            {"at": round(place, 2)}
            if name == "middle"
            else {"width": max(1.0, round(2 * abs(place - float(v["at"])), 2))}
        )
    box = Placement(
        x_mm=float(v["right"]),
        y_mm=float(v["up"]),
        width_mm=float(v["width"]),
        height_mm=float(v["height"]),
        turn=float(v["turn"]),
    )
    after = place_moved(box, name, x, y, unequal)
    return {
        "right": after.x_mm,
        "up": after.y_mm,
        "width": after.width_mm,
        "height": after.height_mm,
        "turn": after.turn,
    }


def _point_moved(surface: Surface, run: RunWhat, index: int, to: Point) -> tuple[Point, ...]:
    """A point of a run moved; the ends of one that closes over the edge move together."""
    points = list(run.points)
    last = len(points) - 1
    lap = (points[last][0] - points[0][0], points[last][1] - points[0][1])
    closes = any(abs(d) > 1 for d in lap) and all(
        abs(d / s - round(d / s)) < 1e-6 for d, s in zip(lap, (surface.width_mm, surface.height_mm), strict=True)
    )
    points[index] = to
    if closes and index == 0:
        points[last] = (to[0] + lap[0], to[1] + lap[1])
    elif closes and index == last:
        points[0] = (to[0] - lap[0], to[1] - lap[1])
    return tuple(points)


def point_added(run: RunWhat, x: float, y: float) -> tuple[Point, ...]:
    """A run with one more point, on the part of it that lies nearest."""
    points = list(run.points)
    chain = [*points, *(points[:1] if run.closed else [])]
    best, at = math.inf, len(points)
    for k in range(len(chain) - 1):
        (ax, ay), (bx, by) = chain[k], chain[k + 1]
        dx, dy = bx - ax, by - ay
        t = min(1.0, max(0.0, ((x - ax) * dx + (y - ay) * dy) / max(dx * dx + dy * dy, 1e-9)))
        away = math.hypot(x - ax - t * dx, y - ay - t * dy)
        if away < best:
            best, at = away, k + 1
    return (*points[:at], (round(x, 2), round(y, 2)), *points[at:])
