"""Lens, balance, tint, palettes, several pictures, specular: Gather's ways of putting pictures right."""

import cv2
import numpy as np
import pytest
from skimage.color import deltaE_ciede2000, lab2rgb, rgb2lab

from brave_tessel.core.colour import (
    colour_difference,
    decode_srgb,
    encode_srgb,
    hex_to_linear,
    lab_of,
    linear_of_lab,
    luminance,
)
from brave_tessel.core.errors import DegenerateViewError, OutOfRangeError
from brave_tessel.core.gather.balance import balance, tint
from brave_tessel.core.gather.lens import lens_of_edges, rebend, reversible, unbend
from brave_tessel.core.gather.palette import along_line, dominant
from brave_tessel.core.gather.pictures import as_map, onto_sheet
from brave_tessel.core.gather.roles import decide, read_name, read_pixels
from brave_tessel.core.gather.seen import proportion
from brave_tessel.core.gather.several import aligned, lessened
from brave_tessel.core.gather.specular import metalness_of
from brave_tessel.core.gather.straighten import straighten
from brave_tessel.core.job.document import Picture
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.recipe.steps.noise import clouds, pebbles
from brave_tessel.core.relief.curvature import curvature
from brave_tessel.core.relief.estimate import height_from_colour
from brave_tessel.core.sheet import Grid

GRID = Grid(256, 192, 400, 300)
SIZE = (1200, 900)


def picture(grid=GRID, seed=1):
    return np.stack([0.1 + 0.6 * clouds(grid, size=60, octaves=5, seed=seed + k) for k in range(3)], 2)


# Colour ------------------------------------------------------------------------------------------

SHARMA = """50 2.6772 -79.7751 50 0 -82.7485 2.0425|50 -1.3802 -84.2814 50 0 -82.7485 1.0000
50 0 0 50 -1 2 2.3669|50 2.4900 -0.0010 50 -2.4900 0.0010 7.1792
50 2.4900 -0.0010 50 -2.4900 0.0011 7.2195|50 -0.0010 2.4900 50 0.0009 -2.4900 4.8045
50 -0.0010 2.4900 50 0.0011 -2.4900 4.7461|50 2.5 0 73 25 -18 27.1492
50 2.5 0 58 24 15 19.4535|50 2.5 0 50 1.8634 0.5757 1.0000
60.2574 -34.0099 36.2677 60.4626 -34.1751 39.4387 1.2644|22.7233 20.0904 -46.6940 23.0331 14.9730 -42.5619 2.0373
36.4612 47.8580 18.3852 36.2715 50.5065 21.2231 1.4146|6.7747 -0.2908 -2.4247 5.8714 -0.0985 -2.2286 0.6377
2.0776 0.0795 -1.1350 0.9033 -0.0636 -0.5514 0.9082""".replace("\n", "|").split("|")


@pytest.mark.parametrize("line", SHARMA)
def test_colour_difference_as_published(line):
    """Sharma, Wu and Dalal 2005, Color Res. Appl. 30(1), table 1."""
    v = [float(x) for x in line.split()]
    assert colour_difference(v[:3], v[3:6]) == pytest.approx(v[6], abs=1e-4)


def test_lab_and_difference_as_scikit_image_has_them():
    rng = np.random.default_rng(2)
    encoded = rng.random((500, 3))
    lab = lab_of(decode_srgb(encoded))
    assert np.allclose(lab, rgb2lab(encoded), atol=0.02)
    assert np.allclose(encode_srgb(np.clip(linear_of_lab(lab), 0, 1)), lab2rgb(lab), atol=2e-3)
    assert np.allclose(linear_of_lab(lab), decode_srgb(encoded), atol=1e-9)
    assert np.allclose(colour_difference(lab[:250], lab[250:]), deltaE_ciede2000(lab[:250], lab[250:]), atol=1e-6)


@pytest.mark.parametrize("wanted", ["#8A5A33", "#E8DFCB", "#2B3B4C", "#808080"])
def test_a_tinted_sheet_has_the_tint_as_its_mean_and_keeps_its_tones(wanted):
    grey = np.repeat(picture()[..., :1], 3, 2)
    done = tint(GRID, grey, tint=wanted, amount=1.0)
    away = colour_difference(lab_of(done.reshape(-1, 3).mean(0)), lab_of(hex_to_linear(wanted)))
    assert away < 1
    before, after = luminance(grey), luminance(done)
    order = np.corrcoef(before.ravel(), after.ravel())[0, 1]
    assert order > 0.93 if wanted == "#E8DFCB" else order > 0.999


def test_a_picked_grey_card_becomes_grey_and_as_bright_as_it_is():
    """Common practice: an 18 % card is 8-bit sRGB 118 (check-values A1)."""
    cast = picture() * np.array([1.0, 0.8, 0.55], np.float32)
    card = np.full((8, 8, 3), 0.18, np.float32) * np.array([1.0, 0.8, 0.55], np.float32) * 0.6
    seen = "#" + "".join(f"{round(v * 255):02X}" for v in encode_srgb(card[0, 0]))
    done = balance(GRID, card, neutral=seen, reflects=0.18)
    assert np.allclose(encode_srgb(done[0, 0]) * 255, 117.6, atol=1.5)
    level = balance(GRID, card, neutral=seen)
    assert luminance(level)[0, 0] == pytest.approx(luminance(card)[0, 0], rel=0.02)
    assert balance(GRID, cast) is cast


# Lens --------------------------------------------------------------------------------------------


def on_photo(points, lens):
    return tuple(tuple(float(v) for v in rebend(p, lens, SIZE)) for p in points)


TOP = [(100.0, 60.0), (600.0, 60.0), (1100.0, 60.0)]


@pytest.mark.parametrize("bend", [-0.18, -0.04, 0.03, 0.15])
def test_a_line_that_should_be_straight_tells_the_lens(bend):
    ends, lens = [(100.0, 60.0), (620.0, 52.0), (1100.0, 45.0)], (bend, 0.0)
    seen = on_photo(ends, lens)
    straight = unbend(seen, lens_of_edges((seen,), SIZE), SIZE)
    assert np.linalg.det(np.column_stack([straight / 1200, np.ones(3)])) == pytest.approx(0, abs=1e-9)
    assert lens_of_edges((on_photo(TOP, lens),), SIZE) == (pytest.approx(bend, abs=1e-9), 0.0)
    assert np.allclose(rebend(unbend(ends, lens, SIZE), lens, SIZE), ends)


@pytest.mark.parametrize("lens", [(-0.15, 0.05), (-0.08, -0.06), (0.06, 0.04), (-0.2, 0.08)])
def test_several_edges_tell_both_parameters(lens):
    """Edges at other distances from the middle; the inverse goes both ways."""
    edges = [TOP, [(60.0, 80.0), (60.0, 450.0), (60.0, 820.0)], [(250.0, 260.0), (600.0, 250.0), (950.0, 255.0)]]
    seen = tuple(on_photo(edge, lens) for edge in edges)
    found = lens_of_edges(seen, SIZE)
    grid = np.stack(np.meshgrid(np.linspace(0, 1200, 9), np.linspace(0, 900, 7)), 2)
    assert np.abs(rebend(unbend(grid, lens, SIZE), lens, SIZE) - grid).max() < 1e-5
    # The third edge was drawn 5 px off, near the middle, where it tells little: the lens is not thrown.
    assert np.abs(unbend(grid, found, SIZE) - unbend(grid, lens, SIZE)).max() < 25
    edges[2] = [(250.0, 260.0), (600.0, 255.0), (950.0, 250.0)]
    exact = lens_of_edges(tuple(on_photo(edge, lens) for edge in edges), SIZE)
    assert np.abs(unbend(grid, exact, SIZE) - unbend(grid, lens, SIZE)).max() < 1.5


def test_no_lens_is_told_by_a_line_through_the_middle_nor_one_that_folds_the_picture():
    with pytest.raises(DegenerateViewError):
        lens_of_edges((((0, 450), (600, 452), (1200, 450)),), SIZE)
    assert not reversible((0.2, 0.3))
    assert reversible((-0.2, 0.05))


def test_a_bent_photo_is_straightened_like_a_straight_one():
    """A checkered sheet, bent by the model's own inverse, comes back; without the lens it does not."""
    flat = np.kron(np.indices((12, 16)).sum(0) % 2, np.ones((60, 60))).astype(np.float32)
    flat = np.repeat(cv2.GaussianBlur(flat, (0, 0), 2)[..., None], 3, 2)
    rows, columns = flat.shape[:2]
    size, bend = (columns, rows), (-0.12, 0.0)
    grid = np.stack(np.meshgrid(np.arange(columns) + 0.5, np.arange(rows) + 0.5), 2)
    back = unbend(grid, bend, size) - 0.5
    photo = cv2.remap(flat, back[..., 0].astype(np.float32), back[..., 1].astype(np.float32), cv2.INTER_LINEAR)
    corners = tuple(tuple(rebend(c, bend, size)) for c in ((120.0, 120), (840, 120), (840, 600), (120, 600)))
    good = straighten(photo, corners, width_px=360, height_px=240, lens=bend)
    wanted = cv2.resize(flat[120:600, 120:840], (360, 240), interpolation=cv2.INTER_AREA)
    plain = straighten(photo, corners, width_px=360, height_px=240)
    assert np.abs(good - wanted).mean() < 0.02
    assert np.abs(plain - wanted).mean() > 3 * np.abs(good - wanted).mean()


def test_a_known_focal_length_tells_what_the_view_does_not():
    """A pinhole camera turned about one axis only: two sides stay parallel (check-values F21)."""
    focal, yaw = 1000.0, np.radians(25)
    points = np.array([[-0.9, -0.6], [0.9, -0.6], [0.9, 0.6], [-0.9, 0.6]])
    turned = np.stack([points[:, 0] * np.cos(yaw), points[:, 1], points[:, 0] * np.sin(yaw) + 4], 1)
    corners = tuple((float(x), float(y)) for x, y in turned[:, :2] / turned[:, 2:] * focal + np.array([600, 450]))
    with pytest.raises(DegenerateViewError):
        proportion(corners, picture_size=SIZE)
    assert proportion(corners, picture_size=SIZE, focal_px=focal) == pytest.approx(1.5, rel=1e-6)


# Palettes ----------------------------------------------------------------------------------------


def test_colours_along_a_line_and_of_an_area():
    stripes = np.zeros((40, 120, 3), np.float32)
    names = ["#7A2E1D", "#C9C1AE", "#1D5A45"]
    for n, name in enumerate(names):
        stripes[:, 40 * n : 40 * n + 40] = hex_to_linear(name)
    assert along_line(stripes, (0, 20), (120, 20), 3) == tuple(names)
    found = dominant(stripes, 3)
    assert sorted(found) == sorted(names)
    assert found[-1] == "#C9C1AE"
    assert len(dominant(stripes, 5)) == 5
    with pytest.raises(OutOfRangeError):
        dominant(stripes, 1)


# Several pictures --------------------------------------------------------------------------------


@pytest.mark.parametrize("count", [2, 3, 4])
def test_highlights_and_shadows_that_one_picture_has_are_lessened(count):
    truth = picture(seed=5)
    pictures = []
    for n in range(count):
        seen = truth * (1 + 0.05 * n)
        seen[20 + 40 * n : 50 + 40 * n, 30:70] *= 0.25
        seen[20 + 40 * n : 40 + 40 * n, 120:140] += 0.9
        pictures.append(seen.astype(np.float32))
    done = lessened(pictures)
    before = np.abs(luminance(pictures[0]) - luminance(truth)).mean()
    after = np.abs(luminance(done) - luminance(truth)).mean()
    assert after < (0.55 if count == 2 else 0.3) * before


def test_a_moved_picture_is_laid_on_the_first():
    truth = picture(seed=3)
    moved = cv2.warpAffine(
        truth, np.array([[1, 0.01, 3.2], [-0.01, 1, -2.4]]), (256, 192), borderMode=cv2.BORDER_REPLICATE
    )
    back = aligned(truth, moved)
    inside = (slice(12, -12), slice(12, -12))
    assert np.abs(back - truth)[inside].mean() < 0.25 * np.abs(moved - truth)[inside].mean()
    plain = np.full_like(truth, 0.5)
    assert aligned(plain, plain).shape == plain.shape


# Specular ----------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("diffuse", "specular", "metal", "base"),
    [
        ((0.5, 0.1, 0.05), (0.04, 0.04, 0.04), 0.0, (0.5, 0.1, 0.05)),
        ((0, 0, 0), (1.0, 0.766, 0.336), 1.0, (1.0, 0.766, 0.336)),
        ((0.2, 0.15, 0.1), (0.3, 0.28, 0.25), 0.696008, (0.447674, 0.371920, 0.289206)),
        ((0.6, 0.6, 0.6), (0.02, 0.02, 0.02), 0.0, (0.6125, 0.6125, 0.6125)),
        ((0.35, 0.18, 0.12), (0.05, 0.05, 0.05), 0.047899, (0.363515, 0.187228, 0.125009)),
    ],
)
def test_specular_becomes_metal_as_published(diffuse, specular, metal, base):
    """KHR_materials_pbrSpecularGlossiness, convert between workflows (check-values A4)."""
    made, metalness = metalness_of(np.array([[diffuse]], np.float32), np.array([[specular]], np.float32))
    assert metalness[0, 0] == pytest.approx(metal, abs=2e-4)
    assert made[0, 0] == pytest.approx(base, abs=2e-4)


def test_a_specular_map_of_a_set_is_used():
    flat = MapSet(GRID, {MapKind.BASE_COLOUR: np.zeros((192, 256, 3), np.float32)})
    codes = np.ones((192, 256, 4), np.float32) * np.array([1, 0.9, 0.6, 1], np.float32)
    whole = ((0.0, 0.0), (256.0, 0), (256, 192), (0, 192))
    done = onto_sheet(flat, [codes], [Picture(id="s", role="specular")], whole, (256, 192))
    assert done[MapKind.METALNESS].mean() == pytest.approx(1, abs=1e-3)
    assert done[MapKind.BASE_COLOUR][50, 50] == pytest.approx(decode_srgb([1, 0.9, 0.6]), abs=1e-3)


def test_black_and_white_named_specular_is_metalness():
    binary = np.repeat((clouds(GRID, size=60, seed=1) > 0.5).astype(np.float32)[..., None], 3, 2)
    told = decide(read_name("plate_specular.png"), read_pixels(binary))
    assert told.role == MapKind.METALNESS
    assert "metalness" in told.reason


def test_a_normal_map_stored_with_an_srgb_curve_is_flagged_and_put_right():
    height = pebbles(GRID, size=40, seed=2) * 6
    from brave_tessel.core.kernels.relief import normal_of_height

    true = normal_of_height(height.astype(np.float32), GRID)
    codes = np.dstack([encode_srgb(true * 0.5 + 0.5), np.ones(GRID.shape)]).astype(np.float32)
    looks = read_pixels(codes[..., :3])
    assert (looks.role, looks.curved) == (MapKind.NORMAL, True)
    back = as_map(codes, Picture(id="n", role="normal", curved=True))
    assert np.abs(back - true).max() < 1e-3


# Estimates ---------------------------------------------------------------------------------------


def test_scales_are_weighed_apart_and_edges_steepened():
    grid = Grid(256, 256, 200, 200)
    broad, fine = clouds(grid, size=60, octaves=1, seed=1), clouds(grid, size=8, octaves=1, seed=2)
    colour = np.repeat(np.asarray(decode_srgb(0.3 + 0.3 * broad + 0.1 * fine), np.float32)[..., None], 3, 2)

    def like(pattern, **values):
        made = height_from_colour(grid, colour, broad=80, fine=2, grain=0, **values)
        return np.corrcoef(made.ravel(), pattern.ravel())[0, 1]

    assert like(broad, middle_weight=0) > like(broad) > like(broad, broad_weight=0)
    assert like(fine, broad_weight=0) > like(fine)
    soft, sharp = (height_from_colour(grid, colour, sharpen=s) for s in (0.0, 1.5))
    assert np.abs(np.diff(sharp, axis=1)).mean() > 1.1 * np.abs(np.diff(soft, axis=1)).mean()


def test_a_colour_that_is_left_out_makes_no_relief():
    grid = Grid(200, 200, 200, 200)
    colour = np.full((200, 200, 3), 0.35, np.float32)
    colour[60:120, 60:120] = hex_to_linear("#2F5A22")
    plain = height_from_colour(grid, colour)
    without = height_from_colour(grid, colour, leave_out="#2F5A22", leave_out_reach=0.3)
    assert np.ptp(without) < 0.1 * np.ptp(plain)


def test_curvature_of_a_ball_and_a_plane():
    """A ball of the radius itself reads 1 at its top, by the formula's own scale; a plane 0.5."""
    grid = Grid(400, 400, 100, 100)
    x = (np.arange(400) + 0.5) * 0.25 - 50
    radius = 12.0
    ball = np.sqrt(np.maximum(radius**2 - x[None, :] ** 2 - x[:, None] ** 2, 0)).astype(np.float32)
    made = curvature(ball, grid, radius_mm=4.0)
    assert made[200, 200] == pytest.approx(0.5 + 0.5 * 4 / 12, abs=0.03)
    assert made[5, 5] == pytest.approx(0.5, abs=1e-3)
    assert curvature(-ball, grid, radius_mm=4.0)[200, 200] == pytest.approx(0.5 - 0.5 * 4 / 12, abs=0.03)
