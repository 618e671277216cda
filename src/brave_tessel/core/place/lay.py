"""How a surface is mapped to a part, in mm from a datum."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..job.document import Part, Scene
from ..job.layers import Surface
from ..job.nodes import Setting
from .mesh import Frame, PartMesh, Vector


@dataclass(frozen=True, slots=True)
class Vertices:
    """What a laying looks at: corner points and face normals (N, 3), the part's frame, and the datum."""

    points: Vector
    normals: Vector
    frame: Frame
    datum: Vector
    datum_along: float


def turned_about(along_up: Vector, turn: float, across: float, up: float) -> Vector:
    """Places (N, 2) in mm from the datum, shifted and then turned about it by degrees."""
    angle = math.radians(turn)
    c, s = math.cos(angle), math.sin(angle)
    shifted = along_up
    turned = np.stack([c * shifted[:, 0] + s * shifted[:, 1], -s * shifted[:, 0] + c * shifted[:, 1]], 1)
    return np.asarray(turned - np.array([across, up]))


def datum_along(scene: Scene, meshes: dict[str, PartMesh]) -> float:
    """Where the datum lies along the unrolled walls: on the wall it is nearest to, mm."""
    datum = np.array(scene.datum)
    best, where = math.inf, 0.0
    for mesh in meshes.values():
        frame = mesh.frame
        if not frame.unrolled:
            continue
        off = abs(float((datum - np.array(frame.origin)) @ frame.facing))
        if off < best - 1e-6:
            best, where = off, float(frame.coordinates(datum[None])[0, 0])
    return where


def lay_on(part: Part, mesh: PartMesh, scene: Scene, meshes: dict[str, PartMesh]) -> Vector:
    """Texture place of every corner, (N, 4, 2) mm from the datum: x along, y up."""
    # A laying of another version lies flat; the part's card says so.
    setting = part.laying if part.laying.known else Setting(op="laying.flat")
    points = mesh.quads.reshape(-1, 3)
    normals = np.repeat(mesh.normals(), 4, 0)
    vertices = Vertices(points, normals, mesh.frame, np.array(scene.datum), datum_along(scene, meshes))
    place = setting.operation.run(vertices, **setting.bound())
    return np.asarray(place.reshape(-1, 4, 2))


def in_repeats(place_mm: Vector, surface: Surface | None) -> Vector:
    """UVs in repeats: one unit is one period of the surface (a metre where nothing is laid)."""
    size = (surface.width_mm, surface.height_mm) if surface else (1000.0, 1000.0)
    return np.asarray(place_mm / np.array(size))
