"""Recipe steps against published values: check-values B2, B3, C1, D3, D5, D6, D7, and what geometry says."""

import math

import numpy as np
import pytest
from scipy import ndimage

import brave_tessel.core.registered  # noqa: F401
from brave_tessel.core.colour import hex_to_linear, lab_of
from brave_tessel.core.errors import OutOfRangeError
from brave_tessel.core.kernels.marks import paint_marks, poisson_points
from brave_tessel.core.kernels.wrapped import sample_moved
from brave_tessel.core.operation import REGISTRY, find
from brave_tessel.core.recipe.closing import closing
from brave_tessel.core.recipe.steps.blur import box, directional
from brave_tessel.core.recipe.steps.cellular import cell_noise, cobbles
from brave_tessel.core.recipe.steps.colours import linear_of_oklab, oklab_of, ramp_table, stops_of
from brave_tessel.core.recipe.steps.combine import blended_colours, join, normals, smooth
from brave_tessel.core.recipe.steps.form import distance_to, fill, grow, keep, shaded
from brave_tessel.core.recipe.steps.fractal import oriented, spectrum
from brave_tessel.core.recipe.steps.layouts import (
    basketweave,
    fan,
    herringbone,
    hexagons,
    octagons,
    planks,
    slates,
    uncoursed,
)
from brave_tessel.core.recipe.steps.move import drift, erode, slump, turn
from brave_tessel.core.recipe.steps.noise import clouds
from brave_tessel.core.recipe.steps.pattern import units
from brave_tessel.core.recipe.steps.sheets import corrugation, perforation, weave
from brave_tessel.core.recipe.steps.stray import chip, stray
from brave_tessel.core.recipe.steps.tune import bias, equalise
from brave_tessel.core.sheet import Grid


def covered(pieces):
    return float((pieces.number >= 0).mean())


# B2: unit area fractions and units in one repeat --------------------------------------------------


@pytest.mark.parametrize(("flats", "joint", "fraction"), [(150, 3, 0.961169), (200, 2, 0.980296)])
def test_hexagons_cover_as_published(flats, joint, fraction):
    width = flats + joint
    grid = Grid(1200, round(1200 * math.sqrt(3)), width, math.sqrt(3) * width)
    pieces = hexagons(grid, width=width, joint=joint)
    assert pieces.count == 2
    assert covered(pieces) == pytest.approx(fraction, abs=0.002)


def test_octagons_and_dots_share_as_published():
    pieces = octagons(Grid(1000, 1000, 150, 150), pitch=150, joint=0)
    shares = np.bincount(pieces.number.ravel(), minlength=2) / pieces.number.size
    assert sorted(shares)[1] == pytest.approx(2 * (math.sqrt(2) - 1), abs=0.002)


@pytest.mark.parametrize(("length", "width", "size", "count"), [(215, 102.5, (450, 450), 8), (215, 65, (450, 450), 12)])
def test_herringbone_at_90_closes_as_published(length, width, size, count):
    pieces = herringbone(Grid(1200, 1200, *size), length=length, width=width, joint=10)
    assert pieces.count == count
    long, short = length + 10, (length + 10) / round((length + 10) / (width + 10))
    assert covered(pieces) == pytest.approx((long - 10) * (short - 10) / (long * short), abs=0.005)


def test_herringbone_at_45_closes_at_any_proportion():
    """UK brick with its joint, 225 × 112.5: 159.10 × 318.20, two units."""
    pieces = herringbone(Grid(800, 1600, 159.10, 318.20), length=215, width=102.5, joint=10, laid="45")
    assert pieces.count == 2
    assert covered(pieces) == pytest.approx(215 * 102.5 / (225 * 112.5), abs=0.004)
    assert (pieces.edge > -5.1).all()


def test_basketweave_has_four_n_units():
    pieces = basketweave(Grid(900, 900, 450, 450), length=225, units=2, joint=10)
    assert pieces.count == 8
    assert covered(pieces) == pytest.approx(215 * 102.5 / (225 * 112.5), abs=0.004)


@pytest.mark.parametrize(
    ("length", "width", "lap", "gauge", "a_square_metre"),
    [(500, 250, 100, 200, 20.0), (600, 300, 100, 250, 13.33), (400, 200, 75, 162.5, 30.77), (265, 165, 65, 100, 60.6)],
)
def test_slates_show_their_gauge(length, width, lap, gauge, a_square_metre):
    """BS 5534: gauge = (length − headlap) / 2 (check-values B3)."""
    grid = Grid(200, round(200 * 2 * gauge / width), width, 2 * gauge)
    pieces = slates(grid, length=length, width=width, headlap=lap, joint=0, ragged=0)
    assert pieces.count == 2
    assert 1e6 / (width * 2 * gauge / pieces.count) == pytest.approx(a_square_metre, rel=0.001)


def test_corrugation_has_its_pitch_depth_and_slope():
    """76/18 has a steepest slope of 36.652° (check-values B3)."""
    grid = Grid(4096, 4, 760, 1)
    height = corrugation(grid, pitch=76, depth=18)
    assert np.ptp(height) == pytest.approx(18, abs=0.01)
    slope = np.abs(np.diff(height[0])).max() / (760 / 4096)
    assert math.degrees(math.atan(slope)) == pytest.approx(36.652, abs=0.05)


def test_planks_and_fans_leave_no_gap():
    for pieces in (planks(Grid(600, 600, 1440, 1440), joint=0), fan(Grid(600, 600, 2400, 2400), joint=0)):
        assert covered(pieces) > 0.995


def test_a_weave_has_as_much_above_as_below_and_twill_runs_diagonally():
    grid = Grid(256, 256, 64, 64)
    plain = weave(grid, size=4, weave="plain")
    assert np.allclose(plain, np.roll(plain, (16, 16), (0, 1)), atol=1e-3)
    twill = weave(grid, size=4, weave="twill")
    one = 256 // 16
    assert (
        np.abs(twill - np.roll(twill, (-one, one), (0, 1))).mean()
        < np.abs(twill - np.roll(twill, (one, one), (0, 1))).mean()
    )


def test_perforation_has_its_open_area():
    """Staggered round holes: π d² / (2 √3 p²) of the sheet is open (common practice)."""
    grid = Grid(1200, round(1200 * math.sqrt(3)), 12, 12 * math.sqrt(3))
    assert 1 - perforation(grid, pitch=12, hole=6).mean() == pytest.approx(
        math.pi * 36 / (2 * math.sqrt(3) * 144), abs=0.003
    )


# D3: noise ---------------------------------------------------------------------------------------


def test_distances_of_jittered_cells_as_published():
    """One jittered point a cell: F1 mean 0.4295 cells, sd 0.190 (check-values D3)."""
    grid = Grid(1024, 1024, 1000, 1000)
    one = np.concatenate([cell_noise(grid, size=20, takes="nearest", jitter=1.0, seed=s).ravel() for s in (1, 2, 3)])
    assert one.mean() == pytest.approx(0.4295, rel=0.01)
    assert one.std() == pytest.approx(0.190, rel=0.02)


@pytest.mark.parametrize("slope", [1.0, 2.0, 3.0])
def test_noise_of_a_slope_has_it(slope):
    grid = Grid(512, 512, 512, 512)
    made = np.mean(
        [
            np.abs(np.fft.fft2(spectrum(grid, slope=slope, broadest=512, finest=2.2, seed=s) - 0.5)) ** 2
            for s in range(4)
        ],
        0,
    )
    k = np.hypot(*np.meshgrid(np.fft.fftfreq(512) * 512, np.fft.fftfreq(512) * 512))
    bins = np.unique(np.round(np.geomspace(8, 120, 12))).astype(int)
    power = [made[(k >= b - 1) & (k < b + 1)].mean() for b in bins]
    # Values cut off beyond 2.5 deviations whiten a steep spectrum a little.
    assert -np.polyfit(np.log(bins), np.log(power), 1)[0] == pytest.approx(slope, abs=0.25)


@pytest.mark.parametrize("angle", [0.0, 30.0, -60.0])
def test_streaks_run_their_way_at_their_distance(angle):
    grid = Grid(512, 512, 512, 512)
    power = np.abs(np.fft.fft2(oriented(grid, size=16, angle=angle, spread=6, variety=0.1) - 0.5)) ** 2
    fy, fx = np.meshgrid(-np.fft.fftfreq(512), np.fft.fftfreq(512), indexing="ij")
    half = fx > 0 if abs(angle) > 1 else fy > 0
    mean_f = (power * np.hypot(fx, fy))[half].sum() / power[half].sum()
    assert 1 / mean_f == pytest.approx(16, rel=0.05)
    wave = math.degrees(math.atan2((power * fy)[half].sum(), (power * fx)[half].sum()))
    assert (wave - 90 - angle + 90) % 180 - 90 == pytest.approx(0, abs=3)


def test_dots_keep_their_distance_and_fill_the_sheet():
    points = poisson_points(300, 200, 10, np.random.default_rng(1).random((20_000, 2)).astype(np.float32))
    d = points[:, None] - points[None]
    d[..., 0] = (d[..., 0] + 150) % 300 - 150
    d[..., 1] = (d[..., 1] + 100) % 200 - 100
    away = np.hypot(d[..., 0], d[..., 1]) + np.eye(len(points)) * 99
    assert away.min() >= 10
    # Saturated random packing of discs covers 0.547 (Feder 1980).
    assert 0.48 < len(points) * math.pi * 25 / 60_000 < 0.547


def test_a_stroke_has_its_area_at_every_size():
    for px in (64, 256, 1024):
        cover = paint_marks(Grid(px, px, 100, 100), [(20, 50, 80, 50, 0.8, 0.8, 0.2, 1.0)])
        assert cover.mean() * 1e4 == pytest.approx(60 * 0.8, rel=0.1)


# D5, D7: combining -------------------------------------------------------------------------------

B, S = np.array([0.6, 0.3, 0.2], np.float32), np.array([0.2, 0.5, 0.8], np.float32)
W3C = {
    "over": (0.2, 0.5, 0.8),
    "multiply": (0.12, 0.15, 0.16),
    "screen": (0.68, 0.65, 0.84),
    "overlay": (0.36, 0.30, 0.32),
    "darken": (0.2, 0.3, 0.2),
    "lighten": (0.6, 0.5, 0.8),
    "dodge": (0.75, 0.6, 1.0),
    "burn": (0, 0, 0),
    "hard light": (0.24, 0.30, 0.68),
    "soft light": (0.456, 0.3, 0.3488),
    "difference": (0.4, 0.2, 0.6),
    "exclusion": (0.56, 0.5, 0.68),
    "hue": (0.217, 0.417, 0.617),
    "saturation": (0.7105, 0.2605, 0.1105),
    "colour": (0.136, 0.436, 0.736),
    "luminosity": (0.664, 0.364, 0.264),
}


@pytest.mark.parametrize("mode", W3C)
def test_blend_modes_as_published(mode):
    """W3C Compositing and Blending Level 1, worked in check-values D5."""
    assert blended_colours(mode, B[None, None], S[None, None])[0, 0] == pytest.approx(W3C[mode], abs=6e-4)


@pytest.mark.parametrize(
    ("how", "expected"),
    [
        ("reoriented", (0.095619, 0.494159, 0.864097)),
        ("whiteout", (0.101404, 0.507020, 0.855948)),
        ("slopes added", (0.122056, 0.487894, 0.864327)),
        ("plain", (0.052355, 0.261777, 0.963707)),
    ],
)
def test_normals_are_combined_as_published(how, expected):
    """Barré-Brisebois and Hill 2012, worked in check-values D7."""
    one = np.array([0.3, 0.4, 0.866025], np.float32)[None, None]
    two = np.array([-0.2, 0.1, 0.974679], np.float32)[None, None]
    assert normals(Grid(1, 1, 1, 1), one, two, how=how)[0, 0] == pytest.approx(expected, abs=2e-5)


def test_joins_and_smooth_ends():
    grid = Grid(2, 2, 1, 1)
    low, high = np.zeros((2, 2), np.float32), np.array([[1, -1], [0.05, -0.05]], np.float32)
    assert join(grid, low, high, feather=0) == pytest.approx(np.maximum(low, high))
    assert join(grid, low, high, feather=0.2)[1] == pytest.approx([0.05 * 0.75, -0.05 * 0.25])
    assert smooth(grid, low, high, takes="highest", soft=0.001)[0] == pytest.approx([1, 0], abs=1e-3)


# Adjusting and blurring --------------------------------------------------------------------------


def test_levels_and_bias_as_published():
    """check-values D6; bias and gain leave ends and, at a half, everything."""
    grid = Grid(1, 1, 1, 1)
    levels = find("adjust.levels")
    for value, black, white, gamma, expected in (
        (0.5, 0.1, 0.9, 2, 0.707107),
        (0.25, 0, 1, 2.2, 0.532521),
        (0.3, 0.2, 0.8, 0.5, 0.027778),
    ):
        made = levels.run(grid, np.full((1, 1), value, np.float32), black=black, white=white, gamma=gamma)
        assert made[0, 0] == pytest.approx(expected, abs=1e-5)
    t = np.linspace(0, 1, 9, dtype=np.float32)[None]
    assert bias(grid, t, bias=0.5, gain=0.5) == pytest.approx(t, abs=1e-6)
    assert bias(grid, t, bias=0.2)[0, 4] == pytest.approx(0.2, abs=1e-6)


def test_equalised_values_are_even():
    made = equalise(Grid(256, 256, 100, 100), clouds(Grid(256, 256, 100, 100), size=40, seed=2))
    assert np.histogram(made, 10, (0, 1))[0] / made.size == pytest.approx(np.full(10, 0.1), abs=0.01)


def test_box_and_line_means_as_scipy_has_them():
    grid = Grid(64, 64, 64, 64)
    noise = np.random.default_rng(1).random((64, 64)).astype(np.float32)
    assert box(grid, noise, radius=3.5) == pytest.approx(ndimage.uniform_filter(noise, 7, mode="wrap"), abs=1e-5)
    line = directional(grid, noise, length=9, angle=0)
    assert line == pytest.approx(ndimage.uniform_filter1d(noise, 9, axis=1, mode="wrap"), abs=1e-5)


# Forms -------------------------------------------------------------------------------------------


@pytest.mark.parametrize(("width", "height"), [(80, 45), (80, 60)])
def test_wrapped_distance_against_brute_force(width, height):
    grid = Grid(40, 30, width, height)
    pitch = height / 30
    inside = np.random.default_rng(3).random((30, 40)) > 0.985
    found = distance_to(inside, grid, 100)
    ys, xs = np.nonzero(inside)
    for r in range(0, 30, 3):
        for c in range(0, 40, 3):
            dx = np.abs(xs - c) * 2.0
            dy = np.abs(ys - r) * pitch
            exact = np.hypot(np.minimum(dx, 80 - dx), np.minimum(dy, height - dy)).min()
            assert found[r, c] == pytest.approx(exact, abs=1e-4)


def test_a_disc_grows_and_shrinks_by_millimetres():
    grid = Grid(400, 400, 100, 100)
    disc = find("source.shape").run(grid, shape="disc", size=40.0, right=97.0, up=50.0, turn=0, corners=3, soft=1.0)
    for by in (5.0, -5.0):
        assert grow(grid, disc, by=by).mean() * 1e4 == pytest.approx(math.pi * (20 + by) ** 2, rel=0.02)


def test_holes_are_filled_and_specks_taken_out_over_the_edge():
    grid = Grid(100, 100, 100, 100)
    mask = np.zeros((100, 100), np.float32)
    mask[40:60, :] = 1
    mask[48:52, 98:] = mask[48:52, :2] = 0
    mask[5, 5] = 1
    assert fill(grid, mask, largest=8.0)[50, 0] == 1
    assert keep(grid, mask, least=5.0)[5, 5] == 0
    assert keep(grid, mask, least=5.0)[50, 50] == 1


def test_the_sky_over_a_trench_as_published():
    """Infinite trench, H/W 0.5: 0.70711 at the middle of the floor, cosine-weighted (check-values C1)."""
    grid = Grid(400, 400, 100, 100)
    floor = (np.abs(grid.x_mm() - 50) < 10).astype(np.float32)
    height = np.ascontiguousarray(np.broadcast_to(1 - floor[None, :], grid.shape), np.float32)
    seen = shaded(grid, height, rise=10.0, reach=40.0)
    assert seen[200, 200] == pytest.approx(0.70711, abs=0.03)
    assert seen[200, 20] == pytest.approx(1, abs=0.01)


# Moving ------------------------------------------------------------------------------------------


def test_drift_on_a_cone_finds_what_lies_below():
    grid = Grid(200, 200, 100, 100)
    x, y = grid.x_mm()[None, :] - 50, grid.y_mm()[:, None] - 50
    away = np.hypot(x, y).astype(np.float32)
    down = drift(grid, away, away, reach=10.0, soft=0.5, takes="lowest")
    ring = (away > 20) & (away < 40)
    assert (away - down)[ring] == pytest.approx(10, abs=0.8)
    mean = drift(grid, away, away, reach=10.0, soft=0.5, takes="mean")
    assert (away - mean)[ring] == pytest.approx(5, abs=0.6)


def test_slumping_and_washing_lose_nothing_and_obey_the_angle():
    grid = Grid(512, 512, 200, 200)
    field = clouds(grid, size=60, octaves=6, seed=4)
    slid = slump(grid, field, angle=20, rise=40, passes=600)
    assert slid.mean(dtype=np.float64) == pytest.approx(field.mean(dtype=np.float64), abs=1e-6)
    pitch = 200 / 512 / 40
    before, after = (np.degrees(np.arctan(np.abs(np.diff(f, axis=1)) / pitch)) for f in (field, slid))
    assert (before > 21).mean() > 0.3
    assert (after > 21).mean() < 0.1 * (before > 21).mean()
    washed = erode(grid, field, rain=0.3)
    assert washed.mean(dtype=np.float64) == pytest.approx(field.mean(dtype=np.float64), abs=1e-5)
    assert not np.array_equal(washed, field)


def test_quarter_turns_are_exact():
    grid = Grid(64, 64, 50, 50)
    field = clouds(grid, size=20, seed=1)
    assert turn(grid, field, turn="90") == pytest.approx(np.rot90(field), abs=1e-5)
    assert turn(grid, field, turn="180") == pytest.approx(np.rot90(field, 2), abs=1e-5)
    back = turn(grid, turn(grid, field, turn="90"), turn="270")
    assert back == pytest.approx(field, abs=1e-5)


def test_a_sample_between_pixels_is_bilinear_and_wraps():
    grid = Grid(16, 16, 16, 16)
    field = np.random.default_rng(1).random((16, 16)).astype(np.float32)
    right = np.full((16, 16), 3.25, np.float32)
    expected = 0.75 * np.roll(field, -3, 1) + 0.25 * np.roll(field, -4, 1)
    assert sample_moved(field, right, np.zeros_like(right), grid) == pytest.approx(expected, abs=1e-5)


# Colours -----------------------------------------------------------------------------------------


def test_oklab_as_published():
    """Ottosson 2020: white is (1, 0, 0); the XYZ of his first test colour is D65 white."""
    assert oklab_of(np.ones(3)) == pytest.approx([1, 0, 0], abs=1e-4)
    colours = np.random.default_rng(2).random((50, 3))
    assert linear_of_oklab(oklab_of(colours)) == pytest.approx(colours, abs=1e-6)


def test_ramps_hold_their_stops_and_are_even_for_the_eye():
    places, _ = stops_of("#000000,#808080@0.3,#FFFFFF")
    assert places == pytest.approx([0, 0.3, 1])
    table = ramp_table("#20402A,#C8B060@0.4,#FFFFFF", "even")
    assert table[0] == pytest.approx(hex_to_linear("#20402A"), abs=1e-5)
    assert table[round(0.4 * 1023)] == pytest.approx(hex_to_linear("#C8B060"), abs=0.01)
    light = lab_of(ramp_table("#000000,#FFFFFF", "even"))[:, 0]
    assert np.diff(light[40:]).std() / np.diff(light[40:]).mean() < 0.35


@pytest.mark.parametrize("bad", ["#123456", "#123456,blue", "#123456@2,#000000", "", "#1,#2"])
def test_a_bad_ramp_is_refused(bad):
    with pytest.raises(OutOfRangeError):
        REGISTRY["colour.stops"].params["colours"].check(bad)


def test_cobbles_are_about_alike_once_moved_apart():
    grid = Grid(600, 600, 900, 900)

    def spread(even):
        areas = np.bincount(cobbles(grid, size=90, joint=0, even=even).number.ravel())
        return areas.std() / areas.mean()

    assert spread(8) < 0.75 * spread(0)


# Ashlar without courses, strays, chips, closing ---------------------------------------------------


def test_uncoursed_stones_have_the_asked_sizes_and_fill_the_sheet():
    grid = Grid(600, 600, 1800, 1800)
    pieces = uncoursed(grid, sizes="450×300, 300×300, 300×150, 150×150", joint=0)
    areas = np.bincount(pieces.number.ravel(), minlength=pieces.count) * grid.pitch_mm**2
    assert areas.sum() == pytest.approx(1800 * 1800)
    asked = np.array([450 * 300, 300 * 300, 300 * 150, 150 * 150])
    assert np.abs(areas[:, None] / asked - 1).min(1).max() < 0.03
    # Every size is used, and no joint runs through level from edge to edge.
    assert set(np.abs(areas[:, None] - asked).argmin(1)) == {0, 1, 2, 3}
    for seed in range(1, 21):
        number = uncoursed(grid, sizes="450×300, 300×300, 300×150, 150×150", joint=0, seed=seed).number
        assert (number != np.roll(number, 1, 0)).mean(1).max() < 0.95


def test_a_list_of_sizes_is_read_in_any_unit_and_refused_in_words():
    param = find("pattern.uncoursed").params["sizes"]
    assert param.check("40x20cm, 200 × 200") == "400×200, 200×200"
    for wrong in ("", "large", "400"):
        with pytest.raises(OutOfRangeError, match="Sizes"):
            param.check(wrong)


def test_a_stray_piece_is_turned_about_its_middle_and_keeps_its_area():
    grid = Grid(400, 400, 400, 400)
    tiles = units(grid, length=190, height=190, joint=10, bond="stack")
    same = stray(grid, tiles, turn=0.0, size=0.0, shift=0.0)
    assert (same.number == tiles.number).mean() > 0.999
    turned = stray(grid, tiles, turn=2.0, size=0.0, shift=0.0, seed=4)
    before, after = (np.bincount(p.number[p.number >= 0], minlength=4) for p in (tiles, turned))
    assert after == pytest.approx(before, rel=0.02)
    smaller = stray(grid, tiles, turn=0.0, size=0.2, shift=0.0, seed=4)
    shares = np.bincount(smaller.number[smaller.number >= 0], minlength=4) / before
    assert (shares < 1.0).all()
    assert shares.min() > 0.6


def test_chips_take_from_the_edges_only():
    grid = Grid(400, 400, 400, 400)
    tiles = units(grid, length=190, height=190, joint=10, bond="stack")
    chipped = chip(grid, tiles, depth=8.0, share=0.3, wear=0.0)
    lost = (tiles.number >= 0) & (chipped.number < 0)
    assert 0.001 < lost.mean() < 0.06
    assert tiles.edge[lost].max() <= 8.0


@pytest.mark.parametrize(
    ("op", "values", "period"),
    [
        ("pattern.hexagons", {"width": 153.0, "joint": 3.0}, (153.0, 265.0)),
        ("pattern.herringbone", {"length": 215.0, "width": 102.5, "joint": 10.0}, (450.0, 450.0)),
        ("pattern.herringbone", {"length": 215.0, "width": 102.5, "joint": 10.0, "laid": "45"}, (159.099, 318.198)),
        ("pattern.units", {"length": 215.0, "height": 65.0, "joint": 10.0, "bond": "flemish"}, (337.5, 150.0)),
        ("pattern.slates", {"length": 500.0, "width": 250.0, "headlap": 100.0}, (250.0, 400.0)),
    ],
)
def test_patterns_tell_the_repeat_that_fits(op, values, period):
    """Periods as check-values B2 and B3 give them; three of them fit three of them."""
    found = closing(op, values, 3 * period[0], 2 * period[1])
    assert (found.across, found.up) == (3, 2)
    assert found.fits
    off = closing(op, values, 3 * period[0] * 1.04, 2 * period[1])
    assert not off.fits
    assert off.stretch[0] == pytest.approx(0.04, abs=1e-3)
    assert off.fitting == pytest.approx((3 * period[0], 2 * period[1]), rel=1e-3)


def test_every_pattern_closes_on_the_repeat_it_names():
    """On the repeat a pattern names, its result is the same one period later."""
    for op in (op for op in REGISTRY.values() if op.closes is not None):
        values = op.bind({})
        width, height = op.closes(values)
        one = Grid(64, 48, width or 300.0, height or 300.0)
        two = Grid(
            64 * (2 if width else 1),
            48 * (2 if height else 1),
            one.width_mm * (2 if width else 1),
            one.height_mm * (2 if height else 1),
        )
        single, double = op.run(one, **values), op.run(two, **values)
        single, double = (made.edge if hasattr(made, "edge") else made for made in (single, double))
        if "seed" in op.params:
            continue
        assert double[:48, :64] == pytest.approx(single, abs=2e-2), op.id


def test_steps_without_a_period_close_on_anything():
    assert closing("noise.clouds", {}, 100, 100) is None
    assert closing("no.such", {}, 100, 100) is None
