"""One byte-bounded cache of task results, least recently used first out."""

from __future__ import annotations

import os
import threading
from collections import OrderedDict
from typing import Any

from .memory import give_back_freed_memory, keep_freed_memory


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
LARGE_PX = 2048 * 2304
"""A sheet of more pixels than this is large: what it is made of does not all fit."""
LARGE_BYTES = 256 << 20
"""So much of what a large sheet is made of is kept: what took longest for its size, such as a net of cracks."""
ROOM_BYTES = 256 << 20
"""What is kept of other sheets while a large one is worked out."""


def pixels_of(result: Any) -> int:
    """How many pixels a raster, maps or a stack of them have; 0 of anything else."""
    grid = getattr(result, "grid", None)
    rows, columns = getattr(grid, "shape", None) or (getattr(result, "shape", ()) or (0, 0))[:2] or (0, 0)
    return int(rows) * int(columns)


class Cache:
    """Thread-safe; a result larger than a quarter of the bound is not kept, and of what a large sheet is made of only
    what took longest for its size.
    """

    def __init__(self, limit: int | None = None) -> None:
        keep_freed_memory()
        self.limit = default_bytes() if limit is None else limit
        self.used = 0
        self.run = 0
        self._by_run: dict[int, int] = {}
        self.costs: OrderedDict[bytes, float] = OrderedDict()
        self._entries: OrderedDict[bytes, tuple[Any, int, int]] = OrderedDict()
        self._large: dict[bytes, float] = {}
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

    def put(self, key: bytes, result: Any, *, ms: float | None = None) -> None:
        """Keep a result; what was used least goes when the bytes run out. ``ms`` is how long it took, where it is only
        one of many that a large sheet is made of.
        """
        weight = weigh(result)
        if weight > self.limit // 4:
            return
        with self._lock:
            if key in self._entries:
                self._forget(key)
            self._entries[key] = (result, weight, self.run)
            self._by_run[self.run] = self._by_run.get(self.run, 0) + weight
            self.used += weight
            if ms is not None and pixels_of(result) > LARGE_PX:
                self._large[key] = ms / weight
                while sum(self._entries[one][1] for one in self._large) > LARGE_BYTES:
                    self._forget(min(self._large, key=self._large.__getitem__))
            while self.used > self.limit or self._stale() > STALE_BYTES:
                self._forget(next(iter(self._entries)))

    def make_room(self) -> None:
        """Let go of what a large sheet has no use for."""
        with self._lock:
            rest = [key for key in self._entries if key not in self._large]
            for key in rest:
                if self.used - sum(self._entries[one][1] for one in self._large) <= ROOM_BYTES:
                    break
                self._forget(key)
        give_back_freed_memory()

    def _forget(self, key: bytes) -> None:
        _, weight, run = self._entries.pop(key)
        self._large.pop(key, None)
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
            self._large.clear()
            self._by_run.clear()
            self.used = 0
