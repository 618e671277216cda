"""The renderer on its own context: no window, no screen."""

from dataclasses import replace

import moderngl
import numpy as np
import pytest

from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Surface
from brave_tessel.core.job.scene import Opening
from brave_tessel.core.light.presets import make_preset
from brave_tessel.core.place.site import site_of
from brave_tessel.core.relief.pictures import roughness_colours
from brave_tessel.engine.pictures.results import Relief, SurfacePictures
from brave_tessel.engine.place.starters import room_corner
from brave_tessel.view3d.camera import Camera, from_points, orthographic_fitted, perspective
from brave_tessel.view3d.drawn import LEAST_DENSITY, MOST_DENSITY, DrawPart, Look, Shows, scene_light
from brave_tessel.view3d.renderer import Renderer
from brave_tessel.view3d.scene import draw_parts, find_under
from tests.core.place.scenes import job, laid, part

LIT = scene_light(make_preset("Afternoon"))
ROOM = site_of(Job(scene=room_corner()))
INTO = from_points(np.array([0.7, -5.3, 1.7]), np.array([2.9, -0.6, 1.15]))


@pytest.fixture(scope="module")
def renderer():
    made = Renderer()
    yield made
    made.release()


@pytest.fixture
def bare(renderer):
    renderer.set_parts(draw_parts(ROOM))
    return renderer


def look(**more):
    return Look(**({"camera": INTO, "light": LIT, "width": 240, "height": 160} | more))


def test_a_frame_shows_the_corner_before_the_sky(bare):
    picture = bare.draw(look())
    assert picture.shape == (160, 240, 3)
    assert picture.std() > 10
    again = bare.draw(look())
    assert (picture == again).all()


def test_a_low_sun_shadows_the_floor_behind_the_figure(bare):
    lit, shaded = bare.draw(look(shadows=False)), bare.draw(look(shadows=True))
    assert (lit.astype(int) - shaded).max() > 20
    # Beside the shadow's edge a stair may be evened out the other way.
    assert np.quantile(shaded.astype(int) - lit, 0.99) <= 1


def test_shadow_maps_at_rest_hold_what_is_seen_and_whatever_stands_before_it():
    rng = np.random.default_rng(2)
    held = rng.uniform((-1, -2, 0), (2, 1, 2), (50, 3))
    low, high, light = np.array([-30.0, -30, 0]), np.array([30.0, 30, 9]), np.array([0.5, -0.6, 0.7])
    _, wide, _ = orthographic_fitted(light, low, high)
    fitted, narrow, deep = orthographic_fitted(light, low, high, held=held)
    assert narrow < 0.15 * wide
    seen = np.concatenate([held, np.ones((50, 1))], 1) @ fitted.T
    assert np.abs(seen[:, :3]).max() < 1
    corners = np.array([[x, y, z, 1] for x in (low[0], high[0]) for y in (low[1], high[1]) for z in (low[2], high[2])])
    assert np.abs((corners @ fitted.T)[:, 2]).max() <= 1
    assert deep == orthographic_fitted(light, low, high)[2]


def test_shadows_near_the_eye_are_crisp_on_a_wide_ground(renderer, monkeypatch):
    """A post on a ground of 80 m, seen from near: its shadow has clean edges, as if the ground were small."""

    def seen(side, held=True):
        ground = part("g", "box", {"width": side, "depth": side, "height": 50.0}, at=(-side / 2, -side / 2, -50.0))
        post = part("p", "box", {"width": 120.0, "depth": 120.0, "height": 900.0}, at=(0.0, 0.0, 0.0))
        renderer.set_parts(draw_parts(site_of(job(ground, post))))
        if not held:
            monkeypatch.setattr("brave_tessel.view3d.renderer.places_seen", lambda *_: (np.zeros((0, 3)),) * 2)
        view = look(camera=from_points(np.array([0.6, -2.6, 1.6]), np.array([0.3, 0.1, 0.0])), width=200, height=150)
        for number in range(8):
            renderer.refine(view, number)
        return renderer.refined(view, 8).astype(float)

    small, wide = seen(4000.0), seen(80_000.0)
    whole = seen(80_000.0, held=False)
    middle = np.s_[52:76, 92:142]
    assert np.abs(wide[middle] - small[middle]).mean() < 0.5 * np.abs(whole[middle] - small[middle]).mean()


def counted(picture):
    """Dark and light stretches along the middle row."""
    row = picture[picture.shape[0] // 2, :, 1].astype(int)
    return np.count_nonzero(np.abs(np.diff((row > row.mean()).astype(int))))


STRIPES = np.zeros((64, 64, 3), np.uint8)
STRIPES[:, :32] = 255
FLAT, ORM = np.full((64, 64, 3), (128, 128, 255), np.uint8), np.full((64, 64, 3), (255, 255, 0), np.uint8)
AHEAD = Camera(target=(2.0, 0.0, 1.2), distance=1.6, azimuth=0, pitch=0, field_of_view=20)
SEEN_M = 2 * 1.6 * np.tan(np.radians(10)) * 4


@pytest.mark.parametrize(("kind", "factor"), [("flat", 1.0), ("flat", 2.0), ("box", 1.0), ("all_round", 1.0)])
def test_textures_tile_at_true_size(renderer, kind, factor):
    """On a wall filled by the view, a surface of 500 mm repeats as often as the metres say."""
    surface = Surface(id="s", name="S", width_mm=500.0, height_mm=500.0)
    on = laid(kind, values={"factor": factor})
    site = site_of(job(part("w", "wall", laid=[on]), surface=surface))
    renderer.set_parts(draw_parts(site))
    renderer.set_textures("s", SurfacePictures(b"1", STRIPES, FLAT, ORM))
    picture = renderer.draw(look(camera=AHEAD, width=400, height=100, shadows=False))
    assert counted(picture) == pytest.approx(SEEN_M / 0.25 / factor, abs=1.5)


def test_a_surface_that_is_missing_shows(renderer):
    site = site_of(job(part("w", "wall", laid=[laid("flat", surface="gone")])))
    (drawn,) = draw_parts(site)
    assert drawn.surface == ""
    assert drawn.bare != draw_parts(site_of(job(part("w", "wall"))))[0].bare


def test_a_pane_is_looked_through(renderer):
    """Behind a window stands a box: it is seen, paler."""
    window = Opening(id="w", left=1000.0, width=2000.0, sill=200.0, height=2000.0, filling="window")
    wall = part("w", "wall", piece={"openings": (window,)})
    box = part(
        "b", "box", {"width": 6000.0, "depth": 100.0, "height": 3000.0}, at=(-1000.0, 900.0, 0.0), bare="#101010"
    )
    camera = Camera(target=(1.6, 0.0, 1.5), distance=3.0, azimuth=0, pitch=0, field_of_view=6)
    pictures = []
    for parts in ((wall, box), (box,)):
        renderer.set_parts(draw_parts(site_of(job(*parts))))
        pictures.append(renderer.draw(look(camera=camera, shadows=False)).mean())
    assert pictures[1] < pictures[0] < 150


def test_what_is_chosen_and_picked_is_tinted(bare):
    plain = bare.draw(look()).astype(int)
    chosen = bare.draw(look(chosen=frozenset({"floor"}))).astype(int)
    part_ = next(p for p in draw_parts(ROOM) if p.part == "floor")
    marked = bare.draw(look(marked=(part_,))).astype(int)
    assert 2 < np.abs(chosen - plain).max() < np.abs(marked - plain).max()
    assert (bare.draw(look()).astype(int) == plain).all()


def test_rays_find_the_part_in_the_middle_of_the_picture():
    floor = find_under(ROOM, Camera(pitch=60, target=(2.2, -1.5, 0.0)), 0, 0, 1.5)
    assert floor.part == "floor"
    assert floor.point == pytest.approx((2200, -1500, 0), abs=1)


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


def plane(repeats=2.0):
    """Two metres square, facing the eye of :data:`BEFORE`, a metre to a repeat at true size."""
    square = np.array([[0, 0], [1, 0], [1, 1], [0, 0], [1, 1], [0, 1]], np.float32)
    places = np.stack([2 * square[:, 0] - 1, np.zeros(6), 2 * square[:, 1] - 1], 1).astype(np.float32)
    normals = np.tile(np.array([0, -1, 0], np.float32), (6, 1))
    uv = np.concatenate([repeats * square, np.ones((6, 1), np.float32)], 1).astype(np.float32)
    return DrawPart("p", places, normals, uv, "plane", (0.5, 0.5, 0.5))


BEFORE = from_points(np.array([0.0, -3.0, 0.0]), np.array([0.0, 0.0, 0.0]))


@pytest.fixture
def shown(renderer):
    def draw(part, shows):
        renderer.set_parts([part])
        colour = np.full((8, 8, 3), (200, 100, 50), np.uint8)
        renderer.set_textures(
            "plane", SurfacePictures(b"plane", colour, np.full_like(colour, (128, 128, 255)), np.full_like(colour, 128))
        )
        view = look(camera=BEFORE, shows=shows, sheet_px=1024)
        moving = renderer.draw(replace(view, moving=True))[80, 120]
        renderer.refine(view, 0)
        assert np.abs(renderer.refined(view, 1)[80, 120].astype(int) - moving).max() <= 1
        return moving.astype(int)

    return draw


def test_base_colour_is_shown_as_its_codes(shown):
    assert np.abs(shown(plane(), Shows.COLOUR) - (200, 100, 50)).max() <= 2


@pytest.mark.parametrize(("repeats", "density"), [(2.0, 1024), (1.0, 512), (4.0, 2048)])
def test_density_is_read_by_its_scale(shown, repeats, density):
    share = np.log2(density / LEAST_DENSITY) / np.log2(MOST_DENSITY / LEAST_DENSITY)
    wanted = roughness_colours(np.array([[share]], np.float32))[0, 0]
    assert np.abs(shown(plane(repeats), Shows.DENSITY) - wanted).max() <= 8


def test_a_seam_is_drawn_where_the_pattern_breaks_off(renderer):
    whole = plane()
    broken = replace(whole, uv=whole.uv + np.repeat(np.array([[0], [0.5]], np.float32), 3, 0) * [1, 0, 0])
    pictures = []
    for one in (whole, replace(broken, uv=broken.uv.astype(np.float32))):
        renderer.set_parts([one])
        pictures.append(renderer.draw(look(camera=BEFORE, shows=Shows.SEAMS)).astype(int))
    differs = np.abs(pictures[0] - pictures[1]).max(-1) > 30
    assert 40 < differs.sum() < 1500
    rows, columns = np.nonzero(differs)
    assert np.corrcoef(rows, columns)[0, 1] < -0.9, "along the diagonal"


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
        parts = draw_parts(site_of(Job(scene=room_corner(["s", "s", "s"]))))
        made.set_parts(parts)
        made.set_textures(
            parts[0].surface,
            SurfacePictures(str(number).encode(), tile, tile, tile, None, Relief(np.zeros((8, 8), np.float32), 0, 1)),
        )
        for size in ((60 + number, 40), (120 + number, 80)):
            made.draw(look(width=size[0], height=size[1]))
        counts.append(alive())
    assert counts[-1] == counts[3]
    made.release()
    assert alive() == 0
