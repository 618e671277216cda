"""Tone match: a layer's colour pulled toward what lies beneath it."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ..operation import Colour, Fraction, Length, operation
from ..recipe.steps.colours import linear_of_oklab, oklab_of
from ..relief.wrapped_blur import wrapped_gaussian
from ..repeat.resample import resample_wrapped
from ..sheet import AnyArray, Grid, Raster

_COARSE_PX = 256


@operation("tone.match", label="Tone match")
def match(
    grid: Grid,
    colour: Colour,
    beneath: Colour,
    *,
    tone_match: Annotated[
        float, Fraction(help="0 keeps the layer's own colour, 1 takes the mean and spread of what lies beneath.")
    ] = 0.0,
    radius: Annotated[
        float, Length(2, 500, log=True, least=0.5, help="Over how wide a neighbourhood mean and spread are taken.")
    ] = 60.0,
) -> Colour:
    """Mean and spread of the layer's colour within a radius brought to those beneath (Reinhard et al. 2001,
    locally, in OKLab).
    """
    if tone_match <= 0:
        return colour
    own, ground = oklab_of(colour), oklab_of(beneath)
    made = own.copy()
    for k in range(3):
        mean, spread = _moments(own[..., k], radius, grid)
        wanted, wanted_spread = _moments(ground[..., k], radius, grid)
        # A flat ground does not flatten the layer altogether, nor does a flat layer get noise blown up.
        gain = np.clip(wanted_spread / np.maximum(spread, 1e-4), 0.4, 2.5) if k == 0 else np.float32(1)
        made[..., k] += np.float32(tone_match) * (wanted + gain * (own[..., k] - mean) - own[..., k])
    return np.clip(linear_of_oklab(made), 0, 1)


def _moments(plane: AnyArray, radius: float, grid: Grid) -> tuple[Raster, Raster]:
    """Local mean and standard deviation, worked out coarsely: they are smooth."""
    small = Grid(min(grid.width_px, _COARSE_PX), min(grid.height_px, _COARSE_PX), grid.width_mm, grid.height_mm)
    first = wrapped_gaussian(resample_wrapped(np.ascontiguousarray(plane, np.float32), small.shape), radius / 2, small)
    square = wrapped_gaussian(
        resample_wrapped(np.ascontiguousarray(plane * plane, np.float32), small.shape), radius / 2, small
    )
    spread = np.sqrt(np.maximum(square - first * first, 0)).astype(np.float32)
    return resample_wrapped(first, grid.shape), resample_wrapped(spread, grid.shape)
