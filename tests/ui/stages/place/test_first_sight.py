"""Stage 4 just opened: what comes when, and what is said before it has come."""

import time

import msgspec
from PyQt6.QtTest import QTest

from brave_tessel.core.job.document import Job
from brave_tessel.engine.pictures.placed import PlacedRound
from brave_tessel.engine.place.starters import room_corner
from brave_tessel.formats.job_file import OpenedJob
from tests.core.place.scenes import brick


def opened(make_window, surfaces):
    window = make_window(OpenedJob(Job(surfaces=surfaces, scene=room_corner([one.id for one in surfaces]))))
    # More than what coarse pictures have.
    window.desk.view.set_preview(320)
    window.desk.go("Place")
    window.desk.selection.choose(part="north-wall")
    return window, window.stages["Place"]


def test_nothing_is_called_good_before_it_was_looked_at(make_window):
    _window, stage = opened(make_window, tuple(msgspec.structs.replace(brick(900.0, 600.0), id=k) for k in "abc"))
    said = []
    until = time.monotonic() + 30
    while time.monotonic() < until and (stage.findings.head.text() == "Looking it through…" or not said):
        said.append((stage.findings.head.text(), stage.laid_card.courses.text(), stage.elevation.elevation))
        QTest.qWait(5)
    before = [told for told, *_ in said if told != stage.findings.head.text()]
    assert before
    assert set(before) == {"Looking it through…"}
    assert all("No courses" not in told for _, told, drawn in said if drawn is None)
    assert "whole" in stage.laid_card.courses.text()


def test_surfaces_that_are_worked_out_do_not_hold_up_the_elevation(make_window, settled, monkeypatch):
    quick = PlacedRound.next

    def slow(self, current):
        time.sleep(0.3)
        return quick(self, current)

    monkeypatch.setattr(PlacedRound, "next", slow)
    sizes = {"a": 910.0, "b": 920.0, "c": 930.0}
    window, stage = opened(
        make_window, tuple(msgspec.structs.replace(brick(wide, 600.0), id=k) for k, wide in sizes.items())
    )
    order: list[str] = []
    stage.elevation.counted.connect(lambda: order.append("elevation"))
    window.desk.place.ready.connect(lambda done: order.append("all" if done.complete else "some"))
    settled(window)
    assert order.count("some") >= 3
    assert "elevation" in order[: order.index("all") - 1]


def test_hand_over_shows_what_place_has_at_once(make_window, settled, monkeypatch):
    """Small as it is there, the model's surfaces are not worked out once more; and it is seen before they are there."""
    window, _stage = opened(make_window, (msgspec.structs.replace(brick(900.0, 600.0), id="a"),))
    rounds, kept = [], PlacedRound.next
    monkeypatch.setattr(PlacedRound, "next", lambda self, current: rounds.append(1) or kept(self, current))
    settled(window)
    sheet = window.stages["Hand over"].sheet
    asked = len(rounds)
    assert asked
    assert sheet.placed is None
    window.desk.go("Hand over")
    settled(window)
    assert sheet.placed is not None
    assert len(rounds) == asked


def test_surfaces_that_are_all_there_wait_for_no_first_picture(make_window, settled):
    """It is they that the first picture waits for."""
    surfaces = (msgspec.structs.replace(brick(900.0, 600.0), id="a"),)
    first, _stage = opened(make_window, surfaces)
    settled(first)
    window, _stage = opened(make_window, surfaces)
    place, come, waits = window.desk.place, [], []
    place.when_seen = waits.append
    place.ready.connect(lambda done: come.append(done.complete))
    settled(window)
    assert come == [True]
    assert waits, "what can wait"
