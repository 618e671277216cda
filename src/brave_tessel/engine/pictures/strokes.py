"""Work for the worker: what a stroke has changed of a surface's picture since it was last shown, and nothing else."""

from __future__ import annotations

import time
from dataclasses import dataclass

from ...core.buildup.strokes import changed_boxes
from ...core.job.layers import Stroke, Surface
from ...core.maps import MapKind
from ...core.plan.area import Area, area_of
from ...core.plan.tasks import Task
from ...core.relief.pictures import VIEWS, map_codes, mip_chain
from ...core.sheet import AnyArray, Grid
from ..areas import AreaRun, NotLocalError
from ..snapshot import Snapshot
from .results import SurfaceParts, SurfacePicture
from .surface import Showing

STEP = 32
"""Parts begin and end at multiples of so many pixels, so that they can be laid into the picture's smaller versions."""


def root_of(snapshot: Snapshot, surface: Surface, grid: Grid, showing: Showing) -> Task:
    """What the picture is made of.

    Raises
    ------
    NotLocalError
        in views that are not worked out pixel by pixel.
    """
    kind, planner = VIEWS[showing.view], snapshot.planner()
    if kind is None:
        return planner.lit(surface, grid, snapshot.lighting(surface.stance, showing.eye))
    if not isinstance(kind, MapKind) or kind is MapKind.CURVATURE:
        raise NotLocalError
    return planner.finished(surface, grid)


@dataclass(slots=True)
class Shown:
    """A whole picture that parts can be laid into, and what it was made of."""

    base: SurfacePicture
    showing: Showing
    _root: Task | None = None

    def root(self) -> Task:
        """Planned once for all strokes on it."""
        if self._root is None:
            assert self.base.snapshot is not None
            self._root = root_of(self.base.snapshot, self.base.surface, self.base.grid, self.showing)
        return self._root


def stroke_parts(
    snapshot: Snapshot, surface: Surface, shown: Shown, *, before: Stroke | None, stroke: Stroke, moving: bool = False
) -> SurfaceParts:
    """The parts of a picture that change when a stroke, shown as ``before`` so far, becomes ``stroke``; while the hand
    is ``moving`` without what looks far around.

    Raises
    ------
    NotLocalError
        when the whole picture has to be made.
    """
    begun = time.perf_counter()
    base, showing = shown.base, shown.showing
    if showing.solo:
        raise NotLocalError
    grid, run = base.grid, AreaRun(snapshot.cache, moving=moving)
    root = root_of(snapshot, surface, grid, showing)
    seen = run.plan(root, shown.root())
    areas = [
        area_of(grid, *box).grown(seen + 1).aligned(STEP)
        for box in changed_boxes(before, stroke, grid.width_mm, grid.height_mm)
    ]
    parts = tuple((area, mip_chain(_codes(run, root, area, showing, base))) for area in areas)
    return SurfaceParts(parts, stroke, (time.perf_counter() - begun) * 1000)


def _codes(run: AreaRun, root: Task, area: Area, showing: Showing, base: SurfacePicture) -> AnyArray:
    made = run.value(root, area)
    kind = VIEWS[showing.view]
    if kind is None:
        return made  # type: ignore[no-any-return]
    assert isinstance(kind, MapKind)
    height = base.maps[MapKind.HEIGHT]
    return map_codes(kind, made, (float(height.min()), float(height.max())) if kind is MapKind.HEIGHT else None)
