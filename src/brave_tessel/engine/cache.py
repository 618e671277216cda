"""One byte-bounded cache of task results, least recently used first out."""

from __future__ import annotations

import os
import threading
from collections import OrderedDict
from typing import Any

from .memory import keep_freed_memory


def default_bytes() -> int:
    """A quarter of the machine's memory, between 2 and 8 GiB: twelve layers at 2048² fit in 6."""
    try:
        memory = os.sysconf("SC_PAGE_SIZE") * os.sysconf("SC_PHYS_PAGES")
    except (ValueError, OSError):
        memory = 12 << 30
    return min(8 << 30, max(2 << 30, memory // 4))


def weigh(result: Any) -> int:
    """Bytes a result holds."""
    return int(getattr(result, "nbytes", 0)) or 256


RECENT_RUNS = 5
"""Runs whose results count as recent: coarse, half, whole and the small pictures of one change, and the one that asks.
Fewer, and what lies beneath a changed layer would be worked out anew at every change.
"""
STALE_BYTES = 800 << 20
"""What no recent run has asked for is kept up to so much; beyond that its memory serves the next pictures, which is
quicker than touching memory for the first time.
"""


class Cache:
    """Thread-safe; a result larger than a quarter of the bound is not kept."""

    def __init__(self, limit: int | None = None) -> None:
        keep_freed_memory()
        self.limit = default_bytes() if limit is None else limit
        self.used = 0
        self.run = 0
        self._by_run: dict[int, int] = {}
        self.costs: OrderedDict[bytes, float] = OrderedDict()
        self._entries: OrderedDict[bytes, tuple[Any, int, int]] = OrderedDict()
        self._lock = threading.Lock()

    def get(self, key: bytes) -> Any | None:
        """A result by its key, marked as used; None where it is not there."""
        with self._lock:
            entry = self._entries.get(key)
            if entry is None:
                return None
            self._touch(key, entry)
            return entry[0]

    def begin_run(self) -> None:
        """A new evaluation begins; what the last few asked for counts as recent."""
        with self._lock:
            self.run += 1

    def _touch(self, key: bytes, entry: tuple[Any, int, int]) -> None:
        result, weight, run = entry
        left = self._by_run[run] - weight
        if left or run == self.run:
            self._by_run[run] = left
        else:
            del self._by_run[run]
        self._by_run[self.run] = self._by_run.get(self.run, 0) + weight
        self._entries[key] = (result, weight, self.run)
        self._entries.move_to_end(key)

    def _stale(self) -> int:
        return self.used - sum(self._by_run.get(run, 0) for run in range(self.run - RECENT_RUNS + 1, self.run + 1))

    def put(self, key: bytes, result: Any) -> None:
        """Keep a result; what was used least goes when the bytes run out."""
        weight = weigh(result)
        if weight > self.limit // 4:
            return
        with self._lock:
            if key in self._entries:
                self._forget(self._entries.pop(key))
            self._entries[key] = (result, weight, self.run)
            self._by_run[self.run] = self._by_run.get(self.run, 0) + weight
            self.used += weight
            while self.used > self.limit or self._stale() > STALE_BYTES:
                self._forget(self._entries.popitem(last=False)[1])

    def _forget(self, entry: tuple[Any, int, int]) -> None:
        _, weight, run = entry
        self.used -= weight
        self._by_run[run] -= weight
        if not self._by_run[run]:
            del self._by_run[run]

    def note_cost(self, key: bytes, ms: float) -> None:
        """Remember how long a result took; the last few thousand are kept."""
        with self._lock:
            self.costs[key] = ms
            while len(self.costs) > 8000:
                self.costs.popitem(last=False)

    def clear(self) -> None:
        """Drop everything."""
        with self._lock:
            self._entries.clear()
            self._by_run.clear()
            self.used = 0
