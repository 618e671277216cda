"""Models of every kind: names, instances, places, materials, unwraps; beside trimesh and pygltflib."""

import io
import json
import struct
import zipfile

import numpy as np
import pygltflib
import pytest
import trimesh

from brave_tessel.core.errors import MissingError, TesselError, TooLargeError, UnreadableFileError
from brave_tessel.core.place.guess import UNITS, guess, upright
from brave_tessel.core.place.mend import health, mended
from brave_tessel.core.place.mesh import Mesh
from brave_tessel.formats import scene_models
from brave_tessel.formats.scene_models import bundled, model_parts, read_model
from tests.core.place.test_pieces import build

OBJ = """mtllib a.mtl
o Wall
v 0 0 0
v 4 0 0
v 4 3 0
v 0 3 0
vt 0 0
vt 1 0
vt 1 1
vt 0 1
usemtl red
f 1/1 2/2 3/3 4/4
usemtl blue
f 4/4 3/3 2/2
o Floor
v 0 0 0
v 4 0 0
v 4 0 4
v 0 0 4
usemtl red
f -4 -3 -2 -1
"""
MTL = "newmtl red\nKd 0.8 0.1 0.1\nnewmtl blue\nKd 0.1 0.1 0.8\n"


@pytest.fixture
def box():
    made = trimesh.creation.box((4, 3, 0.2))
    made.visual = trimesh.visual.TextureVisuals(uv=np.linspace(0, 1, 2 * len(made.vertices)).reshape(-1, 2))
    return made


def read(data, name):
    return read_model(data, name)


def test_an_obj_keeps_objects_materials_and_their_colours(tmp_path):
    (tmp_path / "a.obj").write_text(OBJ)
    (tmp_path / "a.mtl").write_text(MTL)
    data = bundled(tmp_path / "a.obj")
    assert data[:2] == b"PK"
    found = read(data, "a.obj")
    shapes = dict(zip(found.names, found.shapes, strict=True))
    assert set(shapes) == {"Wall", "Floor"}
    assert set(shapes["Wall"].names) == {"red", "blue"}
    assert len(shapes["Wall"].of_groups(["blue"])) == 1
    assert shapes["Wall"].unwrap is not None
    assert found.colours == {"red": "#CC1A1A", "blue": "#1A1ACC"}
    assert found.unit_mm == 0


def test_an_obj_without_its_materials_keeps_their_names(tmp_path):
    (tmp_path / "a.obj").write_text(OBJ)
    found = read(bundled(tmp_path / "a.obj"), "a.obj")
    assert {name for shape in found.shapes for name in shape.names} == {"red", "blue"}


@pytest.mark.parametrize("kind", ["stl", "ply", "off", "dae", "glb"])
def test_every_kind_holds_what_another_library_wrote(box, kind, tmp_path):
    path = tmp_path / f"b.{kind}"
    box.export(path)
    found = read(bundled(path), path.name)
    (mesh,) = found.shapes
    low, high = mesh.box
    assert high - low == pytest.approx((4, 3, 0.2), abs=1e-6)
    other = trimesh.Trimesh(mesh.points, mesh.triangles)
    assert other.volume == pytest.approx(box.volume, rel=1e-6)
    assert (found.unit_mm, found.up) == ((1000.0, "y") if kind in {"dae", "glb"} else (0.0, ""))


def test_a_gltf_keeps_names_instances_and_places(box):
    scene = trimesh.Scene()
    turn = trimesh.transformations.compose_matrix(angles=(0.2, 0.5, -0.3), translate=(7, 1, -2), scale=(1, 2, 1))
    scene.add_geometry(box, node_name="Wall A", geom_name="wall")
    scene.add_geometry(box, node_name="Wall B", geom_name="wall", transform=turn)
    data = scene.export(file_type="glb")
    found = read(data, "s.glb")
    assert [node.name for node in found.nodes] == ["Wall A", "Wall B"]
    theirs = trimesh.load_scene(io.BytesIO(data), file_type="glb")
    for node in found.nodes:
        matrix, name = theirs.graph[node.name]
        assert node.matrix == pytest.approx(matrix, abs=1e-6)
        assert found.shapes[node.shape].count == len(theirs.geometry[name].faces)


def gltf(**changes):
    """A triangle as glTF JSON with its buffer inside, and a strip and a fan of the same points."""
    points = np.array([[0, 0, 0], [1, 0, 0], [0, 1, 0], [1, 1, 0]], np.float32)
    tree = {
        "asset": {"version": "2.0"},
        "scene": 0,
        "scenes": [{"nodes": [0]}],
        "nodes": [{"name": "Group", "children": [1], "translation": [0, 2, 0]}, {"name": "Leaf", "mesh": 0}],
        "meshes": [{"name": "m", "primitives": [{"attributes": {"POSITION": 0}, "mode": 5, "material": 0}]}],
        "materials": [{"name": "slate", "pbrMetallicRoughness": {"baseColorFactor": [0.2159, 0, 0, 1]}}],
        "accessors": [{"bufferView": 0, "componentType": 5126, "count": 4, "type": "VEC3"}],
        "bufferViews": [{"buffer": 0, "byteLength": 48}],
        "buffers": [{"uri": "points.bin", "byteLength": 48}],
    }
    return {**tree, **changes}, points.tobytes()


def test_a_gltf_with_a_buffer_beside_it_is_taken_whole(tmp_path):
    tree, data = gltf()
    (tmp_path / "a.gltf").write_text(json.dumps(tree))
    (tmp_path / "points.bin").write_bytes(data)
    found = read(bundled(tmp_path / "a.gltf"), "a.gltf")
    (node,) = found.nodes
    assert (node.name, node.above) == ("Leaf", ("Group",))
    assert node.matrix[:3, 3] == pytest.approx((0, 2, 0))
    assert found.shapes[0].names == ("slate",)
    assert found.colours == {"slate": "#800000"}
    # A strip of four points is two triangles that look the same way.
    normals = found.shapes[0].normals
    assert normals == pytest.approx(np.array([[0, 0, 1.0], [0, 0, 1.0]]))


def test_a_missing_buffer_is_named(tmp_path):
    tree, _ = gltf()
    (tmp_path / "a.gltf").write_text(json.dumps(tree))
    with pytest.raises(MissingError) as told:
        bundled(tmp_path / "a.gltf")
    assert told.value.value == "points.bin"


def test_files_elsewhere_on_the_disk_are_not_read(tmp_path):
    tree, _ = gltf(buffers=[{"uri": "../secret.bin", "byteLength": 48}])
    (tmp_path / "secret.bin").write_bytes(b"x" * 48)
    inner = tmp_path / "inner"
    inner.mkdir()
    (inner / "a.gltf").write_text(json.dumps(tree))
    with pytest.raises(MissingError):
        bundled(inner / "a.gltf")


def test_sparse_and_normalized_numbers_are_those_of_another_library():
    points = np.array([[0, 0, 0], [1, 0, 0], [0, 1, 0]], np.float32)
    uv = np.array([[0, 0], [65535, 0], [0, 65535]], np.uint16)
    blob = points.tobytes() + uv.tobytes() + struct.pack("<H2x", 2) + np.array([0, 5, 0], np.float32).tobytes()
    held = pygltflib.Attributes(POSITION=0, TEXCOORD_0=1)
    views = ((0, 36), (36, 12), (48, 4), (52, 12))
    made = pygltflib.GLTF2(
        scenes=[pygltflib.Scene(nodes=[0])],
        nodes=[pygltflib.Node(mesh=0)],
        meshes=[pygltflib.Mesh(primitives=[pygltflib.Primitive(attributes=held)])],
        buffers=[pygltflib.Buffer(byteLength=len(blob))],
        bufferViews=[pygltflib.BufferView(buffer=0, byteOffset=o, byteLength=n) for o, n in views],
        accessors=[
            pygltflib.Accessor(
                bufferView=0, componentType=5126, count=3, type="VEC3",
                sparse=pygltflib.Sparse(
                    count=1, indices=pygltflib.AccessorSparseIndices(bufferView=2, componentType=5123),
                    values=pygltflib.AccessorSparseValues(bufferView=3),
                ),
            ),
            pygltflib.Accessor(bufferView=1, componentType=5123, count=3, type="VEC2", normalized=True),
        ],
    )  # fmt: skip
    made.set_binary_blob(blob)
    found = read(b"".join(made.save_to_bytes()), "s.glb")
    assert found.shapes[0].points[2] == pytest.approx((0, 5, 0))
    # v is turned: glTF counts it from the top.
    assert found.shapes[0].unwrap[0, :, 0] == pytest.approx((0, 1, 0))
    assert found.shapes[0].unwrap[0, :, 1] == pytest.approx((1, 1, 0))


# Hostile -------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("data", "name"),
    [
        (b"", "a.obj"), (b"o x\n", "a.obj"), (b"f 1 2 3\n", "a.obj"), (b"v 1 2\nf 1 1 1\n", "a.obj"),
        (b"glTF\x02\0\0\0", "a.glb"), (b"{}", "a.gltf"), (b"{\"meshes\": 3}", "a.gltf"), (b"ply\nformat", "a.ply"),
        (b"solid\n", "a.stl"), (b"OFF\n1 1", "a.off"), (b"<COLLADA/>", "a.dae"), (b"\0" * 4000, "a.stl"),
        (b"v nan 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n", "a.obj"), (b"v 1e300 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n", "a.obj"),
    ],
)  # fmt: skip
def test_what_is_no_model_is_told_in_one_sentence(data, name):
    with pytest.raises(TesselError):
        read(data, name)


def test_a_face_that_names_a_point_that_is_not_there_is_refused():
    tree, data = gltf()
    index = struct.pack("<3H", 0, 1, 99)
    tree["accessors"].append({"bufferView": 1, "componentType": 5123, "count": 3, "type": "SCALAR"})
    tree["bufferViews"].append({"buffer": 0, "byteOffset": 48, "byteLength": 6})
    tree["meshes"][0]["primitives"][0] |= {"indices": 1, "mode": 4}
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w") as archive:
        archive.writestr("a.gltf", json.dumps(tree))
        archive.writestr("points.bin", data + index)
    with pytest.raises(UnreadableFileError):
        read(buffer.getvalue(), "a.gltf")


def test_nodes_that_hold_each_other_end():
    tree, data = gltf(nodes=[{"name": "a", "children": [1]}, {"name": "b", "mesh": 0, "children": [0]}])
    tree["buffers"] = [{"uri": "data:;base64," + __import__("base64").b64encode(data).decode(), "byteLength": 48}]
    assert len(read(json.dumps(tree).encode(), "a.gltf").nodes) == 1


def test_squeezed_meshes_are_refused_by_name():
    tree, _ = gltf(extensionsRequired=["KHR_draco_mesh_compression"])
    tree["buffers"] = []
    with pytest.raises(UnreadableFileError) as told:
        read(json.dumps(tree).encode(), "a.gltf")
    assert "draco" in str(told.value.value)


def test_a_zip_that_unpacks_to_too_much_is_not_unpacked(monkeypatch):
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("a.obj", b" " * 3_000_000)
    monkeypatch.setattr(scene_models, "MOST_BYTES", 1_000_000)
    with pytest.raises(TooLargeError):
        model_parts(buffer.getvalue(), "a.obj")


def test_another_kind_of_file_is_told(tmp_path):
    (tmp_path / "a.txt").write_text("hello")
    with pytest.raises(UnreadableFileError):
        bundled(tmp_path / "a.txt")


# Units and mends -------------------------------------------------------------------------------------


def scaled(mesh, unit, way="z"):
    """A piece in another unit, its upright turned to an axis."""
    turn = np.linalg.inv(upright(way))
    return Mesh(mesh.points / UNITS[unit] @ turn.T, mesh.triangles, mesh.groups, mesh.names)


@pytest.mark.parametrize("unit", UNITS)
@pytest.mark.parametrize("way", ["y", "z"])
def test_a_door_or_a_person_tells_unit_and_upright(unit, way):
    door = scaled(build("known", thing="door leaf").mesh, unit, way)
    found = guess([("Front door", door)], name="a.obj")
    assert (found.unit, found.up, found.sure) == (unit, way, False)
    assert "Front door" in found.reason
    person = scaled(build("figure").mesh, unit, way)
    found = guess([("human_01", person)], name="a.obj")
    assert (found.unit, found.up) == (unit, way)


@pytest.mark.parametrize("unit", UNITS)
@pytest.mark.parametrize(("kind", "way"), [("obj", "y"), ("stl", "z")])
def test_steps_tell_the_unit(unit, kind, way):
    steps = scaled(build("steps", count=6).mesh, unit, way)
    found = guess([("stair", steps)], name=f"a.{kind}")
    assert (found.unit, found.up) == (unit, way)
    assert "rise" in found.reason


@pytest.mark.parametrize(
    ("size", "unit"), [(0.3, "m"), (6.0, "m"), (80.0, "m"), (600.0, "cm"), (6000.0, "mm"), (90000.0, "mm")]
)
def test_else_the_size_of_the_whole_tells(size, unit):
    large = build("box", width=3000.0, depth=1500.0, height=1000.0, bevel=0.0).mesh
    mesh = Mesh(large.points * size / 3000, large.triangles, large.groups)
    found = guess([("thing", mesh)], name="a.ply")
    assert found.unit == unit
    assert not found.sure


UPRIGHTS = {
    "a wall": [("Mesh_0", "wall")],
    "a house": [("wall.001", "wall"), ("st", "steps"), ("top", "roof")],
    "a dome": [("d", "dome")],
    "a kerb": [("k", "kerb")],
    "an outdoor lamp": [("outdoor_lamp", "column")],
    "a door's handle": [("door_handle", "kerb")],
}
"""Models without a word that helps: the way usual in their kind of file holds."""


@pytest.mark.parametrize("pieces", UPRIGHTS.values(), ids=UPRIGHTS)
@pytest.mark.parametrize(("kind", "way"), [("obj", "y"), ("ply", "z"), ("stl", "z")])
def test_a_large_flat_face_is_not_taken_for_the_ground(pieces, kind, way):
    meshes = [(name, scaled(build(piece).mesh, "m", way)) for name, piece in pieces]
    assert guess(meshes, name=f"a.{kind}").up == way


@pytest.mark.parametrize(("kind", "way"), [("obj", "z"), ("ply", "y")])
def test_what_tells_goes_before_what_is_usual(kind, way):
    """Named ground, steps that rise by less than they go, and open land that looks up."""
    floor = [("Floor", scaled(build("floor").mesh, "m", way)), ("Mesh_1", scaled(build("wall").mesh, "m", way))]
    steps = [("Mesh_0", scaled(build("steps", count=6).mesh, "m", way))]
    across = np.linspace(0, 40000, 9)
    x, y = np.meshgrid(across, across)
    at = np.arange(81).reshape(9, 9)
    quads = np.stack([at[:-1, :-1], at[:-1, 1:], at[1:, 1:], at[1:, :-1]], -1).reshape(-1, 4)
    faces = np.concatenate([quads[:, [0, 1, 2]], quads[:, [0, 2, 3]]]).astype(np.int32)
    points = np.stack([x, y, 900 * np.sin(x / 7000)], -1).reshape(-1, 3)
    land = [("Mesh_0", scaled(Mesh(points, faces, np.zeros(len(faces), np.int32)), "m", way))]
    assert [guess(meshes, name=f"a.{kind}").up for meshes in (floor, steps, land)] == [way] * 3


def test_a_file_that_says_its_unit_is_believed():
    found = guess([("Front door", build("box").mesh)], unit_mm=25.4, up="y")
    assert (found.unit, found.up, found.sure) == ("in", "y", True)


@pytest.mark.parametrize("way", ["x", "y", "z"])
def test_turned_upright_the_axis_points_up(way):
    turn = upright(way)
    assert turn @ np.eye(3)["xyz".index(way)] == pytest.approx((0, 0, 1))
    assert np.linalg.det(turn) == pytest.approx(1)


def damaged(kind):
    mesh = build("box", bevel=0.0).mesh
    if kind == "hole":
        return mesh.part_of(np.arange(2, mesh.count, dtype=np.int32))
    if kind == "turned":
        triangles = mesh.triangles.copy()
        triangles[3] = triangles[3][::-1]
        return Mesh(mesh.points, triangles, mesh.groups, mesh.names)
    if kind == "inside out":
        return Mesh(mesh.points, mesh.triangles[:, ::-1].copy(), mesh.groups, mesh.names)
    if kind == "flat":
        triangles = np.concatenate([mesh.triangles, [[0, 0, 1], [0, 1, 1]]]).astype(np.int32)
        return Mesh(mesh.points, triangles, np.concatenate([mesh.groups, [0, 0]]).astype(np.int32), mesh.names)
    # A corner on an open side: one face is divided, its neighbour is not.
    points = np.concatenate([mesh.points, mesh.corners[0, :2].mean(0, keepdims=True)])
    a, b, c = mesh.triangles[0]
    new = len(mesh.points)
    triangles = np.concatenate([mesh.triangles[1:], [[a, new, c], [new, b, c]]]).astype(np.int32)
    groups = np.concatenate([mesh.groups[1:], mesh.groups[[0, 0]]])
    return Mesh(points, triangles, groups, mesh.names)


@pytest.mark.parametrize("kind", ["hole", "turned", "inside out", "flat", "gap"])
def test_what_is_wrong_with_a_mesh_is_told_and_mended(kind):
    """Beside trimesh: closed, of one hand, of the volume it had."""
    mesh = damaged(kind)
    found = health(mesh)
    assert not found.sound
    assert found.told()
    whole = mended(mesh, found.wanted())
    assert health(whole).sound
    other = trimesh.Trimesh(whole.points, whole.triangles, process=False)
    assert other.is_watertight
    assert other.is_winding_consistent
    assert other.volume == pytest.approx(1e9)
    assert set(whole.names) == set(mesh.names)


@pytest.mark.parametrize("op", ["wall", "column", "arch", "roof", "steps", "ball"])
def test_what_is_sound_is_said_to_be(op):
    found = health(build(op).mesh)
    assert found.sound
    assert found.closed


def test_a_sheet_is_open_without_a_hole():
    floor = build("floor").mesh
    sheet = floor.part_of(floor.of_groups(["top"]))
    assert health(sheet).sound
    assert not health(sheet).closed


def test_no_part_of_a_model_is_lost_by_mending():
    """Two bodies, one with a hole: both are there afterwards."""
    from brave_tessel.core.place.frames import placed
    from brave_tessel.core.place.mesh import joined

    both = joined([damaged("hole"), build("ball").mesh.moved(placed((5000.0, 0.0, 0.0)))])
    whole = mended(both, health(both).wanted())
    assert len(trimesh.Trimesh(whole.points, whole.triangles, process=False).split()) == 2
