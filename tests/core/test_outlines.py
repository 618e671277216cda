"""Outlines measured from inside, against shapely-free geometry: analytic polygons and brute force."""

import math

import numpy as np
import pytest
from PIL import Image, ImageDraw, ImageFont

from brave_tessel.core.errors import MissingError
from brave_tessel.core.outlines import Outline, inside_of
from brave_tessel.core.sheet import Grid
from brave_tessel.formats.lettering import fonts, letters

SQUARE = Outline((np.array([(0.0, 0.0), (40, 0), (40, 40), (0, 40)]),))


def test_distance_inside_a_square_is_to_its_nearest_side():
    grid = Grid(100, 100, 100, 100)
    inside = inside_of(SQUARE.placed(at=(50, 50)), grid, reach_mm=30)
    x = grid.x_mm()
    assert inside[49, :] == pytest.approx(np.maximum(20 - np.abs(x - 50), -30), abs=0.51)
    assert inside[49, 49] == pytest.approx(19.5, abs=0.01)
    # Outside a corner the distance is to the corner.
    assert inside[79, 79] == pytest.approx(-math.hypot(9.5, 9.5), abs=0.01)


def test_it_wraps_over_every_edge():
    grid = Grid(90, 120, 90, 120)
    middle = inside_of(SQUARE.placed(at=(45, 60), turn=20), grid, reach_mm=12)
    corner = inside_of(SQUARE.placed(at=(0, 0), turn=20), grid, reach_mm=12)
    assert np.roll(middle, (60, -45), (0, 1)) == pytest.approx(corner, abs=1e-4)


def test_a_hole_turns_the_other_way_and_one_that_does_not_is_filled():
    outer = np.array([(0.0, 0), (40, 0), (40, 40), (0, 40)])
    inner = np.array([(10.0, 10), (30, 10), (30, 30), (10, 30)])
    grid = Grid(80, 80, 80, 80)
    holed = inside_of(Outline((outer, inner[::-1].copy())).placed(at=(40, 40)), grid, reach_mm=8)
    filled = inside_of(Outline((outer, inner)).placed(at=(40, 40)), grid, reach_mm=8)
    assert holed[39, 39] < 0 < filled[39, 39]
    area = lambda d: np.clip(d + 0.5, 0, 1).sum()  # noqa: E731
    assert area(holed) == pytest.approx(1600 - 400, rel=0.01)
    assert area(filled) == pytest.approx(1600, rel=0.01)


def test_turning_and_scaling_keep_the_area_as_geometry_says():
    grid = Grid(400, 400, 200, 200)
    laid = SQUARE.placed(at=(100, 100), turn=33, size=1.5, stretch=0.5, skew=20)
    share = np.clip(inside_of(laid, grid, reach_mm=2) / grid.pitch_mm + 0.5, 0, 1).mean()
    assert share * 200 * 200 == pytest.approx(1600 * 1.5 * 1.5 * 0.5, rel=0.005)


def test_letters_cover_what_the_reference_renderer_draws():
    """Area of a kerned word against Pillow's FreeType rendering, and its kerned length."""
    name = "DejaVu Sans"
    font = ImageFont.truetype(str(fonts()[name]), 400)
    length = font.getlength("AVATAR Tide")
    picture = Image.new("L", (int(length) + 100, 600))
    ImageDraw.Draw(picture).text((50, 50), "AVATAR Tide", font=font, fill=255)
    drawn = np.asarray(picture, np.float64).sum() / 255 / 400**2
    outline = letters(name, "AVATAR Tide")
    left, _, right, _ = outline.box()
    grid = Grid(1600, 400, 8.0, 2.0)
    covered = np.clip(inside_of(outline.placed(at=(4, 1)), grid, reach_mm=0.05) / grid.pitch_mm + 0.5, 0, 1).mean() * 16
    assert covered == pytest.approx(drawn, rel=0.01)
    ink = np.nonzero(np.asarray(picture).max(0))[0]
    assert right - left == pytest.approx((ink[-1] - ink[0] + 1) / 400, abs=0.01)


def test_rows_stand_below_each_other_and_are_centred():
    one, two = letters("IBM Plex Sans", "I"), letters("IBM Plex Sans", "I\nI")
    assert two.box()[1] == pytest.approx(one.box()[1] - 1.2, abs=1e-6)
    assert (two.box()[0], two.box()[2]) == pytest.approx((one.box()[0], one.box()[2]))


def test_shipped_fonts_come_first_and_a_missing_one_is_named():
    assert next(iter(fonts())).startswith("IBM Plex")
    with pytest.raises(MissingError) as told:
        letters("No Such Face", "x")
    assert told.value.value == "No Such Face"


def test_nothing_written_covers_nothing():
    assert inside_of(Outline(), Grid(8, 8, 8, 8), reach_mm=1).max() < 0
