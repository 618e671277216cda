"""Points that a picked point is drawn to: corners, edges and their middles, levels, a grid."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..phrases import Phrase, say
from .mesh import Mesh, Vector
from .rays import Hit
from .site import Site
from .topology import kept_with, neighbours

SHARP = np.cos(np.radians(20.0))


@dataclass(frozen=True, slots=True)
class Snapped:
    """A point, mm, and what it lies on in words; ``along`` is the edge's direction where it lies on one."""

    at: Vector
    name: Phrase
    along: Vector | None = None


def edges(mesh: Mesh) -> Vector:
    """(E, 2, 3): the edges that can be seen, where faces meet at an angle or end, mm."""

    def find() -> Vector:
        across = neighbours(mesh)
        turned = np.einsum("tk,tsk->ts", mesh.normals, mesh.normals[np.maximum(across, 0)])
        sharp = (across < 0) | (turned < SHARP)
        # Every inner edge is seen from both of its faces: it counts once.
        sharp &= (across < 0) | (np.arange(mesh.count)[:, None] < across)
        rows, sides = np.nonzero(sharp)
        ends = mesh.corners[rows, sides], mesh.corners[rows, (sides + 1) % 3]
        return np.stack(ends, 1)

    return kept_with(mesh, "edges", find)


def snap(site: Site, hit: Hit, reach: float, *, grid: float = 0.0, kinds: frozenset[str] = frozenset()) -> Snapped:
    """The point of a hit drawn to what lies within ``reach`` mm of it: a corner first, then the middle of an edge, an
    edge where a level crosses it, an edge, a level, the grid; else it stays on the face.

    Parameters
    ----------
    kinds : which of corner, middle, edge, level and grid it is drawn to; empty is all
    """  # fmt: skip
    wanted = kinds or frozenset({"corner", "middle", "edge", "level", "grid"})
    lines = edges(hit.standing.mesh)
    found = _of_edges(site, hit, lines, reach, wanted) if len(lines) else None
    if found is None and "level" in wanted:
        found = _on_level(site, hit, reach)
    if found is None and grid > 0 and "grid" in wanted:
        found = Snapped(_on_grid(hit, grid), say("grid"))
    return found or Snapped(hit.point, say("on the face"))


def _of_edges(site: Site, hit: Hit, lines: Vector, reach: float, wanted: frozenset[str]) -> Snapped | None:
    start, side = lines[:, 0], lines[:, 1] - lines[:, 0]
    length = np.linalg.norm(side, axis=1)
    share = np.clip(np.einsum("ek,ek->e", hit.point - start, side) / np.maximum(length**2, 1e-12), 0, 1)
    near = start + share[:, None] * side
    gap = np.linalg.norm(near - hit.point, axis=1)
    ends = lines.reshape(-1, 3)
    if "corner" in wanted:
        away = np.linalg.norm(ends - hit.point, axis=1)
        best = int(away.argmin())
        if away[best] <= reach:
            return Snapped(ends[best], _named(site, say("corner"), ends[best]), side[best // 2] / length[best // 2])
    best = int(gap.argmin())
    along = side[best] / max(float(length[best]), 1e-12)
    middle = start[best] + side[best] / 2
    if "middle" in wanted and np.linalg.norm(middle - hit.point) <= reach:
        return Snapped(middle, _named(site, say("middle of an edge"), middle), along)
    if "edge" in wanted and gap[best] <= reach:
        at = _crossed(site, start[best], side[best], near[best], reach) if "level" in wanted else near[best]
        return Snapped(at, _named(site, say("edge"), at), along)
    return None


def _crossed(site: Site, start: Vector, side: Vector, near: Vector, reach: float) -> Vector:
    """Where a level crosses an edge close to a point of it; else that point."""
    if abs(side[2]) < 1e-9:
        return near
    for level in site.scene.levels:
        share = (level.height - start[2]) / side[2]
        if 0 <= share <= 1 and abs(level.height - near[2]) <= reach:
            return np.asarray(start + share * side)
    return near


def _on_level(site: Site, hit: Hit, reach: float) -> Snapped | None:
    """The point of the face at the height of a level that is near."""
    normal = hit.normal
    steep = np.array([0.0, 0.0, 1.0]) - normal[2] * normal
    if np.linalg.norm(steep) < 1e-3:
        return None
    near = sorted(site.scene.levels, key=lambda level: abs(level.height - hit.point[2]))
    if not near or abs(near[0].height - hit.point[2]) > reach:
        return None
    at = hit.point + steep / steep[2] * (near[0].height - hit.point[2])
    level = np.cross(np.array([0.0, 0.0, 1.0]), normal)
    return Snapped(at, say("level {name}", name=near[0].name), level / np.linalg.norm(level))


def _on_grid(hit: Hit, grid: float) -> Vector:
    """The nearest point of a grid of the scene that lies in the face's plane: two of its axes are rounded."""
    normal = hit.normal
    steep = int(np.abs(normal).argmax())
    at = hit.point.copy()
    others = [axis for axis in range(3) if axis != steep]
    at[others] = np.round(at[others] / grid) * grid
    at[steep] = hit.point[steep] - float(
        sum(normal[axis] * (at[axis] - hit.point[axis]) for axis in others) / normal[steep]
    )
    return at


def _named(site: Site, what: Phrase, at: Vector) -> Phrase:
    """What it is and the level it lies on, if it lies on one."""
    level = next((one for one in site.scene.levels if abs(one.height - at[2]) < 0.5), None)
    return say("{what}, {name}", what=what, name=level.name) if level else what
