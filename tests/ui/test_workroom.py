"""Work off the window's thread: shown in it, counted in it, told when it fails, dropped when nobody wants it."""

import threading

import pytest
from PyQt6.QtCore import QThread
from PyQt6.QtTest import QTest

from brave_tessel.core.errors import CancelledError, MissingError
from brave_tessel.core.job.document import Job
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob
from brave_tessel.ui import workroom
from brave_tessel.ui.workroom import Pace, Workroom


@pytest.fixture
def room(qtbot):
    made = Workroom(Session())
    yield made
    made.close()


class Heard:
    """What a room told, in order."""

    def __init__(self, room):
        self.busy, self.words = [], []
        room.busy_changed.connect(self.busy.append)
        room.told.connect(lambda text, how: self.words.append((text, how)))


def serve(condition, seconds=10):
    for _ in range(int(seconds * 200)):
        if condition():
            return
        QTest.qWait(5)
    raise AssertionError("it never came true")


def test_results_come_in_order_and_in_the_windows_thread(room):
    here, got = QThread.currentThread(), []

    def work(current, send):
        assert threading.current_thread() is not threading.main_thread()
        for part in ("coarse", "fine"):
            send(part)

    room.stream("surface", work, lambda part: got.append((part, QThread.currentThread() is here)))
    serve(lambda: room.idle)
    assert got == [("coarse", True), ("fine", True)]


def test_busy_is_told_once_for_all_that_goes_on(room):
    heard, gate = Heard(room), threading.Event()
    for channel in "abc":
        room.ask(channel, lambda current: gate.wait(5), lambda result: None)
    serve(lambda: heard.busy == [True])
    gate.set()
    serve(lambda: room.idle)
    assert heard.busy == [True, False]


@pytest.mark.parametrize("pace", list(Pace))
def test_what_raises_is_told_reaches_who_asked_and_ends(room, pace):
    heard, failed, ended = Heard(room), [], []

    def work(current):
        raise MissingError("picture", value="wall.png", remedy="Add it again.")

    room.ask("a", work, lambda result: None, pace=pace, failed=failed.append, ended=lambda: ended.append(1))
    serve(lambda: room.idle)
    assert [type(error) for error in failed] == [MissingError]
    assert ended == [1]
    ((text, how),) = heard.words
    assert how == "fault"
    assert "wall.png" in text


def test_what_nobody_foresaw_is_told_too_and_the_room_goes_on(room, caplog):
    heard, ended, got = Heard(room), [], []
    room.ask("a", lambda current: 1 / 0, lambda result: None, ended=lambda: ended.append("a"))
    room.ask("b", lambda current: 7, got.append, ended=lambda: ended.append("b"))
    serve(lambda: room.idle)
    assert ended == ["a", "b"]
    assert got == [7]
    assert len(heard.words) == 1
    assert "ZeroDivisionError" in caplog.text


def test_what_is_overtaken_ends_without_a_word(room):
    heard, gate, ended, got = Heard(room), threading.Event(), [], []
    room.ask("hold", lambda current: gate.wait(5), lambda result: None)
    for n in range(5):
        room.ask("a", lambda current, n=n: n, got.append, ended=lambda n=n: ended.append(n))
    gate.set()
    serve(lambda: room.idle)
    assert got == [4]
    assert sorted(ended) == [0, 1, 2, 3, 4]
    assert heard.words == []


def test_results_for_another_job_are_dropped_and_the_button_comes_back(room):
    gate, got, failed, ended = threading.Event(), [], [], []

    def work(current):
        gate.wait(5)
        return "of the old job"

    room.ask("a", work, got.append, pace=Pace.FILES, failed=failed.append, ended=lambda: ended.append(1))
    room.session.adopt(OpenedJob(Job()), None)
    gate.set()
    serve(lambda: room.idle)
    assert got == []
    assert failed == []
    assert ended == [1]


def test_a_fault_of_the_old_job_does_not_reach_the_new_ones_card(room):
    gate, failed, ended = threading.Event(), [], []

    def work(current):
        gate.wait(5)
        raise MissingError("picture", value="old", remedy="x")

    room.ask("a", work, lambda result: None, pace=Pace.FILES, failed=failed.append, ended=lambda: ended.append(1))
    room.session.adopt(OpenedJob(Job()), None)
    gate.set()
    serve(lambda: room.idle)
    assert failed == []
    assert ended == [1]


def test_leaving_a_job_overtakes_pictures_and_regrowing_but_not_files(room):
    gate, started = threading.Event(), threading.Barrier(4)
    seen = {}

    def work(name):
        def run(current):
            started.wait(5)
            gate.wait(5)
            seen[name] = current()

        return run

    for pace in Pace:
        room.ask(pace.value, work(pace), lambda result: None, pace=pace)
    started.wait(5)
    room.leave_job()
    gate.set()
    serve(lambda: room.idle)
    assert seen == {Pace.QUICK: False, Pace.LONG: False, Pace.FILES: True}


def test_esc_stops_what_takes_long_and_says_whether_there_was_any(room):
    begun, stopped = threading.Event(), []

    def regrow(current):
        begun.set()
        while current():
            pass
        raise CancelledError

    assert not room.stop_long()
    room.ask("regrow", regrow, lambda result: None, pace=Pace.LONG, ended=lambda: stopped.append(1))
    assert begun.wait(5)
    assert room.stop_long()
    serve(lambda: room.idle)
    assert stopped == [1]


def test_an_error_while_showing_does_not_leave_the_room_busy(room, qtbot):
    def show(result):
        raise RuntimeError("the card is gone")

    with qtbot.captureExceptions() as raised:
        room.ask("a", lambda current: 1, show)
        serve(lambda: room.idle)
    assert [kind for kind, _, _ in raised] == [RuntimeError]


def test_a_lost_picture_is_not_told_again_by_all_that_needs_it(qtbot):
    session = Session()
    session.adopt(OpenedJob(Job(), {}, lost=frozenset({"gone.png"})), None)
    room = Workroom(session)
    heard, failed = Heard(room), []

    def needs(blob):
        def work(_current):
            raise MissingError("stored file", value=blob)

        return work

    room.ask("card", needs("gone.png"), lambda _r: None, failed=failed.append)
    room.ask("view", needs("other.png"), lambda _r: None, failed=failed.append)
    serve(lambda: room.idle)
    assert len(failed) == 2
    assert len(heard.words) == 1
    room.close()


def test_what_waits_behind_comes_after_all_else(room):
    gate, done = threading.Event(), []
    room.ask("first", lambda current: gate.wait(5), lambda result: None)
    for name in ("thumb 1", "thumb 2"):
        room.ask(name, lambda current, name=name: done.append(name), lambda result: None, behind=True)
    room.ask("surface", lambda current: done.append("surface"), lambda result: None)
    gate.set()
    serve(lambda: room.idle)
    assert done == ["surface", "thumb 1", "thumb 2"]


def test_memory_goes_back_once_nothing_is_asked_for(room, monkeypatch):
    given = []
    monkeypatch.setattr(workroom, "give_back_freed_memory", lambda: given.append(True))
    room._idle.setInterval(30)
    room.ask("a", lambda current: None, lambda result: None)
    serve(lambda: given)
    assert room.idle
