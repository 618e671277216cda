"""A source sized anew by a known length: everything on it grows with it, and it looks as it did."""

import msgspec
import numpy as np
import pytest

from brave_tessel.core.job.document import Crop, Quiet, Touch
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.maps import MapKind
from brave_tessel.core.plan.planner import FLAT_PX
from brave_tessel.engine.gather.analyses import scale_source
from brave_tessel.engine.library.shipped_demo import shipped_demo
from brave_tessel.engine.session import Session

TOUCHES = (
    Touch(id="a", brush=Setting(op="touch.clone", values={"size": 40.0}), points=((80.0, 90.0), (120.0, 110.0)),
          offset=(150.0, 60.0)),
    Touch(id="b", brush=Setting(op="touch.piece", values={"turn": 30.0, "edge": 9.0}),
          points=((200.0, 200.0), (260.0, 210.0), (240.0, 260.0), (205.0, 250.0)), offset=(-90.0, 40.0)),
)  # fmt: skip


@pytest.fixture(scope="module")
def shingle():
    session = Session(shipped_demo())
    source = msgspec.structs.replace(
        next(entry for entry in session.job.sources if entry.id == "shingle"),
        crop=Crop(x_mm=20.0, y_mm=10.0, width_mm=560.0, height_mm=420.0),
        quiets=(Quiet(id="q", x_mm=100.0, y_mm=80.0, size_mm=40.0, from_x_mm=250.0, from_y_mm=200.0),),
        touches=TOUCHES,
        shift=(33.0, -21.0),
    )
    return session, source


def sheet_of(session, source):
    sources = tuple(source if entry.id == source.id else entry for entry in session.job.sources)
    snapshot = session.snapshot().with_job(msgspec.structs.replace(session.job, sources=sources))
    return snapshot.evaluation().value(snapshot.planner().sheet(source, FLAT_PX))


def test_all_of_it_grows_and_it_looks_as_before(shingle):
    session, source = shingle
    grown = scale_source(session.job, source, 1.25)
    grown = grown.commands[0].value if hasattr(grown, "commands") else grown.value
    assert grown.crop.width_mm == 700.0
    assert grown.quiets[0].from_y_mm == 250.0
    assert grown.touches[1].points[0] == (250.0, 250.0)
    assert grown.touches[0].brush.values["size"] == 50.0
    assert grown.touches[1].brush.values["turn"] == 30.0, "an angle is none the larger"
    assert grown.shift == (41.25, -26.25)
    before, after = sheet_of(session, source), sheet_of(session, grown)
    assert after.grid.width_mm == pytest.approx(1.25 * before.grid.width_mm, rel=0.01)
    assert after.grid.shape == before.grid.shape
    away = np.abs(after[MapKind.BASE_COLOUR] - before[MapKind.BASE_COLOUR])
    assert (away > 0.02).mean() < 0.02, "as a cut that falls elsewhere by a pixel may be"
    plain = sheet_of(session, msgspec.structs.replace(source, touches=(), quiets=()))
    assert (np.abs(plain[MapKind.BASE_COLOUR] - before[MapKind.BASE_COLOUR]) > 0.02).mean() > 0.01, "they show"


def test_what_another_version_made_stays_as_it_is(shingle):
    session, source = shingle
    unknown = Setting(op="breakup.of_later", version=3, values={"size": 12.0})
    touch = Touch(id="c", brush=Setting(op="touch.of_later", values={"size": 8.0}), points=((10.0, 20.0),))
    grown = scale_source(session.job, msgspec.structs.replace(source, breakup=unknown, touches=(touch,)), 2.0)
    grown = grown.commands[0].value if hasattr(grown, "commands") else grown.value
    assert grown.breakup == unknown
    assert grown.touches[0].brush == touch.brush
    assert grown.touches[0].points == ((20.0, 40.0),)
