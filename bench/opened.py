"""The demo opened in Build in a program of its own, and every surface chosen for the first time; figures as JSON.

``stored`` is the picture kept with the job, ``first`` the first that is worked out, ``sharp`` and ``slowest`` the
median and the longest time to a surface's full size, ms; ``most`` and ``held`` what the program holds at its most, and
once nothing has been asked for a while, MB.
"""

from __future__ import annotations

import json
import os
import statistics
import sys
import time
from collections.abc import Callable
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from brave_tessel.engine.library.shipped_demo import shipped_demo
from brave_tessel.engine.memory import keep_freed_memory
from brave_tessel.engine.session import Session
from brave_tessel.ui.app import make_app
from brave_tessel.ui.shots import settle
from brave_tessel.ui.window import Window
from brave_tessel.ui.workroom import REST_MS

SECONDS = 60


def held_mb() -> float:
    """Resident memory of this program, MB."""
    status = Path("/proc/self/status").read_text(encoding="utf-8")
    return int(status.split("VmRSS:")[1].split()[0]) / 1024


def until(true: Callable[[], bool], begun: float) -> float:
    """Serve the window until something holds; ms since a time."""
    limit = time.perf_counter() + SECONDS
    while not true() and time.perf_counter() < limit:
        QApplication.processEvents()
        time.sleep(0.0005)
    return (time.perf_counter() - begun) * 1000


def main() -> None:
    keep_freed_memory()
    app = make_app()
    begun, found = time.perf_counter(), {}
    window = Window(Session(shipped_demo()))
    window.resize(1280, 800)
    window.desk.go("Build")
    window.show()
    build, selection = window.build_stage, window.desk.selection
    found["stored"] = until(lambda: bool(build.surface_board.mips), begun)
    found["first"] = until(lambda: build.done is not None, begun)
    settle(window)
    times, most = [], held_mb()

    def sharp() -> bool:
        done = build.done
        return (
            done is not None
            and done.surface is selection.surface
            and max(done.grid.shape) == window.desk.view.preview_px
        )

    for surface in window.desk.job.surfaces[1:]:
        begun = time.perf_counter()
        build.picker.setCurrentIndex(build.picker.findData(surface.id))
        build.picker.activated.emit(build.picker.currentIndex())
        times.append(until(sharp, begun))
        settle(window)
        most = max(most, held_mb())
    QTest.qWait(REST_MS + 2000)
    found |= {"sharp": statistics.median(times), "slowest": max(times), "most": most, "held": held_mb()}
    window.close_down()
    app.processEvents()
    sys.stdout.write(json.dumps(found))


if __name__ == "__main__":
    main()
