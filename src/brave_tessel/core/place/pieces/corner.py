"""The corner: two walls, a window, a floor, made from their measures."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache

import numpy as np

from ...job.document import Part, Scene
from ...job.nodes import Setting
from ..figure import standing_figure
from ..mesh import Frame, PartMesh, Vector
from ..piece import piece


@dataclass(frozen=True, slots=True)
class Corner:
    """Two walls at a right angle with a window opening and a floor; measures in mm.

    The north wall runs along x at z = 0, the east wall along z at x = ``north``.
    """

    north: float = 4500.0
    east: float = 3000.0
    height: float = 2700.0
    dado: float = 1248.0
    window_left: float = 1404.0
    window_width: float = 900.0
    sill: float = 936.0
    head: float = 2106.0
    reveal: float = 160.0


CORNER = Corner()


def _rectangles(
    width: tuple[float, float], levels: tuple[float, float], hole: tuple[float, float, float, float] | None
) -> list[tuple[float, float, float, float]]:
    """(left, bottom, right, top) pieces of a wall band around a rectangular hole."""
    (left, right), (low, high) = width, levels
    if hole is None or hole[1] >= high or hole[3] <= low:
        return [(left, low, right, high)]
    bottom, top = max(low, hole[1]), min(high, hole[3])
    pieces = [(left, low, hole[0], high), (hole[2], low, right, high)]
    if bottom > low:
        pieces.append((hole[0], low, hole[2], bottom))
    if top < high:
        pieces.append((hole[0], top, hole[2], high))
    return pieces


def _on_frame(frame: Frame, rectangles: Iterable[tuple[float, float, float, float]]) -> PartMesh:
    origin, along, up = (np.array(v) for v in (frame.origin, frame.along, frame.up))

    def at(s: float, t: float) -> Vector:
        return np.asarray(origin + s * along + t * up)

    quads = [[at(a, b), at(c, b), at(c, d), at(a, d)] for a, b, c, d in rectangles]
    return PartMesh(np.array(quads), frame)


def _reveal(measures: Corner) -> PartMesh:
    a, b = measures.window_left, measures.window_left + measures.window_width
    low, high, back = measures.sill, measures.head, -measures.reveal
    quads = [
        [(a, low, 0), (a, low, back), (a, high, back), (a, high, 0)],
        [(b, low, back), (b, low, 0), (b, high, 0), (b, high, back)],
        [(a, low, 0), (b, low, 0), (b, low, back), (a, low, back)],
        [(a, high, back), (b, high, back), (b, high, 0), (a, high, 0)],
    ]
    frame = Frame((0, 0, 0), (1, 0, 0), (0, 1, 0))
    return PartMesh(np.array(quads, float), frame)


@cache
def corner_meshes(measures: Corner = CORNER) -> dict[str, PartMesh]:
    """The corner scene's parts by id."""
    m = measures
    north = Frame((0, 0, 0), (1, 0, 0), (0, 1, 0), 0.0, unrolled=True)
    east = Frame((m.north, 0, 0), (0, 0, 1), (0, 1, 0), m.north, unrolled=True)
    floor = Frame((0, 0, 0), (1, 0, 0), (0, 0, -1))
    hole = (m.window_left, m.sill, m.window_left + m.window_width, m.head)
    # Seen from the room the east wall runs to the right from the corner.
    return {
        "north-dado": _on_frame(north, _rectangles((0, m.north), (0, m.dado), hole)),
        "north-wall": _on_frame(north, _rectangles((0, m.north), (m.dado, m.height), hole)),
        "east-dado": _on_frame(east, _rectangles((0, m.east), (0, m.dado), None)),
        "east-wall": _on_frame(east, _rectangles((0, m.east), (m.dado, m.height), None)),
        "reveal": _reveal(m),
        "floor": _on_frame(floor, [(0, -m.east, m.north, 0)]),
        "figure": standing_figure(m.north - 1150, 700, facing=-40.0),
    }


def corner_scene(*, dado: str = "", wall: str = "", floor: str = "") -> Scene:
    """The corner with surfaces (by id) laid on it; the datum at the floor in the corner."""
    parts = (
        Part(id="north-dado", name="North dado", group="Changing hall", surface=dado),
        Part(id="north-wall", name="North wall", group="Changing hall", surface=wall),
        Part(id="reveal", name="Window reveal", group="Changing hall", surface=wall, laying=Setting(op="laying.box")),
        Part(id="east-dado", name="East dado", group="Changing hall", surface=dado),
        Part(id="east-wall", name="East wall", group="Changing hall", surface=wall),
        Part(id="floor", name="Floor", group="Changing hall", surface=floor),
        Part(id="figure", name="Figure 1.75 m", group="Scale only", bare="#A9A69E"),
    )
    return Scene(piece="corner", parts=parts, datum=(CORNER.north, 0.0, 0.0), datum_name="floor line, NE corner")


@piece("corner")
def corner() -> dict[str, PartMesh]:
    """The corner at its own measures."""
    return corner_meshes()
