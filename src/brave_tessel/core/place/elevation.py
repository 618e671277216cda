"""Walls unrolled flat as a setting-out drawing, the surface on them as it lies, and the courses that fit.

The drawing has its own unrolling; what lies at a place of it is asked of the laying itself, so it cannot say other
than the model.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt
import xxhash

from ..buildup.kind import kind_of
from ..job.layers import Surface
from ..operation import find
from ..recipe.steps.pattern import set_out
from ..sheet import Grid
from .develop import developed, run_areas, smooth_run
from .frames import LEVEL_COSINE, face_axes
from .mesh import Faces, Mesh, Vector
from .site import Site, Standing
from .topology import facets

MEETS_MM = 2.0
MOST_FACETS, MOST_CURVED = 400, 60_000
"""Facets of a drawing, and of a part for it; a chain that is longer ends there."""
LEAST_MM2 = 2000.0
_Shape = tuple[Faces, Vector, Vector, Vector, npt.NDArray[np.float64], npt.NDArray[np.float64]]
UPRIGHT = 0.02
"""Sine of the lean under which a face counts as upright."""


@dataclass(frozen=True, slots=True)
class Units:
    """The units of a surface: length and course with their joints, the joint, and courses in a repeat; mm."""

    unit_mm: float
    course_mm: float
    joint_mm: float
    asked_unit_mm: float
    asked_course_mm: float
    bond: str
    courses: int
    across: int

    @property
    def whole(self) -> bool:
        """Whether the repeat is a whole number of the asked units, to half a millimetre or half a percent."""
        return all(
            abs(real - asked) <= max(0.5, 0.005 * asked)
            for real, asked in ((self.unit_mm, self.asked_unit_mm), (self.course_mm, self.asked_course_mm))
        )


def units_of(surface: Surface) -> Units | None:
    """The units of the surface's lowest patterned layer that shows, as they close on its repeat."""
    for layer in surface.layers:
        recipe = layer.what.made_of_recipe()
        if not layer.shown or recipe is None or not kind_of(layer.what).laid:
            continue
        for step in recipe.steps:
            if step.op == "pattern.units":
                return _units(surface, dict(step.values))
    return None


def _units(surface: Surface, values: dict[str, object]) -> Units:
    bound = find("pattern.units").bind(values)  # type: ignore[arg-type]
    length, height, joint = (float(bound[name]) for name in ("length", "height", "joint"))
    grid = Grid(1, 1, surface.width_mm, surface.height_mm)
    setting = set_out(grid, str(bound["bond"]), length, height, joint)
    return Units(
        setting.unit_mm,
        setting.course_mm,
        joint,
        length + joint,
        height + joint,
        str(bound["bond"]),
        setting.courses,
        setting.across,
    )


@dataclass(frozen=True, slots=True)
class Courses:
    """Courses of a wall from bottom to top: how many are whole, and the heights of the cut ones, mm; ``starts_cut``
    whether the lowest is one of them.
    """

    whole: int
    cut_mm: tuple[float, ...]
    course_mm: float
    starts_cut: bool = False


def count_courses(low: float, high: float, start: float, course_mm: float) -> Courses:
    """Courses between two levels when one begins at ``start``; a rest under half a millimetre is none."""
    first = math.ceil((low - start) / course_mm - 0.5 / course_mm)
    last = math.floor((high - start) / course_mm + 0.5 / course_mm)
    if last < first:
        return Courses(0, (high - low,), course_mm, starts_cut=True)
    rests = (start + first * course_mm - low, high - (start + last * course_mm))
    return Courses(last - first, tuple(rest for rest in rests if rest > 0.5), course_mm, starts_cut=rests[0] > 0.5)


@dataclass(frozen=True, eq=False)
class Facet:
    """A flat face of something that stands, with its directions along and up; ``low`` and ``high`` are its extents
    along them from the scene's origin, mm.
    """

    standing: Standing
    faces: Faces
    normal: Vector
    along: Vector
    up: Vector
    low: npt.NDArray[np.float64]
    high: npt.NDArray[np.float64]

    @property
    def group(self) -> int:
        """The number of the face group it belongs to."""
        return int(self.standing.mesh.groups[self.faces[0]])

    @property
    def ends(self) -> tuple[Vector, Vector]:
        """In plan, where it begins and ends, seen from its front (x, y)."""
        depth = float(self.standing.mesh.corners[self.faces[0], 0] @ self.normal)
        flat = self.normal[:2] * depth
        return flat + self.along[:2] * self.low[0], flat + self.along[:2] * self.high[0]


@dataclass(frozen=True, eq=False)
class Drawn:
    """A facet on the drawing: its corners are moved by ``shift`` mm along. ``row`` is what lies on it, or −1.

    ``flat`` (N, 3, 2) is where its triangles are instead, when it is a curved face laid flat.
    """

    facet: Facet
    shift: float
    row: int
    flat: npt.NDArray[np.float64] | None = None

    @property
    def corners(self) -> npt.NDArray[np.float64]:
        """(N, 3, 2): its triangles on the drawing, mm along and up."""
        if self.flat is not None:
            return self.flat
        corners = self.facet.standing.mesh.corners[self.facet.faces]
        return np.stack([corners @ self.facet.along + self.shift, corners @ self.facet.up], -1)

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """Left, foot, right and top on the drawing, mm."""
        if self.flat is not None:
            least, most = self.flat.min((0, 1)), self.flat.max((0, 1))
            return float(least[0]), float(least[1]), float(most[0]), float(most[1])
        (left, low), (right, high) = self.facet.low.tolist(), self.facet.high.tolist()
        return left + self.shift, low, right + self.shift, high


@dataclass(frozen=True, eq=False)
class Elevation:
    """Faces unrolled beside each other; ``corners`` are where one plane meets the next, mm along."""

    site: Site
    faces: tuple[Drawn, ...]
    corners: tuple[float, ...]
    upright: bool
    stretch: float = 0.0
    """The largest stretch of a curved face that cannot be laid flat true."""

    @cached_property
    def bounds(self) -> tuple[float, float, float, float]:
        """Left, foot, right and top of all, mm."""
        sides = np.array([face.bounds for face in self.faces])
        return (*(float(v) for v in sides[:, :2].min(0)), *(float(v) for v in sides[:, 2:].max(0)))  # type: ignore[return-value]

    def along_of(self, point: Vector) -> float | None:
        """Where a point of the scene is along the drawing: on the face it is nearest to; None far from all."""
        best, found = 200.0, None
        for face in self.faces:
            facet = face.facet
            depth = float(facet.standing.mesh.corners[facet.faces[0], 0] @ facet.normal)
            off = abs(float(point @ facet.normal) - depth)
            along = float(point @ facet.along)
            over = max(facet.low[0] - along, along - facet.high[0], 0.0)
            if off + over < best - 1e-6:
                best, found = off + over, along + face.shift
        return found


def facets_of(one: Standing) -> list[Facet]:
    """The flat faces of something that stands, largest first; each covered by one thing only."""
    if "facets" not in one.store:
        one.store["facets"] = _facets_of(one)
    found: list[Facet] = one.store["facets"]
    return found


def _facets_of(one: Standing) -> list[Facet]:
    if not one.mesh.count:
        return []
    # They hang on the mesh and on what covers which face, not on how it lies: a laying is dragged without them anew.
    covering = xxhash.xxh3_64_digest(np.ascontiguousarray(one.covering).data)
    kept = one.mesh.store.get("flat_faces")
    if not isinstance(kept, tuple) or kept[0] != covering:
        kept = one.mesh.store["flat_faces"] = (covering, _flat_faces(one))
    return [Facet(one, *shape) for shape in kept[1]]


def _flat_faces(one: Standing) -> list[_Shape]:
    mesh = one.mesh
    label = facets(mesh).astype(np.int64) * (len(one.part.laid) + 2) + one.covering + 1
    order = np.argsort(label, kind="stable")
    starts = np.flatnonzero(np.concatenate([[True], np.diff(label[order]) > 0]))
    areas = np.add.reduceat(mesh.areas[order], starts)
    # A figure or a carved model has thousands of small faces: a drawing is made of the large ones.
    large = np.flatnonzero(areas >= LEAST_MM2)
    large = large[np.argsort(-areas[large], kind="stable")][:MOST_FACETS]
    ends = np.append(starts[1:], len(order))
    return [_shape(mesh, np.sort(order[starts[k] : ends[k]]).astype(np.int32)) for k in large]


def _area(facet: Facet) -> float:
    return float(facet.standing.mesh.areas[facet.faces].sum())


def _shape(mesh: Mesh, faces: Faces) -> _Shape:
    """Faces, their normal, their directions along and up, and their extents along them."""
    weights = mesh.areas[faces]
    normal = (mesh.normals[faces] * weights[:, None]).sum(0)
    normal = normal / max(float(np.linalg.norm(normal)), 1e-12)
    along, up = face_axes(normal, np.array([1.0, 0.0, 0.0]))
    corners = mesh.corners[faces].reshape(-1, 3)
    flat = np.stack([corners @ along, corners @ up], 1)
    return faces, normal, along, up, flat.min(0), flat.max(0)


def unroll(site: Site, part: str, face: int = -1, row: int = -1) -> Elevation | None:
    """The elevation that a part belongs to: upright faces unrolled corner after corner, over all parts they meet; of a
    floor or a slope that face alone. ``face`` says which of the part's faces is looked at; else the largest on which
    ``row`` of what is laid on it lies.
    """
    one = site.of_part(part)
    own = facets_of(one) if one else []
    if not own:
        return None
    first = next((facet for facet in own if face in facet.faces), None) if face >= 0 else None
    first = first or _main(site, [facet for facet in own if row >= 0 and _row(facet) == row] or own)
    if abs(first.normal[2]) > UPRIGHT:
        curved = _developed(site, first)
        if curved is not None:
            return curved
        level = [f for f in own if f.normal @ first.normal > LEVEL_COSINE and _same_plane(f, first)]
        return Elevation(site, tuple(Drawn(f, 0.0, _row(f)) for f in level), (), upright=False)
    return _chain(site, first)


def _developed(site: Site, first: Facet) -> Elevation | None:
    """A curved face laid flat, with all of it that is reached without a sharp bend; None of one that is flat."""
    one = first.standing
    row, mesh = _row(first), one.mesh
    run = smooth_run(mesh, np.flatnonzero(one.covering == row).astype(np.int32), int(first.faces[0]))
    if len(run) > MOST_CURVED or float((mesh.normals[run] @ first.normal).min()) > LEVEL_COSINE:
        return None
    key = f"developed {row} {int(first.faces[0])}"
    kept = mesh.store.get(key)
    if not isinstance(kept, tuple) or kept[0] != len(run):
        kept = mesh.store[key] = (len(run), developed(mesh, run, int(first.faces[0])))
    flat = kept[1]
    order = np.argsort(flat.faces, kind="stable")
    faces, laid = flat.faces[order], flat.places[order]
    facet = Facet(one, faces, first.normal, first.along, first.up, laid.min((0, 1)), laid.max((0, 1)))
    return Elevation(site, (Drawn(facet, 0.0, row, laid),), (), upright=False, stretch=flat.stretch)


def _main(site: Site, own: list[Facet]) -> Facet:
    """The face of a part that is looked at: in the plane with the most on it, upright and looking to the datum if it
    can be.
    """
    datum, _ = site.main_datum()

    def weight(facet: Facet) -> float:
        plane = sum(_area(other) for other in own if other.normal @ facet.normal > 0.9999 and _same_plane(other, facet))
        whole = max(plane, float(run_areas(facet.standing.mesh)[facet.faces[0]]))
        ahead = float((datum - facet.standing.mesh.corners[facet.faces[0], 0]) @ facet.normal) > -MEETS_MM
        upright = abs(facet.normal[2]) < UPRIGHT
        return whole * (1.0 if upright else 0.4) * (1.0 if ahead else 0.3) * (1.0 if _row(facet) >= 0 else 0.1)

    upright = [facet for facet in own if abs(facet.normal[2]) < UPRIGHT]
    if sum(map(_area, upright)) > 0.4 * sum(map(_area, own)):
        own = upright
    return max(own[:40], key=weight)


def _row(facet: Facet) -> int:
    return int(facet.standing.covering[facet.faces[0]])


def _same_plane(one: Facet, other: Facet) -> bool:
    depth = one.standing.mesh.corners[one.faces[0], 0] @ other.normal
    return abs(float(depth - other.standing.mesh.corners[other.faces[0], 0] @ other.normal)) < MEETS_MM


def _chain(site: Site, first: Facet) -> Elevation:
    """Faces to the right of the first, then to its left, each beginning where the one before ends."""
    candidates = _Upright(
        [
            facet
            for one in site.standing
            for facet in facets_of(one)
            if abs(facet.normal[2]) < UPRIGHT and facet.high[0] - facet.low[0] > 1.0
        ]
    )
    rows = [_Plane.around(first, candidates)]
    corners: list[float] = []
    for step in (+1, -1):
        here = rows[0] if step < 0 else rows[-1]
        first_end = rows[0].far(-step)
        while len(rows) < MOST_FACETS:
            following = here.next(candidates, step, rows)
            if following is None:
                break
            corners.append(here.end if step > 0 else here.start)
            closes = np.abs(following.far(step) - first_end).max() < MEETS_MM
            following.place(beside=here, step=step)
            rows.append(following)
            here = following
            if closes:
                # Once round a room, and the drawing ends where it began.
                return _drawing(site, rows, corners)
    return _drawing(site, rows, corners)


def _drawing(site: Site, rows: list[_Plane], corners: list[float]) -> Elevation:
    faces = tuple(Drawn(facet, row.shift, _row(facet)) for row in rows for facet in row.facets)
    return Elevation(site, faces, tuple(sorted(corners)), upright=True)


class _Upright:
    """Upright faces, with where they begin and end in plan and the way they look, in rows."""

    def __init__(self, facets: list[Facet]) -> None:
        self.facets = facets
        ends = np.array([facet.ends for facet in facets]).reshape(-1, 2, 2)
        self.starts, self.ends = ends[:, 0], ends[:, 1]
        self.normals = np.array([facet.normal for facet in facets]).reshape(-1, 3)

    def beginning_at(self, corner: Vector, step: int) -> list[Facet]:
        """Faces that begin at a place in plan, to the right; to the left those that end there."""
        near = np.abs((self.starts if step > 0 else self.ends) - corner).max(1) < MEETS_MM
        return [self.facets[k] for k in np.flatnonzero(near)]

    def alike(self, first: Facet) -> list[Facet]:
        """Faces in the plane of one."""
        same = self.normals @ first.normal > 0.99996
        return [self.facets[k] for k in np.flatnonzero(same) if _same_plane(self.facets[k], first)]


class _Plane:
    """Faces in one upright plane that touch each other, as one row of the drawing."""

    def __init__(self, facets: list[Facet]) -> None:
        self.facets, self.shift = facets, 0.0

    @classmethod
    def around(cls, first: Facet, candidates: _Upright, used: frozenset[int] = frozenset()) -> _Plane:
        alike = [facet for facet in candidates.alike(first) if id(facet) not in used]
        found, low, high = [first], first.low[0], first.high[0]
        grew = True
        while grew:
            grew = False
            for facet in alike:
                if facet in found or facet.low[0] > high + MEETS_MM or facet.high[0] < low - MEETS_MM:
                    continue
                found.append(facet)
                low, high, grew = min(low, facet.low[0]), max(high, facet.high[0]), True
        return cls(found)

    @property
    def start(self) -> float:
        return float(min(f.low[0] for f in self.facets)) + self.shift

    @property
    def end(self) -> float:
        return float(max(f.high[0] for f in self.facets)) + self.shift

    def _plan(self, *, end: bool) -> Vector:
        pick = max if end else min
        facet = pick(self.facets, key=lambda f: f.high[0] if end else f.low[0])
        return facet.ends[1 if end else 0]

    def far(self, step: int) -> Vector:
        """Where it ends in plan, seen in the direction the drawing goes on."""
        return self._plan(end=step > 0)

    def _heights(self) -> tuple[float, float]:
        return float(min(f.low[1] for f in self.facets)), float(max(f.high[1] for f in self.facets))

    def next(self, candidates: _Upright, step: int, taken: list[_Plane]) -> _Plane | None:
        """The plane that begins where this one ends, to the right or to the left: of several the one that turns most
        towards whoever looks, so that a room is drawn round its inside.
        """
        corner = self._plan(end=step > 0)
        used = frozenset(id(facet) for row in taken for facet in row.facets)
        low, high = self._heights()
        here = self.facets[0]
        found: list[tuple[float, Facet]] = []
        for facet in candidates.beginning_at(corner, step):
            if id(facet) in used or facet.normal @ here.normal > 0.99996:
                continue
            beside = min(high, facet.high[1]) - max(low, facet.low[1])
            if beside > 0.3 * (high - low):
                found.append((step * float(facet.normal @ here.along), facet))
        found = [entry for entry in found if self._goes_on(entry[1])]
        if not found:
            return None
        best = min(found, key=lambda entry: entry[0])[1]
        return _Plane.around(best, candidates, used)

    def _goes_on(self, facet: Facet) -> bool:
        """Whether the drawing goes on to a face: not from a wall to its own ends, nor to what is bare."""
        here = self.facets[0]
        own = facet.standing is here.standing and facet.group != here.group
        return not own and (_row(facet) >= 0 or _row(here) < 0)

    def place(self, *, beside: _Plane, step: int) -> None:
        own_start, own_end = self.start, self.end
        self.shift = beside.end - own_start if step > 0 else beside.start - own_end


def courses_on(elevation: Elevation, face: Drawn) -> Courses | None:
    """Courses on a face of the drawing, as its laying sets them; None where there are none or they do not lie level."""
    if face.row < 0:
        return None
    one = face.facet.standing
    gauge = elevation.site.gauge(one.part.laid[face.row])
    found = elevation.site.coordinates(one, face.row)
    if gauge is None or gauge.courses is None or not found.linear or not len(face.facet.faces):
        return None
    rise = _rise_of(face, found.flat_corners(), found.faces)
    if rise is None:
        return None
    size, start = rise
    _, low, _, high = face.bounds
    course = gauge.courses.mm * size
    return count_courses(low, high, start + gauge.courses.start * course, course)


def _rise_of(face: Drawn, places: npt.NDArray[np.float64], faces: Faces) -> tuple[float, float] | None:
    """Millimetres of the wall to one of the pattern, and at which height the pattern begins; None where it leans."""
    rows = np.searchsorted(faces, face.facet.faces)
    flat, pattern = face.corners.reshape(-1, 2), places[rows].reshape(-1, 2)
    matrix = np.concatenate([flat, np.ones((len(flat), 1))], 1)
    (lean, rise, start), *_ = np.linalg.lstsq(matrix, pattern[:, 1], rcond=None)
    if abs(rise) < 1e-6 or abs(lean / rise) > 1e-3:
        return None
    return round(1 / abs(float(rise)), 6), round(-float(start) / float(rise), 4)
