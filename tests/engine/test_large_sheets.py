"""A sheet that does not fit whole: the same picture, each piece of work done once, little kept."""

from collections import Counter
from dataclasses import replace

import numpy as np
import pytest

from brave_tessel.core.relief.pictures import VIEWS
from brave_tessel.core.relief.section import FINE_PX, bed_of, beds_of, cut_along
from brave_tessel.core.sheet import Grid
from brave_tessel.engine import cache as cache_of
from brave_tessel.engine.cache import Cache
from brave_tessel.engine.evaluate import Evaluation
from brave_tessel.engine.library.shipped_demo import shipped_demo
from brave_tessel.engine.pictures import surface as surface_of
from brave_tessel.engine.pictures.surface import Showing, surface_picture
from brave_tessel.engine.session import Session


@pytest.fixture
def ran(monkeypatch):
    """How often each task was worked out."""
    counted, compute = Counter(), Evaluation._compute

    def counting(run, task):
        counted[task.key] += 1
        return compute(run, task)

    monkeypatch.setattr(Evaluation, "_compute", counting)
    return counted


def picture_of(session, view="Lit", px=160):
    snapshot = session.snapshot()
    surface = snapshot.job.surface("dado")
    return surface_picture(snapshot, surface, Showing(view, px), fine=True, current=lambda: True, layer="limewash")


@pytest.mark.parametrize("view", ["Lit", "Who wins", "Cover", "Curvature", "Height"])
def test_it_is_the_same_and_nothing_is_done_twice(monkeypatch, ran, view):
    assert view in VIEWS
    usual = picture_of(Session(shipped_demo(), cache=Cache(1 << 30)), view)
    ran.clear()
    monkeypatch.setattr(cache_of, "LARGE_PX", 1)
    monkeypatch.setattr(cache_of, "LARGE_BYTES", 1 << 18)
    monkeypatch.setattr(surface_of, "LARGE_PX", 1)
    session = Session(shipped_demo(), cache=Cache(1 << 30))
    sparing = picture_of(session, view)
    assert all(np.array_equal(one, other) for one, other in zip(usual.mips, sparing.mips, strict=True))
    assert usual.beds.numbers == sparing.beds.numbers
    assert max(ran.values()) == 1
    assert not usual.faults
    assert not sparing.faults
    held = session.snapshot().cache.used
    everything = (
        sum(pixels.nbytes for pixels in sparing.maps.maps.values()) + sparing.stack.nbytes + sparing.beds.nbytes
    )
    assert held < 1.5 * everything + (1 << 20), "nearly nothing but what was asked for"


def test_a_fine_sheets_cut_is_sampled_and_lies_where_it_did():
    session = Session(shipped_demo(), cache=Cache(1 << 30))
    done = picture_of(session, px=256)
    stack = done.stack
    grid = Grid(stack.grid.width_px * 20, stack.grid.height_px * 20, stack.grid.width_mm, stack.grid.height_mm)
    assert max(grid.shape) > 2 * FINE_PX

    ones = np.ones((20, 20))
    height, top = np.kron(stack.height, ones.astype(np.float32)), np.kron(stack.top, ones.astype(np.uint8))
    larger = replace(stack, grid=grid, planes=(stack.planes[0], height, *stack.planes[2:]), top=top)
    bed = bed_of(larger)
    assert max(bed.height.shape) <= FINE_PX
    plain, fine = (cut_along(beds, 100.0) for beds in (done.beds, beds_of(bed, larger)))
    assert fine.x_mm.size <= FINE_PX
    shown = np.interp(plain.x_mm, fine.x_mm, fine.heights[-1])
    assert np.abs(shown - plain.heights[-1]).mean() < 0.1 * np.ptp(plain.heights[-1])
    aslant = cut_along(beds_of(bed, larger), 100.0, 30.0)
    assert aslant.heights.shape == fine.heights.shape
