"""Fresh pictures of every main view, made from the demo job by one command."""

from __future__ import annotations

import argparse
import logging
import sys
import tempfile
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path

from PyQt6.QtCore import QPoint, QSettings
from PyQt6.QtGui import QPainter
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from ..core.place.setting_out import setting_out
from ..engine.intents.light import take_preset
from ..engine.library.shipped_demo import shipped_demo
from ..engine.session import Session
from ..formats.papers import to_png
from ..view3d import rest
from .app import make_app
from .window import Window

log = logging.getLogger(__name__)


def settle(window: Window, *, seconds: float = 60) -> None:
    """Serve the window until every picture asked for has arrived."""
    until = time.monotonic() + seconds
    quiet = 0
    while time.monotonic() < until and quiet < 3:
        QTest.qWait(10)  # type: ignore[call-arg,arg-type]
        view = window.place_stage.view
        drawing = not view.idle or (
            window.desk.view.stage == "Place" and bool(view.parts) and not (view.sharp or view.failed)
        )
        solid = window.build_stage.solid
        waiting = window.desk.about_to_ask or window.place_stage.findings.waiting
        idle = solid.idle and window.desk.work.idle and not waiting and not drawing
        quiet = quiet + 1 if idle else 0


def shoot(window: Window, out: Path, name: str) -> None:
    """One picture of the window."""
    settle(window, seconds=180)
    out.mkdir(parents=True, exist_ok=True)
    picture = window.grab()
    panel = window.light.panel
    if panel.isVisible():
        # A panel of its own lies over the window, and is painted where it stands.
        painter = QPainter(picture)
        painter.drawPixmap(panel.mapToGlobal(QPoint(0, 0)) - window.mapToGlobal(QPoint(0, 0)), panel.grab())
        painter.end()
        panel.hide()
    picture.save(str(out / f"{name}.png"))
    sys.stdout.write(f"{out / name}.png\n")


View = tuple[str, Callable[[], object]]


class _Guide:
    """Turns the window to each of its main views."""

    def __init__(self, window: Window) -> None:
        self.window, self.desk = window, window.desk
        self.build, self.gather, self.place = window.build_stage, window.gather_stage, window.place_stage

    def at(self, stage: str, **chosen: str) -> None:
        self.desk.selection.choose(**chosen)
        self.desk.go(stage)

    def maps(self) -> None:
        self.at("Gather", source="render-scan")
        card = self.gather.source_card
        for section in (card.frame, card.line):
            section.head.setChecked(False)
        card.maps_section.unfold()
        card.colour_section.unfold()

    def strewn(self) -> None:
        self.at("Gather", source="strandline")
        self.gather.scatter.choose("laid-1")
        self.gather.scatter_card.kinds_section.head.setChecked(False)

    def rig(self) -> None:
        self.at("Gather", source="render-scan")
        self.gather.rig_button.setChecked(True)
        self.gather.moved()
        self.gather.rig.controls["sample"].choices.buttons["Ribbed copper"].click()
        self.gather.rig.start()

    def repeat(self, step: str, source: str) -> None:
        self.at("Repeat", source=source)
        self.desk.view.set_step(step)

    def recipe(self) -> None:
        self.at("Build", surface="terrazzo-floor", layer="terrazzo-floor-layer")
        self.build.open_recipe(True)
        self.build.recipe.choose("veins")

    def rules(self) -> None:
        self.build.open_recipe(False)
        self.at("Build", surface="sign", layer="letters")
        self.desk.selection.rule_id = "letters-gone"
        self.build.layer_card.show_again()
        settle(self.window)
        if self.build.layer_card.rules:
            self.build.layer_card.ensureWidgetVisible(self.build.layer_card.rules, 0, 360)
        self.window.actions_.show_extent("Cell")

    def library(self) -> None:
        self.at("Build", surface="deck", layer="rope")
        self.window.actions_.show_extent("Cell")
        self.build.open_library(True)

    def solid(self) -> None:
        self.build.open_library(False)
        self.at("Build", surface="copper-roof", layer="brown-runs")
        self.window.actions_.show_extent("Solid")

    def lit(self) -> None:
        self.at("Build", surface="dado", layer="limewash")
        self.window.actions_.show_extent("Cell")
        self.desk.dispatch(take_preset("Two strips"))
        settle(self.window)
        self.window.light.open()

    def outside(self) -> None:
        self.at("Place", part="roof")
        eye = self.desk.job.scene.eyes[-1]
        self.place.view.stand_at(eye.at, eye.toward, eye.angle)

    def fitting(self) -> None:
        self.at("Place", part="south-wall")
        card = self.place.laid_card
        card.laid_id = "tile"
        self.place.show_laid()
        settle(self.window)
        if self.place.elevation.marks.slivers:
            self.place.elevation.sliver_chosen.emit(self.place.elevation.marks.slivers[0])
        if card.fit is not None:
            card.fit.direction.show_value("along")
            card.fit.turn("along")
        if not self.place.findings.unfolded:
            self.place.findings.fold()

    def views(self) -> list[View]:
        return [
            ("1-gather", partial(self.at, "Gather", source="mosaic")),
            ("1-gather-maps", self.maps),
            ("1-gather-strewn", self.strewn),
            ("1-gather-rig", self.rig),
            ("2-repeat-choose", partial(self.repeat, "choose", "shingle")),
            ("2-repeat", partial(self.repeat, "mend", "shingle")),
            ("2-repeat-touch", partial(self.repeat, "touch", "shingle")),
            ("2-repeat-break", partial(self.repeat, "break", "strandline")),
            ("3-build", partial(self.at, "Build", surface="dado", layer="limewash")),
            ("3-recipe", self.recipe),
            ("3-build-rules", self.rules),
            ("3-build-library", self.library),
            ("3-build-solid", self.solid),
            ("3-build-light", self.lit),
            ("4-place", partial(self.at, "Place", part="north-wall")),
            ("4-place-outside", self.outside),
            ("5-hand-over", partial(self.at, "Hand over", surface="dado")),
            # The last, as it walks up to a wall.
            ("4-place-fit", self.fitting),
        ]


IN_LAMP: tuple[str, ...] = ()
"""Views that are also shown in the lamp tokens."""
SHEET = "4-setting-out"


def take(out: Path, *, lamp: bool, scale: float, size: tuple[int, int], only: tuple[str, ...] = ()) -> None:
    """All pictures in one set of tokens."""
    app = make_app(lamp=lamp, scale=scale)
    window = Window(Session(shipped_demo()), ask=False)
    window.resize(*size)
    window.show()
    QApplication.processEvents()
    for name, go in _Guide(window).views():
        if only and name not in only:
            continue
        go()
        shoot(window, out, name + ("-lamp" if lamp else ""))
        window.desk.session.store.undo()
        window.actions_.show_extent("Field 3×3")
    if not lamp and (not only or SHEET in only):
        _sheet(window, out)
    window.close_down()
    window.deleteLater()
    app.processEvents()


def _sheet(window: Window, out: Path) -> None:
    """The setting-out sheet of a wall, as it is printed."""
    window.desk.go("Place")
    settle(window)
    site = window.place_stage.site
    if site is not None:
        (out / f"{SHEET}.png").write_bytes(to_png(setting_out(site, "south-wall", 2), 100))
        sys.stdout.write(f"{out / SHEET}.png\n")


def main() -> None:
    """Take the pictures of the README."""
    # Clean enough to be looked at, and done in good time.
    rest.PASSES = 40
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
    # Held to the end: where it goes between two sets of pictures, a display of this process alone goes with it.
    app = make_app(lamp=options.lamp, scale=options.scale)
    if not options.lamp:
        take(options.out, lamp=False, scale=options.scale, size=(width, height), only=tuple(options.only))
    lamp = tuple(name for name in options.only or IN_LAMP if options.lamp or name in IN_LAMP)
    if lamp:
        take(options.out, lamp=True, scale=options.scale, size=(width, height), only=lamp)
    app.quit()


if __name__ == "__main__":
    main()
