"""What Place waits for: large scenes moved, picked and laid, beside trimesh and plain numpy."""

from __future__ import annotations

import itertools
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache
from typing import Any

import numpy as np
import trimesh

import brave_tessel.core.registered  # noqa: F401
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Surface
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.job.scene import Laid, Model, Part, Scene
from brave_tessel.core.place.mesh import Mesh
from brave_tessel.core.place.piece import Made
from brave_tessel.core.place.rays import make_ready, pick
from brave_tessel.core.place.site import Ground, Site, model_key
from brave_tessel.core.place.topology import corner_normals, facets
from brave_tessel.engine.pictures.results import SurfacePictures
from brave_tessel.view3d.camera import from_points
from brave_tessel.view3d.renderer import DrawPart, Look, Renderer
from brave_tessel.view3d.scene import draw_parts, make_light

Timer = Callable[..., float]
Case = tuple[str, Callable[[], Any], Callable[[], Any], str]
SURFACES = 8
MODEL = Model(blob="b", part="p")
FROM, DOWN = np.array([5000.0, -3000, 6000]), np.array([0, 0.6, -0.8])


def ground(across: int) -> Mesh:
    """Ground with hills, 10 m square, in eight face groups: 2·(across − 1)² triangles."""
    line = np.linspace(0, 10000, across)
    x, y = np.meshgrid(line, line)
    z = 400 * np.sin(x / 900) * np.cos(y / 700) + 60 * np.sin(x / 90)
    at = np.arange(across * across).reshape(across, across)
    quads = np.stack([at[:-1, :-1], at[:-1, 1:], at[1:, 1:], at[1:, :-1]], -1).reshape(-1, 4)
    faces = np.stack([quads[:, [0, 1, 2]], quads[:, [0, 2, 3]]], 1).reshape(-1, 3).astype(np.int32)
    groups = (np.arange(len(faces)) * SURFACES // len(faces)).astype(np.int32)
    return Mesh(np.stack([x, y, z], -1).reshape(-1, 3), faces, groups, tuple(f"m{k}" for k in range(SURFACES)))


def job_of(shift: float) -> Job:
    surfaces = tuple(Surface(id=f"s{k}", name=f"S{k}", width_mm=600.0, height_mm=400.0) for k in range(SURFACES))
    laid = tuple(
        Laid(
            id=f"l{k}",
            surface=f"s{k}",
            groups=(f"m{k}",),
            laying=Setting(op="laying.box", values={"soft": 0.0, "across": 0.0 if k else shift}),
        )
        for k in range(SURFACES)
    )
    return Job(surfaces=surfaces, scene=Scene(parts=(Part(id="t", name="t", model=MODEL, laid=laid),)))


@dataclass
class Stage:
    """A large scene set up once: where it stands, its parts to draw, a renderer with eight textures."""

    ground: Ground
    made: Made
    site: Site
    parts: list[DrawPart]
    renderer: Renderer


@cache
def stage(across: int) -> Stage:
    made, setting_out = Made(ground(across)), Ground()
    site = setting_out.site(job_of(0.0), {model_key(MODEL): made})
    parts, renderer = draw_parts(site), Renderer()
    make_ready(site)
    make_light(parts)
    renderer.set_parts(parts)
    colour = np.random.default_rng(1).integers(60, 200, (1024, 1024, 3), dtype=np.uint8)
    flat, rough = np.full_like(colour, 128), np.full_like(colour, 190)
    for k in range(SURFACES):
        renderer.set_textures(f"s{k}", SurfacePictures(b"1", colour, flat, rough))
    return Stage(setting_out, made, site, parts, renderer)


def look(width: int, height: int, *, moving: bool) -> Look:
    camera = from_points(np.array([5, -6, 6.0]), np.array([5, 4.0, 0]))
    return Look(camera, width, height, moving=moving)


def plain_pick(points: np.ndarray, faces: np.ndarray) -> float:
    """Möller and Trumbore's intersection, over all triangles at once."""
    a, b, c = (points[faces[:, k]] for k in range(3))
    along, up = b - a, c - a
    p = np.cross(DOWN, up)
    with np.errstate(divide="ignore", invalid="ignore"):
        scale = 1 / np.einsum("ij,ij->i", along, p)
        t = FROM - a
        u = np.einsum("ij,ij->i", t, p) * scale
        q = np.cross(t, along)
        v = q @ DOWN * scale
        reach = np.einsum("ij,ij->i", up, q) * scale
    return float(reach[(u >= 0) & (v >= 0) & (u + v <= 1) & (reach > 0)].min())


def cases() -> Iterator[Case]:
    small = ground(317)
    plain = trimesh.Trimesh(small.points, small.triangles, process=False)

    def anew(read: Callable[[Mesh], Any]) -> Callable[[], Any]:
        return lambda: read(Mesh(small.points, small.triangles, small.groups, small.names))

    def plain_facets() -> Any:
        plain._cache.clear()
        return plain.facets

    yield "faces in one plane, 200 k triangles", anew(facets), plain_facets, "trimesh facets"
    yield (
        "normals with sharp edges kept, 200 k triangles",
        anew(corner_normals),
        lambda: trimesh.graph.smooth_shade(plain, angle=np.radians(30)).vertex_normals,
        "trimesh smooth_shade",
    )
    big = stage(708)
    points, faces = big.site.standing[0].mesh.points, big.site.standing[0].mesh.triangles
    yield (
        "pick a face among 1 M triangles",
        lambda: pick(big.site, FROM, DOWN),
        lambda: plain_pick(points, faces),
        "numpy Möller–Trumbore",
    )


def frame(across: int, width: int, height: int, *, moving: bool) -> Callable[[Timer], float]:
    return lambda timer: timer(lambda: stage(across).renderer.draw(look(width, height, moving=moving)))


def laying(timer: Timer) -> float:
    """One laying of eight shifted: set up, handed to the card, drawn as while moving."""
    here, shift = stage(317), itertools.count(1)

    def once() -> None:
        site = here.ground.site(job_of(float(next(shift))), {model_key(MODEL): here.made})
        here.renderer.set_parts(draw_parts(site))
        here.renderer.draw(look(405, 270, moving=True))

    return timer(once)


def set_up(_timer: Timer) -> float:
    """Two million triangles from the mesh to what is drawn and picked, off the window's thread."""
    mesh = ground(1001)
    begun = time.perf_counter()
    site = Ground().site(job_of(0.0), {model_key(MODEL): Made(mesh)})
    make_ready(site)
    make_light(draw_parts(site))
    return (time.perf_counter() - begun) * 1000


def actions() -> Iterator[tuple[str, Callable[[Timer], float], str]]:
    yield "200 k triangles, 8 surfaces, moving, 405 × 270", frame(317, 405, 270, moving=True), "33"
    yield "200 k triangles, 8 surfaces, at rest, 900 × 600", frame(317, 900, 600, moving=False), "-"
    yield "1 M triangles, moving, 405 × 270", frame(708, 405, 270, moving=True), "33"
    yield "shift a laying, 200 k triangles, to picture", laying, "100"
    yield "2 M triangles set up to draw and pick", set_up, "-"
