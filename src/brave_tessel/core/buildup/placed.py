"""What kinds that are set once share: where a fresh one lies, and the rows of its placement."""

from __future__ import annotations

from dataclasses import replace

from ..job.layers import Placement, Surface
from ..operation import Angle, Length, Param
from .form_rows import Field, Part

_PARAMS: dict[str, tuple[str, Param]] = {
    "x_mm": ("Right", Length(0, 2000, least=-1e5, most=1e5, help="Right, on the sheet.")),
    "y_mm": ("Up", Length(0, 2000, least=-1e5, most=1e5, help="Up, on the sheet.")),
    "width_mm": ("Width", Length(1, 2000, least=0.1, most=1e5, help="Width, on the sheet.")),
    "height_mm": ("Height", Length(1, 2000, least=0.1, most=1e5, help="Height, on the sheet.")),
    "turn": ("Turn", Angle(-180, 180, help="Turn of the placement.")),
    "skew": ("Skew", Angle(-60, 60, help="Skew of the placement.")),
}


def in_the_middle(surface: Surface, share: float = 0.4) -> Placement:
    """A square placement in the middle of a surface, its side a share of the shorter one."""
    side = round(share * min(surface.width_mm, surface.height_mm), 1)
    x, y = round(surface.width_mm / 2, 1), round(surface.height_mm / 2, 1)
    return Placement(x_mm=x, y_mm=y, width_mm=side, height_mm=side)


def placement_part() -> Part:
    """The rows of a placement."""
    rows = tuple(
        Field(
            replace(param, label=label, default=0.0 if param.kind == "angle" else 100.0),
            ("what", "placement", name),
            "Place it",
        )
        for name, (label, param) in _PARAMS.items()
    )
    return Part("Place and size", "", rows)
