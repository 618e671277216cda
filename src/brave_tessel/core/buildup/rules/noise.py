"""Patches of noise."""

from __future__ import annotations

from typing import Annotated

import numpy as np
from scipy.special import ndtri

from ...kernels.bands import by_strips
from ...operation import Field, Fraction, Length, Seed, Whole, operation
from ...recipe.steps.noise import clouds
from ...sheet import Grid, Raster


@operation("where.noise", label="Noise", version=2, rehashed=True)
def by_noise(
    grid: Grid,
    *,
    size: Annotated[
        float,
        Length(
            5, 1000, log=True, least=0.5, help="Size of the patches; snapped so that whole patches fill the repeat."
        ),
    ] = 180.0,
    cover: Annotated[float, Fraction(help="Share of the sheet that is covered.")] = 0.5,
    soften: Annotated[float, Fraction(help="0 a crisp edge, 1 a long fade.")] = 0.15,
    octaves: Annotated[int, Whole(1, 10, help="How ragged the edge is.")] = 7,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Patches of fractal noise over a threshold chosen for the cover."""
    noise = clouds(grid, size=size, octaves=octaves, gain=0.6, seed=seed)
    # The noise spans five standard deviations about one half; the threshold follows its normal law.
    at = 0.5 - 0.2 * float(ndtri(min(max(cover, 1e-4), 1 - 1e-4)))
    width = max(0.5 * soften, 0.02)

    def faded(noise: Raster) -> Raster:
        t = np.clip((noise - np.float32(at - width / 2)) * np.float32(1 / width), 0, 1)
        return np.asarray(t * t * (3 - 2 * t), np.float32)

    return by_strips(faded, noise)
