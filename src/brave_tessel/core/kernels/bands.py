"""Row bands on a few threads. Kernels release the interpreter, so bands run side by side."""

from __future__ import annotations

import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor

_WORKERS = max(1, min(8, os.cpu_count() or 1))
_POOL = ThreadPoolExecutor(_WORKERS, thread_name_prefix="band")
_SMALL_ROWS = 96


def over_rows(kernel: Callable[..., None], rows: int, *arguments: object) -> None:
    """Call ``kernel(first, last, *arguments)`` for bands that cover ``rows``; returns when all are done."""
    if rows < _SMALL_ROWS or _WORKERS == 1:
        kernel(0, rows, *arguments)
        return
    step = -(-rows // _WORKERS)
    pending = [_POOL.submit(kernel, first, min(first + step, rows), *arguments) for first in range(0, rows, step)]
    for band in pending:
        band.result()
