"""Smoothing the edges: only tone differs at the edges."""

from __future__ import annotations

from typing import Any, ClassVar

from ...maps import MapSet
from ..method import Method, mending
from ..periodic import periodic_maps


@mending("mend.level", label="Smooth the edges")
class SmoothEdges(Method):
    """Only tone differs at the edges: the smooth part of the edges' jumps is taken out, nothing is cut.

    The repeat is the whole sheet. Moisan 2011; see :mod:`brave_tessel.core.repeat.periodic`.
    """

    note: ClassVar[str] = "only tone differs at the edges"

    def apply(self, flat: MapSet, found: Any) -> MapSet:
        return periodic_maps(flat)
