"""The light of the build board: ready-made lights, the hour of a day, exposure."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from PyQt6.QtWidgets import QMenu, QWidgetAction

from ...core.operation import Param
from .. import theme
from ..controls.ruled_scale import RuledScale
from ..desk import Desk
from ..words import tr


@dataclass(frozen=True, slots=True)
class Light:
    """A light: azimuth anticlockwise from the right and height in degrees; strengths of sun and sky."""

    azimuth: float
    height: float
    sun: float
    sky: float


LIGHTS = {
    "Clear morning": Light(150.0, 38.0, 0.9, 0.4),
    "Raking from the left": Light(178.0, 14.0, 1.1, 0.22),
    "Raking from above": Light(92.0, 14.0, 1.1, 0.22),
    "High noon": Light(95.0, 72.0, 1.0, 0.45),
    "Overcast": Light(90.0, 80.0, 0.12, 1.0),
    "Lamp in a passage": Light(60.0, 30.0, 1.2, 0.12),
}


def at_hour(hour: float) -> Light:
    """The sun on a wall that looks south at the equinox, 50° north: it rises at the right, passes overhead, sets at
    the left.

    Height and azimuth from the hour angle (spherical astronomy; the declination is 0).
    """
    angle, latitude = math.radians(15 * (hour - 12)), math.radians(50)
    height = math.degrees(math.asin(math.cos(latitude) * math.cos(angle)))
    across = -math.sin(angle)
    above = math.sin(latitude) * math.cos(angle)
    azimuth = math.degrees(math.atan2(max(above, 0.05), across))
    day = max(0.0, math.sin(math.radians(max(height, 0.0))))
    return Light(azimuth, max(height, 6.0), 0.25 + 0.85 * day**0.5, 0.16 + 0.3 * day)


def fill_light_menu(menu: QMenu, desk: Desk) -> None:
    """Ready-made lights, and rules for the hour and the exposure."""
    menu.clear()
    for name, light in LIGHTS.items():
        action = menu.addAction(tr(name))
        if action:
            action.triggered.connect(lambda _checked=False, chosen=light: take(desk, chosen))
    menu.addSeparator()
    hour = Param("angle", 6.5, 17.5, unit="h", help="Hour of the day.", least=6.0, most=18.0, label="Hour", default=9.0)
    exposure = Param(
        "fraction", -2, 2, unit="stops", help="Lighter or darker.", least=-6.0, most=6.0, label="Exposure", default=0.0
    )
    for param, value, run in (
        (hour, 9.0, lambda v: take(desk, at_hour(float(v)))),
        (exposure, math.log2(max(desk.view.exposure.exposure, 1e-3)), lambda v: _expose(desk, 2.0 ** float(v))),
    ):
        scale = RuledScale(param, value)
        scale.setMinimumWidth(theme.px(220))
        scale.changed.connect(run)
        holder = QWidgetAction(menu)
        holder.setDefaultWidget(scale)
        menu.addAction(holder)


def _expose(desk: Desk, exposure: float) -> None:
    desk.view.set_light(exposure=replace(desk.view.exposure, exposure=exposure))


def take(desk: Desk, light: Light) -> None:
    """Show a light."""
    exposure = replace(desk.view.exposure, sun=light.sun, sky=light.sky)
    desk.view.set_light(azimuth=light.azimuth, height=light.height, exposure=exposure)
