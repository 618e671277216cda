"""Laid along a path: arc length along it, joints square to it."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Choice, Toggle
from ...phrases import say
from ..laying import Bed, Coordinates, Places, even, laying
from ..mesh import Vector
from ..paths import Track
from .profile_girth import over_profile


@laying("path", label="Along a path")
def along_path(
    bed: Bed,
    *,
    rises: Annotated[
        str,
        Choice(
            "in the face",
            "round the path",
            "over the profile",
            help="Up is measured away from the path in the face, round it, or over a moulding's profile.",
        ),
    ] = "in the face",
    whole: Annotated[
        str,
        Choice(
            "as it comes", "repeats", "units", help="Stretched along so that whole ones fill the path from its start."
        ),
    ] = "as it comes",
    fill: Annotated[bool, Toggle(help="Over the profile: stretched up so that one repeat or band covers it.")] = False,
    keystone: Annotated[bool, Toggle(help="With whole units: one of them in the middle of the path.")] = False,
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
    start = float(track.nearest(bed.datum[None])[0]) if whole == "as it comes" else 0.0
    size, note = _whole(track, bed, whole, keystone)
    along = (where - start).reshape(-1, 3) * size
    if rises == "round the path":
        return even(bed.mesh, bed.faces, _round(track, bed, along, away, where), note)
    if rises == "over the profile":
        up, girth, aside = over_profile(track, bed, away, where)
        tall = bed.repeat[1] / girth if fill and girth > 0 else 1.0
        return even(bed.mesh, bed.faces, np.stack([along + aside, up * tall], -1), note)
    sideways = np.cross(np.repeat(bed.normals, 3, 0), track.directions[stretch])
    sideways /= np.maximum(np.linalg.norm(sideways, axis=-1, keepdims=True), 1e-12)
    up = np.einsum("nk,nk->n", away, sideways).reshape(-1, 3)
    return even(bed.mesh, bed.faces, np.stack([along, up], -1), note)


def _whole(track: Track, bed: Bed, whole: str, keystone: bool) -> tuple[float, str]:
    """What places along are multiplied by so that whole repeats or units fill the path, and that said."""
    each = bed.unit if whole == "units" else bed.repeat[0] if whole == "repeats" else 0.0
    if each <= 0 or track.length <= 0:
        return 1.0, ""
    count = max(1, round(track.length / each))
    if keystone and whole == "units" and count % 2 == 0:
        # The odd number that is nearer.
        count += 1 if track.length / each > count or count == 2 else -1
    stretch = track.length / (count * each)
    percent = 100 * (stretch - 1)
    if whole == "units":
        return 1 / stretch, say("{count} units, {percent:+.1f} % wide", count=count, percent=percent)
    return 1 / stretch, say("{count} repeats, {percent:+.1f} % wide", count=count, percent=percent)


def _round(track: Track, bed: Bed, along: Places, away: Vector, where: Places) -> Places:
    sides, ups = track.frames_at(where)
    x, y = np.einsum("ij,ij->i", away, sides), np.einsum("ij,ij->i", away, ups)
    radius = np.hypot(x, y).reshape(along.shape)
    turn = np.arctan2(y, x).reshape(along.shape)
    turn = turn[:, :1] + (turn - turn[:, :1] + np.pi) % (2 * np.pi) - np.pi
    mean = float(np.average(radius.mean(1), weights=bed.mesh.areas[bed.faces] + 1e-9))
    return np.stack([along, turn * mean], -1)
