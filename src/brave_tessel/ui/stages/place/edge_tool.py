"""A surface laid along an edge that is clicked on the model."""

from __future__ import annotations

import numpy as np

from ....core.place.edges import edge_line
from ....core.place.rays import Hit
from ....engine.intents import scene as intents
from ...desk import Desk
from ...words import tr


def lay_along_edge(desk: Desk, hit: Hit | None, laid: str) -> bool:
    """Lay something on the chosen part along the edge under a hit; whether there was one."""
    part = desk.selection.part
    found = edge_line(hit.standing.mesh, hit.face, hit.point) if hit is not None else None
    if hit is None or part is None or hit.part != part.id or found is None:
        desk.tell(tr("Click an edge of the chosen part."), "caution")
        return False
    points, closed = found
    into = np.linalg.inv(hit.standing.matrix)
    own = points @ into[:3, :3].T + into[:3, 3]
    return desk.dispatch(intents.laid_path(part.id, laid, own, closed=closed))
