"""Diffuse light of a whole sky in nine numbers a colour (Ramamoorthi and Hanrahan 2001)."""

from __future__ import annotations

import math

import numpy as np

from ..sheet import AnyArray
from .directions import halved, octahedral_grid, octahedral_weights

_Y = (0.282095, 0.488603, 1.092548, 0.315392, 0.546274)
_ENOUGH_PX = 64
_A = (math.pi, 2 * math.pi / 3, math.pi / 4)


def basis(directions: AnyArray) -> AnyArray:
    """The nine real harmonics (..., 9) up to the second order in unit directions (..., 3)."""
    x, y, z = (np.asarray(directions[..., k], np.float64) for k in range(3))
    c0, c1, c2, c3, c4 = _Y
    return np.stack(
        [
            np.full_like(x, c0),
            c1 * y,
            c1 * z,
            c1 * x,
            c2 * x * y,
            c2 * y * z,
            c3 * (3 * z * z - 1),
            c2 * x * z,
            c4 * (x * x - y * y),
        ],
        -1,
    )


def harmonics(dome: AnyArray, axes: AnyArray | None = None) -> AnyArray:
    """(9, 3) such that basis(n) @ it is the illuminance (lx) of a face with normal n under a dome (S, S, 3).

    ``axes`` (3, 3) are the rows of the frame in which normals are given; the scene's without.
    """
    # Nine numbers ask for no more pixels than this.
    while dome.shape[0] > _ENOUGH_PX and dome.shape[0] % 2 == 0:
        dome = halved(dome)
    directions = octahedral_grid(dome.shape[0]).astype(np.float64)
    if axes is not None:
        directions = directions @ np.asarray(axes).T
    y = basis(directions) * octahedral_weights(dome.shape[0])[..., None]
    bands = np.repeat(_A, [1, 3, 5])[:, None]
    return np.asarray(np.einsum("rck,rcj->kj", y, dome.astype(np.float64)) * bands)
