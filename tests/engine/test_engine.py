"""Cache, workers, session, journal on disk and deliveries."""

import os
import subprocess
import sys
import threading
import time
from pathlib import Path

import msgspec
import numpy as np
import pytest
from PIL import Image

from brave_tessel.core import errors
from brave_tessel.core.errors import (
    CancelledError,
    CannotWriteError,
    OutOfRangeError,
    TesselError,
    TooLargeError,
    UnreadableFileError,
)
from brave_tessel.core.job.commands import Set
from brave_tessel.core.job.document import Delivery, Job
from brave_tessel.core.maps import SOMETIMES, SURFACE_MAPS, MapKind
from brave_tessel.engine.cache import Cache
from brave_tessel.engine.handover.deliver import deliver, planned_files
from brave_tessel.engine.handover.output import Writing, quiet
from brave_tessel.engine.handover.outputs.maps_png import export_surface
from brave_tessel.engine.intents import layers as layer_intents
from brave_tessel.engine.intents import sources as source_intents
from brave_tessel.engine.intents import surfaces as surface_intents
from brave_tessel.engine.intents.sources import add_source
from brave_tessel.engine.journal import Journal, recover, recoverable
from brave_tessel.engine.memory import give_back_freed_memory, keep_freed_memory
from brave_tessel.engine.session import Session
from brave_tessel.engine.warm import warm_kernels
from brave_tessel.engine.wording import sentence
from brave_tessel.engine.workers import Worker
from brave_tessel.formats.job_file import OpenedJob


def test_cache_stays_within_its_bytes_and_drops_the_least_used():
    cache = Cache(limit=1000)
    block = np.zeros(200, np.uint8)
    for key in (b"a", b"b", b"c", b"d"):
        cache.put(key, block.copy())
    cache.get(b"a")
    for key in (b"e", b"f"):
        cache.put(key, block.copy())
    assert cache.used <= 1000
    assert cache.get(b"a") is not None
    assert cache.get(b"b") is None
    cache.put(b"huge", np.zeros(900, np.uint8))
    assert cache.get(b"huge") is None


def test_the_latest_request_wins():
    worker = Worker()
    gate, done = threading.Event(), []

    def slow(current):
        gate.wait(5)
        done.append(("slow", current()))

    worker.request("x", slow)
    time.sleep(0.05)
    for number in range(5):
        worker.request("x", lambda current, n=number: done.append((n, current())))
    gate.set()
    for _ in range(200):
        if worker.idle:
            break
        time.sleep(0.01)
    worker.stop()
    assert done == [("slow", False), (4, True)]


def test_a_failing_piece_of_work_does_not_end_the_worker(caplog):
    worker = Worker()
    heard = threading.Event()
    worker.request("a", lambda current: 1 / 0)
    worker.request("b", lambda current: heard.set())
    assert heard.wait(5)
    worker.stop()
    assert "failed" in caplog.text


def test_the_last_thing_a_worker_does_is_done_in_its_own_thread():
    worker, seen = Worker(), []
    worker.request("x", lambda current: seen.append(threading.get_ident()))
    while not worker.idle:
        time.sleep(0.005)
    worker.stop(lambda: seen.append(threading.get_ident()))
    assert len(seen) == 2
    assert seen[0] == seen[1] != threading.get_ident()
    worker.request("x", lambda current: seen.append(0))
    assert worker.idle, "a stopped worker takes no more work"
    assert len(seen) == 2


def resident_mb() -> float:
    return int(Path("/proc/self/statm").read_text().split()[1]) * os.sysconf("SC_PAGE_SIZE") / 2**20


@pytest.mark.skipif(not Path("/proc/self/statm").exists(), reason="reads the kernel's own count")
def test_freed_memory_is_kept_for_the_next_picture_and_given_back_when_asked():
    if not keep_freed_memory():
        pytest.skip("another allocator")
    give_back_freed_memory()
    before = resident_mb()
    pictures = [np.ones(16 << 20, np.uint8) for _ in range(16)]
    assert resident_mb() > before + 200
    del pictures
    kept = resident_mb()
    give_back_freed_memory()
    assert resident_mb() < before + 100
    assert kept > before + 100, "it was at hand until then"


def test_a_picture_becomes_a_source(session, photo_file):
    source = session.intake().read_source(photo_file)
    session.store.dispatch(add_source(source))
    assert (source.width_px, source.height_px, source.name) == (160, 120, "Wall")
    assert session.snapshot().load_pixels(source.blob).shape == (120, 160, 3)
    before = session.job
    bad = photo_file.with_name("bad.png")
    bad.write_bytes(photo_file.read_bytes()[:200])
    with pytest.raises(UnreadableFileError):
        session.intake().read_source(bad)
    assert session.job is before


def whole_pass(session, photo_file):
    source = session.intake().read_source(photo_file)
    session.store.dispatch(add_source(source))
    session.store.dispatch(source_intents.resize_source(session.job, source, 400.0, 300.0, "4*100"))
    source = session.job.sources[0]
    session.store.dispatch(source_intents.set_source_value(session.job, source, "mend", "overlap", 40.0, gesture=""))
    command, surface = surface_intents.surface_from_source(session.job, session.job.sources[0])
    session.store.dispatch(command)
    return surface


def test_repeat_of_a_surface_follows_its_source(session, photo_file):
    surface = whole_pass(session, photo_file)
    assert (surface.width_mm, surface.height_mm) == (360, 260)
    source = session.job.sources[0]
    session.store.dispatch(source_intents.set_source_value(session.job, source, "mend", "overlap", 60.0, gesture=""))
    assert (session.job.surfaces[0].width_mm, session.job.surfaces[0].height_mm) == (340, 240)
    session.store.dispatch(source_intents.resize_source(session.job, session.job.sources[0], 800.0, 600.0))
    assert session.job.surfaces[0].width_mm == 740
    session.store.undo()
    session.store.undo()
    assert session.job.surfaces[0].width_mm == 360


def test_repeat_of_a_surface_follows_its_units(session):
    command, surface = surface_intents.new_surface(session.job)
    session.store.dispatch(command)
    layer = surface.layers[0]
    session.store.dispatch(
        surface_intents.set_step_value(session.job.surfaces[0], layer, "units", "length", 200.0, gesture="")
    )
    made = session.job.surfaces[0]
    assert made.width_mm == pytest.approx(4 * 203)
    session.store.dispatch(surface_intents.set_step_value(made, made.layers[0], "units", "joint", 5.0, gesture=""))
    made = session.job.surfaces[0]
    assert (made.width_mm, made.height_mm) == pytest.approx((4 * 205, 8 * 80))
    session.store.dispatch(surface_intents.set_step_value(made, made.layers[0], "units", "bond", "flemish", gesture=""))
    made = session.job.surfaces[0]
    assert made.width_mm / 307.5 == pytest.approx(round(made.width_mm / 307.5))


def test_save_and_reopen_gives_identical_pixels(session, photo_file, tmp_path):
    surface = whole_pass(session, photo_file)
    for kind in ("Rectangular units", "Clouds"):
        session.store.dispatch(layer_intents.lay_on(session.job, session.job.surface(surface.id), "Recipe", kind)[0])
    first = session.snapshot().finished(session.job.surfaces[0], 200)
    session.save(tmp_path / "a.tessel")
    other = Session()
    other.open(tmp_path / "a.tessel")
    second = other.snapshot().finished(other.job.surfaces[0], 200)
    for kind in first:
        assert first[kind].tobytes() == second[kind].tobytes()
    assert other.store.saved


CRASH = """
import sys, os, signal
from pathlib import Path
from brave_tessel.engine.memory import give_back_freed_memory, keep_freed_memory
from brave_tessel.engine.session import Session
from brave_tessel.engine.intents.sources import add_source
from brave_tessel.core.job.commands import Set
session = Session(journal=True)
source = session.intake().read_source(Path(sys.argv[1]))
session.store.dispatch(add_source(source))
for n in range(20):
    session.store.dispatch(Set(path=("name",), value=f"State {n}", label="n"))
session.journal.flush()
os.kill(os.getpid(), signal.SIGKILL)
"""


def test_a_killed_session_is_recovered(photo_file, tmp_path, monkeypatch):
    env = {**os.environ, "XDG_STATE_HOME": str(tmp_path)}
    subprocess.run([sys.executable, "-c", CRASH, str(photo_file)], env=env, check=False)
    left = recoverable(tmp_path / "brave-tessel")
    assert len(left) == 1
    found = recover(left[0])
    assert found.job.name == "State 19"
    assert (found.origin, found.missing) == ("", ())
    assert Session(OpenedJob(found.job, found.blobs)).snapshot().load_pixels(found.job.sources[0].blob).shape == (
        120,
        160,
        3,
    )
    # A torn tail costs what was written last: here all twenty names, since they came within one breath.
    left[0].write_bytes(left[0].read_bytes()[:-5])
    assert recover(left[0]).job.name == "Untitled job"


def test_a_clean_end_leaves_nothing_to_recover(tmp_path):
    journal = Journal(tmp_path)
    job = Job()
    journal.begin(job, "", {})
    journal.note(Set(path=("name",), value="x", label="n").apply(job))
    journal.flush()
    assert journal.path.exists()
    journal.close()
    assert not journal.path.exists()


def test_export_writes_every_map_once(demo_session, tmp_path):
    surface = demo_session.job.surfaces[0]
    delivery = msgspec.structs.replace(demo_session.job.deliveries[0], px=256)
    seen = []
    written = export_surface(
        Writing(demo_session.snapshot(), delivery, (surface,), tmp_path, lambda what, share: seen.append(share)),
        surface,
    )
    assert set(written) == set(SURFACE_MAPS) - {MapKind.CURVATURE} - SOMETIMES, "it has no finishes"
    both = msgspec.structs.replace(
        delivery, maps=tuple(msgspec.structs.replace(m, included=True) for m in delivery.maps)
    )
    assert MapKind.CURVATURE in export_surface(
        Writing(demo_session.snapshot(), both, (surface,), tmp_path / "all"), surface
    )
    assert seen == sorted(seen)
    assert seen[-1] == 1
    for kind, path in written.items():
        with Image.open(path) as image:
            assert image.size == (251, 256)
            sixteen = kind in {MapKind.HEIGHT, MapKind.NORMAL}
            assert ("16" in image.mode) == (sixteen and kind is MapKind.HEIGHT)
    names = {planned.name for planned in planned_files(demo_session.job, delivery, (surface,))}
    assert {path.name for path in written.values()} <= names


def test_stopping_leaves_no_half_file(demo_session, tmp_path):
    answers = iter([True] * 200)
    count = [0]

    def current():
        count[0] += 1
        return next(answers) and len(list(tmp_path.glob("*.png"))) < 2

    delivery = msgspec.structs.replace(demo_session.job.deliveries[0], px=128)
    with pytest.raises(CancelledError):
        export_surface(
            Writing(demo_session.snapshot(), delivery, (demo_session.job.surfaces[1],), tmp_path, quiet, current),
            demo_session.job.surfaces[1],
        )
    assert len(list(tmp_path.iterdir())) == 2
    assert count[0] > 2


def test_a_full_disk_is_told_and_loses_nothing(demo_session, tmp_path, monkeypatch):
    import shutil

    monkeypatch.setattr(shutil, "disk_usage", lambda _path: shutil._ntuple_diskusage(10**9, 10**9, 0))
    with pytest.raises(CannotWriteError) as caught:
        export_surface(
            Writing(demo_session.snapshot(), Delivery(id="d", px=128), (demo_session.job.surfaces[0],), tmp_path),
            demo_session.job.surfaces[0],
        )
    assert "full" in sentence(caught.value)
    assert not list(tmp_path.iterdir())


def test_a_whole_delivery(demo_session, tmp_path):
    delivery = msgspec.structs.replace(demo_session.job.deliveries[0], px=128)
    written = deliver(Writing(demo_session.snapshot(), delivery, demo_session.job.surfaces[:2], tmp_path))
    assert len(written) == 13
    assert (tmp_path / "saltreach-tide-baths.glb").read_bytes()[:4] == b"glTF"


def test_every_error_has_one_clear_sentence():
    for kind in vars(errors).values():
        if isinstance(kind, type) and issubclass(kind, TesselError):
            text = sentence(kind("thing", value="x", allowed="1 to 2 mm", remedy="Do this."))
            assert text.endswith("Do this.")
            assert text.count("!") == 0
            assert "None" not in text
    assert "kept" in sentence(RuntimeError("boom"))
    assert (
        sentence(OutOfRangeError("Joint", value=-3, allowed="0 to 200 mm"))
        == "Joint cannot be -3; it takes 0 to 200 mm."
    )
    assert "limit" in sentence(TooLargeError("a.png", value="9 px", allowed="1 px"))


def test_kernels_warm_without_a_word(caplog):
    warm_kernels()
    assert not caplog.records


def test_what_no_recent_run_asked_for_goes_first_and_the_bound_holds(monkeypatch):
    import numpy as np

    from brave_tessel.engine import cache as module
    from brave_tessel.engine.cache import Cache

    monkeypatch.setattr(module, "STALE_BYTES", 3000)
    held = Cache(20_000)
    for n in range(4):
        held.put(f"old{n}".encode(), np.zeros(250, np.float32))
    for run in range(module.RECENT_RUNS + 1):
        held.begin_run()
        held.put(f"new{run}".encode(), np.zeros(250, np.float32))
        assert held.get(b"old3") is not None
    assert held.get(b"old0") is None
    assert held.get(b"old3") is not None
    assert held.get(f"new{module.RECENT_RUNS}".encode()) is not None
    for n in range(40):
        held.put(f"more{n}".encode(), np.zeros(250, np.float32))
    assert held.used <= 20_000
    held.clear()
    assert held.used == 0
