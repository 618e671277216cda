"""The scene's scale read back by independent libraries (trimesh, pygltflib); check-values E1 and E."""

import io

import numpy as np
import pygltflib
import pytest
import trimesh
from PIL import Image

from brave_tessel.core.place.figure import FIGURE_MM
from brave_tessel.core.place.pieces.corner import CORNER
from brave_tessel.engine.handover.outputs.scene_glb import scene_glb


@pytest.fixture(scope="module")
def glb(demo):
    from brave_tessel.engine.session import Session
    from brave_tessel.formats.job_file import OpenedJob

    return scene_glb(Session(OpenedJob(demo.job, dict(demo.blobs))).snapshot(), px=128)


@pytest.fixture(scope="module")
def read(glb):
    return trimesh.load(io.BytesIO(glb), file_type="glb")


SIZES = {"North dado": (1.224, 1.248), "East dado": (1.224, 1.248), "North wall": (1.5, 1.5), "Floor": (1.12, 0.72)}


def test_geometry_is_in_metres(read):
    low, high = read.bounds
    assert high[0] - 0 == pytest.approx(CORNER.north / 1000, abs=1e-4)
    assert high[1] == pytest.approx(CORNER.height / 1000, abs=1e-4)
    assert low[1] == pytest.approx(0, abs=1e-6)
    figure = read.geometry[read.graph["Figure 1.75 m"][1]]
    assert np.ptp(figure.vertices[:, 1]) == pytest.approx(FIGURE_MM / 1000, abs=1e-4)


@pytest.mark.parametrize(("part", "size"), SIZES.items())
def test_world_length_over_uv_span_is_the_tile_size(read, part, size):
    mesh = read.geometry[read.graph[part][1]]
    uv, points = mesh.visual.uv, mesh.vertices
    extent = np.ptp(points, axis=0)
    along, up = (extent[0], extent[2]) if part == "Floor" else (max(extent[0], extent[2]), extent[1])
    assert along / np.ptp(uv[:, 0]) == pytest.approx(size[0], rel=1e-3)
    assert up / np.ptp(uv[:, 1]) == pytest.approx(size[1], rel=1e-3)


def test_sizes_names_and_samplers_survive_another_library(glb, tmp_path):
    tree = pygltflib.GLTF2().load_from_bytes(glb)
    again = tmp_path / "again.glb"
    tree.save(str(again))
    back = pygltflib.GLTF2().load(str(again))
    extras = {material.name: material.extras.get("repeat_m") for material in back.materials}
    assert extras["Limewashed dado tile"] == pytest.approx([1.224, 1.248])
    assert {node.name for node in back.nodes} >= set(SIZES) | {"Window reveal"}
    assert (back.samplers[0].wrapS, back.samplers[0].wrapT) == (10497, 10497)
    laid = next(m for m in back.materials if m.name == "Limewashed dado tile")
    assert laid.pbrMetallicRoughness.metallicFactor == 1.0
    assert laid.occlusionTexture.index == laid.pbrMetallicRoughness.metallicRoughnessTexture.index
    assert laid.normalTexture is not None


def test_orm_channels_and_normal_direction(demo_session, glb):
    tree = pygltflib.GLTF2().load_from_bytes(glb)
    images = {image.name: image for image in tree.images}
    view = tree.bufferViews[images["Limewashed dado tile occlusion roughness metalness"].bufferView]
    blob = tree.binary_blob()
    orm = np.asarray(Image.open(io.BytesIO(blob[view.byteOffset : view.byteOffset + view.byteLength])))
    maps = demo_session.snapshot().finished(demo_session.job.surfaces[0], 128)
    from brave_tessel.core.maps import MapKind

    for channel, kind in enumerate((MapKind.AMBIENT_OCCLUSION, MapKind.ROUGHNESS, MapKind.METALNESS)):
        assert np.abs(orm[..., channel] / 255 - maps[kind]).max() < 0.003


def test_triangles_face_outward(read):
    """Stored normals agree with the winding."""
    mesh = read.geometry[read.graph["North dado"][1]]
    assert (mesh.face_normals @ np.array([0, 0, 1.0]) > 0.99).all()
