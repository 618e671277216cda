"""The surface up to one layer, while a build-up is joined from the bottom up."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..kernels.join import Planes
from ..maps import LAYERED, MapSet
from ..sheet import Grid, Raster


@dataclass(frozen=True, slots=True)
class Stack:
    """The mixed maps of the layers so far, who lies on top, and by how much.

    ``top`` (H, W) uint8 is the number of the layer that shows (0 nothing, 1 the first that shows); ``margin`` (H, W)
    its height over the ground beneath it, mm; ``share`` (H, W) the last layer's part in the mix. ``detail`` (H, W, 2)
    are the slopes that layers' own normals hold beyond their relief, ``shade`` (H, W) their own occlusion; None where
    no layer has any. ``water`` (H, W) is the depth of standing water, mm.
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
    water: Raster | None = None
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
