import errno
import json
import os
import zipfile

import msgspec
import pytest

from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.errors import CannotWriteError, MissingError, NewerJobError, TooLargeError, UnreadableFileError
from brave_tessel.core.job.document import JOB_FORMAT, Job
from brave_tessel.core.job.layers import Layer, Step, Surface
from brave_tessel.core.recipe.stock import units_recipe
from brave_tessel.engine.intents.recipes import decode_recipe, encode_recipe
from brave_tessel.formats import disk
from brave_tessel.formats.disk import shortened
from brave_tessel.formats.job_file import MAX_LAYERS, load_job, save_job, stamp_of
from brave_tessel.formats.migrations import migrate


def test_the_demo_job_comes_back_equal(demo, tmp_path):
    path = tmp_path / "demo.tessel"
    save_job(path, demo.job, demo.blobs)
    back = load_job(path)
    assert back.job == demo.job
    assert back.blobs == demo.blobs
    assert zipfile.ZipFile(path).read("mimetype") == b"application/x-brave-tessel"


def test_unknown_operations_are_kept(tmp_path):
    recipe = units_recipe()
    odd = Step(name="odd", op="noise.from_the_future", values={"depth": 3.0, "style": "new"})
    layer = Layer(id="l", name="L", what=RecipeWhat(recipe=msgspec.structs.replace(recipe, steps=(*recipe.steps, odd))))
    job = Job(surfaces=(Surface(id="s", name="S", width_mm=10, height_mm=10, layers=(layer,)),))
    save_job(tmp_path / "a.tessel", job, {})
    assert load_job(tmp_path / "a.tessel").job == job


def rewrite(path, change):
    with zipfile.ZipFile(path) as archive:
        parts = {name: archive.read(name) for name in archive.namelist()}
    change(parts)
    with zipfile.ZipFile(path, "w") as archive:
        for name, data in parts.items():
            archive.writestr(name, data)


@pytest.fixture
def saved(tmp_path):
    path = tmp_path / "a.tessel"
    save_job(path, Job(name="A"), {})
    return path


def test_a_newer_job_is_refused_and_untouched(saved):
    def newer(parts):
        tree = json.loads(parts["job.json"])
        tree["format"] = JOB_FORMAT + 1
        parts["job.json"] = json.dumps(tree).encode()

    rewrite(saved, newer)
    before = saved.read_bytes()
    with pytest.raises(NewerJobError):
        load_job(saved)
    assert saved.read_bytes() == before


def test_an_older_job_is_brought_forward():
    tree = json.loads('{"format": 0, "id": "j", "name": "Old", "scene": {"piece": "corner"}}')
    assert migrate(tree)["format"] == JOB_FORMAT


@pytest.mark.parametrize("data", [b"", b"PK\x03\x04 torn", b"text"])
def test_what_is_no_job_is_refused(tmp_path, data):
    path = tmp_path / "x.tessel"
    path.write_bytes(data)
    with pytest.raises(UnreadableFileError):
        load_job(path)


@pytest.mark.parametrize("spoil", ["json", "types", "missing", "list"])
def test_damaged_contents_are_refused(saved, spoil):
    def change(parts):
        if spoil == "json":
            parts["job.json"] = parts["job.json"][:20]
        elif spoil == "types":
            parts["job.json"] = b'{"format": 1, "name": 7}'
        elif spoil == "list":
            parts["job.json"] = b"[1, 2]"
        else:
            del parts["job.json"]

    rewrite(saved, change)
    with pytest.raises(UnreadableFileError):
        load_job(saved)


def test_a_changed_source_file_is_noticed(demo, tmp_path):
    path = tmp_path / "demo.tessel"
    save_job(path, demo.job, demo.blobs)
    name = f"blobs/{demo.job.sources[0].blob}"
    rewrite(path, lambda parts: parts.__setitem__(name, parts[name][:-1] + b"x"))
    opened = load_job(path)
    assert opened.lost == {demo.job.sources[0].blob}
    assert opened.job == demo.job


def test_a_job_with_a_lost_file_is_saved_without_it_but_never_loses_another(demo, tmp_path):
    path = tmp_path / "demo.tessel"
    lost, other = demo.job.sources[0].blob, demo.job.sources[1].blob
    held = {name: data for name, data in demo.blobs.items() if name != lost}
    with pytest.raises(MissingError):
        save_job(path, demo.job, held)
    save_job(path, demo.job, held, lost=frozenset({lost}))
    assert load_job(path).lost == {lost}
    for harm in ({}, {other: b"damaged"}):
        less = {name: data for name, data in held.items() if name != other} | harm
        with pytest.raises(MissingError):
            save_job(path, demo.job, less, lost=frozenset({lost}))
    assert load_job(path).lost == {lost}


def test_the_same_job_is_the_same_file_whatever_the_clock_says(demo, tmp_path, monkeypatch):
    one, two = tmp_path / "one.tessel", tmp_path / "two.tessel"
    stamp = save_job(one, demo.job, demo.blobs)
    monkeypatch.setattr("time.time", lambda: 0.0)
    save_job(two, demo.job, demo.blobs)
    assert one.read_bytes() == two.read_bytes()
    assert stamp == stamp_of(one) == load_job(two).stamp != stamp_of(tmp_path / "none")


def test_saving_keeps_mode_and_link(tmp_path):
    real, link = tmp_path / "real" / "job.tessel", tmp_path / "job.tessel"
    real.parent.mkdir()
    save_job(real, Job(name="A"), {})
    real.chmod(0o640)
    link.symlink_to(real)
    save_job(link, Job(name="B"), {})
    assert link.is_symlink()
    assert load_job(real).job.name == "B"
    assert real.stat().st_mode & 0o777 == 0o640


def test_a_name_too_long_is_shortened_and_keeps_its_suffix(tmp_path):
    long = "ü" * 300 + ".tessel"
    assert shortened(long).endswith("ü.tessel")
    assert len(shortened(long).encode()) <= 240
    assert shortened("short.tessel") == "short.tessel"
    save_job(tmp_path / long, Job(name="A"), {})
    assert load_job(tmp_path / shortened(long)).job.name == "A"


def test_what_a_kill_left_unfinished_is_swept(tmp_path, monkeypatch):
    left = tmp_path / ".brave-tessel-0123.tmp"
    left.write_bytes(b"half")
    os.utime(left, (1, 1))
    fresh = tmp_path / ".brave-tessel-4567.tmp"
    fresh.write_bytes(b"another process is just writing this")
    save_job(tmp_path / "job.tessel", Job(name="A"), {})
    assert not left.exists()
    assert fresh.exists()


def test_disks_without_nameless_files_are_written_all_the_same(tmp_path, monkeypatch):
    real = os.open

    def refuse(path, flags, *more, **named):
        if flags & os.O_TMPFILE == os.O_TMPFILE:
            raise OSError(errno.EOPNOTSUPP, "not here")
        return real(path, flags, *more, **named)

    monkeypatch.setattr(disk.os, "open", refuse)
    save_job(tmp_path / "job.tessel", Job(name="A"), {})
    assert load_job(tmp_path / "job.tessel").job.name == "A"
    assert [path.name for path in tmp_path.iterdir()] == ["job.tessel"]


def test_a_job_too_large_to_unpack_is_refused_before_it_is(tmp_path):
    path = tmp_path / "bomb.tessel"
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("job.json", b" " * (300 << 20))
    with pytest.raises(TooLargeError):
        load_job(path)


def test_too_many_layers_are_refused(tmp_path):
    layers = tuple(Layer(id=f"l{n}", name="x", what=PlainWhat()) for n in range(MAX_LAYERS + 1))
    surface = Surface(id="s", name="s", width_mm=10.0, height_mm=10.0, layers=layers)
    path = tmp_path / "many.tessel"
    save_job(path, Job(surfaces=(surface,)), {})
    with pytest.raises(TooLargeError):
        load_job(path)


def test_too_many_steps_are_refused_quickly(tmp_path):
    steps = tuple(Step(name=f"s{n}", op="source.number") for n in range(20_000))
    recipe = msgspec.structs.replace(units_recipe(), steps=steps)
    layer = Layer(id="l", name="x", what=RecipeWhat(recipe=recipe))
    surface = Surface(id="s", name="s", width_mm=10.0, height_mm=10.0, layers=(layer,))
    path = tmp_path / "many.tessel"
    save_job(path, Job(surfaces=(surface,)), {})
    with pytest.raises(TooLargeError):
        load_job(path)
    with pytest.raises(TooLargeError):
        decode_recipe(encode_recipe("x", (10.0, 10.0), recipe), "x.json")


@pytest.mark.parametrize("code", [errno.ENOSPC, errno.EACCES])
def test_a_failed_save_leaves_the_old_file(saved, monkeypatch, code):
    before = saved.read_bytes()

    def fail(*_):
        raise OSError(code, os.strerror(code))

    monkeypatch.setattr(disk.os, "fsync", fail)
    with pytest.raises(CannotWriteError) as caught:
        save_job(saved, Job(name="B"), {})
    assert saved.read_bytes() == before
    assert not list(saved.parent.glob(".*tmp"))
    assert ("full" in str(caught.value.value)) == (code == errno.ENOSPC)
