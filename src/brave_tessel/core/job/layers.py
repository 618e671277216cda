"""Build-ups as the job holds them: recipes, brush strokes, where-rules, the kinds of layers, surfaces."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import msgspec

from ..errors import MissingError
from ..maps import BLENDED, MapKind
from ..operation import Value
from .light import WALL
from .nodes import Node, Point, Setting


class PieceKind(Node, frozen=True, kw_only=True):
    """A kind of piece to strew: made by a ``shape`` operation, cut from a source, or a small model's relief."""

    id: str
    name: str
    shape: Setting = Setting(op="shape.pebble")
    source: str = ""
    blob: str = ""
    width_mm: float = 40.0
    height_mm: float = 30.0
    share: float = 1.0


class LaidPiece(Node, frozen=True, kw_only=True):
    """One piece laid by hand, mm on the sheet, y up; ``level`` raises it over what lies beneath."""

    id: str
    kind: str
    x_mm: float
    y_mm: float
    turn: float = 0.0
    size: float = 1.0
    tilt: float = 0.0
    tilt_towards: float = 0.0
    level: float = 0.0


class Scatter(Node, frozen=True, kw_only=True):
    """A sheet of strewn and laid pieces."""

    width_mm: float = 600.0
    height_mm: float = 600.0
    kinds: tuple[PieceKind, ...] = ()
    strew: Setting = Setting(op="scatter.strew")
    laid: tuple[LaidPiece, ...] = ()


class Step(Node, frozen=True, kw_only=True):
    """One named step of a recipe; ``made_from`` names earlier steps by input. ``section`` begins a new titled part
    where it differs from the step before; ``opened`` names the dials that the layer's card shows; a bypassed step
    passes on what it is made from; one at ``half`` is worked out at half resolution.
    """

    name: str
    op: str
    values: dict[str, Value] = {}
    made_from: dict[str, str] = {}
    section: str = ""
    note: str = ""
    bypassed: bool = False
    half: bool = False
    opened: tuple[str, ...] = ()
    version: int = 0

    @property
    def id(self) -> str:
        """Its name, by which commands find it."""
        return self.name


class Recipe(Node, frozen=True, kw_only=True):
    """An ordered list of steps, and which step feeds which map. ``seed`` is added to every step's own; ``notes`` are
    kept by section.
    """

    steps: tuple[Step, ...] = ()
    yields: dict[MapKind, str] = {}
    seed: int = 0
    notes: dict[str, str] = {}


class Stroke(Node, frozen=True, kw_only=True):
    """One brush stroke: a path in mm on the sheet, y up.

    ``pressure`` is one number a point, none for full. ``spacing`` sets stamps of the brush that far apart, in widths; 0
    draws the path as one. ``stray`` moves stamps aside by up to so many widths. ``tip`` is a source whose lightness is
    the brush's shape. ``mirror`` is none, across, up or both, about ``centre``; ``fold`` turns it about there;
    ``lattice`` repeats it in whole parts of the sheet. ``into`` says what a painted layer's stroke changes, by
    ``amount`` (mm for heights) and ``colour``.
    """

    id: str
    points: tuple[Point, ...]
    size_mm: float = 40.0
    hardness: float = 0.5
    strength: float = 1.0
    flow: float = 1.0
    erase: bool = False
    pressure: tuple[float, ...] = ()
    spacing: float = 0.0
    stray: float = 0.0
    tip: str = ""
    mirror: str = "none"
    fold: int = 1
    lattice: tuple[int, int] = (1, 1)
    centre: Point = (0.0, 0.0)
    into: str = "colour"
    amount: float = 1.0
    colour: str = "#B9B2A3"
    tilt: tuple[Point, ...] = ()
    version: int = 0


class Rule(Node, frozen=True, kw_only=True):
    """One where-rule of a layer. ``shape`` softens, spreads and weighs what it gives; ``recipe`` is there for a rule
    made of steps: its opacity is the cover.
    """

    id: str
    mode: str = "keep"
    rule: Setting
    shape: Setting = Setting(op="rule.shape")
    strokes: tuple[Stroke, ...] = ()
    recipe: Recipe | None = None
    shown: bool = True


class MapMix(Node, frozen=True, kw_only=True):
    """How one map of a layer is laid on what lies beneath: by which mode, how strongly."""

    mode: str = "over"
    strength: float = 1.0


class Placement(Node, frozen=True, kw_only=True):
    """Where something set once lies: its middle and size in mm, its turn and lean in degrees."""

    x_mm: float = 0.0
    y_mm: float = 0.0
    width_mm: float = 100.0
    height_mm: float = 100.0
    turn: float = 0.0
    skew: float = 0.0


@dataclass(frozen=True, slots=True)
class References:
    """Ids and names of what a layer is made of."""

    sources: tuple[str, ...] = ()
    surfaces: tuple[str, ...] = ()
    blobs: tuple[str, ...] = ()

    def __add__(self, other: References) -> References:
        return References(self.sources + other.sources, self.surfaces + other.surfaces, self.blobs + other.blobs)


class What:
    """What a layer is: base of the structs of every kind, each in a file of ``core/buildup/kinds``.

    What a document has to know of a kind is asked here; how it is made, planned and shown is its declaration's
    business.
    """

    __slots__ = ()

    def refers(self) -> References:
        """What it is made of."""
        return References()

    def finishes(self) -> frozenset[MapKind]:
        """Maps of finishes it brings of itself, known without working it out."""
        return frozenset()

    def held(self) -> tuple[Layer, ...]:
        """The layers held together in it, from the bottom up."""
        return ()

    def holding(self, layers: tuple[Layer, ...]) -> What:
        """The same with other layers held in it."""
        raise TypeError(type(self))

    @property
    def holds(self) -> bool:
        """Whether layers can be put into it."""
        return False

    @property
    def passing(self) -> bool:
        """Whether the layers held in it meet what lies beneath one by one."""
        return False

    def made_of_recipe(self) -> Recipe | None:
        """The recipe it is made of, if it is."""
        return None

    def painted(self) -> tuple[Stroke, ...] | None:
        """The strokes that make it, if it is painted."""
        return None


class UnknownWhat(Node, What, frozen=True, kw_only=True, tag="unknown"):
    """A kind that this version does not have; ``kept`` is all there is of it."""

    @property
    def named(self) -> str:
        """The word it is known by where it was made."""
        return str(self.kept.get("type", "unknown"))


class Layer(Node, frozen=True, kw_only=True):
    """One item of a build-up: what it is, where it lies, how it sits. ``maps`` says which maps it changes, ``mixes``
    how, where that is not plainly over. ``kit`` names the kit it came from.
    """

    id: str
    name: str
    what: What
    shown: bool = True
    locked: bool = False
    hatch: str = "slant"
    maps: frozenset[MapKind] = frozenset(BLENDED)
    mixes: dict[MapKind, MapMix] = {}
    laying: Setting = Setting(op="lay.sheet")
    look: Setting = Setting(op="look.adjust")
    where: tuple[Rule, ...] = ()
    seat: Setting = Setting(op="seat.by_height")
    tone: Setting = Setting(op="tone.match")
    kit: str = ""

    def mix(self, kind: MapKind) -> MapMix:
        """How a map is laid on; off has no strength."""
        if kind not in self.maps:
            return MapMix(strength=0.0)
        return self.mixes.get(kind, MapMix())


class Band(Node, frozen=True, kw_only=True):
    """A named strip of a surface that runs through it from side to side, mm from its lower edge."""

    id: str
    name: str
    low: float
    high: float

    @property
    def height(self) -> float:
        """From edge to edge."""
        return self.high - self.low


class Surface(Node, frozen=True, kw_only=True):
    """One tileable material. Layers from the bottom up. ``beat`` names the layer whose units or size
    the repeat follows, if any; ``rows`` how many of its periods fill the repeat, across and up. ``bands`` are strips of
    it that mouldings take. ``stance`` says whether it is a wall, a floor or a ceiling, for the light it is seen in;
    what is ``cut_out`` is open where nothing lies on it.
    """

    id: str
    name: str
    width_mm: float
    height_mm: float
    layers: tuple[Layer, ...] = ()
    beat: str = ""
    rows: tuple[int, int] = (1, 1)
    bands: tuple[Band, ...] = ()
    stance: str = WALL
    cut_out: bool = False

    def band(self, id: str) -> Band | None:
        """The band of an id, if it is there and lies within the repeat."""
        found = next((one for one in self.bands if one.id == id), None)
        return found if found is not None and 0 <= found.low < found.high <= self.height_mm + 1e-6 else None


def every_layer(layers: tuple[Layer, ...]) -> Iterator[tuple[Layer, tuple[str, ...]]]:
    """Every layer from the bottom up, those of bundles after their bundle, with the bundles' ids that lead to it."""
    for layer in layers:
        yield layer, ()
        for inner, way in every_layer(layer.what.held()):
            yield inner, (layer.id, *way)


def layer_of(surface: Surface, id: str) -> Layer:
    """The surface's layer of that id, also within bundles.

    Raises
    ------
    MissingError
        when there is none.
    """
    for layer, _ in every_layer(surface.layers):
        if layer.id == id:
            return layer
    raise MissingError("layer", value=id)


def layer_path(surface: Surface, id: str) -> tuple[str, ...]:
    """Where a layer lies in the job, for commands."""
    for layer, way in every_layer(surface.layers):
        if layer.id == id:
            inner = tuple(part for bundle in way for part in ("layers", bundle, "what"))
            return ("surfaces", surface.id, *inner, "layers", id)
    raise MissingError("layer", value=id)


def with_held(layer: Layer, layers: tuple[Layer, ...]) -> Layer:
    """A layer with other layers held in it; the very same where nothing changes."""
    if layer.what.held() == layers:
        return layer
    return msgspec.structs.replace(layer, what=layer.what.holding(layers))


def laid_times(layer: Layer) -> tuple[int, int]:
    """How many whole repeats of a layer lie in its surface, across and up; one where it is not laid so."""
    return getattr(layer.what, "across", 1), getattr(layer.what, "up", 1)
