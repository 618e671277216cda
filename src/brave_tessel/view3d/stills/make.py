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
import numpy.typing as npt

from ...core.errors import MissingError
from ...core.job.layers import Surface
from ...core.maps import MapKind
from ...core.place.site import Site
from ...core.quantity import format_number
from ...core.sheet import Raster
from ...engine.pictures.placed import pictures_of, scene_textures
from ...engine.pictures.results import SurfacePictures
from ...engine.snapshot import Snapshot
from ..camera import Camera, from_points
from ..drawn import DrawPart, Look, Triple, scene_light
from ..opening import Opening
from ..openness import eased
from ..renderer import Renderer
from ..rest import come_to_rest
from ..samples import STAND, camera_of, sample
from ..scene import draw_parts
from ..solids import SIZE_M, solid, solid_part
from .files import Finish, Label
from .run import NoTracerError, Progress, Still, trace
from .scene import write_scene

CONTACT_GROUND = (0.2, 0.2, 0.2)
REFINED = 96
"""Frames of a picture by the window's renderer, where there is no tracer."""
_TOGETHER = 5
"""Pixels each way that are looked at as one where it is asked how bright a still is."""


@dataclass(frozen=True, slots=True, eq=False)
class Wanted:
    """What a still shows: parts with their pictures, and how they are looked at; ``px_per_mm`` in its middle;
    what is written under single things; the codes of an even ground in place of the sky.
    """

    parts: list[DrawPart]
    pictures: Mapping[str, SurfacePictures]
    look: Look
    exposure: float = 1.0
    px_per_mm: float = 0.0
    caption: str = ""
    labels: tuple[Label, ...] = ()
    ground: Triple | None = None


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
    opening = Opening(parts).factor(eye.eye, np.array(eye.target))
    return Wanted(parts, textures.surfaces, look, opening, 0.0, snapshot.job.name)


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


def finish_of(
    wanted: Wanted, still: Still, *, depth: int = 8, open_ground: bool = False, captioned: bool = False
) -> Finish:
    """How a still is shown and written. One that adapts opens and closes as the window's eye does."""
    exposure = wanted.exposure
    if wanted.look.adapts:
        # A few pixels together: single paths would pass for light.
        light, normal = (_shrunk(layer) for layer in (still.light, still.normal))
        exposure = eased(exposure, 1.0, light, np.linalg.norm(normal, axis=-1) > 0.5)
    caption, scale = (wanted.caption, wanted.px_per_mm) if captioned else ("", 0.0)
    transform = wanted.look.light.transform
    return Finish(transform, exposure, depth, open_ground, caption, scale, wanted.labels, wanted.ground)


def _shrunk(layer: Raster) -> Raster:
    """Means of squares of pixels."""
    rows, columns = (max(1, side // _TOGETHER) for side in layer.shape[:2])
    some = layer[: rows * _TOGETHER, : columns * _TOGETHER]
    step = min(_TOGETHER, *layer.shape[:2])
    return np.asarray(some.reshape(rows, step, columns, step, -1).mean((1, 3)), np.float32)


def of_surface(
    snapshot: Snapshot, surface: Surface, shape: str, size: tuple[int, int], *, px: int, camera: Camera | None = None
) -> Wanted:
    """A surface on a solid, its relief in true proportion."""
    maps = snapshot.finished(surface, px)
    parts = sample(shape, maps[MapKind.HEIGHT], maps.grid, surface.id, cells=420)
    shown = solid(shape, maps.grid.width_mm, maps.grid.height_mm)
    eye = camera or camera_of(shape)
    light = scene_light(snapshot.job.rig, snapshot.sky_picture)
    tall = 2 * eye.distance * math.tan(math.radians(eye.field_of_view) / 2)
    per_mm = size[1] / tall * SIZE_M / shown.size_mm
    look = Look(eye, *size, light=light, background=(0.467, 0.467, 0.467))
    return Wanted(parts, {surface.id: pictures_of(b"still", maps)}, look, 1.0, per_mm, surface.name)


def of_board(
    snapshot: Snapshot, surfaces: Sequence[Surface], size: tuple[int, int], *, px: int, current: Callable[[], bool]
) -> Wanted:
    """A board of samples: a ball of each surface, in rows, each ball as large as the others.

    Raises
    ------
    MissingError
        when there are no surfaces.
    """
    step = 1.1 * SIZE_M
    shown, pictures, places = _in_rows(snapshot, surfaces, size, ("Ball", 200, step, step), px=px, current=current)
    look = _facing(snapshot, size, places, pitch=4.0)
    return Wanted(shown, pictures, look, 1.0, 0.0, ", ".join(surface.name for surface in surfaces))


def of_contact(
    snapshot: Snapshot, surfaces: Sequence[Surface], size: tuple[int, int], *, px: int, current: Callable[[], bool]
) -> Wanted:
    """A contact sheet: a flat piece of each surface in rows, each with its name and its real size below it.

    Raises
    ------
    MissingError
        when there are no surfaces.
    """
    step, rise = 1.08 * SIZE_M, 1.34 * SIZE_M
    shown, pictures, places = _in_rows(snapshot, surfaces, size, ("Plane", 260, step, rise), px=px, current=current)
    # Room for the last row's names.
    low = places.min(0) - [0.0, 0.0, 0.22 * SIZE_M]
    look = _facing(snapshot, size, np.concatenate([places, [low]]), pitch=0.0)
    matrix = look.camera.view_projection(size[0] / size[1])
    labels = []
    for part, surface in zip(shown, surfaces, strict=False):
        corner = np.array([part.positions[:, 0].min(), part.positions[:, 1].mean(), part.positions[:, 2].min(), 1.0])
        x, y, _, w = matrix @ corner
        across, up = format_number(surface.width_mm), format_number(surface.height_mm)
        wide = float(np.ptp(part.positions[:, 0])) * matrix[0, 0] / w / 2
        labels.append(((x / w + 1) / 2, (1 - y / w) / 2, float(wide), f"{surface.name}\n{across} × {up} mm"))
    return Wanted(shown, pictures, look, labels=tuple(labels), ground=CONTACT_GROUND)


def _in_rows(
    snapshot: Snapshot,
    surfaces: Sequence[Surface],
    size: tuple[int, int],
    each: tuple[str, int, float, float],
    *,
    px: int,
    current: Callable[[], bool],
) -> tuple[list[DrawPart], dict[str, SurfacePictures], npt.NDArray[np.float32]]:
    """Surfaces on a solid each, in as many columns as the picture's shape asks for, and all their corners; ``each`` is
    the solid, its facets, and the step to the next across and down, m.
    """
    if not surfaces:
        raise MissingError("surface", remedy="There is none to picture.")
    shape, cells, step, rise = each
    columns = _columns(len(surfaces), size[0] / step, size[1] / rise)
    parts, pictures = [], {}
    for number, surface in enumerate(surfaces):
        if not current():
            break
        maps = snapshot.finished(surface, px)
        made = solid_part(shape, maps[MapKind.HEIGHT], maps.grid, surface.id, cells=cells)
        place = np.array([number % columns * step, 0.0, -(number // columns) * rise], np.float32)
        parts.append(replace(made, id=surface.id, positions=made.positions + place))
        pictures[surface.id] = pictures_of(b"rows" + surface.id.encode(), maps)
    return parts, pictures, np.concatenate([part.positions for part in parts])


def _columns(count: int, wide: float, tall: float) -> int:
    """How many columns of so many things make each as large as it can be."""
    return max(range(1, count + 1), key=lambda columns: min(wide / columns, tall / -(-count // columns)))


def _facing(snapshot: Snapshot, size: tuple[int, int], places: npt.NDArray[np.float32], *, pitch: float) -> Look:
    """An eye before some places (N, 3), m, that holds them all."""
    low, high = places.min(0).astype(float), places.max(0).astype(float)
    x, y, z = (float(v) for v in (low + high) / 2)
    tall = max(high[2] - low[2], (high[0] - low[0]) * size[1] / size[0]) * 1.06
    angle = 24.0
    away = tall / 2 / math.tan(math.radians(angle) / 2) + (high[1] - low[1]) / 2
    camera = Camera((x, y, z), away, 0.0, pitch, angle, max(60.0, 3 * away))
    light = scene_light(snapshot.job.rig, snapshot.sky_picture)
    return Look(camera, *size, light=light, background=(0.467, 0.467, 0.467))


def make_still(
    wanted: Wanted,
    samples: int,
    show_progress: Callable[[Progress], None],
    current: Callable[[], bool],
    *,
    folder: Path | None = None,
    open_ground: bool = False,
) -> tuple[Still, str]:
    """The still, and a sentence where it was made by less than the compiled tracer; empty otherwise. On an
    ``open_ground`` nothing stands on a stand.
    """
    if open_ground:
        wanted = replace(wanted, parts=[part for part in wanted.parts if part.id != STAND])
    with tempfile.TemporaryDirectory(prefix="brave-tessel-still-") as own:
        place = folder or Path(own)
        try:
            if not (place / "sum.npz").exists():
                write_scene(
                    place,
                    wanted.parts,
                    wanted.pictures,
                    wanted.look,
                    open_ground=open_ground or wanted.ground is not None,
                )
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
            renderer.set_textures(name, one)
        look = replace(wanted.look, adapts=False)
        passes = come_to_rest(renderer, look, lambda _codes, _last: None, current, passes=REFINED, held=REFINED)
        light = renderer.refined_light(look, max(1, passes))
    finally:
        renderer.release()
    ones = np.ones(light.shape[:2], np.float32)
    flat = np.zeros_like(light)
    return Still(light, ones, np.ones_like(light), flat, ones, 1 << 20)
