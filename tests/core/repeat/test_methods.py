"""Level, whole courses and regrow: open data in scikit-image, synthetic walls with known beats."""

import cv2
import numpy as np
import pytest
from scipy.signal import find_peaks
from skimage import data

from brave_tessel.core.colour import decode_srgb, encode_srgb, luminance
from brave_tessel.core.errors import DoesNotCloseError, OutOfRangeError
from brave_tessel.core.job.document import Source, Straightening
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.recipe.steps.pattern import bond_repeat, units
from brave_tessel.core.recipe.steps.piece import tone
from brave_tessel.core.repeat.courses import find_lattice, joint_width, straightened, whole_count
from brave_tessel.core.repeat.mend import closed_size
from brave_tessel.core.repeat.meters import read_seam
from brave_tessel.core.repeat.method import METHODS
from brave_tessel.core.repeat.periodic import periodic_part
from brave_tessel.core.repeat.regrow import apply_quilt, quilt
from brave_tessel.core.sheet import Grid
from tests.core.repeat.mending import mend

GRID = Grid(512, 512, 512, 512)


def grey(name):
    return (getattr(data, name)() / 255).astype(np.float32)


def maps_of(name):
    made = grey(name)
    colour = np.repeat(decode_srgb(made)[..., None], 3, 2).astype(np.float32)
    return MapSet(GRID, {MapKind.BASE_COLOUR: colour, MapKind.HEIGHT: made * 3, MapKind.ROUGHNESS: 1 - made})


# Level ---------------------------------------------------------------------------------------------


def test_a_periodic_picture_is_left_alone():
    x = np.arange(96) / 96
    wave = (np.sin(2 * np.pi * 3 * x)[None, :] + np.cos(2 * np.pi * 2 * x)[:, None]).astype(np.float32)
    sheet = np.tile(wave, (1, 1))
    assert np.abs(periodic_part(sheet) - sheet).max() < 0.2
    assert np.abs(periodic_part(sheet)[20:-20, 20:-20] - sheet[20:-20, 20:-20]).max() < 0.1


def test_drift_is_taken_out_and_detail_and_mean_stay():
    rng = np.random.default_rng(2)
    noise = rng.normal(0, 0.02, (200, 240)).astype(np.float32)
    drift = (
        0.3
        + 0.4 * np.linspace(0, 1, 240, dtype=np.float32)[None, :]
        + 0.2 * np.linspace(0, 1, 200, dtype=np.float32)[:, None] ** 2
    )
    made = periodic_part(drift + noise)
    before, after = read_seam(drift + noise, axis=1), read_seam(made, axis=1)
    assert before.ratio > 8
    assert after.ratio < 1.3
    assert read_seam(made, axis=0).closes
    assert made.mean() == pytest.approx(float((drift + noise).mean()), abs=1e-4)
    detail = (made - cv2.GaussianBlur(made, (0, 0), 3))[30:-30, 30:-30]
    kept = (noise - cv2.GaussianBlur(noise, (0, 0), 3))[30:-30, 30:-30]
    assert np.corrcoef(detail.ravel(), kept.ravel())[0, 1] > 0.97


def test_its_laplacian_inside_is_the_pictures_own():
    # The defining property of the periodic component (Moisan 2011, section 2).
    made = grey("gravel")
    closed = periodic_part(made).astype(np.float64)

    def laplacian(p):
        return (np.roll(p, 1, 0) + np.roll(p, -1, 0) + np.roll(p, 1, 1) + np.roll(p, -1, 1) - 4 * p)[1:-1, 1:-1]

    assert np.abs(laplacian(closed) - laplacian(made.astype(np.float64))).max() < 2e-3


def test_level_closes_every_map_and_keeps_the_size():
    done = mend("mend.level", maps_of("grass"))
    assert done.grid == GRID
    for kind in done:
        reading = read_seam(done[kind], axis=1, structured=True)
        assert reading.ratio <= 1.3
        assert done[kind].min() >= 0 or kind is MapKind.HEIGHT


# Whole courses -------------------------------------------------------------------------------------


def wall(bond, *, turn=0.0, lean=0.0, noise=0.02, joint=10):
    """A picture of 900 × 700 mm, 1 mm a pixel, of UK brick turned and leaning by known angles."""
    rx, ry = bond_repeat(bond, 215, 65, joint)
    size = rx * round(2400 / rx), ry * round(1800 / ry)
    grid = Grid(round(size[0]), round(size[1]), *size)
    laid = tone(
        grid,
        units(grid, length=215, height=65, joint=joint, bond=bond),
        spread=0.5,
        colour="#A05040",
        joint_colour="#C8C0B0",
    )
    picture = encode_srgb(luminance(laid)).astype(np.float32)
    t, u = np.radians(turn), np.radians(turn + lean)
    back = np.linalg.inv(np.array([[np.cos(t), np.sin(u)], [-np.sin(t), np.cos(u)]]))
    middle = np.array(size) / 2
    matrix = np.column_stack([back, middle - back @ np.array([450, 350])])
    seen = cv2.warpAffine(picture, matrix, (900, 700), flags=cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP)
    return (seen + np.random.default_rng(0).normal(0, noise, seen.shape)).astype(np.float32)


WALL = Grid(900, 700, 900, 700)


@pytest.mark.parametrize(
    ("bond", "turn", "lean"),
    [
        ("half", 0, 0),
        ("half", 2, 0),
        ("half", -1.5, 1.2),
        ("stack", 1, -1),
        ("flemish", 0.7, 0.5),
        ("third", 0, 0),
        ("english", -1, 0),
    ],
)
def test_the_beat_of_known_walls(bond, turn, lean):
    found = find_lattice(wall(bond, turn=turn, lean=lean), WALL)
    across, up = bond_repeat(bond, 215, 65, 10)
    assert np.hypot(*found.across) == pytest.approx(across, abs=0.5)
    assert np.hypot(*found.up) == pytest.approx(up, abs=0.5)
    assert found.course == pytest.approx(75, abs=0.3)
    assert found.turn == pytest.approx(turn, abs=0.05)
    assert found.lean == pytest.approx(lean, abs=0.08)
    assert found.strength > 0.6


@pytest.mark.parametrize("bond", ["half", "stack", "english"])
@pytest.mark.parametrize("joint", [6.0, 10.0, 16.0])
def test_joint_between_courses(bond, joint):
    seen = wall(bond, joint=joint)
    assert joint_width(seen, WALL, 65 + joint) == pytest.approx(joint, abs=0.6)


def test_rows_come_level():
    seen = wall("half", turn=2.0, lean=-1.0, noise=0.0)
    found = find_lattice(seen, WALL)
    level_wall = straightened(seen, WALL, turn=found.turn, lean=found.lean)
    again = find_lattice(level_wall[80:-80, 80:-80], Grid(740, 540, 740, 540))
    assert abs(again.turn) < 0.05
    assert abs(again.lean) < 0.08


def test_whole_courses_close_exactly():
    seen = decode_srgb(np.clip(wall("half", turn=1.0), 0, 1)).astype(np.float32)
    flat = MapSet(WALL, {MapKind.BASE_COLOUR: np.repeat(seen[..., None], 3, 2)})
    found = find_lattice(wall("half", turn=1.0), WALL)
    done = mend(
        "mend.courses",
        flat,
        period_across=float(np.hypot(*found.across)),
        period_up=float(np.hypot(*found.up)),
        across=3,
        up=4,
        turn=found.turn,
        lean=found.lean,
        soften=1.0,
        match_tone=0.0,
    )
    assert done.grid.width_mm == pytest.approx(675, abs=1)
    assert done.grid.height_mm == pytest.approx(600, abs=1)
    lit = encode_srgb(luminance(done[MapKind.BASE_COLOUR]))
    for axis in (0, 1):
        assert read_seam(lit.astype(np.float32), axis=axis, structured=True).closes
    # Spacing across the join (check-values B2, rule 3): joints of a row, tiled twice, are all 225 mm apart.
    row = np.tile(lit[lit.shape[0] // 8 - 4 : lit.shape[0] // 8 + 4].mean(0), 2)
    smooth = cv2.GaussianBlur(row[None].astype(np.float32), (0, 0), 3)[0]
    spacing = np.diff(find_peaks(smooth, prominence=0.5 * np.ptp(smooth), distance=60)[0])
    assert np.abs(spacing / lit.shape[1] * done.grid.width_mm - 225).max() < 4


def test_packaged_brick_against_its_joints_found_one_by_one():
    """Its rows stand upright in perspective; in a middle band their spacing is nearly even."""
    band = grey("brick")[200:312]
    found = find_lattice(band, Grid(512, 112, 512, 112))
    spaces = []
    for row in cv2.GaussianBlur(band, (0, 0), 1.5):
        spaces += list(np.diff(find_peaks(row, prominence=0.1, distance=20)[0]))
    usual = np.array([space for space in spaces if 25 < space < 50])
    assert found.course == pytest.approx(float(usual.mean()), abs=0.5)


@pytest.mark.parametrize("name", ["grass", "gravel"])
def test_pictures_without_a_beat_say_so(name):
    with pytest.raises(DoesNotCloseError) as caught:
        find_lattice(grey(name), GRID)
    assert "regrow" in caught.value.remedy


def test_too_many_or_too_few_periods_are_refused():
    with pytest.raises(DoesNotCloseError):
        mend("mend.courses", maps_of("gravel"), period_across=128.0, period_up=100.0, across=4, up=2)
    with pytest.raises(DoesNotCloseError):
        whole_count(200, 225, 20)
    assert whole_count(2550, 75, 5) == 33


# Regrow --------------------------------------------------------------------------------------------


@pytest.fixture(scope="module", params=["grass", "gravel"])
def regrown(request):
    sample = maps_of(request.param)
    return (
        request.param,
        sample,
        mend("mend.regrow", sample, width=768.0, height=640.0, block=110.0, overlap=28.0, seed=3),
    )


def test_regrown_sheet_has_the_size_and_wraps(regrown):
    _, _, done = regrown
    assert done.grid.shape == (640, 768)
    lit = encode_srgb(luminance(done[MapKind.BASE_COLOUR])).astype(np.float32)
    for axis in (0, 1):
        assert read_seam(lit, axis=axis, structured=True).closes


def test_mean_and_variance_stay_within_three_percent(regrown):
    name, _, done = regrown
    lit = encode_srgb(luminance(done[MapKind.BASE_COLOUR]))
    assert lit.mean() == pytest.approx(float(grey(name).mean()), rel=0.03)
    assert lit.std() == pytest.approx(float(grey(name).std()), rel=0.03)


def radial(picture):
    side = 512
    power = np.abs(np.fft.fft2(picture[:side, :side] - picture[:side, :side].mean())) ** 2
    f = np.hypot(np.fft.fftfreq(side)[:, None], np.fft.fftfreq(side)[None, :]) * side
    return np.array([np.log(power[(f >= low) & (f < 1.6 * low)].mean()) for low in (8, 13, 21, 34, 54, 87)])


def test_power_spectrum_keeps_its_shape(regrown):
    name, _, done = regrown
    lit = encode_srgb(luminance(done[MapKind.BASE_COLOUR]))
    apart = radial(lit) - radial(grey(name))
    assert np.abs(apart - apart.mean()).max() < 0.35


def test_all_maps_come_from_the_same_places(regrown):
    _, _, done = regrown
    lit = encode_srgb(luminance(done[MapKind.BASE_COLOUR]))
    assert np.abs(done[MapKind.HEIGHT] / 3 - lit).max() < 0.01
    assert np.abs(1 - done[MapKind.ROUGHNESS] - lit).max() < 0.01


def test_seed_decides_and_nothing_else_does():
    sample = np.repeat(grey("gravel")[:200, :200, None], 3, 2)
    a, b, c = (quilt(sample, (160, 160), block=60, overlap=16, seed=s) for s in (1, 1, 2))
    assert (a.column == b.column).all()
    assert (a.column != c.column).any()


def test_finer_sheets_are_the_same_patches():
    coarse = MapSet(Grid(200, 200, 200, 200), {MapKind.HEIGHT: grey("gravel")[:200, :200]})
    fine = MapSet(
        Grid(400, 400, 200, 200),
        {MapKind.HEIGHT: cv2.resize(grey("gravel")[:200, :200], (400, 400), interpolation=cv2.INTER_CUBIC)},
    )
    found = quilt(np.repeat(coarse[MapKind.HEIGHT][..., None], 3, 2), (160, 160), block=60, overlap=16, seed=1)
    small = apply_quilt(coarse, found, Grid(160, 160, 160, 160))[MapKind.HEIGHT]
    large = apply_quilt(fine, found, Grid(320, 320, 160, 160))[MapKind.HEIGHT]
    down = large.reshape(160, 2, 160, 2).mean((1, 3))
    assert np.sqrt(np.mean((down - small) ** 2)) < 0.25 * small.std()


def test_a_block_that_does_not_fit_is_refused():
    with pytest.raises(OutOfRangeError):
        quilt(np.zeros((50, 50, 3), np.float32), (100, 100), block=60, overlap=10, seed=1)


# Sizes ---------------------------------------------------------------------------------------------


def test_every_method_tells_the_repeat_it_leaves():
    frame = Straightening(corners=((0.0, 0.0), (9.0, 0.0), (9.0, 9.0), (0.0, 9.0)), width_mm=900.0, height_mm=600.0)
    expected = {
        "mend.best_cut": (852, 552),
        "mend.level": (900, 600),
        "mend.regrow": (600, 600),
        "mend.courses": (225, 150),
    }
    assert set(expected) == set(METHODS)
    for op, size in expected.items():
        assert closed_size(Source(id="s", name="S", straightening=frame, mend=Setting(op=op))) == pytest.approx(size)
    unsized = Straightening(corners=frame.corners)
    assert closed_size(Source(id="s", name="S", straightening=unsized)) == (0, 0)
