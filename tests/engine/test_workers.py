"""Workers: every request ends exactly once, newer work overtakes older, and what takes long gives way."""

import logging
import threading
import time

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brave_tessel.core.errors import CancelledError, MissingError
from brave_tessel.engine.workers import Worker


@pytest.fixture
def worker():
    made = Worker("tested")
    yield made
    made.stop()


class Endings:
    """Collects how requests ended, from whichever thread."""

    def __init__(self) -> None:
        self.told: list[tuple[str, Exception | None]] = []
        self._lock = threading.Lock()

    def of(self, name):
        def settled(error):
            with self._lock:
                self.told.append((name, error))

        return settled

    def names(self):
        return [name for name, _ in self.told]

    def error(self, name):
        return next(error for told, error in self.told if told == name)


def until(condition, seconds=10):
    end = time.monotonic() + seconds
    while not condition() and time.monotonic() < end:
        time.sleep(0.002)
    assert condition()


def test_what_is_done_is_settled_with_nothing(worker):
    ends = Endings()
    worker.request("a", lambda current: None, ends.of("a"))
    until(lambda: ends.told == [("a", None)])
    assert worker.idle


def test_what_raises_is_settled_with_what_it_raised_and_logged(worker, caplog):
    ends, fault = Endings(), ValueError("broken")

    def work(current):
        raise fault

    with caplog.at_level(logging.ERROR):
        worker.request("a", work, ends.of("a"))
        until(lambda: ends.told)
    assert ends.error("a") is fault
    assert "channel a failed" in caplog.text
    worker.request("a", lambda current: None, ends.of("after"))
    until(lambda: "after" in ends.names())


def test_a_request_that_waits_is_overtaken_by_a_newer_one(worker):
    ends, gate, ran = Endings(), threading.Event(), []
    worker.request("other", lambda current: gate.wait(5), ends.of("other"))
    worker.request("a", lambda current: ran.append("first"), ends.of("first"))
    worker.request("a", lambda current: ran.append("second"), ends.of("second"))
    assert isinstance(ends.error("first"), CancelledError)
    gate.set()
    until(lambda: "second" in ends.names())
    assert ran == ["second"]
    assert ends.error("second") is None


def test_a_request_that_runs_sees_that_it_was_overtaken(worker):
    ends, begun, seen = Endings(), threading.Event(), []

    def work(current):
        begun.set()
        until(lambda: not current())
        seen.append("gave up")

    worker.request("a", work, ends.of("first"))
    assert begun.wait(5)
    worker.request("a", lambda current: seen.append("second"), ends.of("second"))
    until(lambda: len(ends.told) == 2)
    assert seen == ["gave up", "second"]
    assert isinstance(ends.error("first"), CancelledError)
    assert ends.error("second") is None


def test_channels_do_not_overtake_each_other(worker):
    ends, gate, ran = Endings(), threading.Event(), []
    worker.request("gate", lambda current: gate.wait(5), ends.of("gate"))
    for name in "abc":
        worker.request(name, lambda current, name=name: ran.append(name), ends.of(name))
    gate.set()
    until(lambda: len(ends.told) == 4)
    assert ran == ["a", "b", "c"]
    assert all(error is None for _, error in ends.told)


def test_cancelling_takes_away_what_waits_and_tells_what_runs(worker):
    ends, begun, ran = Endings(), threading.Event(), []

    def long(current):
        begun.set()
        until(lambda: not current())

    worker.request("long", long, ends.of("long"))
    assert begun.wait(5)
    worker.request("waits", lambda current: ran.append(1), ends.of("waits"))
    worker.cancel_all()
    until(lambda: len(ends.told) == 2)
    assert {type(error) for _, error in ends.told} == {CancelledError}
    assert not ran


def test_a_stopped_worker_settles_what_waits_and_what_comes_after():
    worker, ends, gate = Worker("stopped"), Endings(), threading.Event()
    begun = threading.Event()

    def hold(current):
        begun.set()
        gate.wait(5)

    worker.request("runs", hold, ends.of("runs"))
    assert begun.wait(5)
    worker.request("waits", lambda current: None, ends.of("waits"))
    threading.Timer(0.05, gate.set).start()
    worker.stop()
    worker.request("late", lambda current: None, ends.of("late"))
    assert sorted(ends.names()) == ["late", "runs", "waits"]
    assert isinstance(ends.error("waits"), CancelledError)
    assert isinstance(ends.error("late"), CancelledError)


def test_long_work_stands_still_while_there_is_quick_work():
    quick = Worker("quick")
    long = Worker("long", gives_way_to=quick)
    order, started, gate = [], threading.Event(), threading.Event()

    def regrow(current):
        for part in range(3):
            started.set()
            gate.wait(5)
            if not current():
                return
            order.append(f"long {part}")

    def picture(current):
        time.sleep(0.05)
        order.append("quick")

    try:
        long.request("regrow", regrow)
        assert started.wait(5)
        quick.request("surface", picture)
        gate.set()
        assert long.wait_idle(10)
        assert order == ["quick", "long 0", "long 1", "long 2"]
    finally:
        long.stop()
        quick.stop()


def test_long_work_does_not_wait_for_what_was_asked_behind():
    quick = Worker("quick")
    long = Worker("long", gives_way_to=quick)
    gate, started, ends = threading.Event(), threading.Event(), Endings()

    def surface(current):
        started.set()
        gate.wait(5)

    def check(current):
        if not current():
            raise CancelledError

    try:
        quick.request("scene", surface, behind=True)
        assert started.wait(5)
        long.request("checks", check, ends.of("checks"))
        until(lambda: ends.told)
        assert ends.error("checks") is None
    finally:
        gate.set()
        long.stop()
        quick.stop()


def test_long_work_that_gives_way_can_still_be_cancelled():
    quick = Worker("quick")
    long = Worker("long", gives_way_to=quick)
    gate, ends, begun = threading.Event(), Endings(), threading.Event()

    def work(current):
        begun.set()
        if not current():
            raise CancelledError

    def hold(current):
        gate.wait(5)

    try:
        quick.request("surface", hold)
        long.request("regrow", work, ends.of("regrow"))
        assert begun.wait(5)
        assert not ends.told
        long.cancel("regrow")
        until(lambda: ends.told)
        assert isinstance(ends.error("regrow"), CancelledError)
    finally:
        gate.set()
        long.stop()
        quick.stop()


@given(
    acts=st.lists(
        st.tuples(st.sampled_from("abc"), st.sampled_from(["do", "fail", "overtaken", "cancel"])), max_size=24
    )
)
@settings(deadline=None, max_examples=25)
def test_every_request_is_settled_exactly_once(acts):
    worker, ends, asked = Worker("counted"), Endings(), []
    logging.disable(logging.CRITICAL)
    try:
        for number, (channel, act) in enumerate(acts):
            if act == "cancel":
                worker.cancel(channel)
                continue

            def work(current, act=act):
                if act == "fail":
                    raise MissingError("it", value="x", remedy="y")
                if act == "overtaken" and not current():
                    raise CancelledError

            asked.append(f"{channel}{number}")
            worker.request(channel, work, ends.of(asked[-1]))
        assert worker.wait_idle(10)
    finally:
        worker.stop()
        logging.disable(logging.NOTSET)
    assert sorted(ends.names()) == sorted(asked)
