"""Reference cycles are cleared away in the window's thread only."""

from __future__ import annotations

import gc

from PyQt6.QtCore import QObject, QTimer

EVERY_MS = 200


class Tidying(QObject):
    """Takes the interpreter's own collection over while the application runs.

    Left to itself, the interpreter clears cycles in whichever thread happens to allocate. In a worker's thread it would
    take apart widgets and timers that belong to the window's, and the two can then wait for each other for ever.
    Besides, a brush stroke or a drag is no longer held up by a full collection in the midst of it.
    """

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        gc.disable()
        self.timer = QTimer(self)
        self.timer.setInterval(EVERY_MS)
        self.timer.timeout.connect(tidy)
        self.timer.start()


def tidy() -> None:
    """Collect the generations that are due, by the interpreter's own thresholds."""
    due = [held > threshold for held, threshold in zip(gc.get_count(), gc.get_threshold(), strict=True)]
    for generation in (2, 1, 0):
        if due[generation]:
            gc.collect(generation)
            return
