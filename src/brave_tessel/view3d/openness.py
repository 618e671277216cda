"""How much of the sky is seen from where: a coarse field over the scene, gathered from shadow maps."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from ..core.kernels.seen_sky import add_seen
from ..core.sheet import Raster

Vector = npt.NDArray[np.float64]
CELLS = 205_000
"""Cells of a field in all, about; each as long as it is wide and high."""
FADED = 24
"""As many directions as what was learnt counts for once something has changed."""
_SEES, _CLOSED = 0.02, 0.001
_ROUGH, _SMOOTH = 32, 96
"""Directions from which on the field shows as it is learnt, and wholly so."""
_LEAST, _MOST = 8, 160
"""Cells along a side."""
_SLANT = 2 / 3
"""How much less a slope of what is seen counts than its mean, once it has been weighed by the cosine."""


class Learnt:
    """Sums over directions that are seen, drawn evenly all round: how many, and of the directions; (…, 4)."""

    def __init__(self, sums: npt.NDArray[np.float32]) -> None:
        self.sums = sums
        self.samples = 0
        self.weight = 0.0
        self.mean = np.zeros(3)

    def count(self, toward: Vector) -> None:
        """One more direction has been added to the sums."""
        self.weight += 1.0
        self.mean += toward
        self.samples += 1

    def fade(self) -> None:
        """Something has changed: what was learnt counts less than what will be."""
        self.samples = min(self.samples, FADED)
        self.sums *= 0.25
        self.mean *= 0.25
        self.weight *= 0.25

    def field(self) -> npt.NDArray[np.float32]:
        """The open share of the sky, as a mean and three slopes: V(d) = mean + slopes · d."""
        out = self.sums / np.float32(self.weight)
        out[..., 1:] = 3 * (out[..., 1:] - out[..., :1] * (self.mean / self.weight).astype(np.float32))
        return out


class Openness:
    """For points of a grid the open share of the sky; see :class:`Learnt`."""

    def __init__(self, low: Vector, high: Vector) -> None:
        self.box = (low, high)
        margin = 0.02 * float(np.linalg.norm(high - low)) + 0.05
        self.low, self.size = low - margin, high - low + 2 * margin
        # From cells, counted from the middle of the first, to metres.
        side = float(np.prod(self.size) / CELLS) ** (1 / 3)
        self.cells = np.clip(np.rint(self.size / side), _LEAST, _MOST).astype(int)
        self._place = np.diag([*(self.size / self.cells), 1.0])
        self._place[:3, 3] = self.low + 0.5 * self.size / self.cells
        self.learnt = Learnt(np.zeros((*self.cells[::-1], 4), np.float32))

    @property
    def cell(self) -> float:
        """The longest side of a cell, m."""
        return float((self.size / self.cells).max())

    @property
    def corners(self) -> Vector:
        """Those of the box that it fills, (8, 3) m."""
        sides = np.array(np.meshgrid((0, 1), (0, 1), (0, 1))).reshape(3, -1).T
        return np.asarray(self.low + sides * self.size)

    def fills(self, low: Vector, high: Vector) -> bool:
        """Whether it was made for this box, m."""
        return bool(np.allclose(self.box[0], low, atol=1e-3) and np.allclose(self.box[1], high, atol=1e-3))

    @property
    def samples(self) -> int:
        """How many directions are known."""
        return self.learnt.samples

    def add(self, depth: npt.NDArray[np.float32], matrix: npt.NDArray[np.float64], toward: Vector) -> None:
        """One direction's shadow map, (S, S) in [0, 1] with the lower row first, and the matrix it was drawn with."""
        add_seen(self.learnt.sums, matrix @ self._place, depth, np.array([1.0, *toward]))
        self.learnt.count(toward)

    def field(self) -> npt.NDArray[np.float32]:
        """(z, y, x, 4) float32: mean and slopes."""
        out = self.learnt.field()
        # Even over neighbours, so that single directions do not show. Cells within walls see nothing, and count for
        # little; all others count alike, or what stands open would shine through what does not.
        trust = np.minimum(out[..., :1], _SEES) + np.float32(_CLOSED)
        whole = np.concatenate([out * trust, trust], -1)
        for axis in range(3):
            whole = _beside(whole, axis)
        return np.ascontiguousarray(whole[..., :4] / whole[..., 4:], np.float32)

    def clear_field(self, even: npt.NDArray[np.float32]) -> npt.NDArray[np.float32]:
        """The share of the sky's light on a face that is open, by where it looks: mean + slopes · n, for light that
        falls on it at a slant counts less (Ramamoorthi and Hanrahan 2001). Without evening over neighbours, which
        carries the day through walls: as far as enough directions are known for single ones not to show.
        """
        share = np.float32(min(1.0, max(0.0, (self.samples - _ROUGH) / (_SMOOTH - _ROUGH))))
        return (even + share * (self.learnt.field() - even)) * np.array([1.0, *[_SLANT] * 3], np.float32)


def _beside(cells: npt.NDArray[np.float32], axis: int) -> npt.NDArray[np.float32]:
    """The sum over each cell and its two neighbours along an axis; the last cell stands for what is beyond it."""
    ends = [(1, 1) if k == axis else (0, 0) for k in range(cells.ndim)]
    wide = np.moveaxis(np.pad(cells, ends, mode="edge"), axis, 0)
    return np.moveaxis(wide[:-2] + wide[1:-1] + wide[2:], 0, axis)


_SHARE, _TONED = 0.94, 1.6
"""So much of what is built shows no brighter than this, in exposed light."""


def eased(exposure: float, least: float, light: Raster, built: npt.NDArray[np.bool_]) -> float:
    """An exposure opened under a roof, closed again as far as a picture asks for where the sun falls in: what it
    lights keeps its tones. ``light`` (H, W, 3) is linear, before the exposure; ``built`` (H, W) says where something
    stands.
    """
    if exposure <= least or built.mean() < 0.05:
        return exposure
    bright = exposure * float(np.quantile(light.max(-1)[built], _SHARE))
    return max(least, exposure * min(1.0, _TONED / max(bright, 1e-6)))
