"""How a surface lies on faces of a part: the one answer for the picture, the elevation, files, bakes and counts.

A laying gives every corner of every face a place on the surface, in mm from the datum, x along and y up. Between the
corners it runs evenly, in perspective where pins ask for it; only a three-sided laying is a rule for every point.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Annotated, Any

import numpy as np
import numpy.typing as npt

from ..job.nodes import Setting
from ..operation import REGISTRY, Angle, Fraction, Length, Param, Toggle, called, field_params, operation
from .frames import face_axes
from .mesh import Faces, Mesh, Vector
from .topology import corner_normals

Places = npt.NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Axis:
    """What a round part turns about: a point, a unit direction and a radius, mm. ``shape`` is cylinder, cone or dome;
    a cone's point is its apex, a dome's the centre of its sphere.
    """

    at: Vector
    along: Vector
    radius: float
    shape: str = "cylinder"


@dataclass(frozen=True, slots=True)
class Bed:
    """What a laying looks at: a mesh and which of its faces, mm; the datum's point and its direction along level
    ground; the part's own directions (rows), axis and path; the surface's repeat; and pins (N, 5): x, y of the sheet
    and x, y, z of the scene.
    """

    mesh: Mesh
    faces: Faces
    datum: Vector
    along: Vector
    own: Vector
    axis: Axis | None = None
    path: Vector | None = None
    closed: bool = False
    repeat: tuple[float, float] = (1000.0, 1000.0)
    pins: Places | None = None
    unit: float = 0.0
    """mm from one unit's joint to the next along, as it is laid; 0 where the surface has none."""

    @property
    def corners(self) -> Vector:
        """(N, 3, 3) mm, the corners of its faces."""
        return self.mesh.corners[self.faces]

    @property
    def normals(self) -> Vector:
        """(N, 3), the normals of its faces."""
        return self.mesh.normals[self.faces]


@dataclass(frozen=True, slots=True)
class Sides:
    """A three-sided rule. ``axes`` (3, 3) rows are the directions it is seen from; ``frames`` (3, 2, 2, 3) the
    directions along and up for each, seen from its near and its far side; ``origin`` where it starts, mm.

    Weights are the shares of the normal raised to ``sharpness`` (Geiss 2007, GPU Gems 3, chapter 1), and where
    ``relief`` is over 0 the higher surface shows.
    """

    axes: Vector
    frames: Vector
    origin: Vector
    sharpness: float
    relief: float = 0.0

    def weights(self, normals: Vector) -> Places:
        """(N, 3) shares of each side for unit normals (N, 3); they add up to 1."""
        raised = np.abs(normals @ self.axes.T) ** self.sharpness
        return np.asarray(raised / np.maximum(raised.sum(1, keepdims=True), 1e-300))

    def places(self, points: Vector, normals: Vector) -> Places:
        """(N, 3, 2) mm from the datum, for each side."""
        far = (normals @ self.axes.T < 0).astype(int)
        frames = self.frames[np.arange(3)[None, :], far]
        return np.asarray(np.einsum("nsak,nk->nsa", frames, points - self.origin))


@dataclass(frozen=True, slots=True)
class Finish:
    """What is done to every place last: shifted, mirrored and turned about the datum, and sized."""

    matrix: npt.NDArray[np.float64]
    shift: npt.NDArray[np.float64]

    def apply(self, places: Places) -> Places:
        """Places (…, 2) mm as they come to lie."""
        return np.asarray((places - self.shift) @ self.matrix.T)


STILL = Finish(np.eye(2), np.zeros(2))


@dataclass(frozen=True, slots=True)
class Coordinates:
    """Where a surface lies on some faces of a mesh.

    ``corners`` (N, 3, 3) hold x·w, y·w and w of every corner, mm: w is 1 but where pins ask for perspective. With
    ``sides`` the rule holds at every point, and ``corners`` are those of the side a face looks to.
    """

    mesh: Mesh
    faces: Faces
    corners: npt.NDArray[np.float64]
    sides: Sides | None = None
    finish: Finish = STILL
    note: str = ""

    @property
    def linear(self) -> bool:
        """Whether places run evenly between the corners."""
        return self.sides is None and bool(np.all(self.corners[..., 2] == 1.0))

    def flat_corners(self) -> Places:
        """(N, 3, 2) mm: the places of the corners."""
        w = self.corners[..., 2:]
        return np.asarray(self.corners[..., :2] / np.where(np.abs(w) < 1e-12, 1e-12, w))

    def at(self, rows: Faces, shares: Places) -> Places:
        """(M, 2) mm at points of its faces: rows into ``faces`` and barycentric shares (M, 3). With sides it is the
        place seen from the side that counts most.
        """
        if self.sides is not None:
            places, weights = self.shares(rows, shares)
            return np.asarray(places[np.arange(len(rows)), weights.argmax(1)])
        held = np.einsum("mc,mck->mk", shares, self.corners[rows])
        return np.asarray(held[:, :2] / np.where(np.abs(held[:, 2:]) < 1e-12, 1e-12, held[:, 2:]))

    def shares(self, rows: Faces, shares: Places) -> tuple[Places, Places]:
        """Places (M, 3, 2) mm and weights (M, 3) of each side at points of its faces."""
        if self.sides is None:
            places = self.at(rows, shares)
            weights = np.zeros((len(rows), 3))
            weights[:, 0] = 1.0
            return np.repeat(places[:, None, :], 3, 1), weights
        faces = self.faces[rows]
        points = np.einsum("mc,mck->mk", shares, self.mesh.corners[faces])
        normals = np.einsum("mc,mck->mk", shares, corner_normals(self.mesh)[faces])
        normals /= np.maximum(np.linalg.norm(normals, axis=1, keepdims=True), 1e-12)
        return self.finish.apply(self.sides.places(points, normals)), self.sides.weights(normals)


@dataclass(frozen=True, slots=True)
class Common:
    """What every laying takes."""

    turn: Annotated[float, Angle(help="Turns the surface about the datum.")] = 0.0
    across: Annotated[float, Length(-1000, 1000, least=-1e6, most=1e6, help="Shifts the surface along the face.")] = 0.0
    up: Annotated[float, Length(-1000, 1000, least=-1e6, most=1e6, help="Shifts the surface up the face.")] = 0.0
    mirrored: Annotated[bool, Toggle(help="Lays it the other way round, left for right.")] = False
    factor: Annotated[
        float,
        called(
            "Size", Fraction(0.25, 4.0, least=0.001, most=1000.0, unit="×", help="1 is true size; 2 is twice as large.")
        ),
    ] = 1.0

    wider: Annotated[
        float,
        called(
            "Stretched along",
            Fraction(0.9, 1.1, least=0.5, most=2.0, unit="×", help="1 is true; whole units fit a run by it."),
        ),
    ] = 1.0
    taller: Annotated[
        float,
        called(
            "Stretched up",
            Fraction(0.9, 1.1, least=0.5, most=2.0, unit="×", help="1 is true; whole courses fit a height by it."),
        ),
    ] = 1.0

    def finish(self) -> Finish:
        """As a transform of places; it is stretched the way the surface itself runs."""
        a = math.radians(self.turn)
        c, s = math.cos(a), math.sin(a)
        turned = np.diag([1 / self.wider, 1 / self.taller]) @ np.array([[c, s], [-s, c]]) / self.factor
        return Finish(turned @ np.diag([-1.0 if self.mirrored else 1.0, 1.0]), np.array([self.across, self.up]))


COMMON: dict[str, Param] = field_params(Common)


def laying(
    name: str, *, label: str, version: int = 1
) -> Callable[[Callable[..., Coordinates]], Callable[..., Coordinates]]:
    """Declare a laying: a function of a :class:`Bed` and dials of its own, which gives places from the datum. What
    every laying takes is added and done here.
    """

    def declare(function: Callable[..., Coordinates]) -> Callable[..., Coordinates]:
        operation(f"laying.{name}", label=label, version=version)(function)
        read = REGISTRY[f"laying.{name}"]
        own = set(read.params)

        def run(bed: Bed, **values: Any) -> Coordinates:
            made = function(bed, **{key: value for key, value in values.items() if key in own})
            finish = Common(**{key: value for key, value in values.items() if key not in own}).finish()
            return finished(made, finish)

        REGISTRY[f"laying.{name}"] = replace(read, run=run, params={**read.params, **COMMON})
        return function

    return declare


def finished(made: Coordinates, finish: Finish) -> Coordinates:
    """Coordinates shifted, mirrored, turned and sized."""
    w = made.corners[..., 2:]
    moved = (made.corners[..., :2] - w * finish.shift) @ finish.matrix.T
    return replace(made, corners=np.concatenate([moved, w], -1), finish=finish)


def lay(bed: Bed, setting: Setting) -> Coordinates:
    """Where a surface lies. A laying that this version does not have lies flat; the part's card says so."""
    known = setting if setting.known else Setting(op="laying.flat")
    made: Coordinates = known.operation.run(bed, **known.bound())
    return made


def even(mesh: Mesh, faces: Faces, places: Places, note: str = "") -> Coordinates:
    """Coordinates that run evenly between corners (N, 3, 2) mm."""
    return Coordinates(mesh, faces, np.concatenate([places, np.ones((*places.shape[:2], 1))], -1), note=note)


def three_sided(bed: Bed, axes: Vector, sharpness: float, relief: float = 0.0) -> Coordinates:
    """Seen from three directions and mixed where they meet; hard where sharpness is 0."""
    frames = np.array([[face_axes(sign * axis, bed.along) for sign in (1.0, -1.0)] for axis in axes])
    sides = Sides(axes, frames, bed.datum, max(sharpness, 1.0), relief)
    normals = bed.normals
    side = np.abs(normals @ axes.T).argmax(1)
    places = np.stack([sides.places(bed.corners[:, c], normals)[np.arange(len(side)), side] for c in range(3)], 1)
    made = even(bed.mesh, bed.faces, places)
    return replace(made, sides=sides) if sharpness > 0 else made
