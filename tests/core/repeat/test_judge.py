"""Verdicts on joins, counted on closed sheets that they were not tuned on: both kinds of error."""

from collections import Counter

import cv2
import numpy as np
import pytest
from skimage import data

from brave_tessel.core.colour import decode_srgb
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.repeat.coherence import read_coherence
from brave_tessel.core.repeat.cut import paths_on_cell
from brave_tessel.core.repeat.in_step import read_steps
from brave_tessel.core.repeat.judge import Verdict, judge_joins, sharpness_at, tone_of
from brave_tessel.core.repeat.methods.best_cut import BestCut
from brave_tessel.core.sheet import Grid
from tests.core.repeat.closings import judged, masonry, natural


def counted(seeds):
    found = Counter()
    for seed in seeds:
        _, in_step, verdicts = judged(seed)
        for sound, one in zip(in_step, verdicts, strict=True):
            found[sound, one.verdict] += 1
    return found


def check(found):
    """At most two in fifty are taken for what they are not, either way; of a few, one."""
    sound = sum(count for (truth, _), count in found.items() if truth)
    failed = sum(count for (truth, _), count in found.items() if not truth)
    assert found[True, Verdict.BROKEN] <= max(1, sound * 2 / 50), found
    assert found[False, Verdict.GOOD] <= max(1, failed * 2 / 50), found
    assert found[False, Verdict.BROKEN] > 0
    assert found[True, Verdict.GOOD] > 0.5 * sound, found


def test_both_kinds_of_error_on_a_few_sheets():
    check(counted(range(13_000, 13_010)))


@pytest.mark.slow
def test_both_kinds_of_error_on_many_sheets():
    check(counted(range(10_000, 10_150)))


WALL = masonry(np.random.default_rng(3), (460, 420), (60, 30), 0.5, 1.2)
GRID = Grid(WALL.shape[1], WALL.shape[0], 460, 420)


@pytest.mark.parametrize(("width", "off"), [(360, 0), (345, 15), (375, 15), (330, 30), (390, 30)])
def test_how_far_a_wall_is_out_of_step_along_its_rows(width, off):
    """By half a unit of a half bond its uprights lie over each other, in the wrong rows: that is left open."""
    across, _ = read_steps(tone_of(WALL), GRID, (width, 360))
    assert across.doubtful == (off > 0)
    assert across.broken == (off == 15)
    if off == 15:
        assert across.off == pytest.approx(15, abs=0.5)


@pytest.mark.parametrize(("height", "broken"), [(360, False), (345, True), (330, False), (372, True)])
def test_how_far_it_is_out_of_step_up(height, broken):
    """Half bond: after one course of 30 the rows are in step, though the uprights are not."""
    _, up = read_steps(tone_of(WALL), GRID, (360, height))
    assert up.doubtful or not broken
    if height == 360:
        assert not up.doubtful


def test_a_wall_cut_through_its_units_is_broken_and_the_reason_says_by_how_much():
    closed = np.ascontiguousarray(WALL[:, : round(375 * 1.2)])
    across, _ = judge_joins(tone_of(WALL), GRID, tone_of(closed), (375, 420))
    assert across.verdict is Verdict.BROKEN
    assert "out of step by" in str(across.reasons[0])
    whole = np.ascontiguousarray(WALL[:, : round(360 * 1.2)])
    assert judge_joins(tone_of(WALL), GRID, tone_of(whole), (360, 420))[0].verdict < Verdict.BROKEN


def test_a_natural_ground_that_does_not_close_is_strange_at_its_join_and_the_place_is_told():
    ground = natural(np.random.default_rng(5), (400, 400), 1.0)
    light = tone_of(ground)
    spoilt = light.copy()
    spoilt[120:200, :8] += 25
    spoilt[120:200, -8:] -= 25
    found = read_coherence(light, spoilt, axis=1)
    assert max(found.strange) > 0.15
    assert 0.25 < found.worst < 0.55


def test_a_blurred_join_is_noticed():
    light = tone_of(natural(np.random.default_rng(5), (400, 400), 1.0))
    soft, blurred = cv2.GaussianBlur(light, (0, 0), 4), light.copy()
    blurred[:, :8], blurred[:, -8:] = soft[:, :8], soft[:, -8:]
    assert sharpness_at(blurred, axis=1) < 0.6 * sharpness_at(light, axis=1)


@pytest.mark.parametrize("shape", [(16, 16), (16, 300), (300, 16)])
def test_odd_shapes_and_even_pictures_are_judged_too(shape):
    grid = Grid(shape[1], shape[0], 100.0, 100.0)
    for light in (np.zeros(shape, np.float32), np.random.default_rng(1).random(shape).astype(np.float32)):
        for one in judge_joins(light, grid, light, (100.0, 100.0)):
            assert one.verdict in set(Verdict)
            assert 0 <= one.worst <= 1


@pytest.mark.parametrize("name", ["grass", "gravel", "brick"])
def test_photographs_are_judged_as_the_eye_does(name):
    """Open pictures of scikit-image (CC0): as they are they do not close; grass and gravel do by best cut; courses of
    brick cut anywhere are never called good.
    """
    light = getattr(data, name)() / 255
    colour = np.repeat(decode_srgb(light)[..., None], 3, 2).astype(np.float32)
    flat = MapSet(Grid(512, 512, 512.0, 512.0), {MapKind.BASE_COLOUR: colour})
    before = tone_of(colour)
    assert max(one.verdict for one in judge_joins(before, flat.grid, before, (512.0, 512.0))) is Verdict.BROKEN
    method = BestCut(overlap=70.0)
    cuts = method.find(flat, ())
    closed = method.apply(flat, cuts)
    size = closed.grid.width_mm, closed.grid.height_mm
    joins = paths_on_cell(cuts, *closed.grid.shape)
    both = judge_joins(before, flat.grid, tone_of(closed[MapKind.BASE_COLOUR]), size, joins=joins)
    verdicts = {one.verdict for one in both}
    assert verdicts == {Verdict.GOOD} if name != "brick" else Verdict.GOOD not in verdicts
