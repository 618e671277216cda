"""Layings at true size from the datum, exact wherever they are asked; beside libigl, OpenCV and published values."""

import math

import cv2
import igl
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brave_tessel.core.job.scene import WITH_PART, Pin
from brave_tessel.core.operation import family
from brave_tessel.core.place.exported import even_corners
from brave_tessel.core.place.laying import COMMON, Common
from brave_tessel.core.place.layings.around import fitted_axis
from brave_tessel.core.place.layings.pinned import seen_through
from brave_tessel.core.place.mesh import Mesh
from brave_tessel.core.place.paths import Track
from brave_tessel.core.place.site import site_of
from brave_tessel.core.place.topology import unrolled
from tests.core.place.scenes import job, laid, part, room

LAYINGS = [entry.id.split(".")[1] for entry in family("laying")]


def coordinates(made, id=None, row=0):
    site = site_of(made)
    one = site.standing[0] if id is None else site.of_part(id)
    return site.coordinates(one, row)


def spots(found, points):
    """Places of corners of the mesh that lie at points of the scene, each with its face."""
    corners = found.mesh.corners[found.faces]
    out = []
    for point in points:
        away = np.linalg.norm(corners - np.array(point), axis=2)
        row, corner = np.unravel_index(away.argmin(), away.shape)
        assert away[row, corner] < 1e-6
        out.append(found.flat_corners()[row, corner])
    return np.array(out)


def stretches(found):
    """Singular values of each face's map from the surface to the part (Sander et al. 2001); (N, 2)."""
    corners, places = found.mesh.corners[found.faces], found.flat_corners()
    e1, e2 = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    along = e1 / np.linalg.norm(e1, axis=1, keepdims=True)
    up = np.cross(found.mesh.normals[found.faces], along)
    flat = np.stack([np.stack([(e * along).sum(1), (e * up).sum(1)], 1) for e in (e1, e2)], 2)
    laid_ = np.stack([places[:, 1] - places[:, 0], places[:, 2] - places[:, 0]], 2)
    return np.linalg.svd(flat @ np.linalg.inv(laid_), compute_uv=False)


# Flat and box --------------------------------------------------------------------------------------


@pytest.mark.parametrize("turn", [0.0, 5.0, 37.0, -90.0])
@pytest.mark.parametrize("op", ["flat", "box"])
def test_a_millimetre_of_a_wall_is_a_millimetre_of_the_surface_however_it_is_turned(turn, op):
    wall = part("w", "wall", {"length": 3000.0}, turn=turn, at=(700.0, -300.0, 40.0), laid=[laid(op)])
    assert stretches(coordinates(job(wall))) == pytest.approx(1.0, abs=1e-9)


def test_a_wall_that_is_turned_by_five_degrees_keeps_its_pattern_at_the_corner():
    """The datum is where it was: what lies there does not move by a millimetre."""
    for turn in (0.0, 5.0):
        wall = part("w", "wall", {"length": 3000.0}, turn=turn, laid=[laid("flat")])
        found = coordinates(job(wall))
        assert spots(found, [(0, 0, 0)])[0] == pytest.approx((0, 0), abs=1e-9)


def test_flat_carries_on_round_the_corner_where_the_datum_lies_in_it():
    made = room()
    north, east = (coordinates(made, id, 1) for id in ("north", "east"))
    assert spots(north, [(4500, 0, 0), (0, 0, 0)]) == pytest.approx(np.array([(0, 0), (-4500, 0)]), abs=1e-6)
    assert spots(east, [(4500, 0, 0), (4500, -3000, 0)]) == pytest.approx(np.array([(0, 0), (3000, 0)]), abs=1e-6)


def test_one_part_with_a_corner_is_unrolled():
    """Round all four sides of a pier the pattern goes on, as far as its girth."""
    pier = part("p", "pier", {"width": 400.0, "depth": 300.0, "plinth": 0.0, "cap": 0.0, "bevel": 0.0},
                laid=[laid("flat", "shaft")])  # fmt: skip
    made = job(pier, datum=(-200.0, -150.0, 0.0))
    found = coordinates(made)
    walls = np.abs(found.mesh.normals[found.faces][:, 2]) < 0.1
    along = found.flat_corners()[walls, :, 0]
    assert np.ptp(along) == pytest.approx(2 * (400 + 300), abs=1e-6)
    assert stretches(found)[walls] == pytest.approx(1.0, abs=1e-9)
    rises = found.mesh.corners[found.faces][walls][..., 2]
    assert found.flat_corners()[walls, :, 1] == pytest.approx(rises, abs=1e-6)


def test_on_one_plane_what_leans_is_stretched():
    """check-values C3: seen from the front, a face that leans by 60° is twice as long."""
    on = laid("flat", "slope", values={"corners": "one plane"})
    values = stretches(coordinates(job(part("r", "roof", {"pitch": 30.0, "eaves": 0.0}, laid=[on]))))
    # Two slopes of 30° meet at 120°: seen square to the one, the other leans by 60°.
    assert values.min() == pytest.approx(1.0, abs=1e-6)
    assert values.max() == pytest.approx(2.0, abs=1e-6)


def test_level_ground_is_laid_along_the_datum():
    floor = part("f", "floor", laid=[laid("flat", "top")])
    for along, expected in (((1.0, 0.0, 0.0), (1000, 0)), ((0.0, 1.0, 0.0), (0, -1000))):
        found = coordinates(job(floor, along=along))
        ends = spots(found, [(0, 0, 0), (4000, 0, 0)])
        assert (ends[1] - ends[0]) / 4 == pytest.approx(expected, abs=1e-6)


@pytest.mark.parametrize("op", [op for op in LAYINGS if op not in {"pinned"}])
@given(
    turn=st.floats(-180, 180), across=st.floats(-900, 900), up=st.floats(-900, 900), factor=st.floats(0.2, 5),
    mirrored=st.booleans(),
)  # fmt: skip
@settings(deadline=None, max_examples=12)
def test_every_laying_is_shifted_turned_and_sized_alike(op, turn, across, up, factor, mirrored):
    column = part("c", "column", laid=[laid(op)], piece={})
    values = {"turn": turn, "across": across, "up": up, "factor": factor, "mirrored": mirrored}
    plain = coordinates(job(column)).flat_corners()
    moved = coordinates(job(part("c", "column", laid=[laid(op, values=values)]))).flat_corners()
    finish = Common(**values).finish()
    assert moved == pytest.approx(finish.apply(plain), abs=1e-6)


def test_a_turn_is_about_the_datum():
    wall = part("w", "wall", laid=[laid("flat", "front", values={"turn": 31.0, "factor": 2.0})])
    assert spots(coordinates(job(wall)), [(0, 0, 0)])[0] == pytest.approx((0, 0), abs=1e-9)


def test_every_laying_takes_what_all_take():
    for entry in family("laying"):
        assert set(COMMON) <= set(entry.params)


# Around --------------------------------------------------------------------------------------------


@pytest.mark.parametrize("chords", [8, 16, 32, 64])
def test_arc_length_on_a_half_vault_of_so_many_chords(chords):
    """check-values C3: largest singular value 1, smallest sin(π/2N) / (π/2N)."""
    angles = np.linspace(0, np.pi, chords + 1)
    ring = np.stack([2000 * np.cos(angles), np.zeros(chords + 1), 2000 * np.sin(angles)], 1)
    points = np.concatenate([ring, ring + [0, 3000, 0]])
    i = np.arange(chords)
    quads = np.stack([i, i + 1, i + 1 + chords + 1, i + chords + 1], 1)
    triangles = np.concatenate([quads[:, [0, 1, 2]], quads[:, [0, 2, 3]]]).astype(np.int32)
    mesh = Mesh(points, triangles, np.zeros(len(triangles), np.int32))
    from brave_tessel.core.job.nodes import Setting
    from brave_tessel.core.place.laying import Axis, Bed, lay

    axis = Axis(np.zeros(3), np.array([0.0, 1.0, 0.0]), 2000.0)
    bed = Bed(
        mesh, np.arange(mesh.count, dtype=np.int32), np.array([2000.0, 0, 0]), np.array([1.0, 0, 0]), np.eye(3), axis
    )
    values = stretches(lay(bed, Setting(op="laying.around")))
    # The map runs from the surface to the chords: shorter by the chord's share of its arc.
    half = math.pi / 2 / chords
    assert values.max() == pytest.approx(1.0, abs=1e-6)
    assert values.min() == pytest.approx(math.sin(half) / half, abs=1e-5)


def test_a_column_that_is_closed_says_how_far_it_is_stretched():
    """check-values C3: d 0.6 m has 8.378 bricks of 225; closing to 8 is +4.7 % and must be told."""
    from tests.core.place.scenes import SURFACE

    column = part("c", "column", {"diameter": 600.0, "thinner": 0.0, "base": "none", "capital": "none"},
                  laid=[laid("around", "shaft", values={"whole": True})])  # fmt: skip
    import msgspec

    made = job(column, surface=msgspec.structs.replace(SURFACE, width_mm=225.0))
    found = coordinates(made)
    assert "+4.7 %" in found.note
    assert "8 repeats" in found.note
    walls = np.abs(found.mesh.normals[found.faces][:, 2]) < 0.1
    along = found.flat_corners()[walls, :, 0]
    assert np.ptp(along) == pytest.approx(8 * 225, rel=1e-3)


@pytest.mark.parametrize(("radius", "height", "slant", "sector"), [(1000.0, 1000.0, 1414.214, 254.5584),
                                                                   (3000.0, 4000.0, 5000.0, 216.0)])  # fmt: skip
def test_a_developed_cone_opens_to_its_sector(radius, height, slant, sector):
    """check-values C3: sector angle 360 r / slant; r 3, h 4: slant 5, 216°."""
    count = 128
    angles = np.linspace(0, 2 * np.pi, count + 1)
    ring = np.stack([radius * np.cos(angles), radius * np.sin(angles), np.zeros(count + 1)], 1)[:-1]
    points = np.concatenate([ring, [[0, 0, height]]])
    i = np.arange(count)
    triangles = np.stack([i, (i + 1) % count, np.full(count, count)], 1).astype(np.int32)
    mesh = Mesh(points, triangles, np.zeros(count, np.int32))
    from brave_tessel.core.job.nodes import Setting
    from brave_tessel.core.place.laying import Axis, Bed, lay

    axis = Axis(np.array([0.0, 0, height]), np.array([0.0, 0, 1.0]), radius, "cone")
    bed = Bed(mesh, np.arange(count, dtype=np.int32), np.array([radius, 0, 0]), np.array([1.0, 0, 0]), np.eye(3), axis)
    found = lay(bed, Setting(op="laying.around", values={"shape": "developed cone"}))
    apex = np.array([0.0, slant])
    rims = found.flat_corners()[:, :2]
    assert np.linalg.norm(rims - apex, axis=-1) == pytest.approx(slant, rel=1e-4)
    turns = np.degrees(np.arctan2(rims[..., 0], apex[1] - rims[..., 1]))
    steps = np.abs((turns[:, 1] - turns[:, 0] + 180) % 360 - 180)
    assert steps.sum() == pytest.approx(sector, abs=0.01)
    values = stretches(found)
    assert values.max() == pytest.approx(1.0, abs=2e-4)
    assert values.min() == pytest.approx(0.999936, abs=2e-4)


def test_a_dome_is_true_along_meridians_and_on_one_course():
    dome = part(
        "d", "dome", {"span": 4000.0, "rise": 2000.0}, laid=[laid("around", "dome", values={"true_at": 1000.0})]
    )
    found = coordinates(job(dome, datum=(2000.0, 0.0, 0.0)))
    corners, places = found.mesh.corners[found.faces], found.flat_corners()
    rises = corners[..., 2]
    climb = 2000 * np.arcsin(np.clip(rises / 2000, -1, 1))
    assert places[..., 1] == pytest.approx(climb, abs=3.0)
    level = np.abs(rises[:, 0] - rises[:, 1]) < 1e-6
    near = level & (np.abs(rises[:, 0] - 1000) < 80)
    real = np.linalg.norm(corners[near, 0] - corners[near, 1], axis=1)
    assert np.abs(places[near, 0, 0] - places[near, 1, 0]) == pytest.approx(real, rel=0.06)


@pytest.mark.parametrize("seed", range(4))
def test_an_axis_is_found_in_a_round_model_wherever_it_lies(seed):
    rng = np.random.default_rng(seed)
    from brave_tessel.core.place.frames import placed
    from tests.core.place.test_pieces import build

    mesh = build("column", diameter=500.0, thinner=0.0, base="none", capital="none").mesh
    turn = tuple(rng.uniform(-90, 90, 3))
    moved = mesh.moved(placed(tuple(rng.uniform(-3000, 3000, 3)), turn))
    walls = moved.of_groups(["shaft"])
    axis = fitted_axis(moved, walls[np.abs(mesh.normals[walls][:, 2]) < 0.1])
    expected = placed((0, 0, 0), turn)[:3, 2]
    assert abs(axis.along @ expected) == pytest.approx(1.0, abs=1e-6)
    assert axis.radius == pytest.approx(250, rel=2e-3)


# Along a path, unwrapped, all-round ----------------------------------------------------------------


def test_along_an_arch_the_soffit_is_as_long_as_its_arc():
    """check-values C3: the arc over a span of 4 m with a rise of 1 m is 4.636476 m."""
    arch = part("a", "arch", {"span": 4000.0, "shape": "segmental", "rise": 1000.0, "bevel": 0.0},
                laid=[laid("path", "soffit")])  # fmt: skip
    found = coordinates(job(arch, datum=(-2000.0, 0.0, 0.0)))
    assert np.ptp(found.flat_corners()[..., 0]) == pytest.approx(4636.476, rel=1e-3)
    assert np.ptp(found.flat_corners()[..., 1]) == pytest.approx(300, abs=1e-6)
    assert stretches(found) == pytest.approx(1.0, abs=2e-3)


def test_voussoir_joints_are_square_to_the_soffit():
    """On the ring's face along is the same on the whole of a radius."""
    arch = part("a", "arch", {"bevel": 0.0}, laid=[laid("path", "arch ring")])
    found = coordinates(job(arch, datum=(-900.0, 0.0, 0.0)))
    corners = found.mesh.corners[found.faces].reshape(-1, 3)
    places = found.flat_corners().reshape(-1, 2)
    front = np.abs(corners[:, 1]) < 1e-6
    turn = np.arctan2(corners[front, 2], -corners[front, 0])
    assert places[front, 0] == pytest.approx(900 * turn, abs=2.5)
    radius = np.hypot(corners[front, 0], corners[front, 2])
    assert np.abs(places[front, 1]) == pytest.approx(radius - 900, abs=1.0)


def test_a_tube_is_laid_round_its_path():
    tube = part("t", "tube", {"diameter": 100.0, "length": 2000.0, "bend": 0.0, "sides": 48},
                laid=[laid("path", "skin", values={"rises": "round the path"})])  # fmt: skip
    found = coordinates(job(tube))
    places = found.flat_corners()
    assert np.ptp(places[..., 0]) == pytest.approx(2000, abs=1e-6)
    assert np.ptp(places[..., 1]) == pytest.approx(math.pi * 100, rel=0.03)


@given(
    st.lists(st.tuples(*[st.floats(-3000, 3000)] * 3), min_size=3, max_size=9),
    st.floats(0.01, 0.99),
)  # fmt: skip
@settings(deadline=None, max_examples=60)
def test_a_point_of_a_path_is_found_again(points, share):
    line = np.array(points)
    if np.linalg.norm(np.diff(line, axis=0), axis=1).min() < 50:
        return
    track = Track(line)
    at = np.array([share * track.length])
    place = track.points_at(at)
    found = track.nearest(place)
    assert np.linalg.norm(track.points_at(found) - place) < 1e-6


def test_frames_along_a_helix_do_not_twist():
    """Rotation-minimizing frames turn about the tangent by nothing: the side's change has no part along up."""
    t = np.linspace(0, 6 * np.pi, 900)
    line = np.stack([1000 * np.cos(t), 1000 * np.sin(t), 120 * t], 1)
    sides, ups = Track(line).frames()
    twist = np.einsum("ij,ij->i", np.diff(sides, axis=0), (ups[:-1] + ups[1:]) / 2)
    assert np.abs(twist).max() < 2e-4
    assert np.einsum("ij,ij->i", sides, ups) == pytest.approx(0, abs=1e-9)


def test_cloth_is_laid_as_it_was_cut():
    cloth = part("c", "cloth", laid=[laid("unwrapped", "cloth")])
    values = stretches(coordinates(job(cloth)))
    assert np.percentile(values, 98) < 1.12
    assert np.percentile(values, 2) > 0.88


@pytest.mark.parametrize(
    ("normal", "power", "weights"),
    [
        ((0, 0.6, 0.8), 1, (0, 0.428571, 0.571429)), ((0, 0.6, 0.8), 4, (0, 0.240356, 0.759644)),
        ((0, 0.6, 0.8), 8, (0, 0.091002, 0.908998)), ((1, 1, 1), 4, (1 / 3, 1 / 3, 1 / 3)),
    ],
)  # fmt: skip
def test_three_sided_weights(normal, power, weights):
    """check-values C3 after Geiss, GPU Gems 3, chapter 1: w = |n|^k over their sum."""
    ball = part("b", "ball", laid=[laid("all_round", values={"sharpness": power, "relief": 0.0})])
    sides = coordinates(job(ball)).sides
    unit = np.array([normal], float) / np.linalg.norm(normal)
    assert sides.weights(unit)[0] == pytest.approx(weights, abs=1e-6)


def test_all_round_is_true_where_it_looks_square():
    box = part("b", "box", {"bevel": 0.0}, laid=[laid("all_round")])
    assert stretches(coordinates(job(box))) == pytest.approx(1.0, abs=1e-9)


# Pinned --------------------------------------------------------------------------------------------


def test_pins_in_a_plane_are_opencvs_homography():
    """check-values C4: pixel (300, 260) of the picture lies at (0.936992, 0.807295) m."""
    sheet = np.array([(100, 100), (500, 140), (80, 420), (540, 380)], float)
    plane = np.array([(0, 0), (2250, 0), (0, 1500), (2250, 1500)], float)
    points = np.stack([plane[:, 0], np.full(4, 700.0), plane[:, 1]], 1)
    camera = seen_through(sheet, points)
    ours = cv2.getPerspectiveTransform(plane.astype(np.float32), sheet.astype(np.float32))
    for x, y in np.random.default_rng(3).uniform((0, 0), (2250, 1500), (50, 2)):
        held = camera @ [x, 700.0, y, 1.0]
        theirs = ours @ [x, y, 1.0]
        assert held[:2] / held[2] == pytest.approx(theirs[:2] / theirs[2], abs=1e-2)
    held = camera @ [936.992, 700.0, 807.295, 1.0]
    assert held[:2] / held[2] == pytest.approx((300, 260), abs=1e-3)


def test_pins_in_space_are_a_camera():
    rng = np.random.default_rng(5)
    points = rng.uniform(-1000, 1000, (9, 3)) + [0, 0, 4000]
    camera = np.array([[900, 0, 400, 30], [0, 900, 300, -20], [0, 0, 1, 5]], float)
    held = points @ camera[:, :3].T + camera[:, 3]
    found = seen_through(held[:, :2] / held[:, 2:], points)
    again = points @ found[:, :3].T + found[:, 3]
    assert again[:, :2] / again[:, 2:] == pytest.approx(held[:, :2] / held[:, 2:], abs=1e-3)


def pinned_wall():
    pins = tuple(
        Pin(id=str(k), x_mm=x, y_mm=y, at=at)
        for k, (x, y, at) in enumerate(
            ((0, 0, (500.0, 0, 300.0)), (612, 0, (2400.0, 0, 500.0)), (612, 312, (2300.0, 0, 2200.0)),
             (0, 312, (700.0, 0, 1800.0)))
        )
    )  # fmt: skip
    return part("w", "wall", laid=[laid("pinned", "front", pins=pins)]), pins


def test_the_corners_of_a_pinned_picture_lie_at_their_pins():
    wall, pins = pinned_wall()
    found = coordinates(job(wall))
    assert not found.linear
    for pin in pins:
        rows, shares = within(found, np.array([pin.at]))
        assert found.at(rows, shares)[0] == pytest.approx((pin.x_mm, pin.y_mm), abs=1e-3)


def within(found, points):
    """The row and the barycentric shares of the face that holds each point."""
    corners = found.mesh.corners[found.faces]
    rows, shares = [], []
    for point in points:
        flat = igl.barycentric_coordinates(
            np.repeat(point[None], len(corners), 0), corners[:, 0], corners[:, 1], corners[:, 2]
        )
        rebuilt = np.einsum("nc,nck->nk", flat, corners)
        good = (flat.min(1) > -1e-9) & (np.linalg.norm(rebuilt - point, axis=1) < 1e-6)
        rows.append(int(np.flatnonzero(good)[0]))
        shares.append(flat[rows[-1]])
    return np.array(rows, np.int32), np.array(shares)


def test_for_files_perspective_is_divided_until_it_is_even():
    wall, _ = pinned_wall()
    found = coordinates(job(wall))
    tolerance = 0.05 * 312 / 2048
    even = even_corners(found, tolerance)
    assert len(even.points) > len(found.faces)
    assert even.points.reshape(-1, 3)[:, 1] == pytest.approx(0, abs=1e-9)
    rng = np.random.default_rng(1)
    rows = rng.integers(0, len(even.points), 200)
    shares = rng.dirichlet((1, 1, 1), 200)
    points = np.einsum("nc,nck->nk", shares, even.points[rows])
    told = np.einsum("nc,nck->nk", shares, even.places[rows])
    ours, ours_shares = within(found, points)
    assert np.abs(found.at(ours, ours_shares) - told).max() < 0.1 * 312 / 2048 + 1e-3


@pytest.mark.parametrize("count", [0, 3])
def test_too_few_pins_are_told(count):
    _, pins = pinned_wall()
    few = laid("pinned", "front", pins=pins[:count])
    found = coordinates(job(part("w", "wall", laid=[few])))
    assert found.note == "too few pins"


# Holding ------------------------------------------------------------------------------------------


def test_in_place_the_pattern_stays_while_the_part_moves():
    for at in ((0.0, 0.0, 0.0), (333.0, 0.0, 0.0)):
        box = part("b", "box", {"bevel": 0.0}, at=at, laid=[laid("box")])
        found = coordinates(job(box))
        front = found.mesh.normals[found.faces][:, 1] < -0.9
        corners, places = found.mesh.corners[found.faces][front], found.flat_corners()[front]
        assert places[..., 0] == pytest.approx(corners[..., 0], abs=1e-6)


@pytest.mark.parametrize("turn", [0.0, 64.0])
def test_with_the_part_the_pattern_moves_along(turn):
    still = coordinates(job(part("b", "box", laid=[laid("box", holds=WITH_PART)])))
    moved = coordinates(job(part("b", "box", at=(900.0, -40.0, 7.0), turn=turn, laid=[laid("box", holds=WITH_PART)])))
    assert moved.flat_corners() == pytest.approx(still.flat_corners(), abs=1e-6)


def test_sizes_are_taken_after_the_transform():
    """A part twice as large shows twice as many repeats, not larger ones."""
    for holds in ("in place", WITH_PART):
        box = part("b", "box", {"bevel": 0.0}, size=(2.0, 2.0, 2.0), laid=[laid("box", holds=holds)])
        assert stretches(coordinates(job(box))) == pytest.approx(1.0, abs=1e-9)


@pytest.mark.parametrize("holds", ["in place", WITH_PART])
def test_lettering_on_a_mirrored_part_stays_readable(holds):
    """Seen from outside, along runs to the right and up runs up: the map keeps its hand."""
    box = part("b", "box", {"bevel": 0.0}, size=(-1.0, 1.0, 1.0), laid=[laid("box", holds=holds)])
    found = coordinates(job(box))
    places = found.flat_corners()
    one, other = places[:, 1] - places[:, 0], places[:, 2] - places[:, 0]
    assert (one[:, 0] * other[:, 1] - one[:, 1] * other[:, 0] > 0).all()


def test_unrolling_keeps_lengths_beside_libigl():
    """Edge lengths of a cylinder's faces before and after, by libigl."""
    from tests.core.place.test_pieces import build

    mesh = build("column", thinner=0.0, base="none", capital="none").mesh
    walls = mesh.of_groups(["shaft"])
    walls = walls[np.abs(mesh.normals[walls][:, 2]) < 0.1]
    seed = int(walls[0])
    normal = mesh.normals[seed]
    along = np.cross([0, 0, 1.0], normal)
    out = unrolled(mesh, walls, seed, np.stack([mesh.corners[seed, 0], along, [0, 0, 1.0]]))
    real = igl.edge_lengths(mesh.points, mesh.triangles[walls].astype(np.int64))
    flat = np.concatenate([out.reshape(-1, 2), np.zeros((3 * len(walls), 1))], 1)
    laid_ = igl.edge_lengths(flat, np.arange(3 * len(walls)).reshape(-1, 3))
    assert laid_ == pytest.approx(real, abs=1e-6)


@pytest.mark.parametrize("op", LAYINGS)
def test_a_part_without_faces_is_laid_on_with_nothing(op):
    made = job(part("b", "box", laid=[laid(op, "no such face")]))
    found = coordinates(made)
    assert found.flat_corners().shape == (0, 3, 2)


def test_a_laying_that_is_not_known_lies_flat_and_stays():
    wall = part("w", "wall", laid=[laid("spiral", values={"arms": 3})])
    plain = part("w", "wall", laid=[laid("flat")])
    assert coordinates(job(wall)).flat_corners() == pytest.approx(coordinates(job(plain)).flat_corners())
