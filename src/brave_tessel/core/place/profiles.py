"""Cross-sections of mouldings: x out from the wall or to the right of the path, y up, mm for a height of 1."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
import shapely

from .solids import Ring, rectangle, turned

_QUARTER = np.linspace(0, math.pi / 2, 9)


def _hollow(x: float, y: float, size: float) -> list[tuple[float, float]]:
    """A cove from (x, y) up and in by ``size``."""
    return [(x - size * math.sin(t), y + size * (1 - math.cos(t))) for t in _QUARTER]


def _round(x: float, y: float, size: float) -> list[tuple[float, float]]:
    """A quarter round from (x, y) up and in."""
    return [(x - size * (1 - math.cos(t)), y + size * math.sin(t)) for t in _QUARTER]


def _ogee(x: float, y: float, wide: float, tall: float) -> list[tuple[float, float]]:
    """A double curve from (x, y) up and in: hollow below, round above."""
    shares = np.linspace(0, 1, 17)
    return [(x - wide * (s - math.sin(2 * math.pi * s) / (2 * math.pi) * 0.9), y + tall * s) for s in shares]


def _cut(points: list[tuple[float, float]]) -> Ring:
    return turned(np.array(points), anticlockwise=True)


def _overhang(x: float, y: float, wide: float, tall: float) -> list[tuple[float, float]]:
    """A double curve from (x, y) up and out, as under a cornice."""
    shares = np.linspace(0, 1, 17)
    return [(x + wide * (s - math.sin(2 * math.pi * s) / (2 * math.pi) * 0.9), y + tall * s) for s in shares]


_BEAD = [(0.5 * math.cos(t), 0.5 + 0.5 * math.sin(t)) for t in np.linspace(-math.pi / 2, math.pi / 2, 17)]

PROFILES: dict[str, tuple[float, Ring]] = {
    "plain skirting": (120.0, _cut([(0, 0), (0.16, 0), (0.16, 0.9), (0.1, 1), (0, 1)])),
    "cove skirting": (100.0, _cut([(0, 0), (0.5, 0), *_hollow(0.5, 0.06, 0.38), (0.12, 1), (0, 1)])),
    "ogee skirting": (170.0, _cut([(0, 0), (0.13, 0), *_ogee(0.13, 0.7, 0.1, 0.27), (0.03, 1), (0, 1)])),
    "torus": (60.0, _cut([*_BEAD])),
    "string course": (75.0, _cut([(0, 0), (0.5, 0), (0.5, 0.72), (0, 1)])),
    "dado rail": (70.0, _cut([(0, 0), (0.1, 0), (0.34, 0.28), (0.34, 0.5), *_round(0.34, 0.55, 0.26), (0, 1)])),
    "cornice": (
        180.0,
        _cut([(0, 0), (0.08, 0), *_overhang(0.1, 0.12, 0.55, 0.5), (0.7, 0.66), (0.7, 0.86), (0.78, 0.9), (0.78, 1),
              (0, 1)]),
    ),
    "coping": (70.0, _cut([(-2.1, 0), (2.1, 0), (2.1, 0.62), (0, 1), (-2.1, 0.62)])),
}  # fmt: skip
"""Each profile's usual height in mm and its outline for a height of 1, anticlockwise."""


def outline_of(name: str, drawn: Sequence[tuple[float, float]], height: float) -> Ring:
    """The cross-section of a moulding, mm, anticlockwise: of the list at its usual height or another, or as drawn."""
    if name == "drawn":
        ring = turned(np.array(drawn, float), anticlockwise=True) if len(drawn) >= 3 else rectangle(0, 0, 20, 100)
        tall = float(np.ptp(ring[:, 1])) or 1.0
        return ring * (height / tall if height > 0 else 1.0)
    usual, outline = PROFILES[name]
    return outline * (height if height > 0 else usual)


def draws_whole(points: Sequence[tuple[float, float]]) -> bool:
    """Whether an outline encloses something and does not cross itself."""
    if len(points) < 3:
        return False
    made = shapely.Polygon(points)
    return bool(made.is_valid and made.area > 1.0)
