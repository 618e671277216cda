"""Courses that do not meet round a corner."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from ...job.scene import Place
from ...phrases import say
from ..check import SceneFinding, scene_check, shown
from ..elevation import UPRIGHT, Facet, facets_of
from ..mesh import Vector
from ..site import BARE, Site

MISS_MM, SAME_MM = 1.5, 0.2
MEETS_MM = 4.0
WORTH_MM = 150.0
"""Faces narrower or lower than this are edges, not walls."""


@dataclass(frozen=True, eq=False)
class _Wall:
    """A face with courses: where its ends are in plan, how high it is, and its courses, mm."""

    facet: Facet
    row: int
    surface: str
    name: str
    ends: tuple[Vector, Vector]
    low: float
    high: float
    course: float
    start: float


@scene_check("corners")
def joints_miss(site: Site) -> Iterator[SceneFinding]:
    """Two faces with the same surface meet upright, and their bed joints do not."""
    walls = [wall for one in shown(site) for wall in _walls(site, one)]
    told: set[tuple[str, str]] = set()
    for i, one in enumerate(walls):
        for other in walls[i + 1 :]:
            if one.surface != other.surface or abs(float(one.facet.normal @ other.facet.normal)) > 0.98:
                continue
            pair = (one.facet.standing.part.id, other.facet.standing.part.id)
            at = _meeting(one, other)
            if at is None or pair in told:
                continue
            off = _off(one, other, at[2])
            if off is None:
                continue
            told.add(pair)
            laid = other.facet.standing.part.laid[other.row]
            where = other.facet.standing.part.name
            yield SceneFinding(
                "corners", pair[1], laid.id, "caution", say("Joints miss at a corner"),
                say("Courses of {surface} on {one} and {other} are {mm:.1f} mm apart where they meet.",
                    surface=one.name, one=one.facet.standing.part.name, other=where, mm=off),
                at,
            )  # fmt: skip


def _walls(site: Site, one: object) -> Iterator[_Wall]:
    for facet in facets_of(one):  # type: ignore[arg-type]
        row = int(facet.standing.covering[facet.faces[0]])
        size = facet.high - facet.low
        if row == BARE or abs(facet.normal[2]) > UPRIGHT or size.min() < WORTH_MM:
            continue
        laid = facet.standing.part.laid[row]
        surface = site.surface(laid)
        gauge = site.gauge(laid)
        found = site.coordinates(facet.standing, row)
        if surface is None or gauge is None or gauge.courses is None or not found.linear:
            continue
        rows = np.searchsorted(found.faces, facet.faces)
        z = facet.standing.mesh.corners[facet.faces][..., 2].ravel()
        y = found.flat_corners()[rows][..., 1].ravel()
        (rise, zero), *_ = np.linalg.lstsq(np.stack([z, np.ones_like(z)], 1), y, rcond=None)
        if abs(rise) < 1e-6 or np.abs(rise * z + zero - y).max() > 0.5:
            continue
        course = gauge.courses.mm / abs(rise)
        start = (gauge.courses.start * gauge.courses.mm - zero) / rise
        low, high = float(facet.low[1]), float(facet.high[1])
        yield _Wall(facet, row, laid.surface, surface.name, facet.ends, low, high, float(course), float(start))


def _meeting(one: _Wall, other: _Wall) -> Place | None:
    """Where two faces meet, half way up what they share."""
    low, high = max(one.low, other.low), min(one.high, other.high)
    if high - low < one.course:
        return None
    for a in one.ends:
        for b in other.ends:
            if float(np.abs(a - b).max()) < MEETS_MM:
                return float(a[0]), float(a[1]), (low + high) / 2
    return None


def _off(one: _Wall, other: _Wall, height: float) -> float | None:
    """How far bed joints are apart at most where two faces meet; None where they meet."""
    if abs(one.course - other.course) > SAME_MM:
        return max(abs(one.course - other.course), _gap(one, other, height))
    gap = _gap(one, other, height)
    return gap if gap > MISS_MM else None


def _gap(one: _Wall, other: _Wall, height: float) -> float:
    course = one.course
    mine = one.start + round((height - one.start) / one.course) * one.course
    theirs = other.start + round((mine - other.start) / other.course) * other.course
    return abs((mine - theirs + course / 2) % course - course / 2)
