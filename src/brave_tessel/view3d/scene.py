"""A job's scene as parts to draw, and what a ray through the picture meets."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace

import numpy as np
import numpy.typing as npt

from ..core.colour import hex_to_linear
from ..core.place.groups import GLASS
from ..core.place.laying import Coordinates
from ..core.place.mesh import Faces
from ..core.place.rays import Hit, pick
from ..core.place.site import BARE, Site, Standing
from ..core.place.topology import corner_normals
from .camera import Camera
from .drawn import DrawPart, Seen
from .thinned import LARGE, TARGET, WORTH, StandIn

CLEAR = {str(GLASS)}
"""Faces that are looked through while nothing is laid on them."""
MISSING = "#B9A7C9"
"""The colour of a face whose surface is not there, so that it is seen to be missing."""


def draw_parts(site: Site) -> list[DrawPart]:
    """Everything that stands, one entry for each thing laid on a part and for its bare faces."""
    whole = sum(one.mesh.count for one in site.standing)
    return [part for one in site.standing for part in _parts_of(site, one, whole)]


def _parts_of(site: Site, one: Standing, whole: int) -> list[DrawPart]:
    out = []
    for row, laid in enumerate(one.part.laid):
        faces = one.faces_of(row)
        if not len(faces):
            continue
        surface = site.surface(laid)
        size = site.repeat(laid)
        bare = MISSING if surface is None and laid.surface else one.part.bare
        key = one.laid_key(row, "drawn", size, surface is None, bare)
        if key not in one.by_laid:
            found = site.coordinates(one, row)
            name = site.texture(laid)
            drawn = _drawn(one, f"{one.id} {row}", faces, found, name, size, bare)
            one.by_laid[key] = replace(drawn, light=_stand_in(one, faces, drawn, whole))
        out.append(one.by_laid[key])
    return [*out, *_bare(one, whole)]


def _stand_in(one: Standing, faces: Faces, drawn: DrawPart, whole: int) -> StandIn | None:
    """What will be drawn in place of a part while it moves, where the whole scene is large."""
    if whole < LARGE or len(faces) < WORTH:
        return None
    return StandIn(one.mesh, faces, np.concatenate([drawn.positions, drawn.normals, drawn.uv], 1), TARGET / whole)


def _bare(one: Standing, whole: int) -> list[DrawPart]:
    """Faces without anything laid on them, by their colours; panes apart."""
    if "draw bare" not in one.store:
        faces = one.faces_of(BARE)
        names = one.mesh.names
        looks = [(one.part.colours.get(str(name), one.part.bare), str(name) in CLEAR) for name in names]
        out = []
        for colour, clear in dict.fromkeys(looks):
            wanted = [number for number, own in enumerate(looks) if own == (colour, clear)]
            mine = faces[np.isin(one.mesh.groups[faces], wanted)]
            if len(mine):
                id = f"{one.id} {colour}{' clear' if clear else ''}"
                made = _drawn(one, id, mine, None, "", (1000.0, 1000.0), colour)
                out.append(replace(made, clear=clear, light=None if clear else _stand_in(one, mine, made, whole)))
        one.store["draw bare"] = out
    found: list[DrawPart] = one.store["draw bare"]
    return found


def _drawn(
    one: Standing, id: str, faces: Faces, found: Coordinates | None, surface: str, size: tuple[float, float], bare: str
) -> DrawPart:
    uv = in_repeats(found, size) if found is not None else np.zeros((len(faces), 3, 3)) + [0.0, 0.0, 1.0]
    return DrawPart(
        id,
        (one.mesh.corners[faces].reshape(-1, 3) / 1000).astype(np.float32),
        corner_normals(one.mesh)[faces].reshape(-1, 3).astype(np.float32),
        uv.reshape(-1, 3).astype(np.float32),
        surface,
        hex_to_linear(bare),
        (size[0] / 1000, size[1] / 1000),
        _seen(found) if found is not None and found.sides is not None else None,
        one.part.id,
        box=(_triple(one.mesh.box[0] / 1000), _triple(one.mesh.box[1] / 1000)),
    )


def make_light(parts: Sequence[DrawPart], current: Callable[[], bool] = lambda: True) -> None:
    """Make the stand-ins of large parts that have none yet; off the thread that draws."""
    for part in parts:
        if part.light is not None and current():
            part.light.make()


def in_repeats(found: Coordinates, size: tuple[float, float]) -> npt.NDArray[np.float64]:
    """(N, 3, 3): places as shares of a repeat, times w, and w. Whole repeats are taken off, so that single precision
    holds them to a hundredth of a pixel.
    """
    uv = found.corners / [size[0], size[1], 1.0]
    if len(uv) and np.all(uv[..., 2] == 1.0):
        uv[..., :2] -= np.floor(uv[..., :2].min((0, 1)))
    return np.asarray(uv)


def _seen(found: Coordinates) -> Seen:
    sides = found.sides
    assert sides is not None
    # Frames of the shader: for each side, near and far, along and up.
    m = found.finish.matrix
    x, y = found.finish.shift / 1000
    return Seen(
        tuple(_triple(row) for row in sides.axes),
        tuple(_triple(row) for row in sides.frames.reshape(12, 3)),
        _triple(sides.origin / 1000),
        sides.sharpness,
        sides.relief,
        (float(m[0, 0]), float(m[0, 1]), float(m[1, 0]), float(m[1, 1])),
        (float(x), float(y)),
    )


def _triple(row: npt.NDArray[np.float64]) -> tuple[float, float, float]:
    return float(row[0]), float(row[1]), float(row[2])


def find_under(site: Site, camera: Camera, x: float, y: float, aspect: float, *, locked: bool = True) -> Hit | None:
    """What lies under a point of the picture (−1 to 1, y up); mm."""
    origin, direction = camera.ray(x, y, aspect)
    return pick(site, origin * 1000, direction, locked=locked)
