"""Where-rules: each says in [0, 1] where a layer lies; they combine top to bottom."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

import numpy as np

from ..kernels.strokes import paint_path
from ..operation import Field, Fraction, Ground, Length, Seed, Whole, operation
from ..recipe.noise import clouds
from ..sheet import Grid, Raster

MODES = ("keep", "add", "cut")


@operation("where.noise", label="Noise")
def by_noise(
    grid: Grid, *,
    size: Annotated[float, Length(5, 1000, log=True, least=0.5, help="Size of the patches; snapped so that whole patches fill the repeat.")] = 180.0,
    cover: Annotated[float, Fraction(help="Share of the sheet that is covered.")] = 0.5,
    soften: Annotated[float, Fraction(help="0 a crisp edge, 1 a long fade.")] = 0.15,
    octaves: Annotated[int, Whole(1, 10, help="How ragged the edge is.")] = 7,
    seed: Annotated[int, Seed()] = 1,
) -> Field:  # fmt: skip
    """Patches of fractal noise over a threshold chosen for the cover."""
    noise = clouds(grid, size=size, octaves=octaves, gain=0.6, seed=seed)
    # The noise spans five standard deviations about one half; the threshold follows its normal law.
    from scipy.special import ndtri

    at = 0.5 - 0.2 * float(ndtri(min(max(cover, 1e-4), 1 - 1e-4)))
    width = max(0.5 * soften, 0.02)
    t = np.clip((noise - np.float32(at - width / 2)) * np.float32(1 / width), 0, 1)
    return np.asarray(t * t * (3 - 2 * t), np.float32)


@operation("where.height", label="By height")
def by_height(
    grid: Grid, ground: Ground, *,
    above: Annotated[float, Length(-20, 20, least=-1000, most=1000, help="Covered from this height of the ground upward.")] = -20.0,
    below: Annotated[float, Length(-20, 20, least=-1000, most=1000, help="Covered up to this height of the ground.")] = 0.0,
    soften: Annotated[float, Length(0, 5, least=0, most=100, help="Height over which the cover fades at either limit.")] = 0.3,
) -> Field:  # fmt: skip
    """Between two heights of what lies beneath, mm."""
    width = np.float32(max(soften, 1e-3))
    rising = np.clip((ground.height - np.float32(above)) / width + np.float32(0.5), 0, 1)
    falling = np.clip((np.float32(below) - ground.height) / width + np.float32(0.5), 0, 1)
    return np.asarray(np.minimum(rising, falling), np.float32)


@operation("where.painted", label="Painted")
def painted(grid: Grid, ground: Ground) -> Field:
    """Brush strokes, stored as paths in mm and replayed at any size; they wrap over every edge."""
    return lay_strokes(np.zeros(grid.shape, np.float32), ground.strokes, grid)


@operation("where.recipe", label="Recipe")
def by_recipe(grid: Grid, ground: Ground) -> Field:
    """Steps of its own: what they yield as opacity is the cover; *What lies beneath* is a step there."""
    return np.ones(grid.shape, np.float32)


def lay_strokes(coverage: Raster, strokes: Sequence[object], grid: Grid) -> Raster:
    """Coverage with strokes laid over it in order; the given raster is not changed."""
    out = coverage.copy()
    for stroke in strokes:
        shape = np.zeros(grid.shape, np.float32)
        paint_path(
            shape, list(stroke.points), size_mm=stroke.size_mm, hardness=stroke.hardness,  # type: ignore[attr-defined]
            width_mm=grid.width_mm, height_mm=grid.height_mm,
        )  # fmt: skip
        shape *= np.float32(stroke.strength)  # type: ignore[attr-defined]
        out = out * (1 - shape) if stroke.erase else out + (1 - out) * shape  # type: ignore[attr-defined]
    return np.asarray(out, np.float32)


def combine(coverage: Raster | None, rule: Raster, mode: str) -> Raster:
    """One more rule: ``keep`` only there, ``add`` there too, ``cut`` it away there.

    ``coverage`` None means nothing has been said: everywhere for keep and cut, nowhere for add.
    """
    if coverage is None:
        return rule if mode != "cut" else np.asarray(1 - rule, np.float32)
    if mode == "keep":
        return coverage * rule
    if mode == "add":
        return np.asarray(coverage + (1 - coverage) * rule, np.float32)
    return np.asarray(coverage * (1 - rule), np.float32)
