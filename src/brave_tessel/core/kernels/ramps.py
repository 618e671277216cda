"""Colours looked up for every pixel."""

from __future__ import annotations

import numpy as np

from ..sheet import Raster
from .bands import over_rows
from .compiled import compiled


@compiled
def _rows(first: int, last: int, field: Raster, table: Raster, out: Raster) -> None:
    top = table.shape[0] - 1
    for r in range(first, last):
        for c in range(field.shape[1]):
            at = min(max(field[r, c], np.float32(0)), np.float32(1)) * np.float32(top)
            low = min(int(at), top - 1)
            t = at - np.float32(low)
            for k in range(3):
                out[r, c, k] = table[low, k] + t * (table[low + 1, k] - table[low, k])


def look_up(field: Raster, table: Raster) -> Raster:
    """Colours (H, W, 3) of a field in [0, 1] from a table (n, 3), mixed between its entries."""
    out = np.empty((*field.shape, 3), np.float32)
    over_rows(
        _rows, field.shape[0], np.ascontiguousarray(field, np.float32), np.ascontiguousarray(table, np.float32), out
    )
    return out
