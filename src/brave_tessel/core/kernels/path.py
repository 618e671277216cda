"""Places along and across a path on a wrapped sheet."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from ..sheet import Raster
from .compiled import compiled

_F = npt.NDArray[np.float64]


@compiled
def _measure(
    along: Raster, across: Raster, path: _F, run: _F, reach: float, width_mm: float, height_mm: float, closed: bool
) -> None:
    rows, columns = along.shape
    px, py = width_mm / columns, height_mm / rows
    last = path.shape[0] - 2
    for n in range(last + 1):
        x0, y0, x1, y1 = path[n, 0], path[n, 1], path[n + 1, 0], path[n + 1, 1]
        dx, dy = x1 - x0, y1 - y0
        length = math.sqrt(dx * dx + dy * dy)
        if length == 0.0:
            continue
        ux, uy = dx / length, dy / length
        for j in range(math.floor((min(y0, y1) - reach) / py - 0.5), math.ceil((max(y0, y1) + reach) / py - 0.5) + 1):
            y = (j + 0.5) * py - y0
            r = (rows - 1 - j) % rows
            for i in range(
                math.floor((min(x0, x1) - reach) / px - 0.5), math.ceil((max(x0, x1) + reach) / px - 0.5) + 1
            ):
                x = (i + 0.5) * px - x0
                t = x * ux + y * uy
                # Open ends go on straight, so that caps have room; bends are turned about.
                low = -reach if n == 0 and not closed else 0.0
                high = length + reach if n == last and not closed else length
                held = min(high, max(low, t))
                ex, ey = x - held * ux, y - held * uy
                away = math.sqrt(ex * ex + ey * ey)
                c = i % columns
                if away <= reach and away < abs(across[r, c]):
                    side = 1.0 if ux * y - uy * x >= 0.0 else -1.0
                    across[r, c] = np.float32(side * away)
                    along[r, c] = np.float32(run[n] + held)


def measure_path(
    path: _F, shape: tuple[int, int], *, reach_mm: float, width_mm: float, height_mm: float, closed: bool
) -> tuple[Raster, Raster]:
    """Millimetres along a polyline (n, 2) and, signed, across it (left is positive); (H, W) each.

    Further off than the reach ``across`` is twice the reach and ``along`` 0. The nearest part of the path counts.
    """
    along, across = np.zeros(shape, np.float32), np.full(shape, 2 * reach_mm, np.float32)
    steps = np.hypot(*np.diff(path, axis=0).T)
    run = np.concatenate([[0.0], np.cumsum(steps)])
    _measure(along, across, np.ascontiguousarray(path, np.float64), run, reach_mm, width_mm, height_mm, closed)
    return along, across
