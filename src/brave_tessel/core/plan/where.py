"""From a layer's where-rules to its coverage."""

from __future__ import annotations

from functools import partial
from typing import Any

import numpy as np

from ..buildup.stack import Stack
from ..buildup.strokes import lay_strokes
from ..buildup.where import combine
from ..colour import decode_srgb, encode_srgb, luminance
from ..gather.exact import EXACT, laid_exactly
from ..gather.lens import Lens
from ..gather.names import MASK
from ..gather.straighten import Corners
from ..job.document import Source
from ..job.layers import Layer, Rule, Stroke, laid_times
from ..job.nodes import Setting
from ..maps import MapKind, MapSet, plain
from ..operation import REGISTRY, Ground, Pieces, find, unknown
from ..recipe.stock import STOCK
from ..sheet import Grid, Raster
from .area import Area
from .protocol import Known, Repeats
from .recipes import RecipePlanner
from .tasks import Local, Task, fail, reach_px, task_key


class WherePlanner(RecipePlanner):
    """The tasks of where-rules."""

    def __init__(self, *given: Any, **named: Any) -> None:
        super().__init__(*given, **named)
        self._moulded: dict[bytes, Task] = {}

    def moulded(self, stack: Task) -> Task:
        """The stack whose relief a stack has: itself, or one beneath it on which only colours were laid."""
        return self._moulded.get(stack.key, stack)

    def coverage(self, layer: Layer, below: Task, grid: Grid, known: Known | None = None) -> Task | None:
        """Where a layer lies, by its rules; None is everywhere."""
        done: Task | None = None
        for rule in layer.where:
            if not rule.shown:
                continue
            one = self.shaped_rule(rule, below, grid, layer.id, known or {})
            strength = float(rule.shape.value("strength"))
            inputs = (one,) if done is None else (done, one)
            done = Task(
                task_key("combine", rule.mode, strength, *(task.key for task in inputs)),
                "Where",
                layer.id,
                partial(_combine, mode=rule.mode, strength=strength),
                inputs,
                local=Local.pointwise(partial(_combine, mode=rule.mode, strength=strength)),
            )
        return done

    def shaped_rule(self, rule: Rule, below: Task, grid: Grid, owner: str, known: Known) -> Task:
        """What a rule gives, spread, softened and turned over as it says."""
        one = self.rule(rule, below, grid, owner, known)
        values = rule.shape.complete()
        if values == find("rule.shape").defaults() | {"strength": values["strength"]}:
            return one
        reach = reach_px(grid, _reach_mm(rule.shape) or 0.0) + (4 if values["spread"] else 0)
        local = Local(lambda area: partial(_shape, rule=rule, grid=area.own), reach, may_lag=True)
        return Task(
            task_key("shape", values, one.key),
            "Where",
            owner,
            partial(_shape, rule=rule, grid=grid),
            (one,),
            local=local,
        )

    def rule(self, rule: Rule, below: Task, grid: Grid, owner: str, known: Known) -> Task:
        """One where-rule, before it is shaped. One that is not known here covers everything, and is told."""
        if not rule.rule.known:
            everywhere = Task(task_key("all over", grid), "Where", owner, partial(_all_over, grid))
            error = unknown(rule.rule.op, rule.rule.version)
            return Task(
                task_key("unknown rule", rule.rule.op, grid), "Where", owner, partial(fail, error), (), everywhere
            )
        if rule.rule.op == "where.painted":
            return self.painted(rule.strokes, grid, owner)
        if rule.recipe is not None:
            steps = self.recipe_steps(rule.recipe, grid, owner, below)
            yielded = steps.get(rule.recipe.yields.get(MapKind.OPACITY, ""))
            if yielded is not None:
                return Task(task_key("cover", yielded.key), "Where", owner, _cover, (yielded,))
        inputs = self._rule_inputs(rule, below, grid, owner, known)
        if inputs is None:
            return Task(task_key("nowhere", grid), "Where", owner, partial(_nowhere, grid))
        return Task(
            task_key(
                "rule",
                rule.rule.op,
                rule.rule.operation.version,
                rule.rule.complete(),
                grid,
                *(task.key for task in inputs),
            ),
            "Where",
            owner,
            partial(_rule, rule=rule, grid=grid),
            inputs,
            local=_local_rule(rule, grid),
        )

    def _rule_inputs(self, rule: Rule, below: Task, grid: Grid, owner: str, known: Known) -> tuple[Task, ...] | None:
        """What a rule looks at; None where it is not there."""
        kinds = tuple(rule.rule.operation.inputs.values())
        if kinds == ("ground",):
            # It looks at the height alone: what changes colours beneath leaves it as it is.
            return (self.moulded(below),)
        if kinds == ("colour",):
            found = self.rule_picture(rule, grid, owner)
        elif kinds == ("field",):
            found = self._rule_layer(rule, below, known, owner)
        elif kinds == ("pieces",):
            found = self._rule_pieces(rule, grid, known)
        else:
            return ()
        return None if found is None else (found,)

    def rule_picture(self, rule: Rule, grid: Grid, owner: str) -> Task | None:
        """The picture that a rule reads, as colours; None without a source."""
        source = str(rule.rule.value("source"))
        known = next((s for s in self.job.sources if s.id == source), None)
        if known is None:
            return None
        values = rule.rule.complete()
        flat_colours = rule.rule.op == "where.id" and values["takes"] == "colour"
        if known.blob and (flat_colours or known.role in EXACT):
            return self._exactly(known, values, grid, owner, flat_colours=flat_colours or known.role != MASK)
        repeats = Repeats(source, int(values.get("across", 1)), int(values.get("up", 1)))
        maps = self.source_maps(repeats, grid, owner, "Where")
        kind = {"kind ID": MapKind.KIND_ID, "piece ID": MapKind.PIECE_ID, "opacity": MapKind.OPACITY}.get(
            str(values["takes"]), MapKind.BASE_COLOUR
        )
        return Task(task_key("rule map", kind, maps.key), "Where", owner, partial(_as_colour, kind=kind), (maps,))

    def _exactly(self, source: Source, values: dict[str, Any], grid: Grid, owner: str, *, flat_colours: bool) -> Task:
        """A mask or flat colours as the file has them; their size need not be known."""
        frame, repeats = source.straightening, (int(values.get("across", 1)), int(values.get("up", 1)))
        codes = Task(task_key("codes", source.blob), "Read the picture", owner, partial(self.load_codes, source.blob))
        lay = partial(
            _as_it_is,
            corners=frame.corners,
            lens=frame.lens,
            shape=grid.shape,
            repeats=repeats,
            flat_colours=flat_colours,
            alpha=values["takes"] == "opacity",
        )
        key = task_key("exactly", frame.corners, frame.lens, repeats, grid, flat_colours, values["takes"], codes.key)
        return Task(key, "Where", owner, lay, (codes,))

    def _rule_layer(self, rule: Rule, below: Task, known: Known, owner: str) -> Task | None:
        seen = known.get(str(rule.rule.value("layer")))
        if seen is None:
            return None
        if rule.rule.value("takes") == "its coverage":
            return seen.cover or Task(
                task_key("everywhere", seen.stack.key),
                "Where",
                owner,
                _everywhere,
                (seen.stack,),
                local=Local.pointwise(_everywhere),
            )
        return Task(
            task_key("shows", seen.stack.key, below.key),
            "Where",
            owner,
            _shows,
            (seen.stack, below),
            local=Local.pointwise(_shows),
        )

    def _rule_pieces(self, rule: Rule, grid: Grid, known: Known) -> Task | None:
        seen = known.get(str(rule.rule.value("layer")))
        recipe = None if seen is None else seen.layer.what.made_of_recipe()
        # Pieces of a layer laid in several repeats have no numbers of their own over the whole sheet.
        if seen is None or recipe is None or laid_times(seen.layer) != (1, 1):
            return None
        steps = self.recipe_steps(recipe, grid, seen.layer.id)
        named = next((s.name for s in recipe.steps if REGISTRY[s.op].yields == "pieces"), "")
        return steps.get(named)

    def painted(self, strokes: tuple[Stroke, ...], grid: Grid, owner: str) -> Task:
        """Strokes but the last are one task, so that painting replays only the last."""
        older, last = strokes[:-1], strokes[-1:]
        tips = self.tips(strokes, owner)
        keys, pictures = [task.key for task in tips.values()], tuple(tips.values())
        names = list(tips)

        def local(some: tuple[Stroke, ...]) -> Local:
            return Local(lambda area: partial(_strokes_within, strokes=some, area=area, tips=names))

        under = Task(
            task_key("strokes", older, grid, *keys),
            "Painted",
            owner,
            partial(_strokes, strokes=older, grid=grid, tips=names),
            pictures,
            local=local(older),
        )
        return Task(
            task_key("stroke", last, under.key),
            "Painted",
            owner,
            partial(_stroke_on, strokes=last, grid=grid, tips=names),
            (under, *pictures),
            local=Local(lambda area: partial(_stroke_on, strokes=last, grid=area.own, tips=names, area=area)),
        )

    def tips(self, strokes: tuple[Stroke, ...], owner: str) -> dict[str, Task]:
        """The pictures of the brushes' tips, by source."""
        used = sorted({stroke.tip for stroke in strokes} - {""})
        blobs = {s.id: s.blob for s in self.job.sources}
        made = {
            tip: Task(
                task_key("picture", blobs[tip]), "Read the tip", owner, partial(self.load, blobs[tip]), gridless=True
            )
            for tip in used
            if blobs.get(tip)
        }
        for tip in used:
            stock = STOCK.get(tip.removeprefix(RECIPE_TIP)) if tip.startswith(RECIPE_TIP) else None
            if stock is not None:
                maps = self.recipe(stock(), TIP_GRID, owner)
                made[tip] = Task(
                    task_key("recipe tip", maps.key), "Make the tip", owner, _recipe_tip, (maps,), gridless=True
                )
        return made


def _combine(*rasters: Raster, mode: str, strength: float) -> Raster:
    return combine(rasters[0] if len(rasters) == 2 else None, rasters[-1], mode, strength)


def _shape(field: Raster, *, rule: Rule, grid: Grid) -> Raster:
    operation = find("rule.shape")
    return np.asarray(operation.run(grid, field, **operation.bind(rule.shape.values)), np.float32)


def _cover(field: Raster) -> Raster:
    return np.clip(field, 0, 1)


def _nowhere(grid: Grid) -> Raster:
    return np.zeros(grid.shape, np.float32)


def _all_over(grid: Grid) -> Raster:
    return np.ones(grid.shape, np.float32)


def _everywhere(stack: Stack) -> Raster:
    return np.ones(stack.grid.shape, np.float32)


def _shows(after: Stack, below: Stack) -> Raster:
    """Where the layer joined last in ``after`` still lies on top in ``below``."""
    return np.where(below.top == after.layers, np.maximum(after.share, np.float32(0.5)), 0).astype(np.float32)


def _as_it_is(
    codes: Raster,
    *,
    corners: Corners,
    lens: Lens,
    shape: tuple[int, int],
    repeats: tuple[int, int],
    flat_colours: bool,
    alpha: bool,
) -> Raster:
    laid = laid_exactly(codes, corners, shape, across=repeats[0], up=repeats[1], lens=lens, flat_colours=flat_colours)
    seen = np.repeat(laid[..., 3:], 3, 2) if alpha else laid[..., :3]
    # Rules read colours in linear light and take them back to codes; so they get back what the file has.
    return np.asarray(decode_srgb(np.ascontiguousarray(seen)), np.float32)


def _as_colour(maps: MapSet, *, kind: MapKind) -> Raster:
    pixels = maps.or_default(kind) if kind in maps or kind is not MapKind.KIND_ID else plain(maps.grid, (0.0, 0.0, 0.0))
    return np.ascontiguousarray(pixels if pixels.ndim == 3 else np.repeat(pixels[..., None], 3, 2), np.float32)


RECIPE_TIP = "recipe:"
TIP_GRID = Grid(128, 128, 128.0, 128.0)


def _recipe_tip(maps: MapSet) -> Raster:
    """A tip from a recipe: its relief from low to high within a soft round edge, as a picture (H, W, 3), linear."""
    height = maps.or_default(MapKind.HEIGHT)
    span = max(float(np.ptp(height)), 1e-6)
    rows, columns = np.indices(height.shape)
    away = np.hypot(rows / (height.shape[0] - 1) - 0.5, columns / (height.shape[1] - 1) - 0.5) * 2
    tone = (height - height.min()) / span * np.clip((1 - away) / 0.3, 0, 1)
    return np.repeat(np.asarray(decode_srgb(np.clip(tone, 0, 1)), np.float32)[..., None], 3, 2)


def as_tip(picture: Raster) -> Raster:
    """A tip from a picture (H, W, 3): its middle square, light is where it paints."""
    side = min(picture.shape[:2])
    top, left = (picture.shape[0] - side) // 2, (picture.shape[1] - side) // 2
    tone = encode_srgb(np.clip(luminance(picture[top : top + side, left : left + side]), 0, 1))
    return np.asarray(tone, np.float32)


def _strokes(*pictures: Raster, strokes: Any, grid: Grid, tips: list[str]) -> Raster:
    made = {tip: as_tip(picture) for tip, picture in zip(tips, pictures, strict=True)}
    return lay_strokes(np.zeros(grid.shape, np.float32), strokes, grid, made)


def _strokes_within(*pictures: Raster, strokes: Any, area: Area, tips: list[str]) -> Raster:
    return _stroke_on(
        np.zeros(area.own.shape, np.float32), *pictures, strokes=strokes, grid=area.own, tips=tips, area=area
    )


def _stroke_on(
    under: Raster, *pictures: Raster, strokes: Any, grid: Grid, tips: list[str], area: Area | None = None
) -> Raster:
    made = {tip: as_tip(picture) for tip, picture in zip(tips, pictures, strict=True)}
    return lay_strokes(under, strokes, grid, made, area)


def _reach_mm(setting: Setting) -> float | None:
    """How far a setting's operation looks, mm; None where that is not bounded, or the operation is not known."""
    operation = setting.operation
    return None if operation.reach is None else operation.reach(operation.bind(setting.values))


def _local_rule(rule: Rule, grid: Grid) -> Local | None:
    reach = _reach_mm(rule.rule)
    return (
        None
        if reach is None
        else Local(lambda area: partial(_rule, rule=rule, grid=area.own), reach_px(grid, reach), may_lag=True)
    )


def _rule(*seen: Any, rule: Rule, grid: Grid) -> Raster:
    operation = rule.rule.operation
    looked = [Ground(grid, entry.height) if isinstance(entry, Stack) else entry for entry in seen]
    assert all(isinstance(entry, Ground | Pieces | np.ndarray) for entry in looked)
    return operation.run(grid, *looked, **operation.bind(rule.rule.values))  # type: ignore[no-any-return]
