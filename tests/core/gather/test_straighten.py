"""Zhang and He 2007; cameras and corners of check-values C4 (projected by an independent pinhole model)."""

import cv2
import numpy as np
import pytest

from brave_tessel.core.errors import DegenerateViewError, OutOfRangeError
from brave_tessel.core.gather.even_light import even_light, light_drift
from brave_tessel.core.gather.seen import proportion
from brave_tessel.core.gather.straighten import homography, length_on_sheet, proposed_px_per_mm, straighten
from brave_tessel.core.sheet import Grid

# m1 top left, m2 top right, m3 bottom left, m4 bottom right as published; ours go round.
VIEWS = {
    1.5: ((710, 365), (1165.646287, 396.231082), (694.175223, 713.267355), (1123.468424, 678.270404)),
    0.428571: ((800, 140), (1119.949222, 22.222760), (715.939881, 1027.653669), (1099.669830, 1063.336356)),
    1.0: ((800, 380), (1121.122942, 421.187468), (820.295709, 640.136460), (1086.131588, 698.643956)),
}


def ring(corners):
    m1, m2, m3, m4 = corners
    return (m1, m2, m4, m3)


@pytest.mark.parametrize(("aspect", "corners"), VIEWS.items())
def test_proportion_from_one_view(aspect, corners):
    assert proportion(ring(corners), picture_size=(1920, 1080)) == pytest.approx(aspect, abs=2e-6)


@pytest.mark.parametrize(("aspect", "corners"), VIEWS.items())
def test_proportion_from_corners_picked_to_the_pixel(aspect, corners):
    rounded = tuple((round(x), round(y)) for x, y in ring(corners))
    assert proportion(rounded, picture_size=(1920, 1080)) == pytest.approx(aspect, rel=0.01)


def test_parallel_in_both_directions_is_the_side_ratio():
    corners = ((100, 100), (400, 100), (400, 300), (100, 300))
    assert proportion(corners, picture_size=(500, 400)) == pytest.approx(1.5)


def test_one_vanishing_point_at_infinity_is_refused():
    corners = ((200, 100), (400, 100), (500, 300), (100, 300))
    with pytest.raises(DegenerateViewError) as caught:
        proportion(corners, picture_size=(600, 400))
    assert "width and the height" in caught.value.remedy


@pytest.mark.parametrize(
    "corners", [((0, 0), (10, 10), (10, 0), (0, 10)), ((0, 0), (100, 0), (50, 20), (0, 100)), ((5, 5),) * 4]
)
def test_frames_that_cross_or_fold_are_refused(corners):
    with pytest.raises(DegenerateViewError):
        homography(corners, 1, 1)


def test_homography_of_four_points():
    # check-values C4: maps pixel (300, 260) to (0.936992, 0.807295); there y counts from the first corner.
    corners = ((100, 100), (500, 140), (540, 380), (80, 420))
    u, v, w = homography(corners, 2.25, 1.5) @ [300, 260, 1]
    assert (u / w, v / w) == pytest.approx((0.936992, 0.807295), abs=1e-6)
    theirs = cv2.getPerspectiveTransform(np.float32(corners), np.float32([[0, 0], [2.25, 0], [2.25, 1.5], [0, 1.5]]))
    assert np.allclose(homography(corners, 2.25, 1.5), theirs / theirs[2, 2], atol=1e-5)


def chequer(rows=400, columns=600, cell=20):
    y, x = np.mgrid[0:rows, 0:columns]
    return ((((x // cell) + (y // cell)) % 2) * 0.8 + 0.1).astype(np.float32)[..., None].repeat(3, 2)


def test_straightening_undoes_the_view():
    flat = chequer()
    corners = ((150.0, 90.0), (930.0, 160.0), (880.0, 640.0), (90.0, 560.0))
    forward = np.linalg.inv(homography(corners, 600, 400))
    seen = cv2.warpPerspective(flat, forward, (1024, 720), flags=cv2.INTER_LINEAR)
    back = straighten(seen, corners, width_px=600, height_px=400)
    assert np.abs(back[30:-30, 30:-30] - flat[30:-30, 30:-30]).mean() < 0.03


def test_fine_detail_averages_in_linear_light_and_does_not_alias():
    fine = np.indices((800, 800)).sum(0) % 2
    picture = fine.astype(np.float32)[..., None].repeat(3, 2)
    whole = ((0.0, 0.0), (800.0, 0.0), (800.0, 800.0), (0.0, 800.0))
    small = straighten(picture, whole, width_px=100, height_px=100)
    assert np.abs(small[3:-3, 3:-3] - 0.5).max() < 0.02


def test_same_size_is_the_same_picture():
    flat = chequer()
    whole = ((0.0, 0.0), (600.0, 0.0), (600.0, 400.0), (0.0, 400.0))
    assert np.allclose(straighten(flat, whole, width_px=600, height_px=400), flat, atol=1e-4)


def test_dimension_line_is_measured_on_the_sheet():
    corners = ring(VIEWS[1.5])
    half = length_on_sheet(corners, corners[0], corners[1], width=1500, height=1000)
    assert half == pytest.approx(1500)
    middle = (946.084821, 543.873120)
    assert length_on_sheet(corners, corners[0], middle, width=2.25, height=1.5) == pytest.approx(
        np.hypot(1.125, 0.75), abs=1e-5
    )


def test_density_follows_the_finest_side():
    whole = ((0.0, 0.0), (2000.0, 0.0), (2000.0, 1000.0), (0.0, 1000.0))
    assert proposed_px_per_mm(whole, 1000, 500) == pytest.approx(2.0)


def test_too_small_a_sheet_is_refused():
    with pytest.raises(OutOfRangeError):
        straighten(chequer(), ((0, 0), (9, 0), (9, 9), (0, 9)), width_px=1, height_px=10)


def test_evening_takes_the_ramp_and_keeps_the_mean():
    rng = np.random.default_rng(2)
    grid = Grid(300, 200, 900, 600)
    ramp = np.linspace(0.1, 0.5, 300)[None, :, None]
    picture = (ramp * (1 + 0.2 * rng.normal(0, 1, (200, 300, 3)))).clip(0.01).astype(np.float32)
    evened = even_light(grid, picture, wavelength=500, strength=1.0)
    assert light_drift(picture) > 1.0
    assert light_drift(evened) < 0.25
    assert np.allclose(evened.mean((0, 1)), picture.mean((0, 1)), rtol=1e-4)
    assert even_light(grid, picture, strength=0.0) is picture
