"""Edges of a mesh that run on: the line a click on one of them means."""

from __future__ import annotations

import math

import numpy as np

from .mesh import Mesh, Vector
from .topology import neighbours, places

SHARP = math.cos(math.radians(28.0))
STRAIGHT = math.cos(math.radians(50.0))
MOST = 4000


def edge_line(mesh: Mesh, face: int, point: Vector) -> tuple[Vector, bool] | None:
    """The line of sharp or open edges through the one that is nearest to a point of a face: its points (N, 3) mm and
    whether it closes. It runs on as long as one edge goes on without turning by more than 50°; None where the face has
    no such edge.
    """
    sides, points = _sharp_sides(mesh)
    if not len(sides):
        return None
    corners = places(mesh)[face]
    own = np.isin(sides, corners).all(1)
    near = np.flatnonzero(own) if own.any() else np.arange(len(sides))
    best = near[int(_away(points[sides[near]], point).argmin())]
    if not own.any() and _away(points[sides[[best]]], point)[0] > 60.0:
        return None
    beside: dict[int, list[int]] = {}
    for a, b in sides.tolist():
        beside.setdefault(a, []).append(b)
        beside.setdefault(b, []).append(a)
    start, end = (int(v) for v in sides[best])
    ahead = _follow(points, beside, start, end)
    if ahead[-1] == start:
        return points[[start, *ahead]], True
    behind = _follow(points, beside, end, start)
    return points[[*reversed(behind), *ahead]], False


def _sharp_sides(mesh: Mesh) -> tuple[np.ndarray, Vector]:  # type: ignore[type-arg]
    """(S, 2) numbers of places at open and sharp sides, each once, and the places' points."""
    at = places(mesh)
    points = np.zeros((int(at.max()) + 1 if len(at) else 0, 3))
    points[at.ravel()] = mesh.corners.reshape(-1, 3)
    across = neighbours(mesh)
    bend = np.einsum("ij,ikj->ik", mesh.normals, mesh.normals[np.maximum(across, 0)])
    row, side = np.nonzero((across < 0) | (bend < SHARP))
    pairs = np.stack([at[row, side], at[row, (side + 1) % 3]], 1)
    pairs.sort(1)
    return np.unique(pairs, axis=0), points


def _away(ends: Vector, point: Vector) -> Vector:
    p, q = ends[:, 0], ends[:, 1]
    line = q - p
    share = np.clip(((point - p) * line).sum(1) / np.maximum((line * line).sum(1), 1e-12), 0, 1)
    return np.asarray(np.linalg.norm(point - p - share[:, None] * line, axis=1))


def _follow(points: Vector, beside: dict[int, list[int]], before: int, here: int) -> list[int]:
    """The places that follow, straightest first, until it turns, ends or comes round."""
    out, first = [here], before
    while len(out) < MOST:
        way = points[here] - points[before]
        way = way / max(float(np.linalg.norm(way)), 1e-12)
        best, found = STRAIGHT, -1
        for following in beside[here]:
            step = points[following] - points[here]
            turn = float(step @ way) / max(float(np.linalg.norm(step)), 1e-12)
            if following != before and turn > best:
                best, found = turn, following
        if found < 0 or found in out:
            break
        out.append(found)
        if found == first:
            break
        before, here = here, found
    return out
