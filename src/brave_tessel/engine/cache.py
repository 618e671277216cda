"""One byte-bounded cache of task results, least recently used first out."""

from __future__ import annotations

import threading
from collections import OrderedDict
from typing import Any

DEFAULT_BYTES = 3 << 30


def weigh(result: Any) -> int:
    """Bytes a result holds."""
    return int(getattr(result, "nbytes", 0)) or 256


class Cache:
    """Thread-safe; a result larger than a quarter of the bound is not kept."""

    def __init__(self, limit: int = DEFAULT_BYTES) -> None:
        self.limit = limit
        self.used = 0
        self.costs: OrderedDict[bytes, float] = OrderedDict()
        self._entries: OrderedDict[bytes, tuple[Any, int]] = OrderedDict()
        self._lock = threading.Lock()

    def get(self, key: bytes) -> Any | None:
        with self._lock:
            entry = self._entries.get(key)
            if entry is None:
                return None
            self._entries.move_to_end(key)
            return entry[0]

    def put(self, key: bytes, result: Any) -> None:
        weight = weigh(result)
        if weight > self.limit // 4:
            return
        with self._lock:
            if key in self._entries:
                self.used -= self._entries.pop(key)[1]
            self._entries[key] = (result, weight)
            self.used += weight
            while self.used > self.limit:
                _, (_, gone) = self._entries.popitem(last=False)
                self.used -= gone

    def note_cost(self, key: bytes, ms: float) -> None:
        """Remember how long a result took; the last few thousand are kept."""
        with self._lock:
            self.costs[key] = ms
            while len(self.costs) > 8000:
                self.costs.popitem(last=False)

    def clear(self) -> None:
        with self._lock:
            self._entries.clear()
            self.used = 0
