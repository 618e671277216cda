"""What Gather shows: a photo with its straight sheet, a scatter sheet, a reference."""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence

import cv2
import msgspec
import numpy as np

from ...core.colour import display_codes
from ...core.errors import MissingError, TesselError
from ...core.gather.even_light import light_drift
from ...core.gather.seen import SeenProportion, seen_proportion
from ...core.job.document import Source
from ...core.kernels.relief import normal_of_height, occlusion
from ...core.light.lighting import Lighting, light_flat, shadow_on
from ...core.maps import MapKind, MapSet, plain
from ...core.plan.planner import OCCLUSION_REACH_MM
from ...core.relief.pictures import map_codes, mip_chain
from ...core.relief.told import tell_relief
from ...core.sheet import AnyArray, Raster
from ..snapshot import Snapshot
from .results import GatherPicture, ScatterPicture

Current = Callable[[], bool]

STRIP_PX = 420
_CLAY = (0.42, 0.42, 0.41)


def gather_picture(
    snapshot: Snapshot, source: Source, *, with_photo: bool, lighting: Lighting, current: Current
) -> GatherPicture:
    """A source for the gather board; the photo only when it is another than before."""
    photo = mip_chain(display_codes(snapshot.load_pixels(source.blob)), smallest=64) if with_photo else None
    seen = seen_on(source)
    ratio = source.straightening.locked or (seen.ratio if seen is not None else None)
    straight = evened = lit = told = alone = None
    drift = (0.0, 0.0)
    sized = source.straightening.sized
    laid = source if sized else as_if_sized(source, ratio)
    planner, run = snapshot.planner(), snapshot.evaluation(current)
    try:
        done = planner.evened(laid, STRIP_PX)
        after = run.value(done).or_default(MapKind.BASE_COLOUR)
        before = run.value(planner.straight(laid, STRIP_PX))[MapKind.BASE_COLOUR]
        straight, evened = display_codes(before), display_codes(after)
        drift = (light_drift(before), light_drift(after))
        if sized:
            told = None if source.brings("height") else tell_relief(after, run.value(done).grid)
            maps = run.value(planner.estimated(source, None, done, source.id))
            clay = MapSet(maps.grid, {MapKind.BASE_COLOUR: plain(maps.grid, _CLAY)})
            lit, alone = _lit_each(maps[MapKind.HEIGHT], (maps, clay), lighting)
    except TesselError as error:
        if sized and not isinstance(error, MissingError):
            raise
    return GatherPicture(source, photo, straight, evened, drift, ratio, seen, lit, told, alone)


def seen_on(source: Source) -> SeenProportion | None:
    """What the view tells of a frame's proportion; None where it does not."""
    frame = source.straightening
    try:
        return seen_proportion(
            frame.corners, picture_size=(source.width_px, source.height_px), focal_px=frame.focal, lens=frame.lens
        )
    except TesselError:
        return None


def as_if_sized(source: Source, ratio: float | None) -> Source:
    """A source before anyone has said how big it is, as if a metre wide: its colours and its light do not depend on
    that, its relief does. Square where the view does not tell its shape.
    """
    frame = msgspec.structs.replace(source.straightening, width_mm=1000.0, height_mm=1000.0 / (ratio or 1.0))
    return msgspec.structs.replace(source, straightening=frame)


def lit_maps(maps: MapSet, lighting: Lighting) -> AnyArray:
    """A flat sheet lit by its own or its estimated relief."""
    return _lit_each(maps[MapKind.HEIGHT], (maps,), lighting)[0]


def _lit_each(height: Raster, sheets: Sequence[MapSet], lighting: Lighting) -> list[AnyArray]:
    """Sheets that have one relief, (H, W) in mm, lit by it; what follows from it is worked out once."""
    grid = sheets[0].grid
    normal = normal_of_height(height, grid)
    closed = occlusion(height, grid, reach_mm=OCCLUSION_REACH_MM)
    shadow = shadow_on(sheets[0], lighting)
    whole = (sheet.with_maps(height=height, normal=normal, ambient_occlusion=closed) for sheet in sheets)
    return [light_flat(one, shadow, lighting) for one in whole]


REFERENCE_PX = 1024


def plain_picture(snapshot: Snapshot, source: Source, *, current: Current) -> list[AnyArray]:
    """A source as its photo shows it, straightened and put right where it has a size."""
    planner, run = snapshot.planner(), snapshot.evaluation(current)
    if source.scatter is not None:
        return mip_chain(display_codes(run.value(planner.scattered(source, REFERENCE_PX))[MapKind.BASE_COLOUR]))
    if not source.straightening.sized:
        return mip_chain(display_codes(snapshot.load_pixels(source.blob)))
    return mip_chain(display_codes(run.value(planner.evened(source, REFERENCE_PX)).or_default(MapKind.BASE_COLOUR)))


def scatter_picture(
    snapshot: Snapshot,
    source: Source,
    *,
    px: int,
    view: MapKind | None,
    lighting: Lighting,
    fine: bool,
    current: Current,
) -> ScatterPicture:
    """A scatter sheet, lit or as one of its maps."""
    begun = time.perf_counter()
    maps = snapshot.evaluation(current).value(snapshot.planner().scattered(source, px))
    codes = map_codes(view, maps) if view is not None else lit_maps(maps, lighting)
    return ScatterPicture(source, maps.grid, mip_chain(codes), (time.perf_counter() - begun) * 1000, fine)


THUMB_PX = 80


def small_photo(snapshot: Snapshot, source: Source) -> Raster:
    """The middle of a source's photo, square and small; linear (H, W, 3) float32."""
    pixels = snapshot.load_pixels(source.blob)
    side = min(pixels.shape[:2])
    top, left = (pixels.shape[0] - side) // 2, (pixels.shape[1] - side) // 2
    crop = np.ascontiguousarray(pixels[top : top + side, left : left + side])
    return np.asarray(cv2.resize(crop, (THUMB_PX, THUMB_PX), interpolation=cv2.INTER_AREA), np.float32)
