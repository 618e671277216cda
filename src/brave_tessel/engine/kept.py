"""The bytes kept with a job: pictures, drawings, models. Every one goes through here."""

from __future__ import annotations

import threading
from collections.abc import Callable, Mapping
from types import MappingProxyType

from ..formats.job_file import blob_name

Safeguard = Callable[[str, bytes], None]
"""Puts bytes where they survive a crash."""


class KeptFiles:
    """Add-only and safe to use from every thread. ``view`` is what a snapshot holds: it never changes.

    Bytes are safeguarded *before* their name is given out, so that no saved change can refer to bytes that a crash
    would take away.
    """

    def __init__(self, blobs: Mapping[str, bytes] | None = None, *, safeguard: Safeguard | None = None) -> None:
        self._blobs: Mapping[str, bytes] = MappingProxyType(dict(blobs or {}))
        self._safeguard = safeguard
        self._lock = threading.Lock()

    def keep(self, data: bytes) -> str:
        """Keep bytes; returns their name, which is a hash of their content."""
        name = blob_name(data)
        if name in self._blobs:
            return name
        if self._safeguard is not None:
            self._safeguard(name, data)
        with self._lock:
            self._blobs = MappingProxyType({**self._blobs, name: data})
        return name

    @property
    def view(self) -> Mapping[str, bytes]:
        """Everything kept by now, by name."""
        return self._blobs
