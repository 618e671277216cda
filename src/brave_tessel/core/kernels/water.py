"""Standing water in one pass: what lies in it, its surface, its damp rim."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from ..sheet import Raster
from .bands import over_rows
from .compiled import compiled, still
from .join import Planes

INTERNAL = 0.4746
"""Share of diffuse light in water that is sent back by its surface, n = 1.333."""
EXTERNAL = 0.0204
"""Share of light that its surface reflects at right angles."""


class Flooded(NamedTuple):
    """What a flood leaves: the planes, the water's share and its depth in mm, both (H, W)."""

    planes: Planes
    share: Raster
    depth: Raster


class Body(NamedTuple):
    """What a body of water is like: linear colour where it is deep, the height its rim is blurred over, the height
    the ground is damp to and how far it drinks, the depth it can be seen through, the roughness of its surface.
    """

    paint: tuple[float, float, float]
    film_mm: float
    damp_mm: float
    porosity: float
    clear_mm: float
    roughness: float


class _Rates(NamedTuple):
    """A body of water as its kernel reads it."""

    per_film: np.float32
    per_damp: np.float32
    porosity: np.float32
    per_clear: np.float32
    rough: np.float32
    internal: np.float32
    external: np.float32


@compiled
def _rows(
    first: int, last: int, ground: Planes, surface: Raster, cover: Raster, paint: Raster, made: Flooded, rates: _Rates
) -> None:
    out, share, depth = made
    per_film, per_damp, porosity, per_clear, rough, internal, external = rates
    colour_0, height_0, rough_0, metal_0 = ground
    colour, height, rough_1, metal = out
    one, zero, half, two, three = np.float32(1), np.float32(0), np.float32(0.5), np.float32(2), np.float32(3)
    for r in range(first, last):
        for c in range(share.shape[1]):
            over = surface[r, c] - height_0[r, c]
            covered = cover[r, c]
            part = covered * min(one, max(zero, over * per_film + half))
            deep = covered * max(over, zero)
            rim = min(one, max(zero, one - max(-over, zero) * per_damp))
            wet = max(covered * porosity * rim * rim * (three - two * rim), part)
            soaked = wet * (one - metal_0[r, c])
            share[r, c], depth[r, c] = part, deep
            height[r, c] = height_0[r, c] + deep
            if wet <= zero:
                # Dry ground, most of it: nothing changes.
                rough_1[r, c], metal[r, c] = rough_0[r, c], metal_0[r, c]
                for k in range(3):
                    colour[r, c, k] = colour_0[r, c, k]
                continue
            seen = np.exp(-deep * per_clear) if deep > zero else one
            damp_rough = rough_0[r, c] * (one - np.float32(0.55) * soaked)
            rough_1[r, c] = damp_rough + part * (rough - damp_rough)
            metal[r, c] = metal_0[r, c] * (one - part)
            for k in range(3):
                dry = min(one, max(zero, colour_0[r, c, k]))
                wetted = max(zero, one - (one - external) * (one - dry) / (one - internal * dry) - external)
                damped = colour_0[r, c, k] + soaked * (wetted - colour_0[r, c, k])
                under = paint[k] + seen * (damped - paint[k])
                colour[r, c, k] = damped + part * (under - damped)


def flood(ground: Planes, surface: Raster, cover: Raster, body: Body) -> Flooded:
    """Planes with water in them, to a surface (H, W) in mm and where ``cover`` (H, W) lets it stand.

    See :func:`brave_tessel.core.buildup.water.stand` for what it does and its sources.
    """
    out: Planes = (np.empty_like(ground[0]), *(np.empty_like(ground[1]) for _ in range(3)))  # type: ignore[assignment]
    made = Flooded(out, np.empty_like(ground[1]), np.empty_like(ground[1]))
    rates = _Rates(
        np.float32(1 / body.film_mm),
        np.float32(1 / max(body.damp_mm, 1e-3)),
        np.float32(body.porosity),
        np.float32(2.2 / body.clear_mm),
        np.float32(body.roughness),
        np.float32(INTERNAL),
        np.float32(EXTERNAL),
    )
    below = tuple(still(plane) for plane in ground)
    paint = np.array(body.paint, np.float32)
    over_rows(_rows, made.share.shape[0], below, still(surface), still(cover), paint, made, rates)
    return made
