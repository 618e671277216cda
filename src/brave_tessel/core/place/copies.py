"""Copies of a part: in a row, in a ring, mirrored."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ..job.scene import Part, Scene
from ..operation import Angle, Choice, Length, Whole, operation
from .frames import about, own_matrix, world_matrix
from .mesh import Matrix

MOST = 500


@operation("copies.row", label="Row")
def row(
    *,
    count: Annotated[int, Whole(2, 40, most=MOST, help="How many stand in the row, the first counted.")] = 3,
    across: Annotated[float, Length(-5000, 5000, least=-1e6, most=1e6, help="From one to the next, along x.")] = 1200.0,
    deep: Annotated[float, Length(-5000, 5000, least=-1e6, most=1e6, help="From one to the next, along y.")] = 0.0,
    up: Annotated[float, Length(-5000, 5000, least=-1e6, most=1e6, help="From one to the next, upward.")] = 0.0,
) -> list[Matrix]:
    """One beside the other at equal steps."""
    return [_moved(k * across, k * deep, k * up) for k in range(count)]


@operation("copies.ring", label="Ring")
def ring(
    *,
    count: Annotated[int, Whole(2, 40, most=MOST, help="How many stand in the ring, the first counted.")] = 6,
    x: Annotated[float, Length(-5000, 5000, least=-1e6, most=1e6, help="Where its middle lies, along x.")] = 0.0,
    y: Annotated[float, Length(-5000, 5000, least=-1e6, most=1e6, help="Where its middle lies, along y.")] = 2000.0,
    angle: Annotated[float, Angle(-360, 360, help="From the first round to the next after the last.")] = 360.0,
) -> list[Matrix]:
    """About an upright line, each turned with it."""  # fmt: skip
    middle, up = np.array([x, y, 0.0]), np.array([0.0, 0.0, 1.0])
    return [about(middle, up, angle * k / count) for k in range(count)]


@operation("copies.mirror", label="Mirrored pair")
def mirror(
    *,
    plane: Annotated[str, Choice("across x", "across y", help="Which way the second looks.")] = "across x",
    at: Annotated[float, Length(-5000, 5000, least=-1e6, most=1e6, help="Where the mirror stands.")] = 2000.0,
) -> list[Matrix]:
    """The part and its mirror image."""
    axis = 0 if plane == "across x" else 1
    turned = np.eye(4)
    turned[axis, axis], turned[axis, 3] = -1.0, 2 * at
    return [np.eye(4), turned]


def _moved(x: float, y: float, z: float) -> Matrix:
    out = np.eye(4)
    out[:3, 3] = x, y, z
    return out


def copy_matrices(scene: Scene, part: Part) -> list[Matrix]:
    """Where a part and its copies stand in the scene, the part itself first. Copies are set out in the mm of what it
    lies in; copies of what that lies in are multiplied with them.
    """
    whole = world_matrix(scene, part)
    lines = [part]
    seen = {part.id}
    above = scene.part(part.parent)
    while above is not None and above.id not in seen:
        seen.add(above.id)
        lines.append(above)
        above = scene.part(above.parent)
    out = [np.eye(4)]
    # From the outermost: each level sets its copies out in what it lies in.
    for one in reversed(lines):
        own = own_matrix(one)
        steps = _steps(one)
        out = [matrix @ step @ own for step in steps for matrix in out][:MOST]
    # The part's own place comes first, whatever is copied.
    out[0] = whole if not np.allclose(out[0], whole) else out[0]
    return out


def _steps(part: Part) -> list[Matrix]:
    copies = part.copies
    if copies is None or not copies.known:
        return [np.eye(4)]
    found: list[Matrix] = copies.operation.run(**copies.bound())
    return found
