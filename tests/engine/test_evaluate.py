"""Tasks worked out: once each, from the cache where it has them, around what fails, and no further than wanted."""

import logging

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brave_tessel.core.errors import CancelledError, MissingError, TesselError, TooLargeError
from brave_tessel.core.plan.tasks import Task, task_key
from brave_tessel.core.sheet import Grid
from brave_tessel.engine import cache as cache_of
from brave_tessel.engine import memory
from brave_tessel.engine.cache import Cache
from brave_tessel.engine.evaluate import Evaluation, freeze
from brave_tessel.formats import images


class Works:
    """Makes tasks that count how often they are run."""

    def __init__(self):
        self.ran = []

    def number(self, name, value):
        return Task(task_key("number", name, value), name, name, lambda: self._did(name, np.full(4, value, np.float32)))

    def sum(self, name, *inputs, fallback=None):
        key = task_key("sum", *(task.key for task in inputs))
        return Task(key, name, name, lambda *given: self._did(name, sum(given)), inputs, fallback)

    def broken(self, name, error, *inputs, fallback=None):
        def run(*_given):
            self.ran.append(name)
            raise error

        return Task(task_key("broken", name), name, name, run, inputs, fallback)

    def _did(self, name, result):
        self.ran.append(name)
        return np.asarray(result)


@pytest.fixture
def works():
    return Works()


@pytest.fixture
def run():
    return Evaluation(Cache(10_000_000))


def test_what_two_need_is_worked_out_once(works, run):
    shared = works.number("shared", 2.0)
    top = works.sum("top", works.sum("left", shared), works.sum("right", shared, shared))
    assert run.value(top)[0] == 6
    assert sorted(works.ran) == ["left", "right", "shared", "top"]


def test_another_run_takes_it_from_the_cache(works):
    cache = Cache(10_000_000)
    top = works.sum("top", works.number("one", 1.0))
    first = Evaluation(cache).value(top)
    works.ran.clear()
    second = Evaluation(cache)
    assert second.at_hand(top)
    assert second.value(top) is first
    assert works.ran == []


def test_results_cannot_be_written(works, run):
    made = run.value(works.number("one", 1.0))
    with pytest.raises(ValueError, match="read-only"):
        made[0] = 3


def test_what_fails_is_passed_over_where_something_stands_in(works, run):
    ground = works.number("ground", 5.0)
    error = MissingError("picture", value="x", remedy="y")
    layer = works.broken("layer", error, ground, fallback=ground)
    assert run.value(works.sum("top", layer))[0] == 5
    assert run.faults == {"layer": error}


def test_what_fails_and_nothing_stands_in_for_is_raised(works, run):
    error = MissingError("picture", value="x", remedy="y")
    with pytest.raises(MissingError):
        run.value(works.sum("top", works.broken("layer", error)))


@pytest.mark.parametrize("error", [ValueError("odd"), ZeroDivisionError(), KeyError("k"), MemoryError(), TypeError()])
def test_what_nobody_foresaw_is_logged_and_passed_over(works, run, error, caplog):
    ground = works.number("ground", 5.0)
    with caplog.at_level(logging.ERROR):
        assert run.value(works.broken("layer", error, fallback=ground))[0] == 5
    assert isinstance(run.faults["layer"], TesselError)
    assert "layer" in caplog.text


def test_a_failure_is_not_kept_and_is_tried_again(works):
    cache = Cache(10_000_000)
    ground = works.number("ground", 5.0)
    layer = works.broken("layer", MissingError("p", value="x", remedy="y"), fallback=ground)
    Evaluation(cache).value(layer)
    works.ran.clear()
    again = Evaluation(cache)
    assert not again.at_hand(layer)
    again.value(layer)
    assert works.ran == ["layer"]


def test_what_is_overtaken_stops_before_the_next_task(works):
    wanted = [True, True, False]
    run = Evaluation(Cache(10_000_000), lambda: wanted.pop(0))
    top = works.sum("top", works.number("a", 1.0), works.number("b", 2.0))
    with pytest.raises(CancelledError):
        run.value(top)
    assert works.ran == ["a"]


def test_what_was_done_before_it_was_overtaken_is_not_lost(works):
    cache, wanted = Cache(10_000_000), [True, True, False]
    a = works.number("a", 1.0)
    top = works.sum("top", a, works.number("b", 2.0))
    with pytest.raises(CancelledError):
        Evaluation(cache, lambda: wanted.pop(0)).value(top)
    assert Evaluation(cache).at_hand(a)


def test_it_says_what_it_is_about_and_what_that_cost(works):
    told = []
    run = Evaluation(Cache(10_000_000), progress=told.append)
    run.value(works.sum("top", works.number("a", 1.0)))
    assert told == ["a", "top"]
    assert set(run.costs_ms) == {"a", "top"}


@given(
    st.lists(st.lists(st.integers(0, 30), max_size=3), min_size=1, max_size=20), st.sets(st.integers(0, 19), max_size=4)
)
@settings(deadline=None)
def test_any_web_of_tasks_gives_what_plain_recursion_gives(web, failing):
    works, tasks, plain = Works(), [], []
    ground = works.number("ground", 1.0)
    for number, wanted in enumerate(web):
        inputs = [tasks[w % len(tasks)] for w in wanted] if tasks else []
        values = [plain[w % len(plain)] for w in wanted] if plain else []
        if number in failing:
            tasks.append(works.broken(f"t{number}", ValueError("odd"), *inputs, fallback=ground))
            plain.append(1.0)
        elif inputs:
            made = works.sum(f"t{number}", *inputs)
            tasks.append(Task(task_key("own", number), made.label, made.owner, made.run, made.inputs))
            plain.append(sum(values))
        else:
            tasks.append(works.number(f"t{number}", float(number)))
            plain.append(float(number))
    logging.disable(logging.CRITICAL)
    try:
        run = Evaluation(Cache(10_000_000))
        got = [float(run.value(task)[0]) for task in tasks]
    finally:
        logging.disable(logging.NOTSET)
    assert got == pytest.approx(plain)
    assert len(works.ran) == len(set(works.ran))


# Keys ------------------------------------------------------------------------------------------------

PARTS = st.recursive(
    st.integers(-99, 99) | st.text(max_size=4) | st.booleans() | st.floats(allow_nan=False, allow_infinity=False),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=3), inner, max_size=3),
    max_leaves=6,
)


@given(st.lists(PARTS, max_size=4))
def test_the_same_parts_have_the_same_key(parts):
    assert task_key(*parts) == task_key(*parts)
    turned = [dict(reversed(list(part.items()))) if isinstance(part, dict) else part for part in parts]
    assert task_key(*turned) == task_key(*parts)


@given(st.lists(st.text(max_size=5), min_size=2, max_size=4))
def test_parts_do_not_run_together(parts):
    joined = ["".join(parts)]
    assert task_key(*parts) != task_key(*joined)


def test_a_grid_is_in_the_key_by_its_pixels_and_its_size():
    grids = [Grid(8, 8, 10.0, 10.0), Grid(8, 16, 10.0, 10.0), Grid(8, 8, 10.0, 20.0)]
    assert len({task_key("x", grid) for grid in grids}) == 3


def test_everything_within_a_result_is_frozen():
    result = (np.zeros(2), [np.zeros(2), (np.zeros(2),)])
    freeze(result)
    assert not result[0].flags.writeable
    assert not result[1][0].flags.writeable
    assert not result[1][1][0].flags.writeable


def test_what_no_task_wants_any_more_is_let_go(works):
    """With no room in the cache only what is still wanted is held: a long chain takes no more than a short one."""
    run = Evaluation(Cache(0))
    task = works.number("first", 1.0)
    for step in range(30):
        task = works.sum(f"step {step}", task)
    assert run.value(task)[0] == 1
    assert list(run._keep) == [task.key]
    # What two want stays until both have had it, and is worked out once all the same.
    shared = works.number("shared", 2.0)
    late = works.sum("late", shared)
    for step in range(5):
        late = works.sum(f"late {step}", late)
    assert run.value(works.sum("both", works.sum("early", shared), late, shared))[0] == 6
    assert works.ran.count("shared") == 1


def test_a_size_that_does_not_fit_is_refused_with_one_that_does(monkeypatch):
    monkeypatch.setattr(memory, "memory_budget", lambda _spare=0: 2 << 30)
    memory.require_room(Grid(2048, 2048, 1.0, 1.0))
    memory.require_room(Grid(4096, 1024, 4.0, 1.0))
    with pytest.raises(TooLargeError) as caught:
        memory.require_room(Grid(4096, 4096, 1.0, 1.0))
    assert caught.value.allowed.startswith("2048 px")
    with pytest.raises(TooLargeError) as caught:
        memory.require_room(Grid(8192, 2048, 4.0, 1.0))
    assert caught.value.allowed.startswith("4096 px")


def test_what_our_own_cache_would_give_up_counts_as_free(monkeypatch):
    monkeypatch.setattr(images, "_free_memory", lambda _whole: 1 << 30)
    grid = Grid(2048, 2048, 1.0, 1.0)
    with pytest.raises(TooLargeError):
        memory.require_room(grid)
    memory.require_room(grid, spare=2 << 30)


def test_several_results_share_what_they_need_though_nothing_can_be_kept(works):
    run = Evaluation(Cache(0))
    below = works.number("below", 1.0)
    stack = below
    each = []
    for number in range(6):
        stack = works.sum(f"stack {number}", stack, works.number(f"layer {number}", float(number)))
        each.append(works.sum(f"bed {number}", stack))
    found = run.values(*each, stack)
    assert [int(one[0]) for one in found] == [1, 2, 4, 7, 11, 16, 16]
    assert len(works.ran) == len(set(works.ran))


def test_a_large_sheet_keeps_what_took_longest_for_its_size(monkeypatch):
    monkeypatch.setattr(cache_of, "LARGE_PX", 50)
    monkeypatch.setattr(cache_of, "LARGE_BYTES", 3 * 400)
    cache = Cache(1 << 20)
    raster = np.zeros((10, 10), np.float32)
    for name, ms in ((b"soon", 1.0), (b"slow", 90.0), (b"slower", 500.0), (b"so so", 20.0), (b"soon too", 2.0)):
        cache.put(name, raster.copy(), ms=ms)
    assert [name for name in (b"soon", b"slow", b"slower", b"so so", b"soon too") if cache.get(name) is not None] == [
        b"slow",
        b"slower",
        b"so so",
    ]
    cache.put(b"asked for", raster.copy())
    cache.put(b"small", np.zeros((5, 5), np.float32), ms=0.0)
    assert cache.get(b"asked for") is not None
    assert cache.get(b"small") is not None
    assert cache.used == 4 * 400 + 100


def test_room_is_made_of_what_was_used_least(monkeypatch):
    monkeypatch.setattr(cache_of, "ROOM_BYTES", 1000)
    cache = Cache(1 << 20)
    for name in range(6):
        cache.put(bytes([name]), np.zeros(400, np.uint8))
    cache.make_room()
    assert cache.used == 800
    assert cache.get(bytes([5])) is not None
    assert cache.get(bytes([3])) is None


def test_what_comes_of_a_stand_in_is_told_of_again(works):
    cache = Cache(10_000)
    ground = works.number("ground", 1.0)
    broken = works.broken("layer", TesselError("layer"), fallback=ground)
    top = works.sum("top", broken)
    for _ in range(2):
        run = Evaluation(cache)
        assert run.value(top)[0] == 1
        assert list(run.faults) == ["layer"]
