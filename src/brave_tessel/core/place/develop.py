"""Curved faces laid flat: exactly where they can be developed, else with the least stretch."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

import numpy as np
import numpy.typing as npt
import scipy.sparse
from scipy.sparse.linalg import splu

from .frames import face_axes
from .laying import Places
from .meeting import meeting, smooth_runs, stretches
from .mesh import Faces, Mesh, Vector
from .topology import grown, kept_with, places, unrolled

EXACT_MM = 0.05
"""Sides of neighbours that come to lie this near each other were developed exactly."""
ROUNDS = 40
_Floats = npt.NDArray[np.float64]
_Ints = npt.NDArray[np.int64]
FRONT = 0.05
"""Of what cannot be developed only faces that look this much the same way as the first are laid flat."""


@dataclass(frozen=True, eq=False)
class Flat:
    """Faces laid flat: their places (N, 3, 2) mm, and the largest stretch there is, 0 where there is none."""

    faces: Faces
    places: Places
    stretch: float


def developed(mesh: Mesh, faces: Faces, seed: int) -> Flat:
    """Faces that hang together laid flat from one of them, whose own up stays up.

    They are turned about the sides they share, which is exact for walls, cylinders and cones; where sides do not meet
    again the flat picture that is as rigid as possible is taken (Liu et al., A local/global approach to mesh
    parameterization, 2008).
    """
    normal = mesh.normals[seed]
    along, up = face_axes(normal, np.array([1.0, 0.0, 0.0]))
    frame = np.stack([np.zeros(3), along, up])
    laid = unrolled(mesh, faces, seed, frame)
    there = ~np.isnan(laid[:, 0, 0])
    faces, laid = faces[there], laid[there]
    if _gap(mesh, faces, laid) <= EXACT_MM:
        return Flat(faces, laid, 0.0)
    front = mesh.normals[faces] @ normal > FRONT
    faces = _together(mesh, faces[front], seed)
    laid = unrolled(mesh, faces, seed, frame)
    if _gap(mesh, faces, laid) <= EXACT_MM:
        return Flat(faces, laid, 0.0)
    flat = least_stretch(mesh, faces, along, up)
    return Flat(faces, flat, stretch_in(mesh, faces, flat))


def run_areas(mesh: Mesh) -> _Floats:
    """(T,) mm²: the area of the run of faces without a sharp bend that each face belongs to; kept with the mesh."""

    def make() -> _Floats:
        label = smooth_runs(mesh, np.arange(mesh.count, dtype=np.int32))
        return np.asarray(np.bincount(label, mesh.areas)[label])

    return kept_with(mesh, "run_areas", make)


def smooth_run(mesh: Mesh, faces: Faces, seed: int) -> Faces:
    """The faces among some that are reached from one without a sharp bend."""
    label = smooth_runs(mesh, faces)
    return np.asarray(faces[label == label[int(np.flatnonzero(faces == seed)[0])]])


def _together(mesh: Mesh, faces: Faces, seed: int) -> Faces:
    wanted = np.zeros(mesh.count, bool)
    wanted[faces] = True
    return grown(mesh, seed, partial(np.take, wanted))


def _gap(mesh: Mesh, faces: Faces, laid: Places) -> float:
    """How far sides that two faces share are apart at most; one open seam round a tube does not count."""
    apart = meeting(mesh, faces, laid).apart
    apart = apart[np.isfinite(apart)]
    if not len(apart):
        return 0.0
    # What was cut open lies far apart by one and the same way; what is bent out of shape by many small ones.
    width = max(float(np.ptp(laid[..., 0])), float(np.ptp(laid[..., 1])))
    torn = (apart > EXACT_MM) & (apart < 0.35 * width)
    return float(apart[torn].max()) if torn.any() else 0.0


def least_stretch(mesh: Mesh, faces: Faces, along: Vector, up: Vector) -> Places:
    """(N, 3, 2) mm: some faces laid flat as rigidly as possible, begun from how they are seen square."""
    numbers, at = np.unique(places(mesh)[faces], return_inverse=True)
    at = at.reshape(-1, 3)
    points = np.zeros((len(numbers), 3))
    points[at.ravel()] = mesh.corners[faces].reshape(-1, 3)
    own = _own_places(points, at)
    weights = _cotangents(own)
    solve = _solver(at, weights, len(numbers))
    flat = np.stack([points @ along, points @ up], 1)
    for _ in range(ROUNDS):
        turns = _turns(own, flat[at], weights)
        before = flat
        flat = solve(_pull(own, turns, weights, at, len(numbers)))
        if np.abs(flat - before).max() < 1e-3 * max(1.0, float(np.ptp(flat))):
            break
    return np.asarray(flat[at])


def _own_places(points: Vector, at: npt.NDArray[np.int64]) -> Places:
    """(N, 3, 2): every triangle in its own plane."""
    p, q, r = (points[at[:, k]] for k in range(3))
    e, f = q - p, r - p
    long = np.linalg.norm(e, axis=1)
    x = np.einsum("ij,ij->i", e, f) / np.maximum(long, 1e-12)
    y = np.linalg.norm(np.cross(e, f), axis=1) / np.maximum(long, 1e-12)
    zero = np.zeros(len(at))
    return np.stack([np.stack([zero, zero], 1), np.stack([long, zero], 1), np.stack([x, y], 1)], 1)


def _cotangents(own: Places) -> _Floats:
    """(N, 3): half the cotangent of the angle across each side (corner 0 to 1, 1 to 2, 2 to 0)."""
    out = np.empty(own.shape[:2])
    for side in range(3):
        p, q, r = own[:, side], own[:, (side + 1) % 3], own[:, (side + 2) % 3]
        a, b = p - r, q - r
        sine = np.abs(a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0])
        out[:, side] = 0.5 * (a * b).sum(1) / np.maximum(sine, 1e-9)
    return np.asarray(np.clip(out, 1e-4, 1e4))


def _solver(at: _Ints, weights: _Floats, count: int) -> Callable[[_Floats], _Floats]:
    """Solves for the points that given pulls along the sides bring about."""
    rows, columns, values = [], [], []
    for side in range(3):
        i, j, w = at[:, side], at[:, (side + 1) % 3], weights[:, side]
        rows += [i, j, i, j]
        columns += [i, j, j, i]
        values += [w, w, -w, -w]
    matrix = scipy.sparse.coo_matrix(
        (np.concatenate(values), (np.concatenate(rows), np.concatenate(columns))), shape=(count, count)
    ).tocsc()
    # Where the whole lies is free: the first point is held.
    held = matrix + scipy.sparse.coo_matrix(([1e-6 * matrix.diagonal().mean() + 1e-12], ([0], [0])), shape=matrix.shape)
    solve: Callable[[_Floats], _Floats] = splu(held.tocsc()).solve
    return solve


def _turns(own: Places, now: Places, weights: _Floats) -> _Floats:
    """(N, 2, 2): the turn of each triangle that brings it nearest to where it lies."""
    total = np.zeros((len(own), 2, 2))
    for side in range(3):
        a, b = own[:, side] - own[:, (side + 1) % 3], now[:, side] - now[:, (side + 1) % 3]
        total += weights[:, side, None, None] * b[:, :, None] * a[:, None, :]
    angle = np.arctan2(total[:, 1, 0] - total[:, 0, 1], total[:, 0, 0] + total[:, 1, 1])
    c, s = np.cos(angle), np.sin(angle)
    return np.stack([np.stack([c, -s], 1), np.stack([s, c], 1)], 1)


def _pull(own: Places, turns: _Floats, weights: _Floats, at: _Ints, count: int) -> _Floats:
    """(count, 2): what turned triangles would have their points be, summed over the sides."""
    out = np.zeros((count, 2))
    for side in range(3):
        i, j = at[:, side], at[:, (side + 1) % 3]
        edge = weights[:, side, None] * np.einsum("nij,nj->ni", turns, own[:, side] - own[:, (side + 1) % 3])
        np.add.at(out, i, edge)
        np.add.at(out, j, -edge)
    return out


def stretch_in(mesh: Mesh, faces: Faces, flat: Places) -> float:
    """The largest of |σ − 1| over faces, but for the worst hundredth, of how they were made flat."""
    return float(np.quantile(np.abs(stretches(mesh.corners[faces], flat) - 1).max(1), 0.99))
