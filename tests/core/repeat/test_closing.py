"""Choosing, pulling, patching, quieting, varying: what a closed sheet goes through beside its cuts."""

import numpy as np
import pytest
from skimage import data

from brave_tessel.core.colour import decode_srgb, encode_srgb, luminance
from brave_tessel.core.errors import OutOfRangeError
from brave_tessel.core.job.document import Crop, Quiet
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.recipe.steps.noise import clouds, pebbles
from brave_tessel.core.repeat.choose import check_crop, cropped, propose
from brave_tessel.core.repeat.cover import judged, sheet_cuts, worst_spots
from brave_tessel.core.repeat.cut import apply_cuts, close_maps, find_cuts, paths_on_cell
from brave_tessel.core.repeat.meters import largest_echo, read_seam
from brave_tessel.core.repeat.patches import Outline, apply_patches, best_place, cut_out
from brave_tessel.core.repeat.quieten import cover_for, find_features, quieten
from brave_tessel.core.repeat.variants import laid_at_random, make_variants, variants
from brave_tessel.core.sheet import Grid
from tests.core.repeat.mending import mend

GRID = Grid(320, 240, 400, 300)


def packaged(name):
    """Grass, gravel or brick as shipped inside scikit-image (open data, its own licence file)."""
    tone = getattr(data, name)().astype(np.float32) / 255
    colour = np.repeat(np.asarray(decode_srgb(tone), np.float32)[..., None], 3, 2)
    return MapSet(Grid(512, 512, 512, 512), {MapKind.BASE_COLOUR: colour, MapKind.HEIGHT: tone - 0.5})


def closed(seed=1, grid=GRID):
    shape = pebbles(grid, size=36, seed=seed)
    colour = (0.1 + 0.5 * shape[..., None] * np.array([1, 0.9, 0.8], np.float32)).astype(np.float32)
    return MapSet(grid, {MapKind.BASE_COLOUR: colour, MapKind.HEIGHT: (shape * 6).astype(np.float32)})


def spotted(seed=1):
    maps = closed(seed)
    colour = maps[MapKind.BASE_COLOUR].copy()
    y, x = np.mgrid[0:240, 0:320]
    colour[np.hypot(x - 80, y - 150) < 16] = (0.85, 0.8, 0.75)
    return maps.with_maps(base_colour=colour)


# Choose ------------------------------------------------------------------------------------------


def test_the_proposed_repeat_finds_a_period_that_is_there():
    """A sheet of 1.6 periods: the best crop is one period and the overlap beyond it."""
    cell = clouds(Grid(150, 150, 150, 150), size=50, octaves=5, seed=2)
    tone = np.tile(cell, (2, 2))[:240, :240]
    colour = np.repeat(tone[..., None] * 0.6 + 0.1, 3, 2).astype(np.float32)
    maps = MapSet(Grid(240, 240, 240, 240), {MapKind.BASE_COLOUR: colour})
    proposals = propose(maps, overlap_mm=24)
    assert len(proposals) >= 3
    assert proposals[0].crop.width_mm == pytest.approx(174, abs=3)
    assert proposals[0].crop.height_mm == pytest.approx(174, abs=3)
    assert proposals[0].cost < 1e-6
    assert proposals[0].cost <= proposals[1].cost


def test_the_proposed_crop_of_a_photo_closes_better_than_a_bad_one():
    maps = packaged("brick")
    proposals = propose(maps, overlap_mm=60)
    costs = []
    for crop in (proposals[0].crop, Crop(x_mm=0, y_mm=0, width_mm=347, height_mm=331)):
        part = cropped(maps, crop)
        pictures, weights = judged(part, colour=0.6, relief=0.4)
        cuts = sheet_cuts(part, overlap=60, colour=0.6, relief=0.4)
        done = {k: apply_cuts(p, cuts, feather_px=1) for k, p in pictures.items()}
        cell = Grid(*done[MapKind.HEIGHT].shape[::-1], crop.width_mm - 60, crop.height_mm - 60)
        costs.append(worst_spots(done, weights, cuts, cell, 1, apart_mm=10)[0][2])
    assert costs[0] < costs[1]


def test_crops_are_cut_to_the_pixel_and_checked():
    maps = closed()
    part = cropped(maps, Crop(x_mm=100, y_mm=50, width_mm=200, height_mm=150))
    assert part.grid.shape == (120, 160)
    assert (part[MapKind.HEIGHT] == maps[MapKind.HEIGHT][80:200, 80:240]).all()
    with pytest.raises(OutOfRangeError) as caught:
        check_crop(Crop(x_mm=300, y_mm=0, width_mm=200, height_mm=100), 400, 300)
    assert "400 × 300" in caught.value.allowed


# Cuts pulled and covered -------------------------------------------------------------------------


def test_a_pinned_cut_passes_its_pins():
    maps = packaged("gravel")
    free = sheet_cuts(maps, overlap=80, colour=0.6, relief=0.4)
    pins = [("x", 0.5, 0.3), ("y", 0.25, 0.7)]
    pulled = sheet_cuts(maps, overlap=80, colour=0.6, relief=0.4, pins=pins)
    assert pulled.x[256] == pytest.approx(0.3, abs=0.02)
    assert pulled.y[len(pulled.y) // 4] == pytest.approx(0.7, abs=0.02)
    assert np.abs(np.diff(pulled.x)).max() <= 1.01 / 80
    assert (free.x != pulled.x).any()


def test_pins_that_no_path_can_join_leave_a_whole_path():
    maps = packaged("gravel")
    pins = [("x", 0.5, 0.2), ("x", 0.502, 0.8)]
    cuts = sheet_cuts(maps, overlap=80, colour=0.6, relief=0.4, pins=pins)
    assert np.isfinite(cuts.x).all()
    assert np.abs(np.diff(cuts.x)).max() <= 1.01 / 80


@pytest.mark.parametrize("name", ["grass", "gravel", "brick"])
def test_covered_spots_are_quieter_and_the_seam_still_closes(name):
    maps = packaged(name)
    pictures, weights = judged(maps, colour=0.6, relief=0.4)
    plain = sheet_cuts(maps, overlap=60, colour=0.6, relief=0.4)
    covered = sheet_cuts(maps, overlap=60, colour=0.6, relief=0.4, patches=6)
    assert 1 <= len(covered.patches) <= 6
    done = {k: apply_cuts(p, plain, feather_px=1) for k, p in pictures.items()}
    cell = Grid(*done[MapKind.HEIGHT].shape[::-1], 452, 452)
    before = worst_spots(done, weights, plain, cell, 1, apart_mm=30)[0][2]
    assert all(patch.cost < before for patch in covered.patches)
    sheet = mend("mend.best_cut", maps, overlap=60, patches=6)
    for axis in (0, 1):
        assert read_seam(encode_srgb(sheet[MapKind.BASE_COLOUR]).astype(np.float32), axis=axis, structured=True).closes


def test_drift_is_levelled_in_the_gradient_domain():
    """A slow ramp of light over a wrapped texture: the step along the cut goes, the texture stays."""
    grid = Grid(256, 256, 256, 256)
    cell = clouds(Grid(200, 200, 200, 200), size=20, octaves=4, seed=2)
    tone = (
        np.tile(cell, (2, 2))[:256, :256] * 0.2
        + np.linspace(0.3, 0.6, 256)[None, :]
        + np.linspace(0, 0.2, 256)[:, None]
    )
    maps = MapSet(grid, {MapKind.BASE_COLOUR: np.repeat(tone[..., None], 3, 2).astype(np.float32)})
    cuts = find_cuts({MapKind.BASE_COLOUR: maps[MapKind.BASE_COLOUR]}, {MapKind.BASE_COLOUR: 1.0}, 56 / 256, 56 / 256)
    rough, level = (close_maps(maps, cuts, feather_mm=1, match_tone=t)[MapKind.BASE_COLOUR][..., 0] for t in (0.0, 1.0))
    x, y = (np.round(p * 200).astype(int) for p in paths_on_cell(cuts, 200, 200))
    rows, columns = np.arange(200), np.arange(200)

    def step(pixels):
        across = np.abs((pixels[rows, (x - 4) % 200] - pixels[rows, (x + 3) % 200]).mean())
        return across + np.abs((pixels[(y - 4) % 200, columns] - pixels[(y + 3) % 200, columns]).mean())

    assert step(level) < 0.15 * step(rough)
    detail = level - level.mean() - (rough - rough.mean())
    assert np.percentile(np.abs(np.diff(detail, axis=1)), 98) < 0.012


# Patches and features ----------------------------------------------------------------------------


def test_a_patch_replaces_only_its_inside_on_every_map_and_wraps():
    maps = spotted()
    pictures, weights = judged(maps, colour=0.6, relief=0.4)
    outline = Outline(40, 40)
    for spot in ((100.0, 187.5), (2.0, 298.0)):
        place = best_place(pictures, weights, GRID, spot, outline)
        patch = cut_out(pictures, weights, GRID, spot, place, outline)
        done = apply_patches(maps, [patch], feather_mm=1)
        x = (GRID.x_mm()[None, :] - spot[0] + 200) % 400 - 200
        y = (300 - GRID.y_mm()[:, None] - spot[1] + 150) % 300 - 150
        far = np.hypot(x, y) > 44
        for kind in maps.maps:
            assert (done[kind][far] == maps[kind][far]).all()
            assert np.abs(done[kind] - maps[kind])[~far].max() > 0
        assert maps[MapKind.HEIGHT] is not done[MapKind.HEIGHT]


def test_a_rolled_sheet_has_the_same_patch_rolled():
    maps = spotted()
    rolled = MapSet(GRID, {k: np.roll(p, (40, 72), (0, 1)) for k, p in maps.maps.items()})
    outline = Outline(40, 40)
    made = []
    for sheet, spot in ((maps, (100.0, 187.5)), (rolled, (190.0, 237.5))):
        pictures, weights = judged(sheet, colour=0.6, relief=0.4)
        place = best_place(pictures, weights, GRID, spot, outline)
        made.append((place[0] - spot[0]) % 400)
    assert made[0] == pytest.approx(made[1], abs=2)


def test_the_loudest_feature_is_found_and_quietened():
    maps = spotted()
    features = find_features(maps[MapKind.BASE_COLOUR], GRID)
    assert features[0].word == "pale"
    assert features[0].x == pytest.approx(100, abs=12)
    assert features[0].y == pytest.approx(187.5, abs=12)
    assert [f.strength for f in features] == sorted((f.strength for f in features), reverse=True)
    from_x, from_y = cover_for(maps, features[0])
    quiet = Quiet(
        id="q",
        x_mm=features[0].x,
        y_mm=300 - features[0].y,
        size_mm=features[0].size,
        from_x_mm=from_x,
        from_y_mm=300 - from_y,
    )
    done = quieten(maps, [quiet])
    left = find_features(done[MapKind.BASE_COLOUR], GRID)
    assert not left or left[0].strength < 0.6 * features[0].strength
    assert luminance(done[MapKind.BASE_COLOUR])[145:155, 75:85].max() < 0.75
    for axis in (0, 1):
        assert read_seam(done[MapKind.BASE_COLOUR], axis=axis, structured=True).closes
    again = quieten(done, [quiet], found_on=maps)
    assert np.isfinite(again[MapKind.HEIGHT]).all()


# Variants ----------------------------------------------------------------------------------------


def test_variants_share_their_edges_and_differ_inside():
    maps = closed(4)
    made = make_variants(maps, count=4, soften=1, seed=3)
    assert len(made) == 4
    for other in made[1:]:
        for kind in maps.maps:
            for line in (np.s_[0], np.s_[-1], np.s_[:, 0], np.s_[:, -1]):
                assert (other[kind][line] == maps[kind][line]).all()
            assert (other[kind] != maps[kind]).mean() > 0.4
    assert len({m[MapKind.HEIGHT].tobytes() for m in made}) == 4


def test_variants_at_random_echo_less():
    """Of k variants the echo at one repeat falls towards 1/k (check-values D2), here kept up by the shared rims."""
    maps = closed(4)
    wide = variants(GRID, maps, across=4, up=4, count=4, seed=2)
    assert wide.grid.shape == (960, 1280)
    assert wide.grid.width_mm == 1600
    tone = luminance(wide[MapKind.BASE_COLOUR])[::2, ::2]
    plain = luminance(np.tile(maps[MapKind.BASE_COLOUR], (4, 4, 1)))[::2, ::2]
    assert largest_echo(plain, radius_px=60) == pytest.approx(1, abs=1e-3)
    assert largest_echo(tone, radius_px=60) < 0.8


def test_every_variant_is_laid_as_often_and_seldom_beside_itself():
    cells = laid_at_random(8, 8, 4, 1)
    assert cells.shape == (8, 8)
    beside = [(cells == np.roll(cells, 1, axis)).mean() for axis in (0, 1)]
    assert max(beside) < 0.1
    counts = np.bincount(cells.ravel(), minlength=4)
    assert counts.min() >= 8
