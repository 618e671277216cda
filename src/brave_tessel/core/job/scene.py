"""The scene of a job: parts in a tree, what is laid on them, and the points and levels layings hold to.

Scene coordinates are millimetres: x east, y north, z up, right-handed.
"""

from __future__ import annotations

from .nodes import Node, Point, Setting

Place = tuple[float, float, float]
"""A point or a direction of the scene, mm."""

IN_PLACE, WITH_PART = "in place", "with the part"


class Opening(Node, frozen=True, kw_only=True):
    """An opening of a wall, measured on its front: ``left`` from the wall's left end, ``sill`` from its foot, mm.

    ``head`` is flat, segmental, round or pointed; ``rise`` is what a segmental head rises over its springing.
    ``filling`` is open, window or door; ``sill_out`` and ``lintel`` are 0 where there is none.
    """

    id: str
    left: float
    width: float = 900.0
    sill: float = 900.0
    height: float = 1200.0
    head: str = "flat"
    rise: float = 150.0
    filling: str = "open"
    sill_out: float = 0.0
    lintel: float = 0.0


class Piece(Setting, frozen=True, kw_only=True):
    """A made piece: a declared operation with its values, and what no dial can hold.

    ``path`` is the line it runs along, in the part's own mm; ``profile`` a drawn cross-section, mm, x out and y up.
    """

    openings: tuple[Opening, ...] = ()
    path: tuple[Place, ...] = ()
    closed: bool = False
    profile: tuple[Point, ...] = ()


class Model(Node, frozen=True, kw_only=True):
    """A named part of a stored model file. Lengths of the file are turned into mm by ``unit_mm``; ``up`` names its
    axis that points up. ``size_mm`` and ``triangles`` say what it is while it is not read yet. ``mends`` are asked for
    by a person, and done each time it is read.
    """

    blob: str
    part: str
    file_name: str = ""
    path: str = ""
    linked: bool = False
    unit_mm: float = 1.0
    up: str = "z"
    size_mm: Place = (0.0, 0.0, 0.0)
    triangles: int = 0
    mends: tuple[str, ...] = ()


class Pin(Node, frozen=True, kw_only=True):
    """A point of a surface's sheet, mm from its lower left corner, held to a point of the scene."""

    id: str
    x_mm: float
    y_mm: float
    at: Place


class Laid(Node, frozen=True, kw_only=True):
    """A surface laid on faces of a part: those of ``groups`` (of face groups or materials), or ``picked`` ones, or all.

    Later ones cover earlier ones. ``datum`` names a datum of the scene, empty is the scene's own. ``holds`` says
    whether the pattern stays in place or goes with the part. ``dials`` are values of the surface's pattern for these
    faces alone, so that courses fit: it is worked out anew with them. ``band`` names a band of the surface.
    """

    id: str
    surface: str = ""
    laying: Setting = Setting(op="laying.flat")
    groups: tuple[str, ...] = ()
    picked: str = ""
    datum: str = ""
    holds: str = IN_PLACE
    pins: tuple[Pin, ...] = ()
    path: tuple[Place, ...] = ()
    dials: dict[str, float] = {}
    band: str = ""


class Hinge(Node, frozen=True, kw_only=True):
    """An axis a part swings about: a point and a direction in its own mm, and by how many degrees it is open."""

    at: Place = (0.0, 0.0, 0.0)
    along: Place = (0.0, 0.0, 1.0)
    open: float = 0.0
    most: float = 90.0


class Part(Node, frozen=True, kw_only=True):
    """A part of the scene. Without ``piece`` and ``model`` it is a group, or one that this version does not know.

    ``at`` is where its own origin lies in its parent; ``turn`` turns it about x, then y, then z, in degrees; ``size``
    are factors along its own axes, negative where it is mirrored. ``bare`` is its colour where nothing is laid;
    ``colours`` those of its face groups.
    """

    id: str
    name: str
    parent: str = ""
    at: Place = (0.0, 0.0, 0.0)
    turn: Place = (0.0, 0.0, 0.0)
    size: Place = (1.0, 1.0, 1.0)
    piece: Piece | None = None
    model: Model | None = None
    laid: tuple[Laid, ...] = ()
    hidden: bool = False
    locked: bool = False
    hinge: Hinge | None = None
    copies: Setting | None = None
    bare: str = "#C9C6BE"
    colours: dict[str, str] = {}

    @property
    def group(self) -> bool:
        """Whether it only holds other parts."""
        return self.piece is None and self.model is None


class Level(Node, frozen=True, kw_only=True):
    """A named height of the building, mm over the scene's zero: floor, sill, rail, eaves."""

    id: str
    name: str
    height: float


class Datum(Node, frozen=True, kw_only=True):
    """Where layings start: a point, and the direction that level ground is laid along. With ``part`` it moves with that
    part, and is in its mm.
    """

    id: str
    name: str = ""
    at: Place = (0.0, 0.0, 0.0)
    along: Place = (1.0, 0.0, 0.0)
    part: str = ""


class Eye(Node, frozen=True, kw_only=True):
    """A kept view: where the eye stands and what it looks at, mm, and its upright angle of view in degrees."""

    id: str
    name: str
    at: Place
    toward: Place
    angle: float = 46.0


class Line(Node, frozen=True, kw_only=True):
    """A measured line that stays on the model, mm."""

    id: str
    start: Place
    end: Place


class Scene(Node, frozen=True, kw_only=True):
    """Parts, what they hold to, and how they are looked at. ``datum`` names the one that layings start from."""

    parts: tuple[Part, ...] = ()
    levels: tuple[Level, ...] = ()
    datums: tuple[Datum, ...] = ()
    datum: str = ""
    eyes: tuple[Eye, ...] = ()
    lines: tuple[Line, ...] = ()

    def part(self, id: str) -> Part | None:
        """The part of an id; None where there is none."""
        return next((part for part in self.parts if part.id == id), None)

    def main_datum(self) -> Datum:
        """The datum that layings start from unless they name another; the scene's origin where none is set."""
        return self.datum_of("")

    def datum_of(self, id: str) -> Datum:
        """The datum of an id, or the scene's own."""
        wanted = id or self.datum
        return next((datum for datum in self.datums if datum.id == wanted), _ORIGIN)

    def children(self, id: str) -> tuple[Part, ...]:
        """The parts that lie in another, in their order."""
        return tuple(part for part in self.parts if part.parent == id)

    def within(self, id: str) -> tuple[Part, ...]:
        """A part and all that lie in it."""
        found, waiting = [], [id]
        seen: set[str] = set()
        while waiting:
            one = waiting.pop(0)
            if one in seen:
                continue
            seen.add(one)
            part = self.part(one)
            if part is not None:
                found.append(part)
            waiting += [child.id for child in self.children(one)]
        return tuple(found)


_ORIGIN = Datum(id="", name="origin")
