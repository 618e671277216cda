"""Work for the worker: one surface for the build board, its layers' and rules' small pictures, who lies on top."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial

import cv2
import msgspec
import numpy as np

from ...core.buildup.hatches import hatch_ground
from ...core.buildup.kind import kind_of
from ...core.buildup.stack import Stack
from ...core.colour import PLAUSIBLE_LINEAR, decode_srgb, display_codes, luminance
from ...core.errors import TesselError
from ...core.job.layers import Layer, Rule, Surface, every_layer
from ...core.kernels.shade import shade
from ...core.light.directions import Light
from ...core.light.lighting import Eye, Lighting, light_flat, shadow_on
from ...core.maps import MapKind, MapSet
from ...core.plan.joins import seen
from ...core.plan.planner import Planner, SurfacePlan, seated_layers
from ...core.plan.protocol import Place
from ...core.plan.tasks import Task, task_key
from ...core.relief.pictures import (
    COVER,
    LINES,
    REFLECTANCE,
    ROUGH,
    VIEWS,
    WINNER,
    height_lines,
    map_codes,
    mip_chain,
    roughness_colours,
)
from ...core.sheet import AnyArray, Grid, Raster
from ...formats.job_file import Preview
from ..cache import LARGE_PX
from ..evaluate import Evaluation
from ..memory import require_room
from ..previews import make_preview
from ..snapshot import Snapshot
from .results import SurfacePicture

Current = Callable[[], bool]
THUMB = 40


FAR = Eye(near=0.0)
"""Far off, so that repeats join; near by, each shows the sky from where it is."""


@dataclass(frozen=True, slots=True)
class Showing:
    """How a surface is shown; a part can be laid into its picture only while that stays."""

    view: str
    px: int
    solo: str = ""
    eye: Eye = FAR

    def at(self, px: int) -> Showing:
        """The same, sampled otherwise."""
        return replace(self, px=px)


def preview_of(snapshot: Snapshot, done: SurfacePicture, showing: Showing) -> Preview | None:
    """What is kept of a picture with the job; None of one that is not the surface as it usually looks."""
    usual = VIEWS[showing.view] is None and not showing.solo
    if not done.fine or not usual or done.faults:
        return None
    return make_preview(snapshot, done.surface, done.mips[0])


def surface_picture(
    snapshot: Snapshot,
    surface: Surface,
    showing: Showing,
    *,
    fine: bool,
    current: Current,
    layer: str = "",
    small: bool = True,
) -> SurfacePicture:
    """One surface for the build board, planned once; ``layer`` is the one whose cover the view may show. Without
    ``small`` the layers' own small pictures are left out, for a hand that is moving.
    """
    begun = time.perf_counter()
    grid = Grid.for_repeat(surface.width_mm, surface.height_mm, showing.px)
    planner, run = snapshot.planner(), _run_on(grid, snapshot, current)
    whole = planner.surface(surface, grid)
    plan = planner.surface(alone(surface, showing.solo), grid) if showing.solo else whole
    lighting = replace(snapshot.lighting(surface.stance, showing.eye), quick=not fine)
    # At once, so that nothing is worked out twice where little can be kept.
    shown = _shown(planner, plan, showing, layer, lighting)
    beds, stack, maps, *seen = run.values(planner.beds_of(plan), plan.stacks[-1], plan.finished, *shown)
    codes = _codes(plan, showing, maps, stack, lighting, *seen)
    for task in plan.stacks:
        # Kept for the next change, as far as there is room.
        run.at_hand(task)
    if VIEWS[showing.view] is MapKind.CURVATURE:
        maps = maps.with_maps(curvature=seen[0])
    thumbs = small_pictures(run, planner, whole, work=not fine) if small else {}
    ms = (time.perf_counter() - begun) * 1000
    return SurfacePicture(
        plan.surface, grid, mip_chain(codes), maps, stack, beds, thumbs, dict(run.faults), ms, fine, snapshot=snapshot
    )


def _run_on(grid: Grid, snapshot: Snapshot, current: Current) -> Evaluation:
    """A run over a surface's plan, sparing where the sheet is large."""
    require_room(grid, spare=snapshot.cache.used)
    run = snapshot.evaluation(current)
    run.sparing = grid.width_px * grid.height_px > LARGE_PX
    if run.sparing:
        snapshot.cache.make_room()
    return run


def all_small_pictures(
    snapshot: Snapshot, surface: Surface, showing: Showing, coarse_px: int, *, current: Current
) -> dict[str, AnyArray]:
    """Those of all layers and rules, as :func:`small_pictures` makes them: of what the fine picture shows, and of what
    is hidden from a coarse one.
    """
    planner, run = snapshot.planner(), snapshot.evaluation(current)
    thumbs: dict[str, AnyArray] = {}
    for px in dict.fromkeys((coarse_px, showing.px)):
        plan = planner.surface(surface, Grid.for_repeat(surface.width_mm, surface.height_mm, px))
        thumbs |= small_pictures(run, planner, plan, work=px == coarse_px)
    return thumbs


def is_known(snapshot: Snapshot, surface: Surface, showing: Showing) -> bool:
    """Whether the picture of a surface is still kept: what is taken back, or was shown before, needs no rough one."""
    if showing.solo or VIEWS[showing.view] is not None:
        return False
    planner = snapshot.planner()
    plan = planner.surface(surface, Grid.for_repeat(surface.width_mm, surface.height_mm, showing.px))
    lit = planner.lit_of(plan, replace(snapshot.lighting(surface.stance, showing.eye), quick=False))
    return snapshot.cache.get(lit.key) is not None


def turned_picture(snapshot: Snapshot, shown: SurfacePicture, showing: Showing) -> SurfacePicture:
    """A surface that is shown already in a light that is being turned: its own maps at half their size, the sky as it
    was last. Quick enough to follow the hand; what comes at rest is exact.
    """
    begun = time.perf_counter()
    lighting = replace(snapshot.lighting(shown.surface.stance, showing.eye), quick=True)
    whole = shown.maps
    rows, columns = ((side + 1) // 2 for side in whole.grid.shape)
    grid = Grid(columns, rows, whole.grid.width_mm, whole.grid.height_mm)
    half = MapSet(grid, {kind: np.ascontiguousarray(pixels[::2, ::2]) for kind, pixels in whole.maps.items()})
    codes = light_flat(half, shadow_on(half, lighting), lighting)
    ms = (time.perf_counter() - begun) * 1000
    return replace(shown, mips=mip_chain(codes), fine=False, ms=ms, snapshot=snapshot)


def _shown(planner: Planner, plan: SurfacePlan, showing: Showing, layer: str, lighting: Lighting) -> tuple[Task, ...]:
    """What the view shows beyond the surface's maps."""
    kind = VIEWS[showing.view]
    if kind is None:
        return (planner.lit_of(plan, lighting),)
    if kind is MapKind.CURVATURE:
        return (planner.curvature_of(plan),)
    planned = plan.of(layer) if showing.view == COVER else None
    if planned is None:
        return ()
    place = planned.place
    cover = planner.coverage(planned.layer, place.below, plan.grid, place.known)
    return () if cover is None else (cover,)


def _codes(
    plan: SurfacePlan, showing: Showing, maps: MapSet, stack: Stack, lighting: Lighting, *seen: AnyArray
) -> AnyArray:
    """What the view shows, (H, W, 3) uint8."""
    kind = VIEWS[showing.view]
    if kind is None:
        return seen[0]
    if showing.view == WINNER:
        return winner_codes(plan.surface, stack.top, maps, lighting.light)
    if showing.view == COVER:
        return _grey(seen[0] if seen else np.ones(plan.grid.shape, np.float32))
    if showing.view == REFLECTANCE:
        return reflectance_codes(maps)
    if showing.view == ROUGH:
        return roughness_colours(maps[MapKind.ROUGHNESS])
    if showing.view == LINES:
        return height_lines(maps[MapKind.HEIGHT])
    assert isinstance(kind, MapKind)
    return map_codes(kind, maps.with_maps(curvature=seen[0]) if seen else maps)


def alone(surface: Surface, id: str) -> Surface:
    """A surface of which only one layer shows, without its rules looking for others."""
    layer = next((entry for entry, _ in every_layer(surface.layers) if entry.id == id), None)
    if layer is None:
        return surface
    return msgspec.structs.replace(surface, layers=(msgspec.structs.replace(layer, shown=True),))


def _grey(values: Raster) -> AnyArray:
    return np.repeat(np.rint(np.clip(values, 0, 1) * 255).astype(np.uint8)[..., None], 3, 2)


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


def small_pictures(run: Evaluation, planner: Planner, plan: SurfacePlan, *, work: bool = True) -> dict[str, AnyArray]:
    """Of each layer its colour where it lies, on paper grey elsewhere; of each rule its cover. Without ``work`` only of
    what has been worked out anyway: a fine grid shows more of a wide sheet, but hidden layers are not made for it.
    """
    thumbs: dict[str, AnyArray] = {}

    def take(id: str, owner: str, make: Callable[[], Task]) -> None:
        try:
            task = make()
            if work or all(run.at_hand(wanted) for wanted in task.inputs):
                thumbs[id] = run.value(task)
        except TesselError as error:
            run.faults.setdefault(owner, error)

    for planned in plan.layers:
        layer = planned.layer
        take(layer.id, layer.id, partial(layer_picture, planner, layer, planned.place))
        for rule in layer.where if layer.id in thumbs or not work else ():
            take(rule.id, layer.id, partial(rule_picture, planner, rule, layer, planned.place))
    return thumbs


def rule_picture(planner: Planner, rule: Rule, layer: Layer, place: Place) -> Task:
    """Where a rule puts its layer, small."""
    seen = planner.shaped_rule(rule, place.below, place.grid, layer.id, place.known)
    return Task(task_key("rule picture", seen.key), "Rule", layer.id, _rule_picture, (seen,))


def layer_picture(planner: Planner, layer: Layer, place: Place) -> Task:
    """A layer's small picture: what it shows, where its rules put it."""
    cover = planner.coverage(layer, place.below, place.grid, place.known)
    alone = replace(place, cover=None, known=dict(place.known))
    look = kind_of(layer.what).picture(planner, layer, alone)
    inputs = (look,) if cover is None else (look, cover)
    key = task_key("layer picture", *(task.key for task in inputs))
    return Task(key, layer.name, layer.id, _layer_picture, inputs)


def _rule_picture(seen: Raster) -> AnyArray:
    side = min(seen.shape)
    small = cv2.resize(np.ascontiguousarray(seen[:side, :side]), (THUMB * 2, THUMB * 2), interpolation=cv2.INTER_AREA)
    return _grey(np.asarray(small, np.float32))


def _layer_picture(look: MapSet | Stack, *cover: Raster) -> AnyArray:
    maps = look.map_set() if isinstance(look, Stack) else look
    if isinstance(look, Stack) and look.water is not None:
        maps = seen(look, maps)
    side = min(maps.grid.shape)

    def small(pixels: Raster) -> AnyArray:
        cut = np.ascontiguousarray(pixels[:side, :side], np.float32)
        return np.asarray(cv2.resize(cut, (THUMB * 2, THUMB * 2), interpolation=cv2.INTER_AREA))

    lies = small(cover[0]) if cover else np.ones((THUMB * 2, THUMB * 2), np.float32)
    if MapKind.OPACITY in maps:
        lies = lies * small(maps[MapKind.OPACITY])
    mixed = small(maps.or_default(MapKind.BASE_COLOUR)) * lies[..., None] + np.float32(0.72) * (1 - lies[..., None])
    return display_codes(np.asarray(mixed, np.float32))
