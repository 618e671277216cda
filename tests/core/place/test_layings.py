"""Layings at true size from the datum, and rays onto parts, beside an independent library."""

import numpy as np
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st

from brave_tessel.core import registered  # noqa: F401 - declares the layings
from brave_tessel.core.job.document import Part, Scene
from brave_tessel.core.job.layers import Surface
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.operation import family
from brave_tessel.core.place.lay import datum_along, in_repeats, lay_on, turned_about
from brave_tessel.core.place.mesh import Frame, PartMesh, pick
from brave_tessel.core.place.piece import PIECES
from brave_tessel.core.place.pieces.corner import corner_meshes

MESHES = corner_meshes()
FLAT = [name for name, mesh in MESHES.items() if not mesh.smooth]
LAYINGS = [entry.id for entry in family("laying")]


def laid(name, op, datum=(0.0, 0.0, 0.0), **values):
    part = Part(id=name, name=name, laying=Setting(op=op, values=values))
    return lay_on(part, MESHES[name], Scene(datum=datum), MESHES)


def lengths(points):
    """Lengths of the four sides of each quadrilateral."""
    return np.linalg.norm(points - np.roll(points, -1, axis=1), axis=2)


@pytest.mark.parametrize("op", LAYINGS)
@pytest.mark.parametrize("name", FLAT)
def test_a_millimetre_of_the_wall_is_a_millimetre_of_the_surface(name, op):
    mesh = MESHES[name]
    place = laid(name, op)
    facing = np.abs(mesh.normals() @ mesh.frame.facing) > 0.999
    if op == "laying.box":
        facing = np.abs(mesh.normals()).max(1) > 0.999
    assert lengths(place)[facing] == pytest.approx(lengths(mesh.quads)[facing], abs=1e-6)


@pytest.mark.parametrize("op", LAYINGS)
@given(turn=st.floats(-180, 180), across=st.floats(-900, 900), up=st.floats(-900, 900))
@settings(deadline=None, max_examples=20)
def test_turned_and_shifted_it_keeps_its_size(op, turn, across, up):
    name = FLAT[0]
    before, after = laid(name, op), laid(name, op, turn=turn, across=across, up=up)
    assert lengths(after) == pytest.approx(lengths(before), abs=1e-6)


@pytest.mark.parametrize("op", LAYINGS)
def test_a_shift_moves_the_pattern_and_nothing_else(op):
    name = FLAT[0]
    moved = laid(name, op) - laid(name, op, across=30.0, up=-12.0)
    assert moved == pytest.approx(np.broadcast_to((30.0, -12.0), moved.shape), abs=1e-6)


def test_round_the_corner_the_pattern_goes_on():
    """Where two unrolled walls meet, the place along is the same on either."""
    unrolled = [name for name in FLAT if MESHES[name].frame.unrolled]
    ends = {}
    for name in unrolled:
        points, place = MESHES[name].quads.reshape(-1, 3), laid(name, "laying.flat").reshape(-1, 2)
        for point, spot in zip(np.round(points, 3), place, strict=True):
            ends.setdefault(tuple(point), []).append((name, spot))
    shared = {point: spots for point, spots in ends.items() if len({name for name, _ in spots}) > 1}
    assert shared
    for spots in shared.values():
        first = spots[0][1]
        for _name, spot in spots[1:]:
            assert spot == pytest.approx(first, abs=1e-6)


@given(st.floats(-180, 180), st.tuples(st.floats(-500, 500), st.floats(-500, 500)))
def test_a_turn_is_about_the_datum(turn, place):
    at = np.array([place])
    turned = turned_about(at, turn, 0.0, 0.0)
    assert np.linalg.norm(turned) == pytest.approx(np.linalg.norm(at), abs=1e-6)
    back = turned_about(turned, -turn, 0.0, 0.0)
    assert back == pytest.approx(at, abs=1e-6)


def test_repeats_are_counted_in_the_surfaces_own_size():
    place = np.array([[[1200.0, 300.0]]])
    assert in_repeats(place, Surface(id="s", name="S", width_mm=600.0, height_mm=150.0))[0, 0] == pytest.approx((2, 2))
    assert in_repeats(place, None)[0, 0] == pytest.approx((1.2, 0.3))


def test_the_datum_lies_along_the_wall_it_is_nearest_to():
    north = next(name for name in FLAT if name.startswith("north") and MESHES[name].frame.unrolled)
    frame = MESHES[north].frame
    spot = np.array(frame.origin) + 700 * np.array(frame.along)
    assert datum_along(Scene(datum=tuple(spot)), MESHES) == pytest.approx(700 + frame.start)


# Rays ------------------------------------------------------------------------------------------------


@given(
    st.tuples(st.floats(500, 3500), st.floats(200, 2000), st.floats(2500, 4000)),
    st.tuples(st.floats(-1, 1), st.floats(-0.6, 0.6), st.floats(-1, -0.2)),
)
@settings(deadline=None, max_examples=60)
def test_a_ray_meets_what_another_library_says_it_meets(origin, direction):
    """Planes of the faces met, and trimesh's barycentric coordinates say whether within them."""
    start, way = np.array(origin), np.array(direction) / np.linalg.norm(direction)
    found = pick(MESHES, start, way)
    nearest = np.inf
    for mesh in MESHES.values():
        triangles = mesh.triangles()
        normals = np.cross(triangles[:, 1] - triangles[:, 0], triangles[:, 2] - triangles[:, 0])
        front = normals @ way < -1e-6
        corners, facing = triangles[front], normals[front]
        lines = np.broadcast_to(start, corners[:, 0].shape), np.broadcast_to(way, corners[:, 0].shape)
        away = np.einsum("ij,ij->i", corners[:, 0] - lines[0], facing) / (facing @ way)
        inside = trimesh.triangles.points_to_barycentric(corners, lines[0] + away[:, None] * lines[1]).min(1) > -1e-9
        nearest = min([nearest, *away[inside & (away > 1e-3)].tolist()])
    if found is None:
        assert nearest == np.inf
    else:
        assert found.distance == pytest.approx(nearest, abs=1e-3)


def test_a_wall_seen_from_behind_is_looked_through():
    wall = PartMesh(
        np.array([[[0.0, 0, 0], [100, 0, 0], [100, 100, 0], [0, 100, 0]]]), Frame((0, 0, 0), (1, 0, 0), (0, 1, 0))
    )
    front = pick({"wall": wall}, np.array([50.0, 50, 80]), np.array([0.0, 0, -1]))
    behind = pick({"wall": wall}, np.array([50.0, 50, -80]), np.array([0.0, 0, 1]))
    assert front is not None
    assert front.point == pytest.approx((50, 50, 0))
    assert behind is None


@pytest.mark.parametrize("name", sorted(PIECES))
def test_every_made_piece_is_of_flat_faces_that_look_outward_or_up(name):
    for mesh in PIECES[name]().values():
        assert np.isfinite(mesh.quads).all()
        lengths = np.linalg.norm(mesh.normals(), axis=1)
        assert lengths == pytest.approx(np.ones(len(lengths)))
        flat = np.einsum("ij,ij->i", mesh.quads[:, 3] - mesh.quads[:, 0], mesh.normals())
        assert np.abs(flat).max() < 1.0 or mesh.smooth
        assert np.array(mesh.frame.along) @ np.array(mesh.frame.up) == pytest.approx(0, abs=1e-9)
