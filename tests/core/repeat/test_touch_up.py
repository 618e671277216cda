"""Touch-up brushes: wrapped, on all maps, the same at every size."""

import numpy as np
import pytest

from brave_tessel.core.job.document import Touch
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.kernels.membrane import membrane
from brave_tessel.core.kernels.relief import normal_of_height
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.operation import family
from brave_tessel.core.recipe.steps.noise import clouds
from brave_tessel.core.repeat.resample import resample_wrapped
from brave_tessel.core.repeat.touch_up import shifted, touched
from brave_tessel.core.sheet import Grid

GRID = Grid(240, 180, 400, 300)
TOOLS = [op.id for op in family("touch")]


def sheet(grid=GRID):
    height = clouds(grid, size=70, octaves=4, seed=3) * 6
    colour = np.stack([0.1 + 0.6 * clouds(grid, size=50, octaves=4, seed=s) for s in (1, 2, 3)], 2)
    return MapSet(
        grid,
        {
            MapKind.BASE_COLOUR: colour.astype(np.float32),
            MapKind.HEIGHT: height.astype(np.float32),
            MapKind.NORMAL: normal_of_height(height.astype(np.float32), grid),
            MapKind.ROUGHNESS: np.full(grid.shape, 0.5, np.float32),
        },
    )


def stroke(tool, points, *, offset=(120.0, 60.0), maps=(), tip="", **values):
    return Touch(
        id="t",
        brush=Setting(op=tool, values={"size": 60.0, **values}),
        points=points,
        offset=offset,
        maps=frozenset(maps),
        tip=tip,
    )


@pytest.mark.parametrize("tool", TOOLS)
def test_a_stroke_over_the_corner_is_the_middle_one_rolled(tool):
    maps = sheet()
    middle = touched(maps, [stroke(tool, ((200.0, 150.0), (230.0, 165.0)))], {})
    rolled = MapSet(GRID, {k: np.roll(p, (90, -120), (0, 1)) for k, p in maps.maps.items()})
    corner = touched(rolled, [stroke(tool, ((0.0, 0.0), (30.0, 15.0)))], {})
    for kind in maps:
        back = np.roll(corner[kind], (-90, 120), (0, 1))
        assert np.allclose(back, middle[kind], atol=1e-4), kind


@pytest.mark.parametrize("tool", TOOLS)
def test_only_what_the_stroke_covers_changes_and_normals_stay_unit(tool):
    maps = sheet()
    before = {k: p.copy() for k, p in maps.maps.items()}
    done = touched(
        maps,
        [stroke(tool, ((200.0, 150.0),), colour="#FF0000")]
        if tool == "touch.paint"
        else [stroke(tool, ((180.0, 150.0), (220.0, 150.0)))],
        {},
    )
    x, y = GRID.x_mm()[None, :], GRID.y_mm()[:, None]
    far = np.hypot(np.maximum(np.abs(x - 200) - 20, 0), y - 150) > 36
    for kind in maps:
        assert (maps[kind] == before[kind]).all()
        assert (done[kind][far] == maps[kind][far]).all()
    assert any((done[k] != maps[k]).any() for k in (MapKind.BASE_COLOUR, MapKind.HEIGHT))
    assert np.allclose(np.linalg.norm(done[MapKind.NORMAL], axis=2), 1, atol=1e-5)


def test_clone_lays_down_what_lies_there_on_every_map():
    maps = sheet()
    done = touched(maps, [stroke("touch.clone", ((200.0, 150.0),), hardness=1.0)], {})
    for kind in maps:
        # 120 mm to the right is 72 px, 60 mm up is 36 px.
        there = np.roll(maps[kind], (36, -72), (0, 1))
        assert np.allclose(done[kind][88:92, 118:122], there[88:92, 118:122], atol=1e-5)


def test_heal_keeps_the_tone_here_and_takes_the_detail_there():
    maps = sheet()
    brighter = maps[MapKind.BASE_COLOUR] * np.linspace(0.4, 1.4, 240, dtype=np.float32)[None, :, None]
    maps = maps.with_maps(base_colour=brighter)
    points = ((200.0, 150.0),)
    cloned, healed = (
        touched(maps, [stroke(tool, points, offset=(150.0, 0.0), hardness=1.0)], {})[MapKind.BASE_COLOUR]
        for tool in ("touch.clone", "touch.heal")
    )
    x, y = GRID.x_mm()[None, :], GRID.y_mm()[:, None]
    rim = np.abs(np.hypot(x - 200, y - 150) - 29.5) < 2
    step = [np.abs(done - maps[MapKind.BASE_COLOUR])[rim].mean() for done in (cloned, healed)]
    assert step[1] < 0.25 * step[0]


def test_a_membrane_over_a_linear_rim_is_linear():
    """Harmonic: a plane is its own membrane."""
    y, x = np.mgrid[0:64, 0:80].astype(np.float32)
    plane = (0.3 * x - 0.2 * y + 1)[..., None]
    hole = np.hypot(x - 40, y - 32) < 22
    spoiled = plane.copy()
    spoiled[hole] = 99
    assert np.abs(membrane(spoiled, hole) - plane).max() < 0.15
    whole = membrane(np.ones((20, 20, 1), np.float32), np.zeros((20, 20), bool))
    assert (whole == 1).all()


@pytest.mark.parametrize("tool", ["touch.clone", "touch.paint", "touch.heal", "touch.sharpen"])
def test_strokes_are_the_same_at_every_size(tool):
    coarse, fine = Grid(400, 300, 400, 300), Grid(1600, 1200, 400, 300)
    one = stroke(tool, ((390.0, 150.0), (430.0, 170.0)), hardness=0.4, radius=8.0)
    small = touched(sheet(coarse), [one], {})
    large = touched(sheet(fine), [one], {})
    for kind in (MapKind.BASE_COLOUR, MapKind.HEIGHT):
        down = resample_wrapped(large[kind], coarse.shape)
        error = np.sqrt(np.mean((down - small[kind]) ** 2)) / small[kind].std()
        assert error < 0.02, kind


def test_chosen_maps_only_and_a_tip():
    maps = sheet()
    done = touched(
        maps, [stroke("touch.paint", ((200.0, 150.0),), maps=[MapKind.ROUGHNESS], value=0.1, hardness=1.0)], {}
    )
    assert (done[MapKind.BASE_COLOUR] == maps[MapKind.BASE_COLOUR]).all()
    assert done[MapKind.ROUGHNESS].min() == pytest.approx(0.1, abs=1e-5)
    tip = np.zeros((16, 16), np.float32)
    tip[4:12, 4:12] = 1
    stamped = touched(
        maps,
        [
            stroke(
                "touch.paint",
                ((200.0, 150.0), (320.0, 150.0)),
                maps=[MapKind.ROUGHNESS],
                value=0.1,
                tip="leaf",
                spacing=60.0,
            )
        ],
        {"leaf": tip},
    )
    dabs = stamped[MapKind.ROUGHNESS][90] < 0.3
    assert np.diff(np.flatnonzero(dabs)).max() > 10
    assert 40 < dabs.sum() < 70


def test_smudge_carries_along():
    maps = sheet()
    colour = np.full((180, 240, 3), 0.2, np.float32)
    colour[:, :100] = 0.9
    maps = maps.with_maps(base_colour=colour)
    done = touched(maps, [stroke("touch.smudge", ((140.0, 150.0), (220.0, 150.0)), strength=0.9)], {})
    assert done[MapKind.BASE_COLOUR][90, 108].mean() > 0.4
    assert done[MapKind.BASE_COLOUR][90, 160].mean() == pytest.approx(0.2, abs=0.02)


def test_shift_moves_all_maps_and_back():
    maps = sheet()
    there = shifted(maps, (100.0, -50.0))
    assert (there[MapKind.HEIGHT] == np.roll(maps[MapKind.HEIGHT], (30, 60), (0, 1))).all()
    back = shifted(there, (-100.0, 50.0))
    for kind in maps:
        assert (back[kind] == maps[kind]).all()
    assert shifted(maps, (0.0, 0.0)) is maps


def test_a_brush_wider_than_the_sheet_covers_it_once():
    maps = sheet()
    done = touched(
        maps,
        [stroke("touch.paint", ((50.0, 50.0),), size=900.0, hardness=1.0, maps=[MapKind.ROUGHNESS], value=0.2)],
        {},
    )
    assert np.allclose(done[MapKind.ROUGHNESS], 0.2, atol=1e-5)
