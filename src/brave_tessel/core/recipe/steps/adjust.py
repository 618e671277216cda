"""Steps that bring a field into a range, a unit or a colour."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...colour import hex_to_linear
from ...kernels.bands import pointwise
from ...kernels.ramps import look_up
from ...operation import Colour, Field, Fraction, Length, Paint, operation
from ...sheet import Grid


@operation("adjust.levels", label="Black, middle and white")
@pointwise
def levels(
    grid: Grid,
    field: Field,
    *,
    black: Annotated[float, Fraction(least=-10, most=10, help="What becomes 0.")] = 0.0,
    white: Annotated[float, Fraction(least=-10, most=10, help="What becomes 1.")] = 1.0,
    gamma: Annotated[float, Fraction(0.2, 5, least=0.01, most=100, help="Above 1 brightens the middle.")] = 1.0,
) -> Field:
    """((x − black) / (white − black))^(1/gamma), clipped to [0, 1] (common practice)."""
    width = white - black
    if abs(width) < 1e-6:
        width = 1e-6
    t = np.clip((field - np.float32(black)) * np.float32(1 / width), 0, 1)
    return np.asarray(t if gamma == 1 else t ** np.float32(1 / gamma), np.float32)


@operation("adjust.range", label="Range")
def to_range(
    grid: Grid,
    field: Field,
    *,
    low: Annotated[float, Fraction(least=-1e6, most=1e6, help="Where the field is 0.")] = 0.0,
    high: Annotated[float, Fraction(least=-1e6, most=1e6, help="Where the field is 1.")] = 1.0,
) -> Field:
    """The field stretched from [0, 1] to [low, high]."""
    return np.asarray(field * np.float32(high - low) + np.float32(low), np.float32)


@operation("adjust.relief", label="To relief")
def to_relief(
    grid: Grid,
    field: Field,
    *,
    rise: Annotated[float, Length(0, 30, least=-500, most=500, help="Height from the field's 0 to its 1.")] = 1.0,
    middle: Annotated[float, Fraction(help="Which value of the field lies at level 0.")] = 0.5,
) -> Field:
    """A field in [0, 1] as height in mm."""
    return np.asarray((field - np.float32(middle)) * np.float32(rise), np.float32)


@operation("colour.ramp", label="Ramp")
def ramp(
    grid: Grid,
    field: Field,
    *,
    low: Annotated[str, Paint(help="Colour where the field is 0.")] = "#8E887B",
    high: Annotated[str, Paint(help="Colour where the field is 1.")] = "#E3DED2",
) -> Colour:
    """Two colours mixed by a field, in linear light."""
    return look_up(field, np.array([hex_to_linear(low), hex_to_linear(high)], np.float32))
