"""Where parts stand: transforms from places, turns and sizes, and back."""

from __future__ import annotations

import math

import numpy as np

from ..job.scene import Hinge, Part, Place, Scene
from .mesh import Matrix, Vector

UP = np.array([0.0, 0.0, 1.0])
LEVEL_COSINE = math.cos(math.radians(10.0))
"""Faces that lean by less than ten degrees from level ground are laid as floors and ceilings."""


def placed(at: Place, turn: Place = (0.0, 0.0, 0.0), size: Place = (1.0, 1.0, 1.0)) -> Matrix:
    """A transform: sizes along the own axes, then turns about x, y and z in degrees, then the place, mm."""
    out = np.eye(4)
    out[:3, :3] = rotation(turn) @ np.diag(size)
    out[:3, 3] = at
    return out


def rotation(turn: Place) -> Matrix:
    """(3, 3) of turns about x, then y, then z, degrees."""
    (cx, cy, cz), (sx, sy, sz) = np.cos(np.radians(turn)), np.sin(np.radians(turn))
    about_x = np.array([[1, 0, 0], [0, cx, -sx], [0, sx, cx]])
    about_y = np.array([[cy, 0, sy], [0, 1, 0], [-sy, 0, cy]])
    about_z = np.array([[cz, -sz, 0], [sz, cz, 0], [0, 0, 1]])
    return np.asarray(about_z @ about_y @ about_x)


def about(at: Vector, along: Vector, degrees: float) -> Matrix:
    """A turn about an axis (Rodrigues)."""
    axis = np.asarray(along, float) / max(float(np.linalg.norm(along)), 1e-12)
    a = math.radians(degrees)
    x, y, z = axis
    cross = np.array([[0, -z, y], [z, 0, -x], [-y, x, 0]])
    out = np.eye(4)
    out[:3, :3] = np.eye(3) + math.sin(a) * cross + (1 - math.cos(a)) * cross @ cross
    out[:3, 3] = np.asarray(at) - out[:3, :3] @ np.asarray(at)
    return out


def taken_apart(matrix: Matrix) -> tuple[Place, Place, Place] | None:
    """Place, turn and size of a transform; None for one that shears."""
    linear = np.asarray(matrix[:3, :3], float)
    size = np.linalg.norm(linear, axis=0)
    if size.min() < 1e-9:
        return None
    if np.linalg.det(linear) < 0:
        size = size * np.array([-1.0, 1.0, 1.0])
    turned = linear / size
    if np.abs(turned.T @ turned - np.eye(3)).max() > 1e-4:
        return None
    y = math.asin(min(1.0, max(-1.0, -turned[2, 0])))
    if abs(turned[2, 0]) < 1 - 1e-9:
        x, z = math.atan2(turned[2, 1], turned[2, 2]), math.atan2(turned[1, 0], turned[0, 0])
    else:
        x, z = math.atan2(-turned[1, 2], turned[1, 1]), 0.0
    return _place(matrix[:3, 3]), _place(np.degrees([x, y, z])), _place(size)


def _place(values: object) -> Place:
    x, y, z = (round(float(value), 9) + 0.0 for value in np.asarray(values, float))
    return x, y, z


def hinged(hinge: Hinge | None) -> Matrix:
    """The swing of a part on its hinge, in its own mm."""
    if hinge is None or not hinge.open:
        return np.eye(4)
    return about(np.array(hinge.at), np.array(hinge.along), hinge.open)


def own_matrix(part: Part) -> Matrix:
    """From a part's own mm into its parent's."""
    return np.asarray(placed(part.at, part.turn, part.size) @ hinged(part.hinge))


def world_matrix(scene: Scene, part: Part) -> Matrix:
    """From a part's own mm into the scene's; parents that go round in a ring, or are not there, count as none."""
    out, seen = own_matrix(part), {part.id}
    above = scene.part(part.parent)
    while above is not None and above.id not in seen:
        seen.add(above.id)
        out = own_matrix(above) @ out
        above = scene.part(above.parent)
    return np.asarray(out)


def face_axes(normal: Vector, along: Vector) -> tuple[Vector, Vector]:
    """Directions along and up in a face seen from its front: level along and rising as steeply as it can; on level
    ground, along the datum's direction.
    """
    if abs(float(normal[2])) < LEVEL_COSINE:
        level = np.cross(UP, normal)
    else:
        level = np.asarray(along, float) - float(np.asarray(along) @ normal) * normal
        if np.linalg.norm(level) < 1e-6:
            level = np.array([1.0, 0.0, 0.0]) - normal[0] * normal
    level = level / np.linalg.norm(level)
    return level, np.cross(normal, level)
