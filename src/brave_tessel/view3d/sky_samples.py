"""Directions of the sky that a picture at rest asks about, where it is worth asking."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from ..core.light.directions import octahedral_grid, octahedral_weights
from ..core.light.dome import LUMA, Dome
from .opening import Opening

Vector = npt.NDArray[np.float64]
SIDE = 32
"""Cells of the octahedral map of directions, each way."""
_EVEN, _BRIGHT = 0.25, 0.25
"""Shares of directions that lie evenly all round, and where the sky is bright; all others go where what is seen sees
the sky.
"""
_PLACES = 64
"""Of what is seen, places from which it is asked where the sky is."""
_GOLDEN, _PLASTIC = 0.6180339887498949, (0.7548776662466927, 0.5698402909980532)
_OFF_M = 0.02
_TURN = math.pi * (3 - math.sqrt(5))


def even_direction(number: int) -> Vector:
    """One of a spiral of equal areas, in an order that is even from the start."""
    z = 1 - 2 * ((number * _PLASTIC[0] + 0.31) % 1.0)
    a, flat = number * _TURN, math.sqrt(1 - z * z)
    return np.array([flat * math.cos(a), flat * math.sin(a), z])


def seen_sky(opening: Opening, places: Vector, normals: Vector) -> npt.NDArray[np.float64]:
    """(SIDE, SIDE): how much light from each direction falls on places (N, 3), m, by their normals, as a mean."""
    ways = octahedral_grid(SIDE).reshape(-1, 3).astype(np.float64)
    step = max(1, len(places) // _PLACES)
    some, facing = places[::step][:_PLACES], normals[::step][:_PLACES]
    return opening.light_on(some + _OFF_M * facing, facing, ways).reshape(SIDE, SIDE)


class SkySamples:
    """Directions by a density, each with what it stands for: evenly all round, where the sky is bright, and, where
    ``seen`` (see :func:`seen_sky`) tells of it, where it is seen to be: a room sees it through its windows alone.
    """

    def __init__(self, dome: Dome, seen: npt.NDArray[np.float64] | None = None) -> None:
        light = (dome.sky @ LUMA.astype(np.float32)) * octahedral_weights(dome.sky.shape[0])
        small = light.reshape(SIDE, light.shape[0] // SIDE, SIDE, -1).sum((1, 3)).astype(np.float64)
        self.share = small / max(float(small.sum()), 1e-12)
        even = octahedral_weights(SIDE) / (4 * math.pi)
        useful = self.share if seen is None else self.share * _spread(seen)
        whole = float(useful.sum())
        useful = useful / whole if whole > 0 else self.share
        self.density = _EVEN * even + _BRIGHT * self.share + (1 - _EVEN - _BRIGHT) * useful
        self._rising = np.cumsum(self.density.ravel()) / self.density.sum()

    def draw(self, index: int) -> tuple[Vector, float]:
        """Unit direction, and the weight of its radiance over its density."""
        cell = min(int(np.searchsorted(self._rising, (index + 0.5) * _GOLDEN % 1.0)), SIDE * SIDE - 1)
        row, column = divmod(cell, SIDE)
        off = [(index * step + 0.5) % 1.0 for step in _PLASTIC]
        u, v = (2 * (place + part) / SIDE - 1 for place, part in zip((column, row), off, strict=True))
        return _unfolded(u, v), float(self.share[row, column] / self.density[row, column])


class SkyAim:
    """The directions of one picture at rest after another."""

    def __init__(self) -> None:
        self._samples: SkySamples | None = None
        self._next = 0

    def take(self, dome: Dome, seen: npt.NDArray[np.float64] | None = None) -> None:
        """Another picture; the sequence goes on. ``seen`` as :class:`SkySamples` takes it."""
        self._samples = SkySamples(dome, seen)

    def draw(self) -> tuple[Vector, float]:
        """The next direction and its weight."""
        assert self._samples is not None
        self._next += 1
        return self._samples.draw(self._next - 1)


def _unfolded(u: float, v: float) -> Vector:
    """The direction at a place of the octahedral map, both −1 to 1."""
    z = 1 - abs(u) - abs(v)
    below = max(-z, 0.0)
    way = np.array([u - math.copysign(below, u), v - math.copysign(below, v), z])
    return np.asarray(way / np.linalg.norm(way))


def _spread(seen: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
    """Evened over each cell and those about it: few places miss what lies at the edge of a window."""
    ways = octahedral_grid(SIDE).reshape(-1, 3)
    near = np.maximum(ways @ ways.T - math.cos(_ABOUT), 0.0)
    return np.asarray((near @ seen.ravel() / near.sum(1)).reshape(SIDE, SIDE))


_ABOUT = 0.22
"""Radians about a direction over which it is evened."""
