"""What the worker hands to the window: finished pictures and readings, never pixels to compute on."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import NamedTuple

import numpy as np
import numpy.typing as npt

from ...core.buildup.seat import Stack
from ...core.errors import TesselError
from ...core.gather.seen import SeenProportion
from ...core.handover.check import Finding
from ...core.job.document import Source
from ...core.job.layers import Stroke, Surface
from ...core.maps import MapKind, MapSet
from ...core.plan.area import Area
from ...core.relief.section import Beds
from ...core.relief.told import ToldRelief
from ...core.repeat.judge import JoinVerdict, Verdict
from ...core.repeat.meters import SeamReading, SpacingReading
from ...core.repeat.quieten import Feature
from ...core.repeat.repetition import RepetitionReading
from ...core.sheet import AnyArray, Grid, Raster
from ..snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class SurfacePicture:
    """A surface evaluated for the build board: its maps, the stack they come from, and what a cut through it needs."""

    surface: Surface
    grid: Grid
    mips: list[AnyArray]
    maps: MapSet
    stack: Stack
    beds: Beds
    thumbs: dict[str, AnyArray]
    faults: dict[str, TesselError]
    ms: float
    fine: bool
    contact: dict[MapKind, list[AnyArray]] = field(default_factory=dict)
    findings: list[Finding] = field(default_factory=list)
    snapshot: Snapshot | None = None


@dataclass(frozen=True, slots=True)
class SurfaceParts:
    """Parts of a surface's picture that a stroke has changed: where each lies, and it at full size and smaller.

    ``stroke`` is the stroke as far as it is shown with them.
    """

    parts: tuple[tuple[Area, list[AnyArray]], ...]
    stroke: Stroke
    ms: float


@dataclass(frozen=True, slots=True)
class CutPicture:
    """The two cuts on the closed cell, as fractions from the left and from the top; how rough they are;
    and the worst spot, as fractions of the cell. ``laps`` are the overlaps as shares of the cell; ``patches`` the
    outlines of what covers the worst spots, mm from left and top.
    """

    path_x: npt.NDArray[np.float64]
    path_y: npt.NDArray[np.float64]
    along: tuple[float, float]
    worst: tuple[float, float]
    laps: tuple[float, float]
    patches: tuple[list[tuple[float, float]], ...] = ()


@dataclass(frozen=True, slots=True)
class MapReading:
    """The seam of one map: both axes, and where along each join it is worst, as fractions from the top and left;
    ``estimated`` where the source does not bring it.
    """

    kind: MapKind
    seams: tuple[SeamReading, SeamReading]
    worst: tuple[float, float]
    estimated: bool = False


@dataclass(frozen=True, slots=True)
class ChoicePicture:
    """The whole straight sheet, from which the repeat is chosen."""

    grid: Grid
    mips: list[AnyArray]


@dataclass(frozen=True, slots=True)
class SheetPicture:
    """A source made to repeat, with its meters. ``small`` is the sheet at a low resolution, for questions asked of it;
    ``before`` the same before it is shifted and touched up. ``verdicts`` of the joins across x and y, and ``of_maps``
    those of single maps, come a moment after the picture. ``plain`` is the sheet before it was mended.
    """

    source: Source
    grid: Grid
    mips: list[AnyArray]
    field_grid: Grid
    field_mips: list[AnyArray] | None
    cut: CutPicture | None
    seams: tuple[SeamReading, SeamReading]
    repetition: RepetitionReading
    drift: float
    ms: float
    small: MapSet
    before: MapSet
    per_map: tuple[MapReading, ...] = ()
    spacing: tuple[SpacingReading, SpacingReading] | None = None
    features: tuple[Feature, ...] = ()
    rough: bool = False
    plain: ChoicePicture | None = None
    verdicts: tuple[JoinVerdict, JoinVerdict] | None = None
    of_maps: Mapping[MapKind, tuple[Verdict, Verdict]] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class GatherPicture:
    """A source's photo and, where it has a size, the straight sheet before and after its light is evened."""

    source: Source
    photo: list[AnyArray] | None
    straight: AnyArray | None
    evened: AnyArray | None
    drift: tuple[float, float]
    proportion: float | None
    seen: SeenProportion | None = None
    lit: AnyArray | None = None
    told: ToldRelief | None = None
    alone: AnyArray | None = None
    """The relief lit without the picture's colours."""


@dataclass(frozen=True, slots=True)
class ScatterPicture:
    """A scatter sheet for its board."""

    source: Source
    grid: Grid
    mips: list[AnyArray]
    ms: float
    fine: bool


@dataclass(frozen=True, slots=True)
class RecipePicture:
    """A layer's recipe evaluated: small looks and costs of its steps, the chosen step large, the surface lit."""

    layer: str
    looks: dict[str, AnyArray]
    costs: dict[str, float]
    faults: dict[str, TesselError]
    step: str
    step_mips: list[AnyArray]
    span: str
    surface_mips: list[AnyArray]
    grid: Grid
    ms: float


@dataclass(frozen=True, slots=True)
class VariantPictures:
    """The same recipe with other seeds, lit."""

    layer: str
    looks: dict[int, AnyArray]


class Relief(NamedTuple):
    """A surface's relief as a scene is drawn with it: shares (H, W) float32 of the way from its lowest to its highest
    level, and both over the skin, mm.
    """

    shares: Raster
    low_mm: float
    high_mm: float


class SurfacePictures(NamedTuple):
    """A surface as a scene is drawn with it, (H, W, 3) uint8 each: base colour (with alpha where it is cut out),
    normal, packed occlusion, roughness and metalness; and of finishes, where it has any: coat, its roughness, sheen
    roughness and translucency in four channels; sheen, with alpha where the coat is water; emission; the coat's normal;
    the brushing (twice its angle as a vector, its strength) with what goes straight through as its alpha, of one pixel
    where there is neither. ``relief`` is there
    where faces are smooth and it is drawn by the renderer.
    """

    key: bytes
    base: AnyArray
    normal: AnyArray
    orm: AnyArray
    finish: tuple[AnyArray, ...] | None = None
    relief: Relief | None = None


@dataclass(frozen=True, slots=True)
class PlacedPicture:
    """A surface as a model shows it, and a swatch of it, (H, W, 3) uint8."""

    pictures: SurfacePictures
    swatch: AnyArray

    @property
    def nbytes(self) -> int:
        """What it holds."""
        _, base, normal, orm, finish, relief = self.pictures
        shares = (relief.shares,) if relief else ()
        return int(sum(one.nbytes for one in (self.swatch, base, normal, orm, *(finish or ()), *shares)))


@dataclass(frozen=True, slots=True, eq=False)
class SceneTextures:
    """Pictures of every surface in the scene; not ``complete`` while some still stand in for what is to come."""

    surfaces: dict[str, SurfacePictures]
    ms: float
    swatches: dict[str, AnyArray] = field(default_factory=dict)
    complete: bool = False
