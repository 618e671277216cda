"""What a person waits for while a photo is mended: from the event to what is painted or told, and stalls; on the demo's
two photos and on the brick wall of scikit-image.
"""

from __future__ import annotations

import functools
import statistics
import tempfile
from collections.abc import Callable, Iterator
from pathlib import Path

import cv2
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from skimage import data

from brave_tessel.engine.intents import sources as source_intents
from brave_tessel.ui.shots import settle
from brave_tessel.ui.window import Window

from .stalls import longest_turn, touch_up
from .window import Timer, _Painted, shown_window

BRICK = "Bench brick"


@functools.cache
def _brick() -> str:
    """The id of the wall in the window's job."""
    window = shown_window()
    path = Path(tempfile.mkdtemp()) / f"{BRICK}.png"
    cv2.imwrite(str(path), cv2.resize(data.brick(), (1024, 1024), interpolation=cv2.INTER_CUBIC))
    window.desk.gather.read([path])
    settle(window)
    source = window.desk.job.sources[-1]
    window.desk.dispatch(source_intents.resize_source(window.desk.job, source, 600.0, 600.0, ""))
    settle(window)
    return source.id


def _in_repeat(source: str) -> Window:
    window = shown_window()
    window.desk.selection.choose(source=_brick() if source == BRICK else source)
    window.desk.go("Repeat")
    window.desk.view.set_step("mend")
    settle(window)
    return window


def _overlap(window: Window) -> None:
    """One step of the overlap with the arrow key on its rule."""
    form = window.repeat_stage.mend.form
    assert form is not None
    rule = form.controls["overlap"].rule
    rule.setFocus()
    QTest.keyClick(rule, Qt.Key.Key_Right)


def overlap(source: str, *, judged: bool) -> Callable[[Timer], float]:
    """A step of the overlap: to its sheet, or to what is thought of its joins."""

    def run(_timer: Timer) -> float:
        window, times = _in_repeat(source), []
        repeat, strip = window.desk.repeat, window.repeat_stage.meters
        painted = _Painted(window, strip if judged else window.repeat_stage.pair)

        def shows() -> bool:
            done, now = repeat.shown, window.desk.selection.source
            return done is not None and done.source is now and (not judged or done.verdicts is not None)

        for _ in range(5):
            times.append(painted.wait(lambda: _overlap(window), shows))
            settle(window)
        return statistics.median(times)

    return run


def asked(source: str, act: Callable[[Window], None]) -> Callable[[Timer], float]:
    """A search on a photo, to the sheet it leads to."""

    def run(_timer: Timer) -> float:
        window, times = _in_repeat(source), []
        painted = _Painted(window, window.repeat_stage.pair)
        for _ in range(3):
            window.repeat_stage.mend.take_method("mend.best_cut")
            for _ in range(5):
                _overlap(window)
            settle(window)
            before = window.desk.selection.source
            assert before is not None

            def shows(before: object = before) -> bool:
                done, now = window.desk.repeat.shown, window.desk.selection.source
                return now is not before and done is not None and done.source is now and not window.desk.about_to_ask

            times.append(painted.wait(lambda: act(window), shows))
            settle(window)
            window.desk.session.store.undo()
            settle(window)
        return statistics.median(times)

    return run


def _line_up(window: Window) -> None:
    window.repeat_stage.mend.line_up()


def _courses(window: Window) -> None:
    window.repeat_stage.mend.take_method("mend.courses")


def stalled(source: str, act: Callable[[Window], None], *, step: str = "mend") -> Callable[[Timer], float]:
    """The longest of three of the same act."""

    def run(_timer: Timer) -> float:
        window = _in_repeat(source)
        worst = 0.0
        for _ in range(3):
            window.desk.view.set_step(step)
            settle(window)
            worst = max(worst, longest_turn(window, lambda: act(window)))
            while window.desk.session.store.undo_label and act is not touch_up and act is not _overlap:
                window.desk.session.store.undo()
                settle(window)
                if window.desk.selection.source and window.desk.selection.source.mend.op == "mend.best_cut":
                    break
        return worst

    return run


def actions() -> Iterator[tuple[str, Callable[[Timer], float], str]]:
    """All rows, with aims where there are any."""
    for name, source in (("mosaic", "mosaic"), ("shingle", "shingle"), ("brick", BRICK)):
        yield f"repeat: overlap of the {name}, to its sheet", overlap(source, judged=False), "-"
        yield "repeat: the same, to the verdict", overlap(source, judged=True), "-"
    yield "repeat: line up the mosaic's overlap, to its sheet", asked("mosaic", _line_up), "-"
    yield "repeat: whole courses of the brick, to its sheet", asked(BRICK, _courses), "-"
    yield "stall: a step of the mosaic's overlap", stalled("mosaic", _overlap), "50"
    yield "stall: line up the mosaic's overlap", stalled("mosaic", _line_up), "50"
    yield "stall: whole courses of the brick", stalled(BRICK, _courses), "50"
    yield "stall: a stroke of touch-up on the mosaic", stalled("mosaic", touch_up, step="touch"), "50"
