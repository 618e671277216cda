"""The renderer on its own context: no window, no screen."""

import moderngl
import numpy as np
import pytest

from brave_tessel.core.job.document import Job
from brave_tessel.core.place.pieces.corner import corner_scene
from brave_tessel.view3d.camera import Camera, orthographic_from, perspective
from brave_tessel.view3d.renderer import Look, Renderer
from brave_tessel.view3d.scene import draw_parts, find_under

SUN = (-0.35, 0.62, 0.7022)


@pytest.fixture(scope="module")
def renderer():
    made = Renderer()
    yield made
    made.release()


@pytest.fixture
def bare(renderer):
    renderer.set_parts(draw_parts(Job(scene=corner_scene())))
    return renderer


def look(**more):
    return Look(**({"camera": Camera(), "sun": SUN, "width": 240, "height": 160} | more))


def test_a_frame_shows_the_corner_before_the_sky(bare):
    picture = bare.draw(look())
    assert picture.shape == (160, 240, 3)
    assert picture.std() > 10
    again = bare.draw(look())
    assert (picture == again).all()


def test_a_low_sun_shadows_the_floor_behind_the_figure(bare):
    lit, shaded = bare.draw(look(shadows=False)), bare.draw(look(shadows=True))
    assert (lit.astype(int) - shaded).max() > 20
    assert (shaded.astype(int) - lit).max() <= 1


def test_textures_tile_at_true_size(renderer):
    """On a wall filled by the view, a surface of 500 mm repeats as often as the metres say."""
    job = Job(surfaces=(), scene=corner_scene())
    parts = draw_parts(job)
    stripes = np.zeros((64, 64, 3), np.uint8)
    stripes[:, :32] = 255
    flat = np.full((64, 64, 3), (128, 128, 255), np.uint8)
    orm = np.full((64, 64, 3), (255, 255, 0), np.uint8)
    wall = next(p for p in parts if p.id == "north-wall")
    import dataclasses

    laid = dataclasses.replace(wall, surface="s", uv=wall.uv * 2)
    renderer.set_parts([laid])
    renderer.set_textures("s", b"1", stripes, flat, orm)
    camera = Camera(target=(2.0, 2.42, 0.0), distance=1.6, azimuth=0, pitch=0, field_of_view=20)
    picture = renderer.draw(look(camera=camera, width=400, height=100, shadows=False))
    row = picture[50, :, 1].astype(int)
    switches = np.count_nonzero(np.abs(np.diff((row > row.mean()).astype(int))))
    metres = 2 * 1.6 * np.tan(np.radians(10)) * 4
    assert switches == pytest.approx(metres / 0.25, abs=1.5)


def test_rays_find_the_part_in_the_middle_of_the_picture():
    job = Job(scene=corner_scene())
    floor = find_under(job, Camera(pitch=60, target=(2.2, 0.0, 1.5)), 0, 0, 1.5)
    assert floor.part == "floor"
    assert floor.point == pytest.approx((2200, 0, 1500), abs=1)


def test_camera_moves():
    camera = Camera()
    assert np.linalg.norm(camera.eye - np.array(camera.target)) == pytest.approx(camera.distance)
    assert camera.walked(1).distance < camera.distance < camera.walked(-1).distance
    near = Camera(distance=0.5)
    ahead = near.walked(1)
    assert ahead.distance == 0.5
    assert ahead.target != near.target
    moved = camera.panned(0.1, 0)
    assert np.allclose(moved.eye - camera.eye, np.array(moved.target) - camera.target)
    assert camera.orbited(10, 200).pitch == 85


def test_projections():
    clip = perspective(90, 1, 1, 10) @ [0, 0, -1, 1]
    assert clip[2] / clip[3] == pytest.approx(-1)
    matrix = orthographic_from(np.array([0.0, 1, 0.2]), np.zeros(3), 2.0)
    for point in ([2, 0, 0], [0, 0, 2], [0, -2, 0], [0, 2, 0]):
        assert np.abs((matrix @ [*point, 1.0])[:3]).max() <= 1.0001


def test_what_is_no_longer_drawn_is_given_back_to_the_driver(monkeypatch):
    """Sizes that change, parts and surfaces that go: a thousand frames hold what a few hold."""
    made = Renderer()
    held = []

    def keeping(make):
        def keep(*given, **more):
            held.append(make(*given, **more))
            return held[-1]

        return keep

    for maker in ("texture", "framebuffer", "buffer", "vertex_array", "depth_renderbuffer"):
        monkeypatch.setattr(made.context, maker, keeping(getattr(made.context, maker)), raising=False)

    def alive():
        return sum(not isinstance(entry.mglo, moderngl.InvalidObject) for entry in held)

    tile = np.full((8, 8, 3), 90, np.uint8)
    counts = []
    for number in range(12):
        parts = draw_parts(Job(scene=corner_scene()))
        made.set_parts(parts)
        made.set_textures(parts[0].surface, str(number).encode(), tile, tile, tile, np.zeros((8, 8), np.float32))
        for size in ((60 + number, 40), (120 + number, 80)):
            made.draw(look(width=size[0], height=size[1]))
        counts.append(alive())
    assert counts[-1] == counts[3]
    made.release()
    assert alive() == 0
