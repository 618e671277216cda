"""Covered as a recipe says."""

from __future__ import annotations

from dataclasses import dataclass

from ...operation import settings


@settings("where.recipe", label="Recipe")
@dataclass(frozen=True)
class ByRecipe:
    """Covered as the opacity of a recipe of its own says."""
