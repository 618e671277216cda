"""The one declaration of everything that has parameters.

A decorated function's signature yields its form, its place in the file, its validation, its
documentation and its generic tests.  Nothing about a parameter is written down twice.
"""

from __future__ import annotations

import inspect
import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import Annotated, Any, get_args, get_origin, get_type_hints

import numpy as np
import numpy.typing as npt

from .errors import NotUnderstoodError, OutOfRangeError, UnknownOperationError
from .maps import MapSet
from .outlines import Outline
from .quantity import parse_size
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
            raise OutOfRangeError(self.label, value=text[:40], allowed=f"up to {self.most:g} letters")
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

    def allowed(self) -> str:
        """The allowed range in words."""
        unit = f" {self.unit}" if self.unit else ""
        if math.isinf(self.least) and math.isinf(self.most):
            return "any number"
        if math.isinf(self.most):
            return f"{self.least:g}{unit} or more"
        return f"{self.least:g} to {self.most:g}{unit}"


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
    low: float = 0.0, high: float = 1.0, *, least: float | None = None, most: float | None = None, help: str
) -> Param:
    """A plain fraction."""
    return _limited("fraction", low, high, least, most, help=help)


def Whole(low: int, high: int, *, most: int | None = None, unit: str = "", help: str) -> Param:
    """A whole number."""
    return _limited("whole", low, high, None, most, unit=unit, help=help)


def Choice(*options: str, help: str) -> Param:
    """One of a few words."""
    return Param("choice", options=options, help=help)


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
    """A brush's tip: a source by its id, a recipe of the shelf as ``recipe:NAME``; empty is round."""
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

    def bind(self, values: Mapping[str, Value]) -> dict[str, Value]:
        """Every parameter with its checked value; what is not given takes its default."""
        return {name: param.check(values.get(name, param.default)) for name, param in self.params.items()}

    def defaults(self) -> dict[str, Value]:
        """Every parameter at its default."""
        return {name: param.default for name, param in self.params.items()}


REGISTRY: dict[str, Operation] = {}


def operation(
    id: str, *, label: str = "", version: int = 1, closes: Closes | None = None, reach: Reach | None = None
) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """Declare a function as an operation; the part of the id before the dot is its family. ``closes`` says from its
    values the smallest repeat of a pattern, mm across and up, 0 where it does not matter. ``reach`` says from them
    how far
    around a pixel it looks, mm, where that is bounded and nothing else of the sheet counts.
    """

    def declare(function: Callable[..., Any]) -> Callable[..., Any]:
        REGISTRY[id] = _read(
            id, label or id.split(".")[1].replace("_", " ").capitalize(), version, function, closes, reach
        )
        return function

    return declare


def _read(
    id: str, label: str, version: int, function: Callable[..., Any], closes: Closes | None, reach: Reach | None
) -> Operation:
    hints = get_type_hints(function, include_extras=True)
    inputs: dict[str, str] = {}
    params: dict[str, Param] = {}
    for name, slot in inspect.signature(function).parameters.items():
        hint = hints[name]
        param = _param_of(hint)
        if param is not None:
            label_text = param.label or name.replace("_", " ").capitalize()
            params[name] = replace(param, name=name, label=label_text, default=slot.default)
        elif hint is not Grid:
            inputs[name] = _RESULTS.get(hint) or getattr(hint, "__name__", str(hint)).lower()
    doc = inspect.getdoc(function) or ""
    return Operation(
        id,
        id.split(".")[0],
        version,
        label,
        function,
        inputs,
        params,
        _RESULTS.get(hints["return"], ""),
        doc,
        closes,
        reach,
    )


def _param_of(hint: object) -> Param | None:
    if get_origin(hint) is not Annotated:
        return None
    return next((extra for extra in get_args(hint) if isinstance(extra, Param)), None)


def find(id: str) -> Operation:
    """The operation of that id.

    Raises
    ------
    UnknownOperationError
        when this version has none.
    """
    try:
        return REGISTRY[id]
    except KeyError:
        raise UnknownOperationError(
            "operation", value=id, remedy="It was made by another version; it is kept in the job unchanged."
        ) from None


def family(name: str) -> list[Operation]:
    """All operations of one family, in the order they were declared."""
    return [entry for entry in REGISTRY.values() if entry.family == name]


@dataclass(frozen=True, slots=True)
class Ground:
    """What a where-rule may look at: the grid and the relief beneath the layer, mm."""

    grid: Grid
    height: Raster
    strokes: tuple[Any, ...] = field(default=())
