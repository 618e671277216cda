"""Lengths and angles as people type them: ``3 mm``, ``1/4 in``, ``34*75``, ``600x400mm``."""

from __future__ import annotations

import math
import re
from fractions import Fraction

from .errors import NotUnderstoodError

MM_PER_UNIT: dict[str, float] = {
    "mm": 1.0,
    "cm": 10.0,
    "m": 1000.0,
    "km": 1e6,
    "um": 1e-3,
    "µm": 1e-3,
    "in": 25.4,
    "inch": 25.4,
    "inches": 25.4,
    '"': 25.4,
    "″": 25.4,
    "ft": 304.8,
    "foot": 304.8,
    "feet": 304.8,
    "'": 304.8,
    "′": 304.8,
    "yd": 914.4,
}
DEGREES_PER_UNIT: dict[str, float] = {"deg": 1.0, "°": 1.0, "rad": 180.0 / math.pi, "turn": 360.0}
SHARE_PER_UNIT: dict[str, float] = {"%": 0.01}
COUNT_PER_UNIT: dict[str, float] = {"px": 1.0, "x": 1.0, "×": 1.0}

_TOKEN = re.compile(
    r"\s*(?:(?P<mixed>\d+\s+\d+\s*/\s*\d+)|(?P<number>\d+(?:[.,]\d+)?(?:[eE][-+]?\d+)?|[.,]\d+)"
    r"|(?P<unit>[a-zA-Zµ]+|[\"'″′°%])|(?P<sign>[-+*/()·×−]))"
)
_MAX_TEXT = 200


class _Reader:
    """Recursive descent over the tokens of one sum. Values are ``(number, power of the unit)``."""

    def __init__(self, text: str, units: dict[str, float]) -> None:
        self.text, self.units = text, units
        self.tokens = _tokens(text)
        self.at = 0

    def fail(self) -> NotUnderstoodError:
        """The error that tells which text could not be read."""
        known = ", ".join(unit for unit in self.units if unit.isalpha() or unit in "°%")
        return NotUnderstoodError(
            "value",
            value=self.text,
            allowed=f"a number or sum with a unit ({known})" if known else "a number",
            remedy="Type a number, with a unit if you like.",
        )

    def peek(self) -> tuple[str, str]:
        """The next word and its kind, left where it is."""
        return self.tokens[self.at] if self.at < len(self.tokens) else ("", "")

    def take(self) -> tuple[str, str]:
        """The next word and its kind, taken."""
        token = self.peek()
        self.at += 1
        return token

    def sum(self) -> tuple[float, int]:
        """Products added and taken away: a value in mm to the power that comes with it."""
        value, power = self.product()
        while self.peek()[1] in {"+", "-", "−"} or self._compound(power):
            sign = self.take()[1] if self.peek()[0] == "sign" else "+"
            other, other_power = self.product()
            power = max(power, other_power)
            value = value + other if sign == "+" else value - other
        return value, power

    def _compound(self, power: int) -> bool:
        """``6 ft 2 in``: a number right after a length goes on with the same length."""
        return power == 1 and self.peek()[0] in {"number", "mixed"}

    def product(self) -> tuple[float, int]:
        """Factors multiplied and divided: a value and its power of mm."""
        value, power = self.factor()
        while self.peek()[1] in {"*", "/", "·", "×"} or self.peek() == ("unit", "x"):
            sign = self.take()[1]
            other, other_power = self.factor(divisor=sign == "/")
            if sign == "/":
                if other == 0:
                    raise self.fail()
                value, power = value / other, power - other_power
            else:
                value, power = value * other, power + other_power
            value, power = self._trailing_unit(value, power)
        return value, power

    def _trailing_unit(self, value: float, power: int) -> tuple[float, int]:
        kind, word = self.peek()
        if kind == "unit" and word in self.units and power == 0 and not self._x_is_times(word):
            self.take()
            return value * self.units[word], 1
        return value, power

    def _x_is_times(self, word: str) -> bool:
        following = self.tokens[self.at + 1][0] if self.at + 1 < len(self.tokens) else ""
        return word in {"x", "×"} and following in {"number", "mixed"}

    def factor(self, *, divisor: bool = False) -> tuple[float, int]:
        """A number with its unit, or a sum in brackets."""
        kind, word = self.take()
        if word in {"-", "−", "+"}:
            value, power = self.factor(divisor=divisor)
            return (value if word == "+" else -value), power
        if word == "(":
            value, power = self.sum()
            if self.take()[1] != ")":
                raise self.fail()
        elif kind == "mixed":
            whole, part = word.split(maxsplit=1)
            value, power = float(int(whole) + _fraction(part, self)), 0
        elif kind == "number":
            value, power = float(word.replace(",", ".")), 0
        else:
            raise self.fail()
        # ``1/4 in`` is a quarter of an inch: the unit after a divisor belongs to the whole quotient.
        return (value, power) if divisor else self._trailing_unit(value, power)


def _fraction(text: str, reader: _Reader) -> Fraction:
    try:
        return Fraction(text.replace(" ", ""))
    except ZeroDivisionError:
        raise reader.fail() from None


def _tokens(text: str) -> list[tuple[str, str]]:
    found: list[tuple[str, str]] = []
    at = 0
    stripped = text.rstrip()
    while at < len(stripped):
        match = _TOKEN.match(stripped, at)
        if match is None:
            return [("bad", text)]
        at = match.end()
        kind = match.lastgroup or "bad"
        word = match.group(kind)
        found.append((kind, word.lower() if kind == "unit" else word))
    return found


def _parse(text: str, units: dict[str, float], default_unit: str) -> float:
    if len(text) > _MAX_TEXT:
        raise NotUnderstoodError("value", value=text[:20] + "…", allowed="up to 200 characters")
    reader = _Reader(text, units)
    value, power = reader.sum()
    if reader.at < len(reader.tokens) or power not in {0, 1} or not math.isfinite(value):
        raise reader.fail()
    return value * units.get(default_unit, 1.0) if power == 0 else value


def parse_length(text: str, *, default_unit: str = "mm") -> float:
    """Length in mm from text; a bare number is in ``default_unit``.

    Sums, products, fractions and mixed units are understood: ``34*75``, ``1/8 in``, ``6 ft 2 in``.

    Raises
    ------
    NotUnderstoodError
        when the text is no length.
    """
    return _parse(text, MM_PER_UNIT, default_unit)


def parse_angle(text: str) -> float:
    """Angle in degrees from text; a bare number is in degrees."""
    return _parse(text, DEGREES_PER_UNIT, "deg")


def parse_share(text: str) -> float:
    """Fraction from text: ``0.4`` or ``40 %``."""
    return _parse(text, SHARE_PER_UNIT, "")


def parse_number(text: str) -> float:
    """Plain number or sum from text; a trailing ``px`` or ``×`` is allowed."""
    return _parse(text, COUNT_PER_UNIT, "")


_SIZE = re.compile(r"^\s*(?P<w>[^x×]+?)\s*[x×]\s*(?P<h>[^x×]+?)\s*$", re.IGNORECASE)


def parse_size(text: str) -> tuple[float, float]:
    """Width and height in mm from ``600x400mm`` or ``2 ft x 400 mm``.

    A unit on the height alone holds for both, as people write it.
    """
    match = _SIZE.match(text.replace("by", "x"))
    if match is None:
        raise NotUnderstoodError(
            "size", value=text, allowed="width x height with a unit, as in 600x400mm", remedy="Write it as 600x400mm."
        )
    width, height = match["w"], match["h"]
    trailing = re.search(r"([a-zA-Zµ\"']+)\s*$", height)
    if trailing and not re.search(r"[a-zA-Zµ\"']", width):
        width += trailing.group(1)
    sizes = parse_length(width), parse_length(height)
    if min(sizes) <= 0:
        raise NotUnderstoodError("size", value=text, allowed="sizes above 0 mm", remedy="Write it as 600x400mm.")
    return sizes


def decimals_for(step: float) -> int:
    """How many decimals show a step of this size."""
    return 0 if step >= 1 else min(4, math.ceil(-math.log10(step) - 1e-9))


def parse_ratio(text: str) -> float:
    """A proportion such as ``3:2``, ``1 / 2`` or ``1.414``; 0 for nothing.

    Raises
    ------
    NotUnderstoodError
        when it is none, or beyond 1:100.
    """
    if not text.strip():
        return 0.0
    try:
        ratio = parse_number(text.replace(":", "/"))
    except NotUnderstoodError:
        ratio = 0.0
    if not 0.01 <= ratio <= 100:
        raise NotUnderstoodError(
            "proportion",
            value=text,
            allowed="a proportion as 3:2 or 1.5",
            remedy="Leave it empty to take it from the view.",
        )
    return ratio


def parse_focal(text: str) -> float:
    """A focal length in mm as on 36 × 24 mm film, such as ``28`` or ``28 mm``; 0 for nothing.

    Raises
    ------
    NotUnderstoodError
        when it is none, or beyond 4 to 2 000 mm.
    """
    if not text.strip():
        return 0.0
    try:
        focal = parse_length(text)
    except NotUnderstoodError:
        focal = 0.0
    if not 4 <= focal <= 2000:
        raise NotUnderstoodError(
            "focal length",
            value=text,
            allowed="4 to 2000 mm, as on 36 × 24 mm film",
            remedy="Leave it empty to take the file's, or the view's.",
        )
    return focal


def format_number(value: float, *, decimals: int = 2) -> str:
    """Plain text with at most ``decimals`` decimals, trailing zeros dropped, a true minus sign."""
    text = f"{value:.{decimals}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return "0" if text in {"-0", ""} else text.replace("-", "−")


def format_length(value_mm: float, *, decimals: int = 1) -> str:
    """``600 mm``; from 10 m upward in metres."""
    if abs(value_mm) >= 10_000:
        return f"{format_number(value_mm / 1000, decimals=2)} m"
    return f"{format_number(value_mm, decimals=decimals)} mm"


def format_size(width_mm: float, height_mm: float) -> str:
    """``600 × 400 mm``."""
    return f"{format_number(width_mm, decimals=1)} × {format_number(height_mm, decimals=1)} mm"


def format_level(value_mm: float) -> str:
    """A level as on drawings, in metres: ``+1.200``, ``±0.000``."""
    metres = round(value_mm / 1000, 3)
    sign = "±" if metres == 0 else ("+" if metres > 0 else "−")
    return f"{sign}{abs(metres):.3f}"
