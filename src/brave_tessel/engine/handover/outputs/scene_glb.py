"""The scene as glTF 2.0 binary, real size in the UVs."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import numpy as np

from ....core.colour import hex_to_linear
from ....core.handover.conversions import packed_orm
from ....core.handover.names import file_stem
from ....core.job.document import Delivery, Job
from ....core.job.layers import Band, Surface
from ....core.job.scene import Part
from ....core.maps import EMISSION_CD, MapKind
from ....core.place.exported import Corners, even_corners
from ....core.place.frames import own_matrix
from ....core.place.mesh import Matrix
from ....core.place.site import BARE, Site, Standing
from ....core.place.topology import corner_normals
from ....core.sheet import AnyArray
from ....formats.disk import write_atomically
from ....formats.gltf import GltfMaterial, GltfNode, GltfPart, encode_glb
from ....formats.images import encode_png
from ...evaluate import always
from ...pictures.bands import banded
from ...snapshot import Snapshot
from ..finish_files import finishes_of, with_alpha
from ..output import Output, Planned, Progress, Writing, output, quiet
from .maps_png import encode_map

SCENE_PX = 1024
TOLERANCE_PX = 0.05
"""Of a repeat of 2048 px."""
_TO_GLTF = np.array([[1.0, 0, 0, 0], [0, 0, 1.0, 0], [0, -1.0, 0, 0], [0, 0, 0, 1.0]])
"""x east, y north, z up become x, z and −y."""


@output("scene-glb", label="glTF 2.0 of the scene (.glb)", tip="Real size in the UVs, so any reader opens it right")
class SceneGlb(Output):
    """One file with every part."""

    def planned(self, job: Job, delivery: Delivery, surfaces: tuple[Surface, ...]) -> list[Planned]:
        return [Planned(f"{file_stem(job.name)}.glb", "Scene with real-size UVs", 8, 12_000_000)]

    def write(self, writing: Writing) -> list[Path]:
        target = writing.folder / f"{file_stem(writing.snapshot.job.name)}.glb"
        data = scene_glb(writing.snapshot, progress=writing.progress, current=writing.current)
        write_atomically(target, data)
        return [target]


def scene_glb(
    snapshot: Snapshot, *, px: int = SCENE_PX, progress: Progress = quiet, current: Callable[[], bool] = always
) -> bytes:
    """The job's scene as glTF 2.0 binary, each surface baked at ``px`` pixels; hidden parts are left out."""
    site = snapshot.site(current)
    materials = _Materials(snapshot, px, current)
    nodes: dict[str, list[Standing]] = {}
    for one in site.standing:
        nodes.setdefault(one.part.id, []).append(one)
    count = max(1, len(site.scene.parts))
    done = 0

    def node(part: Part) -> GltfNode:
        nonlocal done
        done += 1
        progress(f"Scene: {part.name}", done / count)
        mine = nodes.get(part.id, [])
        children = tuple(node(child) for child in site.scene.children(part.id))
        parts = _parts(site, mine[0], materials) if mine else ()
        return GltfNode(part.name, _turned(own_matrix(part)), parts, children, _told(part))

    known = {part.id for part in site.scene.parts}
    roots = [node(part) for part in site.scene.parts if part.parent not in known]
    copies = [
        GltfNode(f"{one.part.name} {one.copy + 1}", _turned(one.matrix), _parts(site, one, materials))
        for standing in nodes.values()
        for one in standing[1:]
    ]
    return encode_glb([*roots, *copies], materials.made, scene_name=site.job.name)


def _turned(matrix: Matrix) -> Matrix:
    """A transform of the scene, mm and z up, as one of glTF, metres and y up."""
    out = _TO_GLTF @ matrix @ _TO_GLTF.T
    out[:3, 3] /= 1000
    return np.asarray(out)


def _told(part: Part) -> dict[str, object]:
    """What readers may want to know of a part: how its surfaces lie."""
    laid = [{"surface": one.surface, "laying": one.laying.op, "faces": list(one.groups)} for one in part.laid]
    return {"laid": laid} if laid else {}


class _Materials:
    """Materials by surface or colour, each made once."""

    def __init__(self, snapshot: Snapshot, px: int, current: Callable[[], bool]) -> None:
        self.snapshot, self.px, self.current = snapshot, px, current
        self.made: list[GltfMaterial] = []
        self._numbers: dict[str, int] = {}

    def number(self, surface: Surface | None, bare: str, band: Band | None = None) -> int:
        key = f"{surface.id}#{band.id if band else ''}" if surface else bare
        if key not in self._numbers:
            self._numbers[key] = len(self.made)
            self.made.append(self._of_surface(surface, band) if surface else _plain(bare))
        return self._numbers[key]

    def _of_surface(self, surface: Surface, band: Band | None) -> GltfMaterial:
        snapshot = self.snapshot
        maps = snapshot.finished(surface, self.px, evaluation=snapshot.evaluation(self.current))
        maps = banded(maps, band) if band else maps
        kinds = (MapKind.AMBIENT_OCCLUSION, MapKind.ROUGHNESS, MapKind.METALNESS)
        orm = packed_orm(*(np.asarray(maps[kind]) for kind in kinds))
        grid = maps.grid
        return GltfMaterial(
            _name(surface, band),
            (grid.width_mm / 1000, grid.height_mm / 1000),
            with_alpha(maps) if surface.cut_out else encode_map(MapKind.BASE_COLOUR, maps, 8),
            encode_png(orm, width_mm=grid.width_mm, height_mm=grid.height_mm),
            encode_map(MapKind.NORMAL, maps, 8),
            cut_out=surface.cut_out,
            emission=encode_map(MapKind.EMISSION, maps, 8) if MapKind.EMISSION in maps else b"",
            emission_cd=EMISSION_CD,
            finishes=finishes_of(maps),
        )


def _name(surface: Surface, band: Band | None) -> str:
    """A material's name; one fitted to its faces, and a band, say so, so that no two are called alike."""
    fit = surface.id.partition("~")[2]
    return ", ".join(word for word in (surface.name, fit, band.name if band else "") if word)


def _plain(colour: str) -> GltfMaterial:
    return GltfMaterial("Bare", (1.0, 1.0), factor=hex_to_linear(colour))


def _parts(site: Site, one: Standing, materials: _Materials) -> tuple[GltfPart, ...]:
    """Everything laid on something that stands, and its bare faces, in its own metres."""
    into = np.asarray(np.linalg.inv(one.matrix), np.float64)
    out = []
    for row, laid in enumerate(one.part.laid):
        surface = site.surface(laid)
        if surface is None or not len(one.faces_of(row)):
            continue
        size = np.array(site.repeat(laid))
        found = site.coordinates(one, row)
        corners = even_corners(found, TOLERANCE_PX * float(size.min()) / 2048)
        uv = corners.places / size
        uv -= np.floor(uv.min((0, 1)))
        out.append(_part(corners, uv, into, materials.number(surface, "", surface.band(laid.band))))
    lost = [row for row, laid in enumerate(one.part.laid) if site.surface(laid) is None]
    bare = np.flatnonzero(np.isin(one.covering, [BARE, *lost])).astype(np.int32)
    for name_number in np.unique(one.mesh.groups[bare]):
        faces = bare[one.mesh.groups[bare] == name_number]
        colour = one.part.colours.get(str(one.mesh.names[name_number]), one.part.bare)
        corners = Corners(
            one.mesh.corners[faces], corner_normals(one.mesh)[faces], np.zeros((len(faces), 3, 2)), faces
        )  # fmt: skip
        out.append(_part(corners, corners.places, into, materials.number(None, colour)))
    return tuple(out)


def _part(corners: Corners, uv: AnyArray, into: Matrix, material: int) -> GltfPart:
    points = corners.points.reshape(-1, 3) @ into[:3, :3].T + into[:3, 3]
    normals = corners.normals.reshape(-1, 3) @ np.linalg.inv(into[:3, :3])
    normals /= np.maximum(np.linalg.norm(normals, axis=1, keepdims=True), 1e-12)
    turn = _TO_GLTF[:3, :3].T
    if np.linalg.det(into[:3, :3]) < 0:
        # Under a mirroring transform glTF turns faces round itself.
        order = np.arange(len(points)).reshape(-1, 3)[:, [0, 2, 1]].ravel()
        points, normals, uv = points[order], normals[order], uv.reshape(-1, 2)[order]
    return GltfPart(
        (points @ turn / 1000).astype(np.float32),
        (normals @ turn).astype(np.float32),
        uv.reshape(-1, 2).astype(np.float32),
        material,
    )
