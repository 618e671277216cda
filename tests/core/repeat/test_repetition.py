"""How loudly a field comes again: grounds with a spot, a line or patches that a person finds or does not find."""

import cv2
import numpy as np
import pytest
from skimage import data

from brave_tessel.core.colour import decode_srgb
from brave_tessel.core.repeat.repetition import REPETITION_LIMIT, read_repetition

SIDE = 320


def ground(seed=0, patches=0.0, size=120):
    """Logarithm of a fine even ground that wraps, with soft patches of a strength."""
    rng = np.random.default_rng(seed)
    made = 0.08 * rng.normal(size=(SIDE, SIDE))
    for strength, across in ((0.06, 8), (patches, size)):
        coarse = np.tile(rng.normal(size=(round(SIDE / across),) * 2), (3, 3)).astype(np.float32)
        smooth = cv2.resize(coarse, (3 * SIDE,) * 2, interpolation=cv2.INTER_CUBIC)[SIDE : 2 * SIDE, SIDE : 2 * SIDE]
        made += strength * smooth / max(float(smooth.std()), 1e-6)
    return made


def spots(count, radius, strength, seed=0, places=None):
    rng, (y, x) = np.random.default_rng(seed + 50), np.mgrid[0:SIDE, 0:SIDE]
    made = ground(seed)
    for place in places if places is not None else rng.uniform(0, SIDE, (count, 2)):
        dx, dy = ((one - at + SIDE / 2) % SIDE - SIDE / 2 for one, at in zip((x, y), place, strict=True))
        made += strength * np.clip((radius - np.hypot(dx, dy)) / 3 + 0.5, 0, 1)
    return made


def line(width, strength, seed=0):
    made, rows = ground(seed), np.arange(SIDE)[:, None] - 6 * np.sin(2 * np.pi * np.arange(SIDE) / SIDE)[None, :]
    return made + strength * np.clip((width / 2 - np.abs(rows - SIDE / 3)) / 1.5 + 0.5, 0, 1)


def score(tone, **field):
    colour = np.clip(np.float32([0.3, 0.25, 0.2]) * np.exp(tone)[..., None], 0, 1).astype(np.float32)
    return read_repetition(colour, **field).score


@pytest.mark.parametrize("seed", range(3))
def test_what_the_eye_finds_again_is_not_called_quiet(seed):
    found = [
        score(spots(1, 13, 0.8, seed)),
        score(spots(2, 18, 0.38, seed)),
        score(spots(5, 8, -0.86, seed)),
        score(line(8, -0.25, seed)),
        score(line(4, 0.4, seed)),
        score(ground(seed, 0.15)),
    ]
    assert min(found) > REPETITION_LIMIT, found


@pytest.mark.parametrize("seed", range(3))
def test_what_it_hardly_finds_is_quiet(seed):
    found = [score(ground(seed)), score(spots(1, 13, 0.1, seed)), score(line(3, -0.1, seed)), score(ground(seed, 0.03))]
    assert max(found) < REPETITION_LIMIT, found


def test_a_pattern_is_not_blamed_for_its_own_beat():
    lattice = np.stack(np.meshgrid(*[np.arange(4) * SIDE / 4 + 20] * 2), -1).reshape(-1, 2)
    assert score(spots(16, 8, -0.86, places=lattice)) < REPETITION_LIMIT
    rows = np.arange(SIDE)[:, None] % (SIDE / 4)
    assert score(ground() - 0.4 * (np.abs(rows - 20) < 3)) < REPETITION_LIMIT


def test_the_place_is_that_of_the_spot():
    colour = np.exp(spots(1, 13, 0.8, places=[(80, 200)]))[..., None] * np.float32([0.3, 0.25, 0.2])
    found = read_repetition(np.clip(colour, 0, 1).astype(np.float32))
    assert found.feature == pytest.approx((80 / SIDE, 200 / SIDE), abs=0.03)
    assert found.paler


def test_a_spot_that_lies_elsewhere_in_each_cell_is_quieter():
    rng = np.random.default_rng(9)
    cells = [spots(1, 13, 0.8, seed=k, places=[rng.uniform(20, 300, 2)]) for k in range(16)]
    strewn = np.vstack([np.hstack(cells[4 * k : 4 * k + 4]) for k in range(4)])
    assert score(strewn, cells=(4, 4)) < 0.6 * score(cells[0])
    assert score(np.tile(cells[0], (4, 4)), cells=(4, 4)) == pytest.approx(score(cells[0]), abs=0.1)


def test_a_restless_ground_hides_patches():
    """The same patches on a smooth ground and on one that is coarse itself; gravel is from scikit-image."""
    patches = ground(1, 0.11)
    smooth = score(patches)
    gravel = decode_srgb(cv2.resize(data.gravel(), (SIDE, SIDE)).astype(np.float32) / 255)
    stones = np.log(gravel + 0.02)
    assert score(0.7 * (stones - stones.mean()) + patches - ground(1)) < smooth
