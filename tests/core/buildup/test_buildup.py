"""The seat's mathematics by analytic cases, where-rules, strokes and decals that wrap."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brave_tessel.core.buildup.rules.height import by_height
from brave_tessel.core.buildup.rules.noise import by_noise
from brave_tessel.core.buildup.seat import bare
from brave_tessel.core.buildup.seat import lay as lay_by
from brave_tessel.core.buildup.strokes import lay_strokes
from brave_tessel.core.buildup.where import combine
from brave_tessel.core.job.layers import MapMix, Stroke
from brave_tessel.core.maps import LAYERED, MapKind, MapSet
from brave_tessel.core.operation import Ground
from brave_tessel.core.relief.section import bed_of, beds_of, cut_along
from brave_tessel.core.sheet import Grid
from tests.core.laid import seat_with

GRID = Grid(16, 12, 160.0, 120.0)
ALL = frozenset(LAYERED)


def lay(below, maps, cover, switches, **seat):
    return lay_by(below, maps, cover, {kind: MapMix() for kind in switches}, seat_with(**seat))


def flat(level, shade=0.5, grid=GRID):
    return MapSet(
        grid,
        {
            MapKind.HEIGHT: np.full(grid.shape, level, np.float32),
            MapKind.BASE_COLOUR: np.full((*grid.shape, 3), shade, np.float32),
            MapKind.ROUGHNESS: np.full(grid.shape, shade, np.float32),
        },
    )


def ground(level=0.0, shade=0.2):
    return lay(bare(GRID), flat(level, shade), None, ALL, level=0, feather=0, drape=0)


def test_the_first_layer_always_shows():
    done = ground(level=-7.0)
    assert (done.height == -7).all()
    assert (done.top == 1).all()
    assert np.allclose(done.planes[0], 0.2)


@pytest.mark.parametrize(
    ("over", "share"), [(-1.0, 0.0), (-0.5, 0.25), (0.0, 0.5), (0.5, 0.75), (1.0, 1.0), (4.0, 1.0)]
)
def test_two_flat_layers_mix_linearly_over_the_feather(over, share):
    done = lay(ground(), flat(over, 0.8), None, ALL, level=0, feather=2.0, drape=0)
    assert np.allclose(done.share, share, atol=1e-5)
    assert np.allclose(done.planes[0], 0.2 + share * 0.6, atol=1e-5)
    assert np.allclose(done.height, share * over, atol=1e-5)


def test_feather_0_is_a_hard_contest_and_equal_heights_go_by_stack():
    for level, shows in ((-0.001, 0), (0.0, 1), (0.001, 1)):
        done = lay(ground(), flat(0.0, 0.8), None, ALL, level=level, feather=0.0, drape=0)
        assert np.allclose(done.share, shows), level


def test_drape_1_adds_to_the_ground_and_drape_0_replaces_it():
    slope = flat(0.0, 0.2)
    ramp = np.linspace(-3, 3, GRID.width_px, dtype=np.float32)[None, :].repeat(GRID.height_px, 0)
    below = lay(bare(GRID), slope.with_maps(height=ramp), None, ALL, level=0, feather=0, drape=0)
    follows = lay(below, flat(0.5, 0.8), None, ALL, level=0, feather=0, drape=1)
    assert np.allclose(follows.height, ramp + 0.5, atol=1e-6)
    lies_flat = lay(below, flat(0.5, 0.8), None, ALL, level=0, feather=0, drape=0)
    assert np.allclose(lies_flat.height, np.maximum(ramp, 0.5), atol=1e-6)


def test_coverage_0_changes_nothing():
    below = ground()
    done = lay(below, flat(9.0, 0.8), np.zeros(GRID.shape, np.float32), ALL, level=3, feather=1, drape=0.5)
    for a, b in zip(done.planes, below.planes, strict=True):
        assert (a == b).all()
    assert (done.top == below.top).all()


@pytest.mark.parametrize("kind", LAYERED)
def test_a_map_that_is_switched_off_stays_as_it_was(kind):
    below = ground()
    done = lay(below, flat(1.0, 0.8), None, ALL - {kind}, level=0.5, feather=0, drape=1)
    index = LAYERED.index(kind)
    assert (done.planes[index] == below.planes[index]).all()


@given(
    level=st.floats(-5, 5),
    feather=st.floats(0, 3),
    drape=st.floats(0, 1),
    cover=st.floats(0, 1),
    height=st.floats(-4, 4),
)
def test_the_joined_height_lies_between_ground_and_layer(level, feather, drape, cover, height):
    below = ground(level=1.0)
    coverage = np.full(GRID.shape, cover, np.float32)
    done = lay(below, flat(height, 0.8), coverage, ALL, level=level, feather=feather, drape=drape)
    top = level + height + drape * 1.0
    low, high = min(1.0, top), max(1.0, top)
    assert done.height.min() >= low - 1e-4
    assert done.height.max() <= high + 1e-4
    assert (done.share >= 0).all()
    assert (done.share <= cover + 1e-6).all()


def test_section_shows_each_layers_body():
    below = ground()
    cover = np.zeros(GRID.shape, np.float32)
    cover[:, 4:8] = 1
    done = lay(below, flat(1.0, 0.8), cover, ALL, level=0.5, feather=0, drape=1)
    section = cut_along(beds_of(*(bed_of(stack) for stack in (bare(GRID), below, below, done)), done), 60.0)
    assert section.numbers == (0, 2)
    assert np.allclose(section.heights[-1], np.where(cover[0] > 0, 1.5, 0.0))
    assert (section.top == np.where(cover[0] > 0, 2, 1)).all()


def test_by_height_between_two_levels():
    ramp = np.linspace(-2, 2, 64, dtype=np.float32)[None, :].repeat(4, 0)
    grid = Grid(64, 4, 64, 4)
    made = by_height(grid, Ground(grid, ramp), above=-1.0, below=1.0, soften=0.0)
    assert (made[0][np.abs(ramp[0]) < 0.9] == 1).all()
    assert (made[0][np.abs(ramp[0]) > 1.1] == 0).all()


@pytest.mark.parametrize("cover", [0.1, 0.25, 0.5, 0.75, 0.9])
def test_noise_covers_the_share_it_says(cover):
    grid = Grid(512, 512, 3000, 3000)
    made = by_noise(grid, size=120, cover=cover, soften=0.0)
    assert made.mean() == pytest.approx(cover, abs=0.045)


def test_rules_combine_top_to_bottom():
    a, b = np.array([[1.0, 1.0, 0.0, 0.0]], np.float32), np.array([[1.0, 0.0, 1.0, 0.0]], np.float32)
    assert combine(None, a, "keep").tolist() == [[1, 1, 0, 0]]
    assert combine(None, a, "add").tolist() == [[1, 1, 0, 0]]
    assert combine(None, a, "cut").tolist() == [[0, 0, 1, 1]]
    assert combine(a, b, "keep").tolist() == [[1, 0, 0, 0]]
    assert combine(a, b, "add").tolist() == [[1, 1, 1, 0]]
    assert combine(a, b, "cut").tolist() == [[0, 1, 0, 0]]


def stroke(*points, **more):
    return Stroke(id="s", points=points, size_mm=more.pop("size", 30.0), **more)


def test_strokes_wrap_over_edges_and_corners():
    grid = Grid(128, 128, 256, 256)
    none = np.zeros(grid.shape, np.float32)
    middle = lay_strokes(none, [stroke((128.0, 128.0), (150.0, 140.0))], grid)
    corner = lay_strokes(none, [stroke((0.0, 0.0), (22.0, 12.0))], grid)
    assert np.allclose(np.roll(middle, (64, -64), (0, 1)), corner, atol=1e-5)
    far = lay_strokes(none, [stroke((128.0 + 256 * 3, 128.0 - 512), (150.0 + 768, 140.0 - 512))], grid)
    assert np.allclose(middle, far, atol=1e-5)


def test_strokes_are_the_same_at_every_size_and_erase_again():
    coarse, fine = Grid(256, 256, 512, 512), Grid(1024, 1024, 512, 512)
    path = [stroke((100.0, 100.0), (300.0, 260.0), (420.0, 90.0), size=60.0, hardness=0.4)]
    small = lay_strokes(np.zeros(coarse.shape, np.float32), path, coarse)
    large = lay_strokes(np.zeros(fine.shape, np.float32), path, fine)
    assert np.abs(large.reshape(256, 4, 256, 4).mean((1, 3)) - small).max() < 0.03
    assert small.max() == pytest.approx(1.0, abs=1e-4)
    gone = lay_strokes(
        small, [stroke((100.0, 100.0), (300.0, 260.0), (420.0, 90.0), size=120.0, hardness=0.9, erase=True)], coarse
    )
    assert gone.max() < 0.02


def test_a_stroke_has_no_dabs_to_see():
    grid = Grid(200, 60, 200, 60)
    made = lay_strokes(np.zeros(grid.shape, np.float32), [stroke((20.0, 30.0), (180.0, 30.0), hardness=0.2)], grid)
    assert np.ptp(made[:, 40:160], axis=1).max() < 1e-6
