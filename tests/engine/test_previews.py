"""Pictures kept with a job: seen at once when it is opened, and never of something else than the job."""

import cv2
import numpy as np
import pytest

from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.job.commands import Set
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Surface
from brave_tessel.engine.previews import PREVIEW_PX, key_of, make_preview, stored_picture
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob, Preview, load_job
from tests.formats.test_job_file import rewrite


@pytest.fixture
def plain():
    layer = Layer(id="l", name="L", what=PlainWhat(colour="#A04020"))
    return Session(
        OpenedJob(Job(surfaces=(Surface(id="s", name="S", width_mm=400.0, height_mm=300.0, layers=(layer,)),)))
    )


def picture_of(session, px=256):
    snapshot = session.snapshot()
    surface = snapshot.job.surface("s")
    return snapshot, surface, snapshot.lit(surface, px)


def test_a_preview_is_the_picture_within_what_a_jpeg_keeps(plain):
    snapshot, surface, codes = picture_of(plain)
    stored = stored_picture(snapshot, surface, make_preview(snapshot, surface, codes))
    assert stored is not None
    assert stored.codes.shape == codes.shape
    assert np.abs(stored.codes.astype(int) - codes).mean() < 2
    assert (stored.grid.width_mm, stored.grid.height_mm) == (400.0, 300.0)


def test_a_large_picture_is_kept_small(plain):
    snapshot, surface, codes = picture_of(plain, 1024)
    preview = make_preview(snapshot, surface, codes)
    kept = cv2.imdecode(np.frombuffer(preview.jpeg, np.uint8), cv2.IMREAD_COLOR)
    assert max(kept.shape[:2]) == PREVIEW_PX
    assert len(preview.jpeg) < 100_000


@pytest.mark.parametrize(
    ("path", "value"),
    [
        (("layers", "l", "what", "colour"), "#A04021"),
        (("layers", "l", "shown"), False),
        (("width_mm",), 401.0),
        (("layers", "l", "mixes"), {}),
    ],
)
def test_a_preview_of_something_else_is_not_shown(plain, path, value):
    snapshot, surface, codes = picture_of(plain)
    preview = make_preview(snapshot, surface, codes)
    plain.store.dispatch(Set(path=("surfaces", "s", *path), value=value, label="x"))
    now = plain.snapshot()
    changed = key_of(now, now.job.surface("s")) != preview.key
    assert changed is (path[-1] != "mixes")
    assert (stored_picture(now, now.job.surface("s"), preview) is None) is changed


@pytest.mark.parametrize("path", [("name",), ("layers", "l", "name"), ("layers", "l", "hatch")])
def test_names_and_marks_do_not_outdate_a_preview(plain, path):
    snapshot, surface, codes = picture_of(plain)
    preview = make_preview(snapshot, surface, codes)
    plain.store.dispatch(Set(path=("surfaces", "s", *path), value="dots", label="x"))
    now = plain.snapshot()
    assert stored_picture(now, now.job.surface("s"), preview) is not None


def test_previews_go_with_the_job_file(plain, tmp_path):
    snapshot, surface, codes = picture_of(plain)
    plain.previews["s"] = make_preview(snapshot, surface, codes)
    path = tmp_path / "a.tessel"
    plain.save(path)
    opened = load_job(path)
    assert opened.previews == plain.previews
    again = Session(opened)
    now = again.snapshot()
    assert stored_picture(now, now.job.surface("s"), again.previews["s"]) is not None


@pytest.mark.parametrize("damage", ["not json", "[]", '{"s": 3}', '{"s": {"key": "00"}}'])
def test_damaged_previews_are_left_out_and_the_job_opens(plain, tmp_path, damage):
    snapshot, surface, codes = picture_of(plain)
    plain.previews["s"] = make_preview(snapshot, surface, codes)
    path = tmp_path / "a.tessel"
    plain.save(path)

    def spoil(parts):
        parts["previews.json"] = damage.encode()

    rewrite(path, spoil)
    opened = load_job(path)
    assert opened.job == plain.job
    assert opened.previews == {}


def test_a_preview_that_is_no_picture_is_not_shown(plain):
    snapshot, surface, _codes = picture_of(plain)
    broken = Preview(key_of(snapshot, surface), b"no jpeg")
    assert stored_picture(snapshot, surface, broken) is None
    assert stored_picture(snapshot, surface, None) is None


def test_every_surface_of_the_demo_has_one_and_it_is_of_the_surface(demo):
    session = Session(demo)
    snapshot = session.snapshot()
    for surface in snapshot.job.surfaces:
        assert stored_picture(snapshot, surface, demo.previews.get(surface.id)) is not None, surface.name
