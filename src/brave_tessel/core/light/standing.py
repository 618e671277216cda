"""Where the sun of a rig stands: by hand, or by hour, day and latitude."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from ..operation import Angle, Choice, Fraction, Whole, called, settings
from .directions import Light, toward
from .solar import sun_stand

BY_HAND, BY_HOUR = "by hand", "by the hour"


@settings("light.sun", label="Sun")
@dataclass(frozen=True, slots=True)
class SunSettings:
    """The sun's place in the sky."""

    by: Annotated[str, called("Stands", Choice(BY_HAND, BY_HOUR, help="What places it."))] = BY_HAND
    bearing: Annotated[
        float, Angle(0, 360, help="From north by east: 90 is east, 180 south. Walls are seen looking south.")
    ] = 225.0
    height: Annotated[float, Angle(-10, 90, help="Over the horizon.")] = 34.0
    hour: Annotated[float, Fraction(4, 21, least=0, most=24, unit="h", help="Local solar time.")] = 15.0
    day: Annotated[int, called("Day of the year", Whole(1, 365, most=366, help="1 is the first of January."))] = 105
    latitude: Annotated[float, Angle(-90, 90, help="North positive.")] = 50.0

    @property
    def stand(self) -> tuple[float, float]:
        """Bearing and height, degrees."""
        if self.by == BY_HOUR:
            found = sun_stand(self.day, self.hour, self.latitude)
            return found.bearing, found.height
        return self.bearing, self.height

    @property
    def direction(self) -> Light:
        """Unit vector to it, in the scene."""
        return toward(*self.stand)
