"""A layer made of a recipe, laid in whole repeats."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial

from ...job.document import Job
from ...job.layers import Layer, Recipe, Surface, What
from ...job.nodes import Node
from ...maps import FINISH, MapKind
from ...operation import REGISTRY
from ...phrases import say
from ...plan.protocol import Plans
from ...plan.tasks import Task, task_key
from ...quantity import format_size
from ...recipe.closing import recipe_closing
from ...recipe.materials import MATERIALS, stock_named
from ...recipe.stock import STOCK
from ...sheet import Grid
from ..form_rows import Act, FormRow, Note, StepDials, Title
from ..kind import LayerKind, layer_kind
from ..repeats import cell_grid, tiled

OPEN_RECIPE = "Open the recipe"


class RecipeWhat(Node, What, frozen=True, kw_only=True, tag="recipe"):
    """A procedural source, laid in whole repeats."""

    recipe: Recipe
    across: int = 1
    up: int = 1

    def made_of_recipe(self) -> Recipe | None:
        """The recipe that makes it."""
        return self.recipe

    def finishes(self) -> frozenset[MapKind]:
        return frozenset(kind for kind in FINISH if kind in self.recipe.yields)


@layer_kind(RecipeWhat, label="Recipe")
class RecipeKind(LayerKind[RecipeWhat]):
    """Named steps; stock ones to begin with."""

    group = "Recipe"
    rides = True
    laid = True

    def offers(self, job: Job, surface: Surface | None) -> list[str]:
        return [*STOCK, *(stock.name for stock in MATERIALS if stock.name not in STOCK)]

    def fresh(self, job: Job, surface: Surface, name: str) -> RecipeWhat:
        stock = stock_named(name)
        return RecipeWhat(recipe=STOCK[name]() if name in STOCK or stock is None else stock.make())

    def maps(self, planner: Plans, layer: Layer, grid: Grid, below: Task | None) -> Task:
        assert isinstance(layer.what, RecipeWhat)
        what = layer.what
        if what.across == what.up == 1:
            return planner.recipe(what.recipe, grid, layer.id, below)
        made = planner.recipe(what.recipe, cell_grid(grid, what.across, what.up), layer.id)
        return Task(
            task_key("tiled", what.across, what.up, grid, made.key),
            layer.name,
            layer.id,
            partial(tiled, grid=grid, across=what.across, up=what.up),
            (made,),
        )

    def form(self, job: Job, surface: Surface, layer: Layer) -> Iterable[FormRow]:
        assert isinstance(layer.what, RecipeWhat)
        yield Act(OPEN_RECIPE, "Its steps, one by one (E)", asks="recipe")
        yield Note(_stretched, tone="caution")
        steps = layer.what.recipe.steps
        some = any(step.opened for step in steps)
        for step in steps:
            operation = REGISTRY[step.op]
            if (some and not step.opened) or (operation.known and not operation.params):
                continue
            does = say(operation.label) if operation.known else say("unknown")
            yield Title(say("{step} · {does}", step=step.name, does=does))
            yield StepDials(step.name, step.op, step.opened if some else None)

    def describe(self, layer: Layer) -> str:
        return "" if layer.where or self.level(layer) else "recipe"

    def level(self, layer: Layer) -> float:
        return layer.seat.number("level")


def _stretched(surface: Surface, layer: Layer) -> str:
    """How far the pattern is from its own size; empty where it fits."""
    what = layer.what
    if not isinstance(what, RecipeWhat):
        return ""
    closes = recipe_closing(what.recipe, surface.width_mm / what.across, surface.height_mm / what.up)
    if closes is None or closes[1].fits:
        return ""
    most = 100 * max(map(abs, closes[1].stretch))
    return say(
        "{name} fits {size}; it is stretched by {most:.1f} %.",
        name=closes[0].name,
        size=format_size(*closes[1].fitting),
        most=most,
    )
