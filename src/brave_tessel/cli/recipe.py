"""The ``recipe`` command: list stock recipes, or write the maps of one or of a recipe file."""

from __future__ import annotations

import argparse
import sys
from typing import Any

import msgspec

from ..core.buildup.kinds.recipe import RecipeWhat
from ..core.errors import MissingError, NotUnderstoodError, RefusedError
from ..core.job.document import Delivery, Job
from ..core.job.layers import Layer, Recipe, Surface
from ..core.operation import REGISTRY, Param, Value
from ..core.quantity import parse_angle, parse_length, parse_share
from ..core.recipe.edit import set_dial
from ..core.recipe.materials import MATERIALS, stock_named
from ..engine.handover.deliver import planned_files
from ..engine.handover.output import Writing
from ..engine.handover.outputs.maps_png import export_surface
from ..engine.intents.recipes import decode_recipe
from ..engine.session import Session
from ..formats.images import read_file
from ..formats.job_file import OpenedJob
from .numbers import MOST_SEED, place, px, whole
from .said import Progress, say


def listing() -> dict[str, Any]:
    """Every stock recipe with its repeat and its opened dials."""
    recipes = []
    for stock in MATERIALS:
        recipe = stock.make()
        recipes.append(
            {
                "name": stock.name,
                "note": stock.note,
                "repeat_mm": list(stock.repeat_mm),
                "steps": len(recipe.steps),
                "dials": {
                    f"{step.name}/{dial}": step.values.get(dial, REGISTRY[step.op].params[dial].default)
                    for step in recipe.steps
                    for dial in step.opened
                },
                "yields": sorted(str(kind) for kind in recipe.yields),
            }
        )
    return {"recipes": recipes}


def _found(text: str) -> tuple[str, tuple[float, float], Recipe]:
    stock = stock_named(text)
    if stock is not None:
        return stock.name, stock.repeat_mm, stock.make()
    path = place(text)
    if path.suffix.lower() == ".json":
        file = decode_recipe(read_file(path), path.name)
        return file.name, file.repeat_mm, file.recipe
    raise MissingError(
        "recipe",
        value=text,
        allowed=", ".join(entry.name for entry in MATERIALS),
        remedy="Or give a recipe file ending in .json.",
    )


def with_dial(recipe: Recipe, text: str) -> Recipe:
    """A recipe with a dial set from ``dial=value`` or ``step/dial=value``; lengths take units.

    Raises
    ------
    NotUnderstoodError, MissingError, OutOfRangeError
        when there is no such dial, it is not the only one, or the value does not fit.
    """
    key, equals, value = text.partition("=")
    if not equals:
        raise NotUnderstoodError("dial", value=text, allowed="dial=value or step/dial=value")
    step_name, slash, dial = key.strip().rpartition("/")
    steps = [
        s
        for s in recipe.steps
        if s.op in REGISTRY and dial in REGISTRY[s.op].params and (not slash or s.name == step_name)
    ]
    opened = [s for s in steps if dial in s.opened]
    chosen = opened if len(opened) == 1 else steps
    if not chosen:
        raise MissingError(
            "dial", value=key, allowed=", ".join(f"{s.name}/{d}" for s in recipe.steps for d in s.opened)
        )
    if len(chosen) > 1:
        raise NotUnderstoodError("dial", value=key, allowed=" or ".join(f"{s.name}/{dial}" for s in chosen))
    step = chosen[0]
    return set_dial(recipe, step.name, dial, _value(REGISTRY[step.op].params[dial], value.strip()))


def _value(param: Param, text: str) -> Value:
    if param.kind in {"choice", "colour", "stops", "source", "words", "font", "sizes", "layer", "tip"}:
        return text
    if param.kind == "toggle":
        return text.lower() in {"yes", "true", "1", "on"}
    return {"length": parse_length, "angle": parse_angle}.get(param.kind, parse_share)(text)


def run(options: argparse.Namespace, progress: Progress) -> None:
    """List, or write maps."""
    if options.list or not options.recipe:
        told = listing()
        lines = [
            f"{r['name']:22}{r['repeat_mm'][0]:g} × {r['repeat_mm'][1]:g} mm  {r['note']}" for r in told["recipes"]
        ]
        say(told, "\n".join(lines), as_json=options.json)
        return
    if options.out is None:
        raise NotUnderstoodError("folder", value="", allowed="--out DIR")
    name, repeat, recipe = _found(options.recipe)
    if options.seed is not None:
        recipe = msgspec.structs.replace(recipe, seed=options.seed)
    for text in options.set:
        recipe = with_dial(recipe, text)
    layer = Layer(id="recipe", name=name, what=RecipeWhat(recipe=recipe))
    surface = Surface(id="surface", name=name, width_mm=repeat[0], height_mm=repeat[1], layers=(layer,))
    snapshot = Session(OpenedJob(Job(id="job-recipe", surfaces=(surface,)))).snapshot()
    delivery = Delivery(id="command-line", px=options.px)
    _ask_before_overwriting(options, snapshot.job, delivery, surface)
    written = export_surface(Writing(snapshot, delivery, (surface,), options.out, progress), surface)
    progress.end()
    result = {
        "recipe": name,
        "repeat_mm": list(repeat),
        "px": options.px,
        "maps": {kind.value: path.name for kind, path in written.items()},
    }
    say(result, f"{name}: {len(written)} maps in {options.out}", as_json=options.json)


def _ask_before_overwriting(options: argparse.Namespace, job: Job, delivery: Delivery, surface: Surface) -> None:
    """Files that are there are written over when that is wanted: asked on a terminal, else with ``--force``."""
    there = [file.name for file in planned_files(job, delivery, (surface,)) if (options.out / file.name).exists()]
    if not there or options.force:
        return
    if sys.stdin.isatty():
        print(f"Write over {len(there)} files in {options.out}? [y/N] ", end="", file=sys.stderr, flush=True)
        if sys.stdin.readline().strip().lower() in {"y", "yes"}:
            return
    raise RefusedError(
        str(options.out), value=f"{len(there)} files are there already, such as {there[0]}", remedy="Add --force."
    )


def declare(parser: argparse.ArgumentParser) -> None:
    """Its arguments."""
    parser.add_argument(
        "recipe", nargs="?", default="", help="name of a stock recipe, or a recipe file ending in .json"
    )
    parser.add_argument("--list", action="store_true", help="list the stock recipes and their dials")
    parser.add_argument("--px", type=px(), default=1024, help="pixels of the longer side")
    parser.add_argument("--seed", type=whole("seed", 0, MOST_SEED), default=None, help="one of many equal variants")
    parser.add_argument(
        "--set",
        action="append",
        default=[],
        metavar="DIAL=VALUE",
        help="a dial, as in size=25mm or large cells/size=25mm",
    )
    parser.add_argument("--out", type=place, default=None)
    parser.add_argument("--force", action="store_true", help="write over files that are there")
    parser.add_argument("--json", action="store_true", help="machine-readable result on standard output")
