"""Recipes written down step by step."""

from __future__ import annotations

from ..job.layers import Recipe, Step
from ..maps import MapKind
from ..operation import Value


class RecipeWriter:
    """Writes steps one after another, section by section."""

    def __init__(self) -> None:
        self.steps: list[Step] = []
        self.title = ""

    def section(self, title: str) -> None:
        """Begin a part of the recipe with a heading."""
        self.title = title

    def add(
        self, name: str, op: str, made_from: dict[str, str] | None = None, opened: tuple[str, ...] = (), **values: Value
    ) -> str:
        """Add a step; returns its name."""
        self.steps.append(
            Step(name=name, op=op, values=values, made_from=made_from or {}, section=self.title, opened=opened)
        )
        return name

    def recipe(self, *, height: str, colour: str, roughness: str, metalness: str = "", **finishes: str) -> Recipe:
        """The recipe, and which steps give its maps; ``finishes`` by the names of their maps."""
        yields = {MapKind.HEIGHT: height, MapKind.BASE_COLOUR: colour, MapKind.ROUGHNESS: roughness}
        if metalness:
            yields[MapKind.METALNESS] = metalness
        yields |= {MapKind(kind): step for kind, step in finishes.items()}
        return Recipe(steps=tuple(self.steps), yields=yields)
