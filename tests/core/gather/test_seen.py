"""How far a proportion can be trusted: made cameras, both kinds of error counted."""

from __future__ import annotations

import io

import numpy as np
import pytest
from PIL import Image

from brave_tessel.core.errors import DegenerateViewError
from brave_tessel.core.gather.seen import Doubt, film_mm, focal_of_film, seen_proportion
from brave_tessel.demo.camera import seen_corners
from brave_tessel.formats.exif import focal_px

PICTURE = (3000, 2000)


def view(rng):
    """A camera at random: its true ratio, its focal length, the corners it sees all within the picture."""
    while True:
        focal, ratio = rng.uniform(0.6, 2.2) * 3000, np.exp(rng.uniform(-0.7, 0.7))
        turn = {"yaw": rng.uniform(-45, 45), "pitch": rng.uniform(-40, 40), "roll": rng.uniform(-5, 5)}
        size = (1000 * ratio**0.5, 1000 / ratio**0.5)
        for distance in np.geomspace(800, 12000, 30):
            seen = np.array(seen_corners(size, picture=PICTURE, focal_px=focal, distance_mm=distance, **turn))
            if seen.min() > 20 and (seen.max(0) < np.array(PICTURE) - 20).all():
                return ratio, focal, seen


def read(seen, size, focal):
    try:
        return seen_proportion(tuple(map(tuple, seen)), picture_size=size, focal_px=focal)
    except DegenerateViewError:
        return None


@pytest.mark.parametrize("known", [True, False])
def test_the_uncertainty_told_is_the_one_there_is(known):
    """A normal distribution has 95 % of its values within two deviations (any table of it)."""
    rng, within, all_of_them, doubted_wrongly = np.random.default_rng(77), 0, 0, 0
    for _ in range(300):
        ratio, focal, corners = view(rng)
        found = read(corners + rng.normal(0, 1, corners.shape), PICTURE, focal if known else 0.0)
        if found is None:
            continue
        all_of_them += 1
        within += abs(np.log(found.ratio / ratio)) <= 2 * found.spread
        doubted_wrongly += known and found.doubt is not None
    assert all_of_them > 280
    assert 0.9 < within / all_of_them < 0.99
    assert doubted_wrongly <= 3


def test_a_cut_picture_never_gives_a_wrong_proportion_without_a_word():
    rng, wrong, silent = np.random.default_rng(78), 0, 0
    for _ in range(400):
        ratio, _, corners = view(rng)
        low, high = corners.min(0) - 30, corners.max(0) + 30
        x0, y0 = rng.uniform(0, max(0, low[0])), rng.uniform(0, max(0, low[1]))
        x1, y1 = rng.uniform(min(3000, high[0]), 3000), rng.uniform(min(2000, high[1]), 2000)
        found = read(corners - [x0, y0], (x1 - x0, y1 - y0), 0.0)
        if found is not None and abs(np.log(found.ratio / ratio)) > 0.06:
            wrong += 1
            silent += found.doubt is None
    assert wrong > 10
    assert silent == 0


def test_a_focal_length_that_the_view_contradicts_is_told():
    corners = seen_corners((900, 600), picture=PICTURE, focal_px=3000, distance_mm=1700, yaw=32, pitch=-24, roll=0)
    found = seen_proportion(corners, picture_size=PICTURE, focal_px=3000)
    assert found.doubt is None
    assert found.remark is None
    assert found.ratio == pytest.approx(1.5, rel=1e-4)
    wrong = seen_proportion(corners, picture_size=PICTURE, focal_px=5200)
    assert wrong.doubt is Doubt.DISAGREES
    assert "contradicts" in wrong.remark


def test_focal_lengths_as_on_film():
    """Exif 2.3, tag 41989: on 36 x 24 mm the diagonal is 43.27 mm (check-values)."""
    assert focal_of_film(43.2666, (3000, 4000)) == pytest.approx(5000, rel=1e-4)
    assert film_mm(focal_of_film(28, PICTURE), PICTURE) == pytest.approx(28)


@pytest.mark.parametrize(("taken", "expected"), [((600, 400), 466.66), ((300, 200), 233.33)])
def test_a_picture_cut_from_a_larger_one_keeps_its_pixels_focal_length(taken, expected):
    """300 x 180 cut from 600 x 400 at its own pixels; of the same shape it was made smaller instead."""
    image, exif = Image.new("RGB", (300, 180) if taken[0] == 600 else (300, 200)), Image.Exif()
    exif.get_ifd(0x8769).update({41989: 28, 40962: taken[0], 40963: taken[1]})
    out = io.BytesIO()
    image.save(out, "JPEG", exif=exif)
    assert focal_px(out.getvalue()) == pytest.approx(expected, rel=1e-3)


@pytest.mark.parametrize(("wide", "tall"), [(512, 512), (900, 300), (4000, 3000)])
def test_a_frame_square_to_the_picture_is_taken_as_seen_face_on(wide, tall):
    """A scan has no perspective: a pixel at a corner changes it by a pixel."""
    corners = ((0.0, 0.0), (float(wide), 0.0), (float(wide), float(tall)), (0.0, float(tall)))
    found = seen_proportion(corners, picture_size=(wide, tall))
    assert found.ratio == pytest.approx(wide / tall)
    assert found.doubt is None
    assert found.uncertain < 0.006
