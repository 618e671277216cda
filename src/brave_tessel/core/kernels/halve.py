"""A picture at half its size, averaged in linear light."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from ..colour import codes_from_linear, linear_from_codes
from ..sheet import AnyArray, Raster
from .bands import over_rows
from .compiled import compiled, still

_STEPS = (1 << 16) - 1
_LINEAR = linear_from_codes(np.arange(256, dtype=np.uint8))
_CODES = codes_from_linear((np.arange(_STEPS + 1) / np.float32(_STEPS)).astype(np.float32))


@compiled
def _halve_rows(
    first: int,
    last: int,
    codes: npt.NDArray[np.uint8],
    out: npt.NDArray[np.uint8],
    linear: Raster,
    table: npt.NDArray[np.uint8],
) -> None:
    scale = np.float32(0.25 * (table.size - 1))
    for r in range(first, last):
        for c in range(out.shape[1]):
            for k in range(out.shape[2]):
                light = (
                    linear[codes[2 * r, 2 * c, k]]
                    + linear[codes[2 * r, 2 * c + 1, k]]
                    + linear[codes[2 * r + 1, 2 * c, k]]
                    + linear[codes[2 * r + 1, 2 * c + 1, k]]
                )
                out[r, c, k] = table[int(light * scale + np.float32(0.5))]


def halve(codes: AnyArray) -> AnyArray:
    """An sRGB picture (2 H, 2 W, 3) uint8 at half its size: each pixel the mean light of four."""
    rows, columns = codes.shape[0] // 2, codes.shape[1] // 2
    out = np.empty((rows, columns, codes.shape[2]), np.uint8)
    over_rows(_halve_rows, rows, still(np.ascontiguousarray(codes)), out, still(_LINEAR), still(_CODES))
    return out
