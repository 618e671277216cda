"""Of how many whole units a sheet is closed: of the most it holds, or of fewer where that closes better."""

import numpy as np
import pytest

from brave_tessel.core.job.document import Job
from brave_tessel.core.maps import MapKind
from brave_tessel.core.repeat.judge import Verdict
from brave_tessel.engine.gather.analyses import cut_to_courses, find_beat, scaled_beat
from brave_tessel.engine.gather.counts import soundest_counts
from brave_tessel.engine.pictures.verdicts import judged
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob
from tests.core.repeat.closings import masonry
from tests.core.repeat.test_line_up import paving
from tests.engine.test_judged import source_of


def cut(colour, size):
    session = Session(OpenedJob(Job()))
    source = source_of(colour, size, size[0] / 10, session=session)
    job = Job(sources=(source,))
    beat = find_beat(session.snapshot().with_job(job), source)
    return session, beat, cut_to_courses(job, source, beat).apply(job).sources[0]


def verdicts(session, source):
    return judged(session.snapshot().with_job(Job(sources=(source,))), source)[0]


def test_a_photographed_floor_is_closed_where_it_closes_best():
    """Bricks on end (``skimage.data.brick``), straightened: of eight columns and four lengths the cut leaves double
    joints and slivers, which the eye rejects; of six and three it leaves none.
    """
    session, beat, source = cut(paving()[MapKind.BASE_COLOUR], (900, 1300))
    job = Job(sources=(source,))
    assert (source.mend.value("across"), source.mend.value("up")) == beat.counts == (6, 3)
    largest = cut_to_courses(job, source, _unsaid(beat)).apply(job).sources[0]
    assert (largest.mend.value("across"), largest.mend.value("up")) == (8, 4)
    strange, stranger = (
        [sum(one.coherence.strange) for one in verdicts(session, either)] for either in (source, largest)
    )
    assert strange[0] < stranger[0] - 0.5
    assert strange[1] < stranger[1]


def _unsaid(beat):
    return type(beat)(beat.lattice, beat.joint_mm, beat.lines)


@pytest.mark.parametrize("unit", [(60, 30), (75, 40)])
def test_a_wall_that_closes_as_it_is_keeps_all_it_holds(unit):
    colour = masonry(np.random.default_rng(5), (460, 420), unit, 0.5, 1.5)
    session, beat, source = cut(colour, (460, 420))
    plain = cut_to_courses(Job(sources=(source,)), source, _unsaid(beat)).apply(Job(sources=(source,))).sources[0]
    assert source.mend == plain.mend
    assert max(one.verdict for one in verdicts(session, source)) is Verdict.GOOD
    assert scaled_beat(beat, 2.0).counts == beat.counts


def test_what_cannot_be_closed_at_all_keeps_the_most():
    colour = masonry(np.random.default_rng(5), (460, 420), (60, 30), 0.5, 1.5)
    session, _, source = cut(colour, (460, 420))
    broken = source_of(colour, (460, 420), 46, session=session)
    assert soundest_counts(session.snapshot(), source) == (source.mend.value("across"), source.mend.value("up"))
    assert broken.mend.op == "mend.best_cut"
