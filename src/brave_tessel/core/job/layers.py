"""Build-ups as the job holds them: recipes, brush strokes, where-rules, the kinds of layers, surfaces."""

from __future__ import annotations

from collections.abc import Iterator

from ..errors import MissingError
from ..maps import BLENDED, MapKind
from ..operation import Value
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
    where it differs from the step before; ``opened`` names the dials that the layer's card shows; a muted step passes
    on what it is made from; one at ``half`` is worked out at half resolution.
    """

    name: str
    op: str
    values: dict[str, Value] = {}
    made_from: dict[str, str] = {}
    section: str = ""
    note: str = ""
    muted: bool = False
    half: bool = False
    opened: tuple[str, ...] = ()

    @property
    def id(self) -> str:
        return self.name


class Recipe(Node, frozen=True, kw_only=True):
    """An ordered list of steps, and which step feeds which map. ``seed`` is added to every step's own; ``notes``
    are kept
    by section.
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
    ``lattice``
    repeats it in whole parts of the sheet. ``into`` says what a painted layer's stroke changes, by ``amount`` (mm for
    heights) and ``colour``.
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


class Rule(Node, frozen=True, kw_only=True):
    """One where-rule of a layer. ``shape`` softens, spreads and weighs what it gives; ``recipe`` is there for a
    rule made
    of steps: its opacity is the cover.
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


class PlainWhat(Node, frozen=True, kw_only=True, tag="plain"):
    """One value for each map."""

    colour: str = "#B9B2A3"
    roughness: float = 0.8
    metalness: float = 0.0


class RecipeWhat(Node, frozen=True, kw_only=True, tag="recipe"):
    """A procedural source, laid in whole repeats."""

    recipe: Recipe
    across: int = 1
    up: int = 1


class SourceWhat(Node, frozen=True, kw_only=True, tag="source"):
    """A gathered source laid in whole repeats. Its relief and roughness are estimated as the source says,
    or as the layer says. ``merged`` keeps the layers that were merged down into it.
    """

    source: str
    across: int = 1
    up: int = 1
    height: Setting | None = None
    roughness: Setting | None = None
    merged: tuple[Layer, ...] = ()


class SurfaceWhat(Node, frozen=True, kw_only=True, tag="surface"):
    """Another surface of the job, laid in whole repeats."""

    surface: str
    across: int = 1
    up: int = 1


class DecalWhat(Node, frozen=True, kw_only=True, tag="decal"):
    """Something set once: a source, or a recipe; it wraps. ``strew`` lays many copies."""

    placement: Placement = Placement()
    source: str = ""
    recipe: Recipe | None = None
    strew: Setting = Setting(op="decal.strew")


class PaintedWhat(Node, frozen=True, kw_only=True, tag="painted"):
    """Strokes of colour, height and roughness."""

    strokes: tuple[Stroke, ...] = ()


class WaterWhat(Node, frozen=True, kw_only=True, tag="water"):
    """Standing water up to a level in mm."""

    water: Setting = Setting(op="water.standing")


class RunWhat(Node, frozen=True, kw_only=True, tag="run"):
    """A stamp along a path in whole steps. ``points`` in mm; a closed run returns to its first point; one whose last
    point lies a repeat further on closes over the edge.
    """

    points: tuple[Point, ...] = ()
    closed: bool = False
    rounded: bool = True
    stamp: Setting = Setting(op="stamp.stitch")
    colour: str = "#8F7A52"
    roughness: float = 0.8


class InscriptionWhat(Node, frozen=True, kw_only=True, tag="inscription"):
    """Lettering or a drawing turned into relief. ``drawing`` is a stored SVG or cut-out picture, used in place of
    text.
    """

    placement: Placement = Placement()
    text: str = "Saltreach"
    font: str = "IBM Plex Sans SemiBold"
    drawing: str = ""
    cut: Setting = Setting(op="inscription.cut")


class ScatterWhat(Node, frozen=True, kw_only=True, tag="scatter"):
    """Pieces strewn and laid on the surface; the scatter's own size is the surface's."""

    scatter: Scatter = Scatter()


class BundleWhat(Node, frozen=True, kw_only=True, tag="bundle"):
    """Layers held together. Passing: each meets what lies beneath by itself, within the bundle's Where. Closed:
    they are
    joined first and meet it as one. ``mix`` weighs the lowest layer in it, whole up to 0.5, against the others,
    whole from
    0.5; ``dials`` are places of settings within it that its card keeps open: a layer's id, the way to a setting, a
    name.
    """

    layers: tuple[Layer, ...] = ()
    passing: bool = True
    mix: float = 0.5
    dials: tuple[tuple[str, ...], ...] = ()


What = (
    PlainWhat
    | RecipeWhat
    | SourceWhat
    | SurfaceWhat
    | DecalWhat
    | PaintedWhat
    | WaterWhat
    | RunWhat
    | InscriptionWhat
    | ScatterWhat
    | BundleWhat
)


class Layer(Node, frozen=True, kw_only=True):
    """One item of a build-up: what it is, where it lies, how it sits. ``maps`` says which maps it changes,
    ``mixes`` how,
    where that is not plainly over. ``kit`` names the kit it came from.
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


class Surface(Node, frozen=True, kw_only=True):
    """One tileable material. Layers from the bottom up. ``beat`` names the layer whose units or size
    the repeat follows, if any; ``rows`` how many of its periods fill the repeat, across and up.
    """

    id: str
    name: str
    width_mm: float
    height_mm: float
    layers: tuple[Layer, ...] = ()
    beat: str = ""
    rows: tuple[int, int] = (1, 1)


def every_layer(layers: tuple[Layer, ...]) -> Iterator[tuple[Layer, tuple[str, ...]]]:
    """Every layer from the bottom up, those of bundles after their bundle, with the bundles' ids that lead to it."""
    for layer in layers:
        yield layer, ()
        if isinstance(layer.what, BundleWhat):
            for inner, way in every_layer(layer.what.layers):
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
