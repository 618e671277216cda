"""Faces without a surface that somebody would see."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from ...job.commands import Insert
from ...job.nodes import new_id
from ...job.scene import Laid, Part, Place
from ...phrases import say
from ..check import SceneFinding, scene_check, shown
from ..groups import DOOR, FRAME, GLASS
from ..mesh import Faces
from ..rays import tree_of
from ..site import BARE, Site, Standing

WORTH_MM2 = 50_000.0
CLOSE_MM = 200.0
"""A face with something this near in front of it is hidden; so is one that lies within something."""
_LEFT_OUT = {str(DOOR), str(FRAME), str(GLASS)}
_PLAIN = {"made.figure", "made.known"}
_SAMPLES = 48


@scene_check("bare")
def bare_faces(site: Site) -> Iterator[SceneFinding]:
    """Faces of a part stay bare beside faces of it that are covered."""
    for one in shown(site):
        plain = one.part.piece is not None and one.part.piece.op in _PLAIN
        # Whoever gave it a colour of its own meant it to be bare.
        if not one.part.laid or plain or one.part.bare != Part(id="", name="").bare:
            continue
        names = [str(name) for name in one.mesh.names]
        seen = []
        for number, name in enumerate(names):
            mine = one.faces_of(BARE)
            mine = mine[one.mesh.groups[mine] == number]
            area = float(one.mesh.areas[mine].sum())
            if area < WORTH_MM2 or name in _LEFT_OUT or name in one.part.colours:
                continue
            share, place = open_share(site, one, mine)
            if share * area >= WORTH_MM2:
                seen.append((name, share * area, place))
        if seen:
            yield _finding(one, seen)


def open_share(site: Site, one: Standing, faces: Faces) -> tuple[float, Place]:
    """The share of some faces that has room before it, over ground, and a place on them that has."""
    weights = one.mesh.areas[faces]
    # Spread evenly over the area, the same every time.
    at = (np.arange(_SAMPLES) + 0.5) / _SAMPLES * weights.sum()
    chosen = faces[np.minimum(np.searchsorted(np.cumsum(weights), at), len(faces) - 1)]
    shares = np.modf(np.outer(np.arange(_SAMPLES) + 0.5, [0.754877, 0.569840]))[0]
    over = shares.sum(1) > 1
    shares[over] = 1 - shares[over]
    p, q, r = (one.mesh.corners[chosen, k] for k in range(3))
    points = p + shares[:, :1] * (q - p) + shares[:, 1:] * (r - p)
    normals = one.mesh.normals[chosen]
    free = np.ones(_SAMPLES)
    for other in site.standing:
        if other.mesh.count:
            tree = tree_of(other.mesh)
            free *= tree.free(points + normals, normals, CLOSE_MM)
            met = tree.first(points + normals, normals)
            # What is met from behind is left from within.
            behind = np.einsum("ij,ij->i", other.mesh.normals[np.maximum(met, 0)], normals) > 0
            free *= ~((met >= 0) & behind & (other is not one))
    lowest = min(float(other.mesh.box[0][2]) for other in site.standing if other.mesh.count)
    free *= (normals[:, 2] > -0.9) | (points[:, 2] > lowest + 1200.0)
    x, y, z = (float(v) for v in points[int(free.argmax())])
    return float(free.mean()), (x, y, z)


def _finding(one: Standing, seen: list[tuple[str, float, Place]]) -> SceneFinding:
    area = sum(part for _, part, _ in seen) / 1e6
    groups = tuple(name for name, _, _ in seen)
    first = one.part.laid[0]
    laid = Laid(id=new_id("laid"), surface=first.surface, groups=groups, laying=first.laying, datum=first.datum)
    return SceneFinding(
        "bare", one.part.id, "", "caution", say("Faces without a surface"),
        say("{names} of {part}: {area:.2f} m² bare.", names=", ".join(groups), part=one.part.name, area=area),
        max(seen, key=lambda entry: entry[1])[2],
        Insert(path=("scene", "parts", one.part.id, "laid"), item=laid, index=0, label="Lay on the bare faces"),
        say("Lay the part's first surface on them"),
    )  # fmt: skip
