"""Laid along a path: arc length along it, joints square to it."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Choice
from ..laying import Bed, Coordinates, Places, even, laying
from ..mesh import Vector
from ..paths import Track


@laying("path", label="Along a path")
def along_path(
    bed: Bed,
    *,
    rises: Annotated[
        str, Choice("in the face", "round the path", help="Up is measured away from the path in the face, or round it.")
    ] = "in the face",
) -> Coordinates:
    """Along the path by its arc length; up is away from it. Arches, mouldings, kerbs, tubes."""
    if bed.path is None or len(bed.path) < 2 or not len(bed.faces):
        return even(bed.mesh, bed.faces, np.zeros((len(bed.faces), 3, 2)), note="no path")
    track = Track(bed.path, closed=bed.closed)
    corners = bed.corners
    # A face goes with the stretch of path its middle is nearest to, so that it never falls apart at a bend.
    stretch = np.repeat(track.stretch_of(corners.mean(1)), 3)
    flat = corners.reshape(-1, 3)
    where = track.along(flat, stretch)
    away = flat - track.points_on(where, stretch)
    start = float(track.nearest(bed.datum[None])[0])
    along = (where - start).reshape(-1, 3)
    if rises == "round the path":
        return even(bed.mesh, bed.faces, _round(track, bed, along, away, where))
    sideways = np.cross(np.repeat(bed.normals, 3, 0), track.directions[stretch])
    sideways /= np.maximum(np.linalg.norm(sideways, axis=-1, keepdims=True), 1e-12)
    up = np.einsum("nk,nk->n", away, sideways).reshape(-1, 3)
    return even(bed.mesh, bed.faces, np.stack([along, up], -1))


def _round(track: Track, bed: Bed, along: Places, away: Vector, where: Places) -> Places:
    sides, ups = track.frames_at(where)
    x, y = np.einsum("ij,ij->i", away, sides), np.einsum("ij,ij->i", away, ups)
    radius = np.hypot(x, y).reshape(along.shape)
    turn = np.arctan2(y, x).reshape(along.shape)
    turn = turn[:, :1] + (turn - turn[:, :1] + np.pi) % (2 * np.pi) - np.pi
    mean = float(np.average(radius.mean(1), weights=bed.mesh.areas[bed.faces] + 1e-9))
    return np.stack([along, turn * mean], -1)
