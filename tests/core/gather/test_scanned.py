"""A scanned mesh laid flat: made reliefs, tilted and turned, come back with size, height, normal and colour."""

from __future__ import annotations

import numpy as np
import pytest
import trimesh
from PIL import Image

from brave_tessel.core.errors import DegenerateViewError, UnreadableFileError
from brave_tessel.core.gather.scanned import largest_rectangle, lay_flat
from brave_tessel.core.job.document import Job
from brave_tessel.core.maps import MapKind
from brave_tessel.engine.gather.reading import read_sources
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob
from brave_tessel.formats.scanned_models import read_scan

WIDE, TALL, RISE = 0.8, 0.6, 0.01


def rise(x, y):
    return RISE * np.sin(2 * np.pi * x / 0.2) * np.cos(2 * np.pi * y / 0.2 + 0.5)


def made(*, hole=False, textured=True, metres=1.0):
    """A relief of 800 × 600 mm with a picture whose red grows to the right and green upward, tilted and moved."""
    x, y = np.meshgrid(np.linspace(0, WIDE, 160), np.linspace(0, TALL, 120))
    points = np.stack([x, y, rise(x, y)], 2).reshape(-1, 3)
    number = np.arange(160 * 120).reshape(120, 160)
    quads = np.stack([number[:-1, :-1], number[:-1, 1:], number[1:, 1:], number[1:, :-1]], 2)
    if hole:
        quads[:30, :40] = 0
    quads = quads.reshape(-1, 4)
    faces = np.concatenate([quads[:, [0, 1, 2]], quads[:, [0, 2, 3]]])
    faces = faces[faces.max(1) > 0] if hole else faces
    turn = trimesh.transformations.rotation_matrix(np.radians(35), [1, 0.3, 0.2])[:3, :3]
    seen = (points @ turn.T + [3, 1, 2]) * metres
    if not textured:
        codes = np.rint(255 * np.stack([x / WIDE, y / TALL, 0 * x], 2)).astype(np.uint8).reshape(-1, 3)
        return trimesh.Trimesh(seen, faces, process=False, vertex_colors=np.c_[codes, np.full(len(codes), 255)])
    picture = np.zeros((300, 400, 3), np.uint8)
    picture[..., 0] = np.rint(np.linspace(0, 255, 400))
    picture[..., 1] = np.rint(np.linspace(255, 0, 300))[:, None]
    uv = np.stack([x / WIDE, y / TALL], 2).reshape(-1, 2)
    visual = trimesh.visual.TextureVisuals(uv=uv, image=Image.fromarray(picture))
    return trimesh.Trimesh(seen, faces, process=False, visual=visual)


def laid(path):
    mesh = read_scan(path)
    return lay_flat(mesh.corners, mesh.places, mesh.picture, mesh.colours)


@pytest.mark.parametrize("kind", ["glb", "obj"])
def test_a_textured_scan_comes_back(tmp_path, kind):
    path = tmp_path / f"wall.{kind}"
    made().export(str(path))
    flat = laid(path)
    assert flat.size == pytest.approx((WIDE, TALL), rel=2e-3)
    assert flat.filled < 0.005
    rows, columns = flat.height.shape
    assert columns / rows == pytest.approx(WIDE / TALL, rel=0.01)
    x, y = (np.arange(columns) + 0.5) / columns * WIDE, TALL - (np.arange(rows) + 0.5) / rows * TALL
    wanted = rise(x[None], y[:, None])
    assert np.abs(flat.height - (wanted - wanted.mean())).max() < 0.03 * RISE
    slope_x = 2 * np.pi / 0.2 * RISE * np.cos(2 * np.pi * x[None] / 0.2) * np.cos(2 * np.pi * y[:, None] / 0.2 + 0.5)
    assert np.abs(-flat.normal[..., 0] / flat.normal[..., 2] - slope_x)[4:-4, 4:-4].max() < 0.02
    assert np.allclose(np.linalg.norm(flat.normal, axis=2), 1, atol=1e-4)
    middle = flat.colour[rows // 2]
    assert (np.diff(middle[::20, 0]) > 0).all()
    assert flat.colour[5, columns // 2, 1] > 0.9 > 0.01 > flat.colour[-5, columns // 2, 1]


def test_points_with_colours_and_a_torn_corner(tmp_path):
    path = tmp_path / "torn.ply"
    made(hole=True, textured=False).export(str(path))
    flat = laid(path)
    # The largest whole rectangle leaves out the torn quarter of one side.
    assert flat.filled < 0.01
    area = flat.size[0] * flat.size[1]
    assert 0.68 * WIDE * TALL < area < 0.78 * WIDE * TALL
    assert flat.colour[..., 0].max() > 0.8


def test_largest_rectangle_against_all_of_them():
    rng = np.random.default_rng(5)
    for _ in range(20):
        there = rng.random((7, 9)) > 0.25
        best = max(
            (r1 - r0) * (c1 - c0)
            for r0 in range(7)
            for r1 in range(r0, 8)
            for c0 in range(9)
            for c1 in range(c0, 10)
            if there[r0:r1, c0:c1].all()
        )
        top, left, rows, columns = largest_rectangle(there)
        assert rows * columns == best
        assert there[top : top + rows, left : left + columns].all()


def test_a_scan_is_a_source_with_its_maps(tmp_path):
    path = tmp_path / "Quarry_face.obj"
    made(metres=1000.0).export(str(path))
    session = Session(OpenedJob(Job()))
    (source,), told = read_sources(session.intake(), [path])
    assert (source.name, source.kind) == ("Quarry face", "scan")
    assert (source.straightening.width_mm, source.straightening.height_mm) == pytest.approx((800, 600), rel=2e-3)
    assert {picture.role for picture in source.pictures} == {"normal", "height"}
    assert source.true_relief
    assert "mm" in told[0]
    snapshot = session.snapshot().with_job(Job(sources=(source,)))
    maps = snapshot.evaluation().value(snapshot.planner().flat(source, 256))
    assert np.ptp(maps[MapKind.HEIGHT]) == pytest.approx(20, rel=0.05)


def test_a_scan_within_a_folder_is_gathered_too(tmp_path):
    inside = tmp_path / "scans" / "quarry"
    inside.mkdir(parents=True)
    made(metres=1000.0).export(str(inside / "Quarry_face.obj"))
    (inside / "notes.txt").write_text("north side")
    sources, told = read_sources(Session(OpenedJob(Job())).intake(), [tmp_path / "scans"])
    assert [source.name for source in sources if source.kind == "scan"] == ["Quarry face"]
    assert "notes.txt" in told[0]
    assert not any("Quarry_face.obj" in one and "passed" in one for one in told)


def test_what_cannot_be_laid_flat_is_told(tmp_path):
    path = tmp_path / "odd.obj"
    path.write_text("v 0 0 0\nv 1 0 0\nv 2 0 0\nf 1 2 3\n")
    with pytest.raises(DegenerateViewError):
        laid(path)
    path.write_text("this is no model\n")
    with pytest.raises(UnreadableFileError):
        read_scan(path)
