"""``./dev soak --minutes M``: a long session at random in the real window; what it holds at the end and the start."""

from __future__ import annotations

import argparse
import gc
import os
import random
import sys
import tempfile
import threading
import time
from pathlib import Path
from typing import Any

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

GREW_MB = 300


def held() -> dict[str, float]:
    """Memory, open files and threads of this process."""
    status = Path("/proc/self/status").read_text()
    resident = next(int(line.split()[1]) for line in status.splitlines() if line.startswith("VmRSS"))
    return {
        "memory_mb": resident / 1024,
        "handles": len(os.listdir("/proc/self/fd")),
        "threads": threading.active_count(),
    }


class Soak:
    """Acts at random on the demo job."""

    def __init__(self, folder: Path, seed: int) -> None:
        from PyQt6.QtTest import QTest

        from brave_tessel.engine.library.shipped_demo import shipped_demo
        from brave_tessel.engine.session import Session
        from brave_tessel.ui.app import make_app
        from brave_tessel.ui.shots import settle
        from brave_tessel.ui.window import Window

        self.random, self.folder, self.wait, self.settle = random.Random(seed), folder, QTest.qWait, settle
        self.app = make_app(lamp=False, scale=1.0)
        self.session = Session(shipped_demo(), journal=True)
        self.window = Window(self.session, ask=False)
        self.window.preview.setCurrentIndex(self.window.preview.findData(512))
        self.window.desk.view.set_preview(512)
        self.window.show()
        settle(self.window)
        self.done: dict[str, int] = {}

    # Acts ----------------------------------------------------------------------------------------

    def stage(self) -> None:
        self.window.desk.go(self.random.choice(["Gather", "Repeat", "Build", "Build", "Build", "Place", "Hand over"]))

    def surface(self) -> None:
        self.window.desk.go("Build")
        surface = self.random.choice(self.session.job.surfaces)
        layer = self.random.choice(surface.layers) if surface.layers else None
        self.window.desk.selection.choose(surface=surface.id, layer=layer.id if layer else "")

    def source(self) -> None:
        source = self.random.choice(self.session.job.sources)
        self.window.desk.selection.choose(source=source.id)

    def dial(self) -> None:
        """Drag a dial of the layer's card."""
        card = self.window.build_stage.layer_card
        forms = [form for form, _ in card.forms if form.controls]
        if self.window.desk.view.stage != "Build" or not forms:
            return
        form = self.random.choice(forms)
        name, control = self.random.choice(list(form.controls.items()))
        param = getattr(control, "param", None)
        if param is not None and param.kind in {"length", "fraction", "angle"}:
            for _ in range(6):
                form.changed.emit(name, self.random.uniform(param.low, param.high))
                self.wait(15)
            form.released.emit()

    def view(self) -> None:
        from brave_tessel.core.relief.pictures import VIEWS

        self.window.actions_.show_view(self.random.choice(list(VIEWS)))

    def undo(self) -> None:
        for _ in range(self.random.randrange(1, 5)):
            self.session.store.undo()

    def redo(self) -> None:
        self.session.store.redo()

    def save(self) -> None:
        self.window.save_job(self.folder / "soak.tessel")

    def reopen(self) -> None:
        path = self.folder / "soak.tessel"
        if path.exists() and self.random.random() < 0.3:
            self.window.open_job(path)

    def recipe(self) -> None:
        if self.window.desk.view.stage == "Build":
            self.window.build_stage.open_recipe(not self.window.desk.selection.recipe_open)

    def act(self) -> None:
        acts = [self.stage, self.surface, self.surface, self.source, self.dial, self.dial, self.dial, self.view]
        acts += [self.undo, self.redo, self.save, self.reopen, self.recipe]
        chosen = self.random.choice(acts)
        chosen()
        self.done[chosen.__name__] = self.done.get(chosen.__name__, 0) + 1
        if self.random.random() < 0.3:
            self.settle(self.window)
        else:
            self.wait(self.random.randrange(5, 150))

    # Figures -------------------------------------------------------------------------------------

    def rest(self) -> dict[str, float]:
        """What is held when everything is done and what can be made again is dropped."""
        from brave_tessel.engine.memory import give_back_freed_memory

        self.window.desk.go("Build")
        self.settle(self.window)
        self.session.cache.clear()
        gc.collect()
        give_back_freed_memory()
        return {**held(), "answer_ms": self.answer_ms()}

    def answer_ms(self) -> float:
        """From a change to everything shown, the middle of five."""
        spent = []
        surface = self.session.job.surfaces[0]
        self.window.desk.selection.choose(surface=surface.id, layer=surface.layers[-1].id)
        self.settle(self.window)
        for level in (0.1, 0.2, 0.3, 0.4, 0.5):
            begun = time.perf_counter()
            self.window.build_stage.layer_card.put(("seat", "values", "level"), level, "Level")
            self.settle(self.window)
            spent.append((time.perf_counter() - begun) * 1000)
            self.session.store.undo()
            self.settle(self.window)
        return sorted(spent)[2]

    def close(self) -> None:
        self.window.close_down()


def soak(minutes: float, seed: int) -> tuple[dict[str, float], dict[str, float], dict[str, int]]:
    """Figures at the start and at the end, and how often each act was done."""
    with tempfile.TemporaryDirectory() as folder:
        os.environ["XDG_STATE_HOME"] = folder
        made = Soak(Path(folder), seed)
        first = made.rest()
        until = time.monotonic() + 60 * minutes
        while time.monotonic() < until:
            made.act()
        last = made.rest()
        made.close()
    return first, last, made.done


def main(arguments: list[str] | None = None) -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--minutes", type=float, default=20.0)
    parser.add_argument("--seed", type=int, default=1)
    options: Any = parser.parse_args(arguments)
    first, last, done = soak(options.minutes, options.seed)
    print(f"{'':12}{'start':>10}{'end':>10}")
    for name in first:
        print(f"{name:12}{first[name]:10.0f}{last[name]:10.0f}")
    print(f"{sum(done.values())} acts: " + ", ".join(f"{name} {count}" for name, count in sorted(done.items())))
    grew = last["memory_mb"] - first["memory_mb"]
    print(f"grew by {grew:.0f} MB (aim: at most {GREW_MB})")
    return int(grew > GREW_MB)


if __name__ == "__main__":
    sys.exit(main())
