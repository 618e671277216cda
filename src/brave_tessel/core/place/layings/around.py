"""Laid around what is round: columns, cones and domes."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Annotated

import numpy as np
import numpy.typing as npt

from ...operation import Choice, Length, Toggle
from ...phrases import say
from ..laying import Axis, Bed, Coordinates, Places, even, laying
from ..mesh import Faces, Mesh, Vector

CAP_COSINE = 0.9
"""Faces that look along the axis by more lie flat, square to it."""

ALIKE = 1 / 30
ENDS_COSINE = 0.8


@laying("around", label="Around")
def around(
    bed: Bed,
    *,
    shape: Annotated[
        str,
        Choice(
            "as it is",
            "cylinder",
            "cone",
            "developed cone",
            "dome",
            help="What it is laid around; a developed cone is true all over and opens like a fan.",
        ),
    ] = "as it is",
    axis: Annotated[str, Choice("its own", "upright", "east", "north", help="The line it turns about.")] = "its own",
    true_at: Annotated[
        float,
        Length(-5000, 5000, least=-1e6, most=1e6, help="On a cone or dome: how far over the datum a course is true."),
    ] = 0.0,
    girth: Annotated[
        str,
        Choice(
            "of the axis", "of each face", help="By whose radius it is laid: both sides of a thick round wall differ."
        ),
    ] = "of the axis",
    whole: Annotated[bool, Toggle(help="Stretches it so that whole repeats go round.")] = False,
) -> Coordinates:
    """Round the part by true arc length: up along the axis, on domes along the meridian."""  # fmt: skip
    if not len(bed.faces):
        return even(bed.mesh, bed.faces, np.zeros((0, 3, 2)))
    found = _axis_of(bed, axis)
    kind = found.shape if shape == "as it is" else shape
    return _Round(bed, found).laid(kind, true_at, whole, each=girth == "of each face")


_DIRECTIONS = {"upright": (0.0, 0.0, 1.0), "east": (1.0, 0.0, 0.0), "north": (0.0, 1.0, 0.0)}


def _axis_of(bed: Bed, word: str) -> Axis:
    if word in _DIRECTIONS:
        return fitted_axis(bed.mesh, bed.faces, np.array(_DIRECTIONS[word]))
    return bed.axis or fitted_axis(bed.mesh, bed.faces)


def fitted_axis(mesh: Mesh, faces: Faces, along: Vector | None = None) -> Axis:
    """The axis round faces turn about, by least squares: the direction that normals leave out, and the line that
    they all run through.
    """
    normals, weights = mesh.normals[faces], mesh.areas[faces]
    middles = mesh.corners[faces].mean(1)
    if along is None:
        _, vectors = np.linalg.eigh((normals * weights[:, None]).T @ normals)
        along = vectors[:, 0] if abs(vectors[:, 0].sum()) > 1e-9 else vectors[:, 0] + 1e-9
        along = along if along[np.abs(along).argmax()] > 0 else -along
    along = np.asarray(along, float)
    across = normals - np.outer(normals @ along, along)
    length = np.linalg.norm(across, axis=1)
    used = length > 0.3
    if used.sum() < 3:
        return Axis(middles.mean(0), along, 1.0)
    across, middles, weights = across[used] / length[used, None], middles[used], weights[used]
    # Every normal's line misses the axis by as little as can be, seen along it.
    projector = np.eye(3) - np.outer(along, along) - across[:, :, None] * across[:, None, :]
    # Where it stands along the axis is free: the middle of the faces.
    mean = np.average(middles, axis=0, weights=weights)
    left = np.einsum("n,nij->ij", weights, projector) + weights.sum() * np.outer(along, along)
    right = np.einsum("n,nij,nj->i", weights, projector, middles) + weights.sum() * float(mean @ along) * along
    at, *_ = np.linalg.lstsq(left, right, rcond=1e-9)
    # The corners lie on the round itself, the middles of the faces inside it.
    away = mesh.corners[faces][used] - at
    radial = np.linalg.norm(away - (away @ along)[..., None] * along, axis=-1).mean(1)
    return Axis(at, along, float(np.average(radial, weights=weights)))


class _Round:
    """Places around an axis: turns from the datum's direction, heights from the datum."""

    def __init__(self, bed: Bed, axis: Axis) -> None:
        self.bed, self.axis = bed, axis
        away = bed.datum - axis.at
        start = away - (away @ axis.along) * axis.along
        if np.linalg.norm(start) < 1.0:
            start = np.cross(axis.along, [0.0, 0.0, 1.0] if abs(axis.along[2]) < 0.9 else [0.0, 1.0, 0.0])
        self.east = start / np.linalg.norm(start)
        self.north = np.cross(axis.along, self.east)
        self.from_datum = float(away @ axis.along)
        corners = bed.corners - axis.at
        self.rise = corners @ axis.along
        x, y = corners @ self.east, corners @ self.north
        self.radius = np.hypot(x, y)
        self.turn = _joined_turns(np.arctan2(y, x), self.radius)
        middles = corners.mean(1)
        outward = middles - np.outer(middles @ axis.along, axis.along)
        # Seen from inside, along runs the other way.
        self.sign = np.where(np.einsum("ij,ij->i", outward, bed.normals) >= 0, 1.0, -1.0)[:, None]

    def laid(self, kind: str, true_at: float, whole: bool, *, each: bool = False) -> Coordinates:
        if kind == "developed cone":
            return even(self.bed.mesh, self.bed.faces, self._developed())
        girth, rises = self._sizes(kind, true_at)
        girth, note = self._closed(girth, whole)
        own = self._girths(girth) if each and kind == "cylinder" else girth
        along = self.sign * self.turn * own
        if kind == "cylinder":
            along = along + self._ends(own)
        places = np.stack([along, rises], -1)
        made = even(self.bed.mesh, self.bed.faces, places, note)
        caps = np.abs(self.bed.normals @ self.axis.along) > CAP_COSINE if kind == "cylinder" else None
        return made if caps is None or not caps.any() else self._with_caps(made, caps)

    def _sizes(self, kind: str, true_at: float) -> tuple[float, Places]:
        """Millimetres to a radian along a course, and every corner's height over the datum along the surface."""
        level = self.from_datum + true_at
        if kind == "dome":
            radius = np.hypot(self.radius, self.rise)
            whole = self.axis.radius
            start = math.asin(min(1.0, max(-1.0, self.from_datum / whole)))
            climb = radius * np.arctan2(self.rise, self.radius) - whole * start
            return math.sqrt(max(whole**2 - min(abs(level), whole * 0.999) ** 2, 1.0)), climb
        if kind == "cone":
            slope = self._slope()
            below = abs(level)
            slant = np.hypot(self.radius, self.rise)
            return max(below * math.tan(slope), 1.0), abs(self.from_datum) / math.cos(slope) - slant
        return self.axis.radius, self.rise - self.from_datum

    def _ends(self, girth: Places | float) -> Places:
        """(N, 3): how far corners of faces that look round the axis are beside it, so that these lie flat."""
        normals = self.bed.normals
        middles = self.bed.corners.mean(1) - self.axis.at
        outward = middles - np.outer(middles @ self.axis.along, self.axis.along)
        outward /= np.maximum(np.linalg.norm(outward, axis=1, keepdims=True), 1e-12)
        round_it = np.einsum("ij,ij->i", normals, np.cross(self.axis.along, outward))
        ends = np.abs(round_it) > ENDS_COSINE
        return np.where(ends[:, None], np.sign(round_it)[:, None] * (self.radius - girth), 0.0)

    def _girths(self, girth: float) -> Places:
        """(N, 1): the radius each face is laid by, those within a thirtieth alike, so that bevels run on with faces."""
        radius = self.radius.mean(1)
        weights = self.bed.mesh.areas[self.bed.faces]
        out = np.full(len(radius), girth)
        left = np.abs(radius / girth - 1) > ALIKE
        while left.any():
            # The radius with the most on it takes what is near it.
            order = np.flatnonzero(left)
            rounded = np.round(np.log(np.maximum(radius[order], 1.0)) / ALIKE).astype(int)
            totals = np.bincount(rounded - rounded.min(), weights[order])
            near = order[rounded - rounded.min() == totals.argmax()]
            own = float(np.average(self.radius[near].max(1), weights=weights[near] + 1e-9))
            taken = order[np.abs(radius[order] / own - 1) <= ALIKE]
            taken = taken if len(taken) else near
            out[taken] = own
            left[taken] = False
        return out[:, None]

    def _slope(self) -> float:
        """Half the opening angle of a cone whose apex is the axis' point."""
        return math.atan2(float(np.median(self.radius)), float(np.median(np.abs(self.rise))) or 1.0)

    def _developed(self) -> Places:
        slope = self._slope()
        slant = np.hypot(self.radius, self.rise)
        angle = self.sign * self.turn * math.sin(slope)
        start = abs(self.from_datum) / math.cos(slope)
        return np.stack([slant * np.sin(angle), start - slant * np.cos(angle)], -1)

    def _closed(self, girth: float, whole: bool) -> tuple[float, str]:
        """The girth to lay by: stretched where whole repeats are asked for, which is told."""
        repeat = self.bed.repeat[0]
        if not whole or repeat <= 0:
            return girth, ""
        count = max(1, round(2 * math.pi * girth / repeat))
        stretch = 2 * math.pi * girth / (count * repeat)
        told = say("{count} repeats round, {percent:+.1f} % wide", count=count, percent=100 * (stretch - 1))
        return count * repeat / (2 * math.pi), told

    def _with_caps(self, made: Coordinates, caps: npt.NDArray[np.bool_]) -> Coordinates:
        corners = made.corners.copy()
        away = self.bed.corners[caps] - self.axis.at
        facing = np.sign(self.bed.normals[caps] @ self.axis.along)[:, None]
        corners[caps, :, 0], corners[caps, :, 1] = facing * (away @ self.north), away @ -self.east
        return replace(made, corners=corners)


def _joined_turns(turns: Places, radius: Places) -> Places:
    """Angles of the corners of each face without a leap inside it; a corner on the axis takes the middle of the
    others.
    """
    on_axis = radius < 1e-6 * max(1.0, float(radius.max()))
    anchor = np.where(on_axis[:, 0], np.where(on_axis[:, 1], turns[:, 2], turns[:, 1]), turns[:, 0])[:, None]
    joined = anchor + (turns - anchor + np.pi) % (2 * np.pi) - np.pi
    others = np.where(on_axis, 0.0, joined).sum(1, keepdims=True) / np.maximum((~on_axis).sum(1, keepdims=True), 1)
    return np.where(on_axis, others, joined)
