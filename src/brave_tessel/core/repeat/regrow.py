"""Regrow: a new sheet of any size, quilted from patches of the sample so that it wraps.

Efros and Freeman 2001, "Image quilting for texture synthesis and transfer", with wrapped placement:
blocks in the last column and row are matched and cut against the first as well.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt
import scipy.fft

from .. import pace
from ..errors import OutOfRangeError
from ..lattice import units_as_before
from ..maps import MapKind, MapSet
from ..phrases import say
from ..sheet import Grid, Raster
from .cut import least_path

SEARCH_PX = 192
"""The sample is searched at this size at most; candidates are then refined."""


@dataclass(frozen=True, slots=True)
class Quilt:
    """Where every pixel of the new sheet comes from: columns and rows of the sample, (H, W) float32, in
    pixels of the size at which it was quilted; ``sample_px`` that size, (rows, columns).
    """

    column: Raster
    row: Raster
    sample_px: tuple[int, int]

    @property
    def nbytes(self) -> int:
        """Bytes of its rasters, for the cache."""
        return self.column.nbytes + self.row.nbytes

    @property
    def seams(self) -> npt.NDArray[np.bool_]:
        """Where patches meet: what lies side by side does not in the sample, (H, W)."""
        rows, columns = self.column.shape
        offsets = (self.column - np.arange(columns)[None, :]) % columns, (self.row - np.arange(rows)[:, None]) % rows
        meets = [np.abs(np.roll(offset, -1, axis) - offset) > 0.5 for offset in offsets for axis in (0, 1)]
        return np.asarray(np.logical_or.reduce(meets))


@dataclass(slots=True)
class _Search:
    """The sample at search size with its transforms, for sums of squared differences."""

    small: Raster
    scale: float
    spectra: list[npt.NDArray[np.complex128]]
    squares: npt.NDArray[np.complex128]
    shape: tuple[int, int]

    @classmethod
    def of(cls, sample: Raster) -> _Search:
        """A search over a sample (H, W, C), its sums made once."""
        scale = min(1.0, SEARCH_PX / max(sample.shape[:2]))
        size = (max(8, round(sample.shape[1] * scale)), max(8, round(sample.shape[0] * scale)))
        small = np.asarray(cv2.resize(sample, size, interpolation=cv2.INTER_AREA), np.float32)
        spectra = [scipy.fft.rfft2(small[..., k].astype(np.float64)) for k in range(small.shape[2])]
        squares = scipy.fft.rfft2((small.astype(np.float64) ** 2).sum(2))
        return cls(small, scale, spectra, squares, small.shape[:2])

    def costs(self, window: Raster, filled: npt.NDArray[np.bool_]) -> npt.NDArray[np.float64]:
        """Squared difference of the filled part of a window at every place it fits, (places down, across)."""
        side = max(2, round(window.shape[0] * self.scale)), max(2, round(window.shape[1] * self.scale))
        mask = cv2.resize(filled.astype(np.float32), side[::-1], interpolation=cv2.INTER_AREA) > 0.999
        target = np.asarray(cv2.resize(window, side[::-1], interpolation=cv2.INTER_AREA), np.float64) * mask[..., None]
        total = self.squares * np.conj(scipy.fft.rfft2(mask.astype(np.float64), self.shape))
        for k, spectrum in enumerate(self.spectra):
            total = total - 2 * spectrum * np.conj(scipy.fft.rfft2(target[..., k], self.shape))
        costs = scipy.fft.irfft2(total, self.shape) + float((target**2).sum())
        fits = costs[: self.shape[0] - side[0] + 1, : self.shape[1] - side[1] + 1]
        return np.asarray(np.maximum(fits, 0) / max(1.0, float(mask.sum())))


def quilt(sample: Raster, shape: tuple[int, int], *, block: int, overlap: int, seed: int) -> Quilt:
    """Quilt a wrapped sheet of ``shape`` from a sample (h, w, C); block and overlap in pixels.

    Raises
    ------
    OutOfRangeError
        when the block does not fit the sample or the sheet.
    """
    rows, columns = shape
    if block > min(sample.shape[:2]) or block > min(rows, columns) or overlap * 2 >= block:
        raise OutOfRangeError(
            "Block",
            value=say("{block} px", block=block),
            allowed="more than twice the overlap, and less than sample and sheet",
            remedy="Choose a smaller block or overlap.",
        )
    step = block - overlap
    across, down = max(1, round(columns / step)), max(1, round(rows / step))
    search = _Search.of(sample)
    made = np.zeros((rows, columns, sample.shape[2]), np.float32)
    filled = np.zeros(shape, bool)
    source = np.zeros((2, rows, columns), np.float32)
    size = (min(rows, math.ceil(rows / down) + overlap), min(columns, math.ceil(columns / across) + overlap))
    size = (min(size[0], sample.shape[0]), min(size[1], sample.shape[1]))
    for j in range(down):
        for i in range(across):
            pace.step((j * across + i) / (down * across))
            top, left = round(j * rows / down), round(i * columns / across)
            _place(sample, search, made, filled, source, (top, left), size, overlap, seed + 7919 * (j * across + i))
    return Quilt(source[0], source[1], (sample.shape[0], sample.shape[1]))


def _place(
    sample: Raster,
    search: _Search,
    made: Raster,
    filled: npt.NDArray[np.bool_],
    source: Raster,
    corner: tuple[int, int],
    size: tuple[int, int],
    overlap: int,
    seed: int,
) -> None:
    ys = (corner[0] + np.arange(size[0])) % made.shape[0]
    xs = (corner[1] + np.arange(size[1])) % made.shape[1]
    window, known = made[np.ix_(ys, xs)], filled[np.ix_(ys, xs)]
    y, x = _choose(sample, search, window, known, seed)
    patch = sample[y : y + size[0], x : x + size[1]]
    take = _cut_mask(window, patch, known, overlap)
    here = np.ix_(ys, xs)
    made[here] = np.where(take[..., None], patch, window)
    for axis, start in ((0, x), (1, y)):
        coordinates = start + (np.arange(size[1])[None, :] if axis == 0 else np.arange(size[0])[:, None])
        source[axis][here] = np.where(take, coordinates, source[axis][here])
    filled[here] = True


def _choose(
    sample: Raster, search: _Search, window: Raster, known: npt.NDArray[np.bool_], seed: int
) -> tuple[int, int]:
    """A place of the sample whose patch agrees well with what is there; one of the best, by the seed."""
    draws = units_as_before([1, 2, 3], [0, 0, 0], seed)
    high, wide = sample.shape[0] - window.shape[0], sample.shape[1] - window.shape[1]
    if not known.any():
        return round(float(draws[0]) * high), round(float(draws[1]) * wide)
    costs = search.costs(window, known)
    near = np.flatnonzero(costs.ravel() <= 1.15 * costs.min() + 1e-7)
    pick = int(near[int(float(draws[2]) * len(near)) % len(near)])
    coarse = divmod(pick, costs.shape[1])
    reach = math.ceil(1 / search.scale)
    best, at = math.inf, (0, 0)
    for y in range(
        max(0, round(coarse[0] / search.scale) - reach), min(high, round(coarse[0] / search.scale) + reach) + 1
    ):
        for x in range(
            max(0, round(coarse[1] / search.scale) - reach), min(wide, round(coarse[1] / search.scale) + reach) + 1
        ):
            patch = sample[y : y + window.shape[0], x : x + window.shape[1]]
            cost = float((((patch - window) ** 2).sum(2) * known)[::2, ::2].sum())
            if cost < best:
                best, at = cost, (y, x)
    return at


def _cut_mask(window: Raster, patch: Raster, known: npt.NDArray[np.bool_], overlap: int) -> npt.NDArray[np.bool_]:
    """Which pixels of the patch are taken: beyond the best cut on every side where something lies already."""
    take = np.ones(known.shape, bool)
    error = ((window - patch) ** 2).sum(2).astype(np.float64) + 1e-9
    turns = ((0, "left"), (1, "top"), (2, "right"), (3, "bottom"))
    for turn, _ in turns:
        # Turned so that the side in question is the left one.
        side_known = np.rot90(known, turn if turn != 1 else 1)
        side_error = np.rot90(error, turn)
        strip = side_known[:, :overlap]
        if strip.mean() < 0.9:
            continue
        path = least_path(np.ascontiguousarray(side_error[:, :overlap]))
        beyond = np.arange(overlap)[None, :] >= path[:, None]
        turned = np.rot90(take, turn).copy()
        turned[:, :overlap] &= beyond
        take = np.rot90(turned, -turn)
    # What lies nowhere yet must be filled, whatever the cuts say.
    return np.asarray(take | ~known)


def apply_quilt(maps: MapSet, quilted: Quilt, grid: Grid) -> MapSet:
    """Every map of the sample laid as the quilt says, on a grid of the new sheet; normals stay unit."""
    any_map = next(iter(maps.maps.values()))
    ratio_x = any_map.shape[1] / quilted.sample_px[1]
    ratio_y = any_map.shape[0] / quilted.sample_px[0]
    rows, columns = grid.shape
    low_rows, low_columns = quilted.column.shape
    y = (np.arange(rows) + 0.5) * low_rows / rows
    x = (np.arange(columns) + 0.5) * low_columns / columns
    iy, ix = np.minimum(y.astype(int), low_rows - 1), np.minimum(x.astype(int), low_columns - 1)
    column = quilted.column[np.ix_(iy, ix)] + (x - ix)[None, :].astype(np.float32)
    row = quilted.row[np.ix_(iy, ix)] + (y - iy)[:, None].astype(np.float32)
    map_x = (column * np.float32(ratio_x) - np.float32(0.5)).astype(np.float32)
    map_y = (row * np.float32(ratio_y) - np.float32(0.5)).astype(np.float32)
    done = {}
    for kind, pixels in maps.maps.items():
        laid = np.asarray(cv2.remap(pixels, map_x, map_y, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REFLECT), np.float32)
        if kind is MapKind.NORMAL:
            laid = laid / np.maximum(np.linalg.norm(laid, axis=2, keepdims=True), 1e-6)
        done[kind] = laid
    return MapSet(grid, done)
