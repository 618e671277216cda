"""Seeded hashing of lattice cells: the only source of randomness in the core.

A cell is hashed by its wrapped integer coordinates and a seed, so that a picture is the same on every machine, in every
order and at every resolution, and equal one repeat later. The mixer is the 32-bit finaliser with low bias by C. Wellons
("hash prospector", public domain).
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt
from numba import njit

from .sheet import AnyArray

_M1 = np.uint32(0x7FEB352D)
_M2 = np.uint32(0x846CA68B)
_GOLDEN = np.uint32(0x9E3779B9)
_S15, _S16 = np.uint32(15), np.uint32(16)
_TO_UNIT = np.float32(1.0 / 4294967296.0)


# Every step is cast: the compiler widens uint32 x uint32 to uint64, which would change the hash.
@njit(inline="always")
def mix(value: np.uint32) -> np.uint32:
    """Scramble 32 bits."""
    value = np.uint32(value ^ np.uint32(value >> _S16))
    value = np.uint32(value * _M1)
    value = np.uint32(value ^ np.uint32(value >> _S15))
    value = np.uint32(value * _M2)
    return np.uint32(value ^ np.uint32(value >> _S16))


@njit(inline="always")
def hash_cell(column: int, row: int, seed: np.uint32) -> np.uint32:
    """Hash of one lattice cell."""
    value = mix(np.uint32(np.uint32(column) + np.uint32(seed * _GOLDEN)))
    return mix(np.uint32(value ^ mix(np.uint32(np.uint32(row) + _GOLDEN))))


@njit(inline="always")
def unit_of(bits: np.uint32) -> np.float32:
    """A hash as a number in [0, 1)."""
    return np.float32(np.float32(bits) * _TO_UNIT)


def hash_many(columns: npt.ArrayLike, rows: npt.ArrayLike, seed: int) -> npt.NDArray[np.uint32]:
    """The same hash for arrays, in numpy; the compiled one is checked against it."""
    with np.errstate(over="ignore"):
        value = _mix_many(np.asarray(columns).astype(np.uint32) + np.uint32(np.uint32(seed) * _GOLDEN))
        return _mix_many(value ^ _mix_many(np.asarray(rows).astype(np.uint32) + _GOLDEN))


def _mix_many(value: AnyArray) -> AnyArray:
    with np.errstate(over="ignore"):
        value = value ^ (value >> _S16)
        value = value * _M1
        value = value ^ (value >> _S15)
        value = value * _M2
        return np.asarray(value ^ (value >> _S16), np.uint32)


def units_many(columns: npt.ArrayLike, rows: npt.ArrayLike, seed: int) -> npt.NDArray[np.float32]:
    """Random numbers in [0, 1) for lattice cells."""
    return (hash_many(columns, rows, seed).astype(np.float32) * _TO_UNIT).astype(np.float32)


def whole_periods(length_mm: float, spacing_mm: float) -> int:
    """How many whole periods of about ``spacing_mm`` fill a repeat of ``length_mm``."""
    return max(1, round(length_mm / spacing_mm))
