"""Closed patches: a spot of a wrapped sheet is cut out and replaced from elsewhere in it.

The outline is the closed path around the spot along which both places differ least, found in polar
coordinates by dynamic programming: the optimum that Kwatra et al. 2003 ("Graphcut textures") seek by
maximum flow, for outlines that are stars about their middle, and quick at any size.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt
import scipy.fft

from ..maps import TRAITS, MapKind, MapSet
from ..sheet import AnyArray, Grid, Raster
from .cut import least_path

SEARCH_PX = 256
_TURNS, _RINGS = 256, 64
_MOST_SHIFT = 0.05
"""Of a map's level at the rim: so far a patch is brought to it."""
Pictures = Mapping[MapKind, Raster]
Weights = Mapping[MapKind, float]


@dataclass(frozen=True, slots=True)
class Outline:
    """The region in which a patch's edge may lie: half extents in mm, the share of them where it may begin,
    and the power of the norm: 2 is an ellipse, 8 nearly a rectangle.
    """

    half_width: float
    half_height: float
    inner: float = 0.45
    power: float = 2.0

    def radius(self, x: AnyArray, y: AnyArray) -> npt.NDArray[np.float64]:
        """Distance from the middle in the outline's own norm; 1 on its rim."""
        a, b = np.abs(x) / self.half_width, np.abs(y) / self.half_height
        return np.asarray((a**self.power + b**self.power) ** (1 / self.power))


@dataclass(frozen=True, slots=True)
class Patch:
    """One replaced spot: its middle and the middle of its source, mm from left and top; the cut as
    distances in the outline's norm, one a turn.
    """

    x: float
    y: float
    from_x: float
    from_y: float
    outline: Outline
    cut: npt.NDArray[np.float32]
    cost: float

    @property
    def nbytes(self) -> int:
        """Bytes of its rasters, for the cache."""
        return self.cut.nbytes

    def edge(self) -> list[tuple[float, float]]:
        """Its outline, mm from left and top."""
        turns = (np.arange(_TURNS) + 0.5) / _TURNS * 2 * math.pi
        ux, uy = np.cos(turns), np.sin(turns)
        reach = self.cut / self.outline.radius(ux, uy)
        return [(float(self.x + x), float(self.y + y)) for x, y in zip(ux * reach, uy * reach, strict=True)][::4]


def wrapped_window(pixels: Raster, top: int, left: int, rows: int, columns: int) -> Raster:
    """A window of a wrapped raster, unrolled over its edges."""
    ys, xs = (top + np.arange(rows)) % pixels.shape[0], (left + np.arange(columns)) % pixels.shape[1]
    return np.asarray(pixels[np.ix_(ys, xs)])


def best_place(
    pictures: Pictures,
    weights: Weights,
    grid: Grid,
    spot: tuple[float, float],
    outline: Outline,
    *,
    avoid: Raster | None = None,
    apart: float = 1.3,
    draw: float = 0.0,
    source: Pictures | None = None,
) -> tuple[float, float]:
    """The place of the sheet that agrees best with the rim around a spot, mm from left and top.

    Squared differences on the rim for every shift at once, by FFT. ``avoid`` (h, w) adds to the cost of
    places; ``apart`` keeps the source off the spot, in outlines; ``draw`` in [0, 1) picks among the best tenth. The
    place is looked for in ``source``, another sheet of the same size, where that is given.
    """
    scale = min(1.0, SEARCH_PX / max(grid.shape))
    rows, columns = max(16, round(grid.height_px * scale)), max(16, round(grid.width_px * scale))
    across, down = grid.width_mm / columns, grid.height_mm / rows
    # The spot lies at the origin, so a shift is a distance from it.
    x = (np.arange(columns) + columns // 2) % columns - columns // 2
    y = (np.arange(rows) + rows // 2) % rows - rows // 2
    radius = outline.radius((x * across)[None, :].astype(float), (y * down)[:, None].astype(float))
    ring = ((radius > outline.inner) & (radius <= 1)).astype(np.float64)
    ring_f = scipy.fft.rfft2(ring)
    origin = round(spot[0] / across - 0.5), round(spot[1] / down - 0.5)
    cost = np.zeros((rows, columns))
    for kind, pixels in pictures.items():
        small, here = (
            cv2.resize(one, (columns, rows), interpolation=cv2.INTER_AREA).reshape(rows, columns, -1).astype(float)
            for one in (pixels if source is None else source[kind], pixels)
        )
        mean = small.mean((0, 1))
        small, here = small - mean, here - mean
        scaled = weights.get(kind, 0.0) / max(float(small.var()), 1e-9)
        for k in range(small.shape[2]):
            plane = small[..., k]
            there = np.roll(here[..., k], (-origin[1], -origin[0]), (0, 1)) * ring
            squares = scipy.fft.irfft2(scipy.fft.rfft2(plane**2) * np.conj(ring_f), s=plane.shape)
            product = scipy.fft.irfft2(scipy.fft.rfft2(plane) * np.conj(scipy.fft.rfft2(there)), s=plane.shape)
            cost += scaled * (squares - 2 * product + float((there**2).sum()))
    cost = cost / max(ring.sum(), 1.0)
    if avoid is not None:
        cost = cost + cv2.resize(avoid, (columns, rows), interpolation=cv2.INTER_AREA)
    apart_x = (np.arange(columns)[None, :] - origin[0] + columns / 2) % columns - columns / 2
    apart_y = (np.arange(rows)[:, None] - origin[1] + rows / 2) % rows - rows / 2
    away = outline.radius(apart_x * across, apart_y * down)
    far_enough = away >= min(apart, 0.6 * float(away.max()))
    cost = np.where(far_enough, cost, np.inf)
    best = _pick(cost, draw)
    return (best[1] + 0.5) * across, (best[0] + 0.5) * down


def _pick(cost: npt.NDArray[np.float64], draw: float) -> tuple[int, int]:
    """The least cost; with a draw, one of the places whose cost is within the best tenth."""
    flat = cost.ravel()
    if draw <= 0:
        at = int(flat.argmin())
    else:
        finite = np.flatnonzero(np.isfinite(flat))
        few = finite[np.argsort(flat[finite])[: max(1, len(finite) // 10)]]
        at = int(few[int(draw * len(few))])
    row, column = divmod(at, cost.shape[1])
    return row, column


def cut_out(
    pictures: Pictures,
    weights: Weights,
    grid: Grid,
    spot: tuple[float, float],
    place: tuple[float, float],
    outline: Outline,
    *,
    source: Pictures | None = None,
) -> Patch:
    """The patch that covers ``spot`` from ``place``, with the cheapest closed cut between both rims; the place
    lies in ``source`` where that is given.
    """
    turns = (np.arange(_TURNS) + 0.5) / _TURNS * 2 * math.pi
    ux, uy = np.cos(turns), np.sin(turns)
    reach = 1 / outline.radius(ux, uy)
    rings = outline.inner + (1 - outline.inner) * (np.arange(_RINGS) + 0.5) / _RINGS
    away_x, away_y = (ux * reach)[:, None] * rings[None, :], (uy * reach)[:, None] * rings[None, :]
    cost = np.zeros((_TURNS, _RINGS))
    for kind, pixels in pictures.items():
        here, there = (
            _sampled(one, grid, away_x + x, away_y + y)
            for one, (x, y) in ((pixels, spot), (pixels if source is None else source[kind], place))
        )
        rough = np.abs(np.diff(here, axis=1, append=here[:, -1:])) + np.abs(
            np.diff(there, axis=1, append=there[:, -1:])
        )
        difference = ((here - there) ** 2) / (rough**2 + 0.5 * float((rough**2).mean()) + 1e-9)
        cost += weights.get(kind, 0.0) * difference.sum(2)
    # A wider ring has more pixels a turn.
    path = least_path(np.ascontiguousarray(cost * (0.5 + rings)[None, :] + 1e-6), closed=True)
    along = float(cost[np.arange(_TURNS), path].mean())
    return Patch(spot[0], spot[1], place[0], place[1], outline, rings[path].astype(np.float32), along)


def _sampled(pixels: Raster, grid: Grid, x: npt.NDArray[np.float64], y: npt.NDArray[np.float64]) -> Raster:
    across, down = grid.mm_per_px
    column, row = np.floor(x / across).astype(int) % grid.width_px, np.floor(y / down).astype(int) % grid.height_px
    return np.asarray(pixels[row, column].reshape(*x.shape, -1), np.float32)


def apply_patches(maps: MapSet, patches: Sequence[Patch], *, feather_mm: float, source: MapSet | None = None) -> MapSet:
    """Every map with the patches laid over it, feathered; normals stay unit vectors. They are taken from ``source``,
    another sheet of the same size, where that is given.
    """
    if not patches:
        return maps
    done = {kind: pixels.copy() for kind, pixels in maps.maps.items()}
    for patch in patches:
        _lay(done, maps.grid, patch, feather_mm, done if source is None else source.maps)
    return MapSet(maps.grid, done)


def _lay(
    maps: dict[MapKind, Raster], grid: Grid, patch: Patch, feather_mm: float, source: Mapping[MapKind, Raster]
) -> None:
    across, down = grid.mm_per_px
    half_x = min(grid.width_px // 2, math.ceil(patch.outline.half_width / across) + 1)
    half_y = min(grid.height_px // 2, math.ceil(patch.outline.half_height / down) + 1)
    left, top = math.floor(patch.x / across) - half_x, math.floor(patch.y / down) - half_y
    rows, columns = min(2 * half_y + 1, grid.height_px), min(2 * half_x + 1, grid.width_px)
    jump = round((patch.from_x - patch.x) / across), round((patch.from_y - patch.y) / down)
    x = ((left + np.arange(columns) + 0.5) * across - patch.x)[None, :]
    y = ((top + np.arange(rows) + 0.5) * down - patch.y)[:, None]
    turn = (np.arctan2(y, x) / (2 * math.pi)) % 1 * _TURNS - 0.5
    cut = np.interp(turn.ravel(), np.arange(_TURNS), patch.cut, period=_TURNS).reshape(rows, columns)
    radius = patch.outline.radius(x, y)
    soft = max(feather_mm, 1.2 * grid.pitch_mm) / min(patch.outline.half_width, patch.outline.half_height)
    share = np.clip((cut - radius) / soft + 0.5, 0, 1).astype(np.float32)
    ys, xs = (top + np.arange(rows)) % grid.height_px, (left + np.arange(columns)) % grid.width_px
    rim = np.abs(cut - radius) < 2 * soft
    for kind, pixels in maps.items():
        here = pixels[np.ix_(ys, xs)]
        there = wrapped_window(source[kind], top + jump[1], left + jump[0], rows, columns)
        if kind not in {MapKind.NORMAL, MapKind.OPACITY} and rim.any():
            shift = here[rim].mean(0) - there[rim].mean(0)
            if kind is not MapKind.HEIGHT:
                # A drift of the light is taken along; that other things lie at the rim is no reason to tint the rest.
                most = _MOST_SHIFT * np.abs(here[rim].mean(0))
                shift = np.clip(shift, -most, most)
            there = there + shift
        mixed = here + (there - here) * (share[..., None] if here.ndim == 3 else share)
        if kind is MapKind.NORMAL:
            mixed = mixed / np.maximum(np.linalg.norm(mixed, axis=2, keepdims=True), 1e-6)
        elif TRAITS[kind].colour or kind is not MapKind.HEIGHT:
            mixed = np.maximum(mixed, 0)
        pixels[np.ix_(ys, xs)] = mixed
