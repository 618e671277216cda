"""Vectors brought to length one."""

from __future__ import annotations

import numpy as np

from ..sheet import Raster
from .bands import over_rows
from .compiled import compiled


@compiled
def _rows(first: int, last: int, vectors: Raster) -> None:
    for r in range(first, last):
        for c in range(vectors.shape[1]):
            x, y, z = vectors[r, c, 0], vectors[r, c, 1], vectors[r, c, 2]
            scale = np.float32(1) / np.sqrt(max(x * x + y * y + z * z, np.float32(1e-12)))
            vectors[r, c, 0] = x * scale
            vectors[r, c, 1] = y * scale
            vectors[r, c, 2] = z * scale


def to_unit(vectors: Raster) -> Raster:
    """Bring vectors (H, W, 3) to length one in place."""
    over_rows(_rows, vectors.shape[0], vectors)
    return vectors
