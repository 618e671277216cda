"""Watches files on disk and says which were written and left alone since."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterable
from pathlib import Path

from watchdog.events import FileSystemEvent, FileSystemEventHandler
from watchdog.observers import Observer
from watchdog.observers.api import BaseObserver, ObservedWatch

SETTLE_S = 0.6
"""A file is told of once it has been left alone for so long: painters write in several goes."""


class FileWatch(FileSystemEventHandler):
    """``changed`` is called in a thread of its own with the paths that changed, went or came back.

    Folders are watched and not the files, since most programs write a new file beside the old one and rename it.
    """

    def __init__(self, changed: Callable[[set[str]], None]) -> None:
        self.changed = changed
        self.paths: frozenset[str] = frozenset()
        self._observer: BaseObserver | None = None
        self._watches: dict[str, ObservedWatch] = {}
        self._touched: set[str] = set()
        self._timer: threading.Timer | None = None
        self._lock = threading.Lock()

    def follow(self, paths: Iterable[str]) -> None:
        """Watch these files and no others."""
        self.paths = frozenset(paths)
        folders = {str(Path(path).parent) for path in self.paths}
        if folders and self._observer is None:
            self._observer = Observer()
            self._observer.daemon = True
            self._observer.start()
        if self._observer is None:
            return
        for folder in set(self._watches) - folders:
            self._observer.unschedule(self._watches.pop(folder))
        for folder in folders - set(self._watches):
            if Path(folder).is_dir():
                self._watches[folder] = self._observer.schedule(self, folder)

    def on_any_event(self, event: FileSystemEvent) -> None:
        """Something moved in a watched folder (called by the observer's thread)."""
        if event.event_type in {"opened", "closed_no_write"}:
            return
        touched = {str(event.src_path), str(event.dest_path)} & self.paths
        if not touched:
            return
        with self._lock:
            self._touched |= touched
            if self._timer is not None:
                self._timer.cancel()
            self._timer = threading.Timer(SETTLE_S, self._tell)
            self._timer.daemon = True
            self._timer.start()

    def _tell(self) -> None:
        with self._lock:
            touched, self._touched = self._touched, set()
        if touched:
            self.changed(touched)

    def stop(self) -> None:
        """Watch nothing any more."""
        with self._lock:
            if self._timer is not None:
                self._timer.cancel()
        if self._observer is not None:
            self._observer.stop()
            self._observer.join(5)
            self._observer = None
        self._watches = {}
