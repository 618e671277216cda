"""From a recipe to its tasks, and a gathered source laid in a surface's sheet."""

from __future__ import annotations

from functools import partial
from typing import Any

import numpy as np

from ..buildup.stack import Stack, bare
from ..errors import MissingError
from ..gather.conventions import slopes_of
from ..job.document import Source
from ..job.layers import Recipe, Step
from ..job.nodes import Setting
from ..maps import FINISH, MapKind, MapSet
from ..operation import REGISTRY, find, unknown
from ..outlines import Outline
from ..recipe.edit import may_be_half
from ..recipe.evaluate import gather_yields, passed_on, run_step, seeded
from ..recipe.steps.reliefs import GATHERED, LETTERED
from ..relief.estimate import TRUE_RISE, told_values
from ..relief.integrate import height_of_slopes, rise_of
from ..relief.told import ToldRelief, tell_relief
from ..repeat.resample import resample_wrapped, tiled_map
from ..sheet import Grid, Raster
from .protocol import Repeats
from .sheets import SheetPlanner
from .tasks import Local, Task, fail, task_key


class RecipePlanner(SheetPlanner):
    """The tasks of recipes. Holds nothing but the frozen job and ways to load pixels."""

    def source_maps(self, repeats: Repeats, grid: Grid, owner: str, label: str) -> Task:
        """A gathered source's maps laid on a grid in whole repeats, what it lacks estimated."""
        try:
            source = self.job.source(repeats.source)
        except MissingError as error:
            return Task(task_key("missing", repeats.source), label, owner, partial(fail, error))
        px = max(grid.shape) * max(repeats.across, repeats.up)
        sheet = self.broken(source, px)
        laid = Task(
            task_key("laid", repeats.across, repeats.up, grid, sheet.key),
            label,
            owner,
            partial(_lay_in_sheet, grid=grid, across=repeats.across, up=repeats.up),
            (sheet,),
        )
        return self.estimated(source, repeats, laid, owner)

    def estimated(self, source: Source, repeats: Repeats | None, laid: Task, owner: str) -> Task:
        """A sheet with the maps it lacks estimated, as the source or the layer says."""
        height = (repeats.height if repeats else None) or source.height
        roughness = (repeats.roughness if repeats else None) or source.roughness
        return Task(
            task_key("estimates", height.complete(), roughness.complete(), source.true_relief, laid.key),
            source.name,
            owner,
            partial(
                _estimate,
                height=height,
                roughness=roughness,
                true_relief=source.true_relief,
                laps=(repeats.across, repeats.up) if repeats else (1, 1),
            ),
            (laid,),
        )

    def recipe(self, recipe: Recipe, grid: Grid, owner: str, below: Task | None = None) -> Task:
        """The maps a recipe yields; each step is a task, so that a change recomputes what hangs on it."""
        steps = self.recipe_steps(recipe, grid, owner, below)
        wanted = {kind: name for kind, name in recipe.yields.items() if name in steps}
        names = sorted(set(wanted.values()))
        return Task(
            task_key("yields", grid, wanted, *(steps[name].key for name in names)),
            "Recipe",
            owner,
            partial(_yields, grid=grid, recipe=recipe, names=names),
            tuple(steps[name] for name in names),
        )

    def recipe_steps(self, recipe: Recipe, grid: Grid, owner: str, below: Task | None = None) -> dict[str, Task]:
        """Every step's task by its name; a bypassed one is what it passes on."""
        steps: dict[str, Task] = {}
        for step in recipe.steps:
            through = passed_on(step) if step.bypassed else ""
            if through in steps:
                steps[step.name] = steps[through]
            else:
                steps[step.name] = self.step(seeded(step, recipe.seed), steps, grid, owner, below)
        return steps

    def step(self, step: Step, above: dict[str, Task], grid: Grid, owner: str, below: Task | None = None) -> Task:
        """One step of a recipe. One that is not known here passes on its first input, and is told."""
        operation = find(step.op, step.version)
        if not operation.known:
            error = unknown(step.op, step.version)
            through = next((above[name] for name in step.made_from.values() if name in above), None)
            key = task_key("unknown step", step.op, step.version, through.key if through else "", grid)
            return Task(key, step.name, owner, partial(fail, error), (), through)
        if "ground" in operation.inputs.values():
            under = below or self.bare(grid, owner)
            return Task(task_key("beneath", step.op, grid, under.key), step.name, owner, _height_beneath, (under,))
        if step.op in GATHERED:
            return self.gathered(step, grid, owner)
        if step.op in LETTERED:
            return self.lettered(step, grid, owner)
        slots = sorted(slot for slot, name in step.made_from.items() if name in above)
        names = [step.made_from[slot] for slot in slots]
        inputs = tuple(above[name] for name in names)
        half = step.half and min(grid.shape) >= 2 * LEAST_HALF and may_be_half(step)
        values = operation.defaults() | step.values
        key = task_key("step", step.op, operation.version, values, slots, grid, half, *(task.key for task in inputs))
        work = partial(_half_step if half else _run_step, grid=grid, step=step, names=names)
        return Task(key, step.name, owner, work, inputs)

    def bare(self, grid: Grid, owner: str) -> Task:
        """Nothing laid yet."""
        local = Local(lambda area: partial(bare, area.own))
        return Task(task_key("bare", grid), "Sheet", owner, partial(bare, grid), local=local)

    def gathered(self, step: Step, grid: Grid, owner: str) -> Task:
        """A step that brings a map of a source; grey while no source is chosen."""
        values = REGISTRY[step.op].bind(step.values)
        if not values["source"]:
            return Task(
                task_key("no source", step.op, grid), step.name, owner, partial(_no_source, grid=grid, op=step.op)
            )
        repeats = Repeats(str(values["source"]), int(values["across"]), int(values["up"]))
        maps = self.source_maps(repeats, grid, owner, step.name)
        kind = MapKind.BASE_COLOUR if step.op == "source.colour" else MapKind(str(values["takes"]))
        return Task(task_key("map of", kind, maps.key), step.name, owner, partial(_one_map, kind=kind), (maps,))

    def lettered(self, step: Step, grid: Grid, owner: str) -> Task:
        """A step made of letters, whose outlines come from a font."""
        values = REGISTRY[step.op].bind(step.values)
        outline = self.letters(str(values["font"]), str(values["text"]), owner)
        return Task(
            task_key("lettered", step.op, values, grid, outline.key),
            step.name,
            owner,
            partial(_lettered, grid=grid, op=step.op, values=values),
            (outline,),
        )

    def letters(self, font: str, text: str, owner: str) -> Task:
        """The outline of a text, its em 1."""
        return Task(task_key("letters", font, text), "Read the font", owner, partial(self.load_letters, font, text))


def _lettered(outline: Outline, *, grid: Grid, op: str, values: dict[str, Any]) -> Raster:
    return np.asarray(find(op).run(grid, outline, **values), np.float32)


def _one_map(maps: MapSet, *, kind: MapKind) -> Raster:
    return np.ascontiguousarray(maps.or_default(kind))


def _height_beneath(stack: Stack) -> Raster:
    return np.ascontiguousarray(stack.height)


def _no_source(*, grid: Grid, op: str) -> Raster:
    return np.asarray(find(op).run(grid, **find(op).bind({})), np.float32)


def _lay_in_sheet(sheet: MapSet, *, grid: Grid, across: int, up: int) -> MapSet:
    return MapSet(grid, {kind: tiled_map(kind, pixels, across, up, grid.shape) for kind, pixels in sheet.maps.items()})


_OWN = frozenset(
    {
        MapKind.BASE_COLOUR,
        MapKind.ROUGHNESS,
        MapKind.METALNESS,
        MapKind.OPACITY,
        MapKind.AMBIENT_OCCLUSION,
        MapKind.KIND_ID,
        MapKind.PIECE_ID,
        *FINISH,
    }
)


def _told_by_one(colour: Raster, grid: Grid, laps: tuple[int, int]) -> ToldRelief:
    rows, columns = round(grid.height_px / laps[1]), round(grid.width_px / laps[0])
    one = Grid(columns, rows, grid.width_mm / laps[0], grid.height_mm / laps[1])
    return tell_relief(np.ascontiguousarray(colour[:rows, :columns]), one)


def _estimate(
    laid: MapSet, *, height: Setting, roughness: Setting, true_relief: bool, laps: tuple[int, int] = (1, 1)
) -> MapSet:
    colour = laid.or_default(MapKind.BASE_COLOUR)
    kept: dict[MapKind, Raster] = {k: p for k, p in laid.maps.items() if k in _OWN}
    rise = float(find(height.op).bind(height.values)["rise"])
    if MapKind.HEIGHT in laid:
        told = laid[MapKind.HEIGHT]
        fitted = None if true_relief or MapKind.NORMAL not in laid else rise_of(told, laid[MapKind.NORMAL], laid.grid)
        if fitted is not None:
            kept[MapKind.HEIGHT] = told * np.float32(fitted * rise / TRUE_RISE)
        else:
            kept[MapKind.HEIGHT] = told * np.float32(rise / TRUE_RISE if true_relief else rise)
    elif MapKind.NORMAL in laid:
        kept[MapKind.HEIGHT] = height_of_slopes(*slopes_of(laid[MapKind.NORMAL]), laid.grid) * np.float32(
            rise / TRUE_RISE
        )
    if MapKind.NORMAL in laid:
        # The normals are the authority: what they hold beyond the relief stays, to the last pixel.
        kept[MapKind.NORMAL] = _steeper(laid[MapKind.NORMAL], rise / TRUE_RISE)
    for kind, setting in ((MapKind.HEIGHT, height), (MapKind.ROUGHNESS, roughness)):
        if kind not in kept:
            operation = find(setting.op)
            values = operation.bind(setting.values)
            if values.get("as_told"):
                # What one repeat tells, however often it is laid.
                one = _told_by_one(colour, laid.grid, laps)
                values |= {"as_told": False, **told_values(one, one_side=bool(values.get("one_side")))}
            kept[kind] = operation.run(laid.grid, colour, **values)
    return MapSet(laid.grid, kept)


def _steeper(normal: Raster, times: float) -> Raster:
    """Normals of a relief made so many times higher."""
    if times == 1:
        return normal
    made = normal * np.array([times, times, 1], np.float32)
    return np.asarray(made / np.linalg.norm(made, axis=2, keepdims=True), np.float32)


def _yields(*results: Any, grid: Grid, recipe: Recipe, names: list[str]) -> MapSet:
    return gather_yields(grid, recipe, dict(zip(names, results, strict=True)))


def _run_step(*results: Any, grid: Grid, step: Step, names: list[str]) -> Any:
    return run_step(grid, step, dict(zip(names, results, strict=True)))


LEAST_HALF = 64


def _half_step(*results: Any, grid: Grid, step: Step, names: list[str]) -> Any:
    """A step worked out at half resolution from inputs brought down, and brought up again."""
    small = Grid(grid.width_px // 2, grid.height_px // 2, grid.width_mm, grid.height_mm)
    brought = {name: resample_wrapped(pixels, small.shape) for name, pixels in zip(names, results, strict=True)}
    return resample_wrapped(run_step(small, step, brought), grid.shape)
