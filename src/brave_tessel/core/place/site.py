"""A scene as it stands: every part where it is, with its copies, and what lies on each of its faces.

What is worked out for a part is kept as long as the part, what it stands in and what holds its layings stay the same.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

import msgspec
import numpy as np

from ..errors import TesselError
from ..job.document import Job
from ..job.layers import Surface
from ..job.scene import WITH_PART, Datum, Laid, Model, Part, Scene
from ..kernels.mosaic import Mosaic
from .copies import copy_matrices
from .frames import world_matrix
from .gauge import Gauge, fitted, gauge_of, outlines_of
from .laying import Axis, Bed, Coordinates, lay
from .mesh import Faces, Matrix, Mesh, Vector
from .picked import unpacked
from .piece import NOTHING, Made, made

Shapes = Mapping[str, Made]
"""What was read of models, by :func:`model_key`."""
NO_SHAPES: Shapes = {}
BARE = -1


@dataclass(frozen=True, eq=False)
class Standing:
    """A part, or a copy of it, in the scene: its mesh and its axes in the scene's mm, and which of its ``laid`` lies on
    each face (:data:`BARE` for none).
    """

    part: Part
    copy: int
    matrix: Matrix
    mesh: Mesh
    covering: Faces
    made: Made
    fault: str = ""
    store: dict[str, Any] = field(default_factory=dict, repr=False)
    """What was derived of it, by name; dropped with it."""
    by_laid: dict[tuple[Any, ...], Any] = field(default_factory=dict, repr=False)
    """What was derived of something laid on it, by what that is: see :meth:`laid_key`. It outlives a change beside."""

    def laid_key(self, row: int, *more: object) -> tuple[Any, ...]:
        """Names what is derived of the ``row``-th thing laid on it; it begins with that thing itself."""
        return (msgspec.json.encode(self.part.laid[row]), row, *more)

    @property
    def id(self) -> str:
        """One for each copy."""
        return self.part.id if self.copy == 0 else f"{self.part.id}/{self.copy}"

    @property
    def own(self) -> Vector:
        """(3, 3): the part's own directions in the scene, in rows."""
        linear = self.matrix[:3, :3]
        return np.asarray((linear / np.maximum(np.linalg.norm(linear, axis=0), 1e-12)).T)

    def faces_of(self, row: int) -> Faces:
        """Faces on which the ``row``-th of what is laid lies; :data:`BARE` for those without anything."""
        return np.flatnonzero(self.covering == row).astype(np.int32)

    def axis(self) -> Axis | None:
        """The axis it turns about, in the scene."""
        axis = self.made.axis
        if axis is None:
            return None
        linear = self.matrix[:3, :3]
        along = linear @ axis.along
        size = float(np.linalg.norm(linear, axis=0).mean())
        return Axis(
            linear @ axis.at + self.matrix[:3, 3], along / np.linalg.norm(along), axis.radius * size, axis.shape
        )


@dataclass(frozen=True, eq=False)
class Site:
    """A job's scene, standing."""

    job: Job
    standing: tuple[Standing, ...]
    datums: Mapping[str, tuple[Vector, Vector]]
    store: dict[tuple[object, ...], Any] = field(default_factory=dict, repr=False)
    """Surfaces as they are laid and what is counted of them: asked again for every part and every move of the mouse."""

    @property
    def scene(self) -> Scene:
        """The scene it was made from."""
        return self.job.scene

    def of_part(self, id: str) -> Standing | None:
        """The first of a part's copies."""
        return next((one for one in self.standing if one.part.id == id), None)

    def surface(self, laid: Laid) -> Surface | None:
        """The surface that is laid, as it is for what it lies on, if it is there."""
        key = ("surface", laid.surface, *sorted(laid.dials.items()))
        if key not in self.store:
            self.store[key] = worn(self.job, laid)
        found: Surface | None = self.store[key]
        return found

    def repeat(self, laid: Laid) -> tuple[float, float]:
        """How large a repeat of what is laid is, mm: that of its surface, or of the band it takes of it."""
        surface = self.surface(laid)
        if surface is None:
            return 1000.0, 1000.0
        band = surface.band(laid.band)
        return surface.width_mm, band.height if band else surface.height_mm

    def gauge(self, laid: Laid) -> Gauge | None:
        """Courses and units of what is laid; a band has none."""
        surface = self.surface(laid)
        if surface is None or surface.band(laid.band):
            return None
        key = ("gauge", surface.id)
        if key not in self.store:
            self.store[key] = gauge_of(surface, self.job)
        found: Gauge | None = self.store[key]
        return found

    def outlines(self, laid: Laid) -> Mosaic | None:
        """Outlines of the units in a repeat of what is laid; a band has none."""
        surface = self.surface(laid)
        return outlines_of(surface) if surface is not None and not surface.band(laid.band) else None

    def texture(self, laid: Laid) -> str:
        """Names the picture of what is laid: its surface as it is there, and the band of it; empty without one."""
        surface = self.surface(laid)
        return texture_name(surface, laid) if surface is not None else ""

    def coordinates(self, standing: Standing, row: int) -> Coordinates:
        """Where the ``row``-th thing laid on a part lies; worked out once."""
        laid = standing.part.laid[row]
        repeat = self.repeat(laid)
        key = standing.laid_key(row, "places", repeat, self._unit(laid))
        if key not in standing.by_laid:
            standing.by_laid[key] = self._laid(standing, row, repeat)
        found: Coordinates = standing.by_laid[key]
        return found

    def _laid(self, standing: Standing, row: int, repeat: tuple[float, float]) -> Coordinates:
        laid = standing.part.laid[row]
        if laid.holds == WITH_PART:
            return self._with_part(standing, row, repeat)
        point, along = self.datum(laid)
        path, closed = _path(standing, laid)
        bed = Bed(
            standing.mesh, standing.faces_of(row), point, along, standing.own, standing.axis(), path, closed, repeat,
            _pins(laid), self._unit(laid),
        )  # fmt: skip
        return lay(bed, laid.laying)

    def _with_part(self, standing: Standing, row: int, repeat: tuple[float, float]) -> Coordinates:
        """Laid where the part was made, at the size it has now, and moved with it."""
        laid = standing.part.laid[row]
        size = np.linalg.norm(standing.matrix[:3, :3], axis=0)
        # A mirrored part is laid as it is seen, so that lettering stays readable.
        sign = -1.0 if np.linalg.det(standing.matrix[:3, :3]) < 0 else 1.0
        sized = np.diag([sign * size[0], size[1], size[2], 1.0])
        mesh = standing.made.mesh.moved(sized)
        # Triangles of the scene and of the part at rest run alike only if both mirrored them.
        path, closed = _path(standing, laid, sized)
        datum = next((d for d in self.scene.datums if d.id == laid.datum and d.part == standing.part.id), None)
        point, along = (np.array(datum.at) @ sized[:3, :3].T, np.array(datum.along)) if datum else (
            np.zeros(3), np.array([1.0, 0.0, 0.0]),
        )  # fmt: skip
        axis = standing.made.axis
        if axis is not None:
            axis = Axis(
                sized[:3, :3] @ axis.at, axis.along * [sign, 1, 1], axis.radius * float(size.mean()), axis.shape
            )
        rest = Bed(mesh, standing.faces_of(row), point, along, np.eye(3), axis, path, closed, repeat, _pins(laid),
                   self._unit(laid))  # fmt: skip
        found = lay(rest, laid.laying)
        return Coordinates(standing.mesh, found.faces, found.corners, found.sides, found.finish, found.note)

    def _unit(self, laid: Laid) -> float:
        """From joint to joint along the faces, mm as laid; turned upright it is the courses that run along."""
        gauge = self.gauge(laid)
        if gauge is None:
            return 0.0
        over = abs(math.sin(math.radians(laid.laying.number("turn")))) > 0.7
        pitch = gauge.courses if over else gauge.units
        return pitch.mm * laid.laying.number("factor") if pitch else 0.0

    def datum(self, laid: Laid) -> tuple[Vector, Vector]:
        """The point and the direction along level ground that something laid starts from."""
        return self.datums[laid.datum] if laid.datum in self.datums else self.main_datum()

    def main_datum(self) -> tuple[Vector, Vector]:
        """The point and direction that layings start from unless they name another."""
        return self.datums.get(self.scene.datum, (np.zeros(3), np.array([1.0, 0.0, 0.0])))

    @property
    def box(self) -> tuple[Vector, Vector]:
        """Lowest and highest corner of all that stands, mm."""
        boxes = [one.mesh.box for one in self.standing if one.mesh.count]
        if not boxes:
            return np.zeros(3), np.array([4000.0, 4000.0, 2500.0])
        return np.min([low for low, _ in boxes], 0), np.max([high for _, high in boxes], 0)


def worn(job: Job, laid: Laid) -> Surface | None:
    """The surface of something laid, with its pattern fitted to the faces it lies on; its id says so."""
    surface = next((one for one in job.surfaces if one.id == laid.surface), None)
    return fitted(surface, laid.dials) if surface is not None and laid.dials else surface


def texture_name(surface: Surface, laid: Laid) -> str:
    """The name of a picture: of a surface, or of a band of it."""
    return f"{surface.id}#{laid.band}" if surface.band(laid.band) else surface.id


def _pins(laid: Laid) -> Vector | None:
    if not laid.pins:
        return None
    return np.array([[pin.x_mm, pin.y_mm, *pin.at] for pin in laid.pins], float)


def _path(standing: Standing, laid: Laid, matrix: Matrix | None = None) -> tuple[Vector | None, bool]:
    """The path something is laid along: its own, or the one its part runs along, in the scene."""
    matrix = standing.matrix if matrix is None else matrix
    points, closed = standing.made.path, standing.made.closed
    if laid.path:
        points, closed = np.array(laid.path), len(laid.path) > 3 and laid.path[0] == laid.path[-1]
    if points is None:
        return None, False
    return points @ matrix[:3, :3].T + matrix[:3, 3], closed


class Ground:
    """Makes sites of jobs, and keeps of each what the next one needs again."""

    def __init__(self) -> None:
        self._kept: dict[str, tuple[bytes, bytes, Made, Standing]] = {}

    def site(self, job: Job, shapes: Shapes = NO_SHAPES, *, only: frozenset[str] | None = None) -> Site:
        """The scene of a job; with ``only`` some parts alone. Hidden parts and what lies in them do not stand."""
        scene = job.scene
        hidden = {part.id for part in scene.parts if part.hidden for part in scene.within(part.id)}
        datums = {datum.id: _datum(scene, datum) for datum in scene.datums}
        held = msgspec.json.encode((scene.datum, {k: [p.tolist(), a.tolist()] for k, (p, a) in datums.items()}))
        standing: list[Standing] = []
        kept: dict[str, tuple[bytes, bytes, Made, Standing]] = {}
        for part in scene.parts:
            if part.group or part.id in hidden or (only is not None and part.id not in only):
                continue
            for copy, matrix in enumerate(copy_matrices(scene, part)):
                one = self._stand(part, copy, matrix, held, shapes)
                kept[one[3].id] = one
                standing.append(one[3])
        # What is hidden now may be shown again at once; what is gone from the scene is let go.
        there = {part.id for part in scene.parts}
        self._kept = {id: one for id, one in self._kept.items() if id.split("/")[0] in there} | kept
        return Site(job, tuple(standing), datums)

    def _stand(
        self, part: Part, copy: int, matrix: Matrix, held: bytes, shapes: Shapes
    ) -> tuple[bytes, bytes, Made, Standing]:
        id = part.id if copy == 0 else f"{part.id}/{copy}"
        shape, fault = _shape(part, shapes)
        place = matrix.tobytes() + held
        key = msgspec.json.encode((part.laid, part.piece, part.colours, part.bare)) + place
        known = self._kept.get(id)
        if known and known[0] == key and known[2] is shape:
            return key, place, shape, known[3] if known[3].part is part else _renamed(known[3], part)
        covers = covering(part, shape.mesh)
        if known and known[1] == place and known[2] is shape:
            return key, place, shape, _laid_anew(known[3], part, covers)
        same_place = known and known[2] is shape and np.array_equal(known[3].matrix, matrix)
        mesh = known[3].mesh if known and same_place else shape.mesh.moved(matrix)
        return key, place, shape, Standing(part, copy, matrix, mesh, covers, shape, fault)


def _laid_anew(before: Standing, part: Part, covers: Faces) -> Standing:
    """The same part with other things laid on it; what is still laid as it was is not worked out again."""
    same = np.array_equal(before.covering, covers)
    there = {(msgspec.json.encode(laid), row) for row, laid in enumerate(part.laid)}
    kept = {key: value for key, value in before.by_laid.items() if same and key[:2] in there}
    covers = before.covering if same else covers
    return Standing(part, before.copy, before.matrix, before.mesh, covers, before.made, before.fault, by_laid=kept)


def _renamed(one: Standing, part: Part) -> Standing:
    return Standing(
        part, one.copy, one.matrix, one.mesh, one.covering, one.made, one.fault, by_laid=one.by_laid
    )  # fmt: skip


def _shape(part: Part, shapes: Shapes) -> tuple[Made, str]:
    """What a part is made of, and what is wrong with it."""
    if part.piece is not None:
        try:
            return made(part.piece), ""
        except TesselError as error:
            return NOTHING, str(error)
    assert part.model is not None
    return shapes.get(model_key(part.model), NOTHING), ""


def model_key(model: Model) -> str:
    """Names the shape of a model: its file, its part, its unit and direction, and how it is mended."""
    return f"{model.blob}/{model.part}/{model.unit_mm!r}/{model.up}/{','.join(model.mends)}"


def covering(part: Part, mesh: Mesh) -> Faces:
    """(T,): which of a part's ``laid`` lies on each face; later ones cover earlier ones."""
    out = np.full(mesh.count, BARE, np.int32)
    for row, laid in enumerate(part.laid):
        out[covered_by(laid, mesh)] = row
    return out


def covered_by(laid: Laid, mesh: Mesh) -> Faces:
    """The faces that something is laid on, whatever covers it."""
    if laid.picked:
        faces = unpacked(laid.picked, mesh)
        return faces[faces < mesh.count]
    if laid.groups:
        return mesh.of_groups(laid.groups)
    return np.arange(mesh.count, dtype=np.int32)


def _datum(scene: Scene, datum: Datum) -> tuple[Vector, Vector]:
    point, along = np.array(datum.at, float), np.array(datum.along, float)
    part = scene.part(datum.part) if datum.part else None
    if part is not None:
        matrix = world_matrix(scene, part)
        point, along = matrix[:3, :3] @ point + matrix[:3, 3], matrix[:3, :3] @ along
    size = float(np.linalg.norm(along))
    return point, along / size if size > 1e-9 else np.array([1.0, 0.0, 0.0])


def shape_of(part: Part, shapes: Shapes = NO_SHAPES) -> Made:
    """What a part is made of, in its own mm; :data:`NOTHING` where it cannot be told."""
    return NOTHING if part.group else _shape(part, shapes)[0]


def site_of(job: Job, shapes: Shapes = NO_SHAPES, parts: Sequence[str] | None = None) -> Site:
    """A job's scene, standing, for one question."""
    return Ground().site(job, shapes, only=frozenset(parts) if parts is not None else None)
