"""Covered where strokes are painted."""

from __future__ import annotations

from dataclasses import dataclass

from ...operation import settings


@settings("where.painted", label="Painted")
@dataclass(frozen=True)
class Painted:
    """Covered where it is painted; its strokes lie with the rule."""
