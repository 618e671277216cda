"""Verdicts as the window has them: sheets of known truth, taken in, mended and judged by the engine.

A sheet closed by a wide overlap is shown with more pixels a millimetre than the picture it came from; what is judged
has to be as large in both.
"""

from collections import Counter

import msgspec
import numpy as np
import pytest

from brave_tessel.core.colour import codes_from_linear
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.maps import MapKind
from brave_tessel.core.repeat.judge import Verdict, as_fine
from brave_tessel.engine.pictures.verdicts import judged
from brave_tessel.engine.session import Session
from brave_tessel.formats.images import encode_png
from brave_tessel.formats.job_file import OpenedJob
from tests.core.repeat.closings import masonry, sheet


def source_of(colour, size, overlap, overlap_up=0.0, session=None):
    session = session or Session(OpenedJob(Job()))
    source = session.intake().make_source(encode_png(codes_from_linear(colour, depth=8)), "sheet.png")
    frame = msgspec.structs.replace(source.straightening, width_mm=float(size[0]), height_mm=float(size[1]))
    mend = Setting(op="mend.best_cut", values={"overlap": float(overlap), "overlap_up": float(overlap_up)})
    return msgspec.structs.replace(source, straightening=frame, mend=mend)


def judged_source(colour, size, overlap, overlap_up=0.0):
    session = Session(OpenedJob(Job()))
    source = source_of(colour, size, overlap, overlap_up, session)
    return judged(session.snapshot().with_job(Job(sources=(source,))), source)[0]


def counted(seeds):
    found = Counter()
    for seed in seeds:
        _, flat, method, in_step = sheet(seed)
        size = flat.grid.width_mm, flat.grid.height_mm
        for sound, one in zip(in_step, judged_source(flat[MapKind.BASE_COLOUR], size, method.overlap), strict=True):
            found[sound, one.verdict] += 1
    return found


def check(found):
    """No more than one in fifty of either is taken for what it is not; of a few, one."""
    sound, off = (sum(count for (truth, _), count in found.items() if truth is is_) for is_ in (True, False))
    assert found[True, Verdict.BROKEN] <= max(1, sound / 50), found
    assert found[False, Verdict.GOOD] <= max(1, off / 50), found
    assert found[True, Verdict.GOOD] > 0.6 * sound, found
    assert found[False, Verdict.BROKEN] > 0.5 * off, found


def test_both_kinds_of_error_on_a_few_sheets():
    check(counted(range(41_000, 41_008)))


@pytest.mark.slow
def test_both_kinds_of_error_on_many_sheets():
    check(counted(range(40_000, 40_150)))


def test_a_wall_closed_in_step_by_a_wide_overlap_is_good():
    """A third of the sheet goes into the overlap, so its cell is shown 1.5 times as fine."""
    colour = masonry(np.random.default_rng(8), (460, 420), (75, 32), 0.5, 1.5)
    assert max(one.verdict for one in judged_source(colour, (460, 420), 160, 36)) is Verdict.GOOD
    assert max(one.verdict for one in judged_source(colour, (460, 420), 122.5, 52)) is Verdict.BROKEN


def test_a_closed_plane_gets_the_pixels_of_the_one_it_came_from():
    plane = np.random.default_rng(1).random((300, 200)).astype(np.float32)
    fine = as_fine(np.ones((640, 480), np.float32), (100.0, 120.0), plane, (200.0, 300.0))
    assert fine.shape == (120, 100)
    assert as_fine(plane, (200.0, 300.0), plane, (200.0, 300.0)) is plane
