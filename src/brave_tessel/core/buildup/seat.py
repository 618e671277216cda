"""How a layer meets what lies beneath it, by height."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np
import numpy.typing as npt

from ..kernels.join import Planes, join_by_height
from ..maps import LAYERED, MapKind, MapSet
from ..operation import Fraction, Length, operation
from ..sheet import Grid, Raster


@dataclass(frozen=True, slots=True)
class Stack:
    """The surface up to one layer: its mixed maps, who lies on top, and by how much.

    ``top`` (H, W) uint8 is the index of the layer that shows (0 nothing, 1 the first layer);
    ``margin`` (H, W) its height over the ground beneath it, mm; ``share`` (H, W) its part in the mix.
    """

    grid: Grid
    planes: Planes
    top: npt.NDArray[np.uint8]
    margin: Raster
    share: Raster
    layers: int

    @property
    def nbytes(self) -> int:
        return sum(p.nbytes for p in self.planes) + self.top.nbytes + self.margin.nbytes + self.share.nbytes

    @property
    def height(self) -> Raster:
        return self.planes[1]

    def map_set(self) -> MapSet:
        """The mixed maps; normal and occlusion are derived from the height elsewhere."""
        return MapSet(self.grid, dict(zip(LAYERED, self.planes, strict=True)))


def bare(grid: Grid) -> Stack:
    """Nothing laid yet: grey, flat at level 0."""
    maps = MapSet(grid)
    planes: Planes = tuple(np.ascontiguousarray(maps.or_default(kind)) for kind in LAYERED)  # type: ignore[assignment]
    zero = np.zeros(grid.shape, np.float32)
    return Stack(grid, planes, np.zeros(grid.shape, np.uint8), zero, zero, 0)


@operation("seat.by_height", label="How it sits")
def by_height(
    grid: Grid, maps: MapSet, *,
    level: Annotated[float, Length(-5, 5, least=-500, most=500, help="How high the layer lies: above 0 it rides on the ground, below 0 it sits in its hollows.")] = 0.0,
    feather: Annotated[float, Length(0, 3, least=0, most=100, help="Height over which layer and ground mix; 0 is a hard edge.")] = 0.3,
    drape: Annotated[float, Fraction(help="0 lies flat at its level, 1 follows the ground.")] = 0.0,
) -> MapSet:  # fmt: skip
    """Seat by height; see :func:`lay`."""
    return maps


def lay(
    below: Stack, layer: MapSet, coverage: Raster | None, switches: frozenset[MapKind], *,
    level: float, feather: float, drape: float,
) -> Stack:  # fmt: skip
    """One layer joined onto a stack.

    The layer's top is ``level + relief + drape · ground``; it shows where its top is higher than the
    ground, mixed linearly over ``feather`` and scaled by its coverage. Of equal heights the later
    layer lies on top at feather 0. The first layer has nothing beneath it and always shows.
    """
    grid = below.grid
    cover = np.ones(grid.shape, np.float32) if coverage is None else np.ascontiguousarray(coverage)
    planes: Planes = tuple(np.ascontiguousarray(layer.or_default(kind)) for kind in LAYERED)  # type: ignore[assignment]
    on = tuple(kind in switches and kind in layer for kind in LAYERED)
    number = below.layers + 1
    joined, share, (top, margin) = join_by_height(
        below.planes, planes, cover, (below.top, below.margin), number=number, level=level, feather=feather,
        drape=drape, on=on,  # type: ignore[arg-type]
        uncontested=below.layers == 0,
    )  # fmt: skip
    return Stack(grid, joined, top, margin, share, number)
