"""The surface up to one layer, while a build-up is joined from the bottom up."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

from ..kernels.join import Planes
from ..maps import LAYERED, MapSet
from ..sheet import Grid, Raster


@dataclass(frozen=True, slots=True, eq=False)
class Water:
    """Water that stands on dry ground, which stays as it is beneath. Each (H, W): its ``share`` of the pixel, ``depth``
    in mm, how ``wet`` the ground is, how much of it a ``veil`` of the water's own ``paint`` (H, W, 3) hides, and the
    ``rough``ness of its surface; the last two may be of one pixel that stands for all.
    """

    share: Raster
    depth: Raster
    wet: Raster
    veil: Raster
    paint: Raster
    rough: Raster

    @property
    def nbytes(self) -> int:
        """Bytes of all its rasters, for the cache."""
        return sum(one.nbytes for one in (self.share, self.depth, self.wet, self.veil, self.paint, self.rough))

    def covered(self, share: Raster) -> Water:
        """What is left to see of it under something that lies on it in its share (H, W)."""
        left = 1 - share
        return replace(self, **{name: np.asarray(getattr(self, name) * left, np.float32) for name in _COVERED})

    def under(self, later: Water) -> Water:
        """With later water standing on it."""
        both = 1 - (1 - self.veil) * (1 - later.veil)
        counts = np.where(both > 0, later.veil / np.maximum(both, 1e-6), later.share)[..., None]
        rough = self.rough + later.share * (later.rough - self.rough)
        return Water(
            np.asarray(1 - (1 - self.share) * (1 - later.share), np.float32),
            np.asarray(self.depth + later.depth, np.float32),
            np.maximum(self.wet, later.wet),
            np.asarray(both, np.float32),
            np.asarray(self.paint + counts * (later.paint - self.paint), np.float32),
            np.asarray(rough, np.float32),
        )


_COVERED = ("share", "depth", "wet", "veil")


@dataclass(frozen=True, slots=True)
class Stack:
    """The mixed maps of the layers so far, who lies on top, and by how much.

    ``top`` (H, W) uint8 is the number of the layer that shows (0 nothing, 1 the first that shows); ``margin`` (H, W)
    its height over the ground beneath it, mm; ``share`` (H, W) the last layer's part in the mix. ``detail`` (H, W, 2)
    are the slopes that layers' own normals hold beyond their relief, ``shade`` (H, W) their own occlusion; None where
    no layer has any. ``water`` is what stands on it: the ground itself stays dry.
    ``finish`` are maps of finishes (:data:`brave_tessel.core.maps.FINISH`), None where no layer has any; ``open``
    (H, W) is how much of the bare sheet nothing lies on, None where none of it is.
    """

    grid: Grid
    planes: Planes
    top: npt.NDArray[np.uint8]
    margin: Raster
    share: Raster
    layers: int
    detail: Raster | None = None
    shade: Raster | None = None
    water: Water | None = None
    finish: MapSet | None = None
    open: Raster | None = None

    @property
    def nbytes(self) -> int:
        """Bytes of all its rasters, for the cache."""
        own = sum(p.nbytes for p in self.planes) + self.top.nbytes + self.margin.nbytes + self.share.nbytes
        return own + sum(
            p.nbytes for p in (self.detail, self.shade, self.water, self.finish, self.open) if p is not None
        )

    @property
    def height(self) -> Raster:
        """The relief, (H, W), mm."""
        return self.planes[1]

    def map_set(self) -> MapSet:
        """The mixed maps; normal and occlusion are derived from the height elsewhere."""
        finish = {} if self.finish is None else self.finish.maps
        return MapSet(self.grid, {**dict(zip(LAYERED, self.planes, strict=True)), **finish})


def bare(grid: Grid) -> Stack:
    """Nothing laid yet: grey, flat at level 0."""
    maps = MapSet(grid)
    planes: Planes = tuple(np.ascontiguousarray(maps.or_default(kind)) for kind in LAYERED)  # type: ignore[assignment]
    zero = np.zeros(grid.shape, np.float32)
    return Stack(grid, planes, np.zeros(grid.shape, np.uint8), zero, zero, 0)
