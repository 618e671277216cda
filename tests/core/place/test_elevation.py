"""Courses and elevations; brick sums of check-values B1."""

import msgspec
import numpy as np
import pytest

from brave_tessel.core.job.scene import Level
from brave_tessel.core.place.elevation import count_courses, courses_on, units_of, unroll
from brave_tessel.core.place.figure import CHILD_MM, FIGURE_MM, figure_mesh, silhouette
from brave_tessel.core.place.site import site_of
from tests.core.place.scenes import brick, job, laid, part, room


def test_thirty_four_courses():
    assert count_courses(0, 34 * 75, 0, 75).whole == 34
    assert count_courses(0, 2400, 0, 75).whole == 32
    courses = count_courses(0, 2700, 0, 78)
    assert (courses.whole, courses.cut_mm) == (34, pytest.approx((48.0,)))
    assert not courses.starts_cut


def test_courses_from_a_raised_datum():
    courses = count_courses(0, 1200, 40, 75)
    assert courses.whole == 15
    assert courses.cut_mm == pytest.approx((40.0, 35.0))
    assert courses.starts_cut
    assert count_courses(0, 50, 0, 75).cut_mm == pytest.approx((50.0,))


def test_units_of_a_surface():
    units = units_of(brick())
    assert (units.across, units.courses) == (10, 20)
    assert units.whole
    odd = units_of(brick(width=2150.0))
    assert odd.across == 10
    assert odd.unit_mm == pytest.approx(215.0)
    assert not odd.whole


def counted(made, part, row):
    drawing = unroll(site_of(made), part)
    return next(
        courses_on(drawing, face) for face in drawing.faces if face.facet.standing.part.id == part and face.row == row
    )


def test_courses_of_a_wall_as_it_is_laid():
    made = room(brick(), datum=(4500.0, 0.0, 0.0))
    assert counted(made, "north", 1).whole == 16
    assert counted(made, "north", 1).cut_mm == pytest.approx((48.0,))
    assert counted(made, "east", 1).whole == 16


@pytest.mark.parametrize(
    ("values", "course", "whole"), [({"factor": 2.0}, 150.0, 8), ({"up": 30.0}, 75.0, 16), ({"turn": 180.0}, 75.0, 16)]
)
def test_courses_follow_the_laying(values, course, whole):
    made = room(brick())
    on = laid("flat", "dado", surface="brick", values=values)
    north = msgspec.structs.replace(made.scene.parts[0], laid=(on,))
    scene = msgspec.structs.replace(made.scene, parts=(north, *made.scene.parts[1:]))
    found = counted(msgspec.structs.replace(made, scene=scene), "north", 0)
    assert found.course_mm == pytest.approx(course)
    assert found.whole in {whole, whole - 1}


def test_courses_that_lean_are_not_counted():
    made = room(brick())
    on = laid("flat", "dado", surface="brick", values={"turn": 20.0})
    north = msgspec.structs.replace(made.scene.parts[0], laid=(on,))
    scene = msgspec.structs.replace(made.scene, parts=(north, *made.scene.parts[1:]))
    assert counted(msgspec.structs.replace(made, scene=scene), "north", 0) is None


def test_walls_are_unrolled_round_their_corner():
    drawing = unroll(site_of(room(brick())), "north")
    assert drawing.corners == pytest.approx((4500.0,))
    assert drawing.bounds == pytest.approx((0, 0, 7500, 2700))
    names = {face.facet.standing.part.id for face in drawing.faces}
    assert names == {"north", "east"}
    assert drawing.along_of(np.array([4500.0, -1000.0, 0.0])) == pytest.approx(5500)
    assert drawing.along_of(np.array([700.0, 0.0, 500.0])) == pytest.approx(700)
    assert drawing.along_of(np.array([700.0, -1500.0, 500.0])) is None


def test_a_room_is_drawn_once_round():
    size = {"height": 2500.0, "thickness": 200.0, "length": 3000.0}
    walls = [
        part("a", "wall", size, laid=[laid("flat")]),
        part("b", "wall", size, at=(3000.0, 0.0, 0.0), turn=-90.0, laid=[laid("flat")]),
        part("c", "wall", size, at=(3000.0, -3000.0, 0.0), turn=180.0, laid=[laid("flat")]),
        part("d", "wall", size, at=(0.0, -3000.0, 0.0), turn=90.0, laid=[laid("flat")]),
    ]
    drawing = unroll(site_of(job(*walls, datum=(1500.0, -1500.0, 0.0))), "a")
    left, _, right, _ = drawing.bounds
    assert right - left == pytest.approx(12000)
    assert len(drawing.faces) == 4


def test_a_curved_wall_is_drawn_as_long_as_its_arc():
    wall = part("c", "curved_wall", {"radius": 2000.0, "angle": 90.0}, laid=[laid("around")])
    drawing = unroll(site_of(job(wall, datum=(5000.0, 5000.0, 0.0))), "c")
    left, _, right, _ = drawing.bounds
    assert right - left == pytest.approx(2000 * np.pi / 2, rel=1e-3)


def test_a_floor_and_a_slope_are_seen_square():
    floor = unroll(site_of(room(brick())), "floor")
    assert not floor.upright
    assert floor.bounds == pytest.approx((0, -3000, 4500, 0))
    roof = part("r", "roof", {"pitch": 45.0, "eaves": 0.0}, laid=[laid("flat", "slope")])
    drawn = unroll(site_of(job(roof)), "r")
    _, low, _, high = drawn.bounds
    assert high - low == pytest.approx(2250 * np.sqrt(2), rel=1e-6)


def test_a_group_or_nothing_has_no_elevation():
    assert unroll(site_of(job()), "none") is None
    assert unroll(site_of(room(brick(), levels=(Level(id="l", name="l", height=1.0),))), "floor") is not None


@pytest.mark.parametrize("height", [FIGURE_MM, CHILD_MM])
def test_the_silhouette_is_the_figure_seen_from_the_front(height):
    drawn, solid = np.concatenate(silhouette(height)), figure_mesh(height).points
    assert drawn.min(0) == pytest.approx(solid[:, [0, 2]].min(0), abs=0.01)
    assert drawn.max(0) == pytest.approx(solid[:, [0, 2]].max(0), abs=0.01)


@pytest.mark.parametrize("height", [FIGURE_MM, CHILD_MM])
def test_the_figure_has_the_breadths_of_a_body(height):
    """Shares of the stature by Drillis and Contini (1966), as in Winter, Biomechanics: shoulders 0.259 with the muscle
    over them somewhat more, foot 0.152 long.
    """
    points = figure_mesh(height).points

    def breadth(low, high):
        within = (points[:, 2] >= low * height) & (points[:, 2] <= high * height)
        return np.ptp(points[within][:, 0])

    assert breadth(0.79, 0.81) == pytest.approx(0.265 * height, rel=0.05)
    assert breadth(0.9, 0.96) == pytest.approx(0.091 * height, rel=0.03)
    feet = points[points[:, 2] < 0.02 * height]
    assert np.ptp(feet[:, 1]) == pytest.approx(0.152 * height, rel=0.01)
    # It looks south: the toes are further from the middle than the heels.
    assert -feet[:, 1].min() > feet[:, 1].max()
