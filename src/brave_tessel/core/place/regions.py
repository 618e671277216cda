"""What of a surface's pattern is seen on a part: regions in the pattern's own millimetres, and lines of openings."""

from __future__ import annotations

import itertools
from dataclasses import dataclass
from typing import Any

import numpy as np
import numpy.typing as npt
import shapely

from .groups import DADO, FRONT
from .laying import Coordinates, Places
from .meeting import SMOOTH, joined, meeting
from .mesh import Faces, Vector
from .site import Site, Standing

Shape = Any
"""A shapely polygon or several."""
APART_MM = 0.5
GRAIN_MM = 0.001


@dataclass(frozen=True, eq=False)
class Region:
    """Faces of something laid that hang together without a sharp bend, as they lie in the pattern, mm."""

    standing: Standing
    row: int
    faces: Faces
    places: Places
    shape: Shape

    def point_at(self, x: float, y: float) -> Vector | None:
        """Where a place of the pattern is in the scene, mm."""
        a, b, c = (self.places[:, k] for k in range(3))
        v0, v1, v2 = b - a, c - a, np.array([x, y]) - a
        whole = v0[:, 0] * v1[:, 1] - v0[:, 1] * v1[:, 0]
        whole = np.where(np.abs(whole) < 1e-12, 1e-12, whole)
        s = (v2[:, 0] * v1[:, 1] - v2[:, 1] * v1[:, 0]) / whole
        t = (v0[:, 0] * v2[:, 1] - v0[:, 1] * v2[:, 0]) / whole
        inside = np.minimum(np.minimum(s, t), 1 - s - t)
        best = int(inside.argmax())
        if inside[best] < -0.02:
            return None
        p, q, r = self.standing.mesh.corners[self.faces[best]]
        return np.asarray(p + s[best] * (q - p) + t[best] * (r - p))


def regions_of(site: Site, standing: Standing, row: int) -> list[Region]:
    """The regions of the ``row``-th thing laid on something that stands, the largest first; none where its places do
    not run evenly.
    """
    found = site.coordinates(standing, row)
    if not found.linear or not len(found.faces):
        return []
    key = standing.laid_key(row, "regions", id(found))
    if key not in standing.by_laid:
        standing.by_laid[key] = (found, _regions(standing, row, found))
    kept: list[Region] = standing.by_laid[key][1]
    return kept


def _regions(standing: Standing, row: int, found: Coordinates) -> list[Region]:
    places = found.flat_corners()
    label = _runs(standing, found.faces, places)
    out = []
    for number in range(int(label.max()) + 1):
        rows = np.flatnonzero(label == number)
        shape = union(places[rows])
        if shape.area > 1.0:
            out.append(Region(standing, row, found.faces[rows], places[rows], shape))
    return sorted(out, key=lambda one: (-round(one.shape.area), int(one.faces[0])))


def main_region(regions: list[Region], face: int = -1) -> Region:
    """The region a face belongs to; else the one that is looked at: the front before other groups, what stands before
    what lies, then the largest.
    """
    own = next((one for one in regions if face in one.faces), None)
    return own or max(regions, key=_weight)


def _weight(one: Region) -> float:
    mesh = one.standing.mesh
    upright = abs(float(np.average(mesh.normals[one.faces, 2], weights=mesh.areas[one.faces]))) < 0.5
    front = str(mesh.names[mesh.groups[one.faces[0]]]) in {str(FRONT), str(DADO)}
    return round(float(one.shape.area)) * (1.0 if upright else 0.4) * (2.0 if front else 1.0)


def _runs(standing: Standing, faces: Faces, places: Places) -> npt.NDArray[np.int64]:
    """(N,): which run each face belongs to: across sides that bend little and where the pattern runs on."""
    found = meeting(standing.mesh, faces, places)
    runs_on = (found.bend > SMOOTH) & (found.apart < APART_MM)
    return joined(len(faces), found.row[runs_on], found.other[runs_on])


def union(triangles: Places) -> Shape:
    """Triangles (N, 3, 2) as one shape."""
    twice = (triangles[:, 1, 0] - triangles[:, 0, 0]) * (triangles[:, 2, 1] - triangles[:, 0, 1]) - (
        triangles[:, 2, 0] - triangles[:, 0, 0]
    ) * (triangles[:, 1, 1] - triangles[:, 0, 1])
    real = triangles[np.abs(twice) > 1e-6]
    if not len(real):
        return shapely.Polygon()
    real = np.where((twice[np.abs(twice) > 1e-6] > 0)[:, None, None], real, real[:, ::-1])
    made = shapely.polygons(np.round(real / GRAIN_MM) * GRAIN_MM)
    # Triangles that share whole sides are merged at once; where sides meet in part, or lie over each other, with care.
    try:
        quick = shapely.coverage_union_all(made)
        whole = float(shapely.area(made).sum())
        if quick.is_valid and abs(quick.area - whole) < 1e-6 * whole:
            return quick
    except shapely.errors.GEOSException:
        pass
    made = shapely.set_precision(made, GRAIN_MM)
    return shapely.union_all(made[~shapely.is_empty(made)], grid_size=GRAIN_MM)


@dataclass(frozen=True, slots=True)
class Edge:
    """A level or an upright edge of a shape, mm: where it is, from where to where it runs, and on which side of it the
    shape lies, +1 above or right.
    """

    at: float
    start: float
    end: float
    side: int


LEAST_MM = 20.0


def edges_of(shape: Shape, *, upright: bool) -> list[Edge]:
    """Level edges of a shape, or upright ones, joined where they are in one line."""
    axis = 0 if upright else 1
    found: dict[tuple[int, int], list[tuple[float, float]]] = {}
    for polygon in shapely.get_parts(shape):
        if polygon.geom_type != "Polygon":
            continue
        polygon = shapely.orient_polygons(polygon)
        for ring in (polygon.exterior, *polygon.interiors):
            points = np.asarray(ring.coords)
            for p, q in itertools.pairwise(points):
                long = abs(q[1 - axis] - p[1 - axis])
                if abs(q[axis] - p[axis]) > 0.002 * max(long, 1.0) or long < 1e-3:
                    continue
                # The shape lies to the left of its outline.
                ahead = q[1 - axis] > p[1 - axis]
                side = (-1 if ahead else 1) if upright else (1 if ahead else -1)
                at = 0.5 * (p[axis] + q[axis])
                found.setdefault((round(at * 10), side), []).append(
                    (min(p[1 - axis], q[1 - axis]), max(p[1 - axis], q[1 - axis]))
                )
    out = []
    for (at, side), spans in found.items():
        whole = sum(high - low for low, high in spans)
        if whole >= LEAST_MM:
            out.append(Edge(at / 10, min(low for low, _ in spans), max(high for _, high in spans), side))
    return sorted(out, key=lambda edge: edge.at)
