"""Best cut: the sheet closes along the paths where its sides differ least."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, ClassVar

from ...maps import MapSet
from ...operation import Fraction, Length, Value, Whole, called
from ..cover import apply_cut, sheet_cuts
from ..cut import Cuts, Pin
from ..method import Method, mending


@mending("mend.best_cut", label="Best cut")
class BestCut(Method):
    """Follows gaps between stones: the sheet closes along the paths where its sides differ least.

    The repeat is smaller than the sheet by the overlap, both ways. All maps share the cut.
    """

    note: ClassVar[str] = "follows gaps between stones"
    found_by: ClassVar[tuple[str, ...]] = ("overlap", "overlap_up", "colour", "relief", "patches")
    overlap: Annotated[
        float, Length(5, 300, log=True, least=0.1, help="Width in which the sheet's two sides lie over each other.")
    ] = 48.0
    overlap_up: Annotated[
        float, Length(0, 300, least=0, help="The same for its foot and its head; 0 is as wide as between its sides.")
    ] = 0.0
    soften: Annotated[
        float, Length(0, 20, least=0, most=200, help="Width over which the two sides mix at the cut.")
    ] = 1.5
    match_tone: Annotated[
        float,
        called("Even the sides", Fraction(help="How much of the slow difference between the sides is taken out.")),
    ] = 0.8
    colour: Annotated[float, Fraction(help="How much colour counts when the cut is judged.")] = 0.6
    relief: Annotated[float, Fraction(help="How much relief counts when the cut is judged.")] = 0.4
    patches: Annotated[
        int,
        Whole(
            0,
            12,
            most=40,
            unit="×",
            help="How many of the worst spots along the cuts are covered from elsewhere in the sheet.",
        ),
    ] = 0

    @classmethod
    def fresh(cls, width_mm: float, height_mm: float) -> dict[str, Value]:
        return {"overlap": round(0.15 * min(width_mm, height_mm), 1)}

    def closed(self, width_mm: float, height_mm: float) -> tuple[float, float]:
        return width_mm - self.overlap, height_mm - (self.overlap_up or self.overlap)

    def find(self, flat: MapSet, pins: Sequence[Pin]) -> Cuts:
        return sheet_cuts(
            flat,
            overlap=self.overlap,
            overlap_up=self.overlap_up,
            colour=self.colour,
            relief=self.relief,
            pins=pins,
            patches=self.patches,
        )

    def apply(self, flat: MapSet, found: Cuts) -> MapSet:
        return apply_cut(flat, found, soften=self.soften, match_tone=self.match_tone)

    def cut_on(self, flat: MapSet, found: Any) -> tuple[MapSet, Cuts] | None:
        return flat, found
