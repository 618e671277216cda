"""Arches: round, segmental, pointed and flat."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Choice, Length
from .. import groups as g
from ..piece import Drawn, Handle, Made, piece
from ..solids import extruded, in_space, inset, turned
from ..spans import head_of


@piece("arch", label="Arch")
def arch(
    _drawn: Drawn,
    *,
    span: Annotated[float, Length(300, 6000, least=10, most=1e5, help="Between its springings.")] = 1800.0,
    shape: Annotated[str, Choice("round", "segmental", "pointed", "flat", help="The curve of its soffit.")] = "round",
    rise: Annotated[
        float, Length(20, 3000, least=0.1, most=1e5, help="Of a segmental or pointed arch over its springing.")
    ] = 400.0,
    ring: Annotated[float, Length(50, 900, least=1, most=1e4, help="Depth of the ring, soffit to back.")] = 225.0,
    thickness: Annotated[float, Length(50, 1200, least=1, most=1e4, help="From front to back.")] = 300.0,
    bevel: Annotated[float, Length(0, 30, most=100, help="Width of its rounded edges.")] = 3.0,
) -> Made:
    """Springing from the floor, its middle at the origin, its front looking south."""  # fmt: skip
    inner = head_of(span, rise, shape)
    if shape == "flat":
        # Skewbacks lean outward by about one in four.
        skew = ring / 4
        outline = np.array([[-span / 2, 0], [span / 2, 0], [span / 2 + skew, ring], [-span / 2 - skew, ring]])
        names = [g.SOFFIT, g.ENDS, g.TOP, g.ENDS]
        line = np.array([[-span / 2, 0.0], [span / 2, 0.0]])
    else:
        outer = _outer(inner, ring)
        outline = turned(np.concatenate([outer, inner[::-1]]), anticlockwise=True)
        count = len(outer)
        names = [*[g.TOP] * (count - 1), g.ENDS, *[g.SOFFIT] * (count - 1), g.ENDS]
        line = inner[::-1]
    mesh = extruded([outline], thickness, sides=[names], front=g.RING, back=g.RING, bevel=min(bevel, ring / 4))
    path = np.stack([line[:, 0], np.zeros(len(line)), line[:, 1]], 1)
    top = float(outline[:, 1].max())
    handles = (
        Handle("span", (span / 2, 0.0, 0.0), (1.0, 0.0, 0.0), 0.5),
        Handle("ring", (0.0, 0.0, top), (0.0, 0.0, 1.0)),
        *(() if shape in {"round", "flat"} else (Handle("rise", (0.0, 0.0, top - ring), (0.0, 0.0, 1.0)),)),
    )
    levels = {"springing": 0.0, "crown": top - ring}
    return Made(
        in_space(mesh, np.array([1.0, 0, 0]), np.array([0, 0, 1.0])), levels, path=path, handles=handles
    )  # fmt: skip


def _outer(inner: np.ndarray, ring: float) -> np.ndarray:  # type: ignore[type-arg]
    """The back of the ring: its soffit moved out, the springings kept level."""
    # Two points below the springings make the ends of the curve run straight out of it.
    below = np.concatenate([[inner[0] - [0, 1.0]], inner, [inner[-1] - [0, 1.0]]])
    moved = inset(turned(below, anticlockwise=True), -ring)[1:-1]
    moved[0, 1] = moved[-1, 1] = 0.0
    return np.asarray(moved)
