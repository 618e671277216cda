"""The scene's scale read back by independent libraries (trimesh, pygltflib); check-values E1 and E."""

import io

import numpy as np
import pygltflib
import pytest
import trimesh
from PIL import Image

from brave_tessel.core.place.figure import FIGURE_MM
from brave_tessel.core.place.site import site_of
from brave_tessel.demo.pavilion import DEEP, LONG, THICK
from brave_tessel.engine.handover.outputs.scene_glb import scene_glb


@pytest.fixture(scope="module")
def glb(demo):
    from brave_tessel.engine.session import Session
    from brave_tessel.formats.job_file import OpenedJob

    return scene_glb(Session(OpenedJob(demo.job, dict(demo.blobs))).snapshot(), px=128)


@pytest.fixture(scope="module")
def read(glb):
    return trimesh.load(io.BytesIO(glb), file_type="glb")


SIZES = {"North wall": (1.224, 1.248), "Floor": (1.12, 0.72), "Roof, two slopes": (0.0, 0.0)}
"""Repeats in metres; of the roof that of its fitted slates."""


def parts_of(read, name):
    """Meshes of a node in the scene, by their material."""
    found = {}
    for node in read.graph.nodes_geometry:
        matrix, geometry = read.graph[node]
        if node == name or read.graph.transforms.parents.get(node) == name or node.startswith(name):
            mesh = read.geometry[geometry].copy()
            mesh.apply_transform(matrix)
            found[str(mesh.visual.material.name)] = mesh
    return found


def test_geometry_is_in_metres(read):
    figure = next(iter(parts_of(read, "Figure 1.75 m").values()))
    assert np.ptp(figure.vertices[:, 1]) == pytest.approx(FIGURE_MM / 1000, abs=1e-4)
    walls = [mesh for name in ("North wall", "South wall") for mesh in parts_of(read, name).values()]
    low = np.min([mesh.bounds[0] for mesh in walls], 0)
    high = np.max([mesh.bounds[1] for mesh in walls], 0)
    # x east, y up, z south: the hall is 6 by 4.2 m between walls of 320 mm.
    assert (low[0], high[0]) == pytest.approx((0, LONG / 1000), abs=1e-4)
    assert (low[2], high[2]) == pytest.approx((-THICK / 1000, (DEEP + THICK) / 1000), abs=1e-4)


@pytest.mark.parametrize(("part", "size"), SIZES.items())
def test_world_length_over_uv_length_is_the_tile_size(demo, read, part, size):
    """Along every side of every face, by the material that carries the size."""
    if not any(size):
        laid = next(one for one in demo.job.scene.parts if one.name == part).laid[0]
        assert laid.dials
        size = np.array(site_of(demo.job).repeat(laid)) / 1000
    mesh = next(
        m
        for m in parts_of(read, part).values()
        if m.visual.material.name not in {"Bare", "Limewash on render", "Limewash indoors"}
    )
    uv, faces = mesh.visual.uv * np.array(size), mesh.faces
    for a, b in ((0, 1), (1, 2)):
        real = np.linalg.norm(mesh.vertices[faces[:, a]] - mesh.vertices[faces[:, b]], axis=1)
        laid = np.linalg.norm(uv[faces[:, a]] - uv[faces[:, b]], axis=1)
        assert laid == pytest.approx(real, rel=1e-3, abs=1e-4)


def test_the_tree_of_parts_is_kept(glb):
    tree = pygltflib.GLTF2().load_from_bytes(glb)
    names = {node.name: node for node in tree.nodes}
    children = {tree.nodes[k].name for k in names["Changing hall"].children}
    assert {"North wall", "Floor", "Vault", "Columns"} <= children
    assert {"Columns", "Columns 2"} <= set(names)


def test_sizes_names_and_samplers_survive_another_library(glb, tmp_path):
    tree = pygltflib.GLTF2().load_from_bytes(glb)
    again = tmp_path / "again.glb"
    tree.save(str(again))
    back = pygltflib.GLTF2().load(str(again))
    extras = {material.name: material.extras.get("repeat_m") for material in back.materials}
    assert extras["Limewashed dado tile"] == pytest.approx([1.224, 1.248])
    assert {node.name for node in back.nodes} >= set(SIZES) | {"Curved bench"}
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
    mesh = parts_of(read, "North wall")["Limewashed dado tile"]
    assert (mesh.face_normals @ np.array([0, 0, 1.0]) > 0.99).all()
