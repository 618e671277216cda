"""The scene as it stands: transforms, copies, hinges, what is hidden and what covers what."""

import math

import msgspec
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.job.scene import Datum, Hinge, Part, Scene
from brave_tessel.core.place.copies import copy_matrices
from brave_tessel.core.place.frames import about, face_axes, placed, rotation, taken_apart, world_matrix
from brave_tessel.core.place.site import BARE, Ground, site_of
from tests.core.place.scenes import job, laid, part, room

ANGLES = st.tuples(*[st.floats(-179, 179)] * 3)
PLACES = st.tuples(*[st.floats(-5000, 5000)] * 3)


@given(ANGLES)
def test_turns_are_those_of_another_library(turn):
    """About x, then y, then z: scipy's extrinsic 'xyz'."""
    assert rotation(turn) == pytest.approx(Rotation.from_euler("xyz", turn, degrees=True).as_matrix(), abs=1e-12)


@given(PLACES, ANGLES, st.tuples(*[st.floats(0.05, 20)] * 3), st.booleans())
@settings(deadline=None)
def test_a_transform_is_taken_apart_and_put_together_again(at, turn, size, mirrored):
    matrix = placed(at, turn, (-size[0] if mirrored else size[0], size[1], size[2]))
    found = taken_apart(matrix)
    assert found is not None
    assert placed(*found) == pytest.approx(matrix, abs=1e-4)


def test_a_transform_that_shears_cannot_be_taken_apart():
    sheared = np.eye(4)
    sheared[0, 1] = 0.5
    assert taken_apart(sheared) is None


@given(st.tuples(*[st.floats(-1, 1)] * 3))
def test_directions_in_a_face_are_level_and_steepest(normal):
    if np.linalg.norm(normal) < 0.1:
        return
    n = np.array(normal) / np.linalg.norm(normal)
    along, up = face_axes(n, np.array([1.0, 0, 0]))
    assert np.stack([along, up, n]) @ np.stack([along, up, n]).T == pytest.approx(np.eye(3), abs=1e-9)
    assert np.linalg.det(np.stack([along, up, n])) == pytest.approx(1)
    if abs(n[2]) < 0.98:
        assert along[2] == pytest.approx(0, abs=1e-12)
        assert up[2] == pytest.approx(math.sqrt(1 - n[2] ** 2), abs=1e-9)


def test_what_lies_in_a_group_moves_with_it():
    group = Part(id="g", name="g", at=(100.0, 0.0, 0.0), turn=(0.0, 0.0, 90.0))
    box = part(
        "b", "box", {"width": 10.0, "depth": 20.0, "height": 30.0, "bevel": 0.0}, parent="g", at=(50.0, 0.0, 0.0)
    )
    (one,) = site_of(job(group, box)).standing
    low, high = one.mesh.box
    assert low == pytest.approx((80, 50, 0), abs=1e-9)
    assert high == pytest.approx((100, 60, 30), abs=1e-9)


def test_groups_that_lie_in_one_another_in_a_ring_stand_all_the_same():
    parts = (Part(id="a", name="a", parent="b"), Part(id="b", name="b", parent="a"), part("c", "box", parent="a"))
    assert len(site_of(job(*parts)).standing) == 1
    assert Scene(parts=parts).within("a")


@pytest.mark.parametrize(
    ("copies", "spots"),
    [
        (Setting(op="copies.row", values={"count": 3, "across": 500.0, "deep": 0.0}), [0, 500, 1000]),
        (Setting(op="copies.mirror", values={"at": 1000.0}), [0, 2000]),
    ],
)
def test_copies_in_a_row_and_mirrored(copies, spots):
    made = job(part("b", "box", {"width": 100.0}, copies=copies))
    found = site_of(made).standing
    origins = [one.matrix[0, 3] for one in found]
    assert origins == pytest.approx(spots)
    assert [one.id for one in found] == ["b"] + [f"b/{k}" for k in range(1, len(spots))]
    mirrored = np.linalg.det(found[-1].matrix[:3, :3]) < 0
    assert mirrored == (copies.op == "copies.mirror")
    other = found[-1].mesh
    centre = np.mean(other.box, axis=0)
    assert (np.einsum("ij,ij->i", other.normals, other.corners.mean(1) - centre) > 0).all()


def test_copies_in_a_ring_stand_at_equal_angles():
    made = job(part("b", "box", {"width": 100.0}, copies=Setting(op="copies.ring", values={"count": 8, "y": 1000.0})))
    origins = np.array([one.matrix[:2, 3] for one in site_of(made).standing])
    assert np.linalg.norm(origins - [0, 1000], axis=1) == pytest.approx(1000)
    turns = np.degrees(np.unwrap(np.arctan2(origins[:, 1] - 1000, origins[:, 0])))
    assert np.diff(turns) == pytest.approx(45)


def test_a_group_that_is_copied_brings_all_that_lies_in_it():
    group = Part(id="g", name="g", copies=Setting(op="copies.row", values={"count": 2, "across": 900.0}))
    inner = part(
        "b", "box", {"width": 50.0}, parent="g", copies=Setting(op="copies.row", values={"count": 2, "across": 100.0})
    )
    scene = Scene(parts=(group, inner))
    xs = sorted(m[0, 3] for m in copy_matrices(scene, inner))
    assert xs == pytest.approx([0, 100, 900, 1000])
    assert copy_matrices(scene, inner)[0] == pytest.approx(world_matrix(scene, inner))


@given(st.floats(-170, 170))
@settings(deadline=None, max_examples=20)
def test_a_door_swings_on_its_hinge(angle):
    door = part("d", "box", {"width": 800.0, "depth": 40.0, "bevel": 0.0}, hinge=Hinge(open=angle))
    (one,) = site_of(job(door)).standing
    edge = one.mesh.points[np.linalg.norm(one.mesh.points[:, :2] - np.array(
        [800 * math.cos(math.radians(angle)), 800 * math.sin(math.radians(angle))]), axis=1) < 1e-6]  # fmt: skip
    assert len(edge)
    assert about(np.zeros(3), np.array([0, 0, 1.0]), angle)[:2, 0] == pytest.approx(
        (math.cos(math.radians(angle)), math.sin(math.radians(angle)))
    )


def test_hidden_parts_and_what_lies_in_them_do_not_stand():
    group = Part(id="g", name="g", hidden=True)
    made = job(group, part("a", "box", parent="g"), part("b", "box"), part("c", "box", hidden=True))
    assert [one.part.id for one in site_of(made).standing] == ["b"]


def test_later_surfaces_cover_earlier_ones():
    wall = part("w", "wall", {"dado": 1000.0}, laid=[laid(id="all"), laid("flat", "dado", id="dado")])
    (one,) = site_of(job(wall)).standing
    dado = one.mesh.of_groups(["dado"])
    assert set(one.covering[dado]) == {1}
    assert set(np.delete(one.covering, dado)) == {0}
    (bare,) = site_of(job(part("w", "wall", laid=[laid("flat", "dado")]))).standing
    assert set(bare.covering) == {BARE}


def test_nothing_of_what_is_unknown_vanishes():
    odd = part("o", "pagoda", {"tiers": 5}, laid=[laid("spiral", surface="gone")])
    made = job(odd)
    site = site_of(made)
    assert [one.part.id for one in site.standing] == ["o"]
    assert site.standing[0].mesh.count == 0
    assert site.surface(odd.laid[0]) is None
    assert made.scene.parts[0] == odd


def test_a_size_that_a_piece_does_not_take_is_told():
    (one,) = site_of(job(part("b", "box", {"width": -5.0}))).standing
    assert "Width" in one.fault


def test_only_what_changed_is_made_again():
    ground = Ground()
    made = room()
    first = ground.site(made)
    again = ground.site(made)
    assert all(a is b for a, b in zip(first.standing, again.standing, strict=True))
    moved = msgspec.structs.replace(made.scene.parts[0], at=(5.0, 0.0, 0.0))
    scene = msgspec.structs.replace(made.scene, parts=(moved, *made.scene.parts[1:]))
    third = ground.site(msgspec.structs.replace(made, scene=scene))
    assert third.standing[0] is not first.standing[0]
    assert third.standing[1] is first.standing[1]
    renamed = msgspec.structs.replace(moved, name="another")
    scene = msgspec.structs.replace(made.scene, parts=(renamed, *made.scene.parts[1:]))
    fourth = ground.site(msgspec.structs.replace(made, scene=scene))
    assert fourth.standing[0].mesh is third.standing[0].mesh
    assert fourth.standing[0].part.name == "another"


def test_a_datum_moves_with_its_part():
    scene_ = room().scene
    with_part = Datum(id="own", at=(100.0, 0.0, 50.0), part="east")
    made = msgspec.structs.replace(room(), scene=msgspec.structs.replace(scene_, datums=(*scene_.datums, with_part)))
    site = site_of(made)
    point, along = site.datums["own"]
    assert point == pytest.approx((4500, -100, 50))
    assert along == pytest.approx((0, -1, 0), abs=1e-12)
    assert site.datum(laid(datum="own"))[0] == pytest.approx(point)
    assert site.datum(laid(datum="none such"))[0] == pytest.approx((4500, 0, 0))
