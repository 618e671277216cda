"""Level: only tone differs at the edges."""

from __future__ import annotations

from typing import Any, ClassVar

from ...maps import MapSet
from ..level import level_maps
from ..method import Method, mending


@mending("mend.level", label="Level")
class Level(Method):
    """Only tone differs at the edges: the smooth part of the edges' jumps is taken out, nothing is cut.

    The repeat is the whole sheet. Moisan 2011; see :mod:`brave_tessel.core.repeat.level`.
    """

    note: ClassVar[str] = "only tone differs at the edges"

    def apply(self, flat: MapSet, found: Any) -> MapSet:
        return level_maps(flat)
