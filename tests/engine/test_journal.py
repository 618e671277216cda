"""The journal as files on a disk: small, locked while in use, in segments, swept when nobody needs it."""

import time

import msgspec
import pytest

from brave_tessel.core.buildup.kinds.painted import PaintedWhat
from brave_tessel.core.job.commands import Insert, Set
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Stroke, Surface
from brave_tessel.engine import journal as journals
from brave_tessel.engine.journal import Journal, forget, recover, recoverable, set_aside, sweep
from brave_tessel.engine.store import Store
from brave_tessel.formats.job_file import blob_name


def job_named(name, **fields):
    return Job(id="job", surfaces=(Surface(id="a", name=name, width_mm=500.0, height_mm=500.0, **fields),))


@pytest.fixture
def journal(tmp_path):
    made = Journal(tmp_path)
    yield made
    made.close()


def crash(journal):
    """What a killed process leaves: its files, and a lock that nobody holds."""
    journal.flush()
    journal._lock_file.release(force=True)


PAINTED = (Layer(id="paint", name="Painted", what=PaintedWhat()),)
STROKES = ("surfaces", "a", "layers", "paint", "what", "strokes")


def test_a_stroke_of_400_points_writes_few_bytes(journal, tmp_path):
    """The gesture as the brush makes it: one command a point, the whole stroke each time."""
    store = Store(job_named("A", layers=PAINTED))
    journal.begin(store.job, "", {})
    journal.flush()
    head = journal.path.stat().st_size
    store.subscribe(lambda job: job, journal.note)
    points = []
    for n in range(400):
        points.append((float(n), 20.0 + n % 7))
        stroke = Stroke(id="s", points=tuple(points), size_mm=40.0)
        if n == 0:
            store.dispatch(Insert(path=STROKES, item=stroke, label="Paint", gesture="s"))
        else:
            store.dispatch(Set(path=(*STROKES, "s"), value=stroke, label="Paint", gesture="s"))
        if n % 100 == 99:
            # The hand rests; each rest is written as the points that are new.
            journal.flush()
    journal.flush()
    written = journal.path.stat().st_size - head
    alone = len(msgspec.json.encode(store.job.surface("a").layers[0].what.strokes[0]))
    assert written < 2.5 * alone
    crash(journal)
    assert recover(journal.path).job == store.job


def test_a_drag_of_a_hundred_moves_is_one_entry(journal):
    store = Store(job_named("A"))
    journal.begin(store.job, "", {})
    journal.flush()
    before = journal.path.read_bytes().count(b"\n")
    store.subscribe(lambda job: job, journal.note)
    for n in range(100):
        store.dispatch(Set(path=("surfaces", "a", "width_mm"), value=500.0 + n, label="Width", gesture="drag"))
    journal.flush()
    assert journal.path.read_bytes().count(b"\n") - before == 1


def test_what_was_done_is_on_the_disk_within_two_seconds(journal):
    journal.begin(job_named("A"), "", {})
    journal.flush()
    done = time.monotonic()
    journal.note(job_named("B"))
    while b'"B"' not in journal.path.read_bytes():
        assert time.monotonic() - done < 2.0
        time.sleep(0.02)


def test_a_running_session_is_not_offered_and_a_dead_one_is(journal, tmp_path):
    journal.begin(job_named("A"), "/somewhere/a.tessel", {})
    journal.flush()
    assert recoverable(tmp_path) == []
    crash(journal)
    assert recoverable(tmp_path) == [journal.path]
    found = recover(journal.path)
    assert found.job == job_named("A")
    assert found.origin == "/somewhere/a.tessel"
    assert found.missing == ()


def test_two_sessions_write_beside_each_other(tmp_path):
    first, second = Journal(tmp_path), Journal(tmp_path)
    try:
        first.begin(job_named("first"), "", {})
        second.begin(job_named("second"), "", {})
        assert first.flush()
        assert second.flush()
        assert first.path != second.path
        crash(first)
        assert recoverable(tmp_path) == [first.path]
        assert recover(first.path).job.surfaces[0].name == "first"
    finally:
        second.close()
        first.close()


def test_bytes_come_back_with_their_job(journal, tmp_path):
    data = b"a picture"
    journal.keep_blob(blob_name(data), data)
    assert (tmp_path / "blobs" / blob_name(data)).read_bytes() == data
    crash_free = list(tmp_path.glob("blobs/*.tmp*"))
    assert crash_free == []


def test_bytes_that_are_damaged_are_told_missing(journal, tmp_path, demo):
    name = demo.job.sources[0].blob
    journal.begin(demo.job, "", demo.blobs)
    crash(journal)
    stored = tmp_path / "blobs" / name
    stored.write_bytes(stored.read_bytes()[:-1])
    found = recover(journal.path)
    assert found.missing == (name,)
    assert name not in found.blobs
    assert set(found.blobs) == set(demo.blobs) - {name}


def test_a_clean_end_leaves_an_empty_folder(tmp_path):
    journal = Journal(tmp_path)
    journal.begin(job_named("A"), "", {})
    journal.keep_blob(blob_name(b"x"), b"x")
    journal.close()
    assert [path.name for path in tmp_path.rglob("*") if path.is_file()] == []


def test_a_full_disk_is_told_once_and_the_next_change_starts_a_segment(tmp_path, monkeypatch):
    told = []
    journal = Journal(tmp_path, trouble=told.append)
    put = Journal._put

    def full(self, data, *, fresh):
        raise OSError(28, "No space left on device")

    try:
        journal.begin(job_named("A"), "", {})
        journal.flush()
        monkeypatch.setattr(Journal, "_put", full)
        for name in "BCD":
            journal.note(job_named(name))
            journal.flush()
        assert told == ["No space left on device"]
        monkeypatch.setattr(Journal, "_put", put)
        journal.note(job_named("E"))
        journal.flush()
        assert told == ["No space left on device", ""]
        assert journal.segment > 0
        crash(journal)
        assert recover(recoverable(tmp_path)[0]).job == job_named("E")
    finally:
        journal.close()


def test_what_cannot_be_read_is_set_aside_and_not_offered_again(tmp_path):
    (tmp_path / "0123-0.journal").write_bytes(b"no journal at all\n")
    (left,) = recoverable(tmp_path)
    assert recover(left) is None
    kept = set_aside(left)
    assert recoverable(tmp_path) == []
    assert kept.read_bytes() == b"no journal at all\n"


def test_forgetting_takes_every_segment_and_the_bytes_nobody_wants(tmp_path):
    (tmp_path / "blobs").mkdir()
    (tmp_path / "blobs" / "orphan").write_bytes(b"x")
    for segment in range(3):
        (tmp_path / f"abcd-{segment}.journal").write_bytes(b"\n")
    (tmp_path / "other-0.journal").write_bytes(b"\n")
    forget(tmp_path / "abcd-1.journal")
    assert sorted(path.name for path in tmp_path.glob("*.journal")) == ["other-0.journal"]
    assert (tmp_path / "blobs" / "orphan").exists()
    forget(tmp_path / "other-0.journal")
    assert not (tmp_path / "blobs" / "orphan").exists()


def test_sweeping_leaves_what_an_unread_journal_may_want(tmp_path):
    (tmp_path / "blobs").mkdir()
    (tmp_path / "blobs" / "wanted").write_bytes(b"x")
    (tmp_path / "abcd-0.unread").write_bytes(b"?")
    sweep(tmp_path)
    assert (tmp_path / "blobs" / "wanted").exists()


def test_nothing_waits_in_a_queue(journal, monkeypatch):
    """A thousand changes while the disk is slow are one job, the latest."""
    journal.begin(job_named("A"), "", {})
    journal.flush()
    writes = []
    put = Journal._put

    def slow(self, data, *, fresh):
        time.sleep(0.05)
        writes.append(len(data))
        put(self, data, fresh=fresh)

    monkeypatch.setattr(Journal, "_put", slow)
    monkeypatch.setattr(journals, "SETTLE_S", 0.0)
    for n in range(1000):
        journal.note(job_named(f"name {n}"))
    journal.flush()
    assert len(writes) <= 8
    crash(journal)
    assert recover(journal.path).job == job_named("name 999")


def test_a_new_segment_takes_the_old_ones_place_only_when_it_is_whole(tmp_path, monkeypatch):
    """Saving begins a segment: a kill between its first and last byte leaves the one before."""
    journal = Journal(tmp_path)
    journal.begin(job_named("A"), "", {})
    journal.note(job_named("B"))
    journal.flush()
    before = journal.path
    seen = []
    put = journal._put

    def half(data, *, fresh):
        put(data[: len(data) // 5], fresh=fresh)
        seen.append(before.exists())
        raise KeyError("killed here")

    monkeypatch.setattr(journal, "_put", half)
    journal.begin(job_named("C"), "/saved.tessel", {})
    journal.flush()
    monkeypatch.undo()
    assert seen == [True]
    crash(journal)
    left = recoverable(tmp_path)
    assert len(left) == 2
    assert recover(max(left, key=lambda path: path.name)) is None
    assert recover(before).job.surfaces[0].name == "B"
    # Once it works again one whole segment is left of the session.
    journal.begin(job_named("D"), "", {})
    journal.flush()
    assert not before.exists() or recover(journal.path).job.surfaces[0].name == "D"
    journal.close()
    assert recoverable(tmp_path) == []
