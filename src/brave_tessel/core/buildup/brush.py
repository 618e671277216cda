"""The brush: declared once, so that its form, its strokes and its sample come from the same values."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Annotated, Any

import numpy as np

from ..job.layers import Stroke
from ..job.nodes import Point
from ..operation import Choice, Field, Fraction, Length, Paint, Tip, Whole, operation
from ..sheet import Grid
from .strokes import INTO, lay_strokes

MIRRORS = ("none", "across", "up", "both")


@operation("brush.paint", label="Brush")
def paint(
    grid: Grid,
    *,
    size: Annotated[
        float, Length(1, 500, log=True, least=0.2, most=5000, help="Width of the brush; [ and ] on the board.")
    ] = 40.0,
    hardness: Annotated[float, Fraction(help="0 a soft brush, 1 a hard edge.")] = 0.5,
    opacity: Annotated[float, Fraction(help="How much a whole stroke counts.")] = 1.0,
    flow: Annotated[
        float, Fraction(0.02, 1, least=0.005, help="How much each stamp counts; less builds up slowly.")
    ] = 1.0,
    spacing: Annotated[
        float, Fraction(0, 2, most=20, help="Stamps so many widths apart; 0 draws one smooth stroke.")
    ] = 0.0,
    stray: Annotated[float, Fraction(0, 2, most=10, help="Stamps fall aside by up to so many widths.")] = 0.0,
    tip: Annotated[str, Tip(help="A source or a recipe whose lightness is the tip; none is round.")] = "",
    into: Annotated[str, Choice(*INTO, help="What a painted layer's stroke changes.")] = "colour",
    colour: Annotated[str, Paint(help="Colour that is painted.")] = "#B9B2A3",
    amount: Annotated[
        float,
        Fraction(0, 5, least=-100, most=100, help="How far it raises or lowers, in mm; or the roughness it sets."),
    ] = 1.0,
    mirror: Annotated[
        str, Choice(*MIRRORS, help="Whether strokes are mirrored about the middle of the sheet.")
    ] = "none",
    fold: Annotated[
        int, Whole(1, 12, most=64, unit="×", help="How often strokes are turned round the middle of the sheet.")
    ] = 1,
    lattice_across: Annotated[
        int, Whole(1, 12, most=128, unit="×", help="How often strokes are repeated across, with the pattern.")
    ] = 1,
    lattice_up: Annotated[
        int, Whole(1, 12, most=128, unit="×", help="How often strokes are repeated up, with the pattern.")
    ] = 1,
    snap: Annotated[
        float,
        Length(
            0, 100, least=0, most=5000, help="Points fall on a grid of so many mm; 0 lets them fall where they will."
        ),
    ] = 0.0,
) -> Field:
    """A sample of the brush: one stroke from left to right through the middle of the sheet, closed over its edge."""
    values = {
        "size": size,
        "hardness": hardness,
        "opacity": opacity,
        "flow": flow,
        "spacing": spacing,
        "stray": stray,
        "tip": tip,
        "into": into,
        "colour": colour,
        "amount": amount,
        "mirror": "none",
        "fold": 1,
        "lattice_across": 1,
        "lattice_up": 1,
        "snap": snap,
    }
    middle = grid.height_mm / 2
    return lay_strokes(
        np.zeros(grid.shape, np.float32), [stroke_of(values, ((0.0, middle), (grid.width_mm, middle)), "sample")], grid
    )


def stroke_of(
    values: Mapping[str, Any],
    points: Sequence[Point],
    id: str,
    *,
    centre: Point = (0.0, 0.0),
    pressure: Sequence[float] = (),
    erase: bool = False,
) -> Stroke:
    """A stroke of the brush along some points; each falls on the brush's grid."""
    every = float(values["snap"])
    placed = [(round(x / every) * every, round(y / every) * every) if every > 0 else (x, y) for x, y in points]
    return Stroke(
        id=id,
        points=tuple((round(x, 3), round(y, 3)) for x, y in placed),
        size_mm=float(values["size"]),
        hardness=float(values["hardness"]),
        strength=float(values["opacity"]),
        flow=float(values["flow"]),
        erase=erase,
        pressure=tuple(round(p, 3) for p in pressure),
        spacing=float(values["spacing"]),
        stray=float(values["stray"]),
        tip=str(values["tip"]),
        mirror=str(values["mirror"]),
        fold=int(values["fold"]),
        lattice=(int(values["lattice_across"]), int(values["lattice_up"])),
        centre=centre,
        into=str(values["into"]),
        amount=float(values["amount"]),
        colour=str(values["colour"]),
    )


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
