"""The maps of a surface: what each kind means, how it is stored, what it is where nothing is said."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from enum import StrEnum

import numpy as np

from .sheet import Grid, Raster


class MapKind(StrEnum):
    """Channel images of a surface, by their open-standard names."""

    BASE_COLOUR = "base_colour"
    HEIGHT = "height"
    NORMAL = "normal"
    ROUGHNESS = "roughness"
    METALNESS = "metalness"
    AMBIENT_OCCLUSION = "ambient_occlusion"
    OPACITY = "opacity"
    CURVATURE = "curvature"
    SPECULAR_LEVEL = "specular_level"
    EMISSION = "emission"
    SHEEN = "sheen"
    SHEEN_ROUGHNESS = "sheen_roughness"
    COAT = "coat"
    COAT_ROUGHNESS = "coat_roughness"
    COAT_NORMAL = "coat_normal"
    ANISOTROPY = "anisotropy"
    ANISOTROPY_ANGLE = "anisotropy_angle"
    TRANSMISSION = "transmission"
    TRANSLUCENCY = "translucency"
    WATER = "water"
    WATER_DEPTH = "water_depth"
    WETNESS = "wetness"
    KIND_ID = "kind_id"
    PIECE_ID = "piece_id"


@dataclass(frozen=True, slots=True)
class MapTrait:
    """What holds for every map of a kind.

    ``colour`` maps are stored sRGB-encoded and blended in linear light; all others are data.
    ``default`` is the value where no layer says anything. Height is in mm. Maps that do not mix hold one
    colour for each thing and are never averaged.
    """

    label: str
    channels: int
    colour: bool
    default: tuple[float, ...]
    depth: int
    derived: bool = False
    mixes: bool = True


TRAITS: Mapping[MapKind, MapTrait] = {
    MapKind.BASE_COLOUR: MapTrait("Base colour", 3, True, (0.18, 0.18, 0.18), 8),
    MapKind.HEIGHT: MapTrait("Height", 1, False, (0.0,), 16),
    MapKind.NORMAL: MapTrait("Normal", 3, False, (0.0, 0.0, 1.0), 16, derived=True),
    MapKind.ROUGHNESS: MapTrait("Roughness", 1, False, (0.8,), 8),
    MapKind.METALNESS: MapTrait("Metalness", 1, False, (0.0,), 8),
    MapKind.AMBIENT_OCCLUSION: MapTrait("Occlusion", 1, False, (1.0,), 8, derived=True),
    MapKind.OPACITY: MapTrait("Opacity", 1, False, (1.0,), 8),
    MapKind.CURVATURE: MapTrait("Curvature", 1, False, (0.5,), 8, derived=True),
    MapKind.SPECULAR_LEVEL: MapTrait("Specular level", 1, False, (1.0,), 8),
    MapKind.EMISSION: MapTrait("Emission", 3, True, (0.0, 0.0, 0.0), 8),
    MapKind.SHEEN: MapTrait("Sheen", 3, True, (0.0, 0.0, 0.0), 8),
    MapKind.SHEEN_ROUGHNESS: MapTrait("Sheen roughness", 1, False, (0.3,), 8),
    MapKind.COAT: MapTrait("Coat", 1, False, (0.0,), 8),
    MapKind.COAT_ROUGHNESS: MapTrait("Coat roughness", 1, False, (0.05,), 8),
    MapKind.COAT_NORMAL: MapTrait("Coat normal", 3, False, (0.0, 0.0, 1.0), 16),
    MapKind.ANISOTROPY: MapTrait("Anisotropy", 1, False, (0.0,), 8),
    MapKind.ANISOTROPY_ANGLE: MapTrait("Anisotropy angle", 1, False, (0.0,), 8),
    MapKind.TRANSMISSION: MapTrait("Transmission", 1, False, (0.0,), 8),
    MapKind.TRANSLUCENCY: MapTrait("Translucency", 1, False, (0.0,), 8),
    MapKind.WATER: MapTrait("Water", 1, False, (0.0,), 8, derived=True),
    MapKind.WATER_DEPTH: MapTrait("Water depth", 1, False, (0.0,), 16, derived=True),
    MapKind.WETNESS: MapTrait("Wetness", 1, False, (0.0,), 8, derived=True),
    MapKind.KIND_ID: MapTrait("Kind ID", 3, True, (0.0, 0.0, 0.0), 8, mixes=False),
    MapKind.PIECE_ID: MapTrait("Piece ID", 3, True, (0.0, 0.0, 0.0), 8, mixes=False),
}
FINISH = (
    MapKind.SPECULAR_LEVEL,
    MapKind.EMISSION,
    MapKind.SHEEN,
    MapKind.SHEEN_ROUGHNESS,
    MapKind.COAT,
    MapKind.COAT_ROUGHNESS,
    MapKind.COAT_NORMAL,
    MapKind.ANISOTROPY,
    MapKind.ANISOTROPY_ANGLE,
    MapKind.TRANSMISSION,
    MapKind.TRANSLUCENCY,
)
"""Maps of finishes that few surfaces have: they are there only where a layer brings them, and cost nothing otherwise.

Specular level is a factor of the reflectance of what is not metal (KHR_materials_specular); emission 1 is
``EMISSION_CD`` cd/m²; an anisotropy angle is in half turns, counter-clockwise from +x.
"""
EMISSION_CD = 1000.0
SURFACE_MAPS = tuple(kind for kind in MapKind if TRAITS[kind].mixes)
"""Maps a surface yields; opacity and finishes only where it has them."""
WET = (MapKind.WATER, MapKind.WATER_DEPTH, MapKind.WETNESS)
"""What a surface with water on it tells of it: where it stands, how deep in mm, how wet the ground is."""
IN_MM = frozenset({MapKind.HEIGHT, MapKind.WATER_DEPTH})
SOMETIMES = frozenset({MapKind.OPACITY, *FINISH, *WET})
"""Maps that a surface need not have."""
LAYERED = (MapKind.BASE_COLOUR, MapKind.HEIGHT, MapKind.ROUGHNESS, MapKind.METALNESS)
"""Maps that layers carry and mix. Normal and occlusion follow from the joined relief."""


BLENDED = (*LAYERED, MapKind.NORMAL, MapKind.AMBIENT_OCCLUSION, MapKind.OPACITY, *FINISH)
"""Maps of a layer that have a switch: those that mix, its finer normals and occlusion, and what is cut out of it."""


@dataclass(frozen=True, slots=True)
class MapSet:
    """Maps that share one grid. Normals point x right, y up, z out; height is in mm."""

    grid: Grid
    maps: Mapping[MapKind, Raster] = field(default_factory=dict)

    def __iter__(self) -> Iterator[MapKind]:
        return iter(self.maps)

    def __contains__(self, kind: object) -> bool:
        return kind in self.maps

    def __getitem__(self, kind: MapKind) -> Raster:
        return self.maps[kind]

    def or_default(self, kind: MapKind) -> Raster:
        """The map, or a plain one of the kind's default."""
        if kind in self.maps:
            return self.maps[kind]
        return plain(self.grid, TRAITS[kind].default)

    def with_maps(self, **maps: Raster) -> MapSet:
        """A set in which the named maps are replaced or added."""
        return MapSet(self.grid, {**self.maps, **{MapKind(name): pixels for name, pixels in maps.items()}})

    @property
    def nbytes(self) -> int:
        """Bytes of all its maps, for the cache."""
        return sum(pixels.nbytes for pixels in self.maps.values())


def plain(grid: Grid, value: tuple[float, ...]) -> Raster:
    """A map of one value; (H, W) for one channel, (H, W, C) otherwise."""
    shape = grid.shape if len(value) == 1 else (*grid.shape, len(value))
    return np.broadcast_to(np.asarray(value if len(value) > 1 else value[0], np.float32), shape)
