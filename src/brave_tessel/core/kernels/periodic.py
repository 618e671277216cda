"""The spectrum of the smooth part of a picture, from its edges alone; and its taking away."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from ..sheet import AnyArray, Raster
from .bands import over_rows
from .compiled import compiled

_F = npt.NDArray[np.float64]


@compiled
def _spectrum(
    first: int,
    last: int,
    out: AnyArray,
    row: AnyArray,
    column: AnyArray,
    by_row: AnyArray,
    by_column: AnyArray,
    cos_y: Raster,
    cos_x: Raster,
) -> None:
    for r in range(first, last):
        for c in range(out.shape[1]):
            bend = cos_y[r] + cos_x[c]
            scale = np.float32(1) / bend if bend != 0 else np.float32(0)
            out[r, c] = (by_row[r] * row[c] + column[r] * by_column[c]) * scale


def smooth_spectrum(down: _F, across: _F, row: AnyArray, column: AnyArray) -> AnyArray:
    """Half spectrum (rows, columns // 2 + 1) complex64 of what solves Poisson's equation for edge jumps.

    ``row`` and ``column`` are the transforms of ``down`` (columns,) and ``across`` (rows,). Jumps fill only the
    first and last row and column, so their transform is two products of vectors.
    """
    turn_y = 2 * np.pi * np.arange(len(across)) / len(across)
    turn_x = 2 * np.pi * np.arange(len(down) // 2 + 1) / len(down)
    out = np.empty((len(turn_y), len(turn_x)), np.complex64)
    over_rows(
        _spectrum,
        len(turn_y),
        out,
        row.astype(np.complex64),
        column.astype(np.complex64),
        (1 - np.exp(1j * turn_y)).astype(np.complex64),
        (1 - np.exp(1j * turn_x)).astype(np.complex64),
        (2 * np.cos(turn_y) - 2).astype(np.float32),
        (2 * np.cos(turn_x) - 2).astype(np.float32),
    )
    return out


@compiled
def _taken(first: int, last: int, pixels: AnyArray, smooth: AnyArray, out: AnyArray, low: float, high: float) -> None:
    for r in range(first, last):
        for c in range(out.shape[1]):
            value = pixels[r, c] - smooth[r, c]
            out[r, c] = min(max(value, low), high)


def take_away(pixels: AnyArray, smooth: Raster, out: AnyArray, low: float, high: float) -> None:
    """``out`` becomes ``pixels`` less ``smooth``, within limits; (H, W) views of any strides."""
    over_rows(_taken, pixels.shape[0], pixels, smooth, out, np.float32(low), np.float32(high))
