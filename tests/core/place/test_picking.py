"""Rays, snapping and picked faces; beside trimesh."""

import numpy as np
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st

from brave_tessel.core.job.scene import Level
from brave_tessel.core.place import picked as picking
from brave_tessel.core.place.mesh import Mesh
from brave_tessel.core.place.rays import RayTree, make_ready, pick, ready
from brave_tessel.core.place.site import site_of
from brave_tessel.core.place.snapping import edges, snap
from brave_tessel.core.place.topology import corner_normals, facets, neighbours
from tests.core.place.scenes import job, part, room
from tests.core.place.test_pieces import build

SITE = site_of(room())


@given(
    st.tuples(st.floats(200, 4300), st.floats(-2900, -200), st.floats(200, 2500)),
    st.tuples(st.floats(-1, 1), st.floats(-1, 1), st.floats(-1, 1)),
)
@settings(deadline=None, max_examples=80)
def test_a_ray_meets_what_another_library_says_it_meets(origin, direction):
    if np.linalg.norm(direction) < 0.1:
        return
    way = np.round(np.array(direction), 6)
    start, way = np.array(origin), way / np.linalg.norm(way)
    found = pick(SITE, start, way)
    nearest = np.inf
    for one in SITE.standing:
        a, normal = one.mesh.corners[:, 0], one.mesh.crossed
        slope = normal @ way
        with np.errstate(all="ignore"):
            away = np.einsum("ij,ij->i", a - start, normal) / slope
        good = np.isfinite(away) & (away > 1e-3)
        points = start + np.where(good, away, 0.0)[:, None] * way
        inside = trimesh.triangles.points_to_barycentric(one.mesh.corners, points).min(1) > -1e-9
        nearest = min([nearest, *away[good & inside].tolist()])
    if found is None:
        assert nearest == np.inf
    else:
        assert found.distance == pytest.approx(nearest, abs=1e-2)
        rebuilt = found.shares @ found.standing.mesh.corners[found.face]
        assert rebuilt == pytest.approx(found.point, abs=1e-6)


def test_locked_parts_are_looked_through_where_that_is_wanted():
    made = job(part("near", "box", locked=True), part("far", "box", at=(0.0, 3000.0, 0.0)))
    site = site_of(made)
    start, way = np.array([500.0, -2000, 500]), np.array([0.0, 1, 0])
    assert pick(site, start, way).part == "near"
    assert pick(site, start, way, locked=False).part == "far"


def test_a_large_model_is_not_waited_for():
    line = np.linspace(0, 1000, 220)
    x, y = np.meshgrid(line, line)
    points = np.stack([x, y, 0 * x], -1).reshape(-1, 3)
    i = np.arange(220 * 220).reshape(220, 220)
    quads = np.stack([i[:-1, :-1], i[:-1, 1:], i[1:, 1:], i[1:, :-1]], -1).reshape(-1, 4)
    mesh = Mesh(
        points, np.concatenate([quads[:, :3], quads[:, [0, 2, 3]]]).astype(np.int32), np.zeros(2 * len(quads), np.int32)
    )
    assert not ready(mesh)
    tree = RayTree(mesh)
    faces = tree.first(
        np.array([[10.0, 10, 50], [10, 10, -50], [2000, 0, 5]]), np.array([[0, 0, -1.0], [0, 0, 1], [0, 0, -1]])
    )
    assert faces[0] == faces[1] >= 0
    assert faces[2] == -1
    assert tree.free(np.array([[10.0, 10, 50]]), np.array([[0, 0, 1.0]]), 1000.0)[0] == 1
    assert tree.free(np.array([[10.0, 10, 50]]), np.array([[0, 0, -1.0]]), 1000.0)[0] == 0


def test_after_a_worker_has_been_there_every_part_is_ready():
    make_ready(SITE)
    assert all(ready(one.mesh) for one in SITE.standing)


# Snapping --------------------------------------------------------------------------------------------


def hit_at(x, y, z, way=(0.0, 1.0, 0.0)):
    start = np.array([x, y, z]) - 500 * np.array(way)
    return pick(SITE, start, np.array(way))


@pytest.mark.parametrize(
    ("near", "name", "at"),
    [
        ((1395.0, 0.0, 925.0), "corner", (1404, 0, 936)), ((1850.0, 0.0, 930.0), "middle of an edge", (1854, 0, 936)),
        ((1600.0, 0.0, 928.0), "edge", (1600, 0, 936)), ((20.0, 0.0, 2690.0), "corner", (0, 0, 2700)),
        ((800.0, 0.0, 500.0), "on the face", (800, 0, 500)),
    ],
)  # fmt: skip
def test_a_point_is_drawn_to_what_is_near(near, name, at):
    found = snap(SITE, hit_at(*near), 25.0)
    assert str(found.name).split(",")[0] == name
    assert found.at == pytest.approx(at, abs=1e-6)


def test_levels_and_the_grid_draw_too():
    made = room(levels=(Level(id="l", name="rail", height=1000.0),))
    site = site_of(made)
    hit = pick(site, np.array([700.0, -500, 1012]), np.array([0.0, 1, 0]))
    level = snap(site, hit, 30.0)
    assert (str(level.name), level.at[2]) == ("level rail", pytest.approx(1000))
    assert abs(level.along[0]) == pytest.approx(1)
    plain = snap(site, hit, 5.0, grid=50.0)
    assert str(plain.name) == "grid"
    assert plain.at == pytest.approx((700, 0, 1000))
    assert snap(site, hit, 30.0, kinds=frozenset({"corner"})).at == pytest.approx(hit.point)


def test_where_a_level_crosses_an_edge_it_is_found():
    site = site_of(room(levels=(Level(id="l", name="rail", height=1500.0),)))
    hit = pick(site, np.array([1410.0, -500, 1490]) * [1, 1, 1] - [20, 0, 0], np.array([0.0, 1, 0]))
    found = snap(site, hit, 30.0)
    assert found.at == pytest.approx((1404, 0, 1500))
    assert "rail" in str(found.name)


def test_a_box_has_twelve_edges():
    assert len(edges(build("box", bevel=0.0).mesh)) == 12


# Faces -----------------------------------------------------------------------------------------------


BOX = build("box", bevel=0.0).mesh
BALL = build("ball").mesh


def test_faces_of_one_plane():
    found = picking.in_plane(BOX, 0)
    assert len(found) == 2
    assert len(np.unique(facets(BOX))) == 6


@pytest.mark.parametrize("degrees", [5.0, 20.0, 60.0])
def test_faces_within_an_angle(degrees):
    face = len(BALL.triangles) // 2
    found = picking.within_angle(BALL, face, degrees)
    turns = np.degrees(np.arccos(np.clip(BALL.normals[found] @ BALL.normals[face], -1, 1)))
    assert turns.max() <= degrees + 1e-6
    # On a ball the faces about one are all connected: none within the angle is missing.
    every = np.degrees(np.arccos(np.clip(BALL.normals @ BALL.normals[face], -1, 1))) <= degrees
    assert len(found) == every.sum()


def test_growing_and_shrinking():
    start = np.array([40], np.int32)
    grown = picking.more(BALL, start)
    assert set(start) < set(grown)
    assert set(picking.fewer(BALL, grown)) <= set(grown)
    assert set(start) <= set(picking.fewer(BALL, picking.more(BALL, grown)))


def test_an_island_is_all_that_hangs_together():
    from brave_tessel.core.place.frames import placed
    from brave_tessel.core.place.mesh import joined

    both = joined([BOX, BALL.moved(placed((5000.0, 0.0, 0.0)))])
    assert len(picking.island(both, 0)) == BOX.count
    assert len(picking.island(both, BOX.count)) == BALL.count


def test_a_loop_goes_round_a_column():
    column = build("column", base="none", capital="none", thinner=0.0).mesh
    walls = column.of_groups(["shaft"])
    upright = walls[np.abs(column.normals[walls][:, 2]) < 0.1]
    ring = upright[np.abs(column.corners[upright].mean(1)[:, 2] - 1350) < 120][0]
    corners = column.corners[ring]
    sides = np.roll(corners, -1, 0) - corners
    upright_side = int(np.abs(sides[:, 2] / np.linalg.norm(sides, axis=1)).argmax())
    found = picking.loop(column, int(ring), upright_side)
    heights = column.corners[found][..., 2]
    around = np.unique(np.round(np.degrees(np.arctan2(*column.corners[found].mean(1)[:, 1::-1].T)), 0))
    assert np.ptp(heights) < 2700 / 6
    assert len(around) > 20


def test_a_brush_reaches_as_far_as_its_radius():
    point = np.array([500.0, 0, 500])
    assert len(picking.within_reach(BOX, point, 10.0, np.array([0.0, -1, 0]))) >= 1
    found = picking.within_reach(BALL, BALL.corners[100].mean(0), 60.0, BALL.normals[100])
    middles = BALL.corners[found].mean(1)
    assert np.linalg.norm(middles - BALL.corners[100].mean(0), axis=1).max() < 60 + 40


@given(st.sets(st.integers(0, BALL.count - 1), min_size=1, max_size=60))
@settings(deadline=None, max_examples=30)
def test_picked_faces_are_kept_and_found_again(faces):
    wanted = np.array(sorted(faces), np.int32)
    text = picking.packed(wanted, BALL)
    again = Mesh(BALL.points, BALL.triangles, BALL.groups)
    assert (picking.unpacked(text, again) == wanted).all()


def test_on_a_model_whose_faces_are_renumbered_they_are_found_by_place_and_normal():
    order = np.random.default_rng(4).permutation(BALL.count)
    other = Mesh(BALL.points, BALL.triangles[order], BALL.groups)
    wanted = picking.in_plane(BOX, 3)
    box = Mesh(BOX.points, BOX.triangles[::-1].copy(), BOX.groups)
    found = picking.unpacked(picking.packed(wanted, BOX), box)
    assert np.allclose(
        sorted(map(tuple, box.corners[found].mean(1))), sorted(map(tuple, BOX.corners[wanted].mean(1))), atol=1e-3
    )
    some = np.arange(50, 90, dtype=np.int32)
    found = picking.unpacked(picking.packed(some, BALL), other)
    assert set(order[found]) >= set(some)
    assert len(found) <= 1.6 * len(some)


@pytest.mark.parametrize("text", ["", "no base64 ü", "AAAA", "eJwDAAAAAAE="])
def test_a_text_that_is_no_pick_picks_nothing(text):
    if text:
        assert len(picking.unpacked(text, BOX)) == 0


# Topology beside trimesh -------------------------------------------------------------------------------


@pytest.mark.parametrize("op", ["ball", "column", "wall", "arch", "roof"])
def test_neighbours_are_those_of_another_library(op):
    mesh = build(op).mesh
    other = trimesh.Trimesh(mesh.points, mesh.triangles, process=False)
    theirs = {tuple(sorted(pair)) for pair in other.face_adjacency.tolist()}
    across = neighbours(mesh)
    ours = {tuple(sorted((t, int(o)))) for t in range(mesh.count) for o in across[t] if o >= 0}
    assert ours == theirs


def test_a_ball_is_lit_round_and_a_box_with_sharp_edges():
    normals = corner_normals(BALL)
    centre = np.array([0.0, 0, 300])
    out = BALL.corners - centre
    out /= np.linalg.norm(out, axis=-1, keepdims=True)
    assert np.degrees(np.arccos(np.clip((normals * out).sum(-1), -1, 1))).max() < 3
    assert corner_normals(BOX) == pytest.approx(np.repeat(BOX.normals[:, None], 3, 1), abs=1e-9)
