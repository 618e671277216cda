"""Work for the worker: what each stage's board shows, computed off the window's thread."""

from __future__ import annotations

import dataclasses
import time
from collections.abc import Callable

import numpy as np

from ...core.colour import display_codes, encode_srgb
from ...core.errors import MissingError, TesselError
from ...core.gather.even_light import light_drift
from ...core.gather.straighten import proportion
from ...core.handover.checks import run_checks
from ...core.handover.conversions import packed_orm
from ...core.job.document import Job, Source, Surface
from ...core.kernels.relief import cast_shadow, normal_of_height, occlusion
from ...core.kernels.shade import shade
from ...core.maps import MapKind, MapSet
from ...core.plan.planner import FLAT_PX, OCCLUSION_REACH_MM, Light
from ...core.relief.pictures import map_codes, mip_chain
from ...core.repeat.cut import Cuts, close_across, paths_on_cell
from ...core.repeat.mend import level_rows
from ...core.repeat.meters import read_cut, read_repetition, read_seam, read_spacing, worst_of_join
from ...core.repeat.quieten import find_features
from ...core.repeat.resample import resample_wrapped, resampled
from ...core.sheet import AnyArray, Grid, Raster
from ..session import Session
from .results import (
    ChoicePicture,
    CutPicture,
    GatherPicture,
    MapReading,
    ScatterPicture,
    SceneTextures,
    SheetPicture,
    SurfacePicture,
)
from .surface import surface_picture

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


SMALL_PX = 256
ROUGH_PX = 160
_READ = (
    MapKind.BASE_COLOUR,
    MapKind.HEIGHT,
    MapKind.NORMAL,
    MapKind.ROUGHNESS,
    MapKind.METALNESS,
    MapKind.AMBIENT_OCCLUSION,
)


def sheet_picture(
    session: Session, job: Job, source: Source, *, current: Current, progress: Callable[[str], None] | None = None
) -> SheetPicture:
    """A source's sheet and its meters."""
    begun = time.perf_counter()
    planner = session.planner(job)
    run = session.evaluation(current, progress)
    sheet = run.value(planner.sheet(source, FLAT_PX))
    mended = run.value(planner.mended(source, FLAT_PX))
    found, flat = None, mended
    if source.scatter is None:
        found, flat = run.value(planner.found(source)), run.value(planner.flat(source, FLAT_PX))
    colour = sheet[MapKind.BASE_COLOUR]
    encoded = encode_srgb(np.clip(colour, 0, 1)).astype(np.float32)
    x, y = read_seam(encoded, axis=1, structured=True), read_seam(encoded, axis=0, structured=True)
    cut = None
    if isinstance(found, Cuts):
        level = level_rows(flat, source.mend.complete()) if source.mend.op == "mend.courses" else flat
        cut = _cut_picture(level[MapKind.BASE_COLOUR], found, mended.grid)
    wide = run.value(planner.broken(source, FLAT_PX))
    field = mip_chain(display_codes(wide[MapKind.BASE_COLOUR])) if wide is not sheet else None
    return SheetPicture(
        source,
        sheet.grid,
        mip_chain(display_codes(colour)),
        wide.grid,
        field,
        cut,
        (x, y),
        read_repetition(wide[MapKind.BASE_COLOUR]),
        light_drift(flat[MapKind.BASE_COLOUR]),
        (time.perf_counter() - begun) * 1000,
        _small(sheet),
        _small(mended),
        _per_map(sheet, encoded),
        (read_spacing(encoded, axis=1), read_spacing(encoded, axis=0)),
        tuple(find_features(colour, sheet.grid)),
    )


def _per_map(sheet: MapSet, encoded: Raster) -> tuple[MapReading, ...]:
    """The seams of every map of a sheet."""
    readings = []
    for kind in _READ:
        if kind not in sheet:
            continue
        pixels = encoded if kind is MapKind.BASE_COLOUR else sheet[kind]
        seams = read_seam(pixels, axis=1, structured=True), read_seam(pixels, axis=0, structured=True)
        readings.append(MapReading(kind, seams, (worst_of_join(pixels, axis=1), worst_of_join(pixels, axis=0))))
    return tuple(readings)


def _small(sheet: MapSet) -> MapSet:
    grid = sheet.grid
    small = Grid.for_repeat(grid.width_mm, grid.height_mm, min(SMALL_PX, max(grid.shape)))
    return MapSet(small, {kind: resampled(kind, pixels, small.shape) for kind, pixels in sheet.maps.items()})


def stroke_picture(
    session: Session, job: Job, source: Source, before: SheetPicture, *, current: Current
) -> SheetPicture:
    """The sheet while a stroke is drawn: its picture, with the meters as they were."""
    begun = time.perf_counter()
    sheet = session.evaluation(current).value(session.planner(job).sheet(source, FLAT_PX))
    mips = mip_chain(display_codes(sheet[MapKind.BASE_COLOUR]))
    ms = (time.perf_counter() - begun) * 1000
    return dataclasses.replace(
        before, source=source, mips=mips, field_mips=None if before.field_mips is None else before.field_mips, ms=ms
    )


def rough_picture(session: Session, job: Job, source: Source, *, current: Current) -> SheetPicture:
    """A first, rough look at a sheet that takes long to make."""
    begun = time.perf_counter()
    sheet = session.evaluation(current).value(session.planner(job).mended(source, SMALL_PX, find_px=ROUGH_PX))
    colour = sheet[MapKind.BASE_COLOUR]
    small = _small(sheet)
    encoded = encode_srgb(np.clip(small[MapKind.BASE_COLOUR], 0, 1)).astype(np.float32)
    seams = read_seam(encoded, axis=1, structured=True), read_seam(encoded, axis=0, structured=True)
    return SheetPicture(
        source,
        sheet.grid,
        mip_chain(display_codes(colour)),
        sheet.grid,
        None,
        None,
        seams,
        read_repetition(small[MapKind.BASE_COLOUR]),
        light_drift(small[MapKind.BASE_COLOUR]),
        (time.perf_counter() - begun) * 1000,
        small,
        small,
        rough=True,
    )


CHOICE_PX = 768


def choice_picture(session: Session, job: Job, source: Source, *, current: Current) -> ChoicePicture:
    """The whole straight sheet."""
    whole = session.evaluation(current).value(session.planner(job).evened(source, CHOICE_PX))
    return ChoicePicture(whole.grid, mip_chain(display_codes(whole.or_default(MapKind.BASE_COLOUR))))


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
    laps = cuts.overlap_x / (1 - cuts.overlap_x), cuts.overlap_y / (1 - cuts.overlap_y)
    outlines = tuple(patch.edge() for patch in cuts.patches)
    return CutPicture(path_x, path_y, (across.ratio, up.ratio), worst, laps, outlines)


def hand_over_picture(
    session: Session, job: Job, surface: Surface, *, px: int, light: Light, current: Current
) -> SurfacePicture:
    """One surface with the pictures of every map and its checks."""
    done = surface_picture(session, job, surface, px=px, light=light, view="Lit", fine=True, current=current)
    contact = {kind: mip_chain(map_codes(kind, done.maps)) for kind in CONTACT}
    return dataclasses.replace(done, contact=contact, findings=run_checks(job, surface, done.maps))


STRIP_PX = 420


def gather_picture(
    session: Session, job: Job, source: Source, *, with_photo: bool, light: Light, current: Current
) -> GatherPicture:
    """A source for the gather board; the photo only when it is another than before."""
    photo = mip_chain(display_codes(session.load_pixels(source.blob)), smallest=64) if with_photo else None
    try:
        frame = source.straightening
        ratio: float | None = frame.locked or proportion(
            frame.corners, picture_size=(source.width_px, source.height_px), focal_px=frame.focal_px, bend=frame.bend
        )
    except TesselError:
        ratio = None
    straight = evened = lit = None
    drift = (0.0, 0.0)
    if source.straightening.sized:
        planner = session.planner(job)
        run = session.evaluation(current)
        try:
            done = planner.evened(source, STRIP_PX)
            after = run.value(done).or_default(MapKind.BASE_COLOUR)
            before = run.value(planner.straight(source, STRIP_PX))[MapKind.BASE_COLOUR]
            straight, evened = display_codes(before), display_codes(after)
            drift = (light_drift(before), light_drift(after))
            lit = lit_maps(run.value(planner.estimated(source, None, done, source.id)), light)
        except MissingError:
            pass
    return GatherPicture(source, photo, straight, evened, drift, ratio, lit)


def lit_maps(maps: MapSet, light: Light) -> AnyArray:
    """A flat sheet lit by its own or its estimated relief."""
    height = maps[MapKind.HEIGHT]
    normal = normal_of_height(height, maps.grid)
    shadow = cast_shadow(height, maps.grid, light)
    plain = occlusion(height, maps.grid, reach_mm=OCCLUSION_REACH_MM)
    colour = np.ascontiguousarray(maps.or_default(MapKind.BASE_COLOUR))
    metal = np.ascontiguousarray(maps.or_default(MapKind.METALNESS))
    return shade(
        colour, normal, np.ascontiguousarray(maps.or_default(MapKind.ROUGHNESS)), metal, plain, shadow, light=light
    )


REFERENCE_PX = 1024


def plain_picture(session: Session, job: Job, source: Source, *, current: Current) -> list[AnyArray]:
    """A source as its photo shows it, straightened and put right where it has a size."""
    planner, run = session.planner(job), session.evaluation(current)
    if source.scatter is not None:
        return mip_chain(display_codes(run.value(planner.scattered(source, REFERENCE_PX))[MapKind.BASE_COLOUR]))
    if not source.straightening.sized:
        return mip_chain(display_codes(session.load_pixels(source.blob)))
    return mip_chain(display_codes(run.value(planner.evened(source, REFERENCE_PX)).or_default(MapKind.BASE_COLOUR)))


def scatter_picture(
    session: Session,
    job: Job,
    source: Source,
    *,
    px: int,
    view: MapKind | None,
    light: Light,
    fine: bool,
    current: Current,
) -> ScatterPicture:
    """A scatter sheet, lit or as one of its maps."""
    begun = time.perf_counter()
    maps = session.evaluation(current).value(session.planner(job).scattered(source, px))
    codes = map_codes(view, maps) if view is not None else lit_maps(maps, light)
    return ScatterPicture(source, maps.grid, mip_chain(codes), (time.perf_counter() - begun) * 1000, fine)


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
