import numpy as np
import pytest
from skimage.color import rgb2lab

from brave_tessel.core.colour import (
    codes_from_linear,
    decode_srgb,
    display_codes,
    encode_srgb,
    hex_to_linear,
    implausible_share,
    lightness,
    linear_from_codes,
    linear_to_hex,
    luminance,
)
from brave_tessel.core.kernels.curve import decoded, encoded

# IEC 61966-2-1:1999 + Amd 1; recomputed values of check-values A1.
DECODED = {
    1: 0.0003035,
    10: 0.0030353,
    11: 0.0033465,
    30: 0.0129830,
    50: 0.0318960,
    64: 0.0512695,
    128: 0.2158605,
    188: 0.5028865,
    240: 0.8713671,
    255: 1.0,
}
ENCODED = {0.02: 38.684, 0.04: 56.334, 0.18: 117.646, 0.5: 187.516, 0.9: 243.445}


@pytest.mark.parametrize(("code", "linear"), DECODED.items())
def test_published_decodings(code, linear):
    assert float(decode_srgb(code / 255)) == pytest.approx(linear, abs=1e-6)
    assert linear_from_codes(np.array([[code]], np.uint8))[0, 0] == pytest.approx(linear, abs=1e-6)


@pytest.mark.parametrize(("linear", "code"), ENCODED.items())
def test_published_encodings(linear, code):
    assert float(encode_srgb(linear)) * 255 == pytest.approx(code, abs=0.01)


@pytest.mark.parametrize(("linear", "code"), [(0.18, 30234.97), (0.5, 48191.62)])
def test_sixteen_bit_encodings(linear, code):
    assert int(codes_from_linear(np.array([linear], np.float32), depth=16)[0]) == pytest.approx(code, abs=1)


def test_all_codes_return_to_themselves():
    codes = np.arange(256, dtype=np.uint8)
    assert (codes_from_linear(linear_from_codes(codes)) == codes).all()
    deep = np.arange(65536, dtype=np.uint16)
    assert (codes_from_linear(linear_from_codes(deep), depth=16) == deep).all()


def test_it_is_not_a_plain_power():
    # Trap of check-values A1: gamma 2.2 is wrong by up to 9 codes.
    codes = np.arange(256)
    plain = np.rint(((codes / 255) ** 2.2) ** 1 * 0 + 255 * encode_srgb((codes / 255) ** 2.2))
    assert np.abs(plain - codes).max() >= 6


def test_the_screen_table_is_within_a_code():
    linear = np.linspace(0, 1, 5000, dtype=np.float32)
    assert np.abs(display_codes(linear).astype(int) - codes_from_linear(linear).astype(int)).max() <= 1


def test_luminance_and_lightness_agree_with_an_independent_library():
    rng = np.random.default_rng(0)
    encoded = rng.random((20, 20, 3))
    ours = lightness(luminance(decode_srgb(encoded).astype(np.float32)))
    assert np.allclose(ours, rgb2lab(encoded)[..., 0], atol=0.02)


def test_published_lightness_of_greys():
    # CIE 15: 8-bit grey 128 / 118 / 188.
    for code, y, l_star in ((128, 0.21586, 53.585), (118, 0.18116, 49.637), (188, 0.50289, 76.246)):
        linear = float(decode_srgb(code / 255))
        assert linear == pytest.approx(y, abs=1e-5)
        assert float(lightness(np.array(linear))) == pytest.approx(l_star, abs=1e-3)


def test_hex_round_trip():
    for text in ("#000000", "#1F4D3A", "#FFFFFF", "#7B6A11"):
        assert linear_to_hex(hex_to_linear(text)) == text


def test_implausible_share_counts_what_lies_outside():
    picture = np.full((10, 10, 3), 0.2, np.float32)
    picture[:2] = 0.001
    picture[2:3] = 0.95
    assert implausible_share(picture) == pytest.approx(0.3)


def test_the_curve_of_whole_pictures_is_the_standards():
    """IEC 61966-2-1, also where it turns from line to power, and clipped beyond; the same wherever a value stands."""
    x = np.concatenate([np.linspace(-0.1, 1.1, 4001), np.linspace(0.003, 0.0033, 200), np.linspace(0.04, 0.041, 200)])
    pixels = np.ascontiguousarray(x, np.float32)[None]
    for ours, exact in ((encoded, encode_srgb), (decoded, decode_srgb)):
        made = ours(pixels)
        assert np.abs(made - exact(np.clip(pixels.astype(np.float64), 0, 1))).max() < 6e-7
        assert (ours(pixels[:, 5:1000])[0] == made[0, 5:1000]).all()
    assert np.abs(decoded(encoded(pixels)) - np.clip(pixels, 0, 1)).max() < 1e-6
