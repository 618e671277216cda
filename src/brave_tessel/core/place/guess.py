"""What unit a model was made in, and which way is up, told from what is in it.

A model without a word on its unit is measured by what has a known size: steps rise 150 to 220 mm and doors are about
two metres high (Approved Document K; BS 4787-1), people are 1.5 to 1.9 m tall (DIN 33402-2).
"""

from __future__ import annotations

import re
from dataclasses import dataclass

import numpy as np

from ..phrases import Phrase, say
from .mesh import Mesh, Vector

UNITS: dict[str, float] = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4, "ft": 304.8}
RISE_MM = (140.0, 225.0)
DOOR_MM = (1850.0, 2500.0)
PERSON_MM = (1450.0, 1980.0)
_DOOR_WORDS = re.compile(
    r"(?<!in)(?<!out)(?<!trap)door(?!s?[\s_.-]?(?:handle|knob|bell|mat|lock|hinge|step|stop))|tür|\bporte\b",
    re.IGNORECASE,
)
_PERSON_WORDS = re.compile(r"person|figure|human|(?<![a-z])man\b|woman|people", re.IGNORECASE)
_GROUND_WORDS = re.compile(
    r"(?<![a-z])(?:floor|ground|terrain|ceiling|slab|pavement|road|boden)(?![a-z])", re.IGNORECASE
)


@dataclass(frozen=True, slots=True)
class Guess:
    """A unit, which way is up, why, and whether a person should be asked."""

    unit: str
    up: str
    reason: Phrase
    sure: bool

    @property
    def unit_mm(self) -> float:
        """Millimetres of one unit."""
        return UNITS[self.unit]


def guess(meshes: list[tuple[str, Mesh]], *, unit_mm: float = 0.0, up: str = "", name: str = "") -> Guess:
    """The unit and the axis that points up, from named meshes in the file's own numbers.

    Parameters
    ----------
    unit_mm, up : what the file says itself; then nothing is guessed
    name : the file's name, for what it may say
    """
    way = up or _up_of(meshes, name.rpartition(".")[2].lower())
    if unit_mm > 0:
        known = next((word for word, mm in UNITS.items() if abs(mm - unit_mm) < 1e-6 * mm), "")
        if known:
            return Guess(known, way, say("the file says so"), sure=True)
    axis = "xyz".index(way)
    for look in (_by_door, _by_person, _by_steps):
        found = look(meshes, axis)
        if found is not None:
            return Guess(found[0], way, found[1], sure=False)
    return _sized(meshes, way)


def _tall(mesh: Mesh, axis: int) -> float:
    low, high = mesh.box
    return float(high[axis] - low[axis])


def _fits(height: float, band: tuple[float, float]) -> str | None:
    """The unit that brings a height into a band, if just one of the common ones does."""
    fitting = [word for word in ("mm", "cm", "m", "in", "ft") if band[0] <= height * UNITS[word] <= band[1]]
    return fitting[0] if fitting else None


def _by_door(meshes: list[tuple[str, Mesh]], axis: int) -> tuple[str, Phrase] | None:
    found = _by_name(meshes, axis, _DOOR_WORDS, DOOR_MM)
    return found and (found[1], say("“{name}” is a door {height:.4g} {unit} high", **_said(found)))


def _by_person(meshes: list[tuple[str, Mesh]], axis: int) -> tuple[str, Phrase] | None:
    found = _by_name(meshes, axis, _PERSON_WORDS, PERSON_MM)
    return found and (found[1], say("“{name}” stands {height:.4g} {unit} tall", **_said(found)))


def _by_name(
    meshes: list[tuple[str, Mesh]], axis: int, words: re.Pattern[str], band: tuple[float, float]
) -> tuple[str, str, float] | None:
    """The first part called so whose height one unit brings into a band: its name, the unit, its height."""
    for name, mesh in meshes:
        if words.search(name):
            height = _tall(mesh, axis)
            unit = _fits(height, band)
            if unit:
                return name, unit, height
    return None


def _said(found: tuple[str, str, float]) -> dict[str, object]:
    return dict(zip(("name", "unit", "height"), found, strict=True))


def _by_steps(meshes: list[tuple[str, Mesh]], axis: int) -> tuple[str, Phrase] | None:
    """Three or more level faces that rise by equal steps are stairs."""
    for _, mesh in meshes:
        rise = _equal_rise(_levels(mesh, axis))
        unit = _fits(rise, RISE_MM) if rise else None
        if unit:
            return unit, say("its steps rise {rise:.4g} {unit}", rise=rise, unit=unit)
    return None


def _levels(mesh: Mesh, axis: int) -> Vector:
    """Heights at which there are level faces that look up."""
    if not mesh.count or mesh.count > 400_000:
        return np.zeros(0)
    level = mesh.normals[:, axis] > 0.999
    heights = mesh.corners[level, 0, axis]
    size = max(_tall(mesh, axis), 1e-9)
    return np.unique(np.round(heights / size, 4)) * size


def _equal_rise(levels: Vector) -> float:
    """The step by which at least three levels follow each other; 0 where none do."""
    if not 3 <= len(levels) <= 400:
        return 0.0
    steps = np.diff(levels)
    best, run = 0.0, 0
    for k in range(len(steps) - 1):
        following = steps[k : k + 3]
        if len(following) >= 2 and np.ptp(following) < 0.03 * following.mean() and len(following) > run:
            best, run = float(following.mean()), len(following)
    return best


def _sized(meshes: list[tuple[str, Mesh]], way: str) -> Guess:
    """By how large the whole would be: between a chair and a street."""
    boxes = [mesh.box for _, mesh in meshes if mesh.count]
    low, high = np.min([b[0] for b in boxes], 0), np.max([b[1] for b in boxes], 0)
    whole = float((high - low).max())
    for unit, least, most in (("m", 0.4, 120.0), ("cm", 120.0, 2000.0), ("mm", 2000.0, 1e9), ("m", 0.0, 0.4)):
        if least <= whole < most:
            told = say("it would be {size:.3g} m across", size=whole * UNITS[unit] / 1000)
            return Guess(unit, way, told, sure=False)
    return Guess("m", way, say("nothing in it tells its size"), sure=False)


_USUAL = {"obj": "y", "stl": "z", "off": "z", "ply": "z"}
"""Which way is up in files of a kind that say nothing: common practice."""


def _up_of(meshes: list[tuple[str, Mesh]], kind: str) -> str:
    """The way a door or a person is longest, or a floor thinnest; the way steps rise; the way open ground looks; else
    the usual one. Large flat faces say nothing: a wall seen from one axis is a floor seen from the other.
    """
    for name, mesh in meshes:
        if not mesh.count:
            continue
        y, z = _tall(mesh, 1), _tall(mesh, 2)
        if _DOOR_WORDS.search(name) or _PERSON_WORDS.search(name):
            return "y" if y >= z else "z"
        if _GROUND_WORDS.search(name) and not 0.5 < (y + 1e-9) / (z + 1e-9) < 2.0:
            return "y" if y < z else "z"
    usual = _USUAL.get(kind, "y")
    other = "z" if usual == "y" else "y"
    steps = {way: min((r for _, m in meshes if (r := _equal_rise(_levels(m, "xyz".index(way)))) > 0), default=0.0)
             for way in (usual, other)}  # fmt: skip
    rising = [way for way in (usual, other) if steps[way] > 0]
    if rising:
        # A step rises by less than it goes.
        least = min(rising, key=lambda way: steps[way])
        return least if steps[least] < 0.9 * max(steps.values()) or len(rising) == 1 else usual
    looks = np.zeros(3)
    for _, mesh in meshes:
        looks += (mesh.normals * mesh.areas[:, None]).sum(0)
    whole = sum(float(mesh.areas.sum()) for _, mesh in meshes)
    ahead = float(looks["xyz".index(other)])
    return other if ahead > max(0.3 * whole, 3 * abs(float(looks["xyz".index(usual)]))) else usual


def upright(way: str) -> Vector:
    """(3, 3): turns a file whose axis ``way`` points up into the scene's directions."""
    if way == "y":
        return np.array([[1.0, 0, 0], [0, 0, -1.0], [0, 1.0, 0]])
    if way == "x":
        return np.array([[0.0, 0.0, -1.0], [0.0, 1.0, 0.0], [1.0, 0.0, 0.0]])
    return np.eye(3)
