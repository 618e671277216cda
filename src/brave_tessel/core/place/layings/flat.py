"""Laid on the plane of the largest face, and carried on round the corners from there."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Choice
from ..frames import face_axes
from ..laying import Bed, Coordinates, even, laying
from ..mesh import Vector
from ..topology import facets, unrolled
from .returns import ANEW, CARRY_ON, CLOSER, MIRROR, ONE_PLANE, returned

TOUCHING_MM = 1.0


@laying("flat", label="Flat")
def flat(
    bed: Bed,
    *,
    corners: Annotated[
        str,
        Choice(
            CARRY_ON,
            ANEW,
            CLOSER,
            MIRROR,
            ONE_PLANE,
            help="At an upright corner: on round it, anew with a whole unit or half of one, or mirrored.",
        ),
    ] = CARRY_ON,
) -> Coordinates:
    """On the part's plane at true size, carried on round its corners: level courses stay level."""
    if not len(bed.faces):
        return even(bed.mesh, bed.faces, np.zeros((0, 3, 2)))
    seed = _first_face(bed)
    normal = bed.mesh.normals[seed]
    along, up = face_axes(normal, bed.along)
    # The datum is brought onto the plane: only its height and where it is along the face count.
    origin = bed.datum + float((bed.mesh.corners[seed, 0] - bed.datum) @ normal) * normal
    plane = _on_plane(bed.corners, origin, along, up)
    if corners == ONE_PLANE:
        return even(bed.mesh, bed.faces, plane)
    round_it = unrolled(bed.mesh, bed.faces, seed, np.stack([origin, along, up]))
    missed = np.isnan(round_it[:, 0, 0])
    if missed.any():
        round_it[missed] = _by_themselves(bed, missed)
    if corners != CARRY_ON:
        round_it = returned(bed, round_it, seed, corners)
    return even(bed.mesh, bed.faces, round_it)


def _on_plane(corners: Vector, origin: Vector, along: Vector, up: Vector) -> Vector:
    away = corners - origin
    return np.stack([away @ along, away @ up], -1)


def _first_face(bed: Bed) -> int:
    """A triangle of the facet that the laying starts on: the largest that holds the datum, or else the largest of
    those that look towards it.
    """
    mesh, faces = bed.mesh, bed.faces
    label = facets(mesh)[faces]
    areas = np.bincount(label, mesh.areas[faces])
    first = np.full(len(areas), -1)
    first[label[::-1]] = faces[::-1]
    there = np.flatnonzero(first >= 0)
    normals, points = mesh.normals[first[there]], mesh.corners[first[there], 0]
    ahead = np.einsum("ij,ij->i", bed.datum - points, normals)
    score = areas[there] * np.where(ahead > -TOUCHING_MM, 1.0, 0.5)
    holding = np.abs(ahead) < TOUCHING_MM
    if holding.any():
        low = np.full((len(areas), 3), np.inf)
        high = np.full((len(areas), 3), -np.inf)
        for corner in range(3):
            np.minimum.at(low, label, mesh.corners[faces, corner])
            np.maximum.at(high, label, mesh.corners[faces, corner])
        within = ((bed.datum > low[there] - TOUCHING_MM) & (bed.datum < high[there] + TOUCHING_MM)).all(1)
        score = score + np.where(holding & within, areas.sum(), 0.0)
    return int(first[there[score.argmax()]])


def _by_themselves(bed: Bed, missed: Vector) -> Vector:
    """Faces that hang together with nothing: each facet in its own plane from the datum."""
    rows = np.flatnonzero(missed)
    normals = bed.normals[rows]
    steep = np.abs(normals[:, 2]) < 0.985
    along = np.where(steep[:, None], np.stack([-normals[:, 1], normals[:, 0], np.zeros(len(rows))], 1), bed.along)
    along = along - np.einsum("ij,ij->i", along, normals)[:, None] * normals
    along /= np.maximum(np.linalg.norm(along, axis=1, keepdims=True), 1e-12)
    up = np.cross(normals, along)
    away = bed.corners[rows] - bed.datum
    return np.stack([np.einsum("nck,nk->nc", away, along), np.einsum("nck,nk->nc", away, up)], -1)
