"""Overlaps under which a best cut meets a bond in step, on walls whose units are known."""

import cv2
import numpy as np
import pytest
from skimage import data

from brave_tessel.core.errors import DoesNotCloseError
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.repeat.in_step import Echoes
from brave_tessel.core.repeat.judge import tone_of
from brave_tessel.core.repeat.line_up import line_up
from brave_tessel.core.repeat.methods.best_cut import BestCut
from brave_tessel.core.sheet import Grid
from tests.core.repeat.closings import masonry, natural


def wall(seed, size, unit, shift, px=1.2):
    colour = masonry(np.random.default_rng(seed), size, unit, shift, px)
    return MapSet(Grid(colour.shape[1], colour.shape[0], *size), {MapKind.BASE_COLOUR: colour})


def away(length, beat):
    """How far a length is from whole beats, mm."""
    return abs((length / beat + 0.5) % 1 - 0.5) * beat


@pytest.mark.parametrize("overlap", [40.0, 60.0, 85.0])
@pytest.mark.parametrize(("unit", "shift", "courses"), [((75, 32), 0.5, 2), ((60, 60), 0.0, 1), ((60, 40), 1 / 3, 3)])
def test_whatever_was_asked_for_whole_units_are_left(overlap, unit, shift, courses):
    found = line_up(wall(5, (470, 430), unit, shift), overlap=(overlap, overlap), colour=0.6, relief=0.4)
    assert found.by_beat == (True, True)
    assert away(470 - found.overlap[0], unit[0]) < 1.0
    assert away(430 - found.overlap[1], courses * unit[1]) < 1.0


def test_the_sheet_that_is_left_is_judged_in_step_both_ways():
    flat = wall(8, (460, 420), (75, 32), 0.5)
    before = BestCut(overlap=40.0)
    found = line_up(flat, overlap=(40.0, 40.0), colour=0.6, relief=0.4)
    after = BestCut(overlap=found.overlap[0], overlap_up=found.overlap[1])
    echoes = Echoes(tone_of(flat[MapKind.BASE_COLOUR]), flat.grid)
    assert echoes.steps(before.closed(460, 420))[0].doubtful
    assert not any(step.doubtful for step in echoes.steps(after.closed(460, 420)))


@pytest.mark.parametrize(("shift", "times"), [(0.0, 1), (0.5, 2), (1 / 3, 3)])
def test_lines_of_a_bond_that_steps_aside_are_not_taken_for_whole_units(shift, times):
    """Of a third bond the uprights of all rows lie a third of a unit apart; a sheet closed by that is out of bond."""
    flat = wall(9, (470, 430), (60, 40), shift)
    for lines, unit in zip(Echoes(tone_of(flat[MapKind.BASE_COLOUR]), flat.grid).lines, (60, 40 * times), strict=True):
        if lines is not None:
            assert away(lines.beat_mm * lines.in_bond, unit) < 1.0


def test_lines_are_measured_in_mm_whatever_the_pixels():
    """Pictures are looked at smaller than they come; lengths do not hang on that."""
    colour = masonry(np.random.default_rng(3), (470, 430), (75, 32), 0.5, 2.4)
    large = MapSet(Grid(colour.shape[1], colour.shape[0], 470, 430), {MapKind.BASE_COLOUR: colour})
    assert max(large.grid.shape) > 1000
    echoes = Echoes(tone_of(large[MapKind.BASE_COLOUR]), large.grid)
    assert max(echoes.light.shape) < max(large.grid.shape)
    across, up = echoes.lines
    assert away(across.beat_mm * across.in_bond, 75) < 1.0
    assert away(up.beat_mm * up.in_bond, 64) < 1.0


def paving():
    """A floor of bricks on end in columns, laid anyhow, photographed aslant (``skimage.data.brick``), and straightened
    by two of its joints: 7.2 columns and, the other way, no beat that all have in common.
    """
    corners = np.float32([(97, 7), (345, 7), (387, 500), (53, 500)])
    flat = np.float32([(0, 0), (709, 0), (709, 1024), (0, 1024)])
    photo = data.brick().astype(np.float32) / 255
    tone = cv2.warpPerspective(photo, cv2.getPerspectiveTransform(corners, flat), (709, 1024), flags=cv2.INTER_AREA)
    colour = np.repeat((tone**2.2)[..., None], 3, 2)
    return MapSet(Grid(709, 1024, 900.0, 1300.0), {MapKind.BASE_COLOUR: np.ascontiguousarray(colour)})


def test_columns_of_a_photographed_floor_are_left_whole():
    flat = paving()
    echoes = Echoes(tone_of(flat[MapKind.BASE_COLOUR]), flat.grid)
    column = echoes.beat_of_lines(1)
    # Counted on the picture: joints stand 111 mm apart.
    assert column == pytest.approx(111, abs=2)
    assert echoes.steps(BestCut(overlap=48.0).closed(900, 1300))[0].broken
    found = line_up(flat, overlap=(48.0, 48.0), colour=0.6, relief=0.4)
    assert found.by_beat[0]
    assert away(900 - found.overlap[0], column) < 3.0
    assert not echoes.steps(BestCut(overlap=found.overlap[0]).closed(900, 1300))[0].doubtful


def test_a_ground_without_a_beat_is_refused_in_one_sentence():
    colour = natural(np.random.default_rng(5), (400, 400), 1.0)
    flat = MapSet(Grid(400, 400, 400.0, 400.0), {MapKind.BASE_COLOUR: colour})
    with pytest.raises(DoesNotCloseError):
        line_up(flat, overlap=(48.0, 48.0), colour=0.6, relief=0.4)


def test_no_overlap_up_is_that_across():
    assert BestCut(overlap=30.0).closed(300, 200) == (270, 170)
    assert BestCut(overlap=30.0, overlap_up=10.0).closed(300, 200) == (270, 190)
