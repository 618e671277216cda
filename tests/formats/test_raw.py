"""Camera raw: a made DNG comes back in linear light."""

from __future__ import annotations

import numpy as np
import pytest

from brave_tessel.core.errors import UnreadableFileError
from brave_tessel.engine.gather.intake import Intake
from brave_tessel.engine.session import Session
from brave_tessel.formats.images import decode_codes, decode_picture, read_header
from brave_tessel.formats.raw_images import is_raw
from tests.made_photos import dng

BANDS = [(0.6, 0.1, 0.05), (0.2, 0.2, 0.2), (0.05, 0.2, 0.7)]


@pytest.fixture(scope="module")
def scene():
    linear = np.zeros((96, 144, 3))
    for index, colour in enumerate(BANDS):
        linear[:, 48 * index : 48 * index + 48] = colour
    return linear


def test_a_raw_file_is_developed_in_linear_light(scene):
    """The sensor's overlap is taken out by the file's ColorMatrix1, the cast by AsShotNeutral (DNG 1.4, chapter 6)."""
    data = dng(scene)
    assert is_raw(data)
    header = read_header(data, "brick.dng")
    assert (header.width_px, header.height_px, header.depth) == (144, 96, 16)
    pixels = decode_picture(data, "brick.dng")
    for index, colour in enumerate(BANDS):
        assert np.allclose(pixels[48, 24 + 48 * index], colour, atol=2e-3)
    assert decode_codes(data, "brick.dng").shape == (96, 144, 4)


def test_a_raw_file_held_upright_stands_upright(scene):
    data = dng(scene, orientation=6)
    header = read_header(data, "wall.dng")
    assert (header.width_px, header.height_px) == (96, 144)
    pixels = decode_picture(data, "wall.dng")
    assert pixels.shape == (144, 96, 3)
    assert np.allclose(pixels[24, 48], BANDS[0], atol=2e-3)


def test_a_raw_file_is_a_source_like_any_other(scene, tmp_path):
    from brave_tessel.core.job.document import Job
    from brave_tessel.formats.job_file import OpenedJob

    path = tmp_path / "Quarry_wall.dng"
    path.write_bytes(dng(scene))
    session = Session(OpenedJob(Job()))
    intake: Intake = session.intake()
    source = intake.read_source(path)
    assert (source.name, source.depth, source.width_px) == ("Quarry wall", 16, 144)


def test_a_broken_raw_file_is_one_sentence(scene):
    data = dng(scene)
    with pytest.raises(UnreadableFileError):
        decode_picture(data[:600], "cut.dng")
    assert not is_raw(b"II*\x00" + b"\xff" * 40)
    assert not is_raw(b"")
