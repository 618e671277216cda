"""Fresh pictures of every main view, made from the demo job by one command."""

from __future__ import annotations

import argparse
import logging
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QSettings
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from ..demo.job import demo_job
from ..engine.session import Session
from .app import make_app
from .stages.build import BuildStage
from .stages.gather import GatherStage
from .stages.place import PlaceStage
from .window import Window

log = logging.getLogger(__name__)


def settle(window: Window, *, seconds: float = 60) -> None:
    """Serve the window until every picture asked for has arrived."""
    until = time.monotonic() + seconds
    quiet = 0
    while time.monotonic() < until and quiet < 3:
        QTest.qWait(30)  # type: ignore[call-arg,arg-type]
        view = window.stages["Place"].view  # type: ignore[attr-defined]
        drawing = not view.idle or (window.desk.stage == "Place" and bool(view.parts) and not (view.sharp or view.failed))
        idle = window.desk.worker.idle and not window.desk._soon.isActive() and not drawing
        quiet = quiet + 1 if idle else 0


def shoot(window: Window, out: Path, name: str) -> None:
    """One picture of the window."""
    settle(window)
    out.mkdir(parents=True, exist_ok=True)
    window.grab().save(str(out / f"{name}.png"))
    sys.stdout.write(f"{out / name}.png\n")


def _views(window: Window) -> list[tuple[str, Callable[[], None]]]:
    build, place = window.stages["Build"], window.stages["Place"]
    assert isinstance(build, BuildStage)
    assert isinstance(place, PlaceStage)
    desk = window.desk

    def at(stage: str, **chosen: str) -> Callable[[], None]:
        def go() -> None:
            desk.select(**chosen)
            desk.go(stage)

        return go

    def wall() -> None:
        at("Build", surface="dado", layer="limewash")()
        window.actions_.show_extent("Wall 6 m")

    def put_right() -> None:
        at("Gather", source="render-scan")()
        gather = window.stages["Gather"]
        assert isinstance(gather, GatherStage)
        gather.source_card.frame.head.setChecked(False)
        gather.source_card.line.head.setChecked(False)
        gather.source_card.maps_section.unfold()
        gather.source_card.colour_section.unfold()

    def strewn() -> None:
        at("Gather", source="strandline")()
        gather = window.stages["Gather"]
        assert isinstance(gather, GatherStage)
        gather.scatter.choose("laid-1")
        gather.scatter_card.kinds_section.head.setChecked(False)

    def rig() -> None:
        at("Gather", source="render-scan")()
        gather = window.stages["Gather"]
        assert isinstance(gather, GatherStage)
        gather.rig_button.setChecked(True)
        gather.show_job(desk.job)
        gather.rig.controls["sample"].choices.buttons["Ribbed copper"].click()
        gather.rig.start()

    def repeat(step: str, source: str) -> Callable[[], None]:
        def go() -> None:
            at("Repeat", source=source)()
            desk.set_step(step)

        return go

    def reference() -> None:
        repeat("mend", "shingle")()
        window.reference.pin("mosaic")

    def recipe() -> None:
        at("Build", surface="terrazzo-floor")()
        build.open_recipe(True)
        build.recipe.choose("veins")

    def close_recipe() -> None:
        build.open_recipe(False)
        at("Build", surface="slate-roof")()
        window.actions_.show_extent("Cell")

    return [
        ("1-gather", at("Gather", source="mosaic")),
        ("1-gather-maps", put_right),
        ("1-gather-strewn", strewn),
        ("1-gather-rig", rig),
        ("2-repeat-choose", repeat("choose", "shingle")),
        ("2-repeat", repeat("mend", "shingle")),
        ("2-repeat-touch", repeat("touch", "shingle")),
        ("2-repeat-break", repeat("break", "strandline")),
        ("2-repeat-reference", reference),
        ("3-build", at("Build", surface="dado", layer="limewash")),
        ("3-build-photo", at("Build", surface="shingle-bed")),
        ("3-recipe", recipe),
        ("3-build-slates", close_recipe),
        ("3-build-wall", wall),
        ("4-place", at("Place", part="north-dado")),
        ("5-hand-over", at("Hand over", surface="dado")),
    ]


IN_LAMP = ("3-build",)
"""Views that are also shown in the lamp tokens."""


def take(out: Path, *, lamp: bool, scale: float, size: tuple[int, int], only: tuple[str, ...] = ()) -> None:
    """All pictures in one set of tokens."""
    app = make_app(lamp=lamp, scale=scale)
    window = Window(Session(demo_job()), ask=False)
    window.resize(*size)
    window.show()
    QApplication.processEvents()
    for name, go in _views(window):
        if only and name not in only:
            continue
        go()
        shoot(window, out, name + ("-lamp" if lamp else ""))
        if window.reference.pinned.source:
            window.actions_.pin_reference()
        window.desk.session.store.undo()
        window.actions_.show_extent("Field 3×3")
    window.close_down()
    window.deleteLater()
    app.processEvents()


def main() -> None:
    """Take the pictures of the README."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--out", type=Path, required=True)
    parser.add_argument("--only", nargs="*", default=[], help="names of views")
    parser.add_argument("--lamp", action="store_true")
    parser.add_argument("--scale", type=float, default=1.0)
    parser.add_argument("--size", default="1280x800")
    options = parser.parse_args()
    QSettings.setDefaultFormat(QSettings.Format.IniFormat)
    QSettings.setPath(QSettings.Format.IniFormat, QSettings.Scope.UserScope, tempfile.mkdtemp())
    width, height = (int(side) for side in options.size.split("x"))
    if not options.lamp:
        take(options.out, lamp=False, scale=options.scale, size=(width, height), only=tuple(options.only))
    lamp = tuple(name for name in options.only or IN_LAMP if options.lamp or name in IN_LAMP)
    if lamp:
        take(options.out, lamp=True, scale=options.scale, size=(width, height), only=lamp)


if __name__ == "__main__":
    main()
