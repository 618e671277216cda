"""Layers that meet physically: every kind, laid, seated, painted, by analytic cases and published values."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brave_tessel.core.buildup.laying import closing_turn, lay_in_sheet
from brave_tessel.core.buildup.look import adjust
from brave_tessel.core.buildup.mixing import MODES
from brave_tessel.core.buildup.rules.after import after
from brave_tessel.core.buildup.rules.band import band
from brave_tessel.core.buildup.rules.edges import edges
from brave_tessel.core.buildup.rules.gradient import gradient
from brave_tessel.core.buildup.rules.hollows import hollows
from brave_tessel.core.buildup.rules.id import by_id
from brave_tessel.core.buildup.rules.pieces import by_pieces
from brave_tessel.core.buildup.rules.rule_shape import shaped
from brave_tessel.core.buildup.rules.shape import by_shape
from brave_tessel.core.buildup.rules.slope import by_slope
from brave_tessel.core.buildup.seat import ByHeight, Seat, ground_read, own_relief
from brave_tessel.core.buildup.tone import match
from brave_tessel.core.buildup.where import combine
from brave_tessel.core.colour import decode_srgb, encode_srgb
from brave_tessel.core.job.layers import MapMix
from brave_tessel.core.kernels.blend import PRODUCTS, product_of_light
from brave_tessel.core.kernels.relief import normal_of_height
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.operation import Ground
from brave_tessel.core.recipe.steps.combine import blended_colours, normals
from brave_tessel.core.recipe.steps.pattern import units
from brave_tessel.core.sheet import Grid
from tests.core.laid import GRID, PLAIN, flat, on, waves

# Seat -----------------------------------------------------------------------------------------------


def test_over_shows_by_coverage_alone():
    below = on(flat(5.0, 0.2))
    cover = np.linspace(0, 1, GRID.width_px, dtype=np.float32)[None].repeat(GRID.height_px, 0)
    done = on(flat(0.0, 0.8), below, cover, contest=False, drape=1.0)
    assert done.share == pytest.approx(cover, abs=1e-6)
    assert done.height == pytest.approx(below.height, abs=1e-5)
    assert done.planes[0][0, :, 0] == pytest.approx(0.2 + 0.6 * cover[0], abs=1e-5)


@pytest.mark.parametrize("strength", [5e-324, 1e-42, 1e-9])
@pytest.mark.parametrize("kind", [MapKind.BASE_COLOUR, MapKind.ROUGHNESS, MapKind.HEIGHT])
def test_a_strength_that_is_next_to_nothing_changes_nothing(kind, strength):
    below = on(flat(5.0, 0.2))
    mixes = {**PLAIN, kind: MapMix(strength=strength)}
    done = on(flat(6.0, 0.8), below, mixes=mixes, drape=1.0)
    index = (MapKind.BASE_COLOUR, MapKind.HEIGHT, MapKind.ROUGHNESS).index(kind)
    assert done.planes[index] == pytest.approx(below.planes[index], abs=1e-6)


def test_form_and_grain_split_a_relief_and_add_up_to_it():
    relief = waves()
    whole = own_relief(relief, ByHeight(split=60), GRID)
    broad = own_relief(relief, Seat(form=1, grain=0, split=60), GRID)
    fine = own_relief(relief, Seat(form=0, grain=1, split=60), GRID)
    assert whole == pytest.approx(relief, abs=1e-6)
    assert broad + fine == pytest.approx(relief, abs=1e-4)
    rough = lambda h: float(np.abs(np.diff(h, axis=1)).mean())  # noqa: E731
    assert rough(broad) < 0.5 * rough(relief)


def test_turned_over_and_contrast():
    relief = waves()
    assert own_relief(relief, Seat(turn_over=True), GRID) == pytest.approx(-relief)
    stretched = own_relief(relief, Seat(contrast=2.0), GRID)
    assert stretched.mean() == pytest.approx(relief.mean(), abs=1e-4)
    assert stretched.std() == pytest.approx(2 * relief.std(), rel=1e-3)


def test_show_through_0_buries_the_grain_beneath_and_1_keeps_it():
    below = on(flat(height=waves()))
    keeps = on(flat(0.5), below, drape=1.0, feather=0.0)
    buries = on(flat(0.5), below, drape=1.0, show_through=0.0, split=30, contest=False)
    assert keeps.height == pytest.approx(below.height + 0.5, abs=1e-5)
    assert buries.height.std() < 0.8 * below.height.std()
    assert ground_read(below.height, Seat(drape=0.0, show_through=0.0), GRID) is below.height


@given(seed=st.integers(0, 50), level=st.floats(-2, 2), feather=st.floats(0, 2))
@settings(max_examples=30, deadline=None)
def test_a_contest_of_equal_ones_is_symmetric(seed, level, feather):
    """Whichever of two reliefs is laid first, the joined height of a hard or soft contest is the same where they
    differ.
    """
    a, b = waves(seed=seed), waves(seed=seed + 100)
    one = on(flat(height=b), on(flat(height=a)), level=level, feather=feather)
    other = on(flat(height=a), on(flat(height=b + np.float32(level))), feather=feather)
    assert one.height == pytest.approx(other.height, abs=2e-3)


# Maps, modes, finer normals -------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("mode", "wanted"),
    [
        ("multiply", 0.2 * 0.5),
        ("screen", 0.6),
        ("darken", 0.2),
        ("lighten", 0.5),
        ("difference", 0.3),
        ("exclusion", 0.5),
    ],
)
def test_a_map_is_laid_on_by_a_mode_of_the_standard(mode, wanted):
    """W3C Compositing and Blending Level 1 on roughness: backdrop 0.2, source 0.5 (check-values D5)."""
    below = on(flat(0, 0.2))
    mixes = {**PLAIN, MapKind.ROUGHNESS: MapMix(mode=mode)}
    assert on(flat(0, 0.5), below, mixes=mixes, contest=False).planes[2] == pytest.approx(wanted, abs=1e-5)
    half = {**PLAIN, MapKind.ROUGHNESS: MapMix(mode=mode, strength=0.5)}
    assert on(flat(0, 0.5), below, mixes=half, contest=False).planes[2] == pytest.approx((0.2 + wanted) / 2, abs=1e-5)


@pytest.mark.parametrize("kind", [kind for kind in MODES if len(MODES[kind]) > 1])
def test_every_mode_of_every_map_stays_in_range(kind):
    normal = normal_of_height(waves(seed=8), GRID)
    layer = flat(1.0, 0.7, metalness=np.full(GRID.shape, 0.4, np.float32), normal=normal)
    below = on(flat(0, 0.3, normal=normal))
    for mode in MODES[kind]:
        done = on(layer, below, mixes={**PLAIN, kind: MapMix(mode=mode)}, contest=False)
        for plane in (done.planes[0], *done.planes[2:]):
            assert np.isfinite(plane).all()
            assert plane.min() >= 0
            assert plane.max() <= 1


def test_a_layers_own_normals_survive_beside_the_joined_relief():
    """Normals of the joined relief and of finer detail add as slopes: the normal of the summed heights
    (check-values D7).
    """
    broad, fine = waves(size=80, rise=6), waves(size=12, rise=0.8, seed=9)
    both = flat(height=broad, normal=normal_of_height(broad + fine, GRID))
    done = on(both)
    shown = normal_of_height(done.height, GRID, done.detail)
    assert shown == pytest.approx(normal_of_height(broad + fine, GRID), abs=2e-3)


def test_reoriented_detail_is_the_published_rotation():
    """D7: n1 = (0.3, 0.4, 0.866025), n2 = (−0.2, 0.1, 0.974679) gives (0.095619, 0.494159, 0.864097)."""
    base = np.broadcast_to(np.array([0.3, 0.4, 0.866025], np.float32), (*GRID.shape, 3))
    detail = np.broadcast_to(np.array([-0.2, 0.1, 0.974679], np.float32), (*GRID.shape, 3))
    below = on(flat(normal=base))
    done = on(flat(normal=detail), below, mixes={**PLAIN, MapKind.NORMAL: MapMix(mode="reoriented")}, contest=False)
    shown = normal_of_height(done.height, GRID, done.detail)
    assert shown[5, 5] == pytest.approx((0.095619, 0.494159, 0.864097), abs=2e-4)
    assert shown == pytest.approx(normals(GRID, base, detail, how="reoriented"), abs=2e-4)


def test_a_layer_without_normals_covers_those_beneath_and_a_switched_off_map_leaves_them():
    below = on(flat(normal=normal_of_height(waves(), GRID)))
    assert np.abs(on(flat(2.0), below).detail).max() == pytest.approx(0, abs=1e-6)
    off = {**PLAIN, MapKind.NORMAL: MapMix(strength=0.0)}
    assert (on(flat(2.0), below, mixes=off).detail == below.detail).all()


def test_own_occlusion_is_carried_and_covered():
    dark = np.full(GRID.shape, 0.4, np.float32)
    below = on(flat(ambient_occlusion=dark))
    assert below.shade == pytest.approx(0.4)
    assert on(flat(2.0), below, contest=False).shade == pytest.approx(1.0)


# Look, laying, tone ---------------------------------------------------------------------------------


def test_the_look_changes_only_what_it_says():
    maps = flat(1.0, 0.4)
    assert adjust(GRID, maps) is maps
    lighter = adjust(GRID, maps, lightness=1.0)
    assert lighter[MapKind.BASE_COLOUR] == pytest.approx(0.8, abs=1e-5)
    assert lighter[MapKind.HEIGHT] is maps[MapKind.HEIGHT]
    assert adjust(GRID, maps, rough_low=0.5, rough_high=0.7)[MapKind.ROUGHNESS] == pytest.approx(0.58, abs=1e-6)
    assert adjust(GRID, maps, height_gain=-2)[MapKind.HEIGHT] == pytest.approx(-2)
    colour = np.stack([waves(rise=1, seed=s) for s in (1, 2, 3)], 2)
    grey = adjust(GRID, flat(base_colour=colour), saturation=0.0)[MapKind.BASE_COLOUR]
    assert np.ptp(grey, axis=2).max() < 2e-3
    turned = adjust(GRID, flat(base_colour=colour), hue=360.0)[MapKind.BASE_COLOUR]
    assert turned == pytest.approx(np.clip(colour, 0, 1), abs=1e-3)


def test_inverted_green_and_gain_go_into_normals_as_slopes():
    height = waves()
    maps = flat(height=height, normal=normal_of_height(height, GRID))
    doubled = adjust(GRID, maps, height_gain=2.0)
    assert doubled[MapKind.NORMAL] == pytest.approx(normal_of_height(height * 2, GRID), abs=1e-4)
    flipped = adjust(GRID, maps, green_inverted=True)[MapKind.NORMAL]
    assert flipped[..., 1] == pytest.approx(-maps[MapKind.NORMAL][..., 1], abs=1e-6)


@pytest.mark.parametrize("wanted", [90.0, 180.0, -90.0, 45.0])
def test_turns_that_close_exactly_are_taken_exactly(wanted):
    found = closing_turn(wanted, (300, 300), (30, 30))
    assert found.angle == pytest.approx(wanted if wanted != 180 else math.copysign(180, found.angle))
    assert found.stretch == pytest.approx(0, abs=0.02)


@given(st.floats(-179, 179), st.integers(1, 12), st.integers(1, 12))
@settings(deadline=None)
def test_every_turn_closes_on_whole_repeats(wanted, across, up):
    sheet, cell = np.array([300.0, 400.0]), np.array([300.0 / across, 400.0 / up])
    found = closing_turn(wanted, tuple(sheet), tuple(cell))
    for step in (found.matrix @ (sheet[0], 0), found.matrix @ (0, sheet[1])):
        assert step / cell == pytest.approx(np.rint(step / cell), abs=1e-6)
    if min(across, up) >= 8:
        assert abs((found.angle - wanted + 180) % 360 - 180) < 8


def test_normals_turn_with_their_layer():
    grid = Grid(96, 96, 300.0, 300.0)
    height = waves(grid)
    maps = MapSet(grid, {MapKind.HEIGHT: height, MapKind.NORMAL: normal_of_height(height, grid)})
    for turn, mirrored in ((90.0, "no"), (180.0, "no"), (0.0, "across"), (0.0, "up"), (90.0, "both")):
        laid = lay_in_sheet(maps, (300, 300), turn=turn, right=0, up=0, mirrored=mirrored)
        assert laid[MapKind.NORMAL] == pytest.approx(normal_of_height(laid[MapKind.HEIGHT], grid), abs=5e-3), (
            turn,
            mirrored,
        )


def test_moved_by_whole_pixels_is_a_roll():
    maps = flat(height=waves())
    moved = lay_in_sheet(maps, (320, 240), turn=0, right=5 * 7, up=5 * 3, mirrored="no")
    assert (moved[MapKind.HEIGHT] == np.roll(maps[MapKind.HEIGHT], (-3, 7), (0, 1))).all()


def test_tone_match_brings_the_mean_to_what_lies_beneath():
    own = np.stack([waves(rise=0.3, seed=s) + 0.3 for s in (1, 2, 3)], 2)
    ground = np.stack([waves(rise=0.1, seed=s) + 0.05 for s in (4, 5, 6)], 2) * np.array([1, 0.6, 0.3], np.float32)
    assert match(GRID, own, ground, tone_match=0.0) is own
    made = match(GRID, own, ground, tone_match=1.0, radius=200)
    assert np.abs(made.mean((0, 1)) - ground.mean((0, 1))).max() < 0.02
    part = match(GRID, own, ground, tone_match=0.5, radius=200)
    assert np.abs(own - made).mean() > np.abs(own - part).mean() > 0


# Where ----------------------------------------------------------------------------------------------


def cone(grid, slope=1.0):
    x, y = grid.x_mm()[None] - grid.width_mm / 2, grid.y_mm()[:, None] - grid.height_mm / 2
    return np.asarray(np.maximum(80 - np.hypot(x, y), 0) * slope, np.float32)


def test_slope_of_a_cone_is_its_angle():
    grid = Grid(256, 256, 256.0, 256.0)
    ground = Ground(grid, cone(grid, math.tan(math.radians(30))))
    on_cone = np.hypot(grid.x_mm()[None] - 128, grid.y_mm()[:, None] - 128)
    flank = (on_cone > 20) & (on_cone < 60)
    assert by_slope(grid, ground, above=25, below=35, soften=2)[flank].min() > 0.9
    assert by_slope(grid, ground, above=35, below=90, soften=2)[flank].max() < 0.1
    right = by_slope(grid, ground, above=20, below=40, soften=2, side="one side", towards=0.0)
    assert right[128, 128 + 40] > 0.9
    assert right[128, 128 - 40] < 0.05


def test_hollows_and_edges_are_opposites():
    ground = Ground(GRID, waves())
    low, high = (
        hollows(GRID, ground, radius=20, depth=0.5),
        edges(GRID, Ground(GRID, -ground.height), radius=20, height=0.5, from_height=0.0),
    )
    assert low == pytest.approx(high, abs=1e-4)
    assert low[ground.height > np.percentile(ground.height, 90)].mean() < 0.02


def test_rules_by_place_close_over_the_edges():
    for made in (
        gradient(GRID, from_up=40, to_up=0),
        gradient(GRID, from_right=60, to_right=300),
        band(GRID, at=0.0),
        by_shape(GRID, right=0, up=0),
    ):
        assert np.abs(made[0] - made[-1]).max() < 0.2
        assert np.abs(made[:, 0] - made[:, -1]).max() < 0.2
    foot = gradient(GRID, from_up=100, to_up=0)
    assert foot[-1].mean() > 0.95
    assert foot[GRID.height_px // 2].max() == 0


def test_a_rule_is_spread_inverted_softened_and_weighed():
    disc = by_shape(GRID, right=160, up=120, width=100, height=100, soft=0)
    area = lambda m: float(m.mean()) * 320 * 240  # noqa: E731
    assert area(disc) == pytest.approx(math.pi * 50**2, rel=0.03)
    assert area(shaped(GRID, disc, spread=10)) == pytest.approx(math.pi * 60**2, rel=0.04)
    assert area(shaped(GRID, disc, spread=-10)) == pytest.approx(math.pi * 40**2, rel=0.05)
    assert shaped(GRID, disc, invert=True) == pytest.approx(1 - disc)
    assert area(shaped(GRID, disc, soften=30)) == pytest.approx(area(disc), rel=0.01)
    assert shaped(GRID, disc) is disc
    assert shaped(GRID, disc * 0.5, low=0.25, high=0.75).max() == pytest.approx(0.5)


def test_six_ways_to_go_together():
    a, b = np.array([[0.8, 0.2]], np.float32), np.array([[0.5, 0.5]], np.float32)
    assert combine(a, b, "multiply") == pytest.approx(np.array([[0.4, 0.1]]))
    assert combine(a, b, "lighter") == pytest.approx(np.array([[0.8, 0.5]]))
    assert combine(a, b, "darker") == pytest.approx(np.array([[0.5, 0.2]]))
    assert combine(a, b, "cut") == pytest.approx(np.array([[0.4, 0.1]]))
    for mode in ("keep", "cut", "multiply", "darker"):
        assert combine(a, b, mode, 0.0) == pytest.approx(np.minimum(a, 1) if mode != "darker" else a)
    for mode in ("add", "lighter"):
        assert combine(a, b, mode, 0.0) == pytest.approx(a)


def test_after_another_layer_is_moved_with_its_cover():
    disc = by_shape(GRID, right=160, up=120, width=80, height=80, soft=0)
    assert after(GRID, disc, right=10, up=-20) == pytest.approx(np.roll(disc, (4, 2), (0, 1)), abs=1e-4)


def test_random_pieces_are_covered_whole():
    grid = Grid(240, 240, 600, 600)
    pieces = units(grid, length=95, height=45, joint=5)
    cover = by_pieces(grid, pieces, share=0.5, seed=3)
    inner = pieces.edge > 6
    values = [np.unique(cover[inner & (pieces.number == n)]) for n in range(pieces.count)]
    assert all(len(v) == 1 for v in values)
    assert np.mean([v[0] for v in values]) == pytest.approx(0.5, abs=0.15)


def test_id_colours_are_found_exactly():
    colour = np.zeros((*GRID.shape, 3), np.float32)
    colour[:, :20] = (1, 0, 0)
    colour[:, 20:40] = (0, 1, 0)
    assert by_id(GRID, colour, colours="#FF0000,#FF0000").mean() == pytest.approx(20 / 64)
    assert by_id(GRID, colour, colours="#FF0000,#00FF00").mean() == pytest.approx(40 / 64)


@pytest.mark.parametrize("mode", sorted(PRODUCTS))
def test_colours_of_the_usual_modes_are_those_of_the_formula(mode):
    """The kernel against the standard's formula on codes; where nothing covers a row it stays as it is."""
    rng = np.random.default_rng(4)
    below, own = rng.uniform(-0.1, 1.2, (2, 130, 70, 3)).astype(np.float32)
    cover = (rng.uniform(size=(130, 70)) * (np.arange(130) % 3 > 0)[:, None]).astype(np.float32)
    made = product_of_light(mode, below, own, cover)
    b, s = (encode_srgb(np.clip(one, 0, 1)) for one in (below, own))
    wanted = decode_srgb(np.clip(blended_colours(mode, b, s), 0, 1))
    lies = cover > 0
    assert np.abs(made - wanted)[lies].max() < 2e-6
    assert (made[~lies] == below[~lies]).all()
