"""What a reader is given stays as it was, whatever is done to the job meanwhile."""

import threading

import msgspec
import numpy as np
import pytest

from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.errors import MissingError
from brave_tessel.core.job.commands import Insert, Remove, Set
from brave_tessel.core.job.document import Job, Source, Straightening
from brave_tessel.core.job.layers import Layer, Surface
from brave_tessel.core.maps import MapKind
from brave_tessel.engine.handover.output import Writing, quiet
from brave_tessel.engine.handover.outputs.maps_png import export_surface
from brave_tessel.engine.kept import KeptFiles
from brave_tessel.engine.session import Session, write_job
from brave_tessel.formats.images import decode_picture
from brave_tessel.formats.job_file import OpenedJob, blob_name, load_job


@pytest.fixture
def painted():
    """A session with two plain surfaces of one colour, A and B."""
    made = tuple(
        Surface(
            id=name.lower(),
            name=name,
            width_mm=100.0,
            height_mm=100.0,
            layers=(Layer(id="plain", name="Plain", what=PlainWhat(colour="#808080")),),
        )
        for name in "AB"
    )
    return Session(OpenedJob(Job(surfaces=made)))


def colour(session, name, value):
    path = ("surfaces", name.lower(), "layers", "plain", "what", "colour")
    session.store.dispatch(Set(path=path, value=value, label="x"))


def mean_colour(path):
    return decode_picture(path.read_bytes(), path.name).mean(axis=(0, 1))


def test_a_snapshot_does_not_change_with_the_job(painted):
    before = painted.snapshot()
    job = before.job
    colour(painted, "A", "#FF0000")
    painted.store.dispatch(Remove(path=("surfaces", painted.job.surface_named("B").id), label="x"))
    assert before.job is job
    assert [surface.name for surface in before.job.surfaces] == ["A", "B"]
    assert [surface.name for surface in painted.snapshot().job.surfaces] == ["A"]


def test_a_delivery_tells_one_state_of_the_job(painted, tmp_path):
    """Recoloured while it runs, both surfaces are as they were when it was asked for."""
    for name in "AB":
        colour(painted, name, "#204080")
    snapshot = painted.snapshot()
    delivery = msgspec.structs.replace(snapshot.job.deliveries[0], px=64)
    changed = threading.Event()

    def progress(_what, _share):
        if not changed.is_set():
            changed.set()
            for name in "AB":
                colour(painted, name, "#FFFFFF")

    surfaces = tuple(snapshot.job.surfaces)
    means = []
    for surface in surfaces:
        writing = Writing(snapshot, delivery, (surface,), tmp_path / surface.name, progress)
        written = export_surface(writing, snapshot.job.surface_named(surface.name))
        means.append(mean_colour(written[MapKind.BASE_COLOUR]))
    assert changed.is_set()
    assert means[0] == pytest.approx(means[1], abs=0.02)
    later = painted.snapshot()
    new = export_surface(Writing(later, delivery, surfaces, tmp_path / "later", quiet), later.job.surface_named("A"))
    assert np.abs(mean_colour(new[MapKind.BASE_COLOUR]) - means[0]).max() > 0.1


def test_a_reader_keeps_its_bytes_when_another_job_is_opened(session, photo_bytes):
    name = session.kept.keep(photo_bytes)
    before = session.snapshot()
    era = session.era
    session.adopt(OpenedJob(Job()), None, saved=False)
    assert session.era == era + 1
    assert before.blobs[name] == photo_bytes
    assert before.load_pixels(name).shape == (120, 160, 3)
    with pytest.raises(MissingError):
        session.snapshot().load_model(name)


def test_a_job_tried_out_leaves_the_snapshot_alone(painted):
    snapshot = painted.snapshot()
    other = snapshot.with_job(Job())
    assert other.blobs is snapshot.blobs
    assert other.job.surfaces == ()
    assert len(snapshot.job.surfaces) == 2


def test_two_snapshots_of_one_state_are_equal(painted):
    assert painted.snapshot() == painted.snapshot()
    before = painted.snapshot()
    colour(painted, "A", "#010203")
    assert painted.snapshot() != before
    painted.store.undo()
    assert painted.snapshot().job is before.job


def test_what_was_saved_is_the_snapshot_and_the_rest_is_unsaved(painted, tmp_path):
    snapshot = painted.snapshot()
    colour(painted, "A", "#FF0000")
    target = tmp_path / "kept.tessel"
    write_job(snapshot, target)
    painted.mark_saved(snapshot, target)
    assert not painted.store.saved
    assert load_job(target).job == snapshot.job
    painted.store.undo()
    assert painted.store.saved


def test_a_job_whose_bytes_are_gone_is_not_saved_over_a_good_one(session, tmp_path):
    target = tmp_path / "kept.tessel"
    target.write_bytes(b"what was there")
    lost = Source(
        id="s",
        name="Lost",
        blob=blob_name(b"gone"),
        width_px=4,
        height_px=4,
        straightening=Straightening(corners=((0, 0), (4, 0), (4, 4), (0, 4))),
    )
    session.store.dispatch(Insert(path=("sources",), item=lost, label="x"))
    with pytest.raises(MissingError):
        session.save(target)
    assert target.read_bytes() == b"what was there"
    assert not session.store.saved


# The place for bytes ---------------------------------------------------------------------------------


def test_bytes_are_safe_before_their_name_is_given():
    events = []
    kept = KeptFiles(safeguard=lambda name, data: events.append(name))
    name = kept.keep(b"abc")
    assert events == [name]
    assert kept.view[name] == b"abc"
    assert kept.keep(b"abc") == name
    assert events == [name]


def test_a_view_of_the_bytes_never_changes():
    kept = KeptFiles({blob_name(b"one"): b"one"})
    view = kept.view
    kept.keep(b"two")
    assert len(view) == 1
    assert len(kept.view) == 2
    with pytest.raises(TypeError):
        view["x"] = b""


def test_bytes_kept_from_many_threads_are_all_there():
    kept = KeptFiles()
    threads = [threading.Thread(target=lambda n=n: [kept.keep(b"%d-%d" % (n, k)) for k in range(50)]) for n in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(kept.view) == 300
    assert all(blob_name(data) == name for name, data in kept.view.items())


def test_a_refused_safeguard_keeps_no_name():
    def full(_name, _data):
        raise OSError(28, "No space left on device")

    kept = KeptFiles(safeguard=full)
    with pytest.raises(OSError, match="No space"):
        kept.keep(b"abc")
    assert not kept.view
