"""Course fit: published sums, brute force over random walls, and what is promised is what comes."""

import itertools
import random
from fractions import Fraction

import pytest

from brave_tessel.core.place.fit import ENDS, WITHIN, Limits, Line, Span, fit, joints_of, told
from brave_tessel.core.recipe.set_out import Pitch

BRICK = Pitch(75.0, 10.0, "bed", "height")
LONG = Pitch(225.0, 10.0, "joint", "length", steps=(0.0, 0.5))


def span(height, pitch=BRICK, *, start=0.0, lines=(), ends="coordinating", low=0.0):
    return Span(
        round(low * 1000), round((low + height) * 1000), round(start * 1000), round(pitch.mm * 1000),
        round(pitch.joint * 1000), Limits.of(pitch), tuple(lines), pitch.steps, ENDS[ends],
    )  # fmt: skip


@pytest.mark.parametrize(
    ("height", "count"),
    [(300, 4), (2550, 34), (2400, 32), (1200, 16)],
    ids=["4 courses", "34 courses", "32 courses", "16 courses"],
)
def test_brick_courses_of_the_tables_lie_as_they_are(height, count):
    """UK brickwork dimension tables: n courses are n × 75 (check-values B1)."""
    found = fit(span(height))
    assert found.fits
    assert found.now.count == count


@pytest.mark.parametrize(("ends", "length"), [("coordinating", 2250), ("opening", 2260), ("pier", 2240)])
def test_ten_bricks_in_a_run_an_opening_and_a_pier(ends, length):
    """Horizontal brick sizes: run n × 225, opening n × 225 + 10, pier n × 225 − 10 (brickwork tables, B1)."""
    found = fit(span(length, LONG, ends=ends, start=5.0 * ENDS[ends]))
    assert found.fits
    moved = fit(span(length, LONG, ends=ends, start=40.0)).best("datum")
    assert moved is not None
    assert not moved.cuts


def test_half_bricks_are_no_cuts():
    """The half-brick step of a run is 112.5 (B1)."""
    assert fit(span(2362.5, LONG)).fits


def test_german_courses_come_by_their_joint():
    """DIN 4172: 12 courses of NF (71 high) are one metre, so that the bed joint is 12.33 (B1)."""
    found = fit(span(1000, Pitch(81.0, 10.0, "bed", "height"))).best("joint")
    assert found is not None
    assert found.count == 12
    assert (found.pitch - found.unit) / 1000 == pytest.approx(12.333, abs=1e-3)


def test_the_us_trap_is_told_by_its_joint():
    """Three 2 1/4 in courses in 8 in need 5/12 in = 10.58 mm, not 3/8 in (BIA TN 10, B1)."""
    found = fit(span(203.2, Pitch(66.675, 9.525, "bed", "height"))).best("joint")
    assert found is not None
    assert (found.pitch - found.unit) / 1000 == pytest.approx(10.58, abs=0.01)


def test_joints_stay_within_what_the_standards_allow():
    """6 to 15 mm for mortar, 0.5 to 3 mm for thin layers (EN 1996-1-1, 8.1.5); 2 to 5 mm for tiles (ISO 13006)."""
    assert Limits.of(BRICK).joint == (6000, 15000)
    assert Limits.of(Pitch(251.0, 1.0)).joint == (500, 3000)
    assert Limits.of(Pitch(78.0, 3.0)).joint == (2000, 5000)


def test_units_stay_within_tolerance_t2():
    """EN 771-1, T2: ±max(0.25 √d, 2): 3.7 mm of 215 and 2.0 of 65 (B1)."""
    assert Limits.of(LONG).unit[0] / 1000 == pytest.approx(3.7, abs=0.05)
    assert Limits.of(BRICK).unit[0] / 1000 == pytest.approx(2.0, abs=0.05)


@pytest.mark.parametrize("height", [1003.0, 1187.3, 2413.77, 3001.001])
def test_the_rest_is_spread_so_that_the_sum_is_exact(height):
    for way in ("joint", "unit"):
        one = fit(span(height)).best(way)
        if one is not None:
            joints = joints_of(span(height), one)
            assert joints[-1] == round(height * 1000)
            steps = [b - a for a, b in itertools.pairwise(joints)]
            assert max(steps) - min(steps) <= 1


def test_a_cut_course_is_never_under_a_third_if_it_can_be_helped():
    for height in range(1000, 1400, 7):
        found = fit(span(float(height)))
        best = found.best("cut")
        if best is not None and not found.fits:
            alternatives = [one for one in found.proposals if one.way == "cut"]
            assert len(best.slivers) == min(len(one.slivers) for one in alternatives)


def test_an_opening_is_a_line_of_its_own():
    sill = Line(936_000, -1, "sill")
    found = fit(span(1240, Pitch(78.0, 3.0, "bed", "height"), lines=[sill]))
    for one in found.proposals:
        if one.way in {"joint", "unit", "stretch"}:
            assert any(cut.line is sill for cut in one.cuts)
            assert one.slivers
    assert not found.proposals[0].slivers


# Brute force --------------------------------------------------------------------------------------------


def pieces(wall, start, pitch, joint):
    """Cut pieces and those under a third, in fractions, the plain way."""
    cut = small = 0
    for line in wall.every_line():
        at = Fraction(line.at) + Fraction(line.side * wall.ends) * joint / 2
        rests = []
        for step in wall.steps:
            rest = (at - start - Fraction(step) * pitch) % pitch
            near = rest <= WITHIN or pitch - rest <= WITHIN
            rests.append(Fraction(0) if near else (pitch - rest if line.side > 0 else rest))
        if min(rests) > 0:
            cut += 1
            small += min(rests) < pitch / 3 - WITHIN
    return small, cut


def every_way(wall):
    """Ranks of everything within the limits: all whole and half counts, and the datum by steps."""
    unit, joint = Fraction(wall.unit), Fraction(wall.joint)
    for halves in range(1, int(2.2 * wall.length / wall.pitch * wall.parts)):
        count = Fraction(halves, wall.parts)
        joints = count + wall.ends
        if joints <= 0:
            continue
        width = (wall.length - count * unit) / joints
        if wall.limits.joint[0] <= width <= wall.limits.joint[1]:
            start = wall.low + wall.ends * width / 2
            yield (*pieces(wall, start, unit + width, width), 0, abs(width - joint) / joint)
        size = (wall.length - joints * joint) / count
        if unit - wall.limits.unit[0] <= size <= unit + wall.limits.unit[1]:
            start = wall.low + wall.ends * joint / 2
            yield (*pieces(wall, start, size + joint, joint), 1, abs(size - unit) / unit)
        stretch = wall.length / (count * wall.pitch + wall.ends * joint)
        if abs(stretch - 1) <= Fraction(wall.limits.stretch).limit_denominator(10**6):
            start = wall.low + wall.ends * joint * stretch / 2
            yield (*pieces(wall, start, wall.pitch * stretch, joint * stretch), 2, abs(stretch - 1))


def datum_steps(wall, step):
    pitch = Fraction(wall.pitch)
    for shift in range(-wall.pitch // 2, wall.pitch // 2, step):
        yield (*pieces(wall, Fraction(wall.start + shift), pitch, Fraction(wall.joint)), 3, abs(shift) / pitch)


def random_wall(luck):
    joint = luck.choice([2.0, 3.0, 8.0, 10.0])
    unit = luck.choice([65.0, 71.0, 75.0, 150.0, 215.0])
    steps = luck.choice([(0.0,), (0.0,), (0.0, 0.5)])
    pitch = Pitch(unit + joint, joint, "bed", "height", steps=steps)
    height = round(luck.uniform(2, 16) * pitch.mm, 1)
    lines = [
        Line(round(luck.uniform(0.1, 0.9) * height * 1000), luck.choice([-1, 1])) for _ in range(luck.randint(0, 4))
    ]
    return span(height, pitch, start=luck.uniform(0, 300), lines=lines, ends=luck.choice(list(ENDS)))


@pytest.mark.parametrize("seed", range(40))
def test_nothing_better_exists_within_the_limits(seed):
    luck = random.Random(seed)
    for _ in range(25):
        wall = random_wall(luck)
        found = fit(wall)
        best = min([found.now.rank[:2], *(one.rank[:2] for one in found.proposals)])
        ranks = sorted(every_way(wall))
        for rank in ranks[:1]:
            assert best <= rank[:2], wall
        ours = [one.rank for one in found.proposals if one.way in {"joint", "unit", "stretch"}]
        theirs = [rank for rank in ranks if rank[3] > 1e-7]
        if theirs and ours:
            assert min(ours)[:3] <= min(theirs)[:3], wall
            assert min(ours)[3] <= float(min(theirs)[3]) + 1e-4 or min(ours)[:3] < min(theirs)[:3], wall


@pytest.mark.slow
@pytest.mark.parametrize("seed", range(100, 140))
def test_nothing_better_exists_for_ten_thousand_walls(seed):
    luck = random.Random(seed)
    for _ in range(250):
        wall = random_wall(luck)
        found = fit(wall)
        best = min([found.now.rank[:2], *(one.rank[:2] for one in found.proposals)])
        for rank in sorted(every_way(wall))[:1]:
            assert best <= rank[:2], wall


@pytest.mark.parametrize("seed", range(6))
def test_no_place_of_the_datum_cuts_less(seed):
    luck = random.Random(1000 + seed)
    for _ in range(3):
        wall = random_wall(luck)
        found = fit(wall)
        best = min([found.now.rank[:2], *(one.rank[:2] for one in found.proposals if one.way in {"datum", "cut"})])
        assert best <= min(rank[:2] for rank in datum_steps(wall, 400)), wall


def test_every_proposal_says_its_numbers():
    found = fit(span(1240.0, Pitch(78.0, 3.0, "bed", "height"), start=10.0))
    said = {one.way: str(told(found.span, one)) for one in found.proposals}
    assert said["joint"] == "16 whole, joint 3.0 → 2.50 mm"
    assert said["unit"] == "16 whole, unit 75.0 → 74.50 mm"
    assert said["stretch"] == "16 whole, stretched -0.64 %"


def test_what_changes_nothing_is_not_offered():
    """A joint of 11.543 on 81 courses is 11.54 to whoever sets it out."""
    found = fit(span(6200.0, Pitch(76.543, 11.543, "bed", "height"), lines=[Line(3_900_000, -1)]))
    assert all(abs(one.shift) > WITHIN or abs(one.pitch - found.span.pitch) > 1.0 for one in found.proposals)
    assert not any(one.way in {"joint", "unit", "stretch"} and one.count == 81 for one in found.proposals)
