"""A job's scene as parts to draw, and what a ray through the picture meets."""

from __future__ import annotations

import numpy as np

from ..core.colour import hex_to_linear
from ..core.job.document import Job
from ..core.place.lay import in_repeats, lay_on
from ..core.place.mesh import Hit, pick
from ..core.place.piece import scene_meshes
from .camera import Camera
from .renderer import DrawPart

_ORDER = [0, 1, 2, 0, 2, 3]


def draw_parts(job: Job) -> list[DrawPart]:
    """Every part of the scene with its laying as UVs."""
    meshes = scene_meshes(job.scene)
    surfaces = {surface.id: surface for surface in job.surfaces}
    parts = []
    for part in job.scene.parts:
        mesh = meshes.get(part.id)
        if mesh is None:
            continue
        surface = surfaces.get(part.surface)
        uv = in_repeats(lay_on(part, mesh, job.scene, meshes), surface)
        size = (surface.width_mm / 1000, surface.height_mm / 1000) if surface else (1.0, 1.0)
        parts.append(
            DrawPart(
                part.id,
                (mesh.quads[:, _ORDER].reshape(-1, 3) / 1000).astype(np.float32),
                mesh.corner_normals()[:, _ORDER].reshape(-1, 3).astype(np.float32),
                uv[:, _ORDER].reshape(-1, 2).astype(np.float32),
                part.surface,
                hex_to_linear(part.bare),
                size,
            )
        )
    return parts


def find_under(job: Job, camera: Camera, x: float, y: float, aspect: float) -> Hit | None:
    """What lies under a point of the picture (−1 to 1, y up); mm."""
    origin, direction = camera.ray(x, y, aspect)
    return pick(scene_meshes(job.scene), origin * 1000, direction)
