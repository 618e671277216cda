"""A chart of 24 patches: found, marked, read, and the camera's colours undone."""

from __future__ import annotations

import cv2
import numpy as np
import pytest

from brave_tessel.core.colour import encode_srgb
from brave_tessel.core.errors import MissingError, OutOfRangeError
from brave_tessel.core.gather.chart import REFERENCE, calibrated, find_chart, read_chart
from tests.made_photos import CROSSTALK, chart_photo


def test_the_patches_are_the_published_ones():
    """OpenCV's own table of the chart (module ccm), as linear sRGB of those patches it gives back."""
    seen = np.random.default_rng(0).uniform(0.1, 0.9, (24, 1, 3))
    model = cv2.ccm.ColorCorrectionModel(seen, cv2.ccm.COLORCHECKER_MACBETH)
    model.setColorSpace(cv2.ccm.COLOR_SPACE_SRGB)
    model.compute()
    theirs = model.getRefLinearRGB().reshape(-1, 3)
    assert len(theirs) > 15
    for patch in theirs:
        assert np.abs(REFERENCE - patch).max(1).min() < 0.004


def test_the_grey_row_has_the_usual_codes():
    """8-bit sRGB 243, 200, 160, 122, 85, 52 within 3 (common practice)."""
    codes = encode_srgb(REFERENCE[18:]).mean(1) * 255
    assert np.abs(codes - [243, 200, 160, 122, 85, 52]).max() < 3.2


@pytest.mark.parametrize("turn", range(4))
@pytest.mark.parametrize("mirrored", [False, True])
def test_a_chart_is_found_and_the_sensor_undone_whichever_way_it_lies(turn, mirrored):
    photo, _ = chart_photo()
    photo = np.ascontiguousarray(np.rot90(photo, turn))
    photo = np.ascontiguousarray(photo[:, ::-1]) if mirrored else photo
    reading = read_chart(photo, find_chart(photo))
    assert reading.mean < 0.5
    assert reading.before > 3
    assert reading.worst < 4
    # The one patch outside of sRGB was clipped when the photo was made.
    assert reading.patch == 18
    undone = np.array(reading.matrix).reshape(3, 3) @ CROSSTALK * 0.6
    assert np.allclose(undone, np.eye(3), atol=0.03)


def test_a_marked_chart_is_read_where_none_is_found():
    photo, corners = chart_photo()
    rough = tuple(
        (x + dx, y + dy) for (x, y), (dx, dy) in zip(corners, ((4, 3), (-5, 2), (3, -4), (2, 5)), strict=True)
    )
    reading = read_chart(photo, rough)
    assert reading.mean < 0.6
    grey = np.full((4, 4, 3), 0.18, np.float32) @ CROSSTALK.T.astype(np.float32) * np.float32(0.6)
    assert np.allclose(calibrated(grey, reading.matrix), 0.18, atol=0.006)
    with pytest.raises(MissingError):
        find_chart(np.random.default_rng(1).uniform(0, 1, (300, 400, 3)).astype(np.float32))
    with pytest.raises(OutOfRangeError):
        read_chart(photo, ((20.0, 20.0), (180.0, 20.0), (180.0, 120.0), (20.0, 120.0)))


def test_clipped_patches_are_left_out_and_counted():
    photo, corners = chart_photo(exposure=1.25, bright=1.0)
    reading = read_chart(photo, corners)
    assert reading.clipped >= 1
    assert reading.mean < 1
    burnt, corners = chart_photo(exposure=30, bright=1.0)
    with pytest.raises(OutOfRangeError):
        read_chart(burnt, corners)
