"""What a card shows of a kind of layer, said without an interface: rows that a window makes into controls.

A text may be words or a function of the surface and the layer, which then follows them while the card stays.
``key`` is what a row's make-up hangs on: a card is built anew when the keys of its rows change, not when numbers do.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable
from dataclasses import dataclass
from typing import Any

from ..job.document import Job
from ..job.layers import Layer, Surface
from ..operation import Param, Value
from ..plan.tasks import Task

Place = tuple[str, ...]
"""The way to a value within a layer, such as ``("what", "placement", "turn")``."""
Text = str | Callable[[Surface, Layer], str]


@dataclass(frozen=True, slots=True)
class Change:
    """A value put at a place within the layer."""

    where: Place
    value: Any
    label: str
    gesture: str = ""


def _told(text: Text) -> Hashable:
    return text if isinstance(text, str) else "…"


@dataclass(frozen=True, slots=True)
class Note:
    """A sentence; nothing to say hides it. ``tone`` is note, caution or fault."""

    text: Text
    tone: str = "note"

    @property
    def key(self) -> Hashable:
        return ("note", _told(self.text), self.tone)


@dataclass(frozen=True, slots=True)
class Title:
    """A heading within the part."""

    text: str

    @property
    def key(self) -> Hashable:
        return ("title", self.text)


@dataclass(frozen=True, slots=True)
class Dials:
    """The controls of a declared setting at a place, all or some of its parameters."""

    where: Place
    op: str
    only: tuple[str, ...] | None = None

    @property
    def key(self) -> Hashable:
        return ("dials", self.where, self.op, self.only)


@dataclass(frozen=True, slots=True)
class LentDials:
    """As :class:`Dials`, for a setting that the layer takes from elsewhere until it is changed here."""

    where: Place
    op: str
    values: Callable[[Job, Layer], dict[str, Value]]
    put: Callable[[Job, Layer, str, Value], Change]
    only: tuple[str, ...] | None = None

    @property
    def key(self) -> Hashable:
        return ("lent", self.where, self.op, self.only)


@dataclass(frozen=True, slots=True)
class StepDials:
    """Dials of a step of the layer's recipe, by the step's name."""

    step: str
    op: str
    only: tuple[str, ...] | None = None

    @property
    def key(self) -> Hashable:
        return ("step", self.step, self.op, self.only)


@dataclass(frozen=True, slots=True)
class Field:
    """One plain value at a place, shown as the parameter says."""

    param: Param
    where: Place
    label: str = ""

    @property
    def key(self) -> Hashable:
        return ("field", self.param.label, self.where)


@dataclass(frozen=True, slots=True)
class Choose:
    """One operation of a family for the setting at a place; its values start afresh."""

    title: str
    family: str
    where: Place
    label: str

    @property
    def key(self) -> Hashable:
        return ("choose", self.family, self.where)


@dataclass(frozen=True, slots=True)
class Flag:
    """A button that is in or out; ``words`` for both states where they differ."""

    title: str
    where: Place
    label: str
    tip: str = ""
    otherwise: str = ""

    @property
    def key(self) -> Hashable:
        return ("flag", self.title, self.where)


@dataclass(frozen=True, slots=True)
class Act:
    """A button. ``change`` says from the present layer what it changes; without one, ``asks`` names what the window
    does: recipe, drawing, unbundle, unmerge or surface (``about`` its id).
    """

    title: str
    tip: str = ""
    change: Callable[[Job, Surface, Layer], Change | None] | None = None
    asks: str = ""
    about: str = ""

    @property
    def key(self) -> Hashable:
        return ("act", self.title, self.asks, self.about)


@dataclass(frozen=True, slots=True)
class Offer:
    """A drop-down of an operation family; choosing one adds something."""

    title: str
    family: str
    add: Callable[[Layer, str, str], Change | None]

    @property
    def key(self) -> Hashable:
        return ("offer", self.title)


@dataclass(frozen=True, slots=True)
class Beside:
    """Rows next to each other."""

    rows: tuple[FormRow, ...]

    @property
    def key(self) -> Hashable:
        return ("beside", tuple(row.key for row in self.rows))


@dataclass(frozen=True, slots=True)
class Part:
    """Rows that fold under a title, with a note that follows the layer."""

    title: str
    note: Text
    rows: tuple[FormRow, ...]

    @property
    def key(self) -> Hashable:
        return ("part", self.title, tuple(row.key for row in self.rows))


@dataclass(frozen=True, slots=True)
class Brush:
    """The brush and the strokes there are."""

    @property
    def key(self) -> Hashable:
        return ("brush",)


@dataclass(frozen=True, slots=True)
class Found:
    """A sentence that has to be worked out first: ``plan`` gives a task from a planner, ``read`` its result in
    words.
    """

    waiting: str
    plan: Callable[[Any, Surface, Layer], Task | None]
    read: Callable[[Any], str]

    @property
    def key(self) -> Hashable:
        return ("found", self.waiting)


FormRow = (
    Note | Title | Dials | LentDials | StepDials | Field | Choose | Flag | Act | Offer | Beside | Part | Brush | Found
)
