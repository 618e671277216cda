"""Sun and sky against published values."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brave_tessel.core.light import daylight as d
from brave_tessel.core.light.directions import (
    bearing_of,
    octahedral,
    octahedral_grid,
    octahedral_weights,
    sample_octahedral,
    stance_axes,
    toward,
)
from brave_tessel.core.light.skies import ClearSky, OvercastSky, PictureSky, Room
from brave_tessel.core.light.solar import air_mass, sun_stand

LUMA = np.array([0.2126, 0.7152, 0.0722])


@pytest.mark.parametrize(
    ("day", "declination", "equation"),
    [
        # Astronomical Almanac, rounded, from memory: solstices and equinoxes, and the extremes of the equation of time.
        (172, 23.44, -1.6),
        (355, -23.44, 2.0),
        (80, 0.0, -7.5),
        (266, 0.0, 7.5),
        (42, -14.2, -14.2),
        (307, -15.0, 16.4),
    ],
)
def test_the_sun_of_published_days(day, declination, equation):
    found = sun_stand(day, 12, 50.0)
    assert found.declination == pytest.approx(declination, abs=0.6)
    assert found.equation == pytest.approx(equation, abs=0.5)


@pytest.mark.parametrize("latitude", [-35.0, 0.0, 50.0, 60.0])
@pytest.mark.parametrize("day", [80, 172, 355])
def test_at_solar_noon_it_stands_at_90_less_latitude_plus_declination(day, latitude):
    """Spherical astronomy."""
    found = sun_stand(day, 12, latitude)
    assert found.height == pytest.approx(90 - abs(latitude - found.declination), abs=1e-6)
    south = latitude > found.declination
    assert found.bearing == pytest.approx(180 if south else 0, abs=1e-6) or found.bearing == pytest.approx(360)


def test_on_the_equinox_it_rises_in_the_east_and_sets_in_the_west():
    morning, evening = sun_stand(80, 6, 50.0), sun_stand(80, 18, 50.0)
    assert morning.bearing == pytest.approx(90, abs=1)
    assert evening.bearing == pytest.approx(270, abs=1)
    assert abs(morning.height) < 0.5


def test_clocks_differ_by_four_minutes_a_degree_and_the_equation_of_time():
    """NOAA: offset = equation + 4 · longitude − 60 · zone."""
    clock = sun_stand(105, 14.0, 50.0, zone=1, longitude=7.0)
    solar = sun_stand(105, 14.0 + (clock.equation + 4 * 7.0 - 60) / 60, 50.0)
    assert clock.height == pytest.approx(solar.height, abs=0.05)
    assert clock.bearing == pytest.approx(solar.bearing, abs=0.05)


@pytest.mark.parametrize(("height", "mass"), [(90, 1.0), (30, 1.995), (10, 5.60), (0, 37.92)])
def test_air_masses_of_kasten_and_young(height, mass):
    """Kasten and Young 1989, Applied Optics 28, table (from memory)."""
    assert air_mass(height) == pytest.approx(mass, rel=0.01)


def test_an_overcast_zenith_is_three_times_its_horizon():
    """CIE S 003: Lz (1 + 2 sin γ) / 3."""
    sky = d.overcast_sky(np.array([[0, 0, 1.0], [1.0, 0, 0]]), 9000.0)
    assert sky[0] / sky[1] == pytest.approx(3)


def test_overcast_light_falls_on_level_ground_as_7_pi_9_and_upright_0_396():
    """CIE standard overcast sky: E = 7π/9 Lz; upright to level 0.396 (Moon and Spencer 1942, from memory)."""
    grid, weights = octahedral_grid(256), octahedral_weights(256)
    sky = np.where(grid[..., 2] > 0, d.overcast_sky(grid, 1.0), 0) * weights
    level, upright = (float((sky * np.maximum(grid[..., k], 0)).sum()) for k in (2, 0))
    assert level == pytest.approx(7 * math.pi / 9, rel=0.005)
    assert upright / level == pytest.approx(0.396, abs=0.004)


@pytest.mark.parametrize(("turbidity", "sun", "kilo"), [(2, 0.5, 3.9), (3, 1.0, 3.6), (6, 1.0, 10.3)])
def test_the_clear_zenith_is_preethams(turbidity, sun, kilo):
    """Preetham 1999, A.2: Yz by hand arithmetic."""
    chi = (4 / 9 - turbidity / 120) * (math.pi - 2 * sun)
    wanted = (4.0453 * turbidity - 4.9710) * math.tan(chi) - 0.2155 * turbidity + 2.4192
    assert d.zenith_of(turbidity, sun)[0] == pytest.approx(1000 * wanted)
    assert wanted == pytest.approx(kilo, rel=0.6), "of the right order, kcd/m²"


def test_a_clear_sky_is_brightest_by_the_sun_and_blue_away_from_it():
    sun = toward(180, 40)
    near, away = d.clear_sky(np.array([toward(180, 45), toward(0, 60)], np.float32), sun, 3.0)
    assert near @ LUMA > 3 * (away @ LUMA)
    assert away[2] > 1.3 * away[0]


def test_sunlight_weakens_and_reddens_as_it_sinks():
    high, low = np.array(d.sun_light(60, 3)), np.array(d.sun_light(5, 3))
    assert high @ LUMA == pytest.approx(128e3 * math.exp(-0.21 * air_mass(60)), rel=0.1), "IES: 128 klx · exp(−0.21 m)"
    assert low @ LUMA < 0.3 * (high @ LUMA)
    assert low[0] / low[2] > 2 * high[0] / high[2]
    assert d.sun_light(-5, 3) == (0, 0, 0)


@pytest.mark.parametrize(("kelvin", "x", "y"), [(2856, 0.4476, 0.4074), (6504, 0.3135, 0.3237), (4000, 0.3805, 0.3767)])
def test_white_points_lie_on_the_planckian_locus(kelvin, x, y):
    """CIE 15: illuminant A 0.4476, 0.4074; the locus at 4000 and 6504 K (from memory)."""
    xyz = np.linalg.solve(d._TO_RGB, d.kelvin_white(kelvin))
    assert xyz[0] / xyz.sum() == pytest.approx(x, abs=0.002)
    assert xyz[1] / xyz.sum() == pytest.approx(y, abs=0.002)


# Directions ------------------------------------------------------------------------------------------


@given(st.floats(0, 359.9), st.floats(-89.9, 89.9))
def test_bearings_go_there_and_back(bearing, height):
    found = bearing_of(toward(bearing, height))
    assert found[1] == pytest.approx(height, abs=1e-6)
    assert abs((found[0] - bearing + 180) % 360 - 180) < 1e-5


def test_octahedral_pixels_fill_the_sphere_and_are_found_again():
    grid, weights = octahedral_grid(64), octahedral_weights(64)
    assert weights.sum() == pytest.approx(4 * math.pi, rel=1e-5)
    assert np.abs((grid * weights[..., None]).sum((0, 1))).max() < 1e-3
    line = (np.arange(64) + 0.5) / 64
    place = octahedral(grid)
    assert np.allclose(place[..., 0], line[None, :], atol=1e-4)
    assert np.allclose(place[..., 1], line[:, None], atol=1e-4)


def test_a_dome_is_read_smoothly_over_its_seams():
    grid = octahedral_grid(64)
    dome = np.repeat((grid @ np.array([0.3, -0.5, 0.81]))[..., None], 3, -1)
    ways = np.random.default_rng(1).normal(size=(2000, 3))
    ways /= np.linalg.norm(ways, axis=1, keepdims=True)
    found = sample_octahedral(dome, ways.astype(np.float32))[:, 0]
    assert np.abs(found - ways @ np.array([0.3, -0.5, 0.81])).max() < 0.02


@pytest.mark.parametrize("stance", ["wall", "floor", "ceiling"])
def test_stances_are_turns(stance):
    axes = stance_axes(stance)
    assert np.allclose(axes @ axes.T, np.eye(3))
    assert np.linalg.det(axes) == pytest.approx(1)


@pytest.mark.parametrize("sky", [ClearSky(), ClearSky(clouds=0), OvercastSky(), Room(), PictureSky()])
@pytest.mark.parametrize("height", [-5, 1, 30, 89])
def test_no_sky_is_dark_or_without_end(sky, height):
    light = sky.radiance(octahedral_grid(64), toward(200, height), None)
    assert light.shape == (64, 64, 3)
    assert np.isfinite(light).all()
    assert light.min() >= 0
    assert light.max() > 0


def test_clouds_have_structure_a_plain_sky_lacks():
    """A gloss needs areas many times as bright as their surroundings, with sharp edges."""
    grid, sun = octahedral_grid(256), toward(225, 34)
    steep = [np.abs(np.diff(np.log(sky.radiance(grid, sun, None)[128] @ LUMA))).max() for sky in
             (ClearSky(clouds=0, horizon=0), ClearSky())]  # fmt: skip
    assert steep[1] > 2 * steep[0]
