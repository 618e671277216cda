"""The demo as it ships is the demo as its scripts make it, and it is whole."""

import cv2
import numpy as np
import pytest

from brave_tessel.demo import make
from brave_tessel.engine.library import shipped_demo as shipped
from brave_tessel.formats.job_file import used_blobs


@pytest.fixture(scope="module")
def folder():
    return shipped.SHIPPED


@pytest.mark.slow
def test_made_again_it_is_the_same(folder, tmp_path):
    """Byte for byte; but pictures, that another processor may round otherwise, within what the eye cannot tell."""
    made = {path.relative_to(tmp_path): path for path in make.write(tmp_path)}
    ships = {path.relative_to(folder): path for path in folder.rglob("*") if path.is_file()}
    assert set(made) == set(ships)
    for name, path in made.items():
        if name.suffix == ".jpg":
            one, other = (cv2.imdecode(np.fromfile(p, np.uint8), cv2.IMREAD_COLOR) for p in (path, ships[name]))
            assert np.abs(one.astype(int) - other).mean() < 1.0, name
        else:
            assert path.read_bytes() == ships[name].read_bytes(), name


def test_what_is_left_of_an_earlier_making_goes(tmp_path, monkeypatch):
    (tmp_path / "blobs").mkdir()
    (tmp_path / "blobs" / "of-old").write_bytes(b"x")
    small = shipped.shipped_demo()
    monkeypatch.setattr(make, "demo_job", lambda: small)
    monkeypatch.setattr(make, "with_previews", lambda opened: opened)
    written = make.write(tmp_path)
    assert not (tmp_path / "blobs" / "of-old").exists()
    assert all(path.is_file() for path in written)


def test_every_byte_the_job_refers_to_ships_and_no_more(demo, folder):
    names = {path.name for path in (folder / "blobs").iterdir()}
    assert names == used_blobs(demo.job) == set(demo.blobs)


def test_every_surface_has_a_preview(demo):
    assert set(demo.previews) == {surface.id for surface in demo.job.surfaces}
    for preview in demo.previews.values():
        assert preview.jpeg[:2] == b"\xff\xd8"
        assert len(preview.key) == 32


def test_no_file_of_it_is_too_large_to_keep_in_a_repository(folder):
    assert max(path.stat().st_size for path in folder.rglob("*") if path.is_file()) < 5 << 20
