"""Row bands on a few threads. Kernels release the interpreter, so bands run side by side."""

from __future__ import annotations

import os
import threading
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from functools import wraps
from typing import TypeVar

import numpy as np

from ..sheet import AnyArray, Raster

_WORKERS = max(1, min(8, os.cpu_count() or 1))


class _Here(threading.local):
    in_pool = False


_HERE = _Here()


def _enter_pool() -> None:
    _HERE.in_pool = True


_POOL = ThreadPoolExecutor(_WORKERS, thread_name_prefix="band", initializer=_enter_pool)
_SMALL_ROWS, _SMALL = 96, 50_000
"""What has fewer rows, or fewer elements in its largest array, is done sooner than it is handed out."""


def over_rows(kernel: Callable[..., None], rows: int, *arguments: object) -> None:
    """Call ``kernel(first, last, *arguments)`` for bands that cover ``rows``; returns when all are done.

    What is asked for in a band is done there: waiting for others from within, all could wait for one another.
    """
    most = max((one.size for one in arguments if isinstance(one, np.ndarray)), default=_SMALL)
    if rows < _SMALL_ROWS or most < _SMALL or _WORKERS == 1 or _HERE.in_pool:
        kernel(0, rows, *arguments)
        return
    step = -(-rows // _WORKERS)
    pending = [_POOL.submit(kernel, first, min(first + step, rows), *arguments) for first in range(step, rows, step)]
    # The first band is done by who asks, who would only wait.
    kernel(0, step, *arguments)
    for band in pending:
        band.result()


_STRIP = 1 << 16
"""Pixels of a strip: some rasters of so many fit the processor's nearer memory together."""


def by_strips(work: Callable[..., AnyArray], *rasters: AnyArray) -> Raster:
    """What pointwise ``work`` makes of rasters of the same (H, W) and any channels: a raster (H, W, …) float32.

    It is handed strips of them side by side, which stay in the processor's nearer memory from one step to the next:
    several times quicker than whole sheets, and no whole sheet is held between steps.
    """
    rows, columns = rasters[0].shape[:2]
    step = max(1, _STRIP // columns)
    if step >= rows:
        return np.asarray(work(*rasters), np.float32)
    first = np.asarray(work(*(one[:step] for one in rasters)), np.float32)
    out = np.empty((rows, *first.shape[1:]), np.float32)
    out[:step] = first

    def strips(begin: int) -> Iterator[slice]:
        return (slice(k, k + step) for k in range((1 + begin) * step, rows, _WORKERS * step))

    def some(begin: int) -> None:
        for strip in strips(begin):
            out[strip] = work(*(one[strip] for one in rasters))

    if _HERE.in_pool:
        for begin in range(_WORKERS):
            some(begin)
        return out
    pending = [_POOL.submit(some, begin) for begin in range(1, _WORKERS)]
    some(0)
    for part in pending:
        part.result()
    return out


Pointwise = TypeVar("Pointwise", bound=Callable[..., AnyArray])


def pointwise(function: Pointwise) -> Pointwise:
    """Mark a function of a grid and rasters that looks at each pixel alone: it is done by strips. The grid it is given
    stays that of the whole sheet, and counts for its pitch only.
    """

    @wraps(function)
    def strip_by_strip(grid: object, *rasters: AnyArray, **values: object) -> Raster:
        return by_strips(lambda *strips: function(grid, *strips, **values), *rasters)

    strip_by_strip.pointwise = True  # type: ignore[attr-defined]
    return strip_by_strip  # type: ignore[return-value]
