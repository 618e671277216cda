"""Lights by what they are for."""

from __future__ import annotations

from functools import lru_cache

import msgspec

from ..job.light import Lamp, Rig
from ..job.nodes import Setting
from ..operation import Value
from .dome import meter


def _rig(name: str, sky: str, sun: tuple[float, float], *lamps: Lamp, **values: Value) -> Rig:
    bearing, height = sun
    bare = Rig(
        name=name,
        sun=Setting(op="light.sun", values={"bearing": bearing, "height": height}),
        sky=Setting(op=sky, values=values),
        lamps=lamps,
    )
    return metered(bare)


def metered(rig: Rig) -> Rig:
    """The rig exposed so that 18 % grey shows as it is."""
    ev = round(meter(rig), 2)
    return msgspec.structs.replace(rig, eye=Setting(op="light.eye", values={**rig.eye.values, "ev100": ev}))


def _lamp(number: int, op: str, **values: Value) -> Lamp:
    return Lamp(op=op, id=f"lamp-{number}", values=values)


@lru_cache
def make_preset(name: str) -> Rig:
    """The preset of a name; see :data:`PRESETS`."""
    match name:
        case "Low sun, raking":
            return _rig(name, "sky.clear", (262.0, 11.0), clouds=0.35, haze=3.5)
        case "Noon, clear":
            return _rig(name, "sky.clear", (196.0, 58.0), clouds=0.4, haze=2.5)
        case "Overcast":
            return _rig(name, "sky.overcast", (200.0, 45.0))
        case "Lamp-lit hall":
            bulb = _lamp(1, "lamp.bulb", bearing=222.0, height=38.0, away=1700.0, lumen=1600.0)
            far = _lamp(2, "lamp.bulb", bearing=110.0, height=30.0, away=3200.0, lumen=1600.0)
            return _rig(name, "sky.room", (225.0, 35.0), bulb, far, light=38.0, warmth=2900.0)
        case "Two strips":
            left = _lamp(1, "lamp.strip", bearing=207.0, height=42.0, away=1300.0, width=150.0, tall=2600.0)
            right = _lamp(
                2, "lamp.strip", bearing=140.0, height=38.0, away=1500.0, width=1800.0, tall=130.0, lumen=3500.0
            )
            return _rig(name, "sky.room", (225.0, 35.0), left, right, light=45.0, warmth=5200.0)
        case _:
            return _rig(DAYLIGHT, "sky.clear", (225.0, 34.0))


DAYLIGHT = "Afternoon"
PRESETS = (DAYLIGHT, "Noon, clear", "Low sun, raking", "Overcast", "Lamp-lit hall", "Two strips")
