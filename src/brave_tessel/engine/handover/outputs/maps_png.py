"""The maps of surfaces as PNG, with their real size."""

from __future__ import annotations

import shutil
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from ....core.buildup.finishes import surface_maps
from ....core.buildup.water import baked
from ....core.errors import CancelledError, CannotWriteError
from ....core.handover.conversions import height_range, stored
from ....core.handover.names import distinct_stems, name_from
from ....core.job.document import Delivery, DeliveryMap, Job
from ....core.job.layers import Surface
from ....core.maps import IN_MM, SOMETIMES, TRAITS, WET, MapKind, MapSet
from ....formats.disk import write_atomically
from ....formats.images import encode_png
from ..output import Output, Planned, Writing, output

ENCODERS = 2
"""Pictures encoded side by side."""


@output("maps-png", label="Maps (.png)", tip="One file per map; its real size is written into it")
class MapsPng(Output):
    """One file a map."""

    def planned(self, job: Job, delivery: Delivery, surfaces: tuple[Surface, ...]) -> list[Planned]:
        files = []
        for surface in surfaces:
            longer = max(surface.width_mm, surface.height_mm)
            pixels = delivery.px**2 * surface.width_mm * surface.height_mm / longer**2
            for entry in included(delivery, job, surface):
                kind = MapKind(entry.id)
                channels = TRAITS[kind].channels
                about = int(pixels * channels * entry.depth / 8 * (0.7 if kind is not MapKind.METALNESS else 0.02))
                name = file_name(job, delivery, surface, kind)
                files.append(Planned(name, f"{surface.name}: {kind.value}", entry.depth, about))
        return files

    def write(self, writing: Writing) -> list[Path]:
        written: list[Path] = []
        for index, surface in enumerate(writing.surfaces):
            part = writing.within(index / len(writing.surfaces), (index + 1) / len(writing.surfaces))
            written += export_surface(part, surface).values()
        return written


def included(delivery: Delivery, job: Job, *surfaces: Surface) -> list[DeliveryMap]:
    """The maps a delivery holds of some surfaces: those they have, and finishes that an older delivery does not name;
    those of a kind that this version does not have are left out.
    """
    has = {kind.value: kind for surface in surfaces for kind in surface_maps(job, surface)}
    named = {entry.id for entry in delivery.maps}
    fresh = [
        DeliveryMap(id=id, depth=TRAITS[kind].depth)
        for id, kind in has.items()
        if id not in named and kind in SOMETIMES.difference(WET)
    ]
    return [entry for entry in (*delivery.maps, *fresh) if entry.included and entry.id in has]


def file_name(job: Job, delivery: Delivery, surface: Surface, kind: MapKind, stem: str = "") -> str:
    """``<surface>_<map>.png`` by the delivery's pattern; no two surfaces of a job share a name. ``stem`` is said in
    place of the surface's.

    Raises
    ------
    NotUnderstoodError
        when the pattern does not tell files apart or is not plain.
    """
    stems = distinct_stems((entry.id, entry.name) for entry in job.surfaces)
    return name_from(delivery.pattern, surface=stem or stems[surface.id], file=kind.value) + ".png"


def encode_map(kind: MapKind, maps: MapSet, depth: int) -> bytes:
    """PNG bytes of one map, with the surface's real size."""
    pixels = maps.or_default(kind)
    low, high = height_range(pixels if kind in IN_MM else maps[MapKind.HEIGHT])
    low = 0.0 if kind is MapKind.WATER_DEPTH else low
    word = {MapKind.HEIGHT: "height", MapKind.WATER_DEPTH: "depth"}.get(kind)
    note = f', "{word}_black_mm": {low:g}, "{word}_white_mm": {high:g}' if word else ""
    codes = stored(kind, pixels, depth=depth, height_mm=(low, high))
    grid = maps.grid
    return encode_png(codes, width_mm=grid.width_mm, height_mm=grid.height_mm, srgb=TRAITS[kind].colour, note=note)


def export_surface(
    writing: Writing, surface: Surface, *, stem: str = "", meanwhile: Callable[[MapSet], None] | None = None
) -> dict[MapKind, Path]:
    """Write a surface's maps, named by it or by ``stem``; returns what was written. ``meanwhile`` is given
    the maps once they are worked out, while they are encoded.

    Raises
    ------
    CannotWriteError
        when the folder cannot be written; files already complete stay.
    CancelledError
        when stopped; no half-written file is left.
    """
    snapshot, delivery, progress, current = writing.snapshot, writing.delivery, writing.progress, writing.current
    chosen = included(delivery, snapshot.job, surface)
    # A pattern that cannot name the files is told before anything is worked out.
    names = {entry.id: file_name(snapshot.job, delivery, surface, MapKind(entry.id), stem) for entry in chosen}
    progress(f"Compute {surface.name}", 0.0)
    evaluation = snapshot.evaluation(current, lambda label: progress(f"{surface.name}: {label}", 0.1))
    maps = snapshot.finished(surface, delivery.px, evaluation=evaluation)
    # What stands in for something that failed is not handed over.
    evaluation.raise_faults()
    maps = baked(maps)
    if any(entry.id == MapKind.CURVATURE for entry in chosen):
        maps = snapshot.with_curvature(surface, maps, evaluation=evaluation)
    _require_space(writing.folder, maps)
    written = {}
    with ThreadPoolExecutor(ENCODERS, thread_name_prefix="encode") as pool:
        # What takes longest is begun first, so that nobody waits for it alone.
        longest = sorted(chosen, key=lambda entry: -_bytes(maps, entry))
        coming = {entry.id: pool.submit(encode_map, MapKind(entry.id), maps, entry.depth) for entry in longest}
        if meanwhile is not None:
            meanwhile(maps)
        for index, (entry, data) in enumerate((entry, coming[entry.id]) for entry in chosen):
            if not current():
                pool.shutdown(wait=False, cancel_futures=True)
                raise CancelledError
            kind = MapKind(entry.id)
            target = writing.folder / names[entry.id]
            progress(f"Write {target.name}", 0.3 + 0.7 * index / len(chosen))
            write_atomically(target, data.result())
            written[kind] = target
    progress(surface.name, 1.0)
    return written


def _bytes(maps: MapSet, entry: DeliveryMap) -> int:
    """Of a map as it is written, before it is packed."""
    return maps.or_default(MapKind(entry.id)).size * entry.depth // 8


def _require_space(folder: Path, maps: MapSet) -> None:
    existing = next((place for place in (folder, *folder.parents) if place.exists()), None)
    if existing is not None and shutil.disk_usage(existing).free < maps.nbytes // 4:
        raise CannotWriteError(folder.name, value="the disk is full", remedy="Free some space or choose another disk.")
