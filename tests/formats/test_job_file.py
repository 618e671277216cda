import errno
import json
import os
import zipfile

import msgspec
import pytest

from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.errors import CannotWriteError, NewerJobError, UnreadableFileError
from brave_tessel.core.job.document import JOB_FORMAT, Job
from brave_tessel.core.job.layers import Layer, Step, Surface
from brave_tessel.core.recipe.stock import units_recipe
from brave_tessel.formats import disk
from brave_tessel.formats.job_file import load_job, save_job
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
    with pytest.raises(UnreadableFileError):
        load_job(path)


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
