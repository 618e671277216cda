"""How a layer meets what lies beneath it. The mathematics is written down in ``docs/build-up.md``."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated

import numpy as np

from ..job.layers import MapMix
from ..job.nodes import Setting
from ..kernels.join import Meeting, join_by_height, mix_by_share
from ..maps import LAYERED, MapKind, MapSet
from ..operation import Fraction, Length, Toggle, settings
from ..relief.wrapped_blur import wrapped_gaussian
from ..sheet import Grid, Raster
from .mixing import detail_onto, finish_onto, mixed_planes, own_detail
from .stack import Stack, bare

__all__ = ["ByHeight", "LaidOver", "Seat", "Stack", "bare", "lay", "seat_of"]

Level = Annotated[
    float,
    Length(
        -5,
        5,
        least=-500,
        most=500,
        help="How high the layer lies: above 0 it rides on the ground, below 0 it sits in its hollows.",
    ),
]
Drape = Annotated[float, Fraction(help="0 lies flat at its level, 1 follows the ground.")]
Form = Annotated[float, Fraction(0, 2, least=-10, most=10, help="How much of its broad shapes is kept.")]
Grain = Annotated[float, Fraction(0, 2, least=-10, most=10, help="How much of its fine relief is kept.")]
Split = Annotated[
    float,
    Length(
        0.5, 60, log=True, least=0.05, most=5000, help="Wavelength at which broad shapes end and fine relief begins."
    ),
]
Contrast = Annotated[
    float, Fraction(0, 3, least=0, most=20, help="How far its relief is stretched about its own mean.")
]
Through = Annotated[float, Fraction(help="How much fine relief beneath still reads through it, where it drapes.")]
Over = Annotated[bool, Toggle(help="Its relief goes in where it came out.")]


@dataclass(frozen=True, slots=True, kw_only=True)
class Seat:
    """How a layer meets what lies beneath; ``contest`` is whether heights decide who shows."""

    level: Level = 0.0
    drape: Drape = 0.0
    form: Form = 1.0
    grain: Grain = 1.0
    split: Split = 6.0
    contrast: Contrast = 1.0
    show_through: Through = 1.0
    turn_over: Over = False

    @property
    def contest(self) -> bool:
        """Whether heights decide which of the two shows."""
        return True

    @property
    def blend(self) -> float:
        """Height over which layer and ground mix, mm."""
        return 0.0


@settings("seat.by_height", label="By height", version=2)
@dataclass(frozen=True, slots=True, kw_only=True)
class ByHeight(Seat):
    """The layer shows where it is higher than the ground; see :func:`lay`."""

    feather: Annotated[
        float, Length(0, 3, least=0, most=100, help="Height over which layer and ground mix; 0 is a hard edge.")
    ] = 0.3

    @property
    def blend(self) -> float:
        """Height over which layer and ground mix, mm."""
        return self.feather


@settings("seat.over", label="Over")
@dataclass(frozen=True, slots=True, kw_only=True)
class LaidOver(Seat):
    """The layer shows wherever it is covered, whatever the heights; see :func:`lay`."""

    drape: Drape = 1.0

    @property
    def contest(self) -> bool:
        """It shows wherever it is covered."""
        return False


def seat_of(setting: Setting) -> Seat:
    """A seat from its setting in the document, its values checked.

    Raises
    ------
    OutOfRangeError
        when a stored value is outside what is allowed.
    """
    seat = setting.operation.run(**setting.bound())
    assert isinstance(seat, Seat)
    return seat


def own_relief(height: Raster, seat: Seat, grid: Grid) -> Raster:
    """The layer's relief as the seat lays it, before its level; mm."""
    made = height
    if seat.form != seat.grain or seat.form != 1:
        broad = wrapped_gaussian(height, seat.split / 4, grid)
        made = np.float32(seat.form) * broad + np.float32(seat.grain) * (height - broad)
    if seat.contrast != 1:
        mean = np.float32(made.mean(dtype=np.float64))
        made = mean + np.float32(seat.contrast) * (made - mean)
    return np.ascontiguousarray(-made if seat.turn_over else made, np.float32)


def ground_read(ground: Raster, seat: Seat, grid: Grid) -> Raster:
    """The ground as a draped layer follows it: broad shapes, and as much of the fine relief as shows through; mm."""
    if seat.show_through == 1 or seat.drape == 0:
        return ground
    broad = wrapped_gaussian(ground, seat.split / 4, grid)
    return np.asarray(broad + np.float32(seat.show_through) * (ground - broad), np.float32)


def reach_mm(seat: Seat) -> float:
    """How far around a pixel a seat looks at the ground, mm."""
    return 0.0 if seat.show_through == 1 or seat.drape == 0 else seat.split


def lay(
    below: Stack,
    layer: MapSet,
    coverage: Raster | None,
    mixes: Mapping[MapKind, MapMix],
    seat: Seat,
    relief: Raster | None = None,
) -> Stack:
    """One layer joined onto a stack.

    The layer's top is ``level + relief + drape · ground``; it shows where its top is higher than the ground, mixed
    linearly over ``feather`` and scaled by its coverage; without a contest its share is its coverage. Of equal heights
    the later layer lies on top at feather 0. The first layer has nothing beneath it and always shows. ``relief`` is the
    layer's own where it is known already (:func:`own_relief`).
    """
    grid = below.grid
    cover = np.ones(grid.shape, np.float32) if coverage is None else np.ascontiguousarray(coverage)
    colour, height, rough, metal = mixed_planes(below.planes, layer, mixes, cover)
    if MapKind.HEIGHT in layer:
        height = own_relief(height, seat, grid) if relief is None else relief

    def on(kind: MapKind) -> float:
        return mixes[kind].strength if kind in mixes and kind in layer else 0.0

    number = below.layers + 1
    strengths = (on(LAYERED[0]), on(LAYERED[1]), on(LAYERED[2]), on(LAYERED[3]))
    alone = below.layers == 0 or not seat.contest
    meeting = Meeting(number, seat.level, seat.blend, seat.drape, strengths, uncontested=alone)
    joined, share, (top, margin) = join_by_height(
        below.planes,
        (colour, height, rough, metal),
        cover,
        (below.top, below.margin),
        meeting,
        ground_read(below.height, seat, grid),
    )
    done = Stack(grid, joined, top, margin, share, number, below.detail, below.shade, below.water)
    done = replace(done, finish=finish_onto(below.finish, layer, share, mixes), open=left_open(below, share))
    return _with_finer_maps(done, below, layer, mixes, seat)


def left_open(below: Stack, share: Raster) -> Raster | None:
    """How much of the bare sheet is still open after a layer that lies in its share; None where nothing is."""
    if below.layers > 0 and below.open is None:
        return None
    after = 1 - share if below.open is None else below.open * (1 - share)
    return np.asarray(after, np.float32) if float(after.max()) > 0.002 else None


def _with_finer_maps(done: Stack, below: Stack, layer: MapSet, mixes: Mapping[MapKind, MapMix], seat: Seat) -> Stack:
    """The layer's own normals and occlusion carried along, and water covered where the layer lies on it."""
    normal, shade = mixes.get(MapKind.NORMAL, MapMix()), mixes.get(MapKind.AMBIENT_OCCLUSION, MapMix())
    own = own_detail(layer)
    if own is not None and seat.turn_over:
        own = -own
    if normal.strength > 0 and (own is not None or below.detail is not None):
        done = replace(done, detail=detail_onto(below.detail, own, done.share, normal))
    own_shade = layer.maps.get(MapKind.AMBIENT_OCCLUSION)
    if shade.strength > 0 and (own_shade is not None or below.shade is not None):
        one = np.ones(done.grid.shape, np.float32)
        before = one if below.shade is None else below.shade
        done = replace(
            done, shade=mix_by_share(before, one if own_shade is None else own_shade, done.share, shade.strength)
        )
    if below.water is not None and MapKind.BASE_COLOUR in layer:
        # A layer without a colour of its own, such as grime in the roughness alone, leaves the water open.
        done = replace(done, water=below.water.covered(done.share))
    return done
