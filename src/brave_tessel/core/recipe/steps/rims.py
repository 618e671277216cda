"""What a pixel shows where a piece meets a joint: as much of each as lies in it, at every size."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import wraps
from typing import Any

import cv2
import numpy as np

from ...kernels.bands import over_rows
from ...kernels.pieces import tone_rows
from ...lattice import is_earlier
from ...operation import Pieces, operation
from ...sheet import Grid, Raster


class _Chosen(threading.local):
    earlier = False


_CHOSEN = _Chosen()


@contextmanager
def _earlier_rims() -> Iterator[None]:
    """Within it, in this thread, a pixel whose middle lies in a joint is all joint."""
    before, _CHOSEN.earlier = _CHOSEN.earlier, True
    try:
        yield
    finally:
        _CHOSEN.earlier = before


def rimmed(id: str, *, label: str) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """Declare a step whose third version gives pixels in joints their share of the piece beside them. The second, in
    which they were all joint, and the first, with the earlier hash too, stay for old jobs.
    """

    def declare(function: Callable[..., Any]) -> Callable[..., Any]:
        @wraps(function)
        def before(*inputs: Any, **values: Any) -> Any:
            with _earlier_rims():
                return function(*inputs, **values)

        operation(id, label=label, version=2, rehashed=True, superseded=True)(before)
        operation(id, label=label, version=3)(function)
        return function

    return declare


def softened(hard: Raster) -> Raster:
    """Edges between pieces half a pixel soft, evenly to both sides: at every size as much is covered as pieces
    cover; (H, W) or (H, W, N), wrapped.
    """
    rim = ((1, 1), (1, 1), *(((0, 0),) if hard.ndim == 3 else ()))
    soft = cv2.GaussianBlur(np.pad(hard, rim, "wrap"), (3, 3), 0.5)
    return np.ascontiguousarray(soft[1:-1, 1:-1].reshape(hard.shape), np.float32)


def joint_share(grid: Grid, pieces: Pieces) -> float:
    """How much of a pixel a joint can take: less than all of it where joints are narrower than a pixel, 0 where pieces
    meet without one. Of a rim pixel no more is given to the joint, so that at every size joints cover the same.
    """
    deep = -pieces.edge[pieces.number < 0]
    if deep.size == 0:
        return 0.0
    if _CHOSEN.earlier:
        return min(1.0, 2 * float(np.quantile(deep, 0.9)) / grid.pitch_mm)
    # Across a joint, depths lie evenly between none and half its width; of joints that lie along rows of pixels only
    # some depths are met, of which the deepest tell more.
    wide = max(4 * float(deep.mean()), 2 * float(np.quantile(deep, 0.97)))
    return min(1.0, wide / grid.pitch_mm)


def painted(grid: Grid, pieces: Pieces, palette: Raster) -> Raster:
    """Each piece in its row of the palette, joints in the last; (H, W, columns of the palette)."""
    palette = np.ascontiguousarray(palette, np.float32)
    most = 1.0 if is_earlier() else joint_share(grid, pieces)
    if most == 0:
        return softened(palette[pieces.number])
    out = np.empty((*grid.shape, palette.shape[1]), np.float32)
    pitch, within = np.float32(grid.pitch_mm), not _CHOSEN.earlier
    over_rows(tone_rows, grid.height_px, pieces.number, pieces.edge, palette, out, pitch, np.float32(most), within)
    return out
