"""What Place and Hand over show: pictures of every surface laid, all maps of one with its checks."""

from __future__ import annotations

import dataclasses
import time
from collections.abc import Callable

from ...core.colour import display_codes
from ...core.errors import TesselError
from ...core.handover.check import run_checks
from ...core.handover.conversions import packed_orm
from ...core.job.layers import Surface
from ...core.maps import MapKind
from ...core.relief.pictures import map_codes, mip_chain
from ...core.repeat.resample import resample_wrapped
from ...core.sheet import Grid
from ..snapshot import Snapshot
from .results import SceneTextures, SurfacePicture
from .surface import Showing, surface_picture

Current = Callable[[], bool]

CONTACT = (
    MapKind.BASE_COLOUR,
    MapKind.HEIGHT,
    MapKind.NORMAL,
    MapKind.ROUGHNESS,
    MapKind.METALNESS,
    MapKind.AMBIENT_OCCLUSION,
)
"""The maps of the contact sheet, in reading order."""


def hand_over_picture(snapshot: Snapshot, surface: Surface, showing: Showing, *, current: Current) -> SurfacePicture:
    """One surface with the pictures of every map and its checks."""
    done = surface_picture(snapshot, surface, showing, fine=True, current=current)
    contact = {kind: mip_chain(map_codes(kind, done.maps)) for kind in CONTACT}
    return dataclasses.replace(done, contact=contact, findings=run_checks(snapshot.job, surface, done.maps))


def scene_textures(snapshot: Snapshot, *, px: int, current: Current) -> SceneTextures:
    """Pictures of every surface laid in the scene, and a swatch of every surface of the job."""
    begun = time.perf_counter()
    planner = snapshot.planner()
    run = snapshot.evaluation(current)
    laid = {one.surface for part in snapshot.job.scene.parts for one in part.laid}
    done, swatches = {}, {}
    for surface in snapshot.job.surfaces:
        grid = Grid.for_repeat(surface.width_mm, surface.height_mm, px if surface.id in laid else 256)
        task = planner.finished(surface, grid)
        try:
            maps = run.value(task)
        except TesselError:
            continue
        base = display_codes(maps[MapKind.BASE_COLOUR])
        swatches[surface.id] = display_codes(resample_wrapped(maps[MapKind.BASE_COLOUR], (64, 64)))
        if surface.id in laid:
            orm = packed_orm(maps[MapKind.AMBIENT_OCCLUSION], maps[MapKind.ROUGHNESS], maps[MapKind.METALNESS])
            done[surface.id] = (task.key, base, map_codes(MapKind.NORMAL, maps), orm)
    return SceneTextures(done, (time.perf_counter() - begun) * 1000, swatches)
