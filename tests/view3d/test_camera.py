"""The camera: what it does to a view, beside plain geometry."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brave_tessel.view3d.camera import Camera, from_points, orthographic_fitted, perspective

ANGLES = st.floats(-170, 170)
CAMERAS = st.builds(
    Camera,
    target=st.tuples(*[st.floats(-5, 5)] * 3),
    distance=st.floats(0.5, 20),
    azimuth=ANGLES,
    pitch=st.floats(-20, 80),
    field_of_view=st.floats(20, 80),
)


def seen(camera, point, aspect=1.5):
    """Where a point lies on the picture, both −1 to 1."""
    clip = camera.view_projection(aspect) @ np.array([*point, 1.0])
    return clip[:3] / clip[3]


@given(CAMERAS)
def test_what_it_looks_at_is_in_the_middle(camera):
    x, y, depth = seen(camera, camera.target)
    assert (x, y) == pytest.approx((0, 0), abs=1e-6)
    assert -1 < depth < 1


@given(CAMERAS)
def test_its_axes_are_a_right_handed_frame(camera):
    right, up, forward = camera.axes()
    frame = np.stack([right, up, -forward])
    assert frame @ frame.T == pytest.approx(np.eye(3), abs=1e-9)
    assert np.linalg.det(frame) == pytest.approx(1)
    assert up[2] > 0
    assert right[2] == pytest.approx(0, abs=1e-9)


@given(CAMERAS, st.floats(-0.95, 0.95), st.floats(-0.95, 0.95), st.floats(0.5, 15))
def test_a_ray_leads_to_what_is_seen_there(camera, x, y, away):
    origin, direction = camera.ray(x, y, 1.5)
    assert np.linalg.norm(direction) == pytest.approx(1)
    found = seen(camera, origin + away * direction)
    assert found[:2] == pytest.approx((x, y), abs=1e-6)


@given(CAMERAS, st.floats(-50, 50), st.floats(-50, 50))
def test_orbiting_keeps_the_distance_and_what_it_looks_at(camera, right, down):
    turned = camera.orbited(right, down)
    assert turned.target == camera.target
    assert np.linalg.norm(turned.eye - np.array(turned.target)) == pytest.approx(camera.distance)
    assert -20 <= turned.pitch <= 85


@given(CAMERAS, st.floats(-60, 60), st.floats(-30, 30))
def test_looking_around_keeps_where_one_stands(camera, right, down):
    turned = camera.looking(right, down)
    assert turned.eye == pytest.approx(camera.eye, abs=1e-6)


@given(CAMERAS, st.floats(-3, 3), st.floats(-3, 3))
def test_walking_over_level_ground_keeps_the_eye_at_its_height(camera, ahead, aside):
    gone = camera.stepped(ahead, aside)
    assert gone.eye[2] == pytest.approx(camera.eye[2], abs=1e-9)
    assert np.linalg.norm(gone.eye - camera.eye) == pytest.approx(np.hypot(ahead, aside), abs=1e-6)


@given(st.tuples(*[st.floats(-9, 9)] * 3), st.tuples(*[st.floats(-9, 9)] * 3))
def test_a_camera_stands_and_looks_where_it_is_told(at, toward):
    if np.hypot(at[0] - toward[0], at[1] - toward[1]) < 0.1:
        return
    camera = from_points(np.array(at), np.array(toward))
    assert camera.eye == pytest.approx(at, abs=1e-6)
    assert camera.target == pytest.approx(toward, abs=1e-6)


@given(CAMERAS)
def test_a_whole_box_is_in_sight(camera):
    low, high = np.array([-1.0, 2.0, 0.0]), np.array([3.0, 4.0, 2.5])
    shown = camera.framing(low, high)
    for x in (low[0], high[0]):
        for y in (low[1], high[1]):
            for z in (low[2], high[2]):
                assert np.abs(seen(shown, (x, y, z), 1.0)[:2]).max() <= 1.0 + 1e-9


@given(CAMERAS, st.floats(-0.4, 0.4), st.floats(-0.4, 0.4))
def test_panned_the_target_moves_by_that_share_of_the_picture(camera, right, up):
    """What was in the middle lies where the hand has drawn it, as the field of view says."""
    moved = camera.panned(right, up)
    x, y, _ = seen(moved, camera.target, aspect=1.0)
    assert (x / 2, -y / 2) == pytest.approx((right, up), abs=1e-6)


@given(CAMERAS, st.floats(0.2, 4))
def test_walking_in_and_out_again_comes_back(camera, steps):
    there = camera.walked(-steps)
    if there.distance < 30:
        assert there.walked(steps).distance == pytest.approx(camera.distance) or there.distance * 0.9**steps < 0.8


def test_close_up_it_walks_on_instead_of_standing():
    camera = Camera(distance=0.8)
    on = camera.walked(1.0)
    assert on.distance == camera.distance
    assert np.linalg.norm(np.array(on.target) - np.array(camera.target)) == pytest.approx(0.12)


@pytest.mark.parametrize("depth", [0.05, 1.0, 60.0])
def test_the_near_and_the_far_plane_are_the_ends_of_clip_space(depth):
    """Khronos OpenGL specification: −1 at the near plane, 1 at the far one."""
    clip = perspective(46.0, 1.0, 0.05, 60.0) @ np.array([0.0, 0.0, -depth, 1.0])
    wanted = {0.05: -1.0, 60.0: 1.0}.get(depth)
    if wanted is not None:
        assert clip[2] / clip[3] == pytest.approx(wanted)
    else:
        assert -1 < clip[2] / clip[3] < 1


@pytest.mark.parametrize("light", [(0, 1, 0), (1, 1, 0), (-0.3, 0.2, 0.9), (0, 0.99, 0.1), (0, 0, -1)])
def test_the_lights_view_just_holds_the_box(light):
    low, high = np.array([-2.0, 1.0, 0.0]), np.array([3.0, 2.0, 4.0])
    matrix, wide, deep = orthographic_fitted(np.array(light, float), low, high)
    points = np.random.default_rng(1).uniform(low, high, (500, 3))
    clip = np.column_stack([points, np.ones(len(points))]) @ matrix.T
    assert np.abs(clip[:, :3]).max() <= 1
    assert np.abs(clip[:, :3]).max() > 0.6, "and wastes little"
    assert clip[:, 3] == pytest.approx(1)
    ahead = matrix[2, :3] @ (np.array(light) / np.linalg.norm(light))
    assert ahead < 0, "towards the light is near"
    assert wide <= 8
    assert deep <= 8
