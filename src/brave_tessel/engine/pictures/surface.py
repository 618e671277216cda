"""Work for the worker: one surface for the build board, its layers' and rules' small pictures, who lies on top."""

from __future__ import annotations

import time
from collections.abc import Callable

import cv2
import msgspec
import numpy as np

from ...core.buildup.hatches import hatch_ground
from ...core.buildup.stack import Stack
from ...core.colour import PLAUSIBLE_LINEAR, decode_srgb, display_codes, luminance
from ...core.errors import TesselError
from ...core.job.document import BundleWhat, Job, Layer, PaintedWhat, Rule, Surface, WaterWhat, every_layer
from ...core.kernels.shade import shade
from ...core.maps import MapKind, MapSet
from ...core.plan.planner import Light, Planner, seated_layers
from ...core.plan.tasks import Task, task_key
from ...core.plan.where import Seen
from ...core.relief.pictures import COVER, REFLECTANCE, VIEWS, WINNER, map_codes, mip_chain
from ...core.sheet import AnyArray, Grid, Raster
from ..evaluate import Evaluation
from ..session import Session
from .results import SurfacePicture

Current = Callable[[], bool]
THUMB = 40


def surface_picture(
    session: Session,
    job: Job,
    surface: Surface,
    *,
    px: int,
    light: Light,
    view: str,
    fine: bool,
    current: Current,
    layer: str = "",
    solo: str = "",
    sun: float = 0.9,
    sky: float = 0.4,
    exposure: float = 1.0,
) -> SurfacePicture:
    """One surface for the build board; ``solo`` shows one layer alone."""
    begun = time.perf_counter()
    shown = alone(surface, solo) if solo else surface
    planner = session.planner(job)
    run = session.evaluation(current)
    grid = Grid.for_repeat(surface.width_mm, surface.height_mm, px)
    maps = run.value(planner.finished(shown, grid))
    if VIEWS[view] is MapKind.CURVATURE:
        maps = maps.with_maps(curvature=run.value(planner.curvature(shown, grid)))
    stacks = [run.value(task) for task in planner.stacks(shown, grid)]
    if VIEWS[view] is None:
        codes = run.value(planner.lit(shown, grid, light, sun=sun, sky=sky, exposure=exposure))
    elif view == WINNER:
        codes = winner_codes(shown, stacks[-1].top, maps, light)
    elif view == COVER:
        codes = _grey(_cover_of(run, planner, surface, layer, grid))
    elif view == REFLECTANCE:
        codes = reflectance_codes(maps)
    else:
        kind = VIEWS[view]
        assert isinstance(kind, MapKind)
        codes = map_codes(kind, maps)
    thumbs = small_pictures(run, planner, surface, grid, work=not fine)
    ms = (time.perf_counter() - begun) * 1000
    return SurfacePicture(shown, grid, mip_chain(codes), maps, stacks, thumbs, dict(run.faults), ms, fine, job=job)


def alone(surface: Surface, id: str) -> Surface:
    """A surface of which only one layer shows, without its rules looking for others."""
    layer = next((entry for entry, _ in every_layer(surface.layers) if entry.id == id), None)
    if layer is None:
        return surface
    return msgspec.structs.replace(surface, layers=(msgspec.structs.replace(layer, shown=True),))


def _grey(values: Raster) -> AnyArray:
    return np.repeat(np.rint(np.clip(values, 0, 1) * 255).astype(np.uint8)[..., None], 3, 2)


def _cover_of(run: Evaluation, planner: Planner, surface: Surface, id: str, grid: Grid) -> Raster:
    layer = next((entry for entry, _ in every_layer(surface.layers) if entry.id == id), None)
    if layer is None:
        return np.ones(grid.shape, np.float32)
    below, known = planner.under(surface, id, grid)
    cover = planner.coverage(layer, below, grid, known)
    return np.ones(grid.shape, np.float32) if cover is None else run.value(cover)


def winner_codes(surface: Surface, top: AnyArray, maps: MapSet, light: Light) -> AnyArray:
    """Who lies on top: each layer in its hatch's colour, lit by the relief."""
    layers = seated_layers(surface.layers)
    palette = np.full((max(len(layers), int(top.max())) + 1, 3), 0.18, np.float32)
    for number, layer in enumerate(layers, 1):
        ground = hatch_ground(layer.hatch)
        palette[number] = decode_srgb(np.array([int(ground[k : k + 2], 16) / 255 for k in (1, 3, 5)]))
    one = np.ones(maps.grid.shape, np.float32)
    return shade(
        np.ascontiguousarray(palette[top]),
        maps[MapKind.NORMAL],
        one,
        0 * one,
        one,
        one,
        light=light,
        sun=0.55,
        sky=0.75,
    )


def reflectance_codes(maps: MapSet) -> AnyArray:
    """Reflectance as heat from dark blue to pale yellow; what no real ground has is hatched."""
    light = luminance(maps[MapKind.BASE_COLOUR])
    table = cv2.applyColorMap(np.arange(256, dtype=np.uint8)[:, None], cv2.COLORMAP_CIVIDIS)[:, 0, ::-1]
    codes = table[np.rint(np.clip(np.sqrt(light), 0, 1) * 255).astype(np.uint8)]
    low, high = PLAUSIBLE_LINEAR
    metal = maps.or_default(MapKind.METALNESS) > 0.5
    odd = np.where(metal, light < 0.2, (light < low) | (light > high))
    rows, columns = np.indices(light.shape)
    stripes = (rows + columns) // 4 % 2 == 0
    codes = np.where((odd & stripes)[..., None], np.uint8(255), codes)
    return np.ascontiguousarray(np.where((odd & ~stripes)[..., None], np.uint8(30), codes))


def small_pictures(
    run: Evaluation, planner: Planner, surface: Surface, grid: Grid, *, work: bool = True
) -> dict[str, AnyArray]:
    """Of each layer its colour where it lies, on paper grey elsewhere; of each rule its cover. Without ``work``
    only of what has
    been worked out anyway: a fine grid shows more of a wide sheet, but hidden layers are not made for it.
    """
    thumbs: dict[str, AnyArray] = {}

    def take(id: str, owner: str, plan: Callable[[], Task]) -> None:
        try:
            task = plan()
            if work or all(run.at_hand(wanted) for wanted in task.inputs):
                thumbs[id] = run.value(task)
        except TesselError as error:
            run.faults.setdefault(owner, error)

    for layer, below, known in planner.walk(surface, grid):
        take(
            layer.id,
            layer.id,
            lambda layer=layer, below=below, known=known: layer_picture(planner, layer, below, known, grid),
        )  # type: ignore[misc]
        for rule in layer.where if layer.id in thumbs or not work else ():
            take(
                rule.id,
                layer.id,
                lambda rule=rule, layer=layer, below=below, known=known: rule_picture(
                    planner, rule, layer, below, known, grid
                ),
            )  # type: ignore[misc]
    return thumbs


def rule_picture(planner: Planner, rule: Rule, layer: Layer, below: Task, known: dict[str, Seen], grid: Grid) -> Task:
    """Where a rule puts its layer, small."""
    seen = planner.shaped_rule(rule, below, grid, layer.id, known)
    return Task(task_key("rule picture", seen.key), "Rule", layer.id, _rule_picture, (seen,))


def layer_picture(planner: Planner, layer: Layer, below: Task, known: dict[str, Seen], grid: Grid) -> Task:
    """A layer's small picture: what it shows, where its rules put it."""
    cover = planner.coverage(layer, below, grid, known)
    if isinstance(layer.what, BundleWhat | WaterWhat | PaintedWhat):
        look = planner.joined(msgspec.structs.replace(layer, where=(), shown=True), below, grid, dict(known))
    else:
        look = planner.layer_maps(layer, grid, below)
    inputs = (look,) if cover is None else (look, cover)
    return Task(task_key("layer picture", *(task.key for task in inputs)), layer.name, layer.id, _layer_picture, inputs)


def _rule_picture(seen: Raster) -> AnyArray:
    side = min(seen.shape)
    small = cv2.resize(np.ascontiguousarray(seen[:side, :side]), (THUMB * 2, THUMB * 2), interpolation=cv2.INTER_AREA)
    return _grey(np.asarray(small, np.float32))


def _layer_picture(look: MapSet | Stack, *cover: Raster) -> AnyArray:
    maps = look.map_set() if isinstance(look, Stack) else look
    side = min(maps.grid.shape)

    def small(pixels: Raster) -> AnyArray:
        cut = np.ascontiguousarray(pixels[:side, :side], np.float32)
        return np.asarray(cv2.resize(cut, (THUMB * 2, THUMB * 2), interpolation=cv2.INTER_AREA))

    lies = small(cover[0]) if cover else np.ones((THUMB * 2, THUMB * 2), np.float32)
    if MapKind.OPACITY in maps:
        lies = lies * small(maps[MapKind.OPACITY])
    mixed = small(maps.or_default(MapKind.BASE_COLOUR)) * lies[..., None] + np.float32(0.72) * (1 - lies[..., None])
    return display_codes(np.asarray(mixed, np.float32))
