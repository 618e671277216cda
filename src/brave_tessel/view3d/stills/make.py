"""From a job to a still: the scene from a kept view, or a surface on a solid; by the tracer, or as far as this machine
can.
"""

from __future__ import annotations

import math
import tempfile
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from pathlib import Path

import numpy as np

from ...core.errors import MissingError
from ...core.job.layers import Surface
from ...core.maps import MapKind
from ...core.place.rays import pick
from ...core.place.site import Site
from ...engine.pictures.placed import pictures_of, scene_textures
from ...engine.pictures.results import SurfacePictures
from ...engine.snapshot import Snapshot
from ..camera import Camera, from_points
from ..drawn import DrawPart, Look, scene_light
from ..openness import opened
from ..renderer import Renderer
from ..rest import come_to_rest
from ..scene import draw_parts
from ..solids import SIZE_M, solid, solid_camera, solid_part
from .run import NoTracerError, Progress, Still, trace
from .scene import write_scene

REFINED = 96
"""Frames of a picture by the window's renderer, where there is no tracer."""


@dataclass(frozen=True, slots=True, eq=False)
class Wanted:
    """What a still shows: parts with their pictures, and how they are looked at; ``px_per_mm`` in its middle."""

    parts: list[DrawPart]
    pictures: Mapping[str, SurfacePictures]
    look: Look
    exposure: float = 1.0
    px_per_mm: float = 0.0
    caption: str = ""


def of_scene(
    snapshot: Snapshot,
    view: str,
    size: tuple[int, int],
    *,
    px: int,
    current: Callable[[], bool],
    camera: Camera | None = None,
) -> Wanted:
    """The scene from a kept view by its name, from the first one, or from a given camera.

    Raises
    ------
    MissingError
        when there is no such view, or nothing stands in the scene.
    """
    site = snapshot.site(current)
    parts = draw_parts(site)
    if not parts:
        raise MissingError("scene", remedy="Nothing stands in it; picture a surface with --surface.")
    eye = camera or _camera(site, view)
    light = scene_light(snapshot.job.rig, snapshot.sky_picture)
    textures = scene_textures(snapshot, px=px, current=current)
    look = Look(eye, *size, light=light, adapts=True)
    return Wanted(parts, textures.surfaces, look, exposure_under(site, eye), 0.0, snapshot.job.name)


def _camera(site: Site, view: str) -> Camera:
    eyes = site.scene.eyes
    if view:
        named = [eye for eye in eyes if view.lower() in {eye.name.lower(), eye.id.lower()}]
        if not named:
            raise MissingError("view", value=view, allowed=", ".join(eye.name for eye in eyes) or "none")
        eyes = tuple(named)
    if eyes:
        return from_points(np.array(eyes[0].at) / 1000, np.array(eyes[0].toward) / 1000, angle=eyes[0].angle)
    low, high = site.box
    return replace(Camera(), azimuth=-30.0, pitch=22.0).framing(low / 1000, high / 1000)


def exposure_under(site: Site, camera: Camera) -> float:
    """How far the eye opens under a roof, by how much of the sky it sees."""
    seen, whole = 0, 0
    for k in range(48):
        z = 1 - 2 * (k + 0.5) / 48
        a = k * math.pi * (3 - math.sqrt(5))
        way = np.array([math.sqrt(1 - z * z) * math.cos(a), math.sqrt(1 - z * z) * math.sin(a), z])
        whole += 1
        seen += pick(site, camera.eye * 1000, way) is None
    return opened(seen / whole)


def of_surface(
    snapshot: Snapshot, surface: Surface, shape: str, size: tuple[int, int], *, px: int, camera: Camera | None = None
) -> Wanted:
    """A surface on a solid, its relief in true proportion."""
    maps = snapshot.finished(surface, px)
    part = solid_part(shape, maps[MapKind.HEIGHT], maps.grid, surface.id, cells=420)
    shown = solid(shape, maps.grid.width_mm, maps.grid.height_mm)
    eye = camera or solid_camera()
    light = scene_light(snapshot.job.rig, snapshot.sky_picture)
    tall = 2 * eye.distance * math.tan(math.radians(eye.field_of_view) / 2)
    per_mm = size[1] / tall * SIZE_M / shown.size_mm
    look = Look(eye, *size, light=light, background=(0.467, 0.467, 0.467))
    return Wanted([part], {surface.id: pictures_of(b"still", maps)}, look, 1.0, per_mm, surface.name)


def of_board(
    snapshot: Snapshot, surfaces: Sequence[Surface], size: tuple[int, int], *, px: int, current: Callable[[], bool]
) -> Wanted:
    """A board of samples: a ball of each surface, in rows, each ball as large as the others.

    Raises
    ------
    MissingError
        when there are no surfaces.
    """
    if not surfaces:
        raise MissingError("surface", remedy="There is none to picture.")
    columns = max(1, round(math.sqrt(len(surfaces) * size[0] / size[1])))
    step = 1.1 * SIZE_M
    parts, pictures = [], {}
    for number, surface in enumerate(surfaces):
        if not current():
            break
        maps = snapshot.finished(surface, px)
        ball = solid_part("Ball", maps[MapKind.HEIGHT], maps.grid, surface.id, cells=200)
        middle = np.array([number % columns * step, 0.0, -(number // columns) * step], np.float32)
        parts.append(replace(ball, id=surface.id, positions=ball.positions + middle))
        pictures[surface.id] = pictures_of(b"board" + surface.id.encode(), maps)
    places = np.concatenate([part.positions for part in parts])
    low, high = places.min(0).astype(float), places.max(0).astype(float)
    middle = (low + high) / 2
    tall = max(high[2] - low[2], (high[0] - low[0]) * size[1] / size[0]) * 1.06
    angle = 24.0
    away = tall / 2 / math.tan(math.radians(angle) / 2) + (high[1] - low[1]) / 2
    x, y, z = (float(v) for v in middle)
    camera = Camera((x, y, z), away, 0.0, 4.0, angle, max(60.0, 3 * away))
    light = scene_light(snapshot.job.rig, snapshot.sky_picture)
    look = Look(camera, *size, light=light, background=(0.467, 0.467, 0.467))
    return Wanted(parts, pictures, look, 1.0, 0.0, ", ".join(surface.name for surface in surfaces))


def make_still(
    wanted: Wanted,
    samples: int,
    show_progress: Callable[[Progress], None],
    current: Callable[[], bool],
    *,
    folder: Path | None = None,
    open_ground: bool = False,
) -> tuple[Still, str]:
    """The still, and a sentence where it was made by less than the compiled tracer; empty otherwise."""
    with tempfile.TemporaryDirectory(prefix="brave-tessel-still-") as own:
        place = folder or Path(own)
        try:
            if not (place / "sum.npz").exists():
                write_scene(place, wanted.parts, wanted.pictures, wanted.look, open_ground=open_ground)
            ends = {"by": ""}

            def told(progress: Progress) -> None:
                ends["by"] = progress.back_end or ends["by"]
                show_progress(progress)

            still = trace(place, samples, told, current)
            plain = "The compiled tracer is not available (it needs LLVM 17 or newer): the plain one was used."
            return still, plain if ends["by"] == "plain" else ""
        except NoTracerError as error:
            if not current():
                raise
            return refined_still(
                wanted, current
            ), f"{error.remedy} The refined picture of the window was taken instead."


def refined_still(wanted: Wanted, current: Callable[[], bool]) -> Still:
    """The picture at rest of the window's own renderer, as a still."""
    renderer = Renderer()
    try:
        renderer.set_parts(wanted.parts)
        for name, one in wanted.pictures.items():
            renderer.set_textures(name, one.key, one.base, one.normal, one.orm, finish=one.finish)
        look = replace(wanted.look, adapts=False)
        passes = come_to_rest(renderer, look, lambda _codes, _last: None, current, passes=REFINED, held=REFINED)
        light = renderer.refined_light(look, max(1, passes))
    finally:
        renderer.release()
    ones = np.ones(light.shape[:2], np.float32)
    flat = np.zeros_like(light)
    return Still(light, ones, np.ones_like(light), flat, ones, 1 << 20)
