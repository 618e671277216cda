"""Relief, normals, places, numbers and shapes."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ...kernels.relief import normal_of_height
from ...operation import (
    Angle,
    Choice,
    Colour,
    Field,
    FontName,
    Fraction,
    Gathered,
    Ground,
    Length,
    Vector,
    Whole,
    Words,
    called,
    operation,
)
from ...outlines import Outline, inside_of
from ...relief.integrate import height_of_slopes
from ...sheet import Grid


@operation("relief.normal", label="Normal of a height")
def normal(
    grid: Grid,
    field: Field,
    *,
    rise: Annotated[
        float, Length(0.1, 50, log=True, least=0.001, help="Height of the field from 0 to 1; 1 for a height in mm.")
    ] = 1.0,
) -> Vector:
    """Unit normals of a height, y up."""
    return normal_of_height(np.ascontiguousarray(field * np.float32(rise)), grid)


@operation("relief.height", label="Height of a normal")
def height(grid: Grid, vector: Vector) -> Field:
    """The wrapped height in mm, mean 0, whose normals these are (Frankot and Chellappa 1988)."""
    z = np.maximum(vector[..., 2], 0.05)
    return height_of_slopes(
        np.asarray(-vector[..., 0] / z, np.float32), np.asarray(-vector[..., 1] / z, np.float32), grid
    )


@operation("relief.position", label="Gradient of place")
def position(
    grid: Grid,
    *,
    runs: Annotated[
        str,
        Choice(
            "up",
            "across",
            "mirrored up",
            "mirrored across",
            help="Which way it rises; mirrored ones close at the edges.",
        ),
    ] = "mirrored up",
) -> Field:
    """0 to 1 over the repeat; for what differs from foot to head."""
    up = runs.endswith("up")
    t = grid.y_mm() / grid.height_mm if up else grid.x_mm() / grid.width_mm
    t = 1 - np.abs(2 * t - 1) if runs.startswith("mirrored") else t
    line = t.astype(np.float32)
    return np.ascontiguousarray(np.broadcast_to(line[:, None] if up else line[None, :], grid.shape))


@operation("source.number", label="Number")
def number(
    grid: Grid, *, value: Annotated[float, Fraction(least=-1e6, most=1e6, help="The value everywhere.")] = 0.5
) -> Field:
    """One value everywhere."""
    return np.full(grid.shape, value, np.float32)


GATHERED = {"source.colour", "source.map"}
"""Steps that bring a gathered source; what they are made of is worked out where the job is known."""
Repeats = Annotated[int, Whole(1, 12, most=64, unit="×", help="Whole repeats of the source in this surface.")]


@operation("source.colour", label="Colour of a source")
def gathered_colour(
    grid: Grid,
    *,
    source: Annotated[str, Gathered(help="Something gathered that has its real size.")] = "",
    across: Repeats = 1,
    up: Repeats = 1,
) -> Colour:
    """The base colour of a gathered source's closed sheet, laid in whole repeats."""
    return np.full((*grid.shape, 3), 0.5, np.float32)


@operation("source.map", label="Map of a source")
def gathered_map(
    grid: Grid,
    *,
    source: Annotated[str, Gathered(help="Something gathered that has its real size.")] = "",
    takes: Annotated[
        str,
        called(
            "Map",
            Choice(
                "height",
                "roughness",
                "metalness",
                "opacity",
                help="Which of its maps; height in mm, estimated where it has none.",
            ),
        ),
    ] = "height",
    across: Repeats = 1,
    up: Repeats = 1,
) -> Field:
    """A map of a gathered source's closed sheet, laid in whole repeats."""
    return np.full(grid.shape, 0.5, np.float32)


@operation("source.below", label="What lies beneath")
def beneath(grid: Grid, ground: Ground) -> Field:
    """Height in mm of the layers beneath this one."""
    return ground.height


LETTERED = {"source.text"}
"""Steps made of a font's outlines; which are read where files may be."""


@operation("source.text", label="Text")
def text(
    grid: Grid,
    letters: Outline,
    *,
    text: Annotated[str, Words(help="What is written; a new line begins a new row.")] = "Saltreach",
    font: Annotated[str, FontName(help="A shipped or an installed font.")] = "IBM Plex Sans SemiBold",
    size: Annotated[float, Length(5, 1000, log=True, least=0.2, help="Height of the font's em.")] = 90.0,
    right: Annotated[
        float, Length(0, 1000, least=-1e5, most=1e5, help="Where its middle lies, from the left.")
    ] = 150.0,
    up: Annotated[float, Length(0, 1000, least=-1e5, most=1e5, help="Where its middle lies, from the foot.")] = 150.0,
    turn: Annotated[float, Angle(-180, 180, help="Turned anticlockwise.")] = 0.0,
    bevel: Annotated[
        float,
        Length(0, 60, least=0, most=1000, help="Over what width it rises from its edge inward; 0 is an upright edge."),
    ] = 0.0,
) -> Field:
    """Lettering on the wrapped sheet: 1 inside, 0 outside, or rising from the edge over the bevel."""
    laid = letters.placed(at=(right, up), turn=turn, size=size)
    inside = inside_of(laid, grid, reach_mm=max(bevel, 2 * grid.pitch_mm))
    if bevel <= grid.pitch_mm:
        return np.asarray(np.clip(inside / grid.pitch_mm + 0.5, 0, 1), np.float32)
    return np.asarray(np.clip(inside / bevel, 0, 1), np.float32)


SHAPES = ("disc", "ring", "box", "polygon", "star")


@operation("source.shape", label="Shape")
def shape(
    grid: Grid,
    *,
    shape: Annotated[str, Choice(*SHAPES, help="What is drawn.")] = "disc",
    size: Annotated[float, Length(1, 1000, log=True, least=0.1, help="Width of the shape.")] = 120.0,
    right: Annotated[
        float, Length(0, 1000, least=-1e5, most=1e5, help="Where its middle lies, from the left.")
    ] = 150.0,
    up: Annotated[float, Length(0, 1000, least=-1e5, most=1e5, help="Where its middle lies, from the foot.")] = 150.0,
    turn: Annotated[float, Angle(-180, 180, help="Turned anticlockwise.")] = 0.0,
    corners: Annotated[int, Whole(3, 12, most=64, help="Corners of a polygon or points of a star.")] = 6,
    soft: Annotated[float, Length(0, 60, least=0, most=1000, help="How soft its edge is.")] = 0.0,
) -> Field:
    """One shape on the wrapped sheet: 1 inside, 0 outside."""
    dx = (grid.x_mm()[None, :] - right + grid.width_mm / 2) % grid.width_mm - grid.width_mm / 2
    dy = (grid.y_mm()[:, None] - up + grid.height_mm / 2) % grid.height_mm - grid.height_mm / 2
    a, half = math.radians(turn), size / 2
    x, y = dx * math.cos(a) + dy * math.sin(a), -dx * math.sin(a) + dy * math.cos(a)
    away, way = np.hypot(x, y), np.arctan2(y, x)
    if shape == "disc":
        inside = half - away
    elif shape == "ring":
        inside = 0.2 * size - np.abs(away - 0.3 * size)
    elif shape == "box":
        inside = half - np.maximum(np.abs(x), np.abs(y))
    else:
        sector = math.pi / corners
        within = np.abs((way + sector) % (2 * sector) - sector)
        inside = (
            half * math.cos(sector) - away * np.cos(within) if shape == "polygon" else _star(away, within, half, sector)
        )
    edge = max(soft, grid.pitch_mm)
    return np.asarray(np.clip(inside / edge + 0.5, 0, 1), np.float32)


def _star(away: np.ndarray, within: np.ndarray, half: float, sector: float) -> np.ndarray:
    """Distance inside a star whose notches reach to 0.45 of its points."""
    tip, notch = np.array([half, 0.0]), 0.45 * half * np.array([math.cos(sector), math.sin(sector)])
    along = (notch - tip) / np.hypot(*(notch - tip))
    x, y = away * np.cos(within), away * np.sin(within)
    return np.asarray(along[0] * (y - tip[1]) - along[1] * (x - tip[0]))
