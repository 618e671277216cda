"""What is put at a place of the sheet: strokes, decals, runs; they wrap, turn and repeat in whole steps."""

import numpy as np
import pytest

from brave_tessel.core.buildup.decal import set_decal, strewn
from brave_tessel.core.buildup.kind import kind_of
from brave_tessel.core.buildup.kinds.run import RunWhat
from brave_tessel.core.buildup.painted import paint_on
from brave_tessel.core.buildup.run import lay_run, neutral_level, path_of, whole_steps
from brave_tessel.core.buildup.strokes import copies, lay_strokes
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Placement, Stroke, Surface
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.kernels.relief import normal_of_height
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.sheet import Grid
from tests.core.laid import GRID, PLAIN, flat, on, waves

# Strokes and painted layers -------------------------------------------------------------------------


def stroke(*points, **more):
    return Stroke(id=more.pop("id", "s"), points=points, size_mm=more.pop("size", 40.0), **more)


def test_symmetric_copies():
    assert len(list(copies(stroke((10, 20)), 320, 240))) == 1
    mirrored = list(copies(stroke((10, 20), mirror="across", centre=(160, 120)), 320, 240))
    assert mirrored[1][0] == pytest.approx((310, 20))
    folded = list(copies(stroke((170, 120), fold=4, centre=(160, 120)), 320, 240))
    assert {(round(p[0][0]), round(p[0][1])) for p in folded} == {(170, 120), (160, 130), (150, 120), (160, 110)}
    lattice = list(copies(stroke((0, 0), lattice=(4, 2)), 320, 240))
    assert {p[0] for p in lattice} == {(x, y) for x in (0.0, 80.0, 160.0, 240.0) for y in (0.0, 120.0)}


def test_a_stroke_over_the_corner_is_one_in_the_middle_moved():
    none = np.zeros(GRID.shape, np.float32)
    for more in ({}, {"spacing": 0.2, "flow": 0.5}, {"pressure": (0.2, 1.0)}, {"tip": "t"}):
        tips = {"t": np.tri(16, dtype=np.float32)}
        middle = lay_strokes(none, [stroke((160.0, 120.0), (190.0, 140.0), **more)], GRID, tips)
        corner = lay_strokes(none, [stroke((0.0, 0.0), (30.0, 20.0), **more)], GRID, tips)
        assert np.roll(middle, (24, -32), (0, 1)) == pytest.approx(corner, abs=1e-5), more
        assert middle.max() > 0.2


def test_a_long_stroke_wraps_round_the_sheet_and_meets_itself_once():
    made = lay_strokes(np.zeros(GRID.shape, np.float32), [stroke((0.0, 120.0), (640.0, 120.0), strength=0.5)], GRID)
    assert made.max() == pytest.approx(0.5, abs=1e-5)
    assert made[24].min() == pytest.approx(0.5, abs=1e-5)


def test_flow_builds_up_and_pressure_narrows():
    none = np.zeros(GRID.shape, np.float32)
    once = lay_strokes(none, [stroke((160, 120), (161, 120), spacing=0.5, flow=0.3)], GRID)
    long = lay_strokes(none, [stroke((100, 120), (220, 120), spacing=0.1, flow=0.3)], GRID)
    assert once.max() < long.max() <= 1
    thin = lay_strokes(none, [stroke((100, 120), (220, 120), pressure=(0.3,), hardness=1.0)], GRID)
    full = lay_strokes(none, [stroke((100, 120), (220, 120), hardness=1.0)], GRID)
    assert thin.sum() < 0.5 * full.sum()


@pytest.mark.parametrize(("into", "amount", "wanted"), [("raise", 2.0, 3.0), ("lower", 0.5, 0.5)])
def test_painting_moves_the_relief_by_mm(into, amount, wanted):
    below = on(flat(1.0, 0.3))
    done = paint_on(below, [stroke((160, 120), hardness=1.0, into=into, amount=amount)], None, PLAIN)
    assert done.height[24, 32] == pytest.approx(wanted, abs=1e-5)
    assert done.height[0, 0] == 1.0
    assert done.top[24, 32] == 2
    assert below.height[24, 32] == 1.0


def test_flatten_smooth_colour_roughness_and_erase():
    below = on(flat(height=waves(), shade=0.3))
    start = (160.0, 120.0)
    row, column = GRID.row_column(*start)
    levelled = paint_on(below, [stroke(start, (200.0, 120.0), hardness=1.0, into="flatten")], None, PLAIN)
    assert levelled.height[row, column + 5] == pytest.approx(below.height[row, column], abs=1e-5)
    smoothed = paint_on(below, [stroke(start, size=120.0, hardness=1.0, into="smooth")], None, PLAIN)
    assert (
        np.abs(np.diff(smoothed.height[row, column - 5 : column + 5])).mean()
        < np.abs(np.diff(below.height[row, column - 5 : column + 5])).mean()
    )
    painted = paint_on(below, [stroke(start, hardness=1.0, into="colour", colour="#FFFFFF")], None, PLAIN)
    assert painted.planes[0][row, column] == pytest.approx(1.0, abs=1e-4)
    rough = paint_on(below, [stroke(start, hardness=1.0, into="roughness", amount=0.9)], None, PLAIN)
    assert rough.planes[2][row, column] == pytest.approx(0.9, abs=1e-4)
    gone = paint_on(
        below,
        [stroke(start, hardness=1.0, into="raise"), stroke(start, hardness=1.0, size=60.0, erase=True)],
        None,
        PLAIN,
    )
    assert gone.height == pytest.approx(below.height, abs=1e-5)


# Decals, runs ---------------------------------------------------------------------------------------


def decal(grid=None, shade=0.9):
    grid = grid or Grid(32, 16, 80.0, 40.0)
    ramp = np.linspace(0, 1, grid.width_px, dtype=np.float32)[None].repeat(grid.height_px, 0)
    return MapSet(
        grid,
        {
            MapKind.BASE_COLOUR: np.repeat(ramp[..., None], 3, 2) * shade,
            MapKind.HEIGHT: ramp,
            MapKind.NORMAL: normal_of_height(ramp, grid),
        },
    )


def test_a_decal_wraps_and_turns():
    place = Placement(x_mm=160, y_mm=120, width_mm=80, height_mm=40)
    middle = set_decal(GRID, decal(), [place], edge=0)
    corner = set_decal(GRID, decal(), [Placement(x_mm=0, y_mm=0, width_mm=80, height_mm=40)], edge=0)
    for kind in middle:
        assert np.roll(middle[kind], (24, -32), (0, 1)) == pytest.approx(corner[kind], abs=1e-5)
    assert middle[MapKind.OPACITY].mean() * 320 * 240 == pytest.approx(80 * 40, rel=0.02)
    turned = set_decal(GRID, decal(), [Placement(x_mm=160, y_mm=120, width_mm=80, height_mm=40, turn=90)], edge=0)
    column = turned[MapKind.HEIGHT][18:30, 32]
    assert (np.diff(column) < 0).all(), "what ran to the right runs up"
    assert turned[MapKind.NORMAL][24, 32, 1] == pytest.approx(middle[MapKind.NORMAL][24, 32, 0], abs=1e-3)


def test_skew_and_size_keep_the_area():
    place = Placement(x_mm=160, y_mm=120, width_mm=80, height_mm=60, skew=25)
    assert set_decal(GRID, decal(), [place], edge=0)[MapKind.OPACITY].mean() * 320 * 240 == pytest.approx(
        80 * 60, rel=0.03
    )


def test_copies_are_evenly_strewn_and_repeatable():
    first = Placement(x_mm=10, y_mm=10, width_mm=30, height_mm=20)
    placed = strewn(first, GRID, copies=12, turn_spread=40, size_spread=0.5, seed=3)
    assert placed[-1] == first
    assert placed == strewn(first, GRID, copies=12, turn_spread=40, size_spread=0.5, seed=3)
    assert all(abs(p.turn) <= 40 for p in placed)
    points = np.array([(p.x_mm, p.y_mm) for p in placed])
    away = np.abs(points[:, None] - points[None])
    away = np.minimum(away, np.array([320, 240]) - away)
    near = np.hypot(away[..., 0], away[..., 1]) + 1e9 * np.eye(12)
    assert near.min() > 20


def test_cling_follows_the_relief():
    ground = waves(rise=20)
    place = Placement(x_mm=160, y_mm=120, width_mm=160, height_mm=120)
    plain, drawn = (set_decal(GRID, decal(), [place], edge=0, ground=ground, cling=c) for c in (0.0, 1.0))
    assert np.abs(plain[MapKind.BASE_COLOUR] - drawn[MapKind.BASE_COLOUR]).max() > 0.02


def test_runs_fill_with_whole_steps():
    assert whole_steps(100.0, 12.0) == (8, 12.5)
    run = RunWhat(
        points=((20.0, 120.0), (300.0, 120.0)),
        stamp=Setting(op="stamp.dentils", values={"step": 60.0, "width": 40.0, "chamfer": 0.0}),
    )
    assert path_of(run, GRID).length == pytest.approx(280)
    made = lay_run(Grid(640, 480, 320.0, 240.0), run)
    row = made[MapKind.HEIGHT][240] * (made[MapKind.OPACITY][240] > 0.5)
    edges_ = np.diff((row > 6).astype(int))
    assert (edges_ == 1).sum() == 5
    starts = np.nonzero(edges_ == 1)[0] * 0.5
    assert np.diff(starts) == pytest.approx(56.0, abs=0.6)


def test_a_run_closes_over_the_edge_without_a_step():
    run = RunWhat(
        points=((0.0, 120.0), (160.0, 140.0), (320.0, 120.0)), stamp=Setting(op="stamp.rope", values={"step": 20.0})
    )
    path = path_of(run, GRID)
    assert path.closed
    fine = Grid(640, 480, 320.0, 240.0)
    made = lay_run(fine, run)[MapKind.HEIGHT]
    inside = np.abs(np.diff(made, axis=1)).max(0)
    assert np.abs(made[:, 0] - made[:, -1]).max() <= inside.max() * 1.05
    loop = RunWhat(points=((100.0, 60.0), (220.0, 60.0), (220.0, 180.0), (100.0, 180.0)), closed=True)
    assert path_of(loop, GRID).closed
    assert path_of(replace_points(loop, loop.points[:1]), GRID) is None


def replace_points(run, points):
    import msgspec

    return msgspec.structs.replace(run, points=points)


def test_every_stamp_gives_finite_relief_within_its_width():
    for op in (name for name in ("stamp.stitch", "stamp.beading", "stamp.rope", "stamp.dentils", "stamp.edging")):
        run = RunWhat(
            points=((60.0, 60.0), (160.0, 180.0), (260.0, 60.0)),
            stamp=Setting(op=op, values={"width": 24.0, "step": 30.0, "height": 5.0}),
        )
        made = lay_run(GRID, run)
        assert np.isfinite(made[MapKind.HEIGHT]).all()
        assert 0.01 < made[MapKind.OPACITY].mean() < 0.35, op
        assert np.abs(made[MapKind.HEIGHT]).max() <= 5.5, op


def test_a_stamps_neutral_level_is_its_rim():
    height = np.full((48, 96), 2.5, np.float32)
    height[12:36] += 3
    assert neutral_level(height) == pytest.approx(2.5)
    stamp = MapSet(
        Grid(96, 48, 60, 40), {MapKind.HEIGHT: height, MapKind.BASE_COLOUR: np.full((48, 96, 3), 0.4, np.float32)}
    )
    run = RunWhat(
        points=((0.0, 120.0), (320.0, 120.0)), stamp=Setting(op="stamp.source", values={"width": 60.0, "step": 80.0})
    )
    made = lay_run(Grid(320, 240, 320.0, 240.0), run, stamp)
    assert made[MapKind.HEIGHT][120].max() == pytest.approx(3.0, abs=0.05)
    rim = (made[MapKind.OPACITY] > 0.01) & (made[MapKind.OPACITY] < 0.2)
    assert np.abs(made[MapKind.HEIGHT][rim]).max() < 0.3


@pytest.mark.parametrize(
    ("points", "over", "length"),
    [
        (((50.0, 20.0), (60.0, 150.0)), "up", None),
        (((100.0, 250.0), (100.0, 50.0)), "up", 300.0),
        (((20.0, 100.0), (200.0, 100.0)), "across", 400.0),
        (((20.0, 100.0), (200.0, 100.0), (420.0, 100.0)), "across", 400.0),
        (((20.0, 100.0), (120.0, 100.0), (120.0, 200.0), (20.0, 200.0)), "as a ring", 400.0),
        (((20.0, 100.0), (420.0, 100.0)), "not at all", 400.0),
    ],
)
def test_a_run_closes_the_way_that_is_asked(points, over, length):
    """On a sheet of 400 × 300 mm; what lies at the far edge goes on at the near one."""
    grid = Grid(200, 150, 400.0, 300.0)
    run = RunWhat(points=points, over=over, rounded=False, stamp=Setting(op="stamp.stitch", values={"width": 12.0}))
    path = path_of(run, grid)
    assert path.closed == (over != "not at all")
    assert tuple(path.points[0]) == points[0]
    if length is not None:
        assert path.length == pytest.approx(length)
    lap = path.points[-1] - path.points[0]
    assert abs(lap[0]) == (400 if over == "across" or points[-1][0] - points[0][0] == 400 else 0)
    assert abs(lap[1]) == (300 if over == "up" else 0)
    cover = lay_run(grid, run)[MapKind.OPACITY]
    if over == "up":
        assert (cover[0] > 0.5).any() == (cover[-1] > 0.5).any()
    assert cover.max() > 0.9


def test_a_run_stays_where_it_is_put_when_its_points_move():
    surface = Surface(id="s", name="S", width_mm=400.0, height_mm=300.0)
    kind, run = kind_of(RunWhat()), RunWhat(points=((50.0, 20.0), (60.0, 150.0), (40.0, 260.0)), over="up")
    moved = kind.moved(surface, run, "point 0", (70.0, 30.0), False)
    assert moved.value == ((70.0, 30.0), (60.0, 150.0), (40.0, 260.0))
    fresh = kind.fresh(Job(), surface, "Run")
    assert fresh.over == "across"
    assert path_of(fresh, Grid(8, 8, 400.0, 300.0)).length == pytest.approx(400)
