"""The skies a rig can have: each declared with its dials, each a radiance in every direction."""

from __future__ import annotations

import hashlib
import math
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Annotated, Protocol

import numpy as np

from ..operation import Angle, Fraction, Seed, called, settings
from ..sheet import AnyArray
from .daylight import GROUND_ALBEDO, clear_sky, kelvin_white, overcast_sky, overcast_zenith, sun_light
from .directions import Light, bearing_of, sample_octahedral

_LUMA = np.array([0.2126, 0.7152, 0.0722], np.float32)


class Sky(Protocol):
    """Light from everywhere but the sun's disc and the lamps."""

    def radiance(self, directions: AnyArray, sun: Light, picture: AnyArray | None) -> AnyArray:
        """Linear sRGB in cd/m², (N, 3), in unit directions (N, 3). ``picture`` is the rig's own, octahedral."""
        ...

    def sunlight(self, sun: Light) -> tuple[float, float, float]:
        """Illuminance of the sun on a face turned to it, linear sRGB in lx."""
        ...


def _hash(ix: np.ndarray, iy: np.ndarray, seed: int) -> np.ndarray:  # type: ignore[type-arg]
    """Numbers in [0, 1) of a lattice (the 32-bit finaliser of MurmurHash3, Appleby 2011)."""
    h = (ix.astype(np.uint32) * np.uint32(0x9E3779B1)) ^ (iy.astype(np.uint32) * np.uint32(0x85EBCA77))
    h ^= np.uint32(seed * 0x27D4EB2F & 0xFFFFFFFF)
    h ^= h >> np.uint32(16)
    h = h * np.uint32(0x85EBCA6B)
    h ^= h >> np.uint32(13)
    h = h * np.uint32(0xC2B2AE35)
    h ^= h >> np.uint32(16)
    return h.astype(np.float32) / np.float32(2**32)


def _noise(x: AnyArray, y: AnyArray, seed: int) -> AnyArray:
    ix, iy = np.floor(x).astype(np.int64), np.floor(y).astype(np.int64)
    u, v = (x - ix).astype(np.float32), (y - iy).astype(np.float32)
    u, v = u * u * u * (u * (u * 6 - 15) + 10), v * v * v * (v * (v * 6 - 15) + 10)
    a, b = _hash(ix, iy, seed), _hash(ix + 1, iy, seed)
    c, d = _hash(ix, iy + 1, seed), _hash(ix + 1, iy + 1, seed)
    return np.asarray((a * (1 - u) + b * u) * (1 - v) + (c * (1 - u) + d * u) * v)


def _clouds(x: AnyArray, y: AnyArray, seed: int, octaves: int = 5) -> AnyArray:
    """Fractal noise in [0, 1], about one half."""
    total, weight = np.zeros(x.shape, np.float32), 0.0
    for k in range(octaves):
        share = 0.52**k
        turn = 0.6 * k
        s = 2.03**k
        total += np.float32(share) * _noise(
            s * (x * math.cos(turn) - y * math.sin(turn)), s * (x * math.sin(turn) + y * math.cos(turn)), seed + 17 * k
        )
        weight += share
    return np.asarray(total / np.float32(weight))


def _smooth(low: float, high: float, x: AnyArray) -> AnyArray:
    t = np.clip((x - low) / (high - low), 0, 1)
    return np.asarray(t * t * (3 - 2 * t), np.float32)


@lru_cache(maxsize=32)
def _kept_clouds(key: bytes, at: _At, seed: int, octaves: int) -> AnyArray:
    return _clouds(at.x, at.y, seed, octaves)


@dataclass(frozen=True, slots=True)
class _At:
    """Places on the layer of clouds; all of one key are equal."""

    x: AnyArray = field(compare=False)
    y: AnyArray = field(compare=False)


def _field(x: AnyArray, y: AnyArray, seed: int, octaves: int = 5) -> AnyArray:
    """Clouds that were worked out before where only the sun has moved."""
    return _kept_clouds(hashlib.blake2b(x.tobytes() + y.tobytes(), digest_size=16).digest(), _At(x, y), seed, octaves)


@dataclass(frozen=True, slots=True)
class _Toward:
    """Directions; all of one key are equal."""

    directions: AnyArray = field(compare=False)


def _skyline(directions: AnyArray, height: float, seed: int) -> AnyArray:
    """Share of what stands on the horizon, (N,): roofs and trees up to ``height`` degrees; kept, as the sun moves."""
    key = hashlib.blake2b(directions.tobytes(), digest_size=16).digest()
    return _kept_skyline(key, _Toward(directions), height, seed)


@lru_cache(maxsize=16)
def _kept_skyline(_key: bytes, toward: _Toward, height: float, seed: int) -> AnyArray:
    directions = toward.directions
    around = np.arctan2(directions[..., 0], directions[..., 1])
    turn = np.stack([np.cos(around), np.sin(around)])
    line = _field(3.1 * turn[0] + 7, 3.1 * turn[1] + 3, seed, 4)
    blocks = _noise(np.floor(11 * turn[0]), np.floor(11 * turn[1]), seed + 5)
    top = math.sin(math.radians(height)) * np.clip(0.1 + 1.3 * (line - 0.3) + 0.45 * (blocks - 0.5), 0, 1.2)
    return _smooth(0.009, -0.009, directions[..., 2] - top)


def _grounded(directions: AnyArray, above: AnyArray, light: AnyArray, horizon: float, seed: int) -> AnyArray:
    """What lies above the horizon joined with the skyline and the ground; ``light`` (3,) is the level's illuminance."""
    ground = GROUND_ALBEDO * light / math.pi
    patches = (0.75 + 0.5 * _field(2 * directions[..., 0] + 31, 2 * directions[..., 1] + 31, seed + 9, 3))[..., None]
    below = _smooth(0.004, -0.004, directions[..., 2])[..., None]
    out = above * (1 - below) + ground.astype(np.float32) * patches * below
    if horizon > 0:
        # What stands there is seen from its shaded side: a third of the ground's light.
        stands = _skyline(directions, horizon, seed)[..., None] * (1 - below)
        out = out * (1 - stands) + (0.35 * ground).astype(np.float32) * stands
    return np.asarray(out, np.float32)


@settings("sky.clear", label="Clear sky")
@dataclass(frozen=True, slots=True)
class ClearSky:
    """A day with sun: the clear sky of Preetham (1999) with broken clouds, and roofs on the horizon."""

    haze: Annotated[
        float, Fraction(2, 8, least=1.8, most=10, help="Turbidity of the air: 2 is very clear, 6 is hazy.")
    ] = 3.0
    clouds: Annotated[float, Fraction(help="How much of the sky broken clouds cover.")] = 0.45
    cloud_size: Annotated[float, Fraction(0.2, 3, least=0.1, most=8, help="How large the clouds are.")] = 1.0
    horizon: Annotated[float, called("Skyline", Angle(0, 25, help="How high roofs and trees stand on it."))] = 6.0
    strength: Annotated[float, called("Sky strength", Fraction(0, 2, most=20, help="1 is as in nature."))] = 1.0
    sun: Annotated[float, called("Sun strength", Fraction(0, 2, most=20, help="1 is as in nature, 0 puts it out."))] = (
        1.0
    )
    seed: Annotated[int, Seed()] = 77

    def sunlight(self, sun: Light) -> tuple[float, float, float]:
        r, g, b = sun_light(bearing_of(sun)[1], self.haze)
        return self.sun * r, self.sun * g, self.sun * b

    def radiance(self, directions: AnyArray, sun: Light, picture: AnyArray | None) -> AnyArray:
        open_sky = clear_sky(directions, sun, self.haze)
        above = self._clouded(directions, open_sky, sun)
        level = _level_light(open_sky, directions, sun, sun_light(bearing_of(sun)[1], self.haze))
        return np.asarray(_grounded(directions, above, level, self.horizon, self.seed) * np.float32(self.strength))

    def _clouded(self, directions: AnyArray, open_sky: AnyArray, sun: Light) -> AnyArray:
        if self.clouds <= 0:
            return open_sky
        up = np.maximum(directions[..., 2], 0.01)
        x, y = (directions[..., k] / (up + 0.18) * (1.5 / self.cloud_size) for k in (0, 1))
        found = _field(x + 11.3, y + 5.7, self.seed)
        low = 0.5 + 0.2 * (1 - 2 * self.clouds)
        thick = _smooth(low, low + 0.14, found)
        edge = _smooth(low - 0.02, low + 0.035, found)
        # Sunlit edges send on as a white body does; their bodies darken with depth, and near the sun they glow.
        gamma = np.clip(directions @ np.array(sun, np.float32), -1, 1)
        glow = 1 + 2.5 * np.exp(10 * (gamma - 1))
        full = np.array(sun_light(bearing_of(sun)[1], self.haze)) * 0.8 / math.pi
        mean = open_sky.reshape(-1, 3)[directions[..., 2].reshape(-1) > 0].mean(0) if directions.size else full
        lit = full * (1 - 0.72 * thick[..., None]) * glow[..., None] + 1.2 * mean
        # Far clouds dissolve into the haze of the horizon.
        share = (edge * _smooth(0.0, 0.12, up))[..., None]
        return np.asarray(open_sky * (1 - share) + lit.astype(np.float32) * share, np.float32)


def _level_light(sky: AnyArray, directions: AnyArray, sun: Light, beam: tuple[float, float, float]) -> AnyArray:
    """Illuminance (3,) of level ground under a sky sampled in some directions, and the sun."""
    up = np.clip(directions[..., 2], 0, 1).reshape(-1, 1)
    weight = float(up.sum()) or 1.0
    diffuse = (sky.reshape(-1, 3) * up).sum(0) / weight * math.pi
    return np.asarray(diffuse + np.array(beam) * max(sun[2], 0.0), np.float32)


@settings("sky.overcast", label="Overcast")
@dataclass(frozen=True, slots=True)
class OvercastSky:
    """No sun: the overcast sky of the CIE, three times as bright overhead as at the horizon."""

    unrest: Annotated[float, Fraction(help="How uneven the clouds are.")] = 0.25
    horizon: Annotated[float, called("Skyline", Angle(0, 25, help="How high roofs and trees stand on it."))] = 6.0
    strength: Annotated[float, called("Sky strength", Fraction(0, 2, most=20, help="1 is as in nature."))] = 1.0
    seed: Annotated[int, Seed()] = 4

    def sunlight(self, sun: Light) -> tuple[float, float, float]:
        return 0.0, 0.0, 0.0

    def radiance(self, directions: AnyArray, sun: Light, picture: AnyArray | None) -> AnyArray:
        zenith = overcast_zenith(max(bearing_of(sun)[1], 3.0))
        grey = overcast_sky(directions, zenith)
        if self.unrest > 0:
            up = np.maximum(directions[..., 2], 0.01)
            found = _field(directions[..., 0] / (up + 0.3) * 2 + 3, directions[..., 1] / (up + 0.3) * 2 + 8, self.seed)
            grey = grey * (1 + 1.6 * np.float32(self.unrest) * (found - np.float32(0.5)))
        above = grey[..., None] * kelvin_white(6500).astype(np.float32)
        level = np.full(3, zenith * 7 * math.pi / 9, np.float32)
        return np.asarray(_grounded(directions, above, level, self.horizon, self.seed) * np.float32(self.strength))


@settings("sky.room", label="Room")
@dataclass(frozen=True, slots=True)
class Room:
    """Indoors: walls, a pale ceiling and a dark floor, dimly lit by what the lamps leave; the lamps do the work."""

    light: Annotated[
        float, called("Light on the walls", Fraction(0, 500, most=1e5, unit="lx", help="Illuminance."))
    ] = 60.0
    warmth: Annotated[float, Fraction(2000, 8000, least=1700, most=25000, unit="K", help="Its colour.")] = 3400.0

    def sunlight(self, sun: Light) -> tuple[float, float, float]:
        return 0.0, 0.0, 0.0

    def radiance(self, directions: AnyArray, sun: Light, picture: AnyArray | None) -> AnyArray:
        # A room of 6 by 5 by 3 m, seen from its middle: reflectances of EN 12464-1 (ceiling 0.8, walls 0.6, floor 0.2).
        half = np.array([3.0, 2.5, 1.5], np.float32)
        reach = half / np.maximum(np.abs(directions), 1e-6)
        which = np.argmin(reach, -1)
        place = directions * np.min(reach, -1)[..., None]
        paint = np.where(which == 2, np.where(directions[..., 2] > 0, 0.8, 0.2), 0.6)
        # Corners are darker, and a dado of dark panels runs round the walls.
        near = np.sort((half - np.abs(place)) / half, -1)[..., 1]
        paint = paint * (0.55 + 0.45 * np.clip(near / 0.35, 0, 1))
        paint = np.where((which != 2) & (place[..., 2] < -0.5), 0.4 * paint, paint)
        white = kelvin_white(self.warmth)
        return np.asarray((paint * self.light / math.pi)[..., None] * white, np.float32)


@settings("sky.picture", label="Sky picture")
@dataclass(frozen=True, slots=True)
class PictureSky:
    """An own picture of the whole sky, HDR or EXR, north in its middle."""

    turn: Annotated[float, Angle(-180, 180, help="Turns it about the upright.")] = 0.0
    strength: Annotated[float, Fraction(0, 2, most=100, help="1 is as in the file.")] = 1.0
    luminance: Annotated[
        float,
        called("White is", Fraction(10, 20_000, least=0.01, most=1e9, unit="cd/m²", help="What 1.0 in the file is.")),
    ] = 10_000.0

    def sunlight(self, sun: Light) -> tuple[float, float, float]:
        return 0.0, 0.0, 0.0

    def radiance(self, directions: AnyArray, sun: Light, picture: AnyArray | None) -> AnyArray:
        if picture is None:
            return overcast_sky(directions, 3000.0)[..., None] * np.ones(3, np.float32)
        a = math.radians(self.turn)
        x, y = directions[..., 0], directions[..., 1]
        turned = np.stack(
            [x * math.cos(a) - y * math.sin(a), x * math.sin(a) + y * math.cos(a), directions[..., 2]], -1
        )
        return np.asarray(sample_octahedral(picture, turned) * np.float32(self.strength * self.luminance), np.float32)
