"""Standing water: where it stands and how deep, its damp rim; and what it does to what lies in it."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from ..sheet import Raster
from .bands import over_rows
from .compiled import compiled, still

INTERNAL = 0.4746
"""Share of diffuse light in water that is sent back by its surface, n = 1.333."""
EXTERNAL = 0.0204
"""Share of light that its surface reflects at right angles."""


class Flooded(NamedTuple):
    """What a flood leaves, each (H, W): the relief with the water's surface and the water's depth, mm; its share of
    the pixel; how wet the ground is; how much of it the water's own colour hides.
    """

    height: Raster
    share: Raster
    depth: Raster
    wet: Raster
    veil: Raster


class Soaked(NamedTuple):
    """Base colour (H, W, 3), roughness and metalness (H, W) of a wet ground as seen through what stands on it."""

    colour: Raster
    rough: Raster
    metal: Raster


class Body(NamedTuple):
    """What a body of water is like: the height its rim is blurred over, the height the ground is damp to and how far
    it drinks, the depth it can be seen through.
    """

    film_mm: float
    damp_mm: float
    porosity: float
    clear_mm: float


class _Rates(NamedTuple):
    """A body of water as its kernel reads it."""

    per_film: np.float32
    per_damp: np.float32
    porosity: np.float32
    per_clear: np.float32


@compiled
def _flood_rows(
    first: int, last: int, ground: Raster, surface: Raster, cover: Raster, made: Flooded, rates: _Rates
) -> None:
    height, share, depth, soaked, veil = made
    per_film, per_damp, porosity, per_clear = rates
    one, zero, half, two, three = np.float32(1), np.float32(0), np.float32(0.5), np.float32(2), np.float32(3)
    for r in range(first, last):
        for c in range(share.shape[1]):
            over = surface[r, c] - ground[r, c]
            covered = cover[r, c]
            part = covered * min(one, max(zero, over * per_film + half))
            deep = covered * max(over, zero)
            rim = min(one, max(zero, one - max(-over, zero) * per_damp))
            share[r, c], depth[r, c], height[r, c] = part, deep, ground[r, c] + deep
            soaked[r, c] = max(covered * porosity * rim * rim * (three - two * rim), part)
            veil[r, c] = part * (one - np.exp(-deep * per_clear)) if deep > zero else zero


def flood(ground: Raster, surface: Raster, cover: Raster, body: Body) -> Flooded:
    """Water on a relief (H, W) in mm, to a surface (H, W) in mm and where ``cover`` (H, W) lets it stand.

    See :func:`brave_tessel.core.buildup.water.stand` for what it does and its sources.
    """
    made = Flooded(*(np.empty_like(ground) for _ in range(5)))
    rates = _Rates(
        np.float32(1 / body.film_mm),
        np.float32(1 / max(body.damp_mm, 1e-3)),
        np.float32(body.porosity),
        np.float32(2.2 / body.clear_mm),
    )
    over_rows(_flood_rows, ground.shape[0], still(ground), still(surface), still(cover), made, rates)
    return made


@compiled
def _soak_rows(
    first: int, last: int, colour: Raster, rough: Raster, metal: Raster, wet: Raster, veil: Raster, paint: Raster,
    made: Soaked,
) -> None:  # fmt: skip
    out, rough_1, metal_1 = made
    one, zero = np.float32(1), np.float32(0)
    for r in range(first, last):
        for c in range(wet.shape[1]):
            if wet[r, c] <= zero:
                # Dry ground, most of it: nothing changes.
                rough_1[r, c], metal_1[r, c] = rough[r, c], metal[r, c]
                for k in range(3):
                    out[r, c, k] = colour[r, c, k]
                continue
            soaked, hidden = wet[r, c] * (one - metal[r, c]), veil[r, c]
            rough_1[r, c] = rough[r, c] * (one - DAMPED * soaked)
            metal_1[r, c] = metal[r, c] * (one - hidden)
            at, beside = min(r, paint.shape[0] - 1), min(c, paint.shape[1] - 1)
            for k in range(3):
                dry = min(one, max(zero, colour[r, c, k]))
                dark = max(zero, one - INSIDE * (one - dry) / (one - AGAIN * dry) - OUTSIDE)
                damped = colour[r, c, k] + soaked * (dark - colour[r, c, k])
                out[r, c, k] = damped + hidden * (paint[at, beside, k] - damped)


def soak(colour: Raster, rough: Raster, metal: Raster, wet: Raster, veil: Raster, paint: Raster) -> Soaked:
    """A dry ground as it is when ``wet`` (H, W), behind a ``veil`` (H, W) of the water's own colour: (H, W, 3), or
    (1, 1, 3) where that is the same everywhere.
    """
    made = Soaked(np.empty_like(colour), np.empty_like(rough), np.empty_like(metal))
    over_rows(_soak_rows, rough.shape[0], *(still(one) for one in (colour, rough, metal, wet, veil, paint)), made)
    return made


DAMPED = np.float32(0.55)
"""How much smoother ground is when it is wet."""
INSIDE, AGAIN, OUTSIDE = np.float32(1 - EXTERNAL), np.float32(INTERNAL), np.float32(EXTERNAL)
