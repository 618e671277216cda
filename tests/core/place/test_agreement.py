"""One laying for every reader: the picture's own pick, what is drawn, the elevation and the file agree to 0.1 px."""

import io

import numpy as np
import pytest
import trimesh

from brave_tessel.core.job.scene import Pin
from brave_tessel.core.operation import family
from brave_tessel.core.place.elevation import unroll
from brave_tessel.core.place.rays import pick
from brave_tessel.core.place.sampled import fill
from brave_tessel.core.place.site import site_of
from brave_tessel.engine.handover.outputs.scene_glb import scene_glb
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob
from brave_tessel.view3d.scene import draw_parts
from tests.core.place.scenes import SURFACE, job, laid, part

POINTS = 200
PX = np.array([SURFACE.width_mm, SURFACE.height_mm]) / 2048
PINS = tuple(
    Pin(id=str(k), x_mm=x, y_mm=y, at=at)
    for k, (x, y, at) in enumerate(
        ((0, 0, (500.0, 0, 300.0)), (612, 0, (2400.0, 0, 500.0)), (612, 312, (2300.0, 0, 2200.0)),
         (0, 312, (700.0, 0, 1800.0)))
    )
)  # fmt: skip
VALUES = {"turn": 17.0, "across": 41.0, "up": -23.0, "factor": 1.3}


def made(kind):
    """A part that suits the kind, turned by 5° and moved, with the laying on it."""
    op, values = {
        "path": ("arch", {}), "around": ("column", {}), "unwrapped": ("cloth", {"folds": 4.0}),
        "all_round": ("ball", {"diameter": 1500.0}),
    }.get(kind, ("wall", {}))  # fmt: skip
    given = VALUES if kind != "pinned" else {}
    on = laid(kind, *(("front",) if op == "wall" else ()), values=given, pins=PINS if kind == "pinned" else ())
    turn, at = (0.0, (0.0, 0.0, 0.0)) if kind == "pinned" else (5.0, (130.0, -70.0, 12.0))
    return job(part("p", op, values, turn=turn, at=at, laid=[on]))


@pytest.fixture(scope="module", params=[entry.id.split(".")[1] for entry in family("laying")])
def seen(request):
    """A kind of laying: its site, and points of its part with the face and the shares that the pick found."""
    site = site_of(made(request.param))
    one = site.standing[0]
    rng = np.random.default_rng(11)
    faces = one.faces_of(0)
    chosen = rng.choice(faces, 4 * POINTS, p=one.mesh.areas[faces] / one.mesh.areas[faces].sum())
    points = np.einsum("nc,nck->nk", rng.dirichlet((1, 1, 1), len(chosen)), one.mesh.corners[chosen])
    hits = []
    for face, point in zip(chosen, points, strict=True):
        normal = one.mesh.normals[face]
        found = pick(site, point + 40 * normal, -normal)
        if found is not None and found.face == face:
            hits.append(found)
    assert len(hits) >= POINTS
    return request.param, site, one, hits[:POINTS]


def told(site, one, hits):
    """What the laying says at the picked points, mm."""
    found = site.coordinates(one, 0)
    rows = np.searchsorted(found.faces, [hit.face for hit in hits]).astype(np.int32)
    return found.at(rows, np.array([hit.shares for hit in hits])), found, rows


def apart(one, other):
    """How far two places on the surface lie from each other, px of a repeat of 2048, whole repeats left out."""
    off = (np.asarray(one) - np.asarray(other)) / PX
    return np.abs(off - 2048 * np.round(off / 2048)).max()


def test_what_is_drawn_agrees(seen):
    """The corners that go to the 3D driver, in single precision, against the laying in double."""
    kind, site, one, hits = seen
    places, _, rows = told(site, one, hits)
    drawn = next(entry for entry in draw_parts(site) if entry.surface == "s")
    shares = np.array([hit.shares for hit in hits])
    if drawn.seen is not None:
        sides = drawn.seen
        points = np.einsum("nc,nck->nk", shares, drawn.positions.reshape(-1, 3, 3)[rows]) - np.array(sides.origin)
        normals = np.einsum("nc,nck->nk", shares, drawn.normals.reshape(-1, 3, 3)[rows])
        best = np.abs(normals @ np.array(sides.axes).T).argmax(1)
        far = 4 * best + 2 * (normals[np.arange(len(rows))] @ np.array(sides.axes).T < 0)[np.arange(len(rows)), best]
        frames = np.array(sides.frames)
        flat = np.stack([(frames[far + k] * points).sum(1) for k in (0, 1)], 1) - np.array(sides.shift)
        uv = flat @ np.array(sides.finish).reshape(2, 2).T * 1000
    else:
        held = np.einsum("nc,nck->nk", shares, drawn.uv.reshape(-1, 3, 3)[rows].astype(np.float64))
        uv = held[:, :2] / held[:, 2:] * [SURFACE.width_mm, SURFACE.height_mm]
    assert apart(uv, places) < 0.1, kind


def test_the_elevation_agrees(seen):
    """A picture whose pixels name themselves is drawn, and each place of the drawing is the one the laying names."""
    kind, site, one, _ = seen
    drawing = unroll(site, "p")
    face = next(f for f in drawing.faces if f.row == 0)
    size = (512, 1024)
    rows, columns = np.mgrid[: size[0], : size[1]]
    named = np.stack([columns % 256, rows % 256, columns // 256 + 4 * (rows // 256)], -1).astype(np.uint8)
    left, low, right, high = face.bounds
    mm = max(right - left, high - low) / 300
    codes = np.zeros((round((high - low) / mm) + 1, round((right - left) / mm) + 1, 4), np.uint8)
    found = site.coordinates(one, 0)
    if found.sides is not None:
        pytest.skip("mixed of three places; the weights are tested with the laying")
    fill(codes, face, found, (SURFACE.width_mm, SURFACE.height_mm), [named], (left, high), mm)
    r, c = np.nonzero(codes[..., 3])
    assert len(r) > 200
    corners = face.corners
    flat = np.stack([left + (c + 0.5) * mm, high - (r + 0.5) * mm], 1)
    pickable = np.random.default_rng(2).choice(len(r), 200, replace=False)
    for k in pickable:
        row, shares = _within(corners, flat[k])
        index = np.searchsorted(found.faces, [face.facet.faces[row]]).astype(np.int32)
        along, up = found.at(index, shares[None])[0] / [SURFACE.width_mm, SURFACE.height_mm] % 1.0
        red, green, blue, _ = codes[r[k], c[k]].astype(int)
        column, line = red + 256 * (blue % 4), green + 256 * (blue // 4)
        # Within the pixel that holds it; the drawing reads the nearest.
        off = ((column + 0.5) / size[1] - along) * size[1], ((size[0] - line - 0.5) / size[0] - up) * size[0]
        off = [abs(v - n * round(v / n)) for v, n in zip(off, (size[1], size[0]), strict=True)]
        assert max(off) <= 0.5 + 1e-3, kind


def _within(corners, point):
    a, b, c = (corners[:, k] for k in range(3))
    area = (b[:, 0] - a[:, 0]) * (c[:, 1] - a[:, 1]) - (c[:, 0] - a[:, 0]) * (b[:, 1] - a[:, 1])
    area = np.where(np.abs(area) < 1e-9, np.nan, area)
    u = ((b[:, 0] - point[0]) * (c[:, 1] - point[1]) - (c[:, 0] - point[0]) * (b[:, 1] - point[1])) / area
    v = ((c[:, 0] - point[0]) * (a[:, 1] - point[1]) - (a[:, 0] - point[0]) * (c[:, 1] - point[1])) / area
    shares = np.stack([u, v, 1 - u - v], 1)
    row = int(np.nanargmax(np.where(np.isnan(shares).any(1), -np.inf, np.nan_to_num(shares, nan=-9.0).min(1))))
    return row, shares[row]


def test_the_file_agrees(seen):
    """The glTF is read by trimesh, in metres with y up, and asked at the same points of the scene."""
    kind, site, one, hits = seen
    glb = scene_glb(Session(OpenedJob(site.job)).snapshot(), px=32)
    read = trimesh.load_scene(io.BytesIO(glb), file_type="glb")
    laid_on = [name for name, mesh in read.geometry.items() if "S" in str(mesh.visual.material.name)]
    places, found, _ = told(site, one, hits)
    if found.sides is not None:
        # A file has one place to a point: it is that of the side the whole face looks to.
        rows = np.searchsorted(found.faces, [hit.face for hit in hits])
        shares = np.array([hit.shares for hit in hits])
        places = np.einsum("nc,nck->nk", shares, found.flat_corners()[rows])
    node = next(n for n in read.graph.nodes_geometry if read.graph[n][1] in laid_on)
    matrix, name = read.graph[node]
    mesh = read.geometry[name].copy()
    mesh.apply_transform(matrix)
    points = np.array([[hit.point[0], hit.point[2], -hit.point[1]] for hit in hits]) / 1000
    ways = np.array([[hit.normal[0], hit.normal[2], -hit.normal[1]] for hit in hits])
    # Asked once: trimesh looks its whole mesh through for changes at every asking.
    triangles, normals, faces, unwrap = (
        np.array(part) for part in (mesh.triangles, mesh.face_normals, mesh.faces, mesh.visual.uv)
    )
    worst = 0.0
    for point, way, place in zip(points, ways, places, strict=True):
        flat = np.abs(np.einsum("nk,nk->n", triangles[:, 0] - point, normals)) < 2e-6
        same = flat & (normals @ way > 0.99)
        shares = trimesh.triangles.points_to_barycentric(triangles[same], np.repeat(point[None], same.sum(), 0))
        inside = shares.min(1).argmax()
        assert shares[inside].min() > -1e-3
        uv = shares[inside] @ unwrap[faces[np.flatnonzero(same)[inside]]]
        off = apart(np.array([uv[0], uv[1]]) * [SURFACE.width_mm, SURFACE.height_mm], place)
        worst = max(worst, off)
    assert worst < 0.1, kind
