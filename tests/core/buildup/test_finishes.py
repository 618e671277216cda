"""Maps of finishes: mixed, covered, delivered; nothing where nobody has them."""

import io
import json
import struct

import numpy as np
import pytest
from PIL import Image

from brave_tessel.core.buildup.finishes import surface_maps
from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.buildup.mixing import finish_onto
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Rule, Surface
from brave_tessel.core.job.light import Rig
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.light.lighting import Eye, Lighting, light_flat
from brave_tessel.core.light.presets import make_preset
from brave_tessel.core.maps import EMISSION_CD, FINISH, MapKind, MapSet
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.handover.finish_files import finishes_of, with_alpha
from brave_tessel.engine.pictures.placed import pictures_of
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob

GRID = Grid(32, 32, 200.0, 200.0)
HALF = np.repeat(np.linspace(0, 1, 32, dtype=np.float32)[None], 32, 0)


def layer(id="a", what=None, **more):
    return Layer(id=id, name=id, what=what or PlainWhat(), **more)


def surface(*layers, **more):
    return Surface(id="s", name="S", width_mm=200.0, height_mm=200.0, layers=layers, **more)


def finished(made, px=64):
    snapshot = Session(OpenedJob(Job(id="j", surfaces=(made,)))).snapshot()
    return snapshot.finished(made, px)


def test_plain_surfaces_have_none():
    maps = finished(surface(layer()))
    assert not set(maps) & set(FINISH)
    assert MapKind.OPACITY not in maps
    assert not set(surface_maps(Job(), surface(layer()))) & {*FINISH, MapKind.OPACITY}


@pytest.mark.parametrize(
    ("dials", "kinds"),
    [
        ({"coat": 0.8}, {MapKind.COAT, MapKind.COAT_ROUGHNESS}),
        ({"sheen": "#804020"}, {MapKind.SHEEN, MapKind.SHEEN_ROUGHNESS}),
        ({"anisotropy": 0.6}, {MapKind.ANISOTROPY, MapKind.ANISOTROPY_ANGLE}),
        ({"emission": "#FFFFFF"}, {MapKind.EMISSION}),
        ({"transmission": 0.5, "translucency": 0.2}, {MapKind.TRANSMISSION, MapKind.TRANSLUCENCY}),
        ({"specular_level": 0.3}, {MapKind.SPECULAR_LEVEL}),
    ],
)
def test_a_plain_layer_brings_what_its_dials_say(dials, kinds):
    made = surface(layer(what=PlainWhat(**dials)))
    maps = finished(made)
    assert set(maps) & set(FINISH) == kinds
    assert kinds <= set(surface_maps(Job(surfaces=(made,)), made))
    for name, value in dials.items():
        if isinstance(value, float):
            assert maps[MapKind(name)] == pytest.approx(value)


def test_what_lies_on_top_covers_them_and_a_share_mixes():
    coated = MapSet(
        GRID, {MapKind.BASE_COLOUR: np.zeros((32, 32, 3), np.float32), MapKind.COAT: np.ones((32, 32), np.float32)}
    )
    plain = MapSet(GRID, {MapKind.BASE_COLOUR: np.zeros((32, 32, 3), np.float32)})
    grime = MapSet(GRID, {MapKind.ROUGHNESS: np.ones((32, 32), np.float32)})
    whole = np.ones((32, 32), np.float32)
    below = finish_onto(None, coated, whole, {})
    assert finish_onto(below, plain, HALF, {})[MapKind.COAT] == pytest.approx(1 - HALF, abs=1e-6)
    assert finish_onto(below, grime, whole, {})[MapKind.COAT] == pytest.approx(1), "what has no colour covers nothing"
    assert finish_onto(None, plain, whole, {}) is None


def test_brushings_mix_the_short_way_round():
    """As doubled vectors: 175° and 5° meet at 0°, not at 90°."""
    one, other = (
        MapSet(GRID, {MapKind.ANISOTROPY_ANGLE: np.full((32, 32), a / 180, np.float32)}) for a in (175.0, 5.0)
    )
    mixed = finish_onto(one, other, np.full((32, 32), 0.5, np.float32), {})[MapKind.ANISOTROPY_ANGLE] * 180
    assert np.abs((mixed + 90) % 180 - 90).max() < 0.01


def test_a_cut_out_surface_is_open_where_nothing_lies():
    rule = Rule(id="r", rule=Setting(op="where.noise", values={"size": 60.0}))
    open_, closed = (surface(layer(where=(rule,)), cut_out=cut) for cut in (True, False))
    opacity = finished(open_)[MapKind.OPACITY]
    assert 0.1 < opacity.mean() < 0.9
    assert opacity.min() < 0.01
    assert MapKind.OPACITY not in finished(closed)
    assert MapKind.OPACITY in surface_maps(Job(surfaces=(open_,)), open_)
    assert (finished(surface(layer(), cut_out=True))[MapKind.OPACITY] == 1).all()


def test_gltf_carries_them_by_the_registry():
    """Khronos: sheen roughness in alpha, coat roughness in green, anisotropy as direction and strength."""
    what = PlainWhat(
        sheen="#FF0000", sheen_roughness=0.5, coat=1.0, coat_roughness=0.25, anisotropy=0.75, anisotropy_angle=90.0,
        specular_level=0.5, transmission=0.2,
    )  # fmt: skip
    made = {finish.name: finish for finish in finishes_of(finished(surface(layer(what=what))))}
    assert set(made) == {
        f"KHR_materials_{name}" for name in ("sheen", "clearcoat", "anisotropy", "specular", "ior", "transmission")
    }

    def pixel(name, key):
        return np.asarray(Image.open(io.BytesIO(made[f"KHR_materials_{name}"].pictures[key])))[5, 5]

    assert pixel("sheen", "sheenColorTexture") == pytest.approx([255, 0, 0, 128], abs=1)
    assert pixel("clearcoat", "clearcoatRoughnessTexture")[1] == pytest.approx(64, abs=1)
    assert pixel("anisotropy", "anisotropyTexture") == pytest.approx([128, 255, 191], abs=1)
    assert pixel("specular", "specularTexture")[3] == pytest.approx(128, abs=1)
    assert pixel("transmission", "transmissionTexture")[0] == pytest.approx(51, abs=1)


def test_alpha_is_in_the_base_colour_of_what_is_cut_out():
    maps = finished(surface(layer(), cut_out=True))
    assert np.asarray(Image.open(io.BytesIO(with_alpha(maps)))).shape[2] == 4
    assert pictures_of(b"k", maps).base.shape[2] == 4


def test_a_scene_with_a_glowing_coated_surface_is_a_valid_file(demo_session, tmp_path):
    import msgspec

    from brave_tessel.engine.handover.outputs.scene_glb import scene_glb

    job = demo_session.job
    glow = surface(layer(what=PlainWhat(emission="#FFFFFF", coat=0.5)), cut_out=True)
    part = next(part for part in job.scene.parts if part.laid)
    laid = (msgspec.structs.replace(part.laid[0], surface="s"),)
    alone = msgspec.structs.replace(part, parent="", laid=laid)
    scene = msgspec.structs.replace(job.scene, parts=(alone,))
    snapshot = demo_session.snapshot().with_job(msgspec.structs.replace(job, surfaces=(glow,), scene=scene))
    data = scene_glb(snapshot, px=32)
    (length,) = struct.unpack_from("<I", data, 12)
    tree = json.loads(data[20 : 20 + length])
    material = next(m for m in tree["materials"] if m["name"] == "S")
    assert material["alphaMode"] == "MASK"
    assert material["extensions"]["KHR_materials_emissive_strength"]["emissiveStrength"] == EMISSION_CD
    assert "KHR_materials_clearcoat" in tree["extensionsUsed"]


# In the light ------------------------------------------------------------------------------------------


def shown(what, name="Two strips", **eye):
    maps = finished(surface(layer(what=what)), 96)
    lighting = Lighting(make_preset(name), eye=Eye(**eye))
    return light_flat(maps, np.ones(maps.grid.shape, np.float32), lighting).astype(float)


def test_a_coat_makes_a_matt_colour_glossy():
    matt, coated = (shown(PlainWhat(colour="#303028", coat=coat)) for coat in (0.0, 1.0))
    assert coated.std() > 2.5 * matt.std()


def test_velvet_is_brightest_at_a_slant_and_felt_is_not():
    felt, velvet = (PlainWhat(colour="#200A10", roughness=1.0, sheen=sheen) for sheen in ("#000000", "#C06070"))
    steep = [shown(what, "Overcast", off=75.0, near=0.0).mean() / shown(what, "Overcast", off=0.0, near=0.0).mean()
             for what in (felt, velvet)]  # fmt: skip
    assert steep[1] > 1.15 * steep[0]


def test_brushed_metal_draws_its_gloss_out_along_the_brushing():
    metal = {"colour": "#C8C8C8", "metalness": 1.0, "roughness": 0.25}
    round_, drawn = (shown(PlainWhat(**metal, anisotropy=a, anisotropy_angle=0.0)).mean(2) for a in (0.0, 0.9))
    assert np.abs(round_ - drawn).mean() > 5


def test_what_gives_light_is_seen_in_the_dark():
    dark = Rig(sky=make_preset("Lamp-lit hall").sky, eye=make_preset("Lamp-lit hall").eye)
    maps = finished(surface(layer(what=PlainWhat(colour="#000000", emission="#404040"))))
    picture = light_flat(maps, np.ones(maps.grid.shape, np.float32), Lighting(dark))
    assert picture.mean() > 100
