"""Laid on each face from the side of a box that it looks to."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Choice, Fraction
from ..laying import Bed, Coordinates, laying, three_sided


@laying("box", label="Box")
def box(
    bed: Bed,
    *,
    directions: Annotated[
        str, Choice("of the part", "of the scene", help="The box lies as the part does, or as the scene does.")
    ] = "of the part",
    soft: Annotated[float, Fraction(help="How softly one side gives way to the next on round faces.")] = 0.0,
) -> Coordinates:
    """Each face takes the surface from the side it looks to, at true size on faces that lie square."""
    axes = bed.own if directions == "of the part" else np.eye(3)
    return three_sided(bed, axes, 0.0 if soft <= 0 else 2.0 + 62.0 * (1.0 - soft) ** 2)
