"""What people want to do with a recipe, as commands on its layer."""

from __future__ import annotations

from ...core.errors import UnreadableFileError
from ...core.job.commands import AnyCommand, Set
from ...core.job.document import JOB_FORMAT
from ...core.job.layers import Layer, Recipe, Surface, layer_path
from ...core.job.nodes import Node
from ...core.phrases import say
from ...core.recipe.edit import check_recipe
from ...formats.documents import decode, encode
from ...formats.job_file import check_steps


def recipe_of(layer: Layer | None, rule: str = "") -> Recipe | None:
    """The recipe a layer, or one of its where-rules, is made of, if it is."""
    if layer is None:
        return None
    if rule:
        return next((entry.recipe for entry in layer.where if entry.id == rule), None)
    return layer.what.made_of_recipe()


def set_recipe(
    surface: Surface, layer: Layer, recipe: Recipe, label: str, *, rule: str = "", gesture: str = ""
) -> AnyCommand:
    """The layer, or one of its where-rules, made of another recipe."""
    where = ("where", rule, "recipe") if rule else ("what", "recipe")
    return Set(path=(*layer_path(surface, layer.id), *where), value=recipe, label=label, gesture=gesture)


class RecipeFile(Node, frozen=True, kw_only=True):
    """A recipe by itself: its name, the repeat it was made for in mm, and its steps."""

    format: int = JOB_FORMAT
    name: str
    repeat_mm: tuple[float, float]
    recipe: Recipe


def encode_recipe(name: str, repeat_mm: tuple[float, float], recipe: Recipe) -> bytes:
    """A recipe as readable JSON."""
    return encode(RecipeFile(name=name, repeat_mm=repeat_mm, recipe=recipe))


def decode_recipe(data: bytes, name: str) -> RecipeFile:
    """A recipe from JSON, its steps checked.

    Raises
    ------
    UnreadableFileError
        when it is no recipe.
    NewerJobError
        when it is from a later version.
    TesselError
        when its steps do not follow from each other.
    """
    file = decode(data, RecipeFile, name, "a recipe as this program writes it")
    if min(file.repeat_mm) <= 0 or max(file.repeat_mm) > 1e6:
        raise UnreadableFileError(
            name, value=say("repeat {repeat_mm}", repeat_mm=file.repeat_mm), allowed="a repeat above 0 mm"
        )
    check_steps(name, file.recipe)
    check_recipe(file.recipe)
    return file
