"""The scene as glTF 2.0 binary, real size in the UVs."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import numpy as np

from ....core.colour import hex_to_linear
from ....core.handover.conversions import packed_orm
from ....core.handover.names import file_stem
from ....core.job.document import Delivery, Job
from ....core.job.layers import Surface
from ....core.maps import MapKind
from ....core.place.lay import in_repeats, lay_on
from ....core.place.piece import scene_meshes
from ....formats.disk import write_atomically
from ....formats.gltf import GltfMaterial, GltfPart, encode_glb
from ....formats.images import encode_png
from ...evaluate import always
from ...snapshot import Snapshot
from ..output import Output, Planned, Progress, Writing, output, quiet
from .maps_png import encode_map

SCENE_PX = 1024


@output("scene-glb", label="glTF 2.0 of the scene (.glb)", tip="Real size in the UVs, so any reader opens it right")
class SceneGlb(Output):
    """One file with every part."""

    def planned(self, job: Job, delivery: Delivery, surfaces: tuple[Surface, ...]) -> list[Planned]:
        return [Planned(f"{file_stem(job.name)}.glb", "Scene with real-size UVs", 8, 12_000_000)]

    def write(self, writing: Writing) -> list[Path]:
        target = writing.folder / f"{file_stem(writing.snapshot.job.name)}.glb"
        data = scene_glb(writing.snapshot, progress=writing.progress, current=writing.current)
        write_atomically(target, data)
        return [target]


def scene_glb(
    snapshot: Snapshot, *, px: int = SCENE_PX, progress: Progress = quiet, current: Callable[[], bool] = always
) -> bytes:
    """The job's scene as glTF 2.0 binary, each surface baked at ``px`` pixels."""
    job = snapshot.job
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
            materials.append(_material(snapshot, surface, px, current) if surface else _bare(part.bare))
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


def _material(snapshot: Snapshot, surface: Surface, px: int, current: Callable[[], bool]) -> GltfMaterial:
    maps = snapshot.finished(surface, px, evaluation=snapshot.evaluation(current))
    orm = packed_orm(*(np.asarray(maps[k]) for k in (MapKind.AMBIENT_OCCLUSION, MapKind.ROUGHNESS, MapKind.METALNESS)))
    grid = maps.grid
    return GltfMaterial(
        surface.name,
        (surface.width_mm / 1000, surface.height_mm / 1000),
        encode_map(MapKind.BASE_COLOUR, maps, 8),
        encode_png(orm, width_mm=grid.width_mm, height_mm=grid.height_mm),
        encode_map(MapKind.NORMAL, maps, 8),
    )
