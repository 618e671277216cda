"""What is learnt of the sky: the moving picture of a room is near the resting one, and stand-ins stay round."""

from dataclasses import replace

import numpy as np
import pytest
import trimesh
from skimage.color import deltaE_ciede2000, rgb2lab

from brave_tessel.core.light.presets import make_preset
from brave_tessel.core.place.mesh import Mesh
from brave_tessel.core.place.site import site_of
from brave_tessel.view3d import sky_seen
from brave_tessel.view3d.camera import from_points
from brave_tessel.view3d.drawn import DrawPart, Look, scene_light
from brave_tessel.view3d.renderer import Renderer
from brave_tessel.view3d.scene import draw_parts
from brave_tessel.view3d.thinned import StandIn, thin
from tests.core.place.scenes import job, part


def wall(id, width, depth, height, at):
    return part(id, "box", {"width": width, "depth": depth, "height": height}, at=at)


HALL = [
    wall("floor", 6000.0, 8000.0, 100.0, (0.0, 0.0, -100.0)),
    wall("roof", 6000.0, 8000.0, 200.0, (0.0, 0.0, 3000.0)),
    wall("left", 250.0, 8000.0, 3000.0, (-250.0, 0.0, 0.0)),
    wall("right", 250.0, 6500.0, 3000.0, (6000.0, 0.0, 0.0)),
    wall("end", 6000.0, 250.0, 3000.0, (0.0, 8000.0, 0.0)),
    wall("front", 4500.0, 250.0, 3000.0, (0.0, -250.0, 0.0)),
    wall("yard", 30_000.0, 30_000.0, 100.0, (-12_000.0, -12_000.0, -210.0)),
]


@pytest.fixture(scope="module")
def renderer():
    made = Renderer()
    made.set_parts(draw_parts(site_of(job(*HALL))))
    yield made
    made.release()


def apart(one, other):
    """CIEDE2000, mean over a picture."""
    return float(deltaE_ciede2000(*(rgb2lab(picture / 255) for picture in (one, other))).mean())


def test_the_moving_picture_of_a_room_is_near_the_resting_one(renderer):
    """Once enough is learnt mean ΔE00 is about 3, and nearer than by the field that is evened over walls."""
    light = scene_light(make_preset("Afternoon"))
    view = Look(from_points(np.array([1.0, 1.0, 1.6]), np.array([4.5, 6.5, 1.2])), 180, 120, light=light, adapts=True)
    moving = replace(view, moving=True)
    renderer.draw(moving)
    renderer.sky_seen.learn_on(renderer.seen_from, sky_seen.LEARNT)
    for number in range(64):
        renderer.refine(view, number)
    whole = renderer.refined(view, 64)
    renderer.draw(moving)
    seen = apart(renderer.draw(moving), whole)
    assert seen < 3.3
    knows = renderer.sky_seen.openness
    knows.clear_field = lambda even: even
    renderer.sky_seen.tell()
    assert seen < apart(renderer.draw(moving), whole)


def test_what_was_learnt_of_another_scene_is_not_asked(renderer):
    renderer.draw(Look(from_points(np.zeros(3) - 9, np.zeros(3)), 32, 24))
    renderer.sky_seen.learn_on(renderer.seen_from, 8)
    assert renderer.sky_seen.values()["open_known"] == 1
    renderer.set_parts(draw_parts(site_of(job(wall("other", 900.0, 900.0, 900.0, (0.0, 0.0, 0.0))))))
    assert renderer.sky_seen.values()["open_known"] == 0


def test_a_stand_in_of_a_ball_has_one_normal_where_corners_meet():
    ball = trimesh.creation.icosphere(4, 500.0)
    mesh = Mesh(ball.vertices, ball.faces, np.zeros(len(ball.faces), int), ("all",))
    normals = ball.vertex_normals[ball.faces].reshape(-1, 3)
    corners = np.concatenate([ball.triangles.reshape(-1, 3) / 1000, normals, np.zeros_like(normals)], 1)
    light = thin(mesh, np.arange(len(ball.faces)), corners.astype(np.float32), 400)
    assert len(light) < len(corners) / 4
    _, at = np.unique(np.rint(light[:, :3] * 1e4).astype(int), axis=0, return_inverse=True)
    order = np.argsort(at)
    same = at[order][1:] == at[order][:-1]
    assert np.abs(np.diff(light[order, 3:6], axis=0)[same]).max() < 1e-4
    outward = light[:, :3] / np.linalg.norm(light[:, :3], axis=1, keepdims=True)
    assert ((light[:, 3:6] * outward).sum(1)).min() > 0.95


def cloth(laid):
    """A wavy sheet 2 m wide, its corners (N, 9) laid by a rule of x, y, z in metres."""
    x, z = np.meshgrid(np.linspace(0, 2, 81), np.linspace(0, 2, 81))
    points = np.stack([x, 0.06 * np.sin(9 * x), z], -1).reshape(-1, 3)
    a = (np.arange(80)[:, None] * 81 + np.arange(80)).ravel()
    triangles = np.concatenate([np.stack([a, a + 1, a + 82], 1), np.stack([a, a + 82, a + 81], 1)])
    mesh = Mesh(points * 1000, triangles, np.zeros(len(triangles), int), ("all",))
    corners = points[triangles].reshape(-1, 3)
    normals = np.repeat(mesh.normals, 3, 0)
    return mesh, np.concatenate([corners, normals, laid(corners)], 1).astype(np.float32)


def test_what_is_laid_on_a_stand_in_lies_where_it_did():
    def flat(p):
        return np.stack([3 * p[:, 0] + p[:, 1] + 0.2, 2 * p[:, 2] - p[:, 0], np.ones(len(p))], -1)

    mesh, corners = cloth(flat)
    light = thin(mesh, np.arange(mesh.count), corners, 900)
    assert len(light) < 3 * 1000
    assert np.abs(light[:, 6:] - flat(light[:, :3].astype(float))).max() < 2e-3


def test_layings_that_meet_on_a_stand_in_stay_apart():
    def two(p):
        # Half of it turned, as where two faces of a box meet.
        left = np.repeat(p.reshape(-1, 3, 3)[..., 0].mean(1) < 1, 3)
        return np.where(
            left[:, None],
            np.stack([p[:, 0], p[:, 2], np.ones(len(p))], -1),
            np.stack([9 - p[:, 2], 4 + p[:, 0], np.ones(len(p))], -1),
        )

    mesh, corners = cloth(two)
    light = thin(mesh, np.arange(mesh.count), corners, 900)
    assert np.abs(light[:, 6:] - two(light.astype(float)[:, :3])).max(1).reshape(-1, 3).max(1).mean() < 0.05


def test_a_stand_in_is_not_looked_at_from_near(renderer):
    mesh, corners = cloth(lambda p: p)
    light = StandIn(mesh, np.arange(mesh.count), corners, 0.1)
    light.make()
    assert 0.04 < light.edge_m < 0.12
    part = DrawPart("c", corners[:, :3], corners[:, 3:6], corners[:, 6:], "", (0.5, 0.5, 0.5), part="c", light=light)
    renderer.set_parts([part])
    batch = renderer.stock.solid[0]
    for away, stands_in in ((6.0, True), (0.4, False)):
        look = Look(from_points(np.array([1.0, -away, 1.0]), np.array([1.0, 0.0, 1.0])), 450, 300, moving=True)
        assert (renderer.stock.drawn(batch, look) is not batch.whole) == stands_in


def test_while_surfaces_are_awaited_more_is_learnt(renderer):
    renderer.sky_seen.openness = None
    view = Look(from_points(np.array([1.0, 1.0, 1.6]), np.array([4.5, 6.5, 1.2])), 60, 40, moving=True)
    renderer.draw(view)
    asked = iter([True, True, False])
    renderer.learn_on(lambda: next(asked))
    assert renderer.sky_seen.openness.samples == sky_seen.PRIMED + 2 * sky_seen.FURTHER
    renderer.learn_on(lambda: True)
    assert renderer.sky_seen.openness.samples == sky_seen.LEARNT
    assert renderer.sky_seen.learn_on(renderer.seen_from, 5) == 0
