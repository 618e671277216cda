"""How long work says how far it is, and stops when it is overtaken, without knowing who asked.

The engine sets a watch for the thread that works; loops call :func:`step`.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from .errors import CancelledError

Watch = Callable[[float], bool]
"""Told a share in [0, 1]; answers whether to go on."""
_WATCH: ContextVar[Watch | None] = ContextVar("watch", default=None)


@contextmanager
def watched(watch: Watch) -> Iterator[None]:
    """Everything in the block reports to ``watch``."""
    token = _WATCH.set(watch)
    try:
        yield
    finally:
        _WATCH.reset(token)


def step(share: float) -> None:
    """Say how far the work is.

    Raises
    ------
    CancelledError
        when nobody wants it any more.
    """
    watch = _WATCH.get()
    if watch is not None and not watch(share):
        raise CancelledError
