"""A part's courses and units asked to fit: what there is between two levels or along a run, and what each way changes.

Everything is measured in the pattern as it lies, so that walls, slopes, round and turned surfaces are asked alike.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..errors import MissingError
from ..job.commands import AnyCommand, Batch, Set
from ..job.scene import Laid
from ..operation import Value
from ..phrases import say
from ..recipe.set_out import Pitch
from .fit import COORDINATING, ENDS, Fit, Limits, Line, Proposal, Span, fit
from .gauge import fitted, gauge_of, pattern_of
from .regions import Edge, Region, edges_of, main_region, regions_of
from .site import Site


@dataclass(frozen=True, eq=False)
class Asked:
    """A fit that is asked for: of something laid on a part, in one of its regions, up or along.

    ``size`` is mm on the part to one of the pattern; heights of the scene are turned into the pattern by ``rise`` and
    ``zero``, where they can be (``rise`` 0: they cannot).
    """

    site: Site
    region: Region
    along: bool
    pitch: Pitch
    size: float
    rise: float
    zero: float
    span: Span

    @property
    def laid(self) -> Laid:
        """What is laid."""
        return self.region.standing.part.laid[self.region.row]

    @property
    def axis(self) -> int:
        """Of the pattern: 0 along, 1 up."""
        return 0 if self.along else 1

    def stations(self) -> tuple[float, ...]:
        """Sills and heads by their height, or jambs by how far they are from the left end, mm: a fit may be asked
        between them.
        """
        bounds = self.region.shape.bounds
        least, most = bounds[self.axis], bounds[self.axis + 2]
        found = [edge.at for edge in edges_of(self.region.shape, upright=self.along) if least + 1 < edge.at < most - 1]
        if self.along or not self.rise:
            return tuple(sorted({round((at - least) * self.size, 1) for at in found}))
        return tuple(sorted({round((at - self.zero) / self.rise, 1) for at in found}))

    def fit(self) -> Fit:
        """Every way to fit."""
        return fit(self.span)

    def height_of(self, at: float) -> float:
        """The height in the scene, or the place along, mm, of a place of the span, 1/1000 mm."""
        place = at / 1000 / self.size
        return (place - self.zero) / self.rise if self.rise else place * self.size


def ask(
    site: Site, part: str, row: int, *, along: bool = False, low: float | None = None, high: float | None = None,
    ends: str = COORDINATING, face: int = -1,
) -> Asked:  # fmt: skip
    """What a fit of something laid on a part is asked of; without levels, from end to end of its largest region.

    Parameters
    ----------
    low, high : heights in the scene where ``along`` is not set and the faces rise; else mm from the region's lower or
        left end

    Raises
    ------
    MissingError
        when nothing that can be counted lies there.
    """
    one = site.of_part(part)
    if one is None or not 0 <= row < len(one.part.laid):
        raise MissingError("part", value=part)
    laid = one.part.laid[row]
    surface = site.surface(laid)
    gauge = site.gauge(laid)
    pitch = (gauge.units if along else gauge.courses) if gauge else None
    regions = regions_of(site, one, row)
    if surface is None or pitch is None or not regions or not laid.laying.known:
        what = say("units to count along") if along else say("courses to count")
        raise MissingError("surface with courses", value=surface.name if surface else one.part.name,
                           remedy=say("It has no {what} here.", what=what))  # fmt: skip
    region = main_region(regions, face)
    axis = 0 if along else 1
    size = laid.laying.number("factor") * laid.laying.number("taller" if axis else "wider")
    rise, zero = (0.0, 0.0) if along else _heights(region)
    ends_at = region.shape.bounds[axis], region.shape.bounds[axis + 2]
    bottom = _place(low, ends_at[0], rise, zero, size, ends_at[0])
    top = _place(high, ends_at[1], rise, zero, size, ends_at[0])
    bottom, top = min(bottom, top), max(bottom, top)
    lines = _lines(region, along, (bottom, top), size)
    limits = _limits(pitch, size)
    span = Span(
        round(bottom * size * 1000), round(top * size * 1000), round(pitch.start * pitch.mm * size * 1000),
        round(pitch.mm * size * 1000), round(pitch.joint * size * 1000), limits, lines, pitch.steps, ENDS[ends],
        bool(pitch.joint_dial), bool(pitch.unit_dial),
    )  # fmt: skip
    return Asked(site, region, along, pitch, size, rise, zero, span)


def _limits(pitch: Pitch, size: float) -> Limits:
    found = Limits.of(pitch)
    less, more = found.unit
    if abs(pitch.rate) != 1.0:
        # What is allowed to a slate's gauge is meant of the course it shows.
        less, more = round(less), round(more)
    low, high = found.joint
    return Limits((round(low * size), round(high * size)), (round(less * size), round(more * size)), found.stretch)


def _heights(region: Region) -> tuple[float, float]:
    """How places up the pattern follow heights of the scene: mm to a mm, and where zero is; (0, 0) where they do
    not.
    """
    z = region.standing.mesh.corners[region.faces][..., 2].ravel()
    y = region.places[..., 1].ravel()
    if np.ptp(z) < 1.0:
        return 0.0, 0.0
    (rise, zero), *_ = np.linalg.lstsq(np.stack([z, np.ones_like(z)], 1), y, rcond=None)
    worst = float(np.abs(rise * z + zero - y).max())
    return (float(rise), float(zero)) if worst < 0.5 and abs(rise) > 1e-6 else (0.0, 0.0)


def _place(given: float | None, default: float, rise: float, zero: float, size: float, start: float) -> float:
    if given is None:
        return default
    return given * rise + zero if rise else start + given / size


def _lines(region: Region, along: bool, ends: tuple[float, float], size: float) -> tuple[Line, ...]:
    """Levels of openings, or jambs, that lie between."""
    found: list[Edge] = edges_of(region.shape, upright=along)
    return tuple(
        Line(round(edge.at * size * 1000), edge.side, "opening")
        for edge in found
        if ends[0] + 0.5 < edge.at < ends[1] - 0.5
    )


@dataclass(frozen=True, slots=True)
class Change:
    """What a proposal changes of something laid: values of its pattern, and of its laying."""

    dials: dict[str, float]
    laying: dict[str, float]


def change_of(asked: Asked, one: Proposal) -> Change:
    """What makes a proposal true; the pattern moves as little as it can for it."""
    dials = _dials(asked, one)
    stretch = one.stretch if one.way == "stretch" else 1.0
    before = asked.pitch.mm
    after = before if one.way not in {"joint", "unit"} else one.pitch / 1000 / asked.size
    # A joint of the pattern comes to lie where the proposal has one.
    here = one.start / 1000 / asked.size
    first = asked.pitch.start * after
    count = round((here / stretch - first) / after)
    by = here - stretch * (first + count * after)
    found = asked.site.coordinates(asked.region.standing, asked.region.row)
    move = np.linalg.inv(found.finish.matrix) @ (np.array([1.0, 0.0]) if asked.along else np.array([0.0, 1.0])) * by
    laying = asked.laid.laying
    values = {
        "across": round(laying.number("across") + float(move[0]), 6),
        "up": round(laying.number("up") + float(move[1]), 6),
    }
    if stretch != 1.0:
        name = "wider" if asked.along else "taller"
        values[name] = round(laying.number(name) * stretch, 9)
    return Change(dials, values)


def fit_command(part: str, laid: Laid, change: Change, *, gesture: str = "") -> AnyCommand:
    """Let courses or units fit as a change says: the pattern's values, its place and stretch, in one step."""
    path = ("scene", "parts", part, "laid", laid.id)
    values: dict[str, Value] = {**laid.laying.values, **change.laying}
    commands: list[AnyCommand] = [Set(path=(*path, "laying", "values"), value=values, label="laying")]
    if change.dials:
        commands.append(Set(path=(*path, "dials"), value={**laid.dials, **change.dials}, label="dials"))
    return Batch(commands=tuple(commands), label="Fit the courses", gesture=gesture)


def _dials(asked: Asked, one: Proposal) -> dict[str, float]:
    if one.way not in {"joint", "unit"}:
        return {}
    surface = asked.site.surface(asked.laid)
    pattern = pattern_of(surface) if surface else None
    if pattern is None:
        return {}
    sets_out, values = pattern.sets_out, pattern.values
    own = (sets_out.units if asked.along else sets_out.courses)(values)
    other = (sets_out.courses if asked.along else sets_out.units)(values)
    assert own is not None
    wanted = one.pitch / 1000 / asked.size
    if one.way == "joint":
        # Joints the other way stay as they are, also where they followed these.
        kept = {other.joint_dial: other.joint} if other is not None and other.joint_dial else {}
        return kept | {own.joint_dial: _rounded(wanted - (own.mm - own.joint))}
    return {own.unit_dial: _rounded(float(values[own.unit_dial]) + (wanted - own.mm) / own.rate)}


def _rounded(mm: float) -> float:
    return math.floor(mm * 1e9 + 0.5) / 1e9


def after(asked: Asked, change: Change) -> Pitch | None:
    """The pitch once a change is made, for whoever checks it."""
    surface = asked.site.surface(asked.laid)
    gauge = gauge_of(fitted(surface, change.dials)) if surface else None
    return (gauge.units if asked.along else gauge.courses) if gauge else None
