"""Laid from three sides at once and mixed where they meet."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Choice, Fraction
from ..laying import Bed, Coordinates, laying, three_sided


@laying("all_round", label="All-round")
def all_round(
    bed: Bed,
    *,
    sharpness: Annotated[
        float, Fraction(1, 32, least=1, most=128, help="1 mixes far round the edges, 32 in a narrow band.")
    ] = 8.0,
    relief: Annotated[float, Fraction(help="How much the higher of two surfaces wins where they meet.")] = 0.5,
    directions: Annotated[
        str, Choice("of the scene", "of the part", help="Seen along the scene's directions or the part's own.")
    ] = "of the scene",
) -> Coordinates:
    """Seen from three sides and mixed by where a face looks: for rock, heaps and carved work."""
    return three_sided(bed, bed.own if directions == "of the part" else np.eye(3), sharpness, relief)
