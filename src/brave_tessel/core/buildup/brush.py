"""The brush: declared once, so that its form and its strokes come from the same values."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Annotated, Any

from ..job.layers import Stroke
from ..job.nodes import Point
from ..operation import Choice, Fraction, Length, Paint, Tip, Whole, find, settings
from .strokes import INTO

MIRRORS = ("none", "across", "up", "both")


@settings("brush.paint", label="Brush")
@dataclass(frozen=True, slots=True, kw_only=True)
class Brush:
    """What a stroke is drawn with; see :mod:`brave_tessel.core.buildup.strokes`."""

    size: Annotated[
        float, Length(1, 500, log=True, least=0.2, most=5000, help="Width of the brush; [ and ] on the board.")
    ] = 40.0
    hardness: Annotated[float, Fraction(help="0 a soft brush, 1 a hard edge.")] = 0.5
    opacity: Annotated[float, Fraction(help="How much a whole stroke counts.")] = 1.0
    flow: Annotated[
        float, Fraction(0.02, 1, least=0.005, help="How much each stamp counts; less builds up slowly.")
    ] = 1.0
    spacing: Annotated[
        float, Fraction(0, 2, most=20, help="Stamps so many widths apart; 0 draws one smooth stroke.")
    ] = 0.0
    stray: Annotated[float, Fraction(0, 2, most=10, help="Stamps fall aside by up to so many widths.")] = 0.0
    tip: Annotated[str, Tip(help="A source or a recipe whose lightness is the tip; none is round.")] = ""
    into: Annotated[str, Choice(*INTO, help="What a painted layer's stroke changes.")] = "colour"
    colour: Annotated[str, Paint(help="Colour that is painted.")] = "#B9B2A3"
    amount: Annotated[
        float,
        Fraction(0, 5, least=-100, most=100, help="How far it raises or lowers, in mm; or the roughness it sets."),
    ] = 1.0
    mirror: Annotated[str, Choice(*MIRRORS, help="Whether strokes are mirrored about the middle of the sheet.")] = (
        "none"
    )
    fold: Annotated[
        int, Whole(1, 12, most=64, unit="×", help="How often strokes are turned round the middle of the sheet.")
    ] = 1
    lattice_across: Annotated[
        int, Whole(1, 12, most=128, unit="×", help="How often strokes are repeated across, with the pattern.")
    ] = 1
    lattice_up: Annotated[
        int, Whole(1, 12, most=128, unit="×", help="How often strokes are repeated up, with the pattern.")
    ] = 1
    snap: Annotated[
        float,
        Length(
            0, 100, least=0, most=5000, help="Points fall on a grid of so many mm; 0 lets them fall where they will."
        ),
    ] = 0.0

    def stroke(
        self,
        points: Sequence[Point],
        id: str,
        *,
        centre: Point = (0.0, 0.0),
        pressure: Sequence[float] = (),
        erase: bool = False,
    ) -> Stroke:
        """A stroke along some points in mm; each falls on the brush's grid. ``centre`` is what it is mirrored about."""
        every = self.snap
        placed = [(round(x / every) * every, round(y / every) * every) if every > 0 else (x, y) for x, y in points]
        return Stroke(
            id=id,
            points=tuple((round(x, 3), round(y, 3)) for x, y in placed),
            size_mm=self.size,
            hardness=self.hardness,
            strength=self.opacity,
            flow=self.flow,
            erase=erase,
            pressure=tuple(round(p, 3) for p in pressure),
            spacing=self.spacing,
            stray=self.stray,
            tip=self.tip,
            mirror=self.mirror,
            fold=self.fold,
            lattice=(self.lattice_across, self.lattice_up),
            centre=centre,
            into=self.into,
            amount=self.amount,
            colour=self.colour,
        )


def brush_of(values: Mapping[str, Any]) -> Brush:
    """A brush from the values of its form.

    Raises
    ------
    OutOfRangeError
        when a value is outside what is allowed.
    """
    operation = find("brush.paint")
    made = operation.run(**operation.bind(values))
    assert isinstance(made, Brush)
    return made


def values_of(stroke: Stroke) -> dict[str, Any]:
    """A stroke's brush, to be shown and changed afterwards."""
    return {
        "size": stroke.size_mm,
        "hardness": stroke.hardness,
        "opacity": stroke.strength,
        "flow": stroke.flow,
        "spacing": stroke.spacing,
        "stray": stroke.stray,
        "tip": stroke.tip,
        "into": stroke.into,
        "colour": stroke.colour,
        "amount": stroke.amount,
        "mirror": stroke.mirror,
        "fold": stroke.fold,
        "lattice_across": stroke.lattice[0],
        "lattice_up": stroke.lattice[1],
        "snap": 0.0,
    }
