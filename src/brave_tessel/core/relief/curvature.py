"""How far a wrapped relief bends: ridges and edges against hollows."""

from __future__ import annotations

import numpy as np

from ..sheet import Grid, Raster
from .wrapped_blur import wrapped_gaussian


def curvature(height: Raster, grid: Grid, *, radius_mm: float) -> Raster:
    """Mean curvature of a height in mm at a radius, (H, W) in [0, 1]: 0.5 flat, above it convex, below concave.

    The height less its mean within the radius (a Gaussian of half the radius) is −r²/8 times the Laplacian
    there; it is scaled so that a ball of that radius reads 1 and a hole of that radius 0.
    """
    bend = height - wrapped_gaussian(height, 0.5 * radius_mm, grid)
    return np.asarray(np.clip(0.5 + bend * np.float32(2 / max(radius_mm, 1e-6)), 0, 1), np.float32)
