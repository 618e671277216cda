"""What share of light a rough mirror sends on: tables by quadrature, so that nothing is lost."""

from __future__ import annotations

import math
from functools import lru_cache

import numpy as np

from ..kernels.compiled import compiled
from ..sheet import AnyArray

SIZE = 32
"""Rows and columns of the tables; roughness and cosine at pixels' middles from 0 to 1, both ends on the grid."""
LEAST_ALPHA = 0.002


@compiled
def _ggx_rows(table: AnyArray, count: int) -> None:
    size = table.shape[0]
    for i in range(size):
        rough = i / (size - 1)
        alpha = max(rough * rough, 0.002)
        a2 = alpha * alpha
        for j in range(size):
            mu = max(j / (size - 1), 1e-4)
            vx, vz = math.sqrt(1 - mu * mu), mu
            scale = bias = 0.0
            for p in range(count):
                # Half vectors by the distribution's own density, denser in its long tail; their turn evenly.
                t = (p + 0.5) / count
                u, share = 1 - t * t, 2 * t
                cos2 = (1 - u) / (1 + (a2 - 1) * u)
                hz, hs = math.sqrt(cos2), math.sqrt(max(0.0, 1 - cos2))
                for q in range(count):
                    hx = hs * math.cos(math.pi * (q + 0.5) / count)
                    vh = vx * hx + vz * hz
                    if vh <= 0:
                        continue
                    lz = 2 * vh * hz - vz
                    if lz <= 0:
                        continue
                    g_v = lz * math.sqrt(a2 + (1 - a2) * vz * vz)
                    g_l = vz * math.sqrt(a2 + (1 - a2) * lz * lz)
                    # f cos / pdf with the height-correlated Smith term.
                    weight = share * 2 * lz * vz / (g_v + g_l) * vh / (hz * vz)
                    fresnel = (1 - vh) ** 5
                    scale += weight * (1 - fresnel)
                    bias += weight * fresnel
            table[i, j, 0] = scale / (count * count)
            table[i, j, 1] = bias / (count * count)


@lru_cache
def ggx_table() -> AnyArray:
    """(SIZE, SIZE, 2): rows by roughness, columns by the eye's cosine; F0 · first + F90 · second is the directional
    albedo of GGX with height-correlated Smith masking and Schlick's Fresnel.

    Karis 2013 splits it so; α = roughness² (Burley 2012); by quadrature over half vectors.
    """
    table = np.zeros((SIZE, SIZE, 2), np.float64)
    _ggx_rows(table, 64)
    out = table.astype(np.float32)
    out.flags.writeable = False
    return out


def charlie(alpha: float, cos_half: float) -> float:
    """Density of cloth fibres (Estevez and Kulla 2017), as KHR_materials_sheen has it."""
    inverse = 1 / alpha
    return float((2 + inverse) * max(0.0, 1 - cos_half * cos_half) ** (0.5 * inverse) / (2 * math.pi))


@compiled
def _sheen_rows(table: AnyArray, count: int) -> None:
    size = table.shape[0]
    for i in range(size):
        rough = max(i / (size - 1), 0.07)
        inverse = 1 / (rough * rough)
        for j in range(size):
            mu = max(j / (size - 1), 1e-3)
            vx = math.sqrt(1 - mu * mu)
            total = 0.0
            for p in range(count):
                lz = (p + 0.5) / count
                ls = math.sqrt(1 - lz * lz)
                for q in range(count):
                    lx = ls * math.cos(math.pi * (q + 0.5) / count)
                    ly = ls * math.sin(math.pi * (q + 0.5) / count)
                    hx, hy, hz = lx + vx, ly, lz + mu
                    hz /= math.sqrt(hx * hx + hy * hy + hz * hz)
                    d = (2 + inverse) * max(0.0, 1 - hz * hz) ** (0.5 * inverse) / (2 * math.pi)
                    v = 1 / (4 * (lz + mu - lz * mu))
                    total += d * v * lz
            table[i, j] = total * 2 * math.pi / (count * count)


@lru_cache
def sheen_table() -> AnyArray:
    """(SIZE, SIZE): directional albedo of the sheen of KHR_materials_sheen with Ashikhmin's visibility, rows by sheen
    roughness, columns by the eye's cosine.
    """
    table = np.zeros((SIZE, SIZE), np.float64)
    _sheen_rows(table, 64)
    out = np.minimum(table, 1).astype(np.float32)
    out.flags.writeable = False
    return out


def looked_up(table: AnyArray, roughness: AnyArray, cosine: AnyArray) -> AnyArray:
    """Values of a table, bilinear."""
    size = table.shape[0]
    y, x = np.clip(roughness, 0, 1) * (size - 1), np.clip(cosine, 0, 1) * (size - 1)
    i, j = np.minimum(y.astype(int), size - 2), np.minimum(x.astype(int), size - 2)
    fy, fx = y - i, x - j
    if table.ndim == 3:
        fy, fx = fy[..., None], fx[..., None]
    upper = table[i, j] * (1 - fx) + table[i, j + 1] * fx
    lower = table[i + 1, j] * (1 - fx) + table[i + 1, j + 1] * fx
    return np.asarray(upper * (1 - fy) + lower * fy)


def reflectance(f0: AnyArray, roughness: AnyArray, cosine: AnyArray) -> tuple[AnyArray, AnyArray]:
    """Single and multiple scattering of a rough mirror, each as F0's share of an even sky.

    C. Fdez-Agüera, "A Multiple-Scattering Microfacet Model for Real-Time Image-based Lighting", JCGT 8(1), 2019.
    """
    found = looked_up(ggx_table(), roughness, cosine)
    single = f0 * found[..., 0] + found[..., 1]
    lost = 1 - found.sum(-1)
    mean = f0 + (1 - f0) / 21
    return single, lost * single * mean / (1 - mean * lost)
