"""Work for the worker: what each stage's board shows, computed off the window's thread."""

from __future__ import annotations

import dataclasses
import time
from collections.abc import Callable

import cv2
import numpy as np

from ..core.colour import display_codes, encode_srgb
from ..core.document import Job, Source, Surface
from ..core.errors import MissingError, TesselError
from ..core.gather.even_light import light_drift
from ..core.gather.straighten import proportion
from ..core.handover.checks import run_checks
from ..core.handover.conversions import packed_orm
from ..core.maps import MapKind
from ..core.plan import FLAT_PX, Light
from ..core.relief.pictures import VIEWS, map_codes, mip_chain
from ..core.repeat.cut import Cuts, close_across, paths_on_cell
from ..core.repeat.mend import level_rows
from ..core.repeat.meters import read_cut, read_repetition, read_seam
from ..core.repeat.resample import resample_wrapped
from ..core.sheet import AnyArray, Grid, Raster
from ..engine.evaluate import Evaluation
from ..engine.session import Session
from .results import CutPicture, GatherPicture, SceneTextures, SheetPicture, SurfacePicture

Current = Callable[[], bool]
THUMB = 40
CONTACT = (
    MapKind.BASE_COLOUR, MapKind.HEIGHT, MapKind.NORMAL, MapKind.ROUGHNESS, MapKind.METALNESS, MapKind.AMBIENT_OCCLUSION,
)  # fmt: skip
"""The maps of the contact sheet, in reading order."""


def surface_picture(
    session: Session, job: Job, surface: Surface, *, px: int, light: Light, view: str, fine: bool, current: Current
) -> SurfacePicture:
    """One surface for the build board."""
    begun = time.perf_counter()
    planner = session.planner(job)
    run = session.evaluation(current)
    grid = Grid.for_repeat(surface.width_mm, surface.height_mm, px)
    kind = VIEWS[view]
    maps = run.value(planner.finished(surface, grid))
    if kind is MapKind.CURVATURE:
        maps = maps.with_maps(curvature=run.value(planner.curvature(surface, grid)))
    codes = run.value(planner.lit(surface, grid, light)) if kind is None else map_codes(kind, maps)
    stacks = [run.value(task) for task in planner.stacks(surface, grid)]
    thumbs = {} if fine else _thumbs(run, session, job, surface, grid)
    ms = (time.perf_counter() - begun) * 1000
    return SurfacePicture(surface, grid, mip_chain(codes), maps, stacks, thumbs, dict(run.faults), ms, fine)


def _thumbs(run: Evaluation, session: Session, job: Job, surface: Surface, grid: Grid) -> dict[str, AnyArray]:
    """A small picture of each layer's colour where it lies, on paper grey elsewhere."""
    planner = session.planner(job)
    below = planner.stacks(surface, grid)
    thumbs = {}
    for layer, under in zip(surface.layers, below, strict=False):
        try:
            colour = run.value(planner.layer_maps(layer, grid)).or_default(MapKind.BASE_COLOUR)
            cover = planner.coverage(layer, under, grid)
            share = np.ones(grid.shape, np.float32) if cover is None else run.value(cover)
        except TesselError as error:
            run.faults[layer.id] = error
            continue
        mixed = colour * share[..., None] + np.float32(0.72) * (1 - share[..., None])
        side = min(grid.shape)
        small = cv2.resize(np.ascontiguousarray(mixed[:side, :side]), (THUMB * 2, THUMB * 2), interpolation=cv2.INTER_AREA)
        thumbs[layer.id] = display_codes(np.asarray(small, np.float32))
    return thumbs


def sheet_picture(session: Session, job: Job, source: Source, *, current: Current) -> SheetPicture:
    """A source's sheet and its meters."""
    begun = time.perf_counter()
    planner = session.planner(job)
    run = session.evaluation(current)
    sheet = run.value(planner.sheet(source, FLAT_PX))
    found = run.value(planner.found(source))
    flat = run.value(planner.flat(source, FLAT_PX))
    colour = sheet[MapKind.BASE_COLOUR]
    encoded = encode_srgb(np.clip(colour, 0, 1)).astype(np.float32)
    x, y = read_seam(encoded, axis=1, structured=True), read_seam(encoded, axis=0, structured=True)
    cut = None
    if isinstance(found, Cuts):
        level = level_rows(flat, source.mend.complete()) if source.mend.op == "mend.courses" else flat
        cut = _cut_picture(level[MapKind.BASE_COLOUR], found, sheet.grid)
    ms = (time.perf_counter() - begun) * 1000
    wide = run.value(planner.broken(source, FLAT_PX))
    field = mip_chain(display_codes(wide[MapKind.BASE_COLOUR])) if wide is not sheet else None
    return SheetPicture(
        source, sheet.grid, mip_chain(display_codes(colour)), wide.grid, field, cut, (x, y),
        read_repetition(wide[MapKind.BASE_COLOUR]),
        light_drift(flat[MapKind.BASE_COLOUR]), ms,
    )  # fmt: skip


def _cut_picture(flat: Raster, cuts: Cuts, cell: Grid) -> CutPicture:
    rows, columns = cell.shape
    path_x, path_y = paths_on_cell(cuts, rows, columns)
    whole = encode_srgb(np.clip(flat, 0, 1)).astype(np.float32)
    across = read_cut(whole, cuts.x, cuts.overlap_x)
    turned = np.ascontiguousarray(close_across(whole, cuts).swapaxes(0, 1))
    up = read_cut(turned, cuts.y, cuts.overlap_y)
    if across.ratio >= up.ratio:
        row = min(across.worst / (1 - cuts.overlap_y), 0.999)
        worst = (float(path_x[int(row * rows)]), row)
    else:
        worst = (up.worst, float(path_y[int(up.worst * columns)]))
    return CutPicture(path_x, path_y, (across.ratio, up.ratio), worst)


def hand_over_picture(session: Session, job: Job, surface: Surface, *, px: int, light: Light, current: Current) -> SurfacePicture:
    """One surface with the pictures of every map and its checks."""
    done = surface_picture(session, job, surface, px=px, light=light, view="Lit", fine=True, current=current)
    contact = {kind: mip_chain(map_codes(kind, done.maps)) for kind in CONTACT}
    return dataclasses.replace(done, contact=contact, findings=run_checks(job, surface, done.maps))


STRIP_PX = 420


def gather_picture(session: Session, job: Job, source: Source, *, with_photo: bool, current: Current) -> GatherPicture:
    """A source for the gather board; the photo only when it is another than before."""
    photo = mip_chain(display_codes(session.load_pixels(source.blob)), smallest=64) if with_photo else None
    try:
        ratio: float | None = proportion(
            source.straightening.corners, picture_size=(source.width_px, source.height_px)
        )
    except TesselError:
        ratio = None
    straight = evened = None
    drift = (0.0, 0.0)
    if source.straightening.sized:
        planner = session.planner(job)
        run = session.evaluation(current)
        try:
            done = planner.flat(source, STRIP_PX)
            after = run.value(done)[MapKind.BASE_COLOUR]
            before = run.value(done.inputs[0])[MapKind.BASE_COLOUR]
            straight, evened = display_codes(before), display_codes(after)
            drift = (light_drift(before), light_drift(after))
        except MissingError:
            pass
    return GatherPicture(source, photo, straight, evened, drift, ratio)


def scene_textures(session: Session, job: Job, *, px: int, current: Current) -> SceneTextures:
    """Pictures of every surface laid in the scene, and a swatch of every surface of the job."""
    begun = time.perf_counter()
    planner = session.planner(job)
    run = session.evaluation(current)
    laid = {part.surface for part in job.scene.parts}
    done, swatches = {}, {}
    for surface in job.surfaces:
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
