"""The job: a tree of frozen structs. Lengths in mm, angles in degrees, pixels nowhere.

Tuples and mappings in the tree are never changed in place; a change makes a new tree that shares
everything that did not change.
"""

from __future__ import annotations

from typing import TypeVar

import msgspec

from ..errors import MissingError
from ..maps import SURFACE_MAPS, TRAITS, WET, MapKind
from .layers import Scatter, Surface
from .light import KeptLight, Rig
from .nodes import Node, Point, Setting, new_id
from .scene import Scene

JOB_FORMAT = 5
"""Version of the job file; see ``formats/migrations.py``."""


class Straightening(Node, frozen=True, kw_only=True):
    """The rectangle seen on a photo and its real size. ``corners``: top left, top right, bottom right,
    bottom left, in photo pixels. ``size_note`` keeps what was typed, such as ``34*75``. ``edges`` are lines drawn
    along what is straight in the world, which told ``bend`` and ``bend_2``; ``focal_px`` is the file's,
    ``focal_typed_px`` goes before it.
    """

    corners: tuple[Point, Point, Point, Point]
    width_mm: float = 0.0
    height_mm: float = 0.0
    size_note: str = ""
    bend: float = 0.0
    focal_px: float = 0.0
    locked: float = 0.0
    bend_2: float = 0.0
    focal_typed_px: float = 0.0
    edges: tuple[tuple[Point, Point, Point], ...] = ()

    @property
    def lens(self) -> tuple[float, float]:
        """Both radial parameters, as :mod:`..gather.lens` takes them."""
        return self.bend, self.bend_2

    @property
    def focal(self) -> float:
        """The focal length that is known, in pixels: typed before the file's; 0 where neither tells."""
        return self.focal_typed_px or self.focal_px

    @property
    def sized(self) -> bool:
        """Whether its real size is known."""
        return self.width_mm > 0 and self.height_mm > 0


class Calibration(Node, frozen=True, kw_only=True):
    """What a chart of 24 patches told of a light: ``matrix`` makes linear colours true, nine numbers row by row.
    ``before``, ``mean`` and ``worst`` are CIEDE2000; ``chart`` is the name of the photo that showed it.
    """

    matrix: tuple[float, ...]
    before: float = 0.0
    mean: float = 0.0
    worst: float = 0.0
    chart: str = ""


class Picture(Node, frozen=True, kw_only=True):
    """A further map of a source. ``role`` is a map or ``glossiness``, ``specular``, ``unknown``; ``channel``
    rgb or one letter; ``green`` up, down or unknown; ``turned_over`` where relief goes in;
    ``curved`` where data was stored with an sRGB curve; ``rise_mm`` what a height map's black to white is, 0 if
    not known.
    """

    id: str
    role: str
    blob: str = ""
    file_name: str = ""
    channel: str = "rgb"
    green: str = "up"
    turned_over: bool = False
    curved: bool = False
    rise_mm: float = 0.0
    reason: str = ""
    path: str = ""


class Crop(Node, frozen=True, kw_only=True):
    """The part of the straight sheet that is made to repeat, mm from its lower left corner."""

    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float


class CutPin(Node, frozen=True, kw_only=True):
    """A point the cut must pass. ``axis`` x is the upright cut; ``along`` and ``across`` are shares of the
    cut's length, from the top or left, and of the overlap.
    """

    id: str
    axis: str
    along: float
    across: float


class Quiet(Node, frozen=True, kw_only=True):
    """A feature that the eye finds again, and from where on the sheet it is covered; mm, y up."""

    id: str
    x_mm: float
    y_mm: float
    size_mm: float
    from_x_mm: float
    from_y_mm: float


class Touch(Node, frozen=True, kw_only=True):
    """One touch-up stroke: a path in mm on the closed sheet, y up.

    ``brush`` is a ``touch`` operation; ``offset`` from where it takes what it lays down, mm; ``tip`` a source
    whose lightness is the brush's tip; ``maps`` which maps it changes, none is all.
    """

    id: str
    brush: Setting
    points: tuple[Point, ...]
    offset: Point = (0.0, 0.0)
    tip: str = ""
    maps: frozenset[MapKind] = frozenset()


class Palette(Node, frozen=True, kw_only=True):
    """Colours taken from a picture: ``#RRGGBB`` from the first to the last, evenly spaced."""

    id: str
    name: str
    stops: tuple[str, ...]


class Source(Node, frozen=True, kw_only=True):
    """Something gathered. ``blob`` names the stored file of its main picture, whose role is ``role``;
    ``pictures`` are its further maps. Stored pixels are never changed. ``linked`` sources follow the file
    at ``path``; the job keeps the pixels last read. ``shift`` and ``touches`` are carried out on the closed
    sheet, after ``quiets``.
    """

    id: str
    name: str
    kind: str = "photo"
    blob: str = ""
    file_name: str = ""
    width_px: int = 0
    height_px: int = 0
    depth: int = 8
    alpha: str = ""
    role: str = MapKind.BASE_COLOUR.value
    pictures: tuple[Picture, ...] = ()
    straightening: Straightening
    shadow: Setting = Setting(op="gather.shadow")
    light: Setting = Setting(op="gather.even_light")
    mend: Setting = Setting(op="mend.best_cut")
    breakup: Setting = Setting(op="breakup.hex")
    path: str = ""
    linked: bool = False
    balance: Setting = Setting(op="gather.balance")
    tint: Setting = Setting(op="gather.tint")
    height: Setting = Setting(op="estimate.height")
    roughness: Setting = Setting(op="estimate.roughness")
    crop: Crop | None = None
    pins: tuple[CutPin, ...] = ()
    quiets: tuple[Quiet, ...] = ()
    shift: Point = (0.0, 0.0)
    touches: tuple[Touch, ...] = ()
    scatter: Scatter | None = None
    calibration: Calibration | None = None

    def brings(self, role: str) -> bool:
        """Whether a map of that role comes with it, so that it is not estimated."""
        alike = {"roughness": {"roughness", "glossiness"}, "height": {"height", "normal"}}.get(role, {role})
        return self.scatter is not None or self.role in alike or any(picture.role in alike for picture in self.pictures)

    @property
    def true_relief(self) -> bool:
        """Whether its height is in real mm."""
        return self.scatter is not None or any(p.role == MapKind.HEIGHT and p.rise_mm > 0 for p in self.pictures)

    @property
    def sized(self) -> bool:
        """Whether its real size is known."""
        return self.scatter is not None or self.straightening.sized

    @property
    def sheet_mm(self) -> tuple[float, float]:
        """Width and height of what is made to repeat; 0 while the size is not known."""
        if self.scatter is not None:
            return self.scatter.width_mm, self.scatter.height_mm
        if self.crop is not None and self.straightening.sized:
            return self.crop.width_mm, self.crop.height_mm
        return self.straightening.width_mm, self.straightening.height_mm


class DeliveryMap(Node, frozen=True, kw_only=True):
    """One map of a delivery and its bits per channel."""

    id: str
    depth: int = 8
    included: bool = True


_ON_WISH = frozenset({MapKind.CURVATURE, *WET})
"""Maps a delivery holds only when they are asked for."""


def _all_maps() -> tuple[DeliveryMap, ...]:
    return tuple(DeliveryMap(id=kind, depth=TRAITS[kind].depth, included=kind not in _ON_WISH) for kind in SURFACE_MAPS)


class Delivery(Node, frozen=True, kw_only=True):
    """A named set of files to hand over; ``outputs`` names the formats that are written."""

    id: str
    name: str = "Map set"
    px: int = 2048
    pattern: str = "{surface}_{map}"
    maps: tuple[DeliveryMap, ...] = msgspec.field(default_factory=_all_maps)
    outputs: tuple[str, ...] = ("maps-png", "scene-glb")


class KeptState(Node, frozen=True, kw_only=True):
    """A surface as it was at a time, and the light on it then; ``name`` is said after the surface's."""

    id: str
    name: str
    surface: Surface
    rig: Rig = Rig()


class Job(Node, frozen=True, kw_only=True):
    """The document."""

    format: int = JOB_FORMAT
    id: str = msgspec.field(default_factory=lambda: new_id("job"))
    name: str = "Untitled job"
    sources: tuple[Source, ...] = ()
    surfaces: tuple[Surface, ...] = ()
    palettes: tuple[Palette, ...] = ()
    scene: Scene = Scene()
    rig: Rig = Rig()
    lights: tuple[KeptLight, ...] = ()
    states: tuple[KeptState, ...] = ()
    deliveries: tuple[Delivery, ...] = (Delivery(id="delivery-1"),)

    def source(self, id: str) -> Source:
        """The source of an id; :class:`MissingError` where there is none."""
        return _one("source", self.sources, id)

    def surface(self, id: str) -> Surface:
        """The surface of an id; :class:`MissingError` where there is none."""
        return _one("surface", self.surfaces, id)

    def surface_named(self, name: str) -> Surface:
        """The surface of that name or id.

        Raises
        ------
        MissingError
            when there is none; names those there are.
        """
        for surface in self.surfaces:
            if name in {surface.id, surface.name} or name.lower() == surface.name.lower():
                return surface
        names = ", ".join(surface.name for surface in self.surfaces) or "none"
        raise MissingError("surface", value=name, allowed=names)


Entity = TypeVar("Entity", Source, Surface)


def _one(kind: str, entities: tuple[Entity, ...], id: str) -> Entity:
    for entity in entities:
        if entity.id == id:
            return entity
    raise MissingError(kind, value=id)
