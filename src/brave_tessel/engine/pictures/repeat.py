"""What Repeat shows: a source's sheet with its meters, while it is mended, chosen and touched up."""

from __future__ import annotations

import dataclasses
import time
from collections.abc import Callable

import numpy as np

from ...core.colour import display_codes, encode_srgb
from ...core.gather.even_light import light_drift
from ...core.job.document import Source
from ...core.maps import MapKind, MapSet
from ...core.plan.planner import FLAT_PX
from ...core.relief.pictures import mip_chain
from ...core.repeat.cut import Cuts, close_across, paths_on_cell
from ...core.repeat.meters import read_cut, read_seam, read_spacing, worst_of_join
from ...core.repeat.method import method_of
from ...core.repeat.quieten import find_features
from ...core.repeat.repetition import RepetitionReading, read_repetition
from ...core.repeat.resample import resampled
from ...core.sheet import Grid, Raster
from ..snapshot import Snapshot
from .results import ChoicePicture, CutPicture, MapReading, SheetPicture

Current = Callable[[], bool]

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
    snapshot: Snapshot, source: Source, *, current: Current, progress: Callable[[str], None] | None = None
) -> SheetPicture:
    """A source's sheet and its meters."""
    begun = time.perf_counter()
    planner = snapshot.planner()
    run = snapshot.evaluation(current, progress)
    sheet = run.value(planner.sheet(source, FLAT_PX))
    mended = run.value(planner.mended(source, FLAT_PX))
    found, flat = None, mended
    if source.scatter is None:
        found, flat = run.value(planner.found(source)), run.value(planner.flat(source, FLAT_PX))
    colour = sheet[MapKind.BASE_COLOUR]
    encoded = encode_srgb(np.clip(colour, 0, 1)).astype(np.float32)
    x, y = read_seam(encoded, axis=1, structured=True), read_seam(encoded, axis=0, structured=True)
    cut = None
    cut_on = method_of(source.mend).cut_on(flat, found) if source.scatter is None else None
    if cut_on is not None:
        rows, cuts = cut_on
        cut = _cut_picture(rows[MapKind.BASE_COLOUR], cuts, mended.grid)
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
        _repetition(wide, sheet.grid),
        light_drift(flat[MapKind.BASE_COLOUR]),
        (time.perf_counter() - begun) * 1000,
        _small(sheet),
        _small(mended),
        _per_map(sheet, encoded),
        (read_spacing(encoded, axis=1), read_spacing(encoded, axis=0)),
        tuple(find_features(colour, sheet.grid)),
        plain=_as_it_lay(flat) if source.scatter is None else None,
    )


def _as_it_lay(flat: MapSet) -> ChoicePicture:
    """The sheet before it is mended; its edges are looked at as they are, so it needs no smaller ones."""
    return ChoicePicture(flat.grid, [display_codes(flat.or_default(MapKind.BASE_COLOUR))])


def _repetition(wide: MapSet, cell: Grid) -> RepetitionReading:
    """How loudly a field of whole cells comes again."""
    cells = max(1, round(wide.grid.width_mm / cell.width_mm)), max(1, round(wide.grid.height_mm / cell.height_mm))
    return read_repetition(wide[MapKind.BASE_COLOUR], cells=cells, tall=cell.height_mm / cell.width_mm)


def _per_map(sheet: MapSet, encoded: Raster) -> tuple[MapReading, ...]:
    """The seams of every map of a sheet."""
    pixels = {kind: encoded if kind is MapKind.BASE_COLOUR else sheet[kind] for kind in _READ if kind in sheet}
    return tuple(_reading(kind, one) for kind, one in pixels.items())


def _reading(kind: MapKind, pixels: Raster, *, estimated: bool = False) -> MapReading:
    seams = read_seam(pixels, axis=1, structured=True), read_seam(pixels, axis=0, structured=True)
    return MapReading(kind, seams, (worst_of_join(pixels, axis=1), worst_of_join(pixels, axis=0)), estimated)


def estimated_seams(snapshot: Snapshot, source: Source, *, current: Current) -> tuple[MapReading, ...]:
    """The seams of the maps that a source does not bring and that are estimated from its sheet."""
    planner = snapshot.planner()
    sheet = planner.sheet(source, FLAT_PX)
    run = snapshot.evaluation(current)
    own: MapSet = run.value(sheet)
    maps: MapSet = run.value(planner.estimated(source, None, sheet, source.id))
    fresh = [kind for kind in _READ if kind in maps and kind not in own]
    return tuple(_reading(kind, maps[kind], estimated=True) for kind in fresh)


def _small(sheet: MapSet) -> MapSet:
    grid = sheet.grid
    small = Grid.for_repeat(grid.width_mm, grid.height_mm, min(SMALL_PX, max(grid.shape)))
    return MapSet(small, {kind: resampled(kind, pixels, small.shape) for kind, pixels in sheet.maps.items()})


def stroke_picture(snapshot: Snapshot, source: Source, before: SheetPicture, *, current: Current) -> SheetPicture:
    """The sheet while a stroke is drawn: its picture, with the meters as they were."""
    begun = time.perf_counter()
    sheet = snapshot.evaluation(current).value(snapshot.planner().sheet(source, FLAT_PX))
    mips = mip_chain(display_codes(sheet[MapKind.BASE_COLOUR]))
    ms = (time.perf_counter() - begun) * 1000
    return dataclasses.replace(
        before, source=source, mips=mips, field_mips=None if before.field_mips is None else before.field_mips, ms=ms
    )


def rough_picture(snapshot: Snapshot, source: Source, *, current: Current) -> SheetPicture:
    """A first, rough look at a sheet that takes long to make."""
    begun = time.perf_counter()
    sheet = snapshot.evaluation(current).value(snapshot.planner().mended(source, SMALL_PX, find_px=ROUGH_PX))
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
        _repetition(small, small.grid),
        light_drift(small[MapKind.BASE_COLOUR]),
        (time.perf_counter() - begun) * 1000,
        small,
        small,
        rough=True,
    )


CHOICE_PX = 768


def choice_picture(snapshot: Snapshot, source: Source, *, current: Current) -> ChoicePicture:
    """The whole straight sheet."""
    whole = snapshot.evaluation(current).value(snapshot.planner().evened(source, CHOICE_PX))
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
