"""What a brush changed, worked out where it changed: the same as when the whole sheet is worked out."""

import msgspec
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brave_tessel.core.buildup.kinds.painted import PaintedWhat
from brave_tessel.core.buildup.strokes import INTO, copies, lay_strokes, reach_of
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Rule, Stroke, Surface
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.light.lighting import Lighting
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.plan.area import Area, area_of
from brave_tessel.core.plan.planner import Planner
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.areas import AreaRun, NotLocalError
from brave_tessel.engine.cache import Cache
from brave_tessel.engine.evaluate import Evaluation
from brave_tessel.formats.lettering import letters
from tests.core.plan.test_plan_layers import KINDS, base, no_pixels, plain, rule

SIZE = (600.0, 480.0)
GRID = Grid.for_repeat(*SIZE, 500)
LIGHT = Lighting()
FINE = Setting(
    op="seat.by_height", values={"drape": 0.6, "show_through": 0.5, "split": 3.0, "form": 0.8, "contrast": 1.3}
)


def stroke(*points, **more):
    return Stroke(**({"id": "new", "points": points, "size_mm": 24.0, "hardness": 0.4} | more))


def painted_rule(*strokes):
    return Rule(id="p", mode="keep", rule=Setting(op="where.painted"), strokes=strokes)


def planner(surface):
    return Planner(Job(surfaces=(surface,)), no_pixels, load_letters=letters)


def surface(*layers):
    return Surface(id="s", name="s", width_mm=SIZE[0], height_mm=SIZE[1], layers=(base(), *layers))


def box(one):
    """The rectangle of the sheet that a stroke touches, mm."""
    points = np.array([p for path in copies(one, *SIZE) for p in path])
    (left, low), (right, high) = points.min(0) - reach_of(one), points.max(0) + reach_of(one)
    return float(left), float(low), float(right), float(high)


def both_ways(before, after, one, grid=GRID, *, shows=True):
    """The picture put together from the earlier one and the stroke's part, and the whole picture."""
    cache = Cache()
    old = planner(before).lit(before, grid, LIGHT)
    picture = Evaluation(cache).value(old).copy()
    new = planner(after).lit(after, grid, LIGHT)
    run = AreaRun(cache)
    seen = run.plan(new, old)
    area = area_of(grid, *box(one)).grown(seen + 1)
    part = run.value(new, area)
    rows, columns = (
        (area.row + np.arange(area.rows)) % grid.height_px,
        (area.column + np.arange(area.columns)) % grid.width_px,
    )
    if shows:
        assert (picture[rows[:, None], columns] != part).any(), "the stroke shows"
    picture[rows[:, None], columns] = part
    return picture, Evaluation(Cache()).value(new)


def same(pictures):
    one, other = (picture.astype(int) for picture in pictures)
    away = np.abs(one - other)
    # A code may round the other way; a shadow's reach is the earlier relief's.
    assert away.max() <= 2
    assert (away > 1).mean() < 1e-4


# Areas ----------------------------------------------------------------------------------------------


@given(st.integers(-90, 90), st.integers(-90, 90), st.integers(1, 70), st.integers(1, 70))
def test_an_area_is_cut_wherever_it_wraps(row, column, rows, columns):
    grid = Grid(31, 23, 310.0, 230.0)
    pixels = np.arange(23 * 31, dtype=np.float32).reshape(23, 31)
    area = Area(grid, row, column, rows, columns)
    tiled = np.tile(pixels, (12, 12))
    assert (area.cut(pixels) == tiled[92 + row : 92 + row + rows, 93 + column : 93 + column + columns]).all()
    inner = Area(grid, row + 1, column + 1, max(1, rows - 2), max(1, columns - 2))
    if rows > 2 and columns > 2:
        assert (inner.inside(area).cut(area.cut(pixels)) == inner.cut(pixels)).all()
    assert area.own.mm_per_px == pytest.approx(grid.mm_per_px)
    wide = area.aligned(8)
    assert wide.row % 8 == wide.column % 8 == wide.rows % 8 == wide.columns % 8 == 0
    assert wide.row <= row
    assert wide.row + wide.rows >= row + rows
    assert wide.rows < rows + 16


def test_maps_are_cut_with_their_grid_and_other_things_left_alone():
    grid = Grid(20, 10, 200.0, 100.0)
    maps = MapSet(
        grid,
        {MapKind.HEIGHT: np.zeros(grid.shape, np.float32), MapKind.BASE_COLOUR: np.zeros((*grid.shape, 3), np.float32)},
    )
    area = Area(grid, 2, 3, 4, 5)
    part = area.cut(maps)
    assert part.grid == Grid(5, 4, 50.0, 40.0)
    assert part[MapKind.BASE_COLOUR].shape == (4, 5, 3)
    assert area.cut(("word", 3)) == ("word", 3)
    assert area.cut(np.ones((7, 7))).shape == (7, 7), "a tip does not lie on the sheet"
    assert area.corner_mm() == (30.0, 40.0)
    assert area_of(grid, 30.0, 40.0, 80.0, 80.0) == area


BRUSHES = {
    "line": {},
    "hard": {"hardness": 1.0},
    "pressed": {"pressure": (0.3, 1.0, 0.6)},
    "stamps": {"spacing": 0.3, "flow": 0.5},
    "straying": {"spacing": 0.4, "stray": 0.8},
    "mirrored": {"mirror": "both", "centre": (300.0, 240.0)},
    "turned": {"fold": 5, "centre": (300.0, 240.0)},
    "on the lattice": {"lattice": (2, 3)},
    "rubbed": {"erase": True},
    "tip": {"tip": "t", "spacing": 0.5},
    "wider than the sheet": {"size_mm": 700.0},
}


@pytest.mark.parametrize("kind", BRUSHES)
@pytest.mark.parametrize("place", [(200, 180, 120, 150), (-30, -40, 90, 70), (470, 380, 60, 110)])
def test_a_stroke_drawn_on_an_area_is_a_part_of_the_whole_stroke(kind, place):
    one = stroke((560.0, 20.0), (610.0, 60.0), (590.0, 130.0), **BRUSHES[kind])
    tips = {"t": np.random.default_rng(3).random((16, 16)).astype(np.float32)}
    ground = np.random.default_rng(1).random(GRID.shape).astype(np.float32)
    area = Area(GRID, *place)
    whole = lay_strokes(ground, [one], GRID, tips)
    part = lay_strokes(area.cut(ground), [one], area.own, tips, area)
    assert part == pytest.approx(area.cut(whole), abs=2e-5)


# Pictures -------------------------------------------------------------------------------------------

RULES = (
    (),
    ("where.height",),
    ("where.slope",),
    ("where.hollows",),
    ("where.edges", "where.after"),
    ("where.noise", "where.band"),
)


@pytest.mark.parametrize("rules", RULES, ids=lambda names: "+".join(names) or "everywhere")
@pytest.mark.parametrize("at", [(300.0, 240.0), (3.0, 4.0)], ids=["inside", "over the corner"])
def test_a_stroke_in_a_rule_shows_through_what_lies_above(rules, at):
    def made(*strokes):
        low = plain("low", where=(painted_rule(stroke((100.0, 100.0), id="old"), *strokes),), seat=FINE)
        values = {
            "where.after": {"layer": "low", "right": 3.0},
            "where.hollows": {"radius": 3.0},
            "where.edges": {"radius": 2.0},
        }
        where = tuple(rule(op, values=values.get(op, {})) for op in rules)
        shaped = tuple(
            msgspec.structs.replace(entry, shape=Setting(op="rule.shape", values={"soften": 2.0, "spread": 1.0}))
            for entry in where
        )
        return surface(
            low, plain("over", where=shaped, seat=Setting(op="seat.by_height", values={"level": 0.2, "drape": 1.0}))
        )

    one = stroke(at, (at[0] + 20, at[1] - 10))
    same(both_ways(made(), made(one), one))


def test_what_looks_far_around_waits_while_the_hand_moves():
    def made(*strokes):
        low = plain("low", where=(painted_rule(*strokes),), seat=Setting(op="seat.over", values={"level": 1.5}))
        return surface(low, plain("over", where=(rule("where.edges", values={"radius": 18.0, "height": 0.2}),)))

    one = stroke((200.0, 200.0), (300.0, 240.0), size_mm=60.0)
    cache, before, after = Cache(), made(), made(one)
    old, new = (planner(entry).lit(entry, GRID, LIGHT) for entry in (before, after))
    Evaluation(cache).value(old)
    exact, moving = AreaRun(cache), AreaRun(cache, moving=True)
    assert moving.plan(new, old) < exact.plan(new, old) / 2
    area = area_of(GRID, *box(one))
    quick, right, was = (
        part.astype(int) for part in (moving.value(new, area), exact.value(new, area), area.cut(cache.get(old.key)))
    )
    assert (quick != right).any()
    assert (quick != was).any(), "the stroke itself is there"


@pytest.mark.parametrize("into", INTO)
@pytest.mark.parametrize("erase", [False, True])
def test_a_painted_layers_stroke_is_laid_where_it_is(into, erase):
    def made(*strokes):
        return surface(
            Layer(
                id="l", name="l", what=PaintedWhat(strokes=(stroke((310.0, 240.0), id="old", size_mm=40.0), *strokes))
            )
        )

    one = stroke((300.0, 240.0), (330.0, 250.0), into=into, erase=erase, amount=0.4)
    if into == "flatten" and erase:
        # It and the strokes before it are carried out in one; each looks at where it began.
        with pytest.raises(NotLocalError):
            both_ways(made(), made(one), one)
        return
    same(both_ways(made(), made(one), one))


def test_a_first_stroke_flattens_to_where_it_began_far_from_where_it_is_now():
    def made(*strokes):
        return surface(Layer(id="l", name="l", what=PaintedWhat(strokes=strokes)))

    path = tuple((60.0 + 6.0 * k, 60.0 + 4.0 * k) for k in range(40))
    before, after = (stroke(*path[:-1], into="flatten"), stroke(*path, into="flatten"))
    same(both_ways(made(before), made(after), stroke(*path[-2:])))


def test_water_bundles_and_other_kinds_above_a_stroke():
    above = [
        Layer(id=f"k{n}", name=f"k{n}", what=KINDS[kind]) for n, kind in enumerate(("water", "run", "inscription"))
    ]

    def made(*strokes):
        return surface(plain("low", where=(painted_rule(*strokes),)), *above)

    one = stroke((300.0, 240.0))
    same(both_ways(made(), made(one), one))


def test_what_cannot_be_told_apart_is_refused():
    def made(*strokes):
        return surface(Layer(id="l", name="l", what=PaintedWhat(strokes=strokes)))

    wide = stroke((300.0, 240.0), size_mm=900.0)
    with pytest.raises(NotLocalError):
        both_ways(made(), made(wide), wide)


@settings(max_examples=12)
@given(
    st.tuples(st.floats(-700, 700), st.floats(-700, 700)),
    st.tuples(st.floats(-40, 40), st.floats(-40, 40)),
    st.floats(2, 60),
    st.floats(0, 1),
)
def test_any_stroke_is_the_same_in_its_part_as_in_the_whole(start, run, size, hardness):
    def made(*strokes):
        return surface(plain("low", where=(painted_rule(*strokes),)), plain("over", where=(rule("where.slope"),)))

    one = stroke(start, (start[0] + run[0], start[1] + run[1]), size_mm=size, hardness=hardness)
    same(both_ways(made(), made(one), one, shows=False))
