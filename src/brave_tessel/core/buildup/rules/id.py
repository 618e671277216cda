"""Covered where a source has ID colours."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...colour import encode_srgb, hex_to_linear
from ...operation import Choice, Colour, Field, Fraction, Gathered, Stops, called, operation
from ...sheet import Grid


@operation("where.id", label="By ID colour")
def by_id(
    grid: Grid,
    colour: Colour,
    *,
    source: Annotated[str, Gathered(help="A source with an ID map, or any picture in flat colours.")] = "",
    takes: Annotated[
        str, called("Map", Choice("kind ID", "piece ID", "colour", help="Which of its maps is read."))
    ] = "kind ID",
    colours: Annotated[str, Stops(help="Colours that are covered; pick them on the board.")] = "#000000,#000000",
    reach: Annotated[float, Fraction(0, 0.5, most=2, help="How far from such a colour still counts.")] = 0.03,
) -> Field:
    """Where a source's map has one of some colours."""
    codes = np.asarray(encode_srgb(np.clip(colour, 0, 1)), np.float32)
    made = np.zeros(grid.shape, bool)
    for stop in colours.split(","):
        paint = np.asarray(encode_srgb(np.array(hex_to_linear(stop.partition("@")[0]))), np.float32)
        made |= np.abs(codes - paint).max(2) <= max(reach, 0.004)
    return made.astype(np.float32)
