"""Which cells of a grid see one direction of the sky, by its shadow map."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from ..sheet import AnyArray, Raster
from .bands import over_rows
from .compiled import compiled, still

_NEAR = np.float32(0.004)


@compiled
def _add_rows(
    first: int, last: int, sums: Raster, matrix: npt.NDArray[np.float64], depth: Raster, told: npt.NDArray[np.float64]
) -> None:
    rows, columns = sums.shape[1], sums.shape[2]
    side = depth.shape[0]
    for row in range(first, last):
        z, y = row // rows, row % rows
        for x in range(columns):
            u = matrix[0, 0] * x + matrix[0, 1] * y + matrix[0, 2] * z + matrix[0, 3]
            v = matrix[1, 0] * x + matrix[1, 1] * y + matrix[1, 2] * z + matrix[1, 3]
            away = matrix[2, 0] * x + matrix[2, 1] * y + matrix[2, 2] * z + matrix[2, 3]
            i = min(side - 1, max(0, int((u * 0.5 + 0.5) * side)))
            j = min(side - 1, max(0, int((v * 0.5 + 0.5) * side)))
            if away * 0.5 + 0.5 - _NEAR <= depth[j, i]:
                for k in range(4):
                    sums[z, y, x, k] += told[k]


def add_seen(sums: Raster, matrix: AnyArray, depth: AnyArray, told: AnyArray) -> None:
    """Add ``told`` (4,) to the sums (z, y, x, 4) of cells that see a direction.

    ``matrix`` (4, 4) takes (x, y, z, 1), in cells, to the clip space of the direction's shadow map ``depth`` (S, S) in
    [0, 1], the lower row first.
    """
    rows = sums.shape[0] * sums.shape[1]
    over_rows(
        _add_rows,
        rows,
        sums,
        still(np.ascontiguousarray(matrix, np.float64)),
        still(np.ascontiguousarray(depth, np.float32)),
        still(np.ascontiguousarray(told, np.float64)),
    )
