"""Ways to make a straight sheet close on itself, each declared once.

A way has two halves: ``find`` looks at the sheet at one fixed size, so the answer is the same at every
resolution, and ``apply`` carries it out on all maps at the size that is asked for.
"""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Annotated, Any

import cv2
import numpy as np

from ..colour import encode_srgb, luminance
from ..errors import DoesNotCloseError, OutOfRangeError
from ..job.document import Source
from ..maps import MapKind, MapSet
from ..operation import Angle, Fraction, Length, Seed, Value, Whole, operation
from ..sheet import AnyArray, Grid, Raster
from .break_up import BREAKUPS
from .courses import straightened
from .cut import PATH_PX, Cuts, Pin, apply_cuts, close_maps, find_cuts, paths_on_cell, reduced
from .level import level_maps
from .patches import Outline, Patch, apply_patches, best_place, cut_out
from .regrow import Quilt, apply_quilt, quilt

Values = Mapping[str, Value]
QUILT_PX = 512


def sheet_cuts(
    maps: MapSet,
    *,
    overlap: float,
    colour: float,
    relief: float,
    overlap_up: float = 0.0,
    pins: Sequence[Pin] = (),
    patches: int = 0,
) -> Cuts:
    """The two best cuts through a set of flat maps; ``overlap`` in mm, ``overlap_up`` if it differs.

    ``patches`` of the worst spots along them are then covered from elsewhere.
    """
    grid = maps.grid
    lap_x, lap_y = overlap / grid.width_mm, (overlap_up or overlap) / grid.height_mm
    for lap, length in ((lap_x, grid.width_mm), (lap_y, grid.height_mm)):
        if lap > 0.5:
            raise OutOfRangeError(
                "Overlap",
                value=f"{lap * length:.4g} mm",
                allowed=f"up to {length / 2:g} mm, half the sheet",
                remedy="Choose a smaller overlap, or more periods.",
            )
    pictures, weights = judged(maps, colour=colour, relief=relief)
    cuts = find_cuts(pictures, weights, lap_x, lap_y, pins)
    return cover_worst(cuts, pictures, weights, grid, patches) if patches else cuts


def judged(maps: MapSet, *, colour: float, relief: float) -> tuple[dict[MapKind, Raster], dict[MapKind, float]]:
    """The pictures by which cuts and patches are judged, at the size at which they are found, and their weights."""
    pictures: dict[MapKind, Raster] = {}
    if MapKind.BASE_COLOUR in maps:
        light = reduced(maps[MapKind.BASE_COLOUR])
        pictures[MapKind.BASE_COLOUR] = encode_srgb(np.clip(light, 0, 1)).astype(np.float32)
        relief_map = maps.maps.get(MapKind.HEIGHT)
        pictures[MapKind.HEIGHT] = (
            reduced(relief_map) if relief_map is not None else _detail(pictures[MapKind.BASE_COLOUR])
        )
    elif MapKind.HEIGHT in maps:
        pictures[MapKind.HEIGHT] = reduced(maps[MapKind.HEIGHT])
    return pictures, {MapKind.BASE_COLOUR: max(colour, 1e-3), MapKind.HEIGHT: relief}


def cover_worst(
    cuts: Cuts, pictures: Mapping[MapKind, Raster], weights: Mapping[MapKind, float], grid: Grid, count: int
) -> Cuts:
    """The cuts with patches over the spots where they show most, as long as each is quieter than what it covers."""
    closed = {kind: apply_cuts(pixels, cuts, feather_px=1.0) for kind, pixels in pictures.items()}
    rows, columns = next(iter(closed.values())).shape[:2]
    cell = Grid(columns, rows, grid.width_mm * (1 - cuts.overlap_x), grid.height_mm * (1 - cuts.overlap_y))
    lap = min(cuts.overlap_x * grid.width_mm, cuts.overlap_y * grid.height_mm)
    half = min(max(0.55 * lap, 6 * cell.pitch_mm), 0.2 * min(cell.width_mm, cell.height_mm))
    laid: list[Patch] = []
    for x, y, shows in worst_spots(closed, weights, cuts, cell, count, apart_mm=1.5 * half):
        place = best_place(closed, weights, cell, (x, y), Outline(half, half))
        patch = cut_out(closed, weights, cell, (x, y), place, Outline(half, half))
        if patch.cost < shows:
            laid.append(patch)
    return dataclasses.replace(cuts, patches=tuple(laid))


def worst_spots(
    closed: Mapping[MapKind, Raster],
    weights: Mapping[MapKind, float],
    cuts: Cuts,
    cell: Grid,
    count: int,
    *,
    apart_mm: float,
) -> list[tuple[float, float, float]]:
    """Where the closed sheet's cuts show most: x and y in mm from left and top, and by how much."""
    path_x, path_y = paths_on_cell(cuts, cell.height_px, cell.width_px)
    found = []
    for axis, path in ((1, path_x), (0, path_y)):
        length = cell.shape[axis]
        at = np.clip(np.round(path * length).astype(int), 1, length - 1)
        index = np.arange(len(at))
        shows = np.zeros(len(at))
        for kind, pixels in closed.items():
            before, after, rough = _across_path(pixels, axis, at, index)
            shows += weights.get(kind, 0.0) * ((before - after) ** 2 / (rough + 1e-9)).sum(1)
        broad = cv2.blur(shows[:, None], (1, max(3, len(at) // 24)), borderType=cv2.BORDER_REFLECT)[:, 0]
        for i in np.argsort(broad)[::-1][: 64 * count]:
            x, y = (path[i] * cell.width_mm, (i + 0.5) / len(at) * cell.height_mm)
            if axis == 0:
                x, y = (i + 0.5) / len(at) * cell.width_mm, path[i] * cell.height_mm
            found.append((float(x), float(y), float(broad[i])))
    kept: list[tuple[float, float, float]] = []
    for x, y, shows_here in sorted(found, key=lambda spot: -spot[2]):
        if len(kept) < count and all(
            math.hypot(_wrapped(x - a, cell.width_mm), _wrapped(y - b, cell.height_mm)) > apart_mm for a, b, _ in kept
        ):
            kept.append((x, y, shows_here))
    return kept


def _across_path(pixels: Raster, axis: int, at: AnyArray, index: AnyArray) -> tuple[AnyArray, AnyArray, AnyArray]:
    """Pixels just before and after a path, and how rough the sheet is beside it; (n, C)."""
    lines = pixels if axis == 1 else pixels.swapaxes(0, 1)
    lines = lines.reshape(*lines.shape[:2], -1)
    width = lines.shape[1]
    before, after = lines[index, at - 1], lines[index, at]
    further, beyond = lines[index, (at - 4) % width], lines[index, (at + 3) % width]
    own = np.abs(before - further) / 3 + np.abs(after - beyond) / 3
    return before, after, own**2 + 0.5 * float((own**2).mean())


def _wrapped(distance: float, length: float) -> float:
    return (distance + length / 2) % length - length / 2


def _detail(encoded: Raster) -> Raster:
    """Stand-in for relief where a sheet has none: its brightness."""
    return luminance(encoded)


@dataclass(frozen=True, slots=True)
class Method:
    """One way to make a repeat.

    ``note`` says in a few words when to take it; ``closed`` gives the repeat in mm of a sheet in mm;
    ``find`` looks at the flat sheet at ``find_px`` pixels and depends on the values in ``found_by`` only.
    """

    note: str
    closed: Callable[[Values, float, float], tuple[float, float]]
    find: Callable[[MapSet, Values, Sequence[Pin]], Any]
    apply: Callable[[MapSet, Any, Values], MapSet]
    found_by: tuple[str, ...]
    find_px: int = PATH_PX


def _number(values: Values, name: str) -> float:
    return float(values[name])


def _find_best_cut(flat: MapSet, values: Values, pins: Sequence[Pin]) -> Cuts:
    return sheet_cuts(
        flat,
        overlap=_number(values, "overlap"),
        colour=_number(values, "colour"),
        relief=_number(values, "relief"),
        pins=pins,
        patches=int(values["patches"]),
    )


def _apply_cut(flat: MapSet, cuts: Cuts, values: Values) -> MapSet:
    soften = _number(values, "soften")
    return apply_patches(
        close_maps(flat, cuts, feather_mm=soften, match_tone=_number(values, "match_tone")),
        cuts.patches,
        feather_mm=soften,
    )


@operation("mend.best_cut", label="Best cut")
def best_cut(
    grid: Grid,
    maps: MapSet,
    *,
    overlap: Annotated[
        float, Length(5, 300, log=True, least=0.1, help="Width in which the sheet's two sides lie over each other.")
    ] = 48.0,
    soften: Annotated[
        float, Length(0, 20, least=0, most=200, help="Width over which the two sides mix at the cut.")
    ] = 1.5,
    match_tone: Annotated[
        float, Fraction(help="How much of the slow difference between the sides is taken out.")
    ] = 0.8,
    colour: Annotated[float, Fraction(help="How much colour counts when the cut is judged.")] = 0.6,
    relief: Annotated[float, Fraction(help="How much relief counts when the cut is judged.")] = 0.4,
    patches: Annotated[
        int,
        Whole(
            0,
            12,
            most=40,
            unit="×",
            help="How many of the worst spots along the cuts are covered from elsewhere in the sheet.",
        ),
    ] = 0,
) -> MapSet:
    """Follows gaps between stones: the sheet closes along the paths where its sides differ least.

    The repeat is smaller than the sheet by the overlap, both ways. All maps share the cut.
    """
    return run_method("mend.best_cut", maps, locals())


@operation("mend.level", label="Level")
def level(grid: Grid, maps: MapSet) -> MapSet:
    """Only tone differs at the edges: the smooth part of the edges' jumps is taken out, nothing is cut.

    The repeat is the whole sheet. Moisan 2011; see :mod:`.level`.
    """
    return level_maps(maps)


@operation("mend.regrow", label="Regrow")
def regrow(
    grid: Grid,
    maps: MapSet,
    *,
    width: Annotated[float, Length(50, 5000, log=True, least=1, help="Width of the new sheet.")] = 600.0,
    height: Annotated[float, Length(50, 5000, log=True, least=1, help="Height of the new sheet.")] = 600.0,
    block: Annotated[
        float,
        Length(
            5,
            500,
            log=True,
            least=0.5,
            help="Size of the patches: larger than the largest thing that should stay whole.",
        ),
    ] = 120.0,
    overlap: Annotated[
        float, Length(1, 200, log=True, least=0.2, help="Width in which patches lie over each other and are cut.")
    ] = 30.0,
    seed: Annotated[int, Seed()] = 1,
) -> MapSet:
    """A new sheet of any size from patches of this one, laid so that it wraps. All maps move together.

    Efros and Freeman 2001; see :mod:`.regrow`.
    """
    return run_method("mend.regrow", maps, locals())


@operation("mend.courses", label="Whole courses")
def courses(
    grid: Grid,
    maps: MapSet,
    *,
    period_across: Annotated[
        float,
        Length(
            5,
            2000,
            log=True,
            least=0.5,
            help="After how much along a row the pattern is itself again; found by the button.",
        ),
    ] = 225.0,
    period_up: Annotated[
        float,
        Length(
            5,
            2000,
            log=True,
            least=0.5,
            help="After how much up the wall the pattern is itself again, such as two courses of half bond.",
        ),
    ] = 150.0,
    across: Annotated[
        int, Whole(0, 40, most=400, unit="×", help="Whole periods along the rows; 0 leaves this way to a free cut.")
    ] = 1,
    up: Annotated[
        int, Whole(0, 40, most=400, unit="×", help="Whole periods up the wall; 0 leaves this way to a free cut.")
    ] = 1,
    turn: Annotated[float, Angle(-15, 15, help="How far the rows are turned on the photo; taken out.")] = 0.0,
    lean: Annotated[float, Angle(-15, 15, help="How far the uprights lean on the photo; taken out.")] = 0.0,
    soften: Annotated[
        float, Length(0, 20, least=0, most=200, help="Width over which the two sides mix at the cut.")
    ] = 1.5,
    match_tone: Annotated[
        float, Fraction(help="How much of the slow difference between the sides is taken out.")
    ] = 0.8,
) -> MapSet:
    """Finds the beat of a regular pattern and cuts to whole units of it.

    What the sheet has beyond the whole periods is the overlap, so both sides are in step where the best
    cut is made between them.
    """
    return run_method("mend.courses", maps, locals())


def _find_courses(flat: MapSet, values: Values, pins: Sequence[Pin]) -> Cuts:
    grid = flat.grid
    width, height = _closed_courses(values, grid.width_mm, grid.height_mm)
    overlaps = grid.width_mm - width, grid.height_mm - height
    for name, surplus, length in (("Across", overlaps[0], grid.width_mm), ("Up", overlaps[1], grid.height_mm)):
        if surplus < 0.01 * length:
            raise DoesNotCloseError(
                name,
                value=f"{int(values[name.lower()])} ×",
                allowed="so many periods that some of the sheet is left to overlap",
                remedy="Take one period less.",
            )
    return sheet_cuts(
        level_rows(flat, values), overlap=overlaps[0], overlap_up=overlaps[1], colour=0.6, relief=0.4, pins=pins
    )


def level_rows(flat: MapSet, values: Values) -> MapSet:
    """All maps with their rows level and uprights plumb, as the values of whole courses say."""
    turn, lean = _number(values, "turn"), _number(values, "lean")
    return MapSet(flat.grid, {k: straightened(p, flat.grid, turn=turn, lean=lean) for k, p in flat.maps.items()})


FREE_OVERLAP = 0.15


def _closed_courses(values: Values, width: float, height: float) -> tuple[float, float]:
    closed = []
    for count, period, length in (("across", "period_across", width), ("up", "period_up", height)):
        whole = int(values[count])
        closed.append(round(whole * _number(values, period) if whole else (1 - FREE_OVERLAP) * length, 4))
    return closed[0], closed[1]


def _find_quilt(flat: MapSet, values: Values, pins: Sequence[Pin] = ()) -> Quilt:
    grid = flat.grid
    pitch = grid.pitch_mm
    encoded = encode_srgb(np.clip(flat[MapKind.BASE_COLOUR], 0, 1)).astype(np.float32)
    across, down = grid.mm_per_px
    shape = max(4, round(_number(values, "height") / down)), max(4, round(_number(values, "width") / across))
    if max(shape) > 4096:
        raise OutOfRangeError(
            "Width",
            value=f"{_number(values, 'width'):g} mm",
            allowed=f"up to {4096 * pitch:.0f} mm from this sample",
            remedy="Choose a smaller sheet.",
        )
    overlap = max(3, round(_number(values, "overlap") / pitch))
    block = min(max(2 * overlap + 2, round(_number(values, "block") / pitch)), min(encoded.shape[:2]) - 1, min(shape))
    return quilt(encoded, shape, block=block, overlap=min(overlap, (block - 1) // 2), seed=int(values["seed"]))


def _apply_quilt(flat: MapSet, found: Quilt, values: Values) -> MapSet:
    across, down = flat.grid.mm_per_px
    width, height = _number(values, "width"), _number(values, "height")
    return apply_quilt(flat, found, Grid(max(4, round(width / across)), max(4, round(height / down)), width, height))


METHODS: dict[str, Method] = {
    "mend.best_cut": Method(
        "follows gaps between stones",
        lambda v, w, h: (w - _number(v, "overlap"), h - _number(v, "overlap")),
        _find_best_cut,
        _apply_cut,
        ("overlap", "colour", "relief", "patches"),
    ),
    "mend.level": Method(
        "only tone differs at the edges",
        lambda v, w, h: (w, h),
        lambda flat, v, pins: None,
        lambda flat, found, v: level_maps(flat),
        (),
    ),
    "mend.regrow": Method(
        "new sheet from samples of this one",
        lambda v, w, h: (_number(v, "width"), _number(v, "height")),
        _find_quilt,
        _apply_quilt,
        ("width", "height", "block", "overlap", "seed"),
        QUILT_PX,
    ),
    "mend.courses": Method(
        "finds the beat of a regular pattern",
        _closed_courses,
        _find_courses,
        lambda flat, found, v: _apply_cut(level_rows(flat, v), found, v),
        ("period_across", "period_up", "across", "up", "turn", "lean"),
    ),
}


def run_method(op: str, maps: MapSet, values: Values) -> MapSet:
    """Find and apply in one go, at the size the maps have."""
    method = METHODS[op]
    return method.apply(maps, method.find(maps, values, ()), values)


def closed_size(source: Source) -> tuple[float, float]:
    """The repeat of a source in mm, as its way of mending leaves it; 0 while it has no size."""
    width, height = mended_size(source)
    across, up = BREAKUPS[source.breakup.op](source.breakup.complete()) if source.breakup.op in BREAKUPS else (1, 1)
    return width * across, height * up


def mended_size(source: Source) -> tuple[float, float]:
    """One cell of a source in mm, before its repeat is broken; 0 while it has no size."""
    method = METHODS.get(source.mend.op)
    if not source.sized or method is None:
        return 0.0, 0.0
    width, height = source.sheet_mm
    return (width, height) if source.scatter is not None else method.closed(source.mend.complete(), width, height)
