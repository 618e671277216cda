"""Rows of units of random length: the rows close by their beat, the lengths are cut at a joint."""

import cv2
import numpy as np
import pytest

from brave_tessel.core.colour import encode_srgb, luminance
from brave_tessel.core.job.document import Job
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.repeat.bed_joints import find_joints
from brave_tessel.core.repeat.courses import find_lattice
from brave_tessel.core.repeat.cut import least_path
from brave_tessel.core.repeat.methods.courses import Courses
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.gather.analyses import Beat, cut_to_courses
from tests.core.repeat.closings import smooth
from tests.engine.test_judged import source_of

SIZE = 500, 400


def random_wall(seed, *, course=40.0, px=1.3):
    """(H, W, 3) colour and (H, W) how far each pixel is joint, of rows with units of 60 to 160 mm."""
    rng = np.random.default_rng(seed)
    shape = int(SIZE[1] * px), int(SIZE[0] * px)
    y, x = np.mgrid[0 : shape[0], 0 : shape[1]] / px
    x, y = (one + rng.uniform(0, 1.0) * smooth(rng, shape, 60 * px) for one in (x, y))
    row = np.floor(y / course).astype(int)
    away, own = np.zeros(shape), np.zeros(shape)
    for r in np.unique(row):
        ends, here = np.cumsum(rng.uniform(60, 160, 30)) - rng.uniform(200, 600), row == r
        k = np.searchsorted(ends, x[here])
        away[here] = np.minimum(x[here] - ends[k - 1], ends[k] - x[here])
        own[here] = rng.normal(size=40)[k]
    v = y - row * course
    joint = np.clip((rng.uniform(4, 8) / 2 + 0.6 - np.minimum(away, np.minimum(v, course - v))) / 1.2, 0, 1)[..., None]
    grain = np.exp(0.1 * rng.normal(size=(*shape, 1)))
    units = rng.uniform(0.08, 0.25, 3) * np.exp(0.25 * own[..., None])
    made = (units * (1 - joint) + rng.uniform(0.45, 0.6) * joint) * grain
    return np.ascontiguousarray(np.clip(made, 0, 1), np.float32), joint[..., 0]


def through_units(cuts, joint):
    """Share of the upright cut's rows that have a unit on both sides."""
    height, width = joint.shape
    lap = max(2, round(width * cuts.overlap_x))
    rows = np.arange(height)
    at = np.interp((rows + 0.5) / height * cuts.x.size - 0.5, np.arange(cuts.x.size), cuts.x) * lap
    near = cv2.dilate(joint, np.ones((1, 5)))
    at = np.clip(at.astype(int), 0, lap - 1)
    return float((np.maximum(near[rows, width - lap + at], near[rows, at]) < 0.5).mean())


@pytest.mark.parametrize("seed", range(4))
def test_lengths_are_cut_at_joints_and_not_through_units(seed):
    colour, joint = random_wall(seed)
    flat = MapSet(Grid(colour.shape[1], colour.shape[0], *SIZE), {MapKind.BASE_COLOUR: colour})
    way = {"across": 0, "up": 8, "period_up": 40.0}
    free, led = (through_units(Courses(course=course, **way).find(flat, ()), joint) for course in (0.0, 40.0))
    assert led < 0.6 * free
    assert led < 0.45


def test_joints_are_known_from_those_between_the_rows():
    colour, joint = random_wall(7)
    found = find_joints(colour, Grid(colour.shape[1], colour.shape[0], *SIZE), 40.0)
    assert np.corrcoef(found.share.ravel(), joint.ravel())[0, 1] > 0.85
    assert 3 < found.width / 1.3 < 12
    turned = find_joints(colour.swapaxes(0, 1), Grid(*colour.shape[:2], *SIZE[::-1]), 95.0)
    assert turned.share.shape == joint.T.shape


def test_the_button_finds_the_rows_and_their_height():
    colour, _ = random_wall(3)
    grid = Grid(colour.shape[1], colour.shape[0], *SIZE)
    tone = encode_srgb(np.clip(luminance(colour), 0, 1)).astype(np.float32)
    lattice = find_lattice(tone, grid)
    assert lattice.beats == (False, True)
    source = source_of(colour, SIZE, 48.0)
    mend = (
        cut_to_courses(Job(sources=(source,)), source, Beat(lattice, 6.0)).apply(Job(sources=(source,))).sources[0].mend
    )
    assert mend.number("across") == 0
    assert mend.number("course") == pytest.approx(40, abs=0.6)
    assert mend.number("up") >= 4


def test_a_path_that_may_go_along_a_row_crosses_where_it_is_cheap():
    """Two gaps far apart, joined by one cheap row: a path down steps only one pixel a row, this one goes along it."""
    cost = np.full((21, 40), 10.0)
    cost[:10, 4], cost[11:, 35], cost[10] = 0.1, 0.1, 0.1
    path = least_path(cost, aside=0.5)
    assert set(path[:10]) == {4}
    assert set(path[11:]) == {35}
    assert cost[np.arange(21), least_path(cost)].sum() > cost[np.arange(21), path].sum()
    closed = least_path(np.concatenate([cost, cost[::-1]]), closed=True, aside=0.5)
    assert abs(int(closed[0]) - int(closed[-1])) <= 1
