"""Covered as a picture says."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...colour import encode_srgb, luminance
from ...kernels.bands import pointwise
from ...operation import Choice, Colour, Field, Gathered, Whole, called, operation
from ...sheet import Grid


@operation("where.picture", label="Picture")
@pointwise
def by_picture(
    grid: Grid,
    colour: Colour,
    *,
    source: Annotated[str, Gathered(help="A gathered picture that has its real size.")] = "",
    takes: Annotated[
        str, called("Channel", Choice("lightness", "red", "green", "blue", "opacity", help="What of it is the cover."))
    ] = "lightness",
    across: Annotated[int, Whole(1, 12, most=64, unit="×", help="Whole repeats of it across.")] = 1,
    up: Annotated[int, Whole(1, 12, most=64, unit="×", help="Whole repeats of it up.")] = 1,
) -> Field:
    """The lightness, or one channel, of a gathered picture."""
    light = (
        luminance(colour) if takes in {"lightness", "opacity"} else colour[..., ["red", "green", "blue"].index(takes)]
    )
    return np.asarray(np.clip(encode_srgb(np.clip(light, 0, 1)), 0, 1), np.float32)
