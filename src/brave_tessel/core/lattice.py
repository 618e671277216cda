"""Seeded hashing of lattice cells: the only source of randomness in the core.

A cell is hashed by its wrapped integer coordinates and a seed, so that a picture is the same on every machine, in every
order and at every resolution, and equal one repeat later.

The hash is PCG3D of M. Jarzynski and M. Olano, "Hash Functions for GPU Rendering", Journal of Computer Graphics
Techniques 9(3), 2020: three numbers in, of which the first of its three is used. The earlier one, of two rounds of the
32-bit finaliser by C. Wellons ("hash prospector", public domain), made cell (i, j) equal to (j, i) for seed 1; it stays
for pictures that were made with it, see :func:`earlier_hash`.
"""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import wraps
from typing import Any

import numpy as np
import numpy.typing as npt
from numba import njit

from .sheet import AnyArray

_M1 = np.uint32(0x7FEB352D)
_M2 = np.uint32(0x846CA68B)
_GOLDEN = np.uint32(0x9E3779B9)
_STEP, _ADD = np.uint32(1664525), np.uint32(1013904223)
_S15, _S16 = np.uint32(15), np.uint32(16)
_TO_UNIT = np.float32(1.0 / 4294967296.0)


class _Chosen(threading.local):
    earlier = False


_CHOSEN = _Chosen()


@contextmanager
def earlier_hash() -> Iterator[None]:
    """Within it, in this thread, cells are hashed as the first version of the steps did."""
    before, _CHOSEN.earlier = _CHOSEN.earlier, True
    try:
        yield
    finally:
        _CHOSEN.earlier = before


def is_earlier() -> bool:
    """Whether the earlier hash holds here; kernels are told by their callers."""
    return _CHOSEN.earlier


def with_earlier_hash(function: Callable[..., Any]) -> Callable[..., Any]:
    """The same function, its cells hashed as before."""

    @wraps(function)
    def as_before(*inputs: Any, **values: Any) -> Any:
        with earlier_hash():
            return function(*inputs, **values)

    return as_before


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
def hash_cell(column: int, row: int, seed: np.uint32, earlier: bool) -> np.uint32:
    """Hash of one lattice cell."""
    if earlier:
        value = mix(np.uint32(np.uint32(column) + np.uint32(seed * _GOLDEN)))
        return mix(np.uint32(value ^ mix(np.uint32(np.uint32(row) + _GOLDEN))))
    x = np.uint32(np.uint32(np.uint32(column) * _STEP) + _ADD)
    y = np.uint32(np.uint32(np.uint32(row) * _STEP) + _ADD)
    z = np.uint32(np.uint32(seed * _STEP) + _ADD)
    x = np.uint32(x + np.uint32(y * z))
    y = np.uint32(y + np.uint32(z * x))
    z = np.uint32(z + np.uint32(x * y))
    x = np.uint32(x ^ np.uint32(x >> _S16))
    y = np.uint32(y ^ np.uint32(y >> _S16))
    z = np.uint32(z ^ np.uint32(z >> _S16))
    return np.uint32(x + np.uint32(y * z))


@njit(inline="always")
def unit_of(bits: np.uint32) -> np.float32:
    """A hash as a number in [0, 1)."""
    return np.float32(np.float32(bits) * _TO_UNIT)


def hash_many(columns: npt.ArrayLike, rows: npt.ArrayLike, seed: int) -> npt.NDArray[np.uint32]:
    """The same hash for arrays, in numpy; the compiled one is checked against it."""
    x: AnyArray = np.asarray(columns).astype(np.uint32)
    y: AnyArray = np.asarray(rows).astype(np.uint32)
    with np.errstate(over="ignore"):
        if is_earlier():
            value = _mix_many(x + np.uint32(np.uint32(seed) * _GOLDEN))
            return _mix_many(value ^ _mix_many(y + _GOLDEN))
        x, y = x * _STEP + _ADD, y * _STEP + _ADD
        z: AnyArray = np.full(1, seed, np.int64).astype(np.uint32) * _STEP + _ADD
        x = x + y * z
        y = y + z * x
        z = z + x * y
        x, y, z = x ^ (x >> _S16), y ^ (y >> _S16), z ^ (z >> _S16)
        return np.asarray(x + y * z, np.uint32)


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


def units_as_before(columns: npt.ArrayLike, rows: npt.ArrayLike, seed: int) -> npt.NDArray[np.float32]:
    """:func:`units_many` by the earlier hash, for what carries no version and must keep its look."""
    with earlier_hash():
        return units_many(columns, rows, seed)


def whole_periods(length_mm: float, spacing_mm: float) -> int:
    """How many whole periods of about ``spacing_mm`` fill a repeat of ``length_mm``."""
    return max(1, round(length_mm / spacing_mm))
