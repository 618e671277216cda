"""Relief near the eye as a mesh: its outline against the same relief displaced beforehand, closed at corners."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.ndimage import binary_fill_holes

from brave_tessel.engine.pictures.placed import pictures_of, relief_of
from brave_tessel.view3d import near
from brave_tessel.view3d.camera import from_points
from brave_tessel.view3d.drawn import DrawPart, Look
from brave_tessel.view3d.near import Spot, lifts, patches
from brave_tessel.view3d.programs import Programs
from brave_tessel.view3d.renderer import Renderer
from brave_tessel.view3d.samples import solid_camera
from tests.view3d.test_relief import LIGHT, drawn, setts

RED = (1.0, 0.0, 0.0)


@pytest.fixture(scope="module")
def renderer():
    made = Renderer()
    yield made
    made.release()


def sheet(name, corner, along, up, surface="s"):
    """A rectangle as two triangles; its normal is along × up."""
    corner, along, up = (np.array(v, np.float32) for v in (corner, along, up))
    n = np.cross(along, up)
    n /= np.linalg.norm(n)
    places = np.array([corner, corner + along, corner + along + up, corner, corner + along + up, corner + up])
    length, height = np.linalg.norm(along), np.linalg.norm(up)
    uv = np.array([(0, 0), (length, 0), (length, height), (0, 0), (length, height), (0, height)]) / 0.5
    return DrawPart(
        name,
        places.astype(np.float32),
        np.tile(n, (6, 1)).astype(np.float32),
        np.column_stack([uv, np.ones(6)]).astype(np.float32),
        surface,
        (0.5, 0.5, 0.5),
        repeat_m=(0.5, 0.5),
    )


def box(surface="s"):
    """A block 1 × 1 × 1 m about (0, 0, 0.5), without its floor."""
    return [
        sheet("front", (-0.5, -0.5, 0), (1, 0, 0), (0, 0, 1), surface),
        sheet("right", (0.5, -0.5, 0), (0, 1, 0), (0, 0, 1), surface),
        sheet("back", (0.5, 0.5, 0), (-1, 0, 0), (0, 0, 1), surface),
        sheet("left", (-0.5, 0.5, 0), (0, -1, 0), (0, 0, 1), surface),
        sheet("top", (-0.5, -0.5, 1), (1, 0, 0), (0, 1, 0), surface),
    ]


def test_a_corner_is_lifted_along_its_mitre():
    front, right, *_ = parts = box()
    found = lifts(parts, {"s"})
    # Each face goes by its own relief: d · n = 1 for all that meet there.
    at = np.flatnonzero(np.all(np.isclose(front.positions, (0.5, -0.5, 0.0)), axis=1))
    assert np.allclose(found["front"][at], (1, -1, 0), atol=1e-5)
    top = np.flatnonzero(np.all(np.isclose(right.positions, (0.5, -0.5, 1.0)), axis=1))
    assert np.allclose(found["right"][top], (1, -1, 1), atol=1e-5)


def test_a_corner_with_a_flat_neighbour_stays_in_its_plane():
    parts = [*box()[:1], *box("other")[1:2]]
    found = lifts(parts, {"s"})
    at = np.flatnonzero(np.isclose(parts[0].positions[:, 0], 0.5))
    assert np.allclose(found["front"][at] @ (0, -1, 0), 1, atol=1e-5)
    assert np.allclose(found["front"][at] @ (1, 0, 0), 0, atol=1e-5)


def test_patches_keep_the_face_and_stay_joined():
    wall = sheet("w", (0, 0, 0), (4, 0, 0), (0, 0, 2.7))
    whole = np.concatenate([wall.positions, wall.normals, wall.uv], 1)
    cut = patches(whole, 0.5).reshape(-1, 3, 9)
    edges = np.linalg.norm(cut[:, [1, 2, 0], :3] - cut[:, :, :3], axis=2)
    assert edges.max() <= 0.5 * (1 + 1e-4)
    areas = np.linalg.norm(np.cross(cut[:, 1, :3] - cut[:, 0, :3], cut[:, 2, :3] - cut[:, 0, :3]), axis=1) / 2
    assert np.isclose(areas.sum(), 4 * 2.7, rtol=1e-5)
    assert np.allclose(cut[..., 6:8] * 0.5, cut[..., [0, 2]], atol=1e-5)
    # Each edge belongs to two triangles, or lies on the rim.
    ends = np.rint(np.stack([cut[:, :, :3], cut[:, [1, 2, 0], :3]], 2) * 1e4).astype(int).reshape(-1, 2, 3)
    names = [tuple(sorted(map(tuple, pair))) for pair in ends.tolist()]
    once = [pair for pair in set(names) if names.count(pair) == 1]
    rim = [p for p in once if any(p[0][k] == p[1][k] and p[0][k] in {0, 40000 if k == 0 else 27000} for k in (0, 2))]
    assert len(rim) == len(once)


def test_nothing_far_away_is_divided():
    wall = sheet("w", (0, 0, 0), (4, 0, 0), (0, 0, 2.7))
    close, rest = near.near_patches([wall], (wall,), {"s"}, Spot(0, np.array([2.0, -30, 1]), 5.0))
    assert len(close) == 0
    assert len(rest) == 6


@pytest.mark.parametrize(("azimuth", "pitch"), [(50.0, 4.0), pytest.param(-40.0, 12.0, marks=pytest.mark.slow)])
def test_the_outline_is_that_of_the_displaced_mesh(renderer, azimuth, pitch, monkeypatch):
    look = Look(solid_camera(azimuth, pitch, 1.3), 300, 300, light=LIGHT, background=RED)
    maps = setts()

    def ground(how):
        picture = drawn(renderer, maps, how, look).astype(int)
        return picture[..., 0] - picture[..., 1] > 60

    mesh, lifted = ground("mesh"), ground("relief")
    monkeypatch.setattr(Programs, "divides", property(lambda _self: False))
    smooth = ground("relief")
    assert 0 < mesh.mean() < 0.9
    # Pixels of ground that are none, or the other way: 60 to 120 against 700 to 1 900.
    assert (mesh != lifted).sum() < 0.25 * (mesh != smooth).sum()


@pytest.mark.parametrize("passes", [1, 2])
def test_a_block_stays_closed_at_its_edges(renderer, passes):
    parts, maps = box(), setts()
    renderer.set_parts(parts)
    renderer.set_textures("s", pictures_of(b"closed", maps, relief_of(maps)))
    camera = from_points(np.array([1.6, -1.9, 1.5]), np.array([0.0, 0.0, 0.5]))
    look = Look(camera, 400, 400, light=LIGHT, background=RED)
    for number in range(passes):
        renderer.refine(look, number)
    there = renderer.targets.guide((400, 400))[..., :3]
    solid = np.linalg.norm(there, axis=-1) > 0.5
    assert solid.mean() > 0.1
    assert (binary_fill_holes(solid) & ~solid).sum() == 0
    assert any(batch.near is not None and batch.near.visible for batch in renderer.stock.solid)
    # What moves is drawn without it by software, and from far away by all.
    renderer.draw(replace(look, moving=True))
    far = replace(look, camera=from_points(np.array([40.0, -40, 5]), np.array([0.0, 0, 0.5])))
    assert not any(renderer.stock.shows_near(batch, far) for batch in renderer.stock.solid)


def test_what_is_chosen_is_tinted_over_its_relief(renderer):
    parts, maps = [replace(part, part="box") for part in box()], setts()
    renderer.set_parts(parts)
    renderer.set_textures("s", pictures_of(b"tinted", maps, relief_of(maps)))
    look = Look(
        from_points(np.array([1.6, -1.9, 1.5]), np.array([0.0, 0.0, 0.5])), 300, 300, light=LIGHT, shadows=False
    )
    pictures = []
    for chosen in (frozenset(), frozenset({"box"})):
        renderer.refine(replace(look, chosen=chosen), 0)
        solid = np.linalg.norm(renderer.targets.guide((300, 300))[::-1, :, :3], axis=-1) > 0.5
        pictures.append(renderer.refined_light(look, 1))
    tinted = np.abs(pictures[1] - pictures[0]).max(-1) > 1e-3
    assert tinted[solid].mean() > 0.96
