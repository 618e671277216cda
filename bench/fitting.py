"""Setting out: course fits, schedules and recovered paths, beside the plain way."""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator
from functools import cache
from typing import Any

import numpy as np
import shapely
from tests.core.place.test_fit import every_way
from tests.core.place.test_recover import circle, helix, swept
from tests.core.place.test_schedule import one_by_one, outlines

from brave_tessel.core.kernels.mosaic import Mosaic
from brave_tessel.core.place.fit import Limits, Line, Span, fit_all
from brave_tessel.core.place.mesh import Mesh
from brave_tessel.core.place.recover import recover
from brave_tessel.core.place.schedule import count_units
from brave_tessel.core.recipe.set_out import Pitch

Case = tuple[str, Callable[[], Any], Callable[[], Any], str]
COURSE = Pitch(78.0, 3.0, "bed", "height")
REPEAT = (1800.0, 1200.0)


@cache
def walls() -> tuple[Span, ...]:
    """Fifty walls with four openings each: eight lines between two levels."""
    luck, out = random.Random(7), []
    for _ in range(50):
        height = luck.randint(2400, 4200) * 1000
        lines = tuple(Line(luck.randint(1, height - 1), side) for _ in range(4) for side in (-1, 1))
        out.append(Span(0, height, luck.randint(0, 78000), 78000, 3000, Limits.of(COURSE), lines))
    return tuple(out)


def every_count() -> list[Any]:
    """The plain way: every count of units by every way, in fractions."""
    return [min(every_way(wall)) for wall in walls()]


@cache
def facade(wide: float, tall: float) -> tuple[Any, Mosaic]:
    wall = shapely.box(0, 0, wide, tall)
    for x in np.arange(900.0, wide - 1500.0, 2400.0):
        for y in np.arange(900.0, tall - 1500.0, 2700.0):
            wall = wall.difference(shapely.box(x, y, x + 1010.0, y + 1210.0))
    return wall, outlines(size=REPEAT, length=215.0, height=65.0, joint=10.0)


@cache
def cable() -> Mesh:
    """A cable of 100 000 triangles wound up a helix."""
    return swept(helix, circle(25.0, 20), 2500, capped=True)


def slices() -> np.ndarray:
    """The plain way: a plane at every point of a line that is known, all triangles against it."""
    mesh = cable()
    corners = mesh.corners
    out = []
    for t in np.linspace(0.01, 0.99, 64):
        at, ahead = helix(np.array([t]))[0], helix(np.array([t + 1e-4]))[0]
        height = (corners - at) @ (ahead - at)
        crossing = (height.min(1) < 0) & (height.max(1) > 0) & (np.linalg.norm(corners.mean(1) - at, axis=1) < 60.0)
        out.append(corners[crossing].mean((0, 1)))
    return np.array(out)


def cases() -> Iterator[Case]:
    yield "fit 50 walls with 4 openings each", lambda: fit_all(walls()), every_count, "every way in fractions"
    large, mosaic = facade(26000.0, 18000.0)
    small, _ = facade(5200.0, 3600.0)
    yield (
        "schedule of 20 000 units",
        lambda: count_units(large, mosaic, REPEAT),
        lambda: one_by_one(small, mosaic, REPEAT),
        "shapely, one by one, of a 25th",
    )
    yield "path of a cable of 100 k triangles", lambda: recover(cable()), slices, "64 numpy slices of a known line"
