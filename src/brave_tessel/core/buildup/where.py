"""Where-rules: each says in [0, 1] where a layer lies; they combine top to bottom. The rules stand in ``rules``."""

from __future__ import annotations

from functools import partial
from typing import Annotated

import numpy as np

from ..kernels.bands import by_strips
from ..operation import Ground, Length
from ..relief.wrapped_blur import wrapped_gaussian
from ..sheet import Grid, Raster

MODES = ("keep", "add", "cut", "multiply", "lighter", "darker")
"""How a rule goes together with those above it."""
# A Gaussian is done with at four standard deviations: what is left beyond is under a ten-thousandth.
SIGMAS = 4.0
Radius = Annotated[float, Length(0.5, 60, log=True, least=0.05, most=2000, help="How wide the shapes are that count.")]


def standing_out(
    ground: Ground, radius: float, grid: Grid, begins: float, over: float, *, hollow: bool = False
) -> Raster:
    """How far the ground stands over the mean of its neighbourhood, or in a hollow beneath it: 0 up to where it
    ``begins``, 1 from ``over`` more on; mm.
    """

    def share(height: Raster, mean: Raster) -> Raster:
        away = mean - height if hollow else height - mean
        return np.asarray(np.clip((away - np.float32(begins)) / np.float32(over), 0, 1), np.float32)

    return by_strips(share, ground.height, wrapped_gaussian(ground.height, radius / 2, grid))


def combine(coverage: Raster | None, rule: Raster, mode: str, strength: float = 1.0) -> Raster:
    """One more rule: ``keep`` only there, ``add`` there too, ``cut`` it away there, ``multiply`` by it, ``lighter`` the
    greater, ``darker`` the lesser of both.

    ``coverage`` None means nothing has been said: everywhere for those that take away, nowhere for those that add.
    """
    rasters = (rule,) if coverage is None else (rule, coverage)
    return by_strips(partial(_combined, mode=mode, strength=strength), *rasters)


def _combined(rule: Raster, coverage: Raster | None = None, *, mode: str, strength: float) -> Raster:
    s = np.float32(strength)
    if mode in {"add", "lighter"}:
        weighed = rule if strength == 1 else s * rule
        if coverage is None:
            return np.asarray(weighed, np.float32)
        return np.asarray(
            coverage + (1 - coverage) * weighed if mode == "add" else np.maximum(coverage, weighed), np.float32
        )
    rest = 1 - rule if mode == "cut" else rule
    left = rest if strength == 1 else 1 - s + s * rest
    if coverage is None:
        return np.asarray(left, np.float32)
    return np.asarray(np.minimum(coverage, left) if mode == "darker" else coverage * left, np.float32)
