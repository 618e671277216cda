"""Normals (C2), occlusion (C1), shadow and light."""

import math

import cv2
import numpy as np
import pytest

from brave_tessel.core.colour import decode_srgb, encode_srgb
from brave_tessel.core.kernels.relief import cast_shadow, normal_of_height, occlusion, wrap_padded
from brave_tessel.core.kernels.shade import shade
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.relief.estimate import height_from_colour
from brave_tessel.core.relief.pictures import halved, map_codes, mip_chain
from brave_tessel.core.relief.wrapped_blur import wrapped_gaussian
from brave_tessel.core.sheet import Grid


def wave(pitch, amplitude=1.0, wavelength=10.0):
    grid = Grid(round(40 / pitch), 16, 40.0, 16 * pitch)
    height = amplitude * np.sin(2 * np.pi * grid.x_mm() / wavelength)
    return grid, np.broadcast_to(height, grid.shape).astype(np.float32)


@pytest.mark.parametrize(
    ("pitch", "ratio", "degrees"), [(0.25, 0.995893, 0.106), (0.5, 0.983632, 0.424), (1.0, 0.935489, 1.696)]
)
def test_normals_of_an_analytic_wave(pitch, ratio, degrees):
    grid, height = wave(pitch)
    normal = normal_of_height(height, grid)
    slope = -normal[..., 0] / normal[..., 2]
    true = 2 * np.pi / 10 * np.cos(2 * np.pi * grid.x_mm() / 10)
    assert np.allclose(slope, true * ratio, atol=2e-4)
    assert np.abs(np.degrees(np.arctan(slope) - np.arctan(true))).max() <= degrees + 0.01
    assert np.allclose(normal[..., 1], 0, atol=1e-6)


def test_twice_the_size_is_half_the_slope():
    # Units test of C2: 0.628319 becomes 0.314159 = 17.441 degrees.
    _, height = wave(0.25)
    wide = Grid(height.shape[1], height.shape[0], 80.0, 8.0)
    normal = normal_of_height(height, wide)
    assert np.degrees(np.arccos(normal[..., 2].min())) == pytest.approx(17.441, abs=0.15)


def test_green_is_up_and_red_is_right():
    """A raised dome has green above one half on its upper flank and red above one half on its right (A3)."""
    grid = Grid(65, 65, 65, 65)
    x, y = np.meshgrid(grid.x_mm() - 32.5, grid.y_mm() - 32.5)
    dome = (10 * np.exp(-(x * x + y * y) / 200)).astype(np.float32)
    codes = map_codes(MapKind.NORMAL, MapSet(grid, {MapKind.NORMAL: normal_of_height(dome, grid)}))
    assert codes[20, 32, 1] > 128 > codes[44, 32, 1]
    assert codes[32, 44, 0] > 128 > codes[32, 20, 0]


def trench(depth, width=40.0, pitch=0.5):
    grid = Grid(800, 24, 800 * pitch, 24 * pitch)
    inside = np.abs(grid.x_mm() - 200) < width / 2
    return grid, np.broadcast_to(np.where(inside, -depth, 0.0), grid.shape).astype(np.float32)


@pytest.mark.parametrize("share", [0.25, 0.5, 1.0, 2.0])
def test_occlusion_in_the_middle_of_a_trench(share):
    # Oke 1981 canyon, cosine-weighted: cos(atan(2 H/W)); check-values C1. Tolerance 0.02 and sampling.
    grid, height = trench(40.0 * share)
    wide = np.tile(height, (20, 1))
    tall = Grid(grid.width_px, 480, grid.width_mm, 240.0)
    seen = occlusion(wide, tall, reach_mm=120, directions=32)
    middle = float(seen[:, 400].mean())
    assert middle == pytest.approx(math.cos(math.atan(2 * share)), abs=0.05)


def test_a_plane_sees_the_whole_sky_and_occlusion_wraps():
    grid = Grid(64, 64, 64, 64)
    assert np.allclose(occlusion(np.full(grid.shape, 3.0, np.float32), grid, reach_mm=20), 1, atol=1e-6)
    rng = np.random.default_rng(1)
    bumps = rng.random(grid.shape).astype(np.float32) * 4
    straight = occlusion(bumps, grid, reach_mm=20)
    moved = occlusion(np.roll(bumps, (13, 40), (0, 1)), grid, reach_mm=20)
    assert np.allclose(np.roll(straight, (13, 40), (0, 1)), moved, atol=1e-6)


def test_shadow_falls_away_from_the_light_and_is_as_long_as_the_sun_is_low():
    grid = Grid(200, 40, 200, 40)
    height = np.zeros(grid.shape, np.float32)
    height[:, 50:54] = 10
    low = math.radians(30)
    sunlit = cast_shadow(height, grid, (-math.cos(low), 0.0, math.sin(low)))
    shaded = np.flatnonzero(sunlit[20] < 0.5)
    assert shaded.min() >= 53
    assert shaded.max() == pytest.approx(53 + 10 / math.tan(low), abs=2)
    assert (cast_shadow(height, grid, (0.0, 0.0, 1.0)) == 1).all()


def test_a_diffuse_sheet_keeps_its_colour_under_the_standard_light():
    shape = (8, 8)
    flat = np.zeros((*shape, 3), np.float32)
    flat[..., 2] = 1
    ones, rough = np.ones(shape, np.float32), np.ones(shape, np.float32)
    grey = np.full((*shape, 3), 0.2158605, np.float32)
    light = (-0.47, 0.47, 0.7471)
    codes = shade(grey, flat, rough, 0 * ones, ones, ones, light=light)
    assert abs(int(codes[4, 4, 0]) - 128) <= 8
    darker = shade(grey, flat, rough, 0 * ones, ones, 0 * ones, light=light)
    assert darker[4, 4, 0] < codes[4, 4, 0] - 20


def test_blur_on_the_torus_equals_the_wrapped_filter_of_scipy():
    from scipy.ndimage import gaussian_filter

    rng = np.random.default_rng(2)
    grid = Grid(128, 96, 64, 48)
    pixels = rng.random(grid.shape).astype(np.float32)
    ours = wrapped_gaussian(pixels, 1.5, grid)
    assert np.allclose(ours, gaussian_filter(pixels, 3.0, mode="wrap", truncate=6), atol=2e-3)


def test_dark_joints_lie_low_unless_turned_over():
    grid = Grid(128, 128, 100, 100)
    colour = np.full((128, 128, 3), 0.5, np.float32)
    colour[:, 60:66] = 0.05
    relief = height_from_colour(grid, colour, rise=4.0, broad=60.0, fine=1.0)
    assert relief[:, 62].mean() < relief[:, 20].mean() - 0.5
    over = height_from_colour(grid, colour, rise=4.0, broad=60.0, fine=1.0, dark_is_high=True)
    assert np.allclose(over, -relief)
    assert abs(relief.mean()) < 0.6


def test_smaller_pictures_are_averaged_in_linear_light():
    # Black and white average to code 188, not 127 (A1).
    codes = (np.indices((64, 64)).sum(0) % 2 * 255).astype(np.uint8)[..., None].repeat(3, 2)
    assert np.abs(halved(codes).astype(int) - 188).max() <= 1
    sizes = [c.shape[0] for c in mip_chain(codes)]
    assert sizes == [64, 32, 16]


@pytest.mark.parametrize("margin", [0, 1, 7, 20, 45])
def test_padding_wraps_as_numpy_does(margin):
    pixels = np.random.default_rng(2).random((20, 31)).astype(np.float32)
    assert (wrap_padded(pixels, margin) == np.pad(pixels, margin, mode="wrap")).all()


@pytest.mark.parametrize("shape", [(64, 48), (37, 48), (250, 310)])
def test_a_smaller_picture_holds_the_mean_light_as_opencv_has_it(shape):
    codes = np.random.default_rng(4).integers(0, 256, (*shape, 3)).astype(np.uint8)
    plain = cv2.resize(
        decode_srgb(codes / 255).astype(np.float32), (shape[1] // 2, shape[0] // 2), interpolation=cv2.INTER_AREA
    )
    wanted = np.rint(encode_srgb(plain) * 255)
    assert np.abs(halved(codes).astype(int) - wanted).max() <= 1
    flat = np.full((8, 8, 3), 93, np.uint8)
    assert (halved(flat) == 93).all(), "an even picture stays as it is"


@pytest.mark.parametrize("code", range(0, 256, 5))
def test_halving_again_and_again_does_not_drift(code):
    chain = mip_chain(np.full((128, 128, 3), code, np.uint8))
    assert {int(v) for level in chain for v in np.unique(level)} == {code}


@pytest.mark.parametrize("spread", [1.0, 2.0, 8.0, 11.6, 16.0, 60.0, 300.0])
@pytest.mark.parametrize("shape", [(512, 508), (510, 512), (128, 512)])
def test_a_blur_of_every_width_is_the_transfer_functions(spread, shape):
    """Three ways by width, one answer: the continuous Gaussian's transfer function on the torus (any handbook)."""
    pixels = np.random.default_rng(4).random(shape).astype(np.float32)
    pixels[40:80, 100:300] += 1
    rows, columns = shape
    fy, fx = np.fft.fftfreq(rows)[:, None], np.fft.rfftfreq(columns)[None, :]
    keep = np.exp(-2 * (np.pi * spread) ** 2 * (fx * fx + fy * fy))
    expected = np.fft.irfft2(np.fft.rfft2(pixels.astype(np.float64)) * keep, s=shape)
    made = wrapped_gaussian(pixels, spread, Grid(columns, rows, float(columns), float(rows)))
    assert made.dtype == np.float32
    assert np.abs(made - expected).max() < 1e-5
