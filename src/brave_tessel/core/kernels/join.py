"""The fused join of a layer with what lies beneath it."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
import numpy.typing as npt

from ..sheet import Raster
from .bands import over_rows
from .compiled import compiled, still

Planes = tuple[Raster, Raster, Raster, Raster]
"""Base colour (H, W, 3), height, roughness, metalness (H, W)."""
Upper = tuple[npt.NDArray[np.uint8], Raster]
"""Number of the layer on top, and its margin over what lies beneath it in mm; both (H, W)."""


class Meeting(NamedTuple):
    """How a layer meets the ground: the number it is known by; its level in mm; the height in mm it mixes over; how
    far it follows the ground; the strength of colour, height, roughness and metalness; whether it always shows.
    """

    number: int
    level: float
    feather: float
    drape: float
    on: tuple[float, float, float, float]
    uncontested: bool = False


class _Terms(NamedTuple):
    """A meeting as the kernel reads it."""

    number: np.uint8
    level: np.float32
    per_mm: np.float32
    drape: np.float32
    lead: np.float32
    on: tuple[np.float32, np.float32, np.float32, np.float32]


@compiled
def _join_rows(
    first: int,
    last: int,
    ground: Planes,
    layer: Planes,
    coverage: Raster,
    under: Raster,
    before: Upper,
    out: Planes,
    weight: Raster,
    after: Upper,
    terms: _Terms,
) -> None:
    number, level, per_mm, drape, lead, on = terms
    colour_0, height_0, rough_0, metal_0 = ground
    colour_1, height_1, rough_1, metal_1 = layer
    colour, height, rough, metal = out
    top_0, margin_0 = before
    top_1, margin = after
    columns = weight.shape[1]
    one, zero = np.float32(1), np.float32(0)
    for r in range(first, last):
        for c in range(columns):
            below = height_0[r, c]
            over = level + on[1] * height_1[r, c] + drape * under[r, c] - below
            share = coverage[r, c] * min(one, max(zero, lead + over * per_mm))
            weight[r, c] = share
            shows = share >= np.float32(0.5)
            margin[r, c] = over if shows else margin_0[r, c]
            top_1[r, c] = number if shows else top_0[r, c]
            height[r, c] = below + on[1] * share * over
        if on[0] > zero:
            for c in range(columns):
                mixed = on[0] * weight[r, c]
                for k in range(3):
                    colour[r, c, k] = colour_0[r, c, k] + mixed * (colour_1[r, c, k] - colour_0[r, c, k])
        if on[2] > zero:
            for c in range(columns):
                rough[r, c] = rough_0[r, c] + on[2] * weight[r, c] * (rough_1[r, c] - rough_0[r, c])
        if on[3] > zero:
            for c in range(columns):
                metal[r, c] = metal_0[r, c] + on[3] * weight[r, c] * (metal_1[r, c] - metal_0[r, c])


def join_by_height(
    ground: Planes, layer: Planes, coverage: Raster, before: Upper, meeting: Meeting, under: Raster | None = None
) -> tuple[Planes, Raster, Upper]:
    """Planes after the join, the layer's share (H, W) in [0, 1], and who lies on top by how much.

    ``before`` and the last result are (number of the layer on top (H, W) uint8, its margin over the ground
    beneath it (H, W), mm); the layer takes its number where its share is one half or more.

    The layer's top is ``level + relief + drape · ground``. Over the feather (centred on equal heights) the share rises
    linearly from 0 to 1; coverage scales it. Planes without strength stay the same objects. ``under`` is the ground as
    the layer drapes over it, where that is not the ground itself.
    """
    height = ground[1]
    on, feather = meeting.on, meeting.feather
    # The kernel knows no number so small, and would take it for nothing while the plane waits to be written.
    on = tuple(strength if strength > 1e-6 else 0.0 for strength in on)  # type: ignore[assignment]
    # Planes without strength are not written; a pixel stands in for them.
    out: Planes = tuple(  # type: ignore[assignment]
        np.empty_like(plane) if strength > 0 or plane is height else np.empty((1, 1, 3)[: plane.ndim], np.float32)
        for plane, strength in zip(ground, on, strict=True)
    )
    weight = np.empty_like(height)
    after: Upper = (np.empty(height.shape, np.uint8), np.empty_like(height))
    hard = feather < 1e-6
    # In a hard contest equal heights are won by the later layer.
    lead = 1.0 if meeting.uncontested or hard else 0.5
    per_mm = 0.0 if meeting.uncontested else 1e9 if hard else 1 / feather
    on_32 = tuple(np.float32(strength) for strength in on)
    terms = _Terms(
        np.uint8(meeting.number),
        np.float32(meeting.level),
        np.float32(per_mm),
        np.float32(meeting.drape),
        np.float32(lead),
        on_32,  # type: ignore[arg-type]
    )
    below, above, upper = (tuple(still(plane) for plane in planes) for planes in (ground, layer, before))
    over_rows(
        _join_rows,
        height.shape[0],
        below,
        above,
        still(coverage),
        still(height if under is None else np.ascontiguousarray(under)),
        upper,
        out,
        weight,
        after,
        terms,
    )
    joined: Planes = tuple(
        made if strength > 0 else plane for made, plane, strength in zip(out, ground, on, strict=True)
    )  # type: ignore[assignment]
    return joined, weight, after


@compiled
def _mix_rows(
    first: int, last: int, ground: Raster, layer: Raster, share: Raster, out: Raster, strength: np.float32
) -> None:
    for r in range(first, last):
        for c in range(ground.shape[1]):
            part = strength * share[r, c]
            for k in range(ground.shape[2]):
                out[r, c, k] = ground[r, c, k] + part * (layer[r, c, k] - ground[r, c, k])


def mix_by_share(ground: Raster, layer: Raster, share: Raster, strength: float) -> Raster:
    """Linear mix of two rasters (H, W) or (H, W, C) by the layer's share (H, W) times a strength."""
    shape = (*ground.shape[:2], -1)
    flat = [np.ascontiguousarray(pixels).reshape(shape) for pixels in (ground, layer)]
    out = np.empty(flat[0].shape, np.float32)
    over_rows(_mix_rows, out.shape[0], *(still(pixels) for pixels in flat), still(share), out, np.float32(strength))
    return out.reshape(ground.shape)
