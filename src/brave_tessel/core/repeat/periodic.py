"""Level: a sheet that only drifts is closed by taking out the smooth part of its edge jumps."""

from __future__ import annotations

import numpy as np
import scipy.fft

from ..kernels.periodic import smooth_spectrum, take_away
from ..kernels.unit_vectors import to_unit
from ..maps import TRAITS, MapKind, MapSet
from ..sheet import AnyArray, Raster


def periodic_part(pixels: Raster, within: tuple[float, float] = (-3e38, 3e38)) -> Raster:
    """The periodic component of a picture, (H, W) or (H, W, C).

    Moisan 2011, "Periodic plus smooth image decomposition", J. Math. Imaging Vis. 39, section 2: the
    smooth component solves Poisson's equation on the torus for the jumps across the edges; what is
    left has steps there as large as inside, and its Laplacian inside is that of the picture. The mean
    is kept. What leaves ``within`` is cut off.
    """
    out = np.empty(pixels.shape, np.float32)
    planes = (pixels, out) if pixels.ndim == 3 else (pixels[..., None], out[..., None])
    for channel in range(planes[0].shape[2]):
        plane, target = (part[..., channel] for part in planes)
        take_away(plane, _smooth_part(plane), target, *within)
    return out


def _smooth_part(plane: AnyArray) -> Raster:
    # The step across the join should be as large as steps are there, so the last inner step goes on.
    down = 2 * plane[-1].astype(np.float64) - plane[-2] - plane[0]
    across = 2 * plane[:, -1].astype(np.float64) - plane[:, -2] - plane[:, 0]
    spectrum = smooth_spectrum(down, across, scipy.fft.rfft(down), scipy.fft.fft(across))
    return np.asarray(scipy.fft.irfft2(spectrum, s=plane.shape, workers=2, overwrite_x=True), np.float32)


def periodic_maps(maps: MapSet) -> MapSet:
    """Every map closed by its periodic component; normals stay unit vectors, shares within [0, 1]."""
    done: dict[MapKind, Raster] = {}
    for kind, pixels in maps.maps.items():
        bounded = kind not in {MapKind.NORMAL, MapKind.HEIGHT} or TRAITS[kind].colour
        closed = periodic_part(pixels, (0.0, 1.0) if bounded else (-3e38, 3e38))
        if kind is MapKind.NORMAL:
            to_unit(closed)
        done[kind] = np.ascontiguousarray(closed, np.float32)
    return MapSet(maps.grid, done)
