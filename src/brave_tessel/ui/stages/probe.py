"""What lies under the pointer, explained in numbers."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ...core.colour import luminance
from ...core.maps import MapKind
from ...core.quantity import format_number
from ..results import SurfacePicture


@dataclass(frozen=True, slots=True)
class Probe:
    """One point of a surface: place and heights in mm, slope in degrees."""

    x: float
    y: float
    layer: str
    beneath: str
    over: float
    height: float
    slope: float
    roughness: float
    reflectance: float


def probe_at(done: SurfacePicture, x: float, y: float) -> Probe:
    """Read the evaluated maps at a wrapped point."""
    grid = done.grid
    row, column = grid.row_column(x, y)
    stack = done.stacks[-1]
    shown = [layer for layer in done.surface.layers if layer.shown and layer.id not in done.faults]
    number = int(stack.top[row, column])
    layer = shown[number - 1].name if 0 < number <= len(shown) else "Nothing"
    beneath = shown[number - 2].name if number > 1 else ""
    normal = done.maps[MapKind.NORMAL][row, column]
    return Probe(
        x % grid.width_mm, y % grid.height_mm, layer, beneath, float(stack.margin[row, column]),
        float(done.maps[MapKind.HEIGHT][row, column]), math.degrees(math.acos(min(1.0, float(normal[2])))),
        float(done.maps[MapKind.ROUGHNESS][row, column]),
        float(luminance(done.maps[MapKind.BASE_COLOUR][row, column][None])[0]),
    )  # fmt: skip


def explain(found: Probe) -> str:
    """The probe as the status line says it; fields are split by tabs."""
    on_top = f"{found.layer} lies on top"
    if found.beneath:
        on_top += f" by {format_number(found.over, decimals=2)} mm, over {found.beneath}"
    return "\t".join(
        (
            f"x {found.x:6.1f}  y {found.y:6.1f} mm", on_top,
            f"height {format_number(found.height, decimals=2)} mm   slope {found.slope:.0f}°   "
            f"rough {found.roughness:.2f}   reflectance {found.reflectance:.2f}",
        )
    )
