"""Deliveries: maps and scene written to a folder, with progress and stop."""

from __future__ import annotations

import shutil
from collections.abc import Callable, Iterable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

import numpy as np

from ...core.colour import hex_to_linear
from ...core.errors import CancelledError, CannotWriteError
from ...core.handover.conversions import file_stem, height_range, packed_orm, stored
from ...core.job.document import Delivery, Surface
from ...core.maps import MapKind, MapSet
from ...core.place.layings import in_repeats, lay_on
from ...core.place.pieces import scene_meshes
from ...formats.disk import write_atomically
from ...formats.gltf import GltfMaterial, GltfPart, encode_glb
from ...formats.images import encode_png
from ..evaluate import always
from ..memory import give_back_freed_memory
from ..session import Session

ENCODERS = 2
"""Pictures encoded side by side."""
Progress = Callable[[str, float], None]


def quiet(_what: str, _share: float) -> None:
    """Progress that is not shown."""


@dataclass(frozen=True, slots=True)
class Planned:
    """One file a delivery will write: its name, what it holds, and about how many bytes."""

    name: str
    what: str
    depth: int
    about_bytes: int


def file_name(delivery: Delivery, surface: Surface, kind: MapKind) -> str:
    """``<surface>_<map>.png`` by the delivery's pattern."""
    return delivery.pattern.format(surface=file_stem(surface.name), map=kind.value) + ".png"


def planned_files(delivery: Delivery, surfaces: Iterable[Surface], job_name: str) -> list[Planned]:
    """Every file as it will be, before anything is computed."""
    files = []
    for surface in surfaces:
        longer = max(surface.width_mm, surface.height_mm)
        pixels = delivery.px**2 * surface.width_mm * surface.height_mm / longer**2
        for entry in delivery.maps:
            if not entry.included:
                continue
            kind = MapKind(entry.id)
            channels = 3 if kind in {MapKind.BASE_COLOUR, MapKind.NORMAL} else 1
            about = int(pixels * channels * entry.depth / 8 * (0.7 if kind is not MapKind.METALNESS else 0.02))
            files.append(
                Planned(file_name(delivery, surface, kind), f"{surface.name}: {kind.value}", entry.depth, about)
            )
    if delivery.scene:
        files.append(Planned(f"{file_stem(job_name)}.glb", "Scene with real-size UVs", 8, 12_000_000))
    return files


def encode_map(kind: MapKind, maps: MapSet, depth: int) -> bytes:
    """PNG bytes of one map, with the surface's real size."""
    pixels = maps.or_default(kind)
    low, high = height_range(maps[MapKind.HEIGHT])
    note = f', "height_black_mm": {low:g}, "height_white_mm": {high:g}' if kind is MapKind.HEIGHT else ""
    codes = stored(kind, pixels, depth=depth, height_mm=(low, high))
    grid = maps.grid
    return encode_png(
        codes, width_mm=grid.width_mm, height_mm=grid.height_mm, srgb=kind is MapKind.BASE_COLOUR, note=note
    )


def export_surface(
    session: Session,
    surface: Surface,
    delivery: Delivery,
    folder: Path,
    *,
    progress: Progress = quiet,
    current: Callable[[], bool] = always,
) -> dict[MapKind, Path]:
    """Write a surface's maps; returns what was written.

    Raises
    ------
    CannotWriteError
        when the folder cannot be written; files already complete stay.
    CancelledError
        when stopped; no half-written file is left.
    """
    progress(f"Compute {surface.name}", 0.0)
    evaluation = session.evaluation(current, lambda label: progress(f"{surface.name}: {label}", 0.1))
    maps = session.finished(surface, delivery.px, evaluation=evaluation)
    chosen = [entry for entry in delivery.maps if entry.included]
    if any(entry.id == MapKind.CURVATURE for entry in chosen):
        maps = session.with_curvature(surface, maps, evaluation=evaluation)
    _require_space(folder, maps)
    written = {}
    with ThreadPoolExecutor(ENCODERS, thread_name_prefix="encode") as pool:
        coming = [pool.submit(encode_map, MapKind(entry.id), maps, entry.depth) for entry in chosen]
        for index, (entry, data) in enumerate(zip(chosen, coming, strict=True)):
            if not current():
                pool.shutdown(wait=False, cancel_futures=True)
                raise CancelledError
            kind = MapKind(entry.id)
            target = folder / file_name(delivery, surface, kind)
            progress(f"Write {target.name}", 0.3 + 0.7 * index / len(chosen))
            write_atomically(target, data.result())
            written[kind] = target
    progress(surface.name, 1.0)
    return written


def _require_space(folder: Path, maps: MapSet) -> None:
    existing = next((place for place in (folder, *folder.parents) if place.exists()), None)
    if existing is not None and shutil.disk_usage(existing).free < maps.nbytes // 4:
        raise CannotWriteError(folder.name, value="the disk is full", remedy="Free some space or choose another disk.")


SCENE_PX = 1024


def scene_glb(
    session: Session, *, px: int = SCENE_PX, progress: Progress = quiet, current: Callable[[], bool] = always
) -> bytes:
    """The job's scene as glTF 2.0 binary, each surface baked at ``px`` pixels."""
    job = session.job
    meshes = scene_meshes(job.scene)
    surfaces = {surface.id: surface for surface in job.surfaces}
    materials: list[GltfMaterial] = []
    index: dict[str, int] = {}
    parts = []
    for number, part in enumerate(job.scene.parts):
        if part.id not in meshes:
            continue
        progress(f"Scene: {part.name}", number / len(job.scene.parts))
        surface = surfaces.get(part.surface)
        key = surface.id if surface else part.bare
        if key not in index:
            index[key] = len(materials)
            materials.append(_material(session, surface, px, current) if surface else _bare(part.bare))
        mesh = meshes[part.id]
        uv = in_repeats(lay_on(part, mesh, job.scene, meshes), surface)
        order = [0, 1, 2, 0, 2, 3]
        parts.append(
            GltfPart(
                part.name,
                (mesh.quads[:, order].reshape(-1, 3) / 1000).astype(np.float32),
                mesh.corner_normals()[:, order].reshape(-1, 3).astype(np.float32),
                uv[:, order].reshape(-1, 2).astype(np.float32),
                index[key],
            )
        )
    return encode_glb(parts, materials, scene_name=job.name)


def _bare(colour: str) -> GltfMaterial:
    return GltfMaterial("Bare", (1.0, 1.0), factor=hex_to_linear(colour))


def _material(session: Session, surface: Surface, px: int, current: Callable[[], bool]) -> GltfMaterial:
    maps = session.finished(surface, px, evaluation=session.evaluation(current))
    orm = packed_orm(*(np.asarray(maps[k]) for k in (MapKind.AMBIENT_OCCLUSION, MapKind.ROUGHNESS, MapKind.METALNESS)))
    grid = maps.grid
    return GltfMaterial(
        surface.name,
        (surface.width_mm / 1000, surface.height_mm / 1000),
        encode_map(MapKind.BASE_COLOUR, maps, 8),
        encode_png(orm, width_mm=grid.width_mm, height_mm=grid.height_mm),
        encode_map(MapKind.NORMAL, maps, 8),
    )


def deliver(
    session: Session,
    delivery: Delivery,
    surfaces: list[Surface],
    folder: Path,
    *,
    progress: Progress = quiet,
    current: Callable[[], bool] = always,
) -> list[Path]:
    """Write a whole delivery; see :func:`export_surface`. Afterwards the memory that only it needed is given back."""
    try:
        return _deliver(session, delivery, surfaces, folder, progress, current)
    finally:
        give_back_freed_memory()


def _deliver(
    session: Session,
    delivery: Delivery,
    surfaces: list[Surface],
    folder: Path,
    progress: Progress,
    current: Callable[[], bool],
) -> list[Path]:
    steps = len(surfaces) + bool(delivery.scene)
    written: list[Path] = []
    for index, surface in enumerate(surfaces):

        def part(what: str, share: float, index: int = index) -> None:
            progress(what, (index + share) / steps)

        written += export_surface(session, surface, delivery, folder, progress=part, current=current).values()
    if delivery.scene:
        done = len(surfaces)
        data = scene_glb(session, progress=lambda what, share: progress(what, (done + share) / steps), current=current)
        target = folder / f"{file_stem(session.job.name)}.glb"
        write_atomically(target, data)
        written.append(target)
    progress("Done", 1.0)
    return written
