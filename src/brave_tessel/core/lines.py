"""Lines of points."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

Points = npt.NDArray[np.float64]


def thinned(points: Points, within: float, *, closed: bool = False) -> Points:
    """A line with fewer points that is nowhere further from the given one than a distance (Douglas and Peucker
    1973); of a ``closed`` one the point half way round stays too.
    """
    if len(points) < 3:
        return points
    keep = np.zeros(len(points), bool)
    half = len(points) // 2 if closed else len(points) - 1
    keep[[0, half, len(points) - 1]] = True
    waiting = [(0, half)] + ([(half, len(points) - 1)] if half < len(points) - 1 else [])
    while waiting:
        a, b = waiting.pop()
        if b - a < 2:
            continue
        line = points[b] - points[a]
        away = points[a + 1 : b] - points[a]
        along = np.clip(away @ line / max(float(line @ line), 1e-12), 0, 1)
        off = np.linalg.norm(away - along[:, None] * line, axis=1)
        k = int(off.argmax())
        if off[k] > within:
            keep[a + 1 + k] = True
            waiting += [(a, a + 1 + k), (a + 1 + k, b)]
    return np.asarray(points[keep])
