"""Daylight by published models: the clear sky of Preetham, the overcast sky of the CIE, the sun through the air."""

from __future__ import annotations

import math

import numpy as np

from ..kernels.bands import over_rows
from ..kernels.compiled import compiled, still
from ..sheet import AnyArray
from .solar import air_mass

GROUND_ALBEDO = 0.2
SUN_LUX = 127_500.0
"""Illuminance of the sun outside the air (IES Lighting Handbook: 127.5 klx)."""
_TO_RGB = np.array(
    [[3.2404542, -1.5371385, -0.4985314], [-0.9692660, 1.8760108, 0.0415560], [0.0556434, -0.2040259, 1.0572252]]
)
_LUMA = np.array([0.2126, 0.7152, 0.0722])


def perez(cos_zenith: AnyArray, gamma: AnyArray, c: tuple[float, ...]) -> AnyArray:
    """Perez's luminance distribution (1993) by the cosine of the zenith angle and the angle to the sun, radians."""
    a, b, d, e, f = c
    return np.asarray((1 + a * np.exp(b / cos_zenith)) * (1 + d * np.exp(e * gamma) + f * np.cos(gamma) ** 2))


def _coefficients(turbidity: float) -> tuple[tuple[float, ...], ...]:
    t = turbidity
    return (
        (0.1787 * t - 1.4630, -0.3554 * t + 0.4275, -0.0227 * t + 5.3251, 0.1206 * t - 2.5771, -0.0670 * t + 0.3703),
        (-0.0193 * t - 0.2592, -0.0665 * t + 0.0008, -0.0004 * t + 0.2125, -0.0641 * t - 0.8989, -0.0033 * t + 0.0452),
        (-0.0167 * t - 0.2608, -0.0950 * t + 0.0092, -0.0079 * t + 0.2102, -0.0441 * t - 1.6537, -0.0109 * t + 0.0529),
    )


def zenith_of(turbidity: float, sun_zenith: float) -> tuple[float, float, float]:
    """Luminance in cd/m² and chromaticity x, y of the clear zenith; ``sun_zenith`` in radians (Preetham 1999, A.2)."""
    t, s = turbidity, sun_zenith
    chi = (4 / 9 - t / 120) * (math.pi - 2 * s)
    luminance = ((4.0453 * t - 4.9710) * math.tan(chi) - 0.2155 * t + 2.4192) * 1000
    cubic, square = np.array([s**3, s**2, s, 1.0]), np.array([t * t, t, 1.0])
    x = square @ np.array(
        [
            [0.00166, -0.00375, 0.00209, 0.0],
            [-0.02903, 0.06377, -0.03202, 0.00394],
            [0.11693, -0.21196, 0.06052, 0.25886],
        ]
    ) @ cubic  # fmt: skip
    y = square @ np.array(
        [
            [0.00275, -0.00610, 0.00317, 0.0],
            [-0.04214, 0.08970, -0.04153, 0.00516],
            [0.15346, -0.26756, 0.06670, 0.26688],
        ]
    ) @ cubic  # fmt: skip
    return max(luminance, 100.0), float(x), float(y)


def clear_sky(directions: AnyArray, sun: tuple[float, float, float], turbidity: float) -> AnyArray:
    """Radiance (..., 3), linear sRGB in cd/m², of a clear sky in unit directions (..., 3) over the horizon.

    A. J. Preetham, P. Shirley, B. Smits, "A Practical Analytic Model for Daylight", 1999.
    """
    # Below the horizon the sun's last sky fades; the model itself ends there.
    sun_zenith = math.acos(max(sun[2], 0.02))
    coefficients = _coefficients(turbidity)
    at_zenith = [float(perez(np.array(1.0), np.array(sun_zenith), c)) for c in coefficients]
    values = zenith_of(turbidity, sun_zenith)
    flat = np.ascontiguousarray(directions, np.float32).reshape(-1, 3)
    out = np.empty(flat.shape, np.float32)
    over_rows(
        _clear_rows,
        len(flat),
        still(flat),
        still(np.array(sun, np.float64)),
        still(np.array(coefficients)),
        still(np.array([value / whole for value, whole in zip(values, at_zenith, strict=True)])),
        still(_TO_RGB),
        min(1.0, math.exp(40 * min(0.0, sun[2] - 0.02))),
        out,
    )
    return out.reshape(directions.shape)


@compiled
def _clear_rows(
    first: int,
    last: int,
    ways: AnyArray,
    sun: AnyArray,
    table: AnyArray,
    scale: AnyArray,
    to_rgb: AnyArray,
    fade: float,
    out: AnyArray,
) -> None:
    for k in range(first, last):
        up = min(1.0, max(0.015, ways[k, 2]))
        cosine = min(1.0, max(-1.0, ways[k, 0] * sun[0] + ways[k, 1] * sun[1] + ways[k, 2] * sun[2]))
        gamma = math.acos(cosine)
        values = [0.0, 0.0, 0.0]
        for c in range(3):
            over = 1 + table[c, 0] * math.exp(table[c, 1] / up)
            values[c] = (
                scale[c] * over * (1 + table[c, 2] * math.exp(table[c, 3] * gamma) + table[c, 4] * cosine * cosine)
            )
        light, x, y = max(values[0] * fade, 1.0), values[1], max(values[2], 0.05)
        tall, deep = x / y * light, (1 - x - y) / y * light
        for c in range(3):
            out[k, c] = max(0.0, to_rgb[c, 0] * tall + to_rgb[c, 1] * light + to_rgb[c, 2] * deep)


def _rgb(Y: AnyArray, x: AnyArray, y: AnyArray) -> AnyArray:
    xyz = np.stack([x / y * Y, Y, (1 - x - y) / y * Y], -1)
    return np.asarray(np.maximum(xyz @ _TO_RGB.T, 0), np.float32)


def overcast_zenith(sun_height: float) -> float:
    """Luminance of an overcast zenith, cd/m²: horizontal illuminance 300 + 21 000 sin h lx (IES), E = 7π/9 L."""
    return (300 + 21_000 * math.sin(math.radians(max(sun_height, 0.0)))) * 9 / (7 * math.pi)


def overcast_sky(directions: AnyArray, zenith: float) -> AnyArray:
    """Luminance (...) of the CIE standard overcast sky, Lz (1 + 2 sin γ) / 3 (CIE S 003: the horizon has a third)."""
    return np.asarray(zenith * (1 + 2 * np.clip(directions[..., 2], 0, 1)) / 3, np.float32)


def sun_light(height: float, turbidity: float) -> tuple[float, float, float]:
    """Illuminance of the sun on a face turned to it, linear sRGB in lx, by its height in degrees.

    Strength by IES for a clear sky (128 klx · exp(−0.21 m)), thinned further by haze; its colour by Rayleigh's and
    Ångström's scattering at the primaries' wavelengths (Preetham 1999, A.1).
    """
    if height <= -0.5:
        return 0.0, 0.0, 0.0
    m = air_mass(height)
    haze = 0.04608 * turbidity - 0.04586
    wavelengths = np.array([0.612, 0.549, 0.465])
    through = np.exp(-0.008735 * wavelengths**-4.08 * m) * np.exp(-max(haze, 0.0) * wavelengths**-1.3 * m)
    strength = SUN_LUX * math.exp(-0.21 * m) * math.exp(-max(0.0, haze - 0.046) * m) * min(1.0, (height + 0.5) / 1.0)
    rgb = through / (through @ _LUMA) * strength
    return float(rgb[0]), float(rgb[1]), float(rgb[2])


def kelvin_white(kelvin: float) -> AnyArray:
    """Linear sRGB of a Planckian light, luminance 1 (Kim et al. 2002 locus, 1 667 to 25 000 K)."""
    t = min(25_000.0, max(1_667.0, kelvin))
    if t <= 4000:
        x = -0.2661239e9 / t**3 - 0.2343589e6 / t**2 + 0.8776956e3 / t + 0.179910
    else:
        x = -3.0258469e9 / t**3 + 2.1070379e6 / t**2 + 0.2226347e3 / t + 0.240390
    if t <= 2222:
        y = -1.1063814 * x**3 - 1.34811020 * x**2 + 2.18555832 * x - 0.20219683
    elif t <= 4000:
        y = -0.9549476 * x**3 - 1.37418593 * x**2 + 2.09137015 * x - 0.16748867
    else:
        y = 3.0817580 * x**3 - 5.87338670 * x**2 + 3.75112997 * x - 0.37001483
    return _rgb(np.array(1.0), np.array(x), np.array(y))
