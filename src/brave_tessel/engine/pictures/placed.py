"""What Place and Hand over show: pictures of every surface laid, all maps of one with its checks."""

from __future__ import annotations

import dataclasses
import time
from collections.abc import Callable, Iterator, Mapping

import cv2
import numpy as np

from ...core.colour import display_codes
from ...core.errors import TesselError
from ...core.handover.check import run_checks
from ...core.handover.conversions import packed_orm
from ...core.job.document import Job
from ...core.job.layers import Band, Surface
from ...core.maps import MapKind, MapSet
from ...core.place.site import texture_name, worn
from ...core.plan.tasks import Task
from ...core.relief.pictures import map_codes, mip_chain
from ...core.repeat.resample import resample_wrapped
from ...core.sheet import AnyArray, Grid
from ...formats.job_file import Preview
from ..cache import Cache
from ..evaluate import Evaluation, always
from ..previews import stored_picture
from ..snapshot import Snapshot
from .bands import banded, rows_of
from .results import PlacedPicture, Relief, SceneTextures, SurfacePicture, SurfacePictures
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


def pictures_of(key: bytes, maps: MapSet, relief: Relief | None = None) -> SurfacePictures:
    """A finished set as a scene is drawn with it; with its relief where its faces are smooth."""
    base = display_codes(maps[MapKind.BASE_COLOUR])
    if MapKind.OPACITY in maps:
        base = np.dstack([base, np.rint(np.clip(maps[MapKind.OPACITY], 0, 1) * 255).astype(np.uint8)])
    finish = None
    if any(kind in maps for kind in _FINISHED):
        four = (MapKind.COAT, MapKind.COAT_ROUGHNESS, MapKind.SHEEN_ROUGHNESS, MapKind.TRANSLUCENCY)
        lacquer = np.dstack([np.rint(np.clip(maps.or_default(kind), 0, 1) * 255).astype(np.uint8) for kind in four])
        sheen, glow = (
            display_codes(np.ascontiguousarray(maps.or_default(kind))) for kind in (MapKind.SHEEN, MapKind.EMISSION)
        )
        film = np.rint(np.clip(maps.or_default(MapKind.WATER), 0, 1) * 255).astype(np.uint8)
        face = MapKind.COAT_NORMAL if MapKind.COAT_NORMAL in maps else MapKind.NORMAL
        finish = (lacquer, np.dstack([sheen, film]), glow, map_codes(face, maps), _brushed(maps))
    return SurfacePictures(
        key,
        base,
        map_codes(MapKind.NORMAL, maps),
        packed_orm(maps[MapKind.AMBIENT_OCCLUSION], maps[MapKind.ROUGHNESS], maps[MapKind.METALNESS]),
        finish,
        relief,
    )


def relief_of(maps: MapSet) -> Relief | None:
    """What a scene draws of a surface's relief where its faces are smooth; None where it is even."""
    height = maps[MapKind.HEIGHT]
    low, high = float(height.min()), float(height.max())
    if high - low < _EVEN_MM:
        return None
    return Relief(np.asarray((height - low) / (high - low), np.float32), low, high)


_EVEN_MM = 0.3
"""Relief below which no eye in a room finds the difference."""
_FINISHED = (
    MapKind.COAT,
    MapKind.SHEEN,
    MapKind.EMISSION,
    MapKind.TRANSLUCENCY,
    MapKind.TRANSMISSION,
    MapKind.ANISOTROPY,
)


def _brushed(maps: MapSet) -> AnyArray:
    """Twice the angle of brushing as a vector, so that pictures of it can be averaged, how strong it is; and how much
    light goes straight through.
    """
    if MapKind.ANISOTROPY not in maps and MapKind.TRANSMISSION not in maps:
        return np.full((1, 1, 4), (255, 128, 0, 0), np.uint8)
    twice = 2 * np.pi * maps.or_default(MapKind.ANISOTROPY_ANGLE)
    shares = (np.clip(maps.or_default(kind), 0, 1) for kind in (MapKind.ANISOTROPY, MapKind.TRANSMISSION))
    planes = (np.cos(twice) / 2 + 0.5, np.sin(twice) / 2 + 0.5, *shares)
    return np.asarray(np.rint(np.dstack(planes) * 255), np.uint8)


SWATCH_PX, UNLAID_PX = 64, 256
_ROOM = 1 << 30
"""What working one surface out for a model may keep meanwhile; its layers are not wanted again afterwards."""


def scene_textures(snapshot: Snapshot, *, px: int, current: Current) -> SceneTextures:
    """Pictures of every surface laid in the scene, and a swatch of every surface of the job."""
    *_, last = placed_pictures(snapshot, px=px, current=current)
    return last


def placed_pictures(
    snapshot: Snapshot, *, px: int, current: Current, before: SceneTextures | None = None
) -> Iterator[SceneTextures]:
    """The same after each surface that had to be worked out; ``before`` stands in for those that are still to come."""
    begun = time.perf_counter()
    surfaces = dict(before.surfaces) if before else {}
    swatches = dict(before.swatches) if before else {}
    laid = laid_surfaces(snapshot.job)
    rest = [surface for surface in snapshot.job.surfaces if surface.id not in laid]
    for name, (surface, band) in [*laid.items(), *((one.id, (one, None)) for one in rest)]:
        try:
            made, known = _placed(snapshot, surface, band, px if name in laid else UNLAID_PX, current)
        except TesselError:
            continue
        if band is None:
            swatches[surface.id] = made.swatch
        if name in laid or surface.bands:
            # A surface of which bands are laid is shown whole where they are cut.
            surfaces[name] = made.pictures
            if not known:
                yield SceneTextures(dict(surfaces), (time.perf_counter() - begun) * 1000, dict(swatches))
                begun = time.perf_counter()
    yield SceneTextures(surfaces, (time.perf_counter() - begun) * 1000, swatches, complete=True)


class PlacedRound:
    """The same, asked for one at a time, so that other work comes in between."""

    def __init__(self, snapshot: Snapshot, *, px: int, before: SceneTextures | None = None) -> None:
        self._asked: Current = always
        self._pictures = placed_pictures(snapshot, px=px, current=lambda: self._asked(), before=before)

    def next(self, current: Current) -> SceneTextures:
        """The scene with one more surface worked out; the last of them is complete."""
        self._asked = current
        return next(self._pictures)


def textures_at_hand(
    snapshot: Snapshot, previews: Mapping[str, Preview], px: int, *, coarse_px: int, current: Current
) -> SceneTextures:
    """The scene at once: each surface by what was worked out of it, or by the picture kept with the job; one that has
    neither, as it was just changed, coarsely. A pattern just fitted to its faces is shown as it was before.
    """
    begun = time.perf_counter()
    surfaces, swatches, laid = {}, {}, laid_surfaces(snapshot.job)
    own: dict[str, SurfacePictures] = {}
    for surface in snapshot.job.surfaces:
        known: PlacedPicture | None = snapshot.cache.get(_key(_task(snapshot, surface, px), None))
        stored = None if known else stored_picture(snapshot, surface, previews.get(surface.id))
        if known is not None:
            own[surface.id] = known.pictures
            swatches[surface.id] = known.swatch
        elif stored is not None:
            flat, rough = np.full_like(stored.codes, (128, 128, 255)), np.full_like(stored.codes, (255, 200, 0))
            key = b"stored" + previews[surface.id].key.encode()
            own[surface.id] = SurfacePictures(key, stored.codes, flat, rough)
            swatches[surface.id] = cv2.resize(stored.codes, (SWATCH_PX, SWATCH_PX), interpolation=cv2.INTER_AREA)
    for name, (surface, band) in laid.items():
        known = snapshot.cache.get(_key(_task(snapshot, surface, px), band))
        stand_in = own.get(own_surface(name))
        if known is not None:
            surfaces[name] = known.pictures
        elif stand_in is not None:
            rows = rows_of(band, stand_in.base.shape[0], surface.height_mm) if band else slice(None)
            base, normal, orm = (np.ascontiguousarray(one[rows]) for one in stand_in[1:4])
            surfaces[name] = SurfacePictures(stand_in.key + name.encode(), base, normal, orm)
        else:
            try:
                surfaces[name] = _placed(snapshot, surface, band, min(coarse_px, px), current)[0].pictures
            except TesselError:
                continue
    return SceneTextures(surfaces, (time.perf_counter() - begun) * 1000, swatches)


def all_there(snapshot: Snapshot, px: int) -> bool:
    """Whether every surface laid has its picture worked out already."""
    return all(
        snapshot.cache.get(_key(_task(snapshot, one, px), band)) is not None
        for one, band in laid_surfaces(snapshot.job).values()
    )


def laid_surfaces(job: Job) -> dict[str, tuple[Surface, Band | None]]:
    """Every picture laid in a scene by its name: a surface as it is for what it lies on, and the band of it."""
    found: dict[str, tuple[Surface, Band | None]] = {}
    for part in job.scene.parts:
        for laid in part.laid:
            surface = worn(job, laid)
            if surface is not None:
                found.setdefault(texture_name(surface, laid), (surface, surface.band(laid.band)))
    return {surface.id: found[surface.id] for surface in job.surfaces if surface.id in found} | found


def own_surface(name: str) -> str:
    """The id of the job's surface that a picture is of."""
    return name.partition("#")[0].partition("~")[0]


def _task(snapshot: Snapshot, surface: Surface, px: int) -> Task:
    return snapshot.planner().finished(surface, Grid.for_repeat(surface.width_mm, surface.height_mm, px))


def _key(task: Task, band: Band | None) -> bytes:
    return task.key + b" placed" + (f"{band.low} {band.high}".encode() if band else b"")


def _placed(
    snapshot: Snapshot, surface: Surface, band: Band | None, px: int, current: Current
) -> tuple[PlacedPicture, bool]:
    """A surface's picture, and whether it was there; its layers are worked out beside the shared cache, which is for
    what is being worked on.
    """
    task = _task(snapshot, surface, px)
    key = _key(task, band)
    known: PlacedPicture | None = snapshot.cache.get(key)
    if known is not None:
        return known, True
    maps = snapshot.cache.get(task.key) or Evaluation(Cache(_ROOM), current).value(task)
    maps = banded(maps, band) if band else maps
    made = PlacedPicture(
        pictures_of(key if band else task.key, maps, relief_of(maps)),
        display_codes(resample_wrapped(maps[MapKind.BASE_COLOUR], (SWATCH_PX, SWATCH_PX))),
    )
    snapshot.cache.put(key, made)
    return made, False
