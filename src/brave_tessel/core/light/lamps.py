"""Lamps about what is looked at: a soft box, a strip, a bulb; each by where it stands, its size and its lumen."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated, Protocol

import numpy as np

from ..operation import Angle, Fraction, Length, called, settings
from ..sheet import AnyArray
from .daylight import kelvin_white
from .directions import Light, toward

_BEARING = Angle(0, 360, help="Where it stands, from north by east; a wall looks south.")
_HEIGHT = Angle(-90, 90, help="How high it stands, seen from what is lit.")
_AWAY = Length(300, 6000, least=50, most=1e5, log=True, help="How far it stands.")
_LUMEN = Fraction(100, 20_000, least=0, most=1e7, unit="lm", help="Light it gives in all.")
_WARMTH = Fraction(2000, 9000, least=1700, most=25_000, unit="K", help="Its colour temperature.")


class Lamp(Protocol):
    """A light at a distance; what it lights is at the origin."""

    def drawn(self, directions: AnyArray) -> AnyArray:
        """Radiance (N, 3) it adds in unit directions (N, 3), linear sRGB in cd/m²."""
        ...

    def beam(self) -> tuple[Light, tuple[float, float, float], float] | None:
        """Direction, illuminance (linear sRGB, lx) and angular radius (radians) of one that throws hard shadows."""
        ...


def _face(
    directions: AnyArray, bearing: float, height: float, away: float, size: tuple[float, float], soft: float
) -> AnyArray:
    """Share (N,) of a lit rectangle, facing the origin, that is seen in unit directions."""
    forward = np.array(toward(bearing, height))
    right = np.cross(forward, [0.0, 0.0, 1.0]) if abs(forward[2]) < 0.999 else np.array([1.0, 0.0, 0.0])
    right /= np.linalg.norm(right)
    up = np.cross(right, forward)
    ahead = directions @ forward.astype(np.float32)
    safe = np.maximum(ahead, 1e-4)
    x, y = (np.abs(directions @ axis.astype(np.float32)) / safe * away for axis in (right, up))
    # Never harder than a pixel of the sky's picture, so that mirrored edges are smooth.
    edge = max(soft * min(size), 0.014 * away)
    inside = np.minimum(size[0] / 2 - x, size[1] / 2 - y)
    return np.asarray(np.where(ahead > 0, np.clip(inside / edge + 0.5, 0, 1), 0), np.float32)


@settings("lamp.soft_box", label="Soft box")
@dataclass(frozen=True, slots=True)
class SoftBox:
    """A white cloth lit from behind: a broad, even face with soft edges."""

    bearing: Annotated[float, _BEARING] = 215.0
    height: Annotated[float, _HEIGHT] = 45.0
    away: Annotated[float, called("Distance", _AWAY)] = 1500.0
    width: Annotated[float, Length(100, 3000, least=10, most=1e5, log=True, help="Its width.")] = 1000.0
    tall: Annotated[float, called("Length", Length(100, 3000, least=10, most=1e5, log=True, help="Its length."))] = (
        700.0
    )
    lumen: Annotated[float, called("Light", _LUMEN)] = 6000.0
    warmth: Annotated[float, _WARMTH] = 5600.0

    def beam(self) -> None:
        return None

    def drawn(self, directions: AnyArray) -> AnyArray:
        return _lit_face(directions, self, (self.width, self.tall), 0.06)


@settings("lamp.strip", label="Strip")
@dataclass(frozen=True, slots=True)
class Strip:
    """A long, narrow face with sharp edges: its mirror image shows every unevenness of a gloss."""

    bearing: Annotated[float, _BEARING] = 200.0
    height: Annotated[float, _HEIGHT] = 40.0
    away: Annotated[float, called("Distance", _AWAY)] = 1200.0
    width: Annotated[float, Length(20, 3000, least=5, most=1e5, log=True, help="Its width.")] = 1600.0
    tall: Annotated[float, called("Length", Length(20, 3000, least=5, most=1e5, log=True, help="Its length."))] = 160.0
    lumen: Annotated[float, called("Light", _LUMEN)] = 5000.0
    warmth: Annotated[float, _WARMTH] = 5000.0

    def beam(self) -> None:
        return None

    def drawn(self, directions: AnyArray) -> AnyArray:
        return _lit_face(directions, self, (self.width, self.tall), 0.01)


def _lit_face(directions: AnyArray, lamp: SoftBox | Strip, size: tuple[float, float], soft: float) -> AnyArray:
    # A face that shines evenly by Lambert: Φ = π L A.
    luminance = lamp.lumen / (math.pi * size[0] * size[1] * 1e-6)
    share = _face(directions, lamp.bearing, lamp.height, lamp.away, size, soft)
    return np.asarray((share * np.float32(luminance))[..., None] * kelvin_white(lamp.warmth), np.float32)


@settings("lamp.bulb", label="Bulb")
@dataclass(frozen=True, slots=True)
class Bulb:
    """A small glowing ball that shines to all sides and throws shadows."""

    bearing: Annotated[float, _BEARING] = 230.0
    height: Annotated[float, _HEIGHT] = 40.0
    away: Annotated[float, called("Distance", _AWAY)] = 1800.0
    size: Annotated[float, Length(20, 400, least=1, most=1e4, log=True, help="Across.")] = 90.0
    lumen: Annotated[float, called("Light", _LUMEN)] = 1500.0
    warmth: Annotated[float, _WARMTH] = 2900.0

    def beam(self) -> tuple[Light, tuple[float, float, float], float]:
        lux = self.lumen / (4 * math.pi * (self.away / 1000) ** 2)
        r, g, b = (float(v) * lux for v in kelvin_white(self.warmth))
        return toward(self.bearing, self.height), (r, g, b), math.atan(0.5 * self.size / self.away)

    def drawn(self, directions: AnyArray) -> AnyArray:
        return np.zeros(directions.shape, np.float32)
