"""Row bands on a few threads. Kernels release the interpreter, so bands run side by side."""

from __future__ import annotations

import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor

import numpy as np

_WORKERS = max(1, min(8, os.cpu_count() or 1))
_POOL = ThreadPoolExecutor(_WORKERS, thread_name_prefix="band")
_SMALL_ROWS, _SMALL = 96, 50_000
"""What has fewer rows, or fewer elements in its largest array, is done sooner than it is handed out."""


def over_rows(kernel: Callable[..., None], rows: int, *arguments: object) -> None:
    """Call ``kernel(first, last, *arguments)`` for bands that cover ``rows``; returns when all are done."""
    most = max((one.size for one in arguments if isinstance(one, np.ndarray)), default=_SMALL)
    if rows < _SMALL_ROWS or most < _SMALL or _WORKERS == 1:
        kernel(0, rows, *arguments)
        return
    step = -(-rows // _WORKERS)
    pending = [_POOL.submit(kernel, first, min(first + step, rows), *arguments) for first in range(step, rows, step)]
    # The first band is done by who asks, who would only wait.
    kernel(0, step, *arguments)
    for band in pending:
        band.result()
