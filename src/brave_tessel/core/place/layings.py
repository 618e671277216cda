"""How a surface is mapped to a part, in mm from a datum."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated

import numpy as np

from ..job.document import Part, Scene, Surface
from ..operation import Angle, Length, find, operation
from .mesh import Frame, PartMesh, Vector


@dataclass(frozen=True, slots=True)
class Vertices:
    """What a laying looks at: corner points and face normals (N, 3), the part's frame, and the datum."""

    points: Vector
    normals: Vector
    frame: Frame
    datum: Vector
    datum_along: float


def _turned(along_up: Vector, turn: float, across: float, up: float) -> Vector:
    angle = math.radians(turn)
    c, s = math.cos(angle), math.sin(angle)
    shifted = along_up
    turned = np.stack([c * shifted[:, 0] + s * shifted[:, 1], -s * shifted[:, 0] + c * shifted[:, 1]], 1)
    return np.asarray(turned - np.array([across, up]))


@operation("laying.flat", label="Flat")
def flat(
    vertices: Vertices,
    *,
    turn: Annotated[float, Angle(help="Turns the surface about the datum.")] = 0.0,
    across: Annotated[
        float, Length(-1000, 1000, least=-1e6, most=1e6, help="Shifts the surface along the wall.")
    ] = 0.0,
    up: Annotated[float, Length(-1000, 1000, least=-1e6, most=1e6, help="Shifts the surface up the wall.")] = 0.0,
) -> Vector:
    """Laid on the part's plane at true size, carried on round the corner; (N, 2) mm from the datum."""
    frame = vertices.frame
    place = frame.coordinates(vertices.points)
    datum = frame.coordinates(vertices.datum[None])[0]
    from_along = vertices.datum_along if frame.unrolled else float(datum[0])
    place = place - np.array([from_along, datum[1]])
    return _turned(place, turn, across, up)


@operation("laying.box", label="Box")
def box(
    vertices: Vertices,
    *,
    turn: Annotated[float, Angle(help="Turns the surface about the datum.")] = 0.0,
    across: Annotated[
        float, Length(-1000, 1000, least=-1e6, most=1e6, help="Shifts the surface along each face.")
    ] = 0.0,
    up: Annotated[float, Length(-1000, 1000, least=-1e6, most=1e6, help="Shifts the surface up each face.")] = 0.0,
) -> Vector:
    """Each face takes the surface from the side it looks to, at true size; (N, 2) mm from the datum."""
    away = vertices.points - vertices.datum
    n = vertices.normals
    side = np.abs(n).argmax(1)
    x, y, z = away.T
    sign = np.where(n[np.arange(len(n)), side] >= 0, 1.0, -1.0)
    along = np.choose(side, [-z * sign, x, x * sign])
    rise = np.choose(side, [y, -z * sign, y])
    return _turned(np.stack([along, rise], 1), turn, across, up)


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
    laying = find(part.laying.op)
    points = mesh.quads.reshape(-1, 3)
    normals = np.repeat(mesh.normals(), 4, 0)
    vertices = Vertices(points, normals, mesh.frame, np.array(scene.datum), datum_along(scene, meshes))
    place = laying.run(vertices, **laying.bind(part.laying.values))
    return np.asarray(place.reshape(-1, 4, 2))


def in_repeats(place_mm: Vector, surface: Surface | None) -> Vector:
    """UVs in repeats: one unit is one period of the surface (a metre where nothing is laid)."""
    size = (surface.width_mm, surface.height_mm) if surface else (1000.0, 1000.0)
    return np.asarray(place_mm / np.array(size))
