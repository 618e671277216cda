"""A wall with openings, reveals, sills and lintels."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np
import shapely

from ...job.scene import Opening
from ...operation import Choice, Length
from .. import groups as g
from ..mesh import Mesh, joined
from ..piece import Drawn, Handle, Made, piece
from ..solids import Region, Ring, extruded, in_space, inset, rectangle, turned
from ..spans import head_of

BEARING_MM = 150.0
"""How far a lintel lies on the wall at either side of its opening."""
FRAME_MM, FRAME_DEPTH = 62.0, 70.0
LARGE = 1e6


@piece("wall", label="Wall", takes="openings")
def wall(
    drawn: Drawn,
    *,
    length: Annotated[float, Length(500, 12000, least=50, most=1e6, help="Along its foot.")] = 4000.0,
    height: Annotated[float, Length(300, 6000, least=10, most=1e5, help="From foot to top at its ends.")] = 2700.0,
    thickness: Annotated[float, Length(50, 900, least=1, most=1e4, help="From front to back.")] = 240.0,
    top: Annotated[
        str, Choice("level", "gabled", "round", help="A gable or an arched head rises over the height.")
    ] = "level",
    rise: Annotated[float, Length(0, 4000, most=1e5, help="How far a gable or an arched head rises.")] = 1200.0,
    dado: Annotated[
        float, Length(0, 2000, most=1e5, help="Height of the lower band of the front, a face of its own; 0 is none.")
    ] = 0.0,
    bevel: Annotated[float, Length(0, 40, most=200, help="Width of its rounded edges.")] = 0.0,
    set_back: Annotated[
        float, Length(0, 400, most=5000, help="How far window frames and doors stand behind the front.")
    ] = 120.0,
) -> Made:
    """Upright, its front looking south from y = 0, from x = 0 to the right; openings are cut through it."""
    outline, names = _outline(length, height, rise if top != "level" else 0.0, top)
    holes = _that_fit(drawn.openings, outline)
    outline, names = _notched(outline, names, [(one, ring) for one, ring in holes if one.sill <= 0])
    rings, sides = [outline], [names]
    for one, ring in holes:
        if one.sill > 0:
            rings.append(turned(ring, anticlockwise=False))
            sides.append(_reveal_names(one, rings[-1]))
    solid = extruded(
        rings, thickness, sides=sides, front=g.FRONT, back=g.BACK, regions=_regions(holes, dado), bevel=bevel
    )
    meshes = [solid]
    for one, ring in holes:
        meshes += _fillings(one, ring, min(set_back, thickness * 0.8))
        if one.sill_out > 0:
            meshes.append(_sill(one))
    levels = {"floor": 0.0, "top": height} | ({"dado": dado} if dado > 0 else {})
    for one, _ in holes:
        levels |= {"sill": one.sill, "head": one.sill + one.height}
    handles = (
        Handle("length", (length, 0.0, height / 2), (1.0, 0.0, 0.0)),
        Handle("height", (length / 2, 0.0, height), (0.0, 0.0, 1.0)),
        Handle("thickness", (0.0, thickness, height / 2), (0.0, 1.0, 0.0)),
        *(h for one, _ in holes for h in _opening_handles(one)),
    )
    return Made(in_space(joined(meshes), np.array([1.0, 0, 0]), np.array([0, 0, 1.0])), levels, handles=handles)


def _outline(length: float, height: float, rise: float, top: str) -> tuple[Ring, list[str]]:
    foot = [[0.0, 0.0], [length, 0.0]]
    if top == "gabled" and rise > 0:
        ring = np.array([*foot, [length, height], [length / 2, height + rise], [0.0, height]])
        return ring, [g.FOOT, g.ENDS, g.TOP, g.TOP, g.ENDS]
    if top == "round" and rise > 0:
        head = head_of(length, min(rise, length / 2), "segmental" if rise < length / 2 else "round")
        curve = head + [length / 2, height]
        ring = np.concatenate([np.array(foot), curve])
        return ring, [g.FOOT, g.ENDS, *[g.TOP] * (len(curve) - 1), g.ENDS]
    return rectangle(0, 0, length, height), [g.FOOT, g.ENDS, g.TOP, g.ENDS]


def _that_fit(openings: tuple[Opening, ...], outline: Ring) -> list[tuple[Opening, Ring]]:
    """Openings with their rings; one that leaves the wall or runs into one before it is left out."""
    room = shapely.Polygon(outline)
    found: list[tuple[Opening, Ring]] = []
    for one in openings:
        if one.width < 2 * FRAME_MM + 20 or one.height < 2 * FRAME_MM + 20:
            continue
        ring = _hole(one)
        hole = shapely.Polygon(ring)
        cut = hole.buffer(12.0, join_style="mitre")
        inside = room.contains(cut if one.sill > 0 else cut.intersection(shapely.box(-LARGE, 0, LARGE, LARGE)))
        if inside and not any(cut.intersects(shapely.Polygon(other)) for _, other in found):
            found.append((one, ring))
    return found


def _hole(one: Opening) -> Ring:
    """The ring of an opening, anticlockwise from its lower left corner."""
    right = one.left + one.width
    rise = _rise(one)
    head = head_of(one.width, rise, one.head) + [one.left + one.width / 2, one.sill + one.height - rise]
    return np.concatenate([np.array([[one.left, one.sill], [right, one.sill]]), head])


def _notched(outline: Ring, names: list[str], doors: list[tuple[Opening, Ring]]) -> tuple[Ring, list[str]]:
    """Openings that stand on the floor are cut into the foot of the outline, from the left to the right."""
    points, sides = [outline[:1]], []
    for one, ring in sorted(doors, key=lambda entry: entry[0].left):
        jambs = np.concatenate([ring[:1], ring[:1:-1], ring[1:2]])
        points.append(jambs)
        inner = _reveal_names(one, jambs)[:-1]
        sides += [g.FOOT, *inner]
    sides.append(g.FOOT)
    return np.concatenate([*points, outline[1:]]), [*sides, *names[1:]]


def _rise(one: Opening) -> float:
    if one.head == "round":
        return one.width / 2
    if one.head == "pointed":
        return one.width * math.sqrt(3) / 2
    return min(one.rise, one.width / 2) if one.head == "segmental" else 0.0


def _reveal_names(one: Opening, ring: Ring) -> list[str]:
    """What each side of an opening is: the level one at its foot its sill, upright ones reveals, the rest soffit."""
    ends = np.roll(ring, -1, 0)
    names: list[str] = []
    for (x0, y0), (x1, y1) in zip(ring, ends, strict=True):
        upright = abs(x1 - x0) < 1e-6
        low = max(y0, y1) < one.sill + 1e-6
        names.append(g.SILL if low else g.REVEAL if upright else g.SOFFIT)
    return names


def _regions(holes: list[tuple[Opening, Ring]], dado: float) -> list[Region]:
    regions: list[Region] = []
    for one, ring in holes:
        if one.lintel <= 0:
            continue
        spring = one.sill + one.height - _rise(one)
        if one.head == "flat":
            left, right = one.left - BEARING_MM, one.left + one.width + BEARING_MM
            band = shapely.box(left, spring, right, spring + one.lintel)
        else:
            outer = shapely.Polygon(inset(ring, -one.lintel))
            band = outer.intersection(shapely.box(-LARGE, spring, LARGE, LARGE))
        regions.append((g.LINTEL, band))
    if dado > 0:
        regions.append((g.DADO, shapely.box(-LARGE, -LARGE, LARGE, dado)))
    return regions


def _fillings(one: Opening, ring: Ring, back: float) -> list[Mesh]:
    """A window's frame and panes, or a door's frame and leaf, in the opening."""
    if one.filling == "open":
        return []
    outer = ring
    inner = inset(outer, FRAME_MM)
    frame = _at_depth(
        extruded([outer, turned(inner, anticlockwise=False)], FRAME_DEPTH, sides=[[g.FRAME] * len(outer)] * 2,
                 front=g.FRAME, back=g.FRAME, bevel=3.0), -back,
    )  # fmt: skip
    if one.filling == "door":
        leaf = extruded([inset(inner, 3.0)], 44.0, sides=[[g.DOOR] * len(inner)], front=g.DOOR, back=g.DOOR, bevel=2.0)
        return [frame, _at_depth(leaf, -back - 12.0)]
    return [frame, *_panes(one, inner, back)]


def _panes(one: Opening, inner: Ring, back: float) -> list[Mesh]:
    """Glass with one upright bar and bars about every half metre."""
    glass = extruded([inner], 6.0, sides=[[g.GLASS] * len(inner)], front=g.GLASS, back=g.GLASS)
    out = [_at_depth(glass, -back - 32.0)]
    (left, low), (right, high) = inner.min(0), inner.max(0)
    spring = one.sill + one.height - _rise(one)
    rows = max(1, round((spring - low) / 520))
    bars = [rectangle((left + right) / 2 - 14, low - 1, (left + right) / 2 + 14, high + 1)]
    bars += [
        rectangle(left - 1, y - 14, right + 1, y + 14)
        for y in low + (spring - low) * np.arange(1, rows + (1 if one.head != "flat" else 0)) / rows
    ]
    inside = shapely.Polygon(inner)
    for bar in bars:
        cut = shapely.Polygon(bar).intersection(inside)
        if isinstance(cut, shapely.Polygon) and cut.area > 100:
            ring = turned(np.asarray(cut.exterior.coords)[:-1], anticlockwise=True)
            made = extruded([ring], 40.0, sides=[[g.FRAME] * len(ring)], front=g.FRAME, back=g.FRAME)
            out.append(_at_depth(made, -back - 15.0))
    return out


def _sill(one: Opening) -> Mesh:
    """A slab under the opening that stands out of the wall, weathered towards its front."""
    out, thick = one.sill_out, 60.0
    profile = np.array([[0.0, -thick], [out, -thick], [out, -8.0], [0.0, 0.0]])
    ring = turned(profile, anticlockwise=True)
    made = extruded([ring], one.width + 100.0, sides=[[g.SILL] * 4], front=g.SILL, back=g.SILL, bevel=3.0)
    # The profile's x points out of the wall, its depth runs along it.
    matrix = np.eye(4)
    matrix[:3, 0], matrix[:3, 1], matrix[:3, 2] = (0.0, 0.0, 1.0), (0.0, 1.0, 0.0), (-1.0, 0.0, 0.0)
    matrix[:3, 3] = (one.left - 50.0, one.sill, 0.0)
    return made.moved(matrix)


def _at_depth(mesh: Mesh, z: float) -> Mesh:
    matrix = np.eye(4)
    matrix[2, 3] = z
    return mesh.moved(matrix)


def _opening_handles(one: Opening) -> tuple[Handle, ...]:
    middle, up = one.left + one.width / 2, one.sill + one.height / 2
    return (
        Handle("left", (one.left, 0.0, up), (1.0, 0.0, 0.0), opening=one.id),
        Handle("width", (one.left + one.width, 0.0, up), (1.0, 0.0, 0.0), opening=one.id),
        Handle("sill", (middle, 0.0, one.sill), (0.0, 0.0, 1.0), opening=one.id),
        Handle("height", (middle, 0.0, one.sill + one.height), (0.0, 0.0, 1.0), opening=one.id),
    )
