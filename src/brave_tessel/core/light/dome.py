"""A rig made into light: one octahedral picture of the sky with its lamps, and one light that throws shadows."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from typing import cast

import msgspec
import numpy as np

from ..job.light import FLOOR, WALL, Rig
from ..job.nodes import Setting
from ..operation import find
from ..sheet import AnyArray
from .daylight import kelvin_white
from .directions import Light, octahedral_grid, octahedral_weights, stance_axes
from .harmonics import basis, harmonics
from .lamps import Lamp as LampSettings
from .prefilter import prefiltered
from .skies import Sky
from .standing import SunSettings
from .tone import AS_LIT, EV_FACTOR, EyeSettings

DOME_PX, FINE_PX, METER_PX = 256, 1024, 96
SUN_RADIUS = math.radians(0.2666)
"""Half of the sun's 0.53 degrees."""
LUMA = np.array([0.2126, 0.7152, 0.0722])
Pictures = Callable[[str], AnyArray | None]
"""An own sky picture of a stored file as an octahedral map (S, S, 3), 1.0 as in the file."""


def no_pictures(_blob: str) -> None:
    """For rigs without a picture of their own."""
    return


@dataclass(frozen=True, slots=True, eq=False)
class Key:
    """The one light that throws hard shadows: where it stands, its illuminance (linear sRGB, lx) and angular radius."""

    direction: Light
    lux: tuple[float, float, float]
    radius: float


@dataclass(frozen=True, slots=True, eq=False)
class Dome:
    """All light of a rig. ``sky`` is octahedral (S, S, 3), linear sRGB in cd/m², without the key light."""

    sky: AnyArray
    key: Key
    paint: Callable[[AnyArray], AnyArray]

    def fine(self) -> AnyArray:
        """The sky drawn anew with more pixels, to be looked at."""
        return _fine(self)

    def blurred(self) -> AnyArray:
        """The sky by roughness; see :func:`brave_tessel.core.light.prefilter.prefiltered`."""
        return _blurred(SameSky(self.sky))

    def illuminance(self, normal: Light) -> AnyArray:
        """Linear sRGB (3,) in lx on a face with this normal, unshadowed."""
        facing = max(0.0, sum(a * b for a, b in zip(normal, self.key.direction, strict=True)))
        sky = basis(np.array([normal])) @ _harmonics(SameSky(self.sky))
        return np.asarray(sky[0] + facing * np.array(self.key.lux))


class SameSky:
    """An array as itself, whatever it holds: what is made of a sky is kept as long as that sky is used."""

    def __init__(self, array: AnyArray) -> None:
        self.array = array

    def __eq__(self, other: object) -> bool:
        return isinstance(other, SameSky) and other.array is self.array

    def __hash__(self) -> int:
        return id(self.array)

    def blurred(self) -> AnyArray:
        """The sky by roughness."""
        return _blurred(self)


@lru_cache(maxsize=6)
def _blurred(sky: SameSky) -> AnyArray:
    out = prefiltered(sky.array)
    out.flags.writeable = False
    return out


@lru_cache(maxsize=2)
def _fine(dome: Dome) -> AnyArray:
    out = dome.paint(octahedral_grid(FINE_PX))
    out.flags.writeable = False
    return out


@lru_cache(maxsize=12)
def _harmonics(sky: SameSky) -> AnyArray:
    return harmonics(sky.array)


def _made(setting: Setting) -> object:
    """A setting's declared light; the newest default in place of one that this version does not know."""
    if not setting.known:
        setting = Setting(op={"sky": "sky.clear", "light": "light.sun", "lamp": "lamp.bulb"}[setting.op.split(".")[0]])
    return setting.operation.run(**setting.bound())


def sun_of(rig: Rig) -> SunSettings:
    """Where the rig's sun stands."""
    return cast("SunSettings", _made(rig.sun))


def eye_of(rig: Rig) -> EyeSettings:
    """How the rig is exposed."""
    return cast("EyeSettings", find("light.eye").run(**rig.eye.bound()))


def _bare(rig: Rig, *, sun: bool = True) -> bytes:
    """What of a rig the dome depends on; or all of it but where the sun stands."""
    stand = sun_of(rig).stand if sun and rig.sky.op in {"sky.clear", "sky.overcast"} else ()
    lamps = [(lamp.op, lamp.complete()) for lamp in rig.lamps if not lamp.off]
    return msgspec.json.encode([stand, rig.sky.op, rig.sky.complete(), lamps, rig.picture])


def dome_of(rig: Rig, pictures: Pictures = no_pictures) -> Dome:
    """The light of a rig; kept, so that what asks again is answered at once."""
    bare = _bare(rig)
    made = _dome(bare, _Asked(rig, pictures), DOME_PX)
    _RECENT[_bare(rig, sun=False)] = (bare, made)
    while len(_RECENT) > _KEPT:
        _RECENT.pop(next(iter(_RECENT)))
    return made


_RECENT: dict[bytes, tuple[bytes, Dome]] = {}
_KEPT = 8


def dome_near(rig: Rig, pictures: Pictures = no_pictures) -> Dome:
    """As :func:`dome_of`, at once: while only the sun turns, its light turns and the sky stays as it was last."""
    known = _RECENT.get(_bare(rig, sun=False))
    if known is None or rig.sky.op != "sky.clear" or any(not lamp.off for lamp in rig.lamps):
        return dome_of(rig, pictures)
    bare, dome = known
    if bare == _bare(rig):
        return dome
    direction = sun_of(rig).direction
    return Dome(dome.sky, Key(direction, cast("Sky", _made(rig.sky)).sunlight(direction), SUN_RADIUS), dome.paint)


@dataclass(frozen=True, slots=True)
class _Asked:
    """What a dome is made of; the key beside it tells them apart."""

    rig: Rig
    pictures: Pictures

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Asked)

    def __hash__(self) -> int:
        return 0


@lru_cache(maxsize=12)
def _dome(_key: bytes, asked: _Asked, px: int) -> Dome:
    rig = asked.rig
    sun = sun_of(rig).direction
    made = cast("Sky", _made(rig.sky))
    picture = asked.pictures(rig.picture) if rig.picture else None
    lamps = [cast("LampSettings", _made(lamp)) for lamp in rig.lamps if not lamp.off]
    key, glows = _key_of(Key(sun, made.sunlight(sun), SUN_RADIUS), lamps)

    def paint(directions: AnyArray) -> AnyArray:
        sky = made.radiance(directions, sun, picture).astype(np.float32)
        for lamp in lamps:
            sky = sky + lamp.drawn(directions)
        for direction, lux in glows:
            sky = sky + _glow(directions, direction, lux)
        return np.ascontiguousarray(sky, np.float32)

    sky = paint(octahedral_grid(px))
    if rig.sky.op == "sky.picture":
        sky, key = _sun_taken_out(sky, key)
    sky.flags.writeable = False
    return Dome(sky, key, paint)


def _key_of(key: Key, lamps: list[LampSettings]) -> tuple[Key, list[tuple[Light, tuple[float, float, float]]]]:
    """The strongest light that throws shadows; the others are drawn into the sky as soft glows of equal strength."""
    glows = []
    for lamp in lamps:
        beam = lamp.beam()
        if beam is None:
            continue
        direction, lux, radius = beam
        if np.dot(lux, LUMA) > np.dot(key.lux, LUMA):
            glows.append((key.direction, key.lux))
            key = Key(direction, lux, radius)
        else:
            glows.append((direction, lux))
    return key, glows


def _glow(directions: AnyArray, direction: Light, lux: tuple[float, float, float]) -> AnyArray:
    """A light as a small disc of the sky's own resolution."""
    if max(lux) <= 0:
        return np.zeros(directions.shape, np.float32)
    near = np.clip((directions @ np.array(direction, np.float32) - np.cos(0.05)) / (1 - np.cos(0.05)), 0, 1)
    solid = math.pi * 0.05**2 / 2
    return np.asarray(near[..., None] * (np.array(lux) / solid), np.float32)


def _sun_taken_out(sky: AnyArray, key: Key) -> tuple[AnyArray, Key]:
    """A sun that an own picture holds becomes the light that throws shadows.

    What exceeds sixty times the sky's mean within 5° of its brightest place counts as the sun.
    """
    light = sky @ LUMA.astype(np.float32)
    limit = 60 * float(light.mean())
    if float(light.max()) <= limit:
        return sky, key
    grid = octahedral_grid(sky.shape[0])
    brightest = grid.reshape(-1, 3)[int(light.argmax())]
    spot = (grid @ brightest > math.cos(math.radians(5))) & (light > limit)
    weights = octahedral_weights(sky.shape[0])
    over = np.where(spot[..., None], sky * (1 - (limit / np.maximum(light, 1e-9))[..., None]), 0)
    lux = (over * weights[..., None]).sum((0, 1))
    middle = (grid * (light * spot * weights)[..., None]).sum((0, 1))
    x, y, z = (float(v) for v in middle / np.linalg.norm(middle))
    return np.ascontiguousarray(sky - over, np.float32), Key((x, y, z), tuple(float(v) for v in lux), SUN_RADIUS)  # type: ignore[arg-type]


# Exposure ------------------------------------------------------------------------------------------


def metered_ev(dome: Dome) -> float:
    """EV100 at which an 18 % grey wall and floor together show as they are: code 118."""
    lux = sum(float(dome.illuminance(_normal(stance)) @ LUMA) for stance in (WALL, FLOOR)) / 2
    return math.log2(max(lux, 1e-3) / math.pi / EV_FACTOR)


def meter(rig: Rig, pictures: Pictures = no_pictures) -> float:
    """The rig's :func:`metered_ev`, by a sky of few pixels: quick enough for the window's thread at every
    move of a dial. An own picture is read whole, so that no small sun in it is missed.
    """
    px = DOME_PX if rig.sky.op == "sky.picture" else METER_PX
    return metered_ev(_dome(_bare(rig), _Asked(rig, pictures), px))


def _normal(stance: str) -> Light:
    x, y, z = stance_axes(stance)[2]
    return float(x), float(y), float(z)


def gains(rig: Rig, dome: Dome) -> AnyArray:
    """(3,): exposed linear light of a luminance of 1 cd/m², with the white point put in."""
    eye = eye_of(rig)
    scale = 1 / (EV_FACTOR * 2**eye.ev100)
    if eye.white == AS_LIT:
        # The eye takes as white what the light makes of a white wall and floor.
        light = np.sum([dome.illuminance(_normal(stance)) for stance in (WALL, FLOOR)], 0)
    else:
        light = kelvin_white(eye.kelvin)
    white = np.maximum(light / max(float(light @ LUMA), 1e-9), 0.05)
    return np.asarray(scale / white)
