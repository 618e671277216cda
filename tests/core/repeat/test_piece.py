"""A piece set elsewhere: on every map, turned, mirrored, over the edge, with its edge cut where it shows least."""

import math

import numpy as np
import pytest

from brave_tessel.core.job.document import Touch
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.repeat.piece import outline_of
from brave_tessel.core.repeat.touch_up import touch_in_place, touched
from brave_tessel.core.sheet import Grid

GRID = Grid(200, 160, 400.0, 320.0)


def places():
    y, x = np.mgrid[0:160, 0:200]
    return (x + 0.5) * 2, 320 - (y + 0.5) * 2


def stone(at=(100.0, 100.0), half=(40.0, 20.0)):
    """A dark ellipse on pale ground with grain: its colour falls from left to right, its normals lean with it."""
    x, y = places()
    u, v = (x - at[0]) / half[0], (y - at[1]) / half[1]
    inside = (u * u + v * v < 1)[..., None]
    rng = np.random.default_rng(2)
    colour = np.where(inside, (0.2 - 0.1 * u)[..., None] * np.ones(3), 0.6).astype(np.float32)
    colour *= np.exp(0.02 * rng.normal(size=colour.shape)).astype(np.float32)
    height = np.where(inside[..., 0], 5.0, 0.0).astype(np.float32)
    normal = np.zeros((*x.shape, 3), np.float32)
    normal[..., 2] = 1
    normal[inside[..., 0]] = (0.6, 0.0, 0.8)
    return MapSet(GRID, {MapKind.BASE_COLOUR: colour, MapKind.HEIGHT: height, MapKind.NORMAL: normal})


def ring(middle, half, count=60):
    turns = np.arange(count) / count * 2 * math.pi
    return tuple((middle[0] + half[0] * math.cos(t), middle[1] + half[1] * math.sin(t)) for t in turns)


def set_at(maps, target, *, grown=1.15, **values):
    """The stone, drawn round a little too wide, set with its middle at a place."""
    values = {"edge": 12.0, **values}
    points = ring(target, (40 * grown, 20 * grown))
    touch = Touch(
        id="t",
        brush=Setting(op="touch.piece", values=values),
        points=points,
        offset=(100.0 - target[0], 100.0 - target[1]),
    )
    return touched(maps, (touch,), {})


def level(maps, x, y):
    return float(maps[MapKind.HEIGHT][int((320 - y) / 2) % 160, int(x / 2) % 200])


def test_it_lies_there_on_every_map_and_stays_where_it_was():
    maps = stone()
    made = set_at(maps, (280.0, 200.0))
    assert level(made, 280, 200) == 5
    assert level(made, 100, 100) == 5
    rows = slice(int((320 - 210) / 2), int((320 - 190) / 2))
    assert np.allclose(made[MapKind.NORMAL][rows, 130:150], (0.6, 0, 0.8), atol=1e-5)
    assert float(made[MapKind.BASE_COLOUR][60, 140].mean()) < 0.3
    changed = (made[MapKind.HEIGHT] != maps[MapKind.HEIGHT]).sum()
    assert changed == pytest.approx(math.pi * 20 * 10, rel=0.05)


@pytest.mark.parametrize("turn", [90.0, -90.0, 30.0])
def test_turned_its_outline_and_its_normals_turn(turn):
    made = set_at(stone(), (280.0, 160.0), turn=turn)
    t = math.radians(turn)
    for along, expected in ((32, 5), (50, 0)):
        assert level(made, 280 + along * math.cos(t), 160 + along * math.sin(t)) == pytest.approx(expected, abs=0.3)
    assert level(made, 280 - 30 * math.sin(t), 160 + 30 * math.cos(t)) == pytest.approx(0, abs=0.3)
    normal = made[MapKind.NORMAL][80, 140]
    assert np.allclose(normal, (0.6 * math.cos(t), 0.6 * math.sin(t), 0.8), atol=0.02)


def test_mirrored_left_is_right():
    maps = stone()
    left, right = (float(maps[MapKind.BASE_COLOUR][110, column].mean()) for column in (36, 64))
    made = set_at(maps, (280.0, 200.0), mirrored=True)
    now = [float(made[MapKind.BASE_COLOUR][60, column].mean()) for column in (126, 154)]
    assert left > right
    assert now[0] < now[1]
    assert np.allclose(made[MapKind.NORMAL][60, 140], (-0.6, 0, 0.8), atol=0.02)


def test_over_the_edge_it_goes_on_at_the_other_side():
    made = set_at(stone(), (395.0, 315.0))
    assert level(made, 395, 315) == 5
    assert level(made, 15, 315) == 5
    assert level(made, 395, 5) == 5


def test_drawn_too_wide_its_edge_finds_the_stones_own():
    """On other ground than it came from, what is drawn along is not taken along."""
    maps = stone()
    x, _ = places()
    colour = np.where((x > 200)[..., None], maps[MapKind.BASE_COLOUR] * 0.8, maps[MapKind.BASE_COLOUR])
    maps = MapSet(GRID, {**maps.maps, MapKind.BASE_COLOUR: colour.astype(np.float32)})
    loose, cut = (set_at(maps, (300.0, 200.0), edge=edge, grown=1.25)[MapKind.BASE_COLOUR] for edge in (0.0, 24.0))
    moved = [int((np.abs(one - colour).max(2) > 0.09).sum()) for one in (loose, cut)]
    own = math.pi * 20 * 10
    assert abs(moved[1] - own) < 0.4 * abs(moved[0] - own)


def test_the_same_call_gives_the_same_bytes_and_only_chosen_maps_change():
    maps = stone()
    touch = Touch(
        id="t",
        brush=Setting(op="touch.piece", values={"turn": 20.0}),
        points=ring((250.0, 150.0), (44, 24)),
        offset=(-150.0, -50.0),
        maps=frozenset({MapKind.HEIGHT}),
    )
    first, second = (touched(maps, (touch,), {}) for _ in range(2))
    assert all(np.array_equal(first[kind], second[kind]) for kind in maps.maps)
    assert np.array_equal(first[MapKind.BASE_COLOUR], maps[MapKind.BASE_COLOUR])
    assert not np.array_equal(first[MapKind.HEIGHT], maps[MapKind.HEIGHT])


@pytest.mark.parametrize("points", [((10.0, 10.0),), ((10.0, 10.0), (30.0, 10.0)), ((5.0, 5.0),) * 4])
def test_what_is_hardly_drawn_does_no_harm(points):
    maps = {kind: pixels.copy() for kind, pixels in stone().maps.items()}
    touch_in_place(maps, GRID, Touch(id="t", brush=Setting(op="touch.piece"), points=points, offset=(50.0, 0.0)))
    assert all(np.isfinite(pixels).all() for pixels in maps.values())


def test_an_outline_is_known_from_its_middle():
    outline = outline_of(ring((50.0, 60.0), (30, 10), 200))
    assert (outline.x, outline.y) == (pytest.approx(50, abs=0.3), pytest.approx(60, abs=0.3))
    reach = outline.at(np.array([0.0, math.pi / 2, math.pi]))
    assert reach == pytest.approx([30, 10, 30], rel=0.03)
