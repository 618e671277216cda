"""Level: a sheet that only drifts is closed by taking out the smooth part of its edge jumps."""

from __future__ import annotations

import numpy as np
import scipy.fft

from ..maps import TRAITS, MapKind, MapSet
from ..sheet import Raster


def periodic_part(pixels: Raster) -> Raster:
    """The periodic component of a picture, (H, W) or (H, W, C).

    Moisan 2011, "Periodic plus smooth image decomposition", J. Math. Imaging Vis. 39, section 2: the
    smooth component solves Poisson's equation on the torus for the jumps across the edges; what is
    left has steps there as large as inside, and its Laplacian inside is that of the picture. The mean
    is kept.
    """
    if pixels.ndim == 3:
        return np.stack([periodic_part(pixels[..., k]) for k in range(pixels.shape[2])], 2)
    rows, columns = pixels.shape
    jump = np.zeros((rows, columns), np.float32)
    # The step across the join should be as large as steps are there, so the last inner step goes on.
    down = 2 * pixels[-1].astype(np.float64) - pixels[-2] - pixels[0]
    across = 2 * pixels[:, -1].astype(np.float64) - pixels[:, -2] - pixels[:, 0]
    jump[0] += down
    jump[-1] -= down
    jump[:, 0] += across
    jump[:, -1] -= across
    y = np.cos(2 * np.pi * np.arange(rows) / rows)[:, None]
    x = np.cos(2 * np.pi * np.arange(columns // 2 + 1) / columns)[None, :]
    bend = 2 * (x + y) - 4
    bend[0, 0] = 1
    spectrum = scipy.fft.rfft2(jump, workers=2) / bend.astype(np.float32)
    spectrum[0, 0] = 0
    smooth = scipy.fft.irfft2(spectrum, s=pixels.shape, workers=2)
    return np.asarray(pixels - smooth, np.float32)


def level_maps(maps: MapSet) -> MapSet:
    """Every map closed by its periodic component; normals stay unit vectors, shares within [0, 1]."""
    done: dict[MapKind, Raster] = {}
    for kind, pixels in maps.maps.items():
        closed = periodic_part(pixels)
        if kind is MapKind.NORMAL:
            closed = closed / np.maximum(np.linalg.norm(closed, axis=2, keepdims=True), 1e-6)
        elif TRAITS[kind].colour or kind is not MapKind.HEIGHT:
            closed = np.clip(closed, 0, 1)
        done[kind] = np.ascontiguousarray(closed, np.float32)
    return MapSet(maps.grid, done)
