import contextlib

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brave_tessel.core.errors import NotUnderstoodError
from brave_tessel.core.quantity import (
    format_length,
    format_level,
    format_number,
    parse_angle,
    parse_length,
    parse_number,
    parse_share,
    parse_size,
)


@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ("3 mm", 3),
        ("3", 3),
        ("34*75", 2550),
        ("34 * 75 mm", 2550),
        ("34x75", 2550),
        ("34 × 75", 2550),
        ("1/4 in", 6.35),
        ("1/8 in", 3.175),
        ("3 1/8 in", 79.375),
        ("2.25 m", 2250),
        ("6 ft 2 in", 1879.6),
        ("2+3*4", 14),
        ("(2+3)*4 cm", 200),
        ("10 cm - 5", 95),
        ("1,5 cm", 15),
        ("-4", -4),
        ("5'", 1524),
        ("0.6m", 600),
        ("8 in / 3", 67.7333333333),
        ("2 * 3 in", 152.4),
        ("1e2", 100),
    ],
)
def test_lengths_as_people_type_them(text, mm):
    assert parse_length(text) == pytest.approx(mm, rel=1e-9)


def test_three_us_modular_courses_are_eight_inches():
    # BIA Technical Note 10: 3 courses of modular brick = 8 in = 203.2 mm.
    assert parse_length("3 * (2 1/4 in + 5/12 in)") == pytest.approx(203.2, abs=1e-9)


@pytest.mark.parametrize(
    "text",
    [
        "",
        "mm",
        "3 horses",
        "3 **4",
        "(3",
        "3)",
        "1/0",
        "3 mm * 4 mm",
        "1 / 2 mm / 0",
        "٣mm x",
        "x" * 500,
        "1e999",
        "5 %",
    ],
)
def test_what_is_no_length_is_refused(text):
    with pytest.raises(NotUnderstoodError):
        parse_length(text)


@given(st.text(max_size=30))
def test_any_text_is_a_length_or_a_typed_error(text):
    with contextlib.suppress(NotUnderstoodError):
        assert abs(parse_length(text)) < float("inf")


@given(st.floats(-1e5, 1e5), st.sampled_from(["mm", "cm", "m", "in", "ft"]))
def test_a_number_with_a_unit_means_that_many_units(value, unit):
    factor = {"mm": 1, "cm": 10, "m": 1000, "in": 25.4, "ft": 304.8}[unit]
    assert parse_length(f"{value:.6f} {unit}") == pytest.approx(round(value, 6) * factor, rel=1e-9, abs=1e-6)


def test_other_quantities():
    assert parse_angle("90°") == 90
    assert parse_angle("0.25 turn") == 90
    assert parse_share("40 %") == pytest.approx(0.4)
    assert parse_number("3 px") == 3


@pytest.mark.parametrize(
    ("text", "size"),
    [("600x400mm", (600, 400)), ("600 x 400", (600, 400)), ("2ftx400mm", (609.6, 400)), ("1.2×0.8 m", (1200, 800))],
)
def test_sizes(text, size):
    assert parse_size(text) == pytest.approx(size)


@pytest.mark.parametrize("text", ["600", "0x400mm", "axb", "-1x2"])
def test_what_is_no_size_is_refused(text):
    with pytest.raises(NotUnderstoodError):
        parse_size(text)


def test_numbers_are_shown_with_a_true_minus():
    assert format_number(-1.50) == "−1.5"
    assert format_number(-0.0001) == "0"
    assert format_length(12_000) == "12 m"
    assert format_level(1200) == "+1.200"
    assert format_level(-0.2) == "±0.000"
