"""Laid as the part's own unwrap says."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Length
from ..laying import Bed, Coordinates, even, laying


@laying("unwrapped", label="Unwrapped")
def unwrapped(
    bed: Bed,
    *,
    sheet: Annotated[
        float, Length(0, 10000, most=1e7, help="How long one whole sheet of the unwrap is; 0 makes it true on average.")
    ] = 0.0,
) -> Coordinates:
    """By the unwrap that came with the model or was made with the piece."""
    if bed.mesh.unwrap is None:
        return even(bed.mesh, bed.faces, np.zeros((len(bed.faces), 3, 2)), note="no unwrap")
    places = bed.mesh.unwrap[bed.faces]
    if not bed.mesh.unwrap_mm:
        places = places * (sheet if sheet > 0 else _mean_size(bed))
    return even(bed.mesh, bed.faces, places)


def _mean_size(bed: Bed) -> float:
    """How long a sheet is for areas to be true on average, mm."""
    assert bed.mesh.unwrap is not None
    uv = bed.mesh.unwrap[bed.faces]
    one, other = uv[:, 1] - uv[:, 0], uv[:, 2] - uv[:, 0]
    covered = float(np.abs(one[:, 0] * other[:, 1] - one[:, 1] * other[:, 0]).sum() / 2)
    return float(np.sqrt(bed.mesh.areas[bed.faces].sum() / covered)) if covered > 1e-12 else 1000.0
