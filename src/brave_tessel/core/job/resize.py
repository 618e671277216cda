"""Another repeat for a surface: its features keep their mm, or scale with it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import msgspec

from ..operation import Param, Value, find, sizes_of
from .layers import Band, Layer, Step, Stroke, Surface
from .nodes import Node, Setting

LEAST_MM, MOST_MM = 1.0, 100_000.0


@dataclass(frozen=True, slots=True)
class Growth:
    """How many times larger across and up, and what plain lengths grow by: the middle of both."""

    across: float
    up: float

    @property
    def lengths(self) -> float:
        """The factor for lengths that have no way of their own."""
        return math.sqrt(self.across * self.up)

    def of(self, name: str) -> float:
        """The factor of a field by its name: ``x_mm`` grows across, ``height_mm`` up, other mm in the middle."""
        if name in {"x_mm", "width_mm"}:
            return self.across
        return self.up if name in {"y_mm", "height_mm", "low", "high"} else self.lengths


def resized(surface: Surface, width_mm: float, height_mm: float, *, scale: bool) -> Surface:
    """A surface with another repeat.

    Without ``scale`` everything keeps its mm: recipes lay whole units anew, photos and other surfaces lie in as many
    whole repeats as come nearest to their size, strokes, decals and runs stay where they are from the lower left
    corner. With it every length of every layer grows along.
    """
    growth = Growth(width_mm / surface.width_mm, height_mm / surface.height_mm)
    sized = msgspec.structs.replace(surface, width_mm=round(width_mm, 4), height_mm=round(height_mm, 4))
    if scale:
        layers = tuple(_grown(layer, growth) for layer in surface.layers)
        bands = tuple(_grown(band, growth) for band in surface.bands)
        return msgspec.structs.replace(sized, layers=layers, bands=bands)
    return msgspec.structs.replace(
        sized,
        layers=tuple(_kept(layer, growth) for layer in surface.layers),
        rows=tuple(_times(n, by) for n, by in zip(surface.rows, (growth.across, growth.up), strict=True)),
        **_beat(surface, growth),
    )


def _beat(surface: Surface, growth: Growth) -> dict[str, str]:
    """A repeat that follows a layer in whole periods goes on doing so only where they stay whole."""
    if not surface.beat:
        return {}
    whole = all(
        abs(n * by - round(n * by)) < 1e-3 and round(n * by) >= 1
        for n, by in zip(surface.rows, (growth.across, growth.up), strict=True)
    )
    return {} if whole else {"beat": ""}


def _times(count: int, by: float) -> int:
    return max(1, round(count * by))


def _kept(layer: Layer, growth: Growth) -> Layer:
    """A layer whose features keep their mm in a repeat of another size."""
    what = layer.what
    if what.holds:
        what = what.holding(tuple(_kept(inner, growth) for inner in what.held()))
    times = getattr(what, "across", 0), getattr(what, "up", 0)
    # A recipe that fills the sheet lays more units in a larger one by itself.
    if times != (0, 0) and not (what.made_of_recipe() is not None and times == (1, 1)):
        across, up = _times(times[0], growth.across), _times(times[1], growth.up)
        what = msgspec.structs.replace(what, across=across, up=up)  # type: ignore[type-var]
    return msgspec.structs.replace(layer, what=what)


POINTS = {"points", "centre"}


def _grown(node: Any, growth: Growth) -> Any:
    """A part of a document with every length in it grown."""
    if isinstance(node, tuple):
        return tuple(_grown(one, growth) for one in node)
    if isinstance(node, dict):
        return {key: _grown(one, growth) for key, one in node.items()}
    if not isinstance(node, Node):
        return node
    fields = [field for field in node.__struct_fields__ if field != "kept"]
    changed = {field: _grown_field(node, field, getattr(node, field), growth) for field in fields}
    if isinstance(node, Stroke) and node.into == "height":
        changed["amount"] = node.amount * growth.lengths
    return msgspec.structs.replace(node, **changed)


def _grown_field(node: Node, field: str, value: Any, growth: Growth) -> Any:
    if field == "values" and isinstance(node, Setting | Step):
        return _grown_values(node.op, node.version, value, growth)
    if field in POINTS:
        return _grown_points(value, growth)
    if isinstance(value, float) and (field.endswith("_mm") or isinstance(node, Band)):
        return round(value * growth.of(field), 6)
    return _grown(value, growth)


def _grown_points(points: Any, growth: Growth) -> Any:
    if points and isinstance(points[0], float):
        return points[0] * growth.across, points[1] * growth.up
    return tuple((x * growth.across, y * growth.up) for x, y in points)


def _grown_values(op: str, version: int, values: dict[str, Value], growth: Growth) -> dict[str, Value]:
    """The values of an operation with its lengths grown, those at their defaults as well."""
    params = find(op, version).params
    grown = dict(values)
    for name, param in params.items():
        held = values.get(name, param.default)
        if param.kind == "length":
            grown[name] = _within(param, float(held) * _way(name, growth))
        elif param.kind == "sizes" and isinstance(held, str):
            grown[name] = _sizes(held, growth.lengths)
    return grown


def _way(name: str, growth: Growth) -> float:
    return {"right": growth.across, "up": growth.up}.get(name, growth.lengths)


def _within(param: Param, value: float) -> float:
    return min(max(round(value, 6), param.least), param.most)


def _sizes(text: str, by: float) -> str:
    """A list such as ``300x200, 150x150`` with each number grown."""
    return ", ".join(f"{width * by:g}×{height * by:g}" for width, height in sizes_of(text))
