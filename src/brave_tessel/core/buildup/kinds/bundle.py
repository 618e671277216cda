"""Layers held together."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from functools import partial

import msgspec

from ...errors import MissingError
from ...job.commands import fetch
from ...job.document import Job
from ...job.layers import Layer, References, Surface, What
from ...job.nodes import Node, Setting
from ...operation import Fraction
from ...plan import joins
from ...plan.protocol import Place, Plans
from ...plan.tasks import Local, Task, task_key
from ...sheet import Grid
from ..form_rows import Act, Beside, Dials, Field, Flag, FormRow, Note, Title
from ..kind import LayerKind, layer_kind

MIX = replace(
    Fraction(help="From the lower layer of the bundle, at 0, to the upper one, at 1; both whole in the middle."),
    label="Mix",
    default=0.5,
)


class BundleWhat(Node, What, frozen=True, kw_only=True, tag="bundle"):
    """Layers held together. Passing: each meets what lies beneath by itself, within the bundle's Where. Closed: they
    are joined first and meet it as one. ``mix`` weighs the lowest layer in it, whole up to 0.5, against the others,
    whole from 0.5; ``dials`` are places of settings within it that its card keeps open: a layer's id, the way to a
    setting, a name.
    """

    layers: tuple[Layer, ...] = ()
    passing: bool = True
    mix: float = 0.5
    dials: tuple[tuple[str, ...], ...] = ()

    def held(self) -> tuple[Layer, ...]:
        """Its layers, from the bottom up."""
        return self.layers

    def holding(self, layers: tuple[Layer, ...]) -> BundleWhat:
        """The same bundle with other layers."""
        return msgspec.structs.replace(self, layers=layers)

    @property
    def holds(self) -> bool:
        """Whether other layers may be put into it."""
        return True

    def refers(self) -> References:
        """What its layers refer to."""
        return sum((layer.what.refers() for layer in self.layers), References())


@layer_kind(BundleWhat, label="Bundle")
class BundleKind(LayerKind[BundleWhat]):
    """Passing or closed."""

    mapped = looked = False

    def maps(self, planner: Plans, layer: Layer, grid: Grid, below: Task | None) -> Task:
        return closed_bundle(planner, layer, Place(grid, planner.bare(grid, layer.id), None, {}))

    def join(self, planner: Plans, layer: Layer, place: Place) -> Task:
        assert isinstance(layer.what, BundleWhat)
        if not layer.what.passing:
            return planner.seat(layer, closed_bundle(planner, layer, place), place)
        after = place.below
        for number, inner in enumerate(layer.what.layers):
            cover = _weighed(layer, number, place)
            after = planner.joined(inner, replace(place, below=after, cover=cover))
        return after

    def picture(self, planner: Plans, layer: Layer, place: Place) -> Task:
        alone = msgspec.structs.replace(layer, where=(), shown=True)
        return planner.joined(alone, replace(place, known=dict(place.known)))

    def form(self, job: Job, surface: Surface, layer: Layer) -> Iterable[FormRow]:
        assert isinstance(layer.what, BundleWhat)
        what = layer.what
        yield Note(", ".join(inner.name for inner in reversed(what.layers)) or "Empty: drag layers onto its row.")
        yield Beside(
            (
                Flag(
                    "Passing",
                    ("what", "passing"),
                    "Open or close the bundle",
                    "Passing: each layer meets what lies beneath by itself. "
                    "Closed: they are joined first and meet it as one",
                    otherwise="Closed",
                ),
                Act("Open the bundle", "Its layers in its place", asks="unbundle"),
            )
        )
        if len(what.layers) == 2:
            yield Field(MIX, ("what", "mix"), "Mix the bundle")
        for dial in what.dials:
            yield from _dial(layer, dial)


def _dial(bundle: Layer, dial: tuple[str, ...]) -> Iterable[FormRow]:
    """A dial of a layer within the bundle, kept open by its kit; one whose layer has been taken out is not shown."""
    *where, name = dial
    way = ("what", "layers", *where)
    try:
        setting, inner = fetch(bundle, way), fetch(bundle, way[:3])
    except (MissingError, KeyError):
        return
    if isinstance(setting, Setting) and isinstance(inner, Layer):
        yield Title(inner.name)
        yield Dials(way, setting.op, (name,))


def closed_bundle(planner: Plans, layer: Layer, place: Place) -> Task:
    """The maps of a bundle's layers joined on an empty sheet."""
    grid = place.grid
    below = planner.bare(grid, layer.id)
    inside = Place(grid, below, None, {})
    done: list[Task] = []
    for number, inner in enumerate(layer.what.held()):
        cover = _weighed(layer, number, replace(inside, cover=None))
        after = planner.joined(inner, replace(inside, below=below, cover=cover))
        if after is not below:
            done.append(after)
        below = after
    return Task(
        task_key("bundle", grid, *(task.key for task in done)),
        layer.name,
        layer.id,
        partial(joins.bundled, grid=grid),
        tuple(done),
        local=Local(lambda area: partial(joins.bundled, grid=area.own), 1),
    )


def _weighed(bundle: Layer, number: int, place: Place) -> Task | None:
    """The coverage of one layer of a bundle, weighed by the bundle's mix."""
    assert isinstance(bundle.what, BundleWhat)
    mix = bundle.what.mix
    weight = min(1.0, 2 * (1 - mix)) if number == 0 else min(1.0, 2 * mix)
    if weight == 1 or len(bundle.what.layers) < 2:
        return place.cover
    inputs = () if place.cover is None else (place.cover,)
    return Task(
        task_key("weighed", weight, place.grid, *(task.key for task in inputs)),
        "Mix",
        bundle.id,
        partial(joins.weigh, weight=weight, grid=place.grid),
        inputs,
        local=Local(lambda area: partial(joins.weigh, weight=weight, grid=area.own)),
    )
