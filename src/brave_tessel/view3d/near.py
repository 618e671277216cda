"""Relief near the eye as a mesh: faces in small patches, which the driver divides and lifts by the height.

What is drawn stays the picture of :file:`part.frag.glsl`, found along the eye's ray; the mesh gives it its outline.
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

from .drawn import DrawPart, Look

Floats = npt.NDArray[np.float32]

PATCH_M, MOST_PATCHES = 0.5, 20_000
"""Longest edge of a patch near the eye (the driver divides it by up to 64), and patches from which on it grows."""
LEAST_PX = 2.0
"""Height of a relief on the screen under which it is drawn without a mesh."""
GRAIN_PX, COARSE_PX = 6.0, 9.0
"""Length of an edge on the screen at rest, and while it moves."""
STRIDE_M = 1.0
"""How far the eye may go before patches are made anew about it."""
_MANY = 150_000
"""Corners about the eye from which on faces go along their normals alone: fine meshes have few sharp corners."""
_WELD_M = 2e-4
_SHARPEST = 3.0
"""Most that a sharp corner moves for one unit of height."""


@dataclass(frozen=True, slots=True, eq=False)
class Spot:
    """Where patches were made for: a state of the scene, an eye, how far reliefs stand out."""

    changes: int
    eye: npt.NDArray[np.float64]
    reach: float

    def holds(self, other: Spot) -> bool:
        """Whether what was made for this one does for another."""
        return (
            self.changes == other.changes
            and float(np.linalg.norm(self.eye - other.eye)) < STRIDE_M
            and other.reach <= 1.2 * self.reach
        )

    def near(self, part: DrawPart) -> npt.NDArray[np.bool_]:
        """Which triangles of a part come within reach, with a stride to spare."""
        corners = part.positions.reshape(-1, 3, 3)
        middle = corners.mean(1)
        radius = np.linalg.norm(corners - middle[:, None], axis=2).max(1)
        return np.asarray(np.linalg.norm(middle - self.eye, axis=1) - radius < self.reach + STRIDE_M)


def focal_px(look: Look) -> float:
    """Pixels of something one metre wide, one metre away."""
    return look.height / (2 * math.tan(math.radians(look.camera.field_of_view) / 2))


def reach_m(rise_m: float, look: Look) -> float:
    """How far away a relief, ``rise_m`` from its lowest to its highest, stands out."""
    return rise_m * focal_px(look) / LEAST_PX


def away(parts: Iterable[DrawPart], eye: npt.NDArray[np.float64]) -> float:
    """How far the box of the nearest of some parts is, m."""
    least = math.inf
    for part in parts:
        if len(part.positions):
            low, high = part.box or (part.positions.min(0), part.positions.max(0))
            out = np.maximum(0.0, np.maximum(np.array(low) - eye, eye - np.array(high)))
            least = min(least, float(np.linalg.norm(out)))
    return least


def near_patches(
    parts: list[DrawPart], members: tuple[DrawPart, ...], raised: set[str], spot: Spot
) -> tuple[Floats, Floats]:
    """Some parts of a scene: the corners (N, 12) of what is in reach as patches (place, normal, UV and w, which way
    each is lifted), and those (M, 9) of the rest as it is.
    """
    masks = {part.id: spot.near(part) for part in parts if away((part,), spot.eye) < spot.reach + STRIDE_M}
    close = [_picked(part, masks[part.id]) for part in parts if part.id in masks]
    going = lifts(close, raised) if sum(len(part.positions) for part in close) < _MANY else {}
    near, rest = [np.zeros((0, 12), np.float32)], [np.zeros((0, 9), np.float32)]
    for part in members:
        corner = np.repeat(masks.get(part.id, np.zeros(len(part.positions) // 3, bool)), 3)
        whole = np.concatenate([part.positions, part.normals, part.uv], 1).astype(np.float32)
        rest.append(whole[~corner])
        if corner.any():
            lift = going.get(part.id, _unit(part.normals[corner]))
            near.append(patches(np.concatenate([whole[corner], lift], 1).astype(np.float32)))
    return np.concatenate(near), np.concatenate(rest)


def _picked(part: DrawPart, triangles: npt.NDArray[np.bool_]) -> DrawPart:
    corner = np.repeat(triangles, 3)
    return replace(
        part, positions=part.positions[corner], normals=part.normals[corner], uv=part.uv[corner], light=None, box=None
    )


def lifts(parts: list[DrawPart], raised: set[str]) -> dict[str, Floats]:
    """Which way each corner of each part goes as the relief rises, (N, 3) for one unit of height.

    Along the normal; where faces meet at an angle so that each face is lifted by its own relief and the corner stays
    closed (a mitre, by least squares): one with another surface on it, or none of the ``raised`` ones, stays.
    """
    wanted = [part for part in parts if len(part.positions)]
    if not wanted:
        return {}
    places = np.concatenate([part.positions for part in wanted])
    normals = np.concatenate([_unit(part.normals) for part in wanted])
    names = {name: k for k, name in enumerate(sorted({part.surface for part in wanted}))}
    kinds = np.concatenate([np.full(len(p.positions), names[p.surface]) for p in wanted])
    cell = _named(np.rint(places / _WELD_M).astype(np.int64))
    facing = _named(np.column_stack([cell, np.rint(normals * 50).astype(np.int64), kinds]))
    _, first = np.unique(facing, return_index=True)
    # Faces that meet in a corner, each once; a corner of one face goes along its normal.
    corners, meeting = np.unique(cell[first], return_counts=True)
    corners = corners[meeting > 1]
    out = normals.copy()
    if len(corners):
        rows, where = _found(corners, cell, np.arange(len(cell)))
        known, at = _found(corners, cell[first], first)
        n = normals[known].astype(np.float64)
        squares = np.zeros((len(corners), 3, 3))
        np.add.at(squares, at, n[:, :, None] * n[:, None, :])
        solved = np.linalg.pinv(squares, rcond=2e-2, hermitian=True)
        for name, kind in names.items():
            if name in raised:
                sums = np.zeros((len(corners), 3))
                same = kinds[known] == kind
                np.add.at(sums, at[same], n[same])
                mitre = np.einsum("kij,kj->ki", solved, sums)
                own = kinds[rows] == kind
                out[rows[own]] = mitre[where[own]]
    length = np.linalg.norm(out, axis=1, keepdims=True)
    out *= np.minimum(1.0, _SHARPEST / np.maximum(length, 1e-6))
    ends = np.cumsum([len(part.positions) for part in wanted])[:-1]
    return {part.id: own for part, own in zip(wanted, np.split(out, ends), strict=True)}


def patches(corners: Floats, longest: float = PATCH_M) -> Floats:
    """Triangle corners (3 N, K), place first, halved at their edges until none is longer than ``longest``.

    An edge is halved by its own length alone, so triangles that share one stay joined.
    """
    whole = corners.reshape(-1, 3, corners.shape[1])
    area = np.linalg.norm(
        np.cross(whole[:, 1, :3] - whole[:, 0, :3], whole[:, 2, :3] - whole[:, 0, :3]), axis=1
    ).sum()  # fmt: skip
    longest = max(longest, math.sqrt(float(area) / MOST_PATCHES) * 1.5)
    done = [whole[:0]]
    while len(whole):
        edges = np.linalg.norm(whole[:, [1, 2, 0], :3] - whole[:, :, :3], axis=2)
        # Equal lengths are told apart by no more than rounding: a hair's breadth over is not over.
        far = edges.max(1) > longest * (1 + 1e-5)
        done.append(whole[~far])
        whole = whole[far]
        start = edges[far].argmax(1)
        order = (start[:, None] + np.arange(3)) % 3
        a, b, c = (whole[np.arange(len(whole)), order[:, k]] for k in range(3))
        middle = (a + b) / 2
        whole = np.concatenate([np.stack([a, middle, c], 1), np.stack([middle, b, c], 1)])
    return np.ascontiguousarray(np.concatenate(done).reshape(-1, corners.shape[1]), np.float32)


def _unit(vectors: Floats) -> Floats:
    return np.asarray(vectors / np.maximum(np.linalg.norm(vectors, axis=1, keepdims=True), 1e-9), np.float32)


def _named(rows: npt.NDArray[np.int64]) -> npt.NDArray[np.int64]:
    """One number for each row of whole numbers (N, K): equal for equal ones, by mixing (Knuth's multiplier)."""
    key = np.zeros(len(rows), np.int64)
    for column in rows.T:
        key = (key ^ (key >> 29)) * np.int64(0x5851F42D4C957F2D) + column
    return key


def _found(
    corners: npt.NDArray[np.int64], cell: npt.NDArray[np.int64], rows: npt.NDArray[np.int64]
) -> tuple[npt.NDArray[np.int64], npt.NDArray[np.int64]]:
    """The rows whose cell is one of some sorted corners, and which one."""
    at = np.minimum(np.searchsorted(corners, cell), len(corners) - 1)
    there = corners[at] == cell
    return rows[there], at[there]
