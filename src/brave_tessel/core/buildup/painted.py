"""Painted layers: strokes that change colour, height and roughness of what lies beneath."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np

from ..colour import hex_to_linear
from ..job.layers import MapMix, Stroke
from ..maps import MapKind
from ..plan.area import Area
from ..relief.estimate import wrapped_gaussian
from ..sheet import Grid, Raster
from .stack import Stack
from .strokes import Tips, cover_of, cover_within


def paint_on(
    below: Stack,
    strokes: Sequence[Stroke],
    coverage: Raster | None,
    mixes: Mapping[MapKind, MapMix],
    tips: Tips | None = None,
    area: Area | None = None,
    level: float | None = None,
) -> Stack:
    """What lies beneath with strokes laid on it, each on the part of the sheet it touches.

    ``raise`` and ``lower`` move the relief by the stroke's amount in mm, ``flatten`` brings it to where the stroke
    began,
    ``smooth`` evens it over the brush's width, ``roughness`` sets it, ``colour`` paints. A stroke that erases
    brings back
    what lay beneath. With an ``area`` all given and all returned is that part of the sheet. ``level`` is the height
    to flatten
    to where it is known already: on an area it has to be, for where the stroke began may lie elsewhere
    (:func:`level_at`).
    """
    grid = below.grid
    colour, height, rough, metal = (plane.copy() for plane in below.planes)
    share = np.zeros(grid.shape, np.float32)
    strengths = {
        kind: mixes.get(kind, MapMix()).strength for kind in (MapKind.BASE_COLOUR, MapKind.HEIGHT, MapKind.ROUGHNESS)
    }
    smooth: dict[float, Raster] = {}
    for stroke in strokes:
        flat = level_at(height, stroke, below.grid) if level is None else level
        if stroke.into == "smooth" and stroke.size_mm not in smooth:
            smooth[stroke.size_mm] = wrapped_gaussian(below.height, stroke.size_mm / 4, grid)
        for window in cover_of(stroke, grid, tips or {}) if area is None else cover_within(stroke, area, tips or {}):
            rows = (np.arange(window.cover.shape[0]) + window.row) % grid.height_px
            columns = (np.arange(window.cover.shape[1]) + window.column) % grid.width_px
            at = np.ix_(rows, columns)
            cover = window.cover if coverage is None else window.cover * coverage[at]
            if stroke.erase:
                for plane, before in ((colour, below.planes[0]), (height, below.planes[1]), (rough, below.planes[2])):
                    weight = cover if plane.ndim == 2 else cover[..., None]
                    plane[at] += weight * (before[at] - plane[at])
                share[at] *= 1 - cover
                continue
            if stroke.into == "colour":
                paint = np.array(hex_to_linear(stroke.colour), np.float32)
                colour[at] += (cover * np.float32(strengths[MapKind.BASE_COLOUR]))[..., None] * (paint - colour[at])
            elif stroke.into == "roughness":
                rough[at] += (
                    cover
                    * np.float32(strengths[MapKind.ROUGHNESS])
                    * (np.float32(min(max(stroke.amount, 0), 1)) - rough[at])
                )
            else:
                height[at] += _lift(stroke, cover, height[at], flat, smooth.get(stroke.size_mm), at) * np.float32(
                    strengths[MapKind.HEIGHT]
                )
            share[at] = np.maximum(share[at], cover)
    shows = share >= 0.5
    number = below.layers + 1
    top = np.where(shows, np.uint8(number), below.top).astype(np.uint8)
    margin = np.where(shows, height - below.height, below.margin).astype(np.float32)
    return replace(below, planes=(colour, height, rough, metal), top=top, margin=margin, share=share, layers=number)


def level_at(height: Raster, stroke: Stroke, grid: Grid) -> float:
    """The height that a stroke flattens to: that of the relief where it began, mm; 0 for other strokes."""
    if stroke.into != "flatten" or not stroke.points:
        return 0.0
    row, column = grid.row_column(*stroke.points[0])
    return float(height[row, column])


def _lift(
    stroke: Stroke, cover: Raster, height: Raster, level: float, smooth: Raster | None, at: tuple[np.ndarray, ...]
) -> Raster:
    if stroke.into == "flatten":
        return np.asarray(cover * (np.float32(level) - height), np.float32)
    if stroke.into == "smooth" and smooth is not None:
        return np.asarray(cover * (smooth[at] - height), np.float32)
    return np.asarray(cover * np.float32(stroke.amount if stroke.into == "raise" else -stroke.amount), np.float32)
