"""Walls unrolled flat as a setting-out drawing, and the courses that fit on them."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..buildup.kind import kind_of
from ..job.document import Job, Part
from ..job.layers import Surface
from ..operation import find
from ..recipe.steps.pattern import set_out
from ..sheet import Grid
from .lay import datum_along
from .piece import scene_meshes


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
    """Courses of a wall from bottom to top: how many are whole, and the heights of the cut ones, mm."""

    whole: int
    cut_mm: tuple[float, ...]
    course_mm: float


def count_courses(low: float, high: float, start: float, course_mm: float) -> Courses:
    """Courses between two levels when one begins at ``start``; a rest under half a millimetre is none."""
    first = math.ceil((low - start) / course_mm - 0.5 / course_mm)
    last = math.floor((high - start) / course_mm + 0.5 / course_mm)
    if last < first:
        return Courses(0, (high - low,), course_mm)
    rests = (start + first * course_mm - low, high - (start + last * course_mm))
    return Courses(last - first, tuple(rest for rest in rests if rest > 0.5), course_mm)


@dataclass(frozen=True, slots=True)
class ElevationFace:
    """A part on the unrolled drawing: rectangles (left, bottom, right, top) in mm, and what lies on it."""

    part: Part
    rectangles: tuple[tuple[float, float, float, float], ...]
    surface: Surface | None
    courses: Courses | None
    from_along: float
    from_level: float

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """Left, foot, right and top of the face, mm."""
        sides = np.array(self.rectangles)
        return float(sides[:, 0].min()), float(sides[:, 1].min()), float(sides[:, 2].max()), float(sides[:, 3].max())


@dataclass(frozen=True, slots=True)
class Elevation:
    """The unrolled walls of a scene; ``corners`` are where one wall meets the next, mm along."""

    faces: tuple[ElevationFace, ...]
    corners: tuple[float, ...]
    datum_along: float
    datum_level: float

    @property
    def size(self) -> tuple[float, float]:
        """How long and how high all faces are together, mm."""
        return max(face.bounds[2] for face in self.faces), max(face.bounds[3] for face in self.faces)


def unroll(job: Job) -> Elevation:
    """The elevation of the job's scene."""
    meshes = scene_meshes(job.scene)
    along, level = datum_along(job.scene, meshes), job.scene.datum[1]
    surfaces = {surface.id: surface for surface in job.surfaces}
    faces, starts = [], set()
    for part in job.scene.parts:
        mesh = meshes.get(part.id)
        if mesh is None or not mesh.frame.unrolled:
            continue
        starts.add(mesh.frame.start)
        places = mesh.frame.coordinates(mesh.quads.reshape(-1, 3)).reshape(-1, 4, 2)
        rectangles = tuple(
            (float(p[:, 0].min()), float(p[:, 1].min()), float(p[:, 0].max()), float(p[:, 1].max())) for p in places
        )
        surface = surfaces.get(part.surface)
        shift = (part.laying.number("across"), part.laying.number("up"))
        start = level + shift[1]
        units = units_of(surface) if surface else None
        low, high = min(r[1] for r in rectangles), max(r[3] for r in rectangles)
        courses = count_courses(low, high, start, units.course_mm) if units else None
        faces.append(ElevationFace(part, rectangles, surface, courses, along + shift[0], start))
    return Elevation(tuple(faces), tuple(sorted(starts)[1:]), along, level)
