"""How long the window does not answer while a person acts: the longest turn of its event loop, on the demo."""

from __future__ import annotations

import functools
import tempfile
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import cv2
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication
from skimage import data

from brave_tessel.ui.window import Window

from .window import Timer, shown_window

Act = Callable[[Window], None]
QUIET_TURNS = 150


def longest_turn(window: Window, act: Callable[[], object]) -> float:
    """The longest time, ms, between two moments in which the window would have answered, from an act until all that
    comes of it is shown.
    """
    longest, begun, quiet = 0.0, time.perf_counter(), 0
    act()
    while quiet < QUIET_TURNS and time.perf_counter() < begun + 60:
        QApplication.processEvents()
        now = time.perf_counter()
        longest = max(longest, now - begun)
        time.sleep(0.001)
        begun = time.perf_counter()
        quiet = quiet + 1 if window.desk.work.idle and not window.desk.about_to_ask else 0
    return longest * 1000


def stall(stage: str, act: Act, *, times: int = 3) -> Callable[[Timer], float]:
    """The longest of several of the same act."""

    def run(_timer: Timer) -> float:
        window = shown_window()
        window.desk.go(stage)
        _folder()
        longest_turn(window, lambda: None)
        return max(longest_turn(window, lambda: act(window)) for _ in range(times))

    return run


def add_layer(window: Window) -> None:
    window.build_stage.layers.lay_on("Special", "Plain colour")


def rename(window: Window) -> None:
    QTest.keyClick(window, Qt.Key.Key_F2)
    field = window.build_stage.list.name_field
    assert field is not None
    QTest.keyClicks(field, f"Lime {time.monotonic():.0f}")
    QTest.keyClick(field, Qt.Key.Key_Return)


def type_level(window: Window) -> None:
    window.desk.selection.choose(surface="dado", layer="limewash")
    form = next(f for f, _ in window.build_stage.layer_card.forms if "level" in f.controls)
    field = form.controls["level"].field
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, f"0.{1 + int(time.monotonic() * 10) % 8}1")
    QTest.keyClick(field, Qt.Key.Key_Return)


def undo(window: Window) -> None:
    QTest.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)


def other_layer(window: Window) -> None:
    chosen = window.desk.selection.layer_id
    window.desk.selection.choose(layer="algae" if chosen == "limewash" else "limewash")


def other_surface(window: Window) -> None:
    chosen = window.desk.selection.surface_id
    window.desk.selection.choose(surface="deck" if chosen == "dado" else "dado")


def hide(window: Window) -> None:
    window.desk.selection.choose(surface="dado", layer="limewash")
    layer = window.desk.selection.layer
    assert layer is not None
    window.build_stage.list.eye_clicked.emit("limewash", not layer.shown)


def other_source(window: Window) -> None:
    ids = [source.id for source in window.desk.job.sources]
    at = ids.index(window.desk.selection.source_id) if window.desk.selection.source_id in ids else -1
    window.desk.selection.choose(source=ids[(at + 1) % len(ids)])


@functools.cache
def _folder() -> Path:
    """Sixty files of twelve sets, of 512 pixels."""
    folder = Path(tempfile.mkdtemp())
    picture = cv2.resize(data.gravel(), (512, 512))
    for number in range(12):
        for role in ("albedo", "normal", "roughness", "height", "ao"):
            cv2.imwrite(str(folder / f"wall_{number:02d}_{role}.png"), picture)
    return folder


def drop_folder(window: Window) -> None:
    window.desk.gather.read([_folder()])


def other_stage(window: Window) -> None:
    stages = ("Gather", "Repeat", "Build", "Place", "Hand over")
    window.desk.go(stages[(stages.index(window.desk.view.stage) + 1) % len(stages)])


def touch_up(window: Window) -> None:
    board = window.repeat_stage.pair
    middle = QPoint(board.width() // 4, board.height() // 2)
    QTest.mousePress(board, Qt.MouseButton.LeftButton, pos=middle)
    for step in range(8):
        QTest.mouseMove(board, middle + QPoint(6 * step, 3 * step))
    QTest.mouseRelease(board, Qt.MouseButton.LeftButton, pos=middle + QPoint(48, 24))


def actions() -> Iterator[tuple[str, Callable[[Timer], float], str]]:
    """Each the longest time without an answer, 1280 × 800."""
    for name, stage, act in (
        ("lay a layer on", "Build", add_layer),
        ("give a layer a name", "Build", rename),
        ("type a level", "Build", type_level),
        ("take back", "Build", undo),
        ("choose another layer", "Build", other_layer),
        ("choose another surface", "Build", other_surface),
        ("hide or show a layer", "Build", hide),
        ("choose another source", "Gather", other_source),
        ("drop a folder of twelve sets", "Gather", drop_folder),
        ("choose another source in Repeat", "Repeat", other_source),
        ("turn to another stage", "Build", other_stage),
    ):
        yield f"stall: {name}", stall(stage, act, times=5 if act is other_stage else 3), "50"
