"""The scene's renderer, the flat board and the still show one light alike."""

import itertools
import math
from dataclasses import replace

import numpy as np
import pytest
from skimage.color import deltaE_ciede2000, rgb2lab

from brave_tessel.core.light.dome import Dome, Key
from brave_tessel.core.light.lighting import Eye, Lighting, light_flat
from brave_tessel.core.light.presets import make_preset
from brave_tessel.core.light.tone import unshow
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.pictures.placed import pictures_of
from brave_tessel.view3d import sky_seen
from brave_tessel.view3d.camera import Camera
from brave_tessel.view3d.drawn import Look, SceneLight, scene_light
from brave_tessel.view3d.openness import Openness
from brave_tessel.view3d.renderer import Renderer
from brave_tessel.view3d.rest import come_to_rest
from brave_tessel.view3d.samples import SAMPLES, camera_of, sample, solid_camera
from brave_tessel.view3d.solids import CENTRE, SIZE_M, solid_part

SIDE = Grid(64, 64, 500.0, 500.0)


@pytest.fixture(scope="module")
def renderer():
    made, before = Renderer(), sky_seen.PRIMED
    sky_seen.PRIMED = 24
    yield made
    sky_seen.PRIMED = before
    made.release()


def maps_of(colour, roughness, metal, grid=SIDE):
    shape = grid.shape
    return MapSet(
        grid,
        {
            MapKind.BASE_COLOUR: np.broadcast_to(np.float32(colour), (*shape, 3)).copy(),
            MapKind.NORMAL: np.broadcast_to(np.float32([0, 0, 1]), (*shape, 3)).copy(),
            MapKind.ROUGHNESS: np.full(shape, roughness, np.float32),
            MapKind.METALNESS: np.full(shape, metal, np.float32),
            MapKind.AMBIENT_OCCLUSION: np.ones(shape, np.float32),
            MapKind.HEIGHT: np.zeros(shape, np.float32),
        },
    )


NUMBERS = itertools.count()
"""Names of what is handed over: the address of a set that is gone may be that of the next one."""


def laid(renderer, maps, shape="Ball", cells=96):
    renderer.set_parts([solid_part(shape, maps[MapKind.HEIGHT], maps.grid, "s", cells=cells)])
    own = pictures_of(f"maps {next(NUMBERS)}".encode(), maps)
    renderer.set_textures("s", own)


def at_rest(renderer, look, passes=48):
    seen = []
    come_to_rest(renderer, look, lambda codes, _last: seen.append(codes), lambda: True, passes=passes, held=passes)
    return seen[-1]


def apart(one, other):
    """CIEDE2000 (CIE 142), mean over the picture."""
    labs = [rgb2lab(picture / 255) for picture in (one, other)]
    return float(deltaE_ciede2000(*labs).mean())


def even(radiance=1000.0, show=0.4):
    dome = Dome(np.full((64, 64, 3), radiance, np.float32), Key((0.0, 0.0, 1.0), (0.0, 0.0, 0.0), 0.0),
                lambda d: np.full((*d.shape[:-1], 3), radiance, np.float32))  # fmt: skip
    return SceneLight(dome, (show / radiance,) * 3, "true mid tones")


@pytest.mark.parametrize("roughness", [0.1, 0.5, 1.0])
@pytest.mark.parametrize("metal", [0.0, 1.0])
def test_a_white_ball_in_a_white_furnace_cannot_be_seen(renderer, roughness, metal):
    laid(renderer, maps_of((1, 1, 1), roughness, metal))
    look = Look(solid_camera(), 120, 120, light=even())
    picture = at_rest(renderer, look, 16)
    middle = picture[30:90, 30:90]
    # Codes are half a per cent; the coarse field of openness costs a few pixels at the poles more.
    away = np.abs(unshow(middle / 255) / 0.4 - 1)
    assert np.median(away) < 0.01
    assert np.quantile(away, 0.9) < 0.035
    assert np.quantile(away, 0.97) < 0.06


def test_a_matt_ball_under_one_lamp_is_lamberts(renderer):
    """E cos θ ρ / π over the lit half, dark behind."""
    dark = np.zeros((64, 64, 3), np.float32)
    key = Key((0.0, -1.0, 0.0), (1000.0, 1000.0, 1000.0), 0.005)
    light = SceneLight(Dome(dark, key, lambda d: np.zeros((*d.shape[:-1], 3), np.float32)), (1e-3,) * 3, "straight")
    laid(renderer, maps_of((0.5, 0.5, 0.5), 1.0, 0.0), cells=160)
    camera = replace(solid_camera(0.0, 0.0, 60.0), field_of_view=2.0)
    picture = at_rest(renderer, Look(camera, 160, 160, light=light, background=(0.0, 0.0, 0.0)), 24)
    seen = unshow(picture[:, :, 1] / 255, "straight")
    rows, columns = np.nonzero(seen > 0.01)
    centre = (rows.min() + rows.max()) / 2, (columns.min() + columns.max()) / 2
    radius = (rows.max() - rows.min()) / 2
    y, x = np.indices(seen.shape)
    r = np.hypot(y - centre[0], x - centre[1]) / radius
    inside = r < 0.85
    cosine = np.sqrt(1 - np.clip(r, 0, 1) ** 2)
    found = seen[inside] / cosine[inside]
    away = np.abs(found * math.pi / 0.5 - 1)
    assert np.quantile(away, 0.95) < 0.1, "and a little gloss"


@pytest.mark.parametrize(
    ("name", "colour", "roughness", "metal", "finish"),
    [
        ("matt", (0.3, 0.2, 0.1), 1.0, 0.0, {}),
        ("glazed", (0.05, 0.2, 0.12), 0.25, 0.0, {}),
        ("gold", (0.9, 0.62, 0.28), 0.4, 1.0, {}),
        ("varnished", (0.2, 0.1, 0.05), 0.7, 0.0, {"coat": 1.0, "coat_roughness": 0.1}),
        ("under water", (0.1, 0.08, 0.05), 0.8, 0.0, {"coat": 1.0, "coat_roughness": 0.03, "water": 1.0}),
        ("brushed along", (0.6, 0.6, 0.6), 0.3, 1.0, {"anisotropy": 0.8, "anisotropy_angle": 0.0}),
        ("brushed aslant", (0.6, 0.6, 0.6), 0.3, 1.0, {"anisotropy": 0.8, "anisotropy_angle": 0.3}),
    ],
)
def test_flat_board_and_scene_show_a_sheet_alike(renderer, name, colour, roughness, metal, finish):
    """The same wall, from the same far eye: mean ΔE00 under 2."""
    rig = make_preset("Overcast" if name in {"matt", "varnished", "brushed along"} else "Afternoon")
    one = np.ones(SIDE.shape, np.float32)
    maps = maps_of(colour, roughness, metal).with_maps(**{kind: value * one for kind, value in finish.items()})
    laid(renderer, maps, "Plane", 8)
    off = 30.0
    camera = Camera(target=(0.0, 0.0, 1.2), distance=80.0, azimuth=0.0, pitch=off, field_of_view=0.4, reach=200.0)
    look = Look(camera, 64, 64, light=scene_light(rig))
    scene = at_rest(renderer, look, 32)[24:40, 24:40]
    flat = light_flat(maps, np.ones(SIDE.shape, np.float32), Lighting(rig, eye=Eye(off=off, side=90.0, near=0.0)))
    mean = flat.reshape(-1, 3).mean(0)
    assert apart(scene, np.broadcast_to(np.rint(mean).astype(np.uint8), scene.shape)) < 2, name


def test_a_coat_has_a_face_of_its_own(renderer):
    """Water over rough ground lies level: it mirrors as over smooth ground."""
    rig, one = make_preset("Two strips"), np.ones(SIDE.shape, np.float32)
    tilted = np.broadcast_to(np.float32([0.6, 0.0, 0.8]), (*SIDE.shape, 3)).copy()
    wet = {"coat": one, "coat_roughness": 0.03 * one, "water": one}
    level = maps_of((0.0, 0.0, 0.0), 0.9, 0.0).with_maps(**wet)
    rough = level.with_maps(normal=tilted, coat_normal=level[MapKind.NORMAL])
    camera = Camera(target=(0.0, 0.0, 1.2), distance=80.0, azimuth=0.0, pitch=20.0, field_of_view=0.4, reach=200.0)
    pictures = []
    for maps in (level, rough):
        laid(renderer, maps, "Plane", 8)
        pictures.append(at_rest(renderer, Look(camera, 64, 64, light=scene_light(rig)), 16)[24:40, 24:40])
    assert apart(*pictures) < 4, "what is left is the rough ground beneath"


def test_the_moving_picture_is_near_the_resting_one_and_more_frames_nearer(renderer):
    maps = maps_of((0.5, 0.45, 0.4), 0.5, 0.0)
    laid(renderer, maps, "Board", 120)
    look = Look(solid_camera(), 240, 200, light=scene_light(make_preset("Afternoon")), background=(0.4, 0.4, 0.4))
    whole = at_rest(renderer, look, 96)
    few, more = at_rest(renderer, look, 8), at_rest(renderer, look, 40)
    assert apart(more, whole) <= apart(few, whole)
    assert apart(few, whole) < 2
    assert apart(renderer.draw(look), whole) < 3


def test_a_cut_out_is_looked_through_and_lets_light_by(renderer):
    holes = np.ones(SIDE.shape, np.float32)
    holes[:, 32:] = 0
    maps = maps_of((0.5, 0.5, 0.5), 0.8, 0.0).with_maps(opacity=holes)
    laid(renderer, maps, "Plane", 8)
    look = Look(solid_camera(0.0, 0.0), 120, 120, light=even(), background=(1.0, 0.0, 0.0))
    picture = at_rest(renderer, look, 4)
    assert picture[60, 80].tolist()[0] > 240, "the red behind"
    assert picture[60, 40].tolist()[0] < 200
    assert renderer.draw(look)[60, 80].tolist()[0] > 240


@pytest.mark.parametrize("shape", SAMPLES)
def test_solids_close_and_face_outwards(shape):
    parts = sample(shape, np.zeros(SIDE.shape, np.float32), SIDE, "s", cells=40)
    assert [part.surface for part in parts] == ["s", ""]
    for part in parts:
        assert np.isfinite(part.positions).all()
        assert np.linalg.norm(part.normals, axis=1) == pytest.approx(1, abs=1e-4)
        corners = part.positions.reshape(-1, 3, 3).astype(np.float64)
        faces = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
        area = np.linalg.norm(faces, axis=1)
        big = area > 1e-3 * area.max()
        turned = (faces[big] * part.normals.reshape(-1, 3, 3).mean(1)[big]).sum(1) > 0
        assert turned.mean() > 0.95
        assert np.ptp(part.positions, 0).max() < 2.4


@pytest.mark.parametrize("shape", ["Ball", "Block", "Drum"])
def test_closed_solids_hold_their_volume(shape):
    """By the divergence theorem, against the formulas of any handbook."""
    part = solid_part(shape, np.zeros(SIDE.shape, np.float32), SIDE, "s", cells=200)
    a, b, c = np.moveaxis(part.positions.reshape(-1, 3, 3).astype(np.float64) - CENTRE, 1, 0)
    volume = float((a * np.cross(b, c)).sum()) / 6
    if shape == "Drum":
        # Its foot is open, and flat: what is missing is the cone below the middle.
        low, radius = np.abs(part.positions[:, 2] - CENTRE[2]).max(), np.abs(part.positions[:, 0]).max()
        volume += math.pi * radius**2 * low / 3
        assert volume == pytest.approx(math.pi * radius**2 * 2 * low, rel=2e-3)
    elif shape == "Ball":
        assert volume == pytest.approx(4 / 3 * math.pi * (SIZE_M / 2) ** 3, rel=2e-3)
    else:
        side = float(np.ptp(part.positions[:, 0]))
        edge = 0.08 * side
        flat = side - 2 * edge
        whole = flat**3 + 6 * flat**2 * edge + 3 * flat * math.pi * edge**2 + 4 / 3 * math.pi * edge**3
        assert volume == pytest.approx(whole, rel=2e-3)


@pytest.mark.parametrize("shape", SAMPLES)
def test_a_solid_is_seen_whole_from_where_it_is_first_looked_at(shape):
    for grid in (SIDE, Grid(96, 48, 800.0, 400.0), Grid(48, 96, 400.0, 800.0)):
        solid_, _stand = sample(shape, np.zeros(grid.shape, np.float32), grid, "s", cells=24)
        places = np.concatenate([solid_.positions, np.ones((len(solid_.positions), 1))], 1)
        x, y, _, w = camera_of(shape).view_projection(1.4) @ places.T
        assert (w > 0).all()
        assert np.abs(x / w).max() < 1
        assert np.abs(y / w).max() < 1
        # And not from too far.
        assert max(np.ptp(x / w), np.ptp(y / w)) > 0.7


def test_a_thin_wall_does_not_let_the_sky_through():
    """Cells beside a roof 5 cm thick, from shadow maps drawn by hand: above it all is seen, below it a slit."""
    low, high = np.array([0.0, 0.0, 0.0]), np.array([8.0, 8.0, 4.0])
    field = Openness(low, high)
    # Straight down: x and y from −1 to 1 over the box, depth from its top to its foot.
    matrix = np.array([[0.25, 0, 0, -1], [0, 0.25, 0, -1], [0, 0, -0.5, 1.0], [0, 0, 0, 1]])
    roof = np.full((64, 64), 0.5, np.float32)
    roof[:, :2] = 1.0
    field.add(roof, matrix, np.array([0.0, 0.0, 1.0]))
    known = field.learnt.field()[..., 0]
    assert known[-3, known.shape[1] // 2, known.shape[2] // 2] == pytest.approx(1)
    assert known[3, known.shape[1] // 2, known.shape[2] // 2] == pytest.approx(0, abs=1e-6)
    even = field.field()[..., 0]
    cell = field.size[2] / even.shape[0]
    below, above = (int((z - field.low[2]) / cell) for z in (2.0 - 1.6 * cell, 2.0 + 1.6 * cell))
    middle = even.shape[1] // 2
    assert even[above, middle, middle] > 0.98
    assert even[below, middle, middle] < 0.02
