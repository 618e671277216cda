"""Small scenes for tests of Place."""

from brave_tessel.core import registered  # noqa: F401 - declares pieces and layings
from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Surface
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.job.scene import Datum, Laid, Opening, Part, Piece, Scene
from brave_tessel.core.recipe.stock import units_recipe

SURFACE = Surface(id="s", name="S", width_mm=612.0, height_mm=312.0)
WINDOW = Opening(id="w", left=1404.0, width=900.0, sill=936.0, height=1170.0)


def brick(width=2250.0, height=1500.0, **values):
    recipe = units_recipe(**({"length": 215.0, "height": 65.0, "joint": 10.0, "bond": "half"} | values))
    layer = Layer(id="brick", name="Brick", what=RecipeWhat(recipe=recipe))
    return Surface(id="brick", name="Brick", width_mm=width, height_mm=height, layers=(layer,), beat="brick")


def part(id, op, values=None, *, at=(0.0, 0.0, 0.0), turn=0.0, laid=None, piece=None, **more):
    made = Piece(op=f"made.{op}", values=values or {}, **(piece or {}))
    return Part(id=id, name=id, at=at, turn=(0.0, 0.0, turn), piece=made, laid=tuple(laid or ()), **more)


def laid(op="flat", *groups, surface="s", id="l", values=None, **more):
    return Laid(id=id, surface=surface, groups=groups, laying=Setting(op=f"laying.{op}", values=values or {}), **more)


def scene(*parts, datum=(0.0, 0.0, 0.0), along=(1.0, 0.0, 0.0), **more):
    return Scene(parts=parts, datums=(Datum(id="d", name="d", at=datum, along=along),), datum="d", **more)


def job(*parts, surface=SURFACE, **more):
    return Job(surfaces=(surface,), scene=scene(*parts, **more))


def room(surface=None, **more):
    """A wall with a window that looks south and one that looks west, meeting at x = 4500, y = 0."""
    name = surface.id if surface else "s"
    size = {"height": 2700.0, "thickness": 160.0, "dado": 1248.0}
    on = [laid("flat", "front", surface=name, id="upper"), laid("flat", "dado", surface=name, id="dado")]
    parts = (
        part("north", "wall", {**size, "length": 4500.0}, laid=on, piece={"openings": (WINDOW,)}),
        part("east", "wall", {**size, "length": 3000.0}, at=(4500.0, 0.0, 0.0), turn=-90.0, laid=on),
        part("floor", "floor", {"width": 4500.0, "depth": 3000.0}, at=(0.0, -3000.0, 0.0),
             laid=[laid("flat", "top", surface=name)]),
    )  # fmt: skip
    return job(*parts, surface=surface or SURFACE, **({"datum": (4500.0, 0.0, 0.0)} | more))
