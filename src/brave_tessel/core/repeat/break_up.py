"""Break the repeat: one cell laid over itself at random in a larger sheet, its contrast kept.

Heitz and Neyret 2018, "High-performance by-example noise using a histogram-preserving blending
operator" (HPG): patches on a triangle lattice are mixed as Gaussian variables with their variance kept,
and brought back to the cell's own histogram. The lattice wraps, so the larger sheet repeats.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np
import numpy.typing as npt
from scipy.special import ndtr, ndtri

from ..job.nodes import Setting
from ..kernels.bands import over_rows
from ..kernels.compiled import compiled
from ..lattice import units_many, whole_periods
from ..maps import TRAITS, MapKind, MapSet
from ..operation import Fraction, Length, Seed, Whole, operation
from ..sheet import Grid, Raster

_LEVELS = 2048


@dataclass(frozen=True, slots=True)
class Gaussian:
    """A one-channel raster as standard normal values, and the way back: ``values`` at even quantiles."""

    normal: Raster
    values: npt.NDArray[np.float64]

    def back(self, normal: Raster) -> Raster:
        """Standard normal values as the raster's own; its histogram is kept."""
        share = ndtr(np.clip(normal, -5, 5).astype(np.float64))
        return np.asarray(np.interp(share, (np.arange(_LEVELS) + 0.5) / _LEVELS, self.values), np.float32)


def gaussian(raster: Raster) -> Gaussian:
    """Gaussianise a raster by its own distribution."""
    quantiles = (np.arange(_LEVELS) + 0.5) / _LEVELS
    values = np.asarray(np.quantile(raster, quantiles), np.float64)
    # Equal values would make the way there ambiguous; a hair's breadth orders them.
    values = np.maximum.accumulate(values + np.arange(_LEVELS) * 1e-9 * max(float(np.ptp(values)), 1e-6))
    return Gaussian(ndtri(np.clip(np.interp(raster, values, quantiles), 1e-4, 1 - 1e-4)).astype(np.float32), values)


@compiled
def _blend_rows(
    first: int, last: int, sample: Raster, out: Raster, jump: npt.NDArray[np.int64], exponent: np.float32
) -> None:
    rows, columns, channels = out.shape
    high, wide = sample.shape[0], sample.shape[1]
    down, across = jump.shape[0], jump.shape[1]
    one = np.float32(1)
    for r in range(first, last):
        v = np.float32((rows - r - 0.5) * down / rows)
        j = int(v)
        fv = v - np.float32(j)
        for c in range(columns):
            u = np.float32((c + 0.5) * across / columns) - np.float32(0.5) * v
            i = int(np.floor(u))
            fu = u - np.float32(i)
            flip = fu + fv > one
            wa = fu + fv - one if flip else one - fu - fv
            wb, wc = (one - fv, one - fu) if flip else (fu, fv)
            ia, ja = (i + 1, j + 1) if flip else (i, j)
            wa, wb, wc = wa**exponent, wb**exponent, wc**exponent
            total = wa + wb + wc
            wa, wb, wc = wa / total, wb / total, wc / total
            keep = one / np.sqrt(wa * wa + wb * wb + wc * wc)
            # A vertex one lap up stands half a lap along, because rows are staggered.
            jb, jc = ja % down, j % down
            ra, ca = jump[jb, (ia + (ja - jb) // 2) % across, 0], jump[jb, (ia + (ja - jb) // 2) % across, 1]
            ib = i + 1
            rb, cb = jump[jc, (ib + (j - jc) // 2) % across, 0], jump[jc, (ib + (j - jc) // 2) % across, 1]
            jd = (j + 1) % down
            rc, cc = jump[jd, (i + (j + 1 - jd) // 2) % across, 0], jump[jd, (i + (j + 1 - jd) // 2) % across, 1]
            for k in range(channels):
                mixed = (
                    wa * sample[(r + ra) % high, (c + ca) % wide, k]
                    + wb * sample[(r + rb) % high, (c + cb) % wide, k]
                    + wc * sample[(r + rc) % high, (c + cc) % wide, k]
                )
                out[r, c, k] = mixed * keep


def blend(sample: Raster, shape: tuple[int, int], lattice: tuple[int, int], *, seed: int, exponent: float) -> Raster:
    """Standard normal channels (h, w, C) mixed over a sheet of ``shape`` on a lattice of (down, across).

    ``lattice[0]`` must be even for the staggered rows to close.
    """
    down, across = lattice
    row, column = np.mgrid[0:down, 0:across]
    jump = np.stack(
        [units_many(column, row, seed) * sample.shape[0], units_many(column, row, seed + 1) * sample.shape[1]], 2
    ).astype(np.int64)
    out = np.empty((*shape, sample.shape[2]), np.float32)
    over_rows(_blend_rows, shape[0], np.ascontiguousarray(sample), out, jump, np.float32(exponent))
    return out


@operation("breakup.hex", label="Break the repeat", version=2, rehashed=True)
def break_up(
    grid: Grid,
    maps: MapSet,
    *,
    across: Annotated[
        int,
        Whole(1, 8, most=32, unit="×", help="How many cells wide the new repeat is; 1 by 1 leaves the cell as it is."),
    ] = 1,
    up: Annotated[int, Whole(1, 8, most=32, unit="×", help="How many cells high the new repeat is.")] = 1,
    patch: Annotated[
        float,
        Length(
            10,
            1000,
            log=True,
            least=1,
            help="Size of the patches that are mixed: larger than the largest thing that should stay whole.",
        ),
    ] = 160.0,
    crisp: Annotated[float, Fraction(help="0 mixes patches softly, 1 lets one win nearly everywhere.")] = 0.6,
    seed: Annotated[int, Seed()] = 1,
) -> MapSet:
    """A larger sheet in which the cell is laid over itself at random; colours and heights keep their spread.

    All maps take the same patches. For textures without a regular pattern.
    """
    if across == 1 and up == 1:
        return maps
    wide = Grid(grid.width_px * across, grid.height_px * up, grid.width_mm * across, grid.height_mm * up)
    rise = patch * 0.75**0.5
    lattice = 2 * max(1, round(wide.height_mm / rise / 2)), max(2, whole_periods(wide.width_mm, patch))
    laid = {
        kind: _blended(kind, pixels, wide.shape, lattice, seed, 1 + 7 * crisp) for kind, pixels in maps.maps.items()
    }
    return MapSet(wide, laid)


def _blended(
    kind: MapKind, pixels: Raster, shape: tuple[int, int], lattice: tuple[int, int], seed: int, exponent: float
) -> Raster:
    stacked = pixels if pixels.ndim == 3 else pixels[..., None]
    mean = stacked.reshape(-1, stacked.shape[2]).mean(0)
    axes = np.eye(stacked.shape[2], dtype=np.float32)
    if stacked.shape[2] == 3:
        # Channels of a colour hang together; along their own axes they can be mixed one by one.
        axes = np.linalg.eigh(np.cov(stacked[::4, ::4].reshape(-1, 3).T) + 1e-9 * np.eye(3))[1].astype(np.float32)
    apart = (stacked - mean) @ axes
    channels = [gaussian(np.ascontiguousarray(apart[..., k])) for k in range(stacked.shape[2])]
    mixed = blend(np.stack([c.normal for c in channels], 2), shape, lattice, seed=seed, exponent=exponent)
    back = np.stack([c.back(mixed[..., k]) for k, c in enumerate(channels)], 2) @ axes.T + mean
    if kind is MapKind.NORMAL:
        back = back / np.maximum(np.linalg.norm(back, axis=2, keepdims=True), 1e-6)
    elif TRAITS[kind].colour:
        back = np.maximum(back, 0)
    return np.ascontiguousarray(back if pixels.ndim == 3 else back[..., 0], np.float32)


def cells_of(breakup: Setting) -> tuple[int, int]:
    """Of how many cells the larger sheet is, across and up; one where the way to break it is not known here."""
    if not breakup.known:
        return 1, 1
    return int(breakup.number("across")), int(breakup.number("up"))
