"""Seams: where a pattern is not carried on."""

import numpy as np

from brave_tessel.core.place.seams import seam_lines

SQUARE = np.array([[0, 0], [1, 0], [1, 1], [0, 0], [1, 1], [0, 1]], float)


def face(x, slide=0.0, name="brick"):
    """A square metre at x, its pattern slid by a share of a repeat."""
    places = np.concatenate([SQUARE + [x, 0], np.zeros((6, 1))], 1)
    uv = np.concatenate([SQUARE + [x + slide, 0], np.ones((6, 1))], 1)
    return name, places, uv


def test_a_pattern_carried_on_has_no_seam():
    assert len(seam_lines([face(0), face(1), face(2)])) == 0
    assert len(seam_lines([])) == 0


def test_a_whole_repeat_between_is_none_and_half_a_one_is():
    assert len(seam_lines([face(0), face(1, 3.0)])) == 0
    (line,) = seam_lines([face(0), face(1, 0.5)])
    assert sorted(map(tuple, line.tolist())) == [(1, 0, 0), (1, 1, 0)]


def test_two_surfaces_meet_in_a_joint_not_a_seam():
    assert len(seam_lines([face(0), face(1, 0.5, "slate")])) == 0


def test_places_with_a_weight_count_by_what_they_mean():
    name, places, uv = face(1)
    assert len(seam_lines([face(0), (name, places, uv * 2.5)])) == 0


def test_a_turned_pattern_breaks_off():
    name, places, uv = face(1)
    turned = np.stack([uv[:, 1], uv[:, 0], uv[:, 2]], 1)
    assert len(seam_lines([face(0), (name, places, turned)])) == 1
