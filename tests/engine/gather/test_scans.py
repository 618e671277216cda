"""The light rig and photometric stereo against known truth; linked files; sheets as files."""

import json
import shutil
import threading
import time

import numpy as np
import pytest
from PIL import Image

from brave_tessel.core.errors import CancelledError, DeviceError, OutOfRangeError, TesselError, UnreadableFileError
from brave_tessel.core.gather.stereo import angular_error, check_lights, height_of, solve
from brave_tessel.core.job.commands import Set
from brave_tessel.core.job.document import Job, Source, Straightening
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.kernels.relief import normal_of_height
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.gather.file_watch import SETTLE_S, FileWatch
from brave_tessel.engine.gather.intake import dressed
from brave_tessel.engine.gather.links import (
    linked_files,
    look_for,
    missing_files,
    relink,
    reread,
    set_linked,
    take_over,
)
from brave_tessel.engine.gather.rig import (
    SAMPLES,
    LightRig,
    RigSettings,
    make_sample,
    measure,
    read_frames,
    read_lights,
    ring_of_lights,
)
from brave_tessel.engine.gather.scans import is_frames_folder, scan_source
from brave_tessel.engine.handover.sheet_files import write_sheet
from brave_tessel.engine.intents.sources import add_source, remove_source
from brave_tessel.engine.wording import sentence
from brave_tessel.formats.images import decode_codes, encode_png
from tests.made_photos import write_frames


def quietly(*_):
    """No progress wanted."""


def ball(px=129):
    """Normals of a ball that fills the middle, and where it is seen not too steeply."""
    y, x = np.mgrid[1 : -1 : px * 1j, -1 : 1 : px * 1j]
    square = x * x + y * y
    z = np.sqrt(np.maximum(1 - square, 0))
    return np.stack([x, y, z], 2), square < 0.6


def test_a_matte_ball_is_solved_exactly():
    """Woodham 1980, section 3: three lights or more on a matte surface give normal and albedo."""
    normal, seen = ball()
    lights = np.array(ring_of_lights(8, 55))
    frames = [np.repeat((0.7 * np.maximum(normal @ light, 0))[..., None], 3, 2).astype(np.float32) for light in lights]
    shape = solve(frames, lights)
    # Where every light reaches it there is nothing to be robust about.
    lit = seen & (np.stack([normal @ light for light in lights]) > 0.05).all(0)
    assert lit.mean() > 0.2
    away = np.degrees(np.arccos(np.clip((shape.normal * normal).sum(2), -1, 1)))[lit]
    assert away.max() < 0.1
    assert shape.albedo[lit] == pytest.approx(0.7, abs=0.005)


def test_a_shadow_and_a_gleam_do_not_bend_the_normal():
    normal, seen = ball()
    lights = np.array(ring_of_lights(10, 50))
    frames = [np.repeat((0.5 * np.maximum(normal @ light, 0))[..., None], 3, 2).astype(np.float32) for light in lights]
    frames[2][:, 40:80] = 0
    frames[6][50:90] += 2.0
    shape = solve(frames, lights)
    lit = seen & (np.stack([normal @ light for light in lights]) > 0.1).all(0)
    away = np.degrees(np.arccos(np.clip((shape.normal * normal).sum(2), -1, 1)))[lit]
    assert np.median(away) < 0.3
    assert np.percentile(away, 99) < 3


@pytest.mark.parametrize("wraps", [True, False])
def test_a_wave_is_integrated_to_its_height(wraps):
    """Frankot and Chellappa 1988: a surface of few waves comes back as it was, but for its mean."""
    grid = Grid(96, 128, 60, 80)
    x, y = grid.x_mm()[None, :], grid.y_mm()[:, None]
    height = (1.5 * np.sin(2 * np.pi * 2 * x / 60) * np.cos(2 * np.pi * y / 80)).astype(np.float32)
    found = height_of(normal_of_height(height, grid), grid, wraps=wraps)
    found = found - found.mean() + height.mean()
    edge = 0 if wraps else 6
    inner = (slice(edge, 128 - edge), slice(edge, 96 - edge))
    assert np.abs(found - height)[inner].max() < (0.04 if wraps else 0.2)


@pytest.mark.parametrize("sample", SAMPLES)
@pytest.mark.parametrize("frames", [8, 12])
def test_every_sample_is_measured_within_three_degrees_and_four_per_cent(sample, frames):
    capture = LightRig(RigSettings(sample=sample, frames=frames, seconds=0)).take(quietly)
    measured = measure(capture)
    assert measured.angle < 3
    assert measured.albedo < 0.04
    truth = make_sample(sample)
    assert np.corrcoef(measured.height.ravel(), truth.height.ravel())[0, 1] > 0.95
    assert f"{measured.angle:.1f}°" in measured.told


@pytest.mark.parametrize("fault", ["unplugged", "no answer", "lamp out"])
def test_faults_are_device_errors(fault):
    with pytest.raises(DeviceError) as caught:
        LightRig(RigSettings(fault=fault, seconds=0)).take(quietly)
    assert caught.value.remedy


def test_it_is_stopped_between_frames_and_refuses_impossible_settings():
    calls = []

    def current():
        calls.append(1)
        return len(calls) < 4

    with pytest.raises(CancelledError):
        LightRig(RigSettings(seconds=0)).take(quietly, current)
    for bad in ({"frames": 7}, {"frames": 13}, {"height": 5}, {"sample": "moon rock"}):
        with pytest.raises(OutOfRangeError):
            LightRig(RigSettings(**bad))


def test_a_scan_keeps_sixteen_bits_and_its_size(session):
    capture = LightRig(RigSettings(seconds=0)).take(quietly)
    measured = measure(capture)
    source = scan_source(session.intake(), capture, measured).source
    assert source.sheet_mm == (120, 120)
    height = next(p for p in source.pictures if p.role == "height")
    codes = decode_codes(session.kept.view[height.blob], "h.png")[..., 0]
    back = (codes - 0.5) * height.rise_mm
    assert np.abs(back - measured.height).max() < height.rise_mm / 30_000
    assert source.true_relief


@pytest.fixture
def frames_folder(tmp_path):
    write_frames(tmp_path)
    return tmp_path


def test_a_real_folder_goes_the_same_way(frames_folder):
    assert is_frames_folder(frames_folder)
    capture = read_frames(frames_folder)
    measured = measure(capture)
    truth = make_sample("Render")
    assert measured.angle is None
    assert angular_error(measured.shape.normal, truth.normal) < 3


@pytest.mark.parametrize(
    "told",
    [
        b"",
        b"[]",
        b"{}",
        b'{"frames": [{"file": "a.png", "light": [1, 2]}]}',
        b'{"frames": [{"file": "../a.png", "light": [0, 0, 1]}]}',
        b'{"frames": [{"file": "a.png"}]}',
        b'{"frames": 5}',
        b"\xff\xfe",
    ],
)
def test_a_bad_light_file_is_told(told):
    with pytest.raises(UnreadableFileError):
        read_lights(told)


def test_frames_of_two_sizes_or_too_few_lights_are_told(frames_folder):
    (frames_folder / "f3.png").write_bytes(encode_png(np.zeros((9, 9, 3), np.uint8)))
    with pytest.raises(UnreadableFileError) as caught:
        read_frames(frames_folder)
    assert "9 × 9" in caught.value.value
    with pytest.raises(TesselError):
        check_lights([[0, 0, 1]] * 3, 3)
    with pytest.raises(TesselError):
        check_lights([[0, 0, 1]] * 8, 8)


# Linked files ------------------------------------------------------------------------------------


@pytest.fixture
def linked(session, tmp_path):
    path = tmp_path / "a.png"
    path.write_bytes(encode_png(np.full((10, 20, 3), 40, np.uint8)))
    source = session.intake().read_source(path)
    session.store.dispatch(add_source(source))
    session.store.dispatch(set_linked(source, True))
    return session, path


def test_a_change_is_told_once_the_file_is_left_alone(linked):
    _, path = linked
    told, came = [], threading.Event()

    def changed(paths):
        told.append(paths)
        came.set()

    watch = FileWatch(changed)
    try:
        watch.follow({str(path)})
        path.with_name("other.png").write_bytes(b"nobody follows this")
        for shade in (90, 91, 92):
            # As painters save: a new file beside the old one, then renamed.
            fresh = path.with_name("a.tmp")
            fresh.write_bytes(encode_png(np.full((20, 40, 3), shade, np.uint8)))
            fresh.replace(path)
            time.sleep(0.05)
        assert came.wait(10)
        time.sleep(SETTLE_S + 0.2)
        assert told == [{str(path)}]
        watch.follow(())
        path.unlink()
        time.sleep(SETTLE_S + 0.2)
        assert len(told) == 1
    finally:
        watch.stop()


def test_what_a_file_holds_now_is_put_into_the_source_as_it_is_now(linked):
    session, path = linked
    links = linked_files(session.job)
    assert reread(session.intake(), links) == ([], [])
    path.write_bytes(encode_png(np.full((20, 40, 3), 91, np.uint8)))
    read, troubles = reread(session.intake(), links)
    assert troubles == []
    # While it was read the source was renamed and framed anew.
    id = session.job.sources[0].id
    session.store.dispatch(Set(path=("sources", id, "name"), value="Tide mark", label="n"))
    frame = ((2.0, 1.0), (20.0, 0.0), (20.0, 10.0), (0.0, 10.0))
    session.store.dispatch(Set(path=("sources", id, "straightening", "corners"), value=frame, label="f"))
    command, names = take_over(session.job, read)
    session.store.dispatch(command)
    source = session.job.sources[0]
    assert (source.width_px, source.name, names) == (40, "Tide mark", ["Tide mark"])
    assert source.straightening.corners[:2] == ((4.0, 2.0), (40.0, 0.0))
    session.store.undo()
    assert session.job.sources[0].width_px == 20
    session.store.dispatch(remove_source(session.job, session.job.sources[0]))
    assert take_over(session.job, read) == (None, [])


def test_a_linked_file_that_is_no_picture_leaves_the_pixels_last_read(linked):
    session, path = linked
    path.write_bytes(b"not a picture")
    read, troubles = reread(session.intake(), linked_files(session.job))
    assert read == []
    assert "a.png" in sentence(troubles[0])


def test_missing_files_are_found_below_a_folder(linked, tmp_path):
    session, path = linked
    assert missing_files(session.job) == []
    deep = tmp_path / "x" / "y"
    deep.mkdir(parents=True)
    shutil.move(path, deep / "a.png")
    assert len(missing_files(session.job)) == 1
    assert look_for(session.job, tmp_path / "nowhere") == {}
    found = look_for(session.job, tmp_path)
    assert found == {str(path): str(deep / "a.png")}
    session.store.dispatch(relink(session.job, found))
    assert missing_files(session.job) == []


# The sheet as files ------------------------------------------------------------------------------


@pytest.mark.parametrize(("breakup", "count"), [("breakup.hex", 1), ("breakup.variants", 3)])
def test_the_sheet_is_written_with_its_real_size(session, tmp_path, breakup, count):
    rng = np.random.default_rng(1)
    made = session.intake().make_source(encode_png(rng.integers(0, 256, (96, 128, 3)).astype(np.uint8)), "Grit.png")
    corners = made.straightening.corners
    values = {"count": 3} if count == 3 else {"across": 1, "up": 1}
    source: Source = dressed(made, "Grit", (), "base_colour", (400, 300))
    source = Source(
        id=source.id,
        name="Grit",
        blob=source.blob,
        width_px=128,
        height_px=96,
        straightening=Straightening(corners=corners, width_mm=400, height_mm=300),
        mend=Setting(op="mend.level"),
        breakup=Setting(op=breakup, values=values),
    )
    job = Job(sources=(source,))
    files = write_sheet(session.snapshot().with_job(job), source, tmp_path, px=256)
    colours = [file for file in files if "base_colour" in file.name]
    assert len(colours) == count
    for file in colours:
        with Image.open(file) as image:
            assert json.loads(image.info["Repeat"])["width_m"] == pytest.approx(0.4, rel=0.05)
