"""The one declaration of everything that has parameters.

A decorated function's signature yields its form, its place in the file, its validation, its
documentation and its generic tests.  Nothing about a parameter is written down twice.
"""

from __future__ import annotations

import inspect
import math
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from dataclasses import fields as dataclass_fields
from typing import Annotated, Any, TypeVar, get_args, get_origin, get_type_hints

import numpy as np
import numpy.typing as npt

from .errors import NotUnderstoodError, OutOfRangeError, UnknownOperationError
from .lattice import with_earlier_hash
from .maps import MapSet
from .outlines import Outline
from .phrases import Phrase, say
from .quantity import format_number, parse_size
from .sheet import Grid, Raster

Value = float | int | str | bool
"""What a parameter may hold in a job file."""


@dataclass(frozen=True, slots=True)
class Param:
    """One parameter: its kind, its usual range (the ruled scale) and its allowed range."""

    kind: str
    low: float = 0.0
    high: float = 1.0
    unit: str = ""
    log: bool = False
    help: str = ""
    options: tuple[str, ...] = ()
    least: float = -math.inf
    most: float = math.inf
    name: str = ""
    label: str = ""
    default: Value = 0.0

    def check(self, value: Value) -> Value:
        """The value in its own type, or a typed error."""
        if self.kind == "choice":
            if value not in self.options:
                raise OutOfRangeError(self.label, value=value, allowed=", ".join(self.options))
            return value
        if self.kind == "toggle":
            return bool(value)
        if self.kind == "colour":
            return self._check_colour(value)
        if self.kind in {"source", "font", "layer", "tip"}:
            return str(value)
        if self.kind == "sizes":
            return ", ".join(f"{width:g}×{height:g}" for width, height in sizes_of(value, self.label))
        if self.kind == "words":
            return self._check_words(value)
        if self.kind == "stops":
            return ",".join(self._check_stop(part) for part in self._parts(value))
        return self._check_number(value)

    def _check_colour(self, value: Value) -> Value:
        text = str(value)
        if len(text) == 7 and text[0] == "#" and all(c in "0123456789abcdefABCDEF" for c in text[1:]):
            return text.upper()
        raise OutOfRangeError(self.label, value=value, allowed="a colour as #RRGGBB")

    def _check_words(self, value: Value) -> Value:
        text = str(value)
        if len(text) > self.most or any(not letter.isprintable() and letter != "\n" for letter in text):
            raise OutOfRangeError(self.label, value=text[:40], allowed=say("up to {most:g} letters", most=self.most))
        return text

    def _parts(self, value: Value) -> list[str]:
        parts = [part.strip() for part in str(value).split(",")]
        if not 2 <= len(parts) <= 16:
            raise OutOfRangeError(self.label, value=value, allowed="2 to 16 colours as #RRGGBB, with commas between")
        return parts

    def _check_stop(self, part: str) -> str:
        colour, at, place = part.partition("@")
        checked = str(self._check_colour(colour))
        if not at:
            return checked
        try:
            share = float(place)
        except ValueError:
            share = -1.0
        if not 0 <= share <= 1:
            raise OutOfRangeError(self.label, value=part, allowed="places from 0 to 1, as in #336699@0.4")
        return f"{checked}@{share:g}"

    def _check_number(self, value: Value) -> Value:
        if isinstance(value, str) or not math.isfinite(value) or not self.least <= value <= self.most:
            raise OutOfRangeError(self.label, value=value, allowed=self.allowed())
        return round(value) if self.kind in {"whole", "seed"} else float(value)

    def allowed(self) -> Phrase:
        """The allowed range in words."""
        unit = f" {self.unit}" if self.unit else ""
        least, most = (format_number(limit, decimals=4) for limit in (self.least, self.most))
        if math.isinf(self.least) and math.isinf(self.most):
            return say("any number")
        if math.isinf(self.most):
            return say("{least} or more", least=least + unit)
        return say("{least} to {most}", least=least, most=most + unit)


def _limited(kind: str, low: float, high: float, least: float | None, most: float | None, **more: Any) -> Param:
    return Param(kind, low, high, least=low if least is None else least, most=high if most is None else most, **more)


def Length(
    low: float, high: float, *, log: bool = False, least: float | None = None, most: float | None = None, help: str
) -> Param:
    """A length in mm; ``low`` to ``high`` is the ruled scale, ``least`` to ``most`` what may be typed."""
    return _limited("length", low, high, least, math.inf if most is None else most, unit="mm", log=log, help=help)


def Angle(low: float = -180, high: float = 180, *, help: str) -> Param:
    """An angle in degrees."""
    return Param("angle", low, high, unit="°", help=help)


def Fraction(
    low: float = 0.0,
    high: float = 1.0,
    *,
    least: float | None = None,
    most: float | None = None,
    unit: str = "",
    help: str,
) -> Param:
    """A number without a length: a plain fraction, or with ``unit`` a density, stops or a colour difference."""
    return _limited("fraction", low, high, least, most, unit=unit, help=help)


def Whole(low: int, high: int, *, most: int | None = None, unit: str = "", help: str) -> Param:
    """A whole number."""
    return _limited("whole", low, high, None, most, unit=unit, help=help)


def Choice(*options: str, help: str) -> Param:
    """One of a few words."""
    return Param("choice", options=options, help=help)


_PROPER = {"english", "flemish"}


def shown_option(option: str) -> str:
    """A choice as people read it: names of places keep their capital."""
    return option.capitalize() if option in _PROPER else option


def called(label: str, param: Param) -> Param:
    """A parameter under a name of its own, where the name in the code would not do for people."""
    return replace(param, label=label)


def Toggle(*, help: str) -> Param:
    """Yes or no."""
    return Param("toggle", help=help)


def Paint(*, help: str) -> Param:
    """A colour, stored as sRGB ``#RRGGBB``."""
    return Param("colour", help=help)


def Stops(*, help: str) -> Param:
    """Colours of a ramp from 0 to 1: ``#RRGGBB`` evenly spaced, or each with its place as in ``#RRGGBB@0.3``, with
    commas.
    """
    return Param("stops", help=help)


def Gathered(*, help: str) -> Param:
    """A source of the job, by its id; empty for none."""
    return Param("source", help=help)


def Words(most: int = 200, *, help: str) -> Param:
    """A text of up to so many letters."""
    return Param("words", most=most, help=help)


def Sizes(*, help: str) -> Param:
    """Some sizes in mm, as in ``400×200, 200×200``."""
    return Param("sizes", help=help)


def sizes_of(value: Value, label: str = "Sizes") -> list[tuple[float, float]]:
    """Widths and heights in mm of a list of sizes.

    Raises
    ------
    OutOfRangeError
        when it is no list of 1 to 16 sizes.
    """
    try:
        sizes = [parse_size(part) for part in str(value).split(",") if part.strip()]
    except NotUnderstoodError:
        sizes = []
    if not 1 <= len(sizes) <= 16:
        raise OutOfRangeError(label, value=value, allowed="1 to 16 sizes, with commas between, as in 400×200, 200×200")
    return sizes


def Tip(*, help: str) -> Param:
    """A brush's tip: a source by its id, a stock recipe as ``recipe:NAME``; empty is round."""
    return Param("tip", help=help)


def BelowLayer(*, help: str) -> Param:
    """A layer of the same build-up, by its id; empty for none."""
    return Param("layer", help=help)


def FontName(*, help: str) -> Param:
    """A font by its full name: a shipped or an installed one."""
    return Param("font", help=help)


def Seed() -> Param:
    """The number that picks one of many equal variants."""
    return _limited("seed", 1, 9999, 0, 2**31 - 1, help="Picks one of many equal variants.")


@dataclass(frozen=True, slots=True)
class Pieces:
    """Every pixel's piece: an ID field with per-pixel measures.

    ``number`` (H, W) int32, −1 between pieces; ``edge`` (H, W) float32, mm inside the piece's edge
    (negative in the joint); ``across`` and ``up`` in [−1, 1] within the piece; ``count`` pieces.
    """

    number: npt.NDArray[np.int32]
    edge: Raster
    across: Raster
    up: Raster
    count: int

    @property
    def nbytes(self) -> int:
        """Bytes of all its rasters, for the cache."""
        return self.number.nbytes + self.edge.nbytes + self.across.nbytes + self.up.nbytes


@dataclass(frozen=True, slots=True)
class Brushed:
    """What a touch-up brush is handed beside the maps of its window: where the stroke lies, (H, W) in [0, 1];
    the same maps at the place it takes from; its path in pixels of the window, (x, y).
    """

    cover: Raster
    there: MapSet
    path: tuple[tuple[float, float], ...]


Field = Annotated[Raster, "field"]
"""(H, W) float32."""
Colour = Annotated[Raster, "colour"]
"""(H, W, 3) float32, linear light."""
Vector = Annotated[Raster, "vector"]
"""(H, W, 3) float32 unit vectors: x right, y up, z out of the sheet."""
_RESULTS: dict[Any, str] = {
    Field: "field",
    Colour: "colour",
    Vector: "vector",
    Pieces: "pieces",
    MapSet: "maps",
    Outline: "outline",
}


Closes = Callable[[Mapping[str, Any]], tuple[float, float]]
Reach = Callable[[Mapping[str, Any]], float]
Idle = Callable[[Mapping[str, Any]], set[str]]


@dataclass(frozen=True, slots=True)
class Operation:
    """A declared operation."""

    id: str
    family: str
    version: int
    label: str
    run: Callable[..., Any]
    inputs: Mapping[str, str]
    params: Mapping[str, Param]
    yields: str
    help: str = ""
    closes: Closes | None = None
    reach: Reach | None = None
    handles: Any = None
    sets_out: Any = None
    idle: Idle | None = None
    known: bool = True

    @property
    def summary(self) -> str:
        """The first sentence of its help, whole, on one line."""
        first = " ".join(self.help.partition("\n\n")[0].split())
        found = re.match(r".*?[.](?= [A-Z]|$)", first)
        return found[0] if found else first

    def bind(self, values: Mapping[str, Value]) -> dict[str, Value]:
        """Every parameter with its checked value; what is not given takes its default.

        Raises
        ------
        OutOfRangeError
            when a value is outside what its parameter allows.
        UnknownOperationError
            when this version has no such operation.
        """
        if not self.known:
            raise unknown(self.id, self.version)
        return {name: param.check(values.get(name, param.default)) for name, param in self.params.items()}

    def defaults(self) -> dict[str, Value]:
        """Every parameter at its default."""
        return {name: param.default for name, param in self.params.items()}

    def default(self, name: str) -> Value:
        """A parameter's default; 0 for one that is not known."""
        return self.params[name].default if name in self.params else 0.0


def unknown(id: str, version: int = 0) -> UnknownOperationError:
    """What is said of an operation that this version does not have."""
    named = f"{id}, version {version}" if version else id
    return UnknownOperationError(
        "operation", value=named, remedy="It was made by another version; it is kept in the job unchanged."
    )


class _Registry(dict[str, Operation]):
    """Operations by id. One that is not there answers with a stand-in that has no parameters and refuses to run, so
    that a job from another version can be shown and edited around it. ``in`` and ``get`` say what is really there.
    """

    def __missing__(self, id: str) -> Operation:
        return stand_in(id)


def stand_in(id: str, version: int = 0) -> Operation:
    """What stands for an operation this version does not have."""

    def refuse(*_inputs: object, **_values: object) -> Any:
        raise unknown(id, version)

    head = id.split(".")[0]
    return Operation(id, head, version, f"Unknown: {id}", refuse, {}, {}, "", "Made by another version.", known=False)


REGISTRY: dict[str, Operation] = _Registry()
SUPERSEDED: dict[tuple[str, int], Operation] = {}
"""Earlier code of operations, by id and version: old jobs keep their look by it."""


def operation(
    id: str,
    *,
    label: str = "",
    version: int = 1,
    closes: Closes | None = None,
    reach: Reach | None = None,
    handles: Any = None,
    sets_out: Any = None,
    idle: Idle | None = None,
    superseded: bool = False,
    rehashed: bool = False,
) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """Declare a function as an operation; the part of the id before the dot is its family.

    ``closes`` says from its values the smallest repeat of a pattern, mm across and up, 0 where it does not matter.
    ``reach`` says from them how far around a pixel it looks, mm, where that is bounded and nothing else of the sheet
    counts. ``handles`` is what of it can be dragged on a board, ``sets_out`` how a builder
    counts a pattern, ``idle`` which parameters count for nothing beside the values of others. ``version`` rises when
    the same values give another picture; the earlier code stays, declared as ``superseded`` under its own version.
    ``rehashed`` is a version that differs from the one before only by the hash of its lattice cells, see
    :mod:`.lattice`.
    """

    def declare(function: Callable[..., Any]) -> Callable[..., Any]:
        title = label or id.split(".")[1].replace("_", " ").capitalize()
        read = replace(_read(id, title, version, function), closes=closes, reach=reach, handles=handles,
                       sets_out=sets_out, idle=idle)  # fmt: skip
        if rehashed:
            SUPERSEDED[id, version - 1] = replace(read, version=version - 1, run=with_earlier_hash(function))
        if superseded:
            SUPERSEDED[id, version] = read
        else:
            REGISTRY[id] = read
        return function

    return declare


def told_of(declared: Any) -> str:
    """What a declaration says of itself, without references into the code."""
    return re.sub(r"; see :\w+:`[^`]*`", "", inspect.getdoc(declared) or "")


T = TypeVar("T")


def settings(id: str, *, label: str, version: int = 1, closes: Closes | None = None) -> Callable[[type[T]], type[T]]:
    """Declare a dataclass whose fields are parameters. Running the operation makes one from checked values; what is
    done with it stands in its methods, or where it is used.
    """

    def declare(cls: type[T]) -> type[T]:
        params = field_params(cls)
        doc = told_of(cls)
        REGISTRY[id] = Operation(id, id.split(".")[0], version, label, cls, {}, params, SETTINGS, doc, closes)
        return cls

    return declare


SETTINGS = "settings"
"""What an operation yields that is nothing but its checked values."""


def field_params(cls: type) -> dict[str, Param]:
    """The parameters declared by a dataclass's fields, in their order."""
    hints = get_type_hints(cls, include_extras=True)
    made: dict[str, Param] = {}
    for entry in dataclass_fields(cls):  # type: ignore[arg-type]
        param = _param_of(hints[entry.name])
        if param is not None:
            made[entry.name] = named(param, entry.name, entry.default)
    return made


def named(param: Param, name: str, default: Any) -> Param:
    """A parameter with the name it is declared under, its label and its default."""
    return replace(param, name=name, label=param.label or name.replace("_", " ").capitalize(), default=default)


def _read(id: str, label: str, version: int, function: Callable[..., Any]) -> Operation:
    """What a function's signature declares."""
    hints = get_type_hints(function, include_extras=True)
    inputs: dict[str, str] = {}
    params: dict[str, Param] = {}
    for name, slot in inspect.signature(function).parameters.items():
        hint = hints[name]
        param = _param_of(hint)
        if param is not None:
            params[name] = named(param, name, slot.default)
        elif hint is not Grid:
            inputs[name] = _RESULTS.get(hint) or getattr(hint, "__name__", str(hint)).lower()
    doc = told_of(function)
    return Operation(
        id, id.split(".")[0], version, label, function, inputs, params, _RESULTS.get(hints["return"], ""), doc
    )


def _param_of(hint: object) -> Param | None:
    if get_origin(hint) is not Annotated:
        return None
    return next((extra for extra in get_args(hint) if isinstance(extra, Param)), None)


def find(id: str, version: int = 0) -> Operation:
    """The operation of that id, as its newest code or that of an earlier version has it.

    One that this version does not have is answered by a stand-in (``known`` is false) without parameters, which raises
    :class:`UnknownOperationError` when it is bound or run.
    """
    newest = REGISTRY[id]
    if version in {0, newest.version} or not newest.known:
        return newest
    return SUPERSEDED.get((id, version)) or stand_in(id, version)


def family(name: str) -> list[Operation]:
    """All operations of one family, in the order they were declared."""
    return [entry for entry in REGISTRY.values() if entry.family == name]


@dataclass(frozen=True, slots=True)
class Ground:
    """What a where-rule may look at: the grid and the relief beneath the layer, mm."""

    grid: Grid
    height: Raster
    strokes: tuple[Any, ...] = field(default=())
