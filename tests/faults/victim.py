"""A process with the real window that works without rest and keeps its own log, to be killed; and the one after it.

``python -m tests.faults.victim work FOLDER SEED`` changes, paints, undoes, adds pictures and saves until it is ended.
``python -m tests.faults.victim recover FOLDER`` starts as after a crash, takes what is offered, and says what it got.
"""

from __future__ import annotations

import json
import os
import random
import sys
import time
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

import numpy as np
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QMessageBox

from brave_tessel.core.buildup.kinds.painted import PaintedWhat
from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.job.commands import Insert, Set
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Stroke, Surface
from brave_tessel.engine.intents.sources import add_source
from brave_tessel.engine.session import Session
from brave_tessel.formats.documents import encode_job
from brave_tessel.formats.images import encode_png
from brave_tessel.formats.job_file import OpenedJob, blob_name
from brave_tessel.ui.app import make_app, offer_recovery
from brave_tessel.ui.window import Window


def mark(job: Job) -> str:
    """What tells one state of a job from another."""
    return blob_name(encode_job(job))


class Worker:
    """Works on a small job as a person would, quickly, and logs every state before it is there."""

    def __init__(self, folder: Path, seed: int) -> None:
        self.folder, self.random = folder, random.Random(seed)
        self.log = (folder / "log").open("a", buffering=1)
        self.app = make_app(lamp=False, scale=1.0)
        layers = (Layer(id="plain", name="Plain", what=PlainWhat()), Layer(id="paint", name="P", what=PaintedWhat()))
        surface = Surface(id="s", name="Wall", width_mm=400.0, height_mm=300.0, layers=layers)
        self.session = Session(OpenedJob(Job(id="job", surfaces=(surface,))), journal=True)
        self.window = Window(self.session, ask=False)
        self.window.desk.view.set_preview(256)
        self.window.show()
        self.note(self.session.job)
        self.count = 0

    def note(self, job: Job, *, saved: str = "") -> None:
        self.log.write(json.dumps({"at": time.time(), "mark": mark(job), "saved": saved}) + "\n")

    def dispatch(self, command) -> None:
        self.note(command.apply(self.session.job))
        self.window.desk.dispatch(command)

    def rename(self) -> None:
        self.dispatch(Set(path=("name",), value=f"Job {self.random.random():.6f}", label="Rename the job"))

    def recolour(self) -> None:
        colour = f"#{self.random.randrange(1 << 24):06X}"
        self.dispatch(Set(path=("surfaces", "s", "layers", "plain", "what", "colour"), value=colour, label="Colour"))

    def paint(self) -> None:
        self.count += 1
        way = ("surfaces", "s", "layers", "paint", "what", "strokes")
        points = [(self.random.uniform(0, 400), self.random.uniform(0, 300))]
        stroke = Stroke(id=f"k{self.count}", points=tuple(points), size_mm=30.0)
        self.dispatch(Insert(path=way, item=stroke, label="Paint", gesture=stroke.id))
        for _ in range(self.random.randrange(12)):
            points.append((points[-1][0] + 3, points[-1][1] + self.random.uniform(-4, 4)))
            more = Stroke(id=stroke.id, points=tuple(points), size_mm=30.0)
            self.dispatch(Set(path=(*way, stroke.id), value=more, label="Paint", gesture=stroke.id))
            QTest.qWait(2)

    def undo(self) -> None:
        self.session.store.undo()
        self.note(self.session.job)

    def add_picture(self) -> None:
        self.count += 1
        path = self.folder / f"picture {self.count}.png"
        codes = np.random.default_rng(self.count).integers(0, 256, (24, 32, 3)).astype(np.uint8)
        path.write_bytes(encode_png(codes))
        self.dispatch(add_source(self.session.intake().read_source(path)))

    def save(self) -> None:
        path = self.folder / "job.tessel"
        job = self.session.job
        self.window.save_job(path, then=lambda: self.note(self.session.job, saved=mark(job)))

    def run(self) -> None:
        acts = [self.rename, self.recolour, self.paint, self.paint, self.undo, self.add_picture, self.save]
        print("working", flush=True)
        while True:
            self.random.choice(acts)()
            QTest.qWait(self.random.randrange(2, 60))


def recover(folder: Path) -> None:
    """Start as after a crash and say what was taken over."""
    app = make_app(lamp=False, scale=1.0)
    QMessageBox.question = staticmethod(lambda *_: QMessageBox.StandardButton.Yes)  # type: ignore[assignment]
    session = Session(journal=True)
    window = Window(session, ask=False)
    window.show()
    offer_recovery(window)
    job = session.job
    missing = [source.name for source in job.sources if source.blob not in session.kept.view]
    print(json.dumps({"mark": mark(job), "saved": session.store.saved, "missing": missing}), flush=True)
    window.close_down()
    app.quit()


if __name__ == "__main__":
    if sys.argv[1] == "work":
        Worker(Path(sys.argv[2]), int(sys.argv[3])).run()
    else:
        recover(Path(sys.argv[2]))
