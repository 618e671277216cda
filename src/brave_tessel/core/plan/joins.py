"""What the tasks of a build-up do once their inputs are there."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import numpy as np

from ..buildup.painted import Known, height_at_start
from ..buildup.painted import paint_on as paint_strokes
from ..buildup.seat import lay, seat_of
from ..buildup.seat import own_relief as relief_of
from ..buildup.stack import Stack
from ..buildup.tone import match
from ..buildup.water import Standing, seen_wet
from ..buildup.water import rippled as rippled_surface
from ..buildup.water import stand as stand_in
from ..job.layers import Layer, MapMix, Stroke
from ..job.nodes import Setting
from ..kernels.relief import cast_shadow, normal_of_height, occlusion, shadow_reach_px
from ..light.directions import Light
from ..light.lighting import Lighting, light_flat
from ..maps import BLENDED, WET, MapKind, MapSet
from ..operation import find
from ..relief.curvature import curvature as curvature_of
from ..sheet import AnyArray, Grid, Raster
from .area import Area
from .where import as_tip

Names = tuple[str, ...]
RIPPLES = ("level", "ripple", "ripple_size", "seed")
"""The values of standing water that its surface depends on."""


def weigh(*cover: Raster, weight: float, grid: Grid) -> Raster:
    """A coverage (H, W) times a weight; the weight alone where there is none."""
    return np.full(grid.shape, weight, np.float32) if not cover else cover[0] * np.float32(weight)


def both(cover: Raster, within: Raster) -> Raster:
    """Where both coverages (H, W) let something lie."""
    return cover * within


def toned(maps: MapSet, below: Stack, *, layer: Layer) -> MapSet:
    """A layer's maps with its colour brought towards the tone of what lies beneath (:func:`tone.match`)."""
    if MapKind.BASE_COLOUR not in maps or not below.layers:
        return maps
    tone = find("tone.match").bind(layer.tone.values)
    return maps.with_maps(
        base_colour=match(below.grid, np.ascontiguousarray(maps[MapKind.BASE_COLOUR]), below.planes[0], **tone)
    )


def own_relief(maps: MapSet, *, layer: Layer) -> Raster:
    """A layer's relief (H, W) in mm as its seat weighs it, before its level."""
    seat = seat_of(layer.seat)
    return relief_of(np.ascontiguousarray(maps.or_default(MapKind.HEIGHT), np.float32), seat, maps.grid)


def seat(below: Stack, maps: MapSet, *given: Raster, names: Names, layer: Layer, painted: float = 1.0) -> Stack:
    """One layer joined; ``names`` says which of "cover" and "relief" (the layer's own) are given."""
    said = dict(zip(names, given, strict=True))
    where, relief = said.get("cover"), said.get("relief")
    mixes = {kind: layer.mix(kind) for kind in BLENDED}
    cut_out = mixes[MapKind.OPACITY].strength
    if MapKind.OPACITY in maps and cut_out > 0:
        # What is cut out of a source lies nowhere.
        opacity = maps[MapKind.OPACITY] if cut_out == 1 else 1 - np.float32(cut_out) * (1 - maps[MapKind.OPACITY])
        where = opacity if where is None else where * opacity
    if painted != 1:
        for kind in (MapKind.BASE_COLOUR, MapKind.ROUGHNESS):
            mixes[kind] = MapMix(mode=mixes[kind].mode, strength=mixes[kind].strength * painted)
    return lay(below, maps, where, mixes, seat_of(layer.seat), relief)


def rippled(grid: Grid, *, water: Setting) -> Raster:
    """The surface (H, W) in mm of a layer's standing water."""
    return rippled_surface(grid, _standing(water))


def stand(below: Stack, surface: Raster, *cover: Raster, water: Setting) -> Stack:
    """A stack with a layer's water standing in it."""
    return stand_in(below, _standing(water), cover[0] if cover else None, surface)


def _standing(water: Setting) -> Standing:
    made = water.operation.run(**water.bound())
    assert isinstance(made, Standing)
    return made


def stroke_start(under: Stack, *, stroke: Stroke) -> float:
    """The height in mm that a flattening stroke goes to."""
    return height_at_start(under.height, stroke, under.grid)


def paint_on(
    below: Stack,
    *given: Any,
    names: Names,
    layer: Layer,
    strokes: tuple[Stroke, ...],
    goes_on: bool,
    area: Area | None = None,
) -> Stack:
    """Strokes on a stack; ``goes_on`` with a layer of which earlier strokes are laid already. ``names`` says what is
    given: "cover", "flat" (the height to flatten to) or the name of a tip's picture.
    """
    said = dict(zip(names, given, strict=True))
    cover, flat = said.pop("cover", None), said.pop("flat", None)
    known = Known({tip: as_tip(picture) for tip, picture in said.items()}, area, flat)
    after = paint_strokes(below, strokes, cover, {kind: layer.mix(kind) for kind in BLENDED}, known)
    if not goes_on:
        return after
    top = np.where(after.top == after.layers, np.uint8(below.layers), after.top).astype(np.uint8)
    return replace(after, layers=below.layers, top=top, share=np.maximum(after.share, below.share))


def bundled(*stacks: Stack, grid: Grid) -> MapSet:
    """A closed bundle's joined maps; opacity is where any of its layers lies."""
    if not stacks:
        return MapSet(grid, {MapKind.OPACITY: np.zeros(grid.shape, np.float32)})
    open_ = np.ones(grid.shape, np.float32)
    for stack in stacks:
        open_ *= 1 - stack.share
    last = stacks[-1]
    if last.water is not None:
        # What leaves the bundle is a finished layer: it is not wetted again where it is laid.
        maps = _without_water(seen(last, last.map_set()))
    elif last.detail is not None:
        maps = last.map_set().with_maps(normal=normal_of_height(last.height, grid, last.detail))
    else:
        maps = last.map_set()
    maps = maps.with_maps(opacity=1 - open_)
    return maps if last.shade is None else maps.with_maps(ambient_occlusion=last.shade)


OCCLUSION_REACH_MM = 12.0


def open_sky(moulded: Stack) -> Raster:
    """Occlusion (H, W) of a stack's relief."""
    return occlusion(moulded.height, moulded.grid, reach_mm=OCCLUSION_REACH_MM)


def faces(moulded: Stack) -> Raster:
    """Normals (H, W, 3) of a stack's relief with what layers brought of their own."""
    return normal_of_height(moulded.height, moulded.grid, moulded.detail)


def finish(stack: Stack, sky: Raster | None = None, normal: Raster | None = None, *, cut_out: bool = False) -> MapSet:
    """Every map of a stack: normals and occlusion of its joined relief, with what layers brought of their own. ``sky``
    and ``normal`` are those of its relief (:func:`open_sky`, :func:`faces`) where they are known already.
    """
    sky = open_sky(stack) if sky is None else sky
    whole = stack.map_set()
    if cut_out:
        opacity = np.ones_like(stack.height) if stack.open is None else 1 - stack.open
        whole = whole.with_maps(opacity=opacity)
    return seen(stack, whole, normal).with_maps(
        # A layer's own occlusion repeats what its relief says: the darker of both counts.
        ambient_occlusion=sky if stack.shade is None else np.minimum(sky, stack.shade)
    )


def seen(stack: Stack, maps: MapSet, normal: Raster | None = None) -> MapSet:
    """A stack's maps with their normals, and with the water that stands on it."""
    if stack.water is None:
        return maps.with_maps(normal=faces(stack) if normal is None else normal)
    face = normal_of_height(stack.height, stack.grid)
    beneath = normal_of_height(np.ascontiguousarray(stack.height - stack.water.depth), stack.grid, stack.detail)
    return seen_wet(maps, stack.water, ground=beneath, surface=face)


def _without_water(maps: MapSet) -> MapSet:
    return MapSet(maps.grid, {kind: pixels for kind, pixels in maps.maps.items() if kind not in WET})


CURVATURE_MM = 2.0


def curvature(done: MapSet) -> Raster:
    """Curvature (H, W) in [0, 1] of a finished set, one half where it is flat."""
    return curvature_of(done[MapKind.HEIGHT], done.grid, radius_mm=CURVATURE_MM)


def span(stack: Stack) -> tuple[float, float]:
    """The lowest and the highest of the relief, mm."""
    return float(stack.height.min()), float(stack.height.max())


def shadow_reach(low_high: tuple[float, float], *, light: Light, sheet: Grid) -> int:
    """How far a pixel's shadow may come from, pixels."""
    return math.ceil(shadow_reach_px(low_high[1] - low_high[0], sheet, light)) + 1


def shadow(stack: Stack, low_high: tuple[float, float], *, light: Light, radius: float, sheet: Grid) -> Raster:
    """``sheet`` is the whole sheet's grid, also where the stack is a part of it."""
    furthest = shadow_reach_px(low_high[1] - low_high[0], sheet, light)
    return cast_shadow(stack.height, stack.grid, light, furthest=furthest, radius=radius)


def lit(done: MapSet, sunlit: Raster, *, lighting: Lighting, sheet: Grid, origin: tuple[int, int]) -> AnyArray:
    """The lit picture (H, W, 3) of a finished set, sRGB codes."""
    return light_flat(done, sunlit, lighting, sheet=sheet, origin=origin)
