"""What is drawn, and how a frame looks."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import IntEnum

import numpy as np
import numpy.typing as npt

from ..core.job.light import Rig
from ..core.light.dome import Dome, Pictures, dome_near, dome_of, eye_of, gains, no_pictures
from .camera import Camera
from .thinned import StandIn

Triple = tuple[float, float, float]


@dataclass(frozen=True, slots=True)
class Seen:
    """A three-sided laying for the shader: see :class:`brave_tessel.core.place.laying.Sides`; lengths in metres."""

    axes: tuple[Triple, ...]
    frames: tuple[Triple, ...]
    origin: Triple
    sharpness: float
    relief: float
    finish: tuple[float, float, float, float]
    shift: tuple[float, float]


@dataclass(frozen=True, slots=True, eq=False)
class DrawPart:
    """Triangle corners in metres: positions, normals (N, 3), UVs in repeats with v up and their w (N, 3).

    ``seen`` is a three-sided laying, which takes the place of the UVs; ``part`` names the part it belongs to; what is
    ``clear`` is looked through, and casts no shadow. ``light`` is drawn in its place while it moves, once it is made.
    ``box`` holds it, m, where that is known.
    """

    id: str
    positions: npt.NDArray[np.float32]
    normals: npt.NDArray[np.float32]
    uv: npt.NDArray[np.float32]
    surface: str
    bare: Triple
    repeat_m: tuple[float, float] = (1.0, 1.0)
    seen: Seen | None = None
    part: str = ""
    clear: bool = False
    light: StandIn | None = None
    box: tuple[Triple, Triple] | None = None

    @property
    def look(self) -> tuple[object, ...]:
        """What it has in common with others that can be drawn with it."""
        return self.surface, self.bare if not self.surface else (), self.repeat_m, self.seen, self.clear


@dataclass(frozen=True, slots=True)
class SceneLight:
    """A rig's light as a scene takes it: its dome, the gain from cd/m² to exposed light, the view transform."""

    dome: Dome
    gain: Triple
    transform: str


def scene_light(rig: Rig, pictures: Pictures = no_pictures, *, quick: bool = False) -> SceneLight:
    """The light of a rig; a ``quick`` one keeps the sky while only the sun turns."""
    dome = (dome_near if quick else dome_of)(rig, pictures)
    r, g, b = (float(v) for v in gains(rig, dome))
    return SceneLight(dome, (r, g, b), eye_of(rig).transform)


class Shows(IntEnum):
    """What is drawn of the faces; from ``COLOUR`` on as codes, without light."""

    LIT = 0
    SEAMS = 1
    CHEQUER = 2
    COLOUR = 3
    ROUGHNESS = 4
    DENSITY = 5

    @property
    def flat(self) -> bool:
        """Whether no light falls on it."""
        return self >= Shows.COLOUR


LEAST_DENSITY, MOST_DENSITY = 64.0, 8192.0
"""Ends of the scale of density, pixels a metre."""


@dataclass(frozen=True, slots=True)
class Look:
    """How a frame is drawn. ``chosen`` names parts that are tinted; ``marked`` are faces drawn over in the colour of a
    selection; while ``moving``, large parts are drawn by their thinned stand-ins. ``exposure`` is a factor over the
    light's own; one that ``adapts`` is opened further under a roof; ``background`` is an sRGB code of what lies behind,
    the sky without one; ``sheet_px`` the longer side of a surface's picture, for the density of what is shown.
    """

    camera: Camera
    width: int
    height: int
    light: SceneLight = field(default_factory=lambda: scene_light(Rig()))
    shadows: bool = True
    chosen: frozenset[str] = frozenset()
    shows: Shows = Shows.LIT
    sheet_px: float = 2048.0
    moving: bool = False
    marked: tuple[DrawPart, ...] = ()
    exposure: float = 1.0
    adapts: bool = False
    background: Triple | None = None
