"""Bands of surfaces packed on one sheet, named, sized and padded, with a list of where each is."""

from __future__ import annotations

import json
from dataclasses import dataclass
from pathlib import Path

import numpy as np

from ....core.buildup.water import baked
from ....core.errors import CancelledError
from ....core.handover.names import file_stem
from ....core.handover.packing import packed
from ....core.job.document import Delivery, Job
from ....core.job.layers import Band, Surface
from ....core.maps import TRAITS, MapKind, MapSet
from ....core.repeat.resample import resampled
from ....core.sheet import Grid, Raster
from ....formats.disk import write_atomically
from ..output import Output, Planned, Writing, output
from .maps_png import encode_map, included

LEAST_PAD = 4
STEPS = 24
"""Sizes that are tried until the bands fill the sheet."""


@dataclass(frozen=True, slots=True)
class Strip:
    """A band on the sheet: where its own pixels begin, from the lower left, and how many there are."""

    surface: Surface
    band: Band
    x: int
    y: int
    wide: int
    tall: int


@dataclass(frozen=True, slots=True)
class Plan:
    """A sheet of ``px`` pixels, ``pad`` of them round each strip, and how large one is."""

    px: int
    pad: int
    mm_per_px: float
    strips: tuple[Strip, ...]


@output("band-sheet", label="Sheet of bands (.png, .json)", tip="Every band cut from the surfaces, packed and named")
class BandSheet(Output):
    """One sheet for all bands, at one scale."""

    def planned(self, job: Job, delivery: Delivery, surfaces: tuple[Surface, ...]) -> list[Planned]:
        if plan_of(surfaces, delivery.px) is None:
            return []
        stem = f"{file_stem(job.name)}_bands"
        files = [
            Planned(f"{stem}_{MapKind(entry.id).value}.png", "Bands", entry.depth, delivery.px**2 * entry.depth // 8)
            for entry in included(delivery, job, *surfaces)
        ]
        return [*files, Planned(f"{stem}.json", "Where each band is", 8, 2000)]

    def write(self, writing: Writing) -> list[Path]:
        plan = plan_of(writing.surfaces, writing.delivery.px)
        if plan is None:
            return []
        maps = _painted(writing, plan)
        stem = f"{file_stem(writing.snapshot.job.name)}_bands"
        written = []
        for entry in included(writing.delivery, writing.snapshot.job, *writing.surfaces):
            if not writing.current():
                raise CancelledError
            target = writing.folder / f"{stem}_{MapKind(entry.id).value}.png"
            write_atomically(target, encode_map(MapKind(entry.id), maps, entry.depth))
            written.append(target)
        target = writing.folder / f"{stem}.json"
        write_atomically(target, json.dumps(told(plan), indent=1).encode())
        writing.progress("Bands", 1.0)
        return [*written, target]


def plan_of(surfaces: tuple[Surface, ...], px: int) -> Plan | None:
    """Where each band goes, at the largest scale at which all find room; None without bands."""
    bands = [(surface, band) for surface in surfaces for band in surface.bands if surface.band(band.id)]
    if not bands:
        return None
    pad = max(LEAST_PAD, px // 128)
    low, high, best = 0.0, px / min(band.height for _, band in bands), None
    for _ in range(STEPS):
        density = (low + high) / 2
        sizes = [(_pixels(one.width_mm, density), _pixels(band.height, density)) for one, band in bands]
        spots = packed([(wide + 2 * pad, tall + 2 * pad) for wide, tall in sizes], px, px)
        if spots is None:
            high = density
            continue
        low, best = density, (density, sizes, spots)
    if best is None:
        return None
    density, sizes, spots = best
    strips = tuple(
        Strip(surface, band, x + pad, y + pad, wide, tall)
        for (surface, band), (wide, tall), (x, y) in zip(bands, sizes, spots, strict=True)
    )
    return Plan(px, pad, 1 / density, strips)


def _pixels(mm: float, density: float) -> int:
    return max(1, round(mm * density))


def _painted(writing: Writing, plan: Plan) -> MapSet:
    """The maps of the whole sheet: every strip with what lies round it in its surface as padding."""
    kinds = [MapKind(entry.id) for entry in included(writing.delivery, writing.snapshot.job, *writing.surfaces)]
    kinds = [*dict.fromkeys([*kinds, MapKind.HEIGHT])]
    side = plan.px * plan.mm_per_px
    grid = Grid(plan.px, plan.px, side, side)
    planes = {kind: _blank(kind, plan.px) for kind in kinds}
    for number, strip in enumerate(plan.strips):
        if not writing.current():
            raise CancelledError
        writing.progress(f"Bands: {strip.band.name}", number / (len(plan.strips) + 1))
        surface = strip.surface
        longer = max(surface.width_mm, surface.height_mm)
        px = int(np.clip(round(longer / plan.mm_per_px), 16, 8192))
        snapshot = writing.snapshot
        maps = snapshot.finished(surface, px, evaluation=snapshot.evaluation(writing.current))
        maps = baked(maps)
        if MapKind.CURVATURE in kinds:
            maps = snapshot.with_curvature(surface, maps)
        for kind in kinds:
            _lay(planes[kind], kind, maps.or_default(kind), strip, plan)
    return MapSet(grid, planes)


def _blank(kind: MapKind, px: int) -> Raster:
    value = TRAITS[kind].default
    shape = (px, px) if len(value) == 1 else (px, px, len(value))
    return np.full(shape, value if len(value) > 1 else value[0], np.float32)


def _lay(plane: Raster, kind: MapKind, pixels: Raster, strip: Strip, plan: Plan) -> None:
    """A strip and its padding, taken from the surface beyond its edges."""
    surface, band, pad = strip.surface, strip.band, plan.pad
    rows = max(strip.tall, round(surface.height_mm / band.height * strip.tall))
    whole = resampled(kind, np.asarray(pixels, np.float32), (rows, strip.wide))
    # Row 0 of a picture is its uppermost.
    top = round(rows * (1 - band.high / surface.height_mm))
    down = (top - pad + np.arange(strip.tall + 2 * pad)) % rows
    along = (np.arange(strip.wide + 2 * pad) - pad) % strip.wide
    first = plan.px - strip.y - strip.tall - pad
    left = strip.x - pad
    plane[first : first + len(down), left : left + len(along)] = whole[np.ix_(down, along)]


def told(plan: Plan) -> dict[str, object]:
    """The list that lies beside the pictures: names, pixels, shares of the sheet, mm."""
    return {
        "px": plan.px,
        "pad_px": plan.pad,
        "mm_per_px": round(plan.mm_per_px, 6),
        "bands": [
            {
                "name": strip.band.name,
                "surface": strip.surface.name,
                "lower_left_px": [strip.x, strip.y],
                "size_px": [strip.wide, strip.tall],
                "uv": [
                    strip.x / plan.px, strip.y / plan.px, (strip.x + strip.wide) / plan.px,
                    (strip.y + strip.tall) / plan.px,
                ],
                "size_mm": [strip.surface.width_mm, strip.band.height],
                "repeats": "along",
            }
            for strip in plan.strips
        ],
    }  # fmt: skip
