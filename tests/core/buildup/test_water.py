"""Standing water: where it stands, what it does to the ground, and how both are seen."""

from dataclasses import replace

import numpy as np
import pytest

from brave_tessel.core.buildup.water import Standing, baked, stand, wetted
from brave_tessel.core.job.layers import MapMix
from brave_tessel.core.kernels.relief import normal_of_height
from brave_tessel.core.maps import WET, MapKind, MapSet
from brave_tessel.core.plan.joins import bundled, finish
from tests.core.laid import GRID, flat, on, waves

WATER = Standing()
ONE = np.ones(GRID.shape, np.float32)


@pytest.mark.parametrize(
    ("dry", "wet"), [(0.10, 0.0540), (0.20, 0.1137), (0.30, 0.1800), (0.40, 0.2541), (0.60, 0.4318), (0.80, 0.6638)]
)
def test_wetting_darkens_as_published(dry, wet):
    """Check-values A8 (Ångström 1925; Lekner and Dorf 1988), body only; the ground in a stack as the plain formula."""
    assert float(wetted(np.full((1, 3), dry, np.float32))[0, 0]) == pytest.approx(wet, abs=2e-4)
    soaked = finish(stand(on(flat(0.0, dry)), replace(WATER, level=5.0, clear=1e5)))
    assert soaked[MapKind.BASE_COLOUR] == pytest.approx(wet, abs=3e-4)


def test_water_stands_level_and_only_in_hollows():
    below = on(flat(height=waves(rise=8), shade=0.4))
    done = stand(below, replace(WATER, level=4.0, damp=0.0))
    seen = finish(done)
    deep, dry = below.height < 3.5, below.height > 4.5
    assert done.height[deep] == pytest.approx(4.0, abs=1e-5)
    assert done.height[dry] == pytest.approx(below.height[dry])
    assert done.water.depth[deep] == pytest.approx(4 - below.height[deep], abs=1e-4)
    assert seen[MapKind.BASE_COLOUR][dry] == pytest.approx(below.planes[0][dry], abs=1e-6)
    assert seen[MapKind.COAT][deep] == pytest.approx(1)
    assert seen[MapKind.COAT_ROUGHNESS][deep] == pytest.approx(0.03)
    inside = deep & np.all([np.roll(deep, by, axis) for by in (1, -1) for axis in (0, 1)], 0)
    assert seen[MapKind.COAT_NORMAL][inside][:, 2] == pytest.approx(1, abs=1e-3)
    assert seen[MapKind.COAT][dry].max() == 0


def test_the_ground_stays_dry_in_the_stack_and_keeps_its_own_relief_beneath():
    below = on(flat(height=waves(rise=8), shade=0.4))
    done = stand(below, replace(WATER, level=6.0))
    for k in (0, 2, 3):
        assert done.planes[k] is below.planes[k]
    seen = finish(done)
    assert seen[MapKind.NORMAL] == pytest.approx(normal_of_height(below.height, GRID), abs=1e-4)


def test_deeper_water_hides_more_and_metal_does_not_drink():
    below = on(flat(height=waves(rise=8), shade=0.5))
    done = stand(below, replace(WATER, level=6.0, clear=4.0))
    paint, depth = finish(done)[MapKind.BASE_COLOUR][..., 0], done.water.depth
    order = np.argsort(depth[depth > 0.5])
    assert np.corrcoef(depth[depth > 0.5][order], paint[depth > 0.5][order])[0, 1] < -0.9
    metal = on(flat(3.0, 0.5, metalness=ONE))
    damp = finish(stand(metal, replace(WATER, level=2.0, damp=5.0)))
    assert damp[MapKind.BASE_COLOUR] == pytest.approx(metal.planes[0], abs=1e-6)


def test_the_wet_rim_fades_with_height():
    ramp = np.linspace(0, 10, GRID.width_px, dtype=np.float32)[None].repeat(GRID.height_px, 0)
    below = on(flat(height=ramp, shade=0.4))
    line = finish(stand(below, replace(WATER, level=2.0, damp=4.0, porosity=1.0)))[MapKind.BASE_COLOUR][10, :, 0]
    rim = (ramp[10] > 2.5) & (ramp[10] < 6)
    assert (np.diff(line[rim]) > 0).all()
    assert line[ramp[10] > 6.5] == pytest.approx(0.4, abs=1e-5)


def test_layers_above_cover_the_water_and_what_only_roughens_does_not():
    below = stand(on(flat(0.0)), replace(WATER, level=2.0))
    cover = np.zeros(GRID.shape, np.float32)
    cover[:, :32] = 1
    done = on(flat(1.0, 0.8), below, cover, contest=False)
    assert done.water.depth[:, :32].max() == 0
    assert done.water.depth[:, 32:].min() == pytest.approx(2.0)
    assert finish(done)[MapKind.COAT][:, :32].max() == 0
    assert replace(done, water=None).nbytes < done.nbytes
    grime = MapSet(GRID, {MapKind.ROUGHNESS: 0.9 * ONE})
    kept = on(grime, below, cover, mixes={MapKind.ROUGHNESS: MapMix()}, contest=False)
    assert kept.water is below.water


def test_water_on_water_wets_the_ground_once():
    ground = on(flat(0.0, 0.4))
    once = stand(ground, replace(WATER, level=5.0, clear=1e5))
    twice = stand(once, replace(WATER, level=9.0, clear=1e5))
    assert finish(twice)[MapKind.BASE_COLOUR] == pytest.approx(finish(once)[MapKind.BASE_COLOUR], abs=1e-4)
    other = stand(once, replace(WATER, level=400.0, clear=4.0, colour="#FFFFFF"))
    assert finish(other)[MapKind.BASE_COLOUR] == pytest.approx(1, abs=1e-3)


def test_a_bundle_with_water_is_a_finished_layer():
    stack = stand(on(flat(0.0, 0.4)), replace(WATER, level=1.0))
    maps = bundled(stack, grid=GRID)
    assert not set(WET) & set(maps.maps)
    assert maps[MapKind.COAT].min() == pytest.approx(1)
    assert maps[MapKind.BASE_COLOUR] == pytest.approx(finish(stack)[MapKind.BASE_COLOUR])


def test_baked_for_plain_files_it_is_smooth_and_level():
    below = on(flat(height=waves(rise=8), shade=0.4))
    maps = finish(stand(below, replace(WATER, level=6.0)))
    plain = baked(maps)
    deep = maps[MapKind.WATER] == 1
    assert plain[MapKind.ROUGHNESS][deep] == pytest.approx(0.03)
    assert plain[MapKind.NORMAL][deep] == pytest.approx(maps[MapKind.COAT_NORMAL][deep])
    assert MapKind.COAT not in plain
    assert baked(finish(below)).maps.keys() == finish(below).maps.keys()


def test_varnish_beside_the_water_stays_when_it_is_baked():
    varnish = flat(height=waves(rise=8), shade=0.4)
    varnish = MapSet(GRID, {**varnish.maps, MapKind.COAT: 0.8 * ONE, MapKind.COAT_ROUGHNESS: 0.2 * ONE})
    maps = finish(stand(on(varnish), replace(WATER, level=4.0)))
    dry = maps[MapKind.WATER] == 0
    assert baked(maps)[MapKind.COAT][dry] == pytest.approx(0.8)
