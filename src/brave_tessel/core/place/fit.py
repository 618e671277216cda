"""Course fit: how whole courses come between two levels, or whole units along a run, and what each way would cost.

Lengths are whole thousandths of a millimetre; the rest of a division is spread over the joints, so that sums are exact.
Ways are ranked: no piece under a third, fewest cut pieces, then a changed joint before changed units, a stretch, a
moved datum and a cut course; among the same way the least relative change.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace

from ..phrases import Phrase, say
from ..recipe.set_out import Pitch

WAYS = ("joint", "unit", "stretch", "datum", "cut")
"""In the order they are liked."""
WITHIN = 500
"""A joint lies on a line when it is this near, 1/1000 mm."""
NEAR = 0.34
"""Pitches are looked for within this much of the asked one."""
MOST = 24

COORDINATING, PIER, OPENING = "coordinating", "pier", "opening"
ENDS = {COORDINATING: 0, PIER: -1, OPENING: 1}
"""How many joints there are more than units: n·225, n·225 − 10 and n·225 + 10 of common brickwork tables."""


@dataclass(frozen=True, slots=True)
class Limits:
    """How far each thing may be changed: joints from and to, units by so much smaller or larger, 1/1000 mm; and
    stretches, as a share.
    """

    joint: tuple[int, int]
    unit: tuple[int, int]
    stretch: float = 0.02

    @classmethod
    def of(cls, pitch: Pitch) -> Limits:
        """What the trade allows: joints of 6 to 15 mm for general mortar and 0.5 to 3 mm for thin layers (EN 1996-1-1,
        8.1.5), 2 to 5 mm between tiles (ISO 13006); units by the tolerance T2 of EN 771-1, ±max(0.25 √d, 2) mm, unless
        the pattern says otherwise.
        """
        joint = pitch.joint
        allowed = (6.0, 15.0) if joint >= 6 else (min(2.0, joint), 5.0) if joint >= 1.5 else (min(0.5, joint), 3.0)
        unit = max(pitch.mm - joint, 1.0)
        fired = max(0.25 * math.sqrt(unit), 2.0)
        less, more = pitch.allowed or (fired, fired)
        return cls((_um(allowed[0]), _um(allowed[1])), (_um(less), _um(more)))


def _um(mm: float) -> int:
    return round(mm * 1000)


@dataclass(frozen=True, slots=True)
class Line:
    """A level or a jamb: where it is, and on which of its sides the wall lies, +1 above or right of it."""

    at: int
    side: int
    name: str = ""


@dataclass(frozen=True, slots=True)
class Span:
    """What is to be fitted: from ``low`` to ``high``, with lines of openings between; the pattern as it lies now, with
    a joint at ``start``. ``joint_free`` and ``unit_free`` say whether the pattern lets them be changed.
    """

    low: int
    high: int
    start: int
    pitch: int
    joint: int
    limits: Limits
    lines: tuple[Line, ...] = ()
    steps: tuple[float, ...] = (0.0,)
    ends: int = 0
    joint_free: bool = True
    unit_free: bool = True

    @property
    def unit(self) -> int:
        """A unit without its joint."""
        return self.pitch - self.joint

    @property
    def length(self) -> int:
        """From one end to the other."""
        return self.high - self.low

    @property
    def parts(self) -> int:
        """In how many a pitch may be parted so that joints of the bond meet: 1, 2 or 3."""
        return 2 if len(self.steps) in {2, 4} else len(self.steps)

    def every_line(self) -> tuple[Line, ...]:
        """Both ends and the lines between them."""
        return (Line(self.low, 1, "low"), *self.lines, Line(self.high, -1, "high"))


@dataclass(frozen=True, slots=True)
class Cut:
    """A cut piece at a line, and how much of a unit is left there."""

    line: Line
    piece: int


@dataclass(frozen=True, slots=True)
class Proposal:
    """One way to fit, with its numbers, 1/1000 mm.

    ``count`` whole units lie between the ends, a half counts as 0.5. ``joint`` and ``unit`` are what they become;
    ``wider`` of the joints are 1/1000 mm wider, so that the sum is exact. A joint lies at ``start``; the datum is moved
    by ``shift``. ``change`` is relative.
    """

    way: str
    count: float
    start: float
    pitch: float
    joint: int
    unit: int
    wider: int = 0
    stretch: float = 1.0
    shift: int = 0
    change: float = 0.0
    cuts: tuple[Cut, ...] = ()
    slivers: tuple[Cut, ...] = ()

    @property
    def rank(self) -> tuple[int, int, int, float]:
        """Less is better."""
        order = WAYS.index(self.way) if self.way in WAYS else -1
        return len(self.slivers), len(self.cuts), order, round(self.change, 9)


@dataclass(frozen=True, slots=True)
class Fit:
    """How it lies now, and every way to fit it, the best first."""

    span: Span
    now: Proposal
    proposals: tuple[Proposal, ...] = field(default=())

    @property
    def fits(self) -> bool:
        """Whether nothing is cut as it lies now."""
        return not self.now.cuts

    def best(self, way: str) -> Proposal | None:
        """The best of one way."""
        return next((one for one in self.proposals if one.way == way), None)


def fit(span: Span) -> Fit:
    """Every way to fit a span, ranked; the best :data:`MOST` of them."""
    if span.length <= 0 or span.pitch <= 0:
        return Fit(span, Proposal("now", 0.0, span.start, span.pitch, span.joint, span.unit))
    now = _judged(span, _moved(span, "now", span.start))
    made = [*_by_size(span), *_by_place(span)]
    seen: set[tuple[object, ...]] = set()
    ranked = []
    for one in sorted((_judged(span, one) for one in made), key=lambda one: one.rank):
        key = (one.way, one.count, one.joint, one.unit, one.stretch, round(one.start) % span.pitch)
        if key not in seen and not _as_now(span, one):
            seen.add(key)
            ranked.append(one)
    return Fit(span, now, tuple(ranked[:MOST]))


def _as_now(span: Span, one: Proposal) -> bool:
    """Whether a proposal changes nothing that anybody could set out: less than half a millimetre over the whole."""
    return abs(one.shift) <= WITHIN and abs(one.pitch - span.pitch) * max(1.0, span.length / span.pitch) <= WITHIN


def fit_all(spans: Sequence[Span]) -> list[Fit]:
    """Many at once."""
    return [fit(span) for span in spans]


# Whole units from end to end -------------------------------------------------------------------------


def _by_size(span: Span) -> Iterator[Proposal]:
    """Other joints, other units, or all of it stretched, so that whole units run from end to end."""
    for count in _counts(span):
        joints = count + span.ends
        if joints <= 0:
            continue
        yield from _by_joint(span, count, joints)
        yield from _by_unit(span, count, joints)
        stretch = span.length / (count * span.pitch + span.ends * span.joint)
        if abs(stretch - 1) <= span.limits.stretch + 1e-12:
            yield _placed(
                span, "stretch", count, span.pitch * stretch, span.joint * stretch, stretch=stretch,
                change=abs(stretch - 1),
            )  # fmt: skip


def _counts(span: Span) -> list[float]:
    about = span.length / span.pitch * span.parts
    least, most = max(1, math.floor(about * (1 - NEAR))), math.ceil(about * (1 + NEAR))
    return [n / span.parts for n in range(least, most + 1)]


def _by_joint(span: Span, count: float, joints: float) -> Iterator[Proposal]:
    rest = span.length - count * span.unit
    width = rest / joints
    least, most = span.limits.joint
    if not span.joint_free or span.joint <= 0 or not least <= width <= most:
        return
    joint = math.floor(width)
    yield _placed(
        span, "joint", count, span.unit + width, width, joint=joint, wider=round(rest - joints * joint),
        change=abs(width - span.joint) / span.joint,
    )  # fmt: skip


def _by_unit(span: Span, count: float, joints: float) -> Iterator[Proposal]:
    size = (span.length - joints * span.joint) / count
    less, more = span.limits.unit
    if not span.unit_free or not span.unit - less <= size <= span.unit + more:
        return
    unit = math.floor(size)
    yield _placed(
        span, "unit", count, size + span.joint, span.joint, unit=unit,
        wider=round(span.length - joints * span.joint - count * unit), change=abs(size - span.unit) / span.unit,
    )  # fmt: skip


def _placed(
    span: Span, way: str, count: float, pitch: float, width: float, *, change: float, joint: int | None = None,
    unit: int | None = None, wider: int = 0, stretch: float = 1.0,
) -> Proposal:  # fmt: skip
    """A proposal that begins at the lower end."""
    start = span.low + span.ends * width / 2
    return Proposal(
        way, count, start, pitch, round(width) if joint is None else joint, span.unit if unit is None else unit, wider,
        stretch, _shift(start - span.start, pitch), change,
    )  # fmt: skip


def _shift(by: float, pitch: float) -> int:
    """The shortest way to have a joint there."""
    return round((by + pitch / 2) % pitch - pitch / 2)


# The same units elsewhere -----------------------------------------------------------------------------


def _by_place(span: Span) -> Iterator[Proposal]:
    """Nothing but the place is changed: cut at one end, at both alike, or begun at a line between."""
    low, high = span.low + span.ends * span.joint / 2, span.high - span.ends * span.joint / 2
    middle = (low + high) / 2
    for start in (low, high, middle, middle + span.pitch / 2):
        yield _moved(span, "cut", start)
    third = math.ceil(span.pitch / 3)
    for line in span.every_line():
        at = line.at + line.side * span.ends * span.joint / 2
        for start in (at, at + third, at - third):
            yield _moved(span, "datum", start)


def _moved(span: Span, way: str, start: float) -> Proposal:
    shift = _shift(start - span.start, span.pitch)
    whole = math.floor((span.high - start) / span.pitch + 1e-6) - math.ceil((span.low - start) / span.pitch - 1e-6)
    return Proposal(
        way, float(max(0, whole)), span.start + shift, span.pitch, span.joint, span.unit, shift=shift,
        change=abs(shift) / span.pitch,
    )  # fmt: skip


# Judging ----------------------------------------------------------------------------------------------


def _judged(span: Span, one: Proposal) -> Proposal:
    """A proposal with the pieces it cuts, at the ends and at every opening."""
    cuts, slivers = [], []
    joint = one.joint + (one.wider > 0) * 0.5
    for line in span.every_line():
        at = line.at + line.side * span.ends * joint / 2
        pieces = [_piece(at - one.start - step * one.pitch, one.pitch, line.side) for step in span.steps]
        if min(pieces) <= 0:
            # A joint of the bond lies here; what its other courses end with belongs to the bond.
            continue
        smallest = min(pieces)
        cuts.append(Cut(line, smallest))
        if smallest < one.pitch / 3 - WITHIN:
            slivers.append(Cut(line, smallest))
    return replace(one, cuts=tuple(cuts), slivers=tuple(slivers))


def _piece(beyond: float, pitch: float, side: int) -> int:
    """What is left of the unit that a line cuts, on the wall's side; 0 where a joint lies there."""
    rest = beyond % pitch
    if rest <= WITHIN or pitch - rest <= WITHIN:
        return 0
    return round(pitch - rest if side > 0 else rest)


def joints_of(span: Span, one: Proposal) -> list[int]:
    """Where every joint's middle lies from the lower end on, 1/1000 mm, when the rest is spread: the last is exact."""
    if one.way not in {"joint", "unit"} or one.count != int(one.count):
        return []
    count, at, out = int(one.count), span.low, [span.low]
    for k in range(count):
        more = (k + 1) * one.wider // count - k * one.wider // count
        at += one.unit + one.joint + more
        out.append(at)
    return out


# Told ---------------------------------------------------------------------------------------------------


def told(span: Span, one: Proposal, *, along: bool = False) -> Phrase:
    """A proposal in one line."""
    count = f"{one.count:g}"
    changed = one.joint + (one.wider / max(1.0, one.count + span.ends))
    if one.way == "joint":
        return say("{count} whole, joint {before:.1f} → {after:.2f} mm", count=count, before=span.joint / 1000,
                   after=changed / 1000)  # fmt: skip
    if one.way == "unit":
        size = one.pitch - span.joint
        return say("{count} whole, unit {before:.1f} → {after:.2f} mm", count=count, before=span.unit / 1000,
                   after=size / 1000)  # fmt: skip
    if one.way == "stretch":
        return say("{count} whole, stretched {percent:+.2f} %", count=count, percent=100 * (one.stretch - 1))
    moved = one.shift / 1000
    if one.way == "datum":
        if along:
            return say("{count} whole, moved {mm:+.1f} mm along", count=count, mm=moved)
        return say("{count} whole, moved {mm:+.1f} mm up", count=count, mm=moved)
    return say("{count} whole, cut {pieces}", count=count, pieces=pieces_told(one))


def pieces_told(one: Proposal) -> str:
    """The sizes of what is cut at the two ends."""
    ends = [f"{cut.piece / 1000:.0f} mm" for cut in one.cuts if cut.line.name in {"low", "high"}]
    return " + ".join(ends) if ends else say("nothing")
