"""Lighting of a flat sheet seen from straight above: GGX and Lambert under a sun and a sky."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from ..colour import encode_srgb
from ..sheet import AnyArray, Raster
from .bands import over_rows
from .compiled import compiled, still

_CODES = np.rint(encode_srgb(np.linspace(0, 1, 1 << 15)) * 255).astype(np.uint8)


@compiled
def _shade_rows(
    first: int,
    last: int,
    colour: Raster,
    normal: Raster,
    rough: Raster,
    metal: Raster,
    open_sky: Raster,
    sunlit: Raster,
    light: Raster,
    strengths: Raster,
    table: npt.NDArray[np.uint8],
    out: npt.NDArray[np.uint8],
) -> None:
    one, zero = np.float32(1), np.float32(0)
    lx, ly, lz = light[0], light[1], light[2]
    sun, sky, exposure = strengths[0], strengths[1], strengths[2]
    hz = lz + one
    length = one / math.sqrt(lx * lx + ly * ly + hz * hz)
    hx, hy, hz = lx * length, ly * length, hz * length
    fresnel = (one - hz) ** 5
    columns = rough.shape[1]
    steps = np.float32(table.size - 1)
    for r in range(first, last):
        for c in range(columns):
            nx, ny, nz = normal[r, c, 0], normal[r, c, 1], max(normal[r, c, 2], np.float32(0.02))
            facing = max(zero, nx * lx + ny * ly + nz * lz)
            half = max(zero, nx * hx + ny * hy + nz * hz)
            alpha = max(np.float32(0.045), rough[r, c]) ** 2
            a2 = alpha * alpha
            d = half * half * (a2 - one) + one
            g_light = facing + math.sqrt(a2 + (one - a2) * facing * facing)
            g_eye = nz + math.sqrt(a2 + (one - a2) * nz * nz)
            lobe = sun * facing * sunlit[r, c] * a2 / (d * d * g_light * g_eye)
            diffuse = sun * facing * sunlit[r, c] + sky * open_sky[r, c] * (np.float32(0.6) + np.float32(0.4) * ny * ly)
            glow = sky * open_sky[r, c] * (one - np.float32(0.75) * rough[r, c])
            m = metal[r, c]
            for k in range(3):
                base = colour[r, c, k]
                f0 = np.float32(0.04) + m * (base - np.float32(0.04))
                f = f0 + (one - f0) * fresnel
                value = (one - m) * base * diffuse * (one - f0) + f * lobe + f0 * glow * (one + m)
                value = min(one, max(zero, value * exposure))
                out[r, c, k] = table[int(value * steps)]


def shade(
    colour: Raster,
    normal: Raster,
    roughness: Raster,
    metalness: Raster,
    open_sky: Raster,
    sunlit: Raster,
    *,
    light: tuple[float, float, float],
    sun: float = 0.9,
    sky: float = 0.4,
    exposure: float = 1.0,
) -> AnyArray:
    """SRGB picture (H, W, 3) uint8 of a sheet from straight above; ``light`` is a unit vector to the sun.

    Microfacet lobe: GGX with height-correlated Smith visibility (Heitz 2014), α = roughness²; Schlick.
    """
    out = np.empty(colour.shape, np.uint8)
    over_rows(
        _shade_rows,
        colour.shape[0],
        *(still(pixels) for pixels in (colour, normal, roughness, metalness, open_sky, sunlit)),
        np.array(light, np.float32),
        np.array([sun, sky, exposure], np.float32),
        _CODES,
        out,
    )
    return out
