"""Lines in space: arc length, the nearest place on them, and frames that do not twist."""

from __future__ import annotations

import math
from functools import cached_property

import numpy as np
import numpy.typing as npt

from .frames import UP
from .mesh import Vector

Lengths = npt.NDArray[np.float64]
Numbers = npt.NDArray[np.int64]
_CHUNK = 4_000_000
_SMOOTH = math.cos(math.radians(14.0))
"""Stretches that turn by less than twice this much from one another are parts of a curve."""


class Track:
    """A line of straight stretches, (N, 3) mm, measured by its arc length.

    Frames are moved along without turning about the line (rotation-minimizing, by double reflection: Wang, Jüttler,
    Zheng and Liu 2008); on a closed one what is left over is spread evenly.
    """

    def __init__(self, points: Vector, *, closed: bool = False) -> None:
        points = np.asarray(points, np.float64)
        kept = np.concatenate([[True], np.linalg.norm(np.diff(points, axis=0), axis=1) > 1e-6])
        points = points[kept]
        if closed and len(points) > 2 and np.linalg.norm(points[0] - points[-1]) > 1e-6:
            points = np.concatenate([points, points[:1]])
        self.points, self.closed = points, closed
        steps = np.diff(points, axis=0)
        self.lengths = np.linalg.norm(steps, axis=1)
        self.directions = steps / np.maximum(self.lengths[:, None], 1e-12)
        self.starts = np.concatenate([[0.0], np.cumsum(self.lengths)])

    @property
    def length(self) -> float:
        """How long it is, mm."""
        return float(self.starts[-1])

    def nearest(self, places: Vector) -> Lengths:
        """Arc lengths (N,) of places: of the stretch each is nearest to, by the planes that part it from the next."""
        return self.along(places, self.stretch_of(places))

    def stretch_of(self, places: Vector) -> Numbers:
        """(N,): the stretch each place is nearest to."""
        out = np.empty(len(places), np.int64)
        rows = max(1, _CHUNK // max(1, len(self.lengths)))
        for start in range(0, len(places), rows):
            some = places[start : start + rows]
            away = some[:, None, :] - self.points[None, :-1, :]
            along = np.einsum("nsk,sk->ns", away, self.directions)
            held = np.clip(along, 0, self.lengths)
            out[start : start + rows] = ((away - held[..., None] * self.directions) ** 2).sum(-1).argmin(1)
        return out

    def along(self, places: Vector, stretch: Numbers) -> Lengths:
        """Arc lengths (N,) of places as stretches of the line see them; beyond its ends a stretch goes straight on.

        Along a curve the planes between stretches halve their angle, so that joints stand square to it; at a sharp
        corner each stretch keeps its own square joints up to the mitre.
        """
        first, last = self._planes
        away = np.einsum("nk,nk->n", places - self.points[stretch], first[stretch])
        rest = np.einsum("nk,nk->n", self.points[stretch + 1] - places, last[stretch])
        whole = away + rest
        safe = np.abs(whole) > 1e-6 * self.lengths[stretch]
        share = np.where(safe, away / np.where(safe, whole, 1.0), 0.0)
        straight = np.einsum("nk,nk->n", places - self.points[stretch], self.directions[stretch])
        # Far outside a tight bend the planes cross: there the stretch itself is the better measure.
        inside = safe & (share > -1.5) & (share < 2.5)
        return np.asarray(self.starts[stretch] + np.where(inside, share * self.lengths[stretch], straight))

    @cached_property
    def _planes(self) -> tuple[Vector, Vector]:
        """Normals of the planes at the start and at the end of every stretch."""
        d = self.directions
        halved = self.corner_tangents()
        if not self.closed and len(d) > 1:
            # The ends of a curve lean on as its bend goes on.
            for end, inner, own in ((0, 1, 0), (-1, -2, -1)):
                if d[own] @ halved[inner] > _SMOOTH:
                    halved[end] = 2 * (halved[inner] @ d[own]) * d[own] - halved[inner]
        first, last = halved[:-1].copy(), halved[1:].copy()
        for normals in (first, last):
            sharp = np.einsum("ij,ij->i", normals, d) < _SMOOTH
            normals[sharp] = d[sharp]
            # On the line itself a share is a share of the stretch.
            normals /= np.einsum("ij,ij->i", normals, d)[:, None]
        return first, last

    def points_on(self, at: Lengths, stretch: Numbers) -> Vector:
        """(N, 3) mm: the places at arc lengths, each on the straight line of its stretch."""
        return np.asarray(self.points[stretch] + (at - self.starts[stretch])[:, None] * self.directions[stretch])

    def _stretch(self, at: Lengths) -> tuple[npt.NDArray[np.int64], Lengths]:
        at = at % self.length if self.closed else at
        index = np.clip(np.searchsorted(self.starts, at, side="right") - 1, 0, len(self.lengths) - 1)
        return index, at - self.starts[index]

    def points_at(self, at: Lengths) -> Vector:
        """(N, 3) mm at arc lengths; straight on beyond an open end."""
        index, rest = self._stretch(at)
        return np.asarray(self.points[index] + rest[:, None] * self.directions[index])

    def tangents_at(self, at: Lengths) -> Vector:
        """(N, 3) unit directions at arc lengths."""
        return np.asarray(self.directions[self._stretch(at)[0]])

    def corner_tangents(self) -> Vector:
        """Unit directions at the points of the line, half way between those of the stretches that meet."""
        d = self.directions
        before = np.concatenate([d[-1:] if self.closed else d[:1], d])
        after = np.concatenate([d, d[:1] if self.closed else d[-1:]])
        both = before + after
        length = np.linalg.norm(both, axis=1, keepdims=True)
        return np.asarray(np.where(length > 1e-9, both / np.maximum(length, 1e-12), after))

    def frames(self, side: Vector | None = None) -> tuple[Vector, Vector]:
        """Sideways and up (N, 3) at the points of the line, carried on without a twist from a first side."""
        tangents = self.corner_tangents()
        sides = np.empty_like(tangents)
        sides[0] = _square_to(tangents[0], side if side is not None else _first_side(tangents[0]))
        for i in range(len(tangents) - 1):
            step = self.points[i + 1] - self.points[i]
            mirrored = sides[i] - 2 / (step @ step) * (step @ sides[i]) * step
            turned = tangents[i] - 2 / (step @ step) * (step @ tangents[i]) * step
            rest = tangents[i + 1] - turned
            size = float(rest @ rest)
            following = mirrored if size < 1e-18 else mirrored - 2 / size * (rest @ mirrored) * rest
            sides[i + 1] = _square_to(tangents[i + 1], following)
        if self.closed:
            sides = self._spread(sides, tangents)
        return sides, np.cross(sides, tangents)

    def _spread(self, sides: Vector, tangents: Vector) -> Vector:
        """On a closed line the last frame is the first again."""
        last, up = sides[-1], np.cross(sides[-1], tangents[-1])
        over = np.arctan2(float(sides[0] @ up), float(sides[0] @ last))
        angles = over * self.starts / self.length
        ups = np.cross(sides, tangents)
        return np.asarray(np.cos(angles)[:, None] * sides + np.sin(angles)[:, None] * ups)

    def frames_at(self, at: Lengths) -> tuple[Vector, Vector]:
        """Sideways and up (N, 3) at arc lengths."""
        sides, _ = self.frames()
        index, rest = self._stretch(at)
        share = np.clip(rest / np.maximum(self.lengths[index], 1e-12), 0, 1)[:, None]
        tangents = self.directions[index]
        mixed = (1 - share) * sides[index] + share * sides[index + 1]
        mixed -= np.einsum("ij,ij->i", mixed, tangents)[:, None] * tangents
        mixed /= np.maximum(np.linalg.norm(mixed, axis=1, keepdims=True), 1e-12)
        return mixed, np.cross(mixed, tangents)


def _first_side(tangent: Vector) -> Vector:
    """To the right of the line, seen from above; east of one that stands upright."""
    side = np.cross(tangent, UP)
    return side if np.linalg.norm(side) > 1e-6 else np.array([1.0, 0.0, 0.0])


def _square_to(tangent: Vector, side: Vector) -> Vector:
    side = side - float(side @ tangent) * tangent
    return np.asarray(side / max(float(np.linalg.norm(side)), 1e-12))
