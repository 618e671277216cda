"""What a person waits for in the window, on the demo as it ships: from the event to the painted picture."""

from __future__ import annotations

import functools
import itertools
import json
import os
import statistics
import subprocess
import sys
import time
from collections.abc import Callable, Iterator

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PyQt6.QtCore import QEvent, QObject, QPoint, QPointF, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QWidget

from brave_tessel.core.job.layers import Surface
from brave_tessel.engine.library.shipped_demo import shipped_demo
from brave_tessel.engine.session import Session
from brave_tessel.ui.app import make_app
from brave_tessel.ui.shots import settle
from brave_tessel.ui.window import Window

Timer = Callable[..., float]
SECONDS = 60


class _Painted(QObject):
    """When a board was last painted, and whether the picture it then had was the one waited for."""

    def __init__(self, window: Window, board: QWidget | None = None) -> None:
        super().__init__()
        self.board, self.waiting, self.at = board or window.build_stage.surface_board, False, 0.0
        self.wanted: Callable[[], bool] = lambda: True
        self.board.installEventFilter(self)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if self.waiting and event is not None and event.type() == QEvent.Type.Paint and self.wanted():
            self.waiting, self.at = False, time.perf_counter()
        return False

    def wait(self, act: Callable[[], object], wanted: Callable[[], bool]) -> float:
        """Milliseconds from an act to the end of the paint that shows what was wanted."""
        self.wanted, self.waiting = wanted, True
        begun = time.perf_counter()
        act()
        while self.waiting and time.perf_counter() < begun + SECONDS:
            QApplication.processEvents()
            time.sleep(0.0005)
        QApplication.processEvents()
        return (self.at - begun) * 1000


_KEPT: list[object] = []


def shown_window() -> Window:
    """The window of the demo, opened once, in Build."""
    if not _KEPT:
        app = make_app()
        window = Window(Session(shipped_demo()))
        window.resize(1280, 800)
        window.show()
        settle(window)
        window.desk.go("Build")
        settle(window)
        _KEPT.extend((window, app))
    kept = _KEPT[0]
    assert isinstance(kept, Window)
    return kept


def _of_now(window: Window, *, fine: bool) -> Callable[[], bool]:
    """Whether the board has the picture of the surface as the job has it now."""
    build = window.build_stage

    def shows() -> bool:
        done, surface = build.done, window.desk.selection.surface
        if done is None or surface is None or done.surface is not surface:
            return False
        return not fine or max(done.grid.shape) == window.desk.view.preview_px

    return shows


def type_level(surface: str, layer: str, *, fine: bool) -> Callable[[Timer], float]:
    """One step of a layer's level, with the arrow key on its rule."""

    def run(_timer: Timer) -> float:
        window = shown_window()
        window.desk.selection.choose(surface=surface, layer=layer)
        settle(window)
        painted, times = _Painted(window), []
        for _ in range(5):
            form = next(f for f, _ in window.build_stage.layer_card.forms if "level" in f.controls)
            field = form.controls["level"].rule
            field.setFocus()
            times.append(
                painted.wait(lambda: QTest.keyClick(field, Qt.Key.Key_Right), _of_now(window, fine=fine))  # noqa: B023
            )
            settle(window)
        return statistics.median(times)

    return run


def drag_level(surface: str, layer: str) -> Callable[[Timer], float]:
    """A layer's level dragged, a move every 16 ms: the time between two pictures of it, and to the first."""

    def run(_timer: Timer) -> float:
        window = shown_window()
        window.desk.selection.choose(surface=surface, layer=layer)
        settle(window)
        rule = next(f for f, _ in window.build_stage.layer_card.forms if "level" in f.controls).controls["level"].rule
        middle, shown = QPoint(rule.width() // 2, rule.height() // 2), [0.0]
        window.desk.build.ready.connect(lambda _done: shown.append(time.perf_counter()))
        QTest.mousePress(rule, Qt.MouseButton.LeftButton, pos=middle)
        shown[:] = [time.perf_counter()]
        for n in range(60):
            QTest.mouseMove(rule, middle + QPoint((n % 20) * 4 - 40, 0))
            until = time.perf_counter() + 0.016
            while time.perf_counter() < until:
                QApplication.processEvents()
                time.sleep(0.0005)
        between = [(b - a) * 1000 for a, b in itertools.pairwise(shown)] or [SECONDS * 1000.0]
        QTest.mouseRelease(rule, Qt.MouseButton.LeftButton, pos=middle)
        settle(window)
        return statistics.median(between)

    return run


def choose_surface(first: str, then: str, *, fine: bool = True) -> Callable[[Timer], float]:
    """Another surface chosen that was worked out before."""

    def run(_timer: Timer) -> float:
        window = shown_window()
        for surface in (then, first):
            window.desk.selection.choose(surface=surface)
            settle(window)
        painted, picker = _Painted(window), window.build_stage.picker

        def act() -> None:
            index = picker.findData(then)
            picker.setCurrentIndex(index)
            picker.activated.emit(index)

        return painted.wait(act, _of_now(window, fine=fine))

    return run


def dab(_timer: Timer) -> float:
    """A brush stroke on the limewash: from a move of the mouse to the paint after it."""
    window = shown_window()
    window.desk.selection.choose(surface="dado", layer="limewash")
    settle(window)
    build, board = window.build_stage, window.build_stage.surface_board
    build.hand.set_painting(True)
    settle(window)
    painted, times = _Painted(window), []
    seen: list[object] = []
    window.desk.build.parts_ready.connect(seen.append)
    middle = QPointF(board.rect().center())
    QTest.mousePress(board, Qt.MouseButton.LeftButton, pos=middle.toPoint())
    for n in range(12):
        at = QPoint(round(middle.x() + 9 * n), round(middle.y() + 5 * n))
        seen.clear()
        times.append(painted.wait(lambda: QTest.mouseMove(board, at), lambda: bool(seen)))  # noqa: B023
    QTest.mouseRelease(board, Qt.MouseButton.LeftButton, pos=middle.toPoint())
    build.hand.set_painting(False)
    settle(window)
    return statistics.median(times)


def at_px(px: int, what: Callable[[Timer], float]) -> Callable[[Timer], float]:
    """The same with the preview sampled otherwise."""

    def run(timer: Timer) -> float:
        view = shown_window().desk.view
        before = view.preview_px
        view.set_preview(px)
        settle(shown_window())
        try:
            return what(timer)
        finally:
            view.set_preview(before)
            settle(shown_window())

    return run


def whole_picture(px: int) -> Callable[[Timer], float]:
    """The dado from nothing to its picture at so many pixels."""

    def run(_timer: Timer) -> float:
        window = shown_window()
        window.desk.selection.choose(surface="dado", layer="limewash")
        settle(window)
        before, painted = window.desk.view.preview_px, _Painted(window)
        try:
            return painted.wait(lambda: window.desk.view.set_preview(px), _of_now(window, fine=True))
        finally:
            window.desk.view.set_preview(before)
            settle(window)

    return run


def undo(_timer: Timer) -> float:
    """What was done last taken back, fine: it is worked out already."""
    window = shown_window()
    settle(window)
    store = window.desk.session.store
    before: Surface | None = window.desk.selection.surface
    painted = _Painted(window)

    def act() -> None:
        store.undo()

    def back() -> bool:
        return window.desk.selection.surface is not before and _of_now(window, fine=True)()

    return painted.wait(act, back)


def open_place(_timer: Timer) -> float:
    """The demo opened in a new window, straight to the first picture of Place with its surfaces."""
    shown_window()
    begun = time.perf_counter()
    window = Window(Session(shipped_demo()))
    window.resize(1280, 800)
    window.desk.go("Place")
    window.show()
    view = window.place_stage.view
    while (view.image is None or view.textures is None) and time.perf_counter() < begun + SECONDS:
        QApplication.processEvents()
        time.sleep(0.001)
    taken = (time.perf_counter() - begun) * 1000
    settle(window)
    window.close_down()
    window.deleteLater()
    return taken


@functools.cache
def _opened() -> dict[str, float]:
    done = subprocess.run([sys.executable, "-m", "bench.opened"], capture_output=True, text=True, check=True)
    found: dict[str, float] = json.loads(done.stdout)
    return found


def opened(what: str) -> Callable[[Timer], float]:
    """The demo opened in a program of its own; see :mod:`bench.opened`."""
    return lambda _timer: _opened()[what]


class _Pictures:
    """Whether the model shows a picture drawn since the last act; ``of_now``: of the parts as they are since."""

    def __init__(self, window: Window, *, of_now: bool) -> None:
        self.view, self.of_now = window.place_stage.view, of_now
        self.anew()

    def anew(self) -> None:
        self.parts, self.image, self.changed = self.view.parts, self.view.image, not self.of_now

    def __call__(self) -> bool:
        if not self.changed and self.view.parts is not self.parts:
            self.changed, self.image = True, self.view.image
        return self.changed and self.view.image is not self.image


def _place(part: str) -> Window:
    window = shown_window()
    window.desk.go("Place")
    window.desk.selection.choose(part=part)
    settle(window)
    return window


def orbit(_timer: Timer) -> float:
    """A move of the mouse that turns the model, to the picture after it."""
    window = _place("north-wall")
    view = window.place_stage.view
    painted, drawn = _Painted(window, view), _Pictures(window, of_now=False)
    middle = view.rect().center()
    times = []
    QTest.mousePress(view, Qt.MouseButton.LeftButton, pos=middle)
    for n in range(1, 13):
        at = QPoint(middle.x() + 6 * n, middle.y())
        drawn.anew()
        times.append(painted.wait(lambda: QTest.mouseMove(view, at), drawn))  # noqa: B023
    QTest.mouseRelease(view, Qt.MouseButton.LeftButton, pos=at)
    settle(window)
    return statistics.median(times)


def shift_laying(_timer: Timer) -> float:
    """The laying of a wall shifted with the arrow key on its rule, to the picture of it."""
    window = _place("north-wall")
    stage, times = window.place_stage, []
    painted, drawn = _Painted(window, stage.view), _Pictures(window, of_now=True)
    for _ in range(7):
        field = stage.laid_card.form.controls["across"].rule
        field.setFocus()
        drawn.anew()
        times.append(painted.wait(lambda: QTest.keyClick(field, Qt.Key.Key_Right), drawn))  # noqa: B023
        settle(window)
    return statistics.median(times)


def drag_elevation(_timer: Timer) -> float:
    """A move of the mouse that drags the pattern in the elevation, to the elevation painted with it."""
    window = _place("north-wall")
    stage = window.place_stage
    strip = stage.elevation
    stage.laid_card.laid_id = "tile"
    stage.show_laid()
    settle(window)
    face = next(f for f in strip.elevation.faces if f.facet.standing.part.id == "north-wall" and f.row >= 0)
    left, low, right, _ = face.bounds
    start = strip._at((left + right) / 2, low + 300.0).toPoint()
    painted, times = _Painted(window, strip), []
    QTest.mousePress(strip, Qt.MouseButton.LeftButton, pos=start)
    for n in range(1, 13):
        at, shown = QPoint(start.x() + 3 * n, start.y()), strip.image
        times.append(painted.wait(lambda: QTest.mouseMove(strip, at), lambda: strip.image is not shown))  # noqa: B023
    QTest.mouseRelease(strip, Qt.MouseButton.LeftButton, pos=at)
    settle(window)
    return statistics.median(times)


def turn_sun(*, fine: bool) -> Callable[[Timer], float]:
    """A move of the mouse with the right button that turns the light, to the board painted in it."""

    def run(_timer: Timer) -> float:
        window = shown_window()
        window.desk.go("Build")
        window.desk.selection.choose(surface="dado")
        settle(window)
        board, build = window.build_stage.surface_board, window.build_stage
        painted, times = _Painted(window), []
        start = QPoint(board.width() // 2, board.height() // 3)
        QTest.mousePress(board, Qt.MouseButton.RightButton, pos=start)
        for n in range(1, 10):
            at, before = QPoint(start.x() + 4 * n, start.y()), build.done

            def seen(before: object = before) -> bool:
                done = build.done
                return done is not before and done is not None and (not fine or done.fine)

            times.append(painted.wait(lambda: QTest.mouseMove(board, at), seen))  # noqa: B023
        QTest.mouseRelease(board, Qt.MouseButton.RightButton, pos=at)
        settle(window)
        return statistics.median(times)

    return run


def actions() -> Iterator[tuple[str, Callable[[Timer], float], str]]:
    """Each from the event to the painted picture, 1280 × 800, the preview at its usual size."""
    yield "window: level of the dado's top layer, first picture", type_level("dado", "algae", fine=False), "50"
    yield "window: level of the dado's top layer, full size", type_level("dado", "algae", fine=True), "150"
    yield "window: level of the dado's limewash, full size", type_level("dado", "limewash", fine=True), "150"
    yield "window: drag the top layer's level, between two pictures", drag_level("dado", "dado-smudges"), "60"
    yield "window: drag the limewash's level, between two pictures", drag_level("dado", "limewash"), "60"
    yield "window: take the last step back, full size", undo, "100"
    yield "window: another surface, seen before, full size", choose_surface("dado", "deck"), "100"
    yield "window: a move of the brush on the limewash", dab, "16"
    yield "window: the same at 2048 px", at_px(2048, dab), "16"
    limewash = type_level("dado", "limewash", fine=True)
    yield "window: level of the dado's limewash at 2048 px, full size", at_px(2048, limewash), "500"
    yield "window: the dado at 4096 px, from that at its usual size", whole_picture(4096), "12000"
    yield "window: turn the light on the board, first picture", turn_sun(fine=False), "33"
    yield "window: the same, exact after the hand rests a moment", turn_sun(fine=True), "100"
    yield "window: open the demo in Build, to the picture kept with it", opened("stored"), "1500"
    yield "window: the same, to the first that is worked out", opened("first"), "1500"
    yield "window: a surface not seen before, full size, median", opened("sharp"), "700"
    yield "window: the same, the slowest of the demo", opened("slowest"), "700"
    yield "window: held at rest after all of them, MB", opened("held"), "1500"
    yield "window: open the demo to its first picture in Place", open_place, "3000"
    yield "window: turn the pavilion with the mouse", orbit, "33"
    yield "window: shift a wall's laying, to its picture", shift_laying, "100"
    yield "window: drag the pattern in the elevation", drag_elevation, "30"
