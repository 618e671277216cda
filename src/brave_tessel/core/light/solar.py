"""Where the sun stands: the general solar position equations of the NOAA Global Monitoring Division."""

from __future__ import annotations

import math
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class SunStand:
    """Degrees: height over the horizon without refraction, bearing from north by east, declination; minutes: equation
    of time.
    """

    height: float
    bearing: float
    declination: float
    equation: float


def sun_stand(
    day: float, hour: float, latitude: float, *, zone: float | None = None, longitude: float = 0.0
) -> SunStand:
    """The sun of a day of the year (1 is the first of January) and an hour, at a latitude in degrees, north positive.

    The hour is local solar time; with ``zone`` (hours ahead of UTC) and ``longitude`` (degrees, east positive) it is
    that of the clock. "General Solar Position Calculations", NOAA Global Monitoring Division: declination within
    0.04°, equation of time within half a minute of the almanac.
    """
    g = 2 * math.pi / 365 * (day - 1 + (hour - 12) / 24)
    equation = 229.18 * (
        0.000075
        + 0.001868 * math.cos(g)
        - 0.032077 * math.sin(g)
        - 0.014615 * math.cos(2 * g)
        - 0.040849 * math.sin(2 * g)
    )
    declination = (
        0.006918
        - 0.399912 * math.cos(g)
        + 0.070257 * math.sin(g)
        - 0.006758 * math.cos(2 * g)
        + 0.000907 * math.sin(2 * g)
        - 0.002697 * math.cos(3 * g)
        + 0.00148 * math.sin(3 * g)
    )
    minutes = 60 * hour
    if zone is not None:
        minutes += equation + 4 * longitude - 60 * zone
    angle = math.radians(minutes / 4 - 180)
    phi = math.radians(latitude)
    up = math.sin(phi) * math.sin(declination) + math.cos(phi) * math.cos(declination) * math.cos(angle)
    east = -math.cos(declination) * math.sin(angle)
    north = math.cos(phi) * math.sin(declination) - math.sin(phi) * math.cos(declination) * math.cos(angle)
    return SunStand(
        math.degrees(math.asin(max(-1.0, min(1.0, up)))),
        math.degrees(math.atan2(east, north)) % 360,
        math.degrees(declination),
        equation,
    )


def air_mass(height: float) -> float:
    """How many times the air of the zenith sunlight passes, by its height in degrees (Kasten and Young 1989)."""
    high = max(height, 0.0)
    return float(1 / (math.sin(math.radians(high)) + 0.50572 * (high + 6.07995) ** -1.6364))
