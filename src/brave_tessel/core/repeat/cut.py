"""Best cut: a sheet closes on itself along the path where its two sides differ least.

Minimum-error boundary cut by dynamic programming (Efros and Freeman 2001, section 2.1), one axis
after the other. The second path closes on itself, so the two cuts cross cleanly.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import cv2
import numpy as np
import numpy.typing as npt

from ..kernels.compiled import compiled
from ..kernels.unit_vectors import to_unit
from ..maps import TRAITS, MapKind, MapSet
from ..sheet import Grid, Raster
from .bed_joints import Joints
from .tone import add_levelling, levelling

PATH_PX = 1024
"""The path is found at this many pixels across at most, so it is the same at every size."""


Pin = tuple[str, float, float]
"""A point a cut must pass: x or y, how far along the cut and how far across the overlap, as shares."""


@dataclass(frozen=True, slots=True)
class Cuts:
    """Two paths through the overlaps, as fractions of the overlap, and the share of the sheet they lie in.

    ``x[i]`` is where the upright cut lies in the overlap at row ``i`` of the full sheet; ``y[j]`` where
    the level cut lies at column ``j`` of the sheet already closed across. (n,) float32 in [0, 1].
    ``patches`` replace the worst spots of the closed sheet; see :mod:`.patches`.
    """

    x: npt.NDArray[np.float32]
    y: npt.NDArray[np.float32]
    overlap_x: float
    overlap_y: float
    patches: tuple[Any, ...] = ()

    @property
    def nbytes(self) -> int:
        """Bytes of its paths, for the cache."""
        return int(self.x.nbytes + self.y.nbytes + sum(patch.nbytes for patch in self.patches))


@compiled
def _summed(total: npt.NDArray[np.float64]) -> None:
    """Adds to each element the cheapest way to it from above, in place."""
    rows, columns = total.shape
    for r in range(1, rows):
        for c in range(columns):
            least = total[r - 1, c]
            if c > 0 and total[r - 1, c - 1] < least:
                least = total[r - 1, c - 1]
            if c + 1 < columns and total[r - 1, c + 1] < least:
                least = total[r - 1, c + 1]
            total[r, c] += least


@compiled
def _least_path(cost: npt.NDArray[np.float64], first: int) -> npt.NDArray[np.int32]:
    """Column of the cheapest 8-connected path down the rows; ``first`` ≥ 0 pins both ends."""
    rows, columns = cost.shape
    total = cost.copy()
    if first >= 0:
        for c in range(columns):
            if c != first:
                total[0, c] = 1e18
    _summed(total)
    path = np.empty(rows, np.int32)
    at = first if first >= 0 else int(np.argmin(total[rows - 1]))
    path[rows - 1] = at
    for r in range(rows - 2, -1, -1):
        low, high = max(0, at - 1), min(columns - 1, at + 1)
        at = low
        for c in range(low, high + 1):
            if total[r, c] < total[r, at]:
                at = c
        path[r] = at
    return path


@compiled
def _along_row(total: npt.NDArray[np.float64], cost: npt.NDArray[np.float64], came: npt.NDArray[np.int32]) -> None:
    """Ways to each element of a row from others of it, in place; ``came`` is where such a way entered the row."""
    columns = total.size
    for c in range(columns):
        came[c] = c
    for c in range(1, columns):
        if total[c - 1] + cost[c] < total[c]:
            total[c], came[c] = total[c - 1] + cost[c], came[c - 1]
    for c in range(columns - 2, -1, -1):
        if total[c + 1] + cost[c] < total[c]:
            total[c], came[c] = total[c + 1] + cost[c], came[c + 1]


@compiled
def _least_path_aside(cost: npt.NDArray[np.float64], aside: float, first: int) -> npt.NDArray[np.int32]:
    """As :func:`_least_path`, but along a row it may go on too, at ``aside`` times the cost; its column is the one in
    which it leaves the row.
    """
    rows, columns = cost.shape
    total = cost.copy()
    if first >= 0:
        for c in range(columns):
            if c != first:
                total[0, c] = 1e18
    came = np.empty((rows, columns), np.int32)
    for r in range(rows):
        if r > 0:
            _summed(total[r - 1 : r + 1])
        _along_row(total[r], aside * cost[r], came[r])
    path = np.empty(rows, np.int32)
    at = first if first >= 0 else int(np.argmin(total[rows - 1]))
    for r in range(rows - 1, -1, -1):
        path[r] = at
        if r > 0:
            low = max(0, came[r, at] - 1)
            at = low + int(np.argmin(total[r - 1, low : min(columns, came[r, at] + 2)]))
    return path


def least_path(cost: npt.NDArray[np.float64], *, closed: bool = False, aside: float = 0.0) -> npt.NDArray[np.int32]:
    """Cheapest path down the rows of a cost picture; ``closed`` makes it end where it began. With ``aside`` it may go
    along a row as well, at so many times the cost.
    """

    def find(picture: npt.NDArray[np.float64], first: int) -> npt.NDArray[np.int32]:
        path = _least_path_aside(picture, aside, first) if aside else _least_path(picture, first)
        return np.asarray(path, np.int32)

    if not closed:
        return find(cost, -1)
    rows = cost.shape[0]
    # Three times round, the middle lap has forgotten its ends: it tells where the closed path passes.
    lap = find(np.concatenate([cost, cost, cost]), -1)
    return find(cost, int(lap[rows]))


def _own_steps(strip: Raster) -> Raster:
    """How rough a strip is by itself, per pixel: its steps across and down."""
    across = np.abs(np.diff(strip, axis=1, append=strip[:, -1:]))
    return np.asarray(across + np.abs(np.diff(strip, axis=0, append=strip[-1:])), np.float32)


def _difference(first: Raster, second: Raster) -> npt.NDArray[np.float64]:
    """Squared difference of two strips over their own roughness, per pixel (Kwatra et al. 2003, 3.1).

    A cut is hidden where the sheet is rough anyway, so it costs less there.
    """
    rough = _own_steps(first) ** 2 + _own_steps(second) ** 2
    cost = (first - second) ** 2 / (rough + 0.5 * float(rough.mean()) + 1e-9)
    return np.asarray(cost if cost.ndim == 2 else cost.sum(2), np.float64)


def find_cuts(
    maps: Mapping[MapKind, Raster],
    weights: Mapping[MapKind, float],
    overlap_x: float,
    overlap_y: float,
    pins: Sequence[Pin] = (),
    joints: tuple[Joints | None, Joints | None] = (None, None),
) -> Cuts:
    """Paths for a set of maps of one size; overlaps are fractions of the sheet's width and height.

    Each map's difference counts by its weight, relative to the map's own roughness. The paths pass the
    pins, as far as a path may be bent from row to row. ``joints`` are those of the
    rows through which the upright cut, and of those through which the level cut (turned) goes from joint to joint.
    """
    shared = {kind: reduced(pixels) for kind, pixels in maps.items() if weights.get(kind, 0) > 0}
    height, width = next(iter(shared.values())).shape[:2]
    lap = max(2, round(width * overlap_x))
    cost = _weighted({k: (p[:, width - lap :], p[:, :lap]) for k, p in shared.items()}, weights)
    aside = 0.0
    if joints[0] is not None:
        cost, aside = _from_joint_to_joint(cost, joints[0], lap), _ASIDE
    _pin(cost, [pin for pin in pins if pin[0] == "x"])
    x = (least_path(cost, aside=aside).astype(np.float32) + 0.5) / lap
    closed = {kind: _close(pixels, x, overlap_x, 0.0) for kind, pixels in shared.items()}
    lap = max(2, round(height * overlap_y))
    cost = _weighted({k: (p[height - lap :], p[:lap]) for k, p in closed.items()}, weights)
    turned, aside = np.ascontiguousarray(cost.T), 0.0
    if joints[1] is not None:
        share = _close(np.ascontiguousarray(joints[1].share.T), x, overlap_x, 0.0)
        turned = _from_joint_to_joint(turned, replace(joints[1], share=np.ascontiguousarray(share.T)), lap)
        aside = _ASIDE
    _pin(turned, [pin for pin in pins if pin[0] == "y"])
    y = (least_path(turned, closed=True, aside=aside).astype(np.float32) + 0.5) / lap
    return Cuts(x, y, overlap_x, overlap_y)


_ASIDE = 0.3
_WITHIN_UNIT = 6.0
"""What it costs to cut through a unit, times the usual difference of the sides, and to go along a joint between rows,
times the difference there.
"""


def _from_joint_to_joint(cost: npt.NDArray[np.float64], joints: Joints, lap: int) -> npt.NDArray[np.float64]:
    """The cost of a path down an overlap that keeps to whole joints of either side."""
    width = joints.share.shape[1]
    joint = joints.passed(slice(width - lap, width), slice(0, lap)).astype(np.float64)
    usual = float(np.median(cost))
    return np.asarray(cost * (1 - 0.8 * joint) + _WITHIN_UNIT * usual * (1 - joint) ** 2)


def path_cost(maps: Mapping[MapKind, Raster], weights: Mapping[MapKind, float], overlap: float, *, axis: int) -> float:
    """How much the sides across x (``axis`` 1) or y (0) differ along the cheapest path through an overlap, per pixel;
    ``overlap`` is a share of the width (height).
    """
    seen = {kind: pixels if axis == 1 else pixels.swapaxes(0, 1) for kind, pixels in maps.items()}
    width = next(iter(seen.values())).shape[1]
    lap = max(2, round(width * overlap))
    cost = _weighted({kind: (p[:, width - lap :], p[:, :lap]) for kind, p in seen.items()}, weights)
    path = least_path(np.ascontiguousarray(cost))
    return float(cost[np.arange(len(path)), path].mean())


def _pin(cost: npt.NDArray[np.float64], pins: Sequence[Pin]) -> None:
    """Make every way past a pin dear, but through it."""
    rows, lap = cost.shape
    for _, along, across in pins:
        row, column = min(rows - 1, int(along * rows)), min(lap - 1, max(0, int(across * lap)))
        cost[row] += 1e11 * (np.arange(lap) != column)


def reduced(pixels: Raster) -> Raster:
    """A map at the size at which paths are found."""
    longer = max(pixels.shape[:2])
    if longer <= PATH_PX:
        return pixels
    size = (round(pixels.shape[1] * PATH_PX / longer), round(pixels.shape[0] * PATH_PX / longer))
    return np.asarray(cv2.resize(pixels, size, interpolation=cv2.INTER_AREA), np.float32)


def _weighted(
    strips: Mapping[MapKind, tuple[Raster, Raster]], weights: Mapping[MapKind, float]
) -> npt.NDArray[np.float64]:
    cost: npt.NDArray[np.float64] | None = None
    for kind, (first, second) in strips.items():
        part = _difference(first, second) * weights[kind]
        cost = part if cost is None else cost + part
    assert cost is not None
    return _keep_inside(cost + 1e-6)


def _keep_inside(cost: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
    """Keep the path off the overlap's rims, where feathering would reach past them."""
    down, across = cost.shape
    if down > across:
        margin = max(1, across // 12)
        cost[:, :margin] += 1e9
        cost[:, -margin:] += 1e9
    else:
        margin = max(1, down // 12)
        cost[:margin] += 1e9
        cost[-margin:] += 1e9
    return cost


def _ramp(path: npt.NDArray[np.float32], rows: int, lap: int, feather_px: float) -> Raster:
    """How far the near side lies on top, (rows, lap): 0 before the path, 1 after it, feathered between."""
    beside = (np.arange(rows) + 0.5) / rows * path.size - 0.5
    at = np.interp(beside, np.arange(path.size), path) * lap
    away = (np.arange(lap) + 0.5)[None, :] - at[:, None]
    ramp = np.clip(away / max(feather_px, 1.0) + 0.5, 0, 1).astype(np.float32)
    return np.asarray(ramp * ramp * (3 - 2 * ramp) if feather_px > 1 else ramp)


def _close(
    pixels: Raster,
    path: npt.NDArray[np.float32],
    overlap: float,
    feather_px: float,
    *,
    tone: float = 0.0,
    wraps: bool = False,
    axis: int = 1,
) -> Raster:
    """Lap the far side over the near one along a path; the result is smaller by the overlap along ``axis``.

    ``tone`` is how much of the broad step along the path is taken out; see :mod:`.tone`.
    """
    # Seen so that the path runs down; the memory stays as it lies, so nothing is turned that is large.
    seen = pixels.swapaxes(0, 1) if axis == 0 else pixels
    rows, width = seen.shape[:2]
    lap = max(2, round(width * overlap))
    ramp = _ramp(path, rows, lap, feather_px)
    shared = ramp[..., None] if pixels.ndim == 3 else ramp
    out = np.array(seen[:, : width - lap], np.float32, order="K")
    far, near = seen[:, width - lap :], out[:, :lap]
    near -= far
    near *= shared
    near += far
    out = out.swapaxes(0, 1) if axis == 0 else out
    if tone > 0:
        add_levelling(out, levelling(pixels, path, overlap, tone, wraps=wraps, axis=axis), ramp, axis=axis)
    return out


def close_across(pixels: Raster, cuts: Cuts) -> Raster:
    """One map closed from side to side only, without feather: what the level cut is judged on."""
    return _close(pixels, cuts.x, cuts.overlap_x, 0.0)


def apply_cuts(pixels: Raster, cuts: Cuts, *, feather_px: float, tone: float = 0.0) -> Raster:
    """One map closed both ways along the cuts, feathered over ``feather_px`` pixels."""
    across = _close(pixels, cuts.x, cuts.overlap_x, feather_px, tone=tone)
    return _close(across, cuts.y, cuts.overlap_y, feather_px, tone=tone, wraps=True, axis=0)


def close_maps(maps: MapSet, cuts: Cuts, *, feather_mm: float, match_tone: float) -> MapSet:
    """All maps closed along the same cuts; normals stay unit vectors. The grid loses the overlaps."""
    grid = maps.grid
    done: dict[MapKind, Raster] = {}
    for kind, pixels in maps.maps.items():
        tone = 0.0 if kind in {MapKind.NORMAL, MapKind.OPACITY} else match_tone
        work = apply_cuts(pixels, cuts, feather_px=feather_mm / grid.pitch_mm, tone=tone)
        if kind is MapKind.NORMAL:
            to_unit(work)
        elif TRAITS[kind].colour:
            np.maximum(work, 0, out=work)
        done[kind] = work
    rows, columns = next(iter(done.values())).shape[:2]
    across, down = grid.mm_per_px
    return MapSet(Grid(columns, rows, columns * across, rows * down), done)


def paths_on_cell(cuts: Cuts, rows: int, columns: int) -> tuple[npt.NDArray[np.float64], npt.NDArray[np.float64]]:
    """The two cuts as fractions of the closed cell: upright x (rows,) from the left, level y (columns,) from the
    top.
    """
    lap_x = cuts.overlap_x / (1 - cuts.overlap_x)
    lap_y = cuts.overlap_y / (1 - cuts.overlap_y)
    # A closed cell holds only the upper part of the full sheet's rows.
    full = (np.arange(rows) + 0.5) / rows * (1 - cuts.overlap_y)
    x = np.interp(full * cuts.x.size - 0.5, np.arange(cuts.x.size), cuts.x) * lap_x
    along = (np.arange(columns) + 0.5) / columns
    y = np.interp(along * cuts.y.size - 0.5, np.arange(cuts.y.size), cuts.y, period=cuts.y.size) * lap_y
    return x, y
