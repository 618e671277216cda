"""Roads, channels and kerbs along a path."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...operation import Choice, Fraction, Length
from .. import groups as g
from ..mesh import joined
from ..piece import Drawn, Made, piece
from ..solids import Ring, rectangle, swept
from .moulding import path_of


@piece("road", label="Road strip", takes="path")
def road(
    drawn: Drawn,
    *,
    width: Annotated[float, Length(1000, 12000, least=10, most=1e5, help="Between its edges.")] = 5500.0,
    length: Annotated[
        float, Length(1000, 30000, least=1, most=1e6, help="Of a straight one; a path has its own.")
    ] = 8000.0,
    camber: Annotated[float, Fraction(0, 0.05, most=0.2, help="Its crossfall; 0.025 is usual.")] = 0.025,
    channel: Annotated[float, Length(0, 400, most=2000, help="Width of a channel at both edges; 0 is none.")] = 150.0,
    depth: Annotated[float, Length(20, 400, least=1, most=5000, help="Thickness of the strip.")] = 100.0,
) -> Made:
    """A strip along its path, highest in the middle; its edges are at the height of the path."""  # fmt: skip
    path, closed = path_of(drawn, length)
    half = width / 2
    inner = half - min(channel, half / 2)
    xs = np.linspace(-inner, inner, 17)
    rise = camber * inner
    curve = rise * (1 - (xs / inner) ** 2)
    top = [(x, y) for x, y in zip(xs[::-1], curve[::-1], strict=True)]
    points = [(-half, -depth), (half, -depth), (half, 0.0), *top, (-half, 0.0)]
    names = [g.FOOT, g.SIDE, g.CHANNEL, *[g.ROAD] * (len(top) - 1), g.CHANNEL, g.SIDE]
    if channel <= 0:
        points = [(-half, -depth), (half, -depth), *top]
        names = [g.FOOT, g.SIDE, *[g.ROAD] * (len(top) - 1), g.SIDE]
    mesh = swept(np.array(points), path, closed=closed, names=names)
    return Made(mesh, {"crown": rise}, path=path, closed=closed)


@piece("kerb", label="Kerb", takes="path")
def kerb(
    drawn: Drawn,
    *,
    length: Annotated[
        float, Length(300, 30000, least=1, most=1e6, help="Of a straight one; a path has its own.")
    ] = 5000.0,
    width: Annotated[float, Length(50, 300, least=1, most=2000, help="A precast one has 125.")] = 125.0,
    upstand: Annotated[float, Length(10, 200, least=1, most=1000, help="Over the road; 100 to 125 are usual.")] = 110.0,
    deep: Annotated[float, Length(0, 250, most=1000, help="How far it goes down below the road.")] = 145.0,
    shape: Annotated[
        str, Choice("half battered", "bull-nosed", "square", help="Its edge towards the road.")
    ] = "half battered",
    channel: Annotated[float, Length(0, 400, most=2000, help="Width of a channel stone before it; 0 is none.")] = 0.0,
) -> Made:
    """Along its path, its face towards the road at the right of the path."""  # fmt: skip
    path, closed = path_of(drawn, length)
    ring, names = _kerb(width, upstand, deep, shape)
    meshes = [swept(ring, path, closed=closed, names=names)]
    if channel > 0:
        stone = rectangle(0.0, -deep, channel, -6.0)
        meshes.append(swept(stone, path, closed=closed, names=[g.FOOT, g.SIDE, g.CHANNEL, g.BACK], end=g.CHANNEL))
    return Made(joined(meshes), {"road": 0.0, "top": upstand}, path=path, closed=closed)


def _kerb(width: float, upstand: float, deep: float, shape: str) -> tuple[Ring, list[str]]:
    foot = [(-width, -deep), (0.0, -deep)]
    if shape == "half battered":
        edge = [(0.0, 0.25 * upstand), (-0.12 * upstand, upstand)]
    elif shape == "bull-nosed":
        r = min(16.0, upstand / 2)
        turns = np.linspace(0, np.pi / 2, 7)
        edge = [(-r + r * np.cos(t), upstand - r + r * np.sin(t)) for t in turns]
    else:
        edge = [(0.0, upstand)]
    points = [*foot, *edge, (-width, upstand)]
    names: list[str] = [g.FOOT, *[g.KERB] * (len(points) - 2), g.BACK]
    return np.array(points), names
