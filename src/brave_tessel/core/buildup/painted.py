"""Painted layers: strokes that change colour, height and roughness of what lies beneath."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from types import MappingProxyType
from typing import NamedTuple

import numpy as np

from ..colour import hex_to_linear
from ..job.layers import MapMix, Stroke
from ..maps import MapKind
from ..plan.area import Area
from ..relief.wrapped_blur import wrapped_gaussian
from ..sheet import Grid, Raster
from .stack import Stack
from .strokes import Tips, cover_of, cover_within

Place = tuple[np.ndarray, ...]
"""Rows and columns of a window, as :func:`numpy.ix_` gives them."""


class Known(NamedTuple):
    """What is known beside the stack itself: the pictures of tips; the part of the sheet worked out (all of it
    without); the height in mm to flatten to, which on a part has to be given (:func:`height_at_start`).
    """

    tips: Tips = MappingProxyType({})
    area: Area | None = None
    flat: float | None = None


NOTHING_KNOWN = Known()


def paint_on(
    below: Stack,
    strokes: Sequence[Stroke],
    coverage: Raster | None,
    mixes: Mapping[MapKind, MapMix],
    known: Known = NOTHING_KNOWN,
) -> Stack:
    """What lies beneath with strokes laid on it, each on the part of the sheet it touches.

    ``raise`` and ``lower`` move the relief by the stroke's amount in mm, ``flatten`` brings it to where the stroke
    began, ``smooth`` evens it over the brush's width, ``roughness`` sets it, ``colour`` paints. A stroke that erases
    brings back what lay beneath. ``coverage`` (H, W) weighs every stroke. With an area all given and all returned is
    that part of the sheet.
    """
    grid = below.grid
    work = _Work(below, known, {kind: mixes.get(kind, MapMix()).strength for kind in MapKind})
    for stroke in strokes:
        tips, area = known.tips, known.area
        for window in cover_of(stroke, grid, tips) if area is None else cover_within(stroke, area, tips):
            rows = (np.arange(window.cover.shape[0]) + window.row) % grid.height_px
            columns = (np.arange(window.cover.shape[1]) + window.column) % grid.width_px
            at = np.ix_(rows, columns)
            work.lay(stroke, window.cover if coverage is None else window.cover * coverage[at], at)
        work.begun = None
    shows = work.share >= 0.5
    number = below.layers + 1
    top = np.where(shows, np.uint8(number), below.top).astype(np.uint8)
    margin = np.where(shows, work.height - below.height, below.margin).astype(np.float32)
    planes = (work.colour, work.height, work.rough, work.metal)
    return replace(below, planes=planes, top=top, margin=margin, share=work.share, layers=number)


class _Work:
    """The planes while strokes are laid on them."""

    def __init__(self, below: Stack, known: Known, strengths: Mapping[MapKind, float]) -> None:
        self.below, self.known, self.strengths = below, known, strengths
        self.colour, self.height, self.rough, self.metal = (plane.copy() for plane in below.planes)
        self.share = np.zeros(below.grid.shape, np.float32)
        self.begun: float | None = None
        self._smooth: dict[float, Raster] = {}

    def lay(self, stroke: Stroke, cover: Raster, at: Place) -> None:
        """A window of a stroke; ``at`` are its rows and columns on the sheet."""
        if stroke.erase:
            self._erase(cover, at)
            return
        if stroke.into == "colour":
            paint = np.array(hex_to_linear(stroke.colour), np.float32)
            weight = (cover * np.float32(self.strengths[MapKind.BASE_COLOUR]))[..., None]
            self.colour[at] += weight * (paint - self.colour[at])
        elif stroke.into == "roughness":
            weight = cover * np.float32(self.strengths[MapKind.ROUGHNESS])
            self.rough[at] += weight * (np.float32(min(max(stroke.amount, 0), 1)) - self.rough[at])
        else:
            self.height[at] += self._lift(stroke, cover, at) * np.float32(self.strengths[MapKind.HEIGHT])
        self.share[at] = np.maximum(self.share[at], cover)

    def _erase(self, cover: Raster, at: Place) -> None:
        for plane, before in zip((self.colour, self.height, self.rough), self.below.planes, strict=False):
            weight = cover if plane.ndim == 2 else cover[..., None]
            plane[at] += weight * (before[at] - plane[at])
        self.share[at] *= 1 - cover

    def _lift(self, stroke: Stroke, cover: Raster, at: Place) -> Raster:
        if stroke.into == "flatten":
            return np.asarray(cover * (np.float32(self._flat(stroke)) - self.height[at]), np.float32)
        if stroke.into == "smooth":
            return np.asarray(cover * (self._smoothed(stroke.size_mm)[at] - self.height[at]), np.float32)
        return np.asarray(cover * np.float32(stroke.amount if stroke.into == "raise" else -stroke.amount), np.float32)

    def _flat(self, stroke: Stroke) -> float:
        """The height to flatten to, as the relief was when the stroke began."""
        if self.known.flat is not None:
            return self.known.flat
        if self.begun is None:
            self.begun = height_at_start(self.height, stroke, self.below.grid)
        return self.begun

    def _smoothed(self, size_mm: float) -> Raster:
        if size_mm not in self._smooth:
            self._smooth[size_mm] = wrapped_gaussian(self.below.height, size_mm / 4, self.below.grid)
        return self._smooth[size_mm]


def height_at_start(height: Raster, stroke: Stroke, grid: Grid) -> float:
    """The height that a stroke flattens to: that of the relief where it began, mm; 0 for other strokes."""
    if stroke.into != "flatten" or not stroke.points:
        return 0.0
    row, column = grid.row_column(*stroke.points[0])
    return float(height[row, column])
