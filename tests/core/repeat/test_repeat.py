"""Seams and repetition: check-values D1, D2; open data: brick, grass, gravel in scikit-image (CC0)."""

import itertools

import numpy as np
import pytest
from skimage import data

from brave_tessel.core.colour import decode_srgb, encode_srgb
from brave_tessel.core.errors import OutOfRangeError
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.repeat.cover import sheet_cuts
from brave_tessel.core.repeat.cut import Cuts, _close, apply_cuts, close_across, find_cuts, least_path, paths_on_cell
from brave_tessel.core.repeat.meters import echo, largest_echo, read_cut, read_seam
from brave_tessel.core.repeat.repetition import read_repetition
from brave_tessel.core.repeat.resample import resample_wrapped, tiled
from brave_tessel.core.sheet import Grid
from tests.core.repeat.mending import mend

GRID = Grid(512, 512, 512, 512)
# Published r1 of the raw pictures, x and y (D1).
RAW = {"brick": (3.72, 14.31), "grass": (1.96, 2.19), "gravel": (2.89, 3.63)}


def packaged(name):
    grey = getattr(data, name)() / 255
    colour = np.repeat(decode_srgb(grey)[..., None], 3, 2).astype(np.float32)
    slope = np.gradient(grey)
    normal = np.stack([-slope[1], slope[0], np.full_like(grey, 0.2)], 2)
    normal /= np.linalg.norm(normal, axis=2, keepdims=True)
    return MapSet(
        GRID,
        {
            MapKind.BASE_COLOUR: colour,
            MapKind.HEIGHT: (grey * 4).astype(np.float32),
            MapKind.ROUGHNESS: (1 - 0.5 * grey).astype(np.float32),
            MapKind.NORMAL: normal.astype(np.float32),
        },
    )


def seen(kind, pixels):
    return encode_srgb(pixels).astype(np.float32) if kind is MapKind.BASE_COLOUR else pixels


@pytest.mark.parametrize("name", RAW)
def test_raw_pictures_are_flagged_with_the_published_ratios(name):
    grey = (getattr(data, name)() / 255).astype(np.float32)
    for axis, published in zip((1, 0), RAW[name], strict=True):
        reading = read_seam(grey, axis=axis)
        assert reading.ratio == pytest.approx(published, abs=0.006)
        assert not reading.closes


@pytest.mark.parametrize("name", RAW)
def test_after_best_cut_every_map_passes(name):
    done = mend("mend.best_cut", packaged(name))
    for kind in done:
        for axis in (0, 1):
            reading = read_seam(seen(kind, done[kind]), axis=axis, structured=True)
            assert reading.closes, (kind, axis, reading)
    assert np.allclose(np.linalg.norm(done[MapKind.NORMAL], axis=2), 1, atol=1e-5)
    assert done.grid.width_mm == pytest.approx(512 - 48)


@pytest.mark.parametrize("name", RAW)
def test_along_the_cut_it_is_hardly_rougher_than_elsewhere(name):
    maps = packaged(name)
    cuts = sheet_cuts(maps, overlap=96, colour=0.6, relief=0.4)
    colour = seen(MapKind.BASE_COLOUR, maps[MapKind.BASE_COLOUR])
    chosen = read_cut(colour, cuts.x, cuts.overlap_x)
    turned = np.ascontiguousarray(close_across(colour, cuts).swapaxes(0, 1))
    level = read_cut(turned, cuts.y, cuts.overlap_y)
    straight = read_cut(colour, np.full(512, 0.5, np.float32), cuts.overlap_x)
    assert chosen.ratio < 0.6 * straight.ratio
    # A regular pattern that is out of step with the overlap cannot be cut well; it needs whole courses.
    assert max(chosen.ratio, level.ratio) < (4.0 if name == "brick" else 1.5)


def test_all_maps_share_the_cut():
    maps = packaged("gravel")
    grey = maps[MapKind.HEIGHT]
    twice = MapSet(
        GRID, {MapKind.BASE_COLOUR: maps[MapKind.BASE_COLOUR], MapKind.HEIGHT: grey, MapKind.ROUGHNESS: grey}
    )
    done = mend("mend.best_cut", twice)
    assert (done[MapKind.HEIGHT] == done[MapKind.ROUGHNESS]).all()


def spectral(beta, seed, side=256):
    """Noise with power ~ f^-beta; periodic."""
    rng = np.random.default_rng(seed)
    f = np.hypot(np.fft.fftfreq(side)[:, None], np.fft.fftfreq(side)[None, :])
    f[0, 0] = 1
    made = np.real(np.fft.ifft2(np.fft.fft2(rng.normal(size=(side, side))) * f ** (-beta / 2)))
    return made.astype(np.float32)


@pytest.mark.parametrize("beta", [0, 2, 3])
def test_periodic_noise_passes_and_crops_do_not(beta):
    # D1 table: periodic r1 0.86 to 1.18, crops from 1.71 (beta 2) and 5.5 (beta 3).
    for seed in range(6):
        whole = spectral(beta, seed)
        assert 0.8 < read_seam(whole, axis=1).ratio < 1.25
        assert read_seam(whole, axis=0).closes
        if beta >= 2:
            assert not read_seam(whole[:200, :200], axis=1).closes


def test_a_mirrored_tile_is_not_praised():
    half = spectral(2, 1)[:, :128]
    mirrored = np.concatenate([half, half[:, ::-1]], 1)
    reading = read_seam(mirrored, axis=1)
    assert reading.ratio == 0
    assert not reading.closes


def test_slow_drift_is_found():
    drifting = spectral(0, 3) * 0.02 + np.linspace(0, 0.2, 256, dtype=np.float32)[None, :]
    assert read_seam(drifting, axis=1).band > 6


def test_a_right_brick_tile_whose_join_falls_on_a_joint_passes_as_structured():
    tile = np.full((150, 225), 0.6, np.float32) + np.random.default_rng(0).normal(0, 0.01, (150, 225)).astype(
        np.float32
    )
    tile[:10] = 0.2
    tile[75:85] = 0.2
    tile[:75, :10] = 0.2
    tile[75:, 112:122] = 0.2
    reading = read_seam(np.tile(tile, (2, 2)), axis=0, structured=True)
    assert reading.ratio > 5
    assert reading.closes
    assert reading.score <= 1.05


def test_score_agrees_with_the_verdict():
    for axis in (0, 1):
        reading = read_seam((data.brick() / 255).astype(np.float32), axis=axis)
        assert reading.score > 1.3


def test_closed_path_ends_where_it_began_and_is_connected():
    rng = np.random.default_rng(4)
    cost = rng.random((300, 40))
    path = least_path(cost, closed=True)
    assert path[0] == path[-1]
    assert np.abs(np.diff(path)).max() <= 1


def test_path_is_the_cheapest_by_brute_force():
    rng = np.random.default_rng(5)
    cost = rng.random((6, 4))
    best = min(
        (sum(cost[r, c] for r, c in enumerate(p)), p)
        for p in np.ndindex(*(4,) * 6)
        if all(abs(a - b) <= 1 for a, b in itertools.pairwise(p))
    )
    assert tuple(least_path(cost)) == best[1]


def test_path_keeps_to_a_free_lane():
    cost = np.ones((200, 50))
    cost[:, 17] = 0
    assert (least_path(cost) == 17).all()


def test_a_periodic_sheet_comes_through_the_cut_unharmed():
    """Cut from two laps of a wrapped texture with the overlap equal to the surplus, nothing changes."""
    cell = spectral(2, 9, 128)
    sheet = np.tile(cell, (2, 2))[:160, :160]
    cuts = find_cuts({MapKind.HEIGHT: sheet}, {MapKind.HEIGHT: 1.0}, 32 / 160, 32 / 160)
    done = apply_cuts(sheet, cuts, feather_px=3)
    assert done.shape == (128, 128)
    assert np.allclose(done, cell, atol=1e-5)


def test_path_on_the_cell_lies_in_the_overlap():
    cuts = Cuts(np.full(100, 0.5, np.float32), np.full(80, 0.25, np.float32), 0.2, 0.1)
    x, y = paths_on_cell(cuts, 90, 64)
    assert np.allclose(x, 0.5 * 0.2 / 0.8)
    assert np.allclose(y, 0.25 * 0.1 / 0.9)


def test_levelling_closes_a_ramp():
    ramp = np.linspace(0.2, 0.6, 200, dtype=np.float32)[None, :] * np.ones((150, 1), np.float32)
    closed = _close(ramp, np.full(150, 0.5, np.float32), 0.1, 1.0, tone=1.0)
    assert np.ptp(closed) < 0.1 * np.ptp(ramp)
    assert closed.mean() == pytest.approx(ramp.mean(), rel=0.02)


def test_overlap_beyond_half_the_sheet_is_refused():
    with pytest.raises(OutOfRangeError) as caught:
        mend("mend.best_cut", packaged("grass"), overlap=300.0)
    assert caught.value.parameter == "Overlap"


def test_echo_of_exact_tiles_is_one_at_one_lag():
    field = np.tile(spectral(1, 2, 64), (4, 4))
    assert echo(field)[0, 64] == pytest.approx(1, abs=1e-9)
    assert echo(field)[64, 64] == pytest.approx(1, abs=1e-9)


@pytest.mark.parametrize(("count", "published"), [(2, 0.528), (4, 0.257), (8, 0.129)])
def test_echo_of_variants_falls_to_their_share(count, published):
    # D2: random choice among k variants gives about 1/k at one lag, tolerance 0.04.
    rng = np.random.default_rng(count)
    variants = [spectral(0, 100 + k, 32) for k in range(count)]
    field = np.block([[variants[rng.integers(count)] for _ in range(24)] for _ in range(24)])
    correlation = echo(field)
    assert (correlation[0, 32] + correlation[32, 0]) / 2 == pytest.approx(published, abs=0.04)


def test_no_repetition_has_no_echo():
    assert largest_echo(spectral(0, 5, 512), radius_px=64) < 0.03


def test_repetition_score_rises_with_one_loud_feature():
    calm = np.full((128, 128, 3), 0.2, np.float32) * (1 + 0.1 * spectral(0, 1, 128)[..., None])
    loud = calm.copy()
    loud[30:60, 70:100] = 0.6
    quiet, shouting = read_repetition(np.abs(calm)), read_repetition(np.abs(loud))
    assert quiet.score < 0.1 < 0.3 < shouting.score < 1
    assert shouting.feature == pytest.approx((85 / 128, 45 / 128), abs=0.08)
    assert shouting.paler
    assert shouting.again in {(1.0, 0.0), (0.0, 1.0)}


def _sheet(seed):
    """A calm ground with a loud thing somewhere, pale, dark or of another hue."""
    rng = np.random.default_rng(seed)
    sheet = np.abs(np.full((96, 96, 3), 0.2, np.float32) * (1 + 0.12 * spectral(0, seed, 96)[..., None]))
    row, column, side = rng.integers(0, 70), rng.integers(0, 70), rng.integers(14, 26)
    tint = [(0.6, 0.6, 0.6), (0.03, 0.03, 0.03), (0.42, 0.13, 0.08)][seed % 3]
    sheet[row : row + side, column : column + side] = tint
    return sheet


@pytest.mark.parametrize("seed", range(12))
def test_a_field_is_judged_in_both_directions(seed):
    """What is broken in one direction only comes again as loudly in the other; broken in both, it is quiet; rows
    laid staggered are found too.
    """
    plain = read_repetition(_sheet(seed))
    others = [_sheet(100 * seed + k) for k in range(16)]
    assert plain.score > 0.3
    across = read_repetition(np.hstack(others[:4]), cells=(4, 1))
    assert across.score > 0.3
    assert across.again == (0.0, 1.0)
    upwards = read_repetition(np.vstack(others[:4]), cells=(1, 4))
    assert upwards.score > 0.3
    assert upwards.again == (1.0, 0.0)
    field = read_repetition(np.vstack([np.hstack(others[4 * k : 4 * k + 4]) for k in range(4)]), cells=(4, 4))
    assert field.score < 0.3
    staggered = np.vstack([np.roll(np.hstack([_sheet(seed)] * 4), 48 * k, 1) for k in range(4)])
    assert read_repetition(staggered, cells=(4, 4)).score > 0.3


def test_resampling_keeps_the_wrap_and_the_mean():
    cell = spectral(2, 7, 96)
    for shape in ((48, 48), (192, 192), (130, 75)):
        made = resample_wrapped(cell, shape)
        assert made.shape == shape
        assert made.mean() == pytest.approx(cell.mean(), abs=0.02 * float(cell.std()))
        moved = resample_wrapped(np.roll(cell, 48, 1), shape)
        if shape[1] % 2 == 0:
            assert np.allclose(np.roll(made, shape[1] // 2, 1), moved, atol=1e-3 * np.ptp(cell))


def test_tiling_in_whole_repeats():
    cell = spectral(2, 7, 64)
    made = tiled(cell, 3, 2, (128, 192))
    assert (made[:64, :64] == made[64:, 64:128]).all()
    uneven = tiled(cell, 3, 2, (100, 100))
    assert uneven.shape == (100, 100)
    assert read_seam(uneven, axis=1).ratio < 1.5
