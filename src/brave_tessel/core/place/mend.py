"""What is wrong with a mesh, and its mending: holes, faces turned round, faces without area, corners on open sides."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..phrases import Phrase, say_count
from .mesh import Faces, Mesh, Vector, joined, welded
from .solids import triangulated, turned
from .topology import neighbours, places

HOLES, TURNED, FLAT, GAPS = "holes", "turned", "without area", "gaps"
MENDS = (GAPS, FLAT, TURNED, HOLES)
"""In the order in which they are done."""
MOST_HOLE_SIDES = 400
_NEAR_MM = 0.05


@dataclass(frozen=True, slots=True)
class Health:
    """How many holes a mesh has, faces that look the other way than their neighbours (or all, if it is inside out),
    faces without area, and corners that lie on an open side of another face.
    """

    holes: int = 0
    turned: int = 0
    flat: int = 0
    gaps: int = 0
    closed: bool = False

    @property
    def sound(self) -> bool:
        """Whether there is nothing to mend."""
        return not (self.holes or self.turned or self.flat or self.gaps)

    def told(self) -> list[Phrase]:
        """What is wrong, in words."""
        found = []
        for count, one, many in (
            (self.holes, "1 hole", "{n} holes"),
            (self.turned, "1 face turned round", "{n} faces turned round"),
            (self.flat, "1 face without area", "{n} faces without area"),
            (self.gaps, "1 corner on an open side", "{n} corners on open sides"),
        ):
            if count:
                found.append(say_count(count, one, many))
        return found

    def wanted(self) -> tuple[str, ...]:
        """The mends that would help."""
        counts = {GAPS: self.gaps, FLAT: self.flat, TURNED: self.turned, HOLES: self.holes}
        return tuple(name for name in MENDS if counts[name])


def health(mesh: Mesh) -> Health:
    """What is wrong with a mesh, told without changing it."""
    if not mesh.count:
        return Health()
    flat = _without_area(mesh)
    good = mesh.part_of(np.flatnonzero(~flat).astype(np.int32)) if flat.any() else mesh
    gaps = len(_corners_on_sides(good)[0])
    loops = _loops(good)
    # A sheet is open all around: its outer border is no hole, nor is a floor's edge.
    holes = [loop for loop in loops if _is_hole(good, loop)]
    return Health(len(holes), int(_turned(good).sum()), int(flat.sum()), gaps, closed=not loops)


def _without_area(mesh: Mesh) -> npt.NDArray[np.bool_]:
    at = places(mesh)
    same = (at[:, 0] == at[:, 1]) | (at[:, 1] == at[:, 2]) | (at[:, 2] == at[:, 0])
    longest = np.linalg.norm(mesh.corners - np.roll(mesh.corners, -1, 1), axis=2).max(1)
    return np.asarray(same | (mesh.areas <= 1e-7 * np.maximum(longest, 1e-3) ** 2))


def _borders(mesh: Mesh) -> tuple[npt.NDArray[np.int64], npt.NDArray[np.int64]]:
    """Faces and sides that only one face has."""
    at = places(mesh)
    starts, ends = at.ravel().astype(np.int64), at[:, [1, 2, 0]].ravel().astype(np.int64)
    code = np.minimum(starts, ends) * (int(at.max()) + 1) + np.maximum(starts, ends)
    _, index, counts = np.unique(code, return_inverse=True, return_counts=True)
    alone = np.flatnonzero(counts[index] == 1)
    return alone // 3, alone % 3


def _loops(mesh: Mesh) -> list[npt.NDArray[np.int64]]:
    """Closed lines of open sides, as places; along each the mesh lies at the left."""
    faces, sides = _borders(mesh)
    at = places(mesh)
    following: dict[int, list[int]] = {}
    for start, end in zip(at[faces, sides].tolist(), at[faces, (sides + 1) % 3].tolist(), strict=True):
        following.setdefault(start, []).append(end)
    loops = []
    while following:
        first = here = next(iter(following))
        line = [first]
        while here in following:
            here_next = following[here].pop()
            if not following[here]:
                del following[here]
            here = here_next
            if here == first:
                break
            line.append(here)
        if here == first and len(line) >= 3:
            loops.append(np.array(line))
    return loops


def _points_by_place(mesh: Mesh) -> Vector:
    at = places(mesh)
    out = np.zeros((int(at.max()) + 1, 3))
    out[at.ravel()] = mesh.corners.reshape(-1, 3)
    return out


def _is_hole(mesh: Mesh, loop: npt.NDArray[np.int64]) -> bool:
    """Whether a border lies inside the mesh: filled, it would look the same way as what is round it."""
    points = _points_by_place(mesh)[loop]
    if len(loop) > MOST_HOLE_SIDES:
        return False
    around = np.isin(places(mesh), loop).sum(1) >= 2
    normal = (mesh.normals[around] * mesh.areas[around, None]).sum(0)
    size = float(np.linalg.norm(normal))
    area = np.cross(points, np.roll(points, -1, 0)).sum(0) / 2
    level = float(np.linalg.norm(area))
    if size < 1e-9 or level < 1e-9:
        return True
    # The mesh lies at the left of its border: round a hole the line runs the other way than round a sheet.
    flat = float(normal @ area) / (size * level)
    spread = float(np.linalg.norm(normal)) / max(float(mesh.areas[around].sum()), 1e-12)
    return flat < -0.5 or spread < 0.5 or abs(flat) <= 0.5


def _turned(mesh: Mesh) -> npt.NDArray[np.bool_]:
    """(T,): faces to be turned so that all of a shell look one way, and a closed shell outward."""
    at, across = places(mesh), neighbours(mesh)
    flip = np.zeros(mesh.count, bool)
    seen = np.zeros(mesh.count, bool)
    for seed in range(mesh.count):
        if seen[seed]:
            continue
        shell = _oriented(at, across, seed, seen, flip)
        corners = mesh.corners[shell]
        sign = np.where(flip[shell], -1.0, 1.0)
        volume = float((np.einsum("ij,ij->i", corners[:, 0], np.cross(corners[:, 1], corners[:, 2])) * sign).sum())
        closed = bool((across[shell] >= 0).all())
        most = flip[shell].sum() * 2 > len(shell)
        if (closed and volume < 0) or (not closed and most):
            flip[shell] = ~flip[shell]
    return flip


def _oriented(
    at: npt.NDArray[np.int32], across: npt.NDArray[np.int32], seed: int, seen: npt.NDArray[np.bool_],
    flip: npt.NDArray[np.bool_],
) -> npt.NDArray[np.int64]:  # fmt: skip
    """The shell of a face, each face flipped if it runs a shared side the same way as the one before it."""
    shell = [seed]
    seen[seed] = True
    for t in shell:
        for side in range(3):
            other = int(across[t, side])
            if other < 0 or seen[other]:
                continue
            start, end = at[t, side], at[t, (side + 1) % 3]
            same = any(at[other, k] == start and at[other, (k + 1) % 3] == end for k in range(3))
            flip[other] = flip[t] ^ same
            seen[other] = True
            shell.append(other)
    return np.array(shell)


def _corners_on_sides(mesh: Mesh) -> tuple[Faces, npt.NDArray[np.int64], npt.NDArray[np.int64]]:
    """Open sides (face, side) on which a corner of another open side lies, and that corner's place."""
    faces, sides = _borders(mesh)
    if not len(faces) or len(faces) > 40_000:
        none = np.zeros(0, np.int64)
        return none.astype(np.int32), none, none
    at, points = places(mesh), _points_by_place(mesh)
    start, end = points[at[faces, sides]], points[at[faces, (sides + 1) % 3]]
    loose = np.unique(at[faces, sides])
    found_face, found_side, found_place = [], [], []
    length = np.linalg.norm(end - start, axis=1)
    for row in range(len(faces)):
        away = points[loose] - start[row]
        along = away @ (end[row] - start[row]) / max(float(length[row]), 1e-12)
        off = np.sqrt(np.maximum((away**2).sum(1) - along**2, 0))
        on = np.flatnonzero((off < _NEAR_MM) & (along > _NEAR_MM) & (along < length[row] - _NEAR_MM))
        found_face += [int(faces[row])] * len(on)
        found_side += [int(sides[row])] * len(on)
        found_place += loose[on].tolist()
    return np.array(found_face, np.int32), np.array(found_side, np.int64), np.array(found_place, np.int64)


# Mending ---------------------------------------------------------------------------------------------


def mended(mesh: Mesh, asked: tuple[str, ...]) -> Mesh:
    """The mesh with what was asked for mended; faces that stay keep their groups, and new ones take a neighbour's."""
    for name in MENDS:
        if name in asked and mesh.count:
            mesh = _DOING[name](mesh)
    return mesh


def _close_gaps(mesh: Mesh) -> Mesh:
    """Faces are divided where a corner lies on their open side (T-junctions)."""
    for _ in range(8):
        faces, sides, at = _corners_on_sides(mesh)
        if not len(faces):
            break
        _, first = np.unique(faces, return_index=True)
        points = _points_by_place(mesh)[at[first]]
        mesh = _divided(mesh, faces[first], sides[first], points)
    return welded(mesh, within=0.01)


def _divided(mesh: Mesh, faces: Faces, sides: npt.NDArray[np.int64], points: Vector) -> Mesh:
    kept = np.setdiff1d(np.arange(mesh.count), faces)
    start = len(mesh.points)
    a = mesh.triangles[faces, sides]
    b = mesh.triangles[faces, (sides + 1) % 3]
    c = mesh.triangles[faces, (sides + 2) % 3]
    new = (start + np.arange(len(faces))).astype(np.int32)
    triangles = np.concatenate([mesh.triangles[kept], np.stack([a, new, c], 1), np.stack([new, b, c], 1)])
    unwrap = None
    if mesh.unwrap is not None:
        rows = np.arange(len(faces))
        ua, ub, uc = (mesh.unwrap[faces][rows, (sides + k) % 3] for k in range(3))
        pa, pb = mesh.points[a], mesh.points[b]
        share = np.einsum("ij,ij->i", points - pa, pb - pa) / np.maximum(((pb - pa) ** 2).sum(1), 1e-12)
        un = ua + share[:, None] * (ub - ua)
        unwrap = np.concatenate([mesh.unwrap[kept], np.stack([ua, un, uc], 1), np.stack([un, ub, uc], 1)])
    groups = np.concatenate([mesh.groups[kept], mesh.groups[faces], mesh.groups[faces]])
    return Mesh(
        np.concatenate([mesh.points, points]), triangles.astype(np.int32), groups, mesh.names, unwrap, mesh.unwrap_mm,
        mesh.crease,
    )  # fmt: skip


def _drop_flat(mesh: Mesh) -> Mesh:
    return mesh.part_of(np.flatnonzero(~_without_area(mesh)).astype(np.int32))


def _turn_round(mesh: Mesh) -> Mesh:
    flip = _turned(mesh)
    triangles = np.where(flip[:, None], mesh.triangles[:, [0, 2, 1]], mesh.triangles)
    unwrap = mesh.unwrap
    if unwrap is not None:
        unwrap = np.where(flip[:, None, None], unwrap[:, [0, 2, 1]], unwrap)
    return Mesh(mesh.points, triangles, mesh.groups, mesh.names, unwrap, mesh.unwrap_mm, mesh.crease)


def _fill_holes(mesh: Mesh) -> Mesh:
    """Each hole is filled in the plane that suits its border best (manifold3d's triangulation)."""
    points = _points_by_place(mesh)
    fills = [mesh]
    for loop in _loops(mesh):
        if not _is_hole(mesh, loop):
            continue
        # The fill runs the border the other way than the mesh does.
        border = points[loop[::-1]]
        filled = _filled(border)
        if filled is None:
            continue
        around = np.isin(places(mesh), loop).sum(1) >= 2
        group = int(np.bincount(mesh.groups[around]).argmax()) if around.any() else 0
        unwrap = None if mesh.unwrap is None else np.zeros((len(filled), 3, 2))
        groups = np.full(len(filled), group, np.int32)
        fills.append(Mesh(border, filled, groups, mesh.names, unwrap, mesh.unwrap_mm, mesh.crease))
    return welded(joined(fills), within=0.01) if len(fills) > 1 else mesh


def _filled(border: Vector) -> npt.NDArray[np.int32] | None:
    centre = border.mean(0)
    normal = np.cross(border - centre, np.roll(border, -1, 0) - centre).sum(0)
    size = float(np.linalg.norm(normal))
    if size < 1e-9:
        return None
    normal /= size
    along = border[1] - border[0]
    along = along - (along @ normal) * normal
    along /= max(float(np.linalg.norm(along)), 1e-12)
    flat = np.stack([(border - centre) @ along, (border - centre) @ np.cross(normal, along)], 1)
    if not np.array_equal(turned(flat, anticlockwise=True), flat):
        return None
    try:
        return triangulated([flat])
    except (RuntimeError, ValueError):
        # A border that crosses itself in its own plane cannot be filled so.
        return None


_DOING = {GAPS: _close_gaps, FLAT: _drop_flat, TURNED: _turn_round, HOLES: _fill_holes}
