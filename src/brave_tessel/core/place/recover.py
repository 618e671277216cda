"""The line a tube, strip or moulding runs along, found from its mesh alone: its centre, how thick it is, its ends.

A potential is let run through the mesh from one end to the other; along a tube that is bent its level lines are the
cross-sections (on a torus the potential is the angle itself), and their middles are the centre line.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import partial

import numpy as np
import numpy.typing as npt
import scipy.sparse
from scipy.sparse.csgraph import connected_components, dijkstra
from scipy.sparse.linalg import splu

from ..errors import MissingError
from ..phrases import say
from .mesh import Faces, Mesh, Vector
from .topology import grown, places

LEAST, MOST = 12, 512
"""Cross-sections that are taken."""
CAP_COSINE = 0.94
TURN = np.radians(40.0)
"""A border that turns more sharply than this has a corner there."""
_Ints = npt.NDArray[np.int64]
_Floats = npt.NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Recovered:
    """A line (N, 3) mm through the middles of cross-sections; ``radius`` is their mean distance from it, (N,) mm, and
    ``closed`` whether it comes back to where it began.
    """

    points: Vector
    radius: _Floats
    closed: bool


class _Net:
    """Points and triangles, welded, with their sides."""

    def __init__(self, mesh: Mesh, faces: Faces) -> None:
        numbers, at = np.unique(places(mesh)[faces], return_inverse=True)
        self.at: _Ints = at.reshape(-1, 3).astype(np.int64)
        self.points = np.zeros((len(numbers), 3))
        self.points[self.at.ravel()] = mesh.corners[faces].reshape(-1, 3)
        self.faces = faces

    @property
    def count(self) -> int:
        return len(self.points)

    def sides(self) -> tuple[_Ints, _Ints]:
        """(S, 2) sides, each once, and how many triangles each has."""
        both = np.concatenate([self.at[:, [k, (k + 1) % 3]] for k in range(3)])
        both.sort(1)
        key = both[:, 0] * self.count + both[:, 1]
        _, first, counts = np.unique(key, return_index=True, return_counts=True)
        return both[first], counts

    def without(self, gone: npt.NDArray[np.bool_]) -> _Net:
        """The same net without some of its triangles."""
        left = _Net.__new__(_Net)
        numbers, at = np.unique(self.at[~gone], return_inverse=True)
        left.at, left.points, left.faces = at.reshape(-1, 3), self.points[numbers], self.faces[~gone]
        return left


def recover(mesh: Mesh, faces: Faces | None = None) -> Recovered:
    """The line that some faces run along; of several pieces the largest.

    Raises
    ------
    MissingError
        when they run along nothing, as a flat sheet without four corners does.
    """
    net = _Net(mesh, np.arange(mesh.count, dtype=np.int32) if faces is None else faces)
    net = _largest(net)
    sides, counts = net.sides()
    if len(net.at) < 8:
        raise _nothing()
    border = sides[counts == 1]
    loops = _loops(border)
    if len(loops) == 0 and net.count - len(sides) + len(net.at) == 0:
        return _round_a_ring(net, sides)
    if len(loops) == 0:
        net = _uncapped(mesh, net, sides)
        sides, counts = net.sides()
        loops = _loops(sides[counts == 1])
    if len(loops) == 1:
        ends = _strip_ends(net.points, loops[0])
    elif len(loops) == 2:
        ends = (loops[0], loops[1])
    else:
        raise _nothing()
    return _between(net, *ends)


def _nothing() -> MissingError:
    return MissingError("path", value=say("these faces"), remedy="Choose a tube, a strip or a moulding with two ends.")


def _largest(net: _Net) -> _Net:
    joined = np.concatenate([net.at[:, [k, (k + 1) % 3]] for k in range(3)])
    graph = scipy.sparse.coo_matrix((np.ones(len(joined)), (joined[:, 0], joined[:, 1])), shape=(net.count,) * 2)
    _, label = connected_components(graph, directed=False)
    own = label[net.at[:, 0]]
    return net.without(own != np.bincount(own).argmax())


def _loops(border: _Ints) -> list[_Ints]:
    """Points of each border, in their order round it."""
    beside: dict[int, list[int]] = {}
    for a, b in border.tolist():
        beside.setdefault(a, []).append(b)
        beside.setdefault(b, []).append(a)
    left, out = set(beside), []
    while left:
        start = min(left)
        loop, here, before = [start], start, -1
        left.discard(start)
        while True:
            ahead = [n for n in beside[here] if n != before and n in left]
            if not ahead:
                break
            before, here = here, ahead[0]
            loop.append(here)
            left.discard(here)
        out.append(np.array(loop))
    return out


def _strip_ends(points: Vector, loop: _Ints) -> tuple[_Ints, _Ints]:
    """The two short sides of a strip's border: between its four sharpest corners."""
    round_it = points[loop]
    ahead = np.roll(round_it, -1, 0) - round_it
    ahead /= np.maximum(np.linalg.norm(ahead, axis=1, keepdims=True), 1e-12)
    turn = np.arccos(np.clip(np.einsum("ij,ij->i", ahead, np.roll(ahead, 1, 0)), -1, 1))
    corners = np.sort(np.argsort(-turn, kind="stable")[:4])
    if len(loop) < 4 or turn[corners].min() < TURN:
        raise _nothing()
    sides = [np.arange(corners[k], corners[k + 1] + 1) for k in range(3)]
    sides.append(np.r_[np.arange(corners[3], len(loop)), np.arange(corners[0] + 1)])
    lengths = [np.linalg.norm(np.diff(round_it[side], axis=0), axis=1).sum() for side in sides]
    first = 0 if lengths[0] + lengths[2] < lengths[1] + lengths[3] else 1
    return loop[sides[first]], loop[sides[first + 2]]


def _distances(net: _Net, sides: _Ints, start: int) -> _Floats:
    long = np.linalg.norm(net.points[sides[:, 0]] - net.points[sides[:, 1]], axis=1)
    graph = scipy.sparse.coo_matrix((long, (sides[:, 0], sides[:, 1])), shape=(net.count, net.count)).tocsr()
    return np.asarray(dijkstra(graph, directed=False, indices=start))


def _uncapped(mesh: Mesh, net: _Net, sides: _Ints) -> _Net:
    """A closed tube without the faces that close its two ends."""
    first = int(_distances(net, sides, 0).argmax())
    other = int(_distances(net, sides, first).argmax())
    gone = np.zeros(len(net.at), bool)
    inside = np.zeros(mesh.count, bool)
    inside[net.faces] = True
    for from_end in (_distances(net, sides, other), _distances(net, sides, first)):
        # The farthest point need not be the very end, as paths over a mesh have their favourite ways: the face that
        # closes it lies near, and looks along.
        order = np.argsort(from_end, kind="stable")
        few = min(net.count // 3, max(48, net.count // 30))
        outward = net.points[order[:few]].mean(0) - net.points[order[few : 2 * few]].mean(0)
        near = np.zeros(net.count, bool)
        near[order[:few]] = True
        mine = np.flatnonzero(near[net.at].all(1))
        if not len(mine):
            raise _nothing()
        best = mine[int(np.abs(mesh.normals[net.faces[mine]] @ outward).argmax())]
        normal = mesh.normals[net.faces[best]]
        alike = inside & (mesh.normals @ normal > CAP_COSINE)
        cap = grown(mesh, int(net.faces[best]), partial(np.take, alike))
        gone |= np.isin(net.faces, cap)
    return net.without(gone)


def _laplacian(net: _Net) -> tuple[scipy.sparse.csr_matrix, _Ints, _Floats]:
    """The matrix of cotangent weights, and its sides (3 T, 2) with their weights, both ways round each triangle."""
    sides, weights = [], []
    for k in range(3):
        i, j, o = net.at[:, k], net.at[:, (k + 1) % 3], net.at[:, (k + 2) % 3]
        a, b = net.points[i] - net.points[o], net.points[j] - net.points[o]
        sine = np.linalg.norm(np.cross(a, b), axis=1)
        sides.append(np.stack([i, j], 1))
        weights.append(np.clip(0.5 * (a * b).sum(1) / np.maximum(sine, 1e-12), 1e-3, 1e3))
    pairs, w = np.concatenate(sides), np.concatenate(weights)
    i, j = pairs.T
    matrix = scipy.sparse.coo_matrix(
        (np.concatenate([w, w, -w, -w]), (np.concatenate([i, j, i, j]), np.concatenate([i, j, j, i]))),
        shape=(net.count, net.count),
    ).tocsr()
    return matrix, pairs, w


def _between(net: _Net, start: _Ints, end: _Ints) -> Recovered:
    """The line from one end to the other."""
    matrix, _, _ = _laplacian(net)
    value = np.zeros(net.count)
    value[end] = 1.0
    held = np.zeros(net.count, bool)
    held[start] = held[end] = True
    free = np.flatnonzero(~held)
    if len(free):
        right = -matrix[free][:, np.flatnonzero(held)] @ value[held]
        value[free] = splu(matrix[free][:, free].tocsc()).solve(right)
    value[start] = 0.0
    points, radius = _sections(net, value[net.at], _how_many(net, start), closed=False)
    first, last = net.points[start].mean(0), net.points[end].mean(0)
    points = np.concatenate([_end_of(net, start, first)[None], points, _end_of(net, end, last)[None]])
    return Recovered(points, np.concatenate([radius[:1], radius, radius[-1:]]), closed=False)


def _end_of(net: _Net, end: _Ints, middle: Vector) -> Vector:
    """The middle of a border by its length."""
    ring = net.points[end]
    following = np.roll(ring, -1, 0)
    long = np.linalg.norm(following - ring, axis=1)
    if long[-1] > 3 * max(np.median(long), 1e-9):
        # An open side of a strip, not a ring.
        ring, following, long = ring[:-1], following[:-1], long[:-1]
    return np.asarray(((ring + following) / 2 * long[:, None]).sum(0) / long.sum()) if long.sum() > 0 else middle


def _how_many(net: _Net, end: _Ints) -> int:
    """Four cross-sections to a width of what runs along."""
    ring = net.points[end]
    width = max(float(np.linalg.norm(ring - ring.mean(0), axis=1).mean()), 1e-6)
    sides, _ = net.sides()
    length = float(_distances(net, sides, int(end[0])).max())
    return int(np.clip(round(2 * length / width), LEAST, MOST))


def _sections(net: _Net, values: _Floats, count: int, *, closed: bool) -> tuple[Vector, _Floats]:
    """Middles of ``count`` level lines and their mean distance from them; ``values`` (T, 3) at the corners."""
    levels = (np.arange(count) + 0.5) / count
    low, high = values.min(1), values.max(1)
    first, last = np.ceil(low * count - 0.5).astype(int), np.floor(high * count - 0.5).astype(int)
    if not closed:
        first, last = np.maximum(first, 0), np.minimum(last, count - 1)
    many = np.maximum(last - first + 1, 0)
    triangle = np.repeat(np.arange(len(values)), many)
    number = np.arange(len(triangle)) - np.repeat(np.cumsum(many) - many, many) + first[triangle]
    level = (number + 0.5) / count
    order = np.argsort(values, 1)[triangle]
    rows = np.arange(len(triangle))
    v = values[triangle]
    p, q, r = (net.points[net.at[triangle, order[:, k]]] for k in range(3))
    a, b, c = (v[rows, order[:, k]] for k in range(3))

    def between(x: Vector, y: Vector, s: _Floats, t: _Floats) -> Vector:
        share = np.where(t - s > 1e-15, (level - s) / np.where(t - s > 1e-15, t - s, 1.0), 0.0)
        return np.asarray(x + np.clip(share, 0, 1)[:, None] * (y - x))

    one = between(p, r, a, c)
    other = np.where((level < b)[:, None], between(p, q, a, b), between(q, r, b, c))
    long = np.linalg.norm(other - one, axis=1)
    index = number % count
    whole = np.maximum(np.bincount(index, long, count), 1e-12)
    middle = np.stack([np.bincount(index, long * (one + other)[:, k] / 2, count) for k in range(3)], 1) / whole[:, None]
    away = 0.5 * (np.linalg.norm(one - middle[index], axis=1) + np.linalg.norm(other - middle[index], axis=1))
    there = np.bincount(index, long, count) > 1e-9
    radius = np.bincount(index, long * away, count) / whole
    assert len(levels) == count
    return middle[there], radius[there]


def _round_a_ring(net: _Net, sides: _Ints) -> Recovered:
    """The line round a closed ring: its potential rises by one each time round, with a leap where it is cut."""
    leap = _cut(net)
    matrix, pairs, weights = _laplacian(net)
    by = leap[pairs[:, 1]] - leap[pairs[:, 0]]
    # Sides over the cut run from just under it to just over it.
    jump = np.where(np.abs(by) == 2, np.sign(by), 0.0)
    right = np.zeros(net.count)
    np.add.at(right, pairs[:, 1], weights * jump)
    np.add.at(right, pairs[:, 0], -weights * jump)
    free = np.arange(1, net.count)
    value = np.zeros(net.count)
    value[free] = splu(matrix[free][:, free].tocsc()).solve(right[free])
    corners = value[net.at]
    # Within a triangle the leap is taken back.
    for k in (1, 2):
        step = leap[net.at[:, k]] - leap[net.at[:, 0]]
        corners[:, k] -= np.where(np.abs(step) == 2, np.sign(step), 0.0)
    length = float(_distances(net, sides, 0).max()) * 2
    width = max(float(np.sqrt(_area(net) / max(length, 1e-9) / (2 * np.pi))), 1e-6)
    radius = _area(net) / max(length, 1e-9) / (2 * np.pi)
    count = int(np.clip(round(2 * length / max(radius, width * 1e-3)), 4 * LEAST, MOST))
    points, found = _sections(net, corners, count, closed=True)
    return Recovered(points, found, closed=True)


def _area(net: _Net) -> float:
    p, q, r = (net.points[net.at[:, k]] for k in range(3))
    return float(np.linalg.norm(np.cross(q - p, r - p), axis=1).sum() / 2)


def _cut(net: _Net) -> npt.NDArray[np.int64]:
    """(V,): −1 and +1 for points beside a cut through a ring, under and over it, 0 elsewhere: of all planes through a
    point the one whose section there is shortest.
    """
    p = net.points[0]
    touching = net.at[(net.at == 0).any(1)]
    corners = net.points[touching]
    normal = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]).sum(0)
    normal = normal / max(float(np.linalg.norm(normal)), 1e-12)
    side = np.cross(normal, [1.0, 0.0, 0.0] if abs(normal[0]) < 0.8 else [0.0, 1.0, 0.0])
    side /= np.linalg.norm(side)
    ahead = np.cross(normal, side)
    best, found = np.inf, None
    for angle in np.linspace(0, np.pi, 24, endpoint=False):
        plane = np.cos(angle) * side + np.sin(angle) * ahead
        height = (net.points - p) @ plane
        height[np.abs(height) < 1e-9] = 1e-9
        over = height > 0
        mixed = over[net.at].any(1) & ~over[net.at].all(1)
        piece = _touching(net, mixed, int(np.flatnonzero((net.at == 0).any(1) & mixed)[0])) if (
            (net.at == 0).any(1) & mixed
        ).any() else None  # fmt: skip
        if piece is None:
            continue
        length = _area_of(net, piece)
        if length < best:
            best, found = length, (piece, over)
    if found is None:
        raise _nothing()
    piece, over = found
    leap = np.zeros(net.count, np.int64)
    used = np.unique(net.at[piece])
    leap[used] = np.where(over[used], 1, -1)
    return leap


def _area_of(net: _Net, piece: _Ints) -> float:
    corners = net.points[net.at[piece]]
    twice = np.linalg.norm(np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]), axis=1)
    return float(np.sqrt(twice).sum())


def _touching(net: _Net, wanted: npt.NDArray[np.bool_], start: int) -> _Ints:
    """Triangles among some that hang together with one by shared points."""
    rows = np.flatnonzero(wanted)
    at = net.at[rows]
    graph = scipy.sparse.coo_matrix(
        (np.ones(3 * len(rows)), (np.repeat(np.arange(len(rows)), 3), at.ravel())), shape=(len(rows), net.count)
    ).tocsr()
    _, label = connected_components(graph @ graph.T, directed=False)
    return np.asarray(rows[label == label[int(np.flatnonzero(rows == start)[0])]])
