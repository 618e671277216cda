"""The one declaration of a kind of layer. Each stands in a file of its own in ``core/buildup/kinds``."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Any, ClassVar, Generic, TypeVar

from ..errors import UnknownKindError
from ..job.document import Job
from ..job.layers import Layer, Surface, UnknownWhat, What
from ..maps import MapKind
from ..phrases import say
from ..plan.protocol import Place, Plans
from ..plan.tasks import Task
from ..sheet import Grid
from .form_rows import FormRow, Note
from .handles import Handles, Moved

W = TypeVar("W", bound=What)


class LayerKind(Generic[W]):
    """One kind of layer: its struct, how a fresh one is made, planned, shown in a form and dragged.

    What is not overridden suits a kind whose maps are seated on what lies beneath.
    """

    struct: type[W]
    label: ClassVar[str]
    """Its name in the card; in lower case in lists."""
    group: ClassVar[str] = "Special"
    """The group of *Lay on* it is offered in."""
    hatch: ClassVar[str] = ""
    """A hatch it always takes; empty for the next free one."""
    rides: ClassVar[bool] = False
    """Whether a fresh one meets what lies beneath by height, a little above it; else it lies over it."""
    seated: ClassVar[bool] = True
    """Whether it is seated by height or over; else it changes what lies beneath."""
    mapped: ClassVar[bool] = True
    """Whether maps are switched and mixed one by one."""
    looked: ClassVar[bool] = True
    """Whether its look can be adjusted."""
    laid: ClassVar[bool] = False
    """Whether it is laid in whole repeats, ``across`` and ``up``."""
    fills: ClassVar[bool] = False
    """Whether it fills hollows to a level, as water does: drawn in the section as one flat body."""

    # A fresh one ---------------------------------------------------------------------------------

    def offers(self, job: Job, surface: Surface | None) -> list[str]:
        """The names under which it can be laid on."""
        return [self.label]

    def fresh(self, job: Job, surface: Surface, name: str) -> W:
        """A fresh one of a name offered."""
        return self.struct()

    def layer_name(self, name: str) -> str:
        """What a fresh layer is called."""
        return name

    # Planning ------------------------------------------------------------------------------------

    def maps(self, planner: Plans, layer: Layer, grid: Grid, below: Task | None) -> Task:
        """A layer's maps on the surface's grid, before they are turned and adjusted."""
        raise NotImplementedError

    def join(self, planner: Plans, layer: Layer, place: Place) -> Task:
        """The stack after the layer."""
        return planner.seat(layer, planner.layer_maps(layer, place.grid, place.below), place)

    def moulds(self, layer: Layer) -> bool:
        """Whether it may change the relief: heights, finer normals, occlusion."""
        relief = (MapKind.HEIGHT, MapKind.NORMAL, MapKind.AMBIENT_OCCLUSION)
        return not self.mapped or any(layer.mix(kind).strength > 0 for kind in relief)

    def picture(self, planner: Plans, layer: Layer, place: Place) -> Task:
        """What its small picture shows: its maps, or a stack."""
        return planner.layer_maps(layer, place.grid, place.below)

    def painted_share(self, what: W) -> float:
        """How strongly its own colour and roughness count."""
        return 1.0

    # Shown ---------------------------------------------------------------------------------------

    def own_size(self, job: Job, what: W) -> tuple[float, float] | None:
        """The real size of what it is made of, mm."""
        return None

    def form(self, job: Job, surface: Surface, layer: Layer) -> Iterable[FormRow]:
        """The rows of its card's What."""
        return ()

    def describe(self, layer: Layer) -> str:
        """Its kind in a list; empty where the rest of the line says enough."""
        return self.label.lower()

    def level(self, layer: Layer) -> float:
        """The height that a list tells of it, mm."""
        return 0.0

    def handles(self, surface: Surface, what: W) -> Handles:
        """What of it can be dragged on the board."""
        return Handles()

    def moved(self, surface: Surface, what: W, handle: str, to: tuple[float, float], unequal: bool) -> Moved | None:
        """What it means to drag one of its handles to a place, mm; ``unequal`` lets the sides go their own ways."""
        return None

    def clicked(self, what: W, at: tuple[float, float]) -> Moved | None:
        """What a click on its path means, mm."""
        return None

    def taken_out(self, what: W, handle: str) -> Moved | None:
        """What it means to take one of its handles out."""
        return None

    def dropped(self, what: W, at: tuple[float, float]) -> W:
        """The same, set down at a place, mm."""
        return what


Kind = LayerKind[Any]
KINDS: dict[str, Kind] = {}
"""Every kind by its tag in a job file, in the order of their files' names."""
_BY_STRUCT: dict[type, Kind] = {}


def layer_kind(struct: type[W], *, label: str) -> Callable[[type[LayerKind[W]]], type[LayerKind[W]]]:
    """Declare a kind of layer; the tag of its struct names it in files."""

    def declare(kind: type[LayerKind[W]]) -> type[LayerKind[W]]:
        kind.struct, kind.label = struct, label
        KINDS[tag_of(struct)] = _BY_STRUCT[struct] = kind()
        return kind

    return declare


def tag_of(struct: type[What]) -> str:
    """The word a kind is known by in files."""
    config = getattr(struct, "__struct_config__")  # noqa: B009 - the mixin itself has none
    return str(config.tag)


def kind_of(what: What) -> Kind:
    """The declaration of what a layer is; for a kind of another version, one that says so and does nothing."""
    return _BY_STRUCT[type(what)]


@layer_kind(UnknownWhat, label="Unknown")
class UnknownKind(LayerKind[UnknownWhat]):
    """Shown where it stands, passed over in the picture, saved as it came."""

    mapped = looked = False

    def offers(self, job: Job, surface: Surface | None) -> list[str]:
        return []

    def maps(self, planner: Plans, layer: Layer, grid: Grid, below: Task | None) -> Task:
        raise UnknownKindError(
            "kind of layer", value=_named(layer), remedy="It was made by another version; it is kept unchanged."
        )

    def form(self, job: Job, surface: Surface, layer: Layer) -> Iterable[FormRow]:
        yield Note(
            say("“{named}” was made by another version. It is kept unchanged.", named=_named(layer)), tone="caution"
        )

    def describe(self, layer: Layer) -> str:
        return say("unknown: {named}", named=_named(layer))


def _named(layer: Layer) -> str:
    assert isinstance(layer.what, UnknownWhat)
    return layer.what.named
