"""Whole courses: cut to whole units of a regular pattern's beat."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, ClassVar

from ...errors import DoesNotCloseError
from ...maps import MapSet
from ...operation import Angle, Fraction, Length, Value, Whole, called
from ..courses import straightened
from ..cover import apply_cut, sheet_cuts
from ..cut import Cuts, Pin
from ..method import Method, mending

FREE_OVERLAP = 0.15
"""Share of the sheet that is left to overlap along a way that no beat rules."""


@mending("mend.courses", label="Whole courses")
class Courses(Method):
    """Finds the beat of a regular pattern and cuts to whole units of it.

    What the sheet has beyond the whole periods is the overlap, so both sides are in step where the best
    cut is made between them.
    """

    note: ClassVar[str] = "finds the beat of a regular pattern"
    found_by: ClassVar[tuple[str, ...]] = ("period_across", "period_up", "across", "up", "turn", "lean", "course")
    period_across: Annotated[
        float,
        Length(
            5,
            2000,
            log=True,
            least=0.5,
            help="After how much along a row the pattern is itself again; found by the button.",
        ),
    ] = 225.0
    period_up: Annotated[
        float,
        Length(
            5,
            2000,
            log=True,
            least=0.5,
            help="After how much up the wall the pattern is itself again, such as two courses of half bond.",
        ),
    ] = 150.0
    across: Annotated[
        int, Whole(0, 40, most=400, unit="×", help="Whole periods along the rows; 0 leaves this way to a free cut.")
    ] = 1
    up: Annotated[
        int, Whole(0, 40, most=400, unit="×", help="Whole periods up the wall; 0 leaves this way to a free cut.")
    ] = 1
    course: Annotated[
        float,
        Length(
            0,
            1000,
            least=0,
            help="Height of a row of units of random length, found by the button: its lengths are cut at a joint. "
            "0 cuts anywhere.",
        ),
    ] = 0.0
    turn: Annotated[float, Angle(-15, 15, help="How far the rows are turned on the photo; taken out.")] = 0.0
    lean: Annotated[float, Angle(-15, 15, help="How far the uprights lean on the photo; taken out.")] = 0.0
    soften: Annotated[
        float, Length(0, 20, least=0, most=200, help="Width over which the two sides mix at the cut.")
    ] = 1.5
    match_tone: Annotated[
        float,
        called("Even the sides", Fraction(help="How much of the slow difference between the sides is taken out.")),
    ] = 0.8

    @classmethod
    def fresh(cls, width_mm: float, height_mm: float) -> dict[str, Value]:
        thirds = {"period_across": round(width_mm / 3, 1), "period_up": round(height_mm / 3, 1)}
        return {**thirds, "across": 2, "up": 2}

    def closed(self, width_mm: float, height_mm: float) -> tuple[float, float]:
        ways = ((self.across, self.period_across, width_mm), (self.up, self.period_up, height_mm))
        x, y = (round(n * period if n else (1 - FREE_OVERLAP) * length, 4) for n, period, length in ways)
        return x, y

    def find(self, flat: MapSet, pins: Sequence[Pin]) -> Cuts:
        grid = flat.grid
        width, height = self.closed(grid.width_mm, grid.height_mm)
        overlaps = grid.width_mm - width, grid.height_mm - height
        ways = (("Across", self.across, overlaps[0], grid.width_mm), ("Up", self.up, overlaps[1], grid.height_mm))
        for name, count, surplus, length in ways:
            if surplus < 0.01 * length:
                raise DoesNotCloseError(
                    name,
                    value=f"{count} ×",
                    allowed="so many periods that some of the sheet is left to overlap",
                    remedy="Take one period less.",
                )
        rows = self.level_rows(flat)
        # A way without a beat is cut from joint to joint of the rows that lie along it.
        courses = 0.0 if self.across else self.course, 0.0 if self.up else self.course
        return sheet_cuts(
            rows, overlap=overlaps[0], overlap_up=overlaps[1], colour=0.6, relief=0.4, pins=pins, courses=courses
        )

    def level_rows(self, flat: MapSet) -> MapSet:
        """All maps with their rows level and uprights plumb."""
        turned = {
            kind: straightened(pixels, flat.grid, turn=self.turn, lean=self.lean) for kind, pixels in flat.maps.items()
        }
        return MapSet(flat.grid, turned)

    def apply(self, flat: MapSet, found: Cuts) -> MapSet:
        return apply_cut(self.level_rows(flat), found, soften=self.soften, match_tone=self.match_tone)

    def cut_on(self, flat: MapSet, found: Any) -> tuple[MapSet, Cuts] | None:
        return self.level_rows(flat), found
