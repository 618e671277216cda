"""Roles by name and content, conventions by integrability; synthetic sets with known truth."""

import io

import cv2
import numpy as np
import pytest
from PIL import Image

from brave_tessel.core.colour import luminance
from brave_tessel.core.gather.conventions import agreement, green_direction, slopes_of
from brave_tessel.core.gather.even_light import even_light, fall_off, veiled
from brave_tessel.core.gather.pictures import as_map, onto_sheet
from brave_tessel.core.gather.roles import decide, read_name, read_pixels
from brave_tessel.core.job.document import Picture
from brave_tessel.core.kernels.relief import normal_of_height
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.recipe.steps.noise import clouds, pebbles
from brave_tessel.core.recipe.steps.pattern import units
from brave_tessel.core.recipe.steps.piece import relief
from brave_tessel.core.relief.integrate import height_of_slopes, rise_of
from brave_tessel.core.sheet import Grid
from tests.core.repeat.closings import masonry, natural

NAMES = {
    "RivenSlate_BaseColor_4K.png": ("riven slate", "base_colour"),
    "riven_slate_nrm_2k.tif": ("riven slate", "normal"),
    "Riven-Slate Normal GL.png": ("riven slate", "normal"),
    "riven_slate_rough.png": ("riven slate", "roughness"),
    "RivenSlate_AO.jpg": ("riven slate", "ambient_occlusion"),
    "riven_slate_DISP_16bit.png": ("riven slate", "height"),
    "riven slate gloss 2048.png": ("riven slate", "glossiness"),
    "rivenSlate_metallic.png": ("riven slate", "metalness"),
    "riven_slate_opacity.png": ("riven slate", "opacity"),
    "riven_slate_spec.png": ("riven slate", "specular"),
    "2K-riven_slate-diffuse.png": ("riven slate", "base_colour"),
    "riven_slate.png": ("riven slate", "unknown"),
    "riven_slate_base_colour.png": ("riven slate", "base_colour"),
    "riven_slate_ambientOcclusion.png": ("riven slate", "ambient_occlusion"),
}


@pytest.mark.parametrize(("file", "told"), NAMES.items())
def test_roles_and_stems_by_name(file, told):
    named = read_name(file)
    assert (" ".join(named.stem), named.role) == told


@pytest.mark.parametrize(
    ("file", "channels"),
    [
        ("wall_ORM.png", ["ambient_occlusion", "roughness", "metalness"]),
        ("wall_arm_2k.png", ["ambient_occlusion", "roughness", "metalness"]),
        ("wall_RMA.png", ["roughness", "metalness", "ambient_occlusion"]),
        ("wall_mrao.png", []),
        ("wall_roam.png", []),
    ],
)
def test_packed_files_by_their_letters(file, channels):
    found = [role for _, role in read_name(file).channels]
    assert found[: len(channels)] == channels or not channels
    assert len(read_name(file).channels) >= (3 if channels else 0)


def test_green_words():
    assert read_name("wall_normal_dx.png").green == "down"
    assert read_name("wall_normal_gl.png").green == "up"
    assert read_name("wall_rough_dx.png").green == "unknown"


def height(kind, grid, seed, rng):
    if kind == 0:
        return clouds(grid, size=float(rng.uniform(20, 150)), octaves=int(rng.integers(2, 8)), seed=seed) * rng.uniform(
            0.5, 12
        )
    if kind == 1:
        return pebbles(grid, size=float(rng.uniform(15, 60)), seed=seed) * rng.uniform(1, 8)
    if kind == 2:
        laid = units(grid, length=float(rng.uniform(40, 120)), height=float(rng.uniform(20, 60)), joint=4)
        return relief(
            grid, laid, depth=float(rng.uniform(0.5, 4)), edge_round=5.0, tilt=float(rng.uniform(0, 2)), seed=seed
        )
    return clouds(grid, size=60, octaves=4, seed=seed) * rng.uniform(0.5, 5) + pebbles(
        grid, size=30, seed=seed
    ) * rng.uniform(0, 4)


def eight_bit(normal):
    codes = np.rint((normal * 0.5 + 0.5) * 255) / 255
    return np.concatenate([codes, np.ones((*codes.shape[:2], 1))], 2).astype(np.float32)


def test_green_is_found_on_two_hundred_sets_of_known_truth():
    rng = np.random.default_rng(7)
    committed = right = 0
    for seed in range(208):
        px = int(rng.choice([128, 192, 256]))
        grid = Grid(px, px, 300, 300)
        normal = normal_of_height(np.ascontiguousarray(height(seed % 4, grid, seed, rng), np.float32), grid)
        down = rng.random() < 0.5
        codes = eight_bit(normal * np.array([1, -1 if down else 1, 1], np.float32))
        found = green_direction(as_map(codes, Picture(id="n", role="normal", green="up")))
        committed += found.direction != "unknown"
        right += found.direction == ("down" if down else "up")
    assert committed >= 0.85 * 208
    assert right >= 0.98 * committed


def test_flat_and_one_way_relief_cannot_be_told():
    flat = np.zeros((128, 128, 3), np.float32)
    flat[..., 2] = 1
    assert green_direction(flat).direction == "unknown"
    grid = Grid(128, 128, 100, 100)
    ridges = np.sin(2 * np.pi * grid.x_mm() / 10)[None, :].repeat(128, 0).astype(np.float32)
    found = green_direction(normal_of_height(ridges, grid))
    assert found.direction == "unknown"
    assert "tell" in found.reason
    noise = np.random.default_rng(1).normal(0, 0.2, (128, 128, 3)).astype(np.float32) + np.array([0, 0, 1], np.float32)
    noise /= np.linalg.norm(noise, axis=2, keepdims=True)
    assert green_direction(noise).direction == "unknown"


def test_height_of_slopes_inverts_central_differences():
    # Frankot and Chellappa 1988 with sin w: exact for central differences (check-values C2).
    grid = Grid(128, 96, 64.0, 48.0)
    shape = clouds(grid, size=16, octaves=4, seed=2) * 3
    p, q = slopes_of(normal_of_height(shape, grid))
    back = height_of_slopes(p, q, grid)
    apart = back - (shape - shape.mean())
    assert np.sqrt(np.mean(apart**2)) < 2e-3 * shape.std()


@pytest.mark.parametrize(("bits", "limit"), [(8, 0.05), (16, 1e-3)])
def test_height_from_a_stored_normal_map(bits, limit):
    grid = Grid(256, 256, 128.0, 128.0)
    shape = (clouds(grid, size=40, octaves=3, seed=2) * 6).astype(np.float32)
    top = 2**bits - 1
    stored = np.rint((normal_of_height(shape, grid) * 0.5 + 0.5) * top) / top * 2 - 1
    stored = (stored / np.linalg.norm(stored, axis=2, keepdims=True)).astype(np.float32)
    back = height_of_slopes(*slopes_of(stored), grid)
    assert np.sqrt(np.mean((back - (shape - shape.mean())) ** 2)) / shape.std() < limit


def test_in_or_out_by_agreement_with_the_height_map():
    grid = Grid(192, 192, 100, 100)
    shape = (pebbles(grid, size=20, seed=3) * 5).astype(np.float32)
    normal = normal_of_height(shape, grid)
    assert agreement(normal, shape, grid) > 0.8
    assert agreement(normal * np.array([-1, -1, 1], np.float32), shape, grid) < -0.8
    assert abs(agreement(normal, clouds(grid, size=20, seed=9), grid)) < 0.3


def test_content_tells_normals_colour_and_masks():
    grid = Grid(96, 96, 100, 100)
    normal = normal_of_height(pebbles(grid, size=20, seed=3) * 5, grid)
    assert read_pixels(normal * 0.5 + 0.5).role == MapKind.NORMAL
    colour = np.random.default_rng(1).random((96, 96, 3)) * np.array([0.8, 0.5, 0.3])
    assert read_pixels(colour).role == MapKind.BASE_COLOUR
    mask = np.repeat((clouds(grid, size=30, seed=1) > 0.5)[..., None], 3, 2).astype(np.float32)
    assert read_pixels(mask).role == MapKind.METALNESS
    grey = np.repeat(clouds(grid, size=30, seed=1)[..., None], 3, 2) * 0.5 + 0.2
    assert read_pixels(grey).role == "unknown"


def test_name_and_content_confirm_or_contradict():
    grid = Grid(96, 96, 100, 100)
    normal = normal_of_height(pebbles(grid, size=20, seed=3) * 5, grid) * 0.5 + 0.5
    grey = np.repeat(clouds(grid, size=30, seed=1)[..., None], 3, 2)
    assert decide(read_name("a_normal.png"), read_pixels(normal)).confidence > 0.9
    assert decide(read_name("a_normal.png"), read_pixels(grey)).role == "unknown"
    assert decide(read_name("a_rough.png"), read_pixels(normal)).role == MapKind.NORMAL
    assert decide(read_name("a_rough.png"), read_pixels(grey)).role == MapKind.ROUGHNESS


def test_pictures_become_maps_of_one_convention():
    codes = np.zeros((4, 4, 4), np.float32)
    codes[...] = (0.25, 0.7, 0.9, 0.5)
    up = as_map(codes, Picture(id="n", role="normal", green="up"))
    down = as_map(codes, Picture(id="n", role="normal", green="down"))
    assert np.allclose(up * [1, -1, 1], down)
    assert np.allclose(as_map(codes, Picture(id="n", role="normal", green="up", turned_over=True)), up * [-1, -1, 1])
    assert np.allclose(as_map(codes, Picture(id="g", role="glossiness", channel="a")), 0.5)
    assert np.allclose(as_map(codes, Picture(id="r", role="roughness", channel="g")), 0.7)
    assert np.allclose(as_map(codes, Picture(id="h", role="height", channel="b", turned_over=True)), -0.4)


def test_a_turned_frame_turns_the_normals_as_vectors():
    """A ridge map framed at a right angle is the normal map of the turned ridge."""
    grid = Grid(64, 64, 64, 64)
    shape = (np.sin(2 * np.pi * grid.x_mm() / 16)[None, :].repeat(64, 0) * 2).astype(np.float32)
    codes = eight_bit(normal_of_height(shape, grid))
    # The frame's upper edge runs up the picture's left side: the sheet is the picture turned clockwise.
    corners = ((0.0, 64.0), (0.0, 0.0), (64.0, 0.0), (64.0, 64.0))
    flat = MapSet(grid, {MapKind.BASE_COLOUR: np.zeros((64, 64, 3), np.float32)})
    sheet = onto_sheet(flat, [codes], [Picture(id="n", role="normal")], corners, (64, 64))
    expected = normal_of_height(np.ascontiguousarray(np.rot90(shape, -1)), grid)
    assert np.abs(sheet[MapKind.NORMAL][4:-4, 4:-4] - expected[4:-4, 4:-4]).max() < 0.03


def as_jpeg(codes, quality):
    held = io.BytesIO()
    Image.fromarray(np.rint(codes[..., :3] * 255).astype(np.uint8)).save(held, "JPEG", quality=quality)
    return np.asarray(Image.open(held), np.float32) / 255


@pytest.mark.parametrize("quality", [60, 80, 95])
@pytest.mark.parametrize("kind", [0, 1, 2, 3])
def test_normals_of_a_jpeg_are_normals(kind, quality):
    grid = Grid(256, 256, 300, 300)
    codes = eight_bit(normal_of_height(np.ascontiguousarray(height(kind, grid, 11, np.random.default_rng(3))), grid))
    looks = read_pixels(as_jpeg(codes, quality))
    told = decide(read_name("wall_normal.jpg"), looks, as_jpeg(codes, quality))
    assert told.role == MapKind.NORMAL


def test_normals_off_length_are_made_unit_and_told():
    grid = Grid(128, 128, 300, 300)
    codes = eight_bit(normal_of_height(np.ascontiguousarray(clouds(grid, size=40, octaves=4, seed=3) * 8), grid))
    short = (codes[..., :3] - 0.5) * 0.75 + 0.5
    told = decide(read_name("wall_normal.png"), read_pixels(short), short)
    assert told.role == MapKind.NORMAL
    assert "off length" in told.reason
    made = as_map(np.dstack([short, np.ones((128, 128))]).astype(np.float32), Picture(id="n", role="normal"))
    assert np.linalg.norm(made, axis=2) == pytest.approx(1, abs=1e-5)
    grey = np.repeat(codes[..., :1], 3, 2)
    assert decide(read_name("wall_normal.png"), read_pixels(grey), grey).role == "unknown"


def test_normals_in_two_channels_get_their_third():
    grid = Grid(128, 128, 300, 300)
    normal = normal_of_height(np.ascontiguousarray(clouds(grid, size=40, octaves=4, seed=3) * 8), grid)
    codes = eight_bit(normal)
    codes[..., 2] = 0
    assert decide(read_name("wall_n_normal.png"), read_pixels(codes[..., :3]), codes[..., :3]).role == MapKind.NORMAL
    made = as_map(codes, Picture(id="n", role="normal", green="up"))
    assert np.abs(made - normal).max() < 0.03


def test_object_space_is_noted_and_colour_that_stands_alone_is_colour():
    grid = Grid(64, 64, 300, 300)
    colour = np.stack([clouds(grid, size=40, seed=s) for s in (1, 2, 3)], 2)
    assert "object space" in decide(read_name("a_normal_object.png"), read_pixels(colour), colour).reason
    told = decide(read_name("rusty_metal.jpg"), read_pixels(colour), colour, alone=True)
    assert told.role == MapKind.BASE_COLOUR
    assert decide(read_name("rusty_metal.jpg"), read_pixels(colour), colour).role == MapKind.METALNESS


@pytest.mark.parametrize("rise", [0.5, 3.0, 12.0])
@pytest.mark.parametrize("kind", [0, 1, 2, 3])
def test_a_heights_millimetres_follow_from_normals_made_with_it(kind, rise):
    """The height in 8 bits, the normals with finer grain than it has."""
    grid = Grid(256, 256, 300, 300)
    relief = height(kind, grid, 5, np.random.default_rng(5))
    relief = np.asarray((relief - relief.min()) / np.ptp(relief), np.float32)
    grain = clouds(grid, size=4, octaves=3, seed=9) * np.float32(0.05 * rise)
    normal = normal_of_height(np.ascontiguousarray(relief * np.float32(rise) + grain, np.float32), grid)
    told = np.asarray(np.rint(relief * 255) / 255, np.float32)
    assert rise_of(told, normal, grid) == pytest.approx(rise, rel=0.12)
    other = clouds(grid, size=50, octaves=5, seed=77)
    assert rise_of(other, normal, grid) is None
    assert rise_of(1 - told, normal, grid) is None, "turned over"


def lit_unevenly(colour, times):
    """A lamp to the left: so many times brighter there."""
    across = np.linspace(np.log(times), 0, colour.shape[1])[None, :, None]
    return (colour * np.exp(across)).astype(np.float32)


def test_evening_as_needed_leaves_an_even_sheet_alone_and_takes_a_fall_off_out():
    ground = natural(np.random.default_rng(41), (400, 400), 0.8)
    grid = Grid(ground.shape[1], ground.shape[0], 400.0, 400.0)
    assert even_light(grid, ground, as_needed=True) is ground
    uneven = lit_unevenly(ground, 1.8)
    assert fall_off(even_light(grid, uneven, as_needed=True)).amount < 0.3 < 0.6 < fall_off(uneven).amount


@pytest.mark.parametrize("seed", range(8))
def test_a_lamps_fall_off_is_told_from_what_is_on_the_sheet(seed):
    """Natural grounds and walls, evenly lit and not; planks of many tones are no light."""
    rng = np.random.default_rng(seed)
    ground = natural(rng, (400, 400), 0.8) if seed % 2 else masonry(rng, (400, 400), (70, 30), 0.5, 0.8)
    assert fall_off(lit_unevenly(ground, 1.6)).of_light
    planks = np.repeat(rng.uniform(0.1, 0.4, 7), 46)[None, :320, None] * np.ones((320, 1, 3))
    assert not fall_off(planks.astype(np.float32)).of_light
    assert fall_off(ground).amount < 0.35


def test_evening_is_a_gain_that_keeps_contrast_alike():
    ground = masonry(np.random.default_rng(3), (400, 400), (70, 30), 0.5, 0.8)
    grid = Grid(ground.shape[1], ground.shape[0], 400, 400)
    evened = even_light(grid, lit_unevenly(ground, 2.0), wavelength=300.0, strength=1.0)
    third = ground.shape[1] // 3
    contrasts = [float(part.std() / part.mean()) for part in (evened[:, :third], evened[:, -third:])]
    assert contrasts[0] == pytest.approx(contrasts[1], rel=0.12)
    assert fall_off(evened).amount < 0.2


def washed_out(colour):
    """A lamp to the right whose stray light lies over the sheet too."""
    across = np.linspace(0, 1, colour.shape[1])[None, :, None]
    return (colour * (1 + 1.2 * across**2) + colour.mean() * across**2).astype(np.float32)


def sides(colour):
    """Contrast of the left quarter over that of the right one, in logarithms."""
    tone = np.log(np.maximum(luminance(colour), 1e-4))
    detail = tone - cv2.GaussianBlur(tone, (0, 0), 10)
    quarter = tone.shape[1] // 4
    return float(detail[:, :quarter].std() / detail[:, -quarter:].std())


@pytest.mark.parametrize("seed", [0, 3, 4])
def test_a_side_that_is_washed_out_gets_its_contrast_back(seed):
    ground = masonry(np.random.default_rng(seed), (460, 420), (75, 32), 0.5, 0.9)
    grid = Grid(ground.shape[1], ground.shape[0], 460.0, 420.0)
    uneven = washed_out(ground)
    by_gain, both = (even_light(grid, uneven, strength=1.0, wavelength=350.0, contrast=c) for c in (0.0, 1.0))
    assert sides(by_gain) > 1.25 * sides(ground)
    assert sides(both) == pytest.approx(sides(ground), rel=0.2)


def test_washed_out_sides_are_noticed_more_often_than_not():
    """Half of them are; of evenly lit and plainly lit ones, none (the next test): missing one costs less."""
    found = 0
    for seed in range(12):
        rng = np.random.default_rng(seed)
        found += veiled(
            washed_out(masonry(rng, (400, 400), (70, 30), 0.5, 0.8) if seed % 2 else natural(rng, (400, 400), 0.8))
        )
    assert found >= 5


@pytest.mark.parametrize("seed", range(6))
def test_contrast_that_does_not_fade_with_the_light_is_left_alone(seed):
    rng = np.random.default_rng(100 + seed)
    ground = natural(rng, (400, 400), 0.8) if seed % 2 else masonry(rng, (400, 400), (70, 30), 0.5, 0.8)
    assert not veiled(ground)
    assert not veiled(lit_unevenly(ground, 2.0))
    grid = Grid(ground.shape[1], ground.shape[0], 400.0, 400.0)
    assert np.array_equal(
        even_light(grid, lit_unevenly(ground, 1.8), as_needed=True),
        even_light(grid, lit_unevenly(ground, 1.8), as_needed=True, contrast=1.0),
    )
