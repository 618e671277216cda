"""What a picture of a flat sheet is lit by: the rig as seen from the sheet, and where the eye is."""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Any

import msgspec
import numpy as np

from ..job.light import WALL, Rig
from ..kernels import lit as k
from ..kernels.bands import over_rows
from ..kernels.compiled import still
from ..kernels.relief import cast_shadow
from ..maps import EMISSION_CD, MapKind, MapSet
from ..sheet import AnyArray, Grid
from .directions import Light, bordered, stance_axes
from .dome import Dome, Pictures, SameSky, dome_near, dome_of, eye_of, gains, no_pictures
from .energy import ggx_table, sheen_table
from .harmonics import harmonics
from .prefilter import level_of
from .presets import DAYLIGHT, make_preset
from .tone import tone_table

NEAR = 1.5
"""Widths of a sheet from which it is seen, so that a gloss shows."""


@dataclass(frozen=True, slots=True)
class Eye:
    """Where one looks from: by how many degrees off the upright to a sheet, and on which side (degrees anticlockwise
    from the right); ``near`` stands so many sheet widths away, 0 is far off.
    """

    off: float = 30.0
    side: float = 315.0
    near: float = NEAR

    @property
    def direction(self) -> Light:
        """Unit vector from the sheet's middle to it."""
        o, a = math.radians(self.off), math.radians(self.side)
        return math.sin(o) * math.cos(a), math.sin(o) * math.sin(a), math.cos(o)


@dataclass(frozen=True, slots=True)
class Lighting:
    """A rig, the stance of the sheet it falls on, and the eye. A ``quick`` one keeps the sky while the sun turns."""

    rig: Rig = field(default_factory=lambda: make_preset(DAYLIGHT))
    stance: str = WALL
    eye: Eye = Eye()
    pictures: Pictures = no_pictures
    quick: bool = False

    @property
    def told(self) -> list[object]:
        """What the picture depends on, for its key."""
        eye = self.eye
        return [msgspec.json.encode(self.rig).decode(), self.stance, eye.off, eye.side, eye.near, self.quick]

    @property
    def dome(self) -> Dome:
        """The rig made into light."""
        return (dome_near if self.quick else dome_of)(self.rig, self.pictures)

    @property
    def light(self) -> Light:
        """Unit vector from the sheet to the light that throws shadows; z is negative where that stands behind it."""
        x, y, z = stance_axes(self.stance) @ np.array(self.dome.key.direction)
        return float(x), float(y), float(z)

    @property
    def shadows(self) -> bool:
        """Whether there is a light in front of the sheet that throws shadows."""
        return max(self.dome.key.lux) > 0 and self.light[2] > 0.01

    def seen_from(self, **eye: float) -> Lighting:
        """The same light for another eye."""
        return replace(self, eye=replace(self.eye, **eye))


@dataclass(frozen=True, slots=True, eq=False)
class _Made:
    """A lighting as the kernel takes it."""

    numbers: AnyArray
    harmonics: AnyArray
    sharp: AnyArray
    blurred: AnyArray
    tone: AnyArray


_LEVELS = still(np.array([level_of(r) for r in np.linspace(0, 1, 1025)], np.float32))


@lru_cache(maxsize=6)
def _skies(sky: SameSky) -> tuple[AnyArray, AnyArray]:
    blurred = np.stack([bordered(level) for level in sky.blurred()])
    return still(bordered(sky.array)), still(blurred)


def _prepared(lighting: Lighting, grid: Grid, origin: tuple[float, float]) -> _Made:
    """``origin`` is where the first pixel's middle lies on the sheet, mm from its left and lower edge."""
    dome = lighting.dome
    axes = stance_axes(lighting.stance)
    gain = gains(lighting.rig, dome)
    eye = lighting.eye
    numbers = np.zeros(k.NUMBERS, np.float64)
    numbers[k.FAR] = eye.near <= 0
    away = np.array(eye.direction)
    if eye.near > 0:
        away = away * eye.near * max(grid.width_mm, grid.height_mm) + [grid.width_mm / 2, grid.height_mm / 2, 0]
    numbers[k.EYE : k.EYE + 3] = away
    across, down = grid.mm_per_px
    numbers[k.PLACE : k.PLACE + 4] = [origin[0], across, origin[1], -down]
    numbers[k.SIZE : k.SIZE + 2] = [grid.width_mm, grid.height_mm]
    light = lighting.light
    numbers[k.LIGHT : k.LIGHT + 3] = light
    if light[2] > 0:
        numbers[k.LUX : k.LUX + 3] = np.array(dome.key.lux) * gain
    numbers[k.RADIUS] = dome.key.radius
    numbers[k.GAIN : k.GAIN + 3] = gain
    numbers[k.AXES : k.AXES + 9] = axes.reshape(-1)
    behind = tuple(float(v) for v in -axes[2])
    numbers[k.BEHIND : k.BEHIND + 3] = dome.illuminance(behind) * gain / math.pi  # type: ignore[arg-type]
    return _Made(
        numbers.astype(np.float32),
        (_harmonics(SameSky(dome.sky), lighting.stance) * gain).astype(np.float32),
        *_skies(SameSky(dome.sky)),
        _tone(eye_of(lighting.rig).transform),
    )


@lru_cache(maxsize=12)
def _harmonics(sky: SameSky, stance: str) -> AnyArray:
    """Polynomials' factors: harmonics times their constants, so that the kernel only multiplies."""
    constants = np.array([0.282095, 0.488603, 0.488603, 0.488603, 1.092548, 1.092548, 0.315392, 1.092548, 0.546274])
    return np.asarray(harmonics(sky.array, stance_axes(stance)) * constants[:, None])


@lru_cache
def _tone(transform: str) -> AnyArray:
    return still(tone_table(transform))


_NONE2, _NONE3 = still(np.zeros((1, 1), np.float32)), still(np.zeros((1, 1, 3), np.float32))


def shadow_on(maps: MapSet, lighting: Lighting) -> AnyArray:
    """Share (H, W) of the shadow-throwing light that reaches a relief; 1 where no such light stands before it."""
    height = maps[MapKind.HEIGHT]
    if not lighting.shadows:
        return np.ones(maps.grid.shape, np.float32)
    return cast_shadow(np.ascontiguousarray(height), maps.grid, lighting.light, radius=lighting.dome.key.radius)


def light_flat(
    maps: MapSet, sunlit: AnyArray, lighting: Lighting, *, sheet: Grid | None = None, origin: tuple[int, int] = (0, 0)
) -> AnyArray:
    """A flat sheet lit and seen, (H, W, 3) uint8 sRGB.

    ``sunlit`` (H, W) is the share of the shadow-throwing light. For a part of a sheet, ``sheet`` is the whole one's
    grid and ``origin`` the row and column at which the part begins. GGX with height-correlated Smith (Heitz 2014),
    split sum (Karis 2013) by quadrature, multiple scattering (Fdez-Agüera 2019), diffuse by harmonics (Ramamoorthi and
    Hanrahan 2001).
    """
    grid = sheet or maps.grid
    across, down = grid.mm_per_px
    place = ((origin[1] + 0.5) * across, grid.height_mm - (origin[0] + 0.5) * down)
    made = _prepared(lighting, grid, place)
    rows = maps.grid.shape[0]
    out = np.empty((*maps.grid.shape, 3), np.uint8)
    given, which = _extras(maps)
    over_rows(
        k.lit_rows,
        rows,
        still(_base_seen(maps)),
        *(still(np.ascontiguousarray(maps.or_default(kind), np.float32)) for kind in _BODY[1:]),
        still(np.ascontiguousarray(sunlit, np.float32)),
        still(made.numbers),
        still(made.harmonics),
        made.sharp,
        made.blurred,
        _LEVELS,
        ggx_table(),
        made.tone,
        which,
        *given,
        out,
    )
    return out


def _base_seen(maps: MapSet) -> AnyArray:
    """The colour of what is seen: through a pane, that of the board it lies on."""
    base = np.asarray(maps.or_default(MapKind.BASE_COLOUR), np.float32)
    if MapKind.TRANSMISSION in maps:
        clear = maps[MapKind.TRANSMISSION] * (1 - maps.or_default(MapKind.METALNESS))
        base = base * (1 - np.float32(1 - BOARD) * clear)[..., None]
    return np.ascontiguousarray(base, np.float32)


BOARD = 0.2
"""Reflectance of the board that a sheet lies on."""
_BODY = (MapKind.BASE_COLOUR, MapKind.NORMAL, MapKind.ROUGHNESS, MapKind.METALNESS, MapKind.AMBIENT_OCCLUSION)


def _extras(maps: MapSet) -> tuple[list[Any], int]:
    """The further lobes' maps in the kernel's order, and which of them count."""

    def of(kind: MapKind, plain: AnyArray = _NONE2) -> AnyArray:
        return still(np.ascontiguousarray(maps.or_default(kind), np.float32)) if kind in maps else plain

    def whole(kind: MapKind) -> AnyArray:
        return still(np.ascontiguousarray(maps.or_default(kind), np.float32))

    which = sum(bit for kind, bit in _BITS.items() if kind in maps)
    coat, sheen, turned = (bool(which & bit) for bit in (k.COAT, k.SHEEN, k.TURNED))
    coat_normal = whole(MapKind.COAT_NORMAL if MapKind.COAT_NORMAL in maps else MapKind.NORMAL) if coat else _NONE3
    f0 = still(np.float32(0.04) * whole(MapKind.SPECULAR_LEVEL)) if which & k.OWN_F0 else _NONE2
    glow = still(np.float32(EMISSION_CD) * whole(MapKind.EMISSION)) if which & k.GLOW else _NONE3
    angle = still(np.float32(np.pi) * whole(MapKind.ANISOTROPY_ANGLE)) if turned else _NONE2
    return [
        f0,
        of(MapKind.COAT),
        whole(MapKind.COAT_ROUGHNESS) if coat else _NONE2,
        coat_normal,
        of(MapKind.WATER),
        of(MapKind.SHEEN, _NONE3),
        whole(MapKind.SHEEN_ROUGHNESS) if sheen else _NONE2,
        still(sheen_table()) if sheen else _NONE2,
        of(MapKind.ANISOTROPY),
        angle,
        glow,
        of(MapKind.TRANSLUCENCY),
    ], which


_BITS = {
    MapKind.COAT: k.COAT,
    MapKind.SHEEN: k.SHEEN,
    MapKind.ANISOTROPY: k.TURNED,
    MapKind.EMISSION: k.GLOW,
    MapKind.TRANSLUCENCY: k.THROUGH,
    MapKind.SPECULAR_LEVEL: k.OWN_F0,
}
