"""Commands are pure; any sequence undoes to the very same object, and its journal replays to an equal job."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.errors import MissingError, OutOfRangeError, TesselError
from brave_tessel.core.job.commands import Batch, Insert, Move, Remove, Set, fetch
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Rule, Stroke, Surface
from brave_tessel.core.job.nodes import Setting
from brave_tessel.engine.journal_lines import differences, head_line, line_of, read_lines, replay
from brave_tessel.engine.store import Store
from brave_tessel.formats.documents import decode_job, encode_job

IDS = ["a", "b", "c", "d"]


def start():
    return Job(
        id="job",
        surfaces=tuple(
            Surface(id=i, name=i, width_mm=100.0, height_mm=100.0, layers=(layer("a"), layer("b"))) for i in ("s", "t")
        ),
    )


def layer(id):
    return Layer(id=id, name=id, what=PlainWhat(), where=(Rule(id="r", rule=Setting(op="where.painted")),))


layers = st.sampled_from(["s", "t"]).map(lambda s: ("surfaces", s, "layers"))
commands = st.one_of(
    st.builds(
        lambda p, i, at: Insert(path=p, item=layer(i), index=at, label="insert"),
        layers,
        st.sampled_from(IDS),
        st.integers(-1, 4),
    ),
    st.builds(lambda p, i: Remove(path=(*p, i), label="remove"), layers, st.sampled_from(IDS)),
    st.builds(
        lambda p, i, at: Move(path=(*p, i), index=at, label="move"), layers, st.sampled_from(IDS), st.integers(0, 4)
    ),
    st.builds(
        lambda p, i, v, g: Set(path=(*p, i, "name"), value=v, label="name", gesture=g),
        layers,
        st.sampled_from(IDS),
        st.text(max_size=4),
        st.sampled_from(["", "drag"]),
    ),
    st.builds(
        lambda p, i, v: Set(path=(*p, i, "seat", "values", "level"), value=v, label="level"),
        layers,
        st.sampled_from(IDS),
        st.floats(-3, 3),
    ),
    st.builds(
        lambda p, i, n: Insert(
            path=(*p, i, "where", "r", "strokes"), item=Stroke(id=f"k{n}", points=((1.0, 2.0),)), label="paint"
        ),
        layers,
        st.sampled_from(IDS),
        st.integers(0, 3),
    ),
    st.builds(lambda v: Set(path=("name",), value=v, label="rename"), st.text(max_size=5)),
)


def dispatch(store, command):
    try:
        store.dispatch(command)
    except TesselError:
        return False
    return True


@given(st.lists(commands, max_size=25))
def test_undo_of_everything_is_the_first_object_and_redo_the_last(sequence):
    store = Store(start())
    first = store.job
    for command in sequence:
        dispatch(store, command)
    last = store.job
    while store.undo():
        pass
    assert store.job is first
    while store.redo():
        pass
    assert store.job is last


@given(st.lists(commands, max_size=20), st.integers(0, 4000))
def test_a_journal_cut_anywhere_replays_to_a_state_that_was(sequence, cut):
    store = Store(start())
    lines = [line_of({"path": "", "job": json.loads(encode_job(store.job))})]
    states = [store.job]
    for command in sequence:
        before = store.job
        if dispatch(store, command) and store.job is not before:
            lines.append(line_of(differences(before, store.job)))
            states.append(store.job)
    whole = b"".join(lines)
    assert replay(whole)[0] == states[-1]
    torn = whole[: min(cut, len(whole))]
    found = replay(torn)
    kept = len(read_lines(torn))
    assert found is None if kept == 0 else found[0] == states[kept - 1]


@given(st.lists(commands, max_size=12))
def test_jobs_survive_their_file_form(sequence):
    store = Store(start())
    for command in sequence:
        dispatch(store, command)
    data = encode_job(store.job)
    assert decode_job(data) == store.job
    assert encode_job(decode_job(data)) == data


def test_a_changed_byte_costs_that_change_alone():
    job = start()
    first = Set(path=("name",), value="x", label="n").apply(job)
    last = Set(path=("scene", "datum"), value="sill", label="d").apply(first)
    head = head_line(job, "p")
    lines = line_of(differences(job, first)), line_of(differences(first, last))
    spoilt = lines[0][:-8] + b"#" + lines[0][-7:]
    found, path = replay(head + spoilt + lines[1])
    assert (found.name, found.scene.datum, path) == (job.name, "sill", "p")
    assert replay(b"") is None


def test_a_damaged_head_is_read_from_its_second_copy():
    job = start()
    head = head_line(job, "p")
    for at in range(0, len(head), 97):
        spoilt = head[:at] + bytes([head[at] ^ 8]) + head[at + 1 :]
        assert replay(spoilt + head)[0] == job
        assert replay(head + spoilt)[0] == job
    assert replay(head[:-9]) is None


def test_a_growing_stroke_is_told_by_its_new_points():
    def painted(count):
        points = tuple((float(k), 2.0 * k) for k in range(count))
        stroke = Stroke(id="s1", points=points)
        rule = Rule(id="r", rule=Setting(op="where.painted"), strokes=(stroke,))
        layer = Layer(id="l", name="L", what=PlainWhat(), where=(rule,))
        return Job(id="j", surfaces=(Surface(id="s", name="S", width_mm=10, height_mm=10, layers=(layer,)),))

    short, long = painted(390), painted(400)
    (record,) = differences(short, long)
    assert record[0] == "more"
    assert len(record[2]) == 10
    assert len(line_of([record])) < 400
    assert replay(head_line(short, "") + line_of([record]))[0] == long


def test_what_does_not_change_is_shared():
    job = start()
    after = Set(path=("surfaces", "s", "layers", "a", "name"), value="x", label="n").apply(job)
    assert after.surfaces[1] is job.surfaces[1]
    assert after.surfaces[0].layers[1] is job.surfaces[0].layers[1]
    assert after.surfaces[0].layers[0].what is job.surfaces[0].layers[0].what
    assert fetch(after, ("surfaces", "s", "layers", "a", "name")) == "x"


def test_nothing_changed_leaves_no_trace():
    store = Store(start())
    store.dispatch(Set(path=("surfaces", "s", "name"), value="s", label="same"))
    assert store.undo_label == ""


def test_a_drag_is_one_step_until_it_is_released():
    store = Store(start())
    path = ("surfaces", "s", "width_mm")
    for width in (101.0, 102.0, 103.0):
        store.dispatch(Set(path=path, value=width, label="Drag", gesture="g"))
    store.end_gesture()
    store.dispatch(Set(path=path, value=104.0, label="Drag", gesture="g"))
    store.undo()
    assert store.job.surfaces[0].width_mm == 103
    store.undo()
    assert store.job.surfaces[0].width_mm == 100


def test_a_failing_command_leaves_the_job_alone():
    store = Store(start())
    before = store.job
    with pytest.raises(MissingError):
        store.dispatch(Remove(path=("surfaces", "nothing"), label="x"))
    with pytest.raises(OutOfRangeError):
        store.dispatch(Insert(path=("surfaces",), item=before.surfaces[0], label="x"))
    with pytest.raises(MissingError):
        store.dispatch(
            Batch(
                commands=(Set(path=("name",), value="y", label=""), Set(path=("no", "such"), value=1, label="")),
                label="b",
            )
        )
    assert store.job is before
    assert store.undo_label == ""


def test_selectors_fire_only_for_another_object():
    store = Store(start())
    seen = []
    subscription = store.subscribe(lambda job: job.surfaces[0], seen.append)
    store.dispatch(Set(path=("surfaces", "t", "name"), value="other", label="n"))
    assert len(seen) == 1
    store.dispatch(Set(path=("surfaces", "s", "name"), value="other", label="n"))
    assert len(seen) == 2
    store.undo()
    assert len(seen) == 3
    store.unsubscribe(subscription)
    store.redo()
    assert len(seen) == 3


def test_saved_means_the_very_same_object():
    store = Store(start())
    assert store.saved
    store.dispatch(Set(path=("name",), value="n", label="n"))
    assert not store.saved
    store.mark_saved(store.job)
    assert store.saved
    store.undo()
    assert not store.saved
    store.redo()
    assert store.saved
