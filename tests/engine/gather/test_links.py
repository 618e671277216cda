"""Linked files: watched, read beside the window, and put into the sources as they are by then."""

import threading
import time

import numpy as np
import pytest

from brave_tessel.core.job.commands import Remove, Set
from brave_tessel.engine.gather.file_watch import FileWatch
from brave_tessel.engine.gather.links import linked_files, missing_files, reread, take_over
from brave_tessel.engine.intents import sources as source_intents
from brave_tessel.formats.images import encode_png


def picture(shade, size=(40, 30)):
    return encode_png(np.full((size[1], size[0], 3), shade, np.uint8))


@pytest.fixture
def linked(session, tmp_path):
    """A session with one source that follows a file."""
    path = tmp_path / "wall.png"
    path.write_bytes(picture(90))
    source = session.intake().read_source(path)
    session.store.dispatch(source_intents.add_source(source))
    id = session.job.sources[0].id
    session.store.dispatch(Set(path=("sources", id, "path"), value=str(path), label="x"))
    session.store.dispatch(Set(path=("sources", id, "linked"), value=True, label="x"))
    session.file = path
    return session


def source(session):
    return session.job.sources[0]


def test_a_linked_source_names_its_file(linked):
    (link,) = linked_files(linked.job)
    assert (link.path, link.source, link.picture) == (str(linked.file), source(linked).id, "")
    assert missing_files(linked.job) == []
    linked.file.unlink()
    assert missing_files(linked.job) == [link]


def test_a_source_that_is_not_linked_follows_nothing(linked):
    linked.store.dispatch(Set(path=("sources", source(linked).id, "linked"), value=False, label="x"))
    assert linked_files(linked.job) == []


def test_what_has_not_changed_is_not_read_again(linked):
    assert reread(linked.intake(), linked_files(linked.job)) == ([], [])
    linked.file.write_bytes(picture(90))
    assert reread(linked.intake(), linked_files(linked.job)) == ([], [])


def test_a_changed_file_brings_its_pixels(linked):
    before = source(linked).blob
    linked.file.write_bytes(picture(200))
    read, troubles = reread(linked.intake(), linked_files(linked.job))
    assert troubles == []
    command, names = take_over(linked.job, read)
    assert names == [source(linked).name]
    linked.store.dispatch(command)
    assert source(linked).blob != before
    pixels = linked.snapshot().load_pixels(source(linked).blob)
    assert pixels.mean() > 0.4
    linked.store.undo()
    assert source(linked).blob == before


@pytest.mark.parametrize(
    ("field", "value"),
    [(("name",), "Renamed meanwhile"), (("straightening", "width_mm"), 777.0), (("straightening", "size_note"), "777")],
)
def test_what_was_changed_meanwhile_stays(linked, field, value):
    """The file is being read while the source is renamed or sized: both are there afterwards."""
    linked.file.write_bytes(picture(200))
    read, _ = reread(linked.intake(), linked_files(linked.job))
    linked.store.dispatch(Set(path=("sources", source(linked).id, *field), value=value, label="x"))
    command, _ = take_over(linked.job, read)
    linked.store.dispatch(command)
    now = source(linked)
    for name in field:
        now = getattr(now, name)
    assert now == value
    assert linked.snapshot().load_pixels(source(linked).blob).mean() > 0.4


def test_a_source_that_is_gone_stays_gone(linked):
    linked.file.write_bytes(picture(200))
    read, _ = reread(linked.intake(), linked_files(linked.job))
    linked.store.dispatch(Remove(path=("sources", source(linked).id), label="x"))
    command, names = take_over(linked.job, read)
    assert command is None
    assert names == []


def test_a_file_that_cannot_be_read_is_told_and_the_others_are_read(linked, tmp_path):
    other = tmp_path / "floor.png"
    other.write_bytes(picture(20))
    second = linked.intake().read_source(other)
    linked.store.dispatch(source_intents.add_source(second))
    id = linked.job.sources[1].id
    linked.store.dispatch(Set(path=("sources", id, "path"), value=str(other), label="x"))
    linked.store.dispatch(Set(path=("sources", id, "linked"), value=True, label="x"))
    linked.file.write_bytes(b"half a pict")
    other.write_bytes(picture(220))
    read, troubles = reread(linked.intake(), linked_files(linked.job))
    assert [one.link.source for one in read] == [id]
    assert len(troubles) == 1


def test_a_file_of_another_size_brings_its_size(linked):
    linked.file.write_bytes(picture(200, (80, 60)))
    read, _ = reread(linked.intake(), linked_files(linked.job))
    command, _ = take_over(linked.job, read)
    linked.store.dispatch(command)
    assert (source(linked).width_px, source(linked).height_px) == (80, 60)
    corners = np.array(source(linked).straightening.corners)
    assert corners.max(axis=0) == pytest.approx((80, 60), abs=1)


# Watching --------------------------------------------------------------------------------------------


@pytest.fixture
def watch():
    heard = threading.Event()
    told = []

    def changed(paths):
        told.append(paths)
        heard.set()

    made = FileWatch(changed)
    made.heard, made.told = heard, told
    yield made
    made.stop()


def test_a_written_file_is_told_once_it_is_left_alone(watch, tmp_path):
    path = tmp_path / "a.png"
    path.write_bytes(b"1")
    watch.follow([str(path)])
    for part in range(5):
        path.write_bytes(b"%d" % part)
        time.sleep(0.05)
    assert watch.heard.wait(10)
    assert watch.told == [{str(path)}]


def test_a_file_replaced_by_renaming_is_told(watch, tmp_path):
    path = tmp_path / "a.png"
    path.write_bytes(b"1")
    watch.follow([str(path)])
    beside = tmp_path / "a.png.part"
    beside.write_bytes(b"2")
    beside.replace(path)
    assert watch.heard.wait(10)
    assert watch.told == [{str(path)}]


def test_a_file_beside_it_is_not_told(watch, tmp_path):
    path = tmp_path / "a.png"
    path.write_bytes(b"1")
    watch.follow([str(path)])
    (tmp_path / "b.png").write_bytes(b"2")
    assert not watch.heard.wait(1.2)


def test_a_file_no_longer_followed_is_not_told(watch, tmp_path):
    path = tmp_path / "a.png"
    path.write_bytes(b"1")
    watch.follow([str(path)])
    watch.follow([])
    path.write_bytes(b"2")
    assert not watch.heard.wait(1.2)


def test_a_folder_that_is_not_there_is_no_trouble(watch, tmp_path):
    watch.follow([str(tmp_path / "gone" / "a.png")])
    watch.stop()
