"""Relief drawn on smooth faces: held against the same relief as a mesh."""

import msgspec
import numpy as np
import pytest
from scipy.ndimage import gaussian_filter

from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.light.presets import make_preset
from brave_tessel.core.maps import MapKind
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.pictures.placed import pictures_of, relief_of
from brave_tessel.engine.pictures.results import Relief
from brave_tessel.view3d.drawn import Look, scene_light
from brave_tessel.view3d.renderer import Renderer
from brave_tessel.view3d.samples import solid_camera
from brave_tessel.view3d.solids import SIZE_M, solid, solid_part
from tests.view3d.test_light_agrees import apart, at_rest, maps_of

LIGHT = scene_light(
    msgspec.structs.replace(
        make_preset("Low sun, raking"), sun=Setting(op="light.sun", values={"bearing": 228.0, "height": 24.0})
    )
)
GRID = Grid(128, 128, 500.0, 500.0)


@pytest.fixture(scope="module")
def renderer():
    made = Renderer()
    yield made
    made.release()


def setts():
    """Blocks of 100 mm with soft edges, 18 mm high, of two tones."""
    x, y = np.meshgrid(*(np.arange(128) / 128 * 5,) * 2)
    raised = (np.abs(x % 1 - 0.5) < 0.4) & (np.abs(y % 1 - 0.5) < 0.4)
    height = gaussian_filter(18.0 * raised, 1.5, mode="wrap").astype(np.float32)
    maps = maps_of((0.5, 0.5, 0.5), 0.9, 0.0, GRID)
    tone = np.where((np.floor(x) + np.floor(y)) % 2 > 0, 0.5, 0.25).astype(np.float32)
    maps.maps[MapKind.BASE_COLOUR][:] = tone[..., None]
    maps.maps[MapKind.HEIGHT][:] = height
    dy, dx = (np.roll(height, -1, k) - np.roll(height, 1, k) for k in (0, 1))
    slopes = np.stack([-dx / 2 / (500 / 128), dy / 2 / (500 / 128), np.ones_like(dx)], -1)
    maps.maps[MapKind.NORMAL][:] = slopes / np.linalg.norm(slopes, axis=-1, keepdims=True)
    return maps


def drawn(renderer, maps, how, look):
    grid = maps.grid
    renderer.set_parts(
        [
            solid_part(
                "Plane", maps[MapKind.HEIGHT], grid, "s", displaced=how == "mesh", cells=250 if how == "mesh" else 8
            )
        ]
    )
    relief = relief_of(maps) if how == "relief" else None
    if relief is not None:
        scale = 1000 * SIZE_M / solid("Plane", grid.width_mm, grid.height_mm).size_mm
        relief = Relief(relief.shares, relief.low_mm * scale, relief.high_mm * scale)
    renderer.set_textures("s", pictures_of(how.encode(), maps, relief))
    return renderer.draw(look) if look.moving else at_rest(renderer, look, 16)


@pytest.mark.parametrize(("azimuth", "pitch"), [(50.0, 10.0), pytest.param(-40.0, 35.0, marks=pytest.mark.slow)])
@pytest.mark.parametrize("moving", [False, True])
def test_relief_on_a_smooth_face_is_seen_as_its_mesh_is(renderer, azimuth, pitch, moving):
    camera = solid_camera(azimuth, pitch, 1.6)
    look = Look(camera, 300, 300, light=LIGHT, background=(0.4, 0.4, 0.4), moving=moving)
    maps = setts()
    mesh, relief, flat = (drawn(renderer, maps, how, look)[60:240, 60:240] for how in ("mesh", "relief", "flat"))
    # The sides of the blocks, and the shadows they throw: 0.4 to 0.8 against 4.5 to 5.
    assert apart(mesh, relief) < 0.25 * apart(mesh, flat)


def test_an_even_surface_has_none():
    assert relief_of(maps_of((0.5, 0.5, 0.5), 0.9, 0.0, GRID)) is None
