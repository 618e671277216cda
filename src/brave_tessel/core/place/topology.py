"""How triangles of a mesh hang together: neighbours, flat facets, normals at corners, and faces that unroll.

Everything is derived once for a mesh and kept with it.
"""

from __future__ import annotations

import heapq
import math
from collections.abc import Callable
from typing import Any, TypeVar

import numpy as np
import numpy.typing as npt

from ..kernels.compiled import compiled
from .mesh import Faces, Mesh, Vector

T = TypeVar("T")
FLAT_DEGREES = 0.5
"""Neighbours that turn by less lie in one plane."""
Ints = npt.NDArray[np.int32]
Floats = npt.NDArray[np.float64]


def kept_with(mesh: Mesh, name: str, make: Callable[[], T]) -> T:
    """What was derived from a mesh under a name, made at the first asking."""
    if name not in mesh.store:
        mesh.store[name] = make()
    return mesh.store[name]  # type: ignore[return-value]


def places(mesh: Mesh) -> Ints:
    """(T, 3): the place of every corner, one number for all points within a hundredth of a millimetre."""

    def find() -> Ints:
        if not mesh.count:
            return mesh.triangles
        rounded = np.round(mesh.points * 100).astype(np.int64)
        low = rounded.min(0)
        span = rounded.max(0) - low + 1
        # One number a place sorts four times faster than three.
        if float(span[0]) * float(span[1]) * float(span[2]) < 9e18:
            single = ((rounded[:, 0] - low[0]) * span[1] + rounded[:, 1] - low[1]) * span[2] + rounded[:, 2] - low[2]
            _, index = np.unique(single, return_inverse=True)
        else:
            _, index = np.unique(rounded, axis=0, return_inverse=True)
        return index.ravel().astype(np.int32)[mesh.triangles]

    return kept_with(mesh, "places", find)


def neighbours(mesh: Mesh) -> Ints:
    """(T, 3): the triangle across each side (corner 0 to 1, 1 to 2, 2 to 0); −1 at a border or where more than two
    meet.
    """

    def find() -> Ints:
        if not mesh.count:
            return np.zeros((0, 3), np.int32)
        at = places(mesh)
        starts, ends = at.ravel(), at[:, [1, 2, 0]].ravel()
        low, high = np.minimum(starts, ends).astype(np.int64), np.maximum(starts, ends).astype(np.int64)
        code = low * (int(at.max()) + 1) + high
        order = np.argsort(code, kind="stable")
        ordered = code[order]
        first = np.concatenate([[True], ordered[1:] != ordered[:-1]])
        group = np.cumsum(first) - 1
        size = np.bincount(group)
        begins = np.flatnonzero(first)
        pairs = begins[size == 2]
        one, other = order[pairs], order[pairs + 1]
        across = np.full(3 * mesh.count, -1, np.int32)
        across[one], across[other] = other // 3, one // 3
        return across.reshape(-1, 3)

    return kept_with(mesh, "neighbours", find)


def facets(mesh: Mesh) -> Ints:
    """(T,): the number of the flat facet each triangle belongs to: neighbours in one plane."""
    return kept_with(
        mesh, "facets", lambda: _facets(neighbours(mesh), mesh.normals, math.cos(math.radians(FLAT_DEGREES)))
    )


@compiled
def _facets(across: Ints, normals: Vector, least: float) -> Ints:
    count = across.shape[0]
    label = np.full(count, -1, np.int32)
    stack = np.empty(3 * count + 1, np.int32)
    number = 0
    for seed in range(count):
        if label[seed] >= 0:
            continue
        label[seed] = number
        top = 1
        stack[0] = seed
        while top > 0:
            top -= 1
            t = stack[top]
            for side in range(3):
                other = across[t, side]
                if other < 0 or label[other] >= 0:
                    continue
                # Measured from the seed, so that a gently round skin does not creep into one facet.
                turn = (
                    normals[seed, 0] * normals[other, 0]
                    + normals[seed, 1] * normals[other, 1]
                    + normals[seed, 2] * normals[other, 2]
                )
                if turn >= least:
                    label[other] = number
                    stack[top] = other
                    top += 1
        number += 1
    return label


def corner_normals(mesh: Mesh) -> Vector:
    """(T, 3, 3): normals at corners, of all faces around the point that turn by less than the crease angle, each
    weighted by its angle there and its area.
    """
    return kept_with(
        mesh,
        "corner normals",
        lambda: _smooth(mesh.corners, places(mesh), mesh.normals, mesh.areas, math.cos(math.radians(mesh.crease))),
    )


def _smooth(corners: Vector, at: Ints, normals: Vector, areas: Floats, least: float) -> Vector:
    if not len(at):
        return np.zeros((0, 3, 3))
    flat = at.ravel()
    order = np.argsort(flat, kind="stable").astype(np.int64)
    starts = np.searchsorted(flat[order], np.arange(int(flat.max()) + 2)).astype(np.int64)
    return np.asarray(_smooth_corners(corners, order, starts, normals, areas, least))


@compiled
def _smooth_corners(
    corners: Vector, order: npt.NDArray[np.int64], starts: npt.NDArray[np.int64], normals: Vector, areas: Floats,
    least: float,
) -> Vector:  # fmt: skip
    out = np.zeros(corners.shape)
    for place in range(starts.shape[0] - 1):
        for i in range(starts[place], starts[place + 1]):
            t, c = order[i] // 3, order[i] % 3
            x = y = z = 0.0
            for j in range(starts[place], starts[place + 1]):
                o, k = order[j] // 3, order[j] % 3
                turn = normals[t, 0] * normals[o, 0] + normals[t, 1] * normals[o, 1] + normals[t, 2] * normals[o, 2]
                if turn < least:
                    continue
                p, q, r = corners[o, k], corners[o, (k + 1) % 3], corners[o, (k + 2) % 3]
                e0, e1, e2 = q[0] - p[0], q[1] - p[1], q[2] - p[2]
                f0, f1, f2 = r[0] - p[0], r[1] - p[1], r[2] - p[2]
                le = math.sqrt(e0 * e0 + e1 * e1 + e2 * e2)
                lf = math.sqrt(f0 * f0 + f1 * f1 + f2 * f2)
                if le * lf <= 0:
                    continue
                angle = math.acos(min(1.0, max(-1.0, (e0 * f0 + e1 * f1 + e2 * f2) / (le * lf))))
                weight = angle * areas[o]
                x += weight * normals[o, 0]
                y += weight * normals[o, 1]
                z += weight * normals[o, 2]
            length = math.sqrt(x * x + y * y + z * z)
            if length > 0:
                out[t, c, 0], out[t, c, 1], out[t, c, 2] = x / length, y / length, z / length
            else:
                out[t, c] = normals[t]
    return out


def unrolled(mesh: Mesh, faces: Faces, seed: int, frame: Floats) -> Floats:
    """Some faces unrolled from one of them into its plane, corner after corner: (len(faces), 3, 2) mm.

    Each face is turned about the side it shares with the one before it, so its size stays true. Level ground comes
    first, then upright edges, so that a wall goes round its corner with its courses level; a face that cannot be
    reached is NaN. ``frame`` (3, 3) holds the seed's origin, its direction along and its direction up.
    """
    inside = np.full(mesh.count, -1, np.int32)
    inside[faces] = np.arange(len(faces), dtype=np.int32)
    out, done = _unroll(
        mesh.corners[faces], mesh.normals[faces], inside, neighbours(mesh)[faces], int(inside[seed]), frame
    )
    out[~done] = np.nan
    return np.asarray(out)


@compiled
def _unroll(  # noqa: C901 - Dijkstra over faces in one compiled loop
    corners: Vector, normals: Vector, inside: Ints, across: Ints, seed: int, frame: Floats
) -> tuple[Floats, npt.NDArray[np.bool_]]:
    count = corners.shape[0]
    out = np.zeros((count, 3, 2))
    for c in range(3):
        for axis in range(2):
            out[seed, c, axis] = 0.0
            for k in range(3):
                out[seed, c, axis] += (corners[seed, c, k] - frame[0, k]) * frame[1 + axis, k]
    done = np.zeros(count, np.bool_)
    cost = np.full(count, 1e300)
    cost[seed] = 0.0
    heap = [(0.0, np.int64(seed))]
    while len(heap) > 0:
        so_far, t = heapq.heappop(heap)
        if done[t]:
            continue
        done[t] = True
        for side in range(3):
            if across[t, side] < 0:
                continue
            o = inside[across[t, side]]
            if o < 0 or done[o]:
                continue
            p, q = corners[t, side], corners[t, (side + 1) % 3]
            e = q - p
            length = math.sqrt(e[0] * e[0] + e[1] * e[1] + e[2] * e[2])
            if length <= 0:
                continue
            turn = normals[t, 0] * normals[o, 0] + normals[t, 1] * normals[o, 1] + normals[t, 2] * normals[o, 2]
            bend = math.acos(min(1.0, max(-1.0, turn)))
            steep = abs(e[2]) / length
            # A flat facet is laid whole, from wherever it is reached first.
            flat = bend < 0.0087
            step = -1e-9 if flat else bend * (1.0 if steep > 0.9 else 6.0)
            if not flat and so_far + step >= cost[o]:
                continue
            cost[o] = so_far + step
            _unfold(corners, out, int(t), side, int(o), p, e, length)
            heapq.heappush(heap, (so_far + step, np.int64(o)))
    return out, done


@compiled
def _unfold(
    corners: Vector, out: Floats, t: int, side: int, o: int, p: Floats, e: Floats, length: float
) -> None:  # fmt: skip
    """Lay triangle ``o`` beside triangle ``t`` across its side."""
    ax, ay = out[t, side, 0], out[t, side, 1]
    bx, by = out[t, (side + 1) % 3, 0], out[t, (side + 1) % 3, 1]
    ux, uy = (bx - ax) / length, (by - ay) / length
    for c in range(3):
        w = corners[o, c] - p
        along = (w[0] * e[0] + w[1] * e[1] + w[2] * e[2]) / length
        x, y, z = w[0] - along / length * e[0], w[1] - along / length * e[1], w[2] - along / length * e[2]
        away = math.sqrt(x * x + y * y + z * z)
        # The neighbour lies to the right of a side that runs anticlockwise.
        out[o, c, 0] = ax + along * ux + away * uy
        out[o, c, 1] = ay + along * uy - away * ux


def grown(mesh: Mesh, start: int, admit: Callable[[Any], Any]) -> Faces:
    """Triangles connected with one through triangles that ``admit`` (numbers of triangles to booleans) lets in."""
    across = neighbours(mesh)
    found = np.zeros(mesh.count, bool)
    found[start] = True
    front = np.array([start])
    while len(front):
        ahead = np.unique(across[front])
        ahead = ahead[(ahead >= 0)]
        ahead = ahead[~found[ahead]]
        front = ahead[np.asarray(admit(ahead), bool)] if len(ahead) else ahead
        found[front] = True
    return np.flatnonzero(found).astype(np.int32)
