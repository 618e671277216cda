"""Light on flat sheets: nothing is lost, nothing is made; known answers."""

import math

import numpy as np
import pytest
from scipy.ndimage import gaussian_filter

from brave_tessel.core.job.light import Lamp, Rig
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.light import energy
from brave_tessel.core.light.directions import octahedral_grid, octahedral_weights, sample_octahedral, toward
from brave_tessel.core.light.dome import LUMA, Dome, Key, dome_near, dome_of, gains, metered_ev
from brave_tessel.core.light.harmonics import basis, harmonics
from brave_tessel.core.light.lighting import Eye, Lighting, light_flat
from brave_tessel.core.light.prefilter import level_of, prefiltered, roughness_of
from brave_tessel.core.light.presets import PRESETS, make_preset
from brave_tessel.core.light.tone import KNEES, shoulder, show, tone_table, unshow
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.sheet import Grid

GRID = Grid(96, 64, 600.0, 400.0)


def sheet(colour=(0.18, 0.18, 0.18), roughness=0.8, metal=0.0, grid=GRID):
    shape = grid.shape
    return MapSet(
        grid,
        {
            MapKind.BASE_COLOUR: np.broadcast_to(np.float32(colour), (*shape, 3)).copy(),
            MapKind.NORMAL: np.broadcast_to(np.float32([0, 0, 1]), (*shape, 3)).copy(),
            MapKind.ROUGHNESS: np.full(shape, roughness, np.float32),
            MapKind.METALNESS: np.full(shape, metal, np.float32),
            MapKind.AMBIENT_OCCLUSION: np.ones(shape, np.float32),
        },
    )


def lit(maps, lighting, sunlit=1.0):
    return light_flat(maps, np.full(maps.grid.shape, sunlit, np.float32), lighting)


@pytest.fixture
def furnace(monkeypatch):
    """An even sky of 1000 cd/m² from everywhere, exposed to show as 0.5."""
    even = Dome(np.full((64, 64, 3), 1000, np.float32), Key((0.0, 0.0, 1.0), (0.0, 0.0, 0.0), 0.0), lambda d: d)
    monkeypatch.setattr("brave_tessel.core.light.lighting.dome_of", lambda *_: even)
    monkeypatch.setattr("brave_tessel.core.light.lighting.gains", lambda *_: np.full(3, 0.5 / 1000))
    return Lighting(Rig(name="furnace"))


@pytest.mark.parametrize("roughness", [0.05, 0.2, 0.4, 0.6, 0.8, 1.0])
@pytest.mark.parametrize(
    ("metal", "eye"), [(1.0, Eye(near=0)), (0.0, Eye(near=0)), (1.0, Eye(off=70, near=0)), (0.5, Eye())]
)
def test_white_in_a_white_furnace_cannot_be_seen(furnace, roughness, metal, eye):
    """Energy is kept within 1 % whatever the roughness (Heitz 2014; multiple scattering by Fdez-Agüera 2019)."""
    shown = unshow(lit(sheet((1, 1, 1), roughness, metal), Lighting(furnace.rig, eye=eye)) / 255)
    assert shown == pytest.approx(0.5, rel=0.015), "half a code is 0.6 %"


@pytest.mark.parametrize("off", [0.0, 30.0, 50.0, 65.0])
def test_water_mirrors_what_fresnel_says(furnace, monkeypatch, off):
    """Fresnel's equations for n = 1.333 (Born and Wolf, Principles of Optics, 1.5.2); Schlick's curve is within 1 %."""
    monkeypatch.setattr("brave_tessel.core.light.lighting.gains", lambda *_: np.full(3, 2 / 1000))
    one = np.ones(GRID.shape, np.float32)
    black = sheet((0, 0, 0)).with_maps(specular_level=0 * one, coat=one, coat_roughness=0.02 * one, water=one)
    shown = unshow(lit(black, Lighting(furnace.rig, eye=Eye(off, 90.0, 0.0))) / 255).mean() / 2
    inside = math.asin(math.sin(math.radians(off)) / 1.333)
    a, b = math.cos(math.radians(off)), math.cos(inside)
    fresnel = (((a - 1.333 * b) / (a + 1.333 * b)) ** 2 + ((1.333 * a - b) / (1.333 * a + b)) ** 2) / 2
    assert shown == pytest.approx(fresnel, abs=0.012)
    varnish = MapSet(GRID, {kind: pixels for kind, pixels in black.maps.items() if kind is not MapKind.WATER})
    assert unshow(lit(varnish, Lighting(furnace.rig, eye=Eye(off, 90.0, 0.0))) / 255).mean() / 2 > shown


@pytest.mark.parametrize(
    ("roughness", "cosine", "albedo"),
    [
        # Directional albedo of GGX by quadrature, height-correlated Smith (checked against a path tracer).
        (0.25, 0.5, 0.9883), (0.5, 1.0, 0.9158), (0.5, 0.5, 0.8573), (0.5, 0.2, 0.8482), (0.75, 1.0, 0.6269),
        (0.75, 0.5, 0.6632), (1.0, 1.0, 1 - math.log(2)), (1.0, 0.5, 0.4507), (1.0, 0.2, 0.6416),
    ],
)  # fmt: skip
def test_directional_albedo_of_ggx(roughness, cosine, albedo):
    found = energy.looked_up(energy.ggx_table(), np.array(roughness), np.array(cosine)).sum()
    assert found == pytest.approx(albedo, abs=0.005)


@pytest.mark.parametrize("alpha", [0.1, 0.3, 1.0])
def test_ggx_is_normalised(alpha):
    """∫ D(h) cos = 1 (Walter et al. 2007)."""
    t = (np.arange(20_000) + 0.5) / 20_000 * math.pi / 2
    density = alpha**2 / (math.pi * (np.cos(t) ** 2 * (alpha**2 - 1) + 1) ** 2)
    assert (density * np.cos(t) * np.sin(t)).sum() * 2 * math.pi * math.pi / 40_000 == pytest.approx(1, abs=1e-4)


def test_multiple_scattering_gives_back_what_is_lost():
    for roughness in np.linspace(0, 1, 9):
        single, multi = energy.reflectance(np.array(1.0), np.array(roughness), np.array(0.6))
        assert single + multi == pytest.approx(1, abs=1e-6)


def test_the_sheen_is_that_of_its_specification():
    """KHR_materials_sheen: D = (2 + 1/α) sin^(1/α) / 2π, by α = roughness²."""
    for alpha, cosine in ((0.25, 0.3), (1.0, 0.7)):
        wanted = (2 + 1 / alpha) * math.sqrt(1 - cosine**2) ** (1 / alpha) / (2 * math.pi)
        assert energy.charlie(alpha, cosine) == pytest.approx(wanted)
    t = (np.arange(4000) + 0.5) / 4000 * math.pi / 2
    whole = (
        sum(energy.charlie(0.3, math.cos(a)) * math.cos(a) * math.sin(a) for a in t) * 2 * math.pi * (math.pi / 8000)
    )
    assert whole == pytest.approx(1, abs=1e-3)
    assert energy.sheen_table().max() <= 1


# The sky ---------------------------------------------------------------------------------------------


def test_nine_harmonics_give_the_light_of_brute_force():
    """Ramamoorthi and Hanrahan 2001: within 3 % (of the mean) for skies."""
    dome = dome_of(make_preset("Overcast"))
    grid, weights = octahedral_grid(256), octahedral_weights(256)
    coefficients = harmonics(dome.sky)
    for normal in ((0, 0, 1), (0, -1, 0), (0.6, 0, 0.8), (-0.5, 0.5, -0.707)):
        n = np.array(normal) / np.linalg.norm(normal)
        wanted = (dome.sky * (np.maximum(grid @ n.astype(np.float32), 0) * weights)[..., None]).sum((0, 1))
        found = basis(n) @ coefficients
        assert found == pytest.approx(wanted, rel=0.05, abs=0.03 * float(coefficients[0].mean()))


@pytest.mark.parametrize("level", [1, 3, 5])
def test_a_blurred_sky_is_the_lobes_mean(level):
    """Against every pixel of the sky weighed by the lobe (Karis 2013: normal and eye along the mirror direction)."""
    dome = dome_of(make_preset("Afternoon"))
    grid, weights = octahedral_grid(256), octahedral_weights(256)
    alpha = roughness_of(level) ** 2
    blurred = prefiltered(dome.sky)[level - 1]
    for way in (toward(180, 30), toward(40, 60), toward(300, -20)):
        n = np.array(way, np.float32)
        lz = grid @ n
        half = np.sqrt(np.clip((1 + lz) / 2, 0, 1))
        lobe = alpha**2 / (math.pi * (half**2 * (alpha**2 - 1) + 1) ** 2) * np.maximum(lz, 0) * weights
        wanted = (dome.sky * lobe[..., None]).sum((0, 1)) / lobe.sum()
        found = sample_octahedral(blurred, n[None])[0]
        assert found == pytest.approx(wanted, rel=0.12)


def test_levels_and_roughness_go_there_and_back():
    for roughness in np.linspace(0.06, 1, 11):
        assert roughness_of(level_of(roughness)) == pytest.approx(roughness)


# Exposure --------------------------------------------------------------------------------------------


def test_an_18_percent_grey_shows_as_118_in_the_default_light():
    """Wall and floor together; each within what the one sun gives them."""
    shown = [lit(sheet(roughness=1.0), Lighting(stance=stance, eye=Eye(near=0))).mean() for stance in ("wall", "floor")]
    assert sum(shown) / 2 == pytest.approx(118, abs=4)
    assert abs(shown[0] - shown[1]) < 12


@pytest.mark.parametrize("name", PRESETS)
def test_every_preset_is_exposed_and_neutral(name):
    rig = make_preset(name)
    dome = dome_of(rig)
    assert rig.eye.number("ev100") == pytest.approx(metered_ev(dome), abs=0.01)
    grey = sum(dome.illuminance(n) for n in ((0.0, -1.0, 0.0), (0.0, 0.0, 1.0))) / 2 * 0.18 / math.pi * gains(rig, dome)
    assert grey == pytest.approx(0.18, rel=0.01)


@pytest.mark.parametrize("transform", KNEES)
def test_view_transforms_go_there_and_back(transform):
    x = np.linspace(0, 1 if transform == "straight" else 20, 500)
    codes = show(x, transform)
    assert (np.diff(codes) >= 0).all()
    assert unshow(codes, transform) == pytest.approx(x, rel=1e-3, abs=1e-6)
    assert show(np.array(0.18), transform) * 255 == pytest.approx(117.6, abs=0.5) or transform == "wide range"
    knee = KNEES[transform]
    if knee < 1:
        near = shoulder(np.array([knee - 1e-4, knee + 1e-4]), knee)
        assert (near[1] - near[0]) / 2e-4 == pytest.approx(1, abs=1e-3), "no kink at the knee"


def test_the_tone_table_is_the_transform():
    x = np.array([0.001, 0.02, 0.18, 0.9, 4.0])
    codes = tone_table("true mid tones")[(x / (1 + x) * (1 << 14)).astype(int)]
    assert np.abs(codes - show(x) * 255).max() < 0.8


# What pictures tell ----------------------------------------------------------------------------------


def test_a_lamp_lights_a_matt_sheet_as_lambert_says():
    """A bulb of Φ lm at d m: E = Φ / 4π d² · cos θ, L = ρ E / π."""
    bulb = Lamp(
        op="lamp.bulb",
        id="l",
        values={"bearing": 180.0, "height": 30.0, "away": 2000.0, "lumen": 1000.0, "warmth": 6500.0},
    )
    rig = Rig(
        sky=Setting(op="sky.room", values={"light": 0.0}), lamps=(bulb,),
        eye=Setting(op="light.eye", values={"ev100": 3.0, "white": "typed", "kelvin": 6500.0}),
    )  # fmt: skip
    maps = sheet((0.5, 0.5, 0.5), 1.0)
    found = unshow(lit(maps, Lighting(rig, eye=Eye(off=0, near=0))) / 255).mean()
    lux = 1000 / (4 * math.pi * 4) * math.cos(math.radians(30))
    single, multi = energy.reflectance(np.array(0.04), np.array(1.0), np.array(1.0))
    wanted = 0.5 * (1 - single - multi) * lux / math.pi / (1.2 * 8)
    assert found == pytest.approx(wanted, rel=0.04), "and a little gloss over it"


def mirrored(roughness, colour=(0.03, 0.06, 0.05), metal=0.0, name="Two strips"):
    grid = Grid(192, 192, 600.0, 600.0)
    return lit(sheet(colour, roughness, metal, grid), Lighting(make_preset(name)))[..., 1].astype(float)


@pytest.mark.parametrize("name", ["Two strips", "Afternoon"])
def test_glazed_and_matt_can_be_told_apart(name):
    """On a flat sheet a gloss shows edges of what it mirrors; matt does not."""
    glazed, matt = mirrored(0.06, name=name), mirrored(0.7, name=name)
    edges = [(picture - gaussian_filter(picture, 8))[16:-16, 16:-16].std() for picture in (glazed, matt)]
    assert edges[0] > 4 * edges[1]


def test_metal_and_paint_of_one_colour_can_be_told_apart():
    gold = (0.9, 0.62, 0.28)
    metal, paint = mirrored(0.2, gold, 1.0), mirrored(0.6, gold)
    assert metal.std() > 5 * paint.std()


def test_parts_of_a_sheet_are_lit_as_the_whole_is():
    maps = sheet(roughness=0.1)
    whole = lit(maps, Lighting())
    part = MapSet(Grid(32, 16, 200.0, 100.0), {kind: pixels[40:56, 64:96] for kind, pixels in maps.maps.items()})
    ones = np.ones((16, 32), np.float32)
    assert (light_flat(part, ones, Lighting(), sheet=GRID, origin=(40, 64)) == whole[40:56, 64:96]).all()
    beyond = light_flat(part, ones, Lighting(), sheet=GRID, origin=(40 - 64, 64 + 96))
    assert (beyond == whole[40:56, 64:96]).all(), "over the edge it wraps"


def test_a_sheet_seen_from_afar_has_no_seam():
    picture = lit(sheet(roughness=0.05), Lighting(eye=Eye(near=0)))
    assert np.ptp(picture.reshape(-1, 3), 0).max() == 0


def test_a_light_behind_a_wall_leaves_it_in_the_shade():
    front, behind = (
        Lighting(Rig(sun=Setting(op="light.sun", values={"bearing": bearing, "height": 30.0})))
        for bearing in (180.0, 0.0)
    )
    assert front.shadows
    assert not behind.shadows
    assert lit(sheet(), behind).mean() < 0.6 * lit(sheet(), front).mean()


def test_colour_of_light_is_put_right_where_it_is_wanted():
    typed = make_preset("Lamp-lit hall")
    warm = lit(
        sheet(),
        Lighting(
            Rig(
                sky=typed.sky,
                lamps=typed.lamps,
                eye=Setting(op="light.eye", values={**typed.eye.values, "white": "typed"}),
            )
        ),
    )
    even = lit(sheet(), Lighting(typed))
    assert warm[..., 0].mean() > 1.2 * warm[..., 2].mean()
    assert even[..., 0].mean() == pytest.approx(even[..., 2].mean(), rel=0.05)
    assert LUMA.sum() == pytest.approx(1)


def test_while_the_sun_turns_its_light_turns_at_once_and_the_sky_follows():
    rig = make_preset("Afternoon")
    whole = dome_of(rig)
    turned = Rig(sky=rig.sky, eye=rig.eye, sun=Setting(op="light.sun", values={"bearing": 190.0, "height": 30.0}))
    near = dome_near(turned)
    assert near.sky is whole.sky
    assert near.key.direction == toward(190.0, 30.0)
    assert near.blurred() is whole.blurred()
    exact = dome_of(turned)
    assert exact.sky is not whole.sky
    assert dome_near(turned) is exact
    assert exact.key.direction == near.key.direction
    assert dome_near(make_preset("Two strips")) is dome_of(make_preset("Two strips"))
