"""Solids that pieces are made of: extruded outlines with rounded edges, swept profiles, turned and lofted rings.

Every solid is closed: its faces share their corners, so that nothing gapes and rays do not slip through.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
import numpy.typing as npt
import shapely

from .mesh import CREASE, Faces, Mesh, Vector, joined, welded
from .paths import Track

Ring = npt.NDArray[np.float64]
"""(N, 2) points of a closed line, mm; outer ones run anticlockwise, holes clockwise."""
Region = tuple[str, shapely.Geometry]
"""A named part of a face and where it lies in it."""
ON_LINE_MM = 1e-5


def rectangle(left: float, low: float, right: float, high: float) -> Ring:
    """A ring, anticlockwise."""
    return np.array([[left, low], [right, low], [right, high], [left, high]], float)


def arc(centre: tuple[float, float], radius: float, start: float, end: float, count: int) -> Ring:
    """Points of an arc from one angle to another, radians, both ends included."""
    angles = np.linspace(start, end, count + 1)
    return np.stack([centre[0] + radius * np.cos(angles), centre[1] + radius * np.sin(angles)], 1)


def steps_for(radius: float, angle: float, *, chord: float = 2.0) -> int:
    """Into how many stretches an arc is cut so that it leaves its chord by at most so many mm, within reason."""
    if radius <= 0:
        return 4
    bend = 2 * math.acos(max(-1.0, min(1.0, 1 - chord / max(radius, chord))))
    return int(min(96, max(6, math.ceil(abs(angle) / max(bend, 1e-3)))))


def turned(ring: Ring, *, anticlockwise: bool) -> Ring:
    """The ring running the asked way round."""
    x, y = ring.T
    area = float((x * np.roll(y, -1) - np.roll(x, -1) * y).sum())
    return ring if (area > 0) == anticlockwise else ring[::-1].copy()


def inset(ring: Ring, by: float) -> Ring:
    """The ring moved inward by ``by`` mm: corners run along the lines that halve them."""
    if by == 0:
        return ring
    before, after = ring - np.roll(ring, 1, 0), np.roll(ring, -1, 0) - ring
    one, other = (_left_of(side) for side in (before, after))
    both = one + other
    share = np.maximum(1 + np.einsum("ij,ij->i", one, other), 0.15)
    return np.asarray(ring + by * both / share[:, None])


def _left_of(side: Ring) -> Ring:
    length = np.maximum(np.linalg.norm(side, axis=1, keepdims=True), 1e-12)
    return np.asarray(np.stack([-side[:, 1], side[:, 0]], 1) / length)


class Builder:
    """Points and named triangles that are put together to one mesh."""

    def __init__(self, crease: float = CREASE) -> None:
        self.parts: list[tuple[Vector, npt.NDArray[np.int32], str, npt.NDArray[np.float64]]] = []
        self.crease = crease

    def add(self, points: Vector, triangles: Faces, name: str, unwrap: npt.NDArray[np.float64]) -> None:
        """Triangles of one group with their unwrap (T, 3, 2) in mm."""
        if len(triangles):
            self.parts.append((points, np.asarray(triangles, np.int32), name, unwrap))

    def strip(self, lower: Vector, upper: Vector, name: str, low: Ring, high: Ring) -> None:
        """Two lines of points of equal number joined by faces that look to the right of the way they run, seen with
        the second line above; with the unwrap of both lines.
        """
        count = len(lower)
        points = np.concatenate([lower, upper])
        i = np.arange(count - 1)
        a, b, c, d = i, i + 1, i + 1 + count, i + count
        triangles = np.stack([np.stack([a, b, c], 1), np.stack([a, c, d], 1)], 1).reshape(-1, 3).astype(np.int32)
        flat = np.concatenate([low, high])
        self.add(points, triangles, name, flat[triangles])

    def mesh(self) -> Mesh:
        """All of it as one mesh, points that coincide made one."""
        meshes = [
            Mesh(points, triangles, np.zeros(len(triangles), np.int32), (name,), unwrap, crease=self.crease)
            for points, triangles, name, unwrap in self.parts
        ]
        return welded(joined(meshes))


def partitioned(
    rings: Sequence[Ring], regions: Sequence[Region], rest: str
) -> tuple[list[tuple[str, list[Ring]]], Ring]:
    """A face cut into named regions; what none takes is the ``rest``. Every ring holds all points of its neighbours.

    Returns
    -------
    pieces : name and rings of each, the outer ring first
    nodes : (N, 2) every point that is used
    """  # fmt: skip
    left: shapely.Geometry = shapely.Polygon(rings[0], list(rings[1:]))
    found: list[tuple[str, shapely.Geometry]] = []
    for name, region in regions:
        found.append((name, left.intersection(region)))
        left = left.difference(region)
    found.append((rest, left))
    pieces = [
        (name, [turned(_ring_of(r), anticlockwise=k == 0) for k, r in enumerate((p.exterior, *p.interiors))])
        for name, geometry in found
        for p in _polygons(geometry)
    ]
    nodes = np.concatenate([*rings, *(ring for _, rings_ in pieces for ring in rings_)])
    return [(name, [_with_nodes(ring, nodes) for ring in rings_]) for name, rings_ in pieces], nodes


def _polygons(geometry: shapely.Geometry) -> list[shapely.Polygon]:
    parts = getattr(geometry, "geoms", [geometry])
    return [part for part in parts if isinstance(part, shapely.Polygon) and part.area > 1e-3]


def _ring_of(line: shapely.LinearRing) -> Ring:
    return np.asarray(line.coords)[:-1]


def shares_of(ring: Ring, nodes: Ring) -> list[Ring]:
    """For each side of a ring the shares at which other points lie on it, in order."""
    ends = np.roll(ring, -1, 0)
    side = ends - ring
    length = np.maximum(np.linalg.norm(side, axis=1), 1e-12)
    away = nodes[None] - ring[:, None]
    along = np.einsum("snk,sk->sn", away, side) / length[:, None]
    off = np.abs(away[..., 0] * side[:, None, 1] - away[..., 1] * side[:, None, 0]) / length[:, None]
    within = (off < ON_LINE_MM) & (along > ON_LINE_MM) & (along < length[:, None] - ON_LINE_MM)
    out = []
    for row, inside in enumerate(within):
        at = np.sort(along[row][inside])
        kept = at[np.concatenate([[True], np.diff(at) > ON_LINE_MM])] if len(at) else at
        out.append(kept / length[row])
    return out


def with_shares(ring: Ring, shares: Sequence[Ring]) -> Ring:
    """The ring with points put in at shares of its sides."""
    ends = np.roll(ring, -1, 0)
    return np.concatenate(
        [np.concatenate([ring[i : i + 1], ring[i] + s[:, None] * (ends[i] - ring[i])]) for i, s in enumerate(shares)]
    )


def _with_nodes(ring: Ring, nodes: Ring) -> Ring:
    return with_shares(ring, shares_of(ring, nodes))


def triangulated(rings: Sequence[Ring]) -> npt.NDArray[np.int32]:
    """Triangles (N, 3) over all points of the rings in their order, anticlockwise; every point is used."""
    import manifold3d  # Brought in where it is used: at every start it would take 80 ms.

    return np.asarray(manifold3d.triangulate([np.asarray(ring, np.float64) for ring in rings]), np.int32)


def extruded(
    rings: Sequence[Ring],
    depth: float,
    *,
    sides: Sequence[Sequence[str]],
    front: str = "front",
    back: str = "back",
    regions: Sequence[Region] = (),
    bevel: float = 0.0,
    rounds: int = 2,
) -> Mesh:
    """An outline with holes as a solid: its front at z = 0 looks to +z, its back lies at −``depth``.

    Parameters
    ----------
    rings : the outline, anticlockwise, then holes, clockwise; mm
    sides : for each ring, the name of the face along each of its sides
    regions : named parts of the front
    bevel : width of the rounded edges round front and back, mm, in ``rounds`` stretches
    """
    bevel = min(bevel, depth / 2.01)
    fronts = [inset(ring, bevel) for ring in rings]
    pieces, nodes = partitioned(fronts, regions, front)
    shares = [shares_of(ring, nodes) for ring in fronts]
    names = [
        [name for name, s in zip(of_ring, ring_shares, strict=True) for _ in range(len(s) + 1)]
        for of_ring, ring_shares in zip(sides, shares, strict=True)
    ]
    levels = _levels(bevel, rounds, depth)
    builder = Builder()
    # The front is cut along its own rings, whose points the first level repeats one by one.
    for name, piece_rings in pieces:
        flat = np.concatenate(piece_rings)
        triangles = triangulated(piece_rings)
        builder.add(_at(flat, 0.0), triangles, name, flat[triangles])
    for ring, ring_shares, ring_names in zip(rings, shares, names, strict=True):
        lines = [with_shares(inset(ring, by), ring_shares) for by, _ in levels]
        _sides(builder, lines, [z for _, z in levels], ring_names)
    last = [with_shares(inset(ring, bevel), s) for ring, s in zip(rings, shares, strict=True)]
    flat = np.concatenate(last)
    triangles = triangulated(last)[:, [0, 2, 1]]
    builder.add(_at(flat, -depth), triangles, back, (flat * [-1, 1])[triangles])
    return builder.mesh()


def _levels(bevel: float, rounds: int, depth: float) -> list[tuple[float, float]]:
    """How far in and how deep the outline runs from front to back: a quarter round at each edge."""
    if bevel <= 0:
        return [(0.0, 0.0), (0.0, -depth)]
    turns = np.linspace(0, math.pi / 2, rounds + 1)
    edge = [(float(bevel * (1 - math.sin(t))), float(-bevel * (1 - math.cos(t)))) for t in turns]
    return edge + [(by, -depth - z) for by, z in reversed(edge)]


def _at(flat: Ring, z: float) -> Vector:
    return np.concatenate([flat, np.full((len(flat), 1), z)], 1)


def _sides(builder: Builder, lines: Sequence[Ring], depths: Sequence[float], names: Sequence[str]) -> None:
    """Walls between one outline and the next deeper one, all around."""
    count = len(lines[0])
    after = (np.arange(count) + 1) % count
    run = np.concatenate([[0.0], np.cumsum(np.linalg.norm(lines[0][after] - lines[0], axis=1))])
    for upper, lower, top, low in zip(lines[:-1], lines[1:], depths[:-1], depths[1:], strict=True):
        points = np.concatenate([_at(upper, top), _at(lower, low)])
        for name in dict.fromkeys(names):
            i = np.array([k for k in range(count) if names[k] == name])
            a, b, c, d = i + count, after[i] + count, after[i], i
            triangles = np.stack([np.stack([a, b, c], 1), np.stack([a, c, d], 1)], 1).reshape(-1, 3)
            corner = {
                "a": np.stack([run[i], np.full(len(i), low)], 1),
                "b": np.stack([run[i + 1], np.full(len(i), low)], 1),
                "c": np.stack([run[i + 1], np.full(len(i), top)], 1),
                "d": np.stack([run[i], np.full(len(i), top)], 1),
            }
            unwrap = np.stack(
                [np.stack([corner[k] for k in "abc"], 1), np.stack([corner[k] for k in "acd"], 1)], 1
            ).reshape(-1, 3, 2)
            builder.add(points, triangles, name, unwrap)


def swept(
    profile: Ring,
    path: Vector,
    *,
    closed: bool = False,
    names: Sequence[str],
    end: str = "ends",
    side: Vector | None = None,
    upright: bool = True,
) -> Mesh:
    """A profile carried along a path, its joints cut on the half angle.

    Parameters
    ----------
    profile : a ring, x to the right of the path and y up, mm, anticlockwise
    names : the name of the face along each side of the profile
    upright : whether up stays upright, as for mouldings and kerbs; else frames are carried along without a twist
    """
    track = Track(path, closed=closed)
    sections = _sections(track, profile, side, upright=upright)
    count = len(profile)
    girth = np.concatenate([[0.0], np.cumsum(np.linalg.norm(np.roll(profile, -1, 0) - profile, axis=1))])
    builder = Builder()
    for k in range(count):
        here, ahead = sections[:, k], sections[:, (k + 1) % count]
        # Arc length along each line itself: square joints are told apart from the mitred corner by the laying.
        low = np.stack([track.starts, np.full(len(track.starts), girth[k])], 1)
        high = np.stack([track.starts, np.full(len(track.starts), girth[k + 1])], 1)
        builder.strip(here, ahead, names[k], low, high)
    if not closed:
        triangles = triangulated([profile])
        builder.add(sections[0], triangles, end, profile[triangles])
        builder.add(sections[-1], triangles[:, [0, 2, 1]], end, (profile * [-1, 1])[triangles[:, [0, 2, 1]]])
    return builder.mesh()


def _sections(track: Track, profile: Ring, side: Vector | None, *, upright: bool) -> Vector:
    """(points of the path, points of the profile, 3): the profile at every point, wider where the path bends."""
    tangents = track.corner_tangents()
    if upright:
        up = np.array([0.0, 0.0, 1.0])
        sides = np.cross(tangents, up)
        sides /= np.maximum(np.linalg.norm(sides, axis=1, keepdims=True), 1e-12)
        ups = np.broadcast_to(up, sides.shape)
    else:
        sides, ups = track.frames(side)
    d = track.directions
    before = np.concatenate([d[-1:] if track.closed else d[:1], d])
    share = np.einsum("ij,ij->i", before, tangents)
    # A mitred section is wider across the corner than square to the path.
    bend = before - share[:, None] * tangents
    size = np.linalg.norm(bend, axis=1, keepdims=True)
    bend = np.where(size > 1e-9, bend / np.maximum(size, 1e-12), 0.0)
    offsets = profile[None, :, :1] * sides[:, None] + profile[None, :, 1:] * ups[:, None]
    more = (1 / np.maximum(share, 0.2) - 1)[:, None, None] * np.einsum("nck,nk->nc", offsets, bend)[..., None]
    return np.asarray(track.points[:, None] + offsets + more * bend[:, None])


def revolved(
    outline: Ring, *, count: int, names: Sequence[str], start: float = 0.0, angle: float = 2 * math.pi
) -> Mesh:
    """A line (radius, height) turned about the upright axis; faces look to the right of a line that runs up.

    ``names`` gives the face between each point and the next. Ends that lie on the axis need no caps; a line that comes
    back to its first point is turned to a ring.
    """
    whole = abs(angle - 2 * math.pi) < 1e-9
    turns = start + np.linspace(0, angle, count + 1)
    run = np.concatenate([[0.0], np.cumsum(np.linalg.norm(np.diff(outline, axis=0), axis=1))])
    builder = Builder()
    rings = np.stack(
        [np.outer(outline[:, 0], np.cos(turns)), np.outer(outline[:, 0], np.sin(turns)),
         np.repeat(outline[:, 1:2], count + 1, 1)], 2,
    )  # fmt: skip
    if whole:
        rings[:, -1] = rings[:, 0]
    radius = float(outline[:, 0].max())
    for k in range(len(outline) - 1):
        low = np.stack([turns * radius, np.full(count + 1, run[k])], 1)
        high = np.stack([turns * radius, np.full(count + 1, run[k + 1])], 1)
        builder.strip(rings[k], rings[k + 1], names[k], low, high)
    if not whole:
        flat = outline[:-1] if np.allclose(outline[0], outline[-1]) else outline
        triangles = triangulated([flat])
        builder.add(rings[: len(flat), 0], triangles, "ends", flat[triangles])
        builder.add(rings[: len(flat), count], triangles[:, [0, 2, 1]], "ends", flat[triangles[:, [0, 2, 1]]])
    return builder.mesh()


def polyhedron(points: Vector, faces: Sequence[tuple[str, Sequence[int]]]) -> Mesh:
    """Flat faces over points, each a name and its corners, anticlockwise seen from outside."""
    builder = Builder()
    for name, corners in faces:
        place = np.asarray(points)[list(corners)]
        normal = _normal(place)
        along = place[1] - place[0]
        along = along / np.linalg.norm(along)
        flat = np.stack([(place - place[0]) @ along, (place - place[0]) @ np.cross(normal, along)], 1)
        triangles = triangulated([flat])
        builder.add(place, triangles, name, flat[triangles])
    return builder.mesh()


def _normal(corners: Vector) -> Vector:
    """Of a flat polygon (Newell)."""
    after = np.roll(corners, -1, 0)
    total = np.cross(corners, after).sum(0)
    return np.asarray(total / max(float(np.linalg.norm(total)), 1e-12))


def in_space(mesh: Mesh, along: Vector, up: Vector, at: Vector | tuple[float, float, float] = (0.0, 0.0, 0.0)) -> Mesh:
    """A solid drawn in x, y and z set up in space: x runs along, y up, and z towards who looks at its front."""
    matrix = np.eye(4)
    matrix[:3, 0], matrix[:3, 1] = along, up
    matrix[:3, 2] = np.cross(along, up)
    matrix[:3, 3] = at
    return mesh.moved(matrix)


def is_closed(mesh: Mesh) -> bool:
    """Whether it encloses a space: every side is shared by two faces that run it opposite ways (manifold3d)."""
    import manifold3d

    made = manifold3d.Manifold(
        manifold3d.Mesh(
            vert_properties=np.asarray(mesh.points, np.float32), tri_verts=np.asarray(mesh.triangles, np.uint32)
        )
    )
    return bool(made.status() == manifold3d.Error.NoError) and not made.is_empty()
