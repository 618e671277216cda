"""What a kind of layer may ask of the planner. Kinds know this and no planner, so that neither needs the other's
file.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Protocol

from ..job.document import Job, Source
from ..job.layers import Layer, Recipe, Scatter, Stroke
from ..job.nodes import Setting
from ..sheet import Grid
from .tasks import Task


@dataclass(frozen=True, slots=True)
class Seen:
    """A layer that has been joined: its coverage (None is everywhere) and the stack after it."""

    layer: Layer
    cover: Task | None
    stack: Task


Known = Mapping[str, Seen]


@dataclass(frozen=True, slots=True)
class Place:
    """Where a layer is joined: the stack beneath it, its coverage (None is everywhere), and the layers known by
    then.
    """

    grid: Grid
    below: Task
    cover: Task | None
    known: dict[str, Seen]

    def on(self, below: Task) -> Place:
        """The same on another stack."""
        return replace(self, below=below)


@dataclass(frozen=True, slots=True)
class Repeats:
    """A gathered source laid so many times; its estimates as the source says where they are not given."""

    source: str
    across: int = 1
    up: int = 1
    height: Setting | None = None
    roughness: Setting | None = None


class Plans(Protocol):
    """The planner, as kinds see it. Every method gives a task and works nothing out."""

    @property
    def job(self) -> Job:
        """The job that is planned."""

    def picture(self, source: Source) -> Task: ...

    def evened(self, source: Source, px: int) -> Task:
        """A source's picture with its uneven light taken out."""

    def sheet(self, source: Source, px: int) -> Task:
        """A source straightened and closed, all its maps."""

    def estimated(self, source: Source, repeats: Repeats | None, laid: Task, owner: str) -> Task:
        """Maps that are not there, estimated from the picture."""

    def source_maps(self, repeats: Repeats, grid: Grid, owner: str, label: str) -> Task:
        """A source's maps in whole repeats on a grid."""

    def surface_maps(self, surface: str, across: int, up: int, grid: Grid, layer: Layer) -> Task:
        """Another surface's maps in whole repeats on a grid."""

    def recipe(self, recipe: Recipe, grid: Grid, owner: str, below: Task | None = None) -> Task:
        """The maps that a recipe yields; it may look at what lies ``below``."""

    def letters(self, font: str, text: str, owner: str) -> Task:
        """The outline of a text in a font, or of a stored drawing."""

    def tips(self, strokes: tuple[Stroke, ...], owner: str) -> dict[str, Task]:
        """The pictures that strokes take as tips, by name."""

    def strewn(self, scatter: Scatter, grid: Grid, layer: Layer) -> Task:
        """Pieces strewn on a grid."""

    def layer_maps(self, layer: Layer, grid: Grid, below: Task | None = None) -> Task:
        """A layer's maps, turned and adjusted."""

    def seat(self, layer: Layer, maps: Task, place: Place) -> Task:
        """A layer's maps joined with what lies beneath."""

    def joined(self, layer: Layer, place: Place) -> Task:
        """The stack after a layer."""

    def bare(self, grid: Grid, owner: str) -> Task:
        """The stack before any layer."""
