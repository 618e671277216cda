"""What of the chosen layer or rule can be dragged on the build board, and what a drag changes."""

from __future__ import annotations

from ....core.buildup.handles import Handle, Handles, Moved
from ....core.buildup.kind import kind_of
from ....core.job.layers import Layer, Rule, Surface

__all__ = ["Handle", "Handles", "Moved", "handles_for", "moved"]


def handles_for(surface: Surface, layer: Layer | None, rule: Rule | None) -> Handles:
    """The handles of the chosen rule where it has any, else of the layer."""
    if layer is None or layer.locked:
        return Handles()
    handles = rule.rule.operation.handles if rule is not None and rule.shown else None
    if rule is not None and handles is not None:
        shown: Handles = handles.shown(surface, rule.rule.complete())
        return shown
    return kind_of(layer.what).handles(surface, layer.what)


def moved(
    surface: Surface, layer: Layer, rule: Rule | None, name: str, x: float, y: float, *, unequal: bool
) -> Moved | None:
    """What it means to drag a handle to a place."""
    handles = rule.rule.operation.handles if rule is not None and rule.shown else None
    if rule is not None and handles is not None:
        values = {**rule.rule.values, **handles.dragged(rule.rule.complete(), name, x, y, unequal)}
        return Moved(("where", rule.id, "rule", "values"), values, "Move the rule")
    return kind_of(layer.what).moved(surface, layer.what, name, (x, y), unequal)
